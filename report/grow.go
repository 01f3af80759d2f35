package report

import (
	"io"

	"coldverdict/core/growth"
	"coldverdict/core/problem"
	"coldverdict/core/verdict"
)

// A grown is the JSON form of cold grow, described by docs/grow.schema.json.
type grown struct {
	Format    string           `json:"format"`
	Version   int              `json:"version"`
	Problem   string           `json:"problem"`
	Largest   map[string]int64 `json:"largest,omitempty"`
	Solutions []grownSolution  `json:"solutions"`
}

type grownSolution struct {
	File   string       `json:"file"`
	Points []grownPoint `json:"points"`
	Time   grownTrend   `json:"time"`
	Memory grownTrend   `json:"memory"`
	Output grownTrend   `json:"output"`
	Stop   *grownPoint  `json:"failed,omitempty"`
}

type grownPoint struct {
	Size    map[string]int64 `json:"size"`
	Style   string           `json:"style"`
	Grows   string           `json:"grows,omitempty"`
	Input   int64            `json:"input_bytes"`
	Output  int64            `json:"output_bytes"`
	CPU     float64          `json:"cpu_seconds"`
	Slowest float64          `json:"slowest_cpu_seconds"`
	Memory  int64            `json:"memory_bytes"`
	Runs    int              `json:"runs"`
	Verdict *verdict.Verdict `json:"verdict,omitempty"`
	Message string           `json:"message,omitempty"`
}

type grownTrend struct {
	Law      string           `json:"law,omitempty"`
	Near     []string         `json:"near"`
	Exponent *float64         `json:"exponent,omitempty"`
	Sure     *float64         `json:"exponent_error,omitempty"`
	Style    string           `json:"worst_style"`
	Others   []grownStyle     `json:"other_styles,omitempty"`
	Limit    float64          `json:"limit,omitempty"`
	Largest  grownPrediction  `json:"at_largest"`
	Fits     string           `json:"fits"`
	Most     map[string]int64 `json:"largest_that_fits,omitempty"`
	Knees    []grownKnee      `json:"knees,omitempty"`
}

type grownStyle struct {
	Style string `json:"style"`
	Law   string `json:"law"`
}

type grownPrediction struct {
	Low      *float64 `json:"low,omitempty"`
	High     *float64 `json:"high,omitempty"`
	Measured *float64 `json:"measured,omitempty"`
}

type grownKnee struct {
	Size  map[string]int64 `json:"size"`
	Times float64          `json:"times"`
}

var fitsKeys = map[growth.Fits]string{growth.Yes: "yes", growth.Barely: "barely", growth.No: "no", growth.Unknown: "unknown"}

// plainStyle is what is said of values that no style is about.
const plainStyle = "random"

// WriteGrowth writes what cold grow measured.
func WriteGrowth(out io.Writer, p *problem.Problem, r *growth.Result) error {
	g := grown{Format: "cold-verdict/grow", Version: 1, Problem: p.Title, Largest: named(r.Names, r.Largest), Solutions: []grownSolution{}}
	for _, one := range r.Growths {
		s := grownSolution{
			File: one.Plan.Solution.File, Points: []grownPoint{},
			Time: trendOf(r.Names, one.Time), Memory: trendOf(r.Names, one.Memory), Output: trendOf(r.Names, one.Output),
		}
		for _, point := range one.Points {
			s.Points = append(s.Points, pointOf(r.Names, point))
		}
		if one.Stop != nil {
			stop := pointOf(r.Names, *one.Stop)
			s.Stop = &stop
		}
		g.Solutions = append(g.Solutions, s)
	}
	return writeIndented(out, g)
}

func named(names []string, values []int64) map[string]int64 {
	if len(values) == 0 {
		return nil
	}
	all := map[string]int64{}
	for i, name := range names {
		all[name] = values[i]
	}
	return all
}

func styleOf(style string) string {
	if style == "" {
		return plainStyle
	}
	return style
}

func pointOf(names []string, p growth.Point) grownPoint {
	one := grownPoint{
		Size: named(names, p.Sizes), Style: styleOf(p.Style), Input: p.Input, Output: p.Output, CPU: p.CPU.Seconds(),
		Slowest: p.Slowest.Seconds(), Memory: p.Memory, Runs: p.Runs,
	}
	if p.Axis != growth.All {
		one.Grows = names[p.Axis]
	}
	if !p.Ended() {
		one.Verdict, one.Message = &p.Failed, p.Message
	}
	return one
}

func trendOf(names []string, t growth.Trend) grownTrend {
	one := grownTrend{
		Law: t.Law, Near: append([]string{}, t.Near...), Style: styleOf(t.Style), Limit: t.Limit, Fits: fitsKeys[t.Fits],
		Most: named(names, t.Most), Exponent: known(t.Exponent), Sure: known(t.Sure),
		Largest: grownPrediction{known(t.Largest.Low), known(t.Largest.High), known(t.Largest.Measured)},
	}
	for _, other := range t.Others {
		one.Others = append(one.Others, grownStyle{styleOf(other.Style), other.Law})
	}
	for _, k := range t.Knees {
		one.Knees = append(one.Knees, grownKnee{named(names, k.Sizes), k.Times})
	}
	return one
}

// known is a number, or nil where 0 stands for one that is not known.
func known(x float64) *float64 {
	if x == 0 {
		return nil
	}
	return &x
}
