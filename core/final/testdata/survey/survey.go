package main

import (
	"fmt"
	"slices"
)

type Solution struct{}

func (s *Solution) SurveyCamp(limit int, names []string, table [][]int32, open []bool, weight float64, sign byte, note string, total int64) ([][]int32, string, float64, bool, []bool) {
	longest := ""
	for _, name := range names {
		if len(name) > len(longest) {
			longest = name
		}
	}
	if len(names) == 0 {
		longest = note
	}
	for _, row := range table {
		for i := range row {
			row[i] += int32(limit)
		}
	}
	any := slices.Contains(open, true)
	slices.Reverse(open)
	return table, longest, (weight + float64(total)) / 2, any && sign == 'x', open
}

func main() {
	fmt.Println(new(Solution).SurveyCamp(1, nil, nil, nil, 1, 'x', "", 1))
}
