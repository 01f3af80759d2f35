package main

import (
	"encoding/json"
	"errors"
	"fmt"
	"os"
	"os/exec"
	"path/filepath"
	"regexp"
	"slices"
	"strings"
	"time"

	"coldverdict/core/problem"
)

var (
	solutionTables = regexp.MustCompile(`(?ms)^\[\[(?:solution|group|case)\]\].*?(?:^$|\z)`)
	samplesOnly    = regexp.MustCompile(`(?ms)\A.*?^# Samples\n.*?(?:^# |\z)`)
)

// ready looks at each solution of the demo with nothing but samples, shape and limits: once beside a
// reference, and once alone.
func (b *bench) ready() error {
	list, err := b.solutions(".cpp", ".py", ".java")
	if err != nil {
		return err
	}
	stopped, wrong, held, right := [2]int{}, 0, [2]int{}, 0
	for _, s := range list {
		if len(s.problem.Solutions[0].Args) > 0 || s.file == referenceOf(s.problem) {
			continue // its answers are not known, or it is what others are compared with
		}
		if s.expect == "" {
			right++
		} else {
			wrong++
		}
		row := fmt.Sprintf("ready: %-22s %-22s", s.name, s.expect)
		for mode, reference := range []string{referenceFor(s.problem, s.file), ""} {
			said, err := b.readyIn(s.folder, s.file, reference)
			if err != nil {
				return err
			}
			row += "  " + said.words
			if said.stopped && s.expect == "" {
				held[mode]++
				row += " !"
			} else if said.stopped {
				stopped[mode]++
			}
		}
		fmt.Println(row)
	}
	fmt.Printf("ready: of %d wrong solutions %d are stopped beside a reference, %d alone; of %d right ones %d and %d\n", wrong, stopped[0], stopped[1], right, held[0], held[1])
	return b.readyKinds(list)
}

// readyKinds looks at the wrong solutions in bench/testdata/wrong. Each says in its first line what is wrong with
// it, and whether that shows alone or only beside a reference.
func (b *bench) readyKinds(list []tried) error {
	paths, err := filepath.Glob("bench/testdata/wrong/*/*")
	if err != nil {
		return err
	}
	all, stopped := map[string]int{}, map[string]int{}
	for _, path := range paths {
		text, err := os.ReadFile(path)
		if err != nil {
			return err
		}
		line, _, _ := strings.Cut(string(text), "\n")
		mode, kind, _ := strings.Cut(strings.TrimLeft(line, "/# "), ": ")
		folder := filepath.Base(filepath.Dir(path))
		i := slices.IndexFunc(list, func(s tried) bool { return filepath.Base(s.folder) == folder })
		if i < 0 {
			return fmt.Errorf("%s: the demo has no such problem", path)
		}
		reference := ""
		if mode == "reference" {
			reference = referenceFor(list[i].problem, "")
		}
		said, err := b.readyIn(list[i].folder, path, reference)
		if err != nil {
			return err
		}
		all[mode]++
		if said.stopped {
			stopped[mode]++
		}
		fmt.Printf("ready: %-22s %-9s  %s  %s\n", folder+"/"+filepath.Base(path), mode, said.words, kind)
	}
	fmt.Printf("ready: of %d further ones that show alone %d are stopped alone; of %d others %d beside a reference\n", all["alone"], stopped["alone"], all["reference"], stopped["reference"])
	return nil
}

// referenceOf is the reference of a problem; empty: it has none.
func referenceOf(p *problem.Problem) string {
	for _, s := range p.Solutions {
		if s.Role == problem.Reference {
			return s.File
		}
	}
	return ""
}

// referenceFor is the reference, or a right solution other than one.
func referenceFor(p *problem.Problem, tried string) string {
	if reference := referenceOf(p); reference != "" {
		return reference
	}
	for _, s := range p.Solutions {
		if s.Expect == "" && s.File != tried && (strings.HasSuffix(s.File, ".cpp") || strings.HasSuffix(s.File, ".py")) {
			return s.File
		}
	}
	return ""
}

type readySaid struct {
	stopped bool
	words   string
}

// readyIn makes a folder of a solution, which lies in a problem's folder or elsewhere, with that problem's samples,
// shape and limits, and looks at it there.
func (b *bench) readyIn(folder, path, reference string) (said readySaid, err error) {
	file := filepath.Base(path)
	if path == file {
		path = filepath.Join(folder, file)
	}
	dir, err := os.MkdirTemp(b.dir, "ready-")
	if err != nil {
		return said, err
	}
	defer os.RemoveAll(dir)
	scripts, _ := filepath.Glob(filepath.Join(folder, "*.star"))
	for _, path := range append(scripts, filepath.Join(folder, "input.shape"), path, filepath.Join(folder, "verdict.toml"), filepath.Join(folder, "cases.md"), filepath.Join(folder, reference)) {
		text, err := os.ReadFile(path)
		if err != nil {
			continue // there is none of it here
		}
		switch filepath.Base(path) {
		case "verdict.toml":
			text = solutionTables.ReplaceAll(append(text, '\n'), nil)
		case "cases.md":
			text = []byte(strings.TrimSuffix(string(samplesOnly.Find(text)), "# "))
		}
		if err := os.WriteFile(filepath.Join(dir, filepath.Base(path)), text, 0o644); err != nil {
			return said, err
		}
	}
	args := []string{"ready", file, "--json", "--seconds", "30", "--seed", "1"}
	if reference != "" {
		args = append(args, "--against", reference)
	}
	cmd := exec.Command(b.cold, args...)
	cmd.Dir = dir
	began := time.Now()
	out, err := cmd.Output()
	var ended *exec.ExitError
	if err != nil && (!errors.As(err, &ended) || ended.ExitCode() != 1 && ended.ExitCode() != 10) {
		if ended != nil {
			return said, fmt.Errorf("%s: %w: %s", file, err, ended.Stderr)
		}
		return said, err
	}
	var result struct {
		Outcome string
		Checks  []struct{ Name, Outcome, Message string }
	}
	if err := json.Unmarshal(out, &result); err != nil {
		return said, err
	}
	last := result.Checks[len(result.Checks)-1]
	said.stopped = result.Outcome == "not ready"
	said.words = fmt.Sprintf("%-28s %5.1f s", result.Outcome, time.Since(began).Seconds())
	if said.stopped {
		said.words = fmt.Sprintf("%-28s %5.1f s", "not ready: "+last.Name, time.Since(began).Seconds())
	}
	return said, nil
}
