// Package compare compares what a program prints with what was expected.
//
// A Comparison is a writer: it eats the output while it is printed, reads the
// expected text beside it, and keeps only the first difference and its
// surroundings, and how many differ in all. Its memory does not grow with
// either text. Where any order is accepted it holds the expected text up to a
// bound, past which it still decides, and says less of what differs.
//
// The modes differ in what they count as equal:
//
//	exact    the same bytes
//	lines    line by line; blanks at line ends and blank lines at the end do not count
//	tokens   word by word; all spacing is the same
//	numbers  as tokens, and numbers may differ within a tolerance
//
// The package knows nothing of problems or verdicts of a run; where checkers
// of a person's own decide, it is not asked.
package compare

import (
	"fmt"
	"io"
	"iter"
	"slices"

	"coldverdict/core/verdict"
)

// Settings say when two outputs count as equal. The zero value compares lines.
type Settings struct {
	Mode       string  // one of Modes; empty is "lines"
	Absolute   float64 // numbers: largest difference accepted
	Relative   float64 // numbers: largest difference accepted as a share of the expected value; either suffices
	IgnoreCase bool    // letters A to Z equal a to z
	AnyOrder   string  // "lines" or "tokens": these may come in any order; empty: they may not
}

// A mode compares two texts and returns the first place where they differ, or
// nil. It reads no further than it must.
type mode func(want, got *text, s Settings) *mismatch

var modes = map[string]mode{
	"exact":   compareExact,
	"lines":   compareLines,
	"tokens":  compareTokens,
	"numbers": compareNumbers,
}

// Modes lists the names of the modes, in alphabetical order.
func Modes() []string {
	names := make([]string, 0, len(modes))
	for name := range modes {
		names = append(names, name)
	}
	slices.Sort(names)
	return names
}

// AnyOrders lists what may be said to come in any order.
func AnyOrders() []string { return []string{"lines", "tokens"} }

// Check reports settings that cannot be served.
func (s Settings) Check() error {
	switch {
	case s.Mode != "" && modes[s.Mode] == nil:
		return fmt.Errorf("there is no comparison mode %q; there are %q", s.Mode, Modes())
	case s.AnyOrder != "" && !slices.Contains(AnyOrders(), s.AnyOrder):
		return fmt.Errorf("any_order is %q; it can be %q", s.AnyOrder, AnyOrders())
	case s.AnyOrder != "" && s.Mode == "numbers":
		return fmt.Errorf("any_order compares text: it cannot be joined with mode \"numbers\"; use \"tokens\" or \"lines\"")
	case s.Absolute < 0 || s.Relative < 0:
		return fmt.Errorf("a tolerance cannot be negative")
	}
	return nil
}

func (s Settings) mode() mode {
	switch {
	case s.AnyOrder != "":
		return compareAnyOrder
	case s.Mode == "":
		return compareLines
	}
	return modes[s.Mode]
}

// A Comparison takes one output, through Write, and is asked for its Result
// once. It must be closed.
type Comparison struct {
	sides []*side
}

// A side is one accepted text, and how far the output agrees with it.
type side struct {
	source io.ReadCloser
	next   func() (struct{}, bool) // lets the comparison take what was written
	stop   func()
	chunk  []byte // what was written and not taken yet
	ended  bool   // nothing more will be written
	done   bool   // the comparison has come to its end
	found  *verdict.Difference
	fault  error
}

// New starts a comparison with each of the accepted texts; the output is equal
// if it equals one of them. The Comparison closes them.
func New(s Settings, accepted ...io.ReadCloser) (*Comparison, error) {
	c := &Comparison{}
	for _, source := range accepted {
		c.sides = append(c.sides, &side{source: source})
	}
	if err := s.Check(); err != nil {
		c.Close()
		return nil, err
	}
	if len(accepted) == 0 {
		return nil, fmt.Errorf("nothing to compare with")
	}
	for _, side := range c.sides {
		side.start(s)
	}
	return c, nil
}

// start makes the comparison ready to run. The two texts are both pulled,
// which keeps the modes readable; since the output is pushed, the comparison
// is a coroutine that yields whenever it needs more of it.
func (d *side) start(s Settings) {
	d.next, d.stop = iter.Pull(func(yield func(struct{}) bool) {
		defer func() { d.done = true }()
		want := &text{fill: filler(d.source, &d.fault)}
		got := &text{fill: func() []byte {
			for len(d.chunk) == 0 {
				if d.ended || !yield(struct{}{}) {
					return nil
				}
			}
			chunk := d.chunk
			d.chunk = nil
			return chunk
		}}
		want.skipMark()
		if p := s.mode()(want, got, s); p != nil && d.fault == nil {
			d.found = p.difference(want, got)
			p.countIn(d.found, want, got, s)
		}
	})
}

// countIn counts how many lines or words differ in all.
func (m *mismatch) countIn(d *verdict.Difference, want, got *text, s Settings) {
	switch {
	case m.rest != nil:
		m.rest(d)
	case s.Mode == "tokens" || s.Mode == "numbers":
		countWords(want, got, m, s, d)
	default:
		countLines(want, got, m, s, d)
	}
}

// Write takes the next part of the output. It never fails.
func (c *Comparison) Write(part []byte) (int, error) {
	for _, d := range c.sides {
		if d.done || len(part) == 0 {
			continue
		}
		d.chunk = part
		d.next()
	}
	return len(part), nil
}

// Result ends the output and returns nil if it was accepted, or the first
// difference; of several accepted texts, from the one that agrees for longest.
// An error means that an accepted text could not be read.
func (c *Comparison) Result() (*verdict.Difference, error) {
	var furthest *verdict.Difference
	for _, d := range c.sides {
		d.ended = true
		for !d.done {
			d.next()
		}
		if d.fault != nil {
			return nil, d.fault
		}
		if d.found == nil {
			return nil, nil
		}
		if furthest == nil || d.found.Line > furthest.Line ||
			d.found.Line == furthest.Line && d.found.Column > furthest.Column {
			furthest = d.found
		}
	}
	return furthest, nil
}

// Close frees what the comparison holds.
func (c *Comparison) Close() error {
	var first error
	for _, d := range c.sides {
		if d.stop != nil {
			d.stop()
		}
		if err := d.source.Close(); err != nil && first == nil {
			first = err
		}
	}
	return first
}
