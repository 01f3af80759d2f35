package judge

import (
	"fmt"
	"os"
	"path/filepath"
	"slices"

	"coldverdict/core/box"
	"coldverdict/core/problem"
)

// Candidates see their language and their own build, so the problem is out of their
// sight. What is listed here stays hidden where it lies in what they see all the same:
// among the system's own folders, or in the folder of the sources where a language's
// entry asks for that.

// hidden lists what programs must not see: the folder of the problem, or, where
// something that they need lies in there, the files of the problem one by one.
// Inputs and expected outputs elsewhere are hidden too, wherever links lead.
func (j *Judge) hidden(plans []Plan, cases []problem.Case) (paths []string, err error) {
	folder, err := realPath(j.problem.Dir)
	if err != nil {
		return nil, err
	}
	var needed []string
	for _, p := range plans {
		if p.Build != nil && !p.Build.Failed {
			needed = append(needed, p.Build.Program(p.Limits, nil).Reads...)
		}
	}
	inside := func(path string) bool {
		path, err := realPath(path)
		return err == nil && box.Within(path, folder)
	}
	if !slices.ContainsFunc(needed, inside) {
		paths = append(paths, folder)
	}
	for _, path := range j.dataFiles(folder, cases) {
		if len(paths) == 0 || paths[0] != folder || !box.Within(path, folder) {
			paths = append(paths, path)
		}
	}
	if len(paths) > mostHidden {
		return nil, fmt.Errorf("%s holds what programs need, and %d files of cases, too many to hide one by one; "+
			"move them into its folder 'cases', or choose --uncontained", folder, len(paths))
	}
	return paths, nil
}

// dataFiles lists what tells answers, or what a program will be asked: the problem's
// own files and folders, and the files of cases that lie elsewhere, by all their names.
func (j *Judge) dataFiles(folder string, cases []problem.Case) (paths []string) {
	for _, name := range []string{problem.CasesFolder, problem.CasesFile, problem.ConfigFile, problem.OwnFolder, problem.ShapeFile} {
		paths = append(paths, filepath.Join(folder, name))
	}
	own := len(paths)
	// Most files lie in few folders, which are resolved once.
	folders := map[string]string{}
	add := func(path string) {
		if path == "" {
			return
		}
		dir, known := folders[filepath.Dir(path)]
		if !known {
			var err error
			if dir, err = realPath(filepath.Dir(path)); err != nil {
				return // not there, or no longer
			}
			folders[filepath.Dir(path)] = dir
		}
		path = filepath.Join(dir, filepath.Base(path))
		names := []string{path}
		if info, err := os.Lstat(path); err == nil && info.Mode()&os.ModeSymlink != 0 {
			if real, err := filepath.EvalSymlinks(path); err == nil {
				names = append(names, real)
			}
		}
		for _, name := range names {
			if !slices.ContainsFunc(paths[:own], func(p string) bool { return box.Within(name, p) }) {
				paths = append(paths, name)
			}
		}
	}
	for i := range cases {
		c := &cases[i]
		add(c.Input.Path)
		for _, d := range c.Accepted {
			add(d.Path)
		}
		for _, t := range c.Trials {
			add(t.Answer.Path)
		}
	}
	return paths
}

// secrets lists what no build may see of what lies beside its source: what tells
// answers, and the sources of those that know or judge them. What is built is a copy,
// so that these can be built all the same.
func (j *Judge) secrets() (paths []string) {
	folder, err := realPath(j.problem.Dir)
	if err != nil {
		return nil
	}
	paths = j.dataFiles(folder, j.problem.Cases)
	add := func(names ...string) {
		for _, name := range names {
			if name == "" {
				continue
			}
			if path, err := realPath(j.problem.PathOf(name)); err == nil {
				paths = append(paths, path)
			}
		}
	}
	p := j.problem
	add(p.Talk.Script, p.Talk.Program, p.Make.Script, p.Make.Program, p.Compare.Script, p.Compare.Program)
	for i := range p.Cases {
		if c := p.Cases[i].Compare; c.Custom() && c != p.Compare {
			add(c.Script, c.Program)
		}
	}
	for _, solution := range p.Solutions {
		if solution.Role == problem.Reference {
			add(solution.File)
		}
	}
	return paths
}

// checkerWorker makes the worker of what decides on the programs of another: it
// sees what is hidden from those, and what they printed.
func (j *Judge) checkerWorker(candidates box.Options) *worker {
	o := candidates
	o.Hidden = nil
	o.Decides = j.manner.decidersReport
	o.Visible = append(slices.Clone(o.Visible), j.folder, j.problem.Dir)
	for _, c := range j.checkers {
		if c.fault == nil && c.checker.script != "" {
			o.Visible = append(o.Visible, filepath.Dir(c.checker.script))
		}
	}
	return &worker{options: o}
}

// mostHidden bounds what is hidden one by one.
const mostHidden = 20_000

// realPath makes a path absolute and follows its links.
func realPath(path string) (string, error) {
	path, err := filepath.Abs(path)
	if err != nil {
		return "", err
	}
	return filepath.EvalSymlinks(path)
}
