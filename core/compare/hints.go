package compare

import (
	"fmt"
	"io"
	"math/big"
	"slices"
	"strings"

	"coldverdict/core/verdict"
)

// Evidence is what a failed run left behind.
type Evidence struct {
	Verdict  verdict.Verdict
	Settings Settings // in which the outputs were compared
	Input    string   // or its beginning
	Expected string
	Got      string
	Errors   string // what was written to standard error
	Whole    bool   // Expected and Got were not cut, and were compared
	// Waits says that the run was ended while it waited for input.
	Waits bool
	// Explained is what the language's own words say; it comes first.
	Explained []string
}

// mostHints is how many hints are given for one failure.
const mostHints = 2

// hints are tried in turn. Each says what an experienced friend would say at a
// glance, or "", and speaks only where that explains the whole failure.
var hints = []func(*sides) string{
	hintWaits,
	hintNothing,
	hintNone,
	hintCase,
	hintSpacing,
	hintOrder,
	hintWrapped,
	hintKindOfNumber,
	hintCloseNumbers,
	hintFewDigits,
	hintSameOffset,
	hintLastLine,
	hintDebug,
	hintLeftOver,
}

// Hints returns at most two hints for a failure.
func Hints(e Evidence) []string {
	said := e.Explained[:min(len(e.Explained), mostHints)]
	if len(said) > 0 {
		return said
	}
	s := &sides{Evidence: e}
	if e.Verdict == verdict.WrongAnswer && e.Whole {
		s.within = newTolerance(e.Settings)
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

// valueHints are those that make sense for values that are not laid out in lines.
var valueHints = []func(*sides) string{hintCase, hintOrder, hintWrapped, hintSameOffset}

// ValueHints returns at most two hints for a result that is made of other single
// values than the expected one, or of the same in another arrangement.
func ValueHints(expected, got []string) (said []string) {
	if slices.Equal(expected, got) {
		return []string{"the same values, put together in another way"}
	}
	lines := func(values []string) string { return strings.Join(values, "\n") + "\n" }
	s := &sides{
		Evidence: Evidence{Verdict: verdict.WrongAnswer, Settings: Settings{Mode: "lines"}, Expected: lines(expected), Got: lines(got), Whole: true},
		want:     expected, got: got, wantLines: expected, gotLines: got,
	}
	s.within = newTolerance(s.Settings)
	for _, hint := range valueHints {
		if words := hint(s); words != "" && len(said) < mostHints {
			said = append(said, strings.NewReplacer("lines", "values").Replace(words))
		}
	}
	return said
}

// sides are the words and lines of both outputs; all empty where the failure
// is not a wrong answer or the texts were cut.
type sides struct {
	Evidence
	within              *tolerance
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

// accepts reports whether another output would have been accepted.
func (s *sides) accepts(settings Settings, got string) bool {
	c, err := New(settings, io.NopCloser(strings.NewReader(s.Expected)))
	if err != nil {
		return false
	}
	defer c.Close()
	c.Write([]byte(got))
	d, err := c.Result()
	return d == nil && err == nil
}

// with reports whether the output as it is would have been accepted under
// settings that change makes of those that hold.
func (s *sides) with(change func(*Settings)) bool {
	settings := s.Settings
	change(&settings)
	return len(s.want) > 0 && len(s.got) > 0 && s.accepts(settings, s.Got)
}

// same reports whether two words count as equal.
func (s *sides) same(want, got string) bool {
	switch {
	case want == got:
		return true
	case s.Settings.Mode == "numbers":
		return s.within.sameWord([]byte(want), []byte(got))
	}
	return s.Settings.IgnoreCase && strings.EqualFold(want, got)
}

// every reports whether both sides have as many words, and explains holds for
// each pair that differs, and nothing but these words is wrong.
func (s *sides) every(explains func(want, got string) bool) bool {
	if len(s.want) == 0 || len(s.want) != len(s.got) {
		return false
	}
	differ := false
	for i := range s.want {
		if s.same(s.want[i], s.got[i]) {
			continue
		}
		differ = true
		if !explains(s.want[i], s.got[i]) {
			return false
		}
	}
	if !differ {
		return false
	}
	// Word by word what was wanted, in the lines and spaces of what was printed.
	var mended strings.Builder
	rest := s.Got
	for i, word := range s.got {
		at := strings.Index(rest, word)
		mended.WriteString(rest[:at])
		mended.WriteString(s.want[i])
		rest = rest[at+len(word):]
	}
	mended.WriteString(rest)
	return s.accepts(s.Settings, mended.String())
}

// example shows the first pair of words that differ.
func (s *sides) example() string {
	for i := range s.want {
		if !s.same(s.want[i], s.got[i]) {
			return fmt.Sprintf("%s for %s", cut(s.got[i], 24), cut(s.want[i], 24))
		}
	}
	return ""
}

func hintWaits(s *sides) string {
	if s.Waits {
		return "your program waits for input that will not come: it has not flushed what it printed, or it reads more than it is told"
	}
	return ""
}

func hintNothing(s *sides) string {
	switch {
	case len(s.want) == 0 || len(s.got) > 0:
		return ""
	case strings.TrimSpace(s.Errors) != "" && s.accepts(s.Settings, s.Errors):
		return "the answer was written to standard error"
	}
	return "nothing was printed"
}

// empties are how languages print the value of a function that returned none.
var empties = []string{"None", "null", "undefined", "<nil>", "nil"}

func hintNone(s *sides) string {
	said := ""
	isEmpty := func(got string) bool {
		if slices.Contains(empties, got) && !slices.Contains(s.want, got) {
			said = got
			return true
		}
		return false
	}
	if s.every(func(_, got string) bool { return isEmpty(got) }) {
		return fmt.Sprintf("the output says %s: a function returned nothing", said)
	}
	kept := slices.DeleteFunc(slices.Clone(s.gotLines), isEmpty)
	if said != "" && len(kept) < len(s.gotLines) && s.accepts(s.Settings, strings.Join(kept, "\n")) {
		return fmt.Sprintf("a line too much says %s: what a function without a result returned was printed", said)
	}
	return ""
}

func hintCase(s *sides) string {
	if s.with(func(w *Settings) { w.IgnoreCase = true }) {
		return "only letter case differs"
	}
	return ""
}

func hintSpacing(s *sides) string {
	if s.with(func(w *Settings) { w.Mode, w.AnyOrder = "tokens", "" }) {
		return "only spacing differs"
	}
	switch {
	case len(s.got) == len(s.want) || len(s.got) == 0 || strings.Join(s.want, "") != strings.Join(s.got, ""):
		return ""
	case len(s.got) < len(s.want):
		return "only spacing differs: answers run together, a line break or space is missing"
	}
	return "only spacing differs: a word is torn apart"
}

func hintOrder(s *sides) string {
	settings := s.Settings
	settings.AnyOrder = "lines"
	if settings.Mode == "numbers" {
		settings.Mode = "tokens"
	}
	if len(s.wantLines) > 1 && s.accepts(settings, s.Got) {
		return "the same lines in another order"
	}
	settings.AnyOrder = "tokens"
	if len(s.wantLines) == 1 && len(s.want) > 2 && s.accepts(settings, s.Got) {
		return "the same words in another order"
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

// The spellings of a number.
const (
	asInteger = iota
	asReal
	withExponent
)

func spelling(word string) int {
	switch {
	case strings.ContainsAny(word, "eE"):
		return withExponent
	case strings.Contains(word, "."):
		return asReal
	}
	return asInteger
}

func hintKindOfNumber(s *sides) string {
	var from, to [3]bool
	exactly := newTolerance(Settings{})
	same := s.every(func(want, got string) bool {
		w, g := []byte(want), []byte(got)
		if !looksLikeReal(w) || !looksLikeReal(g) || spelling(want) == spelling(got) || !exactly.exactlyClose(w, g) {
			return false
		}
		from[spelling(want)], to[spelling(got)] = true, true
		return true
	})
	switch {
	case !same:
	case to == [3]bool{asReal: true}:
		return fmt.Sprintf("an integer was printed as a real (%s)", s.example())
	case to == [3]bool{asInteger: true}:
		return fmt.Sprintf("a real was printed as an integer (%s)", s.example())
	case to == [3]bool{withExponent: true}:
		return fmt.Sprintf("a number was printed with an exponent (%s)", s.example())
	}
	return ""
}

func hintCloseNumbers(s *sides) string {
	if s.Settings.Mode == "numbers" || s.Settings.AnyOrder != "" {
		return ""
	}
	near := newTolerance(Settings{Absolute: 1e-6, Relative: 1e-6})
	close := s.every(func(want, got string) bool {
		w, g := []byte(want), []byte(got)
		return looksLikeReal(w) && looksLikeReal(g) && spelling(want) != asInteger && near.sameWord(w, g) &&
			!newTolerance(Settings{}).exactlyClose(w, g)
	})
	if close {
		return "the numbers are equal within 1e-6 but are compared as text; should mode be \"numbers\"?"
	}
	return ""
}

// hintFewDigits speaks where every number is what remains of the expected one
// when it is rounded, or cut off, after the digits that were printed.
func hintFewDigits(s *sides) string {
	if hintKindOfNumber(s) != "" || hintCloseNumbers(s) != "" {
		return ""
	}
	decimals, cutOff, roundedUp := -1, false, false
	few := s.every(func(want, got string) bool {
		w, g := []byte(want), []byte(got)
		if !looksLikeReal(w) || !looksLikeReal(g) || spelling(want) == withExponent || spelling(got) == withExponent {
			return false
		}
		places := decimalsOf(got)
		if places >= decimalsOf(want) || decimals >= 0 && places != decimals {
			return false
		}
		decimals = places
		wantN, ok := new(big.Rat).SetString(want)
		gotN, ok2 := new(big.Rat).SetString(got)
		if !ok || !ok2 {
			return false
		}
		unit := new(big.Rat).SetFrac(big.NewInt(1), new(big.Int).Exp(big.NewInt(10), big.NewInt(int64(places)), nil))
		off := new(big.Rat).Abs(new(big.Rat).Sub(wantN, gotN))
		half := new(big.Rat).Quo(unit, big.NewRat(2, 1))
		shorter := new(big.Rat).Abs(gotN).Cmp(new(big.Rat).Abs(wantN)) <= 0
		cutOff, roundedUp = cutOff || off.Cmp(half) > 0, roundedUp || !shorter
		return off.Cmp(half) <= 0 || shorter && off.Cmp(unit) < 0
	})
	switch {
	case !few:
		return ""
	case decimals == 0 && !roundedUp:
		return fmt.Sprintf("the fraction is lost (%s): was an integer divided by an integer?", s.example())
	case decimals == 0:
		return fmt.Sprintf("the numbers are right but rounded to whole ones (%s)", s.example())
	case cutOff:
		return fmt.Sprintf("the numbers are right but cut off after %s (%s): print more digits", places(decimals), s.example())
	}
	return fmt.Sprintf("the numbers are right but rounded to %s (%s): print more digits", places(decimals), s.example())
}

func places(n int) string {
	if n == 1 {
		return "1 decimal"
	}
	return fmt.Sprintf("%d decimals", n)
}

func decimalsOf(word string) int {
	_, fraction, _ := strings.Cut(word, ".")
	return len(fraction)
}

func hintSameOffset(s *sides) string {
	if len(s.want) < 2 || len(s.want) != len(s.got) {
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
	if off.Sign() == 0 || !s.every(func(_, _ string) bool { return true }) {
		return ""
	}
	return fmt.Sprintf("every answer is off by the same amount (%+d)", off)
}

func hintLastLine(s *sides) string {
	n := len(s.wantLines)
	if n > 1 && len(s.gotLines) == n-1 && s.accepts(s.Settings, strings.Join(append(slices.Clone(s.gotLines), s.wantLines[n-1]), "\n")+"\n") {
		return "the last line is missing"
	}
	return ""
}

// hintDebug speaks when leaving out some lines of words, or what stands before
// the answers, makes the output right.
func hintDebug(s *sides) string {
	if len(s.wantLines) == 0 || len(s.gotLines) < len(s.wantLines) {
		return ""
	}
	i, extra := 0, ""
	for _, line := range s.gotLines {
		if i < len(s.wantLines) {
			if line == s.wantLines[i] {
				i++
				continue
			}
			if prompt, ok := strings.CutSuffix(line, s.wantLines[i]); ok && strings.HasSuffix(strings.TrimSpace(prompt), ":") {
				i++
				line = prompt
			}
		}
		if !looksLikeDebug(line) {
			return ""
		}
		if extra == "" {
			extra = line
		}
	}
	if i < len(s.wantLines) || extra == "" {
		return ""
	}
	if len(s.gotLines) == len(s.wantLines) {
		return fmt.Sprintf("right but for words before the answers (%q): a judge reads them too", cut(extra, 40))
	}
	return fmt.Sprintf("right but for extra lines that look like debug output (%q)", cut(extra, 40))
}

func looksLikeDebug(line string) bool {
	lower := strings.ToLower(line)
	return strings.ContainsAny(line, "=:[({<") || strings.Contains(lower, "debug") || strings.HasPrefix(lower, "here")
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
	answer, ok := Locate([]byte(s.Input), false, n, first+1)
	if !ok || answer.Number < 2 || answer.Number == answer.Of {
		return ""
	}
	each := n / answer.Of
	for i := answer.Number - 1; i < answer.Of; i++ {
		if slices.Equal(s.wantLines[i*each:(i+1)*each], s.gotLines[i*each:(i+1)*each]) {
			return ""
		}
	}
	return fmt.Sprintf("right up to case %d of %d, then wrong to the end: is something left over from the case before?", answer.Number-1, answer.Of)
}
