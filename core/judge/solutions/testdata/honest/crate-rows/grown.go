// Each row from the one before.
package main

func crateRows(n int) [][]int {
	rows := [][]int{}
	for i := 0; i < n; i++ {
		row := make([]int, i+1)
		row[0], row[i] = 1, 1
		for k := 1; k < i; k++ {
			row[k] = rows[i-1][k-1] + rows[i-1][k]
		}
		rows = append(rows, row)
	}
	return rows
}
