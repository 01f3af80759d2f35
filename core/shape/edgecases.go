package shape

import (
	"cmp"
	"context"
	"fmt"
	"hash/maphash"
	"slices"
	"strings"
	"time"
)

// An EdgeCase is an input that nobody has to think of: for each count and each value
// a choice that is often forgotten. Make makes it.
type EdgeCase struct {
	// Name says what was chosen: "n-least.w-all-equal".
	Name   string
	Making Making
	Bytes  int64 // of the input
}

// EdgeCases are a few inputs that together hold every pair of choices, as far as the
// shape allows it: the smaller ones first.
type EdgeCases struct {
	Cases []EdgeCase
	// Pairs is how many pairs of choices there are, and Covered how many of them are
	// in the cases; fewer than all where they were bounded or contradict the shape.
	Pairs, Covered int
	Contradicting  int // combinations of choices that no valid input has
	GaveWay        int // pairs of which a style gave way to something else, as all-equal does to a requirement
}

// A factor is something that is chosen in an edge case.
type factor struct {
	key     any // a field, a length or an item
	kind    factorKind
	label   string
	options []string
}

// mostWork bounds the values that are generated for edge cases, some seconds of it; it is counted, and not timed, so that
// the cases are the same on every machine. Behind it come those alone that have the largest of no count.
const mostWork = 6_000_000

// patience is how long a first edge case is looked for.
const patience = 10 * time.Second

// A factorKind is what is chosen.
type factorKind int

const (
	ofCount  factorKind = iota // how many
	ofNumber                   // a single value
	ofMany                     // the style of many values
	ofBlock                    // how cases, or branches, are
)

// mostFactors bounds what is chosen on purpose; what comes later in a shape is
// drawn.
const mostFactors = 40

// EdgeCases chooses, for each count, among the least, the next, two, a few and the
// largest, and for each value a style. First comes each style with few and with most
// of everything; then every pair of choices is covered with few further inputs:
// greedily, each input being the one, out of some that begin with a pair that is not
// covered yet, that covers most pairs (Cohen, Dalal, Fredman and Patton, 1997). The
// result is the same every time. At most so many cases are generated; they come with
// the smaller ones first. The error is that of the context.
func (s *Shape) EdgeCases(ctx context.Context, most int) (EdgeCases, error) {
	return s.edgeCases(ctx, most, mostWork, func(EdgeCase) {})
}

// EachEdgeCase is as EdgeCases, and hands each case on as soon as it is found.
func (s *Shape) EachEdgeCase(ctx context.Context, most int, do func(EdgeCase)) (EdgeCases, error) {
	return s.edgeCases(ctx, most, mostWork, do)
}

// edgeCases ends when so many values were generated.
func (s *Shape) edgeCases(ctx context.Context, most int, mostWork int64, do func(EdgeCase)) (EdgeCases, error) {
	factors := s.factors()
	c := newCovering(factors)
	all := EdgeCases{Pairs: c.left}
	seen := map[uint64]bool{}
	names := map[string]int{}
	seed := maphash.MakeSeed()
	var text []byte
	work := int64(0)
	begun, began := c.styles(), time.Now()
	for tries := 0; work < 2*mostWork && len(all.Cases) < most && (c.left > 0 || tries == 0) && tries < 20*most; tries++ {
		if err := ctx.Err(); err != nil {
			return EdgeCases{}, err
		}
		var chosen []int
		if tries < len(begun) {
			chosen = begun[tries]
		} else {
			chosen = c.next()
		}
		if work > mostWork && isLarge(factors, chosen) {
			c.drop(chosen)
			continue
		}
		o := Making{Seed: Seed(tries), Size: Largest / 2, Exact: true, plan: map[any]string{}, unheeded: map[any]bool{}, work: &work}
		for i, f := range factors {
			o.plan[f.key] = f.options[chosen[i]]
		}
		in, err := s.Make(o)
		if err != nil {
			c.drop(chosen)
			all.Contradicting++
			if len(all.Cases) == 0 && (tries > 50 || time.Since(began) > patience) {
				break // there seems to be none
			}
			continue
		}
		shown := make([]bool, len(factors))
		for i, f := range factors {
			option := f.options[chosen[i]]
			shown[i] = !o.unheeded[f.key] && in.shows(f.key, option)
		}
		c.cover(chosen, shown)
		if tries >= len(begun) {
			all.GaveWay += truthOf(c.drop(chosen)) // what gave way would do so again
		}
		o.unheeded, o.work = nil, nil
		text = in.Append(text[:0])
		if hash := maphash.Bytes(seed, text); !seen[hash] {
			seen[hash] = true
			one := EdgeCase{edgeName(factors, chosen, shown, names), o, int64(len(text))}
			all.Cases = append(all.Cases, one)
			do(one)
		}
	}
	all.Covered = c.covered
	slices.SortStableFunc(all.Cases, func(a, b EdgeCase) int { return int(a.Bytes - b.Bytes) })
	return all, nil
}

// isLarge reports that an edge case has the largest of a count.
func isLarge(factors []factor, chosen []int) bool {
	for i, f := range factors {
		if f.kind == ofCount && f.options[chosen[i]] == "largest" {
			return true
		}
	}
	return false
}

// factors are what an edge case chooses.
func (s *Shape) factors() (list []factor) {
	taken := map[string]int{}
	add := func(kind factorKind, key any, label string, options []string) {
		if len(options) < 2 || len(list) == mostFactors {
			return
		}
		if taken[label]++; taken[label] > 1 {
			label = fmt.Sprintf("%s-%d", label, taken[label])
		}
		list = append(list, factor{key, kind, label, options})
	}
	inRepeat := map[*fieldNode]bool{}
	counts := map[*fieldNode]bool{}
	integers := false // before a field
	s.each(func(f *fieldNode) {
		v, label := f.Value, f.Name
		if label == "" {
			label = v.Base.String()
		}
		if !counts[f] {
			kind := ofMany
			switch single := len(v.Dims) == 0 && (v.Base <= typePick || v.Base == typeAmong); {
			case f.single() && f.counts:
				kind = ofCount
			case single && v.Base != typeToken && v.Base != typeText && !inRepeat[f] && !f.ofEdges:
				kind = ofNumber
			}
			options := edgeOptions(f, inRepeat[f])
			if !integers { // to be tied to
				options = slices.DeleteFunc(slices.Clone(options), func(name string) bool { return name == "ties" })
			}
			add(kind, f, label, options)
		}
		integers = integers || v.traits().integers
		lengths := v.Dims
		if v.Length != nil {
			lengths = append(slices.Clone(lengths), v.Length)
		}
		for _, l := range lengths {
			if l.Range != nil {
				add(ofCount, l, label+"-length", countOptions(l.Range))
			}
		}
	}, func(item node) {
		switch item := item.(type) {
		case *casesNode:
			counts[item.Count] = true
			if n, ok := constant(item.Count.Value.highEnd()); !ok || n > 1 {
				add(ofBlock, item, item.Count.Name, styleNames(casesStyles, true))
			}
		case *repeatNode:
			if item.Count.Range != nil {
				add(ofCount, item.Count, cmp.Or(item.rows, "bodies"), countOptions(item.Count.Range))
			}
			for _, i := range item.Items {
				if line, ok := i.(*lineNode); ok {
					for _, f := range line.Fields {
						inRepeat[f] = true
					}
				}
			}
		case *eitherNode:
			add(ofBlock, item, "branches", branchStyles(item))
		}
	})
	return list
}

// countOptions are the choices of a count in a range, each once.
func countOptions(g *rangeNode) (names []string) {
	low, known := constant(g.Low)
	high, ends := constant(g.High)
	room := func(n int64) bool { return !ends || !known || high-low > n }
	if known && ends && low == high {
		return nil
	}
	names = []string{"least"}
	if room(1) && !(known && low == 1) {
		names = append(names, "next")
	}
	if (!known || low == 0 || low == 1) && (!ends || high > 2) {
		names = append(names, "two")
	}
	if !known || room(max(2, 3-low)) {
		names = append(names, "few")
	}
	return append(names, "largest")
}

// edgeOptions are the styles of a field that make a difference.
func edgeOptions(f *fieldNode, inRepeat bool) []string {
	v := f.Value
	names := stylesOf(f, true)
	without := func(drop ...string) {
		names = slices.DeleteFunc(slices.Clone(names), func(n string) bool { return slices.Contains(drop, n) })
	}
	switch {
	case f.counts && f.single():
		return countOptions(&rangeNode{Low: v.lowEnd(), High: v.highEnd()})
	case v.Base == typeGraph && v.Bipartite:
		return nil
	case v.Base == typeInt && len(v.Dims) == 0 && inRepeat:
		names = []string{"all-least", "all-largest", "all-equal", "sorted", "reversed", "ends", "all-zero", "near-zero", "small", "ties", "random"}
	case v.Base == typeInt && f.ofEdges:
		names = []string{"all-least", "all-largest", "all-equal", "ends", "all-zero", "near-zero", "powers", "random"}
	case (v.Base == typePick || v.Base == typeAmong) && len(v.Dims) == 0 && !f.ofEdges:
		names = []string{"least", "largest", "uniform"}
	case v.Base == typePick || v.Base == typeAmong:
		names = []string{"all-least", "all-largest", "random"}
	}
	if n, ok := constant(v.lowEnd()); ok && v.Base == typeInt && n >= 0 {
		without("zero", "all-zero", "near-zero")
	} else { // whose small values are those near zero
		without("small")
	}
	switch {
	case v.Base == typeToken || v.Base == typeText:
		if len(v.Set.Runes) == 1 {
			return nil
		}
	case v.Rising || v.Falling:
		return nil
	case v.Distinct:
		names = []string{"sorted", "reversed", "nearly-sorted", "zigzag", "random"}
	case v.Sorted:
		without("sorted", "reversed", "nearly-sorted", "zigzag")
	}
	return names
}

// edgeName names an edge case after its choices; those that are no choice, or gave way, are left
// out.
func edgeName(factors []factor, chosen []int, shown []bool, taken map[string]int) string {
	const longest = 100
	var parts []string
	length, more := 0, 0
	for i, f := range factors {
		option := f.options[chosen[i]]
		switch {
		case !shown[i], option == "random", option == "uniform", option == "mixed":
			continue
		}
		part := strings.ToLower(strings.ReplaceAll(f.label, "_", "-")) + "-" + option
		if length += len(part) + 1; length > longest {
			more++
			continue
		}
		parts = append(parts, part)
	}
	name := strings.Join(parts, ".")
	switch {
	case name == "":
		name = "random"
	case more > 0:
		name += fmt.Sprintf(".and-%d-more", more)
	}
	if taken[name]++; taken[name] > 1 {
		name += fmt.Sprintf(".again-%d", taken[name])
	}
	return name
}

// A covering keeps which pairs of choices are covered.
type covering struct {
	*random
	factors []factor
	first   []int  // of each factor, the number of its first option
	options int    // of all factors together
	done    []bool // by the numbers of two options, the smaller one first
	left    int    // pairs that are not covered
	covered int
	from    int // every pair before it is covered
}

func newCovering(factors []factor) *covering {
	c := &covering{random: newRandom(8), factors: factors}
	for _, f := range factors {
		c.first = append(c.first, c.options)
		c.options += len(f.options)
	}
	c.done = make([]bool, c.options*c.options)
	for i, f := range factors {
		for _, g := range factors[i+1:] {
			c.left += len(f.options) * len(g.options)
		}
	}
	if len(factors) == 1 { // each choice by itself
		c.left = len(factors[0].options)
	}
	return c
}

// styles are choices with each style of many values at a time, with a few and with
// as many as there may be, and with large single values.
func (c *covering) styles() (list [][]int) {
	longest := 0
	for _, f := range c.factors {
		if f.kind == ofMany {
			longest = max(longest, len(f.options))
		}
	}
	for _, level := range []string{"few", "largest"} {
		for k := range longest {
			chosen := make([]int, len(c.factors))
			for i, f := range c.factors {
				last := len(f.options) - 1
				switch {
				case f.kind == ofMany && k < len(f.options), f.kind == ofBlock && level == "few":
					chosen[i] = k % len(f.options)
				case f.kind == ofCount:
					chosen[i] = max(slices.Index(f.options, level), 0)
				case f.kind == ofNumber && (level == "largest" || k%3 == 0):
					chosen[i] = max(slices.Index(f.options, "largest"), 0)
				case f.kind == ofNumber && k%3 == 1 && slices.Contains(f.options, "small"):
					chosen[i] = slices.Index(f.options, "small")
				default:
					chosen[i] = last
				}
			}
			list = append(list, chosen)
		}
	}
	return list
}

// pair is where the pair of two options is kept; of one factor alone, an option
// with itself.
func (c *covering) pair(i, a, j, b int) *bool {
	if i > j {
		i, a, j, b = j, b, i, a
	}
	return &c.done[(c.first[i]+a)*c.options+c.first[j]+b]
}

// each goes through the pairs of a choice.
func (c *covering) each(chosen []int, do func(i, j int, done *bool)) {
	if len(chosen) == 1 {
		do(0, 0, c.pair(0, chosen[0], 0, chosen[0]))
	}
	for i := range chosen {
		for j := i + 1; j < len(chosen); j++ {
			do(i, j, c.pair(i, chosen[i], j, chosen[j]))
		}
	}
}

// cover notes the pairs of a choice that both are in the input.
func (c *covering) cover(chosen []int, shown []bool) {
	c.each(chosen, func(i, j int, done *bool) {
		if !*done && shown[i] && shown[j] {
			*done = true
			c.left--
			c.covered++
		}
	})
}

// drop takes a pair that no valid input has, or seems to have, out of those that are
// to be covered, and reports that it did: the one from which the choice was begun.
func (c *covering) drop(chosen []int) bool {
	if c.left == 0 {
		return false
	}
	i, a, j, b := c.begin()
	done := c.pair(i, a, j, b)
	if *done || chosen[i] != a || chosen[j] != b {
		return false
	}
	*done = true
	c.left--
	return true
}

// begin returns the first pair that is not covered.
func (c *covering) begin() (i, a, j, b int) {
	at := 0
	for i := range c.factors {
		for j := i; j < len(c.factors); j++ {
			if i == j && len(c.factors) > 1 {
				continue
			}
			for a := range c.factors[i].options {
				for b := range c.factors[j].options {
					if i == j && a != b {
						continue
					}
					if at++; at > c.from && !*c.pair(i, a, j, b) {
						c.from = at - 1
						return i, a, j, b
					}
				}
			}
		}
	}
	return 0, 0, 0, 0
}

// next returns a choice that covers many pairs that are not covered yet.
func (c *covering) next() (best []int) {
	if len(c.factors) == 0 {
		return nil
	}
	const candidates = 12
	i, a, j, b := c.begin()
	most := -1
	for range candidates {
		chosen := make([]int, len(c.factors))
		known := make([]bool, len(c.factors))
		chosen[i], known[i] = a, true
		chosen[j], known[j] = b, true
		for _, f := range c.permutation(len(c.factors)) {
			if !known[f] {
				chosen[f], known[f] = c.choose(int(f), chosen, known), true
			}
		}
		gain := 0
		c.each(chosen, func(_, _ int, done *bool) {
			if !*done {
				gain++
			}
		})
		if gain > most {
			best, most = chosen, gain
		}
	}
	return best
}

// choose returns the option of a factor that makes most new pairs with what is
// chosen, any of several alike.
func (c *covering) choose(f int, chosen []int, known []bool) int {
	best, most, alike := 0, -1, uint64(0)
	for o := range c.factors[f].options {
		gain := 0
		for g := range chosen {
			if known[g] && !*c.pair(f, o, g, chosen[g]) {
				gain++
			}
		}
		switch {
		case gain > most:
			best, most, alike = o, gain, 1
		case gain == most:
			if alike++; c.oneIn(alike) {
				best = o
			}
		}
	}
	return best
}
