package box

import (
	"os"
	"path/filepath"
)

// removeAll removes a tree even where the program that made it took away the
// right to do so.
func removeAll(path string) error {
	err := os.RemoveAll(path)
	if err == nil {
		return nil
	}
	filepath.WalkDir(path, func(p string, d os.DirEntry, _ error) error {
		if d != nil && d.IsDir() {
			os.Chmod(p, 0o700)
		}
		return nil
	})
	return os.RemoveAll(path)
}
