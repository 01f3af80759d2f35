package judge

import (
	"context"
	"io"
	"time"

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
func (j *Judge) TryChecker(ctx context.Context, cases []int, tell func(Opinion)) (err error) {
	p := j.problem
	w, err := j.checkerAlone(ctx, p.Cases, cases)
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
		r := &caseRun{run: &solutionRun{judge: j}, index: i, worker: w, test: test}
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

// checkerAlone makes a worker that runs checkers or interactors for some of the cases, and no
// candidate.
func (j *Judge) checkerAlone(ctx context.Context, cases []problem.Case, some []int) (*worker, error) {
	if err := j.readyCheckers(ctx, cases, some); err != nil {
		return nil, err
	}
	for _, c := range j.checkers {
		if c.fault != nil {
			return nil, c.fault
		}
	}
	w := j.newWorker(j.sandbox())
	w.checker = j.checkerWorker(w.options)
	return w, nil
}

func (r *caseRun) opinion(ctx context.Context, trial problem.Trial) (o Opinion, err error) {
	o = Opinion{Index: r.index, Line: trial.Line, Accept: trial.Accept}
	input, err := openInput(r.test.Input)
	if err != nil {
		return o, err
	}
	defer input.Close()
	f, err := r.checkerFolder()
	if err != nil {
		return o, err
	}
	defer f.end()
	answer, err := trial.Answer.Open()
	if err != nil {
		return o, err
	}
	defer answer.Close()
	if _, err := io.Copy(f.got, answer); err != nil {
		return o, err
	}
	d, wrote, err := f.ask(ctx, r, input, r.test.Accepted)
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

// Talk runs the interactor of an interactive problem on a case for a person who
// is the candidate: in is read as what they say, and out gets what the interactor
// says. It returns when the interactor has decided. The outcome has its
// decision and the talk; the error is the context's, or says what failed on our
// side.
func (j *Judge) Talk(ctx context.Context, index int, in io.Reader, out io.Writer) (result verdict.Outcome, err error) {
	cases := j.problem.Cases
	w, err := j.checkerAlone(ctx, cases, []int{index})
	if err != nil {
		return result, err
	}
	c, err := (&caseRun{run: &solutionRun{judge: j}, index: index, worker: w, test: &cases[index], limits: verdict.Limits{Wall: longTalk}}).conversation()
	if err != nil {
		return result, err
	}
	defer c.close()
	if err := w.checker.open(); err != nil {
		return result, err
	}
	c.transcript.began = time.Now()
	go func() { // it ends with the process where the person's terminal is still open
		io.Copy(recorder{false, &c.transcript, c.toInteractor}, in)
		c.toInteractor.End()
	}()
	if err := c.runInteractor(ctx, out); err != nil {
		return result, err
	}
	result.Talk = c.transcript.whole()
	result.Checker = verdict.Text{Bytes: c.said.errs.Text, Cut: c.said.errs.Cut}
	if c.said.undecided != nil {
		result.Verdict, result.Message = verdict.Fault, c.said.undecided.Error()
		return result, nil
	}
	c.said.decision.into(&result)
	return result, nil
}
