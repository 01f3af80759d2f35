package cli

import (
	"cmp"
	"context"
	"fmt"
	"os"
	"path/filepath"
	"slices"
	"strings"
	"unicode"

	"github.com/urfave/cli/v3"

	"coldverdict/core/call"
	"coldverdict/core/problem"
	"coldverdict/core/statement"
	"coldverdict/core/toolchain"
)

func (a *app) openCommand() *cli.Command {
	var f openFlags
	return &cli.Command{
		Name:      "open",
		Usage:     "begin a problem: its folder, limits, and a source to start from",
		ArgsUsage: "NAME ...",
		Description: "Makes the folder NAME with a commented verdict.toml, an empty cases.md and, with\n" +
			"--lang, a source that reads its input fast, or your own from\n" +
			"~/.config/cold-verdict/templates/. What is there already stays as it is.\n\n" +
			"With --from it takes samples and limits from a statement that you saved: HTML, Markdown\n" +
			"or plain text. It says what it took from where, and what it was unsure of. A folder that\n" +
			"is there gets what it lacks.\n\n" +
			"   cold open teams --lang cpp --time 1s --memory 256MiB\n" +
			"   cold open teams --from ~/Downloads/teams.html\n" +
			"   cold open A B C --lang cpp --from round.html\n" +
			"   cold open thaw --lang java --call 'longest_thaw(temps: int[], limit: long) -> int'",
		Flags: []cli.Flag{
			&cli.StringSliceFlag{Name: "lang", Usage: "write a source in the language `NAME`, such as cpp, python or java", Destination: &f.languages},
			&cli.StringFlag{Name: "call", Usage: "the solution is a function: `SIGNATURE`, as in the last line above", Destination: &f.function},
			&cli.StringFlag{Name: "class", Usage: "the solution is a class: `METHODS`, as in 'Cache(room: int); put(key: int); size() -> int'", Destination: &f.class},
			&cli.StringFlag{Name: "reads", Usage: "let the source begin by reading `WHAT`: numbers or lines", DefaultText: "numbers", Destination: &f.reads},
			&cli.StringFlag{Name: "from", Usage: "take samples and limits from the statement `PAGE`: a file, - or clipboard", Destination: &f.from, TakesFile: true},
			&cli.BoolFlag{Name: "paste", Usage: "take samples and limits from a statement that you paste", Destination: &f.paste},
			&cli.StringFlag{Name: "problem", Usage: "of a page with several problems take `NAME`: its letter, its number, or a part of its title", Destination: &f.problem},
			&cli.StringFlag{Name: "time", Usage: "set the time limit to `D`, such as 1s", Destination: &f.fresh.Time},
			&cli.StringFlag{Name: "memory", Usage: "set the memory limit to `S`, such as 256MiB", Destination: &f.fresh.Memory},
		},
		Action: func(_ context.Context, c *cli.Command) error {
			return a.open(c, f)
		},
	}
}

// functionOf returns the function, or the class, that a new problem is about: what was given, or that of
// a problem that lies there already; nil for another kind of problem.
func (a *app) functionOf(dir string, f openFlags, s *statement.Statement) (*problem.Call, error) {
	given, class := f.function, f.class
	if given != "" {
		if read, err := statement.Signature(given); err == nil { // in any language
			given = read
		} else if _, ours := problem.ParseCall(given); ours != nil {
			return nil, usageError("--call: %v", err)
		}
	}
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
	parse, option := problem.ParseCall, "--call"
	switch {
	case given == "" && class == "" && there == nil && s != nil && s.Signature != "" && (len(s.Samples) == 0 || s.Samples[0].Arguments):
		call, err := problem.ParseCall(s.Signature)
		if err != nil {
			s.Unsure = append(s.Unsure, fmt.Sprintf("the function %s was left out: %v", s.Signature, err))
			return nil, nil
		}
		return call, nil
	case given == "" && class == "" && there == nil && s != nil && len(s.Samples) > 0 && s.Samples[0].Arguments:
		return nil, usageError("the samples of this page are arguments of a function, and it does not say which; add --call, such as --call 'f(%s) -> …'", strings.TrimSpace(string(s.Samples[0].Input)))
	case given == "" && class == "":
		return there, nil
	case given != "" && class != "":
		return nil, usageError("a solution is a function or a class; take --call or --class out")
	case class != "":
		parse, option, given = problem.ParseClass, "--class", class
	}
	function, err := parse(given)
	switch {
	case err != nil:
		return nil, usageError("%s: %v", option, err)
	case there != nil && there.String() != function.String():
		return nil, usageError("%s: the problem there is about another function: %s", option, there)
	}
	return function, nil
}

// start is a source to begin with, named after the folder, or the person's own template.
func (a *app) start(table *toolchain.Languages, l *toolchain.Language, fresh problem.Fresh, name, reads string) (file string, source []byte, err error) {
	if fresh.Call != nil {
		if file, source, err = call.Start(fresh.Call, l, name); err != nil {
			return "", nil, usageError("%v", err)
		}
		return file, source, nil // a template knows nothing of types
	}
	file, source, err = table.Start(l, name, reads)
	if err != nil && len(l.Extensions) > 0 {
		file = table.StartName(l, name, nil)
	}
	own, wrong := a.ownTemplate(l, file, source, fresh.Title)
	switch {
	case wrong != nil:
		return "", nil, wrong
	case own == nil && err != nil:
		return "", nil, usageError("%v, or put a template of your own into %s", err, filepath.Join(templatesFolder(), l.Name+l.FirstExtension()))
	}
	return l.FileName(file, own), own, nil // Java's is called after its class
}

// openFlags are what cold open was asked for.
type openFlags struct {
	fresh                                 problem.Fresh
	languages                             []string
	from, problem, function, class, reads string
	paste                                 bool
}

func (a *app) open(c *cli.Command, f openFlags) (err error) {
	if !c.Args().Present() {
		return usageError("name the folder of a problem: cold open teams")
	}
	if _, err := problem.ParseTime(f.fresh.Time); f.fresh.Time != "" && err != nil {
		return usageError("--time: %v", err)
	}
	if _, err := problem.ParseSize(f.fresh.Memory); f.fresh.Memory != "" && err != nil {
		return usageError("--memory: %v", err)
	}
	if c.Args().Len() > 1 && f.problem != "" {
		return usageError("--problem says which problem of a page one folder is about; name one folder")
	}
	if err := a.ownSettings(); err != nil {
		return err
	}
	page, err := a.page(f.from, f.paste)
	if err != nil {
		return err
	}
	home := a.dir
	if page != nil && c.Args().Len() > 1 { // before anything is made
		for _, name := range c.Args().Slice() {
			if _, err := a.oneOf(page, filepath.Base(name), name); err != nil {
				return err
			}
		}
	}
	for i, name := range c.Args().Slice() {
		if i > 0 {
			a.screen.Print("")
		}
		a.dir = home
		if err := a.openOne(name, f, page, c.Args().Len() > 1); err != nil {
			return err
		}
	}
	return nil
}

// openOne makes the folder of one problem. Among several it is the one of the page that is called so.
func (a *app) openOne(given string, f openFlags, page *taken, among bool) error {
	fresh, dir := f.fresh, a.path(given)
	absolute, err := filepath.Abs(dir)
	if err != nil {
		return err
	}
	name := filepath.Base(absolute) // which names files, whatever the title is
	if strings.ContainsFunc(name, unicode.IsControl) {
		return usageError("a folder named %q would have control characters in its name; choose another", name)
	}
	fresh.Title = name
	var s *statement.Statement
	if page != nil {
		wanted := f.problem
		if among {
			wanted = name
		}
		if s, err = a.oneOf(page, wanted, name); err != nil {
			return err
		}
		a.begin(s, &fresh)
	}
	if fresh.Call, err = a.functionOf(dir, f, s); err != nil {
		return err
	}
	if err := a.sources(dir, name, &fresh, f); err != nil {
		return err
	}
	made, kept, err := problem.Open(dir, fresh)
	if err != nil {
		return err
	}
	a.noteOpened(dir, name)
	for _, name := range made {
		a.screen.Print("made %s", filepath.Join(given, name))
	}
	for _, name := range kept {
		if name == problem.ConfigFile && len(fresh.Languages) > 0 {
			a.screen.Print("kept %s, which says which language the source is for", filepath.Join(given, name))
			continue
		}
		a.screen.Print("kept %s as it was", filepath.Join(given, name))
	}
	if fresh.Call != nil && (f.function != "" || s != nil && s.Signature != "") {
		a.screen.Print("the function is %s", fresh.Call)
	}
	if s != nil {
		return a.takeSamples(dir, page.name, *s, kept)
	}
	kind := (&problem.Problem{Call: fresh.Call}).Kind()
	a.screen.Print("next: cd %s, 'cold case add' for each %s, 'cold try'", given, kind.Example)
	return nil
}

// sources adds to a new problem a source to start from in each language that is wanted.
func (a *app) sources(dir, name string, fresh *problem.Fresh, f openFlags) error {
	languages := f.languages
	if len(languages) == 0 && a.own.Language != "" && !hasSource(dir, a.languages) {
		languages = []string{a.own.Language}
	}
	reads := cmp.Or(f.reads, toolchain.ReadsNumbers)
	if reads != toolchain.ReadsNumbers && reads != toolchain.ReadsLines {
		return usageError("--reads is %q; it can be numbers or lines", reads)
	}
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
		file, source, err := a.start(table, language, *fresh, name, reads)
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

// hasSource reports that a folder has a source already.
func hasSource(dir string, languages *toolchain.Languages) bool {
	entries, err := os.ReadDir(dir)
	return err == nil && slices.ContainsFunc(entries, func(e os.DirEntry) bool { return !e.IsDir() && languages.IsSource(e.Name()) })
}
