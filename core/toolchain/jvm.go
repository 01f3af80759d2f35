package toolchain

import (
	"bytes"
	"io/fs"
	"os"
	"path/filepath"
	"slices"
	"strings"
)

// mainClass returns the class that has a main method: the one named after the
// source or Main if they have it, and otherwise the first.
func mainClass(dir, source string) string {
	var found []string
	filepath.WalkDir(dir, func(path string, d fs.DirEntry, err error) error {
		if err != nil || !strings.HasSuffix(path, ".class") {
			return nil
		}
		text, err := os.ReadFile(path)
		// In a class file's table of constants every text has a tag and its
		// length before it (Java Virtual Machine Specification, 4.4.7).
		if err == nil && bytes.Contains(text, []byte("\x01\x00\x04main")) &&
			bytes.Contains(text, []byte("\x01\x00\x16([Ljava/lang/String;)V")) {
			name, _ := filepath.Rel(dir, strings.TrimSuffix(path, ".class"))
			found = append(found, strings.ReplaceAll(name, string(filepath.Separator), "."))
		}
		return nil
	})
	for _, name := range []string{strings.TrimSuffix(source, ".java"), "Main"} {
		if slices.Contains(found, name) {
			return name
		}
	}
	if len(found) > 0 {
		return found[0]
	}
	return strings.TrimSuffix(source, ".java")
}
