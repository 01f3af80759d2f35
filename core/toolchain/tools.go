package toolchain

import (
	"cmp"
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"os"
	"os/exec"
	"path/filepath"
	"regexp"
	"runtime"
	"slices"
	"strconv"
	"strings"
	"time"

	"golang.org/x/sync/errgroup"
	"golang.org/x/sys/unix"
)

// A MissingError says that a tool is not on this machine.
type MissingError struct {
	Language string   // "C++"
	Commands []string // what was looked for
	Package  string   // Debian's package that holds it; empty: not known
	Old      string   // what was found, if that is too old
	Least    string   // the first version that serves
}

func (e *MissingError) Error() string {
	if e.Old != "" {
		return fmt.Sprintf("%s cannot be run: it needs version %s or a later one, and this is %s", e.Language, e.Least, e.Old)
	}
	words := fmt.Sprintf("%s cannot be run: no %s on this machine; install it", e.Language, strings.Join(e.Commands, " or "))
	if e.Package != "" {
		words += fmt.Sprintf(" (Debian: apt install %s)", e.Package)
	}
	return words
}

// A found tool is where a tool is and what it says of itself.
type found struct {
	Path    string // of the executable itself, not of a script that starts it
	Version string // the first line that it prints, "g++ (Debian 12.2.0-14) 12.2.0"
	Stamp   string // changes when the tool does
}

// locateTime is how long a tool may take to say its version: some start a virtual machine for it, and
// the machine may be busy.
const locateTime = time.Minute

// locate finds a tool. What it says of itself is asked once and remembered in
// the cache until its file changes.
func (k *Kit) locate(ctx context.Context, l *Language, t Tool) (found, error) {
	if len(t.Command) == 0 {
		return found{}, nil
	}
	path := ""
	for _, command := range t.Command {
		if p, err := exec.LookPath(command); err == nil {
			path = p
			break
		}
	}
	if path == "" {
		return found{}, &MissingError{Language: l.Title, Commands: t.Command, Package: t.Package}
	}
	path, err := filepath.Abs(path)
	if err != nil {
		return found{}, err
	}
	f, err := k.asked(ctx, path, t)
	if err == nil && t.Least != "" && olderThan(f.Version, t.Least) {
		err = &MissingError{Language: l.Title, Commands: t.Command, Package: t.Package, Old: f.Version, Least: t.Least}
	}
	return f, err
}

// asked returns what a tool says of itself, which is remembered.
func (k *Kit) asked(ctx context.Context, path string, t Tool) (f found, err error) {
	stamp := stampOf(path, t.Depends)
	memory := filepath.Join(k.dir, "tools", digest(format, path, stamp, fmt.Sprint(t.Version, t.Locate, t.Name))+".json")
	// A script may start another executable than it did before.
	if text, err := os.ReadFile(memory); err == nil && json.Unmarshal(text, &f) == nil &&
		isExecutable(f.Path) && f.Stamp == stamp+" "+fileStamp(f.Path) {
		return f, nil
	}
	if f, err = ask(ctx, path, t); err != nil {
		return found{}, fmt.Errorf("%s does not work: %w", path, err)
	}
	f.Stamp = stamp + " " + fileStamp(f.Path)
	text, err := json.Marshal(f)
	if err != nil {
		return found{}, err
	}
	return f, writeWhole(memory, text)
}

var dotted = regexp.MustCompile(`\d+(?:\.\d+)+`)

// olderThan compares the first number with dots in a version with another.
func olderThan(version, least string) bool {
	have, want := strings.Split(dotted.FindString(version), "."), strings.Split(least, ".")
	return slices.CompareFunc(have, want, func(a, b string) int {
		x, _ := strconv.Atoi(a)
		y, _ := strconv.Atoi(b)
		return cmp.Compare(x, y)
	}) < 0
}

// findLibrary returns the file that a language needs besides its tools.
func (l *Language) findLibrary() (string, error) {
	for _, pattern := range l.Library {
		if found := inHome(pattern); len(found) > 0 {
			return found[len(found)-1], nil
		}
	}
	if len(l.Library) > 0 {
		return "", &MissingError{Language: l.Title, Commands: l.Library, Package: cmp.Or(l.Runtime.Package, l.Compiler.Package)}
	}
	return "", nil
}

// inHome lists the files that a pattern stands for, in which ~ is the home folder.
func inHome(pattern string) []string {
	home, _ := os.UserHomeDir()
	found, _ := filepath.Glob(strings.Replace(pattern, "~", home, 1)) // of a pattern that is none: nothing
	return found
}

// stampOf changes whenever the file at path does, or what decides which
// version it starts.
func stampOf(path string, depends []string) string {
	parts := []string{fileStamp(path)}
	for _, d := range depends {
		if name, ok := strings.CutPrefix(d, "$"); ok {
			parts = append(parts, os.Getenv(name))
		} else {
			for _, file := range inHome(d) {
				parts = append(parts, fileStamp(file))
			}
		}
	}
	return strings.Join(parts, " ")
}

// fileStamp changes with a file. It follows links, so that an upgrade behind a
// link shows, and holds the time of the last change of any kind, since
// installers set the time of modification as they like. No path at all is no file, and not the
// folder in which one works.
func fileStamp(path string) string {
	if path == "" {
		return "-"
	}
	real, err := filepath.EvalSymlinks(path)
	if err != nil {
		return "-"
	}
	return real + " " + changeStamp(real)
}

// changeStamp is that of what a path leads to, whatever its name.
func changeStamp(path string) string {
	var s unix.Stat_t
	if err := unix.Stat(path, &s); err != nil {
		return "-"
	}
	return fmt.Sprintf("%d %d %d", s.Ino, s.Size, s.Ctim.Nano())
}

func isExecutable(path string) bool {
	info, err := os.Stat(path)
	return err == nil && info.Mode().IsRegular() && info.Mode().Perm()&0o111 != 0
}

// ask runs a tool to learn its version, and where its executable is.
func ask(ctx context.Context, path string, t Tool) (found, error) {
	ctx, cancel := context.WithTimeout(ctx, locateTime)
	defer cancel()
	args := []string{"--version"}
	switch {
	case t.Locate != nil:
		args = t.Locate
	case t.Version != nil:
		args = t.Version
	}
	text, err := exec.CommandContext(ctx, path, args...).CombinedOutput()
	if errors.Is(ctx.Err(), context.DeadlineExceeded) {
		return found{}, fmt.Errorf("%s %s did not come to its end within %v; the machine may be too busy", path, strings.Join(args, " "), locateTime)
	}
	if _, failed := errors.AsType[*exec.ExitError](err); failed && t.Version == nil && t.Locate == nil {
		return found{Path: path, Version: filepath.Base(path)}, nil // it does not know --version
	}
	if err != nil {
		if e, ok := errors.AsType[*exec.ExitError](err); ok {
			err = fmt.Errorf("%s %s: %v: %s", path, strings.Join(args, " "), e, firstLine(text))
		}
		return found{}, err
	}
	if t.Locate == nil {
		version := firstLine(text)
		if t.Name != "" {
			version = t.Name + " " + dotted.FindString(string(text))
		}
		return found{Path: path, Version: version}, nil
	}
	executable, version, _ := strings.Cut(strings.TrimSpace(string(text)), "\n")
	if isDir(executable) { // where it is installed
		executable = filepath.Join(executable, "bin", filepath.Base(path))
		own := t
		own.Locate = nil
		f, err := ask(ctx, executable, own)
		return found{Path: executable, Version: f.Version}, err
	}
	if !isExecutable(executable) {
		return found{}, fmt.Errorf("it says that it is %q, which is no executable file", executable)
	}
	return found{Path: executable, Version: version}, nil
}

func firstLine(text []byte) string {
	line, _, _ := strings.Cut(strings.TrimSpace(string(text)), "\n")
	return strings.TrimSpace(line)
}

// A Survey is what was found of one language on this machine.
type Survey struct {
	Name     string   // "cpp"
	Title    string   // "C++"
	Versions []string // what its tools say of themselves
	Missing  error    // why it cannot be used; nil if it can
}

// Survey looks for the tools of every language, several at a time.
func (k *Kit) Survey(ctx context.Context) []Survey {
	all := make([]Survey, len(k.languages.list))
	group := errgroup.Group{}
	group.SetLimit(runtime.GOMAXPROCS(0))
	for i, l := range k.languages.list {
		group.Go(func() error {
			all[i] = k.survey(ctx, l)
			return nil
		})
	}
	group.Wait()
	return all
}

func (k *Kit) survey(ctx context.Context, l *Language) Survey {
	one := Survey{Name: l.Name, Title: l.Title}
	for _, tool := range []Tool{l.Compiler, l.Runtime} {
		f, err := k.locate(ctx, l, tool)
		switch {
		case err != nil:
			one.Missing = err
		case f.Version != "":
			one.Versions = append(one.Versions, f.Version)
		}
	}
	if _, err := l.findLibrary(); err != nil && one.Missing == nil {
		one.Missing = err
	}
	return one
}
