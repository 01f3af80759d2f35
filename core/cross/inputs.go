package cross

import (
	"bytes"
	"context"
	"sync"

	"coldverdict/core/judge"
	"coldverdict/core/problem"
	"coldverdict/core/shape"
)

// An input is one that was generated.
type input struct {
	Origin
	in   *shape.Input // taken apart; nil: no shape describes it
	text []byte
}

// A source makes inputs.
type source struct {
	bundling bundling
	shape    *shape.Shape // nil: there is none
	packs    bool         // inputs can be joined
	served   bool         // one process of a solution may answer several
	serves   func() bool  // it does by now; nil: nothing is served
	mu       sync.Mutex
	maker    *judge.Maker // what [make] names; nil: the shape makes
}

// openSource makes ready what makes inputs.
func openSource(ctx context.Context, p *problem.Problem, o Options) (*source, error) {
	s := &source{shape: p.Shape, bundling: bundlingOf(p)}
	if p.Make == (problem.Make{}) || o.Style != "" && p.Shape != nil {
		if p.Shape == nil {
			return nil, ErrNoInputs
		}
		s.packs = s.bundling.joins() && p.Shape.Packs() > 0
		return s, nil
	}
	var err error
	s.maker, err = judge.OpenMaker(ctx, p, o.Env)
	return s, err
}

func (s *source) close() error {
	if s.maker == nil {
		return nil
	}
	return s.maker.Close()
}

// together is how many of some inputs go into one run now: one where they would be run one after the other.
func (s *source) together(most int) int {
	if s.served && !s.packs && (s.serves == nil || !s.serves()) {
		return 1
	}
	return most
}

// styles are those that inputs can be generated in; the empty one is any of them.
func (s *source) styles() []string {
	if s.maker != nil {
		return []string{""}
	}
	return append([]string{""}, s.shape.Styles()...)
}

// The largest counts of random inputs that look for wrong answers, rung by rung; what
// fails at all nearly always fails with few of everything.
var rungs = []int64{1, 2, 3, 4, 5, 6, 8, 10, 13, 17, 22, 28, 36, 46, 60, 100, 200}

// nearlyLargest is a size at which counts may have any value.
var nearlyLargest = (shape.Largest - 1).Written()

// sizeOf is the size of a rung.
func (s *source) sizeOf(rung int) shape.Size {
	if s.maker == nil {
		return min(s.shape.SizeFor(rungs[rung]), nearlyLargest) // at the largest all counts are
	}
	return shape.Size(int64(shape.Largest) * int64(rung) / int64(2*len(rungs))).Written()
}

// make makes a random input.
func (s *source) make(ctx context.Context, o Origin) (*input, error) {
	if s.maker != nil {
		s.mu.Lock()
		text, err := s.maker.Make(ctx, o.Seed, o.Size)
		s.mu.Unlock()
		if err != nil {
			return nil, err
		}
		return s.apart(o, bytes.Clone(text))
	}
	in, err := s.shape.Make(shape.Making{Seed: o.Seed, Size: o.Size, Style: o.Style, OneCase: s.packs, Alike: true})
	if err != nil {
		return nil, err
	}
	return &input{Origin: o, in: in}, nil
}

// apart takes an input apart, where a shape describes it.
func (s *source) apart(o Origin, text []byte) (*input, error) {
	made := &input{Origin: o, text: text}
	if s.shape == nil {
		return made, nil
	}
	in, fault, err := s.shape.Read(bytes.NewReader(text), shape.Options{})
	if err == nil && fault != nil {
		err = fault
	}
	made.in = in
	return made, err
}

// mostEdges bounds the edge cases of a search.
const mostEdges = 60

// edges finds the edge cases of the shape; none where something else makes inputs.
func (s *source) edges(ctx context.Context, do func(shape.EdgeCase)) error {
	if s.maker != nil {
		return nil
	}
	all, err := s.shape.EachEdgeCase(ctx, mostEdges, do)
	if err == nil && len(all.Cases) == 0 {
		_, err = s.shape.Make(shape.Making{Size: shape.Largest / 5})
	}
	return err
}

// edge makes an edge case.
func (s *source) edge(c shape.EdgeCase) (*input, error) {
	in, err := s.shape.Make(c.Making)
	if err != nil {
		return nil, err
	}
	return &input{Origin: Origin{Edge: c.Name, Seed: c.Making.Seed, Size: c.Making.Size}, in: in}, nil
}

// bytes returns the input as it is written.
func (i *input) bytes() []byte {
	if i.text == nil {
		i.text = i.in.Append(nil)
	}
	return i.text
}

// A pack is what goes into one run: an input, several that were joined, or several
// calls.
type pack struct {
	inputs []*input
	joined *shape.Input // of several in one file; else nil
	texts  [][]byte     // one for each call, otherwise one
	size   int64        // bytes of all of it
	cases  int          // in the file; 0: inputs are not made of cases
	stream stream
	epoch  *epoch // of random inputs
	first  int    // index of the first input in it
}

// packed joins inputs for one run, as many of the first as there is room for, and
// returns how many those are.
func (s *source) packed(list []*input) (p *pack, taken int, err error) {
	if p, err = s.bundling.pack(s, list); err != nil {
		return nil, 0, err
	}
	for _, text := range p.texts {
		p.size += int64(len(text))
	}
	if s.packs && len(p.texts) == 1 {
		p.cases = p.apart().Cases()
	}
	return p, len(p.inputs), nil
}

// apart is the input of a file taken apart; nil: no shape describes it.
func (p *pack) apart() *shape.Input {
	if p.joined != nil {
		return p.joined
	}
	return p.inputs[0].in
}
