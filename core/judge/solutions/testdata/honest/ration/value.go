package main

import "errors"

func ration(food, team int) (int, error) {
	if team <= 0 {
		return 0, errors.New("nobody to feed")
	}
	return food / team, nil
}
