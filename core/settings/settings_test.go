package settings

import (
	"fmt"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// written is what fields may be read into.
type written struct {
	title, mode string
	names       []string
	jobs        int
	absolute    float64
	points      float64
	strict      bool
}

// read reads a text with every kind of field, and again below [below] and in each [[group]].
func read(text string) (w written, told []string) {
	r, tree := Read([]byte(text), func(line int, format string, args ...any) {
		told = append(told, fmt.Sprintf("%d: %s", line, fmt.Sprintf(format, args...)))
	})
	if tree == nil {
		return w, told
	}
	fields := Fields{
		"title": r.Text(&w.title), "mode": r.OneOf(&w.mode, []string{"lines", "tokens", ""}), "names": r.Texts(&w.names),
		"jobs": r.Count(&w.jobs), "absolute": r.Tolerance(&w.absolute), "points": r.Amount(&w.points), "strict": r.Truth(&w.strict),
	}
	fields["below"] = func(at string, value any) { r.Table(at, value, fields) }
	fields["group"] = func(at string, value any) {
		list, ok := value.([]any)
		if !ok {
			r.WrongAt(at, "%s must be [[%[1]s]] tables", at)
		}
		for i, item := range list {
			r.Table(fmt.Sprintf("%s[%d]", at, i), item, fields)
		}
	}
	r.Table("", tree, fields)
	slices.Sort(told)
	return w, told
}

func TestEachKindOfFieldTakesWhatItSays(t *testing.T) {
	w, told := read(`title = "Sledge loading"
mode = "tokens"
names = ["a", "b"]
jobs = 1_000_000
absolute = 1e-6
points = 60
[below]
strict = true
`)
	assert.Empty(t, told)
	assert.Equal(t, written{"Sledge loading", "tokens", []string{"a", "b"}, 1_000_000, 1e-6, 60, true}, w)
	w, told = read("absolute = 1\npoints = 2.5\njobs = 1\nnames = []\n")
	assert.Empty(t, told)
	assert.Equal(t, written{absolute: 1, points: 2.5, jobs: 1}, w)
}

func TestEachMistakeIsToldWithItsLineAndWhatToWrite(t *testing.T) {
	for _, tt := range []struct{ text, says string }{
		{"title = 3", `1: title must be text in double quotes`},
		{"\n\ntitle = 'x'\nmode = \"token\"", `4: mode is "token"; did you mean "tokens"?`},
		{"mode = \"exactly so\"", `1: mode is "exactly so"; it can be "lines" or "tokens"`},
		{"mode = 7", `1: mode is 7; it can be "lines" or "tokens"`},
		{"names = \"a\"", `1: names must be a list of texts, such as ["one", "two"]`},
		{"names = [\"a\", 1]", `1: names must be a list of texts, such as ["one", "two"]`},
		{"jobs = 0", `1: jobs is 0; it must be a whole number from 1 to 1000000`},
		{"jobs = 1_000_001", `1: jobs is 1000001; it must be a whole number from 1 to 1000000`},
		{"jobs = 2.0", `1: jobs is 2; it must be a whole number from 1 to 1000000`},
		{"jobs = \"2\"", `1: jobs is "2"; it must be a whole number from 1 to 1000000`},
		{"absolute = \"1e-6\"", `1: absolute must be a number, such as 1e-6`},
		{"absolute = -1e-6", `1: absolute is -1e-06; it must be a number from 0, such as 1e-6`},
		{"absolute = nan", `1: absolute is NaN; it must be a number from 0, such as 1e-6`},
		{"absolute = inf", `1: absolute is +Inf; it must be a number from 0, such as 1e-6`},
		{"points = true", `1: points is true; it must be a number, such as 60`},
		{"points = -1", `1: points is -1; it must be a number from 0 to 1000000`},
		{"points = nan", `1: points is NaN; it must be a number from 0 to 1000000`},
		{"strict = \"true\"", `1: strict must be true or false`},
		{"titel = \"x\"", `1: unknown key "titel"; did you mean "title"?`},
		{"# a\n[below]\n\nstrikt = true", `4: unknown key "below.strikt"; did you mean "strict"?`},
		{"below = 3", `1: below must be a table, such as [below]`},
		{"title = \"x\"\nbelow = {strict = 1}", `2: below.strict must be true or false`},
		{"below.strict = 1", `1: below.strict must be true or false`},
		{"[[group]]\ntitle = \"a\"\n[[group]]\ntitle = 1", `4: group[1].title must be text in double quotes`},
		{"[[group]]\n[[group]]\n[group.below]\njobs = 0", `4: group[1].below.jobs is 0; it must be a whole number from 1 to 1000000`},
		{"[[group]]\n[[group.group]]\n[[group]]\n[[group.group]]\n[[group.group]]\njobs = 0", `6: group[1].group[1].jobs is 0; it must be a whole number from 1 to 1000000`},
		{"group = [\n  {title = \"a\"},\n  {title = 1}]", `3: group[1].title must be text in double quotes`},
		{"group = [{below = {strict = true}},\n {below = {strict = 1}}]", `2: group[1].below.strict must be true or false`},
		{"group = [{title = \"a\"}, 7]", `1: group[1] must be a table, such as [[group]]`},
		{"[group]\ntitle = \"a\"", `1: group must be [[group]] tables`},
	} {
		_, told := read(tt.text)
		assert.Equal(t, []string{tt.says}, told, "%q", tt.text)
	}
}

func TestATextThatIsNoTOMLIsToldWithItsLine(t *testing.T) {
	for text, line := range map[string]string{
		"title = \"x\"\nmode = lines\n":     "2: ",
		"title = \"x\"\n[below\n":           "2: ",
		"title = 1\ntitle = 2\n":            "",
		"title = \"x\"\n\xff\xfe = \"y\"\n": "2: ",
		"jobs = 99999999999999999999\n":     "1: ",
	} {
		w, told := read(text)
		require.Len(t, told, 1, "%q", text)
		assert.True(t, strings.HasPrefix(told[0], line), "%q: %s", text, told[0])
		assert.NotContains(t, told[0], "toml:", "%q", text)
		assert.Equal(t, written{}, w, "nothing of it is taken")
	}
}

func TestTheNearestWordIsSuggestedAndOthersAreListed(t *testing.T) {
	words := []string{"python", "pypy", "cpp", "c", "java", "javascript"}
	for word, near := range map[string]string{
		"pyhton": "python", "Python": "python", "jvaa": "java", "javascrpt": "javascript", "pypi": "pypy", "ccp": "cpp", "C": "c", "fortran": "", "kotlin": "",
	} {
		assert.Equal(t, near, Near(word, words), "%q", word)
	}
	assert.Equal(t, `it can be "lines", "numbers" or "tokens"`, Nearest("exactly", []string{"tokens", "lines", "", "numbers"}))
	assert.Equal(t, `it can be "lines"`, Nearest("exactly", []string{"lines"}))
	assert.Equal(t, "there is none", Nearest("exactly", nil))
	assert.Equal(t, "there is none", Nearest("exactly", []string{""}))
	list := []string{"b", "a"}
	Nearest("zzzz", list)
	assert.Equal(t, []string{"b", "a"}, list, "what was given stays as it was")
}

func TestDistanceCountsASwapOfNeighboursAsOne(t *testing.T) {
	for _, tt := range []struct {
		a, b string
		want int
	}{{"", "", 0}, {"", "ice", 3}, {"ice", "", 3}, {"ice", "ice", 0}, {"ice", "cie", 1}, {"floe", "flow", 1}, {"floe", "flo", 1}, {"tern", "gull", 4}, {"abcd", "badc", 2}} {
		assert.Equal(t, tt.want, editDistance(tt.a, tt.b), "%s %s", tt.a, tt.b)
	}
}

func FuzzNoTextOfSettingsIsTooMuch(f *testing.F) {
	for _, text := range []string{"title = \"x\"\n[below]\nstrict = true\n", "[[group]]\n[group.below]\n", "group = [{below = {a = [[{b = 1}]]}}]", "a.b.c = 1\n[a]\n", "\"a.b\" = 1", "[\"\"]\n"} {
		f.Add(text)
	}
	f.Fuzz(func(t *testing.T, text string) {
		_, told := read(text)
		lines := 1 + strings.Count(text, "\n")
		for _, one := range told {
			var line int
			_, err := fmt.Sscanf(one, "%d:", &line)
			require.NoError(t, err)
			assert.LessOrEqual(t, line, lines, one)
		}
	})
}
