package problem

// A Kind is what the solutions of a problem are. There is one entry for each; whoever needs something
// that differs asks the entry for it, not which one it is.
type Kind struct {
	Input, Output string // what a case holds
	Printed       string // what a solution did with its answer
	Unit          string // what a solution is run on
	Example       string // what a statement shows, and how it is typed
	PasteInput    string // what a person is asked to type, and PasteOutput
	PasteOutput   string
	TypeInput     string
	// Text says that inputs and outputs are plain text, which a solution reads and prints.
	Text bool
	// Calls says that each case is one call of a function, with values for arguments and a result.
	Calls bool
	// Talks says that an interactor judges, and a case has no expected output.
	Talks bool
}

var (
	programs = Kind{
		Input: "input", Output: "output", Printed: "printed", Unit: "case", Example: "sample",
		PasteInput: "paste the input", PasteOutput: "paste the expected output", TypeInput: "type the input", Text: true,
	}
	talks = func() Kind {
		k := programs // in all that is shown
		k.Text, k.Talks = false, true
		return k
	}()
	functions = Kind{
		Input: "arguments", Output: "returns", Printed: "returned", Unit: "call", Example: "example, with an argument a line",
		PasteInput: "paste the arguments, each as name: value on a line", PasteOutput: "paste the expected result",
		TypeInput: "type the arguments, each as name: value on a line", Calls: true,
	}
	classes = func() Kind {
		k := functions
		k.Input, k.Unit, k.Example = "calls", "sequence", "example, with a call a line and what it must return behind ->"
		k.PasteInput, k.TypeInput = "paste the calls, one a line, or the two arrays of names and arguments", "type the calls, one a line"
		return k
	}()
)

// OneAnswer reports that an input has one right answer: neither a checker of a person's own nor an
// interactor decides.
func (p *Problem) OneAnswer() bool { return !p.Compare.Custom() && !p.Kind().Talks }

// Kind is what the solutions of a problem are.
func (p *Problem) Kind() *Kind {
	switch {
	case p.Call != nil && p.Call.Class != nil:
		return &classes
	case p.Call != nil:
		return &functions
	case p.Talk != Talk{}:
		return &talks
	}
	return &programs
}
