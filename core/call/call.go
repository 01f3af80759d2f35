// Package call puts a driver around a person's function, so that a function
// problem can be run: a program in the function's own language that reads the
// arguments of one call after the other, calls the function, and says what it
// returned and how long that took.
//
// A language is one entry in the table and one file in drivers/. The driver
// adapts to how the function is declared, as far as the language can: by
// overloading, reflection, or from the text of the declaration. It finds the
// function by its name in any usual spelling, free or in a class.
//
// What a driver and its reader say to each other is in protocol.go. Which calls
// are made, and what they amount to, is decided elsewhere.
package call

import (
	"bytes"
	"embed"
	"errors"
	"fmt"
	"maps"
	"path/filepath"
	"regexp"
	"slices"
	"strconv"
	"strings"
	"unicode"

	"coldverdict/core/prelude"
	"coldverdict/core/problem"
	code "coldverdict/core/source"
	"coldverdict/core/toolchain"
	"coldverdict/core/value"
)

//go:embed drivers
var drivers embed.FS

// A driver is what is put around a function in one language.
type driver struct {
	text string // name in drivers/
	file string // name of its own beside the source; empty: it is added to the source
	// build and run are words that take the place of words of the language's
	// commands; then are further commands that build.
	build, run map[string][]string
	then       []toolchain.Command
	// fit finds the function in the source and fills in what depends on it.
	fit func(*fitting) error
	// wide says that integers past 2^53 are passed as texts, since a number of
	// the language does not hold them.
	wide bool
	// classes says that it serves sequences of calls of a class, too.
	classes bool
}

// table has an entry for each language that can serve function problems, by the
// language's name.
var table = map[string]driver{
	"c":          {text: "c.c", file: "cold_driver.c", build: map[string][]string{"{source}": {"cold_driver.c"}}, fit: fitC},
	"cpp":        {text: "cpp.cpp", file: "cold_driver.cpp", build: map[string][]string{"{source}": {"cold_driver.cpp"}}, fit: fitCpp, classes: true},
	"csharp":     {text: "csharp.cs", file: "ColdDriver.cs", build: map[string][]string{"{source}": {"-main:ColdDriver", "{source}", "ColdDriver.cs"}}, fit: fitCSharp, classes: true},
	"go":         {text: "go.go.txt", file: "cold_driver.go", build: map[string][]string{"{source}": {"{source}", "cold_driver.go"}}, fit: fitGo, classes: true},
	"java":       {text: "java.java", file: "ColdDriver.java", build: map[string][]string{"{source}": {"{source}", "ColdDriver.java"}}, run: map[string][]string{"{main}": {"ColdDriver"}}, fit: fitJava, classes: true},
	"javascript": {text: "javascript.js", file: "cold_driver.js", run: map[string][]string{"{build}/{source}": {"{build}/cold_driver.js"}}, fit: fitJavaScript, wide: true, classes: true},
	"kotlin": {text: "java.java", file: "ColdDriver.java",
		then: []toolchain.Command{{"javac", "-J-XX:TieredStopAtLevel=1", "-encoding", "UTF-8", "-cp", "program.jar", "-d", ".", "ColdDriver.java"}},
		run:  map[string][]string{"-jar": {"-cp"}, "{build}/program.jar": {"{build}/program.jar:{build}", "ColdDriver"}}, fit: fitKotlin, classes: true},
	"python":          {text: "python.py", file: "cold_driver.py", run: map[string][]string{"{build}/{source}": {"{build}/cold_driver.py"}}, fit: fitNothing, classes: true},
	"ruby":            {text: "ruby.rb", file: "cold_driver.rb", run: map[string][]string{"{build}/{source}": {"{build}/cold_driver.rb"}}, fit: fitNothing, classes: true},
	"rust":            {text: "rust.rs", fit: fitRust},
	"typescript":      {text: "javascript.js", file: "cold_driver.js", run: map[string][]string{"{build}/{stem}.js": {"{build}/cold_driver.js"}}, fit: fitJavaScript, wide: true, classes: true},
	"typescript-node": {text: "javascript.js", file: "cold_driver.js", run: map[string][]string{"{build}/{stem}.js": {"{build}/cold_driver.js"}}, fit: fitJavaScript, wide: true, classes: true},
}

// of returns the driver for a language, or for the one that it was made from.
func of(l *toolchain.Language) (driver, bool) {
	for _, name := range []string{l.Name, l.Like} {
		if d, ok := table[name]; ok {
			return d, true
		}
	}
	return driver{}, false
}

// Languages lists the names of the languages that can serve function problems.
func Languages() []string { return slices.Sorted(maps.Keys(table)) }

// Serves reports whether a language can serve function problems.
func Serves(l *toolchain.Language) bool {
	_, ok := of(l)
	return ok
}

// WideAsText reports whether integers past 2^53 are passed to a language's driver
// as texts.
func WideAsText(l *toolchain.Language) bool {
	d, _ := of(l)
	return d.wide
}

var cppUnserved = regexp.MustCompile(`cold_driver::Json<(.+?) ?>['’]`)

// Declared says what a compiler's words mean where a declaration cannot be served;
// "" where they are not about that.
func Declared(log string) string {
	m := cppUnserved.FindStringSubmatch(log)
	if m == nil || !strings.Contains(log, "arguments and results of this problem cannot be") {
		return ""
	}
	return fmt.Sprintf("a parameter or the result is declared as %s, which arguments and results of this problem cannot be", m[1])
}

// A fitting is a driver on its way to a source.
type fitting struct {
	function *problem.Call
	standard string // of the language, as its tools are told: "2021"; may be empty
	file     string // name of the source
	source   []byte // which may be changed, if its lines stay where they are
	words    map[string]string
}

// A refusal says why a source cannot be called: it lacks the function, or
// declares it in a way that cannot be served.
type refusal string

func (r refusal) Error() string { return string(r) }

func refuse(format string, args ...any) error { return refusal(fmt.Sprintf(format, args...)) }

// Around returns what puts the driver around a source: for toolchain.Source.
// Where a source has no such function, the Wrapping says so; the error is that
// of a language which function problems are not served in.
func Around(function *problem.Call) toolchain.Wrapper {
	return func(l *toolchain.Language, standard, file string, source []byte) (toolchain.Wrapping, error) {
		w, _, err := wrap(function, l, standard, file, source)
		return w, err
	}
}

// Driver returns the text of the driver for a source.
func Driver(function *problem.Call, l *toolchain.Language, standard, file string, source []byte) (string, error) {
	w, text, err := wrap(function, l, standard, file, source)
	if w.Refused != "" {
		return "", errors.New(w.Refused)
	}
	return text, err
}

// wrap puts the driver around a source, with what it needs of what judges supply; where it does not
// build so, with all of that.
func wrap(function *problem.Call, l *toolchain.Language, standard, file string, source []byte) (w toolchain.Wrapping, text string, err error) {
	if function.Bare {
		return wrapWith(nil, function, l, standard, file, source)
	}
	in := code.Family(l.Extensions)
	needed, all := prelude.Supplied(in, source), prelude.All(in)
	w, text, err = wrapWith(needed, function, l, standard, file, source)
	w.Supplied = prelude.Of(in, source)
	if err != nil || w.Refused != "" || all == nil {
		return w, text, err
	}
	w.Otherwise = func() (toolchain.Wrapping, error) {
		other, _, err := wrapWith(all, function, l, standard, file, source)
		other.Supplied = all
		return other, err
	}
	return w, text, nil
}

func wrapWith(supplied []string, function *problem.Call, l *toolchain.Language, standard, file string, source []byte) (w toolchain.Wrapping, text string, err error) {
	d, ok := of(l)
	if !ok {
		return w, "", fmt.Errorf("function problems cannot be served in %s; they can in %s", l.Title, strings.Join(Languages(), ", "))
	}
	source = prelude.Inline(code.Family(l.Extensions), source, supplied)
	f := &fitting{function: function, standard: l.Standards[standard], file: file, source: bytes.Clone(source)}
	lines := strings.Join(supplied, "\n")
	f.words = map[string]string{
		"FILE": file, "FILE_TEXT": strconv.Quote(file), "STEM_TEXT": strconv.Quote("./" + stem(file)),
		"COUNT": strconv.Itoa(len(function.Takes)), "CHANGES": strconv.Itoa(function.Changes), "BOTH": strconv.Itoa(b2i(function.UpTo)),
		"NAMES": quoted(Spellings(function.Name), "[", "]"), "NAME_LIST": quoted(Spellings(function.Name), "", ""),
		"TAKES": quoted(f.types(), "[", "]"), "RESULTS": quoted(f.resultTypes(), "[", "]"), "RESULT_LIST": quoted(f.resultTypes(), "", ""), "TAKE_LIST": quoted(f.types(), "", ""), "BIGINT": strconv.Itoa(b2i(f.returns(value.BigInt))),
		"NEARLY_TEXT": strconv.Quote(f.nearly()), "PRELUDE": lines, "PRELUDE_TEXT": strconv.Quote(lines),
		// Of classes, for functions, which have none.
		"CLASS": `""`, "METHODS": "{}", "METHODS_TEXT": `"{}"`, "NEW": "[]", "METHOD_ROWS": "", "NEW_LIST": "", "METHOD_ARRAYS": "new string[0][]",
		"GO_METHODS": "", "GO_TYPES": "", "SEQUENCES": "",
	}
	if class := function.Class; class != nil {
		if !d.classes {
			return w, "", fmt.Errorf("problems that ask for a class cannot be served in %s", l.Title)
		}
		f.ofClass(class)
	}
	var refused refusal
	if err := d.fit(f); errors.As(err, &refused) {
		return toolchain.Wrapping{Refused: string(refused)}, "", nil
	} else if err != nil {
		return w, "", err
	}
	template, err := drivers.ReadFile("drivers/" + d.text)
	if err != nil {
		return w, "", err
	}
	var pairs []string
	for word, becomes := range f.words {
		pairs = append(pairs, "@"+word+"@", becomes)
	}
	text = strings.NewReplacer(pairs...).Replace(string(template))
	w = toolchain.Wrapping{Source: f.source, BuildWords: d.build, RunWords: d.run, Then: d.then}
	if d.file == "" {
		w.Source = append(f.source, text...)
	} else {
		w.Files = map[string][]byte{d.file: []byte(text)}
	}
	return w, text, nil
}

func stem(file string) string { return strings.TrimSuffix(file, filepath.Ext(file)) }

func b2i(b bool) int {
	if b {
		return 1
	}
	return 0
}

// quoted lists texts in quotes.
func quoted(words []string, open, end string) string {
	list := make([]string, len(words))
	for i, word := range words {
		list[i] = strconv.Quote(word)
	}
	return open + strings.Join(list, ", ") + end
}

func (f *fitting) types() []string {
	types := make([]string, len(f.function.Takes))
	for i, field := range f.function.Takes {
		types[i] = field.Type.String()
	}
	return types
}

func (f *fitting) resultTypes() (types []string) {
	for _, field := range f.function.Results() {
		types = append(types, field.Type.String())
	}
	return types
}

// returns reports that the results are of a kind at their innermost.
func (f *fitting) returns(kind value.Kind) bool {
	for _, field := range f.function.Results() {
		if e, _ := field.Type.Element(); e.Kind == kind {
			return true
		}
	}
	return false
}

// fitNothing is for drivers that look for the function when they run.
func fitNothing(*fitting) error { return nil }

// Spellings returns the ways to write a name, the one that it was given in first:
// longest_thaw, longestThaw, LongestThaw.
func Spellings(name string) []string {
	kept := []string{name}
	for spelling := snake; spelling <= pascal; spelling++ {
		if one := spelled(name, spelling); one != "" && !slices.Contains(kept, one) {
			kept = append(kept, one)
		}
	}
	return kept
}

// The spellings of names.
const (
	snake = iota
	camel
	pascal
)

// spelled writes a name in one spelling.
func spelled(name string, spelling int) string {
	words := parts(name)
	if spelling == snake {
		return strings.Join(words, "_")
	}
	for i, w := range words {
		if i > 0 || spelling == pascal {
			words[i] = strings.ToUpper(w[:1]) + w[1:]
		}
	}
	return strings.Join(words, "")
}

// parts splits a name into its words, in lower case.
func parts(name string) (words []string) {
	var word []rune
	end := func() {
		if len(word) > 0 {
			words = append(words, strings.ToLower(string(word)))
		}
		word = word[:0]
	}
	runes := []rune(name)
	for i, r := range runes {
		switch {
		case r == '_':
			end()
			continue
		case unicode.IsUpper(r) && i > 0 && !unicode.IsUpper(runes[i-1]):
			end()
		}
		word = append(word, r)
	}
	end()
	return words
}
