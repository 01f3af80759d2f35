package compare

import (
	"fmt"
	"math/big"
	"slices"
	"strings"

	"coldverdict/core/verdict"
)

// Evidence is what a failed run left behind.
type Evidence struct {
	Verdict  verdict.Verdict
	Input    string
	Expected string
	Got      string
	Whole    bool // Expected and Got were not cut
	// Explained is what the language's own words say; it comes first.
	Explained []string
}

// mostHints is how many hints are given for one failure.
const mostHints = 2

// hints are tried in turn. Each says what an experienced friend would say at a
// glance, or "", and speaks only where that explains the whole failure.
var hints = []func(*sides) string{
	hintNothing,
	hintNone,
	hintCase,
	hintSpacing,
	hintOrder,
	hintWrapped,
	hintKindOfNumber,
	hintCloseNumbers,
	hintSameOffset,
	hintLastLine,
	hintDebug,
	hintLeftOver,
}

// Hints returns at most two hints for a failure.
func Hints(e Evidence) (said []string) {
	if len(e.Explained) > 0 {
		return e.Explained[:min(len(e.Explained), mostHints)]
	}
	s := &sides{Evidence: e}
	if e.Verdict == verdict.WrongAnswer && e.Whole {
		s.want, s.got = fields(e.Expected), fields(e.Got)
		s.wantLines, s.gotLines = trimmedLines(e.Expected), trimmedLines(e.Got)
	}
	for _, hint := range hints {
		if words := hint(s); words != "" {
			said = append(said, words)
		}
		if len(said) == mostHints {
			break
		}
	}
	return said
}

// sides are the words and lines of both outputs; all empty where the failure
// is not a wrong answer or the texts were cut.
type sides struct {
	Evidence
	want, got           []string
	wantLines, gotLines []string
}

func fields(s string) []string {
	return strings.FieldsFunc(s, func(r rune) bool { return r < 128 && isSpace(byte(r)) })
}

func trimmedLines(s string) []string {
	lines := strings.Split(s, "\n")
	for i := range lines {
		lines[i] = strings.TrimRight(lines[i], " \t\r\v\f")
	}
	for len(lines) > 0 && lines[len(lines)-1] == "" {
		lines = lines[:len(lines)-1]
	}
	return lines
}

// words reports whether both sides have the same number of words, at least one.
func (s *sides) words() bool { return len(s.want) > 0 && len(s.want) == len(s.got) }

// every reports whether the words differ somewhere and wherever they do, same
// holds for the pair.
func (s *sides) every(same func(want, got string) bool) bool {
	if !s.words() {
		return false
	}
	differ := false
	for i := range s.want {
		if s.want[i] == s.got[i] {
			continue
		}
		differ = true
		if !same(s.want[i], s.got[i]) {
			return false
		}
	}
	return differ
}

func hintNothing(s *sides) string {
	if len(s.want) > 0 && len(s.got) == 0 {
		return "nothing was printed"
	}
	return ""
}

func hintNone(s *sides) string {
	for _, word := range []string{"None", "null", "undefined", "<nil>"} {
		if slices.Contains(s.got, word) && !slices.Contains(s.want, word) {
			return fmt.Sprintf("the output says %s: a function returned nothing", word)
		}
	}
	return ""
}

func hintCase(s *sides) string {
	if s.every(strings.EqualFold) {
		return "only letter case differs"
	}
	return ""
}

func hintSpacing(s *sides) string {
	if len(s.want) == 0 || slices.Equal(s.wantLines, s.gotLines) {
		return ""
	}
	switch {
	case slices.Equal(s.want, s.got):
		return "only spacing differs"
	case strings.Join(s.want, "") != strings.Join(s.got, ""):
		return ""
	case len(s.got) < len(s.want):
		return "only spacing differs: answers run together, a line break or space is missing"
	}
	return "only spacing differs: a word is torn apart"
}

func hintOrder(s *sides) string {
	if len(s.wantLines) < 2 || slices.Equal(s.wantLines, s.gotLines) {
		return ""
	}
	if slices.Equal(slices.Sorted(slices.Values(s.wantLines)), slices.Sorted(slices.Values(s.gotLines))) {
		return "the same lines in another order"
	}
	return ""
}

func hintWrapped(s *sides) string {
	wrapped := s.every(func(want, got string) bool {
		w, ok := new(big.Int).SetString(want, 10)
		g, ok2 := new(big.Int).SetString(got, 10)
		if !ok || !ok2 || w.IsInt64() && int64(int32(w.Int64())) == w.Int64() {
			return false
		}
		low := new(big.Int).And(w, big.NewInt(1<<32-1)).Uint64()
		return g.IsInt64() && (g.Int64() == int64(int32(uint32(low))) || g.Int64() == int64(low))
	})
	if wrapped {
		return "got is the expected value wrapped to 32 bits: use a 64-bit integer"
	}
	return ""
}

func hintKindOfNumber(s *sides) string {
	toReal, toInteger := false, false
	same := s.every(func(want, got string) bool {
		w, ok := new(big.Rat).SetString(want)
		g, ok2 := new(big.Rat).SetString(got)
		if !ok || !ok2 || strings.ContainsRune(want+got, '/') || w.Cmp(g) != 0 {
			return false
		}
		wantReal, gotReal := strings.Contains(want, "."), strings.Contains(got, ".")
		toReal = toReal || !wantReal && gotReal
		toInteger = toInteger || wantReal && !gotReal
		return wantReal != gotReal
	})
	switch {
	case same && toReal && !toInteger:
		return fmt.Sprintf("an integer was printed as a real (%s)", s.example())
	case same && toInteger && !toReal:
		return fmt.Sprintf("a real was printed as an integer (%s)", s.example())
	}
	return ""
}

// example shows the first pair of words that differ.
func (s *sides) example() string {
	for i := range s.want {
		if s.want[i] != s.got[i] {
			return fmt.Sprintf("%s for %s", cut(s.got[i], 24), cut(s.want[i], 24))
		}
	}
	return ""
}

func hintCloseNumbers(s *sides) string {
	close := s.every(func(want, got string) bool {
		w, ok := number([]byte(want))
		g, ok2 := number([]byte(got))
		_, whole := integer([]byte(want))
		return ok && ok2 && !whole && w != g && within(w, g, Settings{Absolute: 1e-6, Relative: 1e-6})
	})
	if close {
		return "the numbers are equal within 1e-6 but are compared as text; should mode be \"numbers\"?"
	}
	return ""
}

func hintSameOffset(s *sides) string {
	if len(s.want) < 2 || !s.words() {
		return ""
	}
	var off *big.Int
	for i := range s.want {
		w, ok := new(big.Int).SetString(s.want[i], 10)
		g, ok2 := new(big.Int).SetString(s.got[i], 10)
		if !ok || !ok2 {
			return ""
		}
		d := g.Sub(g, w)
		if off != nil && off.Cmp(d) != 0 {
			return ""
		}
		off = d
	}
	if off.Sign() == 0 {
		return ""
	}
	return fmt.Sprintf("every answer is off by the same amount (%+d)", off)
}

func hintLastLine(s *sides) string {
	n := len(s.gotLines)
	if n > 0 && n == len(s.wantLines)-1 && slices.Equal(s.gotLines, s.wantLines[:n]) {
		return "the last line is missing"
	}
	return ""
}

// hintDebug speaks when leaving out some lines of words makes the output right.
func hintDebug(s *sides) string {
	if len(s.gotLines) <= len(s.wantLines) || len(s.wantLines) == 0 {
		return ""
	}
	i, extra := 0, ""
	for _, line := range s.gotLines {
		if i < len(s.wantLines) && line == s.wantLines[i] {
			i++
			continue
		}
		if !looksLikeDebug(line) {
			return ""
		}
		if extra == "" {
			extra = line
		}
	}
	if i < len(s.wantLines) {
		return ""
	}
	return fmt.Sprintf("right but for extra lines that look like debug output (%q)", cut(extra, 40))
}

func looksLikeDebug(line string) bool {
	return strings.ContainsAny(line, "=:[({<") || strings.Contains(strings.ToLower(line), "debug") || strings.HasPrefix(line, "here")
}

// hintLeftOver speaks when a file holds several cases, the first answers are
// right, and all after some case are wrong.
func hintLeftOver(s *sides) string {
	n := len(s.wantLines)
	if n < 3 || len(s.gotLines) != n {
		return ""
	}
	first := 0
	for first < n && s.wantLines[first] == s.gotLines[first] {
		first++
	}
	if first == 0 || first > n-2 {
		return ""
	}
	for i := first; i < n; i++ {
		if s.wantLines[i] == s.gotLines[i] {
			return ""
		}
	}
	return fmt.Sprintf("right up to answer %d of %d, then wrong to the end: is something left over from the case before?", first, n)
}
