//go:build !portable

package box

import (
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
// with its warden in it. Limits there are a backstop, a little above the run's
// own, which the watch holds: a group also counts what the kernel needs for
// itself, files in memory, and the warden.

// A group is one control group as the warden uses it. The whole warden lies in
// it, for the memory's sake, but of its threads only the one that starts
// programs is counted with them, so that a program that multiplies cannot keep
// the others from starting a thread. In version 2 that takes a threaded group
// inside the group.
type group struct {
	Version int      // 2 or 1; 0: there is none
	Folders []string // that of the memory, and that of the processes
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
	files := []string{"tasks", "tasks"}
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

// A hold is an open group, through which limits are set and kills are seen.
type hold struct {
	version                 int
	memory, count, kills    int // open files; -1: none
	lastMemory, lastMaximum int64
	seen                    int64 // processes that the kernel has killed for memory
}

// enter moves this process into the group and opens the files that limits go
// to: on mounts of their own where clone says so, since whatever is open for
// writing keeps a mount from being made read-only.
func (g group) enter(clone bool) (h hold, err error) {
	h = hold{memory: -1, count: -1, kills: -1}
	if g.Version == 0 {
		return h, nil
	}
	if err := g.join(); err != nil {
		return h, err
	}
	limit, kills := "memory.max", "memory.events"
	if g.Version == 1 {
		limit, kills = "memory.limit_in_bytes", "memory.oom_control"
	}
	first, last := g.Folders[0], g.Folders[1]
	for _, one := range []struct {
		fd           *int
		folder, file string
		mode         int
	}{
		{&h.memory, first, limit, unix.O_WRONLY},
		{&h.count, last, "pids.max", unix.O_WRONLY},
		{&h.kills, first, kills, unix.O_RDONLY},
	} {
		dir, err := openFolder(one.folder, clone)
		if err == nil {
			*one.fd, err = unix.Openat(dir, one.file, one.mode|unix.O_CLOEXEC, 0)
			unix.Close(dir)
		}
		if err != nil {
			return h, fmt.Errorf("cannot use %s of the control group: %w", one.file, err)
		}
	}
	// No swap: what is not in memory is not measured. Absent where there is none.
	if g.Version == 1 {
		putText(first+"/memory.swappiness", "0")
	} else {
		putText(first+"/memory.swap.max", "0")
	}
	h.version = g.Version
	h.seen = h.killed()
	return h, nil
}

// openFolder opens a folder, or a clone of the mount that it lies on.
func openFolder(path string, clone bool) (int, error) {
	if clone {
		return unix.OpenTree(unix.AT_FDCWD, path, unix.OPEN_TREE_CLONE|unix.OPEN_TREE_CLOEXEC)
	}
	return unix.Open(path, unix.O_PATH|unix.O_CLOEXEC, 0)
}

// What a group counts beyond what a program holds itself: kernel memory and the
// warden's, and the thread that starts programs. The watch shall find what
// multiplies before the kernel stops it.
const (
	groupSpare   = 48 << 20
	groupThreads = 64
)

// set bounds the group for a run; files are the bytes that the run may write
// to its working folder, which lies in memory.
func (h *hold) set(memory, files int64, processes int) error {
	if h.version == 0 {
		return nil
	}
	const unlimited = math.MaxInt64
	limit, most := int64(unlimited), int64(unlimited)
	if memory > 0 {
		limit = memory + memory/16 + files + groupSpare
	}
	if processes > 0 {
		most = int64(processes) + groupThreads
	}
	for _, one := range []struct {
		fd   int
		want int64
		last *int64
	}{{h.memory, limit, &h.lastMemory}, {h.count, most, &h.lastMaximum}} {
		if one.want == *one.last {
			continue
		}
		text := "max"
		if one.want != unlimited {
			text = strconv.FormatInt(one.want, 10)
		} else if h.version == 1 && one.fd == h.memory {
			text = "-1"
		}
		if _, err := unix.Pwrite(one.fd, []byte(text), 0); err != nil {
			return fmt.Errorf("cannot set the limits of the control group: %w", err)
		}
		*one.last = one.want
	}
	return nil
}

// killedForMemory reports that the kernel has killed something for memory
// since it was asked last.
func (h *hold) killedForMemory() bool {
	if h.version == 0 {
		return false
	}
	now := h.killed()
	more := now > h.seen
	h.seen = now
	return more
}

// killed reads how many processes the kernel has killed for memory so far:
// the same word in both versions.
func (h *hold) killed() int64 {
	var buffer [512]byte
	n, err := unix.Pread(h.kills, buffer[:], 0)
	if err != nil {
		return h.seen
	}
	for line := range strings.Lines(string(buffer[:n])) {
		if count, ok := strings.CutPrefix(line, "oom_kill "); ok {
			n, _ := strconv.ParseInt(strings.TrimSpace(count), 10, 64)
			return n
		}
	}
	return 0
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
