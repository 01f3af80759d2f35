package judge

import (
	"bytes"
	"context"
	"errors"
	"fmt"
	"io"
	"os"
	"path/filepath"
	"strconv"
	"strings"
	"sync"
	"time"

	"coldverdict/core/box"
	"coldverdict/core/script"
	"coldverdict/core/verdict"
)

// In an interactive problem two programs run beside each other, each in a box
// of its own and under its own limits. What one prints is handed to the other
// as it comes, and written down on the way.

// How much of a talk is kept.
const (
	saidFirst   = 200 // lines
	saidLast    = 200
	saidLongest = 400 // bytes of a line
)

// A transcript writes a talk down.
type transcript struct {
	mu    sync.Mutex
	began time.Time
	talk  verdict.Talk
	open  [2]*verdict.Said // lines without an end yet: the candidate's, the interactor's
	said  int              // writes, so that it is seen whether anything was said
}

func (t *transcript) write(byOther bool, text []byte) {
	t.mu.Lock()
	defer t.mu.Unlock()
	t.said++
	side := 0
	if byOther {
		side = 1
	}
	for len(text) > 0 {
		line := t.open[side]
		if line == nil {
			line = &verdict.Said{ByOther: byOther, After: time.Since(t.began), Open: true}
			t.open[side] = line
		}
		part, rest, ended := bytes.Cut(text, []byte{'\n'})
		if room := saidLongest - len(line.Text); room > 0 {
			line.Text += string(part[:min(len(part), room)])
		}
		if ended {
			line.Open = false
			t.keep(*line)
			t.open[side] = nil
		}
		text = rest
	}
}

// keep keeps a line; of many the first and the last. The lock is held.
func (t *transcript) keep(line verdict.Said) {
	k := &t.talk
	k.Lines = append(k.Lines, line)
	if len(k.Lines) >= saidFirst+2*saidLast {
		k.Gap = saidFirst
		k.LeftOut += saidLast
		k.Lines = append(k.Lines[:saidFirst], k.Lines[saidFirst+saidLast:]...)
	}
}

// whole returns the talk so far, lines without an end last.
func (t *transcript) whole() *verdict.Talk {
	t.mu.Lock()
	defer t.mu.Unlock()
	k := t.talk
	k.Lines = append([]verdict.Said(nil), k.Lines...)
	for _, line := range t.open {
		if line != nil {
			k.Lines = append(k.Lines, *line)
		}
	}
	return &k
}

// unfinished returns what a side said last, if that has no line end.
func (t *transcript) unfinished(side int) string {
	t.mu.Lock()
	defer t.mu.Unlock()
	if line := t.open[side]; line != nil {
		return line.Text
	}
	return ""
}

func (t *transcript) count() int {
	t.mu.Lock()
	defer t.mu.Unlock()
	return t.said
}

// A recorder hands what one side prints to the other, and has it written down.
type recorder struct {
	byOther    bool
	transcript *transcript
	to         io.Writer
}

func (r recorder) Write(text []byte) (int, error) {
	r.transcript.write(r.byOther, text)
	return r.to.Write(text)
}

// A conversation is one run of both sides.
type conversation struct {
	run          *caseRun
	interactor   *checker
	dir          string // of the input that the interactor is given
	transcript   transcript
	toInteractor *box.Pipe
	toCandidate  *box.Pipe
	stop         context.Context    // ends both sides
	end          context.CancelFunc // ends stop
	time         talkTime
	said         interactorEnd
	ends         talkEnds
}

// The talkEnds say what ended first. The lock guards the rest.
type talkEnds struct {
	mu             sync.Mutex
	candidate      bool // before the interactor
	interactor     bool // before the candidate
	bothWait       bool // neither would ever have said anything again
	interactorSlow bool // the candidate waits, and the interactor does not
	passedWall     bool // the time that is the two sides' own passed the candidate's limit
}

// The talkTime says how much of the elapsed time was not the two sides' own.
type talkTime struct {
	seen    bool // both sides could be looked at
	looking looking
	notOwn  time.Duration // as the last look found
	delayed time.Duration // in which this process did not run, before the talk
	starved time.Duration // in which the machine did not let the interactor run
}

// An interactorEnd is what the interactor left at its end.
type interactorEnd struct {
	decision  decision
	undecided error    // why there is no decision
	unread    string   // what it had not read when it decided
	errs      box.Head // what it wrote to standard error
	words     box.Head // its decision
}

// conversation prepares one. It must be closed.
func (r *caseRun) conversation() (c *conversation, err error) {
	j := r.run.judge
	c = &conversation{
		run: r, interactor: &j.checkers[j.checkerOf(r.test)].checker, dir: r.folder(),
		said: interactorEnd{errs: box.Head{Most: KeptText}, words: box.Head{Most: KeptText}},
	}
	c.stop, c.end = context.WithCancel(context.Background())
	if c.toInteractor, err = box.NewPipe(); err != nil {
		return nil, err
	}
	if c.toCandidate, err = box.NewPipe(); err != nil {
		c.toInteractor.Close()
		return nil, err
	}
	if err := c.giveInput(); err != nil {
		c.close()
		return nil, fmt.Errorf("cannot give the interactor the input: %w", err)
	}
	return c, nil
}

func (c *conversation) giveInput() error {
	if err := os.MkdirAll(c.dir, 0o700); err != nil {
		return err
	}
	input, err := openInput(c.run.test.Input)
	if err != nil {
		return err
	}
	defer input.Close()
	return (&checkerFolder{dir: c.dir}).put(script.InputFile, input)
}

func (c *conversation) close() {
	c.end()
	c.toInteractor.Close()
	c.toCandidate.Close()
	os.RemoveAll(c.dir)
}

// A talkExecutor runs each case of an interactive problem as a talk of the candidate with the
// interactor.
type talkExecutor struct{ run *solutionRun }

func (x *talkExecutor) batches() [][]int { return oneByOne(x.run.plan.Cases) }

func (x *talkExecutor) beside() int { return 0 }

func (x *talkExecutor) attempts(ctx context.Context, w *worker, positions []int, each func(attempt)) error {
	return x.run.eachAlone(ctx, w, positions, (*caseRun).converse, each)
}

// diagnose learns nothing: a talk cannot be had with other limits.
func (x *talkExecutor) diagnose(context.Context, *worker, int) ([]string, error) { return nil, nil }

func (x *talkExecutor) reached(context.Context, *worker, int, *verdict.Outcome) error { return nil }

// converse runs the candidate and the interactor.
func (r *caseRun) converse(ctx context.Context) (o verdict.Outcome, err error) {
	c, err := r.conversation()
	if err != nil {
		return o, err
	}
	defer c.close()
	// A box takes a while to open, which is nobody's time.
	if err := errors.Join(r.worker.open(), r.worker.checker.open()); err != nil {
		return o, err
	}
	c.transcript.began, c.time.delayed = time.Now(), box.Delayed()
	var sides, watch sync.WaitGroup
	var failed error
	watching, watched := context.WithCancel(ctx)
	sides.Go(func() { failed = c.runInteractor(ctx, c.toCandidate) })
	watch.Go(func() { c.watchBoth(watching) })
	out, errs := &box.Head{Most: KeptText}, &box.Head{Most: KeptText}
	limits := r.limits
	limits.Wall *= box.TooBusy // what the machine does not give to either side does not count: watchBoth looks at it
	result, err := r.worker.Run(ctx, box.Run{
		Program: r.run.prepared.program(r.run.solution, r.limits), Limits: limits, Input: c.toCandidate.Input, Prompt: true, Stop: c.stop,
		Output: io.MultiWriter(out, recorder{false, &c.transcript, c.toInteractor}), Errors: errs,
	})
	c.ends.mu.Lock()
	c.ends.candidate = !c.ends.interactor
	c.ends.mu.Unlock()
	if err != nil || !result.Succeeded() {
		c.end() // nothing that the interactor still says can matter
	}
	c.toInteractor.End()
	sides.Wait()
	watched()
	watch.Wait()
	if err := errors.Join(err, failed); err != nil {
		return o, err
	}
	tooBusy := result.Ending == box.PassedWall                                                     // which is ten times the limit
	if c.ends.passedWall && (result.Ending == box.EndedByRequest || result.Ending == box.Exited) { // the interactor may have gone first
		result.Ending, result.Signal, result.ExitCode = box.PassedWall, 0, 0
	}
	result.Usage.Starved = min(result.Usage.Wall, max(c.time.notOwn, result.Usage.Starved+c.time.starved+box.Delayed()-c.time.delayed))
	o, m := r.outcomeOf(result, out, errs)
	o.Talk = c.transcript.whole()
	o.Talk.Other = c.interactor.name
	o.Checker = verdict.Text{Bytes: c.said.errs.Text, Cut: c.said.errs.Cut}
	if c.ends.interactor {
		o.Stderr = verdict.Text{} // what it says of the end of its input is no cause
	}
	c.judge(&o, result)
	if tooBusy && o.Verdict == verdict.Stalled {
		o.Verdict, o.Message = verdict.Fault, "this machine is too busy to judge"
	}
	r.remark(&o, m)
	return o, nil
}

// runInteractor runs the interactor to its end. What it says goes to listener.
func (c *conversation) runInteractor(ctx context.Context, listener io.Writer) error {
	limits := c.run.run.judge.problem.Limits.OfChecker()
	limits.Wall += box.TooBusy * c.run.limits.Wall // it waits for the candidate most of the time
	program, err := c.interactor.program(limits, filepath.Join(c.dir, script.InputFile))
	if err != nil {
		c.end()
		return err
	}
	result, err := c.run.worker.checker.Run(ctx, box.Run{
		Program: program, Limits: limits, Input: c.toInteractor.Input, Prompt: true, Stop: c.stop,
		Output: recorder{true, &c.transcript, listener}, Errors: &c.said.errs, Decision: &c.said.words,
	})
	if err != nil {
		c.end()
		return err
	}
	c.ends.mu.Lock()
	c.ends.interactor, c.time.starved = !c.ends.candidate, result.Usage.Starved
	c.ends.mu.Unlock()
	c.said.decision, c.said.undecided = c.interactor.judged(result, &c.said.words, &c.said.errs, limits)
	_, rest, _ := strings.Cut(string(c.said.words.Text), "\n")
	if quoted, ok := strings.CutPrefix(strings.TrimSpace(rest), script.UnreadWord); ok && c.interactor.script != "" {
		c.said.unread, _ = strconv.Unquote(quoted)
	}
	if c.said.undecided != nil || c.said.decision.verdict == verdict.WrongAnswer {
		c.end() // nothing that the candidate still does can matter
	}
	c.toCandidate.End()
	return nil
}

// How often it is looked whether both sides wait.
const (
	firstLook  = 3 * time.Millisecond // without a word
	seldomLook = 20 * time.Millisecond
	longWait   = 250 * time.Millisecond // after which programs of many threads are believed to wait
)

// watchBoth ends a talk in which both sides wait for each other.
func (c *conversation) watchBoth(ctx context.Context) {
	said, quiet := -1, firstLook
	var since, slowAt time.Time // since when both wait; when only the candidate did, last
	mine, theirs := c.run.worker.box, c.run.worker.checker.box
	timer := time.NewTimer(quiet)
	defer timer.Stop()
	for {
		select {
		case <-ctx.Done():
			return
		case <-timer.C:
		}
		if c.tooLong() {
			c.ends.mu.Lock()
			c.ends.passedWall = !c.ends.interactor && !c.ends.candidate
			c.ends.mu.Unlock()
			if c.ends.passedWall { // else what is left has limits of its own
				c.end()
			}
			return
		}
		if now := c.transcript.count(); now != said {
			said, quiet, since, slowAt = now, firstLook, time.Time{}, time.Time{}
		} else {
			quiet = min(2*quiet, seldomLook)
			candidate, other := mine.Waiting(), theirs.Waiting()
			if c.interactor.script != "" && other == box.MayWait {
				other = box.Waits // it says something only when it has heard something
			}
			// In this order: what was under way before either was seen to wait
			// has either not arrived, or is counted.
			idle := mine.Quiet() && theirs.Quiet() && c.toCandidate.Idle() && c.toInteractor.Idle() && c.transcript.count() == said
			c.ends.mu.Lock()
			over := c.ends.interactor || c.ends.candidate
			if !over && idle && candidate != box.NotWaiting && other == box.NotWaiting {
				slowAt = time.Now()
			}
			// The candidate's limit may have ended it just now, so that it waits no more.
			c.ends.interactorSlow = !c.ends.interactor && time.Since(slowAt) < longWait
			c.ends.mu.Unlock()
			both := idle && !over && candidate != box.NotWaiting && other != box.NotWaiting
			switch {
			case !both:
				since = time.Time{}
			case since.IsZero():
				since = time.Now()
			}
			certain := candidate == box.Waits && other == box.Waits
			if both && (certain || time.Since(since) > longWait) {
				c.ends.mu.Lock()
				c.ends.bothWait = true
				c.ends.mu.Unlock()
				c.end()
				return
			}
		}
		timer.Reset(quiet)
	}
}

// A look is what one look at a talk finds.
type look struct {
	at    time.Time
	cpu   time.Duration // of both sides so far
	ready bool          // a thread of either side could run
	said  int           // what was said so far, in writes
}

// A looking adds up what looks at a talk found.
type looking struct {
	last    look
	ready   time.Duration // in which a thread could have run, and none did
	waiting time.Duration // in which nobody could have run, and nothing was said
}

// note takes one more look. Between two looks that both found a thread ready nobody waited: what
// was not computed in that time the machine gave to others, or its host did.
func (l *looking) note(now look) {
	if elapsed := now.at.Sub(l.last.at); !l.last.at.IsZero() {
		switch {
		case l.last.ready && now.ready:
			l.ready += max(0, elapsed-max(0, now.cpu-l.last.cpu))
		case !l.last.ready && !now.ready && l.last.said == now.said:
			l.waiting += elapsed
		}
	}
	l.last = now
}

// own is how much of the elapsed time is the two sides' own. Starved is what they and this
// process, through which all words go, were seen to be kept from. On a machine that is busy not
// all of that can be seen; there only what they computed counts, and what they waited.
func (l *looking) own(elapsed, starved time.Duration) time.Duration {
	own := max(0, elapsed-max(starved, l.ready))
	if elapsed-own > elapsed/busyShare {
		own = min(own, l.last.cpu+l.waiting)
	}
	return own
}

// busyShare is the part of the elapsed time, one in so many, from which on a machine is busy that
// kept a talk from it.
const busyShare = 20

// tooLong reports that the candidate's limit of elapsed time has passed, but for the time in
// which the machine did something else.
func (c *conversation) tooLong() bool {
	now := time.Now()
	elapsed := now.Sub(c.transcript.began)
	limit := c.run.limits.Wall
	if elapsed < limit/2 {
		return false // it cannot be near, and to look takes time
	}
	candidate, interactor := c.run.worker.box, c.run.worker.checker.box
	mine, ok := candidate.Now()
	theirs, ok2 := interactor.Now()
	c.time.looking.note(look{now, mine.CPU + theirs.CPU, candidate.Ready() || interactor.Ready(), c.transcript.count()})
	own := c.time.looking.own(elapsed, mine.Starved+theirs.Starved+box.Delayed()-c.time.delayed)
	c.time.notOwn = elapsed - own
	c.time.seen = c.time.seen || ok && ok2
	if !ok || !ok2 { // one of them has just ended, or nothing can be seen on this system
		return elapsed > limit && !c.time.seen
	}
	return elapsed > limit && own > limit
}

// judge sets the verdict. What ended first counts: what a side does after the
// other one has gone is no fault of its own.
func (c *conversation) judge(o *verdict.Outcome, result box.Result) {
	passed := result.Ending != box.Exited && result.Ending != box.EndedByRequest
	switch {
	case passed && result.Ending == box.PassedWall && c.ends.interactorSlow:
		o.Verdict, o.Message = verdict.Fault, fmt.Sprintf("%s %s did not answer within %v", c.interactor.role, c.interactor.name, c.run.limits.Wall)
	case passed:
	case c.ends.bothWait:
		o.Verdict, o.Waited, o.Message = verdict.Stalled, true, c.waitWords()
	case c.ends.candidate && o.Verdict != verdict.Accepted:
	case c.said.undecided != nil:
		o.Verdict, o.Message = verdict.Fault, c.said.undecided.Error()
	case c.said.decision.verdict == verdict.WrongAnswer:
		c.said.decision.into(o)
	case o.Verdict != verdict.Accepted: // it failed after all was said
	default:
		late := c.said.unread + string(c.toInteractor.Unread(saidLongest))
		c.said.decision.into(o)
		if late = strings.TrimSpace(late); late != "" {
			o.Verdict, o.Share = verdict.WrongAnswer, 0
			o.Message = fmt.Sprintf("it went on talking after the end: %q", shortened(late))
		}
	}
}

// waitWords says why neither side goes on.
func (c *conversation) waitWords() string {
	if last := c.transcript.unfinished(0); last != "" {
		return fmt.Sprintf("both sides wait: its last words %q have no line end", shortened(last))
	}
	if c.transcript.count() == 0 {
		return "both sides wait, and nobody has said anything"
	}
	return "both sides wait for each other"
}
