// The same window, in a package of any name.
package thaw

func LongestThaw(temps []int, limit int64) (best int) {
	first, total := 0, 0
	for day, t := range temps {
		if t <= 0 {
			first, total = day+1, 0
			continue
		}
		total += t
		for int64(total) > limit {
			total -= temps[first]
			first++
		}
		best = max(best, day-first+1)
	}
	return best
}
