package main

import (
	"encoding/json"
	"fmt"
	"os"
	"path/filepath"
	"regexp"
	"strings"
	"testing"

	"github.com/santhosh-tekuri/jsonschema/v6"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"coldverdict/internal/testenv"
)

func TestEventsAreStreamedAsLines(t *testing.T) {
	testenv.Need(t, "python3")
	s := folder(t, map[string]string{"add.py": sumOfTwo, "cases.md": caseText + "## two\n```input\n2 2\n```\n```output\n5\n```\n"})
	got := s.run(t, "try", "--json-lines")
	assert.Equal(t, 1, got.status, got.errors)
	schema, err := jsonschema.NewCompiler().Compile("../../docs/lines.schema.json")
	require.NoError(t, err)
	var events []string
	for line := range strings.Lines(got.out) {
		value, err := jsonschema.UnmarshalJSON(strings.NewReader(line))
		require.NoError(t, err)
		require.NoError(t, schema.Validate(value))
		one := value.(map[string]any)
		events = append(events, one["event"].(string))
		if c, ok := one["case"].(map[string]any); ok {
			events = append(events, c["verdict"].(string))
		}
	}
	assert.Equal(t, []string{"begin", "solution", "case", "accepted", "case", "wrong answer", "end"}, events)
	for _, args := range []string{"--json-lines --plain", "--json-lines --json -", "--plain --watch", "--json-lines -r"} {
		assert.Equal(t, 64, s.run(t, append([]string{"try"}, strings.Fields(args)...)...).status, args)
	}
}

func TestEditorsJumpToWhatFailed(t *testing.T) {
	for _, row := range []struct{ needs, file, source, says string }{
		{"g++", "add.cpp", "#include <cstdio>\nint main() {\n    int a = \"x\";\n    return b;\n}\n", `(?s)^add\.cpp:3:\d+: .*\nadd\.cpp:4:12: .*\nadd\.cpp: compile error, line 3`},
		{"python3", "add.py", "def f(x):\n    return 1 // x\n\nprint(f(0))\n", `add\.py:2:1: .*ZeroDivisionError.*\ncases\.md:2:1: add\.py: samples/one: runtime error`},
		{"javac", "Add.java", "class Add {\n    public static void main(String[] args) {\n        int x = y;\n    }\n}\n", `^Add\.java:3:\d+: cannot find symbol`},
		{"rustc", "add.rs", "fn main() {\n    let x: i32 = \"a\";\n}\n", `^add\.rs:2:\d+: `},
		{"go", "add.go", "package main\n\nfunc main() {\n\tx := 1\n}\n", `^add\.go:4:2: declared and not used: x`},
		{"node", "add.js", "const f = () => null.x;\nf();\n", `^add\.js:1:\d+: .*TypeError`},
		{"python3", "add.py", "print(9)\n", `^cases\.md:2:1: add\.py: samples/one: wrong answer, line 1: expected 3, got 9\nadd\.py: wrong answer \(1 case: 1 wrong answer\)\n$`},
	} {
		t.Run(row.file+" "+row.needs, func(t *testing.T) {
			testenv.Need(t, row.needs)
			s := folder(t, map[string]string{row.file: row.source, "cases.md": caseText})
			got := s.run(t, "try", "--plain")
			assert.Equal(t, 1, got.status, got.errors)
			assert.Regexp(t, regexp.MustCompile(row.says), got.out)
		})
	}
}

// sharedProblem has groups with points that need each other, a checkerless open case, and three solutions.
func sharedProblem(t *testing.T) session {
	var cases strings.Builder
	for _, group := range []string{"Late", "Samples", "Middle"} {
		fmt.Fprintf(&cases, "# %s\n", group)
		for n := range 5 {
			fmt.Fprintf(&cases, "## c%d\n```input\n%d %d\n```\n```output\n%d\n```\n", n, n, len(group), n+len(group))
		}
	}
	return folder(t, map[string]string{
		"verdict.toml": "[[group]]\nname = \"late\"\npoints = 10\nneeds = [\"samples\"]\n[[group]]\nname = \"middle\"\npoints = 20\nscore = \"shared\"\nneeds = [\"samples\"]\n" +
			"[[solution]]\nfile = \"right.py\"\n[[solution]]\nfile = \"wrong.py\"\nexpect = \"wrong answer\"\n[[solution]]\nfile = \"half.py\"\nexpect = \"wrong answer\"\n",
		"cases.md": cases.String(), "right.py": sumOfTwo,
		"wrong.py": "a, b = map(int, input().split())\nprint(a + b if a != 3 else 0)\n", // in every group
		"half.py":  "a, b = map(int, input().split())\nprint(a + b if (a, b) != (2, 6) else 0)\n",
	})
}

func TestSharesTogetherAreTheWholeRun(t *testing.T) {
	testenv.Need(t, "python3")
	s := sharedProblem(t)
	plain := func(text string) any { // without what differs from run to run
		var all map[string]any
		require.NoError(t, json.Unmarshal([]byte(text), &all))
		var kept []any
		for _, one := range all["solutions"].([]any) {
			solution := one.(map[string]any)
			var cases []string
			for _, c := range solution["cases"].([]any) {
				cases = append(cases, fmt.Sprint(c.(map[string]any)["name"], c.(map[string]any)["verdict"], c.(map[string]any)["message"]))
			}
			kept = append(kept, []any{solution["file"], solution["verdict"], solution["points"], solution["points_possible"], solution["groups"], cases})
		}
		return kept
	}
	for _, args := range [][]string{{"right.py"}, {"wrong.py"}, {"half.py"}, {"right.py", "wrong.py", "half.py"}, {"--every-solution"}, {"half.py", "--case", "late", "--case", "middle/c2"}} {
		whole := s.run(t, append([]string{"try", "--json", "whole.json"}, args...)...)
		for _, n := range []int{1, 3, 16} {
			var files []string
			for k := n; k >= 1; k-- { // in any order
				file := fmt.Sprintf("share-%d-%d.json", k, n)
				files = append(files, file)
				got := s.run(t, append([]string{"try", "--share", fmt.Sprintf("%d/%d", k, n), "--json", file}, args...)...)
				require.NotEqual(t, 64, got.status, got.errors)
			}
			merged := s.run(t, append([]string{"merge", "--json", "merged.json", "--report", "merged.xml"}, files...)...)
			assert.Equal(t, whole.status, merged.status, "%v in %d: %s", args, n, merged.errors)
			text := func(name string) string {
				text, err := os.ReadFile(filepath.Join(s.dir, name))
				require.NoError(t, err)
				return string(text)
			}
			validates(t, "try.schema.json", text("merged.json"))
			validates(t, "try.schema.json", text(files[0]))
			assert.Equal(t, plain(text("whole.json")), plain(text("merged.json")), "%v in %d", args, n)
			if n == 3 {
				missing := s.run(t, "merge", files[0], files[2])
				assert.Equal(t, 64, missing.status)
				assert.Contains(t, missing.errors, "share 2/3 is missing")
			}
		}
	}
	for _, share := range []string{"0/3", "4/3", "1", "a/b", "1/100000"} {
		got := s.run(t, "try", "right.py", "--share", share)
		assert.Equal(t, 64, got.status)
		assert.Contains(t, got.errors, "such as 3/8")
	}
	assert.Contains(t, s.run(t, "merge", "whole.json").errors, "is no share of a run")
}

// fromManual returns what the manual shows of a file, behind "$ cat NAME".
func fromManual(t *testing.T, page, name string) string {
	text, err := os.ReadFile(filepath.Join("..", "..", "docs", page))
	require.NoError(t, err)
	m := regexp.MustCompile(`    \$ cat ` + regexp.QuoteMeta(name) + `\n((?:    .+\n)+)`).FindSubmatch(text)
	require.NotNil(t, m)
	return strings.ReplaceAll(strings.TrimPrefix(string(m[1]), "    "), "\n    ", "\n")
}

func TestTheJobsOfTheManualMakeOneRun(t *testing.T) {
	testenv.Need(t, "python3")
	share, merge := fromManual(t, "shares.md", "share.sh"), fromManual(t, "shares.md", "merge.sh")
	s := sharedProblem(t)
	path, err := binary()
	require.NoError(t, err)
	s.env = append(s.env, "PATH="+filepath.Dir(path)+":"+os.Getenv("PATH"))
	bash := func(script string, env ...string) (string, int) { // as a job of an array is run
		cmd := s.command(t)
		cmd.Path, cmd.Args, cmd.Env = "/bin/bash", []string{"bash", "-c", script}, append(cmd.Env, env...)
		out, _ := cmd.CombinedOutput()
		return string(out), cmd.ProcessState.ExitCode()
	}
	for k := 1; k <= 8; k++ {
		out, status := bash(share, fmt.Sprintf("SLURM_ARRAY_TASK_ID=%d", k))
		require.Contains(t, []int{0, 10}, status, out) // 10: more jobs than solutions
	}
	out, status := bash(merge)
	assert.Equal(t, 0, status, out)
	assert.Equal(t, 3, strings.Count(out, "15 cases"), "every solution has all of its cases")
	assert.FileExists(t, filepath.Join(s.dir, "whole.xml"))
}
