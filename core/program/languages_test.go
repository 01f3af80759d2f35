package program

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"coldverdict/core/toolchain"
)

func TestParametersSayHowValuesAreDeclared(t *testing.T) {
	for _, tt := range []struct {
		name string
		of   func(string) string
		want map[string]string
	}{
		{"C++", cppParam, map[string]string{"const std::vector<int> &w": "std::vector<int>", "long long n": "long long", "vector<vector<int>>& m": "vector<vector<int>>", "int *p": "", "std::span<int> s": "", "auto x": "", "string s = \"a\"": "string"}},
		{"C", cParam, map[string]string{"const int *w": "int*", "long long n": "long long", "int w[]": "int*", "char **names": "char**", "int grid[][3]": "int**"}},
		{"Java", lastWordOff, map[string]string{"final int[] w": "int[]", "List<Integer> w": "List<Integer>", "int... w": "int[]", "@NotNull String s": "String"}},
		{"Kotlin", kotlinParam, map[string]string{"w: IntArray": "IntArray", "w: List<Int> = listOf()": "List<Int>"}},
		{"Go", goParam, map[string]string{"a []int": "[]int", "a ...int": "[]int", "int": ""}},
		{"Rust", rustParam, map[string]string{"w: &[i32]": "Vec<i32>", "s: &str": "String", "w: &mut Vec<i64>": "Vec<i64>", "n: usize": "usize", "s: &'a [String]": "Vec<String>"}},
	} {
		for param, want := range tt.want {
			assert.Equal(t, want, tt.of(param), "%s: %s", tt.name, param)
		}
	}
}

func TestWhatListsBecome(t *testing.T) {
	for declared, want := range map[string]string{
		"int[]": "{name}.stream().mapToInt(Integer::intValue).toArray()", "long[]": "{name}.stream().mapToLong(Long::longValue).toArray()", "String[]": "{name}.toArray(new String[0])",
		"int[][]": "{name}.toArray(new int[0][])", "boolean[]": "booleans({name})", "List<Integer>": "", "ArrayList<String>": "new java.util.ArrayList<>({name})", "Set<Integer>": "new java.util.HashSet<>({name})",
		"char[]": "{name}.stream().map(String::valueOf).collect(java.util.stream.Collectors.joining()).toCharArray()", "java.util.Deque<Integer>": "new java.util.ArrayDeque<>({name})",
	} {
		assert.Equal(t, want, javaBecome(declared), declared)
	}
	for declared, want := range map[string]string{"IntArray": "{name}.toIntArray()", "Array<IntArray>": "{name}.toTypedArray()", "List<Int>": "", "Set<Int>": "{name}.toMutableSet()"} {
		assert.Equal(t, want, kotlinBecome(declared), declared)
	}
	for declared, want := range map[string]string{"int[]": "int", "int[][]": "int[]", "List<List<Integer>>": "List<Integer>", "int": ""} {
		assert.Equal(t, want, javaElement(declared), declared)
	}
	assert.Equal(t, "{name}.ToArray()", csharpBecome("int[]"))
	assert.Empty(t, csharpBecome("IList<int>"))
	assert.Equal(t, "Int", kotlinElement("IntArray"))
	assert.Equal(t, "IntArray", kotlinElement("Array<IntArray>"))
}

func TestOfGoOnlyWhatIsUsedIsImported(t *testing.T) {
	l, _, err := toolchain.Ours().Choose("a.go", "")
	require.NoError(t, err)
	text := "package a\n\nimport (\n\t\"fmt\"\n\t\"os\"\n\tm \"math\"\n\t_ \"embed\"\n)\n\nimport \"strings\"\n\nfunc f() float64 { return m.Pi }\n\nfunc main() { fmt.Println(strings.ToUpper(os.Args[0])) }\n"
	bare := string(WithoutMain(l, []byte(text)))
	for _, gone := range []string{`"fmt"`, `"os"`, `"strings"`, "main"} {
		assert.NotContains(t, bare, gone)
	}
	for _, kept := range []string{`m "math"`, `_ "embed"`} {
		assert.Contains(t, bare, kept)
	}
	p := planOf(t, "f(a: bigint) -> bigint", "a: int")
	whole, err := p.Around(l, "a.go", []byte("package a\n\nimport \"math/big\"\n\nfunc f(a *big.Int) *big.Int { return a }\n"), "Main", false)
	require.NoError(t, err)
	assert.Equal(t, 1, strings.Count(string(whole), "package main"))
	assert.Contains(t, string(whole), "func programInteger(word string) *programBig.Int {")
	assert.Contains(t, string(whole), "\tresult1 := f(a)\n\tprogramFmt.Fprintln(out, result1)\n")
}

func TestEveryLanguageOfFunctionsHasAProgram(t *testing.T) {
	for file, source := range map[string]string{
		"a.py": "def f(n, w): return n", "a.rb": "def f(n, w) = n", "a.js": "function f(n, w) { return n; }", "a.ts": "function f(n: number, w: number[]): number { return n; }",
		"a.cpp": "int f(int n, std::vector<int> w) { return n; }", "a.c": "int f(int n, int *w, int k) { return n; }", "A.java": "class A { static int f(int n, int[] w) { return n; } }",
		"a.kt": "fun f(n: Int, w: IntArray): Int { return n }", "a.cs": "class A { public static int F(int n, int[] w) { return n; } }", "a.go": "package a\n\nfunc f(n int, w []int) int { return n }\n", "a.rs": "fn f(n: i32, w: Vec<i32>) -> i32 { n }",
	} {
		l, _, err := toolchain.Ours().Choose(file, "")
		require.NoError(t, err)
		for _, usual := range []bool{false, true} {
			text, err := planOf(t, "f(n: int, w: int[]) -> int", "k: int 0..9, n: int\nw: int[k] down").Around(l, file, []byte(source), "Main", usual)
			require.NoError(t, err, file)
			assert.NotContains(t, string(text), "{name}", file)
			assert.NotContains(t, string(text), "{statements}", file)
			assert.Regexp(t, `(?i)\bf\(n, w(, k_count|, w_count)?\)|result1 := f\(n, w\)|\(n, w\)`, string(text), file)
		}
	}
	l, _, err := toolchain.Ours().Choose("a.hs", "")
	require.NoError(t, err)
	_, err = planOf(t, "f(a: int) -> int", "a: int").Around(l, "a.hs", nil, "Main", false)
	assert.ErrorContains(t, err, "cannot be written in Haskell")
}
