package settings

import (
	"strings"
	"unicode"

	"github.com/pelletier/go-toml/v2"
)

// Quoted writes a text as a string of TOML 1.0, on one line. Bytes that are no UTF-8 become
// U+FFFD, since no file of TOML can hold them.
func Quoted(text string) string {
	text = strings.ToValidUTF8(text, "\ufffd")
	if !strings.ContainsFunc(text, func(r rune) bool { return r == '"' || r == '\\' || !unicode.IsPrint(r) }) {
		return `"` + text + `"`
	}
	written, err := toml.Marshal(map[string]string{"k": text})
	if err != nil {
		return `""` // which does not happen: it is a text
	}
	_, value, _ := strings.Cut(strings.TrimSuffix(string(written), "\n"), "= ")
	return value
}
