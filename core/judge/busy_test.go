//go:build linux

package judge

import (
	"fmt"
	"os"
	"path/filepath"
	"runtime"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"coldverdict/core/problem"
	"coldverdict/core/verdict"
	"coldverdict/internal/testenv"
)

// What a busy machine does not give to a program is nobody's waiting: with every processor taken
// four times, nothing here is stalled.

const busyTalk = `
def talk(case, say, hear):
    x = 0
    for i in range(200):
        for k in range(12000): # it computes, and the candidate waits for that
            x += k
        say(i)
        if hear() != str(i):
            return reject("not said back")
    say("end")
    return accept()
`

func TestATalkOnABusyMachineIsNotStalled(t *testing.T) {
	busy(t)
	p := &problem.Problem{Dir: t.TempDir(), Talk: problem.Talk{Script: "talk.star"}, Limits: problem.Limits{General: verdict.Limits{Time: 5 * time.Second, Wall: 4 * time.Second}},
		Cases: []problem.Case{{Name: "a/1"}, {Name: "a/2"}, {Name: "a/3"}}}
	require.NoError(t, os.WriteFile(filepath.Join(p.Dir, "talk.star"), []byte(busyTalk), 0o644))
	echo := "#include <stdio.h>\nint main(void) { char line[100]; while (scanf(\"%99s\", line) == 1 && line[0] != 'e') { printf(\"%s\\n\", line); fflush(stdout); } return 0; }\n"
	outcomes, _ := calledAs(t, p, "a.c", echo, options{})
	for _, o := range outcomes {
		assert.Equal(t, verdict.Accepted, o.Verdict, o.Message)
	}
	began := time.Now() // the limit is ten times as long where the machine gives nothing
	outcomes, _ = calledAs(t, p, "b.c", "#include <unistd.h>\nint main(void) { sleep(100); return 0; }\n", options{Cases: []int{0}})
	if outcomes[0].Verdict == verdict.Fault { // where it gave nothing at all for long
		assert.Contains(t, outcomes[0].Message, "too busy to judge")
	} else {
		assert.Equal(t, verdict.Stalled, outcomes[0].Verdict, "who sleeps is stalled on a busy machine, too: %s", outcomes[0].Message)
	}
	assert.Less(t, time.Since(began), time.Minute)
}

func TestFunctionsAndManyJobsOnABusyMachineAreNotStalled(t *testing.T) {
	busy(t)
	burn := "#include <time.h>\nint f(int n) { while (clock() < (clock_t)n * CLOCKS_PER_SEC / 1000) {} return n; }\n"
	limits := verdict.Limits{Time: 2 * time.Second, Wall: 2 * time.Second}
	p := function(t, "f(n: int) -> int", "n = 300 => 300", "n = 600 => 600", "n = 900 => 900")
	for _, alone := range []bool{false, true} {
		outcomes, _ := calledAs(t, p, "a.c", burn, options{Limits: limits, Alone: alone, Jobs: 2 * runtime.NumCPU()})
		for _, o := range outcomes {
			assert.Equal(t, verdict.Accepted, o.Verdict, o.Message)
		}
	}
	programs := &problem.Problem{Dir: t.TempDir()}
	for i := range 8 {
		text := []byte(fmt.Sprint(500))
		programs.Cases = append(programs.Cases, problem.Case{Name: fmt.Sprintf("a/%d", i), Input: problem.Data{Text: text, Size: int64(len(text))}, Accepted: []problem.Data{{Text: text}}})
	}
	main := burn + "#include <stdio.h>\nint main(void) { int n; if (scanf(\"%d\", &n) != 1) return 1; printf(\"%d\\n\", f(n)); return 0; }\n"
	outcomes, _ := calledAs(t, programs, "b.c", main, options{Limits: limits, Jobs: 4 * runtime.NumCPU()})
	for _, o := range outcomes {
		assert.Equal(t, verdict.Accepted, o.Verdict, o.Message)
	}
}

// busy takes every processor four times until the test ends.
func busy(t *testing.T) {
	testenv.Sweep(t, "a busy machine takes its time")
	needLanguageOf(t, "a.c")
	testenv.Busy(t, 4*runtime.NumCPU())
}

func TestWhatAVirtualMachineDoesNotGetIsNoWaiting(t *testing.T) {
	began := time.Now()
	for _, tt := range []struct {
		name  string
		looks []look // each after a second
		want  time.Duration
	}{
		{"it computes", []look{{cpu: 0, ready: true}, {cpu: time.Second, ready: true}}, 0},
		{"it gets a third", []look{{cpu: 0, ready: true}, {cpu: time.Second / 4, ready: true}, {cpu: time.Second / 2, ready: true}}, 3 * time.Second / 2},
		{"it waits", []look{{cpu: 0}, {cpu: 0}}, 0},
		{"it began to wait in between", []look{{cpu: 0, ready: true}, {cpu: time.Second / 2}}, 0},
		{"it waited, and goes on", []look{{cpu: 0}, {cpu: 0, ready: true}, {cpu: 0, ready: true}}, time.Second},
	} {
		t.Run(tt.name, func(t *testing.T) {
			var s stolen
			var sum time.Duration
			for i, l := range tt.looks {
				sum = s.look(l.ready, began.Add(time.Duration(i)*time.Second), verdict.Usage{CPU: l.cpu})
			}
			assert.Equal(t, tt.want, sum)
		})
	}
	var s stolen
	s.look(true, began, verdict.Usage{})
	assert.Zero(t, s.look(true, began.Add(time.Second), verdict.Usage{Starved: time.Second}), "known already")
}
