package cross

import (
	"cmp"
	"context"
	"errors"
	"math/rand/v2"
	"slices"
	"sync"
	"time"

	"coldverdict/core/shape"
)

// A stream is one kind of inputs. They share the time.
type stream int

const (
	edgeStream   stream = iota // small edge cases, before all others
	randomStream               // small random inputs
	largeStream                // large edge cases, then large random inputs
)

// smallEdge is the size up to which an edge case is small, in bytes.
const smallEdge = 2 << 10

// largeShare is the share of the time for large inputs, once random ones have had
// largeAfter; afterEdges that when all large edge cases were tried.
const (
	largeShare = 0.4
	afterEdges = 0.15
	largeAfter = 300 * time.Millisecond
)

// The bounds of what goes into one run: the inputs in the first, and for how long a round may take,
// beyond what the shortest one took, when it shall become more.
const (
	firstPack = 8
	packTime  = 250 * time.Millisecond
	// likewise where a process is started once for many of them, which takes long
	firstServed    = 32
	packTimeServed = 1500 * time.Millisecond
)

// A schedule says which inputs come next.
type schedule struct {
	source *source
	seed   shape.Seed
	size   *shape.Size // of all random inputs
	style  string
	count  int // of inputs; 0: any
	draw   *rand.Rand
	styles []string

	mu       sync.Mutex
	changed  sync.Cond
	taken    int      // inputs
	all      []*input // every valid input, where they are few; empty: they are drawn
	small    []shape.EdgeCase
	large    []shape.EdgeCase
	edging   bool // edge cases are still being found
	spent    [3]time.Duration
	pack     int // inputs in one run
	packTime time.Duration
	edges    int           // small edge cases in one run
	least    time.Duration // that a round took: programs start, and little more
	most     int           // inputs in one run, at most
	rung     int           // the highest that may be climbed to
	ceiling  int           // the highest that is not too slow for the reference
	strikes  []int         // by rung, inputs that were
	weights  []weight
	epochs   []*epoch
	merged   int // epochs whose results count
	drawn    int // random inputs
	left     []planned
	larger   int // large random inputs
	known    map[uint64]bool
	slow     map[string]float64 // by style, the longest time of a candidate on a large input, per byte
	stopped  bool
}

// A weight says how often a rung and a style were tried, and how often that showed
// something new.
type weight struct{ tried, news float64 }

// An epoch is a number of random inputs that are chosen together. What they show
// counts from the second epoch after them on, so that it does not depend on which
// worker is faster.
type epoch struct {
	arms   []int // by input: which rung and style
	next   int
	done   int
	traits [][]uint64 // by input: what was seen
}

// A planned input has been drawn, but not tried.
type planned struct {
	epoch *epoch
	index int // in it
	input *input
	Origin
}

func newSchedule(src *source, o Options) *schedule {
	s := &schedule{
		source: src, seed: o.Seed, size: o.Size, style: o.Style, count: o.Count,
		draw: rand.New(rand.NewPCG(uint64(o.Seed), 0x63726f7373)), styles: src.styles(),
		ceiling: len(rungs), strikes: make([]int, len(rungs)), known: map[uint64]bool{}, slow: map[string]float64{},
	}
	s.changed.L = &s.mu
	if s.style != "" {
		s.styles = []string{s.style}
	}
	s.most = src.bundling.most(src)
	first := firstPack
	if s.packTime = packTime; src.served {
		first, s.packTime = firstServed, packTimeServed
	}
	s.pack, s.edges = min(first, s.most), src.bundling.edges(src)
	s.weights = make([]weight, len(rungs)*len(s.styles))
	s.edging = o.Size == nil && o.Style == ""
	return s
}

// haveEdge takes an edge case. A small one is tried next; the large ones wait until all are there.
func (s *schedule) haveEdge(c shape.EdgeCase) {
	s.mu.Lock()
	defer s.mu.Unlock()
	if c.Bytes > smallEdge {
		s.large = append(s.large, c)
		return
	}
	s.small = append(s.small, c)
	s.changed.Broadcast()
}

// haveAllEdges says that there are no more edge cases. The smaller ones come first.
func (s *schedule) haveAllEdges() {
	s.mu.Lock()
	defer s.mu.Unlock()
	slices.SortStableFunc(s.large, func(a, b shape.EdgeCase) int { return cmp.Compare(a.Bytes, b.Bytes) })
	s.edging = false
	s.changed.Broadcast()
}

// stop makes next return nothing.
func (s *schedule) stop() {
	s.mu.Lock()
	defer s.mu.Unlock()
	s.stopped = true
	s.changed.Broadcast()
}

// next makes the inputs of the next run; nil: there are no more.
func (s *schedule) next(ctx context.Context) (*pack, error) {
	s.mu.Lock()
	for {
		if s.stopped || s.over() && !(len(s.left) > 0) {
			s.mu.Unlock()
			return nil, nil
		}
		switch {
		case s.taken < len(s.all):
			return s.allTogether()
		case len(s.small) > 0:
			return s.edgesTogether()
		case s.largeIsDue():
			return s.nextLarge(ctx)
		}
		if list := s.plan(); len(list) > 0 {
			s.mu.Unlock()
			return s.generated(ctx, list)
		}
		if s.largeReady() {
			return s.nextLarge(ctx)
		}
		s.changed.Wait()
	}
}

func (s *schedule) over() bool { return s.count > 0 && s.taken >= s.count }

// largeReady reports that there are large inputs to try.
func (s *schedule) largeReady() bool { return !s.edging && s.size == nil && !s.over() }

func (s *schedule) largeIsDue() bool {
	share := largeShare
	if len(s.large) == 0 {
		share = afterEdges
	}
	if random := s.spent[randomStream]; !s.largeReady() || random < largeAfter && s.rung < len(rungs)-1 {
		return false
	}
	return float64(s.spent[largeStream]) < share*float64(s.spent[largeStream]+s.spent[randomStream])
}

// edgesTogether makes a pack of the next small edge cases. The lock is held, and released.
func (s *schedule) edgesTogether() (*pack, error) {
	n := min(s.source.together(s.edges), len(s.small))
	if s.source.served { // the first ones are to be told soon
		n = min(n, max(1, s.taken))
	}
	if s.count > 0 {
		n = min(n, s.count-s.taken)
	}
	list := s.small[:n:n]
	s.small = s.small[n:]
	s.taken += n
	s.mu.Unlock()
	inputs := make([]*input, n)
	for i, c := range list {
		var err error
		if inputs[i], err = s.source.edge(c); err != nil {
			return nil, err
		}
	}
	p, _, err := s.source.packed(inputs)
	if err == nil {
		p.stream = edgeStream
	}
	return p, err
}

// The bounds of what is tried one after the other: how many valid inputs there may be, how long it may take to find
// them, and how many go into one run.
const (
	mostAll   = 5000
	findAll   = 300 * time.Millisecond
	mostOfAll = 64
)

// tryAll has all valid inputs tried where there are few, in place of edge cases and random inputs.
func (s *schedule) tryAll(ctx context.Context) error {
	if s.source.maker != nil || !s.edging || s.source.shape == nil {
		return nil
	}
	bounded, end := context.WithTimeout(ctx, findAll)
	defer end()
	all, ok, err := s.source.shape.All(bounded, mostAll)
	switch {
	case ctx.Err() != nil:
		return ctx.Err()
	case errors.Is(err, context.DeadlineExceeded), err == nil && !ok, s.count > 0 && s.count < len(all):
		return nil
	case err != nil:
		return err
	}
	s.count, s.edging = len(all), false
	for i := range all {
		s.all = append(s.all, &input{Origin: Origin{Number: i + 1}, in: all[i]})
	}
	// The ends first, and then from anywhere, so that it means something where time does not last for all.
	slices.SortStableFunc(s.all, func(a, b *input) int { return cmp.Compare(len(a.bytes()), len(b.bytes())) })
	ends := min(mostOfAll, len(all)/2)
	slices.Reverse(s.all[ends:])
	if rest := s.all[min(2*ends, len(all)):]; len(rest) > 0 {
		s.draw.Shuffle(len(rest), func(i, j int) { rest[i], rest[j] = rest[j], rest[i] })
	}
	return nil
}

// allTogether makes a pack of the next of all inputs. The lock is held, and released.
func (s *schedule) allTogether() (*pack, error) {
	first := s.taken
	n := min(s.source.together(mostOfAll), s.most, len(s.all)-first)
	s.taken += n
	s.mu.Unlock()
	inputs := s.all[first : first+n : first+n]
	p, _, err := s.source.packed(inputs)
	if err == nil {
		p.stream = edgeStream
	}
	return p, err
}

// one makes a pack of one input. The lock is held, and released.
func (s *schedule) one(stream stream, how func() (*input, error)) (*pack, error) {
	s.taken++
	s.mu.Unlock()
	in, err := how()
	if err != nil {
		return nil, err
	}
	p, _, err := s.source.packed([]*input{in})
	if err == nil {
		p.stream = stream
	}
	return p, err
}

// nextLarge is the next large edge case, or a large random input. The lock is held,
// and released.
func (s *schedule) nextLarge(ctx context.Context) (*pack, error) {
	if len(s.large) > 0 {
		c := s.large[0]
		s.large = s.large[1:]
		return s.one(largeStream, func() (*input, error) { return s.source.edge(c) })
	}
	const apart = 1 << 40 // from the seeds of small ones
	o := Origin{Seed: s.seed + apart + shape.Seed(s.larger), Style: s.largeStyle()}
	o.Size = shape.Size(int64(shape.Largest) * int64(4+s.draw.IntN(5)) / 8).Written()
	s.larger++
	return s.one(largeStream, func() (*input, error) { return s.source.make(ctx, o) })
}

// largeStyle is the style of the next large random input: one after the other, and once
// all were tried every second time the one that took longest for its size.
func (s *schedule) largeStyle() string {
	style := s.styles[s.larger%len(s.styles)]
	if s.larger >= len(s.styles) && s.larger%2 == 1 {
		for _, other := range s.styles {
			if s.slow[other] > s.slow[style] {
				style = other
			}
		}
	}
	return style
}

// took notes how long a candidate took for a large input.
func (s *schedule) took(p *pack, time time.Duration) {
	if p.stream != largeStream || p.inputs[0].Edge != "" || p.size == 0 {
		return
	}
	s.mu.Lock()
	defer s.mu.Unlock()
	style := p.inputs[0].Style
	s.slow[style] = max(s.slow[style], float64(time)/float64(p.size))
}

// plan draws the next random inputs. The lock is held. There are none while an epoch
// before is not done.
func (s *schedule) plan() []planned {
	if n := s.leftInARow(); n > 0 {
		list := s.left[:n:n]
		s.left = s.left[n:]
		return list
	}
	var list []planned
	if len(s.epochs) == 0 || s.epochs[len(s.epochs)-1].next == len(s.epochs[len(s.epochs)-1].arms) {
		if len(s.epochs) > s.merged+1 {
			return nil
		}
		s.epochs = append(s.epochs, s.newEpoch())
	}
	e := s.epochs[len(s.epochs)-1]
	most := s.source.together(s.pack)
	for len(list) < most && e.next < len(e.arms) && !s.over() {
		arm := e.arms[e.next]
		o := Origin{Seed: s.seed + shape.Seed(s.drawn), Style: s.styles[arm%len(s.styles)], Size: s.sizeOf(arm / len(s.styles))}
		list = append(list, planned{epoch: e, index: e.next, Origin: o})
		e.next++
		s.drawn++
		s.taken++
	}
	return list
}

// leftInARow counts the inputs that were left and can be one run: they follow each
// other in one epoch.
func (s *schedule) leftInARow() (n int) {
	for n < min(s.source.together(s.pack), len(s.left)) && s.left[n].epoch == s.left[0].epoch && s.left[n].index == s.left[0].index+n {
		n++
	}
	return n
}

func (s *schedule) sizeOf(rung int) shape.Size {
	if s.size != nil {
		return *s.size
	}
	return s.source.sizeOf(rung)
}

// newEpoch chooses rungs and styles: a third at random, and otherwise those more often
// that showed something new. The highest rung grows with the logarithm of the number
// of inputs.
func (s *schedule) newEpoch() *epoch {
	length := 32 << min(len(s.epochs), 1)
	if s.most > 1 {
		length = 64 << min(len(s.epochs), 10)
	}
	s.rung = 2
	for n := s.drawn; n > 8 && s.rung < len(rungs)-1; n = 5 * n / 8 {
		s.rung++
	}
	rungsNow := min(s.rung, s.ceiling) + 1
	if s.size != nil {
		rungsNow = 1
	}
	arms := rungsNow * len(s.styles)
	worth := func(i int) float64 { return 0.02 + (s.weights[i].news+0.5)/(s.weights[i].tried+2) }
	total := 0.0
	for i := range arms {
		total += worth(i)
	}
	const alike = 16 // inputs of one rung and style in a row, where many are joined
	e := &epoch{arms: make([]int, length), traits: make([][]uint64, length)}
	for i := range e.arms {
		if s.most > 1 && length > 1000 && i%alike > 0 {
			e.arms[i] = e.arms[i-1]
			continue
		}
		if s.draw.IntN(3) == 0 {
			e.arms[i] = s.draw.IntN(arms)
			continue
		}
		at := s.draw.Float64() * total
		for arm := range arms {
			e.arms[i] = arm
			if at -= worth(arm); at < 0 {
				break
			}
		}
	}
	return e
}

// generated generates drawn inputs. What does not fit into one run is left for the next.
func (s *schedule) generated(ctx context.Context, list []planned) (*pack, error) {
	inputs := make([]*input, len(list))
	for i := range list {
		if list[i].input == nil {
			in, err := s.source.make(ctx, list[i].Origin)
			if err != nil {
				return nil, err
			}
			list[i].input = in
		}
		inputs[i] = list[i].input
	}
	p, n, err := s.source.packed(inputs)
	if err != nil {
		return nil, err
	}
	p.stream, p.epoch, p.first = randomStream, list[0].epoch, list[0].index
	if n < len(list) {
		s.mu.Lock()
		s.left = append(list[n:len(list):len(list)], s.left...)
		s.mu.Unlock()
	}
	return p, nil
}

// ended notes that a run is over, how long it took, and the traits of its inputs.
// slow says that the reference was too slow for it.
func (s *schedule) ended(p *pack, took time.Duration, traits [][]uint64, slow bool) {
	s.mu.Lock()
	defer s.mu.Unlock()
	s.spent[p.stream] += took
	if s.least == 0 || took < s.least {
		s.least = took
	}
	if p.stream == randomStream {
		switch beyond := took - s.least; {
		case slow && s.pack > 1:
			s.pack = max(1, s.pack/4)
		case slow:
			rung := p.epoch.arms[p.first] / len(s.styles)
			if s.strikes[rung]++; s.strikes[rung] > 1 {
				s.ceiling = max(1, min(s.ceiling, rung-1))
			}
		case beyond > 2*s.packTime:
			s.pack = max(1, s.pack/2)
		case beyond < s.packTime/8 && len(p.inputs) >= s.pack:
			s.pack = min(4*s.pack, s.most)
		case beyond < s.packTime && len(p.inputs) >= s.pack:
			s.pack = min(2*s.pack, s.most)
		}
		for i := range p.inputs {
			if i < len(traits) {
				p.epoch.traits[p.first+i] = traits[i]
			}
		}
		p.epoch.done += len(p.inputs)
		s.merge()
	}
	s.changed.Broadcast()
}

// merge lets what was seen count, epoch by epoch.
func (s *schedule) merge() {
	for s.merged < len(s.epochs) {
		e := s.epochs[s.merged]
		if e.done < len(e.arms) {
			return
		}
		for i, arm := range e.arms {
			w := &s.weights[arm]
			w.tried++
			for _, trait := range e.traits[i] {
				if !s.known[trait] {
					s.known[trait] = true
					w.news++
				}
			}
		}
		e.traits, e.arms = nil, e.arms[:0]
		e.next, e.done = 0, 0
		s.merged++
	}
}
