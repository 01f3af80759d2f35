package shape

// A cursor is a field at one place of an input that is being shrunk. Its changes are tried as those of
// the shrinker: they stay where the input still fails and is smaller.
type cursor struct {
	k     *shrinker
	at    place
	field *fieldNode
}

// in is what the field holds in an input.
func (c cursor) in(top *frame) *datum { return &c.at.in(top).data[c.field.slot] }

// now is what it holds in the smallest input so far.
func (c cursor) now() *datum { return c.in(c.k.best) }

func (c cursor) ints() []int64   { return c.now().ints }
func (c cursor) texts() []string { return c.now().texts }

// set tries a change of what it holds.
func (c cursor) set(change func(d *datum) bool) bool {
	return c.k.try(func(top *frame) bool { return change(c.in(top)) })
}

// remove tries to leave out parts of so many things.
func (c cursor) remove(count func() int, remove func(d *datum, i, j int)) {
	c.k.leaveOut(count, func(top *frame, i, j int) bool {
		remove(c.in(top), i, j)
		return true
	})
}

// setParts changes parts of so many things: all, halves, and so on.
func (c cursor) setParts(count func() int, set func(d *datum, i, j int) bool) {
	for size := count(); size > 0 && c.k.going(); size /= 2 {
		for i := 0; i < count() && c.k.going(); i += size {
			c.set(func(d *datum) bool { return set(d, i, min(i+size, count())) })
		}
	}
}

// lower brings integer i as near to a simple one as it goes: in growing steps away from
// that, since it nearly always ends close to it, and then by halving the way.
func (c cursor) lower(i int, simple int64) {
	to := func(x int64) bool {
		return c.set(func(d *datum) bool {
			d.ints[i] = x
			return true
		})
	}
	bad := simple
	for step := int64(1); step < 1<<60; step *= 4 {
		x, now := simple+step, c.ints()[i]
		if now < simple {
			x = simple - step
		}
		if x == now || (x > now) == (now > simple) || to(x) { // past it, or far enough
			break
		}
		bad = x
	}
	border(c.ints()[i], bad, to)
}
