package verdict

import (
	"strconv"
	"strings"
)

// Size writes a number of bytes to three figures at the most: "847 KiB", "64 MiB".
func Size(n int64) string {
	units := []string{"B", "KiB", "MiB", "GiB", "TiB"}
	value, unit := float64(n), 0
	for value >= 1023.5 && unit < len(units)-1 {
		value /= 1024
		unit++
	}
	digits := 0
	if value < 99.5 && unit > 0 {
		digits = 1
	}
	number := strconv.FormatFloat(value, 'f', digits, 64)
	if strings.Contains(number, ".") {
		number = strings.TrimRight(strings.TrimRight(number, "0"), ".")
	}
	return number + " " + units[unit]
}

// Thousands writes a number with a comma between each three digits.
func Thousands(n int64) string {
	digits := strconv.FormatInt(n, 10)
	for i := len(digits) - 3; i > 0 && digits[i-1] != '-'; i -= 3 {
		digits = digits[:i] + "," + digits[i:]
	}
	return digits
}

// Count writes a number of things: "1 case", "1,200 cases".
func Count(n int, one string) string {
	if n == 1 {
		return "1 " + one
	}
	if stem, ok := strings.CutSuffix(one, "y"); ok && !strings.ContainsAny(stem[max(0, len(stem)-1):], "aeou") {
		one = stem + "ie"
	}
	return Thousands(int64(n)) + " " + one + "s"
}
