// Package grade judges what a class hands in: many people, each with a source or several, on the cases of one
// problem. It says what everyone reached, which case failed for how many, and which sources are the same but for
// names and spacing.
//
// Every source is judged in a folder of its own, so that no build finds what others handed in.
package grade

import (
	"bytes"
	"cmp"
	"fmt"
	"io/fs"
	"os"
	"path/filepath"
	"regexp"
	"slices"
	"strings"
	"time"

	"github.com/maruel/natural"

	"coldverdict/internal/lazy"
)

// A Person is who handed something in, or should have.
type Person struct {
	Name  string
	Tries []Try // in the order in which they were saved
	// Lacks says why there is nothing to judge; empty where there is a try.
	Lacks string
}

// A Try is one source that somebody handed in.
type Try struct {
	Path string // of the source
	Name string // as the folder of all shows it: "anna/bags.py"
	// Beside are the other files of the person's folder; empty: the source stands alone.
	Beside []string
	Saved  time.Time
}

// Bounds of what is read.
const (
	MostPeople  = 5000
	mostFiles   = 200     // of one person
	largestFile = 4 << 20 // of a hand-in, bytes
)

// A MistakeError says what is wrong with a folder of hand-ins.
type MistakeError struct{ Text string }

func (e *MistakeError) Error() string { return e.Text }

// Read reads a folder of hand-ins: a file is that of a person who is called like it, a folder holds the files of a
// person. isSource says which files can be judged, by their names. Of the people of the roster, those who handed
// nothing in are listed, too; it may be nil. Left are the names of files that belong to nobody.
func Read(folder string, isSource func(string) bool, roster []string) (people []Person, left []string, err error) {
	entries, err := os.ReadDir(folder)
	if err != nil {
		return nil, nil, &MistakeError{fmt.Sprintf("%s cannot be read: %v", folder, plainError(err))}
	}
	found := map[string]*Person{}
	person := func(name string) *Person {
		if found[name] == nil {
			found[name] = &Person{Name: name}
		}
		return found[name]
	}
	var files []string
	for _, e := range entries {
		name := e.Name()
		if strings.HasPrefix(name, ".") || name == "__MACOSX" {
			continue
		}
		info, err := os.Lstat(filepath.Join(folder, name)) // a link could point to what is none of the person's
		switch {
		case err != nil || !info.IsDir() && !info.Mode().IsRegular():
			left = append(left, name)
		case info.IsDir():
			person(name).readFolder(folder, isSource)
		case !isSource(name):
			left = append(left, name)
		default:
			files = append(files, name)
		}
	}
	stems := map[string]bool{}
	for _, name := range files {
		stems[stem(name)] = true
	}
	for _, name := range files {
		who := stem(name)
		if m := numbered().FindStringSubmatch(who); m != nil && (stems[m[1]] || found[m[1]] != nil) {
			who = m[1] // "anna (2).py" beside "anna.py"
		}
		person(who).add(Try{Path: filepath.Join(folder, name), Name: name})
	}
	for _, name := range roster {
		person(name)
	}
	if len(found) > MostPeople {
		return nil, nil, &MistakeError{fmt.Sprintf("%s holds hand-ins of %d people; there can be %d", folder, len(found), MostPeople)}
	}
	for _, p := range found {
		if len(p.Tries) == 0 {
			p.Lacks = cmp.Or(p.Lacks, "nothing was handed in")
		}
		slices.SortStableFunc(p.Tries, func(a, b Try) int {
			return cmp.Or(a.Saved.Compare(b.Saved), natural.Compare(a.Name, b.Name))
		})
		people = append(people, *p)
	}
	slices.SortFunc(people, func(a, b Person) int { return natural.Compare(a.Name, b.Name) })
	return people, left, nil
}

func stem(name string) string { return strings.TrimSuffix(name, filepath.Ext(name)) }

// numbered is a name with the number of a further try.
var numbered = lazy.New(`^(.+?)(?:[-_. ]\d{1,2}| ?\(\d{1,2}\))$`)

func plainError(err error) error {
	if path, ok := err.(*fs.PathError); ok {
		return path.Err
	}
	return err
}

// add adds a try, if there is anything in its file.
func (p *Person) add(t Try) {
	info, err := os.Stat(t.Path)
	switch {
	case err != nil:
		p.Lacks = t.Name + " cannot be read"
		return
	case info.Size() > largestFile:
		p.Lacks = fmt.Sprintf("%s is larger than %d MiB", t.Name, largestFile>>20)
		return
	}
	text, err := os.ReadFile(t.Path)
	switch {
	case err != nil:
		p.Lacks = t.Name + " cannot be read"
	case len(bytes.TrimSpace(text)) == 0:
		p.Lacks = t.Name + " is empty"
	default:
		t.Saved = info.ModTime()
		p.Tries = append(p.Tries, t)
	}
}

// readFolder reads the files of a person's folder, and of those in it.
func (p *Person) readFolder(folder string, isSource func(string) bool) {
	var sources, others []string
	root := filepath.Join(folder, p.Name)
	filepath.WalkDir(root, func(path string, d fs.DirEntry, err error) error {
		switch {
		case err != nil:
			return nil
		case path != root && (strings.HasPrefix(d.Name(), ".") || d.Name() == "__MACOSX"):
			if d.IsDir() {
				return fs.SkipDir
			}
			return nil
		case !d.Type().IsRegular():
			return nil
		case len(sources)+len(others) == mostFiles:
			return fs.SkipAll
		case isSource(d.Name()):
			sources = append(sources, path)
		default:
			others = append(others, path)
		}
		return nil
	})
	if len(sources) == 0 {
		p.Lacks = "nothing was handed in"
		if len(others) > 0 {
			p.Lacks = fmt.Sprintf("%s is no source file", filepath.Base(others[0]))
		}
		return
	}
	used := usedByOthers(sources)
	for _, path := range sources {
		if used[path] {
			continue
		}
		beside := slices.DeleteFunc(slices.Concat(sources, others), func(other string) bool { return other == path || filepath.Dir(other) != filepath.Dir(path) })
		name, _ := filepath.Rel(folder, path)
		p.add(Try{Path: path, Name: filepath.ToSlash(name), Beside: beside})
	}
}

// usedByOthers finds sources that others in their folder import, and so are no try of their own.
func usedByOthers(sources []string) map[string]bool {
	used := map[string]bool{}
	for _, path := range sources {
		text, err := os.ReadFile(path)
		if err != nil || len(text) > largestFile {
			continue
		}
		for _, other := range sources {
			word := regexp.QuoteMeta(stem(filepath.Base(other)))
			imports := regexp.MustCompile(`(?m)^\s*(?:#\s*include\s*"|import\s|from\s|mod\s|require|const\s.*require|use\s|load\s|dofile)[^\n]*\b` + word + `\b`)
			if other != path && filepath.Dir(other) == filepath.Dir(path) && imports.Match(text) {
				used[other] = true
			}
		}
	}
	if len(used) == len(sources) { // they import each other
		return nil
	}
	return used
}

// ReadRoster reads the names of a class, a line each. Empty lines, and those that begin with #, are left out.
func ReadRoster(text []byte) (names []string) {
	for line := range strings.Lines(string(bytes.TrimPrefix(text, []byte("\ufeff")))) {
		if name := strings.TrimSpace(line); name != "" && !strings.HasPrefix(name, "#") && !slices.Contains(names, name) {
			names = append(names, name)
		}
	}
	return names
}
