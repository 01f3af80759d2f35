package problem

import (
	"fmt"
	"math"
	"strconv"
	"strings"
	"time"
)

var sizeUnits = map[string]float64{
	"b": 1,
	"k": 1 << 10, "kib": 1 << 10, "kb": 1e3,
	"m": 1 << 20, "mib": 1 << 20, "mb": 1e6,
	"g": 1 << 30, "gib": 1 << 30, "gb": 1e9,
}

// ParseSize reads a size as people write it: "256MiB", "256 MB", "1.5 GiB".
// MiB is 1,048,576 bytes and MB is 1,000,000. The result is in bytes, at least 1.
func ParseSize(s string) (int64, error) {
	number, unit := splitUnit(s)
	factor, known := sizeUnits[strings.ToLower(unit)]
	value, err := strconv.ParseFloat(number, 64)
	switch {
	case err != nil:
		return 0, fmt.Errorf("%q is no size; write one such as \"256MiB\"", s)
	case unit == "":
		return 0, fmt.Errorf("%q has no unit; write %q", s, number+"MiB")
	case !known:
		return 0, fmt.Errorf("%q has an unknown unit %q; write one of B, KiB, MiB, GiB, KB, MB, GB", s, unit)
	}
	bytes := value * factor
	if bytes < 1 || bytes > math.MaxInt64/2 {
		return 0, fmt.Errorf("%q is out of range; write a size such as \"256MiB\"", s)
	}
	return int64(bytes), nil
}

var timeUnits = map[string]time.Duration{
	"us": time.Microsecond, "µs": time.Microsecond,
	"ms": time.Millisecond, "s": time.Second, "sec": time.Second,
	"second": time.Second, "seconds": time.Second,
	"m": time.Minute, "min": time.Minute,
}

// ParseTime reads a duration as people write it: "2s", "1.5 s", "1500ms",
// "2min". The result is above zero and at most a day.
func ParseTime(s string) (time.Duration, error) {
	number, unit := splitUnit(s)
	factor, known := timeUnits[strings.ToLower(unit)]
	value, err := strconv.ParseFloat(number, 64)
	switch {
	case err != nil:
		return 0, fmt.Errorf("%q is no duration; write one such as \"2s\" or \"1500ms\"", s)
	case unit == "":
		return 0, fmt.Errorf("%q has no unit; write %q", s, number+"s")
	case !known:
		return 0, fmt.Errorf("%q has an unknown unit %q; write one of ms, s, min", s, unit)
	}
	d := value * float64(factor)
	if d < 1 || d > float64(24*time.Hour) {
		return 0, fmt.Errorf("%q is out of range; write a duration such as \"2s\"", s)
	}
	return time.Duration(d), nil
}

func splitUnit(s string) (number, unit string) {
	s = strings.TrimSpace(s)
	end := 0
	for end < len(s) && (s[end] >= '0' && s[end] <= '9' || s[end] == '.' || s[end] == '-' || s[end] == '+') {
		end++
	}
	return s[:end], strings.TrimSpace(s[end:])
}
