package problem

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

const alarmCall = "[call]\nname = \"settled\"\ntakes = [\"alarm: function\", \"pause: int\"]\nreturns = \"function\"\n"

func TestScriptsAreReadBesideTheArguments(t *testing.T) {
	p := load(t, map[string]string{"verdict.toml": alarmCall, "a.js": "", "cases.md": "## one\n```call\npause: 50\n```\n```script\ncall(1, \"a) b\") -> 3\n\nat 20: cancel()\nat 70: expect calls = 1\nexpect alarm.last = [2]\ncall([1])(2)(3)\n```\n" +
		"## two\n```call\npause: 1\nalarm: 7\n```\n```script\ncall()\n```\n", "cases/3.in": "pause: 1\nscript: [\"call()\"]\n", "cases/3.out": "[null]\n"})
	require.Len(t, p.Cases, 3)
	assert.Equal(t, "[3, {\"not said\": true}, 1, [2], {\"not said\": true}]\n", string(p.Cases[0].Accepted[0].Text))
	assert.Empty(t, p.Cases[1].Accepted, "nothing is known of it")
	args, steps, err := p.Call.Script(string(p.Cases[0].Input.Text))
	require.NoError(t, err)
	assert.Equal(t, []any{nil, int64(50)}, args, "the function is left out")
	require.Len(t, steps, 5)
	assert.Equal(t, ScriptStep{Text: "call(1, \"a) b\")", At: -1, What: "call", Args: [][]any{{int64(1), "a) b"}}, Result: notSaid}, steps[0])
	assert.Equal(t, "cancel", steps[1].Name)
	assert.Equal(t, int64(70), steps[2].At)
	assert.Equal(t, "alarm", steps[2].Name, "there is one that is called")
	assert.Equal(t, "last", steps[3].What)
	assert.Equal(t, [][]any{{[]any{int64(1)}}, {int64(2)}, {int64(3)}}, steps[4].Args)
	args, err = p.Call.ReadArguments(string(p.Cases[1].Input.Text))
	require.NoError(t, err)
	assert.Equal(t, []any{int64(7), int64(1)}, args, "what a case gives for a function is what it returns")
}

func TestMistakesInScriptsAreToldWithTheirLine(t *testing.T) {
	plain := "[call]\nname = \"each\"\ntakes = [\"one: function\", \"other: function\"]\nreturns = \"int\"\n"
	for _, tt := range []struct{ table, script, says string }{
		{alarmCall, "call(", "cases.md:6: a parenthesis is not closed"}, {alarmCall, "call(1)\ncall(x)", "cases.md:7: the arguments of call"},
		{alarmCall, "at x: call()", "a moment is written 'at 50:'"}, {alarmCall, "at 5 call()", "a moment is written 'at 50:'"},
		{alarmCall, "at 50: call()\nat 20: call()", "cases.md:7: this step is before the one above it"},
		{alarmCall, "expect 3", "expected 'expect calls = 1'"}, {alarmCall, "expect pause.calls = 1", "say of which argument"}, {alarmCall, "expect calls = x", "what is expected"},
		{alarmCall, "call() = 3", "what it returns stands behind ->"}, {alarmCall, "call() -> x", "what it returns: "}, {alarmCall, "wait", "expected a step such as call(1) -> 3"},
		{alarmCall, "returned -> 3", "a function is returned, which is called"}, {alarmCall, "", "there is no step"},
		{plain, "call()", "expected a step such as"}, {plain, "expect calls = 1", "say of which argument"}, {plain, "returned 3", "what it returns stands behind ->"},
		{"[call]\nname = \"f\"\ntakes = [\"pause: int\"]\nreturns = \"int\"\n", "call()", "the block script belongs to a problem whose function takes or returns functions"},
	} {
		_, err := Load(folder(t, map[string]string{"verdict.toml": tt.table, "a.js": "", "cases.md": "## x\n```call\npause: 5\n```\n```script\n" + tt.script + "\n```\n"}), words)
		assert.ErrorContains(t, err, tt.says, "%s\n%s", tt.table, tt.script)
	}
	for _, signature := range []string{"f(a: function[]) -> int", "f(a: int) -> function?", "f(script: int, g: function) -> int"} {
		_, err := ParseCall(signature)
		assert.Error(t, err, signature)
	}
	_, err := Load(folder(t, map[string]string{"verdict.toml": alarmCall, "a.js": "", "cases.md": "## x\n```call\npause: 5\n```\n"}), words)
	assert.ErrorContains(t, err, "the argument script (text[]) is missing")
}
