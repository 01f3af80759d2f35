package cross

import (
	"bytes"
	"context"
	"errors"
	"io"
	"slices"
	"sync"
	"time"

	"coldverdict/core/box"
	"coldverdict/core/judge"
	"coldverdict/core/problem"
	"coldverdict/core/verdict"
)

// A search is one call of Run.
type search struct {
	problem   *problem.Problem
	options   Options
	tell      func(Event)
	closing   func() error // of the judge; nil: there is none
	serving   func() error // ends what makes servers ready; nil: nothing does
	prepared  *judge.Prepared
	source    *source
	schedule  *schedule
	base      Base
	workers   int // rounds beside each other
	reference int // its index among the solutions of prepared; -1: none answers
	began     time.Time
	seen      *seen
	tracers   []*tracer // of candidates; nil: there is none

	mu                   sync.Mutex // guards what follows
	result               Result
	servedPeaks          []time.Duration // by candidate, the longest that an input took where it was served
	opened               sync.Cond
	open                 []bool // candidates that are still looked at
	left                 int    // of them
	over                 bool
	slowest              int64 // bytes from which on the reference is too slow
	slowRuns, failedRuns int   // of the reference, in which it was too slow for an input, or failed on one
	told                 time.Time
	doing                string
}

// begin builds what is needed, traced where it shall be known which parts of candidates
// run.
func begin(ctx context.Context, p *problem.Problem, o Options, traced bool, tell func(Event)) (s *search, err error) {
	s = &search{problem: p, options: o, reference: -1, open: make([]bool, len(o.Candidates)), left: len(o.Candidates)}
	s.opened.L = &s.mu
	var telling sync.Mutex
	s.tell = func(e Event) {
		telling.Lock()
		defer telling.Unlock()
		tell(e)
	}
	for i := range s.open {
		s.open[i] = true
	}
	s.result.Slowest, s.servedPeaks = make([]Peak, len(o.Candidates)), make([]time.Duration, len(o.Candidates))
	s.base = baseOf(p, o)
	solutions := slices.Clone(o.Candidates)
	if s.base == ByReference {
		s.reference = len(solutions)
		solutions = append(solutions, *o.Reference)
	}
	s.result.Base = s.base
	opened := s
	defer func() {
		if err != nil {
			err = errors.Join(err, opened.close())
		}
	}()
	if s.source, err = openSource(ctx, p, o); err != nil {
		return nil, err
	}
	var hold box.Hold
	if s.workers = o.Env.Jobs; s.workers <= 0 {
		s.workers = judge.DefaultJobs()
	}
	tracers := s.openTracers(ctx, o, traced)
	err = s.prepare(ctx, solutions, func(e judge.Event) {
		if held, ok := e.(judge.Held); ok {
			hold = held.Hold
		}
		s.tell(e)
	})
	s.tracers = <-tracers
	if err != nil {
		return nil, err
	}
	started := Began{Base: s.base, Hold: hold}
	for i := range o.Candidates {
		started.Candidates = append(started.Candidates, s.prepared.Plan(i))
	}
	if s.reference >= 0 {
		plan := s.prepared.Plan(s.reference)
		started.Reference = &plan
	}
	if s.source.served = slices.ContainsFunc(s.solutions(), s.prepared.CanServe); s.source.served {
		s.serve(ctx)
	}
	s.schedule = newSchedule(s.source, o)
	if err = s.schedule.tryAll(ctx); err != nil {
		return nil, err
	}
	s.seen = newSeen(p, len(s.schedule.all))
	s.began = time.Now()
	s.tell(started)
	return s, nil
}

// prepare builds the solutions, the reference last, and opens sandboxes for them.
func (s *search) prepare(ctx context.Context, solutions []problem.Solution, tell func(judge.Event)) (err error) {
	env := s.options.Env
	env.Jobs = 2 * s.workers // each has one more sandbox, for the reference
	s.prepared, s.closing, err = judge.OpenStarted(ctx, s.problem, env, solutions, s.options.Build, tell)
	return err
}

// baseOf says what answers are compared with.
func baseOf(p *problem.Problem, o Options) Base {
	switch {
	case judge.JudgesAlone(p) != "":
		return ByChecker
	case o.Reference != nil:
		return ByReference
	case len(o.Candidates) > 1 && !p.Compare.Custom():
		return ByEachOther
	}
	return ByNothing
}

// solutions are the indices of all that run: the candidates and, behind them, the reference.
func (s *search) solutions() (all []int) {
	for i := range s.options.Candidates {
		all = append(all, i)
	}
	if s.reference >= 0 {
		all = append(all, s.reference)
	}
	return all
}

// serve makes servers ready, while the search begins without them.
func (s *search) serve(ctx context.Context) {
	s.source.serves = func() bool { return slices.ContainsFunc(s.solutions(), s.prepared.Serves) }
	ctx, cancel := context.WithCancel(ctx)
	ended := make(chan error, 1)
	go func() { ended <- s.prepared.Serve(ctx) }()
	s.serving = func() error {
		cancel()
		if err := <-ended; !errors.Is(err, context.Canceled) {
			return err
		}
		return nil
	}
}

func (s *search) close() (err error) {
	if s.serving != nil {
		err = s.serving()
	}
	if s.closing != nil {
		err = errors.Join(err, s.closing())
	}
	if s.source != nil {
		err = errors.Join(err, s.source.close())
	}
	for _, t := range s.tracers {
		if t != nil {
			err = errors.Join(err, t.build.Close())
		}
	}
	return err
}

// search tries inputs until nothing is left to look for.
func (s *search) search(ctx context.Context) error {
	trying, stop := context.WithCancel(ctx)
	defer stop()
	if ok, err := s.proveReference(ctx); err != nil || !ok {
		return err
	}
	if s.options.Time > 0 {
		defer time.AfterFunc(s.options.Time, stop).Stop()
	}
	defer context.AfterFunc(trying, s.end)()
	var once sync.Once
	var failed error
	fail := func(err error) {
		once.Do(func() { failed = err })
		stop()
	}
	var group sync.WaitGroup
	if s.schedule.edging {
		group.Go(func() {
			if err := s.source.edges(trying, s.schedule.haveEdge); err != nil && trying.Err() == nil {
				fail(err)
			}
			s.schedule.haveAllEdges()
		})
	}
	for w := range s.workers {
		group.Go(func() {
			for {
				p, err := s.schedule.next(trying)
				if err != nil && trying.Err() == nil {
					fail(err)
				}
				if p == nil {
					return
				}
				if err := s.round(ctx, trying, w, p); err != nil {
					if trying.Err() == nil || ctx.Err() == nil && !errors.Is(err, context.Canceled) {
						fail(err)
					}
					return
				}
				s.wait()
			}
		})
	}
	group.Wait()
	if failed == nil {
		failed = ctx.Err()
	}
	return failed
}

// The processor time that the reference is given for one run, at the least.
const (
	referenceTime      = time.Second
	referenceTimeLarge = 2 * time.Second
)

// referenceMemory is the memory that the reference is given, at the least, in bytes.
const referenceMemory = 1 << 30

// A trouble is why the reference answered nothing.
type trouble struct {
	at      int // the call
	outcome verdict.Outcome
}

func (t trouble) slow() bool {
	v := t.outcome.Verdict
	return v == verdict.TimeLimit || v == verdict.Stalled || v == verdict.MemoryLimit
}

// answers asks a solution what the outputs are. The trouble says why it does not say
// that of all; there are no answers then.
func (s *search) answers(ctx context.Context, worker, solution int, texts [][]byte, limits verdict.Limits) ([][]byte, []verdict.Outcome, *trouble, error) {
	answers, outcomes, troubles, err := s.answersToEach(ctx, worker, solution, texts, limits)
	if len(troubles) > 0 {
		return nil, outcomes, &troubles[0], err
	}
	return answers, outcomes, nil, err
}

// answersToEach are the outputs of a solution; nil where it has none, which the troubles say.
func (s *search) answersToEach(ctx context.Context, worker, solution int, texts [][]byte, limits verdict.Limits) (answers [][]byte, outcomes []verdict.Outcome, troubles []trouble, err error) {
	cases := make([]problem.Case, len(texts))
	for i, text := range texts {
		cases[i] = problem.Case{Name: callName(i), Input: dataOf(text)}
	}
	buffers := make([]bytes.Buffer, len(texts))
	outcomes, err = s.judged(ctx, worker, judge.Request{Solution: solution, Cases: cases, Limits: limits, SkipRerun: true, Unaccompanied: solution == s.reference, Output: func(i int) io.Writer {
		buffers[i].Reset()
		return &buffers[i]
	}})
	if err != nil {
		return nil, nil, nil, err
	}
	answers = make([][]byte, len(texts))
	for i, o := range outcomes {
		if o.Verdict.Passing() {
			answers[i] = append([]byte{}, buffers[i].Bytes()...) // not nil, even if it is empty
		} else {
			troubles = append(troubles, trouble{i, o})
		}
	}
	return answers, outcomes, troubles, nil
}

// ask asks the reference. The trouble says why it does not answer all; there are no answers then.
func (s *search) ask(ctx context.Context, worker int, texts [][]byte, large bool) ([][]byte, *trouble, error) {
	answers, troubles, err := s.askEach(ctx, worker, texts, large)
	if len(troubles) > 0 {
		return nil, &troubles[0], err
	}
	return answers, nil, err
}

// askEach asks the reference, which has a box of its own beside each worker's. An answer is nil where it has none,
// which the troubles say.
func (s *search) askEach(ctx context.Context, worker int, texts [][]byte, large bool) ([][]byte, []trouble, error) {
	limits := verdict.Limits{Time: referenceTime, Memory: max(referenceMemory, s.prepared.Plan(s.reference).Limits.Memory)}
	if large {
		limits.Time = referenceTimeLarge
	}
	limits.Time = max(limits.Time, s.bundling().startTime(s.prepared.Plan(s.reference).Build.Language))
	answers, _, troubles, err := s.answersToEach(ctx, worker+s.workers, s.reference, texts, limits)
	return answers, troubles, err
}

func (s *search) bundling() bundling { return s.source.bundling }

// cases are inputs with their expected outputs, as far as those are known, to be judged as the base says.
func (s *search) cases(texts, answers [][]byte) []problem.Case {
	list := make([]problem.Case, len(texts))
	for i, text := range texts {
		list[i] = problem.Case{Name: callName(i), Input: dataOf(text)}
		known := answers != nil && answers[i] != nil
		if known {
			list[i].Accepted = []problem.Data{dataOf(answers[i])}
		}
		if known || s.base == ByChecker {
			list[i].Compare = s.problem.Compare
		}
	}
	return list
}

// judgeTexts runs a solution on inputs and compares what it prints with answers; without
// them, against the checker alone, if that is the base.
func (s *search) judgeTexts(ctx context.Context, worker, solution int, texts, answers [][]byte, output func(i int) io.Writer) ([]verdict.Outcome, error) {
	return s.judged(ctx, worker, judge.Request{Solution: solution, Cases: s.cases(texts, answers), SkipRerun: true, Output: output})
}

// judged runs what is requested; several inputs by a server, where there is one. A fault is an error.
func (s *search) judged(ctx context.Context, worker int, q judge.Request) ([]verdict.Outcome, error) {
	q.Served = true
	outcomes, err := s.prepared.Judge(ctx, worker, q)
	if err != nil {
		return nil, err
	}
	for i, o := range outcomes {
		if o.Verdict == verdict.Fault {
			return nil, &FaultError{o.Message, q.Cases[i].Input.Text}
		}
	}
	return outcomes, nil
}

// firstFailure is the index of the first outcome that does not pass; -1: all do.
func firstFailure(outcomes []verdict.Outcome) int {
	return slices.IndexFunc(outcomes, func(o verdict.Outcome) bool { return !o.Verdict.Passing() })
}

// claim takes a candidate out of what is looked at, and reports that it was still in.
func (s *search) claim(candidate int) bool {
	s.mu.Lock()
	defer s.mu.Unlock()
	was := s.open[candidate]
	s.open[candidate] = false
	return was
}

// release puts a candidate back.
func (s *search) release(candidate int) {
	s.mu.Lock()
	defer s.mu.Unlock()
	s.open[candidate], s.result.LetGo = true, true
	s.opened.Broadcast()
}

// wait waits while failures of all candidates that are left are being shrunk, which
// then have the machine for themselves.
func (s *search) wait() {
	s.mu.Lock()
	defer s.mu.Unlock()
	for s.left > 0 && !s.over && !slices.Contains(s.open, true) {
		s.opened.Wait()
	}
}

// end ends the search.
func (s *search) end() {
	s.schedule.stop()
	s.mu.Lock()
	defer s.mu.Unlock()
	s.over = true
	s.opened.Broadcast()
}

// lookedAt are the candidates that are still looked at.
func (s *search) lookedAt() (list []int) {
	s.mu.Lock()
	defer s.mu.Unlock()
	for i, open := range s.open {
		if open {
			list = append(list, i)
		}
	}
	return list
}

// found tells a failure. With that of the last candidate, the search is over.
func (s *search) found(f Found) {
	s.mu.Lock()
	s.result.Found = append(s.result.Found, f)
	s.left--
	over := s.left == 0 || f.Way == Disagrees
	s.mu.Unlock()
	s.tell(f)
	if over {
		s.end()
	}
}

// progressEvery is how often progress is told at the most.
const progressEvery = 100 * time.Millisecond

// progress tells how far the search is.
func (s *search) progress() {
	s.mu.Lock()
	due := time.Since(s.told) >= progressEvery
	if due {
		s.told = time.Now()
	}
	p := Progress{Inputs: s.result.Inputs, Largest: int(s.seen.largest()), Elapsed: time.Since(s.began), Doing: s.doing}
	s.mu.Unlock()
	if due {
		s.tell(p)
	}
}

// do says what is done beside trying inputs.
func (s *search) do(words string) {
	s.mu.Lock()
	s.doing = words
	s.mu.Unlock()
	s.progress()
}
