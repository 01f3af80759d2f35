package judge

import (
	"bytes"
	"cmp"
	"context"
	"errors"
	"fmt"
	"io"
	"os"
	"path/filepath"
	"strconv"
	"strings"
	"syscall"

	"coldverdict/core/box"
	"coldverdict/core/problem"
	"coldverdict/core/script"
	"coldverdict/core/toolchain"
	"coldverdict/core/verdict"
)

// A checker is what a person wrote to decide: a checker, the interactor of an interactive
// problem, or a generator.
type checker struct {
	name   string          // as the person names it
	role   string          // what messages call it
	script string          // absolute path; empty: it is a program
	build  toolchain.Build // of a program
}

const (
	roleChecker    = "the checker"
	roleInteractor = "the interactor"
	roleGenerator  = "the generator"
)

// A checkerKey is how verdict.toml names a checker.
type checkerKey struct{ role, script, program string }

// checkerOf returns which checker or interactor a case needs.
func (j *Judge) checkerOf(c *problem.Case) checkerKey {
	return j.manner.decider(j.problem, c)
}

func (k checkerKey) none() bool { return k.script == "" && k.program == "" }

// A builtChecker is a checker that can run, or why it cannot.
type builtChecker struct {
	checker checker
	fault   error
}

// readyCheckers builds those that some of the cases need.
func (j *Judge) readyCheckers(ctx context.Context, cases []problem.Case, some []int) (err error) {
	w := j.builder()
	defer func() { err = errors.Join(err, w.close()) }()
	for _, i := range some {
		key := j.checkerOf(&cases[i])
		if _, known := j.checkers[key]; known || key.none() {
			continue
		}
		one := &builtChecker{checker: checker{role: key.role, name: cmp.Or(key.script, key.program)}}
		one.fault = one.checker.ready(ctx, j, w, key)
		if err := ctx.Err(); err != nil {
			return err
		}
		j.checkers[key] = one
	}
	return nil
}

func (c *checker) ready(ctx context.Context, j *Judge, w *worker, key checkerKey) (err error) {
	if key.script != "" {
		c.script = j.problem.PathOf(key.script)
		if err := script.Check(c.script, scriptRole(key.role)); err != nil {
			return fmt.Errorf("%s cannot be used: %w", c.role, err)
		}
		return nil
	}
	c.build, err = j.kit.Build(ctx, w, toolchain.Source{Path: j.problem.PathOf(key.program)})
	if err != nil {
		return fmt.Errorf("%s %s: %w", c.role, c.name, err)
	}
	if c.build.Failed {
		return fmt.Errorf("%s %s does not build: %s", c.role, c.name, cmp.Or(c.build.Read(c.build.Log, true).String(), verdict.LastLine(c.build.Log)))
	}
	return nil
}

// JudgesAlone says who judges outputs of which nobody knows the right one: "the interactor", or "the
// checker", where that does not look at the expected output. Empty: nobody does.
func JudgesAlone(p *problem.Problem) string {
	switch {
	case p.Kind().Talks:
		return roleInteractor
	case p.Compare.Script != "" && !script.NeedsExpected(p.PathOf(p.Compare.Script)):
		return roleChecker
	}
	return ""
}

// scriptRole is what a script is for.
func scriptRole(role string) script.Role {
	switch role {
	case roleInteractor:
		return script.Talks
	case roleGenerator:
		return script.Makes
	}
	return script.Decides
}

// program is how to run it with one argument.
func (c *checker) program(limits verdict.Limits, argument string) (box.Program, error) {
	switch {
	case c.script == "":
		return c.build.Program(limits, []string{argument}), nil
	case c.role == roleInteractor:
		return script.Talk(c.script, argument)
	}
	return script.Decide(c.script, argument)
}

// A decision is what a checker says.
type decision struct {
	verdict verdict.Verdict // accepted, partial or wrong answer
	share   float64
	why     string
}

// judged reads the decision in the first line of what a checker said. An error says how it
// failed; that is never the candidate's fault.
func (c *checker) judged(result box.Result, said, errs *box.Head, l verdict.Limits) (d decision, err error) {
	if why := (measured{result: result}).helperFailed(l, c.script != "", errs.Text); why != "" {
		return d, fmt.Errorf("%s %s %s", c.role, c.name, why)
	}
	line, _, _ := strings.Cut(string(said.Text), "\n")
	d, ok := parseDecision(line)
	switch {
	case ok:
		return d, nil
	case strings.TrimSpace(line) == "":
		return d, fmt.Errorf("%s %s decided nothing; it must say accept, reject WHY or share 0.4 WHY", c.role, c.name)
	}
	return d, fmt.Errorf("%s %s said %q; it must say accept, reject WHY or share 0.4 WHY", c.role, c.name, shortened(line))
}

// parseDecision reads a line: accept, reject WHY, or share 0.4 WHY.
func parseDecision(line string) (d decision, ok bool) {
	word, why, _ := strings.Cut(strings.TrimSpace(line), " ")
	d.why = strings.TrimSpace(why)
	switch word {
	case "accept":
		d.verdict, d.share = verdict.Accepted, 1
		return d, true
	case "reject":
		d.verdict = verdict.WrongAnswer
		return d, true
	case "share":
		part, why, _ := strings.Cut(d.why, " ")
		share, err := strconv.ParseFloat(part, 64)
		if err != nil || !(share >= 0 && share <= 1) {
			return d, false
		}
		d.share, d.why = share, strings.TrimSpace(why)
		switch share {
		case 0:
			d.verdict = verdict.WrongAnswer
		case 1:
			d.verdict = verdict.Accepted
		default:
			d.verdict = verdict.Partial
		}
		return d, true
	}
	return d, false
}

// into puts a decision into an outcome.
func (d decision) into(o *verdict.Outcome) {
	o.Verdict, o.Share, o.Message = d.verdict, d.share, d.why
	if o.Message == "" && d.verdict == verdict.WrongAnswer {
		o.Message = "rejected"
	}
	if d.verdict == verdict.Partial {
		o.Message = strings.TrimSuffix(fmt.Sprintf("%.3g %% of the points: %s", 100*d.share, d.why), ": ")
	}
}

func shortened(text string) string {
	const most = 60
	if runes := []rune(text); len(runes) > most {
		return string(runes[:most]) + "…"
	}
	return text
}

// A checkerFolder is the folder in which a checker finds what it decides on.
type checkerFolder struct {
	dir string
	got *bufferedFile
}

// A bufferedFile collects small writes.
type bufferedFile struct {
	file   *os.File
	buffer []byte
	err    error
}

func (b *bufferedFile) Write(p []byte) (int, error) {
	b.buffer = append(b.buffer, p...)
	if len(b.buffer) > 64<<10 {
		b.flush()
	}
	return len(p), nil
}

func (b *bufferedFile) flush() error {
	if b.err == nil && len(b.buffer) > 0 {
		_, b.err = b.file.Write(b.buffer)
	}
	b.buffer = b.buffer[:0]
	return b.err
}

// checkerFolder makes one, with an empty output.
func (r *caseRun) checkerFolder() (*checkerFolder, error) {
	dir := r.folder()
	if err := os.MkdirAll(dir, 0o700); err != nil {
		return nil, err
	}
	file, err := os.Create(filepath.Join(dir, script.GotFile))
	if err != nil {
		return nil, err
	}
	return &checkerFolder{dir, &bufferedFile{file: file}}, nil
}

// folder is where a worker's checker or interactor finds what it is given.
func (r *caseRun) folder() string {
	return filepath.Join(r.run.judge.folder, "case-"+strconv.Itoa(r.worker.number))
}

// end removes what the checker was given.
func (f *checkerFolder) end() {
	f.got.file.Close()
	os.RemoveAll(f.dir)
}

// ask asks the checker about what lies in the folder, with the expected output
// and the input.
func (f *checkerFolder) ask(ctx context.Context, r *caseRun, input io.Reader, expected []problem.Data) (d decision, said verdict.Text, err error) {
	if err := f.got.flush(); err != nil {
		return d, said, fmt.Errorf("cannot keep what it printed for the checker: %w", err)
	}
	if err := f.put(script.InputFile, input); err != nil {
		return d, said, fmt.Errorf("cannot give the checker the input: %w", err)
	}
	if shape := r.run.judge.problem.Shape; shape != nil && r.run.judge.manner.text {
		if err := f.put(script.ShapeFile, strings.NewReader(shape.Text())); err != nil {
			return d, said, fmt.Errorf("cannot give the checker the shape: %w", err)
		}
	}
	var known io.Reader = bytes.NewReader(nil)
	if len(expected) > 0 {
		file, err := openInput(expected[0])
		if err != nil {
			return d, said, fmt.Errorf("cannot read the expected output: %w", err)
		}
		defer file.Close()
		known = file
	}
	if err := f.put(script.ExpectedFile, known); err != nil {
		return d, said, fmt.Errorf("cannot give the checker the expected output: %w", err)
	}
	c := &r.run.judge.checkers[r.run.judge.checkerOf(r.test)].checker
	limits := r.run.judge.problem.Limits.OfChecker()
	program, err := c.program(limits, f.dir)
	if err != nil {
		return d, said, err
	}
	out, errs := &box.Head{Most: KeptText}, &box.Head{Most: KeptText}
	result, err := r.worker.checker.Run(ctx, box.Run{Program: program, Limits: limits, Output: out, Errors: errs})
	if err != nil {
		return d, said, err
	}
	d, err = c.judged(result, out, errs, limits)
	if c.script == "" || err == nil { // an error of a script says all that it wrote
		said = verdict.Text{Bytes: r.run.judge.ownPaths(errs.Text, &c.build), Cut: errs.Cut}
	}
	return d, said, err
}

func (f *checkerFolder) put(name string, from io.Reader) error {
	file, err := os.Create(filepath.Join(f.dir, name))
	if err != nil {
		return err
	}
	if seeker, ok := from.(io.Seeker); ok {
		if _, err := seeker.Seek(0, io.SeekStart); err != nil && !errors.Is(err, syscall.ESPIPE) {
			file.Close()
			return err
		}
	}
	_, err = io.Copy(file, from)
	return errors.Join(err, file.Close())
}

// byChecker lets a checker of the person's own decide. The error is the
// context's, or says what failed on our side.
func (r *caseRun) byChecker(ctx context.Context, o *verdict.Outcome, f *checkerFolder, input io.Reader) error {
	d, said, err := f.ask(ctx, r, input, r.test.Accepted)
	o.Checker = said
	if ctx.Err() != nil {
		return ctx.Err()
	}
	if err != nil {
		o.Verdict, o.Message = verdict.Fault, err.Error()
		return nil
	}
	d.into(o)
	return nil
}
