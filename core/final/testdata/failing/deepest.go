package main

import "errors"

func deepest(depths []int) (most int, places []int, err error) {
	for i, depth := range depths {
		switch {
		case depth < 0:
			return 0, nil, errors.New("above the ice")
		case depth > most:
			most, places = depth, nil
		}
		if depth == most {
			places = append(places, i)
		}
	}
	return most, places, nil
}
