package shape

import (
	"bytes"
	"context"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// A form is a way to write a value: what stands before its dimensions, and behind them.
type form struct{ before, behind string }

// formsOfValues are values of every base, alone and in arrays, with and without a range.
func formsOfValues() (all []form) {
	for _, dims := range []string{"", "[n]", "[0..n]", "[2][n]", "[n] down"} {
		for _, reach := range []string{"", " 0..9", " n..2*n+20", " -9..9"} {
			all = append(all, form{"int" + dims, reach})
		}
		all = append(all,
			form{"real" + dims, " -2..2"}, form{"real" + dims, ""},
			form{`token(1..6, "ab(")` + dims, ""}, form{`token(0..6, "()[]")` + dims, ""}, form{`text(1..9, "ab ")` + dims, ""},
			form{`pick("in", "out", "off")` + dims, ""})
	}
	return append(all, form{"perm(n)", ""}, form{`grid(n, 3, ".#")`, ""}, form{"tree(n)", ""}, form{"parents(n)", ""}, form{"graph(n, n-1)", ""})
}

var modifiers = []string{
	"distinct", "sorted", "rising", "falling", "balanced", "palindrome", "connected", "acyclic", "directed", "bipartite", "loops", "parallel",
	"but n", "but 0", "but at", "but n but 1", "distinct but 0", "distinct but n", `by ","`, `by " - "`, "places 2", "from 0", "from n", "with (w: int 1..9)",
}

// TestModifiersInEveryCombination tries each modifier, and each two of them, on every kind of value: what the parser
// takes is made, found valid, explained, has edge cases and is made smaller; what it does not take it says in words.
func TestModifiersInEveryCombination(t *testing.T) {
	taken := 0
	try := func(value form, words string) {
		text := "n: int 1..6\nx: " + value.before + value.behind
		if down := strings.TrimSuffix(value.before, " down"); down != value.before {
			text = "n: int 1..6\nx: " + down + value.behind + " " + words + " down"
		} else {
			text += " " + words
		}
		s, err := Parse(text)
		if err != nil {
			require.ErrorAs(t, err, &Mistakes{}, text)
			return
		}
		taken++
		assert.NotEmpty(t, s.Explain(), text)
		for seed := range Seed(3) {
			in, err := s.Make(Making{Seed: seed, Size: Size(seed+1) * Largest / 3})
			if err != nil { // as where more are to be distinct than there are
				require.ErrorAs(t, err, new(*GenerateError), text)
				continue
			}
			made := in.Append(nil)
			read, fault, err := s.Read(bytes.NewReader(made), Options{})
			require.NoError(t, err, text)
			require.Nil(t, fault, "%s: %v\n%s", text, fault, made)
			require.Equal(t, string(made), string(read.Append(nil)), text)
			small, _, err := s.Shrink(t.Context(), read, func(_ context.Context, text []byte) (bool, error) { return len(text) > 4, nil })
			require.NoError(t, err, text)
			fault, err = s.Check(bytes.NewReader(small.Append(nil)), Options{})
			require.NoError(t, err, text)
			require.Nil(t, fault, "%s, made smaller: %v\n%s", text, fault, small.Append(nil))
		}
		for _, input := range []string{"", "\n", "3\n", "3\n3\n", "3\n1 2 3\n", "3\n3 3 3\n", "3\n1,2,3\n", "3\n1 2\n2 3\n", "3\n1\n2\n3\n", "2\nab ab\n", "0\n0\n", "3\n-9223372036854775808 9223372036854775807 0\n"} {
			for _, loose := range []bool{false, true} {
				_, err := s.Check(strings.NewReader(input), Options{loose})
				require.NoError(t, err, "%s of %q", text, input)
			}
		}
	}
	for _, value := range formsOfValues() {
		try(value, "")
		for i, one := range modifiers {
			try(value, one)
			for _, other := range modifiers[i+1:] {
				if testing.Short() {
					break
				}
				try(value, one+" "+other)
			}
		}
	}
	assert.Greater(t, taken, 200)
}
