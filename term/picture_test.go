package term

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"coldverdict/core/picture"
)

func TestPicturesAreDrawnInCells(t *testing.T) {
	draw := func(p picture.Picture, m *picture.Marks) string {
		s, out := plainScreen("80")
		p.Title = "e"
		s.Picture(p, m)
		s.Flush()
		return out.String()
	}
	tree := &picture.Graph{From: 1, N: 4, Tree: true, Edges: []picture.Edge{{A: 0, B: 1, Label: "7"}, {A: 1, B: 2}, {A: 0, B: 3}}}
	assert.Equal(t, "e\n  1\n  ├─7─ 2\n  │  └─ [3]\n  └─ 4\n", draw(picture.Picture{Graph: tree}, &picture.Marks{Vertices: map[int]bool{2: true}}))
	ring := &picture.Graph{From: 1, N: 3, Edges: []picture.Edge{{A: 0, B: 1, Label: "5"}, {A: 1, B: 2}, {A: 2, B: 0}, {A: 2, B: 2}}}
	drawn := draw(picture.Picture{Graph: ring}, &picture.Marks{Vertices: map[int]bool{0: true}})
	for _, part := range []string{"[1]", "(2)", "(3)", "5", "loop at 3"} {
		assert.Contains(t, drawn, part)
	}
	assert.Equal(t, "e\n     1 2\n  1 •. #\n  2  # .\n", draw(picture.Picture{Grid: []string{".#", "#."}}, &picture.Marks{Cells: map[[2]int]bool{{0, 0}: true}}))
	assert.Regexp(t, `(?s)^e\n  1 ├──┤ +0 to 5\n  2  ├─+┤  2 to 90\n    0 +90\n$`, draw(picture.Picture{Spans: [][2]float64{{0, 5}, {2, 90}}}, nil))
	assert.Equal(t, "e\n  1 → 2 ↩\n  2 elements at its own place\n", draw(picture.Picture{Cycles: [][]int64{{1, 2}, {3}, {4}}}, nil))
	assert.Contains(t, draw(picture.Picture{Bars: []float64{1, -2, 3}}, nil), "2 -2  ▇▇")
	assert.Equal(t, "e\n  abcab\n  ▔▔ ▔▔\n  ab stands in it 2 times, from 1, 4 on\n", draw(picture.Picture{Word: &picture.Word{Text: "abcab", Repeat: "ab", At: []int{0, 3}}}, nil))
	assert.Contains(t, draw(picture.Picture{Points: &picture.Points{At: [][2]float64{{0, 0}, {4, 2}}}}, nil), "x from 0 to 4, y from 0 to 2")
	assert.Contains(t, draw(picture.Picture{Guessed: true, Grid: []string{"ab", "cd"}}, nil), "e (a guess; input.shape would say)")
	assert.NotContains(t, draw(picture.Picture{Grid: []string{"a\x1b", "cd"}}, nil), "\x1b", "no byte of an input reaches the terminal")
}
