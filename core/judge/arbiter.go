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

// An arbiter is what a person wrote to decide: a checker, or the other side of
// an interactive problem.
type arbiter struct {
	name   string          // as the person names it
	role   string          // what messages call it
	script string          // absolute path; empty: it is a program
	build  toolchain.Build // of a program
}

const (
	roleChecker   = "the checker"
	roleOtherSide = "the other side"
	roleMaker     = "what makes inputs"
)

// A wanted arbiter is named by verdict.toml.
type wanted struct{ role, script, program string }

func (s *session) wantedBy(c *problem.Case) wanted {
	if s.problem.Interactive() {
		return wanted{roleOtherSide, s.problem.Talk.Script, s.problem.Talk.Program}
	}
	return wanted{roleChecker, c.Compare.Script, c.Compare.Program}
}

func (w wanted) none() bool { return w.script == "" && w.program == "" }

// A readied is an arbiter, or why there is none.
type readied struct {
	arbiter
	fault error
}

// readyArbiters makes those ready that the cases to be run ask for.
func (s *session) readyArbiters(ctx context.Context, cases []int) (err error) {
	w := s.builder()
	defer func() { err = errors.Join(err, w.close()) }()
	for _, i := range cases {
		want := s.wantedBy(&s.problem.Cases[i])
		if _, known := s.arbiters[want]; known || want.none() {
			continue
		}
		one := &readied{arbiter: arbiter{role: want.role, name: cmp.Or(want.script, want.program)}}
		one.fault = one.ready(ctx, s, w, want)
		if err := ctx.Err(); err != nil {
			return err
		}
		s.arbiters[want] = one
	}
	return nil
}

func (a *arbiter) ready(ctx context.Context, s *session, w *worker, want wanted) (err error) {
	if want.script != "" {
		a.script = s.problem.PathOf(want.script)
		if err := script.Check(a.script, scriptRole(want.role)); err != nil {
			return fmt.Errorf("%s cannot be used: %w", a.role, err)
		}
		return nil
	}
	a.build, err = s.kit.Build(ctx, w, toolchain.Source{Path: s.problem.PathOf(want.program)})
	if err != nil {
		return fmt.Errorf("%s %s: %w", a.role, a.name, err)
	}
	if a.build.Failed {
		return fmt.Errorf("%s %s does not build: %s", a.role, a.name, cmp.Or(a.build.Read(a.build.Log, true).String(), lastLine(a.build.Log)))
	}
	return nil
}

// scriptRole is what a script is for.
func scriptRole(role string) script.Role {
	switch role {
	case roleOtherSide:
		return script.Talks
	case roleMaker:
		return script.Makes
	}
	return script.Decides
}

// program is how to run it with one argument.
func (a *arbiter) program(limits verdict.Limits, argument string) (box.Program, error) {
	switch {
	case a.script == "":
		return a.build.Program(limits, []string{argument}), nil
	case a.role == roleOtherSide:
		return script.Talk(a.script, argument)
	}
	return script.Decide(a.script, argument)
}

// A decision is what an arbiter says.
type decision struct {
	verdict verdict.Verdict // accepted, partial or wrong answer
	share   float64
	why     string
}

// decided reads the decision in the first line of what an arbiter said. An
// error says how it failed; it is never the candidate's fault.
func (a *arbiter) decided(result box.Result, said, errs *box.Head, l verdict.Limits) (d decision, err error) {
	fault := func(format string, args ...any) (decision, error) {
		return decision{}, fmt.Errorf("%s %s %s", a.role, a.name, fmt.Sprintf(format, args...))
	}
	limit := func(what string) (decision, error) {
		return fault("passed its limit of %s; [limits.checker] sets another", what)
	}
	last := lastLine(string(errs.Text))
	switch {
	case result.Ending == box.PassedTime:
		return limit(l.Time.String() + " of processor time")
	case result.Ending == box.PassedWall:
		return limit(l.Wall.String())
	case result.Ending == box.PassedMemory, result.Usage.Memory > l.Memory:
		return limit(verdict.Size(l.Memory) + " of memory")
	case result.Ending == box.PassedOutput:
		return limit(verdict.Size(l.Output) + " of output")
	case result.Ending == box.PassedProcess:
		return limit(fmt.Sprintf("%d processes", l.Processes))
	case result.Ending != box.Exited:
		return fault("was ended before it decided")
	case a.script != "" && result.ExitCode != 0:
		return fault("failed: %s", last)
	case result.Signal != 0:
		return fault("crashed: %s", signalWords(result.Signal))
	case result.ExitCode != 0:
		return fault("%s", strings.TrimSuffix(fmt.Sprintf("ended with exit status %d: %s", result.ExitCode, last), ": "))
	}
	line, _, _ := strings.Cut(string(said.Text), "\n")
	if d, ok := parseDecision(line); ok {
		return d, nil
	}
	if strings.TrimSpace(line) == "" {
		return fault("decided nothing; it must say accept, reject WHY or share 0.4 WHY")
	}
	return fault("said %q; it must say accept, reject WHY or share 0.4 WHY", shortened(line))
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

// A hearing is the folder in which a checker finds what it decides on.
type hearing struct {
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

// hearing begins one, with an empty output.
func (r *caseRun) hearing() (*hearing, error) {
	dir := filepath.Join(r.checks, "hearing-"+strconv.Itoa(r.worker.number))
	if err := os.MkdirAll(dir, 0o700); err != nil {
		return nil, err
	}
	file, err := os.Create(filepath.Join(dir, script.GotFile))
	if err != nil {
		return nil, err
	}
	return &hearing{dir, &bufferedFile{file: file}}, nil
}

// end removes what the checker was given.
func (h *hearing) end() {
	h.got.file.Close()
	os.RemoveAll(h.dir)
}

// hear asks an arbiter about what lies in the folder, with the expected output
// and the input.
func (h *hearing) hear(ctx context.Context, r *caseRun, input io.Reader, expected []problem.Data) (d decision, said verdict.Text, err error) {
	if err := h.got.flush(); err != nil {
		return d, said, fmt.Errorf("cannot keep what it printed for the checker: %w", err)
	}
	if err := h.put(script.InputFile, input); err != nil {
		return d, said, fmt.Errorf("cannot give the checker the input: %w", err)
	}
	if r.problem.Shape != nil && r.problem.Call == nil {
		if err := h.put(script.ShapeFile, strings.NewReader(r.problem.Shape.Text())); err != nil {
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
	if err := h.put(script.ExpectedFile, known); err != nil {
		return d, said, fmt.Errorf("cannot give the checker the expected output: %w", err)
	}
	a := &r.arbiters[r.wantedBy(r.test)].arbiter
	limits := r.problem.Limits.OfChecker()
	program, err := a.program(limits, h.dir)
	if err != nil {
		return d, said, err
	}
	out, errs := &box.Head{Most: KeptText}, &box.Head{Most: KeptText}
	result, err := r.worker.arbiter.Run(ctx, box.Run{Program: program, Limits: limits, Output: out, Errors: errs})
	if err != nil {
		return d, said, err
	}
	d, err = a.decided(result, out, errs, limits)
	if a.script == "" || err == nil { // an error of a script says all that it wrote
		said = verdict.Text{Bytes: r.ownPaths(errs.Text, &a.build), Cut: errs.Cut}
	}
	return d, said, err
}

func (h *hearing) put(name string, from io.Reader) error {
	file, err := os.Create(filepath.Join(h.dir, name))
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
func (r *caseRun) byChecker(ctx context.Context, o *verdict.Outcome, h *hearing, input io.Reader) error {
	d, said, err := h.hear(ctx, r, input, r.test.Accepted)
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
