package statement

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"coldverdict/core/problem"
)

func TestASignatureMayBeWrittenInAnyLanguage(t *testing.T) {
	for text, want := range map[string]string{
		"longest_thaw(temps: int[], limit: long) -> int":                              "longest_thaw(temps: int[], limit: long) -> int",
		"public int[] twoWinds(int[] winds, int total) {":                             "twoWinds(winds: int[], total: int) -> int[]",
		"vector<int> twoWinds(vector<int>& winds, int total) {":                       "twoWinds(winds: int[], total: int) -> int[]",
		"std::vector<std::vector<int>> turned(const std::vector<std::string> &grid);": "turned(grid: text[]) -> int[][]",
		"def two_winds(self, winds: List[int], total: int) -> List[int]:":             "two_winds(winds: int[], total: int) -> int[]",
		"def name(a: str, b: Optional[int] = None, c: float = 1.5) -> bool:":          "name(a: text, b: int?, c: real) -> bool",
		"function thaw(temps: number[], name: string): boolean {":                     "thaw(temps: int[], name: text) -> bool",
		"fun thaw(temps: IntArray, names: List<String>): Long":                        "thaw(temps: int[], names: text[]) -> long",
		"func thaw(a, b int, names []string) [][]int {":                               "thaw(a: int, b: int, names: text[]) -> int[][]",
		"pub fn thaw(temps: Vec<i32>, limit: i64) -> Vec<Vec<char>> {":                "thaw(temps: int[], limit: long) -> char[][]",
		"pub fn thaw(&self, head: Option<Box<ListNode>>) -> Option<Box<ListNode>> {":  "thaw(head: list(int)) -> list(int)",
		"public IList<IList<string>> Grouped(string[] names) {":                       "Grouped(names: text[]) -> text[][]",
		"void sortColours(vector<int>& nums)":                                         "sortColours(nums: int[]) -> argument 1",
		"def turn(self, matrix: List[List[int]]) -> None:":                            "turn(matrix: int[][]) -> argument 1",
		"TreeNode* mirrored(TreeNode* root)":                                          "mirrored(root: tree(int)) -> tree(int)",
		"List<List<Integer>> pairs(String s, double k, boolean all, char c, long n)":  "pairs(s: text, k: real, all: bool, c: char, n: long) -> int[][]",
		"long long sum(long long a, unsigned int b)":                                  "sum(a: long, b: int) -> long",
		"char *joined(char **names, char *by)":                                        "joined(names: text[], by: text) -> text",
		"Map<String, Integer> counts(List<String> words)":                             "counts(words: text[]) -> map(text, int)",
		"int now()":                             "now() -> int",
		"f(a: any) -> any":                      "f(a: any) -> any",
		"f(a: int) -> (least: int, mean: real)": "f(a: int) -> (least: int, mean: real)",
		"f(a: list(int)) -> node of argument 1": "f(a: list(int)) -> node of argument 1",
	} {
		is, err := Signature(text)
		require.NoError(t, err, text)
		assert.Equal(t, want, is, text)
		_, err = problem.ParseCall(is)
		assert.NoError(t, err, is)
	}
	for text, says := range map[string]string{
		"two winds": "declares no function", "int f(Widget w)": "the parameter w of f is declared as Widget", "Widget f(int a)": "f is declared to return Widget",
		"f(a, b)": "the parameter b of f has no type", "void f(int a)": "takes nothing that it could change", "int f(int a": "is never closed",
	} {
		_, err := Signature(text)
		assert.ErrorContains(t, err, says, text)
	}
}

func TestASignatureOfAPageIsTaken(t *testing.T) {
	for page, want := range map[string]string{
		"<h1>Two winds</h1><pre>class Solution {\npublic:\n    vector&lt;int&gt; twoWinds(vector&lt;int&gt;&amp; winds, int total) {\n        \n    }\n};</pre>": "twoWinds(winds: int[], total: int) -> int[]",
		"# Two winds\n\n```python\nclass Solution:\n    def two_winds(self, winds: List[int], total: int) -> List[int]:\n```\n":                                  "two_winds(winds: int[], total: int) -> int[]",
		"# A program\n\n```cpp\nint main() {\n    return 0;\n}\n```\n":                                                                                           "",
		"Print f(x) for each x.\n": "",
	} {
		assert.Equal(t, want, Read([]byte(page)).Problems[0].Signature, page)
	}
}
