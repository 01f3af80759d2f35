package shape

import (
	"bytes"
	"context"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// What statements say of values, each with an input that has it, one that has not, and what is said of that.
var saidOfValues = []struct{ text, good, bad, says string }{
	{"n: int 1..9\na: int[n] 1..99\nm: int 1..9\nb: int[m] 1..99 but a distinct", "2\n3 4\n2\n5 6\n", "2\n3 4\n2\n5 4\n", "line 4, 2nd value: b[1] is 4, which it must not be: but a"},
	{"n: int 1..9\na: int[n] 1..30, x: int 1..30 but a", "2\n3 4 5\n", "2\n3 4 4\n", "x is 4, which it must not be: but a"},
	{"n: int 1..9\nrepeat n { k: int 1..99 distinct }\nx: int 1..99 but k but 50", "1\n3\n4\n", "1\n3\n3\n", "x is 3, which it must not be: but k"},
	{"x: real 0..9 places 2, y: real x..9 places 2", "1.50 1.50\n", "1.50 1.49\n", "line 1, 2nd value: y is 1.49, outside x..9"},
	{"n: int 2..9\nx: real[n] 0..9 places 1\nrequire x[0] < x[1] and sum(x) >= 0.5", "2\n0.1 0.4\n", "2\n0.1 0.1\n", "it is required that x[0] < x[1] and sum(x) >= 0.5"},
	{"a: real 0..9 places 1, b: real 0..9 places 1, n: int 0..9\nrequire a + b > n / 2 or max(n, 3) = 3", "0.1 0.5 1\n", "0.0 0.0 7\n", "it is required that a + b > n / 2 or max(n, 3) = 3, and that does not hold: a = 0.0, b = 0.0, n = 7"},
	{"x: real -5..5 places 0..3", "1\n", "1.0001\n", "x is 1.0001, with 4 digits behind the point, and has 0 to 3"},
	{"n: int 1..9\nx: real[n] 0.25..0.75 places 1..2 distinct", "2\n0.5 0.25\n", "1\n1.\n", "expected a decimal number"},
	{"n: int 1..5\nd: int[n][n] 1..9 symmetric diagonal 0", "2\n0 3\n3 0\n", "2\n0 3\n4 0\n", "line 3, 1st value: d is not symmetric: d[1][0] is 4, and d[0][1] is 3"},
	{"n: int 1..5\nd: int[n][n] 1..9 symmetric diagonal 0", "1\n0\n", "2\n0 3\n3 1\n", "d[1][1] is 1, and 0 (0) stands on the diagonal"},
	{"n: int 1..5\nd: int[n][n] 0..9 symmetric", "2\n5 3\n3 9\n", "2\n0 3\n3 10\n", "outside 0..9"},
	{"a: digits(1..50), b: digits(1..50)", "0 123\n", "0 0123\n", "line 1, 2nd value: b has a leading zero"},
	{"a: digits(1..50)", "12345678901234567890\n", "-5\n", "holds '-'"},
	{"n: int 1..9\na: digits(1..3)[n] sorted", "3\n9 10 100\n", "3\n10 9 100\n", "a is not sorted: 9 comes behind 10"},
	{"n: int 1..90\nspan: int[n][2] 0..9 rows sorted", "2\n3 3\n1 2\n", "2\n3 3\n2 1\n", "line 3, 2nd value: span[1] is not sorted: 1 comes behind 2"},
	{"r: int 1..9, c: int 1..9\nm: int[r][c] 0..5 rows rising", "2 2\n3 5\n1 2\n", "1 2\n3 3\n", "m[0] is not rising"},
	{"r: int 1..9, c: int 1..4\nm: int[r][c] 0..5 rows distinct", "2 2\n3 5\n3 5\n", "1 2\n3 3\n", "m[0] is not distinct: 3 is at 0 and at 1"},
	{"n: int 1..90\na: digits(1)[n] distinct", "10\n0 1 2 3 4 5 6 7 8 9\n", "1\n10\n", "a[0] has 2 characters, and has 1"},
	{"a: digits(1..8, \"0-9a-f\"), n: int 1..9\nb: digits(1..30, \"01\")[n] sorted", "ff 2\n0 101\n", "0f 1\n1\n", "line 1, 1st value: a has a leading zero"},
	{"n: int 1..40\nb: digits(1..5, \"01\")[n] distinct", "3\n0 1 10\n", "1\n12\n", "holds '2'"},
	{"n: int 1..9\nto: pick(\"-\", \"x\")[n] or int 1..n", "3\n- 3 x\n", "3\n- 4 x\n", "to[1] is 4, outside 1..3 (n), and none of -, x"},
	{"n: int 1..9\nrepeat n { \"add\", v: pick(\"a\", \"b\") or int -9..9 }", "2\nadd -9\nadd b\n", "2\nadd 03\nadd b\n", "v is 03, and none of a, b, or an integer -9..9"},
	{"s: token(1..40, \"a-c\")\nq: int 1..9\np: part(s)[q] down", "abcab\n2\nb\nbcab\n", "abcab\n2\nb\nac\n", "line 4, 1st value: p[1] is ac, which is no part of s"},
	{"s: token(5..40, \"a-c\"), k: int 1..3\nq: int 1..3\np: part(s, 1..k)[q] distinct", "abcab 2\n2\nb ca\n", "abcab 2\n1\nabc\n", "p[0] has 3 characters, and has 1..2"},
	{"s: token(5..40, \"a-c\")\nq: int 1..3\np: part(s, 1..2)[q] distinct", "abcab\n2\nb ca\n", "abcab\n2\nb b\n", "p is not distinct"},
	{"n: int 3..9\nv: pick(\"a\", \"b\")[n] or int 1..8 distinct", "3\na 7 1\n", "3\na 7 7\n", "v is not distinct"},
	{"n: int 3..9\nv: pick(\"a\")[n] or int 1..8\nrequire count(v, \"a\") = 1", "3\na 7 1\n", "3\na a 7\n", "it is required that count(v, \"a\") = 1"},
	{"\"<\" & v: pick(\"a\", \"b\") or int 1..99 & \">\", w: pick(\"-\", \"c\")[1..5] or int 0..50 by \",\"", "<7> 3,-\n", "<c> 3\n", "v is c, and none of a, b, or an integer 1..99"},
	{"n: int 3..9\na: int[n] 1..3 \nx: among(a)[1..9] distinct", "3\n1 1 2\n2 1\n", "3\n1 1 2\n2 2\n", "x is not distinct"},
	{"n: int 1..9\na: digits(1..2)[n] distinct", "2\n1 10\n", "2\n1 1\n", "a is not distinct"},
	{"n: int 1..9\nname: token(1..5, \"a-c\")[n] down distinct, q: int 1..9\nask: among(name)[q] down", "", "", ""},
	{"n: int 1..9\nname: token(1..5, \"a-c\")[n] distinct\nq: int 1..9\nask: among(name)[q] down", "2\nab c\n2\nc\nc\n", "2\nab c\n2\nc\na\n", "line 5, 1st value: ask[1] is a, which is none of name"},
	{"n: int 1..9\nrepeat n { k: int 1..99 distinct, v: int 0..9 }\nq: int 1..9\nrepeat q { ask: among(k) }", "1\n5 0\n2\n5\n5\n", "1\n5 0\n1\n0\n", "ask is 0, which is none of k"},
	{"n: int 3..9\na: int[n] 1..99 distinct\nx: among(a), two: among(a)[2] distinct", "3\n5 6 7\n6 5 7\n", "3\n5 6 7\n6 5 5\n", "two is not distinct"},
}

// What is said of points.
var saidOfPoints = []struct{ text, good, bad, says string }{
	{"n: int 3..30\np: int[n][2] -1000..1000 spread", "4\n0 0\n1 0\n0 1\n5 5\n", "4\n0 0\n1 1\n0 1\n5 5\n", "line 5: p: points 0, 1 and 3 lie on a line, counted from 0"},
	{"n: int 1..30\np: int[n][2] -1000..1000 spread", "1\n0 0\n", "3\n0 0\n7 1\n0 0\n", "points 0 and 2 are the same, counted from 0"},
	{"n: int 3..30\np: int[n][2] 0..100000 convex", "4\n0 0\n4 0\n4 4\n0 4\n", "4\n0 0\n4 0\n1 1\n0 4\n", "line 4: p: the polygon is not convex at vertex 2"},
	{"n: int 3..30\np: int[n][2] 0..100000 convex", "3\n0 0\n0 4\n4 0\n", "4\n0 0\n4 0\n8 0\n0 4\n", "is not convex at vertex 1"},
	{"n: int 3..30\np: int[n][2] -9..9 convex", "3\n0 0\n0 4\n4 0\n", "5\n0 9\n-5 -8\n9 2\n-9 2\n5 -8\n", "the polygon is not convex"},
	{"n: int 3..30\np: int[n][2] 0..100000 convex counterclockwise", "3\n0 0\n4 0\n0 4\n", "3\n0 0\n0 4\n4 0\n", "p: the vertices go clockwise"},
	{"n: int 3..30\np: int[n][2] -1e9..1e9 simple", "4\n0 0\n4 0\n1 1\n0 4\n", "4\n0 0\n4 4\n4 0\n0 4\n", "line 4: p: the sides from vertices 0 and 2 meet"},
	{"n: int 3..30\np: int[n][2] -1e9..1e9 simple", "4\n0 0\n4 0\n8 0\n0 4\n", "4\n0 0\n4 0\n2 0\n0 4\n", "the sides from vertices 0 and 1 meet"},
	{"n: int 3..30\np: int[n][2] -1e9..1e9 simple", "5\n0 0\n4 0\n4 4\n2 1\n0 4\n", "5\n0 0\n4 0\n4 4\n2 0\n0 4\n", "meet"},
	{"n: int 3..30\np: int[n][2] -20..20 simple clockwise", "3\n0 0\n0 4\n4 0\n", "3\n0 0\n4 0\n0 4\n", "the vertices go counterclockwise"},
	{"p: int[6][2] -20..20 simple", "0 0\n9 0\n9 9\n8 9\n8 1\n0 1\n", "0 0\n9 0\n9 9\n0 0\n8 1\n0 1\n", "meet"},
}

func TestWhatStatementsSayOfPointsIsHeldAndGenerated(t *testing.T) {
	for _, tt := range saidOfPoints {
		if strings.HasPrefix(tt.text, "p:") { // nothing to choose
			fault, err := parsed(t, tt.text).Check(strings.NewReader(tt.bad), Options{})
			require.NoError(t, err)
			assert.Contains(t, fault.Error(), tt.says)
			continue
		}
		holdsAndMakes(t, tt.text, tt.good, tt.bad, tt.says)
	}
	for text, says := range map[string]string{
		"p: int[5][3] 0..9 convex":                            "spread, simple and convex belong to points: int[n][2]",
		"p: int[5] 0..9 spread":                               "spread, simple and convex belong to points: int[n][2]",
		"p: int[5][2] 0..9 clockwise":                         "are directions of a polygon: simple or convex",
		"p: int[5][2] 0..9 convex clockwise counterclockwise": "are directions of a polygon",
		"p: int[5][2] 0..9 convex distinct":                   "points have a range, and are neither distinct nor in order",
	} {
		_, err := Parse(text)
		assert.ErrorContains(t, err, says, text)
	}
	s := parsed(t, "n: int 3..60\np: int[n][2] 0..30 simple")
	in, err := s.Make(Making{Seed: 7, Size: Largest})
	require.NoError(t, err)
	small, complete, err := s.Shrink(context.Background(), in, func(context.Context, []byte) (bool, error) { return true, nil })
	require.NoError(t, err)
	assert.True(t, complete)
	assert.Equal(t, "3\n", string(small.Append(nil))[:2], "a polygon it stays")
	for _, one := range []string{"convex", "spread"} {
		in, err := parsed(t, "n: int 3..3000\np: int[n][2] -1e9..1e9 "+one).Make(Making{Size: Largest, Exact: true})
		require.NoError(t, err)
		assert.Greater(t, len(in.Append(nil)), 20_000, one)
	}
	assert.Contains(t, strings.Join(parsed(t, "n: int 3..9\np: int[n][2] 0..9 simple clockwise").Explain(), " "), "points, the vertices of a polygon that does not cross itself, clockwise")
}

func TestSidesOfLinesAreExact(t *testing.T) {
	const far = 1 << 62
	assert.Equal(t, 1, side(point{0, 0}, point{far, 1}, point{-far, 0}))
	assert.Equal(t, 0, side(point{-far, -far}, point{0, 0}, point{far, far}))
	assert.Equal(t, -1, side(point{0, 0}, point{1e9, 1e9}, point{1e9, 1e9 - 1}))
	assert.Equal(t, 1, side(point{-1e9, -1e9}, point{1e9, 1e9 - 1}, point{1e9, 1e9}))
}

// What lies between empty lines.
var saidOfBlanks = []struct{ text, good, bad, says string }{
	{"repeat 1..9 by blank { repeat 1..9 { x: int 1..99 } }", "1\n2\n\n3\n", "1\n2\n\n\n3\n", "line 4: expected another body of the repeat, found 0 of at least 1"},
	{"repeat 1..9 by blank { repeat 1..9 { x: int 1..99 } }", "1\n", "1\n\n", "line 3: expected another body behind the empty line, found the end of the input"},
	{"n: int 1..9\nrepeat n by blank { a: int 1..99, b: int 1..9 }", "2\n1 2\n\n3 4\n", "2\n1 2\n3 4\n", "line 3: expected an empty line before another body, found 3"},
	{"repeat 1..9 { a: int 1..9 & \"|\" & b: int 1..9 }\nblank\nrepeat 1..9 { p: int[1..5] 1..9 by \",\" }", "1|2\n3|4\n\n1,2\n", "1|2\n1,2\n", "line 2"},
	{"repeat 1..3 by blank until \"end\" { \"lot\", x: int 1..99 }", "lot 1\n\nlot 2\nend\n", "lot 1\n\nlot 2\n\nend\n", "line 5"},
	{"repeat 0..3 { \"rule\", x: int 1..99 }\nblank\nq: int 1..9", "\n5\n", "5\n", "line 1"},
}

func TestWhatLiesBetweenEmptyLinesIsHeldAndGenerated(t *testing.T) {
	for _, tt := range saidOfBlanks {
		holdsAndMakes(t, tt.text, tt.good, tt.bad, tt.says)
		if strings.Contains(tt.good, "\n\n") { // as people paste it
			fault, err := parsed(t, tt.text).Check(strings.NewReader(strings.ReplaceAll(tt.good, "\n", " \r\n")+"\r\n\r\n"), Options{Loose: true})
			require.NoError(t, err)
			assert.Nil(t, fault, "%s: %v", tt.text, fault)
		}
	}
}

func TestWhatStatementsSayOfValuesIsHeldAndGenerated(t *testing.T) {
	for _, tt := range saidOfValues {
		if tt.good == "" {
			_, err := Parse(tt.text)
			assert.Error(t, err)
			continue
		}
		holdsAndMakes(t, tt.text, tt.good, tt.bad, tt.says)
	}
}

// holdsAndMakes looks whether a shape takes one input and not another, with what it says of that, and at what is made
// from it.
func holdsAndMakes(t *testing.T, text, good, bad, says string) {
	t.Helper()
	s := parsed(t, text)
	fault, err := s.Check(strings.NewReader(good), Options{})
	require.NoError(t, err)
	assert.Nil(t, fault, "%s: %v", text, fault)
	fault, err = s.Check(strings.NewReader(bad), Options{})
	require.NoError(t, err)
	if assert.NotNil(t, fault, text) {
		assert.Contains(t, fault.Error(), says, text)
	}
	different := map[string]bool{}
	for seed := range Seed(100) {
		in, err := s.Make(Making{Seed: seed, Size: Size(seed) * Largest / 100})
		if !assert.NoError(t, err, "%s: seed %d", text, seed) {
			continue
		}
		made := in.Append(nil)
		fault, err := s.Check(bytes.NewReader(made), Options{})
		require.NoError(t, err)
		assert.Nil(t, fault, "%s: %v\n%s", text, fault, made)
		different[string(made)] = true
	}
	assert.Greater(t, len(different), 20, text)
	edges, texts := edgeCasesOf(t, s, 30)
	assert.NotEmpty(t, edges.Cases)
	assert.NotEmpty(t, texts)
	assert.NotEmpty(t, s.Explain())
}

func TestWhatIsSaidWronglyOfValuesIsTold(t *testing.T) {
	for text, says := range map[string]string{
		"n: int 1..9\nd: int[n][3] 1..9 symmetric":  "symmetric and diagonal belong to a square of int: int[n][n]",
		"d: int[3][3] 1..9 rows":                    "rows stands before an order, or distinct, of int[r][c]",
		"d: int[3] 1..9 rows sorted":                "rows stands before an order",
		"d: int[3][3] 1..9 symmetric distinct":      "is neither distinct nor in order",
		"x: real 0..1 places 3..1":                  "places can be 0 to 18",
		"n: int 1..9\nx: among(n)":                  "n is no array of tokens or integers",
		"x: among(3)":                               "expected a name of what was there before, such as among(names)",
		"x: among(names)":                           "names is not declared before this",
		"s: token(1..9, \"ab\")\nn: int 1..9 but s": "s is of token, not an integer",
		"x: real[3] 0..1\nrequire x > 0.5":          "x is many decimals; write x[0], or sum, min or max of it",
		"x: real 0..1\nrequire x % 2 > 0":           "decimals are added, subtracted, multiplied and divided only",
		"x: real 0..1\nrequire len(x) > 0.5":        "of decimals there are sum, min and max of an array",
		"x: real 0..1\nn: int 1..x":                 "x is of real, not an integer",
		"x: real 0..1\nrequire x":                   "x is a number; a condition was expected",
		"x: digits(0..5)":                           "an integer has one digit at the least",
		"x: rows(1..9) { a: int }":                  "rows are an argument of a function; lines of the input are repeat n { … }",
		"n: int 1..9\ns: token(1..9, \"ab\")[n] down\nrequire sum(len(s)) <= 9": "the characters of all tokens are bounded in a repeat",
		"n: int 1..9\ns: token(1..9, \"ab\")[n] down\nrequire sum(s) <= 9":      "sum takes integers, and s is of token; the characters of all tokens",
		"n: int 1..9\np: part(n)":                           "n is no token, of which a part could be taken",
		"s: token(1..9, \"ab\")[3]\np: part(s)":             "s is no token, of which a part could be taken",
		"x: part(3)":                                        "expected a name of a token before it, such as part(s)",
		"x: int 1..9 or pick(\"a\")":                        "is written with the tokens first: pick(\"a\", \"b\") or int 1..9",
		"x: pick(\"a\") or 1..9":                            "expected int with a range",
		"x: pick(\"a\")[3] or int 1..at+1":                  "integers beside tokens have the same bounds for all elements",
		"x: digits(1..5, \"0\")":                            "these are the digits, from that of nothing on",
		"n: int 1..9\nd: int[n][n] 1..9\nx: int 1..9 but d": "",
	} {
		_, err := Parse(text)
		if says == "" {
			assert.NoError(t, err, text)
			continue
		}
		assert.ErrorContains(t, err, says, text)
	}
}

func TestShrinkingKeepsAMatrixSymmetric(t *testing.T) {
	s := parsed(t, "n: int 1..6\nd: int[n][n] 1..99 symmetric diagonal 0")
	in, err := s.Make(Making{Seed: 4, Size: Largest})
	require.NoError(t, err)
	small, complete, err := s.Shrink(t.Context(), in, func(_ context.Context, text []byte) (bool, error) { return bytes.Count(text, []byte{'\n'}) >= 3, nil })
	require.NoError(t, err)
	assert.True(t, complete)
	assert.Equal(t, "2\n0 1\n1 0\n", string(small.Append(nil)))
}

func TestWhatIsEmptyLeavesNoBlankAtTheEndOfALine(t *testing.T) {
	for _, text := range []string{"n: int 1..9, s: token(0..2, \"ab\")", "n: int 1..9, s: text(0..2, \"ab \")"} {
		s := parsed(t, text)
		for input, says := range map[string]string{"3\n": "", "3 a\n": "", "3 \n": "line 1, 2nd value: a blank stands at the end of the line", "3": "the last line has no end", "3 abb\n": "has 3 characters, and has 0 to 2"} {
			in, fault, err := s.Read(strings.NewReader(input), Options{})
			require.NoError(t, err)
			if says == "" {
				require.Nil(t, fault, "%v", fault)
				assert.Equal(t, input, string(in.Append(nil)))
			} else if assert.NotNil(t, fault, input) {
				assert.Contains(t, fault.Error(), says)
			}
		}
		for _, input := range []string{"3 \n", "3", "3\r\n", "3   \n\n"} {
			in, fault, err := s.Read(strings.NewReader(input), Options{Loose: true})
			require.NoError(t, err)
			require.Nil(t, fault, "%q: %v", input, fault)
			assert.Equal(t, "3\n", string(in.Append(nil)))
		}
		for seed := range Seed(40) {
			madeValid(t, s, Making{Seed: seed, Size: Size(seed) * Largest / 40})
		}
	}
	fault, err := parsed(t, "n: int 1..9, s: token(1..2, \"ab\")").Check(strings.NewReader("3\n"), Options{})
	require.NoError(t, err)
	assert.Contains(t, fault.Error(), "expected a blank and another value")
}
