package term

import (
	"fmt"
	"slices"
	"strings"

	"coldverdict/core/history"
	"coldverdict/core/ready"
	"coldverdict/core/verdict"
)

// A ManyView shows many problems, a line each.
type ManyView struct {
	Screen *Screen
	Names  []string // of the problems, all that will be told
	All    []OfMany

	wide int // of the longest name
}

// OfMany is how the candidates of one of many problems ended.
type OfMany struct {
	Name     string
	Attempts []history.Attempt // of the candidates; several where it has parts
	Verdict  verdict.Verdict   // of all together
	Differ   bool              // solutions answer a case differently that nobody can judge
	Was      verdict.Verdict   // in the run before, if Known
	Known    bool
	Changed  bool   // a verdict is another than in the run before, or there was none
	Parts    string // what is known of the answers to its parts; may be empty
	Full     string // what a run of it alone shows, if that is to be shown
	Error    string // why it was not run; empty: it was
}

// Begin takes the names of the problems.
func (v *ManyView) Begin(names []string) {
	v.Names = names
	for _, name := range names {
		v.wide = max(v.wide, width(Visible(name)))
	}
	v.wide = min(v.wide, v.Screen.Width/3)
}

// Tell shows the line of a problem.
func (v *ManyView) Tell(one OfMany) {
	v.All = append(v.All, one)
	s := v.Screen
	name := pad(fitMiddle(Visible(one.Name), v.wide), v.wide)
	if one.Error != "" {
		s.Print("%s", s.hanging("  "+marked.Render(pad("??", 4))+name+"  ", Visible(one.Error)))
		return
	}
	line := "  " + badges[one.Verdict] + name
	for _, more := range []string{attemptsWords(one.Attempts), one.Parts} {
		if more != "" {
			line += "  " + more
		}
	}
	switch {
	case one.Differ:
		line += "  " + marked.Render("they differ")
	case one.Known && one.Was != one.Verdict:
		line += "  " + dim.Render("was "+one.Was.Short())
	}
	s.Print("%s", line)
	s.Flush()
}

// attemptsWords say of candidates what they are, how many cases passed, and how near they came to a limit.
func attemptsWords(list []history.Attempt) string {
	var names []string
	passed, cases, given, possible := 0, 0, 0.0, 0.0
	var slowest, largest extreme
	for _, a := range list {
		if name := Visible(a.File); !slices.Contains(names, name) {
			names = append(names, name)
		}
		passed, cases, possible = passed+a.Passed, cases+a.Cases, possible+a.Possible
		if a.Points != nil {
			given += *a.Points
		}
		slowest.raise(float64(a.CPU)/float64(max(1, a.Limits.Time)), "", Duration(a.CPU)+" of "+Duration(a.Limits.Time))
		largest.raise(float64(a.Memory)/float64(max(1, a.Limits.Memory)), "", Size(a.Memory))
	}
	words := pad(fit(strings.Join(names, ", "), namesWide), namesWide)
	if cases > 0 {
		words += padLeft(passedWords(passed, cases), 11) + padLeft(slowest.words, 17) + padLeft(largest.words, 10)
	}
	if possible > 0 {
		words += padLeft(points(given)+" of "+points(possible)+" points", 20)
	}
	return words
}

// namesWide is how wide the names of the candidates of a problem are shown.
const namesWide = 16

// Close shows in full what changed, and sums up.
func (v *ManyView) Close() {
	s := v.Screen
	counts, changed, failed := map[verdict.Verdict]int{}, 0, 0
	for _, one := range v.All {
		if one.Full != "" {
			s.Print("\n%s", strong.Render(Visible(one.Name)))
			s.Raw(one.Full)
		}
		switch {
		case one.Error != "":
			failed++
			continue
		case one.Known && one.Changed:
			changed++
		}
		counts[one.Verdict]++
	}
	var words []string
	for got := verdict.Accepted; got <= verdict.Fault; got++ {
		if n := counts[got]; n > 0 {
			words = append(words, thousands(int64(n))+" "+got.String())
		}
	}
	if n := counts[verdict.Unjudged]; n > 0 {
		words = append(words, thousands(int64(n))+" unjudged")
	}
	if failed > 0 {
		words = append(words, marked.Render(thousands(int64(failed))+" not tried"))
	}
	line := Count(len(v.All), "problem") + ": " + strings.Join(words, ", ")
	if changed > 0 {
		line += fmt.Sprintf("; %s changed", thousands(int64(changed)))
	}
	s.Print("\n%s", s.wrapped(normal, line, ""))
	s.Flush()
}

// Ready shows the line of a problem whose candidate was looked at, and in full what shows that it is not ready.
func (v *ManyView) Ready(name string, outcome ready.Outcome, words, full string) {
	style := map[ready.Outcome]string{ready.Ready: okay.Render(pad("yes", 8)), ready.AsFar: marked.Render(pad("so far", 8)), ready.NotReady: verdictStyle(verdict.WrongAnswer).Render(pad("no", 8))}[outcome]
	v.Screen.Print("%s", v.Screen.hanging("  "+pad(fitMiddle(Visible(name), v.wide), v.wide)+"  "+style+"  ", Visible(words)))
	if outcome == ready.NotReady && full != "" {
		for line := range strings.Lines(full) {
			v.Screen.Raw("    " + line)
		}
	}
	v.Screen.Flush()
}
