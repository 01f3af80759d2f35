package script

import (
	"os"
	"path/filepath"
	"strings"
	"sync"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"coldverdict/core/shape"
)

func predicate(t *testing.T, text string) (shape.Predicate, error) {
	path := filepath.Join(t.TempDir(), "valid.star")
	require.NoError(t, os.WriteFile(path, []byte(text), 0o644))
	return Predicate(path)
}

func TestAPredicateSaysInWordsWhatIsInvalid(t *testing.T) {
	s, err := shape.Parse("n: int 1..9\na: int[n] 1..9\nholds \"valid.star\"")
	require.NoError(t, err)
	valid, err := predicate(t, "most = 5\n\ndef holds(input):\n    for i, x in enumerate(input.a):\n        if x > most:\n            return \"a[%d] is %d\" % (i, x)\n    return input.n != 3\n")
	require.NoError(t, err)
	s.Hold(0, valid)
	for text, says := range map[string]string{"2\n1 5\n": "", "2\n1 7\n": "valid.star: a[1] is 7", "3\n1 1 1\n": "valid.star: it is said to be invalid", "2\n1 10\n": "line 2, 2nd value: a[1] is 10"} {
		fault, err := s.Check(strings.NewReader(text), shape.Options{})
		require.NoError(t, err)
		if says == "" {
			assert.Nil(t, fault)
		} else if assert.NotNil(t, fault, text) {
			assert.Contains(t, fault.Error(), says)
		}
	}
	var all sync.WaitGroup // by several at once
	for seed := range shape.Seed(8) {
		all.Go(func() {
			for range 20 {
				in, err := s.Make(shape.Making{Seed: seed, Size: shape.Largest / 2})
				if assert.NoError(t, err) {
					fault, err := s.Check(strings.NewReader(string(in.Append(nil))), shape.Options{})
					assert.NoError(t, err)
					assert.Nil(t, fault)
				}
			}
		})
	}
	all.Wait()
}

func TestWhatIsNoPredicateIsSaid(t *testing.T) {
	for text, says := range map[string]string{
		"def valid(input):\n    return True\n": "valid.star defines no holds; write def holds(input):",
		"def holds(input:\n":                   "valid.star:1",
		"def holds(input):\n    return yes\n":  "valid.star:2:12: undefined: yes",
	} {
		_, err := predicate(t, text)
		assert.ErrorContains(t, err, says)
	}
	for text, says := range map[string]string{
		"def holds(input):\n    return 1\n":                     "holds returned 1; it must return True, or in words",
		"def holds(input):\n    return input.a[9]\n":            "in holds: list index 9 out of range",
		"def holds(input):\n    while True:\n        pass\n":    "passed 20000000 steps",
		"x = [1][2]\ndef holds(input):\n    return True\n":      "index 2 out of range",
		"seen = []\ndef holds(input):\n    seen.append(1)\n":    "frozen",
		"def holds(input):\n    input.a.append(1)\n":            "holds returned None",
		"def holds(input):\n    return len(input.a) == \"1\"\n": "",
	} {
		valid, err := predicate(t, text)
		require.NoError(t, err, text)
		why, err := valid(shape.Values{{Name: "a", Value: []any{int64(3)}}})
		if says == "" {
			assert.NoError(t, err)
			assert.NotEmpty(t, why)
			continue
		}
		assert.ErrorContains(t, err, says)
	}
}
