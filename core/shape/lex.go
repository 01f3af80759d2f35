package shape

import (
	"fmt"
	"slices"
	"strconv"
	"strings"
	"unicode/utf8"
)

// A kind is what a token is.
type kind int

const (
	tokenEnd     kind = iota // of the text
	tokenLine                // a line end or a ';', which end an item
	tokenName                // a word, reserved or not
	tokenInteger             // 200000, 200_000 or 2e5
	tokenDecimal             // 0.5, which stands in bounds of real only
	tokenString              // "…"
	tokenMark                // punctuation
	tokenBad                 // what is none, and was reported
)

// A token is one word of a shape.
type token struct {
	kind  kind
	pos   Pos
	text  string // as written; of a string what it stands for
	value int64  // of an integer
	end   int    // offset behind it
	begin int
}

func (t token) String() string {
	switch t.kind {
	case tokenEnd:
		return "the end"
	case tokenLine:
		if t.text == ";" {
			return "';'"
		}
		return "the end of the line"
	case tokenString:
		return strconv.Quote(t.text)
	}
	return t.text
}

// A lexer cuts a shape into tokens. Line ends inside parentheses and brackets are
// blanks.
type lexer struct {
	text   string
	at     int
	line   int
	start  int // offset of the line
	depth  int // of parentheses and brackets
	known  int // an offset on the line, and its column
	column int
	report func(Pos, string, ...any)
}

// otherMarks are those of other languages, with what to write instead.
var otherMarks = [][2]string{
	{"&&", "write and"}, {"||", "write or"}, {"!", "write not"}, {"≤", "write <="}, {"≥", "write >="}, {"≠", "write !="}, {"…", "a range is written 1..9"}, {"−", "write -"}, {"'", "texts stand in double quotes"},
	{"<>", "write !="}, {"**", "write ^"}, {"//", "a comment begins with #"}, {"...", "a range is written 1..9"},
}

// marks are the punctuation, the longer ones first.
var marks = []string{"..", "<=", ">=", "!=", "(", ")", "[", "]", "{", "}", ",", ":", "=", "<", ">", "+", "-", "*", "/", "%", "^", "&"}

func (l *lexer) pos() Pos {
	if l.known < l.start || l.known > l.at {
		l.known, l.column = l.start, 1
	}
	l.column += utf8.RuneCountInString(l.text[l.known:l.at])
	l.known = l.at
	return Pos{l.line, l.column}
}

func (l *lexer) next() token {
	for l.at < len(l.text) {
		switch c := l.text[l.at]; {
		case c == ' ' || c == '\t' || c == '\r':
			l.at++
		case c == '#':
			for l.at < len(l.text) && l.text[l.at] != '\n' {
				l.at++
			}
		case c == '\n' && l.depth > 0:
			l.newLine()
		default:
			return l.token()
		}
	}
	return token{kind: tokenEnd, pos: l.pos(), begin: l.at, end: l.at}
}

func (l *lexer) newLine() {
	l.at++
	l.line++
	l.start = l.at
}

func (l *lexer) token() token {
	t := token{pos: l.pos(), begin: l.at}
	c := l.text[l.at]
	switch {
	case c == '\n':
		t.kind, t.text = tokenLine, "\n"
		l.newLine()
	case c == ';':
		t.kind, t.text = tokenLine, ";"
		l.at++
	case isLetter(c):
		from := l.at
		for l.at < len(l.text) && (isLetter(l.text[l.at]) || isDigit(l.text[l.at])) {
			l.at++
		}
		t.kind, t.text = tokenName, l.text[from:l.at]
	case isDigit(c):
		l.number(&t)
	case c == '"':
		l.string(&t)
	default:
		l.mark(&t)
	}
	t.end = l.at
	return t
}

func isLetter(c byte) bool { return c == '_' || c >= 'a' && c <= 'z' || c >= 'A' && c <= 'Z' }
func isDigit(c byte) bool  { return c >= '0' && c <= '9' }

// number reads an integer or a decimal. "1..2" is two integers.
func (l *lexer) number(t *token) {
	from := l.at
	digits := func() {
		for l.at < len(l.text) && (isDigit(l.text[l.at]) || l.text[l.at] == '_') {
			l.at++
		}
	}
	digits()
	t.kind = tokenInteger
	if l.at+1 < len(l.text) && l.text[l.at] == '.' && isDigit(l.text[l.at+1]) {
		t.kind = tokenDecimal
		l.at++
		digits()
	}
	if l.at < len(l.text) && (l.text[l.at] == 'e' || l.text[l.at] == 'E') {
		mark := l.at
		l.at++
		if t.kind == tokenDecimal && l.at < len(l.text) && l.text[l.at] == '-' {
			l.at++
		}
		if l.at < len(l.text) && isDigit(l.text[l.at]) {
			digits()
		} else {
			l.at = mark
		}
	}
	for l.at < len(l.text) && (isLetter(l.text[l.at]) || isDigit(l.text[l.at])) {
		l.at++
		t.kind = tokenBad
	}
	t.text = l.text[from:l.at]
	plain := strings.ReplaceAll(t.text, "_", "")
	switch t.kind {
	case tokenBad:
		l.report(t.pos, "%q is neither a number nor a name", t.text)
	case tokenDecimal:
		t.text = plain
		if _, err := strconv.ParseFloat(plain, 64); err != nil {
			l.report(t.pos, "%s is no number that can be written so", t.text)
			t.kind = tokenBad
		}
	default:
		var ok bool
		if t.value, ok = integer(plain); !ok {
			l.report(t.pos, "%s is past 64 bits", t.text)
			t.kind = tokenBad
		}
	}
}

// integer reads digits with a power of ten behind them.
func integer(text string) (int64, bool) {
	mantissa, exponent, _ := strings.Cut(strings.ToLower(text), "e")
	n, err := strconv.ParseInt(mantissa, 10, 64)
	if err != nil {
		return 0, false
	}
	power := 0
	if exponent != "" {
		if power, err = strconv.Atoi(exponent); err != nil {
			return 0, false
		}
	}
	for ; power > 0 && n != 0; power-- {
		next := n * 10
		if next/10 != n || power > 40 {
			return 0, false
		}
		n = next
	}
	return n, true
}

func (l *lexer) string(t *token) {
	var b strings.Builder
	t.kind = tokenString
	for l.at++; l.at < len(l.text) && l.text[l.at] != '\n'; l.at++ {
		switch c := l.text[l.at]; c {
		case '"':
			l.at++
			t.text = b.String()
			return
		case '\\':
			l.at++
			if l.at < len(l.text) && (l.text[l.at] == '"' || l.text[l.at] == '\\') {
				b.WriteByte(l.text[l.at])
				continue
			}
			l.at--
			l.report(l.pos(), `a \ in a string stands before " or another \`)
		default:
			b.WriteByte(c)
		}
	}
	t.kind, t.text = tokenBad, b.String()
	l.report(t.pos, "this string is never closed; end it with \"")
}

func (l *lexer) mark(t *token) {
	for _, m := range marks {
		// What other languages write with two marks is no two of ours.
		other := slices.ContainsFunc(otherMarks, func(o [2]string) bool {
			return len(o[0]) > len(m) && strings.HasPrefix(o[0], m) && strings.HasPrefix(l.text[l.at:], o[0])
		})
		if other || !strings.HasPrefix(l.text[l.at:], m) {
			continue
		}
		switch m {
		case "(", "[":
			l.depth++
		case ")", "]":
			l.depth = max(0, l.depth-1)
		case "{", "}": // a bracket that was never closed does not swallow the rest
			l.depth = 0
		}
		l.at += len(m)
		t.kind, t.text = tokenMark, m
		return
	}
	for _, other := range otherMarks {
		if strings.HasPrefix(l.text[l.at:], other[0]) {
			l.at += len(other[0])
			t.kind, t.text = tokenBad, other[0]
			l.report(t.pos, "%s means nothing here; %s", other[0], other[1])
			return
		}
	}
	r, size := utf8.DecodeRuneInString(l.text[l.at:])
	l.at += size
	t.kind, t.text = tokenBad, string(r)
	l.report(t.pos, "%s means nothing here", fmt.Sprintf("%q", r))
}
