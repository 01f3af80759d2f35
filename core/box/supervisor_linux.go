//go:build !portable

package box

import (
	"encoding/binary"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"math"
	"os"
	"os/signal"
	"runtime"
	"slices"
	"strings"
	"sync"
	"time"
	"unsafe"

	"coldverdict/core/verdict"

	"golang.org/x/sys/unix"
)

// The descriptors that a supervisor is started with, after the usual three.
const (
	requestsFD = 3 + iota
	killFD
	notesFD
)

// Supervise turns this process into a supervisor, or into the first process of the
// programs' namespace, if it was started as one, and then never returns. Any program
// that opens a Box calls it first thing in main.
func Supervise() {
	if len(os.Args) != 1 {
		return
	}
	var err error
	switch os.Args[0] {
	case supervisorName:
		err = supervise()
	case initName:
		err = initMain()
	default:
		return
	}
	if err != nil && err != errHungUp { // which is how it is told to end
		fmt.Fprintf(os.Stderr, "cold: worker: %v\n", err)
		os.Exit(70)
	}
	os.Exit(0)
}

// supervise serves requests on a thread of its own, which is not the one that stands
// for the whole process where it is named.
func supervise() error {
	runtime.LockOSThread()
	// With room to spare, the scheduler does not hurry to replace a thread
	// that waits in the kernel, as all of these nearly always do.
	runtime.GOMAXPROCS(4)
	if err := setName(supervisorName); err != nil {
		return err
	}
	done := make(chan error)
	go func() {
		// Every ptrace call must come from the thread that started the program.
		runtime.LockOSThread()
		done <- serve()
	}()
	return <-done
}

// setName says what this thread is, and with it the process, if it stands for it.
func setName(name string) error {
	text := append([]byte(name), 0)
	return unix.Prctl(unix.PR_SET_NAME, uintptr(unsafe.Pointer(&text[0])), 0, 0, 0)
}

// A supervisor serves requests until its kill pipe ends.
type supervisor struct {
	sandbox
	task    task
	limited bool           // limits are in force
	limits  verdict.Limits // those of the run before
	given   int64          // bytes of its input file
	census  census
	watch   watch
	spent   time.Duration // processor time of all that was reaped so far
	lagged  time.Duration // for how long this thread was ready so far, and did not run

	mu      sync.Mutex
	current *tracee // the run under way, nil between runs
	killed  uint32  // number of the last run that was told to end
	tried   string  // what this run tried first and was refused
}

func serve() error {
	// What the caller's caller left open is no business of the programs here.
	if err := unix.CloseRange(requestsFD, math.MaxUint32, unix.CLOSE_RANGE_CLOEXEC); err != nil {
		return err
	}
	// Orphans of a run become children of the supervisor, which can then find,
	// kill and reap them.
	if err := unix.Prctl(unix.PR_SET_CHILD_SUBREAPER, 1, 0, 0, 0); err != nil {
		return err
	}
	buffer := make([]byte, maxMessage)
	w, err := begin(buffer)
	if err != nil || w == nil {
		return err
	}
	if err := forgetSignals(); err != nil {
		return err
	}
	if w.watch.bell, err = unix.Eventfd(0, unix.EFD_CLOEXEC); err != nil {
		return err
	}
	go w.readKills()
	go w.watch.keep(w.running)
	if w.listener >= 0 {
		go w.filter.answerCalls(w.listener, w.staysWithin, w.noteTry)
	}
	for {
		w.prepare()
		message, files, err := receiveAll(requestsFD, buffer)
		if err != nil {
			return err
		}
		o, err := decodeRequest(message)
		if err != nil {
			return err
		}
		if o.Task != nil {
			w.task = *o.Task
		}
		if len(files) < 3 {
			return fmt.Errorf("a request came with %d descriptors", len(files))
		}
		rep, made := w.run(o, files[0], files[1:])
		var back []int
		if made != nil {
			back = append(back, int(made.Fd()))
		}
		err = send(requestsFD, rep.encode(), back...)
		for _, fd := range files[1:] {
			unix.Close(fd)
		}
		if made != nil {
			made.Close()
		}
		if err != nil {
			return err
		}
	}
}

// staysWithin reports whether a signal that a thread wants to send goes to the run
// that it belongs to.
func (w *supervisor) staysWithin(thread int, call uint32, target int) bool {
	status, err := readStatus(thread)
	if err != nil {
		return false
	}
	if status.process == os.Getpid() { // the thread that starts programs ends them, too
		return true
	}
	switch {
	case target == -1:
		return false
	case target == 0:
		return true // its own group, which is the run's: it began a session of its own
	case target < 0:
		target = -target
	}
	if status, err = readStatus(target); err != nil {
		return err == errGone // that it is not there is for the kernel to say
	}
	all, _, err := descendants(os.Getpid())
	return err == nil && slices.ContainsFunc(all, func(p process) bool { return p.pid == status.process })
}

// begin receives the setup, does what it says, and answers. It returns nil
// where the isolation could not be had; the caller was told.
func begin(buffer []byte) (*supervisor, error) {
	_, fd, err := receive(requestsFD, buffer)
	if err != nil {
		return nil, err
	}
	file := os.NewFile(uintptr(fd), "setup")
	text, err := io.ReadAll(io.NewSectionReader(file, 0, math.MaxInt64))
	file.Close()
	var s setup
	if err == nil {
		err = json.Unmarshal(text, &s)
	}
	if err != nil {
		return nil, err
	}
	w := &supervisor{}
	var ready readiness
	if w.sandbox, err = s.raise(); err != nil {
		ready.Error = err.Error()
	}
	ready.Ungrouped = w.ungrouped
	ready.Near = s.Apart || s.Isolation == Rules && rulesVersion() >= 6
	ready.Filter, ready.Told = ready.Error == "", w.listener >= 0
	answer, err := json.Marshal(ready)
	if err == nil {
		err = send(requestsFD, answer)
	}
	if ready.Error != "" {
		return nil, err
	}
	w.census = census{outside: map[int]bool{os.Getpid(): true}, apart: s.Apart, account: &w.account, coarse: s.Coarse}
	if w.init != nil {
		w.census.outside[w.init.pid] = true
	}
	return w, err
}

// forgetSignals gives signals back their default actions, so that a child need
// not do so, one system call for each of them, every time it is started.
func forgetSignals() error {
	// To ignore a signal makes the runtime drop its handler.
	signal.Ignore()
	for number := 1; number <= lastSignal; number++ {
		var action signalAction
		_, _, errno := unix.RawSyscall6(unix.SYS_RT_SIGACTION, uintptr(number), 0, uintptr(unsafe.Pointer(&action)), 8, 0, 0)
		if errno != 0 || action.handler != ignored {
			continue // one that cannot be set, or that the runtime keeps
		}
		action.handler = 0
		if unix.Signal(number) == unix.SIGCHLD {
			action.flags = noStops // whoever waits for a stop is woken without a signal
		}
		if err := setAction(number, &action); err != nil {
			return err
		}
	}
	return nil
}

const (
	lastSignal = 64
	ignored    = 1 // SIG_IGN
	noStops    = 1 // SA_NOCLDSTOP
)

func (w *supervisor) running() *tracee {
	w.mu.Lock()
	defer w.mu.Unlock()
	return w.current
}

// readKills ends a run when its number comes, and this process, with all that
// runs in it, when the kill pipe itself ends.
func (w *supervisor) readKills() {
	var number [4]byte
	for {
		var n int
		err := again(func() (err error) { n, err = unix.Read(killFD, number[:]); return err })
		if err != nil || n != len(number) {
			// What is traced, and what lives in namespaces of this process, dies with
			// it; the rest is killed here.
			for try := 0; w.init == nil && try < 200; try++ {
				if count, err := killBelow(); count == 0 || err != nil {
					break
				}
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

func (w *supervisor) forgetTry() {
	w.mu.Lock()
	defer w.mu.Unlock()
	w.tried = ""
}

// noteTry keeps the first thing that a run tried and was refused.
func (w *supervisor) noteTry(words string) {
	w.mu.Lock()
	defer w.mu.Unlock()
	if w.tried == "" {
		w.tried = words
	}
}

// setLimits lets the kernel hold what it can; given are the bytes of a file that
// lies in the working folder already.
func (w *supervisor) setLimits(l verdict.Limits, given int64) error {
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
	if err := w.account.set(l.Memory, room, l.Processes); err != nil {
		return err
	}
	if w.tree != nil && w.tree.size != room {
		if err := w.tree.resizeFolder(room); err != nil {
			return err
		}
	}
	w.limited, w.limits, w.given = true, l, given
	return nil
}

// give puts the input into the working folder as a file of its name, and
// returns its size, and an empty input to go on with.
func (w *supervisor) give(input int) (empty int, size int64, err error) {
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

// prepare does what has to be done before the next run, while nobody waits for it. What
// fails here is found again then.
func (w *supervisor) prepare() {
	if w.settle() == nil {
		w.account.begin()
	}
	w.lagged, _ = threadDelayed(os.Getpid(), w.account.thread)
}

// settle waits until nothing of the run before is left.
func (w *supervisor) settle() error {
	if w.init == nil {
		return nil
	}
	_, _, err := w.init.settle()
	return err
}

// ready makes everything as a program shall find it. It returns the program's standard
// input, also for the caller to close where it fails, and the bytes of the file that was
// put into the working folder in its place.
func (w *supervisor) ready(o request, input int) (_ int, given int64, err error) {
	if err := w.settle(); err != nil {
		return input, 0, err
	}
	if w.tree != nil {
		writes := w.task.Program.Writes
		if w.task.Dir != "" {
			writes = append(slices.Clone(writes), w.task.Dir)
		}
		if err := w.tree.show(w.task.Program.Reads, writes); err != nil {
			return input, 0, err
		}
	}
	if w.task.Files.Input == "" {
		input = w.readOnly(input, o.Input)
	} else if input, given, err = w.give(input); err != nil {
		return input, 0, fmt.Errorf("cannot put the input into the working folder: %w", err)
	}
	if err := w.setLimits(o.Limits, given); err != nil {
		return input, given, fmt.Errorf("cannot set limits: %w", err)
	}
	return input, given, w.account.begin()
}

// run runs a program once. The descriptors are what it reads, and what it writes to.
func (w *supervisor) run(o request, input int, outputs []int) (rep report, made *os.File) {
	input, given, err := w.ready(o, input)
	defer func() { unix.Close(input) }()
	var t *tracee
	if err == nil {
		w.forgetTry()
		if t, err = w.start(o, append([]int{input}, outputs...)); err != nil {
			w.tidy(w.newTracee(o))
		}
	}
	if err != nil {
		w.clean()
		return report{ID: o.ID, Error: err.Error()}, nil
	}
	t.given = given
	w.mu.Lock()
	w.current = t
	if w.killed == o.ID {
		t.end(EndedByRequest)
	}
	w.mu.Unlock()
	w.watch.rouse(t)

	status, err := t.follow(&w.watch)
	rep = report{ID: o.ID, Wall: time.Since(t.began)}
	rep.Starved = min(rep.Wall, t.starved())
	left, orphans, e := w.tidy(t)
	note(notesFD, runOver)
	err = errors.Join(err, e)
	w.mu.Lock()
	w.current, rep.Left, rep.Tried = nil, left, w.tried
	w.mu.Unlock()
	rep.OwnSize, rep.Stack = t.ownSize, t.stack
	if t.full.Load() && t.most < t.limits.Processes {
		rep.Room = t.most
	}
	t.looking.Lock() // a look may be under way, and shares the census and the account with this
	t.measured = true
	t.looking.Unlock()
	err = errors.Join(err, w.measure(t, status, orphans, &rep))
	if w.task.Dir == "" && !w.folder.untouched() {
		if rep.Ending == Exited && w.folder.filled() {
			rep.Ending, rep.Filled = PassedOutput, true
		}
		made = w.task.Files.take(w.folder.path)
		err = errors.Join(err, w.clean())
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

// measure says in the report what a run took that is over, and what ended it. orphans is
// the processor time that nothing else counts.
func (w *supervisor) measure(t *tracee, status unix.WaitStatus, orphans time.Duration, rep *report) error {
	total := reapedTime()
	counted := total - w.spent + orphans
	w.spent = total
	booked, failed := w.account.end()
	rep.CPU = max(counted, t.spentByDead(), t.counted(), exceeding(booked, counted))
	killed, err := w.account.killedForMemory()
	failed = errors.Join(failed, err)
	rep.Ending, rep.Memory, err = t.outcome()
	// What recurses without end can fill its stack between two looks.
	overflowed := status.Signaled() && t.limits.Memory > 0 && rep.Memory > t.limits.Memory
	if rep.Ending == Exited && (killed || overflowed) {
		rep.Ending = PassedMemory
	}
	return errors.Join(failed, err)
}

// exceeding is what a control group booked, where that is more than what was counted
// by more than what it takes to start a program; otherwise 0.
func exceeding(booked, counted time.Duration) time.Duration {
	const starting = 2 * time.Millisecond
	if booked > counted+counted/100+starting {
		return booked
	}
	return 0
}

// clean gives the next run a working folder like new.
func (w *supervisor) clean() (err error) {
	if w.tree != nil {
		err = w.tree.renewFolder()
	} else {
		err = outside(w.folder.empty) // whatever rights the program gave what it made
	}
	if err != nil {
		return fmt.Errorf("cannot clean the working folder: %w", err)
	}
	return nil
}

// tidy kills and reaps all that a run left, and returns how many processes that were
// and the processor time of those that nothing else counts.
func (w *supervisor) tidy(t *tracee) (left int, orphans time.Duration, err error) {
	if w.init == nil {
		left, err = t.reap()
		return left, 0, err
	}
	alone, err := t.leftNothing()
	if err != nil {
		return 0, 0, err
	}
	if alone { // then there is no need to wait for the answer until the next run begins
		if t.renewed {
			return 0, 0, nil
		}
		return 0, 0, w.init.request(requestRenew)
	}
	if err := w.init.request(requestTidy); err != nil {
		return 0, 0, err
	}
	if _, err := t.reap(); err != nil { // what is traced waits for this thread
		return 0, 0, err
	}
	return w.init.settle()
}

// leftNothing reports that no process of a run is there any more, once the program has
// ended.
func (t *tracee) leftNothing() (bool, error) {
	t.mu.Lock()
	born := len(t.born)
	t.mu.Unlock()
	if born > 0 {
		return false, nil
	}
	if t.account.version != 0 {
		threads, err := t.account.threads()
		return threads == 0, err
	}
	pids, err := t.census.list()
	return len(pids) == 0, err
}

// readOnly returns the file that input is, opened anew where it cannot be
// written to: through /proc a program could otherwise open its own standard
// input for writing. It falls back on input itself, which is sealed, or a pipe, or
// which the program has no right to write to either.
func (w *supervisor) readOnly(input int, path string) int {
	if w.root < 0 || path == "" {
		return input
	}
	opened, err := unix.Openat2(w.root, strings.TrimPrefix(path, "/"), &unix.OpenHow{
		Flags: unix.O_RDONLY | unix.O_CLOEXEC | unix.O_NONBLOCK, Resolve: unix.RESOLVE_IN_ROOT,
	})
	if err != nil {
		return input
	}
	var was, is unix.Stat_t
	if unix.Fstat(input, &was) != nil || unix.Fstat(opened, &is) != nil || idOf(was) != idOf(is) {
		unix.Close(opened)
		return input
	}
	unix.Close(input)
	return opened
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
