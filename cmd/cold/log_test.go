package main

import (
	"encoding/csv"
	"os"
	"path/filepath"
	"strings"
	"testing"

	"github.com/santhosh-tekuri/jsonschema/v6"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"coldverdict/internal/testenv"
)

// validates checks JSON against a schema of the manual.
func validates(t *testing.T, schema, printed string) {
	t.Helper()
	compiled, err := jsonschema.NewCompiler().Compile("../../docs/" + schema)
	require.NoError(t, err)
	value, err := jsonschema.UnmarshalJSON(strings.NewReader(printed))
	require.NoError(t, err)
	assert.NoError(t, compiled.Validate(value))
}

const sumOfTwo = "a, b = map(int, input().split())\nprint(a + b)\n"

func TestEveryTryIsInTheLog(t *testing.T) {
	testenv.Need(t, "python3")
	s := folder(t, map[string]string{"add.py": strings.Replace(sumOfTwo, "+", "-", 1), "cases.md": caseText})
	s.env = []string{"XDG_STATE_HOME=" + t.TempDir()}
	assert.Contains(t, s.run(t, "log").errors, "nothing was tried yet")
	require.Equal(t, 1, s.run(t, "try").status)
	require.NoError(t, os.WriteFile(filepath.Join(s.dir, "add.py"), []byte(sumOfTwo), 0o644))
	require.Equal(t, 0, s.run(t, "try", "--case", "one", "--time", "9s").status)
	require.Equal(t, 0, s.run(t, "try").status)

	got := s.run(t, "log")
	assert.Equal(t, 0, got.status, got.errors)
	assert.Regexp(t, `teams: opened \d\d:\d\d, solved after \d+ s with try 3 in add.py; 3 tries, 1 not accepted`, got.out)
	assert.Regexp(t, `1  \d\d:\d\d +\d+ s  add.py    WA +0 of 1`, got.out)

	shown := s.run(t, "log", "show", "1", "--source")
	assert.Equal(t, strings.Replace(sumOfTwo, "+", "-", 1), shown.out)
	assert.Contains(t, s.run(t, "log", "show", "1").out, "WA  samples  0 of 1")
	assert.Contains(t, s.run(t, "log", "diff", "1", "3").out, "-print(a - b)\n+print(a + b)\n")
	assert.Contains(t, s.run(t, "log", "diff", "2", "3").out, "the source is the same")

	t.Run("for other programs", func(t *testing.T) {
		for _, args := range [][]string{{"log"}, {"log", "problems"}} {
			got := s.run(t, append(args, "--json")...)
			require.Equal(t, 0, got.status, got.errors)
			validates(t, "log.schema.json", got.out)
			rows, err := csv.NewReader(strings.NewReader(s.run(t, append(args, "--csv")...).out)).ReadAll()
			require.NoError(t, err)
			assert.Greater(t, len(rows), 1)
		}
	})
	t.Run("a source comes back, and what stood there is kept", func(t *testing.T) {
		path := filepath.Join(s.dir, "add.py")
		require.NoError(t, os.WriteFile(path, []byte("# newer\n"), 0o644))
		assert.Equal(t, 64, s.run(t, "log", "restore", "1").status, "it asks, and there is no terminal")
		text, err := os.ReadFile(path)
		require.NoError(t, err)
		require.Equal(t, "# newer\n", string(text))
		got := s.run(t, "log", "restore", "1", "--yes")
		require.Equal(t, 0, got.status, got.errors)
		assert.Contains(t, got.out, "kept what stood there as number 4")
		text, err = os.ReadFile(path)
		require.NoError(t, err)
		assert.Contains(t, string(text), "a - b")
		assert.Equal(t, "# newer\n", s.run(t, "log", "show", "4", "--source").out)
		assert.Contains(t, s.run(t, "log").out, "; 3 tries, 1 not accepted", "what was only kept is no try")
	})
	t.Run("forgotten", func(t *testing.T) {
		assert.Equal(t, 64, s.run(t, "log", "forget").status)
		assert.Contains(t, s.run(t, "log", "forget", "--yes").out, "deleted ")
		got := s.run(t, "log")
		assert.Equal(t, 64, got.status)
		assert.Contains(t, got.errors, "nothing was tried in")
	})
}

func TestTheVerdictStandsWhereTheLogCannotBeWritten(t *testing.T) {
	testenv.Need(t, "python3")
	s := folder(t, map[string]string{"add.py": sumOfTwo, "cases.md": caseText, "file": ""})
	s.env = []string{"XDG_STATE_HOME=" + filepath.Join(s.dir, "file")}
	got := s.run(t, "try")
	assert.Equal(t, 0, got.status)
	assert.Contains(t, got.out, "add.py: accepted")
	assert.Contains(t, got.errors, "note: the log does not have this: ")

	config := t.TempDir()
	require.NoError(t, os.MkdirAll(filepath.Join(config, "cold-verdict"), 0o755))
	require.NoError(t, os.WriteFile(filepath.Join(config, "cold-verdict", "settings.toml"), []byte("history = false\n"), 0o644))
	state := t.TempDir()
	s.env = []string{"XDG_STATE_HOME=" + state, "XDG_CONFIG_HOME=" + config}
	require.Equal(t, 0, s.run(t, "try").status)
	entries, err := os.ReadDir(state)
	require.NoError(t, err)
	assert.Empty(t, entries, "nothing is kept of who wants nothing kept")
}

func TestPartsAreAnsweredByThemselves(t *testing.T) {
	testenv.Need(t, "python3")
	files := map[string]string{
		"verdict.toml": "parts = [\"sum\", \"product\"]\n",
		"log.txt":      "6 7\n",
		"cases.md": "# Sum\n## small\n```input\n1 2\n```\n```output\n3\n```\n## log\n```input file=log.txt\n```\n" +
			"# Product\n## small\n```input\n1 2\n```\n```output\n2\n```\n## log\n```input file=log.txt\n```\n",
	}
	const read = "import sys\na, b = map(int, sys.stdin.read().split())\n"
	for name, row := range map[string]struct {
		sources map[string]string
		toml    string
	}{
		"one program prints the answers in order": {map[string]string{"log.py": read + "print(a + b)\nprint(a * b)\n"}, ""},
		"one program names its answers":           {map[string]string{"log.py": read + "print('Product:', a * b)\nprint('part 1 =', a + b)\n"}, ""},
		"a program is told the part":              {map[string]string{"log.py": read + "print(a + b if sys.argv[1] == 'sum' else a * b)\n"}, "[parts]\nnames = [\"sum\", \"product\"]\nargument = true\n"},
		"a source a part":                         {map[string]string{"sum.py": read + "print(a + b)\n", "log2.py": read + "print(1)\n", "log-2.py": read + "print(a * b)\n"}, ""},
	} {
		t.Run(name, func(t *testing.T) {
			s := folder(t, files)
			for file, text := range row.sources {
				require.NoError(t, os.WriteFile(filepath.Join(s.dir, file), []byte(text), 0o644))
			}
			if row.toml != "" {
				require.NoError(t, os.WriteFile(filepath.Join(s.dir, "verdict.toml"), []byte(row.toml), 0o644))
			}
			got := s.run(t, "try")
			require.Equal(t, 0, got.status, got.out+got.errors)
			assert.Contains(t, got.out, "\nsum: 13, new; product: 42, new\n")
			require.Equal(t, 0, s.run(t, "case", "keep", "sum/log", "--yes").status)
			require.Equal(t, 0, s.run(t, "case", "refuse", "product/log", "--answer", "42").status)
			got = s.run(t, "try")
			assert.Equal(t, 1, got.status)
			assert.Contains(t, got.out, "\nsum: 13 kept; product: 42, refused\n")
			assert.Contains(t, s.run(t, "log").out, ", open;", "one part is not the problem")
			refused := s.run(t, "case", "keep", "product/log", "--answer", "42")
			assert.Equal(t, 64, refused.status)
			assert.Contains(t, refused.errors, "both an expected answer and a refused one")
			assert.Contains(t, s.run(t, "case", "keep", "sum/log", "--answer", "13").out, "confirmed in cases.md")
			assert.Contains(t, s.run(t, "try").out, "\nsum: 13 confirmed; product: 42, refused\n")
		})
	}
}

func TestASourceWithoutCasesIsSimplyRun(t *testing.T) {
	testenv.Need(t, "python3")
	s := folder(t, map[string]string{"scratch.py": "import sys\nprint(6 * 7)\nprint('aside', file=sys.stderr)\nsys.stdin.read()\n"})
	got := s.run(t, "try")
	assert.Equal(t, 10, got.status, "nothing was judged")
	assert.Equal(t, "42\n", got.out)
	assert.Contains(t, got.errors, "it is run without input")
	assert.Contains(t, got.errors, "scratch.py: ran to its end")

	s = folder(t, map[string]string{"add.py": sumOfTwo + "import sys\nprint('aside', file=sys.stderr)\n", "cases.md": caseText})
	got = s.run(t, "try", "--show")
	assert.Equal(t, 0, got.status, got.errors)
	assert.Contains(t, got.out, "    standard output\n    3\n    standard error\n    aside\n")
}

func TestTheClockOfAProblemStopsWhenItIsReady(t *testing.T) {
	testenv.Need(t, "python3")
	s := folder(t, map[string]string{})
	s.env = []string{"XDG_STATE_HOME=" + t.TempDir()}
	require.Equal(t, 0, s.run(t, "open", "sums").status)
	inside := session{dir: filepath.Join(s.dir, "sums"), env: s.env}
	require.NoError(t, os.WriteFile(filepath.Join(inside.dir, "add.py"), []byte(sumOfTwo), 0o644))
	require.NoError(t, os.WriteFile(filepath.Join(inside.dir, "cases.md"), []byte(caseText), 0o644))
	require.NoError(t, os.WriteFile(filepath.Join(inside.dir, "input.shape"), []byte("a: int 1..9, b: int 1..9\n"), 0o644))
	require.NoError(t, os.WriteFile(filepath.Join(inside.dir, "brute.py"), []byte(sumOfTwo), 0o644))
	assert.Regexp(t, `since then\n  sums  open`, inside.run(t, "clock").out)
	assert.Contains(t, inside.run(t, "clock", "start").errors, "a clock goes on for sums already")
	require.NoError(t, os.WriteFile(filepath.Join(inside.dir, "verdict.toml"), []byte("[limits]\ntime = \"2s\"\nmemory = \"256MiB\"\n"), 0o644))
	got := inside.run(t, "ready", "add.py", "--seconds", "30")
	require.Equal(t, 0, got.status, got.out+got.errors)
	assert.Contains(t, got.errors, "ready after ")
	assert.Equal(t, 64, inside.run(t, "clock").status)
	require.Equal(t, 0, s.run(t, "open", "other").status)
	assert.Contains(t, s.run(t, "clock", "start", "--length", "1h", "sums", "other").out, "0 of 2 problems solved")
	assert.Contains(t, s.run(t, "clock", "wrong", "other").out, "1 wrong submission")
	assert.Contains(t, s.run(t, "clock", "stop", "other").out, "other  solved")
	for args, says := range map[string]string{
		"clock start --length never": "write a time such as 2h30m",
		"clock start nowhere":        "there is no folder nowhere",
		"clock strat":                `did you mean "clock start"`,
	} {
		got := s.run(t, strings.Fields(args)...)
		assert.Equal(t, 64, got.status, args)
		assert.Contains(t, got.errors, says)
	}
	assert.Equal(t, 0, s.run(t, "clock", "stop", "--all").status)
	assert.Contains(t, s.run(t, "clock").errors, "no clock goes on")
}

func TestAnswersToPartsStandSideBySide(t *testing.T) {
	testenv.Need(t, "python3")
	s := folder(t, map[string]string{
		"verdict.toml": "parts = 2\n", "in.txt": "3 4\n",
		"cases.md": "# Part 1\n## real\n```input file=in.txt\n```\n# Part 2\n## real\n```input file=in.txt\n```\n",
		"a.py":     "print(7)\n", "b.py": "print(8)\nprint(12)\n", "c.py": "print('part 2:', 13)\nprint('part 1:', 7)\n",
	})
	got := s.run(t, "try", "a.py", "b.py", "c.py")
	assert.Equal(t, 1, got.status, "they cannot all be right")
	assert.Contains(t, got.out, "\n  a.py, c.py: 7; b.py: 8\n")
	assert.Contains(t, strings.Join(strings.Fields(got.out), " "), "part-1: a.py, c.py 7, new / b.py 8, new; part-2: a.py no answer yet / b.py 12, new / c.py 13, new")
	got = s.run(t, "try", "a.py", "c.py")
	assert.Equal(t, 10, got.status, "who has not answered yet differs from nobody")
	assert.NotContains(t, got.out, "differ")
}
