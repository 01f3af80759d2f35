package main

import (
	"encoding/json"
	"fmt"
	"os"
	"os/exec"
	"path/filepath"
	"slices"
	"strings"
)

// grown is what cold grow says of one solution, as far as it is looked at here.
type grown struct {
	Time struct {
		Law      string
		Near     []string
		Exponent float64
		Style    string `json:"worst_style"`
		Fits     string
		Largest  struct{ Low, High, Measured float64 } `json:"at_largest"`
	}
}

// growth asks cold grow for the law of each program in bench/programs/grow, whose first line says
// it, beside one busy loop.
func (b *bench) growth() error {
	sources, err := filepath.Glob("bench/programs/grow/*/*.*")
	if err != nil {
		return err
	}
	busy := exec.Command("/bin/sh", "-c", "while :; do :; done")
	if err := busy.Start(); err != nil {
		return err
	}
	defer func() { busy.Process.Kill(); busy.Wait() }()
	fmt.Println("\n| program | law | said | exponent | worst on | predicted, s | measured, s | fits |\n|---|---|---|---|---|---|---|---|")
	all, right, within, measured := 0, 0, 0, 0
	for _, source := range sources {
		if slices.Contains([]string{".shape", ".toml"}, filepath.Ext(source)) {
			continue
		}
		text, err := os.ReadFile(source)
		if err != nil {
			return err
		}
		law, _, _ := strings.Cut(strings.TrimLeft(string(text), "/# "), "\n")
		cmd := exec.Command(b.cold, "grow", filepath.Base(source), "--json")
		cmd.Dir = filepath.Dir(source)
		out, _ := cmd.Output() // its status says whether it fits
		var said struct{ Solutions []grown }
		if err := json.Unmarshal(out, &said); err != nil || len(said.Solutions) != 1 {
			return fmt.Errorf("cold grow %s: %w", source, err)
		}
		t := said.Solutions[0].Time
		all++
		mark := ""
		if slices.Contains(append(t.Near, t.Law), law) {
			right++
		} else {
			mark = " (!)"
		}
		if t.Largest.Measured > 0 {
			measured++
			if t.Largest.Low <= t.Largest.Measured && t.Largest.Measured <= t.Largest.High {
				within++
			} else {
				mark += " *"
			}
		}
		fmt.Printf("| %s | %s | %s%s | %.2f | %s | %.3g to %.3g | %.3g | %s |\n", strings.TrimPrefix(source, "bench/programs/grow/"), law,
			strings.Join(append([]string{t.Law}, t.Near...), ", "), mark, t.Exponent, t.Style, t.Largest.Low, t.Largest.High, t.Largest.Measured, t.Fits)
	}
	fmt.Printf("\nThe law, or one that cannot be told from it: %d of %d. The largest input within what was predicted: %d of %d.\n", right, all, within, measured)
	return nil
}
