package judge

import (
	"bytes"
	"fmt"
	"io"
	"os"
	"strings"

	"coldverdict/core/compare"
	"coldverdict/core/problem"
	"coldverdict/core/verdict"
)

// byRefused rejects an output that is known to be wrong: one that was refused,
// or a number that is not on the side of a refused one on which the answer is sought.
func (r *caseRun) byRefused(o *verdict.Outcome, answer []byte, cut bool) {
	if len(r.test.Refused) == 0 || o.Verdict != verdict.Accepted && o.Verdict != verdict.Partial && o.Verdict != verdict.Unjudged || cut {
		return
	}
	got, isNumber := problem.ReadNumber(answer)
	var bounds []string
	for _, refused := range r.test.Refused {
		text, err := refused.Answer.Head(KeptText)
		if err != nil {
			continue
		}
		if r.same(text, answer) {
			o.Verdict, o.Share, o.Message = verdict.WrongAnswer, 0, "this very answer was refused"
			if sought := refused.SoughtWords(); sought != "" {
				o.Message += "; " + sought
			}
			return
		}
		known, ok := problem.ReadNumber(text)
		if !ok || !isNumber || refused.Sought == "" {
			continue
		}
		words := fmt.Sprintf("%s than %s", refused.SoughtWords(), bytes.TrimSpace(text))
		if way := got.Cmp(known); way <= 0 && refused.Sought == problem.SoughtLarger || way >= 0 && refused.Sought == problem.SoughtSmaller {
			o.Verdict, o.Share, o.Message = verdict.WrongAnswer, 0, words
			return
		}
		bounds = append(bounds, words)
	}
	if o.Verdict == verdict.Unjudged && len(bounds) > 0 {
		o.Message = strings.TrimPrefix(printedWords(verdict.Text{Bytes: answer})+"; "+strings.Join(bounds, ", "), "; ")
	}
}

// same reports that an answer is one that is known.
func (r *caseRun) same(known, answer []byte) bool {
	j := r.run.judge
	d, err := j.manner.compare(j.problem, r.test.Compare, problem.Data{Text: known, Size: int64(len(known))}, answer)
	return err == nil && d == nil
}

// Compare compares a text with an expected output in a certain way, and returns
// where they differ, or nil. A checker of a person's own is not asked. The error says that the expected output
// could not be read.
func Compare(how problem.Comparison, expected problem.Data, got []byte) (*verdict.Difference, error) {
	source, err := expected.Open()
	if err != nil {
		return nil, err
	}
	text, err := io.ReadAll(source)
	source.Close()
	if err != nil {
		return nil, err
	}
	c, err := compare.New(settingsOf(how), &compare.Inline{Text: text})
	if err != nil {
		return nil, err
	}
	defer c.Close()
	c.Write(got)
	return c.Result()
}

// CompareAnswers compares an answer with an expected one as a problem has it:
// what a function returned as a value, everything else as Compare does.
func CompareAnswers(p *problem.Problem, expected problem.Data, got []byte) (*verdict.Difference, error) {
	return mannerOf(p).compare(p, p.Compare, expected, got)
}

// filesExplained says what a failure has to do with the files that the problem
// names.
func (r *caseRun) filesExplained(o *verdict.Outcome) (words []string) {
	files := r.run.judge.problem.Files
	if files == (problem.Files{}) {
		return nil
	}
	source, err := os.ReadFile(r.run.plan.Build.Source)
	unnamed := func(name string) bool {
		return name != "" && err == nil && !strings.Contains(strings.ToLower(string(source)), strings.ToLower(name))
	}
	if unnamed(files.Input) {
		words = append(words, fmt.Sprintf("the input is in the file %s, which the source does not name; standard input is empty", files.Input))
	}
	if o.Verdict == verdict.WrongAnswer && o.Difference == nil && unnamed(files.Output) {
		words = append(words, fmt.Sprintf("the output belongs in the file %s, which the source does not name", files.Output))
	}
	return words
}
