package report

import (
	"bytes"
	"testing"
	"time"

	"github.com/santhosh-tekuri/jsonschema/v6"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"coldverdict/core/cross"
	"coldverdict/core/problem"
	"coldverdict/core/verdict"
)

func textCase(input, expected string) problem.Case {
	c := problem.Case{Name: "call 1", Input: problem.Data{Text: []byte(input), Size: int64(len(input))}}
	if expected != "" {
		c.Accepted = []problem.Data{{Text: []byte(expected), Size: int64(len(expected))}}
	}
	return c
}

func TestWhatASearchWritesIsWhatTheSchemaSays(t *testing.T) {
	schema, err := jsonschema.NewCompiler().Compile("../docs/cross.schema.json")
	require.NoError(t, err)
	p := &problem.Problem{Dir: "/station/teams"}
	o := cross.Options{Seed: 9, Candidates: []problem.Solution{{File: "a.cpp"}, {File: "b.py"}}, Reference: &problem.Solution{File: "brute.py"}}
	wrong := verdict.Outcome{Verdict: verdict.WrongAnswer, Ran: true, Message: "line 1", Difference: &verdict.Difference{Line: 1, Column: 1, Expected: "2", Got: "3"}}
	large := textCase(string(bytes.Repeat([]byte("1 "), 50_000)), "")
	result := &cross.Result{
		Base: cross.ByReference, Inputs: 7, Runs: 8, Judged: 6, Elapsed: time.Second,
		Found: []cross.Found{
			{Candidate: 1, Cases: []problem.Case{textCase("1\n", "2\n"), textCase("2\n", "2\n")}, Outcome: wrong, Origin: cross.Origin{Edge: "n-least"}, Company: 2, Before: 9, Size: 4, Tries: 3},
			{Way: cross.Unsteady, Cases: []problem.Case{large}, Outcome: wrong, Doubt: "all agree", Complete: true},
			{Way: cross.Disagrees, Cases: []problem.Case{textCase("1\n", "")}, Answers: []cross.Answer{{Candidates: []int{0}, Text: verdict.Text{Bytes: []byte("1\n")}}, {Candidates: []int{1}, Failed: "runtime error"}}},
		},
		Health: cross.Health{Answered: 6, Largest: 80, Slow: 1, SlowFrom: 99, Failed: 1, Wrong: "it loops",
			First: &cross.Failure{Input: large.Input, Outcome: wrong}, WrongOn: &cross.Failure{Input: large.Input, Outcome: wrong}},
		Coverage: cross.Coverage{EdgeCases: 2, Random: 5, Least: 1, Most: 9, Styles: []cross.Tried{{Style: "", Inputs: 3}, {Style: "sorted", Inputs: 2}},
			Counts: []cross.Range{{Name: "n", Least: 1, Most: 4, Answered: 0}, {Name: "m", Least: 1, Most: 4, Answered: -1}}, Answers: []string{"1"}, Never: []string{"the answer 0"}},
		Notes:   []cross.Note{{Candidate: 1, Text: "spacing", Input: []byte("1\n")}},
		Slowest: []cross.Peak{{Time: time.Millisecond, Memory: 9, Bytes: 4}, {}},
	}
	validated := func(write func(b *bytes.Buffer) error) map[string]any {
		var b bytes.Buffer
		require.NoError(t, write(&b))
		value, err := jsonschema.UnmarshalJSON(&b)
		require.NoError(t, err)
		require.NoError(t, schema.Validate(value))
		return value.(map[string]any)
	}
	value := validated(func(b *bytes.Buffer) error { return WriteCross(b, p, o, result) })
	found := value["found"].([]any)
	first := found[0].(map[string]any)
	assert.Equal(t, "b.py", first["file"])
	assert.Len(t, first["cases"], 2)
	assert.Equal(t, "wrong answer", first["outcome"].(map[string]any)["verdict"])
	assert.Equal(t, true, found[1].(map[string]any)["cases"].([]any)[0].(map[string]any)["input_cut"])
	assert.NotContains(t, found[2], "outcome", "nobody knows who is right")
	assert.Len(t, value["slowest"], 1, "what was never run has no times")
	counts := value["coverage"].(map[string]any)["counts"].([]any)
	assert.Contains(t, counts[0], "most_answered", "a known zero is told")
	assert.NotContains(t, counts[1], "most_answered")

	slow := []cross.Slowness{{Candidate: 0, Worst: []cross.Timed{{Bytes: 9, Outcome: verdict.Outcome{Verdict: verdict.TimeLimit}}, {Bytes: 8}}}}
	value = validated(func(b *bytes.Buffer) error {
		return WriteSlow(b, p, o, slow, &cross.Result{Base: cross.ByNothing})
	})
	assert.Len(t, value["slowest"], 2)
	assert.NotContains(t, value, "reference")
}
