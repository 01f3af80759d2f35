//go:build !portable

package box

import (
	"cmp"
	"encoding/json"
	"errors"
	"fmt"
	"os"
	"path/filepath"
	"slices"
	"strings"
	"time"

	"golang.org/x/sys/unix"
)

// A setup is what a warden is told before its first order: how it is to keep
// what it runs away from everything else.
type setup struct {
	Walls   Walls
	Apart   bool     // it is the first process of namespaces of its own
	NewUser bool     // a user namespace among them
	Folder  string   // working folder, where the walls bring none of their own
	Hidden  []string // as Options has them
	Visible []string
	Coarse  bool
	Decides bool
	Group   group
}

// A readiness is the warden's answer: what holds from now on.
type readiness struct {
	Error     string
	Ungrouped string // why the control group cannot be used
	Told      bool   // refused system calls are told
	Filter    bool   // system calls are refused
	Near      bool   // signals reach no process outside
}

func (s setup) encode() ([]byte, error) {
	text, err := json.Marshal(s)
	if err == nil && len(text) > maxMessage {
		return nil, fmt.Errorf("%d bytes of paths to hide are too many; at most %d", len(text), maxMessage)
	}
	return text, err
}

// walled is what stays open of what the walls brought.
type walled struct {
	folder    workFolder
	hold      hold
	ungrouped string // why the control group cannot be used
	root      int    // the tree as it was, read-only and without what hides things; -1: none
	proc      int    // /proc, writable; -1: none
	listener  int    // tells of refused calls; -1: none
	filter    bool
	coarse    bool  // as Options has it
	pipes     []int // what programs write to
}

// raise puts up the walls around this thread and all that it will start.
func (s setup) raise() (w walled, err error) {
	w = walled{root: -1, proc: -1, listener: -1, coarse: s.Coarse, pipes: []int{outputFD, errorsFD}}
	if s.Decides {
		w.pipes = append(w.pipes, decisionFD)
	}
	// Where cold was started is no business of the programs here.
	if err := unix.Chdir("/"); err != nil {
		return w, err
	}
	if w.hold, err = s.Group.enter(s.Walls == Namespaces); err != nil {
		w.ungrouped = err.Error() // the watch holds the limits alone
	}
	w.folder = workFolder{path: s.Folder, fd: -1}
	if s.Apart {
		if err := s.ownProcesses(); err != nil {
			return w, err
		}
	}
	calmRuntime()
	if s.Walls == Namespaces {
		if err := s.ownTree(&w); err != nil {
			return w, err
		}
	}
	if err := w.folder.open(); err != nil {
		return w, err
	}
	// What this process knows is not for programs of the same user.
	if err := unix.Prctl(unix.PR_SET_DUMPABLE, 0, 0, 0, 0); err != nil {
		return w, err
	}
	if s.Walls == NoWalls {
		if s.NewUser {
			return w, unix.Prctl(unix.PR_CAP_AMBIENT, unix.PR_CAP_AMBIENT_CLEAR_ALL, 0, 0, 0)
		}
		return w, nil
	}
	if err := dropPrivileges(); err != nil {
		return w, fmt.Errorf("cannot give up privileges: %w", err)
	}
	if s.Walls == Rules {
		if err := s.ownRules(); err != nil {
			return w, err
		}
	}
	w.filter, w.listener = refuseCalls()
	return w, nil
}

// ownProcesses gives the first process of a namespace a /proc that shows that
// namespace. Nothing of it is seen outside.
func (s setup) ownProcesses() error {
	if err := unix.Mount("", "/", "", unix.MS_REC|unix.MS_PRIVATE, ""); err != nil {
		return fmt.Errorf("cannot keep mounts to itself: %w", err)
	}
	if err := unix.Mount("proc", "/proc", "proc", unix.MS_NOSUID|unix.MS_NODEV|unix.MS_NOEXEC, ""); err != nil {
		return fmt.Errorf("cannot mount /proc: %w", err)
	}
	return nil
}

// calmRuntime lets the thread with which the Go runtime looks after the others,
// the first that it makes, sleep for longer than it asks for. It would otherwise
// wake every few ten microseconds while they wait in the kernel, on a processor
// that a program is measured on. Without the right to do so, it does.
func calmRuntime() {
	threads := numbers("/proc/self/task")
	if len(threads) < 2 {
		return
	}
	age := func(thread int) uint32 { return uint32(thread - os.Getpid()) } // also where numbers began anew
	slices.SortFunc(threads, func(a, b int) int { return cmp.Compare(age(a), age(b)) })
	os.WriteFile(fmt.Sprintf("/proc/%d/timerslack_ns", threads[1]), fmt.Append(nil, calm.Nanoseconds()), 0)
}

// calm is for how much longer. What the others wait for can come that late, rarely.
const calm = 10 * time.Millisecond

// privateFolder is where programs work inside walls of namespaces. The other
// places for temporary files are the same folder.
const privateFolder = "/tmp"

var private = []string{privateFolder, "/var/tmp", "/dev/shm"}

// ownTree makes all that is mounted read-only and without devices, and puts
// private things above it: the working folder, /dev, and nothing where
// something is to be hidden.
func (s setup) ownTree(w *walled) (err error) {
	if s.NewUser {
		// No program needs namespaces of its own, and none gets them in here.
		// Where the file is not there, neither are user namespaces.
		os.WriteFile("/proc/sys/user/max_user_namespaces", []byte("0"), 0)
	}
	if w.proc, err = unix.OpenTree(unix.AT_FDCWD, "/proc", unix.OPEN_TREE_CLONE|unix.OPEN_TREE_CLOEXEC); err != nil {
		return fmt.Errorf("cannot clone /proc: %w", err)
	}
	devices := map[string]int{}
	for _, name := range []string{"null", "zero", "full", "random", "urandom"} {
		fd, err := unix.OpenTree(unix.AT_FDCWD, "/dev/"+name, unix.OPEN_TREE_CLONE|unix.OPEN_TREE_CLOEXEC)
		if err != nil {
			return fmt.Errorf("cannot take over /dev/%s: %w", name, err)
		}
		defer unix.Close(fd)
		devices[name] = fd
	}
	harmless := unix.MountAttr{Attr_set: unix.MOUNT_ATTR_RDONLY | unix.MOUNT_ATTR_NOSUID | unix.MOUNT_ATTR_NODEV}
	if err := unix.MountSetattr(unix.AT_FDCWD, "/", unix.AT_RECURSIVE, &harmless); err != nil {
		return fmt.Errorf("cannot make the file system read-only: %w", err)
	}
	if w.root, err = unix.OpenTree(unix.AT_FDCWD, "/", unix.OPEN_TREE_CLONE|unix.OPEN_TREE_CLOEXEC|unix.AT_RECURSIVE); err != nil {
		return fmt.Errorf("cannot clone the file system: %w", err)
	}
	visible, err := s.visible()
	if err != nil {
		return err
	}
	if err := mountTmpfs(privateFolder, folderOptions(0)+",mode=700", 0); err != nil {
		return err
	}
	if err := ownDevices(devices); err != nil {
		return err
	}
	for _, path := range private[1:] {
		err := unix.Mount(privateFolder, path, "", unix.MS_BIND, "")
		if err != nil && !errors.Is(err, unix.ENOENT) {
			return fmt.Errorf("cannot make %s private: %w", path, err)
		}
	}
	w.folder = workFolder{path: privateFolder, fd: -1, mounted: true, kept: map[string]bool{}}
	for _, v := range visible {
		if err := v.show(); err != nil {
			return fmt.Errorf("cannot keep %s: %w", v.path, err)
		}
		for _, p := range private { // which are all the same folder
			if below, ok := strings.CutPrefix(v.path, p+"/"); ok {
				first, _, _ := strings.Cut(below, "/")
				w.folder.kept[first] = true
			}
		}
	}
	for _, path := range s.Hidden {
		if err := hide(path); err != nil {
			return fmt.Errorf("cannot hide %s: %w", path, err)
		}
	}
	return nil
}

// A view is something among temporary files that programs can see.
type view struct {
	path   string
	folder bool
	fd     int // a clone of its mount
}

// visible clones what Visible names among temporary files, each once.
func (s setup) visible() (views []view, err error) {
	for _, path := range slices.Sorted(slices.Values(s.Visible)) {
		among := slices.ContainsFunc(private, func(p string) bool { return strings.HasPrefix(path, p+"/") })
		within := slices.ContainsFunc(views, func(v view) bool { return strings.HasPrefix(path+"/", v.path+"/") })
		if !among || within {
			continue
		}
		info, err := os.Stat(path)
		if err != nil {
			return nil, err
		}
		fd, err := unix.OpenTree(unix.AT_FDCWD, path, unix.OPEN_TREE_CLONE|unix.OPEN_TREE_CLOEXEC|unix.AT_RECURSIVE)
		if err != nil {
			return nil, fmt.Errorf("cannot keep %s: %w", path, err)
		}
		views = append(views, view{path, info.IsDir(), fd})
	}
	return views, nil
}

// show puts a view in its place again.
func (v view) show() error {
	defer unix.Close(v.fd)
	dir := v.path
	if !v.folder {
		dir = filepath.Dir(v.path)
	}
	err := os.MkdirAll(dir, 0o755)
	if err == nil && !v.folder {
		err = os.WriteFile(v.path, nil, 0o600)
	}
	if err != nil {
		return err
	}
	return unix.MoveMount(v.fd, "", unix.AT_FDCWD, v.path, unix.MOVE_MOUNT_F_EMPTY_PATH)
}

func mountTmpfs(path, options string, flags uintptr) error {
	if err := unix.Mount("cold", path, "tmpfs", unix.MS_NOSUID|unix.MS_NODEV|flags, options); err != nil {
		return fmt.Errorf("cannot mount a folder of its own on %s: %w", path, err)
	}
	return nil
}

// folderOptions bound a working folder that may hold so many bytes; 0: as
// many as a run without a limit may write.
func folderOptions(size int64) string {
	if size <= 0 {
		size = 1 << 30
	}
	return fmt.Sprintf("size=%d,nr_inodes=%d", size, folderFiles)
}

// folderFiles bounds the number of files in a working folder.
const folderFiles = 32 << 10

// ownDevices makes a /dev that holds the harmless devices only.
func ownDevices(devices map[string]int) error {
	if err := mountTmpfs("/dev", "size=64k,mode=755", unix.MS_NOEXEC); err != nil {
		return err
	}
	for name, fd := range devices {
		path := filepath.Join("/dev", name)
		if err := os.WriteFile(path, nil, 0o600); err != nil {
			return err
		}
		if err := unix.MoveMount(fd, "", unix.AT_FDCWD, path, unix.MOVE_MOUNT_F_EMPTY_PATH); err != nil {
			return fmt.Errorf("cannot take over %s: %w", path, err)
		}
	}
	for name, target := range map[string]string{
		"fd": "/proc/self/fd", "stdin": "/proc/self/fd/0", "stdout": "/proc/self/fd/1", "stderr": "/proc/self/fd/2",
	} {
		if err := os.Symlink(target, filepath.Join("/dev", name)); err != nil {
			return err
		}
	}
	if err := os.Mkdir("/dev/shm", 0o700); err != nil {
		return err
	}
	if err := os.WriteFile(nothing, nil, 0); err != nil {
		return err
	}
	return unix.MountSetattr(unix.AT_FDCWD, "/dev", 0, &unix.MountAttr{Attr_set: unix.MOUNT_ATTR_RDONLY})
}

// nothing is an empty file that nobody may open.
const nothing = "/dev/nothing"

// hide puts something that nobody may open above a path. What is not there
// need not be hidden.
func hide(path string) error {
	info, err := os.Stat(path)
	switch {
	case errors.Is(err, os.ErrNotExist):
		return nil
	case err != nil:
		return err
	case info.IsDir():
		return mountTmpfs(path, "size=4k,nr_inodes=2,mode=000", unix.MS_RDONLY)
	}
	return unix.Mount(nothing, path, "", unix.MS_BIND, "")
}

// dropPrivileges takes every capability from this thread for good, and keeps
// it from gaining any by what it executes. capabilities(7)
func dropPrivileges() error {
	if err := unix.Prctl(unix.PR_CAP_AMBIENT, unix.PR_CAP_AMBIENT_CLEAR_ALL, 0, 0, 0); err != nil {
		return err
	}
	for capability := uintptr(0); ; capability++ {
		err := unix.Prctl(unix.PR_CAPBSET_DROP, capability, 0, 0, 0)
		if err == unix.EINVAL || err == unix.EPERM { // past the last one; an ordinary user, who gains none anyway
			break
		}
		if err != nil {
			return err
		}
	}
	header := unix.CapUserHeader{Version: unix.LINUX_CAPABILITY_VERSION_3}
	var none [2]unix.CapUserData
	if err := unix.Capset(&header, &none[0]); err != nil {
		return err
	}
	return unix.Prctl(unix.PR_SET_NO_NEW_PRIVS, 1, 0, 0, 0)
}

// reopened returns the file that input is, opened anew where it cannot be
// written to: through /proc a program could otherwise open its own standard
// input for writing. It falls back on input itself, which the program then
// has no right to write to either, being of another user.
func (w walled) reopened(input int, path string) int {
	if w.root < 0 || path == "" {
		return input
	}
	fd, err := unix.Openat(w.root, strings.TrimPrefix(path, "/"), unix.O_RDONLY|unix.O_CLOEXEC|unix.O_NONBLOCK, 0)
	if err != nil {
		return input
	}
	var was, is unix.Stat_t
	if unix.Fstat(input, &was) != nil || unix.Fstat(fd, &is) != nil || idOf(was) != idOf(is) {
		unix.Close(fd)
		return input
	}
	unix.Close(input)
	return fd
}

// setFolderSize bounds the working folder's bytes from now on.
func (w walled) setFolderSize(size int64) error {
	if !w.folder.mounted {
		return nil
	}
	return unix.Mount("", w.folder.path, "", unix.MS_REMOUNT|unix.MS_NOSUID|unix.MS_NODEV, folderOptions(size))
}
