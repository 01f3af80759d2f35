package report

import (
	"io"
)

// A Many collects the results of many problems for the JSON form of cold try -r.
type Many struct {
	Format   string   `json:"format"`
	Version  int      `json:"version"`
	Problems []ofMany `json:"problems"`
}

type ofMany struct {
	Folder  string `json:"folder"`
	Error   string `json:"error,omitempty"` // why it was not tried
	Results *Try   `json:"results,omitempty"`
}

// NewMany returns an empty report.
func NewMany() *Many { return &Many{Format: "cold-verdict/many", Version: 1, Problems: []ofMany{}} }

// Add adds a problem; an error says why it was not tried.
func (m *Many) Add(folder string, results *Try, err error) {
	one := ofMany{Folder: folder, Results: results}
	if err != nil {
		one.Error, one.Results = err.Error(), nil
	}
	m.Problems = append(m.Problems, one)
}

// Write writes the report as indented JSON.
func (m *Many) Write(w io.Writer) error { return writeIndented(w, m) }
