// Package quiet keeps libraries from writing log lines of their own among what the program says.
// To import it is enough. Packages that are ready to be initialized are initialized in the order of
// their paths (the Go specification, since 1.21), so this one comes before any library's: the one for
// Starlark logs while it is initialized that it finds little address space.
package quiet

import (
	"io"
	"log"
)

func init() { log.SetOutput(io.Discard) }
