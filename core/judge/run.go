package judge

import (
	"cmp"
	"context"
	"errors"
	"fmt"
	"io"
	"maps"
	"slices"
	"sync"
	"time"

	"coldverdict/core/box"
	"coldverdict/core/problem"
	"coldverdict/core/verdict"
)

// RunOptions say how cases are run. The zero value of each field is usable.
type RunOptions struct {
	Only []int // indices of the cases to run, ascending; nil: all
	// First are indices of cases to run before the others, in that order.
	First []int
	// UntilFailure ends a solution's run with its first case that is neither
	// accepted nor unjudged.
	UntilFailure bool
	// Repeat runs each case so many times, to show how far its time varies;
	// 0 is 1.
	Repeat int
	// Apart says that the solutions have nothing to do with each other: what they answer to cases that nobody
	// can judge is not compared.
	Apart bool
	// IsolateCalls gives each call of a function problem a process of its own.
	IsolateCalls bool
	// KeepAll keeps the beginning of what a program printed for every case;
	// otherwise only for those that were not accepted.
	KeepAll bool
	// Output returns where all that a solution prints for a case goes, beside
	// the comparison; it is asked before each run of the case, and an error
	// from Write ends the writing. Nil: nowhere. The writer is used by one
	// goroutine at a time.
	Output func(solution, index int) io.Writer
}

// An Event is one of the types below.
type Event any

// Building: a source is being looked up or built.
type Building struct{ Solution int }

// Held: programs are about to run, held in this way. It is told once, before
// the first solution that runs.
type Held struct{ Hold box.Hold }

// Began: a solution is about to run its cases, or to be passed over.
type Began struct {
	Solution int
	Plan     Plan
}

// Running: so many cases of a solution have finished, told or not.
type Running struct{ Solution, Finished, Total int }

// Case: a case has its verdict.
type Case struct {
	Solution int
	Index    int // of the case
	Outcome  verdict.Outcome
}

// Ended: a solution has its verdict.
type Ended struct {
	Solution int
	Verdict  verdict.Verdict
	Message  string // why it was not run, or the first error of its compiler; empty if it was run
	Hints    []string
	Score    *verdict.Score // nil where no group is worth points, or nothing was run
}

// Run judges cases with each solution, one solution after the other, and returns how each
// ended, as Ended tells it while it happens; a later Amended counts there already. Cases are
// all of the problem's, as far as its groups and points concern them; which of them run, the
// options say. The error is the context's if that ended, or says what failed on our side.
func (p *Prepared) Run(ctx context.Context, cases []problem.Case, o RunOptions, progress func(Event)) ([]Ended, error) {
	every := make([]int, len(p.plans))
	for i := range every {
		every[i] = i
	}
	return p.run(ctx, every, cases, o, progress)
}

func (p *Prepared) run(ctx context.Context, solutions []int, cases []problem.Case, o RunOptions, progress func(Event)) ([]Ended, error) {
	o.Repeat = max(o.Repeat, 1)
	plans := slices.Clone(p.plans)
	for _, i := range solutions {
		plans[i].Cases = p.casesOf(plans[i].Solution, cases, o)
		if err := p.judge.readyCheckers(ctx, cases, plans[i].Cases); err != nil {
			return nil, err
		}
	}
	if canRun(plans) {
		if err := p.open(cases, progress); err != nil {
			return nil, err
		}
	}
	var answers *answers
	if len(solutions) > 1 && !o.Apart { // else there is nothing to compare with
		answers = newAnswers(p.judge.folder)
	}
	ended := make([]Ended, len(plans))
	tell := func(e Event) {
		switch e := e.(type) {
		case Ended:
			ended[e.Solution] = e
		case Amended:
			ended[e.Solution].Verdict, ended[e.Solution].Message = e.Verdict, e.Message
		}
		progress(e)
	}
	for _, i := range solutions {
		if err := ctx.Err(); err != nil {
			return nil, err
		}
		tell(Began{i, plans[i]})
		r := &solutionRun{
			judge: p.judge, prepared: p, options: o, solution: i, plan: &plans[i], cases: cases, answers: answers,
			looks: &looks{},
		}
		e, results, err := r.all(ctx, tell)
		if err != nil {
			return nil, err
		}
		e.Solution = i
		tell(answers.withDifferences(r, plans, e, results, tell))
	}
	return ended, nil
}

// casesOf returns the indices of the cases that a solution runs, in the order in which it does.
func (p *Prepared) casesOf(solution problem.Solution, cases []problem.Case, o RunOptions) (list []int) {
	for i, c := range cases {
		if solution.Runs(c.Group) {
			list = append(list, i)
		}
	}
	if o.Only != nil {
		list = common(list, o.Only)
	}
	return p.judge.problem.InRunOrder(cases, sooner(list, o.First))
}

// common returns what two ascending lists share.
func common(a, b []int) (shared []int) {
	for _, x := range a {
		for len(b) > 0 && b[0] < x {
			b = b[1:]
		}
		if len(b) > 0 && b[0] == x {
			shared = append(shared, x)
		}
	}
	return shared
}

// sooner returns cases with those of first before the others.
func sooner(cases, first []int) []int {
	var order []int
	for _, i := range first {
		if slices.Contains(cases, i) {
			order = append(order, i)
		}
	}
	if len(order) == 0 {
		return cases
	}
	leading := make(map[int]bool, len(order))
	for _, i := range order {
		leading[i] = true
	}
	for _, i := range cases {
		if !leading[i] {
			order = append(order, i)
		}
	}
	return order
}

// A solutionRun is what all cases of one solution share while they run.
type solutionRun struct {
	judge    *Judge
	prepared *Prepared
	options  RunOptions
	solution int
	plan     *Plan
	cases    []problem.Case // of which the plan has indices
	answers  *answers       // to cases that nobody can judge; nil: they are not compared
	looks    *looks
	// skipRerun says that a call that fails after others is not run again on its own.
	skipRerun bool
	over      func() bool // no more is needed; nil: all is
}

// isOver reports that no further case is needed, since one has failed.
func (r *solutionRun) isOver() bool { return r.over != nil && r.over() }

// test returns the case at a position in the plan.
func (r *solutionRun) test(position int) *problem.Case { return &r.cases[r.plan.Cases[position]] }

// limits returns the limits of the case at a position in the plan.
func (r *solutionRun) limits(position int) verdict.Limits {
	return r.plan.LimitsOf(r.test(position).Group)
}

// all runs all cases of a solution.
func (r *solutionRun) all(ctx context.Context, tell func(Event)) (e Ended, results []caseResult, err error) {
	if unable := r.unable(); unable != nil {
		return *unable, nil, nil
	}
	queue := &inOrder{
		waiting: map[int]verdict.Outcome{}, total: len(r.plan.Cases),
		running: func(finished int) { tell(Running{r.solution, finished, len(r.plan.Cases)}) },
		tell:    func(i int, o verdict.Outcome) { tell(Case{r.solution, r.plan.Cases[i], r.test(i).Shown(o)}) },
	}
	if r.options.UntilFailure {
		queue.enough = func(v verdict.Verdict) bool { return !v.Passing() }
	}
	r.over = queue.over
	queue.running(0)
	err = r.runBatches(ctx, queue)
	var refused *refusedError
	switch {
	case errors.As(err, &refused):
		return Ended{Verdict: verdict.CompileError, Message: refused.why, Score: r.noScore()}, nil, nil
	case err != nil:
		return e, nil, err
	}
	return Ended{Verdict: verdict.OfSolution(inCaseOrder(queue.results, r.plan.Cases)), Score: r.score(queue.results)}, queue.results, nil
}

// unable says why none of the cases can be run; nil: they can.
func (r *solutionRun) unable() *Ended {
	if unable := r.prepared.Unable(r.solution); unable != nil {
		e := unable.End
		if e.Verdict == verdict.CompileError {
			e.Score = r.noScore()
		}
		return &e
	}
	if len(r.plan.Cases) == 0 {
		message := "none of the chosen cases belongs to its groups"
		if part := r.plan.Solution.Part; part != "" {
			message = fmt.Sprintf("no chosen case is in the group %s, whose cases its answer to that part is for; 'cold case add --group %s' adds one", part, part)
		}
		return &Ended{Verdict: verdict.Skipped, Message: message}
	}
	for position := range r.plan.Cases {
		if c := r.judge.checkers[r.judge.checkerOf(r.test(position))]; c != nil && c.fault != nil {
			e := r.prepared.ofFault(c.fault)
			return &e
		}
	}
	return nil
}

// runBatches runs the batches of a solution's cases, as many beside each other as may be, and puts
// what came of each case into the queue.
func (r *solutionRun) runBatches(ctx context.Context, queue *inOrder) error {
	ctx, cancel := context.WithCancel(ctx)
	defer cancel()
	x := r.judge.manner.executor(r)
	needs := newNeeds(r.judge.problem, r.cases, r.plan.Cases)
	defer context.AfterFunc(ctx, needs.giveUp)()
	put := func(position int, o verdict.Outcome) {
		needs.ended(r.test(position).Group, o.Verdict)
		if queue.put(position, o) {
			needs.giveUp()
		}
	}
	list := x.batches()
	workers := r.prepared.workers[:min(len(r.prepared.workers), len(list), cmp.Or(x.beside(), len(list)))]
	next := make(chan []int, len(list))
	for _, batch := range list {
		next <- batch
	}
	close(next)
	var group sync.WaitGroup
	var once sync.Once
	var failed error
	for _, w := range workers {
		group.Go(func() {
			for batch := range next {
				if ctx.Err() != nil || queue.over() {
					return
				}
				var err error
				if lacking := needs.lacking(r.test(batch[0]).Group); lacking != "" {
					for _, position := range batch {
						put(position, verdict.Outcome{Verdict: verdict.Skipped, Message: lacking})
					}
				} else {
					err = r.batch(ctx, x, w, batch, len(workers) > 1, put)
				}
				if err != nil {
					once.Do(func() { failed = err; cancel() })
					return
				}
			}
		})
	}
	group.Wait()
	if failed == nil {
		failed = ctx.Err()
	}
	return failed
}

// A Request is what Judge is to run.
type Request struct {
	Solution int // its index
	// Cases are the inputs, with the outputs that are accepted: in a function problem
	// calls, of which one process makes as many as it can, one after the other;
	// otherwise each is one run.
	Cases []problem.Case
	// Limits are set above those of the plan; zero fields are not set.
	Limits verdict.Limits
	// SkipRerun: do not run a failing call again on its own, to tell whether it fails only
	// after others.
	SkipRerun bool
	// Unaccompanied says that nothing runs beside it, so that its times need no second look.
	Unaccompanied bool
	// Served says that answers are sought, and not what they take: where the language has a server, one
	// process answers many cases. What does not pass so is run as usual.
	Served bool
	// UntilFailure says that, where cases are served, those behind the first that does not pass are skipped.
	UntilFailure bool
	// Output returns where all goes that is printed or returned for a case; nil:
	// nowhere. It may be asked twice for one.
	Output func(i int) io.Writer
}

// Judge runs a solution on cases that a client made, which belong to no group, and returns an
// outcome for each. A worker, counted from 0, serves one call at a time. Start must have been
// called. The error is the context's, an *UnableError, or says what failed on our side.
func (p *Prepared) Judge(ctx context.Context, worker int, q Request) ([]verdict.Outcome, error) {
	plan := p.plans[q.Solution]
	plan.Limits, plan.Groups = above(plan.Limits, q.Limits), nil
	plan.Cases = make([]int, len(q.Cases))
	for i := range plan.Cases {
		plan.Cases[i] = i
	}
	r := &solutionRun{
		judge: p.judge, prepared: p, options: RunOptions{Repeat: 1}, solution: q.Solution, plan: &plan, cases: q.Cases,
		looks: &p.looks[q.Solution], skipRerun: q.SkipRerun,
	}
	if q.Output != nil {
		r.options.Output = func(_, i int) io.Writer { return q.Output(i) }
	}
	outcomes := make([]verdict.Outcome, len(q.Cases))
	x := r.judge.manner.executor(r)
	if q.Served && p.Serves(q.Solution) {
		x = &servedExecutor{r, x, q.UntilFailure}
	}
	for _, batch := range x.batches() {
		err := r.batch(ctx, x, p.workers[worker], batch, len(p.workers) > 1 && !q.Unaccompanied, func(position int, o verdict.Outcome) { outcomes[position] = o })
		var refused *refusedError
		if errors.As(err, &refused) {
			err = &UnableError{Solution: plan.Solution, End: Ended{Solution: q.Solution, Verdict: verdict.CompileError, Message: refused.why}}
		}
		if err != nil {
			return nil, err
		}
	}
	return outcomes, nil
}

// Start opens the sandboxes for Judge, and tells Held. The error is the context's, an
// *UnableError if a solution cannot be run at all, or says what failed on our side.
func (p *Prepared) Start(ctx context.Context, progress func(Event)) error {
	some := []problem.Case{{Compare: p.judge.problem.Compare}} // of what is to come
	if err := p.judge.readyCheckers(ctx, some, []int{0}); err != nil {
		return err
	}
	checker := p.judge.checkers[p.judge.checkerOf(&some[0])]
	for i := range p.plans {
		if unable := p.Unable(i); unable != nil {
			return unable
		}
		if checker != nil && checker.fault != nil {
			return &UnableError{Solution: p.plans[i].Solution, End: p.ofFault(checker.fault)}
		}
	}
	return p.open(p.judge.problem.Cases, progress)
}

// above sets limits above others.
func above(limits, set verdict.Limits) verdict.Limits {
	l, _ := problem.Limits{General: limits}.For(nil, set)
	return l
}

// A caseResult is what is kept of a case that was told.
type caseResult struct {
	verdict verdict.Verdict
	share   float64
	differs *verdict.Differs // from another solution
	// noAnswer says that nothing was printed that answers the case.
	noAnswer bool
}

// inCaseOrder brings the verdicts of cases that ran in another order into it.
func inCaseOrder(results []caseResult, cases []int) []verdict.Verdict {
	byCase := make(map[int]verdict.Verdict, len(results))
	for i, r := range results {
		byCase[cases[i]] = r.verdict
	}
	ordered := make([]verdict.Verdict, 0, len(results))
	for _, i := range slices.Sorted(maps.Keys(byCase)) {
		ordered = append(ordered, byCase[i])
	}
	return ordered
}

// inOrder takes outcomes of cases in any order and tells them in order.
type inOrder struct {
	total   int
	running func(finished int)
	tell    func(i int, o verdict.Outcome)
	enough  func(verdict.Verdict) bool // no more is needed after this one; nil: all are

	mu       sync.Mutex
	waiting  map[int]verdict.Outcome // finished before an earlier one
	results  []caseResult            // of those that were told
	progress time.Time
	ended    bool // what is still running counts no more
}

// over reports that no more is needed.
func (q *inOrder) over() bool {
	q.mu.Lock()
	defer q.mu.Unlock()
	return q.ended
}

// progressEvery is how often progress is told at the most.
const progressEvery = 50 * time.Millisecond

// put takes the outcome of a case, and reports that no more is needed.
func (q *inOrder) put(i int, o verdict.Outcome) (enough bool) {
	q.mu.Lock()
	defer q.mu.Unlock()
	q.waiting[i] = o
	for {
		next := len(q.results)
		o, ok := q.waiting[next]
		if !ok || q.ended {
			break
		}
		delete(q.waiting, next)
		q.results = append(q.results, caseResult{o.Verdict, o.Share, o.Differs, o.NoAnswer})
		q.tell(next, o)
		q.ended = q.enough != nil && q.enough(o.Verdict)
	}
	if now := time.Now(); now.Sub(q.progress) >= progressEvery {
		q.progress = now
		q.running(len(q.results) + len(q.waiting))
	}
	return q.ended
}
