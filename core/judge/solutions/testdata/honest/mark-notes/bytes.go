// Runes and a builder, in a method with a value.
package main

import "strings"

type marker struct{}

func (marker) MarkNotes(notes []string, mark rune) []string {
	out := make([]string, 0, len(notes))
	for _, n := range notes {
		var b strings.Builder
		b.WriteString(n)
		b.WriteRune(mark)
		out = append(out, b.String())
	}
	return out
}
