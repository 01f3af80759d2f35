package call

import (
	"cmp"
	"embed"
	"regexp"
	"slices"
	"strings"

	"coldverdict/core/value"
)

// Nodes of lists and trees are of a class that judges declare and solutions use. A source may declare
// it itself; else it is added: behind the source, or before it in languages that ask for that.

//go:embed nodes
var nodeTexts embed.FS

// nodeText is what a driver has for nodes, in languages where that depends on how they are declared.
func nodeText(file string) string {
	text, err := nodeTexts.ReadFile("nodes/" + file)
	if err != nil {
		panic(err) // it is a part of this program
	}
	return string(text)
}

// A nodeShape says how nodes of a kind are made.
type nodeShape struct {
	class string   // that judges declare
	links []string // its fields beside the value, each of them one node
	many  string   // a field with any number of nodes; empty: none
}

var nodeShapes = map[value.Kind]nodeShape{
	value.List:  {"ListNode", []string{"next"}, ""},
	value.List2: {"Node", []string{"prev", "next"}, ""},
	value.Tree:  {"TreeNode", []string{"left", "right"}, ""},
	value.Nary:  {"Node", nil, "children"},
	value.Graph: {"Node", nil, "neighbors"},
}

// nodeKinds are the kinds of nodes that a function takes or returns, each once, with what they hold.
func (f *fitting) nodeKinds() (list []value.Type) {
	add := func(t value.Type) {
		if e, _ := t.Element(); e.Kind.IsNodes() && !slices.ContainsFunc(list, func(other value.Type) bool { return other.Kind == e.Kind }) {
			list = append(list, e)
		}
	}
	for _, field := range f.fields() {
		add(field.Type)
	}
	return list
}

// classDeclared finds where a source declares a class, in any language with braces.
func classDeclared(source []byte, name string) bool {
	return regexp.MustCompile(`\b(?:class|struct|record|type|function|interface)\s+` + name + `\b\s*(?:<[^>]*>\s*)?(?:[{(:=]|struct\b|extends\b|implements\b|final\b)`).MatchString(mask(string(source)))
}

// nodeClasses are the texts of the classes of nodes that a source does not declare itself.
func (f *fitting) nodeClasses(form nodeForm) string {
	var all strings.Builder
	var done []string
	for _, t := range f.nodeKinds() {
		s := nodeShapes[t.Kind]
		if slices.Contains(done, s.class) || classDeclared(f.source, s.class) {
			continue
		}
		done = append(done, s.class)
		held := t.Of.Kind
		if t.Kind == value.Graph {
			held = value.Int
		}
		all.WriteString(form.declared(s, held))
	}
	return all.String()
}

// behind adds a text to the end of the source, so that its lines stay where they are.
func (f *fitting) behind(text string) {
	if text == "" {
		return
	}
	if n := len(f.source); n > 0 && f.source[n-1] != '\n' {
		f.source = append(f.source, '\n')
	}
	f.source = append(f.source, text...)
}

// A nodeForm is how judges declare a class of nodes in a language. In its texts stand {class}, its name,
// {kind}, the type of the value, {usual}, a value of that type, and {name} or {Name}, that of a field.
type nodeForm struct {
	dialect string
	bigInt  string // its integers of any size, where the dialect's name of them needs more around it
	// class is the whole. In it stand the texts of its fields beside the value: {fields} and, of its
	// constructors, {params}, {sets} and {bare}, where nothing is passed.
	class      string
	link, many nodeField
	tree       *nodeForm // of trees, where theirs is another
}

// A nodeField is what a form has for one field: one node, or any number of them.
type nodeField struct{ field, param, set, bare string }

var (
	cppNode = nodeForm{
		dialect: "cpp",
		class:   "struct {class} { {kind} val; {fields}{class}() : val(){bare} {} {class}({kind} val) : val(val){bare} {} {class}({kind} val{params}) : val(val){sets} {} };\n",
		link:    nodeField{"{class} *{name}; ", ", {class} *{name}", ", {name}({name})", ", {name}(nullptr)"},
		many:    nodeField{"std::vector<{class} *> {name}; ", ", std::vector<{class} *> {name}", ", {name}({name})", ""},
	}
	cNode = nodeForm{
		dialect: "c",
		class:   "struct {class} { {kind} val;{fields} };\n",
		link:    nodeField{field: " struct {class} *{name};"},
	}
	javaNode = nodeForm{
		dialect: "java", bigInt: "java.math.BigInteger",
		class: "class {class} { {kind} val;{fields} {class}() {{bare} } {class}({kind} val) { this.val = val;{bare} } {class}({kind} val{params}) { this.val = val;{sets} } }\n",
		link:  nodeField{" {class} {name};", ", {class} {name}", " this.{name} = {name};", ""},
		many:  nodeField{" java.util.List<{class}> {name};", ", java.util.List<{class}> {name}", " this.{name} = {name};", " {name} = new java.util.ArrayList<>();"},
	}
	kotlinNode = nodeForm{
		dialect: "kotlin", bigInt: "java.math.BigInteger",
		class: "class {class}(var `val`: {kind}) {{fields} }\n",
		link:  nodeField{field: " var {name}: {class}? = null;"},
		many:  nodeField{field: " var {name}: List<{class}?> = java.util.ArrayList<{class}?>();"},
	}
	csharpNode = nodeForm{
		dialect: "csharp", bigInt: "System.Numerics.BigInteger",
		class: "public class {class} { public {kind} val;{fields} public {class}() : this(default({kind})) {} public {class}({kind} val{params}) { this.val = val;{sets} } }\n",
		link:  nodeField{" public {class} {name};", ", {class} {name} = null", " this.{name} = {name};", ""},
		many: nodeField{" public System.Collections.Generic.IList<{class}> {name};", ", System.Collections.Generic.IList<{class}> {name} = null",
			" this.{name} = {name} ?? new System.Collections.Generic.List<{class}>();", ""},
	}
	goNode = nodeForm{
		dialect: "go",
		class:   "type {class} struct { Val {kind}{fields} }\n",
		link:    nodeField{field: "; {Name} *{class}"},
		many:    nodeField{field: "; {Name} []*{class}"},
	}
	jsNode = nodeForm{
		dialect: "javascript",
		class:   "class {class} { constructor(val{params}) { this.val = val === undefined ? {usual} : val;{sets} } }\n",
		link:    nodeField{"", ", {name}", " this.{name} = {name} === undefined ? null : {name};", ""},
		many:    nodeField{"", ", {name}", " this.{name} = {name} === undefined ? [] : {name};", ""},
	}
	tsNode = nodeForm{
		dialect: "typescript",
		class:   "class {class} { val: {kind}; {fields}constructor(val?: {kind}{params}) { this.val = val === undefined ? {usual} : val;{sets} } }\n",
		link:    nodeField{"{name}: {class} | null; ", ", {name}?: {class} | null", jsNode.link.set, ""},
		many:    nodeField{"{name}: {class}[]; ", ", {name}?: {class}[]", jsNode.many.set, ""},
	}
	// Rust has a Box for the next node of a list, and an Rc of a RefCell for the children of a tree.
	rustNode = nodeForm{
		dialect: "rust", tree: &rustTree,
		class: "#[derive(PartialEq, Eq, Clone, Debug)]\npub struct {class} { pub val: {kind}{fields} }\n" +
			"impl {class} { #[inline] pub fn new(val: {kind}) -> Self { {class} { {bare}val } } }\n",
		link: nodeField{field: ", pub {name}: Option<Box<{class}>>", bare: "{name}: None, "},
	}
	rustTree = nodeForm{
		dialect: "rust",
		class: "#[derive(Debug, PartialEq, Eq)]\npub struct {class} { pub val: {kind}{fields} }\n" +
			"impl {class} { #[inline] pub fn new(val: {kind}) -> Self { {class} { val{bare} } } }\n",
		link: nodeField{field: ", pub {name}: Option<std::rc::Rc<std::cell::RefCell<{class}>>>", bare: ", {name}: None"},
	}
)

// declared writes the class of a shape in a form.
func (form nodeForm) declared(s nodeShape, held value.Kind) string {
	if form.tree != nil && s.class == nodeShapes[value.Tree].class {
		form = *form.tree
	}
	kind := dialects[form.dialect].kinds[held]
	switch {
	case form.dialect == "c":
		kind = usual[held]
	case held == value.BigInt && form.bigInt != "":
		kind = form.bigInt
	}
	var all nodeField
	add := func(field nodeField, name string) {
		named := strings.NewReplacer("{name}", name, "{Name}", spelled(name, pascal))
		for _, one := range []struct{ to, of *string }{{&all.field, &field.field}, {&all.param, &field.param}, {&all.set, &field.set}, {&all.bare, &field.bare}} {
			*one.to += named.Replace(*one.of)
		}
	}
	for _, link := range s.links {
		add(form.link, link)
	}
	if s.many != "" {
		add(form.many, s.many)
	}
	text := strings.NewReplacer("{fields}", all.field, "{params}", all.param, "{sets}", all.set, "{bare}", all.bare).Replace(form.class)
	zero := map[value.Kind]string{value.Text: `""`, value.Char: `""`, value.Bool: "false", value.BigInt: "0n"}[held]
	return strings.NewReplacer("{class}", s.class, "{kind}", kind, "{usual}", cmp.Or(zero, "0")).Replace(text)
}

// fieldNames are the names that people give the fields of nodes, by ours.
var fieldNames = map[string][]string{
	"val": {"val", "value", "data", "key", "item"}, "next": {"next", "nxt"}, "prev": {"prev", "previous"}, "left": {"left"}, "right": {"right"},
	"children": {"children", "kids"}, "neighbors": {"neighbors", "neighbours", "adjacent"},
}

// fields are the fields of a shape, by our names.
func (s nodeShape) fields() []string {
	list := append([]string{"val"}, s.links...)
	if s.many != "" {
		list = append(list, s.many)
	}
	return list
}

// nodeFields finds a class of nodes that a source declares by its fields, and their names in it; "" is
// the usual class, with the usual names.
func (o *outline) nodeFields(s nodeShape) (class string, names map[string]string) {
	for _, t := range slices.Backward(o.types) {
		body := o.text[t.from:min(t.to, len(o.text))]
		// What leads to others of its kind names itself; a field of another object stands behind . or ->.
		if t.kind == "interface" || t.kind == "impl" || o.holdsFunction(t) || !regexp.MustCompile(`\b`+t.name+`\b`).MatchString(body) {
			continue
		}
		names = map[string]string{}
		for _, field := range s.fields() {
			for _, name := range fieldNames[field] {
				if m := regexp.MustCompile(`(?i)[^\w.>](` + name + `)\b`).FindStringSubmatch(body); m != nil {
					names[field] = m[1]
					break
				}
			}
		}
		forwardOnly := len(s.links) == 1 && regexp.MustCompile(`\bprev(?:ious)?\b`).MatchString(body)
		if len(names) == len(s.fields()) && !forwardOnly {
			return t.name, names
		}
	}
	names = map[string]string{}
	for _, field := range s.fields() {
		names[field] = field
	}
	return "", names
}

// holdsFunction reports that the function to be called lies in a class, which then is none of nodes.
func (o *outline) holdsFunction(t *scope) bool {
	return slices.ContainsFunc(o.sites, func(s site) bool { return s.at > t.from && s.at < t.to })
}

const (
	cppNext     = "static Node *next(Node *n) { return n->NEXT; }\n    "
	cppChildren = "static constexpr bool many = false;\n    static void put(Node *n, int side, Node *o) { (side ? n->RIGHT : n->LEFT) = o; }\n    " +
		"template <class F> static void each(Node *n, F f) { f(n->LEFT); f(n->RIGHT); }"
	cppAny = "static constexpr bool many = true;\n    static void put(Node *n, int, Node *o) { n->MANY.push_back(o); }\n    " +
		"template <class F> static void each(Node *n, F f) { for (Node *o : n->MANY) f(o); }"
)

// cppKinds are what reads and writes nodes of a kind in C++, and how it gets at their fields.
var cppKinds = map[value.Kind]struct{ json, fields string }{
	value.List: {"JsonList", cppNext + "static void link(Node *n, Node *o) { n->NEXT = o; }\n    static bool backwards(Node *, Node *) { return true; }"},
	value.List2: {"JsonList", cppNext + "static void link(Node *n, Node *o) { n->NEXT = o; o->PREV = n; }\n    " +
		"static bool backwards(Node *n, Node *before) { return n->PREV == before; }"},
	value.Tree:  {"JsonTree", cppChildren},
	value.Nary:  {"JsonTree", strings.ReplaceAll(cppAny, "MANY", "CHILDREN")},
	value.Graph: {"JsonGraph", strings.ReplaceAll(cppAny, "MANY", "NEIGHBORS")},
}

// cppNodes puts the usual classes of nodes before the source, and returns what tells the driver where
// their fields lie.
func (f *fitting) cppNodes(o *outline) (string, error) {
	f.words["NODES"] = ""
	list := f.nodeKinds()
	if len(list) == 0 {
		return "", nil
	}
	f.words["NODES"] = nodeText("nodes.cpp")
	f.words["PRELUDE"] += "\n" + f.nodeClasses(cppNode)
	var all strings.Builder
	done := map[string]bool{}
	for _, t := range list {
		s := nodeShapes[t.Kind]
		class, names := o.nodeFields(s)
		if class == "" {
			class = s.class
		}
		if done[class] {
			return "", refuse("%s is the class of two kinds of nodes", class)
		}
		done[class] = true
		bare := ""
		for _, link := range s.links {
			bare += " n->" + strings.ToUpper(link) + " = nullptr;"
		}
		kind := cppKinds[t.Kind]
		text := strings.NewReplacer("BARE", bare, "JSON", kind.json, "FIELDS", kind.fields).Replace(nodeText("class.cpp"))
		pairs := []string{"CLASS", class}
		for _, field := range s.fields() {
			pairs = append(pairs, strings.ToUpper(field), names[field])
		}
		all.WriteString(strings.NewReplacer(pairs...).Replace(text))
	}
	return all.String(), nil
}

// cNodes puts the usual structs of nodes before the source, and returns what reads and writes
// them.
func (f *fitting) cNodes(o *outline) string {
	var all strings.Builder
	for _, t := range f.nodeKinds() {
		s := nodeShapes[t.Kind]
		class, names := o.nodeFields(s)
		if class == "" {
			class = s.class
		}
		read, err := (&cWriter{}).read(*t.Of, usual[t.Of.Kind])
		if err != nil {
			continue
		}
		held := "node->" + names["val"]
		template := nodeText("list.c")
		if t.Kind == value.Tree {
			template = nodeText("tree.c")
		}
		all.WriteString(strings.NewReplacer("X", "struct "+class, "READ", read, "PUT", put(*t.Of, held), "VALUE", held, "NEXT", names["next"], "LEFT", names["left"], "RIGHT", names["right"]).Replace(template))
	}
	f.words["PRELUDE"] += "\n" + f.nodeClasses(cNode)
	return all.String()
}

// rustNodes returns what reads and writes nodes in Rust, where one leads to the next by a Box, or to its
// children by an Rc of a RefCell.
func (f *fitting) rustNodes(o *outline) (string, error) {
	var all strings.Builder
	for _, t := range f.nodeKinds() {
		s := nodeShapes[t.Kind]
		if t.Kind != value.List && t.Kind != value.Tree {
			return "", refuse("Rust has no usual way to pass %s", t)
		}
		class, names := o.nodeFields(s)
		if class == "" {
			class = s.class
		}
		template := nodeText("list.rs")
		if t.Kind == value.Tree {
			template = nodeText("tree.rs")
		}
		all.WriteString(strings.NewReplacer("NODE", "super::"+class, "VALUE", names["val"], "NEXT", names["next"], "LEFT", names["left"], "RIGHT", names["right"]).Replace(template))
	}
	return all.String(), nil
}
