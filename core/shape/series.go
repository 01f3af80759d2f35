package shape

import (
	"slices"
)

// A Step is one input of a series, in which counts grow.
type Step struct {
	Size   Size
	Making Making
}

// Series returns how to generate inputs of so many sizes, two at least, from the smallest
// to the largest. What a shape says is to scale, or every name that is used as a
// length, grows geometrically from one to the next; other counts are as small as
// they may be. style is that of all of them; empty: values are uniform.
func (s *Shape) Series(steps int, seed Seed, style string) []Step {
	scaled := map[string]bool{}
	for _, name := range s.Scale {
		scaled[name] = true
	}
	list := make([]Step, 0, max(2, steps))
	for i := range cap(list) {
		size := Size(int64(Largest) * int64(i) / int64(cap(list)-1))
		o := Making{Seed: seed, Size: size, Style: style, Exact: true, scaled: scaled, plan: map[any]string{}}
		for _, item := range s.Items {
			if c, ok := item.(*casesNode); ok {
				o.plan[c] = "one"
				if slices.Contains(s.Scale, c.Count.Name) && len(s.Scale) == 1 {
					o.plan[c] = "even"
				}
			}
		}
		list = append(list, Step{size, o})
	}
	return list
}
