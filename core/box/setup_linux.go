//go:build !portable

package box

import (
	"cmp"
	"fmt"
	"os"
	"slices"
	"time"
	"unsafe"

	"golang.org/x/sys/unix"
)

// A setup is what a supervisor is told before its first request: how it is to keep
// what it runs away from everything else.
type setup struct {
	Isolation   Isolation
	Apart       bool     // it is the first process of namespaces of its own
	NewUser     bool     // a user namespace among them
	Uncontained bool     // programs may use files and the network as the caller can
	Folder      string   // working folder, where programs have no tree of their own
	Hidden      []string // as Options has them
	Visible     []string
	Reads       []string // of the only program that it will run, under Landlock's rules
	Writes      []string
	Coarse      bool
	Group       group
}

// A readiness is the supervisor's answer: what holds from now on.
type readiness struct {
	Error     string
	Ungrouped string // why the control group cannot be used
	Told      bool   // refused system calls are told
	Filter    bool   // system calls are refused
	Near      bool   // signals reach no process outside
}

// A sandbox is what stays open of what keeps programs away from everything else.
type sandbox struct {
	folder    *workFolder
	account   account
	ungrouped string // why the control group cannot be used
	tree      *tree  // nil: programs see the machine's own
	root      int    // the machine's tree, for reading only; -1: none
	init      *initProcess
	filter    filterPlan
	listener  int // asks about system calls; -1: nothing does
	coarse    bool
}

// raise puts up the sandbox around this thread and all that it will start.
func (s setup) raise() (w sandbox, err error) {
	w = sandbox{root: -1, listener: -1, coarse: s.Coarse, folder: &workFolder{path: s.Folder, fd: -1}}
	// Where cold was started is no business of the programs here.
	if err := unix.Chdir("/"); err != nil {
		return w, err
	}
	if w.account, err = s.Group.enter(s.Isolation == Namespaces); err != nil {
		w.ungrouped = err.Error() // the watch holds the limits alone
	}
	if s.Apart {
		if err := ownMounts(); err != nil {
			return w, err
		}
	}
	if _, err := procRoot(); err != nil {
		return w, err
	}
	calmRuntime()
	if s.Isolation == Namespaces {
		if w.root, err = readOnlyMachine(); err != nil {
			return w, err
		}
	}
	if s.Apart {
		// Not before nothing can be written any more: what is being written where it
		// begins, if only the time of a reading, cannot be made read-only.
		if w.init, err = startInit(); err != nil {
			return w, err
		}
	}
	if err := s.ownTree(&w); err != nil {
		return w, err
	}
	if s.Apart {
		if err := w.init.enter(); err != nil {
			return w, err
		}
	}
	if w.tree == nil {
		if err := w.folder.open(); err != nil {
			return w, err
		}
	}
	return w, s.giveUp(&w)
}

// giveUp takes from this thread, and all that it will start, what they need no more: privileges, files,
// and system calls.
func (s setup) giveUp(w *sandbox) (err error) {
	// What this process knows is not for programs of the same user.
	if err := unix.Prctl(unix.PR_SET_DUMPABLE, 0, 0, 0, 0); err != nil {
		return err
	}
	counted := w.account.version != 0 || s.Coarse // what the kernel keeps for programs is, or has room enough
	if !counted {
		if err := boundDescriptors(); err != nil {
			return err
		}
	}
	if s.Isolation == NotIsolated {
		// Root stays root where nothing is contained.
		if err := unix.Prctl(unix.PR_CAP_AMBIENT, unix.PR_CAP_AMBIENT_CLEAR_ALL, 0, 0, 0); err != nil {
			return err
		}
	} else if err := dropPrivileges(); err != nil {
		return fmt.Errorf("cannot give up privileges: %w", err)
	}
	if err := unix.Prctl(unix.PR_SET_NO_NEW_PRIVS, 1, 0, 0, 0); err != nil {
		return err
	}
	if s.Isolation == Rules {
		if err := s.ownRules(); err != nil {
			return err
		}
	}
	w.filter = filterPlan{Network: s.Uncontained, Shared: !s.Apart, Files: counted, Machine: s.Isolation == Rules, Supervisor: os.Getpid()}
	w.listener, err = w.filter.filterCalls()
	return err
}

// readOnlyMachine makes all that is mounted read-only and without devices, and returns
// it: what this process opens for programs, such as their input, is then for reading
// only.
func readOnlyMachine() (root int, err error) {
	harmless := unix.MountAttr{Attr_set: unix.MOUNT_ATTR_RDONLY | unix.MOUNT_ATTR_NOSUID | unix.MOUNT_ATTR_NODEV}
	if err := unix.MountSetattr(unix.AT_FDCWD, "/", unix.AT_RECURSIVE, &harmless); err != nil {
		return -1, fmt.Errorf("cannot make the file system read-only: %w", err)
	}
	if root, err = unix.OpenTree(unix.AT_FDCWD, "/", unix.OPEN_TREE_CLONE|unix.OPEN_TREE_CLOEXEC|unix.AT_RECURSIVE); err != nil {
		return -1, fmt.Errorf("cannot clone the file system: %w", err)
	}
	return root, nil
}

// ownTree gives this thread, and what it starts, the tree that programs see.
func (s setup) ownTree(w *sandbox) (err error) {
	switch {
	case s.Isolation == Namespaces:
		if w.tree, err = newTree(w.init, s.Hidden, s.Visible, w.folder); err != nil {
			return err
		}
	case s.Apart:
		if err := unix.Unshare(unix.CLONE_NEWNS); err != nil {
			return fmt.Errorf("cannot have mounts of its own: %w", err)
		}
		if err := w.init.ready(); err != nil {
			return err
		}
		return w.init.showProc()
	}
	return nil
}

// ownMounts gives the first process of a namespace a /proc that shows that
// namespace. Nothing of it is seen outside.
func ownMounts() error {
	if err := unix.Mount("", "/", "", unix.MS_REC|unix.MS_PRIVATE, ""); err != nil {
		return fmt.Errorf("cannot keep mounts to itself: %w", err)
	}
	if err := unix.Mount("proc", "/proc", "proc", unix.MS_NOSUID|unix.MS_NODEV|unix.MS_NOEXEC, ""); err != nil {
		return fmt.Errorf("cannot mount /proc: %w", err)
	}
	return nil
}

// mostDescriptors bounds a process's open files where no control group counts what
// the kernel keeps for them.
const mostDescriptors = 256

func boundDescriptors() error {
	var now unix.Rlimit
	if err := unix.Getrlimit(unix.RLIMIT_NOFILE, &now); err != nil {
		return err
	}
	now.Cur, now.Max = min(now.Cur, mostDescriptors), min(now.Max, mostDescriptors)
	return unix.Setrlimit(unix.RLIMIT_NOFILE, &now)
}

// calmRuntime lets the thread with which the Go runtime looks after the others,
// the first that it makes, sleep for longer than it asks for. It would otherwise
// wake every few ten microseconds while they wait in the kernel, on a processor
// that a program is measured on. Without the right to do so, it does.
func calmRuntime() {
	threads, err := numbers("self/task")
	if err != nil || len(threads) < 2 {
		return
	}
	age := func(thread int) uint32 { return uint32(thread - os.Getpid()) } // also where numbers began anew
	slices.SortFunc(threads, func(a, b int) int { return cmp.Compare(age(a), age(b)) })
	fd, err := openProc(fmt.Sprintf("%d/timerslack_ns", threads[1]), unix.O_WRONLY)
	if err != nil {
		return
	}
	unix.Write(fd, fmt.Append(nil, calm.Nanoseconds()))
	unix.Close(fd)
}

// calm is for how much longer. What the others wait for can come that late, rarely.
const calm = 10 * time.Millisecond

// keptPrivileges are those that the thread which starts programs needs to follow
// them. No program inherits them, whoever runs it.
const keptPrivileges = 1<<unix.CAP_KILL | 1<<unix.CAP_SYS_PTRACE

// dropPrivileges takes every other capability from this thread for good, and keeps
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
	var now [2]unix.CapUserData
	if err := unix.Capget(&header, &now[0]); err != nil {
		return err
	}
	kept := now[0].Permitted & keptPrivileges
	now = [2]unix.CapUserData{{Effective: kept, Permitted: kept}}
	return unix.Capset(&header, &now[0])
}

// A signalAction is struct sigaction, as the kernel has it; zero is the default.
type signalAction struct{ handler, flags, restorer, mask uint64 }

func setAction(number int, action *signalAction) error {
	_, _, errno := unix.RawSyscall6(unix.SYS_RT_SIGACTION, uintptr(number), uintptr(unsafe.Pointer(action)), 0, 8, 0, 0)
	if errno != 0 {
		return errno
	}
	return nil
}
