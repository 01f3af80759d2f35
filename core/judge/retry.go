package judge

import (
	"context"
	"fmt"
	"slices"
	"strings"
	"sync"
	"time"

	"coldverdict/core/verdict"
)

// What is run again, and what then counts, is decided here for every kind of problem:
//
//   - a run that came near a limit of time while others ran beside it is run again with the
//     machine for itself, and that run settles its times;
//   - a case is run as often as the person asks for, and the worst verdict stands;
//   - a call that fails after others in the same process is run again on its own, to tell what
//     is left over from them; where that is also what we leave, its memory is what it takes then;
//   - the first case of a solution that passes its memory limit is run once more with a small
//     stack, to tell whether its recursion was too deep;
//   - the first sequence of calls in the middle of which a process ends is run once more in part,
//     to tell in which call that was.

// An executor runs cases of one solution in one kind of problem. Cases are positions in the
// solution's plan.
type executor interface {
	// batches splits the cases into those that may share a process.
	batches() [][]int
	// beside is how many batches may run beside each other; 0: as many as there are workers.
	beside() int
	// attempts runs some cases once each and hands on what came of each, in that order. The
	// error is the context's, a *refusedError, or says what failed on our side.
	attempts(ctx context.Context, w *worker, positions []int, each func(attempt)) error
	// diagnose runs a case that passed its memory limit with a small stack, and says what its
	// runtime wrote of a recursion; nil: nothing.
	diagnose(ctx context.Context, w *worker, position int) (hints []string, err error)
	// reached adds to the outcome of a sequence of calls how far it came.
	reached(ctx context.Context, w *worker, position int, o *verdict.Outcome) error
}

// looks are what is looked at once more of each solution: the first case that passes its memory limit,
// and the first sequence of calls that is cut off.
type looks struct{ memory, sequence sync.Once }

// An attempt is what came of one case in one run.
type attempt struct {
	position int
	outcome  verdict.Outcome
	after    string // name of the case that ran before it in the same process; empty: none
	cut      bool   // it is a sequence of calls, in the middle of which its process ended
}

// A refusedError says why a solution has nothing that could be run.
type refusedError struct{ why string }

func (e *refusedError) Error() string { return e.why }

// nearTime is the share of the time limit past which a run beside others is
// not trusted.
const nearTime = 0.7

// How many calls of a batch that failed after others are run again on their own.
const (
	mostRerunWrong  = 20
	mostRerunLimits = 2
)

// mostHeld is how many cases of a batch are looked at once more: one of each kind.
const mostHeld = 2

// batch runs the cases of a batch, again where that is needed, and hands on what came of each.
// Concurrent says that other batches run beside it.
func (r *solutionRun) batch(ctx context.Context, x executor, w *worker, positions []int, concurrent bool, put func(int, verdict.Outcome)) error {
	s := &settling{run: r, executor: x, worker: w, put: put, reruns: map[int]attempt{}}
	repeats := map[int]*repeated{}
	for pass := range r.options.Repeat {
		err := r.pass(ctx, x, w, positions, concurrent, func(a attempt) {
			if r.options.Repeat > 1 {
				one, ok := repeats[a.position]
				if !ok {
					one = &repeated{}
					repeats[a.position] = one
				}
				one.add(a.outcome)
				if pass < r.options.Repeat-1 {
					return
				}
				a.outcome = one.sum()
			}
			s.take(a)
		})
		if err != nil {
			return err
		}
		if r.isOver() {
			return ctx.Err()
		}
	}
	return s.finish(ctx)
}

// pass runs each case once. One that came near its limit of time while others ran beside it is
// run again with the machine for itself.
func (r *solutionRun) pass(ctx context.Context, x executor, w *worker, positions []int, concurrent bool, each func(attempt)) error {
	lock := &r.judge.exclusive
	var near []attempt
	lock.RLock()
	err := x.attempts(ctx, w, positions, func(a attempt) {
		if concurrent && nearLimit(a.outcome, r.limits(a.position)) {
			near = append(near, a)
			return
		}
		each(a)
	})
	lock.RUnlock()
	if err != nil {
		return err
	}
	for _, first := range near {
		lock.Lock()
		err := x.attempts(ctx, w, []int{first.position}, func(own attempt) {
			first.outcome = join(first.outcome, own.outcome)
		})
		lock.Unlock()
		if err != nil {
			return err
		}
		each(first)
	}
	return nil
}

// nearLimit reports that a run came near a limit of time.
func nearLimit(o verdict.Outcome, l verdict.Limits) bool {
	past := func(used, limit time.Duration) bool { return limit > 0 && share(used, limit) > nearTime }
	return o.Ran && (past(o.Usage.CPU, l.Time) || past(o.Usage.Wall, l.Wall) && !o.Waited)
}

// join makes one outcome of a run beside others and one that had the machine for itself.
func join(first, own verdict.Outcome) verdict.Outcome {
	settled := func(v verdict.Verdict) bool { return v == verdict.TimeLimit || v == verdict.Stalled }
	if first.Verdict == own.Verdict || settled(first.Verdict) || settled(own.Verdict) {
		return own
	}
	worse := worseOf(first, own)
	worse.Usage.CPU, worse.Usage.Wall = own.Usage.CPU, own.Usage.Wall
	worse.Unsteady = true
	worse.Close = false
	return worse
}

// worseOf returns the outcome with the worse verdict; the first of equal ones.
func worseOf(a, b verdict.Outcome) verdict.Outcome {
	if verdict.Worse(a.Verdict, b.Verdict) == a.Verdict {
		return a
	}
	return b
}

// A repeated adds up the runs of a case that is run several times.
type repeated struct {
	outcome verdict.Outcome // the worst, with the largest memory and elapsed time
	times   []time.Duration
	broken  bool // a run did not happen, and its outcome stands
}

func (r *repeated) add(o verdict.Outcome) {
	switch {
	case r.broken:
	case !o.Ran:
		r.outcome, r.broken = o, true
	case len(r.times) == 0:
		r.outcome, r.times = o, []time.Duration{o.Usage.CPU}
	default:
		worse := worseOf(r.outcome, o)
		worse.Unsteady = r.outcome.Unsteady || o.Unsteady || r.outcome.Verdict != o.Verdict
		worse.Usage.Memory = max(r.outcome.Usage.Memory, o.Usage.Memory)
		worse.Usage.Wall = max(r.outcome.Usage.Wall, o.Usage.Wall)
		r.outcome, r.times = worse, append(r.times, o.Usage.CPU)
	}
}

// sum is the outcome of all runs: with the spread of their times, of which the median is its
// own.
func (r *repeated) sum() verdict.Outcome {
	o := r.outcome
	if r.broken {
		return o
	}
	times := slices.Sorted(slices.Values(r.times))
	o.Spread = &verdict.Spread{Runs: len(times), Least: times[0], Median: times[len(times)/2], Most: times[len(times)-1]}
	o.Usage.CPU = o.Spread.Median
	return o
}

// A settling hands on the outcomes of a batch, but for those that need one more run, which
// finish makes.
type settling struct {
	run      *solutionRun
	executor executor
	worker   *worker
	put      func(int, verdict.Outcome)

	reruns        map[int]attempt // failed after others, and are run again
	order         []int           // of them
	wrong, limits int             // how many of them failed in which way
	held          []attempt       // are not run again, and are looked at once more
}

// take takes the outcome of a case.
func (s *settling) take(a attempt) {
	o := &a.outcome
	limit := o.Verdict == verdict.TimeLimit || o.Verdict == verdict.Stalled || o.Verdict == verdict.MemoryLimit
	ours := o.Verdict == verdict.MemoryLimit && a.after != "" && s.run.plan.leaves
	again := !s.run.skipRerun && a.after != "" && o.Ran && !o.Verdict.Passing() && o.Verdict != verdict.Fault
	switch {
	case ours:
	case again && limit && s.limits < mostRerunLimits:
		s.limits++
	case again && !limit && s.wrong < mostRerunWrong:
		s.wrong++
	case len(s.held) < mostHeld && s.lookedAt(a): // when the batch has ended
		s.held = append(s.held, a)
		return
	default:
		s.put(a.position, *o)
		return
	}
	s.order = append(s.order, a.position)
	s.reruns[a.position] = a
}

// finish runs again what has to be.
func (s *settling) finish(ctx context.Context) error {
	for _, a := range s.held {
		if err := s.look(ctx, a.position, a.cut, &a.outcome); err != nil {
			return err
		}
		s.put(a.position, a.outcome)
	}
	for _, position := range s.order {
		var own attempt
		if err := s.executor.attempts(ctx, s.worker, []int{position}, func(a attempt) { own = a }); err != nil {
			return err
		}
		first := s.reruns[position]
		o := afterOthers(first, own.outcome)
		if own.outcome.Ran && first.outcome.Verdict == verdict.MemoryLimit && s.run.plan.leaves {
			o = own.outcome
		}
		if err := s.look(ctx, position, own.cut, &o); err != nil {
			return err
		}
		s.put(position, o)
	}
	return nil
}

// afterOthers makes one outcome of a call that failed after others and the same call on its own.
func afterOthers(first attempt, own verdict.Outcome) verdict.Outcome {
	o := first.outcome
	switch {
	case !own.Ran, own.Verdict == o.Verdict:
		return o
	case own.Verdict.Passing():
		o.Message = fmt.Sprintf("right on its own, wrong after %s: something is left over from an earlier call; %s", first.after, o.Message)
		o.Message = strings.TrimSuffix(o.Message, "; ")
		o.Hints = append([]string{"what is kept between calls (a global, a static, a default argument, a class's own list) must be set anew in each"}, o.Hints...)
		o.Hints = o.Hints[:min(len(o.Hints), 2)]
		return o
	}
	worse := worseOf(o, own)
	worse.Unsteady = true
	return worse
}

// lookedAt reports that there may be more to say of a case than its outcome does.
func (s *settling) lookedAt(a attempt) bool {
	return a.outcome.Verdict == verdict.MemoryLimit && len(a.outcome.Hints) == 0 || a.cut && !s.run.skipRerun
}

// look looks, once for each solution, at a case that passed its memory limit, and at a sequence of calls that was
// cut off.
func (s *settling) look(ctx context.Context, position int, cut bool, o *verdict.Outcome) (err error) {
	if o.Verdict == verdict.MemoryLimit && len(o.Hints) == 0 {
		s.run.looks.memory.Do(func() {
			if o.Hints, err = s.executor.diagnose(ctx, s.worker, position); len(o.Hints) > 0 && o.Message == "" {
				o.Message = deepRecursion
			}
		})
	}
	if cut && err == nil && !s.run.skipRerun && !o.Verdict.Passing() {
		s.run.looks.sequence.Do(func() { err = s.executor.reached(ctx, s.worker, position, o) })
	}
	return err
}
