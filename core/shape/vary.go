package shape

import (
	"bytes"
	"math/rand/v2"
	"slices"
)

// CanPermute reports that a name is an array, whose elements can be put into another order.
func (s *Shape) CanPermute(name string) bool {
	return s.has(name, func(v *valueNode) bool { return len(v.Dims) > 0 && !v.Base.of().traits().edges })
}

// CanRelabel reports that a name is a tree or a graph given by its edges, whose vertices can get
// other numbers.
func (s *Shape) CanRelabel(name string) bool {
	return s.has(name, func(v *valueNode) bool { return v.Base.of().traits().edges })
}

// has reports that some field of a name has a value of a kind.
func (s *Shape) has(name string, kind func(*valueNode) bool) (found bool) {
	s.each(func(f *fieldNode) { found = found || f.Name == name && f.Value != nil && kind(f.Value) }, func(node) {})
	return found
}

// Permuted returns the input with the elements of each array of a name in another order. ok is
// false where that is no valid input, or the same one.
func (in *Input) Permuted(name string, seed Seed) (other *Input, ok bool) {
	return in.varied(seed, func(random *rand.Rand, f *fieldNode, d *datum, _ *frame) {
		if f.Name != name || len(f.Value.Dims) == 0 {
			return
		}
		if len(d.texts) > 1 {
			random.Shuffle(len(d.texts), func(i, j int) { d.texts[i], d.texts[j] = d.texts[j], d.texts[i] })
		} else {
			random.Shuffle(len(d.ints), func(i, j int) { d.ints[i], d.ints[j] = d.ints[j], d.ints[i] })
		}
	})
}

// Relabelled returns the input with other numbers for the vertices of each tree or graph of a
// name. ok is false where that is no valid input, or the same one.
func (in *Input) Relabelled(name string, seed Seed) (other *Input, ok bool) {
	return in.varied(seed, func(random *rand.Rand, f *fieldNode, d *datum, frame *frame) {
		v := f.Value
		if f.Name != name || !v.Base.of().traits().edges {
			return
		}
		numbers := random.Perm(int(v.Args[0].eval(frame)))
		for i, at := range d.ints {
			d.ints[i] = int64(numbers[at-v.From]) + v.From
		}
	})
}

// varied returns a changed copy, if it is valid and another input.
func (in *Input) varied(seed Seed, change func(*rand.Rand, *fieldNode, *datum, *frame)) (*Input, bool) {
	other := &Input{in.shape, in.top.clone(nil)}
	random := rand.New(rand.NewPCG(uint64(seed), 0))
	eachField(in.shape.Items, other.top, func(f *fieldNode, frame *frame) { change(random, f, &frame.data[f.slot], frame) })
	text := other.Append(nil)
	if slices.Equal(text, in.Append(nil)) {
		return nil, false
	}
	read, fault, err := in.shape.Read(bytes.NewReader(text), Options{})
	return read, err == nil && fault == nil
}
