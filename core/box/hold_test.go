//go:build linux && !portable

package box

import (
	"os"
	"path/filepath"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"golang.org/x/sys/unix"
)

func TestWhatLiesBesideHiddenPathsIsPermittedAndNothingElse(t *testing.T) {
	top := t.TempDir()
	for _, dir := range []string{"home/ice/sledges/cases", "home/ice/other", "home/snow", "usr/bin"} {
		require.NoError(t, os.MkdirAll(filepath.Join(top, dir), 0o755))
	}
	require.NoError(t, os.WriteFile(filepath.Join(top, "home/ice/notes"), nil, 0o644))
	require.NoError(t, os.Symlink("home/ice/sledges", filepath.Join(top, "link")))
	var got []string
	for _, path := range besides(top, []string{top + "/home/ice/sledges"}) {
		got = append(got, strings.TrimPrefix(path, top+"/"))
	}
	assert.ElementsMatch(t, []string{"home/ice/other", "home/ice/notes", "home/snow", "usr"}, got)
	assert.Equal(t, []string{top}, besides(top, nil))
	assert.Equal(t, []string{top}, besides(top, []string{top + "-else"}))
	assert.Empty(t, besides(top, []string{top}))
}

// verdictOf runs a filter on a call as the kernel would.
func verdictOf(t *testing.T, program []unix.SockFilter, call, kind uint32, arguments ...uint32) uint32 {
	loads := map[uint32]uint32{callOffset: call, machineOffset: kind}
	for i, a := range arguments {
		loads[argumentOffset+argumentSize*uint32(i)] = a
	}
	var a uint32
	for at := 0; at < len(program); at++ {
		i := program[at]
		jump := func(holds bool) {
			if holds {
				at += int(i.Jt)
			} else {
				at += int(i.Jf)
			}
		}
		switch i.Code {
		case unix.BPF_LD | unix.BPF_W | unix.BPF_ABS:
			a = loads[i.K]
		case unix.BPF_ALU | unix.BPF_AND | unix.BPF_K:
			a &= i.K
		case unix.BPF_JMP | unix.BPF_JEQ | unix.BPF_K:
			jump(a == i.K)
		case unix.BPF_JMP | unix.BPF_JSET | unix.BPF_K:
			jump(a&i.K != 0)
		case unix.BPF_JMP | unix.BPF_JGE | unix.BPF_K:
			jump(a >= i.K)
		case unix.BPF_RET | unix.BPF_K:
			return i.K
		default:
			t.Fatalf("instruction %#x", i.Code)
		}
	}
	t.Fatal("the filter has no end")
	return 0
}

func TestTheFilterRefusesWhatItShouldAndNothingElse(t *testing.T) {
	refused := func(errno unix.Errno) uint32 { return unix.SECCOMP_RET_ERRNO | uint32(errno) }
	tests := []struct {
		call      uint32
		arguments []uint32
		want      uint32
	}{
		{unix.SYS_READ, nil, unix.SECCOMP_RET_ALLOW},
		{unix.SYS_OPENAT, nil, unix.SECCOMP_RET_ALLOW},
		{unix.SYS_PTRACE, nil, unix.SECCOMP_RET_ALLOW}, // the thread that traces is under it too
		{unix.SYS_SOCKET, []uint32{unix.AF_INET, unix.SOCK_STREAM, 0}, unix.SECCOMP_RET_ALLOW},
		{unix.SYS_SOCKET, []uint32{unix.AF_INET6, unix.SOCK_STREAM, unix.IPPROTO_TCP}, unix.SECCOMP_RET_ALLOW},
		{unix.SYS_SOCKET, []uint32{unix.AF_INET, unix.SOCK_STREAM, unix.IPPROTO_SCTP}, unix.SECCOMP_RET_USER_NOTIF},
		{unix.SYS_SENDTO, []uint32{3, 0, 0, unix.MSG_NOSIGNAL}, unix.SECCOMP_RET_ALLOW},
		{unix.SYS_SENDTO, []uint32{3, 0, 0, unix.MSG_NOSIGNAL | unix.MSG_FASTOPEN}, unix.SECCOMP_RET_USER_NOTIF},
		{unix.SYS_SENDMSG, []uint32{3, 0, unix.MSG_FASTOPEN}, unix.SECCOMP_RET_USER_NOTIF},
		{unix.SYS_LISTEN, nil, refused(unix.EACCES)},
		{unix.SYS_SOCKET, []uint32{unix.AF_INET6, unix.SOCK_DGRAM | unix.SOCK_CLOEXEC}, unix.SECCOMP_RET_USER_NOTIF},
		{unix.SYS_SOCKET, []uint32{unix.AF_NETLINK, unix.SOCK_RAW}, refused(unix.EACCES)},
		{unix.SYS_SOCKET, []uint32{unix.AF_UNIX, unix.SOCK_STREAM | unix.SOCK_NONBLOCK}, unix.SECCOMP_RET_ALLOW},
		{unix.SYS_SOCKET, []uint32{unix.AF_UNIX, unix.SOCK_DGRAM}, refused(unix.EACCES)},
		{unix.SYS_SOCKETPAIR, []uint32{unix.AF_UNIX, unix.SOCK_SEQPACKET}, unix.SECCOMP_RET_ALLOW},
		{unix.SYS_SOCKETPAIR, []uint32{unix.AF_UNIX, unix.SOCK_DGRAM}, refused(unix.EACCES)},
		{unix.SYS_CONNECT, nil, unix.SECCOMP_RET_USER_NOTIF},
		{unix.SYS_CLONE, []uint32{uint32(unix.SIGCHLD)}, unix.SECCOMP_RET_ALLOW},
		{unix.SYS_CLONE, []uint32{unix.CLONE_NEWUSER | uint32(unix.SIGCHLD)}, unix.SECCOMP_RET_USER_NOTIF},
		{unix.SYS_MOUNT, nil, unix.SECCOMP_RET_USER_NOTIF},
		{unix.SYS_IO_URING_SETUP, nil, refused(unix.ENOSYS)},
		{unix.SYS_CLOCK_SETTIME, nil, refused(unix.EPERM)},
	}
	program := filterProgram(refusals(), true)
	for _, tt := range tests {
		assert.Equal(t, tt.want, verdictOf(t, program, tt.call, machine, tt.arguments...), "call %d %v", tt.call, tt.arguments)
		assert.Equal(t, refused(unix.ENOSYS), verdictOf(t, program, tt.call, machine^1, tt.arguments...), "another machine's call")
	}
	silent := filterProgram(refusals(), false)
	assert.Equal(t, refused(unix.EACCES), verdictOf(t, silent, unix.SYS_SOCKET, machine, unix.AF_INET, unix.SOCK_DGRAM), "refused without being told")
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
