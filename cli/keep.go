package cli

import (
	"context"
	"errors"
	"slices"
	"strings"
	"time"

	"github.com/urfave/cli/v3"

	"coldverdict/core/judge"
	"coldverdict/core/problem"
	"coldverdict/core/verdict"
	view "coldverdict/term"
)

// namedCase loads the problem and returns the one case that the arguments
// begin with.
func (a *app) namedCase(c *cli.Command) (*problem.Problem, problem.Case, error) {
	if !c.Args().Present() {
		return nil, problem.Case{}, usageError("name a case, such as samples/1; 'cold case list' lists them")
	}
	p, err := a.load()
	if err != nil {
		return nil, problem.Case{}, err
	}
	one, err := p.FindCase(c.Args().First())
	return p, one, err
}

// openCase is namedCase for a command that shows or changes what a case holds.
func (a *app) openCase(c *cli.Command) (*problem.Problem, problem.Case, error) {
	p, one, err := a.namedCase(c)
	if err == nil {
		err = one.Open()
	}
	return p, one, err
}

// atMost reports arguments beyond those that a command has.
func atMost(c *cli.Command, n int) error {
	if c.Args().Len() > n {
		return usageError("%q is one too many; put words that belong together in quotes", c.Args().Get(n))
	}
	return nil
}

func yesFlag(into *bool) cli.Flag {
	return &cli.BoolFlag{Name: "yes", Usage: "answer every question with yes", Destination: into}
}

func (a *app) caseRenameCommand() *cli.Command {
	return &cli.Command{
		Name:        "rename",
		Usage:       "give a case another name within its group",
		ArgsUsage:   "NAME NEW",
		Description: "Changes the heading in cases.md, or the names of the case's files, and nothing else.\n\n   cold case rename samples/1 equal-crates",
		Action: func(_ context.Context, c *cli.Command) error {
			if c.Args().Len() != 2 {
				return usageError("name the case and its new name: cold case rename samples/1 equal-crates")
			}
			p, one, err := a.namedCase(c)
			if err != nil {
				return err
			}
			if err := p.Rename(one, c.Args().Get(1)); err != nil {
				return err
			}
			a.screen.Print("renamed %s", view.Visible(one.Name))
			return nil
		},
	}
}

func (a *app) caseDropCommand() *cli.Command {
	var yes, undo bool
	return &cli.Command{
		Name:        "drop",
		Usage:       "take a case out; --undo brings the last one back",
		ArgsUsage:   "[NAME]",
		Description: "Asks, and keeps what it took out until the next case is dropped.\n\n   cold case drop samples/3\n   cold case drop --undo",
		Flags: []cli.Flag{
			yesFlag(&yes),
			&cli.BoolFlag{Name: "undo", Usage: "bring back the case that was dropped last", Destination: &undo},
		},
		Action: func(_ context.Context, c *cli.Command) error {
			if undo {
				if err := atMost(c, 0); err != nil {
					return err
				}
				return a.undrop()
			}
			if err := atMost(c, 1); err != nil {
				return err
			}
			p, one, err := a.namedCase(c)
			if err != nil {
				return err
			}
			if !yes {
				a.screen.Case(p, one)
				a.screen.Print("")
			}
			if err := a.confirm(yes, "drop %s?", view.Visible(one.Name)); err != nil {
				return err
			}
			if err := p.Drop(one); err != nil {
				return err
			}
			a.screen.Print("dropped %s; 'cold case drop --undo' brings it back", view.Visible(one.Name))
			return nil
		},
	}
}

func (a *app) undrop() error {
	p, err := a.load()
	var mistakes problem.Mistakes
	if errors.As(err, &mistakes) { // a drop that was killed may have left them
		p, err = problem.Unread(a.dir)
	}
	if err != nil {
		return err
	}
	name, err := p.Undrop()
	if err == nil {
		a.screen.Print("brought back %s", view.Visible(name))
	}
	return err
}

// answerFlags are what cold case keep and refuse have in common.
type answerFlags struct {
	run                      runFlags
	solution, answer, sought string
	given                    bool // answer was
	yes                      bool
}

// choice says which solution is to answer.
func (f answerFlags) choice(from string) choice {
	ch := choice{from: from, lang: f.run.lang}
	if f.solution != "" {
		ch.names = []string{f.solution}
	}
	return ch
}

func (a *app) caseKeepCommand() *cli.Command {
	var f answerFlags
	return &cli.Command{
		Name:      "keep",
		Usage:     "make what the candidate prints the expected output",
		ArgsUsage: "NAME",
		Description: "Runs the candidate, shows what it printed and asks; a run that was not clean is never kept.\n" +
			"The case shows as kept from then on, since it proves no more than the program that made it.\n" +
			"With --answer nothing is run: the answer was confirmed elsewhere, and is like any expected output.\n" +
			"The same answer confirms one that was kept from a run.\n\n" +
			"   cold case keep longest/logbook\n" +
			"   cold case keep longest/logbook --answer 2566",
		Flags: []cli.Flag{
			&cli.StringFlag{Name: "answer", Usage: "keep `TEXT`, which was confirmed elsewhere, without running anything", Destination: &f.answer},
			solutionFlag(&f.solution), f.run.langFlag("take the solution for `NAME`, such as cpp17"), yesFlag(&f.yes),
		},
		Action: func(ctx context.Context, c *cli.Command) error {
			f.given = c.IsSet("answer")
			return a.caseKeep(ctx, c, f)
		},
	}
}

func solutionFlag(into *string) cli.Flag {
	return &cli.StringFlag{Name: "solution", Usage: "run `FILE`, not the candidate edited last", Destination: into, TakesFile: true}
}

func (a *app) caseKeep(ctx context.Context, c *cli.Command, f answerFlags) error {
	if c.Args().Len() == 2 && !f.given {
		return usageError("an answer is given by an option: cold case keep %s --answer %q", c.Args().Get(0), c.Args().Get(1))
	}
	if err := atMost(c, 1); err != nil {
		return err
	}
	p, one, err := a.openCase(c)
	if err != nil {
		return err
	}
	if f.given {
		return a.confirmAnswer(p, one, f)
	}
	if len(one.Accepted) > 0 {
		return usageError("the answer of %s is known already; 'cold case edit %s' changes it", one.Name, one.Name)
	}
	printed, err := a.answer(ctx, p, one, f)
	if err != nil {
		return err
	}
	if printed.outcome.Verdict != verdict.Unjudged {
		return usageError("%s is not kept: %s", one.Name, printed.words())
	}
	a.screen.Print("%s printed for %s, in %s:", view.Visible(printed.source), view.Visible(one.Name), view.Duration(printed.outcome.Usage.CPU))
	a.screen.Answer(printed.text)
	if err := a.confirm(f.yes, "keep this as the expected output?"); err != nil {
		return err
	}
	where, err := p.Keep(one, printed.text, printed.source, time.Now())
	if err != nil {
		return err
	}
	a.screen.Print("kept in %s", view.Visible(where))
	return nil
}

// confirmAnswer keeps an answer that was confirmed elsewhere.
func (a *app) confirmAnswer(p *problem.Problem, one problem.Case, f answerFlags) error {
	switch {
	case f.solution != "" || f.run.lang != "":
		return usageError("--answer runs nothing; leave out --solution and --lang")
	case strings.TrimSpace(f.answer) == "":
		return usageError("--answer is empty; give the answer that was confirmed")
	case p.Kind().Talks:
		return usageError("a case of an interactive problem has no answer to keep: the interactor judges")
	}
	where, err := p.Confirm(one, []byte(f.answer+"\n"), time.Now().Format(time.DateOnly))
	if err != nil {
		return err
	}
	a.screen.Print("confirmed in %s", view.Visible(where))
	return nil
}

func (a *app) caseRefuseCommand() *cli.Command {
	var f answerFlags
	return &cli.Command{
		Name:      "refuse",
		Usage:     "note that an answer is known to be wrong",
		ArgsUsage: "NAME",
		Description: "Notes what the candidate prints, or --answer, as wrong: a later run that prints it again\n" +
			"is told so at once. With --sought larger, so is one that prints a number that is not\n" +
			"larger than this one; --sought smaller likewise.\n\n" +
			"   cold case refuse longest/logbook --sought larger",
		Flags: []cli.Flag{
			&cli.StringFlag{Name: "answer", Usage: "refuse `TEXT`, without running anything", Destination: &f.answer},
			&cli.StringFlag{Name: "sought", Usage: "the answer that is sought is `larger or smaller` than this one", Destination: &f.sought},
			solutionFlag(&f.solution), f.run.langFlag("take the solution for `NAME`, such as cpp17"), yesFlag(&f.yes),
		},
		Action: func(ctx context.Context, c *cli.Command) error { return a.caseRefuse(ctx, c, f) },
	}
}

func (a *app) caseRefuse(ctx context.Context, c *cli.Command, f answerFlags) error {
	if c.Args().Len() == 2 && f.answer == "" {
		return usageError("an answer is given by an option: cold case refuse %s --answer %q", c.Args().Get(0), c.Args().Get(1))
	}
	if err := atMost(c, 1); err != nil {
		return err
	}
	sought := map[string]string{"": "", "larger": problem.SoughtLarger, "smaller": problem.SoughtSmaller}
	if _, ok := sought[f.sought]; !ok {
		return usageError("--sought is %q; it can be larger or smaller", f.sought)
	}
	p, one, err := a.openCase(c)
	if err != nil {
		return err
	}
	text := []byte(f.answer + "\n")
	if f.answer == "" {
		printed, err := a.answer(ctx, p, one, f)
		if err != nil {
			return err
		}
		if !printed.outcome.Ran || printed.outcome.ExitCode != 0 || printed.outcome.Signal != "" {
			return usageError("there is no answer to refuse: %s; --answer gives one", printed.words())
		}
		text = printed.text
		a.screen.Print("%s printed for %s:", view.Visible(printed.source), view.Visible(one.Name))
		a.screen.Answer(text)
		if err := a.confirm(f.yes, "note this answer as wrong?"); err != nil {
			return err
		}
	}
	where, err := p.Refuse(one, text, sought[f.sought])
	if err != nil {
		return err
	}
	a.screen.Print("refused in %s", view.Visible(where))
	return nil
}

// A printed is what a solution printed for a case.
type printed struct {
	source  string // the solution with its arguments
	text    []byte
	outcome verdict.Outcome
	ended   judge.Ended
}

// words say how a run ended that was not clean.
func (p printed) words() string {
	words := p.source + " got " + p.outcome.Verdict.String()
	message := p.outcome.Message
	if !p.outcome.Ran && p.outcome.Message == "" {
		words, message = p.source+" got "+p.ended.Verdict.String(), p.ended.Message
	}
	if message != "" {
		words += " (" + message + ")"
	}
	return words
}

// answer runs a solution on one case and returns what it printed.
func (a *app) answer(ctx context.Context, p *problem.Problem, one problem.Case, f answerFlags) (printed, error) {
	if p.Kind().Talks {
		return printed{}, usageError("a case of an interactive problem has no answer to keep or to refuse: the interactor judges")
	}
	solution, err := f.choice(a.dir).forCase(p, one, a.languages)
	if err != nil {
		return printed{}, err
	}
	made := printed{source: strings.Join(append([]string{solution.File}, solution.Args...), " ")}
	at := slices.IndexFunc(p.Cases, func(c problem.Case) bool { return c.Name == one.Name })
	how := judging{env: judge.Env{Languages: a.languages}, build: judge.BuildOptions{MissingIsFault: true}, run: judge.RunOptions{Only: []int{at}, KeepAll: true}}
	tell := func(event judge.Event) {
		switch e := event.(type) {
		case judge.Building:
			a.screen.Progress("building …")
		case judge.Running:
			a.screen.Progress("running %s on %s", view.Visible(solution.File), view.Visible(one.Name))
		case judge.Ended:
			made.ended = e
		}
	}
	err = how.prepared(ctx, p, []problem.Solution{solution}, tell, func(prepared *judge.Prepared) error {
		for said, err := range prepared.Output(ctx, 0, p.Cases, how.run, tell) {
			if err != nil {
				return err
			}
			made.text, made.outcome = said.Text, said.Outcome
		}
		return nil
	})
	return made, err
}
