package term

import (
	"bytes"
	"fmt"
	"strings"
	"time"

	"charm.land/lipgloss/v2"

	"coldverdict/core/history"
	"coldverdict/core/verdict"
)

// Log shows the tries of a problem.
func (s *Screen) Log(o history.Overview, list []history.Attempt, now time.Time) {
	s.Print("%s", s.wrapped(normal, strong.Render(Visible(o.Name))+": "+overviewWords(o, now), ""))
	if len(list) == 0 {
		return
	}
	wide, whenWide := width("solution"), width("when")
	for _, a := range list {
		wide, whenWide = max(wide, width(attemptName(a))), max(whenWide, width(When(a.At, now)))
	}
	wide = min(wide, s.Width/3)
	s.Print("")
	if first := list[0].Number; first > 1 && len(list) < o.Tries {
		s.Print("  %s", dim.Render("--last 0 lists all "+thousands(int64(o.Tries))))
	}
	numbers := max(5, width(thousands(int64(list[len(list)-1].Number))))
	head := padLeft("no.", numbers) + "  " + pad("when", whenWide) + padLeft("after", 12) + "  " + pad("solution", wide) + "  " + pad("", 4) + padLeft("cases", 12) + padLeft("time", 9) + padLeft("memory", 10)
	s.Print("%s", strings.TrimRight(dim.Render(head), " "))
	for _, a := range list {
		line := padLeft(thousands(int64(a.Number)), numbers) + "  " + pad(When(a.At, now), whenWide) + padLeft(Span(a.SinceOpened), 12) + "  " + pad(fitMiddle(attemptName(a), wide), wide) + "  "
		if a.Command == history.Kept {
			s.Print("%s", strings.TrimRight(line+dim.Render(Visible(a.Message)), " "))
			continue
		}
		if a.Cases == 0 {
			s.Print("%s", line+verdictStyle(a.Verdict).Render(a.Verdict.Short()))
			continue
		}
		s.Print("%s", line+badges[a.Verdict]+padLeft(passedWords(a.Passed, a.Cases), 12)+padLeft(Duration(a.CPU), 9)+padLeft(Size(a.Memory), 10))
	}
}

// overviewWords say how far a problem is.
func overviewWords(o history.Overview, now time.Time) string {
	words := "opened " + When(o.Opened, now)
	switch {
	case o.Solved != nil:
		words += ", " + verdictStyle(verdict.Accepted).Render("solved") + fmt.Sprintf(" after %s with try %s in %s", Span(o.Solved.SinceOpened), thousands(int64(o.Solved.Number)), Visible(o.Solved.File))
	case o.Tries > 0:
		words += ", " + marked.Render("open")
	}
	return words + "; " + Count(o.Tries, "try") + ", " + thousands(int64(o.Refused)) + " not accepted"
}

func attemptName(a history.Attempt) string {
	return Visible(strings.Join(append([]string{a.File}, a.Args...), " "))
}

func passedWords(passed, cases int) string {
	if cases == 0 {
		return ""
	}
	return thousands(int64(passed)) + " of " + thousands(int64(cases))
}

// When is a moment as short as it can be told from now: the time of today, and else the day with it.
func When(at, now time.Time) string {
	switch {
	case at.Format(time.DateOnly) == now.Format(time.DateOnly):
		return at.Format("15:04")
	case at.Year() == now.Year():
		return at.Format("2 Jan 15:04")
	}
	return at.Format("2 Jan 2006")
}

// Span is how long something took, as a person counts it: "40 s", "24 min", "3 h 05 min", "12 days".
func Span(d time.Duration) string {
	switch {
	case d < 0:
		return "0 s"
	case d < time.Minute:
		return fmt.Sprintf("%d s", int(d.Seconds()))
	case d < time.Hour:
		return fmt.Sprintf("%d min", int(d.Minutes()))
	case d < 48*time.Hour:
		return fmt.Sprintf("%d h %02d min", int(d.Hours()), int(d.Minutes())%60)
	}
	return Count(int(d.Hours()/24), "day")
}

// Attempt shows one try with its source.
func (s *Screen) Attempt(a history.Attempt, now time.Time) {
	s.Print("%s", s.wrapped(normal, strong.Render(fmt.Sprintf("try %d of %s", a.Number, attemptName(a)))+", "+When(a.At, now)+", "+Span(a.SinceOpened)+" after the problem was opened", ""))
	if a.Command == history.Kept {
		s.Print("  %s", Visible(a.Message))
	} else {
		s.attemptFacts(a)
	}
	if a.Source == nil {
		s.Print("\n%s", dim.Render("the source was not kept"))
		return
	}
	s.Print("")
	s.printText(verdict.Text{Bytes: bytes.ReplaceAll(a.Source, []byte("\t"), []byte("    "))}, mostSourceLines)
}

// mostSourceLines bounds a source that is shown.
const mostSourceLines = 400

func (s *Screen) attemptFacts(a history.Attempt) {
	line := verdictStyle(a.Verdict).Render(a.Verdict.String())
	if a.Cases > 0 {
		line += fmt.Sprintf(" (%s), at most %s of %s and %s of %s", passedWords(a.Passed, a.Cases)+" cases", Duration(a.CPU), Duration(a.Limits.Time), Size(a.Memory), Size(a.Limits.Memory))
	}
	if a.Message != "" {
		line += ": " + Visible(a.Message)
	}
	s.Print("%s", s.wrapped(normal, line, "  "))
	if a.Points != nil {
		s.Print("  %s of %s points", points(*a.Points), points(a.Possible))
	}
	wide := 0
	for _, g := range a.Groups {
		wide = max(wide, width(Visible(g.Name)))
	}
	for _, g := range a.Groups {
		s.Print("  %s%s  %s", badges[g.Verdict], pad(Visible(g.Name), wide), passedWords(g.Passed, g.Cases))
	}
	for _, one := range a.Answers {
		s.Print("  %s", fit(Visible(one.Case)+": "+oneLine(Visible(one.Text))+" ("+one.State+")", s.Width-2))
	}
}

// Diff shows a unified difference of two texts.
func (s *Screen) Diff(text string) {
	for line := range strings.Lines(text) {
		line = strings.TrimRight(line, "\n")
		s.Print("%s", diffStyle(line).Render(Visible(strings.ReplaceAll(line, "\t", "    "))))
	}
}

// diffStyle is how a line of a unified difference is shown.
func diffStyle(line string) lipgloss.Style {
	switch {
	case strings.HasPrefix(line, "---"), strings.HasPrefix(line, "+++"):
		return strong
	case strings.HasPrefix(line, "@@"):
		return dim
	case strings.HasPrefix(line, "-"):
		return verdictStyle(verdict.WrongAnswer)
	case strings.HasPrefix(line, "+"):
		return verdictStyle(verdict.Accepted)
	}
	return normal
}

// Problems shows all problems, and tries by language and by week.
func (s *Screen) Problems(all []history.Overview, languages, weeks []history.Count, now time.Time) {
	solved, wide, whenWide := 0, width("problem"), width("opened")
	for _, o := range all {
		wide, whenWide = max(wide, width(Visible(o.Name))), max(whenWide, width(When(o.Opened, now)))
		if o.Solved != nil {
			solved++
		}
	}
	wide = min(wide, s.Width/3)
	s.Print("%s, %s solved", Count(len(all), "problem"), thousands(int64(solved)))
	s.Print("")
	s.Print("%s", strings.TrimRight(dim.Render("  "+pad("problem", wide)+"  "+pad("opened", whenWide+2)+pad("", 8)+padLeft("after", 11)+padLeft("tries", 8)+padLeft("not accepted", 14)+"  solved in"), " "))
	for _, o := range all {
		state, after, in := dim.Render(pad("new", 8)), "", ""
		switch {
		case o.Solved != nil:
			state, after, in = verdictStyle(verdict.Accepted).Render(pad("solved", 8)), Span(o.Solved.SinceOpened), Visible(o.Solved.File)
		case o.Tries > 0:
			state = marked.Render(pad("open", 8))
		}
		line := "  " + pad(fitMiddle(Visible(o.Name), wide), wide) + "  " + pad(When(o.Opened, now), whenWide+2) + state + padLeft(after, 11) + padLeft(thousands(int64(o.Tries)), 8) + padLeft(thousands(int64(o.Refused)), 14)
		s.Print("%s", strings.TrimRight(line+"  "+fit(in, s.Width-width(line)-2), " "))
	}
	s.counts("language", languages)
	s.counts("week of", weeks[:min(len(weeks), mostWeeks)])
}

// mostWeeks is how many weeks are shown.
const mostWeeks = 10

func (s *Screen) counts(of string, list []history.Count) {
	if len(list) == 0 {
		return
	}
	wide := width(of)
	for _, c := range list {
		wide = max(wide, width(Visible(c.Of)))
	}
	s.Print("")
	s.Print("  %s", dim.Render(pad(of, wide)+padLeft("tries", 8)+padLeft("accepted", 10)+padLeft("solved", 8)))
	for _, c := range list {
		s.Print("  %s%s%s%s", pad(Visible(c.Of), wide), padLeft(thousands(int64(c.Tries)), 8), padLeft(thousands(int64(c.Accepted)), 10), padLeft(thousands(int64(c.Solved)), 8))
	}
}
