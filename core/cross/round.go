package cross

import (
	"bytes"
	"context"
	"io"
	"slices"
	"strconv"
	"time"

	"coldverdict/core/box"
	"coldverdict/core/judge"
	"coldverdict/core/verdict"
)

// callName is the name of an input in a run.
func callName(i int) string { return "call " + strconv.Itoa(i+1) }

// answerKept is how much of an answer is looked at for what is new in it, in bytes.
const answerKept = 256 << 10

// round runs one pack through reference and candidates, as long as trying lasts; what
// is found is looked at as long as ctx does.
func (s *search) round(ctx, trying context.Context, worker int, p *pack) error {
	r := round{s: s, ctx: ctx, trying: trying, worker: worker, p: p}
	began := time.Now()
	if err := r.askReference(); err != nil {
		return err
	}
	r.printed = r.answers
	for _, candidate := range s.lookedAt() {
		if err := r.try(candidate); err != nil {
			return err
		}
	}
	s.count(p, r.answers)
	traits := s.seen.add(p, r.printed, r.answers)
	for _, one := range r.ran {
		traits[one.input] = append(traits[one.input], one.value)
	}
	s.schedule.ended(p, time.Since(began), traits, r.slow)
	s.progress()
	for _, do := range r.late {
		if err := do(); err != nil {
			return err
		}
	}
	return nil
}

// A round is one pack on its way through reference and candidates.
type round struct {
	s           *search
	ctx, trying context.Context
	worker      int
	p           *pack
	answers     [][]byte       // the reference's, each nil where it has none; nil: there are none
	printed     [][]byte       // those, or what the first candidate printed whose output is whole
	by          int            // which candidate that was
	slow        bool           // the reference took too long
	ran         []trait        // which parts of a source ran
	late        []func() error // what takes long, after others were told that the round is over
}

// askReference has the reference answer the pack, where it is asked at all.
func (r *round) askReference() error {
	s := r.s
	if s.base != ByReference || s.isTooLarge(r.p) {
		return nil
	}
	answers, troubles, err := s.askEach(r.trying, r.worker, r.p.texts, r.p.stream == largeStream)
	if err != nil {
		return err
	}
	if len(troubles) < len(answers) {
		r.answers = answers
	}
	r.slow = slices.ContainsFunc(troubles, trouble.slow)
	return s.referenceFailed(r.trying, r.worker, r.p, troubles)
}

// try runs the pack through one candidate.
func (r *round) try(candidate int) error {
	s, p := r.s, r.p
	expected := r.answers
	if s.base == ByEachOther {
		expected = r.printed // by the first of them
	}
	heads := make([]box.Head, len(p.texts))
	outcomes, err := s.judged(r.trying, r.worker, judge.Request{Solution: candidate, Cases: s.cases(p.texts, expected), SkipRerun: true, UntilFailure: true, Output: func(i int) io.Writer {
		heads[i] = box.Head{Most: answerKept}
		return &heads[i]
	}})
	if err != nil {
		return err
	}
	if len(p.texts) > 1 && s.prepared.Serves(candidate) {
		if outcomes, err = s.measured(r.trying, r.worker, candidate, p, expected, outcomes); err != nil {
			return err
		}
	}
	s.peaks(candidate, p, outcomes)
	s.schedule.took(p, outcomes[0].Usage.CPU)
	if at := firstFailure(outcomes); at >= 0 {
		if s.claim(candidate) {
			by, answers, o := r.by, r.answers, outcomes[at]
			one, place := s.bundling().only(p, at)
			if answers != nil && one != p {
				answers = answers[at : at+1]
			}
			r.late = append(r.late, func() error { return s.suspect(r.ctx, r.worker, candidate, by, one, place, answers, o) })
		}
		return nil
	}
	ran, err := s.trace(r.trying, candidate, p, outcomes[0].Usage.CPU)
	if err != nil {
		return err
	}
	r.ran = append(r.ran, ran...)
	own, whole := textsOf(heads)
	if !whole {
		return nil
	}
	if r.printed == nil {
		r.printed, r.by = own, candidate
	}
	if s.base != ByReference {
		accuse, err := s.steady(r.ctx, r.trying, r.worker, candidate, p, own)
		if err != nil {
			return err
		}
		if accuse != nil {
			r.late = append(r.late, accuse)
		}
	}
	return s.spacing(r.trying, r.worker, candidate, p, own)
}

// textsOf are texts, and whether they are whole.
func textsOf(heads []box.Head) (texts [][]byte, whole bool) {
	texts, whole = make([][]byte, len(heads)), true
	for i := range heads {
		texts[i] = heads[i].Text
		whole = whole && !heads[i].Cut
	}
	return texts, whole
}

// count notes that inputs were tried.
func (s *search) count(p *pack, answers [][]byte) {
	s.mu.Lock()
	defer s.mu.Unlock()
	s.result.Inputs += len(p.inputs)
	s.result.Runs++
	answered, h := 0, &s.result.Health
	for i, answer := range answers {
		if answer != nil {
			answered += len(p.inputs) / len(answers) // all, where they are joined in one file
			h.Largest = max(h.Largest, int64(len(p.texts[i])))
		}
	}
	h.Answered += answered
	s.result.Judged += answered
	if s.base == ByChecker {
		s.result.Judged += len(p.inputs) - answered
	}
}

// peaks notes how near a candidate came to its limits.
func (s *search) peaks(candidate int, p *pack, outcomes []verdict.Outcome) {
	s.mu.Lock()
	defer s.mu.Unlock()
	peak := &s.result.Slowest[candidate]
	for i, o := range outcomes {
		if o.Usage.CPU > peak.Time {
			peak.Time, peak.Origin, peak.Bytes = o.Usage.CPU, p.inputs[i].Origin, int64(len(p.texts[i]))
		}
		peak.Memory = max(peak.Memory, o.Usage.Memory)
	}
}

// measured leaves the time of what a server ran to a run of its own: of the input that took longest there, where
// none did so far.
func (s *search) measured(ctx context.Context, worker, candidate int, p *pack, answers [][]byte, outcomes []verdict.Outcome) ([]verdict.Outcome, error) {
	longest := 0
	for i, o := range outcomes {
		if o.Usage.CPU > outcomes[longest].Usage.CPU {
			longest = i
		}
	}
	s.mu.Lock()
	most := &s.servedPeaks[candidate]
	due := *most == 0 || outcomes[longest].Usage.CPU > *most+*most/2
	if due {
		*most = outcomes[longest].Usage.CPU
	}
	s.mu.Unlock()
	outcomes = slices.Clone(outcomes)
	for i := range outcomes {
		outcomes[i].Usage = verdict.Usage{}
	}
	if !due || !outcomes[longest].Verdict.Passing() {
		return outcomes, nil
	}
	var one [][]byte
	if answers != nil {
		one = answers[longest : longest+1]
	}
	own, err := s.judgeTexts(ctx, worker, candidate, p.texts[longest:longest+1], one, nil)
	if err != nil {
		return nil, err
	}
	outcomes[longest] = own[0]
	return outcomes, nil
}

// A few inputs are tried with other spacing: of the first, and then one in so many.
const (
	firstSpaced       = 10
	firstSpacedServed = 3 // where a start takes long
	spacedEvery       = 300
)

// spacing runs a candidate on an input with blanks at the line ends, and on one without
// a last line end. What a judge would never give it is no failure, but worth knowing.
func (s *search) spacing(ctx context.Context, worker, candidate int, p *pack, answers [][]byte) error {
	if !s.problem.Kind().Text || answers == nil || p.stream == largeStream || s.problem.Compare.Custom() {
		return nil
	}
	s.mu.Lock()
	first := firstSpaced
	if s.source.served {
		first = firstSpacedServed
	}
	due := s.result.Runs <= first || s.result.Runs%spacedEvery == 0
	s.mu.Unlock()
	if !due {
		return nil
	}
	text := p.texts[0]
	for _, other := range []struct {
		words string
		text  []byte
	}{
		{"it answers otherwise when lines of the input end in a blank", bytes.ReplaceAll(text, []byte("\n"), []byte(" \n"))},
		{"it answers otherwise when the input's last line has no line end", bytes.TrimSuffix(text, []byte("\n"))},
	} {
		differs := true
		for range 2 { // it may differ by itself
			outcomes, err := s.judgeTexts(ctx, worker, candidate, [][]byte{other.text}, answers, nil)
			if err != nil {
				return err
			}
			if differs = !outcomes[0].Verdict.Passing(); !differs {
				break
			}
		}
		if differs {
			s.note(Note{candidate, other.words, text})
		}
	}
	return nil
}

// note keeps a remark, once.
func (s *search) note(n Note) {
	s.mu.Lock()
	defer s.mu.Unlock()
	for i := range s.result.Notes {
		old := &s.result.Notes[i]
		if old.Candidate == n.Candidate && old.Text == n.Text {
			if len(n.Input) < len(old.Input) {
				old.Input = n.Input
			}
			return
		}
	}
	s.result.Notes = append(s.result.Notes, n)
}

// noteUnserved says who did not behave in the same way where one process answered many inputs.
func (s *search) noteUnserved() {
	for _, who := range s.solutions() {
		if !s.prepared.Unserved(who) {
			continue
		}
		if who == s.reference {
			who = TheReference
		}
		s.note(Note{Candidate: who, Text: "it behaved otherwise where its runtime was started once for many inputs, and was run as usual from then on"})
	}
}

// steady runs a candidate again, where nothing else says what is right: it must answer
// the same, also with the cases in the opposite order. Otherwise accuse looks further.
func (s *search) steady(ctx, trying context.Context, worker, candidate int, p *pack, printed [][]byte) (accuse func() error, err error) {
	if s.base == ByChecker || s.problem.Compare.Custom() {
		return nil, nil // several answers may be right
	}
	way, at, err := s.unsteady(trying, worker, candidate, p, printed)
	if err != nil || at < 0 || !s.claim(candidate) {
		return nil, err
	}
	p, at = s.bundling().only(p, at)
	a := &accusation{search: s, worker: worker, candidate: candidate, way: way, kind: kind{verdict: verdict.WrongAnswer}, pack: p, at: at}
	return func() error { return a.run(ctx) }, nil
}

// unsteady returns in what way a candidate is not steady, and at which call; -1: it is.
func (s *search) unsteady(ctx context.Context, worker, candidate int, p *pack, printed [][]byte) (Way, int, error) {
	turned, expected, ok := s.bundling().turned(p, printed)
	if !ok {
		turned, expected = p.texts, printed
	}
	outcomes, err := s.judgeTexts(ctx, worker, candidate, turned, expected, nil)
	if err != nil {
		return 0, -1, err
	}
	at := firstFailure(outcomes)
	if at < 0 || !ok {
		return Unsteady, at, nil
	}
	outcomes, err = s.judgeTexts(ctx, worker, candidate, p.texts, printed, nil)
	if err != nil {
		return 0, -1, err
	}
	if again := firstFailure(outcomes); again >= 0 {
		return Unsteady, again, nil
	}
	return AfterOthers, len(turned) - 1 - at, nil
}
