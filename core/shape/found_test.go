package shape

import (
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// A fault is one that programs commonly have: two ways to compute an answer, of which the second is wrong for some
// inputs.
type commonFault struct {
	name         string
	shape        string
	right, wrong func(v given) int64
}

// given are the values of an input, as the functions below take them.
type given struct{ in *Input }

func (g given) n(name string) int64   { return integers(g.in, name)[0] }
func (g given) a(name string) []int64 { return slices.Clone(integers(g.in, name)) }

func (g given) s(name string) string {
	for _, one := range g.in.Values() {
		if one.Name == name {
			return one.Value.(string)
		}
	}
	return ""
}

func (g given) edges() (ends [][2]int64) {
	for _, one := range g.in.Values() {
		if one.Name == "g" {
			for _, e := range one.Value.([]any) {
				ends = append(ends, [2]int64{e.([]any)[0].(int64), e.([]any)[1].(int64)})
			}
		}
	}
	return ends
}

func sumMod(a []int64, narrow bool) (s int64) {
	for _, x := range a {
		if s += x; narrow {
			s = int64(int32(s))
		}
	}
	return s
}

// pairsOver counts pairs of weights that reach a load, light ones with heavy ones; strict wants more than it.
func pairsOver(g given, strict bool) (teams int64) {
	w, least := g.a("w"), g.n("least")
	slices.Sort(w)
	for l, h := 0, len(w)-1; l < h; l++ {
		if s := w[l] + w[h]; s > least || s == least && !strict {
			h--
			teams++
		}
	}
	return teams
}

func neighboursOver(g given) (teams int64) {
	w, least := g.a("w"), g.n("least")
	slices.Sort(w)
	for i := 0; i+1 < len(w); i++ {
		if w[i]+w[i+1] >= least {
			i++
			teams++
		}
	}
	return teams
}

func bestPart(a []int64, empty bool) int64 {
	best, now := a[0], int64(0)
	if empty {
		best = 0
	}
	for _, x := range a {
		now = max(now, 0) + x
		best = max(best, now)
	}
	return best
}

func longestRise(a []int64, alike bool) int64 {
	ends := []int64{}
	for _, x := range a {
		i, found := slices.BinarySearch(ends, x)
		if found && alike {
			i, _ = slices.BinarySearch(ends, x+1)
		}
		if i == len(ends) {
			ends = append(ends, x)
		} else {
			ends[i] = x
		}
	}
	return int64(len(ends))
}

func occurrences(s, p string, apart bool) (n int64) {
	for i := 0; i+len(p) <= len(s); i++ {
		if s[i:i+len(p)] == p {
			if n++; apart {
				i += len(p) - 1
			}
		}
	}
	return n
}

func distinctBits(a []int64, bits uint) int64 {
	seen := map[uint64]bool{}
	for _, x := range a {
		seen[uint64(x)<<(64-bits)] = true
	}
	return int64(len(seen))
}

func pairMakes(g given, itself bool) int64 {
	a, k := g.a("a"), g.n("k")
	for i, x := range a {
		for j, y := range a {
			if (i != j || itself) && x+y == k {
				return 1
			}
		}
	}
	return 0
}

func partsOf(g given, start int64) int64 {
	n := g.n("n")
	sets := newForest(n + 1)
	for _, e := range g.edges() {
		sets.join(e[0], e[1])
	}
	if start > 0 { // whether all are reached from one
		roots := map[int32]bool{}
		for v := int64(1); v <= n; v++ {
			root, _ := sets.root(v)
			roots[root] = true
		}
		return int64(len(roots))
	}
	return 1
}

func fewestCoins(g given, greedy bool) int64 {
	coins, k := g.a("coin"), g.n("k")
	coins = append(coins, 1)
	slices.Sort(coins)
	slices.Reverse(coins)
	if greedy {
		n := int64(0)
		for _, c := range coins {
			n, k = n+k/c, k%c
		}
		return n
	}
	best := make([]int64, k+1)
	for x := int64(1); x <= k; x++ {
		best[x] = x
		for _, c := range coins {
			if c <= x {
				best[x] = min(best[x], best[x-c]+1)
			}
		}
	}
	return best[k]
}

func turned(s string, half bool) int64 {
	same := 0
	for i := range len(s) {
		if half && i >= len(s)/4+1 {
			break
		}
		same += truthOf(s[i] == s[len(s)-1-i])
	}
	if half {
		return truth(same == min(len(s), len(s)/4+1))
	}
	return truth(same == len(s))
}

func window(g given, off int64) (most int64) {
	a, k := g.a("a"), g.n("k")
	for i := int64(0); i+k <= int64(len(a))-off; i++ {
		most = max(most, sumMod(a[i:i+k], false))
	}
	return most
}

var commonFaults = []commonFault{
	{"pairs neighbours", "least: int 1..4e9, n: int 1..1e5\nw: int[n] 1..2e9", func(g given) int64 { return pairsOver(g, false) }, neighboursOver},
	{"more than in place of at least", "least: int 1..4e9, n: int 1..1e5\nw: int[n] 1..2e9", func(g given) int64 { return pairsOver(g, false) }, func(g given) int64 { return pairsOver(g, true) }},
	{"a sum in 32 bits", "n: int 1..1e5\na: int[n] 1..1e9", func(g given) int64 { return sumMod(g.a("a"), false) }, func(g given) int64 { return sumMod(g.a("a"), true) }},
	{"nothing is the best part", "n: int 1..1e5\na: int[n] -1e9..1e9", func(g given) int64 { return bestPart(g.a("a"), false) }, func(g given) int64 { return bestPart(g.a("a"), true) }},
	{"equal ones rise", "n: int 1..1e5\na: int[n] 1..1e9", func(g given) int64 { return longestRise(g.a("a"), false) }, func(g given) int64 { return longestRise(g.a("a"), true) }},
	{"occurrences apart", "s: token(1..1e5, \"a-z\")\np: token(1..1e5, \"a-z\")", func(g given) int64 { return occurrences(g.s("s"), g.s("p"), false) }, func(g given) int64 { return occurrences(g.s("s"), g.s("p"), true) }},
	{"keys of 32 bits", "n: int 1..1e5\na: int[n] 0..1e18", func(g given) int64 { return distinctBits(g.a("a"), 64) }, func(g given) int64 { return distinctBits(g.a("a"), 32) }},
	{"one taken twice", "n: int 1..1e5\na: int[n] 1..1e9, k: int 1..2e9", func(g given) int64 { return pairMakes(g, false) }, func(g given) int64 { return pairMakes(g, true) }},
	{"no pair is found", "n: int 1..1e5\na: int[n] 1..1e9, k: int 1..2e9", func(g given) int64 { return pairMakes(g, false) }, func(given) int64 { return 0 }},
	{"all are joined", "n: int 1..1e5, m: int 0..2e5\ng: graph(n, m)", func(g given) int64 { return partsOf(g, 1) }, func(g given) int64 { return partsOf(g, 0) }},
	{"greedy coins", "n: int 1..20, k: int 1..1000\ncoin: int[n] 2..1000", func(g given) int64 { return fewestCoins(g, false) }, func(g given) int64 { return fewestCoins(g, true) }},
	{"the ends alone", "s: token(1..1e5, \"a-z\")", func(g given) int64 { return turned(g.s("s"), false) }, func(g given) int64 { return turned(g.s("s"), true) }},
	{"not the last window", "n: int 1..1e5, k: int 1..n\na: int[n] 1..1e9", func(g given) int64 { return window(g, 0) }, func(g given) int64 { return window(g, 1) }},
}

// TestWhatIsGeneratedShowsCommonFaults counts how many of 2,000 small inputs, in all styles, as a search draws them,
// show a fault, and how many of the small ones of 60 edge cases.
func TestWhatIsGeneratedShowsCommonFaults(t *testing.T) {
	for _, tt := range commonFaults {
		s := parsed(t, tt.shape)
		styles := append([]string{""}, s.Styles()...)
		random, edge := 0, 0
		for seed := range 2000 {
			in, err := s.Make(Making{Seed: Seed(seed), Size: s.SizeFor([]int64{1, 2, 3, 4, 5, 6, 8, 10}[seed%8]), Style: styles[seed/8%len(styles)], Alike: true})
			require.NoError(t, err)
			random += truthOf(tt.right(given{in}) != tt.wrong(given{in}))
		}
		all, err := s.EdgeCases(t.Context(), 60)
		require.NoError(t, err)
		for _, c := range all.Cases {
			if c.Bytes < 2000 {
				in, err := s.Make(c.Making)
				require.NoError(t, err)
				edge += truthOf(tt.right(given{in}) != tt.wrong(given{in}))
			}
		}
		t.Logf("%-32s %4d of 2000 inputs, %2d edge cases", tt.name, random, edge)
		assert.GreaterOrEqual(t, random, 20, strings.TrimSpace(tt.name))
	}
}
