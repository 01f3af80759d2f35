package main

import (
	"bytes"
	"fmt"
	"os"
	"os/exec"
	"path/filepath"
	"strconv"
	"strings"
	"time"

	"coldverdict/core/shape"
)

// shapes measures making and checking large inputs beside a C program that only
// writes the same bytes from memory, both into a file, without the start of either.
func (b *bench) shapes() error {
	for _, one := range []struct{ name, text string }{
		{"200,000 integers", "n: int 2e5..2e5\nw: int[n] 1..1e9"},
		{"a tree of 200,000", "n: int 2e5..2e5\nt: tree(n)"},
		{"a connected simple graph of 100,000 and 200,000", "n: int 1e5..1e5, m: int 2e5..2e5\ng: graph(n, m) connected"},
		{"a million characters", "n: int 1e6..1e6\ns: token(n, \"a-z\")"},
	} {
		s, err := shape.Parse(one.text)
		if err != nil {
			return err
		}
		dir := filepath.Join(b.dir, "shape")
		if err := os.MkdirAll(dir, 0o755); err != nil {
			return err
		}
		made, again := filepath.Join(dir, "made"), filepath.Join(dir, "again")
		var making, checking, commands []float64
		for round := range 4 * b.rounds {
			began := time.Now()
			in, err := s.Make(shape.Making{Seed: shape.Seed(round), Size: shape.Largest, Style: plainOf(s)})
			if err != nil {
				return err
			}
			text := in.Append(nil)
			if err := os.WriteFile(made, text, 0o644); err != nil {
				return err
			}
			make := time.Since(began)
			began = time.Now()
			if fault, err := s.Check(bytes.NewReader(text), shape.Options{}); fault != nil || err != nil {
				return fmt.Errorf("%v %w", fault, err)
			}
			check := time.Since(began)
			bare, process, err := b.dump(made, again)
			if err != nil {
				return err
			}
			making = append(making, make.Seconds()/bare)
			checking = append(checking, check.Seconds()/bare)
			if err := os.WriteFile(filepath.Join(dir, "input.shape"), []byte(one.text+"\n"), 0o644); err != nil {
				return err
			}
			took, _, err := timed(dir, "sh", "-c", b.cold+" shape make --size 1 --style "+plainOf(s)+" --seed "+strconv.Itoa(round)+" > again")
			if err != nil {
				return err
			}
			commands = append(commands, took.Seconds()/process)
		}
		fmt.Printf("shape: %s: made in %s times the time in which C writes the bytes, checked in %s; as whole commands %s\n",
			one.name, spread(making, "%.1f"), spread(checking, "%.1f"), spread(commands, "%.1f"))
	}
	return nil
}

// plainOf is the style in which nothing special is made.
func plainOf(s *shape.Shape) string {
	for _, name := range s.Styles() {
		if name == "random" {
			return name
		}
	}
	return "uniform"
}

// dump lets C write a file from memory. It returns how many seconds the writing took,
// and the whole command.
func (b *bench) dump(from, to string) (bare, process float64, err error) {
	file, err := os.Create(to)
	if err != nil {
		return 0, 0, err
	}
	defer file.Close()
	var said bytes.Buffer
	cmd := exec.Command("sh", "-c", b.path("dump")+" "+from)
	cmd.Stdout, cmd.Stderr = file, &said
	began := time.Now()
	if err := cmd.Run(); err != nil {
		return 0, 0, err
	}
	process = time.Since(began).Seconds()
	micros, err := strconv.ParseFloat(strings.TrimSpace(said.String()), 64)
	return micros / 1e6, process, err
}
