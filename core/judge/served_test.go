package judge

import (
	"bytes"
	"fmt"
	"io"
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

// servable builds a solution of a problem of programs, and returns what answers inputs, served or not.
func servable(t *testing.T, language, file, source string, change func(*problem.Problem)) (p *Prepared, answer func(served bool, inputs ...string) (printed []string, outcomes []verdict.Outcome)) {
	t.Helper()
	of := &problem.Problem{Dir: t.TempDir()}
	of.Limits.General = verdict.Limits{Time: time.Second, Wall: 3 * time.Second, Memory: 256 << 20, Output: 1 << 20, Processes: 100}
	if change != nil {
		change(of)
	}
	require.NoError(t, os.WriteFile(filepath.Join(of.Dir, file), []byte(source), 0o600))
	p, end, err := OpenStarted(t.Context(), of, Env{Cache: testenv.SharedDir(), Jobs: 1}, []problem.Solution{{File: file, Language: language}}, BuildOptions{}, func(Event) {})
	require.NoError(t, err)
	t.Cleanup(func() { assert.NoError(t, end()) })
	require.NoError(t, p.Serve(t.Context()))
	return p, func(served bool, inputs ...string) (printed []string, outcomes []verdict.Outcome) {
		t.Helper()
		cases := make([]problem.Case, len(inputs))
		buffers := make([]bytes.Buffer, len(inputs))
		for i, text := range inputs {
			cases[i] = problem.Case{Name: fmt.Sprint(i), Input: problem.Data{Text: []byte(text), Size: int64(len(text))}}
		}
		outcomes, err := p.Judge(t.Context(), 0, Request{Cases: cases, SkipRerun: true, Served: served, Output: func(i int) io.Writer {
			buffers[i].Reset()
			return &buffers[i]
		}})
		require.NoError(t, err)
		for i := range buffers {
			printed = append(printed, buffers[i].String())
		}
		return printed, outcomes
	}
}

func slowToBuild(tool string) bool { return tool == "kotlinc" || tool == "scalac" || tool == "tsc" }

func TestWhatIsServedAnswersAsInARunOfItsOwn(t *testing.T) {
	inputs := []string{"2\n30 12\n", "0\n\n", "3\n1 2 3\n", "1\n-7", "4\n1 2 3 4\n"}
	for _, tt := range []struct{ name, tool, file, source string }{
		{"sum", "python3", "a.py", "import sys\nn = int(input())\nprint(sum(map(int, sys.stdin.read().split()[:n])))\n"},
		{"a global", "python3", "a.py", "seen = []\nn = int(input())\nseen.append(n)\nprint(len(seen), __name__, __file__[-5:], sys.argv[1:] if 'sys' in dir() else '')\n"},
		{"a function, an exit, and what is left to do at the end", "python3", "a.py", "import atexit, sys\ndef main():\n    n = int(sys.stdin.buffer.readline())\n    sys.stdout.write(str(n))\n    atexit.register(print, 'end')\n    sys.exit()\nmain()\n"},
		{"threads, recursion and a file", "python3", "a.py", "import threading, sys\nsys.setrecursionlimit(10**6)\nthreading.stack_size(1 << 26)\ndef deep(n): return 0 if n == 0 else 1 + deep(n - 1)\ndef main():\n    n = int(input())\n    open('kept', 'a').write('x')\n    print(deep(20000) + n, open(0).read().split())\nt = threading.Thread(target=main)\nt.start()\n"},
		{"all of standard input by number", "python3", "a.py", "import os\ndata = os.read(0, 100).split()\nos.write(1, b' '.join(data))\n"},
		{"sum", "pypy3", "a.py", "import sys\nn = int(input())\nprint(sum(map(int, sys.stdin.read().split()[:n])))\n"},
		{"sum", "ruby", "a.rb", "n = gets.to_i\n$seen = ($seen || 0) + 1\nat_exit { puts $seen }\nputs STDIN.read.split.first(n).sum(&:to_i)\n"},
		{"sum", "javac", "Sum.java", "import java.util.*;\npublic class Sum { static int seen; public static void main(String[] x) { seen++; Scanner in = new Scanner(System.in); int n = in.nextInt(), s = 0; while (n-- > 0) s += in.nextInt(); System.out.println(s + \" \" + seen + \" \" + x.length); } }\n"},
		{"threads, an exit and deep recursion", "javac", "Deep.java", "import java.io.*;\nclass Deep { static int deep(int n) { return n == 0 ? 0 : 1 + deep(n - 1); }\npublic static void main(String[] x) throws Exception { BufferedReader in = new BufferedReader(new InputStreamReader(System.in)); String line = in.readLine(); Thread t = new Thread(null, () -> System.out.println(deep(20000)), \"\", 1 << 26); t.start(); t.join(); System.err.println(\"note\"); System.out.printf(\"%s%n\", line); System.out.flush(); System.exit(0); } }\n"},
		{"lines", "kotlinc", "a.kt", "fun main() {\n    val all = generateSequence(::readLine).toList()\n    println(all.joinToString(\"|\"))\n}\n"},
		{"lines", "scalac", "Lines.scala", "object Lines extends App { println(io.Source.stdin.getLines().mkString(\"|\")) }\n"},
		{"all at once", "node", "a.js", "const [n, ...a] = require('fs').readFileSync(0, 'utf8').split(/\\s+/).filter(Boolean).map(Number);\nseen = typeof seen === 'undefined' ? 1 : seen + 1;\nconsole.log(a.slice(0, n).reduce((x, y) => x + y, 0), seen, [1, { a: new Set([2]) }], process.argv.length, require.main === module);\n"},
		{"by events", "node", "a.js", "let text = '';\nprocess.stdin.on('data', (d) => text += d);\nprocess.stdin.on('end', () => { console.error('note'); process.stdout.write(text.toUpperCase() + '!\\n'); });\n"},
		{"line by line, later", "node", "a.js", "const rl = require('readline').createInterface({ input: process.stdin });\n(async () => { let s = 0; for await (const l of rl) { await new Promise((r) => setTimeout(r, 1)); s += l.length; } console.log(s); process.on('exit', () => console.log('end')); })();\n"},
		{"in pieces", "node", "a.js", "const fs = require('fs');\nconst b = Buffer.alloc(4);\nlet s = '', n;\nwhile ((n = fs.readSync(0, b, 0, 4, null)) > 0) s += b.toString('latin1', 0, n);\nfs.writeSync(1, s + fs.fstatSync(0).size);\nprocess.exit();\n"},
		{"typed", "tsc", "a.ts", "declare function require(name: string): any;\nconst lines: string[] = require('fs').readFileSync('/dev/stdin', 'utf8').split('\\n');\nconsole.log(lines.map((l): number => l.length).join(' '));\n"},
		{"by lines", "ruby", "a.rb", "lines = $<.each_line.map(&:chomp)\nwarn 'note'\nputs __FILE__ == $0 || $PROGRAM_NAME, lines.inspect\nexit\n"},
	} {
		t.Run(tt.tool+" "+tt.name, func(t *testing.T) {
			if testing.Short() && slowToBuild(tt.tool) {
				t.Skip("its compiler takes long, and what is tested is the same as in another row")
			}
			testenv.Need(t, tt.tool)
			language := map[string]string{"pypy3": "pypy"}[tt.tool]
			p, answer := servable(t, language, tt.file, tt.source, nil)
			require.True(t, p.Serves(0))
			usual, _ := answer(false, inputs...)
			served, outcomes := answer(true, inputs...)
			assert.Equal(t, usual, served)
			for _, o := range outcomes {
				assert.Equal(t, verdict.Unjudged, o.Verdict, o.Message)
			}
			assert.False(t, p.Unserved(0))
		})
	}
}

func TestWhatFailsWhereItIsServedIsRunAsUsual(t *testing.T) {
	for _, tt := range []struct{ tool, file, source string }{
		{"python3", "a.py", `import os, sys
n = int(input())
print(n)
if n == 3: sys.exit(7)
if n == 4: raise KeyError(n)
if n == 5:
    while True: pass
if n == 6: a = [1] * (1 << 27)
if n == 7: os.kill(os.getpid(), 11)
if n == 8: print("x" * (1 << 21))
if n == 9:
    if os.fork() == 0:
        os.setsid()
        import time
        time.sleep(2)
if n == 10: input()
`},
		{"javac", "Main.java", `import java.util.*;
public class Main {
    static int deep(int n) { return 1 + deep(n + 1); }
    public static void main(String[] x) throws Exception {
        int n = new Scanner(System.in).nextInt();
        System.out.println(n);
        if (n == 3) System.exit(7);
        if (n == 4) throw new IllegalStateException("no");
        if (n == 5) while (true) { }
        if (n == 6) { List<long[]> all = new ArrayList<>(); while (true) all.add(new long[1 << 20]); }
        if (n == 7) Runtime.getRuntime().halt(9);
        if (n == 8) System.out.println("x".repeat(1 << 21));
        if (n == 9) new Thread(() -> { while (true) { } }).start();
        if (n == 10) deep(0);
    }
}
`},
		{"node", "a.js", `const n = Number(require('fs').readFileSync(0, 'utf8'));
console.log(n);
if (n === 3) process.exit(7);
if (n === 4) throw new Error('no');
if (n === 5) for (;;) { }
if (n === 6) setTimeout(() => { throw new Error('later'); }, 5);
if (n === 7) process.exitCode = 4;
if (n === 8) console.log('x'.repeat(1 << 21));
if (n === 9) Promise.reject(new Error('no'));
if (n === 10) (function deep() { deep(); })();
`},
		{"ruby", "a.rb", `n = gets.to_i
puts n
exit 7 if n == 3
raise KeyError, "no" if n == 4
loop { } if n == 5
a = Array.new(1 << 27, 1) if n == 6
Process.kill(:SEGV, $$) if n == 7
puts "x" * (1 << 21) if n == 8
gets.strip if n == 10
`},
	} {
		t.Run(tt.tool, func(t *testing.T) {
			if testing.Short() && tt.tool != "python3" {
				t.Skip("what is ours is the same in another row")
			}
			testenv.Need(t, tt.tool)
			p, answer := servable(t, "", tt.file, tt.source, nil)
			var inputs []string
			for n := range 12 {
				inputs = append(inputs, fmt.Sprintf("%d\n", n))
			}
			usual, want := answer(false, inputs...)
			served, got := answer(true, inputs...)
			for i := range inputs {
				assert.Equal(t, want[i].Verdict.String(), got[i].Verdict.String(), "input %d: %s", i, got[i].Message)
				assert.Equal(t, want[i].ExitCode, got[i].ExitCode, "input %d", i)
				if want[i].Verdict.Passing() {
					assert.Equal(t, usual[i], served[i])
				}
			}
			assert.False(t, p.Unserved(0), "it behaves alike")
		})
	}
}

func TestWhoBehavesOtherwiseWhereItIsServedIsServedNoMore(t *testing.T) {
	testenv.Need(t, "python3")
	for name, source := range map[string]string{
		"it ends its server":         "import os\nn = int(input())\nif n == 2 and os.getppid() > 1: os.kill(os.getppid(), 9)\nprint(n)\n",
		"it does not like a server":  "import sys\nn = int(input())\nif 'gc' in sys.modules: sys.exit(3)\nprint(n)\n",
		"it ends with its first run": "import os, sys\nn = int(input())\nprint(n)\nsys.stdout.flush()\nif 'gc' in sys.modules: os.kill(os.getpid(), 9)\n",
	} {
		t.Run(name, func(t *testing.T) {
			p, answer := servable(t, "", "a.py", source, nil)
			for range 2 { // once might be by chance
				assert.True(t, p.Serves(0))
				printed, outcomes := answer(true, "1\n", "2\n", "3\n", "4\n")
				assert.Equal(t, []string{"1\n", "2\n", "3\n", "4\n"}, printed)
				for _, o := range outcomes {
					assert.Equal(t, verdict.Unjudged, o.Verdict, o.Message)
				}
				if name != "it ends its server" {
					break
				}
			}
			assert.True(t, p.Unserved(0))
			assert.False(t, p.Serves(0))
		})
	}
}

func TestRepliesAreReadInPiecesOfAnySize(t *testing.T) {
	const text = "0 1500 10 3 2\nabc!?0 0 0 0 0\n-9 7 1 0 1\nx"
	for size := 1; size <= len(text); size++ {
		var got []string
		r := &replies{waiting: time.NewTimer(time.Hour), patience: time.Hour, end: func() {}}
		r.each = func(one reply, out, errs []byte) bool {
			got = append(got, fmt.Sprintf("%d %s %q %q", one.status, one.cpu, out, errs))
			return true
		}
		for at := 0; at < len(text); at += size {
			r.Write([]byte(text[at:min(at+size, len(text))]))
		}
		assert.Equal(t, []string{`0 1.5ms "abc" "!?"`, `0 0s "" ""`, `-9 7µs "" "x"`}, got, "in pieces of %d", size)
	}
	for _, text := range []string{"hello\n", "0 0 0 -1 0\n", "0 0 0 9999999999999999999 1\n", "1 2 3\n"} {
		ended := false
		r := &replies{waiting: time.NewTimer(time.Hour), patience: time.Hour, end: func() { ended = true }, each: func(reply, []byte, []byte) bool { t.Fail(); return true }}
		r.Write([]byte(text))
		assert.True(t, ended, text)
	}
}
