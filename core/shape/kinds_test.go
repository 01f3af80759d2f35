package shape

import (
	"context"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestWordsAreOfTheirKind(t *testing.T) {
	for _, text := range []string{
		"s: token(1..40, \"abc\") palindrome", "s: token(0..40, \"()[]{}\") balanced", "n: int 0..20\ns: token(2*n, \"()\") balanced", "s: token(1..30, \"()+a\") balanced",
		"w: token(1..5, \"ab\")[3] palindrome distinct", "w: token(2..8, \"()\")[1..4] balanced sorted", "n: int 2..9\ns: token(n, \"()\") balanced", "repeat 3 {\n  s: token(2..8, \"<>\") balanced\n}",
	} {
		s, err := Parse(text)
		require.NoError(t, err, text)
		for seed := range Seed(80) {
			madeValid(t, s, Making{Seed: seed, Size: Size(seed) * Largest / 80})
		}
		edgeCasesOf(t, s, 20)
	}
}

func TestWordsOfAnotherKindAreFaults(t *testing.T) {
	for _, tt := range []struct{ shape, text, says string }{
		{"s: token(1..9, \"()a\") balanced", "(a))\n", "s is not balanced: character 4, ), closes nothing"},
		{"s: token(1..9, \"([)]\") balanced", "([)]\n", "s is not balanced: character 3, ), closes nothing"},
		{"s: token(1..9, \"()\") balanced", "((\n", "s is not balanced: 2 brackets are never closed"},
		{"s: token(1..9, \"abc\") palindrome", "abca\n", "s is no palindrome: character 2 is b, and its counterpart c"},
	} {
		s, err := Parse(tt.shape)
		require.NoError(t, err)
		fault, err := s.Check(strings.NewReader(tt.text), Options{})
		require.NoError(t, err)
		require.NotNil(t, fault, tt.text)
		assert.Contains(t, fault.Error(), tt.says)
	}
	for text, says := range map[string]string{
		"s: token(3, \"ab\") balanced": "balanced wants both of a pair of brackets in the set", "a: int[3] palindrome": "balanced and palindrome belong to token",
		"s: token(3, \"()\") balanced palindrome": "a token that is balanced is no palindrome",
	} {
		_, err := Parse(text)
		assert.ErrorContains(t, err, says, text)
	}
	s, err := Parse("s: token(2..30, \"abc\") palindrome")
	require.NoError(t, err)
	in, err := s.Make(Making{Seed: 2, Size: Largest})
	require.NoError(t, err)
	small, _, err := s.Shrink(t.Context(), in, func(_ context.Context, text []byte) (bool, error) { return true, nil })
	require.NoError(t, err)
	assert.Equal(t, "aa\n", string(small.Append(nil)))
}
