// The same, with a switch over what it is.
package main

func stowedWeight(crate []any) int { return dug(crate, 1) }

func dug(crate []any, depth int) (sum int) {
	for _, one := range crate {
		switch one := one.(type) {
		case []any:
			sum += dug(one, depth+1)
		case int:
			sum += one * depth
		}
	}
	return sum
}
