package toolchain

import (
	"context"
	"embed"
	"os"
	"path/filepath"

	"coldverdict/core/box"
	"coldverdict/core/verdict"
)

// Runtimes that take long to start are started once for many inputs: a server loads the source, and
// forks a process for each input, or has a fresh set of classes for it. What such a run takes is not what a run of
// its own would take.

//go:embed serve
var servers embed.FS

// Serve makes ready what serves a program, for Server. Where that cannot be had there is no server, and nothing
// else is wrong. The error is the context's.
func (k *Kit) Serve(ctx context.Context, r Runner, b *Build) error {
	l := b.Language
	if len(l.Serve) == 0 || b.Checked || b.Traced || b.Failed {
		return nil
	}
	text, err := servers.ReadFile("serve/" + l.Server)
	if err != nil {
		return nil // a person's own table names another
	}
	if filepath.Ext(l.Server) != ".java" {
		b.server = string(text)
		return nil
	}
	path := filepath.Join(k.dir, "serve", l.Server)
	if os.MkdirAll(filepath.Dir(path), 0o700) != nil || writeWhole(path, text) != nil {
		return nil
	}
	server, err := k.Build(ctx, r, Source{Path: path, Language: "java"})
	if err == nil && !server.Failed {
		b.server, b.serverReads = server.Dir, []string{server.Dir}
	}
	return ctx.Err()
}

// Server returns how to serve a program under limits; false where nothing was made ready for that. What goes in and
// out is described in serve/python.py.
func (b Build) Server(limits verdict.Limits, args []string) (box.Program, bool) {
	if b.server == "" {
		return box.Program{}, false
	}
	p := b.program(b.Language.Serve.with(map[string][]string{"{server}": {b.server}}), b.Language.Environment, limits, args)
	p.Reads = append(p.Reads, b.serverReads...)
	return p, true
}
