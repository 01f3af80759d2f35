// With the library.
package station

import "math"

func MeanTemp(temps []float64, missing float64) float64 {
	var known []float64
	for _, t := range temps {
		if !math.IsNaN(t) {
			known = append(known, t)
		}
	}
	if len(known) == 0 {
		return missing
	}
	sum := 0.0
	for _, t := range known {
		sum += t / float64(len(known))
	}
	return sum
}
