package shape

import (
	"fmt"
	"math/big"
	"slices"
	"strconv"
	"strings"
)

// words makes words and texts.
func (m *maker) words(field *fieldNode, d *datum, f *frame, n int) *unmet {
	v := field.Value
	array := len(v.Dims) > 0 || field.ofEdges
	lengths := v.lengths(f)
	if room := f.room(field); !array && room >= lengths[0] {
		lengths[1] = min(lengths[1], room)
	}
	if lengths[0] > lengths[1] {
		return &unmet{pos: v.Pos, text: v.Base.String() + " of " + v.Length.Range.shown(lengths[0], lengths[1]) + " characters", hopeless: true}
	}
	if _, ok := v.lengthOfKind(lengths[0], lengths[0], lengths[1]); !ok {
		return &unmet{pos: v.Pos, text: fmt.Sprintf("a balanced word of %d characters", lengths[0])}
	}
	if array && (v.Distinct || v.Rising || v.Falling) {
		return m.distinctWords(field, d, f, n, lengths)
	}
	name := ""
	if array {
		name = m.style(field, append(wordArrayStyles, field.styles...))
	}
	for i := range n {
		if i > 0 && (name == "all-equal" || name == "few-distinct" && !m.oneIn(uint64(n))) {
			d.texts = append(d.texts, d.texts[m.index(len(d.texts))])
			continue
		}
		d.texts = append(d.texts, m.word(field, f, lengths, name))
	}
	if n == 1 && !array {
		d.count = v.Set.count([]byte(d.texts[0]))
	}
	m.inOrder(v, d.texts)
	return nil
}

// wordArrayStyles are those of arrays of words, beside the ones of single words.
var wordArrayStyles = []string{"all-equal", "few-distinct"}

func (m *maker) inOrder(v *valueNode, texts []string) {
	if v.inOrder() {
		slices.SortFunc(texts, v.compareTexts)
	}
	if v.Falling {
		slices.Reverse(texts)
	}
}

// word makes one word in a style; without one it is drawn for the word alone.
func (m *maker) word(field *fieldNode, in *frame, lengths [2]int64, name string) string {
	v := field.Value
	n := lengths[0]
	if lengths[0] < lengths[1] {
		n = m.count(v.Length, lengths[0], lengths[1], -1)
	}
	n, _ = v.lengthOfKind(n, lengths[0], lengths[1])
	m.spend(v.Pos, n/8)
	if name == "" {
		name = m.style(field, field.styles)
	}
	a := make([]int32, n)
	if n > 0 && !m.part(field, in, name, a) {
		styleNamed(wordStyles, name)(m.random, a, m.letters(len(v.Set.Runes)))
	}
	if v.Base == typeText {
		m.noBlanksAround(v.Set, a)
	}
	m.shaped(v, a)
	m.noLeadingZero(v, a)
	return v.Set.spelled(a)
}

// noBlanksAround takes blanks at the ends of a text, which are easily lost, out of
// it, unless there is nothing else in the set.
func (m *maker) noBlanksAround(s *charSet, a []int32) {
	blank := int32(slices.Index(s.Runes, ' '))
	if blank < 0 || len(s.Runes) == 1 || len(a) == 0 {
		return
	}
	for _, i := range []int{0, len(a) - 1} {
		if a[i] == blank {
			a[i] = (blank + 1 + int32(m.index(len(s.Runes)-1))) % int32(len(s.Runes))
		}
	}
}

// distinctWords draws until there are enough, or, where they are many of all that
// there are, takes some of all.
func (m *maker) distinctWords(field *fieldNode, d *datum, in *frame, n int, lengths [2]int64) *unmet {
	v := field.Value
	all := v.words(lengths)
	if uint64(n) > all {
		return &unmet{pos: v.Pos, text: strconv.Itoa(n) + " distinct words of " + strconv.FormatUint(all, 10), hopeless: true}
	}
	if uint64(n) > all/4 && !v.Balanced && !v.Palindrome && v.Base != typeDigits {
		for _, x := range m.sample(n, all) {
			d.texts = append(d.texts, v.nthWord(x, lengths))
		}
	} else {
		seen := map[string]bool{}
		for tries := 0; len(d.texts) < n; tries++ {
			name := ""
			if tries > 2*n { // the style has not so many
				name = "random"
			}
			word := m.word(field, in, lengths, name)
			if tries > 4*n && (v.Balanced || v.Palindrome) {
				size, _ := v.lengthOfKind(m.between(lengths[0], lengths[1]), lengths[0], lengths[1])
				letters := make([]int32, size)
				for i := range letters {
					letters[i] = int32(m.index(len(v.Set.Runes)))
				}
				m.shaped(v, letters)
				word = v.Set.spelled(letters)
				if tries > 40*n+1000 {
					return &unmet{pos: v.Pos, text: strconv.Itoa(n) + " distinct words of this kind"}
				}
			} else if tries > 4*n { // nor have words of these lengths
				word = v.nthWord(m.below(all), lengths)
			}
			if tries > 200*n+10_000 {
				return &unmet{pos: v.Pos, text: strconv.Itoa(n) + " distinct ones of these lengths", hopeless: true}
			}
			if v.Base == typeDigits && v.Set.hasLeadingZero([]byte(word)) {
				continue
			}
			if !seen[word] {
				seen[word] = true
				d.texts = append(d.texts, word)
			}
		}
	}
	m.inOrder(v, d.texts)
	return nil
}

// nthWord is a word by its number among all: the shorter ones first.
func (v *valueNode) nthWord(x uint64, lengths [2]int64) string {
	k := uint64(len(v.Set.Runes))
	n := lengths[0]
	for ; n < lengths[1]; n++ {
		here := wordsOf(int(k), [2]int64{n, n})
		if x < here {
			break
		}
		x -= here
	}
	a := make([]int32, n)
	for i := len(a) - 1; i >= 0; i-- {
		a[i], x = int32(x%k), x/k
	}
	return v.Set.spelled(a)
}

// mostPlaces are the digits behind the point where nothing is said of them.
const mostPlaces = 6

// reals makes decimals: integers of the smallest unit, written with a point.
func (m *maker) reals(field *fieldNode, d *datum, f *frame, n int) *unmet {
	v := field.Value
	places := v.Places
	if places > v.LeastPlaces { // such as halves, in all of them
		places = v.LeastPlaces + m.index(places-v.LeastPlaces+1)
	}
	if places < 0 {
		places = m.index(mostPlaces + 1)
	}
	low, high, ok := v.units(f, places)
	for ; !ok && (v.Places < 0 && places < mostPlaces || places < v.Places); places++ {
		low, high, ok = v.units(f, places+1)
	}
	if !ok || low > high {
		return &unmet{pos: v.Pos, text: "a real with " + strconv.Itoa(places) + " places in its range, in 64 bits of its smallest unit", hopeless: true}
	}
	if wrong := v.enough(n, low, high); wrong != nil {
		return wrong
	}
	units := make([]int64, n)
	part, step := m.fewUnits(field, n, interval{low: low, high: high}, places)
	m.numbers(field, f, units, part)
	d.texts = make([]string, n)
	for i, u := range units {
		d.texts[i] = m.shortened(v, decimalText(u*step, places))
	}
	if n == 1 {
		d.count = 1
	}
	return nil
}

// shortened takes zeros at the end off a decimal that may have fewer digits, mostly all that may go.
func (m *maker) shortened(v *valueNode, text string) string {
	whole, fraction, _ := strings.Cut(text, ".")
	if v.Places <= v.LeastPlaces || m.oneIn(8) {
		return text
	}
	for len(fraction) > v.LeastPlaces && fraction[len(fraction)-1] == '0' {
		fraction = fraction[:len(fraction)-1]
	}
	return strings.TrimSuffix(whole+"."+fraction, ".")
}

// units are the bounds of a real in units of its last place; not ok if they are
// none or past 64 bits.
func (v *valueNode) units(f *frame, places int) (low, high int64, ok bool) {
	if v.Range == nil {
		return -1_000_000_000, 1_000_000_000, true
	}
	scale := new(big.Int).Exp(big.NewInt(10), big.NewInt(int64(places)), nil)
	end := func(e exprNode, up bool) (int64, bool) {
		x := rational(e, f)
		if x == nil {
			return 0, false
		}
		x.Mul(x, new(big.Rat).SetInt(scale))
		q, r := new(big.Int).DivMod(x.Num(), x.Denom(), new(big.Int))
		if up && r.Sign() > 0 {
			q.Add(q, big.NewInt(1))
		}
		return q.Int64(), q.IsInt64()
	}
	low, ok = end(v.Range.Low, true)
	high, ok2 := end(v.Range.High, false)
	return low, high, ok && ok2 && low <= high
}

// rational is the exact value of a bound of a real; nil if it has none. Division is
// exact there; functions and remainders are those of integers.
func rational(e exprNode, f *frame) *big.Rat {
	switch e := e.(type) {
	case *number:
		if e.decimal != "" {
			x, _ := new(big.Rat).SetString(e.decimal)
			return x
		}
		return new(big.Rat).SetInt64(e.value)
	case *reference:
		if x := e.exact(f); x != nil {
			return x
		}
	case *call:
		if x := e.exactOfAll(f); x != nil {
			return x
		}
	case *unary:
		if x := rational(e.x, f); x != nil && e.op == "-" {
			return x.Neg(x)
		}
		return nil
	case *binary:
		if x, ok := exactly(e, f); ok {
			return x
		}
	}
	if decimalIn(e) != nil {
		return nil
	}
	n, wrong := evaluated(e, f)
	if wrong != nil {
		return nil
	}
	return new(big.Rat).SetInt64(n)
}

// exactly computes with fractions; not ok for operators that have none.
func exactly(e *binary, f *frame) (x *big.Rat, ok bool) {
	if !slices.Contains([]string{"+", "-", "*", "/"}, e.op) {
		return nil, false
	}
	x, y := rational(e.x, f), rational(e.y, f)
	switch {
	case x == nil || y == nil, e.op == "/" && y.Sign() == 0:
		return nil, true
	case e.op == "+":
		return x.Add(x, y), true
	case e.op == "-":
		return x.Sub(x, y), true
	case e.op == "*":
		return x.Mul(x, y), true
	}
	return x.Quo(x, y), true
}

// decimalText writes a number of units with so many digits behind the point.
func decimalText(units int64, places int) string {
	if places == 0 {
		return strconv.FormatInt(units, 10)
	}
	sign, digits := "", strconv.FormatUint(uint64(max(units, -units)), 10)
	if units < 0 {
		sign, digits = "-", strconv.FormatUint(uint64(-units), 10)
	}
	if len(digits) <= places {
		digits = strings.Repeat("0", places+1-len(digits)) + digits
	}
	return sign + digits[:len(digits)-places] + "." + digits[len(digits)-places:]
}
