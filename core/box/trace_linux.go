//go:build !portable

package box

import (
	"bytes"
	"encoding/binary"
	"errors"
	"fmt"
	"io/fs"
	"maps"
	"math"
	"os"
	"runtime"
	"strconv"
	"sync"
	"sync/atomic"
	"syscall"
	"time"
	"unsafe"

	"coldverdict/core/verdict"
	"golang.org/x/sys/unix"
)

// A tracee is the program of one run, traced by the thread that started it.
type tracee struct {
	id       uint32
	pid      int
	limits   verdict.Limits
	began    time.Time     // the moment before its first instruction
	spent    time.Duration // processor time the supervisor had reaped before
	folder   *workFolder   // whose size the watch looks at; nil: nothing does
	given    int64         // bytes of a file that lay in it at the beginning
	weigh    atomic.Int64  // nanoseconds of wall-clock time after which it does so again
	sum      sum           // of the memory of several processes
	census   *census
	account  *account
	init     *initProcess
	looking  sync.Mutex // held by whoever looks at the whole run
	measured bool       // under looking: it has ended, and is looked at no more
	threads  threads
	stack    int64        // bytes, the largest of the stacks of first threads that ended
	ownSize  bool         // it sent itself the signal of a file that grows too large
	full     atomic.Bool  // it has as many, and the newest is held
	most     int          // processes that it may have at once; 0: any number
	coarse   bool         // it may be a rough sum
	renewed  bool         // the next run gets the same process numbers
	due      atomic.Int64 // when the watch looks next, in nanoseconds of the Unix epoch

	mu     sync.Mutex            // guards what the watch and the kill pipe also touch
	peak   int64                 // bytes, largest seen so far
	seen   time.Duration         // processor time, the most that a look has found
	blind  error                 // why nothing can be said of the run
	delays map[int]time.Duration // for how long each thread was ready and did not run, as it was looked at last
	kept   time.Duration         // all of that
	lagged time.Duration         // that of the thread that follows the run, before it
	last   standing              // used by the watch only
	ending Ending
	gone   bool // reaped: its number may belong to another process

	// Whoever ignores the end of its children keeps the kernel from adding
	// up what they used. So the time of all that is traced is kept here too.
	born  map[int]bool          // processes that it started and that are alive
	used  map[int]time.Duration // of those that are about to end, the program among them
	ended time.Duration         // of those that have ended
}

// traceOptions: stop once at exit, where the peak can be read; follow the
// processes and threads that the program starts; die with the tracer. To follow a thread costs
// some switches, and so does each signal that it gets. But the last thread of a process, which is
// to be held at its end, and one that executes a program are not always the first; and to begin
// to trace them in the midst of their work is to wait for what may wait for this, ptrace(2).
const traceOptions = unix.PTRACE_O_TRACEEXIT | unix.PTRACE_O_EXITKILL | unix.PTRACE_O_TRACECLONE |
	unix.PTRACE_O_TRACEFORK | unix.PTRACE_O_TRACEVFORK | unix.PTRACE_O_TRACEEXEC

func (w *supervisor) newTracee(o request) *tracee {
	return &tracee{
		id: o.ID, limits: o.Limits, spent: w.spent, lagged: w.lagged, ending: Exited, most: o.Limits.Processes,
		coarse: w.coarse, census: &w.census, account: &w.account, init: w.init,
		born: map[int]bool{}, used: map[int]time.Duration{}, delays: map[int]time.Duration{},
	}
}

// start brings a program to the point before its first instruction and lets
// it go.
func (w *supervisor) start(o request, files []int) (*tracee, error) {
	t := w.newTracee(o)
	t.census.begin()
	dir := w.task.Dir
	if dir == "" {
		dir = w.folder.path
		if !w.folder.mounted {
			t.folder = w.folder
		}
	}
	path := w.task.Program.Path
	var descriptors []uintptr
	for _, fd := range files {
		descriptors = append(descriptors, uintptr(fd))
	}
	attributes := &syscall.SysProcAttr{Ptrace: true, Setsid: true}
	if w.init == nil { // else it dies with its namespace
		attributes.Pdeathsig = unix.SIGKILL // until the trace options see to that
	}
	pid, err := syscall.ForkExec(path, append([]string{path}, w.task.Program.Args...), &syscall.ProcAttr{
		Dir:   dir,
		Env:   w.task.Program.Env,
		Files: descriptors,
		Sys:   attributes,
	})
	if err != nil {
		return nil, startError(path, err)
	}
	t.pid = pid
	_, status, err := t.wait(pid, 0)
	if err != nil {
		return nil, fmt.Errorf("cannot wait for %s: %w", path, err)
	}
	if !status.Stopped() {
		return nil, fmt.Errorf("%s ended before it began (wait status %#x)", path, int(status))
	}
	if err := unix.PtraceSetOptions(pid, traceOptions); err != nil {
		return nil, fmt.Errorf("cannot trace %s: %w", path, err)
	}
	if w.account.version == 2 { // in the other the supervisor does not lie in the group as a process
		offerFirst(pid)
	}
	t.began = time.Now()
	t.due.Store(monotonic() + t.nextLook(0, 0, 0, 1, runtime.NumCPU()).Nanoseconds())
	if err := unix.PtraceCont(pid, 0); err != nil {
		return nil, fmt.Errorf("cannot trace %s: %w", path, err)
	}
	return t, nil
}

// offerFirst lets the kernel, where a control group is out of memory, take a
// program before it takes the supervisor. What the program starts inherits it.
func offerFirst(pid int) {
	fd, err := openProc(strconv.Itoa(pid)+"/oom_score_adj", unix.O_WRONLY)
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
		pid, status, err := t.wait(-1, 0)
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
			if pid == t.pid {
				_, err := t.note(pid)
				t.cannotSee(err)
			}
			process, _ := t.threads.of(pid)
			t.noteTime(process)
			kill(process)
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
	t.threads.end(pid)
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
func (t *tracee) wait(which, options int) (pid int, status unix.WaitStatus, err error) {
	options |= unix.WALL
	if t.init != nil {
		options |= unix.WNOTHREAD // that one is no child of this thread
	}
	err = again(func() (err error) { pid, err = unix.Wait4(which, &status, options, nil); return err })
	return pid, status, err
}

// stopped handles one stop of one traced process, and lets it go on.
func (t *tracee) stopped(pid int, status unix.WaitStatus, w *watch) {
	signal := status.StopSignal()
	switch {
	case t.begins(pid, status):
		t.begun(pid, w)
		return
	case signal != unix.SIGTRAP:
		t.signalled(pid, signal)
		return
	case status.TrapCause() == 0: // a breakpoint of its own
		unix.PtraceCont(pid, int(signal))
		return
	case status.TrapCause() == unix.PTRACE_EVENT_EXIT:
		last := t.exiting(pid)
		unix.PtraceCont(pid, 0)
		if last && t.init != nil { // which takes no time while it ends
			t.renewed = t.init.request(requestRenew) == nil
		}
		return
	case status.TrapCause() == unix.PTRACE_EVENT_EXEC:
		t.threads.executed(pid)
	}
	unix.PtraceCont(pid, 0)
}

// begins reports that a process or thread which the run starts shows its first stop.
func (t *tracee) begins(pid int, status unix.WaitStatus) bool {
	_, known := t.threads.of(pid)
	return status.StopSignal() == unix.SIGSTOP && pid != t.pid && !t.born[pid] && !known
}

// begun notes that a process or thread begins, and lets it go unless there are as many
// processes as there may be.
func (t *tracee) begun(pid int, w *watch) {
	if unix.Tgkill(pid, pid, 0) != nil { // a thread that is not the first of its process
		process := t.pid
		if len(t.born) > 0 {
			if status, err := readStatus(pid); err == nil {
				process = status.process
			}
		}
		t.threads.begin(pid, process)
		unix.PtraceCont(pid, 0)
		return
	}
	t.mu.Lock()
	t.born[pid] = true
	t.mu.Unlock()
	if len(t.born) == fewProcesses && t.account.version == 0 && !t.coarse {
		t.boundByMemory()
	}
	if t.most > 0 && len(t.born) >= t.most {
		// It goes on no more. Whether its memory is past the limit is seen by a look.
		t.full.Store(true)
		t.due.Store(monotonic())
		w.rouse(t)
		return
	}
	if len(t.born) == 1 && !t.coarse { // from now on there is a sum to be made
		t.due.Store(min(t.due.Load(), monotonic()+longestLook.Nanoseconds()))
		w.rouse(t)
	}
	unix.PtraceCont(pid, 0)
}

// signalled passes a signal on to the process that it was meant for. One that stops itself
// stays stopped: the wall-clock limit will find it.
func (t *tracee) signalled(pid int, signal unix.Signal) {
	switch signal {
	case unix.SIGSTOP, unix.SIGTSTP, unix.SIGTTIN, unix.SIGTTOU:
	case unix.SIGXFSZ:
		t.ownSize = t.sentItself(pid)
		unix.PtraceCont(pid, int(signal))
	default:
		unix.PtraceCont(pid, int(signal))
	}
}

// sentItself reports that the signal of a file that grows too large, with which a process has
// stopped, came from the program itself, or from a limit that it had lowered.
func (t *tracee) sentItself(pid int) bool {
	var info [128]byte // siginfo_t: number, error and code
	_, _, errno := unix.Syscall6(unix.SYS_PTRACE, unix.PTRACE_GETSIGINFO, uintptr(pid), 0, uintptr(unsafe.Pointer(&info[0])), 0, 0)
	const userCode = 0 // as the kernel sends this one
	sent := errno == 0 && int32(binary.LittleEndian.Uint32(info[8:])) != userCode
	return sent || t.limits.Output > 0 && largestFile(pid) < t.limits.Output
}

// largestFile is how large a process may make a file, in bytes, as far as that is known.
func largestFile(pid int) int64 {
	text, err := readProc(strconv.Itoa(pid) + "/limits")
	if _, rest, ok := bytes.Cut(text, []byte("\nMax file size")); ok && err == nil {
		words := bytes.Fields(rest)
		if n, err := strconv.ParseInt(string(words[0]), 10, 64); err == nil {
			return n
		}
	}
	return math.MaxInt64
}

// boundByMemory lets a program that no control group holds have no more processes
// than this machine has memory for, if each took what it may.
func (t *tracee) boundByMemory() {
	var info unix.Sysinfo_t
	if t.limits.Memory <= 0 || unix.Sysinfo(&info) != nil {
		return
	}
	free := int64(info.Freeram+info.Bufferram) * int64(info.Unit)
	most := max(fewProcesses+1, int(free/t.limits.Memory))
	if t.most == 0 || most < t.most {
		t.most = most
	}
}

// exiting reads the peak of a process whose first thread or whose last is held at its exit,
// and the time that it used. What ends may be the largest of several, so those are added up
// at this moment too. It reports whether nothing else of the run is alive.
func (t *tracee) exiting(pid int) (last bool) {
	if !t.threads.leave(pid) {
		return false
	}
	status, err := t.note(pid)
	if t.isLong() {
		t.noteDelays(pid)
	}
	if err == nil && status.threads > 1 {
		t.threads.outlive(status.process)
	}
	if err == nil && !t.coarse && (len(t.born) > 0 && len(t.born) <= fewProcesses || pid == t.pid) {
		err = t.weighAll(pid)
	}
	t.cannotSee(err)
	return err == nil && pid == t.pid && status.threads == 1 && len(t.born) == 0
}

// weighAll adds up what the run holds while one of its processes is held at its exit.
func (t *tracee) weighAll(pid int) error {
	if len(t.born) == 0 && t.account.version != 0 { // it is alone: only what the kernel counts can be more
		return t.weighAccount()
	}
	t.looking.Lock()
	defer t.looking.Unlock()
	n, err := t.census.take()
	if err != nil {
		return err
	}
	t.found(n.cpu)
	memory, err := t.treeMemory(n)
	t.raise(memory)
	return errors.Join(err, t.weighAccount())
}

// weighAccount raises the peak where a control group counts more than a tenth above
// it, beyond what the kernel needs for any process and thread.
func (t *tracee) weighAccount() error {
	if t.account.version == 0 {
		return nil
	}
	usage, err := t.account.usageNow()
	known := t.memory()
	if err != nil || usage-t.account.base.all <= known+known/9+kernelShare {
		return err
	}
	booked, err := t.account.memory()
	if err != nil {
		return err
	}
	threads, err := t.account.threads()
	t.raise((booked.all - kernelShare - int64(threads)*threadShare) / 10 * 9)
	return err
}

// What the kernel may need for a run, and for each thread of it, in bytes.
const (
	kernelShare = 4 << 20
	threadShare = 64 << 10
)

// note keeps the peak of a process that is held, and the time that it used.
func (t *tracee) note(pid int) (status procStatus, err error) {
	if status, err = readStatus(pid); err != nil {
		return status, ifThere(err)
	}
	t.raise(status.peak)
	t.stack = max(t.stack, status.stack)
	if countsLate() {
		size, err := rollup(pid, "Rss")
		if err == nil {
			t.raise(size)
		}
	}
	t.noteTime(status.process)
	return status, nil
}

// noteTime keeps the processor time of a process that is about to end.
func (t *tracee) noteTime(pid int) {
	used, err := processTime(pid)
	if err != nil {
		return
	}
	t.mu.Lock()
	t.used[pid] = used
	t.mu.Unlock()
}

// ifThere passes over what cannot be read of a process that is gone.
func ifThere(err error) error {
	if err == errGone {
		return nil
	}
	return err
}

// cannotSee ends a run of which something could not be read: what it takes is not
// known then.
func (t *tracee) cannotSee(err error) {
	if err = ifThere(err); err != nil {
		t.giveUp(fmt.Errorf("cannot see what the program takes: %w", err))
	}
}

// giveUp ends a run of which nothing can be said, and keeps the first reason.
func (t *tracee) giveUp(why error) {
	t.mu.Lock()
	if t.blind == nil {
		t.blind = why
	}
	t.mu.Unlock()
	t.end(EndedByRequest)
}

// isLong reports that the run may come near its limit of elapsed time, so that it is worth
// knowing how much of that was the machine's.
func (t *tracee) isLong() bool {
	return t.limits.Wall > 0 && time.Since(t.began) > min(t.limits.Wall/2, calmLook)
}

// noteDelays looks at how long threads of some processes were ready to run, while the
// machine ran something else. What ended between two looks counts as it was at the first.
func (t *tracee) noteDelays(pids ...int) {
	for _, pid := range pids[:min(len(pids), mostDelayed)] {
		found, err := delays(pid)
		t.cannotSee(err)
		t.mu.Lock()
		for tid, delay := range found {
			t.kept += max(0, delay-t.delays[tid])
			t.delays[tid] = delay
		}
		t.mu.Unlock()
	}
}

// A standing is how a run stood when it was looked at.
type standing struct {
	ready     bool // some thread ran, or could
	wall, cpu time.Duration
}

// noteStanding compares how the run stands with how it stood at the look before. Between
// two looks at which it was ready it has not waited, whatever it was kept from a processor
// by: what is neither processor time nor noted already is the machine's, such as time
// that was stolen from a virtual one.
func (t *tracee) noteStanding(wall, cpu time.Duration, pids []int) {
	now := standing{wall: wall, cpu: cpu}
	for _, pid := range pids[:min(len(pids), mostDelayed)] {
		ready, err := isReady(pid)
		t.cannotSee(err)
		now.ready = now.ready || ready
	}
	t.mu.Lock()
	noted := t.kept
	t.mu.Unlock()
	t.noteDelays(pids...)
	t.mu.Lock()
	defer t.mu.Unlock()
	if now.ready && t.last.ready {
		t.kept += max(0, now.wall-t.last.wall-(now.cpu-t.last.cpu)-(t.kept-noted))
	}
	t.last = now
}

// mostDelayed bounds how many processes are asked for how long they waited.
const mostDelayed = 64

// starved returns for how long threads of the run were ready and did not run, as far as it
// was looked at. Those of several at once are added up: where they keep each other
// waiting, they use up processor time, which is limited as well. So is for how long the
// thread that follows the run did not run: meanwhile a process may have been held.
func (t *tracee) starved() time.Duration {
	if !t.isLong() {
		return 0
	}
	now, err := threadDelayed(os.Getpid(), t.account.thread)
	t.cannotSee(err)
	t.mu.Lock()
	defer t.mu.Unlock()
	return t.kept + max(0, now-t.lagged)
}

// found keeps the most processor time that a look has found.
func (t *tracee) found(cpu time.Duration) {
	t.mu.Lock()
	t.seen = max(t.seen, cpu)
	t.mu.Unlock()
}

func (t *tracee) counted() time.Duration {
	t.mu.Lock()
	defer t.mu.Unlock()
	return t.seen
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

// outcome returns what ended the run and its peak, or why that is not known.
func (t *tracee) outcome() (Ending, int64, error) {
	t.mu.Lock()
	defer t.mu.Unlock()
	return t.ending, t.peak, t.blind
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
	kill(t.pid)
	if t.init != nil {
		t.init.kill() // all at one stroke; tidy does the rest
	}
	note(notesFD, runKilled)
}

// reap kills and reaps all that this thread started or traces, and returns how many
// that were. It looks again until nothing is left, since what it kills
// may have started something in the meantime.
func (t *tracee) reap() (left int, err error) {
	for {
		options := 0
		if t.init == nil {
			options = unix.WNOHANG // it kills them itself
		}
		pid, status, err := t.wait(-1, options)
		switch {
		case err == unix.ECHILD: // nothing is left
			return left, nil
		case err != nil:
			return left, err
		case pid == 0:
			if err := outside(func() error { _, err := killBelow(); return err }); err != nil {
				return left, err
			}
			time.Sleep(100 * time.Microsecond)
		case status.Stopped():
			switch {
			case status.TrapCause() != unix.PTRACE_EVENT_EXIT:
				if t.init != nil {
					continue // it stays as it is until the first process kills it, and counts it
				}
			case t.isOver():
				t.noteTime(pid)
			default:
				_, err := t.note(pid)
				t.cannotSee(err)
			}
			kill(pid)
			unix.PtraceCont(pid, 0)
		default:
			if _, thread := t.threads.of(pid); !thread {
				left++
			}
			t.died(pid)
		}
	}
}

// kill kills a process. The thread that starts programs may have to ask about each
// signal, so another one sends it.
func kill(pid int) {
	outside(func() error { return unix.Kill(pid, unix.SIGKILL) })
}
