package source

import (
	"regexp"
	"sync"
)

// A Pattern is a regular expression that is compiled when it is first used, so that no start of the
// program pays for it.
type Pattern func() *regexp.Regexp

// Lazy returns the pattern of an expression. It panics at its first use if that is none.
func Lazy(expression string) Pattern {
	return sync.OnceValue(func() *regexp.Regexp { return regexp.MustCompile(expression) })
}
