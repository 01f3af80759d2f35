package main

import (
	"os"
	"path/filepath"
	"strings"
	"testing"
	"time"

	"github.com/santhosh-tekuri/jsonschema/v6"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"coldverdict/internal/testenv"
)

func TestManyProblemsAreALineEach(t *testing.T) {
	testenv.Need(t, "python3")
	s := folder(t, map[string]string{
		"a/add.py": sumOfTwo, "a/cases.md": caseText,
		"b/deep/add.py": sumOfTwo, "b/deep/1.in": "1 2\n", "b/deep/1.out": "3\n",
		"c/add.py": sumOfTwo, "c/cases.md": "## open\n```input\n",
		"d/notes.py":      "print(1)\n", // a source alone is no problem
		".hidden/1.in":    "1 2\n",
		"a/cases/more.in": "2 2\n", "a/cases/more.out": "4\n",
	})
	got := s.run(t, "try", "-r")
	assert.Equal(t, 64, got.status, "one cannot be read")
	lines := strings.Split(got.out, "\n")
	assert.Regexp(t, `^  AC  a       add.py +2 of 2 `, lines[0])
	assert.Regexp(t, `^  AC  b/deep  add.py +1 of 1 `, lines[1])
	assert.Regexp(t, `^  \?\?  c       cases.md:2: this block is never closed`, lines[2])
	assert.Contains(t, got.out, "3 problems: 2 accepted, 1 not tried")

	require.NoError(t, os.WriteFile(filepath.Join(s.dir, "a", "add.py"), []byte("print(3)\n"), 0o644))
	got = s.run(t, "try", "-r", "a", "b")
	assert.Equal(t, 1, got.status)
	assert.Regexp(t, `  WA  a       add.py +1 of 2 .*was AC`, got.out)
	assert.Contains(t, got.out, "cases/more: wrong answer", "what changed is shown in full")
	assert.Contains(t, got.out, "2 problems: 1 accepted, 1 wrong answer; 1 changed")
	got = s.run(t, "try", "-r", "a", "b")
	assert.NotContains(t, got.out, "cases/more", "what fails as before is a line")

	got = s.run(t, "try", "-r", "--report", "all.tap", "a", "c")
	assert.Equal(t, 64, got.status)
	text, err := os.ReadFile(filepath.Join(s.dir, "all.tap"))
	require.NoError(t, err)
	assert.Contains(t, string(text), "TAP version 14\n1..3\nok 1 - a: add.py samples/one\nnot ok 2 - a: add.py cases/more\n")
	assert.Contains(t, string(text), "not ok 3 - c: problem\n")
	got = s.run(t, "try", "-r", "--json", "-", "a", "c")
	compiler := jsonschema.NewCompiler()
	schema, err := compiler.Compile("../../docs/many.schema.json")
	require.NoError(t, err)
	value, err := jsonschema.UnmarshalJSON(strings.NewReader(got.out))
	require.NoError(t, err)
	assert.NoError(t, schema.Validate(value))
	assert.Equal(t, 64, s.run(t, "try", "-r", "nowhere").status)
	assert.Contains(t, s.run(t, "try", "-r", "d").errors, "there is no problem in d")
	assert.Contains(t, s.run(t, "try", "-r", "--watch").errors, "leave out --watch")

	ready := s.run(t, "ready", "-r", "a", "--seconds", "2")
	assert.Equal(t, 1, ready.status)
	assert.Contains(t, ready.out, "  a  no ")
}

func TestCandidatesOfOneMomentAreAllTried(t *testing.T) {
	testenv.Need(t, "python3")
	s := folder(t, map[string]string{"a.py": sumOfTwo, "b.py": "print(4)\n", "cases.md": caseText})
	for _, name := range []string{"a.py", "b.py"} {
		require.NoError(t, os.Chtimes(filepath.Join(s.dir, name), monday, monday))
	}
	got := s.run(t, "try", "-r", ".")
	assert.Equal(t, 1, got.status, got.errors)
	assert.Regexp(t, `  WA  \.  a.py, b.py +1 of 2 `, got.out)
}

// monday is a moment at which files were saved.
var monday = time.Date(2026, 11, 30, 9, 0, 0, 0, time.UTC)

func TestReportsAreWrittenInEveryForm(t *testing.T) {
	testenv.Need(t, "python3")
	s := folder(t, map[string]string{"add.py": strings.Replace(sumOfTwo, "+", "-", 1), "cases.md": caseText})
	for ending, has := range map[string]string{
		".html": "<summary><span class=\"wrong\">samples/one: wrong answer, line 1: expected 3, got -1</span></summary>",
		".xml":  `<failure message="wrong answer: line 1: expected 3, got -1" type="wrong answer"><![CDATA[`,
		".tap":  "not ok 1 - add.py: samples/one\n",
		".csv":  "add.py,samples/one,wrong answer,",
		".md":   "| samples/one | wrong answer |",
	} {
		got := s.run(t, "try", "--report", "out"+ending)
		assert.Equal(t, 1, got.status, got.errors)
		text, err := os.ReadFile(filepath.Join(s.dir, "out"+ending))
		require.NoError(t, err)
		assert.Contains(t, string(text), has)
	}
	for args, says := range map[string]string{
		"try --report out.pdf": "it can be one of .html, .xml, .tap, .csv, .md",
		"try --report no/r.md": "--report: cannot write",
		"ready --report r":     "no form of a report",
	} {
		got := s.run(t, strings.Fields(args)...)
		assert.Equal(t, 64, got.status)
		assert.Contains(t, got.errors, says)
	}
	got := s.run(t, "ready", "--report", "ready.xml", "--seconds", "2")
	assert.Equal(t, 1, got.status)
	text, err := os.ReadFile(filepath.Join(s.dir, "ready.xml"))
	require.NoError(t, err)
	assert.Contains(t, string(text), `<testcase name="samples" classname="add.py"`)
	got = s.run(t, "rank", "add.py", "add.py", "--report", "rank.csv")
	assert.Equal(t, 1, got.status)
	text, err = os.ReadFile(filepath.Join(s.dir, "rank.csv"))
	require.NoError(t, err)
	assert.Contains(t, string(text), "add.py,wrong answer,")
}

func TestAClassIsGraded(t *testing.T) {
	testenv.Need(t, "python3")
	s := folder(t, map[string]string{
		"verdict.toml":       "[[group]]\nname = \"samples\"\npoints = 4\n[[group]]\nname = \"secret\"\npoints = 6\nsealed = true\n",
		"cases.md":           caseText + "# Secret\n## trick\n```input\n70070 7\n```\n```output\n70077\n```\n",
		"handed-in/anna.py":  sumOfTwo,
		"handed-in/ben.py":   "a, b = map(int, input().split())\nprint(3)\n",
		"handed-in/cleo.txt": "I could not",
		"names.txt":          "anna\nben\ncleo\n",
	})
	got := s.run(t, "grade", "handed-in", "--class", "names.txt", "--pages", "out", "--report", "all.html")
	require.Equal(t, 0, got.status, got.errors)
	assert.Regexp(t, `anna +4/4 +6/6 +10/10  AC`, got.out)
	assert.Regexp(t, `ben +4/4 +0/6 +4/10  WA  secret/trick: wrong answer`, got.out)
	assert.Regexp(t, `cleo +nothing was handed in`, got.out)
	assert.Contains(t, got.out, "1 of 2  secret/trick")
	assert.Contains(t, got.errors, "these are no source files, or links: cleo.txt")
	page, err := os.ReadFile(filepath.Join(s.dir, "out", "ben.html"))
	require.NoError(t, err)
	assert.Contains(t, string(page), ": ben")
	assert.NotContains(t, string(page), "70077", "what is sealed stays sealed")
	pages, err := os.ReadDir(filepath.Join(s.dir, "out"))
	require.NoError(t, err)
	assert.Len(t, pages, 3)

	got = s.run(t, "grade", "handed-in", "--json")
	require.Equal(t, 0, got.status, got.errors)
	validates(t, "grade.schema.json", got.out)
	got = s.run(t, "grade", "handed-in", "--class", "names.txt", "--csv")
	assert.Equal(t, "person,samples,secret,points,verdict,reason,file,tries\nanna,4,6,10,accepted,,anna.py,1\nben,4,0,4,wrong answer,secret/trick: wrong answer,ben.py,1\ncleo,,,,,nothing was handed in,,0\n", got.out)
	for args, says := range map[string]string{
		"grade":                               "name the folder of what was handed in",
		"grade nowhere":                       "nowhere cannot be read",
		"grade handed-in --pages out":         "is there already",
		"grade handed-in --json --csv":        "can have one form",
		"grade handed-in --class verdict.txt": "--class: ",
		"pack":                                "name the new folder",
		"pack out":                            "is there already",
	} {
		refused := s.run(t, strings.Fields(args)...)
		assert.Equal(t, 64, refused.status, args)
		assert.Contains(t, refused.errors, says)
	}
	got = s.run(t, "pack", "for-pupils", "--with", "names.txt")
	require.Equal(t, 0, got.status, got.errors)
	assert.Contains(t, got.out, "left out: 1 sealed case of secret")
	packed, err := os.ReadFile(filepath.Join(s.dir, "for-pupils", "cases.md"))
	require.NoError(t, err)
	assert.Equal(t, caseText, string(packed))
}
