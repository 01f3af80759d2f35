package steps

import (
	"bytes"
	"cmp"
	"fmt"
	"go/ast"
	"go/parser"
	"go/token"
	"slices"
	"strings"
)

// A source of Go is recorded by what is put into its lines: before a statement a call that names the variables there,
// around conditions of loops and what is returned, at the beginning of functions. golang.go.txt has what is called.

// goInstrumented puts the calls of a recorder into a source; lines stay where they were. The error is the parser's.
func goInstrumented(source []byte) ([]byte, error) {
	files := token.NewFileSet()
	file, err := parser.ParseFile(files, "", source, parser.SkipObjectResolution)
	if err != nil {
		return nil, err
	}
	g := &goWriter{files: files, source: source}
	for _, d := range file.Decls {
		switch d := d.(type) {
		case *ast.FuncDecl:
			if d.Body != nil {
				g.function(d.Name.Name, d.Recv, d.Type, d.Body)
			}
		case *ast.GenDecl:
			if d.Tok == token.VAR {
				for _, s := range d.Specs {
					for _, name := range s.(*ast.ValueSpec).Names {
						if name.Name != "_" {
							g.globals = append(g.globals, name.Name)
						}
					}
					g.literals(s, nil)
				}
			}
		}
	}
	return g.text(), nil
}

// A goWriter collects what is put where.
type goWriter struct {
	files   *token.FileSet
	source  []byte
	added   []goAddition
	globals []string
}

type goAddition struct {
	at    int // in the source
	text  string
	order int // among those at one place
}

// A goFrame is what is known within a function: the variables that hold at a place.
type goFrame struct {
	names   []string
	results []string // types of what is returned, where it has no names
}

func (g *goWriter) add(at token.Pos, format string, args ...any) {
	g.added = append(g.added, goAddition{g.files.Position(at).Offset, fmt.Sprintf(format, args...), len(g.added)})
}

func (g *goWriter) line(at token.Pos) int { return g.files.Position(at).Line }

func (g *goWriter) of(n ast.Node) string {
	return string(g.source[g.files.Position(n.Pos()).Offset:g.files.Position(n.End()).Offset])
}

// text is the source with all that was added.
func (g *goWriter) text() []byte {
	slices.SortFunc(g.added, func(a, b goAddition) int { return cmp.Or(cmp.Compare(a.at, b.at), cmp.Compare(a.order, b.order)) })
	var out bytes.Buffer
	last := 0
	for _, a := range g.added {
		out.Write(g.source[last:a.at])
		out.WriteString(a.text)
		last = a.at
	}
	out.Write(g.source[last:])
	out.WriteString("\nfunc init() { cold_Globals(" + strings.TrimPrefix(variables(g.globals), ", ") + ") }\n")
	return out.Bytes()
}

// variables are arguments that name variables and point to them.
func variables(names []string) string {
	var out strings.Builder
	for _, name := range names {
		fmt.Fprintf(&out, ", %q, &%s", name, name)
	}
	return out.String()
}

// with returns a frame that knows further names; a name hides those before it.
func (f *goFrame) with(names ...string) *goFrame {
	inner := &goFrame{names: slices.Clone(f.names), results: f.results}
	for _, name := range names {
		if name == "_" || name == "" {
			continue
		}
		inner.names = slices.DeleteFunc(inner.names, func(n string) bool { return n == name })
		inner.names = append(inner.names, name)
	}
	return inner
}

// function takes one with a body.
func (g *goWriter) function(name string, receiver *ast.FieldList, of *ast.FuncType, body *ast.BlockStmt) {
	f := &goFrame{}
	var named []string
	for _, list := range []*ast.FieldList{receiver, of.Params, of.Results} {
		if list == nil {
			continue
		}
		for _, one := range list.List {
			for _, name := range one.Names {
				f = f.with(name.Name)
			}
			if list == of.Results && len(one.Names) > 0 {
				named = append(named, identifiersOf(one.Names)...)
			} else if list == of.Results {
				f.results = append(f.results, g.of(one.Type))
			}
		}
	}
	var results strings.Builder
	for _, name := range named {
		results.WriteString(", &" + name)
	}
	g.add(body.Lbrace+1, " cold_Frame := cold_Enter(%q); defer cold_Leave(cold_Frame%s);", name, &results)
	g.block(body.List, f)
}

// block takes statements one after the other.
func (g *goWriter) block(list []ast.Stmt, f *goFrame) *goFrame {
	for _, s := range list {
		f = g.statement(s, f)
	}
	return f
}

// statement takes one that stands in a list, and returns the frame behind it.
func (g *goWriter) statement(s ast.Stmt, f *goFrame) *goFrame {
	if _, ok := s.(*ast.EmptyStmt); ok {
		return f
	}
	g.add(s.Pos(), "cold_Line(cold_Frame, %d%s); ", g.line(s.Pos()), variables(f.names))
	for {
		labeled, ok := s.(*ast.LabeledStmt)
		if !ok {
			break
		}
		s = labeled.Stmt
	}
	switch s := s.(type) {
	case *ast.AssignStmt:
		g.literals(s, f)
		if s.Tok == token.DEFINE {
			return f.with(identifiers(s.Lhs)...)
		}
	case *ast.DeclStmt:
		g.literals(s, f)
		if d, ok := s.Decl.(*ast.GenDecl); ok && d.Tok == token.VAR {
			for _, spec := range d.Specs {
				for _, name := range spec.(*ast.ValueSpec).Names {
					f = f.with(name.Name)
				}
			}
		}
	case *ast.BlockStmt:
		g.block(s.List, f)
	case *ast.IfStmt:
		g.choice(s, f)
	case *ast.ForStmt:
		inner := g.begun(s.Init, f)
		var stepped []string // what the loop itself changes
		switch post := s.Post.(type) {
		case *ast.IncDecStmt:
			stepped = identifiers([]ast.Expr{post.X})
		case *ast.AssignStmt:
			stepped = identifiers(post.Lhs)
		}
		inner = inner.with(stepped...)
		if s.Cond != nil {
			g.literals(s.Cond, inner)
			g.condition(s.Cond, s.For, inner, len(stepped))
		} else {
			g.round(s.Body, s.For, inner, len(stepped))
		}
		if s.Post != nil {
			g.literals(s.Post, inner)
		}
		g.block(s.Body.List, inner)
	case *ast.RangeStmt:
		g.literals(s.X, f)
		stepped := slices.DeleteFunc(identifiers([]ast.Expr{s.Key, s.Value}), func(name string) bool { return name == "_" })
		inner := f.with(stepped...)
		g.round(s.Body, s.For, inner, len(stepped))
		g.block(s.Body.List, inner)
	case *ast.SwitchStmt:
		g.cases(s.Body, g.begun(s.Init, f))
	case *ast.TypeSwitchStmt:
		g.cases(s.Body, g.begun(s.Init, f))
	case *ast.SelectStmt:
		g.cases(s.Body, f)
	case *ast.ReturnStmt:
		g.literals(s, f)
		if len(s.Results) == len(f.results) {
			for i, r := range s.Results {
				g.add(r.Pos(), "cold_Return[%s](cold_Frame, ", f.results[i])
				g.add(r.End(), ")")
			}
		}
	default:
		g.literals(s, f)
	}
	return f
}

// begun is the frame behind what a statement begins with.
func (g *goWriter) begun(init ast.Stmt, f *goFrame) *goFrame {
	if init == nil {
		return f
	}
	g.literals(init, f)
	if d, ok := init.(*ast.AssignStmt); ok && d.Tok == token.DEFINE {
		return f.with(identifiers(d.Lhs)...)
	}
	return f
}

// condition has a line told whenever its condition is asked. The last so many of the variables are changed there.
func (g *goWriter) condition(cond ast.Expr, at token.Pos, f *goFrame, changed int) {
	g.add(cond.Pos(), "cold_Asked(cold_Frame, %d, %d%s) && (", g.line(at), changed, variables(f.names))
	g.add(cond.End(), ")")
}

// round has the line of a loop told whenever it goes round.
func (g *goWriter) round(body *ast.BlockStmt, at token.Pos, f *goFrame, changed int) {
	g.add(body.Lbrace+1, " cold_Round(cold_Frame, %d, %d%s);", g.line(at), changed, variables(f.names))
}

// choice takes an if with all that follows as else.
func (g *goWriter) choice(s *ast.IfStmt, f *goFrame) {
	inner := g.begun(s.Init, f)
	g.literals(s.Cond, inner)
	g.block(s.Body.List, inner)
	switch other := s.Else.(type) {
	case *ast.BlockStmt:
		g.block(other.List, inner)
	case *ast.IfStmt:
		if other.Init == nil {
			g.condition(other.Cond, other.If, inner, 0)
		}
		g.choice(other, inner)
	}
}

func (g *goWriter) cases(body *ast.BlockStmt, f *goFrame) {
	for _, c := range body.List {
		switch c := c.(type) {
		case *ast.CaseClause:
			g.block(c.Body, f)
		case *ast.CommClause:
			inner := f
			if d, ok := c.Comm.(*ast.AssignStmt); ok && d.Tok == token.DEFINE {
				inner = f.with(identifiers(d.Lhs)...)
			}
			g.block(c.Body, inner)
		}
	}
}

// literals finds functions within an expression or a simple statement, and calls of os.Exit, which tell first what was
// printed.
func (g *goWriter) literals(n ast.Node, f *goFrame) {
	ast.Inspect(n, func(n ast.Node) bool {
		switch n := n.(type) {
		case *ast.FuncLit:
			g.function("func", nil, n.Type, n.Body)
			return false
		case *ast.SelectorExpr:
			if x, ok := n.X.(*ast.Ident); ok && x.Name == "os" && n.Sel.Name == "Exit" {
				g.add(n.Pos(), "cold_Exit(")
				g.add(n.End(), ")")
			}
		}
		return true
	})
}

func identifiersOf(list []*ast.Ident) (names []string) {
	for _, id := range list {
		if id.Name != "_" {
			names = append(names, id.Name)
		}
	}
	return names
}

// identifiers are the names among expressions.
func identifiers(list []ast.Expr) (names []string) {
	for _, e := range list {
		if id, ok := e.(*ast.Ident); ok {
			names = append(names, id.Name)
		}
	}
	return names
}
