package main

func ration(food, team int) int {
	if team <= 0 {
		panic("nobody to feed")
	}
	return food / team
}
