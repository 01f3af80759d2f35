// reference: whole numbers where decimals are asked for.
package main

import (
	"bufio"
	"fmt"
	"math"
	"os"
)

func main() {
	in := bufio.NewReader(os.Stdin)
	var n int
	fmt.Fscan(in, &n)
	way, sum := 0.0, 0
	var px, py float64
	for i := 0; i < n; i++ {
		var x, y float64
		fmt.Fscan(in, &x, &y)
		if i > 0 {
			way += math.Hypot(x-px, y-py)
		}
		sum += int(math.Hypot(x, y))
		px, py = x, y
	}
	fmt.Printf("%.9f\n%d\n", way, sum/n)
}
