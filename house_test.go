package house_test

import (
	"go/parser"
	"go/token"
	"io/fs"
	"path/filepath"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// floors are the packages of the house, from the top down. An import may only
// lead to a lower floor.
var floors = [][]string{
	{"cmd/cold", "bench"},
	{"cli"},
	{"term", "report"},
	{"report/page"},
	{"core/ready"},
	{"core/cross", "core/final", "core/grade", "core/growth", "core/history", "core/intake", "core/statement", "core/judge/solutions", "core/rank", "core/steps"},
	{"core/coverage", "core/edges", "core/picture"},
	{"core/judge"},
	{"core/program"},
	{"core/call"},
	{"core/toolchain"},
	{"core/compare", "core/problem"},
	{"core/script"},
	{"core/box", "core/shape"},
	{"core/prelude"},
	{"core/settings", "core/source", "core/steps/native", "core/value", "core/verdict", "demo"},
	{"internal/lazy", "internal/quiet", "internal/testenv"},
}

func floorOf(folder string) int {
	for i, floor := range floors {
		for _, name := range floor {
			if folder == name {
				return i
			}
		}
	}
	return -1
}

// drawing are the libraries that only the packages above core may use.
var drawing = []string{"github.com/urfave/cli", "charm.land/", "github.com/charmbracelet/", "golang.org/x/term", "gonum.org/v1/plot"}

func TestImportsLeadDownwardsOnly(t *testing.T) {
	seen := 0
	err := filepath.WalkDir(".", func(path string, d fs.DirEntry, err error) error {
		if err != nil {
			return err
		}
		if d.IsDir() && (path == filepath.Join("demo", "problems") || d.Name() == "testdata" || strings.HasPrefix(d.Name(), ".") && path != ".") {
			return filepath.SkipDir
		}
		if filepath.Ext(path) != ".go" || filepath.Dir(path) == "." {
			return nil
		}
		seen++
		folder := filepath.ToSlash(filepath.Dir(path))
		floor := floorOf(folder)
		require.GreaterOrEqual(t, floor, 0, "%s is no package of the house; give it a floor", folder)
		file, err := parser.ParseFile(token.NewFileSet(), path, nil, parser.ImportsOnly)
		require.NoError(t, err)
		for _, spec := range file.Imports {
			name := strings.Trim(spec.Path.Value, `"`)
			if inside, ok := strings.CutPrefix(name, "coldverdict/"); ok {
				assert.Greater(t, floorOf(inside), floor, "%s imports %s, which is not below it", path, inside)
			}
			for _, library := range drawing {
				if strings.HasPrefix(folder, "core/") {
					assert.False(t, strings.HasPrefix(name, library), "%s imports %s: nothing in core draws", path, name)
				}
			}
		}
		return nil
	})
	require.NoError(t, err)
	assert.Greater(t, seen, 30, "the test reads the files of the house")
}
