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

// A RequestError is a request that cannot be served as it was made.
type RequestError struct{ Text string }

func (e *RequestError) Error() string { return e.Text }

// A TiedError says that candidates were edited at the same moment, so that none of them was edited last. It is a
// RequestError, too.
type TiedError struct{ Files []string }

func (e *TiedError) Error() string {
	return fmt.Sprintf("%s were edited at the same moment; say which to try", strings.Join(e.Files, " and "))
}

// Unwrap returns the RequestError that it is.
func (e *TiedError) Unwrap() error { return &RequestError{e.Error()} }

// ChooseCandidate returns the candidate that was edited last. A file that
// verdict.toml names as anything else is never chosen: a reference, a
// checker, a solution of certain groups only, or one that is expected to fail; nor are
// those that are given.
func (p *Problem) ChooseCandidate(except ...Solution) (Solution, error) {
	var candidates []Solution
	var others []string
	for _, name := range p.Sources {
		s := p.entries(name)[0]
		if slices.ContainsFunc(except, func(other Solution) bool { return p.IsSame(s, other) }) {
			continue
		}
		if p.judges(name) || playsPart(name) && s.Line == 0 || s.Role != Candidate || len(s.Groups) > 0 || s.Expect != "" && s.Expect != "accepted" {
			others = append(others, name)
			continue
		}
		candidates = append(candidates, s)
	}
	last, err := p.editedLast(candidates)
	if err == nil && last == nil && len(others) > 0 {
		return Solution{}, &RequestError{fmt.Sprintf("no candidate in %s: by %s, or by their names, these have other parts: %s; say which to try", p.Dir, ConfigFile, strings.Join(others, ", "))}
	}
	if err == nil && last == nil {
		return Solution{}, &RequestError{fmt.Sprintf("no candidate in %s; name a source file, or write one ('cold open' can begin it)", p.Dir)}
	}
	if err != nil {
		return Solution{}, err
	}
	return *last, nil
}

// editedLast returns the one of some solutions whose file was edited last; nil
// where none has a file.
func (p *Problem) editedLast(list []Solution) (*Solution, error) {
	var last []Solution
	var edited fs.FileInfo
	for _, s := range list {
		info, err := os.Stat(p.Path(s))
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
		return nil, nil
	case 1:
		return &last[0], nil
	}
	names := make([]string, len(last))
	for i, s := range last {
		names[i] = s.File
	}
	return nil, &TiedError{names}
}

// entries returns what verdict.toml says of a file: its first entry, and the
// others where each is for certain groups only, since then it answers several
// parts.
func (p *Problem) entries(name string) (all []Solution) {
	for _, s := range p.Solutions {
		if filepath.Clean(s.File) == name && (len(all) == 0 || len(s.Groups) > 0 && len(all[0].Groups) > 0) {
			all = append(all, s)
		}
	}
	if len(all) == 0 {
		all = append(all, Solution{File: name, Role: Candidate})
	}
	return all
}

// FindSolutions returns the solution that a person named on the command line,
// from the folder they stand in: several where one source answers several
// parts.
func (p *Problem) FindSolutions(name, from string) ([]Solution, error) {
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
			return nil, &RequestError{fmt.Sprintf("%s is %s; a source file was expected", name, kind(info))}
		}
		if full, err = filepath.Abs(full); err != nil {
			return nil, err
		}
		if inside, err := filepath.Rel(p.Dir, full); err == nil && filepath.IsLocal(inside) {
			return p.entries(inside), nil
		}
		return []Solution{{File: full, Role: Candidate}}, nil
	}
	if stem := strings.TrimSuffix(filepath.Base(name), "/"); stem != "" && !strings.ContainsRune(name, filepath.Separator) {
		var named []string
		for _, source := range p.Sources {
			if strings.TrimSuffix(source, filepath.Ext(source)) == stem {
				named = append(named, source)
			}
		}
		if len(named) == 1 {
			return p.entries(named[0]), nil
		}
		if len(named) > 1 {
			return nil, &RequestError{fmt.Sprintf("%s means %s; name one", name, strings.Join(named, " and "))}
		}
	}
	hint := ""
	if len(p.Sources) > 0 {
		hint = "; " + settings.Nearest(filepath.Base(name), p.Sources)
	}
	return nil, &RequestError{fmt.Sprintf("there is no file %s here%s", name, hint)}
}

// IsSame reports that two solutions are one file with the same arguments.
func (p *Problem) IsSame(a, b Solution) bool {
	if !slices.Equal(a.Args, b.Args) {
		return false
	}
	one, err := os.Stat(p.Path(a))
	other, err2 := os.Stat(p.Path(b))
	return p.Path(a) == p.Path(b) || err == nil && err2 == nil && os.SameFile(one, other)
}

// Path returns the absolute path of a solution's file.
func (p *Problem) Path(s Solution) string { return p.PathOf(s.File) }

// PathOf returns the absolute path of a file that verdict.toml names.
func (p *Problem) PathOf(name string) string {
	if filepath.IsAbs(name) {
		return name
	}
	return filepath.Join(p.Dir, name)
}

// judges reports whether a file is a checker, the interactor of an interactive
// problem, or what makes inputs.
func (p *Problem) judges(name string) bool {
	if slices.Contains([]string{p.PathOf(p.Talk.Program), p.PathOf(p.Compare.Program), p.PathOf(p.Make.Program)}, p.PathOf(name)) {
		return true
	}
	return slices.ContainsFunc(p.Cases, func(c Case) bool { return p.PathOf(c.Compare.Program) == p.PathOf(name) })
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
			return nil, &RequestError{p.noMatch(pattern)}
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

// CandidateFor returns the candidate that answers the cases of a group: of those
// that verdict.toml names for certain groups, this among them, the one edited
// last, and otherwise the candidate edited last.
func (p *Problem) CandidateFor(group string) (Solution, error) {
	var special []Solution
	for _, s := range p.Solutions {
		if s.Role == Candidate && len(s.Groups) > 0 && s.Runs(group) && (s.Expect == "" || s.Expect == "accepted" || s.Expect == "unjudged") {
			special = append(special, s)
		}
	}
	last, err := p.editedLast(special)
	switch {
	case err != nil:
		return Solution{}, err
	case last != nil:
		return *last, nil
	}
	return p.ChooseCandidate()
}
