package cli

import (
	"context"
	"errors"
	"slices"
	"strings"

	"github.com/urfave/cli/v3"

	"coldverdict/core/intake"
	"coldverdict/core/problem"
	"coldverdict/core/shape"
	view "coldverdict/term"
)

func (a *app) caseImportCommand() *cli.Command {
	var group string
	var yes, sealed bool
	var patterns intake.Patterns
	return &cli.Command{
		Name:      "import",
		Usage:     "take over a folder or an archive of inputs and outputs",
		ArgsUsage: "FOLDER|ARCHIVE",
		Description: "Pairs files by their names: two belong together when the names are the same after one of\n" +
			"in, input in the one and one of out, output, ans, answer, expected, sol in the other is taken\n" +
			"out, in the name, the extension or a folder; or as --inputs and --outputs say. Shows the pairs and what is left over, asks,\n" +
			"and copies them to cases/; what is there already stays as it is.\n\n" +
			"   cold case import official.zip --group official\n" +
			"   cold case import data --inputs 'eingabe*.txt' --outputs 'ausgabe*.txt'",
		Flags: []cli.Flag{
			&cli.StringFlag{Name: "group", Usage: "put the cases into the group `NAME`, and subfolders into NAME-…", Destination: &group},
			&cli.StringFlag{Name: "inputs", Usage: "take the files named like `PATTERN`, such as 'eingabe*.txt', for inputs", Destination: &patterns.Inputs},
			&cli.StringFlag{Name: "outputs", Usage: "take the files named like `PATTERN` for outputs", Destination: &patterns.Outputs},
			&cli.BoolFlag{Name: "unjudged", Usage: "take inputs without an output, too", Destination: &patterns.Alone},
			&cli.BoolFlag{Name: "sealed", Usage: "show nothing of these cases but verdicts, times and points, until 'cold case unseal'", Destination: &sealed},
			yesFlag(&yes),
		},
		Action: func(ctx context.Context, c *cli.Command) error {
			if c.Args().Len() != 1 {
				return usageError("name one folder or archive: cold case import official.zip")
			}
			return a.caseImport(ctx, c.Args().First(), patterns, group, yes, sealed)
		},
	}
}

func (a *app) caseImport(ctx context.Context, name string, patterns intake.Patterns, group string, yes, sealed bool) (failed error) {
	switch {
	case patterns.Outputs != "" && patterns.Inputs == "":
		return usageError("--outputs says how outputs are named; say with --inputs how inputs are")
	case patterns.Inputs != "" && patterns.Outputs == "" && !patterns.Alone:
		return usageError("--inputs says how inputs are named; say with --outputs how outputs are, or take them without, with --unjudged")
	case patterns.Inputs != "" && !strings.ContainsAny(patterns.Inputs, "*?"):
		return usageError("--inputs is %q; write * for what an input and its output have in common", patterns.Inputs)
	}
	p, err := a.loadFor(true)
	if err != nil {
		return err
	}
	a.screen.Progress("looking through %s …", view.Visible(name))
	source, err := intake.Open(a.path(name))
	if err != nil {
		return importError(name, err)
	}
	defer source.Close()
	pairing := intake.PairUp(source.Files, patterns)
	if !sealed {
		a.screen.Pairing(pairing, group)
	}
	if len(pairing.Pairs) == 0 {
		return usageError("%s: of %d files no two belong together; an input is named like 1.in or in/1.txt, and its output like 1.out or out/1.txt", name, len(source.Files))
	}
	if err := a.confirm(yes, "copy %s to %s?", view.Count(len(pairing.Pairs), "case"), view.Visible(p.Name())+"/cases/"); err != nil {
		return err
	}
	copied := 0
	if sealed { // before anything is there to be seen
		undo, err := a.sealFirst(p, pairing, group)
		if err != nil {
			return err
		}
		defer func() {
			if copied == 0 {
				failed = errors.Join(failed, undo())
			}
		}()
	}
	var there []string
	copied, there, err = intake.Copy(ctx, source, pairing.Pairs, p, group, func(files int) {
		a.screen.Progress("copying: %d of %d files", files, 2*len(pairing.Pairs))
	})
	if err != nil {
		return importError(name, err)
	}
	a.screen.Print("copied %s", view.Count(copied, "case"))
	if len(there) > 0 {
		a.screen.Print("there already, and left as they are: %s", view.List(there, 5))
	}
	if p, err = a.loadFor(true); err != nil {
		return err
	}
	return a.checkImported(p, copied)
}

// sealFirst seals the groups that an import makes. undo takes that back, where nothing was copied.
func (a *app) sealFirst(p *problem.Problem, pairing intake.Pairing, group string) (undo func() error, err error) {
	var taken []string
	for _, pair := range pairing.Pairs {
		name, _, _ := strings.Cut(intake.CaseName(pair, group), "/")
		switch {
		case slices.Contains(taken, name) || p.Rule(name).Sealed:
		case slices.Contains(p.Groups(), name):
			return nil, usageError("the group %s has cases already, and is not sealed; choose another one with --group, or write sealed = true below its [[group]] in %s", name, problem.ConfigFile)
		default:
			taken = append(taken, name)
		}
	}
	if undo, err = p.Seal(taken, true); err == nil && len(taken) > 0 {
		a.screen.Print("sealed: %s", view.List(taken, 10))
	}
	return undo, err
}

func (a *app) caseUnsealCommand() *cli.Command {
	return &cli.Command{
		Name:      "unseal",
		Usage:     "let the cases of sealed groups be shown again",
		ArgsUsage: "[GROUP ...]",
		Description: "Of the cases of a sealed group only verdicts, times and points are shown. This takes\n" +
			"sealed = true out of verdict.toml; without GROUP, for all groups. A seal is no lock: who opens\n" +
			"the files can read them.\n\n   cold case unseal official",
		Action: func(_ context.Context, c *cli.Command) error {
			p, err := problem.Unread(a.dir) // what is sealed may be malformed
			if err != nil {
				return err
			}
			sealed, err := p.SealedGroups()
			if err != nil {
				return err
			}
			groups := c.Args().Slice()
			if len(groups) == 0 {
				groups = sealed
			}
			if len(sealed) == 0 {
				return usageError("no group is sealed")
			}
			for _, group := range groups {
				if !slices.Contains(sealed, group) {
					return usageError("the group %q is not sealed; these are: %s", group, view.List(sealed, 10))
				}
			}
			if _, err := p.Seal(groups, false); err != nil {
				return err
			}
			a.screen.Print("unsealed: %s", view.List(groups, 10))
			return nil
		},
	}
}

// checkImported says whether what was copied has the shape of the input.
func (a *app) checkImported(p *problem.Problem, copied int) error {
	if p.Shape == nil || p.Kind().Calls || copied == 0 {
		return nil
	}
	invalid := 0
	for _, one := range p.Cases {
		fault, err := p.CheckShape(one.Input, shape.Options{})
		if err != nil {
			return err
		}
		if fault != nil {
			invalid++
		}
	}
	if invalid > 0 {
		a.screen.Print("note: inputs without the shape that %s says: %d; 'cold shape check' says where", problem.ShapeFile, invalid)
	}
	return nil
}

// importError names the archive in what the core says of it.
func importError(name string, err error) error {
	var refused *intake.RefusedError
	if errors.As(err, &refused) {
		return usageError("%s: %v", name, refused)
	}
	return err
}
