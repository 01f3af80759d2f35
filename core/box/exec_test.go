//go:build linux && !portable

package box

import (
	"bytes"
	"fmt"
	"os"
	"runtime"
	"strconv"
	"testing"
	"time"

	"coldverdict/core/verdict"
	"coldverdict/internal/testenv"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// rounds is how often each program of the test below runs; more where
// COLD_TEST_ROUNDS says so.
func rounds() int {
	if n, err := strconv.Atoi(os.Getenv("COLD_TEST_ROUNDS")); err == nil {
		return n
	}
	if testing.Short() {
		return 3
	}
	return 10
}

// A thread that is not the first and executes a program ends all others, the first one
// included, which a tracer holds at its end: whoever waits for the wrong one waits for ever.
func TestAnyThreadMayExecuteAProgram(t *testing.T) {
	limits := verdict.Limits{Time: 4 * time.Second, Wall: 8 * time.Second, Memory: 64 << 20, Output: 1 << 20, Processes: 50}
	programs := [][]string{{"second"}, {"busy"}, {"among"}, {"leaving"}, {"child"}, {"second", "16"}, {"leaving", "16"}, {"among", "4"}}
	eachMode(t, func(t *testing.T, m mode) {
		b := openMode(t, m)
		testenv.Busy(t, runtime.NumCPU())
		for _, args := range programs {
			t.Run(fmt.Sprint(args), func(t *testing.T) {
				p := program(t, "exec", args...)
				for range rounds() {
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
