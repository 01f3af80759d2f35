package verdict

import (
	"encoding/json"
	"math"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestSizesHaveThreeFiguresAtTheMost(t *testing.T) {
	for n, want := range map[int64]string{
		0: "0 B", 1: "1 B", 999: "999 B", 1023: "1023 B", 1024: "1 KiB", 1536: "1.5 KiB", 847 << 10: "847 KiB",
		1 << 20: "1 MiB", 64 << 20: "64 MiB", 100<<20 - 1: "100 MiB", 1<<20 - 1: "1 MiB", 1<<30 - 1: "1 GiB", 3 << 29: "1.5 GiB", 5 << 40: "5 TiB",
		math.MaxInt64: "8388608 TiB",
	} {
		assert.Equal(t, want, Size(n), "%d", n)
	}
}

func TestNumbersHaveCommasFromAThousandOn(t *testing.T) {
	for n, want := range map[int64]string{
		0: "0", 999: "999", 1000: "1,000", -999: "-999", -1000: "-1,000", -100000: "-100,000", 1234567: "1,234,567", math.MinInt64: "-9,223,372,036,854,775,808",
	} {
		assert.Equal(t, want, Thousands(n))
	}
	assert.Equal(t, []string{"0 cases", "1 case", "2 cases", "1,200 cases"}, []string{Count(0, "case"), Count(1, "case"), Count(2, "case"), Count(1200, "case")})
}

func TestTheScoreIsKnownWhereEveryGroupWasJudged(t *testing.T) {
	var s Score
	s.Add(GroupScore{"a", 30, 30, true})
	s.Add(GroupScore{"b", 12.5, 70, true})
	assert.Equal(t, Score{42.5, 100, true, []GroupScore{{"a", 30, 30, true}, {"b", 12.5, 70, true}}}, s)
	s.Add(GroupScore{"c", 0, 10, false})
	assert.False(t, s.Known)
	s.Add(GroupScore{"d", 5, 5, true})
	assert.False(t, s.Known, "a group that was judged does not make up for one that was not")
	assert.Equal(t, 47.5, s.Points)
	assert.Equal(t, 115.0, s.Possible)
	assert.False(t, Score{}.Known)
}

func TestAnOutcomeIsSaidWithItsRemark(t *testing.T) {
	assert.Equal(t, "accepted", Outcome{Verdict: Accepted}.Said())
	assert.Equal(t, "wrong answer, expected 2, got 3", Outcome{Verdict: WrongAnswer, Message: "expected 2, got 3"}.Said())
	assert.Equal(t, 3*time.Second, Usage{Wall: 5 * time.Second, Starved: 2 * time.Second}.Own())
}

func TestAVerdictIsWrittenInWordsAndReadInBothForms(t *testing.T) {
	text, err := json.Marshal(map[string]Verdict{"v": MemoryLimit})
	require.NoError(t, err)
	assert.JSONEq(t, `{"v": "memory limit exceeded"}`, string(text))
	for _, one := range []string{`"memory limit exceeded"`, `"MLE"`} {
		var v Verdict
		require.NoError(t, json.Unmarshal([]byte(one), &v))
		assert.Equal(t, MemoryLimit, v)
	}
	v := Accepted
	assert.ErrorContains(t, json.Unmarshal([]byte(`"well"`), &v), `"well" is no verdict; write one such as "wrong answer" or "TLE"`)
	assert.Equal(t, Accepted, v, "it stays as it was")
	assert.Equal(t, []string{"verdict 99", "??", "verdict -1"}, []string{Verdict(99).String(), Verdict(99).Short(), Verdict(-1).String()})
}
