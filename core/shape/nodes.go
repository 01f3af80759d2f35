package shape

import (
	"cmp"
	"fmt"
	"slices"
	"strconv"

	"coldverdict/core/value"
)

// A tree of nodes, as a function takes it, is kept and laid out as its case has it: its values level by
// level, and null for a child that is missing, or behind the children of each node.

type nodesBase struct{ structure }

func (nodesBase) word() string   { return "nodes" }
func (nodesBase) traits() traits { return traits{list: true} }

func (nodesBase) types(*valueNode) ([]string, int) {
	return []string{"tree(int)", "tree(long)", "nary(int)", "nary(long)"}, 0
}

func (nodesBase) parse(p *parser, v *valueNode) {
	if p.s.takes == nil {
		p.fatal(v.Pos, "nodes are an argument of a function; in lines a tree is tree(n), its edges, or parents(n)")
	}
	v.Dims = []*lengthNode{p.length()}
}

// A treeNode is a node with its children, of which those of a binary tree may be missing.
type treeNode struct {
	text string
	kids []*treeNode
}

// nodesOf reads a tree.
func nodesOf(texts []string, kind value.Kind) *treeNode {
	if len(texts) == 0 {
		return nil
	}
	nodes := make([]*treeNode, len(texts))
	for i, text := range texts {
		if text != "null" {
			nodes[i] = &treeNode{text: text}
		}
	}
	for i, children := range value.Children(kind, len(texts), func(at int) bool { return nodes[at] != nil }) {
		for _, at := range children {
			var child *treeNode
			if at >= 0 {
				child = nodes[at]
			}
			nodes[i].kids = append(nodes[i].kids, child)
		}
	}
	return nodes[0]
}

// texts writes a tree.
func (t *treeNode) texts(kind value.Kind) (texts []string) {
	if t == nil {
		return nil
	}
	texts = []string{t.text}
	if kind == value.Nary {
		texts = append(texts, "null")
	}
	for open := []*treeNode{t}; len(open) > 0; open = open[1:] {
		kids := open[0].kids
		if kind == value.Tree && len(kids) == 0 {
			kids = []*treeNode{nil, nil}
		}
		for _, one := range kids {
			if one == nil {
				texts = append(texts, "null")
				continue
			}
			texts = append(texts, one.text)
			open = append(open, one)
		}
		if kind == value.Nary {
			texts = append(texts, "null")
		}
	}
	for texts[len(texts)-1] == "null" {
		texts = texts[:len(texts)-1]
	}
	return texts
}

// levels are the nodes of a tree level by level.
func (t *treeNode) levels() (all []*treeNode) {
	if t == nil {
		return nil
	}
	all = []*treeNode{t}
	for i := 0; i < len(all); i++ {
		for _, one := range all[i].kids {
			if one != nil {
				all = append(all, one)
			}
		}
	}
	return all
}

// inOrder are the nodes of a binary tree from left to right.
func (t *treeNode) inOrder() (all []*treeNode) {
	var open []*treeNode
	for t != nil || len(open) > 0 {
		for ; t != nil; t = t.kid(0) {
			open = append(open, t)
		}
		t = open[len(open)-1]
		open = open[:len(open)-1]
		all = append(all, t)
		t = t.kid(1)
	}
	return all
}

func (t *treeNode) kid(i int) *treeNode {
	if i < len(t.kids) {
		return t.kids[i]
	}
	return nil
}

func countedNodes(texts []string) (n int64) {
	for _, text := range texts {
		if text != "null" {
			n++
		}
	}
	return n
}

// read checks what was laid out: the numbers, how many there are, and their order. That each has its
// place was seen when the case was read.
func (nodesBase) read(c *checker, f *fieldNode, d *datum, in *frame, first bool) bool {
	v := f.Value
	low, high := v.bounds(in)
	for i := 0; ; i++ {
		if next := c.peek(); next == '\n' || next == -1 {
			break
		}
		c.begin(first)
		first = false
		text := string(c.token())
		if n, err := strconv.ParseInt(text, 10, 64); text != "null" && (err != nil || n < low || n > high) {
			c.fault(fmt.Sprintf("%s[%d]", f.Name, i), "%s[%d] is %s, outside %s", f.Name, i, text, v.Range.shown(low, high))
		}
		d.texts = append(d.texts, text)
	}
	d.count = countedNodes(d.texts)
	least, most := v.Dims[0].bounds(in)
	if d.count < least || d.count > most {
		c.fault(f.Name, "%s has %d nodes, and has %s", f.Name, d.count, v.Dims[0].shown(least, most))
	}
	if wrong := v.unordered(d.texts, f.nodes); wrong != "" {
		c.fault(f.Name, "%s: %s", f.Name, wrong)
	}
	return first
}

// bounds are the least and the most that a length can be.
func (l *lengthNode) bounds(in *frame) (least, most int64) {
	if l.Exact != nil {
		n := l.Exact.eval(in)
		return n, n
	}
	return l.Range.Low.eval(in), l.Range.High.eval(in)
}

func (l *lengthNode) shown(least, most int64) string {
	if l.Exact != nil {
		return strconv.FormatInt(least, 10)
	}
	return l.Range.shown(least, most)
}

// unordered says what is not as sorted, rising or distinct ask for; "" where all is.
func (v *valueNode) unordered(texts []string, kind value.Kind) string {
	numbers := func(nodes []*treeNode) (all []int64) {
		for _, one := range nodes {
			n, _ := strconv.ParseInt(one.text, 10, 64)
			all = append(all, n)
		}
		return all
	}
	root := nodesOf(texts, kind)
	if v.Sorted || v.Rising {
		all := numbers(root.inOrder())
		for i := 1; i < len(all); i++ {
			if all[i-1] > all[i] || v.Rising && all[i-1] == all[i] {
				return fmt.Sprintf("from left to right %d comes before %d; this is no search tree", all[i-1], all[i])
			}
		}
	}
	if v.Distinct {
		all := numbers(root.levels())
		if i, j := twice(len(all), func(i, j int) int { return cmp.Compare(all[i], all[j]) }); j >= 0 {
			return fmt.Sprintf("%d stands there twice", all[i])
		}
	}
	return ""
}

// nodeForms say how a tree grows: what the parent of node i is, the nodes by their numbers in the order in which they
// are added, and which child of it, where its parent has room for two. A later row serves where none is asked for.
var nodeForms = []style[func(r *random, i, n int) (parent, side int)]{
	{"to-the-left", true, func(_ *random, i, _ int) (int, int) { return i - 1, 0 }},
	{"to-the-right", true, func(_ *random, i, _ int) (int, int) { return i - 1, 1 }},
	{"zigzag", true, func(_ *random, i, _ int) (int, int) { return i - 1, i % 2 }},
	{"complete", true, func(_ *random, i, _ int) (int, int) { return (i - 1) / 2, (i - 1) % 2 }},
	{"two-paths", true, func(_ *random, i, _ int) (int, int) { return max(0, i-2), i % 2 }},
	{"spine-with-leaves", true, func(_ *random, i, _ int) (int, int) { return max(0, (i-1)/2*2-1), i % 2 }},
	{"wide", true, func(_ *random, i, n int) (int, int) { return i / max(2, n/3+1), 0 }},
	{"grown", true, func(r *random, i, _ int) (int, int) { return r.index(i), r.index(2) }},
}

func (nodesBase) styles(_ *fieldNode, edge bool) []string { return styleNames(nodeForms, edge) }

func (nodesBase) generate(m *maker, f *fieldNode, d *datum, in *frame) *unmet {
	v := f.Value
	n := int(m.lengthUpTo(v.Dims[0], in, f, v.different(in)))
	m.spend(v.Pos, int64(n))
	root := grownNodes(m.random, n, f.nodes, styleNamed(nodeForms, m.style(f, f.styles)))
	low, high := v.bounds(in)
	if low > high && n > 0 {
		return &unmet{pos: v.Range.Pos, text: "an integer in " + v.Range.shown(low, high), hopeless: true}
	}
	if wrong := v.enough(n, low, high); wrong != nil {
		return wrong
	}
	values := make([]int64, n)
	within, s := interval{low: low, high: high}, styleNamed(arrayStyles, m.style(v, arrayNames))
	if v.Distinct || v.Rising {
		distinct(m.random, values, within, s)
	} else {
		s.fill(m.random, values, within)
	}
	nodes := root.levels()
	if v.Sorted || v.Rising {
		slices.Sort(values)
		nodes = root.inOrder()
	}
	for i, one := range nodes {
		one.text = strconv.FormatInt(values[i], 10)
	}
	d.texts, d.count = root.texts(f.nodes), int64(n)
	return nil
}

// grownNodes are so many nodes in a form. A place that is taken leads on to the child that has it.
func grownNodes(r *random, n int, kind value.Kind, form func(r *random, i, n int) (parent, side int)) *treeNode {
	if n == 0 {
		return nil
	}
	all := []*treeNode{{}}
	for i := 1; i < n; i++ {
		parent, side := form(r, i, n)
		at, one := all[parent], &treeNode{}
		all = append(all, one)
		if kind == value.Nary {
			at.kids = append(at.kids, one)
			continue
		}
		for steps := 0; at.kid(side) != nil; steps++ {
			if at = at.kid(side); steps%2 == 0 && at.kid(side) != nil { // not only down one side
				side = r.index(2)
			}
		}
		if at.kids == nil {
			at.kids = make([]*treeNode, 2)
		}
		at.kids[side] = one
	}
	return all[0]
}

// without leaves out the nodes i to j, counted level by level, with all below them.
func (t *treeNode) without(i, j int, kind value.Kind) *treeNode {
	gone := map[*treeNode]bool{}
	all := t.levels()
	for _, one := range all[i:j] {
		gone[one] = true
	}
	if gone[t] {
		return nil
	}
	for _, one := range all {
		if kind == value.Nary {
			one.kids = slices.DeleteFunc(one.kids, func(kid *treeNode) bool { return gone[kid] })
			continue
		}
		for k, kid := range one.kids {
			if gone[kid] {
				one.kids[k] = nil
			}
		}
	}
	return t
}

// mostRaised is how many nodes give their places to children at a time, since each is looked for.
const mostRaised = 4

// raised puts one child of each of the nodes i to j into its place.
func (t *treeNode) raised(i, j int) *treeNode {
	over := &treeNode{kids: []*treeNode{t}}
	for _, one := range t.levels()[i:j] {
		k := slices.IndexFunc(one.kids, func(kid *treeNode) bool { return kid != nil })
		if k < 0 {
			continue
		}
		for _, parent := range append(t.levels(), over) {
			if at := slices.Index(parent.kids, one); at >= 0 {
				parent.kids[at] = one.kids[k]
			}
		}
		t = over.kids[0]
	}
	return t
}

// cut leaves out nodes until there are as many as the count that was made smaller says: those of its part, and the last ones.
func (nodesBase) cut(c *cut, f *fieldNode, _, now *frame) bool {
	v, d := f.Value, &now.data[f.slot]
	if v.Dims[0].Exact == nil {
		return true
	}
	n, root := v.Dims[0].Exact.eval(now), nodesOf(d.texts, f.nodes)
	have := int64(len(root.levels()))
	if n < 0 || n > have {
		return false
	}
	if c.j <= int(have) && have > n {
		less := nodesOf(d.texts, f.nodes)
		if c.contract && c.j-c.i <= mostRaised {
			less = less.raised(c.i, c.j)
		} else {
			less = less.without(c.i, c.j, f.nodes)
		}
		if int64(len(less.levels())) >= n {
			root = less
		}
	}
	root = root.without(int(n), len(root.levels()), f.nodes)
	d.texts, d.count = root.texts(f.nodes), n
	return true
}

func (nodesBase) weigh(w *weight, _ *valueNode, text string) {
	if n, err := strconv.ParseInt(text, 10, 64); err == nil {
		w.add(uint64(max(n, -n)))
	}
}

func (nodesBase) simplify(c cursor) {
	simple, ok := c.field.simplest(c.at.in(c.k.best))
	if !ok {
		return
	}
	c.setParts(func() int { return len(c.texts()) }, func(d *datum, i, j int) bool {
		return changed(d.texts[i:j], func(text string) string {
			if text == "null" {
				return text
			}
			return strconv.FormatInt(simple, 10)
		})
	})
	for i := 0; i < len(c.texts()) && c.k.going(); i++ {
		now, err := strconv.ParseInt(c.texts()[i], 10, 64)
		for bad := simple; err == nil && now != bad && c.k.going(); { // halve the way
			middle := bad + (now-bad)/2
			if middle == bad || c.set(func(d *datum) bool { d.texts[i] = strconv.FormatInt(middle, 10); return true }) {
				now, err = strconv.ParseInt(c.texts()[i], 10, 64)
				if middle == bad {
					break
				}
				continue
			}
			bad = middle
		}
	}
}

// shortenNodes leaves out nodes with all below them, or single ones on the way.
func (c cursor) shortenNodes() {
	kind := c.field.nodes
	root := func(d *datum) *treeNode { return nodesOf(d.texts, kind) }
	set := func(top *frame, change func(t *treeNode) *treeNode) bool {
		d := c.in(top)
		d.texts = change(root(d)).texts(kind)
		d.count = countedNodes(d.texts)
		return true
	}
	c.k.leaveOut(func() int { return len(root(c.now()).levels()) },
		func(top *frame, i, j int) bool {
			return set(top, func(t *treeNode) *treeNode { return t.without(i, j, kind) })
		},
		func(top *frame, i, j int) bool {
			return j-i <= mostRaised && set(top, func(t *treeNode) *treeNode { return t.raised(i, j) })
		})
}

func (nodesBase) explain(e *explainer, f *fieldNode, name string) string {
	v := f.Value
	words := fmt.Sprintf("%sa tree of %s nodes", name, e.lengthWords(v.Dims[0]))
	if v.Range != nil {
		words += fmt.Sprintf(", each from %s to %s", plainEnd(v.Range.Low), plainEnd(v.Range.High))
	}
	for _, one := range []struct {
		set  bool
		word string
	}{{v.Distinct, "no two alike"}, {v.Sorted, "from left to right none less than the one before"}, {v.Rising, "a search tree: from left to right each more than the one before"}} {
		if one.set {
			words += ", " + one.word
		}
	}
	return words
}

// A graph of nodes is made of its edges: each node leads to those that it has an edge to.

// neighboursOf are the neighbours of each node, by numbers from 1, in rising order.
func (f *fieldNode) neighboursOf(top *frame) []any {
	v, d := f.Value, &top.data[f.slot]
	all := make([]any, max(0, v.Args[0].eval(top)))
	for i := range all {
		all[i] = []any{}
	}
	add := func(from, to int64) {
		if from -= v.From; from >= 0 && from < int64(len(all)) {
			all[from] = append(all[from].([]any), to-v.From+1)
		}
	}
	for i := 0; i+1 < len(d.ints); i += 2 {
		add(d.ints[i], d.ints[i+1])
		if !v.Directed && d.ints[i] != d.ints[i+1] {
			add(d.ints[i+1], d.ints[i])
		}
	}
	for _, one := range all {
		slices.SortFunc(one.([]any), func(a, b any) int { return cmp.Compare(a.(int64), b.(int64)) })
	}
	return all
}

// takeNeighbours puts a graph of nodes into a frame, as its edges.
func (f *fieldNode) takeNeighbours(top *frame, list []any) (wrong string) {
	v, d := f.Value, &top.data[f.slot]
	times := map[[2]int64]int{}
	for i, one := range list {
		for _, to := range one.([]any) {
			a, b := int64(i)+1, to.(int64)
			times[[2]int64{a, b}]++
			if v.Directed || a <= b {
				d.ints = append(d.ints, a-1+v.From, b-1+v.From)
			}
		}
	}
	d.count = int64(len(d.ints) / 2)
	for i, one := range list {
		for _, to := range one.([]any) {
			a, b := int64(i)+1, to.(int64)
			if !v.Directed && times[[2]int64{a, b}] != times[[2]int64{b, a}] {
				return fmt.Sprintf("node %d of %s has the neighbour %d, and node %d has not %d: say directed if that may be", a, f.Name, b, b, a)
			}
		}
	}
	return ""
}
