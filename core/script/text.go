package script

import (
	"fmt"
	"io"
	"math/big"
	"os"
	"path/filepath"
	"strconv"
	"strings"

	"go.starlark.net/starlark"

	"coldverdict/core/shape"
)

// decide runs a checker on the files of a folder.
func decide(script, folder string, out io.Writer) error {
	var args starlark.Tuple
	values, err := readValues(folder)
	if err != nil {
		return err
	}
	shaped, err := readShape(folder)
	if err != nil {
		return err
	}
	for _, name := range []string{InputFile, GotFile, ExpectedFile} {
		data, err := os.ReadFile(filepath.Join(folder, name))
		if err != nil {
			return err
		}
		t := &text{name: name, all: string(data), judged: name == GotFile, values: values[name]}
		if name == InputFile {
			t.shape = shaped
		}
		args = append(args, t)
	}
	d, err := call(script, decides, forDecide, args)
	if err != nil {
		return err
	}
	return d.write(out)
}

// A text is an input or an output as a script sees it. Its parts are made when
// they are asked for first, and cannot be changed.
type text struct {
	name   string
	all    string
	judged bool           // it is the candidate's: what is wrong with it rejects it
	values starlark.Value // what it holds, in a function problem; nil in others
	shape  *shape.Shape   // of an input; nil: it has none
	parts  map[string]starlark.Value
}

func (t *text) String() string        { return t.name }
func (t *text) Type() string          { return "text" }
func (t *text) Freeze()               {}
func (t *text) Truth() starlark.Bool  { return t.all != "" }
func (t *text) Hash() (uint32, error) { return 0, fmt.Errorf("%s cannot be a key", t.name) }

// views are the attributes of a text.
var views = map[string]func(*text) (starlark.Value, error){
	"text":   func(t *text) (starlark.Value, error) { return starlark.String(t.all), nil },
	"lines":  func(t *text) (starlark.Value, error) { return t.list(t.lines(), asText) },
	"tokens": func(t *text) (starlark.Value, error) { return t.list(words(t.all), asText) },
	"ints":   func(t *text) (starlark.Value, error) { return t.list(words(t.all), t.asInteger) },
	"value":  func(t *text) (starlark.Value, error) { return t.values, nil },
	"values": (*text).named,
	"reals":  func(t *text) (starlark.Value, error) { return t.list(words(t.all), t.asReal) },
}

// AttrNames implements starlark.HasAttrs.
func (t *text) AttrNames() []string { return []string{"ints", "lines", "reals", "text", "tokens"} }

// Attr implements starlark.HasAttrs.
func (t *text) Attr(name string) (starlark.Value, error) {
	if part, ok := t.parts[name]; ok {
		return part, nil
	}
	view := views[name]
	if view == nil || name == "value" && (t.values == nil || t.name == InputFile) || name == "values" && (t.name != InputFile || t.values == nil && t.shape == nil) {
		return nil, nil
	}
	part, err := view(t)
	if err != nil {
		return nil, err
	}
	if t.parts == nil {
		t.parts = map[string]starlark.Value{}
	}
	t.parts[name] = part
	return part, nil
}

// lines are without their ends; one that is empty and the last is none.
func (t *text) lines() []string {
	if t.all == "" {
		return nil
	}
	lines := strings.Split(strings.TrimSuffix(t.all, "\n"), "\n")
	for i := range lines {
		lines[i] = strings.TrimSuffix(lines[i], "\r")
	}
	return lines
}

func words(text string) []string {
	return strings.FieldsFunc(text, func(r rune) bool { return strings.ContainsRune(" \t\r\n\v\f", r) })
}

func (t *text) list(items []string, as func(string) (starlark.Value, error)) (starlark.Value, error) {
	values := make([]starlark.Value, len(items))
	for i, item := range items {
		value, err := as(item)
		if err != nil {
			return nil, err
		}
		values[i] = value
	}
	list := starlark.NewList(values)
	list.Freeze()
	return list, nil
}

func asText(word string) (starlark.Value, error) { return starlark.String(word), nil }

func (t *text) asInteger(word string) (starlark.Value, error) {
	if n, ok := parseInteger(word); ok {
		return n, nil
	}
	return nil, t.wrong(word, "an integer")
}

func (t *text) asReal(word string) (starlark.Value, error) {
	if x, ok := parseReal(word); ok {
		return x, nil
	}
	return nil, t.wrong(word, "a number")
}

// wrong says where in a text something else was expected: for the candidate's
// that is its failure, for any other text the checker's.
func (t *text) wrong(word, expected string) error {
	line := 1
	for i, l := range t.lines() {
		if strings.Contains(" "+strings.Join(words(l), " ")+" ", " "+word+" ") {
			line = i + 1
			break
		}
	}
	if t.judged {
		return rejection(fmt.Sprintf("line %d: expected %s, got %s", line, expected, quote(word)))
	}
	return fmt.Errorf("%s, line %d: %s is not %s", t.name, line, quote(word), expected)
}

// parseInteger reads digits with a sign, of any length.
func parseInteger(word string) (starlark.Int, bool) {
	digits := strings.TrimLeft(word, "+-")
	if digits == "" || len(word)-len(digits) > 1 || strings.Trim(digits, "0123456789") != "" {
		return starlark.Int{}, false
	}
	if n, err := strconv.ParseInt(word, 10, 64); err == nil {
		return starlark.MakeInt64(n), true
	}
	n, ok := new(big.Int).SetString(word, 10)
	if !ok {
		return starlark.Int{}, false
	}
	return starlark.MakeBigInt(n), true
}

// parseReal reads a finite number in decimal digits.
func parseReal(word string) (starlark.Float, bool) {
	if strings.Trim(word, "+-.0123456789eE") != "" {
		return 0, false
	}
	x, err := strconv.ParseFloat(word, 64)
	return starlark.Float(x), err == nil
}
