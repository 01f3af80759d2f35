package cli

import (
	"bytes"
	"context"
	"errors"
	"fmt"
	"os"
	"path/filepath"
	"strings"

	"github.com/urfave/cli/v3"

	"coldverdict/core/grade"
	"coldverdict/core/judge"
	"coldverdict/core/problem"
	"coldverdict/report"
	"coldverdict/report/page"
	"coldverdict/term"
)

// gradeFlags are what cold grade was asked for.
type gradeFlags struct {
	run          runFlags
	class, pages string
	last         bool
	json, csv    bool
	report       string
}

func (a *app) gradeCommand() *cli.Command {
	var f gradeFlags
	return &cli.Command{
		Name:      "grade",
		Usage:     "judge what a class handed in: a table of people by groups, with points",
		ArgsUsage: "FOLDER",
		Description: "In the folder of a problem. In FOLDER a file is that of the person it is called after (anna.py), and a\n" +
			"folder holds the files of a person (anna/bags.py). Of several tries of one person the best counts.\n\n" +
			"   cold grade handed-in\n" +
			"   cold grade handed-in --class names.txt --pages for-the-class\n" +
			"   cold grade handed-in --csv > points.csv\n\n" +
			"Exit status: 0 it was done, whatever people reached, 10 there was nothing to judge,\n" +
			"64 bad usage or a malformed file, 70 a fault on our side, 130 interrupted.",
		Flags: []cli.Flag{
			&cli.StringFlag{Name: "class", Usage: "list those, too, who handed nothing in: `FILE` has a name a line", Destination: &f.class, TakesFile: true},
			&cli.BoolFlag{Name: "last", Usage: "let a person's last try count, not the best", Destination: &f.last},
			&cli.StringFlag{Name: "pages", Usage: "write a page for each person into the new folder `DIR`, in which sealed cases stay sealed", Destination: &f.pages, TakesFile: true},
			&cli.BoolFlag{Name: "json", Usage: "write the results as JSON to standard output", Destination: &f.json},
			&cli.BoolFlag{Name: "csv", Usage: "write the table as CSV to standard output", Destination: &f.csv},
			reportFlag(&f.report),
			f.run.timeFlag("case"), f.run.memoryFlag("case"), f.run.jobsFlag("run `N` cases beside each other"),
		},
		Action: func(ctx context.Context, c *cli.Command) error { return a.grade(ctx, c, f) },
	}
}

func (a *app) grade(ctx context.Context, c *cli.Command, f gradeFlags) error {
	how, err := f.run.judging(a, c)
	if err != nil {
		return err
	}
	switch {
	case c.Args().Len() != 1:
		return usageError("name the folder of what was handed in: cold grade handed-in")
	case f.json && f.csv:
		return usageError("standard output can have one form; choose --json or --csv")
	}
	if err := a.checkReport(f.report); err != nil {
		return err
	}
	if f.pages != "" {
		if _, err := os.Lstat(a.path(f.pages)); err == nil {
			return usageError("--pages: %s is there already and stays as it is; name a new folder", f.pages)
		}
	}
	a.handsIn = true // the teacher's own flags are not the pupils'
	p, err := a.load()
	if err != nil {
		return err
	}
	if len(p.Cases) == 0 {
		return usageError("%s has no case to judge by; add one with 'cold case add'", p.Dir)
	}
	people, left, err := a.handedIn(a.path(c.Args().First()), f.class)
	if err != nil {
		return err
	}
	o := grade.Options{Env: how.env, Build: how.build, Last: f.last}
	o.Env.Languages = a.languages
	var pages *pageFolder
	if f.pages != "" {
		if pages, err = a.newPages(f.pages, p, people); err != nil {
			return err
		}
		defer pages.remove()
		o.Each = pages.tell
	}
	r, err := grade.Run(ctx, p, people, o, func(at grade.Progress) {
		a.screen.Progress("%d of %d: %s", at.Done, at.Total, term.Visible(at.Name))
	})
	if err != nil {
		return err
	}
	a.screen.Flush()
	if len(left) > 0 {
		a.screen.Remark("note: left out, since these are no source files, or links: %s", term.Visible(strings.Join(left, ", ")))
	}
	switch {
	case f.json:
		err = report.WriteGrades(a.out, p, r)
	case f.csv:
		err = report.WriteGradesCSV(a.out, p, r)
	default:
		a.screen.Grades(p, r)
	}
	if err == nil {
		err = a.writeReport(f.report, func() *page.Page { return report.GradesPage(maker(), p, r) })
	}
	if err == nil && f.pages != "" {
		err = pages.close(r)
		if err == nil {
			a.screen.Remark("%s in %s", term.Count(len(r.People), "page"), term.Visible(f.pages))
		}
	}
	switch {
	case err != nil:
		return err
	case r.Pupils == 0:
		return exit(exitUnjudged)
	}
	return nil
}

// handedIn reads a folder of hand-ins, and the names of the class.
func (a *app) handedIn(folder, class string) (people []grade.Person, left []string, err error) {
	var roster []string
	if class != "" {
		text, err := os.ReadFile(a.path(class))
		if err != nil {
			return nil, nil, usageError("--class: %v", err)
		}
		if roster = grade.ReadRoster(text); len(roster) == 0 {
			return nil, nil, usageError("--class: %s holds no name; write one a line", class)
		}
	}
	people, left, err = grade.Read(folder, a.languages.IsSource, roster)
	if mistake, ok := errors.AsType[*grade.MistakeError](err); ok {
		return nil, nil, usageError("%s", mistake.Text)
	}
	return people, left, err
}

// A pageFolder is a new folder with a page for each person, which appears when it is whole.
type pageFolder struct {
	problem  *problem.Problem
	people   []grade.Person
	dir      string // that it will be
	made     string // that it is until then
	going    *report.TryPage
	person   int
	try      int
	writeErr error
}

func (a *app) newPages(dir string, p *problem.Problem, people []grade.Person) (*pageFolder, error) {
	made, err := os.MkdirTemp(filepath.Dir(a.path(dir)), ".cold-verdict-pages-")
	if err != nil {
		return nil, usageError("--pages: %v", err)
	}
	return &pageFolder{problem: p, people: people, dir: a.path(dir), made: made, person: -1}, nil
}

func (f *pageFolder) remove() { os.RemoveAll(f.made) }

// tell takes an event of a try, and writes the page of the one before when another one begins: that memory does
// not grow with the class.
func (f *pageFolder) tell(person, try int, e judge.Event) {
	if f.going == nil || person != f.person || try != f.try {
		f.flush()
		f.going, f.person, f.try = report.NewTryPage(f.problem, maker()), person, try
	}
	f.going.Tell(e)
}

func (f *pageFolder) flush() {
	if f.going == nil {
		return
	}
	of := f.going.Page()
	of.Title = f.problem.Title + ": " + f.people[f.person].Name
	f.writeErr = errors.Join(f.writeErr, f.write(fmt.Sprintf("%d-%d", f.person, f.try), of))
	f.going = nil
}

func (f *pageFolder) write(name string, p *page.Page) error {
	var text bytes.Buffer
	if err := page.Write(&text, ".html", p); err != nil {
		return err
	}
	return os.WriteFile(filepath.Join(f.made, name), text.Bytes(), 0o644)
}

// close gives each person the page of the try that counts, and the folder its name.
func (f *pageFolder) close(r *grade.Result) error {
	f.flush()
	err := f.writeErr
	for i, one := range r.People {
		name := filepath.Join(f.made, pageName(one.Name))
		for k := range one.Tries {
			tried := filepath.Join(f.made, fmt.Sprintf("%d-%d", i, k))
			if k == one.Counts {
				err = errors.Join(err, os.Rename(tried, name))
			} else {
				err = errors.Join(err, os.Remove(tried))
			}
		}
		if one.Counts < 0 {
			err = errors.Join(err, f.write(pageName(one.Name), report.EmptyPage(maker(), f.problem.Title+": "+one.Name, one.Lacks)))
		}
	}
	if err == nil {
		err = errors.Join(os.Chmod(f.made, 0o755), os.Rename(f.made, f.dir))
	}
	if err != nil {
		return usageError("--pages: %v", err)
	}
	return nil
}

// pageName is the file of a person's page.
func pageName(name string) string {
	return strings.Map(func(r rune) rune {
		if r == '/' || r == 0 {
			return '-'
		}
		return r
	}, name) + ".html"
}

func (a *app) packCommand() *cli.Command {
	var with []string
	return &cli.Command{
		Name:      "pack",
		Usage:     "write the folder that pupils get: no sealed cases, no references, no solutions",
		ArgsUsage: "DIR",
		Description: "Copies the problem into the new folder DIR: verdict.toml without solutions, the cases that are not\n" +
			"sealed, the shape, checkers and interactors, and a statement.* or README. Sources are left out, but for\n" +
			"those of --with.\n\n" +
			"   cold pack for-pupils\n" +
			"   cold pack for-pupils --with start.py",
		Flags: []cli.Flag{&cli.StringSliceFlag{Name: "with", Usage: "copy `FILE`, too, such as a source to start from", Destination: &with, TakesFile: true}},
		Action: func(_ context.Context, c *cli.Command) error {
			if c.Args().Len() != 1 {
				return usageError("name the new folder: cold pack for-pupils")
			}
			p, err := a.load()
			if err != nil {
				return err
			}
			packed, err := p.Pack(with)
			if err != nil {
				return err
			}
			if err := packed.Write(a.path(c.Args().First())); err != nil {
				return err
			}
			a.screen.Packed(c.Args().First(), packed)
			return nil
		},
	}
}
