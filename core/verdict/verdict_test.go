package verdict

import (
	"testing"

	"github.com/stretchr/testify/assert"
)

func TestASolutionIsAsGoodAsItsFirstFailingCase(t *testing.T) {
	tests := []struct {
		name  string
		cases []Verdict
		want  Verdict
	}{
		{"nothing was run", nil, Unjudged},
		{"one accepted", []Verdict{Accepted}, Accepted},
		{"nothing to compare with", []Verdict{Unjudged, Unjudged}, Unjudged},
		{"unjudged beside accepted does no harm", []Verdict{Unjudged, Accepted}, Accepted},
		{"the first failure counts, not the worst", []Verdict{Accepted, WrongAnswer, RuntimeError}, WrongAnswer},
		{"a fault is not passed over", []Verdict{Accepted, Fault}, Fault},
		{"a skipped case is no success", []Verdict{Accepted, Skipped}, Skipped},
		{"partial is not accepted", []Verdict{Partial, Accepted}, Partial},
	}
	for _, tt := range tests {
		t.Run(tt.name, func(t *testing.T) { assert.Equal(t, tt.want, OfSolution(tt.cases)) })
	}
}

func TestEveryVerdictIsReadBackFromBothItsForms(t *testing.T) {
	for _, word := range All() {
		v, ok := Parse(word)
		assert.True(t, ok, word)
		short, ok := Parse(v.Short())
		assert.True(t, ok, v.Short())
		assert.Equal(t, v, short)
	}
	for _, bad := range []string{"", "Accepted", "wa", "wrong", "wrong answer "} {
		_, ok := Parse(bad)
		assert.False(t, ok, "%q", bad)
		assert.Error(t, new(Verdict).UnmarshalText([]byte(bad)))
	}
}

func TestOfTwoRunsTheWorseVerdictStands(t *testing.T) {
	assert.Equal(t, WrongAnswer, Worse(Accepted, WrongAnswer))
	assert.Equal(t, WrongAnswer, Worse(WrongAnswer, Accepted))
	assert.Equal(t, Unjudged, Worse(Unjudged, Accepted))
	assert.Equal(t, RuntimeError, Worse(RuntimeError, WrongAnswer))
	assert.Equal(t, Fault, Worse(Accepted, Fault))
}
