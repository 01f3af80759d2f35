package main

func packed(temps []int, missing int) (k int) {
	for _, t := range temps {
		if t != missing {
			temps[k] = t
			k++
		}
	}
	return k
}
