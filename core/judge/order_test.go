package judge

import (
	"math/rand/v2"
	"os"
	"path/filepath"
	"testing"

	"coldverdict/core/compare"
	"coldverdict/core/problem"
	"coldverdict/core/verdict"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestWhateverOrderCasesFinishInTheyAreToldInTheirs(t *testing.T) {
	random := rand.New(rand.NewPCG(3, 5))
	for range 50 {
		var told []int
		q := &inOrder{
			total: 20, waiting: map[int]verdict.Outcome{},
			running: func(int) {},
			tell:    func(i int, o verdict.Outcome) { told = append(told, i); assert.Equal(t, i, o.ExitCode) },
		}
		var open []int
		begun := 0
		for len(told) < q.total {
			if begun < q.total {
				open = append(open, begun)
				begun++
				if len(open) == 1 || random.IntN(2) == 0 {
					continue
				}
			}
			pick := random.IntN(len(open))
			q.put(open[pick], verdict.Outcome{Verdict: verdict.Accepted, ExitCode: open[pick]})
			open = append(open[:pick], open[pick+1:]...)
		}
		assert.IsIncreasing(t, told)
		assert.Len(t, q.results, q.total)
		assert.Empty(t, q.waiting, "nothing is kept of what was told")
	}
}

func TestInputsAreOpenedAtTheirStartAsAJudgeGivesThem(t *testing.T) {
	dir := t.TempDir()
	for name, pair := range map[string][2]string{
		"plain":              {"1 2\n3\n", "1 2\n3\n"},
		"empty":              {"", ""},
		"windows":            {"1\r\n2\r\n", "1\n2\n"},
		"marked":             {"\xef\xbb\xbf1\n", "1\n"},
		"marked and windows": {"\xef\xbb\xbf1\r\n\r\n", "1\n\n"},
		"one return within":  {"a\rb\nc\n", "a\rb\nc\n"},
		"a return later on":  {"a\nb\r\n", "a\nb\r\n"},
		"no line end at all": {"abc\r", "abc\r"},
	} {
		path := filepath.Join(dir, name)
		require.NoError(t, os.WriteFile(path, []byte(pair[0]), 0o644))
		for _, data := range []problem.Data{{Path: path, Size: int64(len(pair[0]))}, {Text: []byte(pair[1])}} {
			file, err := openInput(data)
			require.NoError(t, err)
			buffer := make([]byte, 100)
			n, _ := file.Read(buffer)
			assert.Equal(t, pair[1], string(buffer[:n]), name)
			file.Close()
		}
	}
	_, err := openInput(problem.Data{Path: filepath.Join(dir, "gone")})
	assert.Error(t, err)
}

func TestSmallAndLargeExpectedFilesAreReadAlike(t *testing.T) {
	dir := t.TempDir()
	for _, size := range []int{0, 1, smallText, smallText + 1, 300_000} {
		text := make([]byte, size)
		for i := range text {
			text[i] = "12345678 \n"[i%10]
		}
		path := filepath.Join(dir, "out")
		require.NoError(t, os.WriteFile(path, text, 0o644))
		source, err := expectedFile(problem.Data{Path: path, Size: int64(size)})
		require.NoError(t, err)
		c, err := compare.New(compare.Settings{Mode: "exact"}, source)
		require.NoError(t, err)
		c.Write(text)
		difference, err := c.Result()
		require.NoError(t, err)
		assert.Nil(t, difference, "%d bytes", size)
		require.NoError(t, c.Close())
	}
}

func TestRemarksNameTheDifference(t *testing.T) {
	for want, d := range map[string]verdict.Difference{
		"line 3: expected 12, got 13":                         {Line: 3, Column: 1, Expected: "12", Got: "13"},
		"line 3, column 5: expected nothing, got x":           {Line: 3, Column: 5, Got: "x"},
		"line 1: the output ends too early":                   {Line: 1, Column: 1, Expected: "3", Reason: "the output ends too early"},
		"nothing was printed":                                 {Line: 1, Column: 1, Expected: "3", Reason: "nothing was printed", Kind: verdict.InAll},
		"line 1: expected 0.5, got 0.75 (off by 0.25)":        {Line: 1, Column: 1, Expected: "0.5", Got: "0.75", Reason: "off by 0.25", Kind: verdict.InAmount},
		"line 1: expected aaaaaaaaaaaaaaaaaaaaaaaa…, got bbb": {Line: 1, Column: 1, Expected: "aaaaaaaaaaaaaaaaaaaaaaaaaaaaaa", Got: "bbb"},
	} {
		assert.Equal(t, want, differenceWords(&d))
	}
}
