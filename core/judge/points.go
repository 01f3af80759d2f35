package judge

import (
	"fmt"
	"sync"

	"coldverdict/core/problem"
	"coldverdict/core/verdict"
)

// needs knows which groups have passed, while cases run beside each other.
// Cases are taken in an order in which each group comes after those it needs.
type needs struct {
	problem *problem.Problem
	mu      sync.Mutex
	changed *sync.Cond
	pending map[string]int // cases of a group that have not ended
	failed  map[string]bool
	over    bool // no more cases will end
}

func newNeeds(p *problem.Problem, all []problem.Case, cases []int) *needs {
	n := &needs{problem: p, pending: map[string]int{}, failed: map[string]bool{}}
	n.changed = sync.NewCond(&n.mu)
	for _, i := range cases {
		n.pending[all[i].Group]++
	}
	return n
}

// lacking waits until it is known whether the groups that a group needs have
// passed, and says which did not; "" if all did. One of which no case is run
// is not asked for.
func (n *needs) lacking(group string) string {
	n.mu.Lock()
	defer n.mu.Unlock()
	for _, need := range n.problem.Rule(group).Needs {
		for n.pending[need] > 0 && !n.failed[need] && !n.over {
			n.changed.Wait()
		}
		if n.failed[need] {
			return fmt.Sprintf("needs %s, which did not pass", need)
		}
	}
	return ""
}

// ended notes that a case of a group has its verdict.
func (n *needs) ended(group string, v verdict.Verdict) {
	n.mu.Lock()
	defer n.mu.Unlock()
	n.pending[group]--
	n.failed[group] = n.failed[group] || !v.Passing()
	n.changed.Broadcast()
}

// giveUp ends all waiting, since no more cases will end.
func (n *needs) giveUp() {
	n.mu.Lock()
	defer n.mu.Unlock()
	n.over = true
	n.changed.Broadcast()
}

// score adds up the points of a solution from what is known of its cases; nil
// where no group is worth points.
func (r *solutionRun) score(results []caseResult) *verdict.Score {
	p := r.judge.problem
	if !p.Pointed() {
		return nil
	}
	byCase := map[int]caseResult{}
	for i, one := range results {
		byCase[r.plan.Cases[i]] = one
	}
	score := &verdict.Score{}
	for _, group := range problem.GroupsOf(r.cases) {
		rule := p.Rule(group)
		if rule.Points == 0 || !r.plan.Solution.Runs(group) {
			continue
		}
		var shares []float64
		known := true
		for i, c := range r.cases {
			if c.Group != group {
				continue
			}
			one, ran := byCase[i]
			known = known && ran && one.verdict != verdict.Unjudged && one.verdict != verdict.Fault
			shares = append(shares, one.share)
		}
		one := verdict.GroupScore{Name: group, Possible: rule.Points, Known: known}
		if known {
			one.Points = rule.Points * problem.Fraction(rule.Score, shares)
		}
		score.Add(one)
	}
	return score
}

// noScore is the score of a solution of which no case can be run; nil where no group is worth
// points.
func (r *solutionRun) noScore() *verdict.Score {
	p := r.judge.problem
	if !p.Pointed() {
		return nil
	}
	score := &verdict.Score{}
	for _, group := range problem.GroupsOf(r.cases) {
		if rule := p.Rule(group); rule.Points > 0 && r.plan.Solution.Runs(group) {
			score.Add(verdict.GroupScore{Name: group, Possible: rule.Points, Known: true})
		}
	}
	return score
}
