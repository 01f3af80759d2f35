package shape

import (
	"bytes"
	"context"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestColumnsOfARepeatAreHeldToTheirOrder(t *testing.T) {
	for _, tt := range []struct{ text, good, bad, says string }{
		{"n: int 1..9\nrepeat n { k: int 1..9 distinct, v: int 0..9 }", "2\n1 5\n2 5\n", "2\n1 5\n1 6\n", "line 3, 1st value: k is not distinct: 1 is at 0 and at 1"},
		{"n: int 1..9\nrepeat n { v: int 0..9, k: int 1..9 rising }", "3\n5 1\n5 2\n0 9\n", "3\n5 1\n5 2\n0 2\n", "line 4, 2nd value: k is not rising: 2 comes behind 2"},
		{"n: int 1..9\nrepeat n { k: int 1..9 sorted }", "3\n1\n1\n2\n", "3\n1\n3\n2\n", "line 4, 1st value: k is not sorted"},
		{"n: int 1..9\nrepeat n { x: real 0..1 places 1 falling }", "2\n0.5\n0.1\n", "2\n0.5\n0.5\n", "x is not falling"},
		{"n: int 1..9\nrepeat n { name: token(1..9, \"a-z\") distinct, k: int 0..9 }", "2\nab 1\nb 1\n", "2\nab 1\nab 2\n", "name is not distinct: ab is at 0 and at 1"},
		{"n: int 1..9\nrepeat n { from: int before(to, 0)..99, to: int from+1..100 }", "2\n0 3\n3 4\n", "2\n0 3\n2 4\n", "line 3, 1st value: from is 2, outside 3..99"},
		{"n: int 2..9\nrepeat n { k: int 1..9 }\nrequire sum(k) = 10 and max(k) <= 5", "2\n5\n5\n", "2\n5\n4\n", "it is required that sum(k) = 10"},
		{"n: int 1..9\nrepeat n { k: int 1..9 }\nm: int 0..sum(k)\nw: int[m] 1..9", "1\n3\n3\n1 2 3\n", "1\n3\n4\n1 2 3 4\n", "m is 4, outside 0..3"},
		{"n: int 1..9\nrepeat n { k: int 0..9; a: int[k] 1..9; total k <= 5 }", "2\n2\n1 1\n3\n1 1 1\n", "2\n2\n1 1\n4\n1 1 1 1\n", "line 4: with body 2, which begins here, the sum of k is 6, more than 5"},
		{"cases t: int 1..3 {\n  n: int 1..9\n  repeat n { k: int 1..9 distinct }\n}", "2\n1\n4\n1\n4\n", "1\n2\n4\n4\n", "k is not distinct"},
	} {
		holdsAndMakes(t, tt.text, tt.good, tt.bad, tt.says)
	}
}

func TestShrinkingKeepsTheOrderOfColumns(t *testing.T) {
	s := parsed(t, "n: int 1..50\nrepeat n { k: int 1..1000 rising, v: int 0..9 }\nm: int 0..sum(k)")
	in, err := s.Make(Making{Seed: 4, Size: Largest})
	require.NoError(t, err)
	small, complete, err := s.Shrink(t.Context(), in, func(_ context.Context, text []byte) (bool, error) { return bytes.Count(text, []byte{'\n'}) >= 5, nil })
	require.NoError(t, err)
	assert.True(t, complete)
	assert.Equal(t, "3\n1 0\n2 0\n3 0\n0\n", string(small.Append(nil)))
}

func TestWhatIsNoColumnIsSaid(t *testing.T) {
	for text, says := range map[string]string{
		"k: int 1..9 distinct": "distinct belongs to arrays, and goes down the column of what stands in a repeat",
		"repeat 3 { either { \"a\", k: int 1..9 rising } or { \"b\" } }":   "sorted, rising and falling belong to arrays",
		"repeat 3 { t: text(3, \"a\") sorted }":                            "sorted, rising and falling belong to arrays",
		"n: int 1..9\nrequire before(n, 0) > 1":                            "before takes the name of a value in the repeat around it, and there is no n",
		"repeat 3 { a: token(3, \"a\"), k: int before(a, 1)..9 }":          "before takes the name of an int, and a is token",
		"repeat 3 { k: int before(k)..9 }":                                 "expected , and what it is in the first body: before(k, 0)",
		"repeat 3 { k: int 1..9 }\nn: int 1..k":                            "k is many integers",
		"repeat 2 { n: int 2..3; g: tree(n) with (k: int 1..9 distinct) }": "distinct belongs to arrays",
		"n: int 1..3\ntotal n <= 5":                                        "total stands in a block of cases or of a repeat",
	} {
		_, err := Parse(text)
		assert.ErrorContains(t, err, says, text)
	}
}

func TestManyBodiesThatFollowEachOtherShareTheRange(t *testing.T) {
	s := parsed(t, "n: int 1..20000\nw: int[n] 1..1e9\nrepeat n { from: int before(to, 0)..1e9, to: int from..1e9, k: int 1..1e9 }")
	for _, style := range []string{"plain", "ties", ""} {
		in, err := s.Make(Making{Seed: 3, Size: Largest, Style: style})
		require.NoError(t, err)
		lines := strings.Split(string(in.Append(nil)), "\n")
		require.Len(t, lines, 2+20000+1)
		assert.NotEqual(t, "1000000000", strings.Fields(lines[10000])[0], "%s: in the midst of them there is room left", style)
	}
}

func TestEdgeCasesAreBoundedByWhatTheyTake(t *testing.T) {
	s := parsed(t, "n: int 1..1000\nrepeat n { from: int before(to, 0)..1e9, to: int from..1e9 }")
	whole, err := s.EdgeCases(t.Context(), 1000)
	require.NoError(t, err)
	part, err := s.edgeCases(t.Context(), 1000, 100_000, func(EdgeCase) {})
	require.NoError(t, err)
	assert.NotEmpty(t, part.Cases)
	assert.Less(t, len(part.Cases), len(whole.Cases))
}
