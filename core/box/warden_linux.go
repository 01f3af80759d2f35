package box

import (
	"encoding/binary"
	"fmt"
	"math"
	"os"
	"os/signal"
	"runtime"
	"sync"
	"time"
	"unsafe"

	"golang.org/x/sys/unix"
)

// The descriptors that a warden is started with, after the usual three.
const (
	ordersFD = 3 + iota
	leashFD
	outputFD
	errorsFD
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
	task   task
	limits rlimits
	watch  watch
	spent  time.Duration // processor time of all that was reaped so far

	mu      sync.Mutex
	current *tracee // the run under way, nil between runs
	killed  uint32  // number of the last run that was ordered to end
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
	ready := report{}
	if err := seeOwnProcesses(); err != nil {
		ready.Error = err.Error()
	}
	if err := send(ordersFD, ready.encode()); err != nil || ready.Error != "" {
		return err
	}
	name := append([]byte(wardenName), 0)
	if err := unix.Prctl(unix.PR_SET_NAME, uintptr(unsafe.Pointer(&name[0])), 0, 0, 0); err != nil {
		return err
	}
	if err := forgetSignals(); err != nil {
		return err
	}
	w := &warden{}
	w.watch.wake = make(chan struct{}, 1)
	go w.holdLeash()
	go w.watch.keep(w.running)
	buffer := make([]byte, maxMessage)
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
		rep := w.run(o, input)
		if err := send(ordersFD, rep.encode()); err != nil {
			if err == unix.EPIPE {
				return nil
			}
			return err
		}
	}
}

// seeOwnProcesses gives the first process of a namespace a /proc that shows
// that namespace. Nothing of it is seen outside.
func seeOwnProcesses() error {
	if os.Getpid() != 1 {
		return nil
	}
	if err := unix.Mount("", "/", "", unix.MS_REC|unix.MS_PRIVATE, ""); err != nil {
		return fmt.Errorf("cannot keep mounts to itself: %w", err)
	}
	if err := unix.Mount("proc", "/proc", "proc", unix.MS_NOSUID|unix.MS_NODEV|unix.MS_NOEXEC, ""); err != nil {
		return fmt.Errorf("cannot mount /proc: %w", err)
	}
	// The right to mount is not for programs; without it here they get none.
	return unix.Prctl(unix.PR_CAP_AMBIENT, unix.PR_CAP_AMBIENT_CLEAR_ALL, 0, 0, 0)
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
		if _, _, errno = unix.RawSyscall6(unix.SYS_RT_SIGACTION, uintptr(number), uintptr(unsafe.Pointer(&action)), 0, 8, 0, 0); errno != 0 {
			return errno
		}
	}
	return nil
}

const (
	lastSignal = 64
	ignored    = 1 // SIG_IGN
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

func (w *warden) run(o order, input int) report {
	defer unix.Close(input)
	if err := w.limits.set(o.Limits); err != nil {
		return report{ID: o.ID, Error: fmt.Sprintf("cannot set limits: %v", err)}
	}
	t, err := w.start(o, input)
	if err != nil {
		killChildren()
		reap(nil)
		return report{ID: o.ID, Error: err.Error()}
	}
	w.mu.Lock()
	w.current = t
	if w.killed == o.ID {
		t.end(EndedByRequest)
	}
	w.mu.Unlock()
	w.watch.rouse()

	status, err := t.follow()
	wall := time.Since(t.began)
	w.mu.Lock()
	w.current = nil
	w.mu.Unlock()
	left := reap(t)
	total := reapedTime()
	rep := report{ID: o.ID, Wall: wall, CPU: total - w.spent, Left: left}
	rep.Ending, rep.Memory = t.outcome()
	w.spent = total
	switch {
	case err != nil:
		rep = report{ID: o.ID, Error: fmt.Sprintf("lost the program: %v", err)}
	case status.Signaled():
		rep.Signal = int(status.Signal())
	default:
		rep.ExitCode = status.ExitStatus()
	}
	return rep
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
