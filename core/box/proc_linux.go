//go:build !portable

package box

import (
	"bytes"
	"errors"
	"fmt"
	"io"
	"os"
	"strconv"
	"strings"
	"sync"
	"time"

	"golang.org/x/sys/unix"
)

// What /proc tells of a process. A process that is gone is errGone; whatever else
// keeps this process from reading is another error, and never counts as zero.

// errGone says that a process is no more.
var errGone = errors.New("the process is gone")

// procRoot is the /proc that this process reads, whatever its threads see there: a
// mount of its own where that can be had, so that it stays as it is.
var procRoot = sync.OnceValues(func() (int, error) {
	if fd, err := unix.OpenTree(unix.AT_FDCWD, "/proc", unix.OPEN_TREE_CLONE|unix.OPEN_TREE_CLOEXEC); err == nil {
		return fd, nil
	}
	return unix.Open("/proc", unix.O_RDONLY|unix.O_DIRECTORY|unix.O_CLOEXEC, 0)
})

// openProc opens a file of /proc, whose path begins with a process's number.
func openProc(path string, flags int) (int, error) {
	root, err := procRoot()
	if err != nil {
		return -1, err
	}
	fd, err := unix.Openat(root, path, flags|unix.O_CLOEXEC, 0)
	if err == unix.ENOENT || err == unix.ESRCH {
		err = errGone
	}
	return fd, err
}

type procStatus struct {
	process int   // number of the process, also where a thread was asked
	peak    int64 // bytes, high-water mark of the resident set
	shared  int64 // bytes, resident files in memory and shared memory
	tables  int64 // bytes of page tables
	stack   int64 // bytes, the stack of its first thread
	threads int
}

func readStatus(pid int) (s procStatus, err error) {
	text, err := readProc(strconv.Itoa(pid) + "/status")
	if err != nil {
		return s, err
	}
	s.process = int(statusField(text, "\nTgid:"))
	s.peak = statusField(text, "\nVmHWM:") << 10
	s.shared = statusField(text, "\nRssShmem:") << 10
	s.tables = statusField(text, "\nVmPTE:") << 10
	s.stack = statusField(text, "\nVmStk:") << 10
	s.threads = int(statusField(text, "\nThreads:"))
	return s, nil
}

func statusField(text []byte, name string) int64 {
	_, rest, ok := bytes.Cut(text, []byte(name))
	if !ok {
		return 0
	}
	rest = bytes.TrimLeft(rest, " \t")
	end := 0
	for end < len(rest) && rest[end] >= '0' && rest[end] <= '9' {
		end++
	}
	n, _ := strconv.ParseInt(string(rest[:end]), 10, 64)
	return n
}

// readProc reads a small file of /proc in one call.
func readProc(path string) ([]byte, error) {
	fd, err := openProc(path, unix.O_RDONLY)
	if err != nil {
		return nil, err
	}
	defer unix.Close(fd)
	buffer := make([]byte, 4096)
	n, err := unix.Read(fd, buffer)
	if err == unix.ESRCH || err == nil && n <= 0 {
		err = errGone
	}
	if err != nil {
		return nil, err
	}
	return buffer[:n], nil
}

// resident returns the bytes that a process holds now. When its first thread
// has ended, another one tells.
func resident(pid int) (int64, error) {
	base := strconv.Itoa(pid)
	pages, err := residentPages(base + "/statm")
	if err != nil || pages > 0 {
		return pages * int64(os.Getpagesize()), err
	}
	tids, err := numbers(base + "/task")
	if err != nil {
		return 0, err
	}
	for _, tid := range tids {
		pages, err := residentPages(base + "/task/" + strconv.Itoa(tid) + "/statm")
		if err == errGone {
			continue
		}
		if err != nil || pages > 0 {
			return pages * int64(os.Getpagesize()), err
		}
	}
	return 0, nil
}

func residentPages(path string) (pages int64, err error) {
	text, err := readProc(path)
	if err != nil {
		return 0, err
	}
	fields := strings.Fields(string(text))
	if len(fields) < 2 {
		return 0, fmt.Errorf("/proc/%s says %q", path, text)
	}
	return strconv.ParseInt(fields[1], 10, 64)
}

// processTime returns the processor time of one process so far, all its
// threads together, dead ones too. The number of the clock is made from the
// process number as clock_getcpuclockid(3) does.
func processTime(pid int) (time.Duration, error) { return clock(int32(^pid<<3 | 2)) }

// threadTime is the same of one thread of this process.
func threadTime(tid int) (time.Duration, error) { return clock(int32(^tid<<3 | 6)) }

func clock(id int32) (time.Duration, error) {
	var now unix.Timespec
	err := unix.ClockGettime(id, &now)
	if err == unix.EINVAL || err == unix.ESRCH {
		err = errGone
	}
	return time.Duration(now.Nano()), err
}

// delays returns for how long each thread of a process was ready to run, and did not: the
// second field of schedstat, see sched-stats in the kernel's manual.
func delays(pid int) (map[int]time.Duration, error) {
	tids, err := numbers(strconv.Itoa(pid) + "/task")
	if err != nil {
		return nil, err
	}
	all := map[int]time.Duration{}
	for _, tid := range tids {
		delay, err := threadDelayed(pid, tid)
		if err != nil && err != errGone {
			return nil, err
		}
		all[tid] = delay
	}
	return all, nil
}

// isReady reports that some thread of a process runs, or could: its state in
// proc_pid_stat(5).
func isReady(pid int) (bool, error) {
	base := strconv.Itoa(pid) + "/task"
	tids, err := numbers(base)
	if err != nil {
		return false, err
	}
	for _, tid := range tids {
		text, err := readProc(base + "/" + strconv.Itoa(tid) + "/stat")
		if err == errGone {
			continue
		}
		if err != nil {
			return false, err
		}
		if bytes.HasPrefix(text[bytes.LastIndexByte(text, ')')+1:], []byte(" R")) {
			return true, nil
		}
	}
	return false, nil
}

// threadDelayed is that of one thread.
func threadDelayed(pid, tid int) (time.Duration, error) {
	text, err := readProc(fmt.Sprintf("%d/task/%d/schedstat", pid, tid))
	if err != nil {
		return 0, err
	}
	fields := strings.Fields(string(text))
	if len(fields) < 2 {
		return 0, nil
	}
	delay, err := strconv.ParseInt(fields[1], 10, 64)
	return time.Duration(delay), err
}

// numbers lists the entries of a folder of /proc that are numbers; "." is /proc
// itself.
func numbers(path string) (all []int, err error) {
	fd, err := openProc(path, unix.O_RDONLY|unix.O_DIRECTORY)
	if err != nil {
		return nil, err
	}
	dir := os.NewFile(uintptr(fd), path)
	defer dir.Close()
	names, err := dir.Readdirnames(-1)
	if errors.Is(err, unix.ENOENT) || errors.Is(err, unix.ESRCH) {
		err = errGone
	}
	if err != nil {
		return nil, err
	}
	for _, name := range names {
		if n, err := strconv.Atoi(name); err == nil {
			all = append(all, n)
		}
	}
	return all, nil
}

// A process is one process of a run.
type process struct{ pid, parent int }

// descendants lists all living processes below pid, parents before children,
// with the number of threads in all of them together.
func descendants(pid int) (all []process, threads int, err error) {
	queue := []process{{pid, 0}}
	seen := map[int]bool{pid: true}
	for len(queue) > 0 {
		now := queue[0]
		queue = queue[1:]
		base := strconv.Itoa(now.pid) + "/task"
		tids, err := numbers(base)
		if err == errGone {
			continue
		}
		if err != nil {
			return nil, 0, err
		}
		if now.pid != pid {
			all = append(all, now)
			threads += len(tids)
		}
		for _, tid := range tids {
			below, err := children(base + "/" + strconv.Itoa(tid) + "/children")
			if err != nil && err != errGone {
				return nil, 0, err
			}
			for _, child := range below {
				if !seen[child] {
					seen[child] = true
					queue = append(queue, process{child, now.pid})
				}
			}
		}
	}
	return all, threads, nil
}

// sameMemory reports that two processes share their whole memory, as one does
// with its parent that was begun with vfork(2) and has not executed anything.
func sameMemory(a, b int) bool {
	const memory = 1 // KCMP_VM
	r, _, errno := unix.RawSyscall6(unix.SYS_KCMP, uintptr(a), uintptr(b), memory, 0, 0, 0)
	return errno == 0 && r == 0
}

// rollup reads one figure of a process from a walk through its page tables, in
// bytes.
func rollup(pid int, field string) (int64, error) {
	text, err := readProc(strconv.Itoa(pid) + "/smaps_rollup")
	if err != nil {
		return 0, err
	}
	return statusField(text, "\n"+field+":") << 10, nil
}

// countsLate reports that this kernel adds up the resident set in steps of 64
// pages for each thread, and so shows too little of it, as Linux did before
// 6.2.
var countsLate = sync.OnceValue(func() bool {
	var name unix.Utsname
	var major, minor int
	if unix.Uname(&name) != nil {
		return true
	}
	fmt.Sscanf(unix.ByteSliceToString(name.Release[:]), "%d.%d", &major, &minor)
	return major < 6 || major == 6 && minor < 2
})

// proportional returns the proportional set size of a process, in bytes; all that
// it holds where that cannot be had.
func proportional(pid int) (int64, error) {
	size, err := rollup(pid, "Pss")
	if err == nil || err == errGone {
		return size, err
	}
	return resident(pid)
}

// A fileID tells files apart.
type fileID struct{ device, number uint64 }

func idOf(s unix.Stat_t) fileID { return fileID{uint64(s.Dev), s.Ino} }

// readWhole reads a file of /proc of any length.
func readWhole(path string) ([]byte, error) {
	fd, err := openProc(path, unix.O_RDONLY)
	if err != nil {
		return nil, err
	}
	file := os.NewFile(uintptr(fd), path)
	defer file.Close()
	text, err := io.ReadAll(file)
	if errors.Is(err, unix.ESRCH) {
		err = errGone
	}
	return text, err
}

func children(path string) (pids []int, err error) {
	text, err := readWhole(path)
	for _, field := range strings.Fields(string(text)) {
		if n, err := strconv.Atoi(field); err == nil {
			pids = append(pids, n)
		}
	}
	return pids, err
}

// killBelow kills every process below this one, and returns how many there were.
func killBelow() (count int, err error) {
	all, _, err := descendants(os.Getpid())
	for _, p := range all {
		unix.Kill(p.pid, unix.SIGKILL)
	}
	return len(all), err
}
