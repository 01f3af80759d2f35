package toolchain

import (
	"embed"
	"fmt"
	"strings"
)

// stepping is what is put beside the source of a stepped build: what records, and what has it begin and end where a
// runtime does not. core/steps knows what it tells.
//
//go:embed stepping
var stepping embed.FS

// steppedClasses is the folder of a stepped build in which classes lie that are not the person's.
const steppedClasses = "cold"

// HasStepped reports whether a language has a build that says line by line what it does.
func (l *Language) HasStepped() bool { return len(l.Stepped) > 0 }

// StepsItself reports that what records is a part of the program, which looks up where it is to.
func (b *Build) StepsItself() bool { return b.Stepped && len(b.Language.SteppedRun) == 0 }

// besideStepped puts those of the files beside the source that its commands name; a unit of Pascal is named without its
// ending.
func (b *Build) besideStepped() {
	named := fmt.Sprint(b.Language.Stepped, b.Language.SteppedAgain)
	files, _ := stepping.ReadDir("stepping") // they are in this program
	for _, file := range files {
		name := file.Name()
		if strings.Contains(named, stem(name)) {
			text, _ := stepping.ReadFile("stepping/" + name)
			b.beside(name, text)
		}
	}
}

// againIf are texts of the compiler with which the second way of building is tried.
func (b *Build) againIf() []string {
	if b.Stepped {
		return b.Language.SteppedAgainIf
	}
	return b.Language.AgainIf
}
