package term

import (
	"fmt"
	"os"
	"slices"
	"strconv"
	"strings"
	"unicode/utf8"

	"github.com/charmbracelet/x/ansi"

	"coldverdict/core/problem"
	"coldverdict/core/verdict"
)

// How much of each text the evidence shows, in lines.
const (
	outputMost   = 12
	unjudgedMost = 400
	stderrMost   = 8
)

// evidence shows one failing case: what went in, what came out, what was
// expected, and where they differ.
func (v *TryView) evidence(t *tally, f failure) {
	s := v.Screen
	c := &v.Problem.Cases[f.index]
	o := f.outcome
	title := fmt.Sprintf("%s%s: %s", Visible(c.Name), v.ofSolution(t), o.Verdict)
	if words := remarkWords(o); words != "" {
		title += ", " + words
	}
	if o.Signal != "" && o.Message == "" {
		title += ", " + o.Signal
	}
	s.Print("\n%s", s.wrapped(verdictStyle(o.Verdict), title, ""))
	if c.Reason != "" {
		s.Print("%s", s.wrapped(dim, Visible(firstParagraph(c.Reason)), "  "))
	}
	v.facts(t.name, c, o)
}

// facts are what went in, what came out, and what is to be said of it.
func (v *TryView) facts(candidate string, c *problem.Case, o verdict.Outcome) {
	s := v.Screen
	switch {
	case o.Differs != nil:
		s.printSides(o.Differs.Difference, v.all[o.Differs.Solution].name, candidate)
		s.printData(v.Problem.Kind().Input, c.Input, shownShort)
		v.argumentsDrawn(c)
	case o.Verdict == verdict.Unjudged: // what it printed is what matters
		v.printed(c, o, unjudgedMost)
		s.printData(v.Problem.Kind().Input, c.Input, shownShort)
		v.argumentsDrawn(c)
	case o.Talk != nil:
		s.printData("input", c.Input, shownShort)
		s.printTalk(candidate, o)
	default:
		s.printData(v.Problem.Kind().Input, c.Input, shownShort)
		v.argumentsDrawn(c)
		if o.Difference != nil && !v.Problem.Kind().Calls {
			s.printShare(c.Input, o.Difference.Answer)
		}
		v.printed(c, o, outputMost)
		if c.Compare.Custom() && len(c.Accepted) > 0 && !o.Verdict.Passing() {
			s.printData("a right answer", c.Accepted[0], shownShort)
		}
	}
	if len(o.Checker.Bytes) > 0 {
		who := "the checker wrote"
		if o.Talk != nil {
			who = "the interactor wrote"
		}
		s.Print("\n  %s", strong.Render(who))
		s.printText(o.Checker, stderrMost)
	}
	if len(o.Stderr.Bytes) > 0 {
		s.Print("\n  %s", strong.Render("stderr"))
		s.printText(o.Stderr, stderrMost)
	}
	if (o.Verdict == verdict.TimeLimit || o.Verdict == verdict.Stalled) && len(o.Methods) > 0 {
		calls := 0
		for _, m := range o.Methods {
			calls += m.Calls
		}
		s.Print("\n  %s, in its first %s", strong.Render("time by method"), verdict.Count(calls, "call"))
		for _, m := range o.Methods {
			s.Print("  %9s  %s in %s", Duration(m.CPU), Visible(m.Method), verdict.Count(m.Calls, "call"))
		}
	}
	for i, hint := range o.Hints {
		if i == 0 {
			s.Print("")
		}
		s.hint(hint)
	}
}

// hint shows what an experienced friend would say.
func (s *Screen) hint(words string) {
	s.Print("%s", s.wrapped(normal, marked.Render("hint")+" "+Visible(words), "  "))
}

// printed shows what a program printed, beside what was expected where both are
// known.
func (v *TryView) printed(c *problem.Case, o verdict.Outcome, most int) {
	s := v.Screen
	if v.Problem.Kind().Calls {
		v.returned(c, o, most)
		return
	}
	switch {
	case o.Difference != nil:
		s.printSides(o.Difference, "expected", "got")
		if words := differWords(o.Difference); words != "" {
			s.Print("\n  %s", dim.Render(words))
		}
	case len(o.Stdout.Bytes) > 0:
		s.Print("\n  %s", strong.Render("printed"))
		s.printText(o.Stdout, most)
	case o.Verdict != verdict.Fault:
		s.Print("\n  %s", strong.Render("printed nothing"))
	}
}

// returned shows what a function returned, beside what was expected where both
// are known, and what it printed on the way.
func (v *TryView) returned(c *problem.Case, o verdict.Outcome, most int) {
	s := v.Screen
	switch {
	case o.Difference != nil:
		s.printSides(o.Difference, "expected", "returned")
	case o.Returned != "":
		s.Print("\n  %s", strong.Render("returned"))
		s.printText(verdict.Text{Bytes: []byte(o.Returned)}, most)
	}
	if o.Returned != "" {
		v.resultsDrawn(c, o)
	}
	if len(o.Stdout.Bytes) > 0 {
		s.Print("\n  %s", strong.Render("printed"))
		s.printText(o.Stdout, most)
	}
}

// differWords says how many lines or words differ in all.
func differWords(d *verdict.Difference) string {
	var parts []string
	of := max(d.ExpectedLines, d.GotLines)
	switch {
	case d.Differ == 0:
	case d.Unit == "word":
		if d.Differ > 1 {
			return count(d.Differ, d.Unit) + " differ"
		}
		return ""
	case of == 1:
	case of > 0 && d.Answer.Of == d.ExpectedLines:
		parts = append(parts, fmt.Sprintf("%s of %s answers differ", thousands(int64(d.Differ)), thousands(int64(of))))
	case of > 0:
		parts = append(parts, fmt.Sprintf("%s of %s differ", thousands(int64(d.Differ)), count(of, "line")))
	}
	if d.ExpectedLines != d.GotLines {
		parts = append(parts, fmt.Sprintf("expected %s, got %s", count(d.ExpectedLines, "line"), thousands(int64(d.GotLines))))
	}
	return strings.Join(parts, "; ")
}

// printShare shows the part of an input that one answer is about, where the
// whole was too long to be shown.
func (s *Screen) printShare(d problem.Data, a verdict.Answer) {
	if a.FirstLine == 0 {
		return
	}
	text, err := d.Head(wholeShare)
	if err != nil {
		return
	}
	lines := splitLines(text)
	if len(lines) <= shownShort.head+shownShort.tail+1 || a.LastLine > len(lines) {
		return
	}
	title, words := "input of answer "+thousands(int64(a.Number)), "line "+thousands(int64(a.FirstLine))
	if a.LastLine > a.FirstLine {
		words = fmt.Sprintf("lines %s to %s", thousands(int64(a.FirstLine)), thousands(int64(a.LastLine)))
	}
	s.Print("\n  %s, %s", strong.Render(title), words)
	lines = lines[a.FirstLine-1 : a.LastLine]
	left := len(lines) - shownShort.head
	s.printLines(lines[:min(len(lines), shownShort.head)], a.FirstLine)
	if left > 0 {
		s.leftOut(count(left, "line"))
	}
}

// wholeShare bounds what is read of an input to show a part of it, in bytes.
const wholeShare = 16 << 20

// How many lines of a talk are shown, at its beginning and its end.
var shownTalk = cutting{6, 16}

// printTalk shows who said what, and when.
func (s *Screen) printTalk(candidate string, o verdict.Outcome) {
	k := o.Talk
	other := Visible(k.Other)
	if len(k.Lines) == 0 {
		s.Print("\n  %s nobody said anything", strong.Render("the talk:"))
		return
	}
	words := make([]string, len(k.Lines))
	column := max(width(candidate), 12)
	for i, line := range k.Lines {
		words[i] = Visible(line.Text)
		if line.Open {
			words[i] += dim.Render(" (no line end)")
		}
		if !line.ByOther {
			column = max(column, min(width(words[i]), (s.Width-14)/2))
		}
	}
	s.Print("\n  %s  %s  %s", strong.Render(pad("after", 8)), strong.Render(pad(fit(candidate, column), column)), strong.Render(other))
	for i, line := range k.Lines {
		hidden := len(k.Lines) - shownTalk.head - shownTalk.tail
		if hidden > 0 && i >= shownTalk.head && i < shownTalk.head+hidden {
			if i == shownTalk.head {
				s.leftOut(count(hidden+k.LeftOut, "line"))
			}
			continue
		}
		left, right := words[i], ""
		if line.ByOther {
			left, right = "", words[i]
		}
		s.Print("%s", strings.TrimRight(fmt.Sprintf("  %s  %s  %s", dim.Render(padLeft(Duration(line.After), 8)), pad(fit(left, column), column), fit(right, s.Width-14-column)), " "))
	}
	if o.Waited {
		s.Print("  %s", marked.Render("then both wait"))
	}
}

func firstParagraph(text string) string {
	text, _, _ = strings.Cut(text, "\n\n")
	return strings.Join(strings.Fields(text), " ")
}

// wholeText bounds what is read of an input to be shown, in bytes.
const wholeText = 64 << 10

// A cutting says how many lines are shown of a long text.
type cutting struct{ head, tail int }

var (
	shownShort = cutting{8, 3}
	shownWhole = cutting{60, 10}
)

// printData shows an input or an expected output; a long one is cut in the
// middle.
func (s *Screen) printData(title string, d problem.Data, cut cutting) {
	title = strong.Render(title)
	text, tail, err := ends(d)
	switch {
	case err != nil:
		s.Print("\n  %s cannot be read: %v", title, err)
		return
	case d.Size == 0:
		s.Print("\n  %s is empty", title)
		return
	case tail != nil:
		s.Print("\n  %s, %s", title, Size(d.Size))
		s.printEnds(d, splitLines(text), splitLines(tail), cut)
		return
	}
	lines := splitLines(text)
	s.Print("\n  %s, %s, %s", title, count(len(lines), "line"), Size(d.Size))
	if len(lines) <= cut.head+cut.tail+1 {
		s.printLines(lines, 1)
		return
	}
	s.printLines(lines[:cut.head], 1)
	s.leftOut(count(len(lines)-cut.head-cut.tail, "line"))
	s.printLines(lines[len(lines)-cut.tail:], len(lines)-cut.tail+1)
}

// printEnds shows the beginning and the end of a text of which only these
// were read.
func (s *Screen) printEnds(d problem.Data, head, tail []string, cut cutting) {
	head = head[:min(len(head), cut.head)]
	tail = tail[max(0, len(tail)-cut.tail):]
	shown := int64(0)
	for _, line := range head {
		shown += int64(len(line)) + 1
	}
	for _, line := range tail {
		shown += int64(len(line)) + 1
	}
	s.printLines(head, 1)
	s.leftOut(Size(max(0, d.Size-shown)))
	s.printLines(tail, 0)
}

func (s *Screen) leftOut(what string) {
	s.Print("  %s", dim.Render("… "+what+" left out …"))
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
	if _, err = file.ReadAt(head, 0); err == nil {
		_, err = file.ReadAt(tail, d.Size-part)
	}
	return head, tail, err
}

func splitLines(text []byte) []string {
	return strings.Split(strings.TrimSuffix(string(text), "\n"), "\n")
}

// printText shows at most so many lines of a program's text.
func (s *Screen) printText(text verdict.Text, most int) {
	lines := splitLines(text.Bytes)
	s.printLines(lines[:min(len(lines), most)], 0)
	switch {
	case text.Cut:
		s.leftOut("more")
	case len(lines) > most:
		s.leftOut(count(len(lines)-most, "line"))
	}
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

// printSides shows two outputs under their titles, side by side, or one below the other on a
// narrow screen, with the first difference marked.
func (s *Screen) printSides(d *verdict.Difference, wanted, title string) {
	between := 3
	column := (s.Width - 2 - between) / 2
	blanks := d.Kind == verdict.InSpacing
	want, got := sideLines(d.ExpectedSide, column, blanks), sideLines(d.GotSide, column, blanks)
	widest := widest(slices.Concat(want, got))
	if column < 26 && widest > column-1 {
		s.Print("\n  %s", strong.Render(wanted))
		s.printColumn(sideLines(d.ExpectedSide, s.Width-2, blanks))
		s.Print("\n  %s", strong.Render(title))
		s.printColumn(sideLines(d.GotSide, s.Width-2, blanks))
		return
	}
	column = min(column, max(widest, 24))
	s.Print("\n  %s%s%s", strong.Render(pad(fit(wanted, column), column)), strings.Repeat(" ", between), strong.Render(title))
	s.printBeside("  ", want, got, column+between)
}

// printBeside shows lines beside others, which begin so many columns to the right.
func (s *Screen) printBeside(indent string, lines, others []string, column int) {
	for i := range max(len(lines), len(others)) {
		left, right := "", ""
		if i < len(lines) {
			left = lines[i]
		}
		if i < len(others) {
			right = others[i]
		}
		s.Print("%s%s%s", indent, pad(left, column), right)
	}
}

// widest is the width of the widest line.
func widest(lines []string) (most int) {
	for _, line := range lines {
		most = max(most, width(line))
	}
	return most
}

func (s *Screen) printColumn(lines []string) {
	for _, line := range lines {
		s.Print("  %s", line)
	}
}

// sideLines lays out one side: numbered lines, the one that differs marked,
// and under it a pointer to the place. blanks makes those of that line visible.
func sideLines(e verdict.Excerpt, width int, blanks bool) (lines []string) {
	digits := 0
	if e.FirstLine > 0 { // else it is a value, which has no lines
		digits = len(strconv.Itoa(e.FirstLine + len(e.Lines)))
	}
	room := width - digits - 4
	if !e.AtStart {
		lines = append(lines, dim.Render("  …"))
	}
	for i, line := range e.Lines {
		number := ""
		if digits > 0 {
			number = padLeft(strconv.Itoa(e.FirstLine+i), digits)
		}
		if i != e.Mark {
			lines = append(lines, fmt.Sprintf("  %s  %s", dim.Render(number), cutLine(line, e.Starts[i], 0, room).text))
			continue
		}
		if blanks {
			line = strings.ReplaceAll(line, " ", "·")
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
	if over := width(lead+left) - room*2/3; over > 0 && width(lead+left+right) > room {
		lead = "…"
		left = ansi.TruncateLeft(left, over+1, "")
	}
	shown := lead + left
	return cutText{fit(shown+right, room), width(shown)}
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
