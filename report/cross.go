package report

import (
	"encoding/json"
	"io"

	"coldverdict/core/cross"
	"coldverdict/core/problem"
	"coldverdict/core/verdict"
)

// WriteCross writes the JSON form of cold cross.
func WriteCross(w io.Writer, p *problem.Problem, o cross.Options, r *cross.Result, kept bool) error {
	e := json.NewEncoder(w)
	e.SetIndent("", "  ")
	return e.Encode(r)
}

var _ = verdict.Accepted
