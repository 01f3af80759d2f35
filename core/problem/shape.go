package problem

import (
	"errors"
	"fmt"
	"io"
	"io/fs"
	"path/filepath"

	"coldverdict/core/script"
	"coldverdict/core/shape"
)

// largestShape bounds input.shape, in bytes.
const largestShape = 1 << 20

// shape reads input.shape.
func (l *loader) shape() {
	text, ok := l.read(ShapeFile, largestShape, "say less in it")
	if !ok || l.brokenCall {
		return
	}
	var err error
	switch call := l.problem.Call; {
	case call != nil && call.Class != nil:
		l.problem.Shape, err = shape.ParseCalls(string(text), shape.Calls{Takes: call.takes, Read: call.called})
	case call != nil:
		l.problem.Shape, err = shape.ParseArguments(string(text), call.Data())
	default:
		l.problem.Shape, err = shape.Parse(string(text))
	}
	if err == nil {
		l.predicates()
	}
	var mistakes shape.Mistakes
	if errors.As(err, &mistakes) {
		for _, m := range mistakes {
			l.wrong(ShapeFile, m.Line, "column %d: %s", m.Column, m.Text)
		}
	}
}

// predicates gives the shape the scripts that it names.
func (l *loader) predicates() {
	for i, h := range l.problem.Shape.Holds() {
		valid, err := script.Predicate(filepath.Join(l.problem.Dir, h.File))
		switch {
		case filepath.Ext(h.File) != ".star":
			l.wrong(ShapeFile, h.Pos.Line, "column %d: %q is no script; its name ends in .star", h.Pos.Column, h.File)
		case errors.Is(err, fs.ErrNotExist):
			l.wrong(ShapeFile, h.Pos.Line, "column %d: there is no file %s; write it, with def holds(input), or take this line out", h.Pos.Column, h.File)
		case err != nil:
			l.wrong(ShapeFile, h.Pos.Line, "column %d: %v", h.Pos.Column, err)
		default:
			l.problem.Shape.Hold(i, valid)
		}
	}
}

// Generates reports that something says what inputs look like, so that they can be generated.
func (p *Problem) Generates() bool { return p.Shape != nil || p.Make != (Make{}) }

// CheckShape checks an input against input.shape, and returns the first fault; nil
// if it is valid, or if there is no shape. The error says that the input could not
// be read.
func (p *Problem) CheckShape(d Data, o shape.Options) (*shape.Fault, error) {
	if p.Shape == nil {
		return nil, nil
	}
	file, err := d.Open()
	if err != nil {
		return nil, err
	}
	defer file.Close()
	return p.Shape.Check(file, o)
}

// checkAdded reports an input that has not the shape of the others. What people
// paste is taken loosely.
func (p *Problem) checkAdded(input []byte) error {
	fault, err := p.CheckShape(Data{Text: input, Size: int64(len(input))}, shape.Options{Loose: true})
	if err != nil && !errors.Is(err, io.EOF) {
		return err
	}
	if fault != nil {
		return &RequestError{fmt.Sprintf("the input does not have the shape that %s says: %v", ShapeFile, fault)}
	}
	return nil
}
