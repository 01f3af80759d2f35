package shape

import (
	"bytes"
	"slices"
	"strconv"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestWhatIsPermutedHoldsTheSame(t *testing.T) {
	s, err := Parse("n: int 1..20, m: int 0..30\ng: graph(n, m)\nw: int[n] 1..9\nrepeat 2 {\n  u: int[3] 1..9 sorted\n  s: token(2, \"ab\")[3]\n}")
	require.NoError(t, err)
	assert.True(t, s.CanPermute("w") && s.CanPermute("s") && s.CanRelabel("g"))
	assert.False(t, s.CanPermute("g") || s.CanPermute("n") || s.CanPermute("x") || s.CanRelabel("w"))
	permuted, relabelled := 0, 0
	for seed := range Seed(60) {
		in, err := s.Make(Making{Seed: seed, Size: s.SizeFor(10), Alike: true})
		require.NoError(t, err)
		before := strings.Split(string(in.Append(nil)), "\n")
		if other, ok := in.Permuted("w", seed); ok {
			permuted++
			after := strings.Split(string(other.Append(nil)), "\n")
			require.Len(t, after, len(before))
			for i := range before {
				if before[i] == after[i] {
					continue
				}
				a, b := strings.Fields(before[i]), strings.Fields(after[i])
				slices.Sort(a)
				slices.Sort(b)
				assert.Equal(t, a, b, "line %d", i+1)
			}
		}
		if other, ok := in.Relabelled("g", seed); ok {
			relabelled++
			text := other.Append(nil)
			fault, err := s.Check(bytes.NewReader(text), Options{})
			require.NoError(t, err)
			assert.Nil(t, fault)
			m, _ := strconv.Atoi(strings.Fields(before[0])[1])
			after := strings.Split(string(text), "\n")
			assert.Equal(t, degrees(before[1:1+m]), degrees(after[1:1+m]))
			assert.Equal(t, before[1+m:], after[1+m:], "nothing else changes")
		}
	}
	assert.Greater(t, permuted, 30)
	assert.Greater(t, relabelled, 30)
	in, err := s.Make(Making{Seed: 1, Size: s.SizeFor(10)})
	require.NoError(t, err)
	if other, ok := in.Permuted("u", 3); ok {
		assert.Equal(t, string(in.Append(nil)), string(other.Append(nil)), "what is sorted has one order")
	}
}

// degrees are how many edges each vertex has, ascending.
func degrees(lines []string) (list []int) {
	of := map[string]int{}
	for _, line := range lines {
		for _, end := range strings.Fields(line) {
			of[end]++
		}
	}
	for _, n := range of {
		list = append(list, n)
	}
	slices.Sort(list)
	return list
}
