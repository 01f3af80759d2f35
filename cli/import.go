package cli

import (
	"context"
	"errors"

	"github.com/urfave/cli/v3"

	"coldverdict/core/intake"
	"coldverdict/core/problem"
	"coldverdict/core/shape"
	view "coldverdict/term"
)

func (a *app) caseImportCommand() *cli.Command {
	var group string
	var yes bool
	return &cli.Command{
		Name:      "import",
		Usage:     "take over a folder or an archive of inputs and outputs",
		ArgsUsage: "FOLDER|ARCHIVE",
		Description: "Pairs files by their names: two belong together when the names are the same after one of\n" +
			"in, input in the one and one of out, output, ans, answer, expected in the other is taken\n" +
			"out, in the name, the extension or a folder. Shows the pairs and what is left over, asks,\n" +
			"and copies them to cases/; what is there already stays as it is.\n\n" +
			"   cold case import official.zip --group official",
		Flags: []cli.Flag{
			&cli.StringFlag{Name: "group", Usage: "put the cases into the group `NAME`, and subfolders into NAME-…", Destination: &group},
			yesFlag(&yes),
		},
		Action: func(ctx context.Context, c *cli.Command) error {
			if c.Args().Len() != 1 {
				return usageError("name one folder or archive: cold case import official.zip")
			}
			return a.caseImport(ctx, c.Args().First(), group, yes)
		},
	}
}

func (a *app) caseImport(ctx context.Context, name, group string, yes bool) error {
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
	pairing := intake.PairUp(source.Files)
	a.screen.Pairing(pairing, group)
	if len(pairing.Pairs) == 0 {
		return usageError("%s: of %d files no two belong together; an input is named like 1.in or in/1.txt, and its output like 1.out or out/1.txt", name, len(source.Files))
	}
	if err := a.confirm(yes, "copy %s to %s?", view.Count(len(pairing.Pairs), "case"), view.Visible(p.Name())+"/cases/"); err != nil {
		return err
	}
	copied, there, err := intake.Copy(ctx, source, pairing.Pairs, p, group, func(files int) {
		a.screen.Progress("copying: %d of %d files", files, 2*len(pairing.Pairs))
	})
	if err != nil {
		return importError(name, err)
	}
	a.screen.Print("copied %s", view.Count(copied, "case"))
	if len(there) > 0 {
		a.screen.Print("there already, and left as they are: %s", view.List(there, 5))
	}
	if p, err = a.loadFor(true); err == nil {
		err = a.checkImported(p, copied)
	}
	return err
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
