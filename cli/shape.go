package cli

import (
	"context"

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
		Usage:     "check the cases' inputs against the shape",
		ArgsUsage: "[CASE ...]",
		Description: "Says of the first fault in each input where it lies, which value it is and which\n" +
			"constraint it breaks. Without CASE it checks all of them.\n\n   cold shape check samples\n\n" +
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
	indices, err := p.SelectCases(c.Args().Slice())
	if err != nil {
		return err
	}
	if len(indices) == 0 {
		return usageError("%s has no case; add one with 'cold case add'", p.Dir)
	}
	invalid := 0
	for n, i := range indices {
		if err := ctx.Err(); err != nil {
			return err
		}
		one := p.Cases[i]
		a.screen.Progress("checking: %d of %s", n, view.Count(len(indices), "case"))
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
		a.screen.Print("%d of %s invalid", invalid, view.Count(len(indices), "case"))
		return exit(exitRejected)
	}
	a.screen.Print("%s: all valid", view.Count(len(indices), "case"))
	return nil
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
