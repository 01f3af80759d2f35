package term

import (
	"strings"

	"coldverdict/core/intake"
)

// Count shows a number of things: "1 case", "1,200 cases".
func Count(n int, one string) string { return count(n, one) }

// List shows the first few of some names.
func List(names []string, most int) string {
	shown := make([]string, 0, most)
	for _, name := range names[:min(len(names), most)] {
		shown = append(shown, Visible(name))
	}
	words := strings.Join(shown, ", ")
	if more := len(names) - len(shown); more > 0 {
		words += " and " + thousands(int64(more)) + " more"
	}
	return words
}

// How many pairs of each group, and how many files that were left over, are
// shown.
const (
	pairsShown = 6
	leftShown  = 10
)

// Pairing shows which inputs belong to which outputs, group by group, and what
// is left over.
func (s *Screen) Pairing(p intake.Pairing, group string) {
	for from := 0; from < len(p.Pairs); {
		to := from
		for to < len(p.Pairs) && p.Pairs[to].Group == p.Pairs[from].Group {
			to++
		}
		s.pairsOf(p.Pairs[from:to], group)
		from = to
	}
	if len(p.Left) == 0 {
		return
	}
	s.Print("%s  %s", strong.Render("left over"), dim.Render(count(len(p.Left), "file")+", not copied"))
	wide := 0
	for _, l := range p.Left[:min(len(p.Left), leftShown)] {
		wide = max(wide, width(Visible(l.Path)))
	}
	for _, l := range p.Left[:min(len(p.Left), leftShown)] {
		s.Print("  %s  %s", pad(fit(Visible(l.Path), s.Width/2), min(wide, s.Width/2)), dim.Render(l.Why))
	}
	if more := len(p.Left) - leftShown; more > 0 {
		s.leftOut(count(more, "file"))
	}
	s.Print("")
}

func (s *Screen) pairsOf(pairs []intake.Pair, group string) {
	name, _, _ := strings.Cut(intake.CaseName(pairs[0], group), "/")
	total := int64(0)
	for _, pair := range pairs {
		total += pair.Size
	}
	s.Print("%s  %s", strong.Render(Visible(name)), dim.Render(count(len(pairs), "case")+", "+Size(total)))
	shown := pairs
	if len(pairs) > pairsShown+1 {
		shown = append(append([]intake.Pair(nil), pairs[:pairsShown-1]...), pairs[len(pairs)-1])
	}
	names, inputs := 0, 0
	for _, pair := range shown {
		names = max(names, width(Visible(pair.Name)))
		inputs = max(inputs, width(Visible(pair.Input)))
	}
	names, inputs = min(names, s.Width/4), min(inputs, s.Width/3)
	for i, pair := range shown {
		if len(shown) < len(pairs) && i == len(shown)-1 {
			s.leftOut(count(len(pairs)-len(shown), "case"))
		}
		line := "  " + pad(fit(Visible(pair.Name), names), names) + "  " + pad(fit(Visible(pair.Input), inputs), inputs) + "  "
		s.Print("%s%s", line, fit(Visible(pair.Output), s.Width-width(line)))
	}
	s.Print("")
}
