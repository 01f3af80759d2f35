// It prints on its way.
package main

func loud(n int) int { fmt.Println("n is", n); return n * n }
