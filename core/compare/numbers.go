package compare

import (
	"bytes"
	"errors"
	"math"
	"strconv"
)

// longestNumber bounds what is read as one number, in bytes. A longer word is
// compared as text.
const longestNumber = 64 << 10

// compareNumbers compares word by word; two words that are numbers may differ
// within the tolerances.
func compareNumbers(want, got *text, s Settings) *parting {
	var wantWord, gotWord []byte
	for {
		// Between equal words both texts stand at the same kind of place.
		skipCommon(want, got, func(equal []byte) int { return lastSpace(equal) + 1 })
		want.skipGap()
		got.skipGap()
		if p, over := atEnds(want, got); over {
			return p
		}
		wantAt, gotAt := want.place(), got.place()
		wantWord, gotWord = want.word(wantWord[:0]), got.word(gotWord[:0])
		if !sameWord(wantWord, gotWord, s) {
			return &parting{want: wantAt, got: gotAt, reason: numberReason(wantWord, gotWord)}
		}
		if len(wantWord) == longestNumber {
			if p := compareRestOfWord(want, got, s); p != nil {
				return p
			}
		}
	}
}

// compareRestOfWord compares byte by byte what is left of two long words.
func compareRestOfWord(want, got *text, s Settings) *parting {
	inWord := func(t *text) bool { return t.more() && !isSpace(t.chunk[0]) }
	for {
		w, g := inWord(want), inWord(got)
		if !w && !g {
			return nil
		}
		if w != g || !same(want.chunk[0], got.chunk[0], s.IgnoreCase) {
			return &parting{want: want.place(), got: got.place()}
		}
		want.advance(1)
		got.advance(1)
	}
}

// word appends the word that t stands at to buffer, up to longestNumber bytes.
func (t *text) word(buffer []byte) []byte {
	for t.more() && len(buffer) < longestNumber {
		n := 0
		for n < len(t.chunk) && len(buffer)+n < longestNumber && !isSpace(t.chunk[n]) {
			n++
		}
		if n == 0 {
			break
		}
		buffer = append(buffer, t.chunk[:n]...)
		t.advance(n)
	}
	return buffer
}

func lastSpace(b []byte) int {
	i := len(b) - 1
	for i >= 0 && !isSpace(b[i]) {
		i--
	}
	return i
}

func sameWord(want, got []byte, s Settings) bool {
	if bytes.Equal(want, got) {
		return true
	}
	if w, ok := integer(want); ok {
		if g, ok := integer(got); ok {
			return bytes.Equal(w, g)
		}
	}
	if w, ok := number(want); ok {
		if g, ok := number(got); ok {
			return within(w, g, s)
		}
	}
	if len(want) != len(got) {
		return false
	}
	for i := range want {
		if !same(want[i], got[i], s.IgnoreCase) {
			return false
		}
	}
	return true
}

// integer returns the digits of a word that is spelled as an integer, with a
// minus where it is below zero, and without a plus or leading zeros: two words
// are the same integer if these are equal. Any number of digits will do.
func integer(word []byte) ([]byte, bool) {
	digits := word
	negative := false
	if len(digits) > 0 && (digits[0] == '-' || digits[0] == '+') {
		negative = digits[0] == '-'
		digits = digits[1:]
	}
	if len(digits) == 0 {
		return nil, false
	}
	for _, c := range digits {
		if c < '0' || c > '9' {
			return nil, false
		}
	}
	digits = bytes.TrimLeft(digits, "0")
	if negative && len(digits) > 0 {
		digits = append([]byte{'-'}, digits...)
	}
	return digits, true
}

// number reads a word as a real, in any notation that languages print:
// digits, exponents, inf and nan. Hexadecimal and digits set apart by
// underscores are words.
func number(word []byte) (float64, bool) {
	if len(word) == 0 || bytes.ContainsAny(word, "xX_pP") {
		return 0, false
	}
	x, err := strconv.ParseFloat(string(word), 64)
	if errors.Is(err, strconv.ErrRange) {
		err = nil // too large: an infinity
	}
	return x, err == nil
}

func within(want, got float64, s Settings) bool {
	if math.IsNaN(want) || math.IsNaN(got) {
		return math.IsNaN(want) && math.IsNaN(got)
	}
	if math.IsInf(want, 0) || math.IsInf(got, 0) {
		return want == got
	}
	off := math.Abs(want - got)
	return off <= s.Absolute || off <= s.Relative*math.Abs(want)
}

// numberReason says by how much two numbers differ.
func numberReason(want, got []byte) string {
	w, ok := number(want)
	g, ok2 := number(got)
	if !ok || !ok2 || math.IsNaN(w-g) || math.IsInf(w-g, 0) {
		return ""
	}
	return "off by " + strconv.FormatFloat(math.Abs(w-g), 'g', 3, 64)
}
