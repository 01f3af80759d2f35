package call

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"coldverdict/core/problem"
	"coldverdict/core/value"
)

func TestOfSeveralFunctionsTheOneIsCalledThatAJudgeWouldCall(t *testing.T) {
	for _, tt := range []struct{ name, file, source, path, params string }{
		{"of as many parameters as the problem has", "a.java", "class A { int longestThaw(int[] a, long b, int c) { } int longestThaw(int[] d, long e) { } int longestThaw(int[] f) { } }", "A::longestThaw", "int[] d, long e"},
		{"of the right types", "a.java", "class A { int longestThaw(String a, long b) { } int longestThaw(List<Integer> c, Long d) { } int longestThaw(int a, boolean b) { } }", "A::longestThaw", "List<Integer> c, Long d"},
		{"the public one", "a.java", "class A { public int longestThaw(int[] c, long d) { } private int longestThaw(int[] a, long b) { } }", "A::longestThaw", "int[] c, long d"},
		{"the public one by its label", "a.cpp", "class A { int longestThaw(vector<int> &a, int b) { }\npublic:\n int longestThaw(vector<int> c, long d) { }\nprivate:\n int longestThaw(vector<int> e, short f) { } };", "A::longestThaw", "vector<int> c, long d"},
		{"a private one where there is no other", "a.cpp", "class A { public: A() { } private: int longestThaw(vector<int> c, long d) { } };", "A::longestThaw", "vector<int> c, long d"},
		{"the class Solution before a function", "a.cpp", "class Solution { public: int longestThaw(vector<int> c, long d) { } };\nint longestThaw(vector<int> a, long b) { }", "Solution::longestThaw", "vector<int> c, long d"},
		{"a function before another class", "a.cpp", "int longestThaw(vector<int> c, long d) { }\nstruct Day { int longestThaw(vector<int> a, long b) { } };", "longestThaw", "vector<int> c, long d"},
		{"the class of the file's name", "Main.java", "class Main { int longestThaw(int[] c, long d) { } }\nclass Day { int longestThaw(int[] a, long b) { new Main(); } }", "Main::longestThaw", "int[] c, long d"},
		{"the class that no other uses", "a.cs", "class Night { int LongestThaw(int[] c, long d) { new Day(); } }\nclass Day { int LongestThaw(int[] a, long b) { } }", "Night::LongestThaw", "int[] c, long d"},
		{"the outer class", "a.kt", "class A { fun longestThaw(c: IntArray, d: Long) { }\n inner class B { fun longestThaw(a: IntArray, b: Long) { } } }", "A::longestThaw", "c: IntArray, d: Long"},
		{"the last", "a.cpp", "struct A { int longestThaw(Row a, Limit b) { } };\nstruct B { int longestThaw(Row c, Limit d) { } };", "B::longestThaw", "Row c, Limit d"},
		{"with a default", "a.kt", "fun longestThaw(a: IntArray) = 1\nfun longestThaw(c: IntArray, d: Long, e: Int = f(1, 2)) = 2\n", "longestThaw", "c: IntArray, d: Long, e: Int = f(1, 2)"},
		{"no way of a trait", "a.rs", "impl Thawing for i32 { fn longest_thaw(&self, a: Vec<i32>, b: i64) -> i32 { } }\nimpl S { fn longest_thaw(c: Vec<i32>, d: i64) -> i32 { } }\nfn g(s: S) { }", "S::longest_thaw", "c: Vec<i32>, d: i64"},
		{"no module's", "a.rs", "fn longest_thaw(c: &[i32], d: i64) { }\nmod old { pub fn longest_thaw(a: &[i32], b: i64) { } }", "longest_thaw", "c: &[i32], d: i64"},
		{"defined outside of its class", "a.cpp", "namespace hut { class A { public: int longestThaw(vector<int>, long); }; }\nint hut::A::longestThaw(vector<int> c, long d) { }", "hut::A::longestThaw", "vector<int> c, long d"},
	} {
		t.Run(tt.name, func(t *testing.T) {
			function, err := problem.ParseCall(thawSignature)
			require.NoError(t, err)
			s, _, err := (&fitting{function: function, file: tt.file, source: []byte(tt.source)}).chosen()
			require.NoError(t, err)
			assert.Equal(t, tt.path, s.path("::"))
			assert.Equal(t, tt.params, s.params)
		})
	}
}

func TestAnArgumentOfCppIsDeclaredAsAJudgeDoesUnlessTheParameterSaysOtherwise(t *testing.T) {
	for _, tt := range []struct{ kind, param, want string }{
		{"int[]", "const vector<int> &a", "std::vector<int>"},
		{"int[]", "std::vector<long long> a", "std::vector<long long>"},
		{"int[]", "Row a", "std::vector<int>"},
		{"int[][]", "vector<deque<ll>> &a", "std::vector<std::deque<long long>>"},
		{"long", "int64_t a", "int64_t"},
		{"long", "auto a", "long long"},
		{"real?", "optional<double> a", "std::optional<double>"},
		{"text[]", "vector<string> a", "std::vector<std::string>"},
		{"bool", "bool a", "bool"},
	} {
		kind, err := value.ParseType(tt.kind)
		require.NoError(t, err)
		assert.Equal(t, tt.want, cppType(kind, tt.param), tt.param)
	}
}
