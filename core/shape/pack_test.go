package shape

import (
	"bytes"
	"os"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// depotShape is a file of many cases with a total.
const depotShape = "cases t: int 1..12 {\n  n: int 0..1000\n  litres: int[n] 1..9\n  total n <= 20\n}\n"

func madeCases(t *testing.T, s *Shape, sizes ...Size) (list []*Input) {
	t.Helper()
	for i, size := range sizes {
		in, err := s.Make(Making{Seed: Seed(i), Size: size, Exact: true, OneCase: true})
		require.NoError(t, err)
		require.Equal(t, 1, in.Cases())
		list = append(list, in)
	}
	return list
}

func TestInputsOfCasesAreJoinedAsFarAsCountAndTotalsAllow(t *testing.T) {
	s := parsed(t, depotShape)
	assert.EqualValues(t, 12, s.Packs())
	small := make([]Size, 15)
	packed, joined := s.Pack(madeCases(t, s, small...))
	assert.Equal(t, 12, joined, "the count allows no more")
	fault, err := s.Check(bytes.NewReader(packed.Append(nil)), Options{})
	assert.NoError(t, err)
	assert.Nil(t, fault)

	large := make([]Size, 15)
	for i := range large {
		large[i] = s.SizeFor(9)
	}
	list := madeCases(t, s, large...)
	var alone []byte
	for _, in := range list {
		alone = append(alone, bytes.TrimPrefix(in.Append(nil), []byte("1\n"))...)
	}
	packed, joined = s.Pack(list)
	assert.Less(t, joined, 12, "the total allows no more")
	assert.Greater(t, joined, 1)
	text := packed.Append(nil)
	_, body, _ := bytes.Cut(text, []byte("\n"))
	assert.True(t, bytes.HasPrefix(alone, body), "cases stay as they are, in their order")
	fault, err = s.Check(bytes.NewReader(text), Options{})
	assert.NoError(t, err)
	assert.Nil(t, fault)
}

func TestAnInputOfCasesIsPartedAndTurnedRound(t *testing.T) {
	s := parsed(t, `cases t: int 1..9 { word: token(1..3, "a-z") }`)
	in, _, err := s.Read(bytes.NewReader([]byte("3\na\nbb\nccc\n")), Options{})
	require.NoError(t, err)
	assert.Equal(t, "2\nbb\nccc\n", string(in.Part(1, 3).Append(nil)))
	assert.Equal(t, "3\nccc\nbb\na\n", string(in.Reversed().Append(nil)))
	assert.Equal(t, "3\na\nbb\nccc\n", string(in.Append(nil)), "the whole stays as it was")
}

func TestOnlyWhatIsNothingButCasesPacks(t *testing.T) {
	for text, why := range map[string]string{
		"n: int 1..9": "no cases",
		"k: int 1..9\ncases t: int 1..9 { n: int 1..9 }":    "something before them",
		"cases t: int 1..1 { n: int 1..9 }":                 "there is one only",
		"cases t: int 1..9 { n: int 1..9 }\nk: int 1..9":    "something behind them",
		"cases t: int 1..9 { n: int 1..9 }\nscale t":        "",
		"cases t: int 1..9 { a: int 1..9\nrequire a != 3 }": "",
	} {
		assert.Equal(t, why == "", parsed(t, text).Packs() > 0, "%s: %s", text, why)
	}
}

func TestASizeIsFoundForACount(t *testing.T) {
	for _, text := range []string{depotShape, "n: int 1..200000\na: int[n] 1..9", `token(1..5000, "a-z")`} {
		s := parsed(t, text)
		for _, n := range []int64{1, 2, 5, 30, 999} {
			in, err := s.Make(Making{Size: s.SizeFor(n), Exact: true, OneCase: true})
			require.NoError(t, err)
			assert.NotEmpty(t, in.Append(nil))
			of := s.SizeFor(n).of(uint64(s.largestCount()))
			assert.InDelta(t, n, float64(of), 1, text)
		}
		assert.Equal(t, Largest, s.SizeFor(1<<40))
		assert.Equal(t, Size(0), s.SizeFor(0))
	}
}

func TestCountsThatAreAlikeAreNotTinyWhereOthersAreSmall(t *testing.T) {
	s := parsed(t, "n: int 1..100000, k: int 1..10\na: int[n] 1..9\nb: int[k] 1..9")
	size := s.SizeFor(10)
	most := map[string]int64{}
	for _, alike := range []bool{false, true} {
		clear(most)
		for seed := range Seed(50) {
			in, err := s.Make(Making{Seed: seed, Size: size, Alike: alike})
			require.NoError(t, err)
			in.EachCount(func(name string, n int64) { most[name] = max(most[name], n) })
		}
		assert.InDelta(t, 10, most["n"], 1)
		assert.Equal(t, alike, most["k"] > 2)
	}
	assert.Equal(t, most["n"], most["k"])
}

func TestASizeIsReadAsItIsWritten(t *testing.T) {
	for _, size := range []Size{0, 1, Largest / 7, Largest / 2, Largest - 60, Largest - 1, Largest} {
		assert.Equal(t, size.Written(), size.Written().Written(), size)
		assert.InDelta(t, float64(size), float64(size.Written()), float64(Largest)/9000)
	}
	assert.Equal(t, "0.9999", (Largest - 1).String())
	assert.Equal(t, "1", Largest.String())
}

func BenchmarkSmallCases(b *testing.B) {
	text, err := os.ReadFile("../../demo/problems/depots/input.shape")
	require.NoError(b, err)
	s, err := Parse(string(text))
	require.NoError(b, err)
	size := s.SizeFor(4)
	for i := 0; b.Loop(); i++ {
		if _, err := s.Make(Making{Seed: Seed(i), Size: size, OneCase: true}); err != nil {
			b.Fatal(err)
		}
	}
}
