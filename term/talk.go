package term

import (
	"bytes"
	"fmt"
	"io"
	"strings"

	"coldverdict/core/judge"
	"coldverdict/core/problem"
	"coldverdict/core/verdict"
)

// A TalkView shows a person what the interactor of an interactive problem says.
// What is written to it goes to Out, to the byte where Styled is not set.
type TalkView struct {
	Screen *Screen   // for all that the interactor does not say
	Out    io.Writer // for what it says
	Styled bool      // Out is for eyes: lines are marked, and control characters escaped

	within bool // the line has begun
}

// Begin says what is about to happen.
func (v *TalkView) Begin(p *problem.Problem, index int) {
	c := p.Cases[index]
	v.Screen.Print("%s", strong.Render("you are the candidate of "+Visible(c.Name)))
	if c.Reason != "" {
		v.Screen.Print("%s", v.Screen.wrapped(dim, Visible(firstParagraph(c.Reason)), "  "))
	}
	if v.Styled {
		v.Screen.Print("%s", dim.Render("  type what it would print; Ctrl-D ends it"))
	}
	v.Screen.Flush()
}

// Write implements io.Writer.
func (v *TalkView) Write(text []byte) (int, error) {
	if !v.Styled {
		return v.Out.Write(text)
	}
	for _, line := range bytes.SplitAfter(text, []byte{'\n'}) {
		if len(line) == 0 {
			continue
		}
		said, ended := bytes.CutSuffix(line, []byte{'\n'})
		shown := Visible(string(said))
		if !v.within {
			shown = marked.Render("»") + " " + shown
		}
		if v.within = !ended; ended {
			shown += "\n"
		}
		if _, err := io.WriteString(v.Out, shown); err != nil {
			return 0, err
		}
	}
	return len(text), nil
}

// End shows how it ended.
func (v *TalkView) End(o verdict.Outcome) {
	line := verdictStyle(o.Verdict).Render(o.Verdict.String())
	if o.Message != "" {
		line += ": " + Visible(o.Message)
	}
	said := 0
	for _, l := range o.Talk.Lines {
		if !l.ByOther {
			said++
		}
	}
	v.Screen.Print("%s", v.Screen.wrapped(normal, line+dim.Render(" ("+count(said, "line")+" said by you)"), ""))
	if len(o.Checker.Bytes) > 0 {
		v.Screen.Print("  %s", strong.Render("the interactor wrote"))
		v.Screen.printText(o.Checker, stderrMost)
	}
	v.Screen.Flush()
}

// A CheckerView shows what a checker says of answers of which it is known what
// it must say. Tell it every opinion.
type CheckerView struct {
	Screen  *Screen
	Problem *problem.Problem
	Right   int // opinions that are as they must be
	Wrong   int
	Faults  int

	last int // index of the case that was shown last, from 1
}

// Tried is how many answers the checker was tried on.
func (v *CheckerView) Tried() int { return v.Right + v.Wrong + v.Faults }

// Tell takes one opinion.
func (v *CheckerView) Tell(o judge.Opinion) {
	s := v.Screen
	c := v.Problem.Cases[o.Index]
	if v.last != o.Index+1 {
		v.last = o.Index + 1
		s.Print("%s", strong.Render(Visible(c.Name)))
	}
	must, answer := "reject", "the answer in line "+fmt.Sprint(o.Line)
	if o.Accept {
		must = "accept"
	}
	if o.Line == 0 {
		answer = "the expected output"
	}
	said := map[verdict.Verdict]string{
		verdict.Accepted: "accepts", verdict.WrongAnswer: "rejects", verdict.Partial: "gives a share to",
	}[o.Verdict]
	badge := verdictStyle(verdict.Accepted).Render(pad("right", 7))
	switch {
	case o.Verdict == verdict.Fault:
		v.Faults++
		badge, said = verdictStyle(verdict.Fault).Render(pad("fault", 7)), "failed on"
	case o.AsWanted:
		v.Right++
	default:
		v.Wrong++
		badge = verdictStyle(verdict.WrongAnswer).Render(pad("wrong", 7))
	}
	line := badge + said + " " + answer
	if !o.AsWanted {
		line += ", which it must " + must
	}
	if o.Why != "" {
		line += dim.Render(": " + Visible(o.Why))
	}
	s.Print("%s", s.wrapped(normal, line, "  "))
	if len(o.Wrote.Bytes) > 0 && !o.AsWanted {
		s.printText(o.Wrote, stderrMost)
	}
}

// Close sums up.
func (v *CheckerView) Close() {
	var parts []string
	for _, part := range []struct {
		n    int
		word string
	}{{v.Right, "right"}, {v.Wrong, "wrong"}, {v.Faults, "failed"}} {
		if part.n > 0 {
			parts = append(parts, fmt.Sprintf("%d %s", part.n, part.word))
		}
	}
	v.Screen.Print("\n%s", strong.Render("the checker: ")+strings.Join(parts, ", "))
	v.Screen.Flush()
}
