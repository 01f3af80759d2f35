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
	judge     *Judge
	worker    *worker
	generator *checker
}

// A MakerError says in what way what a person wrote to make inputs is wrong, or what
// it made.
type MakerError struct{ Err error }

func (e *MakerError) Error() string { return e.Err.Error() }
func (e *MakerError) Unwrap() error { return e.Err }

// OpenMaker makes ready what [make] of a problem names: it builds a program, or looks
// at a script. The error is the context's, a *MakerError, or says what failed on our
// side.
func OpenMaker(ctx context.Context, p *problem.Problem, env Env) (m *Maker, err error) {
	j, err := Open(p, env)
	if err != nil {
		return nil, err
	}
	m = &Maker{judge: j}
	defer func() {
		if err != nil {
			err = errors.Join(err, m.Close())
			m = nil
		}
	}()
	key := checkerKey{roleGenerator, p.Make.Script, p.Make.Program}
	m.generator = &checker{role: key.role, name: key.script + key.program}
	w := j.builder()
	err = errors.Join(m.generator.ready(ctx, j, w, key), w.close())
	if ctx.Err() != nil {
		return m, ctx.Err()
	}
	if err != nil {
		return m, &MakerError{err}
	}
	j.checkers[key] = &builtChecker{checker: *m.generator}
	m.worker = j.checkerWorker(j.sandbox())
	j.workers = append(j.workers, m.worker)
	return m, m.worker.open()
}

// Close leaves nothing behind.
func (m *Maker) Close() error { return m.judge.Close() }

// mostMade bounds an input that is made, in bytes.
const mostMade = 1 << 30

// Make makes an input: a script gets the seed and the size, from 0 to 1; a program has
// them, the number of the seed and the size as a decimal, as its arguments, and what
// it prints is the input. Where the problem has a shape, the input has it. The error
// is the context's, a *MakerError, or says what failed on our side.
func (m *Maker) Make(ctx context.Context, seed shape.Seed, size shape.Size) ([]byte, error) {
	limits := m.judge.problem.Limits.OfChecker()
	limits.Output = mostMade
	var program box.Program
	if m.generator.script == "" {
		program = m.generator.build.Program(limits, []string{fmt.Sprint(uint64(seed)), size.String()})
	} else {
		var err error
		if program, err = script.Make(m.generator.script, seed, size); err != nil {
			return nil, err
		}
	}
	var input bytes.Buffer
	errs := &box.Head{Most: KeptText}
	result, err := m.worker.Run(ctx, box.Run{Program: program, Limits: limits, Output: &input, Errors: errs})
	if err != nil {
		return nil, err
	}
	if why := (measured{result: result}).helperFailed(limits, m.generator.script != "", errs.Text); why != "" {
		return nil, &MakerError{fmt.Errorf("%s %s %s (with the seed %d and the size %s)", m.generator.role, m.generator.name, why, uint64(seed), size)}
	}
	p := m.judge.problem
	fault, err := p.CheckShape(problem.Data{Text: input.Bytes(), Size: int64(input.Len())}, shape.Options{})
	if err != nil && !errors.Is(err, io.EOF) {
		return nil, err
	}
	if fault != nil {
		return nil, &MakerError{fmt.Errorf("what %s makes with the seed %d and the size %s does not have the shape that %s says: %w",
			m.generator.name, uint64(seed), size, problem.ShapeFile, fault)}
	}
	return input.Bytes(), nil
}
