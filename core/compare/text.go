package compare

import (
	"bytes"
	"encoding/binary"
	"errors"
	"io"
	"math/bits"
	"unicode/utf8"
)

// A text is read once from front to back, by pieces. It knows where it is and
// remembers a little of what was read last.
type text struct {
	fill  func() []byte // the next piece; empty at the end
	chunk []byte        // what can be read without another piece
	over  bool          // there is no further piece

	line   int    // newlines read
	column int    // characters read since the last newline
	last   []byte // the last bytes read, at least memory of them if there were so many
	forgot bool   // last does not begin with the first byte of the text
}

const (
	readSize = 64 << 10 // bytes of the expected text read at once
	memory   = 2 << 10  // bytes remembered before a difference, and read on after it
)

// filler reads a source by pieces. An error of the source ends the text and is
// left in fault.
func filler(source io.Reader, fault *error) func() []byte {
	if inline, ok := source.(interface{ Rest() []byte }); ok {
		return inline.Rest
	}
	var buffer []byte
	return func() []byte {
		if buffer == nil {
			buffer = make([]byte, readSize)
		}
		for {
			n, err := source.Read(buffer)
			if err != nil && !errors.Is(err, io.EOF) {
				*fault = err
			}
			if n > 0 || err != nil {
				return buffer[:n]
			}
		}
	}
}

// Inline is an expected text that is in memory already.
type Inline struct{ Text []byte }

// Rest returns all that was not read yet.
func (i *Inline) Rest() []byte {
	rest := i.Text
	i.Text = nil
	return rest
}

// Read implements io.Reader.
func (i *Inline) Read(p []byte) (int, error) {
	if len(i.Text) == 0 {
		return 0, io.EOF
	}
	n := copy(p, i.Text)
	i.Text = i.Text[n:]
	return n, nil
}

// Close implements io.Closer.
func (i *Inline) Close() error { return nil }

// more makes sure that chunk is not empty, or reports the end.
func (t *text) more() bool {
	if len(t.chunk) == 0 && !t.over {
		t.chunk = t.fill()
		t.over = len(t.chunk) == 0
	}
	return len(t.chunk) > 0
}

// skipMark passes over the byte-order mark that some editors put first.
func (t *text) skipMark() {
	if t.more() {
		t.chunk = bytes.TrimPrefix(t.chunk, []byte("\xef\xbb\xbf"))
	}
}

// advance passes over the first n bytes of chunk.
func (t *text) advance(n int) {
	part := t.chunk[:n]
	t.chunk = t.chunk[n:]
	if newlines := bytes.Count(part, []byte{'\n'}); newlines > 0 {
		t.line += newlines
		t.column = utf8.RuneCount(part[bytes.LastIndexByte(part, '\n')+1:])
	} else {
		t.column += runes(part)
	}
	t.remember(part)
}

// runes counts the characters that begin in part, so that one which is torn
// between two pieces counts once.
func runes(part []byte) (n int) {
	for _, c := range part {
		if c&0xC0 != 0x80 {
			n++
		}
	}
	return n
}

func (t *text) remember(part []byte) {
	if len(part) >= memory {
		t.forgot = t.forgot || len(t.last) > 0 || len(part) > memory
		t.last = append(t.last[:0], part[len(part)-memory:]...)
		return
	}
	if len(t.last)+len(part) > 2*memory {
		t.last = append(t.last[:0], t.last[len(t.last)-memory:]...)
		t.forgot = true
	}
	t.last = append(t.last, part...)
}

// skipCommon passes over what two texts have in common from where they stand,
// by whole pieces, and stops before the first byte that differs or at the end
// of one of them. fold takes letters A to Z for a to z. keep is asked how much
// of an equal part may be passed over.
func skipCommon(a, b *text, fold bool, keep func(equal []byte) int) {
	for a.more() && b.more() {
		n := min(len(a.chunk), len(b.chunk))
		common := commonPrefix(a.chunk[:n], b.chunk[:n])
		for fold && common < n && same(a.chunk[common], b.chunk[common], true) {
			common++
			common += commonPrefix(a.chunk[common:n], b.chunk[common:n])
		}
		if keep != nil {
			common = keep(a.chunk[:common])
		}
		if common > 0 {
			a.advance(common)
			b.advance(common)
		}
		if common < n {
			return
		}
	}
}

// commonPrefix returns how many leading bytes are equal in two slices of the
// same length, by blocks: to see that blocks are equal is far quicker than to
// look at each byte.
func commonPrefix(a, b []byte) int {
	const block = 512
	n := 0
	for len(a)-n >= block && bytes.Equal(a[n:n+block], b[n:n+block]) {
		n += block
	}
	for len(a)-n >= 8 {
		if x := binary.LittleEndian.Uint64(a[n:]) ^ binary.LittleEndian.Uint64(b[n:]); x != 0 {
			return n + bits.TrailingZeros64(x)/8
		}
		n += 8
	}
	for n < len(a) && a[n] == b[n] {
		n++
	}
	return n
}

// peek returns what follows, at most n bytes, without passing over it.
func (t *text) peek(n int) []byte {
	for len(t.chunk) < n && t.grow() {
	}
	return t.chunk[:min(n, len(t.chunk))]
}

// grow adds the next piece to chunk, or reports the end.
func (t *text) grow() bool {
	if t.over {
		return false
	}
	held := bytes.Clone(t.chunk) // a piece is valid until the next one only
	next := t.fill()
	t.over = len(next) == 0
	t.chunk = append(held, next...)
	return !t.over
}

// back returns to the last byte so far that from accepts, among those that are
// remembered; all that was read since is read again. It reports whether there
// was one. Lines are counted as before, columns are not.
func (t *text) back(from func(last []byte) int) bool {
	at := from(t.last)
	if at < 0 {
		return false
	}
	t.chunk = append(bytes.Clone(t.last[at:]), t.chunk...)
	t.line -= bytes.Count(t.last[at:], []byte{'\n'})
	t.last = t.last[:at]
	return true
}
