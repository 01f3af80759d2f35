package judge

import (
	"fmt"
	"os"
	"path/filepath"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"coldverdict/core/problem"
	"coldverdict/core/toolchain"
	"coldverdict/core/verdict"
)

func TestHowProgramsAreHeldIsToldOnceBeforeAnyRuns(t *testing.T) {
	for _, open := range []bool{false, true} {
		r := newTry(t, "say 1", "1\n", "say 2", "2\n")
		r.options.Uncontained = open
		r.options.Jobs = 2
		r.outcomes(t)
		var told []int
		for i, e := range r.events {
			if held, ok := e.(Held); ok {
				told = append(told, i)
				assert.Equal(t, !open, held.Hold.Contained)
			}
			if _, ok := e.(Began); ok {
				assert.NotEmpty(t, told)
			}
		}
		assert.Len(t, told, 1)
	}
}

func TestAProblemsFilesAreHiddenAsFarAsProgramsCanDoWithoutThem(t *testing.T) {
	folder, err := filepath.EvalSymlinks(t.TempDir())
	require.NoError(t, err)
	elsewhere := filepath.Join(t.TempDir(), "elsewhere.out")
	require.NoError(t, os.WriteFile(elsewhere, []byte("1\n"), 0o644))
	p := &problem.Problem{Dir: folder, Cases: []problem.Case{
		{Input: problem.Data{Path: filepath.Join(folder, "1.in")}, Accepted: []problem.Data{{Path: filepath.Join(folder, "1.out")}}},
		{Input: problem.Data{Text: []byte("2\n")}, Accepted: []problem.Data{{Path: elsewhere}}},
	}}
	j := &Judge{problem: p}
	hidden, err := j.hidden(nil, p.Cases)
	require.NoError(t, err)
	assert.Equal(t, []string{folder, elsewhere}, hidden, "the folder, and what lies elsewhere")

	// A language's entry runs something that lies beside the sources.
	beside := &toolchain.Language{Run: toolchain.Command{"{folder}/interpreter"}}
	hidden, err = j.hidden([]Plan{{Build: &toolchain.Build{Language: beside, Source: filepath.Join(folder, "a.ice")}}}, p.Cases)
	require.NoError(t, err)
	assert.NotContains(t, hidden, folder)
	for _, name := range []string{"cases", "cases.md", "verdict.toml", "1.in", "1.out"} {
		assert.Contains(t, hidden, filepath.Join(folder, name))
	}

	link := filepath.Join(t.TempDir(), "link")
	require.NoError(t, os.Symlink(folder, link))
	j.problem = &problem.Problem{Dir: link}
	hidden, err = j.hidden(nil, nil)
	require.NoError(t, err)
	assert.Equal(t, []string{folder}, hidden, "links are followed")
}

func TestACaseThatIsRepeatedTellsItsSpreadAndTheWorstVerdict(t *testing.T) {
	r := newTry(t, "burn 0.05 say 1", "1\n", "say 2", "3\n")
	r.options.Repeat = 4
	outcomes, _ := r.outcomes(t)
	s := outcomes[0].Spread
	require.NotNil(t, s)
	assert.Equal(t, 4, s.Runs)
	assert.Greater(t, s.Least.Seconds(), 0.045)
	assert.LessOrEqual(t, s.Least, s.Median)
	assert.LessOrEqual(t, s.Median, s.Most)
	assert.Equal(t, s.Median, outcomes[0].Usage.CPU)
	assert.Equal(t, verdict.WrongAnswer, outcomes[1].Verdict)
	assert.False(t, outcomes[1].Unsteady)

	counter := filepath.Join(t.TempDir(), "runs")
	r = newTry(t, "first", "1\n")
	r.options.Repeat = 3
	r.options.Uncontained = true // it sees in a file that it ran before
	r.solution.Args = []string{counter}
	outcomes, _ = r.outcomes(t)
	assert.Equal(t, verdict.WrongAnswer, outcomes[0].Verdict, "one wrong answer in three is a wrong answer")
	assert.True(t, outcomes[0].Unsteady)
}

func TestAnInputThatIsAFileIsReadAndCannotBeChanged(t *testing.T) {
	r := newTry(t, "say 1", "1\n")
	path := filepath.Join(r.problem.Dir, "cases", "1.in")
	require.NoError(t, os.Mkdir(filepath.Dir(path), 0o755))
	require.NoError(t, os.WriteFile(path, []byte("say 7\n"), 0o666))
	r.problem.Cases = append(r.problem.Cases, problem.Case{
		Name: "g/file", Group: "g", Input: problem.Data{Path: path, Size: 6}, Accepted: []problem.Data{{Text: []byte("7\n")}},
	})
	source := `
#include <fcntl.h>
#include <stdio.h>
int main(void)
{
    char word[10];
    int n = 0;
    if (scanf("%9s %d", word, &n) != 2) return 3;
    int fd = open("/proc/self/fd/0", O_RDWR | O_TRUNC);
    if (fd >= 0 && n == 7) return 4;
    printf("%d\n", n);
    return 0;
}
`
	require.NoError(t, os.WriteFile(filepath.Join(r.problem.Dir, "rewrite.c"), []byte(source), 0o644))
	r.solution.File = "rewrite.c"
	outcomes, _ := r.outcomes(t)
	for i, o := range outcomes {
		assert.Equal(t, verdict.Accepted, o.Verdict, fmt.Sprint(i, " ", o.Message))
	}
	text, err := os.ReadFile(path)
	require.NoError(t, err)
	assert.Equal(t, "say 7\n", string(text))
}

func TestARepeatedCaseThatCannotBeRunAgainIsAFaultWithoutTimes(t *testing.T) {
	r := newTry(t, "say 1", "1\n")
	path := filepath.Join(t.TempDir(), "1.in")
	require.NoError(t, os.WriteFile(path, []byte("say 1\n"), 0o644))
	r.problem.Cases[0].Input = problem.Data{Path: path, Size: 6}
	counter := 0
	r.options.Repeat = 200
	outcomes := []verdict.Outcome{}
	require.NoError(t, judgeAll(t.Context(), r.problem, []problem.Solution{r.solution}, r.options, func(e Event) {
		switch e := e.(type) {
		case Running: // the first one comes before the first run
			if counter++; counter == 1 {
				go func() {
					time.Sleep(50 * time.Millisecond)
					os.Remove(path)
				}()
			}
		case Case:
			outcomes = append(outcomes, e.Outcome)
		}
	}))
	require.Len(t, outcomes, 1)
	assert.Equal(t, verdict.Fault, outcomes[0].Verdict)
	assert.Nil(t, outcomes[0].Spread, "a run that was none has no time")
}
