// Package ready takes one last look at a solution before it is submitted, with all that is known
// of its problem, and says what it could not know.
//
// Run makes the checks in their order: the build, the source itself, the cases, edge cases, the
// checked build, a search for differences, the growth, and steadiness. It ends at the first one
// that would fail for sure. A Result is ready, not ready, or ready as far as can be told; then
// Unchecked says what nobody checked, and what to do about it.
package ready

import (
	"context"
	"errors"
	"fmt"
	"slices"
	"time"

	"coldverdict/core/cross"
	"coldverdict/core/judge"
	"coldverdict/core/problem"
	"coldverdict/core/shape"
	"coldverdict/core/verdict"
)

// Options say what is looked at, and for how long.
type Options struct {
	Candidate problem.Solution
	Reference *problem.Solution  // nil: there is none
	Others    []problem.Solution // where there is no reference: own attempts that may serve as one
	Time      time.Duration      // for all checks together; what is found is shrunk after that, too
	Seed      shape.Seed
	Env       judge.Env
	Build     judge.BuildOptions
}

// An Outcome is what a look comes to.
type Outcome int

// The outcomes.
const (
	Ready    Outcome = iota
	AsFar            // as far as can be told
	NotReady         // something fails
)

func (o Outcome) String() string {
	return [...]string{"ready", "ready as far as can be told", "not ready"}[o]
}

// A State is what a check comes to.
type State int

// The states.
const (
	Passed     State = iota
	Doubtful         // a person should look at it; it is no reason not to submit
	Failed           // a judge would not accept it
	Unknown          // it could not be made, or not to its end
	Irrelevant       // there is nothing of the kind here
)

func (s State) String() string {
	return [...]string{"passed", "doubtful", "failed", "not checked", "does not apply"}[s]
}

// A Check is one look at a solution.
type Check struct {
	Name     string
	State    State
	Message  string // in a sentence without its full stop; may be empty
	Findings []Finding
	Took     time.Duration
}

// A Gap is something that nobody checked.
type Gap struct {
	What string // in a sentence
	Todo string // what to do about it
}

// A Result is what a look came to.
type Result struct {
	Outcome   Outcome
	Checks    []Check
	Unchecked []Gap
	// Found is what shows that it is not ready; nil: no input does. Case is the name of its case;
	// empty: it was generated.
	Found *cross.Found
	Case  string
	// Log is what the compiler said of a source that it refused.
	Log string
}

// An Event is one of the types below, or a judge.Building.
type Event any

// Started: a check begins.
type Started struct{ Name string }

// Going says how far a check is.
type Going struct{ Words string }

// Ended: a check has ended.
type Ended struct{ Check }

// A look is one call of Run.
type look struct {
	problem  *problem.Problem // with edge cases, once they were generated
	own      int              // so many of its cases are the person's
	options  Options
	plan     judge.Plan
	text     []byte          // of the source
	usual    *judge.Prepared // the candidate as it is usually built, for the problem as it is now; nil: not yet
	deadline time.Time
	result   *Result
	tell     func(Event)
	// answers are what the candidate answered in small cases whose answer nobody knows, by their names.
	answers map[string][]byte
	checked chan struct{} // closed when the checked build is there, or cannot be made
	closing []func() error
}

// A step is a check, and the share of the time left that it may take. A check keeps to that by
// itself; the context is that of the whole look.
type step struct {
	name  string
	share float64
	check func(*look, context.Context, time.Duration) (Check, error)
}

var steps = []step{
	{"build", 1, (*look).build},
	{"source", 1, (*look).source}, // it takes no time, and what it finds may fail for sure
	{"samples", 0.5, (*look).samples},
	{"own cases", 0.5, (*look).ownCases},
	{"edge cases", 0.5, (*look).edgeCases},
	{"checked build", 0.4, (*look).checkedBuild},
	{"same answer", 0.3, (*look).sameAnswer},
	{"comparison", 0.5, (*look).comparison},
	{"growth", 0.7, (*look).growth},
	{"same again", 0.5, (*look).again},
	{"other order", 0.8, (*look).otherOrder},
}

// Run looks at a solution. The error is the context's, or says what failed on our side; that a
// solution does not build, and all else that is wrong with it, is a result.
func Run(ctx context.Context, p *problem.Problem, o Options, tell func(Event)) (r *Result, err error) {
	l := &look{problem: p, answers: map[string][]byte{}, own: len(p.Cases), options: o, result: &Result{}, tell: tell, deadline: time.Now().Add(o.Time)}
	defer func() {
		for _, end := range l.closing {
			err = errors.Join(err, end())
		}
	}()
	for _, s := range steps {
		tell(Started{s.name})
		began := time.Now()
		c, err := s.check(l, ctx, l.budget(s))
		if err != nil {
			return nil, err
		}
		c.Name, c.Took = s.name, time.Since(began)
		l.result.Checks = append(l.result.Checks, c)
		tell(Ended{c})
		if c.State == Failed {
			l.result.Outcome = NotReady
			return l.result, nil
		}
	}
	if len(l.result.Unchecked) > 0 {
		l.result.Outcome = AsFar
	}
	return l.result, nil
}

// budget is how long a check may take.
func (l *look) budget(s step) time.Duration {
	return time.Duration(float64(max(time.Until(l.deadline), time.Second)) * s.share)
}

// unchecked notes what nobody checked.
func (l *look) unchecked(what, todo string) {
	l.result.Unchecked = append(l.result.Unchecked, Gap{what, todo})
}

// going says what is done.
func (l *look) going(format string, args ...any) { l.tell(Going{fmt.Sprintf(format, args...)}) }

// failedOn notes the case that shows that a solution is not ready.
func (l *look) failedOn(c problem.Case, o verdict.Outcome) {
	if c.Sealed {
		return // its verdict is all that is told
	}
	l.result.Case = c.Name
	c.Input = held(c.Input)
	c.Accepted = slices.Clone(c.Accepted)
	for i := range c.Accepted {
		c.Accepted[i] = held(c.Accepted[i])
	}
	l.result.Found = &cross.Found{Cases: []problem.Case{c}, Outcome: o, Size: c.Input.Size, Before: c.Input.Size, Complete: true}
}

// mostHeld bounds what is kept of data whose file may be gone when it is shown, in bytes.
const mostHeld = 64 << 20

// held is data in memory, where its file could be read and is not too large.
func held(d problem.Data) problem.Data {
	if d.Path == "" || d.Size > mostHeld {
		return d
	}
	text, err := d.Head(d.Size)
	if err != nil {
		return d
	}
	return problem.Data{Text: text, Size: d.Size, Sealed: d.Sealed}
}
