package judge

import (
	"context"
	"errors"
	"fmt"
	"io"
	"slices"
	"sync"

	"coldverdict/core/box"
	"coldverdict/core/problem"
	"coldverdict/core/verdict"
)

// A Sitting keeps solutions built and workers open, so that they can be run on inputs
// that come one after the other. It must be closed.
type Sitting struct {
	session  *session
	plans    []Plan
	diagnose []sync.Once // by solution

	mu       sync.Mutex
	programs map[programKey]box.Program
}

// A programKey is what a program depends on.
type programKey struct {
	solution int
	limits   verdict.Limits
}

// program returns how a solution is run under limits.
func (s *Sitting) program(solution int, plan *Plan) box.Program {
	s.mu.Lock()
	defer s.mu.Unlock()
	key := programKey{solution, plan.Limits}
	p, ok := s.programs[key]
	if !ok {
		p = plan.Build.Program(plan.Limits, plan.Solution.Args)
		s.programs[key] = p
	}
	return p
}

// An UnableError says why a solution cannot be run at all.
type UnableError struct {
	Solution problem.Solution
	Ended           // Verdict is compile error, skipped or fault
	Log      string // of the compiler
}

func (e *UnableError) Error() string {
	return fmt.Sprintf("%s: %s: %s", e.Solution.File, e.Verdict, e.Message)
}

// Sit builds solutions and opens workers. Of the options, Cases, First, UntilFailure,
// Repeat and Output mean nothing here. It tells Building and Held. The error is the
// context's, an *UnableError, or says what failed on our side.
func Sit(ctx context.Context, p *problem.Problem, solutions []problem.Solution, o Options, tell func(Event)) (s *Sitting, err error) {
	o.Cases, o.First, o.UntilFailure, o.Repeat, o.Output = nil, nil, false, 1, nil
	seated := *p
	seated.Cases = []problem.Case{{Compare: p.Compare}} // of what is to come
	inner, err := begin(&seated, o, tell)
	if err != nil {
		return nil, err
	}
	s = &Sitting{session: inner, diagnose: make([]sync.Once, len(solutions)), programs: map[programKey]box.Program{}}
	defer func() {
		if err != nil {
			err = errors.Join(err, s.Close())
			s = nil
		}
	}()
	every := slices.Clone(solutions)
	for i := range every {
		every[i].Groups = nil // what is made belongs to no group
	}
	var faults []error
	if s.plans, faults, err = inner.buildAll(ctx, every); err != nil {
		return s, err
	}
	if err := errors.Join(ctx.Err(), inner.readyArbiters(ctx, []int{0})); err != nil {
		return s, err
	}
	for i, plan := range s.plans {
		if unable := inner.unable(i, plan, faults[i]); unable != nil {
			wrong := &UnableError{Solution: solutions[i], Ended: *unable}
			if plan.Build != nil {
				wrong.Log = plan.Build.Log
			}
			return s, wrong
		}
	}
	inner.crowded = inner.options.Jobs > 1
	return s, inner.hold(s.plans)
}

// Close leaves nothing behind.
func (s *Sitting) Close() error { return s.session.end() }

// Workers is how many runs there can be beside each other.
func (s *Sitting) Workers() int { return len(s.session.workers) }

// Plan returns what is known of a solution.
func (s *Sitting) Plan(solution int) Plan { return s.plans[solution] }

// A Request is what a Sitting is to run.
type Request struct {
	Solution int // its index
	// Cases are the inputs, with the outputs that are accepted: in a function problem
	// calls, of which one process makes as many as it can, one after the other;
	// otherwise each is one run.
	Cases []problem.Case
	// Limits are set above those of the plan; zero fields are not set.
	Limits verdict.Limits
	// Once makes calls that fail in company not again alone: whether they are right
	// then is not told.
	Once bool
	// Lone says that nothing runs beside it, so that its times need no second look.
	Lone bool
	// Output returns where all goes that is printed or returned for a case; nil:
	// nowhere.
	Output func(i int) io.Writer
}

// Judge runs a solution and returns an outcome for each case. A worker, counted from
// 0, serves one call at a time. The error is the context's, an *UnableError, or says
// what failed on our side.
func (s *Sitting) Judge(ctx context.Context, worker int, q Request) ([]verdict.Outcome, error) {
	one := *s.session
	if one.options.Output = nil; q.Output != nil {
		one.options.Output = func(_, i int) io.Writer { return q.Output(i) }
	}
	one.once, one.crowded = q.Once, one.crowded && !q.Lone
	plan := s.plans[q.Solution]
	plan.Limits = above(plan.Limits, q.Limits)
	if one.problem.Call != nil {
		return one.judgeCalls(ctx, worker, q, plan)
	}
	outcomes := make([]verdict.Outcome, len(q.Cases))
	program := s.program(q.Solution, &plan)
	for i := range q.Cases {
		run := &caseRun{
			session: &one, solution: q.Solution, index: i, worker: s.session.workers[worker], plan: &plan, limits: plan.Limits, program: program,
			crowded: one.crowded, test: &q.Cases[i], diagnose: &s.diagnose[q.Solution],
		}
		var err error
		if outcomes[i], err = run.sure(ctx); err != nil {
			return nil, err
		}
	}
	return outcomes, nil
}

// above sets limits above others.
func above(limits, set verdict.Limits) verdict.Limits {
	l, _ := problem.Limits{General: limits}.For(nil, set)
	return l
}

// judgeCalls makes calls in one process.
func (s *session) judgeCalls(ctx context.Context, number int, q Request, plan Plan) ([]verdict.Outcome, error) {
	calls := *s.problem
	calls.Cases = q.Cases
	s.problem, s.workers = &calls, []*worker{s.workers[number]}
	outcomes := make([]verdict.Outcome, len(q.Cases))
	s.tell = func(event Event) {
		if c, ok := event.(Case); ok {
			outcomes[c.Index] = c.Outcome
		}
	}
	plan.Cases, plan.Groups = make([]int, len(q.Cases)), nil
	for i := range plan.Cases {
		plan.Cases[i] = i
	}
	_, refused, err := s.runCalls(ctx, q.Solution, plan)
	if err == nil && refused != "" {
		err = &UnableError{Solution: plan.Solution, Ended: Ended{Solution: q.Solution, Verdict: verdict.CompileError, Message: refused}}
	}
	return outcomes, err
}
