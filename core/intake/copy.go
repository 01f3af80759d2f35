package intake

import (
	"context"
	"errors"
	"fmt"
	"io"
	"os"
	"path/filepath"
	"strings"

	"golang.org/x/sys/unix"

	"coldverdict/core/problem"
)

// Copy puts pairs into a problem's cases/, in a group of their own or in the
// one that is named. All is copied to a folder beside first, so that an error,
// a full disk or an end in between leaves the cases as they were, and every
// case is there whole or not at all. progress is told after each file. It
// returns the number of cases, and which were there already and stay as they
// are.
func Copy(ctx context.Context, s *Source, pairs []Pair, p *problem.Problem, group string, progress func(files int)) (copied int, there []string, err error) {
	targets, there := plan(pairs, p, group)
	if len(targets) == 0 {
		return 0, there, nil
	}
	var total int64
	for _, t := range targets {
		total += t.size
	}
	own := filepath.Join(p.Dir, problem.OwnFolder)
	if err := os.MkdirAll(own, 0o755); err != nil {
		return 0, there, err
	}
	defer os.Remove(own) // unless something else is in it
	if err := enoughRoom(own, total); err != nil {
		return 0, there, err
	}
	// What an import left that was killed is nothing that anybody needs.
	left, _ := filepath.Glob(filepath.Join(own, staging+"*"))
	for _, dir := range left {
		os.RemoveAll(dir)
	}
	dir, err := os.MkdirTemp(own, staging)
	if err != nil {
		return 0, there, err
	}
	defer os.RemoveAll(dir)
	if err := stage(ctx, s, targets, dir, progress); err != nil {
		return 0, there, err
	}
	unix.Sync() // what is renamed below is whole even after the power fails
	for i, t := range targets {
		if err := os.MkdirAll(filepath.Dir(t.input), 0o755); err != nil {
			return copied, there, err
		}
		// The output first: an input without an output would be a whole case.
		for _, move := range [][2]string{{staged(dir, i, ".out"), t.output}, {staged(dir, i, ".in"), t.input}} {
			if move[1] == "" {
				continue
			}
			if err := os.Rename(move[0], move[1]); err != nil {
				return copied, there, err
			}
		}
		copied++
	}
	return copied, there, nil
}

const staging = "import-"

func staged(dir string, i int, extension string) string {
	return filepath.Join(dir, fmt.Sprint(i, extension))
}

// A target is where a pair goes.
type target struct {
	pair          Pair
	input, output string // paths
	size          int64
}

// plan says where pairs go, without those whose place is taken.
func plan(pairs []Pair, p *problem.Problem, group string) (targets []target, there []string) {
	known := map[string]bool{}
	for _, c := range p.Cases {
		known[strings.ToLower(c.Name)] = true
	}
	for _, pair := range pairs {
		dir, name := filepath.Join(p.Dir, problem.CasesFolder), CaseName(pair, group)
		if folder, _, _ := strings.Cut(name, "/"); folder != problem.CasesFolder {
			dir = filepath.Join(dir, folder)
		}
		t := target{pair, filepath.Join(dir, pair.Name+".in"), filepath.Join(dir, pair.Name+".out"), pair.Size}
		_, noInput := os.Lstat(t.input)
		_, noOutput := os.Lstat(t.output)
		if known[strings.ToLower(name)] || noInput == nil || noOutput == nil {
			there = append(there, name)
			continue
		}
		if pair.Output == "" {
			t.output = ""
		}
		targets = append(targets, t)
	}
	return targets, there
}

// CaseName is the name under which a pair becomes a case, if those without a
// group of their own go to the one that is named.
func CaseName(pair Pair, group string) string {
	name := strings.Trim(problem.GroupName(group)+"-"+pair.Group, "-")
	if name == "" {
		name = problem.CasesFolder
	}
	return name + "/" + pair.Name
}

func enoughRoom(dir string, size int64) error {
	var s unix.Statfs_t
	if err := unix.Statfs(dir, &s); err != nil {
		return nil // the disk will tell
	}
	if free := int64(s.Bavail) * int64(s.Bsize); size > free {
		return refused("%d MiB are to be copied and %d MiB are free on the disk; nothing was copied", size>>20, free>>20)
	}
	return nil
}

// stage copies the files of all targets into a folder, under numbers.
func stage(ctx context.Context, s *Source, targets []target, dir string, progress func(int)) error {
	places := make(map[string]string, 2*len(targets))
	for i, t := range targets {
		places[t.pair.Input] = staged(dir, i, ".in")
		if t.pair.Output != "" {
			places[t.pair.Output] = staged(dir, i, ".out")
		}
	}
	files := 0
	err := s.walk(func(f File, r io.Reader) error {
		if err := ctx.Err(); err != nil {
			return err
		}
		place, ok := places[f.Path]
		if !ok {
			return nil
		}
		delete(places, f.Path)
		files++
		progress(files)
		return copyFile(place, r, f)
	})
	if err != nil {
		return err
	}
	for missing := range places {
		return fmt.Errorf("%s is not there any more; nothing was copied", missing)
	}
	return nil
}

func copyFile(place string, r io.Reader, f File) error {
	file, err := os.OpenFile(place, os.O_WRONLY|os.O_CREATE|os.O_EXCL, 0o644)
	if err != nil {
		return err
	}
	n, err := io.Copy(file, io.LimitReader(r, f.Size+1))
	if err = errors.Join(err, file.Close()); err != nil {
		return err
	}
	if n != f.Size {
		return refused("%s has %d bytes where %d were announced; nothing was copied", f.Path, n, f.Size)
	}
	return nil
}
