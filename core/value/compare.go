package value

import (
	"fmt"
	"math"
	"math/big"
	"slices"
	"sort"
	"strings"
)

// The orders that results may have.
const (
	OuterAnyOrder = "outer" // the elements of the outermost array come in any order
	AllAnyOrder   = "all"   // so do those of every array in it
)

// AnyOrders lists the orders.
func AnyOrders() []string { return []string{OuterAnyOrder, AllAnyOrder} }

// A Comparison says when two values count as equal.
type Comparison struct {
	// Reals are equal if they differ by at most Absolute, or by at most Relative
	// times the expected one. Both 0: only the same are equal; -0.0 is 0.0.
	Absolute, Relative float64
	IgnoreCase         bool   // of texts and chars
	AnyOrder           string // OuterAnyOrder, AllAnyOrder, or empty
}

// A Difference is the first place at which two values differ.
type Difference struct {
	Path          []any // indices, from the outside in
	Expected, Got string
	Reason        string // where the two alone do not say it: "2 elements are missing"
}

// Compare returns the first difference of two values of one type; nil if they are
// equal. In any order it takes n log n steps for n elements, and where reals with
// a tolerance must be paired it may take n² of them.
func (c Comparison) Compare(expected, got any) *Difference {
	if c.AnyOrder != "" {
		return c.unordered(nil, expected, got, c.AnyOrder == AllAnyOrder)
	}
	return c.ordered(nil, expected, got)
}

func (c Comparison) ordered(path []any, expected, got any) *Difference {
	if want, ok := expected.(Object); ok {
		if have, ok := got.(Object); ok {
			return c.members(path, want, have)
		}
	}
	want, isList := expected.([]any)
	have, isToo := got.([]any)
	if !isList || !isToo {
		if c.single(expected, got) {
			return nil
		}
		return &Difference{Path: slices.Clone(path), Expected: Write(expected), Got: Write(got)}
	}
	for i := range min(len(want), len(have)) {
		if d := c.ordered(append(path, i), want[i], have[i]); d != nil {
			return d
		}
	}
	return lengths(path, want, have)
}

// members compares objects, whose names may come in any order.
func (c Comparison) members(path []any, want, have Object) *Difference {
	for _, m := range want {
		v, ok := have.Get(m.Name)
		if !ok {
			return &Difference{Path: append(slices.Clone(path), "."+m.Name), Expected: Write(m.Value), Reason: "it is missing"}
		}
		if d := c.ordered(append(path, "."+m.Name), m.Value, v); d != nil {
			return d
		}
	}
	for _, m := range have {
		if _, ok := want.Get(m.Name); !ok {
			return &Difference{Path: append(slices.Clone(path), "."+m.Name), Got: Write(m.Value), Reason: "it is too much"}
		}
	}
	return nil
}

// lengths is the difference of two arrays of which one is the beginning of the
// other.
func lengths(path []any, want, have []any) *Difference {
	n := min(len(want), len(have))
	d := &Difference{Path: append(slices.Clone(path), n)}
	switch {
	case len(want) == len(have):
		return nil
	case len(have) == n:
		d.Expected, d.Reason = Write(want[n]), amount(len(want)-n, "missing at the end")
	default:
		d.Got, d.Reason = Write(have[n]), amount(len(have)-n, "too many")
	}
	return d
}

func amount(n int, what string) string {
	if n == 1 {
		return "1 element is " + what
	}
	return fmt.Sprintf("%d elements are %s", n, what)
}

// single compares two values that are not both arrays.
func (c Comparison) single(expected, got any) bool {
	switch e := expected.(type) {
	case nil:
		return got == nil
	case bool:
		return got == e
	case int64:
		if g, ok := got.(float64); ok { // of any type, where the tolerance says so
			return c.Absolute+c.Relative > 0 && c.near(float64(e), g)
		}
		return got == e
	case *big.Int:
		g, ok := got.(*big.Int)
		return ok && e.Cmp(g) == 0
	case string:
		g, ok := got.(string)
		return ok && (g == e || c.IgnoreCase && strings.EqualFold(g, e))
	case float64:
		switch g := got.(type) {
		case float64:
			return c.near(e, g)
		case int64:
			return c.Absolute+c.Relative > 0 && c.near(e, float64(g))
		}
		return false
	}
	return false
}

func (c Comparison) near(e, g float64) bool {
	if e == g || math.IsNaN(e) && math.IsNaN(g) {
		return true
	}
	if math.IsInf(e, 0) || math.IsInf(g, 0) {
		return false
	}
	off := math.Abs(e - g)
	return off <= c.Absolute || off <= c.Relative*math.Abs(e)
}

// unordered compares arrays as multisets; deep says that arrays inside them are
// compared so, too.
func (c Comparison) unordered(path []any, expected, got any, deep bool) *Difference {
	want, isList := expected.([]any)
	have, isToo := got.([]any)
	if !isList || !isToo {
		return c.ordered(path, expected, got)
	}
	equal := func(a, b any) bool {
		if deep {
			return c.unordered(nil, a, b, true) == nil
		}
		return c.ordered(nil, a, b) == nil
	}
	missing, extra := pair(c.arranged(want, deep), c.arranged(have, deep), equal)
	if len(missing)+len(extra) == 0 {
		return nil
	}
	d := &Difference{Path: slices.Clone(path)}
	var parts []string
	if len(missing) > 0 {
		d.Expected = Write(want[missing[0]])
		parts = append(parts, amount(len(missing), "missing, in any order"))
	}
	if len(extra) > 0 {
		d.Got, d.Path = Write(have[extra[0]]), append(d.Path, extra[0])
		if len(missing) == 0 {
			parts = append(parts, amount(len(extra), "too many, in any order"))
		}
	}
	d.Reason = strings.Join(parts, "; ")
	return d
}

// A placed is an element of an array with its index.
type placed struct {
	v  any
	at int
}

// arranged sorts the elements of an array so that equal ones, and reals that are
// near each other, lie together.
func (c Comparison) arranged(list []any, deep bool) []placed {
	all := make([]placed, len(list))
	for i, v := range list {
		if deep {
			v = c.canonical(v)
		} else if c.IgnoreCase {
			v = lowered(v)
		}
		all[i] = placed{v, i}
	}
	sort.SliceStable(all, func(i, j int) bool { return order(all[i].v, all[j].v) < 0 })
	return all
}

// canonical sorts the arrays in a value, the innermost first.
func (c Comparison) canonical(v any) any {
	list, ok := v.([]any)
	if !ok {
		if c.IgnoreCase {
			return lowered(v)
		}
		return v
	}
	sorted := make([]any, len(list))
	for i, item := range c.arranged(list, true) {
		sorted[i] = item.v
	}
	return sorted
}

func lowered(v any) any {
	switch v := v.(type) {
	case string:
		return strings.ToLower(v)
	case []any:
		list := make([]any, len(v))
		for i, item := range v {
			list[i] = lowered(item)
		}
		return list
	}
	return v
}

// pair takes equal elements out of two sorted lists and returns the indices, as
// they were before sorting, of those that are left over. Elements that should be
// neighbours may have changed places by a tolerance, so each that does not meet
// its like at once is looked for among all that are left.
func pair(want, have []placed, equal func(a, b any) bool) (missing, extra []int) {
	var left, right []placed
	i, j := 0, 0
	for i < len(want) && j < len(have) {
		switch {
		case equal(want[i].v, have[j].v):
			i, j = i+1, j+1
		case order(want[i].v, have[j].v) <= 0:
			left = append(left, want[i])
			i++
		default:
			right = append(right, have[j])
			j++
		}
	}
	left, right = append(left, want[i:]...), append(right, have[j:]...)
	// The search below is square; where so many are left, they do differ.
	const most = 2000
	for _, w := range left {
		found := -1
		if len(left) <= most && len(right) <= most {
			found = slices.IndexFunc(right, func(h placed) bool { return equal(w.v, h.v) })
		}
		if found < 0 {
			missing = append(missing, w.at)
			continue
		}
		right = slices.Delete(right, found, found+1)
	}
	for _, h := range right {
		extra = append(extra, h.at)
	}
	slices.Sort(missing)
	slices.Sort(extra)
	return missing, extra
}

// order compares any two values, so that they can be sorted.
func order(a, b any) int {
	if ra, rb := rank(a), rank(b); ra != rb {
		return ra - rb
	}
	switch a := a.(type) {
	case bool:
		if a == b.(bool) {
			return 0
		} else if b.(bool) {
			return -1
		}
		return 1
	case int64, *big.Int:
		return toBig(a).Cmp(toBig(b))
	case float64:
		x := b.(float64)
		switch {
		case a < x || math.IsNaN(a) && !math.IsNaN(x):
			return -1
		case a > x || math.IsNaN(x) && !math.IsNaN(a):
			return 1
		}
		return 0
	case string:
		return strings.Compare(a, b.(string))
	case []any:
		return slices.CompareFunc(a, b.([]any), order)
	case Object:
		return strings.Compare(Write(a), Write(b))
	}
	return 0
}

func rank(v any) int {
	switch v.(type) {
	case nil:
		return 0
	case bool:
		return 1
	case int64, *big.Int:
		return 2
	case float64:
		return 3
	case string:
		return 4
	case Object:
		return 6
	}
	return 5
}

func toBig(v any) *big.Int {
	if n, ok := v.(int64); ok {
		return big.NewInt(n)
	}
	return v.(*big.Int)
}

// Leaves returns the single values in a value, in order, at most so many, each as
// it is written; texts are without their quotes.
func Leaves(v any, most int) (leaves []string) {
	var walk func(any)
	walk = func(v any) {
		if len(leaves) >= most {
			return
		}
		if list, ok := v.([]any); ok {
			for _, item := range list {
				walk(item)
			}
			return
		}
		if s, ok := v.(string); ok {
			leaves = append(leaves, s)
			return
		}
		leaves = append(leaves, Write(v))
	}
	walk(v)
	return leaves
}
