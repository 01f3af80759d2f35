package compare

import (
	"bytes"
	"io"
	"strconv"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// numbered is n lines "0", "1", …
func numbered(n int) []byte {
	var b bytes.Buffer
	for i := range n {
		b.WriteString(strconv.Itoa(i))
		b.WriteByte('\n')
	}
	return b.Bytes()
}

func TestADifferenceIsFoundWhereverItLiesInALargeText(t *testing.T) {
	const lines = 50_000
	want := numbered(lines)
	for _, at := range []int{1, 4095, 10_000, 33_333, lines - 1} {
		got := bytes.Replace(want, []byte("\n"+strconv.Itoa(at)+"\n"), []byte("\nX\n"), 1)
		for _, mode := range Modes() {
			for _, size := range []int{1000, 64 << 10, 1 << 20} {
				d := hold(t, Settings{Mode: mode}, string(got), size, "never", string(want))
				require.NotNil(t, d)
				assert.Equal(t, at+1, d.Line, "mode %s", mode)
				assert.Equal(t, strconv.Itoa(at), d.Expected)
				assert.Equal(t, "X", d.Got)
				assert.Equal(t, at+1, d.GotSide.FirstLine+d.GotSide.Mark)
			}
		}
	}
}

func TestLongRunsOfBlanksCostNoMemory(t *testing.T) {
	blanks := strings.Repeat(" \t", 2<<20)
	for _, mode := range []string{"lines", "tokens", "numbers"} {
		allocated := testing.AllocsPerRun(1, func() {
			assert.Nil(t, hold(t, Settings{Mode: mode}, "1"+blanks+"\n2\n", 4096, "1\n2\n"), mode)
		})
		assert.Less(t, allocated, 10_000.0)
	}
	d := hold(t, Settings{}, "1"+blanks+"2\n", 4096, "1"+blanks+" 2\n")
	require.NotNil(t, d)
	assert.Equal(t, "spacing differs", d.Reason)
}

func TestAWordLongerThanAnyNumberIsComparedAsText(t *testing.T) {
	word := strings.Repeat("7", longestNumber+100)
	assert.Nil(t, hold(t, Settings{Mode: "numbers"}, word, 999, word+"\n"))
	assert.NotNil(t, hold(t, Settings{Mode: "numbers"}, word[:len(word)-1]+"8", 999, word+"\n"))
	assert.NotNil(t, hold(t, Settings{Mode: "numbers"}, word+"7", 999, word+"\n"))
}

func TestAReaderMayReturnAnythingThatReadersMay(t *testing.T) {
	want := numbered(1000)
	for name, reader := range map[string]io.Reader{
		"one byte at once": iotestOneByte{bytes.NewReader(want)},
		"data and its end": &dataAndEnd{want},
		"inline, read":     &Inline{Text: want},
	} {
		c, err := New(Settings{}, io.NopCloser(reader))
		require.NoError(t, err)
		c.Write(want)
		d, err := c.Result()
		require.NoError(t, err)
		assert.Nil(t, d, name)
		require.NoError(t, c.Close())
	}
}

type iotestOneByte struct{ io.Reader }

func (r iotestOneByte) Read(p []byte) (int, error) { return r.Reader.Read(p[:1]) }

// dataAndEnd returns its last bytes together with io.EOF.
type dataAndEnd struct{ rest []byte }

func (r *dataAndEnd) Read(p []byte) (int, error) {
	n := copy(p, r.rest)
	r.rest = r.rest[n:]
	if len(r.rest) == 0 {
		return n, io.EOF
	}
	return n, nil
}
