package toolchain

import (
	"embed"
	"fmt"
	"strings"
)

//go:embed start startlines
var starts embed.FS

// What a source to begin with reads.
const (
	ReadsNumbers = "numbers"
	ReadsLines   = "lines"
)

var startFolders = map[string]string{ReadsNumbers: "start", ReadsLines: "startlines"}

// Start returns a source to begin with: it reads a count and so many numbers
// in the fastest way that is usual in the language, or all lines. The file is named after
// the problem, or as the language demands. A language of a person's own has a
// source only where it is like one of ours.
func (t *Languages) Start(l *Language, problem, reads string) (name string, source []byte, err error) {
	for kin := l; kin != nil; kin = t.named[kin.Like] {
		if source, err = starts.ReadFile(startFolders[reads] + "/" + kin.Name); err == nil {
			break
		}
	}
	if err != nil || len(l.Extensions) == 0 {
		return "", nil, fmt.Errorf("there is no source to begin with in %s; write one, and leave --lang out", l.Title)
	}
	return t.StartName(l, problem, source), source, nil
}

// StartName is what a source to begin with is called: as the problem, or as the language demands.
func (t *Languages) StartName(l *Language, problem string, source []byte) string {
	return l.FileName(strings.ReplaceAll(problem, " ", "-")+l.Extensions[0], source)
}
