package main

import (
	"bufio"
	"fmt"
	"os"
	"os/exec"
	"path/filepath"
	"strings"
	"time"
)

// imports compares taking over 10,000 pairs with a copy of the same files, and
// times trying them.
func (b *bench) imports() error {
	const pairs = 10_000
	official := b.path("official")
	for side, text := range map[string]func(int) string{
		"in":  func(i int) string { return fmt.Sprint(i, " 4\n") },
		"out": func(i int) string { return fmt.Sprint(i+4, "\n") },
	} {
		dir := filepath.Join(official, side)
		if err := os.MkdirAll(dir, 0o755); err != nil {
			return err
		}
		for i := range pairs {
			if err := os.WriteFile(filepath.Join(dir, fmt.Sprint(i, ".txt")), []byte(text(i)), 0o644); err != nil {
				return err
			}
		}
	}
	var ours, byHand, ratio, tried []float64
	for i := range b.rounds {
		dir, err := b.problem(fmt.Sprint("imports-", i), "tiny.cpp", 0)
		if err != nil {
			return err
		}
		copied, _, err := timed(dir, "cp", "-r", official, filepath.Join(dir, "by-hand"))
		if err != nil {
			return err
		}
		imported, _, err := timed(dir, b.cold, "case", "import", official, "--yes")
		if err != nil {
			return err
		}
		took, _, err := timed(dir, b.cold, "try")
		if err != nil {
			return err
		}
		ours, byHand = append(ours, imported.Seconds()), append(byHand, copied.Seconds())
		ratio, tried = append(ratio, imported.Seconds()/copied.Seconds()), append(tried, took.Seconds())
	}
	fmt.Printf("import: %d pairs in %s s, cp -r of the same files %s s, %s times as long; to try them %s s\n",
		pairs, spread(ours, "%.2f"), spread(byHand, "%.2f"), spread(ratio, "%.1f"), spread(tried, "%.1f"))
	return nil
}

// watch measures the time from a save to the moment at which cold begins to
// build.
func (b *bench) watch() error {
	dir, err := b.problem("watch", "tiny.cpp", 1)
	if err != nil {
		return err
	}
	source, err := os.ReadFile(filepath.Join(dir, "tiny.cpp"))
	if err != nil {
		return err
	}
	cmd := exec.Command(b.cold, "try", "--watch")
	cmd.Dir = dir
	out, err := cmd.StdoutPipe()
	if err != nil {
		return err
	}
	if err := cmd.Start(); err != nil {
		return err
	}
	defer cmd.Wait()
	defer cmd.Process.Signal(os.Interrupt)
	lines := bufio.NewScanner(out)
	until := func(part string) time.Time {
		for lines.Scan() && !strings.Contains(lines.Text(), part) {
		}
		return time.Now()
	}
	until("largest")
	var late []float64
	for range 4 * b.rounds {
		time.Sleep(300 * time.Millisecond)
		saved := time.Now()
		if err := os.WriteFile(filepath.Join(dir, "tiny.cpp"), fmt.Appendf(nil, "%s// %d\n", source, saved.UnixNano()), 0o644); err != nil {
			return err
		}
		late = append(late, until(":").Sub(saved).Seconds()*1000) // the time of day comes first
		until("largest")
	}
	fmt.Printf("watch: the build begins %s ms after a save\n", spread(late, "%.0f"))
	return lines.Err()
}
