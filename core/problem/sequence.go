package problem

import (
	"fmt"
	"slices"
	"strings"

	"coldverdict/core/settings"
	"coldverdict/core/shape"
	"coldverdict/core/value"
)

// A case of a problem that asks for a class holds a sequence of calls, one a line: "new(2)", "put(1, 10)".
// "a = new(2)" names an object, whose methods are "a.put(1, 10)"; a call without a name belongs to the
// object that was made last. "letter = encode([1, 2])" names what a call returned, which is an argument of
// later ones.

// A Step is one call of a sequence.
type Step struct {
	Line    int    // of the text, from 1
	Text    string // as it was written, without what it must return
	Method  string // "new" makes an object
	Object  int    // of those that the sequence makes, from 0
	Args    []any  // of the types that the method takes
	Uses    []Use
	Result  any  // what it must return
	Expects bool // that is known
}

// A Use is an argument that an earlier step returned; among the arguments stands a value of the same type.
type Use struct{ Argument, Step int }

// Takes are what a method takes, or what an object is made with.
func (c *Class) Takes(method string) []value.Field {
	if m := c.Method(method); m != nil {
		return m.Takes
	}
	return c.New
}

// Steps reads a sequence. The error is a *value.Mistake.
func (c *Call) Steps(text string) (steps []Step, err error) {
	r := &sequenceReader{call: c, named: map[string]named{}}
	offset, number := 0, 0
	for line := range strings.Lines(text) {
		number++
		if strings.TrimSpace(line) != "" {
			step, err := r.step(strings.TrimRight(line, "\r\n"))
			if err != nil {
				return nil, &value.Mistake{Offset: offset, Text: err.Error()}
			}
			step.Line = number
			steps = append(steps, step)
			r.count++
		}
		offset += len(line)
	}
	if len(steps) == 0 {
		return nil, &value.Mistake{Text: "there is no call; write new(…), and a call a line"}
	}
	return steps, nil
}

// A sequenceReader goes through the lines of a sequence.
type sequenceReader struct {
	call    *Call
	count   int // of the calls before
	objects int // that were made before
	named   map[string]named
}

// What is named in a sequence: an object, or what a call returned.
type named struct {
	object  bool
	number  int         // of the object, or of the call
	returns *value.Type // nil: it is an object
}

// step reads a line.
func (r *sequenceReader) step(line string) (s Step, err error) {
	head, rest, ok := strings.Cut(line, "(")
	inside, after, ok2 := cutAtClosing(rest)
	if !ok || !ok2 {
		return s, fmt.Errorf("expected a call such as get(1) -> 10, found %s", strings.TrimSpace(line))
	}
	s.Text = strings.TrimSpace(line[:len(line)-len(after)])
	name, called, given := strings.Cut(head, "=")
	if !given {
		name, called = "", head
	}
	name, called = strings.TrimSpace(name), strings.TrimSpace(called)
	object, method, of := strings.Cut(called, ".")
	if !of {
		object, method = "", called
	}
	s.Object = r.objects - 1
	if of {
		o, known := r.named[object]
		if !known || !o.object {
			return s, fmt.Errorf("no object is called %s; write %s = new(…) before", object, object)
		}
		s.Object = o.number
	}
	if s.Method = method; method == r.call.Name && !of {
		s.Method = makes
	}
	var returns *value.Type
	if s.Method == makes {
		if of {
			return s, fmt.Errorf("new makes an object of its own; write %s = new(…)", object)
		}
		s.Object = r.objects
		r.objects++
	} else {
		m := r.call.Class.Method(method)
		if m == nil {
			return s, fmt.Errorf("%s has no method %s; %s", r.call.Name, method, settings.Nearest(method, r.call.Class.names()))
		}
		if returns = m.Returns; s.Object < 0 {
			return s, fmt.Errorf("the first call makes an object: new(…)")
		}
	}
	if s.Args, s.Uses, err = r.arguments(inside, r.call.Class.Takes(s.Method)); err != nil {
		return s, fmt.Errorf("%s: %w", s.Method, err)
	}
	if given {
		if err := r.name(name, s, returns); err != nil {
			return s, err
		}
	}
	return s, s.expect(after, returns)
}

// name gives a name to what a step makes or returns.
func (r *sequenceReader) name(name string, s Step, returns *value.Type) error {
	switch {
	case !value.IsName(name) || slices.Contains([]string{"null", "true", "false"}, name):
		return fmt.Errorf("%q names nothing; use letters, digits and _", name)
	case s.Method == makes:
		r.named[name] = named{object: true, number: s.Object}
	case returns == nil:
		return fmt.Errorf("%s returns nothing that could be called %s", s.Method, name)
	default:
		r.named[name] = named{number: r.count, returns: returns}
	}
	return nil
}

// expect reads what stands behind a call.
func (s *Step) expect(after string, returns *value.Type) (err error) {
	after, s.Expects = strings.CutPrefix(strings.TrimSpace(after), "->")
	switch {
	case !s.Expects && after != "":
		return fmt.Errorf("behind the call of %s stands %q; what it returns stands behind ->", s.Method, after)
	case s.Expects && returns == nil && strings.TrimSpace(after) != "null":
		return fmt.Errorf("%s returns nothing, and here is %s", s.Method, strings.TrimSpace(after))
	case s.Expects && returns != nil:
		if s.Result, err = value.Read(after, *returns); err != nil {
			return fmt.Errorf("what %s returns: %w", s.Method, err)
		}
	case !s.Expects && returns != nil:
		s.Result = notSaid
	}
	return nil
}

// arguments reads what stands between the parentheses of a call.
func (r *sequenceReader) arguments(text string, takes []value.Field) (args []any, uses []Use, err error) {
	if len(r.named) > 0 {
		list := SplitArguments(text)
		for i, one := range list {
			n, known := r.named[strings.TrimSpace(one)]
			if !known || i >= len(takes) {
				continue
			}
			if n.object {
				return nil, nil, fmt.Errorf("%s is an object, which is no argument", strings.TrimSpace(one))
			}
			if n.returns.String() != takes[i].Type.String() {
				return nil, nil, fmt.Errorf("%s is %s, and %s is %s", strings.TrimSpace(one), n.returns, takes[i].Name, takes[i].Type)
			}
			uses = append(uses, Use{i, n.number})
			list[i] = value.Write(takes[i].Type.Zero())
		}
		text = strings.Join(list, ",")
	}
	args, err = ReadListed(text, takes)
	return args, uses, err
}

// SplitArguments splits at commas that are in no quotes or brackets.
func SplitArguments(text string) (list []string) {
	from := 0
	for i, depth := range outsideQuotes(text) {
		if text[i] == ',' && depth == 0 {
			list = append(list, text[from:i])
			from = i + 1
		}
	}
	return append(list, text[from:])
}

// ReadListed reads arguments that are separated by commas, each as the type that it has. The error says what is
// wrong with them.
func ReadListed(text string, takes []value.Field) ([]any, error) {
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

// names are those of all that can be called.
func (c *Class) names() []string {
	list := []string{makes}
	for _, m := range c.Methods {
		list = append(list, m.Name)
	}
	return list
}

// parseCalls reads a sequence as a person writes it: a call a line, with what it must return behind "->",
// or the names of what is called and all arguments as two arrays. It returns the calls, one a line, as a
// case holds them, and what they must return; nil: nothing is known of that. The line of a mistake is
// counted from 1.
func (c *Call) parseCalls(text string) (calls string, results []any, line int, err error) {
	if strings.HasPrefix(strings.TrimSpace(text), "[") {
		if text, err = c.twoArrays(text); err != nil {
			return "", nil, 1, err
		}
	}
	steps, err := c.Steps(text)
	if err != nil {
		return "", nil, lineOf(text, err), err
	}
	said := false
	var b strings.Builder
	for _, s := range steps {
		b.WriteString(s.Text + "\n")
		results = append(results, s.Result)
		said = said || s.Expects
	}
	if !said {
		results = nil
	}
	return b.String(), results, 0, nil
}

// withResults is a sequence with what each call must return behind it; ok says that this is known, and
// was not kept from a solution.
func (p *Problem) withResults(c NewCase) (text []byte, ok bool) {
	if p.Call == nil || p.Call.Class == nil || c.Output == nil || c.From != "" || c.shared != "" {
		return nil, false
	}
	steps, err := p.Call.Steps(string(c.Input))
	if err != nil {
		return nil, false
	}
	results, err := value.Read(string(Plain(c.Output)), value.Type{Kind: value.Any})
	list, _ := results.([]any)
	if err != nil || len(list) != len(steps) {
		return nil, false
	}
	for i, s := range steps {
		text = append(text, s.Text...)
		returns := p.Call.Class.Method(s.Method)
		said, isObject := list[i].(value.Object)
		if returns != nil && returns.Returns != nil && !(isObject && len(said) == 1 && said[0].Name == notSaid[0].Name) {
			text = append(append(text, " -> "...), value.Write(list[i])...)
		}
		text = append(text, '\n')
	}
	return text, true
}

// twoArrays makes calls a line each of the names of what is called and their arguments.
func (c *Call) twoArrays(text string) (lines string, err error) {
	anything := value.Type{Kind: value.Array, Of: &value.Type{Kind: value.Any}}
	both, err := value.Read("["+strings.Replace(strings.TrimSpace(text), "]\n[", "],\n[", 1)+"]", value.Type{Kind: value.Array, Of: &anything})
	if err != nil {
		return "", fmt.Errorf("expected two arrays, of names and of arguments: %w", err)
	}
	arrays := both.([]any)
	if len(arrays) != 2 || len(arrays[0].([]any)) != len(arrays[1].([]any)) {
		return "", fmt.Errorf("expected two arrays of the same length: the names of what is called, and the arguments of each")
	}
	var b strings.Builder
	for i, name := range arrays[0].([]any) {
		args, ok := arrays[1].([]any)[i].([]any)
		if !ok {
			return "", fmt.Errorf("the arguments %d, counted from 0, are no array", i)
		}
		list := make([]string, len(args))
		for j, arg := range args {
			list[j] = value.Write(arg)
		}
		if name == c.Name {
			name = makes
		}
		fmt.Fprintf(&b, "%v(%s)\n", name, strings.Join(list, ", "))
	}
	return b.String(), nil
}

// notSaid stands for the result of a call of which a case does not say what it must return.
var notSaid = value.Object{{Name: "not said", Value: true}}

// Expected takes for expected what was returned, where a case says nothing of a call of a sequence.
func (c *Call) Expected(expected, got any) any {
	want, ok := expected.([]any)
	have, ok2 := got.([]any)
	if c.Class == nil && !c.Scripted() || !ok || !ok2 {
		return expected
	}
	want = slices.Clone(want)
	for i := range min(len(want), len(have)) {
		if o, ok := want[i].(value.Object); ok && len(o) == 1 && o[0].Name == notSaid[0].Name {
			want[i] = have[i]
		}
	}
	return want
}

// ReadArguments reads what a case gives to a call: the arguments of a function, or the calls of a
// sequence, each its method and its arguments. The error is a *value.Mistake.
func (c *Call) ReadArguments(text string) ([]any, error) {
	if c.Class == nil {
		if c.Scripted() {
			args, _, err := c.Script(text)
			return args, err
		}
		args, err := value.ReadCall(text, c.Data())
		if err == nil {
			if wrong := c.wrongPlace(args); wrong != "" {
				err = &value.Mistake{Text: wrong}
			}
		}
		return args, err
	}
	steps, err := c.Steps(text)
	if err != nil {
		return nil, err
	}
	calls := make([]any, len(steps))
	for i, s := range steps {
		calls[i] = []any{s.Method, s.Args}
	}
	return []any{calls}, nil
}

// WithCalls makes of a sequence that a person wrote down for a new case what a case holds, in a problem that
// asks for a class; other cases stay as they are. The error is a *RequestError.
func (p *Problem) WithCalls(c NewCase) (NewCase, error) {
	if p.Call == nil {
		return c, nil
	}
	if p.Call.Class == nil {
		return p.asExample(c)
	}
	calls, results, line, err := p.Call.parseCalls(string(Plain(c.Input)))
	if err != nil {
		return c, &RequestError{fmt.Sprintf("line %d of the calls: %v", line, err)}
	}
	c.Input = []byte(calls)
	if c.Output == nil && results != nil {
		c.Output = []byte(value.Write(results) + "\n")
	}
	return c, nil
}

// takes are what a method takes, by its name, and what an object is made with.
func (c *Call) takes(method string) (takes []value.Field, ok bool) {
	if method == makes {
		return c.Class.New, true
	}
	m := c.Class.Method(method)
	if m == nil {
		return nil, false
	}
	return m.Takes, true
}

// called reads a sequence for a shape.
func (c *Call) called(text string) ([]shape.Called, error) {
	steps, err := c.Steps(text)
	if err != nil {
		return nil, err
	}
	list := make([]shape.Called, len(steps))
	for i, s := range steps {
		name, _, _ := strings.Cut(s.Text, "(")
		list[i] = shape.Called{Line: s.Line, Method: s.Method, Args: s.Args, Named: len(s.Uses) > 0 || strings.ContainsAny(name, "=.")}
	}
	return list, nil
}
