package cross

import (
	"bytes"
	"context"
	"fmt"
	"io"
	"time"

	"coldverdict/core/judge"
	"coldverdict/core/verdict"
)

// shrinkTime is how long what was found is shrunk, at the most.
var shrinkTime = 10 * time.Second

// A kind is how a program failed. Two failures of one kind are taken for the same.
type kind struct {
	verdict  verdict.Verdict
	signal   string
	exitCode int
}

func kindOf(o verdict.Outcome) kind {
	if o.Verdict != verdict.RuntimeError {
		return kind{verdict: o.Verdict}
	}
	return kind{o.Verdict, o.Signal, o.ExitCode}
}

// aboutAnswers reports a verdict that depends on what the right answer is.
func aboutAnswers(v verdict.Verdict) bool {
	return v == verdict.WrongAnswer || v == verdict.Partial
}

// An accusation is a failure on its way to its smallest input.
type accusation struct {
	*search
	worker    int
	candidate int
	way       Way
	kind      kind
	other     int // the candidate whose answers are held to be expected, where they disagree
	pack      *pack
	at        int // the call

	tries int
}

// suspect looks at a failure again before anything is said: at the reference first,
// and then at the candidate. by is the candidate whose answers were held to be expected, if the base is
// ByEachOther.
func (s *search) suspect(ctx context.Context, worker, candidate, by int, p *pack, at int, answers [][]byte, o verdict.Outcome) error {
	a := &accusation{search: s, worker: worker, candidate: candidate, kind: kindOf(o), pack: p, at: at}
	if aboutAnswers(o.Verdict) {
		switch s.base {
		case ByReference:
			if doubted, err := s.doubts(ctx, worker, p.texts, answers); err != nil || doubted {
				s.release(candidate)
				return err
			}
		case ByEachOther:
			a.way, a.other, a.kind = Disagrees, by, kind{verdict: verdict.WrongAnswer}
			return a.run(ctx)
		}
	}
	if o.Verdict != verdict.TimeLimit { // that was run twice
		again, err := s.judgeTexts(ctx, worker, candidate, p.texts, answers, nil)
		if err != nil {
			return err
		}
		if kindOf(again[at]) != a.kind {
			a.way = Unsteady
		}
	}
	return a.run(ctx)
}

// run cuts a failure down, shrinks it, and tells it.
func (a *accusation) run(ctx context.Context) error {
	f := Found{Candidate: a.candidate, Way: a.way, Origin: a.bundling().failing(a.pack, a.at).Origin, After: time.Since(a.began)}
	a.mu.Lock()
	f.Inputs = a.result.Inputs
	a.mu.Unlock()
	began := time.Now()
	limited, end := context.WithTimeout(ctx, shrinkTime)
	defer end()
	texts, err := a.bundling().cutDown(limited, a, &f)
	if err != nil && limited.Err() == nil {
		return err
	}
	f.Shrunk, f.Tries = time.Since(began), a.tries
	a.do("")
	for _, text := range texts {
		f.Size += int64(len(text))
	}
	if ctx.Err() != nil { // what was found is told all the same
		var cancel context.CancelFunc
		ctx, cancel = context.WithTimeout(context.WithoutCancel(ctx), shrinkTime)
		defer cancel()
	}
	again, err := a.evidence(ctx, texts, &f)
	if err != nil {
		return err
	}
	if !again { // nothing is said that was not seen twice
		a.note(Note{a.candidate, fmt.Sprintf("it got %s once, and not again", a.kind.verdict), texts[len(texts)-1]})
		a.release(a.candidate)
		return nil
	}
	a.found(f)
	return nil
}

// try counts and says what is tried.
func (a *accusation) try() {
	a.tries++
	a.do(fmt.Sprintf("shrinking what %s fails on, try %d", a.options.Candidates[a.candidate].File, a.tries))
}

// unsteadyRuns is how often something unsteady is run until it is taken for steady.
const unsteadyRuns = 5

// fails reports that the candidate still fails in the same way on the last of some
// calls, or on one input.
func (a *accusation) fails(ctx context.Context, texts ...[]byte) (bool, error) {
	a.try()
	if a.way == Fails && a.base == ByReference && a.kind.verdict == verdict.WrongAnswer && !a.problem.Compare.Custom() {
		failed, err := a.partsOfEach(ctx, texts)
		return err == nil && failed[len(texts)-1], err
	}
	runs := 1
	if a.way == Unsteady {
		runs = unsteadyRuns
	}
	expected, ok, err := a.expected(ctx, texts)
	if err != nil || !ok {
		return false, err
	}
	for range runs {
		outcomes, err := a.judgeTexts(ctx, a.worker, a.candidate, texts, expected, nil)
		if err != nil {
			return false, err
		}
		if kindOf(outcomes[len(outcomes)-1]) == a.kind {
			return true, nil
		}
	}
	return false, nil
}

// expected are the answers that a failure is compared with; nil where it needs none. ok
// is false where there are none.
func (a *accusation) expected(ctx context.Context, texts [][]byte) (expected [][]byte, ok bool, err error) {
	own := func(candidate int, texts [][]byte) ([][]byte, bool, error) {
		answers, _, t, err := a.answers(ctx, a.worker, candidate, texts, verdict.Limits{})
		return answers, t == nil && err == nil, err
	}
	switch {
	case a.way == Disagrees:
		return own(a.other, texts)
	case a.way == AfterOthers && a.base != ByReference:
		return a.bundling().alone(a, texts, own)
	case a.base == ByReference && (aboutAnswers(a.kind.verdict) || a.way == Unsteady):
		expected, t, err := a.ask(ctx, a.worker, texts, false)
		return expected, t == nil && err == nil, err
	case a.base == ByChecker, !aboutAnswers(a.kind.verdict):
		return nil, true, nil
	}
	return own(a.candidate, texts)
}

// evidence runs everything once more on the smallest input, and reports that it still
// fails.
func (a *accusation) evidence(ctx context.Context, texts [][]byte, f *Found) (again bool, err error) {
	expected, ok, err := a.expected(ctx, texts)
	if err != nil {
		return false, err
	}
	if a.base == ByReference && expected == nil { // to be shown
		if expected, _, err = a.ask(ctx, a.worker, texts, true); err != nil {
			return false, err
		}
	}
	if !ok {
		expected = nil
	}
	var printed bytes.Buffer
	for range unsteadyRuns {
		outcomes, err := a.judged(ctx, a.worker, judge.Request{Solution: a.candidate, Cases: a.search.cases(texts, expected), Output: func(int) io.Writer {
			printed.Reset()
			return &printed
		}})
		if err != nil {
			return false, err
		}
		f.Outcome = outcomes[len(outcomes)-1]
		if again = kindOf(f.Outcome) == a.kind; again {
			break
		}
	}
	f.Cases = a.search.cases(texts, expected)
	if a.way == Disagrees {
		f.Cases = a.search.cases(texts, nil)
		err := a.setOut(ctx, texts, f)
		return len(f.Answers) > 1, err
	}
	return again, a.doubt(ctx, texts, printed.Bytes(), f)
}

// doubt looks at what other candidates answer: where all of them answer as this one
// does, it may be the reference that is wrong.
func (a *accusation) doubt(ctx context.Context, texts [][]byte, printed []byte, f *Found) error {
	others := len(a.options.Candidates) - 1
	if a.base != ByReference || !aboutAnswers(f.Outcome.Verdict) || others < 1 || len(texts) > 1 || a.problem.Compare.Custom() || f.Outcome.Difference == nil {
		return nil
	}
	for i := range a.options.Candidates {
		if i == a.candidate {
			continue
		}
		outcomes, err := a.judgeTexts(ctx, a.worker, i, texts, [][]byte{printed}, nil)
		if err != nil || outcomes[0].Verdict != verdict.Accepted {
			return err
		}
	}
	f.Doubt = fmt.Sprintf("all %d candidates answer the same here; look at the reference first", others+1)
	return nil
}

// setOut groups candidates by what they answer.
func (a *accusation) setOut(ctx context.Context, texts [][]byte, f *Found) error {
	var kept [][][]byte // by answer: what was printed or returned, by call
	for i := range a.options.Candidates {
		answers, outcomes, t, err := a.answers(ctx, a.worker, i, texts, verdict.Limits{})
		if err != nil {
			return err
		}
		if t != nil {
			f.Answers = append(f.Answers, Answer{Candidates: []int{i}, Failed: outcomes[t.at].Verdict.String()})
			kept = append(kept, nil)
			continue
		}
		at := -1
		for k := range f.Answers {
			if kept[k] == nil {
				continue
			}
			same, err := a.judgeTexts(ctx, a.worker, i, texts, kept[k], nil)
			if err != nil {
				return err
			}
			if firstFailure(same) < 0 {
				at = k
				break
			}
		}
		if at < 0 {
			at = len(f.Answers)
			kept = append(kept, answers)
			f.Answers = append(f.Answers, Answer{Text: verdict.Text{Bytes: answers[len(answers)-1]}})
		}
		f.Answers[at].Candidates = append(f.Answers[at].Candidates, i)
	}
	return nil
}
