package cli

import (
	"bytes"
	"context"
	"slices"

	"github.com/urfave/cli/v3"

	"coldverdict/core/growth"
	"coldverdict/core/problem"
	"coldverdict/report"
	"coldverdict/report/page"
	"coldverdict/term"
)

// growFlags are what cold grow was asked for.
type growFlags struct {
	run      runFlags
	scale    []string
	seconds  float64
	seed     string
	json     bool
	report   string
	svg, png string
}

// A figure is what is drawn, and where it goes.
type figure struct{ format, file string }

// figures are those that were asked for.
func (f growFlags) figures() []figure {
	return slices.DeleteFunc([]figure{{"svg", f.svg}, {"png", f.png}}, func(one figure) bool { return one.file == "" })
}

// growSeconds is how long cold grow measures one solution where nothing is said.
const growSeconds = 10

func (a *app) growCommand() *cli.Command {
	var f growFlags
	return &cli.Command{
		Name:      "grow",
		Usage:     "measure how time and memory grow, and predict what the largest input takes",
		ArgsUsage: "[SOLUTION ...]",
		Description: "Generates inputs that grow, from input.shape or with what [make] names, in several styles,\n" +
			"and says by which law time and memory grow, what the largest valid input takes, and\n" +
			"whether that fits into the limits. Without SOLUTION it takes the candidate edited last.\n\n" +
			"   cold grow teams.cpp slow.cpp\n" +
			"   cold grow --scale n --seconds 30\n\n" +
			"Exit status: 0 the largest input fits, 1 it does not, or a run failed, 10 it cannot be told,\n" +
			"64 bad usage or a malformed file, 70 a fault on our side, 130 interrupted.",
		Flags: []cli.Flag{
			&cli.StringSliceFlag{Name: "scale", Usage: "let the integer `NAME` grow, or several, such as n,m", DefaultText: "what the shape uses as lengths", Destination: &f.scale},
			&cli.FloatFlag{Name: "seconds", Usage: "measure each solution for `N` seconds", Value: growSeconds, Destination: &f.seconds},
			&cli.StringFlag{Name: "seed", Usage: "generate inputs from `S`, a number", DefaultText: "1", Destination: &f.seed},
			&cli.BoolFlag{Name: "json", Usage: "write the results as JSON to standard output", Destination: &f.json},
			reportFlag(&f.report),
			&cli.StringFlag{Name: "svg", Usage: "draw time over size into `FILE`, as SVG", Destination: &f.svg, TakesFile: true},
			&cli.StringFlag{Name: "png", Usage: "draw time over size into `FILE`, as PNG", Destination: &f.png, TakesFile: true},
			f.run.timeFlag("run"), f.run.memoryFlag("run"),
			f.run.langFlag("take the solutions for `NAME`, such as cpp17"), f.run.uncontainedFlag(),
		},
		Action:        func(ctx context.Context, c *cli.Command) error { return a.grow(ctx, c, f) },
		ShellComplete: func(ctx context.Context, c *cli.Command) { a.complete(ctx, c) },
	}
}

// options turns flags into those of a measurement.
func (f growFlags) options(a *app, c *cli.Command) (o growth.Options, err error) {
	how, err := f.run.judging(a, c)
	if err != nil {
		return o, err
	}
	o.Env, o.Build, o.Scale = how.env, how.build, f.scale
	if o.Time, err = parseSeconds(f.seconds); err != nil {
		return o, err
	}
	o.Seed, err = parseSeed(f.seed, 1)
	return o, err
}

func (a *app) grow(ctx context.Context, c *cli.Command, f growFlags) error {
	o, err := f.options(a, c)
	if err != nil {
		return err
	}
	if err := a.checkReport(f.report); err != nil {
		return err
	}
	for _, one := range f.figures() {
		if err := problem.CanWrite(a.path(one.file)); err != nil {
			return usageError("--%s: %v", one.format, err)
		}
	}
	p, from, err := a.loadBeside(c)
	if err != nil {
		return err
	}
	if !p.Generates() {
		return noShape(p)
	}
	list, chosen, err := choice{names: a.within(c.Args().Slice(), from), from: from, lang: f.run.lang}.of(p, a.languages)
	if err != nil {
		return err
	}
	o.Candidates, o.Env.Languages, o.Build.MissingIsFault = list, a.languages, true
	view := &term.GrowView{Screen: a.screen, Chosen: chosen}
	result, err := growth.Run(ctx, p, o, view.Tell)
	if err != nil {
		return a.searchError(ctx, err)
	}
	if f.json {
		a.screen.Flush()
		if err := report.WriteGrowth(a.out, p, result); err != nil {
			return err
		}
	} else {
		view.Close(result)
	}
	if err := a.writeReport(f.report, func() *page.Page { return report.GrowthPage(maker(), p, result) }); err != nil {
		return err
	}
	if err := a.drawGrowth(result, f); err != nil {
		return err
	}
	return growExit(result)
}

// drawGrowth writes the figures that were asked for.
func (a *app) drawGrowth(r *growth.Result, f growFlags) error {
	for _, one := range f.figures() {
		var drawn bytes.Buffer
		err := report.DrawGrowth(&drawn, one.format, r)
		if err == nil {
			err = problem.WriteWhole(a.path(one.file), drawn.Bytes(), 0o644)
		}
		if err != nil {
			return usageError("--%s: %v", one.format, err)
		}
	}
	return nil
}

// growExit is the exit status of a measurement: that of the solution of which the worst is known.
func growExit(r *growth.Result) error {
	status := error(nil)
	for _, g := range r.Growths {
		for _, t := range []growth.Trend{g.Time, g.Memory, g.Output} {
			switch {
			case g.Stop != nil, t.Fits == growth.No:
				status = exit(exitRejected)
			case t.Fits == growth.Unknown && status == nil:
				status = exit(exitUnjudged)
			}
		}
	}
	return status
}
