package compare

import (
	"bytes"
	"fmt"
	"hash/maphash"

	"coldverdict/core/verdict"
)

// How much of the expected text is held where any order is accepted. Past
// either it is decided by sums alone.
const (
	mostHeldBytes = 64 << 20
	mostHeldItems = 1 << 20
)

// A bag is a multiset of lines or words. Items of the expected text are put
// in, and those of the output taken out.
//
// Whether it ends up empty is decided by a sum of keyed hashes, which does not
// depend on the order (Clarke and others, Incremental multiset hash functions,
// 2003): 128 bits with keys made anew for each run, so that two multisets that
// differ have equal sums once in 2^128. The items themselves are kept, while
// they are few, to say which of them differ.
type bag struct {
	seeds [2]maphash.Seed
	sums  [2]uint64
	items int            // put in and not taken out
	held  map[string]int // the items and how often each is in; nil: too many
	bytes int            // of what is held
}

func newBag() *bag {
	return &bag{seeds: [2]maphash.Seed{maphash.MakeSeed(), maphash.MakeSeed()}, held: map[string]int{}}
}

func (b *bag) put(item []byte) {
	b.add(item, 1)
	if b.held == nil {
		return
	}
	if _, known := b.held[string(item)]; !known {
		b.bytes += len(item)
		if b.bytes > mostHeldBytes || len(b.held) >= mostHeldItems {
			b.held = nil
			return
		}
	}
	b.held[string(item)]++
}

// take takes an item out. Where the items are held it reports that this one
// was not in, and whether it ever was.
func (b *bag) take(item []byte) (missing, known bool) {
	b.add(item, -1)
	if b.held == nil {
		return false, false
	}
	n, known := b.held[string(item)]
	if n <= 0 {
		return true, known
	}
	b.held[string(item)] = n - 1
	return false, known
}

func (b *bag) add(item []byte, times int) {
	b.items += times
	for i, seed := range b.seeds {
		b.sums[i] += uint64(times) * maphash.Bytes(seed, item)
	}
}

func (b *bag) empty() bool { return b.items == 0 && b.sums == [2]uint64{} }

// left counts items that were put in and not taken out, and returns the least
// of them, so that the same texts give the same message.
func (b *bag) left() (n int, least string) {
	for item, more := range b.held {
		if more > 0 {
			if n == 0 || item < least {
				least = item
			}
			n += more
		}
	}
	return n, least
}

// compareAnyOrder compares the lines, or the words, of two texts as multisets.
func compareAnyOrder(want, got *text, s Settings) *mismatch {
	each, unit := (*text).eachWord, "word"
	if s.AnyOrder == "lines" {
		each, unit = (*text).eachLine, "line"
	}
	bag := newBag()
	each(want, s, func(item []byte) bool {
		bag.put(item)
		return true
	})
	wantEnd := want.place()
	extra := 0
	count := func(d *verdict.Difference) {
		each(got, s, func(item []byte) bool {
			if missing, _ := bag.take(item); missing {
				extra++
			}
			return true
		})
		left, _ := bag.left()
		d.Differ, d.Unit = max(extra, left), unit
	}
	reason := ""
	at, stopped := each(got, s, func(item []byte) bool {
		missing, known := bag.take(item)
		reason = "this is not among the expected " + s.AnyOrder
		if known {
			reason = "this comes more often than expected"
		}
		return !missing
	})
	if stopped {
		extra++
		return &mismatch{want: wantEnd, got: at, reason: reason, rest: count}
	}
	if bag.empty() {
		return nil
	}
	p := ended(wantEnd, got)
	p.rest = count
	_, least := bag.left()
	switch {
	case bag.held != nil:
		p.reason = "missing: " + cut(least, 60)
	case bag.items > 0:
		p.reason = fmt.Sprintf("%d %s are missing", bag.items, s.AnyOrder)
	case bag.items < 0:
		p.reason = fmt.Sprintf("there are %d %s too many", -bag.items, s.AnyOrder)
	default:
		p.reason = fmt.Sprintf("these are not the expected %s in any order; they are too many to say which differ", s.AnyOrder)
	}
	return p
}

func cut(s string, most int) string {
	if len(s) > most {
		return s[:most] + "…"
	}
	return s
}

// eachWord hands on the words that follow, until take stops it; then it returns
// where that word began, and has passed over it.
func (t *text) eachWord(s Settings, take func(word []byte) bool) (at place, stopped bool) {
	var word []byte
	for t.more() {
		// Words that lie in the piece at hand are looked at where they are.
		i := 0
		for !s.IgnoreCase {
			from := skipSpaces(t.chunk, i)
			to := skipWord(t.chunk, from)
			if to == len(t.chunk) {
				break
			}
			if !take(t.chunk[from:to]) {
				t.advance(from)
				at = t.place()
				t.advance(to - from)
				return at, true
			}
			i = to
		}
		t.advance(i)
		t.skipGap()
		at, word = t.place(), word[:0]
		for t.more() {
			n := skipWord(t.chunk, 0)
			if n == 0 {
				break
			}
			word = append(word, t.chunk[:n]...)
			t.advance(n)
		}
		if len(word) > 0 && !take(folded(word, s)) {
			return at, true
		}
	}
	return at, false
}

// eachLine hands on the lines that follow, as the mode sees them, until take
// stops it; then it returns where that line began, and has passed over it.
func (t *text) eachLine(s Settings, take func(line []byte) bool) (at place, stopped bool) {
	var line []byte
	for ok := true; ; {
		if line, at, ok = t.lineItem(line[:0], s); !ok {
			return at, false
		}
		if !take(line) {
			return at, true
		}
	}
}

// lineItem appends the next line, as the mode sees it, to buffer. Blank lines
// at the end of the text do not count, except in mode exact.
func (t *text) lineItem(buffer []byte, s Settings) (line []byte, at place, ok bool) {
	if s.Mode != "exact" {
		if !t.more() || t.blankToEnd() {
			return nil, t.place(), false
		}
	}
	at, line = t.place(), buffer
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
	return folded(line, s), at, any
}

// blankToEnd reports whether nothing visible follows.
func (t *text) blankToEnd() bool {
	for i := 0; ; i++ {
		if i == len(t.chunk) && !t.grow() {
			return true
		}
		if !isSpace(t.chunk[i]) {
			return false
		}
	}
}

// folded puts an item into lower case, in place, where letter case does not
// count.
func folded(item []byte, s Settings) []byte {
	if s.IgnoreCase {
		for i, c := range item {
			item[i] = lower(c)
		}
	}
	return item
}
