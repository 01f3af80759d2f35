package shape

import (
	"math/bits"
	"math/rand/v2"
)

// A random draws with integer arithmetic only, so that it draws the same on every
// machine. The generator is PCG (O'Neill, 2014), whose results math/rand/v2
// promises; what is drawn from it is computed here, since what that package
// computes may change.
type random struct{ pcg rand.PCG }

func newRandom(seed uint64) *random {
	return &random{*rand.NewPCG(seed, 0x486f6172_66726f73)}
}

// below draws one of 0 to n - 1, each alike: multiplication, with the few draws
// refused that would favour some (Lemire, 2019). n is positive.
func (r *random) below(n uint64) uint64 {
	high, low := bits.Mul64(r.pcg.Uint64(), n)
	if low < n {
		for least := -n % n; low < least; {
			high, low = bits.Mul64(r.pcg.Uint64(), n)
		}
	}
	return high
}

// index draws an index of n elements.
func (r *random) index(n int) int { return int(r.below(uint64(n))) }

// between draws an integer from low to high, both included.
func (r *random) between(low, high int64) int64 {
	if count := uint64(high) - uint64(low) + 1; count != 0 {
		return low + int64(r.below(count))
	}
	return int64(r.pcg.Uint64())
}

// oneIn reports true once in n draws.
func (r *random) oneIn(n uint64) bool { return r.below(n) == 0 }

// magnitude draws an integer from low to high so that small distances from low are
// as likely as large ones.
func (r *random) magnitude(low, high int64) int64 {
	width := uint64(high) - uint64(low)
	return low + int64(min(r.below(1+width>>r.below(uint64(bits.Len64(width))+1)), width))
}

// shuffle brings elements into an order of which each is alike (Fisher and Yates,
// 1938; Durstenfeld, 1964).
func shuffle[T any](r *random, list []T) {
	for i := len(list) - 1; i > 0; i-- {
		j := r.index(i + 1)
		list[i], list[j] = list[j], list[i]
	}
}

// permutation returns 0 to n - 1 in an order of which each is alike.
func (r *random) permutation(n int) []int32 {
	list := make([]int32, n)
	for i := range list {
		list[i] = int32(i)
	}
	shuffle(r, list)
	return list
}

// sample draws k different ones of 0 to n - 1, in an order of which each is alike:
// the start of a permutation where they are many of n, and otherwise by drawing
// again what was drawn before. k is at most n.
func (r *random) sample(k int, n uint64) []uint64 {
	if n <= 4*uint64(k) {
		all := make([]uint64, n)
		for i := range all {
			all[i] = uint64(i)
		}
		for i := range k {
			j := i + r.index(len(all)-i)
			all[i], all[j] = all[j], all[i]
		}
		return all[:k]
	}
	drawn := newNumbers(k)
	list := make([]uint64, 0, k)
	for len(list) < k {
		if x := r.below(n); drawn.add(x) {
			list = append(list, x)
		}
	}
	return list
}

// A Source draws as the maker does, for what generates inputs in another way.
type Source struct{ r *random }

// NewSource returns a source that begins at a seed.
func NewSource(seed Seed) *Source { return &Source{newRandom(uint64(seed))} }

// Between draws an integer from low to high, both included, each alike. low is at
// most high.
func (s *Source) Between(low, high int64) int64 { return s.r.between(low, high) }

// Permutation returns 0 to n - 1 in an order of which each is alike.
func (s *Source) Permutation(n int) []int32 { return s.r.permutation(n) }

// Sample draws k different integers from low to high, in an order of which each is
// alike. There are so many.
func (s *Source) Sample(k int, low, high int64) []int64 {
	list := make([]int64, k)
	for i, x := range s.r.sample(k, uint64(high)-uint64(low)+1) {
		list[i] = low + int64(x)
	}
	return list
}

// numbers is a set of integers below 2^64 - 1, in a table with open addresses that
// is at most half full.
type numbers struct {
	slots []uint64 // one more than a number; 0: free
	shift int
	used  int
}

func newNumbers(n int) *numbers {
	size := bits.Len(uint(max(n, 4)*2 - 1))
	return &numbers{slots: make([]uint64, 1<<size), shift: 64 - size}
}

// at returns where a number is, or would be.
func (s *numbers) at(x uint64) int {
	i := int(x * 0x9e3779b97f4a7c15 >> s.shift)
	for s.slots[i] != 0 && s.slots[i] != x+1 {
		i = (i + 1) & (len(s.slots) - 1)
	}
	return i
}

// add reports whether a number is new.
func (s *numbers) add(x uint64) bool {
	i := s.at(x)
	if s.slots[i] != 0 {
		return false
	}
	s.slots[i] = x + 1
	if s.used++; 2*s.used > len(s.slots) {
		larger := newNumbers(2 * s.used)
		for _, y := range s.slots {
			if y != 0 {
				larger.slots[larger.at(y-1)] = y
			}
		}
		s.slots, s.shift = larger.slots, larger.shift
	}
	return true
}
