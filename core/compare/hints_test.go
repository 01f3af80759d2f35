package compare

import (
	"strings"
	"testing"

	"coldverdict/core/verdict"

	"github.com/stretchr/testify/assert"
)

func TestAHintIsGivenOnlyWhenItExplainsTheWholeFailure(t *testing.T) {
	four := "4\n7 1\n3 9\n0 0\n5 5\n"
	tokens, numbers := Settings{Mode: "tokens"}, Settings{Mode: "numbers", Absolute: 1e-6}
	tests := []struct {
		name      string
		want, got string
		says      string // a part of the only hint; empty: silence
		more      Evidence
	}{
		{name: "spaces", want: "1 2\n3\n", got: "1  2\n3\n", says: "only spacing differs"},
		{name: "one line for two", want: "1\n2\n", got: "1 2\n", says: "only spacing differs"},
		{name: "a blank line between", want: "1\n2\n", got: "1\n\n2\n", says: "only spacing differs"},
		{name: "run together", want: "10\n20\n30\n", got: "102030", says: "answers run together"},
		{name: "run together with a wrong one", want: "10\n20\n30\n", got: "102130"},
		{name: "torn apart", want: "100\n", got: "1 00\n", says: "a word is torn apart"},
		{name: "torn apart in tokens", want: "100 7\n", got: "1 00 7\n", says: "a word is torn apart", more: Evidence{Settings: tokens}},
		{name: "spaces and a wrong value", want: "1 2\n3\n", got: "1  2\n4\n"},
		{name: "letter case", want: "Yes\nno\n", got: "YES\nno\n", says: "only letter case differs"},
		{name: "letter case and a wrong value", want: "Yes\n1\n", got: "YES\n2\n"},
		{name: "letter case and spacing", want: "Yes\nno\n", got: "YES no\n"},
		{name: "letter case that does not count", want: "Yes\n1\n", got: "YES\n2\n", more: Evidence{Settings: Settings{IgnoreCase: true}}},
		{name: "order", want: "crate\nsledge\n", got: "sledge\ncrate\n", says: "the same lines in another order"},
		{name: "order with one line twice", want: "a\nb\n", got: "b\nb\n"},
		{name: "order of two words", want: "a b\n", got: "b a\n"},
		{name: "order of several words", want: "3 1 2\n", got: "1 2 3\n", says: "the same words in another order"},
		{name: "order of tokens", want: "a b\nc\n", got: "c\na b\n", says: "the same lines in another order", more: Evidence{Settings: tokens}},
		{name: "an integer as a real", want: "12\n3\n", got: "12.0\n3\n", says: "an integer was printed as a real (12.0 for 12)"},
		{name: "a real as an integer", want: "12.0\n", got: "12\n", says: "a real was printed as an integer (12 for 12.0)"},
		{name: "an exponent", want: "1000000\n", got: "1e+06\n", says: "a number was printed with an exponent (1e+06 for 1000000)"},
		{name: "an exponent that is off", want: "1234567\n", got: "1.23457e+06\n"},
		{name: "some as reals, some as integers", want: "12\n3.0\n", got: "12.0\n3\n"},
		{name: "another integer", want: "12\n", got: "12.5\n"},
		{name: "close", want: "0.33333333\n", got: "0.333333\n", says: "equal within 1e-6"},
		{name: "close to an integer", want: "2\n", got: "2.0000001\n"},
		{name: "close and one wrong", want: "0.33333333\n1.5\n", got: "0.333333\n1.6\n"},
		{name: "digits too few", want: "0.33333333\n0.66666667\n", got: "0.33\n0.67\n", says: "right but rounded to 2 decimals (0.33 for 0.33333333): print more digits"},
		{name: "digits too few within a tolerance", want: "0.33333333\n5.25\n", got: "0.33\n5.25\n", says: "rounded to 2 decimals", more: Evidence{Settings: numbers}},
		{name: "digits cut off", want: "0.66666667\n1.5\n", got: "0.66\n1.50\n"},
		{name: "all digits cut off alike", want: "0.666666\n1.555555\n", got: "0.66\n1.55\n", says: "cut off after 2 decimals"},
		{name: "whole numbers", want: "2.25\n7.625\n", got: "2\n8\n", says: "rounded to whole ones"},
		{name: "integer division", want: "2.75\n7.125\n", got: "2\n7\n", says: "the fraction is lost (2 for 2.75)"},
		{name: "too few digits of something else", want: "0.33333333\n", got: "0.34\n"},
		{name: "32 bits, signed", want: "3000000000\n", got: "-1294967296\n", says: "wrapped to 32 bits"},
		{name: "32 bits, unsigned", want: "5000000000\n7\n", got: "705032704\n7\n", says: "wrapped to 32 bits"},
		{name: "32 bits, below zero", want: "-3000000000\n", got: "1294967296\n", says: "wrapped to 32 bits"},
		{name: "a value that fits", want: "7\n", got: "-7\n"},
		{name: "wrapped beside wrong", want: "3000000000\n7\n", got: "-1294967296\n8\n"},
		{name: "None", want: "3\n", got: "None\n", says: "the output says None: a function returned nothing"},
		{name: "None below the answer", want: "3\n", got: "3\nNone\n", says: "a line too much says None"},
		{name: "undefined here and there", want: "3\n4\n", got: "undefined\n4\n", says: "the output says undefined"},
		{name: "None beside a wrong value", want: "3\n4\n", got: "None\n5\n"},
		{name: "None that is asked for", want: "None\n3\n", got: "None\n4\n"},
		{name: "nothing", want: "3\n", got: "\n", says: "nothing was printed"},
		{name: "nothing where nothing is asked for", want: "\n", got: ""},
		{name: "to standard error", want: "3\n", got: "", says: "written to standard error", more: Evidence{Errors: "3\n"}},
		{name: "something else to standard error", want: "3\n", got: "", says: "nothing was printed", more: Evidence{Errors: "warming up\n"}},
		{name: "last line", want: "1\n2\n3\n", got: "1\n2\n", says: "the last line is missing"},
		{name: "last line and a wrong one", want: "1\n2\n3\n", got: "1\n4\n"},
		{name: "two lines", want: "1\n2\n3\n", got: "1\n"},
		{name: "debug lines", want: "3\n4\n", got: "n = 2\n3\nw: [1, 2]\n4\n", says: "look like debug output (\"n = 2\")"},
		{name: "debug lines and a wrong value", want: "3\n4\n", got: "n = 2\n3\n5\n"},
		{name: "a prompt", want: "3\n", got: "How many crates: 3\n", says: "words before the answers (\"How many crates: \")"},
		{name: "another answer too many", want: "3\n", got: "3\n4\n"},
		{name: "one more each", want: "3\n4\n9\n", got: "4\n5\n10\n", says: "off by the same amount (+1)"},
		{name: "one less each", want: "3 4\n9\n", got: "1 2\n7\n", says: "off by the same amount (-2)"},
		{name: "one answer, one more", want: "3\n", got: "4\n"},
		{name: "one more sometimes", want: "3\n4\n9\n", got: "4\n4\n10\n"},
		{name: "left over", want: "1\n2\n3\n4\n", got: "1\n2\n5\n9\n", says: "right up to case 2 of 4", more: Evidence{Input: four}},
		{name: "left over, two lines a case", want: "1\n2\n3\n4\n5\n6\n", got: "1\n2\n3\n5\n6\n8\n", says: "right up to case 1 of 3", more: Evidence{Input: "3\n1\n2\n3\n"}},
		{name: "left over where there are no cases", want: "1\n2\n3\n4\n", got: "1\n2\n5\n9\n", more: Evidence{Input: "8 8\n"}},
		{name: "wrong here and there", want: "1\n2\n3\n4\n", got: "1\n5\n3\n9\n", more: Evidence{Input: four}},
		{name: "wrong from the start", want: "1\n2\n3\n4\n", got: "4\n9\n1\n7\n", more: Evidence{Input: four}},
		{name: "simply wrong", want: "12\n", got: "17\n"},
	}
	for _, tt := range tests {
		t.Run(tt.name, func(t *testing.T) {
			e := tt.more
			e.Verdict, e.Expected, e.Got, e.Whole = verdict.WrongAnswer, tt.want, tt.got, true
			said := Hints(e)
			if tt.says == "" {
				assert.Empty(t, said)
				return
			}
			assert.Len(t, said, 1)
			assert.Contains(t, strings.Join(said, "\n"), tt.says)
			e.Whole = false
			assert.Empty(t, Hints(e), "texts that were cut prove nothing")
		})
	}
}

func TestWhatTheLanguageSaysComesFirst(t *testing.T) {
	said := Hints(Evidence{Verdict: verdict.RuntimeError, Explained: []string{"one", "two", "three"}})
	assert.Equal(t, []string{"one", "two"}, said)
}

func TestAProgramThatWaitsIsTold(t *testing.T) {
	said := Hints(Evidence{Verdict: verdict.Stalled, Waits: true})
	assert.Len(t, said, 1)
	assert.Contains(t, said[0], "waits for input that will not come")
	assert.Empty(t, Hints(Evidence{Verdict: verdict.Stalled}), "it may do something else")
}

func TestTheAnswerIsFoundInAFileOfMany(t *testing.T) {
	for _, tt := range []struct {
		name        string
		input       string
		lines, line int
		want        verdict.Answer // none: the zero value
	}{
		{"a line each", "3\n1 2\n3 4\n5 6\n", 3, 2, verdict.Answer{Number: 2, Of: 3, FirstLine: 3, LastLine: 3}},
		{"two lines each", "2\n2\n1 2\n2\n3 4\n", 2, 2, verdict.Answer{Number: 2, Of: 2, FirstLine: 4, LastLine: 5}},
		{"two lines of output each", "2\nab\ncd\n", 4, 3, verdict.Answer{Number: 2, Of: 2, FirstLine: 3, LastLine: 3}},
		{"a count of lines", "3\n1\n7\n3\n1\n2\n3\n0\n", 3, 2, verdict.Answer{Number: 2, Of: 3, FirstLine: 4, LastLine: 7}},
		{"a count behind another number", "2\n9 1\na b\n9 2\nc d\ne f\n", 2, 2, verdict.Answer{Number: 2, Of: 2, FirstLine: 4, LastLine: 6}},
		{"a count of lines, where as many each would fit too", "5\n0\n2\n7\n7\n1\n7\n0\n2\n7\n7\n", 5, 2, verdict.Answer{Number: 2, Of: 5, FirstLine: 3, LastLine: 5}},
		{"layouts that do not agree", "2\n0\n2\n7\n7\n", 2, 1, verdict.Answer{Number: 1, Of: 2}},
		{"a layout nobody knows", "2\n4\n1\n2\n3\n5 5\n", 2, 1, verdict.Answer{Number: 1, Of: 2}},
		{"more than a count", "3 4\n1\n2\n3\n", 3, 2, verdict.Answer{}},
		{"fewer answers", "3\n1\n2\n3\n", 2, 2, verdict.Answer{}},
		{"one case", "1\n5\n", 1, 1, verdict.Answer{}},
		{"beyond the end", "2\n5\n6\n", 2, 3, verdict.Answer{}},
	} {
		got, ok := Locate([]byte(tt.input), true, tt.lines, tt.line)
		assert.Equal(t, tt.want, got, tt.name)
		assert.Equal(t, tt.want != verdict.Answer{}, ok, tt.name)
		part, _ := Locate([]byte(tt.input), false, tt.lines, tt.line)
		assert.Zero(t, part.FirstLine, "%s: of an input that was cut", tt.name)
	}
}

func TestHintsOnValuesSpeakOnlyOfTheWhole(t *testing.T) {
	for _, tt := range []struct {
		name          string
		expected, got []string
		want          string // "": silence
	}{
		{"wrapped to 32 bits", []string{"3000000000"}, []string{"-1294967296"}, "wrapped to 32 bits"},
		{"one of them wrapped", []string{"3000000000", "5"}, []string{"-1294967296", "5"}, "wrapped to 32 bits"},
		{"off by the same", []string{"3", "7", "9"}, []string{"4", "8", "10"}, "off by"},
		{"off by the same but for one", []string{"3", "7", "9"}, []string{"4", "8", "9"}, ""},
		{"another order", []string{"a", "b", "c"}, []string{"c", "a", "b"}, "the same values in another order"},
		{"another order and one more", []string{"a", "b"}, []string{"b", "a", "c"}, ""},
		{"letter case", []string{"Ice", "b"}, []string{"ice", "B"}, "only letter case differs"},
		{"put together in another way", []string{"1", "2", "3"}, []string{"1", "2", "3"}, "put together in another way"},
		{"plainly wrong", []string{"5"}, []string{"7"}, ""},
	} {
		said := strings.Join(ValueHints(tt.expected, tt.got), "\n")
		if tt.want == "" {
			assert.Empty(t, said, tt.name)
			continue
		}
		assert.Contains(t, said, tt.want, tt.name)
	}
}

func TestAValueIsShownAroundItsDifference(t *testing.T) {
	e := OneLine("[1, 2, 3]", 4)
	assert.Equal(t, verdict.Excerpt{Lines: []string{"[1, 2, 3]"}, Starts: []int{0}, Column: 5, AtStart: true, AtEnd: true}, e)
	long := "[" + strings.Repeat("1234567, ", 1000) + "8]"
	e = OneLine(long, len(long)-2)
	assert.Less(t, len(e.Lines[0]), 300)
	assert.Contains(t, e.Lines[0], "8]")
	assert.Equal(t, len(long)-1, e.Column)
}
