package shape

import (
	"fmt"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// TestACoveringHoldsEveryPair chooses among options of all kinds of numbers, and looks
// for each pair in what was chosen.
func TestACoveringHoldsEveryPair(t *testing.T) {
	for _, sizes := range [][]int{{2}, {5}, {2, 2}, {3, 2, 4}, {5, 5, 5}, {2, 2, 2, 2, 2, 2, 2, 2}, {13, 6, 4}, {13, 13, 4, 3, 2, 2, 5}, {2, 9, 2, 9, 2}} {
		var factors []factor
		pairs := 0
		for i, n := range sizes {
			f := factor{key: i, label: fmt.Sprint("f", i)}
			for o := range n {
				f.options = append(f.options, fmt.Sprint(o))
			}
			for _, before := range sizes[:i] {
				pairs += n * before
			}
			factors = append(factors, f)
		}
		if len(sizes) == 1 {
			pairs = sizes[0]
		}
		c := newCovering(factors)
		assert.Equal(t, pairs, c.left)
		var rows [][]int
		for c.left > 0 {
			row := c.next()
			left := c.left
			c.cover(row, slices.Repeat([]bool{true}, len(row)))
			require.Less(t, c.left, left, "each covers a pair that was left")
			rows = append(rows, row)
		}
		assert.Equal(t, pairs, c.covered)
		for i := range sizes {
			for j := range i {
				for a := range sizes[i] {
					for b := range sizes[j] {
						assert.True(t, slices.ContainsFunc(rows, func(row []int) bool { return row[i] == a && row[j] == b }), "%v: %d of %d with %d of %d", sizes, a, i, b, j)
					}
				}
			}
		}
		// No set can have fewer than the two largest numbers multiplied.
		sorted := slices.Sorted(slices.Values(sizes))
		least := sorted[len(sorted)-1]
		if len(sorted) > 1 {
			least *= sorted[len(sorted)-2]
		}
		assert.LessOrEqual(t, len(rows), 2*least+4, "%v", sizes)
	}
}

func TestCountsOfEdgeCasesAreChosenEachOnce(t *testing.T) {
	for text, want := range map[string]string{
		"1..2e5": "least two few largest", "0..2e5": "least next two few largest", "5..5": "", "1..2": "least largest", "1..1": "", "0..1": "least largest", "0..2": "least next largest",
		"7..9": "least next largest", "7..100": "least next few largest", "2..100": "least next few largest", "1..3": "least two largest", "a..100": "least next two few largest", "1..a": "least two few largest",
	} {
		s := parsed(t, "a: int 1..3\nn: int "+text+"\nw: int[n] 1..9")
		got := countOptions(s.Items[1].(*lineNode).Fields[0].Value.Range)
		assert.Equal(t, want, strings.Join(got, " "), text)
	}
}

func TestEdgeCasesAreNamedAfterTheirChoices(t *testing.T) {
	factors := []factor{
		{label: "n", options: []string{"least", "largest"}}, {label: "My_w", options: []string{"all-equal", "random"}}, {label: "q", options: []string{"uniform", "ties"}},
		{label: strings.Repeat("x", 80), options: []string{"least"}},
	}
	taken := map[string]int{}
	all := []bool{true, true, true, true}
	assert.Equal(t, "n-least.my-w-all-equal."+strings.Repeat("x", 80)+".and-1-more", strings.Replace(edgeName(factors, []int{0, 0, 1, 0}, all, taken), "q-ties", strings.Repeat("x", 80), 1))
	short := factors[:3]
	for _, tt := range []struct {
		chosen []int
		want   string
	}{
		{[]int{0, 0, 0}, "n-least.my-w-all-equal"}, {[]int{1, 1, 0}, "n-largest"}, {[]int{1, 1, 0}, "n-largest.again-2"}, {[]int{0, 1, 1}, "n-least.q-ties"},
	} {
		assert.Equal(t, tt.want, edgeName(short, tt.chosen, all, taken))
	}
	assert.Equal(t, "random", edgeName(short[1:2], []int{1}, all, taken))
	assert.Equal(t, "my-w-all-equal.again-2", edgeName(short, []int{0, 0, 1}, []bool{false, true, false}, map[string]int{"my-w-all-equal": 1}), "what gave way is not named")
}

// casesOf makes a problem's cases in a style, and returns how large each is.
func casesOf(t *testing.T, style string, seed Seed) []int64 {
	t.Helper()
	s := parsed(t, "cases t: int 1..40 {\n  n: int 1..1000\n  w: int[n] 1..9\n  total n <= 1200\n}")
	in, err := s.Make(Making{Seed: seed, Size: Largest, Style: style})
	require.NoError(t, err)
	var sizes []int64
	sum := int64(0)
	for _, body := range in.top.data[s.Items[0].(*casesNode).Count.slot].bodies {
		n := body.data[0].ints[0]
		sizes, sum = append(sizes, n), sum+n
	}
	assert.LessOrEqual(t, sum, int64(1200))
	return sizes
}

func TestCasesAreDividedAsTheirStyleSays(t *testing.T) {
	for seed := range Seed(10) {
		assert.Equal(t, []int64{1000}, casesOf(t, "one", seed))
		alike := casesOf(t, "two-alike", seed)
		assert.Equal(t, []int64{600, 600}, alike)
		many := casesOf(t, "many-alike", seed)
		assert.Len(t, many, 40)
		assert.Len(t, slices.Compact(slices.Clone(many)), 1)
		tiny := casesOf(t, "many-tiny", seed)
		assert.Len(t, tiny, 40)
		assert.LessOrEqual(t, slices.Max(tiny), int64(3))
		among := slices.Sorted(slices.Values(casesOf(t, "large-among-tiny", seed)))
		assert.Greater(t, among[len(among)-1], int64(900))
		assert.LessOrEqual(t, among[len(among)-2], int64(3))
		then := casesOf(t, "large-then-small", seed)
		assert.Len(t, then, 2)
		assert.EqualValues(t, 1000, then[0])
		assert.LessOrEqual(t, then[1], int64(3))
		even := casesOf(t, "even", seed)
		assert.Len(t, even, 40)
		assert.EqualValues(t, 30, slices.Max(even))
	}
}

func TestColumnsOfARepeatAreDrawnTogether(t *testing.T) {
	s := parsed(t, "n: int 30..30\nrepeat n { x: int 1..1e9, y: int 1..1e9 }")
	rows := func(style string, seed Seed) (x, y []int64) {
		in, err := s.Make(Making{Seed: seed, Size: Largest, Style: style})
		require.NoError(t, err)
		list := ints(string(in.Append(nil)))[1:]
		for i := 0; i < len(list); i += 2 {
			x, y = append(x, list[i]), append(y, list[i+1])
		}
		return x, y
	}
	sorted, alike := 0, 0
	for seed := range Seed(40) { // half of the columns are drawn so
		x, _ := rows("sorted", seed)
		if slices.IsSorted(x) {
			sorted++
		}
		_, y := rows("all-equal", seed)
		if len(slices.Compact(y)) == 1 {
			alike++
		}
	}
	assert.Greater(t, sorted, 8)
	assert.Greater(t, alike, 8)
}

func TestBranchesAreThoseOfTheirStyle(t *testing.T) {
	s := parsed(t, "n: int 2..9, q: int 20..20\nrepeat q {\n  either { \"near\", v: int 1..n }\n  or { \"path\", u: int 1..n, v: int 1..n; require u != v }\n}")
	count := func(style string) (near, path int) {
		in, err := s.Make(Making{Style: style})
		require.NoError(t, err)
		text := string(in.Append(nil))
		return strings.Count(text, "near"), strings.Count(text, "path")
	}
	near, path := count("only-1")
	assert.Equal(t, [2]int{20, 0}, [2]int{near, path})
	near, path = count("only-2")
	assert.Equal(t, [2]int{0, 20}, [2]int{near, path})
	near, path = count("mixed")
	assert.Positive(t, near)
	assert.Positive(t, path)

	one := parsed(t, strings.Replace(s.Text(), "2..9", "1..1", 1))
	in, err := one.Make(Making{Style: "only-2"})
	require.NoError(t, err, "a branch that cannot be made gives way")
	assert.Equal(t, 20, strings.Count(string(in.Append(nil)), "near 1\n"))
}

func TestEdgesAreDifferentHoweverManyVerticesThereAre(t *testing.T) {
	for _, n := range []int64{10, 1<<31 - 1, 1 << 31, 1e18} {
		isNew := newEdgeSet(n, 4)
		assert.True(t, isNew(n-1, n-2), n)
		assert.True(t, isNew(n-2, n-1), n)
		assert.True(t, isNew(0, n-1), n)
		assert.False(t, isNew(n-1, n-2), n)
		for _, kind := range []string{"", "directed"} {
			s := parsed(t, fmt.Sprintf("g: graph(%d, 3) %s", n, kind))
			fault, err := s.Check(strings.NewReader(fmt.Sprintf("1 2\n%d 1\n2 1\n", n)), Options{})
			require.NoError(t, err)
			if kind == "directed" {
				assert.Nil(t, fault, "%v", fault)
				continue
			}
			require.NotNil(t, fault)
			assert.Equal(t, "line 3: the edge 2 1 comes a second time", fault.Error())
		}
	}
}

func TestATotalIsHeldAtTheEnd(t *testing.T) {
	s := parsed(t, "cases t: int 1..9 {\n  n: int\n  total n <= 5\n}")
	for input, want := range map[string]string{
		"2\n9\n-4\n": "", "2\n3\n2\n": "", "3\n9\n-6\n3\n": "line 4: with case 3, which begins here, the sum of n is 6, more than 5 (5)",
		"2\n4\n2\n":    "line 3: with case 2, which begins here, the sum of n is 6, more than 5 (5)",
		"3\n9\n1\n1\n": "line 2: with case 1, which begins here, the sum of n is 9, more than 5 (5)",
		"2\n-9223372036854775808\n-9223372036854775808\n": "",
		"2\n9223372036854775807\n9223372036854775807\n":   "line 2: with case 1, which begins here, the sum of n is 9223372036854775807",
	} {
		fault, err := s.Check(strings.NewReader(input), Options{})
		require.NoError(t, err)
		if want == "" {
			assert.Nil(t, fault, "%q: %v", input, fault)
			continue
		}
		require.NotNil(t, fault, input)
		assert.Contains(t, fault.Error(), want)
	}
}

func TestASourceDrawsAsTheMakerDoes(t *testing.T) {
	a, b := NewSource(7), NewSource(7)
	for range 100 {
		x := a.Between(-5, 5)
		assert.Equal(t, x, b.Between(-5, 5))
		assert.True(t, x >= -5 && x <= 5)
	}
	order := a.Permutation(20)
	assert.Equal(t, order, b.Permutation(20))
	slices.Sort(order)
	assert.EqualValues(t, 19, order[19])
	few := a.Sample(5, -2, 2)
	slices.Sort(few)
	assert.Equal(t, []int64{-2, -1, 0, 1, 2}, few)
	assert.Empty(t, a.Sample(0, 1, 1))
	whole := a.Sample(3, 1, 1<<62)
	assert.Len(t, slices.Compact(slices.Sorted(slices.Values(whole))), 3)
	assert.NotEqual(t, NewSource(8).Permutation(20), NewSource(9).Permutation(20))
}

func TestSeriesHaveTheSizesThatWereAskedFor(t *testing.T) {
	s := parsed(t, "n: int 1..1e5, k: int 1..10\nw: int[n] 1..k\nv: int[k] 1..9")
	assert.Len(t, s.Series(0, 1, ""), 2, "two at the least")
	steps := s.Series(5, 3, "all-equal")
	require.Len(t, steps, 5)
	assert.Equal(t, Size(0), steps[0].Size)
	assert.Equal(t, Largest, steps[4].Size)
	var counts []int64
	for _, step := range steps {
		in, err := s.Make(step.Making)
		require.NoError(t, err)
		n, _ := in.Count("n")
		list := ints(string(in.Append(nil)))
		assert.Len(t, slices.Compact(slices.Clone(list[2:2+n])), 1, "all are of the style")
		counts = append(counts, n)
	}
	assert.Equal(t, []int64{1, 18, 316, 5623, 100000}, counts)
}

func TestStylesAreKnownWhereverTheyFit(t *testing.T) {
	for text, has := range map[string][]string{
		"n: int 1..9":                                   {"uniform", "least", "near-zero"},
		"n: int 1..9\nw: int[n]":                        {"few", "sorted", "zigzag"},
		"n: int 1..9\nrepeat n { x: int 1..9 }":         {"sorted", "all-equal", "powers"},
		"either { \"a\" } or { \"b\", n: int }":         {"only-1", "only-2", "mixed"},
		"cases t: int 1..9 { s: token(3, \"ab\") }":     {"one", "large-then-small", "palindrome"},
		"g: graph(3, 2) with (w: int 1..9)":             {"star", "components", "blocks"},
		"g: graph(3, 2) connected":                      {"star"},
		"t: tree(3)\np: perm(3)\nm: grid(2, 2, \"ab\")": {"broom", "one-swap", "spiral"},
	} {
		names := parsed(t, text).Styles()
		assert.True(t, slices.IsSorted(names))
		for _, name := range has {
			assert.Contains(t, names, name, text)
		}
	}
	for _, name := range []string{"components", "empty", "self-loops", "same-edge"} {
		assert.NotContains(t, parsed(t, "g: graph(3, 2) connected").Styles(), name, "these do not join all vertices")
	}
	_, err := parsed(t, "n: int 1..9\nw: int[n]").Make(Making{Style: "palindrome"})
	assert.ErrorContains(t, err, `no value of this shape has a style "palindrome"`)
}

func TestEveryNameInAnExpressionIsLookedUp(t *testing.T) {
	_, err := Parse("n: int 1..9\nw: int[n]\nrequire w[m] < max(k, 2) and not -j = sum(v)")
	for _, says := range []string{"m is not declared", "k is not declared", "j is not declared", "v is not declared"} {
		assert.ErrorContains(t, err, says)
	}
}
