package ready

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"coldverdict/core/problem"
)

func TestAnswersUnlikeAllKnownOnesAreAskedAbout(t *testing.T) {
	known := func(answers ...string) (cases []problem.Case) {
		for _, answer := range answers {
			cases = append(cases, problem.Case{Input: problem.Data{Text: []byte("9 -3\n")}, Accepted: []problem.Data{{Text: []byte(answer)}}})
		}
		return cases
	}
	for _, tt := range []struct {
		known  []string
		answer string
		says   []string
	}{
		{[]string{"3\n", "0\n"}, "-1474836480\n", []string{"a number below 0"}},
		{[]string{"3\n", "-1\n"}, "-5\n", nil},
		{[]string{"1.5\n"}, "nan\n", []string{"a number that is none"}},
		{[]string{"3\n"}, "0.5\n", []string{"not whole"}},
		{[]string{"3\n"}, "3\n4\n", []string{"more than one line"}},
		{[]string{"3\n4\n", "5\n"}, "3\n4\n", nil},
		{[]string{"3\n"}, "\n", []string{"it answers nothing"}},
		{[]string{"yes\n"}, "no\n", nil},
		{nil, "-5\n", nil},
		{[]string{"1 2\n", "3 1 2\n"}, "2 2\n", []string{"each of the numbers from 1 on once"}},
		{[]string{"1 2\n", "3 1 2\n"}, "2 4 1 3\n", nil},
		{[]string{"1 2\n"}, "2 2\n", nil},
		{[]string{"3\n", "9\n", "0\n", "1\n"}, "10\n", []string{"larger than all in the input"}},
		{[]string{"3\n", "9\n", "0\n", "10\n"}, "11\n", nil},
	} {
		q := newQuestioner(known(tt.known...))
		q.ask(problem.Case{Name: "edges/a", Input: problem.Data{Text: []byte("9\n")}}, []byte(tt.answer))
		q.ask(problem.Case{Name: "edges/b", Input: problem.Data{Text: []byte("9\n")}}, []byte(tt.answer))
		assert.Len(t, q.list, len(tt.says), "%q %q", tt.known, tt.answer)
		for i, words := range tt.says {
			assert.Contains(t, q.list[i].Text, words)
			assert.Contains(t, q.list[i].Text, "edges/a")
		}
	}
}
