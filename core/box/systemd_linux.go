//go:build !portable

package box

import (
	"context"
	"errors"
	"fmt"
	"os"
	"path/filepath"
	"strings"
	"time"

	"github.com/godbus/dbus/v5"
)

// systemdTime is how long the user's systemd may take to answer.
const systemdTime = 2 * time.Second

// fromSystemd asks the user's systemd, over the session bus, for a scope of
// our own with its groups handed over to us, and moves this process there. The
// scope ends with its last process. See org.freedesktop.systemd1(5).
func fromSystemd(mounts map[string]string) (*Groups, error) {
	mount := mounts[""]
	if mount == "" || !contains(words(filepath.Join(mount, "cgroup.controllers")), controllers) {
		return nil, errors.New("systemd: it hands over groups of cgroup v2 only")
	}
	ctx, cancel := context.WithTimeout(context.Background(), systemdTime)
	defer cancel()
	scope := fmt.Sprintf("%s%d.scope", groupName, os.Getpid())
	if err := startScope(ctx, scope); err != nil {
		return nil, fmt.Errorf("systemd: %w", err)
	}
	for {
		own, err := ownGroups()
		if err != nil {
			return nil, err
		}
		if filepath.Base(own[""]) == scope {
			dir := filepath.Join(mount, own[""])
			return &Groups{2, []string{dir}, "in a scope from systemd"}, moveAside(dir)
		}
		if ctx.Err() != nil {
			return nil, fmt.Errorf("systemd: it did not start %s within %v", scope, systemdTime)
		}
		time.Sleep(time.Millisecond)
	}
}

func startScope(ctx context.Context, scope string) error {
	address := os.Getenv("DBUS_SESSION_BUS_ADDRESS")
	if address == "" {
		socket := filepath.Join(os.Getenv("XDG_RUNTIME_DIR"), "bus")
		if info, err := os.Stat(socket); err != nil || info.Mode().Type() != os.ModeSocket {
			return errors.New("this session has no bus")
		}
		address = "unix:path=" + socket
	}
	if !strings.HasPrefix(address, "unix:") {
		return fmt.Errorf("the session's bus at %s is not on this machine", address)
	}
	bus, err := dbus.Connect(address, dbus.WithContext(ctx))
	if err != nil {
		return err
	}
	defer bus.Close()
	type property struct {
		Name  string
		Value dbus.Variant
	}
	type auxiliary struct {
		Name       string
		Properties []property
	}
	properties := []property{
		{"Description", dbus.MakeVariant("Cold Verdict: programs under limits")},
		{"PIDs", dbus.MakeVariant([]uint32{uint32(os.Getpid())})},
		{"Delegate", dbus.MakeVariant(true)},
		{"CollectMode", dbus.MakeVariant("inactive-or-failed")},
	}
	var job dbus.ObjectPath
	return bus.Object("org.freedesktop.systemd1", "/org/freedesktop/systemd1").CallWithContext(ctx,
		"org.freedesktop.systemd1.Manager.StartTransientUnit", 0, scope, "fail", properties, []auxiliary{}).Store(&job)
}

// moveAside puts this process into a group of its own below dir, since a
// group with processes in it can give no controllers to others.
func moveAside(dir string) error {
	aside := filepath.Join(dir, "itself")
	if err := os.Mkdir(aside, 0o755); err != nil && !errors.Is(err, os.ErrExist) {
		return err
	}
	if err := putText(filepath.Join(aside, "cgroup.procs"), "0"); err != nil {
		return err
	}
	return enable(dir)
}
