package problem

import (
	"errors"
	"fmt"
	"maps"
	"os"
	"path/filepath"
	"slices"
	"strconv"
	"strings"

	"coldverdict/core/settings"
	"coldverdict/core/value"
)

// A Fresh says what a new problem's folder begins with.
type Fresh struct {
	Title  string
	Time   string            // as the person wrote it; empty: left to the default
	Memory string            // likewise
	Times  map[string]string // time limits that languages have to themselves, by their names
	// Absolute and Relative are the errors that answers may have; empty: none is said.
	Absolute, Relative string
	Named              Files             // what a solution reads and writes, if not standard input and output
	Call               *Call             // of a function problem; nil: of none
	Files              map[string][]byte // further files, such as a source to begin with
	Words              Vocabulary        // to read a folder that is there already
	// Languages are those of files whose extension says another one, by their names.
	Languages map[string]string
}

// Open makes a problem's folder, or adds to one what it lacks. A file that is
// there already stays as it is. It returns the names of the files that were
// made and of those that were kept.
func Open(dir string, f Fresh) (made, kept []string, err error) {
	if info, err := os.Stat(dir); err == nil && !info.IsDir() {
		return nil, nil, &RequestError{fmt.Sprintf("%s is %s; choose another name for the folder", dir, kind(info))}
	}
	if err := os.MkdirAll(dir, 0o755); err != nil {
		return nil, nil, err
	}
	names := []string{ConfigFile, CasesFile}
	texts := map[string][]byte{ConfigFile: []byte(f.config()), CasesFile: []byte(f.cases())}
	for name, text := range f.Files {
		names = append(names, name)
		texts[name] = text
	}
	for _, name := range names {
		if _, err := os.Lstat(filepath.Join(dir, name)); name == ConfigFile && err == nil && len(f.Languages) > 0 {
			if err := f.nameLanguages(dir); err != nil {
				return made, kept, err
			}
		}
		err := writeNew(filepath.Join(dir, name), texts[name])
		switch {
		case errors.Is(err, os.ErrExist):
			kept = append(kept, name)
		case err != nil:
			return made, kept, err
		default:
			made = append(made, name)
		}
	}
	return made, kept, nil
}

// writeNew writes a file that must not be there yet, whole or not at all.
func writeNew(path string, text []byte) error {
	if _, err := os.Lstat(path); err == nil {
		return os.ErrExist
	}
	return WriteWhole(path, text, 0o644)
}

// config is a verdict.toml in which everything that was not said is a comment.
func (f Fresh) config() string {
	line := func(key, value, usual, words string) string {
		if value == "" {
			return fmt.Sprintf("# %-6s = %-9q # %s", key, usual, words)
		}
		return fmt.Sprintf("%-6s   = %-9q # %s", key, value, words)
	}
	return strings.Join([]string{
		"title = " + settings.Quoted(f.Title),
		"",
		"[limits]             # what the statement says; a line with # in front is not set",
		line("time", f.Time, "2s", "processor time of the whole process tree, for each case"),
		line("wall", "", "5s", "elapsed time; by default twice the time and a second more"),
		line("memory", f.Memory, "256MiB", "peak of the whole process tree"),
		line("output", "", "64MiB", "all that is written"),
		"",
		f.filesTable() + f.callTable() + f.languageTables() + f.compareTable(),
		"# ignore_case = false",
		"# any_order = \"lines\"  # the lines, or \"tokens\", may come in any order",
		"",
		"# [[solution]]         # files that play a part: a reference is never tried unasked",
		"# file = \"brute.py\"",
		"# role = \"reference\"",
		"",
	}, "\n") + f.solutionTables(nil)
}

// solutionTables say the language of files whose extension says another one, but for those
// that are named already.
func (f Fresh) solutionTables(named []Solution) (text string) {
	for _, file := range slices.Sorted(maps.Keys(f.Languages)) {
		if !slices.ContainsFunc(named, func(s Solution) bool { return filepath.Clean(s.File) == file }) {
			text += fmt.Sprintf("\n[[solution]]\nfile     = %s\nlanguage = %s\n", settings.Quoted(file), settings.Quoted(f.Languages[file]))
		}
	}
	return text
}

// nameLanguages adds the languages of files to the verdict.toml that is there.
func (f Fresh) nameLanguages(dir string) error {
	p, err := Load(dir, f.Words)
	if err != nil {
		return err
	}
	return p.changing(func(now *Problem) error {
		old, err := os.ReadFile(now.full(ConfigFile))
		if err != nil {
			return err
		}
		more := f.solutionTables(now.Solutions)
		if more == "" {
			return nil
		}
		if len(old) > 0 && old[len(old)-1] != '\n' {
			more = "\n" + more
		}
		return now.rewrite(ConfigFile, old, append(slices.Clone(old), more...))
	})
}

// languageTables are the limits of languages, or how they would be written.
func (f Fresh) languageTables() string {
	if len(f.Times) == 0 {
		return "# [limits.python]      # a language's own limits, where the judge gives it more\n# time = \"5s\"\n\n"
	}
	text := ""
	for _, language := range slices.Sorted(maps.Keys(f.Times)) {
		text += fmt.Sprintf("[limits.%s]\ntime = %s\n\n", language, settings.Quoted(f.Times[language]))
	}
	return text
}

// compareTable is how answers are compared, or how that would be written.
func (f Fresh) compareTable() string {
	if f.Absolute == "" && f.Relative == "" {
		return "# [compare]\n# mode = \"lines\"       # lines, tokens (all spacing is the same), numbers or exact\n# absolute = 1e-6      # with mode = \"numbers\"\n# relative = 1e-6"
	}
	text := "[compare]\n"
	if f.Call == nil {
		text += "mode = \"numbers\"       # lines, tokens (all spacing is the same), numbers or exact\n"
	}
	for _, one := range [][2]string{{"absolute", f.Absolute}, {"relative", f.Relative}} {
		if one[1] != "" {
			text += one[0] + " = " + one[1] + "\n"
		}
	}
	return strings.TrimSuffix(text, "\n")
}

// filesTable is the table that names files, or nothing.
func (f Fresh) filesTable() string {
	if f.Named == (Files{}) {
		return ""
	}
	text := "[files]              # solutions read and write these, not standard input and output\n"
	for _, one := range [][2]string{{"input", f.Named.Input}, {"output", f.Named.Output}} {
		if one[1] != "" {
			text += fmt.Sprintf("%-6s   = %s\n", one[0], settings.Quoted(one[1]))
		}
	}
	return text + "\n"
}

// callTable is the table that describes a function, or nothing.
func (f Fresh) callTable() string {
	if f.Call == nil {
		return ""
	}
	list := func(fields []value.Field) string {
		words := make([]string, len(fields))
		for i, field := range fields {
			words[i] = settings.Quoted(field.String())
		}
		return strings.Join(words, ", ")
	}
	if class := f.Call.Class; class != nil {
		text := "[class]              # solutions define this class, in their language's own spelling\nname    = " + settings.Quoted(f.Call.Name) + "\n"
		if len(class.New) > 0 {
			text += "new     = [" + list(class.New) + "]\n"
		}
		text += "methods = [\n"
		for _, m := range class.Methods {
			text += "    " + settings.Quoted(m.String()) + ",\n"
		}
		return text + "]\n\n"
	}
	returns := list(f.Call.Returns)
	switch {
	case f.Call.UpTo:
		returns = "[" + returns + ", " + settings.Quoted(changesWord+strconv.Itoa(f.Call.Changes)+upToWord+f.Call.Returns[0].Name) + "]"
	case f.Call.CopyOf > 0:
		returns = settings.Quoted(copyOfWord + strconv.Itoa(f.Call.CopyOf))
	case f.Call.Changes > 0:
		returns = settings.Quoted(changesWord + strconv.Itoa(f.Call.Changes))
	case len(f.Call.Returns) > 1:
		returns = "[" + returns + "]"
	}
	return fmt.Sprintf("[call]               # solutions define this function, in their language's own spelling\nname     = %s\ntakes    = [%s]\nreturns  = %s\n\n",
		settings.Quoted(f.Call.Name), list(f.Call.Takes), returns)
}

// cases is a cases.md without a case.
func (f Fresh) cases() string {
	if f.Call == nil {
		return emptyCases
	}
	if class := f.Call.Class; class != nil {
		calls := "new(" + strings.Repeat("…, ", len(class.New))
		calls = strings.TrimSuffix(calls, ", ") + ")\n"
		for _, m := range class.Methods {
			calls += m.Name + "(" + strings.TrimSuffix(strings.Repeat("…, ", len(m.Takes)), ", ") + ")"
			if m.Returns != nil {
				calls += " -> …"
			}
			calls += "\n"
		}
		return strings.NewReplacer("```input\n4 10\n5 5 5 5\n```\n\n```output\n2\n```", "```calls\n"+calls+"```",
			"Four crates, all alike.", "Why this case exists.").Replace(emptyCases)
	}
	arguments := ""
	for _, field := range f.Call.Takes {
		arguments += field.Name + ": …\n"
	}
	return strings.NewReplacer("4 10\n5 5 5 5\n", arguments, "\n2\n", "\n…\n", "```input", "```call", "```output", "```returns",
		"Four crates, all alike.", "Why this case exists.").Replace(emptyCases)
}

const emptyCases = `<!-- Cases are written like this: a heading with one # is a group, one with two is a
case, the text under it says why the case exists, and the blocks hold the data.
'cold case add' writes them from what you paste.

# Samples

## 1
Four crates, all alike.

` + "```input\n4 10\n5 5 5 5\n```\n\n```output\n2\n```\n\n-->\n"
