package call

import (
	"cmp"
	"embed"
	"fmt"
	"regexp"
	"slices"
	"strconv"
	"strings"

	"coldverdict/core/value"
	"coldverdict/internal/lazy"
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

// otherNode declares _Node where a source uses it, as it does where Node is a class of the browser's.
func (f *fitting) otherNode() string {
	usual := slices.ContainsFunc(f.nodeKinds(), func(t value.Type) bool { return nodeShapes[t.Kind].class == "Node" })
	if !usual || classDeclared(f.source, "_Node") || !otherNodeUsed().MatchString(mask(string(f.source))) {
		return ""
	}
	return "class _Node extends Node {}\n"
}

var otherNodeUsed = lazy.New(`\b_Node\b`)

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
	back       nodeField // of the link backwards, where that is another
	// Where theirs are others: of trees, and of what else has nodes that are shared.
	tree, shared *nodeForm
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
		many:    nodeField{field: " int num{Name}; struct {class} **{name};"},
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
	// Rust has a Box for the next node of a list, and an Rc of a RefCell for what others may share.
	rustNode = nodeForm{
		dialect: "rust", tree: &rustTree, shared: &rustShared,
		class: "#[derive(PartialEq, Eq, Clone, Debug)]\npub struct {class} { pub val: {kind}{fields} }\n" +
			"impl {class} { #[inline] pub fn new(val: {kind}) -> Self { {class} { {bare}val } } }\n",
		link: nodeField{field: ", pub {name}: Option<Box<{class}>>", bare: "{name}: None, "},
	}
	rustShared = nodeForm{
		dialect: "rust",
		class: "#[derive(Debug)]\npub struct {class} { pub val: {kind}{fields} }\n" +
			"impl {class} { #[inline] pub fn new(val: {kind}) -> Self { {class} { val{bare} } } }\n",
		link: nodeField{field: ", pub {name}: Option<std::rc::Rc<std::cell::RefCell<{class}>>>", bare: ", {name}: None"},
		back: nodeField{field: ", pub {name}: Option<std::rc::Weak<std::cell::RefCell<{class}>>>", bare: ", {name}: None"},
		many: nodeField{field: ", pub {name}: Vec<std::rc::Rc<std::cell::RefCell<{class}>>>", bare: ", {name}: Vec::new()"},
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
	switch {
	case form.tree != nil && s.class == nodeShapes[value.Tree].class:
		form = *form.tree
	case form.shared != nil && s.class != nodeShapes[value.List].class:
		form = *form.shared
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
		if link == "prev" && form.back.field != "" {
			add(form.back, link)
			continue
		}
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
		if t.kind == "interface" || t.kind == "impl" || o.holdsFunction(t) || !o.names(body, t.name) {
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

// ownClass finds the class of a kind of nodes, or names the usual one, with its fields. Done are those of other
// kinds, of which it must be none.
func (o *outline) ownClass(kind value.Kind, word string, done map[string]bool) (class string, names map[string]string, err error) {
	s := nodeShapes[kind]
	class, names = o.nodeFields(s)
	class = cmp.Or(class, s.class)
	if done[class] {
		return "", nil, refuse("%s is the %s of two kinds of nodes", class, word)
	}
	done[class] = true
	return class, names, nil
}

// names reports that a text names a type, by itself or by another name that the source gives to what leads to it.
func (o *outline) names(text, name string) bool {
	word := func(name string) string { return `\b` + regexp.QuoteMeta(name) + `\b` }
	all := []string{word(name)}
	for _, m := range regexp.MustCompile(`\b(?:type|using)\s+(\w+)\s*=[^;]*`+word(name)+`|\btypedef\b[^;{]*`+word(name)+`[^;{]*?(\w+)\s*;`).FindAllStringSubmatch(o.text, -1) {
		all = append(all, word(cmp.Or(m[1], m[2])))
	}
	return regexp.MustCompile(strings.Join(all, "|")).MatchString(text)
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
		class, names, err := o.ownClass(t.Kind, "class", done)
		if err != nil {
			return "", err
		}
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
func (f *fitting) cNodes(o *outline) (string, error) {
	list := f.nodeKinds()
	if len(list) == 0 {
		return "", nil
	}
	function := f.function
	var all strings.Builder
	all.WriteString(strings.NewReplacer("PLACES", strconv.Itoa(b2i(function.Original() > 0)), "NODE_OF", strconv.Itoa(function.NodeOf()), "COPY_OF", strconv.Itoa(function.CopyOf)).Replace(nodeText("places.c")))
	done := map[string]bool{}
	for _, t := range list {
		class, names, err := o.ownClass(t.Kind, "struct", done)
		if err != nil {
			return "", err
		}
		held := "node->" + names["val"]
		pairs := []string{"X", "struct " + class, "KIND", t.Kind.Word(), "VALUE", held, "FIELD", names["val"], "NEXT", names["next"], "LEFT", names["left"], "RIGHT", names["right"]}
		if t.Kind != value.Graph {
			read, err := (&cWriter{function: "struct " + class}).read(*t.Of, o.cHeld(class, names["val"], usual[t.Of.Kind]))
			if err != nil {
				return "", err
			}
			pairs = append(pairs, "READ", read, "PUT", put(*t.Of, held))
		}
		back := [3]string{}
		if prev := names["prev"]; t.Kind == value.List2 {
			back = [3]string{"node->PREV = n > 1 ? all[n - 2] : NULL;", "node->PREV = all[n - 1];",
				"if (node->PREV != before && !cold_misfit[0]) snprintf(cold_misfit, sizeof cold_misfit, \"it returned a list in which the link backwards of node %lld, counted from 0, does not lead to the node before it\", i);\n        before = node;"}
			for i := range back {
				back[i] = strings.ReplaceAll(back[i], "PREV", prev)
			}
		}
		pairs = append(pairs, "LINK_BACK", back[0], "CLOSE_BACK", back[1], "CHECK_BACK", back[2])
		if many := nodeShapes[t.Kind].many; many != "" {
			more, err := o.cMany(class, names["val"], names[many])
			if err != nil {
				return "", err
			}
			pairs = append(pairs, more...)
		}
		file := map[value.Kind]string{value.List2: "list"}[t.Kind]
		all.WriteString(strings.NewReplacer(pairs...).Replace(nodeText(cmp.Or(file, t.Kind.Word()) + ".c")))
	}
	f.words["PRELUDE"] += "\n" + f.nodeClasses(cNode)
	return all.String(), nil
}

// cMany says how a struct that a source declares holds any number of nodes: behind a pointer, with their number in
// a field of its own, or in an array of a fixed size, where some may be missing.
func (o *outline) cMany(class, val, many string) (pairs []string, err error) {
	body := o.bodyOf(class)
	if m := regexp.MustCompile(`\b` + many + `\s*\[\s*(\w+)\s*\]`).FindStringSubmatch(body); m != nil {
		return []string{"MANY", many, "COUNT", m[1], "SET", "", "GROW", "if (children >= " + m[1] + ") {\n        cold_lacks(\"has nodes with room for fewer others than the problem gives it\");\n        return;\n    }"}, nil
	}
	count := ""
	if body == "" {
		count = cCountName(many)
	}
	for _, m := range cCounts().FindAllStringSubmatch(body, -1) {
		for name := range strings.SplitSeq(m[1], ",") {
			if name = strings.TrimSpace(name); name != val && count == "" {
				count = name
			}
		}
	}
	if count == "" {
		return nil, refuse("struct %s has no field with the number of its %s; declare int %s", class, many, cCountName(many))
	}
	return []string{"MANY", many, "COUNT", "node->" + count, "SET", "before->" + count + " = children + 1;",
		"GROW", "if ((children & (children - 1)) == 0) before->" + many + " = realloc(before->" + many + ", (children > 0 ? 2 * children : 1) * sizeof *before->" + many + ");"}, nil
}

// bodyOf is what a source says of a type; empty: it does not declare it.
func (o *outline) bodyOf(name string) (body string) {
	for _, t := range o.types {
		if t.name == name {
			body = o.text[t.from:min(t.to, len(o.text))]
		}
	}
	return body
}

// cHeld is the type of the value in a struct that a source declares, and otherwise the usual one.
func (o *outline) cHeld(class, val, usual string) string {
	m := regexp.MustCompile(`[;{]\s*([\w\s*]+?[\s*])` + val + `\s*[;,]`).FindStringSubmatch(o.bodyOf(class))
	if m == nil {
		return usual
	}
	return cType(m[1])
}

// cCounts are fields of a struct that hold integers.
var cCounts = lazy.New(`\b(?:int|long|short|unsigned|size_t|u?int(?:8|16|32|64)_t)\s+(\w+(?:\s*,\s*\w+)*)\s*;`)

// cCountName is the usual name of the field with the number of others.
func cCountName(many string) string { return "num" + spelled(many, pascal) }

// rustNodes returns what reads and writes nodes in Rust, where one leads to the next by a Box, or to others by an Rc
// of a RefCell.
func (f *fitting) rustNodes(o *outline) (string, error) {
	var all strings.Builder
	done := map[string]bool{}
	for i, t := range f.nodeKinds() {
		if i == 0 {
			all.WriteString(strings.NewReplacer("@NODE_OF@", f.words["NODE_OF"], "@COPY_OF@", f.words["COPY_OF"], "@PLACES_OF@", f.words["PLACES_OF"]).Replace(nodeText("shared.rs")))
		}
		class, names, err := o.ownClass(t.Kind, "struct", done)
		if err != nil {
			return "", err
		}
		all.WriteString(strings.NewReplacer("NODE", "super::"+class, "VALUE", names["val"], "NEXT", names["next"], "PREV", names["prev"],
			"LEFT", names["left"], "RIGHT", names["right"], "MANY", names[nodeShapes[t.Kind].many]).Replace(nodeText(t.Kind.Word() + ".rs")))
	}
	return all.String(), nil
}

// rustPlaces notes where the nodes of an argument stand that others, or the result, are compared with, and finds
// arguments that are nodes of it.
func (f *fitting) rustPlaces() (takes []string, err error) {
	of := f.function.Original()
	if of == 0 {
		return nil, nil
	}
	if original := f.function.Takes[of-1]; original.Type.Kind == value.List {
		return nil, refuse("in Rust a Box owns the next node of a list, and none can be told from a copy of it: %s", original)
	}
	takes = append(takes, fmt.Sprintf("            let original = keep(&a%d);", of-1))
	for i, field := range f.function.Takes {
		if field.Type.Kind == value.Place {
			takes = append(takes, fmt.Sprintf("            let mut a%d = node_at(a%[1]d);", i))
		}
	}
	return append(takes, "            PLACES.with(|p| p.borrow_mut().nodes.clear());"), nil
}
