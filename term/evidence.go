package term

import (
	"fmt"
	"io"
	"os"
	"strconv"
	"strings"
	"unicode/utf8"

	"github.com/charmbracelet/x/ansi"

	"coldverdict/core/problem"
	"coldverdict/core/verdict"
)

// How much of each text the evidence shows, in lines.
const (
	inputHead  = 8
	inputTail  = 3
	outputMost = 12
	stderrMost = 8
)

// evidence shows one failing case: what went in, what came out, what was
// expected, and where they part.
func (v *TryView) evidence(f failure) {
	s := v.Screen
	c := &v.Problem.Cases[f.index]
	o := f.outcome
	title := fmt.Sprintf("%s: %s", Visible(c.Name), o.Verdict)
	if words := remarkWords(o); words != "" {
		title += ", " + words
	}
	if o.Signal != "" && o.Message == "" {
		title += ", " + o.Signal
	}
	s.Print("\n%s", verdictStyle(o.Verdict).Render(s.wrapped(title, "")))
	if c.Reason != "" {
		s.Print("%s", dim.Render(s.wrapped(Visible(firstParagraph(c.Reason)), "  ")))
	}
	s.printInput(c.Input)
	switch {
	case o.Difference != nil:
		s.printSides(o.Difference)
	case len(o.Stdout.Bytes) > 0:
		s.Print("\n  %s%s", strong.Render("printed"), cutWord(o.Stdout.Cut))
		s.printText(string(o.Stdout.Bytes), outputMost)
	case o.Verdict != verdict.Fault:
		s.Print("\n  %s", strong.Render("printed nothing"))
	}
	if len(o.Stderr.Bytes) > 0 {
		s.Print("\n  %s%s", strong.Render("stderr"), cutWord(o.Stderr.Cut))
		s.printText(string(o.Stderr.Bytes), stderrMost)
	}
	for i, hint := range o.Hints {
		if i == 0 {
			s.Print("")
		}
		s.Print("%s", s.wrapped(marked.Render("hint")+" "+Visible(hint), "  "))
	}
}

func firstParagraph(text string) string {
	text, _, _ = strings.Cut(text, "\n\n")
	return strings.Join(strings.Fields(text), " ")
}

func cutWord(cut bool) string {
	if cut {
		return ", its beginning"
	}
	return ""
}

// wholeText bounds what is read of an input to be shown, in bytes.
const wholeText = 64 << 10

// printInput shows an input; a long one is cut in the middle.
func (s *Screen) printInput(d problem.Data) {
	text, tail, err := ends(d)
	if err != nil {
		s.Print("\n  %s: cannot be read: %v", strong.Render("input"), err)
		return
	}
	title := strong.Render("input")
	switch {
	case d.Size == 0:
		s.Print("\n  %s: empty", title)
		return
	case tail == nil:
		title += fmt.Sprintf(", %s, %s", count(lineCount(text), "line"), Size(d.Size))
	default:
		title += fmt.Sprintf(", %s", Size(d.Size))
	}
	s.Print("\n  %s", title)
	if tail == nil {
		lines := splitLines(text)
		if len(lines) <= inputHead+inputTail+1 {
			s.printLines(lines, 1)
			return
		}
		s.printLines(lines[:inputHead], 1)
		s.Print("  %s", dim.Render(fmt.Sprintf("… %s left out …", count(len(lines)-inputHead-inputTail, "line"))))
		s.printLines(lines[len(lines)-inputTail:], len(lines)-inputTail+1)
		return
	}
	head := splitLines(text)
	head = head[:min(len(head), inputHead)]
	last := splitLines(tail)
	last = last[max(0, len(last)-inputTail):]
	shown := 0
	for _, line := range append(append([]string(nil), head...), last...) {
		shown += len(line) + 1
	}
	s.printLines(head, 1)
	s.Print("  %s", dim.Render(fmt.Sprintf("… %s left out …", Size(max(0, d.Size-int64(shown))))))
	s.printLines(last, 0)
}

// ends returns all of a text, or its beginning and its end.
func ends(d problem.Data) (head, tail []byte, err error) {
	if d.Size <= wholeText {
		head, err = d.Head(wholeText)
		return head, nil, err
	}
	const part = 4 << 10
	if d.Path == "" {
		return d.Text[:part], d.Text[len(d.Text)-part:], nil
	}
	file, err := os.Open(d.Path)
	if err != nil {
		return nil, nil, err
	}
	defer file.Close()
	head, tail = make([]byte, part), make([]byte, part)
	if _, err = io.ReadFull(file, head); err != nil {
		return nil, nil, err
	}
	_, err = file.ReadAt(tail, d.Size-part)
	return head, tail, err
}

func lineCount(text []byte) int { return len(splitLines(text)) }

func splitLines(text []byte) []string {
	return strings.Split(strings.TrimSuffix(string(text), "\n"), "\n")
}

// printText shows at most so many lines of a program's text.
func (s *Screen) printText(text string, most int) {
	lines := splitLines([]byte(text))
	if len(lines) > most {
		s.printLines(lines[:most], 0)
		s.Print("  %s", dim.Render(fmt.Sprintf("… %s left out …", count(len(lines)-most, "line"))))
		return
	}
	s.printLines(lines, 0)
}

// printLines shows lines with their numbers, from first on; 0 for none.
func (s *Screen) printLines(lines []string, first int) {
	wide := len(strconv.Itoa(first + len(lines) - 1))
	for i, line := range lines {
		number := ""
		if first > 0 {
			number = dim.Render(padLeft(strconv.Itoa(first+i), wide)) + "  "
		}
		s.Print("    %s%s", number, fit(Visible(bounded(line)), s.Width-4-wide-2))
	}
}

// bounded cuts a line that is far too long for any screen before it is made
// visible and measured.
func bounded(line string) string {
	if len(line) > 8*greatestWidth {
		return line[:8*greatestWidth]
	}
	return line
}

// printSides shows expected and got side by side, or one below the other on a
// narrow screen, with the first difference marked.
func (s *Screen) printSides(d *verdict.Difference) {
	between := 3
	column := (s.Width - 2 - between) / 2
	want, got := sideLines(d.ExpectedSide, column), sideLines(d.GotSide, column)
	widest := 0
	for _, line := range append(append([]string(nil), want...), got...) {
		widest = max(widest, ansi.StringWidth(line))
	}
	if column < 26 && widest > column-1 {
		s.Print("\n  %s", strong.Render("expected"))
		s.printColumn(sideLines(d.ExpectedSide, s.Width-2))
		s.Print("\n  %s", strong.Render("got"))
		s.printColumn(sideLines(d.GotSide, s.Width-2))
		return
	}
	column = min(column, max(widest, 24))
	s.Print("\n  %s%s%s", strong.Render(pad("expected", column)), strings.Repeat(" ", between), strong.Render("got"))
	for i := range max(len(want), len(got)) {
		left, right := "", ""
		if i < len(want) {
			left = want[i]
		}
		if i < len(got) {
			right = got[i]
		}
		s.Print("  %s%s%s", pad(left, column), strings.Repeat(" ", between), right)
	}
}

func (s *Screen) printColumn(lines []string) {
	for _, line := range lines {
		s.Print("  %s", line)
	}
}

// sideLines lays out one side: numbered lines, the one that differs marked,
// and under it a pointer to the place.
func sideLines(e verdict.Excerpt, width int) (lines []string) {
	digits := len(strconv.Itoa(e.FirstLine + len(e.Lines)))
	room := width - digits - 4
	if !e.AtStart {
		lines = append(lines, dim.Render("  …"))
	}
	for i, line := range e.Lines {
		number := padLeft(strconv.Itoa(e.FirstLine+i), digits)
		if i != e.Mark {
			lines = append(lines, fmt.Sprintf("  %s  %s", dim.Render(number), cutLine(line, e.Starts[i], 0, room).text))
			continue
		}
		cut := cutLine(line, e.Starts[i], e.Column-1-e.Starts[i], room)
		lines = append(lines,
			fmt.Sprintf("%s %s  %s", marked.Render("»"), number, cut.text),
			strings.Repeat(" ", 2+digits+2+cut.column)+marked.Render("^"))
	}
	if e.Mark >= len(e.Lines) {
		lines = append(lines, marked.Render("» ")+dim.Render("(ends here)"))
	} else if !e.AtEnd {
		lines = append(lines, dim.Render("  …"))
	}
	return lines
}

// A cutText is a line made visible and cut to a width around a column.
type cutText struct {
	text   string
	column int // of the place, in columns of the screen
}

// cutLine shows a line of which start characters are cut off already, around
// the character at index at.
func cutLine(line string, start, at, room int) cutText {
	at = min(max(at, 0), utf8.RuneCountInString(line))
	before, after := splitAt(line, at)
	left, right := Visible(before), Visible(after)
	lead := ""
	if start > 0 {
		lead = "…"
	}
	if over := ansi.StringWidth(lead+left) - room*2/3; over > 0 && ansi.StringWidth(lead+left+right) > room {
		lead = "…"
		left = ansi.TruncateLeft(left, over+1, "")
	}
	shown := lead + left
	return cutText{fit(shown+right, room), ansi.StringWidth(shown)}
}

func splitAt(line string, runes int) (string, string) {
	n := 0
	for i := range line {
		if n == runes {
			return line[:i], line[i:]
		}
		n++
	}
	return line, ""
}
