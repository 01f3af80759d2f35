// Package cross looks for an input on which a candidate fails: one on which it parts
// from a reference, breaks a limit, is rejected by a checker, or answers otherwise
// than before. It shrinks what it finds while it fails in the same way.
//
// Inputs come from the problem's shape, or from what [make] names. Edge cases come
// first, then random inputs whose sizes grow slowly, and beside them large ones for
// the limits. What has shown something new is tried more often. Where a file holds
// many cases, or the problem is a function, as many inputs as fit go into one run, and
// a failure is cut down to the input that causes it; one that fails only after other cases is
// recognised.
//
// A candidate is accused only of what it does again. A reference that fails, is too
// slow or contradicts itself is told, and nothing that follows from it is the
// candidate's fault.
//
// The same seed tries the same random inputs in the same order, as far as solutions
// answer the same; only how far it comes depends on the machine.
package cross

import (
	"context"
	"errors"
	"fmt"
	"time"

	"coldverdict/core/box"
	"coldverdict/core/judge"
	"coldverdict/core/problem"
	"coldverdict/core/shape"
	"coldverdict/core/verdict"
)

// Options say what is compared with what, and for how long.
type Options struct {
	Candidates []problem.Solution
	Reference  *problem.Solution // nil: there is none
	// Time is how long inputs are tried; what is found is shrunk after that, too. 0:
	// until the context ends, or Count is reached.
	Time time.Duration
	// Count bounds the inputs; 0: it does not.
	Count int
	Seed  shape.Seed
	// Size and Style are those of all random inputs, and leave out edge cases; nil and
	// empty: they are chosen.
	Size  *shape.Size
	Style string
	Env   judge.Env // Jobs: rounds beside each other
	Build judge.BuildOptions
}

// An Event is one of the types below, a judge.Building or a judge.Held.
type Event any

// Began: everything is built, and inputs are about to be tried.
type Began struct {
	Candidates []judge.Plan
	Reference  *judge.Plan // nil: there is none
	Base       Base
	Hold       box.Hold
}

// A Base is what a candidate's answers are compared with.
type Base int

// The bases.
const (
	ByNothing   Base = iota // limits, and its own answers only
	ByReference             // what the reference prints
	ByChecker               // a checker that needs no expected output, or the interactor of a talk
	ByEachOther             // what the other candidates print
)

// Progress: so far nothing was found that was not told.
type Progress struct {
	Inputs  int
	Largest int // bytes of the largest input so far
	Elapsed time.Duration
	Doing   string // what is done beside trying inputs: "shrinking"; empty: nothing
}

// An Origin says how an input was generated.
type Origin struct {
	Edge  string // the name of an edge case; empty: it is a random input
	Seed  shape.Seed
	Size  shape.Size
	Style string // empty: any
	// Number says which of all valid inputs it is, from 1, where all are tried; 0: it was drawn.
	Number int
}

// A Way is in what way a candidate fails.
type Way int

// The ways.
const (
	Fails       Way = iota // its verdict says it
	Unsteady               // it answers otherwise when it is run again
	AfterOthers            // it answers otherwise when other cases come before
	Disagrees              // with another candidate, and nobody knows who is right
)

// A Found is a failure of a candidate.
type Found struct {
	Candidate int // index in Options.Candidates
	Way       Way
	// Cases is the smallest input, with what was expected: one case, or in a function
	// problem as many calls as it takes.
	Cases   []problem.Case
	Outcome verdict.Outcome // of the last case
	Origin  Origin
	Inputs  int           // tried until it was found
	After   time.Duration // until it was found
	Before  int64         // bytes of the input that failed first
	Size    int64         // bytes of the smallest
	Tries   int           // inputs tried while it was shrunk
	Shrunk  time.Duration // took that long
	// Complete says that no single step makes it smaller.
	Complete bool
	// Company is how many cases lie in the smallest input, where each of them alone is
	// answered as expected; 0: that is not so.
	Company int
	Answers []Answer // of all candidates, where they disagree
	// Doubt says why the reference may be the one that is wrong; empty: nothing says so.
	Doubt string
}

// An Answer is what some candidates answered alike.
type Answer struct {
	Candidates []int
	Text       verdict.Text
	Failed     string // why there is none: a verdict
}

// A Failure is what a reference did on an input that it should have answered.
type Failure struct {
	Input   problem.Data
	Outcome verdict.Outcome
}

// A Health is how the reference bore up.
type Health struct {
	Answered int   // inputs
	Largest  int64 // bytes of the largest that it answered
	Slow     int   // inputs on which it was too slow
	SlowFrom int64 // bytes of the smallest of them
	Failed   int   // runs in which it failed otherwise
	First    *Failure
	// Wrong says in what way it is of no use; empty: it served.
	Wrong string
	// WrongOn is where that shows; nil: nowhere in particular.
	WrongOn *Failure
}

// A Result is what a search came to.
type Result struct {
	Base     Base
	Inputs   int // tried
	Runs     int // of candidates, but for those while shrinking
	Judged   int // inputs on which an answer was compared with something
	Elapsed  time.Duration
	Found    []Found
	Health   Health
	Coverage Coverage
	Notes    []Note
	Slowest  []Peak // of each candidate
	// LetGo says that a candidate was suspected, and inputs were not tried on it meanwhile.
	LetGo bool
}

// A Weight is how much it means that nothing was found.
type Weight int

// Weights of a result, from least to most.
const (
	NothingJudged Weight = iota // no answer was compared with anything
	OnlyRan                     // programs kept within their limits; nobody knows whether they are right
	Agreed                      // the candidates gave the same answers
	Confirmed                   // answers were as expected
)

// Exhausted reports that every valid input was tried on every candidate that was not found to fail.
func (r *Result) Exhausted() bool {
	return r.Coverage.All > 0 && r.Inputs >= r.Coverage.All && !r.LetGo
}

// Weight says how much it means that nothing was found.
func (r *Result) Weight() Weight {
	switch {
	case r.Inputs == 0:
		return NothingJudged
	case r.Base == ByNothing:
		return OnlyRan
	case r.Base == ByEachOther:
		return Agreed
	case r.Judged == 0:
		return NothingJudged
	}
	return Confirmed
}

// A Note is something that a judge would not mind, but that may matter.
type Note struct {
	Candidate int // or TheReference
	Text      string
	Input     []byte // nil: there is none to show
}

// TheReference stands for it where a candidate could.
const TheReference = -1

// A Peak is how near a candidate came to its limits.
type Peak struct {
	Time   time.Duration
	Memory int64
	Origin Origin
	Bytes  int64
}

// A FaultError is a failure on our side: of a checker, or of the interactor.
type FaultError struct {
	Message string
	Input   []byte
}

func (e *FaultError) Error() string { return e.Message }

// ErrNoInputs says that a problem describes no inputs.
var ErrNoInputs = errors.New("nothing says what inputs look like")

// Run looks for failures until every candidate has one, or the time or the count is
// over. Where the context ends, the result is what was found so far. The error is the
// context's, a *shape.GenerateError, a *judge.MakerError, a *judge.UnableError, a
// *FaultError, or says what failed on our side.
func Run(ctx context.Context, p *problem.Problem, o Options, tell func(Event)) (*Result, error) {
	s, err := begin(ctx, p, o, true, tell)
	if err != nil {
		return nil, err
	}
	err = s.search(ctx)
	if s.result.Elapsed == 0 {
		s.result.Elapsed = time.Since(s.began)
	}
	s.result.Coverage = s.seen.summary(p, s.result)
	s.result.Coverage.Parts = s.reached()
	s.noteUnserved()
	return &s.result, errors.Join(err, s.close())
}

// String says how an input was generated.
func (o Origin) String() string {
	switch {
	case o.Edge != "":
		return "edge case " + o.Edge
	case o.Number > 0:
		return fmt.Sprintf("input %d of all", o.Number)
	}
	words := fmt.Sprintf("seed %s, size %s", o.Seed, o.Size)
	if o.Style != "" {
		words += ", style " + o.Style
	}
	return words
}
