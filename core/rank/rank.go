// Package rank compares how long solutions take on the same cases, and says whether a difference
// is real.
//
// Run judges each solution first: one that fails is not ranked. The others then take turns, round
// after round, so that a machine's moods hit all of them alike. What is compared is the processor
// time of whole rounds, in pairs; a ratio is given with the interval in which it lies.
package rank

import (
	"cmp"
	"context"
	"errors"
	"math"
	"math/rand/v2"
	"slices"
	"time"

	"coldverdict/core/judge"
	"coldverdict/core/problem"
	"coldverdict/core/verdict"
)

// Options say what is compared.
type Options struct {
	Candidates []problem.Solution // two at least
	Only       []int              // indices of the cases; nil: all
	Time       time.Duration      // for taking turns, once all are judged
	Env        judge.Env
	Build      judge.BuildOptions
}

// A Place is what came of one solution.
type Place struct {
	Solution int // its index in Options
	Plan     judge.Plan
	Failed   *judge.Ended // why it is not ranked; nil: it is

	Time    time.Duration // processor time of all cases, the median of the rounds
	Slowest time.Duration // of the case that takes longest, likewise
	Memory  int64         // bytes, the peak of all cases
	Bytes   int64         // of the source
	Lines   int
	Ratio   Ratio // to the first place
}

// A Result is what a comparison came to.
type Result struct {
	Places []Place // the fastest first; those that are not ranked last
	Cases  []int   // indices of the cases that were run in each round
	Rounds int
}

// leastRounds is how many rounds there are, whatever the time, and mostRounds bounds them.
const (
	leastRounds = 6
	mostRounds  = 400
)

// precise is the width of all intervals, as a share, from which on no more rounds are made.
const precise = 0.01

// Run compares solutions. Events are those of the judge, and Progress. The error is the
// context's, or says what failed on our side.
func Run(ctx context.Context, p *problem.Problem, o Options, tell func(judge.Event)) (result *Result, err error) {
	prepared, closing, err := judge.OpenPrepared(ctx, p, o.Env, o.Candidates, o.Build, tell)
	if err != nil {
		return nil, err
	}
	defer func() { err = errors.Join(err, closing()) }()
	ended, err := prepared.Run(ctx, p.Cases, judge.RunOptions{Only: o.Only}, tell)
	if err != nil {
		return nil, err
	}
	result = &Result{Cases: o.Only}
	if result.Cases == nil {
		for i := range p.Cases {
			result.Cases = append(result.Cases, i)
		}
	}
	var ranked []int
	for i, e := range ended {
		place := Place{Solution: i, Plan: prepared.Plan(i)}
		place.Bytes, place.Lines = sourceSize(p.Path(o.Candidates[i]))
		if e.Verdict == verdict.Accepted || e.Verdict == verdict.Unjudged {
			ranked = append(ranked, i)
		} else {
			place.Failed = &e
		}
		result.Places = append(result.Places, place)
	}
	cases := make([]problem.Case, len(result.Cases))
	for i, index := range result.Cases {
		cases[i] = p.Cases[index]
	}
	rounds, err := turns(ctx, ranked, o.Time, func(solution int) (round, error) {
		tell(Progress{solution, o.Candidates[solution].File})
		outcomes, err := prepared.Judge(ctx, 0, judge.Request{Solution: solution, Cases: cases, SkipRerun: true, Unaccompanied: true})
		if err != nil {
			return round{}, err
		}
		return roundOf(outcomes), nil
	}, time.Now)
	if err != nil {
		return nil, err
	}
	result.settle(ranked, rounds)
	return result, nil
}

// Progress says which solution takes its turn.
type Progress struct {
	Solution int
	File     string
}

// A round is what one solution took on all cases.
type round struct {
	time, slowest time.Duration
	memory        int64
}

func roundOf(outcomes []verdict.Outcome) (r round) {
	for _, o := range outcomes {
		r.time += o.Usage.CPU
		r.slowest = max(r.slowest, o.Usage.CPU)
		r.memory = max(r.memory, o.Usage.Memory)
	}
	return r
}

// turns lets solutions take turns until the time is over, or all differences are known well. The
// order within a round is drawn anew for each: who comes second must not always be the same.
func turns(ctx context.Context, ranked []int, most time.Duration, run func(solution int) (round, error), now func() time.Time) (map[int][]round, error) {
	rounds := map[int][]round{}
	if len(ranked) == 0 {
		return rounds, nil
	}
	random := rand.New(rand.NewPCG(1, uint64(len(ranked))))
	began := now()
	for n := 0; n < mostRounds && (n < leastRounds || now().Sub(began) < most); n++ {
		order := slices.Clone(ranked)
		random.Shuffle(len(order), func(i, k int) { order[i], order[k] = order[k], order[i] })
		for _, solution := range order {
			if err := ctx.Err(); err != nil {
				return nil, err
			}
			r, err := run(solution)
			if err != nil {
				return nil, err
			}
			rounds[solution] = append(rounds[solution], r)
		}
		if n >= 4*leastRounds && n%leastRounds == 0 && known(ranked, rounds) {
			break
		}
	}
	return rounds, nil
}

// known reports that every ratio to the fastest is known well.
func known(ranked []int, rounds map[int][]round) bool {
	best := slices.MinFunc(ranked, func(a, b int) int { return cmp.Compare(median(timesOf(rounds[a])), median(timesOf(rounds[b]))) })
	for _, solution := range ranked {
		r := ratioOf(timesOf(rounds[solution]), timesOf(rounds[best]), roughly)
		if solution != best && r.High-r.Low > precise*r.Ratio {
			return false
		}
	}
	return true
}

// settle puts the places in order.
func (r *Result) settle(ranked []int, rounds map[int][]round) {
	for i := range r.Places {
		p := &r.Places[i]
		list := rounds[p.Solution]
		if len(list) == 0 {
			continue
		}
		r.Rounds = len(list)
		p.Time = time.Duration(median(timesOf(list)))
		var slowest []float64
		for _, one := range list {
			slowest = append(slowest, float64(one.slowest))
			p.Memory = max(p.Memory, one.memory)
		}
		p.Slowest = time.Duration(median(slowest))
	}
	order := func(p Place) time.Duration {
		if p.Failed != nil {
			return math.MaxInt64
		}
		return p.Time
	}
	slices.SortStableFunc(r.Places, func(a, b Place) int { return cmp.Compare(order(a), order(b)) })
	if len(ranked) == 0 {
		return
	}
	best := timesOf(rounds[r.Places[0].Solution])
	for i := range r.Places {
		if p := &r.Places[i]; p.Failed == nil {
			p.Ratio = ratioOf(timesOf(rounds[p.Solution]), best, resamples)
		}
	}
}

func timesOf(list []round) (times []float64) {
	for _, r := range list {
		times = append(times, float64(r.time))
	}
	return times
}
