package grade

import (
	"context"
	"os"
	"path/filepath"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"coldverdict/core/box"
	"coldverdict/core/judge"
	"coldverdict/core/problem"
	"coldverdict/core/script"
	"coldverdict/core/toolchain"
	"coldverdict/core/verdict"
	"coldverdict/internal/testenv"
)

func TestMain(m *testing.M) { testenv.Main(m, box.Supervise, script.Main) }

// folder makes a folder of names and texts, each saved a minute after the one before.
func folder(t *testing.T, files ...[2]string) string {
	t.Helper()
	dir := t.TempDir()
	saved := time.Date(2026, 11, 30, 9, 0, 0, 0, time.UTC)
	for _, file := range files {
		path := filepath.Join(dir, file[0])
		require.NoError(t, os.MkdirAll(filepath.Dir(path), 0o755))
		require.NoError(t, os.WriteFile(path, []byte(file[1]), 0o644))
		saved = saved.Add(time.Minute)
		require.NoError(t, os.Chtimes(path, saved, saved))
	}
	return dir
}

func isSource(name string) bool {
	return strings.HasSuffix(name, ".py") || strings.HasSuffix(name, ".c")
}

func TestHandInsAreThoseOfWhomTheyAreCalledAfter(t *testing.T) {
	dir := folder(t,
		[2]string{"anna (2).py", "print(2)"}, [2]string{"anna.py", "print(1)"},
		[2]string{"ben-2.py", "print(1)"}, // there is no ben
		[2]string{"cleo/bags.py", "import weights\n"}, [2]string{"cleo/weights.py", "w = 1\n"}, [2]string{"cleo/data.txt", "1"},
		[2]string{"dag/first.py", "print(1)"}, [2]string{"dag/second.c", "int main"},
		[2]string{"finn/notes.txt", "I could not"}, [2]string{"gil.py", " \n"},
		[2]string{"README.md", "x"}, [2]string{".hidden.py", "x"}, [2]string{"__MACOSX/anna.py", "x"},
	)
	require.NoError(t, os.Mkdir(filepath.Join(dir, "hilde"), 0o755))
	require.NoError(t, os.Symlink("/etc/passwd", filepath.Join(dir, "jon.py")))
	require.NoError(t, os.Symlink("/etc/passwd", filepath.Join(dir, "cleo", "other.py")))
	people, left, err := Read(dir, isSource, []string{"anna", "ivar"})
	require.NoError(t, err)
	assert.Equal(t, []string{"README.md", "jon.py"}, left, "what a link points to is not read")
	got := map[string][]string{}
	lacks := map[string]string{}
	for _, p := range people {
		for _, one := range p.Tries {
			got[p.Name] = append(got[p.Name], one.Name)
		}
		if p.Lacks != "" {
			lacks[p.Name] = p.Lacks
		}
	}
	assert.Equal(t, map[string][]string{
		"anna": {"anna (2).py", "anna.py"}, "ben-2": {"ben-2.py"}, "cleo": {"cleo/bags.py"}, "dag": {"dag/first.py", "dag/second.c"},
	}, got, "in the order in which they were saved")
	assert.Equal(t, map[string]string{
		"finn": "notes.txt is no source file", "gil": "gil.py is empty", "hilde": "nothing was handed in", "ivar": "nothing was handed in",
	}, lacks)
	assert.Equal(t, []string{"anna", "Björn"}, ReadRoster([]byte("\ufeffanna\r\n\n# the others\nBjörn\nanna\n")))
	_, _, err = Read(filepath.Join(dir, "nowhere"), isSource, nil)
	var mistake *MistakeError
	assert.ErrorAs(t, err, &mistake)
}

const counting = `
def count(least, weights):
    weights.sort()
    low, high, teams = 0, len(weights) - 1, 0
    while low < high:
        if weights[low] + weights[high] >= least:  # they can set off
            teams += 1
            high -= 1
        low += 1
    return teams


least, n = map(int, input().split())
print(count(least, list(map(int, input().split()))))
`

func TestSourcesAreAlikeWhateverTheyCallThings(t *testing.T) {
	renamed := strings.NewReplacer("least", "minimum", "weights", "crates", "teams", "groups", "low", "i", "high", "j", "    ", "\t", "# they can set off", "", "count", "solve").Replace(counting)
	other := "import sys\ndata = sys.stdin.read().split()\nleast = int(data[0])\nrest = sorted(int(x) for x in data[2:])\nbest = 0\nfor k in range(len(rest) // 2 + 1):\n    if all(rest[len(rest) - 2 * k + i] + rest[len(rest) - 1 - i] >= least for i in range(k)):\n        best = max(best, k)\nprint(best)\n"
	more := renamed + "\n\ndef unused(a, b):\n    for x in a:\n        if x in b and x > 3:\n            yield x * 2\n        else:\n            b.append(x)\n"
	compare := func(texts ...string) []Pair {
		var all []handed
		for i, text := range texts {
			all = append(all, newHanded(i, "py", []byte(text)))
		}
		return alike(all)
	}
	assert.Equal(t, []Pair{{A: 0, B: 1, Same: true, Share: 1}}, compare(counting, renamed, other))
	pairs := compare(counting, other, more)
	require.Len(t, pairs, 1, "what was put behind it hides nothing")
	assert.False(t, pairs[0].Same)
	assert.GreaterOrEqual(t, pairs[0].Share, leastShare)
	assert.Empty(t, compare("print(1)\n", "print(2)\n"), "short programs are alike by chance")
	assert.Empty(t, compare(strings.Repeat("x = 1\n", 20), other))

	var class []string
	for range 8 {
		class = append(class, counting)
	}
	same, others := Groups(compare(class...))
	assert.Equal(t, [][]int{{0, 1, 2, 3, 4, 5, 6, 7}}, same, "the very same is told, whoever has it, and once")
	assert.Empty(t, others)
	other2 := strings.ReplaceAll(other, "best", "most") + "print(1 if best > 2 else 0, rest[0] * 3 - least)\n"
	var begun []string // by all with the same lines
	for i, ending := range []string{"print(sum(rest))\n", "for x in rest:\n    print(x + 1)\n", "while rest:\n    print(rest.pop())\n", "print(rest[0] if rest else -1)\n", "print(min(rest), max(rest))\n", "print(*reversed(rest))\n"} {
		begun = append(begun, other2+ending+strings.Repeat("y = [a * b for a, b in zip(rest, rest)]\n", i))
	}
	for _, pair := range compare(begun...) {
		assert.True(t, pair.Share < 1, "what all began with does not count: %v", pair)
	}
}

func TestTheBetterTryIsThatWithMorePoints(t *testing.T) {
	scored := func(points float64) *verdict.Score { return &verdict.Score{Points: points, Possible: 10} }
	for name, row := range map[string]struct {
		a, b Tried
		want bool
	}{
		"more points":                        {Tried{Score: scored(5)}, Tried{Score: scored(4), Passed: 9}, true},
		"accepted, of the same points":       {Tried{Verdict: verdict.Accepted}, Tried{Verdict: verdict.WrongAnswer, Passed: 9}, true},
		"more cases":                         {Tried{Passed: 3}, Tried{Passed: 2}, true},
		"the same: the later one stands":     {Tried{Passed: 3}, Tried{Passed: 3}, false},
		"points of a compile error are none": {Tried{Score: scored(0)}, Tried{Score: scored(1)}, false},
	} {
		assert.Equal(t, row.want, better(&row.a, &row.b), name)
	}
}

func TestAClassIsJudgedEachByItself(t *testing.T) {
	testenv.Need(t, "python3")
	home := folder(t, [2]string{"verdict.toml", "[[group]]\nname = \"samples\"\npoints = 10\n"},
		[2]string{"cases.md", "# Samples\n## one\n```input\n1 2\n```\n```output\n3\n```\n# Open\n## any\n```input\n2 2\n```\n"})
	p, err := problem.Load(home, problem.Vocabulary{Modes: []string{"lines"}, IsSource: isSource})
	require.NoError(t, err)
	const right = "a, b = map(int, input().split())\nprint(a + b)\n"
	dir := folder(t, [2]string{"anna.py", right}, [2]string{"ben.py", "from anna import a, b\nprint(a + b)\n"}, [2]string{"cleo.py", "print(\n"},
		[2]string{"dag.py", "print(3)\n"}, [2]string{"finn/a.py", right}, [2]string{"finn/b.py", "print(0)\n"})
	people, _, err := Read(dir, isSource, []string{"gil"})
	require.NoError(t, err)
	events := 0
	run := func(last bool) *Result {
		o := Options{Env: judge.Env{Languages: toolchain.Ours()}, Last: last, Each: func(person, try int, e judge.Event) { events++ }}
		r, err := Run(context.Background(), p, people, o, func(Progress) {})
		require.NoError(t, err)
		return r
	}
	r := run(false)
	assert.Equal(t, 5, r.Pupils)
	verdicts := map[string]verdict.Verdict{}
	given := map[string]float64{}
	for _, one := range r.People {
		if one.Counts >= 0 {
			got := one.Tries[one.Counts]
			require.NotNil(t, got.Score, one.Name)
			verdicts[one.Name], given[one.Name] = got.Verdict, got.Score.Points
		}
	}
	assert.Equal(t, map[string]verdict.Verdict{
		"anna": verdict.Accepted, "ben": verdict.RuntimeError, "cleo": verdict.CompileError, "dag": verdict.Accepted, "finn": verdict.Accepted,
	}, verdicts, "nobody finds what others handed in, and nobody's answer to an open case is compared with others'")
	assert.Equal(t, map[string]float64{"anna": 10, "ben": 0, "cleo": 0, "dag": 10, "finn": 10}, given)
	assert.Equal(t, []CaseCount{{0, 1}, {1, 1}}, r.Cases)
	assert.Positive(t, events)
	r = run(true)
	finn := r.People[4]
	assert.Equal(t, "finn", finn.Name)
	assert.Equal(t, verdict.WrongAnswer, finn.Tries[finn.Counts].Verdict, "the last try counts where that was asked for")
}
