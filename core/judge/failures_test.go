package judge

import (
	"errors"
	"fmt"
	"os"
	"path/filepath"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"golang.org/x/tools/txtar"

	"coldverdict/core/problem"
	"coldverdict/core/toolchain"
	"coldverdict/core/verdict"
	"coldverdict/internal/testenv"
)

// failures are what goes wrong in every language, in the order of its file in
// testdata/languages.
var failures = []struct {
	what string
	want verdict.Verdict
	line bool // the remark names the line that says HERE
}{
	{"broken", verdict.CompileError, true},
	{"throws", verdict.RuntimeError, true},
	{"hog", verdict.MemoryLimit, false},
	{"loop", verdict.TimeLimit, false},
	{"print", verdict.OutputLimit, false},
}

func TestEveryLanguageFailsInEveryWay(t *testing.T) {
	testenv.NotShort(t, "it builds in every language")
	for _, name := range toolchain.Ours().Names() {
		t.Run(name, func(t *testing.T) {
			if name != "c" && name != "python" {
				testenv.Sweep(t, "it builds in every language")
			}
			archive, err := txtar.ParseFile(filepath.Join("testdata", "languages", name+".txt"))
			require.NoError(t, err, "each language has its failures there")
			require.Len(t, archive.Files, len(failures))
			r := newTry(t, "1\n", "-")
			r.options.MissingIsFault = true
			r.options.KeepAll = true
			for i, f := range failures {
				file := archive.Files[i]
				require.Equal(t, f.what, strings.TrimSuffix(file.Name, filepath.Ext(file.Name)))
				require.NoError(t, os.WriteFile(filepath.Join(r.problem.Dir, file.Name), file.Data, 0o644))
				r.solution.File, r.solution.Language = file.Name, name
				r.problem.Limits = failureLimits
				if strings.Contains(string(archive.Comment), "slow") {
					r.problem.Limits.General.Time = 12 * time.Second
				}
				got := r.result(t)
				if got.missing != nil {
					testenv.Missing(t, got.missing)
				}
				assert.Equal(t, f.want, got.verdict, "%s: %s\n%s\n%s", f.what, got.remark, got.log, got.stderr)
				t.Logf("%-8s %-22s %s", f.what, got.verdict, got.remark)
				if f.line && !strings.Contains(string(archive.Comment), f.what+": no line") {
					assert.Contains(t, got.remark+":", fmt.Sprintf("line %d:", lineOf(file.Data, "HERE")), "%s\n%s\n%s", f.what, got.log, got.stderr)
				}
			}
		})
	}
}

// Slow machines start heavy runtimes in seconds.
var failureLimits = problem.Limits{General: verdict.Limits{
	Time: 2 * time.Second, Wall: 20 * time.Second, Memory: 192 << 20, Output: 1 << 20, Processes: 500,
}}

// lineOf returns the number of the first line that holds a word.
func lineOf(text []byte, word string) int {
	for i, line := range strings.Split(string(text), "\n") {
		if strings.Contains(line, word) {
			return i + 1
		}
	}
	return 0
}

// A result is what a person sees of a solution of one case.
type result struct {
	verdict             verdict.Verdict
	remark, log, stderr string
	hints               []string
	missing             error
}

func (r *try) result(t *testing.T) (got result) {
	err := judgeAll(t.Context(), r.problem, []problem.Solution{r.solution}, r.options, func(e Event) {
		switch e := e.(type) {
		case Began:
			if b := e.Plan.Build; b != nil {
				got.log = b.Log
			}
		case Case:
			got.remark, got.stderr, got.hints = e.Outcome.Message, string(e.Outcome.Stderr.Bytes), e.Outcome.Hints
		case Ended:
			got.verdict = e.Verdict
			if e.Verdict == verdict.CompileError && e.Message != "" {
				got.remark, got.hints = e.Message, e.Hints
			}
			if e.Verdict == verdict.Fault && strings.Contains(e.Message, "cannot be run") {
				got.missing = errors.New(e.Message)
			}
		}
	})
	require.NoError(t, err)
	return got
}
