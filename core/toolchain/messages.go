package toolchain

import (
	"fmt"
	"path"
	"regexp"
	"slices"
	"strconv"
	"strings"

	"coldverdict/internal/lazy"
)

// A Reading is what the words of a compiler or a runtime say.
type Reading struct {
	Message string // "ZeroDivisionError: division by zero"; empty: none was found
	Line    int    // in the person's own file; 0: not told
	Kinds   []string
}

// The kinds of failure that an entry's words can tell apart.
const (
	KindMemory   = "memory"   // no more memory was to be had
	KindCompile  = "compile"  // a source that was found wrong only when it ran
	KindStack    = "stack"    // too deep a recursion
	KindEnd      = "end"      // read past the end of the input
	KindDivision = "division" // an integer divided by zero
	KindIndex    = "index"
	KindAbsent   = "absent" // null, None or nil used
	KindNumber   = "number" // a text that is none
	KindKey      = "key"
	KindMain     = "main" // nothing to start
	KindVersion  = "version"
)

// kinds are the kinds, in the order in which they are looked for, and what is
// said of each.
var kinds = []struct{ name, words string }{
	{KindMemory, ""},
	{KindCompile, ""},
	{KindStack, "the recursion went too deep (stack overflow)"},
	{KindEnd, "the program read past the end of the input"},
	{KindDivision, "an integer was divided by zero"},
	{KindIndex, "an index is out of range"},
	{KindAbsent, "something was used that is not there (null, None, nil)"},
	{KindNumber, "a text that is no number was read as one"},
	{KindKey, "a key was looked up that is not there"},
	{KindMain, "nothing was found to start: no main"},
	{KindVersion, "this was written for another version of the language"},
}

// Has reports whether the words told of a kind.
func (r Reading) Has(kind string) bool {
	return slices.Contains(r.Kinds, kind)
}

// String is the message behind its line, as far as they are known.
func (r Reading) String() string {
	switch {
	case r.Line > 0 && r.Message != "":
		return fmt.Sprintf("line %d: %s", r.Line, r.Message)
	case r.Line > 0:
		return fmt.Sprintf("line %d", r.Line)
	}
	return r.Message
}

// Words says what a kind of failure means, and what to do about it in this
// language; empty for a kind that the verdict tells.
func (l *Language) Words(kind string) string {
	words := ""
	for _, k := range kinds {
		if k.name == kind {
			words = k.words
		}
	}
	if advice := l.Advice[kind]; advice != "" && words != "" {
		words += ": " + advice
	}
	return words
}

// Explain says what the kinds of a failure mean.
func (b Build) Explain(r Reading) (words []string) {
	for _, kind := range r.Kinds {
		if one := b.Language.Words(kind); one != "" {
			words = append(words, one)
		}
	}
	return words
}

// Read finds in the words of the compiler, or of the runtime, the line of the
// person's own file, the message, and what kind of failure they tell. Of a
// program that did not fail they tell nothing.
func (b Build) Read(text string, failed bool) (r Reading) {
	if !failed || text == "" {
		return r
	}
	if text == b.Log {
		r.Line, r.Message = b.firstOwn()
	}
	for _, kind := range kinds {
		if slices.ContainsFunc(b.Language.Says[kind.name], func(p Pattern) bool { return p.matches(text) }) {
			r.Kinds = append(r.Kinds, kind.name)
		}
	}
	for _, pattern := range b.Language.Errors {
		if r.Line > 0 && r.Message != "" {
			break
		}
		b.readOne(pattern.compiled(), text, &r)
	}
	return r
}

// uncaught is how the library of C++ says that an exception was. What it was comes first, since
// a line has little room.
var uncaught = lazy.New(`^terminate called after throwing an instance of '(.+?)'(?:\s+what\(\)(:\s+.*))?$`)

// readOne fills in what one pattern finds and is not known yet.
func (b Build) readOne(pattern *regexp.Regexp, text string, r *Reading) {
	file, line, message := pattern.SubexpIndex("file"), pattern.SubexpIndex("line"), pattern.SubexpIndex("message")
	group := func(m []string, i int) string {
		if i < 0 {
			return ""
		}
		return strings.TrimSpace(m[i])
	}
	all := pattern.FindAllStringSubmatch(text, mostMatches)
	if b.Language.Innermost == "last" {
		slices.Reverse(all)
	}
	elsewhere := ""
	for _, m := range all {
		name, words := group(m, file), uncaught().ReplaceAllString(oneLine(group(m, message)), "uncaught $1$2")
		if name != "" && !b.own(name) {
			_, around := b.wrapping.Files[path.Base(name)]
			switch {
			case elsewhere != "" || words == "":
			case around: // the person knows neither the file nor its lines
				elsewhere = strings.TrimPrefix(words, "static assertion failed: ")
			default:
				elsewhere = fmt.Sprintf("%s:%s: %s", path.Base(name), group(m, line), words)
			}
			continue
		}
		number, err := strconv.Atoi(group(m, line))
		if err == nil && b.ownLines > 0 && number > b.ownLines {
			continue // in what was put around the source
		}
		if err == nil && r.Line == 0 {
			r.Line = number
		}
		if words != "" && r.Message == "" {
			r.Message = words
		}
		return
	}
	if r.Message == "" {
		r.Message = elsewhere
	}
}

// mostMatches bounds how many places of a trace are looked at.
const mostMatches = 10000

// own reports whether a file that was named is the person's own, or what a
// compiler to JavaScript made of it.
func (b Build) own(name string) bool {
	base := path.Base(name)
	return base == b.File || base == path.Base(b.Source) || base == stem(b.File)+".js"
}

// oneLine joins the lines of a message.
func oneLine(text string) string { return strings.Join(strings.Fields(text), " ") }

// FirstError returns what a compiler said from its first error on: what stands
// before it, warnings mostly, comes behind. Of errors in a library that lines of the person's
// own led to, those lines come first.
func (b Build) FirstError() string {
	if own := b.ownFirst(); own != "" {
		return own
	}
	lines := strings.SplitAfter(b.Log, "\n")
	first := slices.IndexFunc(lines, func(line string) bool {
		return slices.ContainsFunc(b.Language.Errors, func(p Pattern) bool { return p.matches(strings.TrimSuffix(line, "\n")) })
	})
	// The lines above that lead to it belong to it.
	for first > 0 && lead().MatchString(lines[first-1]) {
		first--
	}
	if first <= 0 {
		return b.Log
	}
	rest, before := strings.Join(lines[first:], ""), strings.Join(lines[:first], "")
	return strings.TrimSuffix(rest, "\n") + "\n\n" + strings.TrimSuffix(before, "\n")
}

var lead = lazy.New(`: (?:In |At )|^In file included|^\s+from |required from|^\s+File "`)

// NotesOn returns what a judge may have against a source that runs here.
func (l *Language) NotesOn(source []byte) (said []string) {
	for _, n := range l.Notes {
		if n.Match.matches(string(source)) {
			said = append(said, n.Say)
		}
	}
	return said
}

// ReadsSlowly returns what to do where a source reads its input in a way that
// takes more than a quarter of so many seconds; empty: it does not.
func (l *Language) ReadsSlowly(source []byte, size int64, seconds float64) string {
	s := l.Slow
	if float64(size)/s.Speed < seconds/4 || !s.Match.matches(string(source)) || s.Unless.matches(string(source)) {
		return ""
	}
	return fmt.Sprintf("to read %.0f MB in this way takes a large part of the time: %s", float64(size)/1e6, s.Say)
}

// OwnPaths takes out of a text the folder of a build, and the folders that
// builds are made in, which stand before the names of files, and gives the source the
// name that its owner knows.
func (k *Kit) OwnPaths(text string, b *Build) string {
	text = strings.ReplaceAll(text, b.Dir+"/", "")
	inside := k.dir + "/" + stageName
	for {
		before, after, found := strings.Cut(text, inside)
		if !found {
			return b.OwnName(text)
		}
		_, rest, _ := strings.Cut(after, "/")
		text = before + rest
	}
}
