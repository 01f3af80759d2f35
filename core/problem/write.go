package problem

import (
	"errors"
	"fmt"
	"io/fs"
	"os"
	"path/filepath"
	"slices"
	"strconv"
	"strings"
	"time"

	"golang.org/x/sys/unix"
)

// newName stands between the name of a file and what makes a temporary name of it.
const newName = ".new-"

// WriteWhole writes a file so that at every moment, after a crash too, there is
// either the old text or the new one, whole. A link is followed.
func WriteWhole(path string, text []byte, mode os.FileMode) (err error) {
	defer func() { err = ofFile(err, path) }()
	if real, err := filepath.EvalSymlinks(path); err == nil {
		path = real
	}
	if info, err := os.Stat(path); err == nil {
		if !info.Mode().IsRegular() {
			// A pipe or a terminal cannot be replaced, only written to.
			return os.WriteFile(path, text, mode)
		}
		mode = info.Mode().Perm()
	}
	file, err := createNew(path)
	if err != nil {
		return err
	}
	_, err = file.Write(text)
	if err = errors.Join(err, file.Chmod(mode), file.Sync()); err == nil {
		err = os.Rename(file.Name(), path)
	}
	if err != nil {
		os.Remove(file.Name())
	}
	return errors.Join(err, file.Close())
}

// ofFile names the file that was to be written, where an error names the one beside it.
func ofFile(err error, path string) error {
	if err == nil {
		return nil
	}
	if of, ok := errors.AsType[*fs.PathError](err); ok {
		err = of.Err
	} else if of, ok := errors.AsType[*os.LinkError](err); ok {
		err = of.Err
	}
	return fmt.Errorf("cannot write %s: %w", path, err)
}

// CanWrite reports why a file cannot be written whole, before anything is done for that; nil: it
// can, as far as that is known.
func CanWrite(path string) error {
	if real, err := filepath.EvalSymlinks(path); err == nil {
		path = real
	}
	info, err := os.Stat(path)
	switch {
	case err == nil && info.IsDir():
		return fmt.Errorf("cannot write %s: it is a folder", path)
	case err == nil && !info.Mode().IsRegular():
		return nil
	}
	file, err := createNew(path)
	if err != nil {
		return ofFile(err, path)
	}
	return errors.Join(os.Remove(file.Name()), file.Close())
}

// createNew makes a file beside path that is locked as long as its owner lives: one
// that is not was left by a process that was killed, and goes.
func createNew(path string) (*os.File, error) {
	const tries = 100 // others may take it for one that was left, until it is locked
	for try := 0; ; try++ {
		file, err := os.CreateTemp(filepath.Dir(path), "."+filepath.Base(path)+newName)
		if err != nil {
			return nil, err
		}
		unix.Flock(int(file.Fd()), unix.LOCK_EX) // where there are no locks, nothing is removed either
		opened, err := file.Stat()
		if err == nil {
			var there fs.FileInfo
			if there, err = os.Lstat(file.Name()); err == nil && os.SameFile(opened, there) {
				return file, nil
			}
		}
		file.Close()
		if try == tries {
			return nil, errors.Join(fmt.Errorf("cannot keep a new file in %s", filepath.Dir(path)), err)
		}
	}
}

// removeLeft removes the temporary files that killed processes left in a folder.
func removeLeft(dir string, entries []os.DirEntry) {
	for _, entry := range entries {
		if !isTemporaryName(entry.Name()) || !entry.Type().IsRegular() {
			continue
		}
		path := filepath.Join(dir, entry.Name())
		file, err := os.OpenFile(path, os.O_RDONLY|unix.O_NOFOLLOW, 0)
		if err != nil {
			continue
		}
		if unix.Flock(int(file.Fd()), unix.LOCK_EX|unix.LOCK_NB) == nil {
			os.Remove(path)
		}
		file.Close()
	}
}

// isTemporaryName reports that a name is what createNew makes of the name of a file that
// is a problem's own. What merely looks alike is a person's.
func isTemporaryName(name string) bool {
	name, hidden := strings.CutPrefix(name, ".")
	base, number, found := strings.Cut(name, newName)
	if _, err := strconv.ParseUint(number, 10, 32); !hidden || !found || err != nil {
		return false
	}
	return base == CasesFile || base == ConfigFile || slices.Contains([]string{".in", ".out", notesExtension}, filepath.Ext(base))
}

// lockWait is how long a change waits for another one to end.
const lockWait = 20 * time.Second

// changing makes a change to the problem's files while no other process does, on the
// problem as it is now. A file system without locks is changed without one.
func (p *Problem) changing(do func(now *Problem) error) error {
	folder, err := os.Open(p.Dir)
	if err != nil {
		return err
	}
	defer folder.Close()
	for began := time.Now(); ; time.Sleep(5 * time.Millisecond) {
		err := unix.Flock(int(folder.Fd()), unix.LOCK_EX|unix.LOCK_NB)
		if err != unix.EWOULDBLOCK && err != unix.EINTR {
			break
		}
		if time.Since(began) > lockWait {
			return &RequestError{fmt.Sprintf("another cold is changing %s and does not come to an end; end it and try again", p.Dir)}
		}
	}
	if p.words.IsSource == nil { // it was never read from its folder
		return do(p)
	}
	now, err := Load(p.Dir, p.words)
	if err != nil {
		return err
	}
	return do(now)
}

// changingCase is changing, with a case as it is now.
func (p *Problem) changingCase(c Case, do func(now *Problem, c Case) error) error {
	return p.changing(func(now *Problem) error {
		i := slices.IndexFunc(now.Cases, func(other Case) bool { return other.Name == c.Name })
		if i < 0 {
			return &RequestError{fmt.Sprintf("%s holds no case %s any more", p.Dir, c.Name)}
		}
		return do(now, now.Cases[i])
	})
}
