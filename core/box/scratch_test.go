package box

import (
	"os"
	"path/filepath"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
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
	second, err := NewScratch(base, name)
	require.NoError(t, err)
	assert.NoDirExists(t, stale)
	assert.DirExists(t, mine.Dir, "it is in use")
	assert.DirExists(t, other, "it is not ours")
	require.NoError(t, mine.Remove())
	require.NoError(t, second.Remove())
	assert.NoDirExists(t, mine.Dir)
	_, err = NewScratch(filepath.Join(base, "gone"), name)
	assert.Error(t, err)
}
