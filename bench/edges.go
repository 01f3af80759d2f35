package main

import (
	"bytes"
	"errors"
	"fmt"
	"os"
	"os/exec"
	"path/filepath"
	"strings"
	"time"

	"coldverdict/core/compare"
	"coldverdict/core/problem"
	"coldverdict/core/toolchain"
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

// edges tells for each wrong solution of the demo whether the edge cases that its
// problem's shape yields catch it, without any case that a person wrote, and for each
// right one that they do not.
func (b *bench) edges() error {
	dir, err := b.tour()
	if err != nil {
		return err
	}
	caught, wrong := 0, 0
	for _, stop := range demo.Tour() {
		folder := filepath.Join(dir, stop.Folder)
		p, err := problem.Load(folder, vocabulary())
		if err != nil {
			return err
		}
		seen := map[string]bool{}
		for _, s := range p.Solutions {
			right := s.Expect == "" || s.Expect == "accepted"
			if seen[s.File] || s.Expect == "compile error" || right && filepath.Ext(s.File) != ".cpp" && filepath.Ext(s.File) != ".py" {
				continue
			}
			seen[s.File] = true
			began := time.Now()
			cmd := exec.Command(b.cold, "try", "--edges", "--group", "edges", "--until-failure", s.File)
			cmd.Dir = folder
			var out bytes.Buffer
			cmd.Stdout = &out
			err := cmd.Run()
			var ended *exec.ExitError
			status := 0
			if errors.As(err, &ended) {
				status = ended.ExitCode()
			} else if err != nil {
				return err
			}
			got := "passes"
			if status == 1 {
				got = "caught"
			}
			note := ""
			if caughtNow := status == 1; right == caughtNow {
				note = "   !"
			}
			if !right {
				wrong++
				if status == 1 {
					caught++
				}
			}
			fmt.Printf("edges: %-24s %-22s %s in %.1f s%s\n", stop.Folder+"/"+s.File, strings.TrimSpace(s.Expect), got, time.Since(began).Seconds(), note)
		}
	}
	fmt.Printf("edges: %d of %d wrong solutions are caught\n", caught, wrong)
	return nil
}
