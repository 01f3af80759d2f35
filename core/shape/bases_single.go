package shape

import (
	"math"
	"slices"
	"strconv"
	"strings"
)

// The bases of single values.

type intBase struct{ element }

func (intBase) word() string                     { return "int" }
func (intBase) traits() traits                   { return traits{integers: true, element: true, bare: true} }
func (intBase) parse(*parser, *valueNode)        {}
func (intBase) types(*valueNode) ([]string, int) { return []string{"int", "long", "bigint"}, 0 }

func (b intBase) styles(f *fieldNode, edge bool) []string {
	switch {
	case f.ofEdges:
		return f.Value.fitting(styleNames(arrayStyles, edge))
	case f.counts && len(f.Value.Dims) == 0:
		return countStyles
	case f.Value.points():
		return nil
	}
	return b.element.styles(f, edge)
}

func (intBase) reader(r *valueReader, in *frame) {
	g := r.field.Value.Range
	if r.in, r.differ = in, r.field.Value.changing(); g == nil || r.differ {
		return
	}
	r.low, r.high = g.Low.eval(in), g.High.eval(in)
	if r.low > r.high {
		r.nth++
		r.fault(r.field.Name, "no integer lies in %d..%d (%s)", r.low, r.high, g.text)
	}
}

func (intBase) one(r *valueReader, d *datum, index int64) {
	if pad := r.field.Value.Pad; pad > 0 {
		r.took(d, r.padded(pad), index)
		return
	}
	r.took(d, r.integer(r.called), index)
}

// took looks at an integer that was read, and keeps it.
func (r *valueReader) took(d *datum, n, index int64) {
	v := r.field.Value
	switch {
	case (v.Symmetric || v.Diagonal != nil) && r.columns > 0 && r.mirrored(d, n):
	case index >= 0 && len(v.Dims) == 1 && (r.differ || len(v.But) > 0):
		r.in.atElement(index, func() { r.inspect(n) })
	default:
		r.inspect(n)
	}
	if r.keeps {
		d.ints = append(d.ints, n)
	}
	if index < 0 {
		d.count = 1
	}
}

// inspect looks at an integer by the bounds of its field.
func (r *valueReader) inspect(n int64) {
	v := r.field.Value
	if r.differ {
		r.low, r.high = v.bounds(r.in)
	}
	if n < r.low || n > r.high {
		r.fault(r.name(), "%s is %d, outside %s", orThis(r.name()), n, v.Range.shown(r.low, r.high))
	}
	if len(v.But) == 0 {
		return
	}
	if r.out == nil || r.differ {
		r.out = newExclusions(v, r.in, len(v.Dims)*manyLooks)
	}
	if by, out := r.out.has(n); out {
		r.fault(r.name(), "%s is %d, which it must not be: but %s", orThis(r.name()), n, by)
	}
}

func (b intBase) generate(m *maker, f *fieldNode, d *datum, in *frame) *unmet {
	if len(f.Value.Dims) > 0 {
		return b.element.generate(m, f, d, in)
	}
	m.spend(f.Value.Pos, 1)
	return m.integer(f, in)
}

func (intBase) fill(m *maker, f *fieldNode, d *datum, in *frame, n int) *unmet {
	v := f.Value
	if len(v.Dims) == 1 && (v.changing() || len(v.But) > 0) {
		d.ints = make([]int64, n)
		return m.changingNumbers(f, in, d.ints)
	}
	low, high := v.bounds(in)
	if low > high && n > 0 {
		return &unmet{pos: v.Range.Pos, text: "an integer in " + v.Range.shown(low, high), hopeless: true}
	}
	if v.DistinctBut != nil {
		d.ints = make([]int64, n)
		return m.distinctNumbers(f, in, d.ints, low, high)
	}
	if f.summed > 0 && in.allowed != nil && n > 0 { // none is more than its share
		high = max(low, min(high, in.allowed[f.summed-1]/int64(n)))
	}
	alike := n // must differ from each other
	if v.ByRow {
		alike = n / int(max(1, d.count))
	}
	if v.points() {
		var wrong *unmet
		d.ints, wrong = m.points(v, n/2, low, high)
		return wrong
	}
	if wrong := v.enough(alike, low, high); wrong != nil {
		return wrong
	}
	d.ints = make([]int64, n)
	if v.ByRow {
		for i := range int(d.count) {
			row := d.row(i)
			m.numbers(f, in, row, m.fewFor(f, len(row), interval{low: low, high: high}))
		}
		return nil
	}
	m.numbers(f, in, d.ints, m.fewFor(f, n, interval{low: low, high: high}))
	v.mirror(d.ints, in)
	return nil
}

func (b intBase) cut(c *cut, f *fieldNode, old, now *frame) bool {
	v := f.Value
	if len(v.Dims) == 0 && f.counts {
		return true
	}
	if !b.element.cut(c, f, old, now) {
		return false
	}
	if (len(v.Dims) == 0 || v.Dims[0].Exact != nil) && !slices.ContainsFunc(v.expressions(), usesPosition) {
		c.labels(v, &now.data[f.slot], old, now)
	}
	return true
}

func (intBase) weigh(*weight, *valueNode, string) {}

func (intBase) simplify(c cursor) {
	simple, ok := c.field.simplest(c.at.in(c.k.best))
	if !ok {
		return
	}
	c.setParts(func() int { return len(c.ints()) }, func(d *datum, i, j int) bool {
		return changed(d.ints[i:j], func(int64) int64 { return simple })
	})
	for i := 0; i < len(c.ints()) && c.k.going(); i++ {
		c.lower(i, simple)
	}
}

func (intBase) explain(e *explainer, f *fieldNode, name string) string { return name + e.numbers(f) }

type realBase struct{ element }

func (realBase) word() string                     { return "real" }
func (realBase) traits() traits                   { return traits{element: true, bare: true} }
func (realBase) parse(*parser, *valueNode)        {}
func (realBase) types(*valueNode) ([]string, int) { return []string{"real"}, 0 }

func (realBase) reader(r *valueReader, in *frame) {
	g := r.field.Value.Range
	r.real = [2]float64{math.Inf(-1), math.Inf(1)}
	if g == nil {
		return
	}
	for i, end := range []exprNode{g.Low, g.High} {
		var ok bool
		if r.real[i], ok = decimalOf(end, in); !ok {
			fail(end.place(), "%s has no value", end)
		}
	}
}

func (realBase) one(r *valueReader, d *datum, _ int64) { r.keep(d, r.decimal()) }

func (realBase) fill(m *maker, f *fieldNode, d *datum, in *frame, n int) *unmet {
	return m.reals(f, d, in, n)
}

func (realBase) weigh(w *weight, _ *valueNode, text string) {
	w.add(uint64(len(text)))
	for _, c := range text {
		w.add(truthU(c > '0' && c <= '9') * uint64(c-'0'))
	}
}

// simplify takes digits off.
func (realBase) simplify(c cursor) {
	for i := 0; i < len(c.texts()) && c.k.going(); i++ {
		for digit := 0; digit < len(c.texts()[i]); digit++ {
			c.set(func(d *datum) bool {
				text := []byte(d.texts[i])
				if digit >= len(text) || text[digit] == '0' || text[digit] == '.' {
					return false
				}
				if text[digit] == '-' {
					text = text[1:]
				} else {
					text[digit] = '0'
				}
				d.texts[i] = withoutZeros(string(text))
				return true
			})
		}
	}
}

func (realBase) explain(e *explainer, f *fieldNode, name string) string { return name + e.numbers(f) }

type pickBase struct{ element }

func (pickBase) word() string   { return "pick" }
func (pickBase) traits() traits { return traits{element: true} }

func (pickBase) parse(p *parser, v *valueNode) {
	for more := true; more; more = p.take(",") {
		pos := p.now.pos
		one := p.literal()
		if slices.Contains(v.Picks, one) {
			p.fatal(pos, "%s stands here twice", one)
		}
		v.Picks = append(v.Picks, one)
	}
}

func (pickBase) types(*valueNode) ([]string, int) {
	return []string{"text", "int", "long", "bool", "char"}, 0
}

func (pickBase) reader(r *valueReader, in *frame) {
	if g := r.field.Value.Range; g != nil {
		r.low, r.high = g.Low.eval(in), g.High.eval(in)
	}
}

func (pickBase) one(r *valueReader, d *datum, _ int64) {
	r.picked(d, string(r.token()))
}

// picked looks at a token that was read, and keeps it.
func (r *valueReader) picked(d *datum, word string) {
	v := r.field.Value
	if !slices.Contains(v.Picks, word) {
		switch n, ok := v.number(word); {
		case !ok:
			r.fault(r.name(), "%s is %s, and none of %s", orThis(r.name()), shown(word, r.scanner), v.picks())
		case n < r.low || n > r.high:
			r.fault(r.name(), "%s is %d, outside %s, and none of %s", orThis(r.name()), n, v.Range.shown(r.low, r.high), strings.Join(v.Picks, ", "))
		}
	}
	r.keep(d, word)
}

// number is an integer that may stand in the place of the tokens of a value, as it is written.
func (v *valueNode) number(word string) (n int64, ok bool) {
	n, err := strconv.ParseInt(word, 10, 64)
	return n, v.Range != nil && err == nil && word == strconv.FormatInt(n, 10)
}

// picks are the tokens of which a value is one, in words.
func (v *valueNode) picks() string {
	words := strings.Join(v.Picks, ", ")
	if v.Range != nil {
		words += ", or an integer " + v.Range.text
	}
	return words
}

func (pickBase) fill(m *maker, f *fieldNode, d *datum, in *frame, n int) *unmet {
	v := f.Value
	if v.Range != nil {
		return m.picksAndNumbers(f, d, in, n)
	}
	last := int64(len(v.Picks)) - 1
	if wrong := v.enough(n, 0, last); wrong != nil {
		return wrong
	}
	chosen := make([]int64, n)
	m.numbers(f, in, chosen, interval{high: last})
	for _, i := range chosen {
		d.texts = append(d.texts, v.Picks[i])
	}
	return nil
}

// picksAndNumbers chooses tokens and integers, as many of these as of one token or two.
func (m *maker) picksAndNumbers(f *fieldNode, d *datum, in *frame, n int) *unmet {
	v := f.Value
	low, high := v.bounds(in)
	if low > high && n > 0 {
		return &unmet{pos: v.Range.Pos, text: "an integer in " + v.Range.shown(low, high), hopeless: true}
	}
	tokens := make([]int, n) // which token each is; past them: an integer
	for i := range tokens {
		tokens[i] = m.index(len(v.Picks) + 1 + len(v.Picks)/2)
	}
	if v.unlike() { // each token once, and as many as are needed where the integers are too few
		least := 0
		if room := uint64(high) - uint64(low); uint64(n) > room+1 && room < 1<<62 {
			least = n - int(room) - 1
		}
		if least > len(v.Picks) {
			return &unmet{pos: v.Pos, text: strconv.Itoa(n) + " distinct ones of these", hopeless: true}
		}
		for i := range tokens {
			tokens[i] = len(v.Picks)
		}
		for i, token := range m.permutation(len(v.Picks))[:min(n, least+m.index(len(v.Picks)-least+1))] {
			tokens[i] = int(token)
		}
		shuffle(m.random, tokens)
	}
	count := 0
	for _, i := range tokens {
		count += truthOf(i >= len(v.Picks))
	}
	numbers := make([]int64, count)
	m.numbers(f, in, numbers, m.fewFor(f, count, interval{low: low, high: high}))
	for _, i := range tokens {
		if i < len(v.Picks) {
			d.texts = append(d.texts, v.Picks[i])
			continue
		}
		d.texts = append(d.texts, strconv.FormatInt(numbers[0], 10))
		numbers = numbers[1:]
	}
	return nil
}

func (pickBase) weigh(w *weight, v *valueNode, text string) {
	if n, ok := v.number(text); ok && !slices.Contains(v.Picks, text) {
		w.add(uint64(len(v.Picks)))
		w.add(uint64(max(n, -n)))
		return
	}
	w.add(uint64(slices.Index(v.Picks, text)))
}

func (pickBase) simplify(c cursor) {
	c.setParts(func() int { return len(c.texts()) }, func(d *datum, i, j int) bool {
		return changed(d.texts[i:j], func(string) string { return c.field.Value.Picks[0] })
	})
	if g := c.field.Value.Range; g != nil {
		c.setParts(func() int { return len(c.texts()) }, func(d *datum, i, j int) bool {
			low, high := c.field.Value.bounds(c.at.in(c.k.best))
			return changed(d.texts[i:j], func(text string) string {
				if slices.Contains(c.field.Value.Picks, text) {
					return text
				}
				return strconv.FormatInt(min(max(0, low), high), 10)
			})
		})
	}
}

func (pickBase) explain(e *explainer, f *fieldNode, name string) string {
	picks := f.Value.picks()
	return name + e.many(f.Value, "one of "+picks, "each one of "+picks)
}

// characters is what bases of characters of a set have in common.
type characters struct{ element }

func (characters) parse(p *parser, v *valueNode) {
	v.Length = p.length()
	p.expect(",", "and a set of characters behind the length")
	v.Set = p.set()
}

func (characters) types(v *valueNode) (of []string, arrays int) {
	of = []string{"text"}
	if v.Length != nil && v.Length.Exact != nil {
		if n, ok := constant(v.Length.Exact); ok && n == 1 {
			of = append(of, "char")
		}
	}
	return of, 0
}

func (characters) styles(f *fieldNode, edge bool) []string {
	if f.text == nil {
		return styleNames(wordStyles, edge)
	}
	return append(slices.Clone(partStyles), styleNames(wordStyles, edge)...)
}

func (characters) reader(r *valueReader, in *frame) {
	r.length = r.bounds(r.field.Value.Length, in)
}

func (characters) fill(m *maker, f *fieldNode, d *datum, in *frame, n int) *unmet {
	return m.words(f, d, in, n)
}

func (characters) weigh(w *weight, v *valueNode, text string) { w.characters(v.Set, text) }

func (characters) simplify(c cursor) { c.simplifyCharacters() }

func (characters) explain(e *explainer, f *fieldNode, name string) string {
	v := f.Value
	what := v.Base.String() + " of " + e.lengthWords(v.Length) + " characters of " + v.Set.Text
	switch {
	case v.Balanced:
		what += ", with balanced brackets"
	case v.Palindrome:
		what += ", a palindrome"
	}
	return name + e.many(v, "a "+what, what)
}

type tokenBase struct{ characters }

func (tokenBase) word() string   { return "token" }
func (tokenBase) traits() traits { return traits{element: true} }

func (b tokenBase) parse(p *parser, v *valueNode) {
	b.characters.parse(p, v)
	if p.s.takes == nil && v.Set.Has(' ') {
		p.fatal(v.Set.at, "a token has no blank in it; write text, which goes to the end of the line")
	}
}

func (tokenBase) one(r *valueReader, d *datum, _ int64) { r.characters(d, r.token()) }

type textBase struct{ characters }

func (textBase) word() string                          { return "text" }
func (textBase) traits() traits                        { return traits{element: true, toEnd: true} }
func (textBase) one(r *valueReader, d *datum, _ int64) { r.characters(d, r.rest()) }
