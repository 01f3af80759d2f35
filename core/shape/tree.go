package shape

import (
	"io"
	"slices"
	"strconv"
)

// An Input is an input taken apart: a tree of values that has the form of its shape.
// It can be written back to the very bytes that it was read from.
type Input struct {
	shape *Shape
	top   *frame
}

// Read takes a valid input apart. What is taken loosely is written strictly. The
// fault and the error are those of Check; there is no Input where there is one.
func (s *Shape) Read(in io.Reader, o Options) (*Input, *Fault, error) {
	top, fault, err := s.read(in, o, true)
	if fault != nil || err != nil {
		return nil, fault, err
	}
	return &Input{s, top}, nil, nil
}

// Append writes the input behind some bytes: lines, or the arguments of a call.
func (in *Input) Append(dst []byte) []byte {
	if in.shape.takes != nil {
		return in.appendCall(dst)
	}
	if in.shape.calls != nil {
		w := &writer{}
		w.items(in.shape.Items, in.top)
		return in.shape.calls.write(dst, string(w.text))
	}
	w := &writer{text: slices.Grow(dst, in.top.roughly())}
	w.items(in.shape.Items, in.top)
	return w.text
}

// roughly is about how many bytes a frame takes when it is written.
func (f *frame) roughly() (bytes int) {
	for i := range f.data {
		d := &f.data[i]
		if n := len(d.ints); n > 0 {
			bytes += n * (2 + len(strconv.FormatInt(d.ints[n/2], 10)))
		}
		for _, text := range d.texts {
			bytes += len(text) + 1
		}
		for _, body := range d.bodies {
			bytes += body.roughly()
		}
	}
	return bytes
}

// Count returns the value of a name that is one integer and is declared outside of
// all blocks.
func (in *Input) Count(name string) (n int64, ok bool) {
	for _, f := range in.shape.top.fields {
		if d := &in.top.data[f.slot]; f.Name == name && f.single() && len(d.ints) == 1 {
			return d.ints[0], true
		}
	}
	return 0, false
}

// single reports a field that is one integer.
func (f *fieldNode) single() bool {
	return f.Value.Base == typeInt && len(f.Value.Dims) == 0 && !f.ofEdges
}

// clone copies a frame with all that lies in it.
func (f *frame) clone(above *frame) *frame {
	c := &frame{data: slices.Clone(f.data), above: above, at: f.at, body: f.body}
	for i := range c.data {
		d := &c.data[i]
		d.ints, d.texts, d.bodies = slices.Clone(d.ints), slices.Clone(d.texts), slices.Clone(d.bodies)
		for k, body := range d.bodies {
			d.bodies[k] = body.clone(c)
		}
	}
	return c
}

// eachField visits all fields of some items in a frame, and of the bodies in it, with
// the frame in which each lies. What is on the lines of edges comes before the edges.
func eachField(list []node, f *frame, do func(field *fieldNode, f *frame)) {
	fieldsOf(list, func(field *fieldNode) { do(field, f) })
	for _, item := range list {
		if slot, inner := blockOf(item, f); inner != nil {
			for _, body := range f.data[slot].bodies {
				eachField(inner, body, do)
			}
		}
	}
}

// fieldsOf visits the fields of some items, without those in blocks.
func fieldsOf(list []node, do func(field *fieldNode)) {
	for _, item := range list {
		line, ok := item.(*lineNode)
		if !ok {
			continue
		}
		for _, field := range line.Fields {
			if field.Value == nil {
				continue
			}
			for _, w := range field.Value.With {
				if w.Value != nil {
					do(w)
				}
			}
			do(field)
		}
	}
}

// A writer writes values as an input holds them.
type writer struct {
	text []byte
	pad  int // digits that integers have at the least
}

func (w *writer) end() { w.text = append(w.text, '\n') }

func (w *writer) items(list []node, f *frame) {
	for _, item := range list {
		switch item := item.(type) {
		case *lineNode:
			w.line(item, f)
		case *casesNode:
			d := &f.data[item.Count.slot]
			w.text = strconv.AppendInt(w.text, d.ints[0], 10)
			w.end()
			for _, body := range d.bodies {
				w.items(item.Items, body)
			}
		case *repeatNode:
			for i, body := range f.data[item.slot].bodies {
				if item.ByBlank && i > 0 {
					w.end()
				}
				w.items(item.Items, body)
			}
			if item.HasUntil {
				w.text = append(w.text, item.Until...)
				w.end()
			}
		case *eitherNode:
			d := &f.data[item.slot]
			w.items(item.Branches[d.count], d.bodies[0])
		case *blankNode:
			w.end()
		}
	}
}

func (w *writer) line(l *lineNode, f *frame) {
	first := true
	for i, field := range l.Fields {
		v := field.Value
		if v == nil {
			w.blank(first || field.Joined)
			w.text = append(w.text, field.Literal...)
			first = false
			continue
		}
		d := &f.data[field.slot]
		if i == len(l.Fields)-1 && !first && len(v.Dims) == 0 && len(d.texts) == 1 && d.texts[0] == "" {
			break // it leaves no blank at the end of the line
		}
		w.pad = v.Pad
		first = v.Base.of().write(w, v, d, f, first || field.Joined)
		w.pad = 0
		if v.alone() {
			return
		}
	}
	w.end()
}

// list writes the values of a datum on a line, and returns whether nothing stands there yet.
func (w *writer) list(d *datum, first bool) bool {
	if len(d.texts) == 0 {
		w.integers(d.ints, first)
		return first && len(d.ints) == 0
	}
	for i := range d.texts {
		w.blank(first)
		w.value(d, i)
		first = false
	}
	return first
}

// size is how many single values a datum holds.
func (d *datum) size() int { return len(d.ints) + len(d.texts) }

func (w *writer) blank(first bool) {
	if !first {
		w.text = append(w.text, ' ')
	}
}

// integers writes integers with a blank before each but the first of a line.
func (w *writer) integers(list []int64, first bool) {
	text := w.text
	for i, x := range list {
		if i > 0 || !first {
			text = append(text, ' ')
		}
		if w.pad > 0 {
			text = appendPadded(text, x, w.pad)
			continue
		}
		text = strconv.AppendInt(text, x, 10)
	}
	w.text = text
}

func (w *writer) value(d *datum, i int) {
	if len(d.texts) > 0 {
		w.text = append(w.text, d.texts[i]...)
		return
	}
	w.text = appendPadded(w.text, d.ints[i], w.pad)
}

func (w *writer) rows(d *datum, rows, columns int) {
	for i := range rows {
		for j := range columns {
			w.blank(j == 0)
			w.value(d, i*columns+j)
		}
		w.end()
	}
}

func (w *writer) edges(v *valueNode, d *datum, f *frame) {
	for i := range len(d.ints) / 2 {
		w.value(d, 2*i)
		w.text = append(w.text, ' ')
		w.value(d, 2*i+1)
		for _, more := range v.With {
			w.text = append(w.text, ' ')
			if more.Value == nil {
				w.text = append(w.text, more.Literal...)
				continue
			}
			w.pad = more.Value.Pad
			w.value(&f.data[more.slot], i)
			w.pad = 0
		}
		w.end()
	}
}

// EachCount visits the names that count something, in all blocks, with their values.
func (in *Input) EachCount(do func(name string, n int64)) {
	eachField(in.shape.Items, in.top, func(field *fieldNode, f *frame) {
		if d := &f.data[field.slot]; field.Name != "" && field.counts && field.single() && len(d.ints) == 1 {
			do(field.Name, d.ints[0])
		}
	})
}
