package cli

import (
	"bytes"
	"cmp"
	"context"
	"errors"
	"io/fs"
	"os"
	"path/filepath"
	"strconv"
	"time"

	"github.com/aymanbagabas/go-udiff"
	"github.com/urfave/cli/v3"

	"coldverdict/core/history"
	"coldverdict/core/problem"
	"coldverdict/report"
	"coldverdict/term"
)

// logFlags are what cold log was asked for.
type logFlags struct {
	last      int
	json, csv bool
}

// lastTries is how many tries cold log lists where nothing is said.
const lastTries = 20

func (f *logFlags) form() []cli.Flag {
	return []cli.Flag{
		&cli.BoolFlag{Name: "json", Usage: "write it as JSON to standard output", Destination: &f.json},
		&cli.BoolFlag{Name: "csv", Usage: "write the table as CSV to standard output", Destination: &f.csv},
	}
}

func (a *app) logCommand() *cli.Command {
	var f logFlags
	return &cli.Command{
		Name:      "log",
		Usage:     "look back: what was tried, when, with which verdict, and what the source was",
		ArgsUsage: "[SOLUTION]",
		Description: "Every 'cold try' notes its verdicts, figures and answers and the text of the source, in a database\n" +
			"of yours. This lists the tries of the problem in which you are; outside of a problem, all problems.\n\n" +
			"   cold log\n" +
			"   cold log diff 3 5\n" +
			"   cold log restore 3\n\n" +
			"'history = false' in settings.toml keeps nothing; 'cold log forget' deletes what was kept.",
		Flags: append(f.form(), &cli.IntFlag{Name: "last", Usage: "list the last `N` tries; 0 lists all", Value: lastTries, Destination: &f.last}),
		Commands: []*cli.Command{
			a.logProblemsCommand(), a.logShowCommand(), a.logDiffCommand(), a.logRestoreCommand(), a.logForgetCommand(),
		},
		Action:        func(ctx context.Context, c *cli.Command) error { return a.log(ctx, c, f) },
		ShellComplete: func(ctx context.Context, c *cli.Command) { a.complete(ctx, c) },
	}
}

// read does something with the history and the problem in which the person is.
func (a *app) read(do func(h *history.History, p history.Problem) error) error {
	path, err := history.DefaultPath()
	if err != nil {
		return err
	}
	h, err := history.OpenExisting(path)
	if errors.Is(err, fs.ErrNotExist) {
		return usageError("nothing was tried yet; 'cold try' notes what it runs")
	}
	if err != nil {
		return err
	}
	defer h.Close()
	absolute, err := filepath.Abs(a.dir)
	if err != nil {
		return err
	}
	p, err := history.NewProblem(absolute, filepath.Base(absolute))
	if err == nil {
		err = do(h, p)
	}
	if unknown, ok := errors.AsType[*history.UnknownError](err); ok {
		return usageError("%s", unknown.Text)
	}
	return err
}

func (f logFlags) check() error {
	switch {
	case f.json && f.csv:
		return usageError("standard output can have one form; choose --json or --csv")
	case f.last < 0:
		return usageError("--last is %d; it can be 0 or more", f.last)
	}
	return nil
}

func (a *app) log(ctx context.Context, c *cli.Command, f logFlags) error {
	if err := cmp.Or(f.check(), atMost(c, 1)); err != nil {
		return err
	}
	if a.dir == "." && !c.Args().Present() && !problem.IsFolder(a.dir, a.words()) {
		return a.logProblems(ctx, f)
	}
	if c.Args().Present() {
		a.standBeside(c.Args().First())
	}
	return a.read(func(h *history.History, p history.Problem) error {
		overview, err := h.Overview(ctx, p)
		if err != nil {
			return err
		}
		file := filepath.Base(c.Args().First())
		if !c.Args().Present() || a.path(c.Args().First()) == a.dir {
			file = ""
		}
		list, err := h.Attempts(ctx, p, file, f.last)
		if err != nil {
			return err
		}
		switch {
		case file != "" && len(list) == 0:
			return usageError("no try of %s is in the log of %s; 'cold log' lists those that are", file, p.Name)
		case f.json:
			return report.WriteLog(a.out, overview, list)
		case f.csv:
			return report.WriteLogCSV(a.out, list)
		}
		a.screen.Log(overview, list, time.Now())
		return nil
	})
}

// words are what tells sources by their names.
func (a *app) words() problem.Vocabulary {
	languages, err := languagesOf(a.dir)
	if err != nil {
		languages, _ = ownLanguages()
	}
	return vocabulary(languages)
}

func (a *app) logProblemsCommand() *cli.Command {
	var f logFlags
	return &cli.Command{
		Name:  "problems",
		Usage: "list all problems: which are solved, after how long and how many tries",
		Description: "The same as 'cold log' outside of a problem's folder: a line a problem, that of the last try first,\n" +
			"then the tries by language and by week.\n\n   cold log problems",
		Flags: f.form(),
		Action: func(ctx context.Context, c *cli.Command) error {
			if err := cmp.Or(f.check(), atMost(c, 0)); err != nil {
				return err
			}
			return a.logProblems(ctx, f)
		},
	}
}

func (a *app) logProblems(ctx context.Context, f logFlags) error {
	return a.read(func(h *history.History, _ history.Problem) error {
		all, err := h.Problems(ctx)
		if err != nil {
			return err
		}
		languages, err := h.ByLanguage(ctx)
		if err != nil {
			return err
		}
		weeks, err := h.ByWeek(ctx)
		if err != nil {
			return err
		}
		switch {
		case f.json:
			return report.WriteProblems(a.out, all, languages, weeks)
		case f.csv:
			return report.WriteProblemsCSV(a.out, all)
		}
		a.screen.Problems(all, languages, weeks, time.Now())
		return nil
	})
}

// numbered reads the number of a try.
func numbered(c *cli.Command, at int) (int, error) {
	if c.Args().Len() <= at {
		return 0, usageError("name a try by its number: cold%s 3; 'cold log' lists them", commandPath(c))
	}
	n, err := strconv.Atoi(c.Args().Get(at))
	if err != nil || n < 1 {
		return 0, usageError("%q is no number of a try; 'cold log' lists them", c.Args().Get(at))
	}
	return n, nil
}

// attempt returns the try of that number, with its source if it must have one.
func attempt(ctx context.Context, h *history.History, p history.Problem, number int, withSource bool) (history.Attempt, error) {
	one, err := h.Attempt(ctx, p, number)
	if err == nil && withSource && one.Source == nil {
		err = usageError("the source of try %d was not kept, since it is larger than %s", number, term.Size(history.MostSource))
	}
	return one, err
}

// ofTry does something with the one try that is named, with its source if it must have one.
func (a *app) ofTry(ctx context.Context, c *cli.Command, withSource bool, do func(*history.History, history.Problem, history.Attempt) error) error {
	if err := atMost(c, 1); err != nil {
		return err
	}
	number, err := numbered(c, 0)
	if err != nil {
		return err
	}
	return a.read(func(h *history.History, p history.Problem) error {
		one, err := attempt(ctx, h, p, number, withSource)
		if err != nil {
			return err
		}
		return do(h, p, one)
	})
}

func (a *app) logShowCommand() *cli.Command {
	var source bool
	return &cli.Command{
		Name:      "show",
		Usage:     "show one try: its verdict by group, its figures, its answers, its source",
		ArgsUsage: "N",
		Description: "With --source it prints the source alone, as it was, for a pipe.\n\n" +
			"   cold log show 3\n   cold log show 3 --source > old.cpp",
		Flags: []cli.Flag{&cli.BoolFlag{Name: "source", Usage: "print the source, and nothing else", Destination: &source}},
		Action: func(ctx context.Context, c *cli.Command) error {
			return a.ofTry(ctx, c, source, func(_ *history.History, _ history.Problem, one history.Attempt) error {
				if source {
					_, err := a.out.Write(one.Source)
					return err
				}
				a.screen.Attempt(one, time.Now())
				return nil
			})
		},
	}
}

func (a *app) logDiffCommand() *cli.Command {
	return &cli.Command{
		Name:        "diff",
		Usage:       "show what changed in the source from one try to another, or to now",
		ArgsUsage:   "N [M]",
		Description: "With one number it compares that try with the file as it is now.\n\n   cold log diff 3 5\n   cold log diff 3",
		Action: func(ctx context.Context, c *cli.Command) error {
			if err := atMost(c, 2); err != nil {
				return err
			}
			first, err := numbered(c, 0)
			if err != nil {
				return err
			}
			second := 0
			if c.Args().Len() == 2 {
				if second, err = numbered(c, 1); err != nil {
					return err
				}
			}
			return a.read(func(h *history.History, p history.Problem) error { return a.logDiff(ctx, h, p, first, second) })
		},
	}
}

// logDiff compares the sources of two tries; the second is 0 for the file as it is now.
func (a *app) logDiff(ctx context.Context, h *history.History, p history.Problem, first, second int) error {
	one, err := attempt(ctx, h, p, first, true)
	if err != nil {
		return err
	}
	other, name := history.Attempt{File: one.File}, one.File+", now"
	if second > 0 {
		if other, err = attempt(ctx, h, p, second, true); err != nil {
			return err
		}
		name = other.File + ", try " + strconv.Itoa(second)
	} else if other.Source, err = os.ReadFile(a.path(one.File)); err != nil {
		return usageError("%s cannot be read, and there is nothing else to compare try %d with: %v", one.File, first, err)
	}
	text := udiff.Unified(one.File+", try "+strconv.Itoa(first), name, string(one.Source), string(other.Source))
	if text == "" {
		a.screen.Print("the source is the same")
		return nil
	}
	a.screen.Diff(text)
	return nil
}

func (a *app) logRestoreCommand() *cli.Command {
	var to string
	var yes bool
	return &cli.Command{
		Name:      "restore",
		Usage:     "bring back the source as it was at a try",
		ArgsUsage: "N",
		Description: "Asks before it takes the place of a file that differs, and keeps the text of that in the log first.\n\n" +
			"   cold log restore 3\n   cold log restore 3 --to old.cpp",
		Flags: []cli.Flag{
			&cli.StringFlag{Name: "to", Usage: "write it to `FILE`", DefaultText: "the file that was tried", Destination: &to, TakesFile: true},
			yesFlag(&yes),
		},
		Action: func(ctx context.Context, c *cli.Command) error {
			return a.ofTry(ctx, c, true, func(h *history.History, p history.Problem, one history.Attempt) error {
				return a.restore(ctx, h, p, one, cmp.Or(to, one.File), yes)
			})
		},
	}
}

// restore writes the source of a try to a file. What stood there is a try of its own first, so that nothing is lost.
func (a *app) restore(ctx context.Context, h *history.History, p history.Problem, one history.Attempt, to string, yes bool) error {
	path := a.path(to)
	there, err := os.ReadFile(path)
	switch {
	case errors.Is(err, fs.ErrNotExist):
	case err != nil:
		return usageError("%v", err)
	case bytes.Equal(there, one.Source):
		a.screen.Print("%s is as it was at try %d", term.Visible(to), one.Number)
		return nil
	case len(there) > history.MostSource:
		return usageError("%s is larger than %s, so that the log cannot keep it; name another file with --to", to, term.Size(history.MostSource))
	default:
		if err := a.confirm(yes, "replace %s, which is different now?", term.Visible(to)); err != nil {
			return err
		}
		kept := []history.Attempt{{At: time.Now(), Command: history.Kept, File: to, Source: there, Message: "as it was before try " + strconv.Itoa(one.Number) + " was restored"}}
		if err := h.Record(ctx, p, kept); err != nil {
			return err
		}
		a.screen.Print("kept what stood there as number %d", kept[0].Number)
	}
	if err := problem.WriteWhole(path, one.Source, 0o644); err != nil {
		return usageError("%v", err)
	}
	a.screen.Print("%s is as it was at try %d", term.Visible(to), one.Number)
	return nil
}

func (a *app) logForgetCommand() *cli.Command {
	var every, yes bool
	return &cli.Command{
		Name:        "forget",
		Usage:       "delete what was kept of this problem, or of all",
		Description: "Asks first. What is deleted cannot be brought back.\n\n   cold log forget\n   cold log forget --everything",
		Flags:       []cli.Flag{&cli.BoolFlag{Name: "everything", Usage: "delete what was kept of all problems", Destination: &every}, yesFlag(&yes)},
		Action: func(ctx context.Context, c *cli.Command) error {
			if err := atMost(c, 0); err != nil {
				return err
			}
			return a.read(func(h *history.History, p history.Problem) error {
				which, words := []history.Problem{p}, p.Name
				if every {
					which, words = nil, "every problem"
				} else if _, err := h.Overview(ctx, p); err != nil {
					return err
				}
				if err := a.confirm(yes, "delete all that the log has of %s?", term.Visible(words)); err != nil {
					return err
				}
				n, err := h.Forget(ctx, which...)
				if err == nil {
					a.screen.Print("deleted %s", term.Count(n, "try"))
				}
				return err
			})
		},
	}
}
