package judge

import (
	"fmt"
	"strings"
	"syscall"

	"coldverdict/core/box"
	"coldverdict/core/toolchain"
	"coldverdict/core/verdict"
)

// A measured run, or call of a function, is what is known of it when it has ended: by what, what
// it took, and what its language's runtime wrote of it.
type measured struct {
	result  box.Result // of a call that the driver answered, the usage alone
	reading toolchain.Reading
	// What follows is known of calls that the driver answered.
	printed int64 // bytes that it printed
	tooLong bool  // it returned more than the driver passes on
	threw   bool  // it ended in an exception
}

// classify says what a run comes to as far as its end and its limits decide it: accepted means
// that they leave it open, and its output decides. Of several causes the first of these counts:
// a limit that ended the run or was passed (memory, output, processor time, elapsed time), then
// what the runtime says (no memory, no code), then failure.
//
// It serves solutions, calls of functions, checkers, interactors and generators alike.
func classify(m measured, l verdict.Limits) verdict.Verdict {
	u := m.result.Usage
	switch {
	case m.result.Ending == box.PassedMemory, l.Memory > 0 && u.Memory > l.Memory:
		return verdict.MemoryLimit
	case m.result.Ending == box.PassedOutput, m.tooLong, l.Output > 0 && m.printed > l.Output:
		return verdict.OutputLimit
	case m.result.Ending == box.PassedTime, l.Time > 0 && u.CPU > l.Time:
		return verdict.TimeLimit
	case m.result.Ending == box.PassedWall, l.Wall > 0 && u.Own() > l.Wall:
		return verdict.Stalled
	case m.reading.Has(toolchain.KindMemory):
		return verdict.MemoryLimit
	case m.reading.Has(toolchain.KindCompile):
		return verdict.CompileError
	case m.threw, !m.result.Succeeded():
		return verdict.RuntimeError
	}
	return verdict.Accepted
}

// remark says in words what a verdict of classify means; empty where the verdict says all.
// stderr is what the program wrote to standard error, in the person's own names.
func (m measured) remark(v verdict.Verdict, l verdict.Limits, stderr []byte) string {
	switch v {
	case verdict.CompileError:
		return m.reading.String()
	case verdict.MemoryLimit:
		if m.result.Ending != box.Exited || m.result.Usage.Memory > l.Memory {
			break
		}
		words := "it asked for more than it was given, and failed"
		if m.reading.Line > 0 {
			words += fmt.Sprintf(" at line %d", m.reading.Line)
		}
		return words
	case verdict.OutputLimit:
		switch {
		case m.result.Filled:
			return "it filled its working folder"
		case m.tooLong:
			return "it returned more than " + verdict.Size(l.Output)
		}
		return "it wrote more than " + verdict.Size(l.Output)
	case verdict.Stalled:
		return fmt.Sprintf("it waited: %.2f s of processor time in %.2f s", m.result.Usage.CPU.Seconds(), m.result.Usage.Own().Seconds())
	case verdict.RuntimeError:
		return m.crash(l, stderr)
	}
	return ""
}

// crash says in words how a program failed: the error that its runtime named, with its line,
// and otherwise how it ended.
func (m measured) crash(l verdict.Limits, stderr []byte) string {
	if m.result.Ending == box.PassedProcess {
		if m.result.Room > 0 {
			return fmt.Sprintf("more than %d processes at once, for which this machine has no memory", m.result.Room)
		}
		return fmt.Sprintf("more than %d processes and threads at once", l.Processes)
	}
	words := m.signalWords()
	switch {
	case words == "" && m.reading.Message != "":
		return m.reading.String()
	case words == "":
		words = fmt.Sprintf("exit status %d", m.result.ExitCode)
	case m.result.Signal == int(syscall.SIGKILL):
		words += ", by itself or by the system"
	}
	if more := m.reading.String(); more != "" {
		return words + ": " + more
	}
	if line := verdict.LastLine(string(stderr)); line != "" {
		words += ": " + line
	}
	return words
}

// signalWords names the signal that ended the program; empty if none of its own did.
func (m measured) signalWords() string {
	if m.result.Signal == 0 || m.result.Ending != box.Exited {
		return ""
	}
	return fmt.Sprintf("%v (signal %d)", syscall.Signal(m.result.Signal), m.result.Signal)
}

// helperFailed says how a checker, an interactor or a generator failed; empty: it did not. A
// script says itself what is wrong, in the last line that it wrote to standard error.
func (m measured) helperFailed(l verdict.Limits, script bool, stderr []byte) string {
	last := verdict.LastLine(string(stderr))
	limit := func(what string) string {
		return "passed its limit of " + what + "; [limits.checker] sets another"
	}
	switch v := classify(m, l); {
	case v == verdict.Accepted:
		return ""
	case v == verdict.MemoryLimit:
		return limit(verdict.Size(l.Memory) + " of memory")
	case v == verdict.OutputLimit:
		return limit(verdict.Size(l.Output) + " of output")
	case v == verdict.TimeLimit:
		return limit(l.Time.String() + " of processor time")
	case v == verdict.Stalled:
		return limit(l.Wall.String())
	case m.result.Ending == box.PassedProcess:
		return limit(fmt.Sprintf("%d processes", l.Processes))
	case m.result.Ending != box.Exited:
		return "was ended before it decided"
	case script:
		return "failed: " + last
	case m.result.Signal != 0:
		return "crashed: " + m.signalWords()
	}
	return strings.TrimSuffix(fmt.Sprintf("ended with exit status %d: %s", m.result.ExitCode, last), ": ")
}

// leastDeep is the size of a stack, in bytes, from which on a program that fails is told that it
// recursed deeply, whatever its limit of memory is.
const leastDeep = 64 << 20

// noteDepth says of a program that passed a limit, or crashed, that its recursion went deep. A stack that is larger
// than all memory that was used is one that a runtime only laid claim to, as that of Ruby does.
func noteDepth(o *verdict.Outcome, m measured, l verdict.Limits) {
	switch o.Verdict {
	case verdict.MemoryLimit, verdict.TimeLimit, verdict.RuntimeError:
		if m.result.Stack > 0 && m.result.Stack <= o.Usage.Memory && (m.result.Stack > leastDeep || l.Memory > 0 && m.result.Stack > l.Memory/2) {
			words := "the recursion went deep: its stack took " + verdict.Size(m.result.Stack)
			o.Message = strings.TrimSuffix(words+"; "+o.Message, "; ")
			o.Hints = append([]string{"a recursion without end looks like this: is the case that ends it always reached?"}, o.Hints...)
		}
	}
}

// deepRecursion is the remark on a program of which tooDeep found that.
const deepRecursion = "the recursion went too deep"

// diagnosisMemory is what a program is given beyond its limit while it is looked
// at once more, since to unwind a deep stack takes memory itself.
const diagnosisMemory = 512 << 20

// tooDeep says what a runtime with a small stack wrote of a recursion; nil: nothing.
func tooDeep(build *toolchain.Build, text string, failed bool) (hints []string) {
	said := build.Read(text, failed)
	if !said.Has(toolchain.KindStack) {
		return nil
	}
	return []string{fmt.Sprintf("%s; with a stack of 16 MiB it says %s", build.Language.Words(toolchain.KindStack), said)}
}
