// Package program puts a reader and a printer around a person's function, so that the file is a
// program: for judges that take programs where a problem is practised as a function.
//
// The input is laid out as the shape says, a line a line. What is returned is printed: a single
// value on a line, the elements of an array on one line, a row of a table a line, and each of
// several results behind the one before. Laid writes arguments, and Printed results, in the same
// way.
//
// What the languages have in common is written here; a language is one row of a table in
// languages.go.
package program

import (
	"cmp"
	"fmt"
	"slices"
	"strconv"
	"strings"

	"coldverdict/core/call"
	"coldverdict/core/problem"
	"coldverdict/core/shape"
	"coldverdict/core/toolchain"
	"coldverdict/core/value"
	"coldverdict/internal/lazy"
)

// A Plan is what a program reads and calls.
type Plan struct {
	function *problem.Call
	shape    *shape.Shape // of the arguments
	places   []shape.Place
	lined    bool // somewhere it matters where lines end
}

// NewPlan looks at what a shape says of the input of a function. The error says what cannot be
// laid out in lines.
func NewPlan(function *problem.Call, arguments *shape.Shape) (*Plan, error) {
	laid, err := shape.Parse(arguments.Text())
	if err != nil {
		return nil, fmt.Errorf("input.shape does not say how the input of a program is laid out in lines: %w", err)
	}
	places, err := laid.Places()
	if err != nil {
		return nil, fmt.Errorf("input.shape cannot be read by a program around the function: %w", err)
	}
	if function.UpTo {
		return nil, fmt.Errorf("%s returns how much of an argument counts, which a program has no usual way to print", function.Name)
	}
	if len(function.Given) > 0 {
		return nil, fmt.Errorf("%s calls %s, which a program has no way to ask", function.Name, function.Given[0].Name)
	}
	if function.NodeOf() > 0 || function.PlacesOf() > 0 {
		return nil, fmt.Errorf("%s takes or returns a node of an argument, which a program has no usual way to read and to print", function.Name)
	}
	for _, field := range append(slices.Clone(function.Takes), function.Results()...) {
		if t := field.Type; strings.Contains(t.String(), "?") {
			return nil, fmt.Errorf("%s may be absent, which a program has no usual way to read and to print", t)
		}
		if _, depth := field.Type.Element(); depth > 2 {
			return nil, fmt.Errorf("%s has %d dimensions, and a program reads and prints at most 2", field.Type, depth)
		}
	}
	lined := slices.ContainsFunc(places, func(place shape.Place) bool { return place.Line || slices.Contains(place.Sizes, "") })
	return &Plan{function, arguments, places, lined}, nil
}

// argument is which argument stands at a place; -1: a count does.
func (p *Plan) argument(place shape.Place) int {
	return slices.IndexFunc(p.function.Takes, func(f value.Field) bool { return f.Name == place.Name })
}

// Laid writes arguments as the program reads them.
func (p *Plan) Laid(args []any) []byte {
	var text, line []byte
	begun := false // a line was, and has not ended
	end := func() {
		if begun {
			text = append(append(text, line...), '\n')
		}
		line, begun = line[:0], false
	}
	counts := p.shape.CountsOf(args)
	for _, place := range p.places {
		if place.Begins {
			end()
		}
		index := p.argument(place)
		switch {
		case index < 0:
			line, begun = word(line, strconv.FormatInt(counts[place.Name], 10)), true
		case place.Rows:
			list, _ := args[index].([]any)
			for _, row := range list {
				line, begun = words(line, row), true
				end()
			}
		default:
			line, begun = words(line, args[index]), true
		}
	}
	end()
	return text
}

func word(text []byte, one string) []byte {
	if n := len(text); n > 0 && text[n-1] != '\n' {
		text = append(text, ' ')
	}
	return append(text, one...)
}

// words writes a value, or those of an array, on one line.
func words(text []byte, v any) []byte {
	if all := items(v); len(all) > 0 {
		return word(text, strings.Join(all, " "))
	}
	return text
}

func items(v any) (all []string) {
	switch v := v.(type) {
	case []any:
		for _, one := range v {
			all = append(all, items(one)...)
		}
		return all
	case string:
		return []string{v}
	}
	return []string{value.Write(v)}
}

// Printed writes a result as the program prints it.
func (p *Plan) Printed(result any) []byte {
	results := p.function.Results()
	each := []any{result}
	if len(results) > 1 {
		each, _ = result.([]any)
	}
	var text []byte
	for i, one := range each {
		rows := []any{one}
		if _, depth := results[i].Type.Element(); depth == 2 {
			rows, _ = one.([]any)
		}
		for _, row := range rows {
			text = append(words(text, row), '\n')
		}
	}
	return text
}

// Around returns a source that is a program: the function's, and what reads and prints. The class
// is what a language that needs one calls it. Values are declared as the function declares its
// parameters, or, where usual is set, as is usual for their types. The error says what cannot be.
func (p *Plan) Around(l *toolchain.Language, file string, source []byte, class string, usual bool) (text []byte, err error) {
	form, ok := formOf(l)
	if !ok {
		return nil, fmt.Errorf("a program around a function cannot be written in %s", l.Title)
	}
	if form.around != nil {
		source = form.around(source, class)
	}
	found, err := call.Find(p.function, l, file, source)
	if err != nil {
		return nil, err
	}
	w := &writer{plan: p, form: form, language: l, found: found, source: string(source), usual: usual, names: map[string]string{}}
	w.name()
	w.indent = form.indent
	for _, place := range p.places {
		if err := w.read(place); err != nil {
			return nil, err
		}
	}
	if err := w.show(); err != nil {
		return nil, err
	}
	whole := strings.TrimRight(string(source), "\n") + "\n" + found.Missing + "\n\n"
	whole += strings.NewReplacer("{statements}", strings.TrimSuffix(w.text.String(), "\n"), "{class}", class).Replace(form.main)
	if form.finish != nil {
		whole = form.finish(whole)
	}
	return []byte(whole), nil
}

// A writer writes the statements of one program.
type writer struct {
	plan     *Plan
	form     form
	language *toolchain.Language
	found    call.Found
	source   string
	usual    bool
	text     strings.Builder
	indent   string
	names    map[string]string // of values, as the program calls them
	args     []string          // for the call, in order
}

// reserved are words that are not the name of a value in some language, or that its programs use.
var reserved = strings.Fields(`abstract alias and as assert auto await base begin bool boolean break byte case catch char checked class const
	continue crate def default defer del delegate delete do double dyn elif else elsif end ensure enum event except explicit export extends
	extern false final finally fixed float fn for foreach from func function fun global go goto if impl implements import in inline instanceof
	int interface internal is lambda let lock long loop main map match mod module move mut namespace native new next nil none nonlocal not null
	object of operator or out override package params pass print private protected public raise range readonly redo ref register rescue
	result retry return row sealed select self short signed sizeof static string struct super switch synchronized template then this throw
	throws trait true try type typedef typeof undef union unless unsafe unsigned until use using val var virtual void volatile when where while
	with words yield reading row i j x
	any append atof atoi atoll cap copy error float64 int8 int16 int32 int64 isinstance iter len list make malloc panic print printf println rune set str
	strcmp strlen sys tuple uint8 uint16 uint32 uint64`)

// name gives each value a name that is none of the language's, and not the function's.
func (w *writer) name() {
	for _, place := range w.plan.places {
		name := place.Name
		if slices.Contains(reserved, strings.ToLower(name)) || name == w.found.Name || name == w.found.Class {
			name += "_"
		}
		w.names[place.Name] = name
	}
	w.args = make([]string, len(w.plan.function.Takes))
}

func (w *writer) line(template string, pairs ...string) {
	if template == "" {
		return
	}
	for one := range strings.SplitSeq(strings.NewReplacer(pairs...).Replace(template), "\n") {
		if one != "" {
			one = w.indent + one
		}
		w.text.WriteString(one + "\n")
	}
}

var sizeName = lazy.New(`[A-Za-z_]\w*`)

// size is an expression for how many there are.
func (w *writer) size(size string) string {
	if size == "" {
		return w.form.left
	}
	return sizeName().ReplaceAllStringFunc(size, func(name string) string {
		return fmt.Sprintf(w.form.sizeName, w.names[name])
	})
}

// read reads what stands at a place.
func (w *writer) read(place shape.Place) error {
	index, kind := w.plan.argument(place), value.Type{Kind: value.Long}
	if index >= 0 {
		kind = w.plan.function.Takes[index].Type
	}
	if w.plan.lined && place.Begins && !place.Rows && !place.Line {
		w.line(w.form.next)
	}
	param := ""
	if index >= 0 && w.form.param != nil && !w.usual {
		if param = w.param(index); param != "" {
			param = w.form.param(param)
		}
	}
	declared := cmp.Or(param, call.TypeIn(w.language, kind))
	name := w.names[place.Name]
	if len(place.Sizes) == 0 {
		value, err := w.single(place, kind, declared)
		if err != nil {
			return err
		}
		w.line(w.form.let, "{type}", declared, "{name}", name, "{value}", value)
		w.pass(index, name, "")
		return nil
	}
	return w.list(place, index, name, kind, declared)
}

// param is how the function declares an argument; empty: it is not known.
func (w *writer) param(index int) string {
	at := index
	if w.form.counts { // each array has its lengths behind it
		for _, field := range w.plan.function.Takes[:index] {
			_, depth := field.Type.Element()
			at += depth
		}
	}
	if at < len(w.found.Params) {
		return w.found.Params[at]
	}
	return ""
}

// single is an expression that reads one value.
func (w *writer) single(place shape.Place, t value.Type, declared string) (string, error) {
	if place.Line {
		return w.form.rest, nil
	}
	one, ok := w.form.reads[t.Kind]
	if !ok || t.Of != nil {
		return "", fmt.Errorf("%s is %s, which a program in %s cannot read there", place.Name, t, w.language.Title)
	}
	return strings.ReplaceAll(one, "{type}", declared), nil
}

// list reads an array, or an array of arrays.
func (w *writer) list(place shape.Place, index int, name string, t value.Type, declared string) error {
	sizes := make([]string, len(place.Sizes))
	for i, size := range place.Sizes {
		sizes[i] = w.size(size)
	}
	if place.Sizes[0] == "" || w.form.counts {
		w.line(w.form.count, "{name}", name+"_count", "{value}", sizes[0])
		sizes[0] = name + "_count"
	}
	rows := place.Rows && w.plan.lined
	built, done := w.built(name, declared)
	w.begin(built, declared, sizes[0])
	w.line(w.form.loop, "{i}", "i", "{size}", sizes[0])
	outer := w.indent
	w.indent += w.form.step
	if rows && !place.Line {
		w.line(w.form.next)
	}
	var value string
	var err error
	if len(sizes) == 1 {
		if value, err = w.single(place, *t.Of, w.inner(declared, *t.Of)); err != nil {
			return err
		}
	} else {
		inner := w.inner(declared, *t.Of)
		rowBuilt, rowDone := w.built("row", inner)
		w.begin(rowBuilt, inner, sizes[1])
		w.line(w.form.loop, "{i}", "j", "{size}", sizes[1])
		deeper := w.indent
		w.indent += w.form.step
		one, err := w.single(place, *t.Of.Of, w.inner(inner, *t.Of.Of))
		if err != nil {
			return err
		}
		w.line(w.form.add, "{name}", rowBuilt, "{i}", "j", "{value}", one)
		w.indent = deeper
		w.line(w.form.end)
		value = rowDone
	}
	w.line(w.form.add, "{name}", built, "{i}", "i", "{value}", value)
	w.indent = outer
	w.line(w.form.end)
	if done != built {
		w.line(w.form.let, "{type}", declared, "{name}", name, "{value}", done)
	}
	columns := ""
	if len(sizes) == 2 {
		columns = sizes[1]
	}
	w.pass(index, name, sizes[0], columns)
	return nil
}

// built is the name under which a list is built, and an expression for what becomes of it.
func (w *writer) built(name, declared string) (built, done string) {
	if w.form.become == nil {
		return name, name
	}
	if done = w.form.become(declared); done == "" {
		return name, name
	}
	built = name + "_read"
	return built, strings.ReplaceAll(done, "{name}", built)
}

func (w *writer) begin(name, declared, size string) {
	inner := w.inner(declared, value.Type{})
	w.line(w.form.list, "{type}", declared, "{name}", name, "{size}", size, "{inner}", inner, "{boxed}", cmp.Or(javaBoxes[inner], inner))
}

// inner is how the elements of what is declared are declared.
func (w *writer) inner(declared string, t value.Type) string {
	if w.form.element != nil {
		if one := w.form.element(declared); one != "" {
			return one
		}
	}
	return call.TypeIn(w.language, t)
}

// pass makes a value an argument of the call.
func (w *writer) pass(index int, name string, sizes ...string) {
	if index < 0 {
		return
	}
	w.args[index] = name
	if w.form.argument != nil {
		w.args[index] = w.form.argument(w, name, w.param(index), sizes)
	}
}

// show calls the function and prints what it returns.
func (w *writer) show() error {
	f := w.plan.function
	call := w.found.Callee + "(" + strings.Join(w.args, ", ") + ")"
	if f.Changes > 0 {
		w.line(w.form.call, "{call}", call)
		w.print(f.Results()[0].Type, w.names[f.Takes[f.Changes-1].Name])
		return nil
	}
	if w.form.results != nil {
		return w.form.results(w, call)
	}
	keep, kept := w.form.keep, "result"
	if w.form.fails != nil && w.form.fails().MatchString(w.found.Result) {
		keep = w.form.orFail
	}
	names := make([]string, len(f.Returns))
	for i := range names {
		names[i] = fmt.Sprint(kept, i+1)
	}
	w.line(keep, "{call}", call, "{results}", strings.Join(names, ", "))
	if len(f.Returns) == 1 {
		if w.form.apart {
			kept = names[0]
		}
		w.print(f.Returns[0].Type, kept)
		return nil
	}
	if w.form.part == nil {
		return fmt.Errorf("several results are not printed in %s", w.language.Title)
	}
	for i, field := range f.Returns {
		names[i] = strconv.Quote(field.Name)
	}
	w.line(w.form.several, "{names}", strings.Join(names, ", "))
	for i, field := range f.Returns {
		w.print(field.Type, w.form.part(w, kept, i, field.Name))
	}
	return nil
}

// print prints a value, of whatever type.
func (w *writer) print(t value.Type, name string) {
	element, depth := t.Element()
	template := [...]string{w.form.say, w.form.sayList, w.form.sayRows}[depth]
	item := w.form.items[depth]
	if item == "" {
		item = [...]string{"{name}", "x", "x"}[depth]
	}
	template = strings.ReplaceAll(strings.ReplaceAll(template, "{text}", w.form.shows(element.Kind)), "{one}", item)
	w.line(template, "{name}", name)
}
