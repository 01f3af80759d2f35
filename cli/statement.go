package cli

import (
	"fmt"
	"io/fs"
	"os"
	"path/filepath"
	"slices"
	"strings"
	"time"

	"coldverdict/core/intake"
	"coldverdict/core/problem"
	"coldverdict/core/toolchain"
	view "coldverdict/term"
)

// largestPage bounds a saved statement, in bytes.
const largestPage = 32 << 20

// statement reads a saved page and lets it say what the person did not.
func (a *app) statement(page string, fresh *problem.Fresh) (*intake.Statement, error) {
	if page == "" {
		return nil, nil
	}
	info, err := os.Stat(a.path(page))
	switch {
	case err != nil:
		return nil, usageError("--from: there is no file %s; save the page first", page)
	case !info.Mode().IsRegular() || info.Size() > largestPage:
		return nil, usageError("--from: %s is no saved page: a file of at most %d MiB was expected", page, largestPage>>20)
	}
	text, err := os.ReadFile(a.path(page))
	if err != nil {
		return nil, usageError("--from: %v", err)
	}
	s := intake.ReadPage(text)
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
	fresh.Named = s.Files
	for _, file := range []*string{&fresh.Named.Input, &fresh.Named.Output} {
		if *file != "" && !problem.IsFileName(*file) {
			s.Unsure = append(s.Unsure, fmt.Sprintf("it names a file %q, which is no plain name and was left out", *file))
			*file = ""
		}
	}
	return &s, nil
}

// takeSamples writes the samples of a page down and says what came from where.
func (a *app) takeSamples(dir, page string, s intake.Statement, kept []string) error {
	name := filepath.Base(page)
	a.screen.Print("\nfrom %s:", view.Visible(name))
	for _, t := range s.Took {
		a.screen.Print("  line %-5d %s", t.Line, view.Visible(t.What))
	}
	if slices.Contains(kept, problem.ConfigFile) {
		a.screen.Print("  verdict.toml was there and kept its own limits")
	}
	a.dir = dir
	for _, sample := range s.Samples {
		p, err := a.loadFor(true)
		if err != nil {
			return err
		}
		if caseWith(p, sample.Input) != "" {
			a.screen.Print("  the sample of line %d is among the cases already", sample.Line)
			continue
		}
		n := problem.NewCase{Group: "Samples", Reason: fmt.Sprintf("From %s, line %d.", name, sample.Line), Input: sample.Input, Output: sample.Output}
		if err := a.addCase(p, n); err != nil {
			return err
		}
	}
	if len(s.Unsure) > 0 {
		a.screen.Print("\nlook at these:")
		for _, words := range s.Unsure {
			a.screen.Print("  %s", view.Visible(words))
		}
	}
	if missing := missingFrom(s); missing != "" {
		a.screen.Print("\nnot found: %s", missing)
	}
	a.screen.Print("\nnext: 'cold try' in %s", view.Visible(filepath.Base(dir)))
	return nil
}

func missingFrom(s intake.Statement) string {
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

// templatesFolder is where the person's own sources to start from are.
func templatesFolder() string {
	dir, err := os.UserConfigDir()
	if err != nil {
		return ""
	}
	return filepath.Join(dir, "cold-verdict", "templates")
}

// ownTemplate returns the person's own source to start from, if there is one
// named after the language (cpp17.cpp, or cpp.cpp), and otherwise ours.
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
