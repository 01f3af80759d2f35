package box

import (
	"errors"
	"os"
	"path/filepath"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"golang.org/x/sync/errgroup"
)

func TestWhatAKilledProcessLeftIsRemovedAndWhatIsInUseIsNot(t *testing.T) {
	const name = "cold-verdict-run-"
	base := t.TempDir()
	mine, err := NewScratch(base, name)
	require.NoError(t, err)
	stale := filepath.Join(base, name+"stale")
	require.NoError(t, os.MkdirAll(filepath.Join(stale, "work-1"), 0o755))
	other := filepath.Join(base, "cold-verdict-demo-1")
	require.NoError(t, os.Mkdir(other, 0o755))
	young := filepath.Join(base, "."+name+"young")
	require.NoError(t, os.Mkdir(young, 0o755))
	second, err := NewScratch(base, name)
	require.NoError(t, err)
	assert.NoDirExists(t, stale)
	assert.DirExists(t, mine.Dir, "it is in use")
	assert.DirExists(t, other, "it is not ours")
	assert.NoDirExists(t, young, "its owner was killed before it had its name, or makes another one")
	require.NoError(t, mine.Remove())
	require.NoError(t, second.Remove())
	assert.NoDirExists(t, mine.Dir)
	_, err = NewScratch(filepath.Join(base, "gone"), name)
	assert.Error(t, err)
}

func TestOfManyThatMakeFoldersNoneLosesItsOwn(t *testing.T) {
	base := t.TempDir()
	var group errgroup.Group
	for range 8 {
		group.Go(func() error {
			for range 300 {
				s, err := NewScratch(base, "stage-")
				if err != nil {
					return err
				}
				err = os.WriteFile(filepath.Join(s.Dir, "file"), nil, 0o600)
				if err = errors.Join(err, s.Remove()); err != nil {
					return err
				}
			}
			return nil
		})
	}
	assert.NoError(t, group.Wait())
}

func TestWhateverAProgramMadeIsRemoved(t *testing.T) {
	base := t.TempDir()
	precious := filepath.Join(base, "precious")
	require.NoError(t, os.MkdirAll(filepath.Join(precious, "sub"), 0o755))
	top := filepath.Join(base, "top")
	require.NoError(t, os.MkdirAll(filepath.Join(top, "kept", "sub"), 0o755))
	require.NoError(t, os.MkdirAll(filepath.Join(top, "moved-1", "a", "b"), 0o755))
	require.NoError(t, os.MkdirAll(filepath.Join(top, "x", "y"), 0o755))
	require.NoError(t, os.WriteFile(filepath.Join(top, "x", "y", "file"), nil, 0))
	require.NoError(t, os.Symlink(precious, filepath.Join(top, "x", "link")))
	require.NoError(t, os.Symlink(precious, filepath.Join(top, "link")))
	require.NoError(t, os.Chmod(filepath.Join(top, "x", "y"), 0))
	require.NoError(t, os.Chmod(filepath.Join(top, "x"), 0o555))
	// Deeper than a path may be long.
	deep := filepath.Join(top, "deep")
	require.NoError(t, os.Mkdir(deep, 0o755))
	for range 8 {
		below := filepath.Join(base, "new", strings.Repeat("d/", 400))
		require.NoError(t, os.MkdirAll(below, 0o755))
		require.NoError(t, os.Rename(deep, filepath.Join(below, "deep")))
		require.NoError(t, os.Rename(filepath.Join(base, "new"), deep))
	}
	require.NoError(t, clearFolder(top, map[string]bool{"kept": true}))
	left, err := os.ReadDir(top)
	require.NoError(t, err)
	require.Len(t, left, 1)
	assert.DirExists(t, filepath.Join(top, "kept", "sub"))
	require.NoError(t, removeAll(top))
	assert.NoDirExists(t, top)
	require.NoError(t, removeAll(top), "it is gone already")
	assert.DirExists(t, filepath.Join(precious, "sub"), "what links lead to stays")
}
