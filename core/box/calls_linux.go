//go:build !portable

package box

import (
	"encoding/binary"
	"fmt"
	"time"
	"unsafe"

	"golang.org/x/net/bpf"
	"golang.org/x/sys/unix"
)

// Programs may use an allow-list of system calls, which the kernel asks a filter
// about: seccomp(2). Whatever is not listed does not exist for them. A few calls
// are answered by the supervisor instead (seccomp_unotify(2)): those that a person
// should hear about, and signals where programs share their process numbers with
// the rest of the machine.

// A callRule is what becomes of one system call, if all its tests hold. Of several
// rules for one call the first that fits decides; where none fits, the call is
// refused with EPERM.
type callRule struct {
	call   uint32
	tests  []argumentTest
	answer answerKind
	errno  unix.Errno // of a refused call; 0: the call does nothing and succeeds
	tell   string     // what a person is told was tried; empty: nothing
}

// An answerKind says who decides about a call, and how.
type answerKind int

const (
	refuse answerKind = iota
	allow
	askAboutSignal // the supervisor lets a signal through that stays within the run
)

// An argumentTest compares an argument of a call, as far as mask shows it, with
// want; with want anyBit it asks for any bit of the mask.
type argumentTest struct {
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
	triedOthers  = "tried to change limits or priorities of other processes"
	triedSignal  = "tried to send a signal to a process that is not its own"
	triedMemory  = "tried to reach into the memory of another process"
	triedSystem  = "tried a system call that only administrators may use"
)

// socketKind is the part of a socket's type that says its kind, see socket(2).
const socketKind = 0xf

// streams are the kinds of socket that lead only to where both ends agreed on
// it beforehand.
var streams = []uint32{unix.SOCK_STREAM, unix.SOCK_SEQPACKET}

// foreignClones are the flags of clone(2) that put the new process into other
// namespaces, or out of its parent's care.
const foreignClones = unix.CLONE_NEWNS | unix.CLONE_NEWCGROUP | unix.CLONE_NEWUTS | unix.CLONE_NEWIPC | unix.CLONE_NEWUSER |
	unix.CLONE_NEWPID | unix.CLONE_NEWNET | unix.CLONE_UNTRACED | unix.CLONE_PARENT | unix.CLONE_PTRACE

// endSignal is the part of clone's flags that is the signal sent at the end.
const endSignal = 0xff

// A filterPlan says which filter a worker needs.
type filterPlan struct {
	Network bool // programs may use the network
	Shared  bool // programs share process numbers with the rest of the machine
	Files   bool // files in memory may be made: a control group counts them
	Machine bool // programs see the machine's own files, whose rights no other means keeps as they are

	Supervisor int // where numbers are shared, the number of this process, which asks and answers
}

// free are the calls that need no look at their arguments.
var free = []uint32{
	// Files. What may be opened is for mounts and Landlock to say.
	unix.SYS_READ, unix.SYS_WRITE, unix.SYS_READV, unix.SYS_WRITEV, unix.SYS_PREAD64, unix.SYS_PWRITE64, unix.SYS_PREADV, unix.SYS_PWRITEV,
	unix.SYS_PREADV2, unix.SYS_PWRITEV2, unix.SYS_OPENAT, unix.SYS_OPENAT2, unix.SYS_CLOSE, unix.SYS_CLOSE_RANGE, unix.SYS_FSTAT, unix.SYS_STATX,
	unix.SYS_LSEEK, unix.SYS_DUP, unix.SYS_DUP3, unix.SYS_PIPE2, unix.SYS_FLOCK, unix.SYS_FSYNC, unix.SYS_FDATASYNC, unix.SYS_SYNC_FILE_RANGE, unix.SYS_TRUNCATE,
	unix.SYS_FTRUNCATE, unix.SYS_FALLOCATE, unix.SYS_GETDENTS64, unix.SYS_GETCWD, unix.SYS_CHDIR, unix.SYS_FCHDIR, unix.SYS_RENAMEAT2,
	unix.SYS_MKDIRAT, unix.SYS_LINKAT, unix.SYS_UNLINKAT, unix.SYS_SYMLINKAT, unix.SYS_READLINKAT, unix.SYS_MKNODAT, unix.SYS_UMASK,
	unix.SYS_FACCESSAT, unix.SYS_FACCESSAT2, unix.SYS_STATFS,
	unix.SYS_FSTATFS, unix.SYS_FADVISE64, unix.SYS_READAHEAD, unix.SYS_SENDFILE, unix.SYS_COPY_FILE_RANGE, unix.SYS_SPLICE, unix.SYS_TEE,
	unix.SYS_GETXATTR, unix.SYS_LGETXATTR, unix.SYS_FGETXATTR, unix.SYS_LISTXATTR, unix.SYS_LLISTXATTR, unix.SYS_FLISTXATTR, unix.SYS_CACHESTAT,
	// Waiting for files, and for time.
	unix.SYS_PPOLL, unix.SYS_PSELECT6, unix.SYS_EPOLL_CREATE1, unix.SYS_EPOLL_CTL, unix.SYS_EPOLL_PWAIT, unix.SYS_EPOLL_PWAIT2, unix.SYS_EVENTFD2,
	unix.SYS_SIGNALFD4, unix.SYS_TIMERFD_CREATE, unix.SYS_TIMERFD_SETTIME, unix.SYS_TIMERFD_GETTIME, unix.SYS_NANOSLEEP, unix.SYS_CLOCK_NANOSLEEP,
	unix.SYS_CLOCK_GETTIME, unix.SYS_CLOCK_GETRES, unix.SYS_GETTIMEOFDAY, unix.SYS_TIMES, unix.SYS_GETITIMER, unix.SYS_SETITIMER, unix.SYS_TIMER_CREATE,
	unix.SYS_TIMER_SETTIME, unix.SYS_TIMER_GETTIME, unix.SYS_TIMER_GETOVERRUN, unix.SYS_TIMER_DELETE,
	// Memory.
	unix.SYS_BRK, unix.SYS_MMAP, unix.SYS_MUNMAP, unix.SYS_MREMAP, unix.SYS_MPROTECT, unix.SYS_MADVISE, unix.SYS_MINCORE, unix.SYS_MSYNC, unix.SYS_MLOCK,
	unix.SYS_MLOCK2, unix.SYS_MUNLOCK, unix.SYS_MLOCKALL, unix.SYS_MUNLOCKALL, unix.SYS_PKEY_ALLOC, unix.SYS_PKEY_FREE, unix.SYS_PKEY_MPROTECT,
	unix.SYS_GET_MEMPOLICY, unix.SYS_SET_MEMPOLICY, unix.SYS_MBIND, unix.SYS_MEMBARRIER, unix.SYS_MAP_SHADOW_STACK, unix.SYS_MSEAL,
	// Processes of one's own, and what they know of themselves.
	unix.SYS_EXECVE, unix.SYS_EXECVEAT, unix.SYS_EXIT, unix.SYS_EXIT_GROUP, unix.SYS_WAIT4, unix.SYS_WAITID, unix.SYS_GETPID, unix.SYS_GETPPID,
	unix.SYS_GETTID, unix.SYS_KCMP, unix.SYS_SETPGID, unix.SYS_GETPGID, unix.SYS_SETSID, unix.SYS_GETSID, unix.SYS_GETUID, unix.SYS_GETEUID, unix.SYS_GETGID, unix.SYS_GETEGID,
	unix.SYS_GETRESUID, unix.SYS_GETRESGID, unix.SYS_GETGROUPS, unix.SYS_SETUID, unix.SYS_SETGID, unix.SYS_SETREUID, unix.SYS_SETREGID, unix.SYS_SETRESUID,
	unix.SYS_SETRESGID, unix.SYS_SETFSUID, unix.SYS_SETFSGID, unix.SYS_SETGROUPS, unix.SYS_CAPGET, unix.SYS_CAPSET, unix.SYS_SET_TID_ADDRESS,
	unix.SYS_SET_ROBUST_LIST, unix.SYS_GET_ROBUST_LIST, unix.SYS_RSEQ, unix.SYS_FUTEX, unix.SYS_FUTEX_WAITV, unix.SYS_FUTEX_WAKE, unix.SYS_FUTEX_WAIT,
	unix.SYS_FUTEX_REQUEUE, unix.SYS_GETRLIMIT, unix.SYS_SETRLIMIT, unix.SYS_GETRUSAGE, unix.SYS_UNAME, unix.SYS_SYSINFO, unix.SYS_GETCPU, unix.SYS_GETRANDOM,
	unix.SYS_PERSONALITY, unix.SYS_GETPRIORITY, unix.SYS_IOPRIO_GET, unix.SYS_SCHED_YIELD, unix.SYS_SCHED_GETAFFINITY, unix.SYS_SCHED_GETPARAM,
	unix.SYS_SCHED_GETSCHEDULER, unix.SYS_SCHED_GETATTR, unix.SYS_SCHED_GET_PRIORITY_MAX, unix.SYS_SCHED_GET_PRIORITY_MIN, unix.SYS_SCHED_RR_GET_INTERVAL,
	// Signals.
	unix.SYS_RT_SIGACTION, unix.SYS_RT_SIGPROCMASK, unix.SYS_RT_SIGRETURN, unix.SYS_RT_SIGPENDING, unix.SYS_RT_SIGSUSPEND, unix.SYS_RT_SIGTIMEDWAIT,
	unix.SYS_SIGALTSTACK, unix.SYS_RESTART_SYSCALL,
	// Sockets that a program has, which lead to itself only.
	unix.SYS_GETSOCKNAME, unix.SYS_GETPEERNAME, unix.SYS_GETSOCKOPT, unix.SYS_SETSOCKOPT, unix.SYS_SHUTDOWN, unix.SYS_RECVFROM, unix.SYS_RECVMSG, unix.SYS_RECVMMSG,
}

// ofFiles are the calls that change rights, owners and times of files, which Landlock
// says nothing about.
var ofFiles = []uint32{unix.SYS_FCHMOD, unix.SYS_FCHMODAT, unix.SYS_FCHMODAT2, unix.SYS_FCHOWN, unix.SYS_FCHOWNAT, unix.SYS_UTIMENSAT}

// told are the calls that no solution needs, and that a person hears about.
var told = []struct {
	words string
	calls []uint32
}{
	{triedMounts, []uint32{
		unix.SYS_MOUNT, unix.SYS_UMOUNT2, unix.SYS_PIVOT_ROOT, unix.SYS_CHROOT, unix.SYS_MOVE_MOUNT, unix.SYS_OPEN_TREE, unix.SYS_FSOPEN, unix.SYS_FSMOUNT,
		unix.SYS_FSCONFIG, unix.SYS_FSPICK, unix.SYS_MOUNT_SETATTR, unix.SYS_UNSHARE, unix.SYS_SETNS,
	}},
	{triedMemory, []uint32{
		unix.SYS_PROCESS_VM_READV, unix.SYS_PROCESS_VM_WRITEV, unix.SYS_PROCESS_MADVISE, unix.SYS_PIDFD_GETFD, unix.SYS_MIGRATE_PAGES, unix.SYS_MOVE_PAGES,
	}},
	{triedSystem, []uint32{
		unix.SYS_BPF, unix.SYS_FANOTIFY_INIT, unix.SYS_OPEN_BY_HANDLE_AT, unix.SYS_INIT_MODULE, unix.SYS_FINIT_MODULE, unix.SYS_DELETE_MODULE,
		unix.SYS_KEXEC_LOAD, unix.SYS_SWAPON, unix.SYS_SWAPOFF, unix.SYS_REBOOT, unix.SYS_ACCT, unix.SYS_QUOTACTL, unix.SYS_SETTIMEOFDAY,
		unix.SYS_CLOCK_SETTIME, unix.SYS_CLOCK_ADJTIME, unix.SYS_ADJTIMEX, unix.SYS_SETHOSTNAME, unix.SYS_SETDOMAINNAME, unix.SYS_VHANGUP,
	}},
}

// signalCalls are the calls that send a signal, each with the place of that among its
// arguments.
var signalCalls = []struct{ call, signal uint32 }{
	{unix.SYS_KILL, 1}, {unix.SYS_TKILL, 1}, {unix.SYS_TGKILL, 2}, {unix.SYS_RT_SIGQUEUEINFO, 1}, {unix.SYS_RT_TGSIGQUEUEINFO, 2},
}

// A ruleList is a list that grows.
type ruleList []callRule

func (l *ruleList) add(rules ...callRule) { *l = append(*l, rules...) }

func (l *ruleList) refused(errno unix.Errno, tell string, calls ...uint32) {
	for _, call := range calls {
		l.add(callRule{call: call, errno: errno, tell: tell})
	}
}

func (l *ruleList) allowed(calls ...uint32) {
	for _, call := range calls {
		l.add(callRule{call: call, answer: allow})
	}
}

// callRules lists them all, but for the calls that are free.
func (p filterPlan) callRules() []callRule {
	var l ruleList
	l.processes()
	p.signals(l.add)
	p.sockets(l.add)
	l.descriptors()
	p.files(&l)
	for _, t := range told {
		l.refused(unix.EPERM, t.words, t.calls...)
	}
	l.allowed(free...)
	l.allowed(olderCalls...)
	return l
}

// processes says what a program may do to processes: to begin some, to limit and schedule itself.
func (l *ruleList) processes() {
	// A process that a program starts sends SIGCHLD at its end, as those of
	// fork(2) and posix_spawn(3) do: with any other signal nobody would follow it.
	// The arguments of clone3 lie in memory, where no filter sees them; whoever
	// finds that it does not exist uses clone.
	l.add(
		callRule{call: unix.SYS_CLONE, tests: []argumentTest{{0, foreignClones, anyBit}}, errno: unix.EPERM, tell: triedMounts},
		callRule{call: unix.SYS_CLONE, tests: []argumentTest{{0, unix.CLONE_THREAD, anyBit}}, answer: allow},
		callRule{call: unix.SYS_CLONE, tests: []argumentTest{{0, endSignal, uint32(unix.SIGCHLD)}}, answer: allow},
	)
	l.refused(unix.ENOSYS, "", unix.SYS_CLONE3)

	// Of oneself, which is process 0 in all of these. A program that steps back behind
	// others could take longer to end, on a busy machine, than its limit allows: it is told
	// that it has, and nothing happens. Likewise where runtimes name their own threads.
	l.add(
		callRule{call: unix.SYS_PRLIMIT64, tests: []argumentTest{{0, whole, 0}}, answer: allow},
		callRule{call: unix.SYS_PRLIMIT64, errno: unix.EPERM, tell: triedOthers},
		callRule{call: unix.SYS_SETPRIORITY, tests: []argumentTest{{0, whole, unix.PRIO_PROCESS}, {1, whole, 0}}},
		callRule{call: unix.SYS_SETPRIORITY, errno: unix.EPERM, tell: triedOthers},
		callRule{call: unix.SYS_SCHED_SETAFFINITY, tests: []argumentTest{{0, whole, 0}}, answer: allow},
	)
	l.refused(0, "", unix.SYS_SCHED_SETAFFINITY, unix.SYS_SCHED_SETSCHEDULER, unix.SYS_SCHED_SETPARAM, unix.SYS_SCHED_SETATTR)
	l.refused(unix.EPERM, "", unix.SYS_IOPRIO_SET, unix.SYS_PERF_EVENT_OPEN, unix.SYS_SYSLOG)

	// The thread that starts programs has this filter too, and traces them. Who
	// else is traced can be neither read nor changed with these.
	for _, request := range []uint32{unix.PTRACE_TRACEME, unix.PTRACE_CONT, unix.PTRACE_SETOPTIONS, unix.PTRACE_GETSIGINFO} {
		l.add(callRule{call: unix.SYS_PTRACE, tests: []argumentTest{{0, whole, request}}, answer: allow})
	}
	l.add(callRule{call: unix.SYS_PTRACE, errno: unix.EPERM, tell: triedMemory})
}

// descriptors says what a program may do to what it has open, and to itself by prctl(2).
func (l *ruleList) descriptors() {
	// A file can send signals to any process of the user: fcntl(2).
	for _, command := range []uint32{unix.F_SETOWN, unix.F_SETSIG, unix.F_SETOWN_EX, unix.F_SETLEASE, unix.F_NOTIFY} {
		l.add(callRule{call: unix.SYS_FCNTL, tests: []argumentTest{{1, whole, command}}, errno: unix.EPERM})
	}
	// A process that nobody may look into could not be measured.
	l.add(callRule{call: unix.SYS_PRCTL, tests: []argumentTest{{0, whole, unix.PR_SET_DUMPABLE}}})
	const ownerOfFile, ownerOfSocket, typeInto, attributes, moreAttributes = 0x8901, 0x8902, unix.TIOCSTI, unix.FS_IOC_SETFLAGS & whole, 0x401c5820
	for _, request := range []uint32{ownerOfFile, ownerOfSocket, typeInto, attributes, moreAttributes} {
		l.add(callRule{call: unix.SYS_IOCTL, tests: []argumentTest{{1, whole, request}}, errno: unix.ENOTTY})
	}
	for _, option := range []uint32{unix.PR_SET_SECCOMP, unix.PR_SCHED_CORE} {
		l.add(callRule{call: unix.SYS_PRCTL, tests: []argumentTest{{0, whole, option}}, errno: unix.EINVAL})
	}
	l.allowed(unix.SYS_FCNTL, unix.SYS_IOCTL, unix.SYS_PRCTL)
}

// files says what a program may do to files.
func (p filterPlan) files(l *ruleList) {
	l.refused(0, "", unix.SYS_SYNC, unix.SYS_SYNCFS) // the whole machine would wait for its disk
	l.refused(unix.EOPNOTSUPP, "", unix.SYS_SETXATTR, unix.SYS_LSETXATTR, unix.SYS_FSETXATTR, unix.SYS_REMOVEXATTR, unix.SYS_LREMOVEXATTR, unix.SYS_FREMOVEXATTR)
	if p.Files {
		l.allowed(unix.SYS_MEMFD_CREATE)
	}
	if !p.Machine {
		l.allowed(ofFiles...)
		l.allowed(olderOfFiles...)
		return
	}
	// Older rules of Landlock's let a file be cut that may only be read.
	cut := func(call, flags uint32) {
		l.add(callRule{call: call, tests: []argumentTest{{flags, unix.O_TRUNC | unix.O_ACCMODE, unix.O_TRUNC | unix.O_RDONLY}}, errno: unix.EACCES})
	}
	cut(unix.SYS_OPENAT, 2)
	for _, call := range olderOpens {
		cut(call, 1)
	}
	l.refused(unix.EACCES, "", unix.SYS_TRUNCATE)
	l.refused(unix.ENOSYS, "", unix.SYS_OPENAT2) // its arguments lie in memory
	l.refused(0, "", ofFiles...)
	l.refused(0, "", olderOfFiles...)
}

// signals lets programs send signals to each other. Where they share process
// numbers with the machine, the supervisor looks at each target.
func (p filterPlan) signals(add func(...callRule)) {
	if p.Shared {
		// Go stops a thread by this signal, wherever it collects garbage. Were it asked about
		// in the thread that traces, the one that answers could be what it waits for.
		add(callRule{call: unix.SYS_TGKILL, answer: allow, tests: []argumentTest{
			{0, whole, uint32(p.Supervisor)}, {2, whole, uint32(unix.SIGURG)},
		}})
	}
	for _, c := range signalCalls {
		if p.Shared {
			add(callRule{call: c.call, tests: []argumentTest{{c.signal, whole, 0}}, answer: allow},
				callRule{call: c.call, answer: askAboutSignal, errno: unix.EPERM, tell: triedSignal})
		} else {
			add(callRule{call: c.call, answer: allow})
		}
	}
	for _, call := range []uint32{unix.SYS_PIDFD_OPEN, unix.SYS_PIDFD_SEND_SIGNAL} {
		if p.Shared {
			add(callRule{call: call, errno: unix.ENOSYS})
		} else {
			add(callRule{call: call, answer: allow})
		}
	}
}

// sockets: a socket by itself is no connection, and runtimes make some only to
// see whether they could. What is refused is to connect one, to listen on one, and
// the kinds that need neither.
func (p filterPlan) sockets(add func(...callRule)) {
	all := []uint32{
		unix.SYS_SOCKET, unix.SYS_SOCKETPAIR, unix.SYS_CONNECT, unix.SYS_BIND, unix.SYS_LISTEN, unix.SYS_ACCEPT, unix.SYS_ACCEPT4,
		unix.SYS_SENDTO, unix.SYS_SENDMSG, unix.SYS_SENDMMSG,
	}
	if p.Network {
		for _, call := range all {
			add(callRule{call: call, answer: allow})
		}
		return
	}
	for _, call := range []uint32{unix.SYS_SOCKET, unix.SYS_SOCKETPAIR} {
		for _, kind := range streams {
			add(callRule{call: call, tests: []argumentTest{{0, whole, unix.AF_UNIX}, {1, socketKind, kind}}, answer: allow})
		}
	}
	for _, family := range []uint32{unix.AF_INET, unix.AF_INET6} {
		for _, protocol := range []uint32{0, unix.IPPROTO_TCP} {
			add(callRule{call: unix.SYS_SOCKET, answer: allow, tests: []argumentTest{
				{0, whole, family}, {1, socketKind, unix.SOCK_STREAM}, {2, whole, protocol},
			}})
		}
	}
	add(
		callRule{call: unix.SYS_SOCKET, tests: []argumentTest{{0, whole, unix.AF_UNIX}}, errno: unix.EACCES},
		callRule{call: unix.SYS_SOCKET, tests: []argumentTest{{0, whole, unix.AF_NETLINK}}, errno: unix.EACCES},
		callRule{call: unix.SYS_SOCKET, errno: unix.EACCES, tell: triedNetwork},
		callRule{call: unix.SYS_SOCKETPAIR, errno: unix.EACCES},
		// A socket of this machine may lead to a service that acts for the
		// user; only one that leads further is told.
		callRule{call: unix.SYS_CONNECT, errno: unix.ENETUNREACH, tell: triedNetwork},
	)
	for _, call := range []uint32{unix.SYS_BIND, unix.SYS_LISTEN, unix.SYS_ACCEPT, unix.SYS_ACCEPT4} {
		add(callRule{call: call, errno: unix.EACCES})
	}
	// These would connect as they send.
	for _, c := range []struct{ call, flags uint32 }{{unix.SYS_SENDTO, 3}, {unix.SYS_SENDMSG, 2}, {unix.SYS_SENDMMSG, 3}} {
		add(callRule{call: c.call, tests: []argumentTest{{c.flags, unix.MSG_FASTOPEN, anyBit}}, errno: unix.ENETUNREACH, tell: triedNetwork},
			callRule{call: c.call, answer: allow})
	}
}

// Offsets in struct seccomp_data, and the size of an argument.
const (
	callOffset     = 0
	machineOffset  = 4
	argumentOffset = 16
	argumentSize   = 8
)

// filterProgram translates rules into what the kernel runs: a program of the
// Berkeley packet filter (McCanne and Jacobson, 1993). Calls in the manner of
// another machine, which have other numbers, do not exist. Without canAsk, what
// the supervisor would be asked about is refused.
func filterProgram(rules []callRule, canAsk bool) (program []bpf.Instruction) {
	load := func(offset uint32) bpf.Instruction { return bpf.LoadAbsolute{Off: offset, Size: 4} }
	const absent = unix.SECCOMP_RET_ERRNO | uint32(unix.ENOSYS)
	program = append(program,
		load(machineOffset),
		bpf.JumpIf{Cond: bpf.JumpEqual, Val: machine, SkipTrue: 1},
		bpf.RetConstant{Val: absent},
		load(callOffset),
		bpf.JumpIf{Cond: bpf.JumpGreaterOrEqual, Val: otherManner, SkipFalse: 1},
		bpf.RetConstant{Val: absent},
	)
	// All rules of one call stand together, behind one comparison of its number.
	var order []uint32
	byCall := map[uint32][]callRule{}
	for _, r := range rules {
		if byCall[r.call] == nil {
			order = append(order, r.call)
		}
		byCall[r.call] = append(byCall[r.call], r)
	}
	for _, call := range order {
		var body []bpf.Instruction
		decided := false
		for _, r := range byCall[call] {
			body = append(body, r.compile(canAsk)...)
			decided = len(r.tests) == 0
		}
		if !decided {
			body = append(body, bpf.RetConstant{Val: unix.SECCOMP_RET_ERRNO | uint32(unix.EPERM)})
		}
		program = append(program, bpf.JumpIf{Cond: bpf.JumpEqual, Val: call, SkipFalse: uint8(len(body))})
		program = append(program, body...)
	}
	return append(program, bpf.RetConstant{Val: absent})
}

// compile returns what decides by one rule; it falls through to its end where a
// test does not hold.
func (r callRule) compile(canAsk bool) (body []bpf.Instruction) {
	decision := unix.SECCOMP_RET_ERRNO | uint32(r.errno)
	switch {
	case r.answer == allow:
		decision = unix.SECCOMP_RET_ALLOW
	case canAsk && (r.tell != "" || r.answer == askAboutSignal):
		decision = unix.SECCOMP_RET_USER_NOTIF
	}
	left := 1 // instructions from here to the end
	body = []bpf.Instruction{bpf.RetConstant{Val: decision}}
	for i := len(r.tests) - 1; i >= 0; i-- {
		t := r.tests[i]
		one := []bpf.Instruction{bpf.LoadAbsolute{Off: argumentOffset + argumentSize*t.argument, Size: 4}}
		if t.want == anyBit {
			one = append(one, bpf.JumpIf{Cond: bpf.JumpBitsSet, Val: t.mask, SkipFalse: uint8(left)})
		} else {
			one = append(one, bpf.ALUOpConstant{Op: bpf.ALUOpAnd, Val: t.mask}, bpf.JumpIf{Cond: bpf.JumpEqual, Val: t.want, SkipFalse: uint8(left)})
		}
		body = append(one, body...)
		left += len(one)
	}
	return body
}

// filterCalls puts the filter up for this thread and all that it will start. It
// returns where the kernel asks about calls; -1 if it cannot.
func (p filterPlan) filterCalls() (listener int, err error) {
	rules := p.callRules()
	for _, canAsk := range []bool{true, false} {
		raw, err := bpf.Assemble(filterProgram(rules, canAsk))
		if err != nil {
			return -1, fmt.Errorf("cannot translate the filter of system calls: %w", err)
		}
		program := make([]unix.SockFilter, len(raw))
		for i, r := range raw {
			program[i] = unix.SockFilter{Code: r.Op, Jt: r.Jt, Jf: r.Jf, K: r.K}
		}
		description := unix.SockFprog{Len: uint16(len(program)), Filter: &program[0]}
		flags := 0
		if canAsk {
			flags = unix.SECCOMP_FILTER_FLAG_NEW_LISTENER
		}
		fd, _, errno := unix.Syscall(unix.SYS_SECCOMP, unix.SECCOMP_SET_MODE_FILTER, uintptr(flags), uintptr(unsafe.Pointer(&description)))
		switch {
		case errno == 0 && canAsk:
			return int(fd), nil
		case errno == 0:
			return -1, nil
		case !canAsk:
			return -1, fmt.Errorf("the kernel takes no filter of system calls: %w", errno)
		}
	}
	return -1, nil
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

// fits reports that all tests of a rule hold for a call that the kernel asks
// about.
func (r callRule) fits(q question) bool {
	if r.call != q.call {
		return false
	}
	for _, t := range r.tests {
		got := uint32(q.arguments[t.argument]) & t.mask
		if t.want == anyBit && got == 0 || t.want != anyBit && got != t.want {
			return false
		}
	}
	return true
}

// answerCalls answers what the kernel asks about, and says what was tried. within
// says whether a signal that a thread wants to send stays within the run.
func (p filterPlan) answerCalls(listener int, within func(thread int, call uint32, target int) bool, tell func(words string)) {
	rules := p.callRules()
	for {
		var q question
		_, _, errno := unix.Syscall(unix.SYS_IOCTL, uintptr(listener), unix.SECCOMP_IOCTL_NOTIF_RECV, uintptr(unsafe.Pointer(&q)))
		if errno != 0 { // who asked was killed in the meantime
			time.Sleep(time.Millisecond)
			continue
		}
		answer := reply{id: q.id, errno: -int32(unix.EPERM)}
		for _, r := range rules {
			if !r.fits(q) {
				continue
			}
			answer.errno = -int32(r.errno)
			switch {
			case r.answer == askAboutSignal && within(int(q.pid), q.call, int(int32(q.arguments[0]))):
				// The arguments are numbers in registers: nothing can change them now.
				answer.errno, answer.flags = 0, unix.SECCOMP_USER_NOTIF_FLAG_CONTINUE
			case r.call == unix.SYS_CONNECT && !leadsOutside(q):
				answer.errno = -int32(unix.ECONNREFUSED)
			default:
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
