// In place.
package main

import "sort"

func thinOut(temps []int, by int) {
	for i := range temps {
		temps[i] -= by
	}
	sort.Ints(temps)
}
