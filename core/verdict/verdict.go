// Package verdict holds the words in which Cold Verdict speaks of a run: the
// Verdict itself, the Limits that a program was held to, the Usage that was
// measured, and the Outcome that joins them for one case.
//
// Everything here is a plain value. The package decides nothing about how a
// program is run or how outputs are compared; it only says which verdicts
// there are, which of two is worse, and what the cases of a solution add up to.
package verdict

import "fmt"

// A Verdict is what a strict judge would say of one case, or of a solution.
type Verdict int

// The zero value is Unjudged: nothing is known until something was held
// against something.
const (
	Unjudged     Verdict = iota // ran within the limits, nothing to compare with
	Accepted                    // ran within the limits, output passes
	Partial                     // a checker gave a share of the points
	WrongAnswer                 // ran within the limits, output fails
	TimeLimit                   // processor time passed the limit
	Stalled                     // wall-clock limit passed while the processor time had not
	MemoryLimit                 // peak memory of the process tree passed the limit
	OutputLimit                 // wrote more than the limit
	RuntimeError                // non-zero exit status, or ended by a signal
	CompileError                // did not build
	Skipped                     // not run
	Fault                       // our side failed; never blamed on the candidate
)

var words = [...]struct{ long, short string }{
	Unjudged:     {"unjudged", "--"},
	Accepted:     {"accepted", "AC"},
	Partial:      {"partial", "PA"},
	WrongAnswer:  {"wrong answer", "WA"},
	TimeLimit:    {"time limit exceeded", "TLE"},
	Stalled:      {"stalled", "ST"},
	MemoryLimit:  {"memory limit exceeded", "MLE"},
	OutputLimit:  {"output limit exceeded", "OLE"},
	RuntimeError: {"runtime error", "RE"},
	CompileError: {"compile error", "CE"},
	Skipped:      {"skipped", "SK"},
	Fault:        {"fault", "!!"},
}

// String returns the verdict in full words, such as "time limit exceeded".
func (v Verdict) String() string {
	if v < 0 || int(v) >= len(words) {
		return fmt.Sprintf("verdict %d", int(v))
	}
	return words[v].long
}

// Short returns the usual short form, such as "TLE".
func (v Verdict) Short() string {
	if v < 0 || int(v) >= len(words) {
		return "??"
	}
	return words[v].short
}

// MarshalText writes the verdict in full words, as JSON output has it.
func (v Verdict) MarshalText() ([]byte, error) { return []byte(v.String()), nil }

// UnmarshalText reads a verdict in full words or in its short form.
func (v *Verdict) UnmarshalText(text []byte) error {
	parsed, ok := Parse(string(text))
	if !ok {
		return fmt.Errorf("%q is no verdict; write one such as %q or %q", text, "wrong answer", "TLE")
	}
	*v = parsed
	return nil
}

// Parse finds the verdict that s names, in full words ("wrong answer") or in
// its short form ("WA").
func Parse(s string) (Verdict, bool) {
	for v, w := range words {
		if s == w.long || s == w.short {
			return Verdict(v), true
		}
	}
	return Unjudged, false
}

// All returns every verdict in full words, in the order of their declaration.
func All() []string {
	all := make([]string, len(words))
	for i, w := range words {
		all[i] = w.long
	}
	return all
}

// Passing reports whether a case with this verdict leaves its solution
// unharmed: it was accepted, or there was nothing to judge it by.
func (v Verdict) Passing() bool { return v == Accepted || v == Unjudged }

// Worse returns the worse of two verdicts on the same case. Accepted is the
// best, then unjudged; after these the order of declaration counts.
func Worse(a, b Verdict) Verdict {
	rank := func(v Verdict) int {
		switch v {
		case Accepted:
			return 0
		case Unjudged:
			return 1
		}
		return int(v)
	}
	if rank(b) > rank(a) {
		return b
	}
	return a
}

// OfSolution adds the verdicts of a solution's cases, given in case order, up
// to the solution's own: that of the first case that is neither accepted nor
// unjudged; accepted only if at least one case was judged and all that were
// judged passed; otherwise unjudged. A case that was skipped counts only where
// no other failed: it was, since another one did.
func OfSolution(cases []Verdict) Verdict {
	sum := Unjudged
	for _, v := range cases {
		if v == Skipped {
			sum = Skipped
		}
	}
	for _, v := range cases {
		if v == Skipped {
			continue
		}
		if !v.Passing() {
			return v
		}
		if v == Accepted && sum == Unjudged {
			sum = Accepted
		}
	}
	return sum
}
