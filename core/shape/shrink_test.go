package shape

import (
	"bytes"
	"context"
	"errors"
	"hash/crc32"
	"slices"
	"strconv"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// ints are the integers of an input.
func ints(text string) (list []int64) {
	for _, w := range strings.Fields(text) {
		if n, err := strconv.ParseInt(w, 10, 64); err == nil {
			list = append(list, n)
		}
	}
	return list
}

func TestInputsAreShrunkToTheSmallestThatStillFail(t *testing.T) {
	for _, tt := range []struct {
		name, shape string
		fails       func(in []int64) bool
		want        string
	}{
		{"a sum past 32 bits", "n: int 1..2e5\nw: int[n] 1..1e9", func(in []int64) bool {
			sum := int64(0)
			for _, x := range in[1:] {
				sum += x
			}
			return sum > 1<<31-1
		}, "3\n"},
		{"two alike", "n: int 1..2e5\nw: int[n] 1..1e6", func(in []int64) bool {
			w := slices.Clone(in[1:])
			slices.Sort(w)
			return len(slices.Compact(w)) < len(in)-1
		}, "2\n1 1\n"},
		{"a dip", "n: int 1..2e5\nw: int[n] 1..1e6", func(in []int64) bool { return !slices.IsSorted(in[1:]) }, "2\n2 1\n"},
		{"a case after a longer one", "cases t: int 1..1e4 {\n  n: int 0..1e5\n  w: int[n] 1..9\n  total n <= 2e5\n}", func(in []int64) bool {
			before := int64(0)
			for i := 1; i < len(in); i += int(in[i]) + 1 {
				if in[i] < before {
					return true
				}
				before = in[i]
			}
			return false
		}, "2\n1\n1\n0\n\n"},
		{"a graph in two parts", "n: int 1..2e4, m: int 0..1e5\ng: graph(n, m) loops parallel", func(in []int64) bool {
			sets := newForest(in[0])
			parts := in[0]
			for i := 2; i < len(in); i += 2 {
				if sets.join(in[i]-1, in[i+1]-1) {
					parts--
				}
			}
			return parts > 1
		}, "2 0\n"},
		{"a vertex with three neighbours", "n: int 1..2000\nt: tree(n)", func(in []int64) bool {
			degree := map[int64]int{}
			for _, x := range in[1:] {
				if degree[x]++; degree[x] == 3 {
					return true
				}
			}
			return false
		}, "4\n1 2\n1 3\n1 4\n"},
		{"a cycle of three", "n: int 3..300, m: int n-1..2000\ng: graph(n, m) connected", func(in []int64) bool {
			edges := map[[2]int64]bool{}
			for i := 2; i < len(in); i += 2 {
				edges[[2]int64{in[i], in[i+1]}], edges[[2]int64{in[i+1], in[i]}] = true, true
			}
			for e := range edges {
				for x := range in[0] {
					if edges[[2]int64{e[0], x + 1}] && edges[[2]int64{x + 1, e[1]}] {
						return true
					}
				}
			}
			return false
		}, "3 3\n1 2\n1 3\n2 3\n"},
		{"a permutation out of order", "n: int 1..5000\np: perm(n)", func(in []int64) bool { return !slices.IsSorted(in[1:]) }, "2\n2 1\n"},
		{"a query about the last one", "n: int 2..1000, q: int 1..1000\nw: int[n] 1..9\nrepeat q { l: int 1..n, r: int l..n }", func(in []int64) bool {
			for i := 2 + int(in[0]); i < len(in); i += 2 {
				if in[i] == in[0] {
					return true
				}
			}
			return false
		}, "2 1\n1 1\n2 2\n"},
	} {
		t.Run(tt.name, func(t *testing.T) {
			t.Parallel()
			s := parsed(t, tt.shape)
			runs := 0
			fails := func(_ context.Context, input []byte) (bool, error) {
				runs++
				return tt.fails(ints(string(input))), nil
			}
			shrunk := 0
			for seed := range Seed(6) {
				in, err := s.Make(Making{Seed: seed, Size: Largest / 4 * 3})
				require.NoError(t, err)
				if failed, _ := fails(t.Context(), in.Append(nil)); !failed {
					continue
				}
				small, complete, err := s.Shrink(t.Context(), in, fails)
				require.NoError(t, err)
				assert.True(t, complete)
				got := string(small.Append(nil))
				if strings.Count(tt.want, "\n") == 1 { // numbers that add up can be parted in many ways
					got = got[:len(tt.want)]
				}
				assert.Equal(t, tt.want, got)
				shrunk++
			}
			require.Positive(t, shrunk, "no input failed")
			t.Log(runs, "runs for", shrunk, "inputs")
		})
	}
}

// TestWhateverIsShrunkStaysValid shrinks inputs of all kinds of shapes, where all of
// them fail, where any of them may, and where the time is up.
func TestWhateverIsShrunkStaysValid(t *testing.T) {
	for name, text := range madeShapes {
		t.Run(name, func(t *testing.T) {
			t.Parallel()
			s := parsed(t, text)
			smallest, err := s.Make(Making{Exact: true, Style: "least"})
			if err != nil {
				smallest, err = s.Make(Making{Exact: true})
			}
			require.NoError(t, err)
			for seed := range Seed(3) {
				in, err := s.Make(Making{Seed: seed, Size: Largest / 3})
				require.NoError(t, err)
				before := string(in.Append(nil))
				valid := func(input []byte) {
					fault, err := s.Check(bytes.NewReader(input), Options{})
					require.NoError(t, err)
					require.Nil(t, fault, "%v", fault)
				}
				small, complete, err := s.Shrink(t.Context(), in, func(_ context.Context, input []byte) (bool, error) {
					valid(input)
					return true, nil
				})
				require.NoError(t, err)
				assert.True(t, complete)
				assert.LessOrEqual(t, len(small.Append(nil)), len(smallest.Append(nil))+10)
				_, complete, err = s.Shrink(t.Context(), in, func(_ context.Context, input []byte) (bool, error) {
					valid(input)
					return crc32.ChecksumIEEE(input)%3 > 0, nil
				})
				require.NoError(t, err)
				assert.True(t, complete)
				assert.Equal(t, before, string(in.Append(nil)), "what is shrunk stays as it was")
			}
		})
	}
}

func TestShrinkingEndsInTime(t *testing.T) {
	s := parsed(t, "n: int 1..1000\nw: int[n] 1..1e9")
	in, err := s.Make(Making{Size: Largest, Exact: true})
	require.NoError(t, err)
	ctx, cancel := context.WithCancel(t.Context())
	tries := 0
	small, complete, err := s.Shrink(ctx, in, func(_ context.Context, input []byte) (bool, error) {
		if tries++; tries == 5 {
			cancel()
		}
		return len(input) > 500, nil
	})
	require.NoError(t, err)
	assert.False(t, complete)
	assert.Equal(t, 5, tries)
	assert.Less(t, len(small.Append(nil)), len(in.Append(nil)))
	broken := errors.New("a full disk")
	_, _, err = s.Shrink(t.Context(), in, func(context.Context, []byte) (bool, error) { return false, broken })
	assert.ErrorIs(t, err, broken)
}
