package term

import (
	"cmp"
	"strings"

	"coldverdict/core/problem"
	"coldverdict/core/verdict"
)

// partsLine says in one line what is known of the answer to each part of the problem.
func (v *TryView) partsLine() {
	if words := v.PartsWords(); words != "" {
		v.Screen.Print("\n%s", v.Screen.wrapped(normal, words, ""))
		v.Screen.Flush()
	}
}

// PartsWords say what is known of the answer to each part of the problem; "": it has no parts.
func (v *TryView) PartsWords() string {
	var words []string
	for _, part := range v.Problem.Parts {
		var said []string // what is known, in the order in which it comes
		by := map[string][]string{}
		for _, t := range v.all {
			one := v.partWords(t, part)
			if one == "" {
				continue
			}
			if by[one] == nil {
				said = append(said, one)
			}
			by[one] = append(by[one], v.fileName(t))
		}
		for i, one := range said {
			if len(said) > 1 {
				said[i] = strings.Join(by[one], ", ") + " " + one
			}
		}
		if len(said) > 0 {
			words = append(words, strong.Render(Visible(part)+":")+" "+strings.Join(said, " / "))
		}
	}
	return strings.Join(words, "; ")
}

// partWords say how a solution stands with a part: first what it got wrong, then its answer in the case whose
// answer is asked for.
func (v *TryView) partWords(t *tally, part string) string {
	if t.ended.Verdict == verdict.CompileError && t.plan.Solution.Runs(part) {
		return verdictStyle(verdict.CompileError).Render(verdict.CompileError.String())
	}
	asked, seen := -1, false
	for i, c := range v.Problem.Cases {
		o, ran := t.outcomes[i]
		if c.Group != part || !ran {
			continue
		}
		seen = true
		if asksFor(c) || asked < 0 || !asksFor(v.Problem.Cases[asked]) {
			asked = i
		}
		if !o.Verdict.Passing() && !asksFor(c) {
			return verdictStyle(o.Verdict).Render(o.Verdict.String()) + " in " + fitMiddle(Visible(shortName(c)), mostName)
		}
	}
	if !seen {
		return ""
	}
	return answerState(v.Problem.Cases[asked], t.outcomes[asked])
}

// asksFor reports a case whose answer somebody seeks, or sought.
func asksFor(c problem.Case) bool {
	return len(c.Accepted) == 0 || c.Kept != "" || len(c.Refused) > 0 || c.Confirmed()
}

// answerState is an answer, and what is known of it.
func answerState(c problem.Case, o verdict.Outcome) string {
	answer := fit(Visible(oneLine(o.Returned, string(o.Stdout.Bytes))), mostName)
	known := ""
	if len(c.Accepted) > 0 {
		text, _ := c.Accepted[0].Head(greatestWidth)
		known = fit(Visible(oneLine(string(text))), mostName)
	}
	style := verdictStyle(o.Verdict)
	switch {
	case o.Verdict == verdict.Accepted && c.Kept != "":
		return style.Render(known) + " kept"
	case o.Verdict == verdict.Accepted:
		return style.Render(known) + " confirmed"
	case o.Verdict == verdict.Unjudged && (answer == "" || o.NoAnswer):
		return "no answer yet"
	case o.Verdict == verdict.Unjudged:
		return strong.Render(answer) + ", new"
	case o.Verdict == verdict.WrongAnswer && known != "":
		return style.Render(cmp.Or(answer, "nothing")) + " in place of " + known
	case o.Verdict == verdict.WrongAnswer && answer != "" && len(c.Refused) > 0:
		return style.Render(answer) + ", refused"
	}
	return style.Render(o.Verdict.String())
}
