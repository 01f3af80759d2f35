package compare

import (
	"bytes"
	"strconv"

	"coldverdict/core/verdict"
)

// Locate says which of many answers a line of the output belongs to, counted
// from 1: the input says in its first line how many cases it holds, and the
// expected output has as many lines for each of them. A number with fewer lines behind it counts
// something else. Where input is whole and
// its layout leaves no doubt, the answer's share of it is told too.
func Locate(input []byte, whole bool, lines, line int) (a verdict.Answer, ok bool) {
	first, rest, _ := bytes.Cut(bytes.TrimPrefix(input, []byte("\xef\xbb\xbf")), []byte{'\n'})
	words := bytes.Fields(first)
	if len(words) != 1 {
		return a, false
	}
	cases, err := strconv.Atoi(string(words[0]))
	if err != nil || cases < 2 || lines < cases || lines%cases != 0 || line < 1 || line > lines {
		return a, false
	}
	if bytes.Count(bytes.TrimRight(rest, " \t\r\n"), []byte{'\n'})+1 < cases {
		return a, false // that many cases have as many lines: it is a count of something else
	}
	a.Number, a.Of = (line-1)/(lines/cases)+1, cases
	if whole {
		a.FirstLine, a.LastLine = share(bytes.Split(bytes.TrimRight(rest, " \t\r\n"), []byte{'\n'}), a)
	}
	return a, true
}

// A layout divides lines among cases. It returns the number of lines of a case
// that begins with this line, or 0.
type layout func(header []int) int

// manyCases is from how many cases on lines that count those after them are no
// coincidence where they lead to the very end of the input.
const manyCases = 5

// share returns the lines of the input, from 1, that an answer is about, given
// those after the first; zeros where the layouts that fit do not agree.
func share(lines [][]byte, a verdict.Answer) (from, to int) {
	doubt := false
	take := func(l layout) {
		switch f, t, fits := l.divide(lines, a); {
		case !fits:
		case from == 0:
			from, to = f, t
		case f != from || t != to:
			doubt = true
		}
	}
	// A case may begin with a line of which one number counts the lines that
	// follow, but for a fixed number of others.
	for field := range 4 {
		for others := range 3 {
			take(func(header []int) int {
				if field >= len(header) || header[field] < 0 || header[field] > len(lines) {
					return 0
				}
				return 1 + header[field] + others
			})
		}
	}
	// Or each has as many.
	certain := from > 0 && !doubt && a.Of >= manyCases
	if len(lines)%a.Of == 0 && !certain {
		take(func([]int) int { return len(lines) / a.Of })
	}
	if doubt {
		return 0, 0
	}
	return from, to
}

// divide goes through the lines case by case, and reports whether they are
// used up by exactly all cases.
func (l layout) divide(lines [][]byte, a verdict.Answer) (from, to int, fits bool) {
	at := 0
	for number := 1; number <= a.Of; number++ {
		if at >= len(lines) {
			return 0, 0, false
		}
		n := l(integers(lines[at]))
		if n == 0 || at+n > len(lines) {
			return 0, 0, false
		}
		if number == a.Number {
			from, to = at+2, at+n+1
		}
		at += n
	}
	return from, to, at == len(lines)
}

// integers reads the first few words of a line as integers; nil if one is none.
func integers(line []byte) (all []int) {
	for _, word := range bytes.Fields(line[:min(len(line), 200)]) {
		n, err := strconv.Atoi(string(word))
		if err != nil {
			return all
		}
		all = append(all, n)
		if len(all) == 4 {
			break
		}
	}
	return all
}
