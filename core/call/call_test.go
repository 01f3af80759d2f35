package call

import (
	"os"
	"path/filepath"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"coldverdict/core/problem"
	"coldverdict/core/toolchain"
)

func TestANameHasASpellingInEveryLanguage(t *testing.T) {
	for name, want := range map[string]string{
		"longest_thaw": "longest_thaw longestThaw LongestThaw",
		"longestThaw":  "longestThaw longest_thaw LongestThaw",
		"LongestThaw":  "LongestThaw longest_thaw longestThaw",
		"thaw":         "thaw Thaw",
		"is_2d_grid":   "is_2d_grid is2dGrid Is2dGrid",
		"_":            "_",
	} {
		assert.Equal(t, want, strings.TrimRight(strings.Join(Spellings(name), " "), " "), name)
	}
}

func TestTheFunctionIsFoundInTheSource(t *testing.T) {
	for _, tt := range []struct{ name, source, path, params string }{
		{"free", "#include <vector>\nint longestThaw(int a) { return a; }", "longestThaw", "int a"},
		{"in a class", "class Solution : public Base {\npublic:\n int longestThaw(int a) const {", "Solution::longestThaw", "int a"},
		{"in classes in a namespace", "namespace hall { struct A { class B { void longestThaw(int (*f)(int), int b) {", "hall::A::B::longestThaw", "int (*f)(int), int b"},
		{"not where it is called", "int main() { return longestThaw(3); }\nint longestThaw(int b) { return 1; }", "longestThaw", "int b"},
		{"not where it is only declared", "int longestThaw(int a);\nint longestThaw(int b) {", "longestThaw", "int b"},
		{"not in a comment or a text", "// longestThaw(int x) {\n/* longestThaw(int y) { */ const char *s = \"longestThaw(z) {\"; int longestThaw(int b) {", "longestThaw", "int b"},
		{"not a type of that name", "record LongestThaw(int a) {} class S { int longestThaw(int b) {", "S::longestThaw", "int b"},
		{"behind a function that returns a struct", "struct Node *next(int a) { } int longestThaw(int b) {", "longestThaw", "int b"},
		{"in an impl", "struct S;\nimpl<'a> S { pub fn longest_thaw(&self, a: &'a str) -> i32 {", "S::longest_thaw", "&self, a: &'a str"},
		{"in a trait's impl", "impl Thawing for S { fn longest_thaw(a: i32) -> i32 {", "S::longest_thaw", "a: i32"},
		{"an expression", "fun longestThaw(a: List<Int>) = a.size", "longestThaw", "a: List<Int>"},
		{"behind a data class", "data class P(val a: Int)\nfun longestThaw(b: Int): P {", "longestThaw", "b: Int"},
		{"in an object", "object Hall {\n  fun longestThaw(b: Int): Int {", "Hall::longestThaw", "b: Int"},
		{"generic", "fn longest_thaw<T: Ord>(a: &[T]) -> usize {", "longest_thaw", "a: &[T]"},
		{"behind a character", "char c = '\"'; char d = '{'; int longestThaw(int b) {", "longestThaw", "int b"},
		{"behind a lifetime", "fn f<'a>(x: &'a str) -> &'a str { x }\nfn longest_thaw(b: i32) {", "longest_thaw", "b: i32"},
	} {
		t.Run(tt.name, func(t *testing.T) {
			sites := outlined([]byte(tt.source), Spellings("longest_thaw")).sites
			require.Len(t, sites, 1)
			s := sites[0]
			assert.Equal(t, tt.path, s.path("::"))
			assert.Equal(t, tt.params, s.params)
		})
	}
	for _, none := range []string{"", "int main() { longestThaw(1); }", "int longestThaw;", "longestThaw(", "} } longestThaw"} {
		assert.Empty(t, outlined([]byte(none), Spellings("longest_thaw")).sites, none)
	}
}

func FuzzAnySourceIsLookedThrough(f *testing.F) {
	f.Add("class A { int longestThaw(int a) { /* \" ' */ } }")
	f.Add("longestThaw<(((\"\"\"''R\"(")
	f.Fuzz(func(t *testing.T, source string) {
		assert.Len(t, mask(source), len(source))
		function, err := problem.ParseCall("longest_thaw(temps: int[], limit: long) -> int")
		require.NoError(t, err)
		f := &fitting{function: function, file: "a.x", source: []byte(source), words: map[string]string{}}
		if s, o, err := f.chosen(); err == nil {
			assert.Contains(t, source, s.name)
			o.typeNames(s, "")
			assert.NoError(t, f.cppByCall(s, split(s.params), o.cppOwner(s)))
		}
	})
}

func TestParametersAreSplitWhereNoBracketIsOpen(t *testing.T) {
	assert.Equal(t, []string{"a: Vec<(i32, i32)>", "f: fn(i32) -> i32", "b: [i32; 3]"}, split("a: Vec<(i32, i32)>, f: fn(i32) -> i32, b: [i32; 3],"))
	assert.Empty(t, split("  "))
}

func TestCTypesAreReadFromTheDeclaration(t *testing.T) {
	for text, want := range map[string]string{
		"const long long *": "long long*", "static const char *const *": "char**", "unsigned": "unsigned", "int * *": "int**",
	} {
		assert.Equal(t, want, cType(text))
	}
}

func TestALineOfADriverIsRead(t *testing.T) {
	var got []Answer
	a := &Answers{Token: "ab", Most: 40, Each: func(a Answer) { got = append(got, a) }}
	for _, piece := range []string{"ab 0 rea", "dy\nab 0 done 1500 [1, \"a", " b\"]\nab 1 failed 7\nab 2 misfit 0 it returned a set\nab 3 begin\n",
		"ab 3 done x 1\nab 3 done -1 1\nab 3 whatever\n\nab 3 unserved there is none\n", "ab 2 done 5 1\nabc 3 done 5 1\ndone 5 1\nbegin\n"} {
		n, err := a.Write([]byte(piece))
		require.NoError(t, err)
		assert.Equal(t, len(piece), n)
	}
	nonsense := func(text string) Answer { return Answer{Kind: Nonsense, Text: text} }
	assert.Equal(t, []Answer{
		{Kind: Ready}, {Kind: Done, Spent: 1500 * time.Nanosecond, Text: `[1, "a b"]`}, {Kind: Failed, Spent: 7}, {Kind: Misfit, Text: "it returned a set"}, {Kind: Begin},
		nonsense("ab 3 done x 1"), nonsense("ab 3 done -1 1"), nonsense("ab 3 whatever"), nonsense(""), {Kind: Unserved, Text: "there is none"},
		nonsense("ab 2 done 5 1"), nonsense("abc 3 done 5 1"), nonsense("done 5 1"), nonsense("begin"),
	}, got, "an answer has the token and the number of its call, and ends that call once")
	assert.False(t, a.Long())
	a.Write([]byte("ab 3 done 1 "))
	a.Write([]byte(strings.Repeat("1", 200)))
	assert.True(t, a.Long())
	a.Write([]byte("\nab 4 begin\n"))
	assert.True(t, got[len(got)-2].Long)
	assert.Equal(t, Done, got[len(got)-2].Kind)
	assert.False(t, got[len(got)-1].Long)
}

func TestWhatIsPrintedIsSplitAtTheMarksHoweverItComes(t *testing.T) {
	mark := Mark("00ff")
	text := []byte("loading\n" + string(mark) + "one\x00\x0000f" + string(mark) + string(mark) + "three, to its end")
	for size := 1; size <= len(text); size++ {
		came := 0
		s := &Splitter{Mark: mark, Most: 6, Each: func() { came++ }}
		for from := 0; from < len(text); from += size {
			s.Write(text[from:min(len(text), from+size)])
		}
		require.Equal(t, 3, s.Count(), size)
		assert.Equal(t, 3, came)
		assert.Equal(t, Part{[]byte("loadin"), 8}, s.Take(0), "%d", size)
		assert.Equal(t, Part{[]byte("one\x00\x000"), 8}, s.Take(1))
		assert.Equal(t, Part{}, s.Take(2))
		assert.Equal(t, int64(17), s.Size())
		assert.Equal(t, Part{[]byte("three,"), 17}, s.Take(3))
		assert.Equal(t, Part{}, s.Take(4))
	}
}

// TestEveryDriverIsFilledIn also keeps the table and the folder of drivers alike.
func TestEveryDriverIsFilledIn(t *testing.T) {
	function, err := problem.ParseCall("longest_thaw(temps: int[], limit: long) -> int")
	require.NoError(t, err)
	used := map[string]bool{}
	for name, d := range table {
		l, ok := toolchain.Ours().Find(name)
		require.True(t, ok, name)
		used[d.text] = true
		file, source, err := Start(function, l, "thaw")
		require.NoError(t, err, name)
		text, err := Driver(function, l, l.Standard, file, source)
		require.NoError(t, err, name)
		assert.NotRegexp(t, `@[A-Z_]+@`, text, name)
		assert.Contains(t, text, "to descriptor 3")
		assert.True(t, Serves(l))
	}
	files, err := os.ReadDir("drivers")
	require.NoError(t, err)
	for _, f := range files {
		assert.True(t, used[f.Name()], filepath.Join("drivers", f.Name()))
	}
	awk, _ := toolchain.Ours().Find("awk")
	_, err = Around(function)(awk, "", "a.awk", nil)
	assert.ErrorContains(t, err, "function problems cannot be served in AWK; they can in c, clojure, cpp, csharp")
}

func FuzzWhatADriverWritesIsSplitAlikeHoweverItComes(f *testing.F) {
	f.Add([]byte("loading\x00ab\none\x00ab\n\x00ab\nrest"), uint8(3))
	f.Add([]byte("ab 0 done 5 [1]\nab 1 failed 7\n\x00ab\x00ab\n"), uint8(1))
	f.Fuzz(func(t *testing.T, text []byte, size uint8) {
		step := max(1, int(size))
		var whole, pieces []Answer
		one := &Answers{Token: "ab", Most: 50, Each: func(a Answer) { whole = append(whole, a) }}
		two := &Answers{Token: "ab", Most: 50, Each: func(a Answer) { pieces = append(pieces, a) }}
		all := &Splitter{Mark: Mark("ab"), Most: 20}
		some := &Splitter{Mark: Mark("ab"), Most: 20}
		one.Write(text)
		all.Write(text)
		for from := 0; from < len(text); from += step {
			piece := text[from:min(len(text), from+step)]
			two.Write(piece)
			some.Write(piece)
		}
		assert.Len(t, pieces, len(whole))
		for i := range min(len(whole), len(pieces)) {
			assert.Equal(t, whole[i].Long, pieces[i].Long)
			if !whole[i].Long { // of what is too long more or less is kept
				assert.Equal(t, whole[i], pieces[i])
			}
		}
		require.Equal(t, all.Count(), some.Count())
		total := int64(0)
		for i := range all.Count() + 1 {
			a, b := all.Take(i), some.Take(i)
			assert.Equal(t, a.Size, b.Size)
			assert.Equal(t, string(a.Text), string(b.Text))
			total += a.Size
		}
		assert.Equal(t, int64(len(text)), total+int64(all.Count()*len(Mark("ab"))))
	})
}
