package report

import (
	"encoding/json"
	"fmt"
	"io"
	"slices"
	"strings"

	"coldverdict/core/problem"
	"coldverdict/core/verdict"
)

// A Share says which part of a run was made. Several machines make a run together, each a share of it.
type Share struct {
	Number, Of int  // Number is 1 to Of
	Solutions  bool // the solutions are shared, and not the cases
}

// String is a share as it is written: "3/8".
func (s Share) String() string { return fmt.Sprintf("%d/%d", s.Number, s.Of) }

// Has reports that something at a position, from 0, belongs to the share.
func (s Share) Has(position int) bool { return s.Of == 0 || position%s.Of == s.Number-1 }

// A share is what the results of a share say of the whole run, so that all shares can be joined without the problem.
type share struct {
	Number    int           `json:"number"`
	Of        int           `json:"of"`
	By        string        `json:"by"`                  // "cases" or "solutions"
	Cases     []string      `json:"cases,omitempty"`     // names of all that run, in case order
	RunOrder  []int         `json:"run_order,omitempty"` // of those cases, where it is another order: indices of Cases
	Solutions []string      `json:"solutions,omitempty"` // all that run, in their order
	Groups    []sharedGroup `json:"groups,omitempty"`    // that are worth points
}

type sharedGroup struct {
	Name   string  `json:"name"`
	Points float64 `json:"points"`
	Score  string  `json:"score"`
	Cases  int     `json:"cases"` // that the problem has in it, whether they run or not
}

// SetShare notes that the run is a share of one of these cases, by their indices, and of these solutions.
func (t *Try) SetShare(s Share, cases []int, solutions []problem.Solution) {
	t.Share = &share{Number: s.Number, Of: s.Of, By: "cases", Cases: []string{}}
	for _, i := range cases {
		t.Share.Cases = append(t.Share.Cases, t.problem.Cases[i].Name)
	}
	if order := t.problem.InRunOrder(t.problem.Cases, cases); !slices.Equal(order, cases) {
		for _, i := range order {
			t.Share.RunOrder = append(t.Share.RunOrder, slices.Index(cases, i))
		}
	}
	if s.Solutions {
		t.Share.By = "solutions"
	}
	for _, one := range solutions {
		t.Share.Solutions = append(t.Share.Solutions, solutionKey(one.File, one.Args))
	}
	for _, name := range t.problem.Groups() {
		if rule := t.problem.Rule(name); rule.Points > 0 {
			cases := 0
			for _, c := range t.problem.Cases {
				if c.Group == name {
					cases++
				}
			}
			t.Share.Groups = append(t.Share.Groups, sharedGroup{name, rule.Points, rule.Score, cases})
		}
	}
}

// solutionKey tells the entries of one source apart.
func solutionKey(file string, args []string) string {
	return strings.Join(append([]string{file}, args...), " ")
}

// ReadTry reads the JSON form of cold try.
func ReadTry(r io.Reader) (*Try, error) {
	var t Try
	if err := json.NewDecoder(r).Decode(&t); err != nil {
		return nil, fmt.Errorf("this is not what 'cold try --json' writes: %w", err)
	}
	if t.Format != "cold-verdict/try" || t.Version != 1 {
		return nil, fmt.Errorf("this is not what 'cold try --json' writes: its format is %q, version %d", t.Format, t.Version)
	}
	return &t, nil
}

// Merge joins the shares of a run, given in any order, to what the whole run would have said. The error says which
// share is missing, or what does not belong together.
func Merge(parts []*Try) (*Try, error) {
	first := parts[0]
	if first.Share == nil {
		return nil, fmt.Errorf("the first file is no share of a run; 'cold try --share 1/8 --json FILE' writes one")
	}
	of := first.Share.Of
	ordered := make([]*Try, of)
	for _, one := range parts {
		switch {
		case one.Share == nil:
			return nil, fmt.Errorf("one of the files is no share of a run")
		case one.Problem != first.Problem || one.Share.Of != of || one.Share.By != first.Share.By ||
			!slices.Equal(one.Share.Cases, first.Share.Cases) || !slices.Equal(one.Share.Solutions, first.Share.Solutions):
			return nil, fmt.Errorf("share %d/%d of %s and share %d/%d of %s are not of one run: the problem, the cases, the solutions or the number of shares differ",
				first.Share.Number, of, first.Problem, one.Share.Number, one.Share.Of, one.Problem)
		case one.Share.Number < 1 || one.Share.Number > of:
			return nil, fmt.Errorf("there is no share %d/%d", one.Share.Number, of)
		case ordered[one.Share.Number-1] != nil:
			return nil, fmt.Errorf("share %d/%d is there twice", one.Share.Number, of)
		}
		ordered[one.Share.Number-1] = one
	}
	for i, one := range ordered {
		if one == nil {
			return nil, fmt.Errorf("share %d/%d is missing", i+1, of)
		}
	}
	merged := &Try{Format: first.Format, Version: first.Version, Problem: first.Problem, Solutions: []solution{}}
	for _, key := range first.Share.Solutions {
		var of []solution
		for _, one := range ordered {
			for _, s := range one.Solutions {
				if solutionKey(s.File, s.Args) == key {
					of = append(of, s)
				}
			}
		}
		if len(of) == 0 {
			return nil, fmt.Errorf("no share has the solution %s; was its run ended?", key)
		}
		merged.Solutions = append(merged.Solutions, mergedSolution(of, first.Share))
	}
	return merged, nil
}

// mergedSolution joins what the shares say of one solution.
func mergedSolution(parts []solution, whole *share) solution {
	s := parts[0]
	byName := map[string]testCase{}
	for _, one := range parts {
		for _, c := range one.Cases {
			if known, ok := byName[c.Name]; !ok || verdict.Worse(known.Verdict, c.Verdict) != known.Verdict {
				byName[c.Name] = c
			}
		}
		if len(s.Hints) == 0 {
			s.Hints = one.Hints
		}
	}
	s.Cases = []testCase{}
	var verdicts []verdict.Verdict
	for _, name := range whole.Cases {
		if c, ok := byName[name]; ok {
			verdicts = append(verdicts, c.Verdict)
		}
	}
	for _, name := range whole.inRunOrder() {
		if c, ok := byName[name]; ok {
			s.Cases = append(s.Cases, c)
		}
	}
	if len(verdicts) == 0 {
		return s // it was not run anywhere, for one reason
	}
	s.Verdict, s.Message = verdict.OfSolution(verdicts), ""
	for _, one := range parts { // a share may know that two solutions answer differently
		if s.Verdict.Passing() && !one.Verdict.Passing() && one.Verdict != verdict.Skipped {
			s.Verdict, s.Message = one.Verdict, one.Message
		}
	}
	s.score(whole, byName)
	return s
}

// inRunOrder are the names of the cases as they run.
func (s *share) inRunOrder() []string {
	if len(s.RunOrder) != len(s.Cases) {
		return s.Cases
	}
	names := make([]string, len(s.Cases))
	for at, i := range s.RunOrder {
		if i >= 0 && i < len(s.Cases) {
			names[at] = s.Cases[i]
		}
	}
	return names
}

// score adds up the points of a solution from its cases.
func (s *solution) score(whole *share, byName map[string]testCase) {
	if s.Possible == nil {
		return
	}
	total, possible := 0.0, 0.0
	had := s.Groups
	s.Groups = nil
	for _, g := range whole.Groups {
		if !slices.ContainsFunc(had, func(one groupScore) bool { return one.Name == g.Name }) {
			continue // the solution does not run it
		}
		var shares []float64
		known := true
		for _, name := range whole.Cases {
			if group, _, _ := strings.Cut(name, "/"); group != g.Name {
				continue
			}
			c, ok := byName[name]
			known = known && ok && c.Verdict != verdict.Unjudged && c.Verdict != verdict.Fault
			shares = append(shares, c.portion())
		}
		one := groupScore{Name: g.Name, Possible: g.Points}
		if known && len(shares) == g.Cases {
			points := g.Points * problem.Fraction(g.Score, shares)
			one.Points = &points
			total += points
		}
		possible += g.Points
		s.Groups = append(s.Groups, one)
	}
	s.Points, s.Possible = &total, &possible
}

// portion is the share of a case's points that the solution gets.
func (c testCase) portion() float64 {
	switch {
	case c.Verdict == verdict.Accepted:
		return 1
	case c.Share != nil:
		return *c.Share
	}
	return 0
}

// Verdicts are those of the solutions, and whether each is the one that it must get, where that was asked for.
func (t *Try) Verdicts() (verdicts []verdict.Verdict, met []bool) {
	for _, s := range t.Solutions {
		verdicts = append(verdicts, s.Verdict)
		met = append(met, s.Expect == "" || s.Expect == s.Verdict.String())
	}
	return verdicts, met
}

// Expects reports that the solutions were compared with the verdicts that they must get.
func (t *Try) Expects() bool {
	return slices.ContainsFunc(t.Solutions, func(s solution) bool { return s.Expect != "" })
}

// Differ reports that two solutions answer a case that nobody can judge, and not the same.
func (t *Try) Differ() bool {
	return slices.ContainsFunc(t.Solutions, func(s solution) bool {
		return slices.ContainsFunc(s.Cases, func(c testCase) bool { return c.Differs != nil })
	})
}

// A Line is a solution of a run in short.
type Line struct {
	Name    string
	Verdict verdict.Verdict
	Message string
	Counts  map[verdict.Verdict]int
	Cases   int
	Points  *float64
	Of      float64
	Expect  string
}

// Lines are the solutions of a run in short.
func (t *Try) Lines() (list []Line) {
	for _, s := range t.Solutions {
		one := Line{Name: solutionKey(s.File, s.Args), Verdict: s.Verdict, Message: s.Message, Counts: map[verdict.Verdict]int{}, Cases: len(s.Cases), Points: s.Points, Expect: s.Expect}
		if s.Possible != nil {
			one.Of = *s.Possible
		}
		for _, c := range s.Cases {
			one.Counts[c.Verdict]++
		}
		list = append(list, one)
	}
	return list
}
