// Package script runs what a person writes in Starlark: checkers, the interactor
// of interactive problems, what makes inputs, and what says whether they are valid.
//
// Starlark is https://github.com/google/starlark-go/blob/master/doc/spec.md,
// with recursion, while, sets and integers of any size. A script cannot reach
// files, the network or the clock. It runs in a process of its own, which is
// this same binary started again, so that a box holds its time and memory as it
// holds those of any program; see Decide, Talk and Make. A program that uses these
// must call Main first thing in main. A Predicate alone runs in this process, within
// a number of steps.
//
// Such a process says its decision in one line, as checkers in other languages
// do: "accept", "reject WHY" or "share 0.4 WHY". It ends with exit status 1,
// and with file, line and what is wrong on standard error, if the script failed.
package script

import (
	"errors"
	"fmt"
	"io"
	"os"
	"path/filepath"
	"strconv"
	"strings"

	"go.starlark.net/lib/math"
	"go.starlark.net/resolve"
	"go.starlark.net/starlark"
	"go.starlark.net/syntax"

	"coldverdict/core/box"
	"coldverdict/core/shape"
	_ "coldverdict/internal/quiet" // before Starlark: it logs
)

// marker is the first argument of this binary when it is started to run a
// script. It is followed by what the script does, the script, and its data.
const marker = "cold-script"

// The things that scripts do.
const (
	decides = "decide"
	talks   = "talk"
	makes   = "make"
	holds   = "holds"
	marks   = "mark"
)

// The names of the files that a checker finds in its folder.
const (
	InputFile    = "input"
	GotFile      = "got"
	ExpectedFile = "expected"
)

// DecisionFD is the descriptor on which the interactor of an interactive
// problem says its decision.
const DecisionFD = 3

// mostSteps bounds a script, so that a loop without an end ends alike on every
// machine.
const mostSteps = 300_000_000

// Decide returns the program that runs a checker on the files of a folder, and
// says its decision on standard output. Both paths are absolute.
func Decide(script, folder string) (box.Program, error) { return program(decides, script, folder) }

// Talk returns the program that is the interactor of an interactive problem
// for an input, over standard input and output, and says its decision on
// DecisionFD.
func Talk(script, input string) (box.Program, error) { return program(talks, script, input) }

// Make returns the program that makes an input and writes it on standard output.
func Make(script string, seed shape.Seed, size shape.Size) (box.Program, error) {
	return program(makes, script, seed.String()+" "+size.String())
}

func program(does, script, data string) (box.Program, error) {
	self, err := os.Executable()
	if err != nil {
		return box.Program{}, fmt.Errorf("cannot run scripts: %w", err)
	}
	return box.Program{
		Path: self, Args: []string{marker, does, script, data},
		Env:   []string{"GOMAXPROCS=2"}, // the script itself is one thread
		Reads: []string{self, filepath.Dir(script)},
	}, nil
}

// Main runs a script and never returns, if this process was started for that.
func Main() {
	if len(os.Args) != 5 || os.Args[1] != marker {
		return
	}
	if err := serve(os.Args[2], os.Args[3], os.Args[4]); err != nil {
		fmt.Fprintln(os.Stderr, err)
		os.Exit(1)
	}
	os.Exit(0)
}

func serve(does, script, data string) error {
	switch does {
	case makes:
		return makeInput(script, data, os.Stdout)
	case talks:
		return talk(script, data, os.Stdin, os.Stdout, os.NewFile(DecisionFD, "decision"))
	}
	return decide(script, data, os.Stdout)
}

// A Role is what a script is for.
type Role string

// The roles.
const (
	Decides Role = decides
	Talks   Role = talks
	Makes   Role = makes
	Holds   Role = holds
	Marks   Role = marks
)

// Check reports what is wrong with a script before it is run: a mistake of
// syntax, a name that there is not, or that it does not define what it is
// for. The error names file and line.
func Check(path string, role Role) error {
	_, err := parsed(path, role)
	return err
}

// NeedsExpected reports whether a checker looks at the expected output, as far as
// its third parameter stands anywhere in it. A script that cannot be read needs it.
func NeedsExpected(path string) bool {
	def, err := parsed(path, Decides)
	if err != nil || len(def.Params) < 3 {
		return true
	}
	expected, ok := def.Params[2].(*syntax.Ident)
	if !ok {
		return true
	}
	found := false
	for _, statement := range def.Body {
		syntax.Walk(statement, func(n syntax.Node) bool {
			if id, ok := n.(*syntax.Ident); ok && id.Name == expected.Name {
				found = true
			}
			return !found
		})
	}
	return found
}

// parsed returns the function that a script is for.
func parsed(path string, role Role) (*syntax.DefStmt, error) {
	does, known := string(role), forDecide
	switch role {
	case Talks:
		known = forTalk(nil)
	case Makes, Holds, Marks:
		known = forMake
	}
	text, err := os.ReadFile(path)
	if err != nil {
		return nil, err
	}
	file, _, err := starlark.SourceProgramOptions(options, filepath.Base(path), text, known.Has)
	if err != nil {
		return nil, plain(err)
	}
	for _, statement := range file.Stmts {
		if def, ok := statement.(*syntax.DefStmt); ok && def.Name.Name == does {
			return def, nil
		}
	}
	return nil, missing(filepath.Base(path), does)
}

func missing(name, does string) error {
	return fmt.Errorf("%s defines no %s; write def %s", name, does, signatures[does])
}

var signatures = map[string]string{
	decides: "decide(case, got, expected):",
	talks:   "talk(case, say, hear):",
	makes:   "make(rng, size):",
	holds:   "holds(input):",
	marks:   "mark(input, answer):",
}

var options = &syntax.FileOptions{Set: true, While: true, TopLevelControl: true, GlobalReassign: true, Recursion: true}

// call runs a script, and then its function of the given name, which decides.
func call(path, name string, known starlark.StringDict, args starlark.Tuple) (decision, error) {
	value, at, err := run(path, name, known, args)
	var rejected rejection
	switch {
	case errors.As(err, &rejected):
		return decision{"reject", string(rejected), 0}, nil
	case err != nil:
		return decision{}, plain(err)
	}
	d, ok := value.(decision)
	if !ok {
		return decision{}, fmt.Errorf("%s: %s returned %s; it must return accept(), reject(\"why\") or share(0.4, \"why\")", at, name, short(value))
	}
	return d, nil
}

// run runs a script, and then its function of the given name, and returns what that
// returned and where it stands.
func run(path, name string, known starlark.StringDict, args starlark.Tuple) (value starlark.Value, at syntax.Position, err error) {
	thread := bounded(filepath.Base(path), mostSteps)
	text, err := os.ReadFile(path)
	if err != nil {
		return nil, at, err
	}
	globals, err := starlark.ExecFileOptions(options, thread, filepath.Base(path), text, known)
	if err != nil {
		return nil, at, plain(err)
	}
	function, ok := globals[name].(*starlark.Function)
	if !ok {
		return nil, at, missing(filepath.Base(path), name)
	}
	value, err = starlark.Call(thread, function, args, nil)
	return value, function.Position(), err
}

// bounded is a thread for a script that may take so many steps.
func bounded(name string, steps uint64) *starlark.Thread {
	thread := &starlark.Thread{
		Name:  name,
		Print: func(_ *starlark.Thread, words string) { fmt.Fprintln(os.Stderr, words) },
	}
	thread.SetMaxExecutionSteps(steps)
	thread.OnMaxSteps = func(t *starlark.Thread) {
		t.Cancel(fmt.Sprintf("passed %d steps; does a loop have no end?", steps))
	}
	return thread
}

// plain words an error of a script with the place in it that is at fault.
func plain(err error) error {
	var failed *starlark.EvalError
	var list resolve.ErrorList
	switch {
	case errors.As(err, &list) && len(list) > 0:
		return list[0]
	case !errors.As(err, &failed):
		return err
	}
	words := strings.TrimPrefix(failed.Msg, "Starlark computation cancelled: ")
	for i := range failed.CallStack {
		if frame := failed.CallStack.At(i); frame.Pos.Line > 0 {
			return fmt.Errorf("%s: in %s: %s", frame.Pos, frame.Name, words)
		}
	}
	return errors.New(words)
}

// rejection is the error with which a function of ours ends a script, since
// what the candidate printed is wrong.
type rejection string

func (r rejection) Error() string { return string(r) }

// A decision is what accept, reject and share return.
type decision struct {
	word  string
	why   string
	share float64
}

func (d decision) String() string        { return d.word + "(…)" }
func (d decision) Type() string          { return "decision" }
func (d decision) Freeze()               {}
func (d decision) Truth() starlark.Bool  { return true }
func (d decision) Hash() (uint32, error) { return 0, errors.New("a decision cannot be a key") }

// write says the decision in one line.
func (d decision) write(w io.Writer) error {
	line := d.word
	if d.word == "share" {
		line += " " + strconv.FormatFloat(d.share, 'g', -1, 64)
	}
	if why := strings.Join(strings.Fields(d.why), " "); why != "" {
		line += " " + why
	}
	_, err := fmt.Fprintln(w, line)
	return err
}

// forDecide are the names that a checker knows beside the language's own.
var forDecide = starlark.StringDict{
	"accept": builtin("accept", func(args starlark.Tuple, named []starlark.Tuple) (starlark.Value, error) {
		return decision{word: "accept"}, starlark.UnpackArgs("accept", args, named)
	}),
	"reject": builtin("reject", func(args starlark.Tuple, named []starlark.Tuple) (starlark.Value, error) {
		d := decision{word: "reject"}
		err := starlark.UnpackArgs("reject", args, named, "why", &d.why)
		return d, err
	}),
	"share": builtin("share", func(args starlark.Tuple, named []starlark.Tuple) (starlark.Value, error) {
		d := decision{word: "share"}
		var part starlark.Value
		if err := starlark.UnpackArgs("share", args, named, "part", &part, "why?", &d.why); err != nil {
			return nil, err
		}
		var ok bool
		if d.share, ok = starlark.AsFloat(part); !ok || !(d.share >= 0 && d.share <= 1) {
			return nil, fmt.Errorf("share(%s): the part must be a number from 0 to 1", short(part))
		}
		return d, nil
	}),
	"integer": builtin("integer", func(args starlark.Tuple, named []starlark.Tuple) (starlark.Value, error) {
		var word string
		if err := starlark.UnpackArgs("integer", args, named, "word", &word); err != nil {
			return nil, err
		}
		n, ok := parseInteger(word)
		if !ok {
			return nil, rejection(fmt.Sprintf("%s is no integer", quote(word)))
		}
		return n, nil
	}),
	"real": builtin("real", func(args starlark.Tuple, named []starlark.Tuple) (starlark.Value, error) {
		var word string
		if err := starlark.UnpackArgs("real", args, named, "word", &word); err != nil {
			return nil, err
		}
		x, ok := parseReal(word)
		if !ok {
			return nil, rejection(fmt.Sprintf("%s is no number", quote(word)))
		}
		return x, nil
	}),
	"math": math.Module,
}

// builtin makes a function of ours, without the parts that none of them uses.
func builtin(name string, do func(args starlark.Tuple, named []starlark.Tuple) (starlark.Value, error)) *starlark.Builtin {
	return starlark.NewBuiltin(name, func(_ *starlark.Thread, _ *starlark.Builtin, args starlark.Tuple, named []starlark.Tuple) (starlark.Value, error) {
		return do(args, named)
	})
}

// short shows a value in a message.
func short(v starlark.Value) string { return cut(v.String()) }

func quote(word string) string { return strconv.Quote(cut(word)) }

// cut bounds what a message shows of a text.
func cut(text string) string {
	const most = 40
	if runes := []rune(text[:min(len(text), 8*most)]); len(runes) > most || len(text) > 8*most {
		return string(runes[:min(len(runes), most)]) + "…"
	}
	return text
}
