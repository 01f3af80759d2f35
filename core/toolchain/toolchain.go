// Package toolchain turns a source file into a runnable program.
//
// A language is one entry in a table; everything else here works on any entry.
// A build is kept in a cache under a name made from the source's bytes, the
// compiler, its flags, and the bytes of what the source includes, so that the
// same source is never built twice and no stale build is ever used. What is
// compiled is a copy of the very bytes that were read. Builds run in a box,
// under limits of their own.
package toolchain

import (
	"bytes"
	"context"
	"crypto/sha256"
	"encoding/hex"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"os"
	"path/filepath"
	"slices"
	"strconv"
	"strings"
	"time"

	"coldverdict/core/box"
	"coldverdict/core/verdict"
)

// format is part of every name in the cache; raise it when builds of an older
// program can no longer be used.
const format = "1"

// buildLimits hold for one command of a build.
var buildLimits = verdict.Limits{
	Time: 2 * time.Minute, Wall: 3 * time.Minute,
	Memory: 4 << 30, Output: 1 << 30, Processes: 4096,
}

// stageName begins the name of a folder in which something is being built.
const stageName = "stage-"

// LogSize bounds what is kept of a compiler's messages, in bytes.
const LogSize = 64 << 10

// A Runner runs a command of a build; a box is one.
type Runner interface {
	Run(context.Context, box.Run) (box.Result, error)
}

// A Kit builds programs and keeps them.
type Kit struct {
	dir string // of the cache
}

// Open returns a kit that keeps its builds below dir, which is made if needed.
func Open(dir string) (*Kit, error) {
	for _, sub := range []string{"tools", "builds", "includes"} {
		if err := os.MkdirAll(filepath.Join(dir, sub), 0o700); err != nil {
			return nil, fmt.Errorf("cannot use the build cache: %w; set XDG_CACHE_HOME to a folder that can be written", err)
		}
	}
	box.RemoveStale(dir, stageName)
	return &Kit{dir: dir}, nil
}

// DefaultDir is the cache in the user's cache folder, or, for a user who has
// none, one in the folder for temporary files.
func DefaultDir() string {
	base, err := os.UserCacheDir()
	if err != nil {
		return filepath.Join(os.TempDir(), fmt.Sprintf("cold-verdict-%d", os.Getuid()))
	}
	return filepath.Join(base, "cold-verdict")
}

// A Source is what is to be built.
type Source struct {
	Path     string // absolute
	Language string // name of a language or standard; empty: by the extension
}

// A Build is the result of building a source.
type Build struct {
	Language *Language
	Standard string        // "cpp20"; empty where the language has none
	Tool     string        // the compiler or runtime in its own words
	Command  string        // the command line that built it, or runs it where nothing is compiled
	Duration time.Duration // how long the build took, when it was built
	Cached   bool          // it was built before
	Failed   bool          // the compiler refused the source; Log says why
	Log      string        // what the compiler said, warnings too; names are those of the person's files
	Dir      string        // where the program is
	File     string        // name of the source in Dir

	runtime string
	main    string
}

// record is what the cache remembers beside a build.
type record struct {
	Command  string
	Duration time.Duration
	Log      string
	Main     string
}

// Build builds a source with the runner, or finds it built. An error means that
// our side failed: a MissingError if a tool is not there. That the compiler
// refused the source is no error, see Build.Failed.
func (k *Kit) Build(ctx context.Context, r Runner, s Source) (Build, error) {
	language, standard, err := languageOf(s)
	if err != nil {
		return Build{}, err
	}
	source, err := os.ReadFile(s.Path)
	if err != nil {
		return Build{}, err
	}
	compiler, err := k.locate(ctx, language, language.Compiler)
	if err != nil {
		return Build{}, err
	}
	runtime, err := k.locate(ctx, language, language.Runtime)
	if err != nil {
		return Build{}, err
	}
	build := Build{
		Language: language, Standard: standard, Tool: compiler.Version,
		File: filepath.Base(s.Path), runtime: runtime.Path,
	}
	if build.Tool == "" {
		build.Tool = runtime.Version
	}
	if language.FileName != nil {
		build.File = language.FileName(build.File, source)
	}
	named := build.File
	if strings.HasPrefix(named, "-") { // not an option
		named = "./" + named
	}
	fill := strings.NewReplacer("{compiler}", compiler.Path, "{runtime}", runtime.Path,
		"{standard}", language.Standards[standard], "{source}", named, "{folder}", filepath.Dir(s.Path))
	var commands [][]string
	for _, command := range language.Build {
		commands = append(commands, replaced(command, fill))
	}
	name := digest(format, language.Name, build.File, string(source), compiler.Stamp, runtime.Stamp, fmt.Sprint(commands, language.BuildEnv))
	if k.lookUp(&build, name) {
		return build, nil
	}
	return build, k.make(ctx, r, &build, name, source, commands)
}

func languageOf(s Source) (*Language, string, error) {
	if s.Language != "" {
		language, standard, ok := Find(s.Language)
		if !ok {
			return nil, "", fmt.Errorf("there is no language %q; there are %s", s.Language, strings.Join(NamesWithStandards(), ", "))
		}
		return language, standard, nil
	}
	language, ok := ForFile(s.Path)
	if !ok {
		return nil, "", fmt.Errorf("the extension of %s names no language; say which with --lang", filepath.Base(s.Path))
	}
	return language, language.Standard, nil
}

func replaced(command []string, fill *strings.Replacer) []string {
	out := make([]string, len(command))
	for i, word := range command {
		out[i] = fill.Replace(word)
	}
	return out
}

// lookUp fills in build from the cache.
func (k *Kit) lookUp(build *Build, name string) bool {
	included, ok := k.included(name)
	if !ok {
		return false
	}
	dir := k.buildDir(name, included)
	text, err := os.ReadFile(filepath.Join(dir, "record.json"))
	if err != nil {
		return false
	}
	var kept record
	if json.Unmarshal(text, &kept) != nil {
		return false
	}
	build.Cached, build.Dir = true, dir
	build.Command, build.Duration, build.Log, build.main = kept.Command, kept.Duration, kept.Log, kept.Main
	return true
}

// included returns the files that a source included when it was built last,
// the source itself left out.
func (k *Kit) included(name string) (files []string, known bool) {
	text, err := os.ReadFile(filepath.Join(k.dir, "includes", name))
	if err != nil {
		return nil, false
	}
	return strings.Split(strings.TrimSuffix(string(text), "\x00"), "\x00"), true
}

// buildDir names a build by its source and by what that includes, so that
// another text in a header is another build.
func (k *Kit) buildDir(name string, included []string) string {
	parts := []string{name}
	for _, file := range included {
		if file == "" {
			continue
		}
		text, err := os.ReadFile(file)
		if err != nil {
			text = []byte(err.Error())
		}
		parts = append(parts, file, string(text))
	}
	return filepath.Join(k.dir, "builds", digest(parts...))
}

// make builds in a folder beside its later place and moves it there when it
// is whole. Two at once both build; the later one uses the earlier's.
func (k *Kit) make(ctx context.Context, r Runner, build *Build, name string, source []byte, commands [][]string) error {
	scratch, err := box.NewScratch(k.dir, stageName)
	if err != nil {
		return fmt.Errorf("cannot use the build cache: %w", err)
	}
	defer scratch.Remove()
	stage := scratch.Dir
	if err := os.WriteFile(filepath.Join(stage, build.File), source, 0o600); err != nil {
		return err
	}
	began := time.Now()
	for i, command := range commands {
		log, ok, err := k.run(ctx, r, stage, command, build.Language.BuildEnv)
		if err != nil {
			return err
		}
		build.Failed, build.Log = !ok, cleanLog(log, stage)
		build.Command = shown(command)
		if len(build.Language.Compiler.Commands) == 0 {
			build.Command = filepath.Base(build.runtime) + " " + build.File
		}
		if ok || build.Language.Else == "" || !strings.Contains(log, build.Language.Else) || i == len(commands)-1 {
			break
		}
	}
	build.Duration = time.Since(began)
	if build.Failed {
		return nil
	}
	if build.Language.Main != nil {
		build.main = build.Language.Main(stage, build.File)
	}
	text, err := json.Marshal(record{build.Command, build.Duration, build.Log, build.main})
	if err != nil {
		return err
	}
	if err := os.WriteFile(filepath.Join(stage, "record.json"), text, 0o600); err != nil {
		return err
	}
	included := readIncludes(stage, build)
	if err := writeWhole(filepath.Join(k.dir, "includes", name), []byte(strings.Join(included, "\x00"))); err != nil {
		return err
	}
	build.Dir = k.buildDir(name, included)
	if err := os.Rename(stage, build.Dir); err != nil && !errors.Is(err, os.ErrExist) && !isDir(build.Dir) {
		return fmt.Errorf("cannot keep the build: %w", err)
	}
	return nil
}

func isDir(path string) bool {
	info, err := os.Stat(path)
	return err == nil && info.IsDir()
}

// run runs one command of a build.
func (k *Kit) run(ctx context.Context, r Runner, dir string, command, env []string) (log string, ok bool, err error) {
	text := &box.Head{Most: LogSize}
	result, err := r.Run(ctx, box.Run{
		// A compiler that is killed leaves its temporary files where it works.
		Program: box.Program{Path: command[0], Args: command[1:], Env: overlaid(os.Environ(), append(env[:len(env):len(env)], "TMPDIR="+dir))},
		Limits:  buildLimits, Output: text, Errors: text, Dir: dir,
	})
	if err != nil {
		return "", false, err
	}
	switch result.Ending {
	case box.Exited:
	case box.PassedTime, box.PassedWall:
		fmt.Fprintf(text, "\nthe compiler was stopped after %v", buildLimits.Time)
	default:
		fmt.Fprintf(text, "\nthe compiler was stopped: it passed its limit of %s", result.Ending)
	}
	return string(text.Text), result.Ending == box.Exited && result.ExitCode == 0 && result.Signal == 0, nil
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
func cleanLog(log, stage string) string {
	log = strings.ReplaceAll(log, stage+string(filepath.Separator), "")
	return strings.TrimSpace(strings.ReplaceAll("\n"+log, "\n./", "\n"))
}

// shown is a command as the first line of a run shows it.
func shown(command []string) string {
	var words []string
	for i := 0; i < len(command); i++ {
		switch word := command[i]; {
		case i == 0:
			words = append(words, filepath.Base(word))
		case word == "-MF" || word == "-iquote" || word == "-o" || word == "-d":
			i++
		case word == "-MMD":
		default:
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
		if name != filepath.Join(stage, build.File) && !slices.Contains(files, name) {
			files = append(files, name)
		}
	}
	return files
}

// Program returns how to run a build under limits. Arguments follow the
// program's own.
func (b Build) Program(limits verdict.Limits, args []string) box.Program {
	memory := max(16, limits.Memory>>20)
	fill := strings.NewReplacer("{build}", b.Dir, "{source}", b.File, "{runtime}", b.runtime, "{main}", b.main,
		"{memory}", strconv.FormatInt(memory, 10), "{stack}", strconv.FormatInt(min(memory, 1024), 10))
	command := replaced(b.Language.Run, fill)
	return box.Program{Path: command[0], Args: append(command[1:], args...), Env: environment()}
}

// passed are the variables of the person's environment that a program sees.
var passed = []string{"PATH", "HOME", "LANG", "LC_ALL", "LC_CTYPE", "TZ"}

func environment() []string {
	var env []string
	for _, name := range passed {
		if value, ok := os.LookupEnv(name); ok {
			env = append(env, name+"="+value)
		}
	}
	if os.Getenv("LANG") == "" && os.Getenv("LC_ALL") == "" {
		env = append(env, "LANG=C.UTF-8")
	}
	return env
}

// digest names a list of texts; no two lists share a name.
func digest(parts ...string) string {
	h := sha256.New()
	for _, p := range parts {
		fmt.Fprintf(h, "%d:", len(p))
		io.WriteString(h, p)
	}
	return hex.EncodeToString(h.Sum(nil)[:16])
}

// writeWhole writes a file so that others see the old text or the new one.
func writeWhole(path string, text []byte) error {
	file, err := os.CreateTemp(filepath.Dir(path), "new-")
	if err != nil {
		return err
	}
	defer os.Remove(file.Name())
	_, err = file.Write(text)
	if err = errors.Join(err, file.Close()); err != nil {
		return err
	}
	return os.Rename(file.Name(), path)
}
