package toolchain

import (
	"regexp"
	"slices"
	"strconv"
	"strings"

	"coldverdict/internal/lazy"
)

// A Place is where a compiler or a runtime found something in the person's own source.
type Place struct {
	Line    int // from 1
	Column  int // from 1; 0: it is not told
	Message string
}

// A saying is a message or a place in the words of a compiler, and where it stands in them.
type saying struct {
	at    int
	place Place // Line is 0 where it is only a message
}

// Places returns the places in the person's own source that are named in the words of the compiler, or of the
// runtime, in their order, each once. Where a message stands on a line of its own, that before the place counts, or
// else the next one.
func (b Build) Places(text string) (places []Place) {
	var found, messages []saying
	for _, pattern := range b.Language.Errors {
		of := b.sayings(pattern.compiled(), text)
		for _, s := range of {
			if s.place.Line == 0 {
				messages = append(messages, s)
			}
		}
		if len(found) == 0 { // the patterns after the first that names places tell the same in other words
			found = slices.DeleteFunc(of, func(s saying) bool { return s.place.Line == 0 })
		}
	}
	slices.SortStableFunc(found, func(a, b saying) int { return a.at - b.at })
	slices.SortStableFunc(messages, func(a, b saying) int { return a.at - b.at })
	before := -1
	for _, s := range found {
		if s.place.Message == "" {
			s.place.Message = nearest(messages, before, s.at)
		}
		before = s.at
		if !slices.Contains(places, s.place) {
			places = append(places, s.place)
		}
	}
	return places
}

// nearest is the last message between two places, or else the first behind them.
func nearest(messages []saying, from, to int) (message string) {
	for _, m := range messages {
		switch {
		case m.at < from:
		case m.at < to:
			message = m.place.Message
		case message == "":
			return m.place.Message
		}
	}
	return message
}

// sayings are what one pattern finds: places in the person's own source, and messages without a place.
func (b Build) sayings(p *regexp.Regexp, text string) (list []saying) {
	file, line, message := p.SubexpIndex("file"), p.SubexpIndex("line"), p.SubexpIndex("message")
	for _, m := range p.FindAllStringSubmatchIndex(text, mostMatches) {
		part := func(i int) string {
			if i < 0 || m[2*i] < 0 {
				return ""
			}
			return strings.TrimSpace(text[m[2*i]:m[2*i+1]])
		}
		one := saying{m[0], Place{Message: oneLine(part(message))}}
		if line < 0 || part(line) == "" {
			if one.place.Message != "" && file < 0 {
				list = append(list, one)
			}
			continue
		}
		number, err := strconv.Atoi(part(line))
		if name := part(file); err != nil || number < 1 || name != "" && !b.own(name) || b.ownLines > 0 && number > b.ownLines {
			continue
		}
		one.place.Line, one.place.Column = number, columnAfter(text[m[2*line+1]:])
		list = append(list, one)
	}
	return list
}

// column is how compilers write a column behind a line: "12:5", "(12,5)", "line 12, characters 5-9".
var column = lazy.New(`^(?::|, ?|, characters? )(\d+)\b`)

func columnAfter(text string) int {
	m := column().FindStringSubmatch(text)
	if m == nil {
		return 0
	}
	n, err := strconv.Atoi(m[1])
	if err != nil {
		return 0
	}
	return n
}
