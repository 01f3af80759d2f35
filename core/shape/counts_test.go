package shape

import (
	"context"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestSymbolsAndValuesStandAsOftenAsIsRequired(t *testing.T) {
	for _, text := range []string{
		"r: int 1..20, c: int 2..20\nmap: grid(r, c, \"#.SE\")\nrequire count(map, \"S\") = 1 and count(map, \"E\") = 1",
		"r: int 1..20, c: int 2..20\nmap: grid(r, c, \"#.SE\")\nrequire count(map, \"S\") = 1\nrequire 1 = count(map, \"E\")\nrequire count(map, \"#\") <= r*c/2",
		"n: int 1..40\ns: token(2*n, \"01\")\nrequire count(s, \"0\") = count(s, \"1\")",
		"n: int 1..40\ns: token(n, \"abc\")\nrequire count(s, \"a\") > n/2",
		"n: int 5..40, k: int 1..5\na: int[n] 1..9\nrequire count(a, 7) = k and count(a, 1) < 3",
		"n: int 1..9\nway: pick(\"in\", \"out\")[n]\nrequire count(way, \"in\") <= 2",
		"cases t: int 1..5 {\n  n: int 1..9\n  s: token(n, \"()\")\n  require count(s, \"(\") = n/2\n}",
	} {
		s, err := Parse(text)
		require.NoError(t, err)
		for seed := range Seed(80) {
			madeValid(t, s, Making{Seed: seed, Size: Size(seed) * Largest / 80})
		}
		edgeCasesOf(t, s, 20)
	}
}

func TestWhatIsCountedOtherwiseIsAFault(t *testing.T) {
	s, err := Parse("r: int 1..9, c: int 1..9\nmap: grid(r, c, \".SE\")\nrequire count(map, \"S\") = 1 and count(map, \"E\") = 1")
	require.NoError(t, err)
	fault, err := s.Check(strings.NewReader("2 2\nS.\nES\n"), Options{})
	require.NoError(t, err)
	require.NotNil(t, fault)
	assert.Contains(t, fault.Error(), "count(map, \"S\") = 2, count(map, \"E\") = 1")
	for text, says := range map[string]string{
		"n: int 1..3\nrequire count(n, 1) = 1": "n is no array of integers", "s: token(3, \"ab\")\nrequire count(s, \"c\") = 1": `"c" is not in the set of s, "ab"`,
		"s: token(3, \"ab\")\nrequire count(s, \"ab\") = 1": `count counts one character, and "ab" has 2`, "s: token(3, \"ab\")\nrequire count(s) = 1": "count takes two arguments, and here are 1",
		"way: pick(\"in\")[3]\nrequire count(way, \"up\") = 1": `"up" is none of the tokens of way`, "a: int[3] 1..2\nrequire count(a, \"x\") = 1": "a has no characters; a value is counted as count(a, 1)",
	} {
		_, err := Parse(text)
		assert.ErrorContains(t, err, says, text)
	}
}

func TestWhatIsCountedStaysSoWhereItIsShrunk(t *testing.T) {
	s, err := Parse("n: int 2..30\ns: token(n, \"abS\")\nrequire count(s, \"S\") = 1")
	require.NoError(t, err)
	in, err := s.Make(Making{Seed: 3, Size: Largest})
	require.NoError(t, err)
	small, complete, err := s.Shrink(t.Context(), in, func(_ context.Context, text []byte) (bool, error) { return strings.Contains(string(text), "S"), nil })
	require.NoError(t, err)
	assert.True(t, complete)
	assert.Regexp(t, `^2\n(aS|Sa)\n$`, string(small.Append(nil)))
}

func TestWaysOfOtherLanguagesAreToldWhatToWriteInstead(t *testing.T) {
	for text, says := range map[string]string{
		"n == 3": "1:1: a condition begins with require: require n = …", "n <= 5": "a condition begins with require: require n <= …", "n: int 1..3\nrequire n == 3": "2:11: write = in place of ==",
		"n: int 1..3\nrequire n > 1 && n < 3": "&& means nothing here; write and", "// a": "a comment begins with #", "a[n]: int": "the length of an array stands behind its type: a: int[n] 1..9",
		"s: string(3, \"a\")": "there is no string here; a token without blanks is token", "s: word(3, \"a\")": "there is no word here; characters without blanks are token(1..20", "x: float 1..2": "a decimal is real", "n: int 1…3": "a range is written 1..9",
		"a: int[n] 1..2\nn: int 1..3": "n is declared below this, in line 2", "cases t { }": "say how many cases there may be: cases t: int 1..100 { … }", "cases t: int 1..3 {\n a: int[n] 1..9\n n: int 1..3\n}": "n is declared below this, in line 3",
		"n: int 1..3 // so many": "1:13: // means nothing here; a comment begins with #", "a: int[5] rising 1..9": "the range stands before everything else: int[n] 1..9 rising",
		"n: int 1..3\nrequire n <> 3": "write !=", "int n 1..9": "1:5: the name stands first: n: int 1..9", "int n": "the name stands first", "n: int [1,9]": "1:10: bounds are written as a range: int 1..9",
		"n: int 1-9": "1:8: a range is written 1..9", "n: int 1...9": "a range is written 1..9", "n: int 1..10**9": "write ^", "n, m: int 1..9": "each name has its own value: n: int 1..9, …",
		"n: int <= 5": "bounds are written as a range", "n: int 1..1,000": "thousands are written 1_000", "n: int 1..3\nif n = 3 { a: int }": "there is no if here; what differs is either",
		"a: int[5] 1..9 unique": "write distinct", "g: graph(5, 5) undirected": "a graph is undirected unless", "while n { }": "repeat 1..9 until",
	} {
		_, err := Parse(text)
		assert.ErrorContains(t, err, says, text)
	}
}

func TestWhatCanHoldIsFound(t *testing.T) {
	for _, text := range []string{
		"n: int 1..100000\nrequire n % 1000 = 7", "a: int 1..1e9, b: int 1..1e9\nrequire a % 97 = 13 and b % 89 = a % 89", "w: token(1..2, \"ab\")[3] rising", "w: token(1..2, \"ab\")[0..9] falling",
		"a: int[1..9] 1..3 distinct", "way: pick(\"in\", \"out\")[1..9] distinct", "n: int 2..9\na: int[n] 1..9\nrequire a[0] = 1 and sum(a) % 2 = 0",
	} {
		s, err := Parse(text)
		require.NoError(t, err)
		for seed := range Seed(60) {
			madeValid(t, s, Making{Seed: seed, Size: Size(seed) * Largest / 60})
		}
	}
}
