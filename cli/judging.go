package cli

import (
	"context"
	"errors"

	"coldverdict/core/judge"
	"coldverdict/core/problem"
)

// A judging says how a command judges: where, how solutions are built, and how cases are run.
type judging struct {
	env   judge.Env
	build judge.BuildOptions
	run   judge.RunOptions
}

// all judges all cases of a problem, as far as the options select them, with each solution.
func (j judging) all(ctx context.Context, p *problem.Problem, solutions []problem.Solution, tell func(judge.Event)) error {
	return j.prepared(ctx, p, solutions, tell, func(prepared *judge.Prepared) error {
		_, err := prepared.Run(ctx, p.Cases, j.run, tell)
		return err
	})
}

// prepared builds solutions, and serves use with them.
func (j judging) prepared(ctx context.Context, p *problem.Problem, solutions []problem.Solution, tell func(judge.Event), use func(*judge.Prepared) error) (err error) {
	prepared, closing, err := judge.OpenPrepared(ctx, p, j.env, solutions, j.build, tell)
	if err != nil {
		return err
	}
	defer func() { err = errors.Join(err, closing()) }()
	return use(prepared)
}
