//go:build linux

package main

import (
	"os"
	"path/filepath"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"coldverdict/demo"
)

func TestCasesAreHeldAgainstTheShape(t *testing.T) {
	files := map[string]string{
		"input.shape": "n: int 1..5, cap: int 1..10\nw: int[n] 1..cap\n", "a.py": "",
		"cases.md": "# Samples\n\n## good\n```input\n2 5\n4 5\n```\n\n## bad\n```input\n2 5\n4 12\n```\n\n## pasted\n```input\n2  5\n4 5\n```\n",
	}
	s := folder(t, files)
	got := s.run(t, "shape", "check")
	assert.Equal(t, 1, got.status)
	assert.Contains(t, got.out, "samples/bad: line 2, 2nd value: w[1] is 12, outside 1..5 (cap)\n  4 12\n")
	assert.Contains(t, got.out, "samples/pasted: line 1, 2nd value: expected an integer for cap, found a blank")
	assert.Contains(t, got.out, "2 of 3 cases invalid")
	got = s.run(t, "shape", "check", "good", "pasted", "--loose")
	assert.Equal(t, 0, got.status, got.errors)
	assert.Equal(t, "2 cases: all valid\n", got.out)
	got = s.run(t, "shape", "explain")
	assert.Equal(t, 0, got.status, got.errors)
	assert.Equal(t, "line 1: n, an integer from 1 to 5; cap, an integer from 1 to 10\nline 2: w, n (up to 5) integers, each from 1 to cap (up to 10); their sum may reach 50\n", got.out)

	s.input = "2 5\n4 6\n"
	got = s.run(t, "case", "add")
	assert.Equal(t, 64, got.status)
	assert.Contains(t, got.errors, "the input does not have the shape that input.shape says")
	require.NoError(t, os.MkdirAll(filepath.Join(s.dir, "given"), 0o755))
	require.NoError(t, os.WriteFile(filepath.Join(s.dir, "given", "1.in"), []byte("9 9\n"), 0o644))
	require.NoError(t, os.WriteFile(filepath.Join(s.dir, "given", "1.out"), []byte("1\n"), 0o644))
	got = s.run(t, "case", "import", "given", "--yes")
	assert.Equal(t, 0, got.status, got.errors)
	assert.Contains(t, got.out, "inputs without the shape that input.shape says: 3")

	files["input.shape"] = "n: imt\n"
	s = folder(t, files)
	for _, args := range [][]string{{"shape", "check"}, {"try"}} {
		got := s.run(t, args...)
		assert.Equal(t, 64, got.status)
		assert.Contains(t, got.errors, `input.shape:1: column 4: "imt" is no value; did you mean "int"?`)
	}
	delete(files, "input.shape")
	s = folder(t, files)
	got = s.run(t, "shape", "check")
	assert.Equal(t, 64, got.status)
	assert.Contains(t, got.errors, "there is no input.shape here")
}

func TestTheDemosInputsHaveTheirShapes(t *testing.T) {
	dir := t.TempDir()
	require.NoError(t, demo.Write(dir))
	for _, stop := range demo.Tour() {
		s := session{dir: filepath.Join(dir, stop.Folder)}
		got := s.run(t, "shape", "check")
		if stop.Folder == "thaw" { // whose arguments have types
			assert.Equal(t, 64, got.status)
			continue
		}
		assert.Equal(t, 0, got.status, "%s: %s%s", stop.Folder, got.out, got.errors)
	}
}
