package shape

import (
	"slices"
	"unicode/utf8"
)

// Where a text is searched for words, those that occur in it matter: once, often, over each other, or nearly.

// partStyles are those of a word that has another word or text before it.
var partStyles = []string{"part", "nearly-part"}

// An earlier is a word or text whose parts another can be.
type earlier struct {
	field *fieldNode
	up    int // blocks above its own
}

// A textIn is a word or text, and its block.
type textIn struct {
	field *fieldNode
	block *block
}

// text finds the word or text nearest before a field whose characters it can have, in its block or those around.
func (p *preparer) text(f *fieldNode) {
	if f.Value.Set == nil || f.Value.Base == typeGrid || f.ofEdges {
		return
	}
	for _, one := range slices.Backward(p.texts) {
		up, b := 0, p.now
		for b != nil && b != one.block {
			up, b = up+1, b.above
		}
		if b == nil || !slices.ContainsFunc(one.field.Value.Set.Runes, f.Value.Set.Has) {
			continue
		}
		f.text = &earlier{one.field, up}
		break
	}
	p.texts = append(p.texts, textIn{f, p.now})
}

// part fills letters with a part of the text before, if that is the style; a shorter text is repeated.
func (m *maker) part(field *fieldNode, in *frame, style string, a []int32) bool {
	if field.text == nil || !slices.Contains(partStyles, style) {
		return false
	}
	texts := in.up(field.text.up).data[field.text.field.slot].texts
	if len(texts) == 0 {
		return false
	}
	text := texts[m.index(len(texts))]
	if text == "" {
		return false
	}
	s := field.Value.Set
	from := m.index(1 + max(0, utf8.RuneCountInString(text)-len(a)))
	letters := []rune(text)
	for i := range a {
		index, ok := slices.BinarySearch(s.Runes, letters[(from+i)%len(letters)])
		if !ok {
			index = m.index(len(s.Runes))
		}
		a[i] = int32(index)
	}
	if k := len(s.Runes); style == "nearly-part" && k > 1 {
		i := m.index(len(a))
		a[i] = (a[i] + 1 + int32(m.index(k-1))) % int32(k)
	}
	return true
}
