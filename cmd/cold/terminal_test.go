//go:build linux

package main

import (
	"fmt"
	"io"
	"os"
	"os/exec"
	"strings"
	"syscall"
	"testing"
	"time"

	"coldverdict/internal/testenv"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"golang.org/x/sys/unix"
)

// terminal starts a command on a pseudo-terminal and returns the side at which
// a person sits.
func terminal(t testing.TB, cmd *exec.Cmd, columns uint16) *os.File {
	master, err := os.OpenFile("/dev/ptmx", os.O_RDWR|syscall.O_NOCTTY, 0)
	require.NoError(t, err)
	t.Cleanup(func() { master.Close() })
	fd := int(master.Fd())
	require.NoError(t, unix.IoctlSetPointerInt(fd, unix.TIOCSPTLCK, 0))
	number, err := unix.IoctlGetInt(fd, unix.TIOCGPTN)
	require.NoError(t, err)
	require.NoError(t, unix.IoctlSetWinsize(fd, unix.TIOCSWINSZ, &unix.Winsize{Row: 40, Col: columns}))
	slave, err := os.OpenFile(fmt.Sprintf("/dev/pts/%d", number), os.O_RDWR|syscall.O_NOCTTY, 0)
	require.NoError(t, err)
	defer slave.Close()
	cmd.Stdin, cmd.Stdout, cmd.Stderr = slave, slave, slave
	cmd.SysProcAttr = &syscall.SysProcAttr{Setsid: true, Setctty: true}
	require.NoError(t, cmd.Start())
	return master
}

// screen reads what a terminal shows until the command ends or a text appears.
func screen(t testing.TB, master *os.File, until string) string {
	var shown strings.Builder
	buffer := make([]byte, 4096)
	for {
		ready := []unix.PollFd{{Fd: int32(master.Fd()), Events: unix.POLLIN}}
		if n, _ := unix.Poll(ready, 30_000); n == 0 {
			t.Fatalf("%q was not shown; this was: %s", until, shown.String())
		}
		n, err := master.Read(buffer)
		shown.Write(buffer[:n])
		if err != nil || until != "" && strings.Contains(shown.String(), until) {
			if err != nil && err != io.EOF {
				assert.ErrorIs(t, err, syscall.EIO) // the interactor is gone
			}
			return shown.String()
		}
	}
}

// onTerminal runs the program with the variables that decide about colour and
// width as a terminal has them.
func onTerminal(t testing.TB, s session, columns uint16, args ...string) (*exec.Cmd, *os.File) {
	s.env = append(s.env, "TERM=xterm-256color", "COLORTERM=", "NO_COLOR=", "COLUMNS=")
	cmd := s.command(t, args...)
	return cmd, terminal(t, cmd, columns)
}

func TestATerminalGetsProgressAndColour(t *testing.T) {
	testenv.Need(t, "gcc")
	s := folder(t, map[string]string{"add.c": adder, "cases.md": caseText})
	cmd, master := onTerminal(t, s, 80, "try")
	shown := screen(t, master, "")
	assert.NoError(t, cmd.Wait())
	assert.Contains(t, shown, "building …\x1b[K", "progress")
	assert.Contains(t, shown, "\r\x1b[K", "and its end")
	assert.Regexp(t, "\x1b\\[[0-9;]*mAC", shown, "colour")

	s.env = []string{"NO_COLOR=1"}
	cmd = s.command(t, "try")
	shown = screen(t, terminal(t, cmd, 80), "")
	assert.NoError(t, cmd.Wait())
	assert.NotRegexp(t, "\x1b\\[[0-9;]*m", shown, "NO_COLOR")
}

func TestCtrlCAtATerminalEndsARunWithinItsLimits(t *testing.T) {
	testenv.Need(t, "gcc")
	s := folder(t, map[string]string{"loop.c": "int main(void){for(;;);}", "1.in": "", "2.in": ""})
	cmd, master := onTerminal(t, s, 80, "try", "--time", "1min")
	shown := screen(t, master, "0 of 2 cases")
	require.Contains(t, shown, "0 of 2 cases")
	time.Sleep(50 * time.Millisecond)
	began := time.Now()
	_, err := master.WriteString("\x03")
	require.NoError(t, err)
	shown = screen(t, master, "")
	cmd.Wait()
	assert.Less(t, time.Since(began), 2*time.Second)
	assert.Equal(t, 130, cmd.ProcessState.ExitCode())
	assert.Contains(t, shown, "cold: interrupted")
}

func TestACaseIsPastedAtATerminal(t *testing.T) {
	s := folder(t, map[string]string{"a.c": adder})
	cmd, master := onTerminal(t, s, 80, "case", "add", "--why", "typed")
	for _, step := range [][2]string{
		{"paste the input", "1 2\n3 4\n%%\n"},
		{"paste the expected output", "10\n\x04"},
	} {
		require.Contains(t, screen(t, master, step[0]), step[0])
		_, err := master.WriteString(step[1])
		require.NoError(t, err)
	}
	assert.Contains(t, screen(t, master, ""), "added samples/1 to cases.md")
	assert.NoError(t, cmd.Wait())
	text, err := os.ReadFile(s.dir + "/cases.md")
	require.NoError(t, err)
	assert.Equal(t, "# Samples\n\n## 1\ntyped\n\n```input\n1 2\n3 4\n```\n\n```output\n10\n```\n", string(text))
}
