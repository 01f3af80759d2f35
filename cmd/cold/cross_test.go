//go:build linux

package main

import (
	"bytes"
	"encoding/json"
	"fmt"
	"maps"
	"os"
	"os/exec"
	"path/filepath"
	"regexp"
	"strconv"
	"strings"
	"syscall"
	"testing"
	"time"

	"coldverdict/internal/testenv"

	"github.com/santhosh-tekuri/jsonschema/v6"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

const crateShape = "n: int 1..20\nw: int[n] 1..9\n"

// total adds crates up; change may change its sum s.
func total(change string) string {
	return "#include <stdio.h>\n#include <stdlib.h>\nint main(void) {\n    long n, s = 0, w[100];\n    scanf(\"%ld\", &n);\n    for (int i = 0; i < n; i++) { scanf(\"%ld\", w + i); s += w[i]; }\n    " +
		change + "\n    printf(\"%ld\\n\", s);\n}\n"
}

// crossed is a problem of crates whose reference is right.
func crossed(t testing.TB, candidate string) session {
	testenv.Need(t, "gcc")
	return folder(t, map[string]string{
		"input.shape": crateShape, "right.c": total(""), "total.c": candidate,
		"verdict.toml": "[limits]\ntime = \"1s\"\n[[solution]]\nfile = \"right.c\"\nrole = \"reference\"\n[[solution]]\nfile = \"total.c\"\n",
		"cases.md":     "# Samples\n\n## one\nThe first.\n\n```input\n2\n4 5\n```\n\n```output\n9\n```\n",
	})
}

func TestCrossShowsTheSmallestInputAndKeepsIt(t *testing.T) {
	s := crossed(t, total("if (n > 2) s--;"))
	got := s.run(t, "cross", "--seed", "5")
	assert.Equal(t, 1, got.status, got.errors)
	for _, words := range []string{
		"total.c (edited last) against right.c\n", "\ntotal.c: wrong answer, line 1: expected 3, got 2\n", "input, 2 lines, 8 B\n    1  3\n    2  1 1 1\n",
		"  » 1  3                     » 1  2\n", "seed 5, up to 20 s\n", "\ntotal.c: wrong answer\n",
	} {
		assert.Contains(t, got.out, words)
	}
	text, err := os.ReadFile(filepath.Join(s.dir, "cases.md"))
	require.NoError(t, err)
	assert.NotContains(t, string(text), "Crossed", "nothing is written unasked")

	got = s.run(t, "cross", "--seed", "5", "--keep")
	assert.Equal(t, 1, got.status, got.errors)
	assert.Contains(t, got.out, "wrote crossed/1 into cases.md\n")
	kept, err := os.ReadFile(filepath.Join(s.dir, "cases.md"))
	require.NoError(t, err)
	assert.True(t, strings.HasPrefix(string(kept), string(text)), "what was there stays")
	added := string(kept[len(text):])
	assert.Regexp(t, `^\n# Crossed\n\n## 1\ntotal.c gets wrong answer here: line 1: expected 3, got 2. Found by cold cross --seed 5, (seed 2:\d+, size [\d.]+|edge case )`, added)
	assert.Regexp(t, "Kept on \\d{4}-\\d\\d-\\d\\d: right.c printed it.\n\n```output kept\n3\n```\n$", added)
	got = s.run(t, "cross", "--seed", "5", "--keep")
	assert.Contains(t, got.out, "crossed/1 has this input already\n")
	got = s.run(t, "try", "total.c")
	assert.Equal(t, 1, got.status)
	assert.Contains(t, got.out, "crossed/1: wrong answer")
}

func TestAFoundInputIsMadeAgainFromItsSeed(t *testing.T) {
	s := crossed(t, total("if (n > 2 && w[0] == w[1] + 1) s--;"))
	again := regexp.MustCompile(`again with (--count 1 --seed \d+ --size [\d.]+(?: --style [\w-]+)?)\n`)
	for seed := range 3 {
		got := s.run(t, "cross", "--size", "0.6", "--seed", strconv.Itoa(1000*seed))
		options := again.FindStringSubmatch(strings.ReplaceAll(got.out, "\n  ", " ") + "\n")
		if options == nil {
			options = again.FindStringSubmatch(got.out)
		}
		require.NotNil(t, options, got.out)
		repeated := s.run(t, append([]string{"cross"}, strings.Fields(options[1])...)...)
		assert.Equal(t, 1, repeated.status, repeated.out)
		assert.Contains(t, repeated.out, " and 1 input;")
	}
}

func TestCrossFindsNothingInARightCandidate(t *testing.T) {
	s := crossed(t, total("s = s + 0;"))
	got := s.run(t, "cross", "--count", "300", "--seed", "5")
	assert.Equal(t, 0, got.status, got.errors)
	assert.Contains(t, got.out, "tried 300 inputs in ")
	assert.Contains(t, got.out, "with n 1 to 20\n")
	assert.Contains(t, got.out, "never came: the answer 0\n")
	assert.Contains(t, got.out, "total.c: no failure found in 300 answers\n")
	assert.Empty(t, got.errors)
}

func TestCrossWithoutAReferenceSaysSo(t *testing.T) {
	s := crossed(t, total("if (n == 7) abort();"))
	require.NoError(t, os.Remove(filepath.Join(s.dir, "verdict.toml")))
	got := s.run(t, "cross", "total.c")
	assert.Equal(t, 1, got.status, got.errors)
	assert.Contains(t, got.out, "total.c without a reference: crashes, limits, and answers that vary\n")
	assert.Contains(t, got.out, "total.c: runtime error, aborted (signal 6)")
	assert.Contains(t, got.out, "    1  7\n    2  1 1 1 1 1 1 1\n")
	got = s.run(t, "cross", "right.c", "--count", "50")
	assert.Equal(t, 10, got.status, "nothing was judged")
	assert.Contains(t, got.out, "nothing found; nobody knows whether its answers are right")
	got = s.run(t, "cross", "right.c", "total.c", "--size", "0.65", "--style", "sorted", "--count", "2000")
	assert.Equal(t, 1, got.status)
	got = s.run(t, "cross", "total.c", "--against", "right.c")
	assert.Equal(t, 1, got.status)
	assert.Contains(t, got.out, "right.c answers, 1 line, 2 B\n    1  7\n", "a crash has an expected answer all the same")
}

func TestCrossWritesJSON(t *testing.T) {
	s := crossed(t, total("if (n > 2) s--;"))
	schema, err := jsonschema.NewCompiler().Compile("../../docs/cross.schema.json")
	require.NoError(t, err)
	for _, args := range [][]string{{"cross", "--json"}, {"cross", "--slow", "--count", "12", "--json"}} {
		got := s.run(t, args...)
		value, err := jsonschema.UnmarshalJSON(strings.NewReader(got.out))
		require.NoError(t, err, got.out)
		assert.NoError(t, schema.Validate(value))
		assert.Empty(t, got.errors)
	}
	var results struct {
		Found []struct {
			Bytes    int
			Smallest bool
		}
	}
	require.NoError(t, json.Unmarshal([]byte(s.run(t, "cross", "--json").out), &results))
	require.Len(t, results.Found, 1)
	assert.Equal(t, 8, results.Found[0].Bytes)
	assert.True(t, results.Found[0].Smallest)
}

func TestCrossLooksForSlowInputs(t *testing.T) {
	s := crossed(t, total(""))
	got := s.run(t, "cross", "--slow", "--count", "40")
	assert.Equal(t, 0, got.status, got.errors)
	assert.Contains(t, got.out, "total.c (edited last) on inputs of full size\n")
	assert.Regexp(t, `total.c: within the limit: at most .* of 1 s \(0 %\), with`, got.out)
	s = crossed(t, total("for (volatile int i = 0; n == 20;) i++;"))
	got = s.run(t, "cross", "--slow", "--keep")
	assert.Equal(t, 1, got.status)
	assert.Contains(t, got.out, "total.c: time limit exceeded, with ")
	assert.Contains(t, got.out, "wrote crossed/1 into cases.md\n")
}

func TestPartsOfAProblemAreNotSetAgainstEachOther(t *testing.T) {
	testenv.Need(t, "python3")
	s := folder(t, map[string]string{
		"input.shape": "n: int 1..9\n", "a.py": "import sys\nprint(int(input()) * (2 if sys.argv[1] == \"first\" else 3))\n",
		"b.py": "n = int(input())\nprint(n * 3 - (n == 8))\n", "1.in": "1\n",
		"verdict.toml": "[[solution]]\nfile = \"a.py\"\nargs = [\"first\"]\ngroups = [\"first\"]\n[[solution]]\nfile = \"a.py\"\nargs = [\"second\"]\ngroups = [\"second\"]\n" +
			"[[solution]]\nfile = \"b.py\"\ngroups = [\"second\"]\n[[group]]\nname = \"first\"\n[[group]]\nname = \"second\"\n",
		"cases/first/1.in": "1\n", "cases/second/1.in": "1\n",
	})
	got := s.run(t, "cross", "a.py", "--count", "20")
	assert.Equal(t, 64, got.status, got.out)
	assert.Contains(t, got.errors, "a.py answers several parts of this problem, or other ones than a.py; choose one by its group: --group first")
	got = s.run(t, "cross", "a.py", "--count", "20", "--group", "first")
	assert.Equal(t, 10, got.status, got.errors)
	got = s.run(t, "cross", "b.py", "--against", "a.py", "--seconds", "300") // it ends when it has found something
	assert.Equal(t, 1, got.status, got.errors)
	assert.Contains(t, got.out, "b.py against a.py second\n")
	assert.Contains(t, got.out, "expected 24, got 23")
}

// One part's answers are no expected outputs of another's, nor do they contradict them.
func TestEdgeCasesAskEachPartItsOwn(t *testing.T) {
	testenv.Need(t, "gcc")
	print := func(what string) string {
		return "#include <stdio.h>\nint main(int c, char **v) { int n; scanf(\"%d\", &n); printf(\"%d\\n\", " + what + "); }\n"
	}
	cases := map[string]string{"input.shape": "n: int 1..9\n", "cases/twice/1.in": "1\n", "cases/twice/1.out": "2\n", "cases/square/1.in": "3\n", "cases/square/1.out": "9\n"}
	for name, files := range map[string]map[string]string{
		"one source": {"both.c": print("v[1][0] == 't' ? 2 * n : n * n"),
			"verdict.toml": "[[solution]]\nfile = \"both.c\"\nargs = [\"twice\"]\ngroups = [\"twice\"]\n[[solution]]\nfile = \"both.c\"\nargs = [\"square\"]\ngroups = [\"square\"]\n"},
		"a source each": {"twice.c": print("2 * n"), "square.c": print("n * n"),
			"verdict.toml": "[[solution]]\nfile = \"twice.c\"\nrole = \"reference\"\ngroups = [\"twice\"]\n[[solution]]\nfile = \"square.c\"\ngroups = [\"square\"]\n"},
	} {
		t.Run(name, func(t *testing.T) {
			maps.Copy(files, cases)
			got := folder(t, files).run(t, "try", "--every-solution", "--edges")
			assert.Equal(t, 0, got.status, got.out+got.errors)
			assert.Contains(t, got.out, "several parts")
			assert.NotContains(t, got.out, "one of the two is wrong")
		})
	}
	// Within a part, answers are compared.
	got := folder(t, map[string]string{"input.shape": "n: int 1..9\n", "a.c": print("2 * n"), "b.c": print("n < 5 ? 2 * n : 0"), "cases/twice/1.in": "1\n", "cases/twice/1.out": "2\n",
		"verdict.toml": "[[solution]]\nfile = \"a.c\"\ngroups = [\"twice\"]\n[[solution]]\nfile = \"b.c\"\ngroups = [\"twice\"]\n"}).run(t, "try", "--every-solution", "--edges")
	assert.Equal(t, 1, got.status, got.out+got.errors)
	assert.Contains(t, got.out, "one of the two is wrong")
}

func TestBadUseOfCrossIsSaidAtOnce(t *testing.T) {
	s := crossed(t, total(""))
	for args, words := range map[string]string{
		"cross --seconds 0":               "--seconds is 0",
		"cross --count 0":                 "--count is 0",
		"cross --size 2":                  `--size: "2" is no size`,
		"cross --seed x":                  `--seed: "x" is no seed`,
		"cross --style sortde":            `did you mean "sorted"?`,
		"cross nothing.c":                 "nothing.c",
		"cross --against nothing.c":       "nothing.c",
		"cross right.c":                   "right.c is the reference itself",
		"cross total.c --against total.c": "total.c is the reference itself",
		"cross --time soon":               "--time",
		"try --cross":                     "--cross goes on behind --watch",
	} {
		t.Run(args, func(t *testing.T) {
			got := s.ask(t, strings.Fields(args)...)
			assert.Equal(t, 64, got.status)
			assert.Contains(t, got.errors, words)
			assert.Empty(t, got.out)
		})
	}
	require.NoError(t, os.Remove(filepath.Join(s.dir, "input.shape")))
	got := s.run(t, "cross")
	assert.Equal(t, 64, got.status)
	assert.Contains(t, got.errors, "there is no input.shape here")

	s = folder(t, map[string]string{"a.c": total(""), "input.shape": "n: int 5..9\nw: int[n] 1..3 distinct\n"})
	got = s.run(t, "cross")
	assert.Equal(t, 64, got.status)
	assert.Contains(t, got.errors, "input.shape:2:")
	assert.Contains(t, got.errors, "cannot be met")

	s = folder(t, map[string]string{"a.c": "int main(", "input.shape": crateShape})
	got = s.run(t, "cross")
	assert.Equal(t, 1, got.status)
	assert.Contains(t, got.out, "a.c: compile error\n")
}

func TestAReferenceThatCannotServeEndsCross(t *testing.T) {
	s := crossed(t, total(""))
	require.NoError(t, os.WriteFile(filepath.Join(s.dir, "right.c"), []byte(total("s++;")), 0o644))
	got := s.run(t, "cross")
	assert.Equal(t, 10, got.status)
	assert.Contains(t, got.out, "right.c cannot serve as a reference: it fails on samples/one, whose answer is known\n")
	assert.Contains(t, got.out, "expected                   got")
	assert.Contains(t, got.out, "total.c: nothing was judged")
}

func TestCtrlCEndsCrossWithWhatItDid(t *testing.T) {
	s := crossed(t, total(""))
	for _, after := range []time.Duration{0, 100 * time.Millisecond, 1500 * time.Millisecond} {
		cmd := s.command(t, "cross", "--seconds", "60")
		var out, errs bytes.Buffer
		cmd.Stdout, cmd.Stderr = &out, &errs
		require.NoError(t, cmd.Start())
		time.Sleep(20*time.Millisecond + after)
		require.NoError(t, cmd.Process.Signal(syscall.SIGINT))
		cmd.Wait()
		assert.Equal(t, 130, shellStatus(cmd), "%s%s", out.String(), errs.String())
		if after > time.Second {
			assert.Contains(t, out.String(), "tried ")
		}
	}
	left, err := exec.Command("sh", "-c", "ls -d /tmp/cold-verdict-run-* 2>/dev/null").Output()
	if err == nil {
		for _, dir := range strings.Fields(string(left)) {
			assert.DirExists(t, dir, "of another test that still runs")
		}
	}
}

func TestAFullDiskLosesNothing(t *testing.T) {
	testenv.Need(t, "unshare", "mount")
	s := crossed(t, total("if (n > 2) s--;"))
	before, err := os.ReadFile(filepath.Join(s.dir, "cases.md"))
	require.NoError(t, err)
	require.Equal(t, 1, s.run(t, "cross", "--seed", "5").status) // builds
	path, err := binary()
	require.NoError(t, err)
	// The folder of the problem is on a disk of its own, which is full.
	script := `mount -t tmpfs -o size=64k tmpfs "$1" 2>/dev/null || exit 99
cp -r "$2"/. "$1" || exit 98
head -c 1000000 /dev/zero > "$1/full" 2>/dev/null
cd "$1" && "$3" cross --seed 5 --keep; status=$?
cmp "$1/cases.md" "$2/cases.md" || exit 97
exit $status`
	full := t.TempDir()
	cmd := exec.Command("unshare", "-rm", "sh", "-c", script, "sh", full, s.dir, path)
	var out, errs bytes.Buffer
	cmd.Stdout, cmd.Stderr = &out, &errs
	cmd.Run()
	switch status := cmd.ProcessState.ExitCode(); status {
	case 99, 1:
		if !strings.Contains(out.String(), "wrong answer") {
			t.Skip("no disk of its own can be had here")
		}
		t.Fatalf("it was written: %s%s", out.String(), errs.String())
	default:
		assert.Equal(t, 70, status, "%s%s", out.String(), errs.String())
		assert.Contains(t, out.String(), "total.c: wrong answer", "what was found is shown")
		assert.Contains(t, errs.String(), "no space left on device")
	}
	after, err := os.ReadFile(filepath.Join(s.dir, "cases.md"))
	require.NoError(t, err)
	assert.Equal(t, string(before), string(after))
}

func TestAtATerminalCrossAsksWhetherToKeepWhatItFound(t *testing.T) {
	for answer, written := range map[string]bool{"n\n": false, "y\n": true} {
		s := crossed(t, total("if (n > 2) s--;")) // a folder for each answer, since one is written to
		cmd, master := onTerminal(t, s, 100, "cross", "--seed", "5")
		shown := screen(t, master, "write it into cases.md? [y/N] ")
		assert.Contains(t, shown, "building …")
		_, err := master.WriteString(answer)
		require.NoError(t, err)
		rest := screen(t, master, "")
		cmd.Wait()
		assert.Equal(t, 1, cmd.ProcessState.ExitCode())
		assert.Equal(t, written, strings.Contains(rest, "wrote crossed/1 into cases.md"))
		text, err := os.ReadFile(filepath.Join(s.dir, "cases.md"))
		require.NoError(t, err)
		assert.Equal(t, written, strings.Contains(string(text), "# Crossed"))
	}
}

func TestCrossGoesOnBehindAWatch(t *testing.T) {
	s := crossed(t, total("if (n == 19) s--;"))
	cmd, master := onTerminal(t, s, 100, "try", "--watch", "--cross", "total.c")
	shown := screen(t, master, "total.c: wrong answer, line 1, column 2: expected 19, got 18")
	assert.Contains(t, shown, "accepted", "the cases passed")
	assert.Contains(t, shown, "up to ", "progress")
	screen(t, master, "waiting for a save")
	require.NoError(t, os.WriteFile(filepath.Join(s.dir, "total.c"), []byte(total("s = 0;")), 0o644))
	shown = screen(t, master, "waiting for a save")
	assert.Contains(t, shown, "samples/one: wrong answer", "a save ends it and runs the cases")
	_, err := master.WriteString("\x03")
	require.NoError(t, err)
	screen(t, master, "")
	cmd.Wait()
	assert.Equal(t, 130, cmd.ProcessState.ExitCode())
}

func TestFunctionsThatKeepSomethingAreCrossedWithoutAReference(t *testing.T) {
	testenv.Need(t, "gcc")
	source := func(limit int) string {
		return fmt.Sprintf("int seen;\nint f(int n) { return n + (++seen > %d); }\n", limit)
	}
	s := folder(t, map[string]string{
		"verdict.toml": "[call]\nname = \"f\"\ntakes = [\"n: int\"]\nreturns = \"int\"\n", "input.shape": "n: int 1..50\n", "x.c": source(3), "y.c": source(5),
	})
	for seed := range testenv.Of(3, 1) {
		got := s.run(t, "cross", "x.c", "y.c", "--seconds", "300", "--seed", strconv.Itoa(seed))
		assert.Equal(t, 1, got.status, got.errors)
		assert.NotContains(t, got.errors, "panic")
	}
}

func TestTheReferenceIsNoCandidateWhereItWasEditedLast(t *testing.T) {
	s := crossed(t, total("if (n > 2) s--;"))
	require.NoError(t, os.WriteFile(filepath.Join(s.dir, "verdict.toml"), nil, 0o644))
	later := time.Now().Add(time.Hour)
	require.NoError(t, os.Chtimes(filepath.Join(s.dir, "right.c"), later, later))
	for _, against := range []string{"right.c", "./right.c", filepath.Join(s.dir, "right.c")} {
		got := s.run(t, "cross", "--against", against, "--seed", "5")
		assert.Equal(t, 1, got.status, got.errors)
		assert.Contains(t, got.out, "total.c (edited last) against right.c\n")
	}
}
