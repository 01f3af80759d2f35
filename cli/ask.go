package cli

import (
	"bufio"
	"errors"
	"fmt"
	"io"
	"os"
	"strings"

	"golang.org/x/term"

	view "coldverdict/term"
)

// terminal returns the terminal that the person types at, or nil.
func (a *app) terminal() *os.File {
	if file, ok := a.in.(*os.File); ok && term.IsTerminal(int(file.Fd())) {
		return file
	}
	return nil
}

// input is all that comes on standard input, for every question the same.
func (a *app) input() *bufio.Reader {
	if a.buffered == nil {
		a.buffered = bufio.NewReader(a.in)
	}
	return a.buffered
}

// errNo says that the person answered no.
var errNo = errors.New("nothing was changed")

// confirm asks a question that can be answered with yes or no. Without a
// terminal, and unless yes was said in advance, it is an error that says what
// would have been asked.
func (a *app) confirm(yes bool, format string, args ...any) error {
	question := fmt.Sprintf(format, args...)
	if yes {
		return nil
	}
	if a.terminal() == nil {
		return usageError("this would ask %q and there is no terminal to answer at; nothing was changed; --yes answers it", question)
	}
	answer, err := a.line(question + " [y/N] ")
	if err != nil {
		return err
	}
	switch strings.ToLower(answer) {
	case "y", "yes":
		return nil
	}
	return errNo
}

// line asks for one line at the terminal, without blanks around it.
func (a *app) line(prompt string) (string, error) {
	a.screen.Flush()
	fmt.Fprint(a.errors, prompt)
	text, err := a.typedLine()
	if err == io.EOF {
		fmt.Fprintln(a.errors)
		err = nil
	}
	return strings.TrimSpace(text), err
}

// typedLine reads one line. What was typed ahead, while the terminal handed on
// every key, ends its lines as that key does.
func (a *app) typedLine() (string, error) {
	var line []byte
	for {
		c, err := a.input().ReadByte()
		switch {
		case err != nil:
			return string(line), err
		case c == '\r':
			if a.input().Buffered() > 0 {
				if next, _ := a.input().Peek(1); next[0] == '\n' {
					a.input().ReadByte()
				}
			}
			return string(line), nil
		case c == '\n':
			return string(line), nil
		}
		line = append(line, c)
	}
}

// readTyped asks, and reads what is typed or pasted at a terminal up to a line that ends
// a paste, or Ctrl-D. The terminal is not asked for whole lines, since it cuts
// those that are longer than 4,095 bytes; so this echoes what it reads, and
// knows the keys that take something back.
func (a *app) readTyped(file *os.File, prompt string) (text []byte, err error) {
	fd := int(file.Fd())
	state, err := term.MakeRaw(fd)
	if err != nil {
		return nil, err
	}
	defer term.Restore(fd, state)
	a.screen.Flush()
	fmt.Fprintf(a.errors, "%s, then a line %s or Ctrl-D:\r\n", prompt, endOfPaste)
	echo := bufio.NewWriter(a.errors)
	defer echo.Flush()
	in := a.input()
	t := &typed{echo: echo}
	for !t.done {
		if in.Buffered() == 0 {
			echo.Flush()
		}
		r, _, err := in.ReadRune()
		if err == io.EOF {
			break
		}
		if err != nil {
			return nil, err
		}
		if r == escapeKey {
			skipSequence(in)
			continue
		}
		t.take(r)
		if len(t.text) > largestAdded {
			return nil, usageError("that is more than 1 GiB; put it into a file and use --input")
		}
	}
	if t.interrupted {
		return nil, exit(exitInterrupted)
	}
	return t.whole(), nil
}

// The keys that mean something else than themselves.
const (
	interruptKey = 3
	endKey       = 4
	backKey      = 8
	eraseLineKey = 21
	escapeKey    = 27
	deleteKey    = 127
)

// A typed is a text while it is typed.
type typed struct {
	text        []byte // whole lines
	line        []rune
	echo        *bufio.Writer
	returned    bool // the last key was a carriage return
	done        bool
	interrupted bool
}

func (t *typed) take(r rune) {
	after := t.returned
	t.returned = r == '\r'
	switch {
	case r == '\n' && after: // of one line end
	case r == '\r' || r == '\n':
		t.echo.WriteString("\r\n")
		if string(t.line) == endOfPaste {
			t.line, t.done = nil, true
			return
		}
		t.text = append(append(t.text, string(t.line)...), '\n')
		t.line = t.line[:0]
	case r == interruptKey:
		t.echo.WriteString("^C\r\n")
		t.done, t.interrupted = true, true
	case r == endKey:
		t.echo.WriteString("\r\n")
		t.done = true
	case r == backKey || r == deleteKey:
		t.takeBack(1)
	case r == eraseLineKey:
		t.takeBack(len(t.line))
	case r < ' ' && r != '\t': // no key that means anything here
	default:
		t.line = append(t.line, r)
		t.echo.WriteString(shown(r))
	}
}

// shown is a character as it is echoed.
func shown(r rune) string {
	if r == '\t' {
		return " "
	}
	return view.Visible(string(r))
}

func (t *typed) takeBack(n int) {
	for range min(n, len(t.line)) {
		last := len(t.line) - 1
		wide := view.Width(shown(t.line[last]))
		t.echo.WriteString(strings.Repeat("\b \b", wide))
		t.line = t.line[:last]
	}
}

// whole adds the line end that a text lacks at its end.
func (t *typed) whole() []byte {
	if len(t.line) > 0 {
		return append(append(t.text, string(t.line)...), '\n')
	}
	return t.text
}

// skipSequence passes over what a key such as an arrow sends behind an escape.
func skipSequence(in *bufio.Reader) {
	if in.Buffered() == 0 {
		return
	}
	if next, _ := in.Peek(1); next[0] != '[' && next[0] != 'O' {
		return
	}
	in.ReadByte()
	for in.Buffered() > 0 {
		if c, _ := in.ReadByte(); c >= 0x40 && c <= 0x7e {
			return
		}
	}
}
