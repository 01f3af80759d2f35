package ready

import (
	"bytes"
	"fmt"
	"math"
	"slices"
	"strconv"

	"coldverdict/core/problem"
)

// A property is something that all known answers may have in common.
type property struct {
	holds func(input, answer []byte) bool
	words string // of an answer that has it not
	least int    // how many known answers must have it, so that it is no chance
}

var properties = []property{
	{ofNumbers(func(x float64) bool { return x < 0 }), "a number below 0", 1},
	{ofNumbers(func(x float64) bool { return math.IsNaN(x) || math.IsInf(x, 0) }), "a number that is none, or infinite", 1},
	{ofNumbers(func(x float64) bool { return x != math.Trunc(x) }), "a number that is not whole", 1},
	{func(_, answer []byte) bool { return len(bytes.TrimSpace(answer)) > 0 }, "nothing", 1},
	{func(_, answer []byte) bool { return bytes.Count(bytes.TrimSpace(answer), []byte("\n")) == 0 }, "more than one line", 1},
	{func(_, answer []byte) bool { return isPermutation(answer) }, "something else than each of the numbers from 1 on once", 2},
	{func(input, answer []byte) bool {
		most := largest(input)
		return !anyNumber(answer, func(x float64) bool { return x > most })
	}, "a number larger than all in the input", 4},
}

// ofNumbers is a property of answers no number of which is something.
func ofNumbers(is func(float64) bool) func(input, answer []byte) bool {
	return func(_, answer []byte) bool { return !anyNumber(answer, is) }
}

// isPermutation reports that a text has at least two numbers, and each from 1 to how many they are.
func isPermutation(text []byte) bool {
	words := bytes.Fields(text)
	seen := make([]bool, len(words)+1)
	for _, word := range words {
		n, err := strconv.Atoi(string(word))
		if err != nil || n < 1 || n > len(words) || seen[n] {
			return false
		}
		seen[n] = true
	}
	return len(words) > 1
}

// largest is the largest number in a text; without one, nothing is larger.
func largest(text []byte) float64 {
	most, found := 0.0, false
	anyNumber(text, func(x float64) bool {
		if !found || x > most {
			most, found = x, true
		}
		return false
	})
	if !found {
		return math.Inf(1)
	}
	return most
}

// anyNumber reports that a word of a text is a number for which something holds.
func anyNumber(text []byte, holds func(float64) bool) bool {
	return slices.ContainsFunc(bytes.Fields(text), func(word []byte) bool {
		x, err := strconv.ParseFloat(string(word), 64)
		return err == nil && holds(x)
	})
}

// mostAsked bounds what is looked at of an answer, in bytes.
const mostAsked = 64 << 10

// A questioner compares answers with what the known ones have in common. What it finds is a
// question to a person, and no verdict.
type questioner struct {
	open []property
	list []Finding
}

// newQuestioner learns from the expected outputs of some cases.
func newQuestioner(cases []problem.Case) *questioner {
	q, known := &questioner{}, 0
	held := make([]int, len(properties))
	for _, c := range cases {
		if c.Sealed {
			continue
		}
		input, err := c.Input.Head(mostAsked)
		if err != nil {
			continue
		}
		for _, data := range c.Accepted {
			answer, err := data.Head(mostAsked)
			if err != nil {
				continue
			}
			known++
			for i, p := range properties {
				if p.holds(input, answer) {
					held[i]++
				}
			}
		}
	}
	for i, p := range properties {
		if known >= p.least && held[i] == known {
			q.open = append(q.open, p)
		}
	}
	return q
}

// ask looks at the answer to a case.
func (q *questioner) ask(c problem.Case, answer []byte) {
	input, err := c.Input.Head(mostAsked + 1)
	if err != nil || len(input) > mostAsked {
		return // too much of it is not seen
	}
	q.open = slices.DeleteFunc(q.open, func(p property) bool {
		if p.holds(input, answer) {
			return false
		}
		q.list = append(q.list, Finding{Text: fmt.Sprintf("it answers %s on %s, and no case expects that: can it be?", p.words, c.Name)})
		return true
	})
}
