package shape

import (
	"errors"
	"io"
	"strconv"
	"strings"
	"testing"
	"testing/iotest"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// TestItDoesNotMatterInWhichPiecesAnInputComes reads inputs byte by byte, and ones
// that are longer than the buffer.
func TestItDoesNotMatterInWhichPiecesAnInputComes(t *testing.T) {
	many := "1\n" + strings.Repeat("1 2\n9 9\n", 50000) + "0 0\n"
	pairs := "blank0: int 1..9\nrepeat 1..1e6 until \"0 0\" { a: int 1..9, b: int 1..9 }"
	long := "200000\n" + strings.Repeat("x", 200000) + "\n" + strings.TrimSuffix(strings.Repeat("1234567 ", 200000), " ") + "\n"
	words := "n: int 1..1e6\ns: token(n, \"x\")\nw: int[n] 1..1e9"
	branches := "q: int 1..1e6\nrepeat q { either { \"near\", v: int 1..9 } or { \"path\", u: int 1..9, v: int 1..9 } }"
	queries := "60000\n" + strings.Repeat("near 3\npath 1 2\n", 30000)
	distinct := "n: int 1..1e6\nrepeat n distinct { s: token(1..9, \"0-9\") }"
	var different strings.Builder
	different.WriteString("70000\n")
	for i := range 70000 {
		different.WriteString(strconv.Itoa(100000+i) + "\n")
	}
	for _, tt := range []struct{ shape, input string }{{pairs, many}, {words, long}, {branches, queries}, {distinct, different.String()}} {
		s := parsed(t, tt.shape)
		for _, loose := range []bool{false, true} {
			for name, reader := range map[string]io.Reader{
				"whole": strings.NewReader(tt.input), "byte by byte": iotest.OneByteReader(strings.NewReader(tt.input)),
				"halves": iotest.HalfReader(strings.NewReader(tt.input)), "the end with the data": iotest.DataErrReader(strings.NewReader(tt.input)),
			} {
				if testing.Short() && name == "byte by byte" {
					continue // the detector of races is slow, and one goroutine reads
				}
				fault, err := s.Check(reader, Options{loose})
				require.NoError(t, err)
				assert.Nil(t, fault, "%s: %v", name, fault)
			}
		}
		broken := tt.input[:len(tt.input)-3] + "!\n"
		fault, err := s.Check(iotest.OneByteReader(strings.NewReader(broken)), Options{})
		require.NoError(t, err)
		require.NotNil(t, fault)
		assert.InDelta(t, strings.Count(broken, "\n"), fault.Line, 1)
	}
	again := strings.Replace(different.String(), "100001\n", "100000\n", 1)
	fault, err := parsed(t, distinct).Check(iotest.OneByteReader(strings.NewReader(again)), Options{})
	require.NoError(t, err)
	assert.ErrorContains(t, fault, "line 3: these bodies are not distinct: this one is as that on line 2")
}

func TestAnInputThatCannotBeReadIsNoFaultOfIts(t *testing.T) {
	s := parsed(t, lineOfInts)
	fault, err := s.Check(io.MultiReader(strings.NewReader("4 10\n5 "), iotest.ErrReader(errors.New("the disk is gone"))), Options{})
	assert.ErrorContains(t, err, "the disk is gone")
	assert.Nil(t, fault)
}

func TestAFaultSaysWhereItLies(t *testing.T) {
	fault, err := parsed(t, "n: int 1..9\nw: int[n] 1..9").Check(strings.NewReader("3\n1 22 3\n"), Options{})
	require.NoError(t, err)
	assert.Equal(t, &Fault{Line: 2, Nth: 2, Name: "w[1]", Text: "w[1] is 22, outside 1..9", Column: 5}, fault)
	for n, want := range map[int]string{1: "1st", 2: "2nd", 3: "3rd", 4: "4th", 11: "11th", 12: "12th", 13: "13th", 21: "21st", 102: "102nd", 111: "111th"} {
		assert.Equal(t, want, ordinal(n))
	}
}

func TestSetsOfCharactersAreReadAsTheyAreWritten(t *testing.T) {
	for text, want := range map[string]string{"a-d": "abcd", "-a": "-a", "a-": "-a", "a-c-": "-abc", "ba": "ab", "aa": "a", "é-ë": "éêë", "0-9.": ".0123456789"} {
		s, wrong := newSet(text)
		require.Empty(t, wrong, text)
		assert.Equal(t, want, string(s.Runes), text)
		for _, r := range want {
			assert.True(t, s.Has(r), "%q in %q", r, text)
		}
		assert.False(t, s.Has('~'))
	}
	for _, bad := range []string{"", "b-a", "\x01", "\x00-\U000fffff"} {
		_, wrong := newSet(bad)
		assert.NotEmpty(t, wrong, "%q", bad)
	}
}
