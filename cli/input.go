package cli

import (
	"context"
	"errors"
	"io"
	"os"
	"path/filepath"
	"slices"
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
func (a *app) tryInput(ctx context.Context, c *cli.Command, p *problem.Problem, options judging, from string, f tryFlags) error {
	if err := f.goWithInput(c, p); err != nil {
		return err
	}
	list, chosen, err := solutions(p, a.languages, c.Args().Slice(), from, f)
	if err != nil {
		return err
	}
	data, where, err := a.inputData(f.input, p.Kind().TypeInput)
	if err != nil {
		return err
	}
	if err := checkArguments(p, data); err != nil {
		return err
	}
	one := *p
	one.Cases = []problem.Case{{Name: "input/" + where, Group: "input", Input: data, Where: where}}
	if list, err = withReferences(p, list, f.groups); err != nil {
		return err
	}
	// What counts is the candidate, so a reference that is missing is passed over.
	options.env.Languages, options.env.Jobs, options.build.MissingIsFault = a.languages, 1, false
	view := &term.InputView{Calls: p.Kind().Calls, Screen: term.NewScreen(a.errors, a.errors, os.Environ()), Chosen: chosen}
	var results *report.Try
	if f.json != "" {
		results, options.run.KeepAll = report.NewTry(&one), true
	}
	texts, err := a.printedFor(ctx, &one, list, options, func(event judge.Event) {
		if results != nil {
			results.Tell(event)
		}
		view.Tell(event)
	})
	if err != nil {
		return err
	}
	if err := compareRuns(p, view, texts); err != nil {
		return err
	}
	view.Close()
	if results != nil {
		if err := a.writeJSON(f.json, results); err != nil {
			return err
		}
	}
	return verdictsExit([]verdict.Verdict{view.Verdict()})
}

// goWithInput says which other flags do not go with --input.
func (f tryFlags) goWithInput(c *cli.Command, p *problem.Problem) error {
	switch {
	case len(f.patterns) > 0 || f.failed:
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
	list = slices.DeleteFunc(list, func(s problem.Solution) bool {
		return slices.ContainsFunc(groups, func(group string) bool { return !s.Runs(group) })
	})
	if len(list) == 0 {
		return nil, usageError("no part of this source runs the group %s", strings.Join(groups, " and "))
	}
	if len(list) > 1 {
		return nil, usageError("%s has several parts in verdict.toml; choose one by its group: --group %s", list[0].File, list[0].Groups[0])
	}
	list = list[:1]
	if !p.Compare.Custom() { // else both may be right
		list = append(list, references(p, list[0])...)
	}
	for i := range list {
		list[i].Groups = nil
	}
	return list, nil
}

// printedFor runs solutions on the one case of a problem and returns what each prints. What the
// first prints goes to standard output as it comes.
func (a *app) printedFor(ctx context.Context, one *problem.Problem, list []problem.Solution, options judging, tell func(judge.Event)) ([][]byte, error) {
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
	texts := make([][]byte, len(list))
	err := options.prepared(ctx, one, list, told, func(prepared *judge.Prepared) error {
		for i := range list {
			for printed, err := range prepared.Output(ctx, i, one.Cases, options.run, told) {
				if err != nil {
					return err
				}
				texts[i] = printed.Text
			}
			options.run.Output = nil
		}
		return nil
	})
	return texts, errors.Join(err, lost)
}

// compareRuns compares what the candidate printed with what each reference did.
func compareRuns(p *problem.Problem, view *term.InputView, texts [][]byte) (err error) {
	for i := range view.Runs[1:] {
		r := &view.Runs[1+i]
		if view.Runs[0].Ended.Verdict != verdict.Unjudged || !clean(r.Outcome) {
			continue
		}
		expected := problem.Data{Text: texts[1+i], Size: int64(len(texts[1+i]))}
		if r.Difference, err = judge.CompareAnswers(p, expected, texts[0]); err != nil {
			return err
		}
		r.Compared = true
	}
	return nil
}

func clean(o verdict.Outcome) bool { return o.Ran && o.Verdict == verdict.Unjudged }

// references returns the reference solutions, but for the one that is tried.
func references(p *problem.Problem, tried problem.Solution) (list []problem.Solution) {
	for _, s := range p.Solutions {
		if s.Role == problem.Reference && s.File != tried.File {
			list = append(list, s)
		}
	}
	return list
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
