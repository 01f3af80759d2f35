package cli

import (
	"bytes"
	"context"
	"errors"
	"fmt"
	"slices"
	"strings"

	"github.com/urfave/cli/v3"

	"coldverdict/core/edges"
	"coldverdict/core/judge"
	"coldverdict/core/problem"
	"coldverdict/core/settings"
	"coldverdict/core/toolchain"
	"coldverdict/core/verdict"
	"coldverdict/report"
	"coldverdict/term"
)

// tryFlags are what cold try was asked for.
type tryFlags struct {
	patterns []string
	groups   []string
	input    string
	failed   bool
	until    bool
	watch    bool
	cross    bool
	time     string
	memory   string
	jobs     int
	json     string
	lang     string
	every    bool
	evidence int
	repeat   int
	checked  bool
	warnings bool
	open     bool // uncontained
	checker  bool
	alone    bool
	driver   bool
	edges    bool
	stderr   bool
}

func (a *app) tryCommand() *cli.Command {
	var f tryFlags
	return &cli.Command{
		Name:      "try",
		Usage:     "run solutions on the cases under the limits and say what a judge would say",
		ArgsUsage: "[SOLUTION ...]",
		Description: "Without SOLUTION it takes the candidate edited last. For each case it shows verdict,\n" +
			"processor time, peak memory and a remark; then, for the failing case with the\n" +
			"smallest input, what went in, what came out and what was expected.\n\n" +
			"   cold try teams.cpp --case 'edge-cases/*' --time 2s\n" +
			"   cold try --input big.txt > out.txt\n" +
			"   cold try --watch\n\n" +
			"Exit status: 0 accepted, 1 any other verdict, 10 nothing was judged,\n" +
			"64 bad usage or a malformed file, 70 a fault on our side, 130 interrupted.",
		Flags: []cli.Flag{
			&cli.StringSliceFlag{Name: "case", Usage: "run only the cases that match `PATTERN`: a name, a group, or one with * and ?", Destination: &f.patterns},
			&cli.StringSliceFlag{Name: "group", Usage: "run only the cases of the group `NAME`", Destination: &f.groups},
			&cli.BoolFlag{Name: "failed", Usage: "run only the cases that failed when they were run last", Destination: &f.failed},
			&cli.BoolFlag{Name: "until-failure", Usage: "stop at the first case that fails", Destination: &f.until},
			&cli.StringFlag{Name: "input", Usage: "run on `FILE`, or on standard input (-), and print what the program prints", Destination: &f.input, TakesFile: true},
			&cli.BoolFlag{Name: "watch", Usage: "run again at each save, what failed first, and show what changed", Destination: &f.watch},
			&cli.BoolFlag{Name: "cross", Usage: "with --watch: when all cases pass, go on with 'cold cross' until the next save", Destination: &f.cross},
			&cli.StringFlag{Name: "time", Usage: "limit the processor time of a case to `D`, such as 1.5s", Destination: &f.time},
			&cli.StringFlag{Name: "memory", Usage: "limit the memory of a case to `S`, such as 256MiB", Destination: &f.memory},
			&cli.IntFlag{Name: "jobs", Usage: "run `N` cases beside each other", DefaultText: "one a processor core", Destination: &f.jobs},
			&cli.StringFlag{Name: "json", Usage: "write the results as JSON to `FILE`, or to standard output (-)", Destination: &f.json, TakesFile: true},
			&cli.StringFlag{Name: "lang", Usage: "take the solutions for `NAME`, such as cpp17, whatever their extension", Destination: &f.lang},
			&cli.BoolFlag{Name: "every-solution", Usage: "run every [[solution]] of verdict.toml and compare it with its expect", Destination: &f.every},
			&cli.IntFlag{Name: "repeat", Usage: "run each case `N` times, one at a time, and show how its time varies", Value: 1, Destination: &f.repeat},
			&cli.BoolFlag{Name: "checked", Usage: "run builds that stop at what is undefined, out of range or overflows, with wider limits", Destination: &f.checked},
			&cli.BoolFlag{Name: "checker", Usage: "try the checker of your own on the answers that cases have for it", Destination: &f.checker},
			&cli.BoolFlag{Name: "alone", Usage: "in a function problem, give each call a process of its own", Destination: &f.alone},
			&cli.BoolFlag{Name: "edges", Usage: "add the edge cases that 'cold shape edges' lists, as the group edges", Destination: &f.edges},
			&cli.BoolFlag{Name: "driver", Usage: "in a function problem, print the program that is put around the function", Destination: &f.driver},
			&cli.BoolFlag{Name: "warnings", Usage: "show what compilers say of sources that they build", Destination: &f.warnings},
			&cli.BoolFlag{Name: "stderr", Usage: "show what accepted cases wrote to standard error, too", Destination: &f.stderr},
			&cli.BoolFlag{Name: "uncontained", Usage: "let programs use the network and your files; every result says so", Destination: &f.open},
			&cli.IntFlag{Name: "evidence", Usage: "show the evidence for `N` failing cases", Value: 1, Destination: &f.evidence},
		},
		Action: func(ctx context.Context, c *cli.Command) error { return a.try(ctx, c, f) },
		ShellComplete: func(ctx context.Context, c *cli.Command) {
			a.complete(ctx, c)
		},
	}
}

func (a *app) try(ctx context.Context, c *cli.Command, f tryFlags) error {
	options, err := f.options(c)
	if err != nil {
		return err
	}
	if f.json != "" && f.json != "-" {
		if err := problem.CanWrite(a.path(f.json)); err != nil {
			return usageError("--json: %v", err)
		}
	}
	from := a.dir
	if c.Args().Present() {
		a.standBeside(c.Args().First())
	}
	t := &trial{app: a, command: c, flags: f, options: options, from: from}
	if f.watch {
		return t.watch(ctx)
	}
	return t.once(ctx)
}

// A trial is one cold try, which --watch makes again and again.
type trial struct {
	app     *app
	command *cli.Command
	flags   tryFlags
	options judging
	from    string    // the folder in which the person is
	last    *watching // what --watch knows of the last time; nil: it is made once
}

// once makes it once.
func (t *trial) once(ctx context.Context) error {
	p, err := t.app.load()
	if err != nil {
		return err
	}
	t.options.env.Languages = t.app.languages // the problem may add some
	f := t.flags
	switch {
	case (f.alone || f.driver) && !p.Kind().Calls:
		return usageError("--alone and --driver are for function problems; verdict.toml has no [call]")
	case f.driver:
		return t.app.showDriver(t.command, p, t.from, f)
	case f.checker:
		return t.app.tryChecker(ctx, t.command, p, t.options.env, f)
	case f.edges && f.input != "":
		return usageError("--edges adds cases, and --input takes their place; choose one")
	case f.input != "":
		return t.app.tryInput(ctx, t.command, p, t.options, t.from, f)
	}
	return t.cases(ctx, p)
}

// A selection is which solutions run which cases of a problem.
type selection struct {
	problem   *problem.Problem // with edge cases, if they are asked for
	solutions []problem.Solution
	chosen    string // how the solution was chosen; empty: by name
	options   judging
	memory    *remembered
	end       func() // must be called when the problem is no longer needed
}

// selected selects the solutions and the cases.
func (t *trial) selected(ctx context.Context, p *problem.Problem) (s selection, err error) {
	a, f := t.app, t.flags
	names := t.command.Args().Slice()
	if _, _, err := solutions(p, a.languages, names, t.from, f); err != nil {
		return s, err // before anything is made for them
	}
	s.options = t.options
	if s.problem, s.end, err = a.withEdges(ctx, p, f, t.options.env); err != nil {
		return s, err
	}
	defer func() {
		if err != nil {
			s.end()
		}
	}()
	if s.solutions, s.chosen, err = solutions(s.problem, a.languages, names, t.from, f); err != nil {
		return s, err
	}
	if len(s.problem.Cases) == 0 {
		if t.last != nil {
			return s, usageError("%s has no case yet; it is run when there is one", p.Dir)
		}
		return s, usageError("%s has no case; add one with 'cold case add', or put 1.in beside 1.out", p.Dir)
	}
	s.memory = rememberedOf(s.problem)
	if s.options.run.Only, err = f.cases(s.problem, s.memory, s.solutions); err != nil {
		return s, err
	}
	s.solutions = withCases(s.problem, s.solutions, s.options.run.Only)
	s.options.build.MissingIsFault = len(s.solutions) == 1 || len(names) > 0
	if t.last != nil {
		s.options.run.First = t.last.first(s.problem)
	}
	if f.json != "" {
		s.options.run.KeepAll = true
	}
	return s, nil
}

// cases runs the selected solutions on the selected cases.
func (t *trial) cases(ctx context.Context, p *problem.Problem) error {
	s, err := t.selected(ctx, p)
	if err != nil {
		return err
	}
	defer s.end()
	a, f := t.app, t.flags
	if f.failed && len(s.options.run.Only) == 0 {
		a.screen.Print("nothing failed when it was run last")
		return exit(exitUnjudged)
	}
	view := &term.TryView{Screen: a.screen, Problem: s.problem, Evidence: f.evidence, Chosen: s.chosen, Expectations: f.every,
		Checked: f.checked, Warnings: f.warnings, Together: !f.every && sameCases(s.solutions), Names: term.SolutionNames(s.solutions), Stderr: f.stderr, Brief: f.generatedGroup(s.problem)}
	if t.last != nil {
		t.last.begin(a.screen, view)
	}
	var results *report.Try
	if f.json != "" {
		results = report.NewTry(s.problem)
	}
	var verdicts []verdict.Verdict
	differ := false
	err = s.options.all(ctx, s.problem, s.solutions, func(event judge.Event) {
		if t.last != nil && ctx.Err() != nil {
			return // a save has ended this run, and the next one is shown
		}
		switch e := event.(type) {
		case judge.Ended:
			verdicts = append(verdicts, e.Verdict)
		case judge.Amended:
			verdicts[e.Solution] = e.Verdict
		case judge.Case:
			differ = differ || e.Outcome.Differs != nil
			t.last.note(s.problem.Cases[e.Index].Name, e.Outcome)
		}
		s.memory.tell(s.problem, s.solutions, event)
		if results != nil {
			results.Tell(event)
		}
		if f.json != "-" {
			view.Tell(event)
		}
	})
	s.memory.save()
	if err != nil {
		if ctx.Err() != nil && f.json != "-" && t.last == nil {
			view.Interrupted()
		}
		return err
	}
	t.last.end()
	if f.json != "-" {
		view.Close()
	}
	if results != nil {
		if err := a.writeJSON(f.json, results); err != nil {
			return err
		}
	}
	return t.status(s, verdicts, differ, view)
}

// status is the exit status of a run. Differ says that two solutions answer a case that nobody can
// judge, and not the same.
func (t *trial) status(s selection, verdicts []verdict.Verdict, differ bool, view *term.TryView) error {
	if t.flags.every {
		return everyExit(s.solutions, verdicts, t.flags.json != "-", view)
	}
	if err := verdictsExit(verdicts); !differ || err == exit(exitFault) {
		return err
	}
	return exit(exitRejected)
}

// withEdges returns the problem with edge cases beside its own, if they are asked for.
// end must be called when it is no longer needed.
func (a *app) withEdges(ctx context.Context, p *problem.Problem, f tryFlags, env judge.Env) (with *problem.Problem, end func(), err error) {
	if !f.edges {
		return p, func() {}, nil
	}
	if p.Shape == nil && p.Make == (problem.Make{}) {
		return nil, nil, noShape()
	}
	e, err := edges.Add(ctx, p, env, usualEdgeCases, func(words string) { a.screen.Progress("%s", term.Visible(words)) })
	a.screen.Progress("")
	if err != nil {
		return nil, nil, wrongMaker(ctx, err)
	}
	if e.Made == 0 {
		_, err := a.edgeCases(ctx, p.Shape, 1)
		return nil, nil, errors.Join(err, e.Close())
	}
	if f.json != "-" {
		a.screen.Edges(e)
	}
	return e.Problem, func() { e.Close() }, nil
}

// generatedGroup is the group of edge cases that were generated, which is the last; "": none were.
func (f tryFlags) generatedGroup(p *problem.Problem) string {
	if groups := p.Groups(); f.edges && len(groups) > 0 {
		return groups[len(groups)-1]
	}
	return ""
}

// cases returns the indices of the cases that were asked for.
func (f tryFlags) cases(p *problem.Problem, memory *remembered, solutions []problem.Solution) ([]int, error) {
	indices, err := p.SelectCases(f.patterns)
	if err != nil {
		return nil, err
	}
	if len(f.groups) > 0 {
		groups := p.Groups()
		for _, name := range f.groups {
			if !slices.Contains(groups, name) {
				return nil, usageError("no case is in the group %q; %s", name, settings.Nearest(name, groups))
			}
		}
		indices = slices.DeleteFunc(indices, func(i int) bool { return !slices.Contains(f.groups, p.Cases[i].Group) })
		if len(indices) == 0 {
			return nil, usageError("no case matches both --case and --group")
		}
	}
	if f.failed {
		failed := memory.failed(solutions)
		indices = slices.DeleteFunc(indices, func(i int) bool { return !failed[p.Cases[i].Name] })
	}
	return indices, nil
}

// mostRepeats bounds --repeat.
const mostRepeats = 1000

// options turns flags into how the command judges.
func (f tryFlags) options(c *cli.Command) (o judging, err error) {
	if f.time != "" {
		if o.build.Limits.Time, err = problem.ParseTime(f.time); err != nil {
			return o, usageError("--time: %v", err)
		}
	}
	if f.memory != "" {
		if o.build.Limits.Memory, err = problem.ParseSize(f.memory); err != nil {
			return o, usageError("--memory: %v", err)
		}
	}
	if c.IsSet("jobs") && (f.jobs < 1 || f.jobs > 256) {
		return o, usageError("--jobs is %d; it can be 1 to 256", f.jobs)
	}
	if f.evidence < 0 {
		return o, usageError("--evidence is %d; it can be 0 or more", f.evidence)
	}
	if f.every && c.Args().Present() {
		return o, usageError("--every-solution runs those of verdict.toml; leave out the names, or the option")
	}
	if f.repeat < 1 || f.repeat > mostRepeats {
		return o, usageError("--repeat is %d; it can be 1 to %d", f.repeat, mostRepeats)
	}
	if f.watch && f.input == "-" {
		return o, usageError("--watch runs again and again, and standard input can be read once; name a file: --input FILE")
	}
	if f.checker && f.lang != "" {
		return o, usageError("--lang is for solutions, and --checker tries none; [compare] says which checker is tried")
	}
	if f.cross && !f.watch {
		return o, usageError("--cross goes on behind --watch; 'cold cross' does it by itself")
	}
	o.env.Jobs, o.env.Uncontained, o.build.Checked = f.jobs, f.open, f.checked
	o.run = judge.RunOptions{Repeat: f.repeat, UntilFailure: f.until, IsolateCalls: f.alone, KeepAll: f.stderr}
	if f.repeat > 1 && f.jobs == 0 {
		o.env.Jobs = 1
	}
	return o, nil
}

// solutions returns what is to be tried, and how it was chosen if not by name.
func solutions(p *problem.Problem, languages *toolchain.Languages, names []string, from string, f tryFlags, except ...problem.Solution) (list []problem.Solution, chosen string, err error) {
	switch {
	case f.every:
		if len(p.Solutions) == 0 {
			return nil, "", usageError("verdict.toml names no [[solution]]; name one there, or leave out --every-solution")
		}
		list = p.Solutions
	case len(names) == 0:
		s, err := p.ChooseCandidate(except...)
		if err != nil {
			return nil, "", err
		}
		list = []problem.Solution{s}
		if len(p.Sources) > 1 {
			chosen = "edited last"
		}
	}
	for _, name := range names {
		entries, err := p.FindSolutions(name, from)
		if err != nil {
			return nil, "", err
		}
		list = append(list, entries...)
	}
	for i := range list {
		if f.lang != "" {
			list[i].Language = f.lang
		}
		if err := checkLanguage(languages, list[i]); err != nil {
			return nil, "", err
		}
	}
	return list, chosen, nil
}

// withCases leaves out the parts of a source that none of the chosen cases is
// for, where another part has some.
func withCases(p *problem.Problem, list []problem.Solution, cases []int) []problem.Solution {
	serves := func(s problem.Solution) bool {
		return slices.ContainsFunc(cases, func(i int) bool { return s.Runs(p.Cases[i].Group) })
	}
	return slices.DeleteFunc(slices.Clone(list), func(s problem.Solution) bool {
		return !serves(s) && slices.ContainsFunc(list, func(other problem.Solution) bool { return other.File == s.File && serves(other) })
	})
}

// sameCases reports that there are several solutions, and that they run the
// same cases.
func sameCases(list []problem.Solution) bool {
	return len(list) > 1 && !slices.ContainsFunc(list, func(s problem.Solution) bool { return len(s.Groups) > 0 })
}

// checkLanguage reports a solution whose language is not known.
func checkLanguage(languages *toolchain.Languages, s problem.Solution) error {
	if _, ok := languages.Find(s.Language); s.Language != "" && !ok {
		return noSuchLanguage(languages, s.Language)
	}
	if s.Language == "" && !languages.IsSource(s.File) {
		return usageError("the extension of %s names no language; say which with --lang, one of %s", s.File, strings.Join(languages.Names(), ", "))
	}
	return nil
}

func noSuchLanguage(languages *toolchain.Languages, name string) error {
	return usageError("there is no language %q; %s; 'cold host --languages' lists all", name, nearLanguage(name, languages.NamesWithStandards()))
}

func (a *app) writeJSON(path string, results *report.Try) error {
	if path == "-" {
		return results.Write(a.out)
	}
	var text bytes.Buffer
	if err := results.Write(&text); err != nil {
		return err
	}
	if err := problem.WriteWhole(a.path(path), text.Bytes(), 0o644); err != nil {
		return usageError("--json: %v", err)
	}
	return nil
}

// verdictsExit is the exit status for solutions with these verdicts.
func verdictsExit(verdicts []verdict.Verdict) error {
	judged := false
	worst := exit(exitAccepted)
	for _, v := range verdicts {
		switch v {
		case verdict.Fault:
			return exit(exitFault)
		case verdict.Accepted:
			judged = true
		case verdict.Unjudged, verdict.Skipped:
		default:
			judged, worst = true, exitRejected
		}
	}
	switch {
	case !judged:
		return exit(exitUnjudged)
	case worst != exitAccepted:
		return worst
	}
	return nil
}

// everyExit is the exit status where each solution has a verdict that it must
// get.
func everyExit(solutions []problem.Solution, verdicts []verdict.Verdict, show bool, view *term.TryView) error {
	if show {
		view.ShowExpectations()
	}
	held := false
	for i, v := range verdicts {
		expect := solutions[i].Expect
		switch {
		case v == verdict.Skipped:
			continue
		case v == verdict.Fault && expect != verdict.Fault.String():
			return exit(exitFault)
		case !term.Expected(v, expect):
			return exit(exitRejected)
		}
		held = true
	}
	if !held {
		return exit(exitUnjudged)
	}
	return nil
}

// complete lists options and sources for a shell.
func (a *app) complete(ctx context.Context, c *cli.Command) {
	cli.DefaultCompleteWithFlags(ctx, c)
	languages, err := languagesOf(a.dir)
	if err != nil {
		return
	}
	p, err := problem.Load(a.dir, vocabulary(languages))
	if err != nil {
		return
	}
	for _, name := range p.Sources {
		fmt.Fprintln(a.out, name)
	}
}
