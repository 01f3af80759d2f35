package intake

import (
	"bytes"
	"fmt"
	"regexp"
	"strings"

	"coldverdict/core/problem"
	"coldverdict/internal/lazy"
)

// A Statement is what a saved page says that a problem can begin with.
type Statement struct {
	Title  string
	Time   string // as verdict.toml has it: "2s"; empty: nothing was found
	Memory string // "256MiB"
	Files  problem.Files
	// Samples are in the order of the page. None has an empty input.
	Samples []Sample
	Took    []Taken  // what was taken from where, in that order
	Unsure  []string // what a person should look at, in words
}

// A Sample is an input with its output.
type Sample struct {
	Input, Output []byte
	Line          int // of the input in the page, from 1
}

// A Taken is something that was found on a page.
type Taken struct {
	Line int // from 1
	What string
}

// A part is one piece of a page, in reading order.
type part struct {
	kind  partKind
	text  string
	line  int
	label string // of a block in a table: the head of its column
}

type partKind int

const (
	prose   partKind = iota // a paragraph, or a cell of a table
	heading                 // a heading, or text that stands like one
	block                   // preformatted text
)

// ReadPage reads a saved statement: HTML, Markdown or plain text, told apart by
// what is in it. A page without samples is no error.
func ReadPage(text []byte) Statement {
	text = problem.Plain(text)
	var parts []part
	title := ""
	if htmlPage().Match(text[:min(len(text), 4096)]) {
		parts, title = htmlParts(text)
	} else {
		parts = textParts(text)
	}
	r := &pageReader{parts: parts}
	r.title(title)
	r.limits()
	r.files()
	r.samples()
	return r.statement
}

var htmlPage = lazy.New(`(?i)<(!doctype html|html|head|body|div|pre|h[1-6]|table|p)[\s>]`)

// A pageReader makes a statement of the parts of a page.
type pageReader struct {
	parts     []part
	statement Statement
}

func (r *pageReader) took(line int, format string, args ...any) {
	r.statement.Took = append(r.statement.Took, Taken{line, fmt.Sprintf(format, args...)})
}

func (r *pageReader) unsure(format string, args ...any) {
	r.statement.Unsure = append(r.statement.Unsure, fmt.Sprintf(format, args...))
}

// title takes the first heading, or else the title of the page.
func (r *pageReader) title(fallback string) {
	for _, p := range r.parts {
		if p.kind == heading && kindOf(p.text) == "" && !sampleWords().MatchString(p.text) && len(p.text) < 120 {
			r.statement.Title = strings.TrimRight(strings.Join(strings.Fields(p.text), " "), ":")
			r.took(p.line, "title %q", r.statement.Title)
			return
		}
	}
	if fallback != "" {
		r.statement.Title = strings.Join(strings.Fields(fallback), " ")
		r.took(1, "title %q", r.statement.Title)
	}
}

const (
	number      = `([0-9]+(?:[.,][0-9]+)?)\s*`
	timeUnit    = `(milliseconds?|millis|msecs?|ms|seconds?|secs?|s)\b`
	memoryUnit  = `(kilobytes?|kibibytes?|kib|kb|megabytes?|mebibytes?|mib|mb|m|gigabytes?|gibibytes?|gib|gb|g)\b`
	between     = `[^0-9\n]{0,30}\n?[^0-9\n]{0,20}`
	fileName    = `([\w-]+\.[\w]{1,8})`
	limitUnsure = "it is said in running text"
)

var (
	timeLimit   = lazy.New(`(?i)\btime[ -]?limit` + between + number + timeUnit)
	timeText    = lazy.New(`(?i)\b(?:within|exceed|at most|runs? (?:for|in)|no more than)\s+` + number + `(milliseconds?|ms|seconds?)\b`)
	memoryLimit = lazy.New(`(?i)\bmemory(?:[ -]?limit|\s+usage)` + between + number + memoryUnit)
	memoryText  = lazy.New(`(?i)` + number + `(kilobytes?|megabytes?|mebibytes?|mib|mb|gigabytes?|gib|gb)\s+of\s+(?:memory|ram)`)
	inputFile   = lazy.New(`(?i)\binput(?:\s+file(?:\s*name)?|:)\s*[:\n]?\s*` + fileName)
	outputFile  = lazy.New(`(?i)\boutput(?:\s+file(?:\s*name)?|:)\s*[:\n]?\s*` + fileName)
)

// limits looks for limits first where they are named as such, and then in
// running text.
func (r *pageReader) limits() {
	text, lines := r.running()
	s := &r.statement
	s.Time = r.limit(text, lines, "time limit", timeLimit(), timeText(), func(n, unit string) string {
		if unit = strings.ToLower(unit); strings.HasPrefix(unit, "m") {
			return n + "ms"
		}
		return n + "s"
	})
	s.Memory = r.limit(text, lines, "memory limit", memoryLimit(), memoryText(), func(n, unit string) string {
		return n + strings.ToUpper(unit[:1]) + "iB"
	})
}

func (r *pageReader) limit(text string, lines func(int) int, what string, named, running *regexp.Regexp, words func(n, unit string) string) (limit string) {
	found := named.FindAllStringSubmatchIndex(text, -1)
	fromText := len(found) == 0
	if fromText {
		found = running.FindAllStringSubmatchIndex(text, -1)
	}
	for _, at := range found {
		n, unit := strings.Replace(text[at[2]:at[3]], ",", ".", 1), text[at[4]:at[5]]
		value := words(n, unit)
		line := lines(at[2])
		switch {
		case limit == "":
			limit = value
			r.took(line, "%s %s (%q)", what, value, strings.Join(strings.Fields(text[at[0]:at[1]]), " "))
			if fromText {
				r.unsure("line %d: the %s: %s", line, what, limitUnsure)
			}
		case value != limit:
			r.unsure("line %d: another %s, %s; the first was taken", line, what, value)
			return limit
		}
	}
	return limit
}

// running is all text but the blocks, with the line that each byte is from.
func (r *pageReader) running() (text string, line func(int) int) {
	var b strings.Builder
	var starts, lines []int
	for _, p := range r.parts {
		if p.kind != block {
			starts, lines = append(starts, b.Len()), append(lines, p.line)
			b.WriteString(strings.Join(strings.Fields(p.text), " ") + "\n")
		}
	}
	return b.String(), func(at int) int {
		line := 0
		for i, start := range starts {
			if start <= at {
				line = lines[i]
			}
		}
		return line
	}
}

// files looks for the names of files to read and write.
func (r *pageReader) files() {
	text, lines := r.running()
	for _, one := range []struct {
		pattern *regexp.Regexp
		into    *string
		what    string
	}{{inputFile(), &r.statement.Files.Input, "input"}, {outputFile(), &r.statement.Files.Output, "output"}} {
		if at := one.pattern.FindStringSubmatchIndex(text); at != nil {
			*one.into = text[at[2]:at[3]]
			r.took(lines(at[2]), "%s file %s", one.what, *one.into)
			r.unsure("line %d: the %s is taken to be in the file %s; without it take [files] out of verdict.toml", lines(at[2]), one.what, *one.into)
		}
	}
}

var (
	inputWords  = lazy.New(`(?i)\b(inputs?|stdin)\b`)
	outputWords = lazy.New(`(?i)\b(outputs?|stdout)\b|\bexpected\b`)
	sampleWords = lazy.New(`(?i)\b(samples?|examples?)\b`)
)

// kindOf says what a label announces: "input", "output", or "" where it
// announces neither or both.
func kindOf(label string) string {
	input, output := inputWords().MatchString(label), outputWords().MatchString(label)
	switch {
	case input == output:
		return ""
	case input:
		return "input"
	}
	return "output"
}

// longestLabel bounds what is taken for a label, in bytes.
const longestLabel = 60

// A candidate is a block that may be one side of a sample.
type candidate struct {
	kind   string // "input", "output", or "": it has no label
	sample bool   // said to be one
	text   string
	line   int
}

// samples pairs blocks that follow each other as input and output.
func (r *pageReader) samples() {
	all := r.candidates()
	said := false
	for _, c := range all {
		said = said || c.sample
	}
	var left []candidate
	for i := 0; i < len(all); i++ {
		c := all[i]
		if said && !c.sample {
			left = append(left, c)
			continue
		}
		if i+1 == len(all) || said && !all[i+1].sample {
			left = append(left, c)
			continue
		}
		next := all[i+1]
		switch {
		case c.kind == "input" && next.kind == "output":
		case c.kind == "" && next.kind == "" && said:
			r.unsure("lines %d and %d: these two blocks have no headings; they are taken for an input and its output", c.line, next.line)
		default:
			left = append(left, c)
			continue
		}
		r.sample(c, next)
		i++
	}
	if !said && len(r.statement.Samples) > 0 {
		r.unsure("no heading says sample or example; blocks under input and output were taken for samples")
	}
	for _, c := range left {
		if c.kind != "" && (c.sample || !said) && !reads().MatchString(c.text) {
			r.unsure("line %d: a block under %q was left out: it has no partner, or no heading calls it a sample", c.line, c.kind)
		}
	}
}

// ellipsis finds one that stands for more; a row of dots may be data.
var ellipsis = lazy.New(`…|\S[ \t]+\.\.\.([ \t]|$)`)

func (r *pageReader) sample(input, output candidate) {
	if strings.TrimSpace(input.text) == "" {
		r.unsure("line %d: this input is empty; the sample was left out", input.line)
		return
	}
	for _, side := range []candidate{input, output} {
		if ellipsis().MatchString(side.text) {
			r.unsure("line %d: this block has an ellipsis; it may be cut short", side.line)
		}
	}
	s := &r.statement
	s.Samples = append(s.Samples, Sample{dataOf(input.text), dataOf(output.text), input.line})
	r.took(input.line, "sample %d: input of %s", len(s.Samples), lineCount(input.text))
	r.took(output.line, "sample %d: output of %s", len(s.Samples), lineCount(output.text))
}

// reads finds text that is meant to be read: four words in a row.
var reads = lazy.New(`(?:\pL{2,}[ ,]+){3}\pL{2,}`)

func lineCount(text string) string {
	if n := bytes.Count(dataOf(text), []byte{'\n'}); n != 1 {
		return fmt.Sprintf("%d lines", n)
	}
	return "1 line"
}

// dataOf is a block as data: without the empty lines around it, which belong to
// the page, and with a line end. A space that a page writes as one that does
// not break is a space.
func dataOf(text string) []byte {
	text = strings.ReplaceAll(text, "\u00a0", " ")
	lines := strings.Split(text, "\n")
	for len(lines) > 0 && strings.TrimSpace(lines[0]) == "" {
		lines = lines[1:]
	}
	for len(lines) > 0 && strings.TrimSpace(lines[len(lines)-1]) == "" {
		lines = lines[:len(lines)-1]
	}
	if len(lines) == 0 {
		return []byte{}
	}
	return []byte(strings.Join(lines, "\n") + "\n")
}

// candidates finds the blocks, with what the labels above them say.
func (r *pageReader) candidates() (all []candidate) {
	section := false // a heading above calls what follows samples
	label, labelled := "", false
	for _, p := range r.parts {
		switch {
		case p.kind == block:
			text := label
			if p.label != "" {
				text = p.label
			}
			all = append(all, both(candidate{kindOf(text), section || sampleWords().MatchString(text), p.text, p.line})...)
			label, labelled = "", false
		case len(p.text) > longestLabel:
			if !labelled {
				label = ""
			}
		case kindOf(p.text) != "":
			label, labelled = p.text, true
			if p.kind == heading {
				section = sampleWords().MatchString(p.text) || section && isUnder(p.text)
			}
		case p.kind == heading || sampleWords().MatchString(p.text):
			label, labelled = "", false
			section = sampleWords().MatchString(p.text)
		}
	}
	return all
}

// isUnder reports a heading that can stand within a section of samples: one
// that only says input or output, perhaps with a number.
func isUnder(text string) bool { return len(strings.Fields(text)) <= 3 }

var said = lazy.New(`(?im)^[ \t]*(?:sample |example )?(input|output)[ \t]*[0-9]*[ \t]*:[ \t]*`)

// both parts a block that holds an input and an output, each behind its word.
func both(c candidate) []candidate {
	at := said().FindAllStringSubmatchIndex(c.text, -1)
	if len(at) != 2 || strings.TrimSpace(c.text[:at[0][0]]) != "" ||
		!strings.EqualFold(c.text[at[0][2]:at[0][3]], "input") || !strings.EqualFold(c.text[at[1][2]:at[1][3]], "output") {
		return []candidate{c}
	}
	in, out := c, c
	in.kind, in.text = "input", c.text[at[0][1]:at[1][0]]
	out.kind, out.text = "output", c.text[at[1][1]:]
	out.line += strings.Count(c.text[:at[1][0]], "\n")
	return []candidate{in, out}
}
