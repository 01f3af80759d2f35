package shape

import (
	"fmt"
	"math/bits"
	"strconv"
	"strings"
)

// A Size is how large an input is to be, from 0, the smallest that is valid, to
// Largest. In between counts grow geometrically: at half the size a count of up to
// 1,000,000 is bounded by 1,000.
type Size int32

// Largest is the size of the largest inputs.
const Largest Size = 1 << 20

// ParseSize reads a size as people write it, a decimal from 0 to 1. What it returns
// is the same on every machine.
func ParseSize(text string) (Size, error) {
	whole, fraction, _ := strings.Cut(text, ".")
	if fraction == "" {
		fraction = "0"
	}
	fraction = (fraction + "000000")[:max(6, min(9, len(fraction)))]
	w, err := strconv.ParseUint(whole+strings.Repeat("0", truthOf(whole == "")), 10, 8)
	f, err2 := strconv.ParseUint(fraction, 10, 64)
	if text == "" || err != nil || err2 != nil || w > 1 || w == 1 && f > 0 {
		return 0, fmt.Errorf("%q is no size; write a decimal from 0 to 1, such as 0.5", text)
	}
	if w == 1 {
		return Largest, nil
	}
	for range len(fraction) - 6 {
		f /= 10
	}
	return Size(f * uint64(Largest) / 1_000_000), nil
}

func truthOf(b bool) int { return int(truth(b)) }

// String writes a size as ParseSize reads it.
func (s Size) String() string {
	digits := min(9999, (int64(s%Largest)*10_000+int64(Largest)/2)/int64(Largest)) // only Largest is 1
	text := fmt.Sprintf("%d.%04d", s/Largest, digits)
	return strings.TrimSuffix(strings.TrimRight(text, "0"), ".")
}

// Written is the size that ParseSize reads from what String writes, which has four
// digits behind the point.
func (s Size) Written() Size {
	w, err := ParseSize(s.String())
	if err != nil { // it is none
		return s
	}
	return w
}

// of returns n to the power of a size, from 1 to n: the place that divides the way
// from 1 to n, on a scale of logarithms, as the size divides that from 0 to 1. It
// is found by halving the way, with square roots of integers.
func (s Size) of(n uint64) uint64 {
	switch {
	case s <= 0 || n <= 1:
		return min(n, 1)
	case s >= Largest:
		return n
	}
	const fine = 16 // bits behind the point, as far as there is room
	room := min(fine, bits.LeadingZeros64(n))
	low, high := uint64(1)<<room, n<<room
	for bit := Largest / 2; bit > 0 && low < high; bit /= 2 {
		middle := rootOfProduct(low, high)
		if s&bit != 0 {
			low = middle
		} else {
			high = middle
		}
	}
	return min(n, (low+(1<<room)/2)>>room)
}

// rootOfProduct is the square root of a product, rounded down.
func rootOfProduct(a, b uint64) uint64 {
	high, low := bits.Mul64(a, b)
	length := bits.Len64(low)
	if high > 0 {
		length = 64 + bits.Len64(high)
	}
	var root uint64
	for bit := uint64(1) << ((max(1, length) - 1) / 2); bit > 0; bit >>= 1 {
		try := root | bit
		if h, l := bits.Mul64(try, try); h < high || h == high && l <= low {
			root = try
		}
	}
	return root
}
