//go:build !portable

package box

import (
	"bytes"
	"encoding/binary"
	"encoding/json"
	"errors"
	"fmt"
	"time"

	"coldverdict/core/verdict"

	"golang.org/x/sys/unix"
)

// A request asks the supervisor to run a program; the descriptors of its standard
// input and of what it writes to travel beside it.
type request struct {
	ID     uint32
	Limits verdict.Limits
	Input  string // absolute path of standard input; empty: it has none
	Task   *task  // nil: the same as in the request before
}

// A task is what requests that follow each other nearly always share.
type task struct {
	Program Program
	Dir     string
	Files   Files
}

// A report is the supervisor's answer to a request.
type report struct {
	ID       uint32
	Ending   Ending
	CPU      time.Duration
	Wall     time.Duration
	Starved  time.Duration
	Memory   int64
	ExitCode int
	Signal   int
	Left     int
	Filled   bool
	Room     int
	Stack    int64
	OwnSize  bool // the signal of files that grow too large was the program's own doing
	Tried    string
	Error    string // the program could not be started; all else is zero
}

// On the wire a message is a row of numbers and a text, since both sides must
// handle thousands of them a second.

func (o request) encode() ([]byte, error) {
	l := o.Limits
	numbers := []int64{int64(o.ID), int64(l.Time), int64(l.Wall), l.Memory, l.Output, int64(l.Processes)}
	text := append([]byte(o.Input), 0)
	if o.Task == nil {
		return encode(numbers, text), nil
	}
	task, err := json.Marshal(o.Task)
	if most := maxMessage - 8192; len(task) > most {
		return nil, fmt.Errorf("arguments and environment of %d bytes are too long; at most %d", len(task), most)
	}
	return encode(numbers, append(text, task...)), err
}

func decodeRequest(message []byte) (o request, err error) {
	var n [6]int64
	text, err := decode(message, n[:])
	if err != nil {
		return o, err
	}
	o.ID = uint32(n[0])
	o.Limits = verdict.Limits{Time: time.Duration(n[1]), Wall: time.Duration(n[2]), Memory: n[3], Output: n[4], Processes: int(n[5])}
	input, rest, ok := bytes.Cut(text, []byte{0})
	if !ok {
		return o, errors.New("a request has no end of its input's path")
	}
	o.Input = string(input)
	if len(rest) > 0 {
		o.Task = &task{}
		err = json.Unmarshal(rest, o.Task)
	}
	return o, err
}

func (r report) encode() []byte {
	numbers := []int64{int64(r.ID), int64(r.CPU), int64(r.Wall), r.Memory, int64(r.ExitCode), int64(r.Signal), int64(r.Left), number(r.Filled), int64(r.Starved), int64(r.Room), number(r.OwnSize), r.Stack}
	return encode(numbers, []byte(string(r.Ending)+"\x00"+r.Tried+"\x00"+r.Error))
}

func number(yes bool) int64 {
	if yes {
		return 1
	}
	return 0
}

func decodeReport(message []byte) (r report, err error) {
	var n [12]int64
	text, err := decode(message, n[:])
	if err != nil {
		return r, err
	}
	ending, rest, _ := bytes.Cut(text, []byte{0})
	tried, failure, _ := bytes.Cut(rest, []byte{0})
	return report{
		ID: uint32(n[0]), CPU: time.Duration(n[1]), Wall: time.Duration(n[2]), Memory: n[3],
		ExitCode: int(n[4]), Signal: int(n[5]), Left: int(n[6]), Filled: n[7] != 0, Starved: time.Duration(n[8]), Room: int(n[9]), OwnSize: n[10] != 0, Stack: n[11], Ending: Ending(ending), Tried: string(tried), Error: string(failure),
	}, nil
}

func encode(numbers []int64, text []byte) []byte {
	message := make([]byte, 0, 8*len(numbers)+len(text))
	for _, n := range numbers {
		message = binary.LittleEndian.AppendUint64(message, uint64(n))
	}
	return append(message, text...)
}

func decode(message []byte, numbers []int64) (text []byte, err error) {
	if len(message) < 8*len(numbers) {
		return nil, fmt.Errorf("a message of %d bytes is too short", len(message))
	}
	for i := range numbers {
		numbers[i] = int64(binary.LittleEndian.Uint64(message[8*i:]))
	}
	return message[8*len(numbers):], nil
}

// maxMessage bounds one request or report, in bytes.
const maxMessage = 128 << 10

var errHungUp = errors.New("the other end hung up")

// send sends one message with descriptors.
func send(socket int, message []byte, files ...int) error {
	var rights []byte
	if len(files) > 0 {
		rights = unix.UnixRights(files...)
	}
	return ended(again(func() error { return unix.Sendmsg(socket, message, rights, nil, unix.MSG_NOSIGNAL) }))
}

// ended translates what the kernel says where the other end hung up, if perhaps before
// it had read everything.
func ended(err error) error {
	if err == unix.EPIPE || err == unix.ECONNRESET {
		return errHungUp
	}
	return err
}

// receive reads one message into buffer and returns it, with the descriptor
// that came with it, or -1.
func receive(socket int, buffer []byte) (message []byte, file int, err error) {
	message, files, err := receiveAll(socket, buffer)
	if err != nil {
		return nil, -1, err
	}
	switch len(files) {
	case 0:
		return message, -1, nil
	case 1:
		return message, files[0], nil
	}
	for _, fd := range files {
		unix.Close(fd)
	}
	return nil, -1, fmt.Errorf("%d descriptors came with a message", len(files))
}

// mostRights is how many descriptors can come with a message.
const mostRights = 4

// receiveAll reads one message into buffer and returns it, with the descriptors that
// came with it.
func receiveAll(socket int, buffer []byte) (message []byte, files []int, err error) {
	var rights [16 + 4*mostRights]byte
	var n, nr int
	err = again(func() (err error) {
		n, nr, _, _, err = unix.Recvmsg(socket, buffer, rights[:], unix.MSG_CMSG_CLOEXEC)
		return err
	})
	if err != nil {
		return nil, nil, ended(err)
	}
	if n == 0 {
		return nil, nil, errHungUp
	}
	if nr == 0 {
		return buffer[:n], nil, nil
	}
	messages, err := unix.ParseSocketControlMessage(rights[:nr])
	if err != nil {
		return nil, nil, err
	}
	files, err = unix.ParseUnixRights(&messages[0])
	return buffer[:n], files, err
}

// again repeats a system call that a signal interrupted.
func again(call func() error) error {
	for {
		if err := call(); err != unix.EINTR {
			return err
		}
	}
}
