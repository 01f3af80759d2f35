package term

import (
	"cmp"
	"fmt"
	"math"
	"slices"
	"strings"
	"time"

	"coldverdict/core/growth"
	"coldverdict/core/judge"
	"coldverdict/core/verdict"
)

// A GrowView shows what cold grow does and finds. Tell it every event.
type GrowView struct {
	Screen *Screen
	Chosen string // how the solution was chosen, if not by name
}

// Tell takes one event.
func (v *GrowView) Tell(event judge.Event) {
	switch e := event.(type) {
	case judge.Building:
		v.Screen.Progress("building …")
	case growth.Progress:
		v.Screen.growing(e)
	}
}

// growing shows what was run last.
func (s *Screen) growing(p growth.Progress) {
	s.Progress("%s, %s, %s", Visible(p.File), sizesOf(p.Names, p.Sizes), styleName(p.Style))
}

// Close shows the result.
func (v *GrowView) Close(r *growth.Result) {
	for i, g := range r.Growths {
		if i > 0 {
			v.Screen.Print("")
		}
		v.solution(r, g)
	}
	v.Screen.Flush()
}

// growMarks are the marks of styles in a chart: the worst first.
var growMarks = []string{"●", "+", "×", "◇"}

func (v *GrowView) solution(r *growth.Result, g growth.Growth) {
	s := v.Screen
	line := strong.Render(solutionName(g.Plan.Solution)) + " grows with " + growthNames(r)
	if v.Chosen != "" {
		line += " (" + v.Chosen + ")"
	}
	s.Print("%s", s.wrapped(normal, line, ""))
	s.Print("%s", s.wrapped(dim, buildWords(g.Plan.Build), "  "))
	s.Print("")
	v.chart(r, g)
	if g.Points[0].Ended() {
		v.trends(r, g)
	}
	if p := g.Stop; p != nil {
		words := fmt.Sprintf("%s at %s, %s", p.Failed, sizesOf(r.Names, p.Sizes), styleName(p.Style))
		if p.Message != "" {
			words += ": " + p.Message
		}
		s.Print("%s", s.wrapped(normal, verdictStyle(p.Failed).Render("failed")+" "+Visible(words), "  "))
	}
	s.Print("%s", s.wrapped(dim, fmt.Sprintf("%s of %s in %s", Count(g.Runs, "run"), Count(len(g.Points), "input"), Duration(g.Elapsed)), ""))
	s.Print("%s %s", strong.Render(solutionName(g.Plan.Solution)+":"), v.fitsWords(g))
}

// trends shows what was measured, and what follows from it.
func (v *GrowView) trends(r *growth.Result, g growth.Growth) {
	v.table(r, g)
	v.Screen.Print("")
	v.trend(r, g, "time", g.Time, seconds)
	v.trend(r, g, "memory", g.Memory, bytesOf)
	if g.Output.Fits != growth.Yes {
		v.trend(r, g, "output", g.Output, bytesOf)
	}
}

// growthNames says what grows, and how far.
func growthNames(r *growth.Result) string {
	if len(r.Largest) == 0 {
		return "the input"
	}
	var parts []string
	for i, name := range r.Names {
		parts = append(parts, fmt.Sprintf("%s up to %s", Visible(name), thousands(r.Largest[i])))
	}
	return strings.Join(parts, ", ")
}

func sizesOf(names []string, sizes []int64) string {
	var parts []string
	for i, name := range names {
		parts = append(parts, Visible(name)+" = "+thousands(sizes[i]))
	}
	return strings.Join(parts, ", ")
}

func styleName(style string) string { return cmp.Or(Visible(style), "random") + " inputs" }

func seconds(x float64) string { return Duration(time.Duration(x * float64(time.Second))) }
func bytesOf(x float64) string { return Size(int64(x)) }

// stylesShown are the styles of a chart: the worst one, the plain one, and those of another law.
func stylesShown(g growth.Growth) (styles []string) {
	add := func(style string) {
		if !slices.Contains(styles, style) && len(styles) < len(growMarks) {
			styles = append(styles, style)
		}
	}
	add(g.Time.Style)
	add("")
	for _, other := range g.Time.Others {
		add(other.Style)
	}
	return styles
}

// chart draws the time of the styles that matter.
func (v *GrowView) chart(r *growth.Result, g growth.Growth) {
	s := v.Screen
	c := chart{width: min(s.Width-16, 100), height: 14, limit: g.Time.Limit, xName: r.Names[growth.Furthest(r.Largest)], x: shortNumber, y: seconds}
	styles := stylesShown(g)
	var legend []string
	for i, style := range slices.Backward(styles) {
		line := chartLine{mark: growMarks[i], style: normal}
		if i == 0 {
			line.style = strong
		}
		for _, p := range g.Points {
			if p.Style == style && p.Axis == growth.All && p.Ended() {
				line.points = append(line.points, chartPoint{float64(p.Sizes[growth.Furthest(r.Largest)]), p.CPU.Seconds()})
			}
		}
		c.lines = append(c.lines, line)
		legend = append([]string{growMarks[i] + " " + styleName(style)}, legend...)
	}
	if t := g.Time; t.Largest.High > 0 && len(r.Largest) > 0 {
		at := float64(r.Largest[growth.Furthest(r.Largest)])
		c.lines = append([]chartLine{{mark: "○", style: marked, points: []chartPoint{{at, t.Largest.Low}, {at, t.Largest.High}}}}, c.lines...)
		legend = append(legend, "○ predicted")
	}
	rows := c.rows()
	for _, row := range rows {
		s.Print("  %s", row)
	}
	if len(rows) > 0 {
		s.Print("  %s", dim.Render(strings.Join(legend, "   ")))
		s.Print("")
	}
}

// shortNumber writes a size in few characters.
func shortNumber(x float64) string {
	if x < 1e7 {
		return thousands(int64(math.Round(x)))
	}
	return fmt.Sprintf("%.2g", x)
}

// mostPoints bounds the points in the table.
const mostPoints = 8

// table shows the largest points of the worst style.
func (v *GrowView) table(r *growth.Result, g growth.Growth) {
	s := v.Screen
	var list []growth.Point
	for _, p := range g.Points {
		if p.Style == g.Time.Style && p.Axis == growth.All {
			list = append(list, p)
		}
	}
	list = list[max(0, len(list)-mostPoints):]
	wide := make([]int, len(r.Names))
	for i, name := range r.Names {
		wide[i] = max(8, width(name)+2)
		for _, p := range list {
			wide[i] = max(wide[i], width(thousands(p.Sizes[i]))+2)
		}
	}
	head := ""
	for i, name := range r.Names {
		head += padLeft(Visible(name), wide[i])
	}
	s.Print("  %s", dim.Render(head+padLeft("input", 11)+padLeft("time", 11)+padLeft("memory", 11)+padLeft("runs", 6)+"  "+styleName(g.Time.Style)))
	for _, p := range list {
		row := ""
		for i := range r.Names {
			row += padLeft(thousands(p.Sizes[i]), wide[i])
		}
		row += padLeft(Size(p.Input), 11) + padLeft(Duration(p.CPU), 11) + padLeft(Size(p.Memory), 11) + padLeft(fmt.Sprint(p.Runs), 6)
		if !p.Ended() {
			row += "  " + verdictStyle(p.Failed).Render(p.Failed.String())
		}
		s.Print("  %s", row)
	}
}

// trend says how something grows, and what the largest input takes of it.
func (v *GrowView) trend(r *growth.Result, g growth.Growth, what string, t growth.Trend, value func(float64) string) {
	s := v.Screen
	law := "too little was measured to know a law"
	if t.Law != "" {
		law = strong.Render(Visible(t.Law))
		if t.Law == "1" {
			law = strong.Render("the same for all sizes")
		}
		if len(t.Near) > 0 {
			law += ", or " + Visible(strings.Join(t.Near[:min(len(t.Near), 3)], ", or "))
		}
		if t.Exponent != 0 {
			law += fmt.Sprintf("; exponent %.2f ± %.2f", t.Exponent, t.Sure)
		}
	}
	line := strong.Render(what+":") + " " + law
	if t.Law != "" && t.Law != "1" && (t.Style != "" || len(t.Others) > 0) {
		line += ", on " + styleName(t.Style)
	}
	s.Print("%s", s.wrapped(normal, line, "  "))
	for _, other := range t.Others[:min(len(t.Others), 3)] {
		s.Print("%s", s.wrapped(normal, fmt.Sprintf("%s on %s", Visible(other.Law), styleName(other.Style)), "    "))
	}
	for _, k := range t.Knees {
		s.Print("%s", s.wrapped(normal, fmt.Sprintf("from %s on it takes %.1f times as much as the law says", sizesOf(r.Names, k.Sizes), k.Times), "    "))
	}
	s.Print("%s", s.wrapped(normal, v.largest(r, g, what, t, value), "    "))
}

// largest says what the largest input takes.
func (v *GrowView) largest(r *growth.Result, g growth.Growth, what string, t growth.Trend, value func(float64) string) string {
	words := "the largest input"
	if len(r.Largest) > 0 {
		words += " (" + sizesOf(r.Names, r.Largest) + ")"
	}
	p := t.Largest
	var parts []string
	if p.High > 0 {
		parts = append(parts, fmt.Sprintf("predicted %s to %s", value(p.Low), value(p.High)))
	}
	if p.Measured > 0 {
		parts = append(parts, "measured "+value(p.Measured))
	}
	words += ": " + cmp.Or(strings.Join(parts, ", "), "not predicted")
	if t.Limit > 0 {
		unset := g.Plan.Unset.Time != 0
		switch what {
		case "memory":
			unset = g.Plan.Unset.Memory != 0
		case "output":
			unset = g.Plan.Unset.Output != 0
		}
		words += " of " + value(t.Limit) + unsetWord(unset)
	}
	words += ": " + fitsStyle(t.Fits)
	if len(t.Most) > 0 {
		words += "; up to about " + sizesOf(r.Names, t.Most) + " would fit"
	}
	return words
}

func fitsStyle(f growth.Fits) string {
	switch f {
	case growth.Yes:
		return okay.Render(f.String())
	case growth.No:
		return verdictStyle(verdict.TimeLimit).Render(f.String())
	}
	return marked.Render(f.String())
}

// fitsWords is the last line: what is worst of all that has a limit.
func (v *GrowView) fitsWords(g growth.Growth) string {
	if !g.Points[0].Ended() {
		return verdictStyle(g.Points[0].Failed).Render(g.Points[0].Failed.String()) + " on the smallest input already"
	}
	worst, what := growth.Yes, ""
	rank := map[growth.Fits]int{growth.Yes: 0, growth.Barely: 1, growth.Unknown: 2, growth.No: 3}
	for i, t := range []growth.Trend{g.Time, g.Memory, g.Output} {
		if rank[t.Fits] > rank[worst] {
			worst, what = t.Fits, []string{"time", "memory", "output"}[i]
		}
	}
	words := "the largest input " + fitsStyle(worst)
	if what != "" {
		words += ", in " + what
	}
	return words
}
