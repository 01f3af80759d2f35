package shape

import (
	"context"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestValuesAndTextsAreJoinedOnALine(t *testing.T) {
	for _, text := range []string{
		"\"x=\" & x: int -9..9 & \", y=\" & y: int -9..9",
		"h: int 0..23 pad 2 & \":\" & m: int 0..59 pad 2, n: int 1..9",
		"\"move \" & k: int 1..9 & \" from \" & a: pick(\"A\", \"B\") & \" to \" & b: pick(\"A\", \"B\")",
		"w: token(0..4, \"a-z\") & \"-\" & r: real 0..1 places 2 & \"!\"",
		"a: int -5..5 & \"-\" & b: int -5..5, \"then\", c: int 1..3 & \"%\"",
		"n: int 1..6\nrepeat n distinct {\n  \"#\" & a: int 1..n & \"@\" & x: int 0..999 & \",\" & y: int 0..999\n}",
		"t: int[1..4] -12..120 pad 3",
		"t: int[3] down 0..99 pad 2\ng: int[2][2] 0..9 pad 2",
		"n: int 2..5\ntree(n) with (int 1..9 pad 3)",
		"either { \"go \" & x: int 1..9 & \"m\" } or { \"stop\" } or { \"turn to\", d: pick(\"left\", \"right\") }",
		"t: int[1..4] 0..9 pad 2\nw: token(2, \"a\")",
	} {
		s, err := Parse(text)
		require.NoError(t, err, text)
		for seed := range Seed(60) {
			madeValid(t, s, Making{Seed: seed, Size: Size(seed) * Largest / 60})
		}
		edgeCasesOf(t, s, 12)
	}
	s := parsed(t, "\"x=\" & x: int -9..9 & \", y=\" & y: int -9..9\nh: int 7..7 pad 3")
	in, err := s.Make(Making{Seed: 2, Size: Largest})
	require.NoError(t, err)
	small, _, err := s.Shrink(t.Context(), in, func(context.Context, []byte) (bool, error) { return true, nil })
	require.NoError(t, err)
	assert.Equal(t, "x=0, y=0\n007\n", string(small.Append(nil)))
	assert.Contains(t, strings.Join(s.Explain(), "\n"), `the text "x=", joined to x, an integer from -9 to 9, joined to the text ", y="`)
	assert.Contains(t, strings.Join(s.Explain(), "\n"), "h, an integer of 3 digits from 7 to 7")
	_, err = s.Places()
	assert.ErrorContains(t, err, "are not read")
}

func TestWhatIsJoinedIsHeldStrictly(t *testing.T) {
	point := parsed(t, "\"x=\" & x: int -9..9 & \", y=\" & y: int -9..9")
	clock := parsed(t, "h: int 0..23 pad 2 & \":\" & m: int 0..59 pad 2")
	word := parsed(t, "w: token(1..3, \"a-z\") & \"-\" & p: pick(\"in\", \"out\") & \" \" & r: real 0..1 places 1")
	for _, tt := range []struct {
		shape       *Shape
		input, says string // empty: it is valid
	}{
		{point, "x=-3, y=9\n", ""},
		{point, "x=-3,y=9\n", `expected ", y=", found y=9`},
		{point, "x=-3 , y=9\n", `expected ", y=", found a blank`},
		{point, "x= -3, y=9\n", "expected an integer for x, found a blank"},
		{point, "x=10, y=9\n", "x is 10, outside -9..9"},
		{point, "x=03, y=9\n", "x has a leading zero"},
		{point, "x=3a, y=9\n", "expected an integer for x, found 3a,"},
		{point, "y=3, y=9\n", `expected "x=", found y=3,`},
		{point, "x=3, y=9,\n", "expected an integer for y, found 9,"},
		{point, "x=3, y=\n", "expected an integer for y, found the end of the line"},
		{point, "x=3\n", `expected ", y=", found the end of the line`},
		{point, "", `expected "x=", found the end of the input`},
		{clock, "07:05\n", ""},
		{clock, "7:05\n", "h is 7, and is written 07"},
		{clock, "007:05\n", "h is 007, and is written 07"},
		{clock, "24:00\n", "h is 24, outside 0..23"},
		{clock, "0a:05\n", "expected an integer for h with 2 digits, found 0a"},
		{clock, ":05\n", "expected an integer for h with 2 digits"},
		{clock, "07 :05\n", `expected ":", found a blank`},
		{word, "abc-in 0.5\n", ""},
		{word, "abcd-in 0.5\n", "w has 4 characters, and has 1 to 3"},
		{word, "aBc-in 0.5\n", "w holds 'B'"},
		{word, "abc-up 0.5\n", "p is up, and none of in, out"},
		{word, "abc-in  0.5\n", "expected a decimal number for r"},
		{word, "abc-in 0.50\n", "r is 0.50, with 2 digits behind the point"},
	} {
		fault, err := tt.shape.Check(strings.NewReader(tt.input), Options{})
		require.NoError(t, err)
		if tt.says == "" {
			assert.Nil(t, fault, tt.input)
			continue
		}
		require.NotNil(t, fault, tt.input)
		assert.Contains(t, fault.Error(), tt.says, tt.input)
	}
	fault, err := point.Check(strings.NewReader("\n  x=3, y=4 \r\n\n"), Options{Loose: true})
	require.NoError(t, err)
	assert.Nil(t, fault, "blanks around a line do not matter in a paste")
}

func TestWhatCannotBeJoinedIsTold(t *testing.T) {
	for text, says := range map[string]string{
		"a: int 1..9 & b: int 1..9":                     "where one value ends and the next begins cannot be told; put a string between them: & \"-\" &",
		"a: int 1..9 & \"0x\" & b: int 1..9":            `1:15: "0x" begins with what can stand in the value before it`,
		"a: real 0..1 & \".\"":                          "begins with what can stand in the value before it",
		"a: real -1..1 & \"-\" & b: int 1..2":           "begins with what can stand in the value before it",
		"w: token(3, \"a-z\") & \"x\"":                  "begins with what can stand in the value before it",
		"p: pick(\"a:b\", \"c\") & \":\" & n: int 1..2": "begins with what can stand in the value before it",
		"a: int -9..9 pad 2 & \"-\"":                    "begins with what can stand in the value before it",
		"a: int[3] 1..9 & \"x\"":                        "only single values of int, real, token and pick are joined by &",
		"s: text(1..9, \"a\") & \"x\"":                  "only single values of int, real, token and pick are joined by &",
		"g: grid(2, 2, \".#\") & \"x\"":                 "only single values",
		"\" x\" & a: int 1..2":                          "a string neither begins nor ends a line with a blank",
		"a: int 1..2 & \"x \"":                          "a string neither begins nor ends a line with a blank",
		"a: int 1..2 & \"x  y\" & b: int 1..2":          "nor has it two in a row",
		"\" x\", a: int 1..2":                           "it can neither begin or end with a blank",
		"\"\" & a: int 1..2":                            "it can neither be empty",
		"a: int 1..2 &":                                 "expected a value such as int 1..n",
		"a: int 1..2 && b: int 1..2":                    "write and",
		"e: int[1..3] 1..9 pad 2 by \",\"":              "pad and by do not go together",
		"t: int[1..3] down 0..9\ng: int[2] 1..2":        "how many there are one a line must be said before; where they go to the end of the input, write repeat 1..3 { … }",
		"a: token(3, \"a\") pad 2":                      "pad belongs to int",
		"a: int 1..9 pad 1":                             "pad can be 2 to 18",
		"tree(3) with (\" x\")":                         "a string on the line of an edge",
	} {
		_, err := Parse(text)
		require.Error(t, err, text)
		assert.ErrorContains(t, err, says, text)
	}
	for text, says := range map[string]string{"\"x\" & n: int 1..2": "arguments are not joined; put a comma in place of &", "n: int 1..2 pad 2": "pad belongs to int, in inputs of lines"} {
		_, err := ParseArguments(text, takes(t, "n: int"))
		assert.ErrorContains(t, err, says, text)
	}
}

func TestIntegersArePadded(t *testing.T) {
	for _, tt := range []struct {
		n      int64
		digits int
		want   string
	}{{7, 0, "7"}, {7, 2, "07"}, {77, 2, "77"}, {777, 2, "777"}, {0, 3, "000"}, {-7, 2, "-07"}, {-777, 2, "-777"}, {-1 << 63, 18, "-9223372036854775808"}} {
		assert.Equal(t, "x"+tt.want, string(appendPadded([]byte("x"), tt.n, tt.digits)))
	}
}
