package settings

import (
	"strings"
	"testing"

	"github.com/pelletier/go-toml/v2"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func FuzzEveryTextIsWrittenAsTOML(f *testing.F) {
	for _, text := range []string{
		"Sledge loading", `a "quote" and a \`, "it's", "../../etc", "\x1b[2J\a\x00\x7f", "\xff\xfe", "two\nlines\r\n", "Schnee ❄", "'''", `"""`, "\u2028\u200b",
	} {
		f.Add(text)
	}
	f.Fuzz(func(t *testing.T, text string) {
		quoted := Quoted(text)
		assert.NotContains(t, quoted, "\n")
		var back struct{ Title string }
		require.NoError(t, toml.Unmarshal([]byte("title = "+quoted+"\n"), &back), quoted)
		assert.Equal(t, strings.ToValidUTF8(text, "\ufffd"), back.Title)
	})
}
