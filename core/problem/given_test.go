package problem

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestFunctionsThatASiteProvidesAreRead(t *testing.T) {
	table := "[call]\nname = \"first_leaky\"\ntakes = [\"n: int\"]\nreturns = \"int\"\nhidden = [\"first: int\", \"most: int\"]\n" +
		"[call.given.is_leaky]\nscript = \"pipe.star\"\ntakes = [\"joint: int\"]\nreturns = \"bool\"\ncalls = \"most\"\n[call.given.asked]\nscript = \"pipe.star\"\nreturns = \"int\"\ncalls = 3\n"
	cases := "## one\n```call\nn: 5\nfirst: 4\nmost: 2\n```\n```returns\n4\n```\n"
	files := map[string]string{"verdict.toml": table, "cases.md": cases, "a.py": "", "pipe.star": ""}
	p := load(t, files)
	require.Len(t, p.Call.Given, 2)
	args, err := p.Call.ReadArguments(string(p.Cases[0].Input.Text))
	require.NoError(t, err)
	assert.Equal(t, []any{int64(5), int64(4), int64(2)}, args, "what is hidden comes behind")
	assert.Equal(t, int64(3), p.Call.MostCalls(p.Call.Given[0], args))
	assert.Equal(t, int64(2), p.Call.MostCalls(p.Call.Given[1], args))
	assert.Equal(t, int64(1), p.Call.MostCalls(p.Call.Given[1], []any{int64(5), int64(4), int64(0)}), "none at all would be for as often as one likes")
	for _, tt := range []struct{ from, to, says string }{
		{"[call.given.is_leaky]", "[call.given.is-leaky]", "cannot name a function"}, {"script = \"pipe.star\"\ntakes", "takes", "name the script that answers"},
		{"joint: int", "joint: tree(int)", "can neither be handed to a given function nor be returned by it"}, {"returns = \"bool\"", "returns = \"blob\"", "say what it returns"},
		{"calls = \"most\"", "calls = \"lots\"", "is_leaky may be called as often as lots says"}, {"calls = 3", "calls = 0", "a whole number from 1"},
		{"first: int\"", "n: int\"", "two are named \"n\""}, {"first: int\"", "first\"", "is no name with a type"}, {"[\"joint: int\"]", "[\"joint\"]", "is no name with a type"},
		{"pipe.star\"\nreturns", "nothing.star\"\nreturns", "there is no file \"nothing.star\" here"},
	} {
		changed := map[string]string{"verdict.toml": replaceOnce(t, table, tt.from, tt.to), "cases.md": cases, "a.py": "", "pipe.star": ""}
		_, err := Load(folder(t, changed), words)
		assert.ErrorContains(t, err, tt.says, tt.to)
	}
	_, err = Load(folder(t, map[string]string{"verdict.toml": "[call]\nname = \"f\"\ntakes = [\"n: int\"]\nreturns = \"int\"\nhidden = [\"first: int\"]\n", "a.py": ""}), words)
	assert.ErrorContains(t, err, "hidden arguments are for functions that are given")
}

func replaceOnce(t *testing.T, text, from, to string) string {
	t.Helper()
	require.Contains(t, text, from)
	return strings.Replace(text, from, to, 1)
}
