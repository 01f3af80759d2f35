package shape

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
	list := make([]Step, 0, max(2, steps))
	for i := range cap(list) {
		size := Size(int64(Largest) * int64(i) / int64(cap(list)-1))
		list = append(list, Step{size, s.growing(seed, size, style, s.Scale)})
	}
	return list
}

// growing is how to generate an input of a series in which some names grow: other counts are as
// small as they may be, and there is one case, unless their count is all that grows.
func (s *Shape) growing(seed Seed, size Size, style string, names []string) Making {
	o := Making{Seed: seed, Size: size, Style: style, Exact: true, scaled: map[string]bool{}, plan: map[any]string{}}
	for _, name := range names {
		o.scaled[name] = true
	}
	for _, item := range s.Items {
		if c, ok := item.(*casesNode); ok {
			o.plan[c] = "one"
			if len(names) == 1 && names[0] == c.Count.Name {
				o.plan[c] = "even"
			}
		}
	}
	return o
}
