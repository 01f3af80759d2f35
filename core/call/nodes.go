package call

import (
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
	for _, field := range f.function.Takes {
		add(field.Type)
	}
	for _, field := range f.function.Results() {
		add(field.Type)
	}
	return list
}

// classDeclared finds where a source declares a class, in any language with braces.
func classDeclared(source []byte, name string) bool {
	return regexp.MustCompile(`\b(?:class|struct|record|type|function|interface)\s+` + name + `\b\s*(?:<[^>]*>\s*)?(?:[{(:=]|struct\b|extends\b|implements\b|final\b)`).MatchString(mask(string(source)))
}

// nodeClasses are the texts of the classes of nodes that a source does not declare itself.
func (f *fitting) nodeClasses(text func(s nodeShape, held value.Kind) string) string {
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
		all.WriteString(text(s, held))
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

// jsNode writes a class of nodes in JavaScript, and with types in TypeScript.
func jsNode(typed bool) func(s nodeShape, held value.Kind) string {
	return func(s nodeShape, held value.Kind) string {
		var fields, params, sets strings.Builder
		kind := dialects["typescript"].kinds[held]
		declare := func(name, of, usual string) {
			if typed {
				fields.WriteString(name + ": " + of + "; ")
				params.WriteString(", " + name + "?: " + of)
			} else {
				params.WriteString(", " + name)
			}
			sets.WriteString(" this." + name + " = " + name + " === undefined ? " + usual + " : " + name + ";")
		}
		usual := map[value.Kind]string{value.Text: `""`, value.Char: `""`, value.Bool: "false", value.BigInt: "0n"}[held]
		if usual == "" {
			usual = "0"
		}
		declare("val", kind, usual)
		for _, link := range s.links {
			declare(link, s.class+" | null", "null")
		}
		if s.many != "" {
			declare(s.many, s.class+"[]", "[]")
		}
		return "class " + s.class + " { " + fields.String() + "constructor(" + strings.TrimPrefix(params.String(), ", ") + ") {" + sets.String() + " } }\n"
	}
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
		names = map[string]string{}
		for _, field := range s.fields() {
			for _, name := range fieldNames[field] {
				if regexp.MustCompile(`(?i)\b` + name + `\b`).MatchString(body) {
					names[field] = regexp.MustCompile(`(?i)\b` + name + `\b`).FindString(body)
					break
				}
			}
		}
		forwardOnly := len(s.links) == 1 && regexp.MustCompile(`\bprev(?:ious)?\b`).MatchString(body)
		if len(names) == len(s.fields()) && !forwardOnly && t.kind != "interface" && !o.holdsFunction(t) {
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

// cppNode declares a class of nodes in C++, as judges do.
func cppNode(s nodeShape, held value.Kind) string {
	kind := dialects["cpp"].kinds[held]
	var fields, params, sets, bare strings.Builder
	for _, link := range s.links {
		fields.WriteString(s.class + " *" + link + "; ")
		params.WriteString(", " + s.class + " *" + link)
		sets.WriteString(", " + link + "(" + link + ")")
		bare.WriteString(", " + link + "(nullptr)")
	}
	more := ""
	if s.many != "" {
		fields.WriteString("std::vector<" + s.class + " *> " + s.many + "; ")
		more = s.class + "(" + kind + " val, std::vector<" + s.class + " *> " + s.many + ") : val(val), " + s.many + "(" + s.many + ") {} "
	}
	if len(s.links) > 0 {
		more += s.class + "(" + kind + " val" + params.String() + ") : val(val)" + sets.String() + " {} "
	}
	return "struct " + s.class + " { " + kind + " val; " + fields.String() + s.class + "() : val()" + bare.String() + " {} " + s.class + "(" + kind + " val) : val(val)" + bare.String() + " {} " + more + "};\n"
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
		value := func(node string) string { return node + "->" + names["val"] }
		bare, extra, json := "", "", "JsonTree"
		for _, link := range s.links {
			bare += " n->" + names[link] + " = nullptr;"
		}
		switch {
		case s.many != "":
			extra = "static constexpr bool many = true;\n    static void put(Node *n, int, Node *o) { n->" + names[s.many] + ".push_back(o); }\n    template <class F> static void each(Node *n, F f) { for (Node *o : n->" + names[s.many] + ") f(o); }"
		case names["left"] != "":
			extra = "static constexpr bool many = false;\n    static void put(Node *n, int side, Node *o) { (side ? n->" + names["right"] + " : n->" + names["left"] + ") = o; }\n    template <class F> static void each(Node *n, F f) { f(n->" + names["left"] + "); f(n->" + names["right"] + "); }"
		default:
			json = "JsonList"
			link, backwards := "", "return true;"
			if names["prev"] != "" {
				link, backwards = " o->"+names["prev"]+" = n;", "return n->"+names["prev"]+" == before;"
			}
			extra = "static Node *next(Node *n) { return n->" + names["next"] + "; }\n    static void link(Node *n, Node *o) { n->" + names["next"] + " = o;" + link + " }\n    static bool backwards([[maybe_unused]] Node *n, [[maybe_unused]] Node *before) { " + backwards + " }"
		}
		if names["neighbors"] != "" {
			json = "JsonGraph"
		}
		all.WriteString("struct cold_" + class + " {\n    typedef ::" + class + " Node;\n    typedef std::remove_reference<decltype(" + value("((Node *)0)") + ")>::type Value;\n    static Value &value(Node *n) { return " + value("n") + "; }\n    static void bare([[maybe_unused]] Node *n) {" + bare + " }\n    " + extra + "\n};\n")
		all.WriteString("namespace cold_driver {\ntemplate <> struct Json< ::" + class + " *> : " + json + "<cold_" + class + "> {};\ntemplate <class P> struct Held<P, ::" + class + " *> {\n    ::" + class + " *value = nullptr;\n    void take() { cold_driver::take(value); }\n    ::" + class + " *&&pass() { return static_cast< ::" + class + " *&&>(value); }\n    void give(std::string &text) { cold_driver::give(text, value); }\n};\n}\n")
	}
	return all.String(), nil
}

// javaNode declares a class of nodes in Java, as judges do.
func javaNode(s nodeShape, held value.Kind) string {
	kind := dialects["java"].kinds[held]
	if held == value.BigInt {
		kind = "java.math.BigInteger"
	}
	var fields, params, sets strings.Builder
	for _, link := range s.links {
		fields.WriteString(" " + s.class + " " + link + ";")
		params.WriteString(", " + s.class + " " + link)
		sets.WriteString(" this." + link + " = " + link + ";")
	}
	begin := ""
	if s.many != "" {
		of := "java.util.List<" + s.class + ">"
		fields.WriteString(" " + of + " " + s.many + ";")
		params.WriteString(", " + of + " " + s.many)
		sets.WriteString(" this." + s.many + " = " + s.many + ";")
		begin = " " + s.many + " = new java.util.ArrayList<>();"
	}
	return "class " + s.class + " { " + kind + " val;" + fields.String() + " " + s.class + "() {" + begin + " } " + s.class + "(" + kind + " val) { this.val = val;" + begin + " } " +
		s.class + "(" + kind + " val" + params.String() + ") { this.val = val;" + sets.String() + " } }\n"
}

// kotlinNode declares a class of nodes in Kotlin, as judges do.
func kotlinNode(s nodeShape, held value.Kind) string {
	kind := dialects["kotlin"].kinds[held]
	if held == value.BigInt {
		kind = "java.math.BigInteger"
	}
	text := "class " + s.class + "(var `val`: " + kind + ") {"
	for _, link := range s.links {
		text += " var " + link + ": " + s.class + "? = null;"
	}
	if s.many != "" {
		text += " var " + s.many + ": List<" + s.class + "?> = java.util.ArrayList<" + s.class + "?>();"
	}
	return text + " }\n"
}

// csharpNode declares a class of nodes in C#, as judges do.
func csharpNode(s nodeShape, held value.Kind) string {
	kind := dialects["csharp"].kinds[held]
	if held == value.BigInt {
		kind = "System.Numerics.BigInteger"
	}
	var fields, params, sets strings.Builder
	for _, link := range s.links {
		fields.WriteString(" public " + s.class + " " + link + ";")
		params.WriteString(", " + s.class + " " + link + " = null")
		sets.WriteString(" this." + link + " = " + link + ";")
	}
	if s.many != "" {
		of := "System.Collections.Generic.IList<" + s.class + ">"
		fields.WriteString(" public " + of + " " + s.many + ";")
		params.WriteString(", " + of + " " + s.many + " = null")
		sets.WriteString(" this." + s.many + " = " + s.many + " ?? new System.Collections.Generic.List<" + s.class + ">();")
	}
	return "public class " + s.class + " { public " + kind + " val;" + fields.String() + " public " + s.class + "() : this(default(" + kind + ")) {} public " + s.class + "(" + kind + " val" + params.String() + ") { this.val = val;" + sets.String() + " } }\n"
}

// goNode declares a type of nodes in Go, as judges do.
func goNode(s nodeShape, held value.Kind) string {
	kind := dialects["go"].kinds[held]
	text := "type " + s.class + " struct { Val " + kind
	for _, link := range s.links {
		text += "; " + strings.ToUpper(link[:1]) + link[1:] + " *" + s.class
	}
	if s.many != "" {
		text += "; " + strings.ToUpper(s.many[:1]) + s.many[1:] + " []*" + s.class
	}
	return text + " }\n"
}

// cNode declares a struct of nodes in C, as judges do.
func cNode(s nodeShape, held value.Kind) string {
	text := "struct " + s.class + " { " + usual[held] + " val;"
	for _, link := range s.links {
		text += " struct " + s.class + " *" + link + ";"
	}
	return text + " };\n"
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

// rustNode declares a struct of nodes in Rust, as judges do.
func rustNode(s nodeShape, held value.Kind) string {
	kind := dialects["rust"].kinds[held]
	if s.class == "TreeNode" {
		return "#[derive(Debug, PartialEq, Eq)]\npub struct TreeNode { pub val: " + kind + ", pub left: Option<std::rc::Rc<std::cell::RefCell<TreeNode>>>, pub right: Option<std::rc::Rc<std::cell::RefCell<TreeNode>>> }\n" +
			"impl TreeNode { #[inline] pub fn new(val: " + kind + ") -> Self { TreeNode { val, left: None, right: None } } }\n"
	}
	return "#[derive(PartialEq, Eq, Clone, Debug)]\npub struct ListNode { pub val: " + kind + ", pub next: Option<Box<ListNode>> }\n" +
		"impl ListNode { #[inline] pub fn new(val: " + kind + ") -> Self { ListNode { next: None, val } } }\n"
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
