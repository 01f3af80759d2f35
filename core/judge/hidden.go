package judge

import (
	"fmt"
	"os"
	"path/filepath"
	"slices"
	"strings"

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
		// A runtime's own files lie beside the folder that it is in.
		if program := p.Build.Program(p.Limits, nil).Path; !isBelow(program, s.options.Cache) {
			paths = append(paths, program, filepath.Dir(filepath.Dir(program)))
		}
	}
	return paths
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
