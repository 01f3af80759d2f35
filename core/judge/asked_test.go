//go:build linux

package judge

import (
	"os"
	"path/filepath"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"coldverdict/core/problem"
	"coldverdict/core/value"
	"coldverdict/core/verdict"
	"coldverdict/internal/testenv"
)

// pipe is a problem whose site provides is_leaky, with a script and a limit of calls.
func pipe(t *testing.T, script string, most int) *problem.Problem {
	t.Helper()
	p := function(t, "first_leaky(n: int) -> int", "n: 5; first: 4 => 4", "n: 9; first: 1 => 1")
	p.Call.Hidden = []value.Field{{Name: "first", Type: value.Type{Kind: value.Int}}}
	p.Call.Given = []problem.Given{{Name: "is_leaky", Script: "pipe.star", Takes: []value.Field{{Name: "joint", Type: value.Type{Kind: value.Int}}}, Returns: value.Type{Kind: value.Bool}, Most: most}}
	require.NoError(t, os.WriteFile(filepath.Join(p.Dir, "pipe.star"), []byte(script), 0o600))
	return p
}

const honestPipe = "def is_leaky(case, joint):\n    return joint >= case.first\n"

func TestWhatAFunctionAsksIsAnsweredAndCounted(t *testing.T) {
	testenv.Need(t, "python3")
	each := "def first_leaky(n):\n    for joint in range(1, n + 1):\n        if is_leaky(joint): return joint\n"
	for _, tt := range []struct {
		name, script, source string
		most                 int
		verdicts             []verdict.Verdict
		says                 string // of the first case
	}{
		{"as often as it likes", honestPipe, each, 0, []verdict.Verdict{verdict.Accepted, verdict.Accepted}, ""},
		{"as often as it may", honestPipe, each, 4, []verdict.Verdict{verdict.Accepted, verdict.Accepted}, ""},
		{"once too often", honestPipe, each, 3, []verdict.Verdict{verdict.WrongAnswer, verdict.Accepted}, "it called is_leaky more often than 3 times"},
		{"the count begins anew with each case", honestPipe, "def first_leaky(n):\n    return next(j for j in (4, 1) if is_leaky(j) and not (j > 1 and is_leaky(j - 1)))\n", 4, []verdict.Verdict{verdict.Accepted, verdict.Accepted}, ""},
		{"a text for a number", honestPipe, "def first_leaky(n):\n    return is_leaky('4')\n", 0, []verdict.Verdict{verdict.WrongAnswer, verdict.WrongAnswer}, `it called is_leaky("4")`},
		{"two for one", honestPipe, "def first_leaky(n):\n    return is_leaky(4, 5)\n", 0, []verdict.Verdict{verdict.WrongAnswer, verdict.WrongAnswer}, "it takes 1 argument, and there are 2"},
		{"the script fails", "def is_leaky(case, joint):\n    return joint >= case.last\n", each, 0, []verdict.Verdict{verdict.Fault, verdict.Fault}, "pipe.star:2"},
		{"the script returns something else", "def is_leaky(case, joint):\n    return 1\n", each, 0, []verdict.Verdict{verdict.Fault, verdict.Fault}, "is_leaky returned 1: expected a bool"},
		{"the script has a mistake", "def is_leaky(case, joint)\n", each, 0, []verdict.Verdict{verdict.Fault, verdict.Fault}, "pipe.star:2:1"},
		{"another name", honestPipe, "def first_leaky(n):\n    import cold_driver\n", 0, []verdict.Verdict{verdict.RuntimeError, verdict.RuntimeError}, ""},
		{"it asks before there is a case", honestPipe, "known = is_leaky(1)\n" + each, 0, []verdict.Verdict{verdict.RuntimeError, verdict.RuntimeError}, "it called is_leaky before there was a case"},
		{"it throws behind a question", honestPipe, "def first_leaky(n):\n    is_leaky(1)\n    raise KeyError(n)\n", 0, []verdict.Verdict{verdict.RuntimeError, verdict.RuntimeError}, "KeyError: 5"},
		{"it ends behind a question", honestPipe, "import os\ndef first_leaky(n):\n    is_leaky(1)\n    os._exit(0)\n", 0, []verdict.Verdict{verdict.RuntimeError, verdict.RuntimeError}, "it ended the program"},
	} {
		t.Run(tt.name, func(t *testing.T) {
			p := pipe(t, tt.script, tt.most)
			outcomes, _ := calledAs(t, p, "a.py", tt.source, options{})
			require.Len(t, outcomes, 2)
			for i, want := range tt.verdicts {
				assert.Equal(t, want.String(), outcomes[i].Verdict.String(), outcomes[i].Message)
			}
			assert.Contains(t, outcomes[0].Message, tt.says)
		})
	}
}

func TestAGivenFunctionReturnsArrays(t *testing.T) {
	testenv.Need(t, "gcc")
	array := func(kind value.Kind, depth int) value.Type {
		of := value.Type{Kind: kind}
		for range depth {
			inner := of
			of = value.Type{Kind: value.Array, Of: &inner}
		}
		return of
	}
	p := function(t, "busiest(days: int) -> text", "days: 3 => \"8 empty: 0 last: noon, 1+2+0 rows\"")
	p.Call.Given = []problem.Given{
		{Name: "tides", Script: "sea.star", Takes: []value.Field{{Name: "day", Type: value.Type{Kind: value.Int}}}, Returns: array(value.Long, 1)},
		{Name: "names", Script: "sea.star", Returns: array(value.Text, 1)},
		{Name: "rows", Script: "sea.star", Takes: []value.Field{{Name: "days", Type: array(value.Int, 1)}}, Returns: array(value.Real, 2)},
	}
	script := "def tides(case, day):\n    return [day * 2, 1, 1] if day else []\n" +
		"def names(case):\n    return [\"dawn\", \"noon\"]\n" +
		"def rows(case, days):\n    return [[0.5] * n for n in days]\n"
	require.NoError(t, os.WriteFile(filepath.Join(p.Dir, "sea.star"), []byte(script), 0o600))
	const body = `char *busiest(int days) {
    int n, high, none, sum = 0, *lengths;
    long long *tides_of = tides(days, &n);
    for (int i = 0; i < n; i++) sum += tides_of[i];
    free(tides_of);
    if (names(&n) == NULL)
        return names(&n)[0];
    char **all = names(&n);
    int asked[] = {1, 2, 0};
    double **a = rows_of(asked, 3, &high, &lengths);
    if (high != 3 || a[1][1] != 0.5) return "rows";
    tides(0, &none);
    char *said = malloc(100);
    sprintf(said, "%d empty: %d last: %s, %d+%d+%d rows", sum, none, all[n - 1], lengths[0], lengths[1], lengths[2]);
    return said;
}
`
	for name, source := range map[string]string{
		"as they are":       strings.ReplaceAll(body, "rows_of(", "rows("),
		"declared":          "long long *tides(int, int *);\nextern char ** names(int *count);\n" + strings.ReplaceAll(body, "rows_of(", "rows("),
		"declared and bare": "#include <stdio.h>\n#include <stdlib.h>\n#include <stdbool.h>\nlong long *tides(int, int *);\nchar **names(int *);\ndouble **rows(int *days, int n, int *count, int **lengths);\n" + strings.ReplaceAll(body, "rows_of(", "rows("),
	} {
		p.Call.Bare = strings.Contains(name, "bare")
		outcomes, ended := calledAs(t, p, "a.c", source, options{})
		require.Len(t, outcomes, 1, ended.Message)
		assert.Equal(t, verdict.Accepted.String(), outcomes[0].Verdict.String(), "%s: %s", name, outcomes[0].Message)
	}
}

func TestQuestionsAreReadByTheirTypes(t *testing.T) {
	field := func(kind value.Kind) value.Field { return value.Field{Name: "a", Type: value.Type{Kind: kind}} }
	for _, tt := range []struct {
		text  string
		takes []value.Field
		args  []any
	}{
		{"[]", nil, nil}, {"[3]", []value.Field{field(value.Int)}, []any{int64(3)}}, {`[3, "x"]`, []value.Field{field(value.Int), field(value.Text)}, []any{int64(3), "x"}},
	} {
		args, err := readAsked(tt.text, tt.takes)
		require.NoError(t, err, tt.text)
		assert.Equal(t, tt.args, args)
	}
	for text, takes := range map[string][]value.Field{"[3.5]": {field(value.Int)}, "[]": {field(value.Int)}, "[1]": {field(value.Int), field(value.Int)}, "x": {field(value.Int)}} {
		_, err := readAsked(text, takes)
		assert.Error(t, err, text)
	}
}

// sequence makes a problem that asks for a class, of which the cases are calls and what they return.
func sequence(t *testing.T, class string, cases ...string) *problem.Problem {
	t.Helper()
	call, err := problem.ParseClass(class)
	require.NoError(t, err)
	p := &problem.Problem{Dir: t.TempDir(), Call: call}
	for _, c := range cases {
		calls, expected, known := strings.Cut(c, "=>")
		calls = strings.ReplaceAll(strings.TrimSpace(calls), "; ", "\n") + "\n"
		one := problem.Case{Name: "calls/" + calls[:3], Group: "calls", Input: problem.Data{Text: []byte(calls), Size: int64(len(calls))}}
		if known {
			one.Accepted = []problem.Data{{Text: []byte(strings.TrimSpace(expected))}}
		}
		p.Cases = append(p.Cases, one)
	}
	return p
}

func TestAVerdictOnASequenceNamesItsCall(t *testing.T) {
	testenv.Need(t, "python3")
	p := sequence(t, "Log(room: int); put(n: int); last() -> int; all() -> int[]",
		"a = new(3); a.put(1); b = new(3); b.put(2); a.put(5); a.put(6); b.last(); a.last() => [null, null, null, null, null, null, 2, 7]",
		"new(1); put(4); put(9); all() => [null, null, null, [4]]",
		"new(1); last() => [null, 3]",
		"new(0); put(13) => [null, null]",
		"new(2); last()")
	source := "class Log:\n    def __init__(self, room):\n        self.kept = []\n    def put(self, n):\n        if n == 13: raise ValueError('unlucky')\n        self.kept.append(n)\n" +
		"    def last(self):\n        return self.kept[-1] if self.kept else None\n    def all(self):\n        return self.kept\n"
	outcomes, _ := calledAs(t, p, "log.py", source, options{})
	require.Len(t, outcomes, 5)
	assert.Equal(t, "call 8, a.last(): expected 7, got 6, after …, a.put(1), a.put(5), a.put(6)", outcomes[0].Message, "of its own object")
	assert.Equal(t, "call 4, all(): [1]: got 9 (1 element is too many), after new(1), put(4), put(9)", outcomes[1].Message)
	assert.Equal(t, "call 2, last(): expected 3, got null, after new(1)", outcomes[2].Message)
	assert.Equal(t, verdict.RuntimeError, outcomes[3].Verdict)
	assert.Contains(t, outcomes[3].Message, "call 2, put(13): ")
	assert.Contains(t, outcomes[3].Message, "unlucky")
	assert.Equal(t, verdict.Unjudged, outcomes[4].Verdict)
	assert.Equal(t, "returned [null, null]", outcomes[4].Message)
	methods := map[string]int{}
	for _, m := range outcomes[0].Methods {
		methods[m.Method] = m.Calls
	}
	assert.Equal(t, map[string]int{"new": 2, "put": 4, "last": 2}, methods, "each is timed by its name")
}

func TestAClassWithoutAMethodIsTold(t *testing.T) {
	testenv.Need(t, "python3")
	p := sequence(t, "Log(); put(n: int); last() -> int", "new(); put(1); last() => [null, null, 1]")
	for source, says := range map[string]string{
		"class Log:\n    def put(self, n): pass\n":                                        "Log has no method last",
		"class Log:\n    def __init__(self, a): pass\n":                                   "__init__() missing 1 required positional argument",
		"class Other:\n    pass\n":                                                        "there is no class Log",
		"class Log:\n    def put(self, n): self.n = n\n    def last(self): return self\n": "it returned a value of type Log",
	} {
		outcomes, ended := calledAs(t, p, "log.py", source, options{})
		said := ended.Message
		for _, o := range outcomes {
			said += o.Message
			assert.NotEqual(t, verdict.Accepted, o.Verdict, source)
		}
		assert.Contains(t, said, says, source)
	}
}

func TestACopyAndANodeAreToldFromWhatLooksAlike(t *testing.T) {
	testenv.Need(t, "python3")
	for _, tt := range []struct{ signature, calls, source, says string }{
		{"copied(rope: list(int)) -> copy of argument 1", "rope: [1, 2] => [1, 2]", "def copied(rope):\n    return ListNode(rope.val, ListNode(rope.next.val))\n", ""},
		{"copied(rope: list(int)) -> copy of argument 1", "rope: [1, 2] => [1, 2]", "def copied(rope):\n    return ListNode(rope.val, rope.next)\n", "it returned nodes of argument 1 themselves"},
		{"copied(rope: list(int)) -> copy of argument 1", "rope: [1, 2] => [1, 2]", "def copied(rope):\n    both = ListNode(1, ListNode(2))\n    rope.val = 7\n    return both\n", "it changed argument 1, of which a copy was asked for: [0]: expected 1, got 7"},
		{"copied(rope: list(int)) -> copy of argument 1", "rope: [1, 2] => [1, 2]", "def copied(rope):\n    return ListNode(1)\n", "expected 2"},
		{"second(rope: list(int)) -> node of argument 1", "rope: [4, 4] => 1", "def second(rope):\n    return rope.next\n", ""},
		{"second(rope: list(int)) -> node of argument 1", "rope: [4, 4] => 1", "def second(rope):\n    return rope\n", "expected 1, got 0"},
		{"second(rope: list(int)) -> node of argument 1", "rope: [4, 4] => 1", "def second(rope):\n    return ListNode(4)\n", "it returned a node that is none of argument 1's"},
		{"second(rope: list(int)) -> node of argument 1", "rope: [4] => null", "def second(rope):\n    return rope.next\n", ""},
		{"under(camp: tree(int), one: node of argument 1) -> int", "camp: [5, 3, 8, null, 4]; one: 4 => 4", "def under(camp, one):\n    return one.val\n", ""},
		{"under(camp: tree(int), one: node of argument 1) -> bool", "camp: [5, 3]; one: 1 => true", "def under(camp, one):\n    return camp.left is one\n", ""},
		{"under(camp: tree(int), one: node of argument 1) -> bool", "camp: [5]; one: null => true", "def under(camp, one):\n    return one is None\n", ""},
	} {
		p := function(t, tt.signature, tt.calls)
		outcomes, _ := calledAs(t, p, "a.py", tt.source, options{})
		require.Len(t, outcomes, 1)
		if tt.says == "" {
			assert.Equal(t, verdict.Accepted.String(), outcomes[0].Verdict.String(), "%s: %s", tt.source, outcomes[0].Message)
			continue
		}
		assert.Equal(t, verdict.WrongAnswer.String(), outcomes[0].Verdict.String(), tt.source)
		assert.Contains(t, outcomes[0].Message, tt.says)
	}
}

func TestABareSourceGetsNothingOfWhatJudgesSupply(t *testing.T) {
	for _, tt := range []struct{ tool, file, source string }{
		{"python3", "a.py", "def busiest(temps: List[int]) -> int:\n    return Counter(temps).most_common(1)[0][0]\n"},
		{"ruby", "a.rb", "def busiest(temps)\n  Set.new(temps).max_by { |t| temps.count(t) }\nend\n"},
		{"ruby", "b.rb", "def busiest(temps)\n  temps.to_set.max_by { |t| temps.count(t) }\nend\n"},
		{"ruby", "c.rb", "def busiest(temps)\n  JSON.parse(temps.to_json).max_by { |t| temps.count(t) }\nend\n"},
		{"ruby", "d.rb", "def busiest(temps)\n  [temps.to_json].each { |s| return s[1].to_i }\nend\n"},
	} {
		testenv.Need(t, tt.tool)
		for bare, want := range map[bool]verdict.Verdict{false: verdict.Accepted, true: verdict.RuntimeError} {
			p := function(t, "busiest(temps: int[]) -> int", "temps: [2, 3, 2] => 2")
			p.Call.Bare = bare
			_, ended := calledAs(t, p, tt.file, tt.source, options{})
			assert.Equal(t, want.String(), ended.Verdict.String(), "%s, bare: %t", tt.file, bare)
		}
	}
}

func TestABareFileInRubyTakesAndReturnsAnyValue(t *testing.T) {
	testenv.Need(t, "ruby")
	const calls = `camp: [5, -3, null, 8]; words: ["", "é\"\\/\n\t\u0001", "🐧 \\u0041"]; x: [1e300, -0.5, 1e-7, 3]; on: {"a b": [[true], []], "": [[false, true]]}; one: "\\" => ["[5, -3, nil, 8]", "", "é\"\\/\n\t\u0001", "🐧 \\u0041", "1.0e+300 -0.5 1.0e-07 3.0", "[[[false, true]], [[true], []]]", "\\"]`
	const source = `def said(camp, words, x, on, one)
  seen = []
  rows = [camp]
  until rows.empty?
    node = rows.shift
    seen << (node && node.val)
    rows.push(node.left, node.right) if node
  end
  seen.pop while seen.last.nil?
  [seen.inspect, *words, x.map(&:to_f).join(' '), on.values.inspect, one]
end
`
	for _, bare := range []bool{false, true} {
		p := function(t, "said(camp: tree(int), words: text[], x: real[], on: map(text, bool[][]), one: char) -> text[]", calls)
		p.Call.Bare = bare
		outcomes, ended := calledAs(t, p, "a.rb", source, options{})
		assert.Equal(t, verdict.Accepted.String(), ended.Verdict.String(), "bare: %t: %s", bare, outcomes[0].Message)
		p = function(t, "echo(on: map(text, real), x: bigint[]) -> map(text, real)", `on: {"π": 0.25, "b": -3}; x: [123456789012345678901234567890] => {"b": -3, "π": 0.25}`)
		p.Call.Bare = bare
		outcomes, ended = calledAs(t, p, "b.rb", "def echo(on, x)\n  x[0] == 123456789012345678901234567890 ? on : {}\nend\n", options{})
		assert.Equal(t, verdict.Accepted.String(), ended.Verdict.String(), "bare: %t: %s", bare, outcomes[0].Message)
	}
}
