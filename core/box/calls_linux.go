//go:build !portable

package box

import (
	"encoding/binary"
	"time"
	"unsafe"

	"golang.org/x/sys/unix"
)

// The system calls that programs are refused, over and above what the rest of
// the walls keeps from them: the kernel asks a filter about each call
// (seccomp(2)). Some refusals are told: the kernel then asks this process, and
// so lets it see what was tried.

// A refusal is what becomes of one system call. Of several for one call the
// first that fits decides.
type refusal struct {
	call   uint32
	tests  []test     // all must hold
	answer unix.Errno // 0: the call is let through
	tell   string     // what a person is told was tried; empty: nothing
}

// A test holds an argument of a call, as far as mask shows it, against want;
// with want anyBit it asks for any bit of the mask.
type test struct {
	argument   uint32
	mask, want uint32
}

const (
	anyBit = 1<<32 - 1
	whole  = 1<<32 - 1 // mask that shows all of a 32-bit argument
)

const (
	triedNetwork = "tried to open a network connection"
	triedMounts  = "tried to change mounts or namespaces"
)

// socketKind is the part of a socket's type that says its kind, see socket(2).
const socketKind = 0xf

// streams are the kinds of socket that lead only to where both ends agreed on
// it beforehand.
var streams = []uint32{unix.SOCK_STREAM, unix.SOCK_SEQPACKET}

const newNamespaces = unix.CLONE_NEWNS | unix.CLONE_NEWCGROUP | unix.CLONE_NEWUTS | unix.CLONE_NEWIPC |
	unix.CLONE_NEWUSER | unix.CLONE_NEWPID | unix.CLONE_NEWNET

// refusals lists them all. A socket by itself is no connection, and runtimes
// make some only to see whether they could: what is refused is to connect one,
// to listen on one, and the kinds that need neither.
func refusals() (all []refusal) {
	for _, call := range []uint32{unix.SYS_SOCKET, unix.SYS_SOCKETPAIR} {
		for _, kind := range streams {
			all = append(all, refusal{call: call, tests: []test{{0, whole, unix.AF_UNIX}, {1, socketKind, kind}}})
		}
	}
	for _, family := range []uint32{unix.AF_INET, unix.AF_INET6} {
		for _, protocol := range []uint32{0, unix.IPPROTO_TCP} {
			all = append(all, refusal{call: unix.SYS_SOCKET, tests: []test{
				{0, whole, family}, {1, socketKind, unix.SOCK_STREAM}, {2, whole, protocol},
			}})
		}
	}
	all = append(all,
		refusal{call: unix.SYS_SOCKET, tests: []test{{0, whole, unix.AF_UNIX}}, answer: unix.EACCES},
		refusal{call: unix.SYS_SOCKET, tests: []test{{0, whole, unix.AF_NETLINK}}, answer: unix.EACCES},
		refusal{call: unix.SYS_SOCKET, answer: unix.EACCES, tell: triedNetwork},
		refusal{call: unix.SYS_SOCKETPAIR, answer: unix.EACCES},
		// A socket of this machine may lead to a service that acts for the
		// user; only one that leads further is told.
		refusal{call: unix.SYS_CONNECT, answer: unix.ENETUNREACH, tell: triedNetwork},
		refusal{call: unix.SYS_LISTEN, answer: unix.EACCES},
		// These would connect as they send.
		refusal{call: unix.SYS_SENDTO, tests: []test{{3, unix.MSG_FASTOPEN, anyBit}}, answer: unix.ENETUNREACH, tell: triedNetwork},
		refusal{call: unix.SYS_SENDMSG, tests: []test{{2, unix.MSG_FASTOPEN, anyBit}}, answer: unix.ENETUNREACH, tell: triedNetwork},
		refusal{call: unix.SYS_SENDMMSG, tests: []test{{3, unix.MSG_FASTOPEN, anyBit}}, answer: unix.ENETUNREACH, tell: triedNetwork},
		refusal{call: unix.SYS_CLONE, tests: []test{{0, newNamespaces, anyBit}}, answer: unix.EPERM, tell: triedMounts},
	)
	for _, call := range []uint32{
		unix.SYS_MOUNT, unix.SYS_UMOUNT2, unix.SYS_PIVOT_ROOT, unix.SYS_CHROOT, unix.SYS_MOVE_MOUNT, unix.SYS_OPEN_TREE,
		unix.SYS_FSOPEN, unix.SYS_FSMOUNT, unix.SYS_FSCONFIG, unix.SYS_MOUNT_SETATTR, unix.SYS_UNSHARE, unix.SYS_SETNS,
	} {
		all = append(all, refusal{call: call, answer: unix.EPERM, tell: triedMounts})
	}
	// What outlives a process without being a file: System V's and POSIX's
	// queues and memory, and the kernel's keys.
	for _, call := range []uint32{
		unix.SYS_SHMGET, unix.SYS_SHMAT, unix.SYS_MSGGET, unix.SYS_SEMGET, unix.SYS_MQ_OPEN,
		unix.SYS_ADD_KEY, unix.SYS_REQUEST_KEY, unix.SYS_KEYCTL,
		// This one would do what is refused above in its own way.
		unix.SYS_IO_URING_SETUP,
	} {
		all = append(all, refusal{call: call, answer: unix.ENOSYS})
	}
	for _, call := range []uint32{
		unix.SYS_BPF, unix.SYS_PERF_EVENT_OPEN, unix.SYS_USERFAULTFD, unix.SYS_FANOTIFY_INIT, unix.SYS_OPEN_BY_HANDLE_AT,
		unix.SYS_INIT_MODULE, unix.SYS_FINIT_MODULE, unix.SYS_DELETE_MODULE, unix.SYS_KEXEC_LOAD, unix.SYS_SWAPON, unix.SYS_REBOOT,
		unix.SYS_SYSLOG, unix.SYS_ACCT, unix.SYS_QUOTACTL, unix.SYS_SETTIMEOFDAY, unix.SYS_CLOCK_SETTIME,
	} {
		all = append(all, refusal{call: call, answer: unix.EPERM})
	}
	return all
}

// Offsets in struct seccomp_data, and the size of an argument.
const (
	callOffset     = 0
	machineOffset  = 4
	argumentOffset = 16
	argumentSize   = 8
)

// filterProgram translates refusals into what the kernel runs: a program of
// the Berkeley packet filter (McCanne and Jacobson, 1993). Calls in the manner
// of another machine, which have other numbers, do not exist.
func filterProgram(all []refusal, canTell bool) (program []unix.SockFilter) {
	load := func(offset uint32) unix.SockFilter {
		return unix.SockFilter{Code: unix.BPF_LD | unix.BPF_W | unix.BPF_ABS, K: offset}
	}
	give := func(value uint32) unix.SockFilter {
		return unix.SockFilter{Code: unix.BPF_RET | unix.BPF_K, K: value}
	}
	const absent = unix.SECCOMP_RET_ERRNO | uint32(unix.ENOSYS)
	program = append(program,
		load(machineOffset),
		unix.SockFilter{Code: unix.BPF_JMP | unix.BPF_JEQ | unix.BPF_K, K: machine, Jt: 1},
		give(absent),
		load(callOffset),
		unix.SockFilter{Code: unix.BPF_JMP | unix.BPF_JGE | unix.BPF_K, K: otherManner, Jf: 1},
		give(absent),
	)
	for _, r := range all {
		var body []unix.SockFilter
		for _, t := range r.tests {
			body = append(body, load(argumentOffset+argumentSize*t.argument))
			if t.want == anyBit {
				body = append(body, unix.SockFilter{Code: unix.BPF_JMP | unix.BPF_JSET | unix.BPF_K, K: t.mask})
			} else {
				body = append(body, unix.SockFilter{Code: unix.BPF_ALU | unix.BPF_AND | unix.BPF_K, K: t.mask},
					unix.SockFilter{Code: unix.BPF_JMP | unix.BPF_JEQ | unix.BPF_K, K: t.want})
			}
		}
		switch {
		case r.answer == 0:
			body = append(body, give(unix.SECCOMP_RET_ALLOW))
		case r.tell != "" && canTell:
			body = append(body, give(unix.SECCOMP_RET_USER_NOTIF))
		default:
			body = append(body, give(unix.SECCOMP_RET_ERRNO|uint32(r.answer)))
		}
		// Whatever does not fit goes to the end, where the number of the call
		// is loaded again for the next one.
		for i := range body {
			if body[i].Code&7 == unix.BPF_JMP {
				body[i].Jf = uint8(len(body) - 1 - i)
			}
		}
		program = append(program, unix.SockFilter{Code: unix.BPF_JMP | unix.BPF_JEQ | unix.BPF_K, K: r.call, Jf: uint8(len(body))})
		program = append(program, body...)
		if len(r.tests) > 0 {
			program = append(program, load(callOffset))
		}
	}
	return append(program, give(unix.SECCOMP_RET_ALLOW))
}

// refuseCalls puts the filter up for this thread and all that it will start.
// It returns whether the kernel took it, and where it tells of refused calls;
// -1 if it does not.
func refuseCalls() (ok bool, listener int) {
	all := refusals()
	for _, canTell := range []bool{true, false} {
		program := filterProgram(all, canTell)
		description := unix.SockFprog{Len: uint16(len(program)), Filter: &program[0]}
		flags := 0
		if canTell {
			flags = unix.SECCOMP_FILTER_FLAG_NEW_LISTENER
		}
		fd, _, errno := unix.Syscall(unix.SYS_SECCOMP, unix.SECCOMP_SET_MODE_FILTER, uintptr(flags), uintptr(unsafe.Pointer(&description)))
		switch {
		case errno != 0:
			continue
		case canTell:
			return true, int(fd)
		}
		return true, -1
	}
	return false, -1
}

// A question is struct seccomp_notif; a reply struct seccomp_notif_resp.
type question struct {
	id          uint64
	pid, flags  uint32
	call        uint32
	machine     uint32
	instruction uint64
	arguments   [6]uint64
}

type reply struct {
	id    uint64
	value int64
	errno int32
	flags uint32
}

// answerCalls refuses what the kernel asks about, and says what was tried.
func answerCalls(listener int, tell func(words string)) {
	all := refusals()
	for {
		var q question
		_, _, errno := unix.Syscall(unix.SYS_IOCTL, uintptr(listener), unix.SECCOMP_IOCTL_NOTIF_RECV, uintptr(unsafe.Pointer(&q)))
		if errno != 0 { // who asked was killed in the meantime
			time.Sleep(time.Millisecond)
			continue
		}
		answer := reply{id: q.id, errno: -int32(unix.EPERM)}
		for _, r := range all {
			if r.call != q.call || r.tell == "" {
				continue
			}
			answer.errno = -int32(r.answer)
			if r.call == unix.SYS_CONNECT && !leadsOutside(q) {
				answer.errno = -int32(unix.ECONNREFUSED)
			} else {
				tell(r.tell)
			}
			break
		}
		unix.Syscall(unix.SYS_IOCTL, uintptr(listener), unix.SECCOMP_IOCTL_NOTIF_SEND, uintptr(unsafe.Pointer(&answer)))
	}
}

// leadsOutside reports whether the address of a call to connect(2) is one of a
// network. Either way the call is refused, so it does no harm that the program
// could change the address in the meantime.
func leadsOutside(q question) bool {
	var family [2]byte
	here := []unix.Iovec{{Base: &family[0], Len: uint64(len(family))}}
	there := []unix.RemoteIovec{{Base: uintptr(q.arguments[1]), Len: len(family)}}
	if n, err := unix.ProcessVMReadv(int(q.pid), here, there, 0); err != nil || n != len(family) {
		return false
	}
	switch binary.NativeEndian.Uint16(family[:]) {
	case unix.AF_UNIX, unix.AF_NETLINK, unix.AF_UNSPEC:
		return false
	}
	return true
}
