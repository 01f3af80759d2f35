package report

import (
	"fmt"
	"io"

	"coldverdict/core/problem"
	"coldverdict/core/ready"
)

// A readiness is the JSON form of cold ready, described by docs/ready.schema.json.
type readiness struct {
	Format    string    `json:"format"`
	Version   int       `json:"version"`
	Problem   string    `json:"problem"`
	Solution  string    `json:"solution"`
	Outcome   string    `json:"outcome"`
	Checks    []checked `json:"checks"`
	Unchecked []string  `json:"unchecked"`
	Case      string    `json:"case,omitempty"`
	Input     *string   `json:"input,omitempty"`
	InputCut  bool      `json:"input_cut,omitempty"`
	Found     *found    `json:"found,omitempty"`
}

type checked struct {
	Name     string    `json:"name"`
	Outcome  string    `json:"outcome"`
	Message  string    `json:"message"`
	Seconds  float64   `json:"seconds"`
	Findings []finding `json:"findings,omitempty"`
}

type finding struct {
	Line int    `json:"line,omitempty"`
	Text string `json:"text"`
	Sure bool   `json:"sure"`
}

// WriteReady writes what cold ready found.
func WriteReady(out io.Writer, p *problem.Problem, solution string, r *ready.Result) error {
	all := readiness{Format: "cold-verdict/ready", Version: 1, Problem: p.Name(), Solution: solution, Outcome: r.Outcome.String(), Checks: []checked{}, Unchecked: []string{}, Case: r.Case}
	for _, c := range r.Checks {
		one := checked{Name: c.Name, Outcome: c.State.String(), Message: c.Message, Seconds: c.Took.Seconds()}
		for _, f := range c.Findings {
			one.Findings = append(one.Findings, finding{f.Line, f.Text, f.Sure})
		}
		all.Checks = append(all.Checks, one)
	}
	for _, gap := range r.Unchecked {
		all.Unchecked = append(all.Unchecked, fmt.Sprintf("%s: %s.", gap.What, gap.Todo))
	}
	if f := r.Found; f != nil {
		text, cut := dataText(f.Cases[len(f.Cases)-1].Input)
		all.Input, all.InputCut = &text, cut
		one := newFound([]string{solution}, *f)
		all.Found = &one
	}
	return writeIndented(out, all)
}
