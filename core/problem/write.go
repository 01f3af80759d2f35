package problem

import (
	"errors"
	"os"
	"path/filepath"
)

// WriteWhole writes a file so that at every moment, after a crash too, there is
// either the old text or the new one, whole. A link is followed.
func WriteWhole(path string, text []byte, mode os.FileMode) (err error) {
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
	file, err := os.CreateTemp(filepath.Dir(path), "."+filepath.Base(path)+".new-")
	if err != nil {
		return err
	}
	defer func() {
		if err != nil {
			os.Remove(file.Name())
		}
	}()
	_, err = file.Write(text)
	err = errors.Join(err, file.Chmod(mode), file.Sync(), file.Close())
	if err != nil {
		return err
	}
	return os.Rename(file.Name(), path)
}
