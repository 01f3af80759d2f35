package problem

import (
	"fmt"
	"strings"

	"coldverdict/core/settings"
	"coldverdict/core/value"
)

// A Class is what a problem asks for in place of a function: its objects are made, and their methods
// called, one after the other. To the rest of the house such a sequence is one call, which takes what
// is called and returns what all of that returned.
type Class struct {
	New     []value.Field // what an object is made with
	Methods []Method
}

// A Method is one of a class.
type Method struct {
	Name    string
	Takes   []value.Field
	Returns *value.Type // nil: nothing
}

// makes stands in a sequence for making an object.
const makes = "new"

// Method returns a method by its name; nil: there is none.
func (c *Class) Method(name string) *Method {
	for i := range c.Methods {
		if c.Methods[i].Name == name {
			return &c.Methods[i]
		}
	}
	return nil
}

// sequenceOf is the call that a sequence is.
func sequenceOf(name string, class *Class) *Call {
	return &Call{Name: name, Class: class, Takes: []value.Field{{Name: "calls", Type: value.Type{Kind: value.Any}}}, Returns: []value.Field{{Type: value.Type{Kind: value.Any}}}}
}

// ParseClass reads a class and its methods, with semicolons between them:
// "BeaconCache(room: int); put(beacon: int, reading: text); get(beacon: int) -> text?".
func ParseClass(text string) (*Call, error) {
	list := strings.Split(strings.Trim(text, "; \t\n"), ";")
	made, err := parseMethod(strings.TrimSpace(list[0]))
	if err != nil || made.Returns != nil || len(list) == 1 {
		return nil, fmt.Errorf("%q is no class with its methods; write \"BeaconCache(room: int); put(beacon: int, reading: text); get(beacon: int) -> text?\"", text)
	}
	class := &Class{New: made.Takes}
	for _, one := range list[1:] {
		if err := class.add(one); err != nil {
			return nil, err
		}
	}
	return sequenceOf(made.Name, class), nil
}

// add adds a method, as it is written.
func (c *Class) add(text string) error {
	m, err := parseMethod(text)
	if err == nil && (m.Name == makes || c.Method(m.Name) != nil) {
		err = fmt.Errorf("%s cannot name a further method", m.Name)
	}
	if err == nil {
		c.Methods = append(c.Methods, m)
	}
	return err
}

// String is a method as it is written.
func (m Method) String() string {
	list := make([]string, len(m.Takes))
	for i, f := range m.Takes {
		list[i] = f.String()
	}
	text := m.Name + "(" + strings.Join(list, ", ") + ")"
	if m.Returns != nil {
		text += " -> " + m.Returns.String()
	}
	return text
}

// class reads the table of a class.
func (c *configReader) class(at string, v any) {
	var name string
	var takes, methods []string
	bare := false
	c.Table(at, v, settings.Fields{
		"name": c.Text(&name), "new": c.Texts(&takes), "methods": c.Texts(&methods),
		"prelude": func(at string, v any) {
			supplied := true
			c.Truth(&supplied)(at, v)
			bare = !supplied
		},
	})
	made := &Class{}
	wrong := func(key string, format string, args ...any) {
		if !c.Has(at + "." + key) {
			key = ""
		}
		c.WrongAt(strings.TrimSuffix(at+"."+key, "."), "[class] "+format, args...)
		c.brokenCall = true
	}
	if !value.IsName(name) {
		wrong("name", "%q cannot name a class; use letters, digits and _", name)
		name = "Class"
	}
	for _, text := range takes {
		f, err := value.ParseField(text)
		if err != nil {
			wrong("new", "%v", err)
		}
		made.New = append(made.New, f)
	}
	for _, text := range methods {
		if err := made.add(text); err != nil {
			wrong("methods", "%v", err)
		}
	}
	if len(made.Methods) == 0 && !c.brokenCall {
		wrong("methods", "say which methods it has: methods = [\"put(key: int)\", \"get(key: int) -> int\"]")
	}
	if c.problem.Call != nil {
		wrong("", "a problem asks for a function or for a class; take [call] or [class] out")
	}
	c.problem.Call = sequenceOf(name, made)
	c.problem.Call.Bare = bare
}

// parseMethod reads "get(key: int) -> int"; without a result nothing is returned.
func parseMethod(text string) (m Method, err error) {
	signature := text
	if !strings.Contains(text, "->") {
		signature += " -> int"
	}
	f, err := ParseCall(signature)
	if err != nil {
		return m, err
	}
	if len(f.Returns) != 1 || f.Changes > 0 || f.Returns[0].Name != "" {
		return m, fmt.Errorf("%q: a method returns one value, or nothing", text)
	}
	m = Method{Name: f.Name, Takes: f.Takes}
	if signature == text {
		m.Returns = &f.Returns[0].Type
	}
	return m, nil
}
