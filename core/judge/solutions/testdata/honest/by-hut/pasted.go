// It changes the map that it returns.
package main

func byHut(fuel map[string]int, days map[int][]float64, least int) map[string]int {
	for hut, n := range fuel {
		if n < least {
			delete(fuel, hut)
		} else {
			fuel[hut] = n + 3
		}
	}
	for day, list := range days {
		fuel[strconv.Itoa(day)] = len(list)
	}
	return fuel
}
