package box

import "golang.org/x/sys/unix"

const bytesUnread = 0x4004667f // FIONREAD

func pipe2(ends *[2]int) error {
	if err := unix.Pipe(ends[:]); err != nil {
		return err
	}
	unix.CloseOnExec(ends[0])
	unix.CloseOnExec(ends[1])
	return nil
}
