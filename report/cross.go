package report

import (
	"fmt"
	"io"

	"coldverdict/core/cross"
	"coldverdict/core/problem"
	"coldverdict/core/verdict"
)

// A crossing is the JSON form of cold cross, described by docs/cross.schema.json.
type crossing struct {
	Format     string    `json:"format"`
	Version    int       `json:"version"`
	Problem    string    `json:"problem"`
	Seed       uint64    `json:"seed"`
	Candidates []string  `json:"candidates"`
	Against    string    `json:"against"`
	Reference  string    `json:"reference,omitempty"`
	Inputs     int       `json:"inputs"`
	Judged     int       `json:"judged"`
	Seconds    float64   `json:"seconds"`
	Found      []found   `json:"found"`
	Health     *health   `json:"reference_health,omitempty"`
	Coverage   coverage  `json:"coverage"`
	Notes      []note    `json:"notes,omitempty"`
	Slowest    []slowest `json:"slowest,omitempty"` // of each candidate; with --slow several
}

type origin struct {
	Edge   string `json:"edge_case,omitempty"`
	Seed   string `json:"seed"`
	Size   string `json:"size"`
	Style  string `json:"style,omitempty"`
	Number int    `json:"number,omitempty"`
}

type found struct {
	File       string         `json:"file"`
	Way        string         `json:"way"`
	Origin     origin         `json:"origin"`
	Inputs     int            `json:"inputs"`
	Seconds    float64        `json:"seconds"`
	FirstBytes int64          `json:"first_bytes"`
	Bytes      int64          `json:"bytes"`
	Tries      int            `json:"tries"`
	ShrinkTime float64        `json:"shrink_seconds"`
	Smallest   bool           `json:"smallest"`
	Company    int            `json:"company,omitempty"`
	Doubt      string         `json:"doubt,omitempty"`
	Cases      []foundCase    `json:"cases"`
	Outcome    *testCase      `json:"outcome,omitempty"` // of the last case
	Answers    []groupAnswers `json:"answers,omitempty"`
}

type foundCase struct {
	Input    string  `json:"input"`
	InputCut bool    `json:"input_cut,omitempty"`
	Expected *string `json:"expected,omitempty"`
}

type groupAnswers struct {
	Files  []string `json:"files"`
	Text   string   `json:"text,omitempty"`
	Cut    bool     `json:"text_cut,omitempty"`
	Failed string   `json:"failed,omitempty"`
}

type health struct {
	Answered     int      `json:"answered"`
	LargestBytes int64    `json:"largest_bytes,omitempty"`
	Slow         int      `json:"slow,omitempty"`
	SlowFrom     int64    `json:"slow_from_bytes,omitempty"`
	Failed       int      `json:"failed,omitempty"`
	First        *failure `json:"first_failure,omitempty"`
	Wrong        string   `json:"wrong,omitempty"`
	WrongOn      *failure `json:"wrong_on,omitempty"`
}

type failure struct {
	Input   string          `json:"input"`
	Verdict verdict.Verdict `json:"verdict"`
	Message string          `json:"message,omitempty"`
}

type coverage struct {
	EdgeCases  int          `json:"edge_cases"`
	Random     int          `json:"random"`
	All        int          `json:"all_valid,omitempty"`
	LeastBytes int64        `json:"least_bytes"`
	MostBytes  int64        `json:"most_bytes"`
	Styles     []styleCount `json:"styles,omitempty"`
	Counts     []countRange `json:"counts,omitempty"`
	Answers    []string     `json:"answers,omitempty"`
	Never      []string     `json:"never,omitempty"`
	Parts      []parts      `json:"parts,omitempty"`
}

type parts struct {
	File   string `json:"file"`
	Inputs int    `json:"inputs"`
	Ran    int    `json:"ran"`
	Of     int    `json:"of"`
	Missed []int  `json:"missed_lines,omitempty"`
}

type styleCount struct {
	Style  string `json:"style"`
	Inputs int    `json:"inputs"`
}

type countRange struct {
	Name     string `json:"name"`
	Least    int64  `json:"least"`
	Most     int64  `json:"most"`
	Answered *int64 `json:"most_answered,omitempty"`
}

type note struct {
	File  string `json:"file"`
	Text  string `json:"text"`
	Input string `json:"input"`
}

type slowest struct {
	File        string          `json:"file"`
	Verdict     verdict.Verdict `json:"verdict"`
	CPUSeconds  float64         `json:"cpu_seconds"`
	MemoryBytes int64           `json:"memory_bytes"`
	Bytes       int64           `json:"bytes"`
	Origin      origin          `json:"origin"`
}

// ways are how a failure is called, by its Way.
var ways = []string{cross.Fails: "fails", cross.Unsteady: "unsteady", cross.AfterOthers: "only after other cases", cross.Disagrees: "disagrees"}

// bases are what candidates are compared with, by the Base.
var bases = []string{cross.ByNothing: "nothing", cross.ByReference: "reference", cross.ByChecker: "checker", cross.ByEachOther: "each other"}

// WriteCross writes the JSON form of cold cross.
func WriteCross(w io.Writer, p *problem.Problem, o cross.Options, r *cross.Result) error {
	c := newCrossing(p, o, r)
	for i, peak := range r.Slowest {
		if peak.Time > 0 {
			c.Slowest = append(c.Slowest, slowest{c.Candidates[i], verdict.Unjudged, peak.Time.Seconds(), peak.Memory, peak.Bytes, newOrigin(peak.Origin)})
		}
	}
	return writeIndented(w, c)
}

// WriteSlow writes the JSON form of cold cross --slow.
func WriteSlow(w io.Writer, p *problem.Problem, o cross.Options, all []cross.Slowness, r *cross.Result) error {
	c := newCrossing(p, o, r)
	for _, s := range all {
		for _, t := range s.Worst {
			u := t.Outcome.Usage
			c.Slowest = append(c.Slowest, slowest{c.Candidates[s.Candidate], t.Outcome.Verdict, u.CPU.Seconds(), u.Memory, t.Bytes, newOrigin(t.Origin)})
		}
	}
	return writeIndented(w, c)
}

func newCrossing(p *problem.Problem, o cross.Options, r *cross.Result) *crossing {
	c := &crossing{
		Format: "cold-verdict/cross", Version: 1, Problem: p.Name(), Seed: uint64(o.Seed), Against: bases[r.Base],
		Inputs: r.Inputs, Judged: r.Judged, Seconds: r.Elapsed.Seconds(), Found: []found{}, Coverage: newCoverage(r.Coverage),
	}
	for _, s := range o.Candidates {
		c.Candidates = append(c.Candidates, s.File)
	}
	if r.Base == cross.ByReference {
		c.Reference = o.Reference.File
		h := r.Health
		c.Health = &health{h.Answered, h.Largest, h.Slow, h.SlowFrom, h.Failed, newFailure(h.First), h.Wrong, newFailure(h.WrongOn)}
	}
	for _, one := range r.Coverage.Parts {
		c.Coverage.Parts = append(c.Coverage.Parts, parts{c.Candidates[one.Candidate], one.Inputs, one.Ran, one.Of, one.Missed})
	}
	for _, f := range r.Found {
		c.Found = append(c.Found, newFound(c.Candidates, f))
	}
	for _, n := range r.Notes {
		who := c.Reference
		if n.Candidate != cross.TheReference {
			who = c.Candidates[n.Candidate]
		}
		c.Notes = append(c.Notes, note{who, n.Text, string(n.Input)})
	}
	return c
}

func newOrigin(o cross.Origin) origin {
	return origin{o.Edge, o.Seed.String(), o.Size.String(), o.Style, o.Number}
}

func newFailure(f *cross.Failure) *failure {
	if f == nil {
		return nil
	}
	text, _ := dataText(f.Input)
	return &failure{text, f.Outcome.Verdict, f.Outcome.Message}
}

// mostText bounds a text of an input or an answer, in bytes.
const mostText = 64 << 10

// dataText is a text, or its beginning.
func dataText(d problem.Data) (text string, cut bool) {
	if d.Sealed {
		return "", true
	}
	head, err := d.Head(mostText)
	if err != nil {
		return "", true
	}
	return string(head), d.Size > mostText
}

func newFound(files []string, f cross.Found) found {
	one := found{
		File: files[f.Candidate], Way: ways[f.Way], Origin: newOrigin(f.Origin), Inputs: f.Inputs, Seconds: f.After.Seconds(),
		FirstBytes: f.Before, Bytes: f.Size, Tries: f.Tries, ShrinkTime: f.Shrunk.Seconds(), Smallest: f.Complete,
		Company: f.Company, Doubt: f.Doubt, Cases: []foundCase{},
	}
	for _, c := range f.Cases {
		input, cut := dataText(c.Input)
		next := foundCase{Input: input, InputCut: cut}
		if len(c.Accepted) > 0 {
			expected, _ := dataText(c.Accepted[0])
			next.Expected = &expected
		}
		one.Cases = append(one.Cases, next)
	}
	if f.Way != cross.Disagrees {
		outcome := newCase(problem.Case{Name: fmt.Sprintf("crossed/%d", len(f.Cases))}, f.Outcome)
		one.Outcome = &outcome
	}
	for _, a := range f.Answers {
		group := groupAnswers{Text: string(a.Text.Bytes), Cut: a.Text.Cut, Failed: a.Failed}
		for _, i := range a.Candidates {
			group.Files = append(group.Files, files[i])
		}
		one.Answers = append(one.Answers, group)
	}
	return one
}

func newCoverage(c cross.Coverage) coverage {
	all := coverage{EdgeCases: c.EdgeCases, Random: c.Random, All: c.All, LeastBytes: c.Least, MostBytes: c.Most, Answers: c.Answers, Never: c.Never}
	for _, t := range c.Styles {
		all.Styles = append(all.Styles, styleCount(t))
	}
	for _, n := range c.Counts {
		one := countRange{Name: n.Name, Least: n.Least, Most: n.Most}
		if n.Answered >= 0 {
			one.Answered = &n.Answered
		}
		all.Counts = append(all.Counts, one)
	}
	return all
}
