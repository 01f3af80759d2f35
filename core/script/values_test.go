package script

import (
	"bytes"
	"math"
	"math/big"
	"os"
	"path/filepath"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestACheckerOfAFunctionSeesValues(t *testing.T) {
	huge, _ := new(big.Int).SetString("123456789012345678901234567890", 10)
	for _, tt := range []struct{ body, says string }{
		{"return reject(str(case.values.temps) + str(case.values.limit))", "reject [4, -2]123456789012345678901234567890\n"},
		{"return reject(str(case.values['from']) + str(len(case.values)))", "reject ice \"2\"3\n"},
		{"return reject(str(sorted([name for name in case.values])))", "reject [\"from\", \"limit\", \"temps\"]\n"},
		{"return reject(str(got.value) + str(type(got.value[0])))", "reject [1.5, \"NaN\"]float\n"},
		{"return accept() if expected.value == None else reject('known')", "accept\n"},
		{"return reject(got.text)", "reject [1.5, NaN]\n"},
	} {
		folder := t.TempDir()
		for name, text := range map[string]string{InputFile: "temps = [4, -2]\n", GotFile: "[1.5, NaN]\n", ExpectedFile: ""} {
			require.NoError(t, os.WriteFile(filepath.Join(folder, name), []byte(text), 0o644))
		}
		err := WriteValues(folder, []string{"temps", "limit", "from"}, []any{[]any{int64(4), int64(-2)}, huge, "ice \"2\""}, []any{1.5, math.NaN()}, nil)
		require.NoError(t, err)
		var out bytes.Buffer
		require.NoError(t, decide(write(t, "def decide(case, got, expected):\n    "+tt.body+"\n"), folder, &out), tt.body)
		assert.Equal(t, tt.says, out.String(), tt.body)
	}
}

func TestValuesAreThereInFunctionProblemsOnly(t *testing.T) {
	for _, body := range []string{"return reject(str(case.values))", "return reject(str(got.value))"} {
		_, err := decided(t, body, "7")
		assert.ErrorContains(t, err, "has no .value")
	}
	folder := t.TempDir()
	for _, name := range []string{InputFile, GotFile, ExpectedFile} {
		require.NoError(t, os.WriteFile(filepath.Join(folder, name), nil, 0o644))
	}
	require.NoError(t, WriteValues(folder, []string{"a"}, []any{true}, "x", "y"))
	for _, body := range []string{"return reject(str(case.value))", "return reject(str(got.values))", "return reject(case.values.b)"} {
		err := decide(write(t, "def decide(case, got, expected):\n    "+body+"\n"), folder, &bytes.Buffer{})
		assert.Error(t, err, body)
	}
	require.NoError(t, os.WriteFile(filepath.Join(folder, valuesFile), []byte("{"), 0o644))
	assert.Error(t, decide(write(t, "def decide(case, got, expected):\n    return accept()\n"), folder, &bytes.Buffer{}))
}
