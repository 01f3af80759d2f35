// Package problem turns a folder on disk into a Problem: its limits, cases,
// solutions, and how outputs are compared.
//
// Everything in the folder is optional but a source file and one case. Load
// reads it all, reports every mistake that it finds at once, each with file
// and line, and runs nothing. Large data stays on disk: a case knows where its
// input and outputs are.
//
// The package does not know which languages and comparison modes there are;
// the caller passes their names in as a Vocabulary.
package problem

import (
	"bytes"
	"cmp"
	"errors"
	"fmt"
	"io"
	"io/fs"
	"os"
	"path/filepath"
	"slices"
	"strings"
	"time"

	"coldverdict/core/settings"
	"coldverdict/core/shape"
	"coldverdict/core/verdict"

	"golang.org/x/sys/unix"
)

// The files of a problem's folder.
const (
	ConfigFile  = "verdict.toml"
	CasesFile   = "cases.md"
	CasesFolder = "cases"
	ShapeFile   = "input.shape"
)

// A Vocabulary holds the names that a problem's files may use and that belong
// to other packages.
type Vocabulary struct {
	Modes     []string // comparison modes
	AnyOrders []string // what may come in any order
	// Languages are the names that a solution may give; LimitNames those that
	// may have limits of their own.
	Languages  []string
	LimitNames []string
	// IsSource reports whether a file of this name can be built and run.
	IsSource func(name string) bool
	// Absolute and Relative are the errors that are allowed where numbers are compared and nothing is said;
	// both 0: 1e-6.
	Absolute, Relative float64
	// Adding says that cases are about to be added, so that a group of verdict.toml may have none yet.
	Adding bool
}

// A Problem is a folder, read.
type Problem struct {
	Dir     string // absolute
	Title   string // as set, or the folder's name
	Limits  Limits
	Compare Comparison
	Rules   []GroupRule // the [[group]] tables of verdict.toml, in its order
	Talk    Talk        // an interactive problem's interactor
	Make    Make        // what makes inputs, beside the shape
	Draw    Draw        // what an answer points at in a picture of the input
	Parts   []string    // groups that are the questions asked about each input, in their order; empty: there is one
	// PartArgument says that a source is told the part by an argument, its name.
	PartArgument bool

	words     Vocabulary // that it was read with
	Files     Files
	Same      []Same       // changes of an input that do not change its answer
	Judge     Judge        // what the judge wants that solutions are handed in to
	Call      *Call        // the function of a function problem; nil: solutions are whole programs
	Shape     *shape.Shape // of the input, as input.shape says; nil: there is none
	Solutions []Solution   // those that verdict.toml names, in its order
	Cases     []Case       // in case order: group by group, in the order in which groups first appear
	Sources   []string     // names of source files in the folder, in natural order
	Notes     []string     // what was left out, in words
}

// Name returns the name of the problem's folder.
func (p *Problem) Name() string { return filepath.Base(p.Dir) }

// Limits are what verdict.toml sets. Zero values were not set.
type Limits struct {
	General  verdict.Limits
	Language map[string]verdict.Limits // by the language's name
	Checker  verdict.Limits            // of checkers and of the interactor of interactive problems
}

// Defaults hold where nothing was set. The wall-clock limit follows the time.
var Defaults = verdict.Limits{
	Time: 2 * time.Second, Memory: 256 << 20, Output: 64 << 20, Processes: 2048,
}

// CheckerDefaults hold for checkers, and for the interactor of interactive
// problems, where nothing was set. The wall-clock limit follows the time.
var CheckerDefaults = verdict.Limits{
	Time: 10 * time.Second, Memory: 1 << 30, Output: 64 << 20, Processes: 2048,
}

// OfChecker returns the limits of a checker.
func (l Limits) OfChecker() verdict.Limits {
	limits, d := l.Checker, CheckerDefaults
	limits.Time = cmp.Or(limits.Time, d.Time)
	limits.Wall = cmp.Or(limits.Wall, DefaultWall(limits.Time))
	limits.Memory = cmp.Or(limits.Memory, d.Memory)
	limits.Output = cmp.Or(limits.Output, d.Output)
	limits.Processes = cmp.Or(limits.Processes, d.Processes)
	return limits
}

// DefaultWall is the wall-clock limit where only the processor time was set.
func DefaultWall(limit time.Duration) time.Duration { return 2*limit + time.Second }

// For returns the limits for a solution in a language, which may have several
// names, the last above the others, with those of above, in their order, above
// all, and which of them nobody set.
func (l Limits) For(languages []string, above ...verdict.Limits) (limits, unset verdict.Limits) {
	layers := []verdict.Limits{l.General}
	for _, name := range languages {
		layers = append(layers, l.Language[name])
	}
	wall := time.Duration(0)
	for _, layer := range append(layers, above...) {
		if layer.Time > 0 {
			limits.Time = layer.Time
			// A longer time must not be cut off by a wall set for a shorter one.
			if wall > 0 && layer.Wall == 0 {
				wall = max(wall, DefaultWall(layer.Time))
			}
		}
		if layer.Wall > 0 {
			wall = layer.Wall
		}
		limits.Memory = cmp.Or(layer.Memory, limits.Memory)
		limits.Output = cmp.Or(layer.Output, limits.Output)
		limits.Processes = cmp.Or(layer.Processes, limits.Processes)
	}
	limits.Wall = wall
	orDefault(&limits.Time, &unset.Time, Defaults.Time)
	orDefault(&limits.Wall, &unset.Wall, DefaultWall(limits.Time))
	orDefault(&limits.Memory, &unset.Memory, Defaults.Memory)
	orDefault(&limits.Output, &unset.Output, Defaults.Output)
	orDefault(&limits.Processes, &unset.Processes, Defaults.Processes)
	return limits, unset
}

// orDefault gives a limit that nobody set its default, and notes that in unset.
func orDefault[T time.Duration | int64 | int](limit, unset *T, usual T) {
	if *limit == 0 {
		*limit, *unset = usual, usual
	}
}

// A Comparison says how outputs are compared with what was expected.
type Comparison struct {
	Mode       string // empty: lines
	Absolute   float64
	Relative   float64
	IgnoreCase bool
	AnyOrder   string
	// Script and Program are checkers of a person's own, at most one of them:
	// a file, relative to the problem's folder or absolute. Then nothing above
	// counts.
	Script, Program string
}

// Custom reports whether a checker of a person's own decides.
func (c Comparison) Custom() bool { return c.Script != "" || c.Program != "" }

// Talk is the interactor of an interactive problem: a script or a program, at
// most one of them; the problem is not interactive without.
type Talk struct{ Script, Program string }

// Make is what makes inputs that no shape describes: a script or a program, at most
// one of them.
type Make struct{ Script, Program string }

// Draw says what an answer points at in a picture of its input: in one of the ways of package picture, or as a script
// says; empty: nothing.
type Draw struct{ Answer, Script string }

// Files name what a solution reads and writes in its working folder in place of
// standard input and standard output. Empty: it uses those.
type Files struct{ Input, Output string }

// A Same is a [[same]] of verdict.toml: a change of an input that must not change its answer. One of
// its fields is set.
type Same struct {
	Permute string // the name of an array, whose elements may come in any order
	Relabel string // the name of a tree or a graph, whose vertices may have other numbers
	line    int
}

func (s Same) String() string {
	if s.Permute != "" {
		return "the elements of " + s.Permute + " in another order"
	}
	return "other numbers for the vertices of " + s.Relabel
}

// The roles of a solution.
const (
	Candidate = "candidate"
	Reference = "reference"
)

// A Solution is an entry of verdict.toml, or a source file that was named in
// another way.
type Solution struct {
	File     string   // relative to the problem's folder, or absolute
	Role     string   // Candidate or Reference
	Expect   string   // the verdict it must get, in full words; empty: not said
	Args     []string // command-line arguments
	Groups   []string // runs these groups only; empty: all
	Part     string   // what it prints has the answers of all parts, and that of this one counts; empty: all counts
	Also     string   // a group that was generated, which it runs beside those; empty: none
	Language string   // where the extension does not say enough
	Line     int      // in verdict.toml; 0 if it does not stand there
	ByName   bool     // it is what its name says, and verdict.toml nothing
}

// Met reports whether the solution may get a verdict: the one that it must get, and
// accepted where nothing is said.
func (s Solution) Met(got verdict.Verdict) bool {
	return got.String() == s.Expect || s.Expect == "" && got == verdict.Accepted
}

// Runs reports whether the solution runs the cases of a group.
func (s Solution) Runs(group string) bool {
	return len(s.Groups) == 0 || slices.Contains(s.Groups, group) || s.Also != "" && s.Also == group
}

// AnswersWith reports whether two solutions may answer the same question: where each is for
// groups of its own and none of them is the other's, they answer different parts of the problem.
func (s Solution) AnswersWith(other Solution) bool {
	return len(s.Groups) == 0 || len(other.Groups) == 0 ||
		slices.ContainsFunc(s.Groups, func(group string) bool { return slices.Contains(other.Groups, group) })
}

// A Case is one input with the outputs that are accepted for it.
type Case struct {
	Name     string // "group/name"
	Group    string // lower case with hyphens
	Reason   string // why the case exists; may be empty
	Input    Data
	Accepted []Data // empty: the answer is not known yet
	// Compare says how its outputs are compared: as its own table in
	// verdict.toml says, its group's, or the problem's.
	Compare Comparison
	Trials  []Trial // answers to try the checker on
	// Raises says that a function must fail on it: with an exception that has these words, or is of this
	// kind; empty words: with any. Nil: it must return.
	Raises *string
	// Kept says that the first accepted output is what a solution printed, and
	// which and when: "kept on 2026-11-23: brute.py printed it". Empty: it is
	// known from elsewhere.
	Kept    string
	Refused []Refused // answers known to be wrong
	// Unsure says that the sample was taken with doubt from a page, and has to be compared with the statement.
	Unsure bool
	Sealed bool   // nothing of it is shown but its verdict, its time and its points
	Where  string // "cases.md:12" or "cases/1.in"
}

// What may be known of the answer that is sought, compared with a refused one.
const (
	SoughtLarger  = "sought-larger"
	SoughtSmaller = "sought-smaller"
)

// A Refused is an answer that is known to be wrong.
type Refused struct {
	Answer Data
	Sought string // SoughtLarger, SoughtSmaller, or empty: not known
}

// SoughtWords says what is known of the answer that is sought: "the answer sought is larger";
// empty: nothing is.
func (r Refused) SoughtWords() string {
	if r.Sought == "" {
		return ""
	}
	return "the answer sought is " + strings.TrimPrefix(r.Sought, "sought-")
}

// A Trial is an answer of which a person knows what the checker must say.
type Trial struct {
	Answer Data
	Accept bool // it must accept, and otherwise reject
	Line   int  // of the block
}

// Data is a text in memory or in a file.
type Data struct {
	Text []byte // used if Path is empty
	Path string // absolute
	Size int64  // bytes
	// Sealed says that nobody is shown what it holds.
	Sealed bool
}

// Open returns the data for reading from its start.
func (d Data) Open() (io.ReadCloser, error) {
	if d.Path != "" {
		return os.Open(d.Path)
	}
	return io.NopCloser(bytes.NewReader(d.Text)), nil
}

// Head returns at most the first n bytes.
func (d Data) Head(n int64) ([]byte, error) {
	file, err := d.Open()
	if err != nil {
		return nil, err
	}
	defer file.Close()
	return io.ReadAll(io.LimitReader(file, n))
}

// A Mistake is something wrong in a person's files.
type Mistake struct {
	File string // as the person would name it, relative to the problem's folder
	Line int    // 0 where it is the file itself
	Text string // what is wrong and what to do, in lower case
}

func (m Mistake) Error() string {
	if m.Line == 0 {
		return m.File + ": " + m.Text
	}
	return fmt.Sprintf("%s:%d: %s", m.File, m.Line, m.Text)
}

// Mistakes are all mistakes of a folder, in the order of files and lines.
type Mistakes []Mistake

func (m Mistakes) Error() string {
	lines := make([]string, len(m))
	for i, one := range m {
		lines[i] = one.Error()
	}
	return strings.Join(lines, "\n")
}

// loader collects what is found in one folder.
type loader struct {
	words    Vocabulary
	problem  *Problem
	mistakes Mistakes
	cases    []caseRule // the [[case]] tables of verdict.toml
	// brokenCall says that [call] was at fault, so that nothing is known of the
	// types.
	brokenCall bool
}

func (l *loader) wrong(file string, line int, format string, args ...any) {
	l.mistakes = append(l.mistakes, Mistake{file, line, fmt.Sprintf(format, args...)})
}

// Load reads the problem in dir. Its error is a Mistakes if the files are at
// fault.
func Load(dir string, words Vocabulary) (*Problem, error) {
	dir, err := filepath.Abs(dir)
	if err != nil {
		return nil, err
	}
	entries, err := os.ReadDir(dir)
	if err != nil {
		return nil, Mistakes{folderMistake(dir, err)}
	}
	removeLeft(dir, entries)
	l := &loader{words: words, problem: &Problem{Dir: dir, Title: filepath.Base(dir), words: words}}
	if !holdsProblem(entries, words) {
		return nil, Mistakes{{File: dir, Text: "is not a problem's folder: it holds no verdict.toml, no cases.md, no cases/, no input.shape, no NAME.in and no source file; 'cold open NAME' makes one"}}
	}
	l.config()
	l.shape()
	l.casesFile()
	l.casesFolder()
	l.beside(entries)
	l.arrange()
	l.checkGroups()
	l.settle()
	l.seal()
	l.checkRefused()
	l.hideSealed()
	if len(l.mistakes) > 0 {
		return nil, l.mistakes
	}
	return l.problem, nil
}

// Unread returns the problem in dir as if nothing were in it, for what must be
// done where it cannot be read.
func Unread(dir string) (*Problem, error) {
	dir, err := filepath.Abs(dir)
	return &Problem{Dir: dir}, err
}

func folderMistake(dir string, err error) Mistake {
	switch {
	case errors.Is(err, fs.ErrNotExist):
		return Mistake{File: dir, Text: "there is no such folder; 'cold open NAME' makes one"}
	case errors.Is(err, unix.ENOTDIR):
		return Mistake{File: dir, Text: "is a file; a problem's folder was expected"}
	case errors.Is(err, fs.ErrPermission):
		return Mistake{File: dir, Text: "may not be read by you"}
	}
	return Mistake{File: dir, Text: err.Error()}
}

// IsFolder reports whether dir holds anything that makes it a problem's folder.
func IsFolder(dir string, words Vocabulary) bool {
	entries, err := os.ReadDir(dir)
	return err == nil && holdsProblem(entries, words)
}

func holdsProblem(entries []fs.DirEntry, words Vocabulary) bool {
	return slices.ContainsFunc(entries, func(e fs.DirEntry) bool {
		name := e.Name()
		return name == ConfigFile || name == CasesFile || name == CasesFolder || name == ShapeFile ||
			strings.HasSuffix(name, ".in") || words.IsSource(name)
	})
}

// read reads one of the problem's own files; a file that is not there is no
// mistake.
func (l *loader) read(name string, most int64, toDo string) (text []byte, ok bool) {
	path := filepath.Join(l.problem.Dir, name)
	info, err := os.Stat(path)
	if errors.Is(err, fs.ErrNotExist) {
		return nil, false
	}
	if err == nil && !info.Mode().IsRegular() {
		l.wrong(name, 0, "is %s; a file was expected", kind(info))
		return nil, false
	}
	if err == nil && info.Size() > most {
		l.wrong(name, 0, "has %d MB, more than the %d MB that it may have; %s", info.Size()/1e6, most/1e6, toDo)
		return nil, false
	}
	if err == nil {
		text, err = os.ReadFile(path)
	}
	if err != nil {
		l.wrong(name, 0, "cannot be read: %v", plainError(err))
		return nil, false
	}
	return Plain(text), true
}

// ByteOrderMark is what some editors put before the first line.
const ByteOrderMark = "\ufeff"

// Plain takes away what Windows editors add: a byte-order mark, and carriage
// returns before line ends.
func Plain(text []byte) []byte {
	text = bytes.TrimPrefix(text, []byte(ByteOrderMark))
	return bytes.ReplaceAll(text, []byte("\r\n"), []byte("\n"))
}

func kind(info fs.FileInfo) string {
	if info.IsDir() {
		return "a folder"
	}
	return "no plain file"
}

// plainError leaves out the path, which the message has already.
func plainError(err error) error {
	if path, ok := errors.AsType[*fs.PathError](err); ok {
		return path.Err
	}
	return err
}

// arrange brings the cases into case order and looks for names that two have
// in common.
func (l *loader) arrange() {
	cases := l.problem.Cases
	order := map[string]int{}
	for _, c := range cases {
		if _, ok := order[c.Group]; !ok {
			order[c.Group] = len(order)
		}
	}
	slices.SortStableFunc(cases, func(a, b Case) int { return order[a.Group] - order[b.Group] })
	first := make(map[string]string, len(cases))
	for _, c := range cases {
		if where, ok := first[c.Name]; ok {
			file, line := splitWhere(c.Where)
			l.wrong(file, line, "there are two cases named %q; the other is at %s; rename one", c.Name, where)
			continue
		}
		first[c.Name] = c.Where
	}
}

// checkGroups looks for groups that solutions name and that no case has.
func (l *loader) checkGroups() {
	groups := l.problem.Groups()
	for _, s := range l.problem.Solutions {
		for _, name := range s.Groups {
			if len(groups) > 0 && !slices.Contains(groups, name) {
				l.wrong(ConfigFile, s.Line, "%s is to run the group %q, which no case has; %s", s.File, name, settings.Nearest(name, groups))
			}
		}
	}
}

func splitWhere(where string) (file string, line int) {
	file, number, ok := strings.Cut(where, ":")
	if ok {
		fmt.Sscan(number, &line)
	}
	return file, line
}

// Groups returns the groups of the problem's cases, in case order.
func (p *Problem) Groups() []string { return GroupsOf(p.Cases) }

// GroupsOf returns the groups of cases, in their order.
func GroupsOf(cases []Case) (names []string) {
	for _, c := range cases {
		if len(names) == 0 || names[len(names)-1] != c.Group {
			names = append(names, c.Group)
		}
	}
	return names
}
