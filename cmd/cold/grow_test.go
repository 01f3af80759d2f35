package main

import (
	"encoding/json"
	"os"
	"path/filepath"
	"strings"
	"testing"

	"github.com/santhosh-tekuri/jsonschema/v6"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"coldverdict/internal/testenv"
)

// pairsOf compares all pairs of weights, and lines only neighbours.
const (
	growing = "n: int 1..200000\nw: int[n] 1..1000000\n"
	pairsOf = "#include <stdio.h>\nint w[200001];\nint main(void) {\n int n; if (scanf(\"%d\", &n) != 1) return 1;\n for (int i = 0; i < n; i++) if (scanf(\"%d\", w + i) != 1) return 1;\n" +
		" long s = 0;\n for (int i = 0; i < n; i++) for (volatile int k = 0; k < i; k++) s += w[k] > w[i];\n printf(\"%ld\\n\", s);\n return 0;\n}\n"
)

func TestGrowTellsLawAndPredictionForPeopleAndPrograms(t *testing.T) {
	testenv.Need(t, "gcc")
	s := folder(t, map[string]string{
		"input.shape": growing, "pairs.c": pairsOf, "lines.c": strings.Replace(pairsOf, "k < i", "k < i && k < 3", 1),
		"verdict.toml": "[limits]\ntime = \"1s\"\nmemory = \"64MiB\"\n",
	})
	got := s.run(t, "grow", "pairs.c", "lines.c", "--seconds", "4", "--json", "--svg", "a.svg", "--png", "a.png")
	assert.Equal(t, 1, got.status, got.errors)
	schema, err := jsonschema.NewCompiler().Compile("../../docs/grow.schema.json")
	require.NoError(t, err)
	value, err := jsonschema.UnmarshalJSON(strings.NewReader(got.out))
	require.NoError(t, err)
	require.NoError(t, schema.Validate(value))
	var said struct {
		Solutions []struct {
			File string
			Time struct{ Law, Fits string }
		}
	}
	require.NoError(t, json.Unmarshal([]byte(got.out), &said))
	require.Len(t, said.Solutions, 2)
	pairs, lines := said.Solutions[0].Time, said.Solutions[1].Time
	// Which laws are found depends on how busy the machine is; core/growth tries that on a clock of its own.
	assert.Equal(t, "no", pairs.Fits)
	assert.NotEmpty(t, pairs.Law)
	assert.Equal(t, "yes", lines.Fits)
	assert.NotEmpty(t, lines.Law)
	for file, begins := range map[string]string{"a.svg": "<?xml", "a.png": "\x89PNG"} {
		text, err := os.ReadFile(filepath.Join(s.dir, file))
		require.NoError(t, err)
		assert.True(t, strings.HasPrefix(string(text), begins), file)
	}
	got = s.run(t, "grow", "pairs.c", "--seconds", "3")
	assert.Equal(t, 1, got.status, got.errors)
	assert.Contains(t, got.out, "pairs.c grows with n up to 200,000")
	assert.Contains(t, got.out, "limit 1 s")
	assert.Regexp(t, `time: \S+`, got.out)
	assert.Contains(t, got.out, "pairs.c: the largest input does not fit, in time")
}

func TestGrowRefusesWhatItCannotDo(t *testing.T) {
	for _, tt := range []struct {
		name, shape string
		args        []string
		says        string
	}{
		{"no shape", "", nil, "input.shape"},
		{"a name that is none", growing, []string{"--scale", "m"}, `no integer with bounds is called "m"`},
		{"no time", growing, []string{"--seconds", "0"}, "--seconds is 0"},
		{"a seed that is none", growing, []string{"--seed", "x"}, "--seed"},
		{"a folder that is not there", growing, []string{"--svg", "nowhere/a.svg"}, "--svg"},
	} {
		t.Run(tt.name, func(t *testing.T) {
			files := map[string]string{"a.py": "print(1)\n"}
			if tt.shape != "" {
				files["input.shape"] = tt.shape
			}
			got := folder(t, files).ask(t, append([]string{"grow", "a.py"}, tt.args...)...)
			assert.Equal(t, 64, got.status, got.errors)
			assert.Contains(t, got.errors, tt.says)
		})
	}
}
