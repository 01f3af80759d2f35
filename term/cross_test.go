package term

import (
	"slices"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"

	"coldverdict/core/box"
	"coldverdict/core/cross"
	"coldverdict/core/judge"
	"coldverdict/core/problem"
	"coldverdict/core/toolchain"
	"coldverdict/core/verdict"
)

// search shows some events of a search of two candidates and its result.
func search(columns string, p *problem.Problem, base cross.Base, r *cross.Result, events ...cross.Event) string {
	s, out := plainScreen(columns)
	v := &CrossView{Screen: s, Problem: p, Seed: 7, For: "up to 20 s"}
	language := &toolchain.Language{Name: "cpp", Title: "C++"}
	plan := func(file string) judge.Plan {
		return judge.Plan{Solution: problem.Solution{File: file}, Limits: verdict.Limits{Time: time.Second, Memory: 1 << 20},
			Build: &toolchain.Build{Language: language, Tool: "g++ 12", Cached: true}}
	}
	reference := plan("brute.py")
	began := cross.Began{Base: base, Hold: box.Hold{Contained: true}, Candidates: []judge.Plan{plan("greedy.cpp"), plan("ties.py")}}
	if base == cross.ByReference {
		began.Reference = &reference
	}
	v.Tell(began)
	for _, e := range events {
		v.Tell(e)
	}
	if r != nil {
		r.Base = base
		v.Close(r)
	}
	return flushed(s, out)
}

func inputCase(input, expected string) problem.Case {
	c := problem.Case{Input: problem.Data{Text: []byte(input), Size: int64(len(input))}}
	if expected != "" {
		c.Accepted = []problem.Data{{Text: []byte(expected), Size: int64(len(expected))}}
	}
	return c
}

// rejected is an outcome whose first lines differ.
var rejected = verdict.Outcome{Verdict: verdict.WrongAnswer, Ran: true, Message: "line 1: expected 2, got 3", Stdout: verdict.Text{Bytes: []byte("3\n")},
	Difference: &verdict.Difference{Line: 1, Column: 1, Expected: "2", Got: "3",
		ExpectedSide: verdict.Excerpt{FirstLine: 1, Lines: []string{"2"}, Starts: []int{0}, Column: 1, AtStart: true, AtEnd: true},
		GotSide:      verdict.Excerpt{FirstLine: 1, Lines: []string{"3"}, Starts: []int{0}, Column: 1, AtStart: true, AtEnd: true}},
	Hints: []string{"look at ties"}}

func TestAFailureIsShownAsEvidence(t *testing.T) {
	f := cross.Found{Cases: []problem.Case{inputCase("4 3\n1 1 2 2\n", "2\n")}, Outcome: rejected, Origin: cross.Origin{Edge: "n-few.w-blocks"},
		Inputs: 19, After: 300 * time.Millisecond, Before: 14, Size: 12, Tries: 25, Shrunk: time.Second, Complete: true}
	text := search("100", &problem.Problem{}, cross.ByReference, nil, f)
	assert.Equal(t, `greedy.cpp, ties.py against brute.py
  greedy.cpp: C++, g++ 12, built before
  ties.py: C++, g++ 12, built before
  brute.py: C++, g++ 12, built before
  time 1 s, wall 0 µs, memory 1 MiB, output 0 B
  seed 7, up to 20 s

greedy.cpp: wrong answer, line 1: expected 2, got 3
  found after 300 ms and 19 inputs; shrunk from 14 B to 12 B in 1 s, 25 tries
  edge case n-few.w-blocks

  input, 2 lines, 12 B
    1  4 3
    2  1 1 2 2

  expected                   got
  » 1  2                     » 1  3
       ^                          ^

  hint look at ties
`, text)
}

func TestASearchThroughAllValidInputsSaysSo(t *testing.T) {
	all := cross.Result{Base: cross.ByReference, Inputs: 2001, Runs: 20, Judged: 2001, Elapsed: 2 * time.Second, Coverage: cross.Coverage{All: 2001, Least: 2, Most: 5},
		Notes: []cross.Note{{Candidate: cross.TheReference, Text: "it behaved otherwise"}}}
	text := search("100", &problem.Problem{}, cross.ByReference, &all)
	assert.Contains(t, text, "tried 2,001 inputs in 2 s, 1,000 a second: all that are valid, of 2 B to 5 B\n")
	assert.Contains(t, text, "greedy.cpp: no failure on any valid input: all 2,001 were tried")
	assert.Contains(t, text, "note: brute.py: it behaved otherwise\n")
	part := all
	part.Inputs, part.Judged = 300, 300
	text = search("100", &problem.Problem{}, cross.ByReference, &part)
	assert.Contains(t, text, ": of 2,001 that are valid, of 2 B to 5 B\n")
	assert.Contains(t, text, "greedy.cpp: no failure found in 300 answers")
	f := cross.Found{Cases: []problem.Case{inputCase("1777\n", "2\n")}, Outcome: rejected, Origin: cross.Origin{Number: 1778}}
	text = search("100", &problem.Problem{}, cross.ByReference, nil, f)
	assert.Contains(t, text, "\n  input 1778 of all\n")
}

func TestEachWayToFailIsSaidInItsWords(t *testing.T) {
	one := []problem.Case{inputCase("2\n1\n9\n1\n1\n", "9\n1\n")}
	call := problem.Problem{Call: &problem.Call{}}
	for words, f := range map[string]struct {
		problem *problem.Problem
		found   cross.Found
	}{
		"only after other cases: each of these 2 cases on its own is answered as expected; something is left over from the case before": {nil, cross.Found{Cases: one, Outcome: rejected, Company: 2}},
		"only after other cases: each of these 2 calls on its own is answered as expected; something is left over from the call before": {&call, cross.Found{Cases: append(one, one...), Outcome: rejected, Company: 2}},
		"\n  … 2 calls before left out …\n\n  call 3, before it, 5 lines":                                                               {&call, cross.Found{Cases: []problem.Case{one[0], one[0], one[0], one[0], one[0], one[0], one[0]}, Outcome: rejected, Company: 7}},
		"call 1, before it": {&call, cross.Found{Cases: append(one, one...), Outcome: rejected, Company: 2}},
		"greedy.cpp: it does not do the same on every run; wrong answer":                         {nil, cross.Found{Way: cross.Unsteady, Cases: one, Outcome: rejected}},
		"2 candidates give different answers to one input, and no reference says which is right": {nil, cross.Found{Way: cross.Disagrees, Cases: one}},
		"mind: all 2 candidates answer the same here":                                            {nil, cross.Found{Cases: one, Outcome: rejected, Doubt: "all 2 candidates answer the same here"}},
		"12 B, and none smaller fails":                                                           {nil, cross.Found{Cases: one, Outcome: rejected, Before: 12, Size: 12, Complete: true}},
		"from 9 KiB to 12 B in 2 s, 1 try, and perhaps not the smallest":                         {nil, cross.Found{Cases: one, Outcome: rejected, Before: 9 << 10, Size: 12, Tries: 1, Shrunk: 2 * time.Second}},
		"brute.py answers, 2 lines":                                                              {nil, cross.Found{Cases: one, Outcome: verdict.Outcome{Verdict: verdict.RuntimeError}}},
	} {
		p := f.problem
		if p == nil {
			p = &problem.Problem{}
		}
		assert.Contains(t, search("200", p, cross.ByReference, nil, f.found), words)
	}
	answers := []cross.Answer{{Candidates: []int{0}, Text: verdict.Text{Bytes: []byte("3\x1b[2J\n")}}, {Candidates: []int{1}, Failed: "stalled"}}
	text := search("100", &problem.Problem{}, cross.ByEachOther, nil, cross.Found{Way: cross.Disagrees, Cases: one, Answers: answers})
	assert.Contains(t, text, "\n  greedy.cpp\n    3")
	assert.Contains(t, text, "\n  ties.py: stalled\n")
	assert.NotContains(t, text, "\x1b", "no program reaches the terminal")
}

func TestTheEndOfASearchSaysWhatWasTried(t *testing.T) {
	failure := &cross.Failure{Input: problem.Data{Text: []byte("5\n"), Size: 2}, Outcome: verdict.Outcome{Verdict: verdict.RuntimeError, Message: "aborted"}}
	r := &cross.Result{Inputs: 1200, Judged: 1100, Elapsed: 4 * time.Second, Found: []cross.Found{{Candidate: 1, Outcome: rejected}},
		Health: cross.Health{Answered: 1100, Largest: 3000, Slow: 2, SlowFrom: 4000, Failed: 3, First: failure},
		Coverage: cross.Coverage{EdgeCases: 50, Random: 1150, Least: 4, Most: 1 << 20, Styles: []cross.Tried{{Inputs: 9}, {Style: "sorted", Inputs: 4}},
			Counts: []cross.Range{{Name: "n", Least: 1, Most: 100000, Answered: 40}}, Never: []string{"the answer 0", "the answer -1, which samples/2 expects"}},
		Notes:   []cross.Note{{Candidate: 0, Text: "it answers otherwise when lines of the input end in a blank", Input: []byte("1 2\n3\n")}},
		Slowest: []cross.Peak{{Time: 250 * time.Millisecond, Memory: 512 << 10, Bytes: 99, Origin: cross.Origin{Seed: 3, Style: "sorted"}}, {}},
	}
	text := search("100", &problem.Problem{}, cross.ByReference, r)
	for _, words := range []string{
		"tried 1,200 inputs in 4 s, 300 a second: 50 edge cases and 1,150 random ones, of 4 B to 1 MiB, in 1\nstyle\n",
		"  with n 1 to 100,000\n", "  never came: the answer 0; the answer -1, which samples/2 expects\n",
		"brute.py was too slow for 2 inputs, the smallest of 3.9 KiB; what is larger than 2.9 KiB was held to\nthe limits only\n",
		"mind: brute.py itself failed on 3 inputs, which count for nothing\n  runtime error, aborted\n\n  input, 1 line, 2 B\n    1  5\n",
		"note: greedy.cpp: it answers otherwise when lines of the input end in a blank, such as 1 2 3\n",
		"greedy.cpp: slowest 250 ms of 1 s (25 %), 512 KiB of 1 MiB at most; seed 2:3, size 0, style sorted, 99 B\n",
		"greedy.cpp: no failure found in 1,100 answers; ties.py: wrong answer\n",
	} {
		assert.Contains(t, strings.ReplaceAll(text, "\n", " "), strings.ReplaceAll(words, "\n", " "))
	}
	for _, line := range strings.Split(text, "\n") {
		assert.LessOrEqual(t, width(line), 100)
	}
	both := *r
	both.Found = append(slices.Clone(r.Found), cross.Found{Candidate: 0, Outcome: rejected})
	text = search("200", &problem.Problem{}, cross.ByReference, &both)
	assert.Contains(t, text, "mind: brute.py itself failed on 3 inputs, which count for nothing (runtime error, first on 2 B)\n")
	assert.NotContains(t, text, "input, 1 line", "all candidates are known to fail")
	ends := map[string]*cross.Result{
		"greedy.cpp: nothing was judged; ties.py: nothing was judged": {Inputs: 5},
		"brute.py cannot serve as a reference: it loops":              {Health: cross.Health{Wrong: "it loops", WrongOn: failure}},
		"the candidates disagree":                                     {Inputs: 5, Found: []cross.Found{{Way: cross.Disagrees}}},
	}
	for words, r := range ends {
		assert.Contains(t, search("200", &problem.Problem{}, cross.ByReference, r), words)
	}
	assert.Contains(t, search("200", &problem.Problem{}, cross.ByNothing, &cross.Result{Inputs: 5}), "greedy.cpp: nothing found; nobody knows whether its answers are right")
	assert.Contains(t, search("200", &problem.Problem{}, cross.ByEachOther, &cross.Result{Inputs: 5}), "ties.py: no difference found")
}

func TestSlowInputsAreListedTheSlowestFirst(t *testing.T) {
	s, out := plainScreen("100")
	v := &CrossView{Screen: s, candidates: []judge.Plan{{Solution: problem.Solution{File: "a.cpp"}, Limits: verdict.Limits{Time: time.Second}}}}
	timed := func(d time.Duration, verdict_ verdict.Verdict) cross.Timed {
		return cross.Timed{Origin: cross.Origin{Edge: "n-largest"}, Bytes: 1 << 20, Outcome: verdict.Outcome{Verdict: verdict_, Usage: verdict.Usage{CPU: d}}}
	}
	show := func(worst ...cross.Timed) string {
		out.Reset()
		v.CloseSlow([]cross.Slowness{{Worst: worst, Spread: verdict.Spread{Runs: 5, Least: time.Millisecond, Most: 2 * time.Millisecond}}}, &cross.Result{Inputs: 3})
		return flushed(s, out)
	}
	assert.Contains(t, show(timed(time.Second, verdict.TimeLimit)), "a.cpp: time limit exceeded, with edge case n-largest\n")
	assert.Contains(t, show(timed(600*time.Millisecond, 0)), "a.cpp: near the limit: at most 600 ms of 1 s (60 %)")
	many := make([]cross.Timed, 12)
	for i := range many {
		many[i] = timed(time.Duration(12-i)*time.Millisecond, 0)
	}
	text := show(many...)
	assert.Contains(t, text, "a.cpp: within the limit: at most 12 ms of 1 s (1 %), with edge case n-largest; in 5 runs 1 ms to 2\nms")
	assert.Contains(t, text, "and 4 others, which took less\n")
	assert.Equal(t, 8, strings.Count(text, "1 MiB  edge case"))
	assert.Contains(t, show(), "a.cpp: nothing was tried\n")
}
