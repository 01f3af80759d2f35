package judge

import (
	"bytes"
	"context"
	"errors"
	"fmt"
	"io"
	"os"
	"slices"
	"strings"
	"sync"
	"syscall"
	"time"

	"coldverdict/core/box"
	"coldverdict/core/compare"
	"coldverdict/core/problem"
	"coldverdict/core/toolchain"
	"coldverdict/core/verdict"
)

// A caseRun is one case on its way to its outcome.
type caseRun struct {
	*session
	solution int // its index
	index    int // of the case
	worker   *worker
	plan     *Plan
	limits   verdict.Limits
	program  box.Program
	test     *problem.Case
	crowded  bool // others run beside it

	diagnose *sync.Once // of all cases of a solution the first that passes its memory limit is looked at again
}

// nearTime is the share of the time limit past which a run beside others is
// not trusted; closeShare that of a limit past which an accepted case is
// marked as close.
const (
	nearTime   = 0.7
	closeShare = 0.8
)

// smallText is the size up to which a file is read at once, in bytes.
const smallText = 16 << 10

// settled runs the case as often as was asked for.
func (r *caseRun) settled(ctx context.Context) (verdict.Outcome, error) {
	outcome, err := r.sure(ctx)
	if err != nil || r.options.Repeat == 1 || !outcome.Ran {
		return outcome, err
	}
	times := []time.Duration{outcome.Usage.CPU}
	for range r.options.Repeat - 1 {
		another, err := r.sure(ctx)
		if err != nil || !another.Ran {
			return another, err
		}
		times = append(times, another.Usage.CPU)
		outcome = both(outcome, another)
	}
	return withSpread(outcome, times), nil
}

// withSpread gives the outcome of several runs the spread of their times, and the
// median as its own.
func withSpread(o verdict.Outcome, times []time.Duration) verdict.Outcome {
	times = slices.Sorted(slices.Values(times))
	o.Spread = &verdict.Spread{Runs: len(times), Least: times[0], Median: times[len(times)/2], Most: times[len(times)-1]}
	o.Usage.CPU = o.Spread.Median
	return o
}

// both makes one outcome of two runs that count alike: the worse verdict
// stands, and the larger memory.
func both(a, b verdict.Outcome) verdict.Outcome {
	worse := worseOf(a, b)
	worse.Unsteady = a.Unsteady || b.Unsteady || a.Verdict != b.Verdict
	worse.Usage.Memory = max(a.Usage.Memory, b.Usage.Memory)
	worse.Usage.Wall = max(a.Usage.Wall, b.Usage.Wall)
	return worse
}

// worseOf returns the outcome with the worse verdict; the first of equal ones.
func worseOf(a, b verdict.Outcome) verdict.Outcome {
	if verdict.Worse(a.Verdict, b.Verdict) == a.Verdict {
		return a
	}
	return b
}

// sure runs the case, and runs it again alone if it came near a limit of time while
// others ran beside it. The lone run settles its times. Where anything else differs, the
// worse verdict stands.
func (r *caseRun) sure(ctx context.Context) (verdict.Outcome, error) {
	r.alone.RLock()
	first, err := r.once(ctx)
	r.alone.RUnlock()
	if err != nil || !r.crowded || !cameNear(first, r.limits) {
		return first, err
	}
	r.alone.Lock()
	lone, err := r.once(ctx)
	r.alone.Unlock()
	if err != nil {
		return lone, err
	}
	return join(first, lone), nil
}

// cameNear reports that a run came near a limit of time.
func cameNear(o verdict.Outcome, l verdict.Limits) bool {
	past := func(used, limit time.Duration) bool { return limit > 0 && share(used, limit) > nearTime }
	return o.Ran && (past(o.Usage.CPU, l.Time) || past(o.Usage.Wall, l.Wall) && !o.Waited)
}

// join makes one outcome of a run beside others and a lone one.
func join(first, lone verdict.Outcome) verdict.Outcome {
	settled := func(v verdict.Verdict) bool { return v == verdict.TimeLimit || v == verdict.Stalled }
	if first.Verdict == lone.Verdict || settled(first.Verdict) || settled(lone.Verdict) {
		return lone
	}
	worse := worseOf(first, lone)
	worse.Usage.CPU, worse.Usage.Wall = lone.Usage.CPU, lone.Usage.Wall
	worse.Unsteady = true
	worse.Close = false
	return worse
}

// once runs the case. The error is the context's; what fails on our side is
// an outcome with the verdict fault.
func (r *caseRun) once(ctx context.Context) (verdict.Outcome, error) {
	fault := func(err error) (verdict.Outcome, error) {
		if ctx.Err() != nil {
			return verdict.Outcome{}, ctx.Err()
		}
		return verdict.Outcome{Verdict: verdict.Fault, Message: err.Error()}, nil
	}
	if r.problem.Interactive() {
		outcome, err := r.converse(ctx)
		if err != nil {
			return fault(err)
		}
		return r.kept(outcome), nil
	}
	input, err := openInput(r.test.Input)
	if err != nil {
		return fault(fmt.Errorf("cannot read the input: %w", err))
	}
	defer input.Close()
	comparison, err := r.comparison()
	if err != nil {
		return fault(fmt.Errorf("cannot read the expected output: %w", err))
	}
	out := &box.Head{Most: KeptText}
	errs := &box.Head{Most: KeptText}
	run := box.Run{
		Program: r.program,
		Limits:  r.limits, Input: input, Output: out, Errors: errs,
		Files: box.Files(r.problem.Files),
	}
	answer := []io.Writer{out}
	if comparison != nil {
		defer comparison.Close()
		answer = append(answer, comparison)
	}
	var given *hearing
	if r.test.Compare.Custom() {
		if given, err = r.hearing(); err != nil {
			return fault(err)
		}
		defer given.end()
		answer = append(answer, given.got)
	}
	check, err := r.answerCheck()
	if err != nil {
		return fault(fmt.Errorf("cannot compare the answer with that of another solution: %w", err))
	}
	if check != nil {
		defer check.close()
		answer = append(answer, check)
	}
	if w := r.listener(); w != nil {
		answer = append(answer, tolerant{w})
	}
	if run.Files.Output == "" {
		run.Output = io.MultiWriter(answer...)
	}
	result, err := r.worker.Run(ctx, run)
	if err != nil {
		return fault(err)
	}
	if result.File != nil {
		// What counts is the file, and what was printed beside it does not.
		*out = box.Head{Most: KeptText}
		_, err = io.Copy(io.MultiWriter(answer...), result.File)
		if err = errors.Join(err, result.File.Close()); err != nil {
			return fault(fmt.Errorf("cannot read %s: %w", run.Files.Output, err))
		}
	}
	outcome, said := r.outcomeOf(result, out, errs)
	switch {
	case outcome.Verdict != verdict.Accepted:
	case run.Files.Output != "" && result.File == nil:
		outcome.Verdict = verdict.WrongAnswer
		outcome.Message = "it wrote no file " + run.Files.Output
	case given != nil:
		if err := r.byChecker(ctx, &outcome, given, input); err != nil {
			return fault(err)
		}
	default:
		if err := r.byOutput(&outcome, comparison); err != nil {
			return fault(fmt.Errorf("cannot read the expected output: %w", err))
		}
	}
	r.byRefused(&outcome, outcome.Stdout.Bytes, outcome.Stdout.Cut)
	if check != nil {
		if err := check.settle(r.index, &outcome); err != nil {
			return fault(fmt.Errorf("cannot compare the answer with that of another solution: %w", err))
		}
	}
	r.remark(&outcome, result, said)
	if outcome.Verdict == verdict.MemoryLimit && len(outcome.Hints) == 0 {
		if outcome.Hints = r.diagnosed(ctx); len(outcome.Hints) > 0 && outcome.Message == "" {
			outcome.Message = deepRecursion
		}
	}
	return r.kept(outcome), nil
}

// listener is where all that the program prints goes beside the comparison; nil:
// nowhere.
func (r *caseRun) listener() io.Writer {
	if r.options.Output == nil {
		return nil
	}
	return r.options.Output(r.solution, r.index)
}

// kept is what is kept of an outcome.
func (r *caseRun) kept(o verdict.Outcome) verdict.Outcome {
	if o.Verdict != verdict.Accepted {
		return o
	}
	o.Share = 1
	if !r.options.KeepAll {
		o.Stdout, o.Stderr, o.Checker, o.Talk = verdict.Text{}, verdict.Text{}, verdict.Text{}, nil
	}
	return o
}

// outcomeOf is what the run itself leaves: the verdict as far as limits decide
// it, and what the program's own words say of its end.
func (r *caseRun) outcomeOf(result box.Result, out, errs *box.Head) (verdict.Outcome, toolchain.Reading) {
	outcome := verdict.Outcome{
		Ran: true, Usage: result.Usage, ExitCode: result.ExitCode,
		Stdout: verdict.Text{Bytes: out.Text, Cut: out.Cut},
		Stderr: verdict.Text{Bytes: r.ownPaths(errs.Text, r.plan.Build), Cut: errs.Cut},
	}
	if result.Signal != 0 && result.Ending == box.Exited {
		outcome.Signal = signalWords(result.Signal)
	}
	said := r.plan.Build.Read(string(errs.Text), result.ExitCode != 0 || result.Signal != 0)
	r.byLimits(&outcome, result, said)
	return outcome, said
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

// comparison opens what the output is held against; nil if nothing is known.
func (r *caseRun) comparison() (*compare.Comparison, error) {
	if len(r.test.Accepted) == 0 || r.test.Compare.Custom() {
		return nil, nil
	}
	var accepted []io.ReadCloser
	for _, data := range r.test.Accepted {
		if data.Path == "" {
			accepted = append(accepted, &compare.Inline{Text: data.Text})
			continue
		}
		source, err := expectedFile(data)
		if err != nil {
			for _, other := range accepted {
				other.Close()
			}
			return nil, err
		}
		accepted = append(accepted, source)
	}
	return compare.New(settingsOf(r.test.Compare), accepted...)
}

func settingsOf(c problem.Comparison) compare.Settings {
	return compare.Settings{
		Mode: c.Mode, Absolute: c.Absolute, Relative: c.Relative,
		IgnoreCase: c.IgnoreCase, AnyOrder: c.AnyOrder,
	}
}

// expectedFile opens an expected output; a small one is read at once.
func expectedFile(data problem.Data) (io.ReadCloser, error) {
	if data.Size > smallText {
		return os.Open(data.Path)
	}
	text, err := os.ReadFile(data.Path)
	return &compare.Inline{Text: text}, err
}

// byLimits sets the verdict as far as limits and the program's end decide it;
// accepted means that they leave it open. A limit beats everything else, and
// of several the one that ended the run.
func (r *caseRun) byLimits(o *verdict.Outcome, result box.Result, said toolchain.Reading) {
	l := r.limits
	switch {
	case result.Ending == box.PassedMemory, result.Usage.Memory > l.Memory:
		o.Verdict = verdict.MemoryLimit
	case result.Ending == box.PassedOutput:
		o.Verdict = verdict.OutputLimit
	case result.Ending == box.PassedTime, result.Usage.CPU > l.Time:
		o.Verdict = verdict.TimeLimit
	case result.Ending == box.PassedWall, result.Usage.Own() > l.Wall:
		o.Verdict = verdict.Stalled
	case said.Has(toolchain.KindMemory):
		o.Verdict = verdict.MemoryLimit
	case said.Has(toolchain.KindCompile):
		o.Verdict = verdict.CompileError
	case !result.Succeeded():
		o.Verdict = verdict.RuntimeError
	default:
		o.Verdict = verdict.Accepted
	}
}

func (r *caseRun) byOutput(o *verdict.Outcome, comparison *compare.Comparison) (err error) {
	if comparison == nil {
		o.Verdict = verdict.Unjudged
		return nil
	}
	if o.Difference, err = comparison.Result(); o.Difference != nil {
		o.Verdict = verdict.WrongAnswer
	}
	return err
}

// remark adds the shortest useful words, and hints.
func (r *caseRun) remark(o *verdict.Outcome, result box.Result, said toolchain.Reading) {
	l := r.limits
	switch o.Verdict {
	case verdict.WrongAnswer:
		if o.Message == "" {
			r.locate(o.Difference)
			o.Message = differenceWords(o.Difference)
		}
	case verdict.Fault:
	case verdict.RuntimeError:
		o.Message = crashWords(o, result, l, said)
	case verdict.CompileError:
		o.Message = said.String()
	case verdict.MemoryLimit:
		if result.Usage.Memory <= l.Memory && result.Ending == box.Exited {
			o.Message = "it asked for more than it was given, and failed"
			if said.Line > 0 {
				o.Message += fmt.Sprintf(" at line %d", said.Line)
			}
		}
	case verdict.OutputLimit:
		if result.Filled {
			o.Message = "it filled its working folder"
			break
		}
		o.Message = "it wrote more than " + verdict.Size(l.Output)
	case verdict.Stalled:
		if o.Message != "" {
			break
		}
		o.Message = waitedWords(result.Usage.CPU, result.Usage.Own())
	case verdict.Accepted, verdict.Unjudged:
		time, memory := share(result.Usage.CPU, l.Time), share(result.Usage.Memory, l.Memory)
		switch {
		case time > closeShare:
			o.Close, o.Message = true, fmt.Sprintf("close: %.0f %% of the time limit", 100*time)
		case memory > closeShare:
			o.Close, o.Message = true, fmt.Sprintf("close: %.0f %% of the memory limit", 100*memory)
		case result.Left > 0:
			o.Message = fmt.Sprintf("left %d of its processes running", result.Left)
		case o.Verdict == verdict.Unjudged && o.Message == "":
			o.Message = printedWords(o.Stdout)
		}
	}
	defer byDepth(o, result, l)
	if result.Tried != "" {
		o.Message = strings.TrimSuffix(result.Tried+"; "+o.Message, "; ")
	}
	if !o.Verdict.Passing() {
		o.Hints = compare.Hints(r.evidence(o, r.explained(o, result, said)))
	}
}

// mostPrinted is how much of an answer a remark shows, in characters.
const mostPrinted = 60

// printedWords is the beginning of an answer that nobody can judge, its lines joined.
func printedWords(text verdict.Text) string {
	answer := strings.TrimRight(string(text.Bytes), " \t\r\n")
	if answer == "" {
		return ""
	}
	lines := strings.Count(answer, "\n") + 1
	shown := []rune(strings.ReplaceAll(strings.ReplaceAll(answer[:min(len(answer), 4*mostPrinted)], "\r", ""), "\n", " ⏎ "))
	if cut := text.Cut || len(answer) > 4*mostPrinted || len(shown) > mostPrinted; cut {
		shown = append(shown[:min(len(shown), mostPrinted)], '…')
	}
	words := "printed "
	switch {
	case text.Cut:
		words = fmt.Sprintf("printed more than %d lines: ", lines-1)
	case lines > 1:
		words = fmt.Sprintf("printed %d lines: ", lines)
	}
	return words + string(shown)
}

func share[T int64 | time.Duration](used, limit T) float64 { return float64(used) / float64(limit) }

// mostLocated bounds the inputs that are read to find the share of an answer,
// in bytes.
const mostLocated = 16 << 20

// locate says which of many answers a difference lies in.
func (r *caseRun) locate(d *verdict.Difference) {
	if d.ExpectedLines < 2 {
		return
	}
	text, err := r.test.Input.Head(mostLocated + 1)
	if err != nil {
		return
	}
	line := d.ExpectedSide.FirstLine + d.ExpectedSide.Mark
	d.Answer, _ = compare.Locate(text, len(text) <= mostLocated, d.ExpectedLines, line)
}

func differenceWords(d *verdict.Difference) string {
	at := fmt.Sprintf("line %d", d.Line)
	if d.Column > 1 {
		at += fmt.Sprintf(", column %d", d.Column)
	}
	if a := d.Answer; a.Number > 0 {
		of := fmt.Sprintf("answer %d of %d", a.Number, a.Of)
		if d.Line == a.Number && d.Column <= 1 {
			at = of
		} else {
			at += ", " + of
		}
	}
	switch {
	case d.Reason == "nothing was printed":
		return d.Reason
	case d.Reason != "" && !strings.HasPrefix(d.Reason, "off by"):
		return at + ": " + d.Reason
	}
	words := fmt.Sprintf("%s: expected %s, got %s", at, quote(d.Expected), quote(d.Got))
	if d.Reason != "" {
		words += " (" + d.Reason + ")"
	}
	return words
}

// quote shows a token in a remark: bare where that is clear.
func quote(token string) string {
	const most = 24
	if runes := []rune(token); len(runes) > most {
		token = string(runes[:most]) + "…"
	}
	if token == "" {
		return "nothing"
	}
	return token
}

// waitedWords says in words that a program waited.
func waitedWords(cpu, wall time.Duration) string {
	return fmt.Sprintf("it waited: %.2f s of processor time in %.2f s", cpu.Seconds(), wall.Seconds())
}

// crashWords says in words how a program failed: the error that its runtime
// named, with its line, and otherwise how it ended.
func crashWords(o *verdict.Outcome, result box.Result, l verdict.Limits, said toolchain.Reading) string {
	if result.Ending == box.PassedProcess {
		if result.Room > 0 {
			return fmt.Sprintf("more than %d processes at once, for which this machine has no memory", result.Room)
		}
		return fmt.Sprintf("more than %d processes and threads at once", l.Processes)
	}
	words := o.Signal
	switch {
	case words == "" && said.Message != "":
		return said.String()
	case words == "":
		words = fmt.Sprintf("exit status %d", o.ExitCode)
	case result.Signal == int(syscall.SIGKILL):
		words += ", by itself or by the system"
	}
	if more := said.String(); more != "" {
		return words + ": " + more
	}
	if line := lastLine(string(o.Stderr.Bytes)); line != "" {
		words += ": " + line
	}
	return words
}

// leastDeep is the size of a stack, in bytes, from which on a program that fails is told that it
// recursed deeply, whatever its limit of memory is.
const leastDeep = 64 << 20

// byDepth says of a program that passed a limit, or crashed, that its recursion went deep.
func byDepth(o *verdict.Outcome, result box.Result, l verdict.Limits) {
	switch o.Verdict {
	case verdict.MemoryLimit, verdict.TimeLimit, verdict.RuntimeError:
		if result.Stack > 0 && (result.Stack > leastDeep || l.Memory > 0 && result.Stack > l.Memory/2) {
			words := "the recursion went deep: its stack took " + verdict.Size(result.Stack)
			o.Message = strings.TrimSuffix(words+"; "+o.Message, "; ")
			o.Hints = append([]string{"a recursion without end looks like this: is the case that ends it always reached?"}, o.Hints...)
		}
	}
}

// diagnosisMemory is what a program is given beyond its limit while it is looked
// at once more, since to unwind a deep stack takes memory itself.
const diagnosisMemory = 512 << 20

// diagnosed runs a program that has passed its limit of memory once more, in a
// way in which its runtime can tell that the recursion was too deep, once for
// each solution. That nothing is learned is no error.
func (r *caseRun) diagnosed(ctx context.Context) (hints []string) {
	r.diagnose.Do(func() {
		limits := r.limits
		limits.Memory += diagnosisMemory
		program, ok := r.plan.Build.Diagnosis(r.limits, r.plan.Solution.Args)
		input, err := openInput(r.test.Input)
		if !ok || err != nil {
			return
		}
		defer input.Close()
		errs := &box.Head{Most: KeptText}
		result, err := r.worker.Run(ctx, box.Run{Program: program, Limits: limits, Input: input, Errors: errs})
		if err != nil {
			return
		}
		hints = tooDeep(r.plan.Build, string(r.ownPaths(errs.Text, r.plan.Build)), result.ExitCode != 0)
	})
	return hints
}

// deepRecursion is the remark on a program of which tooDeep found that.
const deepRecursion = "the recursion went too deep"

// tooDeep says what a runtime with a small stack wrote of a recursion; nil: nothing.
func tooDeep(build *toolchain.Build, text string, failed bool) (hints []string) {
	said := build.Read(text, failed)
	if !said.Has(toolchain.KindStack) {
		return nil
	}
	return []string{fmt.Sprintf("%s; with a stack of 16 MiB it says %s", build.Language.Words(toolchain.KindStack), said)}
}

// lastLine returns the last line that is not blank.
func lastLine(text string) string {
	text = strings.TrimSpace(text)
	return strings.TrimSpace(text[strings.LastIndexByte(text, '\n')+1:])
}

// explained says what the failure means, as far as the language's own words
// and the source tell it.
func (r *caseRun) explained(o *verdict.Outcome, result box.Result, said toolchain.Reading) (words []string) {
	language := r.plan.Build.Language
	words = r.filesExplained(o)
	switch o.Verdict {
	case verdict.RuntimeError, verdict.CompileError:
		words = append(words, r.plan.Build.Explain(said)...)
		if unseen := r.plan.Build.Unseen(string(o.Stderr.Bytes)); unseen != "" && !r.options.Uncontained {
			words = append(words, unseen)
		}
		if syscall.Signal(result.Signal) == syscall.SIGFPE && len(words) == 0 {
			words = append(words, language.Words(toolchain.KindDivision))
		}
		if o.Signal != "" && said.Line == 0 && len(language.Checked) > 0 && !r.plan.Build.Checked && result.Signal != int(syscall.SIGKILL) {
			words = append(words, "'cold try --checked' may say at which line")
		}
	case verdict.TimeLimit:
		if source, err := os.ReadFile(r.plan.Build.Source); err == nil {
			if slow := language.ReadsSlowly(source, r.test.Input.Size, r.limits.Time.Seconds()); slow != "" {
				words = append(words, slow)
			}
		}
	}
	return words
}

func signalWords(signal int) string {
	return fmt.Sprintf("%v (signal %d)", syscall.Signal(signal), signal)
}

// evidence gathers what hints are made from. Texts that were cut are no
// evidence for the whole failure.
func (r *caseRun) evidence(o *verdict.Outcome, explained []string) compare.Evidence {
	e := compare.Evidence{
		Verdict: o.Verdict, Settings: settingsOf(r.test.Compare), Got: string(o.Stdout.Bytes), Whole: !o.Stdout.Cut,
		Waits: o.Waited, Explained: explained,
	}
	if !o.Stderr.Cut {
		e.Errors = string(o.Stderr.Bytes)
	}
	if o.Difference == nil {
		e.Whole = false // there is nothing to hold it against
	}
	if len(r.test.Accepted) > 0 && o.Difference != nil {
		text, err := r.test.Accepted[0].Head(KeptText + 1)
		e.Whole = e.Whole && err == nil && len(text) <= KeptText
		e.Expected = string(text)
	}
	if text, err := r.test.Input.Head(KeptText); err == nil {
		e.Input = string(text)
	}
	return e
}
