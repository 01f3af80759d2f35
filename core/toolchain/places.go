package toolchain

import (
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

// Places returns the places in the person's own source that are named in the words of the compiler, or of the
// runtime, in their order, each once.
func (b Build) Places(text string) (places []Place) {
	seen := map[Place]bool{}
	for _, pattern := range b.Language.Errors {
		p := pattern.compiled()
		file, line, message := p.SubexpIndex("file"), p.SubexpIndex("line"), p.SubexpIndex("message")
		if line < 0 {
			continue
		}
		for _, m := range p.FindAllStringSubmatchIndex(text, mostMatches) {
			part := func(i int) string {
				if i < 0 || m[2*i] < 0 {
					return ""
				}
				return strings.TrimSpace(text[m[2*i]:m[2*i+1]])
			}
			number, err := strconv.Atoi(part(line))
			name := part(file)
			if err != nil || number < 1 || name != "" && !b.own(name) || b.ownLines > 0 && number > b.ownLines {
				continue
			}
			one := Place{Line: number, Column: columnAfter(text[m[2*line+1]:]), Message: oneLine(part(message))}
			if !seen[one] {
				seen[one] = true
				places = append(places, one)
			}
		}
		if len(places) > 0 {
			return places
		}
	}
	return places
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
