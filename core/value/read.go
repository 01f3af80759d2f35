package value

import (
	"encoding/json"
	"errors"
	"fmt"
	"math"
	"math/big"
	"strconv"
	"strings"
	"unicode/utf8"
)

// A Mistake is something in a text that is no value of the type that was
// expected there.
type Mistake struct {
	Offset int    // in bytes
	Path   string // of the value: "temps[3]"; may be empty
	Text   string // what is wrong, in lower case
}

func (m *Mistake) Error() string {
	if m.Path == "" {
		return m.Text
	}
	return m.Path + ": " + m.Text
}

// Read reads one value of a type and nothing else. The error is a *Mistake.
func Read(text string, t Type) (any, error) {
	r := &reader{text: text}
	v, err := r.value(t)
	if err == nil {
		r.blanks()
		err = r.end()
	}
	return v, err
}

// ReadCall reads the arguments of a call, each as "name: value" at the beginning
// of a line, in any order; "name = value" is read as well. The error is a *Mistake.
func ReadCall(text string, takes []Field) ([]any, error) {
	r := &reader{text: text}
	args := make([]any, len(takes))
	seen := make([]bool, len(takes))
	for r.blanks(); r.at < len(text); r.blanks() {
		began := r.at
		i, err := r.argument(takes)
		switch {
		case err != nil:
			return nil, err
		case seen[i]:
			return nil, r.wrongAt(began, "the argument %s comes a second time", takes[i].Name)
		}
		seen[i] = true
		r.path = append(r.path[:0], step{name: takes[i].Name})
		if args[i], err = r.value(takes[i].Type); err != nil {
			return nil, err
		}
		r.path = r.path[:0]
		for r.at < len(text) && strings.IndexByte(" \t\r", text[r.at]) >= 0 {
			r.at++
		}
		if r.at < len(text) && text[r.at] != '\n' {
			return nil, r.wrong("the next argument begins on a line of its own; found %s", r.found())
		}
	}
	for i, ok := range seen {
		if !ok && takes[i].Type.Kind != Function {
			return nil, r.wrong("the argument %s (%s) is missing; write %s: …", takes[i].Name, takes[i].Type, takes[i].Name)
		}
	}
	return args, nil
}

// ReadResults reads what a function returned: one value where results is one
// field, and otherwise an array of all of them in order, or an object with
// their names. The error is a *Mistake.
func ReadResults(text string, results []Field) (any, error) {
	if len(results) == 1 {
		return Read(text, results[0].Type)
	}
	r := &reader{text: text}
	r.blanks()
	v, err := r.several(results)
	if err == nil {
		r.blanks()
		err = r.end()
	}
	return v, err
}

// A reader goes through a text once.
type reader struct {
	text string
	at   int
	path []step // where it is in the value
}

// A step is a name, or an index where the name is empty.
type step struct {
	name  string
	index int
}

func (r *reader) pathText() string {
	path := make([]any, len(r.path))
	for i, s := range r.path {
		if path[i] = s.index; s.name != "" {
			path[i] = s.name
		}
	}
	return PathText(path)
}

func (r *reader) wrong(format string, args ...any) error { return r.wrongAt(r.at, format, args...) }

func (r *reader) wrongAt(offset int, format string, args ...any) error {
	return &Mistake{offset, r.pathText(), fmt.Sprintf(format, args...)}
}

// PathText writes names and indices as "temps[3][0]".
func PathText(path []any) string {
	var b strings.Builder
	for _, step := range path {
		if name, ok := step.(string); ok {
			if member, ok := strings.CutPrefix(name, "."); ok && !isName(member) {
				name = "[" + string(appendText(nil, member)) + "]"
			}
			b.WriteString(name)
		} else {
			fmt.Fprintf(&b, "[%d]", step)
		}
	}
	return strings.TrimPrefix(b.String(), ".")
}

func (r *reader) blanks() {
	for r.at < len(r.text) {
		switch r.text[r.at] {
		case ' ', '\t', '\r', '\n':
			r.at++
		default:
			return
		}
	}
}

func (r *reader) end() error {
	if r.at < len(r.text) {
		return r.wrong("expected the end, found %s", r.found())
	}
	return nil
}

// found shows what stands where the reader is.
func (r *reader) found() string {
	const most = 20
	rest := r.text[r.at:]
	if rest == "" {
		return "the end"
	}
	if end := strings.IndexAny(rest, "\r\n"); end == 0 {
		return "a line end"
	} else if end > 0 {
		rest = rest[:end]
	}
	if len(rest) <= most {
		return rest
	}
	cut := most
	for cut > 0 && !utf8.RuneStart(rest[cut]) {
		cut--
	}
	return rest[:cut] + "…"
}

// argument reads a name and the sign behind it, and returns which it is.
func (r *reader) argument(takes []Field) (int, error) {
	began := r.at
	end := strings.IndexAny(r.text[began:], ":=\n")
	if len(takes) == 0 {
		return 0, r.wrong("the function takes no arguments, and here is %s", r.found())
	}
	if end < 0 || r.text[began+end] == '\n' {
		return 0, r.wrong("expected an argument such as %s: …, found %s", takes[0].Name, r.found())
	}
	name := strings.TrimSpace(r.text[began : began+end])
	r.at = began + end + 1
	var known []string
	for i, f := range takes {
		if f.Name == name {
			return i, nil
		}
		known = append(known, f.Name)
	}
	return 0, r.wrongAt(began, "there is no argument %q; the function takes %s", name, strings.Join(known, ", "))
}

func (r *reader) word(word string) bool {
	if !strings.HasPrefix(r.text[r.at:], word) {
		return false
	}
	r.at += len(word)
	return true
}

// value reads one value of a type.
func (r *reader) value(t Type) (any, error) {
	r.blanks()
	began := r.at
	switch t.Kind {
	case Optional:
		if r.word("null") {
			return nil, nil
		}
		return r.value(*t.Of)
	case Place:
		if r.word("null") {
			return nil, nil
		}
		return r.value(Type{Kind: Int})
	case Array:
		return r.array(t)
	case List, List2, Tree, Nary, Graph:
		return r.nodes(t)
	case Any, Function:
		return r.any()
	case Map:
		return r.mapped(t)
	case Bool:
		switch {
		case r.word("true"):
			return true, nil
		case r.word("false"):
			return false, nil
		}
	case Text, Char:
		if r.at < len(r.text) && r.text[r.at] == '"' {
			s, err := r.string()
			if err == nil && t.Kind == Char && utf8.RuneCountInString(s) != 1 {
				return nil, r.wrongAt(began, "a char is one character, and %s is not", r.text[began:r.at])
			}
			return s, err
		}
	default:
		if n, ok, err := r.number(t.Kind); ok || err != nil {
			return n, err
		}
	}
	return nil, r.wrong("expected %s, found %s", a(t), r.found())
}

// a puts an article before a type.
func a(t Type) string {
	if t.Kind == Int {
		return "an int"
	}
	if e, _ := t.Element(); e.Kind == Int {
		return "an " + t.String()
	}
	return "a " + t.String()
}

func (r *reader) array(t Type) (any, error) {
	if !r.word("[") {
		return nil, r.wrong("expected %s, found %s", a(t), r.found())
	}
	if len(r.path) > 1000 {
		return nil, r.wrong("nested too deeply")
	}
	list := make([]any, 0, r.flatLength())
	r.path = append(r.path, step{})
	for r.blanks(); !r.word("]"); r.blanks() {
		if len(list) > 0 && !r.word(",") {
			r.path = r.path[:len(r.path)-1]
			return nil, r.wrong("expected , or ], found %s", r.found())
		}
		if list = append(list, nil); len(list) > 1 {
			r.path[len(r.path)-1].index = len(list) - 1
		}
		v, ok := r.short(*t.Of)
		if !ok {
			var err error
			if v, err = r.value(*t.Of); err != nil {
				return nil, err
			}
		}
		list[len(list)-1] = v
	}
	r.path = r.path[:len(r.path)-1]
	return list, nil
}

// flatLength is how many elements an array has at the most that holds no other and
// no text; 0 for any other.
func (r *reader) flatLength() int {
	rest := r.text[r.at:]
	end := strings.IndexByte(rest, ']')
	if end <= 0 || strings.IndexByte(rest[:end], '[') >= 0 || strings.IndexByte(rest[:end], '"') >= 0 {
		return 0
	}
	return strings.Count(rest[:end], ",") + 1
}

// short reads an integer of up to 18 digits in an array, as nearly all are, in a
// hurry; false leaves everything to value.
func (r *reader) short(t Type) (any, bool) {
	if t.Kind > BigInt {
		return nil, false
	}
	at := r.at
	for at < len(r.text) && r.text[at] == ' ' {
		at++
	}
	negative := at < len(r.text) && r.text[at] == '-'
	if negative {
		at++
	}
	from, n := at, int64(0)
	for at < len(r.text) && r.text[at] >= '0' && r.text[at] <= '9' {
		n = n*10 + int64(r.text[at]-'0')
		at++
	}
	if negative {
		n = -n
	}
	if digits := at - from; digits == 0 || digits > 18 || at == len(r.text) || r.text[at] != ',' && r.text[at] != ']' || !fits(n, t.Kind) {
		return nil, false
	}
	r.at = at
	return n, true
}

// several reads all results of a function that has several.
func (r *reader) several(results []Field) (any, error) {
	list := make([]any, len(results))
	object := r.word("{")
	if !object && !r.word("[") {
		return nil, r.wrong("expected the %d results as an array, or as an object with their names; found %s", len(results), r.found())
	}
	seen := map[string]bool{}
	end := "]"
	if object {
		end = "}"
	}
	for n := range results {
		r.blanks()
		if n > 0 && !r.word(",") {
			return nil, r.wrong("expected %d results, found %s after %d", len(results), r.found(), n)
		}
		i := n
		if object {
			r.blanks()
			began := r.at
			if r.at == len(r.text) || r.text[r.at] != '"' {
				return nil, r.wrong("expected the name of a result, found %s", r.found())
			}
			name, err := r.string()
			if err != nil {
				return nil, err
			}
			i = fieldOf(results, name)
			if i < 0 || seen[name] {
				return nil, r.wrongAt(began, "%q is no further result; there are %s", name, fieldNames(results))
			}
			seen[name] = true
			if r.blanks(); !r.word(":") {
				return nil, r.wrong("expected : behind %q, found %s", name, r.found())
			}
		}
		r.path = append(r.path, step{name: results[i].Name})
		v, err := r.value(results[i].Type)
		if err != nil {
			return nil, err
		}
		r.path = r.path[:len(r.path)-1]
		list[i] = v
	}
	if r.blanks(); !r.word(end) {
		return nil, r.wrong("expected %s after %d results, found %s", end, len(results), r.found())
	}
	return list, nil
}

func fieldOf(fields []Field, name string) int {
	for i, f := range fields {
		if strings.EqualFold(strings.ReplaceAll(f.Name, "_", ""), strings.ReplaceAll(name, "_", "")) {
			return i
		}
	}
	return -1
}

func fieldNames(fields []Field) string {
	names := make([]string, len(fields))
	for i, f := range fields {
		names[i] = f.Name
	}
	return strings.Join(names, ", ")
}

// string reads a text in quotes, as JSON has it.
func (r *reader) string() (string, error) {
	began := r.at
	simple := true
	for r.at++; r.at < len(r.text); r.at++ {
		switch c := r.text[r.at]; {
		case c == '"':
			r.at++
			inside := r.text[began+1 : r.at-1]
			if simple && utf8.ValidString(inside) {
				return inside, nil
			}
			var s string
			if err := json.Unmarshal([]byte(r.text[began:r.at]), &s); err != nil {
				return "", r.wrongAt(began, "this text is not written as JSON has it: %v", plain(err))
			}
			return s, nil
		case c == '\\':
			simple = false
			r.at++
		case c == '\n' || c == '\r':
			return "", r.wrongAt(began, "this text has no closing quote on its line; a line end inside is written \\n")
		case c < ' ':
			return "", r.wrong("a control character inside a text is written \\u%04x", c)
		}
	}
	return "", r.wrongAt(began, "this text has no closing quote")
}

func plain(err error) error {
	var syntax *json.SyntaxError
	if errors.As(err, &syntax) {
		return errors.New(strings.TrimPrefix(syntax.Error(), "json: "))
	}
	return err
}

// number reads a number of a kind; ok says that there was one.
func (r *reader) number(kind Kind) (v any, ok bool, err error) {
	began := r.at
	for _, special := range []struct {
		word string
		x    float64
	}{{"NaN", math.NaN()}, {"Infinity", math.Inf(1)}, {"-Infinity", math.Inf(-1)}} {
		if kind == Real && r.word(special.word) {
			return special.x, true, nil
		}
	}
	end := began
	whole := true
	for end < len(r.text) {
		c := r.text[end]
		if c >= '0' && c <= '9' || c == '-' && end == began {
			end++
			continue
		}
		if c == '.' || c == 'e' || c == 'E' || c == '+' || c == '-' {
			whole = false
			end++
			continue
		}
		break
	}
	word := r.text[began:end]
	if word == "" || word == "-" {
		return nil, false, nil
	}
	if kind == Real {
		x, err := strconv.ParseFloat(word, 64)
		if err != nil && !errors.Is(err, strconv.ErrRange) {
			return nil, false, nil
		}
		r.at = end
		return x, true, nil
	}
	if !whole {
		return nil, false, r.wrong("expected %s, found the real %s", a(Type{Kind: kind}), word)
	}
	if n, err := strconv.ParseInt(word, 10, 64); err == nil {
		v = n
	} else if n, ok := new(big.Int).SetString(word, 10); ok {
		v = integer(n)
	} else {
		return nil, false, nil
	}
	if !fits(v, kind) {
		return nil, false, r.wrong("%s is outside of what %s holds", word, a(Type{Kind: kind}))
	}
	r.at = end
	return v, true, nil
}
