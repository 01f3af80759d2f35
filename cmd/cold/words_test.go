//go:build linux

package main

import (
	"bytes"
	"os"
	"path/filepath"
	"strings"
	"syscall"
	"testing"
	"time"

	"coldverdict/internal/testenv"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestWhatIsNotKnownIsSuggestedByItsMeaningToo(t *testing.T) {
	s := folder(t, map[string]string{"a.py": "print(1)\n", "1.in": "1\n", "1.out": "1\n"})
	for args, words := range map[string]string{
		"check": `did you mean "try"?`, "test": `did you mean "try"?`, "run": `did you mean "try"?`, "tyr": `did you mean "try"?`, "new": `did you mean "open"?`,
		"help compare": `did you mean "cross"?`, "xyzzy": "'cold --help' lists them", "case lst": `did you mean "case list"?`,
		"try --tim 2s": "there is no option --tim; did you mean --time?", "try --watsh": "did you mean --watch?", "try --qqq": "'cold try --help' lists the options",
		"tset": `did you mean "try"?`, "try --mem 3": "did you mean --memory?", "try --timelimit 3s": "did you mean --time?", "try --ram 1": "did you mean --memory?",
		"try --parallel 2": "did you mean --jobs?", "cross --brute a.py": "did you mean --against?", "case refuse 1 --expected 3": "did you mean --answer?",
		"try --lang c++": `did you mean "cpp"?`, "try --lang node": `did you mean "javascript"?`, "try --lang pyton": `did you mean "python"?`,
	} {
		got := s.run(t, strings.Fields(args)...)
		assert.Equal(t, 64, got.status, args)
		assert.Contains(t, got.errors, words, args)
	}
}

func TestAFileForJSONThatCannotBeWrittenIsRefusedBeforeAnythingRuns(t *testing.T) {
	testenv.Need(t, "python3")
	s := folder(t, map[string]string{"a.py": "print(1)\n", "1.in": "1\n", "1.out": "1\n", "old.json": "mine"})
	for name, words := range map[string]string{"nowhere/r.json": "nowhere/r.json: no such file or directory", ".": "it is a folder"} {
		got := s.run(t, "try", "--json", name)
		assert.Equal(t, 64, got.status)
		assert.Empty(t, got.out, "nothing ran")
		assert.Contains(t, got.errors, words)
		assert.NotContains(t, got.errors, ".new-", "a temporary name means nothing to anybody")
	}
	got := s.run(t, "try", "--json", "old.json", "--case", "nothing")
	assert.Equal(t, 64, got.status)
	assert.Equal(t, "mine", read(t, s, "old.json"))
	entries, err := os.ReadDir(s.dir)
	require.NoError(t, err)
	assert.Len(t, entries, 4, "nothing is left")
}

func TestASourceThatDoesNotBuildHasNoPoints(t *testing.T) {
	testenv.Need(t, "gcc", "python3")
	s := folder(t, map[string]string{
		"verdict.toml": "[[group]]\nname = \"cases\"\npoints = 40\n", "a.py": "print(1)\n", "b.c": "int main(void) { return n; }\n", "1.in": "1\n", "1.out": "1\n",
	})
	got := s.run(t, "try", "a.py", "b.c")
	assert.Equal(t, 1, got.status)
	assert.Regexp(t, `(?m)^points +40 of 40 +0 of 40$`, got.out)
	got = s.run(t, "try", "b.c", "--json", "-")
	assert.Contains(t, got.out, `"points": 0,`)
	validate(t, got.out)
}

func TestCtrlCShowsTheEvidenceSoFar(t *testing.T) {
	testenv.Need(t, "python3")
	files := map[string]string{"a.py": "import time\nn = int(input())\nif n > 2: time.sleep(30)\nprint(n if n != 2 else 7)\n", "verdict.toml": "[limits]\nwall = \"60s\"\n"}
	for _, n := range []string{"1", "2", "3"} {
		files[n+".in"], files[n+".out"] = n+"\n", n+"\n"
	}
	s := folder(t, files)
	cmd := s.command(t, "try", "--jobs", "1")
	var out bytes.Buffer
	cmd.Stdout = &out
	require.NoError(t, cmd.Start())
	time.Sleep(2 * time.Second)
	require.NoError(t, cmd.Process.Signal(syscall.SIGINT))
	cmd.Wait()
	assert.Equal(t, 130, cmd.ProcessState.ExitCode())
	assert.Contains(t, out.String(), "cases/2: wrong answer, line 1: expected 2, got 7\n")
	assert.Contains(t, out.String(), "a.py: interrupted (2 of 3 cases: 1 accepted, 1 wrong answer)\n")
}

func TestWhatAcceptedCasesWroteToStandardErrorCanBeSeen(t *testing.T) {
	testenv.Need(t, "python3")
	s := folder(t, map[string]string{"a.py": "import sys\nprint('depth 4', file=sys.stderr)\nprint(1)\n", "1.in": "1\n", "1.out": "1\n"})
	assert.NotContains(t, s.run(t, "try").out, "depth 4")
	assert.Contains(t, s.run(t, "try", "--stderr").out, "\n    depth 4\n")
}

func TestAnAnswerOfSeveralLinesThatNobodyCanJudgeIsSeen(t *testing.T) {
	testenv.Need(t, "python3")
	s := folder(t, map[string]string{"a.py": "print(7)\nprint('two words')\n", "1.in": "1\n", "2.in": "2\n"})
	got := s.run(t, "try", "--evidence", "0")
	assert.Equal(t, 10, got.status)
	assert.Equal(t, 2, strings.Count(got.out, "printed 2 lines: 7 ⏎ two words\n"), got.out)
}

func TestWhatNoProgramCanBeGivenIsAMistakeOfTheFile(t *testing.T) {
	s := folder(t, map[string]string{"a.py": "print(1)\n", "1.in": "1\n", "verdict.toml": "[[solution]]\nfile = \"a.py\"\nargs = [\"a\\u0000b\"]\n"})
	got := s.run(t, "try")
	assert.Equal(t, 64, got.status)
	assert.Equal(t, "cold: verdict.toml:3: an argument holds a NUL, which no program can be given\n", got.errors)
}

func TestABrokenPipeEndsQuietly(t *testing.T) {
	testenv.Need(t, "python3")
	s := folder(t, map[string]string{
		"a.py": "print('7 ' * 100000)\n", "1.in": strings.Repeat("1\n", 1000), "1.out": "1\n", "input.shape": "n: int 1..100000\nw: int[n] 1..9\n",
		"input.txt": "1\n",
	})
	for _, args := range []string{"try", "try --json -", "try --input input.txt", "case list", "case show 1", "host", "host --languages", "shape make --size 1", "shape edges", "shape explain", "--help", "demo --help"} {
		cmd := s.command(t, strings.Fields(args)...)
		reader, writer, err := os.Pipe()
		require.NoError(t, err)
		reader.Close()
		var errs bytes.Buffer
		cmd.Stdout, cmd.Stderr = writer, &errs
		err = cmd.Run()
		writer.Close()
		assert.NotContains(t, errs.String(), "broken pipe", args)
		assert.NotContains(t, errs.String(), "cold:", args)
		assert.NotEqual(t, 70, cmd.ProcessState.ExitCode(), "%s: %v", args, err)
	}
}

func TestWhatIsOpenedForALanguageIsTriedInIt(t *testing.T) {
	testenv.Need(t, "g++", "pypy3", "python3")
	s := session{dir: t.TempDir()}
	for _, name := range []string{"pypy", "cpp17", "java"} {
		got := s.run(t, "open", "beacons", "--lang", name)
		require.Equal(t, 0, got.status, got.errors)
	}
	for name, text := range map[string]string{"1.in": "3\n", "1.out": "3\n"} {
		write(t, filepath.Join(s.dir, "beacons", name), text)
	}
	config := read(t, s, "beacons/verdict.toml")
	assert.Equal(t, 2, strings.Count(config, "\n[[solution]]\n"), "java is what the extension says: %s", config)
	s.dir = filepath.Join(s.dir, "beacons")
	assert.Contains(t, s.run(t, "try", "beacons.py").out, "beacons.py (pypy): PyPy")
	assert.Contains(t, s.run(t, "try", "beacons.cpp").out, "beacons.cpp (cpp17): C++17")
	for _, args := range [][]string{{"--watch", "--input", "-"}, {"--checker", "--lang", "cpp17"}} {
		got := s.run(t, append([]string{"try"}, args...)...)
		assert.Equal(t, 64, got.status, args)
	}
}

func TestEachLanguageOtherThanTheExtensionSaysIsKept(t *testing.T) {
	s := session{dir: t.TempDir()}
	for _, name := range []string{"c11", "c23-clang", "c-clang", "cpp-clang", "cpp23", "rust2018", "rust2024", "pypy"} {
		require.Equal(t, 0, s.run(t, "open", name, "--lang", name).status, name)
		assert.Contains(t, read(t, s, name+"/verdict.toml"), "\nlanguage = \""+name+"\"\n")
	}
}

func TestATitleWritesNothingOutsideOfTheFolder(t *testing.T) {
	s := folder(t, map[string]string{"page.html": "<title>../../evil/x\"y</title><h1>../evil &#27;[2J / \\ \"</h1><p>Time limit: 1 second. Input file: ../logbook.txt</p>" +
		"<h3>Input</h3><pre>1 2\n</pre><h3>Output</h3><pre>3\n</pre>"})
	got := s.run(t, "open", "pages", "--from", "page.html", "--lang", "python", "--lang", "java", "--call", "f(n: int) -> int")
	require.Contains(t, []int{0, 64}, got.status, got.errors)
	got = s.run(t, "open", "plain", "--from", "page.html", "--lang", "python", "--lang", "java")
	require.Equal(t, 0, got.status, got.errors)
	entries, err := os.ReadDir(s.dir)
	require.NoError(t, err)
	for _, e := range entries {
		assert.Contains(t, []string{"page.html", "pages", "plain"}, e.Name())
	}
	assert.FileExists(t, filepath.Join(s.dir, "plain", "plain.py"))
	s.dir = filepath.Join(s.dir, "plain")
	assert.Contains(t, []int{0, 1}, s.run(t, "try", "plain.py").status, "verdict.toml can be read")
}
