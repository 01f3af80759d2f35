package shape

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestNamesThatCanGrowAreKnownWithTheirBounds(t *testing.T) {
	s, err := Parse("n: int 1..1e5, m: int n..2e5, k: int -5..1e18\nw: int[n] 1..9\nrepeat m { x: int 3..7 }\n")
	require.NoError(t, err)
	assert.Equal(t, []Span{{"n", 1, 100_000, true, false}, {"k", -5, 1_000_000_000_000_000_000, false, false}, {"x", 3, 7, false, false}}, s.Spans())
}

func TestNumbersAreGeneratedAsTheyAreAskedFor(t *testing.T) {
	s, err := Parse("n: int 1..1000, m: int n-1..5000, k: int 0..1e18\nrequire n % 2 = 0\nroads: graph(n, m) connected\n")
	require.NoError(t, err)
	for _, tt := range []struct {
		name    string
		numbers map[string]int64
		n, k    int64
	}{
		{"in bounds", map[string]int64{"n": 100, "m": 120, "k": 77}, 100, 77},
		{"the nearest that is allowed", map[string]int64{"n": 101, "m": 120, "k": 5}, 100, 5},
		{"out of bounds", map[string]int64{"n": 1 << 40, "m": 1200, "k": -4}, 1000, 0},
	} {
		t.Run(tt.name, func(t *testing.T) {
			in, err := s.Make(Making{Numbers: tt.numbers, Exact: true})
			require.NoError(t, err)
			for name, want := range map[string]int64{"n": tt.n, "m": tt.numbers["m"], "k": tt.k} {
				got, ok := in.Number(name)
				assert.True(t, ok)
				assert.Equal(t, want, got, name)
			}
		})
	}
}

func TestWhatIsNotToGrowStaysSmall(t *testing.T) {
	s, err := Parse("cases t: int 1..50 {\n  n: int 1..1000, m: int 1..1000\n  a: int[n] 1..9\n  b: int[m] 1..9\n}\n")
	require.NoError(t, err)
	in, err := s.Grown(1, Largest, map[string]int64{"n": 700}, "")
	require.NoError(t, err)
	for name, want := range map[string]int64{"t": 1, "n": 700, "m": 1} {
		got, _ := in.Number(name)
		assert.Equal(t, want, got, name)
	}
	in, err = s.Grown(1, Largest, map[string]int64{"t": 40}, "")
	require.NoError(t, err)
	got, _ := in.Number("t")
	assert.EqualValues(t, 40, got)
}
