package problem

import (
	"bytes"
	"strings"
)

// A section is a heading of cases.md with all that lies under it, by offsets
// into the text as it stands in the file, line ends and all.
type section struct {
	level int    // 1: a group, without its cases; 2: a case
	group string // name of the group
	name  string // of a case
	from  int    // where the heading begins
	body  int    // where the line after it begins
	data  int    // behind its last block; body if it has none
	to    int    // where the next section begins
}

// outline returns the sections of cases.md in their order, and where its blocks begin. It reads the
// text as Load does, and finds mistakes no mistake.
func outline(text []byte) (all []section, blocks []int) {
	r := &casesReader{loader: &loader{problem: &Problem{}}, rest: bytes.TrimPrefix(text, []byte(ByteOrderMark))}
	group := CasesFolder
	for {
		offset := len(text) - len(r.rest)
		line, ok := r.next()
		if !ok {
			break
		}
		line = strings.TrimSuffix(line, "\r")
		level := heading(line)
		switch {
		case strings.HasPrefix(strings.TrimLeft(line, " "), "<!--"):
			r.comment(line)
		case fenceLength(line) > 0:
			blocks = append(blocks, offset)
			r.fenced(line[:1], fenceLength(line))
			if len(all) > 0 {
				all[len(all)-1].data = len(text) - len(r.rest)
			}
		case level > 0:
			if len(all) > 0 {
				all[len(all)-1].to = offset
			}
			name := strings.TrimSpace(strings.Trim(strings.TrimSpace(line), "#"))
			if level == 1 {
				group, name = GroupName(name), ""
			}
			body := len(text) - len(r.rest)
			all = append(all, section{level: level, group: group, name: name, from: offset, body: body, data: body, to: len(text)})
		}
	}
	return all, blocks
}
