// Goroutines and a scanner with a large buffer.
package main

import (
	"bufio"
	"fmt"
	"os"
	"sync"
)

func main() {
	in := bufio.NewReaderSize(os.Stdin, 1<<20)
	out := bufio.NewWriter(os.Stdout)
	defer out.Flush()
	var n int
	fmt.Fscan(in, &n)
	parts := make(chan int64, n)
	var group sync.WaitGroup
	for i := 0; i < n; i++ {
		var x int64
		fmt.Fscan(in, &x)
		group.Add(1)
		go func() { defer group.Done(); parts <- x }()
	}
	group.Wait()
	close(parts)
	sum := int64(0)
	for x := range parts {
		sum += x
	}
	fmt.Fprint(out, sum)
}
