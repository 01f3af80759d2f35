package cli

import (
	"context"
	"io"
	"os"
	"path/filepath"
	"strings"

	"github.com/urfave/cli/v3"

	"coldverdict/core/picture"
	"coldverdict/core/problem"
	"coldverdict/core/script"
	"coldverdict/core/shape"
	"coldverdict/core/value"
	"coldverdict/report"
	"coldverdict/term"
)

// drawFlags are what cold draw was asked for.
type drawFlags struct {
	answer answerFlags
	out    string
}

func (a *app) drawCommand() *cli.Command {
	var f drawFlags
	return &cli.Command{
		Name:      "draw",
		Usage:     "draw an input: graphs, trees, grids, bars, intervals, points, cycles, words",
		ArgsUsage: "[CASE | FILE]",
		Description: "What an input holds is known from input.shape, or guessed from how it looks. Without CASE it takes the\n" +
			"case that failed last, or the first one. Where [draw] in verdict.toml says what an answer points at, the\n" +
			"expected answer is drawn in, and with --solution what that prints.\n\n" +
			"   cold draw samples/1\n" +
			"   cold draw big.in --out big.svg\n" +
			"   cold draw crossed/1 --solution greedy.cpp",
		Flags: []cli.Flag{
			&cli.StringFlag{Name: "out", Usage: "draw into `FILE`, by its ending: .svg or .png", Destination: &f.out, TakesFile: true},
			&cli.StringFlag{Name: "answer", Usage: "draw in the answer `TEXT`", Destination: &f.answer.answer},
			solutionFlag(&f.answer.solution), f.answer.run.langFlag("take the solution for `NAME`, such as cpp17"),
		},
		Action: func(ctx context.Context, c *cli.Command) error { return a.draw(ctx, c, f) },
	}
}

// A drawn is an input with its answers.
type drawn struct {
	name    string
	input   problem.Data
	answers []drawnAnswer
}

type drawnAnswer struct{ title, text string }

func (a *app) draw(ctx context.Context, c *cli.Command, f drawFlags) error {
	if err := atMost(c, 1); err != nil {
		return err
	}
	format := strings.TrimPrefix(strings.ToLower(filepath.Ext(f.out)), ".")
	if f.out != "" {
		if format != "svg" && format != "png" {
			return usageError("--out is %s; it ends in .svg or .png", f.out)
		}
		if err := problem.CanWrite(a.path(f.out)); err != nil {
			return usageError("--out: %v", err)
		}
	}
	var p *problem.Problem
	var err error
	if problem.IsFolder(a.dir, a.words()) {
		if p, err = a.load(); err != nil {
			return err
		}
	}
	d, err := a.toDraw(ctx, p, c.Args().First(), f)
	if err != nil {
		return err
	}
	pictures, values, err := a.pictures(p, d)
	if err != nil {
		return err
	}
	rows, err := a.panels(p, d, pictures, values)
	if err != nil {
		return err
	}
	if f.out == "" {
		for i, row := range rows {
			for k, one := range row {
				if i+k > 0 {
					a.screen.Print("")
				}
				one.Picture.Title = one.Title
				a.screen.Picture(one.Picture, one.Marks)
			}
		}
		return a.screen.Flush()
	}
	return a.writeTo("--out", f.out, func(out io.Writer) error { return report.DrawPictures(out, format, rows, true) })
}

// toDraw is the input that the person named, with its answers.
func (a *app) toDraw(ctx context.Context, p *problem.Problem, name string, f drawFlags) (d drawn, err error) {
	if info, err := os.Stat(a.path(name)); name != "" && err == nil && info.Mode().IsRegular() {
		d = drawn{name: filepath.Base(name), input: problem.Data{Path: a.path(name), Size: info.Size()}}
		if f.answer.solution != "" {
			return d, usageError("--solution runs on a case; %s is a file", name)
		}
	} else {
		if p == nil {
			return d, usageError("there is no file %q here, and %s is no problem's folder", name, a.dir)
		}
		one, err := a.caseToDraw(p, name)
		if err != nil {
			return d, err
		}
		d = drawn{name: one.Name, input: one.Input}
		if len(one.Accepted) > 0 {
			text, err := one.Accepted[0].Head(largestDrawnAnswer)
			if err != nil {
				return d, err
			}
			d.answers = append(d.answers, drawnAnswer{"expected", string(text)})
		}
		if f.answer.solution != "" {
			printed, err := a.answer(ctx, p, one, f.answer)
			if err != nil {
				return d, err
			}
			d.answers = append(d.answers, drawnAnswer{printed.source, string(printed.text)})
		}
	}
	if f.answer.answer != "" {
		d.answers = append(d.answers, drawnAnswer{"answer", f.answer.answer})
	}
	return d, nil
}

// largestDrawnAnswer bounds an answer that is drawn in, in bytes.
const largestDrawnAnswer = 1 << 20

// caseToDraw is the case of that name; without a name the one that failed last, or the first that may be shown.
func (a *app) caseToDraw(p *problem.Problem, name string) (one problem.Case, err error) {
	if name != "" {
		if one, err = p.FindCase(name); err == nil {
			err = one.Open()
		}
		return one, err
	}
	failed := map[string]bool{}
	for _, list := range rememberedOf(p).Failed {
		for _, name := range list {
			failed[name] = true
		}
	}
	found := -1
	for i, c := range p.Cases {
		if c.Open() == nil && (found < 0 || failed[c.Name] && !failed[p.Cases[found].Name]) {
			found = i
		}
	}
	if found < 0 {
		return one, usageError("%s has no case to draw; name a file", p.Dir)
	}
	return p.Cases[found], nil
}

// pictures are those of an input: by the shape, if it is valid, or else as it looks.
func (a *app) pictures(p *problem.Problem, d drawn) ([]picture.Picture, shape.Values, error) {
	file, err := d.input.Open()
	if err != nil {
		return nil, nil, usageError("%v", err)
	}
	defer file.Close()
	if p != nil && p.Shape != nil && !p.Kind().Calls {
		in, fault, err := p.Shape.Read(file, shape.Options{})
		if err != nil {
			return nil, nil, err
		}
		if fault == nil {
			list, left := picture.Of(in)
			a.notDrawn(d, list, left, "holds nothing but single values")
			return list, in.Values(), nil
		}
		a.screen.Remark("note: %s is not as input.shape says (%s), so that what it holds is guessed", term.Visible(d.name), term.Visible(fault.Error()))
	}
	text, err := d.input.Head(largestDrawnAnswer)
	if err != nil {
		return nil, nil, usageError("%v", err)
	}
	if p != nil && p.Kind().Calls && p.Call.Class == nil {
		args, err := p.Call.ReadArguments(string(text))
		if err != nil {
			return nil, nil, usageError("%s: %v", d.name, err)
		}
		list, left := picture.OfCall(p.Call.Takes, args)
		a.notDrawn(d, list, left, "holds nothing that is seen better than read")
		return list, nil, nil
	}
	list := picture.Guess(string(text))
	if len(list) == 0 {
		a.screen.Remark("note: %s looks like nothing that can be drawn; input.shape could say what it is", term.Visible(d.name))
	}
	return list, nil, nil
}

// notDrawn says what of an input is left out, and what it is where there is nothing to draw.
func (a *app) notDrawn(d drawn, list []picture.Picture, left []string, nothing string) {
	for _, why := range left {
		a.screen.Remark("note: %s", term.Visible(why))
	}
	if len(list) == 0 && len(left) == 0 {
		a.screen.Remark("note: %s %s", term.Visible(d.name), nothing)
	}
}

// panels are the pictures of an input; one in which an answer points at something is there for each answer.
func (a *app) panels(p *problem.Problem, d drawn, pictures []picture.Picture, values shape.Values) (rows [][]report.Panel, err error) {
	for _, one := range pictures {
		var row []report.Panel
		for _, answer := range d.answers {
			m, words, err := marksOf(p, &one, values, answer.text)
			if err != nil {
				return nil, usageError("%v", err)
			}
			if m.Empty() && words == "" {
				continue
			}
			if words != "" {
				a.screen.Remark("note: %s: %s", term.Visible(answer.title), term.Visible(words))
			}
			row = append(row, report.Panel{Title: one.Title + ", " + answer.title, Picture: one, Marks: m})
		}
		if len(row) == 0 {
			row = []report.Panel{{Title: one.Title, Picture: one}}
		}
		rows = append(rows, row)
	}
	if p != nil && p.Kind().Calls && p.Call.Class == nil {
		rows = append(rows, resultPanels(p, d)...)
	}
	return rows, nil
}

// resultPanels are the pictures of what a function returns, those of one answer beside those of the others.
func resultPanels(p *problem.Problem, d drawn) (rows [][]report.Panel) {
	results := p.Call.Results()
	if len(results) != 1 || !results[0].Type.Kind.IsNodes() {
		return nil
	}
	var row []report.Panel
	for _, answer := range d.answers {
		v, err := value.ReadResults(answer.text, results)
		if err != nil {
			continue // it is no such value, as where nothing was returned
		}
		if one, _ := picture.OfValue(results[0].Type, v); one != nil {
			row = append(row, report.Panel{Title: answer.title, Picture: *one})
		}
	}
	if len(row) > 0 {
		rows = append(rows, row)
	}
	return rows
}

// marksOf are what an answer points at in a picture, as verdict.toml says.
func marksOf(p *problem.Problem, one *picture.Picture, values shape.Values, answer string) (m *picture.Marks, words string, err error) {
	switch {
	case p == nil:
		return nil, "", nil
	case p.Draw.Script != "":
		marker, err := script.Marker(p.PathOf(p.Draw.Script))
		if err != nil {
			return nil, "", err
		}
		said, err := marker(values, answer)
		if err != nil {
			return nil, "", err
		}
		m, words = picture.MarksFrom(one, said)
		return m, words, nil
	case p.Draw.Answer != "":
		m, words = picture.MarksOf(p.Draw.Answer, one, answer)
	}
	return m, words, nil
}
