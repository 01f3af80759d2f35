//go:build !portable

package box

import (
	"context"
	"encoding/binary"
	"errors"
	"fmt"
	"io"
	"os"
	"path/filepath"
	"runtime"
	"slices"
	"sync"
	"sync/atomic"
	"syscall"
	"time"
	"unsafe"

	"coldverdict/core/verdict"
	"golang.org/x/sys/unix"
)

// A Box runs programs, one at a time. It is not safe for concurrent use; open
// one for each program that shall run at the same moment.
type Box struct {
	hold       Hold
	options    Options
	way        way
	shown      *Program // where programs see what was decided at the supervisor's start: for which that was
	dir        string   // a folder of its own
	group      group
	supervisor *os.Process
	helpers    []int                     // processes of ours below the supervisor
	socket     int                       // requests go out, reports come in
	kills      int                       // a run's number kills that run; its end kills the supervisor
	notes      int                       // an eventfd to which the supervisor adds what it notes of a run
	sum        atomic.Uint64             // of what was read from it during this run
	streams    [streamCount]atomic.Int32 // what the program of this moment writes; -1 for one that it does not have
	pipes      [][2]int                  // made for the run after this one, while there was time
	null       *os.File
	asked      []string // what the program of the run before wanted to read,
	granted    []string // and that taken apart
	known      *task    // the supervisor knows it from the request before
	message    []byte
	// arrivals is readable when socket or one of streams is; arrived is how
	// to wait for that, and arriving its descriptor.
	arrivals *os.File
	arrived  syscall.RawConn
	arriving int
	watched  bool          // the streams of this moment are among what arrivals stands for
	took     time.Duration // wall-clock time of the run before
	chunk    []byte
	running  uint32 // number of the last run
	broken   error  // the supervisor is gone
	// turns is even while carry waits for something to read, and odd
	// otherwise.
	turns atomic.Uint64
}

// Quiet reports that nothing that the running program wrote is still on its way
// to Run.Output and the others. It may be called beside Run.
func (b *Box) Quiet() bool {
	turn := b.turns.Load()
	if turn%2 == 1 {
		return false
	}
	for i := range b.streams {
		fd := int(b.streams[i].Load())
		if fd < 0 {
			continue
		}
		if n, err := unix.IoctlGetInt(fd, bytesUnread); err != nil || n > 0 {
			return false
		}
	}
	return b.turns.Load() == turn
}

// Run runs a program to its end. An error means that our side failed: the
// program could not be started or the supervisor was lost. When ctx ends the run
// is killed, and Run returns the context's error.
func (b *Box) Run(ctx context.Context, run Run) (result Result, err error) {
	if b.broken != nil {
		return Result{}, b.broken
	}
	if err := ctx.Err(); err != nil {
		return Result{}, err
	}
	if !slices.Equal(run.Program.Reads, b.asked) {
		b.asked, b.granted = slices.Clone(run.Program.Reads), apart(run.Program.Reads)
	}
	run.Program.Reads = b.granted
	if err := b.showOnly(run); err != nil {
		return Result{}, err
	}
	b.running++
	id := b.running
	b.forgetNotes()
	if err := b.request(id, run); err != nil {
		return Result{}, err
	}
	defer b.closeStreams()
	over := b.endWith(id, run.Limits.Memory, ctx, run.Stop)
	carried, rep, made, err := b.carry(run, id)
	defer func() {
		if made != nil && result.File == nil {
			made.Close()
		}
	}()
	over()
	if err == nil && rep.ID != id {
		err = fmt.Errorf("report %d came for run %d", rep.ID, id)
	}
	if err != nil {
		b.broken = fmt.Errorf("%w: %w", ErrLost, err)
		return Result{}, b.broken
	}
	if err := ctx.Err(); err != nil {
		return Result{}, err
	}
	if rep.Error != "" {
		return Result{}, errors.New(rep.Error)
	}
	result = Result{
		Ending: rep.Ending, ExitCode: rep.ExitCode, Signal: rep.Signal,
		Written: carried.written, Left: rep.Left, Room: rep.Room, Stack: rep.Stack, Filled: rep.Filled, Tried: rep.Tried, File: made,
		Usage: verdict.Usage{CPU: rep.CPU, Wall: rep.Wall, Memory: rep.Memory, Starved: rep.Starved},
	}
	fileTooLarge := rep.Signal == int(unix.SIGXFSZ) && !rep.OwnSize
	if carried.passed && rep.Ending != PassedMemory || fileTooLarge {
		result.Ending = PassedOutput
	}
	return result, nil
}

// endWith ends a run when one of some contexts ends; nil is none. Whoever calls what it returns,
// when the run is over, waits until nothing ends it any more.
func (b *Box) endWith(id uint32, memory int64, contexts ...context.Context) (over func()) {
	finished := make(chan struct{})
	var enders sync.WaitGroup
	var stops []func() bool
	for _, c := range contexts {
		if c == nil {
			continue
		}
		enders.Add(1)
		stops = append(stops, context.AfterFunc(c, func() {
			defer enders.Done()
			b.kill(id)
			b.endLate(finished, memory)
		}))
	}
	return func() {
		close(finished)
		for _, stop := range stops {
			if stop() {
				enders.Done()
			}
		}
		enders.Wait()
	}
}

// request tells the supervisor what to run.
func (b *Box) request(id uint32, run Run) error {
	o := request{ID: id, Limits: run.Limits}
	now := task{run.Program, run.Dir, run.Files}
	if b.known == nil || b.known.Dir != now.Dir || b.known.Files != now.Files || !b.known.Program.equal(now.Program) {
		o.Task = &now
	}
	input := run.Input
	switch {
	case input == nil:
		input = b.null
	case input.Name() != pathless:
		path, err := filepath.Abs(input.Name())
		if err != nil {
			return err
		}
		o.Input = path
	}
	message, err := o.encode()
	if err != nil {
		return err
	}
	outputs, err := b.openStreams()
	defer func() {
		for _, fd := range outputs {
			unix.Close(fd)
		}
	}()
	if err == nil {
		err = send(b.socket, message, append([]int{int(input.Fd())}, outputs...)...)
		runtime.KeepAlive(input)
		if err != nil {
			b.broken = fmt.Errorf("%w: %w", ErrLost, err)
			err = b.broken
		}
	}
	if err != nil {
		b.closeStreams()
		return err
	}
	b.known = &now
	return nil
}

// openStreams makes the pipes that one run writes to, and returns their other ends:
// what a program does to a pipe ends with it.
func (b *Box) openStreams() (outputs []int, err error) {
	b.chunk, b.watched = b.chunk[:min(len(b.chunk), narrow)], false
	// One that was made while a program used up the pipes of this user is smaller.
	small := func(ends [2]int) bool {
		size, err := unix.FcntlInt(uintptr(ends[0]), unix.F_GETPIPE_SZ, 0)
		return err != nil || size < narrow
	}
	if slices.ContainsFunc(b.pipes, small) {
		b.closePipes()
	}
	if err := b.makePipes(); err != nil {
		return nil, err
	}
	for i, ends := range b.pipes {
		b.streams[i].Store(int32(ends[0]))
		outputs = append(outputs, ends[1])
	}
	b.pipes = b.pipes[:0]
	return outputs, nil
}

// makePipes makes the pipes for the next run, if they are not there.
func (b *Box) makePipes() error {
	count := len(b.streams)
	if !b.options.Decides {
		count--
	}
	for len(b.pipes) < count {
		ends, err := pipe()
		if err != nil {
			return fmt.Errorf("cannot make a pipe: %w", err)
		}
		b.pipes = append(b.pipes, ends)
		if err := unix.SetNonblock(ends[0], true); err != nil {
			return err
		}
	}
	return nil
}

func (b *Box) closePipes() {
	for _, ends := range b.pipes {
		unix.Close(ends[0])
		unix.Close(ends[1])
	}
	b.pipes = nil
}

func (b *Box) closeStreams() {
	for i := range b.streams {
		if fd := b.streams[i].Swap(-1); fd >= 0 {
			unix.Close(int(fd))
		}
	}
}

func (p Program) equal(q Program) bool {
	return p.Path == q.Path && slices.Equal(p.Args, q.Args) && slices.Equal(p.Env, q.Env) && p.seesLike(q)
}

// seesLike reports that two programs see the same files.
func (p Program) seesLike(q Program) bool {
	return slices.Equal(p.Reads, q.Reads) && slices.Equal(p.Writes, q.Writes)
}

// kill asks the supervisor to end run id; it does nothing to any other run.
func (b *Box) kill(id uint32) {
	var number [4]byte
	binary.LittleEndian.PutUint32(number[:], id)
	again(func() error { _, err := unix.Write(b.kills, number[:]); return err })
}

const (
	narrow = 64 << 10 // what a pipe holds at first, and is read at once
	wide   = 1 << 20  // the same once it has proved to be busy

	// quiet is how long only the report is waited for, where the run before
	// took no longer. Most are over by then, and what they wrote is read once,
	// without a wake-up in between.
	quiet = 2 * time.Millisecond
)

// carry hands on what the program writes until the supervisor's report comes. By
// then nothing of the run is alive, and what is left in the pipes is all.
func (b *Box) carry(run Run, id uint32) (c carried, rep report, made *os.File, err error) {
	c.sinks = [streamCount]io.Writer{run.Output, run.Errors, run.Decision}
	c.limit = run.Limits.Output
	polls := []unix.PollFd{{Fd: int32(b.socket), Events: unix.POLLIN}}
	for i := range b.streams {
		polls = append(polls, unix.PollFd{Fd: b.streams[i].Load(), Events: unix.POLLIN}) // poll passes over what is below zero
	}
	if err := b.makePipes(); err != nil { // the program runs meanwhile
		return c, rep, nil, err
	}
	if !run.Prompt && b.took < quiet {
		pollBriefly(polls[:1], quiet)
	}
	if wall := run.Limits.Wall; wall > 0 && polls[0].Revents == 0 {
		o := b.oversee(run.Limits)
		defer func() { err = o.end(err) }()
	}
	for polls[0].Revents == 0 {
		b.turns.Add(1)
		err := b.await(polls, run.Prompt)
		b.turns.Add(1)
		if err != nil {
			return c, rep, nil, err
		}
		for i := range b.streams {
			if polls[1+i].Revents != 0 {
				if err := b.drain(i, id, &c); err != nil {
					return c, rep, nil, err
				}
			}
		}
	}
	message, fd, err := receive(b.socket, b.message)
	if err != nil {
		return c, rep, nil, err
	}
	if fd >= 0 {
		made = os.NewFile(uintptr(fd), run.Files.Output)
	}
	if rep, err = decodeReport(message); err != nil {
		return c, rep, made, err
	}
	b.took = rep.Wall
	for i := range b.streams {
		if b.streams[i].Load() < 0 {
			continue
		}
		if err := b.drain(i, id, &c); err != nil {
			return c, rep, made, err
		}
	}
	return c, rep, made, nil
}

// await waits until there is something to read. Where somebody waits for that,
// a thread of ours waits in the kernel, which is quickest; but then the runtime
// looks after that thread every few ten microseconds, where the program could
// run. So otherwise it is the runtime that waits.
func (b *Box) await(polls []unix.PollFd, promptly bool) error {
	if promptly {
		return again(func() error { _, err := unix.Poll(polls, -1); return err })
	}
	if !b.watched { // most runs are over before that is needed
		for i := range b.streams {
			if fd := int(b.streams[i].Load()); fd >= 0 {
				if err := b.watchFile(fd); err != nil {
					return err
				}
			}
		}
		b.watched = true
	}
	return b.arrived.Read(func(uintptr) bool { return pollBriefly(polls, 0) })
}

// pollBriefly waits for descriptors without telling the Go scheduler, which
// would otherwise wake other threads to make up for this one, and reports
// whether one is ready. The scheduler can do without it for so short a time.
func pollBriefly(polls []unix.PollFd, wait time.Duration) bool {
	timeout := unix.NsecToTimespec(wait.Nanoseconds())
	n, _, _ := unix.RawSyscall6(unix.SYS_PPOLL, uintptr(unsafe.Pointer(&polls[0])), uintptr(len(polls)), uintptr(unsafe.Pointer(&timeout)), 0, 0, 0)
	return int(n) > 0
}

// briefly makes a system call on a descriptor and a buffer, one that does not wait, in the
// same way.
func briefly(call uintptr, fd int, buffer []byte) (n int, err error) {
	err = again(func() error {
		r, _, errno := unix.RawSyscall6(call, uintptr(fd), uintptr(unsafe.Pointer(&buffer[0])), uintptr(len(buffer)), 0, 0, 0)
		if n = int(r); errno != 0 {
			return errno
		}
		return nil
	})
	return n, err
}

// drain reads stream i until it is empty.
func (b *Box) drain(i int, id uint32, c *carried) error {
	for {
		n, err := briefly(unix.SYS_READ, int(b.streams[i].Load()), b.chunk)
		switch {
		case err == unix.EAGAIN || err == nil && n == 0:
			return nil
		case err != nil:
			return err
		}
		if c.take(i, b.chunk[:n]) {
			b.kill(id)
		}
		if n < narrow {
			return nil
		}
		if len(b.chunk) < wide {
			if b.chunk = b.chunk[:cap(b.chunk)]; len(b.chunk) < wide {
				b.chunk = make([]byte, wide)
			}
			for j := range b.streams[:2] {
				unix.FcntlInt(uintptr(b.streams[j].Load()), unix.F_SETPIPE_SZ, wide) // refused where the user has many: then it stays narrow
			}
		}
	}
}

// Memory returns data as an open file that lives in memory only, at offset 0, and
// that nobody can change. The caller closes it.
func Memory(data []byte) (*os.File, error) {
	fd, err := unix.MemfdCreate("input", unix.MFD_CLOEXEC|unix.MFD_ALLOW_SEALING)
	if err != nil {
		return nil, err
	}
	file := os.NewFile(uintptr(fd), pathless)
	_, err = file.WriteAt(data, 0)
	if err == nil {
		_, err = unix.FcntlInt(uintptr(fd), unix.F_ADD_SEALS, unix.F_SEAL_WRITE|unix.F_SEAL_SHRINK|unix.F_SEAL_GROW|unix.F_SEAL_SEAL)
	}
	if err != nil {
		file.Close()
		return nil, err
	}
	return file, nil
}
