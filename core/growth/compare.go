package growth

import (
	"context"
	"errors"
	"math"
	"slices"
	"time"

	"coldverdict/core/judge"
	"coldverdict/core/problem"
	"coldverdict/core/verdict"
)

// A Comparison is what several solutions took on the same inputs, which grow.
type Comparison struct {
	Names     []string // what grows
	Plans     []judge.Plan
	Steps     []Step
	Crossings []Crossing
}

// A Step is one input, and what each solution took on it; where one failed, or was given up since
// it takes too long, it has no time.
type Step struct {
	Sizes []int64
	CPU   []time.Duration // the fastest of its runs; 0: none
	// Out says which of them passed their limit here, or failed, or did so before.
	Out []bool
}

// A Crossing is where two solutions change places: up to Below the first is faster, from From
// on the other.
type Crossing struct {
	First, Other int
	Below, From  []int64
}

// turnsEach is how often each solution runs on an input, one after the other.
const turnsEach = 3

// Compare runs solutions in turns on inputs that grow, with uniform values, for the time that the
// options give all of them together, and says where they change places. Events and errors are those
// of Run.
func Compare(ctx context.Context, p *problem.Problem, o Options, tell func(judge.Event)) (c *Comparison, err error) {
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
	c = &Comparison{Names: source.names()}
	var runners []runner
	for i := range o.Candidates {
		c.Plans = append(c.Plans, prepared.Plan(i))
		runners = append(runners, judged{prepared, i})
	}
	err = c.steps(ctx, source, runners, o, func(p Progress) { tell(p) }, time.Now)
	if err != nil {
		return nil, err
	}
	c.Crossings = c.crossings()
	return c, nil
}

// steps runs inputs from the smallest to the largest, or until the time is over. A solution that
// passes its limit, or fails, takes part no longer.
func (c *Comparison) steps(ctx context.Context, source source, runners []runner, o Options, tell func(Progress), now func() time.Time) error {
	began, reach := now(), source.reach(All)
	out := make([]bool, len(runners))
	factor := coarse
	for value := 1.0; ; value = min(reach, max(value+1, math.Floor(value*factor))) {
		in, err := source.generate(ctx, All, value, "", o.Seed)
		if err != nil {
			return err
		}
		step := Step{Sizes: in.sizes, CPU: make([]time.Duration, len(runners))}
		for range turnsEach {
			for i, r := range runners {
				if out[i] || now().Sub(began) > o.Time {
					continue
				}
				tell(Progress{c.Plans[i].Solution.File, c.Names, in.sizes, ""})
				outcome, _, err := r.run(ctx, in.data, c.Plans[i].Limits)
				if err != nil {
					return err
				}
				if out[i] = failure(outcome) != verdict.Accepted; out[i] {
					step.CPU[i] = 0
					continue
				}
				if step.CPU[i] == 0 || outcome.Usage.CPU < step.CPU[i] {
					step.CPU[i] = outcome.Usage.CPU
				}
			}
		}
		step.Out = slices.Clone(out)
		if step.rises(c.Steps) {
			factor = fine
		}
		if slices.ContainsFunc(step.CPU, func(d time.Duration) bool { return d > 0 }) {
			c.Steps = append(c.Steps, step)
		}
		if value >= reach || now().Sub(began) > o.Time || !slices.Contains(out, false) {
			return nil
		}
	}
}

// rises reports that a solution takes clearly longer than on the first input.
func (s Step) rises(before []Step) bool {
	for i, took := range s.CPU {
		if len(before) > 0 && took > 3*before[0].CPU[i]/2+2*time.Millisecond {
			return true
		}
	}
	return false
}

// faster is by how much one must be faster than another to count as such.
const faster = 1.08

// ahead reports which of two is clearly faster on an input: -1 the first, 1 the other, 0 neither.
func (s Step) ahead(first, other int) int {
	a, b := s.CPU[first], s.CPU[other]
	switch {
	case s.Out[first] && b > 0:
		return 1
	case s.Out[other] && a > 0:
		return -1
	case a == 0 || b == 0:
		return 0
	case float64(b) > faster*float64(a) && b-a > noise:
		return -1
	case float64(a) > faster*float64(b) && a-b > noise:
		return 1
	}
	return 0
}

// crossings finds where each two solutions change places: twice in a row the one is faster, and
// later on twice in a row the other.
func (c *Comparison) crossings() (list []Crossing) {
	for first := range c.Plans {
		for other := range first {
			was, since := 0, 0
			for i := 0; i+1 < len(c.Steps); i++ {
				lead := c.Steps[i].ahead(first, other)
				if lead == 0 || lead != c.Steps[i+1].ahead(first, other) {
					continue
				}
				if was != 0 && lead != was {
					crossing := Crossing{first, other, c.Steps[since].Sizes, c.Steps[i].Sizes}
					if was > 0 {
						crossing.First, crossing.Other = other, first
					}
					list = append(list, crossing)
				}
				was, since = lead, i+1
			}
		}
	}
	return list
}
