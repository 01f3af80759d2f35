package value

import (
	"encoding/json"
	"math"
	"math/big"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func typed(t testing.TB, text string) Type {
	parsed, err := ParseType(text)
	require.NoError(t, err, text)
	return parsed
}

func TestTypesAreReadAndWrittenAlike(t *testing.T) {
	for _, text := range []string{"int", "long", "bigint", "real", "bool", "text", "char", "int[]", "text[][]", "int?", "int?[]", "int[]?", "real?[][]?"} {
		assert.Equal(t, text, typed(t, text).String())
	}
	assert.Equal(t, "int[][]", typed(t, " int [] [] ").String())
	element, depth := typed(t, "text?[][]?").Element()
	assert.Equal(t, Text, element.Kind)
	assert.Equal(t, 2, depth)
	for _, bad := range []string{"", "integer", "int[", "int??", "[]", "int[]x", "int" + strings.Repeat("[]", 40)} {
		_, err := ParseType(bad)
		assert.Error(t, err, bad)
	}
	f, err := ParseField(" temps : int[] ")
	require.NoError(t, err)
	assert.Equal(t, "temps: int[]", f.String())
	for _, bad := range []string{"temps", "1st: int", "a b: int", ": int", "a: in"} {
		_, err := ParseField(bad)
		assert.Error(t, err, bad)
	}
}

func TestValuesAreReadAsTheirType(t *testing.T) {
	huge, _ := new(big.Int).SetString("-123456789012345678901234567890", 10)
	for _, tt := range []struct {
		kind, text string
		want       any
	}{
		{"int", " -2147483648 ", int64(math.MinInt32)},
		{"long", "9223372036854775807", int64(math.MaxInt64)},
		{"bigint", "-123456789012345678901234567890", huge},
		{"bigint", "7", int64(7)},
		{"real", "3", 3.0},
		{"real", "-1.5e300", -1.5e300},
		{"real", "Infinity", math.Inf(1)},
		{"bool", "true", true},
		{"text", `"a\"b\\n\u00e9\n"`, "a\"b\\né\n"},
		{"char", `"é"`, "é"},
		{"int?", "null", nil},
		{"int?", "5", int64(5)},
		{"int[]", "[]", []any{}},
		{"int[][]", "[[1, 2],\n [ ] ]", []any{[]any{int64(1), int64(2)}, []any{}}},
		{"int?[]", "[null,1]", []any{nil, int64(1)}},
	} {
		got, err := Read(tt.text, typed(t, tt.kind))
		require.NoError(t, err, tt.text)
		assert.Equal(t, tt.want, got, tt.text)
	}
	zero, err := Read("-0.0", typed(t, "real"))
	require.NoError(t, err)
	assert.True(t, math.Signbit(zero.(float64)))
	assert.Equal(t, "-0.0", Write(zero))
}

func TestWhatIsNoValueOfTheTypeIsSaidWithItsPlace(t *testing.T) {
	for _, tt := range []struct{ kind, text, words string }{
		{"int", "", "expected an int, found the end"},
		{"int", "2147483648", "2147483648 is outside of what an int holds"},
		{"long", "9223372036854775808", "is outside of what a long holds"},
		{"int", "1.0", "expected an int, found the real 1.0"},
		{"int", "1 2", "expected the end, found 2"},
		{"int", "x", "expected an int, found x"},
		{"bool", "True", "expected a bool, found True"},
		{"text", "'a'", "expected a text, found 'a'"},
		{"text", "\"a\nb\"", "no closing quote on its line"},
		{"text", `"a`, "no closing quote"},
		{"text", "\"a\x01\"", `\u0001`},
		{"text", `"\x"`, "not written as JSON has it"},
		{"char", `"ab"`, "a char is one character"},
		{"char", `""`, "a char is one character"},
		{"int[]", "[1, 2", "expected , or ], found the end"},
		{"int[]", "[1,, 2]", "[1]: expected an int, found , 2]"},
		{"int[][]", "[[1], [2, x]]", "[1][1]: expected an int, found x]]"},
		{"int[]", "[null]", "[0]: expected an int, found null"},
		{"real", "NaNa", "expected the end, found a"},
		{"int", "NaN", "expected an int, found NaN"},
	} {
		_, err := Read(tt.text, typed(t, tt.kind))
		require.Error(t, err, tt.text)
		assert.Contains(t, err.Error(), tt.words)
		assert.IsType(t, &Mistake{}, err)
	}
}

var station = []Field{{"temps", Type{Kind: Array, Of: &Type{Kind: Int}}}, {"limit", Type{Kind: Long}}}

func TestArgumentsStandOneALineInAnyOrder(t *testing.T) {
	for _, text := range []string{
		"temps = [4, -2]\nlimit = 3000000000\n", "limit=3000000000\r\ntemps =\t[4,-2]", "\n\ntemps = [4,\n  -2]\n\nlimit = 3000000000\n\n",
	} {
		args, err := ReadCall(text, station)
		require.NoError(t, err, text)
		assert.Equal(t, []any{[]any{int64(4), int64(-2)}, int64(3000000000)}, args)
	}
	for text, words := range map[string]string{
		"temps = [1]":                              "the argument limit (long) is missing",
		"temps = [1]\ntemps = [2]\nlimit = 1":      "the argument temps comes a second time",
		"temps = [1] limit = 2":                    "the next argument begins on a line of its own",
		"days = 3":                                 `there is no argument "days"; the function takes temps, limit`,
		"4 10\n":                                   "expected an argument such as temps: …, found 4 10",
		"temps = [1, \"x\"]\nlimit = 1":            `temps[1]: expected an int, found "x"]`,
		"temps = [1]\nlimit = 1\nmore = 2":         `there is no argument "more"`,
		"temps = [1]\nlimit = 9999999999999999999": "limit: 9999999999999999999 is outside of what a long holds",
	} {
		_, err := ReadCall(text, station)
		require.Error(t, err, text)
		assert.Contains(t, err.Error(), words)
	}
	_, err := ReadCall("temps = [1]\nlimit = x", station)
	var mistake *Mistake
	require.ErrorAs(t, err, &mistake)
	assert.Equal(t, strings.Index("temps = [1]\nlimit = x", "x"), mistake.Offset)
}

func TestSeveralResultsComeInOrderOrByTheirNames(t *testing.T) {
	results := []Field{{"least", Type{Kind: Int}}, {"mean_value", Type{Kind: Real}}}
	want := []any{int64(1), 2.5}
	for _, text := range []string{"[1, 2.5]", `{"least": 1, "mean_value": 2.5}`, `{"meanValue": 2.5, "least": 1}`} {
		got, err := ReadResults(text, results)
		require.NoError(t, err, text)
		assert.Equal(t, want, got)
	}
	for text, words := range map[string]string{
		"[1]": "expected 2 results", "[1, 2.5, 3]": "expected ] after 2 results", "7": "expected the 2 results",
		`{"least": 1, "least": 1}`: "is no further result", `{"most": 1}`: "is no further result; there are least, mean_value", `[1, "x"]`: `mean_value: expected a real, found "x"`,
		`{"least" 1}`: "expected : behind", `{least: 1}`: "expected the name of a result",
	} {
		_, err := ReadResults(text, results)
		require.Error(t, err, text)
		assert.Contains(t, err.Error(), words)
	}
	got, err := ReadResults("5", []Field{{"", Type{Kind: Int}}})
	require.NoError(t, err)
	assert.Equal(t, int64(5), got)
}

func TestValuesAreHeldAgainstEachOther(t *testing.T) {
	near := Comparison{Absolute: 1e-6, Relative: 1e-6}
	outer, all := Comparison{AnyOrder: OuterAnyOrder}, Comparison{AnyOrder: AllAnyOrder, Absolute: 1e-6}
	for _, tt := range []struct {
		name           string
		how            Comparison
		kind           string
		expected, got  string
		path, expect   string
		received, said string
	}{
		{name: "the same", kind: "int[]", expected: "[1, 2]", got: "[1, 2]"},
		{name: "another element", kind: "int[][]", expected: "[[1], [2, 5]]", got: "[[1], [2, 4]]", path: "[1][1]", expect: "5", received: "4"},
		{name: "one too few", kind: "int[]", expected: "[1, 2]", got: "[1]", path: "[1]", expect: "2", said: "1 element is missing at the end"},
		{name: "two too many", kind: "int[]", expected: "[1]", got: "[1, 2, 3]", path: "[1]", received: "2", said: "2 elements are too many"},
		{name: "near enough", how: near, kind: "real", expected: "1000000.5", got: "1000000.9"},
		{name: "too far", how: near, kind: "real", expected: "1.0", got: "1.00001", expect: "1.0", received: "1.00001"},
		{name: "not a number", how: near, kind: "real", expected: "1.0", got: "NaN", expect: "1.0", received: "NaN"},
		{name: "endless, and not the other way", how: near, kind: "real", expected: "Infinity", got: "-Infinity", expect: "Infinity", received: "-Infinity"},
		{name: "minus zero is zero", kind: "real", expected: "0.0", got: "-0.0"},
		{name: "integers have no tolerance", how: Comparison{Absolute: 5}, kind: "int", expected: "3", got: "4", expect: "3", received: "4"},
		{name: "case counts", kind: "text", expected: `"Ice"`, got: `"ice"`, expect: `"Ice"`, received: `"ice"`},
		{name: "case does not count", how: Comparison{IgnoreCase: true}, kind: "text", expected: `"Ice"`, got: `"ice"`},
		{name: "nothing and something", kind: "int?", expected: "null", got: "0", expect: "null", received: "0"},
		{name: "another order counts", kind: "int[]", expected: "[1, 2]", got: "[2, 1]", path: "[0]", expect: "1", received: "2"},
		{name: "the outer order does not count", how: outer, kind: "int[][]", expected: "[[1, 2], [3]]", got: "[[3], [1, 2]]"},
		{name: "the inner order counts", how: outer, kind: "int[][]", expected: "[[1, 2], [3]]", got: "[[3], [2, 1]]", path: "[1]", expect: "[1, 2]", received: "[2, 1]", said: "1 element is missing, in any order"},
		{name: "no order counts", how: all, kind: "int[][]", expected: "[[1, 2], [3, 3]]", got: "[[3, 3], [2, 1]]"},
		{name: "how often counts", how: all, kind: "int[]", expected: "[1, 1, 2]", got: "[1, 2, 2]", path: "[2]", expect: "1", received: "2", said: "1 element is missing, in any order"},
		{name: "in any order, and near enough", how: all, kind: "real[]", expected: "[1.0, 1.0000001, 5]", got: "[5, 1.00000015, 1.0]"},
		{name: "in any order, one too many", how: outer, kind: "int[]", expected: "[1]", got: "[2, 1]", path: "[0]", received: "2", said: "1 element is too many, in any order"},
		{name: "in any order and any case", how: Comparison{AnyOrder: OuterAnyOrder, IgnoreCase: true}, kind: "text[]", expected: `["B", "a"]`, got: `["A", "b"]`},
	} {
		t.Run(tt.name, func(t *testing.T) {
			expected, err := Read(tt.expected, typed(t, tt.kind))
			require.NoError(t, err)
			got, err := Read(tt.got, typed(t, tt.kind))
			require.NoError(t, err)
			d := tt.how.Compare(expected, got)
			if tt.expect == "" && tt.received == "" {
				assert.Nil(t, d)
				return
			}
			require.NotNil(t, d)
			assert.Equal(t, []string{tt.path, tt.expect, tt.received, tt.said}, []string{PathText(d.Path), d.Expected, d.Got, d.Reason})
		})
	}
}

func TestThePlaceOfADifferenceIsFoundInTheText(t *testing.T) {
	v, err := Read("[[1, 22], [333]]", typed(t, "int[][]"))
	require.NoError(t, err)
	for _, tt := range []struct {
		path []any
		rest string
	}{{[]any{0, 1}, "22], [333]]"}, {[]any{1}, "[333]]"}, {[]any{2}, "]"}, {[]any{1, 1}, "]]"}, {nil, "[[1, 22], [333]]"}} {
		text, at := Marked(v, tt.path)
		assert.Equal(t, tt.rest, text[at:])
	}
	assert.Equal(t, []string{"1", "22"}, Leaves(v, 2))
}

func TestWideIntegersArePassedAsTexts(t *testing.T) {
	wide := func(kind, text string) string {
		v, err := Read(text, typed(t, kind))
		require.NoError(t, err)
		return Write(Widened(v, typed(t, kind)))
	}
	assert.Equal(t, `[9007199254740992, "9007199254740993"]`, wide("long[]", "[9007199254740992, 9007199254740993]"))
	assert.Equal(t, `"7"`, wide("bigint", "7"))
	assert.Equal(t, "[7]", wide("int[]", "[7]"))
	assert.Equal(t, `["NaN", 1.0]`, Write(Plain([]any{math.NaN(), 1.0})))
}

func FuzzAValueComesBackAsItWasWritten(f *testing.F) {
	for _, seed := range []string{"[1, -2, 3]", `["a\"", "\u00e9", ""]`, "[[], [[1.5e-9]]]", "null", "-0.0", `"\ud800"`, "[1e400, NaN]"} {
		f.Add(seed)
	}
	kinds := []string{"int[]", "text[]", "real[][][]", "int?", "real", "text", "bigint[][]", "real[]"}
	f.Fuzz(func(t *testing.T, text string) {
		for _, kind := range kinds {
			v, err := Read(text, typed(t, kind))
			if err != nil {
				continue
			}
			written := Write(v)
			again, err := Read(written, typed(t, kind))
			require.NoError(t, err, written)
			assert.Nil(t, Comparison{}.Compare(v, again), written)
			assert.Nil(t, Comparison{AnyOrder: AllAnyOrder}.Compare(v, again), written)
			assert.Equal(t, written, Write(again))
			if !strings.ContainsAny(written, "NI") {
				assert.True(t, json.Valid([]byte(written)), written)
			}
		}
	})
}

func TestValuesOfEveryKindHaveAnOrder(t *testing.T) {
	huge, _ := new(big.Int).SetString("99999999999999999999", 10)
	sorted := []any{nil, false, true, int64(-3), int64(5), huge, math.NaN(), math.Inf(-1), -1.5, 2.5, "", "a", "b", []any{}, []any{int64(1)}, []any{int64(1), int64(0)}, []any{int64(2)}}
	for i, a := range sorted {
		for j, b := range sorted {
			want := 0
			if i < j {
				want = -1
			} else if i > j {
				want = 1
			}
			got := order(a, b)
			assert.Equal(t, want, max(-1, min(1, got)), "%v and %v", a, b)
		}
	}
	assert.Nil(t, Comparison{AnyOrder: AllAnyOrder}.Compare([]any{sorted[1:6], sorted[10:13]}, []any{[]any{"b", "", "a"}, []any{huge, true, int64(5), int64(-3), false}}))
}

func TestMapsHaveKeysOfOneKind(t *testing.T) {
	for text, says := range map[string]string{
		"map(text, int)": "", "map(int, text[])[]": "", "map(char, map(long, bool))?": "", "map(text)": "a map is written map(text, int)", "map(real, int)": "the keys of a map are text, char, int or long",
		"map(text, list(int))": "a map holds no list(int)", "map(text, blob)": "is no type", "map(blob, int)": "is no type", "map(text, int": "is no type",
	} {
		kind, err := ParseType(text)
		if says != "" {
			assert.ErrorContains(t, err, says, text)
			continue
		}
		require.NoError(t, err, text)
		assert.Equal(t, text, kind.String())
	}
	counts, err := ParseType("map(int, long)")
	require.NoError(t, err)
	v, err := Read(`{"12": 3, "-4": 3000000000}`, counts)
	require.NoError(t, err)
	assert.Equal(t, Object{{"-4", int64(3000000000)}, {"12", int64(3)}}, v, "in the order of the keys")
	for text, says := range map[string]string{`{"x": 3}`: `the key "x" is no int`, `{"3000000000": 3}`: "is no int", `[]`: "expected a map(int, long), written as {…}; found []", `{"1": "a"}`: "expected a long", `{"1": 1, "1": 2}`: "comes a second time"} {
		_, err := Read(text, counts)
		assert.ErrorContains(t, err, says, text)
	}
	words, err := ParseType("map(char, int)")
	require.NoError(t, err)
	_, err = Read(`{"ab": 1}`, words)
	assert.ErrorContains(t, err, `the key "ab" is no char`)
	fuel, err := ParseType("map(text, int)")
	require.NoError(t, err)
	for _, tt := range [][2]string{{`{"a b": 1}`, `["a b"]`}, {`{"": 1}`, `[""]`}, {`{"north": 1}`, "north"}} {
		want, err := Read(tt[0], fuel)
		require.NoError(t, err)
		d := Comparison{}.Compare(want, Object{})
		require.NotNil(t, d)
		assert.Equal(t, tt[1], PathText(d.Path))
	}
}
