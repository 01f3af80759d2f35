package problem

import (
	"os"
	"path/filepath"
	"strings"
	"testing"
	"time"

	"coldverdict/core/verdict"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

var words = Vocabulary{
	Modes:      []string{"exact", "lines", "numbers", "tokens"},
	AnyOrders:  []string{"lines", "tokens"},
	Languages:  []string{"cpp", "cpp17", "python"},
	LimitNames: []string{"cpp", "python"},
	IsSource: func(name string) bool {
		return strings.HasSuffix(name, ".cpp") || strings.HasSuffix(name, ".py")
	},
}

// folder makes a problem's folder of names and texts.
func folder(t testing.TB, files map[string]string) string {
	dir := filepath.Join(t.TempDir(), "teams")
	require.NoError(t, os.Mkdir(dir, 0o755))
	for name, text := range files {
		path := filepath.Join(dir, name)
		require.NoError(t, os.MkdirAll(filepath.Dir(path), 0o755))
		require.NoError(t, os.WriteFile(path, []byte(text), 0o644))
	}
	return dir
}

func load(t testing.TB, files map[string]string) *Problem {
	p, err := Load(folder(t, files), words)
	require.NoError(t, err)
	return p
}

func names(p *Problem) (all []string) {
	for _, c := range p.Cases {
		all = append(all, c.Name)
	}
	return all
}

const twoSamples = "# Samples\n\n## one\nTwo crates, one sledge.\n\n```input\n2 10\n5 5\n```\n\n```output\n1\n```\n\n" +
	"## two\n\n```input no-newline\n1 1\n1\n```\n```output\n1\n```\n```output or\nyes\n```\n"

func TestASourceAndTwoFilesAreAProblem(t *testing.T) {
	for _, files := range []map[string]string{
		{"a.cpp": "", "1.in": "3\n", "1.out": "4\n", "a.out": "compiled"},
		{"a.cpp": "", "cases/1.in": "3\n", "cases/1.out": "4\n"},
	} {
		p := load(t, files)
		assert.Equal(t, []string{"cases/1"}, names(p))
		text, err := p.Cases[0].Accepted[0].Head(100)
		require.NoError(t, err)
		assert.Equal(t, "4\n", string(text))
		limits, unset := p.Limits.For([]string{"cpp"}, verdict.Limits{})
		assert.Equal(t, verdict.Limits{Time: 2 * time.Second, Wall: 5 * time.Second, Memory: 256 << 20, Output: 64 << 20, Processes: 2048}, limits)
		assert.Equal(t, limits, unset, "nobody set any of them")
		chosen, err := p.ChooseCandidate()
		require.NoError(t, err)
		assert.Equal(t, "a.cpp", chosen.File)
	}
}

func TestCasesFileIsReadAsWritten(t *testing.T) {
	for name, text := range map[string]string{
		"plain":   twoSamples,
		"windows": "\xef\xbb\xbf" + strings.ReplaceAll(twoSamples, "\n", "\r\n"),
	} {
		p := load(t, map[string]string{"cases.md": text, "a.cpp": ""})
		require.Equal(t, []string{"samples/one", "samples/two"}, names(p), name)
		assert.Equal(t, "Two crates, one sledge.", p.Cases[0].Reason)
		assert.Equal(t, "2 10\n5 5\n", string(p.Cases[0].Input.Text))
		assert.Equal(t, "1 1\n1", string(p.Cases[1].Input.Text))
		require.Len(t, p.Cases[1].Accepted, 2)
		assert.Equal(t, "yes\n", string(p.Cases[1].Accepted[1].Text))
		assert.Equal(t, "cases.md:3", p.Cases[0].Where)
	}
}

func TestMarkdownThatMeansNothingHereIsLeftAlone(t *testing.T) {
	p := load(t, map[string]string{"a.cpp": "", "cases.md": "Notes on crates.\n\n<!-- an example:\n## no case\n```input\n```\n-->\n" +
		"# Edge  cases, *hard*! #\n## all-equal ##\nProse with `code`,\n---\n### and more\n| a | b |\n\n" +
		"````input\n```output\n## not a heading\n```\n````\n~~~output\n```\n~~~\n## empty\n```input\n```\n<!-- end --> "})
	require.Equal(t, []string{"edge-cases-hard/all-equal", "edge-cases-hard/empty"}, names(p))
	assert.Equal(t, "```output\n## not a heading\n```\n", string(p.Cases[0].Input.Text))
	assert.Equal(t, "```\n", string(p.Cases[0].Accepted[0].Text))
	assert.Equal(t, "Prose with `code`,\n---\n### and more\n| a | b |", p.Cases[0].Reason)
	assert.Empty(t, p.Cases[1].Input.Text)
	assert.Empty(t, p.Cases[1].Accepted, "no output block: the answer is not known")
}

func TestBlocksMayPointToAFile(t *testing.T) {
	p := load(t, map[string]string{"a.py": "", "logbook.txt": "day 1\n", "cases.md": "# Parts\n## first\n```input file=logbook.txt\n```\n## second\n```input file=logbook.txt\n```\n```output\n7\n```\n"})
	require.Len(t, p.Cases, 2)
	assert.EqualValues(t, 6, p.Cases[1].Input.Size)
	text, err := p.Cases[1].Input.Head(100)
	require.NoError(t, err)
	assert.Equal(t, "day 1\n", string(text))
}

func TestFoldersAreGroupsAndNumbersCountAsNumbers(t *testing.T) {
	files := map[string]string{"a.cpp": "", "cases/Full Load/b.in": "", "cases/notes.txt": "", "cases.md": twoSamples}
	for _, n := range []string{"10", "2", "1"} {
		files["cases/"+n+".in"] = n
		files["cases/"+n+".out"] = n
	}
	p := load(t, files)
	assert.Equal(t, []string{"samples/one", "samples/two", "cases/1", "cases/2", "cases/10", "full-load/b"}, names(p))
	assert.Equal(t, []string{"samples", "cases", "full-load"}, p.Groups())
	require.Len(t, p.Notes, 1)
	assert.Contains(t, p.Notes[0], "cases/notes.txt")
}

func TestAGroupThatComesTwiceIsOne(t *testing.T) {
	block := "```input\n```\n"
	p := load(t, map[string]string{"a.cpp": "", "cases.md": "# A\n## 1\n" + block + "# B\n## 2\n" + block + "# a\n## 3\n" + block})
	assert.Equal(t, []string{"a/1", "a/3", "b/2"}, names(p))
}

func TestConfigIsReadAsWritten(t *testing.T) {
	p := load(t, map[string]string{"slow.cpp": "", "brute.py": "", "verdict.toml": `
title = "Sledge loading"
limits.time = "1500ms"
[limits.python]
time = "5 s"
memory = "1.5 GiB"
[compare]
mode = "numbers"
relative = 1e-9
ignore_case = true
[[solution]]
file = "brute.py"
role = "reference"
args = ["second"]
groups = ["part-two"]
[[solution]]
file = "slow.cpp"
expect = "time limit exceeded"
language = "cpp17"
`, "cases/part-two/1.in": "", "cases/samples/1.in": ""})
	assert.Equal(t, "Sledge loading", p.Title)
	assert.Equal(t, Comparison{Mode: "numbers", Relative: 1e-9, IgnoreCase: true}, p.Compare)
	assert.Equal(t, []Solution{
		{File: "brute.py", Role: Reference, Args: []string{"second"}, Groups: []string{"part-two"}, Line: 11},
		{File: "slow.cpp", Role: Candidate, Expect: "time limit exceeded", Language: "cpp17", Line: 16},
	}, p.Solutions)
	limits, unset := p.Limits.For([]string{"python"}, verdict.Limits{})
	assert.Equal(t, 5*time.Second, limits.Time)
	assert.Equal(t, 11*time.Second, limits.Wall)
	assert.EqualValues(t, 3<<29, limits.Memory)
	assert.Zero(t, unset.Time)
	assert.NotZero(t, unset.Wall)
	_, err := p.ChooseCandidate()
	assert.ErrorContains(t, err, "these have other parts: brute.py, slow.cpp; say which to try", "one is a reference, the other is expected to fail")
	assert.True(t, p.Solutions[0].Runs("part-two") && !p.Solutions[0].Runs("samples") && p.Solutions[1].Runs("samples"))
}

func TestAWallLimitDoesNotCutALongerTimeOff(t *testing.T) {
	l := Limits{General: verdict.Limits{Time: time.Second, Wall: 3 * time.Second}}
	got, _ := l.For([]string{"cpp"}, verdict.Limits{})
	assert.Equal(t, 3*time.Second, got.Wall)
	got, _ = l.For([]string{"cpp"}, verdict.Limits{Time: 10 * time.Second})
	assert.Equal(t, 21*time.Second, got.Wall)
	l.General.Wall = time.Minute
	got, _ = l.For([]string{"cpp"}, verdict.Limits{Time: 10 * time.Second})
	assert.Equal(t, time.Minute, got.Wall)
}

func TestEachMistakeIsToldWithItsPlaceAndWhatToDo(t *testing.T) {
	block := "```input\n```\n"
	tests := []struct {
		name  string
		files map[string]string
		says  []string
	}{
		{"no problem at all", map[string]string{"readme.txt": ""}, []string{"is not a problem's folder"}},
		{"unknown keys, all of them", map[string]string{"verdict.toml": "tilte = \"x\"\n[limits]\ntine = \"1s\"\n[limits.pyhton]\n[speed]\n"},
			[]string{`verdict.toml:1: unknown key "tilte"; did you mean "title"?`, `verdict.toml:3: unknown key "limits.tine"; did you mean "time"?`,
				`verdict.toml:4: unknown key "limits.pyhton"; did you mean "python"?`, `verdict.toml:5: unknown key "speed"; it can be`}},
		{"values that are none", map[string]string{"verdict.toml": "title = 3\n[limits]\ntime = \"soon\"\nmemory = \"256\"\noutput = \"12 parsecs\"\nwall = 3\nprocesses = 0\n"},
			[]string{"verdict.toml:1: title must be text", `verdict.toml:3: limits.time: "soon" is no duration`, `verdict.toml:4: limits.memory: "256" has no unit; write "256MiB"`,
				`verdict.toml:5: limits.output: "12 parsecs" has an unknown unit`, `verdict.toml:6: limits.wall: "3" has no unit; write "3s"`, "verdict.toml:7: limits.processes is 0"}},
		{"sizes past any machine", map[string]string{"verdict.toml": "[limits]\nmemory = \"99999999999GiB\"\ntime = \"-1s\"\n"}, []string{":2: limits.memory", ":3: limits.time"}},
		{"broken TOML", map[string]string{"verdict.toml": "title = \"x\"\n\n[limits\n"}, []string{"verdict.toml:3: "}},
		{"a comparison that does not fit", map[string]string{"verdict.toml": "[compare]\nmode = \"token\"\n"}, []string{`verdict.toml:2: compare.mode is "token"; did you mean "tokens"?`}},
		{"a tolerance without numbers", map[string]string{"verdict.toml": "[compare]\nabsolute = 1e-6\n"}, []string{"verdict.toml:1: a tolerance counts only with mode"}},
		{"solutions", map[string]string{"verdict.toml": "[[solution]]\nfile = \"gone.cpp\"\n[[solution]]\nrole = \"refrence\"\n[[solution]]\nfile = \"notes.txt\"\nexpect = \"wrong\"\n", "notes.txt": ""},
			[]string{`verdict.toml:2: there is no file "gone.cpp" here; if it was deleted, take this [[solution]] out`, `verdict.toml:3: a [[solution]] needs a file`, `verdict.toml:4: solution[1].role is "refrence"; did you mean "reference"?`,
				`verdict.toml:6: the extension of "notes.txt"`, `verdict.toml:7: solution[2].expect is "wrong"`}},
		{"a group that no case has", map[string]string{"a.cpp": "", "1.in": "", "verdict.toml": "[[solution]]\nfile = \"a.cpp\"\ngroups = [\"case\"]\n"}, []string{`verdict.toml:1: a.cpp is to run the group "case", which no case has; did you mean "cases"?`}},
		{"a folder for a file", map[string]string{"verdict.toml/x": "", "a.cpp": ""}, []string{"verdict.toml: is a folder; a file was expected"}},
		{"an input that is a folder", map[string]string{"cases/1.in/x": "", "a.cpp": ""}, []string{"cases/1.in: is a folder; a file was expected"}},
		{"a file for a folder", map[string]string{"cases": "", "a.cpp": ""}, []string{"cases: is a file; a folder was expected"}},
		{"an output without an input", map[string]string{"cases/1.out": "", "2.out": "", "a.cpp": ""}, []string{"cases/1.out: an output without an input", "2.out: an output without an input"}},
		{"two cases of one name", map[string]string{"cases/1.in": "", "1.in": "", "a.cpp": "", "cases.md": "# A\n## x\n" + block + "## x\n" + block},
			[]string{`cases.md:5: there are two cases named "a/x"; the other is at cases.md:2`, `1.in: there are two cases named "cases/1"; the other is at cases/1.in`}},
		{"a fence never closed", map[string]string{"cases.md": "# A\n## x\n```input\n1\n## y\n"}, []string{"cases.md:3: this block is never closed"}},
		{"a comment never closed", map[string]string{"cases.md": "<!--\n# A\n"}, []string{"cases.md:1: this comment is never closed"}},
		{"two plain outputs", map[string]string{"cases.md": "# A\n## x\n" + block + "```output\n1\n```\n```output\n2\n```\n"}, []string{`cases.md:8: a second output under "x"`}},
		{"two inputs", map[string]string{"cases.md": "# A\n## x\n" + block + block}, []string{`cases.md:5: a second input under "x"`}},
		{"an or without a first", map[string]string{"cases.md": "# A\n## x\n" + block + "```output or\n```\n"}, []string{"cases.md:5: \"output or\" is another"}},
		{"blocks out of place", map[string]string{"cases.md": block + "# A\n" + block}, []string{"cases.md:1: this block belongs to no case", "cases.md:4: this block belongs to no case"}},
		{"indented fences", map[string]string{"cases.md": "## x\n  ```input\n  ```\n- ```input\n"}, []string{"cases.md:2: this fence is indented", "cases.md:3: this fence", "cases.md:4: this fence"}},
		{"an indented end", map[string]string{"cases.md": "## x\n```input\n1\n  ```\n"}, []string{"cases.md:4: this fence is indented"}},
		{"kinds of blocks", map[string]string{"cases.md": "## x\n```imput\n```\n```\n```\n```input nonewline\n```\n```input or\n```\n```input\n```\n```call\n```\n"},
			[]string{`cases.md:2: there is no block of kind "imput"; did you mean "input"?`, "cases.md:4: say what this block holds", `cases.md:6: unknown word "nonewline" behind the kind of the block; did you mean "no-newline"?`,
				"cases.md:8: \"or\", \"kept\", \"unsure\", \"refused\", \"accept\" and \"reject\" stand behind output only", "cases.md:12: the block call belongs to a function problem"}},
		{"headings", map[string]string{"cases.md": "#A\n ## x\n##\n# !\n## a/b\n" + block}, []string{"cases.md:1: write a space", "cases.md:2: this heading is indented", "cases.md:3: this case has no name", "cases.md:4: this group has no name", "cases.md:5: a case cannot be named"}},
		{"a case without blocks", map[string]string{"cases.md": "## x\n## y\n```output\n```\n"}, []string{`cases.md:1: the case "x" has no input`, `cases.md:2: the case "y" has an output and no input`}},
		{"files that blocks point to", map[string]string{"d/e": "", "cases.md": "## x\n```input file=gone\n```\n## y\n```input file=d\n```\n## z\n```input file=d/e\n1\n```\n"},
			[]string{`cases.md:2: there is no file "gone"`, `cases.md:5: "d" is a folder`, "cases.md:8: a block that points to a file must be empty"}},
	}
	for _, tt := range tests {
		t.Run(tt.name, func(t *testing.T) {
			_, err := Load(folder(t, tt.files), words)
			require.Error(t, err)
			require.ErrorAs(t, err, &Mistakes{})
			for _, says := range tt.says {
				assert.ErrorContains(t, err, says)
			}
			assert.Len(t, err, len(tt.says), "no more mistakes than these: %v", err)
		})
	}
}

func TestAFolderThatIsNone(t *testing.T) {
	dir := folder(t, map[string]string{"file": ""})
	_, err := Load(filepath.Join(dir, "gone"), words)
	assert.ErrorContains(t, err, "there is no such folder")
	_, err = Load(filepath.Join(dir, "file"), words)
	assert.ErrorContains(t, err, "is a file; a problem's folder was expected")
}

func TestAVeryLargeCasesFileIsRefusedWithAWayOut(t *testing.T) {
	dir := folder(t, map[string]string{"a.cpp": ""})
	file, err := os.Create(filepath.Join(dir, "cases.md"))
	require.NoError(t, err)
	require.NoError(t, file.Truncate(50e6))
	require.NoError(t, file.Close())
	_, err = Load(dir, words)
	assert.ErrorContains(t, err, "cases.md: has 50 MB, more than the 16 MB that it may have; move large data to cases/")
}

func TestTheCandidateEditedLastIsChosen(t *testing.T) {
	dir := folder(t, map[string]string{"a.cpp": "", "b.py": "", "brute.py": "", "1.in": "", "verdict.toml": "[[solution]]\nfile = \"brute.py\"\nrole = \"reference\"\n"})
	now := time.Now()
	touch := func(name string, ago time.Duration) {
		require.NoError(t, os.Chtimes(filepath.Join(dir, name), now, now.Add(-ago)))
	}
	touch("a.cpp", 2*time.Minute)
	touch("b.py", time.Minute)
	touch("brute.py", 0)
	p, err := Load(dir, words)
	require.NoError(t, err)
	chosen, err := p.ChooseCandidate()
	require.NoError(t, err)
	assert.Equal(t, "b.py", chosen.File)
	touch("a.cpp", time.Minute)
	_, err = p.ChooseCandidate()
	assert.EqualError(t, err, "a.cpp and b.py were edited at the same moment; say which to try")
}

func TestSolutionsAreFoundByName(t *testing.T) {
	p := load(t, map[string]string{"a.cpp": "", "sub/b.py": "", "1.in": ""})
	s, err := p.FindSolutions("b.py", filepath.Join(p.Dir, "sub"))
	require.NoError(t, err)
	assert.Equal(t, "sub/b.py", s[0].File)
	s, err = p.FindSolutions("a.cpp", t.TempDir())
	require.NoError(t, err)
	assert.Equal(t, filepath.Join(p.Dir, "a.cpp"), p.Path(s[0]))
	_, err = p.FindSolutions("b.cpp", p.Dir)
	assert.EqualError(t, err, `there is no file b.cpp here; did you mean "a.cpp"?`)
	_, err = p.FindSolutions("sub", p.Dir)
	assert.ErrorContains(t, err, "is a folder")
}

func TestASourceThatAnswersSeveralPartsIsAllOfThem(t *testing.T) {
	p := load(t, map[string]string{"log.py": "", "other.cpp": "", "cases.md": "# A\n## x\n```input\n1\n```\n# B\n## x\n```input\n1\n```\n", "verdict.toml": "[[solution]]\nfile = \"log.py\"\ngroups = [\"a\"]\n" +
		"[[solution]]\nfile = \"log.py\"\ngroups = [\"b\"]\n[[solution]]\nfile = \"other.cpp\"\n[[solution]]\nfile = \"other.cpp\"\nlanguage = \"cpp17\"\n"})
	parts, err := p.FindSolutions("log.py", p.Dir)
	require.NoError(t, err)
	require.Len(t, parts, 2)
	assert.Equal(t, []string{"b"}, parts[1].Groups)
	same, err := p.FindSolutions("other.cpp", p.Dir)
	require.NoError(t, err)
	assert.Len(t, same, 1, "the same in another language is no other part")
	one, err := p.CandidateFor("b")
	require.NoError(t, err)
	assert.Equal(t, []string{"b"}, one.Groups)
}

func TestPatternsChooseCases(t *testing.T) {
	p := load(t, map[string]string{"a.cpp": "", "cases.md": twoSamples, "cases/big-1.in": "", "cases/big-2.in": ""})
	for pattern, want := range map[string][]int{
		"samples": {0, 1}, "samples/": {0, 1}, "samples/two": {1}, "two": {1}, "*": {0, 1, 2, 3},
		"big*": {2, 3}, "*/big-?": {2, 3}, "*1": {2}, "samples/[ot]*": {0, 1},
	} {
		got, err := p.SelectCases([]string{pattern})
		require.NoError(t, err, pattern)
		assert.Equal(t, want, got, pattern)
	}
	_, err := p.SelectCases([]string{"two", "sampels"})
	assert.EqualError(t, err, `no case matches "sampels"; did you mean "samples"?`)
	_, err = p.SelectCases([]string{"["})
	assert.Error(t, err)
}

func TestSizesAndTimesAreReadAsPeopleWriteThem(t *testing.T) {
	for text, want := range map[string]int64{"256MiB": 256 << 20, "256 MB": 256e6, "1.5GiB": 3 << 29, "64k": 64 << 10, "7 B": 7} {
		got, err := ParseSize(text)
		assert.NoError(t, err)
		assert.Equal(t, want, got, text)
	}
	for text, want := range map[string]time.Duration{"2s": 2 * time.Second, "1.5 s": 1500 * time.Millisecond, "1500ms": 1500 * time.Millisecond, "2 minutes": 0, "2min": 2 * time.Minute, "3 seconds": 3 * time.Second} {
		got, err := ParseTime(text)
		assert.Equal(t, want == 0, err != nil, text)
		assert.Equal(t, want, got, text)
	}
	for _, bad := range []string{"", "x", "MiB", "1..2s", "0s", "0B", "-1MiB", "NaNs"} {
		_, err := ParseSize(bad)
		assert.Error(t, err, bad)
		_, err = ParseTime(bad)
		assert.Error(t, err, bad)
	}
}

func FuzzNoCasesFileIsMisread(f *testing.F) {
	f.Add(twoSamples)
	f.Add("## x\n```input\n````\n```output or\n")
	f.Add("<!-- --> ##\n~~~\n~~~~\n")
	f.Fuzz(func(t *testing.T, text string) {
		l := &loader{words: words, problem: &Problem{Dir: t.TempDir()}}
		r := &casesReader{loader: l, rest: []byte(text), group: CasesFolder}
		r.all()
		if len(l.mistakes) == 0 {
			openings := strings.Count(text, "```") + strings.Count(text, "~~~")
			assert.LessOrEqual(t, len(l.problem.Cases), openings, "each case has a block")
		}
	})
}

func FuzzNoConfigMakesTheReaderFail(f *testing.F) {
	f.Add("[limits]\ntime = \"1s\"\n[[solution]]\nfile = \"a.cpp\"\n")
	f.Add("limits = {time = \"1s\", python = {time = 3}}\nsolution = [{file=\"x\"}]")
	f.Fuzz(func(t *testing.T, text string) {
		dir := t.TempDir()
		require.NoError(t, os.WriteFile(filepath.Join(dir, ConfigFile), []byte(text), 0o644))
		p, err := Load(dir, words)
		assert.Equal(t, p == nil, err != nil)
	})
}
