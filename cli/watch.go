package cli

import (
	"context"
	"io/fs"
	"path/filepath"
	"strings"
	"time"

	"github.com/fsnotify/fsnotify"
	"github.com/urfave/cli/v3"

	"coldverdict/core/cross"
	"coldverdict/core/judge"
	"coldverdict/core/problem"
	"coldverdict/term"
)

// settle is how long no further save may come before a run begins, so that
// several quick ones are one run. An editor writes a file in several steps,
// within a few milliseconds.
const settle = 30 * time.Millisecond

// watch runs the solution now and again at each save, until it is interrupted.
// A save during a run stops that.
func (a *app) watch(ctx context.Context, c *cli.Command, f tryFlags, options judging, from string) error {
	watcher, err := fsnotify.NewWatcher()
	if err != nil {
		return usageError("--watch: this system lets nobody watch files: %v", err)
	}
	defer watcher.Close()
	folders := &watched{watcher: watcher, known: map[string]bool{}}
	w := &watching{app: a, command: c, flags: f, options: options, from: from, before: map[string]term.Before{}}
	for {
		if err := folders.add(a.dir, c.Args().Slice(), from); err != nil {
			return err
		}
		run, stop := context.WithCancel(ctx)
		done := make(chan error, 1)
		go func() { done <- w.once(run) }()
		saved := folders.wait(ctx)
		select {
		case <-saved:
			stop()
			<-done
		case err = <-done:
			stop()
			if ctx.Err() != nil {
				return ctx.Err()
			}
			w.said(err)
			a.screen.Progress("waiting for a save; Ctrl-C ends")
			end := w.crossing(ctx)
			select {
			case <-saved:
			case <-ctx.Done():
			}
			end()
		}
		if ctx.Err() != nil {
			return exit(exitInterrupted)
		}
	}
}

// watched are the folders in which saves count.
type watched struct {
	watcher *fsnotify.Watcher
	known   map[string]bool
}

// add watches the problem's folder, its cases, and the folders of solutions
// elsewhere.
func (w *watched) add(dir string, names []string, from string) error {
	folders := []string{dir}
	for _, name := range names {
		if filepath.IsAbs(name) {
			from = ""
		}
		folders = append(folders, filepath.Dir(filepath.Join(from, name)))
	}
	filepath.WalkDir(filepath.Join(dir, problem.CasesFolder), func(path string, d fs.DirEntry, err error) error {
		if err == nil && d.IsDir() {
			folders = append(folders, path)
		}
		return nil
	})
	for _, folder := range folders {
		if w.known[folder] {
			continue
		}
		if err := w.watcher.Add(folder); err != nil {
			if folder == dir {
				return usageError("--watch: %s cannot be watched: %v", dir, err)
			}
			continue
		}
		w.known[folder] = true
	}
	return nil
}

// wait returns a channel that is closed some moments after the next save.
func (w *watched) wait(ctx context.Context) <-chan struct{} {
	saved := make(chan struct{})
	go func() {
		defer close(saved)
		var quiet <-chan time.Time
		for {
			select {
			case <-ctx.Done():
				return
			case <-quiet:
				return
			case event, ok := <-w.watcher.Events:
				if !ok {
					return
				}
				if counts(event) {
					quiet = time.After(settle)
				}
			case <-w.watcher.Errors: // too many at once: something was saved
				quiet = time.After(settle)
			}
		}
	}()
	return saved
}

// counts reports a change that can change a verdict: not what editors and we
// ourselves write beside.
func counts(event fsnotify.Event) bool {
	name := filepath.Base(event.Name)
	if event.Op == fsnotify.Chmod || strings.HasPrefix(name, ".") || strings.HasPrefix(name, "#") || strings.HasSuffix(name, "~") || strings.HasSuffix(name, ".swp") || name == "4913" {
		return false
	}
	return true
}

// A watching is a solution that is run again and again.
type watching struct {
	*app
	command *cli.Command
	flags   tryFlags
	options judging
	from    string
	before  map[string]term.Before // of the last run to its end, by case
	failed  []string               // of that run, in its order
	passed  bool                   // the last run did, in all cases
}

// crossing looks for failures beside the wait for a save, where that was asked for and
// all cases passed. end must be called, and returns when nothing goes on any more.
func (w *watching) crossing(ctx context.Context) (end func()) {
	if !w.flags.cross || !w.passed {
		return func() {}
	}
	ctx, stop := context.WithCancel(ctx)
	done := make(chan struct{})
	go func() {
		defer close(done)
		err := w.crossOnce(ctx)
		if ctx.Err() == nil {
			w.said(err)
			w.screen.Progress("waiting for a save; Ctrl-C ends")
		}
	}()
	return func() {
		stop()
		<-done
		w.screen.Flush()
	}
}

// crossOnce searches until something is found, or the context ends.
func (w *watching) crossOnce(ctx context.Context) error {
	p, err := w.load()
	if err != nil {
		return err
	}
	o := cross.Options{Seed: anySeed(), Env: w.options.env, Build: w.options.build}
	o.Env.Languages, o.Build.MissingIsFault = w.languages, true
	if _, err := w.crossed(p, w.command.Args().Slice(), w.from, crossFlags{lang: w.flags.lang}, &o); err != nil {
		return err
	}
	view := &term.CrossView{Screen: w.screen, Problem: p, Seed: o.Seed, Quiet: true}
	result, err := cross.Run(ctx, p, o, view.Tell)
	if err != nil || ctx.Err() != nil {
		return w.crossError(ctx, err)
	}
	view.Close(result)
	return nil
}

// once runs the solution once.
func (w *watching) once(ctx context.Context) error {
	began := time.Now()
	w.passed = false
	p, err := w.load()
	if err != nil {
		return err
	}
	o := w.options
	o.env.Languages, o.build.MissingIsFault = w.languages, true
	p, end, err := w.withEdges(ctx, p, w.flags, o.env)
	if err != nil {
		return err
	}
	defer end()
	list, chosen, err := solutions(p, w.languages, w.command.Args().Slice(), w.from, w.flags)
	if err != nil {
		return err
	}
	if len(p.Cases) == 0 {
		return usageError("%s has no case yet; it is run when there is one", p.Dir)
	}
	memory := rememberedOf(p)
	if o.run.Only, err = w.flags.cases(p, memory, list); err != nil {
		return err
	}
	index := map[string]int{}
	for i, c := range p.Cases {
		index[c.Name] = i
	}
	for _, name := range w.failed {
		if i, ok := index[name]; ok {
			o.run.First = append(o.run.First, i)
		}
	}
	view := &term.TryView{Screen: w.screen, Problem: p, Evidence: w.flags.evidence, Chosen: chosen, Checked: w.flags.checked, Warnings: w.flags.warnings, Together: sameCases(list), Names: term.SolutionNames(list), Stderr: w.flags.stderr, Brief: w.flags.madeGroup(p)}
	if len(w.before) > 0 {
		view.Before = w.before
		w.screen.Print("\n%s", term.Moment(began))
		w.screen.Flush()
	}
	now := map[string]term.Before{}
	var failed []string
	err = o.all(ctx, p, list, func(event judge.Event) {
		if ctx.Err() != nil {
			return
		}
		memory.tell(p, list, event)
		if e, ok := event.(judge.Case); ok {
			name := p.Cases[e.Index].Name
			now[name] = term.BeforeOf(e.Outcome)
			if !e.Outcome.Verdict.Passing() || e.Outcome.Differs != nil {
				failed = append(failed, name)
			}
		}
		view.Tell(event)
	})
	if err != nil {
		return err
	}
	view.Close()
	memory.save()
	if len(now) > 0 {
		w.before, w.failed, w.passed = now, failed, len(failed) == 0
	}
	return nil
}

// said tells a mistake that the person can mend while the watch goes on.
func (w *watching) said(err error) {
	if err != nil {
		w.status(context.Background(), err)
	}
	w.screen.Flush()
}
