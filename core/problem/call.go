package problem

import (
	"cmp"
	"errors"
	"fmt"
	"slices"
	"strconv"
	"strings"

	"coldverdict/core/settings"
	"coldverdict/core/value"
)

// A Call is the function of a function problem: its solutions define it, and its
// cases have arguments and results in place of inputs and outputs.
type Call struct {
	Name    string        // as verdict.toml spells it; each language has its own spelling
	Takes   []value.Field // the arguments, in order
	Returns []value.Field // one without a name, or several; none if Changes is set, but for UpTo
	Changes int           // the argument, from 1, that holds the result afterwards; 0: none does
	UpTo    bool          // what is returned is how many elements of that argument count
	Given   []Given       // functions that solutions may call
	Hidden  []value.Field // what a case gives to these alone
	CopyOf  int           // the argument, from 1, of which a copy is returned; 0: of none
	Class   *Class        // the calls are those of its objects, in a sequence; nil: it is a function
	Bare    bool          // the solution has all that it needs, and gets nothing of what judges supply
}

// Results are what a call leaves: what is returned, or the argument that was
// changed.
func (c *Call) Results() []value.Field {
	if c.UpTo {
		return []value.Field{c.Returns[0], c.Takes[c.Changes-1]}
	}
	if c.Scripted() {
		return []value.Field{{Type: value.Type{Kind: value.Any}}}
	}
	if c.Changes > 0 {
		return []value.Field{{Type: c.Takes[c.Changes-1].Type}}
	}
	return c.Returns
}

// String is the function as a person writes it: "longest_thaw(temps: int[], limit: long) -> int".
func (c *Call) String() string {
	if c.Class != nil {
		text := Method{Name: c.Name, Takes: c.Class.New}.String()
		for _, m := range c.Class.Methods {
			text += "; " + m.String()
		}
		return text
	}
	list := func(fields []value.Field) string {
		words := make([]string, len(fields))
		for i, f := range fields {
			words[i] = f.String()
		}
		return strings.Join(words, ", ")
	}
	returns := list(c.Returns)
	switch {
	case c.UpTo:
		returns = "(" + returns + ", " + changesWord + strconv.Itoa(c.Changes) + upToWord + c.Returns[0].Name + ")"
	case c.Changes > 0:
		returns = changesWord + strconv.Itoa(c.Changes)
	case c.CopyOf > 0:
		returns = copyOfWord + strconv.Itoa(c.CopyOf)
	case len(c.Returns) > 1:
		returns = "(" + returns + ")"
	}
	return fmt.Sprintf("%s(%s) -> %s", c.Name, list(c.Takes), returns)
}

// changesWord stands before the number of an argument that the function changes, upToWord before the name
// of the result that says how many of its elements count, and copyOfWord before the number of an argument
// of which a copy is returned.
const (
	changesWord = "argument "
	upToWord    = " up to "
	copyOfWord  = "copy of argument "
)

// ParseCall reads a function as String writes it.
func ParseCall(text string) (*Call, error) {
	name, rest, ok := strings.Cut(text, "(")
	takes, returns, ok2 := cutAtClosing(rest)
	returns, ok3 := strings.CutPrefix(strings.TrimSpace(returns), "->")
	if !ok || !ok2 || !ok3 {
		return nil, fmt.Errorf("%q is no function; write \"longest_thaw(temps: int[], limit: long) -> int\"", text)
	}
	c := &Call{Name: strings.TrimSpace(name)}
	returns = strings.TrimSpace(returns)
	if strings.HasPrefix(returns, "(") && strings.HasSuffix(returns, ")") {
		returns = returns[1 : len(returns)-1]
	}
	return c, c.set(splitList(takes), splitList(returns))
}

// cutAtClosing cuts at the parenthesis that closes one before.
func cutAtClosing(text string) (before, after string, ok bool) {
	for i, depth := range outsideQuotes(text) {
		if depth < 0 {
			return text[:i], text[i+1:], true
		}
	}
	return text, "", false
}

// outsideQuotes goes through the bytes of a text that are in no quotes, each with how many brackets are open
// behind it.
func outsideQuotes(text string) func(yield func(i, depth int) bool) {
	return func(yield func(int, int) bool) {
		depth, quoted := 0, false
		for i := 0; i < len(text); i++ {
			switch c := text[i]; {
			case quoted && c == '\\':
				i++
			case c == '"':
				quoted = !quoted
			case quoted:
			default:
				if strings.IndexByte("([{", c) >= 0 {
					depth++
				} else if strings.IndexByte(")]}", c) >= 0 {
					depth--
				}
				if !yield(i, depth) {
					return
				}
			}
		}
	}
}

func splitList(text string) (list []string) {
	if strings.TrimSpace(text) == "" {
		return nil
	}
	return SplitArguments(text)
}

// set takes arguments and results as they are written.
func (c *Call) set(takes, returns []string) error {
	if !value.IsName(c.Name) {
		return fmt.Errorf("%q cannot name a function; use letters, digits and _", c.Name)
	}
	fields := func(list []string) (fields []value.Field, err error) {
		names := map[string]bool{}
		for _, text := range list {
			f, err := value.ParseField(text)
			if err != nil {
				return nil, err
			}
			if names[f.Name] {
				return nil, fmt.Errorf("two are named %q; rename one", f.Name)
			}
			names[f.Name] = true
			fields = append(fields, f)
		}
		return fields, nil
	}
	var err error
	if c.Takes, err = fields(takes); err != nil {
		return err
	}
	for i := range c.Takes {
		f := &c.Takes[i]
		if err := c.place(&f.Type); err != nil {
			return fmt.Errorf("%s: %w", f.Name, err)
		}
		if n := f.Type.Argument; n > 0 && n != c.PlacesOf() {
			return fmt.Errorf("%s: all such arguments are nodes of the same one", f.Name)
		}
	}
	if len(returns) == 0 {
		return errors.New("say what it returns: a type, or \"argument 1\" if it changes that")
	}
	if len(returns) == 2 && strings.HasPrefix(strings.TrimSpace(returns[1]), changesWord) {
		return c.setUpTo(returns)
	}
	if number, ok := strings.CutPrefix(strings.TrimSpace(returns[0]), copyOfWord); ok && len(returns) == 1 {
		return c.setCopy(number)
	}
	if number, ok := strings.CutPrefix(strings.TrimSpace(returns[0]), changesWord); ok && len(returns) == 1 {
		n, err := strconv.Atoi(strings.TrimSpace(number))
		if err != nil || n < 1 || n > len(c.Takes) {
			return fmt.Errorf("there is no argument %s; there are 1 to %d", number, len(c.Takes))
		}
		if kind := c.Takes[n-1].Type.Kind; kind != value.Array && !kind.IsNodes() {
			return fmt.Errorf("%s is %s; only an array, or what is made of nodes, can be changed so that the caller sees it", c.Takes[n-1].Name, c.Takes[n-1].Type)
		}
		c.Changes = n
		return nil
	}
	if len(returns) == 1 && !strings.Contains(returns[0], ":") {
		t, err := value.ParseType(returns[0])
		if err == nil {
			err = c.place(&t)
		}
		c.Returns = []value.Field{{Type: t}}
		return cmp.Or(err, c.checkFunctions())
	}
	c.Returns, err = fields(returns)
	return cmp.Or(err, c.checkFunctions())
}

// setCopy takes a result that is a copy of an argument.
func (c *Call) setCopy(number string) error {
	n, err := strconv.Atoi(strings.TrimSpace(number))
	if err != nil {
		n = 0
	}
	t, err := c.nodesOf(n)
	c.Returns, c.CopyOf = []value.Field{{Type: t}}, n
	return err
}

// nodesOf is the type of an argument that is made of nodes.
func (c *Call) nodesOf(n int) (t value.Type, err error) {
	if n < 1 || n > len(c.Takes) {
		return t, fmt.Errorf("there is no such argument; there are 1 to %d", len(c.Takes))
	}
	if t = c.Takes[n-1].Type; !t.Kind.IsNodes() {
		return t, fmt.Errorf("%s is %s, which is not made of nodes", c.Takes[n-1].Name, t)
	}
	return t, nil
}

// place completes a type that says that a node of an argument is meant.
func (c *Call) place(t *value.Type) error {
	if t.Kind != value.Place {
		return nil
	}
	of, err := c.nodesOf(t.Argument)
	t.Of = &of
	return err
}

// NodeOf is the argument, from 1, of which a node is returned; 0: of none.
func (c *Call) NodeOf() int {
	if len(c.Returns) == 1 && c.Returns[0].Type.Kind == value.Place {
		return c.Returns[0].Type.Argument
	}
	return 0
}

// PlacesOf is the argument, from 1, of whose nodes others are; 0: none are.
func (c *Call) PlacesOf() int {
	for _, f := range c.Takes {
		if f.Type.Kind == value.Place {
			return f.Type.Argument
		}
	}
	return 0
}

// Original is the argument, from 1, of which a node or a copy is returned, or others are nodes; 0: none is.
func (c *Call) Original() int { return max(c.NodeOf(), c.PlacesOf(), c.CopyOf) }

// wrongPlace says which argument is a node that is not there.
func (c *Call) wrongPlace(args []any) string {
	for i, f := range c.Takes {
		at, ok := args[i].(int64)
		if f.Type.Kind != value.Place || !ok {
			continue
		}
		nodes := args[f.Type.Argument-1]
		if circle, ok := nodes.(value.Object); ok {
			nodes, _ = circle.Get("list")
		}
		if list := nodes.([]any); at < 0 || at >= int64(len(list)) || list[at] == nil {
			return fmt.Sprintf("%s: there is no node at place %d, counted from 0, of %s", f.Name, at, c.Takes[f.Type.Argument-1].Name)
		}
	}
	return ""
}

// setUpTo takes a result that says how many elements of an argument count: "k: int" and "argument 1 up to
// k".
func (c *Call) setUpTo(returns []string) error {
	count, err := value.ParseField(returns[0])
	if err != nil {
		return err
	}
	number, name, ok := strings.Cut(strings.TrimPrefix(strings.TrimSpace(returns[1]), changesWord), upToWord)
	n, err := strconv.Atoi(strings.TrimSpace(number))
	switch {
	case !ok || err != nil || strings.TrimSpace(name) != count.Name:
		return fmt.Errorf("%q does not say how much of an argument counts; write \"%s1%s%s\"", returns[1], changesWord, upToWord, count.Name)
	case n < 1 || n > len(c.Takes):
		return fmt.Errorf("there is no argument %d; there are 1 to %d", n, len(c.Takes))
	case c.Takes[n-1].Type.Kind != value.Array:
		return fmt.Errorf("%s is %s; only of an array the first elements can count", c.Takes[n-1].Name, c.Takes[n-1].Type)
	case count.Type.Kind != value.Int && count.Type.Kind != value.Long:
		return fmt.Errorf("%s is %s, and says how many elements count; it is int or long", count.Name, count.Type)
	}
	c.Returns, c.Changes, c.UpTo = []value.Field{count}, n, true
	return nil
}

// Counted leaves of results what counts. The error says that a result counts elements that are not
// there.
func (c *Call) Counted(results any) (any, error) {
	list, ok := results.([]any)
	if !c.UpTo || !ok || len(list) != 2 {
		return results, nil
	}
	n, _ := list[0].(int64)
	elements, _ := list[1].([]any)
	if n < 0 || n > int64(len(elements)) {
		return nil, fmt.Errorf("it returned %d, and argument %d has %d elements", n, c.Changes, len(elements))
	}
	return []any{list[0], elements[:n]}, nil
}

// call reads the table of a function problem.
func (c *configReader) call(at string, v any) {
	call := &Call{}
	var takes, returns, hidden []string
	c.Table(at, v, settings.Fields{
		"name": c.Text(&call.Name), "takes": c.Texts(&takes), "hidden": c.Texts(&hidden), "given": c.givenTables(call),
		"prelude": func(at string, v any) {
			supplied := true
			c.Truth(&supplied)(at, v)
			call.Bare = !supplied
		},
		"returns": func(at string, v any) {
			if one, ok := v.(string); ok {
				v = []any{one}
			}
			c.Texts(&returns)(at, v)
		},
	})
	// The line of the key that is at fault, as far as that is known.
	err := call.set(takes, returns)
	if err != nil {
		where := at
		for _, key := range []string{"name", "takes", "returns"} {
			probe := &Call{Name: "f"}
			var wrong error
			switch key {
			case "name":
				probe.Name = call.Name
				wrong = probe.set([]string{"a: int"}, []string{"int"})
			case "takes":
				wrong = probe.set(takes, []string{"int"})
			default:
				wrong = err
			}
			if wrong != nil {
				where = at + "." + key
				break
			}
		}
		if !c.Has(where) {
			where = at
		}
		c.WrongAt(where, "[call] %v", err)
		call = &Call{Name: "f", Takes: []value.Field{{Name: "a"}}, Returns: []value.Field{{}}}
		c.brokenCall = true
	}
	if err == nil {
		if err = call.checkGiven(hidden); err != nil {
			c.WrongAt(at, "[call] %v", err)
			c.brokenCall = true
		}
	}
	c.problem.Call = call
}

// checkCall reports what cannot stand beside a function.
func (c *configReader) checkCall() {
	p := c.problem
	if p.Call == nil {
		return
	}
	if p.Kind().Talks || c.Has("files") {
		c.WrongAt("call", "a function neither talks nor reads files; take [interactive] and [files] out")
	}
}

// UsualTolerance is how far reals that functions return may differ, absolutely or relatively,
// where nothing else is said.
const UsualTolerance = 1e-6

// fitCall returns what is wrong with a comparison of values, or "".
func fitCall(compare *Comparison, absolute, relative bool) string {
	switch {
	case compare.Custom():
		return ""
	case compare.Mode != "":
		return "values are compared as values, not as text; take mode out"
	case compare.AnyOrder != "" && !slices.Contains(value.AnyOrders(), compare.AnyOrder):
		return fmt.Sprintf("any_order is %q; for values it can be %q (the elements of the array that is returned) or %q (of every array in it)", compare.AnyOrder, value.OuterAnyOrder, value.AllAnyOrder)
	}
	if !absolute && !relative {
		compare.Absolute, compare.Relative = UsualTolerance, UsualTolerance
	}
	return ""
}

// Values is how values are compared.
func (c Comparison) Values() value.Comparison {
	return value.Comparison{Absolute: c.Absolute, Relative: c.Relative, IgnoreCase: c.IgnoreCase, AnyOrder: c.AnyOrder}
}

// mostChecked bounds the data that is read to be checked against the types when
// the folder is read, in bytes; larger data is checked when it is used.
const mostChecked = 1 << 20

// checkArguments reports arguments that are not of the function's types. line is
// that before the text.
func (l *loader) checkArguments(d Data, file string, line int) {
	l.checkValue(d, file, line, func(text string) error {
		_, err := l.problem.Call.ReadArguments(text)
		return err
	})
}

// checkResults reports a result that is not of the function's type.
func (l *loader) checkResults(d Data, file string, line int) {
	l.checkValue(d, file, line, func(text string) error {
		_, err := value.ReadResults(text, l.problem.Call.Results())
		return err
	})
}

func (l *loader) checkValue(d Data, file string, line int, read func(string) error) {
	if d.Size > mostChecked || l.brokenCall {
		return
	}
	text, err := d.Head(mostChecked)
	if err != nil {
		return // told when it is used
	}
	plain := string(Plain(text))
	if err := read(plain); err != nil {
		if at := lineOf(plain, err); at > 0 {
			if d.Path != "" {
				line = 0
			}
			line += at
		}
		l.wrong(file, line, "%v", err)
	}
}

// impliedAnswer is what a case accepts: where a copy of an argument is asked for and nothing is said, that
// argument.
func (l *loader) impliedAnswer(input Data, said []Data) []Data {
	c := l.problem.Call
	if c == nil || c.CopyOf == 0 || len(said) > 0 || l.brokenCall || input.Size > mostChecked {
		return said
	}
	text, err := input.Head(mostChecked)
	if err != nil {
		return said // told when it is used
	}
	args, err := c.ReadArguments(string(Plain(text)))
	if err != nil {
		return said // reported already
	}
	answer := value.Write(args[c.CopyOf-1]) + "\n"
	return []Data{{Text: []byte(answer), Size: int64(len(answer))}}
}

// lineOf is the line of a text, from 1, on which a mistake stands; 0: it is none.
func lineOf(text string, err error) int {
	var mistake *value.Mistake
	if !errors.As(err, &mistake) {
		return 0
	}
	return 1 + strings.Count(text[:min(mistake.Offset, len(text))], "\n")
}

// checkData reports arguments and results that are not of the function's types.
func (p *Problem) checkData(c NewCase) error {
	if p.Call == nil {
		return nil
	}
	if _, err := p.Call.ReadArguments(string(Plain(c.Input))); err != nil {
		return &RequestError{"the arguments: " + p.Call.Lacking(err)}
	}
	if c.Output == nil {
		return nil
	}
	if _, err := value.ReadResults(string(Plain(c.Output)), p.Call.Results()); err != nil {
		return &RequestError{fmt.Sprintf("the result: %v", err)}
	}
	return nil
}

// The words for a case's data, in cases.md and elsewhere.
func (p *Problem) dataWords() (input, output string) {
	switch {
	case p.Call == nil:
		return "input", "output"
	case p.Call.Class != nil:
		return "calls", "returns"
	}
	return "call", "returns"
}

// Lacking says what is wrong with arguments, and how they are written.
func (c *Call) Lacking(err error) string {
	switch {
	case c.Class != nil:
		return fmt.Sprintf("%v; write a call a line, such as new(…)", err)
	case len(c.Takes) == 0:
		return fmt.Sprintf("%v; %s takes none", err, c.Name)
	}
	return fmt.Sprintf("%v; write each on a line, such as %s: …", err, c.Takes[0].Name)
}
