package steps

import (
	"fmt"
	"math"
	"strconv"
	"strings"
)

// Recorders of C, C++ and of the virtual machine of Java tell an integer that does not fit where it happens. In other
// languages, and of types that wrap by rule, values alone tell: one that leaps from near one end of 32 or 64 bits to near
// the other. So do numbers past which a double has no longer every integer.

// near is how close to an end of what an unsigned integer holds counts as near.
const near = 1 << 16

// exact is the first integer from which on a double does not hold every one (IEEE 754, 53 bits).
const exact = 1 << 53

// doubt finds steps that hardly mean what they do, and says so where nothing is said yet. Loops of the program, and names
// that mean several variables, are not told apart: each name is told once of each kind.
func (r *Recording) doubt() {
	last := map[string]string{}
	told := map[string]bool{}
	for i := range r.Steps {
		s := &r.Steps[i]
		for _, c := range s.Changes {
			name := fmt.Sprintf("%d %s %s", s.Depth, s.Function, c.Name)
			text := ""
			if !unbounded[r.Language] {
				text = leap(last[name], c.Value)
			}
			if text == "" && (doubles[r.Language] || strings.ContainsAny(c.Value, ".eE")) && inexact(last[name], c.Value) {
				text = "is past 2^53, from where on not every integer is exact"
			}
			last[name] = c.Value
			if text != "" && s.Warning == "" && !told[c.Name+text] {
				told[c.Name+text] = true
				s.Warning = c.Name + " " + text
			}
		}
	}
}

// unbounded are languages whose integers do not wrap; in those of doubles every number is a double.
var (
	unbounded = map[string]bool{"python": true, "pypy": true, "ruby": true, "javascript": true, "typescript": true, "typescript-node": true, "lua": true}
	doubles   = map[string]bool{"javascript": true, "typescript": true, "typescript-node": true}
)

// leap says that a value wrapped, as far as the one before it tells; empty: it did not.
func leap(before, now string) string {
	was, err := strconv.ParseInt(before, 10, 64)
	if err != nil {
		return ""
	}
	if n, err := strconv.ParseUint(now, 10, 64); err == nil && was >= 0 && was < near {
		for _, bits := range []int{32, 64} {
			if most := uint64(math.MaxUint64) >> (64 - bits); n <= most && n > most-near {
				return fmt.Sprintf("went from %d to %d, as %d bits without a sign do below 0", was, n, bits)
			}
		}
	}
	n, err := strconv.ParseInt(now, 10, 64)
	if err != nil || (was < 0) == (n < 0) {
		return ""
	}
	for _, bits := range []int{16, 32, 64} { // far enough that no step of the same sign comes there
		half := int64(1) << (bits - 2)
		if fits(was, bits) && fits(n, bits) && (was >= half && n <= -half || was <= -half && n >= half) {
			return fmt.Sprintf("went from %d to %d, as %d bits with a sign do at their end", was, n, bits)
		}
	}
	return ""
}

func fits(n int64, bits int) bool { return n >= -1<<(bits-1) && n <= 1<<(bits-1)-1 }

// inexact reports a double that passes the integers that are all exact.
func inexact(before, now string) bool {
	x, err := strconv.ParseFloat(now, 64)
	if err != nil || math.Abs(x) < exact || math.IsInf(x, 0) || before == "" {
		return false
	}
	was, err := strconv.ParseFloat(before, 64)
	return err == nil && math.Abs(was) < exact
}
