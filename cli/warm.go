package cli

import (
	"bytes"
	"cmp"
	"context"
	"errors"
	"io"
	"io/fs"
	"os"
	"os/exec"
	"path/filepath"
	"sync"
	"syscall"
	"time"

	"golang.org/x/sys/unix"

	"coldverdict/core/box"
	"coldverdict/core/toolchain"
	"coldverdict/term"
)

// Headers with which sources begin are compiled once, by 'cold host --warm', or in the background when a build at a
// terminal has read them.

// usualHeaders are compiled where no source is named.
const usualHeaders = "#include <bits/stdc++.h>\n"

// mostWarming bounds how long headers are compiled in the background.
const mostWarming = 2 * time.Minute

// warmer compiles headers in a process of its own, which goes on when this one ends: one a command, since it takes a
// core. Where nobody sits at a terminal, or the person wants none of it, it is nil.
func (a *app) warmer() func(language, text string, stepped bool) {
	self, err := os.Executable()
	if err != nil || a.own == nil || a.own.Unwarmed || !a.screen.AtTerminal() {
		return nil
	}
	var once sync.Once
	return func(language, text string, stepped bool) {
		once.Do(func() { a.startWarming(self, language, text, stepped) })
	}
}

func (a *app) startWarming(self, language, text string, stepped bool) {
	lines, err := os.CreateTemp("", "cold-verdict-headers-")
	if err != nil {
		return // it is no fault of the judging, and tried again with the next build
	}
	defer lines.Close()
	os.Remove(lines.Name())
	if _, err := lines.WriteString(text); err != nil {
		return
	}
	if _, err := lines.Seek(0, io.SeekStart); err != nil {
		return
	}
	dir, err := filepath.Abs(a.dir)
	if err != nil {
		return
	}
	args := []string{"--directory", dir, "host", "--warm-from-input", language}
	if stepped {
		args = append(args, "--warm-stepped")
	}
	child := exec.Command(self, args...)
	child.Stdin, child.SysProcAttr = lines, &syscall.SysProcAttr{Setsid: true}
	if child.Start() == nil {
		go child.Wait()
	}
}

// warmFromInput is what the process in the background does.
func (a *app) warmFromInput(ctx context.Context, language string, stepped bool) error {
	ctx, end := context.WithTimeout(ctx, mostWarming)
	defer end()
	unix.Setpriority(unix.PRIO_PROCESS, 0, 19) // where that is not allowed, it is as urgent as anything else
	text, err := io.ReadAll(io.LimitReader(a.in, 1<<20))
	if err != nil {
		return err
	}
	_, err = a.warm(ctx, language, string(text), stepped)
	return err
}

// warm compiles headers for a language, and reports that they were not there before.
func (a *app) warm(ctx context.Context, language, text string, stepped bool) (made bool, err error) {
	if a.languages, err = languagesOf(a.dir); err != nil {
		return false, err
	}
	if err := a.ownSettings(); err != nil {
		return false, err
	}
	if err := a.withOwnFlags(a.languages); err != nil {
		return false, err
	}
	kit, err := toolchain.Open(toolchain.DefaultDir(), a.languages)
	if err != nil {
		return false, err
	}
	defer kit.Close()
	scratch, err := box.NewScratch(os.TempDir(), "cold-verdict-warm-")
	if err != nil {
		return false, err
	}
	defer func() { err = errors.Join(err, scratch.Remove()) }()
	b, err := box.Open(box.Options{Scratch: scratch.Dir, Coarse: true})
	if err != nil {
		return false, err
	}
	defer func() { err = errors.Join(err, b.Close()) }()
	return kit.WarmHeaders(ctx, b, language, text, stepped)
}

// warmAll compiles the headers with which sources begin, or those that most do.
func (a *app) warmAll(ctx context.Context, sources []string) error {
	if len(sources) == 0 {
		return a.sayWarm(ctx, "cpp", "bits/stdc++.h", usualHeaders)
	}
	languages, err := languagesOf(a.dir)
	if err != nil {
		return err
	}
	for _, source := range sources {
		text, err := toolchain.LeadingHeaders(a.path(source))
		switch {
		case errors.Is(err, fs.ErrNotExist):
			return usageError("there is no file %s", source)
		case err != nil:
			return err
		}
		if text == "" {
			return usageError("%s does not begin with headers of the system", source)
		}
		l, standard, err := languages.Choose(source, "")
		if err != nil {
			return usageError("%v", err)
		}
		if err := a.sayWarm(ctx, cmp.Or(standard, l.Name), source, text); err != nil {
			return err
		}
	}
	return nil
}

func (a *app) sayWarm(ctx context.Context, language, title, text string) error {
	began := time.Now()
	a.screen.Progress("compiling the headers of %s …", term.Visible(title))
	made, err := a.warm(ctx, language, text, false)
	a.screen.Progress("")
	switch {
	case errors.Is(err, toolchain.ErrNoHeaders):
		return usageError("%s: %v", title, err)
	case err != nil:
		return err
	case !made:
		a.screen.Print("%s: its headers were compiled before", term.Visible(title))
	default:
		a.screen.Print("%s: compiled %s in %s; builds that begin with the same begin from there", term.Visible(title), term.Count(bytes.Count([]byte(text), []byte("\n")), "header"), term.Duration(time.Since(began)))
	}
	return nil
}
