//go:build linux && !portable

package box

import (
	"os"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"golang.org/x/sys/unix"
)

func TestTimeInWhichTheMachineIsBusyDoesNotCountWhileASupervisorStarts(t *testing.T) {
	for _, tt := range []struct {
		name, does string
		answers    bool // after far more than it may take
	}{
		{"one that does nothing", "sleep 60", false},
		{"one that works", "while :; do :; done", true},
	} {
		t.Run(tt.name, func(t *testing.T) {
			pair, err := unix.Socketpair(unix.AF_UNIX, unix.SOCK_SEQPACKET|unix.SOCK_CLOEXEC, 0)
			require.NoError(t, err)
			defer unix.Close(pair[0])
			defer unix.Close(pair[1])
			shell, err := os.StartProcess("/bin/sh", []string{"sh", "-c", tt.does}, &os.ProcAttr{})
			require.NoError(t, err)
			defer func() { shell.Kill(); shell.Wait() }()
			if tt.answers {
				time.AfterFunc(slowness*time.Second, func() { unix.Write(pair[1], []byte("ready")) })
			}
			b := &Box{socket: pair[0]}
			b.supervisor = shell
			err = b.awaitMessage(slowness * 200 * time.Millisecond)
			if tt.answers {
				assert.NoError(t, err)
			} else {
				assert.ErrorContains(t, err, "it did not start")
			}
		})
	}
}
