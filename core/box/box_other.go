//go:build darwin || portable

package box

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"math"
	"os"
	"runtime"
	"sync"
	"syscall"
	"time"

	"golang.org/x/sys/unix"

	"coldverdict/core/verdict"
)

// This is the box of macOS. It holds with rlimits, a clock
// and a process group, which it has; hold_other.go says what that
// leaves open. It can be tried on Linux with the build tag "portable".

// A Box runs programs, one at a time. It is not safe for concurrent use; open
// one for each program that shall run at the same moment.
type Box struct {
	hold    Hold
	dir     string // the working folder, emptied after each run
	decides bool   // programs have a third stream
}

// Groups are a thing of Linux.
type Groups struct{}

// OpenGroups returns an error: there are none on this system.
func OpenGroups() (*Groups, error) { return nil, errors.New("this system has no control groups") }

// supervisorName is the first argument of this binary when it is started to set
// limits on itself and then become a program.
const supervisorName = "cold-supervisor"

// Suits returns no error: no limit of a session is known to make correct programs fail.
func Suits() error { return nil }

// Open starts a box.
func Open(o Options) (*Box, error) {
	dir, err := os.MkdirTemp(o.Scratch, "work-")
	if err != nil {
		return nil, fmt.Errorf("cannot start a worker: %w", err)
	}
	return &Box{Hold{Isolation: NotIsolated, Contained: !o.Uncontained}, dir, o.Decides}, nil
}

// Hold says how the box holds what runs in it.
func (b *Box) Hold() Hold { return b.hold }

// Close removes the box's folder.
func (b *Box) Close() error { return removeAll(b.dir) }

// A start is what a process is told that is to become a program.
type start struct {
	Path   string
	Args   []string
	Limits verdict.Limits
}

// Supervise turns this process into a program, under limits, if it was started
// for that, and then never returns. Any program that opens a Box calls it first
// thing in main.
func Supervise() {
	if len(os.Args) != 2 || os.Args[0] != supervisorName {
		return
	}
	var s start
	err := json.Unmarshal([]byte(os.Args[1]), &s)
	if err == nil {
		err = s.become()
	}
	fmt.Fprintf(os.Stderr, "cold: cannot start %s: %v\n", s.Path, err)
	os.Exit(cannotStart)
}

// cannotStart is the exit status of a process that could not become a program.
const cannotStart = 126

func (s start) become() error {
	for resource, want := range map[int]int64{
		unix.RLIMIT_CORE:  0,
		unix.RLIMIT_STACK: s.Limits.Memory,
		unix.RLIMIT_FSIZE: s.Limits.Output,
		unix.RLIMIT_CPU:   int64(math.Ceil(s.Limits.Time.Seconds())), // the kernel counts whole seconds
	} {
		if want == 0 && resource != unix.RLIMIT_CORE {
			continue
		}
		var now unix.Rlimit
		if err := unix.Getrlimit(resource, &now); err != nil {
			return err
		}
		now.Cur = min(now.Max, uint64(want))
		if resource == unix.RLIMIT_CPU { // at the soft limit a signal, which can be ignored
			now.Max = min(now.Max, uint64(want)+1)
		}
		if err := unix.Setrlimit(resource, &now); err != nil {
			return err
		}
	}
	return syscall.Exec(s.Path, append([]string{s.Path}, s.Args...), os.Environ())
}

// Run runs a program to its end. An error means that our side failed. When
// ctx ends the run is killed, and Run returns the context's error.
func (b *Box) Run(ctx context.Context, run Run) (result Result, err error) {
	if err := ctx.Err(); err != nil {
		return result, err
	}
	if info, err := os.Stat(run.Program.Path); err != nil || info.IsDir() || info.Mode()&0o111 == 0 {
		return result, fmt.Errorf("cannot start %s: it does not exist, or is not executable", run.Program.Path)
	}
	self, err := os.Executable()
	if err != nil {
		return result, err
	}
	text, err := json.Marshal(start{run.Program.Path, run.Program.Args, run.Limits})
	if err != nil {
		return result, err
	}
	input := run.Input
	if input == nil {
		if input, err = os.Open(os.DevNull); err != nil {
			return result, err
		}
		defer input.Close()
	} else if _, err := input.Seek(0, io.SeekStart); err != nil && !errors.Is(err, syscall.ESPIPE) {
		return result, err
	}
	dir := run.Dir
	if dir == "" {
		dir = b.dir
		defer func() { err = errors.Join(err, b.empty()) }()
	}
	if _, err := run.Files.put(dir, input); err != nil {
		return result, fmt.Errorf("cannot put the input into the working folder: %w", err)
	}
	if run.Files.Input != "" {
		if input, err = os.Open(os.DevNull); err != nil {
			return result, err
		}
		defer input.Close()
	}
	live := &running{ending: Exited}
	streams, err := b.openStreams(run, live)
	defer streams.close()
	if err != nil {
		return result, err
	}
	began := time.Now()
	process, err := os.StartProcess(self, []string{supervisorName, string(text)}, &os.ProcAttr{
		Dir: dir, Env: run.Program.Env, Files: append([]*os.File{input}, streams.ends...),
		Sys: &syscall.SysProcAttr{Setsid: true},
	})
	streams.closeEnds()
	if err != nil {
		return result, fmt.Errorf("cannot start %s: %w", run.Program.Path, err)
	}
	live.began(process.Pid)
	stop := context.AfterFunc(ctx, func() { live.end(EndedByRequest) })
	defer stop()
	if run.Stop != nil {
		defer context.AfterFunc(run.Stop, func() { live.end(EndedByRequest) })()
	}
	if run.Limits.Wall > 0 {
		defer time.AfterFunc(run.Limits.Wall, func() { live.end(PassedWall) }).Stop()
	}
	state, err := process.Wait()
	wall := time.Since(began)
	ending := live.over()
	streams.drain()
	if err != nil {
		return result, err
	}
	if err := ctx.Err(); err != nil {
		return result, err
	}
	streams.carrying.Lock()
	defer streams.carrying.Unlock()
	result = finished(state, ending, wall, streams.carried.written)
	result.File = run.Files.take(dir)
	return result, nil
}

// streams are what a program writes to, and who reads it.
type streams struct {
	carried  carried
	carrying sync.Mutex
	reads    []*os.File
	ends     []*os.File // the program's
	readers  sync.WaitGroup
}

// openStreams makes them for one run, which ends where it writes too much.
func (b *Box) openStreams(run Run, live *running) (s *streams, err error) {
	s = &streams{carried: carried{sinks: [streamCount]io.Writer{run.Output, run.Errors, run.Decision}, limit: run.Limits.Output}}
	count := 2
	if b.decides {
		count = streamCount
	}
	for i := range count {
		read, write, err := os.Pipe()
		if err != nil {
			return s, err
		}
		s.reads, s.ends = append(s.reads, read), append(s.ends, write)
		s.readers.Go(func() {
			io.Copy(&sink{i, &s.carried, &s.carrying, func() { live.end(PassedOutput) }}, read)
		})
	}
	return s, nil
}

func (s *streams) closeEnds() {
	for _, end := range s.ends {
		end.Close()
	}
	s.ends = nil
}

func (s *streams) close() {
	s.closeEnds()
	for _, read := range s.reads {
		read.Close()
	}
}

// drain waits until all is read that a program wrote which has ended.
func (s *streams) drain() {
	drained := make(chan struct{})
	go func() { s.readers.Wait(); close(drained) }()
	select {
	case <-drained:
	case <-time.After(lingering): // something that left the group keeps the pipes open
	}
}

// lingering is how long output is waited for after the end of a program.
const lingering = 100 * time.Millisecond

func finished(state *os.ProcessState, ending Ending, wall time.Duration, written int64) Result {
	result := Result{Ending: ending, Written: written}
	result.Usage = verdict.Usage{CPU: state.UserTime() + state.SystemTime(), Wall: wall}
	if usage, ok := state.SysUsage().(*syscall.Rusage); ok {
		result.Usage.Memory = usage.Maxrss
		if runtime.GOOS != "darwin" { // which counts bytes, and others KiB
			result.Usage.Memory <<= 10
		}
	}
	status := state.Sys().(syscall.WaitStatus)
	if !status.Signaled() {
		result.ExitCode = status.ExitStatus()
		return result
	}
	result.Signal = int(status.Signal())
	if ending == Exited {
		switch status.Signal() {
		case syscall.SIGXCPU:
			result.Ending = PassedTime
		case syscall.SIGXFSZ:
			result.Ending = PassedOutput
		}
	}
	return result
}

// A running is a process group that may be ended once.
type running struct {
	mu     sync.Mutex
	pid    int // 0: it does not run
	ending Ending
}

func (r *running) began(pid int) {
	r.mu.Lock()
	defer r.mu.Unlock()
	r.pid = pid
}

func (r *running) end(why Ending) {
	r.mu.Lock()
	defer r.mu.Unlock()
	if r.pid != 0 && r.ending == Exited {
		r.ending = why
		unix.Kill(-r.pid, unix.SIGKILL)
	}
}

// over kills what is left of the group, and returns what ended the run.
func (r *running) over() Ending {
	r.mu.Lock()
	defer r.mu.Unlock()
	unix.Kill(-r.pid, unix.SIGKILL)
	r.pid = 0
	return r.ending
}

// Quiet says that it is not known whether anything is on its way.
func (b *Box) Quiet() bool { return false }

// Waiting says that it is not known whether a program waits.
func (b *Box) Waiting() Waiting { return NotWaiting }

// Now cannot be told here.
func (b *Box) Now() (usage verdict.Usage, ok bool) { return usage, false }

// A sink is one of the streams of a run.
type sink struct {
	stream int
	both   *carried
	mu     *sync.Mutex // guards both
	over   func()      // called when the limit is passed
}

func (s *sink) Write(p []byte) (int, error) {
	s.mu.Lock()
	defer s.mu.Unlock()
	if s.both.take(s.stream, p) {
		s.over()
	}
	return len(p), nil
}

// empty removes all that a program left in the working folder.
func (b *Box) empty() error {
	if err := removeAll(b.dir); err != nil {
		return fmt.Errorf("cannot clean the working folder: %w", err)
	}
	return os.Mkdir(b.dir, 0o700)
}

// Memory returns data as an open file without a name, at offset 0. The caller
// closes it.
func Memory(data []byte) (*os.File, error) {
	named, err := os.CreateTemp("", "cold-verdict-input-")
	if err != nil {
		return nil, err
	}
	defer named.Close()
	defer os.Remove(named.Name())
	if _, err := named.Write(data); err != nil {
		return nil, err
	}
	fd, err := syscall.Open(named.Name(), syscall.O_RDWR|syscall.O_CLOEXEC, 0)
	if err != nil {
		return nil, err
	}
	return os.NewFile(uintptr(fd), pathless), nil
}

// Ready reports that something that runs here could; it cannot be seen.
func (b *Box) Ready() bool { return false }

// Delayed is for how long threads of this process were ready to run and did not; it cannot be
// seen here.
func Delayed() time.Duration { return 0 }
