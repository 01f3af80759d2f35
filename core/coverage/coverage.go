// Package coverage says which parts of a solution's source ran on an input, where its language has
// a build that tells.
package coverage

import (
	"bytes"
	"context"
	"encoding/binary"
	"errors"
	"fmt"
	"maps"
	"slices"
	"sync"

	"coldverdict/core/box"
	"coldverdict/core/judge"
	"coldverdict/core/problem"
	"coldverdict/core/toolchain"
	"coldverdict/core/verdict"
)

// A Tracer runs a build of a solution that says which parts of it ran. It must be
// closed.
type Tracer struct {
	judge   *judge.Judge
	runner  toolchain.Runner
	program box.Program
	limits  verdict.Limits
	parts   map[uint64]int // the line of each

	mu  sync.Mutex // guards the runner and what follows
	ran map[uint64]bool
}

// Open builds a solution so. There is none for functions, for talks and for
// programs that read named files, nor where the language or the compiler has no such
// build; it is nil then. The error is the context's, or says what failed on our side.
func Open(ctx context.Context, p *problem.Problem, solution problem.Solution, limits verdict.Limits, env judge.Env) (t *Tracer, err error) {
	if !p.Kind().Text || p.Files != (problem.Files{}) {
		return nil, nil
	}
	j, err := judge.Open(p, env)
	if err != nil {
		return nil, err
	}
	t = &Tracer{judge: j, ran: map[uint64]bool{}}
	defer func() {
		if err != nil || t.parts == nil {
			err = errors.Join(err, j.Close())
			t = nil
		}
	}()
	build, err := j.Build(ctx, toolchain.Source{Path: p.Path(solution), Language: solution.Language, Traced: true})
	if ctx.Err() != nil {
		return t, ctx.Err()
	}
	if err != nil || !build.Traced || build.Failed {
		return t, nil // that it does not build is told by others
	}
	parts, err := build.Parts()
	if err != nil || len(parts) == 0 {
		return t, nil
	}
	t.limits, _ = j.Limits(build.Language, limits)
	t.limits = judge.Widened(t.limits)
	t.program = build.Program(t.limits, solution.Args)
	if t.runner, err = j.Runner(&build); err != nil {
		return t, err
	}
	t.parts = parts
	return t, nil
}

// Close leaves nothing behind.
func (t *Tracer) Close() error { return t.judge.Close() }

// Trace runs an input and returns the parts that ran, in ascending order; none where
// the program did not come to its end. It may be called by several goroutines. The
// error is the context's, or says what failed on our side.
func (t *Tracer) Trace(ctx context.Context, input []byte) (parts []uint64, err error) {
	file, err := box.Memory(input)
	if err != nil {
		return nil, err
	}
	defer file.Close()
	t.mu.Lock()
	defer t.mu.Unlock()
	var told bytes.Buffer
	_, err = t.runner.Run(ctx, box.Run{Program: t.program, Limits: t.limits, Input: file, Decision: &told})
	if err != nil {
		return nil, fmt.Errorf("the traced build: %w", err)
	}
	for list := told.Bytes(); len(list) >= 8; list = list[8:] {
		at := binary.LittleEndian.Uint64(list)
		if _, own := t.parts[at]; own {
			parts = append(parts, at)
			t.ran[at] = true
		}
	}
	slices.Sort(parts)
	return parts, nil
}

// Reached returns how many parts of the source have run, of how many, and the lines on
// which parts begin, but none that has run.
func (t *Tracer) Reached() (ran, of int, missed []int) {
	t.mu.Lock()
	defer t.mu.Unlock()
	lines := map[int]bool{}
	for _, line := range t.parts {
		lines[line] = true
	}
	for at := range t.ran {
		delete(lines, t.parts[at])
	}
	return len(t.ran), len(t.parts), slices.Sorted(maps.Keys(lines))
}
