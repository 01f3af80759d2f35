package judge

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
	"coldverdict/core/problem"
	"coldverdict/core/toolchain"
	"coldverdict/core/verdict"
)

// A Tracer runs a build of a solution that says which parts of it ran. It must be
// closed.
type Tracer struct {
	session *session
	program box.Program
	limits  verdict.Limits
	parts   map[uint64]int // the line of each

	mu  sync.Mutex // guards the worker and what follows
	ran map[uint64]bool
}

// OpenTracer builds a solution so. There is none for functions, for talks and for
// programs that read named files, nor where the language or the compiler has no such
// build; it is nil then. The error is the context's, or says what failed on our side.
func OpenTracer(ctx context.Context, p *problem.Problem, solution problem.Solution, o Options) (t *Tracer, err error) {
	if p.Call != nil || p.Interactive() || p.Files != (problem.Files{}) {
		return nil, nil
	}
	s, err := begin(p, o, nil)
	if err != nil {
		return nil, err
	}
	t = &Tracer{session: s, ran: map[uint64]bool{}}
	defer func() {
		if err != nil || t.parts == nil {
			err = errors.Join(err, s.end())
			t = nil
		}
	}()
	w := s.builder()
	build, err := s.kit.Build(ctx, w, toolchain.Source{Path: p.Path(solution), Language: solution.Language, Traced: true})
	err = errors.Join(err, w.close())
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
	t.limits, _ = p.Limits.For(s.options.Languages.Family(build.Language), o.Limits)
	t.limits = widened(t.limits)
	t.program = build.Program(t.limits, solution.Args)
	options := box.Options{Scratch: s.scratch.Dir, Uncontained: o.Uncontained, Groups: <-s.groups, Decides: true}
	if !o.Uncontained {
		plan := Plan{Solution: solution, Build: &build}
		hidden, err := s.hidden([]Plan{plan})
		if err != nil {
			return t, err
		}
		options.Hidden = hidden
	}
	s.workers = append(s.workers, &worker{options: options})
	t.parts = parts
	return t, nil
}

// Close leaves nothing behind.
func (t *Tracer) Close() error { return t.session.end() }

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
	_, err = t.session.workers[0].Run(ctx, box.Run{Program: t.program, Limits: t.limits, Input: file, Decision: &told})
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
