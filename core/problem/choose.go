package problem

import (
	"fmt"
	"io/fs"
	"os"
	"path"
	"path/filepath"
	"slices"
	"strings"

	"coldverdict/core/settings"
)

// A UsageError is a request that cannot be served as it was made.
type UsageError struct{ Text string }

func (e *UsageError) Error() string { return e.Text }

// ChooseCandidate returns the candidate that was edited last. A file that
// verdict.toml names as anything else is never chosen: a reference, a
// solution of certain groups only, or one that is expected to fail.
func (p *Problem) ChooseCandidate() (Solution, error) {
	var last []Solution
	var edited fs.FileInfo
	var others []string
	for _, name := range p.Sources {
		s := p.solution(name)
		if s.Role != Candidate || len(s.Groups) > 0 || s.Expect != "" && s.Expect != "accepted" {
			others = append(others, name)
			continue
		}
		info, err := os.Stat(filepath.Join(p.Dir, name))
		if err != nil || !info.Mode().IsRegular() {
			continue
		}
		switch {
		case edited == nil || info.ModTime().After(edited.ModTime()):
			last, edited = []Solution{s}, info
		case info.ModTime().Equal(edited.ModTime()):
			last = append(last, s)
		}
	}
	switch len(last) {
	case 0:
		if len(others) > 0 {
			return Solution{}, &UsageError{fmt.Sprintf("no candidate in %s: %s has another part for %s; say which to try", p.Dir, ConfigFile, strings.Join(others, " and "))}
		}
		return Solution{}, &UsageError{fmt.Sprintf("no candidate in %s; name a source file, or write one ('cold open' can begin it)", p.Dir)}
	case 1:
		return last[0], nil
	}
	names := make([]string, len(last))
	for i, s := range last {
		names[i] = s.File
	}
	return Solution{}, &UsageError{fmt.Sprintf("%s were edited at the same moment; say which to try", strings.Join(names, " and "))}
}

// solution returns what verdict.toml says of a file in the folder.
func (p *Problem) solution(name string) Solution {
	i := slices.IndexFunc(p.Solutions, func(s Solution) bool {
		return filepath.Clean(s.File) == name
	})
	if i < 0 {
		return Solution{File: name, Role: Candidate}
	}
	return p.Solutions[i]
}

// FindSolution returns the solution that a person named on the command line,
// from the folder they stand in.
func (p *Problem) FindSolution(name, from string) (Solution, error) {
	for _, dir := range []string{from, p.Dir} {
		full := name
		if !filepath.IsAbs(name) {
			full = filepath.Join(dir, name)
		}
		info, err := os.Stat(full)
		if err != nil {
			continue
		}
		if !info.Mode().IsRegular() {
			return Solution{}, &UsageError{fmt.Sprintf("%s is %s; a source file was expected", name, kind(info))}
		}
		if full, err = filepath.Abs(full); err != nil {
			return Solution{}, err
		}
		if inside, err := filepath.Rel(p.Dir, full); err == nil && filepath.IsLocal(inside) {
			return p.solution(inside), nil
		}
		return Solution{File: full, Role: Candidate}, nil
	}
	hint := ""
	if len(p.Sources) > 0 {
		hint = "; " + settings.Nearest(filepath.Base(name), p.Sources)
	}
	return Solution{}, &UsageError{fmt.Sprintf("there is no file %s here%s", name, hint)}
}

// Path returns the absolute path of a solution's file.
func (p *Problem) Path(s Solution) string {
	if filepath.IsAbs(s.File) {
		return s.File
	}
	return filepath.Join(p.Dir, s.File)
}

// SelectCases returns the indices of the cases that match one of the
// patterns, all without patterns. A pattern is a whole name or group, a part of
// a name between slashes, or either with * and ?. Each must match something.
func (p *Problem) SelectCases(patterns []string) ([]int, error) {
	chosen := make([]bool, len(p.Cases))
	for _, pattern := range patterns {
		any := false
		for i, c := range p.Cases {
			if matches(pattern, c) {
				chosen[i], any = true, true
			}
		}
		if !any {
			return nil, &UsageError{p.noMatch(pattern)}
		}
	}
	indices := make([]int, 0, len(p.Cases))
	for i := range p.Cases {
		if chosen[i] || len(patterns) == 0 {
			indices = append(indices, i)
		}
	}
	return indices, nil
}

func (p *Problem) noMatch(pattern string) string {
	var names []string
	for _, c := range p.Cases {
		names = append(names, c.Name)
	}
	names = append(names, p.Groups()...)
	if len(names) > 12 {
		names = names[:12:12]
		names = append(names, "…")
	}
	return fmt.Sprintf("no case matches %q; %s", pattern, settings.Nearest(pattern, names))
}

func matches(pattern string, c Case) bool {
	pattern = strings.TrimSuffix(pattern, "/")
	short := strings.TrimPrefix(c.Name, c.Group+"/")
	for _, name := range []string{c.Name, c.Group, short} {
		if pattern == name || wildcard(pattern, name) {
			return true
		}
	}
	return false
}

// wildcard matches * (anything, slashes too), ? and [a-z].
func wildcard(pattern, name string) bool {
	// path.Match lets * stop at slashes only.
	plain := strings.NewReplacer("/", "\x00")
	ok, err := path.Match(plain.Replace(pattern), plain.Replace(name))
	return ok && err == nil
}
