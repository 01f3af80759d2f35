// Package prelude knows what the judges of function problems put around a solution: the headers and
// imports that people leave out of what they hand in there. Of says which of them a source needs, from
// its text alone: the names that it uses and does not declare.
//
// A language is a table of prelude.toml and a row of families.
package prelude

import (
	_ "embed"
	"fmt"
	"slices"
	"strings"
	"sync"

	"github.com/pelletier/go-toml/v2"

	"coldverdict/core/source"
	"coldverdict/internal/lazy"
)

//go:embed prelude.toml
var table string

// Standard is the line that makes names of C++'s library short.
const Standard = "using namespace std;"

// A family is what is particular to one language.
type family struct {
	// bound finds names that a source declares or imports itself; each of its groups is one.
	bound lazy.Regexp
	// whole finds what makes every line needless.
	whole lazy.Regexp
	// after finds what must stand before the lines: package lines and the like.
	after lazy.Regexp
	end   string // of a line, where it is joined with others on one
	own   bool   // each line needs a line of its own
}

var families = map[string]family{
	"cpp":   {bound: lazy.New(`#\s*define\s+(\w+)|\b(?:struct|class|enum|union|using|typename)\s+(\w+)|\btypedef\b[^;]*\b(\w+)\s*;|(?:[\w>&*\]]\s+|[&*])(\w+)\s*\([^;{}]*\)\s*(?:const\b|noexcept\b|->\s*[\w:<>]+|\s)*\{|\b(?:auto|int|long|bool|char|double|size_t|function<[^;=]*>)\s+&?(\w+)\s*[=;,[{]|using\s+std::(\w+)`), whole: lazy.New(`#\s*include\s*<bits/stdc\+\+\.h>`), own: true},
	"c":     {bound: lazy.New(`#\s*define\s+(\w+)|\btypedef\b[^;]*\b(\w+)\s*;|[\w*]\s+\**(\w+)\s*\([^;{}]*\)\s*\{`), own: true},
	"java":  {bound: lazy.New(`\b(?:class|interface|enum|record)\s+(\w+)|\bimport\s+(?:static\s+)?[\w.]*\.(\w+)\s*;`), after: lazy.New(`(?m)^[ \t]*package\s+[\w.]+\s*;`)},
	"kt":    {bound: lazy.New(`\b(?:class|interface|object|typealias|fun)\s+(?:<[^>]*>\s*)?(?:\w+\.)?(\w+)|\bimport\s+[\w.]*\.(\w+)\b`), after: lazy.New(`(?m)^[ \t]*package\s+[\w.]+[ \t]*;?|^[ \t]*@file:.*`), end: "; "},
	"cs":    {bound: lazy.New(`\b(?:class|interface|struct|enum|record|delegate\s+\w+)\s+(\w+)`)},
	"rs":    {bound: lazy.New(`\b(?:struct|enum|trait|type|fn|mod|macro_rules!)\s+(\w+)|\buse\b[^;]*?\b(\w+)(?:\s*;|\s*\})`), after: lazy.New(`(?m)^[ \t]*#!\[[^\]]*\]`)},
	"py":    {bound: lazy.New(`(?m)\b(?:def|class)\s+(\w+)|^[ \t]*(\w+)\s*(?::[^=\n]*)?=[^=]|\bas\s+(\w+)|\bfor\s+(\w+)\b`), after: lazy.New(`(?m)^from[ \t]+__future__[ \t]+import\b.*`), own: true},
	"rb":    {bound: lazy.New(`\b(?:class|module)\s+(\w+)`), own: true},
	"go":    {bound: lazy.New(`(?m)\b(?:func|type|var|const)\s+(\w+)|\b(\w+)(?:\s*,\s*\w+)*\s*:=`), after: lazy.New(`(?m)^[ \t]*package\s+\w+`)},
	"scala": {bound: lazy.New(`\b(?:class|object|trait|type|def|val|var)\s+(\w+)|\bimport\s+[\w.]*\.(\w+)\b|\bimport\s[^\n{]*\{[^}]*?(\w+)[^}]*\}`), after: lazy.New(`(?m)^[ \t]*package\s+[\w.]+[ \t]*;?`), end: "; "},
}

// A use is a name that a line of the table serves.
type use struct {
	line, name string
	method     bool   // it stands behind a dot
	follow     string // must follow it
}

// uses are the rows of the tables, by the family and the name.
var uses = sync.OnceValue(func() map[string]map[string][]use {
	var raw map[string]map[string]string
	if err := toml.Unmarshal([]byte(table), &raw); err != nil {
		panic(err) // the tests read it
	}
	all := map[string]map[string][]use{}
	for in, lines := range raw {
		all[in] = map[string][]use{}
		for line, names := range lines {
			for word := range strings.FieldsSeq(names) {
				one := use{line: line}
				word, one.method = strings.CutPrefix(word, ".")
				name := strings.TrimRight(word, "<(.:")
				one.name, one.follow = name, word[len(name):]
				all[in][name] = append(all[in][name], one)
			}
		}
	}
	return all
})

var (
	identifier = lazy.New(`[A-Za-z_]\w*`)
	usingStd   = lazy.New(`\busing\s+namespace\s+std\s*;`)
	pyImported = lazy.New(`(?m)^[ \t]*from[ \t]+\S+[ \t]+import[ \t]*(\([^)]*\)|[^\n]*)|^[ \t]*import[ \t]+([^\n]*)`)
	rustUsed   = lazy.New(`\buse\b([^;]*);`)
	goImported = lazy.New(`(?m)^\s*import\s*(?:(\w+\s+)?"([^"]*)"|\(([^)]*)\))`)
)

// Of lists what a source of a family needs of what judges supply, as lines of its language in a
// stable order; none where it stands for itself.
func Of(in string, text []byte) []string { return of(in, text, false) }

// Supplied lists what a source may need: as Of, and, in languages that look names up when they run, also
// for names that it declares somewhere, since it may do so in one function only.
func Supplied(in string, text []byte) []string { return of(in, text, in == "py") }

// All lists all that judges supply.
func All(in string) (lines []string) {
	switch in {
	case "cpp":
		return []string{"#include <bits/stdc++.h>", Standard}
	case "rs":
		return []string{"#[allow(unused_imports)] use std::{cell::*, cmp::*, collections::*, rc::*};"}
	case "py", "rb", "go":
		return nil // what is not needed is an error, or takes time
	}
	for _, list := range uses()[in] {
		for _, one := range list {
			if !slices.Contains(lines, one.line) {
				lines = append(lines, one.line)
			}
		}
	}
	slices.Sort(lines)
	return lines
}

func of(in string, text []byte, loosely bool) []string {
	rows, known := uses()[in]
	f, ok := families[in]
	if !known || !ok || f.whole != nil && f.whole().Match(text) {
		return nil
	}
	code := string(source.Blanked(text, in))
	bound := map[string]bool{}
	if !loosely {
		bound = f.boundIn(in, code, string(text))
	}
	needed := map[string][]string{} // names by line
	short := false                  // a name of C++'s library stands without its namespace
	for _, at := range identifier().FindAllStringIndex(code, -1) {
		name := code[at[0]:at[1]]
		list, ok := rows[name]
		if !ok || bound[name] {
			continue
		}
		before := strings.TrimRight(code[:at[0]], " \t")
		rest := strings.TrimLeft(code[at[1]:], " \t")
		for _, one := range list {
			if !strings.HasPrefix(rest, one.follow) || one.method != strings.HasSuffix(before, ".") {
				continue
			}
			qualified := strings.HasSuffix(before, "::")
			switch {
			case in == "cpp" && (strings.HasSuffix(before, "->") || qualified && !strings.HasSuffix(before, "std::")):
				continue
			case in == "cpp" && !qualified && strings.HasPrefix(one.line, "#include <c") && !strings.Contains(one.line, "chrono"): // which C has, too
			case in == "cpp" && !qualified:
				short = true
			case in != "cpp" && qualified:
				continue
			}
			if !slices.Contains(needed[one.line], name) {
				needed[one.line] = append(needed[one.line], name)
			}
		}
	}
	lines := f.lacking(in, code, needed)
	if short && !usingStd().MatchString(code) {
		lines = append(lines, Standard)
	}
	return lines
}

// boundIn are the names that a source declares or imports itself.
func (f family) boundIn(in, code, text string) map[string]bool {
	bound := map[string]bool{}
	if f.bound != nil {
		for _, m := range f.bound().FindAllStringSubmatch(code, -1) {
			for _, name := range m[1:] {
				bound[name] = true
			}
		}
	}
	note := func(pattern lazy.Regexp) {
		for _, m := range pattern().FindAllStringSubmatch(code, -1) {
			for _, name := range identifier().FindAllString(strings.Join(m[1:], " "), -1) {
				bound[name] = true
			}
		}
	}
	switch in {
	case "py":
		note(pyImported)
	case "rs":
		note(rustUsed)
	case "go":
		for _, m := range goImported().FindAllStringSubmatch(text, -1) { // the paths are texts
			for _, path := range strings.FieldsFunc(m[2]+"\n"+m[3], func(r rune) bool { return r == '\n' || r == ';' }) {
				words := strings.Fields(path)
				if len(words) == 0 {
					continue
				}
				path = strings.Trim(words[len(words)-1], `"`)
				bound[path[strings.LastIndexByte(path, '/')+1:]] = true
			}
		}
	}
	return bound
}

// lacking are the lines that are needed, less those that are there.
func (f family) lacking(in, code string, needed map[string][]string) (lines []string) {
	squeezed := strings.Join(strings.Fields(code), " ")
	for line, names := range needed {
		if in != "go" && !strings.Contains(line, "{}") && strings.Contains(strings.ReplaceAll(squeezed, "# include", "#include"), strings.TrimSuffix(line, ";")) {
			continue
		}
		if strings.Contains(line, "{}") {
			slices.Sort(names)
			joined := strings.Join(names, ", ")
			if in == "rs" && len(names) > 1 {
				joined = "{" + joined + "}"
			}
			line = strings.Replace(line, "{}", joined, 1)
		}
		if in == "go" {
			line = "import " + line
		}
		lines = append(lines, line)
	}
	slices.Sort(lines)
	return lines
}

// Inline puts lines into a source in such a way that its own lines keep their numbers. Where that
// cannot be, in languages that need lines of their own, it returns the source as it is.
func Inline(in string, text []byte, lines []string) []byte {
	f := families[in]
	if len(lines) == 0 || f.own {
		return text
	}
	at := f.place(in, text)
	end := f.end
	if end == "" {
		end = " "
	}
	var put strings.Builder
	if at > 0 {
		put.WriteString(strings.TrimLeft(end, " ") + " ")
	}
	for _, line := range lines {
		put.WriteString(line)
		if in == "go" {
			put.WriteString(";")
		}
		put.WriteString(end)
	}
	inlined := put.String()
	if in == "go" { // the package line ends with its line
		inlined = "; " + strings.TrimSuffix(strings.TrimSpace(strings.TrimPrefix(inlined, ";")), ";")
		if at == 0 {
			inlined = "package main" + inlined + "; "
		}
	}
	return slices.Concat(text[:at], []byte(inlined), text[at:])
}

// Written puts lines into a source as a person would, each on its own.
func Written(in string, text []byte, lines []string) []byte {
	if len(lines) == 0 {
		return text
	}
	at := families[in].place(in, text)
	put := strings.Join(lines, "\n") + "\n"
	if at > 0 {
		put = "\n\n" + strings.TrimSuffix(put, "\n")
	}
	return slices.Concat(text[:at], []byte(put), text[at:])
}

// place is where lines are put in.
func (f family) place(in string, text []byte) (at int) {
	if f.after == nil {
		return 0
	}
	code := source.Blanked(text, in)
	for _, m := range f.after().FindAllIndex(code, -1) {
		at = m[1]
	}
	return at
}

// Says words what was supplied, shortly: "<vector>, using namespace std".
func Says(lines []string) string {
	words := make([]string, len(lines))
	for i, line := range lines {
		words[i] = shortened().ReplaceAllString(strings.TrimSuffix(line, ";"), "")
	}
	if len(words) > 4 {
		words = append(words[:3], fmt.Sprintf("%d more", len(words)-3))
	}
	return strings.Join(words, ", ")
}

var shortened = lazy.New(`^(?:#include|import|require)\s+`)
