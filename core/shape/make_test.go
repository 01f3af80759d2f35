package shape

import (
	"bytes"
	"crypto/sha256"
	"flag"
	"fmt"
	"maps"
	"math"
	"os"
	"slices"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// madeShapes are shapes that together have all constructs, small enough that all
// sizes of them are made in no time.
var madeShapes = map[string]string{
	"integers":      "n: int 1..2000, cap: int 1..1e9\nw: int[n] 1..cap",
	"words":         "cases t: int 1..100 {\n  n: int 1..2000, k: int 0..n\n  s: token(n, \"a-z\")\n  require k != 1\n  total n <= 2000\n}",
	"queries":       "n: int 1..1000, m: int n-1..2000\ng: graph(n, m) connected with (length: int 1..1e6)\nq: int 1..1000\nrepeat q {\n  either { \"near\", v: int 1..n }\n  or     { \"path\", u: int 1..n, v: int 1..n; require u != v }\n}",
	"mixed":         mixed,
	"64 bits":       "a: int, b: int -9223372036854775807-1..2^62-1+2^62\nw: int[3]",
	"sorted":        "n: int 0..500\nw: int[n] -5..5 sorted\nx: real[n] -1..1 places 3 sorted\ns: token(1..3, \"ab\")[n] sorted",
	"rising":        "n: int 1..50\nw: int[n] 1..60 rising\nv: int[n] -1e18..1e18 falling\nu: int[n] down 1..50 distinct",
	"distinct":      "n: int 1..40\ns: token(1..5, \"ab\")[n] distinct\np: pick(1, 2, 3, \"x\")[3] distinct\nx: real[n] 0..1 places 2 distinct",
	"rows":          "r: int 0..20, c: int 0..20\nrequire r > 0 or c = 0\nw: int[r][c] 0..9\nm: token(2, \"xy\")[r][c]",
	"permutations":  "n: int 0..300\np: perm(n), q: perm(n, from 0)",
	"trees":         "n: int 1..300\nt: tree(n) with (w: int 1..9, c: pick(\"a\", \"b\"))\np: parents(n)\nz: tree(n) from 0",
	"simple":        "n: int 0..40, m: int 0..780\ng: graph(n, m)",
	"directed":      "n: int 1..40, m: int 0..1500\ng: graph(n, m) directed from 0",
	"acyclic":       "n: int 1..40, m: int 0..39\ng: graph(n, m) acyclic",
	"order":         "n: int 1..40, m: int 0..700\ng: graph(n, m) directed acyclic",
	"two sides":     "n: int 1..40, m: int 0..400\ng: graph(n, m) bipartite",
	"joined sides":  "n: int 1..40, m: int n-1..400\ng: graph(n, m) bipartite connected",
	"both ways":     "n: int 1..40, m: int 0..800\ng: graph(n, m) bipartite directed",
	"anything":      "n: int 1..40, m: int 0..2000\ng: graph(n, m) loops parallel",
	"loops":         "n: int 1..40, m: int 0..800\ng: graph(n, m) loops",
	"loops one way": "n: int 1..40, m: int 0..1600\ng: graph(n, m) loops directed",
	"multigraph":    "n: int 2..40, m: int n-1..900\ng: graph(n, m) connected parallel",
	"edges first":   "m: int 1..300, n: int 1..300\ng: graph(n, m) connected",
	"fixed":         "n: int 2..50\ng: graph(n, n-1) connected\nh: graph(n, 1)",
	"to the end":    "repeat 0..50 { a: int 1..9, s: token(0..4, \"ab\") }",
	"until":         "repeat 1..30 until \"0 0\" { a: int 0..1, b: int 0..1 }",
	"pairs":         "n: int 1..20\nrepeat n distinct { a: int 1..5, b: int 1..5 }",
	"text":          "t: text(0..30, \"a-c ,\")\nblank\nu: text(5, \" \")\nz: token(3, \"éß❄\")",
	"free":          "w: int[0..30] -3..3\n\"end\", k: int 1..3\nv: int[k] down 0..1",
	"nested":        "cases t: int 1..20 {\n  cases u: int 1..20 {\n    n: int 1..50\n    w: int[n] 1..9\n    total n <= 60\n  }\n  total u <= 50\n}",
	"two totals":    "cases t: int 1..1000 {\n  n: int 1..1e5, m: int 0..1e5\n  w: int[n] 1..9\n  v: int[m] 1..9\n  total n <= 2000\n  total m <= 3000\n}",
	"product":       "cases t: int 1..50 {\n  r: int 1..1000, c: int 1..1000\n  g: grid(r, c, \".#\")\n  total r*c <= 3000\n}",
	"numbers":       "cases t: int 5..5 {\n  n: int 3..9\n  total n <= 20\n}",
	"sums of all":   "cases t: int 1..9 {\n  w: int[3] 2..1e9\n  total sum(w) <= 60\n}",
	"lengths":       "cases t: int 1..50 {\n  s: token(1..1000, \"01\")\n  total len(s) <= 1500\n}",
	"sums":          "n: int 2..30\nw: int[n] 1..9\nrequire w[0] <= w[n-1] and sum(w) % 2 = 0",
	"equation":      "a: int 0..1e9, b: int 0..1e9\nrequire a + b = 1e9\nc: int 1..1e6\nrequire c*c = 998001",
	"bounds":        "a: int 1..1e9, b: int a..1e9, c: int max(a, b)..2e9\nrequire b - a <= 5",
	"branches":      "q: int 1..50\nrepeat q {\n  either { \"add\", x: int 1..9 }\n  or { k: int 1..3, v: int 1..3, w: token(3, \"ad\") }\n  or { s: token(1..4, \"ad\") }\n}",
	"no way":        "n: int 1..3\nrepeat 5 {\n  either { \"path\", u: int 1..n, v: int 1..n; require u != v }\n  or { \"near\", v: int 1..n }\n}",
	"reals":         "a: real 0.5..1.5, b: real -0.25..0.25 places 2, c: real 0..1e9, d: real\nn: int 1..3\nx: real[5] 0.5-n..1/4 places 17",
	"decimals":      "x: real[4] 0..1 places 0",
}

// TestEveryMadeInputIsValid generates inputs of all sizes and styles, and checks each
// against its shape, writes it back from its values, and makes it a second time.
func TestEveryMadeInputIsValid(t *testing.T) {
	for name, text := range madeShapes {
		t.Run(name, func(t *testing.T) {
			t.Parallel()
			s := parsed(t, text)
			for _, size := range []string{"0", "0.1", "0.3", "0.5", "0.8", "1"} {
				for seed := range seeds(12) {
					size, err := ParseSize(size)
					require.NoError(t, err)
					madeValid(t, s, Making{Seed: seed, Size: size})
				}
			}
			for _, style := range s.Styles() {
				madeValid(t, s, Making{Seed: 7, Size: Largest / 2, Style: style, Exact: true})
			}
		})
	}
}

// seeds are fewer where only races are looked for, of which there are none in what
// one goroutine computes.
func seeds(n Seed) Seed {
	if testing.Short() {
		return n / 6
	}
	return n
}

func madeValid(t *testing.T, s *Shape, o Making) []byte {
	t.Helper()
	what := fmt.Sprintf("seed %s, size %s, style %s", o.Seed, o.Size, o.Style)
	in, err := s.Make(o)
	require.NoError(t, err, what)
	made := in.Append(nil)
	read, fault, err := s.Read(bytes.NewReader(made), Options{})
	require.NoError(t, err)
	require.Nil(t, fault, "%s: %v\n%.2000s", what, fault, made)
	require.Equal(t, string(made), string(read.Append(nil)), what)
	again, err := s.Make(o)
	require.NoError(t, err)
	require.True(t, bytes.Equal(made, again.Append(nil)), what)
	return made
}

func TestSizesAreBounded(t *testing.T) {
	s := parsed(t, "n: int 3..1e6\nw: int[n] 1..9")
	for size, want := range map[string]int64{"0": 3, "0.5": 1002, "1": 1_000_000} {
		size, err := ParseSize(size)
		require.NoError(t, err)
		in, err := s.Make(Making{Size: size, Exact: true})
		require.NoError(t, err)
		n, ok := in.Count("n")
		assert.True(t, ok)
		assert.InDelta(t, want, n, 5)
		assert.Equal(t, size, mustSize(t, size.String()))
	}
	for _, bad := range []string{"", "-1", "1.5", "2", "x", "0.x", "1e-3"} {
		_, err := ParseSize(bad)
		assert.ErrorContains(t, err, "0 to 1", bad)
	}
}

func mustSize(t *testing.T, text string) Size {
	s, err := ParseSize(text)
	require.NoError(t, err)
	return s
}

var update = flag.Bool("update", false, "write the golden files anew")

// TestTheSameSeedMakesTheSameInputForEver compares what is generated with what an earlier
// version made. Where it differs on purpose, MakerVersion must change.
func TestTheSameSeedMakesTheSameInputForEver(t *testing.T) {
	var made strings.Builder
	for _, name := range slices.Sorted(maps.Keys(madeShapes)) {
		s := parsed(t, madeShapes[name])
		for seed := range Seed(4) {
			in, err := s.Make(Making{Seed: seed, Size: Largest / 2})
			require.NoError(t, err)
			fmt.Fprintf(&made, "%s, seed %s: %.8x\n", name, seed, sha256.Sum256(in.Append(nil)))
		}
		for _, style := range s.Styles() {
			in, err := s.Make(Making{Seed: 1, Size: Largest / 3, Style: style})
			require.NoError(t, err)
			fmt.Fprintf(&made, "%s, %s: %.8x\n", name, style, sha256.Sum256(in.Append(nil)))
		}
	}
	const golden = "testdata/made.txt"
	if *update {
		require.NoError(t, os.WriteFile(golden, []byte(made.String()), 0o644))
	}
	want, err := os.ReadFile(golden)
	require.NoError(t, err)
	assert.Equal(t, string(want), made.String())
}

// TestWhatIsSaidToBeUniformIs draws small things so often that each should come
// 1,000 times. The bound is that of a chi-squared test that fails once in a million
// times; the seed is fixed.
func TestWhatIsSaidToBeUniformIs(t *testing.T) {
	for _, tt := range []struct {
		name, shape string
		style       string
		sorted      bool // the order of lines and of the two on them does not count
		kinds       int
	}{
		{"trees", "t: tree(4)", "uniform", true, 16},
		{"permutations", "p: perm(4)", "random", false, 24},
		{"simple graphs", "g: graph(4, 3)", "random", true, 20},
		{"simple graphs that are sparse", "g: graph(7, 2)", "random", true, 210},
		{"directed graphs", "g: graph(3, 2) directed", "random", false, 30},
		{"forests by their edges", "g: graph(3, 1) acyclic", "random", true, 3},
		{"integers", "w: int[2] 1..5", "random", false, 25},
		{"words", "s: token(3, \"abc\")", "random", false, 27},
	} {
		t.Run(tt.name, func(t *testing.T) {
			t.Parallel()
			s := parsed(t, tt.shape)
			counts := map[string]int{}
			if testing.Short() {
				t.Skip("one goroutine draws here; nothing is to be found by the race detector")
			}
			for seed := range Seed(1000 * tt.kinds) {
				in, err := s.Make(Making{Seed: seed, Style: tt.style})
				require.NoError(t, err)
				text := string(in.Append(nil))
				if tt.sorted {
					text = inOrder(text)
				}
				counts[text]++
			}
			require.Len(t, counts, tt.kinds)
			chi := 0.0
			for _, n := range counts {
				chi += float64(n-1000) * float64(n-1000) / 1000
			}
			free := float64(tt.kinds - 1)
			assert.Less(t, chi, free+5*1.4142*math.Sqrt(free)+14)
		})
	}
}

// inOrder brings lines, and the words on each, into order.
func inOrder(text string) string {
	lines := strings.Split(strings.TrimSpace(text), "\n")
	for i, line := range lines {
		words := strings.Fields(line)
		slices.Sort(words)
		lines[i] = strings.Join(words, " ")
	}
	slices.Sort(lines)
	return strings.Join(lines, "\n")
}

func TestDistinctNumbersAreUniform(t *testing.T) {
	r := newRandom(5)
	for _, n := range []uint64{5, 9} { // a permutation's start, and drawing again
		counts := map[[2]uint64]int{}
		for range 1000 * int(n*(n-1)) {
			x := r.sample(2, n)
			counts[[2]uint64{x[0], x[1]}]++
		}
		assert.Len(t, counts, int(n*(n-1)))
		for pair, count := range counts {
			assert.InDelta(t, 1000, count, 180, pair)
		}
	}
	assert.Len(t, r.sample(1000, 1<<63), 1000)
	all := r.sample(100, 100)
	slices.Sort(all)
	assert.EqualValues(t, 99, all[99])
}

func TestWhatCannotBeMadeIsSaid(t *testing.T) {
	for _, tt := range []struct{ name, shape, says string }{
		{"a contradiction", "n: int 1..9\nrequire n > 9", "2:1: require n > 9 cannot be met: with n from 1..9"},
		{"a contradiction of two", "a: int 1..5, b: int 6..9\nrequire a > b", "require a > b"},
		{"hardly ever", "w: int[20] 0..9\nrequire sum(w) = 0 and w[0] = w[1] and w[2] < 0", "2:1: require sum(w) = 0 and w[0] = w[1] and w[2] < 0 was met by none of"},
		{"a range that is empty", "a: int 5..9, b: int a..4", "a..4 is a range cannot be met"},
		{"too few for distinct", "n: int 10..20\nw: int[n] 1..5 distinct", "enough distinct integers"},
		{"too few words", "n: int 10..20\nw: token(2, \"ab\")[n] distinct", "enough distinct words"},
		{"a sum past its bound", "cases t: int 5..9 {\n n: int 3..9\n w: int[n] 1..2\n total n <= 10\n}", "total n <= 10 cannot be met: the smallest case adds 3, there are 5 cases at the least, and the bound is 10"},
		{"a sum of single numbers", "cases t: int 5..5 {\n n: int 3..9\n total n <= 10\n}", "the smallest case adds 3, there are 5 cases at the least, and the bound is 10"},
		{"no room for edges", "n: int 1..3, m: int 4..9\ng: graph(n, m)", "a graph that has room for its edges"},
		{"too large", "n: int 1e6..1e6\nw: int[n][n] 0..1", "more than 20 million values"},
		{"too many cases", "cases t: int 30e6..30e6 { n: int 1..2 }", "more than 20 million values"},
		{"pairs that run out", "repeat 5 distinct { a: int 1..2 }", "another body that differs from all before"},
		{"only the end", "repeat 1..2 until \"0\" { a: int 0..0 }", "a body that is not the line 0"},
		{"past 64 bits", "a: int 1..9e18\nrequire a * a > 0", ""},
		{"no length", "n: int 1..5\nw: token(n-9, \"a\")", "n - 9 >= 0 cannot be met"},
		{"no branch", "n: int 1..1\neither { \"a\", v: int 2..n } or { \"b\", v: int 3..n }", "cannot be met"},
	} {
		t.Run(tt.name, func(t *testing.T) {
			began := time.Now()
			in, err := parsed(t, tt.shape).Make(Making{Size: Largest})
			assert.Less(t, time.Since(began), 20*time.Second)
			if tt.says == "" {
				require.NoError(t, err)
				assert.NotEmpty(t, in.Append(nil))
				return
			}
			require.ErrorContains(t, err, tt.says)
		})
	}
	deep := strings.Repeat("cases t: int 1..2 {\n", 100) + "n: int 1..5\n" + strings.Repeat("}\n", 100)
	began := time.Now()
	for seed := range Seed(4) {
		if in, err := parsed(t, deep).Make(Making{Seed: seed, Size: Largest / 4 * Size(seed)}); err != nil {
			assert.ErrorContains(t, err, "more than 20 million values")
		} else {
			assert.NotEmpty(t, in.Append(nil))
		}
	}
	assert.Less(t, time.Since(began), time.Minute)
	_, err := parsed(t, "n: int 1..5").Make(Making{Style: "larges"})
	assert.ErrorContains(t, err, `did you mean "largest"?`)
}

func TestSeedsSayTheirMaker(t *testing.T) {
	for _, text := range []string{"42", "2:42"} {
		seed, err := ParseSeed(text)
		require.NoError(t, err)
		assert.Equal(t, "2:42", seed.String())
	}
	for text, says := range map[string]string{"x": "is no seed", "-1": "is no seed", "": "is no seed", "2:": "is no seed", "99:1": "the seed 99:1 is one of maker 99, and this program has maker 2"} {
		_, err := ParseSeed(text)
		assert.ErrorContains(t, err, says, text)
	}
}

// TestStylesAreWhatTheyAreCalled looks at what is made in some of them.
func TestStylesAreWhatTheyAreCalled(t *testing.T) {
	for _, tt := range []struct{ shape, style, want string }{
		{"w: int[5] 3..9", "all-least", "3 3 3 3 3\n"},
		{"w: int[5] 3..9", "all-largest", "9 9 9 9 9\n"},
		{"w: int[5] 1..5 distinct", "sorted", "1 2 3 4 5\n"},
		{"w: int[5] 1..5 distinct", "reversed", "5 4 3 2 1\n"},
		{"w: int[5] 1..5 distinct", "zigzag", "1 5 2 4 3\n"},
		{"p: perm(4)", "identity", "1 2 3 4\n"},
		{"p: perm(4, from 0)", "reversed", "3 2 1 0\n"},
		{"p: parents(6)", "path", "1 2 3 4 5\n"},
		{"p: parents(6)", "star", "1 1 1 1 1\n"},
		{"p: parents(7)", "binary", "1 1 2 2 3 3\n"},
		{"p: parents(7)", "root-in-the-middle", "1 1 2 3 4 5\n"},
		{"p: parents(7)", "broom", "1 2 3 4 4 4\n"},
		{"g: grid(5, 7, \"#.\")", "spiral", ""},
		{"s: token(6, \"ab\")", "palindrome", ""},
	} {
		in, err := parsed(t, tt.shape).Make(Making{Style: tt.style, Seed: 3})
		require.NoError(t, err)
		text := string(in.Append(nil))
		switch tt.style {
		case "spiral": // one way from a corner to the middle, of one symbol
			way := string(text[0])
			assert.Equal(t, strings.Repeat(way, 7), strings.Split(text, "\n")[0])
			assert.Equal(t, strings.Repeat(way, 7), strings.Split(text, "\n")[4])
			assert.Equal(t, strings.Repeat(way, 5)+"#.#."[strings.Index("#.", way)+1:][:1]+way, strings.Split(text, "\n")[2])
		case "palindrome":
			back := []byte(strings.TrimSpace(text))
			slices.Reverse(back)
			assert.Equal(t, strings.TrimSpace(text), string(back))
		default:
			assert.Equal(t, tt.want, text, "%s of %s", tt.style, tt.shape)
		}
	}
}

func FuzzWhateverIsMadeIsValid(f *testing.F) {
	for _, text := range madeShapes {
		f.Add(text, uint64(1))
	}
	f.Fuzz(func(t *testing.T, text string, seed uint64) {
		s, err := Parse(text)
		if err != nil {
			return
		}
		in, err := s.Make(Making{Seed: Seed(seed), Size: Size(seed % uint64(Largest/8))})
		if err != nil {
			assert.NotEmpty(t, err.Error())
			return
		}
		made := in.Append(nil)
		fault, err := s.Check(bytes.NewReader(made), Options{})
		require.NoError(t, err)
		require.Nil(t, fault, "%s\n%v\n%.500q", text, fault, made)
	})
}
