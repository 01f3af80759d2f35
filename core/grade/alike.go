package grade

import (
	"cmp"
	"hash/fnv"
	"slices"
	"unicode"
	"unicode/utf8"

	"coldverdict/core/source"
)

// Sources are compared by fingerprints of their tokens, which are chosen by winnowing: S. Schleimer, D. Wilkerson,
// A. Aiken, "Winnowing: Local Algorithms for Document Fingerprinting", SIGMOD 2003. Of each window of fingerprints
// the least is kept, so that every run of tokens that two sources share and that is at least
// gram + window - 1 tokens long shows. The cost is linear in the lengths of the sources, and then in the pairs of
// people that share a fingerprint.

const (
	gram   = 10 // tokens of a fingerprint
	window = 6  // fingerprints of which one is kept
	// leastTokens is how long a source must be: shorter ones are alike by chance.
	leastTokens = 40
	// leastPrints is how many fingerprints must be left of the smaller source: fewer are alike by chance.
	leastPrints = 4
	// leastShare is the share of the smaller source's fingerprints from which on two are told.
	leastShare = 0.8
)

// A Pair are two hand-ins that are alike.
type Pair struct {
	A, B  int     // indices of people
	Same  bool    // the same but for names, spacing, comments and the texts of strings
	Share float64 // of the fingerprints of the smaller one that the other has
}

// Groups are the people whose hand-ins are the same but for names and spacing, a group each, and the pairs that are
// merely alike.
func Groups(pairs []Pair) (same [][]int, others []Pair) {
	of := map[int]int{} // index of a person's group, plus 1
	for _, p := range pairs {
		switch {
		case !p.Same:
			if of[p.A] == 0 || of[p.A] != of[p.B] {
				others = append(others, p)
			}
		case of[p.A] == 0 && of[p.B] == 0:
			same = append(same, []int{p.A, p.B})
			of[p.A], of[p.B] = len(same), len(same)
		case of[p.A] == 0:
			same[of[p.B]-1] = append(same[of[p.B]-1], p.A)
			of[p.A] = of[p.B]
		case of[p.B] == 0:
			same[of[p.A]-1] = append(same[of[p.A]-1], p.B)
			of[p.B] = of[p.A]
		}
	}
	return same, others
}

// A handed is a source to be compared with others.
type handed struct {
	person int
	family string
	tokens []uint32
	prints map[uint64]bool
}

// newHanded reads a source.
func newHanded(person int, family string, text []byte) handed {
	h := handed{person: person, family: family, tokens: tokens(text, family)}
	h.prints = winnow(h.tokens)
	return h
}

// words are those of the languages themselves, which no renaming changes.
var words = func() map[string]bool {
	list := map[string]bool{}
	for _, word := range []string{
		"and", "as", "async", "await", "auto", "begin", "bool", "break", "case", "catch", "char", "class", "const", "continue", "def", "default", "del", "delete",
		"do", "double", "elif", "else", "elsif", "end", "enum", "except", "extern", "final", "finally", "float", "fn", "for", "foreach", "from", "func", "function",
		"goto", "if", "import", "impl", "in", "include", "int", "interface", "is", "lambda", "let", "long", "loop", "match", "mod", "mut", "namespace", "new", "not", "null",
		"or", "package", "pass", "private", "procedure", "program", "public", "raise", "range", "repeat", "require", "return", "short", "signed", "sizeof", "static", "struct",
		"switch", "template", "then", "this", "throw", "try", "type", "typedef", "typename", "union", "unless", "unsigned", "until", "use", "using", "val", "var", "void", "when",
		"where", "while", "with", "yield",
	} {
		list[word] = true
	}
	return list
}()

// tokens are the tokens of a source: a name is a name whatever it is called, and so is a number.
func tokens(text []byte, family string) (list []uint32) {
	if source.Lexed(family) {
		text = source.Blanked(text, family)
	}
	const name, number = 1, 2
	for len(text) > 0 {
		r, n := utf8.DecodeRune(text)
		switch {
		case unicode.IsSpace(r):
		case unicode.IsDigit(r):
			for n < len(text) && (isWordByte(text[n]) || text[n] == '.') {
				n++
			}
			list = append(list, number)
		case r == '_' || unicode.IsLetter(r):
			for n < len(text) && isWordByte(text[n]) {
				n++
			}
			token := uint32(name)
			if words[string(text[:n])] {
				h := fnv.New32a()
				h.Write(text[:n])
				token = h.Sum32()
			}
			list = append(list, token)
		case r == ';': // which some put where others do not
		default:
			list = append(list, uint32(r)+16)
		}
		text = text[n:]
	}
	return list
}

func isWordByte(c byte) bool {
	return c == '_' || c >= '0' && c <= '9' || c >= 'a' && c <= 'z' || c >= 'A' && c <= 'Z' || c >= 0x80
}

// winnow returns the fingerprints of a source: of each window the least, the last of several.
func winnow(list []uint32) map[uint64]bool {
	var hashes []uint64
	for i := 0; i+gram <= len(list); i++ {
		h := uint64(14695981039346656037)
		for _, token := range list[i : i+gram] {
			h = (h ^ uint64(token)) * 1099511628211
			h ^= h >> 29
		}
		hashes = append(hashes, h)
	}
	prints := map[uint64]bool{}
	if len(hashes) <= window && len(hashes) > 0 {
		prints[slices.Min(hashes)] = true
	}
	for i := 0; i+window <= len(hashes); i++ {
		prints[slices.Min(hashes[i:i+window])] = true
	}
	return prints
}

// alike finds pairs of people whose sources are alike. What most of a class have in common, such as a source that
// all began with, does not count.
func alike(all []handed) (pairs []Pair) {
	by := map[uint64][]int{} // people's sources, by what they have
	for i, h := range all {
		for print := range h.prints {
			by[print] = append(by[print], i)
		}
	}
	common := func(print uint64) bool { return len(all) >= 6 && 2*len(by[print]) > len(all) }
	own := make([]int, len(all)) // prints that are not common
	shared := map[[2]int]int{}
	for print, who := range by {
		if common(print) {
			continue
		}
		for n, i := range who {
			own[i]++
			for _, j := range who[n+1:] {
				shared[[2]int{min(i, j), max(i, j)}]++
			}
		}
	}
	best := map[[2]int]Pair{}
	for i := range all {
		for j := i + 1; j < len(all); j++ {
			a, b := &all[i], &all[j]
			if a.person == b.person || len(a.tokens) < leastTokens || len(b.tokens) < leastTokens || a.family != b.family {
				continue
			}
			p := Pair{A: min(a.person, b.person), B: max(a.person, b.person), Same: slices.Equal(a.tokens, b.tokens)}
			if least := min(own[i], own[j]); least >= leastPrints {
				p.Share = float64(shared[[2]int{i, j}]) / float64(least)
			}
			if p.Same {
				p.Share = 1
			}
			key := [2]int{p.A, p.B}
			if p.Share >= leastShare && (best[key].Share < p.Share || p.Same) {
				best[key] = p
			}
		}
	}
	for _, p := range best {
		pairs = append(pairs, p)
	}
	slices.SortFunc(pairs, func(a, b Pair) int {
		return cmp.Or(cmp.Compare(b.Share, a.Share), cmp.Compare(a.A, b.A), cmp.Compare(a.B, b.B))
	})
	return pairs
}
