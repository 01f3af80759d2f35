package cli

import (
	"bytes"
	"cmp"
	"context"
	"errors"
	"io/fs"
	"os"
	"path/filepath"
	"slices"
	"strings"

	"github.com/maruel/natural"
	"github.com/urfave/cli/v3"

	"coldverdict/core/judge"
	"coldverdict/core/problem"
	"coldverdict/core/ready"
	"coldverdict/core/verdict"
	"coldverdict/report"
	"coldverdict/report/page"
	"coldverdict/term"
)

// Many problems at once: every folder below others that holds a problem is a line.

func belowFlag(into *bool) cli.Flag {
	return &cli.BoolFlag{Name: "recursive", Aliases: []string{"r"}, Usage: "try every problem in the folders that are named: a line each, and what changed in full", Destination: into}
}

// mostProblems bounds how many problems are looked for in folders.
const mostProblems = 10_000

// problemsBelow returns the folders that hold a problem, in natural order: what makes one is verdict.toml, cases, a
// shape or a NAME.in. Hidden folders are left out, and what belongs to a problem.
func (a *app) problemsBelow(folders []string) (found []string, err error) {
	for _, root := range folders {
		root = a.path(root)
		if info, err := os.Stat(root); err != nil || !info.IsDir() {
			return nil, usageError("%s is no folder; -r takes folders, and tries the problems in them", root)
		}
		err := filepath.WalkDir(root, func(path string, d fs.DirEntry, err error) error {
			switch {
			case err != nil && path == root:
				return err
			case err != nil || !d.IsDir():
				return nil
			case path != root && (strings.HasPrefix(d.Name(), ".") || d.Name() == problem.CasesFolder || d.Name() == "node_modules"):
				return filepath.SkipDir
			case holdsCases(path):
				found = append(found, path)
			}
			if len(found) > mostProblems {
				return usageError("there are more than %d problems in %s; name a smaller folder", mostProblems, root)
			}
			return nil
		})
		if err != nil {
			return nil, err
		}
	}
	if len(found) == 0 {
		return nil, usageError("there is no problem in %s; one has a verdict.toml, a cases.md, a cases/ or a NAME.in", strings.Join(folders, ", "))
	}
	slices.SortFunc(found, natural.Compare)
	return slices.Compact(found), nil
}

// holdsCases reports that a folder has more of a problem than a source.
func holdsCases(dir string) bool {
	if problem.IsBegun(dir) {
		return true
	}
	entries, err := os.ReadDir(dir)
	if err != nil {
		return false
	}
	for _, e := range entries {
		if e.Name() == problem.ShapeFile || strings.HasSuffix(e.Name(), ".in") {
			return true
		}
	}
	return false
}

// inFolder is the app for another folder, whose results go to a screen of its own.
func (a *app) inFolder(dir string, screen *term.Screen) *app {
	return &app{in: a.in, out: a.out, errors: a.errors, screen: screen, dir: dir, complained: a.complained, handsIn: a.handsIn}
}

// foldersOf are the folders that a command with -r was given.
func foldersOf(c *cli.Command) []string {
	if c.Args().Present() {
		return c.Args().Slice()
	}
	return []string{"."}
}

func (a *app) tryBelow(ctx context.Context, c *cli.Command, f tryFlags, options judging) error {
	switch {
	case f.watch || f.input != "" || f.driver || f.checker || f.every || f.against != "":
		return usageError("-r tries the candidates of many problems; leave out --watch, --input, --driver, --checker, --every-solution and --against")
	case f.which.failed:
		return usageError("-r runs all cases, to see what changed; leave out --failed")
	}
	found, err := a.problemsBelow(foldersOf(c))
	if err != nil {
		return err
	}
	view := &term.ManyView{Screen: a.screen}
	view.Begin(a.namesOf(found))
	all := report.NewMany()
	for i, dir := range found {
		one, results, err := a.tryIn(ctx, f, options, dir)
		if ctx.Err() != nil {
			return ctx.Err()
		}
		one.Name = view.Names[i]
		if err != nil {
			one.Error = err.Error()
		}
		if f.json != "-" {
			view.Tell(one)
		}
		all.Add(one.Name, results, err)
	}
	if f.json != "-" {
		view.Close()
	}
	if f.json != "" {
		if err := a.writeTo("--json", f.json, all.Write); err != nil {
			return err
		}
	}
	if err := a.writeReport(f.report, func() *page.Page { return all.Page(maker()) }); err != nil {
		return err
	}
	return manyExit(view.All)
}

// namesOf are folders as the person sees them.
func (a *app) namesOf(folders []string) []string {
	names := make([]string, len(folders))
	for i, dir := range folders {
		names[i] = dir
		if inside, err := filepath.Rel(a.dir, dir); err == nil {
			names[i] = inside
		}
	}
	return names
}

// tryIn tries the candidates of the problem in a folder. What is shown of it in full is in the result.
func (a *app) tryIn(ctx context.Context, f tryFlags, options judging, dir string) (one term.OfMany, results *report.Try, err error) {
	var full bytes.Buffer
	screen := a.screen.Aside(&full)
	t := &trial{app: a.inFolder(dir, screen), flags: f, options: options, from: dir}
	p, err := t.app.load()
	if err != nil {
		return one, nil, err
	}
	t.options.env.Languages = t.app.languages
	s, err := t.selected(ctx, p)
	if tied, ok := errors.AsType[*problem.TiedError](err); ok { // as after a checkout: all of them are tried
		t.names = tied.Files
		s, err = t.selected(ctx, p)
	}
	if err != nil {
		return one, nil, err
	}
	defer s.end()
	view := t.view(s)
	results = report.NewTry(s.problem)
	a.screen.Progress("%s …", term.Visible(a.namesOf([]string{dir})[0]))
	j, err := t.judged(ctx, s, func(e judge.Event) {
		view.Tell(e)
		results.Tell(e)
	})
	if err != nil {
		return one, nil, err
	}
	view.Close()
	screen.Flush()
	one.Attempts, one.Parts = j.attempts, view.PartsWords()
	one.Verdict = verdict.OfSolution(j.verdicts)
	if j.differ && one.Verdict.Passing() {
		one.Verdict, one.Differ = verdict.WrongAnswer, true
	}
	one.Changed = true
	if len(s.options.run.Only) == len(s.problem.Cases) {
		one.Was, one.Known, one.Changed = s.memory.compared(s.solutions, j.verdicts)
		s.memory.save()
	}
	if !one.Verdict.Passing() && one.Changed {
		one.Full = full.String()
	}
	t.remember(s.problem, j.attempts)
	return one, results, nil
}

// compared takes the verdicts of solutions on all cases, and says how all together were before, and whether one is
// another.
func (r *remembered) compared(solutions []problem.Solution, now []verdict.Verdict) (was verdict.Verdict, known, changed bool) {
	var before []verdict.Verdict
	for i, v := range now {
		old, ok := r.ended(solutions[i], v)
		changed = changed || !ok || old != v
		if ok {
			before = append(before, old)
		}
	}
	return verdict.OfSolution(before), len(before) == len(now), changed
}

// manyExit is the exit status of many problems: the worst of theirs.
func manyExit(all []term.OfMany) error {
	judged, status := false, exit(exitAccepted)
	for _, one := range all {
		switch {
		case one.Verdict == verdict.Fault:
			return exit(exitFault)
		case one.Error != "":
			status = exit(exitUsage)
		case one.Verdict == verdict.Accepted:
			judged = true
		case !one.Verdict.Passing() && one.Verdict != verdict.Skipped:
			judged = true
			status = cmp.Or(status, exit(exitRejected))
		}
	}
	switch {
	case status != exitAccepted:
		return status
	case !judged:
		return exit(exitUnjudged)
	}
	return nil
}

// readyBelow takes a last look at the candidate of every problem in folders.
func (a *app) readyBelow(ctx context.Context, c *cli.Command, f readyFlags) error {
	if f.opponent != (opponent{}) || f.json || f.report != "" {
		return usageError("-r looks at the candidates of many problems; leave out --against, --group, --json and --report")
	}
	found, err := a.problemsBelow(foldersOf(c))
	if err != nil {
		return err
	}
	names := a.namesOf(found)
	view := &term.ManyView{Screen: a.screen}
	view.Begin(names)
	status := error(nil)
	for i, dir := range found {
		outcome, words, full, err := a.readyIn(ctx, c, f, dir)
		if ctx.Err() != nil {
			return ctx.Err()
		}
		if err != nil {
			outcome, words = ready.NotReady, err.Error()
			status = cmp.Or(status, error(exit(exitUsage)))
		}
		view.Ready(names[i], outcome, words, full)
		switch {
		case outcome == ready.NotReady && err == nil:
			status = exit(exitRejected)
		case outcome != ready.Ready && status == nil:
			status = exit(exitUnjudged)
		}
	}
	a.screen.Flush()
	return status
}

// readyIn takes a last look at the candidate in a folder.
func (a *app) readyIn(ctx context.Context, c *cli.Command, f readyFlags, dir string) (outcome ready.Outcome, words, full string, err error) {
	var text bytes.Buffer
	screen := a.screen.Aside(&text)
	inside := a.inFolder(dir, screen)
	o, err := f.options(inside, c)
	if err != nil {
		return 0, "", "", err
	}
	p, err := inside.load()
	if err != nil {
		return 0, "", "", err
	}
	chosen, err := inside.lookedAt(p, nil, dir, f, &o)
	if err != nil {
		return 0, "", "", err
	}
	a.screen.Progress("%s …", term.Visible(a.namesOf([]string{dir})[0]))
	view := &term.ReadyView{Screen: screen, Problem: p, Name: o.Candidate.File, Chosen: chosen}
	r, err := ready.Run(ctx, p, o, view.Tell)
	if err != nil {
		return 0, "", "", err
	}
	view.Close(r)
	screen.Flush()
	return r.Outcome, o.Candidate.File, text.String(), nil
}
