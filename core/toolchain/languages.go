package toolchain

import (
	_ "embed"
	"fmt"
	"path/filepath"
	"slices"
	"strings"

	"coldverdict/internal/lazy"
)

// A Language is one entry of the table: all that the program knows of it. The
// head of languages.toml says what each key means, and what {words} commands
// may hold.
type Language struct {
	Name       string // "cpp"
	Title      string // "C++"
	Like       string // the entry that this one was made from; empty: none
	Extensions []string
	Compiler   Tool
	Runtime    Tool
	Library    []string

	Standard  string            // the name used where a solution names none; empty: there is no choice
	Standards map[string]string // names and what {standard} becomes: "cpp17" and "gnu++17"

	Build      []Command
	Headers    Command // compiles headers with which sources begin; empty: they are read in each build
	BuildAgain []Command
	AgainIf    []string
	// SteppedAgainIf is to SteppedAgain what AgainIf is to BuildAgain.
	SteppedAgainIf []string
	Checked        []Command // of the checked build; empty: the language has none
	CheckedAgain   []Command
	CheckedRun     Command   // empty: Run
	CheckedMild    []Pattern // what the checked build says of what works everywhere or may be meant
	Traced         []Command // of the traced build; empty: the language has none
	Stepped        []Command // of the stepped build; empty: the language has none
	SteppedAgain   []Command // tried instead if what Stepped said holds one of SteppedAgainIf
	SteppedRun     Command   // empty: Run
	// SteppedHeaders is to Stepped what Headers is to Build.
	SteppedHeaders Command
	Run            Command
	Serve          Command // runs a program on many inputs, see Kit.Server; empty: each run starts the runtime
	Server         string  // file of serve whose text is {server} there, or the folder of what is compiled of it
	Diagnose       Command // empty: nothing would be learned
	Hidden         []string
	Sees           []string // patterns of paths, "~/..." too, that builds and programs may read besides the tools' own

	BuildEnvironment   []string // KEY=value, above the person's own environment
	Environment        []string // likewise, for a run
	CheckedEnvironment []string // likewise, for a run of a checked build

	Includes   string // file that Build writes the names of included files to, as make(1) reads them
	Files      map[string]string
	SourceName Pattern // its group in the source names the file
	Identifier bool
	Main       string

	Errors    []Pattern
	Innermost string
	Says      map[string][]Pattern // by kind
	Advice    map[string]string    // by kind
	Slow      SlowInput
	// StartSeconds is the processor time that the runtime may take before the first line of a
	// source, in seconds; 0: next to none.
	StartSeconds float64
	Notes        []Note
}

// A Command is a program and its arguments, with {words} in them.
type Command []string

// A Pattern is a regular expression that is compiled when it is first needed.
// The zero value matches nothing.
type Pattern struct{ compiled lazy.Regexp }

func newPattern(text string) Pattern { return Pattern{lazy.New(text)} }

func (p Pattern) matches(text string) bool {
	return p.compiled != nil && p.compiled().MatchString(text)
}

// A Tool is a program of a language: a compiler or a runtime.
type Tool struct {
	Command []string // names to look for, the best first; empty: none is needed
	Name    string   // what it is called where it says only its version
	Version []string // arguments that make it print its version
	// Locate are arguments that make it print the path of its own executable
	// on the first line and its version on the second, for runtimes that are
	// often started through a script.
	Locate []string
	// Depends names files ("~/...") and variables ("$...") that decide which
	// version such a script starts, or what it does.
	Depends []string
	Least   string // the first version that serves; empty: any
	Package string // what to install where it is missing
}

// SlowInput is a way to read input that is often too slow.
type SlowInput struct {
	Match  Pattern // in the source
	Unless Pattern // likewise, what makes it fast
	Speed  float64 // bytes a second
	Say    string
}

// A Note is something in a source that runs here and that a judge may refuse.
type Note struct {
	Match Pattern // in the source
	Say   string
}

// Family returns the names whose limits count for an entry, the last above the
// others: its own, and before it those of entries that it was made from and
// that take the same files, as two compilers of one language do.
func (t *Languages) Family(l *Language) []string {
	names := []string{l.Name}
	for base := t.named[l.Like]; base != nil; base = t.named[base.Like] {
		if slices.ContainsFunc(base.Extensions, func(e string) bool { return slices.Contains(l.Extensions, e) }) {
			names = append([]string{base.Name}, names...)
		}
	}
	return names
}

// Languages is a table of languages. It does not change while it is used.
type Languages struct {
	list  []*Language
	named map[string]*Language
}

//go:embed languages.toml
var ours []byte

// TableName is what the table of the program itself is called in messages.
const TableName = "languages.toml"

// Ours returns the table of the program itself.
func Ours() *Languages {
	t := &Languages{named: map[string]*Language{}}
	if mistakes := t.Add(TableName, ours); len(mistakes) > 0 {
		panic(mistakes) // a test reads them first
	}
	return t
}

// Text returns the table of the program itself as it is written.
func Text() string { return string(ours) }

// A choice is one way to serve a source.
type choice struct {
	language *Language
	standard string
}

// choices returns the way to serve a language or a standard by its name.
func (t *Languages) choices(name string) (all []choice) {
	for _, l := range t.list {
		switch _, isStandard := l.Standards[name]; {
		case l.Name == name:
			return []choice{{l, l.Standard}}
		case isStandard:
			return []choice{{l, name}}
		}
	}
	return nil
}

// forFile returns the ways to serve a source file, by its extension.
func (t *Languages) forFile(name string) (all []choice) {
	for _, l := range t.list {
		if slices.Contains(l.Extensions, filepath.Ext(name)) {
			all = append(all, choice{l, l.Standard})
		}
	}
	return all
}

// of returns the ways to serve a source.
func (t *Languages) of(s Source) ([]choice, error) {
	if s.Language != "" {
		if all := t.choices(s.Language); all != nil {
			return all, nil
		}
		return nil, fmt.Errorf("there is no language %q; there are %s", s.Language, strings.Join(t.NamesWithStandards(), ", "))
	}
	if all := t.forFile(s.Path); all != nil {
		return all, nil
	}
	return nil, fmt.Errorf("the extension of %s names no language; say which with --lang", filepath.Base(s.Path))
}

// Choose returns the entry, and the standard, that serve a source first, whether or
// not its tools are there: by a name, if it is not empty, and otherwise by the
// extension.
func (t *Languages) Choose(path, name string) (*Language, string, error) {
	all, err := t.of(Source{Path: path, Language: name})
	if err != nil {
		return nil, "", err
	}
	return all[0].language, all[0].standard, nil
}

// FirstExtension is that of a new source, or nothing.
func (l *Language) FirstExtension() string {
	if len(l.Extensions) == 0 {
		return ""
	}
	return l.Extensions[0]
}

// WithFlags adds flags to the commands of a language's compiler, and of other compilers of the same language. It
// reports that there is one.
func (t *Languages) WithFlags(name string, flags []string) (any bool) {
	add := func(commands []Command) (more []Command) {
		for _, c := range commands {
			if len(c) > 0 && c[0] == "{compiler}" {
				c = slices.Concat(c[:1], flags, c[1:])
				any = true
			}
			more = append(more, c)
		}
		return more
	}
	for _, l := range t.list {
		if slices.Contains(t.Family(l), name) {
			l.Build, l.BuildAgain, l.Checked, l.CheckedAgain, l.Traced, l.Stepped, l.SteppedAgain = add(l.Build), add(l.BuildAgain), add(l.Checked), add(l.CheckedAgain), add(l.Traced), add(l.Stepped), add(l.SteppedAgain)
			for _, headers := range []*Command{&l.Headers, &l.SteppedHeaders} {
				if len(*headers) > 0 {
					*headers = add([]Command{*headers})[0]
				}
			}
		}
	}
	return any
}

// Find returns the entry of a language or of a standard, by its name.
func (t *Languages) Find(name string) (*Language, bool) {
	if all := t.choices(name); all != nil {
		return all[0].language, true
	}
	return nil, false
}

// IsSource reports whether the extension of a file names a language.
func (t *Languages) IsSource(name string) bool { return t.forFile(name) != nil }

// Names lists the languages, in the order of the table.
func (t *Languages) Names() (names []string) {
	for _, l := range t.list {
		names = append(names, l.Name)
	}
	return names
}

// NamesWithStandards lists all that a solution may give as its language.
func (t *Languages) NamesWithStandards() (names []string) {
	for _, l := range t.list {
		names = append(names, l.Name)
		for standard := range l.Standards {
			names = append(names, standard)
		}
	}
	slices.Sort(names)
	return names
}
