package call

import (
	"bytes"
	"strconv"
	"strings"
	"time"
)

// A driver reads its calls from standard input: a first line with a token, then
// one call a line, a JSON array of the arguments. It answers on descriptor 3, a
// line an answer. Each begins with the token, and with how many calls were answered
// before, so that what a source writes there is no answer:
//
//	TOKEN 0 ready                   the source was loaded
//	TOKEN 0 unserved WHY            and it has nothing to call
//	TOKEN N begin                   many arguments were read, and the call begins now
//	TOKEN N done NANOSECONDS JSON   what was returned
//	TOKEN N failed NANOSECONDS K    it threw; standard error says what. Of a sequence, its call K did, from 1
//	TOKEN N misfit NANOSECONDS WHY  a declaration has no room for an argument or a result
//	TOKEN N stalled NANOSECONDS WHY it waits for what never comes
//	TOKEN N asks NAME JSON          it calls a function that is given, with an array of arguments
//	TOKEN N writes                  in a sequence, it writes the long result of a call
//	TOKEN N goes-on                 and makes the next one
//
// Where functions are given, a call's line comes once the one before is answered, and the answer to a
// question, as JSON, is a line, too.
//
// After it has loaded the source, and after each call, it writes the mark to
// standard output and to standard error, before it writes what was returned. So what is printed
// stays with the call that printed it, and all know when that has ended.

// Header is the first line that a driver is given. The token is what nobody prints
// by accident.
func Header(token string) string { return "cold-call 1 " + token + "\n" }

// Mark is what a driver writes behind what a call printed.
func Mark(token string) []byte { return []byte("\x00" + token + "\n") }

// A Kind is what an answer says.
type Kind string

// The kinds of answers.
const (
	Ready    Kind = "ready"
	Unserved Kind = "unserved"
	Begin    Kind = "begin"
	Done     Kind = "done"
	Failed   Kind = "failed"
	Misfit   Kind = "misfit"
	Stalled  Kind = "stalled"
	Asks     Kind = "asks"
	Writes   Kind = "writes"   // in a sequence: it writes what a call returned
	GoesOn   Kind = "goes-on"  // it has, and makes the next one
	Awaits   Kind = "awaits"   // what the call returned is not done, and is waited for
	Nonsense Kind = "nonsense" // it is no answer of the driver's
)

// BeginsPast is the length of a call's line, in bytes, up to which a driver never
// says when the call begins.
const BeginsPast = 100_000

// An Answer is one line of a driver.
type Answer struct {
	Kind  Kind
	Spent time.Duration // processor time of the call
	Text  string        // JSON, or why
	Long  bool          // it was longer than any may be, and Text is cut
}

// Answers splits what a driver writes to descriptor 3 and hands on each answer.
type Answers struct {
	Token string
	Most  int64 // bytes of a line; of a longer one the rest is dropped; 0: any
	Each  func(Answer)

	line  []byte
	long  bool
	count int // calls that were answered
}

// tagRoom is what an answer may have beside its token and its text, in bytes.
const tagRoom = 64

// Write takes a piece. It never fails.
func (a *Answers) Write(p []byte) (int, error) {
	for rest := p; len(rest) > 0; {
		line, after, ended := bytes.Cut(rest, []byte{'\n'})
		if room := a.Most + int64(len(a.Token)+tagRoom-len(a.line)); a.Most > 0 && int64(len(line)) > room {
			a.long, line = true, line[:max(0, room)]
		}
		a.line = append(a.line, line...)
		if ended {
			answer := a.parse(a.line)
			answer.Long = a.long
			a.Each(answer)
			a.line, a.long = a.line[:0], false
		}
		rest = after
	}
	return len(p), nil
}

// Long reports that a line which has not ended yet is longer than any may be.
func (a *Answers) Long() bool { return a.long }

// parse reads an answer.
func (a *Answers) parse(line []byte) Answer {
	nonsense := Answer{Kind: Nonsense, Text: string(line)}
	token, rest, _ := strings.Cut(string(line), " ")
	number, rest, _ := strings.Cut(rest, " ")
	if token != a.Token || number != strconv.Itoa(a.count) {
		return nonsense
	}
	kind, rest, _ := strings.Cut(rest, " ")
	answer := Answer{Kind: Kind(kind), Text: rest}
	switch answer.Kind {
	case Ready, Unserved, Begin, Asks, Writes, GoesOn, Awaits:
	case Done, Failed, Misfit, Stalled:
		number, text, _ := strings.Cut(rest, " ")
		n, err := strconv.ParseInt(number, 10, 64)
		if err != nil || n < 0 {
			return nonsense
		}
		answer.Spent, answer.Text = time.Duration(n), text
		a.count++
	default:
		return nonsense
	}
	return answer
}

// A Splitter splits what a driver's process writes to one stream at the marks.
type Splitter struct {
	Mark []byte
	Most int    // bytes that are kept of each part
	Each func() // a mark came; may be nil

	parts   []Part
	current Part
	held    []byte // what may be the beginning of a mark
}

// A Part is what was written between two marks, or its beginning.
type Part struct {
	Text []byte
	Size int64 // bytes in all
}

// Write takes a piece. It never fails.
func (s *Splitter) Write(p []byte) (int, error) {
	text := p
	if len(s.held) > 0 {
		text = append(s.held, p...)
		s.held = nil
	}
	for {
		i := bytes.Index(text, s.Mark)
		if i < 0 {
			break
		}
		s.add(text[:i])
		s.parts = append(s.parts, s.current)
		s.current = Part{}
		text = text[i+len(s.Mark):]
		if s.Each != nil {
			s.Each()
		}
	}
	keep := 0
	for n := min(len(s.Mark)-1, len(text)); n > 0; n-- {
		if bytes.HasPrefix(s.Mark, text[len(text)-n:]) {
			keep = n
			break
		}
	}
	s.add(text[:len(text)-keep])
	s.held = bytes.Clone(text[len(text)-keep:])
	return len(p), nil
}

func (s *Splitter) add(text []byte) {
	s.current.Size += int64(len(text))
	if room := s.Most - len(s.current.Text); room > 0 {
		s.current.Text = append(s.current.Text, text[:min(room, len(text))]...)
	}
}

// Count returns how many parts have ended.
func (s *Splitter) Count() int { return len(s.parts) }

// Take returns a part, by its number from 0, and forgets its text; the part that has
// not ended yet where the number is Count.
func (s *Splitter) Take(n int) (p Part) {
	switch {
	case n < len(s.parts):
		p, s.parts[n] = s.parts[n], Part{}
	case n == len(s.parts):
		s.add(s.held)
		s.held = nil
		p, s.current = s.current, Part{}
	}
	return p
}

// Size returns the bytes of the part that has not ended yet.
func (s *Splitter) Size() int64 { return s.current.Size }
