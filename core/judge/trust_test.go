//go:build linux

package judge

import (
	"os"
	"path/filepath"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"coldverdict/core/problem"
	"coldverdict/core/verdict"
)

func TestWhatASourceWritesWhereItsDriverAnswersIsNoAnswer(t *testing.T) {
	needLanguageOf(t, "a.py")
	const foul = "it wrote to descriptor 3, on which the judge hears what the function returns"
	for _, tt := range []struct {
		name, body string
		want       verdict.Verdict // of the call that does so
		told       string
	}{
		{"an answer without a token", `os.write(3, b"done 0 5\n")`, verdict.RuntimeError, foul},
		{"an answer with another token", `os.write(3, b"00ff00ff 1 done 0 5\n")`, verdict.RuntimeError, foul},
		{"half of an answer", `os.write(3, b"done 0 ")`, verdict.RuntimeError, foul},
		{"that it begins", `os.write(3, b"begin\n")`, verdict.RuntimeError, foul},
		{"that it begins, for ever", "while True: os.write(3, b'begin\\n')", verdict.RuntimeError, foul},
		{"that it begins, with the driver's own words, for ever", "while True: sys.modules['__main__'].answer('begin')", verdict.RuntimeError, foul},
		{"an answer of another call", "sys.modules['__main__'].answer('ready')", verdict.RuntimeError, foul},
		{"the driver's file, closed", "os.close(3)", verdict.RuntimeError, ""},
	} {
		t.Run(tt.name, func(t *testing.T) {
			p := function(t, "half(n: int) -> int", "n = 4 => 2", "n = 7 => 3", "n = 8 => 4")
			p.Limits.General = limits.General
			outcomes, ended := calledAs(t, p, "a.py", "import os, sys\ndef half(n):\n    if n == 7:\n        "+tt.body+"\n    return n // 2\n", options{Jobs: 1})
			require.Len(t, outcomes, 3)
			assert.Equal(t, verdict.Accepted, outcomes[0].Verdict, outcomes[0].Message)
			assert.Equal(t, tt.want, outcomes[1].Verdict, outcomes[1].Message)
			assert.Contains(t, outcomes[1].Message, tt.told)
			assert.Equal(t, verdict.Accepted, outcomes[2].Verdict, "the next call: "+outcomes[2].Message)
			assert.Equal(t, tt.want, ended.Verdict)
		})
	}
}

func TestACallEndsOnce(t *testing.T) {
	needLanguageOf(t, "a.py")
	p := function(t, "half(n: int) -> int", "n = 4 => 2", "n = 7 => 3", "n = 8 => 4")
	p.Limits.General = limits.General
	for name, doing := range map[string]string{
		"one in the middle":        "if n == 7: say('done 0 3')",
		"the last":                 "if n == 8: say('done 0 4')",
		"the last, and it tarries": "if n == 8: say('done 0 4'); time.sleep(0.3)",
		"the first":                "if n == 4: say('done 0 2')",
		"each":                     "say('done 0 %d' % (n // 2))",
	} {
		t.Run(name, func(t *testing.T) {
			// It knows the driver's word, and answers for itself before it returns.
			forger := "import sys, time\ndef half(n):\n    say = sys.modules['__main__'].answer\n    " + doing + "\n    return n // 2\n"
			for range 3 {
				_, ended := calledAs(t, p, "a.py", forger, options{Jobs: 1})
				assert.NotEqual(t, verdict.Accepted, ended.Verdict, "it answered twice")
			}
		})
	}
}

func TestASourceThatStopsItsDriversClockIsMeasuredAllTheSame(t *testing.T) {
	needLanguageOf(t, "a.py")
	p := function(t, "half(n: int) -> int", "n = 4 => 2", "n = 7 => 3")
	p.Limits.General = limits.General
	p.Limits.General.Time, p.Limits.General.Wall = 5*time.Second, 30*time.Second
	burn := "    began = os.times().user\n    while os.times().user - began < 0.7: pass\n"
	for name, stop := range map[string]string{
		"the module's":     "    import time\n    time.process_time_ns = lambda: 0\n",
		"the driver's own": "    driver = sys.modules['__main__']\n    now = driver.clock()\n    driver.clock = lambda: now\n",
	} {
		t.Run(name, func(t *testing.T) {
			outcomes, _ := calledAs(t, p, "a.py", "import os, sys\ndef half(n):\n"+stop+burn+"    return n // 2\n", options{Jobs: 1})
			require.Len(t, outcomes, 2)
			for _, o := range outcomes {
				require.Equal(t, verdict.Accepted, o.Verdict, o.Message)
				assert.Greater(t, o.Usage.CPU, 400*time.Millisecond)
			}
		})
	}
}

func TestWhatTellsAnswersIsKeptFromBuilds(t *testing.T) {
	folder, err := filepath.EvalSymlinks(t.TempDir())
	require.NoError(t, err)
	elsewhere := filepath.Join(t.TempDir(), "answers")
	for _, name := range []string{"1.in", "2.in", "judge.star", "own.cpp", "talk.py", "make.star", "brute.py", "fast.cpp", "lib.h"} {
		require.NoError(t, os.WriteFile(filepath.Join(folder, name), nil, 0o644))
	}
	require.NoError(t, os.WriteFile(elsewhere, nil, 0o644))
	require.NoError(t, os.Symlink(elsewhere, filepath.Join(folder, "1.out")))
	data := func(name string) problem.Data { return problem.Data{Path: filepath.Join(folder, name)} }
	p := &problem.Problem{
		Dir: folder, Talk: problem.Talk{Program: "talk.py"}, Make: problem.Make{Script: "make.star"}, Compare: problem.Comparison{Script: "judge.star"},
		Solutions: []problem.Solution{{File: "brute.py", Role: problem.Reference}, {File: "fast.cpp", Role: problem.Candidate}},
		Cases: []problem.Case{
			{Input: data("1.in"), Accepted: []problem.Data{data("1.out")}, Compare: problem.Comparison{Program: "own.cpp"}},
			{Input: data("2.in"), Trials: []problem.Trial{{Answer: data("2.in")}}},
			{Input: problem.Data{Text: []byte("3\n")}},
		},
	}
	real, err := filepath.EvalSymlinks(elsewhere)
	require.NoError(t, err)
	secrets := (&Judge{problem: p}).secrets()
	for _, name := range []string{"cases", "cases.md", "verdict.toml", "input.shape", ".cold", "1.in", "1.out", "2.in", "judge.star", "own.cpp", "talk.py", "make.star", "brute.py"} {
		assert.Contains(t, secrets, filepath.Join(folder, name))
	}
	assert.Contains(t, secrets, real, "and what a link leads to")
	for _, path := range secrets {
		assert.False(t, strings.HasSuffix(path, "fast.cpp") || strings.HasSuffix(path, "lib.h"), path)
	}
}
