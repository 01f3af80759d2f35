package cross

import (
	"context"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"coldverdict/core/problem"
	"coldverdict/core/shape"
	"coldverdict/core/value"
)

func TestAnOutputIsDividedAmongItsCases(t *testing.T) {
	for _, test := range []struct {
		text  string
		cases int
		want  []string
	}{
		{"1\n2\n3\n", 3, []string{"1\n", "2\n", "3\n"}},
		{"1\n2\n3", 3, []string{"1\n", "2\n", "3\n"}},
		{"1\na\n2\nb\n\n\n", 2, []string{"1\na\n", "2\nb\n"}},
		{"1 2 3\n", 1, []string{"1 2 3\n"}},
		{"1\n2\n3\n", 2, nil},
		{"1\n", 0, nil},
		{"", 2, nil},
	} {
		parts, ok := partsOf([]byte(test.text), test.cases)
		assert.Equal(t, test.want != nil, ok, test.text)
		var got []string
		for _, part := range parts {
			got = append(got, string(part))
		}
		assert.Equal(t, test.want, got, test.text)
	}
}

// scheduled makes a schedule of random inputs of a shape.
func scheduled(t *testing.T, text string, o Options) *schedule {
	src, err := openSource(context.Background(), &problem.Problem{Shape: parsedShape(t, text)}, Options{})
	require.NoError(t, err)
	s := newSchedule(src, o)
	s.edging = false
	return s
}

func TestWhatDoesNotFitIntoOneFileComesNext(t *testing.T) {
	size := shape.Largest
	s := scheduled(t, "cases t: int 1..100 {\n  n: int 5..9\n  w: int[n] 1..9\n  total n <= 20\n}", Options{Size: &size, Style: "sorted", Count: 30})
	seeds := map[shape.Seed]bool{}
	for {
		p, err := s.next(context.Background())
		require.NoError(t, err)
		if p == nil {
			break
		}
		assert.LessOrEqual(t, len(p.inputs), 4, "the total allows no more")
		assert.Equal(t, len(p.inputs), p.cases)
		for _, in := range p.inputs {
			assert.False(t, seeds[in.Seed], "each comes once")
			seeds[in.Seed] = true
		}
		s.ended(p, time.Millisecond, nil, false)
	}
	assert.Len(t, seeds, 30)
}

func TestPacksGrowAsLongAsTheyAreFast(t *testing.T) {
	size := shape.Size(0)
	s := scheduled(t, "cases t: int 1..1000 { n: int 1..9 }", Options{Size: &size})
	longest := 0
	for range 12 {
		p, err := s.next(context.Background())
		require.NoError(t, err)
		longest = max(longest, len(p.inputs))
		s.ended(p, time.Millisecond, nil, false)
	}
	assert.Greater(t, longest, 4*firstPack)
	before := s.pack
	p, err := s.next(context.Background())
	require.NoError(t, err)
	s.ended(p, time.Second, nil, true)
	assert.Less(t, s.pack, before, "the reference was too slow")
}

func TestPacksGrowWhereProgramsTakeLongToStart(t *testing.T) {
	size := shape.Size(0)
	s := scheduled(t, "cases t: int 1..1000 { n: int 1..9 }", Options{Size: &size})
	start := 2 * packTime
	for range 8 {
		p, err := s.next(context.Background())
		require.NoError(t, err)
		s.ended(p, start+time.Duration(len(p.inputs))*time.Microsecond, nil, false)
	}
	assert.Greater(t, s.pack, 4*firstPack, "what each input takes is little")
	p, err := s.next(context.Background())
	require.NoError(t, err)
	before := s.pack
	s.ended(p, start+3*packTime, nil, false)
	assert.Less(t, s.pack, before, "what all of them take is much")
}

func TestSmallEdgeCasesOfAFunctionShareARun(t *testing.T) {
	takes := []value.Field{{Name: "crates", Type: typeOf(t, "int[]")}}
	arguments, err := shape.ParseArguments("crates: int[0..50] 1..1000", takes)
	require.NoError(t, err)
	src, err := openSource(context.Background(), &problem.Problem{Shape: arguments, Call: &problem.Call{Name: "f", Takes: takes}}, Options{})
	require.NoError(t, err)
	s := newSchedule(src, Options{Count: 20})
	all, err := arguments.EdgeCases(context.Background(), 19)
	require.NoError(t, err)
	require.Len(t, all.Cases, 19)
	for _, c := range all.Cases {
		s.haveEdge(c)
	}
	s.haveAllEdges()
	p, err := s.next(context.Background())
	require.NoError(t, err)
	assert.Len(t, p.texts, 16)
	assert.Equal(t, all.Cases[1].Name, p.inputs[1].Edge)
	s.ended(p, time.Millisecond, nil, false)
	p, err = s.next(context.Background())
	require.NoError(t, err)
	assert.Len(t, p.texts, 3, "those that are left")
	s.ended(p, time.Millisecond, nil, false)
	p, err = s.next(context.Background())
	require.NoError(t, err)
	assert.Equal(t, []any{1, randomStream}, []any{len(p.texts), p.stream})
	p, err = s.next(context.Background())
	require.NoError(t, err)
	assert.Nil(t, p, "so many were asked for")
}

func TestTheReferenceSetsACeiling(t *testing.T) {
	s := scheduled(t, "n: int 1..100000\nw: int[n] 1..9", Options{Seed: 3})
	slow := func(p *pack) bool { return len(p.texts[0]) > 8 }
	largest := 0
	for i := range 600 {
		s.spent = [3]time.Duration{}
		p, err := s.next(context.Background())
		require.NoError(t, err)
		if i > 400 && p.stream == randomStream {
			largest = max(largest, len(p.texts[0]))
		}
		s.ended(p, time.Millisecond, nil, slow(p))
	}
	assert.Less(t, s.ceiling, 4)
	assert.Less(t, largest, 20, "what is larger is tried no more")
}

func TestEdgeCasesComeFirstAndLargeOnesBeside(t *testing.T) {
	s := scheduled(t, sumShape, Options{})
	s.edging = true
	for _, c := range []shape.EdgeCase{{Name: "small", Bytes: 4}, {Name: "large", Bytes: 1 << 20}, {Name: "next", Bytes: 5}} {
		s.haveEdge(c)
	}
	assert.False(t, s.largeReady(), "a smaller one may come")
	s.haveAllEdges()
	var order []string
	for range 40 {
		p, err := s.next(context.Background())
		require.NoError(t, err)
		if name := p.inputs[0].Edge; name != "" {
			order = append(order, name)
		}
		s.ended(p, 100*time.Millisecond, nil, false)
	}
	assert.Equal(t, []string{"small", "next", "large"}, order)
	assert.InDelta(t, afterEdges, float64(s.spent[largeStream])/float64(s.spent[largeStream]+s.spent[randomStream]), 0.1)
}

func TestWhatTakesLongForItsSizeIsTriedMoreOftenAmongLargeInputs(t *testing.T) {
	s := scheduled(t, "n: int 1..1000\nw: int[n] 1..9", Options{})
	tried := map[string]int{}
	for range 6 * len(s.styles) {
		s.spent = [3]time.Duration{randomStream: time.Hour} // large ones only
		p, err := s.next(context.Background())
		require.NoError(t, err)
		require.Equal(t, largeStream, p.stream)
		style := p.inputs[0].Style
		tried[style]++
		took := time.Duration(p.size)
		if style == "zigzag" {
			took *= 9
		}
		s.took(p, took)
		s.ended(p, 0, nil, false)
	}
	assert.Greater(t, tried["zigzag"], 2*len(s.styles))
	for _, style := range s.styles {
		assert.Positive(t, tried[style], style)
	}
}

// answered are what answers came, one for each input of a line.
func answered(t *testing.T, p *problem.Problem, answers ...string) Coverage {
	s := newSeen(p, 0)
	for _, answer := range answers {
		one := &pack{inputs: []*input{{Origin: Origin{Style: "sorted"}, text: []byte("1\n")}}, texts: [][]byte{[]byte("1\n")}}
		s.add(one, [][]byte{[]byte(answer)}, [][]byte{[]byte(answer)})
	}
	return s.summary(p, Result{})
}

func TestWhatNeverCameIsTold(t *testing.T) {
	known := func(expected string) *problem.Problem {
		return &problem.Problem{Cases: []problem.Case{{Name: "samples/2", Accepted: []problem.Data{dataOf([]byte(expected))}}}}
	}
	for name, test := range map[string]struct {
		problem *problem.Problem
		answers []string
		never   []string
	}{
		"zero":                            {&problem.Problem{}, []string{"3\n", "5\n"}, []string{"the answer 0"}},
		"zero came":                       {&problem.Problem{}, []string{"3\n", "0\n"}, nil},
		"negative ones have no zero":      {&problem.Problem{}, []string{"3\n", "-1\n"}, nil},
		"always the same":                 {&problem.Problem{}, []string{"YES\n", "YES\n"}, []string{"an answer other than YES"}},
		"what a sample expects":           {known("-1\n"), []string{"0\n", "4\n"}, []string{"the answer -1, which samples/2 expects"}},
		"a word that a sample expects":    {known("none\n"), []string{"0\n", "4\n"}, []string{"the answer none, which samples/2 expects"}},
		"any other number may not come":   {known("17\n"), []string{"0\n", "4\n"}, nil},
		"several words are no one answer": {known("none\n"), []string{"1 2\n", "3 4\n"}, nil},
	} {
		assert.Equal(t, test.never, answered(t, test.problem, test.answers...).Never, name)
	}
	c := answered(t, &problem.Problem{}, "3\n", "1\n", "3\n")
	assert.Equal(t, []string{"1", "3"}, c.Answers)
	assert.Equal(t, []Tried{{"sorted", 3}}, c.Styles)
}

func TestTraitsTellAnswersApart(t *testing.T) {
	s := newSeen(&problem.Problem{}, 0)
	same := func(a, b string) bool {
		return assert.ObjectsAreEqual(s.addAnswer([]byte(a)), s.addAnswer([]byte(b)))
	}
	assert.True(t, same("1000\n", "1001\n"), "of one size")
	for _, pair := range [][2]string{{"1\n", "2\n"}, {"100\n", "-100\n"}, {"100\n", "100000\n"}, {"YES\n", "NO\n"}, {"1\n", "1 1 1\n"}, {"300 300\n", "300 301\n"}} {
		assert.False(t, same(pair[0], pair[1]), "%q and %q", pair[0], pair[1])
	}
	assert.LessOrEqual(t, len(s.addAnswer([]byte(strings.Repeat("7 ", 5000)))), 3*traitWords)
}

func TestAnOriginSaysHowToMakeItAgain(t *testing.T) {
	size, err := shape.ParseSize("0.25")
	require.NoError(t, err)
	assert.Equal(t, "seed 2:7, size 0.25, style sorted", Origin{Seed: 7, Size: size, Style: "sorted"}.String())
	assert.Equal(t, "seed 2:7, size 0.25", Origin{Seed: 7, Size: size}.String())
	assert.Equal(t, "edge case n-least", Origin{Edge: "n-least", Seed: 7}.String())
	s := scheduled(t, sumShape, Options{})
	for rung := range rungs {
		written, err := shape.ParseSize(s.sizeOf(rung).String())
		require.NoError(t, err)
		assert.Equal(t, s.sizeOf(rung), written, "what is shown is what was used")
	}
}
