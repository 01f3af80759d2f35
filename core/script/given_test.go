package script

import (
	"os"
	"path/filepath"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"coldverdict/core/value"
)

func TestAGivenFunctionIsAnsweredByItsScript(t *testing.T) {
	path := filepath.Join(t.TempDir(), "pipe.star")
	require.NoError(t, os.WriteFile(path, []byte("def is_leaky(case, joint, words):\n    return joint >= case.first and words[0] == case.values_of[1]\n"+
		"def loops(case):\n    while True:\n        pass\ndef odd(case):\n    return 'x'\ndef none(case):\n    return odd\ndef fails(case):\n    return case.first[0]\nroom = 3\n"), 0o600))
	g, err := OpenGiven(path)
	require.NoError(t, err)
	names, data := []string{"first", "values_of"}, []any{int64(4), []any{"a", "b"}}
	boolean, whole := value.Type{Kind: value.Bool}, value.Type{Kind: value.Int}
	for joint, leaks := range map[int64]bool{3: false, 4: true} {
		answer, err := g.Answer("is_leaky", names, data, []any{joint, []any{"b"}}, boolean)
		require.NoError(t, err)
		assert.Equal(t, leaks, answer)
	}
	for name, says := range map[string]string{
		"loops": "passed 20000000 steps; does a loop have no end?", "odd": `odd returned "x": expected an int`, "none": "none returned", "fails": "pipe.star:11:22: in fails", "room": "pipe.star defines no room; write def room(case, …)", "": "defines no",
	} {
		_, err := g.Answer(name, names, data, nil, whole)
		assert.ErrorContains(t, err, says, name)
	}
	require.NoError(t, os.WriteFile(path, []byte("def is_leaky(case:\n"), 0o600))
	_, err = OpenGiven(path)
	assert.ErrorContains(t, err, "pipe.star:1")
	_, err = OpenGiven(path + "x")
	assert.Error(t, err)
}
