package shape

import (
	"os"
	"regexp"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

var manualBlock = regexp.MustCompile("(?ms)^```(shape|input|wrong)(?: ([^\n]*))?\n(.*?)^```$")

// TestTheManualsExamplesAreRight reads docs/shape.md: each shape in it, the inputs
// below it that are valid, and those of which it is said what is wrong.
func TestTheManualsExamplesAreRight(t *testing.T) {
	text, err := os.ReadFile("../../docs/shape.md")
	require.NoError(t, err)
	var s *Shape
	counts := map[string]int{}
	for _, m := range manualBlock.FindAllStringSubmatch(string(text), -1) {
		counts[m[1]]++
		if m[1] == "shape" {
			s = parsed(t, m[3])
			continue
		}
		fault, err := s.Check(strings.NewReader(m[3]), Options{})
		require.NoError(t, err)
		if m[1] == "input" {
			assert.Nil(t, fault, "%s\n%v", m[3], fault)
			continue
		}
		require.NotNil(t, fault, m[3])
		assert.Equal(t, m[2], fault.Error())
	}
	assert.Equal(t, map[string]int{"shape": 10, "input": 10, "wrong": 9}, counts)
}

// TestStatementsHaveTheirShapes reads docs/statements.md: every input has its
// shape, and others are made from it.
func TestStatementsHaveTheirShapes(t *testing.T) {
	text, err := os.ReadFile("../../docs/statements.md")
	require.NoError(t, err)
	blocks := manualBlock.FindAllStringSubmatch(string(text), -1)
	require.Len(t, blocks, 120)
	for i := 0; i < len(blocks); i += 2 {
		require.Equal(t, []string{"shape", "input"}, []string{blocks[i][1], blocks[i+1][1]})
		var s *Shape
		if list := blocks[i][2]; list != "" {
			s, err = ParseArguments(blocks[i][3], takes(t, strings.Split(list, ", ")...))
		} else {
			s, err = Parse(blocks[i][3])
		}
		require.NoError(t, err, blocks[i][3])
		in, fault, err := s.Read(strings.NewReader(blocks[i+1][3]), Options{})
		require.NoError(t, err)
		require.Nil(t, fault, "%s\n%v", blocks[i+1][3], fault)
		assert.Equal(t, blocks[i+1][3], string(in.Append(nil)))
		assert.NotEmpty(t, s.Explain())
		for seed := range seeds(6) {
			madeValid(t, s, Making{Seed: seed, Size: Size(seed) * Largest / 12})
		}
		all, err := s.EdgeCases(t.Context(), 4)
		require.NoError(t, err)
		assert.NotEmpty(t, all.Cases)
	}
}

func TestAShapeIsExplainedInPlainWords(t *testing.T) {
	for _, tt := range []struct{ shape, want string }{
		{lineOfInts, "line 1: n, an integer from 1 to 200,000; cap, an integer from 1 to 1,000,000,000\n" +
			"line 2: w, n (up to 200,000) integers, each from 1 to cap (up to 1,000,000,000); their sum may reach 200,000,000,000,000, past 32 bits"},
		{manyWords, "line 1: t, an integer from 1 to 10,000, then that many cases, each:\n  a line: n, an integer from 1 to 200,000; k, an integer from 0 to n (up to 200,000)\n" +
			"  a line: s, a token of n (up to 200,000) characters of a-z\n  always k != 1\nthe sum of n over all of them is at most 200,000"},
		{queries, "line 1: n, an integer from 1 to 100,000; m, an integer from n - 1 to 200,000\n" +
			"g, a connected simple graph of n vertices, numbered from 1, and m edges, one a line, with length, an integer from 1 to 1,000,000\n" +
			"a line: q, an integer from 1 to 100,000\nq times:\n  either\n    a line: the token near; v, an integer from 1 to n (up to 100,000)\n" +
			"  or\n    a line: the token path; u, an integer from 1 to n (up to 100,000); v, an integer from 1 to n (up to 100,000)\n    always u != v"},
		{mixed, "line 1: r, an integer from 1 to 50; c, an integer from 1 to 50\nmap, r lines of c characters of #. (up to 2,500)\n" +
			"a line: p, a permutation of the r integers from 0 (up to 50)\na line: x, 3 decimals with 2 places, each from -1,000 to 1,000\n" +
			"1 to 10,000 times:\n  a line: a, an integer from 1 to 9; b, an integer from 1 to 9\nand at the end a line 0 0"},
		{"w: int[10] down 1..2^62 rising\nn: int -5..5, m: int n*n..2*n+9", "w, 10 integers, each from 1 to 4,611,686,018,427,387,904, one a line, each more than the one before; their sum may reach 46,116,860,184,273,879,040, past 64 bits\n" +
			"a line: n, an integer from -5 to 5; m, an integer from n*n to 2*n + 9 (up to 19)"},
	} {
		assert.Equal(t, tt.want, strings.Join(parsed(t, tt.shape).Explain(), "\n"), tt.shape)
	}
}
