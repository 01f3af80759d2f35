// Crashes: reads the first delivery of a depot that has none.
package main

import (
	"bufio"
	"fmt"
	"os"
)

func main() {
	in := bufio.NewReader(os.Stdin)
	var depots int
	fmt.Fscan(in, &depots)
	for range depots {
		var n int
		fmt.Fscan(in, &n)
		litres := make([]int, n)
		for i := range litres {
			fmt.Fscan(in, &litres[i])
		}
		total, largest := 0, litres[0]
		for _, l := range litres {
			total += l
			largest = max(largest, l)
		}
		fmt.Println(total, largest)
	}
}
