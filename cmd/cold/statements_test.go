//go:build linux

package main

import (
	"os"
	"path/filepath"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"coldverdict/internal/testenv"
)

const (
	sledgePage   = "<h1>----Day 1: Tidal bells----</h1><p>Time limit: 2 seconds (Java: twice)</p><p>An absolute error of 10<sup>-4</sup> is allowed. Print any of them.</p><h2>Sample Input</h2><pre>9 5\n6 3 4 7 2\n</pre><h2>Sample Output</h2><pre>2\n</pre>"
	shortPage    = "<h2>Sample Input</h2><pre>5\n6 3 4 7\n</pre><h2>Sample Output</h2><pre>2\n</pre>"
	roundPage    = "<h1>Winter round</h1><h2>A. Sledges</h2><h3>Sample Input</h3><pre>1</pre><h3>Sample Output</h3><pre>2</pre><h2>B. Lamps</h2><h3>Sample Input</h3><pre>3</pre><h3>Sample Output</h3><pre>on</pre>"
	functionPage = "<h1>Two winds</h1><pre>class Solution {\n    public int[] twoWinds(int[] winds, int total) {\n    }\n}</pre><p><strong>Example 1:</strong></p><pre><strong>Input:</strong> winds = [3,3], total = 6\n<strong>Output:</strong> [0,1]\n</pre><p><strong>Example 2:</strong></p><pre><strong>Input:</strong> winds = [3], total = 'x'\n<strong>Output:</strong> [0]\n</pre>"
)

// alone is a session with no settings but its own.
func alone(t *testing.T, files map[string]string) (s session, config string) {
	s = folder(t, files)
	config = filepath.Join(t.TempDir(), "cold-verdict")
	require.NoError(t, os.MkdirAll(filepath.Join(config, "templates"), 0o755))
	s.env = append(s.env, "XDG_CONFIG_HOME="+filepath.Dir(config), "XDG_CACHE_HOME="+t.TempDir(), "EDITOR=", "VISUAL=", "NO_COLOR=")
	return s, config
}

func TestASavedPageIsAProblemNamedAfterWhatWasTyped(t *testing.T) {
	s, _ := alone(t, map[string]string{"page.html": sledgePage})
	got := s.run(t, "open", "docks", "--from", "page.html", "--lang", "cpp17", "--lang", "ruby")
	require.Equal(t, 0, got.status, got.errors)
	for _, words := range []string{"made docks/docks.cpp", "made docks/docks.rb", "input, line 1, 2 lines, 14 B", "2  6 3 4 7 2", "time limit 4s for java", "an absolute error of 1e-4 is allowed", "perhaps a checker is needed"} {
		assert.Contains(t, got.out, words)
	}
	config := read(t, s, "docks/verdict.toml")
	for _, words := range []string{"[limits.java]\ntime = \"4s\"", "mode = \"numbers\"", "absolute = 1e-4", "file     = \"docks.cpp\"\nlanguage = \"cpp17\""} {
		assert.Contains(t, config, words)
	}
	assert.Equal(t, 0, s.run(t, "-C", "docks", "case", "list").status)
	got = s.run(t, "open", "docks", "--from", "page.html")
	assert.Contains(t, got.out, "the sample of line 1 is among the cases already", "a folder that is there gets what it lacks")
	assert.Equal(t, config, read(t, s, "docks/verdict.toml"))
}

func TestADoubtfulSampleSaysSoUntilSomebodyIsSure(t *testing.T) {
	testenv.Need(t, "bash")
	s, _ := alone(t, nil)
	s.input = shortPage
	got := s.run(t, "open", "docks", "--from", "-")
	require.Equal(t, 0, got.status, got.errors)
	assert.Contains(t, got.out, "doubtful its input, line 1: its first line says 5")
	assert.Contains(t, got.out, "1 sample taken with doubt")
	assert.Contains(t, read(t, s, "docks/cases.md"), "```output unsure\n2\n```")
	require.NoError(t, os.WriteFile(filepath.Join(s.dir, "docks/docks.sh"), []byte("echo 3\n"), 0o644))
	warning := "this sample was taken with doubt from standard input, line 1; check it against the statement"
	assert.Contains(t, flat(s.run(t, "-C", "docks", "try").out), warning)
	assert.Contains(t, s.run(t, "-C", "docks", "case", "list").out, "doubtful")
	before := read(t, s, "docks/cases.md")
	edited := s
	pen := filepath.Join(t.TempDir(), "pen")
	require.NoError(t, os.WriteFile(pen, []byte("#!/bin/sh\nfor file; do :; done\nsed -i 's/^5$/4/' \"$file\"\n"), 0o755))
	edited.env = append(edited.env, "VISUAL="+pen)
	assert.Contains(t, edited.run(t, "-C", "docks", "case", "edit", "samples/1").out, "samples/1 is no longer doubtful", "who edits it has looked at it")
	assert.Contains(t, read(t, s, "docks/cases.md"), "```input\n4\n6 3 4 7\n```\n\n```output\n2\n```")
	require.NoError(t, os.WriteFile(filepath.Join(s.dir, "docks/cases.md"), []byte(before), 0o644))
	assert.Contains(t, s.run(t, "-C", "docks", "case", "sure", "samples/1").out, "samples/1 is no longer doubtful in cases.md")
	assert.NotContains(t, flat(s.run(t, "-C", "docks", "try").out), "this sample was taken with doubt")
	assert.Equal(t, 64, s.run(t, "-C", "docks", "case", "sure", "samples/1").status)
	require.NoError(t, os.WriteFile(filepath.Join(s.dir, "docks/docks.sh"), []byte("echo 2\n"), 0o644))
	assert.Equal(t, 0, s.run(t, "-C", "docks", "try").status)
}

func TestAPageWithSeveralProblemsIsAskedWhich(t *testing.T) {
	s, _ := alone(t, map[string]string{"round.html": roundPage})
	got := s.run(t, "open", "A", "B", "--from", "round.html", "--lang", "python")
	require.Equal(t, 0, got.status, got.errors)
	assert.Contains(t, read(t, s, "A/cases.md"), "```input\n1\n```")
	assert.Contains(t, read(t, s, "B/cases.md"), "```output\non\n```")
	assert.FileExists(t, filepath.Join(s.dir, "B/B.py"))
	got = s.run(t, "open", "C", "B", "--from", "round.html")
	assert.Equal(t, 64, got.status)
	assert.NoDirExists(t, filepath.Join(s.dir, "C"))
	got = s.run(t, "open", "docks", "--from", "round.html")
	assert.Equal(t, 64, got.status)
	assert.Contains(t, got.errors, "has several problems; say which with --problem")
	assert.NoDirExists(t, filepath.Join(s.dir, "docks"))
	assert.Contains(t, s.run(t, "open", "docks", "--from", "round.html", "--problem", "lamps").out, `title "B. Lamps"`)
	assert.Contains(t, s.run(t, "open", "other", "--from", "round.html", "--problem", "Z").errors, `has no problem "Z"`)

	cmd, master := onTerminal(t, s, 100, "open", "asked", "--from", "round.html")
	require.Contains(t, screen(t, master, "which one? "), "2  B. Lamps (1 sample)")
	_, err := master.WriteString("B\n")
	require.NoError(t, err)
	assert.Contains(t, screen(t, master, ""), "added samples/1 to cases.md")
	assert.NoError(t, cmd.Wait())
	assert.Contains(t, read(t, s, "asked/verdict.toml"), "B. Lamps")
}

func TestAStatementIsPastedAtATerminal(t *testing.T) {
	s, _ := alone(t, nil)
	cmd, master := onTerminal(t, s, 100, "open", "docks", "--paste")
	screen(t, master, "paste the statement")
	_, err := master.WriteString("Docks\n\nSample Input\n1 2\n\nSample Output\n3\n\x04")
	require.NoError(t, err)
	assert.Contains(t, screen(t, master, ""), "added samples/1 to cases.md")
	assert.NoError(t, cmd.Wait())
	assert.Contains(t, read(t, s, "docks/cases.md"), "From the paste, line 4.\n\n```input\n1 2\n```\n\n```output\n3\n```")
	assert.Equal(t, 64, s.run(t, "open", "x", "--paste", "--from", "-").status)
	assert.Contains(t, s.run(t, "open", "x", "--from", "-").errors, "there is nothing in standard input")
}

func TestTheExamplesOfAFunctionBecomeCases(t *testing.T) {
	testenv.Need(t, "python3")
	s, _ := alone(t, map[string]string{"winds.html": functionPage, "bare.txt": "Example\n\nInput: k = 3\nOutput: 6\n"})
	got := s.run(t, "open", "winds", "--from", "winds.html", "--lang", "python")
	require.Equal(t, 0, got.status, got.errors)
	assert.Contains(t, got.out, "the function is twoWinds(winds: int[], total: int) -> int[]")
	assert.Contains(t, got.out, "sample 2 was left out", "what fits no type is told")
	assert.Contains(t, read(t, s, "winds/cases.md"), "```call\nwinds: [3,3]\ntotal: 6\n```\n\n```returns\n[0,1]\n```")
	require.NoError(t, os.WriteFile(filepath.Join(s.dir, "winds/winds.py"), []byte("def two_winds(w, t): return [0, 1]\n"), 0o644))
	assert.Equal(t, 0, s.run(t, "-C", "winds", "try").status)
	got = s.run(t, "open", "bare", "--from", "bare.txt")
	assert.Equal(t, 64, got.status)
	assert.Contains(t, got.errors, "are arguments of a function, and it does not say which; add --call")
	got = s.run(t, "open", "bare", "--from", "bare.txt", "--call", "public static long doubled(int k)", "--lang", "java")
	require.Equal(t, 0, got.status, got.errors)
	assert.Contains(t, got.out, "the function is doubled(k: int) -> long")
	assert.Contains(t, read(t, s, "bare/Bare.java"), "long doubled(int k)")
}

func TestSettingsOfOnesOwnCountForAllProblems(t *testing.T) {
	testenv.Need(t, "gcc", "g++")
	s, config := alone(t, map[string]string{"1.in": "1\n", "1.out": "1\n", "a.cpp": "#include <cstdio>\nint main() {\n#ifdef LOCAL\n    puts(\"1\");\n#endif\n}\n"})
	write := func(name, text string) {
		require.NoError(t, os.WriteFile(filepath.Join(config, name), []byte(text), 0o644))
	}
	write("settings.toml", "language = \"ruby\"\njobs = 1\neditor = \"true\"\n[flags]\ncpp = [\"-DLOCAL\"]\n[compare]\nabsolute = 0.5\n")
	got := s.run(t, "host", "--settings")
	require.Equal(t, 0, got.status, got.errors)
	for _, line := range []string{`language +ruby +\S+settings.toml:1`, `jobs +1 +\S+settings.toml:2`, `editor +true +\S+settings.toml:3`, `colour +auto +default`, `flags.cpp +-DLOCAL +\S+settings.toml:5`, `compare.absolute +0.5 +\S+settings.toml:7`} {
		assert.Regexp(t, line, got.out)
	}
	assert.Equal(t, 0, s.run(t, "try").status, "with the flag")
	assert.Equal(t, 1, s.run(t, "ready").status, "what is handed in is built without it")
	assert.Contains(t, s.run(t, "open", "next").out, "made next/next.rb")
	require.NoError(t, os.WriteFile(filepath.Join(s.dir, "next/verdict.toml"), []byte("[compare]\nmode = \"numbers\"\n"), 0o644))
	require.NoError(t, os.WriteFile(filepath.Join(s.dir, "next/cases.md"), []byte("## a\n```input\n1\n```\n```output\n1.4\n```\n"), 0o644))
	require.NoError(t, os.WriteFile(filepath.Join(s.dir, "next/b.c"), []byte("#include <stdio.h>\nint main(void) { puts(\"1\"); }\n"), 0o644))
	assert.Equal(t, 0, s.run(t, "-C", "next", "try", "b.c").status, "the tolerance of the settings")
	write("settings.toml", "jobs = 0\nlanguage = \"rubby\"\n")
	got = s.run(t, "try")
	assert.Equal(t, 64, got.status)
	assert.Contains(t, got.errors, "settings.toml:1: jobs is 0; it can be 1 to 256")
	assert.Contains(t, got.errors, "did you mean \"ruby\"?")
	write("settings.toml", "[flags]\nruby = [\"-w\"]\n")
	assert.Contains(t, s.run(t, "try").errors, "no compiler builds ruby, so that there are no flags")
}

func TestALanguageOfOnesOwnBeginsWithATemplateOfOnesOwn(t *testing.T) {
	s, config := alone(t, nil)
	require.NoError(t, os.WriteFile(filepath.Join(config, "languages.toml"), []byte("[language.tern]\ntitle = \"Tern\"\nextensions = [\".tern\"]\nruntime = { command = \"python3\", name = \"Tern\" }\nrun = \"{runtime} {build}/{source}\"\n"), 0o644))
	assert.Contains(t, s.run(t, "open", "ice", "--lang", "tern").errors, "put a template of your own into")
	require.NoError(t, os.WriteFile(filepath.Join(config, "templates/tern.tern"), []byte("print('{{title}}')\n"), 0o644))
	require.Equal(t, 0, s.run(t, "open", "ice", "--lang", "tern").status)
	assert.Equal(t, "print('ice')\n", read(t, s, "ice/ice.tern"))
	require.Equal(t, 0, s.run(t, "open", "rows", "--lang", "python", "--reads", "lines").status)
	assert.Contains(t, read(t, s, "rows/rows.py"), "splitlines()")
	assert.Contains(t, s.run(t, "open", "rows", "--reads", "words").errors, "it can be numbers or lines")
}

func TestSourcesPlayThePartsThatTheirNamesSay(t *testing.T) {
	testenv.Need(t, "bash")
	s, _ := alone(t, map[string]string{
		"docks/docks.sh": "read a\necho $a\n", "docks/brute.sh": "read a\necho $((a))\n", "docks/gen.sh": "echo 1\n", "docks/checker.sh": "echo ok\n",
		"docks/1.in": "1\n", "docks/1.out": "1\n", "docks/input.shape": "a: int 1..9\n",
	})
	for _, args := range [][]string{{"try", "docks"}, {"try", "docks/docks.sh"}, {"-C", "docks", "try", "docks"}, {"-C", "docks", "try"}} {
		got := s.run(t, args...)
		assert.Equal(t, 0, got.status, "%v: %s", args, got.errors)
		assert.Contains(t, got.out, "docks.sh", args)
	}
	got := s.run(t, "cross", "docks", "--count", "5", "--seed", "1")
	assert.Equal(t, 0, got.status, got.errors)
	assert.Contains(t, got.errors, "brute.sh serves as the reference, by its name")
	assert.Contains(t, s.run(t, "-C", "docks", "try", "--every-solution").errors, "names no [[solution]]")
	require.NoError(t, os.WriteFile(filepath.Join(s.dir, "docks/other.sh"), []byte("read a\necho $((a + a / 9))\n"), 0o644))
	got = s.run(t, "-C", "docks", "try", "docks.sh", "--edges", "--against", "other.sh")
	assert.Equal(t, 1, got.status, "%s%s", got.out, got.errors)
	assert.Equal(t, 64, s.run(t, "-C", "docks", "try", "--against", "other.sh").status)
	require.NoError(t, os.Remove(filepath.Join(s.dir, "docks/docks.sh")))
	require.NoError(t, os.Remove(filepath.Join(s.dir, "docks/other.sh")))
	got = s.run(t, "-C", "docks", "try")
	assert.Equal(t, 64, got.status)
	assert.Contains(t, got.errors, "by their names, these have other parts: brute.sh, checker.sh, gen.sh")
}

func TestDataIsImportedByPatternsOfOnesOwn(t *testing.T) {
	s, _ := alone(t, map[string]string{"a.sh": "read a\necho $a\n", "daten/eingabe1.txt": "1\n", "daten/ausgabe1.txt": "1\n", "daten/eingabe2.txt": "2\n"})
	got := s.run(t, "case", "import", "daten", "--inputs", "eingabe*.txt", "--outputs", "ausgabe*.txt", "--unjudged", "--yes")
	require.Equal(t, 0, got.status, got.errors)
	assert.Contains(t, got.out, "copied 2 cases")
	assert.Equal(t, "1\n", read(t, s, "cases/1.out"))
	assert.NoFileExists(t, filepath.Join(s.dir, "cases/2.out"))
	assert.Contains(t, s.run(t, "case", "import", "daten", "--inputs", "eingabe*.txt").errors, "say with --outputs how outputs are")
	assert.Contains(t, s.run(t, "case", "import", "daten", "--inputs", "eingabe", "--outputs", "a*").errors, "write * for what")
}

// flat is a text without its line ends, as it was before it was wrapped.
func flat(text string) string { return strings.Join(strings.Fields(text), " ") }
