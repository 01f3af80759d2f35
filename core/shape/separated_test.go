package shape

import (
	"context"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestElementsMayHaveMoreThanABlankBetweenThem(t *testing.T) {
	for _, text := range []string{
		"a: int[1..30] 0..99 by \",\"", "n: int 1..30, a: int[n] -5..5 by \", \"", "w: token(1..4, \"a-z\")[0..5] distinct by \"-\"",
		"n: int 1..4\nrepeat n {\n  way: pick(\"in\", \"out\")[2] by \"->\", k: int[2] 1..at+1 by \"/\"\n}", "\"x\", a: int[3] 1..9 rising by \";\", b: int 1..9",
	} {
		s, err := Parse(text)
		require.NoError(t, err, text)
		for seed := range Seed(80) {
			madeValid(t, s, Making{Seed: seed, Size: Size(seed) * Largest / 80})
		}
		edgeCasesOf(t, s, 20)
	}
	s, err := Parse("a: int[1..30] 0..99 by \",\"")
	require.NoError(t, err)
	in, err := s.Make(Making{Seed: 2, Size: Largest})
	require.NoError(t, err)
	small, _, err := s.Shrink(t.Context(), in, func(_ context.Context, text []byte) (bool, error) { return strings.Count(string(text), ",") > 1, nil })
	require.NoError(t, err)
	assert.Equal(t, "0,0,0\n", string(small.Append(nil)))
	assert.Contains(t, strings.Join(s.Explain(), "\n"), `with "," between them`)
}

func TestWhatStandsBetweenElementsIsHeldStrictly(t *testing.T) {
	s, err := Parse("a: int[1..9] 0..99 by \",\"")
	require.NoError(t, err)
	for text, says := range map[string]string{
		"1,2,100\n": "a[2] is 100, outside 0..99", "1,,2\n": `expected an integer for a[1], found "" between ","`, "1,02\n": `found "02" between ","`, "1, 2\n": `found "" between ","`, "1,2,\n": `expected an integer for a[2]`,
		"\n": "a has 0 elements, and has 1..9", "1;2\n": `found "1;2"`,
	} {
		fault, err := s.Check(strings.NewReader(text), Options{})
		require.NoError(t, err)
		require.NotNil(t, fault, text)
		assert.Contains(t, fault.Error(), says, text)
	}
	for text, says := range map[string]string{
		"a: int[3] 1..2 by \"1\"": `"1" can stand in an integer`, "a: int[3] 1..2 by": "expected what stands between two elements", "a: int[3] down 1..2 by \",\"": "by belongs to arrays of int, token, digits and pick on one line",
		"w: token(1, \"a,\")[3] by \",\"": `"," can stand in an element`, "p: pick(\"a-b\", \"c\")[3] by \"-\"": `"-" stands in a token`, "a: int[3] 1..2 by \" \"": "a blank stands between elements anyway", "x: real[2] 0..1 by \",\"": "by belongs to arrays",
	} {
		_, err := Parse(text)
		assert.ErrorContains(t, err, says, text)
	}
	_, err = ParseArguments("temps: int[3] 1..2 by \",\"", takes(t, "temps: int[]"))
	assert.ErrorContains(t, err, "arguments have no separators")
}
