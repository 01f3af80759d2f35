package picture

import (
	"fmt"
	"math"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"coldverdict/core/problem"
	"coldverdict/core/shape"
)

// read returns the pictures of a text that is as a shape says.
func read(t *testing.T, form, text string) ([]Picture, []string) {
	t.Helper()
	s, err := shape.Parse(form)
	require.NoError(t, err)
	in, fault, err := s.Read(strings.NewReader(text), shape.Options{})
	require.NoError(t, err)
	require.Nil(t, fault, "%v", fault)
	return Of(in)
}

func TestAShapeSaysWhatIsDrawn(t *testing.T) {
	for name, row := range map[string]struct {
		form, text string
		want       []Picture
	}{
		"a graph with weights": {"n: int 1..9, m: int 0..9\ne: graph(n, m) with (w: int 1..9)", "3 2\n1 2 7\n3 1 8\n",
			[]Picture{{Title: "e", Graph: &Graph{From: 1, N: 3, Edges: []Edge{{0, 1, "7"}, {2, 0, "8"}}}}}},
		"a directed graph with a loop": {"n: int 1..9, m: int 0..9\ne: graph(n, m) directed loops", "2 2\n1 1\n2 1\n",
			[]Picture{{Title: "e", Graph: &Graph{From: 1, N: 2, Directed: true, Edges: []Edge{{0, 0, ""}, {1, 0, ""}}}}}},
		"a tree":            {"n: int 1..9\ne: tree(n)", "3\n1 2\n1 3\n", []Picture{{Title: "e", Graph: &Graph{From: 1, N: 3, Tree: true, Edges: []Edge{{0, 1, ""}, {0, 2, ""}}}}}},
		"parents":           {"n: int 2..9\np: parents(n)", "3\n1 2\n", []Picture{{Title: "p", Graph: &Graph{From: 1, N: 3, Tree: true, Edges: []Edge{{0, 1, ""}, {1, 2, ""}}}}}},
		"a grid":            {"r: int 1..9, c: int 1..9\nmap: grid(r, c, \".#\")", "2 3\n.#.\n..#\n", []Picture{{Title: "map", Grid: []string{".#.", "..#"}}}},
		"an array":          {"n: int 1..9\na: int[n] -9..9", "3\n1 -2 3\n", []Picture{{Title: "a", Bars: []float64{1, -2, 3}}}},
		"a permutation":     {"n: int 1..9\nq: perm(n)", "4\n2 1 3 4\n", []Picture{{Title: "q", Cycles: [][]int64{{1, 2}, {3}, {4}}}}},
		"intervals":         {"k: int 1..9\nrepeat k {\nl: int 0..99, r: int l..99\n}", "2\n1 5\n2 2\n", []Picture{{Title: "rows", Spans: [][2]float64{{1, 5}, {2, 2}}}}},
		"points of a table": {"k: int 1..9\nrepeat k {\nx: int 0..99, y: int 0..99\n}", "2\n1 5\n2 0\n", []Picture{{Title: "rows", Points: &Points{At: [][2]float64{{1, 5}, {2, 0}}}}}},
		"a polygon":         {"n: int 3..9\np: int[n][2] 0..9 convex", "3\n0 0\n4 0\n0 4\n", []Picture{{Title: "p", Points: &Points{At: [][2]float64{{0, 0}, {4, 0}, {0, 4}}, Closed: true}}}},
		"a word":            {"s: token(1..9, \"a-z\")", "abcab\n", []Picture{{Title: "s", Word: &Word{Text: "abcab", Repeat: "ab", At: []int{0, 3}}}}},
		"single values":     {"n: int 1..9, m: int 1..9", "1 2\n", nil},
		"cases":             {"cases t: int 1..9 {\nn: int 1..9\na: int[n] 0..9\n}", "2\n2\n1 2\n2\n3 4\n", []Picture{{Title: "case 1, a", Bars: []float64{1, 2}}, {Title: "case 2, a", Bars: []float64{3, 4}}}},
	} {
		t.Run(name, func(t *testing.T) {
			got, left := read(t, row.form, row.text)
			assert.Equal(t, row.want, got)
			assert.Empty(t, left)
		})
	}
	var large strings.Builder
	fmt.Fprintln(&large, MostVertices+1)
	for i := 2; i <= MostVertices+1; i++ {
		fmt.Fprintln(&large, i-1, i)
	}
	got, left := read(t, "n: int 1..9999\ne: tree(n)", large.String())
	assert.Empty(t, got)
	assert.Equal(t, []string{"e: 2001 vertices are too many to be seen; at most 2000 are drawn"}, left)
}

func TestWithoutAShapeItIsGuessed(t *testing.T) {
	for name, row := range map[string]struct{ text, want string }{
		"a grid":                    {"3 4\n.#..\n....\n#..#\n", "lines 2 to 4 look like a grid"},
		"edges":                     {"4 3\n1 2\n2 3\n3 4\n", "lines 2 to 4 look like the edges of a graph"},
		"edges with weights":        {"3 2\n1 2 50\n2 3 70\n", "lines 2 to 3 look like the edges of a graph"},
		"a tree":                    {"3\n1 2\n1 3\n", "lines 2 to 3 look like the edges of a graph"},
		"edges from 0":              {"3 2\n0 1\n1 2\n", "lines 2 to 3 look like the edges of a graph"},
		"an array":                  {"5\n1 2 3 4 5\n", "line 2 looks like an array"},
		"a sentence":                {"hello there\n", ""},
		"numbers that are no edges": {"2 2\n100 200\n300 400\n", ""},
		"nothing":                   {"", ""},
		"one number":                {"7\n", ""},
	} {
		t.Run(name, func(t *testing.T) {
			list := Guess(row.text)
			if row.want == "" {
				assert.Empty(t, list)
				return
			}
			require.NotEmpty(t, list)
			assert.Equal(t, row.want, list[0].Title)
			assert.True(t, list[0].Guessed)
		})
	}
}

func FuzzAnyTextCanBeGuessedAt(f *testing.F) {
	for _, text := range []string{"3 4\n.#..\n....\n#..#\n", "4 3\n1 2\n2 3\n3 4\n", "5\n1 2 3\n", "\x00\n\xff 1 2", "2 1\n0 0\n"} {
		f.Add(text)
	}
	f.Fuzz(func(t *testing.T, text string) {
		for _, p := range Guess(text) {
			if p.Graph != nil && p.Graph.N <= 50 {
				for _, at := range Lay(p.Graph) {
					if math.IsNaN(at.X) || math.IsInf(at.X, 0) || math.IsNaN(at.Y) || math.IsInf(at.Y, 0) {
						t.Fatal("a vertex lies nowhere")
					}
				}
			}
		}
	})
}

// ring joins each vertex with the next, and with the one three further.
func ring(n int) *Graph {
	g := &Graph{From: 1, N: n}
	for i := range n {
		g.Edges = append(g.Edges, Edge{i, (i + 1) % n, ""}, Edge{i, (i + 3) % n, ""})
	}
	return g
}

func TestNoTwoVerticesLieOnEachOther(t *testing.T) {
	star := &Graph{N: 30}
	for i := 1; i < 30; i++ {
		star.Edges = append(star.Edges, Edge{0, i, ""}, Edge{i, max(1, i-1), ""})
	}
	complete := &Graph{N: 12}
	for i := range 12 {
		for j := range i {
			complete.Edges = append(complete.Edges, Edge{i, j, ""}, Edge{j, i, ""})
		}
	}
	parts := &Graph{N: 30}
	for i := 0; i+2 < 30; i += 3 {
		parts.Edges = append(parts.Edges, Edge{i, i + 1, ""}, Edge{i + 1, i + 2, ""}, Edge{i + 2, i, ""})
	}
	layered := &Graph{N: 20, Directed: true}
	for i := range 20 {
		for j := i + 1; j < min(20, i+4); j++ {
			layered.Edges = append(layered.Edges, Edge{i, j, ""})
		}
	}
	deep := &Graph{N: 30, Tree: true}
	for i := 1; i < 30; i++ {
		deep.Edges = append(deep.Edges, Edge{i / 3, i, ""})
	}
	for name, g := range map[string]*Graph{"a ring": ring(30), "a wheel": star, "all with all": complete, "triangles": parts, "layers": layered, "a tree": deep, "one vertex": {N: 1}, "no edge": {N: 9}, "a loop": {N: 2, Edges: []Edge{{0, 0, ""}, {0, 1, ""}}}} {
		t.Run(name, func(t *testing.T) {
			places := Lay(g)
			require.Len(t, places, g.N)
			for i := range places {
				for j := range i {
					assert.GreaterOrEqual(t, math.Hypot(places[i].X-places[j].X, places[i].Y-places[j].Y), 0.95, "%d and %d", i, j)
				}
			}
			assert.Equal(t, places, Lay(g), "the same graph lies the same")
		})
	}
}

func TestAnAnswerPointsAtAPicture(t *testing.T) {
	graph := &Picture{Graph: &Graph{From: 1, N: 4, Edges: []Edge{{0, 1, ""}, {1, 2, ""}}}}
	grid := &Picture{Grid: []string{"..", ".."}}
	bars := &Picture{Bars: []float64{1, 2, 3}}
	for name, row := range map[string]struct {
		way, answer string
		of          *Picture
		want        Marks
		words       string
	}{
		"a path":                   {AnswerPath, "1 2 3\n", graph, Marks{Vertices: map[int]bool{0: true, 1: true, 2: true}, Edges: map[[2]int]bool{{0, 1}: true, {1, 0}: true, {1, 2}: true, {2, 1}: true}}, ""},
		"a path behind its length": {AnswerPath, "3\n1 2 3\n", graph, Marks{Vertices: map[int]bool{0: true, 1: true, 2: true}, Edges: map[[2]int]bool{{0, 1}: true, {1, 0}: true, {1, 2}: true, {2, 1}: true}}, ""},
		"a path without an edge":   {AnswerPath, "1 4\n", graph, Marks{Vertices: map[int]bool{0: true, 3: true}, Edges: map[[2]int]bool{{0, 3}: true, {3, 0}: true}}, "no edge joins 1 and 4"},
		"a vertex that is not":     {AnswerVertices, "9\n", graph, Marks{}, "there is no vertex 9"},
		"vertices behind a count":  {AnswerVertices, "2\n1\n4\n", graph, Marks{Vertices: map[int]bool{0: true, 3: true}}, ""},
		"edges":                    {AnswerEdges, "1 2\n", graph, Marks{Vertices: map[int]bool{0: true, 1: true}, Edges: map[[2]int]bool{{0, 1}: true, {1, 0}: true}}, ""},
		"cells":                    {AnswerCells, "1 2\n2 2\n", grid, Marks{Cells: map[[2]int]bool{{0, 1}: true, {1, 1}: true}}, ""},
		"a cell outside":           {AnswerCells, "3 1\n", grid, Marks{}, "there is no cell 3 1"},
		"bars":                     {AnswerItems, "1 3\n", bars, Marks{Items: map[int]bool{0: true, 2: true}}, ""},
		"words":                    {AnswerItems, "YES\n2\n", bars, Marks{Items: map[int]bool{1: true}}, ""},
	} {
		t.Run(name, func(t *testing.T) {
			m, words := MarksOf(row.way, row.of, row.answer)
			require.NotNil(t, m)
			assert.Equal(t, row.words, words)
			assert.ElementsMatch(t, keys(row.want.Vertices), keys(m.Vertices))
			assert.ElementsMatch(t, keys(row.want.Edges), keys(m.Edges))
			assert.ElementsMatch(t, keys(row.want.Cells), keys(m.Cells))
			assert.ElementsMatch(t, keys(row.want.Items), keys(m.Items))
		})
	}
	m, _ := MarksOf(AnswerPath, grid, "1 2\n")
	assert.True(t, m.Empty(), "a path is none of a grid's")
	m, words := MarksFrom(graph, map[string][][]int64{"edges": {{1, 2}}, "vertices": {{3}}})
	assert.Empty(t, words)
	assert.ElementsMatch(t, []int{2}, keys(m.Vertices))
	assert.Len(t, m.Edges, 2)
}

func keys[K comparable](m map[K]bool) (list []K) {
	for k := range m {
		list = append(list, k)
	}
	return list
}

func TestOnlyWhatIsSmallIsDrawnUnasked(t *testing.T) {
	s, err := shape.Parse("n: int 1..99, m: int 0..99\ne: graph(n, m)")
	require.NoError(t, err)
	assert.Len(t, Small(s, []byte("3 2\n1 2\n2 3\n")), 1)
	assert.Empty(t, Small(s, []byte("50 0\n")))
	assert.Empty(t, Small(s, []byte("3 2\n1 2\n")), "what is not as the shape says is not drawn")
}

func TestWhatIsDrawnUnaskedIsSmallAndOpen(t *testing.T) {
	s, err := shape.Parse("n: int 1..99999, m: int 0..99999\ne: graph(n, m)")
	require.NoError(t, err)
	p := &problem.Problem{Shape: s}
	data := func(text string) problem.Data { return problem.Data{Text: []byte(text), Size: int64(len(text))} }
	triangle := data("3 3\n1 2\n2 3\n3 1\n")
	list := Beside(p, triangle)
	require.Len(t, list, 1)
	assert.Equal(t, 3, list[0].Graph.N)

	sealed := triangle
	sealed.Sealed = true
	assert.Empty(t, Beside(p, sealed), "a picture would show what is sealed")
	assert.Empty(t, Beside(&problem.Problem{}, triangle), "without a shape a picture would be a guess")
	assert.Empty(t, Beside(&problem.Problem{Shape: s, Call: &problem.Call{}}, triangle), "arguments are no text as the shape says")
	assert.Empty(t, Beside(p, data("3 3\n1 2\n")), "an input that is not as the shape says")
	assert.Empty(t, Beside(p, data("13 3\n1 2\n2 3\n3 1\n")), "more vertices than can be seen at a glance")
	long := "3 2000\n" + strings.Repeat("1 2\n", 2000)
	assert.Empty(t, Beside(p, data(long)))
}

func TestABroadTreeIsLaidAroundItsRoot(t *testing.T) {
	g := &Graph{N: 121, Tree: true} // four children below each, three deep, and a fourth row below half of them
	for v := 1; v < g.N; v++ {
		g.Edges = append(g.Edges, Edge{A: (v - 1) / 5, B: v})
	}
	places := Lay(g)
	low, high := Bounds(places)
	wide, tall := high.X-low.X, high.Y-low.Y
	assert.InDelta(t, 1, wide/tall, 0.2, "as wide as high")
	assert.Less(t, wide, 50.0, "layers would be 96 wide")
	for a := range places {
		for b := range a {
			assert.GreaterOrEqual(t, math.Hypot(places[a].X-places[b].X, places[a].Y-places[b].Y), 1.0, "%d and %d", a, b)
		}
	}
	heavy := &Graph{N: 50, Tree: true, Edges: []Edge{{A: 0, B: 1}}} // all leaves are below one child
	for v := 2; v < heavy.N; v++ {
		heavy.Edges = append(heavy.Edges, Edge{A: 1, B: v})
	}
	_, high = Bounds(Lay(heavy))
	assert.Less(t, high.Y, 5.0, "it stays in layers")
}
