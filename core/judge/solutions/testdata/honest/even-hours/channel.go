package main

func evenHours(n int) <-chan int {
	c := make(chan int)
	go func() {
		for i := 0; i < n; i += 2 {
			c <- i
		}
		close(c)
	}()
	return c
}
