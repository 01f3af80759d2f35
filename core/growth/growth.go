// Package growth measures how the time and the memory of solutions grow with their input, says by
// which law, and predicts what the largest valid input takes.
//
// Run generates inputs that grow in what the shape of the input scales, in several styles, and runs
// each solution on them, few times and where it tells most. A Growth is what came of one solution:
// the points that were measured, and a Trend for time and one for memory, which say the law, those
// that cannot be told from it, and whether the largest input fits into the limits.
package growth

import (
	"context"
	"errors"
	"time"

	"coldverdict/core/judge"
	"coldverdict/core/problem"
	"coldverdict/core/shape"
	"coldverdict/core/verdict"
)

// Options say what is measured.
type Options struct {
	Candidates []problem.Solution
	Scale      []string // the names that grow; empty: what the shape scales
	Time       time.Duration
	Seed       shape.Seed
	Env        judge.Env
	Build      judge.BuildOptions
}

// alone is the environment in which nothing runs beside what is measured.
func (o Options) alone() judge.Env {
	o.Env.Jobs = 1
	return o.Env
}

// A Point is what a solution took on one input.
type Point struct {
	Sizes   []int64 // of the names that grow, in the order of Result.Names
	Axis    int     // which of them grew: its index, or All
	Style   string  // empty: values are uniform
	Input   int64   // bytes
	Output  int64   // bytes
	CPU     time.Duration
	Slowest time.Duration // of its runs; CPU is that of the fastest
	Memory  int64         // bytes, peak
	Runs    int
	Largest bool // of all valid inputs

	value float64         // on its axis
	times []time.Duration // of its runs, ascending

	// Failed is the verdict of a run that did not come to its end, and Message says why;
	// then CPU and Memory are what it took until then. Accepted: it came to its end.
	Failed  verdict.Verdict
	Message string
}

// All is the axis on which all names grow together.
const All = -1

// Ended reports that the runs came to their end.
func (p Point) Ended() bool { return p.Failed == verdict.Accepted }

// A Result is what was measured of all solutions.
type Result struct {
	Names   []string // what grows
	Largest []int64  // the largest values that the names have together, in a valid input
	Growths []Growth
}

// A Growth is what was found out of one solution.
type Growth struct {
	Plan   judge.Plan
	Points []Point
	Time   Trend // in seconds
	Memory Trend // in bytes
	Output Trend // in bytes
	// Stop is the smallest point that failed; nil: none did.
	Stop    *Point
	Elapsed time.Duration
	Runs    int
}

// A Trend is how something grows.
type Trend struct {
	Law      string   // empty: too little is known
	Near     []string // laws that cannot be told from it
	Exponent float64  // of the growth in what grows, where it is large; 0: not known
	Sure     float64  // the standard error of the exponent
	Style    string   // in which inputs are worst
	Others   []StyleLaw
	Limit    float64
	Largest  Prediction
	Fits     Fits
	// Most are the largest values of the names that would fit, in the style that is worst; nil:
	// not known, or without bound.
	Most  []int64
	Knees []Knee
}

// A StyleLaw is the law of a style that grows otherwise than the worst.
type StyleLaw struct{ Style, Law string }

// A Prediction is what the largest valid input takes.
type Prediction struct {
	Low, High float64 // predicted from smaller inputs; 0, 0: not predicted
	Measured  float64 // 0: it was not run
}

// A Knee is a size from which on something costs more than before.
type Knee struct {
	Sizes []int64
	Times float64 // as much as the law says of smaller inputs
}

// Fits says whether the largest input fits into a limit.
type Fits int

// How it fits.
const (
	Unknown Fits = iota
	Yes
	Barely // it takes more than the share of the limit that a judge's machine may differ by
	No
)

var fitsWords = [...]string{"cannot be told", "fits", "fits barely", "does not fit"}

func (f Fits) String() string { return fitsWords[f] }

// barely is the share of a limit from which on something fits barely.
const barely = 0.7

// ErrNothingGrows says that a problem describes no inputs that could grow.
var ErrNothingGrows = errors.New("nothing says how inputs can grow")

// A ScaleError says which of the names that are asked for cannot grow.
type ScaleError struct{ Text string }

func (e *ScaleError) Error() string { return e.Text }

// Progress says what was run last.
type Progress struct {
	File  string
	Names []string // that grow
	Sizes []int64  // of them
	Style string
}

// Run measures each of the solutions for the time that the options give. Events are those of the
// judge while solutions are built, and Progress. The error is the context's, an
// *judge.UnableError, a *ScaleError, ErrNothingGrows, or says what failed on our side.
func Run(ctx context.Context, p *problem.Problem, o Options, tell func(judge.Event)) (result *Result, err error) {
	source, err := openSource(ctx, p, o)
	if err != nil {
		return nil, err
	}
	defer func() { err = errors.Join(err, source.close()) }()
	prepared, closing, err := judge.OpenStarted(ctx, p, o.alone(), o.Candidates, o.Build, tell)
	if err != nil {
		return nil, err
	}
	defer func() { err = errors.Join(err, closing()) }()
	result = &Result{Names: source.names(), Largest: source.largest()}
	for i := range o.Candidates {
		m := &measuring{
			source: source, run: judged{prepared, i}, plan: prepared.Plan(i), seed: o.Seed, names: result.Names, time: o.Time,
			tell: func(p Progress) { tell(p) }, now: time.Now,
		}
		g, err := m.growth(ctx)
		if err != nil {
			return nil, err
		}
		result.Growths = append(result.Growths, g)
	}
	return result, nil
}

// A runner runs a solution on an input.
type runner interface {
	run(ctx context.Context, in problem.Data, limits verdict.Limits) (o verdict.Outcome, output int64, err error)
}

// judged runs a solution with the judge.
type judged struct {
	prepared *judge.Prepared
	solution int
}

func (j judged) run(ctx context.Context, in problem.Data, limits verdict.Limits) (o verdict.Outcome, output int64, err error) {
	counter := &counting{}
	outcomes, err := j.prepared.Judge(ctx, 0, judge.Request{
		Solution: j.solution, Cases: []problem.Case{{Name: "grown", Input: in}}, Limits: limits,
		SkipRerun: true, Unaccompanied: true, Output: counter.begin,
	})
	if err != nil {
		return o, 0, err
	}
	return outcomes[0], counter.bytes, nil
}
