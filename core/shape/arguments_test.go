package shape

import (
	"bytes"
	"context"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"coldverdict/core/value"
)

func takes(t *testing.T, list ...string) (fields []value.Field) {
	t.Helper()
	for _, text := range list {
		f, err := value.ParseField(text)
		require.NoError(t, err)
		fields = append(fields, f)
	}
	return fields
}

var everyArgument = []string{"temps: int[]", "limit: long", "names: text[]", "map: text[]", "table: long[][]", "way: text", "x: real[]", "p: int[]", "n: int", "roads: int[][]", "mark: char", "open: bool", "note: text", "rope: list(int)", "ropes: list2(real)[]"}

const everyArgumentShape = `temps: int[1..1000] -50..50, limit: int -1e15..1e15
names: token(1..8, "a-z")[0..20] distinct
map: grid(1..12, 1..9, "#.")
table: int[1..5][0..4] 0..9
way: pick("in", "out"), x: real[0..9] -1..1 places 2, p: perm(7, from 0)
n: int 1..50
roads: tree(n) with (metres: int 1..99)
mark: token(1, "xo"), open: pick("true", "false")
note: text(0..20, "a-z ,\"")
rope: int[0..9] 1..9
ropes: real[1..3][0..4] 0..9 places 1
require max(temps) - min(temps) <= 90`

func TestArgumentsAreMadeAndHeldAgainstAShape(t *testing.T) {
	s, err := ParseArguments(everyArgumentShape, takes(t, everyArgument...))
	require.NoError(t, err)
	for seed := range Seed(60) {
		text := madeValid(t, s, Making{Seed: seed, Size: Size(seed) * Largest / 60})
		args, err := value.ReadCall(string(text), s.takes)
		require.NoError(t, err, "%s", text)
		require.Len(t, args, len(everyArgument))
	}
	all, _ := edgeCasesOf(t, s, 40)
	assert.Len(t, all.Cases, 40)
	_, fault, err := s.Read(strings.NewReader("temps = [1]\n"), Options{})
	require.NoError(t, err)
	assert.Contains(t, fault.Error(), "limit")
}

func TestAGraphMayHaveAsManyEdgesAsTheArgumentHas(t *testing.T) {
	s, err := ParseArguments("n: int 2..9\nroads: graph(n, 0..12) connected with (metres: int 1..9)\nhuts: graph(n, n-1..20)", takes(t, "n: int", "roads: int[][]", "huts: graph(int)"))
	require.NoError(t, err)
	edges := map[int]bool{}
	for seed := range Seed(100) {
		text := madeValid(t, s, Making{Seed: seed, Size: Size(seed) * Largest / 100})
		args, err := value.ReadCall(string(text), s.takes)
		require.NoError(t, err)
		edges[len(args[1].([]any))] = true
	}
	assert.Greater(t, len(edges), 5)
	fault, err := s.Check(strings.NewReader("n = 3\nroads = [[1, 2, 5]]\nhuts = [[2], [1, 3], [2]]\n"), Options{})
	require.NoError(t, err)
	assert.ErrorContains(t, fault, "line 2: the graph is not connected")
	fault, err = s.Check(strings.NewReader("n = 2\nroads = [[1, 2, 5]]\nhuts = [[], []]\n"), Options{})
	require.NoError(t, err)
	assert.ErrorContains(t, fault, "line 3: huts-edges is 0, outside 1..20")
	_, err = Parse("n: int 1..9\ng: graph(n, 0..5)")
	assert.ErrorContains(t, err, "expected )")
}

func TestRowsAreArraysOfTheirOwn(t *testing.T) {
	fields := takes(t, "lists: int[][]", "spans: long[][]", "names: text[][]", "ropes: list(int)[]")
	const text = `lists: rows(1..6) { row: int[0..5] -9..9 sorted }
m: int 0..5
spans: rows(m) distinct { from: int before(to, 0)..1e15, to: int from+1..2e15; require to - from < 1e14 }
names: rows(1..3) { kind: pick("hut", "pole"), name: token(1..4, "a-z")[1..3] distinct }
ropes: rows(0..4) {
  length: int 1..3, rest: int[length] 0..9
  total length <= 7
}`
	s, err := ParseArguments(text, fields)
	require.NoError(t, err)
	different := map[string]bool{}
	for seed := range Seed(100) {
		made := madeValid(t, s, Making{Seed: seed, Size: Size(seed) * Largest / 100})
		different[string(made)] = true
	}
	assert.Greater(t, len(different), 80)
	all, _ := edgeCasesOf(t, s, 30)
	assert.Len(t, all.Cases, 30)
	assert.Contains(t, strings.Join(s.Explain(), "\n"), "argument 1: lists, 1 to 6 rows:\n  a row: row, 0 to 5 integers, each from -9 to 9")

	const good = "lists = [[1, 2], []]\nspans = [[0, 5], [7, 9]]\nnames = [[\"hut\", \"ab\", \"c\"]]\nropes = [[2, 7, 7], [1, 0]]\n"
	in, fault, err := s.Read(strings.NewReader(good), Options{})
	require.NoError(t, err)
	require.Nil(t, fault)
	assert.Equal(t, strings.ReplaceAll(good, " =", ":"), string(in.Append(nil)))
	for _, tt := range []struct{ from, to, says string }{
		{"[1, 2]", "[2, 1]", "line 1: lists[0]: row is not sorted: 1 comes behind 2"},
		{"[[1, 2], []]", "[]", "line 1: lists has 0 rows, and has 1..6"},
		{"[1, 2]", "[1, 2, 3, 4, 5, 6]", "line 1: lists[0] has 6 elements, and has 0..5"},
		{"[1, 2]", "[1, 12]", "line 1: lists[0]: row[1] is 12, outside -9..9"},
		{"[7, 9]", "[4, 9]", "line 2: spans[1]: from is 4, outside 5..1000000000000000 (before(to, 0))"},
		{"[7, 9]", "[7]", "line 2: spans[1] has 1 elements, and has 2"},
		{"[7, 9]", "[7, 8, 9]", "line 2: spans[1] has 3 elements, and has 2"},
		{"\"ab\"", "\"c\"", "line 3: names[0]: name is not distinct"},
		{"\"hut\"", "\"tent\"", "line 3: names[0][0] is \"tent\", and none of hut, pole"},
		{"[2, 7, 7]", "[2, 7]", "line 4: ropes[0] has 1 elements behind the first 1, and has 2 (length)"},
		{"[1, 0]", "[3, 0, 0, 0], [3, 0, 0, 0]", "line 4: ropes[2]: with row 3, which begins here, the sum of length is 8, more than 7"},
	} {
		fault, err := s.Check(strings.NewReader(strings.Replace(good, tt.from, tt.to, 1)), Options{})
		require.NoError(t, err)
		if assert.NotNil(t, fault, tt.to) {
			assert.Contains(t, fault.Error(), tt.says)
		}
	}
	small, complete, err := s.Shrink(context.Background(), in, func(_ context.Context, text []byte) (bool, error) {
		return strings.Count(string(text), "7") > 1, nil
	})
	require.NoError(t, err)
	assert.True(t, complete)
	assert.Equal(t, "lists: [[]]\nspans: []\nnames: [[\"hut\", \"a\"]]\nropes: [[2, 7, 7]]\n", string(small.Append(nil)))

	for text, says := range map[string]string{
		"a: rows(1..3) { x: int[2][2] }":                 "an array in a row is the last of its fields",
		"a: rows(1..3) { x: int[1..2], y: int }":         "an array in a row is the last of its fields",
		"a: rows(1..3) { x: token(1..3, \"ab\") }":       "this is text, and the rows hold int",
		"a: rows(1..3) { repeat 3 { x: int } }":          "a row has fields, and require",
		"b: rows(1..3) { x: int }":                       "the function has no argument b",
		"a: rows(1..3) { \"x\", x: int }":                "a token in quotes is no element",
		"a: rows 1..3 { x: int }":                        "expected ( behind rows",
		"repeat 3 { x: int }":                            "rows of an argument are written name: rows(1..9) { … }",
		"a: int[1..3][2] 1..2\na: rows(1..3) { x: int }": "there is a field for the argument a above",
	} {
		_, err := ParseArguments(text, takes(t, "a: int[][]"))
		assert.ErrorContains(t, err, says, text)
	}
	_, err = ParseArguments("a: rows(1..3) { x: int }", takes(t, "a: int[]"))
	assert.ErrorContains(t, err, "a is rows, and the function takes int[]")
	_, err = ParseArguments("a: rows(1..3) { x: token(0..3, \"a\")[0..3] }", takes(t, "a: text[][]"))
	assert.ErrorContains(t, err, "texts in rows are tokens of one character at the least")
}

func TestCountsAreNoArguments(t *testing.T) {
	s, err := ParseArguments("n: int 2..9, m: int 0..9\nlimit: int 0..n\ntemps: int[n] 1..n distinct\nedges: graph(n, m)\nname: token(m, \"ab\")", takes(t, "limit: int", "temps: int[]", "edges: int[][]", "name: text"))
	require.NoError(t, err)
	for seed := range Seed(60) {
		text := madeValid(t, s, Making{Seed: seed, Size: Size(seed) * Largest / 60})
		args, err := value.ReadCall(string(text), s.takes)
		require.NoError(t, err, "%s", text)
		require.Len(t, args, 4)
		assert.Len(t, args[2], len(args[3].(string)), "%s", text)
	}
	for call, says := range map[string]string{
		"limit: 0\ntemps: [1]\nedges: []\nname: \"\"":           "line 2: n is 1, outside 2..9",
		"limit: 0\ntemps: [1, 2]\nedges: []\nname: \"a\"":       "name has 1 characters, and has 0",
		"limit: 3\ntemps: [1, 2]\nedges: []\nname: \"\"":        "line 1: limit is 3, outside 0..2 (n)",
		"limit: 0\ntemps: [1, 2]\nedges: [[1, 3]]\nname: \"b\"": "line 3: ",
	} {
		fault, err := s.Check(strings.NewReader(call+"\n"), Options{})
		require.NoError(t, err, call)
		require.NotNil(t, fault, call)
		assert.Contains(t, fault.Error(), says, call)
	}
	table, err := ParseArguments("r: int 0..3, c: int 1..3\nmap: grid(r, c, \"#.\")", takes(t, "map: text[]"))
	require.NoError(t, err)
	for _, call := range []string{"map: []", "map: [\"##\", \"#.\"]"} {
		fault, err := table.Check(strings.NewReader(call+"\n"), Options{})
		require.NoError(t, err)
		assert.Nil(t, fault, call)
	}
	_, err = ParseArguments("k: int 1..3\ntemps: int[1..k]", takes(t, "temps: int[]"))
	assert.ErrorContains(t, err, "k is no argument of the function, and no argument has k elements")
	assert.Contains(t, strings.Join(s.Explain(), "\n"), "no argument: n, an integer from 2 to 9")
}

func TestArgumentsMayStandInAnyOrder(t *testing.T) {
	s, err := ParseArguments("n: int 1..9, limit: int 5..9\nnames: token(1..3, \"ab\")[n]\ntemps: int[n] 0..limit", takes(t, "temps: int[]", "names: text[]", "limit: int"))
	require.NoError(t, err)
	for seed := range Seed(20) {
		text := madeValid(t, s, Making{Seed: seed, Size: Largest})
		assert.Regexp(t, `(?s)^temps: .*\nnames: .*\nlimit: `, string(text), "as the function takes them")
	}
	for call, says := range map[string]string{
		"temps: [1]\nnames: [\"a\", \"b\"]\nlimit: 5": "line 2: names has 2 elements, and has 1 (n)",
		"temps: [6]\nnames: [\"a\"]\nlimit: 5":        "line 1: temps[0] is 6, outside 0..5 (limit)",
		"temps: [6]\nnames: [\"a\"]\nlimit: 4":        "line 3: limit is 4, outside 5..9",
	} {
		fault, err := s.Check(strings.NewReader(call+"\n"), Options{})
		require.NoError(t, err, call)
		require.NotNil(t, fault, call)
		assert.Contains(t, fault.Error(), says, call)
	}
	_, err = ParseArguments("a: int 1..9\na: int 1..9", takes(t, "a: int"))
	assert.Error(t, err)
	_, err = ParseArguments("b: int[3]\na: int 1..9", takes(t, "a: int"))
	assert.ErrorContains(t, err, "1:1: the function has no argument for this field")
}

func TestWhatArgumentsCannotBe(t *testing.T) {
	for _, tt := range []struct{ takes, shape, call, says string }{
		{"temps: int[]", "temps: int[1..4] -50..50", "temps = [1, 60]", "line 1: temps[1] is 60, outside -50..50"},
		{"temps: int[]", "temps: int[1..4] -50..50", "temps = []", "line 1: temps has 0 elements, and has 1..4"},
		{"temps: int[]", "temps: int[1..4] -50..50", "temps = [1, 2, 3, 4, 5]", "line 1: temps has 5 elements, and has 1..4"},
		{"temps: int[]", "temps: int[1..4] sorted", "temps = [2, 1]", "temps is not sorted: 1 comes behind 2"},
		{"temps: int[]", "temps: int[1..4]\nrequire sum(temps) > 5", "temps = [2, 1]", "it is required that sum(temps) > 5"},
		{"a: int, s: text", "a: int 1..5\ns: token(1..3, \"ab\")", "a = 3\ns = \"a b\"", "line 2: s holds ' ', which is not in \"ab\""},
		{"s: text", "s: token(1..3, \"ab\")", "s = \"abab\"", "s has 4 characters, and has 1 to 3"},
		{"s: text[]", "s: token(1..3, \"ab\")[2]", "s = [\"a\", \"b\", \"a\"]", "s has 3 elements, and has 2 (2)"},
		{"m: text[]", "m: grid(1..3, 2..3, \"ab\")", "m = [\"ab\", \"a\"]", "m[1] has 1 characters, and m[0] has 2"},
		{"m: text[]", "m: grid(1..3, 2..3, \"ab\")", "m = [\"a\", \"a\"]", "there are 1, outside 2..3"},
		{"t: int[][]", "t: int[1..3][1..3] 0..9", "t = [[1, 2], [3]]", "t[1] has 1 elements, and t[0] has 2"},
		{"t: int[][]", "t: int[1..3][1..3] 0..9", "t = [[1, 2], [3, 10]]", "t[1][1] is 10, outside 0..9"},
		{"n: int, e: int[][]", "n: int 1..9\ne: tree(n)", "n = 3\ne = [[1, 2], [2, 1]]", "line 2: this is no tree"},
		{"n: int, e: int[][]", "n: int 1..9\ne: tree(n)", "n = 2\ne = [[1, 2, 3]]", "e[0] has 3 numbers, and has 2"},
		{"way: text", "way: pick(\"in\", \"out\")", "way = \"ou\"", `way is "ou", and none of in, out; did you mean "out"?`},
		{"a: int?", "a: int 1..5", "a = null", "a is null, and has a value here"},
		{"a: bigint", "a: int 1..5", "a = 100000000000000000000", "a is past 64 bits"},
		{"a: int", "a: int 1..5", "a = \"x\"", "line 1"},
		{"a: int, b: int", "a: int 1..5, b: int a..9", "a = 5\nb = 4", "line 2: b is 4, outside 5..9 (a)"},
	} {
		fields := takes(t, strings.Split(tt.takes, ", ")...)
		s, err := ParseArguments(tt.shape, fields)
		require.NoError(t, err, tt.shape)
		fault, err := s.Check(strings.NewReader(tt.call+"\n"), Options{})
		require.NoError(t, err)
		require.NotNil(t, fault, tt.call)
		assert.Contains(t, fault.Error(), tt.says)
	}
}

func TestAShapeThatDoesNotFitTheFunction(t *testing.T) {
	for _, tt := range []struct{ takes, shape, says string }{
		{"a: int", "b: int 1..5", "1:1: the argument 1 of the function is a; name this field so"},
		{"a: int", "a: int 1..5, c: int", "1:14: c is no argument of the function, and no argument has c elements"},
		{"a: int[][]", "a: int[1..9][2] 0..9 rows sorted places 2", "places belongs to real"},
		{"a: int, b: text", "a: int 1..5", "there is no field for the argument b"},
		{"a: text", "a: int 1..5", "1:4: a is int or long or bigint, and the function takes text"},
		{"a: int[]", "a: int 1..5", "the function takes int[]"},
		{"a: int", "cases t: int 1..5 { a: int }", "a function has no lines"},
		{"a: int", "\"x\", a: int", "a token in quotes is no argument"},
		{"a: int", "blank", "a function has no lines"},
	} {
		_, err := ParseArguments(tt.shape, takes(t, strings.Split(tt.takes, ", ")...))
		assert.ErrorContains(t, err, tt.says)
	}
	s, err := ParseArguments("temps: int[1..5] -9..9, limit: int", takes(t, "temps: int[]", "limit: long"))
	require.NoError(t, err)
	assert.Equal(t, []string{"argument 1: temps, 1 to 5 integers, each from -9 to 9; their sum may reach 45", "argument 2: limit, an integer"}, s.Explain())
}

func TestArgumentsAreShrunk(t *testing.T) {
	s, err := ParseArguments("temps: int[1..1e5] -50..50, limit: int 0..1e9", takes(t, "temps: int[]", "limit: long"))
	require.NoError(t, err)
	in, err := s.Make(Making{Size: Largest, Seed: 4})
	require.NoError(t, err)
	small, complete, err := s.Shrink(t.Context(), in, func(_ context.Context, call []byte) (bool, error) {
		args, err := value.ReadCall(string(call), s.takes)
		if err != nil {
			return false, err
		}
		temps := args[0].([]any)
		return len(temps) > 2 && temps[len(temps)-1].(int64) != 0, nil
	})
	require.NoError(t, err)
	assert.True(t, complete)
	assert.Equal(t, "temps: [0, 0, 1]\nlimit: 0\n", strings.ReplaceAll(string(small.Append(nil)), "-1", "1"))
	assert.False(t, bytes.Contains(in.Append(nil), []byte("null")))
}
