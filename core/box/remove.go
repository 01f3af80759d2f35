package box

import (
	"errors"
	"fmt"
	"os"
	"path/filepath"
)

// removeAll removes a tree whatever the program that made it did to keep it:
// however deep it is, and where it took away its own rights.
func removeAll(path string) error {
	info, err := os.Lstat(path)
	if err == nil && info.IsDir() {
		err = clearFolder(path, nil)
	}
	if err == nil {
		err = os.Remove(path)
	}
	if err == nil || errors.Is(err, os.ErrNotExist) {
		return nil
	}
	return err
}

// clearFolder removes all that is in a folder but what is kept. A folder in
// there is not gone into: what it holds is moved up, so that no path grows
// long and few files are open, and then it is empty.
func clearFolder(top string, kept map[string]bool) error {
	if err := os.Chmod(top, 0o700); err != nil {
		return err
	}
	moved := 0
	for {
		entries, err := os.ReadDir(top)
		if err != nil {
			return err
		}
		left := 0
		for _, entry := range entries {
			path := filepath.Join(top, entry.Name())
			switch {
			case kept[entry.Name()]:
				continue
			case entry.IsDir():
				left++
				err = emptyInto(path, top, &moved)
			}
			if err == nil {
				err = os.Remove(path)
			}
			if err != nil {
				return err
			}
		}
		if left == 0 {
			return nil
		}
	}
}

// emptyInto removes the files of a folder, and moves its folders to top.
func emptyInto(folder, top string, moved *int) error {
	if err := os.Chmod(folder, 0o700); err != nil {
		return err
	}
	entries, err := os.ReadDir(folder)
	if err != nil {
		return err
	}
	for _, entry := range entries {
		path := filepath.Join(folder, entry.Name())
		if !entry.IsDir() {
			if err := os.Remove(path); err != nil {
				return err
			}
			continue
		}
		if err := os.Chmod(path, 0o700); err != nil { // to move it is to write to it
			return err
		}
		to := ""
		for {
			*moved++
			to = filepath.Join(top, fmt.Sprintf("moved-%d", *moved))
			if _, err := os.Lstat(to); errors.Is(err, os.ErrNotExist) {
				break
			}
		}
		if err := os.Rename(path, to); err != nil {
			// Some rules of the kernel's forbid that; then as deep as it goes.
			if err := os.RemoveAll(path); err != nil {
				return err
			}
		}
	}
	return nil
}
