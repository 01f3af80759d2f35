package box

import (
	"io"
	"os"
	"path/filepath"

	"golang.org/x/sys/unix"
)

// Files name what a program reads and writes in its working folder in place of
// standard input and standard output. Each is a plain name, or empty.
type Files struct {
	Input  string // holds what Run.Input holds; standard input is empty then
	Output string // opened after the run as Result.File
}

// put copies the input into the working folder, and returns its size.
func (f Files) put(dir string, input *os.File) (int64, error) {
	if f.Input == "" {
		return 0, nil
	}
	file, err := os.OpenFile(filepath.Join(dir, f.Input), os.O_WRONLY|os.O_CREATE|os.O_EXCL, 0o644)
	if err != nil {
		return 0, err
	}
	n, err := io.Copy(file, io.NewSectionReader(input, 0, 1<<62))
	if e := file.Close(); err == nil {
		err = e
	}
	return n, err
}

// take opens what a program wrote; nil where that is no plain file.
func (f Files) take(dir string) *os.File {
	if f.Output == "" {
		return nil
	}
	path := filepath.Join(dir, f.Output)
	fd, err := unix.Open(path, unix.O_RDONLY|unix.O_NOFOLLOW|unix.O_NONBLOCK|unix.O_CLOEXEC, 0)
	if err != nil {
		return nil
	}
	file := os.NewFile(uintptr(fd), path)
	if info, err := file.Stat(); err != nil || !info.Mode().IsRegular() {
		file.Close()
		return nil
	}
	return file
}
