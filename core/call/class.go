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
		rows = append(rows, quoted([]string{m.Name, strings.Join(Spellings(m.Name), ","), strings.Join(takes, ","), returns}, "{", "}"))
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
