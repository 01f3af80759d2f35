// It calls a function that is there.
package main

func firstLeaky(n int) int { return sort.Search(n-1, func(i int) bool { return isLeaky(i + 1) }) + 1 }
