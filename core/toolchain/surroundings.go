package toolchain

import (
	"io/fs"
	"os"
	"path/filepath"
	"slices"
	"strings"

	"coldverdict/core/box"
)

// What a build is made from, besides its source and its tools: the files that the compiler says it
// has read, and the names of those that it would have read instead if they had been there.

// ownHeaders is where a machine's owner puts headers; it is searched before the system's.
const ownHeaders = "/usr/local/include"

// mostSurroundings bounds how many files of a folder are looked at. What changes in a larger one
// is seen where a source includes it.
const mostSurroundings = 20_000

// besideSource are the names of headers that a source may include from its own folder.
var besideSource = []string{"*.h", "*.h[hpx+]*", "*.inc", "*/*.h", "*/*.h[hpx+]*", "*/*.inc"}

// surroundings changes with the names of files that a compiler could find from now on: headers
// beside the source and in the folders that the person has named for headers and libraries. Where
// the compiler does not say which files it reads, it changes with those in the latter, too.
func (b *Build) surroundings() string {
	says := b.Language.Includes != ""
	var names []string
	if says {
		beside := os.DirFS(filepath.Dir(b.Source))
		for _, pattern := range besideSource {
			found, _ := fs.Glob(beside, pattern)
			names = append(names, found...)
		}
	}
	for _, dir := range b.searched() {
		names = append(names, listing(dir, !says)...)
	}
	return strings.Join(names, "\x00")
}

// searched lists the folders that a person has named for what builds of a language read.
func (b *Build) searched() (dirs []string) {
	dirs = foldersOf(slices.DeleteFunc(b.Language.variables(), func(name string) bool { return !strings.HasSuffix(name, "PATH") }))
	if len(b.Language.Build) == 0 {
		return dirs
	}
	if b.Language.Includes != "" {
		dirs = append(dirs, ownHeaders)
	}
	if !strings.Contains(strings.Join(b.Language.Run, " "), "{runtime}") { // which reads what it needs when it runs
		dirs = append(dirs, b.Language.sees()...)
	}
	return dirs
}

// listing names the files below a folder, with their sizes and times where all shall be
// told apart, and always those of libraries, which no compiler names.
func listing(dir string, all bool) (names []string) {
	filepath.WalkDir(dir, func(path string, entry fs.DirEntry, err error) error {
		if len(names) == mostSurroundings {
			return fs.SkipAll
		}
		if err != nil || entry.IsDir() {
			return nil // what cannot be read cannot be included
		}
		if all || isLibrary(entry.Name()) || entry.Type()&fs.ModeSymlink != 0 {
			path += " " + changeStamp(path)
		}
		names = append(names, path)
		return nil
	})
	return names
}

func isLibrary(name string) bool {
	return strings.HasSuffix(name, ".a") || strings.HasSuffix(name, ".o") || strings.Contains(name, ".so")
}

// textOf tells the texts of an included file apart: it is that text, or, of a file of the system's,
// its size and time.
func textOf(path string) string {
	if box.SeenByAll(path) {
		return changeStamp(path)
	}
	text, err := os.ReadFile(path)
	if err != nil {
		return err.Error()
	}
	return string(text)
}
