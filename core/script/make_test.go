package script

import (
	"os"
	"path/filepath"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// made runs a script that makes an input.
func made(t *testing.T, body, data string) (string, error) {
	t.Helper()
	path := filepath.Join(t.TempDir(), "make.star")
	require.NoError(t, os.WriteFile(path, []byte("def make(rng, size):\n    "+strings.ReplaceAll(body, "\n", "\n    ")+"\n"), 0o644))
	require.NoError(t, Check(path, Makes))
	var out strings.Builder
	err := makeInput(path, data, &out)
	return out.String(), err
}

func TestWhatAScriptReturnsIsAnInput(t *testing.T) {
	for body, want := range map[string]string{
		`return "1 2\n3\n"`: "1 2\n3\n",
		`return "1 2"`:      "1 2\n",
		`return [3, "ice core", [1, 2.5, "x"], (4, 5), []]`:                                                 "3\nice core\n1 2.5 x\n4 5\n\n",
		`return {"temps": [1, -2], "note": "an \"ice\" core", "x": 0.5}`:                                    "temps = [1,-2]\nnote = \"an \\\"ice\\\" core\"\nx = 0.5\n",
		`return [int(1000 * size)]`:                                                                         "250\n",
		`return [rng.int(5, 5), rng.choice((7,)), rng.shuffled([]), rng.several(1, 3, 3) != None and "ok"]`: "5\n7\n\nok\n",
		`return [100000000000000000000]`:                                                                    "100000000000000000000\n",
	} {
		got, err := made(t, body, "2:7 0.25")
		require.NoError(t, err, body)
		assert.Equal(t, want, got, body)
	}
	first, err := made(t, "return [[rng.int(1, 1000000) for _ in range(9)], rng.several(0, 99, 9), rng.shuffled(range(9))]", "2:7 0.25")
	require.NoError(t, err)
	again, _ := made(t, "return [[rng.int(1, 1000000) for _ in range(9)], rng.several(0, 99, 9), rng.shuffled(range(9))]", "2:7 1")
	assert.Equal(t, first, again, "the seed decides, and not the size")
	other, _ := made(t, "return [[rng.int(1, 1000000) for _ in range(9)], rng.several(0, 99, 9), rng.shuffled(range(9))]", "1:8 0.25")
	assert.NotEqual(t, first, other)
}

func TestWhatIsNoInputIsSaid(t *testing.T) {
	for body, says := range map[string]string{
		`return None`:                    "make.star:1:1: make returned None; it must return the input",
		`return 5`:                       "it must return the input: a text, a list of lines, or for a function a dict of its arguments",
		`return [[1, [2]]]`:              "make returned [2] on a line, where a text or a number was expected",
		`return [None]`:                  "make returned None on a line",
		`return {1: 2}`:                  "the name 1, which is no text",
		`return {"f": make}`:             "for f, which is no value",
		`return [rng.int(2, 1)]`:         "rng.int(2, 1): no integer lies there",
		`return [rng.int(1)]`:            "missing argument for high",
		`return [rng.choice([])]`:        "there is nothing to choose from",
		`return [rng.several(1, 3, 4)]`:  "there are not so many",
		`return [rng.several(1, 3, -1)]`: "there are not so many",
		`return [rng.real(1, 3)]`:        "rng has no .real field or method",
		`return [1 // 0]`:                "make.star:2:15: in make: floored division by zero",
	} {
		_, err := made(t, body, "2:7 0.25")
		assert.ErrorContains(t, err, says, body)
	}
	for _, data := range []string{"", "x 0.5", "7:7 0.5", "2:7 3"} {
		_, err := made(t, "return []", data)
		assert.Error(t, err, data)
	}
}

func TestACheckerNeedsTheExpectedOutputIfItLooksAtIt(t *testing.T) {
	for text, needs := range map[string]bool{
		"def decide(case, got, expected):\n    return accept()\n":                                                false,
		"def decide(case, got, expected):\n    return accept() if got.ints == expected.ints else reject(\"\")\n": true,
		"def decide(case, got, known):\n    if known.text:\n        return accept()\n    return reject(\"\")\n":  true,
		"def decide(case, got, known):\n    expected = 5\n    return accept()\n":                                 false,
		"def decide(*all):\n    return accept()\n":                                                               true,
		"def other(): pass\n": true,
		"def decide(":         true,
	} {
		path := filepath.Join(t.TempDir(), "check.star")
		require.NoError(t, os.WriteFile(path, []byte(text), 0o644))
		assert.Equal(t, needs, NeedsExpected(path), text)
	}
	assert.True(t, NeedsExpected(filepath.Join(t.TempDir(), "gone.star")))
}
