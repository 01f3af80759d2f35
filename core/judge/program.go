package judge

import (
	"bytes"
	"context"
	"errors"
	"fmt"
	"io"
	"os"

	"coldverdict/core/box"
	"coldverdict/core/compare"
	"coldverdict/core/problem"
	"coldverdict/core/verdict"
)

// A programExecutor runs each case in a process of its own, which reads the input and prints the
// output.
type programExecutor struct{ run *solutionRun }

func (x *programExecutor) batches() [][]int { return oneByOne(x.run.plan.Cases) }

func (x *programExecutor) beside() int { return 0 }

// oneByOne are batches of one case each.
func oneByOne(cases []int) [][]int {
	list := make([][]int, len(cases))
	for i := range list {
		list[i] = []int{i}
	}
	return list
}

func (x *programExecutor) attempts(ctx context.Context, w *worker, positions []int, each func(attempt)) error {
	return x.run.eachAlone(ctx, w, positions, (*caseRun).execute, each)
}

// eachAlone runs cases of which each has a process of its own. What fails on our side is a fault.
func (r *solutionRun) eachAlone(ctx context.Context, w *worker, positions []int, execute func(*caseRun, context.Context) (verdict.Outcome, error), each func(attempt)) error {
	for _, position := range positions {
		one := r.caseRun(w, position)
		o, err := execute(one, ctx)
		if ctx.Err() != nil && err != nil {
			return ctx.Err()
		}
		if err != nil {
			o = verdict.Outcome{Verdict: verdict.Fault, Message: err.Error()}
		}
		each(attempt{position: position, outcome: one.kept(o)})
	}
	return nil
}

func (x *programExecutor) diagnose(ctx context.Context, w *worker, position int) ([]string, error) {
	r := x.run.caseRun(w, position)
	limits := r.limits
	limits.Memory += diagnosisMemory
	build := x.run.plan.Build
	program, ok := build.Diagnosis(r.limits, x.run.plan.Solution.Args)
	input, err := openInput(r.test.Input)
	if !ok || err != nil {
		return nil, nil // nothing is learned
	}
	defer input.Close()
	errs := &box.Head{Most: KeptText}
	result, err := w.Run(ctx, box.Run{Program: program, Limits: limits, Input: input, Errors: errs})
	if err != nil {
		return nil, ctx.Err()
	}
	return tooDeep(build, string(x.run.judge.ownPaths(errs.Text, build)), result.ExitCode != 0), nil
}

func (x *programExecutor) reached(context.Context, *worker, int, *verdict.Outcome) error { return nil }

// execute runs the case once. An error is the context's, or says what failed on our side.
func (r *caseRun) execute(ctx context.Context) (o verdict.Outcome, err error) {
	input, err := openInput(r.test.Input)
	if err != nil {
		return o, fmt.Errorf("cannot read the input: %w", err)
	}
	defer input.Close()
	s, err := r.sinks()
	if err != nil {
		return o, err
	}
	defer s.close()
	errs := &box.Head{Most: KeptText}
	run := box.Run{
		Program: r.run.prepared.program(r.run.solution, r.limits),
		Limits:  r.limits, Input: input, Output: s.out, Errors: errs,
		Files: box.Files(r.run.judge.problem.Files),
	}
	whole := &box.Head{Most: mostOfParts}
	switch {
	case r.run.plan.Solution.Part != "":
		run.Output = whole
	case run.Files.Output == "":
		run.Output = io.MultiWriter(s.all...)
	}
	result, err := r.worker.Run(ctx, run)
	if err != nil {
		return o, err
	}
	if r.run.plan.Solution.Part != "" {
		return r.partEnded(ctx, result, s, whole, errs, input)
	}
	if result.File != nil {
		// What counts is the file, and what was printed beside it does not.
		*s.out = box.Head{Most: KeptText}
		_, err = io.Copy(io.MultiWriter(s.all...), result.File)
		if err = errors.Join(err, result.File.Close()); err != nil {
			return o, fmt.Errorf("cannot read %s: %w", run.Files.Output, err)
		}
	}
	return r.ended(ctx, result, s, errs, input)
}

// mostOfParts is how much of what a program prints for all parts of a problem is read.
const mostOfParts = 4 << 20

// partEnded is the outcome of a run that has printed the answers of all parts, of which one counts.
func (r *caseRun) partEnded(ctx context.Context, result box.Result, s *sinks, whole, errs *box.Head, input *os.File) (o verdict.Outcome, err error) {
	if result.File != nil {
		_, err = io.Copy(whole, result.File)
		if err = errors.Join(err, result.File.Close()); err != nil {
			return o, fmt.Errorf("cannot read %s: %w", r.run.judge.problem.Files.Output, err)
		}
	}
	answer, why := r.run.judge.problem.AnswerOfPart(r.run.plan.Solution.Part, whole.Text)
	if whole.Cut {
		why = "it prints more than " + verdict.Size(mostOfParts) + ", in which no answers to parts are looked for"
	}
	if why != "" { // what it printed is shown as it is
		_, err = s.out.Write(whole.Text)
	} else if _, err = io.MultiWriter(s.all...).Write(answer); err == nil {
		o, err = r.ended(ctx, result, s, errs, input)
	}
	if err != nil || why == "" {
		return o, err
	}
	o, m := r.outcomeOf(result, s.out, errs)
	if o.Verdict == verdict.Accepted {
		o.Verdict, o.Message, o.NoAnswer = verdict.WrongAnswer, why, true
		if len(r.test.Accepted) == 0 && !r.test.Compare.Custom() {
			o.Verdict = verdict.Unjudged
		}
	}
	r.remark(&o, m)
	return o, nil
}

// ended is the outcome of a run that has ended, whose output has gone into sinks. An error says what failed on
// our side.
func (r *caseRun) ended(ctx context.Context, result box.Result, s *sinks, errs *box.Head, input *os.File) (o verdict.Outcome, err error) {
	o, m := r.outcomeOf(result, s.out, errs)
	output := r.run.judge.problem.Files.Output
	switch {
	case o.Verdict != verdict.Accepted:
	case output != "" && result.File == nil:
		o.Verdict = verdict.WrongAnswer
		o.Message = "it wrote no file " + output
	case s.checker != nil:
		err = r.byChecker(ctx, &o, s.checker, input)
	default:
		if err = r.byOutput(&o, s.comparison); err != nil {
			err = fmt.Errorf("cannot read the expected output: %w", err)
		}
	}
	if err != nil {
		return o, err
	}
	r.byRefused(&o, o.Stdout.Bytes, o.Stdout.Cut)
	if s.answer != nil {
		if err := s.answer.settle(r.question(), &o); err != nil {
			return o, fmt.Errorf("cannot compare the answer with that of another solution: %w", err)
		}
	}
	r.remark(&o, m)
	return o, nil
}

// sinks are where all goes that a program prints.
type sinks struct {
	out        *box.Head
	comparison *compare.Comparison // with the expected output; nil: none is known, or a checker decides
	checker    *checkerFolder      // nil: no checker decides
	answer     *answerCheck        // nil: the answer is not compared with other solutions'
	all        []io.Writer
}

func (r *caseRun) sinks() (s *sinks, err error) {
	s = &sinks{out: &box.Head{Most: KeptText}}
	s.all = []io.Writer{s.out}
	defer func() {
		if err != nil {
			s.close()
		}
	}()
	if s.comparison, err = r.comparison(); err != nil {
		return s, fmt.Errorf("cannot read the expected output: %w", err)
	}
	if s.comparison != nil {
		s.all = append(s.all, s.comparison)
	}
	if r.test.Compare.Custom() {
		if s.checker, err = r.checkerFolder(); err != nil {
			return s, err
		}
		s.all = append(s.all, s.checker.got)
	}
	if s.answer, err = r.answerCheck(); err != nil {
		return s, fmt.Errorf("cannot compare the answer with that of another solution: %w", err)
	}
	if s.answer != nil {
		s.all = append(s.all, s.answer.to)
	}
	if w := r.listener(); w != nil {
		s.all = append(s.all, tolerant{w})
	}
	return s, nil
}

func (s *sinks) close() {
	if s.comparison != nil {
		s.comparison.Close()
	}
	if s.checker != nil {
		s.checker.end()
	}
	if s.answer != nil {
		s.answer.close()
	}
}

// tolerant keeps the other writers going when one has seen enough.
type tolerant struct{ io.Writer }

func (t tolerant) Write(p []byte) (int, error) {
	t.Writer.Write(p)
	return len(p), nil
}

// openInput opens the input at its start. One that was saved with a byte-order
// mark or with Windows line ends is given without them, as a judge would.
func openInput(d problem.Data) (*os.File, error) {
	if d.Path == "" {
		return box.Memory(d.Text)
	}
	file, err := os.Open(d.Path)
	if err != nil {
		return nil, err
	}
	var head [4096]byte
	n, err := file.ReadAt(head[:], 0)
	if err != nil && err != io.EOF {
		file.Close()
		return nil, err
	}
	line, _, ended := bytes.Cut(head[:n], []byte{'\n'})
	marked := bytes.HasPrefix(line, []byte(problem.ByteOrderMark))
	if !marked && !(ended && bytes.HasSuffix(line, []byte{'\r'})) {
		return file, nil
	}
	defer file.Close()
	text, err := io.ReadAll(file)
	if err != nil {
		return nil, err
	}
	return box.Memory(problem.Plain(text))
}
