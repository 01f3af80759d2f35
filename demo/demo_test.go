package demo

import (
	"errors"
	"io/fs"
	"os"
	"path/filepath"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestEveryProblemIsWrittenAndNothingIsOverwritten(t *testing.T) {
	dir := t.TempDir()
	require.NoError(t, Write(dir))
	for _, stop := range Tour() {
		assert.FileExists(t, filepath.Join(dir, stop.Folder, "verdict.toml"))
		assert.NotEmpty(t, stop.Words)
	}
	assert.True(t, errors.Is(Write(dir), fs.ErrExist))
}

func TestEverySourceSaysWhatItDoes(t *testing.T) {
	sources := 0
	err := fs.WalkDir(problems, "problems", func(path string, d fs.DirEntry, err error) error {
		switch filepath.Ext(path) {
		case ".cpp", ".c", ".py", ".java", ".js", ".go", ".star":
			text, err := problems.ReadFile(path)
			require.NoError(t, err)
			sources++
			assert.Regexp(t, `^[A-Z].*\.$`, Words(text), path)
			config, err := problems.ReadFile(filepath.Join(filepath.Dir(path), "verdict.toml"))
			require.NoError(t, err)
			assert.Contains(t, string(config), `"`+d.Name()+`"`, "and is named in verdict.toml")
		}
		return err
	})
	require.NoError(t, err)
	assert.GreaterOrEqual(t, sources, 50)
}

func TestAtLeastThirtySolutionsAreWrong(t *testing.T) {
	wrong := 0
	for _, stop := range Tour() {
		config, err := problems.ReadFile("problems/" + stop.Folder + "/verdict.toml")
		require.NoError(t, err)
		wrong += strings.Count(string(config), "\nexpect = ")
	}
	assert.GreaterOrEqual(t, wrong, 30)
	_, err := os.Stat("problems")
	require.NoError(t, err)
}

func TestWordsAreTheFirstComment(t *testing.T) {
	for source, want := range map[string]string{
		"// Right.\nint main(){}\n": "Right.",
		"# Wrong: a tie.\n":         "Wrong: a tie.",
		"/* The same in C. */\n":    "The same in C.",
		"":                          "",
	} {
		assert.Equal(t, want, Words([]byte(source)))
	}
}
