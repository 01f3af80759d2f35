//go:build !portable

package box

import (
	"errors"
	"fmt"
	"io/fs"
	"maps"
	"os"
	"runtime"
	"strconv"
	"sync"
	"sync/atomic"
	"syscall"
	"time"

	"coldverdict/core/verdict"
	"golang.org/x/sys/unix"
)

// A tracee is the program of one run, traced by the thread that started it.
type tracee struct {
	id     uint32
	pid    int
	limits verdict.Limits
	began  time.Time     // the moment before its first instruction
	spent  time.Duration // processor time the warden had reaped before
	folder *workFolder   // whose size the watch looks at; nil: nothing does
	given  int64         // bytes of a file that lay in it at the beginning
	weigh  time.Duration // wall-clock time when it does so again; used by the watch only
	input  fileID        // standard input
	sum    sum           // of the memory of several processes
	coarse bool          // it may be a rough sum
	due    atomic.Int64  // when the watch looks next, in nanoseconds of the Unix epoch

	mu     sync.Mutex // guards what the watch and the leash also touch
	peak   int64      // bytes, largest seen so far
	ending Ending
	gone   bool // reaped: its number may belong to another process

	// Whoever ignores the end of its children keeps the kernel from adding
	// up what they used. So the time of all that is traced is kept here too.
	born  map[int]bool          // processes that it started and that are alive
	used  map[int]time.Duration // of those that are about to end, the program among them
	ended time.Duration         // of those that have ended
}

// traceOptions: stop once at exit, where the peak can be read; follow the
// processes that the program starts; die with the tracer. Threads are not
// followed: each signal of a traced thread costs two switches, and runtimes
// with many threads send themselves many signals.
const traceOptions = unix.PTRACE_O_TRACEEXIT | unix.PTRACE_O_EXITKILL |
	unix.PTRACE_O_TRACEFORK | unix.PTRACE_O_TRACEVFORK | unix.PTRACE_O_TRACEEXEC

func newTracee(o order, spent time.Duration) *tracee {
	return &tracee{
		id: o.ID, limits: o.Limits, spent: spent, ending: Exited,
		born: map[int]bool{}, used: map[int]time.Duration{},
	}
}

// start brings a program to the point before its first instruction and lets
// it go.
func (w *warden) start(o order, input int) (*tracee, error) {
	t := newTracee(o, w.spent)
	t.coarse = w.coarse
	var s unix.Stat_t
	if err := unix.Fstat(input, &s); err != nil {
		return nil, err
	}
	t.input = idOf(s)
	dir := w.task.Dir
	if dir == "" {
		dir = w.folder.path
		if !w.folder.mounted {
			t.folder = &w.folder
		}
	}
	path := w.task.Program.Path
	// A program may have left the pipes in another mode for the next one.
	files := []uintptr{uintptr(input)}
	for _, fd := range w.pipes {
		files = append(files, uintptr(fd))
		if _, err := unix.FcntlInt(uintptr(fd), unix.F_SETFL, 0); err != nil {
			return nil, err
		}
	}
	pid, err := syscall.ForkExec(path, append([]string{path}, w.task.Program.Args...), &syscall.ProcAttr{
		Dir:   dir,
		Env:   w.task.Program.Env,
		Files: files,
		Sys:   &syscall.SysProcAttr{Ptrace: true, Setpgid: true},
	})
	if err != nil {
		return nil, startError(path, err)
	}
	t.pid = pid
	_, status, err := wait(pid)
	if err != nil {
		return nil, fmt.Errorf("cannot wait for %s: %w", path, err)
	}
	if !status.Stopped() {
		return nil, fmt.Errorf("%s ended before it began (wait status %#x)", path, int(status))
	}
	if err := unix.PtraceSetOptions(pid, traceOptions); err != nil {
		return nil, fmt.Errorf("cannot trace %s: %w", path, err)
	}
	if w.hold.version != 0 {
		w.offerFirst(pid)
	}
	t.began = time.Now()
	t.due.Store(t.began.Add(t.nextLook(0, 0, 0, 1, runtime.NumCPU())).UnixNano())
	if err := unix.PtraceCont(pid, 0); err != nil {
		return nil, fmt.Errorf("cannot trace %s: %w", path, err)
	}
	return t, nil
}

// offerFirst lets the kernel, where a control group is out of memory, take a
// program before it takes the warden. What the program starts inherits it.
func (w *warden) offerFirst(pid int) {
	path := strconv.Itoa(pid) + "/oom_score_adj"
	dir := w.proc
	if dir < 0 {
		dir, path = unix.AT_FDCWD, "/proc/"+path
	}
	fd, err := unix.Openat(dir, path, unix.O_WRONLY|unix.O_CLOEXEC, 0)
	if err != nil {
		return // it has ended
	}
	unix.Write(fd, []byte("1000"))
	unix.Close(fd)
}

func startError(path string, err error) error {
	switch {
	case errors.Is(err, fs.ErrNotExist):
		return fmt.Errorf("cannot start %s: it, or the interpreter it names, does not exist", path)
	case errors.Is(err, fs.ErrPermission):
		return fmt.Errorf("cannot start %s: %w (is it executable, and is tracing allowed here?)", path, err)
	case errors.Is(err, unix.ENOEXEC):
		return fmt.Errorf("cannot start %s: it is no program for this machine", path)
	}
	return fmt.Errorf("cannot start %s: %w", path, err)
}

// follow serves the stops of the program and of all that it starts until the
// program itself has ended, and returns how.
func (t *tracee) follow(w *watch) (unix.WaitStatus, error) {
	for {
		pid, status, err := wait(-1)
		if err != nil {
			return 0, err
		}
		if !status.Stopped() {
			t.died(pid)
			if pid == t.pid {
				return status, nil
			}
			continue
		}
		switch {
		case t.isOver():
			// A process that starts now begins with a stop, and ends with it.
			t.note(pid)
			unix.Kill(pid, unix.SIGKILL)
			unix.PtraceCont(pid, 0)
		default:
			t.stopped(pid, status, w)
		}
	}
}

func (t *tracee) isOver() bool {
	t.mu.Lock()
	defer t.mu.Unlock()
	return t.ending != Exited
}

// died notes that a process has ended.
func (t *tracee) died(pid int) {
	t.mu.Lock()
	defer t.mu.Unlock()
	t.gone = t.gone || pid == t.pid
	delete(t.born, pid)
	t.ended += t.used[pid]
	delete(t.used, pid)
}

// spentByDead is the processor time of all traced processes that have ended.
func (t *tracee) spentByDead() time.Duration {
	t.mu.Lock()
	defer t.mu.Unlock()
	return t.ended
}

// wait waits for a change of one process, or of any (-1).
func wait(which int) (pid int, status unix.WaitStatus, err error) {
	err = again(func() (err error) { pid, err = unix.Wait4(which, &status, unix.WALL, nil); return err })
	return pid, status, err
}

// stopped handles one stop of one traced process, and lets it go on.
func (t *tracee) stopped(pid int, status unix.WaitStatus, w *watch) {
	signal := status.StopSignal()
	switch {
	case signal != unix.SIGTRAP:
		t.signalled(pid, signal, w)
		return
	case status.TrapCause() == 0: // a breakpoint of its own
		unix.PtraceCont(pid, int(signal))
		return
	case status.TrapCause() == unix.PTRACE_EVENT_EXIT:
		t.exiting(pid)
	}
	unix.PtraceCont(pid, 0)
}

// signalled passes a signal on to the process that it was meant for. A
// process that starts traced shows a stop first, which is ours to take away.
// One that stops itself stays stopped: the wall-clock limit will find it.
func (t *tracee) signalled(pid int, signal unix.Signal, w *watch) {
	switch signal {
	case unix.SIGSTOP:
		if pid == t.pid || t.born[pid] {
			return
		}
		t.mu.Lock()
		t.born[pid] = true
		t.mu.Unlock()
		if most := t.limits.Processes; most > 0 && len(t.born) >= most {
			t.end(PassedProcess)
		}
		if len(t.born) == 1 && !t.coarse { // from now on there is a sum to be made
			t.due.Store(min(t.due.Load(), time.Now().Add(longestLook).UnixNano()))
			w.rouse(t)
		}
		unix.PtraceCont(pid, 0)
	case unix.SIGTSTP, unix.SIGTTIN, unix.SIGTTOU:
	default:
		unix.PtraceCont(pid, int(signal))
	}
}

// exiting reads the peak of a process that is held at its exit, and the time
// that it used. A first thread may end before the others: then those are traced
// from here on, so that the last of them is held as well. What ends may be the
// largest of several, so those are added up at this moment too.
func (t *tracee) exiting(pid int) {
	status := t.note(pid)
	if status.threads > 1 {
		for _, tid := range othersAlive(pid) {
			unix.RawSyscall6(unix.SYS_PTRACE, unix.PTRACE_SEIZE, uintptr(tid), 0, traceOptions, 0, 0)
		}
	}
	if company := len(t.born); company > 0 && company <= fewProcesses && !t.coarse {
		all, _ := descendants(os.Getpid())
		t.raise(t.treeMemory(all))
	}
}

// note keeps the peak of a process that is held, and the time that it used.
func (t *tracee) note(pid int) procStatus {
	status := readStatus(pid)
	t.raise(status.peak)
	if countsLate() {
		t.raise(rollup(pid, "Rss"))
	}
	t.mu.Lock()
	t.used[status.process] = processTime(status.process)
	t.mu.Unlock()
	return status
}

// fewProcesses is up to how many processes are looked at one by one where
// that could be done without.
const fewProcesses = 16

// tracedTime returns the processor time of the traced processes that have
// ended, and which are alive.
func (t *tracee) tracedTime() (time.Duration, map[int]bool) {
	t.mu.Lock()
	defer t.mu.Unlock()
	if len(t.born) == 0 && t.ended == 0 {
		return 0, nil // the program is alone, and what the kernel adds up is all
	}
	alive := maps.Clone(t.born)
	if !t.gone {
		alive[t.pid] = true
	}
	return t.ended, alive
}

func (t *tracee) memory() int64 {
	t.mu.Lock()
	defer t.mu.Unlock()
	return t.peak
}

func (t *tracee) raise(peak int64) {
	t.mu.Lock()
	t.peak = max(t.peak, peak)
	t.mu.Unlock()
}

// outcome returns what ended the run and its peak.
func (t *tracee) outcome() (Ending, int64) {
	t.mu.Lock()
	defer t.mu.Unlock()
	return t.ending, t.peak
}

// end kills the run, and says why, unless it has ended or was ended before.
// The caller need not hold any lock.
func (t *tracee) end(why Ending) {
	t.mu.Lock()
	defer t.mu.Unlock()
	if t.gone || t.ending != Exited {
		return
	}
	t.ending = why
	unix.Kill(t.pid, unix.SIGKILL) // reap does the rest
}

// reap kills and reaps all that is left under this process, and returns how
// many that were. It looks again until nothing is left, since what it kills
// may have started something in the meantime.
func (t *tracee) reap() (left int) {
	for {
		var status unix.WaitStatus
		var pid int
		err := again(func() (err error) {
			pid, err = unix.Wait4(-1, &status, unix.WALL|unix.WNOHANG, nil)
			return err
		})
		switch {
		case err != nil: // ECHILD: nothing is left
			return left
		case pid == 0:
			killChildren()
			runtime.Gosched()
			time.Sleep(100 * time.Microsecond)
		case status.Stopped():
			if status.TrapCause() == unix.PTRACE_EVENT_EXIT {
				t.note(pid)
			}
			unix.Kill(pid, unix.SIGKILL)
			unix.PtraceCont(pid, 0)
		default:
			t.died(pid)
			left++
		}
	}
}
