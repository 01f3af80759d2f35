package cli

import (
	"context"
	"path/filepath"
	"strings"
	"unicode"

	"github.com/urfave/cli/v3"

	"coldverdict/core/call"
	"coldverdict/core/problem"
	"coldverdict/core/toolchain"
)

func (a *app) openCommand() *cli.Command {
	var languages []string
	var fresh problem.Fresh
	var page, function string
	return &cli.Command{
		Name:      "open",
		Usage:     "begin a problem: its folder, limits, and a source to start from",
		ArgsUsage: "NAME",
		Description: "Makes the folder NAME with a commented verdict.toml, an empty cases.md and, with\n" +
			"--lang, a source that reads its input fast, or your own from\n" +
			"~/.config/cold-verdict/templates/. What is there already stays as it is.\n\n" +
			"With --from it takes samples and limits from a statement that you saved: HTML, Markdown\n" +
			"or plain text. It says what it took from where, and what it was unsure of.\n\n" +
			"   cold open teams --lang cpp --time 1s --memory 256MiB\n" +
			"   cold open teams --from ~/Downloads/teams.html\n" +
			"   cold open thaw --lang java --call 'longest_thaw(temps: int[], limit: long) -> int'",
		Flags: []cli.Flag{
			&cli.StringSliceFlag{Name: "lang", Usage: "write a source in the language `NAME`, such as cpp, python or java", Destination: &languages},
			&cli.StringFlag{Name: "call", Usage: "the solution is a function: `SIGNATURE`, as in the last line above", Destination: &function},
			&cli.StringFlag{Name: "from", Usage: "take samples and limits from the saved statement `PAGE`", Destination: &page, TakesFile: true},
			&cli.StringFlag{Name: "time", Usage: "set the time limit to `D`, such as 1s", Destination: &fresh.Time},
			&cli.StringFlag{Name: "memory", Usage: "set the memory limit to `S`, such as 256MiB", Destination: &fresh.Memory},
		},
		Action: func(_ context.Context, c *cli.Command) error { return a.open(c, fresh, languages, page, function) },
	}
}

// functionOf returns the function that a new problem is about: the one that was
// given, or that of a problem that lies there already; nil for another kind of
// problem.
func (a *app) functionOf(dir, given string) (*problem.Call, error) {
	languages, err := languagesOf(dir)
	if err != nil {
		return nil, err
	}
	words := vocabulary(languages)
	var there *problem.Call
	if problem.IsFolder(dir, words) {
		if p, err := problem.Load(dir, words); err == nil {
			there = p.Call
		}
	}
	if given == "" {
		return there, nil
	}
	function, err := problem.ParseCall(given)
	switch {
	case err != nil:
		return nil, usageError("--call: %v", err)
	case there != nil && there.String() != function.String():
		return nil, usageError("--call: the problem there is about another function: %s", there)
	}
	return function, nil
}

// start is a source to begin with, named after the folder, or the person's own template.
func (a *app) start(table *toolchain.Languages, l *toolchain.Language, fresh problem.Fresh, name string) (file string, source []byte, err error) {
	if fresh.Call != nil {
		file, source, err = call.Start(fresh.Call, l, name)
	} else {
		file, source, err = table.Start(l, name)
	}
	if err != nil {
		return "", nil, usageError("%v", err)
	}
	if fresh.Call == nil { // which knows nothing of types
		source, err = a.ownTemplate(l, file, source, fresh.Title)
	}
	return file, source, err
}

func (a *app) open(c *cli.Command, fresh problem.Fresh, languages []string, page, function string) (err error) {
	if c.Args().Len() != 1 {
		return usageError("name the folder of one problem: cold open teams")
	}
	if _, err := problem.ParseTime(fresh.Time); fresh.Time != "" && err != nil {
		return usageError("--time: %v", err)
	}
	if _, err := problem.ParseSize(fresh.Memory); fresh.Memory != "" && err != nil {
		return usageError("--memory: %v", err)
	}
	dir := a.path(c.Args().First())
	absolute, err := filepath.Abs(dir)
	if err != nil {
		return err
	}
	name := filepath.Base(absolute) // which names files, whatever the title is
	if strings.ContainsFunc(name, unicode.IsControl) {
		return usageError("a folder named %q would have control characters in its name; choose another", name)
	}
	fresh.Title = name
	if fresh.Call, err = a.functionOf(dir, function); err != nil {
		return err
	}
	statement, err := a.statement(page, &fresh)
	if err != nil {
		return err
	}
	if err := a.sources(dir, name, &fresh, languages); err != nil {
		return err
	}
	made, kept, err := problem.Open(dir, fresh)
	if err != nil {
		return err
	}
	for _, name := range made {
		a.screen.Print("made %s", filepath.Join(c.Args().First(), name))
	}
	for _, name := range kept {
		if name == problem.ConfigFile && len(fresh.Languages) > 0 {
			a.screen.Print("kept %s, which says which language the source is for", filepath.Join(c.Args().First(), name))
			continue
		}
		a.screen.Print("kept %s as it was", filepath.Join(c.Args().First(), name))
	}
	if statement != nil {
		return a.takeSamples(dir, page, *statement, kept)
	}
	kind := (&problem.Problem{Call: fresh.Call}).Kind()
	a.screen.Print("next: cd %s, 'cold case add' for each %s, 'cold try'", c.Args().First(), kind.Example)
	return nil
}

// sources adds to a new problem a source to start from in each language that is wanted.
func (a *app) sources(dir, name string, fresh *problem.Fresh, languages []string) error {
	fresh.Files, fresh.Languages = map[string][]byte{}, map[string]string{}
	table, err := languagesOf(dir)
	if err != nil {
		return err
	}
	fresh.Words = vocabulary(table)
	for _, wanted := range languages {
		language, ok := table.Find(wanted)
		if !ok {
			return noSuchLanguage(table, wanted)
		}
		file, source, err := a.start(table, language, *fresh, name)
		if err != nil {
			return err
		}
		fresh.Files[file] = source
		usual, standard, err := table.Choose(file, "")
		if chosen, own, err2 := table.Choose(file, wanted); err2 == nil && (err != nil || usual != chosen || standard != own) {
			fresh.Languages[file] = wanted
		}
	}
	return nil
}
