package cli

import (
	"context"
	"errors"
	"io"
	"os"
	"path/filepath"
	"strings"
	"syscall"

	"github.com/urfave/cli/v3"

	"coldverdict/core/judge"
	"coldverdict/core/problem"
	"coldverdict/core/verdict"
	"coldverdict/report"
	"coldverdict/term"
)

// tryInput runs one solution on one input whose answer nobody knows. Standard
// output gets the program's own bytes and nothing else.
func (t *trial) tryInput(ctx context.Context, p *problem.Problem) error {
	a, f, options := t.app, t.flags, t.options
	if err := f.goWithInput(t.command, p); err != nil {
		return err
	}
	list, chosen, err := t.choice().of(p, a.languages)
	if err != nil {
		return err
	}
	var data problem.Data // nothing, where no input was named
	where := "none"
	if f.input != "" {
		if data, where, err = a.inputData(f.input, p.Kind().TypeInput); err != nil {
			return err
		}
	}
	if err := checkArguments(p, data); err != nil {
		return err
	}
	one := *p
	one.Cases = []problem.Case{{Name: "input/" + where, Group: "input", Input: data, Where: where}}
	if list, err = withReferences(p, list, f.which.groups); err != nil {
		return err
	}
	// What counts is the candidate, so a reference that is missing is passed over.
	options.env.Jobs, options.build.MissingIsFault = 1, false
	view := &term.InputView{Calls: p.Kind().Calls, Screen: term.NewScreen(a.errors, a.errors, os.Environ()), Chosen: chosen}
	var results *report.Try
	if f.json != "" {
		results, options.run.KeepAll = report.NewTry(&one), true
	}
	ended := make([]verdict.Verdict, len(list))
	runs, err := a.printedFor(ctx, &one, list, options, func(event judge.Event) {
		if results != nil {
			results.Tell(event)
		}
		if e, ok := event.(judge.Ended); ok {
			ended[e.Solution] = e.Verdict
		}
		view.Tell(event)
	})
	if err != nil {
		return err
	}
	agreements, got, err := judge.Agreements(p, runs[0], runs[1:])
	if err != nil {
		return err
	}
	if !runs[0].Outcome.Ran { // its compiler, or a missing one, has the word
		got = ended[0]
	}
	view.Close(agreements)
	if results != nil {
		if err := a.writeJSON(f.json, results); err != nil {
			return err
		}
	}
	return verdictsExit([]verdict.Verdict{got})
}

// scratch runs a source in a folder that has no case, without input.
func (t *trial) scratch(ctx context.Context, p *problem.Problem) error {
	if t.flags.which.isSet() || t.flags.json == "-" || t.flags.every {
		return usageError("%s has no case; add one with 'cold case add', or put 1.in beside 1.out", p.Dir)
	}
	t.app.screen.Remark("note: there is no case yet, so that it is run without input; 'cold try --input -' lets you type one")
	return t.tryInput(ctx, p)
}

// goWithInput says which other flags do not go with --input.
func (f tryFlags) goWithInput(c *cli.Command, p *problem.Problem) error {
	switch {
	case len(f.which.patterns) > 0 || f.which.failed:
		return usageError("--input runs on that input alone; leave out --case and --failed")
	case f.every || c.Args().Len() > 1:
		return usageError("--input runs one solution; name one")
	case p.Kind().Talks:
		return usageError("this problem is interactive: 'cold talk' lets you be the candidate, and 'cold try' runs one")
	case f.json == "-":
		return usageError("standard output has what the program prints; write the results to a file: --json FILE")
	case f.repeat > 1:
		return usageError("--input runs once; leave out --repeat")
	}
	return nil
}

// withReferences chooses the one solution of a list that runs the groups, and adds the references
// that it is compared with. Their groups do not count.
func withReferences(p *problem.Problem, list []problem.Solution, groups []string) ([]problem.Solution, error) {
	if len(list) > 0 && list[0].Part != "" { // it prints the answers of all parts, and all of it is shown
		list = list[:1]
		list[0].Part, list[0].Groups = "", nil
	}
	if list = ofGroups(list, groups...); len(list) == 0 {
		return nil, usageError("no part of this source runs the group %s", strings.Join(groups, " and "))
	}
	if len(list) > 1 {
		return nil, usageError("%s has several parts in verdict.toml; choose one by its group: --group %s", list[0].File, list[0].Groups[0])
	}
	list = list[:1]
	if !p.Compare.Custom() { // else both may be right
		list = append(list, others(p, list[0])...)
	}
	for i := range list {
		list[i].Groups = nil
	}
	return list, nil
}

// printedFor runs solutions on the one case of a problem and returns what each printed. What the
// first prints goes to standard output as it comes.
func (a *app) printedFor(ctx context.Context, one *problem.Problem, list []problem.Solution, options judging, tell func(judge.Event)) ([]judge.Printed, error) {
	show := a.screen.Bytes(a.out)
	options.run.Output = func(int, int) io.Writer { return show }
	var lost error
	told := func(event judge.Event) {
		if e, ok := event.(judge.Case); ok && e.Solution == 0 {
			// A reader that has seen enough is no error.
			if lost = show.Close(); errors.Is(lost, syscall.EPIPE) {
				lost = nil
			}
		}
		tell(event)
	}
	runs := make([]judge.Printed, len(list))
	err := options.prepared(ctx, one, list, told, func(prepared *judge.Prepared) error {
		for i := range list {
			for printed, err := range prepared.Output(ctx, i, one.Cases, options.run, told) {
				if err != nil {
					return err
				}
				runs[i] = printed
			}
			options.run.Output = nil
		}
		return nil
	})
	return runs, errors.Join(err, lost)
}

// inputData is the input that the person named, and a name for it.
func (a *app) inputData(name, typed string) (data problem.Data, where string, err error) {
	if name != "-" {
		path, err := filepath.Abs(a.path(name))
		if err != nil {
			return data, "", err
		}
		info, err := os.Stat(path)
		switch {
		case err != nil:
			return data, "", usageError("--input: there is no file %s", name)
		case info.Mode().IsRegular():
			return problem.Data{Path: path, Size: info.Size()}, filepath.Base(name), nil
		case info.IsDir():
			return data, "", usageError("--input: %s is a folder; 'cold case import' takes over a folder", name)
		}
		text, err := os.ReadFile(path) // a pipe, as a shell's <(…) makes one
		return problem.Data{Text: text, Size: int64(len(text))}, filepath.Base(name), err
	}
	var text []byte
	if file := a.terminal(); file != nil {
		text, err = a.readTyped(file, typed)
	} else {
		text, err = io.ReadAll(io.LimitReader(a.in, largestAdded+1))
		if err == nil && len(text) > largestAdded {
			err = usageError("--input -: that is more than 1 GiB; put it into a file")
		}
	}
	return problem.Data{Text: text, Size: int64(len(text))}, "stdin", err
}
