package shape

import (
	"bytes"
	"fmt"
	"io"
	"math"
	"strings"
	"unicode/utf8"
)

// A Fault is the first thing wrong with an input.
type Fault struct {
	Line   int    // from 1; 0: the input as a whole
	Nth    int    // which value of the line, from 1; 0: the line as a whole
	Name   string // of the value, with its indices: "w[3]"; may be empty
	Text   string // what is wrong, in lower case
	Column int    // from 1, in bytes
}

func (f *Fault) Error() string {
	if f.Line == 0 {
		return f.Text
	}
	words := fmt.Sprintf("line %d", f.Line)
	if f.Nth > 0 {
		words += fmt.Sprintf(", %s value", ordinal(f.Nth))
	}
	return words + ": " + f.Text
}

func ordinal(n int) string {
	end := "th"
	if n%100 < 11 || n%100 > 13 {
		switch n % 10 {
		case 1:
			end = "st"
		case 2:
			end = "nd"
		case 3:
			end = "rd"
		}
	}
	return fmt.Sprintf("%d%s", n, end)
}

// A scanner reads an input byte by byte and keeps count of where it is.
type scanner struct {
	r     io.Reader
	buf   []byte
	at    int
	end   int
	done  bool  // nothing more can be read
	err   error // why, if that is not the end
	loose bool
	line  int // lines that have ended
	start int // of the line, in buf; negative if it was forgotten
	nth   int // values read on the line
	ends  int // of lines that the input does not have, where it is taken loosely
	word  []byte
	until byte // ends a value, too, as a blank does; 0: nothing else does

	taping bool // what is read is kept on the tape
	tape   []byte
	from   int // what of buf is not on it yet
}

// startTape keeps what is read from here on.
func (s *scanner) startTape() { s.taping, s.tape, s.from = true, s.tape[:0], s.at }

// endTape returns what was read since startTape; until the next one only.
func (s *scanner) endTape() []byte {
	s.taping = false
	return append(s.tape, s.buf[s.from:s.at]...)
}

// mostEnds bounds how many empty lines are taken for granted behind the end of an
// input that is taken loosely.
const mostEnds = 1000

// How much is read at once, in bytes: less where the reader says that there is less.
const (
	scanSize  = 256 << 10
	leastScan = 1 << 10
)

func newScanner(r io.Reader, loose bool) *scanner {
	size := scanSize
	if r, ok := r.(interface{ Len() int }); ok {
		size = min(max(r.Len()+1, leastScan), scanSize)
	}
	return &scanner{r: r, buf: make([]byte, size), loose: loose}
}

// fill reads more, and reports whether there was any.
func (s *scanner) fill() bool {
	if s.done {
		return false
	}
	if s.taping {
		s.tape = append(s.tape, s.buf[s.from:s.at]...)
		s.from = 0
	}
	s.start -= s.at
	s.at, s.end = 0, 0
	for tries := 0; s.end == 0 && tries < 100; tries++ {
		n, err := s.r.Read(s.buf)
		s.end = n
		if err != nil {
			s.done = true
			if err != io.EOF {
				s.err = err
			}
			break
		}
	}
	return s.end > 0
}

// peek returns the next byte, or -1 at the end.
func (s *scanner) peek() int {
	if s.at == s.end && !s.fill() {
		return -1
	}
	return int(s.buf[s.at])
}

// fault is thrown as a panic where the input is wrong.
func (s *scanner) fault(name, format string, args ...any) {
	panic(&Fault{Line: s.line + 1, Nth: s.nth, Name: name, Column: s.at - s.start + 1, Text: fmt.Sprintf(format, args...)})
}

// found shows what stands where the scanner is.
func (s *scanner) found() string {
	switch c := s.peek(); c {
	case -1:
		return "the end of the input"
	case '\n':
		return "the end of the line"
	case '\r':
		return "a carriage return (a line end of Windows)"
	case '\t':
		return "a tab"
	case ' ':
		return "a blank"
	}
	const most = 24
	var word []byte
	for at := s.at; at < s.end && s.buf[at] > ' ' && len(word) <= most; at++ {
		word = append(word, s.buf[at])
	}
	text := strings.ToValidUTF8(string(word), "�")
	if len(word) > most {
		text = text[:most] + "…"
	}
	return text
}

// begin stands before a value: between two on a line is one blank.
func (s *scanner) begin(first bool) {
	s.nth++
	if s.loose {
		s.blanks()
		if c := s.peek(); !first && (c == '\n' || c == -1) {
			s.fault("", "expected another value, found %s", s.found())
		}
		return
	}
	if first {
		return
	}
	if s.peek() != ' ' {
		s.fault("", "expected a blank and another value, found %s", s.found())
	}
	s.at++
}

func (s *scanner) blanks() {
	for {
		switch s.peek() {
		case ' ', '\t', '\r':
			s.at++
		default:
			return
		}
	}
}

// beginLine stands before a line that has values.
func (s *scanner) beginLine() {
	s.nth = 0
	if !s.loose {
		return
	}
	for s.blanks(); s.peek() == '\n'; s.blanks() {
		s.newLine()
	}
}

func (s *scanner) newLine() {
	s.at++
	s.line++
	s.start = s.at
	s.nth = 0
}

// endLine stands behind the last value of a line.
func (s *scanner) endLine() {
	if s.loose {
		s.blanks()
		if s.peek() == -1 {
			if s.ends++; s.ends > mostEnds {
				s.nth = 0
				s.fault("", "expected another line, found the end of the input")
			}
			return
		}
	}
	switch s.peek() {
	case '\n':
		s.newLine()
		return
	case -1:
		s.nth = 0
		s.fault("", "the last line has no end; a judge's input ends with one")
	}
	s.nth = 0
	s.fault("", "expected the end of the line, found %s", s.found())
}

// end makes sure that nothing follows.
func (s *scanner) theEnd() {
	if s.loose {
		for s.blanks(); s.peek() == '\n'; s.blanks() {
			s.newLine()
		}
	}
	s.nth = 0
	if s.peek() != -1 {
		s.fault("", "expected the end of the input, found %s", s.found())
	}
}

// wholeInteger is how many bytes an integer and what ends it take at the most.
const wholeInteger = 24

// integer reads an integer that is written as programs print it.
func (s *scanner) integer(name func() string) int64 {
	if s.end-s.at >= wholeInteger { // it is in the buffer whole, as nearly all are
		if x, n := plainInteger(s.buf[s.at : s.at+wholeInteger]); n > 0 {
			s.at += n
			return x
		}
	}
	c := s.peek()
	negative := c == '-'
	if negative {
		s.at++
		c = s.peek()
	}
	if c < '0' || c > '9' {
		if negative {
			s.at-- // it was just read, and is still there
		}
		s.fault(name(), "expected an integer%s, found %s", named(name()), s.found())
	}
	first := c
	var x uint64
	digits := 0
	for ; c >= '0' && c <= '9'; c = s.peek() {
		if x > (math.MaxUint64-9)/10 {
			s.fault(name(), "%s is past 64 bits", orThis(name()))
		}
		x = x*10 + uint64(c-'0')
		digits++
		s.at++
	}
	switch {
	case first == '0' && digits > 1:
		s.fault(name(), "%s has a leading zero", orThis(name()))
	case negative && x == 0:
		s.fault(name(), "%s is -0", orThis(name()))
	case c > ' ' && c != int(s.until):
		s.fault(name(), "expected an integer%s, found %d%s", named(name()), x, s.found())
	case negative && x <= 1<<63:
		return -int64(x)
	case negative || x > math.MaxInt64:
		s.fault(name(), "%s is past 64 bits", orThis(name()))
	}
	return int64(x)
}

// plainInteger reads an integer of at most 18 digits with a blank or a line end
// behind it; 0 bytes if there is anything else.
func plainInteger(text []byte) (x int64, n int) {
	at := 0
	if text[0] == '-' {
		at = 1
	}
	from := at
	for at < len(text) && text[at]-'0' < 10 {
		x = 10*x + int64(text[at]-'0')
		at++
	}
	digits := at - from
	if digits == 0 || digits > 18 || at == len(text) || text[at] != ' ' && text[at] != '\n' || text[from] == '0' && (digits > 1 || from == 1) {
		return 0, 0
	}
	if from == 1 {
		x = -x
	}
	return x, at
}

func named(name string) string {
	if name == "" {
		return ""
	}
	return " for " + name
}

func orThis(name string) string {
	if name == "" {
		return "this"
	}
	return name
}

// isBlank are the bytes that end a token.
var isBlank = [256]bool{' ': true, '\t': true, '\r': true, '\n': true}

// token reads what stands up to a blank or line end. It is valid until the next
// call.
func (s *scanner) token() []byte {
	s.word = s.word[:0]
	for {
		if s.at == s.end && !s.fill() {
			return s.word
		}
		from := s.at
		for s.at < s.end && !isBlank[s.buf[s.at]] && (s.until == 0 || s.buf[s.at] != s.until) {
			s.at++
		}
		s.word = append(s.word, s.buf[from:s.at]...)
		if s.at < s.end {
			return s.word
		}
	}
}

// rest reads what stands up to the line end.
func (s *scanner) rest() []byte {
	s.word = s.word[:0]
	for {
		if s.at == s.end && !s.fill() {
			return s.word
		}
		from := s.at
		for s.at < s.end && s.buf[s.at] != '\n' {
			s.at++
		}
		s.word = append(s.word, s.buf[from:s.at]...)
		if s.at < s.end {
			if s.loose {
				s.word = []byte(strings.TrimRight(string(s.word), " \t\r"))
			}
			return s.word
		}
	}
}

// lineIs reports that a line follows which holds just this text; it need not have
// been read yet.
func (s *scanner) lineIs(text string) bool {
	if s.loose {
		s.beginLine()
	}
	line := s.ahead(len(text) + 2)
	if s.loose {
		line = s.ahead(aheadMost)
	}
	line, _, ended := bytes.Cut(line, []byte{'\n'})
	if s.loose {
		return strings.Join(strings.Fields(string(line)), " ") == strings.Join(strings.Fields(text), " ")
	}
	return string(line) == text && (ended || s.done)
}

// aheadMost is how far it is looked ahead in a line at the most, in bytes.
const aheadMost = 4096

// ahead returns what follows, n bytes at least where there are so many.
func (s *scanner) ahead(n int) []byte {
	if s.end-s.at < n && !s.done { // bring it into one piece
		if s.taping {
			s.tape = append(s.tape, s.buf[s.from:s.at]...)
			s.from = 0
		}
		s.start -= s.at
		s.at, s.end = 0, copy(s.buf, s.buf[s.at:s.end])
		for tries := 0; s.end < n && !s.done && tries < 100; tries++ {
			got, err := s.r.Read(s.buf[s.end:])
			s.end += got
			if err != nil {
				s.done = true
				if err != io.EOF {
					s.err = err
				}
			}
		}
	}
	return s.buf[s.at:s.end]
}

// runes counts characters.
func runes(text []byte) int64 { return int64(utf8.RuneCount(text)) }
