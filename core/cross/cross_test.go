package cross

import (
	"context"
	"fmt"
	"os"
	"path/filepath"
	"strings"
	"sync"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"coldverdict/core/box"
	"coldverdict/core/judge"
	"coldverdict/core/problem"
	"coldverdict/core/script"
	"coldverdict/core/shape"
	"coldverdict/core/value"
	"coldverdict/core/verdict"
	"coldverdict/internal/testenv"
)

func TestMain(m *testing.M) {
	shrinkTime = time.Minute // on a busy machine, too, it comes to the smallest
	testenv.Main(m, box.Supervise, script.Main)
}

// A trial is a problem of crates with solutions in C, and what is to be done with them.
type trial struct {
	problem *problem.Problem
	options Options
	events  []Event
}

// sumShape: the weights of crates.
const sumShape = "n: int 1..50\nw: int[n] 1..1000000"

// sum is a program that adds the crates up, with something in its place that changes
// the sum s of the n crates w.
func sum(change string) string {
	return `#include <stdio.h>
#include <stdlib.h>
#include <string.h>
#include <time.h>
#include <unistd.h>
int main(void) {
    long n, s = 0, w[100000];
    if (scanf("%ld", &n) != 1) return 1;
    for (int i = 0; i < n; i++) { scanf("%ld", w + i); s += w[i]; }
    ` + change + `
    printf("%ld\n", s);
}
`
}

// newTrial writes sources into a folder; the one named reference.c is the reference,
// and the others are candidates, in the order in which they are given.
func newTrial(t *testing.T, text string, sources ...string) *trial {
	testenv.Need(t, "gcc")
	p := &problem.Problem{Dir: t.TempDir()}
	p.Limits.General = verdict.Limits{Time: 200 * time.Millisecond, Wall: 4 * time.Second, Memory: 64 << 20, Output: 1 << 20}
	if text != "" {
		var err error
		p.Shape, err = shape.Parse(text)
		require.NoError(t, err)
	}
	r := &trial{problem: p, options: Options{Time: 10 * time.Minute, Seed: 1, Env: judge.Env{Cache: testenv.SharedDir()}}}
	for i := 0; i < len(sources); i += 2 {
		require.NoError(t, os.WriteFile(filepath.Join(p.Dir, sources[i]), []byte(sources[i+1]), 0o644))
		one := problem.Solution{File: sources[i], Role: problem.Candidate}
		if strings.HasPrefix(sources[i], "reference.") {
			one.Role = problem.Reference
			r.options.Reference = &one
			continue
		}
		r.options.Candidates = append(r.options.Candidates, one)
	}
	return r
}

func (r *trial) run(t *testing.T) *Result {
	t.Helper()
	result, err := Run(context.Background(), r.problem, r.options, func(e Event) { r.events = append(r.events, e) })
	require.NoError(t, err)
	return result
}

// found runs the search and returns the only failure.
func (r *trial) found(t *testing.T) Found {
	t.Helper()
	result := r.run(t)
	require.Len(t, result.Found, 1, "%+v", result)
	return result.Found[0]
}

func inputOf(f Found) string { return string(f.Cases[len(f.Cases)-1].Input.Text) }

func TestTheSmallestInputOnWhichACandidatePartsIsFound(t *testing.T) {
	for _, test := range []struct {
		name, change, smallest string
	}{
		{"the last crate is left out", "s -= w[n-1];", "1\n1\n"},
		{"32 bits", "if (n > 2 && s > 2000000) s = (int)(s * 3000) ;", ""},
		{"two crates of one weight in a row", "for (int i = 1; i < n; i++) if (w[i] == w[i-1]) s++;", "2\n1 1\n"},
		{"exactly a power of two", "for (int i = 0; i < n; i++) if (w[i] == 65536) s++;", "1\n65536\n"},
		{"the largest weight", "for (int i = 0; i < n; i++) if (w[i] == 1000000) s++;", "1\n1000000\n"},
		{"the largest number of crates", "if (n == 50) s++;", "50\n" + strings.TrimSuffix(strings.Repeat("1 ", 50), " ") + "\n"},
		{"nearly the largest number", "if (n == 49) s++;", "49\n" + strings.TrimSuffix(strings.Repeat("1 ", 49), " ") + "\n"},
	}[:testenv.Of(7, 6)] {
		t.Run(test.name, func(t *testing.T) {
			f := newTrial(t, sumShape, "reference.c", sum(""), "candidate.c", sum(test.change)).found(t)
			assert.Equal(t, Fails, f.Way)
			assert.Equal(t, verdict.WrongAnswer, f.Outcome.Verdict)
			assert.NotNil(t, f.Outcome.Difference)
			assert.True(t, f.Complete, "nothing smaller is said to fail")
			require.Len(t, f.Cases, 1)
			require.Len(t, f.Cases[0].Accepted, 1, "what was expected is known")
			if test.smallest != "" {
				assert.Equal(t, test.smallest, inputOf(f))
			}
			assert.EqualValues(t, len(inputOf(f)), f.Size)
		})
	}
}

func TestARightCandidateIsNotAccused(t *testing.T) {
	r := newTrial(t, sumShape, "reference.c", sum(""), "candidate.c", sum("s = 0; for (int i = n - 1; i >= 0; i--) s += w[i];"))
	r.options.Time, r.options.Count = 0, 1000
	result := r.run(t)
	assert.Empty(t, result.Found)
	assert.Empty(t, result.Notes)
	assert.Empty(t, result.Health.Wrong)
	assert.Positive(t, result.Coverage.EdgeCases)
	assert.Greater(t, result.Coverage.Random, 100)
	assert.Equal(t, result.Inputs, result.Judged)
	assert.Greater(t, len(result.Coverage.Styles), 5)
	require.Len(t, result.Coverage.Counts, 1)
	assert.Equal(t, Range{"n", 1, 50, 50}, result.Coverage.Counts[0])
	assert.Contains(t, result.Coverage.Never, "the answer 0")
}

func TestLimitsAndCrashesAreFoundAndShrunk(t *testing.T) {
	for change, want := range map[string]struct {
		verdict  verdict.Verdict
		smallest string
	}{
		"if (n > 3) abort();":                                       {verdict.RuntimeError, "4\n1 1 1 1\n"},
		"if (w[0] > 9) return 3;":                                   {verdict.RuntimeError, "1\n10\n"},
		"if (n > 20) for (;;) ;":                                    {verdict.TimeLimit, ""},
		"if (n > 2) for (;;) printf(\"crate\\n\");":                 {verdict.OutputLimit, "3\n1 1 1\n"},
		"if (n == 2) for (;;) memset(malloc(1 << 20), 1, 1 << 20);": {verdict.MemoryLimit, "2\n1 1\n"},
	} {
		t.Run(change, func(t *testing.T) {
			f := newTrial(t, sumShape, "reference.c", sum(""), "candidate.c", sum(change)).found(t)
			assert.Equal(t, want.verdict, f.Outcome.Verdict)
			if want.smallest != "" {
				assert.Equal(t, want.smallest, inputOf(f))
			}
		})
	}
}

// boxes are many cases in a file.
const boxes = "cases t: int 1..200 {\n  n: int 1..9\n  w: int[n] 1..9\n  total n <= 400\n}"

// boxSums answers each case; change may change its sum s, and what is kept outside.
func boxSums(outside, change string) string {
	return `#include <stdio.h>
` + outside + `
int main(void) {
    int t;
    scanf("%d", &t);
    for (int c = 0; c < t; c++) {
        long n, s = 0, w[10];
        scanf("%ld", &n);
        for (int i = 0; i < n; i++) { scanf("%ld", w + i); s += w[i]; }
        ` + change + `
        printf("%ld\n", s);
    }
}
`
}

func TestManyCasesGoIntoOneFile(t *testing.T) {
	r := newTrial(t, boxes, "reference.c", boxSums("", ""), "candidate.c", boxSums("", ""))
	r.options.Time, r.options.Count = 0, 2000
	result := r.run(t)
	assert.Empty(t, result.Found)
	assert.Greater(t, result.Inputs, 10*result.Runs)
}

func TestAFailureInAFileOfManyCasesIsCutDownToTheCase(t *testing.T) {
	r := newTrial(t, boxes, "reference.c", boxSums("", ""), "candidate.c", boxSums("", "if (n == 3 && w[0] == 7) s++;"))
	size := r.problem.Shape.SizeFor(4)
	r.options.Size = &size // no edge cases
	f := r.found(t)
	assert.Equal(t, "1\n3\n7 1 1\n", inputOf(f))
	assert.Zero(t, f.Company)
	in, err := r.problem.Shape.Make(shape.Making{Seed: f.Origin.Seed, Size: f.Origin.Size, Style: f.Origin.Style, OneCase: true, Alike: true})
	require.NoError(t, err)
	assert.Contains(t, string(in.Append(nil)), "\n3\n7 ", "the seed makes the case again")
}

func TestACaseThatFailsOnlyAfterOthersIsRecognised(t *testing.T) {
	f := newTrial(t, boxes, "reference.c", boxSums("", ""), "candidate.c", boxSums("int kept;", "if (s > 5) kept = 1; if (kept && n == 2) s++;")).found(t)
	assert.Equal(t, verdict.WrongAnswer, f.Outcome.Verdict)
	if f.Company == 0 { // a case with two crates and more than 5 shows it alone
		assert.Regexp(t, `^1\n2\n`, inputOf(f))
		return
	}
	f = newTrial(t, boxes, "reference.c", boxSums("", ""), "candidate.c", boxSums("int last;", "if (last == 9) s++; last = w[n-1];")).found(t)
	assert.Equal(t, "2\n1\n9\n1\n1\n", inputOf(f))
	assert.Equal(t, 2, f.Company)
}

func TestWhatIsLeftOverFromTheCaseBeforeIsToldAsThat(t *testing.T) {
	f := newTrial(t, boxes, "reference.c", boxSums("", ""), "candidate.c", boxSums("int last;", "if (last == 9) s++; last = w[n-1];")).found(t)
	assert.Equal(t, "2\n1\n9\n1\n1\n", inputOf(f))
	assert.Equal(t, 2, f.Company)
}

func TestWithoutAReferenceAnswersMustNotVary(t *testing.T) {
	for name, test := range map[string]struct {
		text, source string
		way          Way
	}{
		"from run to run":         {sumShape, sum("struct timespec t; clock_gettime(CLOCK_REALTIME, &t); s += t.tv_nsec;"), Unsteady},
		"with the order of cases": {boxes, boxSums("int last;", "if (last == 9) s++; last = w[n-1];"), AfterOthers},
	} {
		t.Run(name, func(t *testing.T) {
			r := newTrial(t, test.text, "candidate.c", test.source)
			f := r.found(t)
			assert.Equal(t, test.way, f.Way)
			if test.way == AfterOthers {
				assert.Equal(t, "2\n1\n9\n1\n1\n", inputOf(f))
				assert.Equal(t, 2, f.Company)
			}
		})
	}
	r := newTrial(t, boxes, "candidate.c", boxSums("", "s = 4;"))
	r.options.Time, r.options.Count = 0, 1000
	result := r.run(t)
	assert.Empty(t, result.Found, "nobody knows that it is wrong")
	assert.Equal(t, ByNothing, result.Base)
	assert.Contains(t, result.Coverage.Never, "an answer other than 4")
}

func TestCandidatesThatDisagreeAreSetOut(t *testing.T) {
	r := newTrial(t, sumShape, "a.c", sum(""), "b.c", sum("if (n > 1) s--;"), "c.c", sum("s += 0;"))
	f := r.found(t)
	assert.Equal(t, Disagrees, f.Way)
	assert.Equal(t, "2\n1 1\n", inputOf(f))
	require.Len(t, f.Answers, 2)
	assert.Equal(t, Answer{Candidates: []int{0, 2}, Text: verdict.Text{Bytes: []byte("2\n")}}, f.Answers[0])
	assert.Equal(t, Answer{Candidates: []int{1}, Text: verdict.Text{Bytes: []byte("1\n")}}, f.Answers[1])
}

func TestEachCandidateHasItsOwnFailure(t *testing.T) {
	r := newTrial(t, sumShape, "reference.c", sum(""), "a.c", sum("if (n > 1) s--;"), "right.c", sum(""), "b.c", sum("if (n > 2) abort();"))
	r.options.Time, r.options.Count = 0, 2000
	result := r.run(t)
	inputs := map[int]string{}
	for _, f := range result.Found {
		inputs[f.Candidate] = inputOf(f)
		assert.Empty(t, f.Doubt)
	}
	assert.Equal(t, map[int]string{0: "2\n1 1\n", 2: "3\n1 1 1\n"}, inputs)
}

func TestWhereAllCandidatesAgreeTheReferenceIsDoubted(t *testing.T) {
	r := newTrial(t, sumShape, "reference.c", sum("if (n == 3) s++;"), "a.c", sum(""), "b.c", sum(""))
	result := r.run(t)
	require.Len(t, result.Found, 2)
	for _, f := range result.Found {
		assert.Equal(t, "all 2 candidates answer the same here; look at the reference first", f.Doubt)
	}
}

func TestAReferenceThatFailsIsNeverTheCandidatesFault(t *testing.T) {
	for name, test := range map[string]struct {
		reference string
		check     func(t *testing.T, r *Result)
	}{
		"it crashes on some": {sum("if (n > 4) abort();"), func(t *testing.T, r *Result) {
			assert.Positive(t, r.Health.Answered)
			assert.Positive(t, r.Health.Failed)
			require.NotNil(t, r.Health.First)
			assert.Equal(t, "5\n1 1 1 1 1\n", string(r.Health.First.Input.Text))
			assert.Equal(t, verdict.RuntimeError, r.Health.First.Outcome.Verdict)
		}},
		"it crashes on all": {sum("abort();"), func(t *testing.T, r *Result) {
			assert.Zero(t, r.Judged)
			assert.Contains(t, r.Health.Wrong, "it failed on each of the first")
		}},
		"it loops on all": {sum("for (;;) ;"), func(t *testing.T, r *Result) {
			assert.Zero(t, r.Judged)
			assert.Contains(t, r.Health.Wrong, "it answered none of the first ")
		}},
		"it is slow on large ones": {sum("if (n > 20) for (;;) ;"), func(t *testing.T, r *Result) {
			assert.Positive(t, r.Judged)
			assert.Positive(t, r.Health.Slow)
			assert.Empty(t, r.Health.Wrong)
			assert.Regexp(t, `an answer of the reference where n is above \d+, out of up to 50`, strings.Join(r.Coverage.Never, "\n"))
		}},
		"it answers otherwise each time": {sum("struct timespec t; clock_gettime(CLOCK_REALTIME, &t); s += t.tv_nsec;"), func(t *testing.T, r *Result) {
			assert.Contains(t, r.Health.Wrong, "it answers otherwise when it is run again")
		}},
	} {
		t.Run(name, func(t *testing.T) {
			if strings.Contains(test.reference, "for (;;) ;") {
				testenv.Sweep(t, "each limit that it passes takes its time")
			}
			r := newTrial(t, sumShape, "reference.c", test.reference, "candidate.c", sum(""))
			r.options.Time, r.options.Count = 0, 150
			result := r.run(t)
			assert.Empty(t, result.Found)
			test.check(t, result)
		})
	}
}

func TestAReferenceThatIsWrongOnAKnownCaseIsRefused(t *testing.T) {
	r := newTrial(t, sumShape, "reference.c", sum("s++;"), "candidate.c", sum(""))
	r.problem.Cases = []problem.Case{
		{Name: "samples/kept", Kept: "kept", Input: dataOf([]byte("1\n1\n")), Accepted: []problem.Data{dataOf([]byte("7\n"))}},
		{Name: "samples/1", Input: dataOf([]byte("2\n4 5\n")), Accepted: []problem.Data{dataOf([]byte("9\n"))}},
	}
	result := r.run(t)
	assert.Equal(t, "it fails on samples/1, whose answer is known", result.Health.Wrong)
	require.NotNil(t, result.Health.WrongOn)
	assert.Equal(t, "2\n4 5\n", string(result.Health.WrongOn.Input.Text))
	assert.Zero(t, result.Inputs)
	assert.Empty(t, result.Found)
}

func TestSpacingThatNoJudgeGivesIsNoted(t *testing.T) {
	r := newTrial(t, "name: token(1..5, \"a-z\")", "candidate.c", `#include <stdio.h>
int main(void) { int c, n = 0; while ((c = getchar()) != '\n') if (c == EOF) { n = 99; break; } else n++; printf("%d\n", n); }
`)
	r.options.Time, r.options.Count = 0, 200
	result := r.run(t)
	assert.Empty(t, result.Found)
	var notes []string
	for _, n := range result.Notes {
		notes = append(notes, n.Text)
	}
	assert.ElementsMatch(t, []string{"it answers otherwise when lines of the input end in a blank", "it answers otherwise when the input's last line has no line end"}, notes)
}

func TestTheSameSeedTriesTheSame(t *testing.T) {
	first := func() (texts []string) {
		src, err := openSource(context.Background(), &problem.Problem{Shape: parsedShape(t, sumShape)}, Options{})
		require.NoError(t, err)
		s := newSchedule(src, Options{Seed: 7, Style: "sorted"})
		for range 300 {
			p, err := s.next(context.Background())
			require.NoError(t, err)
			texts = append(texts, string(p.texts[0]))
			s.ended(p, time.Millisecond, [][]uint64{{uint64(len(p.texts[0]))}}, false)
		}
		return texts
	}
	a := first()
	assert.Equal(t, a, first())
	assert.Less(t, len(a[0]), len(a[299])+40)
}

func parsedShape(t *testing.T, text string) *shape.Shape {
	s, err := shape.Parse(text)
	require.NoError(t, err)
	return s
}

func TestWhatShowsSomethingNewIsTriedMoreOften(t *testing.T) {
	src, err := openSource(context.Background(), &problem.Problem{Shape: parsedShape(t, sumShape)}, Options{})
	require.NoError(t, err)
	s := newSchedule(src, Options{Seed: 7})
	s.edging = false
	tried := map[string]int{}
	news := uint64(0)
	for range 2000 {
		s.large, s.spent = nil, [3]time.Duration{} // random ones only
		p, err := s.next(context.Background())
		require.NoError(t, err)
		style := p.inputs[0].Style
		tried[style]++
		traits := []uint64{1}
		if style == "zigzag" {
			news++
			traits = []uint64{1000 + news}
		}
		s.ended(p, time.Millisecond, [][]uint64{traits}, false)
	}
	assert.Greater(t, tried["zigzag"], 3*tried["sorted"])
	assert.Positive(t, tried["sorted"], "others are not forgotten")
}

func TestAnEndComesAtTheCount(t *testing.T) {
	r := newTrial(t, boxes, "reference.c", boxSums("", ""), "candidate.c", boxSums("", ""))
	r.options.Time, r.options.Count = 0, 500
	assert.Equal(t, 500, r.run(t).Inputs)
}

func TestWhatWasFoundIsToldAlsoWhenTheSearchIsInterrupted(t *testing.T) {
	r := newTrial(t, sumShape, "reference.c", sum(""), "candidate.c", sum("usleep(20000); if (n > 3) s++;"))
	ctx, stop := context.WithCancel(context.Background())
	defer stop()
	var mu sync.Mutex
	result, err := Run(ctx, r.problem, r.options, func(e Event) {
		mu.Lock()
		defer mu.Unlock()
		if p, ok := e.(Progress); ok && strings.HasPrefix(p.Doing, "shrinking") {
			stop()
		}
	})
	require.ErrorIs(t, err, context.Canceled)
	require.Len(t, result.Found, 1)
	assert.False(t, result.Found[0].Complete)
	assert.Equal(t, verdict.WrongAnswer, result.Found[0].Outcome.Verdict)
}

func TestAnInterruptedSearchSaysWhatItDid(t *testing.T) {
	r := newTrial(t, sumShape, "reference.c", sum(""), "candidate.c", sum(""))
	ctx, stop := context.WithCancel(context.Background())
	defer stop()
	result, err := Run(ctx, r.problem, r.options, func(e Event) {
		if p, ok := e.(Progress); ok && p.Inputs > 20 {
			stop()
		}
	})
	require.ErrorIs(t, err, context.Canceled)
	assert.Positive(t, result.Inputs)
	assert.Empty(t, result.Found)
}

func TestMistakesOfTheProblemAreErrors(t *testing.T) {
	run := func(r *trial) error {
		_, err := Run(context.Background(), r.problem, r.options, func(Event) {})
		return err
	}
	r := newTrial(t, "", "candidate.c", sum(""))
	assert.ErrorIs(t, run(r), ErrNoInputs)

	r = newTrial(t, "n: int 5..9\nw: int[n] 1..3 distinct", "candidate.c", sum(""))
	var contradiction *shape.GenerateError
	require.ErrorAs(t, run(r), &contradiction)
	assert.Contains(t, contradiction.Text, "cannot be met")

	r = newTrial(t, sumShape, "candidate.c", "int main(void) { return }")
	var unable *judge.UnableError
	require.ErrorAs(t, run(r), &unable)
	assert.Equal(t, verdict.CompileError, unable.End.Verdict)
	assert.Equal(t, "candidate.c", unable.Solution.File)
	assert.Contains(t, unable.Log, "expected expression")

	r = newTrial(t, sumShape, "candidate.c", sum(""))
	require.NoError(t, os.WriteFile(filepath.Join(r.problem.Dir, "check.star"), []byte("def decide(case, got, expected):\n    return 1 // 0\n"), 0o644))
	r.problem.Compare.Script = "check.star"
	var fault *FaultError
	require.ErrorAs(t, run(r), &fault)
	assert.Contains(t, fault.Message, "division by zero")
	assert.NotEmpty(t, fault.Input)
}

func TestACheckerOfOnesOwnJudgesWithoutAReference(t *testing.T) {
	r := newTrial(t, sumShape, "candidate.c", sum("if (n == 2) s = -1;"))
	check := "def decide(case, got, expected):\n    if int(got.tokens[0]) < 0:\n        return reject(\"a negative sum\")\n    return accept()\n"
	require.NoError(t, os.WriteFile(filepath.Join(r.problem.Dir, "check.star"), []byte(check), 0o644))
	r.problem.Compare.Script = "check.star"
	f := r.found(t)
	assert.Equal(t, "2\n1 1\n", inputOf(f))
	assert.Equal(t, "a negative sum", f.Outcome.Message)
}

func TestFunctionsAreCalledManyTimesInOneProcess(t *testing.T) {
	testenv.Sweep(t, "a process a try takes its time")
	testenv.Need(t, "python3")
	takes := []value.Field{{Name: "crates", Type: typeOf(t, "int[]")}}
	right := "def heaviest(crates):\n    return max(crates, default=0)\n"
	for name, test := range map[string]struct {
		source   string
		smallest []string
	}{
		"wrong for itself": {"def heaviest(crates):\n    return max(crates[:2], default=0)\n", []string{"crates: [1, 1, 2]\n"}},
		"left over":        {"best = 0\ndef heaviest(crates):\n    global best\n    best = max([best] + crates)\n    return best\n", []string{"crates: [1]\n", "crates: []\n"}},
	} {
		t.Run(name, func(t *testing.T) {
			r := newTrial(t, "", "reference.py", right, "candidate.py", test.source)
			r.problem.Call = &problem.Call{Name: "heaviest", Takes: takes, Returns: []value.Field{{Type: typeOf(t, "int")}}}
			var err error
			r.problem.Shape, err = shape.ParseArguments("crates: int[0..50] 1..1000", takes)
			require.NoError(t, err)
			f := r.found(t)
			var inputs []string
			for _, c := range f.Cases {
				inputs = append(inputs, string(c.Input.Text))
			}
			assert.Len(t, inputs, len(test.smallest))
			assert.Equal(t, len(test.smallest) > 1, f.Company > 1)
			assert.Equal(t, test.smallest[len(test.smallest)-1], inputs[len(inputs)-1])
		})
	}
}

// A call on which the reference fails does not take others with it, and sizes are those of one call.
func TestOneCallAmongManyIsCountedForItself(t *testing.T) {
	testenv.Need(t, "python3")
	takes := []value.Field{{Name: "crates", Type: typeOf(t, "int[]")}}
	right := "def heaviest(crates):\n    return max(crates, default=0)\n"
	r := newTrial(t, "", "reference.py", "def heaviest(crates):\n    return max(crates)\n", "candidate.py", right)
	r.problem.Call = &problem.Call{Name: "heaviest", Takes: takes, Returns: []value.Field{{Type: typeOf(t, "int")}}}
	var err error
	r.problem.Shape, err = shape.ParseArguments("crates: int[0..5] 1..9", takes)
	require.NoError(t, err)
	r.options.Count = 400
	result := r.run(t)
	assert.Equal(t, 400, result.Inputs)
	assert.NotZero(t, result.Health.Failed, "it has no answer for no crates")
	assert.Equal(t, 400, result.Health.Failed+result.Health.Answered, "it has one for all others")
	assert.Equal(t, result.Health.Answered, result.Judged)
	most := int64(len("crates: [1, 2, 3, 4, 5]\n"))
	assert.LessOrEqual(t, result.Health.Largest, most)
	assert.LessOrEqual(t, result.Slowest[0].Bytes, most)
}

// What is kept from case to case may show in the opposite order only.
func TestWhatDependsOnTheOrderIsCutDownInTheOrderInWhichItShows(t *testing.T) {
	takes := []value.Field{{Name: "crate", Type: typeOf(t, "int")}}
	calls := newTrial(t, "", "candidate.c", "int heavy;\nint weight(int crate) { crate += heavy; heavy |= crate > 8; return crate; }\n")
	calls.problem.Call = &problem.Call{Name: "weight", Takes: takes, Returns: []value.Field{{Type: typeOf(t, "int")}}}
	var err error
	calls.problem.Shape, err = shape.ParseArguments("crate: int 1..9", takes)
	require.NoError(t, err)
	file := newTrial(t, boxes, "candidate.c", boxSums("long heavy;", "s += heavy; if (w[n-1] == 9) heavy = 1;"))
	for name, test := range map[string]struct {
		trial  *trial
		inputs []string
		cut    []string
	}{
		"calls":               {calls, []string{"crate: 2", "crate: 3", "crate: 9"}, []string{"crate: 9\n", "crate: 1\n"}},
		"a file":              {file, []string{"3\n1\n2\n1\n3\n1\n9\n"}, []string{"2\n1\n9\n1\n1\n"}},
		"a file of many":      {file, []string{"12\n" + strings.Repeat("1\n2\n", 11) + "1\n9\n"}, []string{"2\n1\n9\n1\n1\n"}},
		"as it was, in calls": {calls, []string{"crate: 9", "crate: 3"}, []string{"crate: 9\n", "crate: 1\n"}},
		"as it was, in files": {file, []string{"2\n1\n9\n1\n3\n"}, []string{"2\n1\n9\n1\n1\n"}},
	} {
		t.Run(name, func(t *testing.T) {
			s, err := begin(t.Context(), test.trial.problem, test.trial.options, false, func(Event) {})
			require.NoError(t, err)
			defer s.close()
			var list []*input
			for _, text := range test.inputs {
				in := s.read([]byte(text))
				require.NotNil(t, in, text)
				list = append(list, &input{in: in})
			}
			p, _, err := s.source.packed(list)
			require.NoError(t, err)
			require.NoError(t, s.round(t.Context(), t.Context(), 0, p))
			assert.Empty(t, s.result.Notes)
			require.Len(t, s.result.Found, 1)
			f := s.result.Found[0]
			assert.Equal(t, AfterOthers, f.Way)
			assert.Equal(t, 2, f.Company)
			var cut []string
			for _, c := range f.Cases {
				cut = append(cut, string(c.Input.Text))
			}
			assert.Equal(t, test.cut, cut)
		})
	}
}

func typeOf(t *testing.T, text string) value.Type {
	one, err := value.ParseType(text)
	require.NoError(t, err)
	return one
}

func TestWhatAScriptMakesIsTriedFromTheSmallestOn(t *testing.T) {
	if testing.Short() {
		t.Skip("too little is tried in time with the race detector")
	}
	r := newTrial(t, "", "reference.c", sum(""), "candidate.c", sum("if (n > 3) s++;"))
	made := "def make(rng, size):\n    n = rng.int(1, 2 + int(size * 40))\n    return \"%d\\n%s\\n\" % (n, \" \".join([str(rng.int(1, 9)) for _ in range(n)]))\n"
	require.NoError(t, os.WriteFile(filepath.Join(r.problem.Dir, "make.star"), []byte(made), 0o644))
	r.problem.Make.Script = "make.star"
	f := r.found(t)
	var n int
	fmt.Sscan(inputOf(f), &n)
	assert.Greater(t, n, 3)
	assert.Less(t, n, 10)
}

func TestSlowInputsAreFound(t *testing.T) {
	r := newTrial(t, "n: int 1..3000\nw: int[n] 1..1000000", "candidate.c", sum("for (int i = 0; i < n; i++) for (int j = 0; j < n && w[i] >= w[0]; j++) for (int k = 0; k < 8; k++) s += w[j] % (k + 3);"))
	r.options.Time = 4 * time.Second
	all, result, err := Slow(context.Background(), r.problem, r.options, func(Event) {})
	require.NoError(t, err)
	require.Len(t, all, 1)
	assert.Positive(t, result.Inputs)
	worst := all[0].Worst
	require.NotEmpty(t, worst)
	for i := range worst[1:] {
		if worst[i].Outcome.Verdict.Passing() {
			assert.GreaterOrEqual(t, worst[i].Outcome.Usage.CPU, worst[i+1].Outcome.Usage.CPU)
		}
	}
	assert.True(t, strings.HasPrefix(string(all[0].Input), "3000\n") || strings.HasPrefix(string(all[0].Input), "2"), "of full size")
}

func TestPartsOfTheSourceThatNothingReachesAreTold(t *testing.T) {
	r := newTrial(t, sumShape, "reference.c", sum(""), "candidate.c", sum("if (n > 60)\n        s++;\n    if (w[0] == w[n-1] && n > 2)\n        s += 0 * puts(\"\");"))
	r.problem.Compare.Mode = "tokens"
	r.options.Time, r.options.Count = 0, 2000
	result := r.run(t)
	assert.Empty(t, result.Found)
	require.Len(t, result.Coverage.Parts, 1)
	parts := result.Coverage.Parts[0]
	assert.Positive(t, parts.Inputs)
	assert.Less(t, parts.Ran, parts.Of)
	assert.Equal(t, []int{11}, parts.Missed, "where n is above 60")
}

func TestWhatHappensOnceOnlyIsNoFailure(t *testing.T) {
	testenv.Sweep(t, "what is unsteady is shrunk for as long as may be")
	r := newTrial(t, sumShape, "reference.c", sum(""), "candidate.c", sum("struct timespec t; clock_gettime(CLOCK_REALTIME, &t); if (t.tv_nsec / 64 % 60 == 0) s++;"))
	r.options.Time, r.options.Count = 0, 2000
	result := r.run(t)
	for _, f := range result.Found {
		assert.Equal(t, Unsteady, f.Way, "it does not fail on that input each time")
	}
	assert.Positive(t, len(result.Found)+len(result.Notes), "it is told all the same")
}
