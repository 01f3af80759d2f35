package problem

import (
	"bytes"
	"fmt"
	"math/big"
	"strings"

	"coldverdict/core/value"
)

// Answers that are known to be wrong. They must agree with each other and with the answers
// that are known to be right: otherwise no output could pass, or nothing would be checked.

// ReadNumber returns the number that is all there is in a text. Exponents are left out: they
// make numbers of any size.
func ReadNumber(text []byte) (*big.Rat, bool) {
	text = bytes.TrimSpace(text)
	if len(text) == 0 || len(text) > 400 || bytes.ContainsFunc(text, func(c rune) bool { return !strings.ContainsRune("+-.0123456789", c) }) {
		return nil, false
	}
	return new(big.Rat).SetString(string(text))
}

// bounded is a refused number that bounds the answer that is sought.
type bounded struct {
	number *big.Rat
	text   string
}

// refusedMistake says what is wrong with the refused answers of a case; "": nothing is.
func (p *Problem) refusedMistake(c *Case) string {
	var low, high *bounded // the tightest bounds of the answer that is sought
	for _, r := range c.Refused {
		text, err := r.Answer.Head(largestRefused + 1)
		switch {
		case err != nil:
			continue // told when it is used
		case len(text) > largestRefused:
			return fmt.Sprintf("a refused answer may have %d bytes, and this one has more", largestRefused)
		case r.Sought == "":
			continue
		}
		number, ok := ReadNumber(text)
		if !ok {
			return fmt.Sprintf("%q is no number, so no answer is larger or smaller than it; refuse it without %s", shortText(text), r.Sought)
		}
		one := &bounded{number, string(bytes.TrimSpace(text))}
		switch {
		case r.Sought == SoughtLarger && (low == nil || number.Cmp(low.number) > 0):
			low = one
		case r.Sought == SoughtSmaller && (high == nil || number.Cmp(high.number) < 0):
			high = one
		}
	}
	if low != nil && high != nil && low.number.Cmp(high.number) >= 0 {
		return fmt.Sprintf("the answer sought is larger than %s and smaller than %s, which no answer is; take one of them out", low.text, high.text)
	}
	for _, known := range c.Accepted {
		text, err := known.Head(largestRefused + 1)
		if err != nil || len(text) > largestRefused {
			continue
		}
		for _, r := range c.Refused {
			refused, err := r.Answer.Head(largestRefused + 1)
			if err == nil && p.sameAnswer(text, refused) {
				return fmt.Sprintf("%q is both an expected answer and a refused one; take one of them out", shortText(text))
			}
		}
		number, ok := ReadNumber(text)
		switch {
		case !ok:
		case low != nil && number.Cmp(low.number) <= 0:
			return fmt.Sprintf("%s is expected, and the answer sought is larger than %s; take one of them out", shortText(text), low.text)
		case high != nil && number.Cmp(high.number) >= 0:
			return fmt.Sprintf("%s is expected, and the answer sought is smaller than %s; take one of them out", shortText(text), high.text)
		}
	}
	return ""
}

// sameAnswer reports that two answers are the same value, or the same words.
func (p *Problem) sameAnswer(a, b []byte) bool {
	if p.Call == nil {
		return bytes.Equal(bytes.Join(bytes.Fields(a), []byte(" ")), bytes.Join(bytes.Fields(b), []byte(" ")))
	}
	x, err := value.ReadResults(string(Plain(a)), p.Call.Results())
	y, err2 := value.ReadResults(string(Plain(b)), p.Call.Results())
	return err == nil && err2 == nil && value.Comparison{}.Compare(x, y) == nil
}

// shortText is an answer on one line, for a message.
func shortText(text []byte) string {
	const most = 40
	line := []rune(strings.Join(strings.Fields(string(text)), " "))
	if len(line) > most {
		return string(line[:most]) + "…"
	}
	return string(line)
}

// checkRefused reports cases whose refused answers contradict something.
func (l *loader) checkRefused() {
	for i := range l.problem.Cases {
		c := &l.problem.Cases[i]
		if wrong := l.problem.refusedMistake(c); wrong != "" {
			file, line := splitWhere(c.Where)
			l.wrong(file, line, "the case %q: %s", c.Name, wrong)
		}
	}
}
