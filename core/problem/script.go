package problem

import (
	"fmt"
	"slices"
	"strconv"
	"strings"

	"coldverdict/core/settings"
	"coldverdict/core/value"
)

// A function may take and return functions. A case then has a script: steps on what was returned, one a line,
// with a clock of their own, on which timers of the solution run.
//
//	call(1) -> 3
//	at 50: call(2)
//	expect calls = 1
//	expect last = [1]
//
// What a case gives for an argument that is a function is what that returns; it records how it is called. Within
// a case's data the script is one more argument, an array of texts.

// A ScriptStep is one step of a script.
type ScriptStep struct {
	Text    string  // as it was written, without what must come of it
	At      int64   // when it is made, in milliseconds; -1: when the step before was
	What    string  // "call", "calls", "last" or "returned"
	Name    string  // what is called of that which was returned, empty for itself; or the argument that is looked at
	Args    [][]any // of a call, and of that which each call returns
	Result  any     // what must come of it
	Expects bool    // that is known
}

// scriptField is a script among the arguments of a case.
var scriptField = value.Field{Name: "script", Type: value.Type{Kind: value.Array, Of: &value.Type{Kind: value.Text}}}

// Scripted reports that the function takes or returns functions.
func (c *Call) Scripted() bool {
	isFunction := func(f value.Field) bool { return f.Type.Kind == value.Function }
	return slices.ContainsFunc(c.Takes, isFunction) || slices.ContainsFunc(c.Returns, isFunction)
}

// checkFunctions reports functions where they cannot be.
func (c *Call) checkFunctions() error {
	for _, f := range slices.Concat(c.Takes, c.Returns) {
		if e, _ := f.Type.Element(); e.Kind == value.Function && f.Type.Kind != value.Function {
			return fmt.Errorf("%s is %s; a function is an argument or the result, and within nothing else", f.Name, f.Type)
		}
		if f.Name == scriptField.Name && c.Scripted() {
			return fmt.Errorf("an argument cannot be called script beside functions, whose cases have scripts")
		}
	}
	return nil
}

// Script reads the steps of a case, as its data hold them.
func (c *Call) Script(text string) (args []any, steps []ScriptStep, err error) {
	all, err := value.ReadCall(text, append(slices.Clone(c.Takes), scriptField))
	if err != nil {
		return nil, nil, err
	}
	lines := all[len(c.Takes)].([]any)
	now := int64(0)
	for i, line := range lines {
		step, err := c.stepAfter(&now, line.(string))
		if err != nil {
			return nil, nil, &value.Mistake{Text: fmt.Sprintf("step %d of the script: %v", i+1, err)}
		}
		steps = append(steps, step)
	}
	return all[:len(c.Takes)], steps, nil
}

// stepAfter reads a step that is made at a moment or later, and moves the moment on.
func (c *Call) stepAfter(now *int64, line string) (s ScriptStep, err error) {
	if s, err = c.scriptStep(line); err != nil || s.At < 0 {
		return s, err
	}
	if s.At < *now {
		return s, fmt.Errorf("this step is before the one above it")
	}
	*now = s.At
	return s, nil
}

// scriptStep reads one step.
func (c *Call) scriptStep(line string) (s ScriptStep, err error) {
	s.At = -1
	rest := strings.TrimSpace(line)
	if moment, ok := strings.CutPrefix(rest, "at "); ok {
		number, after, ok := strings.Cut(moment, ":")
		if s.At, err = strconv.ParseInt(strings.TrimSpace(number), 10, 64); err != nil || !ok || s.At < 0 {
			return s, fmt.Errorf("a moment is written 'at 50:', in milliseconds; found %s", line)
		}
		rest = strings.TrimSpace(after)
	}
	if what, ok := strings.CutPrefix(rest, "expect "); ok {
		return c.expectation(s, what, line)
	}
	if after, ok := strings.CutPrefix(rest, "returned"); ok {
		s.What, s.Text = "returned", strings.TrimSpace(line[:len(line)-len(after)])
		if c.Returns[0].Type.Kind == value.Function {
			return s, fmt.Errorf("a function is returned, which is called: call(…)")
		}
		return s, s.expectReturned(after)
	}
	return c.scriptCall(s, rest, line)
}

// scriptCall reads a step that calls something: call(1), cancel(), call(1)(2).
func (c *Call) scriptCall(s ScriptStep, rest, line string) (ScriptStep, error) {
	name, rest, ok := strings.Cut(rest, "(")
	if name = strings.TrimSpace(name); !ok || !value.IsName(name) || len(c.Returns) != 1 || c.Returns[0].Type.Kind != value.Function {
		return s, fmt.Errorf("expected a step such as call(1) -> 3, at 50: call(1), expect calls = 1 or expect last = [1], found %s", line)
	}
	s.What = "call"
	if name != s.What {
		s.Name = name
	}
	for ok {
		inside, after, closed := cutAtClosing(rest)
		if !closed {
			return s, fmt.Errorf("a parenthesis is not closed in %s", line)
		}
		list, err := value.Read("["+inside+"]", value.Type{Kind: value.Array, Of: &value.Type{Kind: value.Any}})
		if err != nil {
			return s, fmt.Errorf("the arguments of %s: %w", name, err)
		}
		s.Args = append(s.Args, list.([]any))
		rest, ok = strings.CutPrefix(strings.TrimSpace(after), "(")
	}
	s.Text = strings.TrimSpace(line[:len(line)-len(rest)])
	return s, s.expectReturned(rest)
}

// expectReturned reads what stands behind a step that returns something.
func (s *ScriptStep) expectReturned(after string) (err error) {
	after, s.Expects = strings.CutPrefix(strings.TrimSpace(after), "->")
	if s.Result = notSaid; !s.Expects {
		if after != "" {
			return fmt.Errorf("behind it stands %q; what it returns stands behind ->", after)
		}
		return nil
	}
	if s.Result, err = value.Read(after, value.Type{Kind: value.Any}); err != nil {
		return fmt.Errorf("what it returns: %w", err)
	}
	return nil
}

// expectation reads a step that looks at how a function of the case was called: calls = 1, f.last = [1].
func (c *Call) expectation(s ScriptStep, what, line string) (ScriptStep, error) {
	left, right, ok := strings.Cut(what, "=")
	left = strings.TrimSpace(left)
	name, looked, named := strings.Cut(left, ".")
	if !named {
		name, looked = "", left
	}
	var functions []string
	for _, f := range c.Takes {
		if f.Type.Kind == value.Function {
			functions = append(functions, f.Name)
		}
	}
	if name == "" && len(functions) == 1 {
		name = functions[0]
	}
	switch {
	case !ok || looked != "calls" && looked != "last":
		return s, fmt.Errorf("expected 'expect calls = 1' or 'expect last = [1]', found %s", line)
	case !slices.Contains(functions, name):
		return s, fmt.Errorf("say of which argument: %s", settings.Nearest(name, functions))
	}
	s.What, s.Name, s.Expects = looked, name, true
	s.Text = strings.TrimSpace(line[:strings.LastIndex(line, "="+right)])
	kind := value.Type{Kind: value.Int}
	if looked == "last" {
		kind = value.Type{Kind: value.Any}
	}
	result, err := value.Read(right, kind)
	if err != nil {
		return s, fmt.Errorf("what is expected: %w", err)
	}
	s.Result = result
	return s, nil
}

// parseScript reads a script as a person writes it. It returns the steps without what must come of them, and
// that; nil: nothing is known. The line of a mistake is counted from 1.
func (c *Call) parseScript(text string) (script string, results []any, line int, err error) {
	var lines []any
	said, number, now := false, 0, int64(0)
	for one := range strings.Lines(text) {
		if number++; strings.TrimSpace(one) == "" {
			continue
		}
		s, err := c.stepAfter(&now, strings.TrimSpace(one))
		if err != nil {
			return "", nil, number, err
		}
		written := s.Text
		if s.What == "calls" || s.What == "last" {
			written += " = " + value.Write(s.Result)
		}
		lines, results = append(lines, written), append(results, s.Result)
		said = said || s.Expects
	}
	if len(lines) == 0 {
		return "", nil, 1, fmt.Errorf("there is no step; write call(…), and a step a line")
	}
	if !said {
		results = nil
	}
	var b strings.Builder
	b.WriteString(scriptField.Name + ": [\n")
	for i, line := range lines {
		b.WriteString("  " + value.Write(line))
		if i < len(lines)-1 {
			b.WriteByte(',')
		}
		b.WriteByte('\n')
	}
	b.WriteString("]\n")
	return b.String(), results, 0, nil
}
