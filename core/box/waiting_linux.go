//go:build !portable

package box

import (
	"os"
	"slices"
	"strconv"
	"strings"
	"time"

	"golang.org/x/sys/unix"

	"coldverdict/core/verdict"
)

// An endless call waits for events without an end, if one of its arguments has
// this value.
type endless struct {
	argument int // from 0
	value    uint64
}

// minusOne is how a timeout of -1 milliseconds looks in a register.
const minusOne = 0xffffffff

var endlessWaits = map[int]endless{
	unix.SYS_EPOLL_PWAIT: {argument: 3, value: minusOne},
	unix.SYS_PPOLL:       {argument: 2, value: 0},
	unix.SYS_PSELECT6:    {argument: 4, value: 0},
}

// Waiting says whether the program that runs waits for input. Input that is
// under way is not known here: whoever asks makes sure that there is none. It
// may be called beside Run.
func (b *Box) Waiting() Waiting {
	if b.supervisor == nil {
		return NotWaiting
	}
	all, err := b.alive()
	if err != nil {
		return NotWaiting
	}
	threads := 0
	found := false // a thread that input may wake
	input := false // one that reads it
	for _, p := range all {
		base := strconv.Itoa(p.pid)
		tids, err := numbers(base + "/task")
		if err != nil {
			return NotWaiting
		}
		for _, tid := range tids {
			threads++
			call, err := readProc(base + "/task/" + strconv.Itoa(tid) + "/syscall")
			if err != nil {
				return NotWaiting
			}
			switch readCall(string(call), "/proc/"+base) {
			case awake:
				return NotWaiting
			case forInput:
				found, input = true, true
			case forEvents:
				found = true
			}
		}
	}
	switch {
	case input && threads == 1:
		return Waits
	case found:
		return MayWait
	}
	return NotWaiting
}

// alive lists the processes that run in the box.
func (b *Box) alive() ([]process, error) {
	all, _, err := descendants(b.supervisor.Pid)
	return slices.DeleteFunc(all, func(p process) bool { return slices.Contains(b.helpers, p.pid) }), err
}

// Now returns what the processes that run use at this moment: the processor time
// of those that are alive, the sum of their peaks of memory, and for how long they were
// ready to run and did not, all together; false where that cannot be seen, or nothing
// runs. It may be called beside Run.
func (b *Box) Now() (usage verdict.Usage, ok bool) {
	if b.supervisor == nil {
		return usage, false
	}
	all, err := b.alive()
	if err != nil {
		return usage, false
	}
	for _, p := range all {
		used, err := processTime(p.pid)
		if err != nil && err != errGone {
			return usage, false
		}
		status, err := readStatus(p.pid)
		if err != nil && err != errGone {
			return usage, false
		}
		kept, err := delays(p.pid)
		if err != nil && err != errGone {
			return usage, false
		}
		for _, delay := range kept {
			usage.Starved += delay
		}
		usage.CPU += used
		usage.Memory += status.peak
	}
	return usage, len(all) > 0
}

// Ready reports that some thread of what runs here runs, or could. It may be called beside Run.
func (b *Box) Ready() bool {
	if b.supervisor == nil {
		return false
	}
	all, err := b.alive()
	if err != nil {
		return false
	}
	for _, p := range all {
		if ready, err := isReady(p.pid); ready && err == nil {
			return true
		}
	}
	return false
}

// Delayed is for how long threads of this very process were ready to run so far, and did not, all
// together; 0 where that cannot be seen.
func Delayed() time.Duration { return delayedAll(os.Getpid()) }

// A call is what a thread does.
type call int

const (
	awake        call = iota // it runs, or is stopped
	forSomething             // it waits
	forInput                 // it reads standard input
	forEvents                // it waits for any event, without an end
)

// readCall reads the system call that a thread is in: the call's number and
// its arguments.
func readCall(line, process string) call {
	fields := strings.Fields(line)
	number := -1
	if len(fields) > 6 {
		number, _ = strconv.Atoi(fields[0])
	}
	if number < 0 {
		return awake
	}
	argument := func(i int) uint64 {
		n, _ := strconv.ParseUint(strings.TrimPrefix(fields[1+i], "0x"), 16, 64)
		return n
	}
	if number == unix.SYS_READ || number == unix.SYS_READV {
		if sameFile(process+"/fd/0", process+"/fd/"+strconv.FormatUint(argument(0), 10)) {
			return forInput
		}
		return forSomething
	}
	for _, list := range []map[int]endless{endlessWaits, olderWaits} {
		if e, ok := list[number]; ok {
			given := argument(e.argument)
			if uint32(given) == uint32(e.value) && (e.value != 0 || given == 0) {
				return forEvents
			}
			return forSomething
		}
	}
	return forSomething
}

func sameFile(a, b string) bool {
	var s, t unix.Stat_t
	return unix.Stat(a, &s) == nil && unix.Stat(b, &t) == nil && idOf(s) == idOf(t)
}
