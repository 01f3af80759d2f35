package problem

import (
	"os"
	"path/filepath"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"coldverdict/core/verdict"
)

const grouped = "# A\n## one\nIt has two huts.\n```input\n1\n```\n```output\n2\n```\n```output refused\n7\n```\n# B\n## one\n```input\n1\n```\n```output\n2\n```\n"

func configText(t *testing.T, p *Problem) string {
	text, err := os.ReadFile(filepath.Join(p.Dir, ConfigFile))
	if os.IsNotExist(err) {
		return ""
	}
	require.NoError(t, err)
	return string(text)
}

func TestSealingChangesNothingButThatLine(t *testing.T) {
	for name, tt := range map[string]struct{ before, sealed string }{
		"no file":              {"", "[[group]]\nname = \"a\"\nsealed = true\n"},
		"no table of it":       {"title = \"x\"", "title = \"x\"\n\n[[group]]\nname = \"a\"\nsealed = true\n"},
		"a table":              {"[[group]]\nname = \"a\" # first\npoints = 5\n\n[[group]]\nname = \"b\"\n", "[[group]]\nsealed = true\nname = \"a\" # first\npoints = 5\n\n[[group]]\nname = \"b\"\n"},
		"the last line":        {"[[group]]\nname = \"b\"\n[[group]]\nname = \"a\"", "[[group]]\nname = \"b\"\n[[group]]\nsealed = true\nname = \"a\""},
		"said to be open":      {"[[group]]\nname = \"a\"\nsealed = false # yet\n[limits]\ntime = \"2s\"\n", "[[group]]\nsealed = true\nname = \"a\"\n[limits]\ntime = \"2s\"\n"},
		"another is sealed":    {"[[group]]\nname = \"b\"\nsealed = true\n[[group]]\nname = \"a\"\n", "[[group]]\nname = \"b\"\nsealed = true\n[[group]]\nsealed = true\nname = \"a\"\n"},
		"a byte order mark":    {"\ufeff[[group]]\nname = \"a\"\n", "\ufeff[[group]]\nsealed = true\nname = \"a\"\n"},
		"Windows":              {"[[group]]\r\nname = \"a\"\r\n", "[[group]]\r\nsealed = true\nname = \"a\"\r\n"},
		"a name in other type": {"[[group]]\nname = 'a'\n", "[[group]]\nsealed = true\nname = 'a'\n"},
	} {
		t.Run(name, func(t *testing.T) {
			files := map[string]string{"cases.md": grouped, "verdict.toml": tt.before}
			if tt.before == "" {
				delete(files, "verdict.toml")
			}
			p := load(t, files)
			undo, err := p.Seal([]string{"a"}, true)
			require.NoError(t, err)
			assert.Equal(t, tt.sealed, configText(t, p))
			groups, err := p.SealedGroups()
			require.NoError(t, err)
			assert.Contains(t, groups, "a")
			c, err := reload(t, p).FindCase("a/one")
			require.NoError(t, err)
			assert.True(t, c.Sealed && c.Input.Sealed && c.Accepted[0].Sealed && c.Refused[0].Answer.Sealed)
			assert.Empty(t, c.Reason)
			assert.ErrorContains(t, c.Open(), "'cold case unseal a' opens its group")
			require.NoError(t, undo())
			assert.Equal(t, tt.before, configText(t, p), "as it was")
		})
	}
}

func TestUnsealingIsDoneOrToldNotToBe(t *testing.T) {
	for before, after := range map[string]string{
		"[[group]]\nname = \"a\"\nsealed = true\npoints = 5\n": "[[group]]\nname = \"a\"\npoints = 5\n",
		"[[group]]\n\t sealed=true\nname = \"a\"":              "[[group]]\nname = \"a\"",
		"title = \"x\"\n": "title = \"x\"\n",
	} {
		p := load(t, map[string]string{"cases.md": grouped, "verdict.toml": before})
		_, err := p.Seal([]string{"a"}, false)
		require.NoError(t, err, before)
		assert.Equal(t, after, configText(t, p))
		c, err := reload(t, p).FindCase("a/one")
		require.NoError(t, err)
		assert.NoError(t, c.Open())
	}
	for text, says := range map[string]string{
		"group = [{name = \"a\", sealed = true}]\n":               "verdict.toml:1: the group a is not a table of lines of its own; take \"sealed = true\" out there",
		"\ngroup = [\n  {name = \"a\", sealed = true},\n]\n":      "verdict.toml:3: the group a",
		"[[group]]\nname = \"a\"\n\"sealed\" = true\n":            "verdict.toml:1: the group a",
		"title = \"x\"\n[[group]]\nname = \"a\"\n'sealed'=true\n": "verdict.toml:2: the group a",
	} {
		p := load(t, map[string]string{"cases.md": grouped, "verdict.toml": text})
		_, err := p.Seal([]string{"a"}, false)
		assert.ErrorContains(t, err, says)
		assert.Equal(t, text, configText(t, p))
	}
	p := load(t, map[string]string{"cases.md": grouped, "verdict.toml": "group = [{name = \"a\"}]\n"})
	_, err := p.Seal([]string{"b", "a"}, true)
	assert.ErrorContains(t, err, "write \"sealed = true\" there")
	assert.Equal(t, "group = [{name = \"a\"}]\n", configText(t, p), "not even the group that could be")
}

func TestSealingIsNotTakenBackOverAnothersChange(t *testing.T) {
	p := load(t, map[string]string{"cases.md": grouped, "verdict.toml": "title = \"x\"\n"})
	undo, err := p.Seal([]string{"a"}, true)
	require.NoError(t, err)
	require.NoError(t, os.WriteFile(filepath.Join(p.Dir, ConfigFile), []byte("title = \"mine\"\n"), 0o644))
	assert.ErrorContains(t, undo(), "changed by somebody else")
	assert.Equal(t, "title = \"mine\"\n", configText(t, p))
}

func TestOfASealedCaseOnlyVerdictTimeAndPointsAreShown(t *testing.T) {
	o := verdict.Outcome{
		Verdict: verdict.WrongAnswer, Usage: verdict.Usage{CPU: time.Second}, Ran: true, ExitCode: 3, Share: 0.5, Close: true, Unsteady: true,
		Message: "expected 2, got 3", Difference: &verdict.Difference{Expected: "2"}, Hints: []string{"one off"}, Returned: "3", Signal: "x",
		Stdout: verdict.Text{Bytes: []byte("3")}, Stderr: verdict.Text{Bytes: []byte("3")}, Checker: verdict.Text{Bytes: []byte("3")}, Talk: &verdict.Talk{},
	}
	assert.Equal(t, o, Case{}.Shown(o))
	want := verdict.Outcome{Verdict: verdict.WrongAnswer, Usage: o.Usage, Ran: true, Share: 0.5, Close: true, Unsteady: true}
	assert.Equal(t, want, Case{Sealed: true}.Shown(o))
	assert.Equal(t, want, Case{Sealed: true, Unsure: true}.Shown(o))
}

func TestADoubtfulSampleSaysSoInEachFailureUntilItIsSure(t *testing.T) {
	const text = "# Samples\n## 1\nFrom docks.html, line 12. It could be prose.\n\n```input\n1\n```\n\n```output unsure\n2\n```\n\n## 2\n```input\n```output unsure\n```\n```output\n```output unsure\n```\n"
	p := load(t, map[string]string{"cases.md": strings.Replace(text, "```input\n```output unsure\n```\n```output\n```output unsure\n```\n", "~~~input\n```output unsure\n~~~\n~~~output unsure\n```output unsure\n~~~\n", 1)})
	before := casesText(t, p)
	first, err := p.FindCase("1")
	require.NoError(t, err)
	require.True(t, first.Unsure)
	failed := verdict.Outcome{Verdict: verdict.WrongAnswer, Hints: []string{"one off"}}
	assert.Equal(t, []string{"this sample was taken with doubt from docks.html, line 12; check it against the statement, then say 'cold case sure samples/1'", "one off"}, first.Shown(failed).Hints)
	assert.Empty(t, first.Shown(verdict.Outcome{Verdict: verdict.Accepted}).Hints)

	where, err := p.Sure(first)
	require.NoError(t, err)
	assert.Equal(t, CasesFile, where)
	assert.Equal(t, strings.Replace(before, "output unsure\n2", "output\n2", 1), casesText(t, p), "nothing but the word")
	again := reload(t, p)
	first, err = again.FindCase("1")
	require.NoError(t, err)
	assert.False(t, first.Unsure)
	_, err = again.Sure(first)
	assert.ErrorContains(t, err, "samples/1 was not taken with doubt")

	second, err := again.FindCase("2")
	require.NoError(t, err)
	require.True(t, second.Unsure)
	_, err = again.Sure(second)
	require.NoError(t, err)
	assertHolds(t, reload(t, p), "samples/2", []byte("```output unsure\n"), []byte("```output unsure\n"))
}

func TestTheWordIsTakenOutOfTheFirstLineOfABlockHoweverItStandsThere(t *testing.T) {
	for before, after := range map[string]string{
		"```output unsure\n2\n```\n":               "```output\n2\n```\n",
		"```output unsure\r\n2\r\n```\r\n":         "```output\r\n2\r\n```\r\n",
		"~~~~ output   unsure no-newline\n2\n~~~~": "~~~~ output no-newline\n2\n~~~~",
		"```output\tno-newline unsure \n2\n```\n":  "```output\tno-newline \n2\n```\n",
		"```output file=unsure\n```\n":             "```output file=unsure\n```\n",
		"<!--\n```output unsure\n-->\n":            "<!--\n```output unsure\n-->\n",
		"an output unsure\n":                       "an output unsure\n",
	} {
		assert.Equal(t, after, string(sure([]byte(before), 0, len(before))))
	}
	two := "```output unsure\n```\n```output unsure\n```\n"
	assert.Equal(t, "```output unsure\n```\n```output\n```\n", string(sure([]byte(two), 5, len(two))), "only of that case")
}
