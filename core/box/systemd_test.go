//go:build linux && !portable

package box

import (
	"bufio"
	"fmt"
	"os"
	"os/exec"
	"path/filepath"
	"strings"
	"testing"
	"time"

	"github.com/godbus/dbus/v5"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// A manager stands for the user's systemd on a bus of its own. What it is
// asked for arrives in asked.
type manager struct{ asked chan string }

type unitProperty struct {
	Name  string
	Value dbus.Variant
}

type unitAuxiliary struct {
	Name       string
	Properties []unitProperty
}

// StartTransientUnit has the signature of systemd's own.
func (m manager) StartTransientUnit(name, mode string, properties []unitProperty, _ []unitAuxiliary) (dbus.ObjectPath, *dbus.Error) {
	if strings.Contains(name, "denied") {
		return "", dbus.MakeFailedError(fmt.Errorf("access denied"))
	}
	words := []string{name, mode}
	for _, p := range properties {
		words = append(words, fmt.Sprint(p.Name, "=", p.Value.Value()))
	}
	m.asked <- strings.Join(words, " ")
	return "/org/freedesktop/systemd1/job/7", nil
}

// startBus starts a session bus with a manager on it.
func startBus(t *testing.T) manager {
	if _, err := exec.LookPath("dbus-daemon"); err != nil {
		if os.Getenv("CI") == "true" {
			t.Fatal("dbus-daemon is missing")
		}
		t.Skip("dbus-daemon is missing")
	}
	address := "unix:path=" + filepath.Join(t.TempDir(), "bus")
	daemon := exec.Command("dbus-daemon", "--session", "--nofork", "--print-address", "--address="+address)
	out, err := daemon.StdoutPipe()
	require.NoError(t, err)
	require.NoError(t, daemon.Start())
	t.Cleanup(func() {
		daemon.Process.Kill()
		daemon.Wait()
	})
	line, err := bufio.NewReader(out).ReadString('\n')
	require.NoError(t, err)
	require.Contains(t, line, address)
	t.Setenv("DBUS_SESSION_BUS_ADDRESS", address)
	bus, err := dbus.Connect(address)
	require.NoError(t, err)
	t.Cleanup(func() { bus.Close() })
	m := manager{make(chan string, 1)}
	require.NoError(t, bus.Export(m, "/org/freedesktop/systemd1", "org.freedesktop.systemd1.Manager"))
	reply, err := bus.RequestName("org.freedesktop.systemd1", dbus.NameFlagDoNotQueue)
	require.NoError(t, err)
	require.Equal(t, dbus.RequestNameReplyPrimaryOwner, reply)
	return m
}

func TestTheUsersSystemdIsAskedForAScope(t *testing.T) {
	m := startBus(t)
	require.NoError(t, startScope(t.Context(), "cold-verdict-1.scope"))
	asked := <-m.asked
	assert.True(t, strings.HasPrefix(asked, "cold-verdict-1.scope fail "), asked)
	assert.Contains(t, asked, fmt.Sprintf("PIDs=[%d]", os.Getpid()))
	assert.Contains(t, asked, "Delegate=true")
	assert.ErrorContains(t, startScope(t.Context(), "cold-verdict-denied.scope"), "access denied")
}

func TestWithoutABusThatIsSaid(t *testing.T) {
	t.Setenv("DBUS_SESSION_BUS_ADDRESS", "")
	t.Setenv("XDG_RUNTIME_DIR", t.TempDir())
	assert.ErrorContains(t, startScope(t.Context(), "cold-verdict-1.scope"), "no bus")
	t.Setenv("DBUS_SESSION_BUS_ADDRESS", "tcp:host=192.0.2.1")
	assert.ErrorContains(t, startScope(t.Context(), "cold-verdict-1.scope"), "not on this machine")
	t.Setenv("DBUS_SESSION_BUS_ADDRESS", "unix:path="+filepath.Join(t.TempDir(), "absent"))
	began := time.Now()
	assert.Error(t, startScope(t.Context(), "cold-verdict-1.scope"))
	assert.Less(t, time.Since(began), systemdTime)
}
