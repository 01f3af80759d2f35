package program

import (
	"bytes"
	"go/ast"
	"go/parser"
	"go/token"
	"strconv"
	"strings"

	"coldverdict/core/call"
	"coldverdict/core/source"
	"coldverdict/core/toolchain"
	"coldverdict/internal/lazy"
)

var (
	pyMain   = lazy.New(`(?m)^if[ \t]+__name__[ \t]*==.*:.*\n(?:[ \t]+.*\n|[ \t]*\n)*`)
	rubyMain = lazy.New(`(?ms)^if[ \t]+(?:__FILE__[ \t]*==[ \t]*\$(?:0|PROGRAM_NAME)|\$0[ \t]*==[ \t]*__FILE__)\b.*?^end[ \t]*\n?`)
	jsMain   = lazy.New(`(?m)^if[ \t]*\([ \t]*require\.main[ \t]*===?[ \t]*module[ \t]*\)[ \t]*\{`)
)

// WithoutMain returns a source without what makes it a program: its main function, or what runs
// only in the file that is started. In Python what stands outside of all functions and reads or
// prints goes, too.
func WithoutMain(l *toolchain.Language, text []byte) []byte {
	text = append(bytes.TrimRight(text, "\n"), '\n')
	switch source.Family(l.Extensions) {
	case "py":
		return onlyDeclared(pyMain().ReplaceAll(text, nil))
	case "rb":
		return rubyMain().ReplaceAll(text, nil)
	case "js":
		if at := jsMain().FindIndex(text); at != nil {
			return cutBlock(text, at[0], at[1]-1, source.Blanked(text, "js"))
		}
		return text
	}
	from, open, ok := call.Main(text)
	if !ok {
		return text
	}
	text = cutBlock(text, from, open, source.Blanked(text, source.Family(l.Extensions)))
	if source.Family(l.Extensions) == "go" {
		text = withoutUnused(text)
	}
	return text
}

// withoutUnused takes out what a source of Go imports and does not use, which is an error there.
func withoutUnused(text []byte) []byte {
	set := token.NewFileSet()
	file, err := parser.ParseFile(set, "", text, parser.ParseComments)
	if err != nil { // the compiler says it better
		return text
	}
	used := map[string]bool{}
	ast.Inspect(file, func(n ast.Node) bool {
		if s, ok := n.(*ast.SelectorExpr); ok {
			if of, ok := s.X.(*ast.Ident); ok {
				used[of.Name] = true
			}
		}
		return true
	})
	var out []byte
	at := func(p token.Pos) int { return set.Position(p).Offset }
	last := 0
	for _, one := range file.Imports {
		path, _ := strconv.Unquote(one.Path.Value)
		name := path[strings.LastIndexByte(path, '/')+1:]
		if one.Name != nil {
			name = one.Name.Name
		}
		if used[name] || name == "_" || name == "." {
			continue
		}
		from, to := at(one.Pos()), at(one.End())
		for _, d := range file.Decls {
			if d, ok := d.(*ast.GenDecl); ok && len(d.Specs) == 1 && d.Specs[0] == ast.Spec(one) {
				from, to = at(d.Pos()), at(d.End())
			}
		}
		out = append(out, text[last:from]...)
		last = to
	}
	return append(out, text[last:]...)
}

// cutBlock takes out what begins at from and ends with the block that opens at open.
func cutBlock(text []byte, from, open int, code []byte) []byte {
	depth := 0
	for end := open; end < len(code); end++ {
		switch code[end] {
		case '{':
			depth++
		case '}':
			if depth--; depth == 0 {
				rest := bytes.TrimLeft(text[end+1:], " \t")
				return append(bytes.Clone(text[:from]), bytes.TrimPrefix(rest, []byte("\n"))...)
			}
		}
	}
	return text
}

var (
	pyDeclares  = lazy.New(`^(?:import|from|def|class|async[ \t]+def|@|#)`)
	pyAssigns   = lazy.New(`^\w+(?:[ \t]*:[^=]*)?[ \t]*=[^=]`)
	pyReads     = lazy.New(`\b(?:input|stdin)\b|\bopen[ \t]*\(`)
	pyContinues = lazy.New(`^(?:[ \t]|[\])}]|(?:elif|else|except|finally)\b|[ \t]*\n)`)
)

// onlyDeclared leaves of a source of Python what it declares: imports, functions, classes and
// values that are not read.
func onlyDeclared(text []byte) []byte {
	code := source.Blanked(text, "py")
	var kept, statement []byte
	stays := func() bool {
		one := string(statement)
		return pyDeclares().MatchString(one) || pyAssigns().MatchString(one) && !pyReads().MatchString(one)
	}
	end := func() {
		if stays() || len(statement) > 0 && (statement[0] == '"' || statement[0] == '\'') {
			kept = append(kept, statement...)
		}
		statement = statement[:0]
	}
	open, at := 0, 0 // brackets, bytes
	for line := range bytes.Lines(text) {
		if open == 0 && len(statement) > 0 && !pyContinues().Match(line) {
			end()
		}
		statement = append(statement, line...)
		for _, c := range code[at : at+len(line)] {
			switch c {
			case '(', '[', '{':
				open++
			case ')', ']', '}':
				open = max(0, open-1)
			}
		}
		at += len(line)
	}
	end()
	return kept
}
