package problem

import (
	"cmp"
	"fmt"
	"os"
	"slices"

	"coldverdict/core/settings"
	"coldverdict/core/verdict"
)

// The ways to make points of the cases of a group.
const (
	ScoreWhole  = "whole"  // every case must pass
	ScoreShared = "shared" // the points are shared among the cases
	ScoreLeast  = "least"  // the case with the least share decides
)

// A GroupRule is a [[group]] of verdict.toml: what holds for the cases of one
// group.
type GroupRule struct {
	Name   string
	Points float64  // what the group is worth; 0: nothing
	Needs  []string // groups without which it is not run, and worth nothing
	Score  string   // one of ScoreWhole, ScoreShared and ScoreLeast
	Limits verdict.Limits
	Sealed bool // its cases show nothing but verdicts, times and points
	line   int
	// compare replaces the problem's comparison; nil: that holds.
	compare *Comparison
}

// A caseRule is a [[case]] of verdict.toml.
type caseRule struct {
	pattern string
	compare *Comparison
	line    int
}

// Rule returns what verdict.toml says of a group; where it says nothing, the
// rule of a group that is worth nothing.
func (p *Problem) Rule(group string) GroupRule {
	for _, r := range p.Rules {
		if r.Name == group {
			return r
		}
	}
	return GroupRule{Name: group, Score: ScoreWhole}
}

// Pointed reports whether any group is worth points.
func (p *Problem) Pointed() bool {
	return slices.ContainsFunc(p.Rules, func(r GroupRule) bool { return r.Points > 0 })
}

func (c *configReader) groups(at string, value any) {
	for at, item := range c.tables(at, value) {
		r := GroupRule{Score: ScoreWhole, line: c.Line(at)}
		fields := c.limitFields(&r.Limits)
		fields["name"] = c.Text(&r.Name)
		fields["points"] = c.Amount(&r.Points)
		fields["needs"] = c.Texts(&r.Needs)
		fields["sealed"] = c.Truth(&r.Sealed)
		fields["score"] = c.OneOf(&r.Score, []string{ScoreWhole, ScoreShared, ScoreLeast})
		fields["compare"] = c.own(&r.compare)
		c.Table(at, item, fields)
		switch name := GroupName(r.Name); {
		case r.Name == "":
			c.WrongAt(at, "a [[group]] needs a name, such as name = \"samples\"")
			continue
		case name != r.Name:
			c.WrongAt(at+".name", "a group is named in lower case with hyphens: %q", name)
		case slices.ContainsFunc(c.problem.Rules, func(other GroupRule) bool { return other.Name == name }):
			c.WrongAt(at, "there are two [[group]] tables for %q; make one of them", name)
		}
		c.problem.Rules = append(c.problem.Rules, r)
	}
}

// caseRules reads the tables that say how certain cases are compared.
func (c *configReader) caseRules(at string, value any) {
	for at, item := range c.tables(at, value) {
		r := caseRule{line: c.Line(at)}
		c.Table(at, item, settings.Fields{"name": c.Text(&r.pattern), "compare": c.own(&r.compare)})
		if r.pattern == "" {
			c.WrongAt(at, "a [[case]] needs a name, such as name = \"samples/first\", or one with * and ?")
			continue
		}
		c.cases = append(c.cases, r)
	}
}

// tables goes through a list of tables, each with its path.
func (c *configReader) tables(at string, value any) func(yield func(string, any) bool) {
	return func(yield func(string, any) bool) {
		list, ok := value.([]any)
		if !ok {
			c.WrongAt(at, "these are written as [[%s]], with two brackets", at)
		}
		for i, item := range list {
			if !yield(fmt.Sprintf("%s[%d]", at, i), item) {
				return
			}
		}
	}
}

// own reads a comparison that replaces the problem's.
func (c *configReader) own(into **Comparison) func(string, any) {
	return func(at string, value any) {
		compare := c.comparison(at, value)
		*into = &compare
		if c.problem.Kind().Talks || c.Has("interactive") {
			c.WrongAt(at, "the interactor of an interactive problem judges; take %s out", at)
		}
	}
}

// settle gives each case its comparison, and looks for groups and cases that
// verdict.toml names and that there are not.
func (l *loader) settle() {
	p := l.problem
	compare := map[string]Comparison{}
	for _, r := range p.Rules {
		if r.compare != nil {
			compare[r.Name] = *r.compare
		}
	}
	for i := range p.Cases {
		c := &p.Cases[i]
		c.Compare = p.Compare
		if own, ok := compare[c.Group]; ok {
			c.Compare = own
		}
	}
	for _, r := range l.cases {
		indices, err := p.SelectCases([]string{r.pattern})
		if err != nil && len(p.Cases) > 0 {
			l.wrong(ConfigFile, r.line, "%v", err)
		}
		for _, i := range indices {
			if r.compare != nil {
				p.Cases[i].Compare = *r.compare
			}
		}
	}
	for _, s := range p.Same {
		switch {
		case p.Shape == nil:
			if _, err := os.Lstat(p.full(ShapeFile)); err == nil {
				continue // what is wrong with it was said
			}
			l.wrong(ConfigFile, s.line, "[[same]] changes generated inputs, and there is no %s that says what they look like", ShapeFile)
		case p.Shape != nil && s.Permute != "" && !p.Shape.CanPermute(s.Permute):
			l.wrong(ConfigFile, s.line, "permute = %q is no array of %s", s.Permute, ShapeFile)
		case p.Shape != nil && s.Relabel != "" && !p.Shape.CanRelabel(s.Relabel):
			l.wrong(ConfigFile, s.line, "relabel = %q is no tree or graph of %s", s.Relabel, ShapeFile)
		}
	}
	groups := p.Groups()
	for _, r := range p.Rules {
		if len(groups) > 0 && !l.words.Adding && !slices.Contains(groups, r.Name) {
			l.wrong(ConfigFile, r.line, "no case is in the group %q; %s", r.Name, settings.Nearest(r.Name, groups))
		}
		for _, name := range r.Needs {
			if len(groups) > 0 && !l.words.Adding && !slices.Contains(groups, name) {
				l.wrong(ConfigFile, r.line, "the group %q needs %q, which no case is in; %s", r.Name, name, settings.Nearest(name, groups))
			}
		}
		if p.needsItself(r.Name) {
			l.wrong(ConfigFile, r.line, "the group %q needs itself, in the end, and could never be run", r.Name)
		}
	}
	for _, c := range p.Cases {
		for _, trial := range c.Trials {
			if !c.Compare.Custom() {
				file, _ := splitWhere(c.Where)
				l.wrong(cmp.Or(file, CasesFile), trial.Line, "'output accept' and 'output reject' try a checker of your own, and %s names none for %s; add script or program to [compare]", ConfigFile, c.Name)
			}
		}
	}
}

// needsItself reports whether the needs of a group lead back to it.
func (p *Problem) needsItself(group string) bool {
	seen := map[string]bool{}
	queue := p.Rule(group).Needs
	for len(queue) > 0 {
		name := queue[0]
		queue = queue[1:]
		if name == group {
			return true
		}
		if !seen[name] {
			seen[name] = true
			queue = append(queue, p.Rule(name).Needs...)
		}
	}
	return false
}

// InRunOrder brings indices of cases into an order in which each group comes
// after those that it needs, and otherwise stays where it was.
func (p *Problem) InRunOrder(all []Case, cases []int) []int {
	depth := map[string]int{}
	var of func(group string) int
	of = func(group string) int {
		if d, ok := depth[group]; ok {
			return d
		}
		d := 0
		for _, need := range p.Rule(group).Needs {
			d = max(d, of(need)+1)
		}
		depth[group] = d
		return d
	}
	ordered := slices.Clone(cases)
	slices.SortStableFunc(ordered, func(a, b int) int { return cmp.Compare(of(all[a].Group), of(all[b].Group)) })
	return ordered
}

// Fraction makes one share of a group's points of those of its cases, of which there is one at least. The way is one of
// ScoreWhole, ScoreShared and ScoreLeast.
func Fraction(way string, shares []float64) float64 {
	switch least := slices.Min(shares); {
	case way == ScoreLeast:
		return least
	case way == ScoreShared:
		sum := 0.0
		for _, share := range shares {
			sum += share
		}
		return sum / float64(len(shares))
	case least < 1:
		return 0
	}
	return 1
}
