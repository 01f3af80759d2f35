package problem

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"coldverdict/core/shape"
)

const crateShape = "n: int 1..5, cap: int 1..10\nw: int[n] 1..cap\n"

func TestInputsAreHeldAgainstTheShapeOfTheFolder(t *testing.T) {
	p := load(t, map[string]string{"input.shape": crateShape, "a.cpp": "", "1.in": "2 5\n4 5\n", "2.in": "2 5\n4 6\n"})
	fault, err := p.CheckShape(p.Cases[0].Input, shape.Options{})
	require.NoError(t, err)
	assert.Nil(t, fault)
	fault, err = p.CheckShape(p.Cases[1].Input, shape.Options{})
	require.NoError(t, err)
	assert.ErrorContains(t, fault, "line 2, 2nd value: w[1] is 6, outside 1..5 (cap)")
	_, err = p.CheckShape(Data{Path: "/nowhere"}, shape.Options{})
	assert.Error(t, err)

	_, _, err = p.Add(NewCase{Group: "Samples", Input: []byte("2  5 \n4 5\n")})
	assert.NoError(t, err, "what is pasted is taken loosely")
	_, _, err = p.Add(NewCase{Group: "Samples", Input: []byte("2 5\n4\n")})
	assert.ErrorContains(t, err, "the input does not have the shape that input.shape says: line 2")
}

func TestMistakesInTheShapeOfTheFolderAreToldWithItsOthers(t *testing.T) {
	_, err := Load(folder(t, map[string]string{"input.shape": "n: imt\nw: int[m]\n", "a.cpp": "", "cases.md": "## x\n```imput\n```\n"}), words)
	require.ErrorAs(t, err, &Mistakes{})
	for _, says := range []string{`input.shape:1: column 4: "imt" is no value; did you mean "int"?`, "input.shape:2: column 8: m is not declared", "cases.md:2:"} {
		assert.ErrorContains(t, err, says)
	}
	_, err = Load(folder(t, map[string]string{"input.shape": strings.Repeat("#", 2<<20), "a.cpp": ""}), words)
	assert.ErrorContains(t, err, "input.shape: has 2 MB")
}

func TestAShapeOfAFunctionIsHeldAgainstItsArguments(t *testing.T) {
	files := map[string]string{
		"verdict.toml": "[call]\nname = \"f\"\ntakes = [\"temps: int[]\", \"limit: long\"]\nreturns = \"int\"\n", "a.py": "",
		"input.shape": "temps: int[1..3] -9..9\nlimit: int 0..5\n",
	}
	p := load(t, files)
	_, _, err := p.Add(NewCase{Group: "Samples", Input: []byte("temps = [1, -2]\nlimit = 3\n"), Output: []byte("1\n")})
	assert.NoError(t, err)
	_, _, err = p.Add(NewCase{Group: "Samples", Input: []byte("temps = [1, -20]\nlimit = 3\n")})
	assert.ErrorContains(t, err, "the input does not have the shape that input.shape says: line 1: temps[1] is -20, outside -9..9")
	_, _, err = p.Add(NewCase{Group: "Samples", Input: []byte("temps = [1]\nlimit = 6\n")})
	assert.ErrorContains(t, err, "line 2: limit is 6, outside 0..5")

	files["input.shape"] = "temps: int[1..3] -9..9\nlimits: int 0..5\n"
	_, err = Load(folder(t, files), words)
	assert.ErrorContains(t, err, "input.shape:2: column 1: the argument 2 of the function is limit; name this field so")
	files["verdict.toml"] = strings.Replace(files["verdict.toml"], "long", "lon", 1)
	_, err = Load(folder(t, files), words)
	assert.ErrorContains(t, err, "verdict.toml:3")
	assert.NotContains(t, err.Error(), "input.shape", "what the function takes is not known")
}

func TestWhatMakesInputsIsRead(t *testing.T) {
	p := load(t, map[string]string{"verdict.toml": "[make]\nscript = \"make.star\"\n", "make.star": "", "a.cpp": ""})
	assert.Equal(t, Make{Script: "make.star"}, p.Make)
	p = load(t, map[string]string{"verdict.toml": "[make]\nprogram = \"gen.cpp\"\n", "gen.cpp": "", "a.cpp": ""})
	assert.Equal(t, Make{Program: "gen.cpp"}, p.Make)
	chosen, err := p.ChooseCandidate()
	require.NoError(t, err)
	assert.Equal(t, "a.cpp", chosen.File, "what makes inputs is no candidate")
	for config, says := range map[string]string{
		"[make]\n": "verdict.toml:1: [make] names nothing that makes inputs; write script",
		"[make]\nscript = \"make.star\"\nprogram = \"gen.cpp\"\n": "verdict.toml:1: script and program both make inputs; take one of them out",
		"[make]\nscript = \"gen.cpp\"\n":                          "verdict.toml:2: \"gen.cpp\" is no script",
		"[make]\nprogram = \"make.star\"\n":                       "verdict.toml:2: \"make.star\" is a script; name it by script",
		"[make]\nprogram = \"gone.cpp\"\n":                        "verdict.toml:2: there is no file \"gone.cpp\"",
		"[make]\nseed = 5\n":                                      "verdict.toml:2: unknown key \"make.seed\"",
		"make = 5\n":                                              "verdict.toml:1",
	} {
		_, err := Load(folder(t, map[string]string{"verdict.toml": config, "make.star": "", "gen.cpp": ""}), words)
		assert.ErrorContains(t, err, says, config)
	}
}

func TestAShapeAloneMakesAFolderAProblem(t *testing.T) {
	p := load(t, map[string]string{"input.shape": crateShape})
	require.NotNil(t, p.Shape)
	assert.Equal(t, crateShape, p.Shape.Text())
	assert.True(t, IsFolder(p.Dir, words))
	_, err := Load(folder(t, map[string]string{"notes.txt": ""}), words)
	assert.ErrorContains(t, err, "no input.shape")
}

func TestAShapeToBeginWithHasTheArgumentsOfTheProblem(t *testing.T) {
	for table, want := range map[string]string{
		"": "n: int 1..100\n",
		"[call]\nname = \"f\"\ntakes = [\"temps: int[]\", \"rows: real[][]\", \"limit: long?\", \"on: bool\", \"word: text\", \"mark: char[]\"]\nreturns = \"int\"\n": "temps: int[1..9] 0..9\nrows: real[1..9][1..9] 0..9 places 1\nlimit: int 0..9\non: pick(\"true\", \"false\")\nword: token(1..8, \"a-z\")\nmark: token(1, \"a-z\")[1..9]\n",
		"[call]\nname = \"f\"\ntakes = [\"rope: list(int)\", \"root: tree(int)\", \"huts: graph(int)\"]\nreturns = \"int\"\n":                                         "rope: int[1..9] 0..9\nroot: nodes(0..9) 0..9\nhuts_size: int 1..9\nhuts: tree(huts_size)\n",
		"[call]\nname = \"f\"\ntakes = [\"x: any\"]\nreturns = \"int\"\n":                                                                                             "",
		"[class]\nname = \"Store\"\nnew = [\"room: int\"]\nmethods = [\"get(key: text) -> int\", \"put(key: text, amounts: int[])\"]\n":                               "new(room: int 0..9)\nrepeat 1..30 {\n  either { get(key: token(1..8, \"a-z\")) }\n  or     { put(key: token(1..8, \"a-z\"), amounts: int[1..9] 0..9) }\n}\n",
		"[class]\nname = \"Counter\"\nmethods = [\"next() -> int\"]\n":                                                                                                "new()\nrepeat 1..30 {\n  next()\n}\n",
		"[class]\nname = \"Store\"\nmethods = [\"put(all: int[], key: int)\"]\n":                                                                                      "",
	} {
		files := map[string]string{"verdict.toml": table, "a.py": ""}
		require.Equal(t, want, load(t, files).ShapeExample(), table)
		if files["input.shape"] = want; want != "" {
			p := load(t, files)
			made, err := p.Shape.Make(shape.Making{Seed: 1})
			require.NoError(t, err, want)
			text := made.Append(nil)
			fault, err := p.CheckShape(Data{Text: text, Size: int64(len(text))}, shape.Options{})
			require.NoError(t, err)
			assert.Nil(t, fault, "%s", text)
		}
	}
}
