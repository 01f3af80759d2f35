package shape

import (
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func parsed(t testing.TB, text string) *Shape {
	t.Helper()
	s, err := Parse(text)
	require.NoError(t, err, text)
	return s
}

const (
	lineOfInts = "n: int 1..2e5, cap: int 1..1e9\nw: int[n] 1..cap\n"
	manyWords  = `cases t: int 1..1e4 {
  n: int 1..2e5, k: int 0..n
  s: token(n, "a-z")
  require k != 1
  total n <= 2e5
}`
	queries = `n: int 1..1e5, m: int n-1..2e5
g: graph(n, m) connected with (length: int 1..1e6)
q: int 1..1e5
repeat q {
  either { "near", v: int 1..n }
  or     { "path", u: int 1..n, v: int 1..n; require u != v }
}`
	mixed = `r: int 1..50, c: int 1..50
map: grid(r, c, "#.")
p: perm(r, from 0)
x: real[3] -1e3..1e3 places 2
repeat 1..1e4 until "0 0" { a: int 1..9, b: int 1..9 }`
)

func TestInputsAreHeldAgainstAShape(t *testing.T) {
	for _, tt := range []struct{ name, shape, input, want string }{
		{"a line of integers", lineOfInts, "4 10\n5 5 5 10\n", ""},
		{"none at all", "n: int 0..5\nw: int[n] 1..9\n", "0\n\n", ""},
		{"past a bound that is a name", lineOfInts, "4 10\n5 5 5 12\n", "line 2, 4th value: w[3] is 12, outside 1..10 (cap)"},
		{"too few", lineOfInts, "4 10\n5 5 5\n", "line 2, 4th value: expected a blank and another value, found the end of the line"},
		{"too many", lineOfInts, "2 10\n5 5 5\n", "line 2: expected the end of the line, found a blank"},
		{"no integer", lineOfInts, "4 x\n", "line 1, 2nd value: expected an integer for cap, found x"},
		{"a real", lineOfInts, "4 1.5\n", "line 1, 2nd value: expected an integer for cap, found 1.5"},
		{"a leading zero", lineOfInts, "04 5\n", "line 1, 1st value: n has a leading zero"},
		{"minus nothing", "n: int -5..5", "-0\n", "n is -0"},
		{"past 64 bits", "n: int", "9223372036854775808\n", "n is past 64 bits"},
		{"the least of 64 bits", "n: int", "-9223372036854775808\n", ""},
		{"two blanks", lineOfInts, "4  10\n", "line 1, 2nd value: expected an integer for cap, found a blank"},
		{"a blank at the end", lineOfInts, "4 10 \n", "line 1: expected the end of the line, found a blank"},
		{"a line end of Windows", lineOfInts, "4 10\r\n5 5 5 5\r\n", "found a carriage return (a line end of Windows)"},
		{"no line end at the end", lineOfInts, "1 10\n5", "line 2: the last line has no end"},
		{"more behind the end", lineOfInts, "1 10\n5\n\n", "line 3: expected the end of the input, found the end of the line"},
		{"nothing", lineOfInts, "", "line 1, 1st value: expected an integer for n, found the end of the input"},

		{"cases", manyWords, "2\n3 2\nabc\n2 0\nzz\n", ""},
		{"a requirement that does not hold", manyWords, "1\n3 1\nabc\n", "line 3: it is required that k != 1, and that does not hold: k = 1"},
		{"a word of another length", manyWords, "1\n3 2\nabcd\n", "line 3, 1st value: s has 4 characters, and has 3"},
		{"a character of no set", manyWords, "1\n3 2\nabC\n", `line 3, 1st value: s holds 'C', which is not in "a-z"`},
		{"a sum past its bound", strings.Replace(manyWords, "total n <= 2e5", "total n <= 4", 1), "2\n3 2\nabc\n2 0\nzz\n", "line 4: with case 2, which begins here, the sum of n is 5, more than 4 (4)"},

		{"a graph and queries", queries, "3 2\n1 2 5\n2 3 1000000\n2\nnear 3\npath 1 2\n", ""},
		{"a graph in two parts", queries, "4 3\n1 2 5\n2 3 1\n1 3 1\n1\nnear 3\n", "line 2: the graph is not connected: it has 2 components"},
		{"an edge twice", queries, "3 3\n1 2 5\n2 3 1\n2 1 7\n1\nnear 3\n", "line 4: the edge 2 1 comes a second time"},
		{"a loop", queries, "3 2\n1 1 5\n2 3 1\n1\nnear 3\n", "line 2, 2nd value: an edge leads from 1 to itself"},
		{"no such vertex", queries, "3 2\n1 4 5\n", "line 2, 2nd value: vertex 4 is outside 1..3"},
		{"a weight past its bound", queries, "3 2\n1 2 0\n", "line 2, 3rd value: length[0] is 0, outside 1..1000000"},
		{"no such branch", queries, "2 1\n1 2 5\n1\nfar 2\n", `line 4: this line begins none of the branches: expected "near" or "path", found far`},
		{"a requirement in a branch", queries, "2 1\n1 2 5\n1\npath 2 2\n", "it is required that u != v, and that does not hold: u = 2, v = 2"},

		{"a map, a permutation, decimals, pairs", mixed, "2 3\n#.#\n...\n1 0\n-1.50 0.00 1000.00\n1 2\n9 9\n0 0\n", ""},
		{"a row of another length", mixed, "2 3\n#.#\n..\n", "line 3, 1st value: map[1] has 2 characters, and has 3"},
		{"no permutation", mixed, "2 1\n#\n.\n1 1\n", "line 4, 2nd value: p is no permutation: 1 comes a second time"},
		{"too few places", mixed, "1 1\n#\n0\n-1.5 0.00 1.00\n", "line 4, 1st value: x[0] is -1.5, with 1 digits behind the point, and has 2"},
		{"a decimal past its bound", mixed, "1 1\n#\n0\n1.00 2.00 1000.01\n", "line 4, 3rd value: x[2] is 1000.01, outside -1e3..1e3"},
		{"no end of the pairs", mixed, "1 1\n#\n0\n1.00 2.00 3.00\n1 2\n", "line 6, 1st value: expected an integer for a, found the end of the input"},
		{"no pair", mixed, "1 1\n#\n0\n1.00 2.00 3.00\n0 0\n", "expected another body of the repeat, found 0 of at least 1"},

		{"pairs to the end", "repeat 0..3 { a: int 1..9 }", "1\n2\n", ""},
		{"pairs past their number", "repeat 0..1 { a: int 1..9 }", "1\n2\n", "line 2: expected the end of the input, found 2"},
		{"distinct bodies", "n: int 1..9\nrepeat n distinct { a: int, b: int }", "2\n1 2\n2 1\n", ""},
		{"bodies that are alike", "n: int 1..9\nrepeat n distinct { a: int, b: int }", "3\n1 2\n2 1\n1 2\n", "line 4: these bodies are not distinct: this one is as that on line 2"},
		{"one a line", "n: int 1..9\nw: int[n] down 1..9 distinct", "2\n3\n4\n", ""},
		{"one a line, twice the same", "n: int 1..9\nw: int[n] down 1..9 distinct", "3\n3\n4\n3\n", "line 4: w is not distinct: 3 is at 0 and at 2, counted from 0"},
		{"rows", "w: int[2][3] 0..1", "0 1 0\n1 1 1\n", ""},
		{"a value in a row", "w: int[2][3] 0..1", "0 1 0\n1 2 1\n", "line 2, 2nd value: w[1][1] is 2, outside 0..1"},
		{"sorted", "w: int[3] sorted", "1 2 2\n", ""},
		{"not rising", "w: int[3] rising", "1 2 2\n", "line 1, 3rd value: w is not rising: 2 comes behind 2"},
		{"a free number of values", "w: int[1..3] 1..9", "1 2\n", ""},
		{"too few of a free number", "w: int[2..3] 1..9", "1\n", "w has 1 elements, and has 2..3"},
		{"a tree", "n: int 1..9\nt: tree(n)", "3\n1 2\n3 1\n", ""},
		{"a tree of one", "n: int 1..9\nt: tree(n)", "1\n", ""},
		{"no tree", "n: int 1..9\nt: tree(n)", "4\n1 2\n3 4\n2 1\n", "line 4, 2nd value: this is no tree: the edge 2 1 closes a cycle"},
		{"parents", "n: int 1..9\np: parents(n)", "4\n1 1 2\n", ""},
		{"parents of each other", "n: int 1..9\np: parents(n)", "3\n3 2\n", "this is no tree: with 2 as the parent of 3 there is a cycle"},
		{"directed and acyclic", "g: graph(3, 3) directed acyclic", "1 2\n2 3\n1 3\n", ""},
		{"a directed cycle", "g: graph(3, 3) directed acyclic", "1 2\n2 3\n3 1\n", "the graph is not acyclic"},
		{"both ways", "g: graph(2, 2) directed", "1 2\n2 1\n", ""},
		{"an odd cycle", "g: graph(3, 3) bipartite from 0", "0 1\n1 2\n2 0\n", "line 3, 2nd value: the graph is not bipartite: the edge 2 0 closes a cycle of odd length"},
		{"loops and parallel edges", "g: graph(2, 3) loops parallel", "1 1\n1 2\n2 1\n", ""},
		{"the same token, told apart by what follows", "either { \"a\" } or { \"a\", n: int }", "a 5\n", ""},
		{"a token of another branch", "either { \"a\", n: int } or { s: token(1, \"ab\"), n: int, m: int }", "a 5 6\n", ""},
		{"too few behind a token", "either { \"a\", n: int } or { \"b\" }", "a\n", "line 1, 2nd value: expected a blank and another value"},
		{"one of some", `pick(3, "x", -1), pick("a", "b")`, "-1 b\n", ""},
		{"none of some", `p: pick(3, "x")`, "4\n", "p is 4, and none of 3, x"},
		{"text to the end", `t: text(1..20, "a-z ")`, "an ice core\n", ""},
		{"no ASCII", `t: token(3, "é❄a")`, "é❄a\n", ""},
		{"an empty line", "n: int\nblank\nm: int", "1\n\n2\n", ""},
		{"no empty line", "n: int\nblank\nm: int", "1\n2\n", "line 2: expected an empty line, found 2"},
		{"a token", `"n", "=", n: int`, "n = 3\n", ""},
		{"another token", `"n", "=", n: int`, "m = 3\n", "line 1, 1st value: expected n, found m"},
		{"an array by its index", "n: int 1..9\nw: int[n]\nrequire w[0] < w[n-1]", "2\n1 2\n", ""},
		{"past the end of an array", "n: int 1..9\nw: int[n]\nrequire w[n] = 1", "1\n1\n", "w[n] is past the end of w, which has 1 elements"},
		{"functions", "n: int 1..9\nw: int[n]\nrequire sum(w) = 6 and max(w) - min(w) <= 2 and len(w) = n and abs(-n) = max(n, 1)", "3\n1 2 3\n", ""},
		{"arithmetic past 64 bits", "n: int 1..1e18\nrequire n * n > 0", "1000000000000000000\n", "n*n is past 64 bits"},
		{"a bound of a real that is an expression of integers", "n: int 1..9, x: real n/4..7%4 places 2", "1 0.25\n", ""},
		{"past such a bound", "n: int 1..9, x: real n/4..7%4 places 2", "1 3.01\n", "x is 3.01, outside n/4..7%4"},
		{"a range that nothing lies in", "a: int 0..9, b: int a..3", "5 4\n", "no integer lies in 5..3 (a..3)"},
	} {
		t.Run(tt.name, func(t *testing.T) {
			fault, err := parsed(t, tt.shape).Check(strings.NewReader(tt.input), Options{})
			require.NoError(t, err)
			if tt.want == "" {
				assert.Nil(t, fault, "%v", fault)
				return
			}
			require.NotNil(t, fault)
			assert.Contains(t, fault.Error(), tt.want)
		})
	}
}

func TestAPastedInputIsTakenLoosely(t *testing.T) {
	for _, tt := range []struct{ shape, input string }{
		{lineOfInts, "\n 4   10 \r\n\t5 5 5 10"}, {manyWords, "2\n\n3 2\r\nabc\n2 0\nzz\n\n\n"}, {mixed, "2 3\r\n#.#\r\n...\r\n1 0\n-1.50 0.00 1000.00\n1 2\n9 9\n 0  0"},
		{"repeat 0..3 { a: int 1..9 }", "1\n\n2\n\n"}, {"n: int\nblank\nm: int", "1\n2\n"}, {queries, "3 2\n1 2 5\n2 3 1\n2\n near 3\n\npath 1 2"},
	} {
		fault, err := parsed(t, tt.shape).Check(strings.NewReader(tt.input), Options{Loose: true})
		require.NoError(t, err)
		assert.Nil(t, fault, "%q: %v", tt.input, fault)
	}
	fault, _ := parsed(t, lineOfInts).Check(strings.NewReader("4 10\r\n5 5 5 12"), Options{Loose: true})
	require.NotNil(t, fault)
	assert.Contains(t, fault.Error(), "w[3] is 12, outside 1..10 (cap)")
}

func TestMistakesInAShapeAreToldWithTheirPlace(t *testing.T) {
	for _, tt := range []struct {
		name, shape string
		says        []string
	}{
		{"nothing", "# only a comment\n", []string{"1:1: this shape is empty"}},
		{"several at once", "n: imt 1..5\nw: int[m] 1..9\nx: real 0..1 place 2\n", []string{`1:4: "imt" is no value; did you mean "int"?`, "2:8: m is not declared before this", `3:14: "place" means nothing behind a value; did you mean "places"?`}},
		{"a name before it exists", "w: int[n]\nn: int 1..5", []string{"1:8: n is declared below this, in line 2; put that before it"}},
		{"a name of another block", "cases t: int 1..5 { n: int 1..5 }\nw: int[n]", []string{"2:8: n is not declared before this"}},
		{"a name twice", "n: int 1..5, n: int 1..5", []string{"1:14: n is declared a second time; the first is at 1:1"}},
		{"an empty range", "n: int 1..0", []string{"1:8: no integer lies in 1..0"}},
		{"a range past 64 bits", "n: int 1..10^19", []string{"10^19 is past 64 bits"}},
		{"a number past 64 bits", "n: int 1..1e19", []string{"1:11: 1e19 is past 64 bits"}},
		{"too small a range for distinct", "w: int[10] 1..9 distinct", []string{"1:4: there are no 10 distinct integers in 1..9"}},
		{"a decimal for an integer", "n: int 0.5..3", []string{"1:8: 0.5 stands in the bounds of real only"}},
		{"a condition for a number", "n: int 1..5\nw: int[n > 3]", []string{"n > 3 is a condition; a number was expected"}},
		{"a number for a condition", "n: int 1..5\nrequire n + 1", []string{"n + 1 is a number; a condition was expected, such as n + 1 > 0"}},
		{"comparisons in a row", "n: int 1..5\nrequire 1 < n < 3", []string{"comparisons do not follow each other; join two with and"}},
		{"branches that look alike", "either { a: int } or { b: int }", []string{"1:1: branches 1 and 2 cannot be told apart"}},
		{"one branch", "either { a: int }", []string{"either has two branches at least"}},
		{"a free repeat in the middle", "repeat 1..5 { a: int }\nb: int", []string{"1:1: a repeat with a range of counts ends at the end of the input"}},
		{"a free repeat of lines that may be empty", "repeat 1..5 by blank { repeat 1..5 { s: text(0..5, \"ab\") } }", []string{"1:24: this repeat ends at an empty line, and the first line of its bodies may be empty, too"}},
		{"a free repeat that ends where its bodies do", "repeat 1..5 by blank { a: int }\nblank\nb: int", []string{"1:1: empty lines stand between the bodies of this repeat, so it cannot end at one"}},
		{"bodies by something else", "repeat 3 by \"-\" { a: int }", []string{"1:13: an empty line between two bodies is written by blank, found \"-\""}},
		{"total outside", "n: int\ntotal n <= 5", []string{"2:1: total stands in a block of cases"}},
		{"what does not fit", "g: graph(2, 1) sorted\nn: int connected\nw: int down\nr: int places 2\nb: int[3] rising falling", []string{"1:4: sorted, rising and falling belong to arrays", "2:4: connected", "3:4: down belongs", "4:4: places belongs to real", "5:4: an array cannot be both"}},
		{"something behind several lines", "g: grid(2, 2, \"ab\"), n: int", []string{"1:1: this takes several lines, so it stands alone"}},
		{"a token twice", "p: pick(1, \"x\", \"1\")", []string{"1:17: 1 stands here twice"}},
		{"a total of no number", "cases t: int 1..3 {\n s: token(3, \"a\")\n total s <= 5\n total len(2) <= 3\n}", []string{"3:8: s is of token, not an integer", "4:12: len takes the name of an array"}},
		{"a blank in a word", "s: token(3, \"a \")", []string{"1:13: a token has no blank in it; write text"}},
		{"decimals with integers' operators", "x: real 0..1.5%2", []string{"has no value: decimals are added, subtracted, multiplied and divided only"}},
		{"something behind as many as there are", "w: int[0..3], n: int", []string{"1:1: so many values as there are go to the end of the line"}},
		{"something behind text", `t: text(3, "a"), n: int`, []string{"1:1: text is the rest of a line"}},
		{"an open string", `t: token(3, "a`, []string{"1:13: this string is never closed"}},
		{"an open block", "cases t: int 1..3 {\nn: int\n", []string{"1:19: this { is never closed"}},
		{"a set the wrong way round", `t: token(3, "z-a")`, []string{"the characters from 'z' to 'a' are none"}},
		{"an empty set", `t: token(3, "")`, []string{"the set of characters is empty"}},
		{"no function", "n: int 1..5\nrequire size(n) > 1", []string{`there is no function "size"; there are len, sum, min, max, abs, count and before`}},
		{"a whole array", "w: int[3]\nrequire w > 1", []string{"w is many integers; write w[0], or len, sum, min or max of it"}},
		{"an element of one integer", "n: int\nrequire n[0] > 1", []string{"n is one integer, and has no elements"}},
		{"a strange character", "n: int 1..5 $", []string{"'$' means nothing here"}},
		{"two items on a line", "n: int 1..5 m: int", []string{"1:13: expected ',' before m, or the end of the line"}},
		{"a sum of words", `s: token(3, "a-z")` + "\nrequire sum(s) > 1", []string{"sum takes integers, and s is of token"}},
		{"scale of nothing", "n: int\nscale m", []string{`scale names "m", which is not declared above`}},
		{"nothing to repeat", "n: int 1..1e9\nrepeat n { require n > 1 }", []string{"2:1: this repeat has no line in it"}},
		{"no case", "cases t: int 1..5 { require t > 1 }", []string{"1:1: these cases have no line in them"}},
		{"a brace too many", "n: int\n}\nm: imt", []string{"2:1: this } closes nothing", "3:4: \"imt\" is no value"}},
		{"a negative length", "w: int[-1]", []string{"a length of -1 is none"}},
	} {
		t.Run(tt.name, func(t *testing.T) {
			_, err := Parse(tt.shape)
			require.ErrorAs(t, err, &Mistakes{})
			for _, says := range tt.says {
				assert.Contains(t, err.Error(), says)
			}
		})
	}
}

func TestNoShapeIsTooMuch(t *testing.T) {
	deep := strings.Repeat("cases t: int 1..2 {\n", 100) + "n: int\n" + strings.Repeat("}\n", 100)
	_, err := Parse(deep)
	assert.NoError(t, err)
	_, err = Parse(strings.Repeat("cases t: int 1..2 {\n", 10000))
	assert.ErrorContains(t, err, "more than 200 deep")
	_, err = Parse("n: int\nrequire " + strings.Repeat("(", 100000) + "n")
	assert.ErrorContains(t, err, "more than 200 deep")
	s, err := Parse(strings.Repeat("int 1..5\n", 10000))
	require.NoError(t, err)
	assert.Len(t, s.Items, 10000)
	for _, endless := range []string{"w: token(0, \"a\")[0..1e18]", "w: token(0, \"a\")[1e18]", "w: token(0, \"a\")[1e18] down", "g: grid(1e18, 0, \"a\")", "repeat 1e18 { w: int[0] }", "t: tree(1e18)"} {
		for _, loose := range []bool{false, true} {
			fault, err := parsed(t, endless).Check(strings.NewReader("\x01\n"), Options{loose})
			require.NoError(t, err)
			assert.NotNil(t, fault, endless)
		}
	}
	_, err = Parse(strings.Repeat("x", mostText+1))
	assert.ErrorContains(t, err, "at most 1 MiB")
	fault, err := parsed(t, "n: int 1..1e18, m: int 0..1e18\ng: graph(n, m) directed acyclic").Check(strings.NewReader("1000000000000000000 2\n999999999999 1\n1 5\n"), Options{})
	require.NoError(t, err)
	assert.Nil(t, fault, "%v", fault)
}

func TestAWordIsANameWhereAColonFollows(t *testing.T) {
	s := parsed(t, "repeat: int 1..3, int: int repeat..5, from: int\nrepeat repeat { blank: int 0..int }\nscale repeat")
	assert.Equal(t, []string{"repeat"}, s.Scale)
	fault, err := s.Check(strings.NewReader("2 3 9\n0\n3\n"), Options{})
	require.NoError(t, err)
	assert.Nil(t, fault, "%v", fault)
	assert.Equal(t, []string{"n", "m"}, parsed(t, "n: int 1..5, m: int 1..5, k: int 1..5\ng: graph(n, m)\nrepeat k-k { a: int }").Scale[:2])
}

func TestExpressionsAreWrittenAsTheyAreMeant(t *testing.T) {
	for text, want := range map[string]string{
		"1+2*3 = 7 and not 2^3^2 < 5": "1 + 2*3 = 7 and not 2^3^2 < 5", "(1+2)*3 = 9": "(1 + 2)*3 = 9", "-n-1 != -(n+1)": "-n - 1 != -n + 1", "max(n, 2) > 1 or n = 0": "max(n, 2) > 1 or n = 0",
	} {
		s := parsed(t, "n: int 1..5\nrequire "+text)
		cond := s.Items[1].(*requireNode).Cond
		if !strings.Contains(text, "-(") {
			assert.Equal(t, want, cond.String())
		}
	}
	for text, want := range map[string]int64{"7/2": 3, "-7/2": -4, "-7%3": 2, "7%-3": -2, "2^10": 1024, "2^0": 1, "10-3-2": 5, "-2^2": -4, "min(3, 1, 2)": 1} {
		s := parsed(t, "n: int "+text+"..1e9")
		got, ok := constant(s.Items[0].(*lineNode).Fields[0].Value.Range.Low)
		assert.True(t, ok)
		assert.Equal(t, want, got, text)
	}
}

func FuzzNoShapeMakesTheParserFail(f *testing.F) {
	for _, seed := range []string{lineOfInts, manyWords, queries, mixed, "either { } or { }", "cases t: int { total", "w: int[1][2][3]", "require ((", "n: int \"\\"} {
		f.Add(seed, "3\n1 2\n")
	}
	f.Fuzz(func(t *testing.T, text, input string) {
		began := time.Now()
		defer func() { assert.Less(t, time.Since(began), time.Second, "%q %q", text, input) }()
		s, err := Parse(text)
		if err != nil {
			require.ErrorAs(t, err, &Mistakes{})
			assert.NotEmpty(t, err.Error())
			return
		}
		for _, loose := range []bool{false, true} {
			if fault, err := s.Check(strings.NewReader(input), Options{loose}); err == nil && fault != nil {
				assert.Positive(t, fault.Line)
				assert.NotEmpty(t, fault.Text)
			}
		}
	})
}

func BenchmarkCheckingIntegers(b *testing.B) {
	s := parsed(b, "n: int 1..1e7\nw: int[n] 1..1e9")
	input := "2000000\n" + strings.TrimSuffix(strings.Repeat("123456789 ", 2000000), " ") + "\n"
	b.SetBytes(int64(len(input)))
	for b.Loop() {
		if fault, err := s.Check(strings.NewReader(input), Options{}); fault != nil || err != nil {
			b.Fatal(fault, err)
		}
	}
}
