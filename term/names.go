package term

import (
	"path/filepath"
	"slices"
	"strings"

	"coldverdict/core/problem"
)

// solutionName is the file of a solution with its arguments, and its language where its
// extension does not say it. A file outside the problem's folder has its own name only.
func solutionName(s problem.Solution) string {
	file := s.File
	if filepath.IsAbs(file) {
		file = filepath.Base(file)
	}
	return fullName(file, s)
}

func fullName(file string, s problem.Solution) string {
	name := strings.Join(append([]string{file}, s.Args...), " ")
	if s.Language != "" {
		name += " (" + s.Language + ")"
	}
	return Visible(name)
}

// SolutionNames are the names of several solutions, each with as little of its path as tells
// it from the others.
func SolutionNames(list []problem.Solution) []string {
	names := make([]string, len(list))
	for i, s := range list {
		parts := strings.Split(filepath.ToSlash(filepath.Clean(s.File)), "/")
		for n := 1; n <= len(parts); n++ {
			tail := strings.Join(parts[len(parts)-n:], "/")
			names[i] = fullName(tail, s)
			if !slices.ContainsFunc(list, func(other problem.Solution) bool {
				file := filepath.ToSlash(filepath.Clean(other.File))
				return filepath.Clean(other.File) != filepath.Clean(s.File) && (file == tail || strings.HasSuffix(file, "/"+tail))
			}) {
				break
			}
		}
	}
	return names
}
