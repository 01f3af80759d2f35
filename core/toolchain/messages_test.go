package toolchain

import (
	"testing"

	"github.com/stretchr/testify/assert"
)

func readingOf(language, file, text string) Reading {
	l, _ := Ours().Find(language)
	return Build{Language: l, Source: "/hoarfrost/" + file, File: file}.Read(text, true)
}

func TestWordsOfRuntimesAreUnderstood(t *testing.T) {
	for _, tt := range []struct {
		language, file, text string
		want                 string
		kinds                []string
	}{
		{"python", "a.py", "Traceback (most recent call last):\n  File \"a.py\", line 9, in <module>\n    f()\n  File \"a.py\", line 3, in f\n    int(x)\n  File \"/usr/lib/python3/re.py\", line 77, in g\nIndexError: list index out of range\n", "line 3: IndexError: list index out of range", []string{KindIndex}},
		{"python", "a.py", "Traceback (most recent call last):\n  File \"a.py\", line 1, in <module>\nEOFError: EOF when reading a line\n", "line 1: EOFError: EOF when reading a line", []string{KindEnd}},
		{"python", "a.py", "  File \"a.py\", line 2\n    print 3\n    ^^^^^^^\nSyntaxError: Missing parentheses in call to 'print'. Did you mean print(...)?\n", "line 2: SyntaxError: Missing parentheses in call to 'print'. Did you mean print(...)?", []string{KindVersion}},
		{"python", "a.py", "Traceback (most recent call last):\n  File \"a.py\", line 3, in f\n  [Previous line repeated 996 more times]\nRecursionError: maximum recursion depth exceeded\n", "line 3: RecursionError: maximum recursion depth exceeded", []string{KindStack}},
		{"java", "Main.java", "Exception in thread \"main\" java.util.NoSuchElementException\n\tat java.base/java.util.Scanner.throwFor(Scanner.java:937)\n\tat Main.main(Main.java:7)\n", "line 7: java.util.NoSuchElementException", []string{KindEnd}},
		{"java", "Main.java", "Error: Could not find or load main class Main\n", "Could not find or load main class Main", []string{KindMain}},
		{"go", "a.go", "panic: runtime error: integer divide by zero\n[signal SIGFPE]\n\ngoroutine 1 [running]:\nmain.main()\n\t./a.go:9 +0x9\nexit status 2\n", "line 9: panic: runtime error: integer divide by zero", []string{KindDivision}},
		{"javascript", "a.js", "a.js:1\nfoo()\n^\n\nReferenceError: foo is not defined\n    at Object.<anonymous> (a.js:1:1)\n\nNode.js v20.20.2\n", "line 1: ReferenceError: foo is not defined", nil},
		{"cpp", "a.cpp", "terminate called after throwing an instance of 'std::out_of_range'\n  what():  vector::_M_range_check: 7\n", "uncaught std::out_of_range: vector::_M_range_check: 7", []string{KindIndex}},
		{"cpp", "a.cpp", "In file included from a.cpp:1:\nweights.h:4:1: error: expected ';'\n", "weights.h:4: expected ';'", nil},
		{"cpp", "a.cpp", "/usr/bin/ld: crt1.o: in function `_start':\n(.text+0x17): undefined reference to `main'\n", "undefined reference to `main'", []string{KindMain}},
		{"rust", "a.rs", "thread 'main' panicked at 'index out of bounds: the len is 3', a.rs:4:5\n", "line 4: index out of bounds: the len is 3", []string{KindIndex}},
		{"rust", "a.rs", "\nthread 'main' (77) panicked at a.rs:4:5:\nattempt to divide by zero\n", "line 4: attempt to divide by zero", []string{KindDivision}},
		{"ruby", "a.rb", "a.rb:2:in `/': divided by 0 (ZeroDivisionError)\n\tfrom a.rb:2:in `load'\n", "line 2: divided by 0 (ZeroDivisionError)", []string{KindDivision}},
		{"python", "a.py", "crates: 7\n", "", nil},
	} {
		got := readingOf(tt.language, tt.file, tt.text)
		assert.Equal(t, tt.want, got.String(), tt.text)
		assert.Equal(t, tt.kinds, got.Kinds, tt.text)
	}
	l, _ := Ours().Find("python")
	assert.Equal(t, Reading{}, Build{Language: l}.Read("MemoryError\n", false), "it came through")
	assert.Contains(t, l.Words(KindStack), "sys.setrecursionlimit")
}

func TestTheFirstErrorComesFirst(t *testing.T) {
	l, _ := Ours().Find("cpp")
	of := func(log string) string {
		return Build{Language: l, Source: "/x/a.cpp", File: "a.cpp", Log: log}.FirstError()
	}
	const warning = "a.cpp: In function 'int f()':\na.cpp:2:5: warning: unused\n"
	assert.Equal(t, "a.cpp: In function 'int main()':\na.cpp:9:1: error: no\n    9 | x\n\n"+warning[:len(warning)-1],
		of(warning+"a.cpp: In function 'int main()':\na.cpp:9:1: error: no\n    9 | x"))
	assert.Equal(t, "a.cpp:9:1: error: no\n", of("a.cpp:9:1: error: no\n"))
	assert.Equal(t, warning, of(warning), "no error")
}

func TestASourceThatAJudgeMayRefuseIsTold(t *testing.T) {
	java, _ := Ours().Find("java")
	assert.Len(t, java.NotesOn([]byte("// crates\npackage ice;\npublic class Main {}\n")), 1)
	assert.Empty(t, java.NotesOn([]byte("public class Main { String s = \"package ice;\"; }\n")))
}

func TestSlowReadingIsToldWhereItCounts(t *testing.T) {
	cpp, _ := Ours().Find("cpp")
	slow, fast := []byte("int n; std::cin >> n;"), []byte("ios::sync_with_stdio(false); std::cin >> n;")
	assert.Contains(t, cpp.ReadsSlowly(slow, 20e6, 1), "sync_with_stdio")
	assert.Empty(t, cpp.ReadsSlowly(slow, 1e6, 1), "a small input")
	assert.Empty(t, cpp.ReadsSlowly(fast, 20e6, 1))
	bash, _ := Ours().Find("bash")
	assert.Empty(t, bash.ReadsSlowly(slow, 1e9, 1), "nothing is known of it")
}
