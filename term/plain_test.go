package term

import (
	"testing"
	"time"

	"github.com/stretchr/testify/assert"

	"coldverdict/core/history"
	"coldverdict/core/judge"
	"coldverdict/core/problem"
	"coldverdict/core/rank"
	"coldverdict/core/verdict"
)

func TestPlainLinesLeadToWhereACaseStands(t *testing.T) {
	p := &problem.Problem{Cases: []problem.Case{
		{Name: "samples/one", Where: "cases.md:12"}, {Name: "samples/two", Where: "cases.md:20"},
		{Name: "edges/empty", Where: "cases/edges/empty.in"}, {Name: "edges/later", Where: "cases.md:30"},
	}}
	got := written(func(s *Screen) {
		v := &PlainView{Screen: s, Problem: p}
		v.Tell(judge.Began{Plan: judge.Plan{Solution: problem.Solution{File: "teams.py"}}})
		for i, o := range []verdict.Outcome{
			{Verdict: verdict.Accepted}, {Verdict: verdict.WrongAnswer, Message: "line 1: \x1b[2Jgone"},
			{Verdict: verdict.TimeLimit}, {Verdict: verdict.Skipped},
		} {
			v.Tell(judge.Case{Index: i, Outcome: o})
		}
		v.Tell(judge.Ended{Verdict: verdict.WrongAnswer})
	})
	assert.Contains(t, got, "cases.md:20:1: teams.py: samples/two: wrong answer, line 1: ")
	assert.Contains(t, got, "cases/edges/empty.in:1:1: teams.py: edges/empty: time limit exceeded\n")
	assert.Regexp(t, `\nteams\.py: wrong answer \(.*\)\n$`, got)
	assert.NotContains(t, got, "\x1b", "nothing that a program printed reaches the terminal as it is")
	assert.NotContains(t, got, "samples/one", "a case that passed is no place to go to")
	assert.NotContains(t, got, "edges/later", "nor is one that was not run")
}

func TestPlainLinesOfSeveralSolutionsCountEachByItself(t *testing.T) {
	p := &problem.Problem{Cases: []problem.Case{{Name: "samples/one", Where: "cases.md:12"}}}
	got := written(func(s *Screen) {
		v := &PlainView{Screen: s, Problem: p}
		v.Tell(judge.Began{Plan: judge.Plan{Solution: problem.Solution{File: "a.py"}}})
		v.Tell(judge.Case{Outcome: verdict.Outcome{Verdict: verdict.RuntimeError, Message: "exit status 3"}})
		v.Tell(judge.Ended{Verdict: verdict.RuntimeError})
		v.Tell(judge.Began{Plan: judge.Plan{Solution: problem.Solution{File: "b.py"}}})
		v.Tell(judge.Ended{Verdict: verdict.CompileError, Message: "line 2: never closed"})
	})
	assert.Contains(t, got, "cases.md:12:1: a.py: samples/one: runtime error, exit status 3\na.py: runtime error (")
	assert.Contains(t, got, "b.py: compile error, line 2: never closed\n")
}

func TestATimeIsToldBesideOnesOwnPast(t *testing.T) {
	place := rank.Place{Plan: judge.Plan{Solution: problem.Solution{File: "teams.cpp"}}, Slowest: 20 * time.Millisecond}
	got := written(func(s *Screen) {
		s.Standing(place, history.Standing{Faster: 2, Of: 3, Least: 10 * time.Millisecond, Most: 900 * time.Millisecond})
		s.Standing(place, history.Standing{Of: 1, Least: 10 * time.Millisecond, Most: 10 * time.Millisecond})
	})
	assert.Contains(t, got, "teams.cpp: faster than 2 of your 3 accepted tries of other sources")
	assert.Contains(t, got, "faster than 0 of your 1 accepted try of other sources")
}

func TestWhatIsPackedIsTold(t *testing.T) {
	k := &problem.Packed{Files: map[string][]byte{"verdict.toml": nil, "cases.md": nil}, Cases: 5, LeftOut: 2, Groups: []string{"full-load", "night"}}
	assert.Equal(t, "packed 2 files into for-pupils, with 5 cases\n  cases.md\n  verdict.toml\nleft out: 2 sealed cases of full-load, night\n",
		written(func(s *Screen) { s.Packed("for-pupils", k) }))
	k.LeftOut, k.Cases = 0, 1
	assert.Equal(t, "packed 2 files into out, with 1 case\n  cases.md\n  verdict.toml\n", written(func(s *Screen) { s.Packed("out", k) }))
}
