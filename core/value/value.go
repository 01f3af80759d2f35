// Package value holds the arguments and results of function problems: their
// types as a problem's files write them ("int[]", "text?"), the values, which
// are read from and written as JSON, and how two of them are compared.
//
// A value is nil (nothing), bool, int64, *big.Int (an integer that int64 does not
// hold), float64, string, or []any of such values. Every value that Read returns
// is of the type that it was asked for. Beyond JSON, reals may be NaN, Infinity
// and -Infinity. The package knows nothing of languages or of how a function is
// called.
package value

import (
	"fmt"
	"math/big"
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
)

// words are the kinds as types are written.
var words = []string{Int: "int", Long: "long", BigInt: "bigint", Real: "real", Bool: "bool", Text: "text", Char: "char"}

// A Type is the type of a value.
type Type struct {
	Kind Kind
	Of   *Type // of an array or an optional; nil for others
}

// String writes the type as ParseType reads it.
func (t Type) String() string {
	switch t.Kind {
	case Array:
		return t.Of.String() + "[]"
	case Optional:
		return t.Of.String() + "?"
	}
	return words[t.Kind]
}

// Element returns the type of the innermost elements of arrays and optionals,
// and how many arrays are around it.
func (t Type) Element() (element Type, depth int) {
	for t.Of != nil {
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
	end := strings.IndexAny(rest, "[?")
	if end < 0 {
		end = len(rest)
	}
	word, suffix := strings.TrimSpace(rest[:end]), strings.ReplaceAll(rest[end:], " ", "")
	t := Type{Kind: -1}
	for kind, name := range words {
		if word == name {
			t.Kind = Kind(kind)
		}
	}
	if t.Kind < 0 {
		return t, fmt.Errorf("%q is no type; there are %s, with [] behind one for an array and ? for one that may be absent", word, strings.Join(words, ", "))
	}
	if len(suffix) > 2*deepest {
		return t, fmt.Errorf("%q has more than %d dimensions", text, deepest)
	}
	for suffix != "" {
		of := t
		switch {
		case strings.HasPrefix(suffix, "[]"):
			t, suffix = Type{Array, &of}, suffix[2:]
		case suffix[0] == '?' && t.Kind != Optional:
			t, suffix = Type{Optional, &of}, suffix[1:]
		default:
			return t, fmt.Errorf("%q is no type: behind %s there can be [] or ?", text, of)
		}
	}
	return t, nil
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
