//go:build linux

package main

import (
	"os"
	"path/filepath"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"coldverdict/internal/testenv"
)

const radio = `class BeaconCache:
    def __init__(self, room):
        self.room, self.kept = room, {}

    def put(self, beacon, reading):
        self.kept.pop(beacon, None)
        self.kept[beacon] = reading
        if len(self.kept) > self.room:
            del self.kept[next(iter(self.kept))]

    def get(self, beacon):
        if beacon in self.kept:
            self.put(beacon, self.kept[beacon])
        return self.kept.get(beacon)
`

func TestAClassIsOpenedTriedAndCrossed(t *testing.T) {
	testenv.Need(t, "python3")
	s := folder(t, nil)
	made := s.run(t, "open", "radio", "--class", "BeaconCache(room: int); put(beacon: int, reading: text); get(beacon: int) -> text?", "--lang", "python")
	require.Zero(t, made.status, made.errors)
	assert.Contains(t, made.out, "with a call a line")
	s.dir = filepath.Join(s.dir, "radio")
	start, err := os.ReadFile(filepath.Join(s.dir, "radio.py"))
	require.NoError(t, err)
	assert.Contains(t, string(start), "def put(self, beacon: int, reading: str) -> None:")
	write(t, filepath.Join(s.dir, "radio.py"), radio)

	s.input = "[\"BeaconCache\", \"put\", \"put\", \"get\", \"put\", \"get\"]\n[[2], [1, \"calm\"], [2, \"fog\"], [1], [3, \"drift\"], [2]]\n%%\n[null, null, null, \"calm\", null, null]\n"
	added := s.run(t, "case", "add", "pasted")
	require.Zero(t, added.status, added.errors)
	s.input = ""
	cases, err := os.ReadFile(filepath.Join(s.dir, "cases.md"))
	require.NoError(t, err)
	assert.Contains(t, string(cases), "```calls\nnew(2)\nput(1, \"calm\")\nput(2, \"fog\")\nget(1) -> \"calm\"\nput(3, \"drift\")\nget(2) -> null\n```\n", "as the two arrays that were pasted")
	tried := s.run(t, "try", "radio.py")
	assert.Zero(t, tried.status, tried.out)

	write(t, filepath.Join(s.dir, "input.shape"), "new(room: int 2..2)\nrepeat 12..12 {\n  either 1 { put(beacon: int 1..3, reading: pick(\"calm\", \"fog\")) }\n  or { get(beacon: int 1..3) }\n}\n")
	write(t, filepath.Join(s.dir, "asked.py"), strings.Replace(radio, "            self.put(beacon, self.kept[beacon])\n", "            pass\n", 1))
	checked := s.run(t, "shape", "check")
	assert.Equal(t, 1, checked.status, "a reading that the shape does not have")
	assert.Contains(t, checked.out, "one of calm, fog")
	crossed := s.run(t, "cross", "asked.py", "--against", "radio.py", "--seconds", "300", "--seed", "7") // it ends at the first failure
	assert.Equal(t, 1, crossed.status, crossed.out+crossed.errors)
	assert.Regexp(t, `asked.py: wrong answer, call \d+, get\(\d\): expected ("\w+"|null), got ("\w+"|null), after `, strings.ReplaceAll(crossed.out, "\n", " "))
	assert.Contains(t, crossed.out, "    1  new(", "what is left of it is shown as calls")
}

func TestWhatAClassCannotBeIsSaidBeforeAnythingIsWritten(t *testing.T) {
	s := folder(t, nil)
	for _, tt := range []struct {
		args []string
		says string
	}{
		{[]string{"open", "radio", "--class", "Radio"}, "--class: \"Radio\" is no class with its methods"},
		{[]string{"open", "radio", "--class", "Radio(); put(", "--lang", "python"}, "--class: "},
		{[]string{"open", "radio", "--class", "Radio(); count() -> int", "--call", "f() -> int"}, "a solution is a function or a class"},
		{[]string{"open", "radio", "--class", "Radio(); count() -> int", "--lang", "lua"}, "problems that ask for a class cannot be served in Lua"},
	} {
		got := s.ask(t, tt.args...)
		assert.Equal(t, 64, got.status, tt.args)
		assert.Contains(t, got.errors, tt.says)
		assert.NoDirExists(t, filepath.Join(s.dir, "radio"))
	}
}

func TestAScriptOfStepsIsTriedAndShown(t *testing.T) {
	testenv.Need(t, "python3")
	table := "[call]\nname = \"settled\"\ntakes = [\"alarm: function\", \"pause: int\"]\nreturns = \"function\"\n"
	cases := "## burst\n```call\npause: 50\n```\n```script\nat 0: call(1)\nat 20: call(2)\nat 60: expect calls = 0\nat 70: expect calls = 1\nexpect last = [2]\n```\n"
	right := "from threading import Timer\n\ndef settled(alarm, pause):\n    timer = None\n\n    def call(*args):\n        nonlocal timer\n        if timer: timer.cancel()\n        timer = Timer(pause / 1000, alarm, args)\n        timer.start()\n\n    return call\n"
	s := folder(t, map[string]string{"verdict.toml": table, "cases.md": cases, "right.py": right, "wrong.py": strings.Replace(right, "        if timer: timer.cancel()\n", "", 1)})
	got := s.run(t, "try", "right.py")
	assert.Zero(t, got.status, got.out)
	got = s.run(t, "try", "wrong.py")
	assert.Equal(t, 1, got.status)
	assert.Contains(t, got.out, "step 3, at 60: expect calls: expected 0, got 1")
	assert.Contains(t, got.out, "[null, null, 0, 1, [2]]", "what is not said is shown as it came")
}
