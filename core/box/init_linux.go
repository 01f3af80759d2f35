//go:build !portable

package box

import (
	"encoding/binary"
	"errors"
	"fmt"
	"os"
	"runtime"
	"strconv"
	"syscall"
	"time"

	"golang.org/x/sys/unix"
)

// Programs live in a process namespace that their supervisor is outside of, so that
// they can neither name nor see it. A namespace ends with its first process, which
// also gets the orphans; so that one is a process of ours that does nothing else:
// it kills all others there when it is told to, and waits for them.

// initName is the first argument of this binary when it is started as the first
// process of the programs' namespace.
const initName = "cold-init"

// initFD is its socket.
const initFD = 3

// The requests to it. It answers the last two.
const (
	requestKill  = 'k' // kill everything
	requestTidy  = 't' // likewise, wait until it is gone, count what it was, and then renew
	requestRenew = 'r' // give the next process the number that the first of a run gets
)

// A tidyAnswer says what was left at the end of a run.
type tidyAnswer struct {
	left int           // processes that were alive
	time time.Duration // processor time of all that this process has ever waited for
}

// An initProcess is the first process of the programs' namespace, as the supervisor
// knows it.
type initProcess struct {
	started chan error // comes once
	pid     int
	socket  int
	proc    int // a mount of that namespace's /proc that is nowhere yet
	spent   time.Duration
	owed    int   // answers that have not been read
	lost    error // why there will be none any more
}

// startInit begins to start it, on another thread than the one that starts programs, so
// that that one does not wait for it. It is there when ready returns.
func startInit() (*initProcess, error) {
	pair, err := unix.Socketpair(unix.AF_UNIX, unix.SOCK_SEQPACKET|unix.SOCK_CLOEXEC, 0)
	if err != nil {
		return nil, err
	}
	i := &initProcess{socket: pair[0], started: make(chan error, 1)}
	theirs := os.NewFile(uintptr(pair[1]), "requests")
	go func() {
		defer theirs.Close()
		process, err := os.StartProcess("/proc/self/exe", []string{initName}, &os.ProcAttr{
			Files: []*os.File{os.Stdin, os.Stdout, os.Stderr, theirs},
			Env:   []string{"GOMAXPROCS=1"},
			Sys:   &syscall.SysProcAttr{Cloneflags: unix.CLONE_NEWPID},
		})
		if err == nil {
			i.pid = process.Pid
		}
		i.started <- err
	}()
	return i, nil
}

// ready waits until it has started.
func (i *initProcess) ready() error {
	if err := <-i.started; err != nil {
		return fmt.Errorf("cannot start the first process of the programs' namespace: %w", err)
	}
	answer, fd, err := receive(i.socket, make([]byte, 512))
	switch {
	case err != nil:
		return fmt.Errorf("the first process of the programs' namespace failed: %w", err)
	case fd < 0:
		return errors.New(string(answer))
	}
	i.proc = fd
	return nil
}

// showProc puts the namespace's /proc where programs look for it.
func (i *initProcess) showProc() error {
	if err := unix.MoveMount(i.proc, "", unix.AT_FDCWD, "/proc", unix.MOVE_MOUNT_F_EMPTY_PATH); err != nil {
		return fmt.Errorf("cannot show the programs' own /proc: %w", err)
	}
	return nil
}

// enter lets what this thread starts from now on live in the namespace.
func (i *initProcess) enter() error {
	fd, err := openProc(strconv.Itoa(i.pid)+"/ns/pid", unix.O_RDONLY)
	if err != nil {
		return fmt.Errorf("cannot find the programs' namespace: %w", err)
	}
	defer unix.Close(fd)
	if err := unix.Setns(fd, unix.CLONE_NEWPID); err != nil {
		return fmt.Errorf("cannot enter the programs' namespace: %w", err)
	}
	return nil
}

// kill kills everything in the namespace, at one stroke and without waiting.
func (i *initProcess) kill() { send(i.socket, []byte{requestKill}) }

// request sends a request that is answered.
func (i *initProcess) request(what byte) error {
	if err := send(i.socket, []byte{what}); err != nil {
		i.lost = err
		return i.state()
	}
	i.owed++
	return nil
}

// settle waits until all that was requested is done. It says how many processes were
// alive, and the processor time of all that had no other parent any more.
func (i *initProcess) settle() (left int, spent time.Duration, err error) {
	var message [64]byte
	for ; i.owed > 0 && i.lost == nil; i.owed-- {
		text, _, err := receive(i.socket, message[:])
		if err == nil && len(text) != 16 {
			err = fmt.Errorf("it says %q", text)
		}
		if err != nil {
			i.lost = err
			break
		}
		left += int(binary.LittleEndian.Uint64(text))
		total := time.Duration(binary.LittleEndian.Uint64(text[8:]))
		spent += total - i.spent
		i.spent = total
	}
	return left, spent, i.state()
}

func (i *initProcess) state() error {
	if i.lost == nil {
		return nil
	}
	return fmt.Errorf("lost the first process of the programs' namespace: %w", i.lost)
}

// initMain is that process.
func initMain() error {
	runtime.LockOSThread()
	// A signal that it does not handle never reaches the first process of a
	// namespace from inside, whatever it is.
	for number := 1; number <= lastSignal; number++ {
		setAction(number, &signalAction{})
	}
	if err := errors.Join(setName(initName), unix.Prctl(unix.PR_SET_DUMPABLE, 0, 0, 0, 0)); err != nil {
		return err
	}
	proc, numbers, err := ownProc()
	if err != nil {
		return send(initFD, []byte("cannot mount the programs' /proc: "+err.Error()))
	}
	if err := unix.SetNonblock(initFD, true); err != nil {
		return err
	}
	file := os.NewFile(initFD, "requests")
	defer file.Close()
	requests, err := file.SyscallConn()
	if err != nil {
		return err
	}
	err = send(initFD, []byte("ready"), proc)
	unix.Close(proc)
	if err != nil {
		return err
	}
	runtime.UnlockOSThread() // any thread may wait
	for {
		request, err := nextRequest(requests)
		if err != nil {
			return err
		}
		var answer tidyAnswer
		switch request {
		case requestKill:
			unix.Kill(-1, unix.SIGKILL)
			continue
		case requestTidy:
			answer = tidyUp()
		}
		answer.time = reapedTime()
		if numbers >= 0 {
			briefly(unix.SYS_PWRITE64, numbers, []byte("1"))
		}
		var text [16]byte
		binary.LittleEndian.PutUint64(text[:], uint64(answer.left))
		binary.LittleEndian.PutUint64(text[8:], uint64(answer.time))
		if _, err := briefly(unix.SYS_WRITE, initFD, text[:]); err != nil {
			return ended(err)
		}
	}
}

// nextRequest waits for a request. It is the runtime that waits, and that does not hear
// of what is over at once, or it would look after this thread for a while each time, on a
// processor that a program could have.
func nextRequest(requests syscall.RawConn) (request byte, err error) {
	var message [1]byte
	n := 0
	waited := requests.Read(func(fd uintptr) bool {
		n, err = briefly(unix.SYS_READ, int(fd), message[:])
		return err != unix.EAGAIN
	})
	switch {
	case waited != nil:
		return 0, waited
	case err != nil:
		return 0, ended(err)
	case n == 0:
		return 0, errHungUp
	}
	return message[0], nil
}

// tidyUp kills all other processes of the namespace, and returns when they are
// gone.
func tidyUp() (a tidyAnswer) {
	wait := func(options int) bool {
		var pid int
		err := again(func() (err error) { pid, err = unix.Wait4(-1, nil, options|unix.WALL, nil); return err })
		return err == nil && pid > 0
	}
	for wait(unix.WNOHANG) { // those that had ended before
	}
	// While it looks, no process can begin another.
	if unix.Kill(-1, unix.SIGKILL) == nil {
		for wait(0) {
			a.left++
		}
	}
	return a
}

// ownProc makes a mount of /proc that shows the namespace of this process, for reading
// only, and opens the file there that says which number the next process gets; -1 if
// that cannot be set, and later programs have higher numbers.
func ownProc() (proc, numbers int, err error) {
	if proc, err = mountProc(unix.MOUNT_ATTR_RDONLY); err != nil {
		return -1, -1, err
	}
	own, err := mountProc(0)
	if err != nil {
		return -1, -1, err
	}
	defer unix.Close(own)
	if numbers, err = unix.Openat(own, "sys/kernel/ns_last_pid", unix.O_WRONLY|unix.O_CLOEXEC, 0); err != nil {
		numbers = -1
	}
	return proc, numbers, nil
}

// mountProc makes a mount of this namespace's /proc that is nowhere yet.
func mountProc(attributes int) (int, error) {
	fs, err := unix.Fsopen("proc", unix.FSOPEN_CLOEXEC)
	if err != nil {
		return -1, err
	}
	defer unix.Close(fs)
	if err := unix.FsconfigCreate(fs); err != nil {
		return -1, err
	}
	return unix.Fsmount(fs, unix.FSMOUNT_CLOEXEC, attributes|unix.MOUNT_ATTR_NOSUID|unix.MOUNT_ATTR_NODEV|unix.MOUNT_ATTR_NOEXEC)
}
