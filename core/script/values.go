package script

import (
	"bytes"
	stdjson "encoding/json"
	"errors"
	"io/fs"
	"os"
	"path/filepath"

	"go.starlark.net/lib/json"
	"go.starlark.net/starlark"

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
