package shape

// at is the index, from 0, of what is being described: of the element of an array, or of the body of a repeat. So
// bounds can differ from one to the next: p: int[n-1] 1..at+1, b: int[n] a[at]..1e9. but takes a value out of a range.

// A position is at in an expression.
type position struct{ pos Pos }

func (e *position) place() Pos     { return e.pos }
func (e *position) String() string { return "at" }

func (e *position) eval(f *frame) int64 {
	for ; f != nil; f = f.above {
		if f.within {
			return f.element
		}
		if f.body {
			return f.at
		}
	}
	return fail(e.pos, "at has no value here")
}

// usesPosition reports that an expression names at.
func usesPosition(e exprNode) bool {
	switch e := e.(type) {
	case *position:
		return true
	case *reference:
		return e.index != nil && usesPosition(e.index)
	case *unary:
		return usesPosition(e.x)
	case *binary:
		return usesPosition(e.x) || usesPosition(e.y)
	case *call:
		for _, a := range e.args {
			if usesPosition(a) {
				return true
			}
		}
	}
	return false
}

// changing reports that the bounds of the elements of an array differ.
func (v *valueNode) changing() bool {
	if v.Base != typeInt || len(v.Dims) != 1 {
		return false
	}
	if v.Range != nil && (usesPosition(v.Range.Low) || usesPosition(v.Range.High)) {
		return true
	}
	for _, e := range v.But {
		if usesPosition(e) {
			return true
		}
	}
	return false
}

// atElement does something while at is the index of an element.
func (f *frame) atElement(i int64, do func()) {
	element, within := f.element, f.within
	f.element, f.within = i, true
	defer func() { f.element, f.within = element, within }()
	do()
}

// positions looks for at where it has no meaning: outside of arrays and of bodies of a repeat.
func (r *resolver) positions(f *fieldNode) {
	v := f.Value
	inRepeat := false
	for b := r.now; b != nil; b = b.above {
		inRepeat = inRepeat || b.repeated
	}
	for _, e := range v.expressions() {
		if usesPosition(e) && !inRepeat && !(v.changing() && !v.isLength(e)) {
			r.wrong(e.place(), "at is the index of an element of an array, or of a body of a repeat; here is neither")
		}
	}
	if v.changing() && v.inOrder() {
		r.wrong(v.Pos, "an array whose bounds differ is in no order: say so with require")
	}
}

// expressions are those of a value.
func (v *valueNode) expressions() (all []exprNode) {
	all = append(all, v.Args...)
	add := func(l *lengthNode) {
		switch {
		case l == nil:
		case l.Range != nil:
			all = append(all, l.Range.Low, l.Range.High)
		default:
			all = append(all, l.Exact)
		}
	}
	add(v.Length)
	for _, d := range v.Dims {
		add(d)
	}
	if v.Range != nil {
		all = append(all, v.Range.Low, v.Range.High)
	}
	if v.Diagonal != nil {
		all = append(all, v.Diagonal)
	}
	return append(all, v.But...)
}

// isLength reports that an expression says how many elements there are.
func (v *valueNode) isLength(e exprNode) bool {
	for _, d := range v.Dims {
		if d.Exact == e || d.Range != nil && (d.Range.Low == e || d.Range.High == e) {
			return true
		}
	}
	return false
}

// changingNumbers fills an array whose bounds differ, or in which some values must not be: each element by the style
// of the whole, within its own bounds.
func (m *maker) changingNumbers(field *fieldNode, f *frame, a []int64) (wrong *unmet) {
	v := field.Value
	s := styleNamed(arrayStyles, m.style(field, arrayNames))
	seen := map[int64]bool{}
	exclusions := newExclusions(v, f, len(a))
	for i := range a {
		f.atElement(int64(i), func() {
			low, high := v.bounds(f)
			if low > high {
				wrong = &unmet{pos: v.Range.Pos, text: "an integer in " + v.Range.shown(low, high)}
				return
			}
			fits := func(x int64) bool {
				_, out := exclusions.has(x)
				return x >= low && x <= high && !out && !(v.unlike() && seen[x])
			}
			s.fill(m.random, a[i:i+1], m.fewOf(interval{low: low, high: high}, false))
			for tries := 0; !fits(a[i]) && tries < 40; tries++ {
				a[i] = m.between(low, high)
			}
			for step := int64(1); !fits(a[i]) && step < 4096; step++ {
				for _, x := range []int64{a[i] + step, a[i] - step} {
					if fits(x) {
						a[i] = x
						break
					}
				}
			}
			if !fits(a[i]) {
				wrong = &unmet{pos: v.Pos, text: "a value that is none of those taken out"}
			}
			if v.unlike() {
				seen[a[i]] = true
			}
		})
		if wrong != nil {
			return wrong
		}
	}
	v.order(a)
	return nil
}

// distinctNumbers fills an array in which no two values are alike but one, which may stand there any number of times.
func (m *maker) distinctNumbers(field *fieldNode, f *frame, a []int64, low, high int64) *unmet {
	v := field.Value
	often := v.DistinctBut.eval(f)
	may := often >= low && often <= high
	room := uint64(high) - uint64(low) // values but one
	if !may {
		room = max(room, room+1) // all; of 64 bits one less
	}
	times := 0
	if may && len(a) > 0 {
		times = m.index(len(a) + 1)
		if uint64(len(a)-times) > room && room < uint64(len(a)) {
			times = len(a) - int(room)
		}
	}
	rest := make([]int64, len(a)-times)
	if uint64(len(rest)) > room {
		return &unmet{pos: v.Pos, text: "distinct integers in " + v.Range.shown(low, high), hopeless: true}
	}
	// One value more than is needed lets that one be taken out.
	more := rest
	if may {
		more = make([]int64, min(uint64(len(rest)), room)+1)
	}
	distinct(m.random, more, interval{low: low, high: high}, styleNamed(arrayStyles, m.style(field, arrayNames)))
	k := 0
	for _, x := range more {
		if x != often && k < len(rest) {
			rest[k] = x
			k++
		}
	}
	for i := range a {
		if a[i] = often; i < len(rest) {
			a[i] = rest[i]
		}
	}
	for i := len(a) - 1; i > 0; i-- {
		j := m.index(i + 1)
		a[i], a[j] = a[j], a[i]
	}
	return nil
}
