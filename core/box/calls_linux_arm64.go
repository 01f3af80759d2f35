//go:build !portable

package box

import "golang.org/x/sys/unix"

const (
	machine     = unix.AUDIT_ARCH_AARCH64
	otherManner = 1 << 31 // no call has such a number
)

// olderWaits are calls that wait, of this processor only.
var olderWaits = map[int]endless{}
