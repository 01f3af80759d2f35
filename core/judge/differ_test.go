//go:build linux

package judge

import (
	"os"
	"path/filepath"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"coldverdict/core/problem"
	"coldverdict/core/verdict"
	"coldverdict/internal/testenv"
)

// endings runs solutions and returns the verdict that each has in the end, and the cases
// of each whose answer is not that of another.
func endings(t *testing.T, p *problem.Problem, solutions ...problem.Solution) (sums map[string]string, differ map[string][]int) {
	t.Helper()
	sums, differ = map[string]string{}, map[string][]int{}
	require.NoError(t, judgeAll(t.Context(), p, solutions, options{Cache: testenv.SharedDir()}, func(e Event) {
		switch e := e.(type) {
		case Case:
			if e.Outcome.Differs != nil {
				differ[solutions[e.Solution].File] = append(differ[solutions[e.Solution].File], e.Index)
			}
		case Ended:
			sums[solutions[e.Solution].File] = e.Verdict.String()
		case Amended:
			sums[solutions[e.Solution].File] = e.Verdict.String()
			assert.Contains(t, e.Message, "one of the two is wrong")
		}
	}))
	return sums, differ
}

func TestSolutionsThatAnswerAnUnjudgedCaseDifferentlyAreNotAccepted(t *testing.T) {
	for _, tt := range []struct {
		name    string
		sources map[string]string // in Python, in the order of their names
		expect  map[string]string // as verdict.toml has it
		cases   []string          // what is expected; "-": it is not known
		sums    map[string]string
		differ  map[string][]int
	}{
		{"two that differ", map[string]string{"a.py": "print(1)", "b.py": "print(2)"}, nil, []string{"-"},
			map[string]string{"a.py": "unjudged", "b.py": "unjudged"}, map[string][]int{"b.py": {0}}},
		{"beside a case that both pass", map[string]string{"a.py": "print(input() or 1)", "b.py": "print(input() or 2)"}, nil, []string{"-", "x"},
			map[string]string{"a.py": "unjudged", "b.py": "unjudged"}, map[string][]int{"b.py": {0}}},
		{"a third that agrees with the first", map[string]string{"a.py": "print(input() or 1)", "b.py": "print(input() or 1)", "c.py": "print(input() or 2)"}, nil, []string{"-", "x"},
			map[string]string{"a.py": "unjudged", "b.py": "unjudged", "c.py": "unjudged"}, map[string][]int{"c.py": {0}}},
		{"all agree", map[string]string{"a.py": "print(input() or 1)", "b.py": "print(input() or '1 ')"}, nil, []string{"-", "x"},
			map[string]string{"a.py": "accepted", "b.py": "accepted"}, map[string][]int{}},
		{"one that fails anyway keeps its verdict", map[string]string{"a.py": "print(1)", "b.py": "print(input() or 2)"}, nil, []string{"-", "x"},
			map[string]string{"a.py": "wrong answer", "b.py": "unjudged"}, map[string][]int{"b.py": {0}}},
		{"one that is expected to fail says nothing", map[string]string{"a.py": "print(input() or 1)", "b.py": "print(2)"}, map[string]string{"b.py": "wrong answer"}, []string{"-", "x"},
			map[string]string{"a.py": "accepted", "b.py": "wrong answer"}, map[string][]int{}},
		{"a crash is no answer", map[string]string{"a.py": "print(input() or 1/0)", "b.py": "print(input() or 2)"}, nil, []string{"-", "x"},
			map[string]string{"a.py": "runtime error", "b.py": "accepted"}, map[string][]int{}},
	} {
		t.Run(tt.name, func(t *testing.T) {
			p := &problem.Problem{Dir: t.TempDir()}
			for i, expected := range tt.cases {
				c := problem.Case{Name: string(rune('a' + i)), Input: problem.Data{Text: []byte("\n"), Size: 1}}
				if expected != "-" {
					c.Accepted, c.Input = []problem.Data{{Text: []byte(expected)}}, problem.Data{Text: []byte(expected + "\n")}
				}
				p.Cases = append(p.Cases, c)
			}
			var solutions []problem.Solution
			for _, name := range []string{"a.py", "b.py", "c.py"} {
				if text, ok := tt.sources[name]; ok {
					require.NoError(t, os.WriteFile(filepath.Join(p.Dir, name), []byte(text), 0o644))
					solutions = append(solutions, problem.Solution{File: name, Expect: tt.expect[name]})
				}
			}
			sums, differ := endings(t, p, solutions...)
			assert.Equal(t, tt.sums, sums)
			assert.Equal(t, tt.differ, differ)
		})
	}
}

func TestFunctionsThatReturnDifferentValuesForAnUnjudgedCaseAreNotAccepted(t *testing.T) {
	p := function(t, "halve(n: int) -> real", "n = 3", "n = 4 => 2")
	for name, text := range map[string]string{
		"a.py": "def halve(n): return n / 2", "b.py": "def halve(n): return n // 2", "c.py": "def halve(n): return n * 0.5000000001",
	} {
		require.NoError(t, os.WriteFile(filepath.Join(p.Dir, name), []byte(text), 0o644))
	}
	sums, differ := endings(t, p, problem.Solution{File: "a.py"}, problem.Solution{File: "b.py"})
	assert.Equal(t, map[string]string{"a.py": "unjudged", "b.py": "unjudged"}, sums)
	assert.Equal(t, map[string][]int{"b.py": {0}}, differ)
	sums, _ = endings(t, p, problem.Solution{File: "a.py"}, problem.Solution{File: "c.py"})
	assert.Equal(t, map[string]string{"a.py": "accepted", "c.py": "accepted"}, sums, "within the tolerance they are the same")
}

func TestACheckerDoesNotOverrideARefusedAnswer(t *testing.T) {
	for name, how := range map[string]problem.Comparison{"script": {Script: "check.star"}, "program": {Program: "check.c"}} {
		r := checkedTry(t, how, "accept", "accept", "share")
		for i, refused := range []string{"accept\n", "else\n", "share \n"} {
			r.problem.Cases[i].Refused = []problem.Refused{{Answer: problem.Data{Text: []byte(refused)}}}
		}
		outcomes, _ := r.outcomes(t)
		require.Len(t, outcomes, 3)
		assert.Equal(t, verdict.WrongAnswer, outcomes[0].Verdict, name)
		assert.Equal(t, "this very answer was refused", outcomes[0].Message)
		assert.Zero(t, outcomes[0].Share)
		assert.Equal(t, verdict.Accepted, outcomes[1].Verdict, name)
		if name == "script" {
			assert.Equal(t, verdict.WrongAnswer, outcomes[2].Verdict)
			assert.Zero(t, outcomes[2].Share)
		}
	}
}
