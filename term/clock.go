package term

import (
	"fmt"
	"time"

	"coldverdict/core/history"
	"coldverdict/core/verdict"
)

// Clock shows a clock and its problems.
func (s *Screen) Clock(c *history.Clock, now time.Time) {
	words := "began " + When(c.Began, now) + ", " + ClockWords(c, now)
	if !c.Ended.IsZero() {
		words = "began " + When(c.Began, now) + ", ended " + When(c.Ended, now)
	}
	s.Print("%s", words)
	wide := 0
	for _, t := range c.Problems {
		wide = max(wide, width(Visible(t.Name)))
	}
	solved, sum := 0, time.Duration(0)
	for _, t := range c.Problems {
		state := marked.Render(pad("open", 8))
		if !t.Ended.IsZero() {
			state = verdictStyle(verdict.Accepted).Render(pad("solved", 8))
			solved++
			sum += c.Taken(t, now)
		}
		line := "  " + pad(Visible(t.Name), wide) + "  " + state + padLeft(Span(c.Taken(t, now)), 12)
		if t.Wrong > 0 {
			line += "  " + Count(t.Wrong, "wrong submission")
			if c.Penalty > 0 {
				line += fmt.Sprintf(", %s each", Span(c.Penalty))
			}
		}
		s.Print("%s", line)
	}
	if len(c.Problems) > 1 {
		s.Print("%d of %s solved, %s in all", solved, Count(len(c.Problems), "problem"), Span(sum))
	}
	s.Flush()
}

// ClockWords say what time it is: what is left of a contest, or how long it goes on.
func ClockWords(c *history.Clock, now time.Time) string {
	left, ok := c.Left(now)
	switch {
	case !ok:
		return Span(now.Sub(c.Began)) + " since then"
	case left <= 0:
		return "over since " + Span(-left)
	}
	return Span(left) + " left"
}
