//go:build !portable

package box

import (
	"encoding/json"
	"errors"
	"fmt"
	"os"
	"sync"
	"sync/atomic"
	"syscall"
	"time"

	"golang.org/x/sys/unix"
)

// wardenName is the first argument of this binary when it is started as a
// warden.
const wardenName = "cold-warden"

// Open starts a box. Its programs are held as well as the kernel allows; see
// Hold for what that is.
func Open(o Options) (b *Box, err error) {
	b = &Box{
		socket: -1, leash: -1, streams: [streamCount]int{-1, -1, -1},
		message: make([]byte, maxMessage), chunk: make([]byte, narrow),
	}
	b.turns.Store(1)
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

// startWarden starts the warden in the best way that the kernel allows.
func (b *Box) startWarden(o Options) error {
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
		b.hold = w.hold(ready, o)
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
			if b.warden != nil {
				b.warden.Kill() // it may be stuck
			}
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
		if i == 2 && !o.Decides {
			break
		}
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
	if err := b.watchFiles(); err != nil {
		return ready, err
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
		Hidden: o.Hidden, Visible: o.Visible, Coarse: o.Coarse, Decides: o.Decides, Group: b.group,
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

// watchFiles lets the Go scheduler know when there is something to read.
func (b *Box) watchFiles() error {
	fd, err := unix.EpollCreate1(unix.EPOLL_CLOEXEC)
	if err != nil {
		return err
	}
	if err := unix.SetNonblock(fd, true); err != nil { // or os.NewFile would not tell the scheduler
		return err
	}
	b.arrivals = os.NewFile(uintptr(fd), "arrivals")
	for _, from := range append(b.streams[:], b.socket) {
		if from < 0 {
			continue
		}
		if err := unix.EpollCtl(fd, unix.EPOLL_CTL_ADD, from, &unix.EpollEvent{Events: unix.EPOLLIN}); err != nil {
			return err
		}
	}
	b.arrived, err = b.arrivals.SyscallConn()
	return err
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
		// In there, to mount, to look after programs, and to calm the runtime;
		// none of it is left to them.
		attributes.AmbientCaps = []uintptr{unix.CAP_SYS_ADMIN, unix.CAP_SYS_PTRACE, unix.CAP_SETPCAP, unix.CAP_SYS_RESOURCE, unix.CAP_SYS_NICE}
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
	for _, fd := range []*int{&b.leash, &b.socket, &b.streams[0], &b.streams[1], &b.streams[2]} {
		if *fd >= 0 {
			unix.Close(*fd)
			*fd = -1
		}
	}
	if b.arrivals != nil {
		b.arrivals.Close()
		b.arrivals = nil
	}
	if b.warden != nil {
		b.warden.Wait()
		b.warden = nil
	}
	err := b.group.remove()
	b.group = group{}
	return err
}
