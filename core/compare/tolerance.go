package compare

import (
	"bytes"
	"math"
	"math/big"
	"strconv"
)

// A tolerance decides whether two numbers are close enough. It decides on the
// decimal numbers as they are spelled, not on what floating point makes of
// them: 1.000001 is within 1e-6 of 1, and 1e400 is not within anything of
// 2e400. Floating point decides only where its rounding cannot matter.
type tolerance struct {
	absolute, relative float64
	exactly            [2]decimal // the same two, as a person writes them
	ignoreCase         bool       // for words that are no numbers
}

func newTolerance(s Settings) *tolerance {
	t := &tolerance{absolute: s.Absolute, relative: s.Relative, ignoreCase: s.IgnoreCase}
	for i, x := range []float64{s.Absolute, s.Relative} {
		t.exactly[i] = readDecimal(strconv.AppendFloat(nil, x, 'e', -1, 64))
	}
	return t
}

// close reports whether got, of which g is the nearest floating-point number,
// is within the tolerances of want.
func (t *tolerance) close(w, g float64, want, got []byte) bool {
	if math.IsNaN(w) || math.IsNaN(g) {
		return math.IsNaN(w) && math.IsNaN(g)
	}
	if math.IsInf(w, 0) || math.IsInf(g, 0) {
		// Digits, too, can be too large for floating point.
		wantDigits, gotDigits := looksLikeReal(want), looksLikeReal(got)
		if wantDigits && gotDigits {
			return t.exactlyClose(want, got)
		}
		return !wantDigits && !gotDigits && w == g
	}
	const rounding = 1.0 / (1 << 50) // several times the relative error of all that is computed here
	least := math.SmallestNonzeroFloat64 / rounding
	off, most := math.Abs(w-g), max(t.absolute, t.relative*math.Abs(w))
	doubt := (math.Abs(w)+math.Abs(g)+most)*rounding + least
	switch {
	case off+doubt < most:
		return true
	case off-doubt > most:
		return false
	}
	return t.exactlyClose(want, got)
}

// A decimal is ±0.DIGITS × 10^exponent. Its digits begin with no zero; those
// of zero are empty.
type decimal struct {
	negative bool
	digits   []byte
	exponent int64
}

// farApart is by how many powers of ten two numbers must differ for the
// smaller not to count beside the larger.
const farApart = 2 * longestNumber

// readDecimal reads a word that looks like a real.
func readDecimal(word []byte) (d decimal) {
	d.negative = word[0] == '-'
	word = bytes.TrimLeft(word, "+-")
	mantissa, power := word, []byte(nil)
	if i := bytes.IndexAny(word, "eE"); i >= 0 {
		mantissa, power = word[:i], word[i+1:]
	}
	whole, fraction, _ := bytes.Cut(mantissa, []byte{'.'})
	digits := append(append(make([]byte, 0, len(mantissa)), whole...), fraction...)
	d.digits = bytes.TrimLeft(digits, "0")
	d.exponent = int64(len(whole) - (len(digits) - len(d.digits)))
	d.digits = bytes.TrimRight(d.digits, "0")
	if power != nil {
		// What is out of range is put far outside all that can matter.
		n, _ := strconv.ParseInt(string(power), 10, 64)
		d.exponent += min(max(n, -1<<60), 1<<60)
	}
	return d
}

// last is the exponent of the last digit.
func (d decimal) last() int64 { return d.exponent - int64(len(d.digits)) }

// times10 returns d × 10^-low as an integer, which it must be.
func (d decimal) times10(low int64) *big.Int {
	if len(d.digits) == 0 {
		return new(big.Int)
	}
	n, _ := new(big.Int).SetString(string(d.digits), 10)
	n.Mul(n, new(big.Int).Exp(big.NewInt(10), big.NewInt(d.last()-low), nil))
	if d.negative {
		n.Neg(n)
	}
	return n
}

func (t *tolerance) exactlyClose(want, got []byte) bool {
	w, g := readDecimal(want), readDecimal(got)
	// Beside a number that is larger beyond all measure, the other is zero.
	switch {
	case len(w.digits) == 0 || len(g.digits) == 0:
	case w.exponent-g.exponent > farApart:
		g = decimal{}
	case g.exponent-w.exponent > farApart:
		w = decimal{}
	}
	low := int64(math.MaxInt64)
	for _, d := range []decimal{w, g} {
		if len(d.digits) > 0 {
			low = min(low, d.last())
		}
	}
	if low == math.MaxInt64 {
		return true // both are zero
	}
	wantN, gotN := w.times10(low), g.times10(low)
	off := gotN.Sub(wantN, gotN)
	off.Abs(off)
	if off.Sign() == 0 {
		return true
	}
	return atMost(off, low, t.exactly[0], big.NewInt(1), 0) || atMost(off, low, t.exactly[1], wantN.Abs(wantN), low)
}

// atMost reports whether a × 10^i is at most share × b × 10^j. None is below
// zero.
func atMost(a *big.Int, i int64, share decimal, b *big.Int, j int64) bool {
	if len(share.digits) == 0 || b.Sign() == 0 {
		return a.Sign() == 0
	}
	right, _ := new(big.Int).SetString(string(share.digits), 10)
	right.Mul(right, b)
	j += share.last()
	// Where the powers of ten are far apart they decide alone: no number here
	// has so many digits.
	if i-j > 3*farApart {
		return false
	}
	if j-i > 3*farApart {
		return true
	}
	low := min(i, j)
	scale := func(n *big.Int, by int64) *big.Int {
		return new(big.Int).Mul(n, new(big.Int).Exp(big.NewInt(10), big.NewInt(by), nil))
	}
	return scale(a, i-low).Cmp(scale(right, j-low)) <= 0
}

// A plainNumber is a number without an exponent and of few digits: most are.
type plainNumber struct {
	digits   uint64
	decimals int // digits after the point
	negative bool
	whole    bool // spelled as an integer
}

// mostDigits is how many digits floating point keeps without rounding.
const mostDigits = 15

// readPlain reads a plain number.
func readPlain(word []byte) (n plainNumber, ok bool) {
	i := 0
	if i < len(word) && (word[i] == '-' || word[i] == '+') {
		n.negative = word[i] == '-'
		i++
	}
	if len(word)-i > mostDigits+1 {
		return n, false
	}
	point, digits := -1, 0
	for ; i < len(word); i++ {
		switch c := word[i]; {
		case c >= '0' && c <= '9':
			n.digits = 10*n.digits + uint64(c-'0')
			digits++
		case c == '.' && point < 0:
			point = digits
		default:
			return n, false
		}
	}
	n.whole = point < 0
	if !n.whole {
		n.decimals = digits - point
	}
	return n, digits > 0 && digits <= mostDigits
}

var tens = [mostDigits + 1]float64{1, 1e1, 1e2, 1e3, 1e4, 1e5, 1e6, 1e7, 1e8, 1e9, 1e10, 1e11, 1e12, 1e13, 1e14, 1e15}

// value is the nearest floating-point number: both parts of the division are
// exact (Clinger, How to read floating point numbers accurately, 1990).
func (n plainNumber) value() float64 {
	x := float64(n.digits) / tens[n.decimals]
	if n.negative {
		return -x
	}
	return x
}
