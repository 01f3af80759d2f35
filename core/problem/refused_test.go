package problem

import (
	"errors"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestRefusedAnswersThatContradictAreMistakes(t *testing.T) {
	block := func(kind, text string) string { return "```" + kind + "\n" + text + "\n```\n" }
	for _, tt := range []struct {
		name, blocks, words string // no words: it is in order
	}{
		{"a bound on a word", block("output refused sought-larger", "cold"), "is no number"},
		{"bounds that leave nothing", block("output refused sought-larger", "12") + block("output refused sought-smaller", "12.0"), "which no answer is"},
		{"bounds the wrong way round", block("output refused sought-larger", "99") + block("output refused sought-smaller", "5"), "which no answer is"},
		{"what is expected", block("output", "7") + block("output refused", " 7"), "both an expected answer and a refused one"},
		{"what was kept", block("output kept", "7") + block("output refused", "7"), "both an expected answer and a refused one"},
		{"an expected answer below a bound", block("output", "7") + block("output refused sought-larger", "9"), "7 is expected, and the answer sought is larger than 9"},
		{"an expected answer above a bound", block("output", "7") + block("output refused sought-smaller", "007.0"), "7 is expected, and the answer sought is smaller than 007.0"},
		{"bounds around what is expected", block("output", "7") + block("output refused sought-larger", "6") + block("output refused sought-smaller", "8"), ""},
		{"words beside numbers", block("output", "7") + block("output refused", "none"), ""},
	} {
		t.Run(tt.name, func(t *testing.T) {
			mistakes := mistakesIn(t, map[string]string{"cases.md": "## a\n" + block("input", "1") + tt.blocks})
			if tt.words == "" {
				assert.Empty(t, mistakes)
				return
			}
			require.Len(t, mistakes, 1)
			assert.Contains(t, mistakes[0].Text, tt.words)
			assert.Equal(t, 1, mistakes[0].Line)
		})
	}
	assert.Empty(t, mistakesIn(t, map[string]string{"verdict.toml": thawCall, "cases.md": oneThaw + block("returns refused sought-larger", "0")}))
	assert.Len(t, mistakesIn(t, map[string]string{"verdict.toml": thawCall, "cases.md": oneThaw + block("returns refused", "1")}), 1)
}

func TestWhatContradictsIsNeitherRefusedNorKept(t *testing.T) {
	p := load(t, map[string]string{"cases.md": "## a\n```input\n1\n```\n```output\n7\n```\n## b\n```input\n2\n```\n```output refused sought-smaller\n5\n```\n"})
	before := casesText(t, p)
	a, err := p.FindCase("a")
	require.NoError(t, err)
	b, err := p.FindCase("b")
	require.NoError(t, err)
	for name, change := range map[string]func() error{
		"refuse what is expected":  func() error { _, err := p.Refuse(a, []byte("7\n"), ""); return err },
		"refuse a word as too low": func() error { _, err := p.Refuse(b, []byte("cold\n"), SoughtLarger); return err },
		"a low bound above a high": func() error { _, err := p.Refuse(b, []byte("5\n"), SoughtLarger); return err },
		"keep what is too high":    func() error { _, err := p.Keep(b, []byte("6\n"), "teams.cpp", day); return err },
		"keep what was refused":    func() error { _, err := p.Keep(b, []byte("5\n"), "teams.cpp", day); return err },
	} {
		var refused *RequestError
		assert.True(t, errors.As(change(), &refused), name)
		assert.Equal(t, before, casesText(t, p), name)
	}
}

// mistakesIn returns what is reported of a folder with these files.
func mistakesIn(t *testing.T, files map[string]string) Mistakes {
	t.Helper()
	_, err := Load(folder(t, files), words)
	var mistakes Mistakes
	if err != nil {
		require.ErrorAs(t, err, &mistakes)
	}
	return mistakes
}
