// A variable holds the function; what is variadic is a slice.
package main

func count(limit int64, temps ...int) (n int) {
	for _, t := range temps {
		if int64(t) > limit {
			n++
		}
	}
	return
}

var warmDays = func(temps []int, limit int64) int { return count(limit, temps...) }
