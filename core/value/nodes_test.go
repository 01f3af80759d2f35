package value

import (
	"math/big"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestTypesOfNodesAreReadAndWritten(t *testing.T) {
	for _, text := range []string{"list(int)", "list2(text)", "tree(long)[]", "nary(real)?", "graph(int)", "any", "any[]", "list(int)[][]"} {
		assert.Equal(t, text, typed(t, text).String())
	}
	assert.Equal(t, "list(int)", typed(t, " list( int ) ").String())
	element, depth := typed(t, "tree(int)[][]").Element()
	assert.Equal(t, Tree, element.Kind)
	assert.Equal(t, 2, depth)
	assert.True(t, element.Kind.IsNodes())
	assert.Equal(t, "tree", element.Kind.Word())
	assert.Empty(t, Any.Word())
	assert.False(t, Any.IsNodes())
	for text, says := range map[string]string{
		"list": "is no type", "list(": "has no ) behind", "list(int[])": "nodes hold single values", "list(any)": "nodes hold single values", "tree(list(int))": "nodes hold single values",
		"list(number)": `"number" is no type`, "list(int)x": "behind list(int) there can be [] or ?", "map(text)": "is no type", "list(int)]": "is no type",
	} {
		_, err := ParseType(text)
		assert.ErrorContains(t, err, says, text)
	}
}

func TestNodesAreReadAsCasesWriteThem(t *testing.T) {
	for _, tt := range []struct{ kind, text, want string }{
		{"list(int)", "[3, 9]", "[3, 9]"}, {"list(int)", "[]", "[]"}, {"list(int)", "null", "[]"}, {"list(text)", `["a"]`, `["a"]`},
		{"list(int)", `{"list": [3, 2], "cycle": 0}`, `{"list": [3, 2], "cycle": 0}`}, {"list(int)", `{"cycle": 1, "list": [3, 2]}`, `{"list": [3, 2], "cycle": 1}`},
		{"list(int)", `{"list": [3, 2], "cycle": -1}`, "[3, 2]"},
		{"tree(int)", "[3, 9, 20, null, null, 15, 7]", "[3, 9, 20, null, null, 15, 7]"}, {"tree(int)", "[3, null, 4, null, null]", "[3, null, 4]"}, {"tree(int)", "[]", "[]"}, {"tree(int)", "[null]", "[]"},
		{"nary(int)", "[1, null, 3, 2, 4, null, 5, 6]", "[1, null, 3, 2, 4, null, 5, 6]"}, {"nary(int)", "[1, null]", "[1]"}, {"nary(int)", "[1, null, 2, null, 3, null, 4]", "[1, null, 2, null, 3, null, 4]"},
		{"graph(int)", "[[2], [1]]", "[[2], [1]]"}, {"graph(int)", "[[]]", "[[]]"}, {"list(int)[]", "[[1], [], [2, 3]]", "[[1], [], [2, 3]]"},
	} {
		v, err := Read(tt.text, typed(t, tt.kind))
		require.NoError(t, err, "%s %s", tt.kind, tt.text)
		assert.Equal(t, tt.want, Write(v), "%s %s", tt.kind, tt.text)
	}
	for _, tt := range []struct{ kind, text, says string }{
		{"list(int)", "3", "expected a list(int), written as an array; found 3"}, {"list(int)", "[null]", "[0]: expected an int, found null"}, {"list(int)", "[3, 2.5]", "[1]: expected an int, found the real 2.5"},
		{"list(int)", `{"list": [3, 2], "cycle": 2}`, "there is no node 2, counted from 0, to lead back to"}, {"list(int)", `{"list": [3, 2]}`, "a list that goes in a circle is written"},
		{"list(int)", `{"list": [3, 2], "cycle": 0, "x": 1}`, "a list that goes in a circle is written"}, {"list(int)", `{"list": [3 2]}`, "list: expected , or ]"},
		{"tree(int)", "[null, 3]", "has no parent"}, {"tree(int)", "[1, null, null, 4]", "the value 3, counted from 0, has no parent"}, {"tree(int)", `{"list": []}`, "written as an array"},
		{"nary(int)", "[1, 2]", "behind the root stands null"}, {"nary(int)", "[null, 2]", "behind the root stands null"}, {"nary(int)", "[1, null, null, null, 2]", "is behind the children of no node"},
		{"graph(int)", "[[2]]", "node 1 has the neighbour 2; there are 1 to 1"}, {"graph(int)", "[[0]]", "has the neighbour 0"}, {"graph(int)", "[1]", "expected an int[], found 1"},
	} {
		_, err := Read(tt.text, typed(t, tt.kind))
		assert.ErrorContains(t, err, tt.says, "%s %s", tt.kind, tt.text)
	}
}

func TestAnyValueIsRead(t *testing.T) {
	text := `{"tern": [1, -2.5, {"at": null}], "skua": true, "ü": "a\"b", "big": 123456789012345678901234567890, "none": {}, "empty": []}`
	v, err := Read(text, Type{Kind: Any})
	require.NoError(t, err)
	assert.Equal(t, text, Write(v))
	o := v.(Object)
	big_, ok := o.Get("big")
	require.True(t, ok)
	assert.IsType(t, &big.Int{}, big_)
	_, ok = o.Get("gull")
	assert.False(t, ok)
	again, err := Read(string(Append(nil, v, false)), Type{Kind: Any})
	require.NoError(t, err)
	assert.Nil(t, Comparison{}.Compare(v, again))
	assert.Equal(t, v, Plain(v))
	for text, says := range map[string]string{
		"": "expected a value, found the end", "tern": "expected a value, found tern", `{"a" 1}`: `expected : behind "a"`, `{a: 1}`: "expected a name in quotes", `{"a": 1, "a": 2}`: "comes a second time",
		`{"a": [1, }`: "a[1]: expected a value", `{"a": 1 "b": 2}`: "expected , or }", "[1] 2": "expected the end",
	} {
		_, err := Read(text, Type{Kind: Any})
		assert.ErrorContains(t, err, says, text)
	}
	deep := ""
	for range 1200 {
		deep += `{"a":`
	}
	_, err = Read(deep, Type{Kind: Any})
	assert.ErrorContains(t, err, "nested too deeply")
}

func TestObjectsAreComparedByTheirNames(t *testing.T) {
	read := func(text string) any {
		v, err := Read(text, Type{Kind: Any})
		require.NoError(t, err)
		return v
	}
	near := Comparison{Absolute: 1e-6}
	for _, tt := range []struct {
		how            Comparison
		expected, got  string
		path, want, is string
	}{
		{Comparison{}, `{"a": 1, "b": 2}`, `{"b": 2, "a": 1}`, "", "", ""},
		{Comparison{}, `{"a": 1, "b": [1, 2]}`, `{"a": 1, "b": [1, 3]}`, "b[1]", "2", "3"},
		{Comparison{}, `{"a": 1}`, `{}`, "a", "1", ""},
		{Comparison{}, `{}`, `{"a": 1}`, "a", "", "1"},
		{Comparison{}, `[1, 2]`, `{"list": [1, 2], "cycle": 0}`, "", "[1, 2]", `{"list": [1, 2], "cycle": 0}`},
		{Comparison{}, "1", "1.0", "", "1", "1.0"},
		{near, "1", "1.0", "", "", ""},
		{near, "1.0000001", "1", "", "", ""},
		{near, "1.5", "1", "", "1.5", "1"},
		{Comparison{AnyOrder: OuterAnyOrder}, `[{"a": 1}, {"b": 2}]`, `[{"b": 2}, {"a": 1}]`, "", "", ""},
	} {
		d := tt.how.Compare(read(tt.expected), read(tt.got))
		if tt.want == "" && tt.is == "" {
			assert.Nil(t, d, "%s %s", tt.expected, tt.got)
			continue
		}
		require.NotNil(t, d, "%s %s", tt.expected, tt.got)
		assert.Equal(t, tt.path, PathText(d.Path))
		assert.Equal(t, tt.want, d.Expected)
		assert.Equal(t, tt.is, d.Got)
	}
	text, at := Marked(read(`{"a": [1, 2]}`), []any{".a", 1})
	assert.Equal(t, "2]}", text[at:])
}

func TestIntegersOfNodesAreWidenedForLanguagesThatHoldFewer(t *testing.T) {
	v, err := Read("[1, 9007199254740993]", typed(t, "list(long)"))
	require.NoError(t, err)
	assert.Equal(t, []any{int64(1), "9007199254740993"}, Widened(v, typed(t, "list(long)")))
	v, err = Read("[[7]]", typed(t, "list(bigint)[]"))
	require.NoError(t, err)
	assert.Equal(t, []any{[]any{"7"}}, Widened(v, typed(t, "list(bigint)[]")))
}
