package source

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
)

func TestCommentsAndStringsAreBlankAndCodeStays(t *testing.T) {
	for _, tt := range []struct{ family, text, blanked string }{
		{"cpp", "int a; // b\nint c;", "int a;     \nint c;"},
		{"cpp", "a /* b\n c */ d", "a     \n      d"},
		{"cpp", `f("a // b", 'x', "\"c");`, `f("      ", ' ', "   ");`},
		{"cpp", "x = 1'000'000 + '1';", "x = 1'000'000 + ' ';"},
		{"c", "a = '\\''; b", "a = '  '; b"},
		{"java", `s = "a" + 'b'; // "c`, `s = " " + ' ';      `},
		{"py", "a = 'b' # c\nd", "a = ' '    \nd"},
		{"py", "\"\"\"a\n'b'\"\"\"\nc", "    \n      \nc"},
		{"py", "a = \"it's\" + b", "a = \"    \" + b"},
		{"rs", "fn f<'a>(x: &'a str) -> char { 'ß' }", "fn f<'a>(x: &'a str) -> char { '  ' }"},
		{"js", "a = `b\nc` + d", "a = ` \n ` + d"},
		{"go", "a = `\\` + b", "a = ` ` + b"},
		{"rb", "a = 1 # \"b\n\"c\"", "a = 1     \n\" \""},
		{"cpp", "\"not closed\na", "\"          \na"},
		{"cpp", "/* not closed", "             "},
		{"cpp", "", ""},
		{"cpp", "s = R\"x(a\" // )\" b\n)x\" + c", "s = R\"x(          \n)x\" + c"},
		{"cpp", "int R; R(\"a\")", "int R; R(\" \")"},
		{"java", "s = \"\"\"\n  a \" // b\n  \"\"\" + c;", "s =    \n          \n      + c;"},
		{"kt", "s = \"\"\"\\\"\"\" + c", "s =         + c"},
	} {
		got := Blanked([]byte(tt.text), tt.family)
		assert.Equal(t, tt.blanked, string(got), "%s: %s", tt.family, tt.text)
		assert.Len(t, got, len(tt.text), "no byte moves")
	}
}

func TestAFamilyIsNamedAfterItsFirstExtension(t *testing.T) {
	assert.Equal(t, "cpp", Family([]string{".cc", ".cpp"}))
	assert.Equal(t, "py", Family([]string{".py"}))
	assert.Empty(t, Family(nil))
	assert.True(t, Lexed("cpp"))
	assert.False(t, Lexed("hs"))
}

func TestModulesThatPythonHasAreNotOnesOwn(t *testing.T) {
	text := "import sys, adding as a, heapq\n# import never\n\"\"\"\nimport never\n\"\"\"\nfrom reading import (two,\n    three)\nif 1:\n    import numpy.linalg\nfrom collections import deque\nimport subprocess\nimport json\n"
	var modules []string
	for _, one := range PythonImports(Blanked([]byte(text), "py")) {
		modules = append(modules, one.Module)
		assert.True(t, strings.HasPrefix(text[one.At:], one.Module), one.Module)
	}
	assert.Equal(t, []string{"adding", "reading", "numpy.linalg"}, modules)
}

func FuzzNoByteMoves(f *testing.F) {
	f.Add("int a; // \"b\n'c", "cpp")
	f.Add("\"\"\"a'''", "py")
	f.Add("'\\", "rs")
	f.Fuzz(func(t *testing.T, text, family string) {
		got := Blanked([]byte(text), family)
		if len(got) != len(text) {
			t.Fatalf("%d bytes became %d", len(text), len(got))
		}
		for i := range got {
			if got[i] != text[i] && got[i] != ' ' {
				t.Fatalf("byte %d changed to %q", i, got[i])
			}
		}
	})
}
