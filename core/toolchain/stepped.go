package toolchain

import _ "embed"

// What is put beside the source of a stepped build: what records (core/steps/native says where), and what has it begin
// and end where a runtime does not.
const (
	stepsFile = "cold_steps.c"
	stepsUnit = "coldsteps.pas"
)

//go:embed stepping/cold_steps.c
var stepsText []byte

//go:embed stepping/coldsteps.pas
var stepsUnitText []byte

// HasStepped reports whether a language has a build that says line by line what it does.
func (l *Language) HasStepped() bool { return len(l.Stepped) > 0 }
