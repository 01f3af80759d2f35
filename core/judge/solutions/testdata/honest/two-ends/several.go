// It returns three.
package main

func twoEnds(depths []int) (least, most int, at []int) {
	at = []int{0, 0}
	for i, d := range depths {
		if d < depths[at[0]] {
			at[0] = i
		}
		if d > depths[at[1]] {
			at[1] = i
		}
	}
	return depths[at[0]], depths[at[1]], at
}
