package edges

import (
	"os"
	"path/filepath"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"coldverdict/core/box"
	"coldverdict/core/judge"
	"coldverdict/core/problem"
	"coldverdict/core/script"
	"coldverdict/core/shape"
	"coldverdict/core/toolchain"
	"coldverdict/core/verdict"
	"coldverdict/internal/testenv"
)

func TestMain(m *testing.M) { testenv.Main(m, box.Supervise, script.Main) }

// added makes edge cases of a problem with these files, and takes them away at the
// end of the test.
func added(t *testing.T, most int, files map[string]string) (*Added, error) {
	t.Helper()
	dir := t.TempDir()
	for name, text := range files {
		require.NoError(t, os.MkdirAll(filepath.Dir(filepath.Join(dir, name)), 0o755))
		require.NoError(t, os.WriteFile(filepath.Join(dir, name), []byte(text), 0o644))
	}
	p, err := problem.Load(dir, problem.Vocabulary{Modes: []string{"lines"}, AnyOrders: []string{"lines"}, IsSource: toolchain.Ours().IsSource})
	require.NoError(t, err)
	before := len(p.Cases)
	e, err := Add(t.Context(), p, Options{Env: judge.Env{Cache: testenv.SharedDir()}, Most: most}, func(string) {})
	assert.Len(t, p.Cases, before, "the problem itself stays as it is")
	if err == nil {
		t.Cleanup(func() {
			assert.NoError(t, e.Close())
			assert.NoDirExists(t, e.scratch.Dir)
		})
	}
	return e, err
}

const sums = "import sys\nprint(sum(map(int, sys.stdin.read().split()[1:])))\n"

func TestEdgeCasesGetTheAnswersOfTheReference(t *testing.T) {
	e, err := added(t, 6, map[string]string{
		"input.shape": "n: int 1..50\nw: int[n] 1..9 rising\n", "sum.py": sums, "cases/edges/mine.in": "1\n5\n", "cases/edges/mine.out": "5\n",
		"verdict.toml": "[[solution]]\nfile = \"sum.py\"\nrole = \"reference\"\n",
	})
	require.NoError(t, err)
	assert.Equal(t, problem.ShapeFile, e.From)
	assert.Equal(t, "sum.py answers all of them", e.Answers)
	assert.Positive(t, e.Made)
	require.Len(t, e.Problem.Cases, 1+e.Made)
	for _, c := range e.Problem.Cases[1:] {
		assert.Equal(t, "edges-2", c.Group, "there is a group of that name already")
		assert.True(t, strings.HasPrefix(c.Name, "edges-2/n-"), c.Name)
		assert.Contains(t, c.Reason, "generated from input.shape: n-")
		assert.Contains(t, c.Reason, "expected is what sum.py printed")
		require.Len(t, c.Accepted, 1)
		fault, err := e.Problem.CheckShape(c.Input, shape.Options{})
		require.NoError(t, err)
		assert.Nil(t, fault)
	}
}

func TestWhereNoAnswerIsKnownNothingIsCompared(t *testing.T) {
	for _, tt := range []struct {
		name  string
		files map[string]string
		says  string
	}{
		{"no reference", nil, "there is no reference to answer them; they are held to the limits only"},
		{"several parts", map[string]string{"verdict.toml": "[[solution]]\nfile = \"sum.py\"\nargs = [\"a\"]\ngroups = [\"cases\"]\n", "cases/1.in": "1\n2\n"}, "the problem has several parts"},
		{"a reference that does not build", map[string]string{"verdict.toml": "[[solution]]\nfile = \"bad.py\"\nrole = \"reference\"\n", "bad.py": "print(\n"}, "bad.py answers none of them, and they are held to the limits only"},
		{"a checker that looks at what is expected", map[string]string{"verdict.toml": "[compare]\nscript = \"check.star\"\n", "check.star": "def decide(case, got, known):\n    return accept() if known.text else reject(\"\")\n"}, "there is no reference"},
	} {
		t.Run(tt.name, func(t *testing.T) {
			files := map[string]string{"input.shape": "n: int 1..2\nw: int[n] 1..9 rising\n", "sum.py": sums}
			for name, text := range tt.files {
				files[name] = text
			}
			e, err := added(t, 3, files)
			require.NoError(t, err)
			assert.Contains(t, e.Answers, tt.says)
			for _, c := range e.Problem.Cases[len(e.Problem.Cases)-e.Made:] {
				assert.Empty(t, c.Accepted)
				assert.False(t, c.Compare.Custom())
			}
			for _, s := range e.Problem.Solutions {
				assert.True(t, s.Runs(Group), "each part runs them")
			}
		})
	}
}

func TestWhatJudgesWithoutAnAnswerJudgesEdgeCases(t *testing.T) {
	e, err := added(t, 3, map[string]string{
		"input.shape": "n: int 1..9\n", "a.py": "print(int(input()) + 1)\n", "verdict.toml": "[compare]\nscript = \"check.star\"\n",
		"check.star": "def decide(case, got, known):\n    return accept() if got.ints == [case.values.n + 1] else reject(\"not one more\")\n",
	})
	require.NoError(t, err)
	assert.Equal(t, "the checker judges them, and needs no expected output", e.Answers)
	judged := 0
	j, err := judge.Open(e.Problem, judge.Env{Cache: testenv.SharedDir()})
	require.NoError(t, err)
	defer func() { assert.NoError(t, j.Close()) }()
	prepared, err := j.Prepare(t.Context(), []problem.Solution{{File: "a.py"}}, judge.BuildOptions{}, func(judge.Event) {})
	require.NoError(t, err)
	for printed, err := range prepared.Output(t.Context(), 0, e.Problem.Cases, judge.RunOptions{}, func(judge.Event) {}) {
		require.NoError(t, err)
		assert.Equal(t, verdict.Accepted, printed.Outcome.Verdict, printed.Outcome.Message)
		judged++
	}
	assert.Equal(t, e.Made, judged)
}

func TestWhatMakesInputsMakesEdgeCasesOfAllSizes(t *testing.T) {
	files := map[string]string{
		"a.py": "", "verdict.toml": "[make]\nscript = \"make.star\"\n",
		"make.star": "def make(rng, size):\n    return [int(100 * size), rng.int(1, 9)]\n",
	}
	e, err := added(t, 3, files)
	require.NoError(t, err)
	assert.Equal(t, "make.star", e.From)
	assert.Equal(t, 20, e.Made)
	sizes := map[string]bool{}
	for _, c := range e.Problem.Cases {
		text, err := c.Input.Head(100)
		require.NoError(t, err)
		sizes[strings.Fields(string(text))[0]] = true
	}
	assert.Len(t, sizes, 5)
	files["make.star"] = "def make(rng, size):\n    return 7\n"
	_, err = added(t, 3, files)
	var wrong *judge.MakerError
	require.ErrorAs(t, err, &wrong)
	assert.ErrorContains(t, err, "the generator make.star failed: make.star:1:1: make returned 7")
	files["make.star"] = "def mak(rng, size):\n    return 7\n"
	_, err = added(t, 3, files)
	assert.ErrorAs(t, err, &wrong)
}
