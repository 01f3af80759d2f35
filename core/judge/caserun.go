package judge

import (
	"fmt"
	"io"
	"os"
	"strings"
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
	run    *solutionRun
	worker *worker
	index  int // of the case
	test   *problem.Case
	limits verdict.Limits
}

// caseRun begins the case at a position in the plan.
func (r *solutionRun) caseRun(w *worker, position int) *caseRun {
	return &caseRun{run: r, worker: w, index: r.plan.Cases[position], test: r.test(position), limits: r.limits(position)}
}

// closeShare is the share of a limit past which an accepted case is marked as close.
const closeShare = 0.8

// smallText is the size up to which a file is read at once, in bytes.
const smallText = 16 << 10

// listener is where all that the program prints goes beside the comparison; nil:
// nowhere.
func (r *caseRun) listener() io.Writer {
	if r.run.options.Output == nil {
		return nil
	}
	return r.run.options.Output(r.run.solution, r.index)
}

// kept is what is kept of an outcome.
func (r *caseRun) kept(o verdict.Outcome) verdict.Outcome {
	if o.Verdict != verdict.Accepted {
		return o
	}
	o.Share = 1
	if !r.run.options.KeepAll {
		o.Stdout, o.Stderr, o.Checker, o.Talk = verdict.Text{}, verdict.Text{}, verdict.Text{}, nil
	}
	return o
}

// outcomeOf is what a run itself leaves: the verdict as far as its end and its limits decide it.
func (r *caseRun) outcomeOf(result box.Result, out, errs *box.Head) (verdict.Outcome, measured) {
	build := r.run.plan.Build
	m := measured{result: result, reading: build.Read(string(errs.Text), result.ExitCode != 0 || result.Signal != 0)}
	return verdict.Outcome{
		Ran: true, Usage: result.Usage, ExitCode: result.ExitCode, Signal: m.signalWords(), Verdict: classify(m, r.limits),
		Stdout: verdict.Text{Bytes: out.Text, Cut: out.Cut},
		Stderr: verdict.Text{Bytes: r.run.judge.ownPaths(errs.Text, build), Cut: errs.Cut},
	}, m
}

// comparison opens what the output is compared with; nil if nothing is known.
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
func (r *caseRun) remark(o *verdict.Outcome, m measured) {
	switch {
	case o.Verdict == verdict.Fault:
	case o.Verdict.Passing():
		r.remarkPassing(o, m.result)
	case o.Message != "":
	case o.Verdict == verdict.WrongAnswer:
		r.locate(o.Difference)
		o.Message = differenceWords(o.Difference)
	default:
		o.Message = m.remark(o.Verdict, r.limits, o.Stderr.Bytes)
	}
	if m.result.Tried != "" {
		o.Message = strings.TrimSuffix(m.result.Tried+"; "+o.Message, "; ")
	}
	if !o.Verdict.Passing() {
		o.Hints = compare.Hints(r.evidence(o, r.explained(o, m)))
	}
	noteDepth(o, m, r.limits)
}

// remarkPassing says of a case that passed what is worth to be known.
func (r *caseRun) remarkPassing(o *verdict.Outcome, result box.Result) {
	time, memory := share(o.Usage.CPU, r.limits.Time), share(o.Usage.Memory, r.limits.Memory)
	switch {
	case time > closeShare:
		markClose(o, time, "time")
	case memory > closeShare:
		markClose(o, memory, "memory")
	case result.Left > 0:
		o.Message = fmt.Sprintf("left %d of its processes running", result.Left)
	case o.Verdict == verdict.Unjudged && o.Message == "":
		o.Message = printedWords(o.Stdout)
	}
}

// markClose says that a case that passed came close to a limit.
func markClose(o *verdict.Outcome, share float64, limit string) {
	o.Close, o.Message = true, fmt.Sprintf("close: %.0f %% of the %s limit", 100*share, limit)
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
	case d.Kind == verdict.InAll:
		return d.Reason
	case d.Reason != "" && d.Kind != verdict.InAmount:
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

// explained says what the failure means, as far as the language's own words
// and the source tell it.
func (r *caseRun) explained(o *verdict.Outcome, m measured) (words []string) {
	language := r.run.plan.Build.Language
	words = r.filesExplained(o)
	switch o.Verdict {
	case verdict.RuntimeError, verdict.CompileError:
		words = append(words, r.run.plan.Build.Explain(m.reading)...)
		if unseen := r.run.plan.Build.Unseen(string(o.Stderr.Bytes)); unseen != "" && !r.run.judge.env.Uncontained {
			words = append(words, unseen)
		}
		if syscall.Signal(m.result.Signal) == syscall.SIGFPE && len(words) == 0 {
			words = append(words, language.Words(toolchain.KindDivision))
		}
		if o.Signal != "" && m.reading.Line == 0 && len(language.Checked) > 0 && !r.run.plan.Build.Checked && m.result.Signal != int(syscall.SIGKILL) {
			words = append(words, "'cold try --checked' may say at which line")
		}
	case verdict.TimeLimit:
		if source, err := os.ReadFile(r.run.plan.Build.Source); err == nil {
			if slow := language.ReadsSlowly(source, r.test.Input.Size, r.limits.Time.Seconds()); slow != "" {
				words = append(words, slow)
			}
		}
	}
	return words
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
		e.Whole = false // there is nothing to compare it with
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
