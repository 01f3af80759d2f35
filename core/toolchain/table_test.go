package toolchain

import (
	"os"
	"regexp"
	"slices"
	"testing"

	"coldverdict/internal/testenv"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// tableOf is our table with a person's own above it.
func tableOf(t *testing.T, text string) *Languages {
	all := Ours()
	require.Empty(t, all.Add("own.toml", []byte(text)))
	return all
}

func TestOurTableCanBeUsed(t *testing.T) {
	all := Ours()
	assert.Greater(t, len(all.list), 25)
	for _, l := range all.list {
		patterns := append([]Pattern{l.SourceName, l.Slow.Match, l.Slow.Unless}, l.Errors...)
		for _, of := range l.Says {
			patterns = append(patterns, of...)
		}
		for _, n := range l.Notes {
			patterns = append(patterns, n.Match)
		}
		for _, p := range patterns {
			if p.compiled != nil {
				assert.NotPanics(t, func() { p.compiled() }, l.Name)
			}
		}
		assert.NotEmpty(t, l.Title, l.Name)
		assert.NotEmpty(t, l.Extensions, l.Name)
		assert.NotEmpty(t, l.Errors, l.Name)
		assert.FileExists(t, "../judge/testdata/languages/"+l.Name+".txt")
	}
}

func TestOurTableIsInTheFormOfAPersonsOwn(t *testing.T) {
	other := &Languages{named: map[string]*Language{}}
	require.Empty(t, other.Add("own.toml", []byte(Text())))
	assert.Equal(t, Ours().Names(), other.Names())
}

func TestFourLinesAddALanguage(t *testing.T) {
	b := newBench(t)
	b.kit.languages = tableOf(t, `
[language.shout]
extensions = ["shout"]
run = "sh {build}/{source}"
`)
	build := b.build(t, "a.shout", "echo 42\n", "")
	assert.Equal(t, "42\n", b.print(t, build))
	assert.Equal(t, "sh a.shout", build.Command)
	assert.Equal(t, []string{"sh"}, build.Language.Runtime.Command, "the first word is the tool")
	assert.True(t, b.build(t, "a.shout", "echo 42\n", "").Cached)
}

func TestAnEntryIsChangedAndAnotherMadeFromIt(t *testing.T) {
	all := tableOf(t, `
[language.trimmed]
like = "cpp-brisk"
extensions = [".tpp"]

[language.cpp-brisk]
like = "cpp"
build = "g++ -O3 -std={standard} -o program {source}"

[language.python]
says = { key = ['\bLookupError\b'] }
run = "{runtime} -O {build}/{source}"
[language.c]
standard = "c11"
`)
	brisk, _ := all.Find("cpp-brisk")
	assert.Equal(t, []Command{{"{compiler}", "-O3", "-std={standard}", "-o", "program", "{source}"}}, brisk.Build)
	assert.Equal(t, []string{"g++"}, brisk.Compiler.Command)
	assert.Empty(t, brisk.Extensions, "cpp keeps its files")
	trimmed, _ := all.Find("trimmed")
	assert.Equal(t, brisk.Build, trimmed.Build, "in whatever order they stand")
	python, _ := all.Find("python")
	assert.Equal(t, []string{".py"}, python.Extensions)
	assert.Contains(t, python.Run, "-O")
	assert.True(t, python.Says[KindKey][0].matches("LookupError: x"))
	assert.NotEmpty(t, python.Says[KindEnd], "what was not changed stays")
	untouched, _ := Ours().Find("python")
	assert.NotContains(t, untouched.Run, "-O")
	assert.False(t, untouched.Says[KindKey][0].matches("LookupError: x"))
	assert.Equal(t, "c11", all.choices("c")[0].standard)
}

func TestTheLimitsOfALanguageCountForItsOtherCompilers(t *testing.T) {
	all := Ours()
	for name, want := range map[string][]string{
		"cpp": {"cpp"}, "cpp-clang": {"cpp", "cpp-clang"}, "pypy": {"python", "pypy"}, "kotlin": {"kotlin"}, "scala": {"scala"}, "d-gdc": {"d", "d-gdc"},
	} {
		l, _ := all.Find(name)
		assert.Equal(t, want, all.Family(l))
	}
}

func TestFlagsOfALanguageGoToItsOtherCompilersAlone(t *testing.T) {
	all := Ours()
	require.True(t, all.WithFlags("java", []string{"-Xlint"}))
	require.True(t, all.WithFlags("cpp", []string{"-DLOCAL"}))
	for name, want := range map[string][2]bool{"java": {true, false}, "kotlin": {}, "scala": {}, "cpp": {false, true}, "cpp-clang": {false, true}, "c": {}} {
		l, _ := all.Find(name)
		assert.Equal(t, want, [2]bool{slices.Contains(l.Build[0], "-Xlint"), slices.Contains(l.Build[0], "-DLOCAL")}, name)
	}
	assert.False(t, all.WithFlags("ruby", []string{"-w"}), "it has no compiler")
}

func TestWhatIsWrongInATableIsToldWithItsLine(t *testing.T) {
	for text, want := range map[string]string{
		"[language.x]\nextensions = [\".x\"]\n":                                  `own.toml:1: language.x needs a command that runs a solution, such as run = "{build}/program"`,
		"[language.x]\nrun = \"x {sorce}\"\n":                                    `own.toml:2: nothing is known as {sorce}; did you mean "source"?`,
		"[language.x]\nrun = \"x {source}\"\nbulid = \"x\"\n":                    `own.toml:3: unknown key "language.x.bulid"; did you mean "build"?`,
		"[language.x]\nrun = \"x {source} > out\"\n":                             `own.toml:2: language.x.run goes beyond one command at "> out"; put it in quotes, or start sh -c with it`,
		"[language.x]\nrun = \"x 'y\"\n":                                         `own.toml:2: language.x.run is no command: invalid command line string`,
		"[language.x]\nlike = \"pyhton\"\n":                                      `own.toml:2: there is no language "pyhton"; did you mean "python"?`,
		"[language.x]\nlike = \"x\"\nrun = \"x\"\n":                              `own.toml:2: there is no language "x"; did you mean "c"?`,
		"[language.X]\nrun = \"x\"\n":                                            `own.toml:1: "X" cannot name a language; use lower-case letters, digits and hyphens`,
		"[language.x]\nrun = \"x\"\nerrors = ['(']\n":                            "own.toml:3: language.x.errors: error parsing regexp: missing closing ): `(`",
		"[language.x]\nrun = \"x\"\nstandards = {a = \"1\"}\nstandard = \"b\"\n": `own.toml:4: "b" is none of the standards; did you mean "a"?`,
		"[language.x]\nrun = \"x\"\n[language.x.says]\nfire = ['x']\n":           `own.toml:4: unknown key "language.x.says.fire"; it can be`,
		"[language.x]\nrun = \"\"\n":                                             `own.toml:2: language.x.run is empty; write a program and its arguments`,
		"language = 3\n":                                                         `own.toml:1: languages are written as [language.NAME]`,
		"[language.x\n":                                                          `own.toml:1: `,
		"[language]\nx=3\n":                                                      `own.toml:2: language.x must be a table: [language.x]`,
	} {
		mistakes := Ours().Add("own.toml", []byte(text))
		if assert.NotEmpty(t, mistakes, text) {
			assert.Regexp(t, "^"+regexp.QuoteMeta(want), mistakes[0].Error())
		}
	}
}

func FuzzTables(f *testing.F) {
	f.Add([]byte(Text()))
	f.Add([]byte("[language.x]\nlike=\"y\"\n[language.y]\nlike=\"x\"\nrun=\"{a\"\n"))
	f.Fuzz(func(t *testing.T, text []byte) {
		all := Ours()
		if len(all.Add("own.toml", text)) > 0 {
			return
		}
		for _, name := range all.Names() {
			l, ok := all.Find(name)
			require.True(t, ok)
			assert.NotEmpty(t, l.Run)
		}
	})
}

func TestTheFirstWhoseToolsAreThereIsTaken(t *testing.T) {
	testenv.Need(t, "sh")
	b := newBench(t)
	bin := t.TempDir()
	t.Setenv("PATH", bin)
	b.kit.languages = tableOf(t, `
[language.shout]
extensions = [".shout"]
runtime = { command = "shouter", least = "2.10" }
run = "{runtime} {build}/{source}"
[language.shout-slow]
like = "shout"
extensions = [".shout"]
runtime = { command = "slowshouter" }
`)
	tool := func(name, version string) {
		require.NoError(t, os.WriteFile(bin+"/"+name, []byte("#!/bin/sh\necho "+name+" "+version+"\n"), 0o755))
	}
	choose := func() (string, error) {
		build, err := b.kit.Build(t.Context(), b.builder, Source{Path: b.write(t, "a.shout", "")})
		return build.Language.Name, err
	}
	_, err := choose()
	assert.EqualError(t, err, "shout cannot be run: no shouter on this machine; install it", "the first is the one to install")
	tool("shouter", "2.9.1")
	_, err = choose()
	assert.EqualError(t, err, "shout cannot be run: it needs version 2.10 or a later one, and this is shouter 2.9.1")
	tool("slowshouter", "1.0")
	name, err := choose()
	require.NoError(t, err)
	assert.Equal(t, "shout-slow", name)
	tool("shouter", "2.10.1")
	name, err = choose()
	require.NoError(t, err)
	assert.Equal(t, "shout", name)
}
