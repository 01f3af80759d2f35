package script

import (
	"bufio"
	"errors"
	"fmt"
	"io"
	"os"
	"strconv"
	"strings"

	"go.starlark.net/starlark"
)

// UnreadWord begins the line after a decision that quotes what the candidate
// had said by then and nobody had heard.
const UnreadWord = "unread "

// talk runs the interactor of an interactive problem.
func talk(script, input string, in io.Reader, out, said io.Writer) error {
	data, err := os.ReadFile(input)
	if err != nil {
		return err
	}
	e := &ears{in: bufio.NewReader(in)}
	known := forTalk(e)
	say := builtin("say", func(args starlark.Tuple, named []starlark.Tuple) (starlark.Value, error) {
		if len(named) > 0 {
			return nil, errors.New("say takes no named arguments")
		}
		parts := make([]string, len(args))
		for i, arg := range args {
			if word, ok := starlark.AsString(arg); ok {
				parts[i] = word
			} else {
				parts[i] = arg.String()
			}
		}
		// Nobody listens any more where the candidate has ended: what that
		// means is for the script to say, which will hear nothing.
		io.WriteString(out, strings.Join(parts, " ")+"\n")
		return starlark.None, nil
	})
	d, err := call(script, talks, known, starlark.Tuple{&text{name: InputFile, all: string(data)}, say, known["hear"]})
	if err != nil {
		return err
	}
	if err := d.write(said); err != nil {
		return err
	}
	if rest, _ := e.in.Peek(e.in.Buffered()); strings.TrimSpace(string(rest)) != "" {
		_, err = fmt.Fprintln(said, UnreadWord+strconv.Quote(string(rest[:min(len(rest), 200)])))
	}
	return err
}

// ears hear what the candidate says.
type ears struct {
	in   *bufio.Reader
	line int // lines heard
}

// forTalk are the names that the interactor of a talk knows beside the
// language's own.
func forTalk(e *ears) starlark.StringDict {
	known := starlark.StringDict{
		"hear": builtin("hear", func(args starlark.Tuple, named []starlark.Tuple) (starlark.Value, error) {
			if err := starlark.UnpackArgs("hear", args, named); err != nil {
				return nil, err
			}
			line, ok := e.hear()
			if !ok {
				return starlark.None, nil
			}
			return starlark.String(line), nil
		}),
		"hear_ints": builtin("hear_ints", func(args starlark.Tuple, named []starlark.Tuple) (starlark.Value, error) {
			count := -1
			if err := starlark.UnpackArgs("hear_ints", args, named, "count?", &count); err != nil {
				return nil, err
			}
			line, ok := e.hear()
			if !ok {
				return nil, rejection("it ended where integers were expected")
			}
			return e.integers(line, count)
		}),
	}
	for name, value := range forDecide {
		known[name] = value
	}
	return known
}

// hear returns the next line, without its end; false when the candidate has
// ended.
func (e *ears) hear() (string, bool) {
	line, err := e.in.ReadString('\n')
	if err != nil && line == "" {
		return "", false
	}
	e.line++
	return strings.TrimRight(line, "\r\n"), true
}

// integers reads a line that must be integers, count of them unless that is
// below zero.
func (e *ears) integers(line string, count int) (starlark.Value, error) {
	all := words(line)
	values := make([]starlark.Value, len(all))
	for i, word := range all {
		n, ok := parseInteger(word)
		if !ok {
			return nil, rejection(fmt.Sprintf("its line %d, %s: expected integers", e.line, quote(line)))
		}
		values[i] = n
	}
	if count >= 0 && len(all) != count {
		return nil, rejection(fmt.Sprintf("its line %d, %s: expected %d integers, got %d", e.line, quote(line), count, len(all)))
	}
	return starlark.NewList(values), nil
}
