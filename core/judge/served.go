package judge

import (
	"bytes"
	"context"
	"errors"
	"fmt"
	"io"
	"os"
	"time"

	"coldverdict/core/box"
	"coldverdict/core/problem"
	"coldverdict/core/verdict"
)

// A servedExecutor has many cases of a program answered by one process, which forks for each when the
// runtime has started and the source is loaded. It serves who seeks answers: what it says of times and memory is
// not what a run takes, and every case that does not pass is run as usual.
type servedExecutor struct {
	run          *solutionRun
	usual        executor
	untilFailure bool // what comes behind the first case that does not pass is skipped
}

// Serve makes ready what serves solutions, for Request.Served, which others may use meanwhile. The error is the
// context's, or says what failed on our side.
func (p *Prepared) Serve(ctx context.Context) error {
	w := p.judge.builder()
	for i := range p.plans {
		if !p.CanServe(i) {
			continue
		}
		server, err := p.judge.kit.Server(ctx, w, p.plans[i].Build)
		if err != nil {
			return errors.Join(err, w.close())
		}
		p.servers[i].Store(server)
	}
	return w.close()
}

// CanServe reports that a solution may be served when Serve has been called.
func (p *Prepared) CanServe(solution int) bool {
	of, plan := p.judge.problem, &p.plans[solution]
	return plan.Build != nil && of.Kind().Text && of.Files == (problem.Files{}) && plan.Build.Language.CanServe()
}

// Serves reports that a solution is served, and has not behaved otherwise there so far.
func (p *Prepared) Serves(solution int) bool {
	return p.servers[solution].Load() != nil && !p.Unserved(solution)
}

// Unserved reports that a solution behaved otherwise where it was served than in a run of its own.
func (p *Prepared) Unserved(solution int) bool { return p.otherwise[solution].Load() >= mostOtherwise }

// mostOtherwise is how often a solution may pass in a run of its own what it did not pass where it was served: once
// may be for want of time on a busy machine.
const mostOtherwise = 2

// Unserve has a solution run as usual from now on, since it behaved otherwise where it was served.
func (p *Prepared) Unserve(solution int) { p.otherwise[solution].Store(mostOtherwise) }

func (x *servedExecutor) batches() [][]int {
	all := make([]int, len(x.run.plan.Cases))
	for i := range all {
		all[i] = i
	}
	return [][]int{all}
}

func (x *servedExecutor) beside() int { return 1 }

func (x *servedExecutor) diagnose(ctx context.Context, w *worker, position int) ([]string, error) {
	return x.usual.diagnose(ctx, w, position)
}

func (x *servedExecutor) reached(ctx context.Context, w *worker, position int, o *verdict.Outcome) error {
	return x.usual.reached(ctx, w, position, o)
}

func (x *servedExecutor) attempts(ctx context.Context, w *worker, positions []int, each func(attempt)) error {
	for rest := positions; len(rest) > 0; {
		if len(positions) == 1 || x.run.prepared.Unserved(x.run.solution) {
			return x.usual.attempts(ctx, w, rest, each)
		}
		done, err := x.serve(ctx, w, rest, each)
		if err != nil {
			return err
		}
		if rest = rest[done:]; len(rest) == 0 {
			return nil
		}
		passes := false
		err = x.usual.attempts(ctx, w, rest[:1], func(a attempt) {
			passes = a.outcome.Verdict.Passing()
			each(a)
		})
		if err != nil {
			return err
		}
		rest = rest[1:]
		if passes {
			x.run.prepared.otherwise[x.run.solution].Add(1)
		} else if x.untilFailure {
			for _, position := range rest {
				each(attempt{position: position, outcome: verdict.Outcome{Verdict: verdict.Skipped}})
			}
			return nil
		}
	}
	return nil
}

// serve answers cases until one does not pass, tells those before it, and returns how many they are.
func (x *servedExecutor) serve(ctx context.Context, w *worker, positions []int, each func(attempt)) (done int, err error) {
	limits := x.run.limits(positions[0])
	program := x.run.prepared.servers[x.run.solution].Load().Program(limits, x.run.plan.Solution.Args)
	input, err := x.requests(positions, limits)
	if err != nil {
		return 0, nil // a run of its own will say so
	}
	defer input.Close()
	stop, end := context.WithCancel(context.Background())
	defer end()
	r := &replies{waiting: time.AfterFunc(loadTime+servedWall(limits), end), patience: loadTime + servedWall(limits), end: end}
	r.each = func(one reply, out, errs []byte) bool {
		if done == len(positions) || one.status != 0 {
			return false
		}
		o, err := x.outcome(ctx, w, positions[done], one, out, errs)
		if err != nil || !o.Verdict.Passing() {
			return false
		}
		each(attempt{position: positions[done], outcome: o})
		done++
		return true
	}
	held := limits
	held.Time, held.Wall, held.Output = 0, 0, 0 // of each run, by the server
	held.Memory += servedMemory
	_, err = w.Run(ctx, box.Run{Program: program, Limits: held, Input: input, Output: r, Stop: stop})
	r.waiting.Stop()
	switch {
	case ctx.Err() != nil:
		return done, ctx.Err()
	case errors.Is(err, box.ErrLost):
		return done, err
	}
	return done, nil
}

// servedMemory is what a server may take beside the run that it waits for, in bytes.
const servedMemory = 128 << 20

// servedWall is how long one run may last.
func servedWall(l verdict.Limits) time.Duration { return min(l.Wall, 2*l.Time+time.Second) }

// requests is what a server reads.
func (x *servedExecutor) requests(positions []int, l verdict.Limits) (*os.File, error) {
	var all bytes.Buffer
	fmt.Fprintf(&all, "%d %d %d\n", servedWall(l).Milliseconds(), int(l.Time/time.Second)+1, l.Output)
	for _, position := range positions {
		file, err := openInput(x.run.test(position).Input)
		if err != nil {
			return nil, err
		}
		text, err := io.ReadAll(file)
		file.Close()
		if err != nil {
			return nil, err
		}
		fmt.Fprintf(&all, "%d\n", len(text))
		all.Write(text)
	}
	return box.Memory(all.Bytes())
}

// outcome is that of a case whose run has ended well.
func (x *servedExecutor) outcome(ctx context.Context, w *worker, position int, from reply, out, errs []byte) (o verdict.Outcome, err error) {
	r := x.run.caseRun(w, position)
	s, err := r.sinks()
	if err != nil {
		return o, err
	}
	defer s.close()
	if _, err := io.MultiWriter(s.all...).Write(out); err != nil {
		return o, err
	}
	head := &box.Head{Most: KeptText}
	head.Write(errs)
	input, err := openInput(r.test.Input)
	if err != nil {
		return o, err
	}
	defer input.Close()
	o, err = r.ended(ctx, box.Result{Ending: box.Exited, Usage: verdict.Usage{CPU: from.cpu, Wall: from.cpu, Memory: from.memory}}, s, head, input)
	return r.kept(o), err
}

// A reply is what a server says of a run.
type reply struct {
	status          int // a signal is negative
	cpu             time.Duration
	memory          int64 // bytes; 0: it is not known
	printed, errors int   // bytes that follow
}

// replies reads what a server answers, and hands on each reply.
type replies struct {
	each     func(one reply, out, errs []byte) bool // false: no more is wanted
	waiting  *time.Timer                            // ends the server where it does not go on
	patience time.Duration
	end      func()
	text     []byte // not read yet
	over     bool
}

func (r *replies) Write(p []byte) (int, error) {
	if !r.over {
		r.text = append(r.text, p...)
	}
	for !r.over {
		one, out, errs, ok := r.next()
		if !ok {
			break
		}
		if r.over = r.over || !r.each(one, out, errs); !r.over {
			r.waiting.Reset(r.patience)
		}
	}
	if r.over {
		r.text = nil
		r.end()
	}
	return len(p), nil
}

// next takes the next reply that is there as a whole. What is none ends the reading.
func (r *replies) next() (one reply, out, errs []byte, ok bool) {
	head, rest, ok := bytes.Cut(r.text, []byte{'\n'})
	if !ok {
		return one, nil, nil, false
	}
	var micros, kib int64
	if n, _ := fmt.Sscan(string(head), &one.status, &micros, &kib, &one.printed, &one.errors); n != 5 || one.printed < 0 || one.errors < 0 {
		r.over = true
		return one, nil, nil, false
	}
	if len(rest) < one.printed || len(rest)-one.printed < one.errors {
		return one, nil, nil, false
	}
	one.cpu, one.memory = time.Duration(micros)*time.Microsecond, kib<<10
	r.text = rest[one.printed+one.errors:]
	return one, rest[:one.printed], rest[one.printed:][:one.errors], true
}
