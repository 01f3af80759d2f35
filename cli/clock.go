package cli

import (
	"cmp"
	"context"
	"errors"
	"os"
	"path/filepath"
	"time"

	"github.com/urfave/cli/v3"

	"coldverdict/core/history"
	"coldverdict/core/problem"
	"coldverdict/term"
)

func (a *app) clockCommand() *cli.Command {
	return &cli.Command{
		Name:      "clock",
		Usage:     "say how long a problem takes, or what is left of a contest",
		ArgsUsage: "",
		Description: "A clock starts when a problem is opened, or by hand, and stops when it is told, or when 'cold ready'\n" +
			"says ready for the first time. Nothing waits for it; 'cold try --watch' shows it in its last line.\n\n" +
			"   cold clock\n" +
			"   cold clock start --length 2h30m --penalty 20m teams depots tents\n" +
			"   cold clock wrong depots",
		Commands: []*cli.Command{a.clockStartCommand(), a.clockStopCommand(), a.clockWrongCommand()},
		Action: func(ctx context.Context, c *cli.Command) error {
			if c.Args().Present() {
				return unknownCommand(c, c.Args().First())
			}
			return a.read(func(h *history.History, p history.Problem) error {
				clock, err := h.Running(ctx, p)
				if err == nil && clock == nil {
					clock, err = h.Running(ctx, history.Problem{})
				}
				if err != nil {
					return err
				}
				if clock == nil {
					return usageError("no clock goes on; 'cold clock start' starts one for this problem, or for those that you name")
				}
				a.screen.Clock(clock, time.Now())
				return nil
			})
		},
	}
}

// mostLength bounds a contest.
const mostLength = 31 * 24 * time.Hour

func (a *app) clockStartCommand() *cli.Command {
	var length, penalty string
	return &cli.Command{
		Name:        "start",
		Usage:       "start a clock for this problem, or a contest of several",
		ArgsUsage:   "[FOLDER ...]",
		Description: "A contest has several problems, and perhaps an end and a penalty for each wrong submission.\n\n   cold clock start\n   cold clock start --length 2h30m --penalty 20m teams depots",
		Flags: []cli.Flag{
			&cli.StringFlag{Name: "length", Usage: "the contest ends after `D`, such as 2h30m", DefaultText: "never", Destination: &length},
			&cli.StringFlag{Name: "penalty", Usage: "a wrong submission costs `D`, such as 20m, once the problem is solved", DefaultText: "nothing", Destination: &penalty},
		},
		Action: func(ctx context.Context, c *cli.Command) error {
			clock := history.Clock{Began: time.Now()}
			for option, into := range map[string]*time.Duration{"length": &clock.Length, "penalty": &clock.Penalty} {
				text := map[string]string{"length": length, "penalty": penalty}[option]
				if text == "" {
					continue
				}
				d, err := time.ParseDuration(text)
				if err != nil || d < 0 || d > mostLength || option == "length" && d == 0 {
					return usageError("--%s is %q; write a time such as 2h30m or 20m", option, text)
				}
				*into = d
			}
			return a.clockStart(ctx, clock, c.Args().Slice())
		},
	}
}

func (a *app) clockStart(ctx context.Context, clock history.Clock, folders []string) error {
	if len(folders) == 0 {
		folders = []string{"."}
	}
	for _, folder := range folders {
		p, err := a.problemIn(folder)
		if err != nil {
			return err
		}
		clock.Problems = append(clock.Problems, history.Timed{Problem: p})
	}
	path, err := history.DefaultPath()
	if err != nil {
		return err
	}
	err = notedAt(path, func(h *history.History) error {
		// A clock that 'cold open' started for one of them makes room for a contest.
		if len(clock.Problems) > 1 || clock.Length > 0 {
			for _, t := range clock.Problems {
				if c, err := h.Running(ctx, t.Problem); err != nil {
					return err
				} else if c != nil && len(c.Problems) == 1 && c.Length == 0 {
					if _, err := h.StopClock(ctx, t.Problem, clock.Began); err != nil {
						return err
					}
				}
			}
		}
		return h.StartClock(ctx, clock, false)
	})
	if unknown, ok := errors.AsType[*history.UnknownError](err); ok {
		return usageError("%s", unknown.Text)
	}
	if err == nil {
		a.screen.Clock(&clock, clock.Began)
	}
	return err
}

// problemIn is the history's name for the problem in a folder that the person named.
func (a *app) problemIn(folder string) (history.Problem, error) {
	path, err := filepath.Abs(a.path(folder))
	if err != nil {
		return history.Problem{}, err
	}
	if info, err := os.Stat(path); err != nil || !info.IsDir() {
		return history.Problem{}, usageError("there is no folder %s; 'cold open %s' makes one", folder, folder)
	}
	if !problem.IsFolder(path, a.words()) {
		return history.Problem{}, usageError("%s is no problem's folder; name one, or go there", cmp.Or(folder, path))
	}
	return history.NewProblem(path, filepath.Base(path))
}

func (a *app) clockStopCommand() *cli.Command {
	var all bool
	return &cli.Command{
		Name:        "stop",
		Usage:       "stop the clock of a problem, which is solved then, or the whole clock",
		ArgsUsage:   "[FOLDER]",
		Description: "   cold clock stop depots\n   cold clock stop --all",
		Flags:       []cli.Flag{&cli.BoolFlag{Name: "all", Usage: "stop the whole clock, whatever is solved", Destination: &all}},
		Action: func(ctx context.Context, c *cli.Command) error {
			return a.clocked(c, all, func(h *history.History, p history.Problem) (*history.Clock, error) {
				return h.StopClock(ctx, p, time.Now())
			})
		},
	}
}

func (a *app) clockWrongCommand() *cli.Command {
	return &cli.Command{
		Name:        "wrong",
		Usage:       "note that a submission was wrong, which costs the penalty",
		ArgsUsage:   "[FOLDER]",
		Description: "   cold clock wrong depots",
		Action: func(ctx context.Context, c *cli.Command) error {
			return a.clocked(c, false, func(h *history.History, p history.Problem) (*history.Clock, error) { return h.Wrong(ctx, p) })
		},
	}
}

// clocked changes the clock of a problem that may be named, or of all, and shows it.
func (a *app) clocked(c *cli.Command, all bool, change func(*history.History, history.Problem) (*history.Clock, error)) error {
	if err := atMost(c, 1); err != nil {
		return err
	}
	return a.read(func(h *history.History, p history.Problem) (err error) {
		switch {
		case all:
			p = history.Problem{}
		case c.Args().Present():
			if p, err = a.problemIn(c.Args().First()); err != nil {
				return err
			}
		}
		clock, err := change(h, p)
		switch {
		case err != nil:
			return err
		case clock == nil:
			return usageError("no clock goes on for %s; 'cold clock start' starts one", cmp.Or(p.Name, "anything"))
		}
		a.screen.Clock(clock, time.Now())
		return nil
	})
}

// stopClock stops the clock of a problem that is ready, if one goes on. What goes wrong is no matter of the result.
func (a *app) stopClock(p *problem.Problem) {
	a.known(func(h *history.History) error {
		of, err := historyOf(p)
		if err != nil {
			return err
		}
		clock, err := h.StopClock(context.Background(), of, time.Now())
		if err != nil || clock == nil {
			return err
		}
		for _, t := range clock.Problems {
			if t.Folder == of.Folder && time.Since(t.Ended) < time.Minute {
				a.screen.Remark("ready after %s", term.Span(clock.Taken(t, time.Now())))
			}
		}
		return nil
	})
}

// runningClock is the clock that goes on for a problem; nil: there is none, or nothing is known of it.
func (a *app) runningClock(dir string) (clock *history.Clock) {
	a.known(func(h *history.History) error {
		p, err := history.NewProblem(dir, "")
		if err == nil {
			clock, err = h.Running(context.Background(), p)
		}
		return err
	})
	return clock
}
