//go:build linux

package main

import (
	"bytes"
	"os"
	"path/filepath"
	"slices"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"coldverdict/demo"

	"coldverdict/internal/testenv"
)

func TestCasesAreHeldAgainstTheShape(t *testing.T) {
	files := map[string]string{
		"input.shape": "n: int 1..5, cap: int 1..10\nw: int[n] 1..cap\n", "a.py": "",
		"cases.md": "# Samples\n\n## good\n```input\n2 5\n4 5\n```\n\n## bad\n```input\n2 5\n4 12\n```\n\n## pasted\n```input\n2  5\n4 5\n```\n",
	}
	s := folder(t, files)
	got := s.run(t, "shape", "check")
	assert.Equal(t, 1, got.status)
	assert.Contains(t, got.out, "samples/bad: line 2, 2nd value: w[1] is 12, outside 1..5 (cap)\n  4 12\n")
	assert.Contains(t, got.out, "samples/pasted: line 1, 2nd value: expected an integer for cap, found a blank")
	assert.Contains(t, got.out, "2 of 3 cases invalid")
	got = s.run(t, "shape", "check", "good", "pasted", "--loose")
	assert.Equal(t, 0, got.status, got.errors)
	assert.Equal(t, "2 cases: all valid\n", got.out)
	require.NoError(t, os.WriteFile(filepath.Join(s.dir, "large.txt"), []byte("1 5\n5\n"), 0o644))
	s.input = "1 5\n6\n"
	got = s.run(t, "shape", "check", "large.txt", "good", "-")
	assert.Equal(t, 1, got.status, got.errors)
	assert.Equal(t, "stdin: line 2, 1st value: w[0] is 6, outside 1..5 (cap)\n  6\n1 of 3 inputs invalid\n", got.out)
	got = s.run(t, "shape", "check", "nothing.txt")
	assert.Equal(t, 64, got.status)
	assert.Contains(t, got.errors, `no case matches "nothing.txt"`)
	got = s.run(t, "shape", "explain")
	assert.Equal(t, 0, got.status, got.errors)
	assert.Equal(t, "line 1: n, an integer from 1 to 5; cap, an integer from 1 to 10\nline 2: w, n (up to 5) integers, each from 1 to cap (up to 10); their sum may reach 50\n", got.out)

	s.input = "2 5\n4 6\n"
	got = s.run(t, "case", "add")
	assert.Equal(t, 64, got.status)
	assert.Contains(t, got.errors, "the input does not have the shape that input.shape says")
	require.NoError(t, os.MkdirAll(filepath.Join(s.dir, "given"), 0o755))
	require.NoError(t, os.WriteFile(filepath.Join(s.dir, "given", "1.in"), []byte("9 9\n"), 0o644))
	require.NoError(t, os.WriteFile(filepath.Join(s.dir, "given", "1.out"), []byte("1\n"), 0o644))
	got = s.run(t, "case", "import", "given", "--yes")
	assert.Equal(t, 0, got.status, got.errors)
	assert.Contains(t, got.out, "inputs without the shape that input.shape says: 3")

	files["input.shape"] = "n: imt\n"
	s = folder(t, files)
	for _, args := range [][]string{{"shape", "check"}, {"try"}} {
		got := s.run(t, args...)
		assert.Equal(t, 64, got.status)
		assert.Contains(t, got.errors, `input.shape:1: column 4: "imt" is no value; did you mean "int"?`)
	}
	delete(files, "input.shape")
	s = folder(t, files)
	got = s.run(t, "shape", "check")
	assert.Equal(t, 64, got.status)
	assert.Contains(t, got.errors, "there is no input.shape here")
}

func TestTheDemosInputsHaveTheirShapes(t *testing.T) {
	dir := t.TempDir()
	require.NoError(t, demo.Write(dir))
	for _, stop := range demo.Tour() {
		s := session{dir: filepath.Join(dir, stop.Folder)}
		if slices.Contains([]string{"beacons", "stowed"}, stop.Folder) { // two objects by name, any values: no shape says these
			assert.NoFileExists(t, filepath.Join(s.dir, "input.shape"))
			continue
		}
		got := s.run(t, "shape", "check")
		assert.Equal(t, 0, got.status, "%s: %s%s", stop.Folder, got.out, got.errors)
	}
}

func TestInputsAreMade(t *testing.T) {
	s := folder(t, map[string]string{"input.shape": "n: int 1..5, cap: int 1..10\nw: int[n] 1..cap\n"})
	first := s.run(t, "shape", "make", "--seed", "42", "--size", "1")
	require.Equal(t, 0, first.status, first.errors)
	assert.Equal(t, "generated from seed 2:42, size 1\n", first.errors)
	again := s.run(t, "shape", "make", "--seed", "2:42", "--size", "1.0")
	assert.Equal(t, first.out, again.out)
	s.input = first.out
	require.Equal(t, 0, s.run(t, "case", "add").status)
	assert.Equal(t, "1 case: all valid\n", s.run(t, "shape", "check").out)

	got := s.run(t, "shape", "make", "--seed", "7", "--count", "3", "--style", "all-equal", "--out", "cases/random")
	assert.Equal(t, 0, got.status, got.errors)
	assert.Contains(t, got.out, "generated 3 inputs (")
	assert.Contains(t, got.out, "from seed 2:7 on, size 0.2, style all-equal, in cases/random")
	for _, name := range []string{"seed-7", "seed-8", "seed-9"} {
		assert.FileExists(t, filepath.Join(s.dir, "cases", "random", name+".in"))
	}
	assert.Equal(t, "4 cases: all valid\n", s.run(t, "shape", "check").out)
	kept := read(t, s, filepath.Join("cases", "random", "seed-9.in"))
	got = s.run(t, "shape", "make", "--seed", "9", "--size", "1", "--count", "2", "--out", "cases/random")
	assert.Equal(t, 64, got.status)
	assert.Contains(t, got.errors, "seed-9.in is there already and stays as it is")
	assert.Equal(t, kept, read(t, s, filepath.Join("cases", "random", "seed-9.in")))
	assert.NoFileExists(t, filepath.Join(s.dir, "cases", "random", "seed-10.in"))
	assert.Contains(t, s.run(t, "shape", "make", "--style", "list").out, "few-distinct\n")

	for _, tt := range []struct {
		args []string
		says string
	}{
		{[]string{"--size", "2"}, "--size: \"2\" is no size"},
		{[]string{"--seed", "x"}, "--seed: \"x\" is no seed"},
		{[]string{"--seed", "7:1"}, "is one of maker 7"},
		{[]string{"--count", "0"}, "--count is 0"},
		{[]string{"--count", "2"}, "several inputs need a folder"},
		{[]string{"--style", "all-equl"}, `did you mean "all-equal"?`},
		{[]string{"more"}, "is one too many"},
	} {
		got := s.run(t, append([]string{"shape", "make"}, tt.args...)...)
		assert.Equal(t, 64, got.status, tt.args)
		assert.Contains(t, got.errors, tt.says)
		assert.Empty(t, got.out)
	}
	s = folder(t, map[string]string{"input.shape": "n: int 1..5\nrequire n > 5\n"})
	got = s.run(t, "shape", "make")
	assert.Equal(t, 64, got.status)
	assert.Contains(t, got.errors, "input.shape:2:1: require n > 5 cannot be met: with n from 1..5")
	got = s.run(t, "shape", "edges")
	assert.Equal(t, 64, got.status)
	assert.Contains(t, got.errors, "input.shape:2:1: require n > 5 cannot be met")
}

func TestEdgeCasesAreListedAndWritten(t *testing.T) {
	s := folder(t, map[string]string{"input.shape": "n: int 1..1000, cap: int 1..1e9\nw: int[n] 1..cap\n"})
	list := s.run(t, "shape", "edges")
	require.Equal(t, 0, list.status, list.errors)
	assert.Contains(t, list.out, "  n-largest.cap-largest.w-all-equal\n")
	assert.Contains(t, list.out, "pairs of choices, of ")
	got := s.run(t, "shape", "edges", "--count", "4", "--out", "cases/edges")
	assert.Equal(t, 0, got.status, got.errors)
	assert.Contains(t, got.out, "generated 4 edge cases")
	assert.Equal(t, "4 cases: all valid\n", s.run(t, "shape", "check").out)
	got = s.run(t, "shape", "edges", "--count", "4", "--out", "cases/edges")
	assert.Equal(t, 64, got.status)
	assert.Contains(t, got.errors, "is there already")
	got = s.run(t, "shape", "edges", "--list", "--out", "elsewhere")
	assert.Equal(t, list.out, got.out)
	assert.NoDirExists(t, filepath.Join(s.dir, "elsewhere"))
}

const (
	crates   = "n: int 1..300\nw: int[n] 1..1e9 rising\n"
	crateSum = "import sys\nd = list(map(int, sys.stdin.read().split()))\nprint(sum(d[1:]))\n"
)

func TestEdgeCasesAreTried(t *testing.T) {
	files := map[string]string{
		"input.shape": crates, "sum.py": crateSum,
		"wrapped.py":   "import sys\nd = list(map(int, sys.stdin.read().split()))\nprint((sum(d[1:]) + 2**31) % 2**32 - 2**31)\n",
		"verdict.toml": "[[solution]]\nfile = \"sum.py\"\nrole = \"reference\"\n",
		"cases.md":     "# Samples\n\n## one\n```input\n1\n3\n```\n```output\n3\n```\n",
	}
	temporary := t.TempDir()
	try := func(args ...string) (got said, plain string) {
		s := folder(t, files)
		s.env = append(s.env, "TMPDIR="+temporary)
		got = s.run(t, append([]string{"try"}, args...)...)
		return got, strings.Join(strings.Fields(got.out), " ")
	}
	got, plain := try("wrapped.py", "--edges")
	assert.Equal(t, 1, got.status, got.errors)
	assert.Contains(t, plain, "edge cases from input.shape: sum.py answers all of them")
	assert.Contains(t, plain, "32 bits")
	got, _ = try("sum.py", "--edges", "--group", "edges")
	assert.Equal(t, 0, got.status, got.out)
	got, _ = try("wrapped.py")
	assert.Equal(t, 0, got.status, "alone the sample says nothing")

	// A reference that is slow answers the small ones.
	files["verdict.toml"] = "[limits]\ntime = \"100ms\"\n" + files["verdict.toml"]
	files["sum.py"] = "import sys\nd = list(map(int, sys.stdin.read().split()))\nwhile len(d) > 100: pass\nprint(sum(d[1:]))\n"
	got, plain = try("wrapped.py", "--edges", "--time", "1s")
	assert.Regexp(t, `sum\.py answers \d+ of them; the others are held to the limits only: (it is too slow for them|all of them together took more than 15s)`, plain)
	assert.Equal(t, 1, got.status)

	// One that crashes, none at all, and none that builds.
	files["sum.py"] = "import sys\nd = list(map(int, sys.stdin.read().split()))\nif d[0] > 200: raise ValueError\nprint(sum(d[1:]))\n"
	got, plain = try("wrapped.py", "--edges")
	assert.Regexp(t, `sum\.py answers \d+ of them; the others are held to the limits only: it failed on \d+ of them, the first time with runtime error`, plain)
	delete(files, "verdict.toml")
	got, plain = try("wrapped.py", "--edges", "--group", "edges")
	assert.Contains(t, plain, "there is no reference to answer them; they are held to the limits only")
	assert.Equal(t, 10, got.status)

	got, _ = try("--edges", "--input", "cases.md")
	assert.Equal(t, 64, got.status)
	delete(files, "input.shape")
	got, _ = try("wrapped.py", "--edges")
	assert.Equal(t, 64, got.status)
	assert.Contains(t, got.errors, "there is no input.shape here")
	left, err := filepath.Glob(filepath.Join(temporary, "cold-verdict-edges-*"))
	require.NoError(t, err)
	assert.Empty(t, left)
}

func TestACheckerSeesTheNamesOfTheShape(t *testing.T) {
	testenv.Need(t, "gcc")
	files := map[string]string{
		"input.shape":  "cases t: int 1..3 {\n  n: int 1..9, from: int 1..n\n  roads: tree(n)\n  repeat 2 { either { \"in\", x: int 1..9 } or { \"out\", x: int 1..9, y: real 0..1 places 1 } }\n}\n",
		"verdict.toml": "[compare]\nscript = \"check.star\"\n",
		"a.c":          "#include <stdio.h>\nint main(void) { int t; if (scanf(\"%d\", &t) != 1) return 1; printf(\"%d\\n\", t); return 0; }\n",
		"check.star": `def decide(case, got, other):
    v = case.values
    for c in v.cases:
        if len(c.roads) != c.n - 1 or c["from"] > c.n or len(c.bodies) != 2:
            return reject("not so")
        for b in c.bodies:
            if b.branch == 2 and b.y > 1 or b.x > 9:
                return reject("nor so")
    return accept() if got.ints == [v.t] else reject("not %d" % v.t)
`,
		"cases.md": "# Samples\n\n## one\n```input\n1\n2 1\n2 1\nin 3\nout 4 0.5\n```\n",
	}
	s := folder(t, files)
	got := s.run(t, "try", "--edges")
	assert.Equal(t, 0, got.status, got.out+got.errors)
	assert.Contains(t, got.out, "the checker judges them, and needs no expected output")
	files["check.star"] = strings.ReplaceAll(files["check.star"], "reject(\"not so\")", "reject(other.text)")
	s = folder(t, files)
	got = s.run(t, "try", "--edges")
	assert.Contains(t, got.out, "there is no reference to answer them")
	files["cases.md"] = strings.Replace(files["cases.md"], "2 1\n2 1", "2 3\n2 1", 1)
	s = folder(t, files)
	got = s.run(t, "try")
	assert.Equal(t, 70, got.status)
	assert.Contains(t, strings.Join(strings.Fields(got.out), " "), "does not have its shape, so there are no input.values: line 2, 2nd value: from is 3, outside 1..2 (n)")
}

func TestWhatAPersonWroteMakesInputs(t *testing.T) {
	files := map[string]string{
		"verdict.toml": "[make]\nscript = \"make.star\"\n", "a.py": "",
		"make.star": `def make(rng, size):
    n = 2 + int(8 * size)
    return [n, rng.several(1, 100, n), rng.shuffled(["ice", "core"]), rng.choice([1.5]), "end %d" % rng.int(7, 7)]
`,
	}
	s := folder(t, files)
	got := s.run(t, "shape", "make", "--seed", "3", "--size", "1")
	require.Equal(t, 0, got.status, got.errors)
	assert.Regexp(t, `^10\n(\d+ ){9}\d+\n(ice core|core ice)\n1\.5\nend 7\n$`, got.out)
	assert.Equal(t, got.out, s.run(t, "shape", "make", "--seed", "3", "--size", "1").out)
	assert.NotEqual(t, got.out, s.run(t, "shape", "make", "--seed", "4", "--size", "1").out)

	// With a shape beside, what is generated is checked against it.
	files["input.shape"] = "n: int 1..5\nw: int[n] 1..100 distinct\n"
	s = folder(t, files)
	got = s.run(t, "shape", "make", "--seed", "3", "--size", "1")
	assert.Equal(t, 64, got.status)
	assert.Contains(t, got.errors, "what make.star makes with the seed 3 and the size 1 does not have the shape that input.shape says: line 1, 1st value: n is 10, outside 1..5")
	got = s.run(t, "shape", "make", "--seed", "3", "--style", "sorted")
	assert.Equal(t, 0, got.status, "with a style it is the shape that makes: %s", got.errors)

	for script, says := range map[string]string{
		"def make(rng, size):\n    return 5\n":                       "make returned 5; it must return the input",
		"def make(rng, size):\n    return [{}]\n":                    "make returned {} on a line, where a text or a number was expected",
		"def make(rng, size):\n    return rng.int(3, 1)\n":           "rng.int(3, 1): no integer lies there",
		"def make(rng, size):\n    return rng.several(1, 3, 9)\n":    "there are not so many",
		"def make(rng, size):\n    return rng.choice([])\n":          "there is nothing to choose from",
		"def mak(rng, size):\n    return 5\n":                        "make.star defines no make; write def make(rng, size):",
		"def make(rng, size):\n    return \"1\\n2\"\n    accept()\n": "undefined: accept",
	} {
		files["make.star"] = script
		s = folder(t, files)
		got := s.run(t, "shape", "make")
		assert.Equal(t, 64, got.status, script)
		assert.Contains(t, got.errors, says)
	}
	files["verdict.toml"] = "[make]\nprogram = \"gen.py\"\n"
	files["gen.py"] = "import sys\nprint(int(float(sys.argv[2]) * 4) + 1)\nprint(*range(1, 2 + int(float(sys.argv[2]) * 4)))\nsys.exit(int(sys.argv[1]) == 9)\n"
	s = folder(t, files)
	got = s.run(t, "shape", "make", "--seed", "2", "--size", "0.5", "--count", "2", "--out", "cases/more")
	assert.Equal(t, 0, got.status, got.errors)
	assert.Equal(t, "3\n1 2 3\n", read(t, s, filepath.Join("cases", "more", "seed-3.in")))
	got = s.run(t, "shape", "make", "--seed", "9")
	assert.Equal(t, 64, got.status)
	assert.Contains(t, got.errors, "the generator gen.py ended with exit status 1 (with the seed 9 and the size 0.2)")
	for config, says := range map[string]string{
		"[make]\n": "[make] names nothing that makes inputs", "[make]\nscript = \"a.py\"\n": "is no script", "[make]\nscript = \"gone.star\"\n": "there is no file",
		"[make]\nscript = \"make.star\"\nprogram = \"gen.py\"\n": "both make inputs; take one of them out", "[make]\nscrip = \"make.star\"\n": `did you mean "script"?`,
	} {
		files["verdict.toml"] = config
		s = folder(t, files)
		got := s.run(t, "shape", "make")
		assert.Equal(t, 64, got.status, config)
		assert.Contains(t, got.errors, says)
	}
}

func TestAFunctionsArgumentsHaveAShape(t *testing.T) {
	files := map[string]string{
		"input.shape":  "temps: int[0..9] -5..5, limit: int 0..1e9\n",
		"verdict.toml": "[call]\nname = \"most\"\ntakes = [\"temps: int[]\", \"limit: long\"]\nreturns = \"long\"\n[[solution]]\nfile = \"most.py\"\nrole = \"reference\"\n",
		"most.py":      "def most(temps, limit):\n    return max(temps + [0]) * limit\n",
		"wrong.py":     "def most(temps, limit):\n    return max(temps) * limit\n",
		"cases.md":     "# Samples\n\n## one\n```call\ntemps = [1, 2]\nlimit = 3\n```\n```returns\n6\n```\n\n## two\n```call\ntemps = [1, 9]\nlimit = 3\n```\n",
	}
	s := folder(t, files)
	got := s.run(t, "shape", "check")
	assert.Equal(t, 1, got.status, got.errors)
	assert.Contains(t, got.out, "samples/two: line 1: temps[1] is 9, outside -5..5")
	got = s.run(t, "shape", "make", "--seed", "1", "--size", "0")
	assert.Equal(t, 0, got.status, got.errors)
	assert.Regexp(t, `^temps: \[\]\nlimit: \d+\n$`, got.out)
	got = s.run(t, "try", "wrong.py", "--edges", "--group", "edges")
	assert.Equal(t, 1, got.status, got.errors)
	assert.Regexp(t, `most\.py answers (all|\d+) of them`, got.out, "on a busy machine it has not the time for all")
	assert.Contains(t, got.out, "runtime error")
	files["input.shape"] = "temps: int[0..9] -5..5, limits: int 0..1e9\n"
	s = folder(t, files)
	got = s.run(t, "shape", "check")
	assert.Equal(t, 64, got.status)
	assert.Contains(t, got.errors, "input.shape:1: column 25: the argument 2 of the function is limit; name this field so")
}

func TestCtrlCEndsTheMakingOfEdgeCases(t *testing.T) {
	for _, wait := range []time.Duration{20, 100, 400, 900} {
		s := folder(t, map[string]string{
			"input.shape": "n: int 1..2e5, m: int 0..2e5\nw: int[n] 1..1e9\ng: graph(n, m)\n", "a.py": "",
			"ref.py":       "import time\nwhile True: pass\n",
			"verdict.toml": "[limits]\ntime = \"30s\"\n[[solution]]\nfile = \"ref.py\"\nrole = \"reference\"\n",
		})
		scratch := t.TempDir()
		s.env = []string{"TMPDIR=" + scratch}
		cmd := s.command(t, "try", "--edges", "a.py")
		var out bytes.Buffer
		cmd.Stdout, cmd.Stderr = &out, &out
		require.NoError(t, cmd.Start())
		time.Sleep(wait * time.Millisecond)
		began := time.Now()
		require.NoError(t, cmd.Process.Signal(os.Interrupt))
		cmd.Wait()
		assert.Less(t, time.Since(began), 5*time.Second, "after %d ms", wait)
		assert.Equal(t, 130, shellStatus(cmd), "after %d ms: %s", wait, out.String())
		left, err := os.ReadDir(scratch)
		require.NoError(t, err)
		assert.Empty(t, left, "after %d ms", wait)
	}
}
