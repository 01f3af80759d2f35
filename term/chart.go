package term

import (
	"fmt"
	"math"
	"strings"

	"charm.land/lipgloss/v2"
)

// A chart draws points in character cells; both axes are logarithmic.
type chart struct {
	width, height int // of the field, in cells
	lines         []chartLine
	limit         float64 // a line across; 0: none
	xName         string
	x, y          func(float64) string // how values are written
}

// A chartLine is a row of points of one kind.
type chartLine struct {
	mark   string // one cell wide
	style  lipgloss.Style
	points []chartPoint
}

type chartPoint struct{ x, y float64 }

// A reach is from where to where an axis goes.
type reach struct{ low, high float64 }

func (r *reach) include(v float64) {
	if v <= 0 {
		return
	}
	if r.low == 0 || v < r.low {
		r.low = v
	}
	r.high = math.Max(r.high, v)
}

// at is the cell, of so many, in which a value lies.
func (r reach) at(v float64, cells int) int {
	if v <= 0 || r.high <= r.low {
		return 0
	}
	share := math.Log(v/r.low) / math.Log(r.high/r.low)
	return min(max(int(math.Round(share*float64(cells-1))), 0), cells-1)
}

// reaches are those of both axes.
func (c chart) reaches() (x, y reach) {
	for _, l := range c.lines {
		for _, p := range l.points {
			x.include(p.x)
			y.include(p.y)
		}
	}
	y.include(c.limit)
	if y.high > 0 && y.low == y.high {
		y.low /= 2
	}
	return x, y
}

// rows are the lines of the chart, with the axes.
func (c chart) rows() (rows []string) {
	x, y := c.reaches()
	if x.high <= x.low || y.high <= y.low {
		return nil // one point is no chart
	}
	field := make([][]string, c.height)
	for i := range field {
		field[i] = make([]string, c.width)
		for k := range field[i] {
			field[i][k] = " "
		}
	}
	if c.limit > 0 {
		row := c.height - 1 - y.at(c.limit, c.height)
		for k := range field[row] {
			field[row][k] = marked.Render("╌")
		}
	}
	for _, l := range c.lines {
		for _, p := range l.points {
			field[c.height-1-y.at(p.y, c.height)][x.at(p.x, c.width)] = l.style.Render(l.mark)
		}
	}
	labels := c.labels(y)
	wide := 0
	for _, label := range labels {
		wide = max(wide, width(label))
	}
	for i, cells := range field {
		rows = append(rows, fmt.Sprintf("%s %s%s", padLeft(labels[i], wide), dim.Render("│"), strings.Join(cells, "")))
	}
	low, high := c.x(x.low), c.x(x.high)
	rows = append(rows, strings.Repeat(" ", wide+1)+dim.Render("└"+strings.Repeat("─", c.width)))
	between := max(1, c.width-width(low)-width(high)-width(c.xName)-2)
	rows = append(rows, strings.Repeat(" ", wide+2)+low+strings.Repeat(" ", between/2)+dim.Render(c.xName)+strings.Repeat(" ", between-between/2+2)+high)
	return rows
}

// labels are what stands beside the rows: the ends, the limit, and powers of ten.
func (c chart) labels(y reach) []string {
	labels := make([]string, c.height)
	put := func(v float64, words string) {
		if row := c.height - 1 - y.at(v, c.height); labels[row] == "" {
			labels[row] = words
		}
	}
	if c.limit > 0 {
		put(c.limit, "limit "+c.y(c.limit))
	}
	put(y.high, c.y(y.high))
	put(y.low, c.y(y.low))
	for power := math.Ceil(math.Log10(y.low)); power < math.Log10(y.high); power++ {
		v := math.Pow(10, power)
		row := c.height - 1 - y.at(v, c.height)
		near := row > 0 && labels[row-1] != "" || row+1 < c.height && labels[row+1] != ""
		if !near {
			put(v, c.y(v))
		}
	}
	return labels
}
