// Plain prints.
package main

import "fmt"

func main() {
	low, high := 1, 0
	fmt.Scan(&high)
	for low < high {
		middle := (low + high) / 2
		fmt.Println("probe", middle)
		var word string
		fmt.Scan(&word)
		if word == "deeper" {
			low = middle + 1
		} else {
			high = middle
		}
	}
	fmt.Println("depth", low)
}
