package shape

import (
	"context"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestAllValidInputsOfAShapeOfFewIntegersAreListed(t *testing.T) {
	for _, tt := range []struct {
		shape string
		all   string // joined by "|"; empty: they are not listed
	}{
		{"n: int 3..5\n", "3|4|5"},
		{"a: int 1..2, b: int a..3\n", "1 1|1 2|1 3|2 2|2 3"},
		{"a: int 1..3, b: int 1..3\nrequire a + b = 4\n", "1 3|2 2|3 1"},
		{"a: int 1..4 but 2\nb: int 0..a - 3\n", "3\n0|4\n0|4\n1"},
		{"\"go\", a: int -1..1\n", "go -1|go 0|go 1"},
		{"n: int 1..60\n", ""},
		{"n: int 1..1e18\n", ""},
		{"n: int\n", ""},
		{"n: int 1..3\na: int[n] 1..2\n", ""},
		{"cases t: int 1..2 {\n  n: int 1..2\n}\n", ""},
		{"a: int 1..8, b: int 1..8, c: int 1..8, d: int 1..8\n", ""},
		{"a: int 5..9\nrequire a < 5\n", ""},
	} {
		s, err := Parse(tt.shape)
		require.NoError(t, err, tt.shape)
		list, ok, err := s.All(t.Context(), 50)
		require.NoError(t, err)
		var texts []string
		for _, in := range list {
			texts = append(texts, strings.TrimSuffix(string(in.Append(nil)), "\n"))
		}
		assert.Equal(t, tt.all, strings.Join(texts, "|"), tt.shape)
		assert.Equal(t, tt.all != "", ok, tt.shape)
	}
	s, err := Parse("a: int 0..1999\n")
	require.NoError(t, err)
	late, end := context.WithDeadline(t.Context(), time.Now())
	defer end()
	_, _, err = s.All(late, 2000)
	assert.ErrorIs(t, err, context.DeadlineExceeded)
	list, ok, err := s.All(t.Context(), 2000)
	require.NoError(t, err)
	assert.True(t, ok)
	assert.Len(t, list, 2000)
}
