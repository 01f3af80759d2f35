package shape

import (
	"fmt"
	"math/big"
	"slices"
)

// The bases of what is generated and read as a whole.

type permBase struct{ structure }

func (permBase) word() string                     { return "perm" }
func (permBase) traits() traits                   { return traits{integers: true, list: true} }
func (permBase) types(*valueNode) ([]string, int) { return []string{"int", "long", "bigint"}, 1 }

func (permBase) parse(p *parser, v *valueNode) {
	v.From, v.Args = 1, []exprNode{p.expr()}
	if p.take(",") {
		p.expect("from", "and the least number")
		v.From = p.signed()
	}
}

func (permBase) styles(_ *fieldNode, edge bool) []string { return styleNames(permStyles, edge) }

func (permBase) read(c *checker, f *fieldNode, d *datum, in *frame, first bool) bool {
	return c.perm(f, d, in, first)
}

func (permBase) generate(m *maker, f *fieldNode, d *datum, in *frame) *unmet {
	v := f.Value
	n := v.Args[0].eval(in)
	m.spend(v.Pos, n)
	order := make([]int32, n)
	for i := range order {
		order[i] = int32(i)
	}
	styleNamed(permStyles, m.style(f, f.styles))(m.random, order)
	d.ints = make([]int64, n)
	for i, x := range order {
		d.ints[i] = v.From + int64(x)
	}
	d.count = n
	return nil
}

func (permBase) cut(c *cut, f *fieldNode, _, now *frame) bool {
	return c.perm(f.Value, &now.data[f.slot], now)
}

func (permBase) explain(e *explainer, f *fieldNode, name string) string {
	v := f.Value
	e.known[f] = span{big.NewInt(v.From), last(v.From, e.spanOf(v.Args[0]).high)}
	return fmt.Sprintf("%sa permutation of the %s integers from %d%s", name, v.Args[0], v.From, e.most(v.Args[0]))
}

type gridBase struct{ structure }

func (gridBase) word() string                     { return "grid" }
func (gridBase) traits() traits                   { return traits{lines: true, list: true} }
func (gridBase) types(*valueNode) ([]string, int) { return []string{"text"}, 1 }

func (gridBase) parse(p *parser, v *valueNode) {
	v.Dims = []*lengthNode{p.length()}
	p.expect(",", "and the number of columns")
	v.Dims = append(v.Dims, p.length())
	p.expect(",", "and a set of characters")
	v.Set = p.set()
}

func (gridBase) styles(_ *fieldNode, edge bool) []string { return styleNames(gridStyles, edge) }

func (gridBase) read(c *checker, f *fieldNode, d *datum, in *frame, _ bool) bool {
	c.grid(f, d, in)
	return false
}

func (gridBase) write(w *writer, _ *valueNode, d *datum, _ *frame, _ bool) bool {
	w.rows(d, len(d.texts), 1)
	return false
}

func (gridBase) generate(m *maker, f *fieldNode, d *datum, in *frame) *unmet {
	m.grid(f, d, m.length(f.Value.Dims[0], in, nil), m.length(f.Value.Dims[1], in, nil))
	return nil
}

func (gridBase) cut(c *cut, f *fieldNode, _, now *frame) bool {
	v, d := f.Value, &now.data[f.slot]
	if v.Dims[0].Exact != nil {
		rows := v.Dims[0].Exact.eval(now)
		i, j, ok := c.part(len(d.texts), rows)
		if !ok {
			return false
		}
		d.texts, d.count = slices.Delete(d.texts, i, j), rows
	}
	return v.Dims[1].Exact == nil || c.characters(d, v.Dims[1].Exact.eval(now))
}

func (gridBase) weigh(w *weight, v *valueNode, text string) { w.characters(v.Set, text) }

func (gridBase) simplify(c cursor) { c.simplifyCharacters() }

func (gridBase) explain(e *explainer, f *fieldNode, name string) string {
	v := f.Value
	if v.Dims[0].Exact == nil || v.Dims[1].Exact == nil {
		return fmt.Sprintf("%s%s texts of %s characters of %s", name, e.lengthWords(v.Dims[0]), e.lengthWords(v.Dims[1]), v.Set.Text)
	}
	most := e.most(&binary{op: "*", x: v.Dims[0].Exact, y: v.Dims[1].Exact})
	return fmt.Sprintf("%s%s lines of %s characters of %s%s", name, v.Dims[0].Exact, v.Dims[1].Exact, v.Set.Text, most)
}

// vertices is what all that has vertices has in common: a tree, unless it says otherwise.
type vertices struct{ structure }

func (vertices) parse(p *parser, v *valueNode) { v.From, v.Args = 1, []exprNode{p.expr()} }

func (vertices) styles(f *fieldNode, edge bool) []string {
	return slices.DeleteFunc(styleNames(treeStyles, edge), func(name string) bool {
		return name == pathInOrder && f.Value.Base == typeParents // as every path of parents is
	})
}

func (vertices) generate(m *maker, f *fieldNode, d *datum, in *frame) *unmet {
	m.tree(f, d, f.Value.Args[0].eval(in))
	return m.with(f.Value, in, int(d.count))
}

func (vertices) cut(c *cut, f *fieldNode, old, now *frame) bool { return c.graph(f, old, now) }

// edges is what trees and graphs have in common, which take a line for each edge.
type edges struct{ vertices }

func (edges) traits() traits                   { return traits{edges: true, lines: true} }
func (edges) types(*valueNode) ([]string, int) { return []string{"int", "long"}, 2 }

func (edges) read(c *checker, f *fieldNode, d *datum, in *frame, _ bool) bool {
	c.edges(f, d, in)
	return false
}

func (edges) write(w *writer, v *valueNode, d *datum, in *frame, _ bool) bool {
	w.edges(v, d, in)
	return false
}

type treeBase struct{ edges }

func (treeBase) word() string { return "tree" }

func (treeBase) explain(e *explainer, f *fieldNode, name string) string {
	v := f.Value
	return fmt.Sprintf("%sa tree of %s vertices, numbered from %d, as its edges%s%s", name, v.Args[0], v.From, e.each(), e.with(v))
}

type parentsBase struct{ vertices }

func (parentsBase) word() string                     { return "parents" }
func (parentsBase) traits() traits                   { return traits{integers: true, list: true} }
func (parentsBase) types(*valueNode) ([]string, int) { return []string{"int", "long", "bigint"}, 1 }

func (parentsBase) read(c *checker, f *fieldNode, d *datum, in *frame, first bool) bool {
	return c.parents(f, d, in, first)
}

func (parentsBase) explain(_ *explainer, f *fieldNode, name string) string {
	return fmt.Sprintf("%sa tree of %s vertices, numbered from %d: the parents of all but the first", name, f.Value.Args[0], f.Value.From)
}

type graphBase struct{ edges }

func (graphBase) word() string { return "graph" }

func (b graphBase) parse(p *parser, v *valueNode) {
	b.edges.parse(p, v)
	p.expect(",", "and the number of edges")
	from := p.now
	edges := p.expr()
	if p.s.takes != nil && p.is("..") { // as many as the argument has
		v.Edges = p.rangeFrom(from, edges)
	}
	v.Args = append(v.Args, edges)
}

func (graphBase) styles(f *fieldNode, edge bool) (names []string) {
	for _, s := range graphStyles {
		if (s.edge || !edge) && s.do.serves(s.name, f.Value) {
			names = append(names, s.name)
		}
	}
	return names
}

func (graphBase) generate(m *maker, f *fieldNode, d *datum, in *frame) *unmet {
	v := f.Value
	n, edges := v.Args[0].eval(in), v.Args[1].eval(in)
	if least, most := v.edgeBounds(n); edges < least || edges > most {
		return &unmet{pos: v.Pos, text: fmt.Sprintf("a graph of %d vertices and %d edges", n, edges), hopeless: true}
	}
	m.spend(v.Pos, n)
	m.spend(v.Pos, 2*edges)
	name, ok := m.promised[f]
	if delete(m.promised, f); !ok {
		name = m.style(f, f.styles)
	}
	d.ints = labelled(m.random, graphEdges(m.random, v, int(n), int(edges), styleNamed(graphStyles, name)), int(n), v.From, name, v.Directed)
	d.count = edges
	return m.with(v, in, int(edges))
}

func (graphBase) explain(e *explainer, f *fieldNode, name string) string {
	v := f.Value
	return fmt.Sprintf("%sa %sgraph of %s vertices, numbered from %d, and %s edges%s%s%s", name, e.kind(v), v.Args[0], v.From, v.Args[1], e.each(), allowed(v), e.with(v))
}
