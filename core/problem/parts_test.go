package problem

import (
	"os"
	"path/filepath"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestTheAnswerOfAPartIsFoundInWhatIsPrinted(t *testing.T) {
	p := &Problem{Parts: []string{"longest", "most"}}
	for name, row := range map[string]struct{ printed, longest, most string }{
		"in order":                         {"50\n2\n", "50\n", "2\n"},
		"in order, with an empty line":     {"50\n\n2\n\n", "50\n", "2\n"},
		"Windows' line ends":               {"50\r\n2\r\n", "50\n", "2\n"},
		"only the first":                   {"50\n", "50\n", ""},
		"nothing":                          {"", "", ""},
		"labels":                           {"longest: 50\nmost = 2\n", "50\n", "2\n"},
		"labels the other way round":       {"Most: 2\nLongest: 50\n", "50\n", "2\n"},
		"numbers":                          {"Part 1: 50\nPart 2: 2\n", "50\n", "2\n"},
		"bare numbers":                     {"1: 50\n2: 2\n", "50\n", "2\n"},
		"one label":                        {"part 2: 2\n", "", "2\n"},
		"words before the first label":     {"reading the log\nlongest: 50\nmost: 2\n", "50\n", "2\n"},
		"a picture behind a label":         {"longest: 50\nmost:\n#.#\n.#.\n", "50\n", "#.#\n.#.\n"},
		"a picture between empty lines":    {"50\n\n#.#\n.#.\n", "50\n", "#.#\n.#.\n"},
		"an answer that looks like a name": {"day 7: 50\nmost\n", "day 7: 50\n", "most\n"},
		"more lines than parts":            {"read 3 lines\n50\n2\n", "", ""},
	} {
		t.Run(name, func(t *testing.T) {
			for part, want := range map[string]string{"longest": row.longest, "most": row.most} {
				got, why := p.AnswerOfPart(part, []byte(row.printed))
				assert.Equal(t, want, string(got), part)
				assert.Equal(t, want == "", why != "", part)
			}
		})
	}
}

func TestASourceAnswersThePartsThatItsNameSays(t *testing.T) {
	p := &Problem{Parts: []string{"longest", "most"}}
	for name, groups := range map[string][]string{
		"logbook.py":         {"longest", "most"},
		"longest.py":         {"longest"},
		"logbook-most.py":    {"most"},
		"2.py":               {"most"},
		"logbook_2.py":       {"most"},
		"part1.rb":           {"longest"},
		"mostly.py":          {"longest", "most"},
		"v2.py":              {"longest", "most"},
		"logbook-12.py":      {"longest", "most"},
		"outermost/walks.py": {"longest", "most"},
	} {
		var got []string
		for _, s := range p.InParts(Solution{File: name}) {
			got = append(got, s.Groups...)
			assert.Equal(t, len(groups) > 1, s.Part != "", "%s prints its own answer alone", name)
		}
		assert.Equal(t, groups, got, name)
	}
	p.PartArgument = true
	list := p.InParts(Solution{File: "logbook.py", Args: []string{"-q"}})
	assert.Equal(t, []string{"-q", "most"}, list[1].Args)
	assert.Empty(t, list[1].Part, "it is told the part, and prints no other")
	declared := Solution{File: "logbook.py", Groups: []string{"most"}}
	assert.Equal(t, []Solution{declared}, p.InParts(declared), "verdict.toml has the last word")
}

func TestPartsAreReadFromVerdictToml(t *testing.T) {
	for text, want := range map[string][]string{
		`parts = ["longest", "most"]`: {"longest", "most"},
		`parts = 2`:                   {"part-1", "part-2"},
		"[parts]\nnames = [\"longest\"]\nargument = true": {"longest"},
		"[parts]\nnames = 3":                              {"part-1", "part-2", "part-3"},
		`parts = []`:                                      nil,
	} {
		dir := t.TempDir()
		require.NoError(t, os.WriteFile(filepath.Join(dir, ConfigFile), []byte(text), 0o644))
		p, err := Load(dir, words)
		require.NoError(t, err, text)
		assert.Equal(t, want, p.Parts, text)
	}
	for text, says := range map[string]string{
		`parts = 0`:                           "it can be 1 to 20",
		`parts = "most"`:                      "a list of names",
		`parts = ["Most people"]`:             `such as "most-people"`,
		`parts = ["most", "most"]`:            "two parts have one name",
		"[parts]\nargument = true":            "say which parts there are",
		"[parts]\nnames = 2\nargumant = true": "argument",
	} {
		dir := t.TempDir()
		require.NoError(t, os.WriteFile(filepath.Join(dir, ConfigFile), []byte(text), 0o644))
		_, err := Load(dir, words)
		assert.ErrorContains(t, err, says, text)
	}
}

func TestAnAnswerIsConfirmed(t *testing.T) {
	const head = "# Most\n\n## logbook\nThe whole log.\n\n```input\n1\n```\n"
	at := func(t *testing.T, text string) (*Problem, Case) {
		dir := t.TempDir()
		require.NoError(t, os.WriteFile(filepath.Join(dir, CasesFile), []byte(text), 0o644))
		p, err := Load(dir, words)
		require.NoError(t, err)
		return p, p.Cases[0]
	}
	again := func(t *testing.T, p *Problem) Case {
		p, err := Load(p.Dir, words)
		require.NoError(t, err)
		return p.Cases[0]
	}
	t.Run("one that was not known", func(t *testing.T) {
		p, c := at(t, head)
		where, err := p.Confirm(c, []byte("18\n"), "2026-12-01")
		require.NoError(t, err)
		assert.Equal(t, CasesFile, where)
		got := again(t, p)
		assert.Equal(t, "18\n", string(got.Accepted[0].Text))
		assert.Empty(t, got.Kept)
		assert.True(t, got.Confirmed())
	})
	t.Run("one that was kept", func(t *testing.T) {
		p, c := at(t, head)
		_, err := p.Keep(c, []byte("18\n"), "logbook.py most", time.Now())
		require.NoError(t, err)
		kept := again(t, p)
		require.NotEmpty(t, kept.Kept)
		_, err = p.Confirm(kept, []byte("19\n"), "2026-12-01")
		require.ErrorContains(t, err, `is known as "18"`)
		_, err = p.Confirm(kept, []byte("18"), "2026-12-01")
		require.NoError(t, err)
		got := again(t, p)
		assert.Empty(t, got.Kept)
		assert.True(t, got.Confirmed())
		assert.Contains(t, got.Reason, "The whole log.")
		_, err = p.Confirm(got, []byte("18"), "2026-12-01")
		assert.ErrorContains(t, err, "has this answer already")
		_, err = p.Refuse(got, []byte("18\n"), "")
		assert.ErrorContains(t, err, "both an expected answer and a refused one")
	})
	t.Run("one that was refused", func(t *testing.T) {
		p, c := at(t, head+"```output refused sought-larger\n18\n```\n")
		_, err := p.Confirm(c, []byte("17\n"), "2026-12-01")
		assert.ErrorContains(t, err, "the answer sought is larger than 18")
	})
	t.Run("of a case in files", func(t *testing.T) {
		dir := t.TempDir()
		require.NoError(t, os.MkdirAll(filepath.Join(dir, "cases", "most"), 0o755))
		require.NoError(t, os.WriteFile(filepath.Join(dir, "cases", "most", "log.in"), []byte("1\n"), 0o644))
		p, err := Load(dir, words)
		require.NoError(t, err)
		_, err = p.Confirm(p.Cases[0], []byte("18\n"), "2026-12-01")
		require.NoError(t, err)
		got := again(t, p)
		assert.True(t, got.Confirmed())
		assert.Empty(t, got.Kept)
	})
}
