package toolchain

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestPlacesAreThoseOfOnesOwnSource(t *testing.T) {
	for name, row := range map[string]struct {
		language, file, text string
		want                 []Place
	}{
		"gcc":    {"cpp", "a.cpp", "a.cpp: In function 'int main()':\na.cpp:6:25: error: expected ';' before 'printf'\n    6 |  x\na.cpp:9:3: error: 'y' was not declared\nlib.h:3:1: error: elsewhere\n", []Place{{6, 25, "expected ';' before 'printf'"}, {9, 3, "'y' was not declared"}}},
		"javac":  {"java", "A.java", "A.java:3: error: cannot find symbol\n        int x = y;\n                ^\n", []Place{{3, 0, "cannot find symbol"}}},
		"rustc":  {"rust", "a.rs", "error[E0308]: mismatched types\n --> a.rs:2:18\n  |\n", []Place{{2, 18, "mismatched types"}}},
		"python": {"python", "a.py", "Traceback (most recent call last):\n  File \"a.py\", line 4, in <module>\n    f(0)\nZeroDivisionError: division by zero\n", []Place{{4, 0, "ZeroDivisionError: division by zero"}}},
		"go":     {"go", "a.go", "./a.go:4:2: declared and not used: x\n", []Place{{4, 2, "declared and not used: x"}}},
		"twice":  {"cpp", "a.cpp", "a.cpp:6:25: error: no\na.cpp:6:25: error: no\n", []Place{{6, 25, "no"}}},
		"none":   {"cpp", "a.cpp", "lib.h:3:1: error: elsewhere\n", nil},
	} {
		t.Run(name, func(t *testing.T) {
			l, ok := Ours().Find(row.language)
			require.True(t, ok)
			b := Build{Language: l, File: row.file, Source: "/station/" + row.file}
			assert.Equal(t, row.want, b.Places(row.text))
		})
	}
	for text, want := range map[string]int{":25: error": 25, ",5) Error": 5, ", 7) Error": 7, ", characters 4-9:": 4, " error": 0, ":x": 0, ":99999999999999999999": 0} {
		assert.Equal(t, want, columnAfter(text), text)
	}
}
