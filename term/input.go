package term

import (
	"bufio"
	"bytes"
	"io"
	"strings"

	"coldverdict/core/judge"
	"coldverdict/core/verdict"
)

// An InputView shows a run on one input whose answer nobody knows: beside what
// the program prints, which goes elsewhere, how it ended, and what a reference
// printed. Tell it every event of the judge.
type InputView struct {
	Screen *Screen
	Chosen string // how the solution was chosen, if not by name
	Calls  bool   // a function is called; what it prints is shown, too
	Runs   []InputRun
}

// An InputRun is one solution's run on the input.
type InputRun struct {
	Plan    judge.Plan
	Outcome verdict.Outcome
	Ended   judge.Ended
}

// Tell takes one event.
func (v *InputView) Tell(event judge.Event) {
	switch e := event.(type) {
	case judge.Building:
		v.Screen.Progress("building …")
	case judge.Began:
		v.Runs = append(v.Runs, InputRun{Plan: e.Plan})
		if e.Solution > 0 {
			v.Screen.Progress("running %s …", Visible(e.Plan.Solution.File))
		} else {
			v.Screen.clearProgress()
		}
	case judge.Case:
		v.Runs[e.Solution].Outcome = e.Outcome
	case judge.Ended:
		v.Runs[e.Solution].Ended = e
		if e.Solution == 0 {
			v.candidate(v.Runs[0])
		}
	}
}

func (v *InputView) candidate(r InputRun) {
	s, o := v.Screen, r.Outcome
	if b := r.Plan.Build; b != nil && b.Failed {
		s.Print("%s", verdictStyle(verdict.CompileError).Render("the compiler says"))
		s.printText(verdict.Text{Bytes: []byte(b.FirstError())}, mostLog)
	}
	name := strong.Render(solutionName(r.Plan.Solution))
	if v.Chosen != "" {
		name += " (" + v.Chosen + ")"
	}
	line := name + ": " + verdictStyle(r.Ended.Verdict).Render(endWords(r))
	if o.Ran {
		line += dim.Render(", " + v.used(r))
	}
	s.Print("%s", s.wrapped(normal, line, ""))
	if words := remarkWords(o); words != "" && o.Verdict != verdict.Unjudged {
		s.Print("%s", s.wrapped(normal, words, "  "))
	}
	if v.Calls && len(o.Stdout.Bytes) > 0 {
		s.Print("  %s", strong.Render("printed"))
		s.printText(o.Stdout, outputMost)
	}
	if len(o.Stderr.Bytes) > 0 {
		s.Print("  %s", strong.Render("stderr"))
		s.printText(o.Stderr, outputMost)
	}
	for _, hint := range append(o.Hints, r.Ended.Hints...) {
		s.hint(hint)
	}
	s.Flush()
}

func endWords(r InputRun) string {
	if r.Ended.Verdict == verdict.Unjudged {
		return "ran to its end"
	}
	words := r.Ended.Verdict.String()
	if r.Ended.Message != "" {
		words += ", " + Visible(r.Ended.Message)
	}
	return words
}

func (v *InputView) same() string {
	if v.Calls {
		return "returns"
	}
	return "prints"
}

// used says what a run took of what it may.
func (v *InputView) used(r InputRun) string {
	l, unset := r.Plan.Limits, r.Plan.Unset
	return Duration(r.Outcome.Usage.CPU) + " of " + Duration(l.Time) + unsetWord(unset.Time != 0) + ", " +
		Size(r.Outcome.Usage.Memory) + " of " + Size(l.Memory) + unsetWord(unset.Memory != 0)
}

// Close says what references printed.
func (v *InputView) Close(agreements []judge.Agreement) {
	s := v.Screen
	for i, a := range agreements {
		r := v.Runs[1+i]
		name := strong.Render(solutionName(r.Plan.Solution))
		switch {
		case !a.Compared:
			s.Print("%s (reference): %s", name, marked.Render("not compared: "+endWords(r)))
		case a.Difference == nil:
			s.Print("%s (reference): %s", name, verdictStyle(verdict.Accepted).Render(v.same()+" the same")+dim.Render(", "+v.used(r)))
		default:
			s.Print("%s (reference): %s", name, verdictStyle(verdict.WrongAnswer).Render(v.same()+" something else")+dim.Render(", "+v.used(r)))
			s.printSides(a.Difference, "expected", "got")
		}
	}
	s.Flush()
}

// Bytes returns a writer for what a program prints: as it is, but on a terminal
// with its control characters escaped, line by line. Closed, it ends a last
// line that the program did not end, on a terminal.
func (s *Screen) Bytes(out io.Writer) io.WriteCloser {
	w := &bytesWriter{out: bufio.NewWriterSize(out, 64<<10), instant: s.instant}
	return w
}

type bytesWriter struct {
	out     *bufio.Writer
	instant bool // it is a terminal
	line    []byte
	err     error
}

// Write never fails, so that the program's other readers go on; Close says
// whether all was written.
func (w *bytesWriter) Write(p []byte) (int, error) {
	if !w.instant {
		if w.err == nil {
			_, w.err = w.out.Write(p)
		}
		return len(p), nil
	}
	for rest := p; len(rest) > 0; {
		line, after, ended := bytes.Cut(rest, []byte{'\n'})
		w.line, rest = append(w.line, line...), after
		if ended || len(w.line) > 64<<10 {
			w.show(ended)
		}
	}
	w.out.Flush()
	return len(p), nil
}

func (w *bytesWriter) show(ended bool) {
	text := Visible(strings.TrimSuffix(string(w.line), "\r"))
	w.line = w.line[:0]
	if ended {
		text += "\n"
	}
	if w.err == nil {
		_, w.err = w.out.WriteString(text)
	}
}

func (w *bytesWriter) Close() error {
	if len(w.line) > 0 {
		w.show(true)
	}
	if err := w.out.Flush(); w.err == nil {
		w.err = err
	}
	return w.err
}
