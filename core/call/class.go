package call

import (
	"encoding/json"
	"slices"
	"strconv"
	"strings"

	"coldverdict/core/problem"
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
	f.words["METHOD_ROWS"], f.words["NEW_LIST"] = strings.Join(rows, ", "), quoted(made, "", "")
}
