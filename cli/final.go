package cli

import (
	"context"
	"errors"
	"os"

	"github.com/atotto/clipboard"
	"github.com/urfave/cli/v3"

	"coldverdict/core/final"
	"coldverdict/core/judge"
	"coldverdict/core/problem"
	"coldverdict/core/verdict"
	view "coldverdict/term"
)

// finalFlags are what cold final was asked for.
type finalFlags struct {
	out       string
	copy, yes bool
	lang, as  string
}

func (a *app) finalCommand() *cli.Command {
	var f finalFlags
	return &cli.Command{
		Name:      "final",
		Usage:     "make the single file to hand in, tried on all cases",
		ArgsUsage: "[SOLUTION]",
		Description: "Puts in what lies beside the source (headers, modules), takes out package lines, blocks for\n" +
			"debugging and tests, and renames the class as the judge wants it ([judge] in verdict.toml).\n" +
			"What comes of it runs all cases first; if one fails, nothing is given out.\n\n" +
			"   cold final > handin.cpp\n" +
			"   cold final teams.cpp --copy\n" +
			"   cold final thaw.cpp --as program\n\n" +
			"Exit status: 0 it is given out, 1 it fails, 64 bad usage or a malformed file,\n" +
			"70 a fault on our side, 130 interrupted.",
		Flags: []cli.Flag{
			&cli.StringFlag{Name: "out", Usage: "write it into `FILE`, not to standard output", Destination: &f.out, TakesFile: true},
			&cli.BoolFlag{Name: "copy", Usage: "put it into the clipboard", Destination: &f.copy},
			&cli.StringFlag{Name: "as", Usage: "make it a `program` around the function of [call], which reads what input.shape lays out, or take that away: function", Destination: &f.as},
			&cli.StringFlag{Name: "lang", Usage: "take the solution for `NAME`, such as cpp17", Destination: &f.lang},
			yesFlag(&f.yes),
		},
		Action:        func(ctx context.Context, c *cli.Command) error { return a.final(ctx, c, f) },
		ShellComplete: func(ctx context.Context, c *cli.Command) { a.complete(ctx, c) },
	}
}

func (a *app) final(ctx context.Context, c *cli.Command, f finalFlags) error {
	if f.out != "" && f.copy {
		return usageError("it goes into a file or into the clipboard; choose --out or --copy")
	}
	if as := final.As(f.as); as != final.Itself && as != final.Program && as != final.Function {
		return usageError("--as is program or function, not %q", f.as)
	}
	if f.copy && clipboard.Unsupported {
		return usageError("the clipboard cannot be written: install wl-clipboard, xclip or xsel, or use --out FILE")
	}
	if f.out != "" {
		if err := problem.CanWrite(a.path(f.out)); err != nil {
			return usageError("--out: %v", err)
		}
	}
	if err := atMost(c, 1); err != nil {
		return err
	}
	out := a.path(f.out)
	a.handsIn = true
	p, from, err := a.loadBeside(c)
	if err != nil {
		return err
	}
	list, _, err := choice{names: a.within(c.Args().Slice(), from), from: from, lang: f.lang}.of(p, a.languages)
	if err != nil {
		return err
	}
	language, _, err := a.languages.Choose(p.Path(list[0]), list[0].Language)
	if err != nil {
		return usageError("%v", err)
	}
	made, err := final.Make(p, list[0], language, final.As(f.as))
	var wrong *final.Error
	switch {
	case errors.As(err, &wrong):
		return usageError("%v", wrong)
	case err != nil:
		return err
	}
	for _, s := range list { // the parts that the source answers
		if standard := language.StandardIn(p.Judge.Versions); standard != "" && s.Language == "" {
			s.Language = standard
		}
		if err := a.tryFinal(ctx, p, s, &made); err != nil {
			return err
		}
	}
	for _, note := range made.Notes {
		a.screen.Remark("%s", view.Visible(note))
	}
	return a.giveOut(made, f, out)
}

// tryFinal runs a made file on all cases.
func (a *app) tryFinal(ctx context.Context, p *problem.Problem, s problem.Solution, made *final.Made) error {
	screen := view.NewScreen(a.errors, a.errors, os.Environ())
	t, err := final.Try(ctx, p, judge.Env{Languages: a.languages}, judge.BuildOptions{MissingIsFault: true}, s, made, func(e judge.Event) {
		switch e := e.(type) {
		case judge.Building:
			screen.Progress("building …")
		case judge.Running:
			screen.Progress("trying it, %d of %d cases", e.Finished, e.Total)
		}
	})
	screen.Progress("")
	if err != nil {
		return err
	}
	switch t.Verdict {
	case verdict.Accepted:
		a.screen.Remark("%s: accepted on %s", view.Visible(made.Name), view.Count(t.Cases, "case"))
	case verdict.Unjudged:
		a.screen.Remark("%s: it builds; no case says whether it is right", view.Visible(made.Name))
	case verdict.Fault:
		return errors.New(t.Why)
	default:
		a.screen.Remark("%s: %s, so it is not given out: %s", view.Visible(made.Name), t.Verdict, view.Visible(t.Why))
		return exit(exitRejected)
	}
	return nil
}

// giveOut gives a made file to whom it is for.
func (a *app) giveOut(made final.Made, f finalFlags, out string) error {
	switch {
	case f.copy:
		if err := clipboard.WriteAll(string(made.Text)); err != nil {
			return usageError("the clipboard cannot be written: %v", err)
		}
		a.screen.Remark("it is in the clipboard")
		return nil
	case f.out == "":
		_, err := a.out.Write(made.Text)
		return err
	}
	if _, err := os.Lstat(out); err == nil {
		if err := a.confirm(f.yes, "replace %s?", view.Visible(f.out)); err != nil {
			return err
		}
	}
	if err := problem.WriteWhole(out, made.Text, 0o644); err != nil {
		return usageError("--out: %v", err)
	}
	a.screen.Remark("wrote %s", view.Visible(f.out))
	return nil
}
