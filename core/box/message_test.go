//go:build linux && !portable

package box

import (
	"os"
	"strings"
	"testing"
	"time"

	"coldverdict/core/verdict"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"golang.org/x/sys/unix"
)

func TestMessagesArriveAsTheyWereSent(t *testing.T) {
	limits := verdict.Limits{Time: time.Second, Wall: 3 * time.Second, Memory: 1 << 40, Output: 7, Processes: 9}
	for _, want := range []request{
		{ID: 1},
		{ID: 1<<32 - 1, Limits: limits},
		{ID: 7, Limits: limits, Task: &task{Program{"/bin/ice", []string{"a b", "", "č"}, []string{"X=1"}, []string{"/opt/ice"}, nil}, "/tmp", Files{"a.in", "a.out"}}},
	} {
		message, err := want.encode()
		require.NoError(t, err)
		got, err := decodeRequest(message)
		require.NoError(t, err)
		assert.Equal(t, want, got)
	}
	for _, want := range []report{
		{ID: 1, Ending: Exited},
		{ID: 2, Ending: PassedMemory, CPU: time.Second, Wall: time.Hour, Starved: time.Minute, Memory: 1 << 40, ExitCode: 255, Signal: 9, Left: 3, Filled: true, Tried: "tried to open"},
		{ID: 3, Error: "cannot start: \x00 no"},
	} {
		got, err := decodeReport(want.encode())
		require.NoError(t, err)
		assert.Equal(t, want, got)
	}
}

func TestMessagesThatAreNoneAreRefused(t *testing.T) {
	_, err := decodeRequest([]byte("short"))
	assert.ErrorContains(t, err, "too short")
	_, err = decodeRequest(append(make([]byte, 48), "{no json"...))
	assert.Error(t, err)
	_, err = decodeReport(nil)
	assert.ErrorContains(t, err, "too short")
	_, err = request{Task: &task{Program: Program{Args: []string{strings.Repeat("x", maxMessage)}}}}.encode()
	assert.ErrorContains(t, err, "too long")
}

func TestTooLongACommandLineIsAnErrorNotALostWorker(t *testing.T) {
	b := open(t)
	p := program(t, "act", "exit 7")
	p.Args = append(p.Args, strings.Repeat("x", maxMessage))
	_, err := b.Run(t.Context(), Run{Program: p, Limits: generous})
	assert.ErrorContains(t, err, "too long")
	assert.Equal(t, 7, run(t, b, program(t, "act", "exit 7"), generous).ExitCode, "the box still works")
}

func TestADescriptorTravelsBesideAMessage(t *testing.T) {
	pair, err := unix.Socketpair(unix.AF_UNIX, unix.SOCK_SEQPACKET|unix.SOCK_CLOEXEC, 0)
	require.NoError(t, err)
	file, err := Memory([]byte("cores"))
	require.NoError(t, err)
	defer file.Close()
	require.NoError(t, send(pair[0], []byte("here"), int(file.Fd())))
	buffer := make([]byte, 100)
	message, fd, err := receive(pair[1], buffer)
	require.NoError(t, err)
	assert.Equal(t, "here", string(message))
	got := os.NewFile(uintptr(fd), "got")
	defer got.Close()
	_, err = got.ReadAt(buffer[:5], 0)
	require.NoError(t, err)
	assert.Equal(t, "cores", string(buffer[:5]))

	require.NoError(t, send(pair[0], []byte("alone")))
	_, fd, err = receive(pair[1], buffer)
	require.NoError(t, err)
	assert.Equal(t, -1, fd)
	require.NoError(t, unix.Close(pair[0]))
	_, _, err = receive(pair[1], buffer)
	assert.Equal(t, errHungUp, err)
	unix.Close(pair[1])
}

func TestAHeadKeepsTheBeginning(t *testing.T) {
	h := &Head{Most: 5}
	for _, part := range []string{"ab", "", "cde"} {
		n, err := h.Write([]byte(part))
		assert.NoError(t, err)
		assert.Equal(t, len(part), n)
		assert.False(t, h.Cut)
	}
	h.Write([]byte("f"))
	assert.Equal(t, "abcde", string(h.Text))
	assert.True(t, h.Cut)
}

func TestStatusFilesAreRead(t *testing.T) {
	text := []byte("Name:\tVmHWM: 7\nVmPeak:\t  900 kB\nVmHWM:\t    1234 kB\nThreads:\t3\n")
	assert.EqualValues(t, 1234, statusField(text, "\nVmHWM:"))
	assert.EqualValues(t, 3, statusField(text, "\nThreads:"))
	assert.Zero(t, statusField(text, "\nVmSwap:"))
	me, err := readStatus(os.Getpid())
	require.NoError(t, err)
	assert.Positive(t, me.peak)
	assert.Positive(t, me.threads)
	_, err = readStatus(1 << 30)
	assert.Equal(t, errGone, err)
}
