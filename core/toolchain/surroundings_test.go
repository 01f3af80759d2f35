package toolchain

import (
	"fmt"
	"os"
	"os/exec"
	"path/filepath"
	"testing"

	"coldverdict/internal/testenv"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// Wherever a compiler finds a header: another text in it, one that is found before it, and the
// end of that one are other builds.
func TestABuildFollowsWhatIsSearched(t *testing.T) {
	testenv.Need(t, "gcc", "ar")
	// Below the home folder, since a sandbox has a folder for temporary files of its own.
	home, err := os.UserHomeDir()
	require.NoError(t, err)
	const own = "[language.frost]\nlike = \"c\"\nextensions = [\".frost\"]\nsees = [%q]\n" +
		"build = \"{compiler} -x c -MD -MF includes -iquote {folder} -I %s -I %s -o program {source}\"\n"
	const silent = "[language.frost]\nlike = \"c\"\nextensions = [\".frost\"]\nsees = [%q]\nincludes = \"\"\n" +
		"build = \"{compiler} -x c -I %s -I %s -o program {source}\"\n"
	for _, tt := range []struct {
		name, file, variable, entry, include string
	}{
		{"CPATH", "a.c", "CPATH", "", "<frost.h>"},
		{"C_INCLUDE_PATH", "a.c", "C_INCLUDE_PATH", "", "<frost.h>"},
		{"a folder in it", "a.c", "C_INCLUDE_PATH", "", "<deep/ice/frost.h>"},
		{"an -I of one's own", "a.frost", "", own, "\"frost.h\""},
		{"a compiler that does not say what it reads", "a.frost", "", silent, "<frost.h>"},
	} {
		t.Run(tt.name, func(t *testing.T) {
			b := newBench(t)
			dir, err := os.MkdirTemp(home, "hoarfrost-")
			require.NoError(t, err)
			defer os.RemoveAll(dir)
			first, second := filepath.Join(dir, "first"), filepath.Join(dir, "second")
			for _, one := range []string{first, second} {
				require.NoError(t, os.MkdirAll(filepath.Join(one, "deep", "ice"), 0o755))
			}
			if tt.variable != "" {
				t.Setenv(tt.variable, first+":"+second)
			}
			if tt.entry != "" {
				b.kit.languages = tableOf(t, fmt.Sprintf(tt.entry, dir, first, second))
			}
			name := filepath.Clean(tt.include[1 : len(tt.include)-1])
			define := func(folder string, value int) {
				require.NoError(t, os.WriteFile(filepath.Join(folder, name), fmt.Appendf(nil, "#define FROST %d\n", value), 0o644))
			}
			want := func(value int, why string) {
				text := "#include <stdio.h>\n#include " + tt.include + "\nint main(void){printf(\"%d\\n\",FROST);}\n"
				assert.Equal(t, fmt.Sprintln(value), b.print(t, b.build(t, tt.file, text, "")), why)
			}
			define(second, 1)
			want(1, "the first build")
			define(second, 20)
			want(20, "another text")
			define(first, 300)
			want(300, "another header is found first")
			require.NoError(t, os.Remove(filepath.Join(first, name)))
			want(20, "it is gone again")
		})
	}
	t.Run("a folder beside the source", func(t *testing.T) {
		b := newBench(t)
		const text = "#include \"sys/frost.h\"\n#include <stdio.h>\nint main(void){printf(\"%d\\n\",FROST);}\n"
		t.Setenv("CPATH", filepath.Join(b.dir, "lib"))
		for i, folder := range []string{"lib", "."} {
			require.NoError(t, os.MkdirAll(filepath.Join(b.dir, folder, "sys"), 0o755))
			b.write(t, filepath.Join(folder, "sys", "frost.h"), fmt.Sprintf("#define FROST %d\n", i))
			assert.Equal(t, fmt.Sprintln(i), b.print(t, b.build(t, "a.c", text, "")))
		}
	})
	t.Run("a library", func(t *testing.T) {
		b := newBench(t)
		dir, err := os.MkdirTemp(home, "hoarfrost-")
		require.NoError(t, err)
		defer os.RemoveAll(dir)
		t.Setenv("LIBRARY_PATH", dir)
		b.kit.languages = tableOf(t, "[language.frost]\nlike = \"c\"\nextensions = [\".frost\"]\nbuild = \"{compiler} -x c -static -MD -MF includes -o program {source} -lfrost\"\n")
		for value := 1; value <= 20; value += 19 {
			require.NoError(t, os.WriteFile(filepath.Join(dir, "f.c"), fmt.Appendf(nil, "int frost(void){return %d;}\n", value), 0o644))
			cmd := exec.Command("sh", "-c", "gcc -c f.c && ar rc libfrost.a f.o")
			cmd.Dir = dir
			out, err := cmd.CombinedOutput()
			require.NoError(t, err, string(out))
			assert.Equal(t, fmt.Sprintln(value), b.print(t, b.build(t, "a.frost", "int printf(const char *, ...); int frost(void);\nint main(void){printf(\"%d\\n\",frost());}\n", "")))
		}
	})
}
