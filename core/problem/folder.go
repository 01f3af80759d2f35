package problem

import (
	"errors"
	"fmt"
	"io/fs"
	"os"
	"path"
	"path/filepath"
	"slices"
	"strconv"
	"strings"

	"github.com/maruel/natural"
	"golang.org/x/sys/unix"
)

func where(file string, line int) string { return file + ":" + strconv.Itoa(line) }

func readable(path string) bool { return unix.Access(path, unix.R_OK) == nil }

// casesFolder reads cases/ and the groups in it.
func (l *loader) casesFolder() {
	entries, err := os.ReadDir(filepath.Join(l.problem.Dir, CasesFolder))
	switch {
	case errors.Is(err, fs.ErrNotExist):
		return
	case errors.Is(err, unix.ENOTDIR):
		l.wrong(CasesFolder, 0, "is a file; a folder was expected")
		return
	case err != nil:
		l.wrong(CasesFolder, 0, "cannot be read: %v", plainError(err))
		return
	}
	removeLeft(filepath.Join(l.problem.Dir, CasesFolder), entries)
	l.pairs(CasesFolder, CasesFolder, entries, true)
	for _, entry := range sorted(entries) {
		if !l.isFolder(CasesFolder, entry) {
			continue
		}
		sub := path.Join(CasesFolder, entry.Name())
		group := GroupName(entry.Name())
		inside, err := os.ReadDir(filepath.Join(l.problem.Dir, sub))
		removeLeft(filepath.Join(l.problem.Dir, sub), inside)
		switch {
		case err != nil:
			l.wrong(sub, 0, "cannot be read: %v", plainError(err))
		case group == "":
			l.wrong(sub, 0, "this name makes no name of a group; use letters and digits")
		default:
			l.pairs(sub, group, inside, true)
			for _, deeper := range inside {
				if deeper.IsDir() && !isPair(deeper.Name()) {
					l.leftOut("%s/%s: folders inside a group are left out", sub, deeper.Name())
				}
			}
		}
	}
}

// isFolder reports whether an entry is a folder, or a link to one.
func (l *loader) isFolder(dir string, entry fs.DirEntry) bool {
	if entry.Type()&fs.ModeSymlink != 0 {
		info, err := os.Stat(filepath.Join(l.problem.Dir, dir, entry.Name()))
		return err == nil && info.IsDir()
	}
	return entry.IsDir() && !isPair(entry.Name())
}

func isPair(name string) bool {
	return strings.HasSuffix(name, ".in") || strings.HasSuffix(name, ".out")
}

func (l *loader) leftOut(format string, args ...any) {
	l.problem.Notes = append(l.problem.Notes, fmt.Sprintf(format, args...))
}

// sorted returns entries in natural order: 2 before 10.
func sorted(entries []fs.DirEntry) []fs.DirEntry {
	entries = slices.Clone(entries)
	slices.SortFunc(entries, func(a, b fs.DirEntry) int { return natural.Compare(a.Name(), b.Name()) })
	return entries
}

// pairs makes a case of each NAME.in in a folder, with NAME.out beside it.
// strict says that the folder holds nothing but cases.
func (l *loader) pairs(dir, group string, entries []fs.DirEntry, strict bool) {
	outputs, notes, inputs := map[string]bool{}, map[string]bool{}, map[string]bool{}
	for _, entry := range entries {
		switch name, extension := splitName(entry.Name()); extension {
		case ".in":
			inputs[name] = true
		case ".out":
			outputs[name] = true
		case notesExtension:
			notes[name] = true
		}
	}
	for _, entry := range sorted(entries) {
		name, isInput := strings.CutSuffix(entry.Name(), ".in")
		if !isInput {
			if name, extension := splitName(entry.Name()); inputs[name] && (extension == notesExtension || extension == keptExtension) {
				continue
			}
			if strict && !isPair(entry.Name()) && !entry.IsDir() && entry.Type()&fs.ModeSymlink == 0 {
				l.leftOut("%s is neither NAME.in nor NAME.out and was left out", path.Join(dir, entry.Name()))
			}
			continue
		}
		c := Case{Name: group + "/" + name, Group: group, Where: path.Join(dir, entry.Name())}
		if name == "" {
			l.wrong(c.Where, 0, "this file has no name before .in; give it one")
			continue
		}
		c.Input, _ = l.file(c.Where)
		if l.problem.Call != nil && c.Input.Path != "" {
			l.checkArguments(c.Input, c.Where, 0)
		}
		if outputs[name] {
			delete(outputs, name)
			if output, ok := l.file(path.Join(dir, name+".out")); ok {
				c.Accepted = []Data{output}
				if l.problem.Call != nil {
					l.checkResults(output, path.Join(dir, name+".out"), 0)
				}
			}
		}
		if notes[name] {
			l.caseNotes(&c, path.Join(dir, name+notesExtension))
		}
		c.Accepted = l.impliedAnswer(c.Input, c.Accepted)
		l.problem.Cases = append(l.problem.Cases, c)
	}
	for _, entry := range sorted(entries) {
		name, ok := strings.CutSuffix(entry.Name(), ".out")
		// A compiler's a.out is no output of a case.
		if ok && outputs[name] && (strict || name != "a") {
			l.wrong(path.Join(dir, entry.Name()), 0, "an output without an input; add %s.in, or take the file out", name)
		}
	}
}

// notesExtension is that of a file beside NAME.in which holds what cases.md
// would hold below the heading: the reason, and blocks.
const notesExtension = ".md"

// keptExtension is that of an output that was kept and is large.
const keptExtension = ".kept"

func splitName(name string) (stem, extension string) {
	extension = path.Ext(name)
	return strings.TrimSuffix(name, extension), extension
}

// caseNotes reads what is noted of a case that has files of its own.
func (l *loader) caseNotes(c *Case, name string) {
	text, ok := l.read(name, LargestCasesFile, "move large data to a file of its own: ```output file=NAME")
	if !ok {
		return
	}
	r := &casesReader{loader: l, rest: text, file: name, only: true, group: c.Group, open: &openCase{name: c.Name, input: &c.Input}}
	r.all()
	o := r.open
	c.Reason, c.Kept, c.Unsure, c.Refused, c.Trials = o.reasonText(), o.kept, o.unsure, o.refused, o.trials
	switch {
	case len(o.outputs) == 0:
	case len(c.Accepted) > 0 && o.outputs[0].Path != c.Accepted[0].Path:
		l.wrong(name, 0, "this case has an output here and one in a file NAME.out; take one of them out, or point to the file")
	default:
		c.Accepted = o.outputs
	}
}

// file describes one data file, which must be plain and readable.
func (l *loader) file(name string) (Data, bool) {
	full := filepath.Join(l.problem.Dir, name)
	info, err := os.Stat(full)
	switch {
	case err != nil:
		l.wrong(name, 0, "cannot be read: %v", plainError(err))
	case !info.Mode().IsRegular():
		l.wrong(name, 0, "is %s; a file was expected", kind(info))
	case !readable(full):
		l.wrong(name, 0, "may not be read by you; change its permissions")
	default:
		return Data{Path: full, Size: info.Size()}, true
	}
	return Data{}, false
}

// beside reads what lies in the problem's folder itself: cases, and sources.
func (l *loader) beside(entries []fs.DirEntry) {
	l.pairs("", CasesFolder, entries, false)
	for _, entry := range sorted(entries) {
		if !entry.IsDir() && l.words.IsSource(entry.Name()) {
			l.problem.Sources = append(l.problem.Sources, entry.Name())
		}
	}
	l.references()
}
