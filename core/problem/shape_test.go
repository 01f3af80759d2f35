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
