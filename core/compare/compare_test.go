package compare

import (
	"bytes"
	"errors"
	"io"
	"math/rand/v2"
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
		{"exact, the last line end", Settings{Mode: "exact"}, "1\n", "1", seen{1, 2, "", "", "the output ends too early"}},
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

func TestTheWriterSaysWhenItHasSeenEnough(t *testing.T) {
	c, err := New(Settings{}, &Inline{Text: []byte("1\n")})
	require.NoError(t, err)
	defer c.Close()
	for range 100 {
		if _, err = c.Write(bytes.Repeat([]byte("2\n"), 100)); err != nil {
			return
		}
	}
	t.Fatal("it took all")
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
	}
	return want == got
}

func FuzzComparisonAgreesWithTheObviousOne(f *testing.F) {
	for _, seed := range [][2]string{{"1\n2\n", "1\n2"}, {"a b\n\n", "a  b"}, {" \n", ""}, {"x\ty\r\n", "x y"}, {"\v\fz", "z \n \n"}} {
		f.Add(seed[0], seed[1], uint8(1))
	}
	f.Fuzz(func(t *testing.T, want, got string, size uint8) {
		for _, mode := range []string{"exact", "lines", "tokens"} {
			d := hold(t, Settings{Mode: mode}, got, int(size)+1, want)
			if strings.HasPrefix(want, "\xef\xbb\xbf") {
				continue
			}
			assert.Equal(t, plain(mode, want, got), d == nil, "mode %s", mode)
		}
		for _, order := range AnyOrders() {
			hold(t, Settings{AnyOrder: order}, got, int(size)+1, want)
		}
		hold(t, Settings{Mode: "numbers", Absolute: 1e-6}, got, int(size)+1, want)
	})
}

// Texts that are nearly equal meet the border cases far more often than
// unrelated ones.
func TestNearlyEqualTextsAreComparedAsTheObviousWayDoes(t *testing.T) {
	random := rand.New(rand.NewPCG(7, 11))
	const letters = "ab \t\n\n\r1"
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
		for _, mode := range []string{"exact", "lines", "tokens"} {
			d := hold(t, Settings{Mode: mode}, string(got), size, string(want))
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
