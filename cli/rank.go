package cli

import (
	"context"
	"os"

	"github.com/urfave/cli/v3"

	"coldverdict/core/growth"
	"coldverdict/core/history"
	"coldverdict/core/problem"
	"coldverdict/core/rank"
	"coldverdict/core/verdict"
	"coldverdict/report"
	"coldverdict/report/page"
	"coldverdict/term"
)

// rankFlags are what cold rank was asked for.
type rankFlags struct {
	run                 runFlags
	which               caseFlags
	seconds             float64
	sizes               bool
	json, csv, markdown bool
	report              string
}

func (a *app) rankCommand() *cli.Command {
	var f rankFlags
	return &cli.Command{
		Name:      "rank",
		Usage:     "say which of several solutions is faster, and whether the difference is real",
		ArgsUsage: "SOLUTION SOLUTION ...",
		Description: "Judges the solutions on the cases; those that pass then take turns, so that the machine's moods\n" +
			"hit all alike, until the differences are known or the time is over. A ratio is given with\n" +
			"the interval in which it lies.\n\n" +
			"   cold rank teams.cpp teams.py --case full-load\n" +
			"   cold rank fast.cpp alt.cpp --seconds 30 --markdown\n" +
			"   cold rank fast.cpp alt.cpp --by-size\n\n" +
			"Exit status: 0 all are ranked, 1 one failed, 10 nothing could be ranked,\n" +
			"64 bad usage or a malformed file, 70 a fault on our side, 130 interrupted.",
		Flags: append(f.which.flags()[:2],
			&cli.FloatFlag{Name: "seconds", Usage: "let them take turns for `N` seconds at the most", Value: growSeconds, Destination: &f.seconds},
			&cli.BoolFlag{Name: "by-size", Usage: "compare them on generated inputs that grow, and say where they change places", Destination: &f.sizes},
			&cli.BoolFlag{Name: "json", Usage: "write the results as JSON to standard output", Destination: &f.json},
			reportFlag(&f.report),
			&cli.BoolFlag{Name: "csv", Usage: "write the table as CSV to standard output", Destination: &f.csv},
			&cli.BoolFlag{Name: "markdown", Usage: "write the table as Markdown to standard output", Destination: &f.markdown},
			f.run.timeFlag("case"), f.run.memoryFlag("case"),
			f.run.langFlag("take the solutions for `NAME`, such as cpp17"), f.run.uncontainedFlag(),
		),
		Action:        func(ctx context.Context, c *cli.Command) error { return a.rank(ctx, c, f) },
		ShellComplete: func(ctx context.Context, c *cli.Command) { a.complete(ctx, c) },
	}
}

func (a *app) rank(ctx context.Context, c *cli.Command, f rankFlags) error {
	how, err := f.run.judging(a, c)
	if err != nil {
		return err
	}
	most, err := parseSeconds(f.seconds)
	if err != nil {
		return err
	}
	if f.json && f.csv || f.json && f.markdown || f.csv && f.markdown {
		return usageError("standard output can have one form; choose --json, --csv or --markdown")
	}
	if err := a.checkReport(f.report); err != nil {
		return err
	}
	p, from, err := a.loadBeside(c)
	if err != nil {
		return err
	}
	o := rank.Options{Env: how.env, Build: how.build, Time: most}
	if o.Candidates, _, err = (choice{names: a.within(c.Args().Slice(), from), from: from, lang: f.run.lang}).of(p, a.languages); err != nil {
		return err
	}
	if len(o.Candidates) < 2 {
		return usageError("rank compares solutions; name two at least: cold rank %s OTHER", o.Candidates[0].File)
	}
	o.Env.Languages, o.Build.MissingIsFault = a.languages, true
	if f.sizes {
		return a.rankBySize(ctx, p, o, f)
	}
	if o.Only, err = f.which.of(p, nil, nil); err != nil {
		return err
	}
	if len(o.Only) == 0 {
		return usageError("%s has no case; add one with 'cold case add', or put 1.in beside 1.out", p.Dir)
	}
	view := &term.RankView{Screen: a.screen, Problem: p}
	result, err := rank.Run(ctx, p, o, view.Tell)
	if err != nil {
		return a.searchError(ctx, err)
	}
	a.screen.Flush()
	switch {
	case f.json:
		err = report.WriteRanking(a.out, p, result)
	case f.csv:
		err = report.WriteRankingCSV(a.out, result)
	case f.markdown:
		err = report.WriteRankingMarkdown(a.out, result)
	default:
		view.Close(result)
		if len(f.which.patterns)+len(f.which.groups) == 0 {
			a.besidePast(ctx, p, result)
		}
	}
	if err == nil {
		err = a.writeReport(f.report, func() *page.Page { return report.RankPage(maker(), p, result) })
	}
	if err != nil {
		return err
	}
	return rankExit(result)
}

// besidePast compares what is ranked with the person's own tries of the past, as far as something is known of them.
func (a *app) besidePast(ctx context.Context, p *problem.Problem, r *rank.Result) {
	a.known(func(h *history.History) error {
		of, err := historyOf(p)
		if err != nil {
			return err
		}
		for _, one := range r.Places {
			if one.Failed != nil {
				continue
			}
			text, err := os.ReadFile(p.Path(one.Plan.Solution))
			if err != nil {
				continue
			}
			if s, err := h.Standing(ctx, of, one.Slowest, text); err == nil && s.Of > 0 {
				a.screen.Standing(one, s)
			}
		}
		a.screen.Flush()
		return nil
	})
}

// rankBySize compares solutions on inputs that grow.
func (a *app) rankBySize(ctx context.Context, p *problem.Problem, o rank.Options, f rankFlags) error {
	switch {
	case !p.Generates():
		return noShape(p)
	case f.csv || f.markdown || f.report != "" || len(f.which.patterns)+len(f.which.groups) > 0:
		return usageError("--by-size generates its inputs, and is written as text or with --json; leave out --case, --group, --csv, --markdown and --report")
	}
	view := &term.RankView{Screen: a.screen, Problem: p}
	c, err := growth.Compare(ctx, p, growth.Options{Candidates: o.Candidates, Time: o.Time, Seed: 1, Env: o.Env, Build: o.Build}, view.Tell)
	if err != nil {
		return a.searchError(ctx, err)
	}
	a.screen.Flush()
	if f.json {
		return report.WriteComparison(a.out, p, c)
	}
	view.CloseBySize(c)
	return nil
}

// rankExit is the exit status of a comparison.
func rankExit(r *rank.Result) error {
	status, ranked := error(nil), 0
	for _, p := range r.Places {
		switch {
		case p.Failed == nil:
			ranked++
		case p.Failed.Verdict == verdict.Fault:
			return exit(exitFault)
		default:
			status = exit(exitRejected)
		}
	}
	if ranked < 2 && status == nil {
		return exit(exitUnjudged)
	}
	return status
}
