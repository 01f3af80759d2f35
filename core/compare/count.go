package compare

import (
	"bytes"
	"hash/maphash"

	"coldverdict/core/verdict"
)

// How many differ in all is counted from the first difference on, by the
// lines with the same number where a mode goes by lines, and otherwise by the
// words. Both texts go back to the beginning of the line, or word, in which
// they part; where that is too long to be remembered, nothing is counted.

// countLines counts lines that differ. p is where the texts differ, and they
// stand there or a little behind.
func countLines(want, got *text, p *mismatch, s Settings, d *verdict.Difference) {
	line := min(p.want.line, p.got.line)
	if !want.backToLine(line) || !got.backToLine(line) {
		return
	}
	w, g := newLineReader(want, line, s), newLineReader(got, line, s)
	differ := 0
	for {
		a, wantMore := w.next()
		b, gotMore := g.next()
		if !wantMore && !gotMore {
			break
		}
		if wantMore != gotMore || a != b {
			differ++
		}
	}
	d.Differ, d.Unit = differ, "line"
	d.ExpectedLines, d.GotLines = w.lines, g.lines
}

// backToLine returns to the beginning of a line that t stands in or has
// passed.
func (t *text) backToLine(line int) bool {
	if t.line < line {
		return false
	}
	return t.back(func(last []byte) int {
		at := len(last)
		for range t.line - line + 1 {
			at = bytes.LastIndexByte(last[:max(at, 0)], '\n')
			if at < 0 {
				break
			}
		}
		if at < 0 && t.forgot {
			return -1
		}
		return at + 1
	})
}

// A lineReader reads lines by their hashes, as a mode sees them. Equal lines
// have equal hashes, and others but for one in 2^64.
type lineReader struct {
	*text
	Settings
	hash  maphash.Hash
	blank uint64 // the hash of a line without anything
	held  int    // blank lines that may be the last ones
	ahead uint64 // the line after those
	given bool   // it was read
	lines int    // lines returned, with those before the first
}

var lineSeed = maphash.MakeSeed()

func newLineReader(t *text, before int, s Settings) *lineReader {
	r := &lineReader{text: t, Settings: s, lines: before}
	r.hash.SetSeed(lineSeed)
	r.blank = r.hash.Sum64()
	return r
}

// next returns the hash of the next line; blank lines at the end of the text
// are no lines, but for mode exact.
func (r *lineReader) next() (hash uint64, ok bool) {
	for !r.given {
		hash, ok := r.line()
		if !ok {
			r.held = 0
			return 0, false
		}
		if hash != r.blank || r.Mode == "exact" {
			r.ahead, r.given = hash, true
			break
		}
		r.held++
	}
	r.lines++
	if r.held > 0 {
		r.held--
		return r.blank, true
	}
	r.given = false
	return r.ahead, true
}

// line reads one line.
func (r *lineReader) line() (hash uint64, ok bool) {
	if !r.more() {
		return 0, false
	}
	r.hash.Reset()
	var blanks []byte // that may be the last of the line; many of them count as the first few
	for ended := false; !ended && r.more(); {
		n := bytes.IndexByte(r.chunk, '\n')
		if ended = n >= 0; !ended {
			n = len(r.chunk)
		}
		part := r.chunk[:n]
		if r.Mode != "exact" {
			visible := lastVisible(part) + 1
			if visible > 0 {
				r.hash.Write(blanks)
				blanks = blanks[:0]
			}
			if room := memory - len(blanks); room > 0 {
				rest := part[visible:]
				blanks = append(blanks, rest[:min(room, len(rest))]...)
			}
			part = part[:visible]
		}
		r.write(part)
		if ended {
			n++
		}
		r.chunk = r.chunk[n:]
	}
	return r.hash.Sum64(), true
}

// write adds visible text to the hash.
func (r *lineReader) write(part []byte) {
	if r.IgnoreCase {
		r.hash.Write(folded(bytes.Clone(part), r.Settings))
		return
	}
	r.hash.Write(part)
}

// countWords counts words that differ.
func countWords(want, got *text, p *mismatch, s Settings, d *verdict.Difference) {
	// A side that stands behind a gap which the other one does not have goes
	// back over it, too.
	over := func(t *text, at place) bool {
		return t.back(func(last []byte) int {
			end := len(last)
			if t.place() != at {
				end = lastVisible(last) + 1
			}
			start := lastSpace(last[:end]) + 1
			if start == 0 && t.forgot {
				return -1
			}
			return start
		})
	}
	if !over(want, p.want) || !over(got, p.got) {
		return
	}
	within := newTolerance(s)
	same := func(a, b []byte) bool { return within.sameWord(a, b) }
	if s.Mode != "numbers" {
		same = func(a, b []byte) bool { return bytes.Equal(a, b) || s.IgnoreCase && bytes.EqualFold(a, b) }
	}
	differ := 0
	var a, b []byte
	for {
		a, b = want.nextWord(a[:0]), got.nextWord(b[:0])
		if len(a) == 0 && len(b) == 0 {
			break
		}
		if !same(a, b) {
			differ++
		}
		if len(a) > 0 {
			d.ExpectedLines = want.line + 1
		}
		if len(b) > 0 {
			d.GotLines = got.line + 1
		}
	}
	d.Differ, d.Unit = differ, "word"
}

// nextWord appends the next word to buffer; of a very long one its beginning.
func (t *text) nextWord(buffer []byte) []byte {
	t.skipGap()
	buffer = t.word(buffer)
	for len(buffer) == longestNumber && t.more() && !isSpace(t.chunk[0]) {
		t.advance(skipWord(t.chunk, 0))
	}
	return buffer
}
