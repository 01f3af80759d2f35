package toolchain

import (
	"cmp"
	"fmt"
	"maps"
	"regexp"
	"slices"
	"strings"

	"github.com/mattn/go-shellwords"

	"coldverdict/core/problem"
	"coldverdict/core/settings"
)

// Add takes the entries below [language] of a text into the table. An entry
// that the table has already is changed where the text says something. Other
// tables in the text are left to others. Whatever is wrong is returned, in the
// order of lines; then the table is not to be used.
func (t *Languages) Add(file string, text []byte) (mistakes problem.Mistakes) {
	reader, tree := settings.Read(text, func(line int, format string, args ...any) {
		mistakes = append(mistakes, problem.Mistake{File: file, Line: line, Text: fmt.Sprintf(format, args...)})
	})
	r := &tableReader{Reader: reader, languages: t, done: map[string]bool{}, trusted: file == TableName}
	entries, ok := tree["language"].(map[string]any)
	if _, any := tree["language"]; any && !ok {
		r.WrongAt("language", "languages are written as [language.NAME]")
	}
	r.entries = entries
	names := slices.SortedFunc(maps.Keys(entries), func(a, b string) int {
		return cmp.Compare(r.Line("language."+a), r.Line("language."+b))
	})
	for _, name := range names {
		r.entry(name)
	}
	slices.SortStableFunc(mistakes, func(a, b problem.Mistake) int { return cmp.Compare(a.Line, b.Line) })
	return mistakes
}

// A tableReader takes entries out of one text.
type tableReader struct {
	*settings.Reader
	languages *Languages
	entries   map[string]any
	done      map[string]bool
	trusted   bool // our own table, which a test has read
}

var entryName = regexp.MustCompile(`^[a-z][a-z0-9_+#-]*$`)

// entry reads one entry, after the one that it is like.
func (r *tableReader) entry(name string) {
	if r.done[name] {
		return
	}
	r.done[name] = true
	at := "language." + name
	table, ok := r.entries[name].(map[string]any)
	if !ok {
		r.WrongAt(at, "%s must be a table: [%s]", at, at)
		return
	}
	t := r.languages
	l := &Language{Name: name, Title: name}
	old := t.named[name]
	if old != nil {
		*l = *old
	} else if !entryName.MatchString(name) {
		r.WrongAt(at, "%q cannot name a language; use lower-case letters, digits and hyphens", name)
	}
	if like, ok := table["like"].(string); ok && old == nil {
		if _, here := r.entries[like]; here {
			r.entry(like)
		}
		base := t.named[like]
		if base == nil || base == old {
			r.WrongAt(at+".like", "there is no language %q; %s", like, settings.Nearest(like, t.Names()))
			return
		}
		*l = *base
		l.Name, l.Title, l.Like, l.Extensions, l.Headers = name, name, like, nil, nil
	}
	l.Standards, l.Files = maps.Clone(l.Standards), maps.Clone(l.Files)
	l.Says, l.Advice = maps.Clone(l.Says), maps.Clone(l.Advice)
	if _, own := table["run"]; own {
		l.Serve, l.Server = nil, "" // it would serve what is run otherwise
	}
	r.Table(at, table, r.fields(l))
	r.check(at, l)
	if old != nil {
		t.list[slices.Index(t.list, old)] = l
	} else {
		t.list = append(t.list, l)
	}
	t.named[name] = l
}

func (r *tableReader) fields(l *Language) settings.Fields {
	return settings.Fields{
		"title": r.Text(&l.Title), "like": func(string, any) {}, "extensions": r.Texts(&l.Extensions),
		"compiler": r.tool(&l.Compiler), "runtime": r.tool(&l.Runtime), "library": r.Texts(&l.Library),
		"standard": r.Text(&l.Standard), "standards": r.textTable(&l.Standards),
		"build": r.commands(&l.Build), "headers": r.command(&l.Headers), "stepped_headers": r.command(&l.SteppedHeaders), "build_again": r.commands(&l.BuildAgain), "again_if": r.Texts(&l.AgainIf),
		"checked": r.commands(&l.Checked), "checked_again": r.commands(&l.CheckedAgain), "traced": r.commands(&l.Traced), "stepped": r.commands(&l.Stepped), "stepped_again": r.commands(&l.SteppedAgain), "stepped_again_if": r.Texts(&l.SteppedAgainIf), "stepped_run": r.command(&l.SteppedRun), "checked_run": r.command(&l.CheckedRun), "run": r.command(&l.Run), "serve": r.command(&l.Serve), "server": r.Text(&l.Server), "diagnose": r.command(&l.Diagnose),
		"build_environment": r.Texts(&l.BuildEnvironment), "environment": r.Texts(&l.Environment),
		"checked_environment": r.Texts(&l.CheckedEnvironment),
		"hidden":              r.Texts(&l.Hidden), "sees": r.Texts(&l.Sees), "includes": r.Text(&l.Includes), "files": r.textTable(&l.Files),
		"source_name": r.pattern(&l.SourceName), "identifier": r.Truth(&l.Identifier), "checked_mild": r.patterns(&l.CheckedMild),
		"main":   r.OneOf(&l.Main, []string{"", "jvm"}),
		"errors": r.patterns(&l.Errors), "innermost": r.OneOf(&l.Innermost, []string{"first", "last"}),
		"says": r.says(&l.Says), "advice": r.textTable(&l.Advice),
		"start": r.Tolerance(&l.StartSeconds),
		"slow_input": func(at string, value any) {
			r.Table(at, value, settings.Fields{
				"match": r.pattern(&l.Slow.Match), "unless": r.pattern(&l.Slow.Unless),
				"speed": r.Tolerance(&l.Slow.Speed), "say": r.Text(&l.Slow.Say),
			})
		},
		"notes": func(at string, value any) {
			list, ok := value.([]any)
			if !ok {
				r.WrongAt(at, "notes are written as [[%s]], with two brackets", at)
			}
			l.Notes = nil
			for i, item := range list {
				var n Note
				r.Table(fmt.Sprintf("%s[%d]", at, i), item, settings.Fields{"match": r.pattern(&n.Match), "say": r.Text(&n.Say)})
				l.Notes = append(l.Notes, n)
			}
		},
	}
}

func (r *tableReader) tool(into *Tool) func(string, any) {
	return func(at string, value any) {
		*into = Tool{}
		if _, ok := value.(string); ok {
			r.textOrTexts(&into.Command)(at, value)
			return
		}
		r.Table(at, value, settings.Fields{
			"command": r.textOrTexts(&into.Command), "name": r.Text(&into.Name),
			"version": r.command((*Command)(&into.Version)),
			"locate":  r.Texts(&into.Locate), "depends": r.Texts(&into.Depends),
			"least": r.Text(&into.Least), "package": r.Text(&into.Package),
		})
	}
}

func (r *tableReader) textOrTexts(into *[]string) func(string, any) {
	return func(at string, value any) {
		if s, ok := value.(string); ok {
			value = []any{s}
		}
		*into = nil
		r.Texts(into)(at, value)
	}
}

func (r *tableReader) textTable(into *map[string]string) func(string, any) {
	return func(at string, value any) {
		table, _ := value.(map[string]any)
		if *into == nil {
			*into = map[string]string{}
		}
		known := settings.Fields{}
		for key := range table {
			known[key] = func(at string, value any) {
				var s string
				r.Text(&s)(at, value)
				(*into)[key] = s
			}
		}
		r.Table(at, value, known)
	}
}

// commandWords are what a command may hold in braces.
var commandWords = []string{"compiler", "runtime", "library", "standard", "source", "stem", "folder", "build", "main", "memory", "stack", "stack_kib", "server"}

var braced = regexp.MustCompile(`\{([a-z_]+)\}`)

// command splits a command line at blanks outside of quotes.
func (r *tableReader) command(into *Command) func(string, any) {
	return func(at string, value any) {
		var line string
		r.Text(&line)(at, value)
		parser := shellwords.NewParser()
		words, err := parser.Parse(line)
		switch {
		case line == "" || len(words) == 0 && err == nil && parser.Position < 0:
			r.WrongAt(at, "%s is empty; write a program and its arguments", at)
		case err != nil:
			r.WrongAt(at, "%s is no command: %v", at, err)
		case parser.Position >= 0:
			r.WrongAt(at, "%s goes beyond one command at %q; put it in quotes, or start sh -c with it", at, line[parser.Position:])
		}
		for _, m := range braced.FindAllStringSubmatch(line, -1) {
			if !slices.Contains(commandWords, m[1]) {
				r.WrongAt(at, "nothing is known as {%s}; %s", m[1], settings.Nearest(m[1], commandWords))
			}
		}
		*into = words
	}
}

func (r *tableReader) commands(into *[]Command) func(string, any) {
	return func(at string, value any) {
		list, ok := value.([]any)
		if !ok {
			list = []any{value}
		}
		*into = nil
		for _, one := range list {
			var c Command
			r.command(&c)(at, one)
			*into = append(*into, c)
		}
	}
}

// pattern returns a field that takes a regular expression. Those of our own
// table are compiled when they are needed, and by a test.
func (r *tableReader) pattern(into *Pattern) func(string, any) {
	return func(at string, value any) {
		var text string
		r.Text(&text)(at, value)
		*into = r.expression(at, text)
	}
}

func (r *tableReader) patterns(into *[]Pattern) func(string, any) {
	return func(at string, value any) {
		var texts []string
		r.Texts(&texts)(at, value)
		*into = nil
		for _, text := range texts {
			*into = append(*into, r.expression(at, text))
		}
	}
}

func (r *tableReader) expression(at, text string) Pattern {
	if text == "" {
		return Pattern{}
	}
	if !r.trusted {
		if _, err := regexp.Compile(text); err != nil {
			r.WrongAt(at, "%s: %v", at, err)
		}
	}
	return newPattern(text)
}

func (r *tableReader) says(into *map[string][]Pattern) func(string, any) {
	return func(at string, value any) {
		if *into == nil {
			*into = map[string][]Pattern{}
		}
		known := settings.Fields{}
		for _, kind := range kinds {
			known[kind.name] = func(at string, value any) {
				var list []Pattern
				r.patterns(&list)(at, value)
				(*into)[kind.name] = list
			}
		}
		r.Table(at, value, known)
	}
}

// check reports what is wrong with an entry as a whole, and finds the tools
// that its commands name themselves.
func (r *tableReader) check(at string, l *Language) {
	if len(l.Run) == 0 && !r.Has(at+".run") {
		r.WrongAt(at, "%s needs a command that runs a solution, such as run = \"{build}/program\"", at)
		return
	}
	if l.Standard != "" && l.Standards[l.Standard] == "" {
		r.WrongAt(at+".standard", "%q is none of the standards; %s", l.Standard, settings.Nearest(l.Standard, slices.Collect(maps.Keys(l.Standards))))
	}
	for i, e := range l.Extensions {
		if !strings.HasPrefix(e, ".") {
			l.Extensions[i] = "." + e
		}
	}
	ownTool(&l.Compiler, l.Build, "{compiler}", r.Has(at+".compiler"))
	ownTool(&l.Runtime, []Command{l.Run}, "{runtime}", r.Has(at+".runtime"))
}

// ownTool lets a command's first word name its tool where none was given.
func ownTool(tool *Tool, commands []Command, word string, given bool) {
	for _, c := range commands {
		if given || len(c) == 0 || strings.Contains(c[0], "{") {
			return
		}
		*tool, given = Tool{Command: []string{c[0]}}, true
		c[0] = word
	}
}
