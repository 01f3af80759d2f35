package judge

import (
	"coldverdict/core/call"
	"coldverdict/core/problem"
	"coldverdict/core/toolchain"
	"coldverdict/core/value"
	"coldverdict/core/verdict"
)

// A manner is how the solutions of one kind of problem are judged.
type manner struct {
	// executor returns what runs the cases of a solution.
	executor func(*solutionRun) executor
	// wrapper puts around a source what makes a program of it; nil: it is one.
	wrapper func(*problem.Problem) toolchain.Wrapper
	// decider says who judges a case.
	decider func(*problem.Problem, *problem.Case) checkerKey
	// solutionsReport and decidersReport say who writes to the descriptor of decisions.
	solutionsReport, decidersReport bool
	// text says that inputs are text, which a shape takes apart for checkers.
	text bool
	// compare compares an answer with an expected one.
	compare func(p *problem.Problem, how problem.Comparison, expected problem.Data, got []byte) (*verdict.Difference, error)
}

var (
	asPrograms = manner{
		executor: func(r *solutionRun) executor { return &programExecutor{run: r} },
		decider:  checkerOfCase, text: true, compare: compareTexts,
	}
	asTalks = manner{
		executor: func(r *solutionRun) executor { return &talkExecutor{run: r} },
		decider: func(p *problem.Problem, _ *problem.Case) checkerKey {
			return checkerKey{roleInteractor, p.Talk.Script, p.Talk.Program}
		},
		decidersReport: true, text: true, compare: compareTexts,
	}
	asFunctions = manner{
		executor: func(r *solutionRun) executor { return &functionExecutor{run: r} },
		wrapper:  func(p *problem.Problem) toolchain.Wrapper { return call.Around(p.Call) },
		decider:  checkerOfCase, solutionsReport: true, compare: compareResults,
	}
)

func mannerOf(p *problem.Problem) *manner {
	switch kind := p.Kind(); {
	case kind.Calls:
		return &asFunctions
	case kind.Talks:
		return &asTalks
	}
	return &asPrograms
}

func checkerOfCase(_ *problem.Problem, c *problem.Case) checkerKey {
	return checkerKey{roleChecker, c.Compare.Script, c.Compare.Program}
}

func compareTexts(_ *problem.Problem, how problem.Comparison, expected problem.Data, got []byte) (*verdict.Difference, error) {
	return Compare(how, expected, got)
}

// compareResults compares what a function returned as values.
func compareResults(p *problem.Problem, how problem.Comparison, expected problem.Data, got []byte) (*verdict.Difference, error) {
	text, err := dataText(expected)
	if err != nil {
		return nil, err
	}
	want, err := value.ReadResults(text, p.Call.Results())
	if err != nil {
		return nil, err
	}
	have, err := value.ReadResults(string(got), p.Call.Results())
	if err != nil {
		return nil, err
	}
	want = p.Call.Expected(want, have)
	if d := how.Values().Compare(want, have); d != nil {
		return valueDifference(d, want, have), nil
	}
	return nil, nil
}
