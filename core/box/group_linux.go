//go:build !portable

package box

import (
	"bytes"
	"errors"
	"fmt"
	"math"
	"os"
	"path/filepath"
	"slices"
	"strconv"
	"strings"
	"time"

	"golang.org/x/sys/unix"
)

// A control group lets the kernel itself hold the memory and the number of
// processes of all that runs in it: cgroups(7). Each box has one of its own,
// with its supervisor in it. Limits there are a backstop, a little above the run's
// own, which the watch holds: a group also counts what the kernel needs for
// itself, and files in memory.

// A group is one control group as the supervisor uses it. Of the supervisor only the
// thread that starts programs lies in it, so that what programs do is not mixed with
// what it does. In version 2 that takes a threaded group inside of a group in which
// the whole supervisor lies.
type group struct {
	Version int      // 2 or 1; 0: there is none
	Folders []string // that of the memory, that of the processes, that of the time; of these the last two may be one
}

// remove removes the group, which must be empty but for processes that are
// about to be gone.
func (g group) remove() (err error) {
	for _, dir := range slices.Backward(g.Folders) {
		e := unix.Rmdir(dir)
		for try := 0; e == unix.EBUSY && try < 200; try++ {
			time.Sleep(time.Millisecond)
			e = unix.Rmdir(dir)
		}
		if e != nil && e != unix.ENOENT {
			err = errors.Join(err, fmt.Errorf("cannot remove the control group %s: %w", dir, e))
		}
	}
	return err
}

// join moves this process into the group, as far as it belongs there.
func (g group) join() error {
	files := []string{"tasks", "tasks", "tasks"}
	if g.Version == 2 {
		files = []string{"cgroup.procs", "cgroup.threads"}
	}
	for i, dir := range g.Folders {
		if err := putText(filepath.Join(dir, files[i]), "0"); err != nil {
			return fmt.Errorf("cannot enter the control group %s: %w", dir, err)
		}
	}
	return nil
}

// An account is an open group: through it limits are set, and the kernel says what
// all that ran in it took. One run at a time is booked to it, so what a run took is
// the difference between two looks.
type account struct {
	version                         int
	limit, count                    int // open files, to write limits to; -1: none
	kills, time, usage, stat, tasks int // and to read from
	lastLimit, lastCount            int64
	seen                            int64         // processes that the kernel has killed for memory
	thread                          int           // the thread that starts programs, whose own time does not count
	before                          time.Duration // processor time before the run
	base                            booked        // what it held before the run, all of which is not the run's
	usual                           int64         // usage, with cached files, when base was looked at
}

// enter moves this thread into the group, as far as it belongs there, and opens the
// group's files: on mounts of their own where clone says so, since whatever is open
// for writing keeps a mount from being made read-only.
func (g group) enter(clone bool) (a account, err error) {
	a = account{limit: -1, count: -1, kills: -1, time: -1, usage: -1, stat: -1, tasks: -1, thread: unix.Gettid()}
	if g.Version == 0 {
		return a, nil
	}
	if err := g.join(); err != nil {
		return a, err
	}
	names := []string{"memory.max", "memory.events", "memory.current", "cpu.stat"}
	if g.Version == 1 {
		names = []string{"memory.limit_in_bytes", "memory.oom_control", "memory.usage_in_bytes", "cpuacct.usage"}
	}
	first, last := g.Folders[0], g.Folders[len(g.Folders)-1]
	for _, one := range []struct {
		fd           *int
		folder, file string
		mode         int
	}{
		{&a.limit, first, names[0], unix.O_WRONLY},
		{&a.kills, first, names[1], unix.O_RDONLY},
		{&a.usage, first, names[2], unix.O_RDONLY},
		{&a.stat, first, "memory.stat", unix.O_RDONLY},
		{&a.count, g.Folders[1], "pids.max", unix.O_WRONLY},
		{&a.tasks, g.Folders[1], "pids.current", unix.O_RDONLY},
		{&a.time, last, names[3], unix.O_RDONLY},
	} {
		dir, err := openFolder(one.folder, clone)
		if err == nil {
			*one.fd, err = unix.Openat(dir, one.file, one.mode|unix.O_CLOEXEC, 0)
			unix.Close(dir)
		}
		if err != nil {
			return a, fmt.Errorf("cannot use %s of the control group: %w", one.file, err)
		}
	}
	// No swap: what is not in memory is not measured. Absent where there is none.
	if g.Version == 1 {
		putText(first+"/memory.swappiness", "0")
	} else {
		putText(first+"/memory.swap.max", "0")
	}
	if a.seen, err = a.killed(); err == nil {
		a.version = g.Version
	}
	return a, err
}

// openFolder opens a folder, or a clone of the mount that it lies on.
func openFolder(path string, clone bool) (int, error) {
	if clone {
		return unix.OpenTree(unix.AT_FDCWD, path, unix.OPEN_TREE_CLONE|unix.OPEN_TREE_CLOEXEC)
	}
	return unix.Open(path, unix.O_PATH|unix.O_CLOEXEC, 0)
}

// What a group counts beyond what a program holds itself: kernel memory and the
// thread that starts programs. The watch shall find what multiplies before the
// kernel stops it.
const (
	groupSpare   = 16 << 20
	groupThreads = 64
)

// set bounds the group for a run; files are the bytes that the run may write
// to its working folder, which lies in memory.
func (a *account) set(memory, files int64, processes int) error {
	if a.version == 0 {
		return nil
	}
	const unlimited = math.MaxInt64
	limit, most := int64(unlimited), int64(unlimited)
	if memory > 0 {
		limit = memory + memory/16 + files + groupSpare
		if a.version == 2 { // the supervisor lies in there, too
			limit += groupSpare
		}
	}
	if processes > 0 {
		most = int64(processes) + groupThreads
	}
	for _, one := range []struct {
		fd   int
		want int64
		last *int64
	}{{a.limit, limit, &a.lastLimit}, {a.count, most, &a.lastCount}} {
		if one.want == *one.last {
			continue
		}
		text := "max"
		if one.want != unlimited {
			text = strconv.FormatInt(one.want, 10)
		} else if a.version == 1 && one.fd == a.limit {
			text = "-1"
		}
		if _, err := unix.Pwrite(one.fd, []byte(text), 0); err != nil {
			return fmt.Errorf("cannot set the limits of the control group: %w", err)
		}
		*one.last = one.want
	}
	return nil
}

// begin notes what the group shows before a run. What it holds is looked at in detail
// only where it may have changed.
func (a *account) begin() (err error) {
	if a.version == 0 {
		return nil
	}
	if a.before == 0 { // else it is what it was at the end of the run before
		if a.before, err = a.total(); err != nil {
			return err
		}
	}
	usage, err := a.usageNow()
	if err != nil || a.usual > 0 && max(usage-a.usual, a.usual-usage) < baseChange {
		return err
	}
	a.base, a.usual = booked{}, usage
	a.base, err = a.memory()
	return err
}

// baseChange is how much a group may hold more or less before a run until that is
// looked at, in bytes.
const baseChange = 256 << 10

// total is the processor time of all that ever ran in the group, but for the thread
// that starts programs.
func (a *account) total() (time.Duration, error) {
	all, err := a.groupTime()
	if err != nil {
		return 0, err
	}
	own, err := threadTime(a.thread)
	return all - own, err
}

// groupTime is the processor time of all that ever ran in the group.
func (a *account) groupTime() (time.Duration, error) {
	if a.version == 1 {
		n, err := numberAt(a.time)
		return time.Duration(n), err
	}
	text, err := readAt(a.time)
	if err != nil {
		return 0, err
	}
	n, err := field(text, "usage_usec")
	return time.Duration(n) * time.Microsecond, err
}

// spent is the processor time that the run took so far; 0 without a group.
func (a *account) spent() (time.Duration, error) {
	if a.version == 0 {
		return 0, nil
	}
	total, err := a.total()
	return total - a.before, err
}

// end is spent, when the run is over.
func (a *account) end() (time.Duration, error) {
	spent, err := a.spent()
	a.before += spent
	return spent, err
}

// usageNow is what the group holds, in bytes, with cached files.
func (a *account) usageNow() (int64, error) { return numberAt(a.usage) }

// threads is how many threads the run has.
func (a *account) threads() (int, error) {
	n, err := numberAt(a.tasks)
	return int(n) - 1, err // the one that starts programs
}

// A booked is what a group holds for a run, in bytes.
type booked struct {
	pages int64 // of the processes, and files in memory
	all   int64 // with the kernel's own, such as page tables; without cached files
}

// memory is what the run holds now; zero without a group.
func (a *account) memory() (b booked, err error) {
	if a.version == 0 {
		return b, nil
	}
	usage, err := a.usageNow()
	if err != nil {
		return b, err
	}
	text, err := readAt(a.stat)
	if err != nil {
		return b, err
	}
	own, prefix := "anon", ""
	if a.version == 1 {
		own, prefix = "rss", "total_"
	}
	var cached int64
	for name, into := range map[string][]*int64{
		own: {&b.pages}, "shmem": {&b.pages}, "active_file": {&cached}, "inactive_file": {&cached},
	} {
		n, err := field(text, prefix+name)
		if err != nil {
			return b, err
		}
		for _, one := range into {
			*one += n
		}
	}
	b.all, b.pages = usage-cached-a.base.all, b.pages-a.base.pages
	return b, nil
}

// killedForMemory reports that the kernel has killed something for memory
// since it was asked last.
func (a *account) killedForMemory() (bool, error) {
	if a.version == 0 {
		return false, nil
	}
	now, err := a.killed()
	more := now > a.seen
	a.seen = now
	return more, err
}

// killed reads how many processes the kernel has killed for memory so far:
// the same word in both versions.
func (a *account) killed() (int64, error) {
	text, err := readAt(a.kills)
	if err != nil {
		return 0, err
	}
	return field(text, "oom_kill")
}

// readAt reads a small file of the kernel from its beginning.
func readAt(fd int) (string, error) {
	var buffer [8192]byte
	n, err := readInto(buffer[:], fd)
	return string(buffer[:n]), err
}

// numberAt reads a file of the kernel that holds one number.
func numberAt(fd int) (int64, error) {
	var buffer [32]byte
	n, err := readInto(buffer[:], fd)
	if err != nil {
		return 0, err
	}
	return strconv.ParseInt(string(bytes.TrimSpace(buffer[:n])), 10, 64)
}

func readInto(buffer []byte, fd int) (int, error) {
	n, err := unix.Pread(fd, buffer, 0)
	if err != nil {
		return 0, fmt.Errorf("cannot read the control group: %w", err)
	}
	return n, nil
}

// field finds a number in lines of names and numbers.
func field(text, name string) (int64, error) {
	for line := range strings.Lines(text) {
		if count, ok := strings.CutPrefix(line, name+" "); ok {
			return strconv.ParseInt(strings.TrimSpace(count), 10, 64)
		}
	}
	return 0, fmt.Errorf("the control group has no %s", name)
}

// putText writes to a file of the kernel, which must be there.
func putText(path, text string) error {
	file, err := os.OpenFile(path, os.O_WRONLY, 0)
	if err != nil {
		return err
	}
	_, err = file.WriteString(text)
	return errors.Join(err, file.Close())
}
