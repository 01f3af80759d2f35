package box

import (
	"errors"
	"fmt"
	"os"
	"path/filepath"
	"strings"

	"golang.org/x/sys/unix"
)

// A Scratch is a folder for temporary files that nothing leaves behind: as
// long as its owner lives, it holds a lock on the folder, and one without a
// lock is removed by the next that makes a scratch beside it.
type Scratch struct {
	Dir  string
	lock *os.File
}

// NewScratch makes a scratch inside base, whose name begins with name, and
// removes those of that name there whose owner was killed.
func NewScratch(base, name string) (*Scratch, error) {
	RemoveStale(base, name)
	// It gets its name when it is locked: others remove what is not, and then it is
	// made once more.
	for try := 0; ; try++ {
		young, err := os.MkdirTemp(base, "."+name)
		if err != nil {
			return nil, err
		}
		s, err := lockScratch(young)
		if err == nil {
			s.Dir = filepath.Join(base, strings.TrimPrefix(filepath.Base(young), "."))
			if err = os.Rename(young, s.Dir); err == nil {
				return s, nil
			}
			s.lock.Close()
		}
		os.Remove(young)
		if try == mostScratchTries {
			return nil, fmt.Errorf("cannot lock a new folder in %s: %w", base, err)
		}
	}
}

// mostScratchTries is how often a folder is made again that another process has taken for
// one that was left.
const mostScratchTries = 100

// RemoveStale removes every scratch of that name whose owner was killed.
func RemoveStale(base, name string) {
	for _, pattern := range []string{name + "*", "." + name + "*"} {
		left, _ := filepath.Glob(filepath.Join(base, pattern))
		for _, dir := range left {
			if s, err := lockScratch(dir); err == nil {
				s.Remove() // what somebody else left stays: it cannot be removed, nor locked
			}
		}
	}
}

func lockScratch(dir string) (*Scratch, error) {
	file, err := os.OpenFile(dir, os.O_RDONLY|unix.O_NOFOLLOW|unix.O_DIRECTORY, 0)
	if err != nil {
		return nil, err
	}
	if err := unix.Flock(int(file.Fd()), unix.LOCK_EX|unix.LOCK_NB); err != nil {
		file.Close()
		return nil, err
	}
	// Between the opening and the lock somebody else may have locked and removed
	// it; from here on nobody can.
	opened, err := file.Stat()
	if err == nil {
		var there os.FileInfo
		if there, err = os.Lstat(dir); err == nil && !os.SameFile(opened, there) {
			err = os.ErrNotExist
		}
	}
	if err != nil {
		file.Close()
		return nil, err
	}
	return &Scratch{dir, file}, nil
}

// Remove removes the folder, if it is still there.
func (s *Scratch) Remove() error {
	return errors.Join(removeAll(s.Dir), s.lock.Close())
}
