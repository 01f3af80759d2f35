package main

import (
	"errors"
	"fmt"
	"os"
	"os/exec"
	"path/filepath"
	"slices"
	"time"

	"coldverdict/core/compare"
	"coldverdict/core/problem"
	"coldverdict/core/toolchain"
	"coldverdict/core/verdict"
	"coldverdict/demo"
)

// tour writes the demo's problems into a folder, once.
func (b *bench) tour() (dir string, err error) {
	dir = b.path("tour")
	if _, err := os.Stat(dir); err == nil {
		return dir, nil
	}
	if err := exec.Command(b.cold, "demo", "--out", dir).Run(); err != nil && !errors.As(err, new(*exec.ExitError)) {
		return "", err
	}
	return dir, nil
}

// vocabulary is what the demo's verdict.toml files may say.
func vocabulary() problem.Vocabulary {
	languages := toolchain.Ours()
	return problem.Vocabulary{Modes: compare.Modes(), AnyOrders: compare.AnyOrders(), IsSource: languages.IsSource,
		Languages: languages.NamesWithStandards(), LimitNames: languages.Names()}
}

// A tried solution is one of the demo's.
type tried struct {
	problem *problem.Problem
	folder  string // of the problem
	file    string
	name    string // with the problem's
	expect  string // empty: it is right
}

// solutions are those of the demo that build, once each: all wrong ones, and right ones with some extensions.
func (b *bench) solutions(right ...string) (list []tried, err error) {
	dir, err := b.tour()
	if err != nil {
		return nil, err
	}
	for _, stop := range demo.Tour() {
		folder := filepath.Join(dir, stop.Folder)
		p, err := problem.Load(folder, vocabulary())
		if err != nil {
			return nil, err
		}
		seen := map[string]bool{}
		for _, s := range p.Solutions {
			one := tried{p, folder, s.File, stop.Folder + "/" + s.File, s.Expect}
			if s.Met(verdict.Accepted) {
				one.expect = ""
			}
			if seen[s.File] || s.Met(verdict.CompileError) || one.expect == "" && !slices.Contains(right, filepath.Ext(s.File)) {
				continue
			}
			seen[s.File] = true
			list = append(list, one)
		}
	}
	return list, nil
}

// edges tells for each wrong solution of the demo whether the edge cases that its
// problem's shape yields catch it, without any case that a person wrote, and for each
// right one that they do not.
func (b *bench) edges() error {
	list, err := b.solutions(".cpp", ".py")
	if err != nil {
		return err
	}
	caught, wrong := 0, 0
	for _, s := range list {
		began := time.Now()
		cmd := exec.Command(b.cold, "try", "--edges", "--group", "edges", "--until-failure", s.file)
		cmd.Dir = s.folder
		err := cmd.Run()
		var ended *exec.ExitError
		if err != nil && !errors.As(err, &ended) {
			return err
		}
		found := ended != nil && ended.ExitCode() == 1
		got, note := "passes", ""
		if found {
			got = "caught"
		}
		if found == (s.expect == "") {
			note = "   !"
		}
		if s.expect != "" {
			wrong++
			if found {
				caught++
			}
		}
		fmt.Printf("edges: %-24s %-22s %s in %.1f s%s\n", s.name, s.expect, got, time.Since(began).Seconds(), note)
	}
	fmt.Printf("edges: %d of %d wrong solutions are caught\n", caught, wrong)
	return nil
}
