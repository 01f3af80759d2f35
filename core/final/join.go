package final

import (
	"bytes"
	"errors"
	"fmt"
	"go/ast"
	"go/parser"
	"go/token"
	"os"
	"path/filepath"
	"slices"
	"strings"

	"coldverdict/core/source"
	"coldverdict/internal/lazy"
)

// goFile is a source of Go, taken apart.
type goFile struct {
	name string
	text []byte
	set  *token.FileSet
	ast  *ast.File
}

func readGo(path string, text []byte) (*goFile, error) {
	f := &goFile{name: filepath.Base(path), text: text, set: token.NewFileSet()}
	var err error
	f.ast, err = parser.ParseFile(f.set, f.name, text, parser.ParseComments)
	return f, err
}

func (f *goFile) at(p token.Pos) int { return f.set.Position(p).Offset }

// declares lists the names that a source declares for others of its package.
func (f *goFile) declares() (names []string) {
	for _, d := range f.ast.Decls {
		switch d := d.(type) {
		case *ast.FuncDecl:
			if d.Recv == nil {
				names = append(names, d.Name.Name)
			}
		case *ast.GenDecl:
			for _, spec := range d.Specs {
				switch spec := spec.(type) {
				case *ast.TypeSpec:
					names = append(names, spec.Name.Name)
				case *ast.ValueSpec:
					for _, name := range spec.Names {
						names = append(names, name.Name)
					}
				}
			}
		}
	}
	return names
}

// lacks reports that a source uses one of some names, and does not declare it.
func (f *goFile) lacks(names []string) bool {
	return slices.ContainsFunc(f.ast.Unresolved, func(one *ast.Ident) bool { return slices.Contains(names, one.Name) })
}

// imports are what a source imports, each as it is written.
func (f *goFile) imports() (list []string) {
	for _, one := range f.ast.Imports {
		list = append(list, string(f.text[f.at(one.Pos()):f.at(one.End())]))
	}
	return list
}

// body is the text behind what a source imports.
func (f *goFile) body() []byte {
	from := f.at(f.ast.Name.End())
	for _, d := range f.ast.Decls {
		if d, ok := d.(*ast.GenDecl); ok && d.Tok == token.IMPORT {
			from = f.at(d.End())
		}
	}
	return bytes.TrimLeft(f.text[from:], "\n")
}

// packaged puts in the files of a package of Go that lie beside and declare what a source uses.
func (m *maker) packaged(path string, text []byte) ([]byte, error) {
	main, err := readGo(path, text)
	if err != nil { // the compiler says it better
		return text, nil
	}
	paths, err := filepath.Glob(filepath.Join(filepath.Dir(path), "*.go"))
	if err != nil {
		return nil, err
	}
	joined := []*goFile{main}
	for grown := true; grown; {
		grown = false
		for _, other := range paths {
			if other == path || m.done[other] || strings.HasSuffix(other, "_test.go") {
				continue
			}
			inside, err := os.ReadFile(other)
			if err != nil {
				return nil, err
			}
			f, err := readGo(other, inside)
			if err != nil || f.ast.Name.Name != main.ast.Name.Name || slices.Contains(f.declares(), "main") {
				continue // another solution, or none that builds
			}
			if slices.ContainsFunc(joined, func(one *goFile) bool { return one.lacks(f.declares()) }) {
				m.done[other] = true
				m.note("put in %s", f.name)
				joined, grown = append(joined, f), true
			}
		}
	}
	if len(joined) == 1 {
		return text, nil
	}
	var imports []string
	for _, f := range joined {
		for _, one := range f.imports() {
			if !slices.Contains(imports, one) {
				imports = append(imports, one)
			}
		}
	}
	out := bytes.Clone(main.text[:main.at(main.ast.Name.End())])
	out = fmt.Appendf(out, "\n\nimport (\n\t%s\n)\n", strings.Join(imports, "\n\t"))
	for _, f := range joined {
		out = append(append(out, '\n'), withEnd(f.body())...)
	}
	return out, nil
}

var (
	jsImport  = lazy.New(`(?m)^[ \t]*import\s+(?:([\w$]+)\s*,?\s*)?(?:\*\s*as\s+([\w$]+)|(\{[^}]*\}))?(?:\s*from)?\s*['"]([^'"\n]+)['"][ \t]*;?`)
	jsDeclare = lazy.New(`(?m)^[ \t]*export\s+((?:async\s+)?function\s*\*?|class|const|let|var)\s+([\w$]+)`)
	jsDefault = lazy.New(`(?m)^[ \t]*export\s+default\s+(?:((?:async\s+)?function\s*\*?|class)\s+([\w$]+))?`)
	jsList    = lazy.New(`(?m)^[ \t]*export\s*(\{[^}]*\})[ \t]*;?`)
	jsPassed  = lazy.New(`(?m)^[ \t]*export\s*(?:\*|\{[^}]*\}\s*from)`)
)

// imported puts in what JavaScript imports from beside, as functions that give what each module
// exports.
func (m *maker) imported(path string, text []byte) ([]byte, error) {
	code := source.Blanked(text, "js")
	var out []byte
	last := 0
	for _, at := range jsImport().FindAllSubmatchIndex(text, -1) {
		if source.IsBlank(code, at[0], at[1]) {
			continue
		}
		part := func(i int) string {
			if at[2*i] < 0 {
				return ""
			}
			return string(text[at[2*i]:at[2*i+1]])
		}
		name := part(4)
		outside := !strings.HasPrefix(name, ".")
		if outside && len(m.within) == 1 {
			continue
		}
		out = append(out, text[last:at[0]]...)
		last = at[1]
		if outside { // which cannot stand in a function
			m.top = fmt.Appendf(m.top, "%s\n", strings.TrimSpace(part(0)))
			continue
		}
		variable, err := m.jsModule(path, filepath.Join(filepath.Dir(path), strings.TrimSuffix(name, ".js")+".js"), name)
		if err != nil {
			return nil, err
		}
		var names []string
		for _, one := range [][2]string{{part(1), variable + ".default"}, {part(2), variable}, {strings.ReplaceAll(part(3), " as ", ": "), variable}} {
			if one[0] != "" {
				names = append(names, fmt.Sprintf("const %s = %s;", one[0], one[1]))
			}
		}
		out = append(out, strings.Join(names, " ")...)
	}
	return append(out, text[last:]...), nil
}

// jsModule puts in a module of JavaScript, as a function that gives what it exports, and returns the
// name that has that.
func (m *maker) jsModule(path, file, name string) (variable string, err error) {
	variable = "module_" + notWord().ReplaceAllString(strings.TrimSuffix(filepath.Base(file), ".js"), "_")
	if m.done[file] {
		return variable, nil
	}
	m.done[file] = true
	inside, err := os.ReadFile(file)
	if err != nil {
		return "", &Error{fmt.Sprintf("%s imports %s, which cannot be read: %v", filepath.Base(path), name, errors.Unwrap(err))}
	}
	if at := jsPassed().Find(inside); at != nil {
		return "", &Error{fmt.Sprintf("%s: %q hands on what another module exports, which is not joined here; import it where it is used", filepath.Base(file), strings.TrimSpace(string(at)))}
	}
	if inside, err = m.joined(file, inside); err != nil {
		return "", err
	}
	m.note("put in %s", filepath.Base(file))
	var exported []string
	export := func(pattern lazy.Regexp, becomes string, as func(found [][]byte) string) {
		inside = pattern().ReplaceAllFunc(inside, func(text []byte) []byte {
			found := pattern().FindSubmatch(text)
			exported = append(exported, as(found))
			return pattern().ReplaceAll(text, []byte(becomes))
		})
	}
	export(jsDeclare, "$1 $2", func(found [][]byte) string { return string(found[2]) })
	inside = jsDefault().ReplaceAllFunc(inside, func(text []byte) []byte {
		found := jsDefault().FindSubmatch(text)
		if len(found[2]) > 0 {
			exported = append(exported, "default: "+string(found[2]))
			return fmt.Appendf(nil, "%s %s", found[1], found[2])
		}
		exported = append(exported, "default: module_default")
		return []byte("const module_default = ")
	})
	export(jsList, "", func(found [][]byte) string {
		var list []string
		for one := range strings.SplitSeq(strings.Trim(string(found[1]), "{}"), ",") {
			if from, as, ok := strings.Cut(strings.TrimSpace(one), " as "); ok {
				list = append(list, strings.TrimSpace(as)+": "+strings.TrimSpace(from))
			} else if one = strings.TrimSpace(one); one != "" {
				list = append(list, one)
			}
		}
		return strings.Join(list, ", ")
	})
	m.ahead = fmt.Appendf(m.ahead, "const %s = (() => {\n%sreturn { %s };\n})();\n", variable, withEnd(inside), strings.Join(exported, ", "))
	return variable, nil
}
