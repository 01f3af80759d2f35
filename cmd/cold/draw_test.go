package main

import (
	"bytes"
	"image/png"
	"os"
	"path/filepath"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"coldverdict/internal/testenv"
)

func TestAnInputIsDrawnWithItsAnswer(t *testing.T) {
	testenv.Need(t, "python3")
	s := folder(t, map[string]string{
		"verdict.toml": "[draw]\nanswer = \"path\"\n", "input.shape": "n: int 1..99\ne: tree(n)\n",
		"walk.py": "print(1, 3)\n", "1.in": "4\n1 2\n2 3\n1 4\n", "1.out": "1 2 3\n", "free.txt": "2 3\n.#.\n#..\n",
	})
	got := s.run(t, "draw")
	assert.Equal(t, 0, got.status, got.errors)
	assert.Equal(t, "e, expected\n  [1]\n  ├─ [2]\n  │  └─ [3]\n  └─ 4\n", got.out)
	got = s.run(t, "draw", "1", "--solution", "walk.py")
	assert.Contains(t, got.out, "e, walk.py\n  [1]\n  ├─ 2\n  │  └─ [3]\n")
	assert.Contains(t, got.errors, "walk.py: no edge joins 1 and 3")
	got = s.run(t, "draw", "free.txt")
	assert.Contains(t, got.out, "lines 2 to 3 look like a grid (a guess;")
	assert.Contains(t, got.errors, "is not as input.shape says")

	for _, name := range []string{"out.svg", "again.svg", "out.png"} {
		got := s.run(t, "draw", "1", "--solution", "walk.py", "--out", name)
		require.Equal(t, 0, got.status, got.errors)
	}
	read := func(name string) []byte {
		text, err := os.ReadFile(filepath.Join(s.dir, name))
		require.NoError(t, err)
		return text
	}
	assert.Equal(t, read("out.svg"), read("again.svg"), "the same input gives the same picture")
	assert.Contains(t, string(read("out.svg")), "@font-face", "the fonts are in it")
	drawn, err := png.Decode(bytes.NewReader(read("out.png")))
	require.NoError(t, err)
	assert.Greater(t, drawn.Bounds().Dx(), drawn.Bounds().Dy(), "expected and got stand beside each other")

	for args, says := range map[string]string{
		"draw --out x.pdf":             "it ends in .svg or .png",
		"draw nowhere":                 `no case matches "nowhere"`,
		"draw 1 2":                     "is one too many",
		"draw free.txt --solution a.c": "--solution runs on a case",
	} {
		got := s.run(t, strings.Fields(args)...)
		assert.Equal(t, 64, got.status, args)
		assert.Contains(t, got.errors, says)
	}
	require.NoError(t, os.WriteFile(filepath.Join(s.dir, "verdict.toml"), []byte("[draw]\nanswer = \"pth\"\n"), 0o644))
	assert.Contains(t, s.run(t, "draw").errors, `verdict.toml:2: draw.answer`)
}

func TestWhatAFunctionIsGivenAndReturnsIsDrawn(t *testing.T) {
	s := folder(t, map[string]string{
		"verdict.toml": "[call]\nname = \"rehitched\"\ntakes = [\"first: list(int)\", \"deep: tree(int)\", \"k: int\"]\nreturns = \"list(int)\"\n",
		"cases.md":     "# Samples\n## one\n```call\nfirst: [3, 9]\ndeep: [5, null, 7]\nk: 1\n```\n```returns\n[9, 3]\n```\n## none\n```call\nfirst: []\ndeep: []\nk: 0\n```\n",
	})
	got := s.run(t, "draw", "samples/one")
	require.Equal(t, 0, got.status, got.errors)
	assert.Regexp(t, `(?s)^first\n.*\(3\).*\(9\).*\ndeep\n\s+5\n.*7\n.*\nexpected\n.*\(9\).*\(3\)`, got.out)
	assert.Empty(t, got.errors)
	got = s.run(t, "draw", "samples/one", "--answer", "[3]", "--out", "nodes.svg")
	require.Equal(t, 0, got.status, got.errors)
	got = s.run(t, "draw", "samples/none")
	assert.Contains(t, got.errors, "holds nothing that is seen better than read")
}
