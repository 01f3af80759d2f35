// The other way round.
package main

func warmDays(temps []int, limit int64) (n int) {
	for _, t := range temps {
		if int64(t) < limit {
			n++
		}
	}
	return
}
