package problem

import (
	"fmt"
	"os"
	"path/filepath"
	"strings"
	"sync"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"golang.org/x/sys/unix"
)

// station is a problem's folder with a case in it.
func station(t *testing.T) (*Problem, Vocabulary) {
	dir := t.TempDir()
	require.NoError(t, os.WriteFile(filepath.Join(dir, CasesFile), []byte("# Samples\n\n## one\n\n```input\n3\n```\n\n```output\n2\n```\n"), 0o644))
	words := Vocabulary{IsSource: func(string) bool { return false }}
	p, err := Load(dir, words)
	require.NoError(t, err)
	return p, words
}

func TestCasesThatAreAddedAtOnceAreAllKept(t *testing.T) {
	p, words := station(t)
	var group sync.WaitGroup
	names := make([]string, 8)
	for i := range names {
		group.Go(func() {
			mine := *p // as another process has read it
			name, _, err := mine.Add(NewCase{Group: "Samples", Input: fmt.Appendf(nil, "%d\n", i)})
			assert.NoError(t, err)
			names[i] = name
		})
	}
	group.Wait()
	now, err := Load(p.Dir, words)
	require.NoError(t, err)
	assert.Len(t, now.Cases, 9)
	seen := map[string]bool{}
	for _, name := range names {
		assert.False(t, seen[name], name)
		seen[name] = true
	}
}

func TestChangesOfOneCaseAtOnceAreAllMade(t *testing.T) {
	p, words := station(t)
	one := p.Cases[0]
	var group sync.WaitGroup
	for i := range 6 {
		group.Go(func() {
			_, err := p.Refuse(one, fmt.Appendf(nil, "%d\n", 10+i), "")
			assert.NoError(t, err)
		})
	}
	group.Wait()
	now, err := Load(p.Dir, words)
	require.NoError(t, err)
	assert.Len(t, now.Cases[0].Refused, 6)
	require.NoError(t, p.Drop(one))
	assert.ErrorContains(t, p.Drop(one), "holds no case samples/one any more")
}

func TestWhatAKilledProcessLeftIsRemovedAndWhatIsBeingWrittenIsNot(t *testing.T) {
	p, words := station(t)
	left := filepath.Join(p.Dir, "."+CasesFile+newName+"123")
	busy := filepath.Join(p.Dir, "."+CasesFile+newName+"456")
	deep := filepath.Join(p.Dir, CasesFolder, "storms", ".7.in"+newName+"123")
	theirs := []string{".notes", ".draft.txt" + newName + "123", "." + CasesFile + newName + "two", CasesFile + newName + "3"}
	for i, name := range theirs {
		theirs[i] = filepath.Join(p.Dir, name)
	}
	require.NoError(t, os.MkdirAll(filepath.Dir(deep), 0o755))
	for _, path := range append(theirs, left, busy, deep) {
		require.NoError(t, os.WriteFile(path, []byte("half"), 0o600))
	}
	writer, err := os.Open(busy)
	require.NoError(t, err)
	defer writer.Close()
	require.NoError(t, unix.Flock(int(writer.Fd()), unix.LOCK_EX))
	_, err = Load(p.Dir, words)
	require.NoError(t, err)
	assert.NoFileExists(t, left)
	assert.NoFileExists(t, deep)
	assert.FileExists(t, busy, "it is being written")
	for _, path := range theirs {
		assert.FileExists(t, path, "a person's own")
	}
}

func TestManyWritersLeaveAWholeFileAndNothingElse(t *testing.T) {
	dir := t.TempDir()
	path := filepath.Join(dir, "beacons.md")
	var group sync.WaitGroup
	for i := range 20 {
		group.Go(func() {
			assert.NoError(t, WriteWhole(path, []byte(strings.Repeat(fmt.Sprint(i%10), 100_000)), 0o644))
			entries, err := os.ReadDir(dir)
			assert.NoError(t, err)
			removeLeft(dir, entries)
		})
	}
	group.Wait()
	text, err := os.ReadFile(path)
	require.NoError(t, err)
	assert.Equal(t, strings.Repeat(string(text[0]), 100_000), string(text))
	entries, err := os.ReadDir(dir)
	require.NoError(t, err)
	assert.Len(t, entries, 1)
}
