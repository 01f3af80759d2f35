package shape

import "sort"

// An input that is nothing but a count and so many cases can be joined with others of
// its kind into one, and be parted again.

// cases returns the block of cases that is all there is in the shape; nil: there is
// more, or none.
func (s *Shape) cases() (only *casesNode) {
	for _, item := range s.Items {
		switch item := item.(type) {
		case *scaleItem:
		case *casesNode:
			if only != nil {
				return nil
			}
			only = item
		default:
			return nil
		}
	}
	return only
}

// Packs reports that inputs are nothing but a count and so many cases, so that they
// can be joined, and how many cases there may be in one; 0: they cannot be joined.
func (s *Shape) Packs() (most int64) {
	item := s.cases()
	if item == nil || s.takes != nil {
		return 0
	}
	if n, ok := constant(item.Count.Value.highEnd()); ok && n > 1 {
		return n
	}
	return 0
}

// Pack joins inputs into one, as many of the first of them as its count and totals
// allow, and returns how many those are; 0 if not even the first fits. The shape must
// be one that packs. The inputs must not be used any more.
func (s *Shape) Pack(list []*Input) (packed *Input, joined int) {
	item := s.cases()
	top := newFrame(s.top, nil)
	d := &top.data[item.Count.slot]
	d.count, d.ints = 1, []int64{0}
	_, most := item.Count.Value.bounds(top)
	sums := make([]int64, len(item.Totals))
	for _, in := range list {
		bodies := in.top.data[item.Count.slot].bodies
		if d.ints[0]+int64(len(bodies)) > most || !item.add(sums, bodies, top) {
			break
		}
		for _, body := range bodies {
			body.above = top
		}
		d.bodies = append(d.bodies, bodies...)
		d.ints[0] += int64(len(bodies))
		joined++
	}
	return &Input{s, top}, joined
}

// add adds what bodies count towards the totals, and reports that they fit.
func (c *casesNode) add(sums []int64, bodies []*frame, top *frame) bool {
	for k, t := range c.Totals {
		bound, wrong := evaluated(t.Bound, top)
		if wrong != nil {
			return false
		}
		sum := sums[k]
		for _, body := range bodies {
			n, wrong := evaluated(t.Left, body)
			if wrong != nil {
				return false
			}
			sum += n
		}
		if sum > bound {
			return false
		}
		sums[k] = sum
	}
	return true
}

// Cases returns how many cases an input has, if its shape packs.
func (in *Input) Cases() int {
	item := in.shape.cases()
	return len(in.top.data[item.Count.slot].bodies)
}

// Part returns an input of the cases from i to j, counted from 0, j not included. It
// has the shape unless that asks for more cases. The shape must be one that packs.
func (in *Input) Part(i, j int) *Input {
	item := in.shape.cases()
	from := &in.top.data[item.Count.slot]
	top := newFrame(in.shape.top, nil)
	d := &top.data[item.Count.slot]
	d.count, d.ints = 1, []int64{int64(j - i)}
	for _, body := range from.bodies[i:j] {
		d.bodies = append(d.bodies, body.clone(top))
	}
	return &Input{in.shape, top}
}

// Reversed returns an input with the cases in the opposite order. The shape must be
// one that packs.
func (in *Input) Reversed() *Input {
	all := in.Part(0, in.Cases())
	bodies := all.top.data[in.shape.cases().Count.slot].bodies
	for i, j := 0, len(bodies)-1; i < j; i, j = i+1, j-1 {
		bodies[i], bodies[j] = bodies[j], bodies[i]
	}
	return all
}

// usualLargest stands for the largest count of a shape that does not say it.
const usualLargest = 100_000

// largestCount is the largest number that a length may have, that of cases not
// counted.
func (s *Shape) largestCount() (most int64) {
	see := func(e exprNode) {
		if n, ok := constant(e); ok {
			most = max(most, n)
		}
	}
	ofLength := func(l *lengthNode) {
		if l != nil && l.Range != nil {
			see(l.Range.High)
		}
	}
	only := s.cases()
	s.each(func(f *fieldNode) {
		if f.single() && f.counts && (only == nil || f != only.Count) {
			see(f.Value.highEnd())
		}
		ofLength(f.Value.Length)
		for _, l := range f.Value.Dims {
			ofLength(l)
		}
	}, func(item node) {
		if r, ok := item.(*repeatNode); ok {
			ofLength(r.Count)
		}
	})
	if most < 1 {
		return usualLargest
	}
	return most
}

// SizeFor returns the size at which the largest count of the shape is about n; Largest
// if there is none so large. It is one that String writes in full.
func (s *Shape) SizeFor(n int64) Size {
	most := uint64(s.largest)
	if uint64(max(0, n)) >= most {
		return Largest
	}
	exact := Size(sort.Search(int(Largest), func(size int) bool { return Size(size).of(most) >= uint64(max(0, n)) }))
	return exact.Written()
}
