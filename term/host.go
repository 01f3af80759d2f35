package term

import (
	"cmp"
	"fmt"
	"strings"

	"coldverdict/core/box"
	"coldverdict/core/toolchain"
	"coldverdict/core/verdict"
)

// A Host is what there is to say of this machine.
type Host struct {
	System    string        // "Linux 6.18.44, amd64, 2 processors"
	User      string        // whom programs are run as
	Jobs      int           // cases run beside each other by default
	Hold      box.Hold      // how limits are held
	Trial     verdict.Usage // what a trial run took
	Ungrouped string        // why there are no control groups; empty if there are
	Tools     []toolchain.Survey
}

// Host shows what this machine offers: how limits are held, what is missing
// and how to get it, and the languages.
func (s *Screen) Host(h Host) {
	s.Print("%s %s", strong.Render("this machine:"), Visible(h.System))
	s.Print("%s", s.wrapped(dim, fmt.Sprintf("run as %s; %s beside each other by default", Visible(h.User), count(h.Jobs, "case")), "  "))
	s.Print("\n%s", strong.Render("how a run is held"))
	promises := h.Hold.Promises()
	wide := 0
	for _, p := range promises {
		wide = max(wide, width(p.What))
	}
	for _, p := range promises {
		mark, words := verdictStyle(verdict.Accepted).Render("holds"), p.How
		if p.Lack != "" {
			mark = verdictStyle(verdict.RuntimeError).Render("  no ")
			words = marked.Render(p.Lack)
			if p.How != "-" {
				words = p.How + "; " + words
			}
		}
		s.columns([]string{"  ", mark, "  ", pad(p.What, wide), "  "}, words)
	}
	s.Print("")
	groups := "control groups: none; " + cmp.Or(h.Hold.Weaker(), "the watch holds memory and processes alone")
	if h.Hold.Groups != "" {
		groups = "control groups: " + h.Hold.Groups
	}
	s.Print("%s", s.wrapped(normal, Visible(groups), "  "))
	s.Print("  a trial run took %s of processor time and %s", Duration(h.Trial.CPU), Size(h.Trial.Memory))
	s.remedies(h)
	s.Print("\n%s", strong.Render("languages"))
	wide = 0
	for _, t := range h.Tools {
		wide = max(wide, width(t.Title))
	}
	for _, t := range h.Tools {
		words := Visible(distribution.ReplaceAllString(strings.Join(t.Versions, "; "), ""))
		mark := verdictStyle(verdict.Accepted).Render("found")
		if t.Missing != nil {
			mark, words = verdictStyle(verdict.RuntimeError).Render("  no "), Visible(strings.TrimPrefix(t.Missing.Error(), t.Title+" cannot be run: "))
		}
		s.columns([]string{"  ", mark, "  ", pad(t.Title, wide), "  "}, words)
	}
}

// remedies shows what could be had, why it is not, and how to get it.
func (s *Screen) remedies(h Host) {
	list := h.Hold.Remedies()
	if len(list) == 0 {
		return
	}
	s.Print("\n%s", strong.Render("what is missing"))
	for _, r := range list {
		s.columns([]string{"  "}, marked.Render(r.Want)+": "+r.Do)
	}
	for _, why := range append(h.Hold.Denied[:len(h.Hold.Denied):len(h.Hold.Denied)], strings.Split(h.Ungrouped, "\n")...) {
		if why != "" {
			s.columns([]string{"    "}, dim.Render(Visible("tried: "+why)))
		}
	}
}

// columns prints words that wrap in the last column, behind the others.
func (s *Screen) columns(before []string, words string) {
	lead := strings.Join(before, "")
	text := s.wrapped(normal, words, strings.Repeat(" ", width(lead)))
	s.Print("%s%s", lead, strings.TrimLeft(text, " "))
}

// Settings shows what counts for all problems: of each its value, and where that is from.
func (s *Screen) Settings(path string, rows [][3]string) {
	s.Print("%s", strong.Render(Visible(path)))
	for _, row := range rows {
		s.Print("  %-17s %-24s %s", row[0], Visible(row[1]), dim.Render(Visible(row[2])))
	}
}
