// Package steps records what a program does, line by line of its own source: which line ran, which variables it changed
// to what, what it printed, what functions returned. A recorder in the program's own language runs the source in the
// sandbox and tells on a descriptor; what it tells is bounded here, however long the program runs.
package steps

import (
	"bytes"
	"cmp"
	"context"
	"crypto/rand"
	"embed"
	"errors"
	"fmt"
	"io"
	"maps"
	"math"
	"os"
	"path/filepath"
	"runtime"
	"slices"
	"strconv"
	"strings"
	"time"

	"coldverdict/core/box"
	"coldverdict/core/call"
	"coldverdict/core/judge"
	"coldverdict/core/problem"
	"coldverdict/core/steps/native"
	"coldverdict/core/toolchain"
	"coldverdict/core/verdict"
	"coldverdict/internal/lazy"
)

//go:embed recorders
var recorders embed.FS

// languages have a recorder that runs the source, by the name of the language. Those with a stepped build need none.
var languages = map[string]recorder{
	"python": {file: "python.py"}, "pypy": {file: "python.py"}, "ruby": {file: "ruby.rb"}, "lua": {file: "lua.lua"},
	"go": {file: "golang.go.txt", inserted: true}, "javascript": {file: "javascript.js"}, "typescript": {file: "javascript.js", made: ".js"}, "typescript-node": {file: "javascript.js", made: ".js"},
}

// A recorder is a file that takes the place of a source, and runs it.
type recorder struct {
	file string
	made string // ending of what the compiler makes of a source; empty: it is the source that is run
	// inserted says that calls of it are put into the source.
	inserted bool
}

// Options say what is recorded. The zero value of each field is usable.
type Options struct {
	Env judge.Env
	// UntilLine ends the recording when so many lines were printed, which is where the output is wrong; 0: it goes on
	// to the end.
	UntilLine int
	// Around ends it some steps after a variable first has this value; empty: no value does.
	Around string
	// From begins it when this line first runs; 0: with the program.
	From int
	// Most is how many events a program may tell; 0 is MostEvents.
	Most int
	// Time bounds how long it is recorded; 0 is MostTime.
	Time time.Duration
}

// Bounds of a recording.
const (
	MostEvents = 1_500_000
	MostTime   = 10 * time.Second // from the first step on
	kept       = 30_000           // steps, the last ones
	afterValue = 15               // steps behind the one with the value that was asked for
	mostOutput = 1 << 20
	mostDepth  = 1 << 17 // of calls; recorders end before that
	mostText   = 8 << 10 // of one value, in bytes
)

// A Step is a line that ran, with what it did.
type Step struct {
	Number   int // among all steps of the program, from 1
	Line     int
	Depth    int    // of calls
	Function string // "<module>" or the like for the main program
	Changes  []Change
	// Begins says that it is the first one of a call; the first so many Changes are its arguments.
	Begins    bool
	Arguments int
	Output    string // what it printed
	// OutputAt is the number of the step at which that was printed: a later one, where the line calls a function first.
	OutputAt int
	Error    string // that it raised
	Warning  string // what it did that is hardly meant: an integer that does not fit, an index outside
	Returned string // of the function whose last line this is; empty: it is not, or returned nothing
}

// A Change is a variable's new value, as the language writes it, shortened.
type Change struct {
	Name, Value string
	Global      bool // it belongs to no call
	// At is the number of the step by which it was so: a later one, where the line called a function first.
	At int
}

// A Recording is what a program did, or the last part of it.
type Recording struct {
	Source   []string // lines
	Steps    []Step   // the last ones that were kept
	Total    int      // steps in all
	Cut      bool     // more happened behind them: Why says what ended the recording
	Why      string
	Output   []byte // all that was printed, up to 1 MiB
	Run      verdict.Outcome
	Language string
}

// An UnableError says why the steps of a solution cannot be recorded.
type UnableError struct{ Text string }

func (e *UnableError) Error() string { return e.Text }

// private is the name under which the source lies beside its recorder.
const private = "cold-steps-source"

// Record runs a solution on an input and records its steps. The error is an UnableError, the context's, or says what
// failed on our side.
func Record(ctx context.Context, p *problem.Problem, solution problem.Solution, input problem.Data, o Options) (r *Recording, err error) {
	if !Records(p) {
		return nil, &UnableError{"steps are recorded of programs that read an input, and of functions; this problem has talks, or provides functions"}
	}
	j, err := judge.Open(p, o.Env)
	if err != nil {
		return nil, err
	}
	defer func() { err = errors.Join(err, j.Close()) }()
	build, err := o.build(ctx, j, p, solution)
	if err != nil {
		return nil, err
	}
	limits, _ := j.Limits(build.Language)
	limits = judge.Widened(limits)
	limits.Output = max(limits.Output, 1<<30) // the recording counts as output
	runner, err := j.Runner(&build)
	if err != nil {
		return nil, err
	}
	program := build.Program(limits, solution.Args)
	text, err := os.ReadFile(p.Path(solution))
	if err != nil {
		return nil, err
	}
	lines := strings.Split(strings.TrimRight(string(text), "\n"), "\n")
	switch {
	case build.StepsItself():
		var scratch *box.Scratch
		if scratch, err = box.NewScratch(os.TempDir(), "cold-verdict-run-"); err != nil {
			return nil, fmt.Errorf("cannot make a working folder: %w", err)
		}
		defer func() { err = errors.Join(err, scratch.Remove()) }()
		if program, err = o.withTable(&build, program, scratch.Dir, lines); err != nil {
			return nil, err
		}
	case build.Stepped:
		program.Env = append(slices.Clone(program.Env), "COLD_STEPS_MOST="+strconv.Itoa(o.most()), "COLD_STEPS_FROM="+strconv.Itoa(o.From))
	}
	file, mark, err := openInput(p, build.Language, input)
	if err != nil {
		return nil, err
	}
	defer file.Close()
	running, stop := context.WithCancel(ctx) // once nothing more is wanted, the program need not go on
	defer stop()
	told := &teller{options: o, lines: lines, depth: -1, mark: mark, stop: stop}
	out := &box.Head{Most: mostOutput}
	errs := &box.Head{Most: judge.KeptText}
	result, err := runner.Run(running, box.Run{Program: program, Limits: limits, Input: file, Output: out, Errors: errs, Decision: told, Files: box.Files(p.Files)})
	if err != nil && !(told.done && ctx.Err() == nil) {
		return nil, err
	}
	if result.File != nil { // what counts is the file
		out.Text = nil
		_, err := io.Copy(out, result.File)
		if err := errors.Join(err, result.File.Close()); err != nil {
			return nil, err
		}
	}
	if mark != "" {
		out.Text, errs.Text = bytes.ReplaceAll(out.Text, []byte(mark), nil), bytes.ReplaceAll(errs.Text, []byte(mark), nil)
	}
	r = told.recording()
	r.Source = lines
	r.Output, r.Language = out.Text, build.Language.Name
	r.doubt()
	for i := range r.Steps {
		if e := &r.Steps[i].Error; *e != "" {
			*e = build.OwnName(*e)
		}
	}
	r.Run = verdict.Outcome{Ran: true, ExitCode: result.ExitCode, Stderr: verdict.Text{Bytes: errs.Text, Cut: errs.Cut}}
	return r, nil
}

// build builds a solution so that it is recorded.
func (o Options) build(ctx context.Context, j *judge.Judge, p *problem.Problem, solution problem.Solution) (toolchain.Build, error) {
	around := func(_ *toolchain.Language, _, _ string, source []byte) (toolchain.Wrapping, error) {
		return toolchain.Wrapping{Source: source}, nil
	}
	if p.Kind().Calls {
		around = call.Around(p.Call)
	}
	wrap := func(l *toolchain.Language, standard, file string, source []byte) (toolchain.Wrapping, error) {
		if !IsRecorded(l) {
			return toolchain.Wrapping{}, &UnableError{fmt.Sprintf("steps cannot be recorded in %s; they can in %s", l.Title, strings.Join(recorded(cmp.Or(o.Env.Languages, toolchain.Ours())), ", "))}
		}
		if l.HasStepped() && len(l.SteppedRun) == 0 && runtime.GOARCH != "amd64" {
			return toolchain.Wrapping{}, &UnableError{native.ErrMachine.Error()}
		}
		w, err := around(l, standard, file, source)
		if l.HasStepped() {
			w.Source = unoptimised(w.Source)
			return w, err
		}
		if err != nil || w.Refused != "" {
			return w, err
		}
		err = o.around(&w, languages[l.Name], file)
		w.Otherwise = nil
		return w, err
	}
	build, err := j.Build(ctx, toolchain.Source{Path: p.Path(solution), Language: solution.Language, Stepped: true, Wrap: wrap})
	if err == nil && build.Failed {
		err = &UnableError{"it does not build: " + build.FirstError()}
	}
	return build, err
}

// asksToOptimise is what a source of C or C++ may say against the flags of its build. What is optimised has its variables
// anywhere.
var asksToOptimise = lazy.New(`(?m)^[ \t]*#[ \t]*pragma[ \t]+GCC[ \t]+optimize\b.*$|__attribute__[ \t]*\(\([ \t]*optimize[ \t]*\([^()]*\)[ \t]*\)\)`)

// unoptimised is a source without that; its lines stay.
func unoptimised(source []byte) []byte { return asksToOptimise().ReplaceAll(source, nil) }

// around has a recorder run a source, or the driver of a function.
func (o Options) around(w *toolchain.Wrapping, with recorder, file string) error {
	text, err := recorders.ReadFile("recorders/" + with.file)
	if err != nil {
		return err
	}
	own, runs, driven := file, private, len(w.Files) > 0 // what is recorded, and what is run
	if with.made != "" {
		own = strings.TrimSuffix(file, filepath.Ext(file)) + with.made
	}
	recording := func() []byte {
		return []byte(strings.NewReplacer("MOST", strconv.Itoa(o.most()), "FROM_LINE", strconv.Itoa(o.From), "PRIVATE", runs, "OWN_FILE", own, "DRIVEN", strconv.Itoa(len(w.Files))).Replace(string(text)))
	}
	files := map[string][]byte{}
	maps.Copy(files, w.Files)
	switch {
	case with.inserted:
		if w.Source, err = goInstrumented(w.Source); err != nil {
			return &UnableError{"it does not build: " + err.Error()}
		}
		files["cold_steps.go"] = recording()
		words := w.BuildWords["{source}"]
		if words == nil {
			words = []string{"{source}"}
		}
		w.BuildWords = map[string][]string{"{source}": append(slices.Clone(words), "cold_steps.go")}
	case driven: // what takes the driver's place runs it
		for name, driver := range w.Files {
			runs += filepath.Ext(name)
			files[name], files[runs] = recording(), driver
		}
	case with.made != "":
		runs = own
		files[private+with.made] = recording()
		w.RunWords = map[string][]string{"{build}/{stem}" + with.made: {"{build}/" + private + with.made}}
	default:
		files[private], w.Source = w.Source, recording()
	}
	w.Files = files
	return nil
}

func (o Options) most() int { return cmp.Or(o.Most, MostEvents) }

// withTable has a program find what its recorder reads.
func (o Options) withTable(build *toolchain.Build, program box.Program, scratch string, lines []string) (box.Program, error) {
	table, err := native.Table(filepath.Join(build.Dir, "program"), native.Options{
		Source: build.File, Lines: lines, Most: o.most(), From: o.From, Raises: "panics", Brackets: !slices.Contains([]string{".c", ".cpp"}, build.Language.FirstExtension()),
	})
	if errors.Is(err, native.ErrMachine) {
		return program, &UnableError{err.Error()}
	} else if err != nil {
		return program, fmt.Errorf("the stepped build: %w", err)
	}
	path := filepath.Join(scratch, "steps-table")
	if err := os.WriteFile(path, table, 0o600); err != nil {
		return program, err
	}
	program.Reads = append(slices.Clone(program.Reads), path)
	program.Env = append(slices.Clone(program.Env), "COLD_STEPS="+path)
	return program, nil
}

// openInput gives an input as a judge would: without what Windows' editors add, and to a function as its driver reads it.
// That writes the mark behind what a call prints.
func openInput(p *problem.Problem, l *toolchain.Language, d problem.Data) (file *os.File, mark string, err error) {
	source, err := d.Open()
	if err != nil {
		return nil, "", err
	}
	text, err := io.ReadAll(source)
	if err = errors.Join(err, source.Close()); err != nil {
		return nil, "", err
	}
	text = problem.Plain(text)
	if p.Kind().Calls {
		args, err := call.Arguments(p.Call, string(text), call.WideAsText(l))
		if err != nil {
			return nil, "", err
		}
		token := rand.Text()
		text, mark = call.AppendLine([]byte(call.Header(token)), args), string(call.Mark(token))
	}
	file, err = box.Memory(text)
	return file, mark, err
}

// A teller takes what a recorder says, and keeps the last steps.
type teller struct {
	options Options
	lines   []string // of the source
	mark    string   // of a driver, behind what was printed
	pending []byte
	since   time.Time // the first step
	ring    []Step
	first   int // in the ring
	total   int
	open    map[int]int // number of the last step, by depth
	depth   int         // at which the program is
	// arguments are those of a call whose first line has not run yet.
	arguments []Change
	globals   []Change // before the first line that is told
	printed   int      // lines
	shown     int      // bytes of what was printed that steps hold
	begun     bool     // From was reached, or not asked for
	closing   int      // steps until the recording ends; 0: it goes on
	done      bool
	why       string
	stop      func() // is called when nothing more is wanted; nil: nothing is
}

// Write takes a part of what a recorder says; it never fails.
func (t *teller) Write(p []byte) (int, error) {
	t.pending = append(t.pending, p...)
	for {
		line, rest, ok := bytes.Cut(t.pending, []byte("\n"))
		if !ok {
			break
		}
		t.event(string(line))
		t.pending = rest
		if most := cmp.Or(t.options.Time, MostTime); !t.done && !t.since.IsZero() && time.Since(t.since) > most {
			t.done, t.why = true, fmt.Sprintf("it was recorded for %g s; %s", most.Seconds(), narrower)
		}
		if t.done && t.stop != nil {
			t.stop()
			t.stop = nil
		}
	}
	const most = 1 << 20
	if len(t.pending) > most { // the program wrote to the descriptor by itself
		t.pending = nil
	}
	return len(p), nil
}

// narrower is what helps where a recording is too long.
const narrower = "--from LINE or --around VALUE narrow it"

var unescaper = strings.NewReplacer(`\\`, `\`, `\n`, "\n", `\t`, "\t", `\r`, "\r")

func (t *teller) event(line string) {
	if t.done || len(line) == 0 {
		return
	}
	kind, rest, _ := strings.Cut(line, " ")
	if kind != "O" && len(rest) > mostText { // no recorder says so much
		rest = rest[:mostText]
	}
	switch kind {
	case "S":
		t.step(rest)
	case "V":
		depth, rest, _ := strings.Cut(rest, " ")
		name, value, _ := strings.Cut(rest, "\t")
		value = unescaper.Replace(value)
		if d, err := strconv.Atoi(depth); err == nil && d > t.depth { // the arguments of a call that begins
			t.arguments = append(t.arguments, Change{name, value, false, t.total + 1})
		} else if s := t.at(depth); s != nil {
			s.Changes = append(s.Changes, Change{name, value, false, t.by(s)})
		}
		t.seen(name, value)
	case "G":
		name, value, _ := strings.Cut(rest, "\t")
		value = unescaper.Replace(value)
		if s := t.numbered(t.open[t.depth]); s != nil {
			s.Changes = append(s.Changes, Change{name, value, true, t.by(s)})
		} else if t.total == 0 && t.options.From > 0 { // what there is where the recording begins
			t.globals = append(t.globals, Change{name, value, true, 1})
		}
		t.seen(name, value)
	case "R":
		depth, value, _ := strings.Cut(rest, " ")
		if d, err := strconv.Atoi(depth); err == nil {
			t.depth = max(-1, d-1)
		}
		if s := t.at(depth); s != nil && value != "None" && value != "nil" && value != "" {
			s.Returned = unescaper.Replace(value)
		}
	case "X":
		_, rest, _ := strings.Cut(rest, " ")
		depth, text, _ := strings.Cut(rest, " ")
		if s := t.at(depth); s != nil {
			s.Error = unescaper.Replace(text)
		}
	case "W":
		depth, text, _ := strings.Cut(rest, " ")
		if s := t.at(depth); s != nil && s.Warning == "" {
			s.Warning = unescaper.Replace(text)
		}
	case "O":
		text := unescaper.Replace(rest)
		if t.mark != "" {
			text = strings.ReplaceAll(strings.ReplaceAll(text, t.mark, ""), t.mark[1:], "") // a recorder may drop the zero
		}
		if s := t.numbered(t.open[t.depth]); s != nil && text != "" {
			text := text[:min(len(text), mostOutput-t.shown)]
			t.shown += len(text)
			s.Output += text
			s.OutputAt = t.total
		}
		t.printed += strings.Count(text, "\n")
		if n := t.options.UntilLine; n > 0 && t.printed >= n {
			t.done, t.why = true, fmt.Sprintf("line %d was printed", n)
		}
	case "D":
		t.done, t.why = true, "its calls went too deep to be recorded, "+verdict.Count(t.depth, "level")
	case "M":
		t.done, t.why = true, "it had more steps than are recorded; "+narrower
	}
}

// by is the number of the step by which a change of a step is there: of the next one, if the line called a function.
func (t *teller) by(s *Step) int {
	if s.Number < t.total {
		return t.total + 1
	}
	return t.total
}

// seen ends the recording soon, if that is the value that was asked for.
func (t *teller) seen(name, value string) {
	if t.options.Around != "" && value == t.options.Around && t.closing == 0 {
		t.closing, t.why = afterValue, fmt.Sprintf("%s had the value %s", name, value)
	}
}

// step takes a line that is about to run.
func (t *teller) step(rest string) {
	parts := strings.SplitN(rest, " ", 3)
	if len(parts) < 3 {
		return
	}
	line, err := strconv.Atoi(parts[0])
	depth, err2 := strconv.Atoi(parts[1])
	if err != nil || err2 != nil || depth < 0 || depth > mostDepth {
		return
	}
	if native.Closes(t.lines, line) {
		t.depth = min(t.depth, depth)
		return
	}
	if t.lines != nil && line > len(t.lines) { // it was put behind the source, and its variables are not the person's
		t.depth, t.arguments = depth, nil
		delete(t.open, depth)
		return
	}
	if t.closing > 0 {
		if t.closing--; t.closing == 0 {
			t.done = true
			return
		}
	}
	if t.total++; t.since.IsZero() {
		t.since = time.Now()
	}
	if t.options.From > 0 && !t.begun {
		if line != t.options.From {
			return
		}
		t.begun = true
	}
	s := Step{Number: t.total, Line: line, Depth: depth, Function: parts[2], Changes: t.arguments, Arguments: len(t.arguments)}
	s.Begins = depth > t.depth || t.total == 1
	s.Changes = append(s.Changes, t.globals...)
	t.arguments, t.globals = nil, nil
	if len(t.ring) < kept {
		t.ring = append(t.ring, s)
	} else if t.options.From > 0 {
		t.done, t.why = true, "so many steps from that line on were recorded"
		return
	} else {
		t.ring[t.first] = s
		t.first = (t.first + 1) % kept
	}
	if t.open == nil {
		t.open = map[int]int{}
	}
	t.open[depth], t.depth = t.total, depth
}

// at is the last step of a depth, if it is still kept.
func (t *teller) at(depth string) *Step {
	d, err := strconv.Atoi(depth)
	if err != nil {
		return nil
	}
	return t.numbered(t.open[d])
}

func (t *teller) last() *Step {
	if len(t.ring) == 0 {
		return nil
	}
	return &t.ring[(t.first+len(t.ring)-1)%len(t.ring)]
}

func (t *teller) numbered(n int) *Step {
	if n == 0 || len(t.ring) == 0 {
		return nil
	}
	back := t.last().Number - n
	if back < 0 || back >= len(t.ring) {
		return nil
	}
	s := &t.ring[((t.first+len(t.ring)-1-back)%len(t.ring)+len(t.ring))%len(t.ring)]
	if s.Number != n {
		return nil
	}
	return s
}

func (t *teller) recording() *Recording {
	r := &Recording{Total: t.total, Cut: t.done, Why: t.why}
	r.Steps = slices.Concat(t.ring[t.first:], t.ring[:t.first])
	if t.mark != "" { // a driver calls the function, from further out
		least := math.MaxInt
		for _, s := range r.Steps {
			least = min(least, s.Depth)
		}
		for i := range r.Steps {
			r.Steps[i].Depth -= least
		}
	}
	return r
}

// Records reports that the steps of a problem's solutions can be recorded.
func Records(p *problem.Problem) bool {
	kind := p.Kind()
	return kind.Text || kind.Calls && len(p.Call.Given) == 0
}

// IsRecorded reports that the steps of programs in a language can be recorded.
func IsRecorded(l *toolchain.Language) bool { return l.HasStepped() || languages[l.Name].file != "" }

// recorded are the titles of the languages whose programs can be recorded, in order; other compilers of the same are left out.
func recorded(all *toolchain.Languages) (titles []string) {
	for _, name := range all.Names() {
		if l, ok := all.Find(name); ok && IsRecorded(l) && !strings.Contains(l.Title, "(") {
			titles = append(titles, l.Title)
		}
	}
	slices.Sort(titles)
	return titles
}
