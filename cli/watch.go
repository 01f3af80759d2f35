package cli

import (
	"context"
	"io/fs"
	"path/filepath"
	"strings"
	"time"

	"github.com/fsnotify/fsnotify"

	"coldverdict/core/cross"
	"coldverdict/core/history"
	"coldverdict/core/problem"
	"coldverdict/core/ready"
	"coldverdict/core/verdict"
	"coldverdict/term"
)

// settle is how long no further save may come before a run begins, so that
// several quick ones are one run. An editor writes a file in several steps,
// within a few milliseconds.
const settle = 30 * time.Millisecond

// watch runs the solution now and again at each save, until it is interrupted.
// A save during a run stops that.
func (t *trial) watch(ctx context.Context) error {
	watcher, err := fsnotify.NewWatcher()
	if err != nil {
		return usageError("--watch: this system lets nobody watch files: %v", err)
	}
	defer watcher.Close()
	folders := &watched{watcher: watcher, known: map[string]bool{}}
	t.last = &watching{clock: t.app.runningClock(t.app.dir)}
	names := t.command.Args().Slice()
	for {
		if err := folders.add(t.app.dir, names, t.from); err != nil {
			return err
		}
		run, stop := context.WithCancel(ctx)
		done := make(chan error, 1)
		go func() { done <- t.once(run) }()
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
			t.said(err)
			t.waiting()
			end := t.goingOn(ctx)
			t.await(ctx, saved)
			end()
		}
		if ctx.Err() != nil {
			return exit(exitInterrupted)
		}
	}
}

// clockTick is how often the time in the last line changes.
const clockTick = 10 * time.Second

// waiting shows what is waited for, and the clock, if one goes on.
func (t *trial) waiting() {
	words := "waiting for a save; Ctrl-C ends"
	if t.last.clock != nil {
		words += "; " + term.ClockWords(t.last.clock, time.Now())
	}
	t.app.screen.Progress("%s", words)
}

// await waits for a save. Where nothing else goes on meanwhile, the clock in the last line goes on.
func (t *trial) await(ctx context.Context, saved <-chan struct{}) {
	var tick <-chan time.Time
	if t.last.clock != nil && !t.flags.cross && !t.flags.ready {
		ticker := time.NewTicker(clockTick)
		defer ticker.Stop()
		tick = ticker.C
	}
	for {
		select {
		case <-saved:
			return
		case <-ctx.Done():
			return
		case <-tick:
			t.waiting()
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

// A watching is what is known of the runs of a watch so far.
type watching struct {
	clock  *history.Clock         // that goes on for the problem; nil: there is none
	before map[string]term.Before // of the last run to its end, by case
	failed []string               // of that run, in its order
	passed bool                   // that run did, in all cases
	shown  map[string]term.Shown  // what it printed, by case, where that is shown

	now     map[string]term.Before // of the run that goes on
	showing map[string]term.Shown
	failing []string
}

// first returns the indices of the cases that failed last, which run before the others.
func (w *watching) first(p *problem.Problem) (indices []int) {
	index := map[string]int{}
	for i, c := range p.Cases {
		index[c.Name] = i
	}
	for _, name := range w.failed {
		if i, ok := index[name]; ok {
			indices = append(indices, i)
		}
	}
	return indices
}

// begin begins a run, whose view shows what has changed since the last.
func (w *watching) begin(screen *term.Screen, view *term.TryView) {
	w.now, w.showing, w.failing, w.passed = map[string]term.Before{}, map[string]term.Shown{}, nil, false
	if len(w.before) > 0 {
		view.Before, view.ShownBefore = w.before, w.shown
		screen.Print("\n%s", term.Moment(time.Now()))
		screen.Flush()
	}
}

// note notes the outcome of a case, and what it printed, if that is shown. Nil notes nothing.
func (w *watching) note(name string, o verdict.Outcome, show bool) {
	if w == nil {
		return
	}
	w.now[name] = term.BeforeOf(o)
	if show {
		w.showing[name] = term.ShownOf(o)
	}
	if !o.Verdict.Passing() || o.Differs != nil {
		w.failing = append(w.failing, name)
	}
}

// end ends a run that came to its end.
func (w *watching) end() {
	if w != nil && len(w.now) > 0 {
		w.before, w.shown, w.failed, w.passed = w.now, w.showing, w.failing, len(w.failing) == 0
	}
}

// goingOn looks further beside the wait for a save, where that was asked for and all
// cases passed. end must be called, and returns when nothing goes on any more.
func (t *trial) goingOn(ctx context.Context) (end func()) {
	once := t.crossOnce
	if t.flags.ready {
		once = t.readyOnce
	}
	if !t.flags.cross && !t.flags.ready || !t.last.passed {
		return func() {}
	}
	ctx, stop := context.WithCancel(ctx)
	done := make(chan struct{})
	go func() {
		defer close(done)
		err := once(ctx)
		if ctx.Err() == nil {
			t.said(err)
			t.waiting()
		}
	}()
	return func() {
		stop()
		<-done
		t.app.screen.Flush()
	}
}

// crossOnce searches until something is found, or the context ends.
func (t *trial) crossOnce(ctx context.Context) error {
	p, err := t.app.load()
	if err != nil {
		return err
	}
	o := cross.Options{Seed: anySeed(), Env: t.options.env, Build: t.options.build}
	o.Build.MissingIsFault = true
	if _, err := t.app.crossed(p, t.command.Args().Slice(), t.from, crossFlags{run: t.flags.run}, &o); err != nil {
		return err
	}
	view := &term.CrossView{Screen: t.app.screen, Problem: p, Seed: o.Seed, Quiet: true}
	result, err := cross.Run(ctx, p, o, view.Tell)
	if err != nil || ctx.Err() != nil {
		return t.app.searchError(ctx, err)
	}
	view.Close(result)
	return nil
}

// readyOnce takes a last look at the candidate.
func (t *trial) readyOnce(ctx context.Context) error {
	p, err := t.app.load()
	if err != nil {
		return err
	}
	o := ready.Options{Time: readySeconds * time.Second, Seed: anySeed(), Env: t.options.env, Build: t.options.build}
	chosen, err := t.app.lookedAt(p, t.command.Args().Slice(), t.from, readyFlags{run: t.flags.run}, &o)
	if err != nil {
		return err
	}
	view := &term.ReadyView{Screen: t.app.screen, Problem: p, Name: o.Candidate.File, Chosen: chosen}
	result, err := ready.Run(ctx, p, o, func(e ready.Event) {
		if ctx.Err() == nil {
			view.Tell(e)
		}
	})
	if err != nil || ctx.Err() != nil {
		return t.app.searchError(ctx, err)
	}
	view.Close(result)
	return nil
}

// said tells a mistake that the person can mend while the watch goes on.
func (t *trial) said(err error) {
	if err != nil {
		t.app.status(context.Background(), err)
	}
	t.app.screen.Flush()
}
