package box

import (
	"encoding/json"
	"errors"
	"fmt"
	"time"

	"coldverdict/core/verdict"
	"golang.org/x/sys/unix"
)

// An order asks the warden to run a program; the descriptor of its standard
// input travels beside it.
type order struct {
	ID      uint32
	Program *Program `json:",omitempty"` // nil: the same as in the order before
	Dir     string
	Limits  verdict.Limits
}

// A report is the warden's answer to an order.
type report struct {
	ID       uint32
	Error    string // the program could not be started; all else is zero
	Ending   Ending
	CPU      time.Duration
	Wall     time.Duration
	Memory   int64
	ExitCode int
	Signal   int
	Left     int
}

// maxMessage bounds one order or report, in bytes. An order carries arguments
// and an environment.
const maxMessage = 128 << 10

var errHungUp = errors.New("the other side hung up")

func send(socket int, message any, files ...int) error {
	text, err := json.Marshal(message)
	if err != nil {
		return err
	}
	if len(text) > maxMessage {
		return fmt.Errorf("arguments and environment of %d bytes are too long; at most %d", len(text), maxMessage)
	}
	var rights []byte
	if len(files) > 0 {
		rights = unix.UnixRights(files...)
	}
	return again(func() error { return unix.Sendmsg(socket, text, rights, nil, unix.MSG_NOSIGNAL) })
}

// receive reads one message into message, using buffer as its space, and
// returns the descriptors that came with it.
func receive(socket int, buffer []byte, message any) (files []int, err error) {
	rights := make([]byte, unix.CmsgSpace(4))
	var n, nr int
	err = again(func() (err error) {
		n, nr, _, _, err = unix.Recvmsg(socket, buffer, rights, unix.MSG_CMSG_CLOEXEC)
		return err
	})
	if err != nil {
		return nil, err
	}
	if n == 0 {
		return nil, errHungUp
	}
	if nr > 0 {
		messages, err := unix.ParseSocketControlMessage(rights[:nr])
		if err != nil {
			return nil, err
		}
		for _, m := range messages {
			got, err := unix.ParseUnixRights(&m)
			if err != nil {
				return nil, err
			}
			files = append(files, got...)
		}
	}
	return files, json.Unmarshal(buffer[:n], message)
}

// again repeats a system call that a signal interrupted.
func again(call func() error) error {
	for {
		if err := call(); err != unix.EINTR {
			return err
		}
	}
}
