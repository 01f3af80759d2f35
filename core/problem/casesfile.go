package problem

import (
	"bytes"
	"os"
	"path/filepath"
	"slices"
	"strings"
	"unicode"

	"coldverdict/core/settings"
	"coldverdict/core/value"
)

// cases.md is Markdown of which only a little means something: headings that
// begin with one or two '#', fenced blocks, and HTML comments, which are
// passed over. It is read line by line and not by a Markdown library, because
// those mend what must here be an error: they close an open fence in silence
// and accept indented ones.

// LargestCasesFile bounds cases.md, in bytes.
const LargestCasesFile = 16e6

// casesFile reads cases.md.
func (l *loader) casesFile() {
	text, ok := l.read(CasesFile, LargestCasesFile, "move large data to cases/NAME.in and cases/NAME.out, or into a file of its own: ```input file=NAME")
	if !ok {
		return
	}
	r := &casesReader{loader: l, rest: text, file: CasesFile, group: CasesFolder}
	r.all()
	r.close()
}

// A casesReader goes through cases.md once.
type casesReader struct {
	*loader
	rest  []byte // what was not read yet
	line  int    // number of the line read last
	file  string // as mistakes name it
	only  bool   // all of it belongs to one case
	group string
	open  *openCase // the case under whose heading the reader stands
}

// An openCase is a case whose blocks are still being read.
type openCase struct {
	name    string
	line    int
	reason  []string
	input   *Data
	outputs []Data
	kept    string
	unsure  bool
	refused []Refused
	trials  []Trial
	raises  *string
	script  string // the argument that it is; empty: there is none
	faulty  bool   // a mistake in it was reported; others may only follow from that
}

// next returns the next line without its end.
func (r *casesReader) next() (line string, ok bool) {
	if len(r.rest) == 0 {
		return "", false
	}
	text, rest, _ := bytes.Cut(r.rest, []byte{'\n'})
	r.rest = rest
	r.line++
	return string(text), true
}

func (r *casesReader) wrong(line int, format string, args ...any) {
	r.loader.wrong(r.file, line, format, args...)
	if r.open != nil {
		r.open.faulty = true
	}
}

func (r *casesReader) all() {
	for {
		line, ok := r.next()
		if !ok {
			break
		}
		switch {
		case strings.HasPrefix(strings.TrimLeft(line, " "), "<!--"):
			r.comment(line)
		case fenceLength(line) > 0:
			r.block(line)
		case misplacedFence(line):
			r.wrong(r.line, "this fence is indented or behind other text; begin it at the start of the line")
		case heading(line) > 0:
			r.heading(line)
		case r.open != nil:
			r.open.reason = append(r.open.reason, strings.TrimSpace(line))
		}
	}
}

// comment passes over an HTML comment that begins on this line.
func (r *casesReader) comment(line string) {
	began := r.line
	for !strings.Contains(line, "-->") {
		var ok bool
		if line, ok = r.next(); !ok {
			r.wrong(began, "this comment is never closed; end it with -->")
			return
		}
	}
}

// heading returns the number of '#' that a heading begins with, or 0. A line
// that seems to be meant as a heading counts as one.
func heading(line string) int {
	text := strings.TrimLeft(line, " ")
	n := len(text) - len(strings.TrimLeft(text, "#"))
	if n == 0 || n > 2 || len(line)-len(text) > 3 {
		return 0
	}
	return n
}

func (r *casesReader) heading(line string) {
	level := heading(line)
	text := strings.TrimLeft(line, "#")
	if text == line {
		r.wrong(r.line, "this heading is indented; begin it at the start of the line")
		return
	}
	if text != "" && text[0] != ' ' && text[0] != '\t' {
		r.wrong(r.line, "write a space after %q for a heading, or \\# if none was meant", strings.Repeat("#", level))
		return
	}
	name := strings.TrimSpace(strings.TrimRight(strings.TrimSpace(text), "#"))
	if r.only {
		r.wrong(r.line, "a heading means nothing here, where all belongs to one case; take it out, or write \\# if none was meant")
		return
	}
	r.close()
	if level == 1 {
		r.group = GroupName(name)
		if r.group == "" {
			r.wrong(r.line, "this group has no name; write one behind the '#'")
		}
		return
	}
	r.open = &openCase{name: name, line: r.line}
	switch {
	case name == "":
		r.wrong(r.line, "this case has no name; write one behind the '##'")
	case !validName(name):
		r.wrong(r.line, "a case cannot be named %q: a name has no '/' and no control characters", name)
	}
}

func validName(name string) bool {
	return !strings.ContainsFunc(name, func(c rune) bool { return c == '/' || c < ' ' || c == 0x7f })
}

// GroupName returns the name of a group as cases show it: in lower case, with
// hyphens for everything that is neither a letter nor a digit.
func GroupName(heading string) string {
	words := strings.FieldsFunc(strings.ToLower(heading), func(c rune) bool {
		return !(c >= 'a' && c <= 'z' || c >= '0' && c <= '9' || c > 127)
	})
	return strings.Join(words, "-")
}

// fenceLength returns how many backticks or tildes a line begins with, if
// they make a fence, and otherwise 0.
func fenceLength(line string) int {
	if line == "" || line[0] != '`' && line[0] != '~' {
		return 0
	}
	rest := strings.TrimLeft(line, line[:1])
	n := len(line) - len(rest)
	if n < 3 || line[0] == '`' && strings.Contains(rest, "`") {
		return 0
	}
	return n
}

func misplacedFence(line string) bool {
	text := strings.TrimLeft(line, " \t>*+-")
	return text != line && fenceLength(text) > 0
}

// block reads the block whose opening fence is line.
func (r *casesReader) block(line string) {
	began := r.line
	length := fenceLength(line)
	words, closed := blockWords(line[length:])
	if !closed {
		r.wrong(began, "a quote is never closed; write file=\"log book.txt\"")
		return
	}
	data, ok := r.fenced(line[:1], length)
	if !ok {
		r.wrong(began, "this block is never closed; end it with a line %s", strings.Repeat(line[:1], length))
		return
	}
	if len(words) == 0 {
		r.wrong(began, "say what this block holds: %sinput or %soutput", line[:length], line[:length])
		return
	}
	if r.open == nil {
		r.wrong(began, "this block belongs to no case; write a heading '## name' above it")
		return
	}
	b := &blockOptions{casesReader: r, line: began}
	if !b.parse(words[1:]) {
		return
	}
	switch input, output := r.problem.dataWords(); words[0] {
	case "calls":
		r.calls(b, data)
	case input:
		r.input(b, data)
	case output:
		r.output(b, data)
	case "raises":
		r.raises(b, data)
	case "script":
		r.script(b, data)
	case "input", "output", "call", "returns":
		r.wrong(began, "%s", r.misplaced(words[0], input))
	default:
		r.wrong(began, "there is no block of kind %q; %s", words[0], settings.Nearest(words[0], []string{input, output}))
	}
}

// fenced returns the lines up to the closing fence.
func (r *casesReader) fenced(mark string, length int) (data []byte, ok bool) {
	from := r.rest
	for {
		before := len(r.rest)
		line, ok := r.next()
		if !ok {
			return nil, false
		}
		text := strings.TrimRight(line, " \t\r")
		if len(text) >= length && strings.Trim(text, mark) == "" {
			return from[:len(from)-before], true
		}
		text = strings.TrimLeft(text, " \t")
		if len(text) >= length && strings.Trim(text, mark) == "" {
			r.wrong(r.line, "this fence is indented; begin it at the start of the line, or open the block with a longer fence if the line is data")
			return from[:len(from)-before], true
		}
	}
}

// blockWords splits the words behind a fence at blanks, but for those in double quotes, which are
// taken off. closed is false where one is left open.
func blockWords(text string) (words []string, closed bool) {
	quoted, inside, word := false, false, strings.Builder{}
	end := func() {
		if inside {
			words = append(words, word.String())
		}
		word.Reset()
		inside = false
	}
	for _, c := range text {
		switch {
		case c == '"':
			quoted, inside = !quoted, true
		case !quoted && unicode.IsSpace(c):
			end()
		default:
			word.WriteRune(c)
			inside = true
		}
	}
	end()
	return words, !quoted
}

// fileWord points to a file.
func fileWord(name string) string {
	if strings.ContainsFunc(name, unicode.IsSpace) {
		name = `"` + name + `"`
	}
	return "file=" + name
}

// blockOptions are the words behind "input" or "output".
type blockOptions struct {
	*casesReader
	line      int
	noNewline bool
	or        bool
	kept      bool
	unsure    bool
	refused   bool
	sought    string // behind "refused": SoughtLarger or SoughtSmaller
	trial     string // "accept" or "reject": what the checker must say of it
	file      string
}

func (b *blockOptions) parse(words []string) bool {
	for _, word := range words {
		name, value, isFile := strings.Cut(word, "=")
		switch {
		case word == "no-newline":
			b.noNewline = true
		case word == "or":
			b.or = true
		case word == "kept":
			b.kept = true
		case word == unsureWord:
			b.unsure = true
		case word == "refused":
			b.refused = true
		case word == SoughtLarger, word == SoughtSmaller:
			b.sought = word
		case word == mustAccept, word == mustReject:
			b.trial = word
		case isFile && name == "file" && value != "":
			b.file = value
		default:
			b.wrong(b.line, "unknown word %q behind the kind of the block; %s", word, settings.Nearest(word, []string{"no-newline", "or", "kept", unsureWord, "refused", SoughtLarger, SoughtSmaller, mustAccept, mustReject, "file=NAME"}))
			return false
		}
	}
	switch {
	case b.sought != "" && !b.refused:
		b.wrong(b.line, "%q stands behind \"output refused\" only", b.sought)
		return false
	case b.trial != "" && (b.refused || b.or || b.kept):
		b.wrong(b.line, "%q is an answer to try the checker on, and nothing else; take the other words out", "output "+b.trial)
		return false
	case b.unsure && (b.refused || b.or || b.kept || b.trial != ""):
		b.wrong(b.line, "%q says that a sample was taken with doubt, and stands behind its output alone", unsureWord)
		return false
	case b.refused && (b.or || b.kept):
		b.wrong(b.line, "an output is either refused or accepted; take one of the words out")
		return false
	}
	return true
}

// The words behind output for an answer that the checker is tried on.
const (
	mustAccept = "accept"
	mustReject = "reject"
)

// data returns what a block holds: its lines, or the file that it points to.
func (b *blockOptions) data(text []byte) (Data, bool) {
	if b.file == "" {
		if b.noNewline {
			text = bytes.TrimSuffix(text, []byte{'\n'})
		}
		return Data{Text: text, Size: int64(len(text))}, true
	}
	if len(text) > 0 {
		b.wrong(b.line, "a block that points to a file must be empty; take out its lines or file=%s", b.file)
		return Data{}, false
	}
	path := filepath.Join(b.problem.Dir, filepath.FromSlash(b.file))
	if filepath.IsAbs(b.file) {
		path = b.file
	}
	info, err := os.Stat(path)
	switch {
	case err != nil:
		b.wrong(b.line, "there is no file %q here", b.file)
	case !info.Mode().IsRegular():
		b.wrong(b.line, "%q is %s; a file was expected", b.file, kind(info))
	case !readable(path):
		b.wrong(b.line, "%q may not be read by you", b.file)
	default:
		return Data{Path: path, Size: info.Size()}, true
	}
	return Data{}, false
}

// where is the file that a block's data stands in.
func (b *blockOptions) where() string {
	if b.file != "" {
		return b.file
	}
	return b.casesReader.file
}

// result returns the data of an output, which in a function problem must be a
// value.
func (b *blockOptions) result(text []byte) (Data, bool) {
	data, ok := b.data(text)
	if ok && b.problem.Call != nil {
		b.checkResults(data, b.where(), b.line)
	}
	return data, ok
}

func (r *casesReader) input(b *blockOptions, text []byte) {
	if b.or || b.kept || b.unsure || b.refused || b.trial != "" {
		r.wrong(b.line, "\"or\", \"kept\", \"unsure\", \"refused\", \"accept\" and \"reject\" stand behind output only: a case has one input")
		return
	}
	if r.open.input != nil {
		r.wrong(b.line, "a second input under %q; a case has one: give the second a heading of its own", r.open.name)
		return
	}
	if data, ok := b.data(text); ok {
		r.open.input = &data
		if r.problem.Call != nil && !r.problem.Call.Scripted() {
			r.checkArguments(data, b.where(), b.line)
		}
	} else {
		r.open.input = &Data{} // reported already
	}
}

// misplaced says why a block does not belong into a problem whose cases have others.
func (r *casesReader) misplaced(block, input string) string {
	switch {
	case input == "calls":
		return "verdict.toml has [class], so a case has a block calls, with a call a line and what it must return behind ->"
	case r.problem.Call != nil:
		return "verdict.toml has [call], so a case has a block call, with an argument a line, and a block returns"
	}
	return "the block " + block + " belongs to a function problem; describe the function by [call] in verdict.toml, or write input and output"
}

// calls reads a sequence of calls of a class, and what each must return.
func (r *casesReader) calls(b *blockOptions, text []byte) {
	if r.problem.Call == nil || r.problem.Call.Class == nil {
		r.wrong(b.line, "the block calls belongs to a problem that asks for a class; describe it by [class] in verdict.toml")
		return
	}
	if r.open.input != nil {
		r.wrong(b.line, "a second block calls under %q; give it a heading of its own", r.open.name)
		return
	}
	if data, ok := b.data(text); !ok || data.Path != "" {
		r.input(b, text)
		return
	}
	calls, results, line, err := r.problem.Call.parseCalls(string(text))
	if err != nil {
		r.wrong(b.line+line, "%v", err)
		r.open.input = &Data{}
		return
	}
	r.open.input = &Data{Text: []byte(calls), Size: int64(len(calls))}
	if results != nil {
		expected := value.Write(results) + "\n"
		r.open.outputs = append(r.open.outputs, Data{Text: []byte(expected), Size: int64(len(expected))})
	}
}

// script reads the steps on what a function returned, and what must come of each.
func (r *casesReader) script(b *blockOptions, text []byte) {
	switch {
	case r.problem.Call == nil || !r.problem.Call.Scripted():
		r.wrong(b.line, "the block script belongs to a problem whose function takes or returns functions, such as returns = \"function\"")
		return
	case r.open.script != "":
		r.wrong(b.line, "a second block script under %q; give it a heading of its own", r.open.name)
		return
	}
	script, results, line, err := r.problem.Call.parseScript(string(text))
	if err != nil {
		r.wrong(b.line+line, "%v", err)
		r.open.faulty = true
		return
	}
	r.open.script = script
	if results != nil {
		expected := value.Write(results) + "\n"
		r.open.outputs = append(r.open.outputs, Data{Text: []byte(expected), Size: int64(len(expected))})
	}
}

// withScript joins the arguments of a case and its script.
func (r *casesReader) withScript(c *openCase) {
	if r.problem.Call == nil || !r.problem.Call.Scripted() || c.faulty {
		return
	}
	var args []byte
	if c.input != nil {
		if args = c.input.Text; c.input.Path != "" {
			return // it has its script itself
		}
	}
	text := append(slices.Clone(args), c.script...)
	c.input = &Data{Text: text, Size: int64(len(text))}
	if _, err := r.problem.Call.ReadArguments(string(text)); err != nil {
		r.wrong(c.line, "%v", err)
		c.faulty = true
	}
}

// raises reads how a function must fail.
func (r *casesReader) raises(b *blockOptions, text []byte) {
	switch {
	case r.problem.Call == nil:
		r.wrong(b.line, "the block raises belongs to a function problem; describe the function by [call] in verdict.toml")
	case b.or || b.kept || b.refused || b.trial != "":
		r.wrong(b.line, "nothing stands behind raises; the block holds words that the exception must have")
	case r.open.raises != nil || len(r.open.outputs) > 0:
		r.wrong(b.line, "%q has another block that says what must come of it: a function returns, or raises one thing", r.open.name)
	default:
		words := strings.TrimSpace(string(text))
		r.open.raises = &words
	}
}

func (r *casesReader) output(b *blockOptions, text []byte) {
	outputs := r.open.outputs
	if r.open.raises != nil && !b.refused {
		r.wrong(b.line, "%q has a block raises: a function returns, or raises something", r.open.name)
		return
	}
	if b.trial != "" {
		if data, ok := b.result(text); ok {
			r.open.trials = append(r.open.trials, Trial{data, b.trial == mustAccept, b.line})
		}
		return
	}
	if b.refused {
		if data, ok := b.result(text); ok {
			r.open.refused = append(r.open.refused, Refused{Answer: data, Sought: b.sought})
		}
		return
	}
	switch {
	case b.or && len(outputs) == 0:
		r.wrong(b.line, "\"output or\" is another accepted answer; the first stands in a plain output block above it")
		return
	case !b.or && len(outputs) > 0:
		r.wrong(b.line, "a second output under %q: if it belongs to another sample, give that a heading of its own; if both answers are right, write 'output or'", r.open.name)
		return
	}
	if data, ok := b.result(text); ok {
		r.open.outputs = append(outputs, data)
	}
	if b.kept {
		r.open.keep()
	}
	r.open.unsure = r.open.unsure || b.unsure
}

// unsureWord stands behind the output of a sample that was taken with doubt.
const unsureWord = "unsure"

// keptWord begins the line above a kept output that says where it came from.
const keptWord = "Kept "

// keep takes the line above a kept output out of the reason.
func (c *openCase) keep() {
	c.kept = "kept"
	for i := len(c.reason) - 1; i >= 0; i-- {
		if line := c.reason[i]; line != "" {
			if strings.HasPrefix(line, keptWord) {
				c.kept, c.reason = strings.ToLower(line[:1])+line[1:], c.reason[:i]
			}
			return
		}
	}
}

func (c *openCase) reasonText() string { return strings.TrimSpace(strings.Join(c.reason, "\n")) }

// close ends the case under whose heading the reader stood.
func (r *casesReader) close() {
	c := r.open
	r.open = nil
	if c != nil {
		r.withScript(c)
	}
	input, output := r.problem.dataWords()
	if output == "output" {
		output = "an output"
	}
	switch {
	case c == nil || c.faulty:
		return
	case c.input == nil && len(c.outputs) > 0:
		r.wrong(c.line, "the case %q has %s and no %s; add a block ```%s", c.name, output, input, input)
		return
	case c.input == nil:
		r.wrong(c.line, "the case %q has no %s; add a block ```%s, or take the heading out", c.name, input, input)
		return
	}
	c.outputs = r.impliedAnswer(*c.input, c.outputs)
	r.problem.Cases = append(r.problem.Cases, Case{
		Name: r.group + "/" + c.name, Group: r.group,
		Reason: c.reasonText(),
		Input:  *c.input, Accepted: c.outputs, Kept: c.kept, Unsure: c.unsure, Refused: c.refused, Trials: c.trials, Raises: c.raises,
		Where: where(CasesFile, c.line),
	})
}
