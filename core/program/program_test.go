package program

import (
	"bytes"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"coldverdict/core/problem"
	"coldverdict/core/shape"
	"coldverdict/core/toolchain"
	"coldverdict/core/value"
)

func planOf(t *testing.T, function, arguments string) *Plan {
	t.Helper()
	f, err := problem.ParseCall(function)
	require.NoError(t, err)
	s, err := shape.ParseArguments(arguments, f.Takes)
	require.NoError(t, err)
	p, err := NewPlan(f, s)
	require.NoError(t, err)
	return p
}

func TestArgumentsAreLaidInLines(t *testing.T) {
	for _, tt := range []struct{ function, shape, call, laid string }{
		{"f(a: int, b: int[]) -> int", "n: int 0..9, a: int\nb: int[n]", "a: 7\nb: [1, 2]", "2 7\n1 2\n"},
		{"f(a: int, b: int[]) -> int", "n: int 0..9, a: int\nb: int[n]", "a: 7\nb: []", "0 7\n\n"},
		{"f(b: int[]) -> int", "b: int[0..9]", "b: []", "\n"},
		{"f(b: int[]) -> int", "n: int 0..9\nb: int[n] down", "b: [4, 5]", "2\n4\n5\n"},
		{"f(b: int[]) -> int", "n: int 0..9\nb: int[n] down", "b: []", "0\n"},
		{"f(m: int[][]) -> int", "r: int 0..9, c: int 1..9\nm: int[r][c]", "m: [[1, 2], [3, 4]]", "2 2\n1 2\n3 4\n"},
		{"f(map: text[], note: text) -> int", "r: int 0..9, c: int 1..9\nmap: grid(r, c, \"#. \")\nnote: text(0..9, \"a-z \")", "map: [\"# \", \"..\"]\nnote: \"\"", "2 2\n# \n..\n\n"},
		{"f(n: int, e: int[][], p: int[]) -> int", "n: int 1..9\ne: tree(n) with (metres: int 1..9)\np: parents(n)", "n: 3\ne: [[1, 2, 5], [1, 3, 6]]\np: [1, 1]", "3\n1 2 5\n1 3 6\n1 1\n"},
		{"f(x: real, y: bool, s: char, b: bigint) -> int", "x: real 0..9, y: pick(\"true\", \"false\")\ns: token(1, \"a-z\"), b: int", "x: 2.5\ny: true\ns: \"q\"\nb: 12", "2.5 true\nq 12\n"},
	} {
		p := planOf(t, tt.function, tt.shape)
		args, err := value.ReadCall(tt.call, p.function.Takes)
		require.NoError(t, err, tt.call)
		assert.Equal(t, tt.laid, string(p.Laid(args)), "%s\n%s", tt.shape, tt.call)
		laid, err := shape.Parse(tt.shape)
		require.NoError(t, err)
		fault, err := laid.Check(bytes.NewReader(p.Laid(args)), shape.Options{})
		require.NoError(t, err)
		assert.Nil(t, fault, "%s\n%s", tt.shape, tt.call)
	}
}

func TestResultsArePrinted(t *testing.T) {
	for _, tt := range []struct{ returns, result, printed string }{
		{"int", "3", "3\n"}, {"bool", "true", "true\n"}, {"text", `"a b"`, "a b\n"}, {"text", `""`, "\n"}, {"real", "2.5", "2.5\n"},
		{"int[]", "[1, 2]", "1 2\n"}, {"int[]", "[]", "\n"}, {"int[][]", "[[1], [], [2, 3]]", "1\n\n2 3\n"}, {"int[][]", "[]", ""},
		{"(a: int, b: text[])", `[1, ["x", "y"]]`, "1\nx y\n"},
	} {
		p := planOf(t, "f(a: int) -> "+tt.returns, "a: int")
		v, err := value.ReadResults(tt.result, p.function.Results())
		require.NoError(t, err)
		assert.Equal(t, tt.printed, string(p.Printed(v)), tt.returns)
	}
}

func TestWhatMakesAProgramOfASourceIsTakenOut(t *testing.T) {
	for _, tt := range []struct{ file, text, bare string }{
		{"a.cpp", "#include <cstdio>\nint f() { return 1; }\n\nint main(int n, char **a) {\n    if (n) { puts(\"}\"); }\n}\nint g;\n", "#include <cstdio>\nint f() { return 1; }\n\nint g;\n"},
		{"a.c", "int f(void) { return 1; }\n// int main() {}\n", "int f(void) { return 1; }\n// int main() {}\n"},
		{"a.go", "package main\n\nimport \"fmt\"\n\nfunc f() int { return 1 }\n\nfunc main() {\n\tfmt.Println(f())\n}\n", "package main\n\n\n\nfunc f() int { return 1 }\n\n"},
		{"A.java", "class A {\n    static int f() { return 1; }\n    public static void main(String[] a) { System.out.println(f()); }\n}\n", "class A {\n    static int f() { return 1; }\n}\n"},
		{"a.rs", "fn f() -> i32 { 1 }\nfn main() {\n    println!(\"{}\", f());\n}\n", "fn f() -> i32 { 1 }\n"},
		{"a.py", "\"\"\"A text.\"\"\"\nimport sys\nLIMIT = 3\ndata = sys.stdin.read()\n@cached\ndef f(a,\n      b):\n    return a\n\nif a:\n    x = 1\nelse:\n    x = 2\nprint(\n    f(1, 2))\n", "\"\"\"A text.\"\"\"\nimport sys\nLIMIT = 3\n@cached\ndef f(a,\n      b):\n    return a\n\n"},
		{"a.py", "def f():\n    return 1\n\nif __name__ == '__main__':\n    print(f())\n\n    x = 1\n\ny = 2\n", "def f():\n    return 1\n\ny = 2\n"},
		{"a.rb", "def f\n  1\nend\n\nif __FILE__ == $0\n  puts f\nend\n", "def f\n  1\nend\n\n"},
		{"a.js", "const f = () => 1;\nif (require.main === module) {\n  console.log(`}`);\n}\nlet y;\n", "const f = () => 1;\nlet y;\n"},
		{"a.kt", "fun f() = 1\n\nfun main(args: Array<String>) {\n    println(f())\n}\n", "fun f() = 1\n\n"},
	} {
		l, _, err := toolchain.Ours().Choose(tt.file, "")
		require.NoError(t, err)
		assert.Equal(t, tt.bare, string(WithoutMain(l, []byte(tt.text))), tt.file)
	}
}

func TestValuesHaveNamesThatTheLanguageHasNot(t *testing.T) {
	p := planOf(t, "f(class: int, f: int[], i: int) -> int", "class: int 0..9\nf: int[class]\ni: int")
	l, _, err := toolchain.Ours().Choose("a.py", "")
	require.NoError(t, err)
	text, err := p.Around(l, "a.py", []byte("def f(a, b, c):\n    return 1\n"), "Main", false)
	require.NoError(t, err)
	assert.Contains(t, string(text), "class_ = int(_word())")
	assert.Contains(t, string(text), "for i in range(class_):\n        f_.append(int(_word()))")
	assert.Contains(t, string(text), "result = f(class_, f_, i_)")
}
