package call

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"coldverdict/core/problem"
	"coldverdict/core/toolchain"
)

func language(t *testing.T, name string) *toolchain.Language {
	t.Helper()
	l, _, err := toolchain.Ours().Choose("a.x", name)
	require.NoError(t, err)
	return l
}

func TestHowOtherCodeCallsAFunction(t *testing.T) {
	f, err := problem.ParseCall(thawSignature)
	require.NoError(t, err)
	for _, tt := range []struct {
		language, source, callee string
		params                   []string
	}{
		{"cpp", "int longestThaw(std::vector<int> &temps, long long limit) { return 0; }", "longestThaw", []string{"std::vector<int> &temps", "long long limit"}},
		{"cpp", "namespace camp { struct S { static int longest_thaw(int *a, int b) { return 0; } }; }", "camp::S().longest_thaw", []string{"int *a", "int b"}},
		{"cpp", "class Solution {\npublic:\n int longestThaw(vector<int> t, int l) { return 0; }\n};", "Solution().longestThaw", []string{"vector<int> t", "int l"}},
		{"c", "static int longest_thaw(const int *t, int n, long long l) { return 0; }", "longest_thaw", []string{"const int *t", "int n", "long long l"}},
		{"java", "class A { static int longestThaw(int[] t, long l) { return 0; } }", "A.longestThaw", []string{"int[] t", "long l"}},
		{"java", "class A { class B { int longestThaw(List<Integer> t, long l) { return 0; } } }", "new A.B().longestThaw", []string{"List<Integer> t", "long l"}},
		{"java", "abstract class A { int longestThaw(int[] t, long l) { return 0; } }\nclass C extends A { }", "new C().longestThaw", []string{"int[] t", "long l"}},
		{"kotlin", "fun longestThaw(t: IntArray, l: Long): Int { return 0 }", "longestThaw", []string{"t: IntArray", "l: Long"}},
		{"kotlin", "object O { fun longestThaw(t: IntArray, l: Long): Int { return 0 } }", "O.longestThaw", []string{"t: IntArray", "l: Long"}},
		{"kotlin", "class K { companion object { fun longestThaw(t: IntArray, l: Long): Int { return 0 } } }", "K.longestThaw", []string{"t: IntArray", "l: Long"}},
		{"csharp", "namespace N { public class S { public static int LongestThaw(int[] t, long l) { return 0; } } }", "N.S.LongestThaw", []string{"int[] t", "long l"}},
		{"csharp", "public class S { public int LongestThaw(int[] t, long l) { return 0; } }", "new S().LongestThaw", []string{"int[] t", "long l"}},
		{"go", "package p\n\nfunc longestThaw(t []int, l int64) int { return 0 }\n", "longestThaw", []string{"a []int", "a int64"}},
		{"go", "package p\n\nfunc longestThaw(t, u []int) int { return 0 }\n", "longestThaw", []string{"a []int", "a []int"}},
		{"go", "package p\n\ntype S struct{}\n\nfunc (s *S) LongestThaw(t []int, l int64) int { return 0 }\n", "(func(a0 []int, a1 int64) int { return new(S).LongestThaw(a0, a1) })", []string{"a []int", "a int64"}},
		{"go", "package p\n\nvar longestThaw = func(t []int, l int64) int { return 0 }\n", "longestThaw", []string{"a []int", "a int64"}},
		{"rust", "pub fn longest_thaw(t: &[i32], l: i64) -> i32 { 0 }", "longest_thaw", []string{"t: &[i32]", "l: i64"}},
		{"rust", "impl Solution { pub fn longest_thaw(t: Vec<i32>, l: i64) -> i32 { 0 } }", "Solution::longest_thaw", []string{"t: Vec<i32>", "l: i64"}},
		{"rust", "struct S;\nimpl S { fn longest_thaw(&self, t: Vec<i32>, l: i64) -> i32 { 0 } }", "(S {}).longest_thaw", []string{"t: Vec<i32>", "l: i64"}},
		{"python", "def longest_thaw(t, l):\n    return 0\n", "longest_thaw", nil},
		{"python", "class Day:\n    def longest_thaw(self): pass\nclass Solution:\n    def longestThaw(self, t, l):\n        return 0\ndef longest_thaw(t, l): return 1\n", "Solution().longestThaw", nil},
		{"python", "longest_thaw = lambda t, l: 0\n", "longest_thaw", nil},
		{"ruby", "def longest_thaw(t, l)\n  0\nend\n", "longest_thaw", nil},
		{"ruby", "class S\n  def longest_thaw(t, l) = 0\nend\n", "S.new.longest_thaw", nil},
		{"ruby", "module S\n  module_function\n  def longest_thaw(t, l) = 0\nend\n", "S.longest_thaw", nil},
		{"ruby", "class S\n  def self.longest_thaw(t, l) = 0\nend\n", "S.longest_thaw", nil},
		{"javascript", "function longestThaw(t, l) { return 0; }", "longestThaw", nil},
		{"javascript", "const longestThaw = (t, l) => 0;", "longestThaw", nil},
		{"javascript", "class S { longestThaw(t, l) { return 0; } }", "new S().longestThaw", nil},
		{"javascript", "class S { static longestThaw(t, l) { return 0; } }", "S.longestThaw", nil},
		{"javascript", "class S { longestThaw = (t, l) => 0; }", "new S().longestThaw", nil},
		{"javascript", "function S() {}\nS.prototype.longestThaw = function (t, l) { return 0; };", "new S().longestThaw", nil},
		{"javascript", "exports.longestThaw = (t, l) => 0;", "exports.longestThaw", nil},
		{"javascript", "module.exports = class S { longestThaw(t, l) { return 0; } };", "new module.exports().longestThaw", nil},
		{"typescript", "export function longestThaw(t: number[], l: number): number { return 0; }", "longestThaw", nil},
	} {
		found, err := Find(f, language(t, tt.language), "a.x", []byte(tt.source))
		require.NoError(t, err, tt.source)
		assert.Equal(t, tt.callee, found.Callee, tt.source)
		assert.Equal(t, tt.params, found.Params, tt.source)
	}
	found, err := Find(f, language(t, "rust"), "a.rs", []byte("impl Solution { pub fn longest_thaw(t: Vec<i32>, l: i64) -> i32 { 0 } }"))
	require.NoError(t, err)
	assert.Equal(t, "\nstruct Solution;", found.Missing)
	for source, result := range map[string]string{
		"go: package p; func longestThaw(t []int, l int64) (int, error) { return 0, nil }":             "(int, error)",
		"go: package p; func longestThaw(t []int, l int64) (days int, err error) { return }":           "(days int, err error)",
		"go: package p; var longestThaw = func(t []int, l int64) int { return 0 }":                     "int",
		"go: package p; func longestThaw(t []int, l int64) {}":                                         "",
		"rust: fn longest_thaw(t: &[i32], l: i64) -> Result<i32, String> { Ok(0) }":                    "-> Result<i32, String>",
		"c: static int longest_thaw(const int *t, int n, long long l) { return 0; }":                   "static int",
		"cpp: struct S { virtual std::vector<int> longestThaw(vector<int> t, int l) { return {}; } };": "virtual std::vector<int>",
	} {
		name, source, _ := strings.Cut(source, ": ")
		found, err := Find(f, language(t, name), "a.x", []byte(source))
		require.NoError(t, err, source)
		assert.Equal(t, result, strings.TrimSpace(found.Result), source)
	}
	for _, name := range Languages() {
		_, err := Find(f, language(t, name), "a.x", []byte("package p\n\nfunc longesThaw() {}\n"))
		assert.ErrorContains(t, err, "there is no function longest_thaw", name)
	}
	_, err = Find(f, language(t, "awk"), "a.awk", nil)
	assert.ErrorContains(t, err, "cannot be served in")
}

func TestWhereAMainFunctionStands(t *testing.T) {
	for source, want := range map[string]string{
		"int f() { return 1; }\nint main() { f(); }\n":              "int main() ",
		"int f() { return 1; } int main() { f(); }\n":               "int main() ",
		"class A {\n  public static void main(String[] a) { }\n}\n": "  public static void main(String[] a) ",
		"fun f() = 1\nfun main() {\n}\n":                            "fun main() ",
		"public class P { static void Main() { } }":                 "static void Main() ",
	} {
		from, open, ok := Main([]byte(source))
		require.True(t, ok, source)
		assert.Equal(t, want, source[from:open], source)
	}
	for _, source := range []string{"int mainly() { return 1; }", "// int main() {}\n", "int f() { return main; }"} {
		_, _, ok := Main([]byte(source))
		assert.False(t, ok, source)
	}
}
