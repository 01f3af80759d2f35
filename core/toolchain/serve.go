package toolchain

import (
	"bytes"
	"context"
	"embed"
	"os"
	"path/filepath"

	"coldverdict/core/box"
	"coldverdict/core/verdict"
)

// Runtimes that take long to start are started once for many inputs: a server loads the program, and forks a process
// for each input, or, where a runtime cannot fork, loads it anew. What such a run takes is not what a run of its own
// would take. What goes in and out is described in serve/python.py. For programs of C and C++ it was tried and not kept:
// to follow a process that forks takes as long as to start one.

//go:embed serve
var servers embed.FS

// A Server runs a program on many inputs.
type Server struct {
	build Build
	run   Command
	words map[string][]string
	reads []string // beside what the program reads
}

// CanServe reports whether a language has servers.
func (l *Language) CanServe() bool { return l.Server != "" }

// Server makes what serves a program; nil where it cannot be had, and nothing else is wrong. The error is the
// context's.
func (k *Kit) Server(ctx context.Context, r Runner, b *Build) (*Server, error) {
	l := b.Language
	if !l.CanServe() || b.Checked || b.Traced || b.Stepped || b.Failed {
		return nil, nil
	}
	text, err := servers.ReadFile("serve/" + l.Server)
	if err != nil {
		return nil, nil // a person's own table names another
	}
	s := &Server{build: *b, run: l.Serve, words: map[string][]string{"{server}": {string(text)}}}
	if filepath.Ext(l.Server) != ".java" {
		return s, nil
	}
	path := filepath.Join(k.dir, "serve", l.Server)
	if there, err := os.ReadFile(path); err != nil || !bytes.Equal(there, text) {
		if os.MkdirAll(filepath.Dir(path), 0o700) != nil || writeWhole(path, text) != nil {
			return nil, nil
		}
	}
	compiled, err := k.Build(ctx, r, Source{Path: path, Language: "java"})
	if err != nil || compiled.Failed {
		return nil, ctx.Err()
	}
	s.words["{server}"], s.reads = []string{compiled.Dir}, []string{compiled.Dir}
	return s, nil
}

// Program returns how to serve under limits. Arguments follow the program's own.
func (s *Server) Program(limits verdict.Limits, args []string) box.Program {
	p := s.build.program(s.run.with(s.words), s.build.Language.Environment, limits, args)
	p.Reads = append(p.Reads, s.reads...)
	return p
}
