package problem

import (
	"cmp"
	"fmt"
	"os"
	"path/filepath"
	"slices"
	"strings"
	"time"

	"coldverdict/core/settings"
	"coldverdict/core/value"
	"coldverdict/core/verdict"
)

// largestConfig bounds verdict.toml, in bytes.
const largestConfig = 1e6

// config reads verdict.toml.
func (l *loader) config() {
	text, ok := l.read(ConfigFile, largestConfig, "keep data in cases/")
	if !ok {
		return
	}
	r, tree := settings.Read(text, func(line int, format string, args ...any) {
		l.wrong(ConfigFile, line, format, args...)
	})
	if tree == nil {
		return
	}
	c := &configReader{loader: l, Reader: r}
	p := l.problem
	c.Table("", tree, settings.Fields{
		"title":       c.Text(&p.Title),
		"parts":       c.parts,
		"draw":        c.draw,
		"limits":      c.limits,
		"compare":     c.compare,
		"solution":    c.solutions,
		"language":    func(string, any) {}, // for the table of languages to read
		"make":        c.make,
		"files":       c.files,
		"judge":       readJudge(&p.Judge, c.Reader, c.words.LimitNames),
		"same":        c.same,
		"call":        c.call,
		"class":       c.class,
		"interactive": c.interactive,
		"group":       c.groups,
		"case":        c.caseRules,
	})
	if p.Kind().Talks && (c.Has("compare") || c.Has("files")) {
		c.WrongAt("interactive", "the interactor of an interactive problem judges, over standard input and output; take [compare] and [files] out")
	}
	c.checkCall()
	if p.Call != nil && !c.Has("compare") {
		fitCall(&p.Compare, false, false)
	}
	slices.SortStableFunc(l.mistakes, func(a, b Mistake) int { return cmp.Compare(a.Line, b.Line) })
}

// A configReader takes the values out of a decoded verdict.toml and reports
// each that is not what it should be.
type configReader struct {
	*loader
	*settings.Reader
}

// make reads what makes inputs that no shape describes.
func (c *configReader) make(at string, value any) {
	m := &c.problem.Make
	c.scriptOrProgram(at, value, &m.Script, &m.Program, "script and program both make inputs",
		"[make] names nothing that makes inputs; write script = \"make.star\" or program = \"gen.cpp\"")
}

// drawAnswers are the ways in which an answer can point at a picture.
var drawAnswers = []string{"path", "vertices", "edges", "cells", "items"}

// draw reads what an answer points at.
func (c *configReader) draw(at string, value any) {
	d := &c.problem.Draw
	c.Table(at, value, settings.Fields{"answer": c.OneOf(&d.Answer, drawAnswers), "script": c.script(&d.Script)})
	if d.Answer != "" && d.Script != "" {
		c.WrongAt(at, "answer and script both say what an answer points at; take one of them out")
	}
}

// scriptOrProgram reads a table that names one of the two. both and none say what is
// wrong with it otherwise.
func (c *configReader) scriptOrProgram(at string, value any, script, program *string, both, none string) {
	c.Table(at, value, settings.Fields{"script": c.script(script), "program": c.source(program)})
	switch {
	case *script != "" && *program != "":
		c.WrongAt(at, "%s; take one of them out", both)
	case *script == "" && *program == "" && !c.Has(at+".script") && !c.Has(at+".program"):
		c.WrongAt(at, "%s", none)
	}
}

func (c *configReader) duration(into *time.Duration) func(string, any) {
	return func(at string, value any) {
		d, err := ParseTime(fmt.Sprint(value))
		if err != nil {
			c.WrongAt(at, "%s: %v", at, err)
		}
		*into = d
	}
}

func (c *configReader) size(into *int64) func(string, any) { return sizeOf(into, c.Reader) }

// sizeOf takes a size in bytes.
func sizeOf(into *int64, r *settings.Reader) func(string, any) {
	return func(at string, value any) {
		n, err := ParseSize(fmt.Sprint(value))
		if err != nil {
			r.WrongAt(at, "%s: %v", at, err)
		}
		*into = n
	}
}

func (c *configReader) limitFields(l *verdict.Limits) settings.Fields {
	return settings.Fields{
		"time": c.duration(&l.Time), "wall": c.duration(&l.Wall),
		"memory": c.size(&l.Memory), "output": c.size(&l.Output),
		"processes": c.Count(&l.Processes),
	}
}

func (c *configReader) limits(at string, value any) {
	p := c.problem
	p.Limits.Language = map[string]verdict.Limits{}
	known := c.limitFields(&p.Limits.General)
	known["checker"] = func(at string, value any) { c.Table(at, value, c.limitFields(&p.Limits.Checker)) }
	for _, name := range c.words.LimitNames {
		known[name] = func(at string, value any) {
			var l verdict.Limits
			c.Table(at, value, c.limitFields(&l))
			p.Limits.Language[name] = l
		}
	}
	c.Table(at, value, known)
}

func (c *configReader) compare(at string, value any) {
	c.problem.Compare = c.comparison(at, value)
}

// comparison reads a table that says how outputs are compared.
func (c *configReader) comparison(at string, value any) (compare Comparison) {
	c.Table(at, value, settings.Fields{
		"mode":        c.OneOf(&compare.Mode, c.words.Modes),
		"absolute":    c.Tolerance(&compare.Absolute),
		"relative":    c.Tolerance(&compare.Relative),
		"ignore_case": c.Truth(&compare.IgnoreCase),
		"any_order":   c.OneOf(&compare.AnyOrder, c.anyOrders()),
		"script":      c.script(&compare.Script),
		"program":     c.source(&compare.Program),
	})
	if wrong := c.fit(at, &compare); wrong != "" {
		c.WrongAt(at, "%s", wrong)
	}
	return compare
}

// anyOrders are what may come in any order.
func (c *configReader) anyOrders() []string {
	if c.Has("call") {
		return append([]string{""}, value.AnyOrders()...)
	}
	return append([]string{""}, c.words.AnyOrders...)
}

// fit returns what is wrong with a comparison as a whole, or "".
func (c *configReader) fit(at string, compare *Comparison) string {
	numbers := compare.Mode == "numbers"
	absolute, relative := c.Has(at+".absolute"), c.Has(at+".relative")
	if c.Has("call") {
		if wrong := fitCall(compare, absolute, relative); wrong != "" {
			return wrong
		}
		numbers = true // the tolerance is one for reals
	}
	switch {
	case compare.Script != "" && compare.Program != "":
		return "script and program both decide; take one of them out"
	case compare.Custom() && (*compare != Comparison{Script: compare.Script, Program: compare.Program} || absolute || relative):
		return "a checker of your own decides alone; take the other keys out"
	case numbers && compare.AnyOrder != "" && !c.Has("call"):
		return "any_order compares text and cannot be joined with mode \"numbers\"; choose one of them"
	case (absolute || relative) && !numbers:
		return "a tolerance counts only with mode = \"numbers\"; set that, or take the tolerance out"
	}
	if numbers && !absolute && !relative {
		compare.Absolute, compare.Relative = 1e-6, 1e-6
		if c.words.Absolute > 0 || c.words.Relative > 0 {
			compare.Absolute, compare.Relative = c.words.Absolute, c.words.Relative
		}
	}
	return ""
}

func (c *configReader) interactive(at string, value any) {
	talk := &c.problem.Talk
	c.scriptOrProgram(at, value, &talk.Script, &talk.Program, "script and program are both the interactor",
		"[interactive] names no interactor; write script = \"talk.star\" or program = \"talk.cpp\"")
}

// script takes the name of a Starlark file.
func (c *configReader) script(into *string) func(string, any) {
	return func(at string, value any) {
		c.Text(into)(at, value)
		if c.isFile(at, *into) && filepath.Ext(*into) != ".star" {
			c.WrongAt(at, "%q is no script, whose name ends in .star; a source in another language is named by program", *into)
		}
	}
}

// source takes the name of a source file.
func (c *configReader) source(into *string) func(string, any) {
	return func(at string, value any) {
		c.Text(into)(at, value)
		switch {
		case filepath.Ext(*into) == ".star":
			c.WrongAt(at, "%q is a script; name it by script", *into)
		case c.isFile(at, *into) && !c.words.IsSource(*into):
			c.WrongAt(at, "the extension of %q names no language that is known", *into)
		}
	}
}

// insteadOf says what can be done about a file that is not there: a name that is nearly its own, or a solution that was
// deleted.
func (c *configReader) insteadOf(at, name string) string {
	entries, _ := os.ReadDir(c.problem.Dir)
	names := make([]string, len(entries))
	for i, entry := range entries {
		names[i] = entry.Name()
	}
	if near := settings.Near(name, names); near != "" {
		return fmt.Sprintf("; did you mean %q?", near)
	}
	if strings.HasPrefix(at, "solution[") {
		return "; if it was deleted, take this [[solution]] out"
	}
	return ""
}

// isFile reports whether a file that a key names is there, and tells if not.
func (c *configReader) isFile(at, name string) bool {
	info, err := os.Stat(c.problem.PathOf(name))
	switch {
	case name == "":
		c.WrongAt(at, "%s is empty; name a file", at)
	case err != nil:
		c.WrongAt(at, "there is no file %q here%s", name, c.insteadOf(at, name))
	case !info.Mode().IsRegular():
		c.WrongAt(at, "%q is %s; a file was expected", name, kind(info))
	default:
		return true
	}
	return false
}

func (c *configReader) files(at string, value any) {
	files := &c.problem.Files
	c.Table(at, value, settings.Fields{"input": c.fileName(&files.Input), "output": c.fileName(&files.Output)})
	if files.Input != "" && files.Input == files.Output {
		c.WrongAt(at+".output", "input and output are one file; a solution reads one and writes another")
	}
}

// same reads changes that do not change an answer. What they name is looked for when the shape is known.
func (c *configReader) same(at string, value any) {
	for at, item := range c.tables(at, value) {
		s := Same{line: c.Line(at)}
		c.Table(at, item, settings.Fields{"permute": c.Text(&s.Permute), "relabel": c.Text(&s.Relabel)})
		if (s.Permute == "") == (s.Relabel == "") {
			c.WrongAt(at, "a [[same]] says one change; write permute = \"w\" or relabel = \"g\"")
			continue
		}
		c.problem.Same = append(c.problem.Same, s)
	}
}

// fileName takes the name of a file that lies in the working folder itself.
func (c *configReader) fileName(into *string) func(string, any) {
	return func(at string, value any) {
		c.Text(into)(at, value)
		name := *into
		if name != "" && !IsFileName(name) {
			c.WrongAt(at, "%s is %q; write a plain name, such as \"teams.in\"", at, name)
			*into = ""
		}
	}
}

// IsFileName reports whether a text is a plain name of a file in the working folder itself.
func IsFileName(name string) bool {
	return name != "" && name != "." && name != ".." && len(name) <= 200 && validName(name) && !strings.ContainsRune(name, '\\')
}

func (c *configReader) solutions(at string, value any) {
	list, ok := value.([]any)
	if !ok {
		c.WrongAt(at, "solutions are written as [[solution]], with two brackets")
		return
	}
	for i, item := range list {
		at := fmt.Sprintf("%s[%d]", at, i)
		s := Solution{Role: Candidate, Line: c.Line(at)}
		c.Table(at, item, settings.Fields{
			"file":     c.Text(&s.File),
			"role":     c.OneOf(&s.Role, []string{Candidate, Reference}),
			"expect":   c.OneOf(&s.Expect, verdict.All()),
			"args":     c.Texts(&s.Args),
			"groups":   c.Texts(&s.Groups),
			"language": c.OneOf(&s.Language, c.words.Languages),
		})
		c.checkSolution(at, s)
		c.problem.Solutions = append(c.problem.Solutions, s)
	}
}

func (c *configReader) checkSolution(at string, s Solution) {
	if s.File == "" {
		c.WrongAt(at, "a [[solution]] needs a file, such as file = \"main.cpp\"")
		return
	}
	for _, arg := range s.Args {
		if strings.ContainsRune(arg, 0) {
			c.WrongAt(at+".args", "an argument holds a NUL, which no program can be given")
		}
	}
	line := at + ".file"
	if c.isFile(line, s.File) && s.Language == "" && !c.words.IsSource(s.File) {
		c.WrongAt(line, "the extension of %q names no language that is known; say which with language = \"…\"", s.File)
	}
}
