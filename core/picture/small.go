package picture

import (
	"bytes"

	"coldverdict/core/problem"
	"coldverdict/core/shape"
)

// What is drawn unasked, beside an input that fails, is small.
const (
	mostSmall         = 4 << 10 // bytes of an input
	mostSmallVertices = 12
	mostSmallItems    = 10
	mostSmallPictures = 2
)

// Beside returns the pictures of a case's input that are worth a look beside its text; none of a sealed one.
func Beside(p *problem.Problem, input problem.Data) []Picture {
	if p.Shape == nil || p.Kind().Calls || input.Sealed || input.Size > mostSmall {
		return nil
	}
	text, err := input.Head(mostSmall)
	if err != nil {
		return nil
	}
	return Small(p.Shape, text)
}

// Small returns the pictures of an input that say more than its text and can be seen at a glance: graphs, trees, grids,
// intervals and points. There are none where the input is not as the shape says.
func Small(s *shape.Shape, text []byte) (list []Picture) {
	in, fault, err := s.Read(bytes.NewReader(text), shape.Options{})
	if err != nil || fault != nil {
		return nil
	}
	all, _ := Of(in)
	for _, one := range all {
		switch {
		case one.Graph != nil && one.Graph.N >= 3 && one.Graph.N <= mostSmallVertices && len(one.Graph.Edges) <= 2*mostSmallVertices,
			len(one.Grid) >= 3 && len(one.Grid) <= mostSmallItems,
			len(one.Spans) >= 2 && len(one.Spans) <= mostSmallItems,
			one.Points != nil && len(one.Points.At) >= 3 && len(one.Points.At) <= mostSmallItems:
			list = append(list, one)
		}
	}
	return list[:min(len(list), mostSmallPictures)]
}
