package shape

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestAShapeSaysWhereItsValuesStand(t *testing.T) {
	s, err := Parse("n: int 1..9, m: int 0..9, x: real 0..1\nw: int[n] 1..9, s: token(3, \"a-z\")\nd: int[2*n+1] down\nq: int[m][n-1] 0..9\ng: graph(n, m) with (c: int 1..9)\nt: tree(n)\np: parents(n+1), o: perm(n)\nmap: grid(n, m, \"#. \")\nnote: text(0..9, \"a-z \")\nrest: int[0..9] 0..9\nrequire n < 9\nscale n")
	require.NoError(t, err)
	list, err := s.Places()
	require.NoError(t, err)
	assert.Equal(t, []Place{
		{Name: "n", Begins: true}, {Name: "m"}, {Name: "x", Real: true},
		{Name: "w", Sizes: []string{"n"}, Begins: true}, {Name: "s", Word: true},
		{Name: "d", Sizes: []string{"2*n + 1"}, Begins: true, Rows: true},
		{Name: "q", Sizes: []string{"m", "n - 1"}, Begins: true, Rows: true},
		{Name: "g", Sizes: []string{"m", "3"}, Begins: true, Rows: true},
		{Name: "t", Sizes: []string{"n - 1", "2"}, Begins: true, Rows: true},
		{Name: "p", Sizes: []string{"(n + 1) - 1"}, Begins: true}, {Name: "o", Sizes: []string{"n"}},
		{Name: "map", Word: true, Line: true, Sizes: []string{"n"}, Begins: true, Rows: true},
		{Name: "note", Line: true, Begins: true},
		{Name: "rest", Sizes: []string{""}, Begins: true},
	}, list)
	for text, says := range map[string]string{
		"cases t: int 1..9 { n: int 1..9 }":              "1:1: there are no cases",
		"repeat 3 { n: int 1..9 }":                       "there are no cases",
		"n: int 1..9\nblank\nm: int 1..9":                "2:1: there are no cases",
		"\"a\"":                                          "each value needs a name",
		"int 1..9":                                       "each value needs a name",
		"n: int 1..9\nw: int[n/2] 1..9":                  "2:8: how many there are is read as a number, a name, or these with + - *, and not as n/2",
		"n: int 2..9\ng: tree(n) with (c: real 0..1)":    "what stands behind an edge is read as integers",
		"n: int 2..9, w: int[n] 1..9\nv: int[w[0]] 1..9": "and not as w[0]",
		"n: int 2..9\nv: int[max(n, 3)] 1..9":            "and not as max(n, 3)",
	} {
		s, err := Parse(text)
		require.NoError(t, err, text)
		_, err = s.Places()
		assert.ErrorContains(t, err, says, text)
	}
	arguments, err := ParseArguments("r: int 0..9, c: int 1..9, k: int 0..9\nmap: grid(r, c+1, \"#.\")\nlist: int[k-1]", takes(t, "map: text[]", "list: int[]"))
	require.NoError(t, err)
	assert.Equal(t, map[string]int64{"r": 2, "c": 2, "k": 2}, arguments.CountsOf([]any{[]any{"###", "..."}, []any{int64(7)}}))
	assert.Equal(t, map[string]int64{"r": 0, "c": 1, "k": 1}, arguments.CountsOf([]any{[]any{}, []any{}}), "where there is nothing to be counted it is the least")
}
