// Package source reads sources of programs as far as it can be done without their compilers: which
// family of languages they belong to, and what in them is neither a comment nor a string.
package source

import (
	"slices"
	"strings"
	"unicode/utf8"

	"coldverdict/internal/lazy"
)

// Family is how a language is called here: by its first extension, without the dot. extensions are
// those of the language.
func Family(extensions []string) string {
	if len(extensions) == 0 {
		return ""
	}
	switch name := strings.TrimPrefix(extensions[0], "."); name {
	case "cc", "cxx":
		return "cpp"
	default:
		return name
	}
}

// Lexed reports that the comments and the strings of a family are known.
func Lexed(family string) bool {
	return slices.Contains([]string{"c", "cpp", "cs", "d", "go", "java", "js", "kt", "php", "py", "rb", "rs", "scala", "ts"}, family)
}

// Blanked returns a source of the same length in which comments and the insides of strings are
// blanks, by the lexical rules that languages of its family share.
func Blanked(text []byte, in string) []byte {
	out := append([]byte(nil), text...)
	hash := in == "py" || in == "rb" || in == "pl" || in == "php" || in == "sh"
	slashes := in != "py" && in != "rb" && in != "pl" && in != "sh"
	blank := func(from, to int) {
		for i := from; i < to; i++ {
			if out[i] != '\n' {
				out[i] = ' '
			}
		}
	}
	has := func(at int, mark string) bool {
		return at+len(mark) <= len(text) && string(text[at:at+len(mark)]) == mark
	}
	until := func(at int, mark string, escapes bool) int {
		for ; at < len(text); at++ {
			switch {
			case escapes && text[at] == '\\':
				at++
			case has(at, mark):
				return at
			case escapes && len(mark) == 1 && mark != "`" && text[at] == '\n':
				return at // a string that was not closed
			}
		}
		return len(text)
	}
	for at := 0; at < len(text); at++ {
		switch c := text[at]; {
		case slashes && has(at, "//"), hash && c == '#':
			end := until(at, "\n", false)
			blank(at, end)
			at = end
		case slashes && has(at, "/*"):
			end := min(until(at+2, "*/", false)+2, len(text))
			blank(at, end)
			at = end - 1
		case in == "cpp" && rawText().Match(text[at:]) && (at == 0 || !isWord(text[at-1])):
			m := rawText().FindSubmatch(text[at:])
			end := until(at+len(m[0]), ")"+string(m[1])+"\"", false)
			blank(at+len(m[0]), end)
			at = min(end+len(m[1])+2, len(text)) - 1
		case tripled(in) && has(at, `"""`), in == "py" && has(at, "'''"):
			end := until(at+3, string(text[at:at+3]), in != "kt" && in != "scala")
			blank(at, min(end+3, len(text)))
			at = min(end+3, len(text)) - 1
		case c == '"', c == '\'' && quotes(in, text, at), c == '`' && (in == "js" || in == "ts" || in == "go"):
			end := until(at+1, string(c), in != "go" || c != '`')
			blank(at+1, min(end, len(text)))
			at = end
		}
	}
	return out
}

// rawText is how a raw string of C++ begins, with its delimiter.
var rawText = lazy.New(`^(?:u8|[uUL])?R"([^()\\\s]{0,16})\(`)

// tripled reports that a family has strings in three quotation marks.
func tripled(in string) bool {
	return slices.Contains([]string{"py", "java", "kt", "scala", "cs"}, in)
}

// quotes reports that an apostrophe begins a string or a character, and is no lifetime, digit
// separator or quotation.
func quotes(in string, text []byte, at int) bool {
	switch in {
	case "rs":
		_, n := utf8.DecodeRune(text[at+1:])
		return at+1+n < len(text) && (text[at+1] == '\\' || text[at+1+n] == '\'')
	case "cpp", "c":
		return at == 0 || !isWord(text[at-1])
	case "hs", "ml", "clj", "lisp", "nim":
		return false
	}
	return true
}

func isWord(c byte) bool {
	return c == '_' || c >= '0' && c <= '9' || c >= 'a' && c <= 'z' || c >= 'A' && c <= 'Z'
}
