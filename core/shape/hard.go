package shape

import (
	"math/bits"
	"slices"
)

// Styles of arrays that are hard for what programs commonly do: add up in too narrow a type, keep values in one, look
// them up in a table.

// borders are the first integers that a type, or exact counting in it, does not hold: 31, 32, 53 and 63 bits.
var borders = []uint64{1 << 31, 1 << 32, 1 << 53, 1 << 63}

// sums fills an array so that the sum of all is at a border, or one off, where it can be; otherwise with any values.
func sums(r *random, a []int64, v interval) {
	n := uint64(len(a))
	var fits []uint64
	for _, b := range borders {
		// Both ends of the interval are looked at without their own sums, which may pass 64 bits.
		if n > 0 && v.high > 0 && (b-1)/n+1 <= uint64(v.high) && (v.low <= 0 || uint64(v.low) <= (b-2)/n) {
			fits = append(fits, b)
		}
	}
	if len(fits) == 0 {
		uniform(r, a, v)
		return
	}
	sum := fits[r.index(len(fits))] - 2 + r.below(3)
	sum = min(sum, 1<<63-1)
	each, more := int64(sum/n), sum%n
	for i := range a {
		a[i] = each + truth(uint64(i) < more)
	}
	for i := 0; i+1 < len(a); i += 2 { // pairs keep their sum
		by := int64(r.below(uint64(min(a[i]-max(v.low, 0), v.high-a[i+1])) + 1))
		a[i], a[i+1] = a[i]-by, a[i+1]+by
	}
	shuffle(r, a)
}

// wraps fills an array with a few values that are alike in their last 31 or 32 bits, where there are such.
func wraps(r *random, a []int64, v interval) {
	width := uint64(v.high) - uint64(v.low)
	last := 31 + r.index(2)
	if width>>last == 0 {
		last = 31
	}
	turns := width >> last
	if turns == 0 {
		uniform(r, a, v)
		return
	}
	few := []int64{r.between(v.low, v.low+int64(1<<last-1)), r.between(v.low, v.low+int64(1<<last-1))}
	fill(a, func() int64 {
		x := few[r.index(len(few))]
		return x + int64(r.below(min((uint64(v.high)-uint64(x))>>last, 1<<16)+1)<<last)
	})
}

// buckets are how many a hash table has that grows with what is put in, as the containers of C++'s standard library in
// its commonest implementation do; found by trying. A table without an own mixing of keys puts all multiples of that
// number into one of them.
var buckets = []int64{13, 29, 59, 127, 257, 541, 1109, 2357, 5087, 10273, 20753, 42043, 85229, 172933, 351061, 712697, 1447153}

// collisions fills an array with different multiples of a number of buckets, as many as they may be so that the table
// has just so many, again and again.
func collisions(r *random, a []int64, v interval) {
	n, width := int64(len(a)), uint64(v.high)-uint64(v.low)
	at := 0
	for i, b := range buckets {
		different := uint64(min(n, b))
		if width/uint64(b) >= different && (i == 0 || n > buckets[i-1]) {
			at = i
		}
	}
	b := buckets[at]
	first := v.low + (b-v.low%b)%b // the first multiple in the interval
	if v.low%b < 0 {
		first = v.low - v.low%b
	}
	if first > v.high || first < v.low {
		uniform(r, a, v)
		return
	}
	different := min(uint64(b), (uint64(v.high)-uint64(first))/uint64(b)+1, uint64(max(n, 1)))
	for i, x := range r.permutation(len(a)) {
		a[x] = first + int64(uint64(i)%different)*b
	}
}

// ofIntegers are the styles that are about integers as such.
var ofIntegers = []string{"sums", "wraps", "collisions"}

// fitting leaves out of styles those that make no difference within bounds that are known.
func (v *valueNode) fitting(names []string) []string {
	low, ok := constant(v.lowEnd())
	high, ok2 := constant(v.highEnd())
	if v.Base == typeInt && (!ok || !ok2) {
		return names
	}
	length := uint64(1 << 20)
	if len(v.Dims) > 0 && v.Dims[0].Exact != nil {
		if n, ok := constant(v.Dims[0].Exact); ok {
			length = uint64(max(n, 0))
		}
	}
	over, most := bits.Mul64(uint64(max(high, 0)), length)
	return slices.DeleteFunc(slices.Clone(names), func(name string) bool {
		switch {
		case v.Base != typeInt:
			return slices.Contains(ofIntegers, name)
		case name == "sums":
			return over == 0 && most < borders[0]
		case name == "wraps":
			return uint64(high)-uint64(low) < 1<<31
		case name == "collisions":
			return uint64(high)-uint64(low) < 10_000
		}
		return false
	})
}
