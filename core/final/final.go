// Package final makes of a solution the one file that is handed in: what lies beside it is put in,
// and what a judge would refuse is taken out.
//
// Where a function is practised, and the judge takes programs, a program is put around it; where one
// stands around it already, and the judge takes functions, that goes.
//
// Make works on the text alone. Try runs what came of it on all cases, as a judge would that has
// nothing else.
package final

import (
	"bytes"
	"cmp"
	"context"
	"errors"
	"fmt"
	"os"
	"path/filepath"
	"regexp"
	"slices"
	"strings"

	"coldverdict/core/box"
	"coldverdict/core/call"
	"coldverdict/core/judge"
	"coldverdict/core/prelude"
	"coldverdict/core/problem"
	"coldverdict/core/program"
	"coldverdict/core/source"
	"coldverdict/core/toolchain"
	"coldverdict/core/value"
	"coldverdict/core/verdict"
	"coldverdict/internal/lazy"
)

// usualClass is the class that a judge looks for where [judge] says nothing.
const usualClass = "Main"

// A Made is what came of a source.
type Made struct {
	Text  []byte
	Name  string   // of the file, as its language wants it
	Notes []string // what was changed, in words

	plan *program.Plan // of the program around a function; nil: there is none
	bare []byte        // the function without it
	// other is what takes its place where it does not build: with usual types, or all usual imports.
	other []byte
}

// As says what a source is made.
type As string

// What a source can be made: what it is, or, in function problems, the other.
const (
	Itself   As = ""
	Program  As = "program"
	Function As = "function"
)

// An Error says what cannot be joined, and what to do about it.
type Error struct{ Text string }

func (e *Error) Error() string { return e.Text }

// A maker makes one file.
type maker struct {
	problem *problem.Problem
	family  string
	notes   []string
	within  []string        // files that are being put in, each within the one before
	done    map[string]bool // that were put in
	// Of JavaScript: what stands before all else, and the modules that were put in.
	top, ahead []byte
}

// Make makes the file of a solution in a language. The error is an *Error, or says what could not
// be read.
func Make(p *problem.Problem, s problem.Solution, language *toolchain.Language, as As) (made Made, err error) {
	m := &maker{problem: p, family: source.Family(language.Extensions), done: map[string]bool{}}
	if as != Itself && p.Call == nil {
		return made, &Error{"verdict.toml has no [call], which says what the function is; cold final makes a program, or the function, only of that"}
	}
	path := p.Path(s)
	text, err := os.ReadFile(path)
	if err != nil {
		return made, err
	}
	before := text
	text = bytes.TrimPrefix(text, []byte("\ufeff"))
	if len(text) < len(before) {
		m.note("took out a byte order mark")
	}
	if text, err = m.joined(path, text); err != nil {
		return made, err
	}
	switch m.family {
	case "java":
		text, err = m.java(text)
	case "kt", "scala":
		text = m.withoutPackage(text)
	case "rs":
		text = m.withoutTests(text)
	}
	if err == nil && as != Itself {
		text = m.withoutMain(language, text)
		made.bare = text
	}
	if err == nil && p.Call != nil && (as == Program || !p.Call.Bare && !p.Judge.Imports) {
		text = m.withImports(&made, text)
	}
	if err == nil && as == Program {
		text, err = m.program(&made, language, filepath.Base(path), text)
	}
	made.Text, made.Name, made.Notes = text, language.FileName(filepath.Base(path), text), m.notes
	return made, err
}

// withImports writes in what a function leaves to judges.
func (m *maker) withImports(made *Made, text []byte) []byte {
	lines := prelude.Supplied(m.family, text)
	if len(lines) > 0 {
		m.note("put in what it leaves to judges: %s", prelude.Says(lines))
	}
	if all := prelude.All(m.family); all != nil {
		made.other = prelude.Written(m.family, text, all)
	}
	return prelude.Written(m.family, text, lines)
}

// withoutMain makes a function of a program.
func (m *maker) withoutMain(language *toolchain.Language, text []byte) []byte {
	bare := program.WithoutMain(language, text)
	if lines := bytes.Count(text, []byte("\n")) - bytes.Count(bare, []byte("\n")); lines > 0 {
		m.note("took out the program around the function, %s", verdict.Count(lines, "line"))
	}
	return bare
}

// program makes a program of a function.
func (m *maker) program(made *Made, language *toolchain.Language, file string, text []byte) (whole []byte, err error) {
	if m.problem.Call.Class != nil {
		return nil, &Error{"a program is put around a function, and this problem asks for a class"}
	}
	if m.problem.Shape == nil {
		return nil, &Error{"there is no input.shape, which says how the input of a program is laid out"}
	}
	if made.plan, err = program.NewPlan(m.problem.Call, m.problem.Shape); err != nil {
		return nil, &Error{err.Error()}
	}
	class := cmp.Or(m.problem.Judge.Class, usualClass)
	if whole, err = made.plan.Around(language, file, text, class, false); err == nil {
		made.other, err = made.plan.Around(language, file, text, class, true)
	}
	if err != nil {
		return nil, &Error{fmt.Sprintf("%s: %v", file, err)}
	}
	m.note("put a reader and a printer around %s", m.problem.Call.Name)
	failing := 0
	for _, c := range m.problem.Cases {
		if c.Raises != nil {
			failing++
		}
	}
	if failing > 0 {
		m.note("not tried as a program: %s in which the function must fail, of which a program prints nothing", verdict.Count(failing, "case"))
	}
	return whole, nil
}

func (m *maker) note(format string, args ...any) {
	m.notes = append(m.notes, fmt.Sprintf(format, args...))
}

// joined returns a text with all of the person's own files that it names put in.
func (m *maker) joined(path string, text []byte) ([]byte, error) {
	for _, other := range m.within {
		if other == path {
			return nil, &Error{fmt.Sprintf("%s needs itself, by way of %s", filepath.Base(path), filepath.Base(m.within[len(m.within)-1]))}
		}
	}
	m.within = append(m.within, path)
	defer func() { m.within = m.within[:len(m.within)-1] }()
	switch m.family {
	case "c", "cpp":
		text, err := m.included(path, text)
		if err != nil {
			return nil, err
		}
		return m.withoutDebug(text), nil
	case "py":
		return m.modules(path, text)
	case "rb":
		return m.replaced(path, text, source.RubyRequire, ".rb", func(name string, text []byte) []byte { return text })
	case "rs":
		return m.replaced(path, text, source.RustModule, ".rs", func(name string, text []byte) []byte {
			return fmt.Appendf(nil, "mod %s {\n%s}", name, withEnd(text))
		})
	case "js":
		text, err := m.imported(path, text)
		if err == nil {
			text, err = m.required(path, text)
		}
		if len(m.within) == 1 {
			text = bytes.Join([][]byte{m.top, m.ahead, text}, nil)
		}
		return text, err
	case "go":
		return m.packaged(path, text)
	}
	return text, nil
}

func withEnd(text []byte) []byte {
	if len(text) > 0 && text[len(text)-1] != '\n' {
		return append(bytes.Clone(text), '\n')
	}
	return text
}

var (
	pyFuture   = lazy.New(`(?m)^from[ \t]+__future__[ \t]+import\b.*\n`)
	notWord    = lazy.New(`\W`)
	pragmaOnce = lazy.New(`(?m)^[ \t]*#[ \t]*pragma[ \t]+once\b.*\n?`)
	jsRequire  = lazy.New(`\brequire\([ \t]*['"](\.[^'"\n]+)['"][ \t]*\)`)
)

// spliced puts something in where a pattern names it, and code stands. put returns what that is; ok is
// false where what names it stays.
func (m *maker) spliced(text []byte, pattern lazy.Regexp, put func(name string) (inside []byte, ok bool, err error)) ([]byte, error) {
	code := source.Blanked(text, m.family)
	var out []byte
	last := 0
	for _, at := range pattern().FindAllSubmatchIndex(text, -1) {
		if source.IsBlank(code, at[0], at[1]) {
			continue
		}
		inside, ok, err := put(string(text[at[2]:at[3]]))
		if err != nil {
			return nil, err
		}
		if ok {
			out = append(append(out, text[last:at[0]]...), bytes.TrimRight(inside, "\n")...)
			last = at[1]
		}
	}
	return append(out, text[last:]...), nil
}

// included puts in the headers that lie beside.
func (m *maker) included(path string, text []byte) ([]byte, error) {
	return m.spliced(text, source.Include, func(name string) ([]byte, bool, error) {
		file := filepath.Join(filepath.Dir(path), name)
		inside, err := os.ReadFile(file)
		switch {
		case errors.Is(err, os.ErrNotExist): // the compiler has it elsewhere
			return nil, false, nil
		case err != nil:
			return nil, false, err
		case m.done[file] && pragmaOnce().Match(inside):
			return nil, true, nil
		}
		m.done[file] = true
		inside, err = m.joined(file, pragmaOnce().ReplaceAll(inside, nil))
		m.note("put in %s", name)
		return inside, true, err
	})
}

// debugNames are the names by which people keep out of a judge's sight what helps them at home.
var debugNames = map[string]bool{"LOCAL": true, "DEBUG": true, "LOCAL_DEBUG": true, "TEST": true}

var directive = lazy.New(`^[ \t]*#[ \t]*(if|ifdef|ifndef|elif|else|endif)\b[ \t]*(.*?)[ \t\r]*$`)

// withoutDebug takes out what is compiled only where a name for debugging is defined.
func (m *maker) withoutDebug(text []byte) []byte {
	type open struct {
		ours, keep bool // it asks for such a name; what is in it stays
	}
	var out []byte
	var stack []open
	kept, taken := true, 0
	for line := range bytes.Lines(text) {
		found := directive().FindSubmatch(bytes.TrimRight(line, "\n"))
		if found == nil {
			if kept {
				out = append(out, line...)
			} else {
				taken++
			}
			continue
		}
		word, rest := string(found[1]), strings.TrimSpace(string(found[2]))
		name := strings.Trim(strings.TrimPrefix(rest, "defined"), "() \t")
		show := kept
		switch word {
		case "if", "ifdef", "ifndef":
			o := open{keep: true}
			if asks := word != "if" || strings.HasPrefix(rest, "defined"); asks && debugNames[name] {
				o = open{ours: true, keep: word == "ifndef"}
				show = false
			}
			stack = append(stack, o)
		case "else", "elif":
			if n := len(stack); n > 0 && stack[n-1].ours {
				if word == "elif" { // which is not worth taking apart
					return text
				}
				stack[n-1].keep = !stack[n-1].keep
				show = false
			}
		case "endif":
			if n := len(stack); n > 0 {
				show = kept && !stack[n-1].ours
				stack = stack[:n-1]
			}
		}
		kept = true
		for _, o := range stack {
			kept = kept && o.keep
		}
		if word == "endif" {
			show = show && kept
		}
		if show {
			out = append(out, line...)
		}
	}
	if taken > 0 {
		m.note("took out %d lines for debugging", taken)
	}
	return out
}

// replaced puts files in where a pattern names them, each once.
func (m *maker) replaced(path string, text []byte, pattern lazy.Regexp, extension string, as func(name string, text []byte) []byte) ([]byte, error) {
	return m.spliced(text, pattern, func(name string) ([]byte, bool, error) {
		file := filepath.Join(filepath.Dir(path), strings.TrimSuffix(name, extension)+extension)
		inside, err := os.ReadFile(file)
		switch {
		case err != nil:
			return nil, false, &Error{fmt.Sprintf("%s names %s, which cannot be read: %v", filepath.Base(path), name, err)}
		case m.done[file]:
			return nil, true, nil
		}
		m.done[file] = true
		inside, err = m.joined(file, inside)
		m.note("put in %s", filepath.Base(file))
		return as(name, inside), true, err
	})
}

// required puts in what JavaScript requires, as functions that give what each file exports.
func (m *maker) required(path string, text []byte) ([]byte, error) {
	var failed error
	text = jsRequire().ReplaceAllFunc(text, func(call []byte) []byte {
		name := string(jsRequire().FindSubmatch(call)[1])
		file := filepath.Join(filepath.Dir(path), strings.TrimSuffix(name, ".js")+".js")
		inside, err := os.ReadFile(file)
		if err != nil {
			failed = cmp.Or(failed, error(&Error{fmt.Sprintf("%s requires %s, which cannot be read: %v", filepath.Base(path), name, err)}))
			return call
		}
		variable := "module_" + notWord().ReplaceAllString(strings.TrimSuffix(filepath.Base(file), ".js"), "_")
		if !m.done[file] {
			m.done[file] = true
			if inside, err = m.joined(file, inside); err != nil {
				failed = cmp.Or(failed, err)
				return call
			}
			m.note("put in %s", filepath.Base(file))
			m.ahead = fmt.Appendf(m.ahead, "const %s = (() => {\nconst module = { exports: {} };\nconst exports = module.exports;\n%sreturn module.exports;\n})();\n", variable, withEnd(inside))
		}
		return []byte(variable)
	})
	return text, failed
}

// modules puts in what Python imports from beside, as modules that are made when the program
// starts, since only so names stay what they are.
func (m *maker) modules(path string, text []byte) ([]byte, error) {
	code := source.Blanked(text, m.family)
	var ahead []byte
	for _, one := range source.PythonImports(code) {
		name := one.Module
		file := filepath.Join(filepath.Dir(path), name+".py")
		inside, err := os.ReadFile(file)
		if err != nil || m.done[file] {
			continue // it is not the person's own, or it is there already
		}
		m.done[file] = true
		if inside, err = m.joined(file, inside); err != nil {
			return nil, err
		}
		m.note("put in %s.py", name)
		ahead = fmt.Appendf(ahead, "_module = types.ModuleType(%[1]q)\nsys.modules[%[1]q] = _module\nexec(compile(%[2]s, \"%[1]s.py\", \"exec\"), _module.__dict__)\n", name, pythonText(inside))
	}
	if ahead == nil {
		return text, nil
	}
	ahead = append([]byte("import sys, types\n"), ahead...)
	// What must stand first stays first.
	first := 0
	for _, at := range pyFuture().FindAllIndex(code, -1) {
		first = at[1]
	}
	return bytes.Join([][]byte{text[:first], ahead, text[first:]}, nil), nil
}

// pythonText writes a text as a string of Python that reads as the text does.
func pythonText(text []byte) string {
	quoted := strings.ReplaceAll(strings.ReplaceAll(string(withEnd(text)), `\`, `\\`), `"""`, `\"\"\"`)
	return `"""\` + "\n" + quoted + `"""`
}

func (m *maker) withoutPackage(text []byte) []byte {
	code := source.Blanked(text, m.family)
	if at := source.PackageLine().FindIndex(code); at != nil {
		m.note("took out the package line")
		return append(bytes.Clone(text[:at[0]]), text[at[1]:]...)
	}
	return text
}

var javaMain = lazy.New(`\bvoid\s+main\s*\(`)

// java takes the package out, and gives the class with the program the name that the judge wants.
func (m *maker) java(text []byte) ([]byte, error) {
	text = m.withoutPackage(text)
	if m.problem.Call != nil {
		return text, nil
	}
	wanted := cmp.Or(m.problem.Judge.Class, usualClass)
	code := source.Blanked(text, m.family)
	name := ""
	if found := source.PublicClass().FindSubmatch(code); found != nil {
		name = string(found[1])
	} else if main := javaMain().FindIndex(code); main != nil {
		for _, found := range source.Class().FindAllSubmatchIndex(code[:main[0]], -1) {
			if depth(code[:found[0]]) == 0 {
				name = string(code[found[2]:found[3]])
			}
		}
	}
	if name == "" || name == wanted {
		return text, nil
	}
	word := func(name string) *regexp.Regexp { return regexp.MustCompile(`\b` + name + `\b`) }
	if word(wanted).Match(code) {
		return nil, &Error{fmt.Sprintf("the judge wants the class %s to be called %s, and something else has that name; rename that", name, wanted)}
	}
	var out []byte
	last := 0
	for _, at := range word(name).FindAllIndex(code, -1) {
		out = append(append(out, text[last:at[0]]...), wanted...)
		last = at[1]
	}
	m.note("renamed the class %s to %s", name, wanted)
	return append(out, text[last:]...), nil
}

// depth is how many braces are open at the end of some code.
func depth(code []byte) int { return bytes.Count(code, []byte("{")) - bytes.Count(code, []byte("}")) }

var rustTests = lazy.New(`(?m)^[ \t]*#\[cfg\(test\)\][ \t\n]*(?:pub[ \t]+)?mod[ \t]+\w+[ \t]*\{`)

// withoutTests takes out the modules of Rust that are compiled for tests only.
func (m *maker) withoutTests(text []byte) []byte {
	code := source.Blanked(text, m.family)
	at := rustTests().FindIndex(code)
	if at == nil {
		return text
	}
	end := at[1]
	for open := 1; end < len(code) && open > 0; end++ {
		open += depth(code[end : end+1])
	}
	m.note("took out the tests")
	return append(bytes.Clone(text[:at[0]]), bytes.TrimLeft(text[end:], "\n")...)
}

// A Trial is what came of trying a made file.
type Trial struct {
	Verdict verdict.Verdict
	Why     string // it is not accepted
	Cases   int    // that were run
}

// Try runs a made file on all cases of a problem, alone in a folder of its own, in the version of
// its language that the judge has. A program around a function that does not build as it was made may
// become another one. The error is the context's, or says what failed on our side.
func Try(ctx context.Context, p *problem.Problem, env judge.Env, o judge.BuildOptions, s problem.Solution, made *Made, tell func(judge.Event)) (t Trial, err error) {
	if most := p.Judge.SourceLimit; most > 0 && int64(len(made.Text)) > most {
		return Trial{Verdict: verdict.CompileError, Why: fmt.Sprintf("it has %d bytes, and the judge takes %d", len(made.Text), most)}, nil
	}
	scratch, err := box.NewScratch(os.TempDir(), "cold-verdict-final-")
	if err != nil {
		return t, fmt.Errorf("cannot make a folder to try it in: %w", err)
	}
	defer func() { err = errors.Join(err, scratch.Remove()) }()
	if made.plan == nil && p.Call != nil { // it has what it needs, as the judge has it
		alone, function := *p, *p.Call
		function.Bare = function.Bare || !p.Judge.Imports
		alone.Call, p = &function, &alone
	}
	if made.plan != nil {
		s.File = filepath.Join(scratch.Dir, "function"+filepath.Ext(made.Name))
		if err := os.WriteFile(s.File, made.bare, 0o600); err != nil {
			return t, err
		}
		if p, t, err = programProblem(ctx, p, env, o, s, made.plan, tell); err != nil || p == nil {
			return t, err
		}
	}
	if t, err = tryIn(ctx, scratch.Dir, p, env, o, s, made, tell); t.Verdict == verdict.CompileError && made.other != nil && err == nil {
		other := *made
		other.Text = made.other
		if again, err := tryIn(ctx, scratch.Dir, p, env, o, s, &other, tell); err != nil || again.Verdict != verdict.CompileError {
			*made = other
			return again, err
		}
	}
	return t, err
}

// tryIn runs a made file from a folder.
func tryIn(ctx context.Context, dir string, p *problem.Problem, env judge.Env, o judge.BuildOptions, s problem.Solution, made *Made, tell func(judge.Event)) (t Trial, err error) {
	s.File = filepath.Join(dir, made.Name)
	if err := os.WriteFile(s.File, made.Text, 0o600); err != nil {
		return t, err
	}
	prepared, closing, err := judge.OpenPrepared(ctx, p, env, []problem.Solution{s}, o, tell)
	if err != nil {
		return t, err
	}
	defer func() { err = errors.Join(err, closing()) }()
	if unable := prepared.Unable(0); unable != nil {
		return Trial{Verdict: unable.End.Verdict, Why: unable.End.Message}, nil
	}
	if p.Call != nil && p.Call.Bare {
		if why, err := buildsAlone(ctx, dir, p, env, s, made); why != "" || err != nil {
			return Trial{Verdict: verdict.CompileError, Why: why}, err
		}
	}
	ended, err := prepared.Run(ctx, p.Cases, judge.RunOptions{UntilFailure: true}, func(e judge.Event) {
		if one, ok := e.(judge.Case); ok {
			t.Cases++
			if !one.Outcome.Verdict.Passing() && t.Why == "" {
				t.Why = p.Cases[one.Index].Name + ": " + one.Outcome.Said()
			}
		}
		tell(e)
	})
	if err != nil {
		return t, err
	}
	t.Verdict = ended[0].Verdict
	if t.Cases == 0 { // there are none: that it builds is all that is known
		t.Verdict = verdict.Unjudged
	}
	return t, nil
}

// buildsAlone says why a function of C or C++ does not build without what calls it, which has headers of
// its own.
func buildsAlone(ctx context.Context, dir string, p *problem.Problem, env judge.Env, s problem.Solution, made *Made) (why string, err error) {
	extension := filepath.Ext(made.Name)
	if family := source.Family([]string{extension}); family != "c" && family != "cpp" {
		return "", nil
	}
	text := made.Text
	if _, _, ok := call.Main(text); !ok {
		text = slices.Concat(withEnd(text), []byte("int main(void) { return 0; }\n"))
	}
	s.File = filepath.Join(dir, "alone"+extension)
	if err := os.WriteFile(s.File, text, 0o600); err != nil {
		return "", err
	}
	alone := *p
	alone.Call = nil
	prepared, closing, err := judge.OpenPrepared(ctx, &alone, env, []problem.Solution{s}, judge.BuildOptions{}, func(judge.Event) {})
	if err != nil {
		return "", err
	}
	defer func() { err = errors.Join(err, closing()) }()
	if unable := prepared.Unable(0); unable != nil {
		return unable.End.Message, nil
	}
	// Newer compilers refuse what older ones only warn of.
	return string(implicit().Find([]byte(prepared.Plan(0).Build.Log))), nil
}

var implicit = lazy.New(`implicit declaration of function [^\n]*`)

// programProblem is a function problem as one for programs: what the function itself returns for a
// case is what the program must print. Cases in which it must fail are left out. It is nil where the
// function fails, which the trial says.
func programProblem(ctx context.Context, p *problem.Problem, env judge.Env, o judge.BuildOptions, s problem.Solution, plan *program.Plan, tell func(judge.Event)) (as *problem.Problem, t Trial, err error) {
	prepared, closing, err := judge.OpenPrepared(ctx, p, env, []problem.Solution{s}, o, tell)
	if err != nil {
		return nil, t, err
	}
	defer func() { err = errors.Join(err, closing()) }()
	if unable := prepared.Unable(0); unable != nil {
		return nil, Trial{Verdict: unable.End.Verdict, Why: unable.End.Message}, nil
	}
	made := *p
	made.Call, made.Shape, made.Cases = nil, nil, nil
	made.Compare = problem.Comparison{}
	for _, field := range p.Call.Results() {
		if of, _ := field.Type.Element(); of.Kind == value.Real {
			made.Compare.Mode = "numbers"
			made.Compare.Absolute, made.Compare.Relative = problem.UsualTolerance, problem.UsualTolerance
		}
	}
	for printed, err := range prepared.Output(ctx, 0, p.Cases, judge.RunOptions{}, tell) {
		if err != nil {
			return nil, t, err
		}
		c := p.Cases[printed.Index]
		if c.Raises != nil && printed.Outcome.Verdict.Passing() {
			continue
		}
		if !printed.Outcome.Verdict.Passing() {
			return nil, Trial{Verdict: printed.Outcome.Verdict, Why: c.Name + ": " + printed.Outcome.Said()}, nil
		}
		input, err := c.Input.Head(c.Input.Size)
		if err != nil {
			return nil, t, err
		}
		args, err := p.Call.ReadArguments(string(input))
		if err != nil {
			return nil, t, fmt.Errorf("%s: %w", c.Name, err)
		}
		result, err := value.ReadResults(string(printed.Text), p.Call.Results())
		if err != nil {
			return nil, t, fmt.Errorf("%s: %w", c.Name, err)
		}
		laid, shown := plan.Laid(args), plan.Printed(result)
		c.Input = problem.Data{Text: laid, Size: int64(len(laid))}
		c.Accepted = []problem.Data{{Text: shown, Size: int64(len(shown))}}
		c.Compare, c.Trials, c.Refused = made.Compare, nil, nil
		made.Cases = append(made.Cases, c)
	}
	return &made, t, nil
}
