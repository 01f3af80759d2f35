package cross

import (
	"bytes"
	"context"
	"errors"
	"slices"
	"time"

	"coldverdict/core/shape"
	"coldverdict/core/toolchain"
)

// inFile: a run reads one file, which holds one input, or several that are joined as its
// cases where their shape allows that.
type inFile struct{}

func (inFile) joins() bool { return true }

// mostCases is how many cases of a file are worth the while.
const mostCases = 100_000

// mostServed is how many inputs a server is given at once at the most.
const mostServed = 512

func (inFile) most(s *source) int {
	switch {
	case s.packs:
		return int(min(s.shape.Packs(), mostCases))
	case s.served:
		return mostServed
	}
	return 1
}

func (inFile) edges(s *source) int {
	if s.served {
		return mostEdgesTogether
	}
	return 1
}

// pack joins inputs where that can be, and otherwise lays them side by side.
func (inFile) pack(s *source, list []*input) (*pack, error) {
	if len(list) == 1 || !s.packs || list[0].Edge != "" {
		p := &pack{inputs: list}
		for _, i := range list {
			p.texts = append(p.texts, i.bytes())
		}
		return p, nil
	}
	apart := make([]*shape.Input, len(list))
	for i := range list {
		apart[i] = list[i].in
	}
	joined, n := s.shape.Pack(apart)
	if n < 1 {
		return nil, errors.New("not even one case fits into a file of its own") // which Make would not have made
	}
	return &pack{inputs: list[:n], joined: joined, texts: [][]byte{joined.Append(nil)}}, nil
}

func (inFile) failing(p *pack, at int) *input {
	if len(p.texts) > 1 {
		return p.inputs[at]
	}
	return &input{Origin: p.inputs[0].Origin, in: p.apart()}
}

func (inFile) only(p *pack, at int) (*pack, int) {
	if len(p.texts) == 1 {
		return p, at
	}
	one := *p
	one.inputs, one.texts = p.inputs[at:at+1], p.texts[at:at+1]
	one.size, one.first = int64(len(one.texts[0])), p.first+at
	return &one, 0
}

func (inFile) startTime(l *toolchain.Language) time.Duration {
	return time.Duration(l.StartSeconds * float64(time.Second))
}

func (inFile) turned(p *pack, printed [][]byte) (texts, expected [][]byte, ok bool) {
	n := p.cases
	if len(p.texts) > 1 {
		return nil, nil, false
	}
	parts, ok := partsOf(printed[0], n)
	if !ok || n < 2 {
		return nil, nil, false
	}
	var turned []byte
	for i := n - 1; i >= 0; i-- {
		turned = append(turned, parts[i]...)
	}
	return [][]byte{p.apart().Reversed().Append(nil)}, [][]byte{turned}, true
}

// partsOf divides an output into the answers of so many cases: as many lines each. ok
// is false where that does not come out even.
func partsOf(text []byte, n int) (parts [][]byte, ok bool) {
	text = bytes.TrimRight(text, " \n\r\t")
	text = append(text[:len(text):len(text)], '\n')
	lines := bytes.SplitAfter(text, []byte("\n"))
	lines = lines[:len(lines)-1]
	if n < 1 || len(lines)%n > 0 {
		return nil, false
	}
	each := len(lines) / n
	for i := range n {
		parts = append(parts, bytes.Join(lines[i*each:(i+1)*each], nil))
	}
	return parts, true
}

// mostAlone is up to how many cases in a file are each run alone to see what the
// candidate answers without company.
const mostAlone = 8

func (inFile) alone(a *accusation, texts [][]byte, own ownAnswers) ([][]byte, bool, error) {
	in := a.read(texts[0])
	if in == nil {
		return nil, false, nil
	}
	if in.Cases() > mostAlone { // the opposite order will do
		printed, ok, err := own(a.candidate, [][]byte{in.Reversed().Append(nil)})
		if err != nil || !ok {
			return nil, false, err
		}
		parts, ok := partsOf(printed[0], in.Cases())
		slices.Reverse(parts)
		return [][]byte{bytes.Join(parts, nil)}, ok, nil
	}
	var joined []byte
	for i := range in.Cases() {
		alone, ok, err := own(a.candidate, [][]byte{in.Part(i, i+1).Append(nil)})
		if err != nil || !ok {
			return nil, false, err
		}
		joined = append(joined, alone[0]...)
	}
	return [][]byte{joined}, true, nil
}

func (inFile) cutDown(ctx context.Context, a *accusation, f *Found) ([][]byte, error) {
	f.Before = a.pack.size
	in := a.pack.apart()
	if in == nil {
		return a.makeSmaller(ctx, f)
	}
	if a.source.packs {
		var err error
		if in, err = a.cutCases(ctx, f, in); err != nil {
			return [][]byte{in.Append(nil)}, err
		}
	}
	small, complete, err := a.shrink(ctx, in)
	f.Complete = complete
	if a.source.packs && err == nil && small.Cases() > 1 {
		f.Company, err = a.company(ctx, small)
	}
	return [][]byte{small.Append(nil)}, err
}

// shrink shrinks one input of a file. Where it is other cases that make one fail, the
// opposite order may be the one in which it does; the smallest input has that order.
func (a *accusation) shrink(ctx context.Context, in *shape.Input) (small *shape.Input, complete bool, err error) {
	turned := false
	fails := func(ctx context.Context, text []byte) (failed bool, err error) {
		if failed, err = a.fails(ctx, text); failed {
			turned = false
		}
		if !failed && err == nil && a.way == AfterOthers {
			if failed, err = a.fails(ctx, a.read(text).Reversed().Append(nil)); failed {
				turned = true
			}
		}
		return failed, err
	}
	if a.way == AfterOthers {
		if _, err = fails(ctx, in.Append(nil)); err != nil {
			return in, false, err
		}
	}
	if a.source.served && a.canAsk() {
		return shrinkAhead(ctx, a.problem.Shape, in, a.failsEach, fails)
	}
	if small, complete, err = a.problem.Shape.Shrink(ctx, in, fails); turned {
		small = small.Reversed()
	}
	return small, complete, err
}

// cutCases halves the cases of a file as long as one half fails. Where none does, it
// is their company that counts, and all of them are left.
func (a *accusation) cutCases(ctx context.Context, f *Found, in *shape.Input) (*shape.Input, error) {
	for n := in.Cases(); n > 1; n = in.Cases() {
		half := n / 2
		found := false
		for _, part := range []*shape.Input{in.Part(0, half), in.Part(half, n)} {
			failed, err := a.fails(ctx, part.Append(nil))
			if err != nil {
				return in, err
			}
			if failed {
				in, found = part, true
				f.Origin = a.originOf(part, f.Origin)
				break
			}
		}
		if !found {
			return in, nil
		}
	}
	f.Before = int64(len(in.Append(nil)))
	return in, nil
}

// originOf finds which of the inputs that were joined a single case is.
func (a *accusation) originOf(one *shape.Input, otherwise Origin) Origin {
	if one.Cases() > 1 || a.pack.joined == nil {
		return otherwise
	}
	text := one.Append(nil)
	for i := range a.pack.inputs {
		if bytes.Equal(a.pack.joined.Part(i, i+1).Append(nil), text) {
			return a.pack.inputs[i].Origin
		}
	}
	return otherwise
}

// company returns how many cases an input has where each of them on its own is answered as
// expected; 0 if one is not.
func (a *accusation) company(ctx context.Context, in *shape.Input) (int, error) {
	if a.way == AfterOthers {
		return in.Cases(), nil
	}
	for i := range in.Cases() {
		failed, err := a.fails(ctx, in.Part(i, i+1).Append(nil))
		if err != nil || failed {
			return 0, err
		}
	}
	return in.Cases(), nil
}

// The inputs that are generated to find a smaller one, where no shape tells how to make one
// smaller: of each size so many.
const (
	smallerSizes = 12
	ofEachSize   = 25
)

// makeSmaller makes other inputs, from the smallest on, until one fails in the same
// way.
func (a *accusation) makeSmaller(ctx context.Context, f *Found) ([][]byte, error) {
	one := a.pack.inputs[0]
	for i := range smallerSizes {
		size := shape.Size(int64(one.Size) * int64(i) / smallerSizes)
		for n := range ofEachSize {
			smaller, err := a.source.make(ctx, Origin{Seed: one.Seed + shape.Seed(n), Size: size})
			if err != nil {
				return [][]byte{one.bytes()}, err
			}
			if len(smaller.bytes()) >= len(one.bytes()) {
				continue
			}
			failed, err := a.fails(ctx, smaller.bytes())
			if err != nil {
				return [][]byte{one.bytes()}, err
			}
			if failed {
				f.Origin = smaller.Origin
				return [][]byte{smaller.bytes()}, nil
			}
		}
	}
	return [][]byte{one.bytes()}, nil
}
