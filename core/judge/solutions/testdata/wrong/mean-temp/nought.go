// Nought where nothing is known.
package main

func meanTemp(temps []float64, missing float64) float64 {
	sum, n := 0.0, 0.0
	for _, t := range temps {
		if t == t {
			sum, n = sum+t, n+1
		}
	}
	if n == 0 {
		return 0
	}
	return sum / n
}
