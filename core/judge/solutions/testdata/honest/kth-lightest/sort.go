// It sorts.
package main

func kth(weights []int64, k int) int64 {
	sort.Slice(weights, func(i, j int) bool { return weights[i] < weights[j] })
	return weights[k-1]
}
