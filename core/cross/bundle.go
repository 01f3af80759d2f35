package cross

import (
	"context"
	"time"

	"coldverdict/core/problem"
	"coldverdict/core/toolchain"
)

// A bundling is how inputs go into one run together.
type bundling interface {
	// joins reports that they are joined in one file, where their shape has room for several.
	joins() bool
	// most is how many go into one run at the most.
	most(*source) int
	// edges is how many small edge cases go into one run at the most.
	edges(*source) int
	// pack puts inputs together, as many of the first as there is room for.
	pack(*source, []*input) (*pack, error)
	// failing is the input that a failure lies in, by where in its pack it was seen.
	failing(p *pack, at int) *input
	// only is what of a pack counts for a failure, and where in it that was seen.
	only(p *pack, at int) (*pack, int)
	// turned are the inputs of a pack in the opposite order, and what was printed for
	// them. ok is false where there is one only, or what was printed does not tell which
	// part belongs to which.
	turned(p *pack, printed [][]byte) (texts, expected [][]byte, ok bool)
	// alone are the answers that a candidate gives to each input without company. own are
	// its answers to inputs.
	alone(a *accusation, texts [][]byte, own ownAnswers) (answers [][]byte, ok bool, err error)
	// cutDown returns the least on which a failure shows, in the same way as before.
	cutDown(ctx context.Context, a *accusation, f *Found) ([][]byte, error)
	// startTime is what a runtime may take of a limit before the program begins.
	startTime(*toolchain.Language) time.Duration
}

// ownAnswers are what a candidate answers; ok is false where it fails.
type ownAnswers func(candidate int, texts [][]byte) (answers [][]byte, ok bool, err error)

func bundlingOf(p *problem.Problem) bundling {
	if p.Kind().Calls {
		return asCalls{}
	}
	return inFile{}
}
