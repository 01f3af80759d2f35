// Package box runs one program under limits and measures what it took.
//
// It promises that the numbers are those of the whole process tree and of
// nothing else, that a limit ends the run, that what a program prints flows
// through without being held, and that no process of a run is left when Run
// returns. It says what happened (an Ending, an exit status, a Usage) and
// leaves the verdict to others.
//
// A Box is a worker that runs one program at a time. It consists of three
// processes. The one that calls Run reads what the program prints and hands
// it on. The supervisor, which is this same binary started again, starts
// the program, traces it, and watches its limits. Where the kernel allows it, programs
// live in namespaces that the supervisor is outside of: they can neither name nor see
// it. The third process, the first of these namespaces, kills what is left after a
// run. When the first process dies, the supervisor sees its kill pipe end, and all
// ends with it. A program that uses this package must call Supervise first thing in
// main.
//
// Processor time is what the kernel charged to the reaped tree, in
// nanoseconds. Peak memory is the high-water mark of the resident set, read
// while the dying process is held at its exit: what wait4 reports would carry
// over the peak of the process that started it. For several processes at once
// it is the largest sum that was seen.
package box

import (
	"context"
	"errors"
	"io"
	"os"
	"strings"

	"coldverdict/core/verdict"
)

// A Program is something that can be run.
type Program struct {
	Path string   // absolute path of the executable
	Args []string // arguments, without the program's own name
	Env  []string // the whole environment, as KEY=value

	// Reads are absolute paths of files and folders that it needs besides what the
	// system has for everybody; where they are links, also what these lead to. What is
	// not there is passed over.
	Reads []string
	// Writes are absolute paths of folders that it may change.
	Writes []string
}

// Options say how a box holds what runs in it.
type Options struct {
	// Scratch is where the box makes a folder of its own. It must exist, and
	// stays the caller's to remove.
	Scratch string
	// Uncontained lets programs use the network and files as the caller can.
	// Limits hold all the same.
	Uncontained bool
	// Hidden are absolute paths, without links, that programs cannot open where
	// they lie in what these see.
	Hidden []string
	// Visible are absolute paths that all programs can read besides their own
	// Program.Reads.
	Visible []string
	// Coarse holds limits, but looks at memory rarely, and adds it up
	// roughly: for compilers, which have room and shall not be slowed down.
	Coarse bool
	// Decides gives programs one descriptor more, 3, to write to. What they
	// write there goes to Run.Decision.
	Decides bool
	// Groups are where the box gets a control group from; nil: it has none.
	Groups *Groups

	ways []way // the only ways to try; for tests
}

// A Run is one program to be run once.
type Run struct {
	Program Program
	Limits  verdict.Limits
	// Input becomes standard input, read from its beginning. It stays the
	// caller's to close. Nil is an empty input.
	Input *os.File
	// Files are read and written in the working folder, if any.
	Files Files
	// Output receives standard output while it is printed; nil drops it. An
	// error from Write ends the writing, not the run.
	Output io.Writer
	// Errors receives standard error in the same way.
	Errors io.Writer
	// Decision receives what is written to descriptor 3, if the box has it.
	Decision io.Writer
	// Prompt says that somebody waits for what the program prints, so that it
	// is handed on at once.
	Prompt bool
	// Stop ends the run when it is done; that is a result like others, with
	// EndedByRequest. Nil: it is never done.
	Stop context.Context
	// Dir is the working folder, which the program may change. Empty: a private
	// folder of the box, which is emptied after the run.
	Dir string
}

// An Ending says what ended a run.
type Ending string

// The endings. All but Exited mean that the box killed the program.
const (
	Exited         Ending = "exited" // by itself, or by a signal that was not ours
	PassedTime     Ending = "time"
	PassedWall     Ending = "wall"
	PassedMemory   Ending = "memory"
	PassedOutput   Ending = "output"
	PassedProcess  Ending = "processes"
	EndedByRequest Ending = "request" // Run.Stop, or the context, ended
)

// TooBusy is how many times its limit of elapsed time a run may take because the machine
// does something else. One that takes longer says nothing of the program.
const TooBusy = 10

// A Result is what is known after a run.
type Result struct {
	Ending   Ending
	Usage    verdict.Usage
	ExitCode int   // exit status; 0 if a signal ended the program
	Signal   int   // number of the signal that ended it; 0 if none did
	Written  int64 // bytes written to standard output and standard error
	Left     int   // processes that were still alive after the program's end, and were killed
	// File is what the program left in Run.Files.Output, for the caller to
	// close; nil if there is no such plain file, or none was asked for.
	File *os.File
	// Room is how many processes this machine has memory for, where the program was ended
	// since it had as many, though its limit is higher; 0: it was not.
	Room int
	// Stack is how large the stack of a first thread had grown, in bytes; 0 where that is not
	// known.
	Stack  int64
	Filled bool   // nothing more could be written to its working folder
	Tried  string // what it tried and was refused, as far as that was seen: "tried to open a network connection"
}

// Succeeded reports that the program ended by itself, and said that all was well.
func (r Result) Succeeded() bool { return r.Ending == Exited && r.ExitCode == 0 && r.Signal == 0 }

// ErrLost says that the supervisor is gone. The box serves no more; another one
// may be opened.
var ErrLost = errors.New("lost the worker")

// Within reports that a path is a folder or lies in it. Both are absolute and clean.
func Within(path, folder string) bool {
	return path == folder || strings.HasPrefix(path, strings.TrimSuffix(folder, "/")+"/")
}

// pathless is the name of a file that has no path.
const pathless = "without a path"

// A Waiting says whether a program waits for input.
type Waiting int

// What is known of that. Only its input wakes a program of one thread that
// reads it; of several threads, another may still be about to do something.
const (
	NotWaiting Waiting = iota // it does something, or sleeps, or it is not known
	MayWait                   // all threads wait, one of them for input or for any event
	Waits                     // its only thread reads standard input
)
