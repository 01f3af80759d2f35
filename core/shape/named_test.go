package shape

import (
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestEdgeCasesAreWhatTheirNamesSay(t *testing.T) {
	s := parsed(t, "n: int 2..30, k: int 3..9\na: int[n] -5..1e6\nrequire a[0] != a[1]")
	all, err := s.EdgeCases(t.Context(), 1000)
	require.NoError(t, err)
	for _, c := range all.Cases {
		in, err := s.Make(c.Making)
		require.NoError(t, err)
		a := integers(in, "a")
		for _, part := range strings.Split(c.Name, ".") {
			assert.NotContains(t, []string{"a-all-equal", "a-all-least", "a-all-largest", "a-all-zero"}, part, "of which none can be")
			switch part {
			case "a-sorted":
				assert.True(t, slices.IsSorted(a), "%s: %v", c.Name, a)
			case "a-near-zero":
				assert.LessOrEqual(t, slices.Max(a), int64(2), c.Name)
			}
		}
	}
	assert.Positive(t, all.GaveWay)
	assert.Equal(t, all.Pairs-all.GaveWay, all.Covered)
}

func TestValuesTellTheirStyle(t *testing.T) {
	s := parsed(t, "a: int[3] -9..9")
	v := s.Items[0].(*lineNode).Fields[0].Value
	for _, tt := range []struct {
		style string
		a     []int64
		want  bool
	}{
		{"all-zero", []int64{0, 0, 0}, true}, {"all-zero", []int64{0, 1, 0}, false},
		{"near-zero", []int64{-2, 2, 0}, true}, {"near-zero", []int64{-3, 2, 0}, false},
		{"all-equal", []int64{4, 4, 4}, true}, {"all-equal", []int64{4, 4, 5}, false}, {"all-equal", nil, true},
		{"all-least", []int64{-9, -9, -9}, true}, {"all-least", []int64{-9, -9, -8}, false},
		{"all-largest", []int64{9, 9, 9}, true}, {"all-largest", []int64{9, 9, -9}, false},
		{"sorted", []int64{1, 2, 2}, true}, {"sorted", []int64{1, 2, 1}, false},
		{"reversed", []int64{2, 2, 1}, true}, {"reversed", []int64{1, 2, 1}, false},
		{"sums", []int64{1 << 30, 1 << 30}, true}, {"sums", []int64{1 << 30, 1 << 29}, false},
		{"random", []int64{1, 2, 3}, true},
	} {
		assert.Equal(t, tt.want, v.shows(tt.style, tt.a, newFrame(s.top, nil)), "%s %v", tt.style, tt.a)
	}
}
