package shape

import (
	"bytes"
	"cmp"
	"fmt"
	"io"
	"math"
	"slices"
	"strconv"
	"strings"
	"unicode/utf8"
)

// A frame holds the values of the names of one block.
type frame struct {
	data  []datum // by slot
	above *frame
	// allowed is how much this body may add to each total of its cases; nil: as much
	// as it likes.
	allowed []int64
	at      int64 // of the body of a repeat: its index
	body    bool  // it is one
	element int64 // the index of the element that is being described
	within  bool  // one is
}

// A datum is the value of one field.
type datum struct {
	ints   []int64  // integers; of edges both ends of one after the other
	texts  []string // words, tokens, lines; decimals as they are written
	count  int64    // elements, or characters of a single word; of an either its branch
	bodies []*frame // of cases, a repeat or a branch, where they are kept
}

func newFrame(b *block, above *frame) *frame {
	return &frame{data: make([]datum, b.slots), above: above}
}

// up is the frame so many blocks above.
func (f *frame) up(blocks int) *frame {
	for range blocks {
		f = f.above
	}
	return f
}

func (d *datum) length() int64 { return d.count }

// Options say how an input is read.
type Options struct {
	// Loose takes an input as people paste it: any blanks, Windows line ends, empty
	// lines, no line end at the end.
	Loose bool
}

// Check reads an input, or the arguments of a call, and returns the first fault; nil
// if it is valid. It reads in
// one pass, in time that grows with the size of the input; the properties of graphs
// take n log n. The error is that of reading.
func (s *Shape) Check(in io.Reader, o Options) (*Fault, error) {
	_, fault, err := s.read(in, o, false)
	return fault, err
}

// read reads an input; keep keeps all bodies.
func (s *Shape) read(in io.Reader, o Options, keep bool) (top *frame, fault *Fault, err error) {
	top, fault, err = s.readForm(in, o, keep || len(s.holds) > 0)
	if fault == nil && err == nil {
		fault, err = s.heldBy(&Input{s, top})
	}
	return top, fault, err
}

// readForm reads an input, without what scripts say of it.
func (s *Shape) readForm(in io.Reader, o Options, keep bool) (top *frame, fault *Fault, err error) {
	if s.takes != nil {
		return s.readCall(in)
	}
	if s.calls != nil {
		text, fault, err := s.calls.lines(in)
		if fault != nil || err != nil {
			return nil, fault, err
		}
		top, fault, err = s.readFrom(&checker{scanner: newScanner(strings.NewReader(text), o.Loose), keep: keep})
		if fault != nil && fault.Nth > 1 { // the first is the name of the method
			fault.Nth--
		}
		return top, fault, err
	}
	return s.readFrom(&checker{scanner: newScanner(in, o.Loose), keep: keep})
}

func (s *Shape) readFrom(c *checker) (top *frame, fault *Fault, err error) {
	top = c.frame(s.top, nil)
	why := attempt(func() {
		c.items(s.Items, top)
		c.theEnd()
	})
	switch why := why.(type) {
	case nil:
	case *Fault:
		fault = why
	case trouble:
		fault = &Fault{Line: c.line + 1, Nth: c.nth, Text: fmt.Sprintf("%s (at %s of the shape)", why.text, why.pos)}
	default:
		panic(why)
	}
	if c.err != nil {
		fault = nil
	}
	return top, fault, c.err
}

// A checker checks an input against a shape.
type checker struct {
	*scanner
	keep bool
	// actual are the lengths of arguments, which nothing in a line says.
	actual map[*lengthNode]int64
	spare  map[*block][]*frame // frames that may be used again
}

func (c *checker) frame(b *block, above *frame) *frame {
	if list := c.spare[b]; len(list) > 0 && !c.keep {
		f := list[len(list)-1]
		c.spare[b] = list[:len(list)-1]
		for i := range f.data {
			d := &f.data[i]
			d.ints, d.texts, d.count, d.bodies = d.ints[:0], d.texts[:0], 0, nil
		}
		f.above = above
		f.at, f.body, f.within = 0, false, false
		return f
	}
	return newFrame(b, above)
}

// done gives a body's frame back, or keeps it.
func (c *checker) done(b *block, f *frame, into *datum) {
	if c.keep {
		into.bodies = append(into.bodies, f)
		return
	}
	if c.spare == nil {
		c.spare = map[*block][]*frame{}
	}
	c.spare[b] = append(c.spare[b], f)
}

func (c *checker) items(list []node, f *frame) {
	for _, item := range list {
		switch item := item.(type) {
		case *lineNode:
			c.lineOf(item, f)
		case *casesNode:
			c.cases(item, f)
		case *repeatNode:
			c.repeat(item, f)
		case *eitherNode:
			c.either(item, f)
		case *blankNode:
			c.nth = 0
			if c.loose {
				continue // they mean nothing there
			}
			if c.peek() != '\n' {
				c.fault("", "expected an empty line, found %s", c.found())
			}
			c.newLine()
		case *requireNode:
			if item.Cond.eval(f) == 0 {
				c.nth = 0
				c.line-- // it is about what was read
				c.fault("", "it is required that %s, and that does not hold%s", item.text, values(item.Cond, f))
			}
		}
	}
}

// values shows what the names in a condition stand for.
func values(e exprNode, f *frame) string {
	var parts []string
	var walk func(exprNode)
	walk = func(e exprNode) {
		switch e := e.(type) {
		case *reference:
			text := ""
			if n, wrong := evaluated(e, f); wrong == nil {
				text = fmt.Sprintf("%s = %d", e, n)
			} else {
				attempt(func() { text = fmt.Sprintf("%s = %s", e, e.decimal(f)) })
			}
			if !strings.HasSuffix(text, "= ") && text != "" && !slices.Contains(parts, text) && len(parts) < 6 {
				parts = append(parts, text)
			}
		case *unary:
			walk(e.x)
		case *binary:
			walk(e.x)
			walk(e.y)
		case *call:
			if n, wrong := evaluated(e, f); wrong == nil && len(parts) < 6 {
				parts = append(parts, fmt.Sprintf("%s = %d", e, n))
			}
		}
	}
	walk(e)
	if len(parts) == 0 {
		return ""
	}
	return ": " + strings.Join(parts, ", ")
}

func (c *checker) lineOf(l *lineNode, f *frame) {
	c.beginLine()
	first := true
	for i, field := range l.Fields {
		joins := i+1 < len(l.Fields) && l.Fields[i+1].Joined
		if field.Value == nil {
			if joins || field.Joined {
				c.exactly(field.Literal, first, field.Joined)
			} else {
				c.literal(field.Literal, first)
			}
			first = false
			continue
		}
		if c.until = 0; joins {
			c.until = l.Fields[i+1].Literal[0]
		}
		d := &f.data[field.slot]
		first = field.Value.Base.of().read(c, field, d, f, first || field.Joined)
		c.until = 0
		if field.Value.alone() {
			return
		}
	}
	c.endLine()
}

// lines reads so many lines, the first of which was begun, and ends them.
func (c *checker) lines(n int64, read func(i int64)) {
	for i := range n {
		if i > 0 {
			c.beginLine()
		}
		read(i)
		c.endLine()
	}
}

// column reads an array with an element a line.
func (c *checker) column(field *fieldNode, d *datum, f *frame) {
	from, n := c.line, c.lengthOf(field.Value.Dims[0], f)
	r := c.reader(field, f)
	c.lines(n, func(i int64) {
		c.begin(true)
		r.one(d, i)
	})
	d.count = n
	c.ordered(field, d, f, func(i int) { c.line, c.nth = from+i, 0 })
}

// rows reads an array of two dimensions, a row a line.
func (c *checker) rows(field *fieldNode, d *datum, f *frame) {
	v := field.Value
	from := c.line
	rows, columns := c.lengthOf(v.Dims[0], f), c.lengthOf(v.Dims[1], f)
	r := c.reader(field, f)
	r.columns = columns
	c.lines(rows, func(i int64) {
		for j := range columns {
			c.begin(j == 0)
			r.one(d, i*columns+j)
		}
	})
	d.count = rows
	c.inspectPoints(field, d, from)
	if v.ByRow {
		for i := range int(rows) {
			row := *field
			row.Name = fmt.Sprintf("%s[%d]", field.Name, i)
			c.ordered(&row, &datum{ints: d.row(i)}, f, func(k int) { c.line, c.nth = from+i, k+1 })
		}
		return
	}
	c.ordered(field, d, f, func(i int) { c.line, c.nth = from+i/int(columns), i%int(columns)+1 })
}

// row is one of integers of two dimensions.
func (d *datum) row(i int) []int64 {
	columns := len(d.ints) / int(max(1, d.count))
	return d.ints[i*columns : (i+1)*columns]
}

// elements reads an array on one line.
func (c *checker) elements(field *fieldNode, d *datum, f *frame, first bool) bool {
	v := field.Value
	if v.By != "" {
		return c.separated(field, d, f, first)
	}
	var n int64
	before := c.nth
	r := c.reader(field, f)
	if l := v.Dims[0]; l.Exact != nil {
		n = c.lengthOf(l, f)
		for i := range n {
			c.begin(first)
			r.one(d, i)
			first = false
		}
	} else { // to the end of the line
		low, high := l.Range.Low.eval(f), l.Range.High.eval(f)
		for ; ; n++ {
			if c.loose {
				c.blanks()
			}
			if next := c.peek(); next == '\n' || next == -1 || n == high {
				break
			}
			c.begin(first)
			r.one(d, n)
			first = false
		}
		if n < low {
			c.fault(field.Name, "%s has %d elements, and has %s", orThis(field.Name), n, l.Range.text)
		}
	}
	d.count = n
	c.ordered(field, d, f, func(i int) { c.nth = before + i + 1 })
	return first
}

// literal reads a token that stands there as it is.
func (c *checker) literal(text string, first bool) {
	c.begin(first)
	for i, word := range strings.Fields(text) {
		if i > 0 {
			c.begin(false)
		}
		if got := c.token(); string(got) != word {
			shown := strings.ToValidUTF8(string(got), "�")
			if shown == "" {
				shown = c.found()
			}
			c.fault("", "expected %s, found %s", text, shown)
		}
	}
}

// lengthOf evaluates a length that is one number. Of an argument it is what the
// argument has.
func (c *checker) lengthOf(l *lengthNode, f *frame) int64 {
	if l.Range != nil {
		n := c.actual[l]
		if low, high := l.Range.Low.eval(f), l.Range.High.eval(f); n < low || n > high {
			c.fault("", "there are %d, outside %s", n, l.Range.shown(low, high))
		}
		return n
	}
	n := l.Exact.eval(f)
	if n < 0 {
		c.fault("", "a length is %s = %d", l.Exact, n)
	}
	return n
}

// A valueReader reads the single values of one field, whose bounds are the same
// for all of them.
type valueReader struct {
	*checker
	field     *fieldNode
	low, high int64
	real      [2]float64
	length    [2]int64
	columns   int64 // of an array of two dimensions
	index     int64 // of the value that is read; -1: it is the only one
	called    func() string
	in        *frame // around integers
	differ    bool   // their bounds do, from one to the next
	out       *exclusions
	among     map[string]bool // what one of them may be
	keeps     bool            // the values are looked at again
	base      base
}

func (c *checker) reader(field *fieldNode, f *frame) *valueReader {
	v := field.Value
	r := &valueReader{checker: c, field: field, base: v.Base.of(), low: math.MinInt64, high: math.MaxInt64}
	r.called = r.name
	r.keeps = c.keep || field.needed || len(v.Dims) == 0 || v.inOrder() || v.Distinct || v.Symmetric || v.points()
	v.Base.of().reader(r, f)
	return r
}

func (c *checker) bounds(l *lengthNode, f *frame) [2]int64 {
	if l.Exact != nil {
		n := c.lengthOf(l, f)
		return [2]int64{n, n}
	}
	return [2]int64{l.Range.Low.eval(f), l.Range.High.eval(f)}
}

// emptyHere reports that a line ends where a token or a text could begin that may be empty: it has no blank of its own
// there.
func (r *valueReader) emptyHere() bool {
	v := r.field.Value
	if v.Base != typeToken && v.Base != typeText || r.length[0] > 0 {
		return false
	}
	if r.loose {
		r.blanks()
	}
	return r.peek() == '\n' || r.peek() == -1
}

// name is the value that is read, with its index.
func (r *valueReader) name() string {
	name := r.field.Name
	switch {
	case name == "" || r.index < 0:
		return name
	case r.columns > 0:
		return fmt.Sprintf("%s[%d][%d]", name, r.index/r.columns, r.index%r.columns)
	}
	return fmt.Sprintf("%s[%d]", name, r.index)
}

// keep keeps a text that is looked at again.
func (r *valueReader) keep(d *datum, text string) {
	if r.keeps {
		d.texts = append(d.texts, text)
	}
}

func (r *valueReader) one(d *datum, index int64) {
	r.index = index
	r.base.one(r, d, index)
}

func shown(word string, s *scanner) string {
	if word == "" {
		return s.found()
	}
	if len(word) > 24 {
		word = word[:24] + "…"
	}
	return strings.ToValidUTF8(word, "�")
}

// shown is a range with its values, and those of its ends that are no numbers as
// they are written.
func (g *rangeNode) shown(low, high int64) string {
	text := fmt.Sprintf("%d..%d", low, high)
	var parts []string
	for _, e := range []exprNode{g.Low, g.High} {
		if !isConstant(e) {
			parts = append(parts, e.String())
		}
	}
	if len(parts) > 0 {
		text += " (" + strings.Join(parts, ", ") + ")"
	}
	return text
}

func (r *valueReader) characters(d *datum, word []byte) {
	set := r.field.Value.Set
	if set.only {
		for _, b := range word {
			if b >= 128 || !set.ascii[b] {
				r.notIn(word)
			}
		}
	} else {
		for i := 0; i < len(word); {
			c, size := utf8.DecodeRune(word[i:])
			if c == utf8.RuneError && size < 2 || !set.Has(c) {
				r.notIn(word)
			}
			i += size
		}
	}
	if wrong := r.field.Value.kindFault(word); wrong != "" {
		r.fault(r.name(), "%s %s", orThis(r.name()), wrong)
	}
	n := set.count(word)
	if n < r.length[0] || n > r.length[1] {
		want := strconv.FormatInt(r.length[0], 10)
		if r.length[0] != r.length[1] {
			want = fmt.Sprintf("%d to %d", r.length[0], r.length[1])
		}
		r.fault(r.name(), "%s has %d characters, and has %s", orThis(r.name()), n, want)
	}
	if r.keeps {
		d.texts = append(d.texts, string(word))
	}
	if r.index < 0 {
		d.count = n
	}
}

func (r *valueReader) notIn(word []byte) {
	for _, c := range strings.ToValidUTF8(string(word), "�") {
		if !r.field.Value.Set.Has(c) {
			r.fault(r.name(), "%s holds %q, which is not in %q", orThis(r.name()), c, r.field.Value.Set.Text)
		}
	}
}

// decimal reads a decimal number, without an exponent.
func (r *valueReader) decimal() string {
	word := string(r.token())
	v := r.field.Value
	digits := strings.TrimPrefix(word, "-")
	whole, fraction, point := strings.Cut(digits, ".")
	isDigits := func(s string) bool { return s != "" && strings.Trim(s, "0123456789") == "" }
	if !isDigits(whole) || point && !isDigits(fraction) {
		r.fault(r.name(), "expected a decimal number%s, found %s", named(r.name()), shown(word, r.scanner))
	}
	switch {
	case len(whole) > 1 && whole[0] == '0':
		r.fault(r.name(), "%s has a leading zero", orThis(r.name()))
	case v.Places >= 0 && (len(fraction) > v.Places || len(fraction) < v.LeastPlaces):
		r.fault(r.name(), "%s is %s, with %d digits behind the point, and has %s", orThis(r.name()), word, len(fraction), v.places())
	}
	x, err := strconv.ParseFloat(word, 64)
	if err != nil || x < r.real[0] || x > r.real[1] {
		r.fault(r.name(), "%s is %s, outside %s", orThis(r.name()), word, v.Range.text)
	}
	return word
}

// places are the digits behind the point, in words.
func (v *valueNode) places() string {
	if v.LeastPlaces == v.Places {
		return strconv.Itoa(v.Places)
	}
	return fmt.Sprintf("%d to %d", v.LeastPlaces, v.Places)
}

// decimalOf evaluates a bound of a real.
func decimalOf(e exprNode, f *frame) (float64, bool) {
	if f == nil && !isNumeric(e) {
		return 0, false
	}
	x := rational(e, f)
	if x == nil {
		return 0, false
	}
	near, _ := x.Float64()
	return near, true
}

// ordered checks what is asked of the elements of an array together. back lets a
// fault point to an element that was read before.
func (c *checker) ordered(field *fieldNode, d *datum, f *frame, back func(index int)) {
	v := field.Value
	name := orThis(field.Name)
	texts := v.Base != typeInt
	n := len(d.ints)
	if texts {
		n = len(d.texts)
	}
	less := func(i, j int) int {
		switch {
		case v.Base == typeInt:
			return cmp.Compare(d.ints[i], d.ints[j])
		case v.Base == typeReal:
			x, _ := strconv.ParseFloat(d.texts[i], 64)
			y, _ := strconv.ParseFloat(d.texts[j], 64)
			return cmp.Compare(x, y)
		}
		return v.compareTexts(d.texts[i], d.texts[j])
	}
	shown := func(i int) string {
		if texts {
			return d.texts[i]
		}
		return strconv.FormatInt(d.ints[i], 10)
	}
	if v.DistinctBut != nil {
		c.distinctBut(field, d, f, back)
		return
	}
	for i := 1; i < n && v.inOrder(); i++ {
		way := less(i-1, i)
		switch {
		case v.Sorted && way > 0, v.Rising && way >= 0, v.Falling && way <= 0:
			order := map[bool]string{v.Sorted: "sorted", v.Rising: "rising", v.Falling: "falling"}[true]
			back(i)
			c.fault(fmt.Sprintf("%s[%d]", field.Name, i), "%s is not %s: %s comes behind %s", name, order, shown(i), shown(i-1))
		}
	}
	if !v.Distinct || v.Rising || v.Falling {
		return
	}
	if first, second := twice(n, less); second >= 0 {
		back(second)
		c.fault(fmt.Sprintf("%s[%d]", field.Name, second), "%s is not distinct: %s is at %d and at %d, counted from 0", name, shown(second), first, second)
	}
}

// twice returns the first element that comes a second time, and where it came
// first; -1 if there is none.
func twice(n int, less func(i, j int) int) (first, second int) {
	order := make([]int, n)
	for i := range order {
		order[i] = i
	}
	slices.SortStableFunc(order, less)
	second = -1
	for i := 1; i < n; i++ {
		if less(order[i-1], order[i]) == 0 && (second < 0 || order[i] < second) {
			first, second = order[i-1], order[i]
		}
	}
	return first, second
}

func (c *checker) grid(field *fieldNode, d *datum, f *frame) {
	v := field.Value
	rows, columns := c.lengthOf(v.Dims[0], f), c.lengthOf(v.Dims[1], f)
	r := &valueReader{checker: c, field: field, keeps: c.keep || field.needed, length: [2]int64{columns, columns}}
	for i := range rows {
		if i > 0 {
			c.beginLine()
		}
		c.nth = 1
		r.index = i
		r.characters(d, c.rest())
		c.endLine()
	}
	d.count = rows
}

func (c *checker) size(e exprNode, f *frame) int64 {
	n := e.eval(f)
	if n < 0 {
		c.fault("", "%s is %d, and is the size of something", e, n)
	}
	return n
}

func (c *checker) perm(field *fieldNode, d *datum, f *frame, first bool) bool {
	v := field.Value
	n := c.size(v.Args[0], f)
	r := &valueReader{checker: c, field: field}
	before := c.nth
	for i := range n {
		c.begin(first)
		first = false
		r.index = i
		x := c.integer(r.name)
		if x < v.From || x-v.From >= n {
			c.fault(r.name(), "%s is %d, outside %d..%d", orThis(r.name()), x, v.From, v.From+n-1)
		}
		d.ints = append(d.ints, x)
	}
	d.count = n
	if _, second := twice(int(n), func(i, j int) int { return cmp.Compare(d.ints[i], d.ints[j]) }); second >= 0 {
		c.nth = before + second + 1
		c.fault(fmt.Sprintf("%s[%d]", field.Name, second), "%s is no permutation: %d comes a second time", orThis(field.Name), d.ints[second])
	}
	return first
}

func (c *checker) parents(field *fieldNode, d *datum, f *frame, first bool) bool {
	v := field.Value
	n := c.size(v.Args[0], f)
	r := &valueReader{checker: c, field: field}
	sets := newForest(n)
	for i := range max(0, n-1) {
		c.begin(first)
		first = false
		r.index = i
		x := c.integer(r.name)
		if x < v.From || x-v.From >= n {
			c.fault(r.name(), "%s is %d, outside %d..%d", orThis(r.name()), x, v.From, v.From+n-1)
		}
		if !sets.join(x-v.From, i+1) {
			c.fault(r.name(), "this is no tree: with %d as the parent of %d there is a cycle", x, v.From+i+1)
		}
		d.ints = append(d.ints, x)
	}
	d.count = max(0, n-1)
	return first
}

func (c *checker) cases(item *casesNode, f *frame) {
	c.beginLine()
	count := &f.data[item.Count.slot]
	c.begin(true)
	c.reader(item.Count, f).one(count, -1)
	c.endLine()
	sums := make([]runningSum, len(item.Totals))
	for i := range count.ints[0] {
		body := c.frame(item.body, f)
		from := c.line
		c.items(item.Items, body)
		for k, t := range item.Totals {
			sums[k].add(t.Left.eval(body), t.Bound.eval(f), i+1, from)
		}
		c.done(item.body, body, count)
	}
	c.within(item.Totals, sums, f, "case")
}

// within checks sums over all bodies.
func (c *checker) within(totals []*totalNode, sums []runningSum, f *frame, body string) {
	for k, t := range totals {
		if bound := t.Bound.eval(f); sums[k].now > bound {
			c.line, c.nth = sums[k].line, 0
			c.fault("", "with %s %d, which begins here, the sum of %s is %d, more than %d (%s)", body, sums[k].at, t.Left, sums[k].past, bound, t.Bound)
		}
	}
}

// A runningSum is a sum over cases, and where it went past a bound and stayed so.
type runningSum struct {
	now, past int64
	at        int64 // the case
	line      int
}

// add adds what a case adds. Past 64 bits the sum stays at their end.
func (s *runningSum) add(x, bound, at int64, line int) {
	next, ok := arithmetic("+", s.now, x)
	if !ok {
		next = math.MaxInt64
		if x < 0 {
			next = math.MinInt64
		}
	}
	if s.now = next; next <= bound {
		s.at = 0
	} else if s.at == 0 {
		s.at, s.line, s.past = at, line, next
	}
}

func (c *checker) repeat(item *repeatNode, f *frame) {
	low, high := int64(0), int64(0)
	if item.Count.Exact != nil {
		low = c.lengthOf(item.Count, f)
		high = low
	} else {
		low, high = item.Count.Range.Low.eval(f), item.Count.Range.High.eval(f)
	}
	if n, ok := c.actual[item.Count]; ok {
		low, high = n, n
	}
	seen := map[string]int{} // lines of bodies that must differ
	var lines []int          // on which bodies begin, where columns are looked at
	sums := make([]runningSum, len(item.Totals))
	item.forget(f)
	n := int64(0)
	for ; n < high; n++ {
		if item.HasUntil && c.lineIs(item.Until) || item.open() && item.rows == "" && (item.atBlank && c.atBlank() || c.atEnd()) {
			break
		}
		if item.ByBlank && n > 0 {
			c.between()
		}
		body, from := c.frame(item.body, f), c.line
		body.at, body.body = n, true
		if item.Distinct {
			c.startTape()
		}
		c.items(item.Items, body)
		if len(item.columns) > 0 {
			item.gather(f, body)
			lines = append(lines, from)
		}
		for k, t := range item.Totals {
			sums[k].add(t.Left.eval(body), t.Bound.eval(f), n+1, from)
		}
		c.done(item.body, body, &f.data[item.slot])
		if item.Distinct {
			key := string(c.endTape())
			if c.loose {
				key = strings.Join(strings.Fields(key), " ")
			}
			if first, again := seen[key]; again {
				c.line, c.nth = from, 0
				c.fault("", "these bodies are not distinct: this one is as that on line %d", first+1)
			}
			seen[key] = from
		}
	}
	c.inColumns(item, f, lines)
	one := "body"
	if item.rows != "" {
		one = "row"
	}
	c.within(item.Totals, sums, f, one)
	if n < low {
		c.nth = 0
		c.fault("", "expected %s, found %d of at least %d", "another body of the repeat", n, low)
	}
	if item.HasUntil {
		c.beginLine()
		if !c.lineIs(item.Until) {
			c.fault("", "expected the line %s, found %s", item.Until, c.found())
		}
		c.literal(item.Until, true)
		c.endLine()
	}
}

// atBlank reports that an empty line is next.
func (c *checker) atBlank() bool {
	c.nth = 0
	if c.loose {
		c.blanks()
	}
	return c.peek() == '\n'
}

// between reads the empty line between two bodies; where an input is taken loosely it may be missing, or be several.
func (c *checker) between() {
	if c.loose {
		return
	}
	if !c.atBlank() {
		c.fault("", "expected an empty line before another body, found %s", c.found())
	}
	c.newLine()
	if c.atEnd() {
		c.fault("", "expected another body behind the empty line, found %s", c.found())
	}
}

// atEnd reports that nothing but blanks, where they mean nothing, is left.
func (c *checker) atEnd() bool {
	if c.loose {
		c.beginLine()
	}
	return c.peek() == -1
}

func (c *checker) either(item *eitherNode, f *frame) {
	c.beginLine()
	first, count := c.lookAhead()
	chosen := item.branch(first, count)
	if chosen < 0 {
		var words []string
		for i := range item.Branches {
			switch {
			case item.first[i] != "":
				words = append(words, strconv.Quote(item.first[i]))
			case item.count[i] >= 0:
				words = append(words, fmt.Sprintf("%d values", item.count[i]))
			}
		}
		c.fault("", "this line begins none of the branches: expected %s, found %s", strings.Join(words, " or "), c.found())
	}
	body := c.frame(item.bodies[chosen], f)
	c.items(item.Branches[chosen], body)
	f.data[item.slot].count = int64(chosen)
	c.done(item.bodies[chosen], body, &f.data[item.slot])
}

// branch returns which branch begins with a line that has this first token, and so
// many; -1 if none does. A number of tokens below 0 is not known.
func (e *eitherNode) branch(first string, count int) int {
	for i := range e.Branches {
		if (e.first[i] == "" || e.first[i] == first) && (e.count[i] < 0 || count < 0 || e.count[i] == count) {
			return i
		}
	}
	if i := slices.Index(e.first, first); i >= 0 && first != "" { // what follows there is wrong
		return i
	}
	return -1
}

// lookAhead returns the first token of the line that follows, and how many it has; -1
// if the line is longer than what is looked at.
func (c *checker) lookAhead() (first string, count int) {
	line, _, whole := bytes.Cut(c.ahead(aheadMost), []byte{'\n'})
	fields := strings.Fields(string(line[:min(len(line), aheadMost)]))
	if len(fields) == 0 {
		return "", 0
	}
	if !whole && len(line) >= aheadMost {
		return fields[0], -1
	}
	return fields[0], len(fields)
}

// distinctBut looks for values that stand in an array twice, but for the one that may.
func (c *checker) distinctBut(field *fieldNode, d *datum, f *frame, back func(index int)) {
	often := field.Value.DistinctBut.eval(f)
	first := map[int64]int{}
	for i, x := range d.ints {
		if at, ok := first[x]; ok && x != often {
			back(i)
			c.fault(fmt.Sprintf("%s[%d]", field.Name, i), "%s is not distinct but for %d: %d is at %d and at %d, counted from 0", orThis(field.Name), often, x, at, i)
		}
		first[x] = i
	}
}
