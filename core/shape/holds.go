package shape

import "fmt"

// What no form says, a script does: holds "valid.star". It is asked of every input that has the form: when one is
// checked, generated or made smaller.

// A Predicate says of the values of an input that has the form of a shape why it is invalid all the same; "" where it
// is valid. The error is that of the predicate itself. It may be called by several at once.
type Predicate func(in Values) (why string, err error)

// A Held is a predicate that a shape names.
type Held struct {
	Pos  Pos
	File string
}

// Holds are the predicates that the shape names, in its order.
func (s *Shape) Holds() (list []Held) {
	for _, h := range s.holds {
		list = append(list, Held{h.Pos, h.File})
	}
	return list
}

// Hold gives the shape one of its predicates, by its place in Holds. Those that it was not given are not asked.
func (s *Shape) Hold(i int, valid Predicate) { s.holds[i].valid = valid }

// heldBy asks all predicates.
func (s *Shape) heldBy(in *Input) (*Fault, error) {
	var values Values
	for _, h := range s.holds {
		if h.valid == nil {
			continue
		}
		if values == nil {
			values = in.Values()
		}
		why, err := h.valid(values)
		if err != nil {
			return nil, err
		}
		if why != "" {
			return &Fault{Text: fmt.Sprintf("%s: %s", h.File, why)}, nil
		}
	}
	return nil, nil
}

// heldLook is how many values asking a script counts for.
const heldLook = 2000

// mostHeld bounds how many inputs are generated until predicates hold.
const mostHeld = 300

// held makes inputs until all predicates hold, from some of them on without heeding any style.
func (m *maker) held(makeOne func() (*Input, error)) (*Input, error) {
	for draw := 1; ; draw++ {
		if draw == plainAfter {
			m.plain++
		}
		m.values = 0
		m.worked(heldLook)
		in, err := makeOne()
		if err != nil {
			return nil, err
		}
		fault, err := m.shape.heldBy(in)
		switch {
		case err != nil:
			return nil, err
		case fault == nil:
			return in, nil
		case draw == mostHeld:
			h := m.shape.holds[0]
			return nil, &GenerateError{h.Pos, fmt.Sprintf("none of %d inputs was valid (%s); say more of it in the shape, or let a script make inputs: [make] in verdict.toml", draw, fault.Text)}
		}
	}
}
