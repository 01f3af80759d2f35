package judge

import (
	"cmp"
	"context"
	"errors"
	"fmt"
	"strings"
	"time"

	"coldverdict/core/box"
	"coldverdict/core/call"
	"coldverdict/core/compare"
	"coldverdict/core/verdict"
)

// In a function problem one process makes many calls, one after the other. A call
// that fails in a way that ends the process, or that passes a limit, costs that
// process alone: the calls behind it are made in a new one.

// A functionExecutor makes the calls of a function problem.
type functionExecutor struct{ run *solutionRun }

// batches splits the calls into those that share a process: the same limits, and groups that are
// run or skipped together.
func (x *functionExecutor) batches() (list [][]int) {
	r := x.run
	for i := range r.plan.Cases {
		group := r.test(i).Group
		apart := i == 0 || r.options.IsolateCalls || r.limits(i) != r.limits(i-1) ||
			group != r.test(i-1).Group && len(r.judge.problem.Rule(group).Needs) > 0
		if apart {
			list = append(list, nil)
		}
		list[len(list)-1] = append(list[len(list)-1], i)
	}
	return list
}

func (x *functionExecutor) beside() int {
	if x.run.options.IsolateCalls {
		return 0
	}
	return 1
}

func (x *functionExecutor) attempts(ctx context.Context, w *worker, positions []int, each func(attempt)) error {
	usual := func(l verdict.Limits) box.Program { return x.run.prepared.program(x.run.solution, l) }
	for rest := positions; len(rest) > 0; {
		if x.run.isOver() {
			return ctx.Err()
		}
		done, suspects, err := x.process(ctx, w, usual, rest, each)
		for i := 0; i < suspects && err == nil; i++ {
			_, _, err = x.process(ctx, w, usual, rest[done+i:done+i+1], each)
		}
		var unloaded *unloadedError
		if errors.As(err, &unloaded) { // as it would be in each further process
			for _, position := range rest[done:] {
				each(attempt{position: position, outcome: unloaded.outcome})
			}
			return nil
		}
		if err != nil {
			return err
		}
		rest = rest[done+suspects:]
	}
	return nil
}

func (x *functionExecutor) diagnose(ctx context.Context, w *worker, position int) (hints []string, err error) {
	build := x.run.plan.Build
	program, ok := build.Diagnosis(x.run.limits(position), x.run.plan.Solution.Args)
	if !ok {
		return nil, nil
	}
	roomy := *x.run.plan
	roomy.Limits, roomy.Groups = x.run.limits(position), nil
	roomy.Limits.Memory += diagnosisMemory
	again := *x.run
	again.plan = &roomy
	_, _, err = (&functionExecutor{&again}).process(ctx, w, func(verdict.Limits) box.Program { return program }, []int{position}, func(a attempt) {
		hints = tooDeep(build, string(a.outcome.Stderr.Bytes), true)
	})
	var unloaded *unloadedError
	if errors.As(err, &unloaded) {
		err = nil
	}
	return hints, err
}

// An unloadedError says that a source ended its process before the first call.
type unloadedError struct{ outcome verdict.Outcome }

func (e *unloadedError) Error() string { return e.outcome.Message }

// ofAnswer is the outcome of a call that the driver answered.
func (r *caseRun) ofAnswer(ctx context.Context, of answered) verdict.Outcome {
	a := of.answer
	m := measured{
		result:  box.Result{Ending: box.Exited, Usage: verdict.Usage{CPU: a.Spent, Memory: of.memory}}, // the watch holds the elapsed time
		printed: max(of.out.Size, of.errs.Size), tooLong: a.Long, threw: a.Kind == call.Failed,
	}
	if m.threw {
		m.reading = r.run.plan.Build.Read(string(of.errs.Text), true)
	}
	o := r.callOutcome(m, of.out, of.errs)
	o.Usage.Wall = max(of.wall, a.Spent)
	switch {
	case o.Verdict == verdict.RuntimeError || o.Verdict == verdict.CompileError || o.Verdict == verdict.MemoryLimit && m.threw:
		if o.Verdict == verdict.CompileError { // it was found by the call
			o.Verdict = verdict.RuntimeError
		}
		o.ExitCode = 1
		o.Message = r.callOf(a) + cmp.Or(m.reading.String(), verdict.LastLine(string(o.Stderr.Bytes)), "it threw something that says nothing")
	case o.Verdict == verdict.OutputLimit && !m.tooLong:
		o.Message = "it printed more than " + verdict.Size(r.limits.Output)
	case o.Verdict == verdict.OutputLimit:
		o.Message = m.remark(o.Verdict, r.limits, nil)
	case o.Verdict != verdict.Accepted:
	case a.Kind == call.Stalled:
		o.Verdict, o.Message = verdict.Stalled, a.Text
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
	if r.test.Raises != nil {
		r.byRaised(&o, a.Kind == call.Failed)
	}
	r.remarkCall(&o, m)
	if of.close && o.Verdict.Passing() && !o.Close {
		markClose(&o, share(of.memory, r.limits.Memory), "memory")
	}
	return r.kept(o)
}

// byRaised judges a call that must fail.
func (r *caseRun) byRaised(o *verdict.Outcome, threw bool) {
	words := *r.test.Raises
	wanted := "something"
	if words != "" {
		wanted = words
	}
	switch o.Verdict {
	case verdict.RuntimeError:
		if !threw {
			return
		}
		if strings.Contains(string(o.Stderr.Bytes), words) || strings.Contains(o.Message, words) {
			o.Verdict, o.Message, o.ExitCode = verdict.Accepted, "", 0
			return
		}
		o.Message = fmt.Sprintf("it raised something else than %s: %s", wanted, o.Message)
	case verdict.Accepted, verdict.Unjudged, verdict.WrongAnswer, verdict.Partial:
		o.Verdict, o.Hints = verdict.WrongAnswer, nil
		o.Message = fmt.Sprintf("it returned %s, where it must raise %s", shownValue(o.Returned), wanted)
	}
}

// callOutcome begins the outcome of a call.
func (r *caseRun) callOutcome(m measured, out, errs call.Part) verdict.Outcome {
	return verdict.Outcome{
		Ran: true, Usage: m.result.Usage, Verdict: classify(m, r.limits), ExitCode: m.result.ExitCode, Signal: m.signalWords(),
		Stdout: verdict.Text{Bytes: out.Text, Cut: out.Size > int64(len(out.Text))},
		Stderr: verdict.Text{Bytes: r.run.judge.ownPaths(errs.Text, r.run.plan.Build), Cut: errs.Size > int64(len(errs.Text))},
	}
}

// A lastCall is what is known of the call with which its process ended.
type lastCall struct {
	result    box.Result    // the usage is that of the whole process
	wall      time.Duration // since the call began
	memory    int64
	out, errs call.Part
	ready     bool // the source had been loaded
	tooLong   bool // it returned more than the driver passes on
}

// ofEnd is the outcome of a call with which its process ended.
func (r *caseRun) ofEnd(last lastCall) verdict.Outcome {
	m := measured{result: last.result, reading: r.run.plan.Build.Read(string(last.errs.Text), true), tooLong: last.tooLong, threw: true}
	usage := verdict.Usage{CPU: last.result.Usage.CPU, Wall: last.wall, Memory: last.memory}
	m.result.Usage = verdict.Usage{} // the watch has held each limit, and what the process took says nothing of the call
	o := r.callOutcome(m, last.out, last.errs)
	if m.result.Usage = usage; m.result.Ending == box.Exited {
		m.result.Usage.CPU = min(usage.CPU, last.wall) // of it alone nothing is known
	}
	o.Usage = m.result.Usage
	if o.Verdict == verdict.CompileError && last.ready {
		o.Verdict = verdict.RuntimeError
	}
	switch {
	case o.Verdict == verdict.OutputLimit:
		o.Message = "it printed or returned more than " + verdict.Size(r.limits.Output)
	case o.Verdict == verdict.MemoryLimit:
	case o.Verdict != verdict.RuntimeError && o.Verdict != verdict.CompileError:
		o.Message = m.remark(o.Verdict, r.limits, o.Stderr.Bytes)
	case m.result.Ending == box.Exited && m.result.Signal == 0 && m.reading.Message == "":
		o.Message = fmt.Sprintf("it ended the program (exit status %d) instead of returning", m.result.ExitCode)
	default:
		o.Message = m.crash(r.limits, o.Stderr.Bytes)
	}
	if !last.ready {
		o.Message = strings.TrimSuffix("before the first call: "+o.Message, ": ")
	}
	if r.test.Raises != nil && last.ready { // an exception of C++ that nobody catches ends the process
		r.byRaised(&o, strings.Contains(string(o.Stderr.Bytes), "terminate called after throwing"))
	}
	r.remarkCall(&o, m)
	noteDepth(&o, m, r.limits)
	return o
}

// remarkCall adds the remarks and hints that depend on the verdict.
func (r *caseRun) remarkCall(o *verdict.Outcome, m measured) {
	switch o.Verdict {
	case verdict.RuntimeError, verdict.MemoryLimit, verdict.TimeLimit, verdict.CompileError:
		o.Hints = compare.Hints(r.evidence(o, r.explained(o, m)))
	case verdict.Accepted, verdict.Unjudged:
		if time := share(o.Usage.CPU, r.limits.Time); time > closeShare {
			markClose(o, time, "time")
		}
	}
}
