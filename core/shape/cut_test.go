package shape

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// TestWhatACountCountsIsCutWithIt takes things out of inputs by lowering one count,
// and looks at what becomes of all that hangs on it.
func TestWhatACountCountsIsCutWithIt(t *testing.T) {
	for _, tt := range []struct {
		name, shape, input string
		count              string
		i, j               int
		how                cut
		want               string // empty: it cannot be cut so
	}{
		{"elements", "n: int 1..9\nw: int[n]", "4\n5 6 7 8\n", "n", 1, 3, cut{}, "2\n5 8\n"},
		{"the first", "n: int 1..9\nw: int[n]", "4\n5 6 7 8\n", "n", 0, 1, cut{}, "3\n6 7 8\n"},
		{"of several arrays alike", "n: int 1..9\nw: int[n]\nv: token(1, \"ab\")[n]", "3\n5 6 7\na b a\n", "n", 1, 2, cut{}, "2\n5 7\na a\n"},
		{"one less than the count", "n: int 2..9\nw: int[n-1]", "4\n5 6 7\n", "n", 3, 4, cut{}, "3\n5 6\n"},
		{"two for each", "n: int 1..9\nw: int[2*n]", "3\n1 2 3 4 5 6\n", "n", 1, 2, cut{}, "2\n1 2 5 6\n"},
		{"rows", "r: int 1..9, c: int 1..9\nw: int[r][c]", "3 2\n1 2\n3 4\n5 6\n", "r", 1, 2, cut{}, "2 2\n1 2\n5 6\n"},
		{"columns", "r: int 1..9, c: int 1..9\nw: int[r][c]", "2 3\n1 2 3\n4 5 6\n", "c", 0, 1, cut{}, "2 2\n2 3\n5 6\n"},
		{"rows of a map", "r: int 1..9, c: int 1..9\nm: grid(r, c, \"#.\")", "3 2\n##\n#.\n..\n", "r", 0, 1, cut{}, "2 2\n#.\n..\n"},
		{"columns of a map", "r: int 1..9, c: int 1..9\nm: grid(r, c, \"#.\")", "2 3\n##.\n#..\n", "c", 1, 2, cut{}, "2 2\n#.\n#.\n"},
		{"characters", "n: int 1..9\ns: token(n, \"a-z\")", "4\nabcd\n", "n", 1, 3, cut{}, "2\nad\n"},
		{"characters past ASCII", "n: int 1..9\ns: token(n, \"é❄a\")", "3\né❄a\n", "n", 0, 1, cut{}, "2\n❄a\n"},
		{"a permutation", "n: int 1..9\np: perm(n)", "4\n3 1 4 2\n", "n", 0, 1, cut{}, "3\n1 3 2\n"},
		{"a permutation from 0", "n: int 1..9\np: perm(n, from 0)", "3\n2 0 1\n", "n", 1, 2, cut{}, "2\n1 0\n"},
		{"bodies", "n: int 1..9\nrepeat n { a: int, b: int }", "3\n1 2\n3 4\n5 6\n", "n", 1, 2, cut{}, "2\n1 2\n5 6\n"},
		{"edges", "n: int 1..9, m: int 0..9\ng: graph(n, m) with (w: int)", "3 3\n1 2 7\n2 3 8\n1 3 9\n", "m", 1, 2, cut{}, "3 2\n1 2 7\n1 3 9\n"},
		{"vertices with their edges", "n: int 1..9, m: int 0..9\ng: graph(n, m) with (w: int)", "3 3\n1 2 7\n2 3 8\n1 3 9\n", "n", 1, 2, cut{}, "2 1\n1 2 9\n"},
		{"vertices, contracted", "n: int 1..9, m: int 0..9\ng: graph(n, m)", "4 3\n1 2\n2 3\n3 4\n", "n", 1, 3, cut{contract: true}, "2 1\n1 2\n"},
		{"vertices of a triangle, contracted", "n: int 1..9, m: int 0..9\ng: graph(n, m)", "3 3\n1 2\n2 3\n1 3\n", "n", 1, 2, cut{contract: true}, "2 1\n1 2\n"},
		{"a tree", "n: int 1..9\nt: tree(n) with (w: int)", "4\n1 2 5\n2 3 6\n2 4 7\n", "n", 1, 2, cut{}, "3\n1 2 6\n1 3 7\n"},
		{"a leaf of a tree", "n: int 1..9\nt: tree(n)", "4\n1 2\n2 3\n2 4\n", "n", 3, 4, cut{}, "3\n1 2\n2 3\n"},
		{"parents", "n: int 1..9\np: parents(n)", "4\n1 2 3\n", "n", 1, 2, cut{}, "3\n1 2\n"},
		{"parents without the root", "n: int 1..9\np: parents(n)", "4\n1 2 3\n", "n", 0, 1, cut{}, "3\n1 2\n"},
		{"labels follow", "n: int 1..9, q: int 1..9\nw: int[n]\nrepeat q { v: int 1..n }", "3 3\n5 6 7\n1\n2\n3\n", "n", 0, 1, cut{}, "2 3\n6 7\n1\n1\n2\n"},
		{"labels from 0 follow", "n: int 1..9\nw: int[n]\nv: int 0..n-1", "3\n5 6 7\n2\n", "n", 1, 2, cut{}, "2\n5 7\n1\n"},
		{"values past a bound are pulled in", "n: int 1..9, k: int 0..n\nw: int[n]", "3 3\n5 6 7\n", "n", 0, 2, cut{}, "1 1\n7\n"},
		{"sorted ones stay so", "n: int 1..9\nw: int[n] n..9 sorted", "3\n5 6 7\n", "n", 1, 2, cut{}, "2\n5 7\n"},
		{"raised", "n: int 1..9\nw: int[n] 1..99", "3\n5 6 7\n", "n", 1, 2, cut{raise: true}, "2\n99 99\n"},
		{"in cases", "cases t: int 1..9 { n: int 1..9\n w: int[n] }", "2\n2\n5 6\n1\n7\n", "t", 0, 1, cut{}, "2\n2\n5 6\n1\n7\n"},
		{"what would have to grow", "n: int 1..9\nw: int[9-n]", "5\n1 2 3 4\n", "n", 0, 1, cut{}, ""},
		{"a length below 0", "n: int 0..9\nw: int[n-3]", "3\n\n", "n", 0, 1, cut{}, ""},
	} {
		t.Run(tt.name, func(t *testing.T) {
			s := parsed(t, tt.shape)
			in, fault, err := s.Read(strings.NewReader(tt.input), Options{})
			require.NoError(t, err)
			require.Nil(t, fault, "%v", fault)
			var field *fieldNode
			for _, f := range s.top.fields {
				if f.Name == tt.count {
					field = f
				}
			}
			require.NotNil(t, field)
			top := in.top.clone(nil)
			k := &shrinker{shape: s, best: in.top}
			ok := k.change(top, func(top *frame) bool {
				if tt.count == "t" { // cases are bodies, which no length counts
					return (&cut{}).items(s.Items, in.top, top)
				}
				top.data[field.slot].ints[0] -= int64(tt.j - tt.i)
				return (&cut{tt.i, tt.j, tt.how.contract, tt.how.raise}).items(s.Items, in.top, top)
			})
			if tt.want == "" {
				assert.False(t, ok)
				return
			}
			require.True(t, ok)
			assert.Equal(t, tt.want, string((&Input{s, top}).Append(nil)))
			assert.Equal(t, tt.input, string(in.Append(nil)), "what is cut is a copy")
		})
	}
}
