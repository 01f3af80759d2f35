package call

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"coldverdict/core/problem"
	"coldverdict/core/value"
)

// leaky is a function beside which is_leaky is provided.
func leaky(t *testing.T) *problem.Call {
	t.Helper()
	function, err := problem.ParseCall("first_leaky(n: int) -> int")
	require.NoError(t, err)
	function.Given = []problem.Given{{Name: "is_leaky", Takes: []value.Field{{Name: "joint", Type: value.Type{Kind: value.Int}}, {Name: "names", Type: value.Type{Kind: value.Array, Of: &value.Type{Kind: value.Text}}}}, Returns: value.Type{Kind: value.Bool}}}
	return function
}

func TestWhatASiteProvidesIsThereInEveryForm(t *testing.T) {
	for _, tt := range []struct{ language, source, wants string }{
		{"cpp", "int firstLeaky(int n) { return 0; }\n", "bool isLeaky(int a0, std::vector<std::string> a1) { return cold_driver::asked<bool>(\"is_leaky\", a0, a1); }"},
		{"cpp", "class Solution : public Pipe { public: int firstLeaky(int n) { return 0; } };\n", "struct Pipe { bool is_leaky(int a0, std::vector<std::string> a1) { return ::is_leaky(a0, a1); } "},
		{"java", "class Solution extends Pipe { int firstLeaky(int n) { return 0; } }\n", "class Pipe { static boolean is_leaky(int a0, String[] a1) { return (boolean) ColdDriver.asked(\"is_leaky\", boolean.class, a0, a1); } "},
		{"java", "class Solution {\n  int firstLeaky(int n) { return 0; } }\n", "class Solution extends ColdGiven {\n"},
		{"java", "class Solution extends Pipe { int firstLeaky(int n) { return 0; } }\nclass Pipe { }\n", "class Solution extends Pipe {"},
		{"csharp", "public class Solution : Pipe { public int FirstLeaky(int n) { return 0; } }\n", "public class Pipe { protected bool is_leaky(int a0, string[] a1) { return (bool)ColdDriver.Asked("},
		{"csharp", "public class Solution { public int FirstLeaky(int n) { return 0; } }\n", "public class Solution : ColdGiven {"},
		{"kotlin", "class Solution : Pipe() { override fun firstLeaky(n: Int): Int = 0 }\n", "abstract class Pipe { abstract fun firstLeaky(n: Int): Int }"},
		{"kotlin", "fun firstLeaky(n: Int) = 0\n", "fun isLeaky(a0: Int, a1: List<String>): Boolean = "},
		{"go", "package main\n\nfunc firstLeaky(n int) int { return 0 }\n", "func isLeaky(a0 int, a1 []string) (result bool) {\n\tcoldQuestion(&result, \"is_leaky\", a0, a1)"},
		{"typescript", "class Solution extends Pipe { firstLeaky(n: number): number { return 0; } }\n", "declare class Pipe { is_leaky(a0: number, a1: string[]): boolean; "},
		{"rust", "impl Solution { fn first_leaky(&self, n: i32) -> i32 { self.is_leaky(n, vec![]) as i32 } }\n", "fn is_leaky(&self, a0: i32, a1: Vec<String>) -> bool { cold_driver::asked(\"is_leaky\", &[&a0, &a1]) }"},
		{"rust", "impl Solution { fn first_leaky(n: i32) -> i32 { Self::isLeaky(n, vec![]) as i32 } }\n", "fn isLeaky(a0: i32, a1: Vec<String>) -> bool { cold"},
		{"c", "int first_leaky(int n) { return 0; }\n", "bool isLeaky(int a0, char* *a1, int a1_length) {"},
		{"c", "bool is_leaky(int n, char **names, int count);\nint first_leaky(int n) { return 0; }\n", "cold_give_text((a1)[cold_j]);"},
		{"javascript", "class Solution extends Pipe { firstLeaky(n) { return 0; } }\n", `const UNDECLARED = ["Pipe"];`},
		{"python", "def first_leaky(n): return 0\n", `json.loads("[[\"is_leaky\",[\"is_leaky\",\"isLeaky\",\"IsLeaky\"],\"bool\"]]")`},
	} {
		l := language(t, tt.language)
		file := "a" + l.Extensions[0]
		w, text, err := wrap(leaky(t), l, l.Standard, file, []byte(tt.source))
		require.NoError(t, err, tt.language)
		require.Empty(t, w.Refused, tt.language)
		whole := string(w.Source) + text
		assert.Contains(t, whole, tt.wants, "%s: %s", tt.language, tt.source)
		if tt.language != "go" { // whose package has a name of its own
			assert.Equal(t, strings.Index(tt.source, "\n"), strings.Index(strings.NewReplacer(" extends ColdGiven", "", " : ColdGiven", "").Replace(string(w.Source)), "\n"), "lines keep their places: %s", tt.source)
		}
	}
	for _, name := range []string{"haskell", "lua"} {
		_, _, err := wrap(leaky(t), language(t, name), "", "a.x", nil)
		assert.ErrorContains(t, err, "problems that provide functions cannot be served in")
	}
	w, _, err := wrap(leaky(t), language(t, "c"), "", "a.c", []byte("int first_leaky(int n) { return 0; }\n"))
	require.NoError(t, err)
	require.Empty(t, w.Refused)
	for signature, says := range map[string]string{"f(n: int) -> int[][][]": "C has no usual way to provide is_leaky, which takes or returns int[][][]", "f(n: int?) -> int": "takes or returns int?", "f(n: any) -> int": "takes or returns any"} {
		provided, err := problem.ParseCall(signature)
		require.NoError(t, err)
		function := leaky(t)
		function.Given[0].Takes, function.Given[0].Returns = provided.Takes, provided.Returns[0].Type
		w, _, err := wrap(function, language(t, "c"), "", "a.c", []byte("int first_leaky(int n) { return 0; }\n"))
		require.NoError(t, err)
		assert.Contains(t, w.Refused, says)
	}
}

func TestWhatALanguageCannotServeIsSaid(t *testing.T) {
	for _, tt := range []struct{ signature, language, source, says string }{
		{"f(a: list(int)) -> int", "php", "<?php function f($a) {}\n", "PHP has no usual way to pass list(int)"},
		{"f(a: int) -> any", "perl", "sub f { }\n", "Perl has no usual way to pass any"},
		{"f(a: map(text, int)) -> int", "clojure", "(defn f [a] a)\n", "Clojure has no usual way to pass map(text, int)"},
		{"f(a: tree(int)) -> int", "d", "int f(int[] a) { return 0; }\n", "D has no usual way to pass tree(int)"},
		{"f(a: int?[]) -> int", "lua", "function f(a) end\n", "a table of Lua cannot hold what is absent"},
		{"f(a: map(text, int)) -> int", "c", "int f(int a) { return 0; }\n", "C has no usual way to pass map(text, int)"},
		{"f(a: any) -> int", "rust", "fn f(a: i32) -> i32 { 0 }\n", "Rust has no usual way to pass any"},
		{"g(a: int) -> int", "d", "int f(int a) { return 0; }\n", "there is no function g"},
	} {
		function, err := problem.ParseCall(tt.signature)
		require.NoError(t, err)
		l := language(t, tt.language)
		w, _, err := wrap(function, l, l.Standard, "a"+l.Extensions[0], []byte(tt.source))
		require.NoError(t, err, tt.language)
		assert.Contains(t, w.Refused, tt.says, tt.language)
	}
	for signature, says := range map[string]string{
		"f(a: function) -> int": "problems whose functions take or return functions cannot be served in", "f(a: list(int)) -> copy of argument 1": "problems with nodes or copies of an argument cannot be served in",
		"f(a: tree(int), b: node of argument 1) -> int": "problems with nodes or copies of an argument cannot be served in", "f(a: list(int)) -> node of argument 1": "problems with nodes or copies",
	} {
		function, err := problem.ParseCall(signature)
		require.NoError(t, err)
		for _, name := range []string{"haskell", "nim", "perl"} {
			_, _, err := wrap(function, language(t, name), "", "a.x", nil)
			assert.ErrorContains(t, err, says, signature)
		}
	}
}

func TestSourcesOfDAndPHPAreMadeFitForTheirDrivers(t *testing.T) {
	function, err := problem.ParseCall("thin_out(temps: int[]) -> int")
	require.NoError(t, err)
	for _, tt := range []struct{ file, source, becomes, serves string }{
		{"thin.d", "int thinOut(int[] temps) { return 0; }\nvoid main() {}\n", "int thinOut(int[] temps) { return 0; }\nvoid mainColdUnused() {}\n", "serve!(thin.thinOut)(r);"},
		{"two-words.d", "int thinOut(int[] temps) { return 0; }\n", "module two_words; int thinOut(int[] temps) { return 0; }\n", "static import two_words;"},
		{"a.d", "module pack.ice;\nint thinOut(int[] temps) { return 0; }\n", "module pack.ice;\nint thinOut(int[] temps) { return 0; }\n", "serve!(pack.ice.thinOut)(r);"},
		{"a.d", "struct Solution { int thinOut(int[] temps) { return 0; } }\n", "struct Solution { int thinOut(int[] temps) { return 0; } }\n", "static if (__traits(isStaticFunction, a.Solution.thinOut))"},
	} {
		l := language(t, "d")
		w, text, err := wrap(function, l, "", tt.file, []byte(tt.source))
		require.NoError(t, err)
		require.Empty(t, w.Refused)
		assert.Equal(t, tt.becomes, string(w.Source), "its lines stay where they are")
		assert.Contains(t, text, tt.serves)
	}
	php := language(t, "php")
	for source, becomes := range map[string]string{"class Solution {}\n": "<?php class Solution {}\n", "<?php\nclass Solution {}\n": "<?php\nclass Solution {}\n", "<?= 1 ?>\n": "<?= 1 ?>\n"} {
		w, _, err := wrap(function, php, "", "a.php", []byte(source))
		require.NoError(t, err)
		assert.Equal(t, becomes, string(w.Source))
	}
}
