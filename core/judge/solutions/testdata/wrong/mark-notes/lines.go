// Parted at line ends.
package main

import "strings"

func markNotes(notes []string, mark rune) []string {
	var out []string
	for _, n := range notes {
		out = append(out, strings.Split(n+string(mark), "\n")...)
	}
	return out
}
