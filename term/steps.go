package term

import (
	"fmt"
	"slices"
	"strconv"
	"strings"

	"coldverdict/core/steps"
	"coldverdict/core/verdict"
)

// Steps tells the story of a program: its last scenes, with what each line changed.
func (s *Screen) Steps(name, of string, r *steps.Recording, outcome verdict.Outcome, most int) {
	title := strong.Render(Visible(name)) + " on " + Visible(of)
	if words := outcome.Said(); outcome.Ran {
		title += ": " + verdictStyle(outcome.Verdict).Render(words)
	}
	s.Print("%s", s.wrapped(normal, title, ""))
	scenes := steps.Story(r.Steps)
	shown := steps.Around(scenes, most)
	words := Count(r.Total, "step")
	if r.Cut {
		words = "the first " + words + "; it ends here, since " + r.Why
	}
	if len(shown) < len(scenes) || len(r.Steps) < r.Total {
		words += fmt.Sprintf("; the last %d of its story", len(shown))
	}
	s.Print("%s", s.wrapped(dim, words, "  "))
	s.Print("")
	lead := len(strconv.Itoa(len(r.Source)))
	for _, one := range shown {
		s.scene(r, one, lead)
	}
	s.Flush()
}

// codeWide is how wide the text of a line is shown, beside what it changed.
const codeWide = 44

func (s *Screen) scene(r *steps.Recording, one steps.Scene, lead int) {
	if l := one.Loop; l != nil {
		low, high := slices.Min(l.Lines), slices.Max(l.Lines)
		lines := "line " + strconv.Itoa(low)
		if high > low {
			lines = fmt.Sprintf("lines %d to %d", low, high)
		}
		s.Print("%s", s.wrapped(dim, fmt.Sprintf("%s, %s times", lines, thousands(int64(l.Times))), strings.Repeat(" ", lead+2)))
		for _, v := range l.Vars {
			change := Visible(v.Name) + " from " + Visible(v.First) + " to " + Visible(v.Last)
			if v.First == v.Last {
				change = Visible(v.Name) + " = " + Visible(v.Last)
			}
			s.Print("%s", fit(strings.Repeat(" ", lead+6)+change, s.Width))
		}
		return
	}
	step := one.Step
	code := strings.Repeat("  ", min(step.Depth, 8)) + strings.ReplaceAll(r.Text(step.Line), "\t", "    ")
	wide := min(codeWide, max(20, s.Width/2-lead))
	line := dim.Render(padLeft(strconv.Itoa(step.Line), lead)) + "  " + pad(fit(Visible(code), wide), wide)
	var said []string
	for _, words := range []string{step.Error, step.Warning} {
		if words != "" {
			said = append(said, verdictStyle(verdict.RuntimeError).Render(Visible(words)))
		}
	}
	for _, c := range step.Changes {
		said = append(said, strong.Render(Visible(c.Name))+" = "+Visible(c.Value))
	}
	if step.Returned != "" {
		said = append(said, "returns "+Visible(step.Returned))
	}
	if step.Output != "" {
		said = append(said, verdictStyle(verdict.Accepted).Render("prints")+" "+Visible(strings.TrimSuffix(step.Output, "\n")))
	}
	if len(said) == 0 {
		s.Print("%s", strings.TrimRight(line, " "))
		return
	}
	s.Print("%s", fit(line+"  "+strings.Join(said, ", "), s.Width))
}

// Partings shows where the values of two programs first differ.
func (s *Screen) Partings(other string, list []steps.Parting, most int) {
	s.Print("")
	if len(list) == 0 {
		s.Print("%s", s.wrapped(normal, "no variable of the same name has another value than in "+Visible(other), ""))
		return
	}
	s.Print("%s", strong.Render("first other values than in "+Visible(other)))
	for _, p := range list[:min(len(list), most)] {
		value, theirs := Visible(p.Value), Visible(p.Other)
		switch {
		case p.Line == 0:
			value = "nothing more"
		case p.Beside == 0:
			theirs = "nothing more"
		}
		name := strong.Render(Visible(p.Name))
		if p.Theirs != p.Name {
			name += " (theirs " + Visible(p.Theirs) + ")"
		}
		words := fmt.Sprintf("%s, change %d: %s", name, p.Change, value)
		if p.Line > 0 {
			words += dim.Render(fmt.Sprintf(" (line %d)", p.Line))
		}
		words += ", theirs " + theirs
		if p.Beside > 0 {
			words += dim.Render(fmt.Sprintf(" (line %d)", p.Beside))
		}
		s.Print("%s", s.wrapped(normal, words, "  "))
	}
	s.Flush()
}
