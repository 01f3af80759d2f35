package intake

import (
	"fmt"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func files(paths ...string) (all []File) {
	for _, p := range paths {
		all = append(all, File{Path: p, Size: 1})
	}
	return all
}

func TestInputsAndOutputsFindEachOther(t *testing.T) {
	tests := []struct {
		name  string
		files []string
		want  []string // group/name: input output
		left  []string
	}{
		{"extensions", []string{"10.in", "2.out", "10.ans", "2.in"}, []string{"/2: 2.in 2.out", "/10: 10.in 10.ans"}, nil},
		{"prefixes", []string{"input01.txt", "output01.txt"}, []string{"/01: input01.txt output01.txt"}, nil},
		{"words within", []string{"ice-in-3.dat", "ice-out-3.dat"}, []string{"/ice-3: ice-in-3.dat ice-out-3.dat"}, nil},
		{"two folders", []string{"data/in/a.txt", "data/out/a.txt", "data/in/b.txt"}, []string{"/a: data/in/a.txt data/out/a.txt"}, []string{"data/in/b.txt: an input without an output"}},
		{"two folders and extensions", []string{"in/1.in", "out/1.out"}, []string{"/1: in/1.in out/1.out"}, nil},
		{"folders named otherwise", []string{"Input/1", "Answer/1"}, []string{"/1: Input/1 Answer/1"}, nil},
		{"groups in subfolders", []string{"full load/1.in", "full load/1.out", "small/1.in", "small/1.out"}, []string{"full-load/1: full load/1.in full load/1.out", "small/1: small/1.in small/1.out"}, nil},
		{"groups below two folders", []string{"in/small/1.txt", "out/small/1.txt", "in/full/1.txt", "out/full/1.txt"}, []string{"full/1: in/full/1.txt out/full/1.txt", "small/1: in/small/1.txt out/small/1.txt"}, nil},
		{"a word that belongs to the folder", []string{"check-in/1.in", "check-in/1.out"}, []string{"/1: check-in/1.in check-in/1.out"}, nil},
		{"no whole words", []string{"begin1", "about1", "pinout.txt"}, nil, []string{"about1: neither an input nor an output by its name", "begin1: neither an input nor an output by its name", "pinout.txt: neither an input nor an output by its name"}},
		{"nothing but the words", []string{"in.txt", "out.txt"}, []string{"/1: in.txt out.txt"}, nil},
		{"two outputs to choose from", []string{"1.in", "1.out", "1.ans"}, nil, []string{"1.ans: 1.in could belong to several", "1.in: could belong to 1.ans and to 1.out", "1.out: 1.in could belong to several"}},
		{"an output alone", []string{"1.expected"}, nil, []string{"1.expected: an output without an input"}},
		{"two that would be one case", []string{"a/1.in", "a/1.out", "A/1.in", "A/1.out"}, []string{"a/1: a/1.in a/1.out"}, []string{"A/1.in: would be the case a/1, as a/1.in is", "A/1.out: would be the case a/1, as a/1.in is"}},
	}
	for _, tt := range tests {
		t.Run(tt.name, func(t *testing.T) {
			p := PairUp(files(tt.files...), Patterns{})
			var got, left []string
			for _, pair := range p.Pairs {
				got = append(got, fmt.Sprintf("%s/%s: %s %s", pair.Group, pair.Name, pair.Input, pair.Output))
			}
			for _, l := range p.Left {
				left = append(left, l.Path+": "+l.Why)
			}
			assert.Equal(t, tt.want, got)
			assert.Equal(t, tt.left, left)
		})
	}
}

func TestTheOrderOfFilesDoesNotMatter(t *testing.T) {
	var paths []string
	for i := range 300 {
		paths = append(paths, fmt.Sprintf("set%d/case %d.in", i%7, i), fmt.Sprintf("set%d/case %d.out", i%7, i))
	}
	want := PairUp(files(paths...), Patterns{})
	require.Len(t, want.Pairs, 300)
	require.Empty(t, want.Left)
	random := rand.New(rand.NewPCG(1, 2))
	for range 5 {
		random.Shuffle(len(paths), func(i, j int) { paths[i], paths[j] = paths[j], paths[i] })
		require.Equal(t, want, PairUp(files(paths...), Patterns{}))
	}
}

func FuzzEveryFileIsPairedOnceOrLeftOver(f *testing.F) {
	f.Add("in/1", "out/1", "in-out.in", "x.ans.out")
	f.Fuzz(func(t *testing.T, a, b, c, d string) {
		seen := map[string]bool{}
		var all []File
		for _, name := range []string{a, b, c, d} {
			if !seen[name] {
				seen[name] = true
				all = append(all, File{Path: name})
			}
		}
		p := PairUp(all, Patterns{})
		count := map[string]int{}
		for _, pair := range p.Pairs {
			count[pair.Input]++
			count[pair.Output]++
			require.NotEmpty(t, pair.Name)
		}
		for _, l := range p.Left {
			count[l.Path]++
			require.NotEmpty(t, l.Why)
		}
		for _, one := range all {
			require.Equal(t, 1, count[one.Path], one.Path)
		}
	})
}

func TestFilesPairAsPatternsSay(t *testing.T) {
	for _, tt := range []struct {
		name  string
		files []string
		by    Patterns
		want  []string
		left  []string
	}{
		{"names in another language", []string{"eingabe1.txt", "ausgabe1.txt", "eingabe2.txt", "readme.txt"}, Patterns{Inputs: "eingabe*.txt", Outputs: "ausgabe*.txt"}, []string{"/1: eingabe1.txt ausgabe1.txt"}, []string{"eingabe2.txt: an input without an output", "readme.txt: neither an input nor an output by its name"}},
		{"in folders", []string{"a/test1", "a/test1.a", "b/test1", "b/test1.a"}, Patterns{Inputs: "test?", Outputs: "test?.a"}, []string{"a/1: a/test1 a/test1.a", "b/1: b/test1 b/test1.a"}, nil},
		{"with folders in the pattern", []string{"q/1.txt", "r/1.txt", "s/1.txt"}, Patterns{Inputs: "q/*.txt", Outputs: "r/*.txt"}, []string{"/1: q/1.txt r/1.txt"}, []string{"s/1.txt: neither an input nor an output by its name"}},
		{"two marks", []string{"in-a-1.x", "res-a-1.x"}, Patterns{Inputs: "in-*-*.x", Outputs: "res-*-*.x"}, []string{"/a-1: in-a-1.x res-a-1.x"}, nil},
		{"inputs alone", []string{"1.in", "2.in", "2.out"}, Patterns{Alone: true}, []string{"/1: 1.in ", "/2: 2.in 2.out"}, nil},
		{"inputs alone by a pattern", []string{"lage1", "lage2"}, Patterns{Inputs: "lage*", Alone: true}, []string{"/1: lage1 ", "/2: lage2 "}, nil},
		{"answers called .a and .sol", []string{"01", "01.a", "2.in", "2.sol", "notes"}, Patterns{}, []string{"/01: 01 01.a", "/2: 2.in 2.sol"}, []string{"notes: neither an input nor an output by its name"}},
	} {
		t.Run(tt.name, func(t *testing.T) {
			p := PairUp(files(tt.files...), tt.by)
			var got, left []string
			for _, pair := range p.Pairs {
				got = append(got, fmt.Sprintf("%s/%s: %s %s", pair.Group, pair.Name, pair.Input, pair.Output))
			}
			for _, l := range p.Left {
				left = append(left, l.Path+": "+l.Why)
			}
			assert.Equal(t, tt.want, got)
			assert.Equal(t, tt.left, left)
		})
	}
}
