package judge

import (
	"cmp"
	"context"
	"crypto/rand"
	"encoding/hex"
	"fmt"
	"io"
	"os"
	"strings"
	"sync"
	"time"

	"coldverdict/core/box"
	"coldverdict/core/call"
	"coldverdict/core/compare"
	"coldverdict/core/problem"
	"coldverdict/core/script"
	"coldverdict/core/toolchain"
	"coldverdict/core/value"
	"coldverdict/core/verdict"
)

// In a function problem one process makes many calls, one after the other. A call
// that fails in a way that ends the process, or that passes a limit, costs that
// process alone: the calls behind it are made in a new one.

// mostArguments bounds the arguments that one process is given, in bytes.
const mostArguments = 64 << 20

// How long a source may take until its first call.
const (
	loadTime = 10 * time.Second
	loadWall = 30 * time.Second
)

// How many calls that failed in company are made again alone.
const (
	againWrong  = 20
	againLimits = 2
)

// A made is what one call came to.
type made struct {
	outcome verdict.Outcome
	after   string // the case that was called before it in the same process; empty: none
}

// A callRunner makes the calls of one solution.
type callRunner struct {
	*session
	solution int
	plan     *Plan
	queue    *inOrder
	needs    *needs

	diagnosis *box.Program // takes the place of the usual one; nil: that
	diagnose  sync.Once    // of all calls the first that passes its limit of memory is looked at again

	mu      sync.Mutex       // guards what follows
	refused string           // why there is nothing to call
	loading *verdict.Outcome // what came of loading the source, if that failed
}

// broken reports that no call can be made at all, and why.
func (r *callRunner) broken() (refused string, loading *verdict.Outcome) {
	r.mu.Lock()
	defer r.mu.Unlock()
	return r.refused, r.loading
}

// runCalls makes the calls of a solution and tells them in order. refused says why
// there is nothing to call.
func (s *session) runCalls(ctx context.Context, index int, plan Plan) (results []caseResult, refused string, err error) {
	ctx, cancel := context.WithCancel(ctx)
	defer cancel()
	r := &callRunner{session: s, solution: index, plan: &plan, queue: s.queue(index, plan), needs: s.newNeeds(plan.Cases)}
	defer context.AfterFunc(ctx, r.needs.giveUp)()
	r.queue.running(0)
	batches := r.batches()
	next := make(chan []int, len(batches))
	for _, b := range batches {
		next <- b
	}
	close(next)
	workers := s.workers[:1]
	if s.options.Alone {
		workers = s.workers[:min(len(s.workers), len(batches))]
	}
	var group sync.WaitGroup
	var once sync.Once
	var failed error
	for _, w := range workers {
		group.Go(func() {
			for batch := range next {
				if ctx.Err() != nil {
					return
				}
				if err := r.batch(ctx, w, batch, r.crowded || len(workers) > 1); err != nil {
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
	refused, _ = r.broken()
	return r.queue.results, refused, failed
}

// batches splits a solution's cases, as positions in its plan, into those that
// share a process: the same limits, and groups that are run or skipped together.
func (r *callRunner) batches() (batches [][]int) {
	var group string
	var limits verdict.Limits
	for i, c := range r.plan.Cases {
		g := r.problem.Cases[c].Group
		l := r.plan.LimitsOf(g)
		apart := i == 0 || r.options.Alone || l != limits || g != group && len(r.problem.Rule(g).Needs) > 0
		if apart {
			batches = append(batches, nil)
		}
		batches[len(batches)-1] = append(batches[len(batches)-1], i)
		group, limits = g, l
	}
	return batches
}

// batch makes the calls of one batch, in as many processes as they need.
func (r *callRunner) batch(ctx context.Context, w *worker, positions []int, crowded bool) error {
	group := r.problem.Cases[r.plan.Cases[positions[0]]].Group
	if lacking := r.needs.lacking(group); lacking != "" {
		for _, i := range positions {
			r.put(i, verdict.Outcome{Verdict: verdict.Skipped, Message: lacking})
		}
		return ctx.Err()
	}
	var again []int // failed in company
	outcomes := map[int]made{}
	deep := -1 // the first call that is not made again, and passed its limit of memory
	wrong, limits := 0, 0
	settle := func(i int, m made) {
		o := &m.outcome
		limit := o.Verdict == verdict.TimeLimit || o.Verdict == verdict.Stalled || o.Verdict == verdict.MemoryLimit
		worth := !r.once && m.after != "" && o.Ran && !o.Verdict.Passing() && o.Verdict != verdict.Fault
		switch {
		case worth && limit && limits < againLimits:
			limits++
		case worth && !limit && wrong < againWrong:
			wrong++
		case o.Verdict == verdict.MemoryLimit && deep < 0: // looked at when the process has ended
			deep, outcomes[i] = i, m
			return
		default:
			r.put(i, *o)
			return
		}
		again, outcomes[i] = append(again, i), m
	}
	runs := map[int]*repeated{}
	for pass := range r.options.Repeat {
		err := r.pass(ctx, w, positions, crowded, func(i int, m made) {
			if r.options.Repeat > 1 {
				m.outcome = runs[i].with(m.outcome)
				runs[i] = &repeated{m.outcome, append(runs[i].all(), m.outcome.Usage.CPU)}
				if pass < r.options.Repeat-1 {
					return
				}
				m.outcome = withSpread(runs[i].outcome, runs[i].times)
			}
			settle(i, m)
		})
		if err != nil {
			return err
		}
	}
	if deep >= 0 {
		o := outcomes[deep].outcome
		if err := r.diagnosed(ctx, w, deep, &o); err != nil {
			return err
		}
		r.put(deep, o)
	}
	for _, i := range again {
		first := outcomes[i]
		var lone verdict.Outcome
		_, _, err := r.process(ctx, w, []int{i}, func(_ int, m made) { lone = m.outcome })
		if err != nil {
			return err
		}
		o := besides(first, lone)
		if err := r.diagnosed(ctx, w, i, &o); err != nil {
			return err
		}
		r.put(i, o)
	}
	return nil
}

// program is how the driver is run under limits.
func (r *callRunner) program(l verdict.Limits) box.Program {
	if r.diagnosis != nil {
		return *r.diagnosis
	}
	return r.plan.Build.Program(l, r.plan.Solution.Args)
}

// diagnosed makes a call that passed its limit of memory once more, in a way in which the
// runtime can tell that the recursion was too deep, once for each solution.
func (r *callRunner) diagnosed(ctx context.Context, w *worker, i int, o *verdict.Outcome) (err error) {
	if o.Verdict != verdict.MemoryLimit || len(o.Hints) > 0 {
		return nil
	}
	r.diagnose.Do(func() {
		limits := r.plan.LimitsOf(r.problem.Cases[r.plan.Cases[i]].Group)
		program, ok := r.plan.Build.Diagnosis(limits, r.plan.Solution.Args)
		if !ok {
			return
		}
		plan := *r.plan
		plan.Limits.Memory += diagnosisMemory
		plan.Groups = nil
		another := &callRunner{session: r.session, solution: r.solution, plan: &plan, queue: r.queue, needs: r.needs, diagnosis: &program}
		_, _, err = another.process(ctx, w, []int{i}, func(_ int, m made) {
			if hints := tooDeep(r.plan.Build, string(m.outcome.Stderr.Bytes), true); hints != nil {
				o.Message, o.Hints = deepRecursion, hints
			}
		})
	})
	return err
}

// A repeated is what a call came to in several passes.
type repeated struct {
	outcome verdict.Outcome
	times   []time.Duration
}

func (r *repeated) with(o verdict.Outcome) verdict.Outcome {
	if r == nil {
		return o
	}
	joined := both(r.outcome, o)
	joined.Usage.CPU = o.Usage.CPU
	return joined
}

func (r *repeated) all() []time.Duration {
	if r == nil {
		return nil
	}
	return r.times
}

// pass makes each call once. One that came near its limit of time while others
// were made beside it is made again alone.
func (r *callRunner) pass(ctx context.Context, w *worker, positions []int, crowded bool, settle func(int, made)) error {
	var near []int
	first := map[int]made{}
	tell := settle
	if crowded {
		tell = func(i int, m made) {
			if !cameNear(m.outcome, r.plan.LimitsOf(r.problem.Cases[r.plan.Cases[i]].Group)) {
				settle(i, m)
				return
			}
			near, first[i] = append(near, i), m
		}
	}
	for rest := positions; len(rest) > 0; {
		if r.queue.over() {
			return ctx.Err()
		}
		r.alone.RLock()
		done, suspects, err := r.process(ctx, w, rest, tell)
		for i := 0; i < suspects && err == nil; i++ {
			_, _, err = r.process(ctx, w, rest[done+i:done+i+1], tell)
		}
		r.alone.RUnlock()
		if err != nil {
			return err
		}
		rest = rest[done+suspects:]
		if refused, loading := r.broken(); refused != "" || loading != nil {
			for _, i := range rest {
				if loading != nil {
					settle(i, made{outcome: *loading})
				}
			}
			return nil
		}
	}
	for _, i := range near {
		r.alone.Lock()
		m := first[i]
		_, _, err := r.process(ctx, w, []int{i}, func(_ int, lone made) { m.outcome = join(m.outcome, lone.outcome) })
		r.alone.Unlock()
		if err != nil {
			return err
		}
		settle(i, m)
	}
	return nil
}

func (r *callRunner) put(i int, o verdict.Outcome) {
	r.needs.ended(r.problem.Cases[r.plan.Cases[i]].Group, o.Verdict)
	if r.queue.put(i, o) {
		r.needs.giveUp()
	}
}

// besides makes one outcome of a call in company and the same call alone.
func besides(company made, lone verdict.Outcome) verdict.Outcome {
	first := company.outcome
	switch {
	case !lone.Ran, lone.Verdict == first.Verdict:
		return first
	case lone.Verdict.Passing():
		first.Message = fmt.Sprintf("right alone, wrong after %s: something is left over from an earlier call; %s", company.after, first.Message)
		first.Message = strings.TrimSuffix(first.Message, "; ")
		first.Hints = append([]string{"what is kept between calls (a global, a static, a default argument, a class's own list) must be set anew in each"}, first.Hints...)
		first.Hints = first.Hints[:min(len(first.Hints), 2)]
		return first
	}
	worse := worseOf(first, lone)
	worse.Unsteady = true
	return worse
}

// A process is one process on its way through its calls.
type process struct {
	*callRunner
	worker    *worker
	box       *box.Box // the worker's
	limits    verdict.Limits
	positions []int // of the calls that it is given, in the plan
	tell      func(int, made)

	mu        sync.Mutex
	answers   []call.Answer
	out, errs call.Splitter
	ready     bool
	given     int // calls of which all is known, and that were handed to be judged
	judging   chan answered
	events    int             // answers of all kinds
	since     time.Time       // the last of them
	arrived   []time.Duration // wall-clock time of each call
	peak      int64           // of memory, as far as it was looked at
	looked    time.Time       // when it was
	over      bool            // it passed the limit
	close     bool            // that it came close was told
	stop      context.CancelFunc
	ending    box.Ending    // why it was ended by us
	endingAt  int           // and after how many answers
	used      time.Duration // by the call that ended it
	unserved  string        // why there is nothing to call
	long      []bool        // by call: its line is so long that the driver says when it begins
	begun     bool          // it has said so
	least     time.Duration // processor time that the call of this moment has used at the least
	foul      bool          // somebody else than the driver answered
	ended     bool          // nothing more comes
	starved   bool          // the machine left it no processor
}

// process makes calls in one process, tells each, and returns how many of them are
// done with. It ends early where one ends the process. Suspects are calls behind
// those of which one passed the limit of memory, and it is not known which: they
// are to be made again, each in a process of its own.
func (r *callRunner) process(ctx context.Context, w *worker, positions []int, tell func(int, made)) (done, suspects int, err error) {
	p := &process{callRunner: r, worker: w, positions: positions, tell: tell, since: time.Now()}
	p.limits = r.plan.LimitsOf(r.problem.Cases[r.plan.Cases[positions[0]]].Group)
	var token [16]byte
	rand.Read(token[:])
	name := hex.EncodeToString(token[:])
	input, n, broken := p.input(name)
	if broken != nil {
		if n == 0 {
			tell(positions[0], made{outcome: verdict.Outcome{Verdict: verdict.Fault, Message: broken.Error()}})
			return 1, 0, ctx.Err()
		}
	}
	p.positions = positions[:n]
	file, err := box.Memory(input)
	if err != nil {
		return 0, 0, err
	}
	defer file.Close()
	p.out = call.Splitter{Mark: call.Mark(name), Most: KeptText, Each: p.advance}
	p.errs = call.Splitter{Mark: call.Mark(name), Most: KeptText, Each: p.advance}
	answers := &call.Answers{Token: name, Most: p.limits.Output, Each: p.answer}
	held := p.limits
	held.Time, held.Wall = 0, 0 // of each call, by the watch
	held.Output = 4*p.limits.Output + int64(n+1)*2*int64(len(p.out.Mark))
	if err := w.open(); err != nil {
		return 0, 0, err
	}
	p.box = w.box
	p.judging = make(chan answered, n)
	var judged sync.WaitGroup
	judged.Go(func() { p.judge(ctx) })
	var stop context.Context
	stop, p.stop = context.WithCancel(context.Background())
	watching, watched := context.WithCancel(ctx)
	var watch sync.WaitGroup
	watch.Go(func() { p.watch(watching) })
	result, err := w.Run(ctx, box.Run{
		Program: r.program(p.limits), Limits: held, Input: file, Stop: stop,
		Output: locked{&p.mu, &p.out}, Errors: locked{&p.mu, &p.errs}, Decision: locked{&p.mu, answers},
	})
	watched()
	watch.Wait()
	p.stop()
	p.ended = true
	p.seen(result.Usage)
	if !p.over || n == 1 {
		p.giveUpTo(min(n, len(p.answers)))
	}
	close(p.judging)
	judged.Wait()
	switch {
	case ctx.Err() != nil:
		return 0, 0, ctx.Err()
	case err != nil:
		if p.given < n {
			tell(positions[p.given], made{outcome: verdict.Outcome{Verdict: verdict.Fault, Message: err.Error()}})
			p.given++
		}
		return p.given, 0, nil
	case p.over && p.given < len(p.answers) && p.given < n:
		suspects = min(len(p.answers), n) - p.given
		if result.Ending == box.PassedMemory && len(p.answers) < n {
			suspects++
		}
		return p.given, suspects, nil
	}
	p.end(result, answers.Long())
	return p.given, 0, nil
}

// An answered is a call that the driver has answered.
type answered struct {
	number    int // in the process
	answer    call.Answer
	wall      time.Duration
	memory    int64
	close     bool // with it the process came close to its limit of memory
	out, errs call.Part
}

// judge judges calls as they are answered, beside the process.
func (p *process) judge(ctx context.Context) {
	for a := range p.judging {
		i := p.positions[a.number]
		p.tell(i, made{p.callRun(i).ofAnswer(ctx, a), p.before(a.number)})
	}
}

// locked serializes what comes on several streams.
type locked struct {
	mu *sync.Mutex
	to io.Writer
}

func (l locked) Write(p []byte) (int, error) {
	l.mu.Lock()
	defer l.mu.Unlock()
	return l.to.Write(p)
}

// input is what the driver reads: as many of the calls as one process is given. An
// error is that of the first call that cannot be read, which ends them.
func (p *process) input(token string) (text []byte, n int, err error) {
	wide := call.WideAsText(p.plan.Build.Language)
	text = []byte(call.Header(token))
	for _, i := range p.positions {
		before := len(text)
		args, err := p.arguments(i)
		if err != nil {
			return text, n, err
		}
		text = append(text, '[')
		for j, arg := range args {
			if j > 0 {
				text = append(text, ',')
			}
			if wide {
				arg = value.Widened(arg, p.problem.Call.Takes[j].Type)
			}
			text = value.Append(text, arg, false)
		}
		text = append(text, "]\n"...)
		p.long = append(p.long, len(text)-before > call.BeginsPast)
		n++
		if len(text) > mostArguments {
			break
		}
	}
	return text, n, nil
}

func (p *process) arguments(i int) ([]any, error) {
	c := &p.problem.Cases[p.plan.Cases[i]]
	text, err := dataText(c.Input)
	if err != nil {
		return nil, fmt.Errorf("cannot read the arguments: %w", err)
	}
	args, err := value.ReadCall(text, p.problem.Call.Takes)
	if err != nil {
		return nil, fmt.Errorf("%s: %w", c.Where, err)
	}
	return args, nil
}

// answer takes one answer of the driver. The lock is held.
func (p *process) answer(a call.Answer) {
	now := time.Now()
	n := len(p.answers) // of the call that it is about
	switch {
	case p.foul: // the process is being ended, and whatever it still says counts for nothing
		return
	case a.Kind == call.Unserved && !p.ready:
		p.unserved = a.Text
	case a.Kind == call.Ready && !p.ready:
		p.ready = true
	case a.Kind == call.Begin && p.ready && n < len(p.long) && p.long[n] && !p.begun:
		p.begun = true
	case (a.Kind == call.Done || a.Kind == call.Failed || a.Kind == call.Misfit) && p.ready && n < len(p.positions):
		if p.least > 2*a.Spent+clockSlack { // the driver's clock is in the source's hands
			a.Spent = p.least
		}
		p.begun = false
		p.answers = append(p.answers, a)
		p.arrived = append(p.arrived, now.Sub(p.since))
	default: // the source wrote it
		if p.foul = true; n == len(p.positions) {
			p.answers = p.answers[:n-1] // there was an answer too many
		}
		p.stop()
		return
	}
	p.events++
	p.least = 0
	p.since = now
	p.advance()
}

// clockSlack is how much more processor time than twice what its driver says a call may
// seem to take from outside, where a runtime does other things beside it.
const clockSlack = 100 * time.Millisecond

// advance looks at the memory, where that is due, so that calls can be told. The
// lock is held.
func (p *process) advance() {
	if p.given < p.complete() && time.Since(p.looked) > lookMemory {
		p.looked = time.Now() // also where nothing runs any more
		if usage, ok := p.box.Now(); ok {
			p.seen(usage)
		}
	}
}

// complete returns how many calls were answered and had all come that they
// printed. The last one is not among them before it is known that no other answer comes.
func (p *process) complete() int {
	most := len(p.positions)
	if !p.ended {
		most--
	}
	return min(len(p.answers), most, p.out.Count()-1, p.errs.Count()-1)
}

// lookMemory is how often the memory is looked at because of calls that were
// answered. No call is told before it was seen that the peak, which the kernel
// keeps, is within the limit.
const lookMemory = 10 * time.Millisecond

// seen takes a look at what the process uses, and hands all calls that had ended
// before to be judged. The lock is held.
func (p *process) seen(usage verdict.Usage) {
	p.looked = time.Now()
	p.peak = max(p.peak, usage.Memory)
	if p.peak > p.limits.Memory {
		if !p.over {
			p.over, p.ending, p.endingAt, p.used = true, box.PassedMemory, len(p.answers), usage.CPU
		}
		p.stop()
		return
	}
	if p.peak > 0 { // else it has ended, and its end tells
		p.giveUpTo(p.complete())
	}
}

func (p *process) giveUpTo(n int) {
	for p.given < n {
		p.give()
	}
}

// give hands the next call, which has been answered, to be judged.
func (p *process) give() {
	n := p.given
	p.given++
	near := !p.close && share(p.peak, p.limits.Memory) > closeShare
	p.close = p.close || near
	p.judging <- answered{n, p.answers[n], p.arrived[n], p.peak, near, p.out.Take(n + 1), p.errs.Take(n + 1)}
	p.answers[n].Text = ""
}

// before names the case that was called before one in this process.
func (p *process) before(n int) string {
	if n == 0 {
		return ""
	}
	return p.problem.Cases[p.plan.Cases[p.positions[n-1]]].Name
}

// A callRun is one call on its way to its outcome.
type callRun struct{ *caseRun }

func (p *process) callRun(i int) callRun {
	index := p.plan.Cases[i]
	return callRun{&caseRun{
		session: p.session, solution: p.solution, index: index, worker: p.worker, plan: p.plan,
		limits: p.limits, test: &p.problem.Cases[index],
	}}
}

// end tells what became of the call with which the process ended, if it did not end
// by itself after the last.
func (p *process) end(result box.Result, long bool) {
	if p.unserved != "" {
		p.callRunner.mu.Lock()
		p.refused = p.plan.Build.OwnName(p.unserved)
		p.callRunner.mu.Unlock()
		p.given = len(p.positions)
		return
	}
	n := p.given
	if n == len(p.positions) {
		return
	}
	if p.ending != "" && p.endingAt != len(p.answers) {
		return // it answered in the moment in which it was ended; the next call is not to blame
	}
	if result.Ending == box.EndedByRequest && p.ending != "" {
		result.Ending = p.ending
		result.Usage.CPU = p.used
	}
	part := n + 1
	if !p.ready {
		part = 0
	}
	c := p.callRun(p.positions[n])
	o := c.ofEnd(result, time.Since(p.since), p.peak, p.out.Take(part), p.errs.Take(part), p.ready, long)
	if p.starved {
		o.Verdict, o.Message, o.Hints = verdict.Fault, "this machine is too busy to judge", nil
	}
	if p.foul {
		o.Verdict, o.Message, o.Hints = verdict.RuntimeError, "it wrote to descriptor 3, on which the judge hears what the function returns", nil
	}
	p.given++
	if !p.ready {
		p.callRunner.mu.Lock()
		p.loading = &o
		p.callRunner.mu.Unlock()
	}
	p.tell(p.positions[n], made{o, p.before(n)})
}

// How often the watch looks.
const (
	soonestWatch = 2 * time.Millisecond
	latestWatch  = 20 * time.Millisecond
)

// watch ends the process when a call has passed a limit of time.
func (p *process) watch(ctx context.Context) {
	limits := p.limits
	seen, base := -1, verdict.Usage{}
	timer := time.NewTimer(soonestWatch)
	defer timer.Stop()
	for {
		select {
		case <-ctx.Done():
			return
		case <-timer.C:
		}
		usage, known := p.box.Now()
		p.mu.Lock()
		if known {
			p.seen(usage)
		}
		most, wall := limits.Time, limits.Wall
		if !p.ready {
			most, wall = max(most, loadTime), max(wall, loadWall)
		}
		if p.events != seen {
			seen, base = p.events, usage
		}
		// What the machine does not let it have does not count.
		real := time.Since(p.since)
		used, waited := usage.CPU-base.CPU, real-max(0, usage.Starved-base.Starved)
		if known {
			p.least = max(p.least, used)
		}
		why := box.Exited
		switch {
		case known && used > most:
			why = box.PassedTime
		case waited > wall, real > box.TooBusy*wall:
			why, p.starved = box.PassedWall, waited <= wall
		case p.out.Size() > limits.Output || p.errs.Size() > limits.Output:
			why = box.PassedOutput
		}
		over := p.over || why != box.Exited
		if why != box.Exited && !p.over {
			p.ending, p.endingAt, p.used = why, len(p.answers), used
		}
		p.mu.Unlock()
		if over {
			p.stop()
			return
		}
		timer.Reset(min(max(soonestWatch, min(most-used, wall-waited)/2), latestWatch))
	}
}

// ofAnswer is the outcome of a call that the driver answered.
func (r callRun) ofAnswer(ctx context.Context, made answered) verdict.Outcome {
	a, out, errs := made.answer, made.out, made.errs
	o := r.outcome(verdict.Usage{CPU: a.Spent, Wall: max(made.wall, a.Spent), Memory: made.memory}, out, errs)
	var said toolchain.Reading
	switch {
	case made.memory > r.limits.Memory:
		o.Verdict = verdict.MemoryLimit
	case a.Spent > r.limits.Time:
		o.Verdict = verdict.TimeLimit
	case a.Long:
		o.Verdict, o.Message = verdict.OutputLimit, "it returned more than "+verdict.Size(r.limits.Output)
	case out.Size > r.limits.Output || errs.Size > r.limits.Output:
		o.Verdict, o.Message = verdict.OutputLimit, "it printed more than "+verdict.Size(r.limits.Output)
	case a.Kind == call.Failed:
		said = r.plan.Build.Read(string(errs.Text), true)
		o.Verdict, o.ExitCode = verdict.RuntimeError, 1
		o.Message = cmp.Or(said.String(), lastLine(string(o.Stderr.Bytes)), "it threw something that says nothing")
		if said.Has(toolchain.KindMemory) {
			o.Verdict = verdict.MemoryLimit
		}
	case a.Kind == call.Misfit:
		o.Verdict, o.Message = verdict.RuntimeError, a.Text
		if strings.HasPrefix(a.Text, "it returned") {
			o.Verdict = verdict.WrongAnswer
		}
	default:
		if err := r.byValue(ctx, &o, a.Text); err != nil {
			o.Verdict, o.Message = verdict.Fault, err.Error()
		}
	}
	r.finish(&o, box.Result{}, said)
	if made.close && o.Verdict.Passing() && !o.Close {
		o.Close, o.Message = true, fmt.Sprintf("close: %.0f %% of the memory limit", 100*share(made.memory, r.limits.Memory))
	}
	return r.kept(o)
}

// outcome begins one.
func (r callRun) outcome(usage verdict.Usage, out, errs call.Part) verdict.Outcome {
	return verdict.Outcome{
		Ran: true, Usage: usage,
		Stdout: verdict.Text{Bytes: out.Text, Cut: out.Size > int64(len(out.Text))},
		Stderr: verdict.Text{Bytes: r.ownPaths(errs.Text, r.plan.Build), Cut: errs.Size > int64(len(errs.Text))},
	}
}

// ofEnd is the outcome of a call with which its process ended. ready says that the
// source had been loaded.
func (r callRun) ofEnd(result box.Result, wall time.Duration, memory int64, out, errs call.Part, ready, long bool) verdict.Outcome {
	o := r.outcome(verdict.Usage{CPU: result.Usage.CPU, Wall: wall, Memory: memory}, out, errs)
	o.ExitCode = result.ExitCode
	if result.Ending == box.Exited {
		o.Usage.CPU = min(result.Usage.CPU, wall) // of it alone nothing is known
		if result.Signal != 0 {
			o.Signal = signalWords(result.Signal)
		}
	}
	said := r.plan.Build.Read(string(errs.Text), true)
	switch {
	case result.Ending == box.PassedMemory, said.Has(toolchain.KindMemory):
		o.Verdict = verdict.MemoryLimit
	case result.Ending == box.PassedTime:
		o.Verdict = verdict.TimeLimit
	case result.Ending == box.PassedWall:
		o.Verdict, o.Message = verdict.Stalled, waitedWords(result.Usage.CPU, wall)
	case result.Ending == box.PassedOutput, long:
		o.Verdict, o.Message = verdict.OutputLimit, "it printed or returned more than "+verdict.Size(r.limits.Output)
	default:
		o.Verdict = verdict.RuntimeError
		o.Message = crashWords(&o, result, r.limits, said)
		if result.Ending == box.Exited && result.Signal == 0 && said.Message == "" {
			o.Message = fmt.Sprintf("it ended the program (exit status %d) instead of returning", result.ExitCode)
		}
	}
	if !ready {
		o.Message = strings.TrimSuffix("before the first call: "+o.Message, ": ")
		if said.Has(toolchain.KindCompile) {
			o.Verdict = verdict.CompileError
		}
	}
	r.finish(&o, result, said)
	byDepth(&o, result, r.limits)
	return o
}

// byValue judges what a call returned. The error is the context's, or says that the
// expected result could not be read.
func (r callRun) byValue(ctx context.Context, o *verdict.Outcome, text string) error {
	results := r.problem.Call.Results()
	got, err := value.ReadResults(text, results)
	o.Returned = text
	if err != nil {
		why := err.Error()
		if strings.HasPrefix(why, "expected ") { // of the whole, which is shown already
			if expected, found, ok := strings.Cut(why, ", found "); ok && !strings.HasPrefix(found, "the ") {
				why = expected
			}
		}
		o.Verdict, o.Message = verdict.WrongAnswer, "it returned "+shownValue(text)+": "+why
		if text == "null" {
			o.Message = fmt.Sprintf("it returned nothing, and %s was expected", results[0].Type)
			o.Hints = []string{"the function returned nothing: a return is missing, at least on the way that this call takes"}
		}
		return nil
	}
	o.Returned = value.Write(got)
	if w := r.listener(); w != nil {
		io.WriteString(w, o.Returned+"\n")
	}
	if r.test.Compare.Custom() {
		err = r.byOwnChecker(ctx, o, got)
	} else {
		err = r.byKnown(o, got)
	}
	if err != nil {
		return err
	}
	r.byRefused(o, []byte(o.Returned), false)
	if o.Verdict == verdict.Unjudged && o.Message == "" && len(o.Returned) <= 60 {
		o.Message = "returned " + o.Returned
	}
	return r.compareReturned(o, got)
}

// byKnown compares what a call returned with the results that are accepted.
func (r callRun) byKnown(o *verdict.Outcome, got any) error {
	o.Verdict = verdict.Unjudged
	var best *value.Difference
	var expected any
	for _, data := range r.test.Accepted {
		known, err := r.result(data)
		if err != nil {
			return err
		}
		d := r.test.Compare.Values().Compare(known, got)
		if d == nil {
			o.Verdict = verdict.Accepted
			return nil
		}
		if best == nil {
			best, expected = d, known
		}
	}
	if best != nil {
		o.Verdict = verdict.WrongAnswer
		o.Difference = valueDifference(best, expected, got)
		o.Message = valueWords(best, r.problem.Call.Results())
		o.Hints = valueHints(expected, got)
	}
	return nil
}

func (r callRun) result(data problem.Data) (any, error) {
	text, err := dataText(data)
	if err != nil {
		return nil, fmt.Errorf("cannot read the expected result: %w", err)
	}
	v, err := value.ReadResults(text, r.problem.Call.Results())
	if err != nil {
		return nil, fmt.Errorf("the expected result of %s: %w", r.test.Name, err)
	}
	return v, nil
}

// shownValue cuts what was returned to what a remark has room for.
func shownValue(text string) string {
	const most = 40
	if runes := []rune(text[:min(len(text), 8*most)]); len(runes) > most {
		return string(runes[:most]) + "…"
	}
	return text
}

// byOwnChecker lets a checker of the person's own decide on a value.
func (r callRun) byOwnChecker(ctx context.Context, o *verdict.Outcome, got any) error {
	given, err := r.hearing()
	if err != nil {
		return err
	}
	defer given.end()
	if _, err := given.got.Write([]byte(o.Returned + "\n")); err != nil {
		return err
	}
	input, err := openInput(r.test.Input)
	if err != nil {
		return err
	}
	defer input.Close()
	if err := r.writeValues(given.dir, got); err != nil {
		return err
	}
	o.Verdict = verdict.Accepted
	return r.byChecker(ctx, o, given, input)
}

// writeValues puts what a script sees as values into a checker's folder.
func (r callRun) writeValues(dir string, got any) error {
	text, err := dataText(r.test.Input)
	if err != nil {
		return err
	}
	args, err := value.ReadCall(text, r.problem.Call.Takes)
	if err != nil {
		return err
	}
	names := make([]string, len(args))
	for i, f := range r.problem.Call.Takes {
		names[i] = f.Name
	}
	var expected any
	if len(r.test.Accepted) > 0 {
		if expected, err = r.result(r.test.Accepted[0]); err != nil {
			return err
		}
	}
	return script.WriteValues(dir, names, args, got, expected)
}

// valueDifference shows where two values part, each on one line.
func valueDifference(d *value.Difference, expected, got any) *verdict.Difference {
	want, wantAt := value.Marked(expected, d.Path)
	have, haveAt := value.Marked(got, d.Path)
	return &verdict.Difference{
		Path: value.PathText(d.Path), Expected: d.Expected, Got: d.Got, Reason: d.Reason,
		ExpectedSide: compare.OneLine(want, wantAt), GotSide: compare.OneLine(have, haveAt),
	}
}

// valueWords says where two values part: "[3][0]: expected 5, got 4".
func valueWords(d *value.Difference, results []value.Field) string {
	path := d.Path
	if len(results) > 1 && len(path) > 0 {
		if i, ok := path[0].(int); ok && i < len(results) {
			path = append([]any{results[i].Name}, path[1:]...)
		}
	}
	words := ""
	switch {
	case d.Expected == "":
		words = "got " + quote(d.Got)
	case d.Got == "":
		words = "expected " + quote(d.Expected)
	default:
		words = fmt.Sprintf("expected %s, got %s", quote(d.Expected), quote(d.Got))
	}
	if len(path) > 0 {
		words = value.PathText(path) + ": " + words
	}
	if d.Reason != "" {
		words += " (" + d.Reason + ")"
	}
	return words
}

// mostLeaves bounds the values that hints look at.
const mostLeaves = 2000

// valueHints looks at the single values in two results as if each were a line.
func valueHints(expected, got any) []string {
	want, have := value.Leaves(expected, mostLeaves+1), value.Leaves(got, mostLeaves+1)
	if len(want) > mostLeaves || len(have) > mostLeaves || len(want) == 0 || len(have) == 0 {
		return nil
	}
	return compare.ValueHints(want, have)
}

// finish adds the remarks and hints that depend on the verdict.
func (r callRun) finish(o *verdict.Outcome, result box.Result, said toolchain.Reading) {
	switch o.Verdict {
	case verdict.RuntimeError, verdict.MemoryLimit, verdict.TimeLimit, verdict.CompileError:
		o.Hints = compare.Hints(r.evidence(o, r.explained(o, result, said)))
	case verdict.Accepted, verdict.Unjudged:
		if time := share(o.Usage.CPU, r.limits.Time); time > closeShare {
			o.Close, o.Message = true, fmt.Sprintf("close: %.0f %% of the time limit", 100*time)
		}
	}
}

// dataText reads a case's data whole, without what Windows editors add.
func dataText(d problem.Data) (string, error) {
	text := d.Text
	if d.Path != "" {
		var err error
		if text, err = os.ReadFile(d.Path); err != nil {
			return "", err
		}
	}
	return string(problem.Plain(text)), nil
}
