package script

import (
	"bytes"
	stdjson "encoding/json"
	"errors"
	"fmt"
	"io/fs"
	"os"
	"path/filepath"
	"strings"

	"go.starlark.net/lib/json"
	"go.starlark.net/starlark"

	"coldverdict/core/shape"
	"coldverdict/core/value"
)

// valuesFile holds what a checker of a function problem sees as values, in the
// folder that it decides on.
const valuesFile = "values"

// WriteValues puts the arguments of a call, by their names, and its result and the
// expected one, as JSON, into a checker's folder. In a script they are
// case.values.NAME, got.value and expected.value.
func WriteValues(folder string, names []string, args []any, got, expected any) error {
	text := []byte("{")
	for i, name := range names {
		key, err := stdjson.Marshal(name)
		if err != nil {
			return err
		}
		text = value.Append(append(append(text, key...), ':'), value.Plain(args[i]), false)
		text = append(text, ',')
	}
	if len(names) > 0 {
		text = text[:len(text)-1]
	}
	text = value.Append(append(text, "}\n"...), value.Plain(got), false)
	text = value.Append(append(text, '\n'), value.Plain(expected), false)
	return os.WriteFile(filepath.Join(folder, valuesFile), text, 0o600)
}

// readValues returns the values by the names of the files that hold them as text;
// none where the problem is no function problem.
func readValues(folder string) (map[string]starlark.Value, error) {
	text, err := os.ReadFile(filepath.Join(folder, valuesFile))
	if errors.Is(err, fs.ErrNotExist) {
		return nil, nil
	}
	if err != nil {
		return nil, err
	}
	thread := &starlark.Thread{Name: "values"}
	values := map[string]starlark.Value{}
	decoder := stdjson.NewDecoder(bytes.NewReader(text))
	for _, name := range []string{InputFile, GotFile, ExpectedFile} {
		var raw stdjson.RawMessage
		if err := decoder.Decode(&raw); err != nil {
			return nil, err
		}
		v, err := starlark.Call(thread, json.Module.Members["decode"], starlark.Tuple{starlark.String(raw)}, nil)
		if err != nil {
			return nil, err
		}
		v.Freeze()
		values[name] = v
	}
	if arguments, ok := values[InputFile].(*starlark.Dict); ok {
		values[InputFile] = named{arguments}
	}
	return values, nil
}

// ShapeFile holds the shape of the input, in the folder that a checker decides on,
// where there is one. In a script its names are case.values.NAME.
const ShapeFile = "shape"

// readShape returns the shape of the input; nil if there is none.
func readShape(folder string) (*shape.Shape, error) {
	text, err := os.ReadFile(filepath.Join(folder, ShapeFile))
	if errors.Is(err, fs.ErrNotExist) {
		return nil, nil
	}
	if err != nil {
		return nil, err
	}
	return shape.Parse(string(text))
}

// named are the values of an input by the names of its shape, or the arguments of a
// call.
func (t *text) named() (starlark.Value, error) {
	if t.shape == nil {
		return t.values, nil
	}
	in, fault, err := t.shape.Read(strings.NewReader(t.all), shape.Options{})
	if fault != nil { // blanks and line ends are the judge's business
		in, fault, err = t.shape.Read(strings.NewReader(t.all), shape.Options{Loose: true})
	}
	switch {
	case err != nil:
		return nil, err
	case fault != nil:
		return nil, fmt.Errorf("%s does not have its shape, so there are no %s.values: %w", t.name, t.name, fault)
	}
	v := valuesOf(in.Values())
	v.Freeze()
	return v, nil
}

func valuesOf(list shape.Values) starlark.Value {
	d := starlark.NewDict(len(list))
	for _, one := range list {
		d.SetKey(starlark.String(one.Name), valueOf(one.Value))
	}
	return named{d}
}

func valueOf(v any) starlark.Value {
	switch v := v.(type) {
	case int64:
		return starlark.MakeInt64(v)
	case float64:
		return starlark.Float(v)
	case string:
		return starlark.String(v)
	case shape.Values:
		return valuesOf(v)
	case []any:
		list := make([]starlark.Value, len(v))
		for i, one := range v {
			list[i] = valueOf(one)
		}
		return starlark.NewList(list)
	}
	return starlark.None
}

// named are values with names: v.limit, and v["from"] where a name is a word of the
// language.
type named struct{ *starlark.Dict }

func (n named) Type() string { return "values" }

// Attr implements starlark.HasAttrs.
func (n named) Attr(name string) (starlark.Value, error) {
	v, _, err := n.Get(starlark.String(name))
	return v, err
}

// AttrNames implements starlark.HasAttrs.
func (n named) AttrNames() (names []string) {
	for _, key := range n.Keys() {
		names = append(names, string(key.(starlark.String)))
	}
	return names
}
