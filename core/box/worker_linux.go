//go:build !portable

package box

import (
	"context"
	"encoding/binary"
	"encoding/json"
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
	hold    Hold
	dir     string // a folder of its own
	group   group
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

// Open starts a box. Its programs are held as well as the kernel allows; see
// Hold for what that is.
func Open(o Options) (b *Box, err error) {
	b = &Box{
		socket: -1, leash: -1, streams: [2]int{-1, -1},
		message: make([]byte, maxMessage), chunk: make([]byte, narrow),
	}
	defer func() {
		if err != nil {
			err = errors.Join(fmt.Errorf("cannot start a worker: %w", err), b.Close())
			b = nil
		}
	}()
	if b.dir, err = os.MkdirTemp(o.Scratch, "work-"); err != nil {
		return b, err
	}
	if b.null, err = os.OpenFile(os.DevNull, os.O_RDWR, 0); err != nil {
		return b, err
	}
	return b, b.startWarden(o)
}

// Hold says how the box holds what runs in it.
func (b *Box) Hold() Hold { return b.hold }

// ways lists those that can be tried here, the best first. Root needs no user
// namespace to get the others, and is less powerful in one.
func ways(contained bool) []way {
	root := os.Geteuid() == 0
	var list []way
	if contained {
		list = append(list, way{Namespaces, true, true})
		if root {
			list = append(list, way{Namespaces, true, false})
		}
		list = append(list, way{Rules, false, false})
	}
	return append(list, way{NoWalls, true, !root}, way{NoWalls, false, false})
}

// proved remembers for the next box which way worked, and why those before it
// did not.
var proved = struct {
	sync.Mutex
	way    map[bool]int
	denied map[bool][]string
}{way: map[bool]int{}, denied: map[bool][]string{}}

// startWarden starts the warden in the best way that the kernel allows.
func (b *Box) startWarden(o Options) error {
	contained := !o.Uncontained
	if o.ways != nil {
		ready, err := b.start(o, o.ways[0])
		b.hold = o.ways[0].hold(ready, o)
		return err
	}
	list := ways(contained)
	proved.Lock()
	first, denied := proved.way[contained], proved.denied[contained]
	proved.Unlock()
	var failed error
	for i := first; i < len(list); i++ {
		ready, err := b.start(o, list[i])
		if err == nil {
			proved.Lock()
			proved.way[contained], proved.denied[contained] = i, denied
			proved.Unlock()
			b.hold = list[i].hold(ready, o)
			b.hold.Denied = append(denied[:len(denied):len(denied)], b.hold.Denied...)
			return nil
		}
		failed = err
		denied = append(denied[:len(denied):len(denied)], fmt.Sprintf("%s: %v", list[i].words(), err))
	}
	return failed
}

// hold says how a warden holds that was started in this way.
func (w way) hold(ready readiness, o Options) Hold {
	h := Hold{
		Walls: w.walls, Contained: !o.Uncontained, Apart: w.apart, Near: ready.Near,
		Filter: ready.Filter, Told: ready.Told, Groups: o.Groups.String(),
	}
	if ready.Ungrouped != "" {
		h.Groups = ""
		h.Denied = []string{"control groups: " + ready.Ungrouped}
	}
	return h
}

func (w way) words() string {
	switch {
	case w.walls == Rules:
		return "Landlock rules"
	case w.apart && w.newUser:
		return "namespaces for an ordinary user"
	case w.apart:
		return "namespaces"
	}
	return "a worker"
}

var boxes atomic.Int64

// start starts the warden in one way and waits until it is ready.
func (b *Box) start(o Options, w way) (ready readiness, err error) {
	var theirs []*os.File
	defer func() {
		for _, f := range theirs {
			f.Close()
		}
		if err != nil {
			err = errors.Join(err, b.stop())
		}
	}()
	var ungrouped error
	b.group, ungrouped = o.Groups.make(int(boxes.Add(1)))
	pair, err := unix.Socketpair(unix.AF_UNIX, unix.SOCK_SEQPACKET|unix.SOCK_CLOEXEC, 0)
	if err != nil {
		return ready, err
	}
	b.socket = pair[0]
	theirs = append(theirs, os.NewFile(uintptr(pair[1]), "orders"))
	leash, err := pipe()
	if err != nil {
		return ready, err
	}
	b.leash = leash[1]
	theirs = append(theirs, os.NewFile(uintptr(leash[0]), "leash"))
	for i := range b.streams {
		stream, err := pipe()
		if err != nil {
			return ready, err
		}
		b.streams[i] = stream[0]
		theirs = append(theirs, os.NewFile(uintptr(stream[1]), "stream"))
		if err := unix.SetNonblock(stream[0], true); err != nil {
			return ready, err
		}
	}
	b.warden, err = os.StartProcess("/proc/self/exe", []string{wardenName}, &os.ProcAttr{
		Files: append([]*os.File{b.null, b.null, os.Stderr}, theirs...),
		Env:   os.Environ(),
		Sys:   w.attributes(),
	})
	if err != nil {
		return ready, err
	}
	for _, f := range theirs { // so that its end is seen
		f.Close()
	}
	theirs = nil
	message, err := setup{
		Walls: w.walls, Apart: w.apart, NewUser: w.newUser, Folder: b.dir,
		Hidden: o.Hidden, Visible: o.Visible, Group: b.group,
	}.encode()
	if err != nil {
		return ready, err
	}
	if err := send(b.socket, message); err != nil {
		return ready, err
	}
	if ready, err = b.awaitReady(); err == nil && ungrouped != nil {
		ready.Ungrouped = ungrouped.Error()
	}
	return ready, err
}

func (w way) attributes() *syscall.SysProcAttr {
	attributes := &syscall.SysProcAttr{
		// A session of its own keeps the terminal away: its Ctrl-C is for us
		// to act on, and no program finds it under /dev/tty.
		Setsid: true,
	}
	if w.apart {
		attributes.Cloneflags = unix.CLONE_NEWPID | unix.CLONE_NEWNS
	}
	if w.walls == Namespaces {
		attributes.Cloneflags |= unix.CLONE_NEWNET
	}
	if w.newUser {
		uid, gid := os.Geteuid(), os.Getegid()
		attributes.Cloneflags |= unix.CLONE_NEWUSER
		attributes.UidMappings = []syscall.SysProcIDMap{{ContainerID: uid, HostID: uid, Size: 1}}
		attributes.GidMappings = []syscall.SysProcIDMap{{ContainerID: gid, HostID: gid, Size: 1}}
		// In there, to mount and to look after programs; none of it is left
		// to them.
		attributes.AmbientCaps = []uintptr{unix.CAP_SYS_ADMIN, unix.CAP_SYS_PTRACE, unix.CAP_SETPCAP, unix.CAP_SYS_RESOURCE}
	}
	return attributes
}

// awaitReady waits for the warden's first message, which says what it could
// put up.
func (b *Box) awaitReady() (ready readiness, err error) {
	poll := []unix.PollFd{{Fd: int32(b.socket), Events: unix.POLLIN}}
	var count int
	err = again(func() (err error) { count, err = unix.Poll(poll, int(startTime.Milliseconds())); return err })
	if err != nil {
		return ready, err
	}
	if count == 0 {
		return ready, fmt.Errorf("it did not start within %v", startTime)
	}
	message, _, err := receive(b.socket, b.message)
	if err != nil {
		return ready, err
	}
	if err = json.Unmarshal(message, &ready); err == nil && ready.Error != "" {
		err = errors.New(ready.Error)
	}
	return ready, err
}

// startTime is how long a warden may take to start, on a machine that does
// much else.
const startTime = 10 * time.Second

func pipe() (ends [2]int, err error) {
	err = unix.Pipe2(ends[:], unix.O_CLOEXEC)
	return ends, err
}

// Close ends the warden, waits until nothing of it is left, and removes the
// box's folder.
func (b *Box) Close() error {
	err := b.stop()
	if b.null != nil {
		b.null.Close()
	}
	if b.dir != "" {
		err = errors.Join(err, removeAll(b.dir))
	}
	return err
}

// stop ends the warden and all that belongs to it.
func (b *Box) stop() error {
	for _, fd := range []*int{&b.leash, &b.socket, &b.streams[0], &b.streams[1]} {
		if *fd >= 0 {
			unix.Close(*fd)
			*fd = -1
		}
	}
	if b.warden != nil {
		b.warden.Wait()
		b.warden = nil
	}
	err := b.group.remove()
	b.group = group{}
	return err
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
	if err := ctx.Err(); err != nil {
		return Result{}, err
	}
	if rep.Error != "" {
		return Result{}, errors.New(rep.Error)
	}
	result := Result{
		Ending: rep.Ending, ExitCode: rep.ExitCode, Signal: rep.Signal,
		Written: carried.written, Left: rep.Left, Tried: rep.Tried,
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
	if b.known == nil || b.known.Dir != now.Dir || !b.known.Program.equal(now.Program) {
		o.Task = &now
	}
	input := run.Input
	switch {
	case input == nil:
		input = b.null
	case input.Name() != inMemory:
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

// inMemory is the name of a file that has no path.
const inMemory = "in memory"

// Memory returns data as an open file that lives in memory only, at offset 0.
// The caller closes it.
func Memory(data []byte) (*os.File, error) {
	fd, err := unix.MemfdCreate("input", unix.MFD_CLOEXEC)
	if err != nil {
		return nil, err
	}
	file := os.NewFile(uintptr(fd), inMemory)
	if _, err := file.WriteAt(data, 0); err != nil {
		file.Close()
		return nil, err
	}
	return file, nil
}
