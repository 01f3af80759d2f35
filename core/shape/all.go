package shape

import (
	"bytes"
	"context"
)

// tuplesOf is how many tuples of values are looked at for each valid input that is asked for.
const tuplesOf = 8

// All returns every valid input, in the order of its values, where a shape has nothing but single integers and no more
// than so many valid inputs; ok is false otherwise. The error is the context's, or says that a script failed that
// decides what is valid.
func (s *Shape) All(ctx context.Context, most int) (list []*Input, ok bool, err error) {
	var fields []*fieldNode
	for _, item := range s.Items {
		switch item := item.(type) {
		case *lineNode:
			for _, f := range item.Fields {
				if f.Value == nil {
					continue
				}
				if !f.single() {
					return nil, false, nil
				}
				fields = append(fields, f)
			}
		case *requireNode, *blankNode:
		default:
			return nil, false, nil
		}
	}
	if len(fields) == 0 || s.calls != nil {
		return nil, false, nil
	}
	top, left := newFrame(s.top, nil), tuplesOf*most
	var from func(k int) (bool, error)
	from = func(k int) (bool, error) {
		if k == len(fields) {
			if left--; left < 0 || len(list) > most {
				return false, nil
			}
			if left%256 == 0 && ctx.Err() != nil {
				return false, ctx.Err()
			}
			in, fault, err := s.Read(bytes.NewReader((&Input{s, top}).Append(nil)), Options{})
			if err == nil && fault == nil {
				list = append(list, in)
			}
			return len(list) <= most, err
		}
		f := fields[k]
		low, wrong := evaluated(f.Value.lowEnd(), top)
		high, wrong2 := evaluated(f.Value.highEnd(), top)
		if wrong != nil || wrong2 != nil || low > high {
			return true, nil // with these values before it, it can have none
		}
		if uint64(high)-uint64(low) > uint64(left) {
			return false, nil
		}
		for x := low; ; x++ {
			top.data[f.slot] = datum{ints: []int64{x}, count: 1}
			if more, err := from(k + 1); !more || err != nil {
				return more, err
			}
			if x == high {
				return true, nil
			}
		}
	}
	if ok, err = from(0); !ok || err != nil || len(list) == 0 {
		return nil, false, err
	}
	return list, true, nil
}
