package cli

import (
	"context"
	"errors"
	"fmt"
	"io"
	"os"
	"os/user"
	"runtime"
	"time"

	"github.com/urfave/cli/v3"
	"golang.org/x/sys/unix"

	"coldverdict/core/box"
	"coldverdict/core/judge"
	"coldverdict/core/toolchain"
	"coldverdict/core/verdict"
	"coldverdict/term"
)

func (a *app) hostCommand() *cli.Command {
	var table, own, warm bool
	var fromInput string
	var stepped bool
	return &cli.Command{
		Name:      "host",
		Usage:     "say what this machine offers: how limits are held, and compilers",
		ArgsUsage: "[SOURCE ...]",
		Description: "Starts a worker as 'cold try' does, and says what it could put up: what holds, what does\n" +
			"not and how to get it. Then the languages that were found.\n\n" +
			"With --warm it compiles the headers with which sources begin, in C++, so that builds which\n" +
			"begin with the same take a quarter of their time. At a terminal that is done after a first\n" +
			"build anyway.\n\n   cold host --warm\n   cold host --warm teams.cpp\n\n" +
			"Exit status: 0 everything holds, 1 something does not.",
		Flags: []cli.Flag{
			&cli.BoolFlag{Name: "settings", Usage: "print your own settings, and where each is from", Destination: &own},
			&cli.BoolFlag{Name: "warm", Usage: "compile the headers with which sources begin, or bits/stdc++.h", Destination: &warm},
			&cli.StringFlag{Name: "warm-from-input", Hidden: true, Destination: &fromInput},
			&cli.BoolFlag{Name: "warm-stepped", Hidden: true, Destination: &stepped},
			&cli.BoolFlag{Name: "languages", Usage: "print the table of languages, as one of your own is written", Destination: &table},
		},
		Action: func(ctx context.Context, c *cli.Command) error {
			if fromInput != "" {
				return a.warmFromInput(ctx, fromInput, stepped)
			}
			if warm {
				return a.warmAll(ctx, c.Args().Slice())
			}
			if c.Args().Present() {
				return usageError("cold host takes the names of sources with --warm only")
			}
			if own {
				return a.hostSettings()
			}
			if table {
				_, err := io.WriteString(a.out, toolchain.Text())
				return err
			}
			return a.host(ctx)
		},
	}
}

func (a *app) host(ctx context.Context) (err error) {
	h := term.Host{System: system(), User: userName(), Jobs: judge.DefaultJobs()}
	if err := survey(ctx, &h); err != nil {
		return err
	}
	languages, err := ownLanguages()
	if err != nil {
		return err
	}
	kit, err := toolchain.Open(toolchain.DefaultDir(), languages)
	if err != nil {
		return err
	}
	defer kit.Close()
	h.Tools = kit.Survey(ctx)
	a.screen.Host(h)
	if len(h.Hold.Lacks()) > 0 {
		return exit(exitRejected)
	}
	return ctx.Err()
}

// survey opens a box as a judge would, runs this very program in it, and says
// how it was held.
func survey(ctx context.Context, h *term.Host) (err error) {
	scratch, err := box.NewScratch(os.TempDir(), "cold-verdict-host-")
	if err != nil {
		return err
	}
	defer func() { err = errors.Join(err, scratch.Remove()) }()
	groups, why := box.OpenGroups()
	if why != nil {
		h.Ungrouped = why.Error()
	}
	self, err := os.Executable()
	if err != nil {
		return err
	}
	b, err := box.Open(box.Options{Scratch: scratch.Dir, Groups: groups, Visible: []string{self}})
	if err != nil {
		return err
	}
	defer func() { err = errors.Join(err, b.Close()) }()
	h.Hold = b.Hold()
	trial, err := b.Run(ctx, box.Run{
		Program: box.Program{Path: self, Args: []string{"--version"}},
		Limits:  verdict.Limits{Time: 5 * time.Second, Wall: 10 * time.Second, Memory: 256 << 20, Output: 1 << 20, Processes: 100},
	})
	if err != nil {
		return fmt.Errorf("nothing can be run here: %w", err)
	}
	if trial.Ending != box.Exited || trial.ExitCode != 0 {
		return fmt.Errorf("nothing can be run here: a trial run ended with %+v", trial)
	}
	h.Trial = trial.Usage
	return nil
}

// system names the machine's system.
func system() string {
	var name unix.Utsname
	release := ""
	if unix.Uname(&name) == nil {
		release = fmt.Sprintf("%s %s, ", unix.ByteSliceToString(name.Sysname[:]), unix.ByteSliceToString(name.Release[:]))
	}
	return fmt.Sprintf("%s%s, %d processors", release, runtime.GOARCH, runtime.NumCPU())
}

func userName() string {
	if u, err := user.Current(); err == nil {
		return u.Username
	}
	return fmt.Sprintf("user %d", os.Getuid())
}
