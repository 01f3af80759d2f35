package term

import (
	"fmt"
	"strings"

	"coldverdict/core/problem"
)

// Cases shows a table of cases, group by group.
func (s *Screen) Cases(p *problem.Problem, indices []int) {
	if len(indices) == 0 {
		s.Print("no cases yet; 'cold case add' adds one")
		return
	}
	wide := 0
	for _, i := range indices {
		wide = max(wide, width(shortName(p.Cases[i])))
	}
	wide = min(wide, s.Width/3)
	group := ""
	for n, i := range indices {
		c := p.Cases[i]
		if n == 0 || c.Group != group {
			if n > 0 {
				s.Print("")
			}
			group = c.Group
			s.Print("%s", strong.Render(Visible(group)))
		}
		name := pad(fit(shortName(c), wide), wide)
		if c.Sealed {
			s.Print("  %s  %s  %s", name, padLeft("", 8), dim.Render(problem.SealedWords))
			continue
		}
		line := fmt.Sprintf("  %s  %s  %s", name, padLeft(Size(c.Input.Size), 8), pad(answerWords(p, c), 11))
		if left := s.Width - width(line) - 2; left > 20 {
			words := firstParagraph(c.Reason)
			if words == "" {
				words = c.Where
			}
			line += "  " + dim.Render(fit(Visible(words), left))
		}
		s.Print("%s", line)
	}
	s.Print("\n%s", count(len(indices), "case"))
}

func shortName(c problem.Case) string {
	return Visible(strings.TrimPrefix(c.Name, c.Group+"/"))
}

func answerWords(p *problem.Problem, c problem.Case) string {
	switch {
	case p.Kind().Talks:
		return "a talk"
	case len(c.Accepted) == 0 && len(c.Trials) > 0, len(c.Accepted) == 0 && c.Compare.Custom():
		return "checked"
	case len(c.Accepted) == 0 && len(c.Refused) > 0:
		return fmt.Sprintf("%d refused", len(c.Refused))
	case len(c.Accepted) == 0:
		return "no answer"
	case c.Unsure:
		return "doubtful"
	case c.Kept != "":
		return "kept"
	case len(c.Accepted) == 1:
		return "1 answer"
	}
	return count(len(c.Accepted), "answer")
}

// Case shows one case in full.
func (s *Screen) Case(p *problem.Problem, c problem.Case) {
	if c.Sealed {
		s.Print("%s  %s", strong.Render(Visible(c.Name)), dim.Render(problem.SealedWords))
		return
	}
	input, output := p.Kind().Input, p.Kind().Output
	s.Print("%s  %s", strong.Render(Visible(c.Name)), dim.Render(Visible(c.Where)))
	if c.Reason != "" {
		s.Print("%s", s.wrapped(normal, Visible(firstParagraph(c.Reason)), "  "))
	}
	s.printData(input, c.Input, shownWhole)
	switch {
	case len(c.Accepted) == 0:
		s.Print("\n  the answer is not known")
	default:
		for i, data := range c.Accepted {
			title := output
			if i > 0 {
				title = "or"
			}
			s.printData(title, data, shownWhole)
		}
	}
	if c.Kept != "" {
		s.Print("%s", s.wrapped(dim, Visible(c.Kept), "  "))
	}
	for _, t := range c.Trials {
		title := "the checker must reject"
		if t.Accept {
			title = "the checker must accept"
		}
		s.printData(title, t.Answer, shownShort)
	}
	for _, r := range c.Refused {
		s.printData(strings.TrimSpace("refused "+strings.ReplaceAll(r.Sought, "-", " ")), r.Answer, shownShort)
	}
}

// Answer shows what a solution printed.
func (s *Screen) Answer(text []byte) {
	if len(text) == 0 {
		s.Print("    (nothing)")
		return
	}
	lines := splitLines(text)
	if len(lines) <= shownWhole.head+shownWhole.tail {
		s.printLines(lines, 0)
		return
	}
	s.printLines(lines[:shownWhole.head], 0)
	s.leftOut(count(len(lines)-shownWhole.head-shownWhole.tail, "line"))
	s.printLines(lines[len(lines)-shownWhole.tail:], 0)
}

// Sample shows a sample as it was taken, with where its sides stand in the page, and the doubts about it.
func (s *Screen) Sample(input, output []byte, line, outLine int, doubts []string) {
	s.printData(fmt.Sprintf("input, line %d", line), problem.Data{Text: input, Size: int64(len(input))}, shownShort)
	s.printData(fmt.Sprintf("output, line %d", outLine), problem.Data{Text: output, Size: int64(len(output))}, shownShort)
	for _, words := range doubts {
		s.Print("%s", s.wrapped(normal, marked.Render("doubtful")+" "+Visible(words), "  "))
	}
}
