// A method of a pointer, with names joined.
package main

type Solution struct{ seen map[int]int }

func (s *Solution) WarmDays(temps, more []int, limit int64) int {
	return s.count(append(temps, more...), limit)
}

func (s *Solution) count(temps []int, limit int64) (n int) {
	for _, t := range temps {
		if int64(t) > limit {
			n++
		}
	}
	return n
}

func warm_days(temps []int, limit int64) int { return new(Solution).WarmDays(temps, nil, limit) }
