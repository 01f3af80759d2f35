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
	"syscall"
	"time"
	"unsafe"

	"coldverdict/core/verdict"
	"golang.org/x/sys/unix"
)

// A Box runs programs, one at a time. It is not safe for concurrent use; open
// one for each program that shall run at the same moment.
type Box struct {
	dir     string // the private working folder
	dirFD   int    // the same, open
	warden  *os.Process
	socket  int    // orders go out, reports come in
	leash   int    // a run's number kills that run; its end kills the warden
	streams [2]int // what programs write to standard output and standard error
	null    *os.File
	known   *task // the warden knows it from the order before
	message []byte
	chunk   []byte
	running uint32 // number of the last run
	broken  error  // the warden is gone
}

// wardenName is the first argument of this binary when it is started as a
// warden.
const wardenName = "cold-warden"

// Open starts a box with a private working folder inside scratch, which must
// exist and stays the caller's to remove.
func Open(scratch string) (b *Box, err error) {
	b = &Box{
		dirFD: -1, socket: -1, leash: -1, streams: [2]int{-1, -1},
		message: make([]byte, maxMessage), chunk: make([]byte, narrow),
	}
	var theirs []*os.File
	defer func() {
		for _, f := range theirs {
			f.Close()
		}
		if err != nil {
			b.Close()
			b, err = nil, fmt.Errorf("cannot start a worker: %w", err)
		}
	}()
	if b.dir, err = os.MkdirTemp(scratch, "work-"); err != nil {
		return b, err
	}
	if err = b.openDir(); err != nil {
		return b, err
	}
	if b.null, err = os.OpenFile(os.DevNull, os.O_RDWR, 0); err != nil {
		return b, err
	}
	pair, err := unix.Socketpair(unix.AF_UNIX, unix.SOCK_SEQPACKET|unix.SOCK_CLOEXEC, 0)
	if err != nil {
		return b, err
	}
	b.socket = pair[0]
	theirs = append(theirs, os.NewFile(uintptr(pair[1]), "orders"))
	leash, err := pipe()
	if err != nil {
		return b, err
	}
	b.leash = leash[1]
	theirs = append(theirs, os.NewFile(uintptr(leash[0]), "leash"))
	for i := range b.streams {
		stream, err := pipe()
		if err != nil {
			return b, err
		}
		b.streams[i] = stream[0]
		theirs = append(theirs, os.NewFile(uintptr(stream[1]), "stream"))
		if err := unix.SetNonblock(stream[0], true); err != nil {
			return b, err
		}
	}
	return b, b.startWarden(append([]*os.File{b.null, b.null, os.Stderr}, theirs...))
}

// startWarden starts the warden as the first process of namespaces of its
// own, where nothing can be left of a run and no signal reaches further, or
// without them where the kernel denies them.
func (b *Box) startWarden(files []*os.File) error {
	var failures []error
	for _, attributes := range []*syscall.SysProcAttr{apart(), {Setsid: true}} {
		warden, err := os.StartProcess("/proc/self/exe", []string{wardenName}, &os.ProcAttr{
			Files: files,
			Env:   os.Environ(),
			Sys:   attributes,
		})
		if err == nil {
			b.warden = warden
			if err = b.awaitReady(); err == nil {
				return nil
			}
			warden.Kill()
			warden.Wait()
			b.warden = nil
		}
		failures = append(failures, err)
	}
	return errors.Join(failures...)
}

// apart asks for process and mount namespaces. Somebody who is not root gets
// them inside a user namespace, as the same user.
func apart() *syscall.SysProcAttr {
	attributes := &syscall.SysProcAttr{
		// A session of its own keeps the terminal away: its Ctrl-C is for us
		// to act on, and no program finds it under /dev/tty.
		Setsid:     true,
		Cloneflags: unix.CLONE_NEWPID | unix.CLONE_NEWNS,
	}
	if uid, gid := os.Geteuid(), os.Getegid(); uid != 0 {
		attributes.Cloneflags |= unix.CLONE_NEWUSER
		attributes.UidMappings = []syscall.SysProcIDMap{{ContainerID: uid, HostID: uid, Size: 1}}
		attributes.GidMappings = []syscall.SysProcIDMap{{ContainerID: gid, HostID: gid, Size: 1}}
		attributes.AmbientCaps = []uintptr{unix.CAP_SYS_ADMIN} // in there, to mount /proc
	}
	return attributes
}

// awaitReady waits for the warden's first message: a report with the number
// 0, with an error if it cannot work.
func (b *Box) awaitReady() error {
	poll := []unix.PollFd{{Fd: int32(b.socket), Events: unix.POLLIN}}
	var ready int
	err := again(func() (err error) { ready, err = unix.Poll(poll, int(startTime.Milliseconds())); return err })
	if err != nil {
		return err
	}
	if ready == 0 {
		return fmt.Errorf("it did not start within %v", startTime)
	}
	message, _, err := receive(b.socket, b.message)
	if err != nil {
		return err
	}
	rep, err := decodeReport(message)
	if err == nil && rep.Error != "" {
		err = errors.New(rep.Error)
	}
	return err
}

// startTime is how long a warden may take to start, on a machine that does
// much else.
const startTime = 10 * time.Second

func pipe() (ends [2]int, err error) {
	err = unix.Pipe2(ends[:], unix.O_CLOEXEC)
	return ends, err
}

// Close ends the warden, waits until nothing of it is left, and removes the
// private working folder.
func (b *Box) Close() error {
	for _, fd := range []*int{&b.dirFD, &b.leash, &b.socket, &b.streams[0], &b.streams[1]} {
		if *fd >= 0 {
			unix.Close(*fd)
			*fd = -1
		}
	}
	if b.warden != nil {
		b.warden.Wait()
		b.warden = nil
	}
	if b.null != nil {
		b.null.Close()
	}
	if b.dir != "" {
		return removeAll(b.dir)
	}
	return nil
}

// Run runs a program to its end. An error means that our side failed: the
// program could not be started or the warden was lost. When ctx ends the run
// is killed, and Run returns the context's error.
func (b *Box) Run(ctx context.Context, run Run) (Result, error) {
	if b.broken != nil {
		return Result{}, b.broken
	}
	if err := ctx.Err(); err != nil {
		return Result{}, err
	}
	b.running++
	id := b.running
	if err := b.order(id, run); err != nil {
		return Result{}, err
	}
	finished, ended := make(chan struct{}), make(chan struct{})
	keep := context.AfterFunc(ctx, func() {
		defer close(ended)
		b.kill(id)
		select {
		case <-finished:
		case <-time.After(grace): // the warden does not answer; what it traces dies with it
			b.warden.Kill()
		}
	})
	carried, rep, err := b.carry(run, id)
	close(finished)
	if !keep() {
		<-ended
	}
	if err == nil && rep.ID != id {
		err = fmt.Errorf("report %d came for run %d", rep.ID, id)
	}
	if err != nil {
		b.broken = fmt.Errorf("%w: %w", ErrLost, err)
		return Result{}, b.broken
	}
	if run.Dir == "" {
		if err := b.empty(); err != nil {
			return Result{}, fmt.Errorf("cannot clean the working folder: %w", err)
		}
	}
	if err := ctx.Err(); err != nil {
		return Result{}, err
	}
	if rep.Error != "" {
		return Result{}, errors.New(rep.Error)
	}
	result := Result{
		Ending: rep.Ending, ExitCode: rep.ExitCode, Signal: rep.Signal,
		Written: carried.written, Left: rep.Left,
		Usage: verdict.Usage{CPU: rep.CPU, Wall: rep.Wall, Memory: rep.Memory},
	}
	fileTooLarge := rep.Signal == int(unix.SIGXFSZ)
	if carried.passed && rep.Ending != PassedMemory || fileTooLarge {
		result.Ending = PassedOutput
	}
	return result, nil
}

// order tells the warden what to run.
func (b *Box) order(id uint32, run Run) error {
	o := order{ID: id, Limits: run.Limits}
	now := task{run.Program, run.Dir}
	if now.Dir == "" {
		now.Dir = b.dir
	}
	if b.known == nil || b.known.Dir != now.Dir || !b.known.Program.equal(now.Program) {
		o.Task = &now
	}
	message, err := o.encode()
	if err != nil {
		return err
	}
	input := run.Input
	if input == nil {
		input = b.null
	}
	err = send(b.socket, message, int(input.Fd()))
	runtime.KeepAlive(input)
	if err != nil {
		b.broken = fmt.Errorf("%w: %w", ErrLost, err)
		return b.broken
	}
	b.known = &now
	return nil
}

func (p Program) equal(q Program) bool {
	return p.Path == q.Path && slices.Equal(p.Args, q.Args) && slices.Equal(p.Env, q.Env)
}

// kill asks the warden to end run id; it does nothing to any other run.
func (b *Box) kill(id uint32) {
	var number [4]byte
	binary.LittleEndian.PutUint32(number[:], id)
	again(func() error { _, err := unix.Write(b.leash, number[:]); return err })
}

// carried says how much passed through a box's streams in one run.
type carried struct {
	sinks   [2]io.Writer
	limit   int64
	written int64
	passed  bool // the output limit
}

const (
	narrow = 64 << 10 // what a pipe holds at first, and is read at once
	wide   = 1 << 20  // the same once it has proved to be busy

	// quiet is how long only the report is waited for. Most runs are over by
	// then, and what they wrote is read once, without a wake-up in between.
	quiet = 2 * time.Millisecond
)

// carry hands on what the program writes until the warden's report comes. By
// then nothing of the run is alive, and what is left in the pipes is all.
func (b *Box) carry(run Run, id uint32) (c carried, rep report, err error) {
	c.sinks = [2]io.Writer{run.Output, run.Errors}
	c.limit = run.Limits.Output
	polls := []unix.PollFd{
		{Fd: int32(b.socket), Events: unix.POLLIN},
		{Fd: int32(b.streams[0]), Events: unix.POLLIN},
		{Fd: int32(b.streams[1]), Events: unix.POLLIN},
	}
	pollBriefly(&polls[0], quiet)
	for polls[0].Revents == 0 {
		if err := again(func() error { _, err := unix.Poll(polls, -1); return err }); err != nil {
			return c, rep, err
		}
		for i := range b.streams {
			if polls[1+i].Revents != 0 {
				if err := b.drain(i, id, &c); err != nil {
					return c, rep, err
				}
			}
		}
	}
	message, _, err := receive(b.socket, b.message)
	if err != nil {
		return c, rep, err
	}
	if rep, err = decodeReport(message); err != nil {
		return c, rep, err
	}
	for i := range b.streams {
		if err := b.drain(i, id, &c); err != nil {
			return c, rep, err
		}
	}
	return c, rep, nil
}

// pollBriefly waits for one descriptor without telling the Go scheduler,
// which would otherwise wake other threads to make up for this one. The
// scheduler can do without it for so short a time.
func pollBriefly(poll *unix.PollFd, wait time.Duration) {
	timeout := unix.NsecToTimespec(wait.Nanoseconds())
	unix.RawSyscall6(unix.SYS_PPOLL, uintptr(unsafe.Pointer(poll)), 1, uintptr(unsafe.Pointer(&timeout)), 0, 0, 0)
}

// drain reads stream i until it is empty.
func (b *Box) drain(i int, id uint32, c *carried) error {
	for {
		n, err := unix.Read(b.streams[i], b.chunk)
		switch {
		case err == unix.EINTR:
			continue
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
			b.chunk = make([]byte, wide)
			for _, fd := range b.streams {
				unix.FcntlInt(uintptr(fd), unix.F_SETPIPE_SZ, wide) // refused where the user has many: then it stays narrow
			}
		}
	}
}

// take counts what was read, hands it on, and reports whether it has just
// passed the limit. What comes after the limit is dropped.
func (c *carried) take(i int, text []byte) (over bool) {
	c.written += int64(len(text))
	if c.limit > 0 && c.written > c.limit {
		over, c.passed = !c.passed, true
		return over
	}
	if c.sinks[i] != nil {
		if _, err := c.sinks[i].Write(text); err != nil {
			c.sinks[i] = nil
		}
	}
	return false
}

// empty removes all that a program left in the working folder, and makes the
// folder anew if it removed that.
func (b *Box) empty() error {
	if isEmpty(b.dirFD) {
		return nil
	}
	unix.Close(b.dirFD)
	b.dirFD = -1
	if err := removeAll(b.dir); err != nil {
		return err
	}
	return b.openDir()
}

func (b *Box) openDir() (err error) {
	if err = os.Mkdir(b.dir, 0o700); err != nil && !errors.Is(err, os.ErrExist) {
		return err
	}
	b.dirFD, err = unix.Open(b.dir, unix.O_RDONLY|unix.O_DIRECTORY|unix.O_CLOEXEC, 0)
	return err
}

// isEmpty reports that an open folder is still there and holds nothing; it is
// asked after each run.
func isEmpty(fd int) bool {
	if _, err := unix.Seek(fd, 0, 0); err != nil {
		return false
	}
	var entries [512]byte
	n, err := unix.Getdents(fd, entries[:])
	if err != nil {
		return false
	}
	_, _, names := unix.ParseDirent(entries[:n], 1, nil)
	return len(names) == 0
}

// removeAll removes a tree even where the program that made it took away the
// right to do so.
func removeAll(path string) error {
	err := os.RemoveAll(path)
	if err == nil {
		return nil
	}
	filepath.WalkDir(path, func(p string, d os.DirEntry, _ error) error {
		if d != nil && d.IsDir() {
			os.Chmod(p, 0o700)
		}
		return nil
	})
	return os.RemoveAll(path)
}

// Memory returns data as an open file that lives in memory only, at offset 0.
// The caller closes it.
func Memory(data []byte) (*os.File, error) {
	fd, err := unix.MemfdCreate("input", unix.MFD_CLOEXEC)
	if err != nil {
		return nil, err
	}
	file := os.NewFile(uintptr(fd), "input")
	if _, err := file.WriteAt(data, 0); err != nil {
		file.Close()
		return nil, err
	}
	return file, nil
}
