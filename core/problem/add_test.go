package problem

import (
	"os"
	"path/filepath"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// reload reads a problem again from its folder.
func reload(t testing.TB, p *Problem) *Problem {
	again, err := Load(p.Dir, words)
	require.NoError(t, err)
	return again
}

// assertHolds checks that the problem holds a case with this data.
func assertHolds(t testing.TB, p *Problem, name string, input, output []byte) {
	t.Helper()
	for _, c := range p.Cases {
		if c.Name != name {
			continue
		}
		got, err := c.Input.Head(1 << 20)
		require.NoError(t, err)
		require.Equal(t, string(input), string(got))
		require.Equal(t, output != nil, len(c.Accepted) == 1)
		if output != nil {
			got, err := c.Accepted[0].Head(1 << 20)
			require.NoError(t, err)
			require.Equal(t, string(output), string(got))
		}
		return
	}
	t.Fatalf("there is no case %s", name)
}

func casesText(t testing.TB, p *Problem) string {
	text, err := os.ReadFile(filepath.Join(p.Dir, CasesFile))
	require.NoError(t, err)
	return string(text)
}

func TestAnAddedCaseIsReadBackAsItWasGiven(t *testing.T) {
	tests := []struct {
		name string
		c    NewCase
	}{
		{"plain", NewCase{Group: "Samples", Name: "x", Reason: "why", Input: []byte("1 2\n"), Output: []byte("3\n")}},
		{"a new group", NewCase{Group: "Edge cases", Name: "x", Input: []byte("1\n"), Output: []byte("")}},
		{"no line end", NewCase{Group: "Samples", Name: "x", Input: []byte("1"), Output: []byte("2")}},
		{"no answer", NewCase{Group: "Samples", Name: "x", Input: []byte("")}},
		{"fences in the data", NewCase{Group: "Samples", Name: "x", Input: []byte("```output\n````\n"), Output: []byte("~~~\n# h\n")}},
		{"a reason that looks like more", NewCase{Group: "Samples", Name: "x", Reason: "# not a group\n```\n<!-- no\n- ```input", Input: []byte("1\n")}},
		{"carriage returns", NewCase{Group: "Samples", Name: "x", Input: []byte("1\r\n2\r"), Output: []byte("3\n")}},
		{"bytes that are no text", NewCase{Group: "Samples", Name: "x", Input: []byte("\xff\x00\n"), Output: []byte("3\n")}},
		{"large", NewCase{Group: "Full load", Name: "x", Input: []byte(strings.Repeat("7 ", 5000)), Output: []byte("3\n")}},
		{"a byte-order mark", NewCase{Group: "cases", Name: "x", Input: []byte("\ufeff1\n")}},
		{"a number for a name", NewCase{Group: "Samples", Input: []byte("1\n")}},
	}
	starts := map[string]string{
		"empty": "", "filled": twoSamples + "\n# Later\n\n## z\n```input\n```\n",
		"windows": strings.ReplaceAll(twoSamples, "\n", "\r\n"), "unended": "# Samples\n## q\n```input\n```",
	}
	for _, tt := range tests {
		for start, old := range starts {
			t.Run(tt.name+", "+start, func(t *testing.T) {
				p := load(t, map[string]string{"a.cpp": "", "cases.md": old})
				name, _, err := p.Add(tt.c)
				require.NoError(t, err)
				again := reload(t, p)
				require.Len(t, again.Cases, len(p.Cases)+1)
				assertHolds(t, again, name, tt.c.Input, tt.c.Output)
				for part := range strings.SplitSeq(old, "\n# Later") {
					assert.Contains(t, casesText(t, p), part, "what was there is kept to the byte")
				}
			})
		}
	}
}

func TestAnAddedCaseStandsAtTheEndOfItsGroup(t *testing.T) {
	p := load(t, map[string]string{"a.cpp": "", "cases.md": "<!--\n# Samples\n-->\n# Samples\n## 1\n```input\n# Later\n```\n# Later\n## 1\n```input\n```\n"})
	name, where, err := p.Add(NewCase{Group: "samples", Input: []byte("2\n"), Output: []byte("4\n")})
	require.NoError(t, err)
	assert.Equal(t, "samples/2", name)
	assert.Equal(t, "cases.md", where)
	assert.Equal(t, "<!--\n# Samples\n-->\n# Samples\n## 1\n```input\n# Later\n```\n\n## 2\n\n```input\n2\n```\n\n```output\n4\n```\n\n# Later\n## 1\n```input\n```\n", casesText(t, p))
}

func TestWindowsLineEndsDoNotHideWhereAGroupEnds(t *testing.T) {
	old := strings.ReplaceAll("\ufeff# A\n## 1\n```input\n```\n# B\n## 1\n```input\n```\n", "\n", "\r\n")
	p := load(t, map[string]string{"a.cpp": "", "cases.md": old})
	name, _, err := p.Add(NewCase{Group: "A", Input: []byte("2\n")})
	require.NoError(t, err)
	assert.Equal(t, "a/2", name)
	assert.Equal(t, []string{"a/1", "a/2", "b/1"}, names(reload(t, p)))
	assert.NotContains(t, strings.ReplaceAll(casesText(t, p), "\r\n", ""), "\n", "line ends are of one kind")
}

func TestNothingIsOverwritten(t *testing.T) {
	p := load(t, map[string]string{"a.cpp": "", "cases.md": twoSamples, "cases/full-load/other.in": ""})
	_, _, err := p.Add(NewCase{Group: "Samples", Name: "one", Input: []byte("1\n")})
	assert.ErrorContains(t, err, `there is a case "samples/one" already, at cases.md:3`)
	late := filepath.Join(p.Dir, "cases/full-load/late.in")
	require.NoError(t, os.WriteFile(late, []byte("mine"), 0o644))
	_, _, err = p.Add(NewCase{Group: "Full load", Name: "late", Input: make([]byte, 10_000), Output: []byte("1\n")})
	assert.ErrorContains(t, err, `there is a case "full-load/late" already, at cases/full-load/late.in; choose another name`)
	text, err := os.ReadFile(late)
	require.NoError(t, err)
	assert.Equal(t, "mine", string(text))
	assert.NoFileExists(t, filepath.Join(p.Dir, "cases/full-load/late.out"))
	for _, bad := range []string{"a/b", " x", "#", "x\n"} {
		_, _, err = p.Add(NewCase{Group: "Samples", Name: bad, Input: []byte("1\n")})
		assert.ErrorContains(t, err, "cannot be named", bad)
	}
	_, _, err = p.Add(NewCase{Group: "!?", Input: []byte("1\n")})
	assert.ErrorContains(t, err, "makes no name of a group")
}

func TestAFileIsWrittenWholeOrNotAtAll(t *testing.T) {
	dir := t.TempDir()
	path := filepath.Join(dir, "x")
	require.NoError(t, os.WriteFile(path, []byte("old"), 0o600))
	link := filepath.Join(dir, "link")
	require.NoError(t, os.Symlink(path, link))
	require.NoError(t, WriteWhole(link, []byte("new"), 0o644))
	text, err := os.ReadFile(path)
	require.NoError(t, err)
	assert.Equal(t, "new", string(text), "through a link")
	info, err := os.Stat(path)
	require.NoError(t, err)
	assert.Equal(t, os.FileMode(0o600), info.Mode().Perm(), "its permissions stay")
	assert.Error(t, WriteWhole(filepath.Join(dir, "gone", "x"), nil, 0o644))
	entries, err := os.ReadDir(dir)
	require.NoError(t, err)
	assert.Len(t, entries, 2, "nothing else is left")
}

func FuzzAddKeepsWhatIsThereAndComesBackTheSame(f *testing.F) {
	f.Add(twoSamples, "in\n", "out", "reason")
	f.Add("# Samples\r\n", "```\n", "", "# x")
	f.Fuzz(func(t *testing.T, old, input, output, reason string) {
		p, err := Load(folder(t, map[string]string{"a.cpp": "", "cases.md": old}), words)
		if err != nil {
			return
		}
		name, _, err := p.Add(NewCase{Group: "Samples", Reason: reason, Input: []byte(input), Output: []byte(output)})
		require.NoError(t, err)
		again := reload(t, p)
		require.Len(t, again.Cases, len(p.Cases)+1)
		assertHolds(t, again, name, []byte(input), []byte(output))
	})
}

func TestAnAddedOutputThatASolutionPrintedIsMarkedAsKept(t *testing.T) {
	when := time.Date(2026, 2, 3, 0, 0, 0, 0, time.UTC)
	for name, input := range map[string]string{"small": "1 2\n", "large": strings.Repeat("7 ", 5000) + "\n"} {
		p := load(t, map[string]string{"a.py": ""})
		added, where, err := p.Add(NewCase{Group: "Crossed", Name: "x", Reason: "It parts here.", Input: []byte(input), Output: []byte("3\n"), From: "brute.py", When: when})
		require.NoError(t, err)
		assert.Equal(t, "crossed/x", added)
		assert.Equal(t, name == "small", where == CasesFile)
		p = reload(t, p)
		assertHolds(t, p, "crossed/x", []byte(input), []byte("3\n"))
		one, err := p.FindCase("crossed/x")
		require.NoError(t, err)
		assert.Equal(t, "kept on 2026-02-03: brute.py printed it.", one.Kept)
		assert.Equal(t, "It parts here.", strings.TrimSpace(one.Reason))
	}
}

func TestTwoPartsShareALargeInput(t *testing.T) {
	p := load(t, map[string]string{"a.py": ""})
	large := []byte(strings.Repeat("7 7 7 7\n", 1000))
	for _, name := range []string{"log book", "again"} {
		_, where, err := reload(t, p).Add(NewCase{Group: name, Name: "the one", Input: large, Output: []byte("1\n")})
		require.NoError(t, err)
		assert.Equal(t, map[string]string{"log book": "cases/log-book/the one.in", "again": CasesFile}[name], where)
	}
	assert.Equal(t, "# again\n\n## the one\n\n```input file=\"cases/log-book/the one.in\"\n```\n\n```output\n1\n```\n", casesText(t, p))
	p = reload(t, p)
	assert.Equal(t, []string{"again/the one", "log-book/the one"}, names(p))
	assertHolds(t, p, "again/the one", large, []byte("1\n"))
	_, where, err := p.Add(NewCase{Group: "large", Input: large, Output: large})
	require.NoError(t, err)
	assert.Equal(t, "cases/large/1.in", where, "a large output needs a file of its own")
	c, err := reload(t, p).FindCase("log-book/the one")
	require.NoError(t, err)
	assert.NotEmpty(t, c.Input.Path)
	assert.ErrorContains(t, p.Drop(c), "is the input of again/the one, too")
	assert.ErrorContains(t, p.Rename(c, "another"), "is the input of again/the one, too")
}

func TestWordsOfABlockMayStandInQuotes(t *testing.T) {
	for text, want := range map[string][]string{
		"input file=a.txt no-newline": {"input", "file=a.txt", "no-newline"}, ` input  file="a b.txt" `: {"input", "file=a b.txt"}, `"input" "file=c d"`: {"input", "file=c d"}, "": nil,
	} {
		words, closed := blockWords(text)
		assert.Equal(t, want, words, text)
		assert.True(t, closed)
	}
	mistakes := mistakesIn(t, map[string]string{"cases.md": "## a\n```input file=\"a b\n```\n"})
	require.NotEmpty(t, mistakes)
	assert.Contains(t, mistakes[0].Text, "a quote is never closed")
}
