package term

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"coldverdict/core/judge"
	"coldverdict/core/problem"
	"coldverdict/core/verdict"
)

func TestWhatACasePrintedIsShownWholeAndThenWhatChanged(t *testing.T) {
	p := &problem.Problem{Cases: []problem.Case{{Name: "samples/one", Group: "samples"}, {Name: "samples/two", Group: "samples", Sealed: true}}}
	show := func(before map[string]Before, shown map[string]Shown, o verdict.Outcome) string {
		s, out := plainScreen("80")
		view := &TryView{Screen: s, Problem: p, Show: true, Before: before, ShownBefore: shown}
		view.Tell(judge.Began{Plan: judge.Plan{Cases: []int{0, 1}, Limits: verdict.Limits{Time: 1, Memory: 1}}})
		s.Flush()
		out.Reset()
		view.Tell(judge.Case{Index: 0, Outcome: o})
		view.Tell(judge.Case{Index: 1, Outcome: o})
		s.Flush()
		return out.String()
	}
	printed := func(out, errs string) verdict.Outcome {
		return verdict.Outcome{Ran: true, Verdict: verdict.Accepted, Stdout: verdict.Text{Bytes: []byte(out)}, Stderr: verdict.Text{Bytes: []byte(errs)}}
	}
	first := printed("1\n2\n3\n", "")
	assert.Equal(t, "\nsamples\n  AC      0 µs       0 B  one\n    standard output\n    1\n    2\n    3\n  AC      0 µs       0 B  two\n",
		show(nil, nil, first), "of a sealed case nothing is shown")

	before := map[string]Before{"samples/one": BeforeOf(first), "samples/two": BeforeOf(first)}
	shown := map[string]Shown{"samples/one": ShownOf(first)}
	assert.Empty(t, show(before, shown, first), "nothing changed")
	assert.Equal(t, "\nsamples\n  AC      0 µs       0 B  one\n    standard output, what changed\n    …\n     1\n    -2\n    +two\n     3\n    standard error\n    a note\n",
		show(before, shown, printed("1\ntwo\n3\n", "a note\n")))
}

func TestAPartIsToldByWhatIsKnownOfItsAnswer(t *testing.T) {
	data := func(text string) []problem.Data { return []problem.Data{{Text: []byte(text), Size: int64(len(text))}} }
	printed := func(v verdict.Verdict, text string) verdict.Outcome {
		return verdict.Outcome{Ran: true, Verdict: v, Stdout: verdict.Text{Bytes: []byte(text)}}
	}
	refused := []problem.Refused{{Answer: problem.Data{Text: []byte("7\n")}}}
	for want, row := range map[string]struct {
		c problem.Case
		o verdict.Outcome
	}{
		"4, new":                {problem.Case{}, printed(verdict.Unjudged, "4\n")},
		"no answer yet":         {problem.Case{}, printed(verdict.Unjudged, "")},
		"1 ⏎ 2, new":            {problem.Case{}, printed(verdict.Unjudged, "1\n2\n")},
		"4 kept":                {problem.Case{Accepted: data("4\n"), Kept: "kept on"}, printed(verdict.Accepted, "")},
		"4 confirmed":           {problem.Case{Accepted: data("4\n")}, printed(verdict.Accepted, "")},
		"5 in place of 4":       {problem.Case{Accepted: data("4\n"), Kept: "kept on"}, printed(verdict.WrongAnswer, "5\n")},
		"nothing in place of 4": {problem.Case{Accepted: data("4\n")}, printed(verdict.WrongAnswer, "")},
		"7, refused":            {problem.Case{Refused: refused}, printed(verdict.WrongAnswer, "7\n")},
		"time limit exceeded":   {problem.Case{Accepted: data("4\n")}, printed(verdict.TimeLimit, "")},
	} {
		s, out := plainScreen("80")
		s.Print("%s", answerState(row.c, row.o))
		s.Flush()
		assert.Equal(t, want+"\n", out.String())
	}
}
