package shape

import (
	"fmt"
	"math/big"
	"slices"
	"strings"
)

// Explain says a shape in plain words, a line an item, with the extremes that it
// implies, so that a person can compare it with a statement. What lies in a block
// is indented by two blanks more.
func (s *Shape) Explain() []string {
	e := &explainer{known: map[*fieldNode]span{}, unit: line, line: 1, counts: s.counts}
	switch {
	case s.takes != nil:
		e.unit = "argument"
	case s.calls != nil:
		e.unit = oneCall
	}
	e.items(s.Items, "")
	for _, h := range s.holds {
		e.say("", "and all of it is what %s says to be valid", h.File)
	}
	return e.lines
}

// A shape that is not of arguments is about lines, or about calls.
const (
	line    = "line"
	oneCall = "call"
)

// each says that edges stand in lines, where they do.
func (e *explainer) each() string {
	if e.unit == line {
		return ", one a line"
	}
	return ""
}

func (e *explainer) rows() string {
	if e.unit == line {
		return "lines"
	}
	return "rows"
}

// A span is how small and how large something can be; nil ends are not known.
type span struct{ low, high *big.Int }

// An explainer goes through a shape once.
type explainer struct {
	lines  []string
	known  map[*fieldNode]span
	unit   string       // a line, or an argument
	line   int          // of the input; 0: it depends on the input from here on
	within int          // blocks around
	counts []*fieldNode // that are no argument
}

func (e *explainer) say(indent, format string, args ...any) {
	e.lines = append(e.lines, indent+fmt.Sprintf(format, args...))
}

// where begins what is said of one line.
func (e *explainer) where() string {
	if e.line == 0 || e.within > 0 {
		return "a " + e.unit + ": "
	}
	e.line++
	return fmt.Sprintf("%s %d: ", e.unit, e.line-1)
}

func (e *explainer) items(list []node, indent string) {
	for _, item := range list {
		switch item := item.(type) {
		case *lineNode:
			if slices.Contains(e.counts, item.Fields[0]) {
				e.say(indent, "no argument: %s", e.field(item.Fields[0]))
				continue
			}
			e.oneLine(item, indent)
		case *casesNode:
			e.say(indent, "%s%s, then that many cases, each:", e.where(), e.field(item.Count))
			e.inside(item.Items, indent)
			e.totals(item.Totals, indent)
		case *repeatNode:
			if item.rows != "" {
				e.rowsOf(item, indent)
				continue
			}
			e.say(indent, "%s%s:", e.times(item), e.repeated(item))
			e.inside(item.Items, indent)
			e.totals(item.Totals, indent)
			if item.HasUntil {
				e.say(indent, "and at the end a line %s", item.Until)
			}
		case *eitherNode:
			for i, branch := range item.Branches {
				e.say(indent, "%s", map[bool]string{true: "either", false: "or"}[i == 0])
				e.inside(branch, indent)
			}
		case *blankNode:
			e.say(indent, "%san empty line", e.where())
		case *requireNode:
			e.say(indent, "always %s", item.text)
		}
	}
}

// rowsOf says an argument of rows.
func (e *explainer) rowsOf(item *repeatNode, indent string) {
	e.say(indent, "%s%s, %s rows%s:", e.where(), item.rows, strings.TrimSuffix(e.times(item), " times"), e.repeated(item))
	unit, line := e.unit, e.line
	e.unit = "row"
	e.inside(item.Items, indent)
	e.unit, e.line = unit, line
	e.totals(item.Totals, indent)
}

func (e *explainer) totals(list []*totalNode, indent string) {
	for _, t := range list {
		bound := e.spanOf(t.Bound)
		e.say(indent, "the sum of %s over all of them is at most %s%s", t.Left, plainEnd(t.Bound), past(bound.high))
	}
}

func (e *explainer) inside(list []node, indent string) {
	e.within++
	e.items(list, indent+"  ")
	e.within--
	e.line = 0
}

func (e *explainer) times(r *repeatNode) string {
	if r.Count.Exact != nil {
		return r.Count.Exact.String() + " times"
	}
	return e.rangeWords(r.Count.Range) + " times"
}

func (e *explainer) repeated(r *repeatNode) string {
	words := ""
	if r.Distinct {
		words += ", no two alike"
	}
	if r.ByBlank {
		words += ", with an empty line between two"
	}
	switch {
	case r.atBlank:
		words += ", up to an empty line"
	case r.Count.Range != nil && !r.HasUntil && r.rows == "":
		words += ", to the end of the input"
	}
	return words
}

func (e *explainer) oneLine(l *lineNode, indent string) {
	var parts []string
	for i, f := range l.Fields {
		words := e.field(f)
		if after := i+1 < len(l.Fields) && l.Fields[i+1].Joined; f.Value == nil && (f.Joined || after) {
			words = fmt.Sprintf("the text %q", f.Literal)
		}
		if f.Joined {
			parts[len(parts)-1] += ", joined to " + words
			continue
		}
		parts = append(parts, words)
	}
	v := l.Fields[0].Value
	if e.unit == line && v != nil && v.alone() {
		e.say(indent, "%s", parts[0])
		e.line = 0
		return
	}
	if e.unit == oneCall {
		e.say(indent, "%s%s", e.where(), strings.TrimSuffix(l.Fields[0].Literal+" of "+strings.Join(parts[1:], "; "), " of "))
		return
	}
	e.say(indent, "%s%s", e.where(), strings.Join(parts, "; "))
}

// field says what a field is, and notes what is known of it.
func (e *explainer) field(f *fieldNode) string {
	v := f.Value
	if v == nil {
		return "the token " + f.Literal
	}
	name := ""
	if f.Name != "" {
		name = f.Name + ", "
	}
	return v.Base.of().explain(e, f, name)
}

func last(from int64, n *big.Int) *big.Int {
	if n == nil {
		return nil
	}
	return new(big.Int).Add(n, big.NewInt(from-1))
}

// kind says what a graph is and is not.
func (e *explainer) kind(v *valueNode) string {
	var words []string
	for _, one := range []struct {
		set  bool
		word string
	}{
		{v.Connected, "connected"}, {v.Acyclic, "acyclic"}, {v.Bipartite, "bipartite"}, {v.Directed, "directed"}, {!v.Loops && !v.Parallel, "simple"},
	} {
		if one.set {
			words = append(words, one.word)
		}
	}
	if len(words) == 0 {
		return ""
	}
	return strings.Join(words, " ") + " "
}

// allowed says which edges a graph may have that a simple one has not.
func allowed(v *valueNode) string {
	switch {
	case v.Loops && v.Parallel:
		return "; loops and parallel edges are allowed"
	case v.Loops:
		return "; loops are allowed"
	case v.Parallel:
		return "; parallel edges are allowed"
	}
	return ""
}

func (e *explainer) with(v *valueNode) string {
	if len(v.With) == 0 {
		return ""
	}
	parts := make([]string, len(v.With))
	for i, w := range v.With {
		parts[i] = e.field(w)
	}
	return ", with " + strings.Join(parts, "; ")
}

func (e *explainer) lengthWords(l *lengthNode) string {
	if l.Exact != nil {
		return l.Exact.String() + e.most(l.Exact)
	}
	return e.rangeWords(l.Range)
}

func (e *explainer) rangeWords(g *rangeNode) string {
	return fmt.Sprintf("%s to %s%s", plainEnd(g.Low), plainEnd(g.High), e.most(g.High))
}

// most says how large an expression with names in it can become.
func (e *explainer) most(x exprNode) string {
	if n := e.spanOf(x).high; n != nil && !isConstant(x) {
		return " (up to " + grouped(n) + ")"
	}
	return ""
}

func (e *explainer) many(v *valueNode, one, each string) string {
	switch {
	case len(v.Dims) == 0:
		return one + e.modified(v)
	case len(v.Dims) == 2:
		return fmt.Sprintf("%s %s of %s: %s", e.lengthWords(v.Dims[0]), e.rows(), e.lengthWords(v.Dims[1]), each) + e.modified(v)
	case v.Down && e.unit == line:
		return fmt.Sprintf("%s lines: %s", e.lengthWords(v.Dims[0]), each) + e.modified(v)
	}
	return fmt.Sprintf("%s of them: %s", e.lengthWords(v.Dims[0]), each) + e.modified(v)
}

// modified says what is asked of values together, and what is taken out of them.
func (e *explainer) modified(v *valueNode) (words string) {
	for i, b := range v.But {
		words += map[bool]string{true: ", but never ", false: " or "}[i == 0] + plainEnd(b)
	}
	if v.By != "" {
		words += fmt.Sprintf(", with %q between them", v.By)
	}
	asked := ""
	for _, one := range []struct {
		set  bool
		word string
	}{
		{v.Down && e.unit == line && (v.Base == typeInt || v.Base == typeReal), "one a line"}, {v.Distinct && v.DistinctBut == nil, "no two alike"}, {v.Sorted, "none less than the one before"},
		{v.Rising, "each more than the one before"}, {v.Falling, "each less than the one before"},
	} {
		if one.set {
			asked += ", " + one.word
		}
	}
	if asked != "" && v.ByRow {
		asked = ", and in each row" + asked[1:]
	}
	if v.DistinctBut != nil {
		asked += ", no two alike but " + plainEnd(v.DistinctBut)
	}
	if v.Symmetric {
		asked += ", symmetric"
	}
	if v.points() {
		asked += ": points, " + strings.Join(v.pointWords(), ", ")
	}
	if v.Diagonal != nil {
		asked += ", with " + plainEnd(v.Diagonal) + " on the diagonal"
	}
	if asked != "" && len(v.Dims) == 0 {
		asked = ", and down its column" + asked[1:]
	}
	return words + asked
}

// numbers says what integers and reals are, and what sums and products they reach.
func (e *explainer) numbers(f *fieldNode) string {
	v := f.Value
	kind := "an integer"
	kinds := "integers"
	if v.Base == typeReal {
		kind, kinds = "a decimal", "decimals"
		if v.Places >= 0 {
			kind += " with " + v.places() + " places"
			kinds += " with " + v.places() + " places"
		}
	}
	if v.Pad > 0 {
		kind += fmt.Sprintf(" of %d digits", v.Pad)
		kinds += fmt.Sprintf(" of %d digits", v.Pad)
	}
	bounds, s := "", span{}
	if v.Range != nil {
		bounds = fmt.Sprintf(" from %s to %s", plainEnd(v.Range.Low), plainEnd(v.Range.High))
		if v.Base == typeInt {
			s = span{e.spanOf(v.Range.Low).low, e.spanOf(v.Range.High).high}
			if !isConstant(v.Range.High) {
				bounds += e.most(v.Range.High)
			}
		}
	}
	e.known[f] = s
	if len(v.Dims) == 0 {
		return kind + bounds + past(s.high) + e.modified(v)
	}
	words := e.lengthWords(v.Dims[0])
	if len(v.Dims) == 2 {
		words += " " + e.rows() + " of " + e.lengthWords(v.Dims[1])
	}
	words += " " + kinds
	if bounds != "" {
		words += ", each" + bounds
	}
	words += e.modified(v)
	if sum := e.sum(v, s); sum != nil {
		words += fmt.Sprintf("; their sum may reach %s%s", grouped(sum), past(sum))
	}
	return words
}

// plainEnd is an end of a range as people read it: numbers in groups of three.
func plainEnd(x exprNode) string {
	if n, ok := constant(x); ok {
		return grouped(big.NewInt(n))
	}
	return x.String()
}

// sum is the most that the elements of an array can add up to; nil if that is not
// known, or below zero.
func (e *explainer) sum(v *valueNode, s span) *big.Int {
	if v.Base != typeInt || s.high == nil || s.high.Sign() <= 0 {
		return nil
	}
	total := new(big.Int).Set(s.high)
	for _, d := range v.Dims {
		x := d.Exact
		if x == nil {
			x = d.Range.High
		}
		n := e.spanOf(x).high
		if n == nil {
			return nil
		}
		total.Mul(total, n)
	}
	return total
}

// past says which integer types do not hold a number.
func past(n *big.Int) string {
	switch {
	case n == nil || n.IsInt64() && n.Int64() == int64(int32(n.Int64())):
		return ""
	case n.IsInt64():
		return ", past 32 bits"
	}
	return ", past 64 bits"
}

// grouped writes a number in groups of three digits.
func grouped(n *big.Int) string {
	text := new(big.Int).Abs(n).String()
	for at := len(text) - 3; at > 0; at -= 3 {
		text = text[:at] + "," + text[at:]
	}
	if n.Sign() < 0 {
		return "-" + text
	}
	return text
}

// spanOf is the span of an expression, by interval arithmetic: it may be wider
// than what an input can reach, where a name stands in it twice.
func (e *explainer) spanOf(x exprNode) span {
	switch x := x.(type) {
	case *number:
		if x.decimal == "" {
			n := big.NewInt(x.value)
			return span{n, n}
		}
	case *reference:
		return e.known[x.field]
	case *unary:
		if s := e.spanOf(x.x); x.op == "-" {
			return span{negated(s.high), negated(s.low)}
		}
	case *binary:
		return combined(x.op, e.spanOf(x.x), e.spanOf(x.y))
	case *call:
		return e.spanOfCall(x)
	}
	return span{}
}

func (e *explainer) spanOfCall(x *call) span {
	if x.name != "min" && x.name != "max" || len(x.args) < 2 {
		return span{}
	}
	s := e.spanOf(x.args[0])
	for _, a := range x.args[1:] {
		other := e.spanOf(a)
		s = span{bound(x.name, s.low, other.low), bound(x.name, s.high, other.high)}
	}
	return s
}

// bound is the least or the greatest of two ends; nil if one is not known.
func bound(name string, a, b *big.Int) *big.Int {
	if a == nil || b == nil {
		return nil
	}
	if (a.Cmp(b) < 0) == (name == "min") {
		return a
	}
	return b
}

func negated(n *big.Int) *big.Int {
	if n == nil {
		return nil
	}
	return new(big.Int).Neg(n)
}

// combined is the span of a sum, difference, product, quotient or power of what
// lies in two spans.
func combined(op string, a, b span) span {
	if a.low == nil || a.high == nil || b.low == nil || b.high == nil {
		return span{}
	}
	switch op {
	case "+":
		return span{new(big.Int).Add(a.low, b.low), new(big.Int).Add(a.high, b.high)}
	case "-":
		return span{new(big.Int).Sub(a.low, b.high), new(big.Int).Sub(a.high, b.low)}
	case "*":
		s := span{}
		for _, x := range []*big.Int{a.low, a.high} {
			for _, y := range []*big.Int{b.low, b.high} {
				n := new(big.Int).Mul(x, y)
				if s.low == nil || n.Cmp(s.low) < 0 {
					s.low = n
				}
				if s.high == nil || n.Cmp(s.high) > 0 {
					s.high = n
				}
			}
		}
		return s
	case "/":
		if b.low.Sign() > 0 && a.low.Sign() >= 0 {
			return span{new(big.Int).Div(a.low, b.high), new(big.Int).Div(a.high, b.low)}
		}
	case "^":
		if a.low.Sign() >= 0 && b.low.Sign() >= 0 && b.high.IsInt64() && b.high.Int64() <= 64 {
			return span{new(big.Int).Exp(a.low, b.low, nil), new(big.Int).Exp(a.high, b.high, nil)}
		}
	}
	return span{}
}
