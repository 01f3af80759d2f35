package steps

import "slices"

// A State is where a program stands at one of its steps.
type State struct {
	Step    *Step
	Calls   []Call // that go on, the outermost first
	Globals []Variable
	Output  string // that was printed so far, as far as it belongs to steps that were kept
}

// A Call is one that goes on, with its variables in the order in which they came up.
type Call struct {
	Function  string
	Line      int // that runs, or from which the next call came
	Variables []Variable
}

// A Variable is what one holds.
type Variable struct {
	Name, Value string
	Changed     bool // by the step itself
}

// At is the state at a step of those that were kept, counted from 0. What the step changed has its new value, unless it calls
// a function first. It is the
// zero value beyond them.
func (r *Recording) At(at int) (s State) {
	if at < 0 || at >= len(r.Steps) {
		return s
	}
	for i := range r.Steps[:at+1] {
		step := &r.Steps[i]
		s.Calls = s.Calls[:min(len(s.Calls), step.Depth+1)]
		for len(s.Calls) <= step.Depth {
			s.Calls = append(s.Calls, Call{Function: step.Function})
		}
		call := &s.Calls[step.Depth]
		if call.Function != step.Function {
			*call = Call{Function: step.Function}
		}
		call.Line = step.Line
		for _, c := range step.Changes {
			if c.At > r.Steps[at].Number && at < len(r.Steps)-1 {
				continue // the call that it waits for goes on
			}
			if c.Global {
				s.Globals = with(s.Globals, c, i == at)
			} else {
				call.Variables = with(call.Variables, c, i == at)
			}
		}
		if step.Output != "" && step.OutputAt <= r.Steps[at].Number {
			s.Output += step.Output
		}
	}
	s.Step = &r.Steps[at]
	return s
}

// with sets a variable among others.
func with(list []Variable, c Change, changed bool) []Variable {
	if i := slices.IndexFunc(list, func(v Variable) bool { return v.Name == c.Name }); i >= 0 {
		list[i].Value, list[i].Changed = c.Value, changed
		return list
	}
	return append(list, Variable{c.Name, c.Value, changed})
}

// Next is the first step after one for which a question is answered with yes; the same step where there is none.
func (r *Recording) Next(at int, is func(*Step) bool) int {
	for i := at + 1; i < len(r.Steps); i++ {
		if is(&r.Steps[i]) {
			return i
		}
	}
	return at
}

// Previous is the last step before one for which a question is answered with yes; the same step where there is none.
func (r *Recording) Previous(at int, is func(*Step) bool) int {
	for i := at - 1; i >= 0; i-- {
		if is(&r.Steps[i]) {
			return i
		}
	}
	return at
}

// Changes reports a step that changes a variable of that name.
func Changes(name string) func(*Step) bool {
	return func(s *Step) bool {
		return slices.ContainsFunc(s.Changes, func(c Change) bool { return c.Name == name })
	}
}

// Prints reports a step at which something is printed: that may be later than the step that it belongs to.
func (r *Recording) Prints() func(*Step) bool {
	at := map[int]bool{}
	for _, s := range r.Steps {
		if s.Output != "" {
			at[s.OutputAt] = true
		}
	}
	return func(s *Step) bool { return at[s.Number] }
}

// Names are those of all variables that changed, in the order in which they came up.
func (r *Recording) Names() (names []string) {
	known := map[string]bool{}
	for _, s := range r.Steps {
		for _, c := range s.Changes {
			if !known[c.Name] {
				known[c.Name] = true
				names = append(names, c.Name)
			}
		}
	}
	return names
}

// A CallNode is a call among those that it made.
type CallNode struct {
	Function  string
	Arguments []Change // that it began with
	Returned  string
	Error     string // with which it, or a call of its, ended
	First     int    // of its steps, among those that were kept
	Last      int    // likewise, of it or of a call of its
	Calls     []*CallNode
}

// CallTree is which call made which. A call whose beginning was not kept has no arguments.
func (r *Recording) CallTree() (roots []*CallNode) {
	var open []*CallNode // by depth; nil: not seen
	for i := range r.Steps {
		s := &r.Steps[i]
		begins := s.Begins || s.Depth >= len(open) || open[s.Depth] == nil
		open = open[:min(len(open), s.Depth+1)]
		for len(open) <= s.Depth {
			open = append(open, nil)
		}
		if begins {
			node := &CallNode{Function: s.Function, First: i}
			node.Arguments = s.Changes[:min(s.Arguments, len(s.Changes))]
			open[s.Depth] = node
			above := s.Depth - 1
			for above >= 0 && open[above] == nil {
				above--
			}
			if above >= 0 {
				open[above].Calls = append(open[above].Calls, node)
			} else {
				roots = append(roots, node)
			}
		}
		for _, node := range open {
			if node != nil {
				node.Last = i
			}
		}
		node := open[s.Depth]
		node.Returned, node.Error = s.Returned, s.Error
	}
	return roots
}
