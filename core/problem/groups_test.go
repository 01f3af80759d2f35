package problem

import (
	"testing"
	"time"

	"coldverdict/core/verdict"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

const threeGroups = "# Samples\n## a\n```input\n```\n## b\n```input\n```\n# Small\n## a\n```input\n```\n# Large\n## a\n```input\n```\n"

func TestGroupsHavePointsNeedsLimitsAndComparisonsOfTheirOwn(t *testing.T) {
	dir := folder(t, map[string]string{"cases.md": threeGroups, "check.star": "", "check.cpp": "", "verdict.toml": `
[compare]
mode = "tokens"
[limits]
time = "1s"
[limits.python]
time = "5s"
[limits.checker]
memory = "64MiB"
[[group]]
name = "small"
points = 40.5
score = "shared"
needs = ["large", "samples"]
[group.compare]
mode = "numbers"
[[group]]
name = "large"
points = 60
time = "4s"
[group.compare]
script = "check.star"
[[case]]
name = "samples/b"
[case.compare]
program = "check.cpp"
`})
	p, err := Load(dir, words)
	require.NoError(t, err)
	assert.True(t, p.Pointed())
	compare := map[string]Comparison{}
	for _, c := range p.Cases {
		compare[c.Name] = c.Compare
	}
	assert.Equal(t, map[string]Comparison{
		"samples/a": {Mode: "tokens"}, "samples/b": {Program: "check.cpp"},
		"small/a": {Mode: "numbers", Absolute: 1e-6, Relative: 1e-6}, "large/a": {Script: "check.star"},
	}, compare)
	assert.Equal(t, 40.5, p.Rule("small").Points)
	assert.Equal(t, ScoreShared, p.Rule("small").Score)
	assert.Equal(t, GroupRule{Name: "samples", Score: ScoreWhole}, p.Rule("samples"))
	limits, _ := p.Limits.For([]string{"python"}, p.Rule("large").Limits, verdict.Limits{})
	assert.Equal(t, 4*time.Second, limits.Time, "what a group is held to holds in every language")
	assert.EqualValues(t, 64<<20, p.Limits.OfChecker().Memory)
	assert.Equal(t, CheckerDefaults.Time, p.Limits.OfChecker().Time)
	assert.Equal(t, []int{0, 1, 3, 2}, p.InRunOrder(p.Cases, []int{0, 1, 2, 3}), "what is needed runs first")
	_, err = p.ChooseCandidate()
	assert.ErrorContains(t, err, "check.cpp", "a checker is no candidate")
}

func TestAnInteractorMakesAProblemInteractive(t *testing.T) {
	p, err := Load(folder(t, map[string]string{"cases.md": "## a\n```input\n```\n", "talk.star": "", "verdict.toml": "[interactive]\nscript = \"talk.star\"\n"}), words)
	require.NoError(t, err)
	assert.True(t, p.Kind().Talks)
}

func TestAnswersForTheCheckerAreReadAndCheckedThemselves(t *testing.T) {
	text := "# A\n## x\n```input\n1\n```\n```output accept\n2\n```\n```output reject no-newline\n3\n```\n"
	p, err := Load(folder(t, map[string]string{"cases.md": text, "check.star": "", "verdict.toml": "[compare]\nscript = \"check.star\"\n"}), words)
	require.NoError(t, err)
	require.Len(t, p.Cases[0].Trials, 2)
	assert.Equal(t, Trial{Data{Text: []byte("2\n"), Size: 2}, true, 6}, p.Cases[0].Trials[0])
	assert.Equal(t, Trial{Data{Text: []byte("3"), Size: 1}, false, 9}, p.Cases[0].Trials[1])
	assert.Empty(t, p.Cases[0].Accepted, "they are no expected outputs")
}

func TestMistakesAboutWhoDecidesAreTold(t *testing.T) {
	script := map[string]string{"check.star": "", "check.cpp": "", "a.cpp": "", "cases.md": threeGroups}
	for config, says := range map[string][]string{
		"[compare]\nscript = \"gone.star\"\n":                           {`verdict.toml:2: there is no file "gone.star" here`},
		"[compare]\nscript = \"check.cpp\"\n":                           {`verdict.toml:2: "check.cpp" is no script, whose name ends in .star; a source in another language is named by program`},
		"[compare]\nprogram = \"check.star\"\n":                         {`verdict.toml:2: "check.star" is a script; name it by script`},
		"[compare]\nscript = \"check.star\"\nprogram = \"check.cpp\"\n": {"verdict.toml:1: script and program both decide"},
		"[compare]\nscript = \"check.star\"\nmode = \"tokens\"\n":       {"verdict.toml:1: a checker of your own decides alone"},
		"[interactive]\n": {"verdict.toml:1: [interactive] names no interactor"},
		"[interactive]\nscript = \"check.star\"\n[compare]\nmode = \"tokens\"\n":                       {"verdict.toml:1: the interactor of an interactive problem judges"},
		"[[group]]\nname = \"smal\"\n":                                                                 {`verdict.toml:1: no case is in the group "smal"; did you mean "small"?`},
		"[[group]]\nname = \"Small\"\n":                                                                {`verdict.toml:2: a group is named in lower case with hyphens: "small"`, "no case is in the group"},
		"[[group]]\npoints = 3\n":                                                                      {"verdict.toml:1: a [[group]] needs a name"},
		"[[group]]\nname = \"small\"\npoints = -1\n":                                                   {"verdict.toml:3: group[0].points is -1; it must be a number from 0"},
		"[[group]]\nname = \"small\"\n[[group]]\nname = \"small\"\n":                                   {`verdict.toml:3: there are two [[group]] tables for "small"`},
		"[[group]]\nname = \"small\"\nneeds = [\"larg\"]\n":                                            {`verdict.toml:1: the group "small" needs "larg", which no case is in; did you mean "large"?`},
		"[[group]]\nname=\"small\"\nneeds=[\"large\"]\n[[group]]\nname=\"large\"\nneeds=[\"small\"]\n": {`verdict.toml:1: the group "small" needs itself`, `verdict.toml:4: the group "large" needs itself`},
		"[[group]]\nname = \"small\"\nscore = \"best\"\n":                                              {`verdict.toml:3: group[0].score is "best"`},
		"[[case]]\nname = \"small/z\"\n":                                                               {`verdict.toml:1: no case matches "small/z"`},
		"[[case]]\n":                                                                                   {"verdict.toml:1: a [[case]] needs a name"},
		"[group]\nname = \"small\"\n":                                                                  {"verdict.toml:1: these are written as [[group]], with two brackets"},
		"[limits.checker]\ntine = \"1s\"\n":                                                            {`verdict.toml:2: unknown key "limits.checker.tine"; did you mean "time"?`},
	} {
		files := map[string]string{"verdict.toml": config}
		for name, text := range script {
			files[name] = text
		}
		_, err := Load(folder(t, files), words)
		require.Error(t, err, config)
		for _, words := range says {
			assert.ErrorContains(t, err, words, config)
		}
		assert.Len(t, err, len(says), "no more mistakes than these: %v", err)
	}
	_, err := Load(folder(t, map[string]string{"cases.md": "## x\n```input\n```\n```output accept\n```\n```output reject or\n```\n"}), words)
	assert.ErrorContains(t, err, `cases.md:6: "output reject" is an answer to try the checker on, and nothing else`)
	_, err = Load(folder(t, map[string]string{"cases.md": "## x\n```input\n```\n```output accept\n```\n"}), words)
	assert.ErrorContains(t, err, "cases.md:4: 'output accept' and 'output reject' try a checker of your own")
}
