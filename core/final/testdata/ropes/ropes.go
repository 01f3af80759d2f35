package station

import "math/big"

func renumber(n int, ropes [][]int, depths []int64, mass *big.Int) {
	for i := range depths {
		for _, rope := range ropes {
			depths[i] += int64(rope[2])
		}
	}
	if mass.BitLen() != 60 {
		depths[0] = 0
	}
}
