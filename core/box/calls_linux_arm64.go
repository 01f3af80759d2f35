//go:build !portable

package box

import "golang.org/x/sys/unix"

const (
	machine     = unix.AUDIT_ARCH_AARCH64
	otherManner = 1 << 31 // no call has such a number
)

// olderCalls are allowed calls that have other names on this processor.
var olderCalls = []uint32{unix.SYS_FSTATAT, unix.SYS_RENAMEAT}

// olderOpens open a file, with their flags second.
var olderOpens []uint32

// olderOfFiles are likewise those that change rights, owners and times.
var olderOfFiles []uint32

// olderWaits are calls that wait, of this processor only.
var olderWaits = map[int]endless{}
