package judge

import (
	"bytes"
	"context"
	"fmt"
	"io"
	"os"
	"path/filepath"
	"sync"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"coldverdict/core/problem"
	"coldverdict/core/verdict"
)

// preparedObey prepares obey.
func preparedObey(t *testing.T, jobs int) *Prepared {
	one := newTry(t)
	one.options.Jobs = jobs
	p, err := started(t, one.problem, []problem.Solution{one.solution}, one.options)
	require.NoError(t, err)
	return p
}

// asked is an input with what is expected; "-" is not known.
func asked(input, expected string) problem.Case {
	c := problem.Case{Name: "asked/1", Input: problem.Data{Text: []byte(input), Size: int64(len(input))}}
	if expected != "-" {
		c.Accepted = []problem.Data{{Text: []byte(expected), Size: int64(len(expected))}}
	}
	return c
}

func TestPreparedSolutionsAreJudgedOnCasesAsTheyCome(t *testing.T) {
	s := preparedObey(t, 1)
	for _, test := range []struct {
		input, expected string
		want            verdict.Verdict
	}{
		{"say ice", "ice\n", verdict.Accepted},
		{"say ice", "snow\n", verdict.WrongAnswer},
		{"say ice", "-", verdict.Unjudged},
		{"crash", "-", verdict.RuntimeError},
		{"exit 3", "\n", verdict.RuntimeError},
		{"flood", "-", verdict.OutputLimit},
		{"say ice", "ice\n", verdict.Accepted},
	} {
		outcomes, err := s.Judge(context.Background(), 0, Request{Cases: []problem.Case{asked(test.input, test.expected)}})
		require.NoError(t, err)
		require.Len(t, outcomes, 1)
		assert.Equal(t, test.want, outcomes[0].Verdict, test.input)
	}
}

func TestEachRequestHasLimitsOfItsOwn(t *testing.T) {
	s := preparedObey(t, 1)
	burn := []problem.Case{asked("burn 0.2 say done", "done\n")}
	for limit, want := range map[time.Duration]verdict.Verdict{0: verdict.Accepted, 50 * time.Millisecond: verdict.TimeLimit, 5 * time.Second: verdict.Accepted} {
		outcomes, err := s.Judge(context.Background(), 0, Request{Cases: burn, Limits: verdict.Limits{Time: limit}})
		require.NoError(t, err)
		assert.Equal(t, want, outcomes[0].Verdict, limit)
	}
}

func TestAllThatIsPrintedIsPassedOn(t *testing.T) {
	s := preparedObey(t, 1)
	var texts [2]bytes.Buffer
	outcomes, err := s.Judge(context.Background(), 0, Request{
		Cases:  []problem.Case{asked("say a", "a\n"), asked("say b say c", "-")},
		Output: func(i int) io.Writer { return &texts[i] },
	})
	require.NoError(t, err)
	assert.Len(t, outcomes, 2)
	assert.Equal(t, "a\n", texts[0].String())
	assert.Equal(t, "b\nc\n", texts[1].String())
}

func TestWorkersServeBesideEachOther(t *testing.T) {
	s := preparedObey(t, 3)
	require.Equal(t, 3, s.Workers())
	var group sync.WaitGroup
	for w := range s.Workers() {
		group.Go(func() {
			for i := range 20 {
				word := fmt.Sprintf("w%d-%d", w, i)
				outcomes, err := s.Judge(context.Background(), w, Request{Cases: []problem.Case{asked("say "+word, word+"\n")}})
				assert.NoError(t, err)
				assert.Equal(t, verdict.Accepted, outcomes[0].Verdict)
			}
		})
	}
	group.Wait()
}

func TestARequestEndsWithItsContext(t *testing.T) {
	s := preparedObey(t, 1)
	ctx, stop := context.WithTimeout(context.Background(), 100*time.Millisecond)
	defer stop()
	_, err := s.Judge(ctx, 0, Request{Cases: []problem.Case{asked("sleep 3", "-")}})
	assert.ErrorIs(t, err, context.DeadlineExceeded)
	outcomes, err := s.Judge(context.Background(), 0, Request{Cases: []problem.Case{asked("say ice", "ice\n")}})
	require.NoError(t, err, "it serves on")
	assert.Equal(t, verdict.Accepted, outcomes[0].Verdict)
}

func TestWhatCannotBeRunIsToldAtTheStart(t *testing.T) {
	for name, test := range map[string]struct {
		text    string
		compare problem.Comparison
		want    verdict.Verdict
	}{
		"broken.c":  {"int main(void) { return }", problem.Comparison{}, verdict.CompileError},
		"checked.c": {"int main(void) { return 0; }", problem.Comparison{Script: "absent.star"}, verdict.Fault},
	} {
		one := newTry(t)
		require.NoError(t, os.WriteFile(filepath.Join(one.problem.Dir, name), []byte(test.text), 0o644))
		one.problem.Compare = test.compare
		_, err := started(t, one.problem, []problem.Solution{one.solution, {File: name}}, one.options)
		var unable *UnableError
		require.ErrorAs(t, err, &unable, name)
		assert.Equal(t, test.want, unable.End.Verdict, name)
		assert.NotEmpty(t, unable.End.Message)
	}
}
