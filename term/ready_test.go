package term

import (
	"testing"
	"time"

	"github.com/stretchr/testify/assert"

	"coldverdict/core/cross"
	"coldverdict/core/problem"
	"coldverdict/core/ready"
	"coldverdict/core/verdict"
)

func TestALastLookIsToldCheckByCheck(t *testing.T) {
	s, out := plainScreen("70")
	v := &ReadyView{Screen: s, Problem: &problem.Problem{}, Name: "teams.cpp", Chosen: "edited last"}
	for _, c := range []ready.Check{
		{Name: "build", Message: "C++20"},
		{Name: "source", State: ready.Doubtful, Message: "a judge may have something against it", Findings: []ready.Finding{{Line: 7, Text: "long has 32 bits on some judges' systems; long long has 64 everywhere"}, {Text: "\x1b[31mred"}}},
		{Name: "own cases", State: ready.Irrelevant, Message: "there are none"},
		{Name: "growth", State: ready.Unknown, Message: "its share of the time is over", Took: 3 * time.Second},
	} {
		v.Tell(ready.Started{Name: c.Name})
		v.Tell(ready.Ended{Check: c})
	}
	v.Close(&ready.Result{Outcome: ready.AsFar, Unchecked: []ready.Gap{{What: "Nobody set the time limit", Todo: "write the statement's limits below [limits] in verdict.toml"}}})
	assert.Equal(t, `teams.cpp (edited last)

ok    build          C++20
look  source         a judge may have something against it
                     line 7: long has 32 bits on some judges' systems;
                     long long has 64 everywhere
                     \x1b[31mred
-     own cases      there are none
?     growth         its share of the time is over in 3 s

nobody checked
  Nobody set the time limit; write the statement's limits below
  [limits] in verdict.toml

teams.cpp: ready as far as can be told
`, out.String())
}

func TestWhatIsNotReadyIsShownWithItsInput(t *testing.T) {
	s, out := plainScreen("80")
	v := &ReadyView{Screen: s, Problem: &problem.Problem{}, Name: "teams.cpp"}
	o := verdict.Outcome{Verdict: verdict.RuntimeError, Ran: true, Message: "exit status 3"}
	input := problem.Case{Name: "samples/one", Input: problem.Data{Text: []byte("9 5\n"), Size: 4}}
	gap := []ready.Gap{{What: "There is no sample", Todo: "add one"}}
	for _, name := range []string{"samples/one", ""} {
		out.Reset()
		v.Close(&ready.Result{Outcome: ready.NotReady, Case: name, Found: &cross.Found{Cases: []problem.Case{input}, Outcome: o}, Unchecked: gap})
		assert.Contains(t, out.String(), "9 5")
		assert.Contains(t, out.String(), "runtime error")
		assert.Contains(t, out.String(), "teams.cpp: not ready\n")
		assert.NotContains(t, out.String(), "There is no sample", "what was not checked does not matter any more")
	}
	out.Reset()
	v.Close(&ready.Result{Outcome: ready.NotReady, Log: "a.cpp:3:1: error: expected ;"})
	assert.Contains(t, out.String(), "a.cpp:3:1: error: expected ;")
}
