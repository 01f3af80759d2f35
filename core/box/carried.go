package box

import "io"

// The streams of a program: standard output, standard error, and descriptor 3.
const streamCount = 3

// carried says how much passed through a box's streams in one run.
type carried struct {
	sinks   [streamCount]io.Writer
	limit   int64
	written int64
	passed  bool // the output limit
}

// take counts what was read, hands it on, and reports whether it has just
// passed the limit. What comes after the limit is dropped.
func (c *carried) take(i int, text []byte) (over bool) {
	c.written += int64(len(text))
	if c.limit > 0 && c.written > c.limit {
		over, c.passed = !c.passed, true
		return over
	}
	if c.sinks[i] != nil {
		if _, err := c.sinks[i].Write(text); err != nil {
			c.sinks[i] = nil
		}
	}
	return false
}
