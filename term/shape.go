package term

import (
	"fmt"
	"strings"

	"coldverdict/core/edges"
	"coldverdict/core/problem"
	"coldverdict/core/shape"
	"coldverdict/core/verdict"
)

// Fault shows what is wrong with the input of a case, and the line in which it
// lies.
func (s *Screen) Fault(c problem.Case, f *shape.Fault) {
	words := Visible(f.Error())
	if c.Sealed {
		words = problem.SealedWords
	}
	s.Print("%s %s", verdictStyle(verdict.WrongAnswer).Render(Visible(c.Name)+":"), s.wrapped(normal, words, ""))
	if c.Sealed || f.Line == 0 {
		return
	}
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

// EdgeCase lists an edge case.
func (s *Screen) EdgeCase(c shape.EdgeCase) {
	name := s.wrapped(normal, Visible(c.Name), strings.Repeat(" ", 12))
	s.Print("%10s  %s", Size(c.Bytes), strings.TrimLeft(name, " "))
}

// EdgeCover says how many pairs of choices edge cases cover.
func (s *Screen) EdgeCover(e shape.EdgeCases) {
	words := "all " + Count(e.Pairs, "pair") + " of choices are in them"
	switch {
	case e.Pairs == 0:
		words = "there is nothing to choose in this shape"
	case e.Covered < e.Pairs:
		words = Count(e.Covered, "pair") + " of choices, of " + Count(e.Pairs, "pair") + ", are in them"
	}
	if e.GaveWay > 0 {
		words += "; in " + Count(e.GaveWay, "other") + " a style gave way to what the shape requires"
	}
	if e.Contradicting > 0 {
		words += "; " + Count(e.Contradicting, "combination") + " contradict the shape"
	}
	s.Print("%s", s.wrapped(dim, Count(len(e.Cases), "edge case")+"; "+words, ""))
}

// Edges says which edge cases were added to the cases of a problem, and what is known
// of their answers.
func (s *Screen) Edges(e *edges.Added) {
	words := fmt.Sprintf("%s from %s: %s", Count(e.Made, "edge case"), Visible(e.From), Visible(e.Answers))
	s.Print("%s\n", s.wrapped(dim, words, ""))
}
