package cli

import (
	"context"
	"slices"

	"github.com/urfave/cli/v3"

	"coldverdict/core/problem"
	"coldverdict/core/ready"
	"coldverdict/core/verdict"
	"coldverdict/report"
	"coldverdict/report/page"
	"coldverdict/term"
)

// readyFlags are what cold ready was asked for.
type readyFlags struct {
	run      runFlags
	opponent opponent
	seconds  float64
	seed     string
	json     bool
	report   string
	below    bool
}

// readySeconds is how long cold ready looks where nothing is said.
const readySeconds = 60

func (a *app) readyCommand() *cli.Command {
	var f readyFlags
	return &cli.Command{
		Name:      "ready",
		Usage:     "take one last look at a solution before it is submitted",
		ArgsUsage: "[SOLUTION]",
		Description: "Builds it, runs the samples, your own cases, edge cases and the checked build, compares it with\n" +
			"a reference, measures how it grows, runs cases again, and looks at the file as a judge would.\n" +
			"It ends at the first thing that would fail for sure, and says at the end what nobody checked.\n" +
			"Without SOLUTION it takes the candidate edited last.\n\n" +
			"   cold ready\n" +
			"   cold ready teams.cpp --against brute.py --seconds 30\n\n" +
			"Exit status: 0 ready, 1 not ready, 10 ready as far as can be told,\n" +
			"64 bad usage or a malformed file, 70 a fault on our side, 130 interrupted.",
		Flags: []cli.Flag{
			f.opponent.againstFlag("the reference in verdict.toml, or another attempt that passes all cases"), f.opponent.groupFlag(),
			&cli.FloatFlag{Name: "seconds", Usage: "look for `N` seconds in all", Value: readySeconds, Destination: &f.seconds},
			&cli.StringFlag{Name: "seed", Usage: "generate inputs from `S`, a number", DefaultText: "any", Destination: &f.seed},
			&cli.BoolFlag{Name: "json", Usage: "write the results as JSON to standard output", Destination: &f.json},
			reportFlag(&f.report),
			belowFlag(&f.below),
			f.run.timeFlag("run"), f.run.memoryFlag("run"), f.run.jobsFlag("make `N` runs beside each other"),
			f.run.langFlag("take the solution for `NAME`, such as cpp17"), f.run.uncontainedFlag(),
		},
		Action:        func(ctx context.Context, c *cli.Command) error { return a.ready(ctx, c, f) },
		ShellComplete: func(ctx context.Context, c *cli.Command) { a.complete(ctx, c) },
	}
}

// options turns flags into those of a look.
func (f readyFlags) options(a *app, c *cli.Command) (o ready.Options, err error) {
	how, err := f.run.judging(a, c)
	if err != nil {
		return o, err
	}
	o.Env, o.Build = how.env, how.build
	if o.Time, err = parseSeconds(f.seconds); err != nil {
		return o, err
	}
	if o.Seed, err = parseSeed(f.seed, anySeed()); err != nil {
		return o, err
	}
	if c.Args().Len() > 1 && !f.below {
		return o, usageError("ready looks at one solution; name one, or none")
	}
	return o, nil
}

func (a *app) ready(ctx context.Context, c *cli.Command, f readyFlags) error {
	o, err := f.options(a, c)
	if err != nil {
		return err
	}
	if err := a.checkReport(f.report); err != nil {
		return err
	}
	a.handsIn = true
	if f.below {
		return a.readyBelow(ctx, c, f)
	}
	p, from, err := a.loadBeside(c)
	if err != nil {
		return err
	}
	chosen, err := a.lookedAt(p, c.Args().Slice(), from, f, &o)
	if err != nil {
		return err
	}
	view := &term.ReadyView{Screen: a.screen, Problem: p, Name: o.Candidate.File, Chosen: chosen}
	tell := view.Tell
	if f.json {
		tell = func(ready.Event) {}
	}
	r, err := ready.Run(ctx, p, o, tell)
	if err != nil {
		return a.searchError(ctx, err)
	}
	if f.json {
		a.screen.Flush()
		if err := report.WriteReady(a.out, p, o.Candidate.File, r); err != nil {
			return err
		}
	} else {
		view.Close(r)
	}
	if err := a.writeReport(f.report, func() *page.Page { return report.ReadyPage(maker(), p, o.Candidate.File, r) }); err != nil {
		return err
	}
	switch r.Outcome {
	case ready.Ready:
		a.stopClock(p)
		return nil
	case ready.NotReady:
		return exit(exitRejected)
	}
	return exit(exitUnjudged)
}

// lookedAt chooses the candidate, and what it is compared with.
func (a *app) lookedAt(p *problem.Problem, named []string, from string, f readyFlags, o *ready.Options) (chosen string, err error) {
	list, reference, chosen, err := a.opposed(p, named, from, f.opponent, f.run.lang)
	if err != nil {
		return "", err
	}
	o.Candidate, o.Reference, o.Env.Languages = list[0], reference, a.languages
	if o.Reference == nil {
		o.Others = a.attempts(p, o.Candidate)
	}
	return chosen, nil
}

// attempts are the other solutions in the folder that may be right: those of verdict.toml that need
// not fail, and sources that it does not name.
func (a *app) attempts(p *problem.Problem, candidate problem.Solution) (list []problem.Solution) {
	named := map[string]bool{}
	for _, s := range p.Solutions {
		named[s.File] = true
		if !p.IsSame(s, candidate) && s.Met(verdict.Accepted) && s.AnswersWith(candidate) && slices.Equal(s.Args, candidate.Args) && s.File != candidate.File {
			list = append(list, s)
		}
	}
	for _, name := range p.Sources {
		if one := (problem.Solution{File: name, Role: problem.Candidate}); !named[name] && !p.IsSame(one, candidate) && a.languages.IsSource(name) {
			list = append(list, one)
		}
	}
	const most = 3
	return list[:min(len(list), most)]
}
