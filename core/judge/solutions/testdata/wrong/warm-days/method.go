// The method of another type is right.
package main

type day int

func (d day) warmDays(temps []int, limit int64) (n int) {
	for _, t := range temps {
		if int64(t) > limit {
			n++
		}
	}
	return n
}

func warmDays(temps []int, limit int64) int { return day(0).warmDays(temps, limit) * 2 }
