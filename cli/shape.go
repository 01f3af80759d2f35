package cli

import (
	"context"
	"os"

	"github.com/urfave/cli/v3"

	"coldverdict/core/problem"
	"coldverdict/core/shape"
	view "coldverdict/term"
)

func (a *app) shapeCommand() *cli.Command {
	return &cli.Command{
		Name:  "shape",
		Usage: "check inputs against input.shape, generate inputs from it, and say what it means",
		Description: "input.shape says what one valid input looks like, in the order and words of a statement:\n\n" +
			"   least: int 1..4e9, n: int 1..1e5\n" +
			"   w: int[n] 1..2e9",
		Commands: []*cli.Command{a.shapeCheckCommand(), a.shapeMakeCommand(), a.shapeEdgesCommand(), a.shapeExplainCommand()},
		Action: func(_ context.Context, c *cli.Command) error {
			if c.Args().Present() {
				return unknownCommand(c, c.Args().First())
			}
			return cli.ShowSubcommandHelp(c)
		},
	}
}

// shaped loads a problem that has a shape.
func (a *app) shaped() (*problem.Problem, error) {
	p, err := a.load()
	switch {
	case err != nil:
		return nil, err
	case p.Shape == nil:
		return nil, noShape(p)
	}
	return p, nil
}

func (a *app) shapeCheckCommand() *cli.Command {
	var o shape.Options
	return &cli.Command{
		Name:      "check",
		Usage:     "check the cases' inputs, or files, against the shape",
		ArgsUsage: "[CASE|FILE|- ...]",
		Description: "Says of the first fault in each input where it lies, which value it is and which\n" +
			"constraint it breaks. Without CASE it checks all of them; - is standard input.\n\n" +
			"   cold shape check samples\n   cold shape check large.txt\n   python3 generate.py | cold shape check -\n\n" +
			"Exit status: 0 all are valid, 1 some are not, 64 the shape itself is at fault.",
		Flags: []cli.Flag{
			&cli.BoolFlag{Name: "loose", Usage: "take any blanks, empty lines and Windows line ends, as in pasted inputs", Destination: &o.Loose},
		},
		Action: func(ctx context.Context, c *cli.Command) error { return a.shapeCheck(ctx, c, o) },
	}
}

func (a *app) shapeCheck(ctx context.Context, c *cli.Command, o shape.Options) error {
	p, err := a.shaped()
	if err != nil {
		return err
	}
	cases, unit, err := a.toCheck(p, c.Args().Slice())
	if err != nil {
		return err
	}
	invalid := 0
	for n, one := range cases {
		if err := ctx.Err(); err != nil {
			return err
		}
		a.screen.Progress("checking: %d of %s", n, view.Count(len(cases), unit))
		fault, err := p.CheckShape(one.Input, o)
		if err != nil {
			return usageError("%s: %v", one.Where, err)
		}
		if fault != nil {
			invalid++
			a.screen.Fault(one, fault)
		}
	}
	a.screen.Progress("")
	if invalid > 0 {
		a.screen.Print("%d of %s invalid", invalid, view.Count(len(cases), unit))
		return exit(exitRejected)
	}
	a.screen.Print("%s: all valid", view.Count(len(cases), unit))
	return nil
}

// toCheck are the inputs that are named: cases of the problem, and files as if they were cases. unit is what they are.
func (a *app) toCheck(p *problem.Problem, names []string) (cases []problem.Case, unit string, err error) {
	var patterns []string
	for _, name := range names {
		info, err := os.Stat(a.path(name))
		switch _, unknown := p.SelectCases([]string{name}); {
		case name == "-", unknown != nil && err == nil && !info.IsDir():
			input, title, err := a.inputData(name, "Paste the input; Ctrl-D ends it.")
			if err != nil {
				return nil, "", err
			}
			cases = append(cases, problem.Case{Name: title, Where: title, Input: input})
		default:
			patterns = append(patterns, name)
		}
	}
	unit = "input"
	if len(patterns) == len(names) {
		unit = "case"
	}
	if len(patterns) == 0 && len(names) > 0 {
		return cases, unit, nil
	}
	indices, err := p.SelectCases(patterns)
	if err != nil {
		return nil, "", err
	}
	for _, i := range indices {
		cases = append(cases, p.Cases[i])
	}
	if len(cases) == 0 {
		err = usageError("%s has no case; add one with 'cold case add', or name a file", p.Dir)
	}
	return cases, unit, err
}

func (a *app) shapeExplainCommand() *cli.Command {
	return &cli.Command{
		Name:        "explain",
		Usage:       "say the shape in plain words, with the extremes that it implies",
		Description: "Hold it against the statement.\n\n   cold shape explain",
		Action: func(_ context.Context, c *cli.Command) error {
			if err := atMost(c, 0); err != nil {
				return err
			}
			p, err := a.shaped()
			if err != nil {
				return err
			}
			a.screen.Explanation(p.Shape.Explain())
			return nil
		},
	}
}
