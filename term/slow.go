package term

import (
	"fmt"

	"coldverdict/core/cross"
	"coldverdict/core/verdict"
)

// mostSlow is how many slow inputs are shown of a candidate.
const mostSlow = 8

// CloseSlow shows what a search for slow inputs came to.
func (v *CrossView) CloseSlow(all []cross.Slowness, r *cross.Result) {
	s := v.Screen
	for _, slowness := range all {
		plan := v.candidates[slowness.Candidate]
		s.Print("")
		if len(slowness.Worst) == 0 {
			s.Print("%s nothing was tried", strong.Render(solutionName(plan.Solution)+":"))
			continue
		}
		s.Print("  %s", dim.Render(pad("", 4)+padLeft("time", 8)+padLeft("memory", 10)+padLeft("input", 10)+"  how it was generated"))
		for _, t := range slowness.Worst[:min(len(slowness.Worst), mostSlow)] {
			o, badge := t.Outcome, pad("", 4)
			if !o.Verdict.Passing() {
				badge = badges[o.Verdict]
			}
			s.Print("  %s%s%s%s  %s", badge, padLeft(Duration(o.Usage.CPU), 8), padLeft(Size(o.Usage.Memory), 10),
				padLeft(Size(t.Bytes), 10), dim.Render(fit(Visible(t.Origin.String()), s.Width-36)))
		}
		if more := len(slowness.Worst) - mostSlow; more > 0 {
			s.Print("  %s", dim.Render(fmt.Sprintf("and %d others, which took less", more)))
		}
		s.Print("")
		s.Print("%s", s.wrapped(normal, v.slowWords(slowness), ""))
	}
	s.Print("%s", s.wrapped(dim, fmt.Sprintf("tried %s in %s, of %s to %s", Count(r.Inputs, "input"), Duration(r.Elapsed), Size(r.Coverage.Least), Size(r.Coverage.Most)), ""))
	s.Flush()
}

// slowWords says how near a candidate came to its limit, and with what.
func (v *CrossView) slowWords(slowness cross.Slowness) string {
	plan := v.candidates[slowness.Candidate]
	worst := slowness.Worst[0]
	limit, o := plan.Limits.Time, worst.Outcome
	name := strong.Render(solutionName(plan.Solution)+":") + " "
	if !o.Verdict.Passing() {
		words := name + verdictStyle(o.Verdict).Render(o.Verdict.String())
		if remark := remarkWords(o); remark != "" {
			words += ", " + remark
		}
		return words + fmt.Sprintf(", with %s", Visible(worst.Origin.String()))
	}
	near := float64(o.Usage.CPU) / float64(limit)
	words := name + verdictStyle(verdict.Accepted).Render("within the limit")
	if near > 0.5 {
		words = name + marked.Render("near the limit")
	}
	words += fmt.Sprintf(": at most %s of %s (%.0f %%), with %s", Duration(o.Usage.CPU), Duration(limit)+unsetWord(plan.Unset.Time != 0), 100*near, Visible(worst.Origin.String()))
	if sp := slowness.Spread; sp.Runs > 1 {
		words += fmt.Sprintf("; in %d runs %s to %s", sp.Runs, Duration(sp.Least), Duration(sp.Most))
	}
	return words
}
