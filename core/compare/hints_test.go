package compare

import (
	"strings"
	"testing"

	"coldverdict/core/verdict"

	"github.com/stretchr/testify/assert"
)

func TestAHintIsGivenOnlyWhenItExplainsTheWholeFailure(t *testing.T) {
	tests := []struct {
		name      string
		want, got string
		says      string // a part of the only hint; empty: silence
	}{
		{"spaces", "1 2\n3\n", "1  2\n3\n", "only spacing differs"},
		{"one line for two", "1\n2\n", "1 2\n", "only spacing differs"},
		{"run together", "10\n20\n30\n", "102030", "answers run together"},
		{"torn apart", "100\n", "1 00\n", "a word is torn apart"},
		{"spaces and a wrong value", "1 2\n3\n", "1  2\n4\n", ""},
		{"letter case", "Yes\nno\n", "YES\nno\n", "only letter case differs"},
		{"letter case and a wrong value", "Yes\n1\n", "YES\n2\n", ""},
		{"order", "crate\nsledge\n", "sledge\ncrate\n", "the same lines in another order"},
		{"order of words in a line", "a b\n", "b a\n", ""},
		{"an integer as a real", "12\n3\n", "12.0\n3\n", "an integer was printed as a real (12.0 for 12)"},
		{"a real as an integer", "12.0\n", "12\n", "a real was printed as an integer (12 for 12.0)"},
		{"a rounded integer", "12\n", "12.5\n", ""},
		{"digits too few", "0.33333333\n", "0.333333\n", "equal within 1e-6"},
		{"digits far too few", "0.33333333\n", "0.33\n", ""},
		{"32 bits, signed", "3000000000\n", "-1294967296\n", "wrapped to 32 bits"},
		{"32 bits, unsigned", "5000000000\n7\n", "705032704\n7\n", "wrapped to 32 bits"},
		{"a value that fits", "7\n", "-7\n", ""},
		{"wrapped beside wrong", "3000000000\n7\n", "-1294967296\n8\n", ""},
		{"None", "3\n", "None\n", "the output says None"},
		{"None that is asked for", "None\n3\n", "None\n4\n", ""},
		{"nothing", "3\n", "\n", "nothing was printed"},
		{"last line", "1\n2\n3\n", "1\n2\n", "the last line is missing"},
		{"two lines", "1\n2\n3\n", "1\n", ""},
		{"debug lines", "3\n4\n", "n = 2\n3\nw: [1, 2]\n4\n", "look like debug output (\"n = 2\")"},
		{"another answer too many", "3\n", "3\n4\n", ""},
		{"one more each", "3\n4\n9\n", "4\n5\n10\n", "off by the same amount (+1)"},
		{"one answer, one more", "3\n", "4\n", ""},
		{"one more sometimes", "3\n4\n9\n", "4\n4\n10\n", ""},
		{"left over", "1\n2\n3\n4\n", "1\n2\n5\n9\n", "right up to answer 2 of 4"},
		{"wrong here and there", "1\n2\n3\n4\n", "1\n5\n3\n9\n", ""},
		{"wrong from the start", "1\n2\n3\n", "4\n9\n1\n", ""},
		{"simply wrong", "12\n", "17\n", ""},
	}
	for _, tt := range tests {
		t.Run(tt.name, func(t *testing.T) {
			said := Hints(Evidence{Verdict: verdict.WrongAnswer, Expected: tt.want, Got: tt.got, Whole: true})
			if tt.says == "" {
				assert.Empty(t, said)
				return
			}
			assert.Len(t, said, 1)
			assert.Contains(t, strings.Join(said, "\n"), tt.says)
			assert.Empty(t, Hints(Evidence{Verdict: verdict.WrongAnswer, Expected: tt.want, Got: tt.got}), "texts that were cut prove nothing")
		})
	}
}

func TestWhatTheLanguageSaysComesFirst(t *testing.T) {
	said := Hints(Evidence{Verdict: verdict.RuntimeError, Explained: []string{"one", "two", "three"}})
	assert.Equal(t, []string{"one", "two"}, said)
}
