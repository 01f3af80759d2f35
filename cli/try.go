package cli

import (
	"bytes"
	"context"
	"errors"
	"fmt"
	"io"
	"time"

	"github.com/urfave/cli/v3"

	"coldverdict/core/edges"
	"coldverdict/core/history"
	"coldverdict/core/judge"
	"coldverdict/core/problem"
	"coldverdict/core/verdict"
	"coldverdict/report"
	"coldverdict/term"
)

// tryFlags are what cold try was asked for.
type tryFlags struct {
	run      runFlags
	which    caseFlags
	input    string
	until    bool
	watch    bool
	cross    bool
	ready    bool
	json     string
	report   string
	every    bool
	evidence int
	repeat   int
	checked  bool
	warnings bool
	checker  bool
	alone    bool
	driver   bool
	edges    bool
	against  string
	stderr   bool
	show     bool
	below    bool
	lines    bool
	plain    bool
	share    string
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
		Flags: append(f.which.flags(),
			&cli.BoolFlag{Name: "until-failure", Usage: "stop at the first case that fails", Destination: &f.until},
			&cli.StringFlag{Name: "input", Usage: "run on `FILE`, or on standard input (-), and print what the program prints", Destination: &f.input, TakesFile: true},
			&cli.BoolFlag{Name: "watch", Usage: "run again at each save, what failed first, and show what changed", Destination: &f.watch},
			belowFlag(&f.below),
			&cli.BoolFlag{Name: "cross", Usage: "with --watch: when all cases pass, go on with 'cold cross' until the next save", Destination: &f.cross},
			&cli.BoolFlag{Name: "ready", Usage: "with --watch: when all cases pass, go on with 'cold ready' until the next save", Destination: &f.ready},
			f.run.timeFlag("case"), f.run.memoryFlag("case"), f.run.jobsFlag("run `N` cases beside each other"),
			&cli.StringFlag{Name: "json", Usage: "write the results as JSON to `FILE`, or to standard output (-)", Destination: &f.json, TakesFile: true},
			&cli.BoolFlag{Name: "json-lines", Usage: "write each event as JSON to standard output, on a line, as it happens", Destination: &f.lines},
			&cli.BoolFlag{Name: "plain", Usage: "show what failed as lines FILE:LINE:COLUMN: MESSAGE, at which editors jump", Destination: &f.plain},
			&cli.StringFlag{Name: "share", Usage: "run share `K/N` of the cases (or of the solutions); 'cold merge' joins them", Destination: &f.share},
			reportFlag(&f.report),
			f.run.langFlag("take the solutions for `NAME`, such as cpp17, whatever their extension"),
			&cli.BoolFlag{Name: "every-solution", Usage: "run every [[solution]] of verdict.toml and compare it with its expect", Destination: &f.every},
			&cli.IntFlag{Name: "repeat", Usage: "run each case `N` times, one at a time, and show how its time varies", Value: 1, Destination: &f.repeat},
			&cli.BoolFlag{Name: "checked", Usage: "run builds that stop at what is undefined, out of range or overflows, with wider limits", Destination: &f.checked},
			&cli.BoolFlag{Name: "checker", Usage: "try the checker of your own on the answers that cases have for it", Destination: &f.checker},
			&cli.BoolFlag{Name: "alone", Usage: "in a function problem, give each call a process of its own", Destination: &f.alone},
			&cli.BoolFlag{Name: "edges", Usage: "add the edge cases that 'cold shape edges' lists, as the group edges", Destination: &f.edges},
			&cli.StringFlag{Name: "against", Usage: "with --edges: let `REFERENCE` answer them", DefaultText: "the one of verdict.toml", Destination: &f.against, TakesFile: true},
			&cli.BoolFlag{Name: "driver", Usage: "in a function problem, print the program that is put around the function", Destination: &f.driver},
			&cli.BoolFlag{Name: "warnings", Usage: "show what compilers say of sources that they build", Destination: &f.warnings},
			&cli.BoolFlag{Name: "stderr", Usage: "show what accepted cases wrote to standard error, too", Destination: &f.stderr},
			&cli.BoolFlag{Name: "show", Usage: "show all that each case printed; with --watch, what changed since the last save", Destination: &f.show},
			f.run.uncontainedFlag(),
			&cli.IntFlag{Name: "evidence", Usage: "show the evidence for `N` failing cases", Value: 1, Destination: &f.evidence},
		),
		Action: func(ctx context.Context, c *cli.Command) error { return a.try(ctx, c, f) },
		ShellComplete: func(ctx context.Context, c *cli.Command) {
			a.complete(ctx, c)
		},
	}
}

func (a *app) try(ctx context.Context, c *cli.Command, f tryFlags) error {
	options, err := f.options(a, c)
	if err != nil {
		return err
	}
	if f.json != "" && f.json != "-" {
		if err := problem.CanWrite(a.path(f.json)); err != nil {
			return usageError("--json: %v", err)
		}
	}
	if err := a.checkReport(f.report); err != nil {
		return err
	}
	if f.below {
		return a.tryBelow(ctx, c, f, options)
	}
	from := a.dir
	if c.Args().Present() {
		a.standBeside(c.Args().First())
	}
	t := &trial{app: a, command: c, names: c.Args().Slice(), flags: f, options: options, from: from}
	if f.watch {
		return t.watch(ctx)
	}
	return t.once(ctx)
}

// A trial is one cold try, which --watch makes again and again.
type trial struct {
	app     *app
	command *cli.Command // nil with -r
	names   []string     // of solutions; none: the candidate
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
	if f.against != "" {
		entries, err := p.FindSolutions(f.against, t.from)
		if err != nil {
			return err
		}
		reference := entries[0]
		reference.Role, reference.ByName = problem.Reference, true // for this run
		p.Solutions = append([]problem.Solution{reference}, p.Solutions...)
	}
	switch {
	case (f.alone || f.driver) && !p.Kind().Calls:
		return usageError("--alone and --driver are for function problems; verdict.toml has no [call]")
	case f.driver:
		return t.app.showDriver(p, t.choice())
	case f.checker:
		return t.app.tryChecker(ctx, t.command, p, t.options.env, f)
	case f.against != "" && !f.edges:
		return usageError("--against names what answers edge cases; add --edges, or use 'cold cross'")
	case f.edges && f.input != "":
		return usageError("--edges adds cases, and --input takes their place; choose one")
	case f.input != "":
		return t.tryInput(ctx, p)
	case len(p.Cases) == 0 && !f.edges && !p.Kind().Calls && !p.Kind().Talks:
		return t.scratch(ctx, p)
	}
	return t.cases(ctx, p)
}

// choice says which solutions are tried.
func (t *trial) choice() choice {
	return choice{names: t.app.within(t.names, t.from), from: t.from, lang: t.flags.run.lang, every: t.flags.every}
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
	if _, _, err := t.choice().of(p, a.languages); err != nil {
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
	if s.solutions, s.chosen, err = t.choice().of(s.problem, a.languages); err != nil {
		return s, err
	}
	if len(s.problem.Cases) == 0 {
		if t.last != nil {
			return s, usageError("%s has no case yet; it is run when there is one", p.Dir)
		}
		return s, usageError("%s has no case; add one with 'cold case add', or put 1.in beside 1.out", p.Dir)
	}
	s.memory = rememberedOf(s.problem)
	if s.options.run.Only, err = f.which.of(s.problem, s.memory, s.solutions); err != nil {
		return s, err
	}
	s.solutions = withCases(s.problem, s.solutions, s.options.run.Only)
	s.options.build.MissingIsFault = len(s.solutions) == 1 || len(t.names) > 0
	if t.last != nil {
		s.options.run.First = t.last.first(s.problem)
	}
	if f.json != "" || f.lines {
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
	if f.which.failed && len(s.options.run.Only) == 0 {
		a.screen.Print("nothing failed when it was run last")
		return exit(exitUnjudged)
	}
	var part report.Share
	var whole []int
	var all []problem.Solution
	if f.share != "" {
		if part, err = parseShare(f.share); err != nil {
			return err
		}
		part.Solutions = f.every
		whole, all = shared(&s, part)
	}
	view := t.view(s)
	if t.last != nil {
		t.last.begin(a.screen, view)
	}
	var results *report.Try
	if f.json != "" {
		results = report.NewTry(s.problem)
		results.Expectations = f.every
		if whole != nil {
			results.SetShare(part, whole, all)
		}
	}
	show, lines := t.shower(s, view)
	pages := report.NewTryPage(s.problem, maker())
	j, err := t.judged(ctx, s, func(event judge.Event) {
		if results != nil {
			results.Tell(event)
		}
		if f.report != "" {
			pages.Tell(event)
		}
		show(event)
	})
	if err != nil {
		if ctx.Err() != nil && t.shows() && t.last == nil {
			view.Interrupted()
		}
		t.remember(s.problem, j.attempts)
		return err
	}
	t.last.end()
	if t.shows() {
		view.Close()
	}
	if lines != nil && lines.Err() != nil {
		return lines.Err()
	}
	a.screen.Flush()
	t.remember(s.problem, j.attempts)
	if results != nil {
		if err := a.writeJSON(f.json, results); err != nil {
			return err
		}
	}
	if err := a.writeReport(f.report, pages.Page); err != nil {
		return err
	}
	return t.status(s, j, view)
}

// view shows the run of a selection.
func (t *trial) view(s selection) *term.TryView {
	f := t.flags
	return &term.TryView{
		Screen: t.app.screen, Problem: s.problem, Evidence: f.evidence, Chosen: s.chosen, Expectations: f.every,
		Checked: f.checked, Warnings: f.warnings, Together: !f.every && together(s.problem, s.solutions), Names: term.SolutionNames(s.solutions),
		Stderr: f.stderr && !f.show, Show: f.show, Brief: f.generatedGroup(s.problem),
	}
}

// shows reports that a run is shown as it usually is.
func (t *trial) shows() bool { return t.flags.json != "-" && !t.flags.lines && !t.flags.plain }

// shower returns what shows the events of a run; lines is what writes them, where that was asked for.
func (t *trial) shower(s selection, view *term.TryView) (show func(judge.Event), lines *report.Lines) {
	switch {
	case t.flags.lines:
		lines = report.NewLines(t.app.out, s.problem)
		return lines.Tell, lines
	case t.flags.plain:
		return (&term.PlainView{Screen: t.app.screen, Problem: s.problem}).Tell, nil
	case t.flags.json == "-":
		return func(judge.Event) {}, nil
	}
	return view.Tell, nil
}

// A judged is how a run of a selection ended.
type judged struct {
	verdicts []verdict.Verdict // of the solutions
	differ   bool              // two solutions answer a case that nobody can judge, and not the same
	attempts []history.Attempt
}

// judged runs the selected solutions on the selected cases. An error is the context's, or says what failed on
// our side.
func (t *trial) judged(ctx context.Context, s selection, tell func(judge.Event)) (j judged, err error) {
	f := t.flags
	recorder := history.NewRecorder(s.problem, history.Options{Command: "try", Eased: f.checked || f.run.time != "" || f.run.memory != ""}, time.Now)
	err = s.options.all(ctx, s.problem, s.solutions, func(event judge.Event) {
		if t.last != nil && ctx.Err() != nil {
			return // a save has ended this run, and the next one is shown
		}
		switch e := event.(type) {
		case judge.Ended:
			j.verdicts = append(j.verdicts, e.Verdict)
		case judge.Amended:
			j.verdicts[e.Solution] = e.Verdict
		case judge.Case:
			j.differ = j.differ || e.Outcome.Differs != nil
			t.last.note(s.problem.Cases[e.Index].Name, e.Outcome, f.show)
		}
		s.memory.tell(s.problem, s.solutions, event)
		recorder.Tell(event)
		tell(event)
	})
	s.memory.save()
	j.attempts = recorder.Attempts()
	return j, err
}

// status is the exit status of a run.
func (t *trial) status(s selection, j judged, view *term.TryView) error {
	if t.flags.every {
		return everyExit(s.solutions, j.verdicts, t.shows(), view)
	}
	if err := verdictsExit(j.verdicts); !j.differ || err == exit(exitFault) {
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
	if !p.Generates() {
		return nil, nil, noShape(p)
	}
	e, err := edges.Add(ctx, p, edges.Options{Env: env, Most: usualEdgeCases}, func(words string) { a.screen.Progress("%s", term.Visible(words)) })
	a.screen.Progress("")
	if err != nil {
		return nil, nil, wrongMaker(ctx, err)
	}
	if e.Made == 0 {
		_, err := a.edgeCases(ctx, p.Shape, 1, false)
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

// mostRepeats bounds --repeat.
const mostRepeats = 1000

// options turns flags into how the command judges.
func (f tryFlags) options(a *app, c *cli.Command) (o judging, err error) {
	if o, err = f.run.judging(a, c); err != nil {
		return o, err
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
	if f.checker && f.run.lang != "" {
		return o, usageError("--lang is for solutions, and --checker tries none; [compare] says which checker is tried")
	}
	switch {
	case f.lines && f.plain || f.json == "-" && (f.lines || f.plain):
		return o, usageError("standard output can have one form; choose --json -, --json-lines or --plain")
	case (f.lines || f.plain) && (f.watch || f.below || f.input != ""):
		return o, usageError("--json-lines and --plain are for one run; leave out --watch, -r and --input")
	case f.share != "" && (f.watch || f.below || f.input != "" || f.until || f.which.failed):
		return o, usageError("--share is a part of one run of all cases; leave out --watch, -r, --input, --until-failure and --failed")
	}
	if f.share != "" {
		if _, err := parseShare(f.share); err != nil {
			return o, err
		}
	}
	if f.cross && !f.watch {
		return o, usageError("--cross goes on behind --watch; 'cold cross' does it by itself")
	}
	if f.ready && (!f.watch || f.cross) {
		return o, usageError("--ready goes on behind --watch, in place of --cross; 'cold ready' does it by itself")
	}
	o.build.Checked = f.checked
	o.run = judge.RunOptions{Repeat: f.repeat, UntilFailure: f.until, IsolateCalls: f.alone, KeepAll: f.stderr || f.show}
	if f.repeat > 1 && f.run.jobs == 0 {
		o.env.Jobs = 1
	}
	return o, nil
}

func (a *app) writeJSON(path string, results *report.Try) error {
	return a.writeTo("--json", path, results.Write)
}

// writeTo writes what an option asks for to a file, whole or not at all, or to standard output (-).
func (a *app) writeTo(option, path string, write func(io.Writer) error) error {
	if path == "-" {
		return write(a.out)
	}
	var text bytes.Buffer
	if err := write(&text); err != nil {
		return err
	}
	if err := problem.WriteWhole(a.path(path), text.Bytes(), 0o644); err != nil {
		return usageError("%s: %v", option, err)
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
	met := make([]bool, len(verdicts))
	for i, v := range verdicts {
		met[i] = solutions[i].Met(v)
	}
	return expectedExit(verdicts, met)
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
