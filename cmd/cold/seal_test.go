package main

import (
	"fmt"
	"os"
	"path/filepath"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"coldverdict/internal/testenv"
)

// Of sealed cases only verdicts, times and points show, whatever is asked.
func TestNothingOfASealedGroupShows(t *testing.T) {
	testenv.Need(t, "gcc")
	source := func(what string) string {
		return "#include <stdio.h>\n#include <stdlib.h>\nint main(void) { long a, b; if (scanf(\"%ld %ld\", &a, &b) != 2) return 1; " + what + " printf(\"%ld\\n\", a + b); }\n"
	}
	s := folder(t, map[string]string{
		"cases.md":    "# Samples\n\n## one\n```input\n1 2\n```\n```output\n3\n```\n",
		"input.shape": "a: int 1..9, b: int 1..9\n",
		"right.c":     source(""), "wrong.c": source("if (a > 100) { fprintf(stderr, \"saw %ld\\n\", a); a = 1; }"),
		"crash.c": source("if (a > 100) { fprintf(stderr, \"saw %ld\\n\", a); abort(); }"), "says.c": source("printf(\"%ld \", a);"),
		"away/h1.in": "770077 880088\n", "away/h1.out": "1650165\n", "away/h2.in": "770078 880088\n", "away/h2.out": "1650166\n",
	})
	got := s.run(t, "case", "import", "away", "--group", "official", "--sealed", "--yes")
	require.Equal(t, 0, got.status, got.errors)
	assert.NotContains(t, got.out, "h1.in")
	require.NoError(t, os.RemoveAll(filepath.Join(s.dir, "away")))
	text, err := os.ReadFile(filepath.Join(s.dir, "verdict.toml"))
	require.NoError(t, err)
	assert.Equal(t, "[[group]]\nname = \"official\"\nsealed = true\n", string(text))

	for _, tt := range []struct {
		status int
		args   []string
	}{
		{0, []string{"try", "right.c"}},
		{1, []string{"try", "wrong.c", "--evidence", "9", "--stderr"}},
		{1, []string{"try", "crash.c", "--evidence", "9", "--checked"}},
		{1, []string{"try", "says.c", "wrong.c", "crash.c", "right.c", "--repeat", "2"}},
		{1, []string{"try", "wrong.c", "--json", "-"}},
		{1, []string{"try", "crash.c", "--json", "-"}},
		{1, []string{"try", "wrong.c", "--failed"}},
		{1, []string{"ready", "wrong.c", "--seconds", "100"}},
		{1, []string{"ready", "crash.c", "--seconds", "100", "--json"}},
		{1, []string{"rank", "wrong.c", "right.c", "--seconds", "1"}},
		{1, []string{"rank", "wrong.c", "right.c", "--seconds", "1", "--json"}},
		{0, []string{"cross", "right.c", "--against", "wrong.c", "--count", "20"}},
		{0, []string{"case", "list"}},
		{64, []string{"case", "show", "official/h1"}},
		{64, []string{"case", "edit", "official/h1"}},
		{64, []string{"case", "keep", "official/h1", "--solution", "right.c"}},
		{64, []string{"case", "refuse", "official/h1", "--answer", "3"}},
		{1, []string{"shape", "check"}},
	} {
		t.Run(fmt.Sprint(tt.args), func(t *testing.T) {
			got := s.run(t, tt.args...)
			assert.Equal(t, tt.status, got.status, got.out+got.errors)
			for _, secret := range []string{"77007", "880088", "1650165", "1650166", "cases/official", "h1.in"} {
				assert.NotContains(t, got.out+got.errors, secret)
			}
		})
	}
	got = s.run(t, "case", "unseal", "official")
	assert.Equal(t, 0, got.status, got.errors)
	got = s.run(t, "try", "wrong.c")
	assert.Contains(t, got.out, "770077 880088")
}

func TestACaseOfASealedGroupThatIsMalformedShowsNothingOfItself(t *testing.T) {
	s := folder(t, map[string]string{
		"verdict.toml":          "[call]\nname = \"f\"\ntakes = [\"a: int\"]\nreturns = \"int\"\n[[group]]\nname = \"official\"\nsealed = true\n",
		"cases/official/h1.in":  "a: seven77007\n",
		"cases/official/h1.out": "3\n", "f.py": "def f(a): return a\n",
		"cases.md": "# Official\n\n## second\n```call\na: eight77008\n```\n",
	})
	got := s.run(t, "try", "f.py")
	assert.Equal(t, 64, got.status)
	assert.NotContains(t, got.errors, "7700")
	assert.NotContains(t, got.errors, "h1.in")
	assert.Contains(t, got.errors, "cold case unseal official")
	got = s.run(t, "case", "unseal", "official")
	assert.Equal(t, 0, got.status, got.errors)
	got = s.run(t, "try", "f.py")
	assert.Equal(t, 64, got.status)
	assert.Contains(t, got.errors, "cases/official/h1.in:1")
}

func TestWhatIsImportedSealedIsNeverOpenInBetween(t *testing.T) {
	files := map[string]string{
		"verdict.toml": "[call]\nname = \"f\"\ntakes = [\"a: int\"]\nreturns = \"int\"\n", "f.py": "def f(a): return a\n",
		"away/h1.in": "a: seven77007\n", "away/h1.out": "3\n",
	}
	s := folder(t, files)
	got := s.run(t, "case", "import", "away", "--group", "official", "--sealed", "--yes")
	assert.Equal(t, 64, got.status, "what was copied is malformed")
	assert.NotContains(t, got.out+got.errors, "77007")
	assert.Contains(t, got.errors, "cold case unseal official")

	// A group that is there already must be sealed; one that is takes more.
	files["away/h1.in"], files["cases/official/h0.in"] = "a: 77007\n", "a: 1\n"
	s = folder(t, files)
	got = s.run(t, "case", "import", "away", "--group", "official", "--sealed", "--yes")
	assert.Equal(t, 64, got.status)
	assert.Contains(t, got.errors, "the group official has cases already, and is not sealed")
	assert.NoFileExists(t, filepath.Join(s.dir, "cases/official/h1.in"))
	files["verdict.toml"] += "[[group]]\nname = \"official\"\nsealed = true\n"
	s = folder(t, files)
	got = s.run(t, "case", "import", "away", "--group", "official", "--sealed", "--yes")
	assert.Equal(t, 0, got.status, got.errors)
	assert.FileExists(t, filepath.Join(s.dir, "cases/official/h1.in"))

	// Where nothing is copied, verdict.toml is as it was.
	delete(files, "cases/official/h0.in")
	files["verdict.toml"] = strings.Replace(files["verdict.toml"], "[[group]]\nname = \"official\"\nsealed = true\n", "", 1)
	files["cases/official"] = "a file is in the way"
	s = folder(t, files)
	got = s.run(t, "case", "import", "away", "--group", "official", "--sealed", "--yes")
	assert.NotEqual(t, 0, got.status)
	text, err := os.ReadFile(filepath.Join(s.dir, "verdict.toml"))
	require.NoError(t, err)
	assert.Equal(t, files["verdict.toml"], string(text))
}
