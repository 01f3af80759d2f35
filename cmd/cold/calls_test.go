//go:build linux

package main

import (
	"encoding/json"
	"fmt"
	"os"
	"os/exec"
	"path/filepath"
	"strings"
	"testing"

	"coldverdict/internal/testenv"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

const thawTable = "[call]\nname = \"longest_thaw\"\ntakes = [\"temps: int[]\", \"limit: long\"]\nreturns = \"int\"\n"

const thawCases = "# Samples\n\n## warm\n\n```call\ntemps = [4, -2, 7, 8]\nlimit = 5\n```\n\n```returns\n2\n```\n\n" +
	"## unknown\n\n```call\ntemps = [9, 9, 9]\nlimit = 1\n```\n"

const longestRun = "def longest_thaw(temps, limit):\n    best = run = 0\n    for t in temps:\n        run = run + 1 if t > limit else 0\n        best = max(best, run)\n    print('looked at', len(temps))\n    return best\n"

func TestAFunctionIsOpenedTriedAndAsked(t *testing.T) {
	testenv.Need(t, "python3")
	s := folder(t, nil)
	got := s.run(t, "open", "thaw", "--lang", "python", "--lang", "cpp", "--call", "longest_thaw(temps: int[], limit: long) -> int", "--time", "1s")
	require.Equal(t, 0, got.status, got.errors)
	assert.Contains(t, got.out, "with an argument a line")
	s.dir = filepath.Join(s.dir, "thaw")
	assert.Equal(t, "def longest_thaw(temps: list[int], limit: int) -> int:\n    pass\n", read(t, s, "thaw.py"))
	assert.Contains(t, read(t, s, "thaw.cpp"), "int longestThaw(const std::vector<int>& temps, long long limit) {")
	got = s.run(t, "open", ".", "--lang", "rust")
	require.Equal(t, 0, got.status, got.errors)
	assert.Contains(t, read(t, s, "thaw.rs"), "pub fn longest_thaw(temps: Vec<i32>, limit: i64) -> i32 {", "the function of the problem that is there")
	got = s.run(t, "open", ".", "--call", "other(a: int) -> int")
	assert.Equal(t, 64, got.status)
	assert.Contains(t, got.errors, "is about another function: longest_thaw(temps: int[], limit: long) -> int")

	s.input = "temps = [4, -2, 7, 8]\nlimit = 5\n%%\n2\n"
	got = s.run(t, "case", "add", "warm", "--why", "two warm days at the end")
	require.Equal(t, 0, got.status, got.errors)
	assert.Contains(t, read(t, s, "cases.md"), "```call\ntemps = [4, -2, 7, 8]\nlimit = 5\n```\n\n```returns\n2\n```\n")
	s.input = "[4, -2], 5\n%%\n0\n"
	got = s.run(t, "case", "add")
	require.Equal(t, 0, got.status, got.errors)
	assert.Contains(t, read(t, s, "cases.md"), "```call\ntemps: [4, -2]\nlimit: 5\n```\n", "as statements print it")
	s.input = "4 -2\n5\n%%\n2\n"
	got = s.run(t, "case", "add")
	assert.Equal(t, 64, got.status)
	assert.Contains(t, got.errors, "these arguments are not those of longest_thaw(temps: int[], limit: long) -> int: temps: expected an int[], found 4 -2")

	got = s.run(t, "try", "thaw.py")
	assert.Equal(t, 1, got.status)
	assert.Contains(t, got.out, "it returned nothing, and int was expected")
	assert.Contains(t, got.out, "a return is missing")
	require.NoError(t, os.WriteFile(filepath.Join(s.dir, "thaw.py"), []byte(longestRun), 0o644))
	got = s.run(t, "try", "thaw.py")
	assert.Equal(t, 0, got.status, got.out)

	s.input = "temps = [1, 2, 3]\nlimit = 1\n"
	got = s.run(t, "try", "thaw.py", "--input", "-")
	assert.Equal(t, 10, got.status)
	assert.Equal(t, "2\n", got.out, "what it returned, and nothing else")
	assert.Contains(t, got.errors, "looked at 3")
	s.input = "temps = 3\n"
	got = s.run(t, "try", "thaw.py", "--input", "-")
	assert.Equal(t, 64, got.status)
	assert.Contains(t, got.errors, "temps: expected an int[], found 3")
}

func TestTheDriverIsShownOnRequest(t *testing.T) {
	s := folder(t, map[string]string{"verdict.toml": thawTable, "thaw.py": longestRun, "thaw.cpp": "int f() { return 0; }", "thaw.awk": "{ print }"})
	got := s.run(t, "try", "thaw.py", "--driver")
	assert.Equal(t, 0, got.status, got.errors)
	assert.Contains(t, got.out, `NAMES = ["longest_thaw", "longestThaw", "LongestThaw"]`)
	got = s.run(t, "try", "thaw.cpp", "--driver")
	assert.Equal(t, 64, got.status)
	assert.Contains(t, got.errors, "there is no function longest_thaw or longestThaw or LongestThaw in thaw.cpp")
	got = s.run(t, "try", "thaw.awk", "--driver")
	assert.Contains(t, got.errors, "function problems cannot be served in AWK")
	s = folder(t, map[string]string{"a.py": "", "1.in": ""})
	for _, option := range []string{"--driver", "--alone"} {
		got := s.run(t, "try", "a.py", option)
		assert.Equal(t, 64, got.status)
		assert.Contains(t, got.errors, "are for function problems")
	}
}

func TestWaysToWriteAFunctionStandSideBySide(t *testing.T) {
	testenv.Need(t, "python3")
	s := folder(t, map[string]string{
		"verdict.toml": thawTable, "cases.md": thawCases, "a.py": longestRun,
		"b.py": "def longestThaw(temps, limit):\n    raise ValueError('a warm day')\n", "r.json": "",
	})
	got := s.run(t, "try", "a.py", "b.py", "--json", "r.json")
	assert.Equal(t, 1, got.status)
	assert.Regexp(t, `(?m)^\s+warm\s+AC\s+\d.* [µm]s\s+[\d.]+ MiB\s+RE`, got.out, "verdict and time of each")
	assert.Contains(t, got.out, "ValueError: a warm day")
	var report struct {
		Solutions []struct {
			Cases []struct {
				Verdict, Returned, Stdout string
				CPU                       *float64 `json:"cpu_seconds"`
			}
		}
	}
	require.NoError(t, json.Unmarshal([]byte(read(t, s, "r.json")), &report))
	one := report.Solutions[0].Cases
	assert.Equal(t, []string{"2", "looked at 4\n", "3", "unjudged"}, []string{one[0].Returned, one[0].Stdout, one[1].Returned, one[1].Verdict})
	assert.Less(t, *one[0].CPU, 0.1)
	validate(t, read(t, s, "r.json"))
}

func TestAnAnswerOfAFunctionIsKeptAndRefused(t *testing.T) {
	testenv.Need(t, "python3")
	s := folder(t, map[string]string{"verdict.toml": thawTable, "cases.md": thawCases, "a.py": longestRun})
	got := s.run(t, "case", "refuse", "unknown", "--answer", "3")
	require.Equal(t, 0, got.status, got.errors)
	got = s.run(t, "try", "a.py", "--case", "unknown")
	assert.Contains(t, got.out, "this very answer was refused")
	require.NoError(t, os.WriteFile(filepath.Join(s.dir, "cases.md"), []byte(thawCases), 0o644))
	got = s.run(t, "case", "keep", "unknown", "--yes")
	require.Equal(t, 0, got.status, got.errors)
	assert.Contains(t, read(t, s, "cases.md"), "```returns kept\n3\n```\n")
	got = s.run(t, "try", "a.py")
	assert.Equal(t, 0, got.status)
	assert.Contains(t, got.out, "kept")
}

func TestACheckerSeesValues(t *testing.T) {
	testenv.Need(t, "python3")
	table := strings.Replace(thawTable, `"int"`, `["first: int", "warm: real[]"]`, 1) + "[compare]\nscript = \"check.star\"\n"
	s := folder(t, map[string]string{
		"verdict.toml": table, "cases.md": strings.Replace(thawCases, "\n2\n", "\n[2, [7, 8]]\n", 1),
		"check.star": "def decide(case, got, expected):\n" +
			"    if len(case.values.temps) == 3:\n        return reject(\"of %d temperatures\" % len(case.values[\"temps\"]))\n" +
			"    if got.value[0] == expected.value[0] and got.value[1][0] == 7.0 and case.values.limit == 5 and got.text.startswith('['):\n        return accept()\n    return reject(\"no\")\n",
		"a.py": "def longest_thaw(temps, limit):\n    return {'warm': [t for t in temps if t > limit], 'first': 2}\n",
	})
	got := s.run(t, "try", "a.py")
	assert.Equal(t, 1, got.status)
	assert.Regexp(t, `AC .* warm`, got.out)
	assert.Contains(t, got.out, "of 3 temperatures")
}

func TestArgumentsAreAskedForAtATerminal(t *testing.T) {
	testenv.Need(t, "python3")
	s := folder(t, map[string]string{"verdict.toml": thawTable, "a.py": longestRun})
	shown, status := converse(t, s, [][2]string{
		{"paste the arguments, each as name: value on a line", "temps = [1, 9]\rlimit = 5\r%%\r"},
		{"paste the expected result (nothing if it is not known)", "1\r%%\r"},
		{"why does this case exist?", "one warm day\n"},
	}, "case", "add", "last")
	assert.Equal(t, 0, status, shown)
	assert.Contains(t, read(t, s, "cases.md"), "## last\none warm day\n\n```call\ntemps = [1, 9]\nlimit = 5\n```\n\n```returns\n1\n```\n")
	shown, status = converse(t, s, [][2]string{{"type the arguments, each as name: value on a line", "temps = [9, 9]\rlimit = 5\r%%\r"}}, "try", "--input", "-")
	assert.Equal(t, 10, status, shown)
	assert.Contains(t, shown, "2\r\n")
	assert.Contains(t, shown, "looked at 2")
	got := s.run(t, "try", "a.py", "--repeat", "3")
	assert.Equal(t, 0, got.status, got.out)
	assert.Contains(t, got.out, "3 runs, ")
	require.NoError(t, os.Remove(filepath.Join(s.dir, "cases.md")))
	got = s.run(t, "try", "a.py")
	assert.Equal(t, 64, got.status)
	assert.Contains(t, got.errors, "has no case; add one with 'cold case add'")
}

func TestAFunctionsFileMayHaveTheNameOfALibrary(t *testing.T) {
	testenv.Need(t, "python3")
	const text = "def longest_thaw(temps, limit):\n    import json, sys, io\n    return len(json.loads('[1, 2]')) + limit\n"
	files := map[string]string{
		"verdict.toml": "[call]\nname = \"longest_thaw\"\ntakes = [\"temps: int[]\", \"limit: int\"]\nreturns = \"int\"\n",
		"cases.md":     "## one\n```call\ntemps: [1]\nlimit: 5\n```\n```returns\n7\n```\n",
	}
	names := []string{"json.py", "random.py", "sys.py", "io.py", "os.py", "typing.py", "time.py", "struct.py", "select.py", "signal.py"}
	for _, name := range names {
		files[name] = text
	}
	s := folder(t, files)
	got := s.run(t, append([]string{"try"}, names...)...)
	assert.Equal(t, 0, got.status, got.out)
}

func TestOneBusyProcessorStallsNobody(t *testing.T) {
	testenv.Need(t, "gcc", "taskset")
	path, err := binary()
	require.NoError(t, err)
	for range 4 {
		loop := exec.Command("taskset", "-c", "0", "/bin/sh", "-c", "while :; do :; done")
		require.NoError(t, loop.Start())
		defer loop.Wait()
		defer loop.Process.Kill()
	}
	s := folder(t, map[string]string{
		"a.c":  "#include <stdio.h>\n#include <time.h>\nint main(void) { int n = 0; if (scanf(\"%d\", &n) != 1) return 1; while (clock() < CLOCKS_PER_SEC / 2) {} printf(\"%d\\n\", n); return 0; }\n",
		"1.in": "1\n", "1.out": "1\n", "2.in": "2\n", "2.out": "2\n",
		"verdict.toml": "[limits]\ntime = \"1s\"\nwall = \"1s\"\n",
	})
	cmd := s.command(t, "try", "a.c")
	cmd.Path, cmd.Args = "/usr/bin/taskset", append([]string{"taskset", "-c", "0", path}, cmd.Args[1:]...)
	out, err := cmd.CombinedOutput()
	assert.NoError(t, err, string(out))
}

func TestAnExampleIsPastedWhole(t *testing.T) {
	s := folder(t, map[string]string{"verdict.toml": "[call]\nname = \"warmest\"\ntakes = [\"temps: int[]\", \"k: int\"]\nreturns = \"int[]\"\n"})
	for i, paste := range []string{
		"Input: temps = [3, 9, -2, 7], k = 2\nOutput: [9, 7]\n",
		"Example 1:\n\nInput: temps = [1,2], k = 1\nOutput: [2]\nExplanation: It is the warmer one.\n",
		"Eingabe: temps = [1,5], k = 1\nAusgabe: [5]\n",
		"Input\n[1, 8]\n1\nOutput\n[8]\n",
	} {
		s.input = paste
		got := s.run(t, "case", "add")
		require.Equal(t, 0, got.status, "%s%s", paste, got.errors)
		assert.Equal(t, fmt.Sprintf("added samples/%d to cases.md\n", i+1), got.out)
	}
	text, err := os.ReadFile(filepath.Join(s.dir, "cases.md"))
	require.NoError(t, err)
	for _, block := range []string{"temps: [3, 9, -2, 7]\nk: 2\n```\n\n```returns\n[9, 7]\n", "temps: [1,2]\nk: 1\n```\n\n```returns\n[2]\n", "temps: [1,5]\nk: 1\n```\n\n```returns\n[5]\n", "temps: [1, 8]\nk: 1\n```\n\n```returns\n[8]\n"} {
		assert.Contains(t, string(text), block)
	}
	for paste, says := range map[string]string{
		"Input: temps = [1], k = 1\nOutput: [1]\n\nInput: temps = [2], k = 1\nOutput: [2]\n": "these are 2 examples; paste one at a time, or take in all of them with 'cold open --from -'",
		"Input: temps = [1]\nOutput: [1]\n":                                                  "the argument k (int) is missing; write k: …",
	} {
		s.input = paste
		got := s.run(t, "case", "add")
		assert.Equal(t, 64, got.status)
		assert.Contains(t, got.errors, says)
	}
	after, err := os.ReadFile(filepath.Join(s.dir, "cases.md"))
	require.NoError(t, err)
	assert.Equal(t, string(text), string(after))

	shown, status := converse(t, s, [][2]string{{"paste the arguments", "Input: temps = [4, 6], k = 1\rOutput: [6]\r%%\r"}, {"why does this case exist", "\r"}}, "case", "add")
	assert.Equal(t, 0, status, shown)
	assert.Contains(t, shown, "added samples/5", "it does not ask for the output once more")
}
