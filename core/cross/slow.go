package cross

import (
	"cmp"
	"context"
	"math/rand/v2"
	"slices"
	"sync"
	"time"

	"coldverdict/core/judge"
	"coldverdict/core/problem"
	"coldverdict/core/shape"
	"coldverdict/core/verdict"
)

// A Timed is what an input took.
type Timed struct {
	Origin  Origin
	Bytes   int64
	Outcome verdict.Outcome
}

// A Slowness is what a search for slow inputs came to, for one candidate.
type Slowness struct {
	Candidate int
	// Worst are the slowest inputs, one of each style and each edge case, the slowest
	// first.
	Worst []Timed
	Input []byte // the slowest
	// Spread is that of the slowest, run alone several times; zero where it passes a
	// limit.
	Spread verdict.Spread
}

// repeatSlowest is how often the slowest input is run alone at the end.
const repeatSlowest = 5

// Slow looks for inputs of full size that take candidates longest: the large edge
// cases, one in each style, and then further ones in the styles that took longest. The
// programs run one at a time, so that their times are those that count; inputs are generated
// beside them. The search, its events and its errors are otherwise those of Run; what
// is given as Reference, Size and Style means nothing.
func Slow(ctx context.Context, p *problem.Problem, o Options, tell func(Event)) ([]Slowness, *Result, error) {
	o.Reference, o.Size, o.Style = nil, nil, ""
	o.Env.Jobs = 1
	s, err := begin(ctx, p, o, false, tell)
	if err != nil {
		return nil, nil, err
	}
	s.source.packs = false // full size is that of the whole file
	l := &slow{search: s, draw: rand.New(rand.NewPCG(uint64(o.Seed), 0x736c6f77)), slowest: make([]Slowness, len(o.Candidates))}
	for i := range l.slowest {
		l.slowest[i].Candidate = i
	}
	err = l.run(ctx)
	s.result.Elapsed = time.Since(s.began)
	s.result.Coverage = s.seen.summary(p, s.result)
	return l.slowest, &s.result, cmp.Or(err, s.close())
}

// A slow is one search for slow inputs.
type slow struct {
	*search
	draw    *rand.Rand
	slowest []Slowness

	mu   sync.Mutex
	arms []slowArm
	next int // arm that is tried for the first time
}

// A slowArm is a way to make large inputs.
type slowArm struct {
	edge  *shape.EdgeCase // nil: random inputs in a style
	style string
	tried int
	worst time.Duration
}

func (l *slow) run(ctx context.Context) error {
	trying, stop := context.WithCancel(ctx)
	defer stop()
	if l.options.Time > 0 {
		defer time.AfterFunc(l.options.Time, stop).Stop()
	}
	if err := l.begin(trying); err != nil {
		return err
	}
	made := make(chan *planned)
	var group sync.WaitGroup
	var failed error
	group.Go(func() {
		defer close(made)
		for n := 0; l.options.Count == 0 || n < l.options.Count; n++ {
			one, err := l.make(trying)
			if failed = err; err != nil {
				return
			}
			select {
			case made <- one:
			case <-trying.Done():
				return
			}
		}
	})
	err := l.measure(trying, made)
	stop()
	group.Wait()
	switch {
	case ctx.Err() != nil:
		err = ctx.Err()
	case err == nil || trying.Err() != nil:
		err = failed
	}
	if trying.Err() != nil && ctx.Err() == nil && err == context.Canceled {
		err = nil // its time was over
	}
	if err == nil {
		err = l.again(ctx)
	}
	return err
}

// begin chooses the edge cases that are large, and the styles.
func (l *slow) begin(ctx context.Context) error {
	var edges []shape.EdgeCase
	if err := l.source.edges(ctx, func(c shape.EdgeCase) { edges = append(edges, c) }); err != nil {
		return err
	}
	slices.SortStableFunc(edges, func(a, b shape.EdgeCase) int { return cmp.Compare(b.Bytes, a.Bytes) })
	for i := range edges {
		if edges[i].Bytes*4 >= edges[0].Bytes && len(l.arms) < mostEdges/3 {
			l.arms = append(l.arms, slowArm{edge: &edges[i]})
		}
	}
	for _, style := range l.source.styles() {
		l.arms = append(l.arms, slowArm{style: style})
	}
	return nil
}

// make makes the next input: each arm once, and then mostly those that were slowest.
func (l *slow) make(ctx context.Context) (*planned, error) {
	l.mu.Lock()
	at := l.next
	if l.next++; at >= len(l.arms) {
		at = l.choose()
	}
	arm := &l.arms[at]
	arm.tried++
	o := Origin{Seed: l.options.Seed + shape.Seed(l.next), Size: shape.Largest, Style: arm.style}
	l.mu.Unlock()
	var in *input
	var err error
	if arm.edge != nil {
		in, err = l.source.edge(*arm.edge)
	} else {
		in, err = l.source.make(ctx, o)
	}
	if err != nil {
		return nil, err
	}
	in.bytes()
	return &planned{index: at, input: in}, nil
}

// choose returns an arm: of the slowest three mostly, and otherwise any. An edge case
// is always the same, so only styles are tried again.
func (l *slow) choose() int {
	var again []int
	for i, arm := range l.arms {
		if arm.edge == nil {
			again = append(again, i)
		}
	}
	slices.SortStableFunc(again, func(a, b int) int { return cmp.Compare(l.arms[b].worst, l.arms[a].worst) })
	if l.draw.IntN(4) > 0 {
		again = again[:min(3, len(again))]
	}
	return again[l.draw.IntN(len(again))]
}

// measure runs the candidates on what is generated.
func (l *slow) measure(ctx context.Context, made <-chan *planned) error {
	for one := range made {
		text := one.input.bytes()
		p := &pack{inputs: []*input{one.input}, texts: [][]byte{text}, size: int64(len(text)), stream: largeStream}
		for _, candidate := range l.lookedAt() {
			outcomes, err := l.judged(ctx, 0, judge.Request{Solution: candidate, Cases: l.cases(p.texts, nil), Unaccompanied: true})
			if err != nil {
				return err
			}
			l.peaks(candidate, p, outcomes)
			l.took(candidate, one, outcomes[0])
			if !outcomes[0].Verdict.Passing() && l.failed(candidate) {
				l.claim(candidate) // more of it would tell nothing
			}
		}
		if len(l.lookedAt()) == 0 {
			return nil
		}
		l.count(p, nil)
		l.seen.add(p, nil, nil)
		l.progress()
	}
	return nil
}

// took notes what an input took. One that passes a limit is slower than any that does
// not.
func (l *slow) took(candidate int, one *planned, o verdict.Outcome) {
	l.mu.Lock()
	defer l.mu.Unlock()
	l.arms[one.index].worst = max(l.arms[one.index].worst, o.Usage.CPU)
	t := Timed{one.input.Origin, int64(len(one.input.bytes())), o}
	s := &l.slowest[candidate]
	at := slices.IndexFunc(s.Worst, func(w Timed) bool { return w.Origin.Edge == t.Origin.Edge && w.Origin.Style == t.Origin.Style })
	switch {
	case at < 0:
		s.Worst = append(s.Worst, t)
	case slower(t, s.Worst[at]) < 0:
		s.Worst[at] = t
	}
	slices.SortStableFunc(s.Worst, slower)
	if s.Worst[0].Origin == t.Origin {
		s.Input = one.input.bytes()
	}
}

// enoughFailures is on how many inputs a candidate fails until it is looked at no more.
const enoughFailures = 3

// failed reports that a candidate failed on enough inputs.
func (l *slow) failed(candidate int) bool {
	n := 0
	for _, t := range l.slowest[candidate].Worst {
		if !t.Outcome.Verdict.Passing() {
			n++
		}
	}
	return n >= enoughFailures
}

// slower puts what passes a limit first, and then what took longer.
func slower(a, b Timed) int {
	fails := func(t Timed) int {
		if t.Outcome.Verdict.Passing() {
			return 0
		}
		return 1
	}
	return cmp.Or(fails(b)-fails(a), cmp.Compare(b.Outcome.Usage.CPU, a.Outcome.Usage.CPU))
}

// again runs the slowest inputs some more times.
func (l *slow) again(ctx context.Context) error {
	for i := range l.slowest {
		s := &l.slowest[i]
		if len(s.Worst) == 0 || !s.Worst[0].Outcome.Verdict.Passing() {
			continue
		}
		times := []time.Duration{s.Worst[0].Outcome.Usage.CPU}
		for range repeatSlowest - 1 {
			outcomes, err := l.prepared.Judge(ctx, 0, judge.Request{Solution: i, Cases: l.cases([][]byte{s.Input}, nil), Unaccompanied: true})
			if err != nil {
				return err
			}
			times = append(times, outcomes[0].Usage.CPU)
		}
		slices.Sort(times)
		s.Spread = verdict.Spread{Runs: len(times), Least: times[0], Median: times[len(times)/2], Most: times[len(times)-1]}
	}
	return nil
}
