// Package demo holds the problems that are shipped with the program: made-up
// tasks at Hoarfrost station, each with right and wrong solutions, and with
// the verdict that each of them must get.
package demo

import (
	"embed"
	"io/fs"
	"os"
	"path/filepath"
	"strings"
)

//go:embed problems
var problems embed.FS

// A Stop is one problem on the tour.
type Stop struct {
	Folder string // its name
	Words  string // what it shows
}

// Tour lists the problems in the order in which they are shown.
func Tour() []Stop {
	return []Stop{
		{"teams", "One case a file. The same idea is right in twenty-three languages; three solutions are wrong in the ways that cost most submissions: a greedy choice, a tie, a loop too many."},
		{"depots", "Many cases in one file, and every way to fail: a sum past 32 bits, something left over from the case before, a missing line break, too much memory, a crash, endless output, waiting for ever, and a source that does not compile."},
		{"drift", "Decimals, within a tolerance of 1e-6, in whatever way a language prints them; two digits, six digits, none at all, and the ones that float loses are not enough."},
		{"relay", "A graph: links to itself, beacons alone, a chain so long that recursion must go 20,000 deep. The lines of the answer may come in any order."},
		{"tents", "Any valid placement is right, so a checker decides, written in Starlark, and for the long row in Python. It is itself tried on answers of which it is known what it must say: 'cold try --checker'."},
		{"crevasse", "An interactive problem: the solution probes for a depth, and the interactor answers. One asks too often, one forgets to flush, one stops early, one never stops talking. 'cold talk' lets you be the candidate."},
		{"thaw", "A function in place of a program, called in seven languages, many times in one process. One forgets to return, one changes its argument, one loses the last day, one remembers the call before, one counts in 32 bits."},
		{"tow", "A linked list, with the class that judges declare. One loses the rest, one makes a circle, one turns too much; a list is written as an array, and drawn where it fails."},
		{"trail", "A tree, level by level. One looks only downwards, one begins at 0 though it is colder, one keeps its best from the call before."},
		{"beacons", "A class: objects are made and their methods called, a call a line, and the verdict names the call. One forgets the wrong beacon, one throws out too much, one shares between two objects what each must keep."},
		{"stowed", "Values within values to any depth, as JSON has them. One counts without depth, one begins at 0, one takes it for granted that no crate is empty."},
		{"logbook", "Two questions about one large input that lies in a file of its own name. Nobody knows the answers yet, so they are printed and not judged; one that is known to be too small is never taken again."},
	}
}

// Write writes all problems below dir, which must exist. A file that is there
// already is not overwritten; then Write returns an error that is
// fs.ErrExist.
func Write(dir string) error {
	return fs.WalkDir(problems, "problems", func(path string, d fs.DirEntry, err error) error {
		if err != nil {
			return err
		}
		inside, _ := filepath.Rel("problems", path)
		target := filepath.Join(dir, inside)
		if d.IsDir() {
			return os.MkdirAll(target, 0o755)
		}
		text, err := problems.ReadFile(path)
		if err != nil {
			return err
		}
		file, err := os.OpenFile(target, os.O_CREATE|os.O_EXCL|os.O_WRONLY, 0o644)
		if err != nil {
			return err
		}
		if _, err := file.Write(text); err != nil {
			file.Close()
			return err
		}
		return file.Close()
	})
}

// Words returns what the first line of a source, a comment, says of it.
func Words(source []byte) string {
	text := strings.TrimPrefix(string(source), "<?php\n")
	line, _, _ := strings.Cut(text, "\n")
	return strings.Trim(line, " /#*-;(){}")
}
