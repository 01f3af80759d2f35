package judge

import (
	"cmp"
	"context"
	"errors"
	"fmt"
	"slices"
	"sync"
	"sync/atomic"

	"coldverdict/core/box"
	"coldverdict/core/call"
	"coldverdict/core/problem"
	"coldverdict/core/toolchain"
	"coldverdict/core/verdict"
)

// BuildOptions say how solutions are built. The zero value of each field is usable.
type BuildOptions struct {
	Limits  verdict.Limits // set above the problem's own; zero fields are not set
	Checked bool           // the checked build of each solution, with wider limits
	// MissingIsFault says that a person named the solutions, so that a missing compiler is a
	// fault; otherwise such a solution is skipped.
	MissingIsFault bool
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
	// leaves says that its processes keep what was passed and returned, so that their memory says nothing of a
	// call that is not their first.
	leaves bool
}

// LimitsOf returns the limits of the cases of a group.
func (p *Plan) LimitsOf(group string) verdict.Limits {
	if l, ok := p.Groups[group]; ok {
		return l
	}
	return p.Limits
}

// Prepared are solutions that were built, and the sandboxes that run them. It ends with its
// Judge.
type Prepared struct {
	judge     *Judge
	options   BuildOptions
	plans     []Plan
	faults    []error                            // why a solution could not be built, by solution
	looks     []looks                            // by solution: what Judge looks at once more
	otherwise []atomic.Int32                     // by solution: how often it behaved otherwise where it was served
	servers   []atomic.Pointer[toolchain.Server] // by solution: what serves it; nil: nothing does
	workers   []*worker                          // none before something is to be run
	checkers  int                                // so many of the judge's are known to the workers

	mu       sync.Mutex
	programs map[programKey]box.Program
}

// A programKey is what a program depends on.
type programKey struct {
	solution int
	limits   verdict.Limits
}

// OpenPrepared opens a judge for a problem and builds solutions, as Open and Prepare do. closing
// closes the judge, and must be called where there is no error.
func OpenPrepared(ctx context.Context, p *problem.Problem, env Env, solutions []problem.Solution, o BuildOptions, progress func(Event)) (prepared *Prepared, closing func() error, err error) {
	j, err := Open(p, env)
	if err != nil {
		return nil, nil, err
	}
	if prepared, err = j.Prepare(ctx, solutions, o, progress); err != nil {
		return nil, nil, errors.Join(err, j.Close())
	}
	return prepared, j.Close, nil
}

// OpenStarted does the same, and starts what it built, for Judge: the solutions belong to no group.
// The error may also be one of Start.
func OpenStarted(ctx context.Context, p *problem.Problem, env Env, solutions []problem.Solution, o BuildOptions, progress func(Event)) (prepared *Prepared, closing func() error, err error) {
	solutions = slices.Clone(solutions)
	for i := range solutions {
		solutions[i].Groups = nil
	}
	if prepared, closing, err = OpenPrepared(ctx, p, env, solutions, o, progress); err != nil {
		return nil, nil, err
	}
	if err := prepared.Start(ctx, progress); err != nil {
		return nil, nil, errors.Join(err, closing())
	}
	return prepared, closing, nil
}

// Prepare builds solutions, as many beside each other as there are jobs, and tells Building. A
// solution that cannot be built is no error: Run says of it what is wrong. The error is the
// context's, or says what failed on our side.
func (j *Judge) Prepare(ctx context.Context, solutions []problem.Solution, o BuildOptions, progress func(Event)) (*Prepared, error) {
	p := &Prepared{
		judge: j, options: o, plans: make([]Plan, len(solutions)), faults: make([]error, len(solutions)),
		looks: make([]looks, len(solutions)), otherwise: make([]atomic.Int32, len(solutions)), servers: make([]atomic.Pointer[toolchain.Server], len(solutions)), programs: map[programKey]box.Program{},
	}
	builders := make([]*worker, min(j.env.Jobs, len(solutions)))
	next := make(chan int)
	var telling sync.Mutex
	var group sync.WaitGroup
	for i := range builders {
		w := j.builder()
		builders[i] = w
		group.Go(func() {
			for i := range next {
				telling.Lock()
				progress(Building{i})
				telling.Unlock()
				p.plans[i], p.faults[i] = p.plan(ctx, w, solutions[i])
			}
		})
	}
	for i := range solutions {
		next <- i
	}
	close(next)
	group.Wait()
	err := ctx.Err()
	for _, w := range builders {
		err = errors.Join(err, w.close())
	}
	return p, err
}

func (p *Prepared) plan(ctx context.Context, w *worker, solution problem.Solution) (Plan, error) {
	j := p.judge
	source := toolchain.Source{Path: j.problem.Path(solution), Language: solution.Language, Checked: p.options.Checked}
	if j.manner.wrapper != nil {
		source.Wrap = j.manner.wrapper(j.problem)
	}
	build, err := j.kit.Build(ctx, w, source)
	plan := Plan{Solution: solution, Groups: map[string]verdict.Limits{}}
	if build.Language != nil {
		plan.Language = build.Language.Name
	}
	plan.Limits, plan.Unset = j.Limits(build.Language, p.options.Limits)
	for _, rule := range j.problem.Rules {
		if rule.Limits != (verdict.Limits{}) {
			plan.Groups[rule.Name], _ = j.Limits(build.Language, rule.Limits, p.options.Limits)
		}
	}
	if err != nil {
		return plan, err
	}
	if build.Checked {
		plan.Limits = Widened(plan.Limits)
		for name, l := range plan.Groups {
			plan.Groups[name] = Widened(l)
		}
	}
	plan.Build = &build
	plan.leaves = j.problem.Call != nil && call.Leaves(j.problem.Call, build.Language)
	return plan, nil
}

// Widened are the limits of a checked or a traced build, which is slower and larger than
// the one that a judge runs, and says nothing of its limits.
func Widened(l verdict.Limits) verdict.Limits {
	l.Time, l.Wall = 10*l.Time, 10*l.Wall
	l.Memory = 4*l.Memory + 512<<20
	return l
}

// Workers is how many runs there can be beside each other.
func (p *Prepared) Workers() int { return p.judge.env.Jobs }

// Plan returns what is known of a solution. Its Cases are nil.
func (p *Prepared) Plan(solution int) Plan { return p.plans[solution] }

// An UnableError says why a solution cannot be run at all.
type UnableError struct {
	Solution problem.Solution
	End      Ended  // its Verdict is compile error, skipped or fault
	Log      string // of the compiler
}

func (e *UnableError) Error() string {
	return fmt.Sprintf("%s: %s: %s", e.Solution.File, e.End.Verdict, e.End.Message)
}

// Unable says why a solution cannot be run at all, before any case is looked at; nil: it can.
func (p *Prepared) Unable(solution int) *UnableError {
	plan := &p.plans[solution]
	because := func(e Ended, log string) *UnableError {
		e.Solution = solution
		return &UnableError{Solution: plan.Solution, End: e, Log: log}
	}
	if fault := p.faults[solution]; fault != nil {
		return because(p.ofFault(fault), "")
	}
	if !plan.Build.Failed {
		return nil
	}
	said := plan.Build.Read(plan.Build.Log, true)
	words := cmp.Or(call.Declared(plan.Build.Log), said.String(), verdict.LastLine(plan.Build.Log))
	return because(Ended{Verdict: verdict.CompileError, Message: words, Hints: plan.Build.Explain(said)}, plan.Build.Log)
}

// ofFault is how a solution ends that cannot be run for a reason of ours.
func (p *Prepared) ofFault(fault error) Ended {
	var missing *toolchain.MissingError
	if errors.As(fault, &missing) && !p.options.MissingIsFault {
		return Ended{Verdict: verdict.Skipped, Message: fault.Error()}
	}
	return Ended{Verdict: verdict.Fault, Message: fault.Error()}
}

// program returns how a solution is run under limits.
func (p *Prepared) program(solution int, limits verdict.Limits) box.Program {
	p.mu.Lock()
	defer p.mu.Unlock()
	key := programKey{solution, limits}
	program, ok := p.programs[key]
	if !ok {
		plan := &p.plans[solution]
		program = plan.Build.Program(limits, plan.Solution.Args)
		p.programs[key] = program
	}
	return program
}

// open makes the workers, if there are none yet, and tells Held. What lies in the files of
// cases is hidden from programs.
func (p *Prepared) open(cases []problem.Case, progress func(Event)) error {
	if len(p.workers) > 0 {
		return p.openCheckers()
	}
	j := p.judge
	options := j.sandbox()
	options.Decides = j.manner.solutionsReport
	if !options.Uncontained {
		hidden, err := j.hidden(p.plans, cases)
		if err != nil {
			return err
		}
		options.Hidden = append(hidden, j.folder)
	}
	for i := range j.env.Jobs {
		w := j.newWorker(options)
		w.number = i
		p.workers = append(p.workers, w)
	}
	if err := errors.Join(p.openCheckers(), p.workers[0].open()); err != nil {
		return err
	}
	progress(Held{p.workers[0].box.Hold()})
	return nil
}

// openCheckers makes the sandboxes in which checkers run, anew where there are further ones.
func (p *Prepared) openCheckers() (err error) {
	if p.checkers == len(p.judge.checkers) {
		return nil
	}
	p.checkers = len(p.judge.checkers)
	for _, w := range p.workers {
		if w.checker != nil {
			err = errors.Join(err, w.checker.close())
		}
		w.checker = p.judge.checkerWorker(w.options)
	}
	return err
}

// canRun reports that some solution has a build and cases.
func canRun(plans []Plan) bool {
	return slices.ContainsFunc(plans, func(p Plan) bool { return p.Build != nil && !p.Build.Failed && len(p.Cases) > 0 })
}
