package judge

import (
	"context"
	"errors"
	"io"
	"time"

	"coldverdict/core/box"
	"coldverdict/core/problem"
	"coldverdict/core/verdict"
)

// An Opinion is what a checker says of an answer of which a person knows what
// it must say.
type Opinion struct {
	Index    int  // of the case
	Line     int  // of the block in its file; 0: it is an expected output
	Accept   bool // it must accept the answer, and otherwise reject it
	Verdict  verdict.Verdict
	Why      string       // the checker's words, or what went wrong
	Wrote    verdict.Text // what it wrote beside
	AsWanted bool
}

// TryChecker tries the checkers on the answers that cases have for that, and on
// their expected outputs, which it must accept. Cases are indices of the
// problem's. The error is the context's, or says what failed on our side.
func TryChecker(ctx context.Context, p *problem.Problem, cases []int, o Options, tell func(Opinion)) (err error) {
	s, err := begin(p, o, nil)
	if err != nil {
		return err
	}
	defer func() { err = errors.Join(err, s.end()) }()
	w, err := s.arbiterAlone(ctx, cases)
	if err != nil {
		return err
	}
	for _, i := range cases {
		test := &p.Cases[i]
		if !test.Compare.Custom() {
			continue
		}
		var trials []problem.Trial
		for _, answer := range test.Accepted {
			trials = append(trials, problem.Trial{Answer: answer, Accept: true})
		}
		r := &caseRun{session: s, index: i, worker: w, test: test}
		for _, trial := range append(trials, test.Trials...) {
			opinion, err := r.opinion(ctx, trial)
			if err != nil {
				return err
			}
			tell(opinion)
		}
	}
	return nil
}

// arbiterAlone makes a worker that runs arbiters for cases and no candidate.
func (s *session) arbiterAlone(ctx context.Context, cases []int) (*worker, error) {
	if err := s.readyArbiters(ctx, cases); err != nil {
		return nil, err
	}
	for _, a := range s.arbiters {
		if a.fault != nil {
			return nil, a.fault
		}
	}
	options := box.Options{Scratch: s.scratch.Dir, Uncontained: s.options.Uncontained, Groups: <-s.groups}
	w := &worker{arbiter: s.arbiterWorker(options)}
	s.workers = append(s.workers, w)
	return w, nil
}

func (r *caseRun) opinion(ctx context.Context, trial problem.Trial) (o Opinion, err error) {
	o = Opinion{Index: r.index, Line: trial.Line, Accept: trial.Accept}
	input, err := openInput(r.test.Input)
	if err != nil {
		return o, err
	}
	defer input.Close()
	h, err := r.hearing()
	if err != nil {
		return o, err
	}
	defer h.end()
	answer, err := trial.Answer.Open()
	if err != nil {
		return o, err
	}
	defer answer.Close()
	if _, err := io.Copy(h.got, answer); err != nil {
		return o, err
	}
	d, wrote, err := h.hear(ctx, r, input, r.test.Accepted)
	o.Verdict, o.Why, o.Wrote = d.verdict, d.why, wrote
	switch {
	case ctx.Err() != nil:
		return o, ctx.Err()
	case err != nil:
		o.Verdict, o.Why = verdict.Fault, err.Error()
	case trial.Accept:
		o.AsWanted = d.verdict == verdict.Accepted
	default:
		o.AsWanted = d.verdict == verdict.WrongAnswer
	}
	return o, nil
}

// longTalk is how long a person may talk.
const longTalk = 24 * time.Hour

// Talk runs the other side of an interactive problem on a case for a person who
// is the candidate: in is read as what they say, and out gets what the other
// side says. It returns when the other side has decided. The outcome has its
// decision and the talk; the error is the context's, or says what failed on our
// side.
func Talk(ctx context.Context, p *problem.Problem, index int, o Options, in io.Reader, out io.Writer) (result verdict.Outcome, err error) {
	s, err := begin(p, o, nil)
	if err != nil {
		return result, err
	}
	defer func() { err = errors.Join(err, s.end()) }()
	w, err := s.arbiterAlone(ctx, []int{index})
	if err != nil {
		return result, err
	}
	c, err := (&caseRun{session: s, index: index, worker: w, test: &p.Cases[index], limits: verdict.Limits{Wall: longTalk}}).conversation()
	if err != nil {
		return result, err
	}
	defer c.close()
	if err := w.arbiter.open(); err != nil {
		return result, err
	}
	c.book.began = time.Now()
	go func() { // it ends with the process where the person's terminal is still open
		io.Copy(voice{false, &c.book, c.toOther}, in)
		c.toOther.End()
	}()
	if err := c.runOther(ctx, out); err != nil {
		return result, err
	}
	result.Talk = c.book.whole()
	result.Checker = verdict.Text{Bytes: c.otherErrs.Text, Cut: c.otherErrs.Cut}
	if c.undecided != nil {
		result.Verdict, result.Message = verdict.Fault, c.undecided.Error()
		return result, nil
	}
	c.decision.into(&result)
	return result, nil
}
