package report

import (
	"fmt"
	"image/color"
	"io"
	"math"
	"slices"
	"time"

	"gonum.org/v1/plot"
	"gonum.org/v1/plot/plotter"
	"gonum.org/v1/plot/text"
	"gonum.org/v1/plot/vg"
	"gonum.org/v1/plot/vg/draw"

	"coldverdict/core/growth"
	"coldverdict/core/rank"
	"coldverdict/core/verdict"
)

// Figures are drawn with gonum.org/v1/plot.

// The size of a figure.
const (
	figureWidth  = 9 * vg.Inch
	figureHeight = 5.5 * vg.Inch
)

// marks tell solutions apart, by form and by colour.
var marks = []struct {
	shape draw.GlyphDrawer
	color color.Color
}{
	{draw.CircleGlyph{}, color.RGBA{0x1b, 0x6c, 0x8f, 0xff}},
	{draw.TriangleGlyph{}, color.RGBA{0xa8, 0x4c, 0x12, 0xff}},
	{draw.BoxGlyph{}, color.RGBA{0x5b, 0x3f, 0x8c, 0xff}},
	{draw.PlusGlyph{}, color.RGBA{0x2f, 0x7a, 0x3a, 0xff}},
	{draw.CrossGlyph{}, color.RGBA{0x8c, 0x2f, 0x55, 0xff}},
}

// DrawGrowth draws the time of all solutions, each in the style that is worst for it, over what
// grows. The format is svg or png. The error says that it could not be drawn or written.
func DrawGrowth(out io.Writer, format string, r *growth.Result) error {
	p := plot.New()
	sans(p)
	p.X.Label.Text, p.Y.Label.Text = r.Names[growth.Furthest(r.Largest)], "processor time"
	p.X.Scale, p.Y.Scale = plot.LogScale{}, plot.LogScale{}
	p.X.Tick.Marker, p.Y.Tick.Marker = ticks(sizeLabel), ticks(timeLabel)
	p.Legend.Top, p.Legend.Left = true, true
	p.Legend.Padding = 2
	grid := plotter.NewGrid()
	grid.Vertical.Color, grid.Horizontal.Color = color.Gray{0xe2}, color.Gray{0xe2}
	p.Add(grid)
	least, most := math.Inf(1), 0.0
	for i, g := range r.Growths {
		points, err := addGrowth(p, r, g, i)
		if err != nil {
			return err
		}
		for _, one := range points {
			least, most = math.Min(least, one.X), math.Max(most, one.X)
		}
	}
	if most <= least {
		return fmt.Errorf("there is nothing to draw: fewer than two sizes were measured")
	}
	if err := addLimit(p, r, least, most); err != nil {
		return err
	}
	p.Y.Max *= 3                          // room for the legend
	p.X.Max *= math.Pow(most/least, 0.06) // and, of the axis, for the last label
	writer, err := p.WriterTo(figureWidth, figureHeight, format)
	if err != nil {
		return err
	}
	_, err = writer.WriteTo(out)
	return err
}

// sans has all that is written in a figure in one plain font.
func sans(p *plot.Plot) {
	for _, style := range []*text.Style{&p.X.Label.TextStyle, &p.Y.Label.TextStyle, &p.X.Tick.Label, &p.Y.Tick.Label, &p.Legend.TextStyle} {
		style.Font.Variant = "Sans"
		style.Font.Size = vg.Points(11)
	}
}

// addGrowth adds the points of one solution, and what was predicted.
func addGrowth(p *plot.Plot, r *growth.Result, g growth.Growth, i int) (points plotter.XYs, err error) {
	mark := marks[i%len(marks)]
	at := growth.Furthest(r.Largest)
	for _, one := range g.Points {
		if one.Axis == growth.All && one.Style == g.Time.Style && one.Ended() && one.Sizes[at] > 0 && one.CPU > 0 {
			points = append(points, plotter.XY{X: float64(one.Sizes[at]), Y: one.CPU.Seconds()})
		}
	}
	if len(points) == 0 {
		return nil, nil
	}
	line, scatter, err := plotter.NewLinePoints(points)
	if err != nil {
		return nil, err
	}
	line.Color, line.Width = mark.color, vg.Points(1)
	scatter.Shape, scatter.Color, scatter.Radius = mark.shape, mark.color, vg.Points(3)
	p.Add(line, scatter)
	p.Legend.Add(legendOf(g), line, scatter)
	if t := g.Time.Largest; t.High > 0 && len(r.Largest) > 0 {
		x := float64(r.Largest[at])
		predicted, err := plotter.NewLine(plotter.XYs{{X: x, Y: math.Max(t.Low, 1e-6)}, {X: x, Y: t.High}})
		if err != nil {
			return nil, err
		}
		predicted.Color, predicted.Width = mark.color, vg.Points(4)
		p.Add(predicted)
		points = append(points, plotter.XY{X: x, Y: t.High})
	}
	return points, nil
}

func legendOf(g growth.Growth) string {
	words := g.Plan.Solution.File
	if g.Time.Law != "" {
		words += ": " + g.Time.Law
	}
	return words + " (" + styleOf(g.Time.Style) + " inputs)"
}

// addLimit draws the lowest limit of time across.
func addLimit(p *plot.Plot, r *growth.Result, least, most float64) error {
	limit := math.Inf(1)
	for _, g := range r.Growths {
		if g.Time.Limit > 0 {
			limit = math.Min(limit, g.Time.Limit)
		}
	}
	if math.IsInf(limit, 1) {
		return nil
	}
	line, err := plotter.NewLine(plotter.XYs{{X: least, Y: limit}, {X: most, Y: limit}})
	if err != nil {
		return err
	}
	line.Dashes, line.Color = []vg.Length{vg.Points(6), vg.Points(4)}, color.Gray{0x40}
	p.Add(line)
	p.Legend.Add("limit "+timeLabel(limit), line)
	return nil
}

// ticks are the powers of ten, with a label, and the multiples of each without one.
func ticks(label func(float64) string) plot.TickerFunc {
	return func(low, high float64) (list []plot.Tick) {
		if low <= 0 {
			return nil
		}
		for power := math.Floor(math.Log10(low)); power <= math.Ceil(math.Log10(high)); power++ {
			for k := 1.0; k < 10; k++ {
				v := k * math.Pow(10, power)
				if v < low || v > high {
					continue
				}
				tick := plot.Tick{Value: v}
				if k == 1 || math.Log10(high/low) < 1.5 && (k == 2 || k == 5) {
					tick.Label = label(v)
				}
				list = append(list, tick)
			}
		}
		return list
	}
}

func timeLabel(v float64) string {
	d := time.Duration(math.Round(v * float64(time.Second)))
	switch {
	case d >= time.Second:
		return fmt.Sprintf("%g s", d.Seconds())
	case d >= time.Millisecond:
		return fmt.Sprintf("%g ms", float64(d)/float64(time.Millisecond))
	}
	return fmt.Sprintf("%g µs", float64(d)/float64(time.Microsecond))
}

func sizeLabel(v float64) string {
	if v < 1e6 {
		return verdict.Thousands(int64(math.Round(v)))
	}
	return fmt.Sprintf("%.0e", v)
}

// DrawRanking draws the ratio of each solution to the first as a mark, with its interval. The format is svg or
// png. The error says that it could not be drawn: fewer than two are ranked, for example.
func DrawRanking(out io.Writer, format string, r *rank.Result) error {
	var names []string
	var ratios rankingPoints
	for _, one := range slices.Backward(r.Places) {
		if one.Failed != nil {
			continue
		}
		y := float64(len(names))
		names = append(names, one.Plan.Solution.File)
		ratios.XYs = append(ratios.XYs, plotter.XY{X: one.Ratio.Ratio, Y: y})
		ratios.XErrors = append(ratios.XErrors, struct{ Low, High float64 }{one.Ratio.Low - one.Ratio.Ratio, one.Ratio.High - one.Ratio.Ratio})
	}
	if len(names) < 2 {
		return fmt.Errorf("there is nothing to draw: fewer than two solutions are ranked")
	}
	p := plot.New()
	sans(p)
	p.X.Label.Text = "times of the first"
	p.X.Min = 0
	p.NominalY(names...)
	p.Y.Min, p.Y.Max = -0.5, float64(len(names))-0.5
	grid := plotter.NewGrid()
	grid.Vertical.Color, grid.Horizontal.Color = color.Gray{0xe2}, nil
	scatter, err := plotter.NewScatter(ratios)
	if err != nil {
		return err
	}
	scatter.Shape, scatter.Color, scatter.Radius = marks[0].shape, marks[0].color, vg.Points(4)
	intervals, err := plotter.NewXErrorBars(ratios)
	if err != nil {
		return err
	}
	intervals.Color, intervals.Width = marks[0].color, vg.Points(1.5)
	p.Add(grid, intervals, scatter)
	p.X.Max *= 1.05
	writer, err := p.WriterTo(figureWidth, vg.Length(len(names)+2)*vg.Inch/3, format)
	if err != nil {
		return err
	}
	_, err = writer.WriteTo(out)
	return err
}

// rankingPoints are ratios with their intervals.
type rankingPoints struct {
	plotter.XYs
	plotter.XErrors
}
