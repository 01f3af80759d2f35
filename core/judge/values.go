package judge

import (
	"context"
	"errors"
	"fmt"
	"io"
	"os"
	"strings"

	"coldverdict/core/compare"
	"coldverdict/core/problem"
	"coldverdict/core/script"
	"coldverdict/core/value"
	"coldverdict/core/verdict"
)

// What a function returned is compared as a value.

// byValue judges what a call returned. The error is the context's, or says that the
// expected result could not be read.
func (r *caseRun) byValue(ctx context.Context, o *verdict.Outcome, text string) error {
	asked := r.run.judge.problem.Call
	results := asked.Results()
	o.Returned = text
	var got any
	var err error
	switch {
	case asked.CopyOf > 0:
		if got, err = r.ofCopy(text); errors.Is(err, errChanged) {
			o.Verdict, o.Message = verdict.WrongAnswer, err.Error()
			return nil
		}
	default:
		if got, err = value.ReadResults(text, results); asked.Class != nil && err == nil {
			got, err = r.ofSequence(o, got)
		}
	}
	if err == nil {
		counted, wrong := asked.Counted(got)
		if wrong != nil {
			o.Verdict, o.Message = verdict.WrongAnswer, wrong.Error()
			return nil
		}
		got = counted
	}
	if err != nil {
		why := err.Error()
		if strings.HasPrefix(why, "expected ") { // of the whole, which is shown already
			if expected, found, ok := strings.Cut(why, ", found "); ok && !strings.HasPrefix(found, "the ") {
				why = expected
			}
		}
		o.Verdict, o.Message = verdict.WrongAnswer, "it returned "+shownValue(text)+": "+why
		if text == "null" {
			o.Message = fmt.Sprintf("it returned nothing, and %s was expected", results[0].Type)
			o.Hints = []string{"the function returned nothing: a return is missing, at least on the way that this call takes"}
		}
		return nil
	}
	o.Returned = value.Write(got)
	if w := r.listener(); w != nil {
		io.WriteString(w, o.Returned+"\n")
	}
	if r.test.Compare.Custom() {
		err = r.byOwnChecker(ctx, o, got)
	} else {
		err = r.byKnown(o, got)
	}
	if err != nil {
		return err
	}
	r.byRefused(o, []byte(o.Returned), false)
	if o.Verdict == verdict.Unjudged && o.Message == "" && len(o.Returned) <= 60 {
		o.Message = "returned " + o.Returned
	}
	return r.compareReturned(o, got)
}

// byKnown compares what a call returned with the results that are accepted.
func (r *caseRun) byKnown(o *verdict.Outcome, got any) error {
	o.Verdict = verdict.Unjudged
	var best *value.Difference
	var expected any
	for _, data := range r.test.Accepted {
		known, err := r.result(data)
		if err != nil {
			return err
		}
		known = r.run.judge.problem.Call.Expected(known, got)
		d := r.test.Compare.Values().Compare(known, got)
		if d == nil {
			o.Verdict = verdict.Accepted
			return nil
		}
		if best == nil {
			best, expected = d, known
		}
	}
	if best != nil {
		o.Verdict = verdict.WrongAnswer
		o.Difference = valueDifference(best, expected, got)
		o.Message = valueWords(best, r.run.judge.problem.Call.Results())
		o.Hints = valueHints(expected, got)
		if asked := r.run.judge.problem.Call; asked.Class != nil || asked.Scripted() {
			o.Message, o.Hints = r.sequenceWords(best), nil
		}
	}
	return nil
}

// sequenceWords says at which call of a sequence what was returned differs: "call 5, get(2): expected
// -1, got 20".
func (r *caseRun) sequenceWords(d *value.Difference) string {
	results := r.run.judge.problem.Call.Results()
	i, ok := -1, false
	if len(d.Path) > 0 {
		i, ok = d.Path[0].(int)
	}
	if !ok {
		return valueWords(d, results)
	}
	inner := *d
	inner.Path = d.Path[1:]
	if asked := r.run.judge.problem.Call; asked.Scripted() {
		text, err := dataText(r.test.Input)
		if err != nil {
			return valueWords(d, results)
		}
		_, steps, err := asked.Script(text)
		if err != nil || i >= len(steps) {
			return valueWords(d, results)
		}
		words, _, _ := strings.Cut(steps[i].Text, " = ")
		return fmt.Sprintf("step %d, %s: %s", i+1, shownValue(words), valueWords(&inner, results))
	}
	steps, err := r.steps()
	if err != nil || i >= len(steps) {
		return valueWords(d, results)
	}
	return fmt.Sprintf("%s: %s%s", callName(steps, i+1), valueWords(&inner, results), afterWords(steps, i))
}

// errChanged says that a function has changed what it had to copy.
var errChanged = errors.New("it changed")

// ofCopy takes apart a copy of an argument and what became of that, which must be as it was.
func (r *caseRun) ofCopy(text string) (made any, err error) {
	asked := r.run.judge.problem.Call
	original := asked.Takes[asked.CopyOf-1]
	both, err := value.ReadResults(text, []value.Field{{Name: "copy", Type: original.Type}, original})
	if err != nil {
		return nil, err
	}
	args, err := r.arguments()
	if err != nil {
		return nil, err
	}
	list := both.([]any)
	if d := (value.Comparison{}).Compare(args[asked.CopyOf-1], list[1]); d != nil {
		return nil, fmt.Errorf("%w argument %d, of which a copy was asked for: %s", errChanged, asked.CopyOf, valueWords(d, nil))
	}
	return list[0], nil
}

// arguments are what the case gives to its call.
func (r *caseRun) arguments() ([]any, error) {
	text, err := dataText(r.test.Input)
	if err != nil {
		return nil, err
	}
	return r.run.judge.problem.Call.ReadArguments(text)
}

func (r *caseRun) result(data problem.Data) (any, error) {
	text, err := dataText(data)
	if err != nil {
		return nil, fmt.Errorf("cannot read the expected result: %w", err)
	}
	v, err := value.ReadResults(text, r.run.judge.problem.Call.Results())
	if err != nil {
		return nil, fmt.Errorf("the expected result of %s: %w", r.test.Name, err)
	}
	return v, nil
}

// shownValue cuts what was returned to what a remark has room for.
func shownValue(text string) string {
	const most = 40
	if runes := []rune(text[:min(len(text), 8*most)]); len(runes) > most {
		return string(runes[:most]) + "…"
	}
	return text
}

// byOwnChecker lets a checker of the person's own decide on a value.
func (r *caseRun) byOwnChecker(ctx context.Context, o *verdict.Outcome, got any) error {
	folder, err := r.checkerFolder()
	if err != nil {
		return err
	}
	defer folder.end()
	if _, err := folder.got.Write([]byte(o.Returned + "\n")); err != nil {
		return err
	}
	input, err := openInput(r.test.Input)
	if err != nil {
		return err
	}
	defer input.Close()
	if err := r.writeValues(folder.dir, got); err != nil {
		return err
	}
	o.Verdict = verdict.Accepted
	return r.byChecker(ctx, o, folder, input)
}

// writeValues puts what a script sees as values into a checker's folder.
func (r *caseRun) writeValues(dir string, got any) error {
	args, err := r.arguments()
	if err != nil {
		return err
	}
	names := make([]string, len(args))
	for i, f := range r.run.judge.problem.Call.Data() {
		names[i] = f.Name
	}
	var expected any
	if len(r.test.Accepted) > 0 {
		if expected, err = r.result(r.test.Accepted[0]); err != nil {
			return err
		}
	}
	return script.WriteValues(dir, names, args, got, expected)
}

// valueDifference shows where two values differ, each on one line.
func valueDifference(d *value.Difference, expected, got any) *verdict.Difference {
	want, wantAt := value.Marked(expected, d.Path)
	have, haveAt := value.Marked(got, d.Path)
	return &verdict.Difference{
		Path: value.PathText(d.Path), Expected: d.Expected, Got: d.Got, Reason: d.Reason,
		ExpectedSide: compare.OneLine(want, wantAt), GotSide: compare.OneLine(have, haveAt),
	}
}

// valueWords says where two values differ: "[3][0]: expected 5, got 4".
func valueWords(d *value.Difference, results []value.Field) string {
	path := d.Path
	if len(results) > 1 && len(path) > 0 {
		if i, ok := path[0].(int); ok && i < len(results) {
			path = append([]any{results[i].Name}, path[1:]...)
		}
	}
	words := ""
	switch {
	case d.Expected == "":
		words = "got " + quote(d.Got)
	case d.Got == "":
		words = "expected " + quote(d.Expected)
	default:
		words = fmt.Sprintf("expected %s, got %s", quote(d.Expected), quote(d.Got))
	}
	if len(path) > 0 {
		words = value.PathText(path) + ": " + words
	}
	if d.Reason != "" {
		words += " (" + d.Reason + ")"
	}
	return words
}

// mostLeaves bounds the values that hints look at.
const mostLeaves = 2000

// valueHints looks at the single values in two results as if each were a line.
func valueHints(expected, got any) []string {
	want, have := value.Leaves(expected, mostLeaves+1), value.Leaves(got, mostLeaves+1)
	if len(want) > mostLeaves || len(have) > mostLeaves || len(want) == 0 || len(have) == 0 {
		return nil
	}
	return compare.ValueHints(want, have)
}

// dataText reads a case's data whole, without what Windows editors add.
func dataText(d problem.Data) (string, error) {
	text := d.Text
	if d.Path != "" {
		var err error
		if text, err = os.ReadFile(d.Path); err != nil {
			return "", err
		}
	}
	return string(problem.Plain(text)), nil
}
