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
	"slices"
	"strconv"
	"strings"
	"unicode"

	"coldverdict/core/prelude"
	"coldverdict/core/problem"
	code "coldverdict/core/source"
	"coldverdict/core/toolchain"
	"coldverdict/core/value"
	"coldverdict/internal/lazy"
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
	// leaves says that what was passed and returned stays in memory, since nobody knows what the function has freed or
	// keeps: always, or where there are nodes.
	leaves, leavesNodes bool
	// fixed says that it cannot tell the nodes of a result from those of an argument.
	fixed bool
	// asks says that it serves functions that a site provides.
	asks bool
	// scripts says that it serves functions that take and return functions, too.
	scripts bool
	// classes says that it serves sequences of calls of a class, too.
	classes bool
}

// table has an entry for each language that can serve function problems, by the
// language's name.
var table = map[string]driver{
	"c":          {text: "c.c", file: "cold_driver.c", build: map[string][]string{"{source}": {"cold_driver.c"}}, fit: fitC, classes: true, asks: true, leaves: true},
	"cpp":        {text: "cpp.cpp", file: "cold_driver.cpp", build: map[string][]string{"{source}": {"cold_driver.cpp"}}, fit: fitCpp, classes: true, asks: true, leavesNodes: true},
	"csharp":     {text: "csharp.cs", file: "ColdDriver.cs", build: map[string][]string{"{source}": {"-main:ColdDriver", "{source}", "ColdDriver.cs"}}, fit: fitCSharp, classes: true, asks: true},
	"go":         {text: "go.go.txt", file: "cold_driver.go", build: map[string][]string{"{source}": {"{source}", "cold_driver.go"}}, fit: fitGo, classes: true, asks: true},
	"java":       {text: "java.java", file: "ColdDriver.java", build: map[string][]string{"{source}": {"{source}", "ColdDriver.java"}}, run: map[string][]string{"{main}": {"ColdDriver"}}, fit: fitJava, classes: true, asks: true},
	"javascript": {text: "javascript.js", file: "cold_driver.js", run: map[string][]string{"{build}/{source}": {"{build}/cold_driver.js"}}, fit: fitJavaScript, wide: true, classes: true, scripts: true, asks: true},
	"kotlin": {text: "java.java", file: "ColdDriver.java",
		then: []toolchain.Command{{"javac", "-J-XX:TieredStopAtLevel=1", "-encoding", "UTF-8", "-cp", "program.jar", "-d", ".", "ColdDriver.java"}},
		run:  map[string][]string{"-jar": {"-cp"}, "{build}/program.jar": {"{build}/program.jar:{build}", "ColdDriver"}}, fit: fitKotlin, classes: true, asks: true},
	"clojure":         {text: "clojure.clj", file: "cold_driver.clj", run: map[string][]string{"{build}/{source}": {"{build}/cold_driver.clj"}}, fit: fitPlain, fixed: true},
	"d":               {text: "d.d", file: "cold_driver.d", build: map[string][]string{"{source}": {"{source}", "cold_driver.d"}}, fit: fitD, fixed: true},
	"haskell":         {text: "haskell.hs", file: "cold_driver.hs", build: map[string][]string{"{source}": {"{source}", "cold_driver.hs"}}, fit: fitHaskell, fixed: true},
	"lua":             {text: "lua.lua", file: "cold_driver.lua", run: map[string][]string{"{build}/{source}": {"{build}/cold_driver.lua"}}, fit: fitLua, fixed: true},
	"nim":             {text: "nim.nim", file: "cold_driver.nim", build: map[string][]string{"{source}": {"cold_driver.nim"}}, fit: fitNim, fixed: true},
	"ocaml":           {text: "ocaml.ml", fit: fitOCaml, fixed: true},
	"pascal":          {text: "pascal.pas", file: "cold_driver.pas", fit: fitPascal, fixed: true},
	"perl":            {text: "perl.pl", file: "cold_driver.pl", run: map[string][]string{"{build}/{source}": {"{build}/cold_driver.pl"}}, fit: fitPlain, fixed: true},
	"php":             {text: "php.php", file: "cold_driver.php", run: map[string][]string{"{build}/{source}": {"{build}/cold_driver.php"}}, fit: fitPHP, fixed: true},
	"python":          {text: "python.py", file: "cold_driver.py", run: map[string][]string{"{build}/{source}": {"{build}/cold_driver.py"}}, fit: fitNothing, classes: true, scripts: true, asks: true},
	"ruby":            {text: "ruby.rb", file: "cold_driver.rb", run: map[string][]string{"{build}/{source}": {"{build}/cold_driver.rb"}}, fit: fitNothing, classes: true, asks: true},
	"rust":            {text: "rust.rs", fit: fitRust, classes: true, asks: true},
	"scala":           {text: "scala.scala", file: "cold_driver.scala", build: map[string][]string{"{source}": {"{source}", "cold_driver.scala"}}, run: map[string][]string{"{main}": {"ColdDriver"}}, fit: fitScala, fixed: true},
	"typescript":      {text: "javascript.js", file: "cold_driver.js", run: map[string][]string{"{build}/{stem}.js": {"{build}/cold_driver.js"}}, fit: fitJavaScript, wide: true, classes: true, scripts: true, asks: true},
	"typescript-node": {text: "javascript.js", file: "cold_driver.js", run: map[string][]string{"{build}/{stem}.js": {"{build}/cold_driver.js"}}, fit: fitJavaScript, wide: true, classes: true, scripts: true, asks: true},
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

// Leaves reports whether what is passed and returned stays in the memory of a process when a call has ended.
func Leaves(function *problem.Call, l *toolchain.Language) bool {
	d, _ := of(l)
	f := fitting{function: function}
	return d.leaves || d.leavesNodes && len(f.nodeKinds()) > 0
}

var cppUnserved = lazy.New(`cold_driver::Json<(.+?) ?>['’]`)

// Declared says what a compiler's words mean where a declaration cannot be served;
// "" where they are not about that.
func Declared(log string) string {
	m := cppUnserved().FindStringSubmatch(log)
	if m == nil || !strings.Contains(log, "arguments and results of this problem cannot be") {
		return ""
	}
	return fmt.Sprintf("a parameter or the result is declared as %s, which arguments and results of this problem cannot be", m[1])
}

// A fitting is a driver on its way to a source.
type fitting struct {
	function *problem.Call
	title    string // of the language
	standard string // of it, as its tools are told: "2021"; may be empty
	file     string // name of the source
	source   []byte // which may be changed, if its lines stay where they are
	second   bool   // what the source leaves open is guessed the other way, for the first one did not build
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
	if l.Name == "ocaml" || l.Like == "ocaml" {
		w, text, err = wrapWith(nil, false, function, l, standard, file, source)
		w.Otherwise = func() (toolchain.Wrapping, error) {
			other, _, err := wrapWith(nil, true, function, l, standard, file, source)
			return other, err
		}
		return w, text, err
	}
	if function.Bare {
		return wrapWith(nil, false, function, l, standard, file, source)
	}
	in := code.Family(l.Extensions)
	needed, all := prelude.Supplied(in, source), prelude.All(in)
	w, text, err = wrapWith(needed, false, function, l, standard, file, source)
	w.Supplied = prelude.Of(in, source)
	if err != nil || w.Refused != "" || all == nil {
		return w, text, err
	}
	w.Otherwise = func() (toolchain.Wrapping, error) {
		other, _, err := wrapWith(all, false, function, l, standard, file, source)
		other.Supplied = all
		return other, err
	}
	return w, text, nil
}

func wrapWith(supplied []string, second bool, function *problem.Call, l *toolchain.Language, standard, file string, source []byte) (w toolchain.Wrapping, text string, err error) {
	d, ok := of(l)
	if !ok {
		return w, "", fmt.Errorf("function problems cannot be served in %s; they can in %s", l.Title, strings.Join(Languages(), ", "))
	}
	source = prelude.Inline(code.Family(l.Extensions), source, supplied)
	f := &fitting{function: function, title: l.Title, standard: l.Standards[standard], file: file, source: bytes.Clone(source), second: second}
	lines := strings.Join(supplied, "\n")
	f.words = map[string]string{
		"FILE": file, "FILE_TEXT": strconv.Quote(file), "STEM_TEXT": strconv.Quote("./" + stem(file)),
		"COUNT": strconv.Itoa(len(function.Takes)), "CHANGES": strconv.Itoa(max(function.Changes, function.CopyOf)), "BOTH": strconv.Itoa(b2i(function.UpTo || function.CopyOf > 0)),
		"NODE_OF": strconv.Itoa(function.NodeOf()), "PLACES_OF": strconv.Itoa(function.PlacesOf()), "COPY_OF": strconv.Itoa(function.CopyOf),
		"NAMES": quoted(Spellings(function.Name), "[", "]"), "NAME_LIST": quoted(Spellings(function.Name), "", ""),
		"TAKES": quoted(f.types(), "[", "]"), "RESULTS": quoted(f.resultTypes(), "[", "]"), "RESULT_LIST": quoted(f.resultTypes(), "", ""), "TAKE_LIST": quoted(f.types(), "", ""), "BIGINT": strconv.Itoa(b2i(f.returns(value.BigInt))),
		"NEARLY_TEXT": strconv.Quote(f.nearly()), "PRELUDE": lines, "PRELUDE_TEXT": strconv.Quote(lines), "REQUIRES": "require 'json'",
		// Of classes, for functions, which have none.
		"CLASS": `""`, "METHODS": "{}", "METHODS_TEXT": `"{}"`, "NEW": "[]", "METHOD_ROWS": "", "NEW_LIST": "", "METHOD_ARRAYS": "new string[0][]",
		"GO_METHODS": "", "GO_TYPES": "", "SEQUENCES": "", "CHAR_KEYS": strconv.FormatBool(strings.Contains(strings.Join(f.resultTypes(), ""), "map(char")), "GIVEN": f.given(), "GIVEN_TEXT": strconv.Quote(f.given()), "GIVEN_FUNCTIONS": "", "UNDECLARED": "[]", "ARGUMENTS": quoted(f.argumentNames(), "[", "]"), "SCRIPTED": strconv.FormatBool(function.Scripted()), "RETURNS_FUNCTION": strconv.Itoa(b2i(len(function.Returns) > 0 && function.Returns[0].Type.Kind == value.Function)),
	}
	if function.Bare {
		f.words["REQUIRES"] = ""
	}
	if function.Original() > 0 && d.fixed {
		return w, "", fmt.Errorf("problems with nodes or copies of an argument cannot be served in %s", l.Title)
	}
	if len(function.Given) > 0 && !d.asks {
		return w, "", fmt.Errorf("problems that provide functions cannot be served in %s", l.Title)
	}
	if function.Scripted() && !d.scripts {
		return w, "", fmt.Errorf("problems whose functions take or return functions cannot be served in %s; they can in JavaScript, Python and TypeScript", l.Title)
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
	if alone := function.Bare && len(function.Given) == 0 && len(f.nodeKinds()) == 0; alone && d.text == "c.c" || alone && d.text == "cpp.cpp" {
		// Beside the driver it would see what that includes.
		w.Then = []toolchain.Command{{"{compiler}", "-fsyntax-only", "-w", "-std={standard}", "-iquote", "{folder}", "./" + f.file}}
	}
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

func (f *fitting) argumentNames() []string {
	names := make([]string, len(f.function.Takes))
	for i, field := range f.function.Takes {
		names[i] = field.Name
	}
	return names
}

func (f *fitting) resultTypes() (types []string) {
	results := f.function.Results()
	if f.function.CopyOf > 0 { // and what has become of the original
		results = append(results, results[0])
	}
	for _, field := range results {
		types = append(types, field.Type.String())
	}
	return types
}

// fields are all that is passed and returned: by a function, or by the methods of a class.
func (f *fitting) fields() []value.Field {
	class := f.function.Class
	if class == nil {
		return slices.Concat(f.function.Takes, f.function.Results())
	}
	list := slices.Clone(class.New)
	for _, m := range class.Methods {
		if list = append(list, m.Takes...); m.Returns != nil {
			list = append(list, value.Field{Type: *m.Returns})
		}
	}
	return list
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
