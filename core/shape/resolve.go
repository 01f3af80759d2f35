package shape

import (
	"fmt"
	"slices"
	"strings"

	"coldverdict/core/settings"
)

// A block is a part of a shape in which names are declared: the whole, or a body.
// Each value in it, with a name or without, and each repeat and either, has a slot
// of its own, in which a frame holds what an input has there.
type block struct {
	fields     []*fieldNode // with a name, in order
	slots      int
	conditions []*condition // that hold within it
	above      *block
	repeated   bool          // its bodies are those of a repeat
	byBlank    bool          // it is that of a repeat whose bodies have an empty line between them
	of         *repeatNode   // which repeat
	repeats    []*repeatNode // that stand in it, so far
}

// slot makes room for a value.
func (b *block) slot() int {
	b.slots++
	return b.slots - 1
}

// A resolver finds out which declaration each name means, and what can be known of
// a shape without an input.
type resolver struct {
	*parser
	now    *block
	counts []string       // names that are used as lengths, in order
	below  map[string]Pos // where names are declared, whatever comes first
}

func (p *parser) resolve() {
	r := &resolver{parser: p, now: &block{}, below: map[string]Pos{}}
	everyField(p.s.Items, func(f *fieldNode) {
		if _, ok := r.below[f.Name]; !ok && f.Name != "" {
			r.below[f.Name] = f.Pos
		}
	})
	p.s.top = r.now
	defer func() {
		if len(p.mistakes) == 0 {
			p.s.prepare()
		}
	}()
	scale := r.items(p.s.Items, true)
	p.s.Items = slices.DeleteFunc(p.s.Items, func(i node) bool {
		switch i := i.(type) {
		case *holdsNode:
			p.s.holds = append(p.s.holds, i)
			return true
		case *scaleItem:
			return true
		}
		return false
	})
	p.s.Scale = r.counts
	if len(scale) > 0 {
		p.s.Scale = scale
	}
	if len(p.mistakes) == 0 {
		p.findGrowing(scale)
	}
	if len(p.s.Items) == 0 && len(p.mistakes) == 0 {
		p.wrong(Pos{1, 1}, "this shape is empty; describe the input's lines, such as n: int 1..100")
	}
}

// findGrowing finds the names that are no lengths and grow nevertheless: those that a scale item names, and every
// integer where the shape has no lengths at all, such as the one of a line that may be up to 10^18.
func (p *parser) findGrowing(scale []string) {
	s := p.s
	every := len(s.Scale) == 0 && !s.Repeats() && len(s.Lengths()) == 0
	fieldsOf(s.Items, func(f *fieldNode) {
		if !f.single() || f.counts || f.Name == "" || f.Value.Range == nil {
			return
		}
		if f.grows = slices.Contains(scale, f.Name); every {
			s.Scale = append(s.Scale, f.Name)
		}
	})
}

// items resolves the items of a block. last says that nothing follows the block in
// the input.
func (r *resolver) items(list []node, last bool) (scale []string) {
	for i, item := range list {
		end := last && !slices.ContainsFunc(list[i+1:], stands)
		switch item := item.(type) {
		case *lineNode:
			r.line(item)
		case *casesNode:
			r.value(item.Count)
			r.declare(item.Count)
			r.count(item.Count.Name)
			item.body = r.inside(func() {
				r.items(item.Items, false)
				r.totals(item.Totals)
			})
			r.bounded(item.Totals)
			if !reads(item.Items) {
				r.wrong(item.Pos, "these cases have no line in them; describe one case")
			}
		case *repeatNode:
			r.length(item.Count, item.Pos)
			item.slot, item.around = r.now.slot(), r.now
			item.atBlank = item.open() && (r.now.byBlank && !slices.ContainsFunc(list[i+1:], stands) || blankNext(list[i+1:]))
			switch {
			case item.atBlank && item.ByBlank:
				r.wrong(item.Pos, "empty lines stand between the bodies of this repeat, so it cannot end at one; give it a count, or a line at which it ends: until \"0\"")
			case item.open() && !item.atBlank && !end && item.rows == "":
				r.wrong(item.Pos, "a repeat with a range of counts ends at the end of the input, so it must be the last item, or at an empty line, so blank must come next; or it ends at a line of its own: until \"0\"")
			}
			item.body = r.inside(func() {
				r.now.repeated, r.now.of, r.now.byBlank = true, item, item.ByBlank
				r.items(item.Items, false)
				r.totals(item.Totals)
			})
			if item.atBlank && mayBeEmpty(item.Items) {
				r.wrong(item.Pos, "this repeat ends at an empty line, and the first line of its bodies may be empty, too")
			}
			r.bounded(item.Totals)
			r.now.repeats = append(r.now.repeats, item)
			item.direct(func(_ int, f *fieldNode) {
				if f.Value.Distinct || f.Value.inOrder() {
					item.column(f)
				}
			})
			if !reads(item.Items) {
				r.wrong(item.Pos, "this repeat has no line in it; describe one body of it")
			}
		case *eitherNode:
			r.either(item)
		case *requireNode:
			r.expr(item.Cond)
			r.truth(item.Cond, true)
		case *holdsNode:
			if r.now.above != nil {
				r.wrong(item.Pos, "holds is about a whole input; it stands outside of all blocks")
			}
		case *scaleItem:
			for _, name := range item.names {
				if _, f := r.find(name); f == nil {
					r.wrong(item.pos, "scale names %q, which is not declared above", name)
				}
			}
			scale = append(scale, item.names...)
		}
	}
	return scale
}

// totals are about the names of a body, and bounded by those around.
func (r *resolver) totals(list []*totalNode) {
	for _, t := range list {
		r.expr(t.Left)
		r.truth(t.Left, false)
	}
}

func (r *resolver) bounded(list []*totalNode) {
	for _, t := range list {
		r.expr(t.Bound)
		r.truth(t.Bound, false)
	}
}

// open reports that nothing in the shape says how many bodies there are in an input.
func (item *repeatNode) open() bool { return item.Count.Range != nil && !item.HasUntil }

// blankNext reports that of some items the first that stands in the input is an empty line.
func blankNext(list []node) bool {
	i := slices.IndexFunc(list, stands)
	if i < 0 {
		return false
	}
	_, blank := list[i].(*blankNode)
	return blank
}

// mayBeEmpty reports that the first line of some items may have nothing on it.
func mayBeEmpty(items []node) bool {
	i := slices.IndexFunc(items, stands)
	if i < 0 {
		return true
	}
	switch item := items[i].(type) {
	case *lineNode:
		return !slices.ContainsFunc(item.Fields, func(f *fieldNode) bool { return f.Value == nil || !f.Value.mayBeEmpty() })
	case *repeatNode:
		return mayBeEmpty(item.Items)
	case *eitherNode:
		return slices.ContainsFunc(item.Branches, mayBeEmpty)
	case *casesNode:
		return false
	}
	return true
}

// mayBeEmpty reports that a value may have no characters on its first line.
func (v *valueNode) mayBeEmpty() bool {
	return slices.ContainsFunc(v.Dims, (*lengthNode).mayBeZero) || (v.Base == typeToken || v.Base == typeText) && v.Length.mayBeZero()
}

// mayBeZero reports that a length may be nothing, as far as the shape says that in numbers.
func (l *lengthNode) mayBeZero() bool {
	n, known := constant(l.least())
	return known && n < 1
}

// least is the least that a length may be.
func (l *lengthNode) least() exprNode {
	if l.Range != nil {
		return l.Range.Low
	}
	return l.Exact
}

// stands reports that an item is something in the input.
func stands(item node) bool {
	switch item.(type) {
	case *requireNode, *scaleItem, *holdsNode:
		return false
	}
	return true
}

// reads reports that some items read something, whatever the input; a blank line
// means nothing where the input is taken loosely.
func reads(items []node) bool {
	return slices.ContainsFunc(items, func(item node) bool {
		switch item := item.(type) {
		case *lineNode, *casesNode:
			return true
		case *repeatNode:
			return item.HasUntil || item.Count.Range != nil && leastLength(item.Count) > 0 && reads(item.Items)
		case *eitherNode:
			return !slices.ContainsFunc(item.Branches, func(b []node) bool { return !reads(b) })
		}
		return false
	})
}

func (r *resolver) inside(do func()) *block {
	r.now = &block{above: r.now}
	defer func() { r.now = r.now.above }()
	do()
	return r.now
}

func (r *resolver) line(l *lineNode) {
	for i, f := range l.Fields {
		if f.Value == nil {
			continue
		}
		r.value(f)
		r.declare(f)
		alone := f.Value.alone()
		switch {
		case alone && len(l.Fields) > 1:
			r.wrong(f.Pos, "this takes several lines, so it stands alone: end the line before it, and behind it")
		case f.Value.Base == typeText && i < len(l.Fields)-1:
			r.wrong(f.Pos, "text is the rest of a line, so nothing can follow it there")
		case i < len(l.Fields)-1 && len(f.Value.Dims) == 1 && f.Value.Dims[0].Range != nil:
			r.wrong(f.Pos, "so many values as there are go to the end of the line, so nothing can follow them there")
		}
	}
}

func (r *resolver) declare(f *fieldNode) {
	f.slot = r.now.slot()
	if f.Name == "" {
		return
	}
	for _, other := range r.now.fields {
		if other.Name == f.Name {
			r.wrong(f.Pos, "%s is declared a second time; the first is at %d:%d", f.Name, other.Pos.Line, other.Pos.Column)
			return
		}
	}
	r.now.fields = append(r.now.fields, f)
}

// find looks for a name here and in the blocks around.
func (r *resolver) find(name string) (up int, f *fieldNode) {
	for b := r.now; b != nil; b = b.above {
		for _, f := range b.fields {
			if f.Name == name {
				return up, f
			}
		}
		up++
	}
	return 0, nil
}

func (r *resolver) names() (all []string) {
	for b := r.now; b != nil; b = b.above {
		for _, f := range b.fields {
			all = append(all, f.Name)
		}
	}
	return all
}

// count notes that a name is used as a length.
func (r *resolver) count(name string) {
	if _, f := r.find(name); f != nil {
		f.counts = true
	}
	if !slices.Contains(r.counts, name) {
		r.counts = append(r.counts, name)
	}
}

func (r *resolver) counted(e exprNode) {
	switch e := e.(type) {
	case *reference:
		if e.index == nil && e.field != nil && e.field.Value.Base == typeInt {
			r.count(e.name)
		}
	case *binary:
		r.counted(e.x)
		r.counted(e.y)
	case *unary:
		r.counted(e.x)
	case *call:
		for _, a := range e.args {
			r.counted(a)
		}
	}
}

// among reports names that hold no values which another could be one of.
func (r *resolver) among(e *reference) {
	if e.field == nil {
		return
	}
	if v := e.field.Value; v.traits().edges || v.Base == typeGrid || v.Base == typeText || e.field.single() {
		r.wrong(e.pos, "%s is no array of tokens or integers, of which one could be chosen", e.name)
	}
}

// whole reports a name that is no token, of which a part could be taken.
func (r *resolver) whole(e *reference) {
	if e.field == nil {
		return
	}
	if v := e.field.Value; v.Base != typeToken && v.Base != typeDigits || len(v.Dims) > 0 {
		r.wrong(e.pos, "%s is no token, of which a part could be taken", e.name)
	}
}

func (r *resolver) value(f *fieldNode) {
	v := f.Value
	for _, a := range v.Args {
		r.expr(a)
		switch v.Base {
		case typeAmong:
			r.among(a.(*reference))
			continue
		case typePart:
			r.whole(a.(*reference))
			continue
		}
		r.truth(a, false)
		r.counted(a)
		r.atLeast(a, 0, v.Base.String())
	}
	if v.Length != nil {
		r.length(v.Length, v.Pos)
	}
	for _, d := range v.Dims {
		r.length(d, v.Pos)
		if d.Range != nil && v.Down && r.s.takes == nil {
			r.wrong(v.Pos, "how many there are one a line must be said before; where they go to the end of the input, write repeat %s { … }", d.Range.text)
		}
		if d.Range != nil && len(v.Dims) == 2 && r.s.takes == nil {
			r.wrong(v.Pos, "the lengths of what has two dimensions are known: one number each")
		}
	}
	if v.Range != nil {
		r.bounds(v.Range, v.Base == typeReal)
		r.indices(v.Range)
		eachPrevious(v.Range.Low, func(*previous) { f.chained = true })
	}
	for _, e := range v.But {
		if r.expr(e); wholeArray(e) == nil {
			r.truth(e, false)
		}
	}
	for _, e := range []exprNode{v.DistinctBut, v.Diagonal} {
		if e != nil {
			r.expr(e)
			r.truth(e, false)
		}
	}
	r.positions(f)
	if v.Distinct && v.Base == typeInt && v.Range != nil && len(v.Dims) == 1 && v.Dims[0].Exact != nil {
		n, ok := constant(v.Dims[0].Exact)
		low, ok2 := constant(v.Range.Low)
		high, ok3 := constant(v.Range.High)
		if ok && ok2 && ok3 && high >= low && uint64(high)-uint64(low) < uint64(max(n-1, 0)) {
			r.wrong(v.Pos, "there are no %d distinct integers in %s", n, v.Range.text)
		}
	}
	if len(v.With) > 0 {
		for _, w := range v.With {
			if w.Value != nil {
				w.ofEdges = true
				r.value(w)
				r.declare(w)
			}
		}
	}
}

func (r *resolver) length(l *lengthNode, pos Pos) {
	if l.Range != nil {
		r.bounds(l.Range, false)
		r.counted(l.Range.Low)
		r.counted(l.Range.High)
		r.atLeast(l.Range.Low, 0, "a length")
		return
	}
	r.expr(l.Exact)
	r.truth(l.Exact, false)
	r.counted(l.Exact)
	r.atLeast(l.Exact, 0, "a length")
}

func (r *resolver) atLeast(e exprNode, least int64, what string) {
	if n, ok := constant(e); ok && n < least {
		r.wrong(e.place(), "%s of %d is none", what, n)
	}
}

// mostIndexed bounds what counts as the greatest of some indices.
const mostIndexed = 5_000_000

// indices notes a name that values are numbered up to, from 0 or 1.
func (r *resolver) indices(g *rangeNode) {
	if low, ok := constant(g.Low); !ok || low != 0 && low != 1 {
		return
	}
	eachReference(g.High, func(to *reference) {
		if to.field == nil || to.index != nil || !to.field.single() {
			return
		}
		most, ok := constant(to.field.Value.highEnd())
		to.field.indexed = to.field.indexed || ok && most <= mostIndexed
	})
}

func (r *resolver) bounds(g *rangeNode, decimals bool) {
	for _, e := range []exprNode{g.Low, g.High} {
		if d := decimalIn(e); d != nil && !decimals {
			r.wrong(d.pos, "%s stands in the bounds of real only", d.decimal)
			continue
		}
		if r.expr(e); decimals && ofReals(e) {
			r.real(e)
			continue
		}
		r.truth(e, false)
	}
	if decimals {
		for _, e := range []exprNode{g.Low, g.High} {
			if _, ok := decimalOf(e, nil); !ok && isNumeric(e) {
				r.wrong(e.place(), "%s has no value: decimals are added, subtracted, multiplied and divided only", e)
			}
		}
		low, ok := decimalOf(g.Low, nil)
		high, ok2 := decimalOf(g.High, nil)
		if ok && ok2 && low > high {
			r.wrong(g.Pos, "no number lies in %s", g.text)
		}
		return
	}
	low, ok := constant(g.Low)
	high, ok2 := constant(g.High)
	if ok && ok2 && low > high {
		r.wrong(g.Pos, "no integer lies in %s", g.text)
	}
}

// decimalIn returns a decimal in an expression; nil if there is none.
func decimalIn(e exprNode) *number {
	switch e := e.(type) {
	case *number:
		if e.decimal != "" {
			return e
		}
	case *unary:
		return decimalIn(e.x)
	case *binary:
		if d := decimalIn(e.x); d != nil {
			return d
		}
		return decimalIn(e.y)
	case *call:
		for _, a := range e.args {
			if d := decimalIn(a); d != nil {
				return d
			}
		}
	}
	return nil
}

// isNumeric reports an expression without names, with or without decimals.
func isNumeric(e exprNode) bool {
	switch e := e.(type) {
	case *number:
		return true
	case *unary:
		return isNumeric(e.x)
	case *binary:
		return isNumeric(e.x) && isNumeric(e.y)
	}
	return isConstant(e)
}

// expr finds what the names in an expression mean, and reports one that has no
// value whatever the input.
func (r *resolver) expr(e exprNode) {
	eachReference(e, r.lookUp)
	eachPrevious(e, r.findBefore)
	if isConstant(e) {
		if _, wrong := evaluated(e, nil); wrong != nil {
			r.wrong(wrong.pos, "%s", wrong.text)
		}
	}
}

func (r *resolver) lookUp(e *reference) {
	up, f := r.find(e.name)
	if f == nil {
		up, f = r.columnNamed(e.name)
	}
	if f == nil {
		if below, ok := r.below[e.name]; ok && (below.Line > e.pos.Line || below.Line == e.pos.Line && below.Column > e.pos.Column) {
			r.wrong(e.pos, "%s is declared below this, in line %d; put that before it", e.name, below.Line)
			return
		}
		if names := r.names(); len(names) > 0 {
			r.wrong(e.pos, "%s is not declared before this; %s", e.name, settings.Nearest(e.name, names))
		} else {
			r.wrong(e.pos, "%s is not declared before this; no name is", e.name)
		}
		return
	}
	e.up, e.field = up, f
	f.needed = true
}

// truth reports expressions of the wrong type: a condition where a number is
// wanted, or the other way round.
func (r *resolver) truth(e exprNode, wanted bool) {
	wrong := func(is string) {
		if wanted {
			r.wrong(e.place(), "%s is %s; a condition was expected, such as %s > 0", e, is, e)
		}
	}
	switch e := e.(type) {
	case *number:
		if e.decimal != "" && !wanted {
			return // told by bounds
		}
		wrong("a number")
	case *reference:
		wrong("a number")
		r.isNumber(e)
	case *unary:
		if e.op == "not" {
			r.logical(e, wanted)
			r.truth(e.x, true)
			return
		}
		wrong("a number")
		r.truth(e.x, false)
	case *binary:
		switch levels[e.op] {
		case levels["and"], levels["or"]:
			r.logical(e, wanted)
			r.truth(e.x, true)
			r.truth(e.y, true)
		case levels["="]:
			r.logical(e, wanted)
			if e.reals = ofReals(e.x) || ofReals(e.y); e.reals {
				r.real(e.x)
				r.real(e.y)
				return
			}
			r.truth(e.x, false)
			r.truth(e.y, false)
		default:
			wrong("a number")
			r.truth(e.x, false)
			r.truth(e.y, false)
		}
	case *call:
		wrong("a number")
		r.arguments(e)
	}
}

func (r *resolver) logical(e exprNode, wanted bool) {
	if !wanted {
		r.wrong(e.place(), "%s is a condition; a number was expected", e)
	}
}

// isNumber reports a name that stands for no single integer.
func (r *resolver) isNumber(e *reference) {
	if e.field == nil {
		return
	}
	v := e.field.Value
	many := len(v.Dims) > 0 || v.traits().list || e.field.ofEdges
	switch {
	case !v.traits().integers:
		r.wrong(e.pos, "%s is of %s, not an integer", e.name, v.Base)
	case many && e.index == nil:
		r.wrong(e.pos, "%s is many integers; write %s[0], or len, sum, min or max of it", e.name, e.name)
	case !many && e.index != nil:
		r.wrong(e.pos, "%s is one integer, and has no elements", e.name)
	case len(v.Dims) > 1:
		r.wrong(e.pos, "an element of %s, which has two dimensions, cannot be named", e.name)
	}
	if e.index != nil {
		r.truth(e.index, false)
	}
}

func (r *resolver) arguments(c *call) {
	if c.name == "count" {
		r.countArguments(c)
		return
	}
	if len(c.args) > 1 || c.name == "abs" {
		for _, a := range c.args {
			r.truth(a, false)
		}
		return
	}
	const ofAll = "the characters of all tokens are bounded in a repeat: repeat n { s: token(1..9, \"a-z\"); total len(s) <= 1e6 }"
	e, ok := c.args[0].(*reference)
	if inner, isCall := c.args[0].(*call); isCall && c.name == "sum" && inner.name == "len" {
		r.wrong(c.args[0].place(), "%s", ofAll)
		return
	}
	if !ok || e.index != nil {
		r.wrong(c.args[0].place(), "%s takes the name of an array", c.name)
		return
	}
	if e.field == nil {
		return
	}
	v := e.field.Value
	switch {
	case c.name == "len":
	case c.name == "sum" && v.Set != nil:
		r.wrong(e.pos, "%s takes integers, and %s is of %s; %s", c.name, e.name, v.Base, ofAll)
	case !v.traits().integers:
		r.wrong(e.pos, "%s takes integers, and %s is of %s", c.name, e.name, v.Base)
	case c.name != "len" && e.field.single():
		r.wrong(e.pos, "%s takes an array, and %s is one integer", c.name, e.name)
	}
}

// constant returns the value of an expression without names.
func constant(e exprNode) (int64, bool) {
	if !isConstant(e) {
		return 0, false
	}
	n, wrong := evaluated(e, nil)
	return n, wrong == nil
}

func isConstant(e exprNode) bool {
	switch e := e.(type) {
	case *number:
		return e.decimal == ""
	case *unary:
		return isConstant(e.x)
	case *binary:
		return isConstant(e.x) && isConstant(e.y)
	case *call:
		return len(e.args) > 1 && !slices.ContainsFunc(e.args, func(a exprNode) bool { return !isConstant(a) }) || e.name == "abs" && isConstant(e.args[0])
	}
	return false
}

// either makes sure that the branches can be told apart by what stands first: a
// literal token, or the number of tokens on the first line.
func (r *resolver) either(e *eitherNode) {
	e.slot = r.now.slot()
	for _, branch := range e.Branches {
		if !reads(branch) {
			r.wrong(e.Pos, "a branch has no line in it")
		}
		e.bodies = append(e.bodies, r.inside(func() { r.items(branch, false) }))
		first, count := firstLine(branch)
		e.first, e.count = append(e.first, first), append(e.count, count)
		e.ambiguous = e.ambiguous || first == ""
	}
	for i := range e.Branches {
		for j := range i {
			literals := e.first[i] != "" && e.first[j] != "" && e.first[i] != e.first[j]
			counts := e.count[i] >= 0 && e.count[j] >= 0 && e.count[i] != e.count[j]
			if !literals && !counts {
				r.wrong(e.Pos, "branches %d and %d cannot be told apart: let their first lines begin with different tokens in quotes, or have different numbers of tokens", j+1, i+1)
			}
		}
	}
}

// firstLine returns the first token of some items, if it is a literal, and how many
// tokens their first line has; -1 if that is not known.
func firstLine(items []node) (literal string, count int) {
	for _, item := range items {
		switch item := item.(type) {
		case *requireNode, *scaleItem:
			continue
		case *blankNode:
			return "", 0
		case *lineNode:
			if item.Fields[0].Value == nil {
				literal, _, _ = strings.Cut(item.Fields[0].Literal, " ")
			}
			for i, f := range item.Fields {
				if f.Joined { // where a value holds no blank, its strings say how many tokens there are
					if i == 1 && !strings.Contains(item.Fields[0].Literal, " ") {
						literal = ""
					}
					return literal, -1
				}
				n, ok := tokens(f)
				if !ok {
					return literal, -1
				}
				count += n
			}
			return literal, count
		case *casesNode:
			return "", 1
		default:
			return "", -1
		}
	}
	return "", -1
}

// tokens returns how many tokens a field has on its first line, where that is
// always the same.
func tokens(f *fieldNode) (n int, ok bool) {
	v := f.Value
	switch {
	case v == nil:
		return len(strings.Fields(f.Literal)), true
	case v.Base == typeText, v.Base == typeGrid:
		return 0, false
	case v.Base == typeTree || v.Base == typeGraph:
		return 2 + len(v.With), false
	case v.Base == typePerm, v.Base == typeParents:
		n, ok := constant(v.Args[0])
		return int(n), ok
	case v.Base == typeToken && v.Length.Range != nil || v.Base == typeToken && !isConstant(v.Length.Exact):
		return 1, len(v.Dims) == 0 && leastLength(v.Length) > 0
	case len(v.Dims) == 0, v.Down:
		return 1, true
	}
	d := v.Dims[len(v.Dims)-1]
	if d.Exact == nil {
		return 0, false
	}
	c, ok := constant(d.Exact)
	return int(c), ok
}

func leastLength(l *lengthNode) int64 {
	n, ok := constant(l.least())
	if !ok {
		return 0
	}
	return n
}

func (p Pos) String() string { return fmt.Sprintf("%d:%d", p.Line, p.Column) }

// everyField visits all fields of some items, those of blocks included.
func everyField(list []node, do func(f *fieldNode)) {
	for _, item := range list {
		switch item := item.(type) {
		case *lineNode:
			for _, f := range item.Fields {
				do(f)
			}
		case *casesNode:
			do(item.Count)
			everyField(item.Items, do)
		case *repeatNode:
			everyField(item.Items, do)
		case *eitherNode:
			for _, b := range item.Branches {
				everyField(b, do)
			}
		}
	}
}
