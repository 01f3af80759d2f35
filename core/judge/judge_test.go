package judge

import (
	"context"
	"errors"
	"fmt"
	"io"
	"os"
	"path/filepath"
	"strings"
	"syscall"
	"testing"
	"time"

	"coldverdict/core/box"
	"coldverdict/core/problem"
	"coldverdict/core/script"
	"coldverdict/core/verdict"
	"coldverdict/internal/testenv"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestMain(m *testing.M) { testenv.Main(m, box.Supervise, script.Main) }

// obey is a program that does what its input says, word by word.
const obey = `
#include <stdio.h>
#include <stdlib.h>
#include <string.h>
#include <time.h>
#include <unistd.h>
#include <signal.h>

static double used(void) { return (double)clock() / CLOCKS_PER_SEC; }

int main(int argc, char **argv)
{
    char word[100], rest[100];
    while (scanf("%99s", word) == 1) {
        if (!strcmp(word, "say") && scanf("%99s", rest) == 1) { puts(rest); fflush(stdout); }
        else if (!strcmp(word, "complain") && scanf("%99s", rest) == 1) fprintf(stderr, "%s\n", rest);
        else if (!strcmp(word, "burn") && scanf("%99s", rest) == 1) { double want = atof(rest); while (used() < want) {} }
        else if (!strcmp(word, "sleep") && scanf("%99s", rest) == 1) usleep((useconds_t)(1e6 * atof(rest)));
        else if (!strcmp(word, "exit") && scanf("%99s", rest) == 1) exit(atoi(rest));
        else if (!strcmp(word, "hog")) for (;;) memset(malloc(1 << 20), 1, 1 << 20);
        else if (!strcmp(word, "flood")) for (;;) puts("ice ice ice ice ice ice ice ice ice ice ice ice ice");
        else if (!strcmp(word, "crash")) raise(SIGSEGV);
        else if (!strcmp(word, "bytes")) printf("%d\n", getchar() == '\n' ? 1 : 2);
        else if (!strcmp(word, "count") && argc > 1) { FILE *f = fopen(argv[1], "a"); fputc('x', f); fclose(f); }
        else if (!strcmp(word, "first") && argc > 1) { puts(access(argv[1], F_OK) ? "1" : "2"); fclose(fopen(argv[1], "a")); }
    }
    return 0;
}
`

// limits are tight, so that the tests are quick, but for the wall clock: on a
// loaded machine a program gets only a part of a processor.
var limits = problem.Limits{General: verdict.Limits{
	Time: 500 * time.Millisecond, Wall: 4 * time.Second, Memory: 32 << 20, Output: 1 << 16,
}}

// try is one problem to be judged, with all that was told.
type try struct {
	problem  *problem.Problem
	solution problem.Solution
	options  options
	events   []Event
}

// newTry makes a problem of inputs and expected outputs; an output "-" is not
// known.
func newTry(t testing.TB, pairs ...string) *try {
	testenv.Need(t, "gcc")
	dir := t.TempDir()
	require.NoError(t, os.WriteFile(filepath.Join(dir, "obey.c"), []byte(obey), 0o644))
	p := &problem.Problem{Dir: dir, Limits: limits}
	for i := 0; i < len(pairs); i += 2 {
		c := problem.Case{Name: fmt.Sprintf("g/%d", i/2), Group: "g", Input: problem.Data{Text: []byte(pairs[i]), Size: int64(len(pairs[i]))}}
		if pairs[i+1] != "-" {
			c.Accepted = []problem.Data{{Text: []byte(pairs[i+1])}}
		}
		p.Cases = append(p.Cases, c)
	}
	return &try{problem: p, solution: problem.Solution{File: "obey.c", Role: problem.Candidate}, options: options{Cache: testenv.SharedDir(), Jobs: 1}}
}

func (r *try) run(ctx context.Context) error {
	return judgeAll(ctx, r.problem, []problem.Solution{r.solution}, r.options, func(e Event) { r.events = append(r.events, e) })
}

// options are all options of a judge in one.
type options struct {
	Jobs                                                               int
	Limits                                                             verdict.Limits
	Cases, First                                                       []int
	KeepAll, MissingIsFault, Checked, Uncontained, UntilFailure, Alone bool
	Cache                                                              string
	Repeat                                                             int
	Output                                                             func(solution, index int) io.Writer
}

func (o options) env() Env { return Env{Jobs: o.Jobs, Cache: o.Cache, Uncontained: o.Uncontained} }

func (o options) build() BuildOptions {
	return BuildOptions{Limits: o.Limits, Checked: o.Checked, MissingIsFault: o.MissingIsFault}
}

func (o options) run() RunOptions {
	return RunOptions{Only: o.Cases, First: o.First, UntilFailure: o.UntilFailure, Repeat: o.Repeat, IsolateCalls: o.Alone, KeepAll: o.KeepAll, Output: o.Output}
}

// opened opens a judge, which ends with the test.
func opened(t testing.TB, p *problem.Problem, o options) *Judge {
	j, err := Open(p, o.env())
	require.NoError(t, err)
	t.Cleanup(func() { assert.NoError(t, j.Close()) })
	return j
}

// started prepares solutions to be judged on cases as they come.
func started(t testing.TB, p *problem.Problem, solutions []problem.Solution, o options) (*Prepared, error) {
	prepared, err := opened(t, p, o).Prepare(t.Context(), solutions, o.build(), func(Event) {})
	require.NoError(t, err)
	return prepared, prepared.Start(t.Context(), func(Event) {})
}

// judgeAll judges all cases of a problem with solutions.
func judgeAll(ctx context.Context, p *problem.Problem, solutions []problem.Solution, o options, tell func(Event)) (err error) {
	j, err := Open(p, o.env())
	if err != nil {
		return err
	}
	defer func() { err = errors.Join(err, j.Close()) }()
	prepared, err := j.Prepare(ctx, solutions, o.build(), tell)
	if err != nil {
		return err
	}
	_, err = prepared.Run(ctx, p.Cases, o.run(), tell)
	return err
}

// outcomes runs and returns the outcomes in the order in which they were told.
func (r *try) outcomes(t testing.TB) (all []verdict.Outcome, sum verdict.Verdict) {
	require.NoError(t, r.run(t.Context()))
	last := -1
	for _, e := range r.events {
		switch e := e.(type) {
		case Case:
			assert.Greater(t, e.Index, last, "cases are told in order")
			last = e.Index
			all = append(all, e.Outcome)
		case Ended:
			sum = e.Verdict
			assert.Empty(t, e.Message)
		}
	}
	return all, sum
}

func TestEachEndOfARunGetsItsVerdict(t *testing.T) {
	tests := []struct {
		name, input, output string
		want                verdict.Verdict
		message             string
	}{
		{"right", "say 3", "3\n", verdict.Accepted, ""},
		{"wrong", "say 4", "3\n", verdict.WrongAnswer, "line 1: expected 3, got 4"},
		{"nothing", "", "3\n", verdict.WrongAnswer, "nothing was printed"},
		{"not known", "say 4", "-", verdict.Unjudged, "printed 4"},
		{"right, but a bad exit status", "say 3 exit 2", "3\n", verdict.RuntimeError, "exit status 2"},
		{"crash", "crash", "3\n", verdict.RuntimeError, "segmentation fault (signal 11)"},
		{"crash that says why", "complain ValueError:bad exit 1", "3\n", verdict.RuntimeError, "exit status 1: ValueError:bad"},
		{"wrong, then too long", "say 4 burn 9", "3\n", verdict.TimeLimit, ""},
		{"right, but too long", "say 3 burn 0.7", "3\n", verdict.TimeLimit, ""},
		{"waits", "say 3 sleep 9", "3\n", verdict.Stalled, "it waited"},
		{"hog", "say 3 hog", "3\n", verdict.MemoryLimit, ""},
		{"flood", "flood", "3\n", verdict.OutputLimit, "it wrote more than 64 KiB"},
		{"not known, and a crash", "crash", "-", verdict.RuntimeError, "segmentation fault"},
	}
	var pairs []string
	for _, tt := range tests {
		pairs = append(pairs, tt.input, tt.output)
	}
	r := newTry(t, pairs...)
	outcomes, sum := r.outcomes(t)
	assert.Equal(t, verdict.WrongAnswer, sum, "the first failure")
	for i, tt := range tests {
		o := outcomes[i]
		assert.Equal(t, tt.want, o.Verdict, tt.name)
		assert.True(t, o.Ran)
		assert.Contains(t, o.Message, tt.message, tt.name)
		if tt.message == "" {
			assert.Empty(t, o.Message, tt.name)
		}
		assert.Equal(t, tt.want == verdict.WrongAnswer, o.Difference != nil, tt.name)
		if tt.want == verdict.Accepted {
			assert.Empty(t, o.Stdout.Bytes, "nothing is kept of an accepted case")
		}
	}
}

func TestACaseThatComesNearItsTimeLimitIsMarked(t *testing.T) {
	r := newTry(t, "say 3 burn 1.7", "3\n")
	r.problem.Limits.General.Time = 2 * time.Second
	outcomes, _ := r.outcomes(t)
	assert.Equal(t, verdict.Accepted, outcomes[0].Verdict)
	assert.True(t, outcomes[0].Close)
	assert.Regexp(t, `^close: \d+ % of the time limit$`, outcomes[0].Message)
	assert.Empty(t, outcomes[0].Stdout.Bytes, "nothing is kept of an accepted case")
}

func TestOutcomesAreToldInOrderHoweverTheyFinish(t *testing.T) {
	r := newTry(t, "sleep 0.2 say 1", "1\n", "say 2", "2\n", "say 3", "3\n", "sleep 0.1 say 4", "4\n", "say 5", "5\n", "say 6", "6\n")
	r.options.Jobs = 3
	outcomes, sum := r.outcomes(t)
	assert.Len(t, outcomes, 6)
	assert.Equal(t, verdict.Accepted, sum)
}

func TestACaseNearTheLimitIsRunAgainAlone(t *testing.T) {
	file := filepath.Join(t.TempDir(), "runs")
	for jobs, want := range map[int]string{1: "x", 2: "xx"} {
		require.NoError(t, os.RemoveAll(file))
		r := newTry(t, "count burn 1.45 say 1", "1\n", "say 2", "2\n")
		r.problem.Limits.General.Time = 2 * time.Second
		r.options.Uncontained = true // it counts its runs in a file
		r.solution.Args = []string{file}
		r.options.Jobs = jobs
		_, sum := r.outcomes(t)
		assert.Equal(t, verdict.Accepted, sum)
		text, err := os.ReadFile(file)
		require.NoError(t, err)
		assert.Equal(t, want, string(text), "%d jobs", jobs)
	}
}

func TestJoiningTwoRuns(t *testing.T) {
	at := func(v verdict.Verdict, cpu time.Duration) verdict.Outcome {
		return verdict.Outcome{Verdict: v, Usage: verdict.Usage{CPU: cpu}}
	}
	tests := []struct {
		name        string
		first, lone verdict.Verdict
		want        verdict.Verdict
		unsteady    bool
	}{
		{"the lone run takes a time limit away", verdict.TimeLimit, verdict.Accepted, verdict.Accepted, false},
		{"or confirms it", verdict.Accepted, verdict.TimeLimit, verdict.TimeLimit, false},
		{"it shows what the time had hidden", verdict.TimeLimit, verdict.WrongAnswer, verdict.WrongAnswer, false},
		{"the lone run takes a stall away", verdict.Stalled, verdict.Accepted, verdict.Accepted, false},
		{"or confirms that", verdict.Accepted, verdict.Stalled, verdict.Stalled, false},
		{"right, then wrong", verdict.Accepted, verdict.WrongAnswer, verdict.WrongAnswer, true},
		{"wrong, then right", verdict.WrongAnswer, verdict.Accepted, verdict.WrongAnswer, true},
		{"the same", verdict.WrongAnswer, verdict.WrongAnswer, verdict.WrongAnswer, false},
	}
	for _, tt := range tests {
		got := join(at(tt.first, 2), at(tt.lone, 1))
		assert.Equal(t, tt.want, got.Verdict, tt.name)
		assert.Equal(t, tt.unsteady, got.Unsteady, tt.name)
		assert.EqualValues(t, 1, got.Usage.CPU, "the lone run settles the time: %s", tt.name)
	}
}

func TestWindowsInputsMeanTheSame(t *testing.T) {
	r := newTry(t)
	path := filepath.Join(r.problem.Dir, "1.in")
	require.NoError(t, os.WriteFile(path, []byte("\xef\xbb\xbfbytes\r\nsay 3\r\n"), 0o644))
	r.problem.Cases = []problem.Case{{Name: "g/1", Group: "g", Input: problem.Data{Path: path, Size: 18}, Accepted: []problem.Data{{Text: []byte("1\r\n3\r\n")}}}}
	_, sum := r.outcomes(t)
	assert.Equal(t, verdict.Accepted, sum)
}

func TestWhatCannotBeRunSaysWhy(t *testing.T) {
	ended := func(r *try) Ended {
		require.NoError(t, r.run(t.Context()))
		return r.events[len(r.events)-1].(Ended)
	}
	r := newTry(t, "say 1", "1\n")
	require.NoError(t, os.WriteFile(filepath.Join(r.problem.Dir, "obey.c"), []byte("int main({"), 0o644))
	assert.Equal(t, verdict.CompileError, ended(r).Verdict)

	r = newTry(t, "say 1", "1\n")
	r.solution.Groups = []string{"other"}
	assert.Equal(t, verdict.Skipped, ended(r).Verdict)

	r = newTry(t, "say 1", "1\n")
	r.problem.Cases[0].Input = problem.Data{Path: filepath.Join(r.problem.Dir, "gone.in")}
	assert.Equal(t, verdict.Fault, ended(r).Verdict)
	r.problem.Cases[0].Input = problem.Data{Text: []byte("say 1")}
	r.problem.Cases[0].Accepted = []problem.Data{{Path: filepath.Join(r.problem.Dir, "gone.out")}}
	assert.Equal(t, verdict.Fault, ended(r).Verdict, "never blamed on the candidate")

	t.Setenv("PATH", t.TempDir())
	r = &try{problem: r.problem, solution: r.solution, options: r.options}
	assert.Equal(t, verdict.Skipped, ended(r).Verdict)
	r.options.MissingIsFault = true
	end := ended(r)
	assert.Equal(t, verdict.Fault, end.Verdict)
	assert.Contains(t, end.Message, "no gcc on this machine")
}

// killSupervisors kills the supervisors that this process started.
func killSupervisors(t testing.TB) {
	names, err := filepath.Glob("/proc/[0-9]*/status")
	require.NoError(t, err)
	killed := 0
	for _, name := range names {
		text, _ := os.ReadFile(name)
		if !strings.Contains(string(text), "Name:\tcold-supervisor\n") || !strings.Contains(string(text), fmt.Sprintf("PPid:\t%d\n", os.Getpid())) {
			continue
		}
		var pid int
		_, err := fmt.Sscanf(name, "/proc/%d/status", &pid)
		require.NoError(t, err)
		require.NoError(t, syscall.Kill(pid, syscall.SIGKILL))
		killed++
	}
	require.Positive(t, killed)
}

func TestALostWorkerIsReplaced(t *testing.T) {
	w := &worker{options: box.Options{Scratch: t.TempDir()}}
	run := box.Run{Program: box.Program{Path: "/bin/sh", Args: []string{"-c", "exit 3"}}, Limits: limits.General}
	result, err := w.Run(t.Context(), run)
	require.NoError(t, err)
	assert.Equal(t, 3, result.ExitCode)
	killSupervisors(t)
	_, err = w.Run(t.Context(), run)
	assert.ErrorIs(t, err, box.ErrLost)
	result, err = w.Run(t.Context(), run)
	require.NoError(t, err)
	assert.Equal(t, 3, result.ExitCode)
	require.NoError(t, w.box.Close())
}

func TestWhatWasTakenAwayWhileProgramsRanIsNotTheirFailure(t *testing.T) {
	dir := filepath.Join(t.TempDir(), "build")
	solution := filepath.Join(dir, "solution.sh")
	write := func(text string) {
		require.NoError(t, os.MkdirAll(dir, 0o755))
		require.NoError(t, os.WriteFile(solution, []byte(text), 0o644))
	}
	write("exit 3\n")
	w := &worker{options: box.Options{Scratch: t.TempDir()}}
	t.Cleanup(func() { assert.NoError(t, w.close()) })
	run := func() (box.Result, error) {
		return w.Run(t.Context(), box.Run{
			Program: box.Program{Path: "/bin/sh", Args: []string{solution}, Reads: []string{dir, "/nowhere/at/all"}},
			Limits:  limits.General,
		})
	}
	result, err := run()
	require.NoError(t, err, "its own failure, and what never was there is not missed")
	assert.Equal(t, 3, result.ExitCode)
	require.NoError(t, os.RemoveAll(dir))
	for range 2 {
		_, err = run()
		assert.ErrorContains(t, err, dir+" was removed while programs ran")
	}
	write("exit 4\n")
	if _, err = run(); err != nil { // where it saw what was there before
		result, err = run()
	}
	require.NoError(t, err)
	assert.Equal(t, 4, result.ExitCode)
}

func TestChosenCasesAndGroupsMeet(t *testing.T) {
	r := newTry(t, "say 1", "1\n", "say 2", "2\n", "say 3", "3\n")
	r.problem.Cases[2].Group = "other"
	r.solution.Groups = []string{"g"}
	r.options.Cases = []int{1, 2}
	outcomes, _ := r.outcomes(t)
	assert.Len(t, outcomes, 1)
	assert.Equal(t, []int{1}, common([]int{0, 1}, []int{1, 2}))
	assert.Empty(t, common([]int{0}, []int{1}))
}

func TestAnEndedContextEndsEverythingAndLeavesNothing(t *testing.T) {
	scratch := t.TempDir()
	t.Setenv("TMPDIR", scratch)
	r := newTry(t, "sleep 9", "1\n", "burn 9", "1\n", "sleep 9", "1\n")
	r.problem.Limits = problem.Limits{General: verdict.Limits{Time: time.Minute}}
	r.options.Jobs = 2
	ctx, cancel := context.WithTimeout(t.Context(), 300*time.Millisecond)
	defer cancel()
	began := time.Now()
	assert.ErrorIs(t, r.run(ctx), context.DeadlineExceeded)
	assert.Less(t, time.Since(began), 3*time.Second)
	left, err := os.ReadDir(scratch)
	require.NoError(t, err)
	for _, entry := range left {
		assert.False(t, strings.HasPrefix(entry.Name(), "cold-verdict-"), "no working folder is left: %s", entry.Name())
	}
}
