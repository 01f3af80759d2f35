//go:build !portable

package box

import (
	"encoding/binary"
	"errors"
	"os"
	"runtime"
	"sync"
	"time"

	"coldverdict/core/verdict"
	"golang.org/x/sys/unix"
)

// A supervisor traces, and who traces can be made to wait in the kernel for what is traced.
// So this process, which traces nothing, ends a supervisor that has not ended a run in time:
// what is traced dies with it. And the kernel ends a supervisor when this process is gone.

// lateness is how long after the limit of elapsed time a run may last, while the machine
// gives the supervisor the processor that it asks for.
const lateness = 800 * time.Millisecond

// grace is how long a supervisor may take to end itself, or to clear away a run that it has killed.
const grace = 3 * time.Second

// freeRate is how much memory the kernel frees at least, in bytes a second, when it ends a run.
const freeRate = 1 << 30

// overseeEvery is the time between two looks at a supervisor that is late.
const overseeEvery = 50 * time.Millisecond

var errOverdue = errors.New("a run had passed its limit of elapsed time, and was not ended")

// An overseer waits for the end of one run.
type overseer struct {
	over    chan struct{}
	timer   *time.Timer
	done    chan struct{} // it looks no more
	overdue bool          // until then its own
}

// oversee ends the supervisor if a run is not over in time.
func (b *Box) oversee(l verdict.Limits) *overseer {
	o := &overseer{over: make(chan struct{}), done: make(chan struct{})}
	o.timer = time.AfterFunc(l.Wall, func() {
		defer close(o.done)
		o.overdue = b.endLate(o.over, l.Memory)
	})
	return o
}

// endLate waits for the end of a run that is to end now, and ends the supervisor, and reports that,
// where it does not come in time.
func (b *Box) endLate(over <-chan struct{}, memory int64) bool {
	freeing := time.Duration(float64(memory) / freeRate * float64(time.Second))
	patience := lateness + freeing
	kept, first, seen := delayedAll(b.supervisor.Pid), time.Now(), b.noted()
	for late := time.Duration(0); late < patience; {
		began := time.Now()
		select {
		case <-over:
			return false
		case <-time.After(overseeEvery):
		}
		keptBefore, seenBefore := kept, seen
		kept, seen = delayedAll(b.supervisor.Pid), b.noted()
		if seen >= runKilled { // the kernel ends it, and frees its memory
			patience = grace + freeing
		}
		switch {
		case seen >= runOver: // what it left is being cleaned up
			return false
		case seen != seenBefore: // the program was kept from running, or is killed
			late = 0
		case time.Since(first) < TooBusy*patience && (kept-keptBefore > overseeEvery/2 || b.keptWaiting(began)):
			// The machine is late, not the supervisor.
		default:
			late += overseeEvery
		}
	}
	b.supervisor.Kill()
	return true
}

// end says that the run is over, and explains an error if it was ended here.
func (o *overseer) end(err error) error {
	close(o.over)
	if o.timer.Stop() {
		return err
	}
	<-o.done
	if err != nil && o.overdue {
		return errOverdue
	}
	return err
}

// keptWaiting reports that the machine is late, not the supervisor, since a look that was to be
// overseeEvery ago.
func (b *Box) keptWaiting(began time.Time) bool {
	return time.Since(began) > 2*overseeEvery || b.works()
}

// works reports that a thread of the supervisor runs, or could.
func (b *Box) works() bool {
	ready, err := isReady(b.supervisor.Pid)
	return ready && err == nil
}

// What the supervisor notes of a run in b.notes, which adds up.
const (
	goesOn    = 1       // it is past its limit by the clock, and may go on
	runKilled = 1 << 24 // it was killed
	runOver   = 1 << 48 // nothing of it is there any more
)

// noted is the sum of what the supervisor has noted of this run. Several may ask.
func (b *Box) noted() uint64 {
	var count [8]byte
	if n, err := unix.Read(b.notes, count[:]); n < len(count) || err != nil {
		return b.sum.Load()
	}
	return b.sum.Add(binary.NativeEndian.Uint64(count[:]))
}

// forgetNotes drops what was noted of the run before.
func (b *Box) forgetNotes() {
	b.noted()
	b.sum.Store(0)
}

// note adds to an eventfd.
func note(fd int, n uint64) { unix.Write(fd, binary.NativeEndian.AppendUint64(nil, n)) }

// delayedAll is for how long threads of a process were ready to run so far, and did not.
func delayedAll(pid int) (sum time.Duration) {
	all, err := delays(pid)
	if err != nil {
		return 0
	}
	for _, delay := range all {
		sum += delay
	}
	return sum
}

// starter starts supervisors on a thread that lasts as long as this process: when the thread ends
// that started a process, the kernel ends that process as it was told to, prctl(2).
var starter = sync.OnceValue(func() chan<- func() {
	work := make(chan func())
	go func() {
		runtime.LockOSThread()
		for do := range work {
			do()
		}
	}()
	return work
})

// startProcess starts a process that ends with this one.
func startProcess(path string, args []string, attributes *os.ProcAttr) (process *os.Process, err error) {
	attributes.Sys.Pdeathsig = unix.SIGKILL
	done := make(chan struct{})
	starter() <- func() {
		defer close(done)
		process, err = os.StartProcess(path, args, attributes)
	}
	<-done
	return process, err
}
