package cli

import (
	"context"
	"errors"
	"fmt"
	"time"

	"github.com/urfave/cli/v3"

	"coldverdict/core/cross"
	"coldverdict/core/growth"
	"coldverdict/core/judge"
	"coldverdict/core/problem"
	"coldverdict/core/shape"
	"coldverdict/core/verdict"
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
