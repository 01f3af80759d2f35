package script

import (
	"fmt"
	"os"
	"path/filepath"
	"sync"

	"go.starlark.net/starlark"

	"coldverdict/core/shape"
)

// stepsToHold bounds one look at an input. Such a script runs in this process, thousands of times a second, so that
// it may not take long.
const stepsToHold = 20_000_000

// function reads a script and returns the function that it defines for its role. The script is run once, at the first
// call, and what it defined is frozen: several can call it at once. The errors name file and line.
func function(path string, role Role) (func(arguments ...starlark.Value) (starlark.Value, error), error) {
	if err := Check(path, role); err != nil {
		return nil, err
	}
	text, err := os.ReadFile(path)
	if err != nil {
		return nil, err
	}
	name := filepath.Base(path)
	begin := sync.OnceValues(func() (starlark.Value, error) {
		globals, err := starlark.ExecFileOptions(options, bounded(name, stepsToHold), name, text, forMake)
		if err != nil {
			return nil, plain(err)
		}
		globals.Freeze()
		return globals[string(role)], nil
	})
	return func(arguments ...starlark.Value) (starlark.Value, error) {
		defined, err := begin()
		if err != nil {
			return nil, err
		}
		value, err := starlark.Call(bounded(name, stepsToHold), defined, arguments, nil)
		if err != nil {
			return nil, plain(err)
		}
		return value, nil
	}, nil
}

// Predicate reads a script that says of inputs whether they are valid, as no form of a shape can. What it
// returns is safe to be used by several at once. The error names file and line.
func Predicate(path string) (shape.Predicate, error) {
	call, err := function(path, Holds)
	if err != nil {
		return nil, err
	}
	name := filepath.Base(path)
	return func(in shape.Values) (string, error) {
		value, err := call(valuesOf(in))
		if err != nil {
			return "", err
		}
		switch v := value.(type) {
		case starlark.Bool:
			if v {
				return "", nil
			}
			return "it is said to be invalid", nil
		case starlark.String:
			return string(v), nil
		}
		return "", fmt.Errorf("%s: %s returned %s; it must return True, or in words why the input is invalid", name, holds, short(value))
	}, nil
}
