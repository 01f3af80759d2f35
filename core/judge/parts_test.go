//go:build linux

package judge

import (
	"os"
	"path/filepath"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"coldverdict/core/problem"
	"coldverdict/core/verdict"
	"coldverdict/internal/testenv"
)

// inParts is a problem that asks for the sum and the product of two numbers; expected has what is known of each.
func inParts(t *testing.T, source string, expected ...string) (*problem.Problem, []problem.Solution) {
	t.Helper()
	p := &problem.Problem{Dir: t.TempDir(), Parts: []string{"sum", "product"}}
	for i, name := range p.Parts {
		c := problem.Case{Name: name + "/one", Group: name, Input: problem.Data{Text: []byte("6 7\n"), Size: 4}}
		if expected[i] != "" {
			c.Accepted = []problem.Data{{Text: []byte(expected[i] + "\n"), Size: int64(len(expected[i]) + 1)}}
		}
		p.Cases = append(p.Cases, c)
	}
	require.NoError(t, os.WriteFile(filepath.Join(p.Dir, "both.py"), []byte(source), 0o644))
	return p, p.InParts(problem.Solution{File: "both.py"})
}

// outcomes are those of all cases, by name.
func outcomes(t *testing.T, p *problem.Problem, solutions []problem.Solution) map[string]verdict.Outcome {
	t.Helper()
	all := map[string]verdict.Outcome{}
	require.NoError(t, judgeAll(t.Context(), p, solutions, options{Cache: testenv.SharedDir()}, func(e Event) {
		if c, ok := e.(Case); ok {
			all[p.Cases[c.Index].Name] = c.Outcome
		}
	}))
	return all
}

func TestOfWhatIsPrintedForAllPartsTheAnswerOfOneCounts(t *testing.T) {
	const read = "a, b = map(int, input().split())\n"
	for name, row := range map[string]struct {
		source       string
		expected     [2]string
		sum, product verdict.Verdict
		message      string // of the product
	}{
		"both right":                  {read + "print(a + b)\nprint(a * b)\n", [2]string{"13", "42"}, verdict.Accepted, verdict.Accepted, ""},
		"the second is wrong":         {read + "print(a + b)\nprint(a - b)\n", [2]string{"13", "42"}, verdict.Accepted, verdict.WrongAnswer, "line 1: expected 42, got -1"},
		"the second is not there yet": {read + "print(a + b)\n", [2]string{"13", "42"}, verdict.Accepted, verdict.WrongAnswer, "it prints no answer to product"},
		"nor known":                   {read + "print(a + b)\n", [2]string{"13", ""}, verdict.Accepted, verdict.Unjudged, "it prints no answer to product"},
		"by their names":              {read + "print('product:', a * b)\nprint('sum:', a + b)\n", [2]string{"13", "42"}, verdict.Accepted, verdict.Accepted, ""},
		"too many lines":              {read + "print('reading')\nprint(a + b)\nprint(a * b)\n", [2]string{"13", "42"}, verdict.WrongAnswer, verdict.WrongAnswer, "which of its lines is the answer to product cannot be told; print a line a part, or \"product: …\""},
		"a crash behind both":         {read + "print(a + b, flush=True)\nprint(a * b, flush=True)\nraise SystemExit(3)\n", [2]string{"13", "42"}, verdict.RuntimeError, verdict.RuntimeError, "exit status 3"},
		"more than is looked through": {read + "print('x' * 5_000_000)\n", [2]string{"13", "42"}, verdict.WrongAnswer, verdict.WrongAnswer, "it prints more than 4 MiB, in which no answers to parts are looked for"},
	} {
		t.Run(name, func(t *testing.T) {
			p, solutions := inParts(t, row.source, row.expected[:]...)
			require.Len(t, solutions, 2)
			got := outcomes(t, p, solutions)
			assert.Equal(t, row.sum.String(), got["sum/one"].Verdict.String(), got["sum/one"].Message)
			assert.Equal(t, row.product.String(), got["product/one"].Verdict.String(), got["product/one"].Message)
			assert.Equal(t, row.message, got["product/one"].Message[:min(len(row.message), len(got["product/one"].Message))])
			assert.Equal(t, strings.Contains(row.message, "no answer to"), got["product/one"].NoAnswer && !strings.Contains(row.message, "4 MiB") && !strings.Contains(row.message, "which of"))
		})
	}
}

func TestNoCheckerAcceptsARefusedAnswerToAPart(t *testing.T) {
	p, solutions := inParts(t, "print(13)\nprint(42)\n", "13", "")
	require.NoError(t, os.WriteFile(filepath.Join(p.Dir, "check.star"), []byte("def decide(case, got, expected):\n    return accept()\n"), 0o644))
	p.Cases[1].Compare.Script = "check.star"
	p.Cases[1].Refused = []problem.Refused{{Answer: problem.Data{Text: []byte("42\n"), Size: 3}}}
	got := outcomes(t, p, solutions)
	assert.Equal(t, verdict.WrongAnswer, got["product/one"].Verdict)
	assert.Equal(t, "this very answer was refused", got["product/one"].Message)
}

func TestSolutionsThatHaveNothingToDoWithEachOtherAreNotCompared(t *testing.T) {
	p := &problem.Problem{Dir: t.TempDir(), Cases: []problem.Case{{Name: "a", Input: problem.Data{Text: []byte("\n"), Size: 1}}}}
	var solutions []problem.Solution
	for name, text := range map[string]string{"a.py": "print(1)\n", "b.py": "print(2)\n"} {
		require.NoError(t, os.WriteFile(filepath.Join(p.Dir, name), []byte(text), 0o644))
		solutions = append(solutions, problem.Solution{File: name})
	}
	prepared, closing, err := OpenPrepared(t.Context(), p, Env{Cache: testenv.SharedDir()}, solutions, BuildOptions{}, func(Event) {})
	require.NoError(t, err)
	for apart, differ := range map[bool]bool{true: false, false: true} {
		said := false
		_, err := prepared.Run(t.Context(), p.Cases, RunOptions{Apart: apart}, func(e Event) {
			if c, ok := e.(Case); ok {
				said = said || c.Outcome.Differs != nil
			}
		})
		require.NoError(t, err)
		assert.Equal(t, differ, said)
	}
	require.NoError(t, closing())
}
