package judge

import (
	"bytes"
	"fmt"
	"slices"
	"strings"

	"coldverdict/core/box"
	"coldverdict/core/call"
	"coldverdict/core/problem"
	"coldverdict/core/script"
	"coldverdict/core/value"
	"coldverdict/core/verdict"
)

// Where a site provides functions, a process gets its calls one by one, and between them the answers to
// what it asks.

// An asking is what the calls of a process are given, one by one, and what they ask.
type asking struct {
	feed    *box.Pipe
	calls   [][]byte // lines
	asked   map[string]int64
	names   []string // of what a case gives
	data    []any    // of the call of this moment
	wrong   string   // why a call has failed by what it asked
	fault   error    // the script's
	scripts map[string]*script.Given
}

// nextCall hands on a call's line; there may be none left.
func (p *callProcess) nextCall(n int) {
	a := p.state.asking
	if n >= len(a.calls) {
		a.feed.End()
		return
	}
	a.asked, a.data = map[string]int64{}, nil
	if text, err := dataText(p.run.test(p.positions[n]).Input); err == nil {
		a.data, _ = p.run.judge.problem.Call.ReadArguments(text)
	}
	a.feed.Write(a.calls[n])
}

// ask answers what the call of this moment asks. The lock is held.
func (p *callProcess) ask(text string) {
	a, asked := p.state.asking, p.run.judge.problem.Call
	name, rest, _ := strings.Cut(text, " ")
	if !p.state.protocol.ready {
		a.wrong = fmt.Sprintf("it called %s before there was a case", name)
		p.stop()
		return
	}
	i := slices.IndexFunc(asked.Given, func(g problem.Given) bool { return g.Name == name })
	if i < 0 || a.data == nil {
		p.state.protocol.foul = true
		p.stop()
		return
	}
	g := asked.Given[i]
	a.asked[name]++
	if most := asked.MostCalls(g, a.data); most > 0 && a.asked[name] > most {
		a.wrong = fmt.Sprintf("it called %s more often than %s", name, verdict.Count(int(most), "time"))
		p.stop()
		return
	}
	args, err := readAsked(rest, g.Takes)
	if err != nil {
		a.wrong = fmt.Sprintf("it called %s(%s): %v", name, shownValue(strings.Trim(rest, "[]")), err)
		p.stop()
		return
	}
	answer, err := a.scripts[g.Script].Answer(name, a.names, a.data, args, g.Returns)
	if err != nil {
		a.fault = err
		p.stop()
		return
	}
	if call.WideAsText(p.run.plan.Build.Language) {
		answer = value.Widened(answer, g.Returns)
	}
	a.feed.Write(append(value.Append(nil, answer, false), '\n'))
}

// readAsked reads the arguments of a question.
func readAsked(text string, takes []value.Field) ([]any, error) {
	if len(takes) == 0 {
		return nil, nil
	}
	inside := strings.TrimSuffix(strings.TrimPrefix(text, "["), "]")
	if n := len(problem.SplitArguments(inside)); len(takes) == 1 && n != 1 {
		return nil, fmt.Errorf("it takes 1 argument, and there are %d", n)
	}
	return problem.ReadListed(inside, takes)
}

// openAsking begins what is asked in a process whose input was put together.
func (p *callProcess) openAsking(input []byte) (*asking, error) {
	lines := slices.Collect(bytes.Lines(input))
	f, err := box.NewPipe()
	if err != nil {
		return nil, err
	}
	a := &asking{feed: f, calls: lines[1:], scripts: map[string]*script.Given{}}
	for _, f := range p.run.judge.problem.Call.Data() {
		a.names = append(a.names, f.Name)
	}
	for _, g := range p.run.judge.problem.Call.Given {
		if a.scripts[g.Script] != nil {
			continue
		}
		if a.scripts[g.Script], err = script.OpenGiven(p.run.judge.problem.PathOf(g.Script)); err != nil {
			f.Close()
			return nil, err
		}
	}
	f.Write(lines[0])
	return a, nil
}
