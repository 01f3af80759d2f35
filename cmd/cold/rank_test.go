package main

import (
	"encoding/csv"
	"os"
	"path/filepath"
	"strings"
	"testing"

	"github.com/santhosh-tekuri/jsonschema/v6"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"coldverdict/internal/testenv"
)

// ranking is a problem with a solution, its copy, one that takes far longer, and a wrong one.
func ranking(t *testing.T) session {
	testenv.Need(t, "gcc")
	fast := "#include <stdio.h>\nint main(void) {\n int n; if (scanf(\"%d\", &n) != 1) return 1;\n for (volatile int i = 0; i < 9000000; i++) {}\n printf(\"%d\\n\", n);\n return 0;\n}\n"
	return folder(t, map[string]string{
		"fast.c": fast, "copy.c": fast, "slow.c": strings.Replace(fast, "9000000", "27000000", 1), "wrong.c": strings.Replace(fast, `\n", n`, `\n", n + 1`, 1),
		"cases/1.in": "4\n", "cases/1.out": "4\n", "cases/2.in": "7\n", "cases/2.out": "7\n",
	})
}

func TestRankTellsWhatIsFasterAndWhatIsNot(t *testing.T) {
	s := ranking(t)
	got := s.run(t, "rank", "slow.c", "fast.c", "copy.c", "--seconds", "3")
	assert.Equal(t, 0, got.status, got.errors)
	plain := strings.Join(strings.Fields(got.out), " ")
	assert.Regexp(t, `(fast|copy)\.c is [23]\.\d\d times as fast as slow\.c \(\d\.\d\d to \d\.\d\d\)`, plain)
	// One comparison with a copy in a hundred shows a difference, and then a small one.
	assert.Regexp(t, `(fast|copy)\.c and (fast|copy)\.c: no difference that \d+ rounds could show|(fast|copy)\.c is 1\.0\d times as fast as (fast|copy)\.c`, plain)
}

func TestRankWritesWhatProgramsRead(t *testing.T) {
	s := ranking(t)
	got := s.run(t, "rank", "fast.c", "slow.c", "wrong.c", "--case", "1", "--seconds", "1", "--json")
	assert.Equal(t, 1, got.status, "one of them is wrong: %s", got.errors)
	schema, err := jsonschema.NewCompiler().Compile("../../docs/rank.schema.json")
	require.NoError(t, err)
	value, err := jsonschema.UnmarshalJSON(strings.NewReader(got.out))
	require.NoError(t, err)
	require.NoError(t, schema.Validate(value))
	assert.Contains(t, got.out, `"verdict": "wrong answer"`)
	require.NoError(t, os.WriteFile(filepath.Join(s.dir, "input.shape"), []byte("n: int 1..1000\n"), 0o644))
	got = s.run(t, "rank", "fast.c", "slow.c", "--by-size", "--seconds", "2", "--json")
	assert.Equal(t, 0, got.status, got.errors)
	value, err = jsonschema.UnmarshalJSON(strings.NewReader(got.out))
	require.NoError(t, err)
	require.NoError(t, schema.Validate(value))
	got = s.run(t, "rank", "fast.c", "slow.c", "--by-size", "--seconds", "2")
	assert.Contains(t, got.out, "none of them change places; at the largest input fast.c takes least")
	got = s.run(t, "rank", "fast.c", "slow.c", "--seconds", "1", "--csv")
	rows, err := csv.NewReader(strings.NewReader(got.out)).ReadAll()
	require.NoError(t, err)
	require.Len(t, rows, 3)
	assert.Equal(t, []string{"solution", "fast.c", "slow.c"}, []string{rows[0][0], rows[1][0], rows[2][0]})
	got = s.run(t, "rank", "fast.c", "slow.c", "--seconds", "1", "--markdown")
	assert.Regexp(t, `(?s)^\| solution \|.*\n\| --- \|.*\n\| fast\.c \| ranked \|.*\n\| slow\.c \| ranked \|`, got.out)
}

func TestRankRefusesWhatItCannotDo(t *testing.T) {
	for _, tt := range []struct {
		name string
		args []string
		says string
	}{
		{"one solution", []string{"a.py"}, "name two at least"},
		{"no time", []string{"a.py", "b.py", "--seconds", "-1"}, "--seconds is -1"},
		{"two forms", []string{"a.py", "b.py", "--csv", "--json"}, "standard output can have one form"},
		{"a case that is none", []string{"a.py", "b.py", "--case", "nine"}, "nine"},
		{"a solution that is none", []string{"a.py", "c.py"}, "c.py"},
	} {
		t.Run(tt.name, func(t *testing.T) {
			s := folder(t, map[string]string{"a.py": "print(1)\n", "b.py": "print(1)\n", "1.in": "1\n", "1.out": "1\n"})
			got := s.ask(t, append([]string{"rank"}, tt.args...)...)
			assert.Equal(t, 64, got.status, got.errors)
			assert.Contains(t, got.errors, tt.says)
		})
	}
}
