//go:build linux && !portable

package box

import (
	"os"
	"path/filepath"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// eachSandbox runs a test in every mode that keeps programs from files.
func eachSandbox(t *testing.T, test func(*testing.T, mode)) {
	eachMode(t, func(t *testing.T, m mode) {
		if m.way.isolation == NotIsolated {
			t.Skip("nothing is contained")
		}
		test(t, m)
	})
}

// seen says which of some paths a program can read, that may read some.
func seen(t testing.TB, b *Box, reads []string, paths ...string) (readable []string) {
	for _, path := range paths {
		p := program(t, "hostile/reach", "read", path)
		p.Reads = reads
		if run(t, b, p, generous).ExitCode != 0 {
			readable = append(readable, path)
		}
	}
	return readable
}

// files makes files in a folder, which each hold one line, and returns their paths.
func files(t testing.TB, dir string, names ...string) (paths []string) {
	for _, name := range names {
		path := filepath.Join(dir, name)
		require.NoError(t, os.MkdirAll(filepath.Dir(path), 0o755))
		require.NoError(t, os.WriteFile(path, []byte("ice\n"), 0o644))
		paths = append(paths, path)
	}
	return paths
}

// places are where something can lie: in a home folder, and among temporary files.
func places(t testing.TB) map[string]string {
	home, err := os.MkdirTemp(homeFolder(t), "hoarfrost-")
	require.NoError(t, err)
	t.Cleanup(func() { os.RemoveAll(home) })
	temporary, err := filepath.EvalSymlinks(t.TempDir())
	require.NoError(t, err)
	return map[string]string{"a home folder": home, "temporary files": temporary}
}

func TestAProgramSeesWhatItAsksForAndTheNextOneDoesNot(t *testing.T) {
	eachSandbox(t, func(t *testing.T, m mode) {
		b := openMode(t, m)
		for name, dir := range places(t) {
			t.Run(name, func(t *testing.T) {
				all := files(t, dir, "runtime/bin/tool", "runtime/lib/part", "build/one", "build-two/other", "key")
				assert.Empty(t, seen(t, b, nil, all...))
				runtime, build := filepath.Join(dir, "runtime"), filepath.Join(dir, "build")
				assert.Equal(t, all[:3], seen(t, b, []string{runtime, build}, all...))
				assert.Equal(t, all[3:4], seen(t, b, []string{filepath.Join(dir, "build-two")}, all...))
				assert.Equal(t, all[4:], seen(t, b, []string{all[4]}, all...), "one file")
				assert.Equal(t, all, seen(t, b, []string{build, dir}, all...), "one within the other")
				assert.Empty(t, seen(t, b, []string{filepath.Join(dir, "not-there")}, all...))
			})
		}
	})
}

func TestLinksAreSeenWithWhatTheyLeadTo(t *testing.T) {
	eachSandbox(t, func(t *testing.T, m mode) {
		b := openMode(t, m)
		dir := places(t)["a home folder"]
		all := files(t, dir, "versions/3/bin/tool", "versions/4/bin/tool")
		current := filepath.Join(dir, "current")
		require.NoError(t, os.Symlink(filepath.Join(dir, "versions", "3"), current))
		through := filepath.Join(current, "bin", "tool")
		assert.Empty(t, seen(t, b, nil, through))
		assert.Equal(t, []string{all[0]}, seen(t, b, []string{current}, all...))
		if m.way.isolation == Namespaces {
			assert.Equal(t, []string{through}, seen(t, b, []string{current}, through))
		}
		// A link within what is shown leads nowhere, if what it leads to is not.
		key := files(t, dir, "key")[0]
		require.NoError(t, os.Symlink(key, filepath.Join(dir, "versions", "key")))
		assert.Empty(t, seen(t, b, []string{filepath.Join(dir, "versions")}, key, filepath.Join(dir, "versions", "key")))
	})
}

func TestWhatIsHiddenStaysHiddenInWhatIsShown(t *testing.T) {
	eachSandbox(t, func(t *testing.T, m mode) {
		for name, dir := range places(t) {
			t.Run(name, func(t *testing.T) {
				all := files(t, dir, "teams/lib.h", "teams/cases/1.out", "teams/cases.md", "teams/deep/notes")
				o := m.options(t)
				o.Hidden = []string{filepath.Join(dir, "teams", "cases"), filepath.Join(dir, "teams", "cases.md"), filepath.Join(dir, "gone")}
				b, err := Open(o)
				require.NoError(t, err)
				defer b.Close()
				problem := filepath.Join(dir, "teams")
				assert.Equal(t, []string{all[0], all[3]}, seen(t, b, []string{problem}, all...))
				assert.Empty(t, seen(t, b, nil, all...))
				assert.Equal(t, []string{all[0], all[3]}, seen(t, b, []string{problem}, all...), "once more")
			})
		}
	})
}

func TestWhoWorksRightAmongTemporaryFilesSeesWhatLiesBeside(t *testing.T) {
	eachSandbox(t, func(t *testing.T, m mode) {
		beside, err := os.MkdirTemp("/tmp", "0-hoarfrost-") // first by name
		require.NoError(t, err)
		defer os.RemoveAll(beside)
		inside := files(t, beside, "lib.h", "answer")
		o := m.options(t)
		o.Hidden = []string{"/tmp", inside[1]}
		b, err := Open(o)
		require.NoError(t, err)
		defer b.Close()
		assert.Empty(t, seen(t, b, nil, inside...))
		assert.Equal(t, inside[:1], seen(t, b, []string{"/tmp"}, inside...))
		assert.Zero(t, run(t, b, program(t, "act", "nothing"), generous).ExitCode, "the working folder is what it was")
	})
}

func TestNothingOfTheRootIsShown(t *testing.T) {
	assert.Equal(t, []string{"/usr/lib"}, apart([]string{"/", "/usr/lib"}))
	same := []string{"/usr/lib", "/home"}
	assert.Equal(t, same, apart(same))
}

func TestAFolderOfItsOwnMayBeWrittenToAndNoOther(t *testing.T) {
	eachSandbox(t, func(t *testing.T, m mode) {
		b := openMode(t, m)
		for name, dir := range places(t) {
			t.Run(name, func(t *testing.T) {
				files(t, dir, "stage/source", "own/cache", "teams/source")
				stage, own := filepath.Join(dir, "stage"), filepath.Join(dir, "own")
				write := func(path string) int {
					p := program(t, "hostile/reach", "write", path)
					p.Reads, p.Writes = []string{filepath.Join(dir, "teams")}, []string{own}
					got, err := b.Run(t.Context(), Run{Program: p, Limits: generous, Dir: stage})
					require.NoError(t, err)
					return got.ExitCode
				}
				assert.Equal(t, 1, write("program"), "where it works")
				assert.FileExists(t, filepath.Join(stage, "program"))
				assert.Equal(t, 1, write(filepath.Join(own, "kept")))
				assert.FileExists(t, filepath.Join(own, "kept"))
				assert.Zero(t, write(filepath.Join(dir, "teams", "planted")))
				assert.Zero(t, write(filepath.Join(dir, "teams", "source")))
				assert.NoFileExists(t, filepath.Join(dir, "teams", "planted"))
			})
		}
	})
}

func TestNoProgramStepsBackBehindOthers(t *testing.T) {
	eachSandbox(t, func(t *testing.T, m mode) {
		assert.Zero(t, run(t, openMode(t, m), program(t, "hostile/guard", "step back"), generous).ExitCode)
	})
}

func TestASupervisorCollectsGarbageWhileItTraces(t *testing.T) {
	t.Setenv("GOGC", "1")
	eachSandbox(t, func(t *testing.T, m mode) {
		b := openMode(t, m)
		for range 20 {
			run(t, b, program(t, "hostile/guard", "leave state"), generous)
		}
	})
}

func TestTheWorkingFolderIsAsItWasWhateverWasDoneToIt(t *testing.T) {
	eachSandbox(t, func(t *testing.T, m mode) {
		b := openMode(t, m)
		for range 3 {
			run(t, b, program(t, "hostile/guard", "leave state"), generous)
			after := run(t, b, program(t, "hostile/guard", "find state"), generous)
			assert.Zero(t, after.ExitCode)
		}
	})
}
