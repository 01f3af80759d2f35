package term

import (
	"fmt"
	"strconv"
	"strings"
	"time"
	"unicode"
	"unicode/utf8"

	"coldverdict/core/verdict"
)

// Visible returns text with everything escaped that is not a visible
// character or a space: control characters, invalid UTF-8, and characters
// that change the direction of text or take no room.
func Visible(text string) string {
	if plain(text) {
		return text
	}
	var b strings.Builder
	for len(text) > 0 {
		r, n := utf8.DecodeRuneInString(text)
		switch {
		case r == utf8.RuneError && n == 1:
			fmt.Fprintf(&b, `\x%02x`, text[0])
		case r == '\t':
			b.WriteString(`\t`)
		case r == '\r':
			b.WriteString(`\r`)
		case r == '\n':
			b.WriteString(`\n`)
		case r < 0x80 && !unicode.IsPrint(r):
			fmt.Fprintf(&b, `\x%02x`, r)
		case r != ' ' && !unicode.IsPrint(r):
			fmt.Fprintf(&b, `\u%04x`, r)
		default:
			b.WriteString(text[:n])
		}
		text = text[n:]
	}
	return b.String()
}

func plain(text string) bool {
	for i := 0; i < len(text); i++ {
		if text[i] < ' ' || text[i] >= 0x7f {
			return false
		}
	}
	return true
}

// Duration shows a time to three figures at the most: "2 ms", "0.85 s".
func Duration(d time.Duration) string {
	switch {
	case d < 100*time.Microsecond:
		return strconv.FormatFloat(float64(d)/1e3, 'f', 0, 64) + " µs"
	case d < 9950*time.Microsecond:
		return trimZero(strconv.FormatFloat(float64(d)/1e6, 'f', 1, 64)) + " ms"
	case d < 999500*time.Microsecond:
		return strconv.FormatFloat(float64(d)/1e6, 'f', 0, 64) + " ms"
	case d < 100*time.Second:
		return trimZero(strconv.FormatFloat(d.Seconds(), 'f', 2, 64)) + " s"
	}
	return strconv.FormatFloat(d.Seconds(), 'f', 0, 64) + " s"
}

// Size shows a number of bytes: "847 KiB", "64 MiB".
func Size(n int64) string { return verdict.Size(n) }

// trimZero takes a fraction of zeros off: "2.0" is "2", "1.50" is "1.5".
func trimZero(number string) string {
	if strings.Contains(number, ".") {
		number = strings.TrimRight(strings.TrimRight(number, "0"), ".")
	}
	return number
}

// count shows "1 case" or "1,200 cases".
func count(n int, one string) string {
	return verdict.Count(n, one)
}

// thousands parts the digits of a number by commas.
func thousands(n int64) string { return verdict.Thousands(n) }

// limitWords says what a solution is held to, and which limits nobody set.
func limitWords(l, unset verdict.Limits) string {
	word := func(text string, isUnset bool) string {
		if isUnset {
			text += " (default)"
		}
		return text
	}
	return strings.Join([]string{
		word("time "+Duration(l.Time), unset.Time != 0),
		word("wall "+Duration(l.Wall), unset.Wall != 0),
		word("memory "+Size(l.Memory), unset.Memory != 0),
		word("output "+Size(l.Output), unset.Output != 0),
	}, ", ")
}

// Width returns how many columns a text takes on the screen.
func Width(text string) int { return width(text) }
