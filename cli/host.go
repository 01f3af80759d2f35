package cli

import (
	"context"
	"errors"
	"fmt"
	"os"
	"os/user"
	"runtime"

	"github.com/urfave/cli/v3"
	"golang.org/x/sys/unix"

	"coldverdict/core/box"
	"coldverdict/core/judge"
	"coldverdict/core/toolchain"
	"coldverdict/term"
)

func (a *app) hostCommand() *cli.Command {
	return &cli.Command{
		Name:  "host",
		Usage: "say what this machine offers: how limits are held, and compilers",
		Description: "Starts a worker as 'cold try' does, and says what it could put up: what holds, what does\n" +
			"not and how to get it. Then the languages that were found.\n\n" +
			"Exit status: 0 everything holds, 1 something does not.",
		Action: func(ctx context.Context, c *cli.Command) error {
			if c.Args().Present() {
				return usageError("cold host takes no names")
			}
			return a.host(ctx)
		},
	}
}

func (a *app) host(ctx context.Context) (err error) {
	h := term.Host{System: system(), User: userName(), Jobs: judge.DefaultJobs()}
	if h.Hold, h.Groups, err = survey(); err != nil {
		return err
	}
	kit, err := toolchain.Open(toolchain.DefaultDir())
	if err != nil {
		return err
	}
	h.Tools = kit.Survey(ctx)
	a.screen.Host(h)
	if len(h.Hold.Lacks()) > 0 {
		return exit(exitRejected)
	}
	return ctx.Err()
}

// survey opens a box as a judge would, and says how it holds, and why it has
// no control group if it has none.
func survey() (hold box.Hold, ungrouped string, err error) {
	scratch, err := box.NewScratch(os.TempDir(), "cold-verdict-host-")
	if err != nil {
		return hold, "", err
	}
	defer func() { err = errors.Join(err, scratch.Remove()) }()
	groups, why := box.OpenGroups()
	if why != nil {
		ungrouped = why.Error()
	}
	b, err := box.Open(box.Options{Scratch: scratch.Dir, Groups: groups})
	if err != nil {
		return hold, "", err
	}
	return b.Hold(), ungrouped, b.Close()
}

// system names the machine's system.
func system() string {
	var name unix.Utsname
	release := ""
	if unix.Uname(&name) == nil {
		release = fmt.Sprintf("%s %s, ", unix.ByteSliceToString(name.Sysname[:]), unix.ByteSliceToString(name.Release[:]))
	}
	return fmt.Sprintf("%s%s, %d processors", release, runtime.GOARCH, runtime.NumCPU())
}

func userName() string {
	if u, err := user.Current(); err == nil {
		return u.Username
	}
	return fmt.Sprintf("user %d", os.Getuid())
}
