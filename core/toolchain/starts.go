package toolchain

import (
	"embed"
	"fmt"
	"strings"
)

//go:embed start
var starts embed.FS

// Start returns a source to begin with: it reads a count and so many numbers
// in the fastest way that is usual in the language. The file is named after
// the problem, or as the language demands. A language of a person's own has a
// source only where it is like one of ours.
func (t *Languages) Start(l *Language, problem string) (name string, source []byte, err error) {
	for kin := l; kin != nil; kin = t.named[kin.Like] {
		if source, err = starts.ReadFile("start/" + kin.Name); err == nil {
			break
		}
	}
	if err != nil || len(l.Extensions) == 0 {
		return "", nil, fmt.Errorf("there is no source to begin with in %s; write one, and leave --lang out", l.Title)
	}
	name = strings.ReplaceAll(problem, " ", "-") + l.Extensions[0]
	return l.FileName(name, source), source, nil
}
