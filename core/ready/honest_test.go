package ready

import (
	"io/fs"
	"os"
	"path/filepath"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"coldverdict/core/judge"
	"coldverdict/core/problem"
	"coldverdict/core/toolchain"
)

// Sources that are right are never refused for what stands in them, in whatever style.
func TestNoHonestSourceIsRefused(t *testing.T) {
	seen := 0
	for _, root := range []string{"../judge/solutions/testdata/honest", "../../demo/problems"} {
		err := filepath.WalkDir(root, func(path string, d fs.DirEntry, err error) error {
			if err != nil || d.IsDir() || !toolchain.Ours().IsSource(path) {
				return err
			}
			text, err := os.ReadFile(path)
			require.NoError(t, err)
			language, _, err := toolchain.Ours().Choose(path, "")
			require.NoError(t, err)
			p := &problem.Problem{Dir: filepath.Dir(path)}
			seen++
			for _, f := range Read(p, judge.Plan{Solution: problem.Solution{File: filepath.Base(path)}, Build: &toolchain.Build{Language: language}}, text) {
				assert.False(t, f.Sure, "%s:%d: %s", path, f.Line, f.Text)
			}
			return nil
		})
		require.NoError(t, err)
	}
	assert.Greater(t, seen, 200)
}
