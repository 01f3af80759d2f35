package report

import (
	"bytes"
	"encoding/json"
	"strings"
	"testing"
	"time"

	"github.com/santhosh-tekuri/jsonschema/v6"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"coldverdict/core/box"
	"coldverdict/core/judge"
	"coldverdict/core/problem"
	"coldverdict/core/toolchain"
	"coldverdict/core/verdict"
)

// written tells a report some events and returns what it writes.
func written(t testing.TB, p *problem.Problem, events ...judge.Event) (text string, value any) {
	r := NewTry(p)
	for _, e := range events {
		r.Tell(e)
	}
	var b bytes.Buffer
	require.NoError(t, r.Write(&b))
	text = b.String()
	value, err := jsonschema.UnmarshalJSON(&b)
	require.NoError(t, err)
	return text, value
}

func TestWhatIsWrittenIsWhatTheSchemaSays(t *testing.T) {
	schema, err := jsonschema.NewCompiler().Compile("../docs/try.schema.json")
	require.NoError(t, err)
	p := &problem.Problem{Dir: "/station/teams", Cases: []problem.Case{{Name: "a/1"}, {Name: "a/2"}, {Name: "a/3"}, {Name: "a/4"}}}
	usage := verdict.Usage{CPU: 2 * time.Millisecond, Wall: 3 * time.Millisecond, Memory: 3500000}
	_, value := written(t, p,
		judge.Building{},
		judge.Held{Hold: box.Hold{Isolation: box.NotIsolated, Contained: true}},
		judge.Began{Plan: judge.Plan{Solution: problem.Solution{File: "a.cpp", Role: "candidate", Expect: "stalled"}, Language: "cpp", Build: &toolchain.Build{Log: "warning: …"}}},
		judge.Case{Index: 0, Outcome: verdict.Outcome{Verdict: verdict.Accepted, Ran: true, Usage: usage, Stdout: verdict.Text{Bytes: []byte("\xff<b>\n"), Cut: true},
			Spread: &verdict.Spread{Runs: 3, Least: time.Millisecond, Median: 2 * time.Millisecond, Most: 3 * time.Millisecond}}},
		judge.Running{},
		judge.Case{Index: 1, Outcome: verdict.Outcome{Verdict: verdict.WrongAnswer, Ran: true, Usage: usage, Message: "m", Hints: []string{"h"}, Unsteady: true,
			Difference: &verdict.Difference{Line: 1, Column: 1, Expected: "3", Got: "4"}}},
		judge.Case{Index: 2, Outcome: verdict.Outcome{Verdict: verdict.RuntimeError, Ran: true, Usage: usage, Signal: "killed (signal 9)"}},
		judge.Case{Index: 3, Outcome: verdict.Outcome{Verdict: verdict.Fault, Message: "gone"}},
		judge.Case{Index: 3, Outcome: verdict.Outcome{Verdict: verdict.WrongAnswer, Ran: true, Usage: usage, Returned: "[1, 4]", Difference: &verdict.Difference{Path: "[1]", Expected: "5", Got: "4"}}},
		judge.Case{Index: 3, Outcome: verdict.Outcome{Verdict: verdict.WrongAnswer, Ran: true, Usage: usage, Returned: "4", Difference: &verdict.Difference{Expected: "5", Got: "4"}}},
		judge.Ended{Verdict: verdict.WrongAnswer},
		judge.Began{Plan: judge.Plan{Solution: problem.Solution{File: "b.py", Role: "reference"}}},
		judge.Ended{Verdict: verdict.Skipped, Message: "no python3"},
	)
	assert.NoError(t, schema.Validate(value))
	first := value.(map[string]any)["solutions"].([]any)[0].(map[string]any)
	assert.Equal(t, false, first["contained"])
	assert.Contains(t, first["lacks"], "a program can use the network")
	cases := first["cases"].([]any)
	assert.Equal(t, map[string]any{"path": "[1]", "expected": "5", "got": "4"}, cases[4].(map[string]any)["difference"], "a value has no lines")
	assert.Equal(t, "4", cases[5].(map[string]any)["returned"])
	_, empty := written(t, p)
	assert.NoError(t, schema.Validate(empty))
}

func TestTheMethodsOfAClassAreWrittenWithTheirTimes(t *testing.T) {
	p := &problem.Problem{Dir: "/station/radio", Cases: []problem.Case{{Name: "a/1"}}}
	began := judge.Began{Plan: judge.Plan{Solution: problem.Solution{File: "radio.py", Role: "candidate"}}}
	text, document := written(t, p, began, judge.Case{Outcome: verdict.Outcome{Verdict: verdict.TimeLimit, Ran: true, Methods: []verdict.MethodTime{{Method: "put", Calls: 500, CPU: 2 * time.Second}, {Method: "new", Calls: 1, CPU: time.Millisecond}}}}, judge.Ended{})
	schema, err := jsonschema.NewCompiler().Compile("../docs/try.schema.json")
	require.NoError(t, err)
	assert.NoError(t, schema.Validate(document))
	assert.Contains(t, strings.Join(strings.Fields(text), " "), `"methods": [ { "method": "put", "calls": 500, "cpu_seconds": 2 }, { "method": "new", "calls": 1, "cpu_seconds": 0.001 } ]`)
}

func TestAbsentFactsAreLeftOutAndKnownZerosAreNot(t *testing.T) {
	p := &problem.Problem{Dir: "/station/teams", Cases: []problem.Case{{Name: "a/1"}}}
	began := judge.Began{Plan: judge.Plan{Solution: problem.Solution{File: "a.cpp", Role: "candidate"}}}
	keys := func(o verdict.Outcome) map[string]any {
		text, _ := written(t, p, began, judge.Case{Outcome: o}, judge.Ended{})
		var all struct {
			Solutions []struct{ Cases []map[string]any }
		}
		require.NoError(t, json.Unmarshal([]byte(text), &all))
		return all.Solutions[0].Cases[0]
	}
	assert.Equal(t, map[string]any{"name": "a/1", "verdict": "fault", "message": "gone"}, keys(verdict.Outcome{Verdict: verdict.Fault, Message: "gone"}))
	ran := keys(verdict.Outcome{Verdict: verdict.Accepted, Ran: true})
	assert.EqualValues(t, 0, ran["exit_code"])
	assert.Equal(t, "", ran["stdout"])
	assert.NotContains(t, ran, "signal")
	assert.NotContains(t, ran, "stdout_cut")
	assert.NotContains(t, keys(verdict.Outcome{Verdict: verdict.TimeLimit, Ran: true}), "exit_code", "we ended it")
}
