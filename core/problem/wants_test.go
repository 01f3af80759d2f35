package problem

import (
	"os"
	"path/filepath"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"coldverdict/core/verdict"
)

func TestAPersonsOwnSettingsAreReadWithTheirLines(t *testing.T) {
	s, mistakes := ReadSettings("settings.toml", []byte(`language = "cpp"
jobs = 2
editor = "vi -p"
colour = "auto"

[flags]
cpp = ["-DLOCAL", "-g"]

[compare]
relative = 1e-9

[judge]
class = "Main"
cpp = "17"
source_limit = "64KiB"
imports = true
`), words)
	require.Empty(t, mistakes)
	assert.Equal(t, Settings{
		Judge:    Judge{Class: "Main", Versions: map[string]string{"cpp": "17"}, SourceLimit: 64 << 10, Imports: true},
		Language: "cpp", Jobs: 2, Editor: "vi -p", Flags: map[string][]string{"cpp": {"-DLOCAL", "-g"}}, Relative: 1e-9,
		Lines: map[string]int{"language": 1, "jobs": 2, "editor": 3, "warm": 0, "history": 0, "colour": 4, "compare.absolute": 0, "compare.relative": 10, "flags.cpp": 7},
	}, s)
}

func TestMistakesInSettingsAreToldWithWhatToWrite(t *testing.T) {
	for text, says := range map[string]string{
		"language = \"cp\"\n":                  `settings.toml:1: language is "cp"; did you mean`,
		"jobs = 0\n":                           `settings.toml:1: jobs is 0; it can be 1 to 256`,
		"jobs = 257\n":                         `settings.toml:1: jobs is 257; it can be 1 to 256`,
		"jobs = \"2\"\n":                       `settings.toml:1: jobs is 2; it can be 1 to 256`,
		"colour = \"red\"\n":                   `settings.toml:1: colour is "red"; it can be "always", "auto" or "never"`,
		"[flags]\nfortran = [\"-O2\"]\n":       `settings.toml:2: unknown key "flags.fortran"`,
		"[flags]\ncpp = \"-O2\"\n":             `settings.toml:2: flags.cpp must be a list of texts`,
		"[compare]\nmode = \"exact\"\n":        `settings.toml:2: unknown key "compare.mode"`,
		"[judge]\ncpp = \"c++17\"\n":           `settings.toml:2: judge.cpp is "c++17"; write the version of the language, such as "17" or "3.8"`,
		"[judge]\ncpp = \"\"\n":                `settings.toml:2: judge.cpp is ""; write the version`,
		"[judge]\nsource_limit = \"a lot\"\n":  `settings.toml:2: judge.source_limit: "a lot" is no size; write one such as "256MiB"`,
		"limits = \"none\"\n":                  `settings.toml:1: unknown key "limits"`,
		"language = \"cpp\"\nlanguage = \"c\"": `settings.toml:`,
	} {
		_, mistakes := ReadSettings("settings.toml", []byte(text), words)
		require.NotEmpty(t, mistakes, text)
		assert.ErrorContains(t, mistakes, says, text)
	}
}

func TestWhatAProblemSaysOfTheJudgeComesBeforeAPersonsOwn(t *testing.T) {
	own := Judge{Class: "Main", Versions: map[string]string{"cpp": "17", "python": "3.8"}, SourceLimit: 1000, Imports: true}
	assert.Equal(t, own, Judge{}.Over(own))
	assert.Equal(t, Judge{"Docks", map[string]string{"cpp": "20", "python": "3.8"}, 64, true},
		Judge{Class: "Docks", Versions: map[string]string{"cpp": "20"}, SourceLimit: 64}.Over(own))
	assert.Equal(t, map[string]string{"cpp": "17", "python": "3.8"}, own.Versions, "what was given stays as it was")
}

func TestASolutionMeetsWhatIsExpectedOfIt(t *testing.T) {
	for _, tt := range []struct {
		expect string
		got    verdict.Verdict
		met    bool
	}{
		{"", verdict.Accepted, true},
		{"", verdict.Unjudged, false},
		{"", verdict.Partial, false},
		{"wrong answer", verdict.WrongAnswer, true},
		{"wrong answer", verdict.Accepted, false},
		{"wrong answer", verdict.RuntimeError, false},
		{"time limit exceeded", verdict.TimeLimit, true},
	} {
		assert.Equal(t, tt.met, Solution{Expect: tt.expect}.Met(tt.got), "%s, %s", tt.expect, tt.got)
	}
}

func TestSolutionsOfDifferentPartsAnswerDifferentQuestions(t *testing.T) {
	all, first, second, both := Solution{}, Solution{Groups: []string{"longest"}}, Solution{Groups: []string{"most"}}, Solution{Groups: []string{"most", "longest"}}
	for _, tt := range []struct {
		a, b Solution
		same bool
	}{{all, first, true}, {first, all, true}, {first, second, false}, {second, first, false}, {first, both, true}, {both, second, true}, {first, first, true}} {
		assert.Equal(t, tt.same, tt.a.AnswersWith(tt.b), "%v %v", tt.a.Groups, tt.b.Groups)
	}
	assert.True(t, all.Runs("samples"))
	assert.False(t, first.Runs("samples"))
	assert.True(t, Solution{Groups: []string{"longest"}, Also: "samples"}.Runs("samples"))
}

func TestSourcesPlayThePartsOfTheirNames(t *testing.T) {
	for _, tt := range []struct {
		name       string
		files      []string
		config     string
		references []string
		chosen     string // "": none can be
	}{
		{"a reference beside a candidate", []string{"docks.cpp", "brute.py"}, "", []string{"brute.py"}, "docks.cpp"},
		{"the name decides, not its letters' case", []string{"docks.cpp", "Slow.py"}, "", []string{"Slow.py"}, "docks.cpp"},
		{"one that is like it is none", []string{"brute2.py"}, "", nil, "brute2.py"},
		{"parts of a checker", []string{"checker.cpp", "gen.py", "interactor.cpp", "validator.py", "docks.cpp"}, "", nil, "docks.cpp"},
		{"nothing but parts", []string{"checker.cpp", "brute.py"}, "", []string{"brute.py"}, ""},
		{"a candidate by verdict.toml", []string{"brute.py"}, "[[solution]]\nfile = \"brute.py\"\n", nil, "brute.py"},
		{"a reference by verdict.toml", []string{"brute.py", "docks.cpp", "sure.py"}, "[[solution]]\nfile = \"sure.py\"\nrole = \"reference\"\n", []string{"sure.py"}, "docks.cpp"},
		{"several", []string{"slow.cpp", "brute.py", "reference.py", "docks.cpp"}, "", []string{"reference.py", "brute.py", "slow.cpp"}, "docks.cpp"},
	} {
		t.Run(tt.name, func(t *testing.T) {
			files := map[string]string{}
			for _, name := range tt.files {
				files[name] = ""
			}
			if tt.config != "" {
				files[ConfigFile] = tt.config
			}
			p := load(t, files)
			for i, name := range tt.files { // edited last: what is no candidate
				when := time.Now().Add(time.Duration(i) * time.Second)
				if name == tt.chosen {
					when = time.Now().Add(-time.Hour)
				}
				require.NoError(t, os.Chtimes(filepath.Join(p.Dir, name), when, when))
			}
			var references []string
			for _, s := range p.Solutions {
				if s.Role == Reference {
					references = append(references, s.File)
				}
			}
			assert.Equal(t, tt.references, references)
			chosen, err := p.ChooseCandidate()
			if tt.chosen == "" {
				require.ErrorContains(t, err, "or by their names, these have other parts")
				return
			}
			require.NoError(t, err)
			assert.Equal(t, tt.chosen, chosen.File)
		})
	}
}

func TestAClassIsReadFromOneLine(t *testing.T) {
	call, err := ParseClass(" BeaconCache(room: int); put(beacon: int, reading: text) ;get(beacon: int) -> text?; size() -> int; ")
	require.NoError(t, err)
	assert.Equal(t, "BeaconCache", call.Name)
	require.Len(t, call.Class.Methods, 3)
	assert.Equal(t, "put(beacon: int, reading: text)", call.Class.Methods[0].String())
	assert.Equal(t, "get(beacon: int) -> text?", call.Class.Methods[1].String())
	assert.Equal(t, "size() -> int", call.Class.Method("size").String())
	assert.Nil(t, call.Class.Method("fetch"))
	for text, says := range map[string]string{
		"":                                    "is no class with its methods",
		"Log()":                               "is no class with its methods",
		"Log() -> int; put()":                 "is no class with its methods",
		"Log; put()":                          "is no class with its methods",
		"Log(); put(); put(n: int)":           "put cannot name a further method",
		"Log(); new()":                        "new cannot name a further method",
		"Log(); put(n: integer)":              "integer",
		"Log(); put(n: int) -> int, m -> int": "",
	} {
		_, err := ParseClass(text)
		require.Error(t, err, text)
		assert.ErrorContains(t, err, says, text)
	}
}

// What is added to a verdict.toml that says the like in one line would make it unreadable.
func TestLanguagesAreAddedOrToldNotToBe(t *testing.T) {
	fresh := Fresh{Words: words, Languages: map[string]string{"docks.cpp": "cpp17"}, Files: map[string][]byte{"docks.cpp": nil}}
	for config, want := range map[string]string{
		"title = \"x\"": "title = \"x\"\n\n[[solution]]\nfile     = \"docks.cpp\"\nlanguage = \"cpp17\"\n",
		"[[solution]]\nfile = \"docks.cpp\"\nlanguage = \"cpp\"\n": "[[solution]]\nfile = \"docks.cpp\"\nlanguage = \"cpp\"\n",
	} {
		p := load(t, map[string]string{ConfigFile: config, "docks.cpp": ""})
		_, kept, err := Open(p.Dir, fresh)
		require.NoError(t, err)
		assert.Contains(t, kept, "docks.cpp")
		assert.Equal(t, want, configText(t, p))
	}
	const oneLine = "solution = [{file = \"brute.py\", role = \"reference\"}]\n"
	p := load(t, map[string]string{ConfigFile: oneLine, "brute.py": ""})
	_, _, err := Open(p.Dir, fresh)
	require.ErrorContains(t, err, "cannot be added to")
	assert.ErrorContains(t, err, `write it there by hand: [[solution]] file = "docks.cpp" language = "cpp17"`)
	assert.Equal(t, oneLine, configText(t, p))
}

func TestAFileThatIsGoneIsToldWithWhatToDo(t *testing.T) {
	for config, says := range map[string]string{
		"[[solution]]\nfile = \"dokcs.cpp\"\n":                       `verdict.toml:2: there is no file "dokcs.cpp" here; did you mean "docks.cpp"?`,
		"[[solution]]\nfile = \"other.py\"\nlanguage = \"python\"\n": `verdict.toml:2: there is no file "other.py" here; if it was deleted, take this [[solution]] out`,
		"[compare]\nscript = \"chck.star\"\n":                        `verdict.toml:2: there is no file "chck.star" here; did you mean "check.star"?`,
		"[compare]\nprogram = \"judging.cpp\"\n":                     `verdict.toml:2: there is no file "judging.cpp" here`,
	} {
		assert.ErrorContains(t, mistakesIn(t, map[string]string{ConfigFile: config, "docks.cpp": "", "check.star": ""}), says)
	}
}
