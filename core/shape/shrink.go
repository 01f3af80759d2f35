package shape

import (
	"bytes"
	"context"
	"hash/maphash"
	"maps"
	"math/bits"
	"slices"
)

// Shrink looks for a smallest input that is still valid and of which fails still
// says that it fails, starting from one of which it said so. It works on the values
// and not on the text: it leaves out cases, bodies, elements, vertices, edges and
// characters, in halves first and one by one at last (Zeller and Hildebrandt, 2002),
// and then pulls numbers and characters to simple ones and brings them into order.
//
// complete says that no single step makes the result smaller; otherwise the context
// ended before that was known. The error is that of fails, which is called with
// valid inputs only and may keep none of them.
func (s *Shape) Shrink(ctx context.Context, in *Input, fails func(context.Context, []byte) (bool, error)) (small *Input, complete bool, err error) {
	k := &shrinker{ctx: ctx, shape: s, fails: fails, best: in.top.clone(nil), seed: maphash.MakeSeed(), tried: map[uint64]bool{}}
	k.weight = k.weigh(k.best)
	for before := (weight{}); k.going() && before != k.weight; {
		before = k.weight
		k.eachFrame(k.structure)
		k.together()
		k.eachFrame(k.simplify)
		k.inPairs()
	}
	return &Input{s, k.best}, k.going(), k.err
}

// A shrinker holds the smallest input found so far.
type shrinker struct {
	ctx    context.Context
	shape  *Shape
	fails  func(context.Context, []byte) (bool, error)
	err    error
	best   *frame
	weight weight
	text   []byte
	seed   maphash.Seed
	tried  map[uint64]bool
}

func (k *shrinker) going() bool { return k.err == nil && k.ctx.Err() == nil }

// A weight orders inputs: fewer values first, then simpler ones, then those in
// order.
type weight struct{ values, high, low, disorder uint64 }

func (w weight) less(than weight) bool {
	for _, pair := range [][2]uint64{{w.values, than.values}, {w.high, than.high}, {w.low, than.low}} {
		if pair[0] != pair[1] {
			return pair[0] < pair[1]
		}
	}
	return w.disorder < than.disorder
}

func (w *weight) add(distance uint64) {
	var carry uint64
	w.low, carry = bits.Add64(w.low, distance, 0)
	w.high += carry
}

// try takes a changed input if it is valid, smaller, and still fails.
func (k *shrinker) try(change func(top *frame) bool) bool {
	if !k.going() {
		return false
	}
	top := k.best.clone(nil)
	if !k.change(top, change) {
		return false
	}
	lighter := k.weigh(top)
	if !lighter.less(k.weight) {
		return false
	}
	k.text = (&Input{k.shape, top}).Append(k.text[:0])
	hash := maphash.Bytes(k.seed, k.text)
	if k.tried[hash] {
		return false
	}
	k.tried[hash] = true
	if fault, err := k.shape.Check(bytes.NewReader(k.text), Options{}); fault != nil || err != nil {
		return false
	}
	failed, err := k.fails(k.ctx, k.text)
	if k.ctx.Err() != nil {
		return false
	}
	if k.err = err; err != nil || !failed {
		return false
	}
	k.best, k.weight = top, lighter
	return true
}

// change makes a change and brings into its bounds what it left outside. A change
// after which an expression has no value is none.
func (k *shrinker) change(top *frame, change func(top *frame) bool) (ok bool) {
	why := attempt(func() {
		if ok = change(top); ok {
			mend(k.shape.Items, top)
		}
	})
	switch why.(type) {
	case nil:
		return ok
	case trouble, *GenerateError:
		return false
	}
	panic(why)
}

// A place is where a frame lies: from the top, a slot and a body of it, and so on.
type place [][2]int

func (p place) in(top *frame) *frame {
	for _, step := range p {
		top = top.data[step[0]].bodies[step[1]]
	}
	return top
}

// eachFrame visits every frame of the smallest input, outer ones first. It may
// become smaller on the way.
func (k *shrinker) eachFrame(visit func(at place, list []node)) {
	var walk func(at place, list []node)
	walk = func(at place, list []node) {
		visit(at, list)
		for _, item := range list {
			slot, inner := blockOf(item, at.in(k.best))
			if inner == nil {
				continue
			}
			for i := 0; k.going() && i < len(at.in(k.best).data[slot].bodies); i++ {
				walk(append(slices.Clone(at), [2]int{slot, i}), inner)
			}
		}
	}
	walk(nil, k.shape.Items)
}

// blockOf returns where the bodies of an item lie, and what is in them; nil if it
// has none.
func blockOf(item node, f *frame) (slot int, inner []node) {
	switch item := item.(type) {
	case *casesNode:
		return item.Count.slot, item.Items
	case *repeatNode:
		return item.slot, item.Items
	case *eitherNode:
		return item.slot, item.Branches[f.data[item.slot].count]
	}
	return 0, nil
}

// structure leaves out what one frame holds more than one of.
func (k *shrinker) structure(at place, list []node) {
	bodies := func(slot int, count bool) {
		k.leaveOut(func() int { return len(at.in(k.best).data[slot].bodies) }, func(top *frame, i, j int) bool {
			d := &at.in(top).data[slot]
			if d.bodies = slices.Delete(d.bodies, i, j); count {
				d.ints[0] -= int64(j - i)
			}
			return true
		})
	}
	for _, item := range list {
		if slot, inner := blockOf(item, at.in(k.best)); inner != nil && len(at.in(k.best).data[slot].bodies) > 1 {
			if _, branch := item.(*eitherNode); !branch {
				defer k.shortenAlike(at, slot, inner)
			}
		}
		switch item := item.(type) {
		case *casesNode:
			bodies(item.Count.slot, true)
		case *repeatNode:
			if item.Count.Range != nil {
				bodies(item.slot, false)
			}
		case *eitherNode:
			k.otherBranch(at, item)
		case *lineNode:
			for _, f := range item.Fields {
				if f.Value != nil {
					k.shorten(at, list, f)
				}
			}
		}
	}
}

// otherBranch tries the smallest that another branch can be.
func (k *shrinker) otherBranch(at place, item *eitherNode) {
	for b := range item.Branches {
		k.try(func(top *frame) bool {
			f := at.in(top)
			d := &f.data[item.slot]
			if d.count == int64(b) {
				return false
			}
			body, wrong := smallMaker(k.shape).body(item.bodies[b], item.Branches[b], f, nil)
			if wrong == nil {
				d.count, d.bodies = int64(b), []*frame{body}
			}
			return wrong == nil
		})
	}
}

// shorten leaves out what a field counts, or what lies in it where its length is
// free.
func (k *shrinker) shorten(at place, list []node, f *fieldNode) {
	v, c := f.Value, cursor{k, at, f}
	switch {
	case f.single() && f.counts:
		ways := []cut{{}, {contract: true}, {raise: true}}
		var removes []func(top *frame, i, j int) bool
		for _, way := range ways {
			removes = append(removes, func(top *frame, i, j int) bool {
				old, now := at.in(k.best), at.in(top)
				now.data[f.slot].ints[0] -= int64(j - i)
				return (&cut{i, j, way.contract, way.raise}).items(list, old, now)
			})
		}
		k.leaveOut(func() int { return int(min(1<<31, max(0, c.ints()[0]))) }, removes...)
	case v.Base == typeNodes && v.Dims[0].Range != nil:
		c.shortenNodes()
	case len(v.Dims) == 2 && v.Dims[0].Range != nil:
		c.remove(func() int { return int(c.now().count) }, func(d *datum, i, j int) {
			columns := d.size() / int(d.count)
			d.delete(i*columns, j*columns)
			d.count -= int64(j - i)
		})
	case len(v.Dims) == 1 && v.Dims[0].Range != nil:
		c.remove(func() int { return c.now().size() }, func(d *datum, i, j int) { d.remove(i, j) })
	case v.Length != nil && v.Length.Range != nil && len(v.Dims) == 0:
		c.remove(func() int { return len([]rune(c.texts()[0])) }, func(d *datum, i, j int) {
			d.texts[0] = without(d.texts[0], i, j)
			d.count = int64(len([]rune(d.texts[0])))
		})
	}
}

// shortenAlike leaves out the same in all bodies of an item, since what fails may be
// that they are alike.
func (k *shrinker) shortenAlike(at place, slot int, inner []node) {
	for _, item := range inner {
		line, ok := item.(*lineNode)
		if !ok {
			continue
		}
		for _, f := range line.Fields {
			if f.Value == nil || !f.single() || !f.counts {
				continue
			}
			bodies := func(top *frame) []*frame { return at.in(top).data[slot].bodies }
			k.leaveOut(func() int {
				most := int64(0)
				for _, body := range bodies(k.best) {
					most = max(most, body.data[f.slot].ints[0])
				}
				return int(min(1<<31, most))
			}, func(top *frame, i, j int) bool {
				for b, now := range bodies(top) {
					n := int(now.data[f.slot].ints[0])
					from, to := min(i, n), min(j, n)
					now.data[f.slot].ints[0] -= int64(to - from)
					if from < to && !(&cut{i: from, j: to}).items(inner, bodies(k.best)[b], now) {
						return false
					}
				}
				return true
			})
		}
	}
}

// shift takes the same off all numbers, so that the least of them becomes simple.
func (k *shrinker) shift(each func(top *frame, do func(x, simple int64) int64) bool) {
	least, known := int64(0), false
	eachNumber(k.shape.Items, k.best, func(list []int64, _ int64) {
		for _, x := range list {
			if !known || x < least {
				least, known = x, true
			}
		}
	})
	for _, to := range []int64{0, 1} {
		if by, ok := arithmetic("-", least, to); ok && by > 0 {
			k.try(func(top *frame) bool { return each(top, func(x, _ int64) int64 { return x - by }) })
		}
	}
}

// fewNumbers are so few that each two are lowered together.
const fewNumbers = 8

// inPairs takes the same off two numbers, as far as it goes: what fails may be that
// they differ by so much, or that others add up to one of them.
func (k *shrinker) inPairs() {
	all := func(top *frame) (numbers []*int64, simple []int64) {
		eachNumber(k.shape.Items, top, func(list []int64, s int64) {
			for i := range list {
				numbers, simple = append(numbers, &list[i]), append(simple, s)
			}
		})
		return numbers, simple
	}
	numbers, simple := all(k.best)
	for i := 0; i < len(numbers) && len(numbers) <= fewNumbers; i++ {
		for j := i + 1; j < len(numbers) && k.going(); j++ {
			now, _ := all(k.best)
			room, ok := arithmetic("-", min(*now[i], *now[j]), max(0, simple[i], simple[j]))
			if !ok || room <= 0 {
				continue
			}
			low := [2]int64{*now[i] - room, *now[j] - room} // when all is taken off
			border(room, 0, func(left int64) bool {
				return k.try(func(top *frame) bool {
					list, _ := all(top)
					*list[i], *list[j] = low[0]+left, low[1]+left
					return true
				})
			})
		}
	}
}

// manyValues is how many different numbers are lowered each in all its places.
const manyValues = 24

// together makes numbers smaller that only all together can be: it divides the
// distance of all from what is simplest, by much first and by two at last, and lowers
// those that are equal in all places at once.
func (k *shrinker) together() {
	each := func(top *frame, do func(x, simple int64) int64) (ok bool) {
		eachNumber(k.shape.Items, top, func(list []int64, simple int64) {
			ok = changed(list, func(x int64) int64 { return do(x, simple) }) || ok
		})
		return ok
	}
	for _, part := range []int64{1 << 32, 1 << 16, 1 << 8, 1 << 4, 1 << 2, 2} {
		for k.try(func(top *frame) bool {
			return each(top, func(x, simple int64) int64 { return simple + (x-simple)/part })
		}) {
		}
		for k.try(func(top *frame) bool { return each(top, func(x, _ int64) int64 { return x / part }) }) {
		}
	}
	k.shift(each)
	count := map[int64]int{}
	eachNumber(k.shape.Items, k.best, func(list []int64, simple int64) {
		for _, x := range list {
			if x != simple {
				count[x]++
			}
		}
	})
	if len(count) > manyValues {
		return
	}
	for _, value := range slices.Sorted(maps.Keys(count)) {
		if count[value] < 2 {
			continue
		}
		now := value // as far as it was lowered
		border(value, 0, func(to int64) bool {
			lowered := k.try(func(top *frame) bool {
				return each(top, func(x, _ int64) int64 {
					if x == now {
						return to
					}
					return x
				})
			})
			if lowered {
				now = to
			}
			return lowered
		})
	}
}

// eachNumber goes through the integers of an input that count nothing.
func eachNumber(list []node, f *frame, do func(numbers []int64, simple int64)) {
	eachField(list, f, func(field *fieldNode, f *frame) {
		if field.Value.Base != typeInt || field.counts && field.single() {
			return
		}
		if simple, ok := field.simplest(f); ok {
			do(f.data[field.slot].ints, simple)
		}
	})
}

// remove leaves out elements.
func (d *datum) remove(i, j int) {
	d.delete(i, j)
	d.count -= int64(j - i)
}

func without(text string, i, j int) string {
	r := []rune(text)
	return string(slices.Delete(r, i, j))
}

// leaveOut tries to leave out parts of so many things, each in one of some ways: all,
// halves, quarters, and at last single ones until none can go.
func (k *shrinker) leaveOut(count func() int, ways ...func(top *frame, i, j int) bool) {
	for size := count(); size > 0 && k.going(); {
		removed := false
		for i := 0; i < count() && k.going(); {
			j := min(i+size, count())
			if slices.ContainsFunc(ways, func(remove func(*frame, int, int) bool) bool {
				return k.try(func(top *frame) bool { return remove(top, i, j) })
			}) {
				removed = true
			} else {
				i = j
			}
		}
		if size == 1 && !removed {
			return
		}
		size = max(1, size/2)
	}
}

// renumber gives the bodies of repeats the indices that they have now.
func renumber(list []node, f *frame) {
	for _, item := range list {
		slot, inner := blockOf(item, f)
		if inner == nil {
			continue
		}
		for i, body := range f.data[slot].bodies {
			if body.body {
				body.at = int64(i)
			}
			renumber(inner, body)
		}
	}
}

// mend pulls integers that are outside of their bounds to the nearest end, and brings
// sorted arrays into order.
func mend(list []node, f *frame) {
	renumber(list, f)
	eachField(list, f, func(field *fieldNode, f *frame) {
		v, d := field.Value, &f.data[field.slot]
		if v.Base != typeInt || field.counts && field.single() {
			return
		}
		if v.changing() {
			for i, x := range d.ints {
				f.atElement(int64(i), func() {
					low, high := v.bounds(f)
					d.ints[i] = max(min(x, high), low)
				})
			}
			return
		}
		low, high := v.bounds(f)
		for i, x := range d.ints {
			d.ints[i] = max(min(x, high), low)
		}
		switch {
		case v.Sorted && v.ByRow:
			for i := range int(d.count) {
				slices.Sort(d.row(i))
			}
		case v.Sorted:
			slices.Sort(d.ints)
		}
		v.mirror(d.ints, f)
	})
}

// weigh returns the weight of an input.
func (k *shrinker) weigh(top *frame) (w weight) {
	w.values = bodiesIn(top)
	eachField(k.shape.Items, top, w.addField)
	return w
}

// bodiesIn is how many bodies lie in a frame, and in those.
func bodiesIn(f *frame) (n uint64) {
	for i := range f.data {
		for _, body := range f.data[i].bodies {
			n += 1 + bodiesIn(body)
		}
	}
	return n
}

// addField adds the values of one field.
func (w *weight) addField(field *fieldNode, f *frame) {
	v, d := field.Value, &f.data[field.slot]
	w.values += uint64(len(d.ints) + len(d.texts))
	simple := int64(0)
	if v.Base == typeInt {
		simple, _ = field.simplest(f)
	}
	for i, x := range d.ints {
		w.add(uint64(max(x, simple)) - uint64(min(x, simple)))
		if i > 0 && !v.traits().edges {
			w.disorder += truthU(d.ints[i-1] > x)
		}
	}
	if v.traits().edges {
		for i := 0; i < len(d.ints); i += 2 {
			w.disorder += truthU(d.ints[i] > d.ints[i+1] && !v.Directed)
			w.disorder += truthU(i > 0 && slices.Compare(d.ints[i-2:i], d.ints[i:i+2]) > 0)
		}
	}
	for _, text := range d.texts {
		v.Base.of().weigh(w, v, text)
	}
}

// characters adds a text of characters of a set.
func (w *weight) characters(set *charSet, text string) {
	w.values += uint64(len(text))
	for _, r := range text {
		at, _ := slices.BinarySearch(set.Runes, r)
		w.add(uint64(at))
	}
}

func truthU(b bool) uint64 { return uint64(truth(b)) }

// simplest is the integer that a person likes best in the range of a field; not ok
// if that has no value.
func (f *fieldNode) simplest(in *frame) (n int64, ok bool) {
	low, wrong := evaluated(f.Value.lowEnd(), in)
	high, wrong2 := evaluated(f.Value.highEnd(), in)
	if wrong != nil || wrong2 != nil {
		return 0, false
	}
	return min(max(0, low), max(high, low)), true
}

// simplify makes the values of one frame simpler.
func (k *shrinker) simplify(at place, list []node) {
	fieldsOf(list, func(f *fieldNode) { k.simplifyField(at, f) })
}

func (k *shrinker) simplifyField(at place, f *fieldNode) {
	if f.single() && f.counts {
		return
	}
	c := cursor{k, at, f}
	f.Value.Base.of().simplify(c)
	c.order()
}

// simplifyCharacters makes texts of the first character of their set, as far as that goes.
func (c cursor) simplifyCharacters() {
	for i := 0; i < len(c.texts()) && c.k.going(); i++ {
		c.setParts(func() int { return len([]rune(c.texts()[i])) }, func(d *datum, from, to int) bool {
			r := []rune(d.texts[i])
			ok := changed(r[from:to], func(rune) rune { return c.field.Value.Set.Runes[0] })
			d.texts[i] = string(r)
			return ok
		})
	}
}

// changed sets elements, and reports that one was different.
func changed[T comparable](list []T, to func(T) T) (ok bool) {
	for i, x := range list {
		list[i] = to(x)
		ok = ok || list[i] != x
	}
	return ok
}

// withoutZeros takes leading zeros off, and the sign off nothing.
func withoutZeros(text string) string {
	sign, digits := "", text
	if digits[0] == '-' {
		sign, digits = "-", digits[1:]
	}
	for len(digits) > 1 && digits[0] == '0' && digits[1] != '.' {
		digits = digits[1:]
	}
	if !bytes.ContainsAny([]byte(digits), "123456789") {
		sign = ""
	}
	return sign + digits
}

// order sorts an array, or the edges of a graph, whole or in parts.
func (c cursor) order() {
	v := c.field.Value
	if v.traits().edges {
		c.relabel()
		if len(v.With) == 0 {
			c.set(func(d *datum) bool {
				sortEdges(d.ints, !v.Directed)
				return true
			})
		}
		return
	}
	if len(v.Dims) != 1 && v.Base != typePerm || v.Base != typeInt && v.Base != typePerm {
		return
	}
	c.setParts(func() int { return len(c.ints()) }, func(d *datum, i, j int) bool {
		part := d.ints[i:j]
		if slices.IsSorted(part) {
			return false
		}
		slices.Sort(part)
		return true
	})
}

// fewVertices are so few that the labels of each two are exchanged.
const fewVertices = 12

// relabel gives the vertices with most edges the least labels, or exchanges two.
func (c cursor) relabel() {
	degree := map[int64]int{}
	for _, x := range c.ints() {
		degree[x]++
	}
	labels := slices.Collect(maps.Keys(degree))
	slices.Sort(labels)
	byDegree := slices.Clone(labels)
	slices.SortStableFunc(byDegree, func(a, b int64) int { return degree[b] - degree[a] })
	to := map[int64]int64{}
	for i, x := range byDegree {
		to[x] = c.field.Value.From + int64(i)
	}
	c.set(func(d *datum) bool {
		return changed(d.ints, func(x int64) int64 { return to[x] })
	})
	for i := 0; i < len(labels) && len(labels) <= fewVertices; i++ {
		for _, b := range labels[i+1:] {
			a := labels[i]
			c.set(func(d *datum) bool {
				return changed(d.ints, func(x int64) int64 {
					switch x {
					case a:
						return b
					case b:
						return a
					}
					return x
				})
			})
		}
	}
}

// sortEdges brings edges into order, and their ends where turn says so.
func sortEdges(ends []int64, turn bool) {
	edges := make([][2]int64, len(ends)/2)
	for i := range edges {
		a, b := ends[2*i], ends[2*i+1]
		if turn && a > b {
			a, b = b, a
		}
		edges[i] = [2]int64{a, b}
	}
	slices.SortFunc(edges, func(a, b [2]int64) int { return slices.Compare(a[:], b[:]) })
	for i, e := range edges {
		ends[2*i], ends[2*i+1] = e[0], e[1]
	}
}
