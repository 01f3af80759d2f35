// Several results with names.
package main

func corners(grid [][]int) (least *int, total int64, row []int, warm bool) {
	best := int64(0)
	for _, r := range grid {
		sum := int64(0)
		for _, t := range r {
			t := t
			if least == nil || t < *least {
				least = &t
			}
			sum += int64(t)
			warm = warm || t > 0
		}
		if row == nil || sum > best {
			row, best = r, sum
		}
		total += sum
	}
	return
}
