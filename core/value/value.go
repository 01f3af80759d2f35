// Package value holds the arguments and results of function problems: their
// types as a problem's files write them ("int[]", "text?"), the values, which
// are read from and written as JSON, and how two of them are compared.
//
// A value is nil (nothing), bool, int64, *big.Int (an integer that int64 does not
// hold), float64, string, []any of such values, or an Object. Nodes of lists and trees
// are the arrays that a problem's cases write for them. Every value that Read returns
// is of the type that it was asked for. Beyond JSON, reals may be NaN, Infinity
// and -Infinity. The package knows nothing of languages or of how a function is
// called.
package value

import (
	"fmt"
	"math/big"
	"slices"
	"strconv"
	"strings"
)

// A Kind is what a Type is at its outermost.
type Kind int

// The kinds.
const (
	Int      Kind = iota // 32-bit integer
	Long                 // 64-bit integer
	BigInt               // integer of any size
	Real                 // 64-bit floating point
	Bool                 // true or false
	Text                 // Unicode characters
	Char                 // one Unicode character
	Array                // of Of
	Optional             // Of, or nothing
	List                 // nodes, each of which leads to the next
	List2                // nodes that lead both ways
	Tree                 // nodes with a left and a right child
	Nary                 // nodes with any number of children
	Graph                // nodes with neighbours
	Any                  // any value that JSON has
	Place                // a node of what another argument is made of, written as its place there
	Function             // a function, of which a case has what it returns
	Map                  // values of Of by keys of Key; an Object, whose names are the keys as texts
)

// nodeWords are the kinds that are made of nodes, which hold values of Of, as types are written.
var nodeWords = map[string]Kind{"list": List, "list2": List2, "tree": Tree, "nary": Nary, "graph": Graph}

// Word is how a kind of nodes is written; empty for others.
func (k Kind) Word() string {
	for word, kind := range nodeWords {
		if kind == k {
			return word
		}
	}
	return ""
}

// IsNodes reports that a value of the kind is made of nodes.
func (k Kind) IsNodes() bool { return k >= List && k <= Graph }

// An Object is what JSON has as names with values, in the order in which they are written.
type Object []Member

// A Member is a name of an object and its value.
type Member struct {
	Name  string
	Value any
}

// Get returns the value of a name.
func (o Object) Get(name string) (v any, ok bool) {
	for _, m := range o {
		if m.Name == name {
			return m.Value, true
		}
	}
	return nil, false
}

// words are the kinds as types are written.
var words = []string{Int: "int", Long: "long", BigInt: "bigint", Real: "real", Bool: "bool", Text: "text", Char: "char", Any: "any", Function: "function"}

// A Type is the type of a value.
type Type struct {
	Kind     Kind
	Of       *Type // of an array, an optional or nodes; of a Place that of its argument; nil for others
	Argument int   // of a Place, from 1
	Key      Kind  // of a Map: Text, Char, Int or Long
}

// mapWord is how a Map is written, before its types in parentheses.
const mapWord = "map"

// placeWord stands before the number of the argument of which a Place is a node.
const placeWord = "node of argument "

// String writes the type as ParseType reads it.
func (t Type) String() string {
	switch t.Kind {
	case Array:
		return t.Of.String() + "[]"
	case Optional:
		return t.Of.String() + "?"
	case Place:
		return placeWord + strconv.Itoa(t.Argument)
	case Map:
		return mapWord + "(" + words[t.Key] + ", " + t.Of.String() + ")"
	}
	for word, kind := range nodeWords {
		if kind == t.Kind {
			return word + "(" + t.Of.String() + ")"
		}
	}
	return words[t.Kind]
}

// Zero is a value of the type, the simplest there is.
func (t Type) Zero() any {
	switch t.Kind {
	case Int, Long, BigInt:
		return int64(0)
	case Real:
		return 0.0
	case Bool:
		return false
	case Text:
		return ""
	case Char:
		return "a"
	case Optional, Any, Place, Function:
		return nil
	case Map:
		return Object{}
	}
	return []any{}
}

// Element returns the type of the innermost elements of arrays and optionals,
// and how many arrays are around it.
func (t Type) Element() (element Type, depth int) {
	for t.Kind == Array || t.Kind == Optional {
		if t.Kind == Array {
			depth++
		}
		t = *t.Of
	}
	return t, depth
}

// deepest bounds how many brackets a type has.
const deepest = 16

// ParseType reads a type: a word, and behind it [] for an array of it and ? for
// one that may be absent, as often as needed.
func ParseType(text string) (Type, error) {
	rest := strings.TrimSpace(text)
	if number, ok := strings.CutPrefix(rest, placeWord); ok {
		n, err := strconv.Atoi(strings.TrimSpace(number))
		if err != nil || n < 1 {
			return Type{Kind: -1}, fmt.Errorf("%q names no argument; write %s1", text, placeWord)
		}
		return Type{Kind: Place, Argument: n}, nil
	}
	inside := 0 // bytes of what stands in parentheses
	t := Type{Kind: -1}
	if of, ok := strings.CutPrefix(rest, mapWord+"("); ok {
		end := strings.LastIndexByte(of, ')')
		key, held, ok := strings.Cut(of[:max(0, end)], ",")
		if !ok {
			return t, fmt.Errorf("%q is no type; a map is written map(text, int)", text)
		}
		k, err := ParseType(key)
		if err != nil {
			return t, err
		}
		v, err := ParseType(held)
		if err != nil {
			return t, err
		}
		if !slices.Contains([]Kind{Text, Char, Int, Long}, k.Kind) {
			return t, fmt.Errorf("the keys of a map are text, char, int or long; %s is none", k)
		}
		if e, _ := v.Element(); e.Kind.IsNodes() || e.Kind == Place || e.Kind == Function {
			return t, fmt.Errorf("a map holds no %s", v)
		}
		t = Type{Kind: Map, Of: &v, Key: k.Kind}
		inside = len(mapWord) + 1 + end + 1
	} else if name, of, ok := strings.Cut(rest, "("); ok && nodeWords[strings.TrimSpace(name)] != 0 {
		end := strings.LastIndexByte(of, ')')
		if end < 0 {
			return t, fmt.Errorf("%q has no ) behind what its nodes hold", text)
		}
		held, err := ParseType(of[:end])
		if err != nil {
			return t, err
		}
		if held.Of != nil || held.Kind == Any {
			return t, fmt.Errorf("nodes hold single values, such as list(int); %s is none", held)
		}
		t = Type{Kind: nodeWords[strings.TrimSpace(name)], Of: &held}
		inside = len(name) + 1 + end + 1
	}
	end := inside + strings.IndexAny(rest[inside:], "[?")
	if end < inside {
		end = len(rest)
	}
	if behind := strings.TrimSpace(rest[inside:end]); inside > 0 && behind != "" {
		return t, fmt.Errorf("%q is no type: behind %s there can be [] or ?", text, rest[:inside])
	}
	word, suffix := strings.TrimSpace(rest[:end]), strings.ReplaceAll(rest[end:], " ", "")
	for kind, name := range words {
		if word == name && name != "" {
			t.Kind = Kind(kind)
		}
	}
	if t.Kind < 0 {
		return t, fmt.Errorf("%q is no type; there are %s, with [] behind one for an array and ? for one that may be absent; map(text, int); and nodes: list(int), list2(int), tree(int), nary(int), graph(int)", word, strings.Join(wordList(), ", "))
	}
	if len(suffix) > 2*deepest {
		return t, fmt.Errorf("%q has more than %d dimensions", text, deepest)
	}
	for suffix != "" {
		of := t
		switch {
		case strings.HasPrefix(suffix, "[]"):
			t, suffix = Type{Kind: Array, Of: &of}, suffix[2:]
		case suffix[0] == '?' && t.Kind != Optional:
			t, suffix = Type{Kind: Optional, Of: &of}, suffix[1:]
		default:
			return t, fmt.Errorf("%q is no type: behind %s there can be [] or ?", text, of)
		}
	}
	return t, nil
}

func wordList() (list []string) {
	for _, word := range words {
		if word != "" {
			list = append(list, word)
		}
	}
	return list
}

// A Field is a value with a name: an argument, or one of several results.
type Field struct {
	Name string
	Type Type
}

// String writes the field as ParseField reads it.
func (f Field) String() string {
	if f.Name == "" {
		return f.Type.String()
	}
	return f.Name + ": " + f.Type.String()
}

// ParseField reads "name: type".
func ParseField(text string) (Field, error) {
	name, rest, ok := strings.Cut(text, ":")
	name = strings.TrimSpace(name)
	if !ok || !isName(name) {
		return Field{}, fmt.Errorf("%q is no name with a type; write \"temps: int[]\"", text)
	}
	t, err := ParseType(rest)
	return Field{name, t}, err
}

// isName reports that a word can name an argument in every language.
func isName(word string) bool {
	for i, r := range word {
		letter := r == '_' || r >= 'a' && r <= 'z' || r >= 'A' && r <= 'Z'
		if !letter && (i == 0 || r < '0' || r > '9') {
			return false
		}
	}
	return word != ""
}

// IsName reports that a word can name a function or an argument: letters,
// digits and _, and no digit first.
func IsName(word string) bool { return isName(word) }

// fits reports that an integer is within a kind of integers.
func fits(n any, kind Kind) bool {
	small, ok := n.(int64)
	switch kind {
	case Int:
		return ok && small == int64(int32(small))
	case Long:
		return ok
	}
	return true
}

// integer makes the value of an integer as small as it can be.
func integer(n *big.Int) any {
	if n.IsInt64() {
		return n.Int64()
	}
	return n
}
