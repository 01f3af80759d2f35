package shape

import (
	"context"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"coldverdict/core/value"
)

// radio are the calls of a class: new(room: int), put(beacon: int, reading: text), mark(days: int[]), get(beacon: int).
func radio() Calls {
	field := func(name string, kind value.Kind) value.Field {
		return value.Field{Name: name, Type: value.Type{Kind: kind}}
	}
	days := value.Field{Name: "days", Type: value.Type{Kind: value.Array, Of: &value.Type{Kind: value.Int}}}
	takes := map[string][]value.Field{
		"new": {field("room", value.Int)}, "put": {field("beacon", value.Int), field("reading", value.Text)}, "mark": {days}, "get": {field("beacon", value.Int)}, "size": {},
	}
	read := func(text string) (list []Called, err error) {
		offset := 0
		for line := range strings.Lines(text) {
			name, rest, _ := strings.Cut(strings.TrimSpace(line), "(")
			called := Called{Line: 1 + strings.Count(text[:offset], "\n"), Method: name, Named: strings.Contains(name, ".")}
			if fields := takes[name]; len(fields) > 0 {
				v, err := value.Read("["+strings.TrimSuffix(rest, ")")+"]", value.Type{Kind: value.Array, Of: &value.Type{Kind: value.Any}})
				if err != nil {
					return nil, &value.Mistake{Offset: offset, Text: "no call"}
				}
				called.Args = v.([]any)
			}
			list = append(list, called)
			offset += len(line)
		}
		return list, nil
	}
	return Calls{Takes: func(method string) ([]value.Field, bool) { list, ok := takes[method]; return list, ok }, Read: read}
}

const radioShape = `new(room: int 1..4)
repeat 1..30 {
  either 5 { put(beacon: int 1..6, reading: token(1..3, "a-c")) }
  or       { get(beacon: int 1..6) }
  or       { mark(int[1..3] 0..9) }
  or       { size() }
}
`

func TestSequencesOfCallsAreMadeReadAndChecked(t *testing.T) {
	s, err := ParseCalls(radioShape, radio())
	require.NoError(t, err)
	puts, all := 0, 0
	for seed := range 60 {
		in, err := s.Make(Making{Seed: Seed(seed), Size: Largest, Style: "mixed"})
		require.NoError(t, err)
		text := string(in.Append(nil))
		assert.Regexp(t, `\Anew\([1-4]\)\n((put\([1-6], "[a-c]{1,3}"\)|get\([1-6]\)|mark\(\[[0-9](, [0-9]){0,2}\]\)|size\(\))\n){1,30}\z`, text)
		again, fault, err := s.Read(strings.NewReader(text), Options{})
		require.NoError(t, err)
		require.Nil(t, fault, text)
		assert.Equal(t, text, string(again.Append(nil)))
		puts, all = puts+strings.Count(text, "put("), all+strings.Count(text, "\n")-1
	}
	assert.Greater(t, puts*8, all*4, "one of them is made oftener: %d of %d", puts, all)
	for text, says := range map[string]string{
		"new(9)\nsize()\n":           "line 1, 1st value: room",
		"new(1)\n":                   "line 2",
		"new(1)\nput(7, \"a\")\n":    "line 2, 1st value: beacon",
		"new(1)\nput(1, \"\")\n":     `line 2: "" is no word`,
		"new(1)\nput(1, \"a b\")\n":  "is no word, and in a shape of calls texts are words",
		"new(1)\nget(x\n":            "line 2: no call",
		"new(1)\nsize()\nnorth.size": "line 3: a shape of calls knows no names",
		"size()\n":                   "line 1",
	} {
		fault, err := s.Check(strings.NewReader(text), Options{})
		require.NoError(t, err)
		require.NotNil(t, fault, text)
		assert.Contains(t, fault.Error(), says, text)
	}
	assert.Contains(t, strings.Join(s.Explain(), "\n"), "call 1: new of room, an integer from 1 to 4\n1 to 30 times, to the end of the input:\n  either\n    a call: put of beacon, an integer from 1 to 6; reading, ")
	assert.Contains(t, strings.Join(s.Explain(), "\n"), "a call: size")
}

func TestSequencesShrinkByTheirCalls(t *testing.T) {
	s, err := ParseCalls(radioShape, radio())
	require.NoError(t, err)
	for seed := range 40 {
		in, err := s.Make(Making{Seed: Seed(seed), Size: Largest, Style: "mixed"})
		require.NoError(t, err)
		fails := func(_ context.Context, text []byte) (bool, error) {
			return strings.Count(string(text), "get(3)") > 0, nil
		}
		if ok, _ := fails(t.Context(), in.Append(nil)); !ok {
			continue
		}
		small, _, err := s.Shrink(t.Context(), in, fails)
		require.NoError(t, err)
		assert.Equal(t, "new(1)\nget(3)\n", string(small.Append(nil)))
		return
	}
	t.Fatal("none of them had such a call")
}

func TestMistakesInShapesOfCallsAreTold(t *testing.T) {
	for text, says := range map[string]string{
		"new(room: int 1..4, int 1..2)": "new takes 1 arguments", "new()": "new takes 1 arguments, and here are 0", "put(int 1..2)": "put takes 2 arguments, and here are 1",
		"new(\"a\")": "a token in quotes is no argument", "new(token(1, \"a\"))": "and new takes int there", "size(": "behind the arguments of size", "mark(int[2] 1..2) get(int 1..2)": "expected the end of the line",
		"wipe()":                            `"wipe" is no value`,
		"either 0 { size() } or { size() }": "a branch is made so many times as often as others: 1 to 1000",
	} {
		_, err := ParseCalls(text, radio())
		assert.ErrorContains(t, err, says, text)
	}
}
