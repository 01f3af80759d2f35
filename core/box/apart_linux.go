//go:build !portable

package box

import (
	"os"
	"path/filepath"
	"slices"
	"strings"
)

// A folder for temporary files is the working folder of programs where they have a tree of their own,
// and everybody's elsewhere. So it is never shown or hidden as a whole: a person who works right in
// there has what lies beside the source shown piece by piece.

// mostBeside bounds how much of such a folder is shown.
const mostBeside = 200

// apart returns paths with those that hold a place for temporary files taken apart: into what lies
// there and is neither ours nor begins with a dot. Of the root nothing is left.
func apart(paths []string) (list []string) {
	for _, path := range paths {
		if holdsTemporary(path) {
			list = append(list, beside(path)...)
		} else {
			list = append(list, path)
		}
	}
	return list
}

// beside lists what lies in a folder for temporary files: the first by their names, of files and of
// folders half each where there are too many of both.
func beside(folder string) (paths []string) {
	entries, err := os.ReadDir(folder)
	if err != nil || filepath.Clean(folder) == "/" {
		return nil
	}
	shown := func(e os.DirEntry) bool {
		return !strings.HasPrefix(e.Name(), ".") && !strings.HasPrefix(e.Name(), "cold-") && (e.IsDir() || e.Type().IsRegular())
	}
	var files, folders []string
	for _, e := range entries {
		switch path := filepath.Join(folder, e.Name()); {
		case !shown(e):
		case e.IsDir():
			folders = append(folders, path)
		default:
			files = append(files, path)
		}
	}
	folders = folders[:min(len(folders), max(mostBeside/2, mostBeside-len(files)))]
	files = files[:min(len(files), mostBeside-len(folders))]
	return append(files, folders...)
}

// holdsTemporary reports that a path is a place for temporary files, or above one.
func holdsTemporary(path string) bool {
	real, err := filepath.EvalSymlinks(path)
	if err != nil {
		return false
	}
	return slices.ContainsFunc(temporary, func(t string) bool { return Within(strings.TrimSuffix(t, "/"), real) })
}
