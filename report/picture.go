package report

import (
	"fmt"
	"image/color"
	"io"
	"math"
	"strconv"

	"gonum.org/v1/plot/font"
	"gonum.org/v1/plot/font/liberation"
	"gonum.org/v1/plot/vg"
	"gonum.org/v1/plot/vg/vgimg"
	"gonum.org/v1/plot/vg/vgsvg"

	"coldverdict/core/picture"
)

// The measures of a picture, in points.
const (
	pictureUnit   = 34.0 // from vertex to vertex, at the least
	vertexRadius  = 12.0
	pictureMargin = 30.0
	cellSide      = 20.0
	mostSide      = 2400.0
)

var (
	inkColor    = color.RGBA{0x1b, 0x23, 0x26, 0xff}
	faintColor  = color.RGBA{0x8a, 0x97, 0x9c, 0xff}
	tealColor   = color.RGBA{0x1b, 0x6c, 0x8f, 0xff}
	paperColor  = color.RGBA{0xff, 0xff, 0xff, 0xff}
	wellColor   = color.RGBA{0xe8, 0xef, 0xf2, 0xff}
	markedColor = color.RGBA{0xd9, 0x7a, 0x0b, 0xff}
)

// A sheet is what a picture is drawn on. Its y grows downwards, as pages do.
type sheet struct {
	canvas     vg.Canvas
	high       vg.Length
	face, tiny font.Face
}

// A sketch draws a picture, and says how large it is.
type sketch struct {
	wide, high float64
	draw       func(s *sheet)
}

// A Panel is a picture with what an answer points at, and what stands above it.
type Panel struct {
	Title   string
	Picture picture.Picture
	Marks   *picture.Marks // may be nil
}

// DrawPictures draws rows of pictures. The format is svg or png; fonts are embedded where that was asked for, and the
// same pictures have the same bytes. The error says that the format is unknown, or is of the writer.
func DrawPictures(out io.Writer, format string, rows [][]Panel, embed bool) error {
	k := panelsSketch(rows)
	wide, high := vg.Length(math.Min(k.wide+2*pictureMargin, mostSide)), vg.Length(math.Min(k.high+2*pictureMargin, mostSide))
	var canvas vg.CanvasWriterTo
	switch format {
	case "svg":
		canvas = vgsvg.NewWith(vgsvg.UseWH(wide, high), vgsvg.EmbedFonts(embed))
	case "png":
		canvas = vgimg.PngCanvas{Canvas: vgimg.NewWith(vgimg.UseWH(wide, high), vgimg.UseDPI(144), vgimg.UseBackgroundColor(paperColor))}
	default:
		return fmt.Errorf("a picture is drawn as svg or png, and not as %q", format)
	}
	fonts := font.NewCache(liberation.Collection())
	s := &sheet{canvas: canvas, high: high, face: fonts.Lookup(font.Font{Variant: "Sans"}, 10), tiny: fonts.Lookup(font.Font{Variant: "Sans"}, 8)}
	s.box(0, 0, float64(wide), float64(high), paperColor)
	shrink := math.Min(1, math.Min(float64(wide)/(k.wide+2*pictureMargin), float64(high)/(k.high+2*pictureMargin)))
	canvas.Push()
	canvas.Translate(vg.Point{X: 0, Y: high})
	canvas.Scale(shrink, shrink)
	canvas.Translate(vg.Point{X: pictureMargin, Y: -pictureMargin})
	s.high = 0
	k.draw(s)
	canvas.Pop()
	_, err := canvas.WriteTo(out)
	return err
}

// panelsSketch puts pictures beside and below each other.
func panelsSketch(rows [][]Panel) sketch {
	const gap, titleHigh = 36.0, 22.0
	var all sketch
	type placed struct {
		x, y  float64
		title string
		of    sketch
	}
	var list []placed
	y := 0.0
	for i, row := range rows {
		if i > 0 {
			y += gap
		}
		x, tall := 0.0, 0.0
		for _, one := range row {
			m := one.Marks
			if m == nil {
				m = &picture.Marks{}
			}
			k := sketchOf(one.Picture, m)
			list = append(list, placed{x, y, one.Title, k})
			x, tall = x+math.Max(k.wide, 7*float64(len(one.Title)))+gap, math.Max(tall, k.high+titleHigh)
		}
		all.wide = math.Max(all.wide, x-gap)
		y += tall
	}
	all.high = y
	all.draw = func(s *sheet) {
		for _, one := range list {
			s.canvas.Push()
			s.canvas.Translate(vg.Point{X: vg.Length(one.x), Y: -vg.Length(one.y)})
			s.canvas.SetColor(inkColor)
			s.canvas.FillString(s.face, s.at(0, 10), one.title)
			s.canvas.Translate(vg.Point{Y: -titleHigh})
			if one.of.draw != nil {
				one.of.draw(s)
			}
			s.canvas.Pop()
		}
	}
	return all
}

func sketchOf(p picture.Picture, m *picture.Marks) sketch {
	switch {
	case p.Graph != nil:
		return graphSketch(p.Graph, m)
	case p.Grid != nil:
		return gridSketch(p.Grid, m)
	case p.Bars != nil:
		return barSketch(p.Bars, m)
	case p.Spans != nil:
		return spanSketch(p.Spans, m)
	case p.Points != nil:
		return pointSketch(p.Points, m)
	case p.Cycles != nil:
		return cycleSketch(p.Cycles)
	case p.Word != nil:
		return wordSketch(p.Word)
	}
	return sketch{}
}

func (s *sheet) at(x, y float64) vg.Point {
	return vg.Point{X: vg.Length(x), Y: s.high - vg.Length(y)}
}

func (s *sheet) box(x, y, wide, high float64, fill color.Color) {
	var path vg.Path
	path.Move(s.at(x, y))
	path.Line(s.at(x+wide, y))
	path.Line(s.at(x+wide, y+high))
	path.Line(s.at(x, y+high))
	path.Close()
	s.canvas.SetColor(fill)
	s.canvas.Fill(path)
}

func (s *sheet) line(x1, y1, x2, y2, width float64, ink color.Color) {
	var path vg.Path
	path.Move(s.at(x1, y1))
	path.Line(s.at(x2, y2))
	s.canvas.SetColor(ink)
	s.canvas.SetLineWidth(vg.Length(width))
	s.canvas.Stroke(path)
}

func (s *sheet) circle(x, y, radius, width float64, ink, fill color.Color) {
	var path vg.Path
	path.Move(s.at(x+radius, y))
	path.Arc(s.at(x, y), vg.Length(radius), 0, 2*math.Pi)
	path.Close()
	if fill != nil {
		s.canvas.SetColor(fill)
		s.canvas.Fill(path)
	}
	if ink != nil {
		s.canvas.SetColor(ink)
		s.canvas.SetLineWidth(vg.Length(width))
		s.canvas.Stroke(path)
	}
}

// text writes a text around a place.
func (s *sheet) text(x, y float64, text string, face font.Face, ink color.Color) {
	e := face.Extents()
	at := s.at(x, y)
	s.canvas.SetColor(ink)
	s.canvas.FillString(face, vg.Point{X: at.X - face.Width(text)/2, Y: at.Y - (e.Ascent-e.Descent)/2 + e.Descent/4}, text)
}

// arrowHead ends a line at a place, in its direction.
func (s *sheet) arrowHead(x, y, dx, dy float64, ink color.Color) {
	length := math.Max(1e-9, math.Hypot(dx, dy))
	dx, dy = dx/length*8, dy/length*8
	var path vg.Path
	path.Move(s.at(x, y))
	path.Line(s.at(x-dx-dy/2.2, y-dy+dx/2.2))
	path.Line(s.at(x-dx+dy/2.2, y-dy-dx/2.2))
	path.Close()
	s.canvas.SetColor(ink)
	s.canvas.Fill(path)
}

func graphSketch(g *picture.Graph, m *picture.Marks) sketch {
	places := picture.Lay(g)
	low, high := picture.Bounds(places)
	name := func(v int) string {
		if g.Labels != nil {
			return g.Labels[v]
		}
		return strconv.FormatInt(int64(v)+g.From, 10)
	}
	at := func(v int) (x, y float64) {
		return (places[v].X-low.X)*pictureUnit + vertexRadius, (places[v].Y-low.Y)*pictureUnit + vertexRadius
	}
	return sketch{(high.X-low.X)*pictureUnit + 2*vertexRadius, (high.Y-low.Y)*pictureUnit + 2*vertexRadius, func(s *sheet) {
		times := map[[2]int]int{}
		for _, e := range g.Edges {
			ink, width := color.Color(faintColor), 1.0
			if m.Edges[[2]int{e.A, e.B}] {
				ink, width = markedColor, 2.5
			}
			key := [2]int{min(e.A, e.B), max(e.A, e.B)}
			times[key]++
			drawEdge(s, g, e, at, times[key]-1, ink, width)
		}
		for v := range g.N {
			x, y := at(v)
			ink, fill, width := color.Color(tealColor), color.Color(wellColor), 1.2
			if m.Vertices[v] {
				ink, width = markedColor, 3
			}
			s.circle(x, y, vertexRadius, width, ink, fill)
			face := s.face
			if len(name(v)) > 3 {
				face = s.tiny
			}
			s.text(x, y, name(v), face, inkColor)
		}
	}}
}

// drawEdge draws an edge: bent where it is not the first between two vertices, and as a loop at one.
func drawEdge(s *sheet, g *picture.Graph, e picture.Edge, at func(int) (float64, float64), before int, ink color.Color, width float64) {
	x1, y1 := at(e.A)
	x2, y2 := at(e.B)
	if e.A == e.B {
		r := 7 + 3*float64(before)
		s.circle(x1+vertexRadius*0.8, y1-vertexRadius*0.8, r, width, ink, nil)
		if e.Label != "" {
			s.text(x1+vertexRadius+r, y1-vertexRadius-r, e.Label, s.tiny, inkColor)
		}
		return
	}
	dx, dy := x2-x1, y2-y1
	length := math.Max(1e-9, math.Hypot(dx, dy))
	bend := 0.0
	if before > 0 {
		bend = 12 * float64((before+1)/2)
		if before%2 == 0 {
			bend = -bend
		}
	}
	if e.A > e.B { // seen from the same side
		bend = -bend
	}
	midX, midY := (x1+x2)/2-dy/length*bend, (y1+y2)/2+dx/length*bend
	s.line(x1, y1, midX, midY, width, ink)
	s.line(midX, midY, x2, y2, width, ink)
	if g.Directed {
		ex, ey := x2-midX, y2-midY
		l := math.Max(1e-9, math.Hypot(ex, ey))
		s.arrowHead(x2-ex/l*vertexRadius, y2-ey/l*vertexRadius, ex, ey, ink)
	}
	if e.Label != "" {
		w := float64(s.tiny.Width(e.Label)) + 4
		s.box(midX-w/2, midY-6, w, 12, paperColor)
		s.text(midX, midY, e.Label, s.tiny, inkColor)
	}
}

// gridColors tell the symbols of a grid apart, the most frequent first.
var gridColors = []color.RGBA{{0xf4, 0xf6, 0xf5, 0xff}, {0x4d, 0x6a, 0x78, 0xff}, {0xb5, 0xd6, 0xe0, 0xff}, {0xe6, 0xc9, 0x9a, 0xff}, {0xc9, 0xb5, 0xe0, 0xff}, {0xd8, 0xa0, 0xa8, 0xff}, {0xa9, 0xcf, 0xa2, 0xff}}

func gridSketch(rows []string, m *picture.Marks) sketch {
	counts := map[rune]int{}
	wide := 0
	for _, row := range rows {
		for _, r := range row {
			counts[r]++
		}
		wide = max(wide, len([]rune(row)))
	}
	fill := func(r rune) (color.RGBA, color.Color) {
		place := 0
		for other, n := range counts {
			if n > counts[r] || n == counts[r] && other < r {
				place++
			}
		}
		c := gridColors[min(place, len(gridColors)-1)]
		if place == 1 {
			return c, paperColor
		}
		return c, inkColor
	}
	return sketch{float64(wide)*cellSide + 20, float64(len(rows))*cellSide + 20, func(s *sheet) {
		for c := 0; c < wide; c += 1 + 4*min(1, wide/31) {
			s.text(20+(float64(c)+0.5)*cellSide, 10, strconv.Itoa(c+1), s.tiny, faintColor)
		}
		for i, row := range rows {
			y := 20 + float64(i)*cellSide
			s.text(10, y+cellSide/2, strconv.Itoa(i+1), s.tiny, faintColor)
			for c, r := range []rune(row) {
				x := 20 + float64(c)*cellSide
				back, ink := fill(r)
				s.box(x+0.5, y+0.5, cellSide-1, cellSide-1, back)
				s.text(x+cellSide/2, y+cellSide/2, string(r), s.face, ink)
				if m.Cells[[2]int{i, c}] {
					s.circle(x+cellSide/2, y+cellSide/2, cellSide/2-2, 2.5, markedColor, nil)
				}
			}
		}
	}}
}

func barSketch(bars []float64, m *picture.Marks) sketch {
	low, high := 0.0, 0.0
	for _, x := range bars {
		low, high = math.Min(low, x), math.Max(high, x)
	}
	step := math.Max(4, math.Min(28, 900/float64(len(bars))))
	tall := 220.0
	y := func(x float64) float64 { return 15 + (high-x)/math.Max(high-low, 1e-300)*tall }
	return sketch{step * float64(len(bars)), tall + 40, func(s *sheet) {
		for i, x := range bars {
			ink := color.Color(tealColor)
			if m.Items[i] {
				ink = markedColor
			}
			from, to := math.Min(y(0), y(x)), math.Max(y(0), y(x))
			s.box(float64(i)*step+1, from, step-2, math.Max(1, to-from), ink)
			if step >= 14 {
				s.text((float64(i)+0.5)*step, tall+27, strconv.Itoa(i+1), s.tiny, faintColor)
			}
			if words := number(x); step >= 6*float64(len(words)) {
				above := from - 6
				if x < 0 {
					above = to + 7
				}
				s.text((float64(i)+0.5)*step, above, words, s.tiny, inkColor)
			}
		}
		s.line(0, y(0), step*float64(len(bars)), y(0), 1, inkColor)
	}}
}

func spanSketch(spans [][2]float64, m *picture.Marks) sketch {
	low, high := math.Inf(1), math.Inf(-1)
	for _, one := range spans {
		low, high = math.Min(low, one[0]), math.Max(high, one[1])
	}
	const wide, step = 640.0, 20.0
	x := func(v float64) float64 { return 30 + (v-low)/math.Max(high-low, 1e-300)*wide }
	return sketch{wide + 130, step*float64(len(spans)) + 20, func(s *sheet) {
		for i, one := range spans {
			y := (float64(i) + 0.5) * step
			ink := color.Color(tealColor)
			if m.Items[i] {
				ink = markedColor
			}
			s.text(10, y, strconv.Itoa(i+1), s.tiny, faintColor)
			s.line(x(one[0]), y, x(one[1]), y, 4, ink)
			s.line(x(one[0]), y-6, x(one[0]), y+6, 1.5, ink)
			s.line(x(one[1]), y-6, x(one[1]), y+6, 1.5, ink)
			s.text(wide+85, y, number(one[0])+" to "+number(one[1]), s.tiny, inkColor)
		}
		y := step*float64(len(spans)) + 6
		s.line(x(low), y, x(high), y, 1, faintColor)
		s.text(x(low), y+9, number(low), s.tiny, faintColor)
		s.text(x(high), y+9, number(high), s.tiny, faintColor)
	}}
}

func pointSketch(p *picture.Points, m *picture.Marks) sketch {
	low, high := [2]float64{math.Inf(1), math.Inf(1)}, [2]float64{math.Inf(-1), math.Inf(-1)}
	for _, one := range p.At {
		for k := range 2 {
			low[k], high[k] = math.Min(low[k], one[k]), math.Max(high[k], one[k])
		}
	}
	const side = 480.0
	at := func(one [2]float64) (x, y float64) {
		return 20 + (one[0]-low[0])/math.Max(high[0]-low[0], 1e-300)*side, 20 + (high[1]-one[1])/math.Max(high[1]-low[1], 1e-300)*side
	}
	return sketch{side + 60, side + 50, func(s *sheet) {
		for i := range p.At {
			if p.Closed && len(p.At) > 1 {
				x1, y1 := at(p.At[i])
				x2, y2 := at(p.At[(i+1)%len(p.At)])
				s.line(x1, y1, x2, y2, 1.2, tealColor)
			}
		}
		for i, one := range p.At {
			x, y := at(one)
			ink := color.Color(tealColor)
			if m.Items[i] {
				ink = markedColor
			}
			s.circle(x, y, 3.5, 1, nil, ink)
			if len(p.At) <= 60 {
				s.text(x+8, y-8, strconv.Itoa(i+1), s.tiny, inkColor)
			}
		}
		s.text(side/2+20, side+40, fmt.Sprintf("x from %s to %s, y from %s to %s", number(low[0]), number(high[0]), number(low[1]), number(high[1])), s.tiny, faintColor)
	}}
}

func cycleSketch(cycles [][]int64) sketch {
	type ring struct {
		x, y, radius float64
		of           []int64
	}
	var rings []ring
	x, y, tall, wide := 0.0, 0.0, 0.0, 0.0
	for _, cycle := range cycles {
		radius := math.Max(vertexRadius, float64(len(cycle))*1.5*pictureUnit/(2*math.Pi))
		if len(cycle) == 1 {
			radius = 0
		}
		side := 2*radius + 2*vertexRadius + 14
		if x+side > 900 && x > 0 {
			x, y, tall = 0, y+tall, 0
		}
		rings = append(rings, ring{x + side/2, y + side/2, radius, cycle})
		x, tall = x+side, math.Max(tall, side)
		wide = math.Max(wide, x)
	}
	return sketch{wide, y + tall, func(s *sheet) {
		for _, r := range rings {
			place := func(i int) (float64, float64) {
				angle := 2*math.Pi*float64(i)/float64(len(r.of)) - math.Pi/2
				return r.x + r.radius*math.Cos(angle), r.y + r.radius*math.Sin(angle)
			}
			for i := range r.of {
				x1, y1 := place(i)
				x2, y2 := place((i + 1) % len(r.of))
				if len(r.of) > 1 {
					s.line(x1, y1, x2, y2, 1, faintColor)
					d := math.Max(1e-9, math.Hypot(x2-x1, y2-y1))
					s.arrowHead(x2-(x2-x1)/d*vertexRadius, y2-(y2-y1)/d*vertexRadius, x2-x1, y2-y1, faintColor)
				}
			}
			for i, v := range r.of {
				x, y := place(i)
				s.circle(x, y, vertexRadius, 1.2, tealColor, wellColor)
				s.text(x, y, strconv.FormatInt(v, 10), s.face, inkColor)
			}
		}
	}}
}

func wordSketch(w *picture.Word) sketch {
	const line = 50
	inside := make([]bool, len(w.Text))
	for _, at := range w.At {
		for i := range len(w.Repeat) {
			inside[at+i] = true
		}
	}
	return sketch{float64(min(len(w.Text), line)) * 14, float64((len(w.Text)+line-1)/line) * 26, func(s *sheet) {
		for i := range len(w.Text) {
			x, y := float64(i%line)*14, float64(i/line)*26
			if inside[i] {
				s.box(x, y, 14, 20, color.RGBA{0xff, 0xe3, 0xa8, 0xff})
			}
			s.text(x+7, y+10, w.Text[i:i+1], s.face, inkColor)
		}
	}}
}
