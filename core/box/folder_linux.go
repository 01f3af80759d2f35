//go:build !portable

package box

import (
	"errors"
	"io/fs"
	"os"
	"path/filepath"

	"golang.org/x/sys/unix"
)

// A workFolder is where a program works, and what it may write to. It is
// emptied after each run.
type workFolder struct {
	path    string
	fd      int             // the same, open
	mounted bool            // a file system of its own, which bounds what it holds
	kept    map[string]bool // entries that are not the program's
}

func (f *workFolder) open() (err error) {
	if err = os.Mkdir(f.path, 0o700); err != nil && !errors.Is(err, os.ErrExist) {
		return err
	}
	f.fd, err = unix.Open(f.path, unix.O_RDONLY|unix.O_DIRECTORY|unix.O_CLOEXEC, 0)
	return err
}

// untouched reports that the folder is still there and holds nothing; it is
// asked after each run.
func (f *workFolder) untouched() bool {
	if _, err := unix.Seek(f.fd, 0, 0); err != nil {
		return false
	}
	var entries [512]byte
	n, err := unix.Getdents(f.fd, entries[:])
	if err != nil {
		return false
	}
	_, _, names := unix.ParseDirent(entries[:n], len(f.kept)+1, nil)
	for _, name := range names {
		if !f.kept[name] {
			return false
		}
	}
	return true
}

// filled reports that nothing more can be written into a folder that is a
// file system of its own.
func (f *workFolder) filled() bool {
	var s unix.Statfs_t
	return f.mounted && unix.Fstatfs(f.fd, &s) == nil && (s.Bfree == 0 || s.Ffree == 0)
}

// size adds up what the folder's files take, in bytes.
func (f *workFolder) size() (total int64) {
	filepath.WalkDir(f.path, func(_ string, d fs.DirEntry, err error) error {
		if err != nil || !d.Type().IsRegular() {
			return nil
		}
		if info, err := d.Info(); err == nil {
			total += info.Size()
		}
		return nil
	})
	return total
}

// empty removes all that a program left in the folder, and makes the folder
// anew where the program removed it, or put something else in its place.
func (f *workFolder) empty() error {
	if !f.isThere() {
		unix.Close(f.fd)
		if err := removeAll(f.path); err != nil {
			return err
		}
		return f.open()
	}
	return clearFolder(f.path, f.kept)
}

// isThere reports that the path still leads to the folder.
func (f *workFolder) isThere() bool {
	var was, is unix.Stat_t
	return unix.Fstat(f.fd, &was) == nil && unix.Lstat(f.path, &is) == nil && idOf(was) == idOf(is)
}
