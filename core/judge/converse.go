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
	open  [2]*verdict.Said // lines without an end yet: the candidate's, the other side's
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

// A voice hands what one side prints to the other, and has it written down.
type voice struct {
	byOther bool
	book    *transcript
	to      io.Writer
}

func (v voice) Write(text []byte) (int, error) {
	v.book.write(v.byOther, text)
	return v.to.Write(text)
}

// A conversation is one run of both sides.
type conversation struct {
	*caseRun
	other            *arbiter
	dir              string // of the input that the other side is given
	book             transcript
	toOther, toMe    *box.Pipe // to the other side, and to the candidate
	stop             context.Context
	end              context.CancelFunc // ends both sides
	mu               sync.Mutex
	candidateEnded   bool // before the other side
	otherEnded       bool // before the candidate
	bothWait         bool // neither would ever have said anything again
	otherIsSlow      bool // the candidate waits, and the other side does not
	passedWall       bool // the time that is the two sides' own passed the candidate's limit
	standing         standing
	delayed          time.Duration // in which this process did not run, before the talk
	otherStarved     time.Duration // in which the machine did not let the other side run
	decision         decision
	undecided        error // why there is no decision
	unread           string
	otherErrs, words box.Head
}

// conversation prepares one. It must be closed.
func (r *caseRun) conversation() (c *conversation, err error) {
	c = &conversation{
		caseRun: r, other: &r.arbiters[r.wantedBy(r.test)].arbiter,
		dir:       filepath.Join(r.checks, "hearing-"+strconv.Itoa(r.worker.number)),
		otherErrs: box.Head{Most: KeptText}, words: box.Head{Most: KeptText},
	}
	c.stop, c.end = context.WithCancel(context.Background())
	if c.toOther, err = box.NewPipe(); err != nil {
		return nil, err
	}
	if c.toMe, err = box.NewPipe(); err != nil {
		c.toOther.Close()
		return nil, err
	}
	if err := c.giveInput(); err != nil {
		c.close()
		return nil, fmt.Errorf("cannot give the other side the input: %w", err)
	}
	return c, nil
}

func (c *conversation) giveInput() error {
	if err := os.MkdirAll(c.dir, 0o700); err != nil {
		return err
	}
	input, err := openInput(c.test.Input)
	if err != nil {
		return err
	}
	defer input.Close()
	return (&hearing{dir: c.dir}).put(script.InputFile, input)
}

func (c *conversation) close() {
	c.end()
	c.toOther.Close()
	c.toMe.Close()
	os.RemoveAll(c.dir)
}

// converse runs the candidate and the other side of an interactive problem.
func (r *caseRun) converse(ctx context.Context) (o verdict.Outcome, err error) {
	c, err := r.conversation()
	if err != nil {
		return o, err
	}
	defer c.close()
	// A box takes a while to open, which is nobody's time.
	if err := errors.Join(r.worker.open(), r.worker.arbiter.open()); err != nil {
		return o, err
	}
	c.book.began, c.delayed = time.Now(), box.Delayed()
	var sides, watch sync.WaitGroup
	var failed error
	watching, watched := context.WithCancel(ctx)
	sides.Go(func() { failed = c.runOther(ctx, c.toMe) })
	watch.Go(func() { c.watchBoth(watching) })
	out, errs := &box.Head{Most: KeptText}, &box.Head{Most: KeptText}
	limits := r.limits
	limits.Wall *= box.TooBusy // what the machine does not give to either side does not count: watchBoth looks at it
	result, err := r.worker.Run(ctx, box.Run{
		Program: r.program, Limits: limits, Input: c.toMe.Input, Prompt: true, Stop: c.stop,
		Output: io.MultiWriter(out, voice{false, &c.book, c.toOther}), Errors: errs,
	})
	c.mu.Lock()
	c.candidateEnded = !c.otherEnded
	c.mu.Unlock()
	if err != nil || !result.Succeeded() {
		c.end() // nothing that the other side still says can matter
	}
	c.toOther.End()
	sides.Wait()
	watched()
	watch.Wait()
	if err := errors.Join(err, failed); err != nil {
		return o, err
	}
	tooBusy := result.Ending == box.PassedWall || c.passedWall && result.Usage.Own()-c.otherStarved <= r.limits.Wall
	if c.passedWall && (result.Ending == box.EndedByRequest || result.Ending == box.Exited) { // the other side may have gone first
		result.Ending, result.Signal, result.ExitCode = box.PassedWall, 0, 0
	}
	result.Usage.Starved = min(result.Usage.Wall, result.Usage.Starved+c.otherStarved+box.Delayed()-c.delayed)
	o, said := r.outcomeOf(result, out, errs)
	o.Talk = c.book.whole()
	o.Talk.Other = c.other.name
	o.Checker = verdict.Text{Bytes: c.otherErrs.Text, Cut: c.otherErrs.Cut}
	if c.otherEnded {
		o.Stderr = verdict.Text{} // what it says of the end of its input is no cause
	}
	c.judge(&o, result)
	if tooBusy && o.Verdict == verdict.Stalled {
		o.Verdict, o.Message = verdict.Fault, "this machine is too busy to judge"
	}
	r.remark(&o, result, said)
	return o, nil
}

// runOther runs the other side to its end. What it says goes to listener.
func (c *conversation) runOther(ctx context.Context, listener io.Writer) error {
	limits := c.problem.Limits.OfChecker()
	limits.Wall += box.TooBusy * c.limits.Wall // it waits for the candidate most of the time
	program, err := c.other.program(limits, filepath.Join(c.dir, script.InputFile))
	if err != nil {
		c.end()
		return err
	}
	result, err := c.worker.arbiter.Run(ctx, box.Run{
		Program: program, Limits: limits, Input: c.toOther.Input, Prompt: true, Stop: c.stop,
		Output: voice{true, &c.book, listener}, Errors: &c.otherErrs, Decision: &c.words,
	})
	if err != nil {
		c.end()
		return err
	}
	c.mu.Lock()
	c.otherEnded, c.otherStarved = !c.candidateEnded, result.Usage.Starved
	c.mu.Unlock()
	c.decision, c.undecided = c.other.decided(result, &c.words, &c.otherErrs, limits)
	_, rest, _ := strings.Cut(string(c.words.Text), "\n")
	if quoted, ok := strings.CutPrefix(strings.TrimSpace(rest), script.UnreadWord); ok && c.other.script != "" {
		c.unread, _ = strconv.Unquote(quoted)
	}
	if c.undecided != nil || c.decision.verdict == verdict.WrongAnswer {
		c.end() // nothing that the candidate still does can matter
	}
	c.toMe.End()
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
	mine, theirs := c.worker.box, c.worker.arbiter.box
	timer := time.NewTimer(quiet)
	defer timer.Stop()
	for {
		select {
		case <-ctx.Done():
			return
		case <-timer.C:
		}
		if c.tooLong() {
			c.mu.Lock()
			c.passedWall = !c.otherEnded && !c.candidateEnded
			c.mu.Unlock()
			if c.passedWall { // else what is left has limits of its own
				c.end()
			}
			return
		}
		if now := c.book.count(); now != said {
			said, quiet, since, slowAt = now, firstLook, time.Time{}, time.Time{}
		} else {
			quiet = min(2*quiet, seldomLook)
			candidate, other := mine.Waiting(), theirs.Waiting()
			if c.other.script != "" && other == box.MayWait {
				other = box.Waits // it says something only when it has heard something
			}
			// In this order: what was under way before either was seen to wait
			// has either not arrived, or is counted.
			idle := mine.Quiet() && theirs.Quiet() && c.toMe.Idle() && c.toOther.Idle() && c.book.count() == said
			c.mu.Lock()
			over := c.otherEnded || c.candidateEnded
			if !over && idle && candidate != box.NotWaiting && other == box.NotWaiting {
				slowAt = time.Now()
			}
			// The candidate's limit may have ended it just now, so that it waits no more.
			c.otherIsSlow = !c.otherEnded && time.Since(slowAt) < longWait
			c.mu.Unlock()
			both := idle && !over && candidate != box.NotWaiting && other != box.NotWaiting
			switch {
			case !both:
				since = time.Time{}
			case since.IsZero():
				since = time.Now()
			}
			certain := candidate == box.Waits && other == box.Waits
			if both && (certain || time.Since(since) > longWait) {
				c.mu.Lock()
				c.bothWait = true
				c.mu.Unlock()
				c.end()
				return
			}
		}
		timer.Reset(quiet)
	}
}

// A standing is what a look at a talk found, and what all looks have found so far.
type standing struct {
	at    time.Time
	cpu   time.Duration // of both sides
	ready bool          // a thread of either could run
	kept  time.Duration // in which one could have run, and did not
}

// note takes one more look. Between two looks that both found a thread ready nobody waited: what
// was not computed in that time the machine gave to others, or its host did.
func (s *standing) note(now time.Time, cpu time.Duration, ready bool) {
	if !s.at.IsZero() && s.ready && ready {
		s.kept += max(0, now.Sub(s.at)-max(0, cpu-s.cpu))
	}
	s.at, s.cpu, s.ready = now, cpu, ready
}

// tooLong reports that the candidate's limit of elapsed time has passed, but for the time in
// which either side could have run and did not.
func (c *conversation) tooLong() bool {
	now := time.Now()
	elapsed := now.Sub(c.book.began)
	if elapsed < c.limits.Wall/2 {
		return false // it cannot be near, and to look takes time
	}
	mine, ok := c.worker.box.Now()
	theirs, ok2 := c.worker.arbiter.box.Now()
	c.standing.note(now, mine.CPU+theirs.CPU, c.worker.box.Ready() || c.worker.arbiter.box.Ready())
	ours := box.Delayed() - c.delayed // what is said goes through here
	starved := max(mine.Starved+theirs.Starved+ours, c.standing.kept)
	most := c.limits.Wall
	if starved > elapsed/20 {
		most *= 2 // the machine is busy, and from here not all that it keeps can be seen
	}
	return elapsed > c.limits.Wall && (!ok || !ok2 || elapsed-starved > most)
}

// judge sets the verdict. What ended first counts: what a side does after the
// other one has gone is no fault of its own.
func (c *conversation) judge(o *verdict.Outcome, result box.Result) {
	passed := result.Ending != box.Exited && result.Ending != box.EndedByRequest
	switch {
	case passed && result.Ending == box.PassedWall && c.otherIsSlow:
		o.Verdict, o.Message = verdict.Fault, fmt.Sprintf("%s %s did not answer within %v", c.other.role, c.other.name, c.limits.Wall)
	case passed:
	case c.bothWait:
		o.Verdict, o.Waited, o.Message = verdict.Stalled, true, c.waitWords()
	case c.candidateEnded && o.Verdict != verdict.Accepted:
	case c.undecided != nil:
		o.Verdict, o.Message = verdict.Fault, c.undecided.Error()
	case c.decision.verdict == verdict.WrongAnswer:
		c.decision.into(o)
	case o.Verdict != verdict.Accepted: // it failed after all was said
	default:
		late := c.unread + string(c.toOther.Unread(saidLongest))
		c.decision.into(o)
		if late = strings.TrimSpace(late); late != "" {
			o.Verdict, o.Share = verdict.WrongAnswer, 0
			o.Message = fmt.Sprintf("it went on talking after the end: %q", shortened(late))
		}
	}
}

// waitWords says why neither side goes on.
func (c *conversation) waitWords() string {
	if last := c.book.unfinished(0); last != "" {
		return fmt.Sprintf("both sides wait: its last words %q have no line end", shortened(last))
	}
	if c.book.count() == 0 {
		return "both sides wait, and nobody has said anything"
	}
	return "both sides wait for each other"
}
