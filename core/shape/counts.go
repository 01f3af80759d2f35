package shape

import (
	"slices"
	"strconv"
)

// How often a symbol stands in a word, a text or a grid, or a value in an array, can be asked for:
// require count(map, "S") = 1. It is met by placing, since drawing would hardly ever find it.

// A symbol is a text in an expression: what count counts.
type symbol struct {
	pos  Pos
	text string
}

func (e *symbol) place() Pos        { return e.pos }
func (e *symbol) String() string    { return strconv.Quote(e.text) }
func (e *symbol) eval(*frame) int64 { return fail(e.pos, "%s is no number", e) }

// counted is how often a call of count finds what it counts.
func counted(e *call, d *datum, f *frame) (n int64) {
	if s, ok := e.args[1].(*symbol); ok {
		one := []rune(s.text)
		for _, text := range d.texts {
			if e.ofTokens() {
				n += truth(text == s.text)
				continue
			}
			for _, r := range text {
				n += truth(r == one[0])
			}
		}
		return n
	}
	value := e.args[1].eval(f)
	for _, x := range d.ints {
		n += truth(x == value)
	}
	return n
}

// ofTokens reports that whole tokens are counted, and not characters of texts.
func (e *call) ofTokens() bool {
	return e.args[0].(*reference).field.Value.Base == typePick
}

// countArguments reports what cannot be counted.
func (r *resolver) countArguments(c *call) {
	e, ok := c.args[0].(*reference)
	if !ok || e.index != nil {
		r.wrong(c.args[0].place(), "count takes the name of a token, a text, a grid or an array")
		return
	}
	if e.field == nil {
		return
	}
	v, s := e.field.Value, (*symbol)(nil)
	if s, ok = c.args[1].(*symbol); !ok {
		r.truth(c.args[1], false)
		if !v.traits().integers || e.field.single() {
			r.wrong(e.pos, "%s is no array of integers; a symbol is counted as count(%s, \"S\")", e.name, e.name)
		}
		return
	}
	switch {
	case v.Base == typePick && !slices.Contains(v.Picks, s.text):
		r.wrong(s.pos, "%s is none of the tokens of %s", s, e.name)
	case v.Base == typePick:
	case v.Set == nil:
		r.wrong(e.pos, "%s has no characters; a value is counted as count(%s, 1)", e.name, e.name)
	case len([]rune(s.text)) != 1:
		r.wrong(s.pos, "count counts one character, and %s has %d", s, len([]rune(s.text)))
	case !v.Set.Has([]rune(s.text)[0]):
		r.wrong(s.pos, "%s is not in the set of %s, %q", s, e.name, v.Set.Text)
	}
}

// countsIn are the calls of count in an expression.
func countsIn(e exprNode) (all []*call) {
	eachCall(e, func(c *call) {
		if c.name == "count" {
			all = append(all, c)
		}
	})
	return all
}

// placeCounts changes what was generated so that comparisons of counts hold, where they are joined by and: those of
// the last of some items, and of all requirements before it, which it says were broken on the way.
func (m *maker) placeCounts(list []node, f *frame) (broken *requireNode) {
	var required []*requireNode
	var all []*call
	for _, item := range list {
		if q, ok := item.(*requireNode); ok {
			required, all = append(required, q), append(all, countsIn(q.Cond)...)
		}
	}
	if len(all) == 0 {
		return nil
	}
	holds := func(q *requireNode) bool {
		n, wrong := evaluated(q.Cond, f)
		return wrong == nil && n != 0
	}
	const rounds = 8 // one symbol may have taken the place of another
	for range rounds {
		if broken = nil; len(required) == 0 {
			return nil
		}
		for _, q := range required {
			if !holds(q) {
				attempt(func() { m.placeIn(q.Cond, f, all) })
			}
		}
		for _, q := range required {
			if !holds(q) {
				broken = q
			}
		}
		if broken == nil {
			return nil
		}
	}
	return broken
}

// opposite is a comparison read from its other side.
var opposite = map[string]string{"=": "=", "<": ">", ">": "<", "<=": ">=", ">=": "<="}

func (m *maker) placeIn(e exprNode, f *frame, all []*call) {
	b, ok := e.(*binary)
	if !ok {
		return
	}
	if b.op == "and" {
		m.placeIn(b.x, f, all)
		m.placeIn(b.y, f, all)
		return
	}
	left, leftCounts := b.x.(*call)
	leftCounts = leftCounts && left.name == "count"
	right, rightCounts := b.y.(*call)
	rightCounts = rightCounts && right.name == "count"
	op, other := b.op, b.y
	if opposite[op] == "" {
		return
	}
	if leftCounts && rightCounts && op == "=" {
		// Both move towards each other.
		x, y := left.eval(f), right.eval(f)
		m.place(left, f, (x+y)/2, all)
		m.place(right, f, left.eval(f), all)
		m.place(left, f, right.eval(f), all)
		return
	}
	if !leftCounts {
		if !rightCounts {
			return
		}
		left, op, other = right, opposite[op], b.x
	}
	have, want := left.eval(f), other.eval(f)
	switch {
	case op == "<":
		op, want = "<=", want-1
	case op == ">":
		op, want = ">=", want+1
	}
	if op == "=" || op == "<=" && have > want || op == ">=" && have < want {
		m.place(left, f, want, all)
	}
}

// place makes a symbol or a value stand in a name so many times. What takes its place, or gives it up, is by preference
// what nobody counts.
func (m *maker) place(c *call, f *frame, want int64, all []*call) {
	ref := c.args[0].(*reference)
	if ref.up > 0 {
		return
	}
	d := &f.data[ref.field.slot]
	var others []*call // that count other things of the same name
	for _, o := range all {
		if o.args[0].(*reference).field == ref.field && o.args[1].String() != c.args[1].String() {
			others = append(others, o)
		}
	}
	// What is taken out may be put in again where nothing else is left.
	for range 3 {
		have := counted(c, d, f)
		if have == want || want < 0 {
			return
		}
		m.move(c, ref.field, d, f, abs(want-have), have < want, others)
	}
}

func abs(n int64) int64 { return max(n, -n) }

// move puts the symbol or the value into so many more places, or takes it out of them.
func (m *maker) move(c *call, field *fieldNode, d *datum, f *frame, n int64, in bool, others []*call) {
	s, isSymbol := c.args[1].(*symbol)
	switch {
	case !isSymbol:
		m.moveValue(c.args[1].eval(f), field, d, f, n, in, others)
	case c.ofTokens():
		m.moveTokens(s.text, field, d, f, n, in)
	default:
		m.moveCharacter([]rune(s.text)[0], field, d, n, in, others)
	}
}

// some are so many of places, drawn, of better ones first.
func (m *maker) some(n int64, better, worse []int) []int {
	for _, list := range [][]int{better, worse} {
		for i := range list {
			j := i + m.index(len(list)-i)
			list[i], list[j] = list[j], list[i]
		}
	}
	all := append(better, worse...)
	return all[:min(int64(len(all)), n)]
}

func (m *maker) moveCharacter(one rune, field *fieldNode, d *datum, n int64, in bool, others []*call) {
	var pinned []rune
	for _, o := range others {
		if t, ok := o.args[1].(*symbol); ok {
			pinned = append(pinned, []rune(t.text)...)
		}
	}
	var free, last []rune // what may take its place
	for _, r := range field.Value.Set.Runes {
		switch {
		case r == one:
		case slices.Contains(pinned, r):
			last = append(last, r)
		default:
			free = append(free, r)
		}
	}
	if len(free) == 0 {
		free = last
	}
	if !in && len(free) == 0 {
		return
	}
	rows := make([][]rune, len(d.texts))
	starts := make([]int, len(d.texts)) // of each row among all characters
	var better, worse []int
	at := 0
	for i, text := range d.texts {
		rows[i], starts[i] = []rune(text), at
		for _, r := range rows[i] {
			switch {
			case (r == one) == in:
			case in && slices.Contains(pinned, r):
				worse = append(worse, at)
			default:
				better = append(better, at)
			}
			at++
		}
	}
	changed := map[int]bool{}
	for _, place := range m.some(n, better, worse) {
		i, found := slices.BinarySearch(starts, place)
		for found && len(rows[i]) == 0 { // of empty rows the last one that begins there
			i++
		}
		if !found {
			i--
		}
		if rows[i][place-starts[i]] = one; !in {
			rows[i][place-starts[i]] = free[m.index(len(free))]
		}
		changed[i] = true
	}
	for i := range changed {
		d.texts[i] = string(rows[i])
	}
}

func (m *maker) moveTokens(token string, field *fieldNode, d *datum, f *frame, n int64, in bool) {
	var places []int
	for i, text := range d.texts {
		if (text == token) != in {
			places = append(places, i)
		}
	}
	free := slices.DeleteFunc(slices.Clone(field.Value.Picks), func(one string) bool { return one == token })
	if low, high := field.Value.bounds(f); !in && field.Value.Range != nil && low <= high {
		free = append(free, strconv.FormatInt(low, 10))
	}
	if !in && len(free) == 0 {
		return
	}
	for _, at := range m.some(n, places, nil) {
		if d.texts[at] = token; !in {
			d.texts[at] = free[m.index(len(free))]
		}
	}
}

func (m *maker) moveValue(value int64, field *fieldNode, d *datum, f *frame, n int64, in bool, others []*call) {
	pinned := map[int64]bool{}
	for _, o := range others {
		if _, ok := o.args[1].(*symbol); !ok {
			pinned[o.args[1].eval(f)] = true
		}
	}
	low, high := field.Value.bounds(f)
	if in && (value < low || value > high) {
		return
	}
	var better, worse []int
	for i, x := range d.ints {
		switch {
		case (x == value) == in:
		case in && pinned[x]:
			worse = append(worse, i)
		default:
			better = append(better, i)
		}
	}
	for _, at := range m.some(n, better, worse) {
		if in {
			d.ints[at] = value
			continue
		}
		for range 50 {
			if x := m.between(low, high); x != value && !pinned[x] {
				d.ints[at] = x
				break
			}
		}
	}
}
