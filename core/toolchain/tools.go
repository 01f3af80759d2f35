package toolchain

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"os"
	"os/exec"
	"path/filepath"
	"strings"
	"time"
)

// A MissingError says that a tool is not on this machine.
type MissingError struct {
	Language string   // "C++"
	Commands []string // what was looked for
	Package  string   // Debian's package that holds it
}

func (e *MissingError) Error() string {
	return fmt.Sprintf("%s cannot be run: no %s on this machine; install it (Debian: apt install %s)",
		e.Language, strings.Join(e.Commands, " or "), e.Package)
}

// A found tool is where a tool is and what it says of itself.
type found struct {
	Path    string // of the executable itself, not of a script that starts it
	Version string // the first line that it prints, "g++ (Debian 12.2.0-14) 12.2.0"
	Stamp   string // changes when the tool does
}

// locateTime is how long a tool may take to say its version.
const locateTime = 20 * time.Second

// locate finds a tool. What it says of itself is asked once and remembered in
// the cache until its file changes.
func (k *Kit) locate(ctx context.Context, l *Language, t Tool) (found, error) {
	if len(t.Commands) == 0 {
		return found{}, nil
	}
	path := ""
	for _, command := range t.Commands {
		if p, err := exec.LookPath(command); err == nil {
			path = p
			break
		}
	}
	if path == "" {
		return found{}, &MissingError{l.Title, t.Commands, t.Package}
	}
	path, err := filepath.Abs(path)
	if err != nil {
		return found{}, err
	}
	stamp := stampOf(path, t.Depends)
	memory := filepath.Join(k.dir, "tools", digest(path, stamp)+".json")
	var f found
	if text, err := os.ReadFile(memory); err == nil && json.Unmarshal(text, &f) == nil && isExecutable(f.Path) {
		return f, nil
	}
	if f, err = ask(ctx, path, t); err != nil {
		return found{}, fmt.Errorf("%s does not work: %w", path, err)
	}
	f.Stamp = stamp
	text, err := json.Marshal(f)
	if err != nil {
		return found{}, err
	}
	return f, writeWhole(memory, text)
}

// stampOf changes whenever the file at path does, or what decides which
// version it starts.
func stampOf(path string, depends []string) string {
	parts := []string{fileStamp(path)}
	home, _ := os.UserHomeDir()
	for _, d := range depends {
		if name, ok := strings.CutPrefix(d, "$"); ok {
			parts = append(parts, os.Getenv(name))
		} else {
			parts = append(parts, fileStamp(strings.Replace(d, "~", home, 1)))
		}
	}
	return strings.Join(parts, " ")
}

// fileStamp follows links, so that an upgrade behind a link shows.
func fileStamp(path string) string {
	real, err := filepath.EvalSymlinks(path)
	if err != nil {
		return "-"
	}
	info, err := os.Stat(real)
	if err != nil {
		return "-"
	}
	return fmt.Sprintf("%s %d %d", real, info.Size(), info.ModTime().UnixNano())
}

func isExecutable(path string) bool {
	info, err := os.Stat(path)
	return err == nil && info.Mode().IsRegular() && info.Mode().Perm()&0o111 != 0
}

// ask runs a tool to learn its version, and where its executable is.
func ask(ctx context.Context, path string, t Tool) (found, error) {
	ctx, cancel := context.WithTimeout(ctx, locateTime)
	defer cancel()
	args := t.Version
	if t.Locate != nil {
		args = t.Locate
	}
	text, err := exec.CommandContext(ctx, path, args...).CombinedOutput()
	if err != nil {
		if e, ok := errors.AsType[*exec.ExitError](err); ok {
			err = fmt.Errorf("%s %s: %v: %s", path, strings.Join(args, " "), e, firstLine(text))
		}
		return found{}, err
	}
	if t.Locate == nil {
		return found{Path: path, Version: firstLine(text)}, nil
	}
	executable, version, _ := strings.Cut(strings.TrimSpace(string(text)), "\n")
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
	Title    string   // "C++"
	Versions []string // what its tools say of themselves
	Missing  error    // why it cannot be used; nil if it can
}

// Survey looks for the tools of every language.
func (k *Kit) Survey(ctx context.Context) (all []Survey) {
	for i := range languages {
		l := &languages[i]
		one := Survey{Title: l.Title}
		for _, tool := range []Tool{l.Compiler, l.Runtime} {
			f, err := k.locate(ctx, l, tool)
			switch {
			case err != nil:
				one.Missing = err
			case f.Version != "":
				one.Versions = append(one.Versions, f.Version)
			}
		}
		all = append(all, one)
	}
	return all
}
