//go:build !portable

package box

import "golang.org/x/sys/unix"

const (
	machine     = unix.AUDIT_ARCH_X86_64
	otherManner = 0x40000000 // x32: the same processor, other arguments
)

// olderWaits are calls that wait, of this processor only.
var olderWaits = map[int]endless{
	unix.SYS_EPOLL_WAIT: {argument: 3, value: minusOne},
	unix.SYS_POLL:       {argument: 2, value: minusOne},
	unix.SYS_SELECT:     {argument: 4, value: 0},
}
