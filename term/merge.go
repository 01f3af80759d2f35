package term

import (
	"strings"

	"coldverdict/core/verdict"
)

// Merged shows a solution of a run that several machines made: how it ended, and how many cases ended how.
func (s *Screen) Merged(name string, v verdict.Verdict, message string, counts map[verdict.Verdict]int, cases int, given *float64, possible float64, expect string) {
	t := &tally{seen: cases, counts: counts}
	line := strong.Render(Visible(name)+":") + " " + verdictStyle(v).Render(v.String())
	if words := t.countWords(cases); words != "" {
		line += " (" + words + ")"
	}
	if given != nil {
		line += ", " + points(*given) + " of " + points(possible) + " points"
	}
	if expect != "" && expect != v.String() {
		line += ", " + marked.Render("expected: "+expect)
	}
	s.Print("%s", s.wrapped(normal, strings.TrimSuffix(line+"; "+Visible(message), "; "), ""))
	s.Flush()
}
