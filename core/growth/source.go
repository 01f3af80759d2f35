package growth

import (
	"bytes"
	"context"
	"fmt"
	"io"
	"math"
	"slices"

	"coldverdict/core/judge"
	"coldverdict/core/problem"
	"coldverdict/core/settings"
	"coldverdict/core/shape"
)

// counting counts the bytes of an output.
type counting struct{ bytes int64 }

func (c *counting) begin(int) io.Writer {
	c.bytes = 0
	return c
}

func (c *counting) Write(p []byte) (int, error) {
	c.bytes += int64(len(p))
	return len(p), nil
}

// An input was generated.
type input struct {
	sizes []int64
	data  problem.Data
}

// A source generates inputs that grow.
type source interface {
	// names are what grows.
	names() []string
	// largest are their values in the largest input.
	largest() []int64
	// axes are the ways in which they can grow: All, and single ones.
	axes() []int
	// reach is the largest value on an axis, from 1; that of the longest one where all grow.
	reach(axis int) float64
	// styles are those in which inputs can be generated; the first is the plain one.
	styles() []string
	// generate makes an input for a value on an axis.
	generate(ctx context.Context, axis int, value float64, style string, seed shape.Seed) (input, error)
	close() error
}

// openSource finds out what can grow.
func openSource(ctx context.Context, p *problem.Problem, o Options) (source, error) {
	if p.Make != (problem.Make{}) && len(o.Scale) == 0 {
		maker, err := judge.OpenMaker(ctx, p, o.Env)
		return &makerSource{maker}, err
	}
	if p.Shape == nil {
		return nil, ErrNothingGrows
	}
	return newShapeSource(p.Shape, o.Scale)
}

// mostNames bounds how many names grow.
const mostNames = 3

// scaled are the names that grow: those that are asked for, or those that the shape scales.
func scaled(s *shape.Shape, asked []string) (spans []shape.Span, err error) {
	all := s.Spans()
	for _, name := range asked {
		at := slices.IndexFunc(all, func(span shape.Span) bool { return span.Name == name })
		if at < 0 {
			var known []string
			for _, span := range all {
				known = append(known, span.Name)
			}
			return nil, &ScaleError{fmt.Sprintf("no integer with bounds is called %q; %s", name, settings.Nearest(name, known))}
		}
		spans = append(spans, all[at])
	}
	if len(spans) > mostNames {
		return nil, &ScaleError{fmt.Sprintf("%d names are to grow; up to %d can", len(spans), mostNames)}
	}
	if len(spans) > 0 {
		return spans, nil
	}
	for _, span := range all {
		if slices.Contains(s.Scale, span.Name) && !span.Cases {
			spans = append(spans, span)
		}
	}
	return spans[:min(len(spans), mostNames)], nil
}

// values are the integers that grow where nothing has a length: those with more than a few values.
func values(s *shape.Shape) (spans []shape.Span) {
	for _, span := range s.Spans() {
		if span.High >= 20 && !span.Cases {
			spans = append(spans, span)
		}
	}
	return spans[:min(len(spans), mostNames)]
}

// A shapeSource generates by a shape.
type shapeSource struct {
	shape *shape.Shape
	spans []shape.Span // none: it grows as a whole, and what counts is the bytes of an input
	// lengths says that they are lengths of fields, which grow with the size as a whole.
	lengths bool
}

// newShapeSource chooses what grows: names, or else lengths, or else values, or else the whole.
func newShapeSource(s *shape.Shape, asked []string) (*shapeSource, error) {
	spans, err := scaled(s, asked)
	if err != nil || len(spans) > 0 {
		return &shapeSource{shape: s, spans: spans}, err
	}
	if lengths := s.Lengths(); len(lengths) > 0 {
		return &shapeSource{shape: s, spans: lengths[:min(len(lengths), mostNames)], lengths: true}, nil
	}
	if len(s.Scale) == 0 && !s.Repeats() {
		return &shapeSource{shape: s, spans: values(s)}, nil
	}
	return &shapeSource{shape: s}, nil
}

func (s *shapeSource) names() (names []string) {
	for _, span := range s.spans {
		if s.lengths {
			names = append(names, "|"+span.Name+"|")
		} else {
			names = append(names, span.Name)
		}
	}
	if len(names) == 0 {
		return []string{"bytes"}
	}
	return names
}

func (s *shapeSource) largest() (values []int64) {
	for _, span := range s.spans {
		values = append(values, span.High)
	}
	return values
}

func (s *shapeSource) axes() []int {
	list := []int{All}
	for i := range s.spans {
		if len(s.spans) > 1 && !s.lengths {
			list = append(list, i)
		}
	}
	return list
}

func (s *shapeSource) reach(axis int) float64 {
	if axis != All {
		return float64(s.spans[axis].High)
	}
	longest := 1.0
	for _, span := range s.spans {
		longest = math.Max(longest, float64(span.High))
	}
	if len(s.spans) == 0 {
		return 1 << 20
	}
	return longest
}

func (s *shapeSource) styles() []string { return append([]string{""}, s.shape.GrownStyles()...) }

func (s *shapeSource) close() error { return nil }

func (s *shapeSource) generate(_ context.Context, axis int, value float64, style string, seed shape.Seed) (input, error) {
	share := 1.0
	if reach := s.reach(axis); reach > 1 {
		share = math.Log(math.Max(1, value)) / math.Log(reach)
	}
	numbers := map[string]int64{}
	for i, span := range s.spans {
		low, high := math.Max(1, float64(span.Low)), float64(span.High)
		switch {
		case s.lengths:
		case axis == i:
			numbers[span.Name] = int64(math.Round(value))
		case axis != All:
			numbers[span.Name] = span.Low
		case value >= s.reach(axis):
			numbers[span.Name] = span.High
		default:
			numbers[span.Name] = int64(math.Round(low * math.Pow(high/low, share)))
		}
	}
	size := shape.Size(share * float64(shape.Largest))
	if axis != All {
		size = 0
	}
	in, err := s.shape.Grown(seed, size, numbers, style)
	if err != nil {
		return input{}, err
	}
	text := in.Append(nil)
	made := input{data: problem.Data{Text: text, Size: int64(len(text))}}
	for _, span := range s.spans {
		n, _ := in.Number(span.Name)
		if s.lengths {
			n, _ = in.Length(span.Name)
		}
		made.sizes = append(made.sizes, n)
	}
	if len(s.spans) == 0 {
		made.sizes = []int64{int64(len(text))}
	}
	return made, nil
}

// A makerSource generates with what [make] names.
type makerSource struct{ maker *judge.Maker }

func (s *makerSource) names() []string   { return []string{"bytes"} }
func (s *makerSource) largest() []int64  { return nil }
func (s *makerSource) axes() []int       { return []int{All} }
func (s *makerSource) reach(int) float64 { return 1 << 20 }
func (s *makerSource) styles() []string  { return []string{""} }

func (s *makerSource) generate(ctx context.Context, _ int, value float64, _ string, seed shape.Seed) (input, error) {
	size := shape.Size(math.Log2(math.Max(1, value)) / 20 * float64(shape.Largest))
	text, err := s.maker.Make(ctx, seed, size)
	if err != nil {
		return input{}, err
	}
	text = bytes.Clone(text)
	return input{[]int64{int64(len(text))}, problem.Data{Text: text, Size: int64(len(text))}}, nil
}

func (s *makerSource) close() error { return s.maker.Close() }
