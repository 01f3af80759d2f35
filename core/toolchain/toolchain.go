// Package toolchain turns a source file into a runnable program.
//
// A language is one entry in a table, languages.toml, which a person's own table
// extends; everything else here works on any entry.
// A build is kept in a cache under a name made from the source's bytes, the
// compiler, its flags, and the bytes of what the source includes, so that the
// same source is never built twice and no stale build is ever used. What is
// compiled is a copy of the very bytes that were read. Builds run in a box,
// under limits of their own.
package toolchain

import (
	"bytes"
	"cmp"
	"context"
	"fmt"
	"maps"
	"os"
	"os/exec"
	"path/filepath"
	"slices"
	"strconv"
	"strings"
	"time"
	"unicode"

	"coldverdict/core/box"
	"coldverdict/core/verdict"
)

// buildLimits hold for one command of a build.
var buildLimits = verdict.Limits{
	Time: 2 * time.Minute, Wall: 3 * time.Minute,
	Memory: 4 << 30, Output: 1 << 30, Processes: 4096,
}

// LogSize bounds what is kept of a compiler's messages, in bytes.
const LogSize = 64 << 10

// A Runner runs a command of a build; a box is one.
type Runner interface {
	Run(context.Context, box.Run) (box.Result, error)
}

// A Source is what is to be built.
type Source struct {
	Path     string  // absolute
	Language string  // name of a language or standard; empty: by the extension
	Checked  bool    // the checked build is wanted, where the language has one
	Traced   bool    // likewise the traced build, which says which parts of it ran
	Stepped  bool    // likewise the stepped build, which says line by line what it does
	Wrap     Wrapper // puts something around the source; nil: nothing is
}

// A Wrapper puts around a source in a language what makes a program of it. The
// standard is one of the language's Standards, or empty.
type Wrapper func(l *Language, standard, file string, source []byte) (Wrapping, error)

// A Wrapping is what is put around a source.
type Wrapping struct {
	Source []byte            // takes the place of the person's; its lines are where they were
	Files  map[string][]byte // further files beside it
	// BuildWords and RunWords are words that take the place of words of the
	// language's commands, before anything in braces is filled in.
	BuildWords, RunWords map[string][]string
	Then                 []Command // commands that build, after the language's own
	Refused              string    // why nothing can be put around this source; empty: it can
	// Supplied are lines that were put in for what the source relies on.
	Supplied []string
	// Otherwise gives what is put around it where it does not build; nil: nothing is.
	Otherwise func() (Wrapping, error)
}

// with returns a command in which words have taken the place of others.
func (c Command) with(words map[string][]string) Command {
	if len(words) == 0 {
		return c
	}
	var made Command
	for _, word := range c {
		if others, ok := words[word]; ok {
			made = append(made, others...)
		} else {
			made = append(made, word)
		}
	}
	return made
}

// A Build is the result of building a source.
type Build struct {
	Language *Language
	Source   string        // the person's file
	Standard string        // "cpp20"; empty where the language has none
	Checked  bool          // it is a checked build
	Traced   bool          // it is a traced build
	Stepped  bool          // it is a stepped build
	Tool     string        // the compiler or runtime in its own words
	Command  string        // the command line that built it, or runs it where nothing is compiled
	Duration time.Duration // how long the build took, when it was built
	Cached   bool          // it was built before
	Failed   bool          // the compiler refused the source; Log says why
	Log      string        // what the compiler said, warnings too; names are those of the person's files
	Notes    []string      // what a judge may have against the source
	Dir      string        // where the program is
	File     string        // name of the source in Dir

	compiler, runtime, library string
	stamp                      string // of the tools
	main                       string
	wrapping                   Wrapping
	warm                       string   // the folder of headers that were compiled before; empty: none are used
	warmed                     []string // what these include
	ownLines                   int      // of the person's source, where something may have been added to it; 0: nothing was
}

// Build builds a source with the runner, or finds it built. An error means that
// our side failed: a MissingError if a tool is not there. That the compiler
// refused the source is no error, see Build.Failed.
func (k *Kit) Build(ctx context.Context, r Runner, s Source) (build Build, err error) {
	choices, err := k.languages.of(s)
	if err != nil {
		return Build{}, err
	}
	source, err := os.ReadFile(s.Path)
	if err != nil {
		return Build{}, err
	}
	if build, err = k.choose(ctx, choices); err != nil {
		return build, err
	}
	build.Source = s.Path
	build.Checked = s.Checked && build.Language.HasChecked()
	build.Traced = s.Traced && build.Language.HasTraced()
	build.Stepped = s.Stepped && build.Language.HasStepped()
	build.File = build.Language.buildName(filepath.Base(s.Path), source)
	defer build.nameLikeTheSource()
	build.Notes = build.Language.NotesOn(source)
	build.wrapping.Source = source
	if s.Wrap != nil {
		build.ownLines = 1 + bytes.Count(source, []byte{'\n'})
		if build.wrapping, err = s.Wrap(build.Language, build.Standard, build.File, source); err != nil {
			return build, err
		}
		if build.wrapping.Refused != "" {
			build.Failed, build.Log = true, build.wrapping.Refused
			return build, nil
		}
	}
	otherwise := build
	if build, err = k.wrapped(ctx, r, build); err == nil && build.Failed && build.wrapping.Otherwise != nil {
		if otherwise.wrapping, err = build.wrapping.Otherwise(); err != nil || otherwise.wrapping.Refused != "" {
			return build, err
		}
		if other, err := k.wrapped(ctx, r, otherwise); err != nil || !other.Failed {
			return other, err
		}
	}
	return build, err
}

// Supplied are lines that were put in for what the source relies on, and leaves to a judge.
func (b *Build) Supplied() []string { return b.wrapping.Supplied }

// beside puts a file beside the source of this build.
func (b *Build) beside(name string, text []byte) {
	files := map[string][]byte{name: text}
	maps.Copy(files, b.wrapping.Files)
	b.wrapping.Files = files
}

// wrapped builds what stands around a source, or finds it built.
func (k *Kit) wrapped(ctx context.Context, r Runner, build Build) (Build, error) {
	if build.Traced {
		build.beside(traceFile, traceText)
	}
	if build.Stepped {
		build.besideStepped()
	}
	commands, err := build.commands()
	if err != nil {
		return build, err
	}
	name := build.cacheName(commands)
	if k.lookUp(&build, name) {
		return build, nil
	}
	release, err := k.buildAlone(ctx, name)
	if err != nil {
		return build, err
	}
	defer release()
	if k.lookUp(&build, name) { // by another, while this one waited
		return build, nil
	}
	return build, k.make(ctx, r, &build, name, commands)
}

// choose takes the first of several ways to serve a source for which the tools
// are there. If there is none, the error is that of the first.
func (k *Kit) choose(ctx context.Context, choices []choice) (Build, error) {
	var first error
	for _, c := range choices {
		build := Build{Language: c.language, Standard: c.standard}
		err := k.equip(ctx, &build)
		if err == nil {
			return build, nil
		}
		if first == nil {
			first = err
		}
	}
	return Build{Language: choices[0].language}, first
}

// equip finds the tools of a build's language.
func (k *Kit) equip(ctx context.Context, b *Build) error {
	compiler, err := k.locate(ctx, b.Language, b.Language.Compiler)
	if err != nil {
		return err
	}
	runtime, err := k.locate(ctx, b.Language, b.Language.Runtime)
	if err != nil {
		return err
	}
	if b.library, err = b.Language.findLibrary(); err != nil {
		return err
	}
	b.compiler, b.runtime = compiler.Path, runtime.Path
	b.Tool = cmp.Or(compiler.Version, runtime.Version)
	b.stamp = digest(compiler.Stamp, runtime.Stamp, fileStamp(b.library))
	return nil
}

// Title names the language with its standard: "C++20". Which of its compilers
// serves it is told by Tool.
func (b Build) Title() string {
	title, _, _ := strings.Cut(b.Language.Title, " (")
	digits := strings.TrimFunc(b.Standard, func(r rune) bool { return !unicode.IsDigit(r) })
	if len(digits) == 4 {
		digits = " " + digits
	}
	return title + digits
}

// StandardIn is the name of the standard for one of some versions of languages, such as "17" of
// "cpp"; empty: none of them is a version of this language that can be chosen.
func (l *Language) StandardIn(versions map[string]string) string {
	for name, version := range versions {
		for _, standard := range []string{name + version, name + version + "-clang"} {
			if _, ok := l.Standards[standard]; ok {
				return standard
			}
		}
	}
	return ""
}

// Mild reports that what a run of the checked build said is about something that works everywhere, or
// that may be meant.
func (l *Language) Mild(said string) bool {
	return slices.ContainsFunc(l.CheckedMild, func(p Pattern) bool { return p.matches(said) })
}

// HasChecked reports whether a language has a build, or a way to run one, that
// finds more than the usual one.
func (l *Language) HasChecked() bool { return len(l.Checked) > 0 || len(l.CheckedRun) > 0 }

// buildName returns the name under which a source is built. It is the same for all, so
// that no name that a person gave it means anything to the language.
func (l *Language) buildName(name string, source []byte) string {
	extension := filepath.Ext(name)
	if !isIdentifier(strings.TrimPrefix(extension, ".")) && len(l.Extensions) > 0 {
		extension = l.Extensions[0]
	}
	if l.SourceName.compiled != nil {
		if m := l.SourceName.compiled().FindSubmatch(source); m != nil {
			return string(m[1]) + extension
		}
	}
	return "solution" + extension
}

// FileName returns the name that a source should have.
func (l *Language) FileName(name string, source []byte) string {
	extension := filepath.Ext(name)
	if l.SourceName.compiled != nil {
		if m := l.SourceName.compiled().FindSubmatch(source); m != nil {
			return string(m[1]) + extension
		}
	}
	if l.Identifier && !isIdentifier(strings.TrimSuffix(name, extension)) {
		return "solution" + extension
	}
	return name
}

func isIdentifier(word string) bool {
	for i, r := range word {
		if r != '_' && !unicode.IsLetter(r) && (i == 0 || !unicode.IsDigit(r)) {
			return false
		}
	}
	return word != ""
}

// A recipe is the commands of a build, and those that are tried instead.
type recipe struct{ first, again [][]string }

// commands fills in what is known before a build has its folder.
func (b *Build) commands() (c recipe, err error) {
	named := b.File
	if strings.HasPrefix(named, "-") { // not an option
		named = "./" + named
	}
	fill := strings.NewReplacer("{compiler}", b.compiler, "{runtime}", b.runtime, "{library}", b.library,
		"{standard}", b.Language.Standards[b.Standard], "{source}", named, "{stem}", stem(named),
		"{folder}", filepath.Dir(b.Source))
	build, again := b.Language.Build, b.Language.BuildAgain
	if b.Checked && len(b.Language.Checked) > 0 {
		build, again = b.Language.Checked, b.Language.CheckedAgain
	}
	if b.Traced {
		build, again = b.Language.Traced, nil
	}
	if b.Stepped {
		build, again = b.Language.Stepped, b.Language.SteppedAgain
	}
	all := func(commands []Command) (filled [][]string) {
		for _, one := range slices.Concat(commands, b.wrapping.Then) {
			filled = append(filled, replaced(one.with(b.wrapping.BuildWords), fill))
		}
		return filled
	}
	c.first = all(build)
	if len(again) > 0 {
		c.again = all(again)
	}
	for _, one := range append(c.first, c.again...) {
		path, err := exec.LookPath(one[0])
		if err != nil {
			return c, &MissingError{Language: b.Language.Title, Commands: one[:1]}
		}
		one[0] = path
	}
	return c, nil
}

func stem(file string) string { return strings.TrimSuffix(file, filepath.Ext(file)) }

func replaced(command Command, fill *strings.Replacer) []string {
	out := make([]string, len(command))
	for i, word := range command {
		out[i] = fill.Replace(word)
	}
	return out
}

// make builds in a folder beside its later place and moves it there when it
// is whole.
func (k *Kit) make(ctx context.Context, r Runner, build *Build, name string, commands recipe) error {
	scratch, err := box.NewScratch(k.dir, stageName)
	if err != nil {
		return fmt.Errorf("cannot use the build cache: %w", err)
	}
	defer scratch.Remove()
	stage := scratch.Dir
	for file, text := range build.Language.Files {
		if err := os.WriteFile(filepath.Join(stage, filepath.Base(file)), []byte(text), 0o600); err != nil {
			return err
		}
	}
	for file, text := range build.wrapping.Files {
		if err := os.WriteFile(filepath.Join(stage, file), text, 0o600); err != nil {
			return err
		}
	}
	if err := os.WriteFile(filepath.Join(stage, build.File), build.wrapping.Source, 0o600); err != nil {
		return err
	}
	began := time.Now()
	log, ok, err := k.runWarm(ctx, r, build, stage, commands.first)
	asks := func(text string) bool { return strings.Contains(log, text) }
	if err == nil && !ok && len(commands.again) > 0 && slices.ContainsFunc(build.againIf(), asks) {
		log, ok, err = k.runAll(ctx, r, build, stage, commands.again)
	}
	if err != nil {
		return err
	}
	build.Failed, build.Log, build.Duration = !ok, build.cleanLog(log, stage), time.Since(began)
	if build.Failed {
		// A compiler that found no room has said nothing of the source.
		if err := fullError(stage, log); err != nil {
			return err
		}
		if s, ok := r.(sandboxed); ok && s.Contains() {
			build.Log = strings.Join(append([]string{build.Log}, build.keptFrom(build.Log)...), "\n")
		}
		return nil
	}
	// Where nothing else keeps the rights of files as they are, a linker cannot set them.
	if info, err := os.Lstat(filepath.Join(stage, "program")); err == nil && info.Mode().IsRegular() {
		if err := os.Chmod(filepath.Join(stage, "program"), 0o755); err != nil {
			return err
		}
	}
	if build.Language.Main == "jvm" {
		build.main = mainClass(stage, build.File)
	}
	if err := k.keep(build, name, stage); err != nil {
		return err
	}
	if build.warm == "" {
		k.wanted(build)
	}
	return nil
}

// runWarm runs the commands of a build, the first from headers that were compiled before. Where they fail with words
// about these headers, they are run once more without, and it is that of which the person hears.
func (k *Kit) runWarm(ctx context.Context, r Runner, build *Build, dir string, commands [][]string) (log string, ok bool, err error) {
	if h, includes := k.warm(build); h != nil {
		build.warm, build.warmed = h.Dir, includes
		log, ok, err = k.runAll(ctx, r, build, dir, append([][]string{h.from(commands[0])}, commands[1:]...))
		if err != nil || ok || !strings.Contains(log, headersFile) {
			build.Command = build.Language.shown(commands[0])
			return log, ok, err
		}
		build.warm, build.warmed = "", nil
	}
	return k.runAll(ctx, r, build, dir, commands)
}

// runAll runs the commands of a build until one fails.
func (k *Kit) runAll(ctx context.Context, r Runner, build *Build, dir string, commands [][]string) (log string, ok bool, err error) {
	build.Command = filepath.Base(build.runtime) + " " + build.File
	if len(build.Language.Compiler.Command) > 0 {
		build.Command = build.Language.shown(commands[0])
	}
	ok = true
	for i := 0; ok && i < len(commands) && err == nil; i++ {
		var said string
		said, ok, err = k.run(ctx, r, build, dir, commands[i])
		log += said
	}
	return log, ok, err
}

// run runs one command of a build.
func (k *Kit) run(ctx context.Context, r Runner, build *Build, dir string, command []string) (log string, ok bool, err error) {
	program, err := k.buildProgram(build, command, dir)
	if err != nil {
		return "", false, err
	}
	// The two are read at once, and must not be mixed within a line.
	out, text := &box.Head{Most: LogSize}, &box.Head{Most: LogSize}
	result, err := r.Run(ctx, box.Run{
		Program: program,
		Limits:  buildLimits, Output: out, Errors: text, Dir: dir,
	})
	if err != nil {
		return "", false, err
	}
	if len(text.Text) > 0 && len(out.Text) > 0 && !bytes.HasSuffix(text.Text, []byte("\n")) {
		text.Write([]byte("\n"))
	}
	text.Write(out.Text)
	if result.Tried != "" {
		fmt.Fprintf(text, "\ncold: while it was built it %s\n", result.Tried)
	}
	switch result.Ending {
	case box.Exited:
	case box.PassedTime, box.PassedWall:
		fmt.Fprintf(text, "\nthe compiler was stopped after %v", buildLimits.Time)
	default:
		fmt.Fprintf(text, "\nthe compiler was stopped: it passed its limit of %s", result.Ending)
	}
	return string(text.Text), result.Succeeded(), nil
}

// overlaid returns an environment in which changes take the place of what had
// their names.
func overlaid(env, changes []string) []string {
	names := map[string]bool{}
	for _, entry := range changes {
		name, _, _ := strings.Cut(entry, "=")
		names[name] = true
	}
	env = slices.DeleteFunc(env, func(entry string) bool {
		name, _, _ := strings.Cut(entry, "=")
		return names[name]
	})
	return append(env, changes...)
}

// cleanLog takes the build's own folder out of what the compiler said.
func (b *Build) cleanLog(log, stage string) string {
	log = strings.ReplaceAll(log, stage+string(filepath.Separator), "")
	return strings.TrimSpace(strings.ReplaceAll("\n"+log, "\n./", "\n"))
}

// nameLikeTheSource gives the source, in what the build says, the name that its owner
// knows.
func (b *Build) nameLikeTheSource() {
	b.Log, b.Command = b.OwnName(b.Log), b.OwnName(b.Command)
}

// OwnName gives the source, in a text, the name that its owner knows.
func (b *Build) OwnName(text string) string {
	own := filepath.Base(b.Source)
	if own == b.File || b.File == "" || !strings.Contains(text, b.File) {
		return text
	}
	var named strings.Builder
	for {
		before, after, found := strings.Cut(text, b.File)
		named.WriteString(before)
		if !found {
			return named.String()
		}
		whole := !endsInWord(before) && !isIdentifier(after[:min(1, len(after))])
		if whole {
			named.WriteString(own)
		} else {
			named.WriteString(b.File)
		}
		text = after
	}
}

// endsInWord reports that a text ends within a name.
func endsInWord(text string) bool {
	if text == "" {
		return false
	}
	last := text[len(text)-1]
	return last == '_' || last == '-' || last >= '0' && last <= '9' || last >= 'a' && last <= 'z' || last >= 'A' && last <= 'Z'
}

// shown is a command as the first line of a run shows it.
func (l *Language) shown(command []string) string {
	var words []string
	for i := 0; i < len(command); i++ {
		switch word := command[i]; {
		case i == 0:
			words = append(words, filepath.Base(word))
		case slices.Contains(l.Hidden, word+"+"):
			i++
		case !slices.Contains(l.Hidden, word):
			words = append(words, word)
		}
	}
	return strings.Join(words, " ")
}

// readIncludes reads the rule that the compiler wrote for make: a target, a
// colon, and file names parted by blanks, with a backslash before a blank in
// a name and before a line end.
func readIncludes(stage string, build *Build) (files []string) {
	if build.Language.Includes == "" {
		return nil
	}
	text, err := os.ReadFile(filepath.Join(stage, build.Language.Includes))
	if err != nil {
		return nil
	}
	_, rule, _ := bytes.Cut(text, []byte(": "))
	plain := strings.NewReplacer("\\\n", " ", "\\ ", "\x00", "$$", "$").Replace(string(rule))
	for _, name := range strings.Fields(plain) {
		name = strings.ReplaceAll(name, "\x00", " ")
		if !filepath.IsAbs(name) {
			name = filepath.Join(stage, name)
		}
		if dir := filepath.Dir(name); dir != stage && dir != build.warm && !slices.Contains(files, name) {
			files = append(files, name)
		}
	}
	for _, name := range build.warmed {
		if name != "" && !slices.Contains(files, name) {
			files = append(files, name)
		}
	}
	slices.Sort(files) // a name of the build is made of them, however they were read
	return files
}

// Program returns how to run a build under limits. Arguments follow the
// program's own.
func (b Build) Program(limits verdict.Limits, args []string) box.Program {
	run, env := b.Language.Run, b.Language.Environment
	if b.Checked {
		env = slices.Concat(env, b.Language.CheckedEnvironment)
		if len(b.Language.CheckedRun) > 0 {
			run = b.Language.CheckedRun
		}
	}
	if b.Stepped && len(b.Language.SteppedRun) > 0 {
		run = b.Language.SteppedRun
	}
	return b.program(run, env, limits, args)
}

// Diagnosis returns how to run a build once more after it has passed its limit
// of memory, to learn whether it recursed too deeply; false if nothing would be
// learned.
func (b Build) Diagnosis(limits verdict.Limits, args []string) (box.Program, bool) {
	if len(b.Language.Diagnose) == 0 {
		return box.Program{}, false
	}
	return b.program(b.Language.Diagnose, b.Language.Environment, limits, args), true
}

func (b Build) program(run Command, env []string, limits verdict.Limits, args []string) box.Program {
	memory := max(16, limits.Memory>>20)
	// A runtime that knows its stack finds an endless recursion itself, and says
	// so, before the limit on memory ends it.
	stack := min(max(8, memory/2), 1024)
	fill := strings.NewReplacer("{build}", b.Dir, "{source}", b.File, "{stem}", stem(b.File), "{main}", b.main,
		"{compiler}", b.compiler, "{runtime}", b.runtime, "{library}", b.library, "{folder}", filepath.Dir(b.Source),
		"{memory}", strconv.FormatInt(memory, 10), "{stack}", strconv.FormatInt(stack, 10),
		"{stack_kib}", strconv.FormatInt(stack<<10, 10))
	command := replaced(run.with(b.wrapping.RunWords), fill)
	reads := append(b.reads(), b.Dir)
	if asks(run) {
		reads = append(reads, filepath.Dir(b.Source))
	}
	return box.Program{Path: command[0], Args: append(command[1:], args...), Env: overlaid(environment(), replaced(env, fill)), Reads: reads}
}

// passed are the variables of the person's environment that a program sees.
var passed = []string{"PATH", "HOME", "TZ"}

// environment is what every program and every compiler knows of where it runs. What they
// print does not depend on whose machine that is, so the locale is always the same.
func environment() []string {
	env := []string{"LANG=C.UTF-8", "LC_ALL=C.UTF-8"}
	for _, name := range passed {
		if value, ok := os.LookupEnv(name); ok {
			env = append(env, name+"="+value)
		}
	}
	return env
}
