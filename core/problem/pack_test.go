package problem

import (
	"os"
	"path/filepath"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestAPackedProblemTellsNothingOfWhatIsSealed(t *testing.T) {
	dir := filepath.Join(t.TempDir(), "depots")
	files := map[string]string{
		"verdict.toml": "title = \"Depots\" # [[solution]]\n[limits]\ntime = \"1s\"\n\n[[solution]]\nfile = \"right.py\"\nrole = \"reference\"\n[[group]]\nname = \"secret\"\npoints = 5\nsealed = true\n[group.compare]\nscript = \"check.star\"\n[[group]]\nname = \"samples\"\npoints = 2\n[compare]\nscript = \"check.star\"\n",
		"cases.md":     "# Samples\n## one\n```input\n1\n```\n```output file=one.txt\n```\n# Secret\nRimefall is the trick.\n## two\n```input\n# Samples\n7777\n```\n```output\n2\n```\n# Samples\n## last\n```input\n3\n```\n",
		"one.txt":      "1\n", "check.star": "def check(question, answer, known):\n    return accept()\n", "right.py": "print(7777)\n", "start.py": "print()\n",
		"cases/secret/big.in": "7777\n", "cases/secret/big.out": "7777\n", "cases/samples/more.in": "4\n", "cases/samples/more.out": "4\n",
		"input.shape": "n: int 1..9999\n", "statement.html": "<p>Depots</p>",
	}
	for name, text := range files {
		require.NoError(t, os.MkdirAll(filepath.Dir(filepath.Join(dir, name)), 0o755))
		require.NoError(t, os.WriteFile(filepath.Join(dir, name), []byte(text), 0o644))
	}
	p, err := Load(dir, words)
	require.NoError(t, err)
	k, err := p.Pack([]string{"start.py"})
	require.NoError(t, err)
	assert.Equal(t, []string{"cases.md", "cases/samples/more.in", "cases/samples/more.out", "check.star", "input.shape", "one.txt", "start.py", "statement.html", "verdict.toml"}, k.Names())
	for name, text := range k.Files {
		assert.NotContains(t, string(text), "7777", name)
		assert.NotContains(t, string(text), "Rimefall", name)
		assert.NotContains(t, string(text), "right.py", name)
	}
	assert.Equal(t, []string{"secret"}, k.Groups)
	assert.Equal(t, [2]int{3, 2}, [2]int{k.Cases, k.LeftOut})
	out := filepath.Join(t.TempDir(), "for-pupils")
	require.NoError(t, k.Write(out))
	packed, err := Load(out, words)
	require.NoError(t, err)
	assert.Len(t, packed.Cases, 3)
	assert.Equal(t, 2.0, packed.Rule("samples").Points)
	assert.Empty(t, packed.Solutions)
	assert.Equal(t, "check.star", packed.Compare.Script)
	assert.ErrorContains(t, k.Write(out), "is there already")

	_, err = p.Pack([]string{"../elsewhere.py"})
	assert.ErrorContains(t, err, "does not lie in")
	require.NoError(t, os.WriteFile(filepath.Join(dir, "verdict.toml"), []byte("[[group]]\nname = \"secret\"\nsealed = true\n[[group]]\nname = \"samples\"\nneeds = [\"secret\"]\n"), 0o644))
	p, err = Load(dir, words)
	require.NoError(t, err)
	_, err = p.Pack(nil)
	assert.ErrorContains(t, err, "names the sealed group secret")
}
