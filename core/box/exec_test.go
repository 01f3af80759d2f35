//go:build linux && !portable

package box

import (
	"bytes"
	"fmt"
	"runtime"
	"testing"
	"time"

	"coldverdict/core/verdict"
	"coldverdict/internal/testenv"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// A thread that is not the first and executes a program ends all others, the first one
// included, which a tracer holds at its end: whoever waits for the wrong one waits for ever.
func TestAnyThreadMayExecuteAProgram(t *testing.T) {
	limits := unhurried(verdict.Limits{Time: 4 * time.Second, Wall: 8 * time.Second, Memory: 64 << 20, Output: 1 << 20, Processes: 50})
	programs := [][]string{{"second"}, {"busy"}, {"among"}, {"leaving"}, {"child"}, {"second", "16"}, {"leaving", "16"}, {"among", "4"}}
	eachMode(t, func(t *testing.T, m mode) {
		b := openMode(t, m)
		testenv.Busy(t, runtime.NumCPU())
		for _, args := range programs {
			t.Run(fmt.Sprint(args), func(t *testing.T) {
				p := program(t, "exec", args...)
				for range runs(t) {
					var out bytes.Buffer
					// A hang ends the test, not the machine's patience.
					hung := time.AfterFunc(slowness*time.Minute, func() { panic(fmt.Sprintf("%v hangs in mode %s", args, m.name)) })
					got, err := b.Run(t.Context(), Run{Program: p, Limits: limits, Output: &out})
					hung.Stop()
					require.NoError(t, err)
					require.Equal(t, "3\n", out.String(), "%+v", got)
					require.Equal(t, Result{Ending: Exited, Usage: got.Usage, Written: 2, Stack: got.Stack}, got)
					assert.GreaterOrEqual(t, got.Usage.CPU, 45*time.Millisecond)
					assert.GreaterOrEqual(t, got.Usage.Memory, int64(20<<20))
				}
			})
		}
	})
}

func TestTheLastThreadOfAProcessIsKnown(t *testing.T) {
	var s threads
	assert.True(t, s.leave(7), "a process with one thread")
	s.end(7)

	s.begin(8, 7)
	s.begin(9, 7)
	assert.False(t, s.leave(8), "two are left")
	assert.True(t, s.leave(7), "the first is always held")
	s.outlive(7)
	assert.True(t, s.leave(9), "the last")
	s.end(7)

	s.begin(11, 10)
	assert.True(t, s.leave(10))
	s.outlive(10)
	s.executed(10) // thread 11 does, and is number 10 from now on
	_, known := s.of(11)
	assert.False(t, known)
	s.begin(12, 10)
	assert.False(t, s.leave(12), "there is a first one again")
	assert.Empty(t, s.process)
	assert.Empty(t, s.left)
}
