package compare

import (
	"bytes"
	"math"
	"strconv"
)

// longestNumber bounds what is read as one number, in bytes. A longer word is
// compared as text.
const longestNumber = 64 << 10

// compareNumbers compares word by word; two words that are numbers may differ
// within the tolerances.
func compareNumbers(want, got *text, s Settings) *mismatch {
	within := newTolerance(s)
	var wantWord, gotWord []byte
	for {
		// Between equal words both texts stand at the same kind of place.
		skipCommon(want, got, false, func(equal []byte) int { return lastSpace(equal) + 1 })
		within.skipWords(want, got)
		want.skipGap()
		got.skipGap()
		if p, over := atEnds(want, got); over {
			return p
		}
		wantAt, gotAt := want.place(), got.place()
		wantWord, gotWord = want.word(wantWord[:0]), got.word(gotWord[:0])
		if !within.sameWord(wantWord, gotWord) {
			return &mismatch{want: wantAt, got: gotAt, reason: numberReason(wantWord, gotWord), amount: true}
		}
		if len(wantWord) == longestNumber {
			if p := compareRestOfWord(want, got, s); p != nil {
				return p
			}
		}
	}
}

// skipWords passes over words that count as equal and that lie, with what ends
// them, in the pieces at hand.
func (t *tolerance) skipWords(want, got *text) {
	w, g := want.chunk, got.chunk
	i, j := 0, 0
	for {
		a, b := skipSpaces(w, i), skipSpaces(g, j)
		wordEnd, gotEnd := skipWord(w, a), skipWord(g, b)
		if wordEnd == len(w) || gotEnd == len(g) || !t.sameWord(w[a:wordEnd], g[b:gotEnd]) {
			break
		}
		i, j = wordEnd, gotEnd
	}
	want.advance(i)
	got.advance(j)
}

func skipSpaces(b []byte, i int) int {
	for i < len(b) && isSpace(b[i]) {
		i++
	}
	return i
}

func skipWord(b []byte, i int) int {
	for i < len(b) && (b[i] > ' ' || !isSpace(b[i])) {
		i++
	}
	return i
}

// compareRestOfWord compares byte by byte what is left of two long words.
func compareRestOfWord(want, got *text, s Settings) *mismatch {
	inWord := func(t *text) bool { return t.more() && !isSpace(t.chunk[0]) }
	for {
		w, g := inWord(want), inWord(got)
		if !w && !g {
			return nil
		}
		if w != g || !same(want.chunk[0], got.chunk[0], s.IgnoreCase) {
			return &mismatch{want: want.place(), got: got.place()}
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

// sameWord reports whether two words count as equal: the same bytes, the same
// integer, or numbers of which one at most is spelled as an integer and which
// are within the tolerances.
func (t *tolerance) sameWord(want, got []byte) bool {
	if bytes.Equal(want, got) {
		return true
	}
	if w, ok := readPlain(want); ok {
		if g, ok := readPlain(got); ok && !(w.whole && g.whole) {
			return t.close(w.value(), g.value(), want, got)
		}
	}
	if w, ok := integer(want); ok {
		if g, ok := integer(got); ok {
			return bytes.Equal(w, g)
		}
	}
	if w, ok := number(want); ok {
		if g, ok := number(got); ok {
			return t.close(w, g, want, got)
		}
	}
	if len(want) != len(got) {
		return false
	}
	for i := range want {
		if !same(want[i], got[i], t.ignoreCase) {
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
	if len(digits) == 0 || countDigits(digits) < len(digits) {
		return nil, false
	}
	digits = bytes.TrimLeft(digits, "0")
	if negative && len(digits) > 0 {
		digits = append([]byte{'-'}, digits...)
	}
	return digits, true
}

// countDigits returns how many digits a text begins with.
func countDigits(text []byte) int {
	n := 0
	for n < len(text) && text[n] >= '0' && text[n] <= '9' {
		n++
	}
	return n
}

// number reads a word as a real, in any notation that languages print: digits,
// a sign, exponents, and the words for infinity and for what is no number.
// Hexadecimal and digits set apart by underscores are words. What is too large
// is an infinity.
func number(word []byte) (float64, bool) {
	if !looksLikeReal(word) {
		return wordedNumber(word)
	}
	x, _ := strconv.ParseFloat(string(word), 64) // fails for what is too large only
	return x, true
}

// looksLikeReal reports whether a word is digits with a point and an exponent,
// each of which may be missing.
func looksLikeReal(word []byte) bool {
	if len(word) > 0 && (word[0] == '-' || word[0] == '+') {
		word = word[1:]
	}
	before := countDigits(word)
	word = word[before:]
	after := 0
	if len(word) > 0 && word[0] == '.' {
		after = countDigits(word[1:])
		word = word[1+after:]
	}
	if before+after == 0 || len(word) == 0 {
		return before+after > 0
	}
	if word[0] != 'e' && word[0] != 'E' {
		return false
	}
	word = word[1:]
	if len(word) > 0 && (word[0] == '-' || word[0] == '+') {
		word = word[1:]
	}
	return len(word) > 0 && countDigits(word) == len(word)
}

// wordedNumber reads the words that languages print for infinities and for
// what is no number.
func wordedNumber(word []byte) (float64, bool) {
	if len(word) < 3 || len(word) > len("-Infinity") {
		return 0, false
	}
	sign := 1
	if word[0] == '-' {
		sign = -1
	}
	switch string(bytes.ToLower(bytes.TrimLeft(word, "+-"))) {
	case "inf", "infinity", "∞", "1.#inf":
		return math.Inf(sign), true
	case "nan", "nan(ind)", "1.#ind", "1.#qnan":
		return math.NaN(), true
	}
	return 0, false
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
