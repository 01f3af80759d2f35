package judge

import (
	"os"
	"path/filepath"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"coldverdict/core/problem"
	"coldverdict/core/verdict"
	"coldverdict/internal/testenv"
)

func TestTheUsualMishapsAreExplained(t *testing.T) {
	testenv.NotShort(t, "it builds in many languages")
	for _, tt := range []struct {
		name, file, source, input string
		want                      verdict.Verdict
		remark, hint              string
	}{
		{"no main in C++", "a.cpp", "int start() { return 0; }\n", "",
			verdict.CompileError, "undefined reference to", "no main"},
		{"no main in Java", "a.java", "class Crates { void run() {} }\n", "",
			verdict.RuntimeError, "Main method not found", "a judge starts public static void main"},
		{"no main in Go", "a.go", "package main\n\nfunc start() {}\n", "",
			verdict.CompileError, "function main is undeclared", "no main"},
		{"an input read past its end in Python", "a.py", "a = input()\nb = input()\n", "1\n",
			verdict.RuntimeError, "line 2: EOFError", "past the end of the input"},
		{"an input read past its end in Java", "A.java", "public class A { public static void main(String[] a) {\n var s = new java.util.Scanner(System.in); s.nextInt();\n s.nextInt(); } }\n", "1\n",
			verdict.RuntimeError, "line 3: java.util.NoSuchElementException", "past the end of the input"},
		{"an integer divided by zero in C", "a.c", "#include <stdio.h>\nint main(void) { int n; scanf(\"%d\", &n); return 10 / n; }\n", "0\n",
			verdict.RuntimeError, "signal 8", "divided by zero\n'cold try --checked' may say at which line"},
		{"an index out of range in C++", "a.cpp", "#include <vector>\nint main() { std::vector<int> crates(3); return crates.at(3); }\n", "",
			verdict.RuntimeError, "out_of_range", "an index is out of range"},
		{"Python's own limit of recursion", "a.py", "def f(n):\n    return f(n + 1)\nf(0)\n", "",
			verdict.RuntimeError, "line 2: RecursionError", "sys.setrecursionlimit"},
		{"an endless recursion in Java", "A.java", "public class A {\n static int f(int n) { return f(n + 1) + 1; }\n public static void main(String[] a) { f(0); } }\n", "",
			verdict.MemoryLimit, "", "(stack overflow); with a stack of 16 MiB it says line 2: java.lang.StackOverflowError"},
		{"an endless recursion in JavaScript", "a.js", "function f(n) { return f(n + 1) + 1; }\nf(0);\n", "",
			verdict.RuntimeError, "Maximum call stack size exceeded", "the recursion went too deep"},
		{"Python 2", "a.py", "n = 3\nprint n\n", "",
			verdict.CompileError, "line 2: SyntaxError", "another version of the language"},
		{"a word that is no number", "a.py", "print(int(input()))\n", "crate\n",
			verdict.RuntimeError, "line 1: ValueError", "no number"},
	} {
		t.Run(tt.name, func(t *testing.T) {
			testenv.SweepUnlessQuick(t, tt.file)
			r := newTry(t, tt.input, "-")
			require.NoError(t, os.WriteFile(filepath.Join(r.problem.Dir, tt.file), []byte(tt.source), 0o644))
			r.solution.File = tt.file
			r.options.MissingIsFault, r.options.KeepAll = true, true
			r.problem.Limits = failureLimits
			got := r.result(t)
			if got.missing != nil {
				testenv.Missing(t, got.missing)
			}
			assert.Equal(t, tt.want, got.verdict, "%s %s %s", got.remark, got.log, got.stderr)
			assert.Contains(t, got.remark, tt.remark, "%s %s", got.log, got.stderr)
			assert.Contains(t, strings.Join(got.hints, "\n"), tt.hint)
		})
	}
}

func TestASlowWayToReadIsTold(t *testing.T) {
	r := newTry(t, "", "-")
	source := "#include <iostream>\nint main() { int n; while (std::cin >> n) {} for (;;) {} }\n"
	require.NoError(t, os.WriteFile(filepath.Join(r.problem.Dir, "a.cpp"), []byte(source), 0o644))
	input := filepath.Join(r.problem.Dir, "1.in")
	text := strings.Repeat("123456 7890\n", 300_000)
	require.NoError(t, os.WriteFile(input, []byte(text), 0o644))
	r.problem.Cases[0].Input = problem.Data{Path: input, Size: int64(len(text))}
	r.solution.File = "a.cpp"
	r.problem.Limits = failureLimits
	r.problem.Limits.General.Time = time.Second
	got := r.result(t)
	assert.Equal(t, verdict.TimeLimit, got.verdict)
	assert.Contains(t, strings.Join(got.hints, "\n"), "sync_with_stdio")
}

func TestACheckedBuildTellsWhatIsWrong(t *testing.T) {
	r := newTry(t, "2147483647\n", "-")
	source := "#include <cstdio>\nint main() {\n int n; scanf(\"%d\", &n);\n printf(\"%d\\n\", n + 1);\n}\n"
	require.NoError(t, os.WriteFile(filepath.Join(r.problem.Dir, "a.cpp"), []byte(source), 0o644))
	r.solution.File = "a.cpp"
	r.options.KeepAll = true
	assert.Equal(t, verdict.Unjudged, r.result(t).verdict, "the usual build goes on")
	r.options.Checked = true
	got := r.result(t)
	assert.Equal(t, verdict.RuntimeError, got.verdict)
	assert.Contains(t, got.remark, "line 4: signed integer overflow: ")
}
