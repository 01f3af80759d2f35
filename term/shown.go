package term

import (
	"cmp"
	"strings"

	"github.com/aymanbagabas/go-udiff"

	"coldverdict/core/judge"
	"coldverdict/core/verdict"
)

// Shown is what a case printed.
type Shown struct {
	Returned       string // of a function
	Stdout, Stderr verdict.Text
}

// ShownOf is what is shown of an outcome.
func ShownOf(o verdict.Outcome) Shown { return Shown{o.Returned, o.Stdout, o.Stderr} }

// shown shows all that a case printed, or what changed in it since the run before. Same says that its line was
// left out, since it ended as before.
func (v *TryView) shown(e judge.Case, same bool) {
	c := &v.Problem.Cases[e.Index]
	if c.Sealed || !e.Outcome.Ran {
		return
	}
	now := ShownOf(e.Outcome)
	was, known := v.ShownBefore[c.Name]
	headed := !same
	for _, one := range []struct {
		title    string
		now, was verdict.Text
	}{
		{"returned", verdict.Text{Bytes: []byte(now.Returned)}, verdict.Text{Bytes: []byte(was.Returned)}},
		{cmp.Or(v.Problem.Files.Output, "standard output"), now.Stdout, was.Stdout},
		{"standard error", now.Stderr, was.Stderr},
	} {
		if len(one.now.Bytes) == 0 && len(one.was.Bytes) == 0 || known && string(one.now.Bytes) == string(one.was.Bytes) {
			continue
		}
		if !headed {
			headed = true
			v.oneCase(e, "")
		}
		if known && len(one.was.Bytes) > 0 {
			v.Screen.Print("    %s", dim.Render(one.title+", what changed"))
			v.Screen.changed(string(one.was.Bytes), string(one.now.Bytes))
			continue
		}
		v.Screen.Print("    %s", dim.Render(one.title))
		v.Screen.printText(one.now, mostShown)
	}
}

// mostShown is how many lines of a case are shown at the most.
const mostShown = 10_000

// changed shows the lines that changed from one text to another, with a few around them.
func (s *Screen) changed(was, now string) {
	text := udiff.Unified("", "", was, now)
	for i, line := range strings.Split(strings.TrimSuffix(text, "\n"), "\n") {
		switch {
		case i < 2: // which names the two texts
		case strings.HasPrefix(line, "@@"):
			s.Print("    %s", dim.Render("…"))
		default:
			s.Print("    %s", diffStyle(line).Render(fit(Visible(bounded(line)), s.Width-4)))
		}
	}
}
