//go:build linux

package judge

import (
	"bytes"
	"context"
	"fmt"
	"io"
	"os"
	"os/exec"
	"path/filepath"
	"slices"
	"strconv"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"coldverdict/core/problem"
	"coldverdict/core/toolchain"
	"coldverdict/core/value"
	"coldverdict/core/verdict"
	"coldverdict/internal/testenv"
)

// function makes a function problem of which the cases are written as arguments,
// a line "=>", and what is expected, if that is known.
func function(t *testing.T, signature string, cases ...string) *problem.Problem {
	t.Helper()
	call, err := problem.ParseCall(signature)
	require.NoError(t, err)
	p := &problem.Problem{Dir: t.TempDir(), Call: call}
	for i, c := range cases {
		args, expected, known := strings.Cut(c, "=>")
		args = strings.ReplaceAll(strings.TrimSpace(args), "; ", "\n") + "\n"
		one := problem.Case{Name: fmt.Sprintf("calls/%d", i+1), Group: "calls", Input: problem.Data{Text: []byte(args), Size: int64(len(args))}, Compare: problem.Comparison{Absolute: 1e-6, Relative: 1e-6}}
		if known {
			one.Accepted = []problem.Data{{Text: []byte(strings.TrimSpace(expected))}}
		}
		p.Cases = append(p.Cases, one)
	}
	return p
}

// calledAs writes a source, calls its function, and returns what came of each case,
// and of the whole.
func calledAs(t *testing.T, p *problem.Problem, name, source string, o options) ([]verdict.Outcome, Ended) {
	t.Helper()
	require.NoError(t, os.WriteFile(filepath.Join(p.Dir, name), []byte(source), 0o644))
	o.Cache, o.KeepAll = testenv.SharedDir(), true
	var outcomes []verdict.Outcome
	var ended Ended
	err := judgeAll(t.Context(), p, []problem.Solution{{File: name}}, o, func(e Event) {
		switch e := e.(type) {
		case Case:
			outcomes = append(outcomes, e.Outcome)
		case Ended:
			ended = e
		}
	})
	require.NoError(t, err)
	return outcomes, ended
}

// calledFunctions are the functions that every file in testdata/calls has.
var calledFunctions = []struct {
	signature string
	cases     []string
}{
	{"rows(grid: int[][]) -> int[][]", []string{
		"grid = [[1, 2, 3], [], [-2147483648, 2147483647]] => [[-2147483648, 2147483647], [], [1, 2, 3]]",
		"grid = [] => []",
		"grid = [[]] => [[]]",
	}},
	{"greet(words: text[], sign: char) -> text[]", []string{
		`words = ["say \"ice\"", "two\nlines", "Schnee ❄ und 🐧", "back\\slash", "\ttab\u0001"]; sign = "!" => ["say \"ice\"!", "two\nlines!", "Schnee ❄ und 🐧!", "back\\slash!", "\ttab\u0001!"]`,
		`words = ["", " "]; sign = "\"" => ["\"", " \""]`,
		`words = []; sign = "x" => []`,
	}},
	{"measure(n: long, x: real, cap: int?) -> long?", []string{
		"n = 9223372036854775807; x = 0.0; cap = null => 9223372036854775807",
		"n = 5; x = -0.0; cap = null => null",
		"n = -9223372036854775808; x = 1.5; cap = 7 => -9223372036854775808",
	}},
	{"extremes(temps: int[], warm: bool) -> (least: int, most: int, mean: real)", []string{
		`temps = [4, -2, 7]; warm = true => {"least": -2, "most": 7, "mean": 3.0}`,
		`temps = [4]; warm = false => [4, 0, 4]`,
		`temps = [1, 2]; warm = true => [1, 2, 1.5000001]`,
	}},
	{"echo(n: bigint) -> bigint", []string{
		"n = 123456789012345678901234567890 => 123456789012345678901234567890",
		"n = -7 => -7",
	}},
}

// overTheBorder is a call whose array ends, as its driver reads it, so many bytes
// before the first 64 KiB do, which is what drivers read at once.
func overTheBorder(shift int) string {
	const before = len("cold-call 1 0123456789abcdef0123456789abcdef\n[[")
	long := 1<<16 - 1 - shift - before
	first, ones := "1", (long+1)/2
	if long%2 == 0 {
		first, ones = "10", long/2
	}
	temps := first + strings.Repeat(",1", ones-1)
	sum, _ := strconv.Atoi(first)
	return fmt.Sprintf(`temps = [%s]; warm = true => {"least": 1, "most": %s, "mean": %v}`, temps, first, float64(sum+ones-1)/float64(ones))
}

func TestTheSameCallsAreAcceptedInEveryLanguage(t *testing.T) {
	testenv.NotShort(t, "it builds sixty drivers")
	files, err := filepath.Glob("testdata/calls/*")
	require.NoError(t, err)
	require.Len(t, files, 11)
	for _, file := range files {
		t.Run(filepath.Base(file), func(t *testing.T) {
			source, err := os.ReadFile(file)
			require.NoError(t, err)
			needLanguageOf(t, file)
			for _, f := range calledFunctions {
				p := function(t, f.signature, f.cases...)
				outcomes, ended := calledAs(t, p, filepath.Base(file), string(source), options{})
				assert.Equal(t, verdict.Accepted, ended.Verdict, "%s: %s", f.signature, ended.Message)
				for i, o := range outcomes {
					assert.Equal(t, verdict.Accepted, o.Verdict, "%s: %s %s\n%s", f.cases[i], o.Message, o.Returned, o.Stderr.Bytes)
				}
				assert.Len(t, outcomes, len(f.cases), f.signature)
			}
			for shift := range 2 {
				p := function(t, "extremes(temps: int[], warm: bool) -> (least: int, most: int, mean: real)", overTheBorder(shift))
				outcomes, _ := calledAs(t, p, filepath.Base(file), string(source), options{})
				require.Len(t, outcomes, 1)
				assert.Equal(t, verdict.Accepted, outcomes[0].Verdict, "%d bytes before a border: %s", shift, outcomes[0].Message)
			}
		})
	}
}

// needLanguageOf skips where the tools for a file are not there, and fails under CI. What takes
// long to build is tried under CI alone.
func needLanguageOf(t *testing.T, file string) {
	t.Helper()
	testenv.SweepUnlessQuick(t, file)
	l, _, err := toolchain.Ours().Choose(file, "")
	require.NoError(t, err)
	for _, tool := range [][]string{l.Compiler.Command, l.Runtime.Command} {
		there := func(name string) bool { _, err := exec.LookPath(name); return err == nil }
		if len(tool) > 0 && !slices.ContainsFunc(tool, there) {
			testenv.Missing(t, tool[0]+" is missing")
		}
	}
}

func TestCallsThatMisbehaveAreToldAsWhatTheyAreAndHarmNoOther(t *testing.T) {
	needLanguageOf(t, "f.py")
	p := function(t, "f(k: int) -> int", "k = 1 => 1", "k = 0 => 0", "k = 2 => 2")
	for _, tt := range []struct {
		name, when0 string
		want        verdict.Verdict
		words       string
	}{
		{"it ends the program", "import sys; sys.exit(3)", verdict.RuntimeError, "ended the program (exit status 3) instead of returning"},
		{"it ends the program as if all were well", "import os; os._exit(0)", verdict.RuntimeError, "ended the program (exit status 0) instead of returning"},
		{"it closes standard output", "import os; os.close(1); os.close(2); return 0", verdict.Accepted, ""},
		{"it prints what looks like a result", "print('done 5 7\\nready\\ndone 1 1', flush=True); return 0", verdict.Accepted, ""},
		{"it recurses without end", "g = lambda: g(); g()", verdict.RuntimeError, "RecursionError"},
		{"it starts threads", "import threading; t = [threading.Thread(target=lambda: sum(range(9))) for _ in range(9)]; [x.start() for x in t]; return 0", verdict.Accepted, ""},
		{"it returns the wrong type", "return '0'", verdict.WrongAnswer, `it returned "0": expected an int`},
		{"it returns a real", "return 0.0", verdict.WrongAnswer, "found the real 0.0"},
		{"it returns NaN", "return float('nan')", verdict.WrongAnswer, "it returned NaN: expected an int"},
		{"it returns what contains itself", "a = []; a.append(a); return a", verdict.WrongAnswer, "contains itself"},
		{"it returns nothing", "return", verdict.WrongAnswer, "it returned nothing, and int was expected"},
		{"it returns more than an int holds", "return 2 ** 31", verdict.WrongAnswer, "2147483648 is outside of what an int holds"},
		{"it throws", "return 1 // 0", verdict.RuntimeError, "ZeroDivisionError"},
		{"it sleeps", "import time; time.sleep(60)", verdict.Stalled, "it waited"},
		{"it runs for ever", "\n        while True: pass", verdict.TimeLimit, ""},
		{"it takes all memory", "x = [0] * (1 << 30)", verdict.MemoryLimit, ""},
		{"it reads standard input", "import sys; return len(sys.stdin.read())", verdict.Accepted, ""},
		{"it is wrong", "return 7", verdict.WrongAnswer, "expected 0, got 7"},
	} {
		t.Run(tt.name, func(t *testing.T) {
			source := "def f(k):\n    print('called with', k)\n    if k == 0:\n        " + tt.when0 + "\n    return k\n"
			outcomes, _ := calledAs(t, p, "f.py", source, options{Limits: verdict.Limits{Time: time.Second, Wall: 3 * time.Second, Memory: 128 << 20}})
			require.Len(t, outcomes, 3)
			assert.Equal(t, verdict.Accepted, outcomes[0].Verdict, outcomes[0].Message)
			assert.Equal(t, tt.want, outcomes[1].Verdict, outcomes[1].Message)
			assert.Contains(t, outcomes[1].Message, tt.words)
			assert.Equal(t, verdict.Accepted, outcomes[2].Verdict, outcomes[2].Message)
			for i, k := range []string{"1", "0", "2"} {
				// What a runtime keeps back is lost where its process is ended.
				kept := i != 1 || tt.want == verdict.Accepted || tt.want == verdict.WrongAnswer || tt.words != "" && tt.want == verdict.RuntimeError
				if kept && !strings.Contains(tt.name, "closes") && !strings.Contains(tt.name, "as if all were well") {
					assert.True(t, strings.HasPrefix(string(outcomes[i].Stdout.Bytes), "called with "+k), "%q", outcomes[i].Stdout.Bytes)
				}
			}
			assert.Less(t, outcomes[0].Usage.CPU, 500*time.Millisecond)
		})
	}
}

func TestACallThatFailsIsToldWithThePersonsOwnLine(t *testing.T) {
	testenv.NotShort(t, "it builds nine drivers")
	files, err := filepath.Glob("testdata/calls-failing/*")
	require.NoError(t, err)
	require.Len(t, files, 9)
	for _, file := range files {
		t.Run(filepath.Base(file), func(t *testing.T) {
			source, err := os.ReadFile(file)
			require.NoError(t, err)
			needLanguageOf(t, file)
			p := function(t, "f(k: int) -> int", "k = 1 => 1", "k = 0 => 0", "k = 2 => 0", "k = 3 => 0", "k = 4 => 4")
			outcomes, ended := calledAs(t, p, filepath.Base(file), string(source), options{Limits: failureLimits.General})
			require.Len(t, outcomes, 5, ended.Message)
			assert.Equal(t, verdict.RuntimeError, outcomes[1].Verdict)
			assert.Contains(t, outcomes[1].Message, fmt.Sprintf("line %d: ", lineOf(source, "fails here")))
			assert.Contains(t, outcomes[2].Message, "ended the program (exit status 0) instead of returning")
			assert.Contains(t, []verdict.Verdict{verdict.RuntimeError, verdict.MemoryLimit}, outcomes[3].Verdict, "a recursion without end")
			for _, i := range []int{0, 4} {
				assert.Equal(t, verdict.Accepted, outcomes[i].Verdict, outcomes[i].Message)
			}
		})
	}
}

func TestWhatIsLeftBetweenCallsIsTold(t *testing.T) {
	needLanguageOf(t, "f.py")
	p := function(t, "f(k: int) -> int", "k = 1 => 1", "k = 2 => 2", "k = 3 => 4")
	source := "seen = []\ndef f(k):\n    seen.append(k)\n    return len(seen) * k\n"
	outcomes, ended := calledAs(t, p, "f.py", source, options{})
	assert.Equal(t, verdict.WrongAnswer, ended.Verdict)
	assert.Equal(t, verdict.Accepted, outcomes[0].Verdict)
	assert.Contains(t, outcomes[1].Message, "right on its own, wrong after calls/1")
	assert.NotEmpty(t, outcomes[1].Hints)
	assert.NotContains(t, outcomes[2].Message, "right on its own", "it is wrong alone, too")
	outcomes, _ = calledAs(t, p, "f.py", source, options{Alone: true})
	assert.Equal(t, verdict.Accepted, outcomes[1].Verdict)
	assert.Equal(t, verdict.WrongAnswer, outcomes[2].Verdict)
}

func TestACallThatPassesTheMemoryLimitIsNeverAcceptedHoweverShortItIs(t *testing.T) {
	needLanguageOf(t, "a.cpp")
	var cases []string
	for i := range 60 {
		mib := 1
		if i == 7 || i == 40 {
			mib = 80
		}
		cases = append(cases, fmt.Sprintf("mib = %d => 1", mib))
	}
	p := function(t, "touch(mib: int) -> int", cases...)
	source := "#include <cstdlib>\n#include <cstring>\nint touch(int mib) { char *p = (char *)malloc((size_t)mib << 20); memset(p, 1, (size_t)mib << 20); int one = p[mib]; free(p); return one; }\n"
	outcomes, _ := calledAs(t, p, "a.cpp", source, options{Limits: verdict.Limits{Memory: 64 << 20}})
	require.Len(t, outcomes, 60)
	for i, o := range outcomes {
		want := verdict.Accepted
		if i == 7 || i == 40 {
			want = verdict.MemoryLimit
		}
		assert.Equal(t, want, o.Verdict, "%d: %s", i, o.Message)
	}
	outcomes, _ = calledAs(t, p, "a.cpp", source, options{Limits: verdict.Limits{Memory: 64 << 20}, Alone: true, Jobs: 2})
	assert.Equal(t, verdict.MemoryLimit, outcomes[40].Verdict)
	assert.Equal(t, verdict.Accepted, outcomes[41].Verdict)
}

func TestASourceThatCannotBeCalledSaysWhy(t *testing.T) {
	testenv.NotShort(t, "it builds in many languages")
	for _, tt := range []struct {
		name, source, words string
		want                verdict.Verdict
	}{
		{"a.py", "def g(temps, limit): return 0\n", "there is no function longest_thaw in a.py", verdict.CompileError},
		{"b.py", "import nowhere\n", "before the first call: line 1: ModuleNotFoundError", verdict.RuntimeError},
		{"a.c", "int longest_thaw(int *temps, long long limit) { return 0; }", "int temps_length", verdict.CompileError},
		{"b.c", "int longest_thaw(double *temps, int n, long long limit) { return 0; }", "declares double where the problem has int", verdict.CompileError},
		{"a.cpp", "int shortest() { return 0; }", "there is no function longest_thaw or longestThaw or LongestThaw in a.cpp", verdict.CompileError},
		{"d.cpp", "#include <map>\nint longestThaw(std::map<int, int> temps, long limit) { return 0; }", "parameter 1 is declared as a map", verdict.RuntimeError},
		{"e.cpp", "template <class T> int longestThaw(T temps, long limit) { return 0; }", "", verdict.Accepted},
		{"f.cpp", "#include <vector>\nint longestThaw(std::vector<int> temps) { return 0; }", "the function takes 2 arguments in this problem", verdict.CompileError},
		{"c.py", "def longest_thaw(temps): return 0\n", "the function in c.py cannot be called with 2 arguments", verdict.CompileError},
		{"d.py", "class A:\n    def __init__(self, n): pass\n    def longest_thaw(self, temps, limit): return 0\n", "cannot be called with 2 arguments", verdict.CompileError},
		{"e.py", "def longest_thaw(temps, limit):\n    class E(Exception):\n        def __str__(self): raise self\n    raise E\n", "", verdict.RuntimeError},
		{"a.rb", "def longest_thaw(temps) 0 end\n", "the function in a.rb cannot be called with 2 arguments", verdict.CompileError},
		{"a.go", "package main\n\nfunc longestThaw(temps []int) int { return 0 }\n", "takes 2 arguments in this problem, and is declared with 1", verdict.CompileError},
		{"A.java", "class A { int longestThaw(int[] temps) { return 0; } }", "there is no method longest_thaw with 2 parameters in A.java", verdict.CompileError},
		{"a.cs", "class A { int LongestThaw(int[] temps) { return 0; } }", "there is no method longest_thaw with 2 parameters in a.cs", verdict.CompileError},
		{"a.kt", "fun longestThaw(temps: IntArray): Int = 0", "there is no method longest_thaw with 2 parameters in a.kt", verdict.CompileError},
		{"a.js", "const longestThaw = (temps) => { throw 'cold'; };", "cold", verdict.RuntimeError},
		{"b.cpp", "int longestThaw(int temps, long limit) { return 0; }", "parameter 1 is declared as int", verdict.RuntimeError},
		{"c.cpp", "#include <vector>\nint longestThaw(std::vector<int> temps, int limit) { return 0; }", "parameter 2 is declared as int, which does not hold", verdict.RuntimeError},
	} {
		t.Run(tt.name, func(t *testing.T) {
			needLanguageOf(t, tt.name)
			p := function(t, "longest_thaw(temps: int[], limit: long) -> int", "temps = [1]; limit = 3000000000 => 0")
			outcomes, ended := calledAs(t, p, tt.name, tt.source, options{})
			assert.Equal(t, tt.want, ended.Verdict)
			said := ended.Message
			if len(outcomes) > 0 {
				said += outcomes[0].Message
			}
			assert.Contains(t, said, tt.words)
		})
	}
}

func TestAnArgumentThatIsChangedIsTheResult(t *testing.T) {
	testenv.NotShort(t, "it builds in many languages")
	for name, source := range map[string]string{
		"a.py":   "def thin(temps):\n    temps.sort()\n",
		"A.java": "class A { static void thin(int[] temps) { java.util.Arrays.sort(temps); } }",
		"a.cpp":  "#include <algorithm>\n#include <vector>\nvoid thin(std::vector<int> &temps) { std::sort(temps.begin(), temps.end()); }",
		"a.c":    "void thin(int *temps, int n) { for (int i = 0; i < n; i++) for (int j = 0; j < i; j++) if (temps[j] > temps[i]) { int t = temps[i]; temps[i] = temps[j]; temps[j] = t; } }",
		"a.go":   "package main\n\nimport \"sort\"\n\nfunc thin(temps []int) { sort.Ints(temps) }\n",
		"a.rs":   "fn thin(temps: &mut Vec<i32>) { temps.sort(); }",
		"a.js":   "function thin(temps) { temps.sort((a, b) => a - b); }",
	} {
		t.Run(name, func(t *testing.T) {
			needLanguageOf(t, name)
			p := function(t, "thin(temps: int[]) -> argument 1", "temps = [3, 1, 2] => [1, 2, 3]", "temps = [] => []", "temps = [2, 1] => [2, 1]")
			outcomes, _ := calledAs(t, p, name, source, options{})
			require.Len(t, outcomes, 3)
			assert.Equal(t, verdict.Accepted, outcomes[0].Verdict, outcomes[0].Message)
			assert.Equal(t, verdict.Accepted, outcomes[1].Verdict, outcomes[1].Message)
			assert.Equal(t, verdict.WrongAnswer, outcomes[2].Verdict)
			assert.Equal(t, "[0]", outcomes[2].Difference.Path)
		})
	}
}

func TestTheTimeOfACallIsTheFunctionsOwn(t *testing.T) {
	testenv.NotShort(t, "it builds in many languages")
	for name, source := range map[string]string{
		"a.py":   "import time\ndef burn(ms, padding):\n    began = time.process_time()\n    while time.process_time() - began < ms / 1000: pass\n    return int((time.process_time() - began) * 1e6)\n",
		"a.cpp":  "#include <ctime>\n#include <vector>\nlong long now() { timespec t; clock_gettime(CLOCK_PROCESS_CPUTIME_ID, &t); return t.tv_sec * 1000000LL + t.tv_nsec / 1000; }\nlong long burn(int ms, std::vector<int>) { long long b = now(); while (now() - b < ms * 1000) ; return now() - b; }\n",
		"A.java": "class A { static final java.lang.management.ThreadMXBean m = java.lang.management.ManagementFactory.getThreadMXBean(); static long burn(int ms, int[] padding) { long b = m.getCurrentThreadCpuTime(); while (m.getCurrentThreadCpuTime() - b < ms * 1000000L) ; return (m.getCurrentThreadCpuTime() - b) / 1000; } }",
	} {
		t.Run(name, func(t *testing.T) {
			needLanguageOf(t, name)
			// To decode the padding takes longer than the shorter calls.
			padding := "[]"
			var numbers []any
			for range 200000 {
				numbers = append(numbers, int64(1234567))
			}
			p := function(t, "burn(ms: int, padding: int[]) -> long", "ms = 5; padding = "+value.Write(numbers), "ms = 50; padding = "+padding, "ms = 0; padding = "+padding)
			outcomes, _ := calledAs(t, p, name, source, options{})
			require.Len(t, outcomes, 3)
			for _, o := range outcomes {
				var own int64
				_, err := fmt.Sscan(o.Returned, &own)
				require.NoError(t, err, o.Message)
				spent := time.Duration(own) * time.Microsecond
				// A call for the clock, and a machine that is shared: what is measured around a call is what decoding
				// its argument would be, many milliseconds, if that counted.
				room := spent/20 + 3*time.Millisecond
				assert.InDelta(t, spent, o.Usage.CPU, float64(room), "measured %v, its own %v", o.Usage.CPU, spent)
			}
		})
	}
}

func TestCallsAreMadeInGroupsAsTheyNeedEachOther(t *testing.T) {
	needLanguageOf(t, "f.py")
	p := function(t, "f(k: int) -> int", "k = 1 => 1", "k = 2 => 0", "k = 3 => 3", "k = 4 => 4")
	for i, group := range []string{"first", "second", "third", "fourth"} {
		p.Cases[i].Group = group
	}
	p.Rules = []problem.GroupRule{
		{Name: "first", Points: 40}, {Name: "second", Points: 20},
		{Name: "third", Points: 20, Needs: []string{"second"}},
		{Name: "fourth", Points: 20, Needs: []string{"first"}, Limits: verdict.Limits{Memory: 64 << 20}},
	}
	outcomes, ended := calledAs(t, p, "f.py", "calls = []\ndef f(k):\n    calls.append(k)\n    return k if k < 4 else k * len(calls)\n", options{})
	require.Len(t, outcomes, 4)
	assert.Equal(t, verdict.WrongAnswer, outcomes[1].Verdict)
	assert.Equal(t, verdict.Skipped, outcomes[2].Verdict)
	assert.Contains(t, outcomes[2].Message, "needs second, which did not pass")
	assert.Equal(t, verdict.Accepted, outcomes[3].Verdict, "limits of its own have a process of their own")
	require.NotNil(t, ended.Score)
	assert.Equal(t, 60.0, ended.Score.Points)
}

func TestManyWaysToRunCasesHoldForCalls(t *testing.T) {
	needLanguageOf(t, "f.py")
	p := function(t, "f(k: int) -> int", "k = 1 => 1", "k = 2 => 2", "k = 3 => 4", "k = 4 => 4")
	source := "def f(k):\n    return k\n"
	outcomes, _ := calledAs(t, p, "f.py", source, options{UntilFailure: true})
	assert.Len(t, outcomes, 3)
	outcomes, _ = calledAs(t, p, "f.py", source, options{Repeat: 3})
	require.Len(t, outcomes, 4)
	for _, o := range outcomes {
		require.NotNil(t, o.Spread)
		assert.Equal(t, 3, o.Spread.Runs)
		assert.LessOrEqual(t, o.Spread.Least, o.Spread.Median)
		assert.LessOrEqual(t, o.Spread.Median, o.Spread.Most)
	}
	outcomes, ended := calledAs(t, p, "f.py", source, options{Cases: []int{1, 3}, First: []int{3}})
	assert.Len(t, outcomes, 2)
	assert.Equal(t, verdict.Accepted, ended.Verdict)
	var printed bytes.Buffer
	outcomes, _ = calledAs(t, p, "f.py", source, options{Cases: []int{1}, Output: func(int, int) io.Writer { return &printed }})
	assert.Len(t, outcomes, 1)
	assert.Equal(t, "2\n", printed.String())
}

func TestACallThatSucceedsOnlySometimesIsUnsteady(t *testing.T) {
	needLanguageOf(t, "f.py")
	p := function(t, "f(k: int) -> int", "k = 1 => 1", "k = 2 => 2")
	// After others it is wrong, and on its own it crashes.
	outcomes, _ := calledAs(t, p, "f.py", "n = 0\ndef f(k):\n    global n\n    n += 1\n    if k == 2 and n == 1: raise ValueError('alone')\n    return k if k == 1 else 7\n", options{})
	assert.Equal(t, verdict.RuntimeError, outcomes[1].Verdict, "the worse of both stands")
	assert.True(t, outcomes[1].Unsteady)
}

func TestAResultMayBeAsLargeAsTheOutputLimit(t *testing.T) {
	needLanguageOf(t, "f.py")
	p := function(t, "f(k: int) -> text", "k = 10", "k = 3000000", "k = 20")
	outcomes, _ := calledAs(t, p, "f.py", "def f(k):\n    return 'x' * k\n", options{Limits: verdict.Limits{Output: 1 << 20}})
	require.Len(t, outcomes, 3)
	assert.Equal(t, []verdict.Verdict{verdict.Unjudged, verdict.OutputLimit, verdict.Unjudged}, []verdict.Verdict{outcomes[0].Verdict, outcomes[1].Verdict, outcomes[2].Verdict})
	outcomes, _ = calledAs(t, p, "f.py", "def f(k):\n    print('x' * k)\n    return ''\n", options{Limits: verdict.Limits{Output: 1 << 20}})
	assert.Equal(t, verdict.OutputLimit, outcomes[1].Verdict)
	assert.Contains(t, outcomes[1].Message, "more than 1 MiB")
	assert.Equal(t, verdict.Unjudged, outcomes[2].Verdict)
}

func TestACallThatStopsItsProcessCostsThatProcessOnly(t *testing.T) {
	needLanguageOf(t, "a.c")
	var cases []string
	for i := range 30 {
		cases = append(cases, fmt.Sprintf("k = %d => %d", i, i))
	}
	p := function(t, "f(k: int) -> int", cases...)
	outcomes, _ := calledAs(t, p, "a.c", "#include <signal.h>\n#include <stdio.h>\n#include <unistd.h>\nint f(int k) { printf(\"%d\\n\", k); if (k % 10 == 7) { fflush(stdout); raise(k == 17 ? SIGKILL : SIGSEGV); } if (k == 5) close(3); return k; }\n", options{})
	require.Len(t, outcomes, 30)
	for i, o := range outcomes {
		switch {
		case i%10 == 7:
			assert.Equal(t, verdict.RuntimeError, o.Verdict, "%d", i)
			assert.Equal(t, fmt.Sprintf("%d\n", i), string(o.Stdout.Bytes), "what it had printed is kept")
		case i == 5: // it took away what answers go to
			assert.Equal(t, verdict.RuntimeError, o.Verdict)
		case i == 6:
		default:
			assert.Equal(t, verdict.Accepted, o.Verdict, "%d: %s", i, o.Message)
		}
	}
	assert.Contains(t, outcomes[7].Message, "segmentation fault")
	assert.Contains(t, outcomes[17].Message, "killed")
}

func TestArgumentsThatCannotBeReadAreAFaultOfOurs(t *testing.T) {
	needLanguageOf(t, "f.py")
	p := function(t, "f(k: int) -> int", "k = 1 => 1", "k = 2 => 2", "k = 3 => 3")
	p.Cases[1].Input = problem.Data{Path: filepath.Join(t.TempDir(), "gone")}
	p.Cases[2].Accepted = []problem.Data{{Text: []byte("three")}}
	outcomes, _ := calledAs(t, p, "f.py", "def f(k):\n    return k\n", options{})
	require.Len(t, outcomes, 3)
	assert.Equal(t, verdict.Accepted, outcomes[0].Verdict)
	assert.Equal(t, verdict.Fault, outcomes[1].Verdict)
	assert.Contains(t, outcomes[1].Message, "cannot read the arguments")
	assert.Equal(t, verdict.Fault, outcomes[2].Verdict)
	assert.Contains(t, outcomes[2].Message, "the expected result of calls/3")
}

func TestCallsEndWithTheContext(t *testing.T) {
	needLanguageOf(t, "f.py")
	p := function(t, "f(k: int) -> int", "k = 1 => 1")
	require.NoError(t, os.WriteFile(filepath.Join(p.Dir, "f.py"), []byte("import time\ndef f(k):\n    time.sleep(60)\n"), 0o644))
	ctx, cancel := context.WithCancel(t.Context())
	began := time.Now()
	err := judgeAll(ctx, p, []problem.Solution{{File: "f.py"}}, options{Cache: testenv.SharedDir(), Limits: verdict.Limits{Wall: time.Minute}}, func(e Event) {
		if _, ok := e.(Held); ok {
			time.AfterFunc(300*time.Millisecond, cancel)
		}
	})
	assert.ErrorIs(t, err, context.Canceled)
	assert.Less(t, time.Since(began), 30*time.Second)
}

func TestCallsOfARequestShareAProcess(t *testing.T) {
	needLanguageOf(t, "f.py")
	p := function(t, "f(n: int) -> int", "n = 1 => 1")
	require.NoError(t, os.WriteFile(filepath.Join(p.Dir, "f.py"), []byte("calls = 0\ndef f(n):\n    global calls\n    calls += 1\n    return calls\n"), 0o644))
	s, err := started(t, p, []problem.Solution{{File: "f.py"}}, options{Cache: testenv.SharedDir(), Jobs: 1})
	require.NoError(t, err)
	calls := []problem.Case{asked("n = 7\n", "1\n"), asked("n = 7\n", "2\n"), asked("n = 7\n", "1\n")}
	for once, message := range map[bool]string{true: "expected 1, got 3", false: "right on its own, wrong after asked/1"} {
		outcomes, err := s.Judge(context.Background(), 0, Request{Cases: calls, SkipRerun: once})
		require.NoError(t, err)
		require.Len(t, outcomes, 3)
		assert.Equal(t, verdict.Accepted, outcomes[1].Verdict)
		assert.Equal(t, verdict.WrongAnswer, outcomes[2].Verdict)
		assert.Contains(t, outcomes[2].Message, message)
	}
}

func TestWhatIsLazyIsComputedWithinTheCall(t *testing.T) {
	testenv.NotShort(t, "it builds in many languages")
	for name, source := range map[string]string{
		"lazy.py":   "import time\ndef spread(n):\n    for i in range(n):\n        end = time.process_time() + 0.02\n        while time.process_time() < end: pass\n        yield i\n",
		"lazy.rb":   "def now = Process.clock_gettime(Process::CLOCK_PROCESS_CPUTIME_ID)\ndef spread(n)\n  (0...n).lazy.map { |i| e = now + 0.02; nil while now < e; i }\nend\n",
		"lazy.js":   "function* spread(n) {\n  for (let i = 0; i < n; i++) {\n    const c = process.cpuUsage();\n    for (;;) { const u = process.cpuUsage(c); if (u.user + u.system > 20000) break; }\n    yield i;\n  }\n}\n",
		"Lazy.java": "import java.util.stream.*;\nclass Lazy {\n  static int slow(int i) { long end = java.lang.management.ManagementFactory.getThreadMXBean().getCurrentThreadCpuTime() + 20_000_000; while (java.lang.management.ManagementFactory.getThreadMXBean().getCurrentThreadCpuTime() < end) {} return i; }\n  IntStream spread(int n) { return IntStream.range(0, n).map(Lazy::slow); }\n}\n",
		"lazy.kt":   "fun spread(n: Int) = (0 until n).asSequence().map { val t = java.lang.management.ManagementFactory.getThreadMXBean(); val end = t.currentThreadCpuTime + 20_000_000; while (t.currentThreadCpuTime < end) {}; it }\n",
		"lazy.cs":   "using System;\nusing System.Collections.Generic;\nusing System.Diagnostics;\nclass Lazy { public IEnumerable<int> Spread(int n) { for (int i = 0; i < n; i++) { var p = Process.GetCurrentProcess(); var end = p.TotalProcessorTime.TotalMilliseconds + 20; do { p.Refresh(); } while (p.TotalProcessorTime.TotalMilliseconds < end); yield return i; } } }\n",
	} {
		t.Run(name, func(t *testing.T) {
			needLanguageOf(t, name)
			p := function(t, "spread(n: int) -> int[]", "n = 5 => [0, 1, 2, 3, 4]", "n = 0 => []")
			outcomes, ended := calledAs(t, p, name, source, options{Limits: verdict.Limits{Time: 5 * time.Second, Wall: time.Minute}})
			require.Equal(t, verdict.Accepted, ended.Verdict, outcomes)
			assert.Greater(t, outcomes[0].Usage.CPU, 80*time.Millisecond, "it is not free")
		})
	}
	for name, source := range map[string]string{
		"late.py":   "def spread(n):\n    yield 1 // (n - n)\n",
		"late.js":   "function* spread(n) { yield null.x; }\n",
		"Late.java": "import java.util.stream.*;\nclass Late { IntStream spread(int n) { return IntStream.of(1).map(i -> i / (n - n)); } }\n",
	} {
		t.Run(name, func(t *testing.T) {
			needLanguageOf(t, name)
			p := function(t, "spread(n: int) -> int[]", "n = 5 => []")
			outcomes, ended := calledAs(t, p, name, source, options{})
			assert.Equal(t, verdict.RuntimeError, ended.Verdict, outcomes)
		})
	}
}

func TestWhatIsNeverDoneIsStalledInThoseWords(t *testing.T) {
	for _, tt := range []struct{ tool, file, source, says string }{
		{"node", "a.js", "function depth(n) { return n < 0 ? new Promise(() => {}) : n; }\n", "the promise that it returned never settles"},
		{"python3", "a.py", "import asyncio\nasync def depth(n):\n    if n < 0: await asyncio.Future()\n    return n\n", "what it returned is never done"},
		{"mcs", "A.cs", "public class A { public async Task<int> Depth(int n) { await Task.Delay(20); if (n < 0) await new TaskCompletionSource<int>().Task; return n; } }\n", "what it returned is never done"},
		{"mcs", "B.cs", "public class B { public int Depth(int n) { if (n < 0) System.Threading.Thread.Sleep(60000); return n; } }\n", "it waited"},
	} {
		t.Run(tt.file, func(t *testing.T) {
			testenv.Need(t, tt.tool)
			p := function(t, "depth(n: int) -> int", "n: 4 => 4", "n: -1 => 0", "n: 5 => 5")
			outcomes, _ := calledAs(t, p, tt.file, tt.source, options{Limits: verdict.Limits{Time: time.Second, Wall: 2 * time.Second}})
			require.Len(t, outcomes, 3)
			assert.Equal(t, verdict.Accepted.String(), outcomes[0].Verdict.String(), outcomes[0].Message)
			assert.Equal(t, verdict.Stalled.String(), outcomes[1].Verdict.String())
			assert.Contains(t, outcomes[1].Message, tt.says)
			assert.Equal(t, verdict.Accepted.String(), outcomes[2].Verdict.String(), outcomes[2].Message)
		})
	}
}
