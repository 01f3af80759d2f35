package cli

import (
	"bytes"
	"context"
	"fmt"
	"io"
	"io/fs"
	"os"
	"os/exec"
	"path/filepath"
	"slices"
	"strconv"
	"strings"
	"time"

	"github.com/atotto/clipboard"
	"github.com/urfave/cli/v3"

	"coldverdict/core/problem"
	"coldverdict/core/statement"
	"coldverdict/core/toolchain"
	view "coldverdict/term"
)

// largestPage bounds a saved statement, in bytes.
const largestPage = 32 << 20

// A source of a statement: where it is from, and what it holds.
type taken struct {
	name string // as it is told
	page statement.Page
}

// page reads a statement from a file, from standard input ("-"), from the clipboard, or from a paste.
func (a *app) page(from string, paste bool) (*taken, error) {
	var text []byte
	var err error
	t := &taken{name: filepath.Base(from)}
	switch {
	case paste && from != "":
		return nil, usageError("--paste and --from are two ways to the same; choose one")
	case paste:
		t.name = "the paste"
		if file := a.terminal(); file != nil {
			text, err = a.readTyped(file, "paste the statement")
		} else {
			text, _, err = readPaste(a.input())
		}
	case from == "":
		return nil, nil
	case from == "-":
		t.name = "standard input"
		text, err = io.ReadAll(io.LimitReader(a.input(), largestPage+1))
	case from == "clipboard":
		t.name = "the clipboard"
		text, err = a.clipboardPage()
	default:
		text, err = a.savedPage(from)
	}
	if err != nil {
		return nil, err
	}
	if len(text) > largestPage {
		return nil, usageError("%s is no statement: it is larger than %d MiB", t.name, largestPage>>20)
	}
	if len(bytes.TrimSpace(text)) == 0 {
		return nil, usageError("there is nothing in %s", t.name)
	}
	t.page = statement.Read(text)
	return t, nil
}

func (a *app) savedPage(name string) ([]byte, error) {
	info, err := os.Stat(a.path(name))
	switch {
	case err != nil:
		return nil, usageError("--from: there is no file %s; save the page first, or say - or clipboard", name)
	case !info.Mode().IsRegular() || info.Size() > largestPage:
		return nil, usageError("--from: %s is no saved page: a file of at most %d MiB was expected", name, largestPage>>20)
	}
	text, err := os.ReadFile(a.path(name))
	if err != nil {
		return nil, usageError("--from: %v", err)
	}
	return text, nil
}

// clipboardPage is what is in the clipboard: as HTML where the system has that, since it keeps what is a block.
func (a *app) clipboardPage() ([]byte, error) {
	for _, command := range [][]string{{"wl-paste", "--type", "text/html", "--no-newline"}, {"xclip", "-selection", "clipboard", "-target", "text/html", "-out"}} {
		if _, err := exec.LookPath(command[0]); err != nil {
			continue
		}
		ctx, cancel := context.WithTimeout(context.Background(), 5*time.Second)
		text, err := exec.CommandContext(ctx, command[0], command[1:]...).Output()
		cancel()
		if err == nil && len(bytes.TrimSpace(text)) > 0 {
			return text, nil
		}
	}
	if clipboard.Unsupported {
		return nil, usageError("the clipboard cannot be read: install wl-clipboard, xclip or xsel, or use --paste")
	}
	r, err := readClipboard()
	if err != nil {
		return nil, err
	}
	return io.ReadAll(r)
}

// oneOf chooses a problem of a page: the one that is wanted by its letter, its number or its title, the one that the
// folder is called after, or the one that the person says.
func (a *app) oneOf(t *taken, wanted, name string) (*statement.Statement, error) {
	list := t.page.Problems
	if len(list) == 1 && wanted == "" {
		return &list[0], nil
	}
	find := func(word string) *statement.Statement {
		plain := strings.ToLower(strings.TrimSpace(word))
		for i := range list {
			if strings.ToLower(list[i].Letter) == plain && plain != "" {
				return &list[i]
			}
		}
		if n, err := strconv.Atoi(plain); err == nil && n >= 1 && n <= len(list) {
			return &list[n-1]
		}
		var found *statement.Statement
		for i := range list {
			if plain != "" && strings.Contains(strings.ToLower(list[i].Title), plain) {
				if found != nil {
					return nil
				}
				found = &list[i]
			}
		}
		return found
	}
	titles := make([]string, len(list))
	for i, s := range list {
		titles[i] = fmt.Sprintf("%d  %s (%s)", i+1, view.Visible(s.Title), view.Count(len(s.Samples), "sample"))
	}
	if wanted != "" {
		if s := find(wanted); s != nil {
			return s, nil
		}
		return nil, usageError("--problem: %s has no problem %q; it has:\n  %s", t.name, wanted, strings.Join(titles, "\n  "))
	}
	if s := find(name); s != nil {
		return s, nil
	}
	if a.terminal() == nil {
		return nil, usageError("%s has several problems; say which with --problem:\n  %s", t.name, strings.Join(titles, "\n  "))
	}
	a.screen.Print("%s has several problems:\n  %s", t.name, strings.Join(titles, "\n  "))
	answer, err := a.line("which one? ")
	if err != nil {
		return nil, err
	}
	if s := find(answer); s != nil {
		return s, nil
	}
	return nil, usageError("%s has no problem %q; nothing was made", t.name, answer)
}

// begin lets a statement say what the person did not.
func (a *app) begin(s *statement.Statement, fresh *problem.Fresh) {
	if s.Title != "" {
		fresh.Title = s.Title
	}
	// What the person says themselves stands above the page.
	if _, err := problem.ParseTime(s.Time); fresh.Time == "" && err == nil {
		fresh.Time = s.Time
	}
	if _, err := problem.ParseSize(s.Memory); fresh.Memory == "" && err == nil {
		fresh.Memory = s.Memory
	}
	known := toolchain.Ours()
	for _, l := range s.Languages {
		if _, ok := known.Find(l.Language); !ok {
			continue
		}
		if fresh.Times == nil {
			fresh.Times = map[string]string{}
		}
		fresh.Times[l.Language] = l.Time
	}
	fresh.Absolute, fresh.Relative = s.Absolute, s.Relative
	fresh.Named = s.Files
	for _, file := range []*string{&fresh.Named.Input, &fresh.Named.Output} {
		if *file != "" && !problem.IsFileName(*file) {
			s.Unsure = append(s.Unsure, fmt.Sprintf("it names a file %q, which is no plain name and was left out", *file))
			*file = ""
		}
	}
}

// takeSamples writes the samples of a page down and says what came from where.
func (a *app) takeSamples(dir, name string, s statement.Statement, kept []string) error {
	a.screen.Print("\nfrom %s:", view.Visible(name))
	for _, t := range s.Took {
		if strings.HasPrefix(t.What, "sample ") { // they are shown whole
			continue
		}
		a.screen.Print("  line %-5d %s", t.Line, view.Visible(t.What))
	}
	if slices.Contains(kept, problem.ConfigFile) {
		a.screen.Print("  verdict.toml was there and kept its own limits")
	}
	a.dir = dir
	doubtful := 0
	for i, sample := range s.Samples {
		p, err := a.loadFor(true)
		if err != nil {
			return err
		}
		reason := fmt.Sprintf("From %s, line %d.", name, sample.Line)
		if sample.Reason != "" {
			reason += " " + sample.Reason
		}
		if len(sample.Doubts) > 0 {
			reason = fmt.Sprintf("From %s, line %d; doubtful: %s.", name, sample.Line, strings.Join(sample.Doubts, "; "))
			if sample.Reason != "" {
				reason += "\n\n" + sample.Reason
			}
		}
		n := problem.NewCase{Group: "Samples", Reason: reason, Input: sample.Input, Output: sample.Output, Unsure: len(sample.Doubts) > 0}
		if n, err = p.WithCalls(n); err != nil {
			s.Unsure = append(s.Unsure, fmt.Sprintf("line %d: sample %d was left out: %v", sample.Line, i+1, err))
			continue
		}
		if caseWith(p, n.Input) != "" {
			a.screen.Print("  the sample of line %d is among the cases already", sample.Line)
			continue
		}
		if len(sample.Doubts) > 0 {
			doubtful++
		}
		a.screen.Print("")
		if err := a.addCase(p, n); err != nil {
			return err
		}
		a.screen.Sample(n.Input, n.Output, sample.Line, sample.OutLine, sample.Doubts)
	}
	for _, list := range []struct {
		title string
		words []string
	}{{"look at these:", s.Unsure}, {"perhaps:", s.Perhaps}} {
		if len(list.words) > 0 {
			a.screen.Print("\n%s", list.title)
		}
		for _, words := range list.words {
			a.screen.Print("  %s", view.Visible(words))
		}
	}
	if missing := missingFrom(s); missing != "" {
		a.screen.Print("\nnot found: %s", missing)
	}
	if doubtful > 0 {
		a.screen.Print("\n%s taken with doubt: compare with the statement, then say 'cold case sure NAME'", view.Count(doubtful, "sample"))
	}
	a.screen.Print("\nnext: 'cold try' in %s", view.Visible(filepath.Base(dir)))
	return nil
}

func missingFrom(s statement.Statement) string {
	var missing []string
	if len(s.Samples) == 0 {
		missing = append(missing, "samples ('cold case add' takes them from a paste)")
	}
	if s.Time == "" {
		missing = append(missing, "a time limit")
	}
	if s.Memory == "" {
		missing = append(missing, "a memory limit")
	}
	return strings.Join(missing, ", ")
}

func (a *app) caseSureCommand() *cli.Command {
	return &cli.Command{
		Name:        "sure",
		Usage:       "say that a sample taken with doubt is right",
		ArgsUsage:   "NAME ...",
		Description: "A sample that was taken from a statement with doubt says so in every failure, until you have\ncompared it with the statement.\n\n   cold case sure samples/2",
		Action: func(_ context.Context, c *cli.Command) error {
			if !c.Args().Present() {
				return usageError("name a case, such as samples/2; 'cold case list' says which were taken with doubt")
			}
			p, indices, err := a.chosenCases(c.Args().Slice())
			if err != nil {
				return err
			}
			for _, i := range indices {
				where, err := p.Sure(p.Cases[i])
				if err != nil {
					return err
				}
				a.screen.Print("%s is no longer doubtful in %s", view.Visible(p.Cases[i].Name), view.Visible(where))
			}
			return nil
		},
	}
}

// templatesFolder is where the person's own sources to start from are.
func templatesFolder() string {
	dir, err := os.UserConfigDir()
	if err != nil {
		return ""
	}
	return filepath.Join(dir, "cold-verdict", "templates")
}

// ownTemplate returns the person's own source to start from, if there is one
// named after the language (cpp17.cpp, or cpp.cpp), and otherwise ours; nil: there is none.
func (a *app) ownTemplate(language *toolchain.Language, file string, ours []byte, title string) ([]byte, error) {
	entries, err := os.ReadDir(templatesFolder())
	if err != nil {
		return ours, nil
	}
	for _, entry := range entries {
		stem := strings.TrimSuffix(entry.Name(), filepath.Ext(entry.Name()))
		if stem != language.Name || entry.Type()&(fs.ModeDir) != 0 {
			continue
		}
		text, err := os.ReadFile(filepath.Join(templatesFolder(), entry.Name()))
		if err != nil {
			return nil, usageError("the template cannot be read: %v", err)
		}
		class := strings.TrimSuffix(file, filepath.Ext(file))
		fill := strings.NewReplacer("{{title}}", title, "{{file}}", file, "{{class}}", class, "{{date}}", time.Now().Format(time.DateOnly))
		return []byte(fill.Replace(string(text))), nil
	}
	return ours, nil
}
