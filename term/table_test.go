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
           core1.c       core2.c
ice
  1        AC      5 ms  AC      5 ms
  2        AC      5 ms  WA      5 ms
verdict    AC            WA
`)
	assert.Contains(t, got, "\nice/2 of core2.c: wrong answer\n")
	assert.True(t, strings.HasSuffix(got, `
core1.c: accepted (2 cases: 2 accepted), slowest 5 ms of 1 s, largest 1 KiB of 1 MiB
core2.c: wrong answer (2 cases: 1 accepted, 1 wrong answer), slowest 5 ms of 1 s, largest 1 KiB of 1 MiB
`), got)
	assert.Equal(t, 1, strings.Count(got, "  time 1 s"), "limits that are the same are said once")
}

func TestATableThatIsTooWideIsParted(t *testing.T) {
	got := together(t, "50", 1, 5, func(c, s int) bool { return false })
	assert.Equal(t, 3, strings.Count(got, "\nverdict "), got)
	for line := range strings.Lines(got) {
		assert.LessOrEqual(t, width(strings.TrimSuffix(line, "\n")), 50, line)
	}
}

func TestOfManyCasesOnlyThoseThatFailedAreInTheTable(t *testing.T) {
	got := together(t, "80", mostRows+1, 2, func(c, s int) bool { return c == 7 && s == 0 })
	assert.Contains(t, got, "400 cases that every solution passed are left out")
	assert.Contains(t, got, "ice\n  8        WA      5 ms  AC      5 ms\nverdict")
}
