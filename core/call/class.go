package call

import (
	"encoding/json"
	"strconv"

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
}
