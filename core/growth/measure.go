package growth

import (
	"cmp"
	"context"
	"errors"
	"math"
	"slices"
	"time"

	"coldverdict/core/judge"
	"coldverdict/core/shape"
	"coldverdict/core/verdict"
)

// A measuring measures one solution.
type measuring struct {
	source source
	run    runner
	plan   judge.Plan
	seed   shape.Seed
	names  []string
	time   time.Duration
	tell   func(Progress)
	now    func() time.Time

	began  time.Time
	points []*Point
	inputs map[key]input // of points that may be run again
	runs   int
	// climbed are the styles that were measured for themselves: the others take no longer than
	// uniform values do.
	climbed map[string]bool
}

// A key names an input.
type key struct {
	axis  int
	style string
	value float64
}

const (
	// coarse and fine are by how much a size grows from one point to the next: until a run takes
	// long enough to be told from its start, and from there on.
	coarse, fine = 8.0, 2.0
	// noise is what a time is not known by, at least, and noiseShare, which is more than runs
	// on one machine differ by, since no law holds exactly: caches and allocators have a say.
	noise      = 150 * time.Microsecond
	noiseShare = 0.06
	// onceShare is what the time of a single run is not known by.
	onceShare = 0.12
	// memoryNoise is likewise for memory, in bytes.
	memoryNoise = 96 << 10
	// trusted is the time, less that of the start, from which on a run tells much.
	trusted = 40 * time.Millisecond
	// beyond is how many times its limit of time a run may take while it is measured.
	beyond = 3
	// mostKept is up to how many bytes an input is kept to be run again; larger ones are
	// generated again.
	mostKept = 4 << 20
	// baseRuns is how often the smallest input is run.
	baseRuns = 5
)

// The shares of the time that are over when all styles were tried, when the worst were followed
// as far as they can be, and when all is done.
const (
	climbShare  = 0.45
	extendShare = 0.75
	refineShare = 0.95
)

// growth measures a solution and says what came of it.
func (m *measuring) growth(ctx context.Context) (Growth, error) {
	m.began, m.inputs, m.climbed = m.now(), map[key]input{}, map[string]bool{"": true}
	for range baseRuns {
		p, err := m.at(ctx, All, 1, "")
		if err != nil {
			return Growth{}, err
		}
		if !p.Ended() { // nothing can be learned of what fails on the smallest input
			return m.conclude(), nil
		}
	}
	for _, step := range []func(context.Context) error{m.climbAll, m.extend, m.confirm, m.refine} {
		if err := step(ctx); err != nil {
			return Growth{}, err
		}
	}
	return m.conclude(), nil
}

func (m *measuring) since(t time.Time) time.Duration { return m.now().Sub(t) }

// spent is the share of the time that is over.
func (m *measuring) spent() float64 { return float64(m.since(m.began)) / float64(m.time) }

// limits are those of one run: past the limits of the problem something is still to be learned.
func (m *measuring) limits() verdict.Limits {
	l := m.plan.Limits
	left := m.time - m.since(m.began)
	l.Time = min(beyond*l.Time, max(left/2, l.Time/4, 200*time.Millisecond))
	l.Wall = 4 * l.Time
	l.Memory = 2 * l.Memory
	l.Output = 4 * l.Output
	return l
}

// input is what is generated for a value, made anew where it is too large to be kept.
func (m *measuring) input(ctx context.Context, axis int, value float64, style string) (input, error) {
	k := key{axis, style, value}
	if in, known := m.inputs[k]; known && in.data.Text != nil {
		return in, nil
	}
	in, err := m.source.generate(ctx, axis, value, style, m.seed)
	if err != nil {
		return in, err
	}
	kept := in
	if in.data.Size > mostKept {
		kept.data.Text = nil
	}
	m.inputs[k] = kept
	return in, nil
}

// at runs the solution on one input, and adds to the point what it took.
func (m *measuring) at(ctx context.Context, axis int, value float64, style string) (*Point, error) {
	if err := ctx.Err(); err != nil {
		return nil, err
	}
	in, err := m.input(ctx, axis, value, style)
	if err != nil {
		return nil, err
	}
	limits := m.limits()
	o, output, err := m.run.run(ctx, in.data, limits)
	if err != nil {
		return nil, err
	}
	m.runs++
	if o.Verdict == verdict.TimeLimit && limits.Time < m.plan.Limits.Time && len(m.points) > 0 {
		return &Point{Failed: verdict.Skipped}, nil // there was too little time left to learn anything
	}
	one := Point{
		Sizes: in.sizes, Axis: axis, Style: style, Input: in.data.Size, Output: output, CPU: o.Usage.CPU, Slowest: o.Usage.CPU,
		Memory: o.Usage.Memory, Runs: 1, Largest: axis == All && value >= m.source.reach(All), Failed: failure(o), Message: o.Message,
		value: value, times: []time.Duration{o.Usage.CPU},
	}
	m.tell(Progress{m.plan.Solution.File, m.names, in.sizes, style})
	at := slices.IndexFunc(m.points, func(p *Point) bool {
		return p.Axis == axis && p.Style == style && slices.Equal(p.Sizes, one.Sizes)
	})
	if at < 0 {
		m.points = append(m.points, &one)
		return &one, nil
	}
	p := m.points[at]
	if p.Ended() && o.Verdict == verdict.TimeLimit { // it may take less now than it might before
		return p, nil
	}
	if !one.Ended() {
		p.Failed, p.Message = one.Failed, one.Message
	}
	p.times = slices.Sorted(slices.Values(append(p.times, one.CPU)))
	p.CPU, p.Slowest, p.Memory, p.Runs = p.times[0], p.times[len(p.times)-1], max(p.Memory, one.Memory), len(p.times)
	return p, nil
}

// failure is the verdict of a run that did not come to its end; Accepted where it did.
func failure(o verdict.Outcome) verdict.Verdict {
	switch o.Verdict {
	case verdict.Unjudged, verdict.Accepted, verdict.Partial:
		return verdict.Accepted
	case verdict.WrongAnswer:
		if o.Talk == nil {
			return verdict.Accepted
		}
	}
	return o.Verdict
}

// base is what the smallest input takes.
func (m *measuring) base() *Point { return m.points[0] }

// climbAll climbs on each axis with uniform values, and then in those styles that take longer.
func (m *measuring) climbAll(ctx context.Context) error {
	axes, styles := m.source.axes(), m.source.styles()
	for i, axis := range axes {
		if err := m.climb(ctx, axis, "", m.part(climbShare/2, len(axes)-i)); err != nil {
			return err
		}
	}
	for i, style := range styles[1:] {
		share := m.part(climbShare, len(styles)-1-i)
		longer, err := m.takesLonger(ctx, style, share)
		if err == nil && longer {
			err = m.climb(ctx, All, style, max(share, m.time/20))
		}
		if err != nil {
			return err
		}
	}
	return nil
}

// part is the time that one of so many things to do may take until a share of all is over.
func (m *measuring) part(until float64, things int) time.Duration {
	return time.Duration(max(0, until-m.spent()) / float64(things) * float64(m.time))
}

// longer is how many times as long as on uniform values a style must take to be worth more runs.
const longer = 1.4

// takesLonger runs inputs of a style beside those with uniform values, from small ones on.
func (m *measuring) takesLonger(ctx context.Context, style string, share time.Duration) (bool, error) {
	began := m.now()
	last := 0.0
	for _, plain := range m.of("") {
		value := plain.value
		rise := plain.CPU - m.base().CPU
		if !plain.Ended() || value < 4*last && !plain.Largest || rise < max(time.Millisecond, m.base().CPU/5) && value < m.source.reach(All)/4 {
			continue
		}
		if last > 0 && m.since(began) > share {
			return false, nil
		}
		last = value
		for again := 0; ; again++ {
			p, err := m.at(ctx, All, value, style)
			if err != nil {
				return false, m.orUngenerated(ctx, err)
			}
			if p.Failed == verdict.Skipped {
				return false, nil
			}
			if !m.exceeds(p, plain, rise) {
				break
			}
			if again > 0 || !p.Ended() { // seen twice
				return true, nil
			}
		}
	}
	return false, nil
}

// matters reports that a style was measured for itself, and does take longer than uniform values
// on the largest inputs that were run in both.
func (m *measuring) matters(style string) bool {
	if style == "" || !m.climbed[style] {
		return m.climbed[style]
	}
	for _, p := range slices.Backward(m.of(style)) {
		for _, plain := range m.of("") {
			if plain.Ended() && plain.value == p.value {
				return m.exceeds(p, plain, plain.CPU-m.base().CPU)
			}
		}
	}
	return true
}

// exceeds reports that a point takes far more than one of the same size with uniform values.
func (m *measuring) exceeds(p, plain *Point, rise time.Duration) bool {
	slack := max(time.Millisecond, m.base().CPU/8)
	return !p.Ended() || float64(p.CPU-m.base().CPU) > longer*float64(max(0, rise))+float64(slack) ||
		p.Memory > 3*plain.Memory/2+memoryNoise
}

// orUngenerated is nil where an error only says that there are no inputs of some style.
func (m *measuring) orUngenerated(ctx context.Context, err error) error {
	var wrong *shape.GenerateError
	if ctx.Err() == nil && errors.As(err, &wrong) {
		return nil
	}
	return err
}

// climb runs inputs that grow, until one takes more than its share of the time, or fails, or is
// the largest.
func (m *measuring) climb(ctx context.Context, axis int, style string, share time.Duration) error {
	began, reach := m.now(), m.source.reach(axis)
	m.climbed[style] = true
	last, good := 0.0, 0.0
	for value := min(2.0, reach); ; {
		startOf := m.now()
		p, err := m.at(ctx, axis, value, style)
		if err != nil {
			if style == "" {
				return err
			}
			return m.orUngenerated(ctx, err)
		}
		if p.Failed == verdict.Skipped {
			return nil
		}
		if !p.Ended() {
			return m.approach(ctx, axis, style, good, value, share-m.since(began))
		}
		good = value
		took := m.since(startOf)
		if p.CPU-m.base().CPU > trusted && took < share/8 { // a machine can be slow for a moment
			if p, err = m.at(ctx, axis, value, style); err != nil {
				return err
			}
		}
		rise := p.CPU - m.base().CPU
		if value >= reach || rise > trusted && took > (share-m.since(began))/6 || m.since(began) > share {
			return nil
		}
		factor := coarse
		if rise > 2*time.Millisecond+m.base().CPU/4 {
			factor = fine
		}
		last, value = value, min(reach, max(value+1, math.Floor(value*factor)))
		if value > last+1 && reach <= fewValues { // there may be more than powers to be met
			value = last + max(1, math.Floor(last/6))
		}
		if value*1.3 > reach {
			value = reach
		}
	}
}

// approach comes nearer to the size at which a run failed, from below.
func (m *measuring) approach(ctx context.Context, axis int, style string, good, bad float64, share time.Duration) error {
	began := m.now()
	for range 4 {
		middle := math.Floor(math.Sqrt(max(good, 1) * bad))
		if middle <= good || middle >= bad || m.since(began) > share {
			return nil
		}
		p, err := m.at(ctx, axis, middle, style)
		if err != nil {
			return err
		}
		switch {
		case p.Failed == verdict.Skipped:
			return nil
		case p.Ended():
			good = middle
		default:
			bad = middle
		}
	}
	return nil
}

// extend follows the styles that seem to be worst to larger inputs.
func (m *measuring) extend(ctx context.Context) error {
	for _, style := range m.worst() {
		for {
			value, ok := m.further(style)
			if !ok {
				break
			}
			p, err := m.at(ctx, All, value, style)
			if err != nil {
				return m.orUngenerated(ctx, err)
			}
			if !p.Ended() {
				break
			}
		}
	}
	return nil
}

// further is the next larger value of a style that can be afforded: twice as large, or a bit less.
func (m *measuring) further(style string) (value float64, ok bool) {
	list := m.of(style)
	if len(list) < 2 || list[len(list)-1].Largest || !list[len(list)-1].Ended() {
		return 0, false
	}
	below, last := list[len(list)-2], list[len(list)-1]
	from, to, start := below.value, last.value, m.base().CPU
	slope := 2.0
	if low, high := float64(below.CPU-start), float64(last.CPU-start); m.visible(below) && high > low && to > from {
		slope = max(1, math.Log(high/low)/math.Log(to/from))
	}
	left := (extendShare - m.spent()) * float64(m.time)
	factors := []float64{fine, math.Sqrt2}
	if !m.visible(last) {
		factors = append([]float64{coarse}, factors...)
	}
	for _, factor := range factors {
		value = min(m.source.reach(All), math.Floor(to*factor))
		rise := max(float64(last.CPU-start), float64(noise)) * math.Pow(value/to, slope)
		if value > to && float64(start)+rise < 0.35*left {
			return value, true
		}
	}
	return 0, false
}

// visible reports that a point took clearly longer than the start does.
func (m *measuring) visible(p *Point) bool {
	value, uncertain := m.valueAndError(inTime, p)
	return value-m.base().CPU.Seconds() > 2*uncertain
}

// refine makes more of the points of the styles that seem to be worst: sizes in between, and more
// runs of what counts most.
func (m *measuring) refine(ctx context.Context) error {
	styles := m.worst()
	for _, style := range styles {
		if err := m.between(ctx, style, m.of(style)); err != nil {
			return err
		}
	}
	for runs := 2; runs <= mostRuns; runs++ {
		for _, style := range styles {
			list := m.of(style)
			for i, p := range slices.Backward(list[max(0, len(list)-10):]) {
				telling := m.visible(p) || i > len(list)-4 || p == m.base()
				if !telling || !p.Ended() || p.Runs >= runs || runs > 3 && p.sure() {
					continue
				}
				if m.spent()+float64(p.CPU)/float64(m.time) > refineShare {
					continue
				}
				if _, err := m.at(ctx, All, p.value, style); err != nil {
					return err
				}
			}
		}
	}
	return nil
}

// mostRuns is how often one input is run at the most.
const mostRuns = 7

// sure reports that the two fastest runs took about the same.
func (p *Point) sure() bool {
	return len(p.times) > 1 && float64(p.times[1]-p.times[0]) < 0.03*float64(p.times[0])
}

// between runs sizes between the largest ones of a style.
func (m *measuring) between(ctx context.Context, style string, list []*Point) error {
	for i := len(list) - 1; i > 0 && i > len(list)-4; i-- {
		low, high := list[i-1].value, list[i].value
		if m.source.reach(All) <= fewValues {
			if err := m.stepwise(ctx, style, list[i], low, high); err != nil {
				return err
			}
			continue
		}
		value := math.Floor(math.Sqrt(low * high))
		if !list[i].Ended() || !m.visible(list[i]) || value <= low*1.15 || value >= high/1.15 {
			continue
		}
		if m.spent()+float64(list[i].CPU)/float64(m.time) > refineShare {
			return nil
		}
		if _, err := m.at(ctx, All, value, style); err != nil {
			return err
		}
	}
	return nil
}

// fewValues is up to which largest value each single one may matter, as there may be laws that
// multiply with each.
const fewValues = 70

// stepwise runs all values between two, from the larger one down, as long as they can be told from
// the start.
func (m *measuring) stepwise(ctx context.Context, style string, upper *Point, low, high float64) error {
	for value := high - 1; value > low && upper.Ended() && m.visible(upper); value-- {
		if m.spent()+float64(upper.CPU)/float64(m.time) > refineShare {
			return nil
		}
		p, err := m.at(ctx, All, value, style)
		if err != nil {
			return err
		}
		upper = p
	}
	return nil
}

// of returns the points of a style in which all names grow, by size.
func (m *measuring) of(style string) (list []*Point) {
	for _, p := range m.points {
		if p.Axis == All && p.Style == style {
			list = append(list, p)
		}
	}
	slices.SortStableFunc(list, func(a, b *Point) int { return cmp.Compare(a.Input, b.Input) })
	return list
}

// worst returns the two styles that seem to take longest at the largest input.
func (m *measuring) worst() []string {
	styles := slices.DeleteFunc(slices.Clone(m.source.styles()), func(style string) bool { return !m.matters(style) })
	rank := map[string]float64{}
	for _, style := range styles {
		rank[style] = m.trend(inTime, style).Largest.High
	}
	slices.SortStableFunc(styles, func(a, b string) int { return cmp.Compare(rank[b], rank[a]) })
	return styles[:min(2, len(styles))]
}

// confirm runs the largest input, in the worst style first, where there is time for it.
func (m *measuring) confirm(ctx context.Context) error {
	for _, style := range m.worst() {
		list := m.of(style)
		if last := list[len(list)-1]; last.Largest || !last.Ended() {
			continue
		}
		expected := m.trend(inTime, style).Largest.High
		left := (m.time - m.since(m.began)).Seconds()
		if expected == 0 || expected > left*0.9 {
			continue
		}
		for range confirmRuns {
			p, err := m.at(ctx, All, m.source.reach(All), style)
			if err != nil {
				return err
			}
			if !p.Ended() || m.spent()+float64(p.CPU)/float64(m.time) > 1 {
				break
			}
		}
	}
	return nil
}

// confirmRuns is how often the largest input is run, where there is time.
const confirmRuns = 4
