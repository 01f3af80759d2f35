package cli

import (
	"bytes"
	"context"
	"errors"
	"fmt"
	"os"
	"os/exec"
	"path/filepath"
	"slices"
	"strconv"
	"strings"

	"github.com/mattn/go-shellwords"
	"github.com/urfave/cli/v3"

	"coldverdict/core/problem"
	view "coldverdict/term"
)

// editorWords is the person's editor, with its options: that of the settings, or from where it is said else.
func editorWords(own string) (words []string, from string, err error) {
	if words, err := shellwords.Parse(own); err != nil {
		return nil, "", usageError("editor in %s is %q, which is no command: %v", settingsFile, own, err)
	} else if len(words) > 0 {
		return words, settingsFile, nil
	}
	for _, name := range []string{"VISUAL", "EDITOR"} {
		words, err := shellwords.Parse(os.Getenv(name))
		if err != nil {
			return nil, "", usageError("%s is %q, which is no command: %v", name, os.Getenv(name), err)
		}
		if len(words) > 0 {
			return words, "$" + name, nil
		}
	}
	for _, name := range []string{"editor", "nano", "vi"} {
		if _, err := exec.LookPath(name); err == nil {
			return []string{name}, "default", nil
		}
	}
	return nil, "", usageError("there is no editor; set EDITOR to the command of yours")
}

// These editors are told the line behind the name of the file, and must be told
// to wait.
var behindName = []string{"code", "codium", "subl", "zed", "hx"}

// edit opens a file at a line, and waits for the editor to end.
func (a *app) edit(ctx context.Context, path string, line int) error {
	if err := a.ownSettings(); err != nil {
		return err
	}
	words, _, err := editorWords(a.own.Editor)
	if err != nil {
		return err
	}
	name := filepath.Base(words[0])
	switch {
	case line <= 1:
		words = append(words, path)
	case name == "code" || name == "codium":
		words = append(words, "--wait", "--goto", fmt.Sprintf("%s:%d", path, line))
	case slices.Contains(behindName, name):
		words = append(words, fmt.Sprintf("%s:%d", path, line))
	default:
		words = append(words, "+"+strconv.Itoa(line), path)
	}
	a.screen.Flush()
	cmd := exec.CommandContext(ctx, words[0], words[1:]...)
	cmd.Stdin, cmd.Stdout, cmd.Stderr = a.in, a.errors, a.errors
	if err := cmd.Run(); err != nil {
		if ctx.Err() != nil {
			return ctx.Err()
		}
		return usageError("the editor %s failed: %v", words[0], err)
	}
	return nil
}

func (a *app) caseEditCommand() *cli.Command {
	return &cli.Command{
		Name:        "edit",
		Usage:       "open a case in the editor",
		ArgsUsage:   "NAME",
		Description: "Opens cases.md at the case, or the case's own input, in the editor of $VISUAL or $EDITOR,\nand reads all cases again when that has ended.\n\n   cold case edit edge-cases/ties",
		Action: func(ctx context.Context, c *cli.Command) error {
			p, one, err := a.openCase(c)
			if err != nil {
				return err
			}
			file, number, _ := strings.Cut(one.Where, ":")
			line, _ := strconv.Atoi(number)
			if err := a.edit(ctx, filepath.Join(p.Dir, filepath.FromSlash(file)), line); err != nil {
				return err
			}
			again, err := a.load()
			if err != nil {
				return err
			}
			if now, err := again.FindCase(one.Name); err == nil && now.Unsure && !sameData(now, one) { // it was compared
				if _, err := again.Sure(now); err != nil {
					return err
				}
				a.screen.Print("%s is no longer doubtful", view.Visible(now.Name))
			}
			a.screen.Print("%s", view.Count(len(again.Cases), "case"))
			return nil
		},
	}
}

// addInEditor lets the person write a case in the editor, and again where it
// cannot be read. What was written is never lost.
func (a *app) addInEditor(ctx context.Context, p *problem.Problem, n problem.NewCase) error {
	dir, err := os.MkdirTemp("", "cold-verdict-case-")
	if err != nil {
		return err
	}
	path := filepath.Join(dir, "case.md")
	template := p.CaseTemplate(n)
	if err := os.WriteFile(path, template, 0o600); err != nil {
		return err
	}
	for {
		if err := a.edit(ctx, path, 0); err != nil {
			return err
		}
		text, err := os.ReadFile(path)
		if err != nil {
			return err
		}
		if bytes.Equal(bytes.TrimSpace(text), bytes.TrimSpace(template)) || len(bytes.TrimSpace(text)) == 0 {
			os.RemoveAll(dir)
			return usageError("nothing was written, and nothing was added")
		}
		err = a.addWritten(p, text)
		if err == nil {
			return os.RemoveAll(dir)
		}
		var mistakes problem.Mistakes
		if !errors.As(err, &mistakes) && !isUsage(err) || a.terminal() == nil {
			a.screen.Remark("what you wrote is in %s", path)
			return err
		}
		a.screen.Remark("%s", view.Visible(strings.ReplaceAll(err.Error(), "\n", "; ")))
		if no := a.confirm(false, "edit it again?"); no != nil {
			return usageError("nothing was added; what you wrote is in %s", path)
		}
	}
}

func (a *app) addWritten(p *problem.Problem, text []byte) error {
	cases, err := p.ReadNew(text)
	if err != nil {
		return err
	}
	for _, n := range cases {
		if err := a.addCase(p, n); err != nil {
			return err
		}
		if p, err = a.load(); err != nil {
			return err
		}
	}
	return nil
}

// sameData reports that two states of a case hold the same.
func sameData(a, b problem.Case) bool {
	text := func(c problem.Case) (all string) {
		for _, d := range append([]problem.Data{c.Input}, c.Accepted...) {
			head, err := d.Head(d.Size)
			all += string(head) + "\x00" + fmt.Sprint(err)
		}
		return all
	}
	return text(a) == text(b)
}
