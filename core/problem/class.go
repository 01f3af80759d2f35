package problem

import (
	"fmt"
	"slices"
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
		m, err := parseMethod(text)
		if err == nil && (m.Name == makes || made.Method(m.Name) != nil) {
			err = fmt.Errorf("%s cannot name a further method", m.Name)
		}
		if err != nil {
			wrong("methods", "%v", err)
			continue
		}
		made.Methods = append(made.Methods, m)
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

// ParseCalls reads a sequence, a call a line: "new(2)", "put(1, 10)", "get(1) -> 10"; or the names of
// what is called and all arguments as two arrays. It returns the argument of the sequence as a
// case holds it, and what was said to be returned; nil: nothing was. The line of a mistake is counted
// from 1.
func (c *Call) ParseCalls(text string) (calls string, results []any, line int, err error) {
	var list []string
	if strings.HasPrefix(strings.TrimSpace(text), "[") {
		if list, err = c.twoArrays(text); err != nil {
			return "", nil, 1, err
		}
	} else {
		list = strings.Split(strings.TrimRight(text, "\r\n \t"), "\n")
	}
	var all []any
	said := false
	for i, one := range list {
		if strings.TrimSpace(one) == "" {
			continue
		}
		call, result, expects, err := c.parseOne(strings.TrimSpace(one))
		if err != nil {
			return "", nil, i + 1, err
		}
		if len(all) == 0 && call[0] != makes {
			return "", nil, i + 1, fmt.Errorf("the first call makes an object: new(…)")
		}
		said = said || expects
		all, results = append(all, call), append(results, result)
	}
	if len(all) == 0 {
		return "", nil, 1, fmt.Errorf("there is no call; write new(…), and a call a line")
	}
	var b strings.Builder
	b.WriteString(c.Takes[0].Name + ": [")
	for i, call := range all {
		if i > 0 {
			b.WriteString(",")
		}
		b.WriteString("\n  " + value.Write(call))
	}
	b.WriteString("\n]\n")
	if !said {
		results = nil
	}
	return b.String(), results, 0, nil
}

// parseOne reads one call of a sequence, and what it must return.
func (c *Call) parseOne(text string) (call []any, result any, expects bool, err error) {
	name, rest, ok := strings.Cut(text, "(")
	name = strings.TrimSpace(name)
	inside, after, ok2 := cutAtClosing(rest)
	if !ok || !ok2 {
		return nil, nil, false, fmt.Errorf("expected a call such as get(1) -> 10, found %s", text)
	}
	takes, returns := c.Class.New, (*value.Type)(nil)
	if name == c.Name {
		name = makes
	}
	if name != makes {
		m := c.Class.Method(name)
		if m == nil {
			var names []string
			for _, one := range c.Class.Methods {
				names = append(names, one.Name)
			}
			return nil, nil, false, fmt.Errorf("%s has no method %s; %s", c.Name, name, settings.Nearest(name, append(names, makes)))
		}
		takes, returns = m.Takes, m.Returns
	}
	args, err := argumentsOf(inside, takes)
	if err != nil {
		return nil, nil, false, fmt.Errorf("%s: %w", name, err)
	}
	after, expects = strings.CutPrefix(strings.TrimSpace(after), "->")
	switch {
	case !expects && after != "":
		return nil, nil, false, fmt.Errorf("behind the call of %s stands %q; what it returns stands behind ->", name, after)
	case expects && returns == nil && strings.TrimSpace(after) != "null":
		return nil, nil, false, fmt.Errorf("%s returns nothing, and here is %s", name, strings.TrimSpace(after))
	case !expects && returns != nil:
		result = notSaid
	case expects && returns != nil:
		if result, err = value.Read(after, *returns); err != nil {
			return nil, nil, false, fmt.Errorf("what %s returns: %w", name, err)
		}
	}
	return []any{name, args}, result, expects, nil
}

// argumentsOf reads arguments that are separated by commas.
func argumentsOf(text string, takes []value.Field) ([]any, error) {
	if len(takes) == 0 {
		if strings.TrimSpace(text) != "" {
			return nil, fmt.Errorf("it takes no arguments, and here are %s", text)
		}
		return []any{}, nil
	}
	if len(takes) == 1 {
		v, err := value.Read(text, takes[0].Type)
		return []any{v}, err
	}
	v, err := value.ReadResults("["+text+"]", takes)
	if err != nil {
		return nil, fmt.Errorf("%s", strings.ReplaceAll(err.Error(), "results", "arguments"))
	}
	return v.([]any), nil
}

// twoArrays makes calls a line each of the names of what is called and their arguments.
func (c *Call) twoArrays(text string) (list []string, err error) {
	anything := value.Type{Kind: value.Array, Of: &value.Type{Kind: value.Any}}
	both, err := value.Read("["+strings.Replace(strings.TrimSpace(text), "]\n[", "],\n[", 1)+"]", value.Type{Kind: value.Array, Of: &anything})
	if err != nil {
		return nil, fmt.Errorf("expected two arrays, of names and of arguments: %w", err)
	}
	arrays := both.([]any)
	if len(arrays) != 2 || len(arrays[0].([]any)) != len(arrays[1].([]any)) {
		return nil, fmt.Errorf("expected two arrays of the same length: the names of what is called, and the arguments of each")
	}
	for i, name := range arrays[0].([]any) {
		args, ok := arrays[1].([]any)[i].([]any)
		if !ok {
			return nil, fmt.Errorf("the arguments %d, counted from 0, are no array", i)
		}
		inside := value.Write(args)
		list = append(list, fmt.Sprintf("%v(%s)", name, inside[1:len(inside)-1]))
	}
	return list, nil
}

// notSaid stands for the result of a call of which a case does not say what it must return.
var notSaid = value.Object{{Name: "not said", Value: true}}

// Compared leaves out of what a sequence returned what the case says nothing of.
func (c *Call) Compared(expected, got any) any {
	want, ok := expected.([]any)
	have, ok2 := got.([]any)
	if c.Class == nil || !ok || !ok2 {
		return got
	}
	have = slices.Clone(have)
	for i := range min(len(want), len(have)) {
		if o, ok := want[i].(value.Object); ok && len(o) == 1 && o[0].Name == notSaid[0].Name {
			have[i] = want[i]
		}
	}
	return have
}

// Sequence words one call of a sequence: "get(1)".
func Sequence(calls any, i int) string {
	all, _ := calls.([]any)
	if i < 0 || i >= len(all) {
		return ""
	}
	call, ok := all[i].([]any)
	if !ok || len(call) != 2 {
		return ""
	}
	args, _ := call[1].([]any)
	inside := value.Write(args)
	return fmt.Sprintf("%v(%s)", call[0], strings.TrimSuffix(strings.TrimPrefix(inside, "["), "]"))
}

// WithCalls makes of a sequence that a person wrote down for a new case what a case holds, in a problem that
// asks for a class; other cases stay as they are. The error is a *RequestError.
func (p *Problem) WithCalls(c NewCase) (NewCase, error) {
	if p.Call == nil || p.Call.Class == nil {
		return c, nil
	}
	if _, err := value.ReadCall(string(Plain(c.Input)), p.Call.Takes); err == nil {
		return c, nil
	}
	calls, results, line, err := p.Call.ParseCalls(string(Plain(c.Input)))
	if err != nil {
		return c, &RequestError{fmt.Sprintf("line %d of the calls: %v", line, err)}
	}
	c.Input = []byte(calls)
	if c.Output == nil && results != nil {
		c.Output = []byte(value.Write(results) + "\n")
	}
	return c, nil
}
