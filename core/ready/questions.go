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
	holds func(answer []byte) bool
	words string // of an answer that has it not
}

var properties = []property{
	{func(answer []byte) bool { return !anyNumber(answer, func(x float64) bool { return x < 0 }) }, "a number below 0"},
	{func(answer []byte) bool {
		return !anyNumber(answer, func(x float64) bool { return math.IsNaN(x) || math.IsInf(x, 0) })
	}, "a number that is none, or infinite"},
	{func(answer []byte) bool {
		return !anyNumber(answer, func(x float64) bool { return x != math.Trunc(x) })
	}, "a number that is not whole"},
	{func(answer []byte) bool { return len(bytes.TrimSpace(answer)) > 0 }, "nothing"},
	{func(answer []byte) bool { return bytes.Count(bytes.TrimSpace(answer), []byte("\n")) == 0 }, "more than one line"},
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
		for _, data := range c.Accepted {
			answer, err := data.Head(mostAsked)
			if err != nil {
				continue
			}
			known++
			for i, p := range properties {
				if p.holds(answer) {
					held[i]++
				}
			}
		}
	}
	for i, p := range properties {
		if known > 0 && held[i] == known {
			q.open = append(q.open, p)
		}
	}
	return q
}

// ask looks at the answer to a case.
func (q *questioner) ask(c problem.Case, answer []byte) {
	q.open = slices.DeleteFunc(q.open, func(p property) bool {
		if p.holds(answer) {
			return false
		}
		q.list = append(q.list, Finding{Text: fmt.Sprintf("it answers %s on %s, and no case expects that: can it be?", p.words, c.Name)})
		return true
	})
}
