//go:build linux

package judge

import (
	"fmt"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"coldverdict/core/box"
	"coldverdict/core/call"
	"coldverdict/core/problem"
	"coldverdict/core/toolchain"
	"coldverdict/core/verdict"
	"coldverdict/internal/testenv"
)

func TestACallEndsWhereItIsMarked(t *testing.T) {
	began := time.Now()
	at := func(ms int) time.Time { return began.Add(time.Duration(ms) * time.Millisecond) }
	p := protocol{calls: 3, long: make([]bool, 3), since: began}
	p.marked(1, at(1))
	assert.False(t, p.returned, "nothing is called before it is ready")
	require.True(t, p.take(call.Answer{Kind: call.Ready}, at(10), 0))
	p.marked(0, at(12))
	assert.False(t, p.returned)

	messages := p.messages
	p.marked(1, at(30))
	assert.True(t, p.returned)
	assert.Greater(t, p.messages, messages, "who watches looks at the clock anew")
	p.marked(1, at(40))
	require.True(t, p.take(call.Answer{Kind: call.Done, Spent: 15 * time.Millisecond}, at(5000), 20*time.Millisecond))
	assert.Equal(t, 20*time.Millisecond, p.arrived[0], "to write what it returned took 4970 more")
	assert.Equal(t, 15*time.Millisecond, p.answers[0].Spent)

	require.True(t, p.take(call.Answer{Kind: call.Done, Spent: time.Millisecond}, at(5400), 300*time.Millisecond))
	assert.Equal(t, 400*time.Millisecond, p.arrived[1], "of a call that was not marked, all of it is its own")
	assert.Equal(t, 300*time.Millisecond, p.answers[1].Spent, "and its clock is not believed")
}

func TestInASequenceOnlyTheCallsCount(t *testing.T) {
	began := time.Now()
	at := func(ms int) time.Time { return began.Add(time.Duration(ms) * time.Millisecond) }
	p := protocol{calls: 2, long: make([]bool, 2), since: began}
	assert.False(t, p.take(call.Answer{Kind: call.Writes}, at(1), 0), "it is not ready")
	p = protocol{calls: 2, long: make([]bool, 2), since: began, ready: true}
	for i, kind := range []call.Kind{call.Writes, call.GoesOn, call.Writes, call.GoesOn} {
		require.True(t, p.take(call.Answer{Kind: kind}, at(10+100*i), 0))
		assert.Equal(t, kind == call.Writes, p.returned)
	}
	p.marked(1, at(350))
	require.True(t, p.take(call.Answer{Kind: call.Done, Spent: 5 * time.Millisecond}, at(1000), 0))
	assert.Equal(t, 150*time.Millisecond, p.arrived[0], "10 to the first, 100 to the second, 40 to the end")
	require.True(t, p.take(call.Answer{Kind: call.Done}, at(1007), 0))
	assert.Equal(t, 7*time.Millisecond, p.arrived[1], "the next one begins anew")
	assert.False(t, p.take(call.Answer{Kind: call.GoesOn}, at(1010), 0), "all calls were answered")
}

func TestToWriteResultsOfASequenceIsNotItsTime(t *testing.T) {
	testenv.NotShort(t, "it runs for some seconds")
	for name, source := range map[string]string{
		"a.py":     "class Log:\n    def all(self, n, whole):\n        a = []\n        for i in range(n): a.append(i)\n        return a if whole else [0]\n",
		"a.rb":     "class Log\n  def all(n, whole)\n    a = []\n    n.times { |i| a << i }\n    whole ? a : [0]\n  end\nend\n",
		"a.js":     "class Log { all(n, whole) { const a = []; for (let i = 0; i < n; i++) a.push(i); return whole ? a : [0]; } }\n",
		"Log.java": "class Log { int[] all(int n, boolean whole) { int[] a = new int[n]; for (int i = 0; i < n; i++) a[i] = i; return whole ? a : new int[1]; } }\n",
		"Log.cs":   "public class Log { public List<int> All(int n, bool whole) { var a = new List<int>(); for (int i = 0; i < n; i++) a.Add(i); return whole ? a : new List<int> { 0 }; } }\n",
	} {
		t.Run(name, func(t *testing.T) {
			needLanguageOf(t, name)
			class, err := problem.ParseClass("Log(); all(n: int, whole: bool) -> int[]")
			require.NoError(t, err)
			p := &problem.Problem{Dir: t.TempDir(), Call: class}
			for i, whole := range []string{"false", "true", "false"} {
				text := "new()\n" + strings.Repeat("all(700000, "+whole+")\n", 3)
				p.Cases = append(p.Cases, problem.Case{Name: fmt.Sprintf("calls/%d", i+1), Group: "calls", Input: problem.Data{Text: []byte(text), Size: int64(len(text))}})
			}
			outcomes, ended := calledAs(t, p, name, source, options{Limits: verdict.Limits{Time: time.Minute, Wall: 2 * time.Minute, Memory: 2 << 30, Output: 64 << 20}})
			require.Len(t, outcomes, 3, ended.Message)
			require.Equal(t, verdict.Unjudged, outcomes[1].Verdict, outcomes[1].Message)
			one, whole := max(outcomes[0].Usage.CPU, outcomes[2].Usage.CPU), outcomes[1].Usage.CPU
			assert.Less(t, whole, 3*one+150*time.Millisecond, "to return one took %v", one)
		})
	}
}

// The same is computed, and all of it returned, or the last of it.
func TestToWriteAResultIsNotTheFunctionsTime(t *testing.T) {
	testenv.NotShort(t, "it builds in many languages")
	for name, source := range map[string]string{
		"f.c":     "#include <stdbool.h>\n#include <stdlib.h>\nint *f(int n, bool all, int *size)\n{\n    int *a = malloc(n * sizeof *a);\n    for (int i = 0; i < n; i++) a[i] = i;\n    *size = all ? n : 1;\n    return a;\n}\n",
		"f.cpp":   "vector<int> f(int n, bool all) {\n    vector<int> a(n);\n    for (int i = 0; i < n; i++) a[i] = i;\n    if (!all) a.resize(1);\n    return a;\n}\n",
		"F.cs":    "public class F { public int[] f(int n, bool all) { var a = new int[n]; for (int i = 0; i < n; i++) a[i] = i; return all ? a : new int[] { 0 }; } }\n",
		"f.clj":   "(defn f [n all] (let [a (vec (range n))] (if all a (subvec a 0 1))))\n",
		"f.d":     "int[] f(int n, bool all) { auto a = new int[n]; foreach (i, ref x; a) x = cast(int) i; return all ? a : a[0 .. 1]; }\n",
		"f.go":    "func f(n int, all bool) []int {\n\ta := make([]int, n)\n\tfor i := range a {\n\t\ta[i] = i\n\t}\n\tif !all {\n\t\ta = a[:1]\n\t}\n\treturn a\n}\n",
		"F.java":  "class F { int[] f(int n, boolean all) { int[] a = new int[n]; for (int i = 0; i < n; i++) a[i] = i; return all ? a : new int[1]; } }\n",
		"f.js":    "function f(n, all) { const a = []; for (let i = 0; i < n; i++) a.push(i); return all ? a : [0]; }\n",
		"f.lua":   "function f(n, all)\n  local a = {}\n  for i = 1, n do a[i] = i - 1 end\n  return all and a or {0}\nend\n",
		"f.ml":    "let f n all = let a = Array.init n (fun i -> i) in if all then a else [|0|]\n",
		"f.nim":   "proc f(n: int, all: bool): seq[int] =\n  for i in 0 ..< n: result.add i\n  if not all: result.setLen(1)\n",
		"f.pas":   "{$mode objfpc}\ntype TInts = array of longint;\nfunction f(n: longint; all: boolean): TInts;\nvar i: longint;\nbegin\n  setlength(result, n);\n  for i := 0 to n - 1 do result[i] := i;\n  if not all then setlength(result, 1);\nend;\n",
		"f.php":   "<?php\nfunction f($n, $all) { $a = []; for ($i = 0; $i < $n; $i++) $a[] = $i; return $all ? $a : [0]; }\n",
		"f.pl":    "sub f { my ($n, $all) = @_; my @a; push @a, $_ for 0 .. $n - 1; return $all ? \\@a : [0]; }\n1;\n",
		"f.py":    "def f(n, all):\n    a = []\n    for i in range(n): a.append(i)\n    return a if all else [0]\n",
		"f.rb":    "def f(n, all)\n  a = []\n  n.times { |i| a << i }\n  all ? a : [0]\nend\n",
		"f.scala": "object F { def f(n: Int, all: Boolean) = { val a = Array.range(0, n); if (all) a else Array(0) } }\n",
		"f.rs":    "fn f(n: i32, all: bool) -> Vec<i32> {\n    let mut a: Vec<i32> = (0..n).collect();\n    if !all {\n        a.truncate(1);\n    }\n    a\n}\n",
	} {
		t.Run(name, func(t *testing.T) {
			needLanguageOf(t, name)
			const n = 1_500_000
			p := function(t, "f(n: int, all: bool) -> int[]", fmt.Sprintf("n = %d; all = false => [0]", n), fmt.Sprintf("n = %d; all = true", n), fmt.Sprintf("n = %d; all = false => [0]", n))
			outcomes, ended := calledAs(t, p, name, source, options{Limits: verdict.Limits{Time: time.Minute, Wall: 2 * time.Minute, Memory: 2 << 30, Output: 64 << 20}})
			require.Len(t, outcomes, 3, ended.Message)
			require.Equal(t, verdict.Unjudged, outcomes[1].Verdict, outcomes[1].Message)
			one, whole := max(outcomes[0].Usage.CPU, outcomes[2].Usage.CPU), outcomes[1].Usage.CPU
			assert.Less(t, whole, 3*one+150*time.Millisecond, "to return one took %v", one)
		})
	}
}

// What a person begins with must build before they have written anything, whatever the function takes.
func TestStartingSourcesWithNodesBuild(t *testing.T) {
	testenv.NotShort(t, "it builds two dozen sources")
	for signature, given := range map[string]string{
		"f(a: list2(text)) -> list2(text)":                             `a = ["tern"]`,
		"f(a: list(int)) -> argument 1":                                "a = [1, 2]",
		"f(a: tree(int), b: node of argument 1) -> node of argument 1": "a = [1, 2]; b = 1",
		"f(a: graph(int)) -> copy of argument 1":                       "a = [[2], [1]]",
		"f(a: tree(long)[], b: nary(int)) -> int[]":                    "a = [[1], []]; b = [1, null, 2]",
		"f(a: int[][]) -> argument 1":                                  "a = [[1], []]",
	} {
		function := function(t, signature, given)
		for _, name := range []string{"c", "cpp", "go", "rust"} {
			l, _, err := toolchain.Ours().Choose("", name)
			require.NoError(t, err)
			file, source, err := call.Start(function.Call, l, "camp")
			require.NoError(t, err, "%s in %s", signature, name)
			t.Run(signature+" in "+name, func(t *testing.T) {
				needLanguageOf(t, file)
				p := *function
				p.Dir = t.TempDir()
				outcomes, ended := calledAs(t, &p, file, string(source), options{})
				require.Len(t, outcomes, 1, "%s: %s", ended.Message, source)
				assert.NotContains(t, []verdict.Verdict{verdict.CompileError, verdict.Fault}, outcomes[0].Verdict, "%s\n%s", outcomes[0].Message, source)
			})
		}
	}
}

// Nobody can take back what a function in C was given and has returned.
func TestWhatEarlierCallsLeftInMemoryIsNoFailure(t *testing.T) {
	limits := verdict.Limits{Time: 10 * time.Second, Wall: time.Minute, Memory: 48 << 20, Output: 64 << 20}
	for _, tt := range []struct{ name, file, signature, source, given, returned string }{
		{"nodes in C", "f.c", "f(a: list(int), n: int) -> int", "int f(struct ListNode *a, int n) { return a->val; }\n", "a = %s; n = 1", "7"},
		{"nodes in C++", "f.cpp", "f(a: list(int), n: int) -> int", "int f(ListNode *a, int n) { return a->val; }\n", "a = %s; n = 1", "7"},
		{"what C returns", "g.c", "g(n: int) -> int[]", "#include <stdlib.h>\nint *g(int n, int *size)\n{\n    int *a = malloc(4 << 20);\n    for (int i = 0; i < 1 << 20; i++) a[i] = n;\n    *size = 2;\n    return a;\n}\n", "n = 1", "[1, 1]"},
	} {
		t.Run(tt.name, func(t *testing.T) {
			needLanguageOf(t, tt.file)
			given := tt.given
			if tt.file != "g.c" {
				list := "[7"
				for range 60_000 {
					list += ", 7"
				}
				given = fmt.Sprintf(given, list+"]")
			}
			cases := make([]string, 40)
			for i := range cases {
				cases[i] = given + " => " + tt.returned
			}
			outcomes, ended := calledAs(t, function(t, tt.signature, cases...), tt.file, tt.source, options{Limits: limits})
			assert.Equal(t, verdict.Accepted, ended.Verdict, ended.Message)
			for _, o := range outcomes {
				assert.Equal(t, verdict.Accepted, o.Verdict, o.Message)
				assert.Less(t, o.Usage.Memory, limits.Memory)
			}
		})
	}
	t.Run("a call that takes too much on its own", func(t *testing.T) {
		needLanguageOf(t, "h.c")
		p := function(t, "h(n: int) -> int", "n = 1 => 1", "n = 1000 => 1000", "n = 2 => 2")
		outcomes, _ := calledAs(t, p, "h.c", "#include <stdlib.h>\n#include <string.h>\nint h(int n)\n{\n    static char *volatile kept;\n    kept = malloc((size_t)n << 20);\n    memset(kept, 1, (size_t)n << 20);\n    return n;\n}\n", options{Limits: limits})
		require.Len(t, outcomes, 3)
		assert.Equal(t, []verdict.Verdict{verdict.Accepted, verdict.MemoryLimit, verdict.Accepted}, []verdict.Verdict{outcomes[0].Verdict, outcomes[1].Verdict, outcomes[2].Verdict})
	})
}

// What starts a program is as large as we are, until the program is there.
func TestTheMemoryOfACallIsNotThatOfWhatStartsIt(t *testing.T) {
	needLanguageOf(t, "f.c")
	cases := make([]string, 60)
	for i := range cases {
		cases[i] = fmt.Sprintf("n = %d => %[1]d", i)
	}
	outcomes, ended := calledAs(t, function(t, "f(n: int) -> int", cases...), "f.c", "int f(int n) { return n; }\n", options{Limits: verdict.Limits{Time: time.Second, Wall: time.Minute, Memory: 64 << 20}, Alone: true})
	require.Equal(t, verdict.Accepted, ended.Verdict, ended.Message)
	for _, o := range outcomes {
		assert.Less(t, o.Usage.Memory, int64(6<<20))
	}
}

func TestAStackThatIsOnlyLaidClaimToIsNoDeepRecursion(t *testing.T) {
	limits := verdict.Limits{Memory: 256 << 20}
	for _, tt := range []struct {
		stack, memory int64
		deep          bool
	}{{257 << 20, 258 << 20, true}, {130 << 20, 140 << 20, true}, {296 << 20, 37 << 20, false}, {8 << 20, 258 << 20, false}, {0, 258 << 20, false}} {
		o := verdict.Outcome{Verdict: verdict.TimeLimit, Usage: verdict.Usage{Memory: tt.memory}}
		noteDepth(&o, measured{result: box.Result{Stack: tt.stack}}, limits)
		assert.Equal(t, tt.deep, len(o.Hints) > 0, "%d of %d", tt.stack, tt.memory)
	}
	t.Run("Ruby", func(t *testing.T) {
		needLanguageOf(t, "a.rb")
		p := &problem.Problem{Dir: t.TempDir(), Cases: []problem.Case{{Name: "a/1"}}}
		outcomes, _ := calledAs(t, p, "a.rb", "a = (0...3_000_000).to_a\nloop { a[0] += 1 }\n", options{Limits: verdict.Limits{Time: time.Second, Wall: time.Minute, Memory: 256 << 20}})
		require.Len(t, outcomes, 1)
		assert.Equal(t, verdict.TimeLimit, outcomes[0].Verdict)
		assert.NotContains(t, outcomes[0].Message, "recursion")
	})
}
