package judge

import (
	"cmp"
	"context"
	"errors"
	"fmt"
	"slices"
	"strconv"
	"strings"
	"time"

	"coldverdict/core/box"
	"coldverdict/core/call"
	"coldverdict/core/problem"
	"coldverdict/core/verdict"
)

// In a problem that asks for a class, a case is a sequence of calls, which one process makes in one go.

// steps are the calls of the case's sequence.
func (r *caseRun) steps() ([]problem.Step, error) {
	text, err := dataText(r.test.Input)
	if err != nil {
		return nil, err
	}
	return r.run.judge.problem.Call.Steps(text)
}

// ofSequence takes apart what came of a sequence of calls: what each returned, and the time of each, which
// is noted by method.
func (r *caseRun) ofSequence(o *verdict.Outcome, got any) (results any, err error) {
	both, _ := got.([]any)
	if len(both) != 2 {
		return nil, fmt.Errorf("expected what each call returned, and its time")
	}
	times, _ := both[1].([]any)
	steps, err := r.steps()
	if err != nil || len(times) != len(steps) {
		return both[0], err
	}
	for i, s := range steps {
		spent, _ := times[i].(int64)
		at := slices.IndexFunc(o.Methods, func(m verdict.MethodTime) bool { return m.Method == s.Method })
		if at < 0 {
			at = len(o.Methods)
			o.Methods = append(o.Methods, verdict.MethodTime{Method: s.Method})
		}
		o.Methods[at].Calls++
		o.Methods[at].CPU += time.Duration(spent)
	}
	slices.SortStableFunc(o.Methods, func(a, b verdict.MethodTime) int { return cmp.Compare(b.CPU, a.CPU) })
	return both[0], nil
}

// mostBefore bounds the calls that are named before the one at which a sequence fails.
const mostBefore = 3

// afterWords names the calls of an object before one: ", after put(1, 10), get(1)".
func afterWords(steps []problem.Step, i int) string {
	var before []string
	for _, s := range slices.Backward(steps[:i]) {
		if s.Object != steps[i].Object {
			continue
		}
		if len(before) == mostBefore {
			before = append(before, "…")
			break
		}
		before = append(before, shownValue(s.Text))
	}
	if len(before) == 0 {
		return ""
	}
	slices.Reverse(before)
	return ", after " + strings.Join(before, ", ")
}

// callOf names the call of a sequence that threw: "call 5, get(2): "; empty in other problems.
func (r *caseRun) callOf(a call.Answer) string {
	if r.run.judge.problem.Call.Class == nil {
		return ""
	}
	n, err := strconv.Atoi(a.Text)
	steps, wrong := r.steps()
	if err != nil || wrong != nil || n < 1 || n > len(steps) {
		return ""
	}
	return callName(steps, n) + ": "
}

// callName names the n-th call of a sequence.
func callName(steps []problem.Step, n int) string {
	return fmt.Sprintf("call %d, %s", n, shownValue(steps[n-1].Text))
}

// A process that ends in the middle of a sequence has told nothing of its calls. So first calls of the sequence
// are made once more, as many as are over well within the limit.

// firstShare is the share of a limit of time that first calls may take, and leastFirst what they may take at least.
const (
	firstShare = 4
	leastFirst = 20 * time.Millisecond
)

// reached says in which call of a sequence its process ended, and how long the calls before it took by method.
func (x *functionExecutor) reached(ctx context.Context, w *worker, position int, o *verdict.Outcome) error {
	steps, err := x.run.caseRun(w, position).steps()
	if err != nil || len(steps) == 0 {
		return nil
	}
	limits := x.run.limits(position)
	for _, limit := range []*time.Duration{&limits.Time, &limits.Wall} {
		if *limit > 0 {
			*limit = max(*limit/firstShare, min(*limit, leastFirst))
		}
	}
	over, missing := 0, len(steps)
	for missing-over > 1 {
		half := (over + missing) / 2
		first, err := x.first(ctx, w, position, steps[:half], limits)
		if err != nil {
			return err
		}
		if first.Methods == nil {
			missing = half
			continue
		}
		over, o.Methods = half, first.Methods
	}
	name := callName(steps, missing)
	if o.Verdict != verdict.TimeLimit && o.Verdict != verdict.Stalled {
		o.Message = strings.TrimSuffix(name+": "+o.Message, ": ")
		return nil
	}
	// Within the whole limit the call is over, if it is not the one that takes it.
	first, err := x.first(ctx, w, position, steps[:missing], x.run.limits(position))
	if err != nil {
		return err
	}
	o.Message = name + " was not over"
	if first.Methods != nil {
		var spent time.Duration
		for _, m := range first.Methods {
			spent += m.CPU
		}
		o.Message = fmt.Sprintf("after %s it was in call %d of %d", spent.Round(time.Millisecond), missing, len(steps))
	}
	return nil
}

// first makes the first calls of a case's sequence. Where they are not over within some limits, the outcome has
// no times by method.
func (x *functionExecutor) first(ctx context.Context, w *worker, position int, steps []problem.Step, limits verdict.Limits) (o verdict.Outcome, err error) {
	var text strings.Builder
	for _, s := range steps {
		text.WriteString(s.Text + "\n")
	}
	test := *x.run.test(position)
	test.Input = problem.Data{Text: []byte(text.String()), Size: int64(text.Len())}
	test.Accepted, test.Raises = nil, nil
	plan := *x.run.plan
	plan.Limits, plan.Groups, plan.Cases = limits, nil, []int{0}
	again := *x.run
	again.plan, again.cases = &plan, []problem.Case{test}
	usual := func(l verdict.Limits) box.Program { return again.prepared.program(again.solution, l) }
	_, _, err = (&functionExecutor{&again}).process(ctx, w, usual, []int{0}, func(a attempt) { o = a.outcome })
	var unloaded *unloadedError
	if errors.As(err, &unloaded) {
		err = nil
	}
	return o, err
}
