package script

import (
	"fmt"
	"io"
	"os"
	"path/filepath"

	"go.starlark.net/lib/json"
	"go.starlark.net/starlark"

	"coldverdict/core/value"
)

// mostAnswerSteps bounds what a script does to answer one question.
const mostAnswerSteps = 20_000_000

// A Given answers what solutions ask of functions that are given to them. Unlike checkers it runs in this
// process, since a question must be answered in microseconds: its steps are bounded, its memory is not.
type Given struct {
	path    string
	globals starlark.StringDict
}

// OpenGiven reads the script of a given function. The error names file and line.
func OpenGiven(path string) (*Given, error) {
	text, err := os.ReadFile(path)
	if err != nil {
		return nil, err
	}
	globals, err := starlark.ExecFileOptions(options, answering(path), filepath.Base(path), text, forMake)
	if err != nil {
		return nil, plain(err)
	}
	globals.Freeze()
	return &Given{path, globals}, nil
}

func answering(path string) *starlark.Thread {
	thread := &starlark.Thread{Name: filepath.Base(path), Print: func(_ *starlark.Thread, words string) { fmt.Fprintln(io.Discard, words) }}
	thread.SetMaxExecutionSteps(mostAnswerSteps)
	thread.OnMaxSteps = func(t *starlark.Thread) {
		t.Cancel(fmt.Sprintf("passed %d steps; does a loop have no end?", mostAnswerSteps))
	}
	return thread
}

// Answer calls a function of the script with the case, whose values have names, and the arguments of a
// question. Data and args are values of function problems; the answer is one of the type. The error names file
// and line.
func (g *Given) Answer(name string, names []string, data, args []any, returns value.Type) (any, error) {
	function, ok := g.globals[name].(*starlark.Function)
	if !ok {
		return nil, fmt.Errorf("%s defines no %s; write def %[2]s(case, …)", filepath.Base(g.path), name)
	}
	thread := answering(g.path)
	decoded := func(v any) (starlark.Value, error) {
		text := value.Append(nil, value.Plain(v), false)
		return starlark.Call(thread, json.Module.Members["decode"], starlark.Tuple{starlark.String(text)}, nil)
	}
	values := starlark.NewDict(len(names))
	for i, n := range names {
		v, err := decoded(data[i])
		if err != nil {
			return nil, plain(err)
		}
		if err := values.SetKey(starlark.String(n), v); err != nil {
			return nil, err
		}
	}
	tuple := starlark.Tuple{named{values}}
	for _, arg := range args {
		v, err := decoded(arg)
		if err != nil {
			return nil, plain(err)
		}
		tuple = append(tuple, v)
	}
	result, err := starlark.Call(thread, function, tuple, nil)
	if err != nil {
		return nil, plain(err)
	}
	text, err := starlark.Call(thread, json.Module.Members["encode"], starlark.Tuple{result}, nil)
	if err != nil {
		return nil, fmt.Errorf("%s: %s returned %s, which is no value", function.Position(), name, short(result))
	}
	answer, err := value.Read(string(text.(starlark.String)), returns)
	if err != nil {
		return nil, fmt.Errorf("%s: %s returned %s: %w", function.Position(), name, short(result), err)
	}
	return answer, nil
}
