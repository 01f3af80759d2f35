package cli

import (
	"context"
	"errors"
	"io/fs"
	"os"
	"path/filepath"

	"github.com/urfave/cli/v3"

	"coldverdict/core/box"
	"coldverdict/core/judge"
	"coldverdict/core/problem"
	"coldverdict/core/toolchain"
	"coldverdict/demo"
	"coldverdict/term"
)

func (a *app) demoCommand() *cli.Command {
	var out string
	return &cli.Command{
		Name:  "demo",
		Usage: "run the whole thing on made-up problems",
		Description: "Runs right and wrong solutions of problems at Hoarfrost station and says whether each\n" +
			"got the verdict that it should; the exit status is 0 only then.\n\n" +
			"   cold demo --out tour && cd tour/depots && cold try stale.cpp",
		Flags: []cli.Flag{
			&cli.StringFlag{Name: "out", Usage: "keep the problems in the folder `DIR`, to play with", Destination: &out, TakesFile: true},
		},
		Action: func(ctx context.Context, c *cli.Command) error {
			if c.Args().Present() {
				return usageError("cold demo takes no names; --out DIR keeps the problems")
			}
			return a.demo(ctx, out)
		},
	}
}

func (a *app) demo(ctx context.Context, out string) error {
	dir := a.path(out)
	if out == "" {
		scratch, err := box.NewScratch(os.TempDir(), "cold-verdict-demo-")
		if err != nil {
			return err
		}
		defer scratch.Remove()
		dir = scratch.Dir
	} else if err := os.MkdirAll(dir, 0o755); err != nil {
		return usageError("--out: %v", err)
	}
	if err := demo.Write(dir); errors.Is(err, fs.ErrExist) {
		return usageError("--out: %v and stays as it is; choose a new folder", err)
	} else if err != nil {
		return err
	}
	a.screen.Print("Hoarfrost is a polar station that nobody will find on a map. Its crew solves problems;\n" +
		"some of their solutions are right. Below each one stands what it does, and where it fails.\n")
	var tally term.DemoTally
	for _, stop := range demo.Tour() {
		if err := a.demoStop(ctx, filepath.Join(dir, stop.Folder), stop.Words, &tally); err != nil {
			return err
		}
		a.screen.Print("")
	}
	if out != "" {
		a.screen.Print("The problems are in %s; go there and say 'cold try', or look at 'cold try stale.cpp'.\n", out)
	} else {
		a.screen.Print("'cold demo --out DIR' keeps these problems, to try them yourself.\n")
	}
	a.screen.DemoEnd(tally)
	switch {
	case tally.Other > 0:
		return exit(exitRejected)
	case tally.AsExpected == 0:
		return exit(exitUnjudged)
	}
	return nil
}

func (a *app) demoStop(ctx context.Context, dir, words string, tally *term.DemoTally) error {
	languages := toolchain.Ours()
	p, err := problem.Load(dir, vocabulary(languages))
	if err != nil {
		return err
	}
	view := &term.DemoView{Screen: a.screen, Problem: p, Words: map[string]string{}, Tally: *tally}
	for _, s := range p.Solutions {
		source, err := os.ReadFile(p.Path(s))
		if err != nil {
			return err
		}
		view.Words[s.File] = demo.Words(source)
	}
	view.Begin(words)
	err = judging{env: judge.Env{Languages: languages}}.all(ctx, p, p.Solutions, view.Tell)
	view.End()
	*tally = view.Tally
	return err
}
