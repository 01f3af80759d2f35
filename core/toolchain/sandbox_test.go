package toolchain

import (
	"context"
	"fmt"
	"io"
	"os"
	"path/filepath"
	"slices"
	"strings"
	"testing"

	"coldverdict/core/box"
	"coldverdict/core/verdict"
	"coldverdict/internal/testenv"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// homeWith makes a home folder that holds some executables and links, and returns it.
// A link is written as "name -> target", from the home folder.
func homeWith(t testing.TB, entries ...string) string {
	home, err := filepath.EvalSymlinks(t.TempDir())
	require.NoError(t, err)
	t.Setenv("HOME", home)
	for _, entry := range entries {
		name, target, link := strings.Cut(entry, " -> ")
		path := filepath.Join(home, name)
		require.NoError(t, os.MkdirAll(filepath.Dir(path), 0o755))
		if link {
			require.NoError(t, os.Symlink(filepath.Join(home, target), path))
		} else {
			require.NoError(t, os.WriteFile(path, []byte("#!/bin/sh\n"), 0o755))
		}
	}
	return home
}

func TestAnInstallationIsWhatAToolWasInstalledIntoAndNeverAHome(t *testing.T) {
	home := homeWith(t,
		"ice/3.2/bin/ice", "ice/3.2/lib/part", ".local/bin/own", "bin/script", "tool", ".cargo/bin/rustup",
		".local/bin/ice -> ice/3.2/bin/ice", "current -> ice/3.2", "venv/bin/python -> ice/3.2/bin/ice",
	)
	for _, tt := range []struct {
		tool string
		want []string // below the home folder
	}{
		{"ice/3.2/bin/ice", []string{"ice/3.2/bin/ice", "ice/3.2"}},
		{".local/bin/ice", []string{".local/bin/ice", "ice/3.2/bin/ice", "ice/3.2"}},
		{"current/bin/ice", []string{"current/bin/ice", "current", "ice/3.2/bin/ice", "ice/3.2"}},
		{"venv/bin/python", []string{"venv/bin/python", "venv", "ice/3.2/bin/ice", "ice/3.2"}},
		{".local/bin/own", []string{".local/bin/own"}},
		{".cargo/bin/rustup", []string{".cargo/bin/rustup"}},
		{"bin/script", []string{"bin/script"}},
		{"tool", []string{"tool"}},
		{"not/there", nil},
	} {
		t.Run(tt.tool, func(t *testing.T) {
			var want []string
			for _, path := range tt.want {
				want = append(want, filepath.Join(home, path))
			}
			assert.Equal(t, want, installation(filepath.Join(home, tt.tool)))
		})
	}
	assert.Empty(t, installation(""))
	assert.Empty(t, installation("/usr/bin/env"), "programs see it anyway")
}

func TestASourceIsBuiltUnderANameThatMeansNothing(t *testing.T) {
	java := Ours().named["java"]
	for _, tt := range []struct{ language, name, source, want string }{
		{"python", "token.py", "", "solution.py"},
		{"python", "-c.py", "", "solution.py"},
		{"python", "noise", "", "solution.py"},
		{"python", "odd.p y", "", "solution.py"},
		{"go", "x_test.go", "", "solution.go"},
		{"javascript", "a.mjs", "", "solution.mjs"},
		{"cpp", "a b.cc", "", "solution.cc"},
		{"java", "my file.java", "class A {}", "solution.java"},
		{"java", "my file.java", "import x;\npublic final class Teams {}", "Teams.java"},
		{"kotlin", "a-b.kt", "public class Ice", "solution.kt"},
	} {
		t.Run(tt.language+" "+tt.name, func(t *testing.T) {
			assert.Equal(t, tt.want, Ours().named[tt.language].buildName(tt.name, []byte(tt.source)))
		})
	}
	assert.Equal(t, "my file.java", java.FileName("my file.java", nil), "the person's own is another matter")
}

func TestWhatABuildSaysNamesThePersonsFile(t *testing.T) {
	for _, tt := range []struct{ source, file, said, want string }{
		{"/p/ice core.py", "solution.py", `File "solution.py", line 3`, `File "ice core.py", line 3`},
		{"/p/a.cpp", "solution.cpp", "solution.cpp:3:1: error\nsolution.cpp: note", "a.cpp:3:1: error\na.cpp: note"},
		{"/p/a.cs", "solution.cs", "solution.cs(3,1): error", "a.cs(3,1): error"},
		{"/p/a.py", "solution.py", "my_solution.py and solution.pyc", "my_solution.py and solution.pyc"},
		{"/p/a.py", "solution.py", "/tmp/solution.py", "/tmp/a.py"},
		{"/p/solution.py", "solution.py", "solution.py:1", "solution.py:1"},
		{"/p/a.java", "Teams.java", "at Teams.main(Teams.java:7)", "at Teams.main(a.java:7)"},
		{"/p/a.py", "", "nothing", "nothing"},
	} {
		b := Build{Source: tt.source, File: tt.file}
		assert.Equal(t, tt.want, b.OwnName(tt.said))
	}
}

func TestFilesThatWereWantedAndAreThereAreNamed(t *testing.T) {
	home := homeWith(t, "teams/a.c", "teams/cases/1.out", "teams/cases.md", "lib/ice.h", "toolchain/bin/cc", "key")
	folder := filepath.Join(home, "teams")
	b := Build{Source: filepath.Join(folder, "a.c"), Dir: "/cache/builds/1", Language: &Language{Build: []Command{{"cc", "-iquote", "{folder}"}}}, compiler: filepath.Join(home, "toolchain/bin/cc")}
	for _, tt := range []struct {
		name, log string
		want      []string
	}{
		{"nothing", "a.c:3:1: error: x\nexpected ';'", nil},
		{"by its path", "Error: file not found: " + folder + "/cases/1.out", []string{"cases/1.out"}},
		{"as the source has it", "a.c:1:10: fatal error: cases.md: No such file", []string{"cases.md"}},
		{"in quotes, and twice", "couldn't read `cases/1.out`: cases/1.out", []string{"cases/1.out"}},
		{"elsewhere", "cannot open '" + home + "/key'", []string{home + "/key"}},
		{"what is not there", "gone.h: No such file", nil},
		{"what it sees", home + "/toolchain/bin/cc: internal error", nil},
		{"a folder", "cannot list " + folder + "/cases.", nil},
		{"a word without a point", "teams cases", nil},
	} {
		t.Run(tt.name, func(t *testing.T) {
			var want []string
			for _, path := range tt.want {
				want = append(want, "cold: builds may not see "+path)
			}
			assert.Equal(t, want, b.keptFrom(tt.log))
		})
	}
	assert.Contains(t, b.Unseen("cannot load "+home+"/lib/ice.h"), home+"/lib/ice.h is there, but programs may not see it")
	assert.Empty(t, b.Unseen("Segmentation fault"))
	b.Language = &Language{Sees: []string{"~/lib", "~/none*"}}
	assert.Empty(t, b.Unseen("cannot load "+home+"/lib/ice.h"), "its entry names it")
	assert.Equal(t, []string{filepath.Join(home, "lib")}, b.Language.sees())
}

func TestACompilerKnowsFewVariablesAndNoHome(t *testing.T) {
	t.Setenv("SECRET_KEY", "sextant")
	t.Setenv("CPATH", "/ice/include")
	t.Setenv("GOFLAGS", "-mod=vendor")
	l := &Language{Compiler: Tool{Depends: []string{"$CPATH", "~/.ice"}}, BuildEnvironment: []string{"GOFLAGS=", "ICE=1"}}
	env := l.buildEnvironment("/cache/own/ice", "/cache/stage-1")
	for _, want := range []string{"HOME=/cache/own/ice", "TMPDIR=/cache/stage-1", "CPATH=/ice/include", "GOFLAGS=", "ICE=1", "PATH=" + os.Getenv("PATH")} {
		assert.Contains(t, env, want)
	}
	for _, entry := range env {
		assert.NotContains(t, entry, "sextant")
	}
	names := map[string]int{}
	for _, entry := range env {
		name, _, _ := strings.Cut(entry, "=")
		names[name]++
		assert.Equal(t, 1, names[name], name)
	}
	b := Build{Source: "/p/a.c", Language: l}
	assert.Contains(t, b.buildReads(), "/ice/include")
	assert.NotContains(t, b.buildReads(), "/p", "it does not ask for the source's folder")
}

func TestAToolMaySayWhereItIsInstalled(t *testing.T) {
	home := homeWith(t)
	root := filepath.Join(home, "toolchains", "ice-7")
	write := func(path, text string) {
		require.NoError(t, os.MkdirAll(filepath.Dir(path), 0o755))
		require.NoError(t, os.WriteFile(path, []byte("#!/bin/sh\n"+text+"\n"), 0o755))
	}
	write(filepath.Join(root, "bin", "icec"), "echo icec 7.1")
	shim := filepath.Join(home, "shims", "icec")
	write(shim, "echo "+root)
	got, err := ask(t.Context(), shim, Tool{Locate: []string{"--root"}})
	require.NoError(t, err)
	assert.Equal(t, found{Path: filepath.Join(root, "bin", "icec"), Version: "icec 7.1"}, got)
	write(shim, "echo /not/there")
	_, err = ask(t.Context(), shim, Tool{Locate: []string{"--root"}})
	assert.ErrorContains(t, err, "no executable file")
}

func TestACacheIsTheUsersAlone(t *testing.T) {
	dir := filepath.Join(t.TempDir(), "cache")
	kit, err := Open(dir, nil)
	require.NoError(t, err)
	kit.Close()
	info, err := os.Stat(dir)
	require.NoError(t, err)
	assert.Equal(t, os.FileMode(0o700), info.Mode().Perm())
	require.NoError(t, os.Chmod(dir, 0o770))
	_, err = Open(dir, nil)
	assert.ErrorContains(t, err, "others can change the build cache "+dir+"; run 'chmod go-w")
	require.NoError(t, os.Chmod(dir, 0o755))
	kit, err = Open(dir, nil)
	require.NoError(t, err, "that others can read is no harm")
	kit.Close()
	if os.Geteuid() == 0 {
		require.NoError(t, os.Chown(dir, 61234, 61234))
		_, err = Open(dir, nil)
		assert.ErrorContains(t, err, "belongs to another user")
	}
	file := filepath.Join(t.TempDir(), "file")
	require.NoError(t, os.WriteFile(file, nil, 0o600))
	_, err = Open(file, nil)
	assert.ErrorContains(t, err, "cannot use the build cache")
}

func TestACompilerThatFindsNoRoomIsAFaultAndNoErrorOfTheSource(t *testing.T) {
	b := newBench(t)
	testenv.Need(t, "python3")
	path := b.write(t, "a.py", "print(3)\n")
	gone := failingRunner{before: func(dir string) { require.NoError(t, os.RemoveAll(dir)) }}
	for _, failing := range []failingRunner{
		gone, {says: "/usr/bin/ld: final link failed: No space left on device"}, {says: "write cells.o: Disk quota exceeded"}, {says: "Fatal: Disk Full"},
	} {
		_, err := b.kit.Build(t.Context(), failing, Source{Path: path})
		assert.ErrorContains(t, err, "cannot use the build cache", failing.says)
		assert.ErrorContains(t, err, "make room, or set XDG_CACHE_HOME", failing.says)
	}
	build, err := b.kit.Build(t.Context(), failingRunner{says: "line 1: no room for a tent"}, Source{Path: path})
	require.NoError(t, err)
	assert.True(t, build.Failed)
}

func TestEachOfTheseBuildsSeesItsLanguageOnly(t *testing.T) {
	b := newBench(t)
	testenv.Need(t, "python3")
	recorded := &recorder{runner: b.builder}
	path := b.write(t, "a.py", "print(3)\n")
	build, err := b.kit.Build(t.Context(), recorded, Source{Path: path})
	require.NoError(t, err)
	require.False(t, build.Failed, build.Log)
	require.NotEmpty(t, recorded.runs)
	for _, r := range recorded.runs {
		assert.NotContains(t, r.Program.Reads, b.dir)
		assert.NotContains(t, r.Program.Reads, b.kit.dir)
		assert.Equal(t, []string{filepath.Join(b.kit.dir, "own", "python")}, r.Program.Writes)
		assert.True(t, strings.HasPrefix(r.Dir, filepath.Join(b.kit.dir, stageName)))
	}
	p := build.Program(verdict.Limits{Memory: 256 << 20}, nil)
	assert.Contains(t, p.Reads, build.Dir)
	assert.False(t, slices.ContainsFunc(p.Reads, func(path string) bool { return box.Within(b.kit.dir, path) || box.Within(b.dir, path) }), fmt.Sprint(p.Reads))
	assert.Empty(t, p.Writes)
}

// A failingRunner does something to the folder that a command works in, and says that
// the command failed, and what that said.
type failingRunner struct {
	before func(dir string)
	says   string
}

func (f failingRunner) Run(_ context.Context, r box.Run) (box.Result, error) {
	if f.before != nil {
		f.before(r.Dir)
	}
	io.WriteString(r.Errors, f.says)
	return box.Result{Ending: box.Exited, ExitCode: 1}, nil
}

// A recorder notes what it runs.
type recorder struct {
	runner Runner
	runs   []box.Run
}

func (r *recorder) Run(ctx context.Context, run box.Run) (box.Result, error) {
	r.runs = append(r.runs, run)
	return r.runner.Run(ctx, run)
}
