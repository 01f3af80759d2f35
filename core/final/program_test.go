//go:build linux

package final

import (
	"path/filepath"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"coldverdict/core/judge"
	"coldverdict/core/problem"
	"coldverdict/core/shape"
	"coldverdict/core/toolchain"
	"coldverdict/core/verdict"
	"coldverdict/internal/testenv"
)

// loaded reads a problem of which every source is right.
func loaded(t *testing.T, dir string) *problem.Problem {
	t.Helper()
	languages := toolchain.Ours()
	p, err := problem.Load(dir, problem.Vocabulary{Languages: languages.NamesWithStandards(), LimitNames: languages.Names(), IsSource: languages.IsSource})
	require.NoError(t, err)
	return p
}

// tried makes a source something else and runs all cases with that.
func tried(t *testing.T, p *problem.Problem, file string, as As) (Made, Trial) {
	t.Helper()
	s := problem.Solution{File: file}
	language, _, err := toolchain.Ours().Choose(file, "")
	require.NoError(t, err)
	made, err := Make(p, s, language, as)
	require.NoError(t, err)
	trial, err := Try(t.Context(), p, judge.Env{Cache: testenv.SharedDir()}, judge.BuildOptions{}, s, &made, func(judge.Event) {})
	require.NoError(t, err)
	if trial.Verdict == verdict.Skipped {
		testenv.Missing(t, trial.Why)
	}
	return made, trial
}

func TestFunctionsBecomeProgramsAndBack(t *testing.T) {
	t.Parallel()
	for _, dir := range []string{"testdata/survey", "testdata/ropes", "testdata/names", "testdata/failing", "../../demo/problems/thaw"} {
		p := loaded(t, dir)
		for _, file := range p.Sources {
			if i := slices.IndexFunc(p.Solutions, func(s problem.Solution) bool { return s.File == file && (s.Role != "" || s.Expect != "") }); i >= 0 {
				continue
			}
			t.Run(filepath.Base(dir)+"/"+file, func(t *testing.T) {
				t.Parallel()
				testenv.SweepUnlessQuick(t, file)
				accepted := Trial{Verdict: verdict.Accepted, Cases: len(p.Cases)}
				asProgram := accepted
				for _, c := range p.Cases {
					if c.Raises != nil { // of which a program prints nothing
						asProgram.Cases--
					}
				}
				made, trial := tried(t, p, file, Program)
				assert.Equal(t, asProgram, trial, "%s", made.Text)
				assert.Equal(t, asProgram != accepted, slices.ContainsFunc(made.Notes, func(note string) bool {
					return strings.HasPrefix(note, "not tried as a program: 1 case in which the function must fail")
				}))
				made, trial = tried(t, p, file, Function)
				assert.Equal(t, accepted, trial, "%s", made.Text)
			})
		}
	}
}

// TestFunctionsInAnyStyleBecomePrograms takes functions as people write them.
func TestFunctionsInAnyStyleBecomePrograms(t *testing.T) {
	testenv.Sweep(t, "it builds sixty sources twice")
	refused := map[string]string{
		"Inner.java": "an enclosing instance", "inner.kt": "inner class", // an object within an object
		"decorated.py": "got called", // it prints something of its own
	}
	for dir, text := range map[string]string{"thin": "temps: int[0..9]\nby: int", "warm-days": "temps: int[0..9]\nlimit: int"} {
		p := loaded(t, filepath.Join("../judge/solutions/testdata/honest", dir))
		var err error
		p.Shape, err = shape.ParseArguments(text, p.Call.Takes)
		require.NoError(t, err)
		for _, file := range p.Sources {
			slow := strings.HasSuffix(file, ".kt") || strings.HasSuffix(file, ".java") || strings.HasSuffix(file, ".cs") // of which a few will do
			if slices.Contains([]string{".h", ".hs", ".ml", ".nim", ".pas", ".scala"}, filepath.Ext(file)) || slow && dir == "warm-days" && refused[file] == "" && file != "object.kt" && file != "Inherited.java" && file != "abstract.cs" {
				continue
			}
			t.Run(dir+"/"+file, func(t *testing.T) {
				t.Parallel()
				made, trial := tried(t, p, file, Program)
				if why, ok := refused[file]; ok {
					assert.Contains(t, trial.Why, why)
					return
				}
				assert.Equal(t, Trial{Verdict: verdict.Accepted, Cases: len(p.Cases)}, trial, "%s", made.Text)
			})
		}
	}
}

func TestWhatNoProgramCanReadIsSaid(t *testing.T) {
	for _, tt := range []struct{ name, call, shape, says string }{
		{"no shape", "f(a: int) -> int", "", "there is no input.shape"},
		{"lines that say too little", "f(a: int[], b: int) -> int", "a: int[1..3], b: int", "1:1: so many values"},
		{"absent values", "f(a: int?) -> int", "a: int 1..3", "may be absent"},
		{"too many dimensions", "f(a: int) -> int[][][]", "a: int 1..3", "3 dimensions"},
		{"a size that is computed", "f(n: int, a: int[]) -> int", "n: int 1..3\na: int[n/2]", "2:8: how many there are"},
		{"a value without a name", "f(a: text) -> int", "a: token(1..3, \"a-z\")", ""},
	} {
		t.Run(tt.name, func(t *testing.T) {
			call, err := problem.ParseCall(tt.call)
			require.NoError(t, err)
			p := &problem.Problem{Dir: t.TempDir(), Call: call}
			if tt.shape != "" {
				p.Shape, err = shape.ParseArguments(tt.shape, call.Takes)
				require.NoError(t, err)
			}
			require.NoError(t, problem.WriteWhole(filepath.Join(p.Dir, "f.py"), []byte("def f(*a):\n    return 1\n"), 0o644))
			language, _, err := toolchain.Ours().Choose("f.py", "")
			require.NoError(t, err)
			_, err = Make(p, problem.Solution{File: "f.py"}, language, Program)
			if tt.says == "" {
				assert.NoError(t, err)
				return
			}
			assert.ErrorContains(t, err, tt.says)
		})
	}
	language, _, err := toolchain.Ours().Choose("f.py", "")
	require.NoError(t, err)
	_, err = Make(&problem.Problem{}, problem.Solution{File: "f.py"}, language, Function)
	assert.ErrorContains(t, err, "verdict.toml has no [call]")
}

// TestWhatIsLeftToJudgesIsWrittenIn takes sources as people paste them.
func TestWhatIsLeftToJudgesIsWrittenIn(t *testing.T) {
	t.Parallel()
	p := loaded(t, "testdata/busiest")
	for _, tt := range []struct{ file, has string }{
		{"busiest.c", "#include <stdlib.h>\n#include <string.h>\n"}, {"busiest.cpp", "#include <vector>\nusing namespace std;\n"}, {"busiest.py", "from collections import Counter\n"},
		{"Busiest.java", "import java.util.*;\nimport java.util.stream.*;\n"}, {"busiest.cs", "using System.Linq;\n"}, {"busiest.go", "import \"sort\"\n"}, {"busiest.rs", "use std::collections::{BinaryHeap, HashMap};\n"},
	} {
		t.Run(tt.file, func(t *testing.T) {
			t.Parallel()
			testenv.SweepUnlessQuick(t, tt.file)
			accepted := Trial{Verdict: verdict.Accepted, Cases: len(p.Cases)}
			made, trial := tried(t, p, tt.file, Itself)
			assert.Equal(t, accepted, trial, "%s", made.Text)
			assert.Contains(t, string(made.Text), tt.has)
			supplying := *p
			supplying.Judge.Imports = true
			made, trial = tried(t, &supplying, tt.file, Itself)
			assert.Equal(t, accepted, trial, "%s", made.Text)
			assert.NotContains(t, string(made.Text), tt.has)
			bare, function := *p, *p.Call
			function.Bare, bare.Call = true, &function
			_, trial = tried(t, &bare, tt.file, Itself)
			assert.NotEqual(t, verdict.Accepted, trial.Verdict)
		})
	}
}
