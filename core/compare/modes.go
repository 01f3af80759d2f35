package compare

import (
	"bytes"

	"coldverdict/core/verdict"
)

// A place is a position in a text: newlines before it, and characters since
// the last of them.
type place struct{ line, column int }

func (t *text) place() place { return place{t.line, t.column} }

// A mismatch is where two texts stop being equal. Both texts stand at it, or a
// little behind it.
type mismatch struct {
	want, got place
	reason    string // what kind of difference, where the texts do not show it
	amount    bool   // reason says how far two numbers are apart
	atEnd     bool   // the output ended: got is where the next text was expected
	// rest counts how many lines or words differ in all. It is called last, and
	// reads both texts to their ends.
	rest func(*verdict.Difference)
}

// Reasons that are asked for again.
const (
	outputEnds     = "the output ends too early"
	outputGoesOn   = "the output goes on where it should have ended"
	nothingPrinted = "nothing was printed"
	lineEnds       = "the line ends too early"
	lineShouldEnd  = "the line should end here"
	wordEnds       = "the word ends too early"
	spacingDiffers = "spacing differs"
	noSpace        = "a space or line end is missing"
	noLastEnd      = "the last line end is missing"
	lastEndTooMuch = "the last line end is too much"
)

// kindOf is what two outputs differ in for a reason.
func kindOf(reason string) verdict.DifferenceKind {
	switch reason {
	case nothingPrinted:
		return verdict.InAll
	case lineEnds, lineShouldEnd, spacingDiffers, noSpace, noLastEnd, lastEndTooMuch:
		return verdict.InSpacing
	}
	return verdict.InText
}

func compareExact(want, got *text, s Settings) *mismatch {
	for {
		skipCommon(want, got, s.IgnoreCase, nil)
		if p, over := atEnds(want, got); over {
			switch {
			case p != nil && string(want.peek(2)) == "\n":
				p.reason = noLastEnd
			case p != nil && string(got.peek(2)) == "\n":
				p.reason = lastEndTooMuch
			}
			return p
		}
		if !same(want.chunk[0], got.chunk[0], s.IgnoreCase) {
			return &mismatch{want: want.place(), got: got.place(), reason: byteReason(want.chunk[0], got.chunk[0])}
		}
		want.advance(1)
		got.advance(1)
	}
}

func byteReason(want, got byte) string {
	switch {
	case want == '\n':
		return lineShouldEnd
	case got == '\n':
		return lineEnds
	case isSpace(want) || isSpace(got):
		return spacingDiffers
	}
	return ""
}

func compareLines(want, got *text, s Settings) *mismatch {
	return compareSpaced(want, got, s, sameLines, func(w, g gap, _ bool) string {
		switch {
		case w.newlines > g.newlines && g.newlines == 0:
			return lineShouldEnd
		case w.newlines > g.newlines:
			return "a blank line is missing"
		case w.newlines < g.newlines && w.newlines == 0:
			return lineEnds
		case w.newlines < g.newlines:
			return "this blank line should not be here"
		case w.blanks != g.blanks:
			return spacingDiffers
		}
		return ""
	})
}

func compareTokens(want, got *text, s Settings) *mismatch {
	return compareSpaced(want, got, s, sameTokens, func(w, g gap, first bool) string {
		switch {
		case first || w.any() == g.any():
			return ""
		case w.any():
			return noSpace
		}
		return wordEnds
	})
}

// A gap is the white space between two visible bytes. Two gaps of a kind that
// a mode tells apart differ in their fields.
type gap struct {
	start    place
	newlines int
	blanks   uint64 // a hash of the blanks after the last newline; 0 for none
}

func (g gap) any() bool { return g.newlines > 0 || g.blanks != 0 }

// sameLines returns how far two texts, which stand somewhere in a line, agree
// but for blanks at line ends, up to the last visible byte of a line.
func sameLines(want, got []byte) (i, j int) {
	from, to := 0, 0
	for {
		g := bytes.IndexByte(got[to:], '\n') // first, since many small pieces may come
		if g < 0 {
			return i, j
		}
		w := bytes.IndexByte(want[from:], '\n')
		if w < 0 {
			return i, j
		}
		a, b := want[from:from+w], got[to:to+g]
		a, b = a[:lastVisible(a)+1], b[:lastVisible(b)+1]
		if !bytes.Equal(a, b) {
			return i, j
		}
		if len(a) > 0 {
			i, j = from+len(a), to+len(b)
		}
		from, to = from+w+1, to+g+1
	}
}

// sameTokens returns how far two texts agree word by word.
func sameTokens(want, got []byte) (i, j int) {
	if len(want) == 0 || len(got) == 0 || isSpace(want[0]) != isSpace(got[0]) {
		return 0, 0 // one may stand within a word
	}
	for {
		a, b := skipSpaces(want, i), skipSpaces(got, j)
		w, g := skipWord(want, a), skipWord(got, b)
		if w == len(want) || g == len(got) || !bytes.Equal(want[a:w], got[b:g]) {
			return i, j
		}
		i, j = w, g
	}
}

// compareSpaced compares two texts visible byte by visible byte, and what is
// between two of them by judge, which returns why two gaps differ, or "".
// White space at the end of a text does not count. skip returns how far two
// pieces that begin alike can be passed over at once, to just after a visible
// byte.
func compareSpaced(want, got *text, s Settings, skip func(want, got []byte) (i, j int), judge func(want, got gap, first bool) string) *mismatch {
	for first := true; ; first = false {
		// Where both stand after equal visible bytes, equal bytes lead to the
		// same state, up to the last visible one of them.
		skipCommon(want, got, s.IgnoreCase, func(equal []byte) int { return lastVisible(equal) + 1 })
		if i, j := skip(want.chunk, got.chunk); i > 0 {
			want.advance(i)
			got.advance(j)
		}
		first = first && want.place() == place{} && got.place() == place{}
		wantGap, gotGap := want.skipGap(), got.skipGap()
		if p, over := atEnds(want, got); over {
			return p
		}
		if reason := judge(wantGap, gotGap, first); reason != "" {
			return gapMismatch(wantGap, gotGap, reason)
		}
		if !same(want.chunk[0], got.chunk[0], s.IgnoreCase) {
			return &mismatch{want: want.place(), got: got.place()}
		}
		want.advance(1)
		got.advance(1)
	}
}

// gapMismatch places a difference between two gaps where they differ.
func gapMismatch(want, got gap, reason string) *mismatch {
	p := &mismatch{want: want.start, got: got.start, reason: reason}
	if common := min(want.newlines, got.newlines); common > 0 {
		p.want = place{want.start.line + common, 0}
		p.got = place{got.start.line + common, 0}
	}
	return p
}

// atEnds reports whether one of the texts has ended, and where they differ then;
// if both have, they do not.
func atEnds(want, got *text) (p *mismatch, over bool) {
	w, g := want.more(), got.more()
	switch {
	case w && g:
		return nil, false
	case w:
		return ended(want.place(), got), true
	case g:
		return tooMuch(want.place(), got), true
	}
	return nil, true
}

func ended(want place, got *text) *mismatch {
	reason := outputEnds
	if got.line == 0 && got.column == 0 {
		reason = nothingPrinted
	}
	return &mismatch{want: want, got: got.place(), reason: reason, atEnd: true}
}

func tooMuch(want place, got *text) *mismatch {
	return &mismatch{want: want, got: got.place(), reason: outputGoesOn}
}

// skipGap passes over white space.
func (t *text) skipGap() gap {
	g := gap{start: t.place()}
	for t.more() {
		n := 0
		for n < len(t.chunk) && isSpace(t.chunk[n]) {
			if t.chunk[n] == '\n' {
				g.newlines++
				g.blanks = 0
			} else {
				// FNV-1a, 64 bits: a gap may be longer than could be kept.
				if g.blanks == 0 {
					g.blanks = 14695981039346656037
				}
				g.blanks = (g.blanks ^ uint64(t.chunk[n])) * 1099511628211
			}
			n++
		}
		visible := n < len(t.chunk)
		t.advance(n)
		if visible {
			break
		}
	}
	return g
}

func isSpace(c byte) bool { return c == ' ' || c >= '\t' && c <= '\r' }

func lastVisible(b []byte) int {
	i := len(b) - 1
	for i >= 0 && isSpace(b[i]) {
		i--
	}
	return i
}

func same(a, b byte, ignoreCase bool) bool {
	return a == b || ignoreCase && lower(a) == lower(b)
}

func lower(c byte) byte {
	if c >= 'A' && c <= 'Z' {
		return c + 'a' - 'A'
	}
	return c
}
