//go:build !portable

package box

import (
	"encoding/json"
	"errors"
	"fmt"
	"os"
	"slices"
	"sync"
	"sync/atomic"
	"syscall"
	"time"

	"golang.org/x/sys/unix"
)

// supervisorName is the first argument of this binary when it is started as a
// supervisor.
const supervisorName = "cold-supervisor"

// Open starts a box. Its programs are held as well as the kernel allows; see
// Hold for what that is.
func Open(o Options) (b *Box, err error) {
	b = &Box{
		socket: -1, kills: -1, notes: -1, options: o,
		message: make([]byte, maxMessage), chunk: make([]byte, narrow),
	}
	for i := range b.streams {
		b.streams[i].Store(-1)
	}
	b.turns.Store(1)
	defer func() {
		if err != nil {
			err = errors.Join(fmt.Errorf("cannot start a worker: %w", err), b.Close())
			b = nil
		}
	}()
	if err = Suits(); err != nil {
		return b, err
	}
	if b.dir, err = os.MkdirTemp(o.Scratch, "work-"); err != nil {
		return b, err
	}
	if b.null, err = os.OpenFile(os.DevNull, os.O_RDWR, 0); err != nil {
		return b, err
	}
	return b, b.startSupervisor(o)
}

// leastAddressSpace is the least bound on address space, in bytes, under which programs are run:
// runtimes reserve far more than they use, and one that gets less ends as if the program were wrong.
const leastAddressSpace = 8 << 30

// Suits returns an error where this session bounds address space so far that even a
// correct program could fail. It is asked early, since this program itself needs some.
func Suits() error {
	var now unix.Rlimit
	if err := unix.Getrlimit(unix.RLIMIT_AS, &now); err != nil {
		return err
	}
	if now.Max >= leastAddressSpace {
		return nil
	}
	return fmt.Errorf("this session limits address space (ulimit -v) to %d MiB, and runtimes of languages reserve up to %d MiB; start cold from a session without that limit", now.Max>>20, leastAddressSpace>>20)
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
	return append(list, way{NotIsolated, true, !root}, way{NotIsolated, false, false})
}

// proved remembers the ways that worked. All boxes of one kind in this process
// hold their programs alike, since what the first one holds is told for all.
var proved = struct {
	sync.Mutex
	ways map[bool]provedWay // by whether it contains
}{ways: map[bool]provedWay{}}

type provedWay struct {
	way    way
	denied []string // what was tried before it, and why it could not be had
}

// startSupervisor starts the supervisor in the best way that the kernel allows.
func (b *Box) startSupervisor(o Options) error {
	contained := !o.Uncontained
	proved.Lock()
	known, ok := proved.ways[contained]
	proved.Unlock()
	list := ways(contained)
	switch {
	case o.ways != nil:
		list, known.denied = o.ways, nil
	case ok:
		list = []way{known.way}
	}
	denied := known.denied
	var failed error
	for _, w := range list {
		ready, err := b.start(o, w)
		if err != nil {
			failed = err
			denied = append(denied[:len(denied):len(denied)], fmt.Sprintf("%s: %v", w.words(), err))
			continue
		}
		b.hold, b.way = w.hold(ready, o), w
		b.hold.Denied = append(denied[:len(denied):len(denied)], b.hold.Denied...)
		if o.ways == nil {
			proved.Lock()
			proved.ways[contained] = provedWay{w, denied}
			proved.Unlock()
		}
		return nil
	}
	return failed
}

// hold says how a supervisor holds that was started in this way.
func (w way) hold(ready readiness, o Options) Hold {
	h := Hold{
		Isolation: w.isolation, Contained: !o.Uncontained, Apart: w.apart, Near: ready.Near,
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
	case w.isolation == Rules:
		return "Landlock rules"
	case w.apart && w.newUser:
		return "namespaces for an ordinary user"
	case w.apart:
		return "namespaces"
	}
	return "a worker"
}

var boxes atomic.Int64

// start starts the supervisor in one way and waits until it is ready.
func (b *Box) start(o Options, w way) (ready readiness, err error) {
	defer func() {
		if err != nil {
			if b.supervisor != nil {
				b.supervisor.Kill() // it may be stuck
			}
			err = errors.Join(err, b.stop())
		}
	}()
	var ungrouped error
	b.group, ungrouped = o.Groups.make(int(boxes.Add(1)))
	theirs, err := b.connect()
	defer closeAll(theirs) // so that their end is seen
	if err != nil {
		return ready, err
	}
	if err := b.watchFiles(); err != nil {
		return ready, err
	}
	b.supervisor, err = startProcess("/proc/self/exe", []string{supervisorName}, &os.ProcAttr{
		Files: append([]*os.File{b.null, b.null, os.Stderr}, theirs...),
		Env:   os.Environ(),
		Sys:   w.attributes(),
	})
	if err != nil {
		return ready, err
	}
	closeAll(theirs)
	if err := b.setUp(o, w); err != nil {
		return ready, err
	}
	if ready, err = b.awaitReady(); err != nil {
		return ready, err
	}
	if ungrouped != nil {
		ready.Ungrouped = ungrouped.Error()
	}
	helpers, _, err := descendants(b.supervisor.Pid)
	b.helpers = nil
	for _, p := range helpers {
		b.helpers = append(b.helpers, p.pid)
	}
	return ready, err
}

// connect makes what this process and a supervisor talk through, and returns the supervisor's
// ends, in the order of their descriptors there.
func (b *Box) connect() (theirs []*os.File, err error) {
	pair, err := unix.Socketpair(unix.AF_UNIX, unix.SOCK_SEQPACKET|unix.SOCK_CLOEXEC, 0)
	if err != nil {
		return nil, err
	}
	b.socket = pair[0]
	theirs = append(theirs, os.NewFile(uintptr(pair[1]), "requests"))
	kills, err := pipe()
	if err != nil {
		return theirs, err
	}
	b.kills = kills[1]
	theirs = append(theirs, os.NewFile(uintptr(kills[0]), "kills"))
	if b.notes, err = unix.Eventfd(0, unix.EFD_CLOEXEC|unix.EFD_NONBLOCK); err != nil {
		return theirs, err
	}
	notes, err := unix.FcntlInt(uintptr(b.notes), unix.F_DUPFD_CLOEXEC, 0)
	if err != nil {
		return theirs, err
	}
	return append(theirs, os.NewFile(uintptr(notes), "notes")), nil
}

func closeAll(files []*os.File) {
	for _, f := range files {
		f.Close()
	}
}

// setUp tells the supervisor how it shall hold programs.
func (b *Box) setUp(o Options, w way) error {
	s := setup{
		Isolation: w.isolation, Apart: w.apart, NewUser: w.newUser, Uncontained: o.Uncontained, Folder: b.dir,
		Hidden: slices.DeleteFunc(slices.Clone(o.Hidden), holdsTemporary), Visible: apart(o.Visible), Coarse: o.Coarse, Group: b.group,
	}
	if b.shown != nil {
		s.Reads, s.Writes = b.shown.Reads, b.shown.Writes
	}
	message, err := json.Marshal(s)
	if err != nil {
		return err
	}
	file, err := Memory(message) // which may be longer than a message
	if err != nil {
		return err
	}
	defer file.Close()
	return send(b.socket, []byte("setup"), int(file.Fd()))
}

// watchFiles lets the Go scheduler know when there is something to read.
func (b *Box) watchFiles() error {
	fd, err := unix.EpollCreate1(unix.EPOLL_CLOEXEC)
	if err != nil {
		return err
	}
	if err := unix.SetNonblock(fd, true); err != nil { // or os.NewFile would not tell the scheduler
		return err
	}
	b.arrivals, b.arriving = os.NewFile(uintptr(fd), "arrivals"), fd
	if err := b.watchFile(b.socket); err != nil {
		return err
	}
	b.arrived, err = b.arrivals.SyscallConn()
	return err
}

func (b *Box) watchFile(fd int) error {
	return unix.EpollCtl(b.arriving, unix.EPOLL_CTL_ADD, fd, &unix.EpollEvent{Events: unix.EPOLLIN})
}

// showOnly starts the supervisor anew where what programs see is decided for good at
// its start, and this one is to see something else.
func (b *Box) showOnly(run Run) error {
	if b.hold.Isolation != Rules {
		return nil
	}
	now := run.Program
	if run.Dir != "" {
		now.Writes = append(slices.Clone(now.Writes), run.Dir)
	}
	if b.shown != nil && b.shown.seesLike(now) || b.shown == nil && now.seesLike(Program{}) {
		return nil
	}
	if err := b.stop(); err != nil {
		return err
	}
	b.shown, b.known = &now, nil
	if _, err := b.start(b.options, b.way); err != nil {
		b.broken = fmt.Errorf("%w: %w", ErrLost, err)
		return b.broken
	}
	return nil
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
	if w.isolation == Namespaces {
		attributes.Cloneflags |= unix.CLONE_NEWNET | unix.CLONE_NEWIPC | unix.CLONE_NEWUTS
	}
	if w.newUser {
		uid, gid := os.Geteuid(), os.Getegid()
		attributes.Cloneflags |= unix.CLONE_NEWUSER
		attributes.UidMappings = []syscall.SysProcIDMap{{ContainerID: uid, HostID: uid, Size: 1}}
		attributes.GidMappings = []syscall.SysProcIDMap{{ContainerID: gid, HostID: gid, Size: 1}}
		// In there, to mount, to look after programs, and to calm the runtime;
		// none of it is left to them.
		attributes.AmbientCaps = []uintptr{unix.CAP_SYS_ADMIN, unix.CAP_SYS_PTRACE, unix.CAP_SYS_CHROOT, unix.CAP_SETPCAP, unix.CAP_SYS_RESOURCE, unix.CAP_SYS_NICE}
	}
	return attributes
}

// awaitReady waits for the supervisor's first message, which says what it could
// put up.
func (b *Box) awaitReady() (ready readiness, err error) {
	if err := b.awaitMessage(startTime); err != nil {
		return ready, err
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

// startTime is how long a supervisor may take to start, without the time in which the
// machine has other things to do than to run it.
const startTime = 10 * time.Second

// awaitMessage waits for a message of the supervisor.
func (b *Box) awaitMessage(patience time.Duration) error {
	poll := []unix.PollFd{{Fd: int32(b.socket), Events: unix.POLLIN}}
	first := time.Now()
	for waited := time.Duration(0); waited < patience; {
		began := time.Now()
		var count int
		err := again(func() (err error) { count, err = unix.Poll(poll, int(overseeEvery.Milliseconds())); return err })
		if err != nil || count > 0 {
			return err
		}
		if !b.keptWaiting(began) || time.Since(first) > TooBusy*patience {
			waited += overseeEvery
		}
	}
	return fmt.Errorf("it did not start within %v", patience)
}

func pipe() (ends [2]int, err error) {
	err = unix.Pipe2(ends[:], unix.O_CLOEXEC)
	return ends, err
}

// Close ends the supervisor, waits until nothing of it is left, and removes the
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

// stop ends the supervisor and all that belongs to it.
func (b *Box) stop() error {
	b.closeStreams()
	b.closePipes()
	for _, fd := range []*int{&b.kills, &b.socket, &b.notes} {
		if *fd >= 0 {
			unix.Close(*fd)
			*fd = -1
		}
	}
	if b.arrivals != nil {
		b.arrivals.Close()
		b.arrivals = nil
	}
	if b.supervisor != nil {
		supervisor := b.supervisor
		stuck := time.AfterFunc(grace, func() { supervisor.Kill() })
		supervisor.Wait()
		stuck.Stop()
		b.supervisor = nil
	}
	err := b.group.remove()
	b.group = group{}
	return err
}
