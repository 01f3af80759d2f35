//go:build linux && !portable

package box

import (
	"bytes"
	"context"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestItIsSeenWhetherAProgramWaitsForInput(t *testing.T) {
	b := open(t)
	for how, want := range map[string]Waiting{
		"read": Waits, "sleep": NotWaiting, "pause": NotWaiting, "burn": NotWaiting,
		"poll": MayWait, "epoll": MayWait, "poll for a while": NotWaiting, "another pipe": NotWaiting,
		"read beside a sleeper": MayWait, "read beside a burner": NotWaiting,
	} {
		t.Run(how, func(t *testing.T) {
			in, err := NewPipe()
			require.NoError(t, err)
			defer in.Close()
			stop, end := context.WithCancel(t.Context())
			said := make(chan struct{}, 100)
			finished := make(chan Result)
			go func() {
				result, err := b.Run(t.Context(), Run{
					Program: program(t, "wait", how), Limits: generous, Input: in.Input, Prompt: true, Stop: stop, Output: signaller(said),
				})
				assert.NoError(t, err)
				finished <- result
			}()
			<-said
			// It may still be on its way into its wait, and the reader of what it said
			// on its way back to reading.
			for range 100 {
				if b.Waiting() == want && want != NotWaiting && b.Quiet() {
					break
				}
				time.Sleep(slowness * 2 * time.Millisecond)
			}
			assert.Equal(t, want, b.Waiting())
			assert.Eventually(t, b.Quiet, slowness*time.Second, time.Millisecond, "all it said has arrived")
			end()
			assert.Equal(t, EndedByRequest, (<-finished).Ending)
		})
	}
	assert.Equal(t, NotWaiting, b.Waiting(), "nothing runs")
	assert.False(t, b.Quiet(), "nobody listens")
}

type signaller chan struct{}

func (s signaller) Write(p []byte) (int, error) {
	s <- struct{}{}
	return len(p), nil
}

func TestAProgramCanDecideOnADescriptorOfItsOwn(t *testing.T) {
	b := openWith(t, Options{Decides: true})
	var out, errs, decision bytes.Buffer
	run := Run{Program: program(t, "wait", "decide"), Limits: generous, Output: &out, Errors: &errs, Decision: &decision}
	for range 3 {
		out.Reset()
		errs.Reset()
		decision.Reset()
		result, err := b.Run(t.Context(), run)
		require.NoError(t, err)
		assert.Equal(t, Exited, result.Ending)
		assert.Equal(t, []string{"now\n", "looked\n", "accept\n"}, []string{out.String(), errs.String(), decision.String()})
	}
	decision.Reset()
	_, err := open(t).Run(t.Context(), run)
	require.NoError(t, err)
	assert.Empty(t, decision.String(), "a candidate has no such descriptor")
}

func TestARunThatIsStoppedHasAResultAndOneThatIsCancelledHasNone(t *testing.T) {
	b := open(t)
	for range 5 {
		stop, end := context.WithCancel(t.Context())
		time.AfterFunc(20*time.Millisecond, end)
		result, err := b.Run(t.Context(), Run{Program: program(t, "wait", "burn"), Limits: generous, Stop: stop})
		require.NoError(t, err)
		assert.Equal(t, EndedByRequest, result.Ending)
		assert.NotZero(t, result.Usage.CPU)
		ctx, cancel := context.WithCancel(t.Context())
		time.AfterFunc(20*time.Millisecond, cancel)
		_, err = b.Run(ctx, Run{Program: program(t, "wait", "burn"), Limits: generous, Stop: t.Context()})
		assert.ErrorIs(t, err, context.Canceled)
	}
}

func TestItIsSeenWhatAProgramUsesWhileItRuns(t *testing.T) {
	b := open(t)
	_, ok := b.Now()
	assert.False(t, ok, "nothing runs")
	stop, end := context.WithCancel(t.Context())
	finished := make(chan Result)
	go func() {
		result, err := b.Run(t.Context(), Run{Program: program(t, "wait", "burn"), Limits: generous, Stop: stop})
		assert.NoError(t, err)
		finished <- result
	}()
	assert.Eventually(t, func() bool {
		usage, ok := b.Now()
		return ok && usage.CPU > 20*time.Millisecond && usage.Memory > 0
	}, slowness*10*time.Second, time.Millisecond)
	seen, _ := b.Now()
	end()
	result := <-finished
	assert.GreaterOrEqual(t, result.Usage.CPU, seen.CPU)
	assert.GreaterOrEqual(t, result.Usage.Memory, seen.Memory)
	assert.Less(t, result.Usage.Memory, int64(16<<20))
}
