package judge

import (
	"fmt"
	"os"
	"path/filepath"
	"slices"
	"strings"

	"coldverdict/core/box"
	"coldverdict/core/problem"
)

// hidden lists what programs must not see: the folder of the problem, or, where
// something that they need lies in there, the files of the problem one by one.
// Expected outputs elsewhere are hidden too.
func (s *session) hidden(plans []Plan) (paths []string, err error) {
	folder, err := realPath(s.problem.Dir)
	if err != nil {
		return nil, err
	}
	needed := []string{s.options.Cache}
	if home, err := os.UserHomeDir(); err == nil {
		needed = append(needed, home)
	}
	for _, p := range plans {
		if p.Build != nil && !p.Build.Failed {
			needed = append(needed, p.Build.Program(p.Limits, nil).Path)
		}
	}
	inside := func(path string) bool {
		path, err := realPath(path)
		return err == nil && isBelow(path, folder)
	}
	var data []string
	if slices.ContainsFunc(needed, inside) {
		for _, name := range []string{problem.CasesFolder, problem.CasesFile, problem.ConfigFile, problem.OwnFolder} {
			data = append(data, filepath.Join(folder, name))
		}
	} else {
		paths = append(paths, folder)
	}
	for _, c := range s.problem.Cases {
		for _, d := range append(c.Accepted[:len(c.Accepted):len(c.Accepted)], c.Input) {
			if d.Path != "" {
				data = append(data, d.Path)
			}
		}
		for _, t := range c.Trials {
			if t.Answer.Path != "" {
				data = append(data, t.Answer.Path)
			}
		}
	}
	// Most files lie in few folders, which are resolved once.
	folders := map[string]string{}
	for _, path := range data {
		dir, known := folders[filepath.Dir(path)]
		if !known {
			if dir, err = realPath(filepath.Dir(path)); err != nil {
				continue // not there, or no longer
			}
			folders[filepath.Dir(path)] = dir
		}
		path = filepath.Join(dir, filepath.Base(path))
		if !slices.ContainsFunc(paths, func(p string) bool { return isBelow(path, p) }) {
			paths = append(paths, path)
		}
	}
	if len(paths) > mostHidden {
		return nil, fmt.Errorf("%s holds what programs need, and %d files of cases, too many to hide one by one; "+
			"move them into its folder 'cases', or choose --uncontained", folder, len(paths))
	}
	return paths, nil
}

// arbiterWorker makes the worker of what decides on the programs of another: it
// sees what is hidden from those, and what they printed.
func (s *session) arbiterWorker(candidates box.Options) *worker {
	o := candidates
	o.Hidden = nil
	o.Decides = s.problem.Interactive()
	o.Visible = append(slices.Clone(o.Visible), s.options.Cache, s.checks, s.problem.Dir)
	if self, err := os.Executable(); err == nil {
		o.Visible = append(o.Visible, self)
	}
	for _, a := range s.arbiters {
		if a.fault == nil && a.script == "" {
			o.Visible = append(o.Visible, s.runsBy(a.build.Program(s.problem.Limits.OfChecker(), nil))...)
		} else if a.script != "" {
			o.Visible = append(o.Visible, filepath.Dir(a.script))
		}
	}
	return &worker{options: o}
}

// mostHidden bounds what is hidden one by one.
const mostHidden = 500

// visible lists what must be seen even where they lie among temporary
// files: the builds, and what runs them.
func (s *session) visible(plans []Plan) []string {
	paths := []string{s.options.Cache}
	for _, p := range plans {
		if p.Build == nil || p.Build.Failed {
			continue
		}
		paths = append(paths, s.runsBy(p.Build.Program(p.Limits, nil))...)
	}
	return paths
}

// runsBy lists what a program needs that is no build: a runtime's own files lie
// beside the folder that it is in.
func (s *session) runsBy(p box.Program) []string {
	if isBelow(p.Path, s.options.Cache) {
		return nil
	}
	return []string{p.Path, filepath.Dir(filepath.Dir(p.Path))}
}

// realPath makes a path absolute and follows its links.
func realPath(path string) (string, error) {
	path, err := filepath.Abs(path)
	if err != nil {
		return "", err
	}
	return filepath.EvalSymlinks(path)
}

// isBelow reports that a path is folder or lies in it.
func isBelow(path, folder string) bool {
	return path == folder || strings.HasPrefix(path, strings.TrimSuffix(folder, "/")+"/")
}
