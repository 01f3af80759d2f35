package judge

import (
	"fmt"
	"io"
	"os"
	"path/filepath"
	"strings"
	"sync"

	"coldverdict/core/compare"
	"coldverdict/core/problem"
	"coldverdict/core/value"
	"coldverdict/core/verdict"
)

// Where nobody knows the answer to a case, two solutions that print different ones cannot
// both be right. Neither is accepted then.

// Amended: a solution that had ended has another verdict, since a later one answers a case
// differently of which the answer is not known.
type Amended struct {
	Solution int
	Verdict  verdict.Verdict
	Message  string
}

// answers are the first answers to the cases that nobody can judge.
type answers struct {
	dir string // where they are kept

	mu    sync.Mutex
	first map[question]firstAnswer
	// What follows is used by one goroutine, when a solution has ended.
	by       map[question][]int      // the solutions that answered it
	disputed map[question]int        // the solution whose answer was not the first one's
	ended    map[int]verdict.Verdict // by solution
}

// A question is a case, and, of one that was generated for all parts of a problem, the part that is asked for.
type question struct {
	index int
	part  string
}

func questionOf(s problem.Solution, index int, group string) question {
	q := question{index: index}
	if s.Also != "" && group == s.Also {
		q.part = strings.Join(s.Groups, " ")
	}
	return q
}

// A firstAnswer is what the first solution that was run on a case printed or returned.
type firstAnswer struct {
	solution int
	data     problem.Data
}

// newAnswers keeps answers in a folder.
func newAnswers(folder string) *answers {
	return &answers{dir: folder, first: map[question]firstAnswer{}, by: map[question][]int{}, disputed: map[question]int{}, ended: map[int]verdict.Verdict{}}
}

// expectedToFail reports that verdict.toml expects a solution to fail: its answers say nothing.
func expectedToFail(s problem.Solution) bool {
	return s.Expect != "" && s.Expect != verdict.Accepted.String()
}

// answerOf returns what compares the answers to this case; nil: its answer is known, or there
// is nothing to compare it with.
func (r *caseRun) answerOf() *answers {
	if r.run.answers == nil || len(r.test.Accepted) > 0 || r.test.Compare.Custom() || expectedToFail(r.run.plan.Solution) {
		return nil
	}
	return r.run.answers
}

// question is what the case asks the solution.
func (r *caseRun) question() question {
	return questionOf(r.run.plan.Solution, r.index, r.test.Group)
}

func (a *answers) firstOf(q question) (firstAnswer, bool) {
	a.mu.Lock()
	defer a.mu.Unlock()
	f, ok := a.first[q]
	return f, ok
}

func (a *answers) keep(q question, f firstAnswer) {
	a.mu.Lock()
	defer a.mu.Unlock()
	a.first[q] = f
}

// An answerCheck takes one output, and keeps it or compares it with the first.
type answerCheck struct {
	to         io.Writer // takes the output
	answers    *answers
	file       *os.File            // where it is kept; nil: there was one before
	comparison *compare.Comparison // with the first; nil: this is the first
	first      firstAnswer
}

// answerCheck returns what listens to a program's output; nil: nothing need.
func (r *caseRun) answerCheck() (*answerCheck, error) {
	a := r.answerOf()
	if a == nil {
		return nil, nil
	}
	c := &answerCheck{answers: a}
	var ok bool
	if c.first, ok = a.firstOf(r.question()); ok && c.first.solution != r.run.solution {
		source, err := c.first.data.Open()
		if err != nil {
			return nil, err
		}
		c.comparison, err = compare.New(settingsOf(r.test.Compare), source)
		c.to = c.comparison
		return c, err
	}
	file, err := os.Create(filepath.Join(a.dir, fmt.Sprintf("answer-%d-%d", r.index, r.run.solution)))
	if err != nil {
		return nil, err
	}
	c.file, c.to = file, file
	c.first = firstAnswer{r.run.solution, problem.Data{Path: file.Name()}}
	return c, nil
}

// settle says of an output that nobody can judge whether it differs from the first.
func (c *answerCheck) settle(q question, o *verdict.Outcome) error {
	if o.Verdict != verdict.Unjudged {
		return nil
	}
	if c.comparison == nil {
		c.answers.keep(q, c.first)
		return nil
	}
	d, err := c.comparison.Result()
	if d != nil {
		o.Differs = &verdict.Differs{Solution: c.first.solution, Difference: d}
	}
	return err
}

func (c *answerCheck) close() {
	if c.file != nil {
		c.file.Close()
	}
	if c.comparison != nil {
		c.comparison.Close()
	}
}

// compareReturned compares what a function returned with what the first solution did.
func (r *caseRun) compareReturned(o *verdict.Outcome, got any) error {
	a := r.answerOf()
	if a == nil || o.Verdict != verdict.Unjudged {
		return nil
	}
	first, ok := a.firstOf(r.question())
	if !ok || first.solution == r.run.solution {
		a.keep(r.question(), firstAnswer{r.run.solution, problem.Data{Text: []byte(o.Returned)}})
		return nil
	}
	before, err := value.ReadResults(string(first.data.Text), r.run.judge.problem.Call.Results())
	if err != nil {
		return err
	}
	if d := r.test.Compare.Values().Compare(before, got); d != nil {
		o.Differs = &verdict.Differs{Solution: first.solution, Difference: valueDifference(d, before, got)}
	}
	return nil
}

// withDifferences takes the verdict of a solution back where it answered a case on which
// solutions do not agree, and those of the earlier ones that answered it, too.
func (a *answers) withDifferences(r *solutionRun, plans []Plan, e Ended, results []caseResult, tell func(Event)) Ended {
	if a == nil {
		return e
	}
	plan := plans[e.Solution]
	for i, one := range results {
		index := plan.Cases[i]
		if one.verdict != verdict.Unjudged || one.noAnswer || expectedToFail(plan.Solution) {
			continue
		}
		test := r.cases[index]
		q := questionOf(plan.Solution, index, test.Group)
		name, earlier := test.Name, a.by[q]
		a.by[q] = append(earlier, e.Solution)
		if _, known := a.disputed[q]; !known && one.differs != nil {
			a.disputed[q] = e.Solution
			for _, other := range earlier {
				if a.ended[other].Passing() {
					a.ended[other] = verdict.Unjudged
					tell(Amended{other, verdict.Unjudged, differsWords(name, plan.Solution)})
				}
			}
		}
		if other, known := a.disputed[q]; known && e.Verdict.Passing() && e.Message == "" {
			if one.differs != nil {
				other = one.differs.Solution
			}
			e.Verdict, e.Message = verdict.Unjudged, differsWords(name, plans[other].Solution)
		}
	}
	a.ended[e.Solution] = e.Verdict
	return e
}

func differsWords(name string, other problem.Solution) string {
	return fmt.Sprintf("its answer to %s is not that of %s: one of the two is wrong", name, other.File)
}
