package steps

import (
	"context"
	"os"
	"path/filepath"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"coldverdict/core/judge"
	"coldverdict/core/problem"
	"coldverdict/core/toolchain"
	"coldverdict/internal/testenv"
)

// recordIn records a source in a problem with this verdict.toml, which may use the script ask.star.
func recordIn(t *testing.T, rules, name, source, input string) (*Recording, error) {
	t.Helper()
	dir := t.TempDir()
	require.NoError(t, os.WriteFile(filepath.Join(dir, "ask.star"), []byte("def ask(case, k):\n    return k\n"), 0o644))
	require.NoError(t, os.WriteFile(filepath.Join(dir, "verdict.toml"), []byte(rules), 0o644))
	require.NoError(t, os.WriteFile(filepath.Join(dir, name), []byte(source), 0o644))
	languages := toolchain.Ours()
	p, err := problem.Load(dir, problem.Vocabulary{Modes: []string{"lines"}, IsSource: languages.IsSource})
	require.NoError(t, err)
	return Record(context.Background(), p, problem.Solution{File: name}, problem.Data{Text: []byte(input), Size: int64(len(input))}, Options{Env: judge.Env{Languages: languages}, Time: time.Hour})
}

func TestAFunctionIsRecordedAndItsDriverIsNot(t *testing.T) {
	const rules = "[call]\nname = \"lastOf\"\ntakes = [\"first: list(int)\", \"k: int\"]\nreturns = \"int\"\n"
	const input = "first: [4, 7]\nk: 3\n"
	for _, row := range []struct {
		needs, file, source string
		want                []string
	}{
		{"python3", "a.py", "class Solution:\n    def lastOf(self, first, k):\n        while first.next:\n            first = first.next\n        print('aside')\n        return first.val + k\n",
			[]string{"3: self = ", "first = ListNode(val=4, next=ListNode(val=7, next=None)), k = 3", "4: first = ListNode(val=7, next=None)", `5: prints "aside\n"`, "6: returns 10"}},
		{"node", "a.js", "function lastOf(first, k) {\n  while (first.next)\n    first = first.next;\n  return first.val + k;\n}\n", []string{"2: first = {val: 4, next: {val: 7, next: null}}, k = 3", "3: first = {val: 7, next: null}", "4: returns 10"}},
		{"ruby", "a.rb", "def lastOf(first, k)\n  while first.next\n    first = first.next\n  end\n  first.val + k\nend\n", []string{"2: first = ListNode(val: 4, next: ListNode(val: 7, next: nil)), k = 3", "3: first = ListNode(val: 7, next: nil)", "5: returns 10"}},
		{"g++", "a.cpp", "class Solution {\npublic:\n    int lastOf(ListNode *first, int k) {\n        while (first->next)\n            first = first->next;\n        return first->val + k;\n    }\n};\n",
			[]string{"4: first = -> {val: 4, next: -> {val: 7, next: null}}, k = 3", "5: first = -> {val: 7, next: null}", "6: returns 10"}},
		{"javac", "Solution.java", "class Solution {\n    public int lastOf(ListNode first, int k) {\n        while (first.next != null)\n            first = first.next;\n        return first.val + k;\n    }\n}\n",
			[]string{"3: first = {val: 4, next: {val: 7, next: null}}, k = 3", "4: first = {val: 7, next: null}", "5: returns 10"}},
		{"go", "a.go", "package main\n\nfunc lastOf(first *ListNode, k int) int {\n\tfor first.Next != nil {\n\t\tfirst = first.Next\n\t}\n\treturn first.Val + k\n}\n", []string{"first = -> {Val: 4, Next: -> {Val: 7, Next: nil}}, k = 3", "5: first = -> {Val: 7, Next: nil}", "7: returns 10"}},
		{"rustc", "a.rs", "impl Solution {\n    pub fn last_of(first: Option<Box<ListNode>>, k: i32) -> i32 {\n        let mut at = &first;\n        let mut last = 0;\n        while let Some(node) = at {\n            last = node.val;\n            at = &node.next;\n        }\n        last + k\n    }\n}\n",
			[]string{"k = 3", "6: last = 4", "6: last = 7", "returns 10"}},
	} {
		t.Run(row.file, func(t *testing.T) {
			testenv.Need(t, row.needs)
			r, err := recordIn(t, rules, row.file, row.source, input)
			require.NoError(t, err)
			got := strings.Join(told(r.Steps), "\n") + "\n"
			for _, want := range row.want {
				assert.Contains(t, got, want)
			}
			least := 9
			for _, s := range r.Steps {
				least = min(least, s.Depth)
				assert.LessOrEqual(t, s.Line, strings.Count(row.source, "\n"), "what is put behind the source is not told")
			}
			assert.Equal(t, 0, least, "the driver's calls do not count")
			assert.NotContains(t, string(r.Output), "\x00", "a mark of the driver")
		})
	}
}

func TestAFunctionWithoutNodesIsRecordedInLua(t *testing.T) {
	testenv.Need(t, "lua5.4")
	r, err := recordIn(t, "[call]\nname = \"twice\"\ntakes = [\"a: int[]\"]\nreturns = \"int\"\n", "a.lua", "function twice(a)\n  local s = 0\n  for _, x in ipairs(a) do\n    s = s + 2 * x\n  end\n  return s\nend\n", "a: [1, 2]\n")
	require.NoError(t, err)
	got := strings.Join(told(r.Steps), "\n")
	assert.Contains(t, got, "2: a = {1, 2}, s = 0")
	assert.Contains(t, got, "4: s = 6")
}

func TestAProgramThatReadsAndWritesFilesIsRecorded(t *testing.T) {
	testenv.Need(t, "python3")
	r, err := recordIn(t, "[files]\ninput = \"log.txt\"\noutput = \"answer.txt\"\n", "a.py", "with open('log.txt') as log:\n    n = int(log.read())\nwith open('answer.txt', 'w') as out:\n    out.write('%d\\n' % (n + 1))\nprint('aside')\n", "7\n")
	require.NoError(t, err)
	assert.Equal(t, "8\n", string(r.Output))
	assert.Contains(t, strings.Join(told(r.Steps), "\n"), "n = 7")
}

func TestTalksAreNotRecorded(t *testing.T) {
	testenv.Need(t, "python3")
	_, err := recordIn(t, "[call]\nname = \"f\"\ntakes = [\"k: int\"]\nreturns = \"int\"\n\n[call.given.ask]\ntakes = [\"k: int\"]\nreturns = \"int\"\nscript = \"ask.star\"\n", "a.py", "def f(k):\n    return ask(k)\n", "k: 1\n")
	var unable *UnableError
	if assert.Error(t, err) && assert.ErrorAs(t, err, &unable) {
		assert.Contains(t, unable.Text, "talks, or provides functions")
	}
}
