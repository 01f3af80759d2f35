package call

import (
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"coldverdict/core/problem"
	"coldverdict/core/value"
)

func TestTheFieldsOfNodesAreFoundByTheirNames(t *testing.T) {
	for _, tt := range []struct {
		kind          value.Kind
		source, class string
		fields        string
	}{
		{value.List, "struct Knot { int data; Knot *nxt; };", "Knot", "data nxt"},
		{value.List, "struct Node { int val; Node *prev, *next; };", "", "val next"}, // it leads both ways
		{value.List2, "struct Node { int val; Node *previous, *next; };", "Node", "val previous next"},
		{value.Tree, "class Camp { public: int key; Camp *left, *right; };\nstruct Other { int val; };", "Camp", "key left right"},
		{value.Nary, "class Branch { int val; List<Branch> kids; }", "Branch", "val kids"},
		{value.Graph, "class Camp { public int Value; public IList<Camp> Neighbours; }", "Camp", "Value Neighbours"},
		{value.Tree, "class Solution { int f(TreeNode root) { return root.val + root.left.val + root.right.val; } }", "", "val left right"},
		{value.Tree, "struct Helper { int sum(TreeNode *n) { int val = n->val, left = sum(n->left), right = sum(n->right); return val + left + right; } };", "", "val left right"},
		{value.List, "struct Knot { v: i32 }\nimpl Knot { fn f(&self) { self.val; self.next; Knot {} } }", "", "val next"},
		{value.List, "struct Knot { int val; Knot *next; Knot(int v) : val(v), next(nullptr) {} };", "Knot", "val next"},
		{value.Nary, "type Link = Option<Rc<RefCell<Branch>>>;\nstruct Branch { value: i32, children: Vec<Link> }", "Branch", "value children"},
		{value.List, "typedef struct Knot *Link;\nstruct Knot { int data; Link next; };", "Knot", "data next"},
		{value.List, "typedef struct Other *Link;\nstruct Knot { int data; Link next; };", "", "val next"},
		{value.List, "interface Knot { val: number; next: Knot; }", "", "val next"},
		{value.List, "// struct Knot { int val; Knot *next; };", "", "val next"},
	} {
		o := outlined([]byte(tt.source), []string{"f"})
		class, names := o.nodeFields(nodeShapes[tt.kind])
		assert.Equal(t, tt.class, class, tt.source)
		var fields []string
		for _, field := range nodeShapes[tt.kind].fields() {
			fields = append(fields, names[field])
		}
		assert.Equal(t, tt.fields, strings.Join(fields, " "), tt.source)
	}
}

func TestTheClassesOfNodesAreAsJudgesDeclareThem(t *testing.T) {
	for _, tt := range []struct {
		form nodeForm
		kind value.Kind
		held value.Kind
		text string
	}{
		{cppNode, value.List2, value.Int, "struct Node { int val; Node *prev; Node *next; Node() : val(), prev(nullptr), next(nullptr) {} Node(int val) : val(val), prev(nullptr), next(nullptr) {} " +
			"Node(int val, Node *prev, Node *next) : val(val), prev(prev), next(next) {} };"},
		{cppNode, value.Graph, value.Int, "struct Node { int val; std::vector<Node *> neighbors; Node() : val() {} Node(int val) : val(val) {} Node(int val, std::vector<Node *> neighbors) : val(val), neighbors(neighbors) {} };"},
		{cNode, value.Nary, value.Text, "struct Node { char* val; int numChildren; struct Node **children; };"},
		{cNode, value.List2, value.Int, "struct Node { int val; struct Node *prev; struct Node *next; };"},
		{rustNode, value.List2, value.Int, "#[derive(Debug)]\npub struct Node { pub val: i32, pub prev: Option<std::rc::Weak<std::cell::RefCell<Node>>>, pub next: Option<std::rc::Rc<std::cell::RefCell<Node>>> }\n" +
			"impl Node { #[inline] pub fn new(val: i32) -> Self { Node { val, prev: None, next: None } } }"},
		{rustNode, value.Graph, value.Int, "#[derive(Debug)]\npub struct Node { pub val: i32, pub neighbors: Vec<std::rc::Rc<std::cell::RefCell<Node>>> }\n" +
			"impl Node { #[inline] pub fn new(val: i32) -> Self { Node { val, neighbors: Vec::new() } } }"},
		{cNode, value.Tree, value.Long, "struct TreeNode { long long val; struct TreeNode *left; struct TreeNode *right; };"},
		{javaNode, value.Tree, value.BigInt, "class TreeNode { java.math.BigInteger val; TreeNode left; TreeNode right; TreeNode() { } TreeNode(java.math.BigInteger val) { this.val = val; } " +
			"TreeNode(java.math.BigInteger val, TreeNode left, TreeNode right) { this.val = val; this.left = left; this.right = right; } }"},
		{javaNode, value.Nary, value.Int, "class Node { int val; java.util.List<Node> children; Node() { children = new java.util.ArrayList<>(); } Node(int val) { this.val = val; children = new java.util.ArrayList<>(); } " +
			"Node(int val, java.util.List<Node> children) { this.val = val; this.children = children; } }"},
		{kotlinNode, value.List2, value.Int, "class Node(var `val`: Int) { var prev: Node? = null; var next: Node? = null; }"},
		{kotlinNode, value.Nary, value.BigInt, "class Node(var `val`: java.math.BigInteger) { var children: List<Node?> = java.util.ArrayList<Node?>(); }"},
		{csharpNode, value.List, value.BigInt, "public class ListNode { public System.Numerics.BigInteger val; public ListNode next; public ListNode() : this(default(System.Numerics.BigInteger)) {} " +
			"public ListNode(System.Numerics.BigInteger val, ListNode next = null) { this.val = val; this.next = next; } }"},
		{csharpNode, value.Graph, value.Int, "public class Node { public int val; public System.Collections.Generic.IList<Node> neighbors; public Node() : this(default(int)) {} " +
			"public Node(int val, System.Collections.Generic.IList<Node> neighbors = null) { this.val = val; this.neighbors = neighbors ?? new System.Collections.Generic.List<Node>(); } }"},
		{goNode, value.Tree, value.Text, "type TreeNode struct { Val string; Left *TreeNode; Right *TreeNode }"},
		{goNode, value.Nary, value.Int, "type Node struct { Val int; Children []*Node }"},
		{jsNode, value.List, value.BigInt, "class ListNode { constructor(val, next) { this.val = val === undefined ? 0n : val; this.next = next === undefined ? null : next; } }"},
		{tsNode, value.Nary, value.Text, `class Node { val: string; children: Node[]; constructor(val?: string, children?: Node[]) { this.val = val === undefined ? "" : val; this.children = children === undefined ? [] : children; } }`},
		{tsNode, value.Tree, value.Int, "class TreeNode { val: number; left: TreeNode | null; right: TreeNode | null; constructor(val?: number, left?: TreeNode | null, right?: TreeNode | null) " +
			"{ this.val = val === undefined ? 0 : val; this.left = left === undefined ? null : left; this.right = right === undefined ? null : right; } }"},
		{rustNode, value.List, value.Int, "#[derive(PartialEq, Eq, Clone, Debug)]\npub struct ListNode { pub val: i32, pub next: Option<Box<ListNode>> }\n" +
			"impl ListNode { #[inline] pub fn new(val: i32) -> Self { ListNode { next: None, val } } }"},
		{rustNode, value.Tree, value.Text, "#[derive(Debug, PartialEq, Eq)]\npub struct TreeNode { pub val: String, pub left: Option<std::rc::Rc<std::cell::RefCell<TreeNode>>>, pub right: Option<std::rc::Rc<std::cell::RefCell<TreeNode>>> }\n" +
			"impl TreeNode { #[inline] pub fn new(val: String) -> Self { TreeNode { val, left: None, right: None } } }"},
	} {
		assert.Equal(t, tt.text+"\n", tt.form.declared(nodeShapes[tt.kind], tt.held))
	}
}

func TestTheOtherNameOfANodeIsThereWhereItIsUsed(t *testing.T) {
	for source, there := range map[string]bool{
		"function f(h) { return new _Node(h.val); }":                                           true,
		"// _Node\nfunction f(h) { return h; }":                                                false,
		"class _Node { constructor(val) { this.val = val; } }\nconst f = (h) => new _Node(1);": false,
	} {
		w := fitted(t, "f(h: nary(int)) -> nary(int)", "javascript", "a.js", source)
		assert.Equal(t, there, strings.Contains(string(w.Source), "class _Node extends Node {}"), source)
	}
	w := fitted(t, "f(h: list(int)) -> list(int)", "javascript", "a.js", "const f = (_Node) => _Node;")
	assert.NotContains(t, string(w.Source), "class _Node", "a list has no such node")
}

func TestTheUsualClassOfNodesIsThereUnlessTheSourceDeclaresIt(t *testing.T) {
	for _, tt := range []struct{ language, source, own, text string }{
		{"cpp", "ListNode *f(ListNode *h) { return h; }", "struct ListNode { int val; ListNode *next; };\n", "struct ListNode { int val; ListNode *next; ListNode() : val(), next(nullptr) {}"},
		{"c", "struct ListNode *f(struct ListNode *h) { return h; }", "struct ListNode { int val; struct ListNode *next; };\n", "struct ListNode { int val; struct ListNode *next; };"},
		{"java", "class A { static ListNode f(ListNode h) { return h; } }", "class ListNode { int val; ListNode next; }\n", "class ListNode { int val; ListNode next; ListNode() { }"},
		{"kotlin", "fun f(h: ListNode?): ListNode? { return h }", "class ListNode(var `val`: Int) { var next: ListNode? = null }\n", "class ListNode(var `val`: Int) { var next: ListNode? = null; }"},
		{"csharp", "class A { public ListNode F(ListNode h) { return h; } }", "class ListNode { public int val; public ListNode next; }\n", "public class ListNode { public int val; public ListNode next; public ListNode() : this(default(int)) {}"},
		{"go", "package p\n\nfunc f(h *ListNode) *ListNode { return h }\n", "package p\n\ntype ListNode struct { Val int; Next *ListNode }\n", "type ListNode struct { Val int; Next *ListNode }"},
		{"rust", "fn f(h: Option<Box<ListNode>>) -> Option<Box<ListNode>> { h }", "struct ListNode { val: i32, next: Option<Box<ListNode>> }\n", "pub struct ListNode { pub val: i32, pub next: Option<Box<ListNode>> }"},
		{"typescript", "function f(h: ListNode | null) { return h; }", "class ListNode { val: number; next: ListNode | null; }\n", "class ListNode { val: number; next: ListNode | null; constructor(val?: number, next?: ListNode | null)"},
		{"javascript", "function f(h) { return h; }", "function ListNode(val, next) { this.val = val; this.next = next; }\n", "class ListNode { constructor(val, next) { this.val = val === undefined ? 0 : val;"},
	} {
		whole := func(source string) string {
			w := fitted(t, "f(h: list(int)) -> list(int)", tt.language, map[bool]string{true: "a.ts", false: "a.x"}[tt.language == "typescript"], source)
			require.Empty(t, w.Refused, tt.language)
			text := string(w.Source)
			for _, file := range w.Files {
				text += string(file)
			}
			assert.NotContains(t, text, "@NODES@")
			return text
		}
		assert.Equal(t, 1, strings.Count(whole(tt.source), tt.text), tt.language)
		source := tt.own + tt.source
		if tt.language == "go" {
			source = tt.own + strings.TrimPrefix(tt.source, "package p\n")
		}
		own := whole(source)
		assert.Equal(t, strings.Count(tt.own, tt.text), strings.Count(own, tt.text), tt.language)
	}
	for class, call := range map[string]string{"TreeNode": "f(t: tree(int)) -> int", "Node": "f(t: nary(text)) -> graph(int)"} {
		w := fitted(t, call, "java", "A.java", "class A { static int f("+class+" t) { return 0; } }")
		assert.Equal(t, 1, strings.Count(string(w.Source), "class "+class+" {"), call)
	}
	f, err := problem.ParseCall("f(a: int) -> int")
	require.NoError(t, err)
	assert.Empty(t, (&fitting{function: f}).nodeKinds())
	w := fitted(t, "f(a: nary(int)) -> graph(int)", "cpp", "a.cpp", "Node *f(Node *a) { return a; }")
	assert.Contains(t, w.Refused, "Node is the class of two kinds of nodes")
}

const cacheTable = "BeaconCache"

// cacheCall is a class with three methods.
func cacheCall() *problem.Call {
	of := func(kind value.Kind) value.Type { return value.Type{Kind: kind} }
	text := value.Type{Kind: value.Optional, Of: &value.Type{Kind: value.Text}}
	size := of(value.Int)
	return &problem.Call{Name: cacheTable, Takes: []value.Field{{Name: "calls", Type: of(value.Any)}}, Returns: []value.Field{{Type: of(value.Any)}}, Class: &problem.Class{
		New: []value.Field{{Name: "room", Type: of(value.Int)}},
		Methods: []problem.Method{
			{Name: "put", Takes: []value.Field{{Name: "beacon", Type: of(value.Int)}, {Name: "reading", Type: of(value.Text)}}},
			{Name: "get", Takes: []value.Field{{Name: "beacon", Type: of(value.Int)}}, Returns: &text},
			{Name: "all_of_it", Returns: &size},
		},
	}}
}

func TestDriversAreToldOfAClass(t *testing.T) {
	for _, tt := range []struct{ language, source, has string }{
		{"python", "class BeaconCache:\n    pass\n", `METHODS = {"all_of_it":{"names":["all_of_it","allOfIt","AllOfIt"],"takes":[],"returns":"int"},"get":{"names":["get","Get"],"takes":["int"],"returns":"text?"},"put"`},
		{"javascript", "class BeaconCache {}\n", `const NEW = ["int"];`},
		{"ruby", "class BeaconCache\nend\n", `METHODS = Wire.parse("{\"all_of_it\"`},
		{"java", "package p;\nclass BeaconCache { }\n", `CLASSES = {"p.BeaconCache"}`},
		{"java", "class BeaconCache { }\n", `METHODS = {{"put", "put,Put", "int;text", ""}, {"get", "get,Get", "int", "text?"}, {"all_of_it", "all_of_it,allOfIt,AllOfIt", "", "int"}}`},
		{"kotlin", "class BeaconCache { }\n", `NEW = {"int"}`},
		{"csharp", "namespace n { public class BeaconCache { } }\n", `Methods = new string[][] { new[] {"put", "put,Put", "int;text", ""}, new[] {"get"`},
		{"go", "package p\n\ntype BeaconCache struct{}\n\nfunc NewBeaconCache(n int) *BeaconCache { return nil }\n\nfunc (b *BeaconCache) Put(k int, v string) {}\nfunc (b BeaconCache) Get(k int) *string { return nil }\nfunc (b *BeaconCache) AllOfIt() int { return 0 }\n", `{"new": NewBeaconCache, "put": (*BeaconCache).Put, "get": (*BeaconCache).Get, "all_of_it": (*BeaconCache).AllOfIt}`},
		{"cpp", "class BeaconCache { public: BeaconCache(long room); void put(int k, string v); optional<string> get(int k); int allOfIt(); };\n", `if (name == "all_of_it") return cold_driver::methodStep<::BeaconCache>(&::BeaconCache::allOfIt, true);`},
	} {
		w, err := Around(cacheCall())(language(t, tt.language), "", "a.x", []byte(tt.source))
		require.NoError(t, err, tt.language)
		require.Empty(t, w.Refused, tt.language)
		text := string(w.Source)
		for _, file := range w.Files {
			text += string(file)
		}
		assert.Contains(t, text, tt.has, tt.language)
	}
}

func TestWhatAClassLacksIsSaid(t *testing.T) {
	for _, tt := range []struct{ language, source, says string }{
		{"java", "class Cache { }\n", "there is no class BeaconCache"}, {"kotlin", "fun f() { }\n", "there is no class BeaconCache"}, {"csharp", "class C { }\n", "there is no class BeaconCache"},
		{"cpp", "class C { };\n", "there is no class BeaconCache"}, {"cpp", "class BeaconCache { void put(int k); };\n", "BeaconCache has no method get"},
		{"rust", "struct C;\n", "there is no class BeaconCache"}, {"rust", "struct BeaconCache {}\nimpl BeaconCache { fn new(room: i32) -> Self { BeaconCache {} } fn put(&mut self, k: i32) {} }\n", "put takes 2 arguments in this problem, and is declared with 1 parameter"},
		{"go", "package p\n\ntype C struct{}\n", "there is no type BeaconCache"}, {"go", "package p\n\ntype BeaconCache struct{}\n", "BeaconCache has no method put"},
	} {
		w, err := Around(cacheCall())(language(t, tt.language), "", "a.x", []byte(tt.source))
		require.NoError(t, err, tt.language)
		assert.Contains(t, w.Refused, tt.says, tt.source)
	}
	_, err := Around(cacheCall())(language(t, "perl"), "", "a.x", nil)
	assert.ErrorContains(t, err, "problems that ask for a class cannot be served in Perl")
}

func TestStartingSourcesHaveTheTypesOfNodes(t *testing.T) {
	f, err := problem.ParseCall("turned(head: list(int), roots: tree(long)[], any_of: any) -> list(int)")
	require.NoError(t, err)
	for name, want := range map[string]string{
		"python": "def turned(head: Optional[ListNode], roots: list[Optional[TreeNode]], any_of: Any) -> Optional[ListNode]:",
		"java":   "ListNode turned(ListNode head, TreeNode[] roots, Object anyOf) {", "kotlin": "fun turned(head: ListNode?, roots: List<TreeNode?>, anyOf: Any?): ListNode? {",
		"csharp": "public ListNode Turned(ListNode head, TreeNode[] roots, object anyOf)", "go": "func turned(head *ListNode, roots []*TreeNode, anyOf any) (result *ListNode) {",
		"typescript": "function turned(head: (ListNode | null), roots: (TreeNode | null)[], anyOf: any): (ListNode | null) {",
	} {
		_, source, err := Start(f, language(t, name), "rope")
		require.NoError(t, err, name)
		assert.Contains(t, string(source), want, name)
	}
	f, err = problem.ParseCall("turned(head: list(int), roots: tree(long)[], s: text) -> int[]")
	require.NoError(t, err)
	for name, want := range map[string]string{
		"cpp":  "std::vector<int> turned(ListNode* head, const std::vector<TreeNode*>& roots, const std::string& s) {",
		"rust": "pub fn turned(head: Option<Box<ListNode>>, roots: Vec<Option<Rc<RefCell<TreeNode>>>>, s: String) -> Vec<i32> {",
		"c":    "int *turned(struct ListNode *head, struct TreeNode **roots, int roots_length, char *s, int *returned_length)",
	} {
		_, source, err := Start(f, language(t, name), "rope")
		require.NoError(t, err, name)
		assert.Contains(t, string(source), want, name)
	}
}

func TestHowManyOthersANodeInCHas(t *testing.T) {
	for _, tt := range []struct{ source, count, says string }{
		{"", "node->numChildren", ""},
		{"struct Node { int val; int numChildren; struct Node **children; };", "node->numChildren", ""},
		{"struct Node { int n, val; struct Node **children; };", "node->n", ""},
		{"struct Node { size_t degree; long val; struct Node **children; };", "node->degree", ""},
		{"struct Node { int val; struct Node *children[26]; };", "26", ""},
		{"struct Node { int val; struct Node *children[ MOST ]; int n; };", "MOST", ""},
		{"struct Node { int val; struct Node **children; };", "", "struct Node has no field with the number of its children; declare int numChildren"},
		{"struct Node { int val; double weight; struct Node **children; };", "", "declare int numChildren"},
	} {
		pairs, err := outlined([]byte(tt.source), nil).cMany("Node", "val", "children")
		if tt.says != "" {
			require.ErrorContains(t, err, tt.says, tt.source)
			continue
		}
		require.NoError(t, err, tt.source)
		require.Contains(t, pairs, "COUNT")
		assert.Equal(t, tt.count, pairs[slices.Index(pairs, "COUNT")+1], tt.source)
	}
	o := outlined([]byte("struct Knot { unsigned int id; const char *name, *other; long long val; struct Knot *next; };"), nil)
	for val, want := range map[string]string{"val": "long long", "id": "unsigned int", "name": "char*", "gone": "int"} {
		assert.Equal(t, want, o.cHeld("Knot", val, "int"), val)
	}
}
