package f

import "os"

func deep(n int) int { return deep(n+1) + 1 }

func f(k int) int {
	if k == 0 {
		return 1 / k // fails here
	}
	if k == 2 {
		os.Exit(0)
	}
	if k == 3 {
		return deep(0)
	}
	return k
}
