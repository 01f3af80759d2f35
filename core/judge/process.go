package judge

import (
	"context"
	"crypto/rand"
	"encoding/hex"
	"fmt"
	"io"
	"os"
	"slices"
	"sync"
	"time"

	"coldverdict/core/box"
	"coldverdict/core/call"
	"coldverdict/core/verdict"
)

// What bounds the arguments that one process is given, in bytes; and where it keeps what it was given.
const (
	mostArguments = 64 << 20
	mostLeft      = 64 << 10
)

// How long a source may take until its first call, and a driver to write what a call returned.
const (
	loadTime = 10 * time.Second
	loadWall = 30 * time.Second
)

// A callProcess is one process on its way through its calls.
type callProcess struct {
	run       *solutionRun
	worker    *worker
	limits    verdict.Limits // of each call
	positions []int          // of the calls that it is given, in the plan
	each      func(attempt)
	judging   chan answered
	stop      context.CancelFunc

	mu    sync.Mutex
	state callState // guarded by mu
}

// A callState is what has come of a process so far.
type callState struct {
	protocol  protocol
	out, errs call.Splitter
	delivered int // calls of which all is known, and that were handed to be judged
	memory    memorySeen
	cut       cutOff        // why it was ended by us
	least     time.Duration // processor time that the call of this moment has used at the least
	asking    *asking       // what is given to it and what it asks, where functions are given
	starved   bool          // the machine left it no processor
	ended     bool          // nothing more comes
}

// A memorySeen is what was seen of a process's memory.
type memorySeen struct {
	peak          int64 // bytes
	looked        time.Time
	limitExceeded bool
	nearTold      bool // that it came near its limit
}

// A cutOff says why a process was ended before it had answered all calls.
type cutOff struct {
	why  box.Ending // empty: it was not
	at   int        // after how many answers
	used time.Duration
}

// A protocol follows what the driver of a process says.
type protocol struct {
	calls    int             // that it is to make
	long     []bool          // by call: its line is so long that the driver says when it begins
	answers  []call.Answer   // to the calls
	arrived  []time.Duration // elapsed time of each call
	since    time.Time       // the last message
	messages int
	ready    bool          // the source was loaded
	begun    bool          // the driver has said that a long call begins
	returned bool          // the call has ended, and what it returned is being written
	wall     time.Duration // elapsed time of that call, so far
	foul     bool          // somebody else than the driver wrote a message
	awaits   bool          // what the call returned is not done
	unserved string        // why there is nothing to call
}

// clockSlack is how much more processor time than twice what its driver says a call may
// seem to take from outside, where a runtime does other things beside it.
const clockSlack = 100 * time.Millisecond

// take takes a message. Least is the processor time that the call has used at the least, as seen
// from outside. It reports that the message can be the driver's.
func (p *protocol) take(a call.Answer, now time.Time, least time.Duration) bool {
	n := len(p.answers) // of the call that it is about
	switch {
	case a.Kind == call.Unserved && !p.ready:
		p.unserved = a.Text
	case a.Kind == call.Ready && !p.ready:
		p.ready = true
	case a.Kind == call.Begin && p.ready && n < len(p.long) && p.long[n] && !p.begun:
		p.begun = true
	case slices.Contains([]call.Kind{call.Done, call.Failed, call.Misfit, call.Stalled}, a.Kind) && p.ready && n < p.calls:
		if least > 2*a.Spent+clockSlack { // the driver's clock is in the source's hands
			a.Spent = least
		}
		p.pause(true, now)
		p.answers = append(p.answers, a)
		p.arrived = append(p.arrived, p.wall)
		p.begun, p.returned, p.awaits, p.wall = false, false, false, 0
	case (a.Kind == call.Writes || a.Kind == call.GoesOn) && p.ready && n < p.calls:
		p.pause(a.Kind == call.Writes, now)
	default:
		if p.foul = true; n == p.calls {
			p.answers = p.answers[:n-1] // there was an answer too many
		}
		return false
	}
	p.messages++
	p.since = now
	return true
}

// marked takes note that calls have ended, of which the driver has marked so many on both streams: what is
// done from then on is to write what the last one returned.
func (p *protocol) marked(calls int, now time.Time) {
	if !p.ready || p.returned || calls <= len(p.answers) {
		return
	}
	p.pause(true, now)
	p.since = now
	p.messages++
}

// pause takes note that a call was left, for good or until the next one of its sequence, or is gone on with.
func (p *protocol) pause(returned bool, now time.Time) {
	if returned && !p.returned {
		p.wall += now.Sub(p.since)
	}
	p.returned = returned
}

// process makes calls in one process, tells each, and returns how many of them are
// done with. It ends early where one ends the process. Suspects are calls behind
// those of which one passed the limit of memory, and it is not known which: they
// are to be made again, each in a process of its own.
func (x *functionExecutor) process(ctx context.Context, w *worker, program func(verdict.Limits) box.Program, positions []int, each func(attempt)) (done, suspects int, err error) {
	p := &callProcess{run: x.run, worker: w, limits: x.run.limits(positions[0]), each: each}
	var token [16]byte
	rand.Read(token[:])
	name := hex.EncodeToString(token[:])
	input, broken := p.input(name, positions)
	n := len(p.positions)
	if broken != nil && n == 0 {
		each(attempt{position: positions[0], outcome: verdict.Outcome{Verdict: verdict.Fault, Message: broken.Error()}})
		return 1, 0, ctx.Err()
	}
	s := &p.state
	var file *os.File
	if len(p.run.judge.problem.Call.Given) > 0 {
		if s.asking, err = p.openAsking(input); err != nil {
			each(attempt{position: positions[0], outcome: verdict.Outcome{Verdict: verdict.Fault, Message: err.Error()}})
			return 1, 0, ctx.Err()
		}
		defer s.asking.feed.Close()
		file = s.asking.feed.Input
	} else {
		if file, err = box.Memory(input); err != nil {
			return 0, 0, err
		}
		defer file.Close()
	}
	s.protocol.calls, s.protocol.since = n, time.Now()
	s.out = call.Splitter{Mark: call.Mark(name), Most: KeptText, Each: p.advance}
	s.errs = call.Splitter{Mark: call.Mark(name), Most: KeptText, Each: p.advance}
	answers := &call.Answers{Token: name, Most: p.limits.Output, Each: p.answer}
	held := p.limits
	held.Time, held.Wall = 0, 0 // of each call, by the watch
	held.Output = 4*p.limits.Output + int64(n+1)*2*int64(len(s.out.Mark))
	if err := w.open(); err != nil {
		return 0, 0, err
	}
	p.judging = make(chan answered, n)
	var judged, watch sync.WaitGroup
	judged.Go(func() { p.judge(ctx) })
	var stop context.Context
	stop, p.stop = context.WithCancel(context.Background())
	watching, watched := context.WithCancel(ctx)
	watch.Go(func() { p.watch(watching) })
	result, err := w.Run(ctx, box.Run{
		Program: program(p.limits), Limits: held, Input: file, Stop: stop, Prompt: s.asking != nil,
		Output: locked{&p.mu, &s.out}, Errors: locked{&p.mu, &s.errs}, Decision: locked{&p.mu, answers},
	})
	watched()
	watch.Wait()
	p.stop()
	s.ended = true
	p.seen(result.Usage)
	if !s.memory.limitExceeded || n == 1 {
		p.deliverUpTo(min(n, len(s.protocol.answers)))
	}
	close(p.judging)
	judged.Wait()
	if ctx.Err() != nil {
		return 0, 0, ctx.Err()
	}
	return p.delivered(result, err, answers.Long())
}

// delivered tells the calls that are left of a process that has ended, and returns how many are done
// with, and how many are suspects.
func (p *callProcess) delivered(result box.Result, failed error, long bool) (done, suspects int, err error) {
	s, n := &p.state, len(p.positions)
	switch answered := min(n, len(s.protocol.answers)); {
	case failed != nil:
		if s.delivered < n {
			p.each(attempt{position: p.positions[s.delivered], outcome: verdict.Outcome{Verdict: verdict.Fault, Message: failed.Error()}})
			s.delivered++
		}
	case s.memory.limitExceeded && s.delivered < answered:
		suspects = answered - s.delivered
		if result.Ending == box.PassedMemory && answered < n {
			suspects++
		}
	default:
		err = p.end(result, long)
	}
	return s.delivered, suspects, err
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
func (p *callProcess) judge(ctx context.Context) {
	for a := range p.judging {
		position := p.positions[a.number]
		p.each(attempt{position: position, outcome: p.run.caseRun(p.worker, position).ofAnswer(ctx, a), after: p.before(a.number)})
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
func (p *callProcess) input(token string, positions []int) (text []byte, err error) {
	text = []byte(call.Header(token))
	most := mostArguments
	if p.run.plan.leaves {
		most = mostLeft
	}
	for _, position := range positions {
		before := len(text)
		args, err := p.arguments(position)
		if err != nil {
			return text, err
		}
		text = call.AppendLine(text, args)
		p.state.protocol.long = append(p.state.protocol.long, len(text)-before > call.BeginsPast)
		p.positions = append(p.positions, position)
		if len(text) > most {
			break
		}
	}
	return text, nil
}

func (p *callProcess) arguments(position int) ([]any, error) {
	c := p.run.test(position)
	text, err := dataText(c.Input)
	if err != nil {
		return nil, fmt.Errorf("cannot read the arguments: %w", err)
	}
	args, err := call.Arguments(p.run.judge.problem.Call, text, call.WideAsText(p.run.plan.Build.Language))
	if err != nil {
		return nil, fmt.Errorf("%s: %w", c.Where, err)
	}
	return args, nil
}

// answer takes one message of the driver. The lock is held.
func (p *callProcess) answer(a call.Answer) {
	s := &p.state
	switch {
	case s.protocol.foul: // the process is being ended, and whatever it still says counts for nothing
		return
	case a.Kind == call.Asks && s.asking != nil:
		if s.asking.wrong == "" && s.asking.fault == nil {
			p.ask(a.Text)
		}
		return
	case a.Kind == call.Awaits && s.protocol.ready && len(s.protocol.answers) < s.protocol.calls:
		s.protocol.awaits = true // and the call goes on
		return
	case !s.protocol.take(a, time.Now(), s.least):
		p.stop()
		return
	}
	s.least = 0
	if s.asking != nil && !slices.Contains([]call.Kind{call.Begin, call.Unserved, call.Writes, call.GoesOn}, a.Kind) {
		p.nextCall(len(s.protocol.answers))
	}
	p.advance()
}

// lookMemory is how often the memory is looked at because of calls that were
// answered. No call is told before it was seen that the peak, which the kernel
// keeps, is within the limit.
const lookMemory = 10 * time.Millisecond

// advance looks at the memory, where that is due, so that calls can be told. The
// lock is held.
func (p *callProcess) advance() {
	s := &p.state
	s.protocol.marked(min(s.out.Count(), s.errs.Count())-1, time.Now())
	if s.delivered < p.complete() && time.Since(s.memory.looked) > lookMemory {
		s.memory.looked = time.Now() // also where nothing runs any more
		if usage, ok := p.worker.box.Now(); ok {
			p.seen(usage)
		}
	}
}

// complete returns how many calls were answered and had all come that they
// printed. The last one is not among them before it is known that no other answer comes.
func (p *callProcess) complete() int {
	most := len(p.positions)
	if !p.state.ended {
		most--
	}
	return min(len(p.state.protocol.answers), most, p.state.out.Count()-1, p.state.errs.Count()-1)
}

// seen takes a look at what the process uses, and hands all calls that had ended
// before to be judged. The lock is held.
func (p *callProcess) seen(usage verdict.Usage) {
	s := &p.state
	s.memory.looked = time.Now()
	s.memory.peak = max(s.memory.peak, usage.Memory)
	if s.memory.peak > p.limits.Memory {
		if !s.memory.limitExceeded {
			s.memory.limitExceeded, s.cut = true, cutOff{box.PassedMemory, len(s.protocol.answers), usage.CPU}
		}
		p.stop()
		return
	}
	if s.memory.peak > 0 { // else it has ended, and its end tells
		p.deliverUpTo(p.complete())
	}
}

func (p *callProcess) deliverUpTo(n int) {
	for p.state.delivered < n {
		p.deliver()
	}
}

// deliver hands the next call, which has been answered, to be judged.
func (p *callProcess) deliver() {
	s := &p.state
	n := s.delivered
	s.delivered++
	near := !s.memory.nearTold && share(s.memory.peak, p.limits.Memory) > closeShare
	s.memory.nearTold = s.memory.nearTold || near
	p.judging <- answered{n, s.protocol.answers[n], s.protocol.arrived[n], s.memory.peak, near, s.out.Take(n + 1), s.errs.Take(n + 1)}
	s.protocol.answers[n].Text = ""
}

// before names the case that was called before one in this process.
func (p *callProcess) before(n int) string {
	if n == 0 {
		return ""
	}
	return p.run.test(p.positions[n-1]).Name
}

// end tells what became of the call with which the process ended, if it did not end
// by itself after the last. The error is a *refusedError or an *unloadedError.
func (p *callProcess) end(result box.Result, tooLong bool) error {
	s := &p.state
	if s.protocol.unserved != "" {
		return &refusedError{p.run.plan.Build.OwnName(s.protocol.unserved)}
	}
	n := s.delivered
	if n == len(p.positions) {
		return nil
	}
	if s.cut.why != "" && s.cut.at != len(s.protocol.answers) {
		return nil // it answered in the moment in which it was ended; the next call is not to blame
	}
	if result.Ending == box.EndedByRequest && s.cut.why != "" {
		result.Ending = s.cut.why
		result.Usage.CPU = s.cut.used
	}
	part := n + 1
	if !s.protocol.ready {
		part = 0
	}
	o := p.run.caseRun(p.worker, p.positions[n]).ofEnd(lastCall{
		result: result, wall: time.Since(s.protocol.since), memory: s.memory.peak, out: s.out.Take(part), errs: s.errs.Take(part),
		ready: s.protocol.ready, tooLong: tooLong,
	})
	if o.Verdict == verdict.Stalled && s.protocol.awaits {
		o.Message = "what it returned is never done"
	}
	if s.starved {
		o.Verdict, o.Message, o.Hints = verdict.Fault, "this machine is too busy to judge", nil
	}
	if a := s.asking; a != nil && a.fault != nil {
		o.Verdict, o.Message, o.Hints = verdict.Fault, a.fault.Error(), nil
	} else if a != nil && a.wrong != "" {
		o.Verdict, o.Message, o.Hints = verdict.WrongAnswer, a.wrong, nil
		if !s.protocol.ready {
			o.Verdict = verdict.RuntimeError
		}
	}
	if s.protocol.foul {
		o.Verdict, o.Message, o.Hints = verdict.RuntimeError, "it wrote to descriptor 3, on which the judge hears what the function returns", nil
	}
	if !s.protocol.ready {
		return &unloadedError{o}
	}
	s.delivered++
	cut := p.run.judge.problem.Call.Class != nil && o.Verdict != verdict.Fault && !s.protocol.foul
	p.each(attempt{position: p.positions[n], outcome: o, after: p.before(n), cut: cut})
	return nil
}

// How often the watch looks.
const (
	soonestWatch = 2 * time.Millisecond
	latestWatch  = 20 * time.Millisecond
)

// stolen adds up the time that a virtual machine did not get while a process could run: at both of
// two looks it was ready, and what lies between is neither processor time nor known as starved.
type stolen struct {
	sum   time.Duration
	ready bool // at the last look
	at    time.Time
	usage verdict.Usage // likewise
}

// look looks again, and returns the sum.
func (s *stolen) look(ready bool, now time.Time, usage verdict.Usage) time.Duration {
	if ready && s.ready {
		s.sum += max(0, now.Sub(s.at)-(usage.CPU-s.usage.CPU)-(usage.Starved-s.usage.Starved))
	}
	s.ready, s.at, s.usage = ready, now, usage
	return s.sum
}

// watch ends the process when a call has passed a limit of time.
func (p *callProcess) watch(ctx context.Context) {
	s := &p.state
	messages, base := -1, verdict.Usage{} // at the last message
	var taken stolen
	timer := time.NewTimer(soonestWatch)
	defer timer.Stop()
	for {
		select {
		case <-ctx.Done():
			return
		case <-timer.C:
		}
		p.mu.Lock()
		ready := s.protocol.ready // else it may be what starts the program that is seen, and the box looks after the limit
		p.mu.Unlock()
		usage, known := p.worker.box.Now()
		usage.Starved += taken.look(known && p.worker.box.Ready(), time.Now(), usage)
		p.mu.Lock()
		if known && ready {
			p.seen(usage)
		}
		most, wall := p.limits.Time, p.limits.Wall
		if !s.protocol.ready || s.protocol.returned {
			most, wall = max(most, loadTime), max(wall, loadWall)
		}
		if s.protocol.messages != messages {
			messages, base = s.protocol.messages, usage
		}
		// What the machine does not let it have does not count.
		elapsed := time.Since(s.protocol.since)
		used, waited := usage.CPU-base.CPU, elapsed-max(0, usage.Starved-base.Starved)
		if known && !s.protocol.returned {
			s.least = max(s.least, used)
		}
		why := box.Exited
		switch {
		case known && used > most:
			why = box.PassedTime
		case waited > wall, elapsed > box.TooBusy*wall:
			why, s.starved = box.PassedWall, waited <= wall
		case s.out.Size() > p.limits.Output || s.errs.Size() > p.limits.Output:
			why = box.PassedOutput
		}
		over := s.memory.limitExceeded || why != box.Exited
		if why != box.Exited && !s.memory.limitExceeded {
			s.cut = cutOff{why, len(s.protocol.answers), used}
		}
		p.mu.Unlock()
		if over {
			p.stop()
			return
		}
		timer.Reset(min(max(soonestWatch, min(most-used, wall-waited)/2), latestWatch))
	}
}
