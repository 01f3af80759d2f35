package picture

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"coldverdict/core/value"
)

// given reads a value of a type, as a case has it.
func given(t *testing.T, kind, text string) (value.Field, any) {
	t.Helper()
	f, err := value.ParseField("x: " + kind)
	require.NoError(t, err)
	args, err := value.ReadCall("x: "+text+"\n", []value.Field{f})
	require.NoError(t, err)
	return f, args[0]
}

func TestWhatAFunctionIsGivenIsDrawn(t *testing.T) {
	for _, row := range []struct {
		kind, text string
		want       Picture
	}{
		{"list(int)", "[3, 9, 4]", Picture{Graph: &Graph{N: 3, Directed: true, Labels: []string{"3", "9", "4"}, Edges: []Edge{{A: 0, B: 1}, {A: 1, B: 2}}}}},
		{"tree(int)", "[5, 2, null, null, 3]", Picture{Graph: &Graph{N: 3, Tree: true, Labels: []string{"5", "2", "3"}, Edges: []Edge{{A: 0, B: 1, Label: "left"}, {A: 1, B: 2, Label: "right"}}}}},
		{"nary(int)", "[1, null, 2, 3]", Picture{Graph: &Graph{N: 3, Tree: true, Labels: []string{"1", "2", "3"}, Edges: []Edge{{A: 0, B: 1}, {A: 0, B: 2}}}}},
		{"graph(int)", "[[2], [1, 3], [2]]", Picture{Graph: &Graph{From: 1, N: 3, Edges: []Edge{{A: 0, B: 1}, {A: 1, B: 2}}}}},
		{"graph(int)", "[[2], [3], [1]]", Picture{Graph: &Graph{From: 1, N: 3, Directed: true, Edges: []Edge{{A: 0, B: 1}, {A: 1, B: 2}, {A: 2, B: 0}}}}},
		{"int[]", "[4, -2]", Picture{Bars: []float64{4, -2}}},
		{"int[][]", "[[1, 0], [0, 1]]", Picture{Grid: []string{"10", "01"}}},
		{"text[]", `["#.", ".#"]`, Picture{Grid: []string{"#.", ".#"}}},
	} {
		f, v := given(t, row.kind, row.text)
		got, left := OfCall([]value.Field{f}, []any{v})
		require.Len(t, got, 1, row.kind)
		row.want.Title = "x"
		assert.Equal(t, row.want, got[0], row.kind)
		assert.Empty(t, left)
	}
}

func TestWhatIsBetterReadIsNotDrawn(t *testing.T) {
	for _, row := range [][2]string{{"int", "4"}, {"list(int)", "[3]"}, {"list(int)", "[]"}, {"tree(int)", "[]"}, {"int[][]", "[[10, 2]]"}, {"text[]", `["ab", "c"]`}, {"bool[]", "[true, false]"}} {
		f, v := given(t, row[0], row[1])
		got, left := OfCall([]value.Field{f}, []any{v})
		assert.Empty(t, got, row)
		assert.Empty(t, left, row)
	}
	long := make([]any, MostVertices+1)
	for i := range long {
		long[i] = int64(i)
	}
	_, why := OfValue(value.Type{Kind: value.List}, long)
	assert.Contains(t, why, "too many to be seen")
}
