package call

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"coldverdict/core/problem"
	"coldverdict/core/value"
)

func TestASequenceIsHandedToDriversWithItsObjectsAndUses(t *testing.T) {
	class, err := problem.ParseClass("Log(room: long); put(n: long, days: int[]); text() -> text; read(from: text)")
	require.NoError(t, err)
	steps, err := class.Steps("a = new(9007199254740993)\nb = new(2)\na.put(3, [1])\nsaid = a.text()\nb.read(said)\nread(\"x\")\n")
	require.NoError(t, err)
	for _, tt := range []struct {
		wide  bool
		wants string
	}{
		{false, `[["new", 0, [9007199254740993], []], ["new", 1, [2], []], ["put", 0, [3, [1]], []], ["text", 0, [], []], ["read", 1, [""], [0, 3]], ["read", 1, ["x"], []]]`},
		{true, `[["new", 0, ["9007199254740993"], []], ["new", 1, [2], []], ["put", 0, [3, [1]], []], ["text", 0, [], []], ["read", 1, [""], [0, 3]], ["read", 1, ["x"], []]]`},
	} {
		assert.Equal(t, tt.wants, value.Write(Sequence(class.Class, steps, tt.wide)))
	}
}

func TestAScriptIsHandedToDriversStepByStep(t *testing.T) {
	function, err := problem.ParseCall("settled(alarm: function, pause: int) -> function")
	require.NoError(t, err)
	args, steps, err := function.Script("pause: 5\nscript: [\"call(1)(2)\", \"at 20: cancel()\", \"expect calls = 1\", \"at 30: expect alarm.last = [2]\"]\n")
	require.NoError(t, err)
	assert.Equal(t, []any{nil, int64(5)}, args)
	assert.Equal(t, `[[-1, "call", "", [[1], [2]]], [20, "call", "cancel", [[]]], [-1, "calls", "alarm", []], [30, "last", "alarm", []]]`, value.Write(Script(steps)))
}

func TestAFieldOfAClassCountsLikeThatOfAFunction(t *testing.T) {
	class, err := problem.ParseClass("Walk(root: tree(int)); next() -> int; rest() -> list(int); add(days: map(text, int))")
	require.NoError(t, err)
	f := &fitting{function: class}
	var kinds []string
	for _, field := range f.fields() {
		kinds = append(kinds, field.Type.String())
	}
	assert.Equal(t, []string{"tree(int)", "int", "list(int)", "map(text, int)"}, kinds)
	var nodes []value.Kind
	for _, n := range f.nodeKinds() {
		nodes = append(nodes, n.Kind)
	}
	assert.Equal(t, []value.Kind{value.Tree, value.List}, nodes)
	assert.Error(t, f.without(value.Map, "C"))
	assert.NoError(t, f.without(value.Any, "C"))
	java := language(t, "java")
	file, source, err := Start(class, java, "walk")
	require.NoError(t, err)
	assert.Equal(t, "Walk.java", file)
	assert.Contains(t, string(source), "public void add(Map<String, Integer> days) {")
	w, _, err := wrap(class, java, "", file, source)
	require.NoError(t, err)
	assert.Contains(t, string(w.Source), "class TreeNode {")
	assert.Contains(t, string(w.Source), "class ListNode {")
}
