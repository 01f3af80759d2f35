package term

import (
	"bytes"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"

	"coldverdict/core/edges"
	"coldverdict/core/judge"
	"coldverdict/core/problem"
	"coldverdict/core/shape"
	"coldverdict/core/toolchain"
	"coldverdict/core/verdict"
)

// plainScreen is a screen of a width whose results are kept.
func plainScreen(columns string) (*Screen, *bytes.Buffer) {
	var out bytes.Buffer
	return NewScreen(&out, &bytes.Buffer{}, []string{"COLUMNS=" + columns, "NO_COLOR=1"}), &out
}

func TestTheTourSaysOfEachSolutionWhatItDidAndShould(t *testing.T) {
	s, out := plainScreen("80")
	p := &problem.Problem{Title: "Fuel depots", Cases: []problem.Case{{Name: "samples/one"}}}
	for _, file := range []string{"right.cpp", "slow.cpp", "broken.cpp", "odd.py", "gone.go"} {
		p.Solutions = append(p.Solutions, problem.Solution{File: file})
	}
	p.Solutions[1].Expect = "time limit exceeded"
	p.Solutions[2].Expect = "compile error"
	view := &DemoView{Screen: s, Problem: p, Words: map[string]string{"right.cpp": "Adds up.", "slow.cpp": "Too slow."}}
	view.Begin("What it shows.")
	run := func(i int, v verdict.Verdict, message string, o *verdict.Outcome, build *toolchain.Build) {
		view.Tell(judge.Building{Solution: i})
		view.Tell(judge.Began{Solution: i, Plan: judge.Plan{Solution: p.Solutions[i], Build: build, Limits: verdict.Limits{Time: time.Second}}})
		if o != nil {
			view.Tell(judge.Case{Solution: i, Outcome: *o})
		}
		view.Tell(judge.Ended{Solution: i, Verdict: v, Message: message})
	}
	run(0, verdict.Accepted, "", &verdict.Outcome{Verdict: verdict.Accepted}, nil)
	run(1, verdict.TimeLimit, "", &verdict.Outcome{Verdict: verdict.TimeLimit, Hints: []string{"a loop"}}, nil)
	run(2, verdict.CompileError, "line 1: no", nil, &toolchain.Build{Failed: true})
	run(3, verdict.WrongAnswer, "", &verdict.Outcome{Verdict: verdict.WrongAnswer, Message: "line 1: expected 3, got 4"}, nil)
	run(4, verdict.Skipped, "no go on this machine", nil, nil)
	assert.Equal(t, DemoTally{AsExpected: 3, Other: 1, Skipped: 1}, view.Tally)
	view.End()
	s.DemoEnd(view.Tally)
	s.Flush()
	assert.Equal(t, `Fuel depots
What it shows.

  AC  right.cpp   Adds up.
  TLE slow.cpp    Too slow.
                  samples/one: still running after 1 s
                  hint: a loop
  CE  broken.cpp  
                  line 1: no
  WA  odd.py      
                  samples/one: line 1: expected 3, got 4
                  expected: accepted
  skipped for want of a compiler: gone.go; 'cold host' says what to install
1 of 4 solutions did not get the verdict that it should. 1 solution skipped for want of a compiler.
`, out.String())
}

func TestTheEndOfTheTourSaysHowItWent(t *testing.T) {
	for tally, says := range map[DemoTally]string{
		{AsExpected: 24}:            "24 solutions: every verdict came out as it should.\n",
		{AsExpected: 1, Skipped: 2}: "1 solution: every verdict came out as it should. 2 solutions skipped",
		{Skipped: 3}:                "Nothing could be shown: 3 solutions skipped",
		{Other: 1, AsExpected: 1}:   "1 of 2 solutions did not get",
	} {
		s, out := plainScreen("120")
		s.DemoEnd(tally)
		s.Flush()
		assert.Contains(t, out.String(), says)
	}
}

func TestCasesAreListedByGroup(t *testing.T) {
	s, out := plainScreen("80")
	one := []problem.Data{{Text: []byte("3\n"), Size: 2}}
	p := &problem.Problem{Cases: []problem.Case{
		{Name: "samples/one", Group: "samples", Accepted: one, Where: "cases.md:2", Input: problem.Data{Size: 12}},
		{Name: "edge/\x1b[2Jties", Group: "edge", Accepted: append(one, one...), Reason: "Two alike.\n\nMore.", Input: problem.Data{Size: 4 << 20}},
		{Name: "edge/open", Group: "edge", Where: "cases.md:9"},
	}}
	s.Cases(p, []int{0, 1, 2})
	s.Cases(p, nil)
	s.Flush()
	assert.Equal(t, `samples
  one              12 B  1 answer     cases.md:2

edge
  \x1b[2Jties     4 MiB  2 answers    Two alike.
  open              0 B  no answer    cases.md:9

3 cases
no cases yet; 'cold case add' adds one
`, out.String())
}

func TestACaseIsShownInFull(t *testing.T) {
	s, out := plainScreen("60")
	long := strings.Repeat("7\n", 100)
	s.Case(&problem.Problem{}, problem.Case{Name: "a/1", Where: "cases.md:2", Reason: "Why.", Input: problem.Data{Text: []byte(long), Size: int64(len(long))},
		Accepted: []problem.Data{{Text: []byte("3\n"), Size: 2}, {Text: []byte("4"), Size: 1}}})
	s.Case(&problem.Problem{}, problem.Case{Name: "a/2", Input: problem.Data{}})
	s.Case(&problem.Problem{Call: &problem.Call{}}, problem.Case{Name: "a/3", Input: problem.Data{Text: []byte("k = 1\n"), Size: 6}, Accepted: []problem.Data{{Text: []byte("2\n"), Size: 2}}})
	s.Flush()
	for _, part := range []string{"a/1  cases.md:2\n  Why.\n", "input, 100 lines, 200 B", "   60  7\n  … 30 lines left out …\n     91  7", "output, 1 line, 2 B", "or, 1 line, 1 B", "input is empty", "the answer is not known", "arguments, 1 line, 6 B", "returns, 1 line, 2 B"} {
		assert.Contains(t, out.String(), part)
	}
}

func TestALargeFileIsShownByItsEnds(t *testing.T) {
	s, out := plainScreen("60")
	text := strings.Repeat("1234567\n", 20_000)
	s.printData("input", problem.Data{Text: []byte(text), Size: int64(len(text))}, shownShort)
	s.printData("gone", problem.Data{Path: "/no/such/file", Size: 1 << 20}, shownShort)
	s.Flush()
	assert.Contains(t, out.String(), "input, 156 KiB\n    1  1234567\n")
	assert.Contains(t, out.String(), "… 156 KiB left out …\n    1234567")
	assert.Contains(t, out.String(), "gone cannot be read")
}

func TestWordsAreWrappedAtBlanksOnly(t *testing.T) {
	assert.Equal(t, []string{"apt install", "golang-go"}, wrapWords("apt install golang-go", 12))
	assert.Equal(t, []string{"aaaaa", "aaa b"}, wrapWords("aaaaaaaa  b", 5))
	assert.Equal(t, []string{""}, wrapWords("", 5))
}

func TestProgressIsForTerminalsOnly(t *testing.T) {
	var remarks bytes.Buffer
	s := NewScreen(&bytes.Buffer{}, &remarks, nil)
	s.Progress("12 of 20 cases")
	assert.Empty(t, remarks.String())
	s.moving = true
	s.Progress("12 of 20 cases")
	s.Progress("12 of 20 cases")
	assert.Equal(t, "\r12 of 20 cases\x1b[K", remarks.String(), "the same is not drawn again")
	s.Print("a line")
	assert.True(t, strings.HasSuffix(remarks.String(), "\r\x1b[K"), "a result takes its place")
}

func TestBlanksAreSeenWhereTheyAreTheDifference(t *testing.T) {
	e := verdict.Excerpt{FirstLine: 1, Lines: []string{"3 4 "}, Starts: []int{0}, Column: 4, AtStart: true, AtEnd: true}
	for kind, shown := range map[verdict.DifferenceKind]string{verdict.InSpacing: "3·4·", verdict.InAmount: "3 4 ", verdict.InText: "3 4 "} {
		s, out := plainScreen("80")
		s.printSides(&verdict.Difference{Kind: kind, ExpectedSide: e, GotSide: e}, "expected", "printed")
		s.Flush()
		assert.Contains(t, out.String(), "1  "+shown)
	}
}

func TestAFunctionIsShownWithItsArgumentsAndWhatItReturned(t *testing.T) {
	s, out := plainScreen("80")
	call, err := problem.ParseCall("longest_thaw(temps: int[]) -> int[]")
	assert.NoError(t, err)
	p := &problem.Problem{Title: "Thaw", Call: call, Cases: []problem.Case{
		{Name: "samples/one", Group: "samples", Input: problem.Data{Text: []byte("temps = [4, -2]\n"), Size: 16}, Accepted: []problem.Data{{Text: []byte("[1, 5]")}}},
		{Name: "samples/two", Group: "samples", Input: problem.Data{Text: []byte("temps = [4]\n"), Size: 12}},
	}}
	limits := verdict.Limits{Time: time.Second, Memory: 64 << 20}
	view := &TryView{Screen: s, Problem: p, Evidence: 2}
	view.Tell(judge.Began{Plan: judge.Plan{Solution: problem.Solution{File: "thaw.py"}, Limits: limits, Cases: []int{0, 1}}})
	view.Tell(judge.Case{Index: 0, Outcome: verdict.Outcome{
		Verdict: verdict.WrongAnswer, Ran: true, Usage: verdict.Usage{CPU: 12 * time.Microsecond, Memory: 13 << 20}, Message: "[1]: expected 5, got 4", Returned: "[1, 4]",
		Stdout: verdict.Text{Bytes: []byte("looking\n")},
		Difference: &verdict.Difference{Path: "[1]", Expected: "5", Got: "4",
			ExpectedSide: verdict.Excerpt{Lines: []string{"[1, 5]"}, Starts: []int{0}, Column: 5, AtStart: true, AtEnd: true},
			GotSide:      verdict.Excerpt{Lines: []string{"[1, 4]"}, Starts: []int{0}, Column: 5, AtStart: true, AtEnd: true}},
	}})
	view.Tell(judge.Case{Index: 1, Outcome: verdict.Outcome{Verdict: verdict.Unjudged, Ran: true, Returned: "[1]", Message: "returned [1]"}})
	view.Tell(judge.Ended{Verdict: verdict.WrongAnswer})
	s.Flush()
	assert.Equal(t, `thaw.py
  time 1 s, wall 0 µs, memory 64 MiB, output 0 B

samples
  WA     12 µs    13 MiB  one  [1]: expected 5, got 4
  --      0 µs       0 B  two  returned [1]

samples/one: wrong answer, [1]: expected 5, got 4

  arguments, 1 line, 16 B
    1  temps = [4, -2]

  expected                   returned
  »   [1, 5]                 »   [1, 4]
          ^                          ^

  printed
    looking

samples/two: unjudged, returned [1]

  returned
    [1]

  arguments, 1 line, 12 B
    1  temps = [4]

thaw.py: wrong answer (2 cases: 1 wrong answer, 1 unjudged)
  nearest to a limit: 12 µs of 1 s and 13 MiB of 64 MiB in samples/one
`, out.String())
}

func TestAFaultOfAnInputIsShownWithItsLine(t *testing.T) {
	s, out := plainScreen("80")
	c := problem.Case{Name: "samples/one", Input: problem.Data{Text: []byte("2 5\n4 \x1b[31m12\n")}}
	s.Fault(c, &shape.Fault{Line: 2, Nth: 2, Column: 3, Text: "w[1] is 12, outside 1..5 (cap)"})
	s.Fault(c, &shape.Fault{Line: 9, Text: "expected another line"})
	s.Explanation([]string{"line 1: n, an integer from 1 to 5", "  a line: " + strings.Repeat("and one more ", 12)})
	s.Flush()
	assert.Equal(t, "samples/one: line 2, 2nd value: w[1] is 12, outside 1..5 (cap)\n  4 \\x1b[31m12\n"+
		"samples/one: line 9: expected another line\nline 1: n, an integer from 1 to 5\n"+
		"  a line: and one more and one more and one more and one more and one more and\n    one more and one more and one more and one more and one more and one more\n    and one more\n", out.String())
}

func TestEdgeCasesAreListedWithTheirSizes(t *testing.T) {
	s, out := plainScreen("40")
	s.EdgeCase(shape.EdgeCase{Name: "n-least.w-all-equal", Bytes: 6})
	s.EdgeCase(shape.EdgeCase{Name: "n-largest.w-few-distinct.q-largest.branches-only-2", Bytes: 2 << 20})
	s.EdgeCover(shape.EdgeCases{Cases: make([]shape.EdgeCase, 2), Pairs: 12, Covered: 12})
	s.EdgeCover(shape.EdgeCases{Cases: make([]shape.EdgeCase, 1), Pairs: 1200, Covered: 7, Contradicting: 2, GaveWay: 1})
	s.EdgeCover(shape.EdgeCases{Cases: make([]shape.EdgeCase, 1)})
	s.Edges(&edges.Added{Made: 3, From: "input.shape", Answers: "brute.py answers all of them\x1b[2J"})
	s.Flush()
	assert.Equal(t, `       6 B  n-least.w-all-equal
     2 MiB  n-largest.w-few-distinct.q-l
            argest.branches-only-2
2 edge cases; all 12 pairs of choices
are in them
1 edge case; 7 pairs of choices, of
1,200 pairs, are in them; in 1 other a
style gave way to what the shape
requires; 2 combinations contradict the
shape
1 edge case; there is nothing to choose
in this shape
3 edge cases from input.shape: brute.py
answers all of them\x1b[2J

`, out.String())
}
