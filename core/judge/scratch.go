package judge

import (
	"errors"
	"os"
	"path/filepath"

	"golang.org/x/sys/unix"
)

// A scratch is the folder in which the working folders of one call of Run
// lie. As long as its owner lives, it holds a lock on it.
type scratch struct {
	dir  string
	lock *os.File
}

const scratchName = "cold-verdict-run-"

// newScratch makes a scratch inside base, and removes those there that were
// left by a process that was killed.
func newScratch(base string) (*scratch, error) {
	left, _ := filepath.Glob(filepath.Join(base, scratchName+"*"))
	for _, dir := range left {
		if s, err := lockScratch(dir); err == nil {
			s.remove() // what somebody else left stays: it cannot be removed, nor locked
		}
	}
	dir, err := os.MkdirTemp(base, scratchName)
	if err != nil {
		return nil, err
	}
	return lockScratch(dir)
}

func lockScratch(dir string) (*scratch, error) {
	file, err := os.OpenFile(dir, os.O_RDONLY|unix.O_NOFOLLOW|unix.O_DIRECTORY, 0)
	if err != nil {
		return nil, err
	}
	if err := unix.Flock(int(file.Fd()), unix.LOCK_EX|unix.LOCK_NB); err != nil {
		file.Close()
		return nil, err
	}
	return &scratch{dir, file}, nil
}

func (s *scratch) remove() error {
	return errors.Join(os.RemoveAll(s.dir), s.lock.Close())
}
