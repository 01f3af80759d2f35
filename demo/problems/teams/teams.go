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
	var least, n int
	fmt.Fscan(in, &least, &n)
	weights := make([]int, n)
	for i := range weights {
		fmt.Fscan(in, &weights[i])
	}
	sort.Ints(weights)
	light, heavy, teams := 0, n-1, 0
	for light < heavy {
		if weights[light]+weights[heavy] >= least {
			heavy--
			teams++
		}
		light++
	}
	fmt.Println(teams)
}
