package term

import (
	"strings"
	"testing"

	"github.com/charmbracelet/x/ansi"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestAChartHasBothAxesInLogarithmsAndTheLimitAcross(t *testing.T) {
	c := chart{
		width: 21, height: 5, limit: 10, xName: "n", x: shortNumber, y: seconds,
		lines: []chartLine{{mark: "●", style: normal, points: []chartPoint{{1, 0.001}, {10, 0.01}, {100, 0.1}, {10_000, 10}}}},
	}
	assert.Equal(t, []string{
		"limit 10 s │╌╌╌╌╌╌╌╌╌╌╌╌╌╌╌╌╌╌╌╌●",
		"           │",
		"    100 ms │          ●",
		"           │     ●",
		"      1 ms │●",
		"           └─────────────────────",
		"            1     n        10,000",
	}, trimmed(c.rows()))
}

func TestAChartOfOnePointIsNone(t *testing.T) {
	c := chart{width: 20, height: 5, x: shortNumber, y: seconds, lines: []chartLine{{mark: "●", style: normal, points: []chartPoint{{3, 1}}}}}
	assert.Empty(t, c.rows())
	c.lines[0].points = append(c.lines[0].points, chartPoint{30, 1})
	require.NotEmpty(t, c.rows(), "equal values are a line")
	c.lines = nil
	assert.Empty(t, c.rows())
}

func TestNothingOfAChartIsWiderThanItsField(t *testing.T) {
	for _, width := range []int{10, 40, 200} {
		c := chart{width: width, height: 3, xName: "n", x: shortNumber, y: seconds, lines: []chartLine{{mark: "x", style: normal, points: []chartPoint{{1, 1e-6}, {1e18, 3600}}}}}
		for _, row := range c.rows() {
			assert.LessOrEqual(t, ansi.StringWidth(row), width+18, row)
		}
	}
}

// trimmed takes out colours and blanks at line ends.
func trimmed(rows []string) (plain []string) {
	for _, row := range rows {
		plain = append(plain, strings.TrimRight(ansi.Strip(row), " "))
	}
	return plain
}
