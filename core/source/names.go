package source

import (
	"bytes"

	"coldverdict/internal/lazy"
)

// What names a file beside a source: the whole line in C, C++ and Ruby. The first group is the name.
var (
	Include     = lazy.New(`(?m)^[ \t]*#[ \t]*include[ \t]*"([^"\n]+)".*$`)
	RubyRequire = lazy.New(`(?m)^[ \t]*require_relative[ \t]*\(?[ \t]*['"]([^'"\n]+)['"][ \t]*\)?.*$`)
	RustModule  = lazy.New(`(?m)^[ \t]*(?:pub[ \t]+)?mod[ \t]+(\w+)[ \t]*;`)
)

// What is declared in Java, Kotlin and Scala. The first group is the name of a class.
var (
	PackageLine = lazy.New(`(?m)^[ \t]*package[ \t]+[\w.]+[ \t]*;?[ \t]*\n?`)
	PublicClass = lazy.New(`\bpublic\s+(?:final\s+|abstract\s+|strictfp\s+)*class\s+(\w+)`)
	Class       = lazy.New(`\bclass\s+(\w+)`)
)

var pythonImport = lazy.New(`(?m)^[ \t]*(?:from[ \t]+(\.*\w*)[ \t]+import\b|import[ \t]+([\w., \t]+))`)

// An Import is where a source in Python imports a module.
type Import struct {
	At     int // a byte of the source
	Module string
}

// PythonImports are the modules that a source imports, and that are not of Python's own library, in
// their order. code is the source as Blanked returns it.
func PythonImports(code []byte) (list []Import) {
	for _, m := range pythonImport().FindAllSubmatchIndex(code, -1) {
		from, to := m[2], m[3]
		if from < 0 {
			from, to = m[4], m[5]
		}
		for part := range bytes.SplitSeq(code[from:to], []byte(",")) {
			name, _, _ := bytes.Cut(bytes.TrimSpace(part), []byte(" "))
			if module := string(name); module != "" && !pythonModules[module] {
				list = append(list, Import{from + bytes.Index(part, name), module})
			}
			from += len(part) + 1
		}
	}
	return list
}

// IsBlank reports that a part of what Blanked returned is within a comment or a string.
func IsBlank(code []byte, from, to int) bool { return len(bytes.TrimSpace(code[from:to])) == 0 }
