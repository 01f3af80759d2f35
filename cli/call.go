package cli

import (
	"fmt"
	"os"
	"path/filepath"

	"coldverdict/core/call"
	"coldverdict/core/problem"
)

// showDriver prints what is put around a solution's function.
func (a *app) showDriver(p *problem.Problem, ch choice) error {
	list, _, err := ch.of(p, a.languages)
	if err != nil {
		return err
	}
	if len(list) > 1 {
		return usageError("--driver shows the driver of one solution; name one")
	}
	path := p.Path(list[0])
	source, err := os.ReadFile(path)
	if err != nil {
		return usageError("%v", err)
	}
	language, standard, err := a.languages.Choose(path, list[0].Language)
	if err != nil {
		return usageError("%v", err)
	}
	text, err := call.Driver(p.Call, language, standard, language.FileName(filepath.Base(path), source), source)
	if err != nil {
		return usageError("%v", err)
	}
	_, err = fmt.Fprint(a.out, text)
	return err
}

// checkArguments reports arguments that are not of the function's types.
func checkArguments(p *problem.Problem, data problem.Data) error {
	if !p.Kind().Calls {
		return nil
	}
	text, err := data.Head(largestAdded)
	if err != nil {
		return usageError("%v", err)
	}
	if _, err := p.Call.ReadArguments(string(problem.Plain(text))); err != nil {
		return usageError("--input: %s", p.Call.Lacking(err))
	}
	return nil
}
