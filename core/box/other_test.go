//go:build darwin || portable

package box

import (
	"bytes"
	"context"
	"os/exec"
	"path/filepath"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"golang.org/x/sys/unix"

	"coldverdict/core/verdict"
	"coldverdict/internal/testenv"
)

func TestMain(m *testing.M) { testenv.Main(m, Supervise) }

func TestWithRlimitsAndAClockEachEndingIsToldToo(t *testing.T) {
	testenv.Need(t, "gcc")
	path := filepath.Join(t.TempDir(), "act")
	out, err := exec.Command("gcc", "-O1", "-o", path, "testdata/act.c").CombinedOutput()
	require.NoError(t, err, string(out))
	b, err := Open(Options{Scratch: t.TempDir()})
	require.NoError(t, err)
	defer b.Close()
	limits := verdict.Limits{Time: time.Second, Wall: 3 * time.Second, Memory: 64 << 20, Output: 1 << 20}
	for _, tt := range []struct {
		act  string
		want Result // Usage and Written are not compared
	}{
		{"nothing", Result{Ending: Exited}},
		{"exit 7", Result{Ending: Exited, ExitCode: 7}},
		{"crash", Result{Ending: Exited, Signal: int(unix.SIGSEGV)}},
		{"loop", Result{Ending: PassedTime, Signal: int(unix.SIGXCPU)}},
		{"sleep", Result{Ending: PassedWall, Signal: int(unix.SIGKILL)}},
		{"flood", Result{Ending: PassedOutput, Signal: int(unix.SIGKILL)}},
		{"flood file", Result{Ending: PassedOutput, Signal: int(unix.SIGXFSZ)}},
	} {
		t.Run(tt.act, func(t *testing.T) {
			got, err := b.Run(t.Context(), Run{Program: Program{Path: path, Args: []string{tt.act}}, Limits: limits})
			require.NoError(t, err)
			assert.Positive(t, got.Usage.Memory)
			got.Usage, got.Written = verdict.Usage{}, 0
			assert.Equal(t, tt.want, got)
		})
	}
	t.Run("echo", func(t *testing.T) {
		input, err := Memory([]byte("3 teams\n"))
		require.NoError(t, err)
		defer input.Close()
		var said bytes.Buffer
		_, err = b.Run(t.Context(), Run{Program: Program{Path: path, Args: []string{"echo"}}, Limits: limits, Input: input, Output: &said})
		require.NoError(t, err)
		assert.Equal(t, "3 teams\n", said.String())
	})
	t.Run("an ended context", func(t *testing.T) {
		ctx, cancel := context.WithTimeout(t.Context(), 50*time.Millisecond)
		defer cancel()
		_, err := b.Run(ctx, Run{Program: Program{Path: path, Args: []string{"sleep"}}})
		assert.ErrorIs(t, err, context.DeadlineExceeded)
	})
	_, err = b.Run(t.Context(), Run{Program: Program{Path: filepath.Join(t.TempDir(), "absent")}})
	assert.ErrorContains(t, err, "does not exist")
	assert.NotEmpty(t, b.Hold().Lacks(), "what cannot be held here is said")
}
