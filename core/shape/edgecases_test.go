package shape

import (
	"bytes"
	"context"
	"slices"
	"strconv"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func edgeCasesOf(t *testing.T, s *Shape, most int) (all EdgeCases, texts []string) {
	t.Helper()
	all, err := s.EdgeCases(t.Context(), most)
	require.NoError(t, err)
	for _, c := range all.Cases {
		in, err := s.Make(c.Making)
		require.NoError(t, err)
		text := in.Append(nil)
		require.EqualValues(t, c.Bytes, len(text))
		fault, err := s.Check(bytes.NewReader(text), Options{})
		require.NoError(t, err)
		require.Nil(t, fault, "%s: %v\n%.500s", c.Name, fault, text)
		texts = append(texts, string(text))
	}
	return all, texts
}

func TestEdgeCasesCoverEveryPairOfChoices(t *testing.T) {
	for name, text := range madeShapes {
		t.Run(name, func(t *testing.T) {
			t.Parallel()
			s := parsed(t, text)
			most := 120
			if testing.Short() {
				most = 20
			}
			all, texts := edgeCasesOf(t, s, most)
			assert.NotEmpty(t, texts)
			names := map[string]bool{}
			for i, c := range all.Cases {
				assert.False(t, names[c.Name], c.Name)
				names[c.Name] = true
				assert.LessOrEqual(t, len(c.Name), 140)
				if i > 0 {
					assert.LessOrEqual(t, all.Cases[i-1].Bytes, c.Bytes, "the smaller ones come first")
				}
			}
			if all.Contradicting == 0 && len(all.Cases) < most {
				assert.Equal(t, all.Pairs, all.Covered+all.GaveWay)
			}
			few, _ := edgeCasesOf(t, s, 3)
			assert.LessOrEqual(t, len(few.Cases), 3)
		})
	}
}

// TestEdgeCasesAreThoseThatPeopleList looks for what practitioners write by hand.
func TestEdgeCasesAreThoseThatPeopleList(t *testing.T) {
	all := func(text string) []string {
		_, texts := edgeCasesOf(t, parsed(t, text), 200)
		return texts
	}
	holds := func(texts []string, what string, is func(in []int64) bool) {
		for _, text := range texts {
			if is(ints(text)) {
				return
			}
		}
		assert.Fail(t, "no edge case with "+what)
	}
	sum := func(in []int64) (total int64) {
		for _, x := range in {
			total += x
		}
		return total
	}
	crates := all("n: int 1..1000, cap: int 1..2e9\nw: int[n] 1..cap")
	holds(crates, "the smallest of all", func(in []int64) bool { return in[0] == 1 && in[1] == 1 && in[2] == 1 })
	holds(crates, "two", func(in []int64) bool { return in[0] == 2 })
	holds(crates, "all equal, and many", func(in []int64) bool { return in[0] == 1000 && in[2] == in[3] && sum(in[2:]) == 1000*in[2] })
	holds(crates, "a sum past 32 bits", func(in []int64) bool { return sum(in[2:]) > 1<<32 })
	holds(crates, "ties at the border", func(in []int64) bool {
		halves, wholes := 0, 0
		for _, x := range in[2:] {
			if x == in[1]/2 {
				halves++
			}
			if x == in[1] {
				wholes++
			}
		}
		return halves > 1 && wholes > 0
	})
	sorted := func(in []int64, up bool) bool {
		for i := 1; i < len(in); i++ {
			if in[i-1] > in[i] == up && in[i-1] != in[i] {
				return false
			}
		}
		return len(in) > 10 && in[0] != in[len(in)-1]
	}
	holds(crates, "rising order", func(in []int64) bool { return sorted(in[2:], true) })
	holds(crates, "falling order", func(in []int64) bool { return sorted(in[2:], false) })

	floes := all("n: int 1..100\nrepeat n { x: int -1e9..1e9, y: int -1e9..1e9 }")
	holds(floes, "zeros", func(in []int64) bool { return len(in) > 2 && in[1] == 0 })
	holds(floes, "the least, always", func(in []int64) bool { return in[0] == 100 && in[1] == -1e9 && in[3] == -1e9 && in[199] == -1e9 })

	links := all("n: int 1..200, m: int 0..400\ng: graph(n, m) loops parallel")
	holds(links, "links to itself", func(in []int64) bool { return in[1] > 0 && in[2] == in[3] })
	holds(links, "no links", func(in []int64) bool { return in[0] == 200 && in[1] == 0 })
	holds(links, "one long path", func(in []int64) bool {
		degree := map[int64]int{}
		for i := 2; i < len(in); i++ {
			degree[in[i]]++
		}
		ends := 0
		for _, d := range degree {
			if d > 2 {
				return false
			}
			if d == 1 {
				ends++
			}
		}
		return in[0] == 200 && in[1] == 199 && ends == 2
	})

	depots := all("cases t: int 1..100 {\n  n: int 0..1000\n  w: int[n] 1..1e9\n  total n <= 2000\n}")
	holds(depots, "one case", func(in []int64) bool { return in[0] == 1 })
	holds(depots, "as many cases as there may be", func(in []int64) bool { return in[0] == 100 })
	holds(depots, "a large case before a small one", func(in []int64) bool { return in[0] == 2 && in[1] == 1000 && in[1002] < 3 })
	holds(depots, "the same case many times", func(in []int64) bool {
		return in[0] == 100 && in[1] > 1 && len(in) == 1+100*int(in[1]+1) && in[2] == in[2+in[1]+1]
	})
}

func TestEdgeCasesStopWhenTheyAreNotWanted(t *testing.T) {
	ctx, cancel := context.WithCancel(t.Context())
	cancel()
	_, err := parsed(t, queries).EdgeCases(ctx, 100)
	assert.ErrorIs(t, err, context.Canceled)
	var many strings.Builder
	for i := range 5000 {
		many.WriteString("a" + strconv.Itoa(i) + ": int 0..9\n")
	}
	all, _ := edgeCasesOf(t, parsed(t, many.String()), 20)
	assert.NotEmpty(t, all.Cases)
}

func TestASeriesGrows(t *testing.T) {
	s := parsed(t, "n: int 2..1e5, k: int 1..1000\nw: int[n] 1..9\nv: int[k] 1..9\nscale n")
	last := int64(0)
	for i, step := range s.Series(6, 1, "") {
		in, err := s.Make(step.Making)
		require.NoError(t, err)
		n, _ := in.Count("n")
		k, _ := in.Count("k")
		assert.EqualValues(t, 1, k, "what is not to scale stays small")
		assert.Greater(t, n, last)
		if last = n; i == 5 {
			assert.EqualValues(t, 1e5, n)
		}
	}
	words := parsed(t, manyWords)
	steps := words.Series(3, 1, "")
	in, err := words.Make(steps[2].Making)
	require.NoError(t, err)
	assert.True(t, strings.HasPrefix(string(in.Append(nil)), "1\n200000 "), "one case, as large as it may be")
}

func TestEdgeCasesAreHandedOnAsTheyAreFound(t *testing.T) {
	s := parsed(t, "n: int 1..1e5\nw: int[n] 1..9")
	var names []string
	all, err := s.EachEdgeCase(context.Background(), 30, func(c EdgeCase) { names = append(names, c.Name) })
	require.NoError(t, err)
	var sorted []string
	for _, c := range all.Cases {
		sorted = append(sorted, c.Name)
	}
	assert.ElementsMatch(t, sorted, names)
	assert.Contains(t, names[0], "n-few", "small ones are found first")
	assert.True(t, slices.IsSortedFunc(all.Cases, func(a, b EdgeCase) int { return int(a.Bytes - b.Bytes) }))
}

func TestBehindTheBoundOfWorkComeSmallOnes(t *testing.T) {
	s := parsed(t, "n: int 1..1e5\nrepeat n { from: int before(to, 0)..1e9, to: int from..1e9 }")
	all, err := s.edgeCases(context.Background(), 100, 1_000_000, func(EdgeCase) {})
	require.NoError(t, err)
	large := 0
	for _, c := range all.Cases {
		large += truthOf(c.Bytes > 100_000)
	}
	assert.Positive(t, large)
	assert.Less(t, large, 10)
	assert.Greater(t, len(all.Cases), 3*large, "the small ones are all there")
}
