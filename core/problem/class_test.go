package problem

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

const cacheClass = "[class]\nname = \"BeaconCache\"\nnew = [\"room: int\"]\nmethods = [\"put(beacon: int, reading: text)\", \"get(beacon: int) -> text?\", \"size() -> int\"]\n"

func TestSequencesOfCallsAreRead(t *testing.T) {
	p := load(t, map[string]string{"verdict.toml": cacheClass, "a.py": "", "cases.md": "## one\n```calls\nnew(2)\nput(1, \"a, (b)\")\n\nget(1) -> \"a, (b)\"\nget(2) -> null\nsize()\n```\n" +
		"## two\n```calls\n[\"BeaconCache\", \"size\"]\n[[1], []]\n```\n```returns\n[null, 0]\n```\n## three\n```calls\nnew(1)\nsize()\n```\n"})
	require.Len(t, p.Cases, 3)
	assert.Equal(t, "calls: [\n  [\"new\", [2]],\n  [\"put\", [1, \"a, (b)\"]],\n  [\"get\", [1]],\n  [\"get\", [2]],\n  [\"size\", []]\n]\n", string(p.Cases[0].Input.Text))
	assert.Equal(t, "[null, null, \"a, (b)\", null, {\"not said\": true}]\n", string(p.Cases[0].Accepted[0].Text))
	assert.Equal(t, "[null, 0]\n", string(p.Cases[1].Accepted[0].Text))
	assert.Empty(t, p.Cases[2].Accepted, "nothing is known of it")
	expected := []any{nil, nil, "a", notSaid}
	assert.Equal(t, []any{nil, nil, nil, notSaid}, p.Call.Compared(expected, []any{nil, nil, nil, int64(3)}), "what is expected to be absent is compared")
	assert.Equal(t, `get(1, "x")`, Sequence([]any{[]any{"get", []any{int64(1), "x"}}}, 0))
}

func TestMistakesInSequencesAreToldWithTheirLine(t *testing.T) {
	for _, tt := range []struct{ table, calls, says string }{
		{cacheClass, "put(1, \"a\")", "cases.md:3: the first call makes an object"},
		{cacheClass, "new(1)\nputt(1, \"a\")", `cases.md:4: BeaconCache has no method putt; did you mean "put"?`},
		{cacheClass, "new(1)\nput(1)", "cases.md:4: put: expected 2 arguments, found ] after 1"},
		{cacheClass, "new(1)\nget(\"x\")", "cases.md:4: get: expected an int"},
		{cacheClass, "new(1)\nget(1) -> 3", "what get returns: expected a text, found 3"},
		{cacheClass, "new(1)\nput(1, \"a\") -> 3", "put returns nothing, and here is 3"},
		{cacheClass, "new(1)\nget(1) = 3", "what it returns stands behind ->"},
		{cacheClass, "new(1)\nsize(1)", "it takes no arguments, and here are 1"},
		{cacheClass, "new(1)\nsize", "expected a call such as get(1) -> 10"},
		{cacheClass, "[\"BeaconCache\"]\n[[1], [2]]", "two arrays of the same length"},
		{cacheClass, "", "there is no call"},
		{"[class]\nname = \"1\"\nmethods = [\"f()\"]\n", "new()", "cannot name a class"},
		{"[class]\nname = \"A\"\nmethods = [\"f(\"]\n", "new()", "is no function"},
		{"[class]\nname = \"A\"\nmethods = [\"f()\", \"f()\"]\n", "new()", "f cannot name a further method"},
		{"[class]\nname = \"A\"\n", "new()", "say which methods it has"},
		{"[call]\nname = \"f\"\ntakes = [\"a: int\"]\nreturns = \"int\"\n", "new()", "the block calls belongs to a problem that asks for a class"},
	} {
		_, err := Load(folder(t, map[string]string{"verdict.toml": tt.table, "a.py": "", "cases.md": "## x\n```calls\n" + tt.calls + "\n```\n"}), words)
		assert.ErrorContains(t, err, tt.says, "%s\n%s", tt.table, tt.calls)
	}
}
