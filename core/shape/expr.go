package shape

import (
	"fmt"
	"math"
	"strconv"
)

// An exprNode is an expression over integers, or over truths.
type exprNode interface {
	// eval returns its value; a truth is 0 or 1.
	eval(f *frame) int64
	// place is where it begins.
	place() Pos
	// String writes it as a person would.
	String() string
}

type (
	number struct {
		pos     Pos
		value   int64
		decimal string // of a decimal, as written; value is not used
	}
	// A reference is a name, or an element of what has that name.
	reference struct {
		pos   Pos
		name  string
		index exprNode   // nil: the whole
		up    int        // how many blocks above its own the name is declared
		field *fieldNode // that declares it
	}
	unary struct {
		pos Pos
		op  string // "-" or "not"
		x   exprNode
	}
	binary struct {
		pos   Pos
		op    string
		x, y  exprNode
		reals bool // it compares decimals
	}
	call struct {
		pos  Pos
		name string
		args []exprNode
	}
)

func (e *number) place() Pos    { return e.pos }
func (e *reference) place() Pos { return e.pos }
func (e *unary) place() Pos     { return e.pos }
func (e *binary) place() Pos    { return e.x.place() }
func (e *call) place() Pos      { return e.pos }

func (e *number) String() string {
	if e.decimal != "" {
		return e.decimal
	}
	return strconv.FormatInt(e.value, 10)
}

func (e *reference) String() string {
	if e.index != nil {
		return e.name + "[" + e.index.String() + "]"
	}
	return e.name
}

func (e *unary) String() string {
	if e.op == "not" {
		return "not " + e.x.String()
	}
	return e.op + e.x.String()
}

func (e *binary) String() string {
	side := func(x exprNode, grouped bool) string {
		b, ok := x.(*binary)
		if ok && (levels[b.op] < levels[e.op] || levels[b.op] == levels[e.op] && !grouped) {
			return "(" + x.String() + ")"
		}
		return x.String()
	}
	left, right := side(e.x, e.op != "^"), side(e.y, e.op == "^")
	if levels[e.op] >= levels["*"] {
		return left + e.op + right
	}
	return left + " " + e.op + " " + right
}

func (e *call) String() string {
	text := e.name + "("
	for i, a := range e.args {
		if i > 0 {
			text += ", "
		}
		text += a.String()
	}
	return text + ")"
}

// eachReference visits the names in an expression, those in an index included.
func eachReference(e exprNode, do func(*reference)) {
	switch e := e.(type) {
	case *reference:
		do(e)
		if e.index != nil {
			eachReference(e.index, do)
		}
	case *unary:
		eachReference(e.x, do)
	case *binary:
		eachReference(e.x, do)
		eachReference(e.y, do)
	case *call:
		for _, a := range e.args {
			eachReference(a, do)
		}
	case *previous:
		eachReference(e.first, do)
	}
}

// eachPrevious visits what an expression asks of the body before.
func eachPrevious(e exprNode, do func(*previous)) {
	switch e := e.(type) {
	case *reference:
		if e.index != nil {
			eachPrevious(e.index, do)
		}
	case *unary:
		eachPrevious(e.x, do)
	case *binary:
		eachPrevious(e.x, do)
		eachPrevious(e.y, do)
	case *call:
		for _, a := range e.args {
			eachPrevious(a, do)
		}
	case *previous:
		do(e)
		eachPrevious(e.first, do)
	}
}

// eachCall visits the calls in an expression.
func eachCall(e exprNode, do func(*call)) {
	switch e := e.(type) {
	case *unary:
		eachCall(e.x, do)
	case *binary:
		eachCall(e.x, do)
		eachCall(e.y, do)
	case *call:
		do(e)
		for _, a := range e.args {
			eachCall(a, do)
		}
	}
}

// levels are how tightly operators bind.
var levels = map[string]int{
	"or": 1, "and": 2, "=": 4, "!=": 4, "<": 4, "<=": 4, ">": 4, ">=": 4, "+": 5, "-": 5, "*": 6, "/": 6, "%": 6, "^": 8,
}

// A trouble is why an expression has no value.
type trouble struct {
	pos  Pos
	text string
}

func (t trouble) Error() string { return t.text }

func fail(pos Pos, format string, args ...any) int64 {
	panic(trouble{pos, fmt.Sprintf(format, args...)})
}

// evaluated returns an expression's value, or why it has none.
func evaluated(e exprNode, f *frame) (n int64, wrong *trouble) {
	if why, ok := expected[trouble](attempt(func() { n = e.eval(f) })); ok {
		return 0, &why
	}
	return n, nil
}

func (e *number) eval(*frame) int64 { return e.value }

func (e *reference) eval(f *frame) int64 {
	d := e.datum(f)
	if e.index == nil {
		if len(d.ints) != 1 {
			return fail(e.pos, "%s is not known here", e.name)
		}
		return d.ints[0]
	}
	i := e.index.eval(f)
	if i < 0 || i >= int64(len(d.ints)) {
		return fail(e.pos, "%s is past the end of %s, which has %d elements, counted from 0", e, e.name, len(d.ints))
	}
	return d.ints[i]
}

func (e *unary) eval(f *frame) int64 {
	x := e.x.eval(f)
	if e.op == "not" {
		return 1 - x
	}
	if x == math.MinInt64 {
		return fail(e.pos, "%s is past 64 bits", e)
	}
	return -x
}

func truth(b bool) int64 {
	if b {
		return 1
	}
	return 0
}

func (e *binary) eval(f *frame) int64 {
	if e.reals {
		return e.compareReals(f)
	}
	x := e.x.eval(f)
	switch e.op {
	case "and":
		if x == 0 {
			return 0
		}
		return e.y.eval(f)
	case "or":
		if x != 0 {
			return 1
		}
		return e.y.eval(f)
	}
	y := e.y.eval(f)
	switch e.op {
	case "=":
		return truth(x == y)
	case "!=":
		return truth(x != y)
	case "<":
		return truth(x < y)
	case "<=":
		return truth(x <= y)
	case ">":
		return truth(x > y)
	case ">=":
		return truth(x >= y)
	}
	n, ok := arithmetic(e.op, x, y)
	if !ok {
		if y == 0 && (e.op == "/" || e.op == "%") {
			return fail(e.pos, "%s divides by zero", e)
		}
		return fail(e.pos, "%s is past 64 bits", e)
	}
	return n
}

// arithmetic computes in 64 bits, and reports whether that was enough. Division
// is that of floors, and a remainder has the sign of the divisor.
func arithmetic(op string, x, y int64) (n int64, ok bool) {
	switch op {
	case "+":
		n = x + y
		return n, (n > x) == (y > 0)
	case "-":
		n = x - y
		return n, (n < x) == (y > 0)
	case "*":
		if x == 0 || y == 0 {
			return 0, true
		}
		n = x * y
		return n, n/y == x && !(x == -1 && y == math.MinInt64) && !(y == -1 && x == math.MinInt64)
	case "/", "%":
		if y == 0 || x == math.MinInt64 && y == -1 {
			return 0, false
		}
		q, r := x/y, x%y
		if r != 0 && (r < 0) != (y < 0) {
			q, r = q-1, r+y
		}
		if op == "/" {
			return q, true
		}
		return r, true
	}
	return power(x, y)
}

func power(x, y int64) (n int64, ok bool) {
	if y < 0 {
		return 0, false
	}
	if x == 0 || x == 1 || y == 0 {
		return truth(y == 0 || x == 1), true
	}
	if x == -1 {
		return 1 - 2*(y&1), true
	}
	for n = 1; y > 0; y-- {
		if n, ok = arithmetic("*", n, x); !ok {
			return 0, false
		}
	}
	return n, true
}

// functions are what an expression may call, with how many arguments; -1 is two
// or more.
var functions = map[string]int{"len": 1, "sum": 1, "min": -1, "max": -1, "abs": 1, "count": 2, "before": 2}

func (e *call) eval(f *frame) int64 {
	whole := func() *datum { return e.args[0].(*reference).datum(f) }
	switch e.name {
	case "count":
		return counted(e, whole(), f)
	case "len":
		return whole().length()
	case "sum":
		total, ok := sumOf(whole().ints)
		if !ok {
			return fail(e.pos, "%s is past 64 bits", e)
		}
		return total
	case "abs":
		if x := e.args[0].eval(f); x != math.MinInt64 {
			return max(x, -x)
		}
		return fail(e.pos, "%s is past 64 bits", e)
	}
	best, list := int64(0), e.args
	if len(list) == 1 { // of an array
		ints := whole().ints
		if len(ints) == 0 {
			return fail(e.pos, "%s of nothing", e.name)
		}
		best = ints[0]
		for _, x := range ints[1:] {
			best = better(e.name, best, x)
		}
		return best
	}
	for i, a := range list {
		x := a.eval(f)
		if i == 0 {
			best = x
			continue
		}
		best = better(e.name, best, x)
	}
	return best
}

func better(name string, a, b int64) int64 {
	if name == "min" {
		return min(a, b)
	}
	return max(a, b)
}
