// A method of the name stands above the function.
package main

import "fmt"

type day int

func (d day) warmDays(temps []int, limit int64) int {
	if int64(d) > limit {
		return 1
	}
	return 0
}

func main() { fmt.Println("not run") }

func warmDays(temps []int, limit int64) (n int) {
	for _, t := range temps {
		n += day(t).warmDays(nil, limit)
	}
	return
}
