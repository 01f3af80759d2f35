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
// source or Main if they have it, and otherwise the first; where none has, the
// first class, so that the runtime says what it lacks.
func mainClass(dir, source string) string {
	var found, all []string
	filepath.WalkDir(dir, func(path string, d fs.DirEntry, err error) error {
		if err == nil && d.IsDir() && path == filepath.Join(dir, steppedClasses) {
			return filepath.SkipDir
		}
		if err != nil || !strings.HasSuffix(path, ".class") {
			return nil
		}
		name, _ := filepath.Rel(dir, strings.TrimSuffix(path, ".class"))
		name = strings.ReplaceAll(name, string(filepath.Separator), ".")
		all = append(all, name)
		text, err := os.ReadFile(path)
		// In a class file's table of constants every text has a tag and its
		// length before it (Java Virtual Machine Specification, 4.4.7).
		if err == nil && bytes.Contains(text, []byte("\x01\x00\x04main")) &&
			bytes.Contains(text, []byte("\x01\x00\x16([Ljava/lang/String;)V")) {
			found = append(found, name)
		}
		return nil
	})
	// A class within another is rarely the one, and a compiler makes such for its own ends.
	slices.SortStableFunc(found, func(a, b string) int { return strings.Count(a, "$") - strings.Count(b, "$") })
	stem := strings.TrimSuffix(source, filepath.Ext(source))
	for _, name := range []string{stem, "Main"} {
		if slices.Contains(found, name) {
			return name
		}
	}
	if found = append(found, all...); len(found) > 0 {
		return found[0]
	}
	return stem
}
