//go:build !portable

package box

import (
	"bytes"
	"fmt"
	"os"
	"strconv"
	"strings"
	"sync"
	"time"

	"golang.org/x/sys/unix"
)

// What /proc tells of a process. A process that is gone reads as zeros.

type procStatus struct {
	process int   // number of the process, also where a thread was asked
	peak    int64 // bytes, high-water mark of the resident set
	shared  int64 // bytes, resident files in memory and shared memory
	threads int
}

func readStatus(pid int) (s procStatus) {
	text, ok := readProc("/proc/" + strconv.Itoa(pid) + "/status")
	if !ok {
		return s
	}
	s.process = int(statusField(text, "\nTgid:"))
	s.peak = statusField(text, "\nVmHWM:") << 10
	s.shared = statusField(text, "\nRssShmem:") << 10
	s.threads = int(statusField(text, "\nThreads:"))
	return s
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
func readProc(path string) ([]byte, bool) {
	fd, err := unix.Open(path, unix.O_RDONLY|unix.O_CLOEXEC, 0)
	if err != nil {
		return nil, false
	}
	defer unix.Close(fd)
	buffer := make([]byte, 4096)
	n, err := unix.Read(fd, buffer)
	if err != nil || n <= 0 {
		return nil, false
	}
	return buffer[:n], true
}

// resident returns the bytes that a process holds now. When its first thread
// has ended, another one tells.
func resident(pid int) int64 {
	base := "/proc/" + strconv.Itoa(pid)
	if pages := residentPages(base + "/statm"); pages > 0 {
		return pages * int64(os.Getpagesize())
	}
	for _, tid := range numbers(base + "/task") {
		if pages := residentPages(base + "/task/" + strconv.Itoa(tid) + "/statm"); pages > 0 {
			return pages * int64(os.Getpagesize())
		}
	}
	return 0
}

func residentPages(path string) int64 {
	text, ok := readProc(path)
	if !ok {
		return 0
	}
	fields := strings.Fields(string(text))
	if len(fields) < 2 {
		return 0
	}
	pages, _ := strconv.ParseInt(fields[1], 10, 64)
	return pages
}

// processTime returns the processor time of one process so far, all its
// threads together, dead ones too. The number of the clock is made from the
// process number as clock_getcpuclockid(3) does.
func processTime(pid int) time.Duration {
	var now unix.Timespec
	if err := unix.ClockGettime(int32(^pid<<3|2), &now); err != nil {
		return 0
	}
	return time.Duration(now.Nano())
}

// numbers lists the entries of a folder of /proc that are numbers.
func numbers(path string) (all []int) {
	dir, err := os.Open(path)
	if err != nil {
		return nil
	}
	defer dir.Close()
	names, _ := dir.Readdirnames(-1)
	for _, name := range names {
		if n, err := strconv.Atoi(name); err == nil {
			all = append(all, n)
		}
	}
	return all
}

// A process is one process of a run.
type process struct{ pid, parent int }

// descendants lists all living processes below pid, parents before children,
// with the number of threads in all of them together.
func descendants(pid int) (all []process, threads int) {
	queue := []process{{pid, 0}}
	seen := map[int]bool{pid: true}
	for len(queue) > 0 {
		now := queue[0]
		base := "/proc/" + strconv.Itoa(now.pid) + "/task"
		tids := numbers(base)
		if now.pid != pid {
			all = append(all, now)
			threads += len(tids)
		}
		queue = queue[1:]
		for _, tid := range tids {
			for _, child := range children(base + "/" + strconv.Itoa(tid) + "/children") {
				if !seen[child] {
					seen[child] = true
					queue = append(queue, process{child, now.pid})
				}
			}
		}
	}
	return all, threads
}

// sameMemory reports that two processes share their whole memory, as one does
// with its parent that was begun with vfork(2) and has not executed anything.
func sameMemory(a, b int) bool {
	const memory = 1 // KCMP_VM
	r, _, errno := unix.RawSyscall6(unix.SYS_KCMP, uintptr(a), uintptr(b), memory, 0, 0, 0)
	return errno == 0 && r == 0
}

// rollup reads one figure of a process from a walk through its page tables, in
// bytes; -1 if it cannot be had.
func rollup(pid int, field string) int64 {
	text, ok := readProc("/proc/" + strconv.Itoa(pid) + "/smaps_rollup")
	if !ok {
		return -1
	}
	return statusField(text, "\n"+field+":") << 10
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

// proportional returns the proportional set size of a process, in bytes.
func proportional(pid int) int64 {
	if size := rollup(pid, "Pss"); size >= 0 {
		return size
	}
	return resident(pid)
}

// A fileID tells files apart.
type fileID struct{ device, number uint64 }

func idOf(s unix.Stat_t) fileID { return fileID{uint64(s.Dev), s.Ino} }

// unmappedFiles returns the bytes of files in memory that processes hold open
// without having them in their address space, where they would be counted.
func unmappedFiles(all []process, input fileID) int64 {
	var total, mapped int64
	seen := map[fileID]bool{input: true}
	for _, p := range all {
		base := "/proc/" + strconv.Itoa(p.pid) + "/fd/"
		for _, fd := range numbers(base) {
			path := base + strconv.Itoa(fd)
			var name [16]byte
			n, err := unix.Readlink(path, name[:])
			if err != nil || !strings.HasPrefix(string(name[:n]), "/memfd:") {
				continue
			}
			var s unix.Stat_t
			if unix.Stat(path, &s) != nil || seen[idOf(s)] {
				continue
			}
			seen[idOf(s)] = true
			total += s.Blocks * 512
		}
	}
	if total == 0 {
		return 0
	}
	for _, p := range all {
		mapped += readStatus(p.pid).shared
	}
	return max(0, total-mapped)
}

func children(path string) (pids []int) {
	text, err := os.ReadFile(path)
	if err != nil {
		return nil
	}
	for _, field := range strings.Fields(string(text)) {
		if n, err := strconv.Atoi(field); err == nil {
			pids = append(pids, n)
		}
	}
	return pids
}

// killChildren kills every process below this one and returns which they were.
// The first process of a namespace kills them all at one stroke.
func killChildren() []process {
	all, _ := descendants(os.Getpid())
	if os.Getpid() == 1 {
		unix.Kill(-1, unix.SIGKILL)
		return all
	}
	for _, p := range all {
		unix.Kill(p.pid, unix.SIGKILL)
	}
	return all
}

// othersAlive lists the threads of a process other than its first that are
// not about to die with it.
func othersAlive(pid int) (tids []int) {
	base := "/proc/" + strconv.Itoa(pid) + "/task"
	for _, tid := range numbers(base) {
		if tid == pid {
			continue
		}
		text, ok := readProc(base + "/" + strconv.Itoa(tid) + "/status")
		if !ok || dying(text) {
			continue
		}
		tids = append(tids, tid)
	}
	return tids
}

// dying reports whether a thread is dead, or has a SIGKILL of its own pending,
// as the kernel gives it when the whole process ends.
func dying(status []byte) bool {
	if _, rest, ok := bytes.Cut(status, []byte("\nState:\t")); ok && len(rest) > 0 && (rest[0] == 'Z' || rest[0] == 'X') {
		return true
	}
	_, rest, ok := bytes.Cut(status, []byte("\nSigPnd:\t"))
	if !ok {
		return true
	}
	field, _, _ := bytes.Cut(rest, []byte("\n"))
	pending, err := strconv.ParseUint(string(field), 16, 64)
	return err != nil || pending&(1<<(unix.SIGKILL-1)) != 0
}
