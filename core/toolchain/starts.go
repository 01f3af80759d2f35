package toolchain

import (
	"embed"
	"strings"
)

//go:embed start
var starts embed.FS

// Start returns a source to begin with: it reads a count and so many numbers
// in the fastest way that is usual in the language. The file is named after
// the problem, or as the language demands.
func (l *Language) Start(problem string) (name string, source []byte, err error) {
	source, err = starts.ReadFile("start/" + l.Name)
	if err != nil {
		return "", nil, err
	}
	name = strings.ReplaceAll(problem, " ", "-") + l.Extensions[0]
	return l.fileName(name, source), source, nil
}
