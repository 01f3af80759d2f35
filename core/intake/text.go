package intake

import (
	"slices"
	"strings"

	"coldverdict/internal/lazy"
)

// textParts reads a page of Markdown or plain text line by line.
func textParts(text []byte) []part {
	t := &textReader{lines: strings.Split(string(text), "\n")}
	t.marked = slices.ContainsFunc(t.lines, func(line string) bool { return fence().MatchString(line) || mdHeading().MatchString(line) })
	for t.at < len(t.lines) {
		t.next()
	}
	t.flush()
	return t.parts
}

// A textReader goes through the lines once.
type textReader struct {
	lines []string
	at    int
	parts []part
	para  []string // of the paragraph that is being read
	label bool     // a label of an input or an output stands right above
	// marked says that blocks are marked as such, and need not be guessed.
	marked bool
}

func (t *textReader) add(kind partKind, text string, line int) {
	t.parts = append(t.parts, part{kind: kind, text: text, line: line})
}

func (t *textReader) flush() {
	if len(t.para) > 0 {
		t.add(prose, strings.Join(t.para, " "), t.at-len(t.para)+1)
		t.para = nil
	}
}

var (
	fence     = lazy.New("^ {0,3}(```+|~~~+)")
	mdHeading = lazy.New(`^ {0,3}#{1,6}\s+(.*?)\s*#*\s*$`)
	underline = lazy.New(`^\s*(=+|-+|~+|\*+)\s*$`)
	emphasis  = lazy.New(`^(?:\*\*|__|\*|_)(.+?)(?:\*\*|__|\*|_)\s*:?$`)
	// A line of plain text that announces an input or an output.
	announces = lazy.New(`(?i)^\s*(?:sample|example)?\s*(?:test\s*)?(?:case\s*)?#?[0-9]*\s*(?:standard\s+)?(?:input|output)(?:\s+(?:sample|example|data|for\s+(?:the\s+)?(?:sample|example)(?:\s+input)?))?\s*#?[0-9]*\s*:?\s*$`)
)

func (t *textReader) next() {
	line := t.lines[t.at]
	text := strings.TrimSpace(line)
	switch {
	case text == "":
		t.flush()
		t.at++
	case fence().MatchString(line):
		t.flush()
		t.fenced()
	case mdHeading().MatchString(line):
		t.flush()
		t.headingLine(mdHeading().FindStringSubmatch(line)[1])
	case emphasis().MatchString(text) && len(text) <= longestLabel:
		t.flush()
		t.headingLine(emphasis().FindStringSubmatch(text)[1])
	case announces().MatchString(text):
		t.flush()
		t.headingLine(text)
	case t.at+1 < len(t.lines) && len(t.para) == 0 && len(text) <= longestLabel && underline().MatchString(t.lines[t.at+1]):
		t.headingLine(text)
		t.at++
	case len(t.para) == 0 && (strings.HasPrefix(line, "    ") || strings.HasPrefix(line, "\t")):
		t.indented()
	case t.label && len(t.para) == 0 && !t.marked:
		t.plainBlock()
	case len(t.para) == 0 && len(t.parts) == 0 && len(text) <= longestLabel && t.emptyNext():
		t.headingLine(text) // the first line of a page is its title
	default:
		t.para = append(t.para, text)
		t.label = false
		t.at++
	}
}

func (t *textReader) emptyNext() bool {
	return t.at+1 == len(t.lines) || strings.TrimSpace(t.lines[t.at+1]) == ""
}

func (t *textReader) headingLine(text string) {
	t.add(heading, text, t.at+1)
	t.label = announces().MatchString(text)
	t.at++
	// A line drawn under a label is no data.
	if t.label && t.at < len(t.lines) && underline().MatchString(t.lines[t.at]) && len(strings.TrimSpace(t.lines[t.at])) > 2 {
		t.at++
	}
}

func (t *textReader) fenced() {
	mark := strings.TrimSpace(fence().FindString(t.lines[t.at]))
	began := t.at + 2
	var lines []string
	for t.at++; t.at < len(t.lines) && !strings.HasPrefix(strings.TrimSpace(t.lines[t.at]), mark); t.at++ {
		lines = append(lines, t.lines[t.at])
	}
	t.at++
	t.block(lines, began)
}

func (t *textReader) block(lines []string, began int) {
	t.add(block, strings.Join(lines, "\n"), began)
	t.label = false
}

// indented reads a block of indented lines, empty ones among them included.
func (t *textReader) indented() {
	began, end := t.at, t.at
	for i := t.at; i < len(t.lines); i++ {
		line := t.lines[i]
		if strings.HasPrefix(line, "    ") || strings.HasPrefix(line, "\t") {
			end = i + 1
		} else if strings.TrimSpace(line) != "" {
			break
		}
	}
	lines := make([]string, 0, end-began)
	for _, line := range t.lines[began:end] {
		if rest, ok := strings.CutPrefix(line, "\t"); ok {
			line = rest
		} else {
			line = line[min(4, len(line)-len(strings.TrimLeft(line, " "))):]
		}
		lines = append(lines, line)
	}
	t.at = end
	t.block(lines, began+1)
}

// plainBlock reads the lines under a label of plain text, up to an empty line.
func (t *textReader) plainBlock() {
	began := t.at
	for t.at < len(t.lines) && strings.TrimSpace(t.lines[t.at]) != "" && !announces().MatchString(t.lines[t.at]) {
		t.at++
	}
	t.block(t.lines[began:t.at], began+1)
}
