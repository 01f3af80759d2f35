package shape

import (
	"context"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"coldverdict/core/value"
)

func TestTreesAndGraphsOfNodesAreMadeAndHeldAgainstAShape(t *testing.T) {
	for _, tt := range []struct {
		name, shape string
		takes       []string
	}{
		{"a tree", "root: nodes(0..200) -9..9", []string{"root: tree(int)"}},
		{"any integers", "root: nodes(0..20)", []string{"root: tree(long)"}},
		{"a search tree", "root: nodes(1..50) -100..100 rising", []string{"root: tree(int)"}},
		{"nodes that may be equal, in order", "root: nodes(1..50) 0..9 sorted", []string{"root: tree(int)"}},
		{"no two alike", "root: nodes(1..19) 1..19 distinct", []string{"root: tree(int)"}},
		{"any number of children", "root: nodes(0..80) 0..1e9", []string{"root: nary(long)"}},
		{"a count", "n: int 0..40\nroot: nodes(n) 1..n\nother: nodes(n + 1) 0..1\nnames: token(1..3, \"ab\")[n]", []string{"root: tree(int)", "other: nary(int)", "names: text[]"}},
		{"a graph", "n: int 1..20\nm: int 0..n*(n-1)/2\nyard: graph(n, m)", []string{"yard: graph(int)"}},
		{"a connected one", "n: int 1..20, m: int n-1..n*(n-1)/2\nyard: graph(n, m) connected", []string{"yard: graph(int)"}},
		{"a directed one", "n: int 1..9, m: int 0..n*(n-1)\nyard: graph(n, m) directed", []string{"yard: graph(int)"}},
		{"a graph that is a tree", "yard: tree(7)", []string{"yard: graph(int)"}},
	} {
		t.Run(tt.name, func(t *testing.T) {
			s, err := ParseArguments(tt.shape, takes(t, tt.takes...))
			require.NoError(t, err)
			for seed := range Seed(120) {
				text := madeValid(t, s, Making{Seed: seed, Size: Size(seed) * Largest / 120})
				args, err := value.ReadCall(string(text), s.takes)
				require.NoError(t, err, "%s", text)
				require.Len(t, args, len(tt.takes))
			}
			edgeCasesOf(t, s, 30)
			assert.NotEmpty(t, s.Explain())
		})
	}
}

func TestTheFormsOfTreesAreWhatTheyAreCalled(t *testing.T) {
	s, err := ParseArguments("root: nodes(7) 1..7 rising", takes(t, "root: tree(int)"))
	require.NoError(t, err)
	for style, want := range map[string]string{
		"to-the-left": "[7, 6, null, 5, null, 4, null, 3, null, 2, null, 1]", "to-the-right": "[1, null, 2, null, 3, null, 4, null, 5, null, 6, null, 7]",
		"complete": "[4, 2, 6, 1, 3, 5, 7]", "zigzag": "[1, null, 7, 2, null, null, 6, 3, null, null, 5, 4]", "two-paths": "[4, 3, 5, 2, null, null, 6, 1, null, null, 7]",
	} {
		in, err := s.Make(Making{Seed: 3, Size: Largest, Style: style})
		require.NoError(t, err)
		assert.Equal(t, "root: "+want+"\n", string(in.Append(nil)), style)
	}
}

func TestWhatNodesOfAnArgumentCannotBe(t *testing.T) {
	for _, tt := range []struct{ takes, shape, text, says string }{
		{"root: tree(int)", "root: nodes(1..3) 0..9", "[1, 2, 3, 4]", "root has 4 nodes, and has 1..3"},
		{"root: tree(int)", "root: nodes(1..3) 0..9", "[]", "root has 0 nodes, and has 1..3"},
		{"root: tree(int)", "root: nodes(1..3) 0..9", "[1, null, 12]", "root[2] is 12, outside 0..9"},
		{"root: tree(int)", "root: nodes(1..9) 0..9 rising", "[5, 3, 8, null, 6]", "from left to right 6 comes before 5; this is no search tree"},
		{"root: tree(int)", "root: nodes(1..9) 0..9 rising", "[5, 5]", "from left to right 5 comes before 5"},
		{"root: nary(int)", "root: nodes(1..9) distinct", "[5, null, 4, 5]", "5 stands there twice"},
		{"g: graph(int)", "n: int 1..9, m: int 0..9\ng: graph(n, m)", "[[2], []]", "node 1 of g has the neighbour 2, and node 2 has not 1: say directed if that may be"},
		{"g: graph(int)", "n: int 1..9, m: int 0..9\ng: graph(n, m)", "[[1], []]", "an edge leads from 1 to itself"},
		{"g: graph(int)", "n: int 1..9, m: int 0..9\ng: graph(n, m) connected", "[[], []]", "the graph is not connected"},
		{"g: graph(int)", "g: graph(3, 1)", "[[2], [1]]", "g has 2 nodes, and has 3"},
	} {
		s, err := ParseArguments(tt.shape, takes(t, tt.takes))
		require.NoError(t, err, tt.shape)
		name, _, _ := strings.Cut(tt.takes, ":")
		fault, err := s.Check(strings.NewReader(name+": "+tt.text+"\n"), Options{})
		require.NoError(t, err)
		require.NotNil(t, fault, tt.text)
		assert.Contains(t, fault.Error(), tt.says)
	}
	for shape, says := range map[string]string{
		"root: nodes(3) falling": "a search tree is rising", "root: int[3]": "root is int[] or long[] or bigint[], and the function takes tree(int)",
		"root: tree(5)": "the function takes tree(int)",
	} {
		_, err := ParseArguments(shape, takes(t, "root: tree(int)"))
		assert.ErrorContains(t, err, says)
	}
	_, err := ParseArguments("root: nodes(3) rising", takes(t, "root: nary(int)"))
	assert.ErrorContains(t, err, "only a tree with a left and a right child is sorted or rising")
	_, err = Parse("root: nodes(3) rising")
	assert.ErrorContains(t, err, "in lines a tree is tree(n), its edges, or parents(n)")
}

func TestTreesOfNodesAreShrunk(t *testing.T) {
	for _, tt := range []struct{ takes, shape, least string }{
		{"root: tree(int)", "root: nodes(0..60) -9..9", "root: [-1]\n"},
		{"root: nary(int)", "root: nodes(0..60) -9..9", "root: [-1]\n"},
		{"root: tree(int)", "n: int 2..60\nroot: nodes(n) -9..9", "root: [0, -1]\nroot: [0, null, -1]\nroot: [-1, 0]\nroot: [-1, null, 0]\n"},
	} {
		s, err := ParseArguments(tt.shape, takes(t, tt.takes))
		require.NoError(t, err)
		found := false
		for seed := range Seed(20) {
			in, err := s.Make(Making{Seed: seed, Size: Largest, Style: "grown"})
			require.NoError(t, err)
			fails := func(_ context.Context, text []byte) (bool, error) { return strings.Contains(string(text), "-"), nil }
			if ok, _ := fails(t.Context(), in.Append(nil)); !ok {
				continue
			}
			found = true
			small, complete, err := s.Shrink(t.Context(), in, fails)
			require.NoError(t, err)
			assert.True(t, complete)
			assert.Contains(t, tt.least, string(small.Append(nil)))
		}
		assert.True(t, found)
	}
}
