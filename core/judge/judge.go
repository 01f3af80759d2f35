// Package judge turns a problem and its solutions into verdicts: it says what
// is built, what runs beside what, what is run again, and what each run
// amounts to.
//
// It tells what happens while it happens through one callback. Whatever order
// cases finish in, they are told in case order. Nothing is kept of a case once
// it was told, so memory does not grow with the number of cases beyond a few
// bytes for each.
package judge

import (
	"cmp"
	"context"
	"errors"
	"fmt"
	"io"
	"maps"
	"os"
	"path/filepath"
	"runtime"
	"slices"
	"strings"
	"sync"
	"time"

	"coldverdict/core/box"
	"coldverdict/core/call"
	"coldverdict/core/problem"
	"coldverdict/core/toolchain"
	"coldverdict/core/verdict"
)

// Options say how to judge. The zero value of each field is usable.
type Options struct {
	Jobs   int            // cases run beside each other; 0: DefaultJobs
	Limits verdict.Limits // set above the problem's own; zero fields are not set
	Cases  []int          // indices of the problem's cases to run; nil: all
	// KeepAll keeps the beginning of what a program printed for every case;
	// otherwise only for those that were not accepted.
	KeepAll bool
	// MissingIsFault says that the solutions were named by a person, so that a
	// missing compiler is a fault; otherwise such a solution is skipped.
	MissingIsFault bool
	// Cache is the folder of builds; empty: the user's.
	Cache string
	// Languages is the table of languages; nil: ours.
	Languages *toolchain.Languages
	// Checked runs the checked build of each solution, with wider limits.
	Checked bool
	// Uncontained lets programs use the network and files as the person can.
	Uncontained bool
	// Repeat runs each case so many times, to show how far its time varies;
	// 0 is 1.
	Repeat int
	// First are indices of cases to run before the others, in that order.
	First []int
	// UntilFailure ends a solution's run with its first case that is neither
	// accepted nor unjudged.
	UntilFailure bool
	// Alone gives each call of a function problem a process of its own.
	Alone bool
	// Output returns where all that a solution prints for a case goes, beside
	// the comparison; it is asked before each run of the case, and an error
	// from Write ends the writing. Nil: nowhere. The writer is used by one
	// goroutine at a time.
	Output func(solution, index int) io.Writer
}

// KeptText bounds what is kept of one output of one run, in bytes.
const KeptText = 64 << 10

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

// A Plan is what is known of a solution before its first case runs.
type Plan struct {
	Solution problem.Solution
	Build    *toolchain.Build // nil if the source could not be built for a reason of ours
	Language string           // name of the language; empty if it is not known
	Limits   verdict.Limits
	Unset    verdict.Limits            // those of the limits that nobody set
	Groups   map[string]verdict.Limits // of groups that have limits of their own
	Cases    []int                     // indices of the cases that it runs, in that order
}

// LimitsOf returns the limits of the cases of a group.
func (p *Plan) LimitsOf(group string) verdict.Limits {
	if l, ok := p.Groups[group]; ok {
		return l
	}
	return p.Limits
}

// Running: so many cases of a solution have finished, told or not.
type Running struct{ Solution, Finished, Total int }

// Case: a case has its verdict.
type Case struct {
	Solution int
	Index    int // of the case in the problem
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

// A session is one call of Run.
type session struct {
	problem *problem.Problem
	options Options
	kit     *toolchain.Kit
	tell    func(Event)
	scratch *box.Scratch
	workers []*worker
	// arbiters are what the person wrote to decide, by how verdict.toml names
	// them; checks is the folder of what they decide on.
	arbiters map[wanted]*readied
	checks   string
	answers  *answers         // to cases that nobody can judge; nil: there is one solution
	groups   chan *box.Groups // comes once it is known; nil: there are none
	// alone lets runs beside each other hold it for reading, and one that
	// must be alone for writing.
	alone *sync.RWMutex
	// crowded says that others may run beside what one worker is given.
	crowded bool
	// once says that calls that fail in company are not made again alone.
	once bool
}

// A worker runs programs one at a time in a box that is opened when needed.
type worker struct {
	options box.Options
	box     *box.Box
	number  int
	arbiter *worker                // runs what decides on this one's programs; nil: nothing does
	there   map[string]os.FileInfo // what programs may read, as it was found first
}

func (w *worker) open() (err error) {
	if w.box == nil {
		w.box, err = box.Open(w.options)
	}
	return err
}

// Contains reports that programs which run here are kept from files.
func (w *worker) Contains() bool { return !w.options.Uncontained }

func (w *worker) close() (err error) {
	if w.box != nil {
		err = w.box.Close()
		w.box = nil
	}
	return err
}

// Run implements toolchain.Runner. A box that was lost is replaced before the
// next run.
func (w *worker) Run(ctx context.Context, run box.Run) (result box.Result, err error) {
	if err := w.open(); err != nil {
		return box.Result{}, err
	}
	w.lookFor(run.Program.Reads)
	if result, err = w.box.Run(ctx, run); errors.Is(err, box.ErrLost) {
		w.close()
	}
	if ctx.Err() == nil && (err != nil || !result.Succeeded()) {
		if gone := w.stillThere(run.Program.Reads); gone != nil {
			err = gone
		}
	}
	return result, err
}

// lookFor notes which of some paths are there.
func (w *worker) lookFor(paths []string) {
	if w.there == nil {
		w.there = map[string]os.FileInfo{}
	}
	for _, path := range paths {
		if _, known := w.there[path]; !known {
			w.there[path], _ = os.Stat(path) // nil: it is not there
		}
	}
}

// stillThere says which of the paths that were there is no more, so that what a program
// missed is not taken for its own failure.
func (w *worker) stillThere(paths []string) error {
	for _, path := range paths {
		was := w.there[path]
		if was == nil {
			continue
		}
		is, err := os.Stat(path)
		if err == nil && os.SameFile(was, is) {
			continue
		}
		if err == nil { // it is back, and programs see it when the worker starts anew
			w.there[path] = is
			w.close()
		}
		return fmt.Errorf("%s was removed while programs ran; try again", path)
	}
	return nil
}

// DefaultJobs is the number of processor cores that this process may use, by
// its affinity and by what its control group may use of them; threads that
// share a core would slow each other down.
func DefaultJobs() int {
	cores := map[string]bool{}
	lists, _ := filepath.Glob("/sys/devices/system/cpu/cpu[0-9]*/topology/thread_siblings_list")
	for _, list := range lists {
		if text, err := os.ReadFile(list); err == nil {
			cores[string(text)] = true
		}
	}
	if len(cores) == 0 {
		return runtime.GOMAXPROCS(0)
	}
	return min(len(cores), runtime.GOMAXPROCS(0))
}

// Run judges solutions one after the other and tells what happens. Builds come
// first, beside each other, so that no build disturbs a measurement. The error
// is the context's if that ended, or says what failed on our side.
func Run(ctx context.Context, p *problem.Problem, solutions []problem.Solution, o Options, tell func(Event)) (err error) {
	s, err := begin(p, o, tell)
	if err != nil {
		return err
	}
	defer func() { err = errors.Join(err, s.end()) }()
	plans, faults, err := s.buildAll(ctx, solutions)
	if err != nil {
		return err
	}
	s.answers = s.newAnswers(solutions)
	for _, plan := range plans {
		if err := s.readyArbiters(ctx, plan.Cases); err != nil {
			return err
		}
	}
	if err := s.hold(plans); err != nil {
		return err
	}
	for i, plan := range plans {
		if err := ctx.Err(); err != nil {
			return err
		}
		s.tell(Began{i, plan})
		if err := s.judge(ctx, i, plans, faults[i]); err != nil {
			return err
		}
	}
	return nil
}

// begin opens a session, which must be ended.
func begin(p *problem.Problem, o Options, tell func(Event)) (*session, error) {
	if o.Jobs <= 0 {
		o.Jobs = DefaultJobs()
	}
	if o.Cache == "" {
		o.Cache = toolchain.DefaultDir()
	}
	o.Repeat = max(o.Repeat, 1)
	if o.Languages == nil {
		o.Languages = toolchain.Ours()
	}
	kit, err := toolchain.Open(o.Cache, o.Languages)
	if err != nil {
		return nil, err
	}
	scratch, err := box.NewScratch(os.TempDir(), "cold-verdict-run-")
	if err != nil {
		kit.Close()
		return nil, fmt.Errorf("cannot make a working folder: %w", err)
	}
	s := &session{
		problem: p, options: o, kit: kit, tell: tell, groups: make(chan *box.Groups, 1), scratch: scratch,
		arbiters: map[wanted]*readied{}, checks: filepath.Join(scratch.Dir, "checks"), alone: &sync.RWMutex{},
	}
	go func() {
		groups, _ := box.OpenGroups() // without them the watch holds the limits alone
		s.groups <- groups
	}()
	if err := os.Mkdir(s.checks, 0o700); err != nil {
		return nil, errors.Join(err, s.end())
	}
	return s, nil
}

// end leaves nothing behind.
func (s *session) end() (err error) {
	for _, w := range s.workers {
		err = errors.Join(err, w.close())
		if w.arbiter != nil {
			err = errors.Join(err, w.arbiter.close())
		}
	}
	s.kit.Close()
	return errors.Join(err, s.scratch.Remove())
}

// builder makes a worker that runs compilers. They see what lies beside a source, but
// nothing that tells answers.
func (s *session) builder() *worker {
	return &worker{options: box.Options{Scratch: s.scratch.Dir, Uncontained: s.options.Uncontained, Hidden: s.secrets(), Coarse: true}}
}

// hold prepares the workers for what was built, and tells how they hold it.
// Where nothing is to be run there are none.
func (s *session) hold(plans []Plan) error {
	runs := slices.ContainsFunc(plans, func(p Plan) bool { return p.Build != nil && !p.Build.Failed && len(p.Cases) > 0 })
	if !runs {
		return nil
	}
	options := box.Options{Scratch: s.scratch.Dir, Uncontained: s.options.Uncontained, Groups: <-s.groups, Decides: s.problem.Call != nil}
	if !options.Uncontained {
		hidden, err := s.hidden(plans)
		if err != nil {
			return err
		}
		options.Hidden = append(hidden, s.checks)
	}
	for i := range s.options.Jobs {
		w := &worker{options: options, number: i}
		if len(s.arbiters) > 0 {
			w.arbiter = s.arbiterWorker(options)
		}
		s.workers = append(s.workers, w)
	}
	if err := s.workers[0].open(); err != nil {
		return err
	}
	s.tell(Held{s.workers[0].box.Hold()})
	return nil
}

// buildAll builds every solution, as many beside each other as there will be
// workers.
func (s *session) buildAll(ctx context.Context, solutions []problem.Solution) ([]Plan, []error, error) {
	plans := make([]Plan, len(solutions))
	faults := make([]error, len(solutions))
	builders := make([]*worker, min(s.options.Jobs, len(solutions)))
	next := make(chan int)
	var tell sync.Mutex
	var group sync.WaitGroup
	for i := range builders {
		w := s.builder()
		builders[i] = w
		group.Go(func() {
			for i := range next {
				tell.Lock()
				s.tell(Building{i})
				tell.Unlock()
				plans[i], faults[i] = s.plan(ctx, w, solutions[i])
			}
		})
	}
	for i := range solutions {
		next <- i
	}
	close(next)
	group.Wait()
	var err error
	for i := range builders {
		err = errors.Join(err, builders[i].close())
	}
	return plans, faults, err
}

func (s *session) plan(ctx context.Context, w *worker, solution problem.Solution) (Plan, error) {
	plan := Plan{Solution: solution}
	for i, c := range s.problem.Cases {
		if solution.Runs(c.Group) {
			plan.Cases = append(plan.Cases, i)
		}
	}
	if s.options.Cases != nil {
		plan.Cases = common(plan.Cases, s.options.Cases)
	}
	plan.Cases = s.problem.InRunOrder(sooner(plan.Cases, s.options.First))
	build, err := s.kit.Build(ctx, w, toolchain.Source{Path: s.problem.Path(solution), Language: solution.Language, Checked: s.options.Checked, Wrap: s.wrapper()})
	var names []string
	if build.Language != nil {
		plan.Language = build.Language.Name
		names = s.options.Languages.Family(build.Language)
	}
	plan.Limits, plan.Unset = s.problem.Limits.For(names, s.options.Limits)
	plan.Groups = map[string]verdict.Limits{}
	for _, rule := range s.problem.Rules {
		if rule.Limits != (verdict.Limits{}) {
			plan.Groups[rule.Name], _ = s.problem.Limits.For(names, rule.Limits, s.options.Limits)
		}
	}
	if err != nil {
		return plan, err
	}
	if build.Checked {
		plan.Limits = widened(plan.Limits)
		for name, l := range plan.Groups {
			plan.Groups[name] = widened(l)
		}
	}
	plan.Build = &build
	return plan, nil
}

// wrapper puts a driver around the sources of a function problem.
func (s *session) wrapper() toolchain.Wrapper {
	if s.problem.Call == nil {
		return nil
	}
	return call.Around(s.problem.Call)
}

// widened are the limits of a checked build, which is slower and larger than
// the one that a judge runs, and says nothing of its limits.
func widened(l verdict.Limits) verdict.Limits {
	l.Time, l.Wall = 10*l.Time, 10*l.Wall
	l.Memory = 4*l.Memory + 512<<20
	return l
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
	wanted := make(map[int]bool, len(order))
	for _, i := range order {
		wanted[i] = true
	}
	for _, i := range cases {
		if !wanted[i] {
			order = append(order, i)
		}
	}
	return order
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

// judge runs the cases of one solution. fault is why it could not be built.
func (s *session) judge(ctx context.Context, index int, plans []Plan, fault error) error {
	plan := plans[index]
	if ctx.Err() != nil {
		return ctx.Err()
	}
	if unable := s.unable(index, plan, fault); unable != nil {
		if unable.Verdict == verdict.CompileError {
			unable.Score = s.nothing(plan)
		}
		s.tell(*unable)
		return nil
	}
	run := s.runCases
	if s.problem.Call != nil {
		run = s.runCalls
	}
	results, refused, err := run(ctx, index, plan)
	switch {
	case err != nil:
		return err
	case refused != "":
		s.tell(Ended{Solution: index, Verdict: verdict.CompileError, Message: refused, Score: s.nothing(plan)})
		return nil
	}
	ended := Ended{Solution: index, Verdict: verdict.OfSolution(inCaseOrder(results, plan.Cases)), Score: s.score(plan, results)}
	s.tell(s.withDifferences(plans, ended, results))
	return nil
}

// unable says why a solution cannot be run; nil: it can.
func (s *session) unable(index int, plan Plan, fault error) *Ended {
	because := func(fault error) *Ended {
		var missing *toolchain.MissingError
		if errors.As(fault, &missing) && !s.options.MissingIsFault {
			return &Ended{Solution: index, Verdict: verdict.Skipped, Message: fault.Error()}
		}
		return &Ended{Solution: index, Verdict: verdict.Fault, Message: fault.Error()}
	}
	switch {
	case fault != nil:
		return because(fault)
	case plan.Build.Failed:
		said := plan.Build.Read(plan.Build.Log, true)
		words := cmp.Or(call.Declared(plan.Build.Log), said.String(), lastLine(plan.Build.Log))
		return &Ended{Solution: index, Verdict: verdict.CompileError, Message: words, Hints: plan.Build.Explain(said)}
	case len(plan.Cases) == 0:
		return &Ended{Solution: index, Verdict: verdict.Skipped, Message: "none of the chosen cases belongs to its groups"}
	}
	for _, i := range plan.Cases {
		if a := s.arbiters[s.wantedBy(&s.problem.Cases[i])]; a != nil && a.fault != nil {
			return because(a.fault)
		}
	}
	return nil
}

// queue tells the cases of a solution in order.
func (s *session) queue(index int, plan Plan) *inOrder {
	queue := &inOrder{
		waiting: map[int]verdict.Outcome{}, total: len(plan.Cases),
		running: func(finished int) { s.tell(Running{index, finished, len(plan.Cases)}) },
		tell:    func(i int, o verdict.Outcome) { s.tell(Case{index, plan.Cases[i], o}) },
	}
	if s.options.UntilFailure {
		queue.enough = func(v verdict.Verdict) bool { return !v.Passing() }
	}
	return queue
}

// runCases runs cases beside each other and tells them in order. That there is
// nothing to run is never said: the compiler has said it.
func (s *session) runCases(ctx context.Context, index int, plan Plan) (results []caseResult, refused string, err error) {
	ctx, cancel := context.WithCancel(ctx)
	defer cancel()
	queue := s.queue(index, plan)
	programs := map[verdict.Limits]box.Program{}
	for _, i := range plan.Cases {
		l := plan.LimitsOf(s.problem.Cases[i].Group)
		if _, ok := programs[l]; !ok {
			programs[l] = plan.Build.Program(l, plan.Solution.Args)
		}
	}
	needs := s.newNeeds(plan.Cases)
	defer context.AfterFunc(ctx, needs.giveUp)()
	queue.running(0)
	workers := s.workers[:min(len(s.workers), len(plan.Cases))]
	var group sync.WaitGroup
	var once, diagnose sync.Once
	var failed error
	for _, w := range workers {
		group.Go(func() {
			for ctx.Err() == nil {
				i, ok := queue.take()
				if !ok {
					return
				}
				test := &s.problem.Cases[plan.Cases[i]]
				outcome := verdict.Outcome{Verdict: verdict.Skipped}
				if outcome.Message = needs.lacking(test.Group); outcome.Message == "" {
					limits := plan.LimitsOf(test.Group)
					run := &caseRun{
						session: s, solution: index, index: plan.Cases[i], worker: w, plan: &plan, limits: limits, program: programs[limits],
						crowded: len(workers) > 1, test: test, diagnose: &diagnose,
					}
					var err error
					if outcome, err = run.settled(ctx); err != nil {
						once.Do(func() { failed = err; cancel() })
						return
					}
				}
				needs.ended(test.Group, outcome.Verdict)
				if enough := queue.put(i, outcome); enough {
					needs.giveUp()
				}
			}
		})
	}
	group.Wait()
	if failed == nil {
		failed = ctx.Err()
	}
	return queue.results, "", failed
}

// A caseResult is what is kept of a case that was told.
type caseResult struct {
	verdict verdict.Verdict
	share   float64
	differs *verdict.Differs // from another solution
}

// inOrder hands out cases and tells their outcomes in order.
type inOrder struct {
	total   int
	running func(finished int)
	tell    func(i int, o verdict.Outcome)
	enough  func(verdict.Verdict) bool // no more is needed after this one; nil: all are

	mu       sync.Mutex
	taken    int
	finished int
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

func (q *inOrder) take() (int, bool) {
	q.mu.Lock()
	defer q.mu.Unlock()
	if q.taken == q.total || q.ended {
		return 0, false
	}
	q.taken++
	return q.taken - 1, true
}

// progressEvery is how often progress is told at the most.
const progressEvery = 50 * time.Millisecond

// put takes the outcome of a case, and reports that no more is needed.
func (q *inOrder) put(i int, o verdict.Outcome) (enough bool) {
	q.mu.Lock()
	defer q.mu.Unlock()
	q.finished++
	q.waiting[i] = o
	for {
		next := len(q.results)
		o, ok := q.waiting[next]
		if !ok || q.ended {
			break
		}
		delete(q.waiting, next)
		q.results = append(q.results, caseResult{o.Verdict, o.Share, o.Differs})
		q.tell(next, o)
		q.ended = q.enough != nil && q.enough(o.Verdict)
	}
	if now := time.Now(); now.Sub(q.progress) >= progressEvery {
		q.progress = now
		q.running(q.finished)
	}
	return q.ended
}

// ownPaths takes the folder of a build, and the one that it was built in, out of
// what a program wrote, so that traces name the person's own file.
func (s *session) ownPaths(text []byte, build *toolchain.Build) []byte {
	if len(text) == 0 {
		return nil
	}
	return []byte(strings.ReplaceAll(s.kit.OwnPaths(string(text), build), "\t./", "\t"))
}
