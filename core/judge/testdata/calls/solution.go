package station

import (
	"math"
	"math/big"
	"slices"
)

func rows(grid [][]int) [][]int {
	slices.Reverse(grid)
	return grid
}

type Hall struct{}

func (h *Hall) Greet(words []string, sign byte) (all []string) {
	for _, w := range words {
		all = append(all, w+string(rune(sign)))
	}
	return all
}

func Measure(n int64, x float64, cap *int32) *int64 {
	if cap == nil {
		if math.Signbit(x) {
			return nil
		}
		return &n
	}
	n = min(n, int64(*cap))
	return &n
}

func extremes(temps []int32, warm bool) (least, most int32, mean float64) {
	for _, t := range temps {
		mean += float64(t) / float64(len(temps))
	}
	if warm {
		most = slices.Max(temps)
	}
	return slices.Min(temps), most, mean
}

func echo(n *big.Int) *big.Int { return n }

func main() {}
