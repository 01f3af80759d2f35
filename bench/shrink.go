package main

import (
	"bytes"
	"context"
	"fmt"
	"os"
	"os/exec"
	"path/filepath"
	"strings"
	"time"

	"coldverdict/core/shape"
)

// planted are mistakes in solutions of the demo's problems, with the bytes of a
// smallest input that shows each.
var planted = []struct {
	problem, bug string
	smallest     int
}{
	{"teams", "tie", len("2 2\n1 1\n")}, {"teams", "unsorted", len("4 3\n2 2 1\n")}, {"teams", "neighbours", len("3 4\n1 1 2 2\n")},
	{"teams", "wraps", len("1 2\n147483648 2000000000\n")}, {"teams", "last-crate", len("1 2\n1 1\n")}, {"teams", "two-alike", len("1 2\n1 1\n")},
	{"teams", "room-for-100", len("3 101\n") + 2*101},
	{"depots", "sum-wraps", len("1\n3\n715827882 715827883 715827883\n")}, {"depots", "stale", len("2\n1\n1\n0\n\n")}, {"depots", "carried", len("2\n1\n1\n0\n\n")},
	{"depots", "no-line", len("1\n0\n\n")}, {"depots", "cases-past-100", len("101\n") + 3*101}, {"depots", "same-as-before", len("2\n0\n\n0\n\n")},
	{"relay", "last-link", len("2 1\n1 2\n")}, {"relay", "last-beacon", len("1 0\n")}, {"relay", "one-part", len("2 0\n")}, {"relay", "loop", len("1 1\n1 1\n")}, {"relay", "fork", len("1 2\n1 1\n1 1\n")},
	{"drift", "rest", len("2\n0 0\n0 0\n")}, {"drift", "far", len("2\n0 147483648\n1000000000 -1000000000\n")},
	{"drift", "back", len("2\n0 0\n-1 -1\n")}, {"drift", "seven", len("8\n") + 8*len("0 0\n")},
}

// shrinks shrinks inputs of about 1 KB to 1 MB on which planted mistakes show, by
// running the right program and the wrong one on each try.
func (b *bench) shrinks() error {
	fmt.Printf("shrink: %-24s %10s %8s %9s %6s %8s\n", "mistake", "from", "to", "smallest", "tries", "seconds")
	for _, p := range planted {
		text, err := os.ReadFile(filepath.Join("demo", "problems", p.problem, "input.shape"))
		if err != nil {
			return err
		}
		s, err := shape.Parse(string(text))
		if err != nil {
			return err
		}
		tries := 0
		fails := func(ctx context.Context, input []byte) (bool, error) {
			tries++
			right, err := b.answer(ctx, p.problem, p.bug, "right", input)
			if err != nil {
				return false, err
			}
			wrong, err := b.answer(ctx, p.problem, p.bug, "wrong", input)
			return !bytes.Equal(right, wrong), err
		}
		for _, size := range []shape.Size{shape.Largest / 2, shape.Largest} {
			in, err := failing(s, size, fails)
			if err != nil {
				return err
			}
			if in == nil {
				fmt.Printf("shrink: %-24s shows in no input of size %s\n", p.problem+", "+p.bug, size)
				continue
			}
			from := len(in.Append(nil))
			tries = 0
			began := time.Now()
			ctx, cancel := context.WithTimeout(context.Background(), time.Minute)
			small, complete, err := s.Shrink(ctx, in, fails)
			cancel()
			if err != nil {
				return err
			}
			end := small.Append(nil)
			shown := strings.ReplaceAll(string(end[:min(len(end), 40)]), "\n", "/")
			if !complete {
				shown += " (out of time)"
			}
			fmt.Printf("shrink: %-24s %10d %8d %9d %6d %8.2f   %s\n", p.problem+", "+p.bug, from, len(end), p.smallest, tries, time.Since(began).Seconds(), shown)
		}
	}
	return nil
}

// failing makes inputs until one shows the mistake; nil if none of them does.
func failing(s *shape.Shape, size shape.Size, fails func(context.Context, []byte) (bool, error)) (*shape.Input, error) {
	for seed := range shape.Seed(300) {
		in, err := s.Make(shape.Making{Seed: seed, Size: size, Exact: seed%2 == 0})
		if err != nil {
			return nil, err
		}
		if bad, err := fails(context.Background(), in.Append(nil)); bad || err != nil {
			return in, err
		}
	}
	return nil, nil
}

func (b *bench) answer(ctx context.Context, problem, bug, way string, input []byte) ([]byte, error) {
	cmd := exec.CommandContext(ctx, b.path("planted"), problem, bug, way)
	cmd.Stdin = bytes.NewReader(input)
	out, err := cmd.Output()
	if err != nil {
		return nil, fmt.Errorf("planted %s %s: %w", problem, bug, err)
	}
	return out, nil
}
