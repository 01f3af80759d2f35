package term

import (
	"bytes"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"

	"coldverdict/core/grade"
	"coldverdict/core/history"
	"coldverdict/core/problem"
	"coldverdict/core/ready"
	"coldverdict/core/steps"
	"coldverdict/core/verdict"
)

// noon is when pictures of the past are looked at.
var noon = time.Date(2026, 12, 1, 12, 0, 0, 0, time.UTC)

func ago(d time.Duration) time.Time { return noon.Add(-d) }

// written is what a screen of 100 columns shows.
func written(show func(s *Screen)) string {
	s, out := plainScreen("100")
	show(s)
	s.Flush()
	return out.String()
}

func TestASpanIsToldAsPeopleCountIt(t *testing.T) {
	for d, want := range map[time.Duration]string{
		-time.Second: "0 s", 0: "0 s", 59 * time.Second: "59 s", time.Minute: "1 min", 59*time.Minute + 59*time.Second: "59 min",
		time.Hour: "1 h 00 min", 3*time.Hour + 5*time.Minute: "3 h 05 min", 47 * time.Hour: "47 h 00 min", 48 * time.Hour: "2 days", 25 * 24 * time.Hour: "25 days",
	} {
		assert.Equal(t, want, Span(d))
	}
	assert.Equal(t, "11:00", When(ago(time.Hour), noon))
	assert.Equal(t, "30 Nov 12:00", When(ago(24*time.Hour), noon))
	assert.Equal(t, "1 Dec 2025", When(ago(365*24*time.Hour), noon))
}

func TestTheLogListsTries(t *testing.T) {
	limits := verdict.Limits{Time: time.Second, Memory: 1 << 28}
	list := []history.Attempt{
		{Number: 9, At: ago(time.Hour), SinceOpened: 3 * time.Minute, Command: "try", File: "teams.cpp", Verdict: verdict.WrongAnswer, Passed: 7, Cases: 9, CPU: 2 * time.Millisecond, Memory: 1 << 20, Limits: limits},
		{Number: 10, At: ago(time.Minute), SinceOpened: 62 * time.Minute, Command: "try", File: "teams.cpp", Args: []string{"most"}, Verdict: verdict.CompileError},
		{Number: 11, At: ago(0), SinceOpened: 63 * time.Minute, Command: history.Kept, File: "teams.cpp", Message: "as it was before try 9 was restored"},
	}
	o := history.Overview{Problem: history.Problem{Name: "teams"}, Opened: ago(63 * time.Minute), Tries: 10, Refused: 9}
	assert.Equal(t, `teams: opened 10:57, open; 10 tries, 9 not accepted

  --last 0 lists all 10
  no.  when        after  solution                   cases     time    memory
    9  11:00       3 min  teams.cpp       WA        7 of 9     2 ms     1 MiB
   10  11:59  1 h 02 min  teams.cpp most  CE
   11  12:00  1 h 03 min  teams.cpp       as it was before try 9 was restored
`, written(func(s *Screen) { s.Log(o, list, noon) }))

	half := 2.5
	one := list[0]
	one.Points, one.Possible, one.Message, one.Source = &half, 10, "line 1", []byte("int main() {\n\treturn 0;\n}\n")
	one.Groups = []history.Group{{Name: "samples", Verdict: verdict.Accepted, Passed: 2, Cases: 2}, {Name: "large", Verdict: verdict.WrongAnswer, Passed: 5, Cases: 7}}
	one.Answers = []history.Answer{{Case: "longest/logbook", Text: "25\n66", State: "open"}}
	assert.Equal(t, `try 9 of teams.cpp, 11:00, 3 min after the problem was opened
  wrong answer (7 of 9 cases), at most 2 ms of 1 s and 1 MiB of 256 MiB: line 1
  2.5 of 10 points
  AC  samples  2 of 2
  WA  large    5 of 7
  longest/logbook: 25\n66 (open)

    int main() {
        return 0;
    }
`, written(func(s *Screen) { s.Attempt(one, noon) }))
	one.Source = nil
	assert.Contains(t, written(func(s *Screen) { s.Attempt(one, noon) }), "the source was not kept")
}

func TestAllProblemsAreListedWithTheirCounts(t *testing.T) {
	all := []history.Overview{
		{Problem: history.Problem{Name: "logbook"}, Opened: ago(2 * time.Hour), Tries: 6, Refused: 2},
		{Problem: history.Problem{Name: "teams"}, Opened: ago(3 * time.Hour), Tries: 4, Refused: 3, Solved: &history.Attempt{Number: 4, File: "teams.cpp", SinceOpened: 31 * time.Minute}},
		{Problem: history.Problem{Name: "new"}, Opened: ago(0)},
	}
	assert.Equal(t, `3 problems, 1 solved

  problem  opened                after   tries  not accepted  solved in
  logbook  10:00   open                      6             2
  teams    09:00   solved       31 min       4             3  teams.cpp
  new      12:00   new                       0             0

  language   tries  accepted  solved
  cpp           10         1       1

  week of      tries  accepted  solved
  2026-11-30      10         1       1
`, written(func(s *Screen) {
		s.Problems(all, []history.Count{{Of: "cpp", Tries: 10, Accepted: 1, Solved: 1}}, []history.Count{{Of: "2026-11-30", Tries: 10, Accepted: 1, Solved: 1}}, noon)
	}))
}

func TestAClockSaysWhatIsLeft(t *testing.T) {
	c := &history.Clock{Began: ago(time.Hour), Length: 90 * time.Minute, Penalty: 20 * time.Minute, Problems: []history.Timed{
		{Problem: history.Problem{Name: "teams"}, Ended: ago(30 * time.Minute)},
		{Problem: history.Problem{Name: "depots"}, Ended: ago(10 * time.Minute), Wrong: 1},
		{Problem: history.Problem{Name: "tents"}, Wrong: 2},
	}}
	assert.Equal(t, `began 11:00, 30 min left
  teams   solved        30 min
  depots  solved    1 h 10 min  1 wrong submission, 20 min each
  tents   open      1 h 00 min  2 wrong submissions, 20 min each
2 of 3 problems solved, 1 h 40 min in all
`, written(func(s *Screen) { s.Clock(c, noon) }))
	assert.Equal(t, "over since 1 h 00 min", ClockWords(c, noon.Add(90*time.Minute)))
	c.Length = 0
	assert.Equal(t, "1 h 00 min since then", ClockWords(c, noon))
	c.Ended = noon
	assert.Contains(t, written(func(s *Screen) { s.Clock(c, noon) }), "began 11:00, ended 12:00\n")
}

func TestADifferenceIsTakenUpLineByLine(t *testing.T) {
	assert.Equal(t, "--- a, try 1\n+++ a, now\n@@ -1,2 +1,2 @@\n-    x\\x1b\n+y\n z\n",
		written(func(s *Screen) { s.Diff("--- a, try 1\n+++ a, now\n@@ -1,2 +1,2 @@\n-\tx\x1b\n+y\n z\n") }), "no byte of a source reaches the terminal")
}

func TestAClassIsATable(t *testing.T) {
	cases := []problem.Case{{Name: "samples/one", Group: "samples"}, {Name: "large/one", Group: "large"}}
	p := &problem.Problem{Title: "Fuel depots", Cases: cases, Rules: []problem.GroupRule{{Name: "large", Points: 60}}}
	score := func(points float64) *verdict.Score {
		s := &verdict.Score{}
		s.Add(verdict.GroupScore{Name: "large", Points: points, Possible: 60, Known: true})
		return s
	}
	groups := map[string]grade.GroupCount{"samples": {Passed: 1, Cases: 1}, "large": {Passed: 1, Cases: 1}}
	r := &grade.Result{Pupils: 3, Cases: []grade.CaseCount{{Case: 1, Failed: 1}}, Alike: []grade.Pair{{A: 0, B: 2, Same: true, Share: 1}, {A: 0, B: 1, Share: 0.84}}, People: []grade.Graded{
		{Person: grade.Person{Name: "anna"}, Tries: []grade.Tried{{Verdict: verdict.Accepted, Score: score(60), Groups: groups, Passed: 2, Cases: 2}}},
		{Person: grade.Person{Name: "ben"}, Counts: 1, Tries: []grade.Tried{{}, {Verdict: verdict.WrongAnswer, Message: "large/one: wrong answer, line 1: expected 3, got 4, and more words than there is room for", Score: score(0), Groups: groups}}},
		{Person: grade.Person{Name: "cleo"}, Tries: []grade.Tried{{Verdict: verdict.CompileError, Message: "line 6: no", Score: score(0)}}},
		{Person: grade.Person{Name: "dag", Lacks: "dag.py is empty"}, Counts: -1},
	}}
	assert.Equal(t, `Fuel depots: 3 hand-ins of 4 people

  person    samples      large      points
  anna          1/1      60/60       60/60  AC
  ben           1/1       0/60        0/60  WA  try 2 of 2; large/one: wrong answer, line 1: expect…
  cleo                    0/60        0/60  CE  line 6: no
  dag                                       dag.py is empty

failed most
     1 of 3  large/one

alike (short programs can be so by chance; look at them)
  anna and cleo: the same but for names and spacing
  anna and ben: 84 % of the shorter one is in the other
`, written(func(s *Screen) { s.Grades(p, r) }))
}

func TestManyProblemsSayWhatChanged(t *testing.T) {
	s, out := plainScreen("100")
	v := &ManyView{Screen: s}
	v.Begin([]string{"depots", "drift", "broken"})
	tried := []history.Attempt{{File: "depots.cpp", Passed: 6, Cases: 6, CPU: 3 * time.Millisecond, Memory: 1 << 20, Limits: verdict.Limits{Time: time.Second, Memory: 1 << 28}}}
	v.Tell(OfMany{Name: "depots", Verdict: verdict.Accepted, Attempts: tried, Known: true, Was: verdict.WrongAnswer, Changed: true})
	v.Tell(OfMany{Name: "drift", Verdict: verdict.WrongAnswer, Attempts: tried, Differ: true, Full: "in full\n"})
	v.Tell(OfMany{Name: "broken", Error: "cases.md:2: this block is never closed"})
	v.Close()
	assert.Equal(t, `  AC  depots  depots.cpp           6 of 6      3 ms of 1 s     1 MiB  was WA
  WA  drift   depots.cpp           6 of 6      3 ms of 1 s     1 MiB  they differ
  ??  broken  cases.md:2: this block is never closed

drift
in full

3 problems: 1 accepted, 1 wrong answer, 1 not tried; 1 changed
`, out.String())
	out.Reset()
	v.Ready("drift", ready.NotReady, "drift.cpp", "why\n")
	v.Ready("depots", ready.Ready, "depots.cpp", "")
	assert.Equal(t, "  drift   no        drift.cpp\n    why\n  depots  yes       depots.cpp\n", out.String())
}

func TestTheStoryOfAProgramIsTold(t *testing.T) {
	r := &steps.Recording{Source: []string{"s = 0", "for i in a:", "    s += i", "print(s)"}, Total: 900, Cut: true, Why: "line 1 was printed", Steps: []steps.Step{
		{Number: 893, Line: 1, Changes: []steps.Change{{Name: "s", Value: "0"}}},
		{Number: 894, Line: 2, Changes: []steps.Change{{Name: "i", Value: "1"}}}, {Number: 895, Line: 3, Changes: []steps.Change{{Name: "s", Value: "1"}}},
		{Number: 896, Line: 2, Changes: []steps.Change{{Name: "i", Value: "2"}}}, {Number: 897, Line: 3, Changes: []steps.Change{{Name: "s", Value: "3"}}},
		{Number: 898, Line: 2}, {Number: 899, Line: 3, Changes: []steps.Change{{Name: "s", Value: "6"}}},
		{Number: 900, Line: 4, Output: "6\n", Depth: 1, Returned: "6", Error: "E\x1b"},
	}}
	got := written(func(s *Screen) {
		s.Steps("sum.py", "samples/one", r, verdict.Outcome{Ran: true, Verdict: verdict.WrongAnswer, Message: "line 1"}, 30)
	})
	assert.Equal(t, `sum.py on samples/one: wrong answer, line 1
  the first 900 steps; it ends here, since line 1 was printed; the last 3 of its story

1  s = 0                                         s = 0
   lines 2 to 3, 3 times
       i from 1 to 2
       s from 1 to 6
4    print(s)                                    E\x1b, returns 6, prints 6
`, got)
	assert.Equal(t, `
first other values than in brute.py
  s, change 2: 3 (line 3), theirs 4 (line 9)
  i, change 3: nothing more, theirs 3 (line 2)
`, written(func(s *Screen) {
		s.Partings("brute.py", []steps.Parting{{Name: "s", Theirs: "s", Change: 2, Value: "3", Other: "4", Line: 3, Beside: 9}, {Name: "i", Theirs: "i", Change: 3, Other: "3", Beside: 2}}, 6)
	}))
	assert.Contains(t, written(func(s *Screen) { s.Partings("brute.py", nil, 6) }), "no variable of the same name")
}

func TestAMergedRunIsToldAsOne(t *testing.T) {
	given := 26.666
	assert.Equal(t, "stale.cpp: wrong answer (6 cases: 4 accepted, 2 wrong answer), 26.67 of 100 points, expected:\naccepted; line 1\n", written(func(s *Screen) {
		s.Merged("stale.cpp", verdict.WrongAnswer, "line 1", map[verdict.Verdict]int{verdict.Accepted: 4, verdict.WrongAnswer: 2}, 6, &given, 100, "accepted")
	}))
}

func TestASideScreenKeepsItsResultsToItself(t *testing.T) {
	s, out := plainScreen("60")
	var aside bytes.Buffer
	other := s.Aside(&aside)
	other.Print("%s", strong.Render("one"))
	other.Progress("nothing")
	other.Flush()
	assert.Equal(t, "one\n", aside.String())
	assert.Empty(t, out.String())
	assert.Equal(t, 60, other.Width)
}
