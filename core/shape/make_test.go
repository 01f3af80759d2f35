package shape

import (
	"bytes"
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// madeShapes are shapes that together have all constructs, small enough that all
// sizes of them are made in no time.
var madeShapes = map[string]string{
	"integers":      "n: int 1..2000, cap: int 1..1e9\nw: int[n] 1..cap",
	"words":         "cases t: int 1..100 {\n  n: int 1..2000, k: int 0..n\n  s: word(n, \"a-z\")\n  require k != 1\n  total n <= 2000\n}",
	"queries":       "n: int 1..1000, m: int n-1..2000\ng: graph(n, m) connected with (length: int 1..1e6)\nq: int 1..1000\nrepeat q {\n  either { \"near\", v: int 1..n }\n  or     { \"path\", u: int 1..n, v: int 1..n; require u != v }\n}",
	"mixed":         mixed,
	"64 bits":       "a: int, b: int -9223372036854775807-1..2^62-1+2^62\nw: int[3]",
	"sorted":        "n: int 0..500\nw: int[n] -5..5 sorted\nx: real[n] -1..1 places 3 sorted\ns: word(1..3, \"ab\")[n] sorted",
	"rising":        "n: int 1..50\nw: int[n] 1..60 rising\nv: int[n] -1e18..1e18 falling\nu: int[n] down 1..50 distinct",
	"distinct":      "n: int 1..40\ns: word(1..5, \"ab\")[n] distinct\np: pick(1, 2, 3, \"x\")[3] distinct\nx: real[n] 0..1 places 2 distinct",
	"rows":          "r: int 0..20, c: int 0..20\nrequire r > 0 or c = 0\nw: int[r][c] 0..9\nm: word(2, \"xy\")[r][c]",
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
	"to the end":    "repeat 0..50 { a: int 1..9, s: word(0..4, \"ab\") }",
	"until":         "repeat 1..30 until \"0 0\" { a: int 0..1, b: int 0..1 }",
	"pairs":         "n: int 1..20\nrepeat n distinct { a: int 1..5, b: int 1..5 }",
	"text":          "t: text(0..30, \"a-c ,\")\nblank\nu: text(5, \" \")\nz: word(3, \"éß❄\")",
	"free":          "w: int[0..30] -3..3\n\"end\", k: int 1..3\nv: int[k] down 0..1",
	"nested":        "cases t: int 1..20 {\n  cases u: int 1..20 {\n    n: int 1..50\n    w: int[n] 1..9\n    total n <= 60\n  }\n  total u <= 50\n}",
	"two totals":    "cases t: int 1..1000 {\n  n: int 1..1e5, m: int 0..1e5\n  w: int[n] 1..9\n  v: int[m] 1..9\n  total n <= 2000\n  total m <= 3000\n}",
	"product":       "cases t: int 1..50 {\n  r: int 1..1000, c: int 1..1000\n  g: grid(r, c, \".#\")\n  total r*c <= 3000\n}",
	"lengths":       "cases t: int 1..50 {\n  s: word(1..1000, \"01\")\n  total len(s) <= 1500\n}",
	"sums":          "n: int 2..30\nw: int[n] 1..9\nrequire w[0] <= w[n-1] and sum(w) % 2 = 0",
	"equation":      "a: int 0..1e9, b: int 0..1e9\nrequire a + b = 1e9\nc: int 1..1e6\nrequire c*c = 998001",
	"bounds":        "a: int 1..1e9, b: int a..1e9, c: int max(a, b)..2e9\nrequire b - a <= 5",
	"branches":      "q: int 1..50\nrepeat q {\n  either { \"add\", x: int 1..9 }\n  or { k: int 1..3, v: int 1..3, w: word(3, \"ad\") }\n  or { s: word(1..4, \"ad\") }\n}",
	"no way":        "n: int 1..3\nrepeat 5 {\n  either { \"path\", u: int 1..n, v: int 1..n; require u != v }\n  or { \"near\", v: int 1..n }\n}",
	"reals":         "a: real 0.5..1.5, b: real -0.25..0.25 places 2, c: real 0..1e9, d: real\nn: int 1..3\nx: real[5] 0.5-n..1/4 places 17",
	"decimals":      "x: real[4] 0..1 places 0",
}

// TestEveryMadeInputIsValid makes inputs of all sizes and styles, and holds each
// against its shape, writes it back from its values, and makes it a second time.
func TestEveryMadeInputIsValid(t *testing.T) {
	for name, text := range madeShapes {
		t.Run(name, func(t *testing.T) {
			t.Parallel()
			s := parsed(t, text)
			for _, size := range []string{"0", "0.1", "0.3", "0.5", "0.8", "1"} {
				for seed := range Seed(12) {
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
