package shape

import (
	"math/big"
	"slices"
)

// Comparisons of decimals are exact: of the fractions that are written. They stand in requirements, and in the bounds of
// real.

// ofReals reports that decimals, or names of decimals, stand in an expression.
func ofReals(e exprNode) (found bool) {
	if decimalIn(e) != nil {
		return true
	}
	eachReference(e, func(r *reference) { found = found || r.field != nil && r.field.Value.Base == typeReal })
	return found
}

// real reports what has no value as a decimal.
func (r *resolver) real(e exprNode) {
	switch e := e.(type) {
	case *number:
	case *reference:
		switch {
		case e.field == nil:
		case e.field.Value.Base != typeReal:
			r.isNumber(e)
		case len(e.field.Value.Dims) > 1:
			r.wrong(e.pos, "an element of %s, which has two dimensions, cannot be named", e.name)
		case len(e.field.Value.Dims) == 1 && e.index == nil || e.field.ofEdges:
			r.wrong(e.pos, "%s is many decimals; write %s[0], or sum, min or max of it", e.name, e.name)
		case len(e.field.Value.Dims) == 0 && e.index != nil:
			r.wrong(e.pos, "%s is one decimal, and has no elements", e.name)
		case e.index != nil:
			r.truth(e.index, false)
		}
	case *unary:
		if e.op == "not" {
			r.truth(e, false)
			return
		}
		r.real(e.x)
	case *binary:
		if !slices.Contains([]string{"+", "-", "*", "/"}, e.op) {
			r.wrong(e.place(), "%s has no value: decimals are added, subtracted, multiplied and divided only", e)
			return
		}
		r.real(e.x)
		r.real(e.y)
	case *call:
		if r.wholeReals(e) == nil && ofReals(e) {
			r.wrong(e.pos, "%s has no value: of decimals there are sum, min and max of an array", e)
		} else if !ofReals(e) {
			r.truth(e, false)
		}
	default:
		r.truth(e, false)
	}
}

// wholeReals is the array of decimals that sum, min or max is of; nil: it is of another.
func (r *resolver) wholeReals(c *call) *reference {
	if len(c.args) != 1 || !slices.Contains([]string{"sum", "min", "max"}, c.name) {
		return nil
	}
	e, ok := c.args[0].(*reference)
	if !ok || e.index != nil || e.field == nil || e.field.Value.Base != typeReal || len(e.field.Value.Dims) == 0 {
		return nil
	}
	return e
}

// decimal is what a name holds, as it is written; "" where that is no decimal.
func (e *reference) decimal(f *frame) string {
	if e.field == nil || e.field.Value.Base != typeReal {
		return ""
	}
	texts, i := e.datum(f).texts, int64(0)
	if e.index != nil {
		i = e.index.eval(f)
	}
	if i < 0 || i >= int64(len(texts)) {
		fail(e.pos, "%s is past the end of %s, which has %d elements, counted from 0", e, e.name, len(texts))
	}
	return texts[i]
}

// exact is the value of a name that holds decimals; nil: it holds others.
func (e *reference) exact(f *frame) *big.Rat {
	text := e.decimal(f)
	if text == "" {
		return nil
	}
	x, _ := new(big.Rat).SetString(text)
	return x
}

// exactOfAll is the sum, the min or the max of decimals.
func (e *call) exactOfAll(f *frame) *big.Rat {
	r, ok := e.args[0].(*reference)
	if !ok || len(e.args) != 1 || r.field == nil || r.field.Value.Base != typeReal {
		return nil
	}
	var all *big.Rat
	for _, text := range r.datum(f).texts {
		x, _ := new(big.Rat).SetString(text)
		switch {
		case x == nil:
		case all == nil, e.name == "min" && x.Cmp(all) < 0, e.name == "max" && x.Cmp(all) > 0:
			all = x
		case e.name == "sum":
			all.Add(all, x)
		}
	}
	if all == nil && e.name == "sum" {
		return new(big.Rat)
	}
	if all == nil {
		fail(e.pos, "%s of nothing", e.name)
	}
	return all
}

// compareReals compares decimals exactly.
func (e *binary) compareReals(f *frame) int64 {
	x, y := rational(e.x, f), rational(e.y, f)
	if x == nil || y == nil {
		return fail(e.place(), "%s has no value here", e)
	}
	switch c := x.Cmp(y); e.op {
	case "=":
		return truth(c == 0)
	case "!=":
		return truth(c != 0)
	case "<":
		return truth(c < 0)
	case "<=":
		return truth(c <= 0)
	case ">":
		return truth(c > 0)
	default:
		return truth(c >= 0)
	}
}
