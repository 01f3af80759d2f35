// Package intake takes cases over from outside: folders and archives of
// official data, and saved statement pages.
//
// It finds out which files are inputs and which are the outputs to them, and
// says so before anything is written. Archives are not trusted: nothing leaves
// the problem's folder, and one that is too large, or that holds what data has
// no need of, is refused before a byte is written.
package intake

import (
	"archive/tar"
	"archive/zip"
	"bufio"
	"bytes"
	"compress/bzip2"
	"compress/gzip"
	"errors"
	"fmt"
	"io"
	"io/fs"
	"os"
	"path"
	"path/filepath"
	"strings"
)

// What an archive or a folder may hold at the most.
const (
	MostBytes = 4 << 30 // all files together, unpacked
	MostFiles = 200_000
)

// A RefusedError says why nothing is taken from an archive or a folder.
type RefusedError struct{ Text string }

func (e *RefusedError) Error() string { return e.Text }

func refused(format string, args ...any) error { return &RefusedError{fmt.Sprintf(format, args...)} }

// A File is one plain file of a source.
type File struct {
	Path string // relative, with slashes
	Size int64  // bytes
}

// A Source is a folder or an archive that holds data.
type Source struct {
	Files []File
	// walk hands every plain file to visit, which may read it or not.
	walk func(visit func(File, io.Reader) error) error
	done func() error
}

// Close lets go of the source.
func (s *Source) Close() error {
	if s.done == nil {
		return nil
	}
	return s.done()
}

// Open lists what a folder or an archive (.zip, .tar, .tar.gz, .tar.bz2) holds.
// Its error is a RefusedError where that is nothing to take data from.
func Open(name string) (s *Source, err error) {
	info, err := os.Stat(name)
	switch {
	case errors.Is(err, fs.ErrNotExist):
		return nil, refused("there is no folder or archive %s", name)
	case err != nil:
		return nil, err
	case info.IsDir():
		s = openFolder(name)
	case !info.Mode().IsRegular():
		return nil, refused("%s is neither a folder nor an archive", name)
	default:
		if s, err = openArchive(name); err != nil {
			return nil, err
		}
	}
	if err := s.list(); err != nil {
		return nil, errors.Join(err, s.Close())
	}
	return s, nil
}

// list goes through the source once, and refuses what must not be taken.
func (s *Source) list() error {
	folded := map[string]string{}
	var total int64
	return s.walk(func(f File, _ io.Reader) error {
		if isJunk(f.Path) {
			return nil
		}
		lower := strings.ToLower(f.Path)
		if other, ok := folded[lower]; ok {
			return refused("%s and %s are the same name on systems that do not tell case apart; nothing was taken", other, f.Path)
		}
		folded[lower] = f.Path
		total += f.Size
		switch {
		case total > MostBytes:
			return refused("it holds more than %d GiB; nothing was taken; unpack what you need and import that", MostBytes>>30)
		case len(s.Files) == MostFiles:
			return refused("it holds more than %d files; nothing was taken", MostFiles)
		}
		s.Files = append(s.Files, f)
		return nil
	})
}

// isJunk reports files that systems leave behind.
func isJunk(name string) bool {
	base := path.Base(name)
	return strings.HasPrefix(name, "__MACOSX/") || strings.HasPrefix(base, "._") || base == ".DS_Store" || base == "Thumbs.db"
}

// checkPath refuses the name of an archive's entry that leads elsewhere.
func checkPath(name string) error {
	switch {
	case path.IsAbs(name) || strings.ContainsRune(name, '\\') || len(name) > 1 && name[1] == ':':
		return refused("it holds %q, which is no path inside it; nothing was taken", name)
	case !fs.ValidPath(path.Clean(name)) || strings.Contains("/"+name+"/", "/../"):
		return refused("it holds %q, which leads out of it; nothing was taken", name)
	case strings.ContainsFunc(name, func(c rune) bool { return c < ' ' || c == 0x7f }):
		return refused("it holds the name %q, with control characters; nothing was taken", name)
	}
	return nil
}

func openFolder(dir string) *Source {
	return &Source{walk: func(visit func(File, io.Reader) error) error {
		return filepath.WalkDir(dir, func(full string, d fs.DirEntry, err error) error {
			if err != nil {
				return err
			}
			if d.IsDir() {
				if strings.HasPrefix(d.Name(), ".") && full != dir {
					return fs.SkipDir
				}
				return nil
			}
			info, err := os.Stat(full) // a link to a file counts as that file
			if err != nil || !info.Mode().IsRegular() {
				return nil
			}
			relative, err := filepath.Rel(dir, full)
			if err != nil {
				return err
			}
			file := &openedLate{path: full}
			defer file.close()
			return visit(File{filepath.ToSlash(relative), info.Size()}, file)
		})
	}}
}

// An openedLate file is opened when it is read.
type openedLate struct {
	path string
	file *os.File
}

func (l *openedLate) Read(p []byte) (n int, err error) {
	if l.file == nil {
		if l.file, err = os.Open(l.path); err != nil {
			return 0, err
		}
	}
	return l.file.Read(p)
}

func (l *openedLate) close() {
	if l.file != nil {
		l.file.Close()
	}
}

func openArchive(name string) (*Source, error) {
	file, err := os.Open(name)
	if err != nil {
		return nil, err
	}
	var head [512]byte
	n, _ := io.ReadFull(file, head[:])
	switch start := head[:n]; {
	case bytes.HasPrefix(start, []byte("PK\x03\x04")), bytes.HasPrefix(start, []byte("PK\x05\x06")):
		return openZip(file)
	case bytes.HasPrefix(start, []byte{0x1f, 0x8b}):
		return tarSource(file, func(r io.Reader) (io.Reader, error) { return gzip.NewReader(r) }), nil
	case bytes.HasPrefix(start, []byte("BZh")):
		return tarSource(file, func(r io.Reader) (io.Reader, error) { return bzip2.NewReader(r), nil }), nil
	case n == len(head) && bytes.HasPrefix(start[257:], []byte("ustar")):
		return tarSource(file, func(r io.Reader) (io.Reader, error) { return r, nil }), nil
	}
	file.Close()
	return nil, refused("%s is no archive that can be read here (.zip, .tar, .tar.gz, .tar.bz2); unpack it and import the folder", name)
}

func openZip(file *os.File) (*Source, error) {
	info, err := file.Stat()
	if err != nil {
		return nil, err
	}
	archive, err := zip.NewReader(file, info.Size())
	if err != nil && !errors.Is(err, zip.ErrInsecurePath) {
		file.Close()
		return nil, refused("%s is a damaged archive: %v", file.Name(), err)
	}
	walk := func(visit func(File, io.Reader) error) error {
		for _, entry := range archive.File {
			if err := checkPath(entry.Name); err != nil {
				return err
			}
			mode := entry.Mode()
			if mode.IsDir() {
				continue
			}
			if !mode.IsRegular() {
				return refused("it holds %q, which is a link or a device; nothing was taken", entry.Name)
			}
			if entry.UncompressedSize64 > MostBytes {
				return refused("%s alone has more than %d GiB; nothing was taken", entry.Name, MostBytes>>30)
			}
			if err := visitZipped(entry, visit); err != nil {
				return err
			}
		}
		return nil
	}
	return &Source{walk: walk, done: file.Close}, nil
}

func visitZipped(entry *zip.File, visit func(File, io.Reader) error) error {
	content := &zipped{entry: entry}
	defer content.close()
	return visit(File{path.Clean(entry.Name), int64(entry.UncompressedSize64)}, content)
}

// A zipped entry is opened when it is read, and yields no more than it says.
type zipped struct {
	entry *zip.File
	file  io.ReadCloser
	left  int64
}

func (z *zipped) Read(p []byte) (n int, err error) {
	if z.file == nil {
		if z.file, err = z.entry.Open(); err != nil {
			return 0, err
		}
		z.left = int64(z.entry.UncompressedSize64)
	}
	n, err = z.file.Read(p)
	if z.left -= int64(n); z.left < 0 {
		return 0, refused("%s holds more than it says; nothing was taken", z.entry.Name)
	}
	return n, err
}

func (z *zipped) close() {
	if z.file != nil {
		z.file.Close()
	}
}

func tarSource(file *os.File, unpack func(io.Reader) (io.Reader, error)) *Source {
	walk := func(visit func(File, io.Reader) error) error {
		if _, err := file.Seek(0, io.SeekStart); err != nil {
			return err
		}
		plain, err := unpack(bufio.NewReaderSize(file, 1<<20))
		if err != nil {
			return refused("%s is a damaged archive: %v", file.Name(), err)
		}
		// Whatever the headers say, no more than this is ever unpacked.
		const most = MostBytes + MostFiles*1024
		limited := &io.LimitedReader{R: plain, N: most}
		archive := tar.NewReader(limited)
		for {
			header, err := archive.Next()
			switch {
			case err == io.EOF:
				return nil
			case limited.N <= 0:
				return refused("it holds more than %d GiB; nothing was taken; unpack what you need and import that", MostBytes>>30)
			case err != nil && !errors.Is(err, tar.ErrInsecurePath):
				return refused("%s is a damaged archive: %v", file.Name(), err)
			}
			if err := checkPath(header.Name); err != nil {
				return err
			}
			switch header.Typeflag {
			case tar.TypeDir, tar.TypeXGlobalHeader:
				continue
			case tar.TypeReg:
			default:
				return refused("it holds %q, which is a link or a device; nothing was taken", header.Name)
			}
			if header.Size > MostBytes {
				return refused("%s alone has more than %d GiB; nothing was taken", header.Name, MostBytes>>30)
			}
			if err := visit(File{path.Clean(header.Name), header.Size}, archive); err != nil {
				return err
			}
		}
	}
	return &Source{walk: walk, done: file.Close}
}
