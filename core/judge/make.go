package judge

import (
	"bytes"
	"context"
	"errors"
	"fmt"
	"io"

	"coldverdict/core/box"
	"coldverdict/core/problem"
	"coldverdict/core/script"
	"coldverdict/core/shape"
)

// A Maker runs what a person wrote to make inputs. It must be closed.
type Maker struct {
	session *session
	worker  *worker
	made    *readied
}

// A MakerError says in what way what a person wrote to make inputs is wrong, or what
// it made.
type MakerError struct{ Err error }

func (e *MakerError) Error() string { return e.Err.Error() }
func (e *MakerError) Unwrap() error { return e.Err }

// OpenMaker makes ready what [make] of a problem names: it builds a program, or looks
// at a script. The error is the context's, a *MakerError, or says what failed on our
// side.
func OpenMaker(ctx context.Context, p *problem.Problem, o Options) (m *Maker, err error) {
	s, err := begin(p, o, nil)
	if err != nil {
		return nil, err
	}
	m = &Maker{session: s}
	defer func() {
		if err != nil {
			err = errors.Join(err, m.Close())
			m = nil
		}
	}()
	want := wanted{roleMaker, p.Make.Script, p.Make.Program}
	m.made = &readied{arbiter: arbiter{role: want.role, name: want.script + want.program}}
	w := s.builder()
	err = errors.Join(m.made.ready(ctx, s, w, want), w.close())
	if ctx.Err() != nil {
		return m, ctx.Err()
	}
	if err != nil {
		return m, &MakerError{err}
	}
	s.arbiters[want] = m.made
	m.worker = s.arbiterWorker(box.Options{Scratch: s.scratch.Dir, Uncontained: o.Uncontained, Groups: <-s.groups})
	s.workers = append(s.workers, m.worker)
	return m, m.worker.open()
}

// Close leaves nothing behind.
func (m *Maker) Close() error { return m.session.end() }

// mostMade bounds an input that is made, in bytes.
const mostMade = 1 << 30

// Make makes an input: a script gets the seed and the size, from 0 to 1; a program has
// them, the number of the seed and the size as a decimal, as its arguments, and what
// it prints is the input. Where the problem has a shape, the input has it. The error
// is the context's, a *MakerError, or says what failed on our side.
func (m *Maker) Make(ctx context.Context, seed shape.Seed, size shape.Size) ([]byte, error) {
	limits := m.session.problem.Limits.OfChecker()
	limits.Output = mostMade
	var program box.Program
	if m.made.script == "" {
		program = m.made.build.Program(limits, []string{fmt.Sprint(uint64(seed)), size.String()})
	} else {
		var err error
		if program, err = script.Make(m.made.script, seed, size); err != nil {
			return nil, err
		}
	}
	var input bytes.Buffer
	errs := &box.Head{Most: KeptText}
	result, err := m.worker.Run(ctx, box.Run{Program: program, Limits: limits, Output: &input, Errors: errs})
	if err != nil {
		return nil, err
	}
	if _, err := m.made.decided(result, &box.Head{Text: []byte("accept")}, errs, limits); err != nil {
		return nil, &MakerError{fmt.Errorf("%w (with the seed %d and the size %s)", err, uint64(seed), size)}
	}
	p := m.session.problem
	fault, err := p.CheckShape(problem.Data{Text: input.Bytes(), Size: int64(input.Len())}, shape.Options{})
	if err != nil && !errors.Is(err, io.EOF) {
		return nil, err
	}
	if fault != nil {
		return nil, &MakerError{fmt.Errorf("what %s makes with the seed %d and the size %s does not have the shape that %s says: %w",
			m.made.name, uint64(seed), size, problem.ShapeFile, fault)}
	}
	return input.Bytes(), nil
}
