package shape

import (
	"fmt"
	"maps"
	"slices"
	"strconv"
	"strings"

	"coldverdict/core/settings"
)

// MakerVersion is the version of the maker. It changes whenever the same seed, size
// and style would make other bytes.
const MakerVersion = 2

// A Seed is where the random numbers of an input begin.
type Seed uint64

// ParseSeed reads a seed: a number, or as String writes it.
func ParseSeed(text string) (Seed, error) {
	version, number, found := strings.Cut(text, ":")
	if !found {
		version, number = strconv.Itoa(MakerVersion), text
	}
	n, err := strconv.ParseUint(number, 10, 64)
	if _, err2 := strconv.Atoi(version); err != nil || err2 != nil {
		return 0, fmt.Errorf("%q is no seed; write a number from 0 on, such as 42", text)
	}
	if version != strconv.Itoa(MakerVersion) {
		return 0, fmt.Errorf("the seed %s is one of maker %s, and this program has maker %d, which makes other inputs from it", text, version, MakerVersion)
	}
	return Seed(n), nil
}

// String writes a seed with the version of the maker, so that a later one does not
// make something else from it in silence.
func (s Seed) String() string { return fmt.Sprintf("%d:%d", MakerVersion, uint64(s)) }

// Making says what input is to be generated.
type Making struct {
	Seed Seed
	Size Size
	// Style is drawn in wherever it fits; empty: all of them are drawn.
	Style string
	// Exact wants each count as large as the size says. Otherwise some are smaller.
	Exact bool
	// OneCase wants, of a cases block, a single case, or as few as there may be.
	OneCase bool
	// Alike bounds all counts by the same number, that which the size says for the
	// largest of them, so that one that is never large is not tiny where others are
	// small.
	Alike bool
	// Numbers says for names that are one integer which value they get, or the nearest one
	// that the shape allows; those that count something do not follow the size then.
	Numbers map[string]int64

	scaled map[string]bool // the only names that grow; nil: all
	plan   map[any]string  // a style of a field or an item
	// unheeded are the keys of the plan whose styles gave way to something else; nil: nobody asks.
	unheeded map[any]bool
	// work counts what was generated and looked at, draws that were of no use among it; nil: nobody asks.
	work *int64
}

// A GenerateError says why no input could be generated.
type GenerateError struct {
	Pos  Pos // in the shape
	Text string
}

func (e *GenerateError) Error() string { return fmt.Sprintf("%s: %s", e.Pos, e.Text) }

// Make makes an input. The same seed, size and style make the same bytes on every
// machine. The error is a *GenerateError; it says that the shape contradicts itself,
// asks for what hardly ever happens, or for more than fits; or it is that of a predicate.
func (s *Shape) Make(o Making) (in *Input, err error) {
	if o.Style != "" {
		if err := s.knowsStyle(o.Style); err != nil {
			return nil, err
		}
	}
	m := &maker{Making: o, shape: s, random: newRandom(uint64(o.Seed)), room: mostValues / 2, promised: map[*fieldNode]string{}}
	if o.Alike {
		m.alike = o.Size.of(uint64(s.largest))
	}
	small := o.Size < Largest/2 && o.Style == "" || o.Alike && m.alike <= smallCount && !slices.Contains(farStyles, o.Style)
	if o.Style == "small" || o.plan == nil && small && m.oneIn(2) {
		m.few = 1 + int64(m.index(mostFew))
		if o.Style == "" && m.oneIn(2) { // the few as they come
			m.plain++
		}
	}
	if len(s.holds) > 0 {
		return m.held(m.input)
	}
	return m.input()
}

// input makes an input that has the form of the shape.
func (m *maker) input() (in *Input, err error) {
	var top *frame
	why := attempt(func() {
		var wrong *unmet
		if top, wrong = m.body(m.shape.top, m.shape.Items, nil, nil); wrong != nil {
			err = wrong.tell()
		}
	})
	switch why := why.(type) {
	case nil:
	case *GenerateError:
		err = why
	case trouble:
		err = &GenerateError{why.pos, why.text}
	default:
		panic(why)
	}
	if err != nil {
		return nil, err
	}
	return &Input{m.shape, top}, nil
}

// plainStyle draws everything without a plan: each value of its range alike.
const plainStyle = "plain"

// Styles are the names of all styles that fit something in the shape, in
// alphabetical order.
func (s *Shape) Styles() []string { return slices.Clone(s.styles) }

// stylesOfAll is what Styles returns.
func (s *Shape) stylesOfAll() []string {
	names := map[string]bool{plainStyle: true}
	add := func(list []string) {
		for _, name := range list {
			names[name] = true
		}
	}
	s.each(func(f *fieldNode) { add(f.styles) }, func(item node) {
		switch item := item.(type) {
		case *casesNode:
			add(casesNames)
		case *eitherNode:
			add(item.styles)
		case *repeatNode:
			fieldsOf(item.Items, func(f *fieldNode) {
				if f.single() && !f.counts { // a column
					add(arrayNames)
				}
			})
		}
	})
	return slices.Sorted(maps.Keys(names))
}

func (s *Shape) knowsStyle(name string) error {
	if _, known := slices.BinarySearch(s.styles, name); !known {
		return fmt.Errorf("no value of this shape has a style %q; %s", name, settings.Nearest(name, s.styles))
	}
	return nil
}

// each goes through all fields and items, those in blocks included.
func (s *Shape) each(field func(*fieldNode), item func(node)) {
	var walk func([]node)
	walk = func(list []node) {
		for _, i := range list {
			item(i)
			switch i := i.(type) {
			case *lineNode:
				for _, f := range i.Fields {
					if f.Value == nil {
						continue
					}
					field(f)
					for _, w := range f.Value.With {
						if w.Value != nil {
							field(w)
						}
					}
				}
			case *casesNode:
				field(i.Count)
				walk(i.Items)
			case *repeatNode:
				walk(i.Items)
			case *eitherNode:
				for _, b := range i.Branches {
					walk(b)
				}
			}
		}
	}
	walk(s.Items)
}

// mostValues bounds the values of one input; more is nothing that anyone meant.
const mostValues = 20_000_000

// The bounds of drawing again.
const (
	mostDraws  = 1000 // of a block, until a requirement is met
	plainAfter = 25   // draws of a block, from which on it heeds no style
	fewDraws   = 30   // of a block, where nothing in it can help

	mostRedrawn = 5 * mostValues // values of a large block, in all draws of it
)

// A maker makes one input.
type maker struct {
	Making
	*random
	shape  *Shape
	room   int64          // how large a count may be
	values int64          // generated so far
	at     int64          // the index of the next body of a repeat
	alike  uint64         // bounds all counts; 0: nothing does
	few    int64          // how far apart values may be, whatever their bounds are; 0: as far as those say
	tiny   bool           // counts are as small as they may be, or nearly
	depth  int            // blocks around
	plain  int            // blocks around that heed no style
	least  bool           // all numbers are as small as they may be
	fixed  map[any]string // styles that are the same in all bodies around; nil: none are
	// promised are styles of graphs to which the number of edges was fitted.
	promised   map[*fieldNode]string
	columns    map[*fieldNode]column
	around     *repeatNode // whose bodies are made
	bodiesLeft int64       // of it, the next one among them
	effort     int64       // elements looked at to meet what is required
	// lost counts how often a branch could not be made in the repeat around, without
	// having been made in between.
	lost map[branchOf]int
}

// A branchOf is one branch of an either.
type branchOf struct {
	item   *eitherNode
	branch int32
}

// A column is what a field holds in all bodies of a repeat.
type column struct {
	values []int64
	texts  []string // of what is no integer
	strict bool     // each body takes its own, since the column is in order or of different values
	at     int
}

// An unmet condition is why what was drawn is of no use.
type unmet struct {
	pos  Pos
	text string // of the condition
	now  string // what the names in it were
	// hopeless says that drawing the same block again does not help.
	hopeless bool
	draws    int
}

// tell says in words what to do about it.
func (u *unmet) tell() *GenerateError {
	if u.hopeless {
		return &GenerateError{u.pos, fmt.Sprintf("%s cannot be met%s", u.text, u.now)}
	}
	return &GenerateError{u.pos, fmt.Sprintf("%s was met by none of %d draws%s; say it in the ranges and lengths, so that it need not be met by chance", u.text, u.draws, u.now)}
}

// body makes a block, drawing again until all that is required is met.
func (m *maker) body(b *block, list []node, above *frame, allowed []int64) (*frame, *unmet) {
	hopeless, at := 0, m.at // which a repeat within changes
	for draw := 1; ; draw++ {
		f := newFrame(b, above)
		f.at, f.body = at, b.repeated
		f.allowed = allowed
		made := m.values
		if draw == plainAfter {
			m.plain++
		}
		wrong := m.items(list, f)
		if wrong == nil {
			wrong = m.totals(b, f)
		}
		if wrong != nil && wrong.hopeless {
			hopeless++
		}
		if wrong == nil || draw == mostDraws || hopeless == fewDraws || draw > fewDraws && int64(draw)*(m.values-made) > mostRedrawn {
			if draw >= plainAfter {
				m.plain--
			}
			if wrong != nil {
				wrong.draws = draw
				wrong.hopeless = wrong.hopeless || hopeless == fewDraws
			}
			return f, wrong
		}
		m.values = made
	}
}

// totals compares what a case adds to each total with what it may add.
func (m *maker) totals(b *block, f *frame) *unmet {
	if f.allowed == nil {
		return nil
	}
	for _, c := range b.conditions {
		if c.total && !c.met(f) {
			return &unmet{pos: c.pos, text: c.text}
		}
	}
	return nil
}

func (m *maker) items(list []node, f *frame) *unmet {
	for i, item := range list {
		var wrong *unmet
		switch item := item.(type) {
		case *lineNode:
			for _, field := range item.Fields {
				if wrong == nil && field.Value != nil {
					wrong = m.field(field, f)
				}
			}
		case *casesNode:
			wrong = m.cases(item, f)
		case *repeatNode:
			wrong = m.repeat(item, f)
		case *eitherNode:
			wrong = m.either(item, f)
		case *requireNode:
			if broken := m.placeCounts(list[:i+1], f); broken != nil {
				item = broken
			}
			if n, bad := evaluated(item.Cond, f); (bad != nil || n == 0) && m.repair(list[:i+1], f) {
				continue
			} else if bad != nil {
				wrong = &unmet{pos: item.Pos, text: "require " + item.text, now: ": " + bad.text}
			} else if n == 0 {
				wrong = &unmet{pos: item.Pos, text: "require " + item.text, now: values(item.Cond, f)}
			}
		}
		if wrong != nil {
			return wrong
		}
	}
	return nil
}

// style returns the name of the style of a field or an item, out of those that fit
// it. The last of them is the one without any plan.
func (m *maker) style(key any, names []string) string {
	plain := names[len(names)-1]
	switch {
	case m.plain > 0, m.Style == plainStyle:
		m.lose(key)
		return plain
	case m.least:
		for _, name := range []string{"least", "all-least"} {
			if slices.Contains(names, name) {
				return name
			}
		}
		return plain
	}
	if name, ok := m.plan[key]; ok && slices.Contains(names, name) {
		return name
	}
	if slices.Contains(names, m.Style) {
		return m.Style
	}
	if m.plan != nil {
		return plain
	}
	if m.fixed == nil {
		return names[m.index(len(names))]
	}
	if _, ok := m.fixed[key]; !ok {
		m.fixed[key] = names[m.index(len(names))]
	}
	return m.fixed[key]
}

// stylesOf are the names of the styles that fit a field.
func stylesOf(f *fieldNode, edge bool) []string { return f.Value.Base.of().styles(f, edge) }

// worked notes what was generated or looked at, where somebody asks.
func (m *maker) worked(n int64) {
	if m.work != nil {
		*m.work += n
	}
}

// spend notes that so many values are generated.
func (m *maker) spend(pos Pos, n int64) {
	m.worked(max(n, 0))
	if m.values += n; n < 0 || n > mostValues || m.values > mostValues {
		panic(&GenerateError{pos, fmt.Sprintf("an input of this size would hold more than %d million values; bound them with total, or with require, or make a smaller one", mostValues/1_000_000)})
	}
}

func (m *maker) field(field *fieldNode, f *frame) *unmet {
	return field.Value.Base.of().generate(m, field, &f.data[field.slot], f)
}

// with makes what stands on the lines of edges.
func (m *maker) with(v *valueNode, f *frame, edges int) *unmet {
	for _, w := range v.With {
		if w.Value == nil {
			continue
		}
		d := &f.data[w.slot]
		if wrong := w.Value.Base.of().fill(m, w, d, f, edges); wrong != nil {
			return wrong
		}
		d.count = int64(edges)
	}
	return nil
}

// length draws how many elements there are, in a field or, without one, bodies.
func (m *maker) length(l *lengthNode, f *frame, field *fieldNode) int64 {
	return m.lengthUpTo(l, f, field, 1<<63-1)
}

// different is how many values there are of which no two may be alike; the most that there is where that may be.
func (v *valueNode) different(in *frame) int64 {
	if !v.unlike() || len(v.Dims) > 1 && !v.ByRow || v.DistinctBut != nil || v.changing() {
		return 1<<63 - 1
	}
	switch v.Base {
	case typeInt, typeNodes:
		if low, high := v.bounds(in); low <= high && uint64(high)-uint64(low) < 1<<62 {
			return high - low + 1
		}
	case typePick:
		if v.Range != nil {
			return 1<<63 - 1 // or too few, which is seen when they are chosen
		}
		return int64(len(v.Picks))
	case typeToken, typeText, typeDigits:
		if lengths := v.lengths(in); lengths[0] <= lengths[1] {
			return int64(min(v.words(lengths), 1<<62))
		}
	case typeAmong:
		list := slices.Clone(v.tokens(in))
		slices.Sort(list)
		return int64(len(slices.Compact(list)))
	}
	return 1<<63 - 1
}

// lengthUpTo draws a length that is no more than there can be, unless it must be.
func (m *maker) lengthUpTo(l *lengthNode, f *frame, field *fieldNode, most int64) int64 {
	if l.Exact != nil {
		return max(0, l.Exact.eval(f))
	}
	low, high := l.Range.Low.eval(f), l.Range.High.eval(f)
	if low > high {
		panic(&GenerateError{l.Range.Pos, fmt.Sprintf("no length lies in %d..%d (%s)", low, high, l.Range.text)})
	}
	return m.count(l, low, max(low, min(high, f.room(field), most)), -1)
}

// room is how long a field may be for the total of lengths that it counts towards.
func (f *frame) room(field *fieldNode) int64 {
	if field == nil || field.total == 0 || f.allowed == nil {
		return 1<<63 - 1
	}
	return f.allowed[field.total-1]
}

// countStyles are how large a count is in an edge case; none of them is drawn
// otherwise.
var countStyles = []string{"least", "next", "two", "few", "largest", "any"}

// count draws a count. wish is what a graph would like; -1: nothing.
func (m *maker) count(key any, low, high, wish int64) int64 {
	high = min(high, max(low, m.room))
	if m.tiny {
		return m.between(low, min(high, low+2))
	}
	switch m.plan[key] {
	case "least":
		return low
	case "next":
		return min(low+1, high)
	case "two":
		return min(max(low, 2), high)
	case "few":
		least := min(max(low, 3), high)
		return m.between(least, min(high, least+5))
	case "largest":
		if wish >= low && wish <= high {
			return wish
		}
		return high
	}
	exact := m.Exact || m.Size == Largest
	target := low + int64(m.sized(key, low, high)) - 1
	switch {
	case wish >= low && wish <= target && (m.Style != "" || !exact && m.oneIn(2)):
		return wish
	case exact || m.oneIn(2):
		return target
	case m.oneIn(3):
		return m.between(low, target)
	}
	return m.magnitude(low, target)
}

// sized is how many of the values from low to high a count may have at the size of the input. That applies to what the
// shape says in numbers; a count that other names bound follows the size with them, and would be kept small twice.
func (m *maker) sized(key any, low, high int64) uint64 {
	room := uint64(high-low) + 1
	var g *rangeNode
	switch key := key.(type) {
	case *fieldNode:
		if m.scaled != nil && !m.scaled[key.Name] {
			return 1
		}
		g = key.Value.Range
	case *lengthNode:
		g = key.Range
	}
	var most int64
	ofNames := false
	if g != nil {
		var ok bool
		most, ok = constant(g.High)
		ofNames = !ok
	}
	switch {
	case ofNames:
		return room
	case m.alike > 0:
		return min(room, m.alike*m.widened(key))
	case g == nil:
		return m.Size.of(room)
	}
	return min(room, m.Size.of(uint64(max(most, high)-low)+1))
}

// widened is how many times as many edges there may be as vertices, where counts are bounded alike: with as many there
// is hardly ever more than one cycle.
func (m *maker) widened(key any) uint64 {
	if f, ok := key.(*fieldNode); ok && f.edgesOf != nil {
		return 2
	}
	return 1
}

// enough reports that there are not so many different integers, where they must be.
func (v *valueNode) enough(n int, low, high int64) *unmet {
	if n == 0 || !v.unlike() || uint64(n-1) <= uint64(high)-uint64(low) {
		return nil
	}
	return &unmet{pos: v.Pos, text: fmt.Sprintf("%d different values of %d", n, uint64(high)-uint64(low)+1), hopeless: true}
}

// bounds are those of integers.
func (v *valueNode) bounds(f *frame) (low, high int64) {
	if v.Range == nil {
		return -1 << 63, 1<<63 - 1
	}
	return v.Range.Low.eval(f), v.Range.High.eval(f)
}

// numbers fills integers by a style, as far as their order may be chosen.
func (m *maker) numbers(field *fieldNode, f *frame, a []int64, v interval) {
	value := field.Value
	if len(value.Dims) == 0 && !field.ofEdges {
		name := m.style(field, numberNames)
		m.relate(&v, name, field, f)
		styleNamed(numberStyles, name)(m.random, a, v)
		return
	}
	name := m.style(field, field.styles)
	m.relate(&v, name, field, f)
	s := styleNamed(arrayStyles, name)
	if value.unlike() {
		distinct(m.random, a, v, s)
	} else {
		s.fill(m.random, a, v)
	}
	value.order(a)
}

// unlike reports that no two elements are alike.
func (v *valueNode) unlike() bool { return v.Distinct || v.Rising || v.Falling }

// order puts elements into the order that is asked for.
func (v *valueNode) order(a []int64) {
	if v.inOrder() {
		slices.Sort(a)
	}
	if v.Falling {
		slices.Reverse(a)
	}
}

// integer draws a single integer with all that is asked of it and known already.
func (m *maker) integer(field *fieldNode, f *frame) *unmet {
	v, d := field.Value, &f.data[field.slot]
	low, high := v.bounds(f)
	d.count = 1
	if low > high {
		return &unmet{pos: v.Range.Pos, text: "an integer in " + v.Range.shown(low, high), hopeless: true}
	}
	x, wrong := m.chosen(field, f, low, high)
	if wrong == nil {
		d.ints = []int64{x}
	}
	return wrong
}

// chosen is a value of a range that holds: the one that is asked for, that of a column, or one that is drawn.
func (m *maker) chosen(field *fieldNode, f *frame, first, last int64) (int64, *unmet) {
	if x, ok := m.nearest(field, f, first, last); ok {
		return x, nil
	}
	low, high := m.narrowed(field, f, first, last)
	if low > high {
		if x, ok := m.scattered(field, f, first, last); ok {
			return x, nil
		}
		return 0, m.unmetBy(field, f)
	}
	if x, ok := m.fromColumn(field, f, low, high); ok {
		return x, nil
	}
	if low, high = m.inTurn(field, f, low, high); low > high {
		return 0, &unmet{pos: field.Value.Pos, text: "a value of " + orThis(field.Name) + " that follows those before it in its column"}
	}
	if x, ok := m.drawn(field, f, low, high); ok {
		return x, nil
	}
	return 0, m.unmetBy(field, f)
}

// drawn draws a value by the style of a field, then any, and looks in the end through those at both ends.
func (m *maker) drawn(field *fieldNode, f *frame, low, high int64) (int64, bool) {
	fits := func(x int64) bool {
		return x >= low && x <= high && !m.taken(field, f, x) && m.feasible(field, f, x)
	}
	for tries := range 60 {
		x := int64(0)
		if tries < 20 {
			x = m.styled(field, f, low, high)
		} else {
			m.lose(field)
			x = m.between(low, high)
		}
		if fits(x) {
			return x, true
		}
	}
	for step := range int64(1000) {
		for _, x := range []int64{low + step, high - step} {
			if fits(x) {
				return x, true
			}
		}
	}
	return 0, false
}

// styled draws a value by the style of a field.
func (m *maker) styled(field *fieldNode, f *frame, low, high int64) int64 {
	if field.counts {
		return m.count(field, low, high, m.wish(field, f))
	}
	low, high = m.grown(field, low, high)
	if field.chained && m.around != nil { // room for those to come
		high = low + int64(uint64(high-low)/uint64(max(1, m.bodiesLeft)))
	}
	one := []int64{0}
	m.numbers(field, f, one, m.fewFor(field, 1, interval{low: low, high: high}))
	return one[0]
}

// grown is the part of a range, at the size of the input, for a value that follows the size although it is no length.
func (m *maker) grown(field *fieldNode, low, high int64) (from, to int64) {
	most, ok := constant(field.Value.highEnd())
	exactly := m.Exact && m.scaled[field.Name]
	if !ok || m.plan[field] != "" || !exactly && !field.indexed && (!field.grows || m.alike > 0) {
		return low, high
	}
	room := m.Size.of(uint64(max(most, high)-low) + 1)
	if m.alike > 0 {
		room = m.alike
	}
	to = low + int64(min(room-1, uint64(high-low)))
	if exactly {
		return to, to
	}
	return low, to
}

// fromColumn takes a value from what was generated for all bodies of a repeat.
func (m *maker) fromColumn(field *fieldNode, f *frame, low, high int64) (int64, bool) {
	c, ok := m.columns[field]
	if ok && c.strict {
		c.at = int(f.at)
	}
	if !ok || c.at >= len(c.values) || m.plain > 0 && !c.strict {
		return 0, false
	}
	x := c.values[c.at]
	c.at++
	m.columns[field] = c
	return x, low <= x && x <= high && m.feasible(field, f, x)
}

// wish is the number of edges that the style of a graph has by itself; -1 if a
// field is not that number, or there is none.
func (m *maker) wish(field *fieldNode, f *frame) int64 {
	g := field.edgesOf
	if g == nil {
		return -1
	}
	n, wrong := evaluated(g.Value.Args[0], f)
	if wrong != nil {
		return -1
	}
	name := m.style(g, g.styles)
	m.promised[g] = name
	return styleNamed(graphStyles, name).edges(n)
}

func (m *maker) tree(field *fieldNode, d *datum, n int64) {
	v := field.Value
	m.spend(v.Pos, 2*max(0, n))
	name := m.style(field, field.styles)
	edges := styleNamed(treeStyles, name)(m.random, int(max(0, n)))
	d.count = max(0, n-1)
	if v.Base == typeTree {
		d.ints = labelled(m.random, edges, int(n), v.From, name, false)
		return
	}
	switch name {
	case "uniform", "attached", "caterpillar":
		edges = relabelled(edges, m.permutation(int(n)))
	case pathAgainst:
		edges = relabelled(edges, vertexNumbers(m.random, int(n), name))
	}
	d.ints = parentsOf(edges, int(n))
	for i := range d.ints {
		d.ints[i] += v.From
	}
}

// relabelled gives the vertices of some edges other numbers.
func relabelled(edges, labels []int32) []int32 {
	for i, v := range edges {
		edges[i] = labels[v]
	}
	return edges
}

// parentsOf are the parents of the vertices 1 to n - 1 of a tree whose root is 0.
func parentsOf(edges []int32, n int) []int64 {
	start := make([]int32, n+1)
	for _, v := range edges {
		start[v+1]++
	}
	for i := range n {
		start[i+1] += start[i]
	}
	next, at := make([]int32, len(edges)), slices.Clone(start)
	for i, v := range edges {
		next[at[v]] = edges[i^1]
		at[v]++
	}
	parents := make([]int64, max(0, n-1))
	waiting := make([]int32, 1, max(1, n))
	for i := 0; i < len(waiting) && n > 0; i++ {
		v := waiting[i]
		for _, w := range next[start[v]:start[v+1]] {
			if w != 0 && (v == 0 || int64(w) != parents[v-1]) {
				parents[w-1] = int64(v)
				waiting = append(waiting, w)
			}
		}
	}
	return parents
}

func (m *maker) grid(field *fieldNode, d *datum, rows, columns int64) {
	v := field.Value
	if rows < 0 || columns < 0 || columns > 0 && rows > mostValues/columns || rows > mostValues {
		m.spend(v.Pos, mostValues+1)
	}
	m.spend(v.Pos, rows*columns)
	cells := make([]int32, rows*columns)
	if len(cells) > 0 {
		styleNamed(gridStyles, m.style(field, field.styles))(m.random, cells, int(columns), len(v.Set.Runes))
	}
	for i := range rows {
		d.texts = append(d.texts, v.Set.spelled(cells[i*columns:(i+1)*columns]))
	}
	d.count = rows
}

// spelled are characters of a set by their indices.
func (s *charSet) spelled(indices []int32) string {
	text := make([]byte, 0, len(indices))
	if s.only {
		for _, i := range indices {
			text = append(text, byte(s.Runes[i]))
		}
		return string(text)
	}
	for _, i := range indices {
		text = append(text, string(s.Runes[i])...)
	}
	return string(text)
}
