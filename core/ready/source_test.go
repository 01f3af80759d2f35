package ready

import (
	"os"
	"path/filepath"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"coldverdict/core/judge"
	"coldverdict/core/problem"
	"coldverdict/core/toolchain"
)

// read looks at a source of some name, in a folder with a file of the person's own beside.
func read(t *testing.T, p *problem.Problem, name, text string) []Finding {
	t.Helper()
	p.Dir = t.TempDir()
	for _, beside := range []string{"own.h", "own.py"} {
		require.NoError(t, os.WriteFile(filepath.Join(p.Dir, beside), nil, 0o644))
	}
	language, _, err := toolchain.Ours().Choose(name, "")
	require.NoError(t, err)
	return Read(p, judge.Plan{Solution: problem.Solution{File: name}, Build: &toolchain.Build{Language: language}}, []byte(text))
}

func TestWhatAJudgeMayRefuseIsFoundInItsLine(t *testing.T) {
	wants := problem.Judge{Class: "Main", Versions: map[string]string{"java": "8", "python": "3.7"}, SourceLimit: 200}
	for _, tt := range []struct {
		name, file, text string
		line             int
		sure             bool
		says             string
	}{
		{"a header of one's own", "a.cpp", "#include <cstdio>\n#include \"own.h\"\nint main() {}\n", 2, true, "own.h is a file of your own"},
		{"a module of one's own", "a.py", "import sys\nfrom own import x\n", 2, true, "own.py is a file of your own"},
		{"a file of Ruby's own", "a.rb", "require 'set'\nrequire_relative 'own'\n", 2, true, "own is a file of your own"},
		{"a file of JavaScript's own", "a.js", "const x = require('./own');\n", 1, true, "./own is a file of your own"},
		{"a module of Rust", "a.rs", "mod own;\nfn main() {}\n", 1, true, "the module own"},
		{"freopen", "a.cpp", "int main() {\n    freopen(\"frost.in\", \"r\", stdin);\n}\n", 2, false, "freopen"},
		{"a stream of a file", "a.cpp", "#include <fstream>\nint main() { std::ifstream in(\"frost.in\"); }\n", 2, false, "it opens the file frost.in"},
		{"a reader of a file", "Main.java", "class Main { public static void main(String[] a) throws Exception { new FileReader(\"frost.in\"); } }\n", 1, false, "frost.in"},
		{"a pragma", "a.cpp", "#pragma GCC optimize(\"O3\")\nint main() {}\n", 1, false, "#pragma"},
		{"a long", "a.cpp", "int main() {\n    unsigned long x = 0;\n}\n", 2, false, "32 bits"},
		{"a seed by time", "a.cpp", "int main() { srand(time(0)); }\n", 1, false, "seeded by the time"},
		{"words for the debugger", "a.cpp", "int main() { std::cerr << 1; }\n", 1, false, "standard error"},
		{"a package", "Main.java", "package camp.north;\nclass Main { public static void main(String[] a) {} }\n", 1, true, "package line"},
		{"a package of Kotlin", "a.kt", "package camp.north\nfun main() {}\n", 1, false, "package line"},
		{"another class", "Teams.java", "public class Teams { public static void main(String[] a) {} }\n", 1, true, "the judge wants Main"},
		{"no public class of the name", "Teams.java", "class Teams { public static void main(String[] a) {} }\n", 0, true, "no class Main"},
		{"a second main", "Main.java", "public class Main { public static void main(String[] a) {} }\nclass B { public static void main(String[] a) {} }\n", 2, false, "a second main"},
		{"newer Java", "Main.java", "class Main { public static void main(String[] a) {\n  var x = 1;\n} }\n", 2, true, "var came later"},
		{"newer Python", "a.py", "x = 1\nif (n := x) > 0:\n    pass\n", 2, true, "the operator := came later"},
		{"a newer method of Java", "Main.java", "class Main { public static void main(String[] a) { \"x\".repeat(3); } }\n", 1, false, "came later"},
		{"a newer switch", "Main.java", "class Main { public static void main(String[] a) {\n  switch (1) { case 1 -> f(); }\n} }\n", 2, true, "switch with arrows"},
		{"a newer function of Python", "a.py", "x = (5).bit_count()\n", 1, false, "came later"},
		{"match", "a.py", "x = 1\nmatch x:\n    case 1: pass\n", 2, true, "match came later"},
		{"a prompt", "a.py", "n = int(input('how many? '))\n", 1, false, "prompt"},
		{"a debugger", "a.py", "x = 1\nbreakpoint()\n", 2, true, "debugger"},
		{"tabs and blanks", "a.py", "if 1:\n    x = 1\nif 2:\n\tx = 2\n", 4, false, "tabs"},
		{"letters", "a.py", "größe = 1\n", 1, false, "outside of ASCII"},
		{"a mark", "a.py", "\ufeffx = 1\n", 0, false, "byte order mark"},
		{"too long", "a.py", "x = 1\n" + strings.Repeat("# frost\n", 30), 0, true, "the judge takes 200"},
	} {
		t.Run(tt.name, func(t *testing.T) {
			list := read(t, &problem.Problem{Judge: wants}, tt.file, tt.text)
			require.Len(t, list, 1, "%v", list)
			assert.Contains(t, list[0].Text, tt.says)
			assert.Equal(t, tt.line, list[0].Line)
			assert.Equal(t, tt.sure, list[0].Sure)
		})
	}
}

func TestWhatIsNoFaultIsNotFound(t *testing.T) {
	for name, text := range map[string]string{
		"a.cpp":      "// #include \"own.h\" and freopen(\n/* package x; cerr << */\n#include <cstdio>\nint main() { long long x = 1'000'000; std::puts(\"cerr << größer #pragma\"); long double y = 0; }\n",
		"b.cpp":      "#include \"elsewhere.h\"\n",
		"Main.java":  "public class Main { public static void main(String[] a) { String s = \"package x;\"; } } // package x;\n",
		"a.py":       "# import own\n\"\"\"\nimport own\n\"\"\"\nimport sys, heapq\nprint('größer', \"breakpoint()\")\nx = {'a': 1}\n",
		"a.js":       "const fs = require('fs');\nconst t = fs.readFileSync('/dev/stdin', 'utf8');\nconst u = fs.readFileSync(0);\n",
		"a.rs":       "fn f<'a>(x: &'a str) -> char { 'ß' }\nmod inner { }\nfn main() {}\n",
		"a.rb":       "require 'set'\nputs gets\n",
		"Deque.java": "public class Main { static java.util.Deque<String> d = new java.util.ArrayDeque<>(); public static void main(String[] a) throws Exception { d.getFirst(); new java.io.BufferedReader(null).lines(); } }\n",
		"b.py":       "import re\nmatch = re.match('a', 'b')\nif match: pass\nx = [1]\n",
		"a.go":       "package main\nimport \"fmt\"\nfunc main() { fmt.Println(`#`) }\n",
		"a.hs":       "main = interact id -- größer\n",
	} {
		assert.Empty(t, read(t, &problem.Problem{Judge: problem.Judge{Versions: map[string]string{"java": "8", "python": "3.5"}}}, name, text), name)
	}
	p := &problem.Problem{Files: problem.Files{Input: "frost.in"}}
	assert.Empty(t, read(t, p, "a.cpp", "#include <fstream>\nint main() { std::ifstream in(\"frost.in\"); }\n"), "the problem names it")
}

func TestVersionsAreComparedAsVersions(t *testing.T) {
	assert.Less(t, versionOf("py", "3.8"), versionOf("py", "3.10"))
	assert.Equal(t, 8.0, versionOf("java", "1.8"))
	assert.Equal(t, 21.0, versionOf("java", "21"))
	assert.Zero(t, versionOf("java", ""))
}

func TestOnlyWarningsThatOftenMeanAWrongAnswerCount(t *testing.T) {
	list := warnings("a.cpp: In function 'int main()':\na.cpp:3:9: warning: unused variable 'x' [-Wunused-variable]\n" +
		"a.cpp:7:12: warning: 's' may be used uninitialized [-Wmaybe-uninitialized]\na.cpp:9:1: warning: no return statement in function returning non-void [-Wreturn-type]\n")
	require.Len(t, list, 2)
	assert.Equal(t, Finding{Line: 7, Text: "the compiler warns: 's' may be used uninitialized"}, list[0])
	assert.Equal(t, 9, list[1].Line)
}
