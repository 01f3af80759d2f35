// A new slice.
package main

import "sort"

func thinOut(temps []int, by int) {
	temps = append([]int{}, temps...)
	for i := range temps {
		temps[i] -= by
	}
	sort.Ints(temps)
}
