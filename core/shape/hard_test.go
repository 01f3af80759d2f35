package shape

import (
	"math/big"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func filled(style string, seed uint64, n int, low, high int64) []int64 {
	a := make([]int64, n)
	styleNamed(arrayStyles, style).fill(newRandom(seed), a, interval{low: low, high: high})
	return a
}

// The intervals that styles are filled from, those of all 64 bits among them.
var intervals = [][2]int64{{0, 1e9}, {1, 1}, {-5, 5}, {1, 1e18}, {-1 << 63, 1<<63 - 1}, {1<<63 - 2, 1<<63 - 1}, {-1 << 63, -1<<63 + 5}, {1e9, 2e9}, {-1e18, -1e17}}

func TestHardStylesStayWithinTheirBounds(t *testing.T) {
	for _, style := range []string{"sums", "wraps", "collisions", "nearly-sorted", "mountain", "small"} {
		for _, v := range intervals {
			for n := range 40 {
				for _, x := range filled(style, uint64(n), n, v[0], v[1]) {
					require.True(t, v[0] <= x && x <= v[1], "%s: %d of %v", style, x, v)
				}
			}
		}
	}
}

func TestSumsAreAtABorderOfATypeOrOneOff(t *testing.T) {
	seen := map[int]bool{}
	for seed := range uint64(200) {
		sum := new(big.Int)
		a := filled("sums", seed, 7, 0, 1e18)
		for _, x := range a {
			sum.Add(sum, big.NewInt(x))
		}
		for _, bits := range []uint{31, 32, 53, 63} {
			off := new(big.Int).Sub(sum, new(big.Int).Lsh(big.NewInt(1), bits))
			if off.IsInt64() && off.Int64() >= -2 && off.Int64() <= 0 {
				seen[int(bits)] = true
				sum = nil
				break
			}
		}
		assert.Nil(t, sum, "%v", a)
		assert.Greater(t, len(slices.Compact(slices.Sorted(slices.Values(a)))), 2, "not all alike")
	}
	assert.Equal(t, map[int]bool{31: true, 32: true, 53: true}, seen, "seven values up to 10^18 add up to less than 2^63")
}

func TestWrappingValuesAreAlikeInTheirLastBits(t *testing.T) {
	for seed := range uint64(50) {
		ends := map[int64]bool{}
		for _, x := range filled("wraps", seed, 50, 0, 1e18) {
			ends[x%(1<<31)] = true
		}
		assert.LessOrEqual(t, len(ends), 2)
	}
}

func TestCollidingValuesAreInOneBucket(t *testing.T) {
	a := filled("collisions", 1, 10000, 1, 1e9)
	for _, x := range a {
		require.Zero(t, x%10273)
	}
	assert.Len(t, slices.Compact(slices.Sorted(slices.Values(a))), 10000)
	many := filled("collisions", 1, 200000, 1, 1e9)
	different := len(slices.Compact(slices.Sorted(slices.Values(many))))
	assert.Greater(t, different, 10000, "a long chain")
	b := many[0]
	for _, x := range many {
		b = gcd(b, x)
	}
	assert.Contains(t, buckets, b)
}

func gcd(a, b int64) int64 {
	for b != 0 {
		a, b = b, a%b
	}
	return a
}

func TestStylesThatMakeNoDifferenceAreLeftOut(t *testing.T) {
	for _, tt := range []struct {
		text   string
		absent []string
		there  []string
	}{
		{"n: int 1..9\na: int[n] 1..9", []string{"wraps", "collisions", "sums"}, []string{"nearly-sorted", "small"}},
		{"a: int[5] 1..1e9", []string{"wraps"}, []string{"collisions", "sums"}},
		{"n: int 1..9\na: int[n] -1e12..1e12", nil, []string{"wraps", "collisions", "sums"}},
		{"s: token(1..9, \"ab\")", partStyles, []string{"fibonacci", "runs", "odd-end"}},
		{"s: token(1..9, \"ab\")\nt: token(1..9, \"01\")", partStyles, nil},
		{"s: token(1..9, \"ab\")\nrepeat 3 { t: token(1..9, \"a-z\") }", nil, partStyles},
	} {
		styles := parsed(t, tt.text).Styles()
		for _, name := range tt.absent {
			assert.NotContains(t, styles, name, tt.text)
		}
		assert.Subset(t, styles, tt.there, tt.text)
	}
}

func TestWordsAreHardForSearches(t *testing.T) {
	word := func(style string, n int) string {
		a := make([]int32, n)
		styleNamed(wordStyles, style)(newRandom(4), a, 2)
		text := ""
		for _, x := range a {
			text += string(rune('a' + x))
		}
		return text
	}
	fibonacci := word("fibonacci", 13)
	if fibonacci[0] == 'b' {
		fibonacci = strings.NewReplacer("a", "b", "b", "a").Replace(fibonacci)
	}
	assert.Equal(t, "abaababaabaab", fibonacci)
	odd := word("odd-end", 9)
	assert.Equal(t, strings.Repeat(odd[:1], 8), odd[:8])
	assert.NotEqual(t, odd[0], odd[8])
	for n := 1; n < 4; n++ {
		for _, style := range []string{"fibonacci", "runs", "odd-end"} {
			assert.Len(t, word(style, n), n)
		}
	}
}

func TestAWordIsAPartOfTheTextBefore(t *testing.T) {
	s := parsed(t, "s: token(20..30, \"ab\")\nrepeat 3 { p: token(1..8, \"a-c\") }")
	nearly := 0
	for seed := range 100 {
		for _, style := range partStyles {
			in, err := s.Make(Making{Seed: Seed(seed), Size: Largest, Style: style})
			require.NoError(t, err)
			lines := strings.Fields(string(in.Append(nil)))
			for _, part := range lines[1:] {
				found := strings.Contains(lines[0], part)
				if style == "part" {
					assert.True(t, found, "%v", lines)
				} else {
					nearly += truthOf(!found)
				}
			}
		}
	}
	assert.Greater(t, nearly, 100)
	s = parsed(t, "s: token(0..2, \"ab\")\np: token(5, \"ab\")")
	for seed := range 50 {
		in, err := s.Make(Making{Seed: Seed(seed), Size: Largest / 2, Style: "part"})
		require.NoError(t, err, "a text that is shorter, or empty")
		assert.Len(t, strings.Split(string(in.Append(nil)), "\n")[1], 5)
	}
}

func TestTreesAreNumberedAlongAPathAndAgainstIt(t *testing.T) {
	for _, tt := range []struct{ text, style, want string }{
		{"t: tree(4)", pathInOrder, "1 2\n2 3\n3 4\n"},
		{"t: tree(4)", pathAgainst, "1 4\n4 3\n3 2\n"},
		{"p: parents(4)", pathAgainst, "3 4 1\n"},
		{"p: parents(4)", "path", "1 2 3\n"},
	} {
		in, err := parsed(t, tt.text).Make(Making{Style: tt.style})
		require.NoError(t, err)
		assert.Equal(t, tt.want, string(in.Append(nil)), "%s %s", tt.text, tt.style)
	}
}

func TestGraphsInHalvesAndAtAVertex(t *testing.T) {
	parts := func(text, style string, leaveOut int64) (sizes []int) {
		in, err := parsed(t, text).Make(Making{Style: style, Size: Largest, Seed: 3})
		require.NoError(t, err)
		size := map[int64]int{}
		sets := newForest(20)
		list := in.top.data[2].ints
		for i := 0; i < len(list); i += 2 {
			if list[i] != leaveOut && list[i+1] != leaveOut {
				sets.join(list[i], list[i+1])
			}
		}
		for v := int64(1); v <= 12; v++ {
			if v != leaveOut {
				root, _ := sets.root(v)
				size[int64(root)]++
			}
		}
		for _, n := range size {
			sizes = append(sizes, n)
		}
		slices.Sort(sizes)
		return sizes
	}
	assert.Equal(t, []int{6, 6}, parts("n: int 12..12, m: int 10..18\ng: graph(n, m)", "two-halves", 0))
	assert.Equal(t, []int{12}, parts("n: int 12..12, m: int 13..18\ng: graph(n, m) connected", "bridge", 0))
	most := 0
	for v := int64(1); v <= 12; v++ {
		most = max(most, len(parts("n: int 12..12, m: int 11..14\ng: graph(n, m) connected", "cycles-at-a-vertex", v)))
	}
	assert.GreaterOrEqual(t, most, 3, "a vertex without which it falls apart")
}
