package term

import (
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"coldverdict/core/judge"
	"coldverdict/core/problem"
	"coldverdict/core/value"
	"coldverdict/core/verdict"
)

func TestListsAndTreesAreDrawn(t *testing.T) {
	for _, tt := range []struct{ kind, text, drawn string }{
		{"list(int)", "[3, 2, 5]", "3 → 2 → 5"},
		{"list2(text)", `["a", "b"]`, `"a" ⇄ "b"`},
		{"list(int)", `{"list": [3, 2, 5], "cycle": 1}`, "3 → 2 → 5 → back to 2 at 1"},
		{"list(int)", `{"list": [3], "cycle": 0}`, "3 → back to 3 at 0"},
		{"list(int)", "[3]", ""},
		{"tree(int)", "[1]", ""},
		{"int[]", "[1, 2, 3]", ""},
		{"tree(int)", "[3, 9, 20, null, null, 15, 7]", `
  3
┌─┴──┐
9    20
   ┌─┴─┐
   15  7`},
		{"tree(int)", "[1, 2, null, 3]", `
    1
  ┌─┘
  2
┌─┘
3`},
		{"tree(int)", "[1, null, 2, null, 3]", `
1
└─┐
  2
  └─┐
    3`},
		{"nary(int)", "[1, null, 3, 2, 4, null, 5, 6]", `
     1
 ┌───┴┬──┐
 3    2  4
┌┴─┐
5  6`},
		{"nary(int)", "[1, null, 30, 2, null, 5, null, 60]", `
  1
┌─┴─┐
30  2
│   │
5   60`},
		{"nary(int)", "[1, null, 12345]", `
  1
  │
12345`},
		{"tree(int)", "[-100000, 1, 2]", `
-100000
  ┌┴─┐
  1  2`},
	} {
		kind, err := value.ParseType(tt.kind)
		require.NoError(t, err)
		v, err := value.Read(tt.text, kind)
		require.NoError(t, err)
		assert.Equal(t, strings.TrimPrefix(tt.drawn, "\n"), strings.Join(drawNodes(kind, v, 40), "\n"), "%s %s", tt.kind, tt.text)
		assert.Empty(t, drawNodes(kind, v, 2), "there is no room")
	}
}

func TestTreesAreDrawnWhereACaseFails(t *testing.T) {
	s, out := plainScreen("80")
	call, err := problem.ParseCall("mirrored(camp: tree(int), rope: list(int)) -> tree(int)")
	require.NoError(t, err)
	p := &problem.Problem{Title: "Camps", Call: call, Cases: []problem.Case{
		{Name: "samples/one", Group: "samples", Input: problem.Data{Text: []byte("camp: [3, 9, 20]\nrope: {\"list\": [1, 2], \"cycle\": 0}\n"), Size: 50}, Accepted: []problem.Data{{Text: []byte("[3, 20, 9]"), Size: 10}}},
	}}
	view := &TryView{Screen: s, Problem: p, Evidence: 2}
	view.Tell(judge.Began{Plan: judge.Plan{Solution: problem.Solution{File: "a.py"}, Cases: []int{0}}})
	view.Tell(judge.Case{Index: 0, Outcome: verdict.Outcome{
		Verdict: verdict.WrongAnswer, Ran: true, Message: "[1]: expected 20, got 9", Returned: "[3, 9, null, 20]",
		Difference: &verdict.Difference{Path: "[1]", Expected: "20", Got: "9",
			ExpectedSide: verdict.Excerpt{Lines: []string{"[3, 20, 9]"}, Starts: []int{0}, Column: 5, AtStart: true, AtEnd: true},
			GotSide:      verdict.Excerpt{Lines: []string{"[3, 9, null, 20]"}, Starts: []int{0}, Column: 5, AtStart: true, AtEnd: true}},
	}})
	view.Tell(judge.Ended{Verdict: verdict.WrongAnswer})
	s.Flush()
	assert.Contains(t, out.String(), `
  camp
     3
    ┌┴─┐
    9  20

  rope
    1 → 2 → back to 1 at 0
`)
	assert.Contains(t, out.String(), `
  expected, drawn    returned, drawn
      3                    3
    ┌─┴─┐                ┌─┘
    20  9                9
                       ┌─┘
                       20
`)
}

func TestTheTimeOfEachMethodIsShownWhereTheLimitWasPassed(t *testing.T) {
	s, out := plainScreen("80")
	call, err := problem.ParseClass("Radio(room: int); put(beacon: int); count() -> int")
	require.NoError(t, err)
	p := &problem.Problem{Title: "Radio", Call: call, Cases: []problem.Case{{Name: "samples/one", Group: "samples", Input: problem.Data{Text: []byte("new(1)\ncount()\n"), Size: 15}}}}
	view := &TryView{Screen: s, Problem: p, Evidence: 2}
	view.Tell(judge.Began{Plan: judge.Plan{Solution: problem.Solution{File: "radio.py"}, Cases: []int{0}}})
	view.Tell(judge.Case{Index: 0, Outcome: verdict.Outcome{Verdict: verdict.TimeLimit, Ran: true, Methods: []verdict.MethodTime{{Method: "put", Calls: 1500, CPU: 1200 * time.Millisecond}, {Method: "new", Calls: 1, CPU: 20 * time.Microsecond}}}})
	view.Tell(judge.Ended{Verdict: verdict.TimeLimit})
	s.Flush()
	assert.Contains(t, out.String(), "\n  calls, 2 lines, 15 B\n")
	assert.Contains(t, out.String(), "\n  time by method, in its first 1,501 calls\n      1.2 s  put in 1,500 calls\n      20 µs  new in 1 call\n")
}
