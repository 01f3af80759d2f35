package compare

import (
	"bytes"
)

// compareAnyOrder compares the lines, or the words, of two texts as multisets.
// It holds the items of the expected text.
func compareAnyOrder(want, got *text, s Settings) *parting {
	next := (*text).item
	if s.AnyOrder == "lines" {
		next = (*text).lineItem
	}
	left := map[string]int{}
	total := 0
	for {
		item, _, ok := next(want, s)
		if !ok {
			break
		}
		left[item]++
		total++
	}
	wantEnd := want.place()
	for {
		item, at, ok := next(got, s)
		if !ok {
			break
		}
		if left[item] == 0 {
			reason := "this is not among the expected " + s.AnyOrder
			if _, known := left[item]; known {
				reason = "this comes more often than expected"
			}
			return &parting{want: wantEnd, got: at, reason: reason}
		}
		left[item]--
		total--
	}
	if total == 0 {
		return nil
	}
	p := ended(wantEnd, got)
	p.reason = "missing: " + cut(firstLeft(left), 60)
	return p
}

// firstLeft returns the least item that is left over, so that the same texts
// give the same message.
func firstLeft(left map[string]int) string {
	least, found := "", false
	for item, n := range left {
		if n > 0 && (!found || item < least) {
			least, found = item, true
		}
	}
	return least
}

func cut(s string, most int) string {
	if len(s) > most {
		return s[:most] + "…"
	}
	return s
}

// item returns the next word.
func (t *text) item(s Settings) (string, place, bool) {
	t.skipGap()
	at := t.place()
	var word []byte
	for t.more() && !isSpace(t.chunk[0]) {
		n := 0
		for n < len(t.chunk) && !isSpace(t.chunk[n]) {
			n++
		}
		word = append(word, t.chunk[:n]...)
		t.advance(n)
	}
	return fold(word, s), at, len(word) > 0
}

// lineItem returns the next line as the mode sees it. Blank lines at the end
// of the text do not count, except in mode exact.
func (t *text) lineItem(s Settings) (string, place, bool) {
	if s.Mode != "exact" {
		if !t.more() || t.blankToEnd() {
			return "", t.place(), false
		}
	}
	at := t.place()
	var line []byte
	ended, any := false, false
	for !ended && t.more() {
		any = true
		n := bytes.IndexByte(t.chunk, '\n')
		if ended = n >= 0; !ended {
			n = len(t.chunk)
		}
		line = append(line, t.chunk[:n]...)
		if ended {
			n++
		}
		t.advance(n)
	}
	switch s.Mode {
	case "tokens":
		line = bytes.Join(bytes.Fields(line), []byte{' '})
	case "", "lines":
		line = line[:lastVisible(line)+1]
	}
	return fold(line, s), at, any
}

// blankToEnd reports whether nothing visible follows.
func (t *text) blankToEnd() bool {
	for i := 0; ; i++ {
		for i >= len(t.chunk) {
			rest := t.chunk
			t.chunk = nil
			if !t.more() {
				t.chunk = rest
				return true
			}
			t.chunk = append(append([]byte(nil), rest...), t.chunk...)
		}
		if !isSpace(t.chunk[i]) {
			return false
		}
	}
}

func fold(item []byte, s Settings) string {
	if s.IgnoreCase {
		for i, c := range item {
			item[i] = lower(c)
		}
	}
	return string(item)
}
