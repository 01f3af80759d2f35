package toolchain

import (
	"errors"
	"os"
	"path/filepath"
	"strings"
	"testing"
	"time"

	"coldverdict/core/box"
	"coldverdict/core/verdict"
	"coldverdict/internal/testenv"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestMain(m *testing.M) { testenv.Main(m, box.Supervise) }

type bench struct {
	kit     *Kit
	builder *box.Box
	box     *box.Box // contains, as that of a judge does
	dir     string
}

func newBench(t testing.TB) *bench {
	kit, err := Open(filepath.Join(t.TempDir(), "cache"), nil)
	require.NoError(t, err)
	t.Cleanup(kit.Close)
	b := &bench{kit: kit, dir: t.TempDir()}
	b.builder = openBox(t, box.Options{Scratch: t.TempDir(), Coarse: true})
	b.box = openBox(t, box.Options{Scratch: t.TempDir(), Hidden: []string{b.dir}})
	return b
}

func openBox(t testing.TB, o box.Options) *box.Box {
	b, err := box.Open(o)
	require.NoError(t, err)
	t.Cleanup(func() { assert.NoError(t, b.Close()) })
	return b
}

func (b *bench) write(t testing.TB, name, text string) string {
	path := filepath.Join(b.dir, name)
	require.NoError(t, os.WriteFile(path, []byte(text), 0o644))
	return path
}

func (b *bench) build(t testing.TB, name, text, language string) Build {
	build, err := b.kit.Build(t.Context(), b.builder, Source{Path: b.write(t, name, text), Language: language})
	require.NoError(t, err)
	return build
}

var roomy = verdict.Limits{Time: 20 * time.Second, Wall: 40 * time.Second, Memory: 256 << 20, Output: 1 << 20, Processes: 500}

// print runs a build and returns what it prints.
func (b *bench) print(t testing.TB, build Build, args ...string) string {
	require.False(t, build.Failed, build.Log)
	out, errs := &box.Head{Most: 1000}, &box.Head{Most: 1000}
	result, err := b.box.Run(t.Context(), box.Run{Program: build.Program(roomy, args), Limits: roomy, Output: out, Errors: errs})
	require.NoError(t, err)
	require.Zero(t, result.ExitCode, string(errs.Text))
	return string(out.Text)
}

// hello prints 42 in each language, under a file name that is not the one a
// compiler might insist on.
var hello = map[string]struct{ name, text, broken string }{
	"c":          {"a.c", "#include <stdio.h>\n#include <math.h>\nint main(int n,char**v){printf(\"%d\\n\",(int)sqrt(41.0+n)*7);}\n", "int main({\n"},
	"cpp":        {"a b.cpp", "#include <iostream>\n#include <ranges>\nint main(){std::cout<<42<<std::endl;}\n", "int main({\n"},
	"python":     {"a.py", "print(42)\n", "def f(:\n"},
	"java":       {"upload.java", "public class Deep { record R(int n) {} public static void main(String[] a) { System.out.println(new R(42).n()); } }\n", "class X {\n"},
	"javascript": {"a.js", "console.log(42)\n", "function (\n"},
	"go":         {"a.go", "package main\n\nimport \"fmt\"\n\nfunc main() { fmt.Println(42) }\n", "package main\n\nfunc main() { x }\n"},
}

func TestLanguagesBuildRunAndRefuse(t *testing.T) {
	b := newBench(t)
	for name, h := range hello {
		t.Run(name, func(t *testing.T) {
			l, _ := Ours().Find(name)
			needLanguage(t, b.kit, l)
			testenv.SweepUnlessQuick(t, h.name)
			build := b.build(t, h.name, h.text, "")
			assert.False(t, build.Cached)
			assert.Equal(t, "42\n", b.print(t, build))
			assert.NotEmpty(t, build.Tool)
			again := b.build(t, h.name, h.text, "")
			assert.True(t, again.Cached, "a second time nothing is built")
			assert.Equal(t, build.Command, again.Command)
			assert.Equal(t, "42\n", b.print(t, again))

			broken := b.build(t, "broken"+filepath.Ext(h.name), h.broken, "")
			assert.True(t, broken.Failed)
			assert.Contains(t, broken.Log, "broken"+filepath.Ext(h.name), "the message names the person's file")
			assert.NotContains(t, broken.Log, b.kit.dir, "and not the place where it was built")
		})
	}
}

// needLanguage skips a test for which a language is missing; in CI that is a
// failure.
func needLanguage(t *testing.T, kit *Kit, l *Language) {
	if missing := kit.survey(t.Context(), l).Missing; missing != nil {
		testenv.Missing(t, missing)
	}
}

func TestEveryStartingSourceBuildsAndReads(t *testing.T) {
	b := newBench(t)
	for _, l := range b.kit.languages.list {
		t.Run(l.Name, func(t *testing.T) {
			needLanguage(t, b.kit, l)
			file, source, err := b.kit.languages.Start(l, "ice cores", ReadsNumbers)
			require.NoError(t, err)
			testenv.SweepUnlessQuick(t, file)
			assert.True(t, b.kit.languages.IsSource(file), file)
			b.write(t, file, string(source))
			for _, checked := range []bool{false, true} {
				if checked && !l.HasChecked() {
					continue
				}
				build, err := b.kit.Build(t.Context(), b.builder, Source{Path: filepath.Join(b.dir, file), Language: l.Name, Checked: checked})
				require.NoError(t, err)
				require.False(t, build.Failed, build.Log)
				assert.Equal(t, checked, build.Checked)
				input, err := box.Memory([]byte("3\n10 -20 30\n"))
				require.NoError(t, err)
				defer input.Close()
				out, errs := &box.Head{Most: 100}, &box.Head{Most: 1000}
				_, err = b.box.Run(t.Context(), box.Run{Program: build.Program(roomy, nil), Limits: roomy, Input: input, Output: out, Errors: errs})
				require.NoError(t, err)
				assert.Equal(t, "3\n", string(out.Text), string(errs.Text))
				assert.Empty(t, string(errs.Text))
			}
		})
	}
}

func TestEveryStartingSourceOfLinesReadsThem(t *testing.T) {
	b := newBench(t)
	for _, l := range b.kit.languages.list {
		t.Run(l.Name, func(t *testing.T) {
			needLanguage(t, b.kit, l)
			file, source, err := b.kit.languages.Start(l, "ice cores", ReadsLines)
			require.NoError(t, err)
			testenv.SweepUnlessQuick(t, file)
			b.write(t, file, string(source))
			build, err := b.kit.Build(t.Context(), b.builder, Source{Path: filepath.Join(b.dir, file), Language: l.Name})
			require.NoError(t, err)
			require.False(t, build.Failed, build.Log)
			for text, want := range map[string]string{"tern gull\n\n fulmar\n": "3\n", "tern\ngull": "2\n"} {
				input, err := box.Memory([]byte(text))
				require.NoError(t, err)
				out, errs := &box.Head{Most: 100}, &box.Head{Most: 1000}
				_, err = b.box.Run(t.Context(), box.Run{Program: build.Program(roomy, nil), Limits: roomy, Input: input, Output: out, Errors: errs})
				input.Close()
				require.NoError(t, err)
				assert.Equal(t, want, string(out.Text), "%q %s", text, errs.Text)
			}
		})
	}
}

func TestArgumentsReachTheProgram(t *testing.T) {
	testenv.Need(t, "python3")
	b := newBench(t)
	build := b.build(t, "a.py", "import sys\nprint(sys.argv[1:])\n", "")
	assert.Equal(t, "['second', 'a b']\n", b.print(t, build, "second", "a b"))
}

func TestTheClassWithAMainMethodIsFound(t *testing.T) {
	testenv.Need(t, "javac", "java")
	b := newBench(t)
	build := b.build(t, "a.java", "package ice;\nclass Helper { void main() {} }\nclass Start { public static void main(String[] a) { System.out.println(42); } }\n", "")
	assert.Equal(t, "42\n", b.print(t, build))
}

func TestAMissingToolIsToldWithWhatToInstall(t *testing.T) {
	b := newBench(t)
	t.Setenv("PATH", t.TempDir())
	_, err := b.kit.Build(t.Context(), b.builder, Source{Path: b.write(t, "a.cpp", "")})
	var missing *MissingError
	require.True(t, errors.As(err, &missing))
	assert.EqualError(t, err, "C++ cannot be run: no g++ on this machine; install it (Debian: apt install g++)")
}

func TestAnUpgradedToolIsAskedAgain(t *testing.T) {
	b := newBench(t)
	bin := t.TempDir()
	tool := filepath.Join(bin, "python3")
	version := func(v string) {
		script := "#!/bin/sh\necho " + tool + "\necho Python " + v + "\n"
		require.NoError(t, os.WriteFile(tool, []byte(script), 0o755))
	}
	t.Setenv("PATH", bin+":"+os.Getenv("PATH"))
	python, _ := Ours().Find("python")
	for _, v := range []string{"3.1", "3.14"} {
		version(v)
		f, err := b.kit.locate(t.Context(), python, python.Runtime)
		require.NoError(t, err)
		assert.Equal(t, "Python "+v, f.Version)
	}
	// An installer may give an upgraded file the size and time of the old one.
	info, err := os.Stat(tool)
	require.NoError(t, err)
	version("3.15")
	require.NoError(t, os.Chtimes(tool, info.ModTime(), info.ModTime()))
	f, err := b.kit.locate(t.Context(), python, python.Runtime)
	require.NoError(t, err)
	assert.Equal(t, "Python 3.15", f.Version)
	require.NoError(t, os.WriteFile(tool, []byte("#!/bin/sh\necho broken >&2\nexit 3\n"), 0o755))
	_, err = b.kit.locate(t.Context(), python, python.Runtime)
	assert.ErrorContains(t, err, "does not work")
	assert.ErrorContains(t, err, "broken")
}

func TestNamesOfLanguages(t *testing.T) {
	all := Ours()
	for name, want := range map[string]string{"cpp": "cpp20", "cpp17": "cpp17", "c": "c17", "python": "", "cpp17-clang": "cpp17-clang", "rust": "rust2021"} {
		found := all.choices(name)
		require.Len(t, found, 1, name)
		assert.Equal(t, want, found[0].standard)
	}
	_, ok := all.Find("c++")
	assert.False(t, ok)
	assert.True(t, all.IsSource("x.cc") && all.IsSource("Main.java") && !all.IsSource("x.txt") && !all.IsSource("cpp"))
}

func TestRulesForMakeAreRead(t *testing.T) {
	stage := t.TempDir()
	rule := "program: a\\ b.cpp \\\n  ../x/weights.h /usr/local/ice\\ core.h\n"
	require.NoError(t, os.WriteFile(filepath.Join(stage, "includes"), []byte(rule), 0o644))
	l, _ := Ours().Find("cpp")
	got := readIncludes(stage, &Build{Language: l, File: "a b.cpp"})
	assert.Equal(t, []string{filepath.Join(stage, "../x/weights.h"), "/usr/local/ice core.h"}, got)
}

func TestOnlyAFewVariablesReachAProgram(t *testing.T) {
	t.Setenv("COLD_SECRET", "x")
	for _, entry := range environment() {
		assert.False(t, strings.HasPrefix(entry, "COLD_SECRET"))
	}
	assert.Contains(t, strings.Join(environment(), "\n"), "PATH=")
}

func TestTheCallersLocaleDecidesNothing(t *testing.T) {
	t.Setenv("LC_ALL", "C")
	t.Setenv("LANG", "de_AT")
	t.Setenv("LC_CTYPE", "POSIX")
	b := newBench(t)
	for name, h := range map[string]struct{ file, text string }{
		"bash":    {"a.sh", "x=é; echo ${#x}\n"},
		"python":  {"a.py", "print(len(open('/dev/stdin').read() or 'é'))\n"},
		"ruby":    {"a.rb", "puts 'é'.dup.force_encoding(Encoding.default_external).length\n"},
		"haskell": {"a.hs", "main = do { s <- getContents; putStrLn (if null s then \"é\" else s); print (length \"é\") }\n"},
		"kotlin":  {"a.kt", "fun main() { print(\"é\".length); print(java.nio.charset.Charset.defaultCharset()) }\n"},
	} {
		t.Run(name, func(t *testing.T) {
			l, _ := Ours().Find(name)
			needLanguage(t, b.kit, l)
			testenv.SweepUnlessQuick(t, h.file)
			want := map[string]string{"haskell": "é\n1\n", "kotlin": "1UTF-8"}[name]
			if want == "" {
				want = "1\n"
			}
			assert.Equal(t, want, b.print(t, b.build(t, h.file, h.text, "")))
		})
	}
}
