//go:build linux

package judge

import (
	"os"
	"path/filepath"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"coldverdict/core/problem"
	"coldverdict/core/verdict"
	"coldverdict/internal/testenv"
)

func TestARecursionWithoutEndIsToldAsSuch(t *testing.T) {
	testenv.NotShort(t, "it builds in many languages")
	limits := verdict.Limits{Time: 3 * time.Second, Wall: time.Minute, Memory: 96 << 20}
	for _, tt := range []struct {
		name, source string
		checked      bool
	}{
		{"a.cpp", "#include <vector>\nstd::vector<int> f(int n) { std::vector<int> v = f(n + 1); v.push_back(n); return v; }\nint main() { return f(1).size(); }\n", false},
		{"a.c", "static int f(volatile int *n) { volatile int m = *n + 1; return f(&m) + m; }\nint main(void) { int n = 1; return f(&n); }\n", false},
		{"b.cpp", "#include <vector>\nstd::vector<int> f(int n) { std::vector<int> v = f(n + 1); v.push_back(n); return v; }\nint main() { return f(1).size(); }\n", true},
		{"A.java", "public class A { static int f(int n) { return f(n + 1) + 1; } public static void main(String[] a) { System.out.println(f(1)); } }\n", false},
		{"B.java", "public class B { static int f(int n) { return f(n + 1) + 1; } public static void main(String[] a) { System.out.println(f(1)); } }\n", true},
		{"a.rs", "fn f(n: i64) -> Vec<i64> { let mut v = f(n + 1); v.push(n); v }\nfn main() { println!(\"{}\", f(1).len()); }\n", false},
		{"a.py", "def f(n): return f(n + 1) + 1\nf(1)\n", false},
	} {
		t.Run(tt.name, func(t *testing.T) {
			needLanguageOf(t, tt.name)
			p := &problem.Problem{Dir: t.TempDir(), Cases: []problem.Case{{Name: "a/1", Accepted: []problem.Data{{Text: []byte("1")}}}}}
			outcomes, _ := calledAs(t, p, tt.name, tt.source, options{Limits: limits, Checked: tt.checked})
			require.Len(t, outcomes, 1)
			assert.Regexp(t, "[Rr]ecursion", outcomes[0].Message, "%v", outcomes[0].Verdict)
		})
	}
	for name, source := range map[string]string{
		"f.cpp":  "#include <vector>\nstd::vector<int> g(int n) { std::vector<int> v = g(n + 1); v.push_back(n); return v; }\nint f(int n) { return g(n).size(); }\n",
		"F.java": "class F { int f(int n) { return f(n + 1) + 1; } }\n",
		"f.kt":   "fun f(n: Int): Int = f(n + 1) + 1\n",
		"f.py":   "def f(n): return f(n + 1)\n",
	} {
		t.Run("a function in "+name, func(t *testing.T) {
			needLanguageOf(t, name)
			p := function(t, "f(n: int) -> int", "n = 1 => 1")
			outcomes, _ := calledAs(t, p, name, source, options{Limits: limits})
			require.Len(t, outcomes, 1)
			assert.Regexp(t, "[Rr]ecursion", outcomes[0].Message, "%v", outcomes[0].Verdict)
		})
	}
	t.Run("not what only takes much", func(t *testing.T) {
		needLanguageOf(t, "a.c")
		p := &problem.Problem{Dir: t.TempDir(), Cases: []problem.Case{{Name: "a/1"}}}
		require.NoError(t, os.WriteFile(filepath.Join(p.Dir, "a.c"), nil, 0o644))
		outcomes, _ := calledAs(t, p, "a.c", "#include <stdlib.h>\n#include <string.h>\nint main(void) { for (;;) memset(malloc(1 << 20), 1, 1 << 20); }\n", options{Limits: limits})
		assert.Equal(t, verdict.MemoryLimit, outcomes[0].Verdict)
		assert.Empty(t, outcomes[0].Message)
	})
}
