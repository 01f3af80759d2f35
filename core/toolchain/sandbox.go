package toolchain

import (
	"fmt"
	"os"
	"path/filepath"
	"slices"
	"strings"

	"coldverdict/core/box"
)

// What builds and programs may see of the machine, besides what the system has for
// everybody: the installation of the language's own tools, the build itself, and for
// a build what lies beside the source. What the caller of a box hides stays hidden.

// installation lists what must be seen for a tool to run: the tool, with the links
// that lead to it, and the folders that it was installed into.
func installation(tool string) (paths []string) {
	if tool == "" {
		return nil
	}
	real, err := filepath.EvalSymlinks(tool)
	if err != nil {
		return nil // that it is not there is found when it is run
	}
	for _, path := range []string{tool, real} {
		if box.SeenByAll(path) {
			continue
		}
		if !slices.Contains(paths, path) {
			paths = append(paths, path)
		}
		if root := prefix(path); root != "" && !slices.Contains(paths, root) {
			paths = append(paths, root)
		}
	}
	return paths
}

// prefix is the folder that a program was installed into, if that holds nothing
// else: the one that its bin lies in. Empty: there is none.
func prefix(path string) string {
	dir := filepath.Dir(path)
	switch filepath.Base(dir) {
	case "bin", "sbin", "libexec":
		dir = filepath.Dir(dir)
	}
	home, err := os.UserHomeDir()
	if dir == "/" || err != nil || dir == filepath.Join(home, ".local") || dir == filepath.Join(home, ".cargo") || box.Within(home, dir) {
		return ""
	}
	return dir
}

// sees lists the files that a language's entry names as its own.
func (l *Language) sees() (paths []string) {
	for _, pattern := range l.Sees {
		paths = append(paths, inHome(pattern)...)
	}
	return paths
}

// reads lists what a build and its runs may see, besides what lies beside the source.
func (b *Build) reads() (paths []string) {
	paths = slices.Concat(installation(b.compiler), installation(b.runtime), b.Language.sees())
	if b.library != "" {
		paths = append(paths, b.library)
	}
	return paths
}

// asks reports that a command wants to know of the folder that the source came from.
func asks(commands ...Command) bool {
	return slices.ContainsFunc(commands, func(c Command) bool {
		return slices.ContainsFunc(c, func(word string) bool { return strings.Contains(word, "{folder}") })
	})
}

// buildReads lists what a build may see.
func (b *Build) buildReads() []string {
	paths := b.reads()
	if asks(slices.Concat(b.Language.Build, b.Language.BuildAgain, b.Language.Checked, b.Language.CheckedAgain, b.Language.Traced, b.Language.Stepped, b.Language.SteppedAgain)...) {
		paths = append(paths, filepath.Dir(b.Source))
	}
	if b.warm != "" {
		paths = append(paths, b.warm)
	}
	return append(paths, foldersOf(b.Language.variables())...)
}

// foldersOf lists the folders that variables name.
func foldersOf(variables []string) (dirs []string) {
	for _, name := range variables {
		for _, dir := range filepath.SplitList(os.Getenv(name)) {
			if filepath.IsAbs(dir) {
				dirs = append(dirs, dir)
			}
		}
	}
	return dirs
}

// variables names the variables that a language's tools depend on.
func (l *Language) variables() (names []string) {
	for _, name := range slices.Concat(l.Compiler.Depends, l.Runtime.Depends) {
		if name, ok := strings.CutPrefix(name, "$"); ok {
			names = append(names, name)
		}
	}
	return names
}

// buildEnvironment is what a compiler knows of the person's environment. What looks
// like a home is a folder of the language's own, which only its builds use.
func (l *Language) buildEnvironment(own, temporary string) []string {
	env := environment()
	for _, name := range append(l.variables(), "JAVA_HOME") {
		if value, ok := os.LookupEnv(name); ok {
			env = append(env, name+"="+value)
		}
	}
	// A compiler that is killed leaves its temporary files where it works.
	return overlaid(env, append([]string{"HOME=" + own, "XDG_CACHE_HOME=" + own, "GOCACHE=" + own, "TMPDIR=" + temporary}, l.BuildEnvironment...))
}

// ownFolder is the folder that only builds of a language use.
func (k *Kit) ownFolder(l *Language) (string, error) {
	dir := filepath.Join(k.dir, "own", l.Name)
	if err := os.MkdirAll(dir, 0o700); err != nil {
		return "", fmt.Errorf("cannot use the build cache: %w", err)
	}
	return dir, nil
}

// mostWords bounds how much of a compiler's words is searched for paths.
const mostWords = 4096

// unseen finds in the words of a compiler or a program the files that are there and
// that it may not see. A relative path is one from the folder of the source.
func (b *Build) unseen(text string, visible []string) (paths []string) {
	words := strings.FieldsFunc(text, func(r rune) bool { return strings.ContainsRune(" \t\n'\"`‘’“”()<>,;", r) })
	folder := filepath.Dir(b.Source)
	within := func(path string, folders []string) bool {
		return slices.ContainsFunc(folders, func(f string) bool { return box.Within(path, f) && f != folder })
	}
	for _, word := range words[:min(len(words), mostWords)] {
		word = strings.TrimRight(word, ":.")
		if len(word) > 4096 || !filepath.IsAbs(word) && !strings.Contains(word, ".") {
			continue
		}
		path := word
		if !filepath.IsAbs(path) {
			path = filepath.Join(folder, path)
		}
		if path == b.Source || box.SeenByAll(path) || within(path, visible) {
			continue
		}
		if info, err := os.Lstat(path); err != nil || !info.Mode().IsRegular() || strings.HasPrefix(path, "/proc/") || strings.HasPrefix(path, "/sys/") {
			continue
		}
		if inside, ok := strings.CutPrefix(path, folder+"/"); ok {
			path = inside
		}
		if !slices.Contains(paths, path) {
			paths = append(paths, path)
		}
	}
	return paths
}

// keptFrom says in words which files a failed build wanted to see and may not.
func (b *Build) keptFrom(log string) (lines []string) {
	for _, path := range b.unseen(log, b.buildReads()) {
		lines = append(lines, "cold: builds may not see "+path)
	}
	return lines
}

// Unseen explains what a program that failed says of a file that is there, and that it may not
// see; empty: nothing of that kind.
func (b *Build) Unseen(errors string) string {
	paths := b.unseen(errors, append(b.reads(), b.Dir))
	if len(paths) == 0 {
		return ""
	}
	return fmt.Sprintf("%s is there, but programs may not see it; if it belongs to the language, let 'sees' of its entry name it", paths[0])
}

// A sandboxed runner can say that it keeps programs from files.
type sandboxed interface{ Contains() bool }

// buildProgram is a command of a build as a box runs it.
func (k *Kit) buildProgram(b *Build, command []string, stage string) (box.Program, error) {
	own, err := k.ownFolder(b.Language)
	if err != nil {
		return box.Program{}, err
	}
	return box.Program{
		Path: command[0], Args: command[1:], Env: b.Language.buildEnvironment(own, stage),
		Reads: append(b.buildReads(), installation(command[0])...), Writes: []string{own},
	}, nil
}
