package cli

import (
	"bytes"
	"context"
	"errors"
	"fmt"
	"strings"
	"time"

	"github.com/urfave/cli/v3"

	"coldverdict/core/cross"
	"coldverdict/core/problem"
	"coldverdict/core/shape"
	"coldverdict/core/steps"
	"coldverdict/report"
	"coldverdict/report/page"
	view "coldverdict/term"
)

// crossFlags are what cold cross was asked for.
type crossFlags struct {
	run               runFlags
	opponent          opponent
	seed, size, style string
	seconds           float64
	count             int
	keep, json, slow  bool
	report            string
}

// usualSeconds is how long cold cross looks where nothing is said.
const usualSeconds = 20

func (a *app) crossCommand() *cli.Command {
	var f crossFlags
	return &cli.Command{
		Name:      "cross",
		Usage:     "compare solutions with a reference on generated inputs until they differ",
		ArgsUsage: "[CANDIDATE ...]",
		Description: "Generates inputs from input.shape, or with what [make] names: edge cases first, then random ones\n" +
			"whose sizes grow. What fails is shrunk while it fails in the same way, and shown. Without\n" +
			"a reference it looks for crashes, limits, and answers that vary; of several candidates, for\n" +
			"an input on which they disagree.\n\n" +
			"   cold cross teams.cpp --against brute.py\n" +
			"   cold cross --seconds 60 --keep\n" +
			"   cold cross --slow\n\n" +
			"Exit status: 0 nothing was found, 1 something was, 10 nothing was judged,\n" +
			"64 bad usage or a malformed file, 70 a fault on our side, 130 interrupted.",
		Flags: []cli.Flag{
			f.opponent.againstFlag("the reference in verdict.toml"), f.opponent.groupFlag(),
			&cli.FloatFlag{Name: "seconds", Usage: "try inputs for `N` seconds", Value: usualSeconds, Destination: &f.seconds},
			&cli.IntFlag{Name: "count", Usage: "try `N` inputs at the most", DefaultText: "as many as the time allows", Destination: &f.count},
			&cli.StringFlag{Name: "seed", Usage: "begin at `S`, a number; the same one tries the same inputs", DefaultText: "any", Destination: &f.seed},
			&cli.StringFlag{Name: "size", Usage: "make random inputs only, as large as `F` says, from 0 to 1", DefaultText: "growing", Destination: &f.size},
			&cli.StringFlag{Name: "style", Usage: "make random inputs only, in the style `NAME` wherever it fits", Destination: &f.style},
			&cli.BoolFlag{Name: "slow", Usage: "look for the inputs of full size that take the candidate longest", Destination: &f.slow},
			&cli.BoolFlag{Name: "keep", Usage: "write what is found into cases.md without asking", Destination: &f.keep},
			&cli.BoolFlag{Name: "json", Usage: "write the results as JSON to standard output", Destination: &f.json},
			reportFlag(&f.report),
			f.run.timeFlag("run"), f.run.memoryFlag("run"), f.run.jobsFlag("make `N` runs beside each other"),
			f.run.langFlag("take the solution for `NAME`, such as cpp17"), f.run.uncontainedFlag(),
		},
		Action:        func(ctx context.Context, c *cli.Command) error { return a.cross(ctx, c, f) },
		ShellComplete: func(ctx context.Context, c *cli.Command) { a.complete(ctx, c) },
	}
}

// options turns flags into those of a search.
func (f crossFlags) options(a *app, c *cli.Command) (o cross.Options, err error) {
	how, err := f.run.judging(a, c)
	if err != nil {
		return o, err
	}
	o.Env, o.Build = how.env, how.build
	if o.Time, err = parseSeconds(f.seconds); err != nil {
		return o, err
	}
	if c.IsSet("count") && f.count < 1 {
		return o, usageError("--count is %d; it must be 1 or more", f.count)
	}
	o.Count, o.Style = f.count, f.style
	if f.count > 0 && !c.IsSet("seconds") {
		o.Time = 0
	}
	if f.size != "" {
		size, err := shape.ParseSize(f.size)
		if err != nil {
			return o, usageError("--size: %v", err)
		}
		o.Size = &size
	}
	o.Seed, err = parseSeed(f.seed, anySeed())
	return o, err
}

func (a *app) cross(ctx context.Context, c *cli.Command, f crossFlags) error {
	if err := a.checkReport(f.report); err != nil {
		return err
	}
	if f.report != "" && f.slow {
		return usageError("--slow is written as text or with --json; leave out --report")
	}
	o, err := f.options(a, c)
	if err != nil {
		return err
	}
	p, from, err := a.loadBeside(c)
	if err != nil {
		return err
	}
	chosen, err := a.crossed(p, c.Args().Slice(), from, f, &o)
	if err != nil {
		return err
	}
	o.Env.Languages, o.Build.MissingIsFault = a.languages, true
	screen := a.screen
	if f.json {
		screen = view.NewScreen(a.errors, a.errors, nil)
	}
	shown := &view.CrossView{Screen: screen, Problem: p, Seed: o.Seed, For: f.timeWords(o), Chosen: chosen, Slow: f.slow, Quiet: f.json}
	if f.slow {
		return a.slow(ctx, p, o, f, shown)
	}
	result, err := cross.Run(ctx, p, o, func(e cross.Event) {
		if !f.json {
			shown.Tell(e)
			return
		}
		if e, ok := e.(cross.Progress); ok {
			shown.Tell(e)
		}
	})
	if result == nil || err != nil && ctx.Err() == nil {
		return a.searchError(ctx, err)
	}
	if f.json {
		screen.Flush()
		if err := report.WriteCross(a.out, p, o, result); err != nil {
			return err
		}
	} else {
		shown.Close(result)
	}
	if err := a.writeReport(f.report, func() *page.Page { return report.CrossPage(maker(), p, o, result) }); err != nil {
		return err
	}
	if err := a.keepFound(ctx, p, o, result, f); err != nil {
		return err
	}
	return crossExit(ctx, result)
}

// slow looks for inputs that take candidates longest.
func (a *app) slow(ctx context.Context, p *problem.Problem, o cross.Options, f crossFlags, shown *view.CrossView) error {
	all, result, err := cross.Slow(ctx, p, o, shown.Tell)
	if result == nil || err != nil && ctx.Err() == nil {
		return a.searchError(ctx, err)
	}
	if f.json {
		shown.Screen.Flush()
		if err := report.WriteSlow(a.out, p, o, all, result); err != nil {
			return err
		}
	} else {
		shown.CloseSlow(all, result)
	}
	status := exit(exitUnjudged)
	for _, s := range all {
		switch {
		case len(s.Worst) == 0:
			continue
		case !s.Worst[0].Outcome.Verdict.Passing():
			status = exitRejected
		case status == exitUnjudged:
			status = exitAccepted
		}
		if f.keep {
			if err := a.keepSlow(p, o, s, f); err != nil {
				return err
			}
		}
	}
	switch {
	case status == exitRejected:
		return status
	case ctx.Err() != nil:
		return exit(exitInterrupted)
	case status == exitAccepted:
		return nil
	}
	return status
}

// keepSlow writes the slowest input down.
func (a *app) keepSlow(p *problem.Problem, o cross.Options, s cross.Slowness, f crossFlags) error {
	worst := s.Worst[0]
	_, err := a.keepCase(problem.NewCase{Group: keptGroup, Input: s.Input, Reason: fmt.Sprintf("Of all inputs that were tried this one takes %s longest: %s. Found by cold cross --slow, %s.",
		o.Candidates[s.Candidate].File, view.Duration(worst.Outcome.Usage.CPU), worst.Origin)}, f)
	return err
}

// timeWords says how long a search goes on.
func (f crossFlags) timeWords(o cross.Options) string {
	switch {
	case o.Time == 0:
		return "up to " + view.Count(o.Count, "input")
	case o.Count > 0:
		return fmt.Sprintf("up to %s and %s", view.Count(o.Count, "input"), view.Duration(o.Time))
	}
	return "up to " + view.Duration(o.Time)
}

// crossed chooses the candidates and the reference.
func (a *app) crossed(p *problem.Problem, named []string, from string, f crossFlags, o *cross.Options) (chosen string, err error) {
	if !p.Generates() {
		return "", noShape(p)
	}
	if f.style != "" {
		if p.Shape == nil {
			return "", noShape(p)
		}
		if _, err := p.Shape.Make(shape.Making{Style: f.style}); err != nil {
			return "", wrongShape(err)
		}
	}
	o.Candidates, o.Reference, chosen, err = a.opposed(p, named, from, f.opponent, f.run.lang)
	return chosen, err
}

// shorter cuts a text that stands in a message.
func shorter(text string) string {
	const most = 120
	if len(text) > most {
		return text[:most] + "…"
	}
	return text
}

// crossExit is the exit status of a search.
func crossExit(ctx context.Context, r *cross.Result) error {
	switch {
	case len(r.Found) > 0:
		return exit(exitRejected)
	case ctx.Err() != nil:
		return exit(exitInterrupted)
	case r.Health.Wrong != "", r.Weight() <= cross.OnlyRan:
		return exit(exitUnjudged)
	}
	return nil
}

// keptGroup is the heading of cases that a search found.
const keptGroup = "Crossed"

// keepFound writes what was found down, if that is wanted.
func (a *app) keepFound(ctx context.Context, p *problem.Problem, o cross.Options, r *cross.Result, f crossFlags) error {
	if len(r.Found) == 0 || !f.keep && (f.json || a.terminal() == nil || ctx.Err() != nil) {
		return nil
	}
	if !f.keep {
		err := a.confirm(false, "write it into %s?", problem.CasesFile)
		if errors.Is(err, errNo) {
			return nil
		}
		if err != nil {
			return err
		}
	}
	for _, found := range r.Found {
		for _, one := range newCases(p, o, found) {
			name, err := a.keepCase(one, f)
			if err != nil {
				return err
			}
			file := o.Candidates[found.Candidate].File
			if l, _, err := a.languages.Choose(file, o.Candidates[found.Candidate].Language); err == nil && steps.IsRecorded(l) && steps.Records(p) {
				a.say(f, "see it step by step: cold steps %s --case %s", view.Visible(file), view.Visible(name))
			}
		}
	}
	return nil
}

// keepCase writes a case down, unless there is one with its input, and returns its name.
func (a *app) keepCase(one problem.NewCase, f crossFlags) (name string, err error) {
	p, err := problem.Load(a.dir, vocabulary(a.languages)) // as it is now
	if err != nil {
		return "", err
	}
	if same := caseWith(p, one.Input); same != "" {
		a.say(f, "%s has this input already", view.Visible(same))
		return same, nil
	}
	name, where, err := p.Add(one)
	if err == nil {
		a.say(f, "wrote %s into %s", view.Visible(name), view.Visible(where))
	}
	return name, err
}

// say tells what was done, where standard output has something else beside it, too.
func (a *app) say(f crossFlags, format string, args ...any) {
	if f.json {
		a.screen.Remark(format, args...)
		return
	}
	a.screen.Print(format, args...)
}

// newCases are the cases that a failure is written down as: one, or in a function
// problem one for each call.
func newCases(p *problem.Problem, o cross.Options, f cross.Found) (list []problem.NewCase) {
	for i, c := range f.Cases {
		one := problem.NewCase{Group: keptGroup, Input: c.Input.Text, Reason: reasonOf(p, o, f, i)}
		if len(c.Accepted) > 0 && o.Reference != nil && f.Way != cross.AfterOthers {
			one.Output, one.From, one.When = c.Accepted[0].Text, o.Reference.File, time.Now()
		}
		list = append(list, one)
	}
	return list
}

// reasonOf says why a case exists that a search found.
func reasonOf(p *problem.Problem, o cross.Options, f cross.Found, i int) string {
	if i < len(f.Cases)-1 {
		return "Called before the next one, which fails only then."
	}
	name := o.Candidates[f.Candidate].File
	words := fmt.Sprintf("%s gets %s here", name, f.Outcome.Verdict)
	switch {
	case f.Way == cross.Disagrees:
		words = "The candidates give different answers here"
	case f.Way == cross.Unsteady:
		words = fmt.Sprintf("%s does not do the same on every run here", name)
	case f.Way == cross.AfterOthers:
		words = fmt.Sprintf("%s answers otherwise than alone here", name)
	case f.Outcome.Message != "":
		words += ": " + strings.TrimSuffix(f.Outcome.Message, ".")
	}
	if f.Company > 1 {
		words += "; each case on its own is answered as expected"
	}
	return fmt.Sprintf("%s. Found by cold cross --seed %d, %s.", words, uint64(o.Seed), f.Origin)
}

// caseWith names a case that has an input; empty: none has it, or one of which nothing may be told.
func caseWith(p *problem.Problem, input []byte) string {
	for _, c := range p.Cases {
		if c.Sealed {
			continue
		}
		if text, err := c.Input.Head(int64(len(input)) + 1); err == nil && bytes.Equal(text, input) {
			return c.Name
		}
	}
	return ""
}
