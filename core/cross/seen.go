package cross

import (
	"bytes"
	"cmp"
	"fmt"
	"hash/fnv"
	"maps"
	"math/bits"
	"slices"
	"strconv"
	"sync"

	"coldverdict/core/problem"
)

// Coverage says what a search tried, so that it means something that nothing was found.
type Coverage struct {
	EdgeCases int
	Random    int
	// All is how many valid inputs there are, where they are so few that they are tried one after the other; 0: they
	// are not.
	All int
	// Least and Most are the sizes of inputs in bytes, those of inputs that were joined
	// as if they were alone.
	Least, Most int64
	Styles      []Tried // most often first
	Counts      []Range // of what is named and counts something
	// Answers are the different answers, where each is a single word and they are few.
	Answers []string
	Parts   []Reached // of candidates whose parts could be traced
	// Never says in words what did not come.
	Never []string
}

// Tried is how often inputs in one style were tried; its name is empty for those in any.
type Tried struct {
	Style  string
	Inputs int
}

// A Range is between which values a name was.
type Range struct {
	Name        string
	Least, Most int64
	Answered    int64 // the largest of inputs that were answered; -1: none
}

// seen is what was seen so far.
type seen struct {
	problem *problem.Problem
	all     int // valid inputs, where all are tried; else 0

	mu       sync.Mutex
	none     bool // nothing was seen so far
	coverage Coverage
	styles   map[string]int
	counts   map[string]*Range
	order    []string       // of the counts
	words    map[string]int // different answers of one word
	many     bool           // they are too many to be told
	single   int            // answers of one word
	longer   int            // answers of more
	integers int            // of the answers
	least    int64          // of them
	most     int64
	zero     bool
}

func newSeen(p *problem.Problem, all int) *seen {
	return &seen{problem: p, all: all, none: true, styles: map[string]int{}, counts: map[string]*Range{}, words: map[string]int{}}
}

// mostWords bounds the different answers that are kept.
const mostWords = 40

func (s *seen) largest() int64 {
	s.mu.Lock()
	defer s.mu.Unlock()
	return s.coverage.Most
}

// add notes a pack, what was printed for it and what the reference answered, and returns the traits of each input:
// what would be new if it had not come before.
func (s *seen) add(p *pack, printed, answers [][]byte) [][]uint64 {
	parts := p.answersIn(printed)
	traits := make([][]uint64, len(p.inputs))
	s.mu.Lock()
	defer s.mu.Unlock()
	for i, in := range p.inputs {
		size := int64(len(in.text))
		if in.text == nil {
			size = p.size / int64(len(p.inputs))
		}
		c := &s.coverage
		if s.none || size < c.Least {
			c.Least = size
		}
		c.Most, s.none = max(c.Most, size), false
		switch {
		case in.Edge != "":
			c.EdgeCases++
		case in.Number > 0:
			c.All = s.all
		default:
			c.Random++
			s.styles[in.Style]++
		}
		if in.in != nil {
			answered := len(answers) > 0 && answers[min(i, len(answers)-1)] != nil // one, where inputs are joined in a file
			in.in.EachCount(func(name string, n int64) { s.addCount(name, n, answered) })
		}
		if i < len(parts) {
			for _, part := range parts[i] {
				traits[i] = append(traits[i], s.addAnswer(part)...)
			}
		}
	}
	return traits
}

// answersIn divides what was printed for a pack into the answers of each input, and
// those into the answers of its cases where it has several.
func (p *pack) answersIn(printed [][]byte) [][][]byte {
	all := make([][][]byte, len(printed))
	for i, text := range printed {
		if text != nil {
			all[i] = [][]byte{text}
		}
	}
	if len(printed) != 1 || p.cases == 0 {
		return all
	}
	parts, ok := partsOf(printed[0], p.cases)
	switch {
	case !ok && p.joined == nil:
		return all
	case !ok:
		return nil
	case p.joined == nil:
		return [][][]byte{parts}
	}
	all = make([][][]byte, len(parts))
	for i := range parts {
		all[i] = parts[i : i+1]
	}
	return all
}

func (s *seen) addCount(name string, n int64, answered bool) {
	r := s.counts[name]
	if r == nil {
		r = &Range{Name: name, Least: n, Most: n, Answered: -1}
		s.counts[name] = r
		s.order = append(s.order, name)
	}
	r.Least, r.Most = min(r.Least, n), max(r.Most, n)
	if answered {
		r.Answered = max(r.Answered, n)
	}
}

// traitWords is how many words of an answer are looked at.
const traitWords = 32

// addAnswer notes an answer, and returns its traits: how many words it has, how they
// are, and that two next to each other are equal.
func (s *seen) addAnswer(text []byte) (traits []uint64) {
	words := bytes.Fields(text[:min(len(text), 4096)])
	trait := func(kind byte, value uint64) {
		traits = append(traits, uint64(kind)<<56^value)
	}
	trait('n', uint64(bits.Len(uint(len(words)))))
	if len(words) == 1 {
		s.single++
		if word := string(words[0]); !s.many {
			if s.words[word]++; len(s.words) > mostWords {
				s.many = true
			}
		}
		if n, err := strconv.ParseInt(string(words[0]), 10, 64); err == nil {
			if s.integers++; s.integers == 1 {
				s.least, s.most = n, n
			}
			s.least, s.most, s.zero = min(s.least, n), max(s.most, n), s.zero || n == 0
		}
	} else {
		s.longer++
	}
	for i, word := range words[:min(len(words), traitWords)] {
		n, err := strconv.ParseInt(string(word), 10, 64)
		switch {
		case err != nil:
			h := fnv.New64a()
			h.Write(word[:min(len(word), 12)])
			trait('w', h.Sum64()>>8)
		case n >= -16 && n <= 16:
			trait('v', uint64(n)<<8>>8)
		case n < 0:
			trait('-', uint64(bits.Len64(uint64(-n))))
		default:
			trait('+', uint64(bits.Len64(uint64(n))))
		}
		if i > 0 && bytes.Equal(word, words[i-1]) {
			trait('=', 0)
		}
	}
	return traits
}

// summary is what was covered.
func (s *seen) summary(p *problem.Problem, r Result) Coverage {
	s.mu.Lock()
	defer s.mu.Unlock()
	c := s.coverage
	for _, name := range slices.Sorted(maps.Keys(s.styles)) {
		c.Styles = append(c.Styles, Tried{name, s.styles[name]})
	}
	slices.SortStableFunc(c.Styles, func(a, b Tried) int { return cmp.Compare(b.Inputs, a.Inputs) })
	for _, name := range s.order {
		c.Counts = append(c.Counts, *s.counts[name])
	}
	if !s.many && s.single > 0 {
		c.Answers = slices.Sorted(maps.Keys(s.words))
	}
	c.Never = s.never(p, r)
	return c
}

// never says what did not come.
func (s *seen) never(p *problem.Problem, r Result) (never []string) {
	if r.Exhausted() {
		return nil // what did not come cannot
	}
	say := func(format string, args ...any) { never = append(never, fmt.Sprintf(format, args...)) }
	if s.single > 0 && s.longer == 0 {
		switch {
		case len(s.words) == 1 && s.single > 1:
			for word := range s.words {
				say("an answer other than %s", word)
			}
		case s.integers == s.single && s.least >= 0 && !s.zero:
			say("the answer 0")
		}
	}
	for _, c := range p.Cases { // what they show can come
		if len(c.Accepted) == 0 || c.Sealed || s.many || s.single == 0 || len(never) > 3 {
			continue
		}
		text, err := c.Accepted[0].Head(64)
		words := bytes.Fields(text)
		if err != nil || len(words) != 1 || s.words[string(words[0])] > 0 {
			continue
		}
		if _, err := strconv.ParseFloat(string(words[0]), 64); err == nil && words[0][0] != '-' {
			continue
		}
		if line := fmt.Sprintf("the answer %s, which %s expects", words[0], c.Name); !slices.Contains(never, line) {
			never = append(never, line)
		}
	}
	if r.Base == ByReference {
		for _, name := range s.order {
			if c := s.counts[name]; c.Answered >= 0 && c.Most > c.Answered {
				say("an answer of the reference where %s is above %d, out of up to %d", name, c.Answered, c.Most)
			}
		}
	}
	return never
}
