package toolchain

import (
	"context"
	"fmt"
	"os"
	"path/filepath"
	"strconv"
	"sync"
	"sync/atomic"
	"testing"
	"time"

	"coldverdict/core/box"
	"coldverdict/internal/testenv"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestABuildIsNeverStale(t *testing.T) {
	testenv.Need(t, "g++")
	b := newBench(t)
	const source = "#include <cstdio>\n#include \"weights.h\"\nint main(){printf(\"%d\\n\",WEIGHT);}\n"
	b.write(t, "weights.h", "#include \"more.h\"\n")
	b.write(t, "more.h", "#define WEIGHT 7\n")
	assert.Equal(t, "7\n", b.print(t, b.build(t, "a.cpp", source, "")))
	b.write(t, "more.h", "#define WEIGHT 8\n")
	edited := b.build(t, "a.cpp", source, "")
	assert.False(t, edited.Cached, "a header further down was edited")
	assert.Equal(t, "8\n", b.print(t, edited))
	b.write(t, "more.h", "#define WEIGHT 7\n")
	assert.True(t, b.build(t, "a.cpp", source, "").Cached, "the first build is still there")

	other := b.build(t, "a.cpp", source, "cpp17")
	assert.False(t, other.Cached, "another standard")
	assert.Contains(t, other.Command, "-std=gnu++17")
	require.NoError(t, os.Remove(filepath.Join(b.dir, "more.h")))
	assert.True(t, b.build(t, "a.cpp", source, "").Failed, "a header that is gone")
}

func TestABuildOfWhichAPartWasTakenAwayIsMadeAnew(t *testing.T) {
	testenv.Need(t, "gcc")
	const source = "#include <stdio.h>\nint main(void){printf(\"42\\n\");}\n"
	for name, take := range map[string]func(dir string) error{
		"the record":       func(dir string) error { return os.Remove(filepath.Join(dir, recordFile)) },
		"half a record":    func(dir string) error { return os.Truncate(filepath.Join(dir, recordFile), 9) },
		"the program":      func(dir string) error { return os.Remove(filepath.Join(dir, "program")) },
		"half the program": func(dir string) error { return os.Truncate(filepath.Join(dir, "program"), 4000) },
		"all":              os.RemoveAll,
	} {
		t.Run(name, func(t *testing.T) {
			b := newBench(t)
			built := b.build(t, "a.c", source, "")
			require.NoError(t, take(built.Dir))
			again := b.build(t, "a.c", source, "")
			assert.False(t, again.Cached)
			assert.Equal(t, "42\n", b.print(t, again))
			assert.True(t, b.build(t, "a.c", source, "").Cached)
		})
	}
}

func TestAHeaderThatAppearsIsSeen(t *testing.T) {
	testenv.Need(t, "g++")
	b := newBench(t)
	const source = "#include <cstdio>\n#if __has_include(\"weights.h\")\n#include \"weights.h\"\n#else\n#define WEIGHT 1\n#endif\nint main(){printf(\"%d\\n\",WEIGHT);}\n"
	assert.Equal(t, "1\n", b.print(t, b.build(t, "a.cpp", source, "")))
	b.write(t, "weights.h", "#define WEIGHT 7\n")
	assert.Equal(t, "7\n", b.print(t, b.build(t, "a.cpp", source, "")))
}

func TestTouchingASourceBuildsNothing(t *testing.T) {
	testenv.Need(t, "gcc")
	b := newBench(t)
	b.write(t, "a.h", "#define N 42\n")
	const source = "#include <stdio.h>\n#include \"a.h\"\nint main(void){printf(\"%d\\n\",N);}\n"
	b.build(t, "a.c", source, "")
	for _, name := range []string{"a.c", "a.h"} {
		later := time.Now().Add(time.Hour)
		require.NoError(t, os.Chtimes(filepath.Join(b.dir, name), later, later))
	}
	assert.True(t, b.build(t, "a.c", source, "").Cached)
}

// Whoever works in the folder of a source writes other files there all the time.
func TestAnotherFileInTheFolderBuildsNothing(t *testing.T) {
	for name, source := range map[string]struct{ file, text string }{
		"gcc": {"a.c", "int main(void){return 0;}\n"}, "python3": {"a.py", "print(1)\n"}, "rustc": {"a.rs", "fn main() {}\n"},
	} {
		t.Run(source.file, func(t *testing.T) {
			testenv.Need(t, name)
			b := newBench(t)
			t.Chdir(b.dir)
			b.build(t, source.file, source.text, "")
			for _, other := range []string{"notes.txt", "2.in", "b.py", "page.html", "b.cpp"} {
				b.write(t, other, "\n")
			}
			assert.True(t, b.build(t, source.file, source.text, "").Cached)
		})
	}
}

func TestAnotherCompilerOrFlagBuildsAgain(t *testing.T) {
	testenv.Need(t, "sh")
	b := newBench(t)
	bin := t.TempDir()
	t.Setenv("PATH", bin+":"+os.Getenv("PATH"))
	compiler := func(version string) {
		text := fmt.Sprintf("#!/bin/sh\nif [ \"$1\" = --version ]; then echo shoutc %s; else (echo '#!/bin/sh'; echo echo %s \"$@\") > program; chmod +x program; fi\n", version, version)
		require.NoError(t, os.WriteFile(filepath.Join(bin, "shoutc"), []byte(text), 0o755))
	}
	const entry = "[language.shout]\nextensions = [\".shout\"]\nrun = \"{build}/program\"\n"
	flags := func(text string) { b.kit.languages = tableOf(t, entry+"build = \"shoutc "+text+"\"\n") }
	compiler("1.0")
	flags("-a")
	assert.Equal(t, "1.0 -a\n", b.print(t, b.build(t, "a.shout", "", "")))
	assert.True(t, b.build(t, "a.shout", "", "").Cached)
	flags("-b")
	assert.Equal(t, "1.0 -b\n", b.print(t, b.build(t, "a.shout", "", "")), "another flag")
	compiler("2.0")
	upgraded := b.build(t, "a.shout", "", "")
	assert.Equal(t, "shoutc 2.0", upgraded.Tool)
	assert.Equal(t, "2.0 -b\n", b.print(t, upgraded), "another compiler under the same name")
}

func TestTwoAtOnceBuildOnce(t *testing.T) {
	testenv.Need(t, "gcc")
	b := newBench(t)
	path := b.write(t, "a.c", hello["c"].text)
	var group sync.WaitGroup
	var built atomic.Int32
	for range 4 {
		// Each is a program of its own, as far as the cache can tell.
		kit, err := Open(b.kit.dir, nil)
		require.NoError(t, err)
		own, err := box.Open(box.Options{Scratch: t.TempDir(), Uncontained: true})
		require.NoError(t, err)
		t.Cleanup(func() { own.Close(); kit.Close() })
		group.Go(func() {
			build, err := kit.Build(t.Context(), own, Source{Path: path})
			assert.NoError(t, err)
			assert.FileExists(t, filepath.Join(build.Dir, "program"))
			if !build.Cached {
				built.Add(1)
			}
		})
	}
	group.Wait()
	assert.EqualValues(t, 1, built.Load())
	stages, err := filepath.Glob(filepath.Join(b.kit.dir, "stage-*"))
	require.NoError(t, err)
	assert.Empty(t, stages, "nothing half-built is left")
}

func TestTheCacheIsBounded(t *testing.T) {
	testenv.Need(t, "sh")
	b := newBench(t)
	b.kit.languages = tableOf(t, "[language.shout]\nextensions = [\".shout\"]\nrun = \"sh {build}/{source}\"\n")
	source := func(i int) string { return fmt.Sprintf("echo %d\n#%65536s", i, "") }
	const builds = 6
	for i := range builds {
		build := b.build(t, "a.shout", source(i), "")
		at := time.Now().Add(time.Duration(i-builds) * time.Hour)
		require.NoError(t, os.Chtimes(filepath.Join(build.Dir, recordFile), at, at))
		if i > 0 {
			continue
		}
		other, err := Open(b.kit.dir, b.kit.languages)
		require.NoError(t, err)
		t.Cleanup(other.Close)
		require.True(t, other.use(&Build{}, build.Dir), "another program uses the first")
	}
	total, err := os.ReadFile(filepath.Join(b.kit.dir, totalFile))
	require.NoError(t, err)
	assert.Equal(t, strconv.FormatInt(b.kit.prune(1<<30), 10), string(total), "what is noted is what is there")
	left := func() (n int) {
		dirs, err := filepath.Glob(filepath.Join(b.kit.dir, "builds", "*"))
		require.NoError(t, err)
		return len(dirs)
	}
	assert.Equal(t, builds, left(), "there is room for all")
	b.kit.prune(3 << 16)
	assert.Equal(t, builds, left(), "all are in use")
	b.kit.Close()
	b.kit.prune(3 << 16)
	assert.Equal(t, 2, left())
	assert.True(t, b.build(t, "a.shout", source(0), "").Cached, "what another uses stays")
	assert.True(t, b.build(t, "a.shout", source(builds-1), "").Cached, "what was used last stays")
	assert.Equal(t, "1\n", b.print(t, b.build(t, "a.shout", source(1), "")), "what was removed is built again")
}

func TestAnInterruptedWaitForABuildEnds(t *testing.T) {
	b := newBench(t)
	release, err := b.kit.buildAlone(t.Context(), "x")
	require.NoError(t, err)
	ctx, cancel := context.WithTimeout(t.Context(), 20*time.Millisecond)
	defer cancel()
	_, err = b.kit.buildAlone(ctx, "x")
	assert.ErrorIs(t, err, ctx.Err())
	release()
	again, err := b.kit.buildAlone(t.Context(), "x")
	require.NoError(t, err)
	again()
}
