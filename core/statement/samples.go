package statement

import (
	"bytes"
	"fmt"
	"slices"
	"strconv"
	"strings"

	"coldverdict/internal/lazy"
)

// An entry is what stands under a label, or a block without one.
type entry struct {
	kind   string // "input", "output", "note", or "": it has no label
	sample bool   // it is said to be one
	number int
	lines  []string
	line   int // of the first of them
	how    origin
	group  int
	cell   int
	inside int  // the element that its lines share, where they are from text
	closed bool // something says where it ends
	own    bool // it has an element of its own
	bound  bool // it stands in the paragraph of its label
	indent int  // blanks before its label
	groups int  // paragraphs that it was put together from
	last   int  // the group of the last one
	doubts []string
	ended  bool // nothing more belongs to it
	blanks int  // empty lines that may belong to it
	head   bool // it is the head of a column
}

// An origin says where the lines of an entry are from.
type origin int

const (
	nowhere origin = iota
	fromBlock
	fromText   // from lines that are not marked as data
	fromInline // from behind a colon
)

func (e *entry) add(text string, line int, how origin) {
	if len(e.lines) == 0 {
		e.line, e.how = line, how
	}
	for range e.blanks {
		e.lines = append(e.lines, "")
	}
	e.blanks = 0
	e.lines = append(e.lines, text)
}

func (e *entry) doubt(format string, args ...any) {
	e.doubts = append(e.doubts, fmt.Sprintf(format, args...))
}

// reads finds text that is meant to be read: four words in a row, or a sentence in a script without blanks.
var reads = lazy.New(`(?:\pL[\pL'’-]+[ ,]+){3}\pL{2,}|\p{Han}{6,}|[\p{Hiragana}\p{Katakana}\p{Han}]{8,}`)

// A gatherer goes through the pieces once and makes entries of them.
type gatherer struct {
	entries []*entry
	open    *entry // takes what comes
	section bool   // a heading above calls what follows samples
	level   int    // of that heading
	number  int    // that it has
	sides   []int  // lines at which the labels of input and output stand beside each other
}

// cutShort doubts what the page ends in.
func (g *gatherer) cutShort(p piece) {
	if e := g.open; e != nil && p.cut && e.kind != "note" && len(e.lines) > 0 && !slices.Contains(e.doubts, cutWords) {
		e.doubt(cutWords)
	}
}

const cutWords = "the page ends in it"

func (g *gatherer) begin(l label, line, group int) *entry {
	e := &entry{kind: l.kind, sample: l.sample || g.section && !l.format, number: l.number, line: line, group: group}
	if e.number == 0 {
		e.number = g.number
	}
	if l.format {
		e.sample, e.ended = false, true
		g.open = nil
		return e
	}
	if g.open != nil {
		g.open.closed = true
	}
	g.entries = append(g.entries, e)
	g.open = e
	return e
}

// gather makes entries of a page.
func (r *reader) gather() *gatherer {
	g := &gatherer{}
	for i, p := range r.pieces {
		switch p.kind {
		case gap:
			g.gap(p)
		case edge:
			if g.open != nil {
				g.open.closed = true
			}
			g.open = nil
		case block:
			g.block(p)
		case heading:
			g.heading(p)
		default:
			g.prose(p, i+1 < len(r.pieces) && r.pieces[i+1].kind == block)
		}
		g.cutShort(p)
	}
	return g
}

// gap is an empty line: of plain text, or within a cell or a paragraph of a page.
func (g *gatherer) gap(p piece) {
	e := g.open
	switch {
	case e == nil || len(e.lines) == 0 || e.how == fromBlock && (p.cell == 0 || p.cell != e.cell):
	case e.how == fromInline && p.group != e.group:
		g.open = nil
	default:
		e.blanks++
	}
}

func (g *gatherer) heading(p piece) {
	if g.open != nil {
		g.open.closed = true
	}
	l := labelOf(p.text)
	switch l.kind {
	case "input", "output", "note":
		e := g.begin(l, p.line, p.group)
		e.inside = p.inside
		if l.rest != "" && !e.ended {
			g.inline(e, l.rest, p)
		}
		if l.sample && l.kind != "note" && !g.section {
			e.sample = true
		}
	case "sample", "both":
		g.open = nil
		if l.format {
			g.section = false
			return
		}
		if l.kind == "both" && l.rest == "" {
			g.sides = append(g.sides, p.line)
		}
		if l.sample || l.kind == "sample" {
			g.section, g.level, g.number = true, p.level, l.number
		}
		if l.rest != "" {
			g.prose(piece{text: l.rest, line: p.line, group: p.group}, false)
		}
	default: // another heading
		g.open = nil
		if g.section && (p.level <= g.level || p.level == boldLevel && wordsIn(p.text) == nil || l.kind == "problem") {
			g.section, g.number = false, 0
		}
	}
}

// inline takes what stands behind a label's colon.
func (g *gatherer) inline(e *entry, text string, p piece) {
	if e.kind != "note" && reads().MatchString(text) && !argument().MatchString(text) && !strings.HasPrefix(text, `"`) && !strings.HasPrefix(text, "[") {
		if !e.sample { // it describes
			g.drop(e)
			return
		}
		e.doubt("line %d reads like text", p.line)
	}
	if n := len(text); n > 1 && text[0] == '`' && text[n-1] == '`' {
		text = text[1 : n-1]
	}
	e.add(text, p.line, fromInline)
	e.group = p.group
}

// drop forgets an entry that was none.
func (g *gatherer) drop(e *entry) {
	g.entries = slices.DeleteFunc(g.entries, func(other *entry) bool { return other == e })
	if g.open == e {
		g.open = nil
	}
}

func (g *gatherer) prose(p piece, blockNext bool) {
	text := strings.TrimRight(p.text, " \t\u00a0")
	plain := strings.TrimSpace(text)
	l := labelOf(plain)
	if !l.colon && p.lead != "" && len(p.lead) < len(plain) { // bold words at its beginning, without a colon
		if lead := labelOf(p.lead); lead.kind != "" && lead.kind != "problem" {
			l = lead
			l.rest = strings.TrimSpace(strings.TrimPrefix(strings.TrimPrefix(plain, p.lead), ":"))
		}
	}
	if l.rest != "" && l.kind != "note" && labelOf(l.rest).kind != "" { // Example 1: Input: …
		g.heading(piece{kind: heading, level: boldLevel, text: strings.TrimSuffix(plain, l.rest), line: p.line, group: p.group})
		g.prose(piece{text: l.rest, line: p.line, group: p.group}, blockNext)
		return
	}
	if p.label != "" && p.kind == prose && l.kind == "" { // a cell below a head
		if head := columnLabel(p.label); head.kind == "input" || head.kind == "output" {
			g.cell(p, head, text)
			return
		} else if head.kind != "note" && (p.headed || wordsIn(p.label) != nil) && g.open != nil && g.open.kind != "note" { // another column
			g.open = nil
			return
		}
	}
	switch {
	case p.head && l.kind == "": // of a column that is none of ours
		return
	case l.kind == "problem":
		if g.open != nil && len(g.open.lines) == 0 || !l.colon && g.open != nil {
			g.open = nil
		}
		if g.section && l.rest == "" {
			g.section, g.open = false, nil
		}
		return
	case l.kind == "sample" || l.kind == "both":
		if l.rest != "" && l.kind == "sample" && !l.colon {
			break
		}
		g.heading(piece{kind: heading, level: boldLevel, text: plain, line: p.line, group: p.group})
		return
	case l.kind != "":
		e := g.begin(l, p.line, p.group)
		e.head, e.inside, e.indent = p.cell > 0, p.inside, len(text)-len(strings.TrimLeft(text, " "))
		if l.rest != "" && !e.ended {
			g.inline(e, l.rest, p)
		}
		return
	}
	e := g.open
	switch {
	case e == nil || e.ended:
		return
	case e.kind == "note":
		e.add(plain, p.line, fromText)
	case e.how == fromBlock:
		return // what stands behind a block is the page's
	case e.bound && p.group != e.group:
		g.open = nil
	case e.how == fromText && len(e.lines) > 0 && e.inside != 0 && p.inside != e.inside:
		if e.cell > 0 && p.cell > e.cell {
			e.doubt("further cells of a table follow it")
		}
		e.closed = true
		g.open = nil
	case e.how == fromInline:
		if p.group == e.group {
			e.add(text, p.line, fromInline)
		} else {
			g.open = nil
		}
	case reads().MatchString(plain) || blockNext && strings.HasSuffix(plain, ":"):
		switch {
		case len(e.lines) > 0: // what follows explains
			if e.sample {
				e.doubt("what stands behind it on line %d reads like text, and was left out", p.line)
			}
			g.open = nil
		case !e.sample: // it describes the input, or the output
			g.drop(e)
		default: // text between the label and its data
			e.blanks = 0
		}
	case !e.sample:
		g.drop(e)
	default:
		if len(e.lines) == 0 {
			e.own, e.bound = p.inside != e.inside && e.inside != 0, p.group == e.group && e.inside != 0
			e.closed = e.own || e.bound
			e.inside, e.last, e.cell = p.inside, p.group, p.cell
			e.groups = 1
		}
		if p.group != e.last {
			e.groups++
			e.last = p.group
		}
		e.add(text, p.line, fromText)
	}
}

// cell takes a cell of a table whose column is called input or output: its lines are pieces of one group.
func (g *gatherer) cell(p piece, head label, text string) {
	if e := g.open; e != nil && e.cell == p.cell && e.kind == head.kind {
		e.add(text, p.line, fromBlock)
		return
	}
	e := g.begin(head, p.line, p.group)
	e.cell = p.cell
	e.add(text, p.line, fromBlock)
}

// block takes preformatted text: for what is open, by the labels in it, or by the head of its column.
func (g *gatherer) block(p piece) {
	if p.label != "" {
		if l := columnLabel(p.label); l.kind == "input" || l.kind == "output" {
			e := g.begin(l, p.line, p.group)
			g.fill(e, p)
			return
		}
	}
	if g.within(p) {
		return
	}
	e := g.open
	switch {
	case e != nil && e.kind != "note" && len(e.lines) == 0:
		g.fill(e, p)
	case e != nil && e.kind == "note":
		e.add(strings.TrimSpace(p.text), p.line, fromText)
	case e != nil && e.how == fromText && e.kind != "" && e.groups <= 1:
		text := strings.Join(e.lines, " ")
		e.lines, e.blanks = nil, 0
		if !linkWords().MatchString(text) {
			e.doubt("%q stands between its label and the block, and was left out", text)
		}
		g.fill(e, p)
	case e != nil && e.how == fromText && e.kind != "":
		e.doubt("a block follows on line %d", p.line)
		g.entry(p)
	default:
		g.entry(p)
	}
}

// entry is a block without a label.
func (g *gatherer) entry(p piece) {
	e := &entry{sample: g.section || g.open != nil && g.open.sample && g.open.kind != "note", number: g.number, line: p.line, group: p.group}
	g.entries = append(g.entries, e)
	g.fill(e, p)
	g.open = e
}

func (g *gatherer) fill(e *entry, p piece) {
	lines, began := strings.Split(p.text, "\n"), p.line
	for len(lines) > 0 && strings.TrimSpace(lines[0]) == "" { // they belong to the page
		lines = lines[1:]
		p.line = p.at(1)
	}
	if n := len(lines); n > 0 && strings.TrimSpace(lines[n-1]) == "" { // what stands behind the last line end
		lines = lines[:n-1]
	}
	if len(lines) == 0 {
		p.line = began
	}
	e.lines, e.line, e.how, e.group = lines, p.line, fromBlock, p.group
	if n := len(lines); n > 1 && copiedGlued().FindString(strings.TrimSpace(lines[n-1])) == strings.TrimSpace(lines[n-1]) && strings.TrimSpace(lines[n-1]) != "" {
		e.doubt("its last line was %q, which is a button's", strings.TrimSpace(lines[n-1]))
		e.lines = lines[:n-1]
	}
	e.doubts = append(e.doubts, p.doubts...)
	if p.cut {
		e.doubt(cutWords)
	}
}

// within parts a block in which labels stand, where it begins with one.
func (g *gatherer) within(p piece) bool {
	lines := strings.Split(p.text, "\n")
	labels := map[int]label{}
	first, kinds := -1, map[string]int{}
	for i, line := range lines {
		if strings.TrimSpace(line) == "" {
			continue
		}
		l := labelOf(line)
		if first < 0 {
			first = i
		}
		if l.kind == "input" || l.kind == "output" || l.kind == "note" || l.kind == "sample" || l.kind == "both" {
			labels[i] = l
			kinds[l.kind]++
		}
	}
	if _, ok := labels[first]; !ok || kinds["input"] == 0 || kinds["output"] == 0 {
		return false
	}
	section, number := g.section, g.number
	defer func() { g.section, g.number, g.open = section, number, nil }()
	column, aligned, other := 0, 0, 0 // where the text behind a label begins, and the lines that begin there and elsewhere
	for i, line := range lines {
		l, ok := labels[i]
		switch {
		case ok && (l.kind == "sample" || l.kind == "both"):
			g.section, g.number, g.open = true, l.number, nil
		case ok:
			e := g.begin(l, p.at(i), p.group)
			column, aligned, other = 0, 0, 0
			if l.rest != "" {
				column = len(strings.TrimRight(line, " \t")) - len(l.rest)
				e.add(l.rest, p.at(i), fromBlock)
			}
		case g.open != nil && strings.TrimSpace(line) == "":
			if len(g.open.lines) > 0 {
				g.open.blanks++
			}
		case g.open != nil:
			if blanks := strings.Repeat(" ", column); column > 0 && strings.HasPrefix(line, blanks) {
				line = line[column:]
				aligned++
			} else {
				other++
			}
			if column > 0 && aligned > 0 && other > 0 {
				g.open.doubt("its line %d is indented unlike those before it", p.at(i))
			}
			g.open.add(strings.TrimRight(line, " \t"), p.at(i), fromBlock)
		}
		if g.open != nil {
			g.open.how = fromBlock
		}
	}
	g.cutShort(p)
	return true
}

// samples pairs entries that follow each other as input and output.
func (r *reader) samples() {
	g := r.gather()
	said := slices.ContainsFunc(g.entries, func(e *entry) bool { return e.sample && e.kind != "note" && len(e.lines) > 0 })
	var sides []*entry
	for _, e := range g.entries {
		there := len(e.lines) > 0 || e.how == fromBlock
		if !there && (e.kind == "input" || e.kind == "output") && e.sample && !e.head {
			r.unsure("line %d: nothing stands under this %s", e.line, e.kind)
			continue
		}
		if there && (e.sample || !said || e.kind == "note") {
			sides = append(sides, e)
		}
	}
	for _, line := range g.sides {
		if !slices.ContainsFunc(g.entries, func(e *entry) bool { return e.line > line && e.kind != "note" }) {
			r.unsure("line %d: input and output stand beside each other there, and cannot be told apart", line)
		}
	}
	sides = r.paired(sides)
	highest := 0
	for i := 0; i < len(sides); i++ {
		e := sides[i]
		if e.kind == "note" {
			r.note(e)
			continue
		}
		if e.kind == "" && i > 0 && sides[i-1].kind == "output" && (i+1 == len(sides) || sides[i+1].kind != "") && len(r.statement.Samples) > 0 {
			last := &r.statement.Samples[len(r.statement.Samples)-1]
			last.Doubts = append(last.Doubts, fmt.Sprintf("a block without a heading stands behind its output on line %d", e.line))
			continue
		}
		if i+1 == len(sides) || sides[i+1].kind == "note" || !fits(e, sides[i+1], said) {
			r.left(e, said)
			continue
		}
		out := sides[i+1]
		i++
		if e.kind == "" || out.kind == "" {
			e.doubt("%s", map[bool]string{true: "no heading says which block is the input and which the output", false: "no heading says that this is its output"}[e.kind == ""])
		}
		if !said {
			e.doubt("no heading says sample or example")
		}
		if e.number > 0 && out.number > 0 && e.number != out.number {
			e.doubt("its input is called %d, and its output %d", e.number, out.number)
		}
		if e.number > 0 && e.number == 1 && highest > 0 {
			e.doubt("samples are counted from 1 again: it may be another problem's")
		}
		highest = max(highest, e.number)
		r.sample(e, out)
	}
}

// fits reports that two entries are the sides of one sample.
func fits(in, out *entry, said bool) bool {
	switch {
	case in.kind == "input" && out.kind == "output":
		return true
	case in.kind == "input" && out.kind == "" && said:
		return out.sample
	case in.kind == "" && out.kind == "" && said:
		return true
	}
	return false
}

// paired brings inputs that stand in a row before their outputs to them.
func (r *reader) paired(sides []*entry) []*entry {
	for i := 0; i < len(sides); i++ {
		n := 0
		for i+n < len(sides) && sides[i+n].kind == "input" {
			n++
		}
		outs := 0
		for i+n+outs < len(sides) && sides[i+n+outs].kind == "output" {
			outs++
		}
		if n >= 2 && outs > 0 && outs != n && (sides[i+n-1].number == 0 || sides[i+n-1].number != sides[i+n].number) {
			sides[i+n-1].doubt("%d inputs stand before %d outputs", n, outs)
		}
		if n < 2 || outs != n {
			continue
		}
		row := slices.Clone(sides[i : i+2*n])
		for k := range n {
			if row[k].number == 0 || row[k].number != row[n+k].number {
				row[k].doubt("its output does not stand behind it, and was found by its place")
			}
			sides[i+2*k], sides[i+2*k+1] = row[k], row[n+k]
		}
		i += 2*n - 1
	}
	return sides
}

// left tells of half a sample.
func (r *reader) left(e *entry, said bool) {
	if e.kind == "" || !e.sample && said {
		return
	}
	if !e.sample && (e.how != fromBlock || reads().MatchString(strings.Join(e.lines, "\n")) || hasEllipsis(strings.Join(e.lines, "\n"))) {
		return // it describes
	}
	other := map[string]string{"input": "output", "output": "input"}[e.kind]
	r.unsure("line %d: this %s of %s was left out: no %s belongs to it, or no heading calls it a sample", e.line, e.kind, lineCount(e.data()), other)
}

var (
	dots      = lazy.New(`…|⋯|⋮|(?m:\S[ \t]+\.\.\.(?:[ \t]|$))`)
	dotsAlone = lazy.New(`(?m:^[ \t]*\.\.\.[ \t]*\n)`)
	argument  = lazy.New(`^[A-Za-z_]\w*\s*=[^=]`)
	ordinals  = lazy.New(`(?i)\b(first|second|third|fourth)\b[^.]{0,30}\b(?:sample|example|test|case)|(?:перв|втор|треть)\pL+ (?:пример|тест)|第\s*([一二三四1-4])`)
	ordinalOf = []lazy.Regexp{lazy.New(`(?i)first|перв|第\s*[一1]`), lazy.New(`(?i)second|втор|第\s*[二2]`), lazy.New(`(?i)third|треть|第\s*[三3]`), lazy.New(`(?i)fourth|第\s*[四4]`)}
)

// hasEllipsis finds one that stands for more. A row of dots may be data, as where other rows have some, too.
func hasEllipsis(text string) bool {
	return dots().MatchString(text) || dotsAlone().MatchString(text) && !strings.Contains(dotsAlone().ReplaceAllString(text, ""), ".")
}

// longestReason bounds what is kept of a note, in bytes.
const longestReason = 600

// note gives a note to the sample that it is about: the one that it names, or the one before it.
func (r *reader) note(e *entry) {
	samples := r.statement.Samples
	for _, line := range e.lines {
		if line = strings.TrimSpace(line); line == "" || len(samples) == 0 {
			continue
		}
		at := len(samples) - 1
		if e.number > 0 && e.number <= len(samples) {
			at = e.number - 1
		}
		if m := ordinals().FindString(line); m != "" {
			if k := slices.IndexFunc(ordinalOf, func(o lazy.Regexp) bool { return o().MatchString(m) }); k >= 0 && k < len(samples) {
				at = k
			}
		}
		if s := &samples[at]; len(s.Reason)+len(line) < longestReason {
			s.Reason = strings.TrimSpace(s.Reason + " " + line)
		}
	}
}

// data is an entry as data, whose lines end with a line feed. What pages write for what the keyboard has is that.
func (e *entry) data() []byte {
	if len(e.lines) == 0 {
		return []byte{}
	}
	text := strings.Join(e.lines, "\n") + "\n"
	text = strings.NewReplacer("\u00a0", " ", "\u200b", "", "\ufeff", "", "\u2007", " ", "\u202f", " ").Replace(text)
	if e.how != fromBlock {
		lines := strings.Split(text, "\n")
		common := commonIndent(e.lines)
		for i := range lines {
			lines[i] = strings.TrimRight(lines[i][min(common, len(lines[i])):], " \t")
		}
		text = strings.Join(lines, "\n")
	}
	return []byte(text)
}

// commonIndent is how many blanks all lines begin with.
func commonIndent(lines []string) int {
	least := 1 << 20
	for _, line := range lines {
		if trimmed := strings.TrimLeft(line, " "); trimmed != "" {
			least = min(least, len(line)-len(trimmed))
		}
	}
	return least % (1 << 20)
}

func (r *reader) sample(input, output *entry) {
	in, out := input.data(), output.data()
	if len(bytes.TrimSpace(in)) == 0 {
		r.unsure("line %d: this input is empty; the sample was left out", input.line)
		return
	}
	s := Sample{Input: in, Output: out, Line: input.line, OutLine: output.line}
	for _, side := range []struct {
		e    *entry
		data *[]byte
		name string
	}{{input, &s.Input, "input"}, {output, &s.Output, "output"}} {
		s.Doubts = append(s.Doubts, side.e.doubts...)
		text := string(*side.data)
		doubt := func(words string) {
			s.Doubts = append(s.Doubts, fmt.Sprintf("its %s, line %d, %s", side.name, side.e.line, words))
		}
		if hasEllipsis(text) {
			doubt("has an ellipsis: it may be cut short")
		}
		if strings.ContainsRune(text, '\ufffd') {
			doubt("has a character that could not be read")
		}
		if minus := printedMinus().ReplaceAllString(text, "-$1"); minus != text {
			doubt("has a printed minus sign, which was taken for -")
			*side.data = []byte(minus)
		}
		if remark().MatchString(text) {
			doubt("has what looks like a remark beside the data")
		}
		if strings.ContainsAny(text, "“”„‘’") {
			doubt("has printed quotation marks, which may stand for those of the keyboard")
		}
		if side.e.how != fromBlock && slices.Contains(side.e.lines, "") {
			doubt("has empty lines, which may be the page's")
		}
		if side.e.how == fromText {
			if common := commonIndent(side.e.lines); common > side.e.indent {
				doubt("is indented, which was taken off")
			}
			if side.e.inside != 0 && !side.e.own && side.e.groups > 1 && side.name == "output" {
				doubt("stands in several paragraphs, which may not all be of it")
			}
			if side.e.inside != 0 && !side.e.closed {
				doubt("stands in paragraphs, and nothing says where it ends")
			}
			if reads().MatchString(text) {
				doubt("reads like text")
			}
		}
	}
	if len(out) == 0 {
		s.Doubts = append(s.Doubts, "its output is empty")
	}
	s.Arguments = argument().Match(bytes.TrimSpace(s.Input)) && !strings.HasPrefix(string(s.Input), "==")
	if !s.Arguments {
		if words := headDoubt(string(s.Input)); words != "" {
			s.Doubts = append(s.Doubts, fmt.Sprintf("its input, line %d: %s", s.Line, words))
		}
	}
	st := &r.statement
	for i := range st.Samples {
		other := &st.Samples[i]
		switch {
		case !bytes.Equal(other.Input, s.Input):
		case bytes.Equal(other.Output, s.Output): // as where a page says all in two languages
			return
		default:
			words := fmt.Sprintf("lines %d and %d have the same input and different outputs", other.Line, s.Line)
			other.Doubts, s.Doubts = append(other.Doubts, words), append(s.Doubts, words)
		}
	}
	st.Samples = append(st.Samples, s)
	r.took(input.line, "sample %d: input of %s", len(st.Samples), lineCount(in))
	r.took(output.line, "sample %d: output of %s", len(st.Samples), lineCount(out))
}

// linkWords are those of links beside a label.
var linkWords = lazy.New(`(?i)^\W*(?:download|view|raw|open|show|hide|expand|скачать|下载|ダウンロード|다운로드|herunterladen|descargar|télécharger|baixar|pobierz)(?:\W+(?:sample|example|input|output|file|raw|text))*\W*$`)

// remark is what a page writes behind the data of a line.
var remark = lazy.New(`(?m)\S[ \t]+(?://|<--*|←|⟵)[ \t]*\p{L}`)

var printedMinus = lazy.New(`[−–]([0-9])`)

func lineCount(data []byte) string {
	if n := bytes.Count(data, []byte{'\n'}); n != 1 {
		return fmt.Sprintf("%d lines", n)
	}
	return "1 line"
}

// headDoubt says that a number at the head of an input does not fit what follows, though it nearly does, as where a
// line is missing; "" where it fits, or is no count.
func headDoubt(input string) string {
	lines := strings.Split(strings.TrimRight(input, "\n"), "\n")
	var heads []int
	for _, word := range strings.Fields(lines[0]) {
		n, err := strconv.Atoi(word)
		if err != nil || n < 0 {
			return ""
		}
		heads = append(heads, n)
	}
	rest := lines[1:]
	if len(heads) == 0 || len(heads) > 3 {
		return ""
	}
	if len(rest) == 0 {
		if len(heads) == 1 && heads[0] > 1 && len(input) > 0 {
			return "" // a number alone
		}
		return ""
	}
	counts := []int{len(rest)}
	all := 0
	for _, line := range rest {
		n := len(strings.Fields(line))
		counts = append(counts, n)
		if len(strings.Fields(line)) == 1 {
			counts = append(counts, len([]rune(strings.TrimSpace(line))))
		}
		all += n
	}
	counts = append(counts, all)
	near := 0
	for i, h := range heads {
		if h == 0 || slices.Contains(counts, h) || h > 1 && len(rest)%h == 0 || h > 1 && all%h == 0 && all > h {
			return ""
		}
		for _, other := range heads[i+1:] {
			if slices.Contains(counts, h+other) || slices.Contains(counts, h*other) {
				return ""
			}
		}
		for _, n := range []int{len(rest), len(strings.Fields(rest[0]))} {
			if h > 2 && abs(h-n) == 1 {
				near = h
			}
		}
	}
	if near == 0 {
		return ""
	}
	return fmt.Sprintf("its first line says %d, and what stands behind it has %s and %s in the first", near, counted(len(rest), "line"), counted(len(strings.Fields(rest[0])), "word"))
}

func counted(n int, what string) string {
	if n == 1 {
		return "1 " + what
	}
	return fmt.Sprintf("%d %ss", n, what)
}
