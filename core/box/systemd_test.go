//go:build linux && !portable

package box

import (
	"bufio"
	"fmt"
	"os"
	"os/exec"
	"os/user"
	"path/filepath"
	"strconv"
	"strings"
	"testing"
	"time"

	"github.com/godbus/dbus/v5"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"coldverdict/internal/testenv"
)

// A manager stands for the user's systemd on a bus of its own. What it is
// asked for arrives in asked; start does it.
type manager struct {
	asked chan string
	start func(name string, pids []uint32) error
}

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
	if m.start != nil {
		pids, _ := properties[1].Value.Value().([]uint32)
		if err := m.start(name, pids); err != nil {
			return "", dbus.MakeFailedError(err)
		}
	}
	m.asked <- strings.Join(words, " ")
	return "/org/freedesktop/systemd1/job/7", nil
}

// startBus starts a session bus with a manager on it.
func startBus(t *testing.T, start func(string, []uint32) error) manager {
	testenv.Need(t, "dbus-daemon")
	if _, err := user.LookupId(strconv.Itoa(os.Getuid())); err != nil {
		t.Skip("a bus takes a user that the system knows by name")
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
	m := manager{make(chan string, 1), start}
	require.NoError(t, bus.Export(m, "/org/freedesktop/systemd1", "org.freedesktop.systemd1.Manager"))
	reply, err := bus.RequestName("org.freedesktop.systemd1", dbus.NameFlagDoNotQueue)
	require.NoError(t, err)
	require.Equal(t, dbus.RequestNameReplyPrimaryOwner, reply)
	return m
}

func TestTheUsersSystemdIsAskedForAScope(t *testing.T) {
	m := startBus(t, nil)
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

// TestAScopeFromSystemdHoldsPrograms does what systemd would do where there
// are groups of version 2, and lets a box use them.
func TestAScopeFromSystemdHoldsPrograms(t *testing.T) {
	mounts, err := groupMounts()
	require.NoError(t, err)
	top := mounts[""]
	if os.Geteuid() != 0 || top == "" || !contains(words(top+"/cgroup.controllers"), controllers) {
		t.Skip("it takes root and control groups of version 2; .ci/vm has them")
	}
	before, err := ownGroups()
	require.NoError(t, err)
	require.NoError(t, enable(top))
	startBus(t, func(name string, pids []uint32) error {
		scope := filepath.Join(top, name)
		if err := os.Mkdir(scope, 0o755); err != nil {
			return err
		}
		return putText(filepath.Join(scope, "cgroup.procs"), fmt.Sprint(pids[0]))
	})
	groups, err := fromSystemd(mounts)
	require.NoError(t, err)
	scope := groups.bases[0]
	assert.Equal(t, fmt.Sprintf("cold-verdict-%d.scope", os.Getpid()), filepath.Base(scope))
	b := openWith(t, Options{Groups: groups})
	assert.Equal(t, "cgroup v2, in a scope from systemd", b.Hold().Groups)
	assert.True(t, strings.HasPrefix(b.group.Folders[0], scope+"/"))
	limits := generous // of time, so that memory comes first
	limits.Memory = strict.Memory
	assert.Equal(t, PassedMemory, run(t, b, program(t, "hostile/memory", "memfds unmapped"), limits).Ending)
	require.NoError(t, b.Close())
	require.NoError(t, putText(filepath.Join(top, before[""], "cgroup.procs"), "0"))
	assert.NoError(t, os.Remove(filepath.Join(scope, "itself")))
	assert.NoError(t, os.Remove(scope), "nothing else was left in it")
}
