package shape

import (
	"errors"
	"fmt"
	"io"
	"slices"
	"strings"

	"coldverdict/core/value"
)

// Calls are what a problem that asks for a class says of its methods. An input is a call a line, such as
// put(3, "fog"); within this package it is a line "put 3 fog".
type Calls struct {
	// Takes are what a method takes, by its name, and what an object is made with, by "new"; ok says that there
	// is such a method.
	Takes func(method string) (takes []value.Field, ok bool)
	// Read reads calls, one a line. The error may be a *value.Mistake.
	Read func(text string) ([]Called, error)
}

// A Called is one call of an input.
type Called struct {
	Line   int // from 1
	Method string
	Args   []any
	Named  bool // it names an object or a result, or uses one by its name
}

// ParseCalls reads a shape of sequences of calls. A line of it is a call whose arguments are fields, in the
// order in which the method takes them. The error is a Mistakes.
func ParseCalls(text string, calls Calls) (*Shape, error) {
	return parse(&Shape{text: text, calls: &calls})
}

// callOf reads a call: put(beacon: int 1..9, reading: token(1..5, "a-z")).
func (p *parser) callOf(takes []value.Field) node {
	name := p.now
	line := &lineNode{Pos: name.pos, Fields: []*fieldNode{{Pos: name.pos, Literal: name.text}}}
	p.advance()
	p.expect("(", "behind the method "+name.text)
	for !p.is(")") && p.now.kind != tokenEnd {
		if len(line.Fields) > 1 {
			p.expect(",", "between arguments")
		}
		at := len(line.Fields) - 1
		f := p.field()
		switch {
		case f.Value == nil:
			p.fatal(f.Pos, "a token in quotes is no argument; pick(\"a\") is one")
		case at >= len(takes):
			p.fatal(f.Pos, "%s takes %d arguments", name.text, len(takes))
		case !slices.Contains(f.Value.types(), plainType(takes[at].Type)):
			p.fatal(f.Value.Pos, "%s is %s, and %s takes %s there", takes[at].Name, strings.Join(f.Value.types(), " or "), name.text, takes[at].Type)
		case len(f.Value.Dims) > 0 && at < len(takes)-1:
			p.fatal(f.Pos, "in a shape of calls an array is the last argument")
		}
		line.Fields = append(line.Fields, f)
	}
	p.expect(")", "behind the arguments of "+name.text)
	if n := len(line.Fields) - 1; n < len(takes) {
		p.fatal(name.pos, "%s takes %d arguments, and here are %d", name.text, len(takes), n)
	}
	return line
}

// lines makes a line of each call of an input.
func (c *Calls) lines(in io.Reader) (text string, fault *Fault, err error) {
	whole, err := io.ReadAll(io.LimitReader(in, mostArguments))
	if err != nil {
		return "", nil, err
	}
	calls, err := c.Read(string(whole))
	var mistake *value.Mistake
	if errors.As(err, &mistake) {
		return "", &Fault{Line: 1 + strings.Count(string(whole[:min(mistake.Offset, len(whole))]), "\n"), Text: mistake.Text}, nil
	}
	if err != nil {
		return "", nil, err
	}
	var b strings.Builder
	for _, call := range calls {
		if call.Named {
			return "", &Fault{Line: call.Line, Text: "a shape of calls knows no names of objects or results"}, nil
		}
		b.WriteString(call.Method)
		for _, arg := range call.Args {
			if wrong := appendWord(&b, arg); wrong != "" {
				return "", &Fault{Line: call.Line, Text: wrong}, nil
			}
		}
		b.WriteByte('\n')
	}
	return b.String(), nil, nil
}

// appendWord writes an argument as it stands on a line: a word, or those of an array.
func appendWord(b *strings.Builder, arg any) (wrong string) {
	switch arg := arg.(type) {
	case []any:
		for _, one := range arg {
			if wrong := appendWord(b, one); wrong != "" {
				return wrong
			}
		}
	case string:
		if arg == "" || strings.ContainsAny(arg, " \t\r\n") {
			return fmt.Sprintf("%q is no word, and in a shape of calls texts are words", arg)
		}
		b.WriteString(" " + arg)
	default:
		b.WriteString(" " + value.Write(arg))
	}
	return ""
}

// write makes calls of lines.
func (c *Calls) write(dst []byte, lines string) []byte {
	for line := range strings.Lines(lines) {
		words := strings.Fields(line)
		if len(words) == 0 {
			continue
		}
		takes, _ := c.Takes(words[0])
		dst = append(append(dst, words[0]...), '(')
		words = words[1:]
		for i, f := range takes {
			if i > 0 {
				dst = append(dst, ", "...)
			}
			element, depth := f.Type.Element()
			quoted := element.Kind == value.Text || element.Kind == value.Char
			n := min(1, len(words))
			if depth > 0 {
				n = len(words)
				dst = append(dst, '[')
			}
			for j, word := range words[:n] {
				if j > 0 {
					dst = append(dst, ", "...)
				}
				if quoted {
					word = value.Write(word)
				}
				dst = append(dst, word...)
			}
			if depth > 0 {
				dst = append(dst, ']')
			}
			words = words[n:]
		}
		dst = append(dst, ")\n"...)
	}
	return dst
}
