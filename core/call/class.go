package call

import (
	"encoding/json"
	"fmt"
	"go/ast"
	"regexp"
	"slices"
	"strconv"
	"strings"

	"coldverdict/core/problem"
	"coldverdict/core/value"
)

// A wireMethod is a method of a class as drivers are told of it.
type wireMethod struct {
	Names   []string `json:"names"` // in any spelling
	Takes   []string `json:"takes"`
	Returns string   `json:"returns"` // empty: nothing
}

// ofClass fills in what drivers need for sequences of calls.
func (f *fitting) ofClass(class *problem.Class) {
	methods := map[string]wireMethod{}
	for _, m := range class.Methods {
		one := wireMethod{Names: Spellings(m.Name), Takes: []string{}}
		for _, field := range m.Takes {
			one.Takes = append(one.Takes, field.Type.String())
		}
		if m.Returns != nil {
			one.Returns = m.Returns.String()
		}
		methods[m.Name] = one
	}
	made := []string{}
	for _, field := range class.New {
		made = append(made, field.Type.String())
	}
	text := func(v any) string {
		b, _ := json.Marshal(v) // of texts alone
		return string(b)
	}
	f.words["CLASS"], f.words["METHODS"], f.words["NEW"] = text(f.function.Name), text(methods), text(made)
	f.words["METHODS_TEXT"] = strconv.Quote(text(methods))
	f.methodRows()
}

// Sequence is what a driver is given of a sequence of calls: of each the method, the number of its
// object, its arguments, and by pairs which of these are what earlier calls returned. Wide says that
// integers past 2^53 are passed as texts.
func Sequence(class *problem.Class, steps []problem.Step, wide bool) any {
	list := make([]any, len(steps))
	for i, s := range steps {
		args := s.Args
		if wide {
			args = make([]any, len(s.Args))
			for j, field := range class.Takes(s.Method) {
				args[j] = value.Widened(s.Args[j], field.Type)
			}
		}
		uses := []any{}
		for _, use := range s.Uses {
			uses = append(uses, int64(use.Argument), int64(use.Step))
		}
		list[i] = []any{s.Method, int64(s.Object), args, uses}
	}
	return list
}

// classNamed finds the class that a problem asks for in an outline. The error is a refusal.
func (f *fitting) classNamed(o *outline) (*scope, error) {
	names := Spellings(f.function.Name)
	for _, t := range slices.Backward(o.types) {
		if slices.Contains(names, t.name) && t.kind != "interface" && t.kind != "trait" {
			return t, nil
		}
	}
	return nil, refuse("there is no class %s in %s", strings.Join(names, " or "), f.file)
}

// methodRows are the methods of a class for languages without JSON at hand: each its name, its spellings,
// the types of its arguments and that of its result, in braces.
func (f *fitting) methodRows() {
	var rows, made []string
	for _, m := range f.function.Class.Methods {
		var takes []string
		for _, field := range m.Takes {
			takes = append(takes, field.Type.String())
		}
		returns := ""
		if m.Returns != nil {
			returns = m.Returns.String()
		}
		rows = append(rows, quoted([]string{m.Name, strings.Join(Spellings(m.Name), ","), strings.Join(takes, ";"), returns}, "{", "}"))
	}
	for _, field := range f.function.Class.New {
		made = append(made, field.Type.String())
	}
	f.words["METHOD_ARRAYS"] = "new string[][] { new[] " + strings.Join(rows, ", new[] ") + " }"
	f.words["METHOD_ROWS"], f.words["NEW_LIST"] = strings.Join(rows, ", "), quoted(made, "", "")
}

// goClass fills in what makes an object of a class in Go, and its methods: what makes one is a function
// that returns it, named Constructor, New or New and the class's name, or else its zero value.
func (f *fitting) goClass(file *ast.File) error {
	names := Spellings(f.function.Name)
	typeOf := func(e ast.Expr) (name string, pointer bool) {
		if star, ok := e.(*ast.StarExpr); ok {
			e, pointer = star.X, true
		}
		ident, ok := e.(*ast.Ident)
		if !ok {
			return "", false
		}
		return ident.Name, pointer
	}
	class, maker := "", ""
	methods := map[string]string{} // how they are called, by their names
	for _, d := range file.Decls {
		switch d := d.(type) {
		case *ast.GenDecl:
			for _, spec := range d.Specs {
				if t, ok := spec.(*ast.TypeSpec); ok && slices.Contains(names, t.Name.Name) {
					class = t.Name.Name
				}
			}
		case *ast.FuncDecl:
			if d.Recv != nil {
				if name, _ := typeOf(d.Recv.List[0].Type); slices.Contains(names, name) {
					methods[d.Name.Name] = "(*" + name + ")." + d.Name.Name
				}
				continue
			}
			if d.Type.Results == nil || len(d.Type.Results.List) != 1 {
				continue
			}
			name, _ := typeOf(d.Type.Results.List[0].Type)
			if slices.Contains(names, name) && (maker == "" || strings.HasPrefix(strings.ToLower(d.Name.Name), "new") || d.Name.Name == "Constructor") {
				maker = d.Name.Name
			}
		}
	}
	if class == "" {
		return refuse("there is no type %s in %s", strings.Join(names, " or "), f.file)
	}
	if maker == "" {
		maker = "func() *" + class + " { return new(" + class + ") }"
	}
	types := func(fields []value.Field) string {
		var list []string
		for _, field := range fields {
			list = append(list, field.Type.String())
		}
		return quoted(list, "{", "}")
	}
	rows, kinds := []string{`"new": ` + maker}, []string{`"new": {` + types(f.function.Class.New) + `, nil}`}
	for _, m := range f.function.Class.Methods {
		found := ""
		for _, name := range Spellings(m.Name) {
			if found == "" {
				found = methods[name]
			}
		}
		if found == "" {
			return refuse("%s has no method %s", class, m.Name)
		}
		returns := "nil"
		if m.Returns != nil {
			returns = quoted([]string{m.Returns.String()}, "{", "}")
		}
		rows = append(rows, fmt.Sprintf("%q: %s", m.Name, found))
		kinds = append(kinds, fmt.Sprintf("%q: {%s, %s}", m.Name, types(m.Takes), returns))
	}
	f.words["GO_METHODS"], f.words["GO_TYPES"] = strings.Join(rows, ", "), strings.Join(kinds, ", ")
	f.words["FUNCTION"] = "func() {}" // which nobody calls
	return nil
}

// cppClass fills in what reads and makes the calls of a class in C++.
func (f *fitting) cppClass() error {
	o := outlined(f.source, Spellings(f.function.Name))
	class, err := f.classNamed(o)
	if err != nil {
		return err
	}
	nodes, err := f.cppNodes(o)
	if err != nil {
		return err
	}
	name := "::" + strings.ReplaceAll(class.path, "$", "::")
	var params []string
	for _, s := range o.sites { // its constructors
		if list := split(s.params); s.name == class.name && len(list) == len(f.function.Class.New) {
			params = list
		}
	}
	made := []string{name}
	for i, field := range f.function.Class.New {
		param := ""
		if i < len(params) {
			param = params[i]
		}
		made = append(made, cppType(field.Type, param))
	}
	var body strings.Builder
	for _, m := range f.function.Class.Methods {
		found := ""
		for _, spelling := range Spellings(m.Name) {
			if found == "" && regexp.MustCompile(`\b`+spelling+`\s*\(`).MatchString(o.text) {
				found = spelling
			}
		}
		if found == "" {
			return refuse("%s has no method %s", class.name, m.Name)
		}
		fmt.Fprintf(&body, "    if (name == %q) return cold_driver::methodStep<%s>(&%s::%s, %t);\n", m.Name, name, name, found, m.Returns != nil)
	}
	f.words["SEQUENCES"] = nodeText("sequences.cpp")
	f.words["SETUP"] = nodes + fmt.Sprintf("static cold_driver::Step<%s> *cold_step(const std::string &name) {\n%s    return new cold_driver::MakerStep<%s>();\n}\n", name, body.String(), strings.Join(made, ", "))
	f.words["SERVE"] = "cold_driver::runSequences<" + name + ">(cold_step);"
	return nil
}

// rustClass writes what reads and makes the calls of a class in Rust.
func (f *fitting) rustClass() error {
	class := f.function.Class
	o := outlined(f.source, Spellings(f.function.Name))
	kind, err := f.classNamed(o)
	if err != nil {
		return err
	}
	nodes, err := f.rustNodes(o)
	if err != nil {
		return err
	}
	f.rustWithoutMain()
	f.behind(f.nodeClasses(rustNode))
	var variants, reads, again, makes strings.Builder
	for i, m := range append([]problem.Method{{Name: "new", Takes: class.New}}, class.Methods...) {
		s, err := f.rustMethod(kind.name, m.Name)
		if err != nil {
			return err
		}
		params := split(s.params)
		call := "super::" + kind.name + "::" + s.name
		if len(params) > 0 && receiverParameter().MatchString(params[0]) {
			call, params = "objects.get_mut(&s.at).unwrap()."+s.name, params[1:]
		}
		if len(params) != len(m.Takes) {
			return otherwiseDeclared(s.name, len(m.Takes), "argument", "", len(params))
		}
		var owned, names, mutable, args []string
		fmt.Fprintf(&reads, "            %q => {\n", m.Name)
		if len(params) == 0 {
			reads.WriteString("                r.next();\n")
		}
		for j, param := range params {
			_, declared, _ := strings.Cut(param, ":")
			held, borrow := rustOwned(strings.TrimSpace(declared))
			take := "<" + held + " as Take>::take(r)"
			if isNodes(m.Takes[j].Type) {
				take = "Nodes::take_nodes(r)"
			}
			name := fmt.Sprintf("a%d", j)
			owned, names, mutable, args = append(owned, held), append(names, name), append(mutable, "mut "+name), append(args, borrow+name)
			fmt.Fprintf(&reads, "                r.next();\n                r.parameter = %d;\n                let a%d: %s = %s;\n", j+1, j, held, take)
			fmt.Fprintf(&again, "                (Args::A%d(%s), %d) => *a%d = %s,\n", i, strings.Join(rustOnly(len(params), j), ", "), j, j, take)
		}
		fmt.Fprintf(&variants, "A%d(%s), ", i, strings.Join(owned, ", "))
		fmt.Fprintf(&reads, "                r.next();\n                Args::A%d(%s)\n            }\n", i, strings.Join(names, ", "))
		fmt.Fprintf(&makes, "                Args::A%d(%s) => {\n                    times.push(0);\n                    let began = now();\n                    let result = %s(%s);\n                    *times.last_mut().unwrap() = now() - began;\n",
			i, strings.Join(mutable, ", "), call, strings.Join(args, ", "))
		give := "text.push_str(\"null\");"
		switch {
		case i == 0:
			give = "objects.insert(s.at, result);\n                    " + give
		case m.Returns != nil && isNodes(*m.Returns):
			give = "{ let mut result = result; result.give_nodes(&mut text, misfit); result.drop_nodes() }"
		case strings.Contains(s.after, "->"):
			fails := "if let Some(words) = result.fails() { return Some(words); }\n                    "
			if m.Returns != nil {
				give = "result.give(&mut text);"
			}
			give = fails + give
		}
		fmt.Fprintf(&makes, "                    %s\n                }\n", give)
	}
	f.words["NODES"] = nodes
	f.words["SEQUENCES"] = strings.NewReplacer("{class}", kind.name, "{variants}", variants.String(), "{reads}", reads.String(), "{again}", again.String(), "{makes}", makes.String()).Replace(nodeText("sequences.rs"))
	f.words["TAKE"] = "            let mut asked = steps(&mut r);"
	f.words["CALL"] = "make(&mut asked, &mut out, &mut times, &mut r.misfit)"
	f.words["SPENT"], f.words["COUNTED"], f.words["CHANGED"] = "times.iter().sum()", "", ""
	f.words["GIVE"] = "if let Some(words) = result { eprintln!(\"Error: {}\", words); failed = true; }"
	return nil
}

// rustOnly are patterns of which but one has a name.
func rustOnly(n, at int) []string {
	list := make([]string, n)
	for i := range list {
		list[i] = "_"
	}
	list[at] = fmt.Sprintf("a%d", at)
	return list
}

// rustMethod finds a method of a class, in any of its impls.
func (f *fitting) rustMethod(class, name string) (site, error) {
	for _, s := range outlined(f.source, Spellings(name)).sites {
		if len(s.scopes) > 0 && s.scopes[len(s.scopes)-1] == class {
			return s, nil
		}
	}
	return site{}, refuse("%s has no method %s", class, name)
}

// Script is what a driver is given of a script: of each step when it is made, what it is, a name, and the
// arguments of its calls.
func Script(steps []problem.ScriptStep) any {
	list := make([]any, len(steps))
	for i, s := range steps {
		calls := []any{}
		for _, args := range s.Args {
			calls = append(calls, args)
		}
		list[i] = []any{s.At, s.What, s.Name, calls}
	}
	return list
}
