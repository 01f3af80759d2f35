package shape

import (
	"context"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestBoundsMayDifferFromElementToElement(t *testing.T) {
	for _, text := range []string{
		"n: int 2..30\np: int[n-1] 1..at+1",
		"n: int 1..30\na: int[n] 1..9\nb: int[n] a[at]..10",
		"n: int 2..30\na: int[n] 1..n but at+1",
		"n: int 1..30\na: int[n] 0..50 distinct but 0",
		"n: int 1..30\na: int[n] 0..1 distinct but 0\nrequire n < 3",
		"n: int 2..30\nrepeat n {\n  p: int 0..at, w: int 1..9 but at\n}",
		"n: int 2..9\nrepeat n {\n  k: int 0..3\n  a: int[k] 0..at\n  s: token(0..at, \"ab\")\n}",
		"n: int 1..9, x: int 1..9 but n",
		"cases t: int 1..4 {\n  n: int 2..5\n  repeat n {\n    u: int 1..n but at+1\n  }\n}",
		"at: int 1..9\na: int[3] 1..at",
		"n: int 1..20\na: int[n] -5..5 but 0 but 1",
		"n: int 1..20\nx: int but n\na: int[n] but at but 0\nb: int[n] but n",
	} {
		s, err := Parse(text)
		require.NoError(t, err, text)
		for seed := range Seed(80) {
			madeValid(t, s, Making{Seed: seed, Size: Size(seed) * Largest / 80})
		}
		edgeCasesOf(t, s, 20)
		assert.NotEmpty(t, s.Explain())
	}
}

func TestWhatLiesOutsideOfItsOwnBoundsIsAFault(t *testing.T) {
	for _, tt := range []struct{ shape, text, says string }{
		{"n: int 2..9\np: int[n-1] 1..at+1", "3\n1 3\n", "line 2, 2nd value: p[1] is 3, outside 1..2 (at + 1)"},
		{"n: int 1..9\na: int[n] 1..9\nb: int[n] a[at]..10", "2\n1 7\n1 6\n", "b[1] is 6, outside 7..10"},
		{"n: int 2..9\na: int[n] 1..n but at+1", "2\n2 2\n", "a[1] is 2, which it must not be: but at + 1"},
		{"n: int 1..9\na: int[n] 0..9 distinct but 0", "4\n0 3 0 3\n", "a is not distinct but for 0: 3 is at 1 and at 3, counted from 0"},
		{"repeat 2 {\n  p: int 0..at\n}", "0\n2\n", "line 2, 1st value: p is 2, outside 0..1 (at)"},
		{"x: int 1..9 but 5", "5\n", "x is 5, which it must not be: but 5"},
		{"n: int 1..9\nx: int but n", "3\n3\n", "x is 3, which it must not be: but n"},
		{"n: int 1..9\na: int[n] but n", "3\n1 2 3\n", "a[2] is 3, which it must not be: but n"},
		{"n: int 1..9\na: int[n] but at", "3\n-7 1 3\n", "a[1] is 1, which it must not be: but at"},
	} {
		s, err := Parse(tt.shape)
		require.NoError(t, err)
		fault, err := s.Check(strings.NewReader(tt.text), Options{})
		require.NoError(t, err)
		require.NotNil(t, fault, tt.shape)
		assert.Contains(t, fault.Error(), tt.says)
	}
	for text, says := range map[string]string{
		"n: int 1..at": "1:11: at is the index of an element of an array, or of a body of a repeat; here is neither", "n: int 1..9\na: int[at] 1..2": "here is neither",
		"a: int[3] 1..at+1 sorted": "an array whose bounds differ is in no order", "x: real 1..2 but 1": "but belongs to int", "a: int[3] 1..2 rising distinct but 1": "distinct but … goes with no order",
	} {
		_, err := Parse(text)
		assert.ErrorContains(t, err, says, text)
	}
}

func TestParentsAreShrunkWithinTheirBounds(t *testing.T) {
	s, err := Parse("n: int 2..30\np: int[n-1] 1..at+1\nrepeat n {\n  w: int 0..at\n}")
	require.NoError(t, err)
	in, err := s.Make(Making{Seed: 5, Size: Largest})
	require.NoError(t, err)
	small, complete, err := s.Shrink(t.Context(), in, func(_ context.Context, text []byte) (bool, error) { return len(text) > 5, nil })
	require.NoError(t, err)
	assert.True(t, complete)
	assert.Equal(t, "2\n1\n0\n0\n", string(small.Append(nil)))
}
