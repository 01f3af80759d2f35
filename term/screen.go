// Package term is what people see in a terminal: the lines of cases as they
// finish, the evidence for a failure, the summary, progress, and the tables of
// other commands.
//
// Results go to one writer and progress and remarks to another, so that a
// pipe gets results only. All text that came from a program or a file is
// shown with its control characters escaped: nothing that is judged can move
// the cursor or change a colour. Everything fits the width of the screen; on a
// pipe it takes 100 columns.
package term

import (
	"bufio"
	"fmt"
	"io"
	"os"
	"strings"

	"charm.land/lipgloss/v2"
	"github.com/charmbracelet/colorprofile"
	"github.com/charmbracelet/x/ansi"
	"golang.org/x/term"

	"coldverdict/core/verdict"
)

// A Screen is where results and progress go.
type Screen struct {
	Width int // columns

	results  *bufio.Writer
	remarks  io.Writer
	profile  colorprofile.Profile
	instant  bool // results go to a terminal, and must be seen at once
	moving   bool // remarks go to a terminal: progress can be shown
	progress string
}

// The widths that are laid out for; a narrower screen wraps.
const (
	pipeWidth     = 100
	leastWidth    = 40
	greatestWidth = 200
)

// NewScreen returns a screen that writes results to out and the rest to
// errors. Colour and width are those of the terminal behind out, as far as
// the environment allows (NO_COLOR, TERM, COLUMNS).
func NewScreen(out, errors io.Writer, environ []string) *Screen {
	s := &Screen{Width: pipeWidth, remarks: errors, profile: colorprofile.Detect(out, environ)}
	if _, ok := lookup(environ, "NO_COLOR"); ok {
		s.profile = min(s.profile, colorprofile.ASCII)
	}
	s.results = bufio.NewWriterSize(out, 16<<10)
	if file, ok := out.(*os.File); ok && term.IsTerminal(int(file.Fd())) {
		s.instant = true
		if width, _, err := term.GetSize(int(file.Fd())); err == nil && width > 0 {
			s.Width = width
		}
	}
	if text, ok := lookup(environ, "COLUMNS"); ok {
		fmt.Sscan(text, &s.Width)
	}
	s.Width = min(max(s.Width, leastWidth), greatestWidth)
	if file, ok := errors.(*os.File); ok {
		s.moving = term.IsTerminal(int(file.Fd()))
	}
	return s
}

// Aside is a screen like this one whose results go elsewhere, and whose remarks and progress go nowhere.
func (s *Screen) Aside(out io.Writer) *Screen {
	return &Screen{Width: s.Width, results: bufio.NewWriter(out), remarks: io.Discard, profile: s.profile}
}

// Raw writes results that were laid out by a screen like this one.
func (s *Screen) Raw(text string) {
	s.clearProgress()
	s.results.WriteString(text)
}

// AtTerminal reports that somebody reads what is written as it comes.
func (s *Screen) AtTerminal() bool { return s.instant }

// Colour lets a person have colours always, or never, whatever the terminal says; empty: as that says. NO_COLOR
// stands above it.
func (s *Screen) Colour(how string, environ []string) {
	if _, ok := lookup(environ, "NO_COLOR"); ok {
		return
	}
	switch how {
	case "never":
		s.profile = colorprofile.ASCII
	case "always":
		s.profile = max(s.profile, colorprofile.ANSI256)
	}
}

func lookup(environ []string, name string) (string, bool) {
	for _, entry := range environ {
		if key, value, ok := strings.Cut(entry, "="); ok && key == name && value != "" {
			return value, true
		}
	}
	return "", false
}

// Print writes a line of results.
func (s *Screen) Print(format string, args ...any) {
	s.clearProgress()
	text := fmt.Sprintf(format, args...) + "\n"
	switch {
	case !strings.Contains(text, "\x1b") || s.profile == colorprofile.TrueColor:
		s.results.WriteString(text)
	case s.profile <= colorprofile.ASCII:
		s.results.WriteString(ansi.Strip(text))
	default:
		w := colorprofile.Writer{Forward: s.results, Profile: s.profile}
		w.WriteString(text)
	}
	if s.instant {
		s.results.Flush()
	}
}

// Remark writes a line beside the results.
func (s *Screen) Remark(format string, args ...any) {
	s.clearProgress()
	s.results.Flush()
	fmt.Fprintf(s.remarks, format+"\n", args...)
}

// Flush writes out what is still held, and takes the progress away.
func (s *Screen) Flush() error {
	s.clearProgress()
	return s.results.Flush()
}

// Progress shows what goes on, in place of what it showed before; on a pipe it
// shows nothing.
func (s *Screen) Progress(format string, args ...any) {
	if !s.moving {
		return
	}
	text := ansi.Truncate(fmt.Sprintf(format, args...), s.Width-1, "…")
	if text != s.progress {
		s.progress = text
		fmt.Fprintf(s.remarks, "\r%s%s", text, eraseToEnd)
	}
}

const eraseToEnd = "\x1b[K"

func (s *Screen) clearProgress() {
	if s.progress != "" {
		s.progress = ""
		fmt.Fprint(s.remarks, "\r"+eraseToEnd)
	}
}

// The colours are those of the terminal's own palette, which its owner can
// read. Nothing is said by colour alone.
var (
	teal   = lipgloss.Cyan
	amber  = lipgloss.Yellow
	violet = lipgloss.Magenta
	rose   = lipgloss.Red
	grey   = lipgloss.BrightBlack

	normal = lipgloss.NewStyle()
	dim    = lipgloss.NewStyle().Foreground(grey)
	strong = lipgloss.NewStyle().Bold(true)
	marked = lipgloss.NewStyle().Bold(true).Foreground(amber)
)

// verdictStyle is how a verdict is shown.
func verdictStyle(v verdict.Verdict) lipgloss.Style {
	switch v {
	case verdict.Accepted:
		return lipgloss.NewStyle().Foreground(teal).Bold(true)
	case verdict.WrongAnswer, verdict.Partial:
		return lipgloss.NewStyle().Foreground(amber).Bold(true)
	case verdict.TimeLimit, verdict.Stalled, verdict.MemoryLimit, verdict.OutputLimit:
		return lipgloss.NewStyle().Foreground(violet).Bold(true)
	case verdict.RuntimeError, verdict.CompileError:
		return lipgloss.NewStyle().Foreground(rose).Bold(true)
	case verdict.Fault:
		return lipgloss.NewStyle().Bold(true).Reverse(true)
	}
	return dim
}

// badges are the short forms of the verdicts, as a case's line begins with.
var badges = func() (all [verdict.Fault + 1]string) {
	for v := range all {
		v := verdict.Verdict(v)
		all[v] = verdictStyle(v).Render(pad(v.Short(), 4))
	}
	return all
}()

// width returns how many columns text takes.
func width(text string) int {
	if plain(text) {
		return len(text)
	}
	return ansi.StringWidth(text)
}

// pad fills text with blanks up to a width in columns.
func pad(text string, columns int) string {
	return text + strings.Repeat(" ", max(0, columns-width(text)))
}

// padLeft fills text with blanks at its left.
func padLeft(text string, columns int) string {
	return strings.Repeat(" ", max(0, columns-width(text))) + text
}

// fit cuts text to a width, and says so with an ellipsis.
func fit(text string, width int) string {
	if len(text) <= width { // no character takes more columns than bytes
		return text
	}
	return ansi.Truncate(text, max(0, width), "…")
}

// fitMiddle cuts text to a width in its middle, since the ends of names tell them apart.
func fitMiddle(text string, columns int) string {
	if width(text) <= columns {
		return text
	}
	head := max(0, (columns-1)/2)
	return ansi.Truncate(text, head, "") + "…" + ansi.TruncateLeft(text, width(text)-max(0, columns-1-head), "")
}

// wrapped breaks prose at blanks and shows it in a style; every line begins
// with indent.
func (s *Screen) wrapped(style lipgloss.Style, text, indent string) string {
	lines := wrapWords(text, s.Width-ansi.StringWidth(indent))
	for i, line := range lines {
		lines[i] = indent + style.Render(line)
	}
	return strings.Join(lines, "\n")
}

// wrapWords breaks text into lines at blanks only, since what is shown is
// often a command; a word that is wider than a line is cut.
func wrapWords(text string, width int) (lines []string) {
	line := ""
	for _, word := range strings.Fields(text) {
		switch {
		case line == "":
			line = word
		case ansi.StringWidth(line)+1+ansi.StringWidth(word) <= width:
			line += " " + word
		default:
			lines = append(lines, line)
			line = word
		}
		for ansi.StringWidth(line) > width {
			lines = append(lines, ansi.Truncate(line, width, ""))
			line = ansi.TruncateLeft(line, width, "")
		}
	}
	return append(lines, line)
}
