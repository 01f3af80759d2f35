package toolchain

import (
	"embed"

	"coldverdict/core/box"
	"coldverdict/core/verdict"
)

// Runtimes that take long to start are started once for many inputs: a server loads the source, and
// forks a process for each input. What such a run takes is not what a run of its own would take.

//go:embed serve
var servers embed.FS

// Server returns how to serve a program under limits; false where its language has no server, or it is no
// ordinary build. What goes in and out is described in serve/python.py.
func (b Build) Server(limits verdict.Limits, args []string) (box.Program, bool) {
	l := b.Language
	if len(l.Serve) == 0 || l.Server == "" || b.Checked || b.Traced {
		return box.Program{}, false
	}
	text, err := servers.ReadFile("serve/" + l.Server)
	if err != nil {
		return box.Program{}, false // it is of a person's own table
	}
	return b.program(l.Serve.with(map[string][]string{"{server}": {string(text)}}), l.Environment, limits, args), true
}
