package term

import (
	"fmt"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"

	"coldverdict/core/judge"
	"coldverdict/core/problem"
	"coldverdict/core/verdict"
)

// together shows solutions that each pass every case but those that fails says.
func together(t *testing.T, columns string, cases, solutions int, fails func(c, s int) bool) string {
	s, out := plainScreen(columns)
	p := &problem.Problem{}
	for i := range cases {
		p.Cases = append(p.Cases, problem.Case{Name: fmt.Sprintf("ice/%d", i+1), Group: "ice"})
	}
	v := &TryView{Screen: s, Problem: p, Together: true, Evidence: 1}
	for n := range solutions {
		plan := judge.Plan{Solution: problem.Solution{File: fmt.Sprintf("core%d.c", n+1)}, Limits: verdict.Limits{Time: time.Second, Memory: 1 << 20}}
		v.Tell(judge.Began{Solution: n, Plan: plan})
		sum := verdict.Accepted
		for c := range cases {
			o := verdict.Outcome{Verdict: verdict.Accepted, Ran: true, Usage: verdict.Usage{CPU: 5 * time.Millisecond, Memory: 1 << 10}}
			if fails(c, n) {
				o.Verdict, sum = verdict.WrongAnswer, verdict.WrongAnswer
			}
			v.Tell(judge.Case{Solution: n, Index: c, Outcome: o})
		}
		v.Tell(judge.Ended{Solution: n, Verdict: sum})
	}
	s.Flush()
	assert.Empty(t, out.String(), "it is shown when all have ended")
	v.Close()
	s.Flush()
	return out.String()
}

func TestSeveralSolutionsStandInOneTable(t *testing.T) {
	got := together(t, "120", 2, 2, func(c, s int) bool { return c == 1 && s == 1 })
	assert.Contains(t, got, `
                 core1.c                 core2.c
ice
  1              AC      5 ms     1 KiB  AC      5 ms     1 KiB
  2              AC      5 ms     1 KiB  WA      5 ms     1 KiB
verdict          AC                      WA
`)
	assert.Contains(t, got, "\nice/2 of core2.c: wrong answer\n")
	assert.True(t, strings.HasSuffix(got, `
core1.c: accepted (2 cases: 2 accepted), at most 5 ms of 1 s and 1 KiB of 1 MiB
core2.c: wrong answer (2 cases: 1 accepted, 1 wrong answer), at most 5 ms of 1 s and 1 KiB of 1 MiB
`), got)
	assert.Equal(t, 1, strings.Count(got, "  time 1 s"), "limits that are the same are said once")
}

func TestATableThatIsTooWideIsParted(t *testing.T) {
	got := together(t, "50", 1, 5, func(c, s int) bool { return false })
	assert.Equal(t, 5, strings.Count(got, "\nverdict "), got)
	for line := range strings.Lines(got) {
		assert.LessOrEqual(t, width(strings.TrimSuffix(line, "\n")), 50, line)
	}
}

func TestOfManyCasesOnlyThoseThatFailedAreInTheTable(t *testing.T) {
	got := together(t, "80", mostRows+1, 2, func(c, s int) bool { return c == 7 && s == 0 })
	assert.Contains(t, got, "400 cases that every solution passed are left out")
	assert.Contains(t, got, "ice\n  8              WA      5 ms     1 KiB  AC      5 ms     1 KiB\nverdict")
}

func TestOfTwoAnswersThatNobodyCanJudgeBothAreShown(t *testing.T) {
	s, out := plainScreen("100")
	p := &problem.Problem{Cases: []problem.Case{{Name: "part/logbook", Group: "part", Input: problem.Data{Text: []byte("3\n4\n"), Size: 4}}, {Name: "part/sums", Group: "part"}}}
	v := &TryView{Screen: s, Problem: p, Together: true, Evidence: 1, Names: []string{"sum.c", "old/sum.c"}}
	for n, printed := range []string{"7\n1\n", "8\n1\n"} {
		v.Tell(judge.Began{Solution: n, Plan: judge.Plan{Limits: verdict.Limits{Time: time.Second, Memory: 1 << 20}}})
		o := verdict.Outcome{Ran: true, Stdout: verdict.Text{Bytes: []byte(printed)}}
		if n == 1 {
			o.Differs = &verdict.Differs{Difference: &verdict.Difference{
				ExpectedSide: verdict.Excerpt{FirstLine: 1, Lines: []string{"7", "1"}, Starts: []int{0, 0}, Column: 1, AtStart: true, AtEnd: true},
				GotSide:      verdict.Excerpt{FirstLine: 1, Lines: []string{"8", "1"}, Starts: []int{0, 0}, Column: 1, AtStart: true, AtEnd: true},
			}}
		}
		v.Tell(judge.Case{Solution: n, Index: 0, Outcome: o})
		v.Tell(judge.Case{Solution: n, Index: 1, Outcome: verdict.Outcome{Ran: true}})
		v.Tell(judge.Ended{Solution: n, Verdict: verdict.Accepted, Score: &verdict.Score{Points: 10, Possible: 40, Groups: []verdict.GroupScore{{Name: "a", Points: 10, Possible: 10, Known: true}, {Name: "part", Possible: 30}}}})
	}
	v.Tell(judge.Amended{Solution: 0, Verdict: verdict.Unjudged, Message: "one of the two is wrong"})
	v.Close()
	s.Flush()
	assert.Contains(t, out.String(), `
                 sum.c                   old/sum.c
part
  logbook        --      0 µs       0 B  --      0 µs       0 B
    they differ  7 ⏎ 1                   8 ⏎ 1
  sums           --      0 µs       0 B  --      0 µs       0 B
    printed      nothing                 nothing
verdict          --                      AC
points           at least 10 of 40       at least 10 of 40

part/logbook: answered differently by sum.c and old/sum.c; one of the two is wrong

  sum.c                      old/sum.c
  » 1  7                     » 1  8
`)
	assert.Contains(t, out.String(), "sum.c: unjudged (2 cases: 2 unjudged)")
	assert.Contains(t, out.String(), "  at least 10 of 40 points: a 10 of 10, part not known of 30\n", "on a pipe there is no colour, and none of its codes either")
}

func TestSolutionsHaveTheShortestNamesThatTellThemApart(t *testing.T) {
	for names, files := range map[string][]string{
		"sum.c old/sum.c": {"sum.c", "old/sum.c"},
		"a/sum.c b/sum.c": {"/home/kim/a/sum.c", "/home/kim/b/sum.c"},
		"sum.c sum.py":    {"/home/kim/a/sum.c", "sum.py"},
		"a.c a.c":         {"x/a.c", "x/a.c"},
		"x/y/a.c z/y/a.c": {"x/y/a.c", "z/y/a.c"},
	} {
		var list []problem.Solution
		for _, file := range files {
			list = append(list, problem.Solution{File: file})
		}
		assert.Equal(t, names, strings.Join(SolutionNames(list), " "))
	}
	assert.Equal(t, "sum.c second (cpp17)", solutionName(problem.Solution{File: "/tmp/sum.c", Args: []string{"second"}, Language: "cpp17"}))
}

func TestLongNamesAreCutInTheirMiddle(t *testing.T) {
	assert.Equal(t, "abcd…6789", fitMiddle("abcdefghijklmnop0123456789", 9))
	assert.Equal(t, "氷…氷", fitMiddle("氷氷氷氷氷", 5))
	assert.Equal(t, "short", fitMiddle("short", 5))
}
