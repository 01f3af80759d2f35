package term

import (
	"fmt"
	"strings"
	"testing"

	tea "charm.land/bubbletea/v2"
	"github.com/charmbracelet/x/ansi"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"coldverdict/core/steps"
	"coldverdict/core/verdict"
)

// walked is a recording of f(2), which calls f(1) and prints.
func walked() *steps.Recording {
	r := &steps.Recording{
		Source: []string{"def f(x):", "    if x > 1:", "        y = f(x - 1)", "    return x", "", "n = 2", "print(f(n))"}, Total: 6, Output: []byte("2\n"),
		Steps: []steps.Step{
			{Number: 1, Line: 6, Function: "main", Begins: true, Changes: []steps.Change{{Name: "n", Value: "2", At: 1}}},
			{Number: 2, Line: 7, Function: "main", Output: "2\n", OutputAt: 6},
			{Number: 3, Line: 2, Depth: 1, Function: "f", Begins: true, Arguments: 1, Changes: []steps.Change{{Name: "x", Value: "2", At: 3}}},
			{Number: 4, Line: 3, Depth: 1, Function: "f", Changes: []steps.Change{{Name: "y", Value: "1", At: 6}}},
			{Number: 5, Line: 4, Depth: 2, Function: "f", Begins: true, Arguments: 1, Changes: []steps.Change{{Name: "x", Value: "1\x1b[31m", At: 5}}, Returned: "1"},
			{Number: 6, Line: 4, Depth: 1, Function: "f", Returned: "2", Warning: "it may have wrapped"},
		},
	}
	return r
}

func TestKeysWalkThroughTheSteps(t *testing.T) {
	for _, row := range []struct {
		keys string // from the last step
		want int    // number of the step
	}{
		{"", 6}, {"left", 5}, {"left left right", 5}, {"home", 1}, {"home left", 1}, {"right", 6}, {"home down down", 2}, {"home right right down down", 6}, {"up", 4}, {"home o", 6}, {"home w", 6},
		{"home v", 1}, {"home tab v", 3}, {"home tab v v", 5}, {"tab V", 5}, {"home tab tab shift+tab v", 3}, {"home 4 enter", 5}, {"home 4 enter enter", 5}, {"home 9 9 enter", 1}, {"home 4 9 backspace enter", 5}, {"home 4 right enter", 2}, {"home x", 1},
	} {
		w := newWalker("", walked(), verdict.Outcome{})
		for _, key := range strings.Fields(row.keys) {
			assert.False(t, w.key(key), key)
		}
		assert.Equal(t, row.want, w.r.Steps[w.at].Number, row.keys)
	}
	w := newWalker("", walked(), verdict.Outcome{})
	for _, key := range []string{"q", "esc", "ctrl+c"} {
		assert.True(t, w.key(key))
	}
	empty := newWalker("", &steps.Recording{}, verdict.Outcome{})
	for _, key := range []string{"right", "left", "up", "down", "v", "tab", "o", "end", "home", "c", "1", "enter"} {
		empty.key(key)
	}
	assert.Contains(t, strings.Join(empty.lines(), "\n"), "nothing was recorded")
}

func TestAWalkShowsTheSourceTheCallsAndTheOutput(t *testing.T) {
	w := newWalker("f.py on samples/1", walked(), verdict.Outcome{Ran: true, Verdict: verdict.WrongAnswer})
	w.Update(tea.WindowSizeMsg{Width: 80, Height: 24})
	w.Update(tea.KeyPressMsg{Code: tea.KeyLeft})
	text := ansi.Strip(w.View().Content)
	lines := strings.Split(text, "\n")
	require.LessOrEqual(t, len(lines), 24)
	for _, line := range lines {
		assert.LessOrEqual(t, ansi.StringWidth(line), 80, line)
	}
	assert.Contains(t, lines[0], "f.py on samples/1: wrong answer")
	assert.Contains(t, lines[1], "step 5 of 6, line 4")
	assert.Contains(t, text, "▶ 4      return x")
	assert.Contains(t, text, "· 3          y = f(x - 1)", "the call goes out from there")
	assert.Contains(t, text, "│ returns 1")
	assert.Regexp(t, `(?s)│ f, line 4.*│ • x = 1\\x1b\[31m.*│ f, line 3.*│   x = 2.*│ main, line 7.*│   n = 2`, text)
	assert.NotContains(t, text, "y = 1\n", "its line has not come to its end")
	assert.Contains(t, lines[len(lines)-1], "q leave")
	w.key("right")
	text = ansi.Strip(w.View().Content)
	assert.Contains(t, text, "│ it may have wrapped")
	assert.Contains(t, text, "output so far\n  2")
	w.key("c")
	text = ansi.Strip(w.View().Content)
	assert.Regexp(t, `(?s)│   main\(\).*│ ▶   f\(x = 2\) = 2.*│       f\(x = 1`, text)
	w.key("4")
	assert.Contains(t, ansi.Strip(w.View().Content), "to line 4  ⏎ goes there")
}

func TestManyCallsAreShortened(t *testing.T) {
	root := &steps.CallNode{Function: "main"}
	for i := range 100 {
		root.Calls = append(root.Calls, &steps.CallNode{Function: "f", Arguments: []steps.Change{{Name: "this", Value: "{}"}, {Name: "x", Value: fmt.Sprint(i)}}, Error: "stop"})
	}
	lines := callLines([]*steps.CallNode{root})
	require.Len(t, lines, 41)
	assert.Equal(t, "  f(x = 0): stop", lines[1].text)
	assert.Equal(t, "  61 calls more", lines[40].text)
	deep := &steps.CallNode{Function: "f"}
	for range 5000 {
		deep = &steps.CallNode{Function: "f", Calls: []*steps.CallNode{deep}}
	}
	assert.LessOrEqual(t, len(callLines([]*steps.CallNode{deep})), 2*mostCallLines+1)
}

func TestDeepCallsAreCounted(t *testing.T) {
	r := &steps.Recording{Source: []string{"f()"}, Total: 1000}
	for i := range 1000 {
		r.Steps = append(r.Steps, steps.Step{Number: i + 1, Line: 1, Depth: i, Function: "f", Begins: true})
	}
	w := newWalker("", r, verdict.Outcome{})
	lines := w.variables(r.At(999), 40)
	assert.Less(t, len(lines), 300)
	assert.Contains(t, ansi.Strip(lines[len(lines)-1]), "799 calls further out")
}
