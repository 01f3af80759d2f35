package shape

import (
	"cmp"
	"slices"
	"strconv"
	"strings"
	"unicode/utf8"
)

// The bases of tokens that are neither characters of a set nor a choice of the shape's: integers of any length, and
// values that stood before.

type digitsBase struct{ characters }

func (digitsBase) word() string   { return "digits" }
func (digitsBase) traits() traits { return traits{element: true} }

func (digitsBase) parse(p *parser, v *valueNode) {
	pos := p.now.pos
	v.Length = p.length()
	if least := v.Length.Exact; least != nil || v.Length.Range != nil {
		if least == nil {
			least = v.Length.Range.Low
		}
		if n, ok := constant(least); ok && n < 1 {
			p.fatal(pos, "an integer has one digit at the least")
		}
	}
	v.Set, _ = newSet("0-9")
	v.Set.at = v.Pos
	if p.take(",") {
		if v.Set = p.set(); len(v.Set.Runes) < 2 || v.Set.Has(' ') {
			p.fatal(v.Set.at, "these are the digits, from that of nothing on, such as \"01\" or \"0-9a-f\"")
		}
	}
}

// hasLeadingZero reports that an integer of several digits begins with that of nothing.
func (s *charSet) hasLeadingZero(word []byte) bool {
	first, size := utf8.DecodeRune(word)
	return len(word) > size && first == s.Runes[0]
}

func (digitsBase) types(*valueNode) ([]string, int) { return []string{"text"}, 0 }

func (digitsBase) one(r *valueReader, d *datum, _ int64) {
	word := r.token()
	if r.field.Value.Set.hasLeadingZero(word) {
		r.fault(r.name(), "%s has a leading zero", orThis(r.name()))
	}
	r.characters(d, word)
}

func (digitsBase) fill(m *maker, f *fieldNode, d *datum, in *frame, n int) *unmet {
	return m.words(f, d, in, n)
}

func (digitsBase) explain(e *explainer, f *fieldNode, name string) string {
	of := " of " + e.lengthWords(f.Value.Length) + " digits"
	if set := f.Value.Set.Text; set != "0-9" {
		of += " of " + set
	}
	return name + e.many(f.Value, "an integer"+of, "each an integer"+of)
}

// noLeadingZero makes a first digit one that an integer of several may have.
func (m *maker) noLeadingZero(v *valueNode, letters []int32) {
	if v.Base == typeDigits && len(letters) > 1 && letters[0] == 0 {
		letters[0] = 1 + int32(m.index(len(v.Set.Runes)-1))
	}
}

// compareTexts compares two tokens of a field: integers by their value, others by their characters.
func (v *valueNode) compareTexts(x, y string) int {
	if v.Base == typeDigits {
		return cmp.Or(len(x)-len(y), strings.Compare(x, y))
	}
	return strings.Compare(x, y)
}

type amongBase struct{ element }

func (amongBase) word() string   { return "among" }
func (amongBase) traits() traits { return traits{element: true, name: true} }

func (amongBase) parse(p *parser, v *valueNode) {
	t := p.now
	v.Args = []exprNode{&reference{pos: t.pos, name: p.name("of what was there before, such as among(names)")}}
}

func (amongBase) types(*valueNode) ([]string, int) { return []string{"text", "int", "long"}, 0 }

// tokens are the values of what it names, as they are written.
func (v *valueNode) tokens(in *frame) (list []string) {
	r := v.Args[0].(*reference)
	d := r.datum(in)
	if len(d.texts) > 0 {
		return d.texts
	}
	for _, x := range d.ints {
		list = append(list, strconv.FormatInt(x, 10))
	}
	return list
}

func (amongBase) reader(r *valueReader, in *frame) {
	list := r.field.Value.tokens(in)
	r.among = make(map[string]bool, len(list))
	for _, one := range list {
		r.among[one] = true
	}
}

func (amongBase) one(r *valueReader, d *datum, _ int64) {
	word := string(r.token())
	if !r.among[word] {
		r.fault(r.name(), "%s is %s, which is none of %s", orThis(r.name()), shown(word, r.scanner), r.field.Value.Args[0])
	}
	r.keep(d, word)
	d.count++
}

func (amongBase) styles(f *fieldNode, edge bool) []string { return pickBase{}.styles(f, edge) }

func (amongBase) fill(m *maker, f *fieldNode, d *datum, in *frame, n int) *unmet {
	v := f.Value
	list := v.tokens(in)
	if v.unlike() {
		slices.Sort(list)
		list = slices.Compact(list)
	}
	if len(list) == 0 && n > 0 {
		return &unmet{pos: v.Pos, text: "one among " + v.Args[0].String() + ", which has none", hopeless: true}
	}
	last := int64(len(list)) - 1
	if wrong := v.enough(n, 0, last); wrong != nil {
		return wrong
	}
	chosen := make([]int64, n)
	if n > 0 {
		m.numbers(f, in, chosen, interval{high: last})
	}
	for _, i := range chosen {
		d.texts = append(d.texts, list[i])
	}
	return nil
}

func (amongBase) weigh(w *weight, _ *valueNode, text string) { w.add(uint64(len(text))) }

// simplify takes the first of what there is, wherever that is less.
func (amongBase) simplify(c cursor) {
	c.setParts(func() int { return len(c.texts()) }, func(d *datum, i, j int) bool {
		list := c.field.Value.tokens(c.at.in(c.k.best))
		return len(list) > 0 && changed(d.texts[i:j], func(string) string { return list[0] })
	})
}

func (amongBase) explain(e *explainer, f *fieldNode, name string) string {
	of := f.Value.Args[0].String()
	return name + e.many(f.Value, "one of "+of, "each one of "+of)
}

type partBase struct{ element }

func (partBase) word() string                     { return "part" }
func (partBase) traits() traits                   { return traits{element: true, name: true} }
func (partBase) types(*valueNode) ([]string, int) { return []string{"text"}, 0 }

func (partBase) parse(p *parser, v *valueNode) {
	t := p.now
	v.Args = []exprNode{&reference{pos: t.pos, name: p.name("of a token before it, such as part(s)")}}
	if p.take(",") {
		v.Length = p.length()
	}
}

// whole is the token of which a value is a part, and how long that is at the least and at the most.
func (v *valueNode) whole(in *frame) (text []rune, least, most int64) {
	text = []rune(v.Args[0].(*reference).datum(in).texts[0])
	least, most = 1, int64(len(text))
	if v.Length != nil {
		lengths := v.lengths(in)
		least, most = max(1, lengths[0]), min(most, lengths[1])
	}
	return text, least, most
}

func (partBase) reader(r *valueReader, in *frame) { r.in = in }

func (partBase) one(r *valueReader, d *datum, _ int64) {
	v, word := r.field.Value, string(r.token())
	whole := v.Args[0].(*reference)
	if text := whole.datum(r.in).texts[0]; !strings.Contains(text, word) {
		r.fault(r.name(), "%s is %s, which is no part of %s", orThis(r.name()), shown(word, r.scanner), whole)
	}
	if v.Length != nil {
		if wrong := v.Length.wrong(r.in, int64(utf8.RuneCountInString(word))); wrong != "" {
			r.fault(r.name(), "%s has %d characters, and has %s", orThis(r.name()), utf8.RuneCountInString(word), wrong)
		}
	}
	r.keep(d, word)
	d.count++
}

func (partBase) styles(*fieldNode, bool) []string { return nil }

func (partBase) fill(m *maker, f *fieldNode, d *datum, in *frame, n int) *unmet {
	v := f.Value
	text, least, most := v.whole(in)
	if n > 0 && least > most {
		return &unmet{pos: v.Pos, text: "a part of so many characters of " + v.Args[0].String()}
	}
	seen := map[string]bool{}
	for tries := 0; len(d.texts) < n; tries++ {
		length := m.between(least, most)
		if m.oneIn(3) {
			length = min(most, least+m.between(0, 3))
		}
		at := m.between(0, int64(len(text))-length)
		part := string(text[at : at+length])
		if v.unlike() && seen[part] {
			if tries > 200*n+1000 {
				return &unmet{pos: v.Pos, text: strconv.Itoa(n) + " distinct parts of " + v.Args[0].String()}
			}
			continue
		}
		seen[part] = true
		d.texts = append(d.texts, part)
	}
	return nil
}

func (partBase) weigh(w *weight, _ *valueNode, text string) { w.add(uint64(len(text))) }

// simplify takes what the token begins with.
func (partBase) simplify(c cursor) {
	c.setParts(func() int { return len(c.texts()) }, func(d *datum, i, j int) bool {
		text, least, most := c.field.Value.whole(c.at.in(c.k.best))
		return least <= most && changed(d.texts[i:j], func(string) string { return string(text[:least]) })
	})
}

func (partBase) explain(e *explainer, f *fieldNode, name string) string {
	of := "a part of " + f.Value.Args[0].String()
	if f.Value.Length != nil {
		of += " of " + e.lengthWords(f.Value.Length) + " characters"
	}
	return name + e.many(f.Value, of, "each "+of)
}
