package steps

import (
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// spoken is what a recorder says of f(2) = 2 + f(1), called by main.
const spoken = `V 0 n	2
S 7 0 main
V 1 x	2
S 2 1 f
S 3 1 f
V 2 x	1
S 2 2 f
R 2 1
V 1 y	3
G total	9
S 4 1 f
O 3\n
R 1 3
V 0 n	5
S 8 0 main
X 8 0 end
`

func heard(t *testing.T, text string) *Recording {
	t.Helper()
	told := &teller{depth: -1}
	_, err := told.Write([]byte(text))
	require.NoError(t, err)
	return told.recording()
}

func TestAStateIsWhatTheStepsBeforeItMade(t *testing.T) {
	r := heard(t, spoken)
	require.Len(t, r.Steps, 6)
	s := r.At(3)
	require.Len(t, s.Calls, 3)
	assert.Equal(t, []Variable{{"n", "2", false}}, s.Calls[0].Variables, "its line has not come to its end")
	assert.Equal(t, 7, s.Calls[0].Line)
	assert.Equal(t, []Variable{{"x", "1", true}}, s.Calls[2].Variables)
	assert.Empty(t, s.Output)
	s = r.At(4)
	require.Len(t, s.Calls, 2)
	assert.Equal(t, []Variable{{"x", "2", false}, {"y", "3", false}}, s.Calls[1].Variables)
	assert.Equal(t, []Variable{{"total", "9", false}}, s.Globals)
	assert.Equal(t, "3\n", s.Output)
	assert.Equal(t, State{}, r.At(9))
	assert.Equal(t, State{}, r.At(-1))
}

func TestStepsAreFoundByWhatTheyDo(t *testing.T) {
	r := heard(t, spoken)
	assert.Equal(t, 2, r.Next(0, Changes("y")))
	assert.Equal(t, 5, r.Next(5, Changes("y")), "there is none")
	assert.Equal(t, 2, r.Previous(5, Changes("y")))
	assert.Equal(t, 0, r.Previous(2, Changes("n")))
	assert.Equal(t, 4, r.Next(0, r.Prints()))
	assert.Equal(t, []string{"n", "x", "y", "total"}, r.Names())
}

func TestTheTreeOfCallsSaysWhoCalledWhom(t *testing.T) {
	write := func(roots []*CallNode) string {
		var out strings.Builder
		var one func(n *CallNode, deep int)
		one = func(n *CallNode, deep int) {
			fmt.Fprintf(&out, "%s%s%v %d to %d", strings.Repeat("  ", deep), n.Function, n.Arguments, n.First, n.Last)
			if n.Returned != "" {
				out.WriteString(" = " + n.Returned)
			}
			if n.Error != "" {
				out.WriteString(" ! " + n.Error)
			}
			out.WriteString("\n")
			for _, c := range n.Calls {
				one(c, deep+1)
			}
		}
		for _, n := range roots {
			one(n, 0)
		}
		return out.String()
	}
	r := heard(t, spoken)
	assert.Equal(t, "main[{n 2 false 1}] 0 to 5 ! end\n  f[{x 2 false 2}] 1 to 4 = 3\n    f[{x 1 false 4}] 3 to 3 = 1\n", write(r.CallTree()))
	twice := heard(t, "S 1 0 main\nS 2 1 f\nR 1 \nS 2 1 f\nR 1 \nS 3 0 main\n")
	assert.Equal(t, "main[] 0 to 3\n  f[] 1 to 1\n  f[] 2 to 2\n", write(twice.CallTree()))
	r.Steps = r.Steps[3:] // the beginning was not kept
	assert.Equal(t, "f[{x 1 false 4}] 0 to 0 = 1\nf[] 1 to 1 = 3\nmain[] 2 to 2 ! end\n", write(r.CallTree()))
	assert.Empty(t, (&Recording{}).CallTree())
}

func TestValuesThatLeapAreDoubted(t *testing.T) {
	for _, row := range []struct{ language, before, now, want string }{
		{"go", "2147483600", "-2147483000", "went from 2147483600 to -2147483000, as 32 bits with a sign do at their end"},
		{"rust", "-9223372036854775000", "9223372036854775807", "as 64 bits with a sign do"},
		{"c", "32767", "-32768", "as 16 bits with a sign do"},
		{"cpp", "3", "4294967295", "went from 3 to 4294967295, as 32 bits without a sign do below 0"},
		{"cpp", "0", "18446744073709551615", "as 64 bits without a sign do below 0"},
		{"go", "5", "-5", ""},
		{"go", "1000000", "-1000000", ""},
		{"go", "2147483647", "2147483648", ""},
		{"python", "2147483647", "-2147483648", ""},
		{"javascript", "9007199254740991", "9007199254740993", "is past 2^53"},
		{"python", "9007199254740991.0", "1.8e+16", "is past 2^53"},
		{"python", "9007199254740991", "18014398509481984", ""},
		{"cpp", "1.0", "inf", ""},
	} {
		r := &Recording{Language: row.language, Steps: []Step{{Changes: []Change{{Name: "x", Value: row.before}}}, {Changes: []Change{{Name: "x", Value: row.now}}}}}
		r.doubt()
		if row.want == "" {
			assert.Empty(t, r.Steps[1].Warning, row)
		} else {
			assert.Contains(t, r.Steps[1].Warning, row.want, row)
		}
	}
	r := &Recording{Language: "go", Steps: []Step{{Changes: []Change{{Name: "x", Value: "32767"}}}, {Changes: []Change{{Name: "x", Value: "-32768"}}, Warning: "said"}}}
	r.doubt()
	assert.Equal(t, "said", r.Steps[1].Warning, "what is known is not guessed")
}
