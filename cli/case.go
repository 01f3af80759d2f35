package cli

import (
	"bufio"
	"context"
	"errors"
	"fmt"
	"io"
	"os"
	"strings"

	"github.com/urfave/cli/v3"

	"coldverdict/core/problem"
	"coldverdict/core/statement"
	view "coldverdict/term"
)

func (a *app) caseCommand() *cli.Command {
	return &cli.Command{
		Name:  "case",
		Usage: "add cases, list and edit them, keep answers, take over folders of data",
		Description: "Cases live in cases.md, where each has the reason it exists, or in cases/ as NAME.in\n" +
			"beside NAME.out.\n\n" +
			"   cold case add ties --group 'Edge cases' --why 'two crates of one weight'",
		Commands: []*cli.Command{
			a.caseAddCommand(), a.caseListCommand(), a.caseShowCommand(), a.caseEditCommand(), a.caseRenameCommand(),
			a.caseDropCommand(), a.caseKeepCommand(), a.caseSureCommand(), a.caseRefuseCommand(), a.caseImportCommand(), a.caseUnsealCommand(),
		},
		Action: func(_ context.Context, c *cli.Command) error {
			if c.Args().Present() {
				return unknownCommand(c, c.Args().First())
			}
			return cli.ShowSubcommandHelp(c)
		},
	}
}

// addFlags are what cold case add was asked for.
type addFlags struct {
	group, why, input, output string
	clipboard, editor         bool
	whyGiven                  bool // if as an empty text
}

// endOfPaste is a line that ends a paste, as the end of the input does.
const endOfPaste = "%%"

func (a *app) caseAddCommand() *cli.Command {
	var f addFlags
	return &cli.Command{
		Name:      "add",
		Usage:     "add a case from a paste or from files",
		ArgsUsage: "[NAME]",
		Description: "Paste the input, then the expected output; a line %% or Ctrl-D ends each. An output\n" +
			"left empty is not known yet. Small cases go to cases.md, large ones to cases/.\n\n" +
			"   cold case add --input 1.txt --output 1.ans --why 'from the statement'\n" +
			"   printf '9 5\\n6 3 4 7 2\\n%%%%\\n2\\n' | cold case add\n" +
			"   cold case add --editor",
		Flags: []cli.Flag{
			&cli.StringFlag{Name: "group", Usage: "put it into the group `NAME`", Value: "Samples", Destination: &f.group},
			&cli.StringFlag{Name: "why", Usage: "say in `TEXT` why the case exists", Destination: &f.why},
			&cli.StringFlag{Name: "input", Usage: "take the input from `FILE`", Destination: &f.input, TakesFile: true},
			&cli.StringFlag{Name: "output", Usage: "take the expected output from `FILE`", Destination: &f.output, TakesFile: true},
			&cli.BoolFlag{Name: "clipboard", Usage: "take input and output from the clipboard", Destination: &f.clipboard},
			&cli.BoolFlag{Name: "editor", Usage: "write the case in the editor of $VISUAL or $EDITOR", Destination: &f.editor},
		},
		Action: func(ctx context.Context, c *cli.Command) error {
			f.whyGiven = c.IsSet("why")
			return a.caseAdd(ctx, c, f)
		},
	}
}

func (a *app) caseAdd(ctx context.Context, c *cli.Command, f addFlags) error {
	if c.Args().Len() > 1 {
		return usageError("a case has one name; put words that belong together in quotes")
	}
	p, err := a.loadFor(true)
	if err != nil {
		return err
	}
	n := problem.NewCase{Group: f.group, Name: c.Args().First(), Reason: f.why}
	switch {
	case f.editor && (f.clipboard || f.input != ""), f.clipboard && f.input != "":
		return usageError("--input, --clipboard and --editor are three ways to the same; choose one")
	case f.editor:
		return a.addInEditor(ctx, p, n)
	case f.clipboard:
		n.Input, n.Output, err = a.fromClipboard()
	case f.input != "":
		n.Input, n.Output, err = a.fromFiles(f.input, f.output)
	case f.output != "":
		return usageError("--output %s has no --input beside it", f.output)
	default:
		n.Input, n.Output, err = a.paste(p)
	}
	if err != nil {
		return err
	}
	if n.Output == nil {
		input, output, err := wholeExample(p, n.Input)
		if err != nil {
			return err
		}
		if output != nil {
			n.Input, n.Output = input, output
		}
	}
	if !f.whyGiven && a.terminal() != nil {
		if n.Reason, err = a.line("why does this case exist? (one line; nothing if there is no more to say) "); err != nil {
			return err
		}
	}
	return a.addCase(p, n)
}

func (a *app) addCase(p *problem.Problem, n problem.NewCase) error {
	n, err := p.WithCalls(n)
	if err != nil {
		return err
	}
	name, where, err := p.Add(n)
	if err != nil {
		return err
	}
	a.screen.Print("added %s to %s", view.Visible(name), view.Visible(where))
	if n.Output == nil {
		a.screen.Print("its answer is not known: it will be run and held to the limits, and its output shown")
	}
	return nil
}

// fromFiles reads an input and, if there is one, an output.
func (a *app) fromFiles(in, out string) (input, output []byte, err error) {
	if input, err = a.dataFile("--input", in); err == nil && out != "" {
		output, err = a.dataFile("--output", out)
	}
	return input, output, err
}

// largestAdded bounds a file that is added as a case, in bytes.
const largestAdded = 1 << 30

func (a *app) dataFile(option, name string) ([]byte, error) {
	path := a.path(name)
	info, err := os.Stat(path)
	switch {
	case err != nil:
		return nil, usageError("%s: there is no file %s", option, name)
	case !info.Mode().IsRegular():
		return nil, usageError("%s: %s is no file", option, name)
	case info.Size() > largestAdded:
		return nil, usageError("%s: %s is larger than 1 GiB; put it into cases/ yourself", option, name)
	}
	text, err := os.ReadFile(path)
	if err != nil {
		return nil, usageError("%s: %v", option, err)
	}
	if text == nil {
		text = []byte{}
	}
	return text, nil
}

// paste reads an input and an output, one after the other. An output without
// a single character is not known.
func (a *app) paste(p *problem.Problem) (input, output []byte, err error) {
	if file := a.terminal(); file != nil {
		if input, err = a.readTyped(file, p.Kind().PasteInput); err != nil {
			return nil, nil, err
		}
		if _, whole, err := wholeExample(p, input); whole != nil || err != nil {
			return input, nil, err
		}
		output, err = a.readTyped(file, p.Kind().PasteOutput+" (nothing if it is not known)")
		return input, orUnknown(output), err
	}
	return splitPaste(a.input())
}

// wholeExample takes apart an example of a function that was pasted with its input and its output, as a statement
// prints it; output is nil where it is none.
func wholeExample(p *problem.Problem, text []byte) (input, output []byte, err error) {
	if p.Call == nil {
		return nil, nil, nil
	}
	if _, err := p.WithCalls(problem.NewCase{Input: text}); err == nil {
		return nil, nil, nil // it is arguments, and nothing else
	}
	page := statement.Read(append([]byte("Example\n\n"), text...)) // which a person says by the command
	if len(page.Problems) != 1 {
		return nil, nil, nil
	}
	samples := page.Problems[0].Samples
	if len(samples) > 1 {
		return nil, nil, &problem.RequestError{Text: fmt.Sprintf("these are %d examples; paste one at a time, or take in all of them with 'cold open --from -'", len(samples))}
	}
	if len(samples) == 0 || len(samples[0].Doubts) > 0 {
		return nil, nil, nil
	}
	return samples[0].Input, samples[0].Output, nil
}

// splitPaste reads an input and an output with a line between that ends a
// paste.
func splitPaste(r *bufio.Reader) (input, output []byte, err error) {
	input, ended, err := readPaste(r)
	switch {
	case err != nil:
		return nil, nil, err
	case ended && len(input) == 0:
		return nil, nil, usageError("nothing came on standard input; paste input and output with a line %s between, or use --input and --output", endOfPaste)
	case ended:
		return input, nil, nil
	}
	output, _, err = readPaste(r)
	return input, orUnknown(output), err
}

func orUnknown(output []byte) []byte {
	if len(output) == 0 {
		return nil
	}
	return output
}

// readPaste reads up to a line that ends a paste, or to the end. What a paste
// lacks, a line end at its end, is added.
func readPaste(r *bufio.Reader) (text []byte, ended bool, err error) {
	for {
		line, err := r.ReadString('\n')
		if strings.TrimRight(line, "\r\n") == endOfPaste {
			return text, false, nil
		}
		line = strings.TrimSuffix(line, "\n")
		if line != "" || err == nil {
			text = append(text, strings.TrimSuffix(line, "\r")+"\n"...)
		}
		if len(text) > largestAdded {
			return nil, false, usageError("that is more than 1 GiB; put it into a file and use --input")
		}
		if errors.Is(err, io.EOF) {
			return text, true, nil
		}
		if err != nil {
			return nil, false, fmt.Errorf("cannot read standard input: %w", err)
		}
	}
}

func (a *app) caseListCommand() *cli.Command {
	return &cli.Command{
		Name:        "list",
		Usage:       "list the cases with their reasons",
		ArgsUsage:   "[PATTERN ...]",
		Description: "Each line has the name, the size of the input, what is known of the answer, where the\ncase is written down, and why it exists.\n\n   cold case list edge-cases",
		Action: func(_ context.Context, c *cli.Command) error {
			p, indices, err := a.chosenCases(c.Args().Slice())
			if err != nil {
				return err
			}
			a.screen.Cases(p, indices)
			return nil
		},
	}
}

func (a *app) caseShowCommand() *cli.Command {
	return &cli.Command{
		Name:        "show",
		Usage:       "show a case: reason, input, expected output",
		ArgsUsage:   "NAME ...",
		Description: "Shows what a case holds; a long text is cut in the middle.\n\n   cold case show samples/1",
		Action: func(_ context.Context, c *cli.Command) error {
			if !c.Args().Present() {
				return usageError("name a case, such as samples/1; 'cold case list' lists them")
			}
			p, indices, err := a.chosenCases(c.Args().Slice())
			if err != nil {
				return err
			}
			for i, index := range indices {
				if i > 0 {
					a.screen.Print("")
				}
				if err := p.Cases[index].Open(); err != nil {
					return err
				}
				a.screen.Case(p, p.Cases[index])
			}
			return nil
		},
	}
}

func (a *app) chosenCases(patterns []string) (*problem.Problem, []int, error) {
	p, err := a.load()
	if err != nil {
		return nil, nil, err
	}
	indices, err := p.SelectCases(patterns)
	return p, indices, err
}
