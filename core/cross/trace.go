package cross

import (
	"context"
	"fmt"
	"strconv"
	"strings"
	"time"

	"coldverdict/core/coverage"
)

// Reached is what of a candidate's source ran.
type Reached struct {
	Candidate int
	Inputs    int // that were traced: not all of them are
	Ran, Of   int // parts, as the compiler divides the source where it branches
	// Missed are the lines on which parts begin that never ran.
	Missed []int
}

// MissedWords names the first lines that were missed, of which there is one at least.
func (r Reached) MissedWords(most int) string {
	var all []string
	for _, n := range r.Missed[:min(len(r.Missed), most)] {
		all = append(all, strconv.Itoa(n))
	}
	words := "line " + all[0]
	if len(all) > 1 {
		words = "lines " + strings.Join(all, ", ")
	}
	if more := len(r.Missed) - most; more > 0 {
		words += fmt.Sprintf(" and %d more", more)
	}
	return words
}

// mostTraced bounds the candidates that are traced.
const mostTraced = 2

// A tracer says which parts of a candidate run.
type tracer struct {
	build  *coverage.Tracer
	traced int // inputs; guarded by the search
}

// openTracers builds candidates so that they tell what of them runs, where their
// language has such a build, beside the other builds. The channel gives them when they
// are ready, by candidate.
func (s *search) openTracers(ctx context.Context, o Options, wanted bool) <-chan []*tracer {
	ready := make(chan []*tracer, 1)
	go func() {
		list := make([]*tracer, len(o.Candidates))
		for i := range list[:min(len(list), mostTraced)] {
			if !wanted {
				break
			}
			env := o.Env
			env.Jobs = 1
			// Without them the search is only less wise.
			if t, err := coverage.Open(ctx, s.problem, o.Candidates[i], o.Build.Limits, env); err == nil && t != nil {
				list[i] = &tracer{build: t}
			}
		}
		ready <- list
	}()
	return ready
}

// Which inputs are traced: edge cases, and of the random inputs the first and then one
// in so many, which become more as their number grows; where they are joined, fewer.
// Large ones only if they take no longer than traceable.
const (
	firstTraced       = 64
	tracedEvery       = 8
	tracedEveryJoined = 512
	traceable         = 100 * time.Millisecond
)

// A trait is something that an input of a pack showed.
type trait struct {
	input int
	value uint64
}

// trace runs some inputs of a pack once more, and returns which parts of the candidate
// they reach.
func (s *search) trace(ctx context.Context, candidate int, p *pack, took time.Duration) (traits []trait, err error) {
	t := s.tracers[candidate]
	if t == nil || p.stream == largeStream && took > traceable {
		return nil, nil
	}
	for i := range p.inputs {
		if !s.isTraced(p, i) {
			continue
		}
		text := p.texts[min(i, len(p.texts)-1)]
		if p.joined != nil {
			text = p.joined.Part(i, i+1).Append(nil)
		}
		parts, err := t.build.Trace(ctx, text)
		if err != nil {
			return nil, err
		}
		s.mu.Lock()
		t.traced++
		s.mu.Unlock()
		for _, part := range parts {
			traits = append(traits, trait{i, 'p'<<56 | uint64(candidate)<<48 ^ part})
		}
	}
	return traits, nil
}

func (s *search) isTraced(p *pack, i int) bool {
	if p.stream != randomStream && p.inputs[i].Number == 0 {
		return true
	}
	number := uint64(p.inputs[i].Seed - s.options.Seed)
	if all := p.inputs[i].Number; all > 0 {
		number = uint64(all)
	}
	every := uint64(tracedEvery)
	if s.source.packs {
		every = tracedEveryJoined
	}
	for n := number; n > 128*every; n /= 4 {
		every *= 4
	}
	return number < firstTraced || number%every == 0
}

// reached is what of the candidates ran.
func (s *search) reached() (all []Reached) {
	for i, t := range s.tracers {
		if t != nil && t.traced > 0 {
			one := Reached{Candidate: i, Inputs: t.traced}
			one.Ran, one.Of, one.Missed = t.build.Reached()
			all = append(all, one)
		}
	}
	return all
}
