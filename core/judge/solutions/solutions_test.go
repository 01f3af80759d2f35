//go:build linux

// Package solutions has no code but tests: solutions as people write them, each a source in testdata,
// which the judge must accept, or must not.
package solutions

import (
	"errors"
	"fmt"
	"os"
	"path/filepath"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"coldverdict/core/box"
	"coldverdict/core/compare"
	"coldverdict/core/judge"
	"coldverdict/core/problem"
	"coldverdict/core/script"
	"coldverdict/core/toolchain"
	"coldverdict/core/verdict"
	"coldverdict/internal/testenv"
)

// Folders in testdata/honest are problems of which every source is right, however it is
// written; of those in testdata/wrong none is.

func TestMain(m *testing.M) { testenv.Main(m, box.Supervise, script.Main) }

// sourcesOf reads a problem of which all sources are to be judged.
func sourcesOf(t *testing.T, dir string) (*problem.Problem, []problem.Solution) {
	t.Helper()
	languages := toolchain.Ours()
	p, err := problem.Load(dir, problem.Vocabulary{
		Modes: compare.Modes(), AnyOrders: compare.AnyOrders(),
		Languages: languages.NamesWithStandards(), LimitNames: languages.Names(), IsSource: languages.IsSource,
	})
	require.NoError(t, err)
	var solutions []problem.Solution
	for _, name := range p.Sources {
		solutions = append(solutions, problem.Solution{File: name})
	}
	require.NotEmpty(t, solutions, dir)
	return p, solutions
}

// judgedAll judges sources and returns what became of each; none of a language that is not
// there.
func judgedAll(t *testing.T, p *problem.Problem, solutions []problem.Solution) (sums []judge.Ended, said []string) {
	t.Helper()
	said = make([]string, len(solutions))
	j, err := judge.Open(p, judge.Env{Cache: testenv.SharedDir()})
	require.NoError(t, err)
	defer func() { assert.NoError(t, j.Close()) }()
	prepared, err := j.Prepare(t.Context(), solutions, judge.BuildOptions{}, func(judge.Event) {})
	require.NoError(t, err)
	for i := range solutions {
		if build := prepared.Plan(i).Build; build != nil {
			assert.NotRegexp(t, `(?i)cold_?driver\.\w+(:\d+(:\d+)?|\(\d+,\d+\)): warning`, build.Log, "a warning of what is not the person's: %s", solutions[i].File)
		}
	}
	sums, err = prepared.Run(t.Context(), p.Cases, judge.RunOptions{}, func(e judge.Event) {
		switch e := e.(type) {
		case judge.Case:
			if e.Outcome.Verdict != verdict.Accepted {
				said[e.Solution] += p.Cases[e.Index].Name + ": " + e.Outcome.Verdict.String() + " " + e.Outcome.Message + "; "
			}
		case judge.Ended:
			said[e.Solution] += e.Message
		}
	})
	require.NoError(t, err)
	return sums, said
}

func TestHonestSolutionsAreAcceptedHoweverTheyAreWritten(t *testing.T) {
	testenv.NotShort(t, "it builds hundreds of sources")
	eachProblem(t, "testdata/honest", 400, testenv.InCI(), func(t *testing.T, name string, e judge.Ended, said string) {
		assert.Equal(t, verdict.Accepted.String(), e.Verdict.String(), "%s: %s", name, said)
	})
}

// TestManySequencesArePassedWhole has more of them than a driver reads at once, so that pieces end anywhere within
// calls.
func TestManySequencesArePassedWhole(t *testing.T) {
	testenv.NotShort(t, "it builds ten sources")
	dir := t.TempDir()
	require.NoError(t, os.CopyFS(dir, os.DirFS("testdata/honest/depth-log")))
	var text strings.Builder
	for i := range 1000 {
		fmt.Fprintf(&text, "## %d\n```calls\nnew()\n", i)
		for k := range 40 {
			fmt.Fprintf(&text, "fill([%d])\nadd(%d)\n", i*i*k, k)
		}
		text.WriteString("summary()\n```\n")
	}
	require.NoError(t, os.WriteFile(filepath.Join(dir, "cases.md"), []byte(text.String()), 0o600))
	p, solutions := sourcesOf(t, dir)
	solutions = slices.DeleteFunc(solutions, func(s problem.Solution) bool { return !testenv.Quick(s.File) })
	sums, said := judgedAll(t, p, solutions)
	for i, e := range sums {
		if e.Verdict != verdict.Skipped {
			assert.Equal(t, verdict.Unjudged.String(), e.Verdict.String(), "%s: %.300s", solutions[i].File, said[i])
		}
	}
}

func TestWrongSolutionsAreNotAccepted(t *testing.T) {
	testenv.NotShort(t, "it builds hundreds of sources")
	eachProblem(t, "testdata/wrong", 200, false, func(t *testing.T, name string, e judge.Ended, said string) {
		assert.NotContains(t, []verdict.Verdict{verdict.Accepted, verdict.Fault, verdict.Unjudged}, e.Verdict, "%s: %s", name, said)
	})
}

// busyEvery is how many problems are judged for one of them beside which the machine is kept busy, which must
// not matter.
const busyEvery = 10

// eachProblem judges all sources of the problems in a folder, of which there are at least so many.
func eachProblem(t *testing.T, folder string, least int, busy bool, check func(t *testing.T, name string, e judge.Ended, said string)) {
	entries, err := os.ReadDir(folder)
	require.NoError(t, err)
	judged, all := 0, 0
	for i, entry := range entries {
		t.Run(entry.Name(), func(t *testing.T) {
			if busy && i%busyEvery == 0 {
				testenv.Busy(t, 4)
			}
			p, solutions := sourcesOf(t, filepath.Join(folder, entry.Name()))
			all += len(solutions)
			solutions = slices.DeleteFunc(solutions, func(s problem.Solution) bool { return !testenv.Quick(s.File) })
			if len(solutions) == 0 {
				testenv.Sweep(t, "its sources take long to build")
			}
			solutions = solutions[:testenv.Of(len(solutions), 2)]
			sums, said := judgedAll(t, p, solutions)
			for i, e := range sums {
				t.Run(solutions[i].File, func(t *testing.T) {
					if e.Verdict == verdict.Skipped {
						testenv.Missing(t, errors.New(e.Message))
					}
					judged++
					check(t, solutions[i].File, e, said[i])
				})
			}
		})
	}
	assert.GreaterOrEqual(t, all, least, "sources in %s", folder)
	assert.Positive(t, judged)
}
