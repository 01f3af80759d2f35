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

// looking is a problem with a shape, limits and a sample: the heaviest crate, and how often it is
// there.
var looking = map[string]string{
	"input.shape":  "n: int 1..20000\nw: int[n] 1..1e9\n",
	"verdict.toml": "[limits]\ntime = \"1s\"\nmemory = \"64MiB\"\n",
	"cases.md":     "# Samples\n\n## one\n```input\n3\n5 7 7\n```\n```output\n7 2\n```\n",
}

const heaviest = `#include <stdio.h>
int main(void) {
    static int w[20001];
    int n, most = 0, times = 0;
    if (scanf("%d", &n) != 1) return 1;
    for (int i = 0; i < n; i++) {
        if (scanf("%d", w + i) != 1) return 1;
        if (w[i] > most) { most = w[i]; times = 0; }
        times += w[i] == most;
    }
    printf("%d %d\n", most, times);
}
`

func TestReadyStopsWhatIsWrongAndLetsPassWhatIsRight(t *testing.T) {
	testenv.Need(t, "gcc")
	change := func(old, new string) string {
		require.Contains(t, heaviest, old)
		return strings.Replace(heaviest, old, new, 1)
	}
	for _, tt := range []struct {
		name, source string
		reference    bool
		status       int
		last         string // the check that it ends with
		says         string
	}{
		{"it does not build", change("int n,", "int n;;"), true, 1, "build", "it does not build"},
		{"the sample fails", change("%d %d\\n\", most, times", "%d\\n\", most"), true, 1, "samples", "samples/one: wrong answer"},
		{"a border", change("static int w[20001]", "static int w[2000]"), false, 1, "", "not ready"},
		{"an index that is out of range, without a crash", change("if (w[i] > most)", "if (n > 4 && w[i + 20001] > 0) times++;\n        if (w[i] > most)"), false, 1, "", "not ready"},
		{"a rare answer", change("times = 0; }", "times = w[i] == 4 ? 1 : 0; }"), true, 1, "", "expected"},
		{"slow on what is largest", change("times += w[i] == most;", "times = 0; for (int j = 0; j <= i; j++) for (int k = 0; k < 9; k++) times += (w[j] == most) * (k == 0);"), true, 1, "", "time limit exceeded"},
		{"another answer each time", change("times += w[i] == most;", "times += w[i] == most;\n        if (n > 3) { struct timespec t; clock_gettime(CLOCK_MONOTONIC, &t); times += t.tv_nsec % 2; }"), false, 1, "", "every run"},
		{"a header of one's own", "#include \"own.h\"\n" + heaviest, true, 1, "source", "own.h is a file of your own"},
	} {
		t.Run(tt.name, func(t *testing.T) {
			source := tt.source
			if strings.Contains(source, "clock_gettime") {
				source = "#include <time.h>\n" + source
			}
			files := map[string]string{"heaviest.c": source, "own.h": ""}
			for name, text := range looking {
				files[name] = text
			}
			args := []string{"ready", "heaviest.c", "--seconds", "200", "--seed", "1"} // it ends when it has found something
			if tt.reference {
				files["sure.c"] = heaviest
				args = append(args, "--against", "sure.c")
			}
			s := folder(t, files)
			got := s.run(t, args...)
			assert.Equal(t, tt.status, got.status, got.out+got.errors)
			assert.Contains(t, got.out, tt.says)
			if tt.last == "" || testenv.Of(2, 1) == 1 && tt.last != "samples" {
				return
			}
			got = s.run(t, append(args, "--json")...)
			schema, err := jsonschema.NewCompiler().Compile("../../docs/ready.schema.json")
			require.NoError(t, err)
			value, err := jsonschema.UnmarshalJSON(strings.NewReader(got.out))
			require.NoError(t, err)
			require.NoError(t, schema.Validate(value))
			var said struct{ Checks []struct{ Name string } }
			require.NoError(t, json.Unmarshal([]byte(got.out), &said))
			assert.Equal(t, tt.last, said.Checks[len(said.Checks)-1].Name)
		})
	}
}

func TestReadyDoesNotStopWhatIsRight(t *testing.T) {
	testenv.Need(t, "gcc")
	files := map[string]string{"heaviest.c": heaviest, "sure.c": heaviest}
	for name, text := range looking {
		files[name] = text
	}
	s := folder(t, files)
	got := s.run(t, "ready", "heaviest.c", "--against", "sure.c", "--seconds", "6")
	assert.NotEqual(t, 1, got.status, got.out+got.errors)
	assert.Regexp(t, `heaviest.c: ready( as far as can be told)?\n`, got.out)
	require.NoError(t, os.Remove(filepath.Join(s.dir, "sure.c")))
	got = s.run(t, "ready", "heaviest.c", "--seconds", "6")
	assert.Equal(t, 10, got.status, got.out+got.errors)
	assert.Regexp(t, "Nobody knows whether its answers are right beyond the cases|No generated input was tried", got.out)
}

func TestReadyBlamesNobodyForABrokenChecker(t *testing.T) {
	testenv.Need(t, "gcc")
	for name, checker := range map[string]string{"check.c": "int main(void) { return 0 }\n", "fails.c": "int main(void) { return 99; }\n"} {
		files := map[string]string{"heaviest.c": heaviest, name: checker, "cases.md": looking["cases.md"], "verdict.toml": "[compare]\nprogram = \"" + name + "\"\n"}
		got := folder(t, files).run(t, "ready", "heaviest.c")
		assert.Equal(t, 70, got.status, got.out+got.errors)
		assert.Contains(t, got.errors, name)
	}
}

func TestReadyAsksAboutWhatWorksEverywhere(t *testing.T) {
	testenv.Need(t, "gcc")
	files := map[string]string{"heaviest.c": strings.Replace(heaviest, "int n,", "int top = 1 << 31;\n    int n = top & 1,", 1)}
	files["cases.md"] = looking["cases.md"] // without a shape it takes no time
	got := folder(t, files).run(t, "ready", "heaviest.c", "--seconds", "200")
	assert.Equal(t, 10, got.status, got.out+got.errors)
	assert.Regexp(t, `(?m)^look  checked build  it stops at what works everywhere, or may be meant`, got.out)
}

func TestReadyTakesAnotherAttemptForAReference(t *testing.T) {
	testenv.Need(t, "gcc")
	files := map[string]string{"other.c": heaviest, "heaviest.c": strings.Replace(heaviest, "times = 0; }", "times = w[i] == 4; }", 1), "never.c": "int main(void) { return 1; }\n"}
	for name, text := range looking {
		files[name] = text
	}
	got := folder(t, files).run(t, "ready", "heaviest.c", "--seconds", "200")
	assert.Equal(t, 1, got.status, got.out+got.errors)
	assert.Contains(t, strings.Join(strings.Fields(got.out), " "), "against other.c; one of the two is wrong")
}

func TestReadyTriesChangesThatMustNotMatter(t *testing.T) {
	testenv.Need(t, "gcc")
	files := map[string]string{"heaviest.c": strings.Replace(heaviest, "times += w[i] == most;", "times += w[i] == most && i < 6;", 1)}
	for name, text := range looking {
		files[name] = text
	}
	files["verdict.toml"] += "[[same]]\npermute = \"w\"\n"
	s := folder(t, files)
	got := s.run(t, "ready", "heaviest.c", "--seconds", "200")
	assert.Equal(t, 1, got.status, got.out+got.errors)
	assert.Contains(t, strings.Join(strings.Fields(got.out), " "), "(the elements of w in another order): wrong answer")
	for table, says := range map[string]string{
		"permute = \"n\"":                     "verdict.toml:4: permute = \"n\" is no array of input.shape",
		"relabel = \"w\"":                     "relabel = \"w\" is no tree or graph",
		"permute = \"w\"\nrelabel = \"w\"":    "a [[same]] says one change",
		"permute = \"w\"\n[judge]\nc = \"x\"": "c is \"x\"; write the version of the language",
	} {
		require.NoError(t, os.WriteFile(filepath.Join(s.dir, "verdict.toml"), []byte("[limits]\ntime = \"1s\"\n\n[[same]]\n"+table+"\n"), 0o644))
		got := s.run(t, "ready", "heaviest.c")
		assert.Equal(t, 64, got.status)
		assert.Contains(t, got.errors, says)
	}
}

func TestReadySaysWhatNobodyChecked(t *testing.T) {
	testenv.Need(t, "gcc")
	got := folder(t, map[string]string{"heaviest.c": heaviest, "1.in": "1\n4\n"}).run(t, "ready")
	assert.Equal(t, 10, got.status, got.out+got.errors)
	for _, words := range []string{"nothing says what inputs look like", "Nobody set a limit", "ready as far as can be told"} {
		assert.Contains(t, got.out, words)
	}
	s := folder(t, map[string]string{"heaviest.c": heaviest, "cases/a/1.in": "1\n4\n", "cases/b/1.in": "1\n4\n",
		"verdict.toml": "[[solution]]\nfile = \"heaviest.c\"\ngroups = [\"a\"]\nargs = [\"a\"]\n[[solution]]\nfile = \"heaviest.c\"\ngroups = [\"b\"]\nargs = [\"b\"]\n"})
	got = s.run(t, "ready", "heaviest.c")
	assert.Equal(t, 64, got.status)
	assert.Contains(t, got.errors, "choose one by its group: --group a")
	got = s.run(t, "ready", "heaviest.c", "--group", "b")
	assert.Equal(t, 10, got.status, got.errors)
	got = folder(t, looking).run(t, "ready", "--seconds", "0")
	assert.Equal(t, 64, got.status)
}

func TestFinalGivesOutWhatPassesAndNothingElse(t *testing.T) {
	testenv.Need(t, "gcc")
	files := map[string]string{"heaviest.c": "#include \"own.h\"\n" + heaviest, "own.h": "#include <stdlib.h>\n", "wrong.c": strings.Replace(heaviest, "times)", "n)", 1), "kept.c": "mine\n"}
	for name, text := range looking {
		files[name] = text
	}
	s := folder(t, files)
	got := s.run(t, "final", "heaviest.c")
	assert.Equal(t, 0, got.status, got.errors)
	assert.True(t, strings.HasPrefix(got.out, "#include <stdlib.h>\n#include <stdio.h>\n"), got.out)
	assert.Contains(t, got.errors, "accepted on 1 case")
	assert.Contains(t, got.errors, "put in own.h")
	s.env = append(s.env, "XDG_CONFIG_HOME="+s.dir)
	require.NoError(t, os.MkdirAll(filepath.Join(s.dir, "cold-verdict"), 0o755))
	settings := filepath.Join(s.dir, "cold-verdict", "settings.toml")
	require.NoError(t, os.WriteFile(settings, []byte("[judge]\nsource_limit = \"100B\"\n"), 0o644))
	got = s.run(t, "final", "heaviest.c")
	assert.Equal(t, 1, got.status)
	assert.Contains(t, got.errors, "and the judge takes 100")
	require.NoError(t, os.WriteFile(settings, []byte("[judge]\nclas = \"Main\"\n"), 0o644))
	got = s.run(t, "final", "heaviest.c")
	assert.Equal(t, 64, got.status)
	assert.Contains(t, got.errors, "settings.toml:2: ")
	require.NoError(t, os.Remove(settings))
	got = s.run(t, "final", "wrong.c")
	assert.Equal(t, 1, got.status)
	assert.Empty(t, got.out)
	assert.Contains(t, got.errors, "so it is not given out: samples/one: wrong answer")
	got = s.run(t, "final", "heaviest.c", "--out", "kept.c")
	assert.Equal(t, 64, got.status)
	text, err := os.ReadFile(filepath.Join(s.dir, "kept.c"))
	require.NoError(t, err)
	assert.Equal(t, "mine\n", string(text), "nothing is overwritten unasked")
	got = s.run(t, "final", "heaviest.c", "--out", "kept.c", "--yes")
	assert.Equal(t, 0, got.status, got.errors)
}
