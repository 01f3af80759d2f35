package shape

import (
	"fmt"
	"slices"
)

// Kinds of word: a palindrome reads the same from both ends; in a balanced one every bracket is closed by its partner,
// those within before those around.

// brackets are the pairs, by the one that opens.
var brackets = map[rune]rune{'(': ')', '[': ']', '{': '}', '<': '>'}

// pairsOf are the pairs of brackets in a set, and what else is in it.
func (s *charSet) pairsOf() (open []rune, others []rune) {
	for _, r := range s.Runes {
		closing := slices.ContainsFunc(s.Runes, func(o rune) bool { return brackets[o] == r })
		switch {
		case brackets[r] != 0 && s.Has(brackets[r]):
			open = append(open, r)
		case !closing:
			others = append(others, r)
		}
	}
	return open, others
}

// kindFault says what is wrong with a word of a kind; "" where nothing is.
func (v *valueNode) kindFault(word []byte) string {
	if v.Palindrome {
		r := []rune(string(word))
		for i := range len(r) / 2 {
			if r[i] != r[len(r)-1-i] {
				return fmt.Sprintf("is no palindrome: character %d is %c, and its counterpart %c", i+1, r[i], r[len(r)-1-i])
			}
		}
	}
	if v.Balanced {
		var stack []rune
		for i, r := range []rune(string(word)) {
			if brackets[r] != 0 {
				stack = append(stack, brackets[r])
				continue
			}
			closing := false
			for _, c := range brackets {
				closing = closing || c == r
			}
			if !closing {
				continue
			}
			if len(stack) == 0 || stack[len(stack)-1] != r {
				return fmt.Sprintf("is not balanced: character %d, %c, closes nothing", i+1, r)
			}
			stack = stack[:len(stack)-1]
		}
		if len(stack) > 0 {
			return fmt.Sprintf("is not balanced: %d brackets are never closed", len(stack))
		}
	}
	return ""
}

// lengthOfKind is a length that a word of a kind can have, as near as can be; not ok where none is.
func (v *valueNode) lengthOfKind(n, low, high int64) (int64, bool) {
	if !v.Balanced {
		return n, true
	}
	open, others := v.Set.pairsOf()
	switch {
	case n%2 == 0 && len(open) > 0 || len(others) > 0:
		return n, true
	case len(open) == 0:
		return 0, low == 0
	case n+1 <= high:
		return n + 1, true
	}
	return n - 1, n-1 >= low
}

// shaped makes letters of a word a word of its kind: indices into its set.
func (m *maker) shaped(v *valueNode, a []int32) {
	if v.Palindrome {
		for i := range len(a) / 2 {
			a[len(a)-1-i] = a[i]
		}
	}
	if v.Balanced {
		m.balance(v.Set, a)
	}
}

// balance fills letters with balanced brackets: deep, flat, or as it comes; other characters stand between them.
func (m *maker) balance(s *charSet, a []int32) {
	open, others := s.pairsOf()
	index := func(r rune) int32 { return int32(slices.Index(s.Runes, r)) }
	brace := len(a)
	if len(others) > 0 {
		brace = m.index(len(a) + 1)
	}
	if brace -= brace % 2; len(open) == 0 {
		brace = 0
	}
	isBracket := make([]bool, len(a))
	for _, i := range m.some(int64(brace), indices(len(a)), nil) {
		isBracket[i] = true
	}
	form := m.index(3)
	var stack []rune
	left := brace
	for i := range a {
		if !isBracket[i] {
			a[i] = index(others[m.index(len(others))])
			continue
		}
		opens := len(stack) == 0 || len(stack) < left && (form == 0 || form == 2 && m.oneIn(2))
		if left--; opens {
			r := open[m.index(len(open))]
			stack = append(stack, brackets[r])
			a[i] = index(r)
			continue
		}
		a[i] = index(stack[len(stack)-1])
		stack = stack[:len(stack)-1]
	}
}

func indices(n int) []int {
	all := make([]int, n)
	for i := range all {
		all[i] = i
	}
	return all
}
