// Package cli is the command line: one file a command. It reads flags, calls
// the core, and hands results to term or report. It decides nothing itself
// but the exit status.
package cli

import (
	"bufio"
	"context"
	"errors"
	"fmt"
	"io"
	"os"
	"os/signal"
	"path/filepath"
	"runtime"
	"runtime/debug"
	"strings"
	"syscall"

	"github.com/urfave/cli/v3"

	"coldverdict/core/problem"
	"coldverdict/core/toolchain"
	"coldverdict/term"
)

// Version is what cold --version says.
const Version = "0.1.0"

// Exit statuses.
const (
	exitAccepted    = 0
	exitRejected    = 1   // any other verdict
	exitUnjudged    = 10  // nothing was judged
	exitUsage       = 64  // bad usage, or a malformed file
	exitFault       = 70  // our side failed
	exitInterrupted = 130 // Ctrl-C
)

// An exit is an error that only carries a status; what there was to say was
// said.
type exit int

func (e exit) Error() string { return fmt.Sprintf("exit status %d", int(e)) }

// An app is one run of the program.
type app struct {
	in     io.Reader
	out    io.Writer
	errors io.Writer
	screen *term.Screen
	dir    string // as -C has it
	// languages are those that count for the problem that was loaded.
	languages *toolchain.Languages
	own       *problem.Settings // the person's; nil: not read yet
	handsIn   bool              // the command is about what is handed in: the person's flags do not count
	buffered  *bufio.Reader     // of in, once something was read
	// complained says that the person was told that the history cannot be written.
	complained bool
}

// Run runs the command line and returns the exit status.
func Run(args []string, in io.Reader, out, errs io.Writer) int {
	ctx, stop := signal.NotifyContext(context.Background(), os.Interrupt, syscall.SIGTERM, syscall.SIGHUP)
	defer stop()
	// A reader that has seen enough must not end us before we have cleaned up.
	signal.Ignore(syscall.SIGPIPE)
	a := &app{in: in, out: out, errors: errs, screen: term.NewScreen(out, errs, os.Environ())}
	cli.VersionPrinter = a.printVersion
	err := a.command().Run(ctx, args)
	if lost := a.screen.Flush(); lost != nil && !errors.Is(lost, syscall.EPIPE) {
		err = fmt.Errorf("cannot write the results: %w", lost)
	}
	return a.status(ctx, err)
}

// status says what went wrong, if anything did, and returns the exit status.
func (a *app) status(ctx context.Context, err error) int {
	var code exit
	var mistakes problem.Mistakes
	say := func() {
		for line := range strings.Lines(err.Error()) {
			line = term.Visible(strings.TrimRight(line, "\n"))
			if line != "" && !strings.HasPrefix(line, "  ") { // what is to be copied stands by itself
				line = "cold: " + line
			}
			fmt.Fprintln(a.errors, line)
		}
	}
	switch {
	case err == nil, errors.Is(err, syscall.EPIPE): // whoever reads has seen enough
		return exitAccepted
	case errors.Is(err, errNo):
		fmt.Fprintf(a.errors, "cold: %v\n", err)
		return exitRejected
	case errors.As(err, &code):
		return int(code)
	case ctx.Err() != nil && errors.Is(err, context.Canceled):
		fmt.Fprintln(a.errors, "cold: interrupted")
		return exitInterrupted
	case errors.As(err, &mistakes):
		for _, m := range mistakes {
			fmt.Fprintf(a.errors, "cold: %s\n", term.Visible(m.Error()))
		}
		return exitUsage
	case isUsage(err):
		say()
		return exitUsage
	}
	say()
	return exitFault
}

// A usage is a command line that cannot be carried out as it was typed.
type usage string

func (u usage) Error() string { return string(u) }

func usageError(format string, args ...any) error { return usage(fmt.Sprintf(format, args...)) }

// isUsage reports that an error is the person's to mend: of the command line, or of what it asks for.
func isUsage(err error) bool {
	var typed usage
	var asked *problem.RequestError
	return errors.As(err, &typed) || errors.As(err, &asked)
}

func (a *app) command() *cli.Command {
	root := &cli.Command{
		Name:  "cold",
		Usage: "say what a strict judge would say, before you hand in",
		Description: "Run your solution on the samples and on your own cases, under the limits:\n\n" +
			"   cold open teams --lang cpp --time 1s       begin a problem\n" +
			"   cold case add                              paste a sample\n" +
			"   cold try                                   run the solution edited last\n\n" +
			"A folder with a source file and 1.in beside 1.out is enough for 'cold try'.\n" +
			"'cold demo' shows everything on made-up problems.",
		Version:                   Version,
		EnableShellCompletion:     true,
		Suggest:                   true,
		DisableSliceFlagSeparator: true,
		Reader:                    a.in,
		Writer:                    a.out,
		ErrWriter:                 a.errors,
		ExitErrHandler:            func(context.Context, *cli.Command, error) {},
		ConfigureShellCompletionCommand: func(c *cli.Command) {
			c.Hidden = false
			c.Usage = "print a completion script for bash, zsh, fish or pwsh"
		},
		Flags: []cli.Flag{
			&cli.StringFlag{Name: "directory", Aliases: []string{"C"}, Usage: "work as if started in `DIR`", Value: ".", Destination: &a.dir, TakesFile: true},
		},
		Commands: []*cli.Command{a.openCommand(), a.tryCommand(), a.crossCommand(), a.growCommand(), a.rankCommand(), a.readyCommand(), a.finalCommand(), a.logCommand(), a.clockCommand(), a.gradeCommand(), a.packCommand(), a.mergeCommand(), a.caseCommand(), a.shapeCommand(), a.drawCommand(), a.stepsCommand(), a.talkCommand(), a.hostCommand(), a.demoCommand(), helpCommand()},
		Action: func(_ context.Context, c *cli.Command) error {
			if c.Args().Present() {
				return unknownCommand(c, c.Args().First())
			}
			return cli.ShowRootCommandHelp(c)
		},
	}
	everyCommand(root, func(c *cli.Command) {
		c.HideHelpCommand = true // there is one of our own
		c.OnUsageError = func(_ context.Context, c *cli.Command, err error, _ bool) error {
			return wrongOption(c, err)
		}
	})
	return root
}

func helpCommand() *cli.Command {
	return &cli.Command{
		Name:        "help",
		Usage:       "say more about a command",
		ArgsUsage:   "[COMMAND]",
		Description: "The same as --help behind the command.\n\n   cold help try",
		Action: func(ctx context.Context, c *cli.Command) error {
			if !c.Args().Present() {
				return cli.ShowRootCommandHelp(c.Root())
			}
			if c.Root().Command(c.Args().First()) == nil {
				return unknownCommand(c.Root(), c.Args().First())
			}
			return cli.ShowCommandHelp(ctx, c.Root(), c.Args().First())
		},
	}
}

func everyCommand(c *cli.Command, do func(*cli.Command)) {
	do(c)
	for _, sub := range c.Commands {
		everyCommand(sub, do)
	}
}

// commandPath returns " case add" for that command.
func commandPath(c *cli.Command) string {
	return strings.TrimPrefix(c.FullName(), "cold")
}

// unknownCommand is the error for a name that parent has no command of.
func unknownCommand(parent *cli.Command, name string) error {
	if near := nearCommand(parent, name); near != "" {
		return usageError("there is no command %q; did you mean %q?", name, strings.TrimSpace(commandPath(parent)+" "+near))
	}
	return usageError("there is no command %q; 'cold --help' lists them", name)
}

func (a *app) printVersion(*cli.Command) {
	fmt.Fprintf(a.out, "cold %s (%s/%s, %s)\n", Version, runtime.GOOS, runtime.GOARCH, goVersion())
}

func goVersion() string {
	if info, ok := debug.ReadBuildInfo(); ok {
		return info.GoVersion
	}
	return runtime.Version()
}

// load reads the problem that the command works on, and the languages that
// count there, and says what was left out of it.
func (a *app) load() (*problem.Problem, error) { return a.loadFor(false) }

// loadFor reads the problem; adding says that cases are about to be added to it.
func (a *app) loadFor(adding bool) (*problem.Problem, error) {
	var err error
	if a.languages, err = languagesOf(a.dir); err != nil {
		return nil, err
	}
	if err := a.ownSettings(); err != nil {
		return nil, err
	}
	if !a.handsIn {
		if err := a.withOwnFlags(a.languages); err != nil {
			return nil, err
		}
	}
	words := vocabulary(a.languages)
	words.Adding, words.Absolute, words.Relative = adding, a.own.Absolute, a.own.Relative
	p, err := problem.Load(a.dir, words)
	if err != nil {
		return nil, err
	}
	for _, note := range p.Notes {
		a.screen.Remark("note: %s", term.Visible(note))
	}
	p.Judge = p.Judge.Over(a.own.Judge)
	return p, nil
}

// standBeside lets the command work on the folder of a solution that was named
// by a path, where the person stands in no problem's folder.
func (a *app) standBeside(solution string) {
	words := vocabulary(toolchain.Ours())
	path := a.path(solution)
	info, err := os.Stat(path)
	switch {
	case err == nil && info.IsDir(): // the problem's own folder
		if problem.IsFolder(path, words) && filepath.Clean(path) != filepath.Clean(a.dir) {
			a.dir = path
		}
		return
	case !strings.ContainsRune(solution, filepath.Separator), problem.IsBegun(a.dir):
		return
	}
	if dir := filepath.Dir(path); problem.IsFolder(dir, words) && (problem.IsBegun(dir) || !problem.IsFolder(a.dir, words)) {
		a.dir = dir
	}
}

// within are the names that were given, without that of the problem's own folder, where the first one is that.
func (a *app) within(names []string, from string) []string {
	if len(names) == 0 || filepath.IsAbs(names[0]) {
		return names
	}
	if info, err := os.Stat(filepath.Join(from, names[0])); err == nil && info.IsDir() && filepath.Clean(filepath.Join(from, names[0])) == filepath.Clean(a.dir) {
		return names[1:]
	}
	return names
}

// path returns a path that the person wrote, seen from the folder that -C
// names.
func (a *app) path(name string) string {
	if filepath.IsAbs(name) {
		return name
	}
	return filepath.Join(a.dir, name)
}
