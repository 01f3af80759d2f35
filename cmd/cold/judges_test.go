//go:build linux

package main

import (
	"encoding/json"
	"os"
	"path/filepath"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"coldverdict/demo"
	"coldverdict/internal/testenv"
)

// tour writes the demo's problems, and returns the folder of one.
func tour(t testing.TB, problem string) session {
	dir := t.TempDir()
	require.NoError(t, demo.Write(dir))
	return session{dir: filepath.Join(dir, problem)}
}

func TestTheCheckerIsTriedOnTheAnswersThatCasesHaveForIt(t *testing.T) {
	testenv.Need(t, "python3")
	s := tour(t, "tents")
	got := s.run(t, "try", "--checker")
	assert.Equal(t, 0, got.status, got.errors)
	assert.Contains(t, got.out, "right rejects the answer in line 18: pace 3 is rock")
	assert.Contains(t, got.out, "the checker: 15 right\n")

	script := read(t, s, "check.star")
	require.NoError(t, os.WriteFile(filepath.Join(s.dir, "check.star"), []byte(strings.Replace(script, `ground[pace - 1] == "#"`, "False", 1)), 0o644))
	got = s.run(t, "try", "--checker", "--case", "samples/*")
	assert.Equal(t, 1, got.status)
	assert.Contains(t, got.out, "wrong accepts the answer in line 18, which it must reject\n")

	require.NoError(t, os.WriteFile(filepath.Join(s.dir, "check.star"), []byte("def decide(case, got, expected):\n    return case.ints\n"), 0o644))
	got = s.run(t, "try", "--checker", "--case", "samples/one")
	assert.Equal(t, 70, got.status)
	assert.Contains(t, got.out, "fault failed on the expected output, which it must accept: the checker check.star failed:")

	for _, tt := range []struct {
		args []string
		want string
	}{
		{[]string{"tents.py"}, "--checker tries the checker, and no solution"},
		{[]string{"--json", "-"}, "goes with neither --input nor --failed nor --json"},
	} {
		got = s.run(t, append([]string{"try", "--checker"}, tt.args...)...)
		assert.Equal(t, 64, got.status)
		assert.Contains(t, got.errors, tt.want)
	}
	got = tour(t, "drift").run(t, "try", "--checker")
	assert.Equal(t, 64, got.status)
	assert.Contains(t, got.errors, "no case has an answer to try the checker on")
}

func TestPointsAndTalksAreInTheSummaryAndInJSON(t *testing.T) {
	testenv.Need(t, "python3")
	s := tour(t, "tents")
	got := s.run(t, "try", "sparse.py", "--json", "r.json")
	assert.Equal(t, 1, got.status)
	assert.Regexp(t, `(?m)^  86.11 of 100 points\n    samples     15 of 20\n    edge-cases  31.11 of 40\n    many-tents  40 of 40$`, strings.ReplaceAll(got.out, "\r", ""))
	var all struct {
		Solutions []struct {
			Points, Points_possible float64
			Groups                  []struct{ Points float64 }
			Cases                   []struct {
				Verdict string
				Share   float64
				Talk    []struct{ By, Text string }
			}
		}
	}
	decode := func(s session) {
		text := read(t, s, "r.json")
		validate(t, text)
		require.NoError(t, json.Unmarshal([]byte(text), &all))
	}
	decode(s)
	assert.InDelta(t, 86.11, all.Solutions[0].Points, 0.01)
	assert.Equal(t, 100.0, all.Solutions[0].Points_possible)
	assert.Len(t, all.Solutions[0].Groups, 3)
	assert.Equal(t, "partial", all.Solutions[0].Cases[1].Verdict)
	assert.Equal(t, 0.5, all.Solutions[0].Cases[1].Share)

	s = tour(t, "crevasse")
	got = s.run(t, "try", "unended.py", "--case", "samples/one", "--json", "r.json")
	assert.Equal(t, 1, got.status)
	assert.Contains(t, got.out, `samples/one: stalled, both sides wait: its last words "probe 50" have no line end`)
	assert.Regexp(t, `  after +unended\.py +talk\.star\n +.* +100 7\n +.*  probe 50 \(no line end\)\n  then both wait\n`, got.out)
	assert.Contains(t, got.out, "it has not flushed what it printed")
	decode(s)
	talk := all.Solutions[0].Cases[0].Talk
	require.Len(t, talk, 2)
	assert.Equal(t, "interactor 100 7, candidate probe 50", talk[0].By+" "+talk[0].Text+", "+talk[1].By+" "+talk[1].Text)
}

func TestAPersonTalksByHand(t *testing.T) {
	s := tour(t, "crevasse")
	s.input = "probe 3\ndepth 6\n"
	got := s.run(t, "talk", "two")
	assert.Equal(t, 0, got.status)
	assert.Equal(t, "6 3\ndeeper\n", got.out, "the interactor's words and nothing else")
	assert.Contains(t, got.errors, "you are the candidate of samples/two")
	assert.Contains(t, got.errors, "accepted (2 lines said by you)")
	s.input = "climb\n"
	got = s.run(t, "talk")
	assert.Equal(t, 1, got.status)
	assert.Contains(t, got.errors, `wrong answer: "climb" is neither a probe nor a depth`)
	for _, args := range [][]string{{"talk", "samples"}, {"talk", "one", "two"}, {"talk", "three"}, {"try", "--input", "-"}, {"try", "--checker"}, {"case", "keep", "one"}} {
		assert.Equal(t, 64, s.run(t, args...).status, args)
	}
	got = tour(t, "drift").run(t, "talk")
	assert.Equal(t, 64, got.status)
	assert.Contains(t, got.errors, "this problem is not interactive")

	shown, status := converse(t, s, [][2]string{{" 6 3", "depth 6 7\r"}}, "talk", "samples/two")
	assert.Equal(t, 1, status)
	assert.Contains(t, shown, "Ctrl-D ends it")
}

func TestAMistakeInAScriptIsToldBeforeAnythingRuns(t *testing.T) {
	testenv.Need(t, "python3")
	s := tour(t, "crevasse")
	require.NoError(t, os.WriteFile(filepath.Join(s.dir, "talk.star"), []byte("def talk(case, say, hear):\n    say(nothing)\n"), 0o644))
	got := s.run(t, "try", "crevasse.py")
	assert.Equal(t, 70, got.status)
	assert.Contains(t, got.out, "the interactor cannot be used: talk.star:2:9: undefined: nothing")
	assert.Equal(t, 70, s.run(t, "talk").status)
	require.NoError(t, os.Remove(filepath.Join(s.dir, "talk.star")))
	got = s.run(t, "try", "crevasse.py")
	assert.Equal(t, 64, got.status)
	assert.Contains(t, got.errors, `verdict.toml:10: there is no file "talk.star" here`)
}
