package shape

import (
	"maps"
	"slices"
)

// A Span is how far something reaches that can grow: a name that is one integer, or the length of
// a field.
type Span struct {
	Name      string
	Low, High int64
	Counts    bool // it is the length of something, or how often something is repeated
	Cases     bool // likewise of cases
}

// Lengths returns the fields outside of all blocks whose lengths the shape bounds by numbers, and
// no name counts: of arrays, rows of grids, and words.
func (s *Shape) Lengths() (list []Span) {
	fieldsOf(s.Items, func(f *fieldNode) {
		l := f.length()
		if f.Name == "" || l == nil || l.Range == nil {
			return
		}
		low, ok := constant(l.Range.Low)
		high, ok2 := constant(l.Range.High)
		if ok && ok2 && low < high {
			list = append(list, Span{Name: f.Name, Low: low, High: high})
		}
	})
	return list
}

// Repeats reports that the shape has a repetition that no name counts.
func (s *Shape) Repeats() (repeats bool) {
	s.each(func(*fieldNode) {}, func(item node) {
		if r, ok := item.(*repeatNode); ok && r.Count.Range != nil {
			repeats = true
		}
	})
	return repeats
}

// length is that of a field: of its first dimension, or of its characters; nil: it has none.
func (f *fieldNode) length() *lengthNode {
	if len(f.Value.Dims) > 0 {
		return f.Value.Dims[0]
	}
	return f.Value.Length
}

// Length returns the length of a field outside of all blocks.
func (in *Input) Length(name string) (n int64, ok bool) {
	fieldsOf(in.shape.Items, func(f *fieldNode) {
		if f.Name != name || ok {
			return
		}
		d := &in.top.data[f.slot]
		switch {
		case len(f.Value.Dims) > 0:
			n, ok = d.count, true
		case len(d.texts) == 1:
			n, ok = int64(len(d.texts[0])), true
		}
	})
	return n, ok
}

// Spans returns the names that are one integer and whose bounds the shape says in numbers, in its
// order. A name that is declared several times has its widest bounds.
func (s *Shape) Spans() (list []Span) {
	cases := s.cases()
	s.each(func(f *fieldNode) {
		if f.Name == "" || !f.single() || f.Value.Range == nil {
			return
		}
		low, ok := constant(f.Value.lowEnd())
		high, ok2 := constant(f.Value.highEnd())
		if !ok || !ok2 || low >= high {
			return
		}
		one := Span{f.Name, low, high, f.counts, cases != nil && cases.Count == f}
		at := slices.IndexFunc(list, func(known Span) bool { return known.Name == f.Name })
		if at < 0 {
			list = append(list, one)
			return
		}
		known := &list[at]
		known.Low, known.High, known.Counts = min(known.Low, low), max(known.High, high), known.Counts || f.counts
	}, func(node) {})
	return list
}

// Number returns the largest value that a name which is one integer has anywhere in the input.
func (in *Input) Number(name string) (n int64, ok bool) {
	if cases := in.shape.cases(); cases != nil && cases.Count.Name == name {
		return int64(in.Cases()), true
	}
	eachField(in.shape.Items, in.top, func(field *fieldNode, f *frame) {
		d := &f.data[field.slot]
		if field.Name != name || !field.single() || len(d.ints) != 1 {
			return
		}
		if !ok || d.ints[0] > n {
			n, ok = d.ints[0], true
		}
	})
	return n, ok
}

// nearest returns the possible value of a field that is nearest to the one that is asked for.
func (m *maker) nearest(field *fieldNode, f *frame, low, high int64) (x int64, ok bool) {
	wanted, asked := m.Numbers[field.Name]
	if !asked {
		return 0, false
	}
	wanted = min(max(wanted, low), high)
	const steps = 64
	for step := range int64(steps) {
		for _, x := range []int64{wanted - step, wanted + step} {
			if x >= low && x <= high && m.feasible(field, f, x) {
				return x, true
			}
		}
	}
	return 0, false
}

// Grown generates an input of a series as Series does, but for what numbers say: names that are
// one integer, with their values. Those are the only ones that grow; without any it is what Series
// scales, and what has a length without a name.
func (s *Shape) Grown(seed Seed, size Size, numbers map[string]int64, style string) (*Input, error) {
	names := s.Scale
	if len(numbers) > 0 {
		names = slices.Collect(maps.Keys(numbers))
	}
	o := s.growing(seed, size, style, names)
	o.Numbers = numbers
	return s.Make(o)
}

// alikeStyles are not worth a series of their own: a program takes as long as on uniform values.
var alikeStyles = []string{plainStyle, "random", "uniform", "small", "high", "zero", "near-zero", "all-zero", "all-least", "ends", "ties", "two", "empty"}

// GrownStyles returns the styles in which a program may take longer than on uniform values.
func (s *Shape) GrownStyles() []string {
	return slices.DeleteFunc(s.Styles(), func(name string) bool {
		return slices.Contains(countStyles, name) || slices.Contains(casesNames, name) || slices.Contains(alikeStyles, name)
	})
}
