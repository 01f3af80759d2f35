package shape

import (
	"slices"

	"coldverdict/core/settings"
)

// A baseType is what a value is made of.
type baseType int

// The bases.
const (
	typeInt     baseType = iota
	typeReal             // decimal number
	typeToken            // characters of a set, no blanks
	typeText             // likewise, to the end of the line
	typePick             // one of some tokens
	typePerm             // each of so many integers once
	typeGrid             // lines of characters of a set
	typeTree             // n - 1 edges
	typeParents          // of the vertices 2 to n
	typeGraph            // m edges
	typeNodes            // a tree, as a function takes it
	typeDigits           // an integer of any length
	typeAmong            // a value that stood before
	typePart             // a part of a token that stood before
)

func (b baseType) String() string { return b.of().word() }

// of is what the package knows of a base.
func (b baseType) of() base { return bases[b] }

// bases has a row for each base. A new one is a row here, and a type with the methods of base.
var bases = [...]base{
	typeInt: intBase{}, typeReal: realBase{}, typeToken: tokenBase{}, typeText: textBase{}, typePick: pickBase{},
	typePerm: permBase{}, typeGrid: gridBase{}, typeTree: treeBase{}, typeParents: parentsBase{}, typeGraph: graphBase{}, typeNodes: nodesBase{},
	typeDigits: digitsBase{}, typeAmong: amongBase{}, typePart: partBase{},
}

// A base is all that differs between the kinds of values: how one is written in a shape, read,
// generated, cut down, made simpler, and said in words. Each of its types embeds element or
// structure, which hold what most have in common.
type base interface {
	word() string
	traits() traits
	// parse reads what stands in parentheses behind the word.
	parse(p *parser, v *valueNode)
	// types are those of a function's arguments that a single value can be, and arrays how
	// many times it is an array of them besides.
	types(v *valueNode) (of []string, arrays int)
	// styles names the styles that fit a field; for an edge case those that make a difference.
	styles(f *fieldNode, edge bool) []string

	// read reads a field from where it begins on a line; first says that nothing stands before it
	// there, and what it returns, that nothing stands before the next one.
	read(c *checker, f *fieldNode, d *datum, in *frame, first bool) bool
	// one reads a single value, and reader makes that ready.
	one(r *valueReader, d *datum, index int64)
	reader(r *valueReader, in *frame)
	// write writes a field in the same way.
	write(w *writer, v *valueNode, d *datum, in *frame, first bool) bool

	// generate fills a field, and fill so many single values of it.
	generate(m *maker, f *fieldNode, d *datum, in *frame) *unmet
	fill(m *maker, f *fieldNode, d *datum, in *frame, n int) *unmet

	// cut makes a field follow a count that was made smaller, and reports that this can be.
	cut(c *cut, f *fieldNode, old, now *frame) bool
	// weigh adds what makes a single text less simple than others.
	weigh(w *weight, v *valueNode, text string)
	// simplify makes the values of a field simpler.
	simplify(c cursor)

	// explain says what a field is, behind its name, and notes what is known of it.
	explain(e *explainer, f *fieldNode, name string) string
}

// traits are what is asked of a base in more than one place.
type traits struct {
	integers bool // its values are integers that expressions can name
	element  bool // an array of it can be
	list     bool // it is several values without being an array
	edges    bool // it is the lines of edges
	lines    bool // it takes lines of its own, whatever its dimensions
	toEnd    bool // it goes to the end of its line
	name     bool // what stands in its parentheses is the name of something before it
	bare     bool // nothing stands in parentheses behind its word
}

func (v *valueNode) traits() traits { return v.Base.of().traits() }

// alone reports that a value takes lines of its own.
func (v *valueNode) alone() bool { return v.Down || len(v.Dims) == 2 || v.traits().lines }

// baseNamed finds a base by its word.
func baseNamed(word string) (baseType, bool) {
	i := slices.IndexFunc(bases[:], func(b base) bool { return b.word() == word })
	return baseType(i), i >= 0
}

// nearestItem suggests what a word that is no base was meant to be.
func nearestItem(word string) string {
	var words []string
	for _, b := range bases {
		words = append(words, b.word())
	}
	return settings.Nearest(word, append(words, itemWords...))
}

// element is what single values have in common, which can be the elements of arrays.
type element struct{}

func (element) read(c *checker, f *fieldNode, d *datum, in *frame, first bool) bool {
	switch v := f.Value; {
	case v.Down:
		c.column(f, d, in)
	case len(v.Dims) == 2:
		c.rows(f, d, in)
	case len(v.Dims) == 0:
		r := c.reader(f, in)
		if !first && r.emptyHere() {
			c.nth++
			r.one(d, -1)
			return false
		}
		c.begin(first)
		r.one(d, -1)
		if n := len(d.texts); !first && !c.loose && n > 0 && d.texts[n-1] == "" && c.peek() == '\n' {
			c.fault(f.Name, "a blank stands at the end of the line")
		}
	default:
		return c.elements(f, d, in, first)
	}
	return false
}

func (element) styles(f *fieldNode, edge bool) []string {
	if len(f.Value.Dims) > 0 {
		return f.Value.fitting(styleNames(arrayStyles, edge))
	}
	return styleNames(numberStyles, edge)
}

func (element) write(w *writer, v *valueNode, d *datum, _ *frame, first bool) bool {
	switch {
	case v.Down:
		w.rows(d, d.size(), 1)
	case len(v.Dims) == 2:
		columns := 0
		if d.count > 0 {
			columns = d.size() / int(d.count)
		}
		w.rows(d, int(d.count), columns)
	case v.By != "":
		return w.separated(v, d, first)
	default:
		return w.list(d, first)
	}
	return false
}

func (element) generate(m *maker, f *fieldNode, d *datum, in *frame) *unmet {
	v := f.Value
	if len(v.Dims) == 0 {
		m.spend(v.Pos, 1)
		if m.fromPlan(f, in, d) {
			return nil
		}
		return v.Base.of().fill(m, f, d, in, 1)
	}
	most, inRow := v.different(in), int64(1<<63-1)
	if v.ByRow {
		most, inRow = inRow, most
	}
	n := m.lengthUpTo(v.Dims[0], in, f, most)
	d.count = n
	if len(v.Dims) == 2 {
		columns := m.lengthUpTo(v.Dims[1], in, nil, inRow)
		if columns > 0 && n > mostValues/columns {
			m.spend(v.Pos, mostValues+1)
		}
		n *= columns
	}
	m.spend(v.Pos, n)
	return v.Base.of().fill(m, f, d, in, int(n))
}

func (element) cut(c *cut, f *fieldNode, _, now *frame) bool { return c.elements(f, now) }

// structure is what the others have in common, which are generated and read as a whole.
type structure struct{}

func (structure) one(*valueReader, *datum, int64)                     {}
func (structure) reader(*valueReader, *frame)                         {}
func (structure) fill(*maker, *fieldNode, *datum, *frame, int) *unmet { return nil }
func (structure) weigh(*weight, *valueNode, string)                   {}
func (structure) simplify(cursor)                                     {}
func (structure) write(w *writer, _ *valueNode, d *datum, _ *frame, first bool) bool {
	return w.list(d, first)
}
