//go:build !portable

package box

import (
	"fmt"
	"math"
	"runtime"
	"sync/atomic"
	"time"

	"golang.org/x/sys/unix"

	"coldverdict/core/verdict"
)

// The watch looks at a run at the earliest moment at which it could pass a
// limit, and then again: a program on one thread cannot use up a second of
// processor time in less than a second. Only memory can move faster than
// that, so the watch also looks before what is left of it could be filled.
const (
	shortestLook = 1 * time.Millisecond  // a limit is noticed this late at the most, on a quiet machine
	longestLook  = 10 * time.Millisecond // and the memory of several processes is summed this often at the least
	calmLook     = 50 * time.Millisecond // between looks at one process, whose peak the kernel keeps, and at what need not be known exactly
	fillRate     = 4 << 30               // bytes a second that one thread can touch
	weighEvery   = 50 * time.Millisecond // between looks at the size of a working folder on disk,
	weighPause   = 10                    // or so many times as long as one took
)

// A watch is the one thread of a supervisor that looks. It goes on between runs
// that follow each other closely, since to wake it costs more than its looks.
type watch struct {
	bell   int          // an eventfd that ends its sleep
	asleep atomic.Int64 // until when, in nanoseconds of the monotonic clock
}

const forever = math.MaxInt64

// keep looks at whatever run is current until the process ends.
func (w *watch) keep(current func() *tracee) {
	const patience = 4 // times that it finds nothing before it sleeps until roused
	idle := 0
	for {
		until := monotonic() + calmLook.Nanoseconds()
		t := current()
		switch {
		case t != nil:
			idle = 0
			if monotonic() >= t.due.Load() {
				pause := t.look()
				t.due.Store(monotonic() + pause.Nanoseconds())
			}
			until = t.due.Load()
		case idle == patience:
			until = forever
		default:
			idle++
		}
		w.asleep.Store(until)
		if now := current(); now != nil && now.due.Load() < until {
			continue // it began just now, and found the watch awake
		}
		w.sleep(until)
	}
}

// sleep waits for a moment or for the bell. It does not use the runtime's
// timers, which would wake a second thread each time.
func (w *watch) sleep(until int64) {
	var timeout *unix.Timespec // forever
	if until != forever {
		span := unix.NsecToTimespec(max(0, until-monotonic()))
		timeout = &span
	}
	polls := []unix.PollFd{{Fd: int32(w.bell), Events: unix.POLLIN}}
	if n, _ := unix.Ppoll(polls, timeout, nil); n > 0 {
		var count [8]byte
		unix.Read(w.bell, count[:])
	}
}

// rouse makes sure that the watch looks at a run when that is due.
func (w *watch) rouse(t *tracee) {
	if w.asleep.Load() > t.due.Load() {
		note(w.bell, 1)
	}
}

// monotonic is the time of a clock that nobody can set, in nanoseconds.
func monotonic() int64 {
	var now unix.Timespec
	unix.ClockGettime(unix.CLOCK_MONOTONIC, &now) // which cannot fail
	return now.Nano()
}

// look compares the tree with its limits, ends the run if it has passed one,
// and returns how long it can do without the next look.
func (t *tracee) look() time.Duration {
	t.looking.Lock()
	defer t.looking.Unlock()
	if t.measured { // what is looked at is the next run's
		return calmLook
	}
	// What was reaped is read first: a process that is reaped in between then
	// counts for nothing this time, and never twice.
	reaped := reapedTime() - t.spent
	ended, alive := t.tracedTime()
	n, err := t.census.take()
	if err != nil {
		t.cannotSee(err)
		return calmLook
	}
	living, traced := time.Duration(0), ended
	for _, m := range n.members {
		living += m.time
		if alive[m.pid] {
			traced += m.time
		}
	}
	booked, err := t.account.spent()
	t.cannotSee(err)
	cpu := max(reaped+living, traced, n.cpu, exceeding(booked, reaped+living))
	if n.members == nil {
		cpu = max(reaped, traced, booked)
	}
	t.found(n.cpu)
	memory, err := t.treeMemory(n)
	t.cannotSee(err)
	t.raise(memory)
	if !t.coarse {
		t.cannotSee(t.weighAccount())
	}
	wall := time.Since(t.began)
	l, kept := t.limits, time.Duration(0)
	if t.isLong() {
		t.noteStanding(wall, cpu, n.pids)
		kept = min(wall, t.starved())
	}
	own := wall - kept
	switch {
	// First, since whoever multiplies passes the others by the way, and on a
	// loaded machine before this look.
	case l.Processes > 0 && n.threads > l.Processes:
		t.end(PassedProcess)
	case l.Memory > 0 && t.memory() > l.Memory:
		t.end(PassedMemory)
	case t.full.Load():
		t.end(PassedProcess)
	case l.Time > 0 && cpu > l.Time:
		t.end(PassedTime)
	case l.Wall > 0 && own > l.Wall:
		t.end(PassedWall)
	case l.Wall > 0 && wall > TooBusy*l.Wall:
		t.giveUp(fmt.Errorf("this machine is too busy to judge: in %v the program was ready to run and did not for %v",
			wall.Round(time.Millisecond), kept.Round(time.Millisecond)))
	case t.folder != nil && l.Output > 0 && wall.Nanoseconds() > t.weigh.Load():
		t.weigh.Store(forever) // until this look is over
		go t.weighFolder()
	}
	if l.Wall > 0 && wall > l.Wall && !t.isOver() {
		note(notesFD, goesOn)
	}
	return t.nextLook(cpu, own, memory, n.processes, n.threads)
}

// weighFolder looks at what the working folder holds, beside the watch: a program can make folders
// that it takes seconds to go through.
func (t *tracee) weighFolder() {
	began := time.Now()
	if t.folder.size() > t.limits.Output+t.given {
		t.end(PassedOutput)
	}
	t.weigh.Store((time.Since(t.began) + max(weighEvery, weighPause*time.Since(began))).Nanoseconds())
}

// nextLook returns how long a tree can do without the next look at it, whatever
// it does until then.
func (t *tracee) nextLook(cpu, wall time.Duration, memory int64, processes, threads int) time.Duration {
	next := calmLook
	if processes > 1 && !t.coarse {
		next = longestLook
	}
	l := t.limits
	if l.Time > 0 {
		running := max(1, min(threads, runtime.NumCPU()))
		next = min(next, (l.Time-cpu)/time.Duration(running))
	}
	if l.Wall > 0 {
		next = min(next, l.Wall-wall)
	}
	if l.Memory > 0 {
		next = min(next, time.Duration(float64(l.Memory-memory)/fillRate*float64(time.Second)))
	}
	return max(next, shortestLook)
}

// setRlimits sets the limits that the kernel itself holds, on the supervisor, from
// which every program inherits them at no cost. It lets the stack grow past the
// memory limit, since a judge stops deep recursion by memory alone; bounds the
// size of a file by the output limit; and turns core files off. What the session that
// cold was started from limits itself is lifted as far as it may be; where less is left
// than the run may use, that is an error.
func setRlimits(l verdict.Limits) error {
	// One byte is too little for a core file, and keeps the kernel from handing
	// it to a program of the system's, which no limit of zero does: core(5).
	var core unix.Rlimit
	if err := unix.Getrlimit(unix.RLIMIT_CORE, &core); err != nil {
		return err
	}
	core.Max = min(core.Max, 1)
	core.Cur = core.Max
	if err := unix.Setrlimit(unix.RLIMIT_CORE, &core); err != nil {
		return err
	}
	stack := l.Memory
	if stack > 0 {
		stack += stack/8 + 8<<20
	}
	seconds := int64(0)
	if l.Time > 0 {
		seconds = int64(math.Ceil(l.Time.Seconds())) + 1
	}
	for _, one := range []struct {
		resource int
		want     int64  // 0: as much as there may be
		bound    bool   // the kernel shall hold it there
		least    int64  // less than this cannot be judged; 0: any can
		words    string // what it limits, and how that is set
	}{
		{unix.RLIMIT_STACK, stack, true, 0, ""},
		{unix.RLIMIT_FSIZE, l.Output, true, l.Output, "the size of files (ulimit -f)"},
		{unix.RLIMIT_CPU, 0, false, seconds, "processor time (ulimit -t)"},
		{unix.RLIMIT_AS, 0, false, l.Memory, "address space (ulimit -v)"},
		{unix.RLIMIT_DATA, 0, false, l.Memory, "data (ulimit -d)"},
	} {
		var now unix.Rlimit
		if err := unix.Getrlimit(one.resource, &now); err != nil {
			return err
		}
		if one.least > 0 && now.Max < uint64(one.least) {
			return fmt.Errorf("this session limits %s to %d, and this run needs %d; start cold from a session without that limit", one.words, now.Max, one.least)
		}
		now.Cur = now.Max
		if one.bound && one.want > 0 {
			now.Cur = min(now.Max, uint64(one.want))
		}
		if err := unix.Setrlimit(one.resource, &now); err != nil {
			return err
		}
	}
	return nil
}
