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

var day = time.Date(2026, 2, 3, 4, 5, 6, 0, time.UTC)

// odd is a cases.md as a person writes it by hand, in a hurry and over years.
const odd = "\ufeffSome words before the first heading.\n\n" +
	"#   Samples   #\n\n|a|b|\n|-|-|\n\n" +
	"##  one \nWhy it is there.\nA line of `code`.\n\n<!-- ## not-a-case\n```input\n1\n```\n-->\n\n" +
	"~~~~input\n```input\n5\n```\n~~~~\n\n\n* a list\n* of two\n\n" +
	"## two\n```input no-newline\n7\n```\n```output\n8\n```\n```output or\n9\n```\ntext right behind it\n" +
	"# Edge cases\n## one\n\n```input   \n\n```   \n\n\n\n"

func windows(text string) string { return strings.ReplaceAll(text, "\n", "\r\n") }

func TestOfAHandWrittenFileOnlyTheCaseItselfChanges(t *testing.T) {
	const block = "\n```output kept\n5\n```\n"
	line := "Kept on 2026-02-03: teams.cpp printed it.\n"
	for name, old := range map[string]string{"Unix": odd, "Windows": windows(odd)} {
		ends := func(text string) string {
			if name == "Windows" {
				return windows(text)
			}
			return text
		}
		t.Run(name, func(t *testing.T) {
			p := load(t, map[string]string{"cases.md": old})
			one, err := p.FindCase("samples/one")
			require.NoError(t, err)
			where, err := p.Keep(one, []byte("5\n"), "teams.cpp", day)
			require.NoError(t, err)
			assert.Equal(t, CasesFile, where)
			at := strings.Index(old, "~~~~"+ends("\n\n\n* a list")) + len("~~~~"+ends("\n"))
			assert.Equal(t, old[:at]+ends("\n"+line+block)+old[at:], casesText(t, p), "keep")

			kept := reload(t, p)
			one, err = kept.FindCase("samples/one")
			require.NoError(t, err)
			assert.Equal(t, "kept on 2026-02-03: teams.cpp printed it.", one.Kept)
			assert.NotContains(t, one.Reason, "Kept")
			assertHolds(t, kept, "samples/one", []byte("```input\n5\n```\n"), []byte("5\n"))

			before := casesText(t, kept)
			require.NoError(t, kept.Drop(one))
			from, to := strings.Index(before, "##  one"), strings.Index(before, "## two")
			assert.Equal(t, before[:from]+before[to:], casesText(t, kept), "drop")
			back, err := reload(t, kept).Undrop()
			require.NoError(t, err)
			assert.Equal(t, "samples/one", back)
			assert.Equal(t, before, casesText(t, kept), "and back to the byte")
			assert.NoDirExists(t, filepath.Join(p.Dir, OwnFolder))

			two, err := kept.FindCase("two")
			require.NoError(t, err)
			require.NoError(t, kept.Rename(two, "the-second"))
			assert.Equal(t, strings.Replace(before, "## two", "## the-second", 1), casesText(t, kept), "rename")
		})
	}
}

func TestARefusedAnswerIsReadBackWithWhatIsKnownOfItsSize(t *testing.T) {
	p := load(t, map[string]string{"cases.md": "## a\n```input\n1\n```", "cases/b.in": "2\n"})
	for _, name := range []string{"cases/a", "cases/b"} {
		for _, r := range []struct{ answer, size string }{{"12\n", SoughtLarger}, {"99", SoughtSmaller}, {"50\n", ""}} {
			p = reload(t, p)
			c, err := p.FindCase(name)
			require.NoError(t, err)
			_, err = p.Refuse(c, []byte(r.answer), r.size)
			require.NoError(t, err)
		}
		p = reload(t, p)
		c, err := p.FindCase(name)
		require.NoError(t, err)
		assert.Empty(t, c.Accepted)
		require.Len(t, c.Refused, 3)
		assert.Equal(t, SoughtLarger, c.Refused[0].Sought)
		assert.Equal(t, "12\n", string(c.Refused[0].Answer.Text))
		assert.Equal(t, "99", string(c.Refused[1].Answer.Text))
		assert.Empty(t, c.Refused[2].Sought)
		_, err = p.Refuse(c, []byte("12\n"), SoughtLarger)
		assert.ErrorContains(t, err, "refused already")
		_, err = p.Refuse(c, make([]byte, 5000), "")
		assert.ErrorContains(t, err, "only text up to 4096 bytes")
	}
}

func TestACaseWithFilesOfItsOwnIsEditedThere(t *testing.T) {
	p := load(t, map[string]string{"cases/full/b.in": "2\n", "cases/full/b.md": "Why.\n", "cases/full/c.in": "3\n"})
	b, err := p.FindCase("b")
	require.NoError(t, err)
	where, err := p.Keep(b, []byte("4\n"), "a.cpp", day)
	require.NoError(t, err)
	assert.Equal(t, "cases/full/b.kept", where)

	p = reload(t, p)
	assert.Empty(t, p.Notes)
	b, err = p.FindCase("b")
	require.NoError(t, err)
	assert.Equal(t, "Why.", b.Reason)
	assert.Contains(t, b.Kept, "a.cpp printed it")
	assertHolds(t, p, "full/b", []byte("2\n"), []byte("4\n"))
	_, err = p.Keep(b, []byte("5\n"), "a.cpp", day)
	assert.ErrorContains(t, err, "is known already")

	assert.ErrorContains(t, p.Rename(b, "c"), "there is a case \"full/c\" already")
	assert.ErrorContains(t, p.Rename(b, "../c"), "only be renamed within its group")
	assert.ErrorContains(t, p.Rename(b, ".c"), "cannot be named")
	require.NoError(t, p.Rename(b, "deep"))
	p = reload(t, p)
	assertHolds(t, p, "full/deep", []byte("2\n"), []byte("4\n"))

	deep, err := p.FindCase("deep")
	require.NoError(t, err)
	require.NoError(t, p.Drop(deep))
	p = reload(t, p)
	assert.Len(t, p.Cases, 1)
	entries, err := os.ReadDir(filepath.Join(p.Dir, "cases", "full"))
	require.NoError(t, err)
	assert.Len(t, entries, 1, "only c.in is left")
	_, err = p.Undrop()
	require.NoError(t, err)
	p = reload(t, p)
	assertHolds(t, p, "full/deep", []byte("2\n"), []byte("4\n"))
	_, err = p.Undrop()
	assert.ErrorContains(t, err, "no dropped case")
}

func TestADropThatWasKilledHalfWayIsUndone(t *testing.T) {
	p := load(t, map[string]string{"cases/b.in": "2\n", "cases/b.out": "4\n", "cases/b.md": "Why.\n", "cases/c.in": ""})
	b, err := p.FindCase("b")
	require.NoError(t, err)
	require.NoError(t, p.Drop(b))
	require.NoError(t, os.Rename(p.full(droppedFolder+"/case.out"), p.full("cases/b.out")))
	_, err = Load(p.Dir, words)
	assert.ErrorContains(t, err, "an output without an input", "it does not pass unseen")
	again, err := Unread(p.Dir)
	require.NoError(t, err)
	_, err = again.Undrop()
	require.NoError(t, err)
	p = reload(t, p)
	assertHolds(t, p, "cases/b", []byte("2\n"), []byte("4\n"))
}

func TestADroppedCaseComesBackToItsGroupWhereTheFileWasChanged(t *testing.T) {
	p := load(t, map[string]string{"cases.md": "# A\n\n## x\n```input\n1\n```\n\n# B\n\n## y\n```input\n2\n```\n"})
	x, err := p.FindCase("x")
	require.NoError(t, err)
	require.NoError(t, p.Drop(x))
	p = reload(t, p)
	_, _, err = p.Add(NewCase{Group: "A", Name: "z", Input: []byte("3\n")})
	require.NoError(t, err)
	_, err = reload(t, p).Undrop()
	require.NoError(t, err)
	assert.Equal(t, []string{"a/z", "a/x", "b/y"}, names(reload(t, p)))
}

func TestAFileThatSomebodyChangesMeanwhileIsNotOverwritten(t *testing.T) {
	p := load(t, map[string]string{"cases.md": "## x\n```input\n1\n```\n"})
	err := p.rewrite(CasesFile, []byte("what it was\n"), []byte("new\n"))
	assert.ErrorContains(t, err, "changed by somebody else")
	assert.Contains(t, casesText(t, p), "## x")
	x, err := p.FindCase("x")
	require.NoError(t, err)
	require.NoError(t, os.WriteFile(filepath.Join(p.Dir, CasesFile), []byte("# gone\n"), 0o644))
	_, err = p.Refuse(x, []byte("1\n"), "")
	assert.ErrorContains(t, err, "holds no case cases/x any more")
}

func TestMistakesBesideACaseAreTold(t *testing.T) {
	tests := map[string]string{
		"```output kept refused\n1\n```\n":  "either refused or accepted",
		"```output sought-larger\n1\n```\n": "behind \"output refused\" only",
		"# Group\n":                         "a heading means nothing here",
		"```input\n1\n```\n":                "a second input",
		"```output\n1\n```\n":               "an output here and one in a file",
		"```output\n":                       "never closed",
	}
	for text, want := range tests {
		_, err := Load(folder(t, map[string]string{"cases/a.in": "1\n", "cases/a.out": "1\n", "cases/a.md": text}), words)
		assert.ErrorContains(t, err, want, text)
		assert.ErrorContains(t, err, "cases/a.md", text)
	}
}

// FuzzEditsLeaveAllElseAsItIs adds, keeps, refuses, drops and brings back in
// whatever file can be read at all.
func FuzzEditsLeaveAllElseAsItIs(f *testing.F) {
	f.Add(odd, "5\n")
	f.Add(windows(odd), "```\n")
	f.Add("## a\n```input\n1\n```", "")
	f.Add("# A #\n## b ##\n\n````input\n```\n````\n\n   \n## c\n~~~input\n~~~\n", "x")
	f.Fuzz(func(t *testing.T, old, output string) {
		p, err := Load(folder(t, map[string]string{"cases.md": old}), words)
		if err != nil || len(p.Cases) == 0 || len(output) > largestRefused-4 || !isText([]byte(output)) {
			return
		}
		for _, c := range p.Cases {
			if len(c.Accepted) > 0 {
				continue
			}
			_, err := p.Keep(c, []byte(output), "a.cpp", day)
			require.NoError(t, err)
			assertHolds(t, reload(t, p), c.Name, c.Input.Text, []byte(output))
		}
		c := p.Cases[len(p.Cases)-1]
		_, err = p.Refuse(c, []byte("not "+output), "")
		require.NoError(t, err)
		again := reload(t, p)
		require.Equal(t, names(p), names(again))
		for i := range p.Cases {
			require.Equal(t, p.Cases[i].Input.Text, again.Cases[i].Input.Text)
			require.Equal(t, strings.Fields(p.Cases[i].Reason), strings.Fields(again.Cases[i].Reason))
		}
		full := casesText(t, p)
		require.NoError(t, again.Drop(c))
		less := reload(t, p)
		require.Len(t, less.Cases, len(p.Cases)-1)
		_, err = less.Undrop()
		require.NoError(t, err)
		require.Equal(t, full, casesText(t, p))
		// What is there keeps its order, and all that was there before.
		rest := full
		for line := range strings.Lines(old) {
			at := strings.Index(rest, strings.TrimRight(line, "\r\n"))
			require.GreaterOrEqual(t, at, 0, "%q is gone", line)
			rest = rest[at:]
		}
	})
}
