// Generic, with integers of 32 bits.
package main

func count[T any](s []T, f func(T) bool) (n int) {
	for _, x := range s {
		if f(x) {
			n++
		}
	}
	return
}
func warmDays(temps []int32, limit int64) int {
	return count(temps, func(t int32) bool { return int64(t) > limit })
}
