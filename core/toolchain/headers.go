package toolchain

import (
	"bytes"
	"cmp"
	"context"
	"errors"
	"os"
	"path/filepath"
	"slices"
	"strings"
	"time"

	"coldverdict/internal/lazy"
)

// Most of what a compiler of C++ does for a small program is to read the headers of its library. So the headers with
// which a source begins are compiled once, and kept as any other build: under a name made from their lines, the compiler,
// its flags, and the bytes of all that they include. A build of a source that begins with the same lines in the same
// order begins from there. The program that comes out is the same; where anything stands before these lines, such as a
// #define or a #pragma, or between them, they are read as ever.

// headersFile is the file that holds the lines, with what was made of them beside it.
const headersFile = "headers.h"

// worthWarming is how long a build takes at the least for its headers to be compiled once and for all.
const worthWarming = 500 * time.Millisecond

var headerLine = lazy.New(`^[ \t]*#[ \t]*include[ \t]*(<[\w./+-]+>)[ \t]*(?://[^\\]*)?$`)

// leadingHeaders are the lines with which a source begins that include headers of the system, without what is blank or a
// comment; empty: it begins otherwise.
func leadingHeaders(source []byte) string {
	var text strings.Builder
	inComment := false
	for line := range bytes.Lines(source) {
		rest := strings.TrimSpace(string(line))
		if inComment || strings.HasPrefix(rest, "/*") {
			_, behind, ended := strings.Cut(strings.TrimPrefix(rest, "/*"), "*/")
			if inComment = !ended; ended && strings.TrimSpace(behind) != "" {
				break
			}
			continue
		}
		if rest == "" || strings.HasPrefix(rest, "//") && !strings.HasSuffix(rest, `\`) {
			continue
		}
		m := headerLine().FindStringSubmatch(rest)
		if m == nil {
			break
		}
		text.WriteString("#include " + m[1] + "\n")
	}
	return text.String()
}

// compiled is the text of the file that the compiler is given.
func (b *Build) compiled() []byte {
	if words := b.wrapping.BuildWords["{source}"]; len(words) == 1 {
		return b.wrapping.Files[words[0]]
	}
	return b.wrapping.Source
}

// headers is the build of headers for a language; nil where it has none.
func (k *Kit) headers(b *Build, text string) *Build {
	command, kind := b.Language.Headers, "-headers"
	if b.Stepped {
		command, kind = b.Language.SteppedHeaders, "-stepped-headers"
	}
	if len(command) == 0 || b.Checked || b.Traced || text == "" {
		return nil
	}
	own := *b.Language
	own.Name += kind
	own.Build, own.BuildAgain, own.Headers, own.Files, own.Main = []Command{command}, nil, nil, nil, ""
	return &Build{
		Language: &own, Standard: b.Standard, Source: filepath.Join(k.dir, headersFile), File: headersFile, Tool: b.Tool,
		compiler: b.compiler, runtime: b.runtime, library: b.library, stamp: b.stamp, wrapping: Wrapping{Source: []byte(text)},
	}
}

// warm finds the headers with which a source begins, where they were compiled before.
func (k *Kit) warm(b *Build) (h *Build, includes []string) {
	if h = k.headers(b, leadingHeaders(b.compiled())); h == nil {
		return nil, nil
	}
	commands, err := h.commands()
	if err != nil {
		return nil, nil
	}
	name := h.cacheName(commands)
	if !k.lookUp(h, name) {
		return nil, nil
	}
	includes, _ = k.included(name)
	return h, includes
}

// from returns a command that begins with headers.
func (h *Build) from(command []string) []string {
	return slices.Concat(command[:1], []string{"-include", filepath.Join(h.Dir, headersFile)}, command[1:])
}

// wanted asks for headers to be compiled for the next build that begins with them.
func (k *Kit) wanted(b *Build) {
	if text := leadingHeaders(b.compiled()); k.Warm != nil && b.Duration > worthWarming && k.headers(b, text) != nil {
		k.Warm(b.languageName(), text, b.Stepped)
	}
}

// languageName is the name under which the language, in its standard, is chosen.
func (b *Build) languageName() string { return cmp.Or(b.Standard, b.Language.Name) }

// ErrNoHeaders says that a language has no headers that could be compiled once.
var ErrNoHeaders = errors.New("the headers of this language are not compiled for later builds")

// WarmHeaders compiles lines that include headers, for the builds of a language, or a standard, that begin with them, or
// for the stepped builds. made is false where that was done before.
func (k *Kit) WarmHeaders(ctx context.Context, r Runner, language, text string, stepped bool) (made bool, err error) {
	b, err := k.choose(ctx, k.languages.choices(language))
	if err != nil {
		return false, err
	}
	b.Stepped = stepped
	h := k.headers(&b, leadingHeaders([]byte(text)))
	if h == nil {
		return false, ErrNoHeaders
	}
	built, err := k.wrapped(ctx, r, *h)
	if err == nil && built.Failed {
		err = errors.New(firstLine([]byte(built.Log)))
	}
	return err == nil && !built.Cached, err
}

// LeadingHeaders reads the lines that WarmHeaders takes from a source.
func LeadingHeaders(path string) (string, error) {
	source, err := os.ReadFile(path)
	return leadingHeaders(source), err
}
