package problem

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestExamplesAsStatementsPrintThemBecomeCases(t *testing.T) {
	for _, tt := range []struct{ signature, input, output, wantIn, wantOut string }{
		{"f(nums: int[], target: int) -> int[]", "nums = [3,3], target = 6\n", "[0,1]\n", "nums: [3,3]\ntarget: 6\n", "[0,1]\n"},
		{"f(nums: int[], target: int) -> int[]", "Input: nums = [3,3], target = 6", "Output: [0, 1]", "nums: [3,3]\ntarget: 6\n", "[0, 1]\n"},
		{"f(nums: int[], target: int) -> int[]", "[3,3]\n6\n", "{0, 1}", "nums: [3,3]\ntarget: 6\n", "[0, 1]\n"},
		{"f(nums: int[], target: int) -> int[]", "[3,3], 6\n", "[0,1]\n", "nums: [3,3]\ntarget: 6\n", "[0,1]\n"},
		{"f(the_days: int[], most: int) -> bool", "theDays = [1], most = 2\n", "True\n", "the_days: [1]\nmost: 2\n", "true\n"},
		{"f(a: int[], b: int) -> bool", "days = [1], limit = 2\n", "False\n", "a: [1]\nb: 2\n", "false\n"},
		{"f(s: text) -> text", "s = \"ice, snow\"\n", "snow\n", "s = \"ice, snow\"\n", "\"snow\"\n"},
		{"f(s: text) -> text", "ice and snow\n", "'snow'\n", "s: \"ice and snow\"\n", "\"snow\"\n"},
		{"f(s: text, t: char) -> int", "s = 'ice', t = 'c'\n", "1\n", "s: \"ice\"\nt: \"c\"\n", "1\n"},
		{"f(words: text[]) -> text[]", "words = [ice, 'snow', \"fog\"]\n", "[]\n", "words: [\"ice\", \"snow\", \"fog\"]\n", "[]\n"},
		{"f(root: tree(int)) -> int?", "root = [3,9,None,4]\n", "None\n", "root: [3,9,null,4]\n", "null\n"},
		{"f(rows: int[][]) -> int", "rows = {{1,2},{3}}\n", "6\n", "rows: [[1,2],[3]]\n", "6\n"},
		{"f(nums: int[], target: int) -> int[]", "nums: [3]\ntarget: 6\n", "[0]\n", "nums: [3]\ntarget: 6\n", "[0]\n"},
	} {
		call, err := ParseCall(tt.signature)
		require.NoError(t, err)
		p := &Problem{Call: call}
		c, err := p.WithCalls(NewCase{Input: []byte(tt.input), Output: []byte(tt.output)})
		require.NoError(t, err, tt.input)
		assert.Equal(t, tt.wantIn, string(c.Input))
		assert.Equal(t, tt.wantOut, string(c.Output))
	}
	for _, tt := range []struct{ signature, input, output, says string }{
		{"f(nums: int[], target: int) -> int[]", "[3,3],\n", "[1]\n", "1 value given, and it takes 2"},
		{"f(nums: int[], target: int) -> int[]", "nums = [3,3], 6\n", "[1]\n", "some values have names, and others have none"},
		{"f(nums: int[], target: int) -> int[]", "nums = [3], goal = 6\n", "[1]\n", "no argument is called goal"},
		{"f(nums: int[], target: int) -> int[]", "nums = [a], target = 6\n", "[1]\n", "these arguments are not those of f(nums: int[], target: int) -> int[]"},
	} {
		call, err := ParseCall(tt.signature)
		require.NoError(t, err)
		_, err = (&Problem{Call: call}).WithCalls(NewCase{Input: []byte(tt.input), Output: []byte(tt.output)})
		assert.ErrorContains(t, err, tt.says, tt.input)
	}
}
