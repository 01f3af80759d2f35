//go:build linux && !portable

package box

import (
	"encoding/binary"
	"os"
	"path/filepath"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"golang.org/x/net/bpf"
	"golang.org/x/sys/unix"
)

func TestWhatLiesBesideHiddenPathsIsPermittedAndNothingElse(t *testing.T) {
	top := t.TempDir()
	for _, dir := range []string{"home/ice/teams/cases", "home/ice/other", "home/snow", "usr/bin"} {
		require.NoError(t, os.MkdirAll(filepath.Join(top, dir), 0o755))
	}
	require.NoError(t, os.WriteFile(filepath.Join(top, "home/ice/notes"), nil, 0o644))
	require.NoError(t, os.Symlink("home/ice/teams", filepath.Join(top, "link")))
	var got []string
	for _, path := range besides(top, []string{top + "/home/ice/teams"}) {
		got = append(got, strings.TrimPrefix(path, top+"/"))
	}
	assert.ElementsMatch(t, []string{"home/ice/other", "home/ice/notes", "home/snow", "usr"}, got)
	assert.Equal(t, []string{top}, besides(top, nil))
	assert.Equal(t, []string{top}, besides(top, []string{top + "-else"}))
	assert.Empty(t, besides(top, []string{top}))
}

// verdictOf runs a filter on one system call, given in the words of 32 bits that a
// filter sees.
func verdictOf(t *testing.T, program []bpf.Instruction, call, machine uint32, arguments ...uint32) uint32 {
	t.Helper()
	vm, err := bpf.NewVM(program)
	require.NoError(t, err)
	data := make([]byte, argumentOffset+6*argumentSize)
	binary.BigEndian.PutUint32(data[callOffset:], call) // as this machine of the library's reads
	binary.BigEndian.PutUint32(data[machineOffset:], machine)
	for i, a := range arguments {
		binary.BigEndian.PutUint32(data[argumentOffset+argumentSize*i:], a)
	}
	got, err := vm.Run(data)
	require.NoError(t, err)
	return uint32(got)
}

func TestTheFilterLetsThroughWhatIsListedAndNothingElse(t *testing.T) {
	refused := func(errno unix.Errno) uint32 { return unix.SECCOMP_RET_ERRNO | uint32(errno) }
	const allowed, asked = unix.SECCOMP_RET_ALLOW, unix.SECCOMP_RET_USER_NOTIF
	sigchld := uint32(unix.SIGCHLD)
	tests := []struct {
		what      string
		call      uint32
		arguments []uint32
		want      uint32
	}{
		{"read", unix.SYS_READ, nil, allowed},
		{"open", unix.SYS_OPENAT, nil, allowed},
		{"a call that nobody knows", 5000, nil, refused(unix.ENOSYS)},
		{"trace me", unix.SYS_PTRACE, []uint32{unix.PTRACE_TRACEME}, allowed}, // the thread that traces is under it too
		{"attach", unix.SYS_PTRACE, []uint32{unix.PTRACE_ATTACH}, asked},
		{"peek", unix.SYS_PTRACE, []uint32{unix.PTRACE_PEEKDATA}, asked},
		{"TCP", unix.SYS_SOCKET, []uint32{unix.AF_INET, unix.SOCK_STREAM, 0}, allowed},
		{"TCP by name", unix.SYS_SOCKET, []uint32{unix.AF_INET6, unix.SOCK_STREAM, unix.IPPROTO_TCP}, allowed},
		{"SCTP", unix.SYS_SOCKET, []uint32{unix.AF_INET, unix.SOCK_STREAM, unix.IPPROTO_SCTP}, asked},
		{"send", unix.SYS_SENDTO, []uint32{3, 0, 0, unix.MSG_NOSIGNAL}, allowed},
		{"connect while sending", unix.SYS_SENDTO, []uint32{3, 0, 0, unix.MSG_NOSIGNAL | unix.MSG_FASTOPEN}, asked},
		{"likewise with a message", unix.SYS_SENDMSG, []uint32{3, 0, unix.MSG_FASTOPEN}, asked},
		{"listen", unix.SYS_LISTEN, nil, refused(unix.EACCES)},
		{"UDP", unix.SYS_SOCKET, []uint32{unix.AF_INET6, unix.SOCK_DGRAM | unix.SOCK_CLOEXEC}, asked},
		{"netlink", unix.SYS_SOCKET, []uint32{unix.AF_NETLINK, unix.SOCK_RAW}, refused(unix.EACCES)},
		{"a local stream", unix.SYS_SOCKET, []uint32{unix.AF_UNIX, unix.SOCK_STREAM | unix.SOCK_NONBLOCK}, allowed},
		{"local datagrams", unix.SYS_SOCKET, []uint32{unix.AF_UNIX, unix.SOCK_DGRAM}, refused(unix.EACCES)},
		{"a pair", unix.SYS_SOCKETPAIR, []uint32{unix.AF_UNIX, unix.SOCK_SEQPACKET}, allowed},
		{"a pair for datagrams", unix.SYS_SOCKETPAIR, []uint32{unix.AF_UNIX, unix.SOCK_DGRAM}, refused(unix.EACCES)},
		{"connect", unix.SYS_CONNECT, nil, asked},
		{"fork", unix.SYS_CLONE, []uint32{sigchld}, allowed},
		{"spawn", unix.SYS_CLONE, []uint32{unix.CLONE_VM | unix.CLONE_VFORK | sigchld}, allowed},
		{"a thread", unix.SYS_CLONE, []uint32{unix.CLONE_VM | unix.CLONE_FS | unix.CLONE_FILES | unix.CLONE_SIGHAND | unix.CLONE_THREAD}, allowed},
		{"a child that ends without a signal", unix.SYS_CLONE, []uint32{unix.CLONE_VM}, refused(unix.EPERM)},
		{"a child that ends with another signal", unix.SYS_CLONE, []uint32{uint32(unix.SIGUSR1)}, refused(unix.EPERM)},
		{"a namespace", unix.SYS_CLONE, []uint32{unix.CLONE_NEWUSER | sigchld}, asked},
		{"a thread in a namespace", unix.SYS_CLONE, []uint32{unix.CLONE_NEWNET | unix.CLONE_THREAD}, asked},
		{"an untraced child", unix.SYS_CLONE, []uint32{unix.CLONE_UNTRACED | sigchld}, asked},
		{"a child of its parent", unix.SYS_CLONE, []uint32{unix.CLONE_PARENT | sigchld}, asked},
		{"clone with arguments in memory", unix.SYS_CLONE3, nil, refused(unix.ENOSYS)},
		{"limits of its own", unix.SYS_PRLIMIT64, []uint32{0, unix.RLIMIT_NOFILE}, allowed},
		{"limits of another", unix.SYS_PRLIMIT64, []uint32{1, unix.RLIMIT_NOFILE}, asked},
		{"to be nice", unix.SYS_SETPRIORITY, []uint32{unix.PRIO_PROCESS, 0, 5}, refused(0)},
		{"to make another nice", unix.SYS_SETPRIORITY, []uint32{unix.PRIO_PROCESS, 1, 5}, asked},
		{"to make all of the user's nice", unix.SYS_SETPRIORITY, []uint32{unix.PRIO_USER, 0, 5}, asked},
		{"to run when nothing else does", unix.SYS_SCHED_SETSCHEDULER, []uint32{0, unix.SCHED_IDLE}, refused(0)},
		{"another processor", unix.SYS_SCHED_SETAFFINITY, []uint32{0}, allowed},
		{"another processor for another", unix.SYS_SCHED_SETAFFINITY, []uint32{1}, refused(0)},
		{"to own a file's signals", unix.SYS_FCNTL, []uint32{3, unix.F_SETOWN, 1}, refused(unix.EPERM)},
		{"to duplicate a descriptor", unix.SYS_FCNTL, []uint32{3, unix.F_DUPFD}, allowed},
		{"to type into a terminal", unix.SYS_IOCTL, []uint32{0, unix.TIOCSTI}, refused(unix.ENOTTY)},
		{"to ask for unread bytes", unix.SYS_IOCTL, []uint32{0, bytesUnread}, allowed},
		{"to write to the disk at once", unix.SYS_SYNC, nil, refused(0)},
		{"an attribute", unix.SYS_SETXATTR, nil, refused(unix.EOPNOTSUPP)},
		{"mount", unix.SYS_MOUNT, nil, asked},
		{"io_uring", unix.SYS_IO_URING_SETUP, nil, refused(unix.ENOSYS)},
		{"to set the clock", unix.SYS_CLOCK_SETTIME, nil, asked},
		{"another's memory", unix.SYS_PROCESS_VM_READV, nil, asked},
		{"a signal", unix.SYS_KILL, []uint32{1, 9}, allowed},
		{"a file in memory", unix.SYS_MEMFD_CREATE, nil, refused(unix.ENOSYS)},
	}
	program := filterProgram(filterPlan{}.callRules(), true)
	for _, tt := range tests {
		t.Run(tt.what, func(t *testing.T) {
			assert.Equal(t, tt.want, verdictOf(t, program, tt.call, machine, tt.arguments...))
			assert.Equal(t, refused(unix.ENOSYS), verdictOf(t, program, tt.call, machine^1, tt.arguments...), "another machine's call")
		})
	}
	silent := filterProgram(filterPlan{}.callRules(), false)
	assert.Equal(t, refused(unix.EACCES), verdictOf(t, silent, unix.SYS_SOCKET, machine, unix.AF_INET, unix.SOCK_DGRAM), "refused without being told")
	shared := filterProgram(filterPlan{Shared: true, Supervisor: 5}.callRules(), true)
	assert.EqualValues(t, allowed, verdictOf(t, shared, unix.SYS_TGKILL, machine, 5, 8, uint32(unix.SIGURG)), "the supervisor stops its own threads")
	assert.EqualValues(t, asked, verdictOf(t, shared, unix.SYS_TGKILL, machine, 5, 8, 9))
	assert.EqualValues(t, asked, verdictOf(t, shared, unix.SYS_TGKILL, machine, 7, 8, uint32(unix.SIGURG)))
	assert.EqualValues(t, asked, verdictOf(t, shared, unix.SYS_KILL, machine, 7, 9), "a signal where numbers are shared")
	assert.EqualValues(t, allowed, verdictOf(t, shared, unix.SYS_KILL, machine, 7, 0), "no signal at all")
	assert.EqualValues(t, asked, verdictOf(t, shared, unix.SYS_TGKILL, machine, 7, 8, 9))
	rules := filterProgram(filterPlan{Machine: true}.callRules(), true)
	assert.EqualValues(t, refused(0), verdictOf(t, rules, unix.SYS_FCHMODAT, machine), "rights of the machine's files")
	assert.EqualValues(t, refused(unix.EACCES), verdictOf(t, rules, unix.SYS_OPENAT, machine, 0, 0, unix.O_TRUNC), "a file is cut that is opened for reading")
	assert.EqualValues(t, allowed, verdictOf(t, rules, unix.SYS_OPENAT, machine, 0, 0, unix.O_TRUNC|unix.O_WRONLY))
	assert.EqualValues(t, refused(unix.EACCES), verdictOf(t, rules, unix.SYS_TRUNCATE, machine))
	open := filterProgram(filterPlan{Network: true, Files: true}.callRules(), true)
	assert.EqualValues(t, allowed, verdictOf(t, open, unix.SYS_CONNECT, machine))
	assert.EqualValues(t, allowed, verdictOf(t, open, unix.SYS_MEMFD_CREATE, machine))
	assert.EqualValues(t, asked, verdictOf(t, open, unix.SYS_PRLIMIT64, machine, 1))
}

func FuzzTheFilterAlwaysDecides(f *testing.F) {
	program := filterProgram(filterPlan{Shared: true}.callRules(), true)
	f.Add(uint32(unix.SYS_CLONE), uint32(machine), uint32(0))
	f.Fuzz(func(t *testing.T, call, machine, argument uint32) {
		got := verdictOf(t, program, call, machine, argument, argument, argument)
		assert.Contains(t, []uint32{unix.SECCOMP_RET_ALLOW, unix.SECCOMP_RET_USER_NOTIF, unix.SECCOMP_RET_ERRNO}, got&unix.SECCOMP_RET_ACTION_FULL)
	})
}

func TestGroupsOfOtherProcessesAreLeftAloneAndThoseOfDeadOnesGo(t *testing.T) {
	base := t.TempDir()
	g := &Groups{version: 1, bases: []string{base}}
	own, err := g.make(1)
	require.NoError(t, err)
	alive := filepath.Join(base, groupName+"1-1")
	dead := filepath.Join(base, groupName+"4194999-1") // above the largest number that a process can have
	other := filepath.Join(base, "cold-storage")
	for _, dir := range []string{alive, dead, filepath.Join(dead, "programs"), other} {
		require.NoError(t, os.Mkdir(dir, 0o755))
	}
	g.removeStale()
	assert.DirExists(t, own.Folders[0])
	assert.DirExists(t, alive)
	assert.DirExists(t, other)
	assert.NoDirExists(t, dead)
	require.NoError(t, own.remove())
	assert.NoDirExists(t, own.Folders[0])
}
