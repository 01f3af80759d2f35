package box

import (
	"os"
	"sync"

	"golang.org/x/sys/unix"
)

// A Pipe is what a program reads while somebody writes: its read end can be
// the Input of a run. A write never waits for the reader: what does not fit is
// kept, and handed on as there is room.
type Pipe struct {
	Input *os.File

	mu      sync.Mutex
	room    *sync.Cond // something is waiting, or all is over
	write   int        // -1: closed
	waiting []byte
	ending  bool // nothing more will be written
	pumping sync.WaitGroup
}

// NewPipe makes a pipe. It must be closed.
func NewPipe() (*Pipe, error) {
	var ends [2]int
	if err := pipe2(&ends); err != nil {
		return nil, err
	}
	if err := unix.SetNonblock(ends[1], true); err != nil {
		unix.Close(ends[0])
		unix.Close(ends[1])
		return nil, err
	}
	return &Pipe{Input: os.NewFile(uintptr(ends[0]), pathless), write: ends[1]}, nil
}

// Write hands text to the reader, or keeps it until there is room. It never
// fails: that nobody reads any more is no error of the writer.
func (p *Pipe) Write(text []byte) (int, error) {
	p.mu.Lock()
	defer p.mu.Unlock()
	rest := text
	if len(p.waiting) == 0 {
		rest = p.put(rest)
	}
	if len(rest) > 0 && p.write >= 0 && !p.ending {
		if p.room == nil {
			p.room = sync.NewCond(&p.mu)
			p.pumping.Go(p.pump)
		}
		p.waiting = append(p.waiting, rest...)
		p.room.Signal()
	}
	return len(text), nil
}

// put writes what fits, and returns the rest. The lock is held.
func (p *Pipe) put(text []byte) []byte {
	for len(text) > 0 && p.write >= 0 {
		n, err := unix.Write(p.write, text)
		switch {
		case err == unix.EINTR:
		case err == unix.EAGAIN:
			return text
		case err != nil: // nobody reads any more
			return nil
		default:
			text = text[n:]
		}
	}
	return nil
}

// pump hands on what waits, until all is handed on after the end.
func (p *Pipe) pump() {
	p.mu.Lock()
	defer p.mu.Unlock()
	for p.write >= 0 {
		if len(p.waiting) == 0 {
			if p.ending {
				p.shut()
				return
			}
			p.room.Wait()
			continue
		}
		polls := []unix.PollFd{{Fd: int32(p.write), Events: unix.POLLOUT}}
		p.mu.Unlock()
		unix.Poll(polls, 10) // milliseconds; meanwhile it may be closed
		p.mu.Lock()
		p.waiting = p.put(p.waiting)
	}
}

// shut closes the write end. The lock is held.
func (p *Pipe) shut() {
	if p.write >= 0 {
		unix.Close(p.write)
		p.write = -1
	}
}

// End lets the reader see the end of its input once it has read all.
func (p *Pipe) End() {
	p.mu.Lock()
	defer p.mu.Unlock()
	p.ending = true
	if p.room != nil {
		p.room.Signal()
	} else {
		p.shut()
	}
}

// Idle reports that nothing is on its way to the reader.
func (p *Pipe) Idle() bool {
	p.mu.Lock()
	defer p.mu.Unlock()
	return len(p.waiting) == 0 && unreadBytes(p.Input) == 0
}

// Unread returns what nobody has read, at most the first n bytes. It is asked
// when the reader has ended.
func (p *Pipe) Unread(n int) []byte {
	p.mu.Lock()
	defer p.mu.Unlock()
	text := make([]byte, min(n, unreadBytes(p.Input)))
	if len(text) > 0 {
		n, _ := unix.Read(int(p.Input.Fd()), text)
		text = text[:max(n, 0)]
	}
	return append(text, p.waiting[:min(len(p.waiting), n-len(text))]...)
}

func unreadBytes(input *os.File) int {
	n, err := unix.IoctlGetInt(int(input.Fd()), bytesUnread)
	if err != nil {
		return 0
	}
	return n
}

// Close ends everything at once.
func (p *Pipe) Close() error {
	p.mu.Lock()
	p.shut()
	if p.room != nil {
		p.room.Signal()
	}
	p.mu.Unlock()
	p.pumping.Wait()
	return p.Input.Close()
}
