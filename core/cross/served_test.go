package cross

import (
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"coldverdict/core/shape"
	"coldverdict/core/verdict"
	"coldverdict/internal/testenv"
)

const (
	servedShape = "n: int 1..50\nw: int[n] 1..1000\n"
	servedSum   = "n = int(input())\nw = list(map(int, input().split()))\ntotal = 0\nfor x in w: total += x\nprint(total)\n"
)

// servedTrial is a trial with time for interpreters to start in, on a busy machine, too.
func servedTrial(t *testing.T, sources ...string) *trial {
	t.Helper()
	r := newTrial(t, servedShape, sources...)
	r.problem.Limits.General.Time, r.problem.Limits.General.Wall = 2*time.Second, 10*time.Second
	return r
}

func TestWhatIsFoundWhereSolutionsAreServedIsWhatRunsOfTheirOwnShow(t *testing.T) {
	testenv.Need(t, "python3")
	for _, tt := range []struct{ name, source, smallest string }{
		{"two of one weight in a row", "n = int(input())\nw = list(map(int, input().split()))\nprint(sum(w) + any(a == b for a, b in zip(w, w[1:])))\n", "2\n1 1\n"},
		{"it fails", "n = int(input())\nw = list(map(int, input().split()))\nprint(sum(w) // (n != 3))\n", "3\n1 1 1\n"},
		{"it never ends", "n = int(input())\nw = list(map(int, input().split()))\nwhile n > 3: pass\nprint(sum(w))\n", "4\n1 1 1 1\n"},
		{"it is wrong where it is served, too", "import sys\nn = int(input())\nw = list(map(int, input().split()))\nif 'gc' not in sys.modules and n == 2: w[0] += 1\nprint(sum(w))\n", ""},
	} {
		t.Run(tt.name, func(t *testing.T) {
			r := servedTrial(t, "reference.py", servedSum, "a.py", tt.source)
			r.options.Count = 300
			if tt.name == "it never ends" {
				r.problem.Limits.General.Time = 700 * time.Millisecond
			}
			result := r.run(t)
			if tt.smallest == "" { // only a run of its own shows it
				for _, f := range result.Found {
					assert.True(t, strings.HasPrefix(inputOf(f), "2\n"), inputOf(f))
				}
				return
			}
			require.Len(t, result.Found, 1)
			assert.Equal(t, tt.smallest, inputOf(result.Found[0]))
			assert.Equal(t, Fails, result.Found[0].Way)
		})
	}
}

func TestAServedSearchTriesAsManyInputsAsItIsAskedForAndTimesThemInRunsOfTheirOwn(t *testing.T) {
	testenv.Need(t, "python3")
	r := servedTrial(t, "reference.py", servedSum, "a.py", "import time\nn = int(input())\nw = list(map(int, input().split()))\nprint(sum(w))\n")
	r.options.Count = 400
	result := r.run(t)
	assert.Empty(t, result.Found)
	assert.Empty(t, result.Notes)
	assert.Equal(t, 400, result.Inputs)
	assert.Equal(t, 400, result.Judged)
	assert.Positive(t, result.Slowest[0].Time)
	assert.Greater(t, result.Slowest[0].Memory, int64(4<<20), "that of an interpreter that was started for it")
	assert.Less(t, result.Runs, 200, "they were tried together")
}

func TestWhoBehavesOtherwiseWhereItIsServedIsNamedAndNotAccused(t *testing.T) {
	testenv.Need(t, "python3")
	sly := "import sys\nn = int(input())\nw = list(map(int, input().split()))\nif 'gc' in sys.modules: sys.exit(3)\nprint(sum(w))\n"
	r := servedTrial(t, "reference.py", sly, "a.py", sly)
	r.options.Count = 60
	result := r.run(t)
	assert.Empty(t, result.Found)
	assert.Equal(t, 60, result.Judged)
	require.Len(t, result.Notes, 2)
	assert.Equal(t, 0, result.Notes[0].Candidate)
	assert.Equal(t, TheReference, result.Notes[1].Candidate)
	assert.Contains(t, result.Notes[0].Text, "it behaved otherwise")
	assert.Zero(t, result.Health.Failed)
}

func TestWhereACandidateWasLetGoNobodySaysThatAllWasTriedOnIt(t *testing.T) {
	testenv.Need(t, "python3")
	sly := "import sys\nn = int(input())\nprint(n + ('gc' in sys.modules and n == 33))\n"
	r := servedTrial(t, "reference.py", sly, "a.py", "print(int(input()))\n")
	var err error
	r.problem.Shape, err = shape.Parse("n: int 0..400\n")
	require.NoError(t, err)
	result := r.run(t)
	assert.Empty(t, result.Found)
	assert.Equal(t, 401, result.Inputs)
	require.Len(t, result.Notes, 1, "the reference answered otherwise once")
	assert.False(t, result.Exhausted())
}

func TestOfFewValidInputsAllAreTried(t *testing.T) {
	for _, tt := range []struct{ name, change, smallest string }{
		{"right", "", ""},
		{"wrong at one value", "if (n == 1777) s++;", "1777\n"},
		{"wrong at the end", "if (n == 2000) s++;", "2000\n"},
	} {
		t.Run(tt.name, func(t *testing.T) {
			source := "#include <stdio.h>\nint main(void) { long n, s; scanf(\"%ld\", &n); s = n * (n + 1) / 2; " + tt.change + " printf(\"%ld\\n\", s); }\n"
			r := newTrial(t, "n: int 0..2000\n", "reference.c", strings.Replace(source, tt.change, "", 1), "a.c", source)
			result := r.run(t)
			if tt.smallest != "" {
				require.Len(t, result.Found, 1)
				assert.Equal(t, tt.smallest, inputOf(result.Found[0]))
				assert.False(t, result.Exhausted())
				return
			}
			assert.Empty(t, result.Found)
			assert.Equal(t, 2001, result.Inputs)
			assert.Equal(t, 2001, result.Coverage.All)
			assert.True(t, result.Exhausted())
			assert.Zero(t, result.Coverage.Random+result.Coverage.EdgeCases)
		})
	}
	r := newTrial(t, "n: int 0..2000\n", "a.c", "int main(void) { return 0; }\n")
	r.options.Count = 30
	result := r.run(t)
	assert.Equal(t, 30, result.Inputs, "as many as were asked for")
	assert.False(t, result.Exhausted())
}

func TestAReferenceThatAnswersOtherwiseWhereItIsServedAccusesNobody(t *testing.T) {
	testenv.Need(t, "python3")
	sly := "import sys\nn = int(input())\nw = list(map(int, input().split()))\nprint(sum(w) + ('gc' in sys.modules and n == 3))\n"
	r := servedTrial(t, "reference.py", sly, "a.py", servedSum)
	r.options.Count = 100
	result := r.run(t)
	assert.Empty(t, result.Found)
	assert.Empty(t, result.Health.Wrong)
	require.Len(t, result.Notes, 1)
	assert.Equal(t, TheReference, result.Notes[0].Candidate)
	assert.Equal(t, 100, result.Inputs)
}

func TestWithoutAReferenceServedCandidatesAreComparedWithEachOther(t *testing.T) {
	testenv.Need(t, "python3")
	r := servedTrial(t, "a.py", servedSum, "b.py", "n = int(input())\nw = list(map(int, input().split()))\nprint(sum(w) - (n == 4))\n")
	r.options.Count = 300
	result := r.run(t)
	require.NotEmpty(t, result.Found)
	assert.Equal(t, Disagrees, result.Found[0].Way)
	assert.Equal(t, "4\n1 1 1 1\n", inputOf(result.Found[0]))
	assert.Equal(t, verdict.WrongAnswer, result.Found[0].Outcome.Verdict)
}
