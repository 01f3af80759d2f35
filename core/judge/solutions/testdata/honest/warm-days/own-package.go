// A package of its own.
package thaw

import "sort"

// Day is exported.
type Day struct{ Temp int }

func init() { loaded = true }

var loaded bool

func WarmDays(temps []int, limit int64) int {
	sort.Ints(temps)
	return len(temps) - sort.Search(len(temps), func(i int) bool { return int64(temps[i]) > limit })
}
