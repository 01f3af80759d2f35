package cross

import (
	"bytes"
	"context"
	"slices"
	"time"

	"coldverdict/core/shape"
	"coldverdict/core/toolchain"
)

// asCalls: inputs are the arguments of calls, which one process makes one after the other.
type asCalls struct{}

// mostEdgesTogether is how many small edge cases are tried together at the most.
const mostEdgesTogether = 16

// mostCalls is how many calls one process makes at the most.
const mostCalls = 2048

func (asCalls) joins() bool { return false }

func (asCalls) most(*source) int { return mostCalls }

func (asCalls) edges(*source) int { return mostEdgesTogether }

func (asCalls) pack(_ *source, list []*input) (*pack, error) {
	p := &pack{inputs: list}
	for _, i := range list {
		p.texts = append(p.texts, i.bytes())
	}
	return p, nil
}

func (asCalls) failing(p *pack, at int) *input { return p.inputs[at] }

func (asCalls) only(p *pack, at int) (*pack, int) { return p, at }

// startTime is nothing: a call begins when its process has started.
func (asCalls) startTime(*toolchain.Language) time.Duration { return 0 }

func (asCalls) turned(p *pack, printed [][]byte) (texts, expected [][]byte, ok bool) {
	for i := len(p.texts) - 1; i >= 0; i-- {
		texts, expected = append(texts, p.texts[i]), append(expected, printed[i])
	}
	return texts, expected, len(texts) > 1
}

func (asCalls) alone(a *accusation, texts [][]byte, own ownAnswers) (all [][]byte, ok bool, err error) {
	for i := range texts {
		alone, ok, err := own(a.candidate, texts[i:i+1])
		if err != nil || !ok {
			return nil, false, err
		}
		all = append(all, alone...)
	}
	return all, true, nil
}

// cutDown finds the fewest calls in a row of which the last one fails, and shrinks
// the arguments of each.
func (asCalls) cutDown(ctx context.Context, a *accusation, f *Found) ([][]byte, error) {
	list := slices.Clone(a.pack.inputs[:a.at+1])
	last := list[a.at]
	texts := func(list []*input) (all [][]byte) {
		for _, i := range list {
			all = append(all, i.bytes())
		}
		return all
	}
	alone := false
	var err error
	if a.way == AfterOthers {
		var asMade bool
		if asMade, err = a.fails(ctx, texts(list)...); !asMade && err == nil { // then it was the opposite order
			list = slices.Clone(a.pack.inputs[a.at:])
			slices.Reverse(list)
		}
	} else {
		alone, err = a.fails(ctx, last.bytes())
	}
	if err != nil {
		return texts(list), err
	}
	if alone {
		list = []*input{last}
	}
	for _, i := range list {
		f.Before += int64(len(i.bytes()))
	}
	if len(list) > 1 {
		if err := a.fewerCalls(ctx, &list, texts); err != nil {
			return texts(list), err
		}
	}
	f.Complete = true
	for changed := true; changed; {
		changed = false
		for i := range list {
			if list[i].in == nil {
				continue
			}
			before := list[i].bytes()
			fails := func(ctx context.Context, text []byte) (bool, error) {
				all := texts(list)
				all[i] = text
				return a.fails(ctx, all...)
			}
			var small *shape.Input
			var complete bool
			if len(list) == 1 && a.canAsk() {
				small, complete, err = shrinkAhead(ctx, a.problem.Shape, list[i].in, a.failsEach, fails)
			} else {
				small, complete, err = a.problem.Shape.Shrink(ctx, list[i].in, fails)
			}
			list[i] = &input{Origin: list[i].Origin, in: small}
			if err != nil {
				return texts(list), err
			}
			f.Complete = f.Complete && complete
			changed = changed || complete && len(list) > 1 && !bytes.Equal(before, list[i].bytes())
		}
	}
	if len(list) > 1 {
		f.Company = len(list)
	}
	return texts(list), nil
}

// fewerCalls leaves out calls before the last one, in halves first and one by one at
// last.
func (a *accusation) fewerCalls(ctx context.Context, list *[]*input, texts func([]*input) [][]byte) error {
	for part := max(1, len(*list)-1); ; part /= 2 {
		for at := 0; at < len(*list)-1; {
			fewer := slices.Delete(slices.Clone(*list), at, min(at+part, len(*list)-1))
			failed, err := a.fails(ctx, texts(fewer)...)
			if err != nil {
				return err
			}
			if failed {
				*list = fewer
			} else {
				at += part
			}
		}
		if part == 1 {
			return nil
		}
	}
}
