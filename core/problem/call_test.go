package problem

import (
	"os"
	"path/filepath"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"coldverdict/core/value"
)

const thawCall = "[call]\nname = \"longest_thaw\"\ntakes = [\"temps: int[]\", \"limit: long\"]\nreturns = \"int\"\n"

const oneThaw = "## one\nA spring.\n```call\ntemps = [4, -2]\nlimit = 7\n```\n\n```returns\n1\n```\n"

func TestAFunctionIsWrittenInOneLine(t *testing.T) {
	for _, text := range []string{
		"longest_thaw(temps: int[], limit: long) -> int", "f(a: text?) -> (least: int, mean: real)", "thin(temps: int[], n: int) -> argument 1",
		"f() -> int", "f(head: list(int), roots: tree(long)[]) -> nary(text)", "f(v: any) -> any", "packed(temps: int[], missing: int) -> (k: int, argument 1 up to k)",
	} {
		c, err := ParseCall(text)
		require.NoError(t, err, text)
		assert.Equal(t, text, c.String())
	}
	c, err := ParseCall(" thin ( temps:int[] )->argument 1 ")
	require.NoError(t, err)
	assert.Equal(t, []value.Field{{Type: c.Takes[0].Type}}, c.Results())
	for text, words := range map[string]string{
		"longest_thaw": "is no function", "f(a: int)": "is no function", "1st(a: int) -> int": "cannot name a function",
		"f(a: int, a: int) -> int": `two are named "a"`, "f(a) -> int": "no name with a type", "f(a: int) -> integer": "is no type", "f(a: int) ->": "say what it returns",
		"f(a: int) -> argument 1":                     "only an array, or what is made of nodes, can be changed",
		"f(a: int[]) -> (k: int, argument 1 up to n)": "does not say how much", "f(a: int[]) -> (k: text, argument 1 up to k)": "it is int or long", "f(a: int) -> (k: int, argument 1 up to k)": "only of an array",
		"f(a: int[]) -> (k: int, argument 3 up to k)": "there is no argument 3", "f(a: list(int[])) -> int": "nodes hold single values", "f(a: list(int) -> int": "is no function", "f(a: int[]) -> argument 2": "there is no argument 2", "f(a: int) -> (b: int, c)": "no name with a type",
	} {
		_, err := ParseCall(text)
		require.Error(t, err, text)
		assert.Contains(t, err.Error(), words)
	}
}

func TestCasesOfAFunctionHoldArgumentsAndResults(t *testing.T) {
	p := load(t, map[string]string{
		"verdict.toml": thawCall + "[compare]\nany_order = \"all\"\nabsolute = 0.5\n", "a.py": "",
		"cases.md":    oneThaw + "## two\n```call\nlimit = 1\ntemps = []\n```\n```returns kept\n0\n```\n```returns refused sought-smaller\n3\n```\n",
		"cases/3.in":  "temps = [1]\nlimit = 9\n",
		"cases/3.out": "1",
	})
	assert.Equal(t, []string{"cases/one", "cases/two", "cases/3"}, names(p))
	assert.Equal(t, "longest_thaw(temps: int[], limit: long) -> int", p.Call.String())
	assert.Equal(t, "A spring.", p.Cases[0].Reason)
	assert.NotEmpty(t, p.Cases[1].Kept)
	assert.Equal(t, SoughtSmaller, p.Cases[1].Refused[0].Sought)
	assert.Equal(t, value.Comparison{Absolute: 0.5, AnyOrder: "all"}, p.Cases[0].Compare.Values())
	raising := load(t, map[string]string{"verdict.toml": thawCall + "prelude = false\n", "a.py": "", "cases.md": "## x\n```call\nlimit = 1\ntemps = []\n```\n```raises\n too cold \n```\n"})
	require.NotNil(t, raising.Cases[0].Raises)
	assert.Equal(t, "too cold", *raising.Cases[0].Raises)
	assert.True(t, raising.Call.Bare)
	assert.Equal(t, 1e-6, load(t, map[string]string{"verdict.toml": thawCall + "[compare]\nignore_case = true\n", "a.py": ""}).Compare.Relative)
}

func TestMistakesInAFunctionProblemAreToldWithTheirPlace(t *testing.T) {
	for _, tt := range []struct {
		name  string
		files map[string]string
		says  []string
	}{
		{"the table itself", map[string]string{"verdict.toml": "[call]\nname = \"f\"\ntakes = [\"a: integer\"]\nreturns = \"int\"\n"}, []string{"verdict.toml:3: [call] \"integer\" is no type"}},
		{"no result", map[string]string{"verdict.toml": "[call]\nname = \"f\"\ntakes = [\"a: int\"]\n"}, []string{"verdict.toml:1: [call] say what it returns"}},
		{"another key", map[string]string{"verdict.toml": thawCall + "gives = 1\n"}, []string{"verdict.toml:5: unknown key \"call.gives\""}},
		{"a mode", map[string]string{"verdict.toml": thawCall + "[compare]\nmode = \"tokens\"\n"}, []string{"values are compared as values"}},
		{"another order", map[string]string{"verdict.toml": thawCall + "[compare]\nany_order = \"lines\"\n"}, []string{"any_order"}},
		{"orders of values without a function", map[string]string{"verdict.toml": "[compare]\nany_order = \"outer\"\n"}, []string{"any_order"}},
		{"files beside it", map[string]string{"verdict.toml": thawCall + "[files]\ninput = \"a.in\"\n"}, []string{"a function neither talks nor reads files"}},
		{"blocks of another kind", map[string]string{"verdict.toml": thawCall, "cases.md": "## x\n```input\n1\n```\n"}, []string{"cases.md:2: verdict.toml has [call], so a case has a block call"}},
		{"it returns and raises", map[string]string{"verdict.toml": thawCall, "cases.md": oneThaw + "```raises\ncold\n```\n"}, []string{"has another block that says what must come of it"}},
		{"it raises and returns", map[string]string{"verdict.toml": thawCall, "cases.md": "## x\n```call\nlimit = 1\ntemps = []\n```\n```raises\n```\n```returns\n1\n```\n"}, []string{"has a block raises: a function returns, or raises something"}},
		{"a program raises nothing", map[string]string{"cases.md": "## x\n```input\n1\n```\n```raises\n```\n"}, []string{"the block raises belongs to a function problem"}},
		{"what stands behind raises", map[string]string{"verdict.toml": thawCall, "cases.md": "## x\n```call\nlimit = 1\ntemps = []\n```\n```raises kept\n```\n"}, []string{"nothing stands behind raises"}},
		{"no arguments", map[string]string{"verdict.toml": thawCall, "cases.md": "## x\n```returns\n1\n```\n"}, []string{`the case "x" has returns and no call`}},
		{"an argument of another type", map[string]string{"verdict.toml": thawCall, "cases.md": "## x\n\n```call\nlimit = 1\ntemps = [1,\n  2.5]\n```\n"}, []string{"cases.md:6: temps[1]: expected an int, found the real 2.5"}},
		{"an argument past its type", map[string]string{"verdict.toml": thawCall, "cases.md": "## x\n```call\nlimit = 1\ntemps = [2147483648]\n```\n"}, []string{"cases.md:4: temps[0]: 2147483648 is outside of what an int holds"}},
		{"a missing argument", map[string]string{"verdict.toml": thawCall, "cases/1.in": "limit = 1\n"}, []string{"cases/1.in:2: the argument temps (int[]) is missing"}},
		{"a result of another type", map[string]string{"verdict.toml": thawCall, "cases.md": strings.Replace(oneThaw, "\n1\n```", "\n[1]\n```", 1)}, []string{"cases.md:9: expected an int, found [1]"}},
		{"a file of a result", map[string]string{"verdict.toml": thawCall, "cases/1.in": "limit = 1\ntemps = []\n", "cases/1.out": "x\n"}, []string{"cases/1.out:1: expected an int, found x"}},
	} {
		t.Run(tt.name, func(t *testing.T) {
			tt.files["a.py"] = ""
			_, err := Load(folder(t, tt.files), words)
			require.ErrorAs(t, err, &Mistakes{})
			for _, says := range tt.says {
				assert.ErrorContains(t, err, says)
			}
		})
	}
}

func TestCasesOfAFunctionAreWrittenInItsWords(t *testing.T) {
	p := load(t, map[string]string{"verdict.toml": thawCall, "a.py": ""})
	_, _, err := p.Add(NewCase{Group: "Samples", Input: []byte("temps = [1]\n"), Output: []byte("1\n")})
	assert.ErrorContains(t, err, "the arguments: the argument limit (long) is missing")
	_, _, err = p.Add(NewCase{Group: "Samples", Input: []byte("temps = [1]\nlimit = 2\n"), Output: []byte("many\n")})
	assert.ErrorContains(t, err, "the result: expected an int, found many")
	assert.NoFileExists(t, filepath.Join(p.Dir, CasesFile))

	name, _, err := p.Add(NewCase{Group: "Samples", Input: []byte("temps = [1]\nlimit = 2\n")})
	require.NoError(t, err)
	assert.Equal(t, "samples/1", name)
	p, err = Load(p.Dir, words)
	require.NoError(t, err)
	_, err = p.Refuse(p.Cases[0], []byte("7\n"), SoughtSmaller)
	require.NoError(t, err)
	p, err = Load(p.Dir, words)
	require.NoError(t, err)
	_, err = p.Keep(p.Cases[0], []byte("1\n"), "a.py", time.Now())
	require.NoError(t, err)
	text, err := os.ReadFile(filepath.Join(p.Dir, CasesFile))
	require.NoError(t, err)
	for _, block := range []string{"```call\ntemps = [1]\nlimit = 2\n```\n", "```returns refused sought-smaller\n7\n```\n", "```returns kept\n1\n```\n"} {
		assert.Contains(t, string(text), block)
	}
	cases, err := p.ReadNew([]byte("## new\n```call\ntemps = []\nlimit = 1\n```\n```returns\n0\n```\n"))
	require.NoError(t, err)
	assert.Equal(t, "0\n", string(cases[0].Output))
	_, err = p.ReadNew(p.CaseTemplate(NewCase{Group: "Samples"}))
	assert.ErrorContains(t, err, "the argument temps (int[]) is missing")
}

func TestANewFunctionProblemIsReadBack(t *testing.T) {
	for _, text := range []string{"longest_thaw(temps: int[], limit: long) -> int", "thin(temps: int[]) -> argument 1", "f(a: text) -> (b: int, c: real[])"} {
		c, err := ParseCall(text)
		require.NoError(t, err)
		dir := filepath.Join(t.TempDir(), "thaw")
		_, _, err = Open(dir, Fresh{Title: "thaw", Call: c, Files: map[string][]byte{"a.py": nil}})
		require.NoError(t, err)
		p, err := Load(dir, words)
		require.NoError(t, err)
		assert.Equal(t, c, p.Call)
		cases, err := os.ReadFile(filepath.Join(dir, CasesFile))
		require.NoError(t, err)
		assert.Contains(t, string(cases), "```call\n"+c.Takes[0].Name+": …\n")
	}
}

func FuzzAFunctionComesBackAsItWasWritten(f *testing.F) {
	for _, seed := range []string{"longest_thaw(temps: int[], limit: long) -> int", "f(a: text?) -> (least: int, mean: real)", "thin(temps: int[]) -> argument 1", "f(a: int[][]?[]) -> bigint?"} {
		f.Add(seed)
	}
	f.Fuzz(func(t *testing.T, text string) {
		c, err := ParseCall(text)
		if err != nil {
			assert.NotEmpty(t, err.Error())
			return
		}
		again, err := ParseCall(c.String())
		require.NoError(t, err, c.String())
		assert.Equal(t, c, again)
		assert.NotEmpty(t, c.Results())
	})
}

func TestAResultMayBeANodeOrACopyOfAnArgument(t *testing.T) {
	c, err := ParseCall("join(n: int, rope: list(int)) -> node of argument 2")
	require.NoError(t, err)
	assert.Equal(t, "join(n: int, rope: list(int)) -> node of argument 2", c.String())
	assert.Equal(t, 2, c.NodeOf())
	assert.Equal(t, value.List, c.Returns[0].Type.Of.Kind)
	c, err = ParseCall("parent(camp: tree(int), one: node of argument 1, other: node of argument 1) -> node of argument 1")
	require.NoError(t, err)
	assert.Equal(t, "parent(camp: tree(int), one: node of argument 1, other: node of argument 1) -> node of argument 1", c.String())
	args, err := c.ReadArguments("camp: [5, 3, null, 4]\none: 3\nother: null\n")
	require.NoError(t, err)
	assert.Equal(t, []any{[]any{int64(5), int64(3), nil, int64(4)}, int64(3), nil}, args)
	for _, at := range []string{"2", "4", "-1"} {
		_, err := c.ReadArguments("camp: [5, 3, null, 4]\none: " + at + "\nother: null\n")
		assert.ErrorContains(t, err, "one: there is no node at place "+at+", counted from 0, of camp")
	}
	for takes, says := range map[string]string{
		"a: int, one: node of argument 1": "one: a is int, which is not made of nodes", "one: node of argument 1": "which is not made of nodes", "a: tree(int), one: node of argument 3": "there is no such argument",
		"a: tree(int), b: tree(int), one: node of argument 1, other: node of argument 2": "all such arguments are nodes of the same one",
	} {
		_, err := ParseCall("f(" + takes + ") -> int")
		assert.ErrorContains(t, err, says, takes)
	}
	for returns, says := range map[string]string{
		"node of argument 1": "n is int, which is not made of nodes", "copy of argument 3": "there is no such argument; there are 1 to 2",
		"copy of argument x": "there is no such argument", "node of argument 0": "names no argument",
	} {
		_, err := ParseCall("join(n: int, rope: list(int)) -> " + returns)
		assert.ErrorContains(t, err, says)
	}
	p := load(t, map[string]string{
		"verdict.toml": "[call]\nname = \"copied\"\ntakes = [\"chart: graph(int)\"]\nreturns = \"copy of argument 1\"\n", "a.py": "",
		"cases.md":   "## one\n```call\nchart: [[2],[1]]\n```\n## two\n```call\nchart: []\n```\n```returns\n[[]]\n```\n",
		"cases/3.in": "chart: [[]]\n",
	})
	var answers []string
	for _, c := range p.Cases {
		require.Len(t, c.Accepted, 1, c.Name)
		answers = append(answers, string(c.Accepted[0].Text))
	}
	assert.Equal(t, []string{"[[2], [1]]\n", "[[]]\n", "[[]]\n"}, answers, "it is the argument where nothing is said")
}
