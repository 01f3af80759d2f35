// Package lazy compiles what is used rarely when it is used first: the program starts often.
package lazy

import (
	"regexp"
	"sync"
)

// A Regexp is a regular expression that is compiled when it is first called for.
type Regexp func() *regexp.Regexp

// New returns the expression of a pattern. The first call of it panics if the pattern is none.
func New(pattern string) Regexp {
	return sync.OnceValue(func() *regexp.Regexp { return regexp.MustCompile(pattern) })
}
