// Package shape is the language in which a person says what one valid input looks
// like, in the order and words of a statement's "Input" section. From that one text
// an input can be checked and taken apart into named values; random inputs, edge cases
// and growing series are generated, and a failing input is shrunk to a smallest one.
//
// The language is described in docs/shape.md. Parse reads a shape and reports all
// mistakes at once, each with line, column and what was expected. Check reads an
// input against it in one pass, and says of the first fault where it lies, which
// value it is and which constraint it breaks. Read keeps the values, as an Input,
// which can be written back to the same bytes. Make makes an Input from a seed, a size
// and styles, and every Input that it makes passes Check; EdgeCases and Series say
// what to make; Shrink makes one smaller.
//
// A style is one entry in a table of style.go, network.go or make_blocks.go.
//
// The package knows nothing of problems, solutions or cases.
package shape

import (
	"cmp"
	"fmt"
	"slices"
	"strings"

	"coldverdict/core/value"
)

// A Shape is what valid input looks like.
type Shape struct {
	Items []node
	Scale []string // what grows in a series: as scale items say, or every name used as a length, or every integer where there is no length

	top   *block
	text  string
	holds []*holdsNode
	// styles are the names of those that fit something.
	styles []string
	// largest is the largest number that a length may have, that of cases not counted.
	largest int64
	calls   *Calls        // of a class whose calls it describes; nil: it describes none
	takes   []value.Field // of a function whose arguments it describes; nil: it describes lines
	params  []*parameter  // a field for each of them
	counts  []*fieldNode  // fields that say how many elements arguments have
}

// Text is the shape as it is written.
func (s *Shape) Text() string { return s.text }

// A Pos is a place in a shape's text, from 1; columns are in characters.
type Pos struct{ Line, Column int }

// A Mistake is something wrong in a shape.
type Mistake struct {
	Pos
	Text string // what is wrong and what was expected, in lower case
}

func (m Mistake) Error() string { return fmt.Sprintf("%d:%d: %s", m.Line, m.Column, m.Text) }

// Mistakes are all mistakes of a shape, in the order of their places.
type Mistakes []Mistake

func (m Mistakes) Error() string {
	lines := make([]string, len(m))
	for i, one := range m {
		lines[i] = one.Error()
	}
	return strings.Join(lines, "\n")
}

// mostMistakes bounds how many mistakes of one shape are reported.
const mostMistakes = 20

func (m Mistakes) sorted() Mistakes {
	slices.SortStableFunc(m, func(a, b Mistake) int { return cmp.Or(a.Line-b.Line, a.Column-b.Column) })
	m = slices.CompactFunc(m, func(a, b Mistake) bool { return a == b })
	return m[:min(len(m), mostMistakes)]
}

// A node is one of lineNode, casesNode, repeatNode, eitherNode, blankNode, requireNode.
type node interface{ item() }

// A lineNode is one line of the input, or the lines of one value that takes several.
type lineNode struct {
	Pos    Pos
	Fields []*fieldNode
}

// A fieldNode is a value on a line, or a token that stands there as it is.
type fieldNode struct {
	Pos     Pos
	Name    string // empty: it has none
	Literal string // the token; used if Value is nil
	Value   *valueNode
	Joined  bool // no blank stands before it

	slot    int        // in its block
	nodes   value.Kind // what it is made of nodes as an argument; Int: nothing
	ofEdges bool       // it stands on the line of each edge
	counts  bool       // it is used as a length
	grows   bool       // it is no length, and a scale item names it
	text    *earlier   // a word or text before it whose parts it can be
	chained bool       // the body behind begins where this one ends: see before
	indexed bool       // other values are numbers from 0 or 1 up to it, as those of vertices are
	needed  bool       // an expression names it
	// What is known before an input is generated; see prepare.
	conditions []*condition // that mention it, one integer, in its own block
	edgesOf    *fieldNode   // the graph of whose edges it is the number
	styles     []string     // the names of those that fit it
	total      int          // which total of its cases counts its length, from 1; 0: none
	summed     int          // which total adds up its elements, likewise
}

// A valueNode is what a field may hold.
type valueNode struct {
	Pos         Pos
	Base        baseType
	Args        []exprNode  // of perm, tree, parents and graph
	Length      *lengthNode // of a word or a text
	Set         *charSet    // of characters
	Picks       []string
	Dims        []*lengthNode // of an array, the outermost first; of a grid its rows and columns
	Down        bool          // one element a line
	By          string        // what stands between elements; empty: a blank
	But         []exprNode    // values that are taken out of it
	DistinctBut exprNode      // the one value that may stand in it again; nil: there is none
	Range       *rangeNode    // of integers and reals; nil: any of 64 bits

	Distinct, Sorted, Rising, Falling       bool
	Balanced, Palindrome                    bool // of words
	Symmetric                               bool
	Spread, Convex, Simple                  bool     // of points
	Clockwise, Counter                      bool     // the direction of a polygon
	ByRow                                   bool     // order and distinct hold in each row
	Diagonal                                exprNode // what stands where row and column are the same; nil: anything
	Places                                  int      // digits behind the point, at the most; -1: not said
	LeastPlaces                             int      // at the least
	Pad                                     int      // digits that an integer has at the least, with zeros; 0: not said
	Connected, Acyclic, Directed, Bipartite bool
	Loops, Parallel                         bool
	From                                    int64        // the number of the first vertex, or least of a permutation
	With                                    []*fieldNode // on each line of an edge
	Edges                                   *rangeNode   // how many edges an argument may have; nil: that is said before
}

// A lengthNode is one number, or a range of them.
type lengthNode struct {
	Exact exprNode // nil: Range
	Range *rangeNode
}

// A rangeNode is from Low to High, both included.
type rangeNode struct {
	Pos       Pos
	Low, High exprNode
	text      string // as written, for messages
}

// Cases is a count on a line of its own, and so many bodies.
type casesNode struct {
	Pos    Pos
	Count  *fieldNode
	Items  []node
	Totals []*totalNode

	body *block
}

// A totalNode bounds a sum over all bodies.
type totalNode struct {
	Pos   Pos
	Left  exprNode
	Bound exprNode
}

// Repeat is a number of bodies without a count of their own.
type repeatNode struct {
	Pos      Pos
	Count    *lengthNode
	Distinct bool
	Until    string
	HasUntil bool
	ByBlank  bool   // an empty line stands between two bodies
	rows     string // the argument of a function whose rows its bodies are; empty: of none
	Items    []node
	Totals   []*totalNode

	body    *block
	slot    int
	around  *block // the block that it stands in
	atBlank bool   // its bodies end at an empty line
	columns []*columnNode
}

// Either is one of several branches.
type eitherNode struct {
	Pos      Pos
	Branches [][]node

	bodies  []*block
	slot    int
	weights []int64  // how often each branch is made, beside the others
	first   []string // of each branch, its first token, if that is a literal
	count   []int    // of each branch, the tokens on its first line; -1: not known
	// ambiguous says that what is in a branch could look like another one's token.
	ambiguous bool
	styles    []string // to make one branch only, or any
}

// Blank is an empty line.
type blankNode struct{ Pos Pos }

// Require is a condition that must hold.
type requireNode struct {
	Pos  Pos
	Cond exprNode
	text string
}

// Holds is a script that says whether an input is valid.
type holdsNode struct {
	Pos  Pos
	File string

	valid Predicate // nil: it is not asked
}

// scaleItem names what grows.
type scaleItem struct {
	pos   Pos
	names []string
}

func (*lineNode) item()    {}
func (*casesNode) item()   {}
func (*repeatNode) item()  {}
func (*eitherNode) item()  {}
func (*blankNode) item()   {}
func (*requireNode) item() {}
func (*scaleItem) item()   {}
func (*holdsNode) item()   {}

// A charSet is a set of characters.
type charSet struct {
	Text  string // as written
	Runes []rune // in order, each once
	at    Pos
	ascii [128]bool
	only  bool // all of them are below 128
}

// Has reports whether a character is in the set.
func (s *charSet) Has(r rune) bool {
	if r < 128 && r >= 0 {
		return s.ascii[r]
	}
	_, found := slices.BinarySearch(s.Runes, r)
	return found
}

// count counts the characters of a word over the set.
func (s *charSet) count(word []byte) int64 {
	if s.only {
		return int64(len(word))
	}
	return runes(word)
}

// newSet reads a set such as "a-z0-9"; a '-' at an end stands for itself. The error
// is in words.
func newSet(text string) (*charSet, string) {
	s := &charSet{Text: text, only: true}
	runes := []rune(text)
	for i := 0; i < len(runes); i++ {
		low, high := runes[i], runes[i]
		if i+2 < len(runes) && runes[i+1] == '-' {
			high = runes[i+2]
			i += 2
		}
		if low > high {
			return nil, fmt.Sprintf("the characters from %q to %q are none; write them the other way round", low, high)
		}
		if high-low > 0x10000 {
			return nil, "these are too many characters"
		}
		for r := low; r <= high; r++ {
			s.Runes = append(s.Runes, r)
		}
	}
	slices.Sort(s.Runes)
	s.Runes = slices.Compact(s.Runes)
	for _, r := range s.Runes {
		switch {
		case r < ' ' || r == 0x7f:
			return nil, "a control character cannot be in a set of characters"
		case r < 128:
			s.ascii[r] = true
		default:
			s.only = false
		}
	}
	if len(s.Runes) == 0 {
		return nil, "the set of characters is empty"
	}
	return s, ""
}
