package cli

import (
	"bytes"
	"cmp"
	"context"
	"errors"
	"io"
	"path/filepath"
	"slices"
	"strings"

	"github.com/urfave/cli/v3"

	"coldverdict/core/judge"
	"coldverdict/core/problem"
	"coldverdict/core/steps"
	"coldverdict/core/verdict"
	"coldverdict/report"
	"coldverdict/term"
)

// stepsFlags are what cold steps was asked for.
type stepsFlags struct {
	run          runFlags
	test, beside string
	same         []string
	around       string
	from, last   int
	json         bool
	walk, calls  bool
	page         string
}

// lastScenes is how many scenes are shown where nothing is said.
const lastScenes = 30

func (a *app) stepsCommand() *cli.Command {
	var f stepsFlags
	return &cli.Command{
		Name:      "steps",
		Usage:     "see which lines of a solution ran, and what each changed, before it went wrong",
		ArgsUsage: "[SOLUTION]",
		Description: "Runs a case as 'cold try' does, then once more with every line recorded, and tells the last steps before\n" +
			"the output is wrong, the crash or the limit; loops are told as one. Without --case it takes the smallest\n" +
			"case that failed last, or the first one.\n\n" +
			"   cold steps ties.py --case samples/1\n" +
			"   cold steps ties.py --beside brute.py\n" +
			"   cold steps greedy.cpp --walk\n\n" +
			"Steps are recorded in C, C++, D, Go, Java, JavaScript, Kotlin, Lua, Pascal, PyPy, Python, Ruby, Rust,\n" +
			"Scala and TypeScript.",
		Flags: []cli.Flag{
			&cli.StringFlag{Name: "case", Usage: "run the case `NAME`", DefaultText: "the smallest that failed last", Destination: &f.test},
			&cli.StringFlag{Name: "beside", Usage: "say where the values of variables first differ from those in `FILE`", Destination: &f.beside, TakesFile: true},
			&cli.StringSliceFlag{Name: "same", Usage: "with --beside, `OURS=THEIRS` says that a variable has another name there", Destination: &f.same},
			&cli.StringFlag{Name: "around", Usage: "end some steps after a variable first has `VALUE`", Destination: &f.around},
			&cli.IntFlag{Name: "from", Usage: "record from the first time on that `LINE` runs", Destination: &f.from},
			&cli.IntFlag{Name: "last", Usage: "show the last `N` parts of the story", Value: lastScenes, Destination: &f.last},
			&cli.StringFlag{Name: "page", Usage: "write a page on which the steps are walked through to `FILE`, which ends in .html", Destination: &f.page, TakesFile: true},
			&cli.BoolFlag{Name: "walk", Aliases: []string{"w"}, Usage: "walk through the steps on the whole terminal: forward, back, to the next change, output or line", Destination: &f.walk},
			&cli.BoolFlag{Name: "calls", Usage: "show which call made which, with arguments and results", Destination: &f.calls},
			&cli.BoolFlag{Name: "json", Usage: "write the steps as JSON to standard output", Destination: &f.json},
			f.run.langFlag("take the solution for `NAME`, such as pypy"),
		},
		Action:        func(ctx context.Context, c *cli.Command) error { return a.steps(ctx, c, f) },
		ShellComplete: func(ctx context.Context, c *cli.Command) { a.complete(ctx, c) },
	}
}

func (a *app) steps(ctx context.Context, c *cli.Command, f stepsFlags) error {
	how, err := f.run.judging(a, c)
	switch {
	case err != nil:
		return err
	case c.Args().Len() > 1:
		return usageError("steps are those of one solution; name one, or none")
	case f.last < 1 || f.last > 10_000:
		return usageError("--last is %d; it can be 1 to 10000", f.last)
	case f.walk && f.json:
		return usageError("--walk and --json exclude each other")
	case f.walk && !a.screen.AtTerminal():
		return usageError("--walk needs a terminal; without it the story is written, with --page a page")
	case len(f.same) > 0 && f.beside == "":
		return usageError("--same says how variables are called in the file of --beside; name that, too")
	case f.from < 0:
		return usageError("--from is %d; it is the number of a line", f.from)
	}
	if f.page != "" {
		if ext := strings.ToLower(filepath.Ext(f.page)); ext != ".html" && ext != ".htm" {
			return usageError("--page is %s; it ends in .html", f.page)
		}
		if err := problem.CanWrite(a.path(f.page)); err != nil {
			return usageError("--page: %v", err)
		}
	}
	p, from, err := a.loadBeside(c)
	if err != nil {
		return err
	}
	how.env.Languages = a.languages
	list, _, err := choice{names: a.within(c.Args().Slice(), from), from: from, lang: f.run.lang}.of(p, a.languages)
	if err != nil {
		return err
	}
	solution := list[0]
	one, err := a.stepCase(p, f.test, solution)
	if err != nil {
		return err
	}
	if i := slices.IndexFunc(list, func(s problem.Solution) bool { return s.Runs(one.Group) }); i >= 0 {
		solution = list[i]
	}
	outcome, printed, err := a.ordinary(ctx, p, solution, one, how)
	switch {
	case err != nil:
		return err
	case !outcome.Ran:
		return usageError("%s was not run, so that it has no steps: %s", solution.File, outcome.Said())
	}
	o := steps.Options{Env: how.env, Around: f.around, From: f.from}
	if d := outcome.Difference; d != nil && d.GotSide.FirstLine > 0 && f.around == "" {
		o.UntilLine = d.Line
	}
	r, err := a.recorded(ctx, p, solution, one, o)
	if err != nil {
		return err
	}
	if kept := min(len(printed), len(r.Output)); !r.Cut && outcome.Verdict.Passing() && !bytes.Equal(r.Output[:kept], printed[:kept]) { // of both the beginning is kept
		a.screen.Remark("note: it printed something else while it was recorded: it does not do the same at every run")
	}
	if r.Total == 0 && f.from == 0 {
		a.screen.Remark("note: no step was recorded; while it was, the program wrote: %s", cmp.Or(term.Visible(verdict.LastLine(string(r.Run.Stderr.Bytes))), "nothing"))
	}
	if f.from > 0 && len(r.Steps) == 0 {
		a.screen.Remark("note: line %d did not run", f.from)
	}
	if f.around != "" && !r.Cut {
		a.screen.Remark("note: no variable had the value %s, as the language writes it", term.Visible(f.around))
	}
	var partings []steps.Parting
	if f.beside != "" {
		if partings, err = a.partings(ctx, p, f, from, one, how, r); err != nil {
			return err
		}
	}
	if f.page != "" {
		if err := a.writeTo("--page", f.page, func(out io.Writer) error {
			return report.WriteWalk(out, maker(), solution.File, one.Name, r, outcome)
		}); err != nil {
			return err
		}
	}
	if f.walk {
		return a.screen.Walk(ctx, a.in, a.out, solution.File, one.Name, r, outcome)
	}
	if f.json {
		a.screen.Flush()
		return report.WriteSteps(a.out, solution.File, one.Name, r, partings)
	}
	a.screen.Steps(solution.File, one.Name, r, outcome, f.last)
	if f.calls {
		a.screen.Calls(r)
	}
	if f.beside != "" {
		a.screen.Partings(f.beside, partings, mostPartings)
	}
	return a.screen.Flush()
}

// mostPartings is how many variables are told whose values differ.
const mostPartings = 6

// partings records another solution on the same case, and compares the values of variables.
func (a *app) partings(ctx context.Context, p *problem.Problem, f stepsFlags, from string, one problem.Case, how judging, r *steps.Recording) ([]steps.Parting, error) {
	called := map[string]string{}
	for _, one := range f.same {
		ours, theirs, ok := strings.Cut(one, "=")
		if !ok || ours == "" || theirs == "" {
			return nil, usageError("--same is %s; it says which name has which there, such as total=sum", one)
		}
		called[ours] = theirs
	}
	entries, err := p.FindSolutions(f.beside, from)
	if err != nil {
		return nil, err
	}
	other, err := a.recorded(ctx, p, entries[0], one, steps.Options{Env: how.env})
	if err != nil {
		return nil, err
	}
	return steps.Partings(r, other, called), nil
}

func (a *app) recorded(ctx context.Context, p *problem.Problem, solution problem.Solution, one problem.Case, o steps.Options) (*steps.Recording, error) {
	a.screen.Progress("recording %s …", term.Visible(solution.File))
	r, err := steps.Record(ctx, p, solution, one.Input, o)
	if unable, ok := errors.AsType[*steps.UnableError](err); ok {
		return nil, usageError("%s: %s", solution.File, unable.Text)
	}
	a.screen.Progress("")
	return r, err
}

// stepCase is the case of that name; without a name the smallest that failed last with the solution, or the first.
func (a *app) stepCase(p *problem.Problem, name string, solution problem.Solution) (one problem.Case, err error) {
	if name != "" {
		if one, err = p.FindCase(name); err == nil {
			err = one.Open()
		}
		return one, err
	}
	failed := rememberedOf(p).failed([]problem.Solution{solution})
	found := -1
	for i, c := range p.Cases {
		if c.Open() != nil || !solution.Runs(c.Group) {
			continue
		}
		switch {
		case found < 0, failed[c.Name] && !failed[p.Cases[found].Name]:
			found = i
		case failed[c.Name] && c.Input.Size < p.Cases[found].Input.Size:
			found = i
		}
	}
	if found < 0 {
		return one, usageError("%s has no case for %s; add one with 'cold case add'", p.Dir, solution.File)
	}
	return p.Cases[found], nil
}

// ordinary judges a case as usual: its verdict is what counts.
func (a *app) ordinary(ctx context.Context, p *problem.Problem, solution problem.Solution, one problem.Case, how judging) (o verdict.Outcome, printed []byte, err error) {
	at := slices.IndexFunc(p.Cases, func(c problem.Case) bool { return c.Name == one.Name })
	how.run.Only, how.build.MissingIsFault, how.run.KeepAll = []int{at}, true, true
	err = how.all(ctx, p, []problem.Solution{solution}, func(e judge.Event) {
		if c, ok := e.(judge.Case); ok {
			o, printed = c.Outcome, c.Outcome.Stdout.Bytes
		}
		switch e := e.(type) {
		case judge.Building:
			a.screen.Progress("building …")
		case judge.Ended:
			if !o.Ran && o.Message == "" { // its compiler has the word
				o.Verdict, o.Message = e.Verdict, e.Message
			}
		}
	})
	a.screen.Progress("")
	return o, printed, err
}
