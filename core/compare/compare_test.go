package compare

import (
	"bytes"
	"errors"
	"io"
	"math/big"
	"math/rand/v2"
	"regexp"
	"slices"
	"strconv"
	"strings"
	"testing"

	"coldverdict/core/verdict"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// hold compares got, written in parts of size bytes, with the wanted texts.
func hold(t testing.TB, s Settings, got string, size int, want ...string) *verdict.Difference {
	t.Helper()
	var sources []io.ReadCloser
	for i, w := range want {
		if i%2 == 0 {
			sources = append(sources, &Inline{Text: []byte(w)})
		} else {
			sources = append(sources, io.NopCloser(strings.NewReader(w)))
		}
	}
	c, err := New(s, sources...)
	require.NoError(t, err)
	defer c.Close()
	for rest := got; rest != ""; {
		n := min(size, len(rest))
		if _, err := c.Write([]byte(rest[:n])); err != nil {
			break
		}
		rest = rest[n:]
	}
	d, err := c.Result()
	require.NoError(t, err)
	return d
}

func TestWhatEachModeTakesForEqual(t *testing.T) {
	tests := []struct {
		name      string
		want, got string
		equalIn   string // modes in which they are equal: e, l, t, n
	}{
		{"the same bytes", "3\n4\n", "3\n4\n", "eltn"},
		{"nothing and nothing", "", "", "eltn"},
		{"no last line end", "3\n", "3", "ltn"},
		{"blanks at a line end", "3\n4\n", "3 \t\n4\n", "ltn"},
		{"Windows line ends", "3\n4\n", "3\r\n4\r\n", "ltn"},
		{"blank lines at the end", "3\n", "3\n\n \n\n", "ltn"},
		{"only blanks against nothing", "", " \n\n", "ltn"},
		{"a blank line between", "3\n4\n", "3\n\n4\n", "tn"},
		{"a blank line before", "3\n", "\n3\n", "tn"},
		{"two spaces for one", "a b\n", "a  b\n", "tn"},
		{"a tab for a space", "a b\n", "a\tb\n", "tn"},
		{"indented", "a\n", " a\n", "tn"},
		{"one line for two", "a\nb\n", "a b\n", "tn"},
		{"words run together", "a b\n", "ab\n", ""},
		{"a word torn in two", "ab\n", "a b\n", ""},
		{"another word", "a\n", "b\n", ""},
		{"letter case", "Yes\n", "YES\n", ""},
		{"too little", "1\n2\n", "1\n", ""},
		{"too much", "1\n", "1\n2\n", ""},
		{"nothing printed", "1\n", "", ""},
		{"NUL is not a blank", "a\n", "a\x00\n", ""},
		{"leading zeros", "7\n", "007\n", "n"},
		{"a plus sign", "7\n", "+7\n", "n"},
		{"an integer as a real", "12\n", "12.0\n", "n"},
		{"an exponent", "1200000\n", "1.2e6\n", "n"},
		{"within the absolute tolerance", "0.5\n", "0.5000009\n", "n"},
		{"past the tolerance", "0.5\n", "0.50001\n", ""},
		{"within the relative tolerance", "1e12\n", "1000000900000.0\n", "n"},
		{"integers are never close", "1000000000000\n", "1000000000001\n", ""},
		{"400 digits, the last one differs", strings.Repeat("9", 400), strings.Repeat("9", 399) + "8", ""},
		{"minus zero as an integer", "0\n", "-0\n", "n"},
		{"minus zero as a real", "0\n", "-0.0\n", "n"},
		{"infinities", "inf\n", "Infinity\n", "n"},
		{"opposite infinities", "inf\n", "-inf\n", ""},
		{"not a number, twice", "nan\n", "NaN\n", "n"},
		{"not a number for a number", "1\n", "nan\n", ""},
		{"hexadecimal is a word", "16\n", "0x10\n", ""},
	}
	names := map[byte]string{'e': "exact", 'l': "lines", 't': "tokens", 'n': "numbers"}
	for _, tt := range tests {
		for letter, mode := range names {
			for _, size := range []int{1, 3, 1 << 20} {
				s := Settings{Mode: mode, Absolute: 1e-6, Relative: 1e-6}
				d := hold(t, s, tt.got, size, tt.want)
				assert.Equal(t, strings.IndexByte(tt.equalIn, letter) >= 0, d == nil, "%s in mode %s, %d bytes at once: %+v", tt.name, mode, size, d)
			}
		}
	}
}

func TestTheFirstDifferenceIsPlaced(t *testing.T) {
	type seen struct {
		line, column  int
		expected, got string
		reason        string
	}
	tests := []struct {
		name      string
		s         Settings
		want, got string
		seen      seen
	}{
		{"a digit", Settings{}, "10 20\n30 40\n", "10 20\n30 41\n", seen{2, 5, "40", "41", ""}},
		{"characters, not bytes", Settings{}, "čtyři pět\n", "čtyři pěx\n", seen{1, 9, "pět", "pěx", ""}},
		{"nothing", Settings{}, "3\n", "", seen{1, 1, "3", "", "nothing was printed"}},
		{"ends early", Settings{}, "1\n2\n3\n", "1\n2\n", seen{3, 1, "3", "", "the output ends too early"}},
		{"ends within a line", Settings{}, "1 2 3\n", "1 2\n", seen{1, 5, "3", "", "the output ends too early"}},
		{"goes on", Settings{}, "1\n", "1\nok\n", seen{2, 1, "", "ok", "the output goes on where it should have ended"}},
		{"line not ended", Settings{}, "1\n2\n", "1 2\n", seen{1, 2, "", "2", "the line should end here"}},
		{"line ended early", Settings{}, "1 2\n", "1\n2\n", seen{1, 2, "2", "", "the line ends too early"}},
		{"blank line", Settings{}, "1\n2\n", "1\n\n2\n", seen{2, 1, "2", "", "this blank line should not be here"}},
		{"blank line missing", Settings{}, "1\n\n2\n", "1\n2\n", seen{2, 1, "", "2", "a blank line is missing"}},
		{"spaces", Settings{}, "1 2\n", "1  2\n", seen{1, 2, "2", "2", "spacing differs"}},
		{"tokens on other lines", Settings{Mode: "tokens"}, "1 2 3\n", "1\n2\n4\n", seen{3, 1, "3", "4", ""}},
		{"a longer word", Settings{Mode: "tokens"}, "12 3\n", "123\n", seen{1, 3, "3", "123", "a space or line end is missing"}},
		{"numbers", Settings{Mode: "numbers", Absolute: 0.1}, "1.0 2.0\n", "1.05 2.5\n", seen{1, 6, "2.0", "2.5", "off by 0.5"}},
		{"exact, the last line end", Settings{Mode: "exact"}, "1\n", "1", seen{1, 2, "", "", "the last line end is missing"}},
		{"any order, a stranger", Settings{AnyOrder: "lines"}, "a\nb\n", "b\nc\n", seen{2, 1, "", "c", "this is not among the expected lines"}},
		{"any order, too often", Settings{AnyOrder: "tokens"}, "a b\n", "b b\n", seen{1, 3, "", "b", "this comes more often than expected"}},
		{"any order, missing", Settings{AnyOrder: "tokens"}, "a b c\n", "c a\n", seen{2, 1, "", "", "missing: b"}},
	}
	for _, tt := range tests {
		for _, size := range []int{1, 1 << 20} {
			t.Run(tt.name, func(t *testing.T) {
				d := hold(t, tt.s, tt.got, size, tt.want)
				require.NotNil(t, d)
				assert.Equal(t, tt.seen, seen{d.Line, d.Column, d.Expected, d.Got, d.Reason})
			})
		}
	}
}

func TestAnyOrderTakesMultisets(t *testing.T) {
	lines := Settings{AnyOrder: "lines"}
	assert.Nil(t, hold(t, lines, "b\na\nb \n\n", 2, "a\nb\nb\n"))
	assert.NotNil(t, hold(t, lines, "b a\nb\n", 2, "a b\nb\n"), "words stay in order")
	assert.NotNil(t, hold(t, lines, "\na\n", 2, "a\n"), "a blank line counts")
	assert.Nil(t, hold(t, Settings{Mode: "tokens", AnyOrder: "lines"}, "c\na  b\n", 2, "a b\nc\n"))
	assert.Nil(t, hold(t, Settings{AnyOrder: "tokens", IgnoreCase: true}, "B a\n", 2, "A\nb\n"))
	assert.NotNil(t, hold(t, Settings{Mode: "exact", AnyOrder: "lines"}, "b \na\n", 2, "a\nb\n"))
}

func TestNumbersAreHeldToTheTolerancesAsTheyAreSpelled(t *testing.T) {
	nines := strings.Repeat("9", 400)
	for _, tt := range []struct {
		want, got          string
		absolute, relative float64
		equal              bool
	}{
		{"1", "1.000001", 1e-6, 0, true}, // which floating point would take for more
		{"1", "1.0000010000001", 1e-6, 0, false},
		{"0", "0.000001", 1e-6, 0, true},
		{"100", "100.01", 0, 1e-4, true},
		{"100", "100.0100001", 0, 1e-4, false},
		{"1e400", "2e400", 1e-6, 1e-6, false},
		{"1e400", "1.0000001E+400", 0, 1e-6, true},
		{"1e400", "inf", 1e-6, 1e-6, false},
		{"1e-400", "0", 1e-6, 0, true},
		{"1e-400", "2e-400", 0, 0.5, false},
		{"0.0", "-0", 0, 0, true},
		{"100000000000000000000.5", "100000000000000000000.4", 1e-6, 0, false},
		{nines, nines + ".0", 0, 0, true},
		{nines, nines[1:] + "8.5", 0.25, 0, false},
		{nines + ".25", nines + ".5", 0.25, 0, true},
		{"1e999999999", "1e999999998", 1, 1e-6, false},
		{"1e999999999", "5", 1, 2, true},                                    // two times as much is allowed
		{"1e99999999999999999999", "1e99999999999999999998", 0, 1e-9, true}, // both out of range
		{"1e-999999999", "5", 1, 0, false},
		{"inf", "Infinity", 0, 0, true},
		{"Inf", "+∞", 0, 0, true},
		{"inf", "-inf", 1e9, 1e9, false},
		{"nan", "-nan(ind)", 0, 0, true},
		{"nan", "0", 1e9, 1e9, false},
		{"infinite", "inf", 1e9, 1e9, false},
		{"+.5", "5.e-1", 0, 0, true},
		{"0x10", "16", 1, 1, false},
		{"1_000", "1000", 1, 1, false},
		{"1e", "1", 1, 1, false},
		{".", "0", 1, 1, false},
	} {
		d := hold(t, Settings{Mode: "numbers", Absolute: tt.absolute, Relative: tt.relative}, tt.got, 7, tt.want)
		assert.Equal(t, tt.equal, d == nil, "%.20s against %.20s", tt.want, tt.got)
	}
}

func TestLetterCaseCanBeIgnored(t *testing.T) {
	for _, mode := range Modes() {
		s := Settings{Mode: mode, IgnoreCase: true}
		assert.Nil(t, hold(t, s, "YES no 3\n", 2, "Yes No 3\n"), mode)
		assert.NotNil(t, hold(t, s, "YES no 3\n", 2, "Yes Na 3\n"), mode)
	}
}

func TestOneOfSeveralAcceptedTextsSuffices(t *testing.T) {
	assert.Nil(t, hold(t, Settings{}, "2 1\n", 1, "1 2\n", "2 1\n"))
	d := hold(t, Settings{}, "2 3\n", 1, "1 2\n", "2 1\n")
	require.NotNil(t, d)
	assert.Equal(t, "1", d.Expected, "shown is the one that agrees for longest")
}

func TestTheSurroundingsOfADifferenceAreShown(t *testing.T) {
	var want, got strings.Builder
	for i := range 2000 {
		want.WriteString(strings.Repeat("x", i%50) + "\n")
		if i == 1000 {
			got.WriteString("different\n")
		} else {
			got.WriteString(strings.Repeat("x", i%50) + "\n")
		}
	}
	d := hold(t, Settings{}, got.String(), 777, want.String())
	require.NotNil(t, d)
	assert.Equal(t, 1001, d.Line)
	e := d.GotSide
	assert.Equal(t, "different", e.Lines[e.Mark])
	assert.Equal(t, 1001, e.FirstLine+e.Mark)
	assert.Len(t, e.Lines, linesBefore+1+linesAfter)
	assert.False(t, e.AtStart)
	assert.False(t, e.AtEnd)
	assert.Equal(t, strings.Repeat("x", 997%50), d.ExpectedSide.Lines[0])

	d = hold(t, Settings{}, "3\n4\n", 1, "3\n5\n")
	assert.True(t, d.GotSide.AtStart && d.GotSide.AtEnd && d.ExpectedSide.AtEnd)
	assert.Equal(t, []string{"3", "4"}, d.GotSide.Lines)
}

func TestAVeryLongLineIsCutAroundTheDifference(t *testing.T) {
	want := strings.Repeat("ž", 100_000) + "a" + strings.Repeat("z", 100_000)
	got := strings.Repeat("ž", 100_000) + "b" + strings.Repeat("z", 100_000)
	d := hold(t, Settings{}, got, 4096, want)
	require.NotNil(t, d)
	assert.Equal(t, 100_001, d.Column)
	e := d.GotSide
	assert.LessOrEqual(t, len([]rune(e.Lines[e.Mark])), lineWidth)
	assert.Equal(t, 'b', []rune(e.Lines[e.Mark])[e.Column-1-e.Starts[e.Mark]])
}

func TestItIsCountedHowManyDifferInAll(t *testing.T) {
	long := strings.Repeat("1 2\n", 5000)
	for _, tt := range []struct {
		name      string
		s         Settings
		want, got string
		differ    int
		lines     [2]int // expected and got
	}{
		{"one line", Settings{}, "1\n2\n3\n", "1\n4\n3\n", 1, [2]int{3, 3}},
		{"two of them, the last one", Settings{}, "1\n2\n3\n", "0\n2\n4", 2, [2]int{3, 3}},
		{"blanks at line ends do not count", Settings{}, "1\n2\n3\n", "0 \n2\t\n3\n\n \n", 1, [2]int{3, 3}},
		{"a line is missing", Settings{}, "1\n2\n3\n", "1\n2\n", 1, [2]int{3, 2}},
		{"there are too many", Settings{}, "1\n", "1\n\n2\n3", 3, [2]int{1, 4}},
		{"nothing was printed", Settings{}, "1\n2\n", "", 2, [2]int{2, 0}},
		{"a blank line between", Settings{}, "a\nb\n", "a\n\nb\n", 2, [2]int{2, 3}},
		{"letter case", Settings{IgnoreCase: true}, "A\nB\nC\n", "x\nb\nc\n", 1, [2]int{3, 3}},
		{"in every byte", Settings{Mode: "exact"}, "1\n2\n", "1 \n2 \n", 2, [2]int{2, 2}},
		{"words", Settings{Mode: "tokens"}, "1 2\n3 4\n", "1 5 3\n6", 2, [2]int{2, 2}},
		{"words run together", Settings{Mode: "tokens"}, "1 2 3 4\n", "12 3 4\n", 4, [2]int{1, 1}},
		{"a word torn apart", Settings{Mode: "tokens"}, "12 3", "1 2 3", 3, [2]int{1, 1}},
		{"numbers", Settings{Mode: "numbers", Absolute: 0.1}, "1.0 2.0 3.0 x", "1.05 2.5 3.01 y", 2, [2]int{1, 1}},
		{"any order", Settings{AnyOrder: "lines"}, "a\nb\nc\n", "c\nx\ny\n", 2, [2]int{}},
		{"far into a long text", Settings{}, long + "5\n6\n" + long, long + "6\n7\n" + long, 2, [2]int{10002, 10002}},
		{"far into many words", Settings{Mode: "tokens"}, long + "5 6 " + long, long + "6 6 " + long, 1, [2]int{10000, 10000}},
	} {
		t.Run(tt.name, func(t *testing.T) {
			for _, size := range []int{1, 3, 1 << 20} {
				d := hold(t, tt.s, tt.got, size, tt.want)
				require.NotNil(t, d)
				assert.Equal(t, tt.differ, d.Differ)
				assert.Equal(t, tt.lines, [2]int{d.ExpectedLines, d.GotLines})
			}
		})
	}
	blanks := strings.Repeat(" ", 10_000)
	d := hold(t, Settings{}, "1"+blanks+"2\n", 999, "1"+blanks+" 2\n")
	assert.Zero(t, d.Differ, "the beginning of the line was forgotten")
}

func TestTooManyLinesForAnyOrderAreDecidedAndNotNamed(t *testing.T) {
	many := make([]byte, 0, 16<<20)
	for i := range mostHeldItems + 10 {
		many = append(strconv.AppendInt(many, int64(i), 10), '\n')
	}
	moved := append(bytes.Clone(many[20:]), many[:20]...)
	s := Settings{AnyOrder: "lines"}
	assert.Nil(t, hold(t, s, string(moved), 1<<20, string(many)))
	changed := bytes.Replace(many, []byte("\n77777\n"), []byte("\n77778\n"), 1)
	d := hold(t, s, string(changed), 1<<20, string(many))
	require.NotNil(t, d)
	assert.Contains(t, d.Reason, "too many to say which differ")
	d = hold(t, s, string(many[2:]), 1<<20, string(many))
	require.NotNil(t, d)
	assert.Equal(t, "1 lines are missing", d.Reason)
}

type broken struct{}

func (broken) Read([]byte) (int, error) { return 0, errors.New("the disk is gone") }
func (broken) Close() error             { return nil }

func TestAnUnreadableExpectedTextIsAnErrorNotAWrongAnswer(t *testing.T) {
	c, err := New(Settings{}, broken{})
	require.NoError(t, err)
	defer c.Close()
	c.Write([]byte("1\n"))
	_, err = c.Result()
	assert.ErrorContains(t, err, "the disk is gone")
}

func TestSettingsThatCannotBeServed(t *testing.T) {
	for _, s := range []Settings{
		{Mode: "line"}, {AnyOrder: "words"}, {Mode: "numbers", AnyOrder: "tokens"}, {Mode: "numbers", Absolute: -1},
	} {
		assert.Error(t, s.Check(), "%+v", s)
		_, err := New(s, &Inline{})
		assert.Error(t, err)
	}
	_, err := New(Settings{})
	assert.Error(t, err, "nothing to compare with")
}

// plain is a second, slow and obvious way to see whether two texts are equal.
func plain(mode, want, got string) bool {
	lines := func(s string) []string {
		all := strings.Split(s, "\n")
		for i := range all {
			all[i] = strings.TrimRight(all[i], " \t\r\v\f")
		}
		for len(all) > 0 && all[len(all)-1] == "" {
			all = all[:len(all)-1]
		}
		return all
	}
	tokens := func(s string) []string {
		return strings.FieldsFunc(s, func(r rune) bool { return strings.ContainsRune(" \t\r\v\f\n", r) })
	}
	switch mode {
	case "lines":
		return strings.Join(lines(want), "\n") == strings.Join(lines(got), "\n")
	case "tokens":
		return strings.Join(tokens(want), " ") == strings.Join(tokens(got), " ")
	case "numbers":
		return slices.EqualFunc(tokens(want), tokens(got), plainClose)
	case "any lines":
		return strings.Join(slices.Sorted(slices.Values(lines(want))), "\n") == strings.Join(slices.Sorted(slices.Values(lines(got))), "\n")
	case "any tokens":
		return strings.Join(slices.Sorted(slices.Values(tokens(want))), "\n") == strings.Join(slices.Sorted(slices.Values(tokens(got))), "\n")
	}
	return want == got
}

var (
	plainInteger = regexp.MustCompile(`^[+-]?[0-9]+$`)
	plainReal    = regexp.MustCompile(`^[+-]?([0-9]+\.?[0-9]*|\.[0-9]+)([eE][+-]?[0-9]{1,4})?$`)
)

// plainTolerance is the absolute and the relative tolerance of numbers.
var plainTolerance = big.NewRat(1, 1000)

// plainClose compares two words as fractions.
func plainClose(want, got string) bool {
	if !plainReal.MatchString(want) || !plainReal.MatchString(got) {
		return want == got
	}
	w, _ := new(big.Rat).SetString(want)
	g, _ := new(big.Rat).SetString(got)
	if plainInteger.MatchString(want) && plainInteger.MatchString(got) {
		return w.Cmp(g) == 0
	}
	off := g.Sub(g, w)
	off.Abs(off)
	return off.Cmp(plainTolerance) <= 0 || off.Cmp(new(big.Rat).Mul(plainTolerance, w.Abs(w))) <= 0
}

// settingsOf are the settings of a mode as plain names it.
func settingsOf(mode string) Settings {
	if order, ok := strings.CutPrefix(mode, "any "); ok {
		return Settings{AnyOrder: order}
	}
	return Settings{Mode: mode, Absolute: 1e-3, Relative: 1e-3}
}

var plainModes = []string{"exact", "lines", "tokens", "numbers", "any lines", "any tokens"}

func FuzzComparisonAgreesWithTheObviousOne(f *testing.F) {
	for _, seed := range [][2]string{{"1\n2\n", "1\n2"}, {"a b\n\n", "a  b"}, {" \n", ""}, {"x\ty\r\n", "x y"}, {"\v\fz", "z \n \n"}} {
		f.Add(seed[0], seed[1], uint8(1))
	}
	f.Fuzz(func(t *testing.T, want, got string, size uint8) {
		if strings.HasPrefix(want, "\xef\xbb\xbf") || hugeExponent.MatchString(want+" "+got) {
			return
		}
		for _, mode := range plainModes {
			d := hold(t, settingsOf(mode), got, int(size)+1, want)
			assert.Equal(t, plain(mode, want, got), d == nil, "mode %s", mode)
		}
	})
}

// hugeExponent finds numbers that the obvious way cannot hold, and words that
// mean more to us than to it.
var hugeExponent = regexp.MustCompile(`(?i)[eE][+-]?[0-9]{4}|nan|inf|∞|#`)

func FuzzNumbersAreReadAsTheObviousWayDoes(f *testing.F) {
	for _, seed := range []string{"1", "-0", "+5", "1e5", ".5", "5.", "1.5E-300", "0x10", "1_0", "inf", "1e400", "-.0e9", "99999999999999999999"} {
		f.Add(seed, "1.001")
	}
	f.Fuzz(func(t *testing.T, want, got string) {
		for _, word := range []string{want, got} {
			if strings.ContainsAny(word, " \t\r\v\f\n") || word == "" || hugeExponent.MatchString(word) {
				return
			}
			assert.Equal(t, plainReal.MatchString(word), looksLikeReal([]byte(word)), "%q", word)
		}
		assert.Equal(t, plainClose(want, got), newTolerance(settingsOf("numbers")).sameWord([]byte(want), []byte(got)))
	})
}

// Texts that are nearly equal meet the border cases far more often than
// unrelated ones.
func TestNearlyEqualTextsAreComparedAsTheObviousWayDoes(t *testing.T) {
	random := rand.New(rand.NewPCG(7, 11))
	const letters = "ab \t\n\n\r1.0-5"
	for range 20_000 {
		want := make([]byte, random.IntN(12))
		for i := range want {
			want[i] = letters[random.IntN(len(letters))]
		}
		got := bytes.Clone(want)
		for range random.IntN(3) {
			at := random.IntN(len(got) + 1)
			got = append(got[:at:at], append([]byte{letters[random.IntN(len(letters))]}, got[at:]...)...)
		}
		size := 1 + random.IntN(5)
		for _, mode := range plainModes {
			d := hold(t, settingsOf(mode), string(got), size, string(want))
			require.Equal(t, plain(mode, string(want), string(got)), d == nil, "%s: %q against %q", mode, want, got)
		}
	}
}

func BenchmarkLines(b *testing.B) {
	block := bytes.Repeat([]byte("1234567 89 1011\n"), 4096)
	b.SetBytes(int64(len(block)) * 64)
	for b.Loop() {
		c, _ := New(Settings{}, io.NopCloser(io.LimitReader(repeat(block), int64(len(block))*64)))
		for range 64 {
			c.Write(block)
		}
		d, err := c.Result()
		if d != nil || err != nil {
			b.Fatal(d, err)
		}
		c.Close()
	}
}

type repeat []byte

func (r repeat) Read(p []byte) (int, error) { return copy(p, r[:len(p)]), nil }
