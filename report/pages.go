package report

import (
	"bytes"
	"cmp"
	"fmt"
	"path/filepath"
	"slices"
	"strconv"
	"strings"
	"time"

	"coldverdict/core/judge"
	"coldverdict/core/picture"
	"coldverdict/core/problem"
	"coldverdict/core/verdict"
	"coldverdict/report/page"
)

// A Maker says which program makes a report, and when.
type Maker struct {
	Version string
	Now     time.Time
}

func (m Maker) page(title string) *page.Page {
	return &page.Page{Title: title, Maker: "Cold Verdict " + m.Version, Made: m.Now}
}

// kindOf is how a verdict is marked.
func kindOf(v verdict.Verdict) page.Kind {
	switch v {
	case verdict.Accepted:
		return page.Good
	case verdict.WrongAnswer, verdict.Partial:
		return page.Wrong
	case verdict.TimeLimit, verdict.Stalled, verdict.MemoryLimit, verdict.OutputLimit:
		return page.Exceeded
	case verdict.RuntimeError, verdict.CompileError, verdict.Fault:
		return page.Broken
	}
	return page.Plain
}

// stateOf is a verdict as a check.
func stateOf(v verdict.Verdict) page.State {
	switch v {
	case verdict.Accepted:
		return page.Passed
	case verdict.Unjudged, verdict.Skipped:
		return page.Skipped
	case verdict.Fault, verdict.CompileError:
		return page.Errored
	}
	return page.Failed
}

// A TryPage makes a report of the events of cold try.
type TryPage struct {
	problem *problem.Problem
	maker   Maker
	runs    []*pageRun
}

// A pageRun is what is known of one solution.
type pageRun struct {
	plan           judge.Plan
	ended          judge.Ended
	outcomes       map[int]verdict.Outcome
	order          []int
	cpu            time.Duration
	memory         int64
	passed, failed int
}

// NewTryPage returns an empty report on a problem.
func NewTryPage(p *problem.Problem, m Maker) *TryPage { return &TryPage{problem: p, maker: m} }

// Tell takes one event of the judge.
func (t *TryPage) Tell(event judge.Event) {
	switch e := event.(type) {
	case judge.Began:
		t.runs = append(t.runs, &pageRun{plan: e.Plan, outcomes: map[int]verdict.Outcome{}})
	case judge.Case:
		t.runs[len(t.runs)-1].add(e)
	case judge.Amended:
		t.runs[e.Solution].ended.Verdict, t.runs[e.Solution].ended.Message = e.Verdict, e.Message
	case judge.Ended:
		t.runs[len(t.runs)-1].ended = e
	}
}

// mostEvidence is for how many failing cases of a solution the evidence is in a report.
const mostEvidence = 20

func (r *pageRun) add(e judge.Case) {
	o := e.Outcome
	if o.Verdict.Passing() {
		r.passed++
	} else if r.failed++; r.failed > mostEvidence { // memory stays flat
		o.Stdout, o.Stderr, o.Talk = verdict.Text{}, verdict.Text{}, nil
	}
	r.outcomes[e.Index] = o
	r.order = append(r.order, e.Index)
	if o.Ran {
		r.cpu, r.memory = max(r.cpu, o.Usage.CPU), max(r.memory, o.Usage.Memory)
	}
}

func (r *pageRun) name() string {
	file := r.plan.Solution.File
	if filepath.IsAbs(file) {
		file = filepath.Base(file)
	}
	return strings.Join(append([]string{file}, r.plan.Solution.Args...), " ")
}

// Page is the report on all that was told.
func (t *TryPage) Page() *page.Page {
	p := t.maker.page(t.problem.Title)
	worst, names := verdict.Unjudged, []string{}
	for i, r := range t.runs {
		if names = append(names, r.name()); i == 0 {
			worst = r.ended.Verdict
		} else {
			worst = verdict.Worse(worst, r.ended.Verdict)
		}
	}
	p.Outcome, p.Kind = worst.String(), kindOf(worst)
	if len(t.runs) == 1 {
		p.Title += ": " + names[0]
	} else {
		p.Outcome = verdict.Count(len(t.runs), "solution") + ", the worst: " + worst.String()
	}
	if len(t.runs) > 0 {
		l := t.runs[0].plan.Limits
		p.Facts = append(p.Facts, page.Fact{Name: "time limit", Text: duration(l.Time)}, page.Fact{Name: "memory limit", Text: verdict.Size(l.Memory)})
	}
	p.Facts = append(p.Facts, page.Fact{Name: "cases", Text: strconv.Itoa(len(t.problem.Cases))})
	p.Tables = []page.Table{t.solutions(), t.cases(p)}
	return p
}

// caseColumns are those of the table of cases.
var caseColumns = []page.Column{
	{Name: "solution", Key: "solution"}, {Name: "case", Key: "case"}, {Name: "verdict", Key: "verdict"},
	{Name: "time", Key: "cpu_seconds", Number: true}, {Name: "memory", Key: "memory_bytes", Number: true}, {Name: "remark", Key: "message"},
}

// cases is the table of all cases. Their evidence and their checks go to the page.
func (t *TryPage) cases(p *page.Page) page.Table {
	table := page.Table{Title: "Cases", Main: true, Columns: slices.Clone(caseColumns)}
	table.Columns[0].Hidden = len(t.runs) == 1
	for n, r := range t.runs {
		if len(r.order) == 0 { // it was not run
			p.Checks = append(p.Checks, page.Check{Suite: r.name(), Name: "build", State: stateOf(r.ended.Verdict), Words: r.ended.Verdict.String(), Message: r.ended.Message, Text: r.log()})
			if text := r.log(); text != "" {
				lines, cut := page.Text(text, mostPageLines)
				p.Details = append(p.Details, page.Detail{ID: fmt.Sprintf("s%d", n), Title: r.name() + ": " + r.ended.Verdict.String(), Kind: kindOf(r.ended.Verdict), Reason: r.ended.Message,
					Blocks: []page.Block{{Title: "the compiler says", Lines: lines, Cut: cut}}, Hints: r.ended.Hints})
			}
		}
		shown := 0
		for _, i := range r.order {
			c, o := &t.problem.Cases[i], r.outcomes[i]
			row := []page.Cell{{Text: r.name()}, {Text: c.Name}, {Text: o.Verdict.String(), Kind: kindOf(o.Verdict)}, {}, {}, {Text: o.Message}}
			if o.Ran {
				limits := r.plan.LimitsOf(c.Group)
				row[3] = page.Cell{Text: duration(o.Usage.CPU), Value: seconds(o.Usage.CPU), Share: portion(float64(o.Usage.CPU), float64(limits.Time))}
				row[4] = page.Cell{Text: verdict.Size(o.Usage.Memory), Value: strconv.FormatInt(o.Usage.Memory, 10), Share: portion(float64(o.Usage.Memory), float64(limits.Memory))}
			}
			check := page.Check{Suite: r.name(), Name: c.Name, State: stateOf(o.Verdict), Words: o.Verdict.String(), Message: o.Message, Seconds: o.Usage.CPU.Seconds()}
			if !o.Verdict.Passing() && o.Verdict != verdict.Skipped && !c.Sealed && shown < mostEvidence {
				shown++
				d := t.evidence(r, c, o)
				d.ID = fmt.Sprintf("s%dc%d", n, i)
				row[1].Link = d.ID
				check.Text = d.Plain()
				p.Details = append(p.Details, d)
			}
			table.Rows = append(table.Rows, row)
			p.Checks = append(p.Checks, check)
		}
	}
	return table
}

func portion(used, limit float64) float64 {
	if limit <= 0 {
		return 0
	}
	return max(used/limit, 0.001)
}

func (r *pageRun) log() string {
	if b := r.plan.Build; b != nil && b.Failed {
		return b.FirstError()
	}
	return ""
}

// solutions is the table of solutions.
func (t *TryPage) solutions() page.Table {
	table := page.Table{Title: "Solutions", Columns: []page.Column{
		{Name: "solution", Key: "solution"}, {Name: "language", Key: "language"}, {Name: "verdict", Key: "verdict"}, {Name: "passed", Key: "passed", Number: true}, {Name: "of", Key: "cases", Number: true},
		{Name: "points", Key: "points", Number: true}, {Name: "most time", Key: "cpu_seconds", Number: true}, {Name: "most memory", Key: "memory_bytes", Number: true},
	}}
	for _, r := range t.runs {
		points := page.Cell{}
		if k := r.ended.Score; k != nil {
			points.Value = number(k.Points)
			points.Text = number(roundTo3(k.Points)) + " of " + number(k.Possible)
			if !k.Known {
				points.Text = "at least " + points.Text
			}
		}
		table.Rows = append(table.Rows, []page.Cell{
			{Text: r.name()}, {Text: r.plan.Language}, {Text: r.ended.Verdict.String(), Kind: kindOf(r.ended.Verdict)}, {Text: strconv.Itoa(r.passed)}, {Text: strconv.Itoa(len(r.order))}, points,
			{Text: duration(r.cpu), Value: seconds(r.cpu)}, {Text: verdict.Size(r.memory), Value: strconv.FormatInt(r.memory, 10)},
		})
	}
	return table
}

// How much of a text is on a page.
const (
	mostPageLines = 60
	mostPageBytes = 16 << 10
)

// evidence is what shows why a case failed.
func (t *TryPage) evidence(r *pageRun, c *problem.Case, o verdict.Outcome) page.Detail {
	d := page.Detail{Title: c.Name + ": " + o.Said(), Kind: kindOf(o.Verdict), Reason: c.Reason, Hints: o.Hints}
	if len(t.runs) > 1 {
		d.Title = r.name() + ", " + d.Title
	}
	d.Blocks = append(d.Blocks, dataBlock(t.problem.Kind().Input, c.Input))
	d.Figures = inputFigures(t.problem, c.Input)
	switch {
	case o.Difference != nil:
		d.Blocks = append(d.Blocks, differenceBlocks(o.Difference)...)
	case o.Returned != "":
		d.Blocks = append(d.Blocks, textBlock("returned", o.Returned, false))
	case len(o.Stdout.Bytes) > 0:
		d.Blocks = append(d.Blocks, textBlock("printed", string(o.Stdout.Bytes), o.Stdout.Cut))
	}
	if k := o.Talk; k != nil {
		d.Blocks = append(d.Blocks, talkBlock(k))
	}
	if len(o.Checker.Bytes) > 0 {
		d.Blocks = append(d.Blocks, textBlock("the checker wrote", string(o.Checker.Bytes), o.Checker.Cut))
	}
	if len(o.Stderr.Bytes) > 0 {
		d.Blocks = append(d.Blocks, textBlock("standard error", string(o.Stderr.Bytes), o.Stderr.Cut))
	}
	return d
}

func dataBlock(title string, data problem.Data) page.Block {
	head, err := data.Head(mostPageBytes)
	if err != nil {
		return page.Block{Title: title, Cut: "it cannot be read"}
	}
	b := textBlock(title+", "+verdict.Size(data.Size), string(head), data.Size > mostPageBytes)
	return b
}

func textBlock(title, text string, cut bool) page.Block {
	if len(text) > mostPageBytes {
		text, cut = strings.ToValidUTF8(text[:mostPageBytes], ""), true
	}
	b := page.Block{Title: title}
	b.Lines, b.Cut = page.Text(strings.ToValidUTF8(text, "\uFFFD"), mostPageLines)
	if cut {
		b.Cut = cmp.Or(b.Cut, "more")
	}
	return b
}

// differenceBlocks are the two sides of a difference, beside each other.
func differenceBlocks(d *verdict.Difference) []page.Block {
	expected, got := textBlock("expected", d.Expected, false), textBlock("got", d.Got, false)
	if len(d.ExpectedSide.Lines)+len(d.GotSide.Lines) > 0 {
		expected, got = sideBlock("expected", d.ExpectedSide), sideBlock("got", d.GotSide)
	}
	got.Beside = true
	return []page.Block{expected, got}
}

// sideBlock is one side of a difference, with the place marked where it begins.
func sideBlock(title string, x verdict.Excerpt) page.Block {
	b := page.Block{Title: title}
	if !x.AtStart && x.FirstLine > 1 {
		b.Lines = append(b.Lines, page.Line{Text: "…"})
	}
	for i, line := range x.Lines {
		one := page.Line{Text: line}
		if x.FirstLine > 0 {
			one.Number = x.FirstLine + i
		}
		if i < len(x.Starts) && x.Starts[i] > 0 {
			one.Text = "…" + line
		}
		if i == x.Mark {
			one = markedLine(one, x, i)
		}
		b.Lines = append(b.Lines, one)
	}
	if x.Mark == len(x.Lines) {
		b.Lines = append(b.Lines, page.Line{Marked: "end of the text", Differs: true})
	} else if !x.AtEnd {
		b.Cut = "more"
	}
	return b
}

// markedLine marks the word that begins where a line differs.
func markedLine(one page.Line, x verdict.Excerpt, i int) page.Line {
	one.Differs = true
	runes := []rune(one.Text)
	at := x.Column - 1
	if i < len(x.Starts) && x.Starts[i] > 0 {
		at -= x.Starts[i] - 1 // the ellipsis stands for what was cut off
	}
	if at < 0 || at > len(runes) {
		return one
	}
	end := at
	for end < len(runes) && runes[end] != ' ' {
		end++
	}
	for at > 0 && at < len(runes) && runes[at-1] != ' ' && runes[at] != ' ' {
		at--
	}
	one.Text, one.Marked, one.Behind = string(runes[:at]), string(runes[at:end]), string(runes[end:])
	if one.Marked == "" {
		one.Marked = "⏎"
	}
	return one
}

// talkBlock is what was said in an interactive problem.
func talkBlock(k *verdict.Talk) page.Block {
	b := page.Block{Title: "what was said"}
	for i, line := range k.Lines {
		if k.LeftOut > 0 && i == k.Gap {
			b.Lines = append(b.Lines, page.Line{Text: fmt.Sprintf("… %s left out …", verdict.Count(k.LeftOut, "line"))})
		}
		by := "candidate:  "
		if line.ByOther {
			by = "interactor: "
		}
		b.Lines = append(b.Lines, page.Line{Text: by + line.Text})
	}
	return b
}

func seconds(d time.Duration) string { return fmt.Sprintf("%.6f", d.Seconds()) }

// duration shows a time to three figures at the most.
func duration(d time.Duration) string { return timeLabel(roundTo3(d.Seconds())) }

// roundTo3 rounds a number to three figures.
func roundTo3(x float64) float64 {
	rounded, err := strconv.ParseFloat(strconv.FormatFloat(x, 'g', 3, 64), 64)
	if err != nil {
		return x
	}
	return rounded
}

// MergedPage is the report on a run that several machines made.
func MergedPage(m Maker, t *Try) *page.Page {
	made := m.page(t.Problem)
	table := page.Table{Title: "Cases", Main: true, Columns: slices.Clone(caseColumns)}
	worst := verdict.Unjudged
	for i, s := range t.Solutions {
		if i == 0 {
			worst = s.Verdict
		}
		worst = verdict.Worse(worst, s.Verdict)
		name := solutionKey(s.File, s.Args)
		if len(s.Cases) == 0 {
			made.Checks = append(made.Checks, page.Check{Suite: name, Name: "build", State: stateOf(s.Verdict), Words: s.Verdict.String(), Message: s.Message})
		}
		for _, c := range s.Cases {
			row := []page.Cell{{Text: name}, {Text: c.Name}, {Text: c.Verdict.String(), Kind: kindOf(c.Verdict)}, {}, {}, {Text: c.Message}}
			check := page.Check{Suite: name, Name: c.Name, State: stateOf(c.Verdict), Words: c.Verdict.String(), Message: c.Message}
			if c.CPUSeconds != nil && c.MemoryBytes != nil {
				check.Seconds = *c.CPUSeconds
				row[3] = page.Cell{Text: timeLabelled(*c.CPUSeconds), Value: fmt.Sprintf("%.6f", *c.CPUSeconds)}
				row[4] = page.Cell{Text: verdict.Size(*c.MemoryBytes), Value: strconv.FormatInt(*c.MemoryBytes, 10)}
			}
			table.Rows = append(table.Rows, row)
			made.Checks = append(made.Checks, check)
		}
	}
	made.Outcome, made.Kind = worst.String(), kindOf(worst)
	if len(t.Solutions) > 1 {
		made.Outcome = verdict.Count(len(t.Solutions), "solution") + ", the worst: " + worst.String()
	}
	made.Tables = []page.Table{table}
	return made
}

// inputFigures draw what an input holds, where a picture says more than its text and it is small.
func inputFigures(p *problem.Problem, input problem.Data) (figures []page.Figure) {
	for _, one := range picture.Beside(p, input) {
		var drawn bytes.Buffer
		if DrawPictures(&drawn, "svg", [][]Panel{{{Picture: one}}}, false) == nil {
			figures = append(figures, page.Figure{Title: one.Title, SVG: svgElement(drawn.String())})
		}
	}
	return figures
}
