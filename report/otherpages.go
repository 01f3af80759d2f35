package report

import (
	"bytes"
	"fmt"
	"slices"
	"strconv"
	"strings"
	"time"

	"coldverdict/core/cross"
	"coldverdict/core/growth"
	"coldverdict/core/problem"
	"coldverdict/core/rank"
	"coldverdict/core/ready"
	"coldverdict/core/verdict"
	"coldverdict/report/page"
)

// CrossPage is the report on what cold cross found.
func CrossPage(m Maker, p *problem.Problem, o cross.Options, r *cross.Result) *page.Page {
	c := newCrossing(p, o, r)
	made := m.page(p.Title + ": " + strings.Join(c.Candidates, ", "))
	made.Outcome, made.Kind = "no failure found", page.Good
	made.Facts = []page.Fact{
		{Name: "compared with", Text: strings.TrimSuffix(c.Against+" "+c.Reference, " ")}, {Name: "inputs", Text: verdict.Thousands(int64(r.Inputs))},
		{Name: "seconds", Text: number(roundTo3(r.Elapsed.Seconds()))}, {Name: "seed", Text: strconv.FormatUint(c.Seed, 10)},
	}
	table := page.Table{Title: "Solutions", Main: true, Columns: []page.Column{
		{Name: "solution", Key: "solution"}, {Name: "outcome", Key: "outcome"}, {Name: "inputs until then", Key: "inputs", Number: true},
		{Name: "smallest input, bytes", Key: "bytes", Number: true}, {Name: "remark", Key: "message"},
	}}
	failed := map[int]bool{}
	for i, f := range r.Found {
		failed[f.Candidate] = true
		one := c.Found[i]
		d := page.Detail{ID: fmt.Sprintf("f%d", i), Title: one.File + " " + one.Way, Kind: page.Wrong, Reason: f.Doubt, Hints: f.Outcome.Hints}
		words := f.Outcome.Said()
		if f.Way != cross.Disagrees {
			d.Title += ": " + words
			d.Kind = kindOf(f.Outcome.Verdict)
		}
		d.Figures = inputFigures(p, f.Cases[len(f.Cases)-1].Input)
		for _, test := range f.Cases {
			d.Blocks = append(d.Blocks, dataBlock(p.Kind().Input, test.Input))
		}
		switch last := f.Cases[len(f.Cases)-1]; {
		case len(f.Answers) > 0:
			for _, a := range f.Answers {
				var who []string
				for _, n := range a.Candidates {
					who = append(who, c.Candidates[n])
				}
				d.Blocks = append(d.Blocks, textBlock(strings.Join(who, ", "), string(a.Text.Bytes)+a.Failed, a.Text.Cut))
			}
		case f.Outcome.Difference != nil:
			d.Blocks = append(d.Blocks, differenceBlocks(f.Outcome.Difference)...)
		case len(last.Accepted) > 0:
			d.Blocks = append(d.Blocks, dataBlock("expected", last.Accepted[0]))
		}
		made.Details = append(made.Details, d)
		table.Rows = append(table.Rows, []page.Cell{{Text: one.File, Link: d.ID}, {Text: one.Way, Kind: d.Kind}, {Text: strconv.Itoa(f.Inputs)}, {Text: strconv.FormatInt(f.Size, 10)}, {Text: words}})
		made.Checks = append(made.Checks, page.Check{Suite: one.File, Name: "generated inputs", State: page.Failed, Words: one.Way, Message: words, Text: d.Plain(), Seconds: f.After.Seconds()})
	}
	for i, file := range c.Candidates {
		if !failed[i] {
			table.Rows = append(table.Rows, []page.Cell{{Text: file}, {Text: "no failure found", Kind: page.Good}, {Text: strconv.Itoa(r.Inputs)}, {}, {}})
			state := page.Passed
			if r.Judged == 0 {
				state = page.Skipped
			}
			made.Checks = append(made.Checks, page.Check{Suite: file, Name: "generated inputs", State: state, Words: "no failure found", Message: verdict.Count(r.Inputs, "input"), Seconds: r.Elapsed.Seconds()})
		}
	}
	switch {
	case len(r.Found) > 0:
		made.Outcome, made.Kind = verdict.Count(len(r.Found), "failure")+" found", page.Wrong
	case r.Judged == 0:
		made.Outcome, made.Kind = "nothing was judged", page.Doubtful
	}
	for _, n := range c.Notes {
		made.Notes = append(made.Notes, n.File+": "+n.Text)
	}
	if r.Health.Wrong != "" {
		made.Notes = append(made.Notes, c.Reference+": "+r.Health.Wrong)
	}
	made.Tables = []page.Table{table}
	return made
}

// ReadyPage is the report on what cold ready found.
func ReadyPage(m Maker, p *problem.Problem, solution string, r *ready.Result) *page.Page {
	made := m.page(p.Title + ": " + solution)
	made.Outcome, made.Kind = r.Outcome.String(), [...]page.Kind{page.Good, page.Doubtful, page.Wrong}[r.Outcome]
	table := page.Table{Title: "Checks", Main: true, Columns: []page.Column{{Name: "check", Key: "check"}, {Name: "outcome", Key: "outcome"}, {Name: "seconds", Key: "seconds", Number: true}, {Name: "remark", Key: "message"}}}
	for _, c := range r.Checks {
		kind := [...]page.Kind{page.Good, page.Doubtful, page.Wrong, page.Doubtful, page.Plain}[c.State]
		state := [...]page.State{page.Passed, page.Passed, page.Failed, page.Skipped, page.Skipped}[c.State]
		table.Rows = append(table.Rows, []page.Cell{{Text: c.Name}, {Text: c.State.String(), Kind: kind}, {Text: number(roundTo3(c.Took.Seconds()))}, {Text: c.Message}})
		var findings strings.Builder
		for _, f := range c.Findings {
			words := f.Text
			if f.Line > 0 {
				words = fmt.Sprintf("line %d: %s", f.Line, f.Text)
			}
			fmt.Fprintln(&findings, words)
			made.Notes = append(made.Notes, c.Name+", "+words)
		}
		made.Checks = append(made.Checks, page.Check{Suite: solution, Name: c.Name, State: state, Words: c.State.String(), Message: c.Message, Text: findings.String(), Seconds: c.Took.Seconds()})
	}
	if f := r.Found; f != nil {
		d := page.Detail{ID: "found", Title: f.Outcome.Said(), Kind: kindOf(f.Outcome.Verdict), Hints: f.Outcome.Hints}
		if r.Case != "" {
			d.Title = r.Case + ": " + d.Title
		}
		d.Blocks = append(d.Blocks, dataBlock(p.Kind().Input, f.Cases[len(f.Cases)-1].Input))
		d.Figures = inputFigures(p, f.Cases[len(f.Cases)-1].Input)
		if diff := f.Outcome.Difference; diff != nil {
			d.Blocks = append(d.Blocks, differenceBlocks(diff)...)
		}
		made.Details = append(made.Details, d)
	}
	if r.Log != "" {
		made.Details = append(made.Details, page.Detail{ID: "log", Title: "the compiler says", Kind: page.Broken, Blocks: []page.Block{textBlock("the compiler says", r.Log, false)}})
	}
	for _, gap := range r.Unchecked {
		made.Notes = append(made.Notes, "nobody checked "+gap.What+"; "+gap.Todo)
	}
	made.Tables = []page.Table{table}
	return made
}

// GrowthPage is the report on what cold grow measured.
func GrowthPage(m Maker, p *problem.Problem, r *growth.Result) *page.Page {
	made := m.page(p.Title + ": how it grows")
	laws := page.Table{Title: "Laws", Columns: []page.Column{{Name: "solution"}, {Name: "of"}, {Name: "law"}, {Name: "worst inputs"}, {Name: "at the largest"}, {Name: "limit"}, {Name: "the largest input"}}}
	points := page.Table{Title: "Measured", Main: true, Columns: []page.Column{{Name: "solution", Key: "solution"}, {Name: "inputs", Key: "style"}}}
	for _, name := range r.Names {
		points.Columns = append(points.Columns, page.Column{Name: name, Key: name, Number: true})
	}
	points.Columns = append(points.Columns, page.Column{Name: "time", Key: "cpu_seconds", Number: true}, page.Column{Name: "memory", Key: "memory_bytes", Number: true}, page.Column{Name: "remark", Key: "message"})
	worst := growth.Yes
	rank := map[growth.Fits]int{growth.Yes: 0, growth.Barely: 1, growth.Unknown: 2, growth.No: 3}
	for _, g := range r.Growths {
		file := g.Plan.Solution.File
		for i, t := range []growth.Trend{g.Time, g.Memory, g.Output} {
			of := [...]string{"time", "memory", "output"}[i]
			show := [...]func(float64) string{timeLabelled, sizeLabelled, sizeLabelled}[i]
			if rank[t.Fits] > rank[worst] {
				worst = t.Fits
			}
			law := t.Law
			if len(t.Near) > 0 {
				law += " (or " + strings.Join(t.Near, ", ") + ")"
			}
			laws.Rows = append(laws.Rows, []page.Cell{{Text: file}, {Text: of}, {Text: law}, {Text: styleOf(t.Style)}, {Text: predictionWords(t.Largest, show)}, {Text: show(t.Limit)}, {Text: fitsText[t.Fits], Kind: fitsKind[t.Fits]}})
			state := map[growth.Fits]page.State{growth.No: page.Failed, growth.Unknown: page.Skipped}[t.Fits]
			made.Checks = append(made.Checks, page.Check{Suite: file, Name: of + " at the largest input", State: state, Words: fitsText[t.Fits], Message: predictionWords(t.Largest, show)})
		}
		for _, one := range g.Points {
			points.Rows = append(points.Rows, pointRow(file, one))
		}
		if g.Stop != nil {
			points.Rows = append(points.Rows, pointRow(file, *g.Stop))
		}
	}
	made.Outcome, made.Kind = "the largest input: "+fitsText[worst], fitsKind[worst]
	made.Tables = []page.Table{laws, points}
	var drawn bytes.Buffer
	if DrawGrowth(&drawn, "svg", r) == nil { // with one size there is nothing to draw
		made.Figures = append(made.Figures, page.Figure{Title: "Processor time by size, both axes logarithmic; what is predicted stands as a bar at the largest input.", SVG: svgElement(drawn.String())})
	}
	return made
}

var (
	fitsText = map[growth.Fits]string{growth.Yes: "fits", growth.Barely: "fits barely", growth.No: "does not fit", growth.Unknown: "cannot be told"}
	fitsKind = map[growth.Fits]page.Kind{growth.Yes: page.Good, growth.Barely: page.Doubtful, growth.No: page.Exceeded, growth.Unknown: page.Doubtful}
)

func timeLabelled(s float64) string { return duration(time.Duration(s * float64(time.Second))) }

func sizeLabelled(n float64) string { return verdict.Size(int64(n)) }

func predictionWords(l growth.Prediction, show func(float64) string) string {
	var words []string
	if l.High > 0 {
		words = append(words, "predicted "+show(l.Low)+" to "+show(l.High))
	}
	if l.Measured > 0 {
		words = append(words, "measured "+show(l.Measured))
	}
	return strings.Join(words, ", ")
}

func pointRow(file string, p growth.Point) []page.Cell {
	row := []page.Cell{{Text: file}, {Text: styleOf(p.Style)}}
	for _, n := range p.Sizes {
		row = append(row, page.Cell{Text: verdict.Thousands(n), Value: strconv.FormatInt(n, 10)})
	}
	remark := page.Cell{}
	if !p.Ended() {
		remark = page.Cell{Text: strings.TrimSuffix(p.Failed.String()+", "+p.Message, ", "), Kind: kindOf(p.Failed)}
	}
	return append(row, page.Cell{Text: duration(p.CPU), Value: seconds(p.CPU)}, page.Cell{Text: verdict.Size(p.Memory), Value: strconv.FormatInt(p.Memory, 10)}, remark)
}

// svgElement is a drawing without what stands before its element.
func svgElement(text string) string {
	if i := strings.Index(text, "<svg"); i >= 0 {
		return text[i:]
	}
	return text
}

// RankPage is the report on what cold rank found.
func RankPage(m Maker, p *problem.Problem, r *rank.Result) *page.Page {
	made := m.page(p.Title + ": which is faster")
	made.Facts = []page.Fact{{Name: "cases", Text: strconv.Itoa(len(r.Cases))}, {Name: "rounds", Text: strconv.Itoa(r.Rounds)}}
	table := page.Table{Title: "Places", Main: true}
	names := []string{"solution", "", "time", "slowest case", "memory", "source", "lines", "ratio", "from", "to"}
	for i, key := range rankingHead {
		table.Columns = append(table.Columns, page.Column{Name: names[i], Key: key, Number: i >= 2})
	}
	values := rankingRows(r)
	slowest := time.Duration(1)
	for _, one := range r.Places {
		slowest = max(slowest, one.Time)
	}
	for i, one := range r.Places {
		row := make([]page.Cell, len(rankingHead))
		for k, value := range values[i] {
			row[k] = page.Cell{Text: value, Value: value}
		}
		row[5].Text = verdict.Size(one.Bytes)
		file := one.Plan.Solution.File
		check := page.Check{Suite: file, Name: "ranked", Words: "ranked"}
		if one.Failed != nil {
			row[1].Kind = kindOf(one.Failed.Verdict)
			check.State, check.Words, check.Message = page.Failed, one.Failed.Verdict.String(), one.Failed.Message
		} else {
			row[2].Text, row[3].Text, row[4].Text = duration(one.Time), duration(one.Slowest), verdict.Size(one.Memory)
			row[2].Share = portion(float64(one.Time), float64(slowest))
			check.Seconds = one.Time.Seconds()
			check.Message = fmt.Sprintf("%.2f times the first, %.2f to %.2f", one.Ratio.Ratio, one.Ratio.Low, one.Ratio.High)
		}
		table.Rows = append(table.Rows, row)
		made.Checks = append(made.Checks, check)
	}
	made.Outcome, made.Kind = rankOutcome(r)
	made.Tables = []page.Table{table}
	var drawn bytes.Buffer
	if DrawRanking(&drawn, "svg", r) == nil {
		made.Figures = append(made.Figures, page.Figure{Title: "Times of the first place, with the interval in which each ratio lies.", SVG: svgElement(drawn.String())})
	}
	return made
}

// rankOutcome says in a few words who is first.
func rankOutcome(r *rank.Result) (string, page.Kind) {
	ranked := slices.DeleteFunc(slices.Clone(r.Places), func(p rank.Place) bool { return p.Failed != nil })
	switch {
	case len(ranked) < 2:
		return "nothing could be ranked", page.Doubtful
	case ranked[1].Ratio.Shows():
		return ranked[0].Plan.Solution.File + " is the fastest", page.Good
	}
	return "no difference between the first two that could be shown", page.Plain
}
