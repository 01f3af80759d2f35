package term

import (
	"strings"

	"coldverdict/core/problem"
	"coldverdict/core/shape"
	"coldverdict/core/verdict"
)

// Fault shows what is wrong with the input of a case, and the line in which it
// lies.
func (s *Screen) Fault(c problem.Case, f *shape.Fault) {
	s.Print("%s %s", verdictStyle(verdict.WrongAnswer).Render(Visible(c.Name)+":"), s.wrapped(normal, Visible(f.Error()), ""))
	text, err := c.Input.Head(wholeShare)
	if err != nil {
		return
	}
	lines := splitLines(text)
	if f.Line > len(lines) {
		return
	}
	line := cutLine(lines[f.Line-1], 0, max(0, f.Column-1), s.Width-4)
	s.Print("  %s", dim.Render(line.text))
}

// Explanation shows what a shape means, a line an item.
func (s *Screen) Explanation(lines []string) {
	for _, line := range lines {
		words := strings.TrimLeft(line, " ")
		indent := strings.Repeat(" ", len(line)-len(words))
		for i, part := range wrapWords(Visible(words), s.Width-len(indent)-2) {
			if i > 0 {
				part = "  " + part
			}
			s.Print("%s%s", indent, part)
		}
	}
}
