package shape

// A square of integers may be symmetric, and have something of its own where row and column are the same, as a matrix
// of distances has 0.

// square reports that both lengths are the same.
func (v *valueNode) square() bool {
	return len(v.Dims) == 2 && v.Dims[0].Exact != nil && v.Dims[1].Exact != nil && v.Dims[0].Exact.String() == v.Dims[1].Exact.String()
}

// mirror makes a square symmetric, and puts in its diagonal.
func (v *valueNode) mirror(a []int64, in *frame) {
	if len(a) == 0 || !v.Symmetric && v.Diagonal == nil {
		return
	}
	n := int(v.Dims[0].Exact.eval(in))
	for i := range n {
		if v.Diagonal != nil {
			a[i*n+i] = v.Diagonal.eval(in)
		}
		for j := range i {
			if v.Symmetric {
				a[i*n+j] = a[j*n+i]
			}
		}
	}
}

// mirrored looks at a value of a square beside those before it; it reports that its range does not count.
func (r *valueReader) mirrored(d *datum, n int64) (own bool) {
	v := r.field.Value
	i, j := r.index/r.columns, r.index%r.columns
	switch {
	case i == j && v.Diagonal != nil:
		if want := v.Diagonal.eval(r.in); n != want {
			r.fault(r.name(), "%s is %d, and %d (%s) stands on the diagonal", orThis(r.name()), n, want, v.Diagonal)
		}
		return true
	case v.Symmetric && j < i:
		if other := d.ints[j*r.columns+i]; other != n {
			r.fault(r.name(), "%s is not symmetric: %s is %d, and %s[%d][%d] is %d", orThis(r.field.Name), r.name(), n, r.field.Name, j, i, other)
		}
	}
	return false
}
