package cli

import (
	"context"
	"errors"
	"io"
	"os"
	"slices"

	"github.com/urfave/cli/v3"

	"coldverdict/core/judge"
	"coldverdict/core/problem"
	"coldverdict/core/verdict"
	"coldverdict/term"
)

func (a *app) talkCommand() *cli.Command {
	var open bool
	return &cli.Command{
		Name:      "talk",
		Usage:     "be the candidate of an interactive problem by hand",
		ArgsUsage: "[CASE]",
		Description: "Runs the interactor on a case, the first one if none is named. What you type is what\n" +
			"the candidate says, line by line; Ctrl-D ends it. Standard output has what the other\n" +
			"side says and nothing else, so that it can be a pipe.\n\n" +
			"   cold talk samples/shallow\n\n" +
			"Exit status: 0 accepted, 1 rejected, 64 bad usage, 70 the interactor failed.",
		Flags: []cli.Flag{
			&cli.BoolFlag{Name: "uncontained", Usage: "let the interactor use the network and your files", Destination: &open},
		},
		Action: func(ctx context.Context, c *cli.Command) error {
			p, err := a.load()
			if err != nil {
				return err
			}
			if !p.Kind().Talks {
				return usageError("this problem is not interactive: verdict.toml has no [interactive]; 'cold try --input -' lets you type an input")
			}
			index, err := oneCase(p, c.Args().Slice())
			if err != nil {
				return err
			}
			return a.talk(ctx, p, index, judge.Env{Languages: a.languages, Uncontained: open})
		},
	}
}

// oneCase is the case that was named, or the first.
func oneCase(p *problem.Problem, names []string) (int, error) {
	if len(p.Cases) == 0 {
		return 0, usageError("%s has no case; add one with 'cold case add'", p.Dir)
	}
	if len(names) > 1 {
		return 0, usageError("you can talk on one case; name one")
	}
	indices, err := p.SelectCases(names)
	if err != nil {
		return 0, err
	}
	if len(indices) > 1 && len(names) == 1 {
		return 0, usageError("%q matches %d cases; name one", names[0], len(indices))
	}
	return indices[0], p.Cases[indices[0]].Open()
}

func (a *app) talk(ctx context.Context, p *problem.Problem, index int, env judge.Env) (err error) {
	view := &term.TalkView{Screen: term.NewScreen(a.errors, a.errors, os.Environ()), Out: a.out}
	view.Styled = a.terminal() != nil
	view.Begin(p, index)
	var in io.Reader = a.in
	if file := a.terminal(); file != nil {
		in = file
	}
	j, err := judge.Open(p, env)
	if err != nil {
		return err
	}
	defer func() { err = errors.Join(err, j.Close()) }()
	result, err := j.Talk(ctx, index, in, view)
	if err != nil {
		return err
	}
	view.End(result)
	return verdictsExit([]verdict.Verdict{result.Verdict})
}

// tryChecker tries the checkers on the answers that cases have for that.
func (a *app) tryChecker(ctx context.Context, c *cli.Command, p *problem.Problem, env judge.Env, f tryFlags) (err error) {
	switch {
	case c.Args().Present() || f.every:
		return usageError("--checker tries the checker, and no solution; leave out the names")
	case f.input != "" || f.which.failed || f.json != "":
		return usageError("--checker goes with neither --input nor --failed nor --json")
	case p.Kind().Talks:
		return usageError("the interactor of an interactive problem is tried by 'cold talk'")
	}
	indices, err := f.which.of(p, nil, nil)
	if err != nil {
		return err
	}
	indices = slices.DeleteFunc(indices, func(i int) bool { return p.Cases[i].Sealed })
	env.Languages = a.languages
	j, err := judge.Open(p, env)
	if err != nil {
		return err
	}
	defer func() { err = errors.Join(err, j.Close()) }()
	view := &term.CheckerView{Screen: a.screen, Problem: p}
	if err := j.TryChecker(ctx, indices, view.Tell); err != nil {
		return err
	}
	if view.Tried() == 0 {
		return usageError("no case has an answer to try the checker on: verdict.toml names a checker by script or program in [compare], and a block ```output accept or ```output reject holds an answer")
	}
	view.Close()
	switch {
	case view.Faults > 0:
		return exit(exitFault)
	case view.Wrong > 0:
		return exit(exitRejected)
	}
	return nil
}
