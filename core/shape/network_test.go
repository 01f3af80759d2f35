package shape

import (
	"fmt"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// A network is what is to be known of a made graph.
type network struct {
	n      int
	edges  [][2]int64
	degree []int // in descending order
	parts  int
	loops  int
	depth  int // how far vertex 1 is from the one that is farthest, in edges
	longes int // the longest way between two vertices of a tree
}

func networkOf(t *testing.T, text, style string, seed Seed) network {
	t.Helper()
	in, err := parsed(t, text).Make(Making{Seed: seed, Size: Largest, Style: style})
	require.NoError(t, err)
	list := ints(string(in.Append(nil)))
	w := network{n: int(list[0])}
	first := 1
	if len(list)%2 == 0 { // n and m stand before the edges
		first = 2
	}
	count := map[int64]int{}
	next := map[int64][]int64{}
	sets := newForest(int64(w.n))
	w.parts = w.n
	for i := first; i < len(list); i += 2 {
		a, b := list[i], list[i+1]
		w.edges = append(w.edges, [2]int64{a, b})
		count[a]++
		count[b]++
		next[a], next[b] = append(next[a], b), append(next[b], a)
		if a == b {
			w.loops++
		}
		if sets.join(a-1, b-1) {
			w.parts--
		}
	}
	for v := 1; v <= w.n; v++ {
		w.degree = append(w.degree, count[int64(v)])
	}
	slices.Sort(w.degree)
	slices.Reverse(w.degree)
	far := func(from int64) (last int64, depth int) {
		at := map[int64]int{from: 0}
		waiting := []int64{from}
		for i := 0; i < len(waiting); i++ {
			last, depth = waiting[i], at[waiting[i]]
			for _, v := range next[waiting[i]] {
				if _, seen := at[v]; !seen {
					at[v] = depth + 1
					waiting = append(waiting, v)
				}
			}
		}
		return last, depth
	}
	end, depth := far(1)
	w.depth = depth
	_, w.longes = far(end)
	return w
}

func TestTreesHaveTheFormOfTheirStyle(t *testing.T) {
	const text = "n: int 50..50\nt: tree(n)"
	for style, is := range map[string]func(w network) bool{
		"path":               func(w network) bool { return w.longes == 49 && w.degree[0] == 2 },
		"star":               func(w network) bool { return w.longes == 2 && w.degree[0] == 49 },
		"broom":              func(w network) bool { return w.degree[0] > 20 && w.longes == 26 },
		"caterpillar":        func(w network) bool { return w.longes >= 24 && w.longes <= 26 },
		"binary":             func(w network) bool { return w.degree[0] == 3 && w.longes <= 10 },
		"root-in-the-middle": func(w network) bool { return w.longes == 49 && w.depth == 25 },
		"attached":           func(w network) bool { return w.longes < 30 },
		"uniform":            func(w network) bool { return w.longes > 5 },
	} {
		for seed := range Seed(5) {
			w := networkOf(t, text, style, seed)
			assert.Len(t, w.edges, 49)
			assert.Equal(t, 1, w.parts, style)
			assert.True(t, is(w), "%s: %+v", style, w)
		}
	}
}

func TestGraphsHaveTheFormOfTheirStyle(t *testing.T) {
	const text = "n: int 36..36, m: int 0..2000\ng: graph(n, m) loops parallel"
	simple := "n: int 36..36, m: int 0..630\ng: graph(n, m)"
	for _, tt := range []struct {
		shape, style string
		is           func(w network) bool
	}{
		{simple, "empty", func(w network) bool { return len(w.edges) == 0 }},
		{simple, "path", func(w network) bool { return len(w.edges) == 35 && w.parts == 1 && w.degree[0] == 2 }},
		{simple, "cycle", func(w network) bool { return len(w.edges) == 36 && w.degree[0] == 2 && w.degree[35] == 2 }},
		{simple, "star", func(w network) bool { return len(w.edges) == 35 && w.degree[0] == 35 }},
		{simple, "complete", func(w network) bool { return len(w.edges) == 630 && w.degree[35] == 35 }},
		{simple, "tree-and-one-edge", func(w network) bool { return len(w.edges) == 36 && w.parts == 1 }},
		{simple, "dense", func(w network) bool { return len(w.edges) == 420 && w.parts == 1 }},
		{simple, "sparse", func(w network) bool { return len(w.edges) == 40 && w.parts == 1 }},
		{simple, "grid-like", func(w network) bool { return len(w.edges) == 60 && w.degree[0] == 4 && w.degree[35] == 2 }},
		{"n: int 36..36, m: int 20..20\ng: graph(n, m)", "components", func(w network) bool { return w.parts > 1 }},
		{"n: int 36..36, m: int 20..20\ng: graph(n, m) loops parallel", "self-loops", func(w network) bool { return w.loops == 20 }},
		{text, "same-edge", func(w network) bool { return w.degree[0] == len(w.edges) && w.degree[2] == 0 }},
	} {
		for seed := range Seed(4) {
			w := networkOf(t, tt.shape, tt.style, seed)
			assert.True(t, tt.is(w), "%s: %d edges, %d parts, degrees %v", tt.style, len(w.edges), w.parts, w.degree)
		}
	}
}

// TestGraphsHaveRoomForJustSoManyEdges makes the smallest and the fullest graphs of
// all kinds.
func TestGraphsHaveRoomForJustSoManyEdges(t *testing.T) {
	for _, tt := range []struct {
		kind        string
		n           int64
		least, most int64
	}{
		{"", 5, 0, 10}, {"connected", 5, 4, 10}, {"acyclic", 5, 0, 4}, {"acyclic connected", 5, 4, 4}, {"directed", 5, 0, 20}, {"directed acyclic", 5, 0, 10},
		{"bipartite", 5, 0, 6}, {"bipartite", 6, 0, 9}, {"bipartite connected", 5, 4, 6}, {"bipartite directed", 5, 0, 12}, {"loops", 5, 0, 15}, {"loops directed", 5, 0, 25},
		{"", 1, 0, 0}, {"loops", 1, 0, 1}, {"connected", 1, 0, 0}, {"directed", 2, 0, 2}, {"bipartite", 2, 0, 1}, {"connected directed acyclic", 4, 3, 6},
	} {
		for _, m := range []int64{tt.least, tt.most} {
			s := parsed(t, fmt.Sprintf("g: graph(%d, %d) %s", tt.n, m, tt.kind))
			for seed := range Seed(6) {
				madeValid(t, s, Making{Seed: seed})
			}
		}
		for _, m := range []int64{tt.least - 1, tt.most + 1} {
			if m < 0 {
				continue
			}
			_, err := parsed(t, fmt.Sprintf("n: int %d..%d, m: int %d..%d\ng: graph(n, m) %s", tt.n, tt.n, m, m, tt.kind)).Make(Making{})
			assert.ErrorContains(t, err, "a graph that has room for its edges cannot be met", "%s, %d vertices, %d edges", tt.kind, tt.n, m)
		}
	}
}
