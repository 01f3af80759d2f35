//go:build !portable

package box

import "golang.org/x/sys/unix"

const (
	machine     = unix.AUDIT_ARCH_X86_64
	otherManner = 0x40000000 // x32: the same processor, other arguments
)

// olderCalls are allowed calls that only this processor has: newer ones do the
// same.
var olderCalls = []uint32{
	unix.SYS_OPEN, unix.SYS_CREAT, unix.SYS_STAT, unix.SYS_LSTAT, unix.SYS_NEWFSTATAT, unix.SYS_ACCESS, unix.SYS_DUP2, unix.SYS_PIPE, unix.SYS_GETDENTS,
	unix.SYS_RENAME, unix.SYS_RENAMEAT, unix.SYS_MKDIR, unix.SYS_RMDIR, unix.SYS_LINK, unix.SYS_UNLINK, unix.SYS_SYMLINK, unix.SYS_READLINK, unix.SYS_MKNOD,
	unix.SYS_POLL, unix.SYS_SELECT,
	unix.SYS_EPOLL_CREATE, unix.SYS_EPOLL_WAIT, unix.SYS_EVENTFD, unix.SYS_SIGNALFD, unix.SYS_FORK, unix.SYS_VFORK, unix.SYS_GETPGRP, unix.SYS_TIME,
	unix.SYS_ALARM, unix.SYS_PAUSE, unix.SYS_ARCH_PRCTL, unix.SYS_SET_THREAD_AREA, unix.SYS_GET_THREAD_AREA,
}

// olderOpens open a file, with their flags second.
var olderOpens = []uint32{unix.SYS_OPEN}

// olderOfFiles are likewise those that change rights, owners and times.
var olderOfFiles = []uint32{unix.SYS_CHMOD, unix.SYS_CHOWN, unix.SYS_LCHOWN, unix.SYS_UTIME, unix.SYS_UTIMES, unix.SYS_FUTIMESAT}

// olderWaits are calls that wait, of this processor only.
var olderWaits = map[int]endless{
	unix.SYS_EPOLL_WAIT: {argument: 3, value: minusOne},
	unix.SYS_POLL:       {argument: 2, value: minusOne},
	unix.SYS_SELECT:     {argument: 4, value: 0},
}
