package compare

import (
	"strings"

	"coldverdict/core/verdict"
)

// A place at which two texts part may lie within a word, or in the spacing before words that
// differ as well. Then it is the words that a person wants to see.

// sharpen says of two lines which words differ, where the place alone says that something ends,
// goes on or is spaced otherwise.
func sharpen(d *verdict.Difference) {
	wantSide, gotSide := backFromEnd(d.ExpectedSide, d.GotSide), backFromEnd(d.GotSide, d.ExpectedSide)
	want, wantAt, ok := markedLine(wantSide)
	got, gotAt, ok2 := markedLine(gotSide)
	if !ok || !ok2 {
		return
	}
	short := len(want) < lineWidth && len(got) < lineWidth && wantSide.Starts[wantSide.Mark] == 0 && gotSide.Starts[gotSide.Mark] == 0
	together := func(line []rune) string { return strings.Join(strings.Fields(string(line)), "") }
	if short && together(want) == together(got) {
		return // only the spacing differs
	}
	switch d.Reason {
	case outputEnds, lineEnds, wordEnds, outputGoesOn, lineShouldEnd:
		inWord := wantAt > 0 && gotAt > 0 && visible(want, wantAt-1) && visible(got, gotAt-1)
		if inWord && (visible(want, wantAt) || visible(got, gotAt)) {
			d.Expected, d.Got, d.Reason = wordAround(want, wantAt-1), wordAround(got, gotAt-1), ""
			d.Kind = verdict.InText
			d.ExpectedSide, d.GotSide = wantSide, gotSide
		}
	case spacingDiffers, noSpace:
		if short {
			differingWords(d, want, got)
		}
	}
}

// differingWords moves a difference to the first words of two lines that differ.
func differingWords(d *verdict.Difference, want, got []rune) {
	w, g := wordsOf(want), wordsOf(got)
	for i := range min(len(w), len(g)) {
		if string(want[w[i][0]:w[i][1]]) != string(got[g[i][0]:g[i][1]]) {
			d.Expected, d.Got, d.Reason = string(want[w[i][0]:w[i][1]]), string(got[g[i][0]:g[i][1]]), ""
			d.Kind = verdict.InText
			d.Column, d.GotSide.Column, d.ExpectedSide.Column = g[i][0]+1, g[i][0]+1, w[i][0]+1
			return
		}
	}
}

// wordsOf are where the words of a line begin and end.
func wordsOf(line []rune) (words [][2]int) {
	for i := 0; i < len(line); {
		from := i
		for i < len(line) && visible(line, i) {
			i++
		}
		if i > from {
			words = append(words, [2]int{from, i})
		}
		i++
	}
	return words
}

// backFromEnd marks the end of the line that another side stands in, where a text has ended
// with the end of that line.
func backFromEnd(e, other verdict.Excerpt) verdict.Excerpt {
	line := other.FirstLine + other.Mark - e.FirstLine // in e, of the other's number
	if e.Mark >= len(e.Lines) && line >= 0 && line == len(e.Lines)-1 {
		e.Mark, e.Column = line, len([]rune(e.Lines[line]))+e.Starts[line]+1
	}
	return e
}

// markedLine is the line of an excerpt in which a difference lies, and where.
func markedLine(e verdict.Excerpt) (line []rune, at int, ok bool) {
	if e.Mark >= len(e.Lines) {
		return nil, 0, false
	}
	line = []rune(e.Lines[e.Mark])
	at = e.Column - 1 - e.Starts[e.Mark]
	return line, at, at >= 0 && at <= len(line)
}

// visible reports that a line has a character at a place, and that it is no white space.
func visible(line []rune, i int) bool {
	return i >= 0 && i < len(line) && !(line[i] < 128 && isSpace(byte(line[i])))
}

// wordAround is the word in which a character lies, or what is near of a very long one.
func wordAround(line []rune, at int) string {
	from, to := at, at
	for visible(line, from-1) && to-from < tokenWidth {
		from--
	}
	for visible(line, to) && to-from < tokenWidth {
		to++
	}
	return string(line[from:to])
}
