//go:build !portable

package box

import (
	"errors"
	"fmt"
	"os"
	"path/filepath"
	"slices"
	"strings"
	"unsafe"

	"golang.org/x/sys/unix"
)

// Where the kernel denies namespaces, its Landlock rules keep programs away
// from files: landlock(7). Such rules only permit, so to take a folder out of
// what is permitted means to permit all that lies beside the way to it. They hold for
// good: for a program that needs other files the supervisor is started anew.

const (
	mayRead    = unix.LANDLOCK_ACCESS_FS_EXECUTE | unix.LANDLOCK_ACCESS_FS_READ_FILE | unix.LANDLOCK_ACCESS_FS_READ_DIR
	mayUse     = unix.LANDLOCK_ACCESS_FS_READ_FILE | unix.LANDLOCK_ACCESS_FS_WRITE_FILE
	mayDoFirst = unix.LANDLOCK_ACCESS_FS_MAKE_SYM<<1 - 1 // all that the first version knows

	mayRefer    = unix.LANDLOCK_ACCESS_FS_REFER    // since version 2
	mayTruncate = unix.LANDLOCK_ACCESS_FS_TRUNCATE // since version 3
	mayIoctl    = 1 << 15                          // since version 5

	mayBindTCP, mayConnectTCP = 1, 2 // since version 4
	keepSockets, keepSignals  = 1, 2 // since version 6: abstract sockets, signals
)

// rulesVersion returns the version of Landlock that the kernel has; 0: none.
func rulesVersion() int {
	version, _, errno := unix.Syscall(unix.SYS_LANDLOCK_CREATE_RULESET, 0, 0, unix.LANDLOCK_CREATE_RULESET_VERSION)
	if errno != 0 {
		return 0
	}
	return int(version)
}

// ownRules keeps this thread, and all that it will start, from what is hidden,
// and from writing anywhere but in the working folder.
func (s setup) ownRules() error {
	version := rulesVersion()
	if version == 0 {
		return errors.New("the kernel has no Landlock")
	}
	ruleset, size := rulesOf(version)
	everything := ruleset.files
	rules, _, errno := unix.Syscall(unix.SYS_LANDLOCK_CREATE_RULESET, uintptr(unsafe.Pointer(&ruleset)), size, 0)
	if errno != 0 {
		return fmt.Errorf("cannot make Landlock rules: %w", errno)
	}
	defer unix.Close(int(rules))
	for _, path := range slices.Concat(systemPaths(), []string{"/proc"}, s.Visible, s.Reads) {
		real, err := filepath.EvalSymlinks(path)
		if err != nil {
			continue // gone: nothing to permit
		}
		for _, part := range besides(real, s.Hidden) {
			if err := permit(int(rules), part, mayRead&everything); err != nil {
				return err
			}
		}
	}
	for _, path := range s.Writes {
		if err := permit(int(rules), path, everything); err != nil {
			return err
		}
	}
	for path, rights := range map[string]uint64{
		s.Folder: everything, "/dev/null": mayUse | mayTruncate, "/dev/zero": mayUse, "/dev/full": mayUse,
		"/dev/random": mayRead, "/dev/urandom": mayRead,
	} {
		if err := permit(int(rules), path, rights&everything); err != nil {
			return err
		}
	}
	if _, _, errno := unix.Syscall(unix.SYS_LANDLOCK_RESTRICT_SELF, rules, 0, 0); errno != 0 {
		return fmt.Errorf("cannot put Landlock rules into force: %w", errno)
	}
	return nil
}

// A ruleset is what Landlock's rules decide about.
type ruleset struct{ files, net, scoped uint64 }

// rulesOf is all that rules of one version can decide about, and how many bytes of that the kernel
// knows.
func rulesOf(version int) (r ruleset, size uintptr) {
	r.files = mayDoFirst
	if version >= 2 {
		r.files |= mayRefer
	}
	if version >= 3 {
		r.files |= mayTruncate
	}
	if version >= 4 {
		r.net = mayBindTCP | mayConnectTCP
	}
	if version >= 5 {
		r.files |= mayIoctl
	}
	if version >= 6 {
		r.scoped = keepSockets | keepSignals
	}
	switch {
	case version < 4:
		return r, 8
	case version < 6:
		return r, 16
	}
	return r, unsafe.Sizeof(r)
}

func permit(rules int, path string, rights uint64) error {
	fd, err := unix.Open(path, unix.O_PATH|unix.O_CLOEXEC, 0)
	if err != nil {
		return nil // gone, or not for us: nothing to permit
	}
	defer unix.Close(fd)
	var s unix.Stat_t
	if unix.Fstat(fd, &s) == nil && s.Mode&unix.S_IFMT != unix.S_IFDIR {
		rights &^= unix.LANDLOCK_ACCESS_FS_READ_DIR
	}
	rule := unix.LandlockPathBeneathAttr{Allowed_access: rights, Parent_fd: int32(fd)}
	_, _, errno := unix.Syscall6(unix.SYS_LANDLOCK_ADD_RULE, uintptr(rules), unix.LANDLOCK_RULE_PATH_BENEATH, uintptr(unsafe.Pointer(&rule)), 0, 0, 0)
	if errno != 0 {
		return fmt.Errorf("cannot permit %s: %w", path, errno)
	}
	return nil
}

// besides lists the fewest paths below folder that hold all but what is
// hidden: where nothing hidden lies in it, the folder itself.
func besides(folder string, hidden []string) (paths []string) {
	if slices.Contains(hidden, folder) {
		return nil
	}
	if !slices.ContainsFunc(hidden, func(h string) bool { return strings.HasPrefix(h, strings.TrimSuffix(folder, "/")+"/") }) {
		return []string{folder}
	}
	entries, err := os.ReadDir(folder)
	if err != nil {
		return nil
	}
	for _, entry := range entries {
		path := filepath.Join(folder, entry.Name())
		if entry.Type()&os.ModeSymlink == 0 { // what a link leads to has its own rule
			paths = append(paths, besides(path, hidden)...)
		}
	}
	return paths
}
