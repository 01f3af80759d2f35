package toolchain

import (
	"fmt"
	"os"
	"path"
	"strconv"
	"strings"

	"coldverdict/internal/lazy"
)

// A compiler of C++ reports what a template cannot do where the library does it, with a line of the
// person's own somewhere among a hundred of the library's. Here that line comes first.

// A place is a line of a compiler's words that names a line of a file.
type place struct {
	file         string
	line, column int // from 1; column is 0 where none is named
	text         string
	context      []string // the lines that it shows of the file
}

// A diagnosis is one error, with the places that it leads to.
type diagnosis struct {
	at    place
	own   []place // lines of the person's file that led to it, the nearest first
	notes []place // what else was said
}

var (
	placeLine   = lazy.New(`^([^\s:][^:]*):(\d+)(?::(\d+))?:\s+(.+)$`)
	contextLine = lazy.New(`^\s*\d*\s*\|`)
	ledHere     = lazy.New(`required (?:from|by)|requested here|in instantiation of`)
	errorWord   = lazy.New(`^(?:fatal )?error:\s+`)
)

// diagnoses reads the errors in what a compiler like GCC or Clang said.
func (b Build) diagnoses() (all []diagnosis) {
	var led []place // lines of the person's file that lead to the next error
	var last *place
	for line := range strings.Lines(b.Log) {
		line = strings.TrimRight(line, "\r\n")
		m := placeLine().FindStringSubmatch(line)
		if m == nil {
			if last != nil && contextLine().MatchString(line) {
				last.context = append(last.context, line)
			}
			continue
		}
		p := place{file: m[1], text: m[4]}
		p.line, _ = strconv.Atoi(m[2])
		p.column, _ = strconv.Atoi(m[3])
		own := b.own(p.file)
		switch {
		case errorWord().MatchString(p.text):
			all = append(all, diagnosis{at: p, own: led})
			led, last = nil, &all[len(all)-1].at
		case strings.HasPrefix(p.text, "warning:"):
			led, last = nil, nil
		case own && ledHere().MatchString(p.text) && strings.HasPrefix(p.text, "note:") && len(all) > 0: // Clang says it behind
			d := &all[len(all)-1]
			d.own = append(d.own, p)
			last = &d.own[len(d.own)-1]
		case ledHere().MatchString(p.text) && !strings.HasPrefix(p.text, "note:"):
			if last = nil; own {
				led = append([]place{p}, led...)
			}
		case len(all) > 0:
			d := &all[len(all)-1]
			d.notes = append(d.notes, p)
			last = &d.notes[len(d.notes)-1]
		}
	}
	return all
}

// ownPlace is where in the person's file an error lies, or what led to it; false where nothing is known of
// that.
func (b Build) ownPlace(d diagnosis) (place, bool) {
	switch {
	case b.own(d.at.file):
		return d.at, true
	case len(d.own) > 0:
		return d.own[0], true
	}
	return place{}, false
}

// inLibrary reports that some error lies in a file that is not the person's, and something of
// theirs led to it.
func (b Build) inLibrary(all []diagnosis) bool {
	for _, d := range all {
		if !b.own(d.at.file) && len(d.own) > 0 {
			return true
		}
	}
	return false
}

// firstOwn is the first error where it lies in a library: the line of the person's that led to
// it, and what was said of it. Otherwise the usual reading serves.
func (b Build) firstOwn() (line int, message string) {
	all := b.diagnoses()
	if len(all) == 0 || !b.inLibrary(all[:1]) {
		return 0, ""
	}
	return all[0].own[0].line, errorWord().ReplaceAllString(all[0].at.text, "")
}

// ownFirst writes errors with the person's own lines first, and the library's words in one line each.
func (b Build) ownFirst() string {
	all := b.diagnoses()
	if !b.inLibrary(all) {
		return ""
	}
	var text strings.Builder
	source := b.sourceLines()
	said := map[string]bool{}
	first := func(line string) bool {
		before := said[line]
		said[line] = true
		return !before
	}
	for _, d := range all {
		p, ok := b.ownPlace(d)
		if head := fmt.Sprintf("%s:%d: %s\n", path.Base(b.Source), p.line, d.at.text); ok && first(head) {
			text.WriteString(head)
		} else {
			continue
		}
		if len(p.context) == 0 && p.line <= len(source) {
			p.context = shownWithCaret(source[p.line-1], p.line, p.column)
		}
		for _, line := range p.context {
			text.WriteString(line + "\n")
		}
	}
	text.WriteString("\n")
	for _, d := range all {
		for _, p := range append([]place{d.at}, d.notes...) {
			line := fmt.Sprintf("%s:%d: %s\n", path.Base(p.file), p.line, p.text)
			if !b.own(p.file) && !strings.Contains(p.text, "deduction/substitution failed") && first(line) {
				text.WriteString(line)
			}
		}
	}
	return text.String()
}

func (b Build) sourceLines() []string {
	text, err := os.ReadFile(b.Source)
	if err != nil {
		return nil
	}
	return strings.Split(strings.ReplaceAll(string(text), "\r\n", "\n"), "\n")
}

// shownWithCaret is a line of a source as a compiler shows it, with a caret under a column.
func shownWithCaret(line string, number, column int) []string {
	shown := []string{fmt.Sprintf("%5d | %s", number, line)}
	if column < 1 || column > len(line)+1 {
		return shown
	}
	before := strings.Map(func(r rune) rune {
		if r == '\t' {
			return r
		}
		return ' '
	}, line[:column-1])
	return append(shown, "      | "+before+"^")
}
