package report

import (
	"bytes"
	"encoding/csv"
	"errors"
	"image/png"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"coldverdict/core/cross"
	"coldverdict/core/grade"
	"coldverdict/core/growth"
	"coldverdict/core/judge"
	"coldverdict/core/picture"
	"coldverdict/core/problem"
	"coldverdict/core/rank"
	"coldverdict/core/ready"
	"coldverdict/core/shape"
	"coldverdict/core/toolchain"
	"coldverdict/core/verdict"
	"coldverdict/report/page"
)

var made = Maker{Version: "9", Now: time.Date(2026, 12, 1, 12, 0, 0, 0, time.UTC)}

// wrote writes a page in a form.
func wrote(t *testing.T, ending string, p *page.Page) string {
	t.Helper()
	var out bytes.Buffer
	require.NoError(t, page.Write(&out, ending, p))
	return out.String()
}

// states are those of a page's checks, by their suites and names.
func states(p *page.Page) map[string]page.State {
	all := map[string]page.State{}
	for _, c := range p.Checks {
		all[c.Suite+": "+c.Name] = c.State
	}
	return all
}

func inputCase(name, group, input string) problem.Case {
	return problem.Case{Name: name, Group: group, Input: problem.Data{Text: []byte(input), Size: int64(len(input))}}
}

// wrongOutcome differs from what was expected in the second word of a line.
var wrongOutcome = verdict.Outcome{
	Verdict: verdict.WrongAnswer, Ran: true, Message: "line 2, column 3: expected 5, got 9", Usage: verdict.Usage{CPU: 2 * time.Millisecond, Memory: 1 << 20},
	Difference: &verdict.Difference{Line: 2, Column: 3, Expected: "5", Got: "9",
		ExpectedSide: verdict.Excerpt{FirstLine: 1, Lines: []string{"10 9", "9 5"}, Mark: 1, Column: 3, AtStart: true, AtEnd: true},
		GotSide:      verdict.Excerpt{FirstLine: 1, Lines: []string{"10 9", "9 9"}, Mark: 1, Column: 3, AtStart: true, AtEnd: true}},
	Hints: []string{"something is left over"},
}

func TestThePageOfARunHasTheEvidenceForWhatFailed(t *testing.T) {
	s, err := shape.Parse("n: int 1..9, m: int 0..9\ne: graph(n, m)")
	require.NoError(t, err)
	sealed := inputCase("large/secret", "large", "secret input")
	sealed.Sealed, sealed.Input.Sealed = true, true
	p := &problem.Problem{Title: "Relay", Shape: s, Cases: []problem.Case{inputCase("samples/one", "samples", "3 1\n1 2\n"), inputCase("samples/two", "samples", "3 1\n2 3\n"), sealed}}
	limits := verdict.Limits{Time: time.Second, Memory: 1 << 28}
	pages := NewTryPage(p, made)
	pages.Tell(judge.Began{Plan: judge.Plan{Solution: problem.Solution{File: "a.cpp"}, Language: "cpp", Limits: limits}})
	pages.Tell(judge.Case{Index: 0, Outcome: verdict.Outcome{Verdict: verdict.Accepted, Ran: true, Usage: verdict.Usage{CPU: time.Millisecond, Memory: 4096}}})
	pages.Tell(judge.Case{Index: 1, Outcome: wrongOutcome})
	pages.Tell(judge.Case{Index: 2, Outcome: verdict.Outcome{Verdict: verdict.WrongAnswer, Ran: true}})
	pages.Tell(judge.Ended{Verdict: verdict.WrongAnswer, Score: &verdict.Score{Points: 20.0 / 3, Possible: 10, Known: false}})
	pages.Tell(judge.Began{Solution: 1, Plan: judge.Plan{Solution: problem.Solution{File: "b.cpp"}, Build: &toolchain.Build{Failed: true, Log: "b.cpp:1: no\n", Language: &toolchain.Language{}}}})
	pages.Tell(judge.Ended{Solution: 1, Verdict: verdict.CompileError, Message: "line 1: no"})
	got := pages.Page()
	assert.Equal(t, "2 solutions, the worst: compile error", got.Outcome)
	assert.Equal(t, map[string]page.State{
		"a.cpp: samples/one": page.Passed, "a.cpp: samples/two": page.Failed, "a.cpp: large/secret": page.Failed, "b.cpp: build": page.Errored,
	}, states(got))
	require.Len(t, got.Details, 2, "nothing is there of what is sealed")
	d := got.Details[0]
	assert.Equal(t, "a.cpp, samples/two: wrong answer, line 2, column 3: expected 5, got 9", d.Title)
	require.Len(t, d.Blocks, 3)
	assert.Equal(t, page.Line{Number: 2, Text: "9 ", Marked: "5", Differs: true}, d.Blocks[1].Lines[1])
	assert.Equal(t, page.Line{Number: 2, Text: "9 ", Marked: "9", Differs: true}, d.Blocks[2].Lines[1])
	require.Len(t, d.Figures, 1, "a small graph is drawn beside it")
	assert.Contains(t, d.Figures[0].SVG, "<svg")
	text := wrote(t, ".html", got)
	assert.NotContains(t, text, "secret input")
	assert.Contains(t, text, "at least 6.67 of 10")
	rows, err := csv.NewReader(strings.NewReader(wrote(t, ".csv", got))).ReadAll()
	require.NoError(t, err)
	assert.Equal(t, []string{"a.cpp", "samples/two", "wrong answer", "0.002000", "1048576", "line 2, column 3: expected 5, got 9"}, rows[2])
}

func TestThePageOfARunIsBounded(t *testing.T) {
	p := &problem.Problem{Title: "Teams"}
	pages := NewTryPage(p, made)
	pages.Tell(judge.Began{Plan: judge.Plan{Solution: problem.Solution{File: "a.cpp"}}})
	for i := range 3 * mostEvidence {
		p.Cases = append(p.Cases, inputCase("samples/"+strings.Repeat("x", i+1), "samples", strings.Repeat("1\n", 9999)))
		o := wrongOutcome
		o.Difference = nil
		o.Stdout = verdict.Text{Bytes: bytes.Repeat([]byte("9\n"), 9999)}
		pages.Tell(judge.Case{Index: i, Outcome: o})
	}
	pages.Tell(judge.Ended{Verdict: verdict.WrongAnswer})
	got := pages.Page()
	assert.Len(t, got.Details, mostEvidence)
	assert.Len(t, got.Checks, 3*mostEvidence)
	assert.Less(t, len(wrote(t, ".html", got)), 400_000)
}

func TestWhereTheMarkStandsInALongLine(t *testing.T) {
	cut := verdict.Excerpt{FirstLine: 7, Lines: []string{"aa bb cc"}, Starts: []int{100}, Column: 104}
	line := markedLine(page.Line{Number: 7, Text: "…aa bb cc"}, cut, 0)
	assert.Equal(t, page.Line{Number: 7, Text: "…aa ", Marked: "bb", Behind: " cc", Differs: true}, line)
	assert.Equal(t, "⏎", markedLine(page.Line{Text: "9"}, verdict.Excerpt{Lines: []string{"9"}, Column: 2}, 0).Marked)
	ended := sideBlock("got", verdict.Excerpt{FirstLine: 1, Lines: []string{"1"}, Mark: 1, AtStart: true, AtEnd: true})
	assert.Equal(t, page.Line{Marked: "end of the text", Differs: true}, ended.Lines[1])
}

func TestPagesOfSearchesLooksAndComparisons(t *testing.T) {
	p := &problem.Problem{Title: "Teams", Dir: "/station/teams", Cases: []problem.Case{inputCase("samples/one", "samples", "1\n")}}
	t.Run("cross", func(t *testing.T) {
		o := cross.Options{Seed: 9, Candidates: []problem.Solution{{File: "a.cpp"}, {File: "b.py"}}, Reference: &problem.Solution{File: "brute.py"}}
		r := &cross.Result{Base: cross.ByReference, Inputs: 7, Judged: 6, Elapsed: time.Second, Notes: []cross.Note{{Candidate: 1, Text: "it is slow"}},
			Found: []cross.Found{{Cases: []problem.Case{inputCase("", "", "1 2\n")}, Outcome: wrongOutcome, Inputs: 3, Size: 4}}}
		got := CrossPage(made, p, o, r)
		assert.Equal(t, "1 failure found", got.Outcome)
		assert.Equal(t, map[string]page.State{"a.cpp: generated inputs": page.Failed, "b.py: generated inputs": page.Passed}, states(got))
		assert.Contains(t, wrote(t, ".md", got), "b.py: it is slow")
		r.Found, r.Judged = nil, 0
		assert.Equal(t, "nothing was judged", CrossPage(made, p, o, r).Outcome)
	})
	t.Run("ready", func(t *testing.T) {
		r := &ready.Result{Outcome: ready.NotReady, Case: "samples/one", Found: &cross.Found{Cases: []problem.Case{inputCase("", "", "1 2\n")}, Outcome: wrongOutcome},
			Checks:    []ready.Check{{Name: "build", State: ready.Passed}, {Name: "source", State: ready.Doubtful, Findings: []ready.Finding{{Line: 3, Text: "a clock is read"}}}, {Name: "samples", State: ready.Failed, Message: "one"}, {Name: "growth", State: ready.Unknown}},
			Unchecked: []ready.Gap{{What: "limits", Todo: "set them"}}}
		got := ReadyPage(made, p, "a.cpp", r)
		assert.Equal(t, "not ready", got.Outcome)
		assert.Equal(t, map[string]page.State{"a.cpp: build": page.Passed, "a.cpp: source": page.Passed, "a.cpp: samples": page.Failed, "a.cpp: growth": page.Skipped}, states(got))
		assert.Equal(t, []string{"source, line 3: a clock is read", "nobody checked limits; set them"}, got.Notes)
		assert.Equal(t, "samples/one: wrong answer, line 2, column 3: expected 5, got 9", got.Details[0].Title)
	})
	t.Run("grow", func(t *testing.T) {
		point := func(n int64, cpu time.Duration) growth.Point {
			return growth.Point{Sizes: []int64{n}, Axis: growth.All, CPU: cpu, Slowest: cpu, Memory: 1 << 20, Runs: 3, Failed: verdict.Accepted}
		}
		stop := point(1000, time.Second)
		stop.Failed, stop.Message = verdict.TimeLimit, "still running"
		trend := growth.Trend{Law: "n^2", Near: []string{"n^2 log n"}, Limit: 1, Fits: growth.No, Largest: growth.Prediction{Low: 30, High: 60}}
		fits := growth.Trend{Law: "n", Limit: 1 << 28, Fits: growth.Yes}
		r := &growth.Result{Names: []string{"n"}, Largest: []int64{100_000}, Growths: []growth.Growth{{Plan: judge.Plan{Solution: problem.Solution{File: "slow.cpp"}}, Time: trend, Memory: fits, Output: fits, Points: []growth.Point{point(10, time.Millisecond), point(100, 10*time.Millisecond)}, Stop: &stop}}}
		got := GrowthPage(made, p, r)
		assert.Equal(t, "the largest input: does not fit", got.Outcome)
		assert.Equal(t, page.Failed, states(got)["slow.cpp: time at the largest input"])
		assert.Len(t, got.Figures, 1)
		text := wrote(t, ".md", got)
		assert.Contains(t, text, "n^2 (or n^2 log n)")
		assert.Contains(t, text, "predicted 30 s to 60 s")
		assert.Contains(t, wrote(t, ".csv", got), "solution,style,n,cpu_seconds,memory_bytes,message\n")
		assert.Contains(t, wrote(t, ".csv", got), "\"time limit exceeded, still running\"")
	})
	t.Run("rank", func(t *testing.T) {
		place := func(file string, ratio, low float64) rank.Place {
			return rank.Place{Plan: judge.Plan{Solution: problem.Solution{File: file}}, Time: time.Duration(ratio * 1e6), Memory: 1 << 20, Ratio: rank.Ratio{Ratio: ratio, Low: low, High: ratio + 0.1}}
		}
		r := &rank.Result{Rounds: 9, Cases: []int{0}, Places: []rank.Place{place("a.cpp", 1, 1), place("b.cpp", 1.8, 1.7), {Plan: judge.Plan{Solution: problem.Solution{File: "c.cpp"}}, Failed: &judge.Ended{Verdict: verdict.WrongAnswer, Message: "line 1"}}}}
		got := RankPage(made, p, r)
		assert.Equal(t, "a.cpp is the fastest", got.Outcome)
		assert.Equal(t, page.Failed, states(got)["c.cpp: ranked"])
		require.Len(t, got.Figures, 1)
		assert.True(t, strings.HasPrefix(got.Figures[0].SVG, "<svg"))
		r.Places[1].Ratio.Low = 0.9
		assert.Equal(t, "no difference between the first two that could be shown", RankPage(made, p, r).Outcome)
		r.Places = r.Places[2:]
		assert.Empty(t, RankPage(made, p, r).Figures)
	})
	t.Run("grade", func(t *testing.T) {
		score := &verdict.Score{}
		score.Add(verdict.GroupScore{Name: "samples", Points: 20.0 / 3, Possible: 10, Known: true})
		pointed := *p
		pointed.Rules = []problem.GroupRule{{Name: "samples", Points: 10}}
		r := &grade.Result{Pupils: 1, Cases: []grade.CaseCount{{Case: 0, Failed: 1}}, Alike: []grade.Pair{{A: 0, B: 1, Same: true, Share: 1}}, People: []grade.Graded{
			{Person: grade.Person{Name: "anna", Tries: []grade.Try{{Name: "anna.py"}}}, Tries: []grade.Tried{{Verdict: verdict.WrongAnswer, Message: "samples/one", Score: score, Groups: map[string]grade.GroupCount{"samples": {Passed: 0, Cases: 1}}}}},
			{Person: grade.Person{Name: "=ben", Lacks: "nothing was handed in"}, Counts: -1},
		}}
		got := GradesPage(made, &pointed, r)
		assert.Equal(t, map[string]page.State{"Teams: anna": page.Failed, "Teams: =ben": page.Skipped}, states(got))
		assert.Equal(t, "person,samples,points,verdict,reason,file,tries\nanna,6.67,6.67,wrong answer,samples/one,anna.py,1\n=ben,,,,nothing was handed in,,0\n", wrote(t, ".csv", got))
		assert.Contains(t, wrote(t, ".md", got), "| anna, =ben | 100 % | the same but for names and spacing |")
	})
	t.Run("many", func(t *testing.T) {
		all := NewMany()
		results := NewTry(p)
		results.Tell(judge.Began{Plan: judge.Plan{Solution: problem.Solution{File: "a.cpp"}}})
		results.Tell(judge.Case{Outcome: wrongOutcome})
		results.Tell(judge.Ended{Verdict: verdict.WrongAnswer})
		all.Add("teams", results, nil)
		all.Add("broken", nil, errors.New("cases.md:2: never closed"))
		got := all.Page(made)
		assert.Equal(t, "0 of 2 problems accepted", got.Outcome)
		assert.Equal(t, map[string]page.State{"teams: a.cpp samples/one": page.Failed, "broken: problem": page.Errored}, states(got))
	})
}

// A difference between values that were returned has no lines around it.
func TestValuesThatDifferStandBesideEachOtherInEveryReport(t *testing.T) {
	outcome := verdict.Outcome{Verdict: verdict.WrongAnswer, Ran: true, Message: "[1] is 9, expected 5", Difference: &verdict.Difference{Path: "[1]", Expected: "[4,5]", Got: "[4,9]"}}
	p := &problem.Problem{Title: "Thaw", Dir: "/station/thaw", Cases: []problem.Case{inputCase("samples/one", "samples", "[1]\n")}}
	found := cross.Found{Cases: []problem.Case{inputCase("", "", "[1]\n")}, Outcome: outcome}
	results := NewTryPage(p, made)
	results.Tell(judge.Began{Plan: judge.Plan{Solution: problem.Solution{File: "thaw.py"}}})
	results.Tell(judge.Case{Outcome: outcome})
	results.Tell(judge.Ended{Verdict: verdict.WrongAnswer})
	o := cross.Options{Candidates: []problem.Solution{{File: "thaw.py"}}, Reference: &problem.Solution{File: "brute.py"}}
	for command, got := range map[string]*page.Page{
		"try":   results.Page(),
		"cross": CrossPage(made, p, o, &cross.Result{Base: cross.ByReference, Inputs: 1, Judged: 1, Found: []cross.Found{found}}),
		"ready": ReadyPage(made, p, "thaw.py", &ready.Result{Outcome: ready.NotReady, Case: "samples/one", Found: &found}),
	} {
		t.Run(command, func(t *testing.T) {
			require.Len(t, got.Details, 1)
			texts := map[string]string{}
			for _, b := range got.Details[0].Blocks {
				for _, line := range b.Lines {
					texts[b.Title] += line.Text
				}
			}
			assert.Equal(t, "[4,5]", texts["expected"])
			assert.Equal(t, "[4,9]", texts["got"])
			assert.Contains(t, wrote(t, ".html", got), "[4,9]")
		})
	}
}

func TestEveryKindOfPictureIsDrawn(t *testing.T) {
	graph := &picture.Graph{From: 1, N: 4, Directed: true, Edges: []picture.Edge{{A: 0, B: 1, Label: "77"}, {A: 1, B: 0}, {A: 2, B: 2, Label: "88"}, {A: 2, B: 3}}}
	for name, row := range map[string]struct {
		p     picture.Picture
		marks *picture.Marks
		has   []string
	}{
		"a graph":  {picture.Picture{Graph: graph}, &picture.Marks{Vertices: map[int]bool{1: true}, Edges: map[[2]int]bool{{0, 1}: true}}, []string{">77<", ">88<", ">4<"}},
		"a grid":   {picture.Picture{Grid: []string{".#", "#S"}}, &picture.Marks{Cells: map[[2]int]bool{{0, 0}: true}}, []string{">S<"}},
		"bars":     {picture.Picture{Bars: []float64{1, -2, 3}}, &picture.Marks{Items: map[int]bool{1: true}}, []string{">-2<"}},
		"spans":    {picture.Picture{Spans: [][2]float64{{0, 5}, {2, 90}}}, nil, []string{">2 to 90<"}},
		"points":   {picture.Picture{Points: &picture.Points{At: [][2]float64{{0, 0}, {4, 2}}, Closed: true}}, nil, []string{"x from 0 to 4, y from 0 to 2"}},
		"cycles":   {picture.Picture{Cycles: [][]int64{{1, 2}, {3}}}, nil, []string{">3<"}},
		"a word":   {picture.Picture{Word: &picture.Word{Text: "abab", Repeat: "ab", At: []int{0, 2}}}, nil, []string{">b<"}},
		"one size": {picture.Picture{Points: &picture.Points{At: [][2]float64{{5, 5}, {5, 5}}}}, nil, []string{"x from 5 to 5"}},
		"nothing":  {picture.Picture{}, nil, nil},
	} {
		t.Run(name, func(t *testing.T) {
			rows := [][]Panel{{{Title: "expected <&>", Picture: row.p, Marks: row.marks}, {Title: "got", Picture: row.p}}}
			draw := func(format string) []byte {
				var out bytes.Buffer
				require.NoError(t, DrawPictures(&out, format, rows, false))
				return out.Bytes()
			}
			svg := draw("svg")
			assert.Equal(t, svg, draw("svg"), "the same bytes each time")
			for _, text := range append(row.has, "expected &lt;&amp;&gt;") {
				assert.Contains(t, string(svg), text)
			}
			assert.NotContains(t, string(svg), "NaN")
			drawn, err := png.Decode(bytes.NewReader(draw("png")))
			require.NoError(t, err)
			assert.Positive(t, drawn.Bounds().Dx())
		})
	}
	assert.Error(t, DrawPictures(&bytes.Buffer{}, "pdf", nil, false))
}
