//go:build !portable

package box

import (
	"errors"
	"io/fs"
	"os"
	"path/filepath"

	"golang.org/x/sys/unix"
)

// A workFolder is where a program works, and what it may write to. Each run finds it
// empty, and as it was made.
type workFolder struct {
	path    string
	fd      int             // the same, open
	mounted bool            // a file system of its own, which bounds what it holds
	kept    map[string]bool // entries that are not the program's
	fresh   unix.Stat_t     // as it is when nobody has touched it
}

func (f *workFolder) open() (err error) {
	if f.fd >= 0 {
		unix.Close(f.fd)
	}
	if err = os.Mkdir(f.path, 0o700); err != nil && !errors.Is(err, os.ErrExist) {
		return err
	}
	if f.fd, err = unix.Open(f.path, unix.O_RDONLY|unix.O_DIRECTORY|unix.O_CLOEXEC, 0); err != nil {
		return err
	}
	return f.note()
}

// note remembers what the folder is like before a run.
func (f *workFolder) note() error { return unix.Fstat(f.fd, &f.fresh) }

// untouched reports that the folder is there, holds nothing, and never held anything,
// and that its rights are what they were; it is asked after each run.
func (f *workFolder) untouched() bool {
	var now unix.Stat_t
	if err := unix.Fstat(f.fd, &now); err != nil || now.Mode != f.fresh.Mode || now.Mtim != f.fresh.Mtim || now.Ctim != f.fresh.Ctim {
		return false
	}
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
		if err := removeAll(f.path); err != nil {
			return err
		}
		return f.open()
	}
	if err := clearFolder(f.path, f.kept); err != nil {
		return err
	}
	return f.note()
}

// isThere reports that the path still leads to the folder.
func (f *workFolder) isThere() bool {
	var was, is unix.Stat_t
	return unix.Fstat(f.fd, &was) == nil && unix.Lstat(f.path, &is) == nil && idOf(was) == idOf(is)
}
