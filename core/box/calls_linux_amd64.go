//go:build !portable

package box

import "golang.org/x/sys/unix"

const (
	machine     = unix.AUDIT_ARCH_X86_64
	otherManner = 0x40000000 // x32: the same processor, other arguments
)
