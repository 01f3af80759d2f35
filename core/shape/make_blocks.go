package shape

import (
	"slices"
	"strconv"
	"strings"
)

// A casesStyle says how many cases there are and how what they share is divided.
type casesStyle struct {
	count func(m *maker, low, high int64) int64
	// part says how large a case is.
	part func(m *maker, i, count, large int64) part
}

// A part is how large a case is beside the others.
type part int

const (
	even   part = iota // its share of what is left
	anyOf              // any part of what is left
	all                // all that the others leave
	little             // as small as may be, or nearly
	same               // a copy of the case before
)

// atMost bounds a count of cases.
func atMost(n int64) func(*maker, int64, int64) int64 {
	return func(_ *maker, low, high int64) int64 { return max(low, min(n, high)) }
}

// most is as many cases as the size allows; in an edge case, as many as there may be.
func most(m *maker, low, high int64) int64 {
	if m.plan != nil {
		return high
	}
	return bySize(m, low, high)
}

// bySize draws a count of cases as any other count.
func bySize(m *maker, low, high int64) int64 { return m.count(nil, low, high, -1) }

var casesStyles = []style[casesStyle]{
	{"one", true, casesStyle{atMost(1), func(*maker, int64, int64, int64) part { return all }}},
	{"two-alike", true, casesStyle{atMost(2), func(_ *maker, i, _, _ int64) part {
		if i == 0 {
			return even
		}
		return same
	}}},
	{"many-alike", true, casesStyle{most, func(_ *maker, i, _, _ int64) part {
		if i == 0 {
			return even
		}
		return same
	}}},
	{"many-tiny", true, casesStyle{most, func(*maker, int64, int64, int64) part { return little }}},
	{"large-among-tiny", true, casesStyle{func(m *maker, low, high int64) int64 {
		return atMost(3+int64(m.index(20)))(m, low, high)
	}, func(_ *maker, i, _, large int64) part {
		if i == large {
			return all
		}
		return little
	}}},
	{"large-then-small", true, casesStyle{atMost(2), func(_ *maker, i, _, _ int64) part {
		if i == 0 {
			return all
		}
		return little
	}}},
	{"uneven", false, casesStyle{bySize, func(*maker, int64, int64, int64) part { return anyOf }}},
	{"even", false, casesStyle{bySize, func(*maker, int64, int64, int64) part { return even }}},
}

// costOfBody is how many values a body counts for, beside those in it; one that lies
// deeper counts for more.
const costOfBody = 5

func (m *maker) costOf(bodies int64) int64 { return bodies * costOfBody * int64(1+m.depth) }

// largeCases are the styles of cases that are large together.
var largeCases = []string{"one", "large-among-tiny", "large-then-small", "uneven", "even"}

// inside makes bodies, in half of the draws with the same styles in all of them.
func (m *maker) inside(do func() *unmet) *unmet {
	outer := m.fixed
	if outer == nil && m.oneIn(2) {
		m.fixed = map[any]string{}
	}
	m.depth++
	defer func() { m.fixed, m.depth = outer, m.depth-1 }()
	return do()
}

// cases makes a count and its cases. What they may add to each total is divided
// among them: first everyone gets the least that a case adds.
func (m *maker) cases(item *casesNode, f *frame) *unmet {
	least, wrong := m.leastOf(item, f)
	if wrong != nil {
		return wrong
	}
	d := &f.data[item.Count.slot]
	d.count = 1
	low, high := item.Count.Value.bounds(f)
	low, high = m.narrowed(item.Count, f, low, high)
	if low > high {
		return m.unmetBy(item.Count, f)
	}
	left := make([]int64, len(item.Totals))
	for k, t := range item.Totals {
		left[k] = t.Bound.eval(f)
		if least[k] > 0 {
			high = min(high, left[k]/least[k])
		}
		if low > high || low > 0 && least[k] > left[k] {
			return &unmet{pos: t.Pos, text: "total " + t.Left.String() + " <= " + t.Bound.String(), hopeless: true,
				now: ": the smallest case adds " + strconv.FormatInt(least[k], 10) + ", there are " + strconv.FormatInt(low, 10) + " cases at the least, and the bound is " + strconv.FormatInt(left[k], 10)}
		}
	}
	names := casesNames
	if m.Size == Largest && m.plan == nil && !slices.Contains(names, m.Style) {
		names = largeCases
	}
	name := casesNames[0] // one
	if !m.OneCase || m.depth > 0 {
		name = m.style(item, names)
	}
	s := styleNamed(casesStyles, name)
	high = max(low, min(high, m.room/costOfBody))
	count := s.count(m, low, high)
	if x, ok := m.nearest(item.Count, f, low, high); ok {
		count = x
	}
	m.spend(item.Pos, 1+m.costOf(count))
	d.ints = []int64{count}
	return m.inside(func() *unmet { return m.bodies(item, f, s, count, left, least) })
}

// leastOf returns what the smallest case adds to each total, so far as can be seen
// by making it.
func (m *maker) leastOf(item *casesNode, f *frame) ([]int64, *unmet) {
	least := make([]int64, len(item.Totals))
	if len(least) == 0 {
		return least, nil
	}
	small := smallMaker(m.shape)
	f.data[item.Count.slot].ints = []int64{1}
	defer func() { f.data[item.Count.slot].ints = nil }()
	body, wrong := small.body(item.body, item.Items, f, nil)
	if wrong != nil {
		return nil, wrong
	}
	for k, t := range item.Totals {
		least[k] = max(0, t.Left.eval(body))
	}
	return least, nil
}

// smallMaker makes the smallest that is valid, or nearly.
func smallMaker(s *Shape) *maker {
	return &maker{Making: Making{Exact: true}, shape: s, random: newRandom(0), room: mostValues, promised: map[*fieldNode]string{}, least: true}
}

func (m *maker) bodies(item *casesNode, f *frame, s casesStyle, count int64, left, least []int64) *unmet {
	room, tiny := m.room, m.tiny
	defer func() { m.room, m.tiny = room, tiny }()
	d := &f.data[item.Count.slot]
	large := int64(0)
	if count > 0 {
		large = m.between(0, count-1)
	}
	share := room
	if len(item.Totals) == 0 {
		share = max(1, room/max(1, count)/4)
	}
	for i := range count {
		after := count - i - 1
		how := s.part(m, i, count, large)
		if how == same && i > 0 && m.again(item, d.bodies[i-1], left) {
			d.bodies = append(d.bodies, d.bodies[i-1].clone(f))
			continue
		}
		allowed := make([]int64, len(left))
		for k := range left {
			free := left[k] - (after+1)*least[k] // beyond what everyone gets
			switch how {
			case all:
			case anyOf:
				free = m.magnitude(0, free)
				if after == 0 {
					free = left[k] - least[k]
				}
			case little:
				free = min(free, 2)
			default:
				free /= after + 1
			}
			allowed[k] = least[k] + free
		}
		m.tiny = tiny || how == little
		if m.room = share; how == all {
			m.room = room - min(room/2, 4*count)
		}
		body, wrong := m.body(item.body, item.Items, f, allowed)
		if wrong != nil {
			return wrong
		}
		for k, t := range item.Totals {
			left[k] -= max(0, t.Left.eval(body))
		}
		d.bodies = append(d.bodies, body)
	}
	return nil
}

// again takes what a copy of a case adds out of what is left, if that is enough.
func (m *maker) again(item *casesNode, body *frame, left []int64) bool {
	for k, t := range item.Totals {
		if t.Left.eval(body) > left[k] {
			return false
		}
	}
	for k, t := range item.Totals {
		left[k] -= max(0, t.Left.eval(body))
	}
	return true
}

func (m *maker) repeat(item *repeatNode, f *frame) *unmet {
	n := m.length(item.Count, f, nil)
	m.spend(item.Pos, m.costOf(min(n, mostValues)))
	outer := *m
	defer func() {
		m.room, m.columns, m.lost, m.around, m.bodiesLeft = outer.room, outer.columns, outer.lost, outer.around, outer.bodiesLeft
	}()
	m.lost = map[branchOf]int{}
	m.room = max(1, m.room/max(1, n))
	m.around = item
	m.columnsOf(item, f, n)
	if wrong := m.planned(item, f, n); wrong != nil {
		return wrong
	}
	share, wrong := m.shareOut(item, f, n)
	if wrong != nil {
		return wrong
	}
	item.forget(f)
	seen := map[string]bool{}
	d := &f.data[item.slot]
	wrong = m.inside(func() *unmet {
		for i := range n {
			m.at, m.bodiesLeft = i, n-i
			body, wrong := m.oneOf(item, f, share.next(m, n-i-1), seen)
			if wrong != nil {
				return wrong
			}
			share.take(item.Totals, body)
			item.gather(f, body)
			d.bodies = append(d.bodies, body)
		}
		return nil
	})
	if wrong == nil {
		wrong = item.columnsHold(f)
	}
	return wrong
}

// A share is what the bodies of a repeat may add to each total.
type share struct {
	left, least []int64
	even        bool // each gets its part of what is left; otherwise any
}

// shareOut divides totals among the bodies of a repeat; nil where there are none.
func (m *maker) shareOut(item *repeatNode, f *frame, n int64) (*share, *unmet) {
	if len(item.Totals) == 0 {
		return nil, nil
	}
	s := &share{even: m.oneIn(2)}
	small := smallMaker(m.shape)
	small.around, small.bodiesLeft = item, 1
	item.forget(f)
	body, wrong := small.body(item.body, item.Items, f, nil)
	if wrong != nil {
		return nil, wrong
	}
	for _, t := range item.Totals {
		bound, least := t.Bound.eval(f), max(0, t.Left.eval(body))
		if least > 0 && n > bound/least {
			return nil, &unmet{pos: t.Pos, text: "total " + t.Left.String() + " <= " + t.Bound.String(),
				now: ": the smallest body adds " + strconv.FormatInt(least, 10) + ", there are " + strconv.FormatInt(n, 10) + ", and the bound is " + strconv.FormatInt(bound, 10)}
		}
		s.left, s.least = append(s.left, bound), append(s.least, least)
	}
	return s, nil
}

// next is what the next body may add, when so many come after it.
func (s *share) next(m *maker, after int64) (allowed []int64) {
	if s == nil {
		return nil
	}
	for k, left := range s.left {
		free := max(0, left-(after+1)*s.least[k]) // beyond what everyone gets
		if s.even {
			free /= after + 1
		} else {
			free = m.magnitude(0, free)
		}
		allowed = append(allowed, s.least[k]+free)
	}
	return allowed
}

// take takes what a body adds from what is left.
func (s *share) take(totals []*totalNode, body *frame) {
	for k, t := range totals {
		s.left[k] -= max(0, t.Left.eval(body))
	}
}

// oneOf makes one body of a repeat, which may have to differ from all others and
// from the line at the end.
func (m *maker) oneOf(item *repeatNode, f *frame, allowed []int64, seen map[string]bool) (*frame, *unmet) {
	if !item.Distinct && !item.HasUntil {
		return m.body(item.body, item.Items, f, allowed)
	}
	for range mostDraws {
		body, wrong := m.body(item.body, item.Items, f, allowed)
		if wrong != nil {
			return nil, wrong
		}
		w := &writer{}
		w.items(item.Items, body)
		text := string(w.text)
		if line, _, _ := strings.Cut(text, "\n"); item.HasUntil && line == item.Until || item.Distinct && seen[text] {
			continue
		}
		seen[text] = item.Distinct
		return body, nil
	}
	why := "a body that is not the line " + item.Until
	if item.Distinct {
		why = "another body that differs from all before"
	}
	return nil, &unmet{pos: item.Pos, text: why, hopeless: true}
}

// columnsOf makes what the fields on the lines of a repeat hold in all its bodies
// together, as arrays are generated, where that does not depend on the body.
func (m *maker) columnsOf(item *repeatNode, f *frame, n int64) {
	columns := map[*fieldNode]column{}
	for field, c := range m.columns {
		columns[field] = c
	}
	m.columns = columns
	body := newFrame(item.body, f)
	for _, i := range item.Items {
		line, ok := i.(*lineNode)
		if !ok {
			continue
		}
		for _, field := range line.Fields {
			if field.Value == nil || !field.single() || field.counts || m.plain > 0 || m.plan == nil && m.oneIn(2) {
				continue
			}
			if v := field.Value; len(v.But) > 0 || v.Distinct || v.inOrder() || field.chained || slices.ContainsFunc(v.expressions(), usesPosition) {
				continue
			}
			low, wrong := evaluated(field.Value.lowEnd(), body)
			high, wrong2 := evaluated(field.Value.highEnd(), body)
			if wrong != nil || wrong2 != nil || low > high {
				continue
			}
			values := make([]int64, n)
			name, v := m.style(field, arrayNames), m.fewOf(interval{low: low, high: high}, false)
			m.relate(&v, name, field, body)
			styleNamed(arrayStyles, name).fill(m.random, values, v)
			columns[field] = column{values: values}
		}
	}
}

// either makes a branch: any, or as its style says always the same one. One that
// cannot be generated here gives way to another.
func (m *maker) either(item *eitherNode, f *frame) *unmet {
	d := &f.data[item.slot]
	order := m.permutation(len(item.Branches))
	if only, err := strconv.Atoi(strings.TrimPrefix(m.style(item, item.styles), "only-")); err == nil {
		order = append([]int32{int32(only - 1)}, order...)
	} else if heavy := slices.Max(item.weights); heavy > 1 {
		order = append([]int32{m.weighted(item.weights)}, order...)
	}
	var wrong *unmet
	for at, i := range order {
		key := branchOf{item, i}
		if m.lost[key] > 2 && at < len(order)-1 { // hardly ever
			continue
		}
		var body *frame
		if body, wrong = m.body(item.bodies[i], item.Branches[i], f, nil); wrong != nil {
			if m.lost != nil {
				m.lost[key]++
			}
			continue
		}
		delete(m.lost, key)
		if item.ambiguous && !item.tells(body, int(i)) {
			wrong = &unmet{pos: item.Pos, text: "a branch that is not taken for another"}
			continue
		}
		d.count, d.bodies = int64(i), []*frame{body}
		return nil
	}
	return wrong
}

// weighted chooses one of some branches by their weights.
func (m *maker) weighted(weights []int64) (branch int32) {
	sum := int64(0)
	for _, w := range weights {
		sum += w
	}
	at := m.between(1, sum)
	for i, w := range weights {
		if at -= w; at <= 0 {
			return int32(i)
		}
	}
	return 0
}

// branchStyles are to make one branch only, or any.
func branchStyles(item *eitherNode) (names []string) {
	for i := range item.Branches {
		names = append(names, "only-"+strconv.Itoa(i+1))
	}
	return append(names, "mixed")
}

// tells reports that a body would be read as the branch that it is.
func (e *eitherNode) tells(body *frame, branch int) bool {
	w := &writer{}
	w.items(e.Branches[branch], body)
	line, _, _ := strings.Cut(string(w.text), "\n")
	words := strings.Fields(line)
	if len(words) == 0 {
		return e.branch("", 0) == branch
	}
	return e.branch(words[0], len(words)) == branch
}
