package main

import "strconv"

func told(word int, next []int, lines []string, rest string, left float64, used []int, len int, text string) []string {
	sum := word + int(left*2) + len - 5
	for _, n := range append(next, used...) {
		sum += n
	}
	return append(lines, rest, text, strconv.Itoa(sum))
}
