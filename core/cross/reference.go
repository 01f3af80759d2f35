package cross

import (
	"bytes"
	"context"
	"fmt"
	"slices"
	"time"

	"coldverdict/core/judge"
	"coldverdict/core/problem"
	"coldverdict/core/shape"
	"coldverdict/core/verdict"
)

// What the reference is tried on before anything is compared with it: so many of the
// problem's own cases, up to a size in bytes.
const (
	mostProofs = 16
	proofSize  = 2 << 10
)

// proveReference runs the reference on cases whose answers are known. One that is
// wrong there is of no use, and ok is false.
func (s *search) proveReference(ctx context.Context) (ok bool, err error) {
	if s.base != ByReference {
		return true, nil
	}
	var proofs []problem.Case
	for _, c := range s.problem.Cases {
		known := len(c.Accepted) > 0 && c.Kept == "" && !c.Sealed && c.Compare == s.problem.Compare
		if known && c.Input.Size <= proofSize && s.options.Reference.Runs(c.Group) && len(proofs) < mostProofs {
			proofs = append(proofs, c)
		}
	}
	if len(proofs) == 0 {
		return true, nil
	}
	outcomes, err := s.prepared.Judge(ctx, 0, judge.Request{Solution: s.reference, Cases: proofs, Limits: verdict.Limits{Time: referenceTime, Memory: referenceMemory}, SkipRerun: true})
	if err != nil {
		return false, err
	}
	for i, o := range outcomes {
		t := trouble{i, o}
		if o.Verdict == verdict.Fault {
			return false, &FaultError{Message: o.Message}
		}
		if !o.Verdict.Passing() && !t.slow() {
			s.result.Health.Wrong = fmt.Sprintf("it fails on %s, whose answer is known", proofs[i].Name)
			s.result.Health.WrongOn = &Failure{proofs[i].Input, o}
			return false, nil
		}
	}
	return true, nil
}

// isTooLarge reports a large input that the reference is too slow for.
func (s *search) isTooLarge(p *pack) bool {
	s.mu.Lock()
	defer s.mu.Unlock()
	return p.stream == largeStream && s.slowest > 0 && p.size >= s.slowest
}

// So many runs without any answer are enough to give a reference up: those in which
// it was too slow, and those in which it failed otherwise.
const (
	enoughSlow   = 3
	enoughFailed = 10
)

// referenceFailed notes what the reference did not answer, and gives it up where it answers
// nothing.
func (s *search) referenceFailed(ctx context.Context, worker int, p *pack, troubles []trouble) error {
	var first *trouble // that is shown
	s.mu.Lock()
	h := &s.result.Health
	none := h.Answered == 0 && len(troubles) == len(p.texts)
	failed, slow := h.Failed, h.Slow
	for _, t := range troubles {
		if !t.slow() {
			if h.Failed++; h.Failed == 1 {
				first = &t
			}
			continue
		}
		size := int64(len(p.texts[t.at]))
		h.Slow++
		if h.SlowFrom == 0 || size < h.SlowFrom {
			h.SlowFrom = size
		}
		if p.stream == largeStream && (s.slowest == 0 || size < s.slowest) {
			s.slowest = size
		}
	}
	if h.Failed > failed {
		s.failedRuns++
	}
	if h.Slow > slow {
		s.slowRuns++
	}
	switch {
	case h.Wrong != "" || !none:
	case s.slowRuns >= enoughSlow && p.stream != largeStream && h.Slow > slow:
		h.Wrong = fmt.Sprintf("it answered none of the first %d inputs in %g s each; the smallest of them has %d bytes", h.Slow, referenceTime.Seconds(), h.SlowFrom)
		at := slices.IndexFunc(troubles, trouble.slow)
		h.WrongOn = &Failure{dataOf(p.texts[troubles[at].at]), troubles[at].outcome}
	case s.failedRuns >= enoughFailed:
		h.Wrong = fmt.Sprintf("it failed on each of the first %d inputs", h.Failed)
	}
	over := h.Wrong != ""
	s.mu.Unlock()
	if first != nil {
		if err := s.showFailure(ctx, worker, p, *first); err != nil {
			return err
		}
	}
	if over {
		s.end()
	}
	return nil
}

func dataOf(text []byte) problem.Data { return problem.Data{Text: text, Size: int64(len(text))} }

// failureTime is how long a failure of the reference is shrunk.
const failureTime = 3 * time.Second

// showFailure shrinks the first input on which the reference fails.
func (s *search) showFailure(ctx context.Context, worker int, p *pack, t trouble) error {
	kind := kindOf(t.outcome)
	text := p.texts[t.at]
	last := t.outcome
	fails := func(ctx context.Context, text []byte) (bool, error) {
		_, again, err := s.ask(ctx, worker, [][]byte{text}, false)
		if err != nil || again == nil || kindOf(again.outcome) != kind {
			return false, err
		}
		last = again.outcome
		return true, nil
	}
	if in := s.bundling().failing(p, t.at).in; in != nil {
		bounded, end := context.WithTimeout(ctx, failureTime)
		defer end()
		small, _, err := s.problem.Shape.Shrink(bounded, in, fails)
		if err != nil {
			return err
		}
		text = small.Append(nil)
	}
	s.mu.Lock()
	defer s.mu.Unlock()
	s.result.Health.First = &Failure{dataOf(text), last}
	if h := &s.result.Health; h.Wrong != "" && h.WrongOn == nil {
		h.WrongOn = h.First
	}
	return nil
}

// doubts reports that the reference contradicts itself on an input, or is rejected by the checker; then the search is
// over. Where it was served, it is not served any more instead.
func (s *search) doubts(ctx context.Context, worker int, texts, answers [][]byte) (bool, error) {
	outcomes, err := s.judgeTexts(ctx, worker, s.reference, texts, answers, nil)
	if err != nil {
		return false, err
	}
	at := slices.IndexFunc(outcomes, func(o verdict.Outcome) bool { return aboutAnswers(o.Verdict) })
	if at < 0 {
		return false, nil
	}
	if s.prepared.Serves(s.reference) {
		s.prepared.Unserve(s.reference)
		return true, nil
	}
	s.mu.Lock()
	h := &s.result.Health
	if h.Wrong == "" {
		h.Wrong = "it answers otherwise when it is run again on the same input"
		if s.problem.Compare.Custom() {
			h.Wrong = "the checker rejects what it prints itself"
		}
		h.WrongOn = &Failure{dataOf(texts[at]), outcomes[at]}
	}
	s.mu.Unlock()
	s.end()
	return true, nil
}

// read takes a text apart; nil: it has not the shape.
func (s *search) read(text []byte) *shape.Input {
	in, fault, err := s.problem.Shape.Read(bytes.NewReader(text), shape.Options{})
	if fault != nil || err != nil {
		return nil
	}
	return in
}
