//go:build !portable

package box

import (
	"encoding/binary"
	"encoding/json"
	"errors"
	"fmt"
	"math"
	"os"
	"os/signal"
	"runtime"
	"sync"
	"time"
	"unsafe"

	"coldverdict/core/verdict"

	"golang.org/x/sys/unix"
)

// The descriptors that a warden is started with, after the usual three.
const (
	ordersFD = 3 + iota
	leashFD
	outputFD
	errorsFD
	decisionFD // of a box that has it
)

// Warden turns this process into a warden if it was started as one, and then
// never returns. Any program that opens a Box calls it first thing in main.
func Warden() {
	if len(os.Args) != 1 || os.Args[0] != wardenName {
		return
	}
	// Every ptrace call must come from the thread that started the program.
	runtime.LockOSThread()
	// With room to spare, the scheduler does not hurry to replace a thread
	// that waits in the kernel, as all of these nearly always do.
	runtime.GOMAXPROCS(4)
	if err := serve(); err != nil {
		fmt.Fprintf(os.Stderr, "cold: worker: %v\n", err)
		os.Exit(70)
	}
	os.Exit(0)
}

// A warden serves orders until its leash ends.
type warden struct {
	walled
	task    task
	limited bool           // limits are in force
	limits  verdict.Limits // those of the run before
	given   int64          // bytes of its input file
	watch   watch
	spent   time.Duration // processor time of all that was reaped so far

	mu      sync.Mutex
	current *tracee // the run under way, nil between runs
	killed  uint32  // number of the last run that was ordered to end
	tried   string  // what this run tried first and was refused
}

func serve() error {
	// What the caller's caller left open is no business of the programs here.
	if err := unix.CloseRange(ordersFD, math.MaxUint32, unix.CLOSE_RANGE_CLOEXEC); err != nil {
		return err
	}
	// Orphans of a run become children of the warden, which can then find,
	// kill and reap them.
	if err := unix.Prctl(unix.PR_SET_CHILD_SUBREAPER, 1, 0, 0, 0); err != nil {
		return err
	}
	buffer := make([]byte, maxMessage)
	w, err := begin(buffer)
	if err != nil || w == nil {
		return err
	}
	name := append([]byte(wardenName), 0)
	if err := unix.Prctl(unix.PR_SET_NAME, uintptr(unsafe.Pointer(&name[0])), 0, 0, 0); err != nil {
		return err
	}
	if err := forgetSignals(); err != nil {
		return err
	}
	if w.watch.bell, err = unix.Eventfd(0, unix.EFD_CLOEXEC); err != nil {
		return err
	}
	go w.holdLeash()
	go w.watch.keep(w.running)
	if w.listener >= 0 {
		go answerCalls(w.listener, w.noteTry)
	}
	for {
		message, input, err := receive(ordersFD, buffer)
		if err == errHungUp {
			return nil
		}
		if err != nil {
			return err
		}
		o, err := decodeOrder(message)
		if err != nil {
			return err
		}
		if o.Task != nil {
			w.task = *o.Task
		}
		rep, made := w.run(o, input)
		var files []int
		if made != nil {
			files = append(files, int(made.Fd()))
		}
		err = send(ordersFD, rep.encode(), files...)
		if made != nil {
			made.Close()
		}
		if err != nil {
			if err == unix.EPIPE {
				return nil
			}
			return err
		}
	}
}

// begin receives the setup, does what it says, and answers. It returns nil
// where the walls could not be put up; the caller was told.
func begin(buffer []byte) (*warden, error) {
	message, _, err := receive(ordersFD, buffer)
	if err == errHungUp {
		return nil, nil
	}
	if err != nil {
		return nil, err
	}
	var s setup
	if err := json.Unmarshal(message, &s); err != nil {
		return nil, err
	}
	w := &warden{}
	var ready readiness
	if w.walled, err = s.raise(); err != nil {
		ready.Error = err.Error()
	}
	ready.Ungrouped = w.ungrouped
	ready.Near = s.Apart || s.Walls == Rules && rulesVersion() >= 6
	ready.Filter, ready.Told = w.filter, w.listener >= 0
	answer, err := json.Marshal(ready)
	if err == nil {
		err = send(ordersFD, answer)
	}
	if ready.Error != "" {
		return nil, err
	}
	return w, err
}

// forgetSignals gives signals back their default actions, so that a child need
// not do so, one system call for each of them, every time it is started.
func forgetSignals() error {
	// To ignore a signal makes the runtime drop its handler.
	signal.Ignore()
	for number := 1; number <= lastSignal; number++ {
		var action struct{ handler, flags, restorer, mask uint64 } // all zero: the default
		_, _, errno := unix.RawSyscall6(unix.SYS_RT_SIGACTION, uintptr(number), 0, uintptr(unsafe.Pointer(&action)), 8, 0, 0)
		if errno != 0 || action.handler != ignored {
			continue // one that cannot be set, or that the runtime keeps
		}
		action.handler = 0
		if unix.Signal(number) == unix.SIGCHLD {
			action.flags = noStops // whoever waits for a stop is woken without a signal
		}
		if _, _, errno = unix.RawSyscall6(unix.SYS_RT_SIGACTION, uintptr(number), uintptr(unsafe.Pointer(&action)), 0, 8, 0, 0); errno != 0 {
			return errno
		}
	}
	return nil
}

const (
	lastSignal = 64
	ignored    = 1 // SIG_IGN
	noStops    = 1 // SA_NOCLDSTOP
)

func (w *warden) running() *tracee {
	w.mu.Lock()
	defer w.mu.Unlock()
	return w.current
}

// holdLeash ends a run when its number comes, and this process, with all that
// runs in it, when the leash itself ends.
func (w *warden) holdLeash() {
	var number [4]byte
	for {
		var n int
		err := again(func() (err error) { n, err = unix.Read(leashFD, number[:]); return err })
		if err != nil || n != len(number) {
			// What is traced dies with this process; the rest is killed here.
			for len(killChildren()) > 0 {
				time.Sleep(time.Millisecond)
			}
			os.Exit(0)
		}
		w.mu.Lock()
		w.killed = binary.LittleEndian.Uint32(number[:])
		if w.current != nil && w.current.id == w.killed {
			w.current.end(EndedByRequest)
		}
		w.mu.Unlock()
	}
}

// noteTry keeps the first thing that a run tried and was refused.
func (w *warden) noteTry(words string) {
	w.mu.Lock()
	defer w.mu.Unlock()
	if w.tried == "" {
		w.tried = words
	}
}

// setLimits lets the kernel hold what it can; given are the bytes of a file that
// lies in the working folder already.
func (w *warden) setLimits(l verdict.Limits, given int64) error {
	if w.limited && w.limits == l && w.given == given {
		return nil
	}
	room := l.Output
	if room > 0 {
		room += given
	}
	w.limited = false // until all of them are set
	if err := setRlimits(l); err != nil {
		return err
	}
	if err := w.hold.set(l.Memory, room, l.Processes); err != nil {
		return err
	}
	// This thread has given up the right to do that, for good.
	done := make(chan error)
	go func() { done <- w.setFolderSize(room) }()
	if err := <-done; err != nil {
		return err
	}
	w.limited, w.limits, w.given = true, l, given
	return nil
}

// give puts the input into the working folder as a file of its name, and
// returns its size, and an empty input to go on with.
func (w *warden) give(input int) (empty int, size int64, err error) {
	file := os.NewFile(uintptr(input), "input")
	defer file.Close()
	var s unix.Stat_t
	if err := unix.Fstat(input, &s); err != nil {
		return -1, 0, err
	}
	// The file may be larger than what a program may write. Pages are whole.
	size = (s.Size/4096 + 1) * 4096
	if err := w.setLimits(verdict.Limits{}, size); err != nil {
		return -1, 0, err
	}
	if _, err = w.task.Files.put(w.folder.path, file); err != nil {
		return -1, 0, err
	}
	empty, err = unix.Open(os.DevNull, unix.O_RDONLY|unix.O_CLOEXEC, 0)
	return empty, size, err
}

func (w *warden) run(o order, input int) (rep report, made *os.File) {
	failed := func(what string, err error) (report, *os.File) {
		w.folder.empty()
		return report{ID: o.ID, Error: what + err.Error()}, nil
	}
	size := int64(0)
	if w.task.Files.Input != "" {
		var err error
		if input, size, err = w.give(input); err != nil {
			return failed("cannot put the input into the working folder: ", err)
		}
	} else {
		input = w.reopened(input, o.Input)
	}
	defer unix.Close(input)
	if err := w.setLimits(o.Limits, size); err != nil {
		return failed("cannot set limits: ", err)
	}
	w.mu.Lock()
	w.tried = ""
	w.mu.Unlock()
	t, err := w.start(o, input)
	if err != nil {
		killChildren()
		newTracee(o, w.spent).reap()
		return failed("", err)
	}
	t.given = size
	w.mu.Lock()
	w.current = t
	if w.killed == o.ID {
		t.end(EndedByRequest)
	}
	w.mu.Unlock()
	w.watch.rouse(t)

	status, err := t.follow(&w.watch)
	wall := time.Since(t.began)
	left := t.reap()
	w.mu.Lock()
	w.current = nil
	tried := w.tried
	w.mu.Unlock()
	total := reapedTime()
	rep = report{ID: o.ID, Wall: wall, CPU: max(total-w.spent, t.spentByDead()), Left: left, Tried: tried}
	rep.Ending, rep.Memory = t.outcome()
	w.spent = total
	// What recurses without end can fill its stack between two looks.
	overflowed := status.Signaled() && o.Limits.Memory > 0 && rep.Memory > o.Limits.Memory
	starved := w.hold.killedForMemory() || overflowed
	touched := w.task.Dir == "" && !w.folder.untouched()
	switch {
	case rep.Ending != Exited:
	case starved:
		rep.Ending = PassedMemory
	case touched && w.folder.filled():
		rep.Ending, rep.Filled = PassedOutput, true
	}
	if touched {
		made = w.task.Files.take(w.folder.path)
		if e := w.folder.empty(); e != nil {
			err = errors.Join(err, fmt.Errorf("cannot clean the working folder: %w", e))
		}
	}
	switch {
	case err != nil:
		rep = report{ID: o.ID, Error: err.Error()}
	case status.Signaled():
		rep.Signal = int(status.Signal())
	default:
		rep.ExitCode = status.ExitStatus()
	}
	return rep, made
}

// reapedTime is the processor time of all processes that this one has reaped,
// and of all that those had reaped.
func reapedTime() time.Duration {
	var usage unix.Rusage
	if err := unix.Getrusage(unix.RUSAGE_CHILDREN, &usage); err != nil {
		return 0
	}
	return time.Duration(usage.Utime.Nano() + usage.Stime.Nano())
}
