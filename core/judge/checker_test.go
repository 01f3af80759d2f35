package judge

import (
	"os"
	"path/filepath"
	"strings"
	"testing"
	"time"

	"coldverdict/core/problem"
	"coldverdict/core/verdict"
	"coldverdict/internal/testenv"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// A checker that does what the candidate prints, in Starlark and in C.
const (
	checkScript = `
def decide(case, got, expected):
    word = got.tokens[0]
    print("heard " + word)
    if word == "accept": return accept()
    if word == "reject": return reject("as it was told")
    if word == "share": return share(0.25, "a quarter")
    if word == "all": return share(1.0)
    if word == "none": return share(0)
    if word == "same": return accept() if got.lines == expected.lines and case.tokens[1] == "same" else reject("other")
    if word == "integer": return reject("not reached") if got.ints else accept()
    if word == "nothing": return None
    if word == "crash": return 1 // 0
    if word == "loop":
        while True: pass
    if word == "hog":
        all = []
        while True: all.append("x" * 1000000)
    if word == "deep": return deep(0)
def deep(n): return deep(n + 1)
`
	checkProgram = `
#include <signal.h>
#include <stdio.h>
#include <stdlib.h>
#include <string.h>
int main(int argc, char **argv)
{
    char path[4096], word[100] = "";
    snprintf(path, sizeof path, "%s/got", argv[1]);
    FILE *got = fopen(path, "r");
    if (argc != 2 || !got || fscanf(got, "%99s", word) != 1) return 9;
    if (!strcmp(word, "nonsense")) puts("perhaps");
    else if (!strcmp(word, "nothing")) ;
    else if (!strcmp(word, "exit")) { puts("accept"); fputs("I give up\n", stderr); exit(1); }
    else if (!strcmp(word, "crash")) { puts("accept"); fflush(stdout); raise(SIGSEGV); }
    else if (!strcmp(word, "loop")) for (;;) {}
    else if (!strcmp(word, "hog")) for (;;) memset(malloc(1 << 20), 1, 1 << 20);
    else if (!strcmp(word, "flood")) for (;;) puts("accept");
    else if (!strcmp(word, "share")) puts("share 1.5");
    else if (!strcmp(word, "write")) {
        snprintf(path, sizeof path, "%s/input", argv[1]);
        FILE *input = fopen(path, "w");
        if (!input) { perror("cannot write"); return 1; }
        puts("accept");
    } else printf("%s with reason\n", word);
    return 0;
}
`
)

// checkedTry is a try whose outputs a checker decides on.
func checkedTry(t testing.TB, how problem.Comparison, words ...string) *try {
	var pairs []string
	for _, word := range words {
		pairs = append(pairs, "say "+word, word)
	}
	r := newTry(t, pairs...)
	r.problem.Compare = how
	for i := range r.problem.Cases {
		r.problem.Cases[i].Compare = how
	}
	for name, text := range map[string]string{"check.star": checkScript, "check.c": checkProgram} {
		require.NoError(t, os.WriteFile(filepath.Join(r.problem.Dir, name), []byte(text), 0o644))
	}
	r.problem.Limits.Checker = verdict.Limits{Time: time.Second, Wall: time.Minute, Memory: 100 << 20, Output: 1 << 20}
	return r
}

// An expectation is what an arbiter must lead to.
type expectation struct {
	says    string
	want    verdict.Verdict
	message string
	share   float64
}

func (r *try) expect(t *testing.T, list []expectation) {
	t.Helper()
	outcomes, _ := r.outcomes(t)
	require.Len(t, outcomes, len(list))
	for i, o := range outcomes {
		assert.Equal(t, list[i].want.String(), o.Verdict.String(), "%s: %s", list[i].says, o.Message)
		assert.Contains(t, o.Message, list[i].message, list[i].says)
		assert.Equal(t, list[i].share, o.Share, list[i].says)
		if o.Verdict == verdict.Fault {
			assert.True(t, o.Ran, "the candidate itself ran well")
		}
	}
}

func saidBy(list []expectation) (words []string) {
	for _, e := range list {
		words = append(words, e.says)
	}
	return words
}

func TestACheckerInStarlarkDecides(t *testing.T) {
	list := []expectation{
		{"accept", verdict.Accepted, "", 1},
		{"reject", verdict.WrongAnswer, "as it was told", 0},
		{"share", verdict.Partial, "25 % of the points: a quarter", 0.25},
		{"all", verdict.Accepted, "", 1},
		{"none", verdict.WrongAnswer, "rejected", 0},
		{"same", verdict.Accepted, "", 1},
		{"integer", verdict.WrongAnswer, `line 1: expected an integer, got "integer"`, 0},
		{"nothing", verdict.Fault, "the checker check.star failed: check.star:2:1: decide returned None; it must return accept()", 0},
		{"crash", verdict.Fault, "check.star:13:34: in decide: floored division by zero", 0},
		{"loop", verdict.Fault, "the checker check.star passed its limit of 1s of processor time; [limits.checker] sets another", 0},
		{"hog", verdict.Fault, "the checker check.star passed its limit of 100 MiB of memory", 0},
		{"deep", verdict.Fault, "passed its limit of 200 MiB of memory", 0},
	}
	r := checkedTry(t, problem.Comparison{Script: "check.star"}, saidBy(list)...)
	r.problem.Limits.Checker.Memory = 200 << 20
	list[10].message = "passed its limit of 200 MiB of memory"
	r.expect(t, list)
	for _, e := range r.events {
		if c, ok := e.(Case); ok && c.Index == 1 {
			assert.Equal(t, "heard reject\n", string(c.Outcome.Checker.Bytes), "what it printed is kept")
		}
	}
}

func TestACheckerInAnyLanguageDecides(t *testing.T) {
	list := []expectation{
		{"accept", verdict.Accepted, "with reason", 1},
		{"reject", verdict.WrongAnswer, "with reason", 0},
		{"nonsense", verdict.Fault, `the checker check.c said "perhaps"; it must say accept, reject WHY or share 0.4 WHY`, 0},
		{"nothing", verdict.Fault, "the checker check.c decided nothing", 0},
		{"exit", verdict.Fault, "the checker check.c ended with exit status 1: I give up", 0},
		{"crash", verdict.Fault, "the checker check.c crashed: segmentation fault (signal 11)", 0},
		{"loop", verdict.Fault, "passed its limit of 1s of processor time", 0},
		{"hog", verdict.Fault, "passed its limit of 100 MiB of memory", 0},
		{"flood", verdict.Fault, "passed its limit of 1 MiB of output", 0},
		{"share", verdict.Fault, `said "share 1.5"`, 0},
		{"write", verdict.Fault, "ended with exit status 1: cannot write: Read-only file system", 0},
	}
	r := checkedTry(t, problem.Comparison{Program: "check.c"}, saidBy(list)...)
	file := filepath.Join(r.problem.Dir, "case.in")
	require.NoError(t, os.WriteFile(file, []byte("say write"), 0o644))
	last := &r.problem.Cases[len(r.problem.Cases)-1]
	last.Input = problem.Data{Path: file, Size: 9}
	if !testenv.InCI() { // elsewhere programs may be isolated in another way
		list[len(list)-1].message = "ended with exit status 1: cannot write"
	}
	r.expect(t, list)
	text, err := os.ReadFile(file)
	require.NoError(t, err)
	assert.Equal(t, "say write", string(text))
}

func TestACandidateThatPassesALimitIsNotHandedToTheChecker(t *testing.T) {
	r := checkedTry(t, problem.Comparison{Script: "check.star"}, "accept", "accept", "accept")
	for i, input := range []string{"say accept burn 9", "say accept exit 3", "say accept hog"} {
		r.problem.Cases[i].Input = problem.Data{Text: []byte(input), Size: int64(len(input))}
	}
	r.expect(t, []expectation{
		{"loops", verdict.TimeLimit, "", 0}, {"fails", verdict.RuntimeError, "exit status 3", 0}, {"allocates", verdict.MemoryLimit, "", 0},
	})
}

func TestACheckerThatCannotBeUsedIsAFaultOfTheWholeSolution(t *testing.T) {
	for _, tt := range []struct {
		how  problem.Comparison
		name string
		text string
		says string
	}{
		{problem.Comparison{Script: "bad.star"}, "bad.star", "def decide(a, b, c)\n", "the checker cannot be used: bad.star:2:1: got newline"},
		{problem.Comparison{Script: "bad.star"}, "bad.star", "x = 1\n", "bad.star defines no decide"},
		{problem.Comparison{Program: "bad.c"}, "bad.c", "int main(void) { return x; }\n", "the checker bad.c does not build"},
	} {
		r := checkedTry(t, tt.how, "accept")
		require.NoError(t, os.WriteFile(filepath.Join(r.problem.Dir, tt.name), []byte(tt.text), 0o644))
		require.NoError(t, r.run(t.Context()))
		ended := r.events[len(r.events)-1].(Ended)
		assert.Equal(t, verdict.Fault, ended.Verdict)
		assert.Contains(t, ended.Message, tt.says)
	}
}

func TestTheCheckerItselfIsTried(t *testing.T) {
	r := checkedTry(t, problem.Comparison{Script: "check.star"}, "accept")
	c := &r.problem.Cases[0]
	for i, answer := range []string{"accept", "reject", "share", "crash", "accept"} {
		c.Trials = append(c.Trials, problem.Trial{Answer: problem.Data{Text: []byte(answer), Size: int64(len(answer))}, Accept: i < 4 && answer != "reject", Line: 10 + i})
	}
	var got []string
	require.NoError(t, opened(t, r.problem, r.options).TryChecker(t.Context(), []int{0}, func(o Opinion) {
		got = append(got, strings.TrimSpace(strings.Join([]string{map[bool]string{true: "right", false: "wrong"}[o.AsWanted], o.Verdict.String(), o.Why}, " ")))
	}))
	assert.Equal(t, []string{
		"right accepted", "right accepted", "right wrong answer as it was told", "wrong partial a quarter",
		"wrong fault the checker check.star failed: check.star:13:34: in decide: floored division by zero", "wrong accepted",
	}, got, "first the expected output")
}

func TestCasesAreComparedAsTheirGroupsSay(t *testing.T) {
	r := newTry(t, "say 1.0000001", "1", "say YES", "yes", "say 1.0000001", "1")
	r.problem.Cases[0].Compare = problem.Comparison{Mode: "numbers", Absolute: 1e-6}
	r.problem.Cases[1].Compare = problem.Comparison{IgnoreCase: true}
	r.expect(t, []expectation{{"", verdict.Accepted, "", 1}, {"", verdict.Accepted, "", 1}, {"", verdict.WrongAnswer, "line 1, column 2: expected 1, got 1.0000001", 0}})
}
