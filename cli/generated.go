package cli

import (
	"context"
	"errors"
	"fmt"
	"math/rand/v2"
	"slices"
	"time"

	"github.com/urfave/cli/v3"

	"coldverdict/core/cross"
	"coldverdict/core/growth"
	"coldverdict/core/judge"
	"coldverdict/core/problem"
	"coldverdict/core/shape"
	"coldverdict/core/verdict"
	"coldverdict/term"
)

// What the commands have in common that run solutions for a while: cross, grow, rank and ready.

// mostSeconds bounds --seconds: a day.
const mostSeconds = 24 * 60 * 60

func parseSeconds(n float64) (time.Duration, error) {
	if !(n > 0 && n <= mostSeconds) {
		return 0, usageError("--seconds is %g; it can be more than 0, and up to %d", n, mostSeconds)
	}
	return time.Duration(n * float64(time.Second)), nil
}

// anySeed is a seed that a person can type.
func anySeed() shape.Seed { return shape.Seed(rand.Uint32N(1_000_000)) }

// parseSeed is the seed that was asked for, or another one where none was.
func parseSeed(text string, otherwise shape.Seed) (shape.Seed, error) {
	if text == "" {
		return otherwise, nil
	}
	seed, err := shape.ParseSeed(text)
	if err != nil {
		return 0, usageError("--seed: %v", err)
	}
	return seed, nil
}

// An opponent says what candidates are compared with, and in which part of a problem.
type opponent struct{ against, group string }

func (o *opponent) againstFlag(otherwise string) cli.Flag {
	return &cli.StringFlag{Name: "against", Usage: "compare answers with those of `REFERENCE`", DefaultText: otherwise, Destination: &o.against, TakesFile: true}
}

func (o *opponent) groupFlag() cli.Flag {
	return &cli.StringFlag{Name: "group", Usage: "of sources that answer several parts, take those that run the group `NAME`", Destination: &o.group}
}

// opposed chooses candidates of one part, and their reference; nil: there is none. What answers are
// compared with is no candidate, unless it is named.
func (a *app) opposed(p *problem.Problem, named []string, from string, against opponent, lang string) (list []problem.Solution, reference *problem.Solution, chosen string, err error) {
	var except []problem.Solution
	named = a.within(named, from)
	if against.against != "" && len(named) == 0 {
		if except, err = p.FindSolutions(against.against, from); err != nil {
			return nil, nil, "", err
		}
	}
	list, chosen, err = choice{names: named, from: from, lang: lang, except: except}.of(p, a.languages)
	if err != nil {
		return nil, nil, "", err
	}
	if list, err = onePart(list, against.group); err != nil {
		return nil, nil, "", err
	}
	other := choice{from: from}
	if against.against != "" {
		other.names = []string{against.against}
	}
	if reference, err = other.reference(p, list[0], a.languages); err != nil || reference == nil {
		return list, nil, chosen, err
	}
	list = slices.DeleteFunc(list, func(s problem.Solution) bool { return len(list) > 1 && p.IsSame(s, *reference) })
	if reference.ByName && against.against == "" {
		a.screen.Remark("note: %s serves as the reference, by its name", term.Visible(reference.File))
	}
	if p.IsSame(list[0], *reference) {
		return nil, nil, "", usageError("%s is the reference itself; name a candidate, or another reference with --against", list[0].File)
	}
	return list, reference, chosen, nil
}

// loadBeside reads the problem: the one in whose folder the first solution lies that is named by a
// path, where the person stands in none. from is the folder in which the person is.
func (a *app) loadBeside(c *cli.Command) (p *problem.Problem, from string, err error) {
	from = a.dir
	if c.Args().Present() {
		a.standBeside(c.Args().First())
	}
	p, err = a.load()
	return p, from, err
}

// searchError is what the command line says of what ended such a command.
func (a *app) searchError(ctx context.Context, err error) error {
	var unable *judge.UnableError
	var wrong *shape.GenerateError
	var scale *growth.ScaleError
	var fault *cross.FaultError
	switch {
	case ctx.Err() != nil:
		return err
	case errors.As(err, &unable) && unable.End.Verdict == verdict.CompileError:
		a.screen.Unbuilt(unable)
		return exit(exitRejected)
	case errors.As(err, &unable):
		return errors.New(unable.End.Message)
	case errors.As(err, &scale):
		return usageError("--scale: %v", scale)
	case errors.As(err, &wrong):
		return wrongShape(wrong)
	case errors.As(err, &fault) && len(fault.Input) > 0:
		return fmt.Errorf("%s; on the input %q", fault.Message, shorter(string(fault.Input)))
	}
	return wrongMaker(ctx, err)
}
