// The same in Go.
package main

import (
	"bufio"
	"fmt"
	"os"
	"sort"
)

func main() {
	in := bufio.NewReader(os.Stdin)
	var n, capacity int
	fmt.Fscan(in, &n, &capacity)
	weights := make([]int, n)
	for i := range weights {
		fmt.Fscan(in, &weights[i])
	}
	sort.Ints(weights)
	light, heavy, sledges := 0, n-1, 0
	for light <= heavy {
		if light < heavy && weights[light]+weights[heavy] <= capacity {
			light++
		}
		heavy--
		sledges++
	}
	fmt.Println(sledges)
}
