package shape

import (
	"math"
	"math/big"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestWordsHaveTheFormOfTheirStyle(t *testing.T) {
	s := parsed(t, "s: token(40, \"a-z\")")
	letters := func(word string) int {
		r := []rune(word)
		slices.Sort(r)
		return len(slices.Compact(r))
	}
	for style, is := range map[string]func(word string) bool{
		"one-letter":  func(w string) bool { return letters(w) == 1 },
		"alternating": func(w string) bool { return letters(w) == 2 && w == strings.Repeat(w[:2], 20) },
		"palindrome":  func(w string) bool { return w[:20] == reversedText(w[20:]) },
		"periodic":    func(w string) bool { return period(w) <= 20 },
		"ends":        func(w string) bool { return strings.Trim(w, "az") == "" },
		"few-letters": func(w string) bool { return letters(w) <= 2 },
		"random":      func(w string) bool { return letters(w) > 8 },
	} {
		for seed := range Seed(6) {
			in, err := s.Make(Making{Seed: seed, Style: style})
			require.NoError(t, err)
			word := strings.TrimSpace(string(in.Append(nil)))
			require.Len(t, word, 40)
			assert.True(t, is(word), "%s: %s", style, word)
		}
	}
}

func reversedText(text string) string {
	b := []byte(text)
	slices.Reverse(b)
	return string(b)
}

// period is after how many letters a word repeats itself.
func period(word string) int {
	for p := 1; p < len(word); p++ {
		if word[p:] == word[:len(word)-p] {
			return p
		}
	}
	return len(word)
}

func TestMapsHaveTheFormOfTheirStyle(t *testing.T) {
	s := parsed(t, "m: grid(6, 8, \"#.o\")")
	for style, is := range map[string]func(rows []string) bool{
		"one-symbol":   func(rows []string) bool { return strings.Trim(strings.Join(rows, ""), rows[0][:1]) == "" },
		"one-odd-cell": func(rows []string) bool { return odd(strings.Join(rows, "")) == 1 },
		"checkerboard": func(rows []string) bool {
			return rows[0] == rows[2] && rows[0][0] == rows[1][1] && rows[0][0] != rows[0][1]
		},
		"stripes": func(rows []string) bool {
			return rows[0] == rows[2] && (rows[0] == rows[1] || odd(rows[0]) == 0 && rows[0] != rows[1])
		},
		"few":    func(rows []string) bool { return odd(strings.Join(rows, "")) < 20 },
		"half":   func(rows []string) bool { return odd(strings.Join(rows, "")) > 8 },
		"random": func(rows []string) bool { return odd(strings.Join(rows, "")) > 15 },
	} {
		for seed := range Seed(6) {
			in, err := s.Make(Making{Seed: seed, Style: style})
			require.NoError(t, err)
			rows := strings.Fields(string(in.Append(nil)))
			require.Len(t, rows, 6)
			assert.True(t, is(rows), "%s: %v", style, rows)
		}
	}
}

// odd is how many characters are not the most frequent one.
func odd(text string) int {
	most := 0
	for _, r := range text {
		most = max(most, strings.Count(text, string(r)))
	}
	return len(text) - most
}

func TestWordsAreCountedAndNumbered(t *testing.T) {
	for _, tt := range []struct {
		letters int
		lengths [2]int64
		want    uint64
	}{
		{26, [2]int64{1, 1}, 26}, {26, [2]int64{0, 2}, 703}, {1, [2]int64{2, 5}, 4}, {1, [2]int64{0, 1e18}, 1e18 + 1}, {2, [2]int64{62, 62}, 1 << 62}, {2, [2]int64{100, 100}, 1 << 62}, {2, [2]int64{0, 1e18}, 1 << 62},
		{10, [2]int64{3, 3}, 1000},
	} {
		assert.Equal(t, tt.want, wordsOf(tt.letters, tt.lengths), "%d letters, %v", tt.letters, tt.lengths)
	}
	v := parsed(t, "s: token(0..2, \"ab\")").Items[0].(*lineNode).Fields[0].Value
	var all []string
	for x := range uint64(7) {
		all = append(all, v.nthWord(x, [2]int64{0, 2}))
	}
	assert.Equal(t, []string{"", "a", "b", "aa", "ab", "ba", "bb"}, all)
}

func TestDecimalsAreWrittenByTheirUnits(t *testing.T) {
	for _, tt := range []struct {
		units  int64
		places int
		want   string
	}{
		{0, 0, "0"}, {0, 2, "0.00"}, {5, 2, "0.05"}, {-5, 2, "-0.05"}, {150, 2, "1.50"}, {-12345, 3, "-12.345"}, {7, 0, "7"}, {-7, 0, "-7"},
		{math.MaxInt64, 18, "9.223372036854775807"}, {math.MinInt64, 18, "-9.223372036854775808"}, {1, 18, "0.000000000000000001"},
	} {
		assert.Equal(t, tt.want, decimalText(tt.units, tt.places))
	}
}

func TestBoundsOfRealsAreExact(t *testing.T) {
	for text, want := range map[string]string{
		"0.1": "1/10", "-0.25": "-1/4", "1e-3+0": "", "0.1 + 0.2": "3/10", "1/3": "1/3", "2^10": "1024", "7%4": "3", "-7/2": "-7/2", "0.5 * 4 - 1": "1", "1/0": "none", "max(2, 5)": "5", "abs(-3) / 4": "3/4", "0.5 ^ 2": "none", "0.5 % 2": "none",
	} {
		s, err := Parse("x: real " + text + "..1e9")
		if want == "" || want == "none" {
			if err == nil {
				continue
			}
			assert.Error(t, err, text)
			continue
		}
		require.NoError(t, err, text)
		low := s.Items[0].(*lineNode).Fields[0].Value.Range.Low
		x, _ := new(big.Rat).SetString(want)
		assert.Equal(t, x.String(), rational(low, nil).String(), text)
	}
	s := parsed(t, "x: real 1/3..2/3 places 2")
	low, high, ok := s.Items[0].(*lineNode).Fields[0].Value.units(nil, 2)
	assert.True(t, ok)
	assert.Equal(t, [2]int64{34, 66}, [2]int64{low, high}, "what lies within the bounds, and nothing beside")
	_, err := parsed(t, "x: real 0.001..0.004 places 2").Make(Making{})
	assert.ErrorContains(t, err, "a real with 2 places in its range")
}

func TestSizesGrowGeometrically(t *testing.T) {
	for _, n := range []uint64{1, 2, 3, 10, 1000, 200_000, 1 << 40, math.MaxUint64} {
		last := uint64(0)
		for size := Size(0); size <= Largest; size += Largest / 64 {
			x := size.of(n)
			assert.GreaterOrEqual(t, x, last, "%d at %s", n, size)
			last = x
		}
		assert.Equal(t, n, Largest.of(n))
		assert.EqualValues(t, 1, Size(0).of(n))
		half := float64((Largest / 2).of(n))
		assert.InEpsilon(t, math.Sqrt(float64(n)), half, 0.42, "%d", n)
	}
	assert.EqualValues(t, 1000, (Largest / 2).of(1_000_000))
	assert.Zero(t, Largest.of(0))
}

func TestNumbersAreDrawnFromTheirWholeRange(t *testing.T) {
	r := newRandom(1)
	for _, bounds := range [][2]int64{{0, 0}, {-3, 3}, {math.MinInt64, math.MaxInt64}, {math.MaxInt64 - 1, math.MaxInt64}, {math.MinInt64, math.MinInt64 + 2}, {5, 1_000_000_000_000}} {
		v := interval{low: bounds[0], high: bounds[1]}
		for _, style := range numberStyles {
			a := make([]int64, 200)
			style.do(r, a, v)
			for _, x := range a {
				require.True(t, v.low <= x && x <= v.high, "%s drew %d from %v", style.name, x, bounds)
			}
		}
		for _, style := range arrayStyles {
			for _, n := range []int{0, 1, 2, 50} {
				a := make([]int64, n)
				style.do.fill(r, a, v)
				for _, x := range a {
					require.True(t, v.low <= x && x <= v.high, "%s drew %d from %v", style.name, x, bounds)
				}
			}
		}
		for range 100 {
			x := r.magnitude(max(0, v.low), max(0, v.high))
			require.True(t, max(0, v.low) <= x && x <= max(0, v.high))
		}
	}
	set := newNumbers(1)
	for x := range uint64(1000) {
		assert.True(t, set.add(x*x))
	}
	for x := range uint64(1000) {
		assert.False(t, set.add(x*x))
	}
}

func TestValuesHaveTheNamesOfTheShape(t *testing.T) {
	s := parsed(t, `n: int 1..9, x: real 0..1 places 1
w: int[n] 0..9
m: int[2][n] 0..9
map: grid(2, 2, "#.")
t: tree(n) with (len: int 1..9, c: pick("a", "b"))
cases k: int 1..3 { p: perm(2) }
repeat 2 { s: token(1, "xy") }
repeat 1 { either { "in", v: int 1..9 } or { "out" } }
either { "last", z: int 1..9 } or { "none" }`)
	in, fault, err := s.Read(strings.NewReader("2 0.5\n3 4\n1 2\n3 4\n#.\n..\n2 1 9 b\n1\n2 1\nx\ny\nin 7\nlast 8\n"), Options{})
	require.NoError(t, err)
	require.Nil(t, fault, "%v", fault)
	list := func(v ...any) []any { return v }
	i := func(n int64) any { return n }
	assert.Equal(t, Values{
		{"n", i(2)}, {"x", 0.5}, {"w", list(i(3), i(4))}, {"m", list(list(i(1), i(2)), list(i(3), i(4)))}, {"map", list("#.", "..")},
		{"t", list(list(i(2), i(1), i(9), "b"))}, {"len", list(i(9))}, {"c", list("b")}, {"k", i(1)},
		{"cases", list(Values{{"p", list(i(2), i(1))}})}, {"bodies", list(Values{{"s", "x"}}, Values{{"s", "y"}})},
		{"bodies2", list(Values{{"branch", i(1)}, {"v", i(7)}})}, {"branch", i(1)}, {"z", i(8)},
	}, in.Values())
	n, ok := in.Count("n")
	assert.True(t, ok)
	assert.EqualValues(t, 2, n)
	_, ok = in.Count("w")
	assert.False(t, ok)
}

// TestSingleIntegersHeedWhatIsRequired makes integers of which little is allowed, and
// wants all that is.
func TestSingleIntegersHeedWhatIsRequired(t *testing.T) {
	for _, tt := range []struct {
		shape string
		want  []string // all that there is
	}{
		{"k: int 0..3\nrequire k != 1", []string{"0", "2", "3"}},
		{"k: int 1..1e9\nrequire k >= 999999998", []string{"999999998", "999999999", "1000000000"}},
		{"k: int 1..1e9\nrequire k <= 2", []string{"1", "2"}},
		{"k: int -1e9..1e9\nrequire k*k <= 1", []string{"-1", "0", "1"}},
		{"k: int 1..1e9\nrequire 2*k + 3 = 2003", []string{"1000"}},
		{"a: int 1..3, b: int 1..3\nrequire a < b", []string{"1 2", "1 3", "2 3"}},
		{"a: int 1..1e6, b: int 1..1e6\nrequire a * b >= 999999000000", nil},
		{"a: int 1..9, b: int a+6..9", []string{"1 7", "1 8", "1 9", "2 8", "2 9", "3 9"}},
		{"a: int 0..9, b: int 0..9, c: int 0..9\nrequire a + b + c >= 26", []string{"8 9 9", "9 8 9", "9 9 8", "9 9 9"}},
		{"p: int 0..60, n: int 1..1e9\nrequire n > 2^p and n < 2^p + 2 and p > 28", []string{"29 536870913"}},
	} {
		s := parsed(t, tt.shape)
		seen := map[string]bool{}
		for seed := range Seed(150) {
			in, err := s.Make(Making{Seed: seed, Size: Largest / 2})
			require.NoError(t, err, tt.shape)
			seen[strings.TrimSpace(string(in.Append(nil)))] = true
		}
		if tt.want == nil {
			continue
		}
		for _, want := range tt.want {
			assert.True(t, seen[want], "%s: %s is never made", tt.shape, want)
		}
		assert.Len(t, seen, len(tt.want), tt.shape)
	}
}
