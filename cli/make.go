package cli

import (
	"context"
	"errors"
	"fmt"
	"io/fs"
	"math/rand/v2"
	"os"
	"path/filepath"
	"strings"

	"github.com/urfave/cli/v3"

	"coldverdict/core/judge"
	"coldverdict/core/problem"
	"coldverdict/core/shape"
	view "coldverdict/term"
)

// makeFlags are what cold shape make was asked for.
type makeFlags struct {
	seed, size, style, out string
	count                  int
	open                   bool // uncontained
}

// usualSize is how large generated inputs are where nothing is said: a person can still
// read them.
const usualSize = "0.2"

// mostMade bounds --count.
const mostMade = 100_000

func (a *app) shapeMakeCommand() *cli.Command {
	var f makeFlags
	return &cli.Command{
		Name:  "make",
		Usage: "make a random input",
		Description: "Prints an input that has the shape, and says its seed: the same seed, size and style make\n" +
			"the same input on every machine. Size 0 is the smallest that is valid, 1 the largest, and in\n" +
			"between counts grow geometrically. What [make] of verdict.toml names is run in place of the\n" +
			"shape, which then only checks what it makes; with --style it is the shape that makes.\n\n" +
			"   cold shape make --size 1 > big.txt\n" +
			"   cold shape make --count 20 --style few-distinct --out cases/random",
		Flags: []cli.Flag{
			&cli.StringFlag{Name: "seed", Usage: "begin at `S`, a number; the next input has the next one", DefaultText: "any", Destination: &f.seed},
			&cli.StringFlag{Name: "size", Usage: "make it as large as `F` says, from 0 to 1", Value: usualSize, Destination: &f.size},
			&cli.StringFlag{Name: "style", Usage: "draw values in the style `NAME` wherever it fits; 'list' lists them", Destination: &f.style},
			&cli.IntFlag{Name: "count", Usage: "make `N` inputs, into --out", Value: 1, Destination: &f.count},
			&cli.StringFlag{Name: "out", Usage: "write NAME.in files into `FOLDER`, not to standard output", Destination: &f.out, TakesFile: true},
			&cli.BoolFlag{Name: "uncontained", Usage: "let what [make] names use the network and your files", Destination: &f.open},
		},
		Action: func(ctx context.Context, c *cli.Command) error {
			if err := atMost(c, 0); err != nil {
				return err
			}
			return a.shapeMake(ctx, f)
		},
	}
}

// A making is how inputs are generated: by a shape, or by what a person wrote.
type making func(seed shape.Seed) ([]byte, error)

func (a *app) shapeMake(ctx context.Context, f makeFlags) (err error) {
	if f.count < 1 || f.count > mostMade {
		return usageError("--count is %d; it can be 1 to %d", f.count, mostMade)
	}
	if f.count > 1 && f.out == "" {
		return usageError("several inputs need a folder; name one with --out, such as cases/random")
	}
	size, err := shape.ParseSize(f.size)
	if err != nil {
		return usageError("--size: %v", err)
	}
	seed, err := parseSeed(f.seed, shape.Seed(rand.Uint32()))
	if err != nil {
		return err
	}
	p, err := a.load()
	if err != nil {
		return err
	}
	if f.style == "list" {
		if p.Shape == nil {
			return noShape(p)
		}
		for _, name := range p.Shape.Styles() {
			a.screen.Print("%s", name)
		}
		return nil
	}
	one, end, err := a.making(ctx, p, f, size)
	if err != nil {
		return err
	}
	defer func() { err = errors.Join(err, end()) }()
	said := fmt.Sprintf("size %s", size)
	if f.style != "" {
		said += ", style " + f.style
	}
	if f.out == "" {
		text, err := one(seed)
		if err != nil {
			return err
		}
		if _, err := a.out.Write(text); err != nil {
			return err
		}
		a.screen.Remark("generated from seed %s, %s", seed, said)
		return nil
	}
	names := make([]string, f.count)
	for i := range names {
		names[i] = fmt.Sprintf("seed-%d", uint64(seed)+uint64(i))
	}
	total, err := a.writeInputs(ctx, f.out, names, func(i int) ([]byte, error) { return one(seed + shape.Seed(i)) })
	if err != nil {
		return err
	}
	a.screen.Print("generated %s (%s) from seed %s on, %s, in %s", view.Count(f.count, "input"), view.Size(total), seed, said, view.Visible(f.out))
	return nil
}

// making says how inputs are generated. end must be called when none is wanted any more.
func (a *app) making(ctx context.Context, p *problem.Problem, f makeFlags, size shape.Size) (one making, end func() error, err error) {
	if p.Make != (problem.Make{}) && f.style == "" {
		m, err := judge.OpenMaker(ctx, p, judge.Env{Languages: a.languages, Uncontained: f.open})
		if err != nil {
			return nil, nil, wrongMaker(ctx, err)
		}
		return func(seed shape.Seed) ([]byte, error) {
			text, err := m.Make(ctx, seed, size)
			return text, wrongMaker(ctx, err)
		}, m.Close, nil
	}
	if p.Shape == nil {
		return nil, nil, noShape(p)
	}
	return func(seed shape.Seed) ([]byte, error) {
		in, err := p.Shape.Make(shape.Making{Seed: seed, Size: size, Style: f.style})
		if err != nil {
			return nil, wrongShape(err)
		}
		return in.Append(nil), nil
	}, func() error { return nil }, nil
}

// wrongMaker is what the command line says of an error of what [make] names.
func wrongMaker(ctx context.Context, err error) error {
	var wrong *judge.MakerError
	if err == nil || ctx.Err() != nil || !errors.As(err, &wrong) {
		return err
	}
	return usageError("[make]: %v", wrong)
}

// wrongShape is what the command line says of a shape from which nothing can be generated.
func wrongShape(err error) error {
	var wrong *shape.GenerateError
	if errors.As(err, &wrong) {
		return usageError("%s:%v", problem.ShapeFile, err)
	}
	return usageError("%v", err)
}

// noShape says what a problem lacks, and how it may begin.
func noShape(p *problem.Problem) error {
	words := fmt.Sprintf("there is no %s here; write one, ", problem.ShapeFile)
	example := p.ShapeExample()
	switch {
	case p.Call == nil:
		return usageError("%ssuch as %s, a line of the input a line", words, strings.TrimSpace(example))
	case example == "":
		return usageError("%sa line for each argument; docs/shape.md, \"Function problems\", says how", words)
	}
	return usageError("%swhich may begin so, with the bounds of your problem:\n\n%s", words, indented(example))
}

// indented moves lines to the right.
func indented(text string) string {
	return "    " + strings.ReplaceAll(strings.TrimSuffix(text, "\n"), "\n", "\n    ")
}

// writeInputs writes inputs as NAME.in into a folder, each whole, and none at all if
// one of them is there. It returns how many bytes they have.
func (a *app) writeInputs(ctx context.Context, folder string, names []string, input func(i int) ([]byte, error)) (total int64, err error) {
	dir := a.path(folder)
	for _, name := range names {
		path := filepath.Join(dir, name+".in")
		_, err := os.Lstat(path)
		switch {
		case err == nil:
			return 0, usageError("%s is there already and stays as it is; choose another folder or seed", path)
		case !errors.Is(err, fs.ErrNotExist):
			return 0, usageError("--out: %v", err)
		}
	}
	for i, name := range names {
		if err := ctx.Err(); err != nil {
			return total, err
		}
		a.screen.Progress("making: %d of %s", i, view.Count(len(names), "input"))
		text, err := input(i)
		if err != nil {
			return total, err
		}
		if err := os.MkdirAll(dir, 0o755); err != nil {
			return total, usageError("%v", err)
		}
		if err := problem.WriteWhole(filepath.Join(dir, name+".in"), text, 0o644); err != nil {
			return total, err
		}
		total += int64(len(text))
	}
	a.screen.Progress("")
	return total, nil
}

// usualEdgeCases bounds edge cases where nothing is said.
const usualEdgeCases = 100

func (a *app) shapeEdgesCommand() *cli.Command {
	var count int
	var list bool
	var out string
	return &cli.Command{
		Name:  "edges",
		Usage: "make the edge cases that nobody should have to think of",
		Description: "For each count the least, the next, two, a few and the largest, for each value the styles in which\n" +
			"faults hide, and every pair of such choices in few inputs. Each is\n" +
			"named after what was chosen for it. 'cold try --edges' runs them.\n\n" +
			"   cold shape edges\n" +
			"   cold shape edges --count 20 --out cases/edges",
		Flags: []cli.Flag{
			&cli.IntFlag{Name: "count", Usage: "make `N` at the most: each style first, then the pairs that are left", Value: usualEdgeCases, Destination: &count},
			&cli.BoolFlag{Name: "list", Usage: "list them only, even with --out", Destination: &list},
			&cli.StringFlag{Name: "out", Usage: "write NAME.in files into `FOLDER`; without it they are listed", Destination: &out, TakesFile: true},
		},
		Action: func(ctx context.Context, c *cli.Command) error {
			if err := atMost(c, 0); err != nil {
				return err
			}
			if count < 1 || count > mostMade {
				return usageError("--count is %d; it can be 1 to %d", count, mostMade)
			}
			return a.shapeEdges(ctx, count, out, list)
		},
	}
}

func (a *app) shapeEdges(ctx context.Context, count int, out string, list bool) error {
	p, err := a.shaped()
	if err != nil {
		return err
	}
	if p.Make != (problem.Make{}) {
		return usageError("[make] makes the inputs here, and knows no choices; 'cold shape make --size 0' makes a small one, and 'cold try --edges' tries some of all sizes")
	}
	listed := out == "" || list
	edges, err := a.edgeCases(ctx, p.Shape, count, listed)
	if err != nil {
		return err
	}
	if listed {
		a.screen.EdgeCover(edges)
		return nil
	}
	names := make([]string, len(edges.Cases))
	for i, c := range edges.Cases {
		names[i] = c.Name
	}
	total, err := a.writeInputs(ctx, out, names, func(i int) ([]byte, error) {
		in, err := p.Shape.Make(edges.Cases[i].Making)
		if err != nil {
			return nil, wrongShape(err)
		}
		return in.Append(nil), nil
	})
	if err != nil {
		return err
	}
	a.screen.Print("generated %s (%s) in %s", view.Count(len(names), "edge case"), view.Size(total), view.Visible(out))
	a.screen.EdgeCover(edges)
	return nil
}

// edgeCases chooses edge cases, and lists them as they are found where they are to be listed; a shape of which there
// are none is at fault.
func (a *app) edgeCases(ctx context.Context, s *shape.Shape, most int, listed bool) (shape.EdgeCases, error) {
	a.screen.Progress("choosing edge cases …")
	edges, err := s.EachEdgeCase(ctx, most, func(c shape.EdgeCase) {
		if listed {
			a.screen.Progress("")
			a.screen.EdgeCase(c)
		}
	})
	a.screen.Progress("")
	if err == nil && len(edges.Cases) == 0 {
		_, err = s.Make(shape.Making{})
		if err == nil {
			err = errors.New("no combination of choices is an input that is valid")
		}
		return edges, wrongShape(err)
	}
	return edges, err
}
