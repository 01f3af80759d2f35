package problem

import (
	"os"
	"path/filepath"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"coldverdict/core/value"
)

const cacheClass = "[class]\nname = \"BeaconCache\"\nnew = [\"room: int\"]\nmethods = [\"put(beacon: int, reading: text)\", \"get(beacon: int) -> text?\", \"size() -> int\"]\n"

func TestSequencesOfCallsAreRead(t *testing.T) {
	p := load(t, map[string]string{"verdict.toml": cacheClass, "a.py": "", "cases.md": "## one\n```calls\nnew(2)\nput(1, \"a, (b)\")\n\nget(1) -> \"a, (b)\"\nget(2) -> null\nsize()\n```\n" +
		"## two\n```calls\n[\"BeaconCache\", \"size\"]\n[[1], []]\n```\n```returns\n[null, 0]\n```\n## three\n```calls\nnew(1)\nsize()\n```\n"})
	require.Len(t, p.Cases, 3)
	assert.Equal(t, "new(2)\nput(1, \"a, (b)\")\nget(1)\nget(2)\nsize()\n", string(p.Cases[0].Input.Text))
	assert.Equal(t, "[null, null, \"a, (b)\", null, {\"not said\": true}]\n", string(p.Cases[0].Accepted[0].Text))
	assert.Equal(t, "[null, 0]\n", string(p.Cases[1].Accepted[0].Text))
	assert.Empty(t, p.Cases[2].Accepted, "nothing is known of it")
	expected := []any{nil, nil, "a", notSaid}
	assert.Equal(t, []any{nil, nil, "a", int64(3)}, p.Call.Expected(expected, []any{nil, nil, nil, int64(3)}), "what is expected is compared, and nothing else")
	args, err := p.Call.ReadArguments("new(2)\nget(1)\n")
	require.NoError(t, err)
	assert.Equal(t, []any{[]any{[]any{"new", []any{int64(2)}}, []any{"get", []any{int64(1)}}}}, args)
}

func TestObjectsAndResultsOfASequenceHaveNames(t *testing.T) {
	call := sequenceOf("Log", &Class{New: nil, Methods: []Method{
		{Name: "text", Returns: &value.Type{Kind: value.Text}},
		{Name: "read", Takes: []value.Field{{Name: "from", Type: value.Type{Kind: value.Text}}, {Name: "n", Type: value.Type{Kind: value.Int}}}},
	}})
	steps, err := call.Steps("a = new()\nb = Log()\nsaid = a.text() -> \"x\"\nread(said, 3)\na.read(\"said, (\", 4)\nnew()\ntext()\n")
	require.NoError(t, err)
	objects := []int{}
	for _, s := range steps {
		objects = append(objects, s.Object)
	}
	assert.Equal(t, []int{0, 1, 0, 1, 0, 2, 2}, objects, "a call without a name belongs to the last")
	assert.Equal(t, "said = a.text()", steps[2].Text)
	assert.Equal(t, "x", steps[2].Result)
	assert.Equal(t, []Use{{0, 2}}, steps[3].Uses)
	assert.Equal(t, []any{"", int64(3)}, steps[3].Args)
	assert.Empty(t, steps[4].Uses, "what is quoted is a text")
	assert.Equal(t, []any{"said, (", int64(4)}, steps[4].Args)
	for calls, says := range map[string]string{
		"c.text()":                                 "no object is called c; write c = new(…) before",
		"a = new()\nb = a.read(\"\", 1)":           "read returns nothing that could be called b",
		"a = new()\na.new()":                       "new makes an object of its own",
		"a = new()\nread(a, 1)":                    "a is an object, which is no argument",
		"new()\ns = text()\nread(\"x\", s)":        "s is text, and n is int",
		"a b = new()":                              `"a b" names nothing`,
		"null = new()":                             `"null" names nothing`,
		"text()":                                   "the first call makes an object",
		"new()\nsaid = text()\nsaid.read(\"\", 1)": "no object is called said",
	} {
		_, err := call.Steps(calls)
		assert.ErrorContains(t, err, says, calls)
	}
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

func TestASequenceIsWrittenWithWhatItsCallsReturn(t *testing.T) {
	dir := folder(t, map[string]string{"verdict.toml": cacheClass, "a.py": ""})
	p, err := Load(dir, words)
	require.NoError(t, err)
	_, _, err = p.Add(NewCase{Group: "samples", Name: "pasted", Input: []byte("[\"BeaconCache\", \"put\", \"get\", \"get\"]\n[[2], [1, \"a -> b\"], [1], [2]]\n"), Output: []byte("[null, null, \"a -> b\", null]\n")})
	require.NoError(t, err)
	_, _, err = p.Add(NewCase{Group: "samples", Name: "partly", Input: []byte("x = new(1)\nx.size() -> 0\nget(3)\n")})
	require.NoError(t, err)
	text, err := os.ReadFile(filepath.Join(dir, "cases.md"))
	require.NoError(t, err)
	assert.Contains(t, string(text), "```calls\nnew(2)\nput(1, \"a -> b\")\nget(1) -> \"a -> b\"\nget(2) -> null\n```\n")
	assert.Contains(t, string(text), "```calls\nx = new(1)\nx.size() -> 0\nget(3)\n```\n")
	again, err := Load(dir, words)
	require.NoError(t, err)
	require.Len(t, again.Cases, 2)
	assert.Equal(t, "[null, null, \"a -> b\", null]\n", string(again.Cases[0].Accepted[0].Text))
	assert.Equal(t, "[null, 0, {\"not said\": true}]\n", string(again.Cases[1].Accepted[0].Text))
}
